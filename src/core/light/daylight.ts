import { getPosition } from 'suncalc';
import { chromaticityToLinear, luminance, type Rgb } from '../finishes/colour';
import { unit3, type Vec3 } from '../geometry/vec';
import type { Site } from '../project/schema';
import { radians } from '../units/angle';

/** Sun and sky of a place, date and time, in photometric units. */
export interface Daylight {
  /** Towards the sun, in the model's axes. */
  sun: Vec3;
  /** Altitude of the sun, radians; negative at night. */
  altitude: number;
  /** Illuminance on a plane facing the sun, lux, with its colour (linear sRGB whose luminance is that illuminance). */
  sunIlluminance: Rgb;
  /** Luminance of the sky in a direction (unit vector, z up), cd/m² as linear sRGB. */
  sky(direction: Vec3): Rgb;
  /** Light the horizontal ground receives from the sky alone, lux. */
  skyIlluminance: Rgb;
}

/** Half the apparent diameter of the sun, radians. */
export const SUN_RADIUS = 0.004654;

/** The instant a site's local date and time stand for. */
export function siteInstant(site: Site): Date {
  return new Date(Date.parse(`${site.moment}:00Z`) - site.offset * 60000);
}

/** Where the sun stands, from the astronomical formulas in suncalc: altitude and direction in the model's axes. */
export function sunPosition(site: Site): { altitude: number; direction: Vec3 } {
  const { altitude, azimuth } = sunAngles(siteInstant(site), site.latitude, site.longitude);
  // Azimuth from north, clockwise; the plan's x axis is turned by the direction of north.
  const heading = site.north - azimuth;
  return {
    altitude,
    direction: {
      x: Math.cos(heading) * Math.cos(altitude),
      y: Math.sin(heading) * Math.cos(altitude),
      z: Math.sin(altitude),
    },
  };
}

/** Altitude above the horizon and azimuth clockwise from north, radians. */
export function sunAngles(date: Date, latitude: number, longitude: number): { altitude: number; azimuth: number } {
  const position = getPosition(date, latitude, longitude);
  return { altitude: radians(position.altitude), azimuth: radians(position.azimuth) };
}

const perez = (c: readonly number[], cosTheta: number, gamma: number): number =>
  (1 + c[0] * Math.exp(c[1] / Math.max(0.01, cosTheta))) * (1 + c[2] * Math.exp(c[3] * gamma) + c[4] * Math.cos(gamma) ** 2);

/**
 * Daylight after Preetham, Shirley and Smits, "A practical analytic model for daylight" (1999): luminance and
 * chromaticity of the clear sky by turbidity; the sun's colour from Rayleigh and aerosol extinction along its air
 * mass, its illuminance from the IES clear-sky formula E = 127.5 klx · exp(−c·m), c scaled with turbidity.
 */
export function daylight(site: Site): Daylight {
  const { altitude, direction } = sunPosition(site);
  const T = site.turbidity;
  const up = Math.max(altitude, 0.01);
  const thetaS = Math.PI / 2 - up;
  const chi = (4 / 9 - T / 120) * (Math.PI - 2 * thetaS);
  // After sunset the sky fades out over six degrees of twilight.
  const dusk = altitude >= 0 ? 1 : Math.max(0, 1 + altitude / 0.105) ** 3;
  const zenithY = Math.max(0.05, (4.0453 * T - 4.971) * Math.tan(chi) - 0.2155 * T + 2.4192) * 1000 * dusk;
  const [t1, t2, t3] = [thetaS, thetaS ** 2, thetaS ** 3];
  const zenithX =
    (0.00166 * t3 - 0.00375 * t2 + 0.00209 * t1) * T * T +
    (-0.02903 * t3 + 0.06377 * t2 - 0.03202 * t1 + 0.00394) * T +
    (0.11693 * t3 - 0.21196 * t2 + 0.06052 * t1 + 0.25886);
  const zenithYc =
    (0.00275 * t3 - 0.0061 * t2 + 0.00317 * t1) * T * T +
    (-0.04214 * t3 + 0.0897 * t2 - 0.04153 * t1 + 0.00516) * T +
    (0.15346 * t3 - 0.26756 * t2 + 0.0667 * t1 + 0.26688);
  const cY = [0.1787 * T - 1.463, -0.3554 * T + 0.4275, -0.0227 * T + 5.3251, 0.1206 * T - 2.5771, -0.067 * T + 0.3703];
  const cx = [-0.0193 * T - 0.2592, -0.0665 * T + 0.0008, -0.0004 * T + 0.2125, -0.0641 * T - 0.8989, -0.0033 * T + 0.0452];
  const cy = [-0.0167 * T - 0.2608, -0.095 * T + 0.0092, -0.0079 * T + 0.2102, -0.0441 * T - 1.6537, -0.0109 * T + 0.0529];
  const sunUp = unit3({ ...direction, z: Math.max(direction.z, 0.01) });
  const base = [cY, cx, cy].map((c) => perez(c, 1, thetaS));
  const sky = (d: Vec3): Rgb => {
    const cosTheta = Math.max(0, d.z);
    const gamma = Math.acos(Math.max(-1, Math.min(1, d.x * sunUp.x + d.y * sunUp.y + d.z * sunUp.z)));
    const Y = (zenithY * perez(cY, cosTheta, gamma)) / base[0];
    const x = (zenithX * perez(cx, cosTheta, gamma)) / base[1];
    const y = (zenithYc * perez(cy, cosTheta, gamma)) / base[2];
    const rgb = chromaticityToLinear(x, y);
    return [rgb[0] * Y, rgb[1] * Y, rgb[2] * Y];
  };
  return { sun: direction, altitude, sunIlluminance: sunLight(altitude, T), sky, skyIlluminance: integrateSky(sky) };
}

function sunLight(altitude: number, turbidity: number): Rgb {
  if (altitude <= 0) return [0, 0, 0];
  const degrees = (altitude * 180) / Math.PI;
  // Relative air mass after Kasten and Young (1989).
  const m = 1 / (Math.sin(altitude) + 0.50572 * (degrees + 6.07995) ** -1.6364);
  const beta = 0.04608 * turbidity - 0.04586;
  const through = (micrometres: number): number => Math.exp(-m * (0.008735 * micrometres ** -4.08 + beta * micrometres ** -1.3));
  const rgb: Rgb = [through(0.61), through(0.55), through(0.465)];
  const white = luminance(rgb);
  const lux = 127500 * Math.exp(-0.21 * (turbidity / 3) * m);
  return [(rgb[0] / white) * lux, (rgb[1] / white) * lux, (rgb[2] / white) * lux];
}

/** Illuminance of the horizontal plane from a sky: the integral of L·cos θ over the hemisphere. */
function integrateSky(sky: (d: Vec3) => Rgb): Rgb {
  const sum = [0, 0, 0];
  const [rings, spokes] = [16, 32];
  for (let i = 0; i < rings; i++)
    for (let j = 0; j < spokes; j++) {
      // Equal shares of projected solid angle.
      const r = Math.sqrt((i + 0.5) / rings);
      const a = ((j + 0.5) / spokes) * 2 * Math.PI;
      const l = sky({ x: r * Math.cos(a), y: r * Math.sin(a), z: Math.sqrt(1 - r * r) });
      for (let c = 0; c < 3; c++) sum[c] += l[c];
    }
  const k = Math.PI / (rings * spokes);
  return [sum[0] * k, sum[1] * k, sum[2] * k];
}
