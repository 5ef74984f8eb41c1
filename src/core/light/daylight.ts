import { getPosition } from 'suncalc';
import { luminance, type Rgb } from '../finishes/colour';
import type { Vec3 } from '../geometry/vec';
import type { Site } from '../project/schema';
import { radians } from '../units/angle';
import { Atmosphere, overSky, ScatteredSky, sunThrough } from './atmosphere';
import { beamIlluminance, diffuseIlluminance, PUBLISHED_HAZE } from './published';
import { relativeLuminance, skyType } from './sky-types';

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

const dot = (a: Vec3, b: Vec3): number => a.x * b.x + a.y * b.y + a.z * b.z;
const times = (c: Rgb, k: number): Rgb => [c[0] * k, c[1] * k, c[2] * k];
/** A colour at luminance 1; what gives no light is white. */
const tint = (c: Rgb): Rgb => (luminance(c) > 0 ? times(c, 1 / luminance(c)) : [1, 1, 1]);

/** The sun below which no colours are told apart any more: the end of nautical twilight. */
const NIGHT = Math.sin(radians(-12));

/** Airs and skies worked out last: a slider of the time, or of the haze, asks for the same again and again. */
const airs = new Map<number, Atmosphere>();
const skies = new Map<string, ScatteredSky>();

function kept<K, V>(store: Map<K, V>, key: K, most: number, make: () => V): V {
  let value = store.get(key);
  if (value === undefined) {
    if (store.size >= most) store.delete(store.keys().next().value as K);
    store.set(key, (value = make()));
  }
  return value;
}

/** The sky as the air scatters it. @param up sine of the sun's altitude */
function scattered(haze: number, up: number): ScatteredSky {
  const sun = Math.max(NIGHT, up);
  return kept(
    skies,
    `${haze} ${sun}`,
    6,
    () =>
      new ScatteredSky(
        kept(airs, haze, 3, () => new Atmosphere(haze)),
        sun,
      ),
  );
}

/** Day of the year of a local moment, from 1. */
const dayOf = (moment: string): number =>
  Math.round((Date.parse(`${moment.slice(0, 10)}T00:00Z`) - Date.parse(`${moment.slice(0, 4)}-01-01T00:00Z`)) / 86_400_000) + 1;

/**
 * Sun and sky of a site. The luminances of the sky are spread as ISO 15469 has it for the kind of sky chosen, and give
 * the ground the illuminance that was published for it; what the haze adds or takes from a clear sky, and every colour,
 * comes from light scattered in the air (`atmosphere.ts`). While the sun is below the horizon the sky is spread as at
 * sunset. Moonlight and the light of towns are left out.
 */
export function daylight(site: Site): Daylight {
  const { altitude, direction } = sunPosition(site);
  const type = skyType(site.sky);
  const up = Math.sin(altitude);
  const clear = type.group === 'clear';
  const haze = clear ? site.turbidity : PUBLISHED_HAZE;
  const through = sunThrough(haze, up);
  const sunIlluminance = times(tint(through), beamIlluminance(type, haze, altitude, dayOf(site.moment)));

  const blue = scattered(haze, up);
  // Clouds are lit from above by all there is, and pass it on without a colour of their own.
  const above = blue.ground();
  const direct = times(through, Math.max(0, up));
  const grey = tint([above[0] + direct[0], above[1] + direct[1], above[2] + direct[2]]);
  const clouds = clear ? 0 : type.group === 'intermediate' ? 0.5 : 1;
  const more =
    haze === PUBLISHED_HAZE ? 1 : luminance(scattered(haze, Math.max(0, up)).ground()) / luminance(scattered(PUBLISHED_HAZE, Math.max(0, up)).ground());
  const lux = diffuseIlluminance(type.group, altitude) * more;

  const flat = Math.hypot(direction.x, direction.y) || 1;
  const [sx, sy] = [direction.x / flat, direction.y / flat];
  // The sun of the distribution does not sink below the horizon.
  const [tx, ty, tz] = altitude >= 0 ? [direction.x, direction.y, direction.z] : [sx, sy, 0];
  const spread = (d: Vec3): number => relativeLuminance(type, Math.max(0, d.z), d.x * tx + d.y * ty + d.z * tz);
  let sum = 0;
  overSky(24, 64, (d, solid) => (sum += spread(d) * d.z * solid));
  const scale = lux / sum;

  const air = [0, 0, 0];
  const sky = (d: Vec3): Rgb => {
    const l = spread(d) * scale;
    if (clouds === 1) return times(grey, l);
    const side = Math.sqrt(d.x * d.x + d.y * d.y);
    const around = side > 1e-6 ? Math.acos(Math.max(-1, Math.min(1, (d.x * sx + d.y * sy) / side))) : 0;
    blue.at(d.z, around, air);
    const k = (l * (1 - clouds)) / Math.max(1e-30, 0.2126 * air[0] + 0.7152 * air[1] + 0.0722 * air[2]);
    return [air[0] * k + grey[0] * l * clouds, air[1] * k + grey[1] * l * clouds, air[2] * k + grey[2] * l * clouds];
  };
  const level = { x: 0, y: 0, z: 1 };
  return { sun: direction, altitude, sunIlluminance, sky, skyIlluminance: fromSky(sky, level) };
}

/** Illuminance of a plane from a sky, lux as linear sRGB: the integral of L·cos over what of the sky it faces. */
function fromSky(sky: (d: Vec3) => Rgb, normal: Vec3): Rgb {
  const sum: [number, number, number] = [0, 0, 0];
  overSky(24, 64, (d, solid) => {
    const cos = dot(d, normal);
    if (cos <= 0) return;
    const l = sky(d);
    for (let c = 0; c < 3; c++) sum[c] += l[c] * cos * solid;
  });
  return sum;
}

/** What an unobstructed plane receives from the sun and from the sky, lux. What the ground throws back is left out. @param normal unit vector */
export function received(light: Daylight, normal: Vec3): { sun: number; sky: number } {
  return {
    sun: Math.max(0, dot(light.sun, normal)) * luminance(light.sunIlluminance),
    sky: luminance(fromSky(light.sky, normal)),
  };
}

/** What the level ground and walls towards the four quarters receive from sun and sky, lux. */
export function illuminances(site: Site): Record<'ground' | 'north' | 'east' | 'south' | 'west', { sun: number; sky: number }> {
  const light = daylight(site);
  const towards = (turn: number): Vec3 => ({ x: Math.cos(site.north - turn), y: Math.sin(site.north - turn), z: 0 });
  return {
    ground: received(light, { x: 0, y: 0, z: 1 }),
    north: received(light, towards(0)),
    east: received(light, towards(Math.PI / 2)),
    south: received(light, towards(Math.PI)),
    west: received(light, towards(-Math.PI / 2)),
  };
}
