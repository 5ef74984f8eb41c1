import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { emptyProject } from '../project/schema';
import { pictureState } from '../project/picture-state';
import { edit, house } from '../testing/drafting';
import { bounds, volume } from '../testing/measures';
import { ellipse, roundRectangle, slab } from './forms/flat';
import { FINE, makeParts, pieceFrom, stockCard, stockItem, symbolOf } from './stock';
import { choice, count, length, toggle, traitRows, wholeTraits, type Traits } from './traits';

const schema = z.object({
  arms: choice('Arms', ['broad', 'slim'], 'slim'),
  seat: length('Seat depth', { min: 0.4, max: 0.9, first: 0.55 }),
  bays: count('Bays', { min: 1, max: 6, first: 2 }),
  fringe: toggle('Fringe', false),
});

describe('traits of a maker', () => {
  it('are declared once: rows, limits and what it begins with follow', () => {
    expect(traitRows(schema)).toEqual([
      { key: 'arms', word: 'Arms', kind: 'choice', options: ['broad', 'slim'], first: 'slim' },
      { key: 'seat', word: 'Seat depth', kind: 'length', min: 0.4, max: 0.9, step: 0.005, first: 0.55 },
      { key: 'bays', word: 'Bays', kind: 'count', min: 1, max: 6, step: 1, first: 2 },
      { key: 'fringe', word: 'Fringe', kind: 'switch', first: false },
    ]);
  });

  it('are whole whatever a file says: what is possible is kept, the rest is as it begins', () => {
    expect(wholeTraits(schema, {})).toEqual({ arms: 'slim', seat: 0.55, bays: 2, fringe: false });
    expect(wholeTraits(schema, { arms: 'gilt', seat: 7, bays: 2.5, fringe: true, other: 1 })).toEqual({ arms: 'slim', seat: 0.55, bays: 2, fringe: true });
    const chosen: Traits = { bays: 3 };
    expect(wholeTraits(schema, chosen)).toBe(wholeTraits(schema, chosen));
    expect(wholeTraits(schema, { constructor: true } as unknown as Traits)).toEqual(wholeTraits(schema, {}));
  });
});

describe('what is stretched', () => {
  const legs = (width: number) => makeParts(stockItem('table')!, { width, depth: 0.9, height: 0.75 }).find((p) => p.part === 'legs')!.mesh;

  it('keeps its sections: the legs of a longer table are as thick as those of a short one', () => {
    /** Corners at the foot of the leg at the front left, about its middle. */
    const foot = (width: number): number => {
      const xs: number[] = [];
      const { positions: p } = legs(width);
      for (let k = 0; k < p.length; k += 3) if (p[k + 2] < 0.001 && p[k] < 0 && p[k + 1] < 0) xs.push(p[k]);
      return Math.max(...xs) - Math.min(...xs);
    };
    expect(foot(3)).toBeCloseTo(foot(1.2), 5);
    // It is thinner at its foot than below its rails.
    expect(foot(1.2)).toBeCloseTo(0.065 * 0.68, 3);
  });

  it('gets another seat where a sofa is wide enough', () => {
    const seats = (width: number): number => symbolOf({ maker: 'sofa', size: { width, depth: 0.92, height: 0.8 }, traits: {} })!.length;
    expect(seats(2.8)).toBe(seats(2.1) + 1);
  });
});

describe('forms', () => {
  it('a slab is closed, as large as its outline but for its rounded edges, and its curves lie within what is asked', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 3, noNaN: true }),
        fc.double({ min: 0.2, max: 1.5, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (w, d, r) => {
          const corner = 0.01 + r * (Math.min(w, d) / 2 - 0.01);
          for (const [outline, area] of [
            [ellipse(w, d, 96), (Math.PI * w * d) / 4],
            [roundRectangle(w, d, corner, 16), w * d - (4 - Math.PI) * corner ** 2],
          ] as const) {
            const mesh = slab(outline, 0.7, 0.74, 0.009);
            expect(volume(mesh)).toBeGreaterThan(0.04 * area * 0.9);
            expect(volume(mesh)).toBeLessThan(0.04 * area * 1.0001);
            for (let k = 0; k < mesh.normals.length; k += 3) expect(Math.hypot(mesh.normals[k], mesh.normals[k + 1], mesh.normals[k + 2])).toBeCloseTo(1, 5);
            const edges = new Map<string, number>();
            const at = (i: number): string => [0, 1, 2].map((c) => Math.round(mesh.positions[i * 3 + c] * 1e6)).join(' ');
            for (let k = 0; k < mesh.indices.length; k += 3) {
              const corners = [0, 1, 2].map((i) => at(mesh.indices[k + i]));
              // What has shrunk to a line closes by itself.
              if (new Set(corners).size < 3) continue;
              for (let i = 0; i < 3; i++) {
                const [a, b] = [corners[i], corners[(i + 1) % 3]];
                edges.set(`${a}|${b}`, (edges.get(`${a}|${b}`) ?? 0) + 1);
              }
            }
            for (const [edge, n] of edges) expect(edges.get(edge.split('|').reverse().join('|'))).toBe(n);
          }
        },
      ),
      { numRuns: 25 },
    );
  });

  it('a round top is round within half a millimetre in pictures', () => {
    const size = { width: 1.2, depth: 1.2, height: 0.75 };
    const { positions } = makeParts(stockItem('table')!, size, stockCard('table-round')!.traits, FINE / 2).find((p) => p.part === 'top')!.mesh;
    const rim: { x: number; y: number }[] = [];
    for (let k = 0; k < positions.length; k += 3) if (Math.abs(positions[k + 2] - 0.734) < 0.0075) rim.push({ x: positions[k], y: positions[k + 1] });
    const outer = rim.filter((p) => Math.hypot(p.x, p.y) > 0.5999).sort((a, b) => Math.atan2(a.y, a.x) - Math.atan2(b.y, b.x));
    expect(outer.length).toBeGreaterThan(40);
    for (let i = 1; i < outer.length; i++) {
      const [a, b] = [outer[i - 1], outer[i]];
      expect(0.6 - Math.hypot((a.x + b.x) / 2, (a.y + b.y) / 2)).toBeLessThan(5e-4);
    }
  });
});

describe('a piece with traits', () => {
  const bare = house([
    [0, 0],
    [6, 0],
    [6, 5],
    [0, 5],
  ]);

  it('is what its card says, is changed and undone as everything else, and pictures of it are old then', () => {
    const piece = pieceFrom(stockCard('sofa-chaise')!, 'a', bare.levels.ground, { x: 3, y: 2 });
    expect(piece).toMatchObject({ maker: 'sofa', name: 'Chaise sofa', traits: { chaise: 'right', base: 'block feet' } });
    const one = edit(bare, 'piece.add', { pieces: [piece] });
    const two = edit(one, 'piece.set', { piece: 'a', set: { traits: { ...piece.traits, chaise: 'left' } } });
    expect(two.pieces.a.traits.chaise).toBe('left');
    expect(pictureState(two)).not.toBe(pictureState(one));
    // Mirrored: the same cloth on the other side.
    const area = (p: typeof one): number => bounds(makeParts(stockItem('sofa')!, p.pieces.a.size, p.pieces.a.traits).map((m) => m.mesh)).low[0];
    expect(area(one)).toBeCloseTo(area(two), 6);
  });

  it('of a first card is its maker as it begins', () => {
    const p = emptyProject('p', 'P');
    expect(pieceFrom(stockItem('table')!, 't', p.levels.ground, { x: 0, y: 0 })).toMatchObject({ name: 'Dining table', traits: {} });
  });
});
