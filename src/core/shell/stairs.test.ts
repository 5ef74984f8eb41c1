import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { meshArea, transformPoint } from '../geometry/mesh';
import { boolean, insideRegion, isSimple, regionArea, signedArea, totalArea } from '../geometry/polygon';
import { distance, lerp, type Vec3 } from '../geometry/vec';
import { emptyProject, STAIR_FORMS, type Stair } from '../project/schema';
import { checkStair, headroomOf, newGuard, newStair, stairVoid } from '../project/stairs';
import { stairLayout, stairToPlan } from '../project/stair-layout';
import { STAIR_PROFILES } from '../project/stair-rules';
import { edit, house } from '../testing/drafting';
import { loadKernel, openEdges, volume } from '../testing/solid';
import { balustersIn, openStretches } from './guards';
import { deriveShell } from '../model/derive';
import type { Part } from '../model/body';
import { againstWall } from './stair-place';
import { deriveStair } from './stairs';

/** Two levels, the upper one so high. */
function storeys(height = 2.5, slab = 0.25, units: 'metric' | 'imperial' = 'metric') {
  const project = edit(emptyProject('p', 'House', units), 'level.set', { id: 'ground', set: { height } });
  return edit(project, 'level.add', { id: 'upper', name: 'Upper', of: 'ground', where: 'above', walls: 'none', height: 2.4, slab });
}

const stairs = fc.record({
  form: fc.constantFrom(...STAIR_FORMS),
  turn: fc.constantFrom('left' as const, 'right' as const),
  corners: fc.constantFrom('landing' as const, 'winders' as const),
  build: fc.constantFrom('closed' as const, 'cut' as const, 'solid' as const),
  width: fc.double({ min: 0.8, max: 1.2, noNaN: true }),
  well: fc.double({ min: 0, max: 0.6, noNaN: true }),
  open: fc.boolean(),
  nosing: fc.constantFrom(0, 0.02, 0.03),
  profile: fc.constantFrom('A' as const, 'B' as const),
  height: fc.double({ min: 2.2, max: 3.2, noNaN: true }),
  infill: fc.constantFrom('balusters' as const, 'glass' as const, 'cable' as const, 'none' as const),
});

const make = ({ height, infill, ...set }: typeof stairs extends fc.Arbitrary<infer T> ? T : never) => {
  const project = storeys(height);
  const guard = newGuard(infill);
  const stair: Stair = { ...newStair(project, { id: 's', level: 'ground', x: 0, y: 0 }), ...set, left: guard, right: guard };
  return { project, stair, layout: stairLayout(project, stair) };
};

describe('layouts', () => {
  it('climb exactly the height in equal steps, with equal goings on the walking line', () => {
    fc.assert(
      fc.property(stairs, (set) => {
        const { project, stair, layout } = make(set);
        const { risers, rise, going } = layout.sizes;
        expect(risers * rise).toBeCloseTo(project.levels.upper.elevation, 9);
        expect(layout.steps.length).toBe(risers - 1);
        expect(layout.risers.length).toBe(risers);
        for (const step of layout.steps) {
          expect(signedArea(step.ring)).toBeGreaterThan(0);
          expect(isSimple(step.ring)).toBe(true);
        }
        // Steps do not overlap, and together they are the stair.
        if (stair.form !== 'spiral') {
          const regions = layout.steps.map((s) => ({ outer: s.ring, holes: [] }));
          const sum = regions.reduce((a, r) => a + regionArea(r), 0);
          expect(totalArea(boolean('union', [regions[0]], regions.slice(1)))).toBeCloseTo(sum, 5);
        }
        if (layout.narrow !== null) {
          // Winders: riser lines at equal goings along the walking line, a chord short of the arc.
          const off = STAIR_PROFILES[stair.profile].winder.line;
          const r = 'share' in off ? off.share * stair.width : off.from;
          for (let i = 1; i < layout.walk.length - 1; i++) {
            const chord = distance(layout.walk[i], layout.walk[i + 1]);
            expect(chord).toBeLessThan(going + 1e-6 + (layout.steps[i]?.landing ? 9 : Math.abs(stair.width / 2 - r)));
          }
          expect(layout.narrow).toBeGreaterThan(STAIR_PROFILES[stair.profile].winder.narrow - 1e-9 - (stair.profile === 'B' ? 0.03 : 0));
        }
      }),
      { numRuns: 120 },
    );
  });

  it('a straight stair is as long as its goings, a quarter turn ends at a right angle', () => {
    const project = storeys();
    const straight = stairLayout(project, newStair(project, { id: 's', level: 'ground', x: 0, y: 0 }));
    const last = straight.risers[straight.risers.length - 1];
    expect(last.left.y).toBeCloseTo((straight.sizes.risers - 1) * straight.sizes.going, 9);
    const quarter = stairLayout(project, newStair(project, { id: 's', level: 'ground', x: 0, y: 0, form: 'quarter', turn: 'right', first: 5 }));
    const end = quarter.risers[quarter.risers.length - 1];
    expect(end.left.x).toBeCloseTo(end.right.x, 9);
    // Five goings and the landing forward; the rest of the goings across.
    expect(end.left.y).toBeCloseTo(5 * quarter.sizes.going + 0.9, 9);
    expect(end.left.x).toBeCloseTo(0.45 + (quarter.sizes.risers - 1 - 6) * quarter.sizes.going, 9);
  });

  it('keep to the profile of the units they are drawn in', () => {
    const [metric, imperial] = (['metric', 'imperial'] as const).map((units) => {
      const project = storeys(2.5, 0.25, units);
      return stairLayout(project, newStair(project, { id: 's', level: 'ground', x: 0, y: 0 }));
    });
    expect([metric.stair.profile, imperial.stair.profile]).toEqual(['A', 'B']);
    expect(imperial.sizes.rise).toBeLessThan(0.196 + 1e-9);
    expect(imperial.sizes.going).toBeGreaterThan(0.254 - 1e-9);
    expect(imperial.stair.width).toBeCloseTo(0.914, 9);
    expect([...metric.sizes.breaches, ...imperial.sizes.breaches]).toEqual([]);
  });

  it('refuses what cannot be built with one sentence', () => {
    const project = emptyProject('p', 'House');
    expect(() => checkStair(project, newStair(project, { id: 's', level: 'ground', x: 0, y: 0 }))).toThrow(/no level above/);
    const two = storeys();
    expect(() => checkStair(two, newStair(two, { id: 's', level: 'ground', x: 0, y: 0, form: 'three', risers: 4 }))).toThrow(/too few/);
  });
});

describe('solids', () => {
  beforeAll(loadKernel);

  it('every part of every stair is closed, and steps have the volume of their outlines', () => {
    fc.assert(
      fc.property(stairs, (set) => {
        const { project, stair, layout } = make(set);
        const made = deriveStair(layout, project.levels.ground);
        for (const { part, mesh } of made.parts) {
          expect([part, openEdges(mesh)]).toEqual([part, 0]);
          expect(meshArea(mesh)).toBeGreaterThan(0);
        }
        const treads = made.parts.find((p) => p.part === 'tread')!;
        const expected = layout.steps.reduce((sum, step) => sum + regionArea({ outer: step.tread, holes: [] }) * stair.tread, 0);
        expect(volume(treads.mesh)).toBeCloseTo(expected, 4);
        if (made.gap) expect(made.gap).toBeLessThan(STAIR_PROFILES[stair.profile].gap);
      }),
      { numRuns: 60 },
    );
  });
});

describe('the void above', () => {
  it('is always large enough, and no step lies under it that would have headroom without it', () => {
    fc.assert(
      fc.property(stairs, (set) => {
        const { project, stair, layout } = make(set);
        const hole = stairVoid(project, stair);
        const underside = project.levels.ground.height;
        const needed = headroomOf(stair);
        for (const step of layout.steps) {
          const middle = step.ring.reduce((sum, p) => ({ x: sum.x + p.x / step.ring.length, y: sum.y + p.y / step.ring.length }), { x: 0, y: 0 });
          for (const p of step.tread.map((q) => stairToPlan(stair, lerp(q, middle, 0.02))))
            if (!hole.some((h) => insideRegion(p, h))) expect(underside - step.z).toBeGreaterThan(needed - 1e-6);
        }
        const low = layout.steps.flatMap((step) => (step.z + needed > underside + 1e-9 ? [{ outer: step.tread, holes: [] }] : []));
        const needs = low.length ? boolean('union', [low[0]], low.slice(1)) : [];
        if (stair.form !== 'spiral') expect(totalArea(hole)).toBeCloseTo(totalArea(needs), 6);
        expect(totalArea(boolean('difference', needs, hole))).toBeLessThan(1e-6);
      }),
      { numRuns: 80 },
    );
  });
});

describe('headroom on the solids', () => {
  /** Height of the nearest surface over a point, by every triangle there is. */
  function above(surfaces: readonly Part[], p: Vec3): number {
    let best = Infinity;
    for (const { mesh, at } of surfaces)
      for (let k = 0; k < mesh.indices.length; k += 3) {
        const [a, b, c] = [0, 1, 2].map((i) => {
          const n = mesh.indices[k + i] * 3;
          const q = { x: mesh.positions[n], y: mesh.positions[n + 1], z: mesh.positions[n + 2] };
          return transformPoint(at[0], q);
        });
        const area = (u: Vec3, v: Vec3, x: number, y: number): number => (v.x - u.x) * (y - u.y) - (v.y - u.y) * (x - u.x);
        const whole = area(a, b, c.x, c.y);
        if (Math.abs(whole) < 1e-9) continue;
        const [wa, wb, wc] = [area(b, c, p.x, p.y) / whole, area(c, a, p.x, p.y) / whole, area(a, b, p.x, p.y) / whole];
        if (wa < 0 || wb < 0 || wc < 0) continue;
        const z = wa * a.z + wb * b.z + wc * c.z;
        if (z > p.z + 0.05) best = Math.min(best, z);
      }
    return best;
  }

  it('measured straight up from the treads to floors, ceilings and slabs of a house, is what the rules ask for', () => {
    const outline: [number, number][] = [
      [-6, -6],
      [6, -6],
      [6, 6],
      [-6, 6],
    ];
    fc.assert(
      fc.property(stairs, ({ height, infill: _i, ...set }) => {
        let project = edit(house(outline), 'level.set', { id: 'ground', set: { height } });
        project = edit(project, 'level.add', { id: 'upper', name: 'Upper', of: 'ground', where: 'above', walls: 'all', height: 2.4, slab: 0.25 });
        const stair: Stair = { ...newStair(project, { id: 's', level: 'ground', x: 0, y: -3 }), ...set, left: null, right: null, above: null };
        project = edit(project, 'stair.put', stair);
        const [ground, upper] = deriveShell(project).levels;
        const surfaces = [...ground.parts, ...upper.parts].map((p) => p.part).filter((p) => p.sort === 'floor' || p.sort === 'ceiling' || p.sort === 'slab');
        const made = ground.stairs[0];
        made.layout.steps.forEach((step, i) => {
          const ring = made.outline[i];
          const middle = ring.reduce((sum, p) => ({ x: sum.x + p.x / ring.length, y: sum.y + p.y / ring.length }), { x: 0, y: 0 });
          for (const p of [middle, ...ring.map((q) => lerp(q, middle, 0.03))])
            expect(above(surfaces, { ...p, z: step.z }) - step.z).toBeGreaterThan(headroomOf(stair) - 0.005);
        });
      }),
      { numRuns: 25 },
    );
  });
});

describe('guards', () => {
  it('hold back a ball of the rule with as few balusters as do', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.2, max: 6, noNaN: true }), fc.constantFrom(0.1, 0.102), (length, limit) => {
        const { count, gap } = balustersIn(length, limit);
        expect(gap).toBeLessThan(limit);
        expect(count * 0.022 + (count + 1) * gap).toBeCloseTo(length, 9);
        if (count > 0) expect((length - (count - 1) * 0.022) / count).toBeGreaterThan(limit - 0.0021);
      }),
    );
  });

  it('leave out walls and the way in, and go round corners in one line', () => {
    const ring = [
      { x: 0, y: 0 },
      { x: 3, y: 0 },
      { x: 3, y: 2 },
      { x: 0, y: 2 },
    ];
    const wall = [
      { x: -0.3, y: -0.3 },
      { x: 0, y: -0.3 },
      { x: 0, y: 2.3 },
      { x: -0.3, y: 2.3 },
    ];
    const way = [
      { x: 1, y: 0 },
      { x: 2, y: 0 },
    ] as const;
    const open = openStretches(ring, [{ outer: wall, holes: [] }], [way], -0.05);
    const total = open.reduce((sum, line) => sum + line.slice(1).reduce((s, p, i) => s + distance(line[i], p), 0), 0);
    // Round two corners, 50 mm outside the ring: 1 + 2 + 3 less the first metre and the door's play.
    expect(open.length).toBe(2);
    expect(total).toBeGreaterThan(6.8);
    expect(total).toBeLessThan(7.3);
    expect(Math.max(...open.map((l) => l.length))).toBe(4);
  });
});

describe('beside walls', () => {
  const project = house([
    [0, 0],
    [6, 0],
    [6, 5],
    [0, 5],
  ]);
  const level = deriveShell(project).levels[0];
  const two = storeys();

  it('a stair goes against a wall within reach, string to face, and has no guard there', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.35, max: 0.74, noNaN: true }), fc.constantFrom('closed' as const, 'cut' as const), (x, build) => {
        const stair = { ...newStair(two, { id: 's', level: 'ground', x: 0.15 + x, y: 1.2 }), build };
        const { stair: placed, side } = againstWall(stair, level);
        expect(side).toBe('left');
        expect([placed.left, placed.right]).toEqual([null, stair.right]);
        // The wall's inner face lies at 150 mm.
        expect(placed.x - placed.width / 2 - (build === 'closed' ? 0.035 : 0)).toBeCloseTo(0.155, 5);
        expect([placed.y, placed.rotation]).toEqual([stair.y, stair.rotation]);
      }),
    );
  });

  it('stays where it is in the middle of a room, or askew', () => {
    const stair = newStair(two, { id: 's', level: 'ground', x: 3, y: 1.2 });
    expect(againstWall(stair, level)).toEqual({ stair, side: null });
    expect(againstWall({ ...stair, x: 0.7, rotation: 0.3 }, level).side).toBeNull();
  });
});
