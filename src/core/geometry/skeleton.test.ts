import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isSimple, regionArea, signedArea, totalArea, union } from './polygon';
import type { Region, Ring } from './region';
import { sweepOutline, SweepError, type Slope, type Sweep } from './skeleton';
import { dot, left, sub, unit, type Vec2 } from './vec';

const ring = (...points: [number, number][]): Ring => points.map(([x, y]) => ({ x, y }));
const region = (outer: Ring, holes: Ring[] = []): Region => ({ outer, holes });
const even = (outer: Ring, pitch = 45): Slope[][] => outer.map(() => [{ from: 0, run: 1 / Math.tan((pitch * Math.PI) / 180) }]);
const planArea = (face: { ring: Vec2[] }): number => signedArea(face.ring);
const sum = (sweep: Sweep): number => sweep.faces.reduce((total, f) => total + planArea(f), 0) + totalArea(sweep.cap);

/** Every corner of a face lies on the plane of its edge. */
function expectPlanes(outline: Ring, slopes: readonly (readonly Slope[])[], sweep: Sweep): void {
  for (const face of sweep.faces) {
    if (face.edge < 0) continue;
    const a = outline[face.edge];
    const n = left(unit(sub(outline[(face.edge + 1) % outline.length], a)));
    const list = slopes[face.edge];
    for (const p of face.ring) {
      let d = 0;
      list.forEach((s, k) => {
        const to = Math.min(p.z, list[k + 1]?.from ?? Infinity);
        if (to > s.from) d += (to - s.from) * s.run;
      });
      expect(dot(n, sub(p, a))).toBeCloseTo(d, 5);
    }
  }
}

/** From every corner one comes down to an eave along edges that never rise; a plane has its lowest points at corners. */
function expectDrains(sweep: Sweep): void {
  const key = (p: { x: number; y: number; z: number }): string => [p.x, p.y, p.z].map((v) => Math.round(v * 1e4)).join(' ');
  const heights = new Map<string, number>();
  const ways = new Map<string, string[]>();
  for (const { ring: corners } of sweep.faces)
    corners.forEach((p, i) => {
      const q = corners[(i + 1) % corners.length];
      heights.set(key(p), p.z);
      for (const [from, to, rise] of [
        [key(p), key(q), q.z - p.z],
        [key(q), key(p), p.z - q.z],
      ] as const)
        if (rise < 1e-6) ways.set(from, [...(ways.get(from) ?? []), to]);
    });
  for (const start of heights.keys()) {
    const seen = new Set([start]);
    const open = [start];
    let low = Infinity;
    while (open.length) {
      const at = open.pop()!;
      low = Math.min(low, heights.get(at)!);
      for (const to of ways.get(at) ?? []) {
        if (seen.has(to)) continue;
        seen.add(to);
        open.push(to);
      }
    }
    expect(low).toBeCloseTo(0, 5);
  }
}

describe('a roof over an outline', () => {
  it('over a rectangle: two triangles and two trapezia with a ridge', () => {
    const outline = ring([0, 0], [6, 0], [6, 4], [0, 4]);
    const sweep = sweepOutline(region(outline), even(outline));
    expect(sweep.top).toBeCloseTo(2, 9);
    expect(sweep.faces.map(planArea).sort()).toEqual([4, 4, 8, 8].map((v) => expect.closeTo(v, 9)));
    expect(sum(sweep)).toBeCloseTo(24, 9);
    expectPlanes(outline, even(outline), sweep);
  });

  it('over a square: a pyramid', () => {
    const outline = ring([0, 0], [4, 0], [4, 4], [0, 4]);
    const sweep = sweepOutline(region(outline), even(outline, 30));
    expect(sweep.top).toBeCloseTo(2 * Math.tan(Math.PI / 6), 9);
    expect(sweep.faces).toHaveLength(4);
    for (const face of sweep.faces) expect(planArea(face)).toBeCloseTo(4, 9);
  });

  it('with gables: the slopes run through to them, which stand upright', () => {
    const outline = ring([0, 0], [6, 0], [6, 4], [0, 4]);
    const slopes = outline.map((_, i) => [{ from: 0, run: i % 2 ? 0 : 1 }]);
    const sweep = sweepOutline(region(outline), slopes);
    const upright = sweep.faces.filter((f) => f.edge % 2 === 1);
    expect(upright).toHaveLength(2);
    for (const gable of upright) {
      expect(gable.ring).toHaveLength(3);
      expect(Math.max(...gable.ring.map((p) => p.z))).toBeCloseTo(2, 9);
    }
    expect(sweep.faces.filter((f) => f.edge % 2 === 0).map(planArea)).toEqual([12, 12].map((v) => expect.closeTo(v, 9)));
  });

  it('over an L: a valley in the hollow corner, ridges of both wings', () => {
    const outline = ring([0, 0], [8, 0], [8, 3], [3, 3], [3, 9], [0, 9]);
    const sweep = sweepOutline(region(outline), even(outline));
    expect(sum(sweep)).toBeCloseTo(8 * 3 + 3 * 6, 6);
    // The two wings are equally wide, so that their ridges are equally high.
    expect(sweep.top).toBeCloseTo(1.5, 9);
    expect(sweep.faces).toHaveLength(6);
    expectPlanes(outline, even(outline), sweep);
    expectDrains(sweep);
  });

  it('over wings of unequal width the narrow ridge runs into the wide slope', () => {
    const outline = ring([0, 0], [10, 0], [10, 4], [6, 4], [6, 7], [4, 7], [4, 4], [0, 4]);
    const sweep = sweepOutline(region(outline), even(outline));
    expect(sweep.top).toBeCloseTo(2, 9);
    expect(sum(sweep)).toBeCloseTo(10 * 4 + 2 * 3, 6);
    expectPlanes(outline, even(outline), sweep);
    expectDrains(sweep);
  });

  it('over a cross, and over a ring with a court', () => {
    const cross = ring([3, 0], [6, 0], [6, 3], [9, 3], [9, 6], [6, 6], [6, 9], [3, 9], [3, 6], [0, 6], [0, 3], [3, 3]);
    const sweep = sweepOutline(region(cross), even(cross));
    expect(sum(sweep)).toBeCloseTo(45, 6);
    expect(sweep.top).toBeCloseTo(1.5, 6);
    expectDrains(sweep);
    const outer = ring([0, 0], [10, 0], [10, 8], [0, 8]);
    const court = ring([3, 3], [3, 5], [7, 5], [7, 3]);
    const around = sweepOutline(region(outer, [court]), [...even(outer), ...even(court)]);
    expect(sum(around)).toBeCloseTo(80 - 8, 6);
    expect(around.top).toBeCloseTo(1.5, 6);
  });

  it('of four unequal pitches is the lowest of its planes everywhere', () => {
    const outline = ring([0, 0], [7, 0], [7, 5], [0, 5]);
    const runs = [1.2, 0.7, 1.9, 1];
    const slopes = runs.map((run) => [{ from: 0, run }]);
    const sweep = sweepOutline(region(outline), slopes);
    expect(sum(sweep)).toBeCloseTo(35, 6);
    expectPlanes(outline, slopes, sweep);
    for (const face of sweep.faces)
      for (const p of face.ring) {
        const heights = [p.y / runs[0], (7 - p.x) / runs[1], (5 - p.y) / runs[2], p.x / runs[3]];
        expect(p.z).toBeCloseTo(Math.min(...heights), 6);
      }
  });

  it('with slopes that begin higher: half hips, mansards, eaves of two heights, a flat top', () => {
    const outline = ring([0, 0], [8, 0], [8, 4], [0, 4]);
    const half = sweepOutline(
      region(outline),
      outline.map((_, i) => [{ from: i % 2 ? 1 : 0, run: 1 }]),
    );
    // The gable is upright to 1 m, hipped above.
    const gables = half.faces.filter((f) => f.edge % 2 === 1);
    expect(gables.filter((f) => f.slope < 0)).toHaveLength(2);
    expect(gables.filter((f) => f.slope === 0).map(planArea)).toEqual([1, 1].map((v) => expect.closeTo(v, 9)));
    expect(sum(half)).toBeCloseTo(32, 9);
    const mansard = sweepOutline(
      region(outline),
      outline.map(() => [
        { from: 0, run: 0.3 },
        { from: 2, run: 1.5 },
      ]),
    );
    expect(mansard.faces).toHaveLength(8);
    expect(mansard.top).toBeCloseTo(2 + (2 - 0.6) / 1.5, 9);
    expect(sum(mansard)).toBeCloseTo(32, 9);
    const flat = sweepOutline(region(outline), even(outline), 1);
    expect(totalArea(flat.cap)).toBeCloseTo(6 * 2, 9);
    expect(sum(flat)).toBeCloseTo(32, 9);
  });

  it('with two pitches along one line has an upright step between them', () => {
    const outline = ring([0, 0], [4, 0], [8, 0], [8, 5], [0, 5]);
    const slopes = [1, 1.4, 1, 1, 1].map((run) => [{ from: 0, run }]);
    const sweep = sweepOutline(region(outline), slopes);
    expect(sweep.faces.some((f) => f.edge === -1)).toBe(true);
    expect(sum(sweep)).toBeCloseTo(40, 6);
  });

  it('says so where its edges never meet', () => {
    const outline = ring([0, 0], [8, 0], [8, 4], [0, 4]);
    expect(() =>
      sweepOutline(
        region(outline),
        outline.map(() => [{ from: 0, run: 0 }]),
      ),
    ).toThrow(SweepError);
  });
});

describe('over random outlines', () => {
  /** A star-shaped polygon: simple, with hollow corners. */
  const star = fc
    .array(fc.tuple(fc.double({ min: 0.25, max: 1, noNaN: true }), fc.double({ min: 0.4, max: 1, noNaN: true })), { minLength: 4, maxLength: 14 })
    .map((spokes): Ring => {
      const total = spokes.reduce((s, [, w]) => s + w, 0);
      let angle = 0;
      return spokes.map(([r, w]) => {
        angle += (w / total) * 2 * Math.PI;
        return { x: Math.round(r * 8000 * Math.cos(angle)) / 1000, y: Math.round(r * 8000 * Math.sin(angle)) / 1000 };
      });
    })
    .filter((outer) => isSimple(outer) && signedArea(outer) > 2);
  /** Rooms side by side and on one another: right-angled, with many things happening at once. */
  const blocks = fc
    .array(fc.tuple(fc.integer({ min: 0, max: 4 }), fc.integer({ min: 0, max: 4 }), fc.integer({ min: 1, max: 3 }), fc.integer({ min: 1, max: 3 })), {
      minLength: 1,
      maxLength: 6,
    })
    .map(
      (list) =>
        union(list.map(([x, y, w, h]) => region(ring([x * 2, y * 2], [x * 2 + w * 2, y * 2], [x * 2 + w * 2, y * 2 + h * 2], [x * 2, y * 2 + h * 2])))).sort(
          (a, b) => regionArea(b) - regionArea(a),
        )[0],
    );

  it('the planes cover the outline, each on its edge’s plane, and drain to it', () => {
    fc.assert(
      fc.property(star, (outer) => {
        const sweep = sweepOutline(region(outer), even(outer));
        expect(sum(sweep)).toBeCloseTo(signedArea(outer), 3);
        for (const face of sweep.faces) expect(planArea(face)).toBeGreaterThan(-1e-6);
        expectPlanes(outer, even(outer), sweep);
        expectDrains(sweep);
        // Covered once: the union is as large as the sum.
        expect(totalArea(union(sweep.faces.map((f) => region(f.ring.map(({ x, y }) => ({ x, y }))))))).toBeCloseTo(signedArea(outer), 2);
      }),
      { numRuns: 150 },
    );
  });

  it('also of equal blocks, where much happens at one height, with courts', () => {
    fc.assert(
      fc.property(blocks, (area) => {
        const all = [area.outer, ...area.holes].flatMap((r) => even(r));
        const sweep = sweepOutline(area, all);
        expect(sum(sweep)).toBeCloseTo(regionArea(area), 4);
        for (const face of sweep.faces) expect(planArea(face)).toBeGreaterThan(-1e-6);
      }),
      { numRuns: 200 },
    );
  });

  it('with a pitch of its own for every edge', () => {
    fc.assert(
      fc.property(star, fc.array(fc.double({ min: 0.5, max: 2, noNaN: true }), { minLength: 14, maxLength: 14 }), (outer, runs) => {
        const slopes = outer.map((_, i) => [{ from: 0, run: runs[i] }]);
        const sweep = sweepOutline(region(outer), slopes);
        expect(sum(sweep)).toBeCloseTo(signedArea(outer), 3);
        expectPlanes(outer, slopes, sweep);
      }),
      { numRuns: 150 },
    );
  });

  it('with gables among the edges', () => {
    fc.assert(
      fc.property(blocks, fc.array(fc.boolean(), { minLength: 40, maxLength: 40 }), (area, upright) => {
        const count = area.outer.length + area.holes.reduce((s, h) => s + h.length, 0);
        const slopes = Array.from({ length: count }, (_, i): Slope[] => [{ from: 0, run: upright[i % 40] && i % 3 === 0 ? 0 : 1 }]);
        const sweep = sweepOutline(area, slopes);
        expect(sum(sweep)).toBeCloseTo(regionArea(area), 4);
      }),
      { numRuns: 150 },
    );
  });
});
