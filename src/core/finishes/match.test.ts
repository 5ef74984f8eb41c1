import { describe, expect, it } from 'vitest';
import { coated, colourDifference, inHues, nearest, paletteOf } from './match';
import { finishById, offered } from './library';
import { lrv } from './colour';

describe('colour differences', () => {
  it('has the published values of CIEDE2000 (Sharma, Wu, Dalal 2005), through colours of the screen', () => {
    expect(colourDifference('#ffffff', '#ffffff')).toBe(0);
    // Black to white is a hundred by definition.
    expect(colourDifference('#000000', '#ffffff')).toBeCloseTo(100, 3);
    expect(colourDifference('#ff0000', '#00ff00')).toBeCloseTo(86.6, 0);
    expect(colourDifference('#3f4f49', '#3f4f4a')).toBeLessThan(1);
  });

  it('finds the paint a colour is, and none nearer', () => {
    const paints = offered.filter((f) => f.category === 'Paint');
    for (const paint of paints.slice(0, 20)) expect(nearest(paint.colour, paints)[0]).toMatchObject({ finish: { id: paint.id }, deltaE: 0 });
    const [first, second] = nearest('#8a9a80', paints, 2);
    expect(first.deltaE).toBeLessThanOrEqual(second.deltaE);
    for (const paint of paints) expect(colourDifference('#8a9a80', paint.colour)).toBeGreaterThanOrEqual(first.deltaE - 1e-9);
  });
});

describe('the palette of a picture', () => {
  const picture = (parts: [string, number][]): Uint8Array => {
    const pixels: number[] = [];
    for (const [hex, count] of parts) {
      const n = parseInt(hex.slice(1), 16);
      for (let i = 0; i < count; i++) pixels.push((n >> 16) & 255, (n >> 8) & 255, n & 255, 255);
    }
    return Uint8Array.from(pixels);
  };

  it('finds the colours it is made of, with their shares', () => {
    const list = paletteOf(
      picture([
        ['#b88f63', 5000],
        ['#3f4f49', 3000],
        ['#e7dfcf', 2000],
      ]),
    );
    expect(list).toHaveLength(3);
    expect(list.map((s) => Math.round(s.share * 10))).toEqual([5, 3, 2]);
    for (const [i, hex] of ['#b88f63', '#3f4f49', '#e7dfcf'].entries()) expect(colourDifference(list[i].colour, hex)).toBeLessThan(0.5);
    expect(list.reduce((sum, s) => sum + s.share, 0)).toBeCloseTo(1, 9);
  });

  it('is the same every time, and empty for an empty picture', () => {
    const noise = Uint8Array.from({ length: 4000 }, (_, i) => (i % 4 === 3 ? 255 : (i * 7919) % 256));
    expect(paletteOf(noise)).toEqual(paletteOf(noise));
    expect(paletteOf(new Uint8Array(0))).toEqual([]);
  });
});

describe('hues and coats', () => {
  it('tells a hue that is not liked, also across red, and never a grey', () => {
    expect(inHues('#c03030', { from: 0, to: 50 })).toBe(true);
    expect(inHues('#c02060', { from: 340, to: 40 })).toBe(true);
    expect(inHues('#3060c0', { from: 340, to: 40 })).toBe(false);
    expect(inHues('#808080', { from: 0, to: 360 })).toBe(false);
  });

  it('a stain lets the grain stay, a solid coat covers it', () => {
    const oak = finishById('timber.oak');
    const stained = coated(oak, 'stain', '#3a5a4a');
    expect(stained.body).toEqual(oak.body);
    expect(lrv(stained.colour)).toBeLessThan(lrv(oak.colour));
    const solid = coated(oak, 'solid', '#3f4f49');
    // Each has a name and a price of its own, one coat in place of the other.
    expect(stained.name).toBe(`${oak.name}, stained`);
    expect(stained.price).toBeCloseTo(oak.price + 9 * oak.coverage, 6);
    const again = coated({ ...oak, ...stained }, 'solid', '#3f4f49');
    expect([again.name, again.price]).toEqual([solid.name, solid.price]);
    expect(solid.name).toBe(`${oak.name}, painted over`);
    expect(solid.colour).toBe('#3f4f49');
    expect(solid.body.kind === 'timber' && solid.body.contrast).toBeLessThan(0.05);
  });
});
