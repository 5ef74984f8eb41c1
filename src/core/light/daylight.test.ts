import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { luminance } from '../finishes/colour';
import { emptyProject, type Site } from '../project/schema';
import { degrees, radians } from '../units/angle';
import type { Vec3 } from '../geometry/vec';
import { Atmosphere, overSky, ScatteredSky } from './atmosphere';
import { daylight, illuminances, siteInstant, sunPosition } from './daylight';
import { airMass, diffuseIlluminance, SOLAR_CONSTANT, twilightIlluminance } from './published';
import { relativeLuminance, SKY_TYPES, skyType, type SkyGroup } from './sky-types';

const site = (set: Partial<Site>): Site => ({ ...emptyProject('p', 'P').site, ...set });

describe('the sun', () => {
  it('stands at noon of the equinox at 90° − latitude, due south', () => {
    // Solar noon at longitude 0 on 2026-03-20 is 12:07:30 UTC (equation of time −7.5 min).
    const { altitude, direction } = sunPosition(site({ latitude: 51.5, longitude: 0, north: Math.PI / 2, moment: '2026-03-20T12:07', offset: 0 }));
    expect(degrees(altitude)).toBeCloseTo(90 - 51.5, 0);
    expect(direction.x).toBeCloseTo(0, 2);
    expect(direction.y).toBeLessThan(0);
  });

  it('stands at midsummer noon at 90° − latitude + 23.44°', () => {
    const { altitude } = sunPosition(site({ latitude: 52.2, longitude: 0, moment: '2026-06-21T12:02', offset: 0 }));
    expect(degrees(altitude)).toBeCloseTo(90 - 52.2 + 23.44, 0);
  });

  it('rises in the east and follows a plan that is turned', () => {
    const morning = site({ latitude: 0, longitude: 0, moment: '2026-03-20T07:00', offset: 0, north: Math.PI / 2 });
    expect(sunPosition(morning).direction.x).toBeGreaterThan(0.9);
    // North along +x: east is then −y.
    expect(sunPosition({ ...morning, north: 0 }).direction.y).toBeLessThan(-0.9);
  });

  it('reads local time by its distance from UTC', () => {
    expect(siteInstant(site({ moment: '2026-05-12T10:40', offset: 60 })).toISOString()).toBe('2026-05-12T09:40:00.000Z');
  });
});

/** A site at the equator’s longitude whose sun stands so high at noon of the equinox, a little off due south. */
const sunAt = (altitude: number, set: Partial<Site> = {}): Site =>
  site({ latitude: 90 - altitude, longitude: 0, offset: 0, moment: '2026-03-20T12:07', ...set });

/** Perez and others (1990): what tilted planes receive from the sky, by eight kinds of sky; the last are the clear ones. */
const PEREZ = [
  [1.065, -0.008, 0.588, -0.062, -0.06, 0.072, -0.022],
  [1.23, 0.13, 0.683, -0.151, -0.019, 0.066, -0.029],
  [1.5, 0.33, 0.487, -0.221, 0.055, -0.064, -0.026],
  [1.95, 0.568, 0.187, -0.295, 0.109, -0.152, -0.014],
  [2.8, 0.873, -0.392, -0.362, 0.226, -0.462, 0.001],
  [4.5, 1.132, -1.237, -0.412, 0.288, -0.823, 0.056],
  [6.2, 1.06, -1.6, -0.359, 0.264, -1.127, 0.131],
  [Infinity, 0.678, -0.327, -0.25, 0.156, -1.377, 0.251],
];
function perezWall(diffuse: number, beam: number, altitude: number, cosIncidence: number): number {
  const zenith = Math.PI / 2 - altitude;
  const k = 1.041 * zenith ** 3;
  const clearness = ((diffuse + beam) / diffuse + k) / (1 + k);
  const [, f11, f12, f13, f21, f22, f23] = PEREZ.find(([most]) => clearness < most)!;
  const brightness = (airMass(altitude) * diffuse) / SOLAR_CONSTANT;
  const f1 = Math.max(0, f11 + f12 * brightness + f13 * zenith);
  const f2 = f21 + f22 * brightness + f23 * zenith;
  return diffuse * ((1 - f1) / 2 + (f1 * Math.max(0, cosIncidence)) / Math.max(Math.cos(radians(85)), Math.sin(altitude)) + f2);
}

describe('daylight on the ground', () => {
  const published: Record<SkyGroup, (h: number) => number> = {
    clear: (h) => 800 + 15_500 * Math.sqrt(Math.sin(h)),
    intermediate: (h) => 300 + 45_000 * Math.sin(h),
    overcast: (h) => 300 + 21_000 * Math.sin(h),
  };

  it.each([...SKY_TYPES.map((t) => [t.number, t.group] as const)])(
    'sky %i gives what is published for %s ones, from 0.5° to 90°, within half a per cent',
    (sky, group) => {
      for (const h of [0.5, 2, 7, 15, 30, 45, 60, 75, 90]) {
        const light = daylight(sunAt(h, { sky }));
        const from = luminance(light.skyIlluminance);
        expect(Math.abs(from / published[group](light.altitude) - 1)).toBeLessThan(0.005);
      }
    },
  );

  it('has the published sun: 127.5 klx dimmed by 0.21 or 0.8 for every air mass, by the day’s distance', () => {
    for (const h of [3, 7, 30, 60, 90])
      for (const [sky, depth] of [
        [12, 0.21],
        [7, 0.8],
        [1, Infinity],
        [9, Infinity],
      ]) {
        const light = daylight(sunAt(h, { sky }));
        // 20 March is day 79; the air mass where it is 1/sin h to a hundredth, above 10°.
        const m = h > 10 ? 1 / Math.sin(light.altitude) : airMass(light.altitude);
        const lux = 127_500 * (1 + 0.034 * Math.cos((2 * Math.PI * 77) / 365)) * Math.exp(-depth * m);
        if (lux === 0) expect(luminance(light.sunIlluminance)).toBe(0);
        else expect(Math.abs(luminance(light.sunIlluminance) / lux - 1)).toBeLessThan(0.01);
      }
  });

  it('loses sun and gains sky with haze, never gaining more than was lost', () => {
    for (const h of [7, 20, 45, 80]) {
      const at = (turbidity: number) => illuminances(sunAt(h, { turbidity })).ground;
      const [clear, hazy] = [at(2), at(6)];
      expect(hazy.sun).toBeLessThan(clear.sun);
      expect(hazy.sky).toBeGreaterThan(clear.sky);
      expect(hazy.sky - clear.sky).toBeLessThan(clear.sun - hazy.sun);
    }
  });

  it('in twilight follows the published decline, without a step, to the light of stars', () => {
    // Civil twilight ends at 3.4 lx, nautical at 8 mlx, astronomical at 0.65 mlx.
    for (const [h, lux] of [
      [-6, 3.4],
      [-12, 0.008],
      [-18, 0.00065],
      [-40, 0.00065],
    ])
      expect(twilightIlluminance(radians(h)) / lux).toBeCloseTo(1, 1);
    for (const group of ['clear', 'intermediate', 'overcast'] as const) {
      for (let h = -18; h < 5; h += 0.05) {
        const [low, high] = [diffuseIlluminance(group, radians(h)), diffuseIlluminance(group, radians(h + 0.05))];
        expect(high).toBeGreaterThan(low * 0.985);
        // The root of the clear sky’s formula rises steeply from the horizon.
        expect(high).toBeLessThan(low * (h < 0 ? 1.06 : 1.6));
      }
    }
    for (const h of [-1.5, -4, -11, -17]) {
      const light = daylight(sunAt(h));
      expect(luminance(light.sunIlluminance)).toBe(0);
      expect(luminance(light.skyIlluminance) / diffuseIlluminance('clear', light.altitude)).toBeCloseTo(1, 2);
    }
  });

  it('adds up to the integral of the sky it shows', () => {
    for (const sky of [1, 5, 7, 12, 15]) {
      const d = daylight(sunAt(35, { sky }));
      // An independent sum over the hemisphere in equal steps of angle.
      let e = 0;
      const [n, m] = [200, 400];
      for (let i = 0; i < n; i++)
        for (let j = 0; j < m; j++) {
          const theta = ((i + 0.5) / n) * (Math.PI / 2);
          const phi = ((j + 0.5) / m) * 2 * Math.PI;
          const l = luminance(d.sky({ x: Math.sin(theta) * Math.cos(phi), y: Math.sin(theta) * Math.sin(phi), z: Math.cos(theta) }));
          e += l * Math.cos(theta) * Math.sin(theta) * (Math.PI / 2 / n) * ((2 * Math.PI) / m);
        }
      expect(luminance(d.skyIlluminance) / e).toBeCloseTo(1, 2);
    }
  });
});

describe('daylight on façades', () => {
  it('under an even sky is half of the ground’s, under the overcast one the published 0.38 to 0.40', () => {
    for (const [sky, share, within] of [
      [5, 0.5, 1e-3],
      [1, 0.39, 0.012],
    ]) {
      const { ground, north, east, south, west } = illuminances(sunAt(40, { sky }));
      for (const wall of [north, east, south, west]) {
        expect(Math.abs(wall.sky / ground.sky - share)).toBeLessThan(within);
        expect(wall.sun).toBe(0);
      }
    }
  });

  it('under a clear sky keeps near Perez and others’ figures, measured under real skies, on all four', () => {
    // Their formula puts the brightness about the sun into the sun itself: at a high sun it leaves walls too little.
    for (const h of [10, 20, 30, 45, 60]) {
      const own = sunAt(h);
      const { altitude, sun, sunIlluminance } = daylight(own);
      const walls = illuminances(own);
      for (const [name, normal, within] of [
        ['north', [0, 1], 0.25],
        ['south', [0, -1], 0.25],
        ['east', [1, 0], 0.45],
        ['west', [-1, 0], 0.45],
      ] as const) {
        const figure = perezWall(walls.ground.sky, luminance(sunIlluminance), altitude, sun.x * normal[0] + sun.y * normal[1]);
        expect(Math.abs(walls[name].sky / figure - 1), `${name} at ${h}°`).toBeLessThan(within);
      }
    }
  });

  it('under a clear sky keeps within a fifth of what scattering alone gives them, by day from 5° to 80°', () => {
    const air = new Atmosphere(3);
    for (const h of [5, 10, 20, 30, 45, 60, 80]) {
      const { altitude, sun } = daylight(sunAt(h));
      const sky = new ScatteredSky(air, Math.sin(altitude));
      const azimuth = Math.atan2(sun.y, sun.x);
      const from = (normal: Vec3): number => {
        let e = 0;
        overSky(32, 96, (d, solid) => {
          const l: [number, number, number] = [0, 0, 0];
          const turn = Math.abs(Math.atan2(d.y, d.x) - azimuth) % (2 * Math.PI);
          sky.at(d.z, Math.min(turn, 2 * Math.PI - turn), l);
          e += luminance(l) * Math.max(0, d.x * normal.x + d.y * normal.y + d.z * normal.z) * solid;
        });
        return e;
      };
      const walls = illuminances(sunAt(h));
      const ground = from({ x: 0, y: 0, z: 1 });
      for (const [name, normal] of Object.entries({ north: [0, 1], east: [1, 0], south: [0, -1], west: [-1, 0] }))
        expect(
          Math.abs(walls[name as 'north'].sky / walls.ground.sky / (from({ x: normal[0], y: normal[1], z: 0 }) / ground) - 1),
          `${name} at ${h}°`,
        ).toBeLessThan(0.2);
    }
  });

  it('turns with the plan, and gives the sun to the wall it shines on by the cosine', () => {
    const [upright, turned] = [illuminances(sunAt(30)), illuminances(sunAt(30, { north: 0.3 }))];
    for (const wall of ['north', 'east', 'south', 'west'] as const) {
      expect(turned[wall].sky / upright[wall].sky).toBeCloseTo(1, 2);
      expect(turned[wall].sun - upright[wall].sun).toBeCloseTo(0, 6);
    }
    expect(upright.south.sun / upright.ground.sun).toBeCloseTo(1 / Math.tan(radians(30)), 1);
    expect(upright.north.sun).toBe(0);
  });
});

describe('the spread of a sky', () => {
  it('is that of the standard: the overcast zenith about three times the horizon, the clear one brightest about the sun', () => {
    expect(relativeLuminance(skyType(1), 1, 0) / relativeLuminance(skyType(1), 0, 0)).toBeCloseTo(1 + 4 * Math.exp(-0.7), 9);
    expect(relativeLuminance(skyType(5), 0.3, 0.7)).toBe(1);
    // Worked by hand for type 12, sun and direction 60° apart, the direction at 45°.
    const hand = (1 - Math.exp(-0.32 / Math.SQRT1_2)) * (1 + 10 * (Math.exp(-Math.PI) - Math.exp(-1.5 * Math.PI)) + 0.45 * 0.25);
    expect(relativeLuminance(skyType(12), Math.SQRT1_2, 0.5)).toBeCloseTo(hand, 12);
    expect(() => skyType(16)).toThrow(RangeError);
  });

  it('is never negative, in no sky and no direction, by day and by night', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 15 }),
        fc.double({ min: -60, max: 90, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 6.3, noNaN: true }),
        (sky, h, z, a) => {
          const s = Math.sqrt(1 - z * z);
          const l = daylight(sunAt(h, { sky })).sky({ x: s * Math.cos(a), y: s * Math.sin(a), z });
          for (const c of l) expect(c).toBeGreaterThanOrEqual(0);
          expect(luminance(l)).toBeGreaterThan(0);
          expect(Number.isFinite(luminance(l))).toBe(true);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('has colour in the clear sky, none of its own in the overcast one', () => {
    const up = { x: 0, y: 0, z: 1 };
    const [clear, overcast] = [12, 1].map((sky) => daylight(sunAt(40, { sky })).sky(up));
    expect(clear[2] / clear[0]).toBeGreaterThan(1.8);
    expect(Math.abs(overcast[2] / overcast[0] - 1)).toBeLessThan(0.25);
  });

  it('makes the low sun redder than the high one', () => {
    const red = (h: number): number => {
      const { sunIlluminance: e } = daylight(sunAt(h));
      return e[0] / e[2];
    };
    expect(red(6)).toBeGreaterThan(red(60) * 1.5);
  });
});
