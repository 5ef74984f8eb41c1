import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { luminance } from '../finishes/colour';
import { dot3, unit3, type Vec3 } from '../geometry/vec';
import { emptyProject, type Site, type Surroundings } from '../project/schema';
import { overSky } from './atmosphere';
import { daylight, sunPosition } from './daylight';
import { fromDisplay, lightPixels, packLight, radianceOf, type LightPixels } from './rgbe';
import { chosenSurroundings, fetchSurroundings, litBy, sceneryOf, Scenery, sunInPlace } from './surroundings';

const base: Surroundings = {
  picture: { kind: 'shipped', landscape: 'meadow' },
  lie: 'round',
  turn: 0,
  at: { x: 0, y: 0 },
  lift: 0,
  tilt: 0,
  distance: 20,
  width: 30,
  foot: 0,
  lights: true,
  reach: 40,
};
const own: Site = { ...emptyProject('p', 'P').site, ground: 0 };
const day = daylight(own);

/** A picture whose light is told place by place; u to the right, v down, 0…1. */
function picture(width: number, height: number, of: (u: number, v: number) => number): LightPixels {
  const radiance = new Float32Array(width * height * 3);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) radiance.fill(of((x + 0.5) / width, (y + 0.5) / height), (y * width + x) * 3, (y * width + x) * 3 + 3);
  return lightPixels(radiance, width, height);
}
const scenery = (set: Partial<Surroundings>, pixels: LightPixels): Scenery => new Scenery({ ...base, ...set }, pixels, own.ground, day);

describe('a picture of light, four bytes a pixel', () => {
  it('keeps the brightest channel to a 256th part, over twenty-five powers of ten, and says nothing of what is no number', () => {
    fc.assert(
      fc.property(fc.double({ min: -12, max: 12, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true }), (power, share) => {
        const value = 10 ** power;
        const out = new Uint8Array(4);
        packLight(value, value * share, 0, out, 0);
        const [r, g, b] = radianceOf({ width: 1, height: 1, rgbe: out });
        expect(Math.abs(r / value - 1)).toBeLessThan(1 / 255);
        expect(Math.abs(g - value * share)).toBeLessThan(value / 255);
        expect(b).toBeLessThan(value / 255);
      }),
    );
    for (const bad of [NaN, Infinity, -1]) {
      const out = Uint8Array.of(9, 9, 9, 9);
      packLight(bad, bad, bad, out, 0);
      expect([...out]).toEqual([0, 0, 0, 0]);
    }
  });

  it('is made smaller with its mean unchanged', () => {
    const whole = picture(64, 32, (u, v) => 1 + u + 3 * v);
    const small = lightPixels(radianceOf(whole), 64, 32, 16);
    expect([small.width, small.height]).toEqual([16, 8]);
    const mean = (p: LightPixels): number => radianceOf(p).reduce((sum, v) => sum + v, 0) / (p.width * p.height * 3);
    expect(mean(small) / mean(whole)).toBeCloseTo(1, 2);
  });

  it('has the white of a display as 1 and its middle grey as sRGB has it', () => {
    const [white, grey] = radianceOf(fromDisplay({ width: 2, height: 1, data: Uint8Array.of(255, 255, 255, 255, 128, 128, 128, 255) })).filter(
      (_, i) => i % 3 === 0,
    );
    expect(white).toBeCloseTo(1, 2);
    expect(grey).toBeCloseTo(0.2158, 2);
  });
});

describe('a picture all round', () => {
  it('lies where it is turned, lifted and tilted to: its middle, its sides and its top', () => {
    const at = (set: Partial<Surroundings>, u: number, v: number): Vec3 =>
      scenery(
        set,
        picture(8, 4, () => 1),
      ).towards(u, v);
    const close = (d: Vec3, x: number, y: number, z: number): void => [d.x - x, d.y - y, d.z - z].forEach((v) => expect(v).toBeCloseTo(0, 6));
    close(at({ turn: 0 }, 0.5, 0.5), 1, 0, 0);
    // A quarter to the right is clockwise as seen from above.
    close(at({ turn: 0 }, 0.75, 0.5), 0, -1, 0);
    close(at({ turn: Math.PI / 2 }, 0.5, 0.5), 0, 1, 0);
    close(at({ turn: 1 }, 0.3, 0), 0, 0, 1);
    close(at({ lift: 0.3 }, 0.5, 0.5), Math.cos(0.3), 0, Math.sin(0.3));
    // Tilted clockwise, what was on the right hangs lower.
    expect(at({ tilt: 0.2 }, 0.75, 0.5).z).toBeCloseTo(-Math.sin(0.2), 6);
  });

  it('finds the place in the picture of every direction again', () => {
    const angle = fc.double({ min: -0.8, max: 0.8, noNaN: true });
    const share = fc.double({ min: 0.01, max: 0.99, noNaN: true });
    fc.assert(
      fc.property(angle, angle, fc.double({ min: -7, max: 7, noNaN: true }), share, share, (lift, tilt, turn, u, v) => {
        const made = scenery({ lift, tilt, turn }, plain);
        const d = made.towards(u, v);
        expect(Math.hypot(d.x, d.y, d.z)).toBeCloseTo(1, 9);
        const place = made.placeOf({ x: 3, y: -2, z: 1 }, d)!;
        expect(place.u).toBeCloseTo(u, 6);
        expect(place.v).toBeCloseTo(v, 6);
        for (const [a, b] of [
          [0, 1],
          [0, 2],
          [1, 2],
        ])
          expect(dot3(made.axes[a], made.axes[b])).toBeCloseTo(0, 9);
      }),
    );
  });
  const plain = picture(16, 8, () => 1);

  it.each([
    ['of one brightness', (): number => 1],
    ['brighter above', (_u: number, v: number): number => 2 - v],
    ['with a sun of fifty thousand times the rest', (u: number, v: number): number => (Math.hypot(u - 0.4, v - 0.2) < 0.006 ? 50000 : 1)],
  ])('%s gives the ground what the sky of the moment gives', (_, of) => {
    const made = scenery({ turn: 0.7, lift: 0.1 }, picture(512, 256, of));
    let lux = 0;
    overSky(200, 400, (d, solid) => (lux += luminance(made.light(d)) * d.z * solid));
    expect(lux / luminance(day.skyIlluminance)).toBeCloseTo(1, 1.7);
  });

  it('is the light of the sky only where it is to be; the sun stays', () => {
    const made = scenery({}, plain);
    const d = unit3({ x: 0.3, y: 0.2, z: 0.8 });
    expect(litBy(day, made).sky(d)).toEqual(made.light(d));
    expect(litBy(day, made).sunIlluminance).toBe(day.sunIlluminance);
    expect(litBy(day, scenery({ lights: false }, plain))).toBe(day);
    expect(litBy(day, scenery({ lie: 'flat' }, plain))).toBe(day);
    expect(litBy(day, null)).toBe(day);
  });

  it('is dark by night, as bright by day as the day is', () => {
    const night = { ...own, moment: '2026-05-12T23:50' };
    const dark = new Scenery(
      base,
      picture(16, 8, () => 1),
      0,
      daylight(night),
    );
    expect(dark.scale).toBeLessThan(scenery({}, plain).scale / 1000);
  });

  it('has its sun turned to where the sun of the moment stands, and is left as it is by night', () => {
    const sunny = picture(128, 64, (u, v) => (Math.abs(u - 0.2) < 0.01 && Math.abs(v - 0.3) < 0.02 ? 500 : 1));
    const turned = sunInPlace({ ...base, turn: 0.3 }, sunny, own);
    const { direction } = sunPosition(own);
    const found = new Scenery(turned, sunny, 0, day).brightest();
    expect(Math.abs(Math.atan2(Math.sin(found - Math.atan2(direction.y, direction.x)), Math.cos(found - Math.atan2(direction.y, direction.x))))).toBeLessThan(
      0.06,
    );
    expect(sunInPlace(base, sunny, { ...own, moment: '2026-05-12T23:50' })).toBe(base);
  });
});

describe('a flat picture', () => {
  const made = scenery(
    { lie: 'flat', turn: Math.PI / 2, at: { x: 5, y: 0 }, distance: 20, width: 30, foot: -2 },
    picture(30, 15, () => 1),
  );
  it('stands upright at its distance, moves behind a window as one walks, and ends at its edges', () => {
    expect(made.height).toBeCloseTo(15, 9);
    const look = (x: number, y: number, z: number, to: Vec3): { u: number; v: number } | null =>
      made.placeOf({ x, y, z }, unit3({ x: to.x - x, y: to.y - y, z: to.z - z }));
    // Its lower middle, its left and right edges as seen from the house, its top.
    expect(look(5, 0, 1.6, { x: 5, y: 20, z: -2 })!.u).toBeCloseTo(0.5, 6);
    expect(look(5, 0, 1.6, { x: 5, y: 20, z: 5.5 })!.v).toBeCloseTo(0.5, 6);
    expect(look(5, 0, 1.6, { x: -9.9, y: 20, z: 1 })!.u).toBeCloseTo(0.1 / 30, 6);
    expect(look(5, 0, 1.6, { x: 19.9, y: 20, z: 1 })!.u).toBeCloseTo(1 - 0.1 / 30, 6);
    expect(look(5, 0, 1.6, { x: 20.1, y: 20, z: 1 })).toBeNull();
    expect(look(5, 0, 1.6, { x: 5, y: 20, z: 13.1 })).toBeNull();
    expect(look(5, 0, 1.6, { x: 5, y: -20, z: 1 })).toBeNull();
    expect(look(5, 0, 1.6, { x: 6, y: 0, z: 1.6 })).toBeNull();
    // Straight on, a step of a metre is a metre of the picture.
    expect(made.placeOf({ x: 6, y: 0, z: 1 }, { x: 0, y: 1, z: 0 })!.u - made.placeOf({ x: 5, y: 0, z: 1 }, { x: 0, y: 1, z: 0 })!.u).toBeCloseTo(1 / 30, 9);
  });

  it('is as bright in the mean as a grey of 18 % in all the light there is', () => {
    const all = luminance(day.skyIlluminance) + luminance(day.sunIlluminance) * day.sun.z;
    expect((made.scale * (1 + 0.5 / 128)) / ((0.18 * all) / Math.PI)).toBeCloseTo(1, 1.7);
  });
});

describe('surroundings that are chosen', () => {
  const corners = { a: { id: 'a', level: 'ground', x: 2, y: 1 }, b: { id: 'b', level: 'ground', x: 10, y: 5 } };
  const chosen = (site: Site, pixels: LightPixels): Surroundings => chosenSurroundings({ site, corners }, base.picture, pixels);

  it('lie about the middle of the house; twice as wide as high all round, others flat with their middle at the height of an eye', () => {
    const round = chosen(
      own,
      picture(16, 8, () => 1),
    );
    expect([round.lie, round.at]).toEqual(['round', { x: 6, y: 3 }]);
    const flat = chosen(
      { ...own, ground: -0.3 },
      picture(12, 8, () => 1),
    );
    expect(flat.lie).toBe('flat');
    expect(-0.3 + flat.foot + flat.width / 1.5 / 2).toBeCloseTo(1.6, 3);
    // In a project without walls they lie about its origin.
    expect(
      chosenSurroundings(
        { site: own, corners: {} },
        base.picture,
        picture(4, 4, () => 1),
      ).at,
    ).toEqual({ x: 0, y: 0 });
  });

  it('keep distance, reach and whether they give light from those before', () => {
    const before = { ...base, lights: false, reach: 12, distance: 7 };
    expect(
      chosen(
        { ...own, surroundings: before },
        picture(16, 8, () => 1),
      ),
    ).toMatchObject({ lights: false, reach: 12, distance: 7 });
  });

  it('are there once their picture has come, and are read once', async () => {
    const site: Site = { ...own, surroundings: { ...base, picture: { kind: 'own', name: 'Lane', image: 'c'.repeat(64), ratio: 2 } } };
    expect(sceneryOf(site)).toBeNull();
    let read = 0;
    const bring = (): Promise<LightPixels> => Promise.resolve((read++, picture(16, 8, () => 1)));
    await fetchSurroundings(site, bring);
    await fetchSurroundings(site, bring);
    await fetchSurroundings(own, bring);
    expect(read).toBe(1);
    expect(sceneryOf(site)!.pixels.width).toBe(16);
    expect(sceneryOf(own)).toBeNull();
  });
});
