import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { luminance } from '../finishes/colour';
import { random } from '../testing/random';
import { radians } from '../units/angle';
import { airMasses, Atmosphere, BANDS, hazeDepth, luminousDepth, observer, overSky, ozoneDepth, rayleighDepth, ScatteredSky, sunThrough } from './atmosphere';
import { airMass } from './published';

const sin = (degrees: number): number => Math.sin(radians(degrees));

describe('air masses', () => {
  it('of molecules agree with Kasten and Young to 1 % above 10°, and to a tenth down to 1°', () => {
    for (const h of [90, 70, 50, 30, 20, 10]) expect(Math.abs(airMasses(0, sin(h))![0] / airMass(radians(h)) - 1)).toBeLessThan(0.01);
    // Their formula bends the line of sight, which lies straight here.
    for (const h of [5, 3, 2, 1]) expect(Math.abs(airMasses(0, sin(h))![0] / airMass(radians(h)) - 1)).toBeLessThan(0.1);
  });

  it('are whole columns overhead and nothing above the air; the earth is in the way below the horizon', () => {
    for (const m of airMasses(0, 1)!) expect(m).toBeCloseTo(1, 2);
    expect(airMasses(79_000, 1)![0]).toBeLessThan(1e-4);
    expect(airMasses(0, -0.01)).toBeNull();
    // From a height one looks below the level: by the Chapman function, √(π·r/2H) columns on either side of the lowest point.
    const lowest = airMasses(10_000, -Math.sqrt(1 - (6_371 / 6_381) ** 2) + 1e-7, 4000)![0];
    expect(lowest).toBeGreaterThan(1.5 * Math.sqrt((Math.PI * 6371) / 16));
  });
});

describe('optical depths', () => {
  it('are those published for the wavelengths of the eye', () => {
    // Bodhaine and others (1999), standard pressure.
    for (const [nm, depth] of [
      [400, 0.3603],
      [500, 0.1424],
      [550, 0.0965],
      [700, 0.0361],
    ])
      expect(rayleighDepth(nm) / depth).toBeCloseTo(1, 1);
    expect(ozoneDepth(600)).toBeCloseTo(0.036, 2);
    expect(ozoneDepth(420)).toBe(0);
    expect(luminousDepth(3)).toBeCloseTo(0.21, 9);
    expect(hazeDepth(1.8, 550)).toBeLessThan(0.01);
    expect(hazeDepth(6, 550) + rayleighDepth(550) + ozoneDepth(550)).toBeCloseTo(luminousDepth(6), 9);
  });

  it('dim the sun as the published clear sky has it: within 3 % above 10°', () => {
    for (const haze of [2, 3, 6])
      for (const h of [90, 60, 30, 15, 10]) {
        const lux = luminance(sunThrough(haze, sin(h)));
        expect(lux / Math.exp(-luminousDepth(haze) * airMass(radians(h)))).toBeGreaterThan(0.97);
        expect(lux / Math.exp(-luminousDepth(haze) * airMass(radians(h)))).toBeLessThan(1.06);
      }
  });

  it('make the sun yellow, then red, and the sky opposite blue', () => {
    const red = [90, 30, 10, 3].map((h) => sunThrough(3, sin(h))[0] / sunThrough(3, sin(h))[1]);
    expect(red).toEqual([...red].sort((a, b) => a - b));
    const zenith = new Atmosphere(2).radiance(1, sin(40), sin(40));
    expect(zenith[2]).toBeGreaterThan(2 * zenith[0]);
  });

  it('are seen by an observer whose green is 683 of 683 lm/W at 555 nm', () => {
    expect(observer(555)[1]).toBeCloseTo(1, 1);
    let [x, y, z] = [0, 0, 0];
    for (let nm = 360; nm <= 830; nm++) {
      const o = observer(nm);
      x += o[0];
      y += o[1];
      z += o[2];
    }
    // The three functions of the CIE enclose the same area.
    expect(x / y).toBeCloseTo(1, 2);
    expect(z / y).toBeCloseTo(1, 2);
  });
});

/**
 * Part of the sunlight above flat air that arrives on level ground after having been scattered, by following photons one
 * by one: no series, no table, no even scattering.
 */
function followed(haze: number, up: number, photons: number): number {
  const draw = random(7);
  const HAZE = 0.93;
  const G = 0.72;
  const weights = BANDS.map((nm) => (observer(nm)[1] / nm ** 5) * (1 / (Math.exp(14387769 / (nm * 5772)) - 1)));
  const total = weights.reduce((a, b) => a + b, 0);
  // Ozone of all the air lies above: it only dims what comes in, twice at most for what goes out and does not return.
  let arrived = 0;
  for (let i = 0; i < photons; i++) {
    let pick = draw() * total;
    let band = 0;
    while (band < BANDS.length - 1 && pick > weights[band]) pick -= weights[band++];
    const [a, f, o] = [rayleighDepth(BANDS[band]), hazeDepth(haze, BANDS[band]), ozoneDepth(BANDS[band])];
    const above = (z: number): number => a * Math.exp(-z / 8) + f * Math.exp(-z / 1.2);
    let weight = Math.exp(-o / up);
    let z = 100;
    let d = [Math.sqrt(1 - up * up), 0, -up];
    let hits = 0;
    for (;;) {
      const tau = -Math.log(1 - draw()) * Math.abs(d[2]);
      const target = above(z) + (d[2] < 0 ? tau : -tau);
      if (d[2] > 0 && target <= 0) break;
      if (d[2] < 0 && target >= above(0)) {
        if (hits) arrived += weight;
        // The ground: a fifth goes on, evenly by the cosine.
        weight *= 0.2;
        const [r, p] = [Math.sqrt(draw()), 2 * Math.PI * draw()];
        d = [r * Math.cos(p), r * Math.sin(p), Math.sqrt(1 - r * r)];
        z = 0;
        hits++;
        continue;
      }
      let [low, high] = [0, 400];
      for (let k = 0; k < 40; k++) {
        const mid = (low + high) / 2;
        if (above(mid) > target) low = mid;
        else high = mid;
      }
      z = (low + high) / 2;
      hits++;
      const [sa, sf] = [(a / 8) * Math.exp(-z / 8), (f / 1.2) * Math.exp(-z / 1.2)];
      const molecules = draw() < sa / (sa + sf);
      if (!molecules) weight *= HAZE;
      if (weight < 1e-4) break;
      let cos = 0;
      if (molecules) {
        do cos = 2 * draw() - 1;
        while (draw() > (1 + cos * cos) / 2);
      } else cos = (1 + G * G - ((1 - G * G) / (1 - G + 2 * G * draw())) ** 2) / (2 * G);
      const [s, p] = [Math.sqrt(1 - cos * cos), 2 * Math.PI * draw()];
      const flat = Math.hypot(d[0], d[1]);
      const u = flat > 1e-9 ? [-d[1] / flat, d[0] / flat, 0] : [1, 0, 0];
      const v = [d[1] * u[2] - d[2] * u[1], d[2] * u[0] - d[0] * u[2], d[0] * u[1] - d[1] * u[0]];
      d = d.map((c, k) => c * cos + s * (Math.cos(p) * u[k] + Math.sin(p) * v[k]));
    }
  }
  return (arrived / photons) * up;
}

describe('scattered light', () => {
  it.each([
    [3, 60],
    [3, 30],
    [6, 45],
    [1.8, 45],
  ])('at a haze of %s under a sun of %s° is what photons followed one by one bring, within 8 %%', (haze, h) => {
    const ratio = luminance(new ScatteredSky(new Atmosphere(haze), sin(h)).ground()) / followed(haze, sin(h), 60_000);
    expect(ratio).toBeGreaterThan(0.92);
    expect(ratio).toBeLessThan(1.08);
  });

  it('never gives more than came in, nor anything negative', () => {
    const airs = [1.8, 3, 10].map((haze) => ({ haze, air: new Atmosphere(haze) }));
    fc.assert(
      fc.property(fc.constantFrom(...airs), fc.double({ min: -12, max: 90, noNaN: true }), ({ haze, air }, h) => {
        const sky = new ScatteredSky(air, sin(h));
        const ground = sky.ground();
        const sun = Math.max(0, sin(h)) * luminance(sunThrough(haze, Math.max(0, sin(h))));
        expect(Math.min(...ground)).toBeGreaterThanOrEqual(0);
        // Level ground below a round earth’s air: in twilight light comes in beyond the shadow’s edge.
        if (h > 5) expect(sun + luminance(ground)).toBeLessThan(sin(h));
      }),
      { numRuns: 40 },
    );
  });

  it('has a blue zenith in twilight because of the ozone, and red above the sun', () => {
    const sky = new ScatteredSky(new Atmosphere(2), sin(-4));
    const [zenith, glow] = [
      [0, 0, 0],
      [0, 0, 0],
    ];
    sky.at(1, 0, zenith);
    sky.at(0.03, 0, glow);
    expect(zenith[2]).toBeGreaterThan(2 * zenith[0]);
    expect(glow[0]).toBeGreaterThan(2 * glow[2]);
  });
});

describe('a sum over the sky', () => {
  it('has the hemisphere’s solid angle and half of it facing', () => {
    let [all, facing] = [0, 0];
    overSky(16, 32, (d, solid) => {
      all += solid;
      facing += d.z * solid;
    });
    expect(all).toBeCloseTo(2 * Math.PI, 6);
    expect(facing).toBeCloseTo(Math.PI, 6);
  });
});
