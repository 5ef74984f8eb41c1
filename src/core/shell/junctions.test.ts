import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Arranger, arrange, straightLine, type ArrangedLine } from '../geometry/arrangement';
import { boolean, insideRing, isSimple, regionArea, signedArea, totalArea, union } from '../geometry/polygon';
import { joinWalls, type PieceFootprint } from './junctions';

const line = (id: string, ax: number, ay: number, bx: number, by: number, thickness: number): ArrangedLine =>
  straightLine(id, { x: ax, y: ay }, { x: bx, y: by }, thickness / 2);

const standing = (pieces: (PieceFootprint | undefined)[]): PieceFootprint[] => pieces.filter((p) => p !== undefined);

const join = (lines: ArrangedLine[]) => {
  const joined = joinWalls(arrange(lines));
  return { ...joined, pieces: standing(joined.pieces) };
};

const areaOf = (lines: ArrangedLine[], id: string) =>
  join(lines)
    .pieces.filter((p) => p.wall === id)
    .reduce((sum, p) => sum + signedArea(p.ring), 0);

describe('junctions by hand', () => {
  it('mitres an L of unequal thickness: 4 × 0.3 and 3 × 0.1 at 90°', () => {
    const { pieces } = join([line('a', 0, 0, 4, 0, 0.3), line('b', 4, 0, 4, 3, 0.1)]);
    const a = pieces.find((p) => p.wall === 'a')!;
    expect(a.left[1]).toEqual({ x: expect.closeTo(3.95), y: expect.closeTo(0.15) });
    expect(a.right[1]).toEqual({ x: expect.closeTo(4.05), y: expect.closeTo(-0.15) });
    // a: 4 long, its sides 3.95 and 4.05; b: 3 long, its sides 2.85 and 3.15.
    expect(areaOf([line('a', 0, 0, 4, 0, 0.3), line('b', 4, 0, 4, 3, 0.1)], 'a')).toBeCloseTo(1.2, 9);
    expect(areaOf([line('a', 0, 0, 4, 0, 0.3), line('b', 4, 0, 4, 3, 0.1)], 'b')).toBeCloseTo(0.3, 9);
  });

  it('lets the through wall of a T run on and stops the partition at its face', () => {
    const lines = [line('host', 0, 0, 6, 0, 0.3), line('stem', 2, 0, 2, 3, 0.1)];
    const { pieces } = join(lines);
    const stem = pieces.find((p) => p.wall === 'stem')!;
    expect(stem.left[0]).toEqual({ x: expect.closeTo(1.95), y: expect.closeTo(0.15) });
    expect(stem.right[0]).toEqual({ x: expect.closeTo(2.05), y: expect.closeTo(0.15) });
    expect(areaOf(lines, 'host') + areaOf(lines, 'stem')).toBeCloseTo(6 * 0.3 + (3 - 0.15) * 0.1, 9);
  });

  it('joins a wall that ends inside another one’s thickness', () => {
    const { pieces } = join([line('host', 0, 0, 6, 0, 0.3), line('stem', 2, 0.1, 2, 3, 0.1)]);
    expect(pieces.filter((p) => p.wall === 'host')).toHaveLength(2);
  });

  it('splits walls that cross, at 90° and 45°', () => {
    for (const slope of [0, 1]) {
      const lines = [line('a', -3, 0, 3, 0, 0.2), line('b', -2 * slope, -2, 2 * slope, 2, 0.2)];
      const { pieces, outline } = join(lines);
      expect(pieces).toHaveLength(4);
      const sum = pieces.reduce((total, p) => total + signedArea(p.ring), 0);
      const length = slope ? 4 * Math.SQRT2 : 4;
      const overlap = 0.04 / (slope ? Math.SQRT1_2 : 1);
      expect(sum).toBeCloseTo(6 * 0.2 + length * 0.2 - overlap, 9);
      expect(totalArea(outline)).toBeCloseTo(sum, 9);
    }
  });

  it('meets three walls in a point at 120° without a hole or an overlap', () => {
    const third = (2 * Math.PI) / 3;
    const lines = [0, 1, 2].map((i) => line(`w${i}`, 0, 0, 3 * Math.cos(i * third), 3 * Math.sin(i * third), 0.2));
    const { pieces, outline } = join(lines);
    const sum = pieces.reduce((total, p) => total + signedArea(p.ring), 0);
    // Each arm is 3 long, its sides shorter by 0.1 / tan 60°; the middle triangle is shared out among them.
    expect(sum).toBeCloseTo(3 * (0.2 * (3 - 0.1 / Math.tan(third / 2)) + 0.1 * (0.1 / Math.tan(third / 2))), 9);
    expect(totalArea(outline)).toBeCloseTo(sum, 9);
  });

  it('keeps the corner of thick walls whole where a thin one runs on from it', () => {
    const lines = [line('south', 0, 0, 4, 0, 0.3), line('east', 4, 0, 4, 3, 0.3), line('thin', 4, 0, 7, 0, 0.1)];
    const { pieces, outline } = join(lines);
    const sum = pieces.reduce((total, p) => total + signedArea(p.ring), 0);
    expect(pieces.some((p) => insideRing({ x: 4.14, y: -0.14 }, p.ring))).toBe(true);
    expect(pieces.every((p) => isSimple(p.ring))).toBe(true);
    // South 4.15 × 0.3, east above it 2.85 × 0.3, thin beyond the corner 2.85 × 0.1.
    expect(sum).toBeCloseTo(4.15 * 0.3 + 2.85 * 0.3 + 2.85 * 0.1, 9);
    expect(totalArea(outline)).toBeCloseTo(sum, 9);
  });

  it('cuts a very acute outer corner off square', () => {
    const { pieces, outline } = join([line('a', 0, 0, 6, 0, 0.2), line('b', 0, 0, 6 * Math.cos(0.2), 6 * Math.sin(0.2), 0.2)]);
    const sum = pieces.reduce((total, p) => total + signedArea(p.ring), 0);
    expect(totalArea(outline)).toBeCloseTo(sum, 9);
    expect(Math.min(...pieces.flatMap((p) => p.ring.map((q) => q.x)))).toBeGreaterThan(-0.11);
  });
});

/** A convex outline with random angles and a partition across it, each wall with its own thickness. */
const plan = fc
  .record({
    sides: fc.integer({ min: 3, max: 9 }),
    jitter: fc.array(fc.double({ min: 0, max: 0.6, noNaN: true }), { minLength: 9, maxLength: 9 }),
    thickness: fc.array(fc.double({ min: 0.05, max: 0.5, noNaN: true }), { minLength: 11, maxLength: 11 }),
    cut: fc.tuple(fc.double({ min: 0.3, max: 0.7, noNaN: true }), fc.double({ min: 0.3, max: 0.7, noNaN: true })),
    radius: fc.double({ min: 4, max: 8, noNaN: true }),
  })
  .map(({ sides, jitter, thickness, cut, radius }) => {
    const at = (i: number) => {
      const a = ((i + jitter[i]) / sides) * 2 * Math.PI;
      return { x: radius * Math.cos(a), y: radius * Math.sin(a) };
    };
    const points = Array.from({ length: sides }, (_, i) => at(i));
    const lines = points.map((p, i) => {
      const q = points[(i + 1) % sides];
      return line(`w${i}`, p.x, p.y, q.x, q.y, thickness[i]);
    });
    const mid = (i: number, t: number) => ({
      x: points[i].x + (points[(i + 1) % sides].x - points[i].x) * t,
      y: points[i].y + (points[(i + 1) % sides].y - points[i].y) * t,
    });
    const a = mid(0, cut[0]);
    const b = mid(Math.floor(sides / 2), cut[1]);
    lines.push(line('partition', a.x, a.y, b.x, b.y, thickness[9]));
    return lines;
  });

describe('junctions of random plans', () => {
  it('gives simple footprints that do not overlap, and rooms and walls fill the outline', () => {
    fc.assert(
      fc.property(plan, (lines) => {
        const { pieces, faces, outline } = join(lines);
        for (const p of pieces) {
          expect(isSimple(p.ring)).toBe(true);
          expect(signedArea(p.ring)).toBeGreaterThan(0);
        }
        const footprints = pieces.map((p) => ({ outer: p.ring, holes: [] }));
        const sum = totalArea(footprints);
        expect(totalArea(boolean('union', [footprints[0]], footprints.slice(1)))).toBeCloseTo(sum, 5);
        expect(faces).toHaveLength(2);
        expect(sum + faces.reduce((total, f) => total + regionArea(f), 0)).toBeCloseTo(totalArea(outline), 5);
      }),
      { numRuns: 300 },
    );
  });

  it('keeps its corners where two partitions meet a wall nearer to one another than they are thick', () => {
    fc.assert(
      fc.property(fc.integer({ min: -3000, max: 3000 }), fc.double({ min: 0.05, max: 0.4, noNaN: true }), fc.boolean(), (tenths, thickness, same) => {
        const apart = tenths / 10000;
        // At the same side they must stand clear of one another: walls on top of each other are no plan.
        fc.pre(!same || Math.abs(apart) > 0.05 + thickness / 2);
        const lines = [
          ...[
            [0, 0, 6, 0],
            [6, 0, 6, 4],
            [6, 4, 0, 4],
            [0, 4, 0, 0],
          ].map(([a, b, c, d], i) => line(`w${i}`, a, b, c, d, 0.3)),
          line('p', 3, 0, 3, 4, 0.1),
          line('q', 3 + apart, 4, 3 + apart, same ? 2 : 7, thickness),
        ];
        const { pieces, faces, outline } = join(lines);
        const rings = pieces.flatMap((p) => [p.ring, ...(p.rest ?? [])]).filter((r) => r.length > 2);
        for (const ring of rings) expect(isSimple(ring)).toBe(true);
        const sum = rings.reduce((total, r) => total + signedArea(r), 0);
        expect(totalArea(union(rings.map((outer) => ({ outer, holes: [] }))))).toBeCloseTo(sum, 5);
        expect(sum + faces.reduce((total, f) => total + regionArea(f), 0)).toBeCloseTo(totalArea(outline), 4);
        // No corner of the house is missing.
        for (const [x, y] of [
          [-0.14, -0.14],
          [6.14, -0.14],
          [6.14, 4.14],
          [-0.14, 4.14],
        ])
          expect(rings.some((r) => insideRing({ x, y }, r))).toBe(true);
      }),
      { numRuns: 200 },
    );
  });

  it('finds a room inside a room, and takes its walls off the outer one', () => {
    const square = (id: string, r: number, t: number) => [
      line(`${id}s`, -r, -r, r, -r, t),
      line(`${id}e`, r, -r, r, r, t),
      line(`${id}n`, r, r, -r, r, t),
      line(`${id}w`, -r, r, -r, -r, t),
    ];
    const { faces } = join([...square('o', 4, 0.3), ...square('i', 1, 0.1)]);
    expect(faces.map(regionArea).sort((a, b) => a - b)).toEqual([expect.closeTo(1.9 ** 2), expect.closeTo(7.7 ** 2 - 2.1 ** 2)]);
  });

  it('lets a wall that stands free stick out into its room', () => {
    const lines = [
      line('s', 0, 0, 4, 0, 0.2),
      line('e', 4, 0, 4, 3, 0.2),
      line('n', 4, 3, 0, 3, 0.2),
      line('w', 0, 3, 0, 0, 0.2),
      line('nib', 2, 0, 2, 1, 0.1),
    ];
    const { faces } = join(lines);
    expect(faces).toHaveLength(1);
    expect(regionArea(faces[0])).toBeCloseTo(3.8 * 2.8 - 0.1 * 0.9, 9);
  });
});

describe('junctions after edits', () => {
  const move = fc.record({ which: fc.nat(20), x: fc.integer({ min: -200, max: 200 }), y: fc.integer({ min: -200, max: 200 }), gone: fc.boolean() });

  it('are the ones of the plan made afresh, whatever the order of the edits', () => {
    fc.assert(
      fc.property(plan, fc.array(move, { minLength: 1, maxLength: 6 }), (start, moves) => {
        const arranger = new Arranger();
        let lines = start;
        let joined = joinWalls(arranger.update(lines));
        for (const { which, x, y, gone } of moves) {
          const i = which % lines.length;
          const own = lines[i];
          const [a, b] = [own.path[0].p, own.path[1].p];
          const next = straightLine(own.id, { x: a.x + x / 100, y: a.y + y / 100 }, { x: b.x + x / 130, y: b.y + y / 90 }, own.left);
          lines = gone && lines.length > 2 ? lines.filter((_, k) => k !== i) : lines.map((l, k) => (k === i ? next : l));
          joined = joinWalls(arranger.update(lines), joined);
        }
        const fresh = joinWalls(arrange(lines));
        const areas = (list: { outer: { x: number; y: number }[]; holes: { x: number; y: number }[][] }[]) => list.map(regionArea).sort((p, q) => p - q);
        const byWall = (pieces: (PieceFootprint | undefined)[]) =>
          standing(pieces)
            .map((p) => [p.wall, signedArea(p.ring)] as const)
            .sort((p, q) => (p[0] < q[0] ? -1 : p[0] > q[0] ? 1 : p[1] - q[1]));
        expect(areas(joined.faces)).toEqual(areas(fresh.faces).map((v) => expect.closeTo(v, 6)));
        expect(byWall(joined.pieces)).toEqual(byWall(fresh.pieces).map(([id, v]) => [id, expect.closeTo(v, 6)]));
        expect(areas(joined.outline)).toEqual(areas(fresh.outline).map((v) => expect.closeTo(v, 6)));
      }),
      { numRuns: 200 },
    );
  });

  it('keep every footprint and face the edit does not touch', () => {
    const lines: ArrangedLine[] = [];
    for (let i = 0; i <= 10; i++) lines.push(line(`v${i}`, i * 4, 0, i * 4, 40, 0.1), line(`h${i}`, 0, i * 4, 40, i * 4, 0.1));
    lines.push(line('p', 2, 0, 2, 4, 0.1));
    const arranger = new Arranger();
    const before = joinWalls(arranger.update(lines));
    const after = joinWalls(arranger.update(lines.map((l) => (l.id === 'p' ? line('p', 2.2, 0, 2.2, 4, 0.1) : l))), before);
    expect(after.faces).toHaveLength(101);
    expect(after.faces.filter((f) => !before.faces.includes(f)).length).toBeLessThan(8);
    const old = new Set(before.pieces);
    // The two lines the partition meets are cut anew; the other twenty keep all their pieces.
    expect(standing(after.pieces).filter((p) => !old.has(p)).length).toBeLessThan(60);
  });
});
