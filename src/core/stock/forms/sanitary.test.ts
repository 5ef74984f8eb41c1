import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { within } from '../../geometry/shapes';
import { signedArea } from '../../geometry/polygon';
import { loadKernel, openEdges, volume } from '../../testing/solid';
import { CARDS, FINE, LIGHT, makeParts, stockCard } from '../stock';
import { collar, eggRing, ringOf, roseOn, shellFrom, wasteOf } from './sanitary';

beforeAll(loadKernel);

const flat = (ring: { x: number; y: number }[]): number => signedArea(ring.map(({ x, y }) => ({ x, y })));

describe('sections', () => {
  it('are rectangles with round corners, counter-clockwise, of as many points whatever their radii', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 2, noNaN: true }),
        fc.double({ min: 0.1, max: 1, noNaN: true }),
        fc.tuple(
          ...([0, 1, 2, 3].map(() => fc.double({ min: 0.001, max: 0.04, noNaN: true })) as [
            fc.Arbitrary<number>,
            fc.Arbitrary<number>,
            fc.Arbitrary<number>,
            fc.Arbitrary<number>,
          ]),
        ),
        (width, depth, radius) => {
          const ring = ringOf({ width, depth, z: 0.3, radius }, 40);
          expect(ring).toHaveLength(4 * 41);
          // Each corner takes off a square less a quarter of a circle, in chords.
          const off = radius.reduce((sum, r) => sum + r * r * (1 - Math.PI / 4), 0);
          expect(flat(ring)).toBeCloseTo(width * depth - off, 5);
          expect(ring.every((p) => p.z === 0.3)).toBe(true);
        },
      ),
    );
  });

  it('of eggs are half an ellipse in front, and squarer behind', () => {
    const round = eggRing({ width: 0.36, front: 0.28, back: 0.2, z: 0, square: 2 }, 400);
    expect(flat(round)).toBeCloseTo((Math.PI / 4) * 0.36 * (0.28 + 0.2), 4);
    const square = eggRing({ width: 0.36, front: 0.28, back: 0.2, z: 0, square: 5 }, 400);
    expect(flat(square)).toBeGreaterThan(flat(round) + 0.005);
    expect(Math.min(...square.map((p) => p.y))).toBeCloseTo(-0.28, 4);
  });
});

describe('cast forms', () => {
  it('a collar is closed and holds what is between its outlines, less its round edges', () => {
    for (const off of [FINE, LIGHT]) {
      const [outer, inner] = [0.6, 0.5].map((w) => ringOf({ width: w, depth: w - 0.2, z: 0, radius: 0.05 }, 8));
      const mesh = within(off, () => collar(outer, inner, 0.1, 0.14, 0.004));
      expect(openEdges(mesh)).toBe(0);
      const whole = (flat(outer) - flat(inner)) * 0.04;
      expect(volume(mesh)).toBeLessThan(whole);
      expect(volume(mesh)).toBeGreaterThan(whole * 0.97);
    }
  });

  it('a shell is closed over its rim and down to its waste', () => {
    const at = (w: number, z: number) => ringOf({ width: w, depth: w, z, radius: 0.05 }, 6);
    const waste = { x: 0.1, y: 0, z: 0.02, radius: 0.03 };
    const mesh = within(FINE, () => shellFrom([at(0.5, 0), at(0.5, 0.2), at(0.48, 0.2), at(0.48, 0.03)], waste));
    expect(openEdges(mesh)).toBe(0);
    // A box less the box in it, which is a little deeper at its waste.
    expect(volume(mesh)).toBeLessThan(0.5 ** 2 * 0.2 - 0.48 ** 2 * 0.17 + 0.001);
    expect(volume(mesh)).toBeGreaterThan(0.004);
    for (const part of [within(FINE, () => wasteOf(waste)), within(FINE, () => roseOn(0, 0, 1, 0.03))]) expect(openEdges(part)).toBe(0);
  });
});

/** What is cast or fired, by its part. */
const CERAMIC: Readonly<Record<string, string>> = {
  bath: 'tub',
  'shower-tray': 'tray',
  shower: 'tray',
  wc: 'pan',
  bidet: 'pan',
  basin: 'basin',
  'basin-top': 'basin',
};
const cast = CARDS.filter((c) => CERAMIC[c.item.id]);
const partOf = (card: (typeof cast)[0], off = FINE) => makeParts(card.item, card.size, card.traits, off).find((p) => p.part === CERAMIC[card.item.id])!.mesh;

describe('what is cast and fired', () => {
  it.each(cast.map((c) => [c.id, c] as const))('%s is one closed body or more, in pictures and in the view, from twelve sections at least', (id, card) => {
    for (const off of [FINE, LIGHT]) expect([id, openEdges(partOf(card, off))]).toEqual([id, 0]);
    const { positions } = partOf(card);
    const heights = new Set([...positions].filter((_, i) => i % 3 === 2).map((z) => Math.round(z * 1e4)));
    expect(heights.size).toBeGreaterThanOrEqual(12);
  });

  it.each(cast.filter((c) => c.item.id !== 'wc').map((c) => [c.id, c] as const))(
    '%s runs out at its waste: all of its floor falls there by a ninetieth or more',
    (_, card) => {
      const mesh = partOf(card);
      const waste = makeParts(card.item, card.size, card.traits, FINE).find((p) => p.part === 'waste' || p.part === 'rail')!.mesh;
      // The middle of the waste: of the lowest points of its metal.
      const metal = Array.from({ length: waste.positions.length / 3 }, (_v, i) => [0, 1, 2].map((k) => waste.positions[i * 3 + k]));
      const low = Math.min(...metal.map((p) => p[2]));
      const at = metal.filter((p) => p[2] < low + 1e-3).reduce((s, p, _i, all) => [s[0] + p[0] / all.length, s[1] + p[1] / all.length], [0, 0]);
      const floor = Array.from({ length: mesh.positions.length / 3 }, (_v, i) => ({
        p: [0, 1, 2].map((k) => mesh.positions[i * 3 + k]),
        up: mesh.normals[i * 3 + 2],
      })).filter(({ p, up }) => up > 0.97 && p[2] > low - 1e-3 && p[2] < low + 0.05);
      expect(floor.length).toBeGreaterThan(8);
      for (const { p } of floor) {
        const away = Math.hypot(p[0] - at[0], p[1] - at[1]);
        if (away > 0.07) expect((p[2] - low) / away).toBeGreaterThan(1 / 90);
      }
    },
  );

  it('a bath holds what one of its size does: 130 to 320 litres', () => {
    for (const id of ['bath', 'bath-double', 'bath-corner', 'bath-oval']) {
      const card = stockCard(id)!;
      const mesh = partOf(card);
      // Depth of its inside below the overflow, over its outline, taken off a grid: the highest of the shell below the rim at each place.
      const { positions: p, indices } = mesh;
      const n = 60;
      let held = 0;
      const [w, d] = [card.size.width, card.size.depth];
      const full = card.size.height - 0.13;
      for (let i = 0; i < n; i++)
        for (let j = 0; j < n; j++) {
          const [x, y] = [-w / 2 + (w * (i + 0.5)) / n, -d / 2 + (d * (j + 0.5)) / n];
          let top = -1;
          for (let k = 0; k < indices.length; k += 3) {
            const [a, b, c] = [indices[k] * 3, indices[k + 1] * 3, indices[k + 2] * 3];
            const [ux, uy, vx, vy] = [p[b] - p[a], p[b + 1] - p[a + 1], p[c] - p[a], p[c + 1] - p[a + 1]];
            const det = ux * vy - uy * vx;
            if (Math.abs(det) < 1e-12) continue;
            const s = ((x - p[a]) * vy - (y - p[a + 1]) * vx) / det;
            const t = (ux * (y - p[a + 1]) - uy * (x - p[a])) / det;
            if (s < 0 || t < 0 || s + t > 1) continue;
            top = Math.max(top, p[a + 2] + s * (p[b + 2] - p[a + 2]) + t * (p[c + 2] - p[a + 2]));
          }
          if (top > 0 && top < full) held += (full - top) * ((w / n) * (d / n));
        }
      expect([id, held > 0.13, held < 0.32]).toEqual([id, true, true]);
    }
  });
});
