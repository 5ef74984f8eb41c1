import { describe, expect, it } from 'vitest';
import { luminance, hexToLinear, toLinear, blackBody, lrv } from './colour';
import { finishLrv } from './finish';
import { FINISHES, offered } from './library';
import { makeTexture, normalMap, textureLrv } from './texture';

const textured = FINISHES.filter((f) => f.maker.kind !== 'flat');

describe('the library', () => {
  it('offers at least thirty samples over all the kinds, with names and codes of their own', () => {
    expect(offered.length).toBeGreaterThanOrEqual(30);
    for (const category of ['Paint', 'Timber', 'Tile & brick', 'Stone & plaster', 'Carpet & cloth', 'Metal', 'Glass'])
      expect(offered.filter((f) => f.category === category).length).toBeGreaterThanOrEqual(4);
    for (const key of ['id', 'name', 'code'] as const) expect(new Set(FINISHES.map((f) => f[key])).size).toBe(FINISHES.length);
  });

  it('keeps reflectances within what is physical', () => {
    for (const f of FINISHES) {
      expect(finishLrv(f)).toBeGreaterThan(0);
      expect(finishLrv(f)).toBeLessThan(97);
    }
    // Bare surfaces stand for the reflectances of the trade figures: ceiling 0.7, walls 0.5, floor 0.2.
    const bare = (id: string) => lrv(FINISHES.find((f) => f.id === id)!.colour) / 100;
    expect(bare('bare.ceiling')).toBeCloseTo(0.7, 2);
    expect(bare('bare.plaster')).toBeCloseTo(0.5, 2);
    expect(bare('bare.screed')).toBeCloseTo(0.2, 2);
  });
});

describe.each(textured.map((f) => [f.id, f] as const))('%s', (_, finish) => {
  const texture = makeTexture(finish, 128);

  it('has the mean light reflectance of its colour', () => {
    expect(textureLrv(texture)).toBeCloseTo(finishLrv(finish), 0);
  });

  it('repeats without a seam: the step across the edge is like a step inside', () => {
    const { width, height, colour } = texture;
    const l = (x: number, y: number): number => {
      const k = (y * width + x) * 4;
      return luminance([toLinear(colour[k] / 255), toLinear(colour[k + 1] / 255), toLinear(colour[k + 2] / 255)]);
    };
    let [seam, inside] = [0, 0];
    let most = 0;
    for (let y = 0; y < height; y++) {
      seam += Math.abs(l(width - 1, y) - l(0, y)) / height;
      let row = 0;
      for (let x = 1; x < width; x++) row += Math.abs(l(x, y) - l(x - 1, y)) / (width - 1);
      inside += row / height;
    }
    for (let x = 1; x < width; x++) {
      let column = 0;
      for (let y = 0; y < height; y++) column += Math.abs(l(x, y) - l(x - 1, y)) / height;
      most = Math.max(most, column);
    }
    // A joint may lie on the edge, so a step there may be as large as the largest inside, never larger.
    expect(seam).toBeLessThanOrEqual(Math.max(most, inside * 3) * 1.05 + 1e-6);
  });

  it('is the same every time', () => {
    expect(makeTexture(finish, 64).colour).toEqual(makeTexture(finish, 64).colour);
  });

  it('has a relief of unit normals, where it has one', () => {
    const normals = normalMap(texture, finish.size);
    if (!normals) return;
    for (let i = 0; i < normals.length; i += 4 * 97) {
      const n = [0, 1, 2].map((c) => normals[i + c] / 127.5 - 1);
      expect(Math.hypot(...n)).toBeCloseTo(1, 1);
      expect(n[2]).toBeGreaterThan(0);
    }
  });
});

describe('colour', () => {
  it('knows the light reflectance of white, black and middle grey', () => {
    expect(lrv('#ffffff')).toBeCloseTo(100, 6);
    expect(lrv('#000000')).toBe(0);
    expect(lrv('#777777')).toBeCloseTo(18.4, 1);
    expect(luminance(hexToLinear('#ff0000'))).toBeCloseTo(0.2126, 4);
  });

  it('puts black bodies where CIE has them: 2700 K warm, 6500 K near white, luminance 1', () => {
    for (const k of [2000, 2700, 4000, 6504]) expect(luminance(blackBody(k))).toBeCloseTo(1, 6);
    const [r, g, b] = blackBody(2700);
    expect(r).toBeGreaterThan(g);
    expect(g).toBeGreaterThan(b);
    const d = blackBody(6504);
    expect(Math.max(...d) / Math.min(...d)).toBeLessThan(1.12);
  });
});
