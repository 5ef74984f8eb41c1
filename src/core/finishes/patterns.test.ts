import { describe, expect, it } from 'vitest';
import { luminance, toLinear } from './colour';
import type { Finish } from './finish';
import { FINISHES, finishById } from './library';
import { cellField, cells, fractal, fractalField, hash, noise, noiseField } from './noise';
import { makeTexture, textureSpan } from './texture';

/** Lightness along a row or a column of a texture, averaged over the other direction. */
function profile(finish: Finish, pixels: number, along: 'x' | 'y'): { values: number[]; metres: number } {
  const { width, height, size, colour } = makeTexture(finish, pixels);
  const n = along === 'x' ? width : height;
  const values = new Array<number>(n).fill(0);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const k = (y * width + x) * 4;
      values[along === 'x' ? x : y] += luminance([toLinear(colour[k] / 255), toLinear(colour[k + 1] / 255), toLinear(colour[k + 2] / 255)]);
    }
  return { values: values.map((v) => v / (along === 'x' ? height : width)), metres: along === 'x' ? size.width : size.height };
}

/** How often the joint colour comes up along a direction: local extremes that stand out. */
function joints({ values }: { values: number[] }, lighter: boolean): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted[sorted.length >> 1];
  const far = lighter ? sorted.at(-1)! : sorted[0];
  const limit = middle + (far - middle) * 0.5;
  const on = values.map((v) => (lighter ? v > limit : v < limit));
  return on.filter((v, i) => v && !on[(i + on.length - 1) % on.length]).length;
}

describe('laid finishes have their true size', () => {
  it.each([
    ['tile.square-white', 'x'],
    ['tile.square-white', 'y'],
    ['tile.square-ink', 'x'],
    ['tile.glazed-green', 'y'],
    ['brick.red-stock', 'y'],
  ] as const)('%s along %s: as many joints as modules fit', (id, along) => {
    const finish = finishById(id);
    const m = finish.laying!;
    const module = (along === 'x' ? m.width : m.height) + m.joint;
    const span = textureSpan(finish);
    const length = along === 'x' ? span.width : span.height;
    // The texture holds a whole number of modules, or it would show a seam.
    expect(length / module).toBeCloseTo(Math.round(length / module), 1);
    const lighter = luminance([...hex(m.joints)]) > luminance([...hex(finish.colour)]);
    expect(joints(profile(finish, 1024, along), lighter)).toBe(Math.round(length / module));
  });

  it('a running bond is offset by half: rows a module apart differ, two apart agree', () => {
    const finish = finishById('brick.red-stock');
    const m = finish.laying!;
    const span = textureSpan(finish);
    const { width, height, relief } = makeTexture(finish, 1024);
    const deep = relief!.reduce((most, v) => Math.max(most, v), 0) * 0.35;
    /** Where the joints lie along a course, metres: the middle of what lies deep. */
    const row = (metres: number): number[] => {
      const y = Math.floor((metres / span.height) * height) % height;
      const runs: [number, number][] = [];
      for (let x = 0; x < width; x++) {
        if (relief![y * width + x] > deep) continue;
        const last = runs.at(-1);
        if (last && last[1] === x - 1) last[1] = x;
        else runs.push([x, x]);
      }
      // A joint that lies across the edge of the texture is one joint.
      if (runs.length > 1 && runs[0][0] === 0 && runs.at(-1)![1] === width - 1) runs[0][0] = runs.pop()![0] - width;
      return runs.filter(([a, b]) => b - a > 2).map(([a, b]) => ((a + b) / 2 / width) * span.width);
    };
    const step = m.height + m.joint;
    const [first, second, third] = [0.5, 1.5, 2.5].map((r) => row(r * step));
    const module = m.width + m.joint;
    expect(first.length).toBe(Math.round(span.width / module));
    const apart = (a: number, b: number): number => ((((b - a) % module) + module) % module) / module;
    expect(apart(first[2], second[2])).toBeCloseTo(0.5, 1);
    expect(Math.cos(2 * Math.PI * apart(first[2], third[2]))).toBeCloseTo(1, 1);
  });

  it('relief is millimetres where it is millimetres', () => {
    for (const [id, least, most] of [
      ['brick.red-stock', 0.001, 0.012],
      ['plaster.lime', 0.0001, 0.003],
      ['cloth.oat-weave', 0.0001, 0.004],
    ] as const) {
      const { relief } = makeTexture(finishById(id), 256);
      const depth = relief!.reduce((m, v) => Math.max(m, v), 0);
      expect(depth).toBeGreaterThan(least);
      expect(depth).toBeLessThan(most);
    }
  });

  it('two seeds of a timber are two boards of the same colour', () => {
    const finish = finishById('timber.oak');
    const [a, b] = [1, 2].map((seed) => makeTexture(finish, 96, seed).colour);
    expect(a).not.toEqual(b);
    const mean = (c: Uint8Array): number => c.reduce((sum, v, i) => (i % 4 === 1 ? sum + toLinear(v / 255) : sum), 0) / (c.length / 4);
    expect(mean(a) / mean(b)).toBeCloseTo(1, 1);
  });

  it('more pixels show the same pattern, only finer', () => {
    const finish = finishById('tile.square-ink');
    const coarse = profile(finish, 256, 'x').values;
    const fine = profile(finish, 1024, 'x').values;
    // Averages of four fine values are close to the coarse one.
    let worst = 0;
    coarse.forEach((v, i) => (worst = Math.max(worst, Math.abs(v - (fine[i * 4] + fine[i * 4 + 1] + fine[i * 4 + 2] + fine[i * 4 + 3]) / 4))));
    expect(worst).toBeLessThan(0.08);
  });
});

function hex(colour: string): [number, number, number] {
  const n = parseInt(colour.slice(1), 16);
  return [(n >> 16) & 255, (n >> 8) & 255, n & 255].map((v) => toLinear(v / 255)) as [number, number, number];
}

describe('noise', () => {
  it('repeats over its tile', () => {
    for (const [u, v] of [
      [0.13, 0.77],
      [0.5, 0.01],
      [0.99, 0.4],
    ]) {
      expect(noise(u, v, 7, 5, 3)).toBeCloseTo(noise(u + 1, v, 7, 5, 3), 9);
      expect(fractal(u, v, 4, 4, 1)).toBeCloseTo(fractal(u, v + 1, 4, 4, 1), 9);
      expect(cells(u, v, 6, 6, 2)).toEqual({
        near: expect.closeTo(cells(u + 1, v, 6, 6, 2).near, 9),
        next: expect.closeTo(cells(u + 1, v, 6, 6, 2).next, 9),
        id: cells(u + 1, v, 6, 6, 2).id,
      });
    }
  });

  it('stays in its range, is centred and spreads evenly', () => {
    let sum = 0;
    const bins = new Array<number>(10).fill(0);
    const n = 20000;
    for (let i = 0; i < n; i++) {
      const h = hash(i, i * 7, 11);
      bins[Math.floor(h * 10)]++;
      const v = noise((i % 141) / 141, ((i * 13) % 139) / 139, 16, 16, 5);
      expect(Math.abs(v)).toBeLessThanOrEqual(1);
      sum += v;
    }
    expect(Math.abs(sum / n)).toBeLessThan(0.08);
    for (const b of bins) expect(Math.abs(b / n - 0.1)).toBeLessThan(0.01);
  });

  it('worked out ahead gives the same values', () => {
    const [n, f, c] = [noiseField(7, 5, 3), fractalField(4, 6, 2, 3), cellField(8, 6, 9)];
    for (let i = 0; i < 200; i++) {
      const [u, v] = [(i * 0.137) % 1, (i * 0.071) % 1];
      expect(n(u, v)).toBeCloseTo(noise(u, v, 7, 5, 3), 5);
      expect(f(u, v)).toBeCloseTo(fractal(u, v, 4, 6, 2, 3), 5);
      expect(c(u, v).near).toBeCloseTo(cells(u, v, 8, 6, 9).near, 5);
      expect(c(u, v).id).toBe(cells(u, v, 8, 6, 9).id);
    }
  });

  it('finds the nearest cell point: no other is nearer', () => {
    for (let i = 0; i < 200; i++) {
      const { near, next } = cells((i * 0.137) % 1, (i * 0.071) % 1, 8, 8, 9);
      expect(near).toBeLessThanOrEqual(next);
      expect(near).toBeLessThan(1.5);
    }
  });
});

it('names a supplier and a role or a use for everything on offer', () => {
  for (const f of FINISHES) {
    expect(f.supplier.length).toBeGreaterThan(3);
    expect(f.size.width).toBeGreaterThan(0.01);
    expect(f.roughness).toBeGreaterThanOrEqual(0);
    expect(f.roughness).toBeLessThanOrEqual(1);
    expect(f.transmission === 0 || f.metalness === 0).toBe(true);
  }
});
