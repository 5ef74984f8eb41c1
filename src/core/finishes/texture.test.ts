import { describe, expect, it } from 'vitest';
import { converter, differenceCiede2000 } from 'culori';
import { encode8, fromLinear, luminance, hexToLinear, toLinear, blackBody, lrv, linearToHex } from './colour';
import { finishLrv, isPlain, meanColour } from './finish';
import { FINISHES, finishById, offered } from './library';
import { CATEGORIES, Finish } from '../project/schema';
import { MEANS } from './library/means';
import { makeCutting, makeTexture, meanOfMatter, normalMap, textureLrv, textureSpan } from './texture';

const textured = FINISHES.filter((f) => !isPlain(f));

describe('the library', () => {
  it('offers more than two hundred samples over all the kinds, with names and codes of their own', () => {
    expect(offered.length).toBeGreaterThanOrEqual(200);
    for (const category of CATEGORIES) expect(offered.filter((f) => f.category === category).length).toBeGreaterThanOrEqual(10);
    for (const key of ['id', 'name', 'code'] as const) expect(new Set(FINISHES.map((f) => f[key])).size).toBe(FINISHES.length);
  });

  it('holds nothing that the project file would refuse', () => {
    for (const f of FINISHES) expect(Finish.safeParse(f).error?.message).toBeUndefined();
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

  it('has the means of its prints and stripes written down as their makers draw them', () => {
    const prints = FINISHES.filter((f) => f.body.kind === 'motif' || f.body.kind === 'stripe');
    const drawn = prints.map((f) => [f.id, meanOfMatter({ ...f, colour: (f.body as { ground: string }).ground })]);
    expect(MEANS).toEqual(Object.fromEntries(drawn));
    for (const f of prints) expect(f.colour).toBe(MEANS[f.id]);
  });

  it('takes a measured reflectance before its own', () => {
    expect(finishLrv({ ...finishById('paint.soot'), reflectance: 4.2 })).toBe(4.2);
  });
});

describe('linear light as 8 bits', () => {
  it('is the nearest value of sRGB, everywhere and at every step from one to the next', () => {
    for (let i = 0; i <= 50000; i++) expect(encode8(i / 50000)).toBe(Math.round(fromLinear(i / 50000) * 255));
    for (let value = 0; value < 255; value++) {
      const step = toLinear((value + 0.5) / 255);
      expect([encode8(step * (1 - 1e-9)), encode8(step * (1 + 1e-9))]).toEqual([value, value + 1]);
    }
    expect([encode8(0), encode8(1)]).toEqual([0, 255]);
  });
});

const deltaE = differenceCiede2000();
const lab = converter('lab65');

describe.each(textured.map((f) => [f.id, f] as const))('%s', (_, finish) => {
  const texture = makeTexture(finish, 128);
  const { width, height, colour } = texture;
  const linear = (k: number): [number, number, number] => [toLinear(colour[k] / 255), toLinear(colour[k + 1] / 255), toLinear(colour[k + 2] / 255)];

  it('has the light reflectance of its mean colour within 0.5 of 100, and that colour within ΔE 1', () => {
    // At a hundred pixels across, the share of thin joints is that of the pixels they fall on.
    const mean = [0, 0, 0];
    const fine = finish.laying ? makeTexture(finish, 420) : texture;
    for (let k = 0; k < fine.colour.length; k += 4) for (let c = 0; c < 3; c++) mean[c] += toLinear(fine.colour[k + c] / 255) / (fine.width * fine.height);
    expect(Math.abs(textureLrv(fine) - 100 * luminance(meanColour(finish)))).toBeLessThan(0.5);
    expect(deltaE(lab(linearToHex([mean[0], mean[1], mean[2]]))!, lab(linearToHex(meanColour(finish)))!)).toBeLessThan(1);
  });

  it('repeats without a seam: the step across the edge is like a step inside', () => {
    for (const across of [true, false]) {
      const [n, m] = across ? [width, height] : [height, width];
      const l = (i: number, j: number): number => luminance(linear(across ? (j * width + i) * 4 : (i * width + j) * 4));
      const step = (a: number, b: number): number => {
        let sum = 0;
        for (let j = 0; j < m; j++) sum += Math.abs(l(a, j) - l(b, j)) / m;
        return sum;
      };
      let [most, inside] = [0, 0];
      for (let i = 1; i < n; i++) {
        const own = step(i, i - 1);
        most = Math.max(most, own);
        inside += own / (n - 1);
      }
      // A joint may lie on the edge, so a step there may be as large as the largest inside, never larger.
      expect(step(n - 1, 0)).toBeLessThanOrEqual(Math.max(most, inside * 3) * 1.1 + 1e-6);
    }
  });

  it('is the same every time', () => {
    expect(makeTexture(finish, 48).colour).toEqual(makeTexture(finish, 48).colour);
  });

  it('has a relief of unit normals, and a roughness within its range', () => {
    const normals = normalMap(texture);
    for (let i = 0; normals && i < normals.length; i += 4 * 97) {
      const n = [0, 1, 2].map((c) => normals[i + c] / 127.5 - 1);
      expect(Math.hypot(...n)).toBeCloseTo(1, 1);
      expect(n[2]).toBeGreaterThan(0);
    }
    if (texture.rough) expect(Math.min(...texture.rough)).toBeGreaterThan(2);
  });
});

describe('a cutting', () => {
  it('shows the same surface as the texture, pixel for pixel where they agree', () => {
    for (const id of ['brick.red-flemish', 'timber.oak-herringbone', 'stone.marble', 'cloth.print-sprig']) {
      const finish = finishById(id);
      const span = textureSpan(finish);
      const whole = makeTexture(finish, 200);
      const part = makeCutting(finish, { x: 0, y: 0, ...span }, whole.width, whole.height);
      let off = 0;
      for (let k = 0; k < whole.colour.length; k++) off = Math.max(off, Math.abs(whole.colour[k] - part.colour[k]));
      expect(off).toBeLessThanOrEqual(6);
    }
  });

  it('goes on beyond what repeats', () => {
    const finish = finishById('tile.square-ink');
    const { width, height } = textureSpan(finish);
    const a = makeCutting(finish, { x: 0.05, y: 0.02, width: 0.3, height: 0.2 }, 90, 60);
    const b = makeCutting(finish, { x: 0.05 + width, y: 0.02 - 2 * height, width: 0.3, height: 0.2 }, 90, 60);
    let same = 0;
    for (let k = 0; k < a.colour.length; k++) if (Math.abs(a.colour[k] - b.colour[k]) < 12) same++;
    expect(same / a.colour.length).toBeGreaterThan(0.98);
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
