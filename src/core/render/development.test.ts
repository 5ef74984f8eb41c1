import { describe, expect, it } from 'vitest';
import { blackBody } from '../finishes/colour';
import { AS_TRACED, develop, developed, gainOf, markLimits, relight, sharesOf, warmed, whiteFrom } from './development';
import { OFF } from '../project/schema';
import { Random } from './bsdf';

const random = new Random(21);
const pixels = 200;
const groups = [0, 1, 2, 3].map((g) => Float32Array.from({ length: pixels * 3 }, (_, i) => (i < 60 ? 0 : 100 * random.next() * (g === 3 ? 0.001 : 1))));
const whole = groups[0].map((_, i) => groups.reduce((sum, g) => sum + g[i], 0));
const shares = sharesOf(groups).map((share, g) => ({ name: `g${g}`, kelvin: 3000, share }));

describe('light groups', () => {
  it('have shares that sum to one in every pixel, also where there is no light at all', () => {
    for (let i = 0; i < whole.length; i++) expect(shares.reduce((sum, s) => sum + s.share[i], 0)).toBeCloseTo(1, 6);
  });

  it('sum to the whole when nothing is changed, and to what is left when one is off', () => {
    expect(relight(whole, shares, [])).toBe(whole);
    const same = relight(whole, shares, [{ name: 'g1', level: 1e-9, kelvin: null }]);
    same.forEach((v, i) => expect(Math.abs(v - whole[i])).toBeLessThan(1e-5 * whole[i] + 1e-9));
    const off = relight(whole, shares, [{ name: 'g0', level: OFF, kelvin: null }]);
    off.forEach((v, i) => expect(Math.abs(v - (whole[i] - groups[0][i]))).toBeLessThan(1e-4 * whole[i] + 1e-9));
    // A stop more is twice the light of that group alone.
    const more = relight(whole, shares, [{ name: 'g2', level: 1, kelvin: null }]);
    more.forEach((v, i) => expect(Math.abs(v - (whole[i] + groups[2][i]))).toBeLessThan(1e-4 * whole[i] + 1e-9));
    // A name that is not among them changes nothing.
    expect(relight(whole, shares, [{ name: 'gone', level: 3, kelvin: null }])[100]).toBeCloseTo(whole[100], 3);
  });

  it('take the colour they are given: a lamp of 2700 K set to 5000 K is a black body of 5000 K', () => {
    const lamp = Float32Array.from(blackBody(2700));
    const [share] = sharesOf([lamp]);
    const cool = relight(lamp, [{ name: 'l', kelvin: 2700, share }], [{ name: 'l', level: 0, kelvin: 5000 }]);
    blackBody(5000).forEach((v, c) => expect(cool[c]).toBeCloseTo(v, 3));
    expect(gainOf({ name: 'l', level: OFF, kelvin: 5000 }, 2700)).toEqual([0, 0, 0]);
  });
});

describe('development', () => {
  const ramp = Float32Array.from({ length: 300 }, (_, i) => 2 ** (Math.floor(i / 3) / 8));
  const at = (set: Partial<Parameters<typeof developed>[1]>): number[] =>
    [...developed(ramp, { ...AS_TRACED, exposure: 9, white: null, ...set })].filter((_, i) => i % 4 === 0);

  it('leaves a picture as it is with nothing set, and keeps the order of tones whatever is', () => {
    expect(at({})).toEqual([...develop(ramp, 9)].filter((_, i) => i % 4 === 0));
    for (const set of [{ contrast: 0.5 }, { contrast: -0.4 }, { highlights: 1 }, { contrast: 0.6, highlights: 1 }]) {
      const tones = at(set);
      tones.slice(1).forEach((v, i) => expect(v).toBeGreaterThanOrEqual(tones[i]));
    }
  });

  it('contrast turns about middle grey; highlights are held without touching what is dark', () => {
    const middle = 0.18 * 1.2 * 2 ** 9;
    const grey = new Float32Array([middle, middle, middle]);
    const shown = (set: object, v = grey): number => developed(v, { ...AS_TRACED, exposure: 9, white: null, ...set })[0];
    expect(Math.abs(shown({ contrast: 0.5 }) - shown({}))).toBeLessThanOrEqual(1);
    const dark = grey.map((v) => v / 4);
    expect(shown({ contrast: 0.5 }, dark)).toBeLessThan(shown({}, dark));
    expect(shown({ highlights: 1 }, dark)).toBe(shown({}, dark));
    const bright = grey.map((v) => v * 6);
    expect(shown({ highlights: 1 }, bright)).toBeLessThan(shown({}, bright));
  });

  it('without saturation a colour is as light as it was, and grey', () => {
    const colour = new Float32Array([60, 90, 30]);
    const [r, g, b] = developed(colour, { ...AS_TRACED, exposure: 9, white: null, saturation: -1 });
    expect([r, b]).toEqual([g, g]);
    const l = 0.2126 * 60 + 0.7152 * 90 + 0.0722 * 30;
    expect(r).toBe(develop(new Float32Array([l, l, l]), 9)[0]);
  });

  it('finds the white that shows what was pressed on as grey', () => {
    for (const kelvin of [2300, 2700, 4000, 5500, 7500, 11000]) {
      const card = blackBody(kelvin).map((v) => v * 37);
      expect(Math.abs(whiteFrom(card) / kelvin - 1)).toBeLessThan(0.02);
    }
    expect(whiteFrom([0, 0, 0])).toBe(6500);
  });

  it('marks what is nearly white and nearly black, counts it, and leaves the rest', () => {
    const line = Uint8ClampedArray.from([255, 255, 255, 255, 128, 128, 128, 255, 2, 1, 0, 255, 255, 0, 0, 255]);
    const before = line.slice();
    expect(markLimits(line, 4, [1, 2, 3], [4, 5, 6])).toEqual({ over: 0.25, under: 0.25 });
    expect([...line.slice(0, 3)]).toEqual([1, 2, 3]);
    expect([...line.slice(8, 11)]).toEqual([4, 5, 6]);
    expect([...line.slice(4, 8), ...line.slice(12)]).toEqual([...before.slice(4, 8), ...before.slice(12)]);
  });
});

describe('warmth', () => {
  it('shifts red against blue and leaves a grey as bright as it was', () => {
    for (const warmth of [-1, -0.4, 0, 0.3, 1]) {
      const [r, g, b] = warmed(warmth);
      expect(0.2126 * r + 0.7152 * g + 0.0722 * b).toBeCloseTo(1, 9);
      expect(Math.log2(r / b)).toBeCloseTo(0.8 * warmth, 9);
      expect(Math.log2((r * b) / (g * g))).toBeCloseTo(0, 9);
    }
    const grey = new Float32Array(3).fill(120);
    const as = { ...AS_TRACED, exposure: 8, white: null };
    const [warm, plain, cold] = [0.5, 0, -0.5].map((warmth) => developed(grey, { ...as, warmth }));
    expect(warm[0]).toBeGreaterThan(plain[0]);
    expect(warm[2]).toBeLessThan(plain[2]);
    expect(cold[2]).toBeGreaterThan(plain[2]);
  });
});
