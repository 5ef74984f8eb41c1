import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { offsetRing } from '../geometry/extrude';
import { newBeam, newSlab } from '../project/built-defaults';
import { newRoof } from '../project/roof-defaults';
import { emptyProject, STAIR_FORMS, type Project, type Stair } from '../project/schema';
import { newStair } from '../project/stairs';
import { box, draw, edit } from '../testing/drafting';
import { placesOf } from './body';
import { deriveModel } from './derive';
import { hasHeadroom, stairHeadroom } from './headroom';
import type { Model } from './model';

/** A house of two storeys, 8 × 8 m. */
const storeys = (height = 2.5, slab = 0.25): Project => {
  const one = edit(box(8, 8), 'level.set', { id: 'ground', set: { height } });
  return edit(one, 'level.add', { id: 'upper', name: 'Upper', of: 'ground', where: 'above', walls: 'outer', height: 2.4, slab });
};
const withStair = (project: Project, set: Partial<Stair> = {}): Project =>
  edit(project, 'stair.put', { ...newStair(project, { id: 's', level: 'ground', x: 4, y: 1.5 }), left: null, right: null, above: null, ...set });
const over = (project: Project): number | null => stairHeadroom(deriveModel(project), 's');

/** The same by rays straight up from very many points of every step: an upper bound that comes near from above. */
function byRays(model: Model, n: number): number {
  const level = model.shell.levels[0];
  const { layout, stair } = level.stairs[0];
  const tops: { p: number[][]; own: boolean }[] = [];
  for (const body of model.bodies)
    for (const part of body.parts) {
      if (['piece', 'opening', 'guard', 'floor', 'moulding', 'patch', 'ground', 'site'].includes(part.sort)) continue;
      if (body.id === stair.id && !['tread', 'string', 'riser'].includes(part.name)) continue;
      for (const m of placesOf(body, part)) {
        const { positions: q, indices } = part.mesh;
        const at = (i: number): number[] => [0, 1, 2].map((r) => m[r] * q[i * 3] + m[4 + r] * q[i * 3 + 1] + m[8 + r] * q[i * 3 + 2] + m[12 + r]);
        for (let k = 0; k < indices.length; k += 3) tops.push({ p: [at(indices[k]), at(indices[k + 1]), at(indices[k + 2])], own: body.id === stair.id });
      }
    }
  let best = Infinity;
  const [c, s] = [Math.cos(stair.rotation), Math.sin(stair.rotation)];
  for (const step of layout.steps) {
    const [xs, ys] = [step.tread.map((p) => p.x), step.tread.map((p) => p.y)];
    const z = level.level.elevation + stair.z + step.z;
    const inner = offsetRing(step.tread, 0.006);
    for (let i = 0; i < n; i++)
      for (let j = 0; j < n; j++) {
        const local = {
          x: Math.min(...xs) + ((i + 0.5) / n) * (Math.max(...xs) - Math.min(...xs)),
          y: Math.min(...ys) + ((j + 0.5) / n) * (Math.max(...ys) - Math.min(...ys)),
        };
        // What only touches the edge of a step is not over it.
        const inside = inner.reduce((odd, a, k) => {
          const b = inner[(k + 1) % inner.length];
          return a.y > local.y !== b.y > local.y && local.x < a.x + ((b.x - a.x) * (local.y - a.y)) / (b.y - a.y) ? !odd : odd;
        }, false);
        if (!inside) continue;
        const [x, y] = [stair.x + local.x * c - local.y * s, stair.y + local.x * s + local.y * c];
        for (const {
          p: [u, v, w],
          own,
        } of tops) {
          const d = (v[0] - u[0]) * (w[1] - u[1]) - (v[1] - u[1]) * (w[0] - u[0]);
          if (Math.abs(d) < 1e-10) continue;
          const a = ((v[0] - x) * (w[1] - y) - (v[1] - y) * (w[0] - x)) / d;
          const b = ((w[0] - x) * (u[1] - y) - (w[1] - y) * (u[0] - x)) / d;
          if (a < 0 || b < 0 || a + b > 1) continue;
          const h = a * u[2] + b * v[2] + (1 - a - b) * w[2] - z;
          if (h > (own ? 1 : 0.05)) best = Math.min(best, h);
        }
      }
  }
  return best;
}

describe('headroom by the solids', () => {
  it('under a floor without a void is what is left over the last step, to the millimetre', () => {
    const project = withStair(storeys(), { void: 'none' });
    const { layout } = deriveModel(project).shell.levels[0].stairs[0];
    const last = layout.steps[layout.steps.length - 1];
    // The ceiling of the room it climbs out of.
    expect(over(project)).toBeCloseTo(2.5 - last.z < 0.05 ? 2.5 - layout.steps[layout.steps.length - 2].z : 2.5 - last.z, 6);
  });

  it('in its void it is that under the ceiling of the storey above, or of the roof over it', () => {
    const project = withStair(storeys(), { void: 'whole' });
    const { layout } = deriveModel(project).shell.levels[0].stairs[0];
    const top = layout.steps[layout.steps.length - 1].z;
    expect(over(project)).toBeCloseTo(2.75 + 2.4 - top, 6);
    let roofed = edit(project, 'roof.put', { roof: newRoof(project, { id: 'r', level: 'upper' }, 'gable') });
    for (const id of Object.keys(roofed.rooms)) roofed = edit(roofed, 'room.set', { room: id, set: { cover: { kind: 'roof' } } });
    expect(over(roofed)).toBeGreaterThan(over(project)! - 1e-6);
  });

  it('sees a beam, a slab of its own between the middles of steps, and a wall over the void', () => {
    const open = withStair(storeys(), { void: 'whole' });
    const { layout, stair } = deriveModel(open).shell.levels[0].stairs[0];
    const fifth = layout.steps[4];
    const y = stair.y + (fifth.tread[0].y + fifth.tread[2].y) / 2;
    const beam = newBeam(open, { id: 'b', level: 'ground', a: { x: 2, y, z: 2.4 }, b: { x: 6, y, z: 2.4 } });
    const beamed = edit(open, 'beam.put', beam);
    const lowest = Math.min(
      ...deriveModel(beamed)
        .bodies.find((b) => b.id === 'b')!
        .parts.flatMap((p) => [...p.mesh.positions].filter((_, i) => i % 3 === 2)),
    );
    expect(over(beamed)!).toBeLessThan(over(open)!);
    // Over the highest step it reaches over.
    const under = layout.steps.filter((s) => s.tread.some((p) => Math.abs(stair.y + p.y - y) < 0.2)).map((s) => s.z);
    expect(over(beamed)!).toBeGreaterThan(lowest - Math.max(...under) - 0.2);
    // 30 mm of a slab reach over the side of one step only.
    const [x0] = [stair.x - stair.width / 2];
    const slab = newSlab(open, { id: 'm', level: 'ground', kind: 'mezzanine', points: [{ x: x0 - 1, y: y - 0.02 }, { x: x0 + 0.03, y: y - 0.02 }, { x: x0 + 0.03, y: y + 0.02 }, { x: x0 - 1, y: y + 0.02 }], z: 2.3, thickness: 0.1 }); // prettier-ignore
    const shelved = edit(open, 'slab.put', slab);
    expect(over(shelved)).toBeCloseTo(2.2 - fifth.z, 6);
    // A wall of the storey above that crosses the void.
    const walled = draw(open, [[1, y], [7, y]], { level: 'upper' }); // prettier-ignore
    expect(over(walled)).toBeLessThan(2.75 - fifth.z + 0.2);
    expect(hasHeadroom(deriveModel(shelved), deriveModel(shelved).shell.levels[0].stairs[0])).toBe(false);
  });

  it('of a spiral is what its own next turn leaves', () => {
    const of = (open: boolean): Model => deriveModel(withStair(storeys(2.5, 0.25), { form: 'spiral', width: 0.7, void: 'whole', open }));
    const { height, sizes } = of(true).shell.levels[0].stairs[0].layout;
    expect(height).toBeCloseTo(2.75, 9);
    // Ten steps higher is the underside of a tread; the foot of a riser is one rise lower, and stands on the step below it.
    expect(stairHeadroom(of(true), 's')).toBeCloseTo(10 * sizes.rise - 0.032, 4);
    expect(stairHeadroom(of(true), 's')).toBeCloseTo(1.932, 3);
    expect(stairHeadroom(of(false), 's')).toBeCloseTo(9 * sizes.rise, 4);
    for (const open of [true, false]) {
      const rays = byRays(of(open), 60);
      expect(stairHeadroom(of(open), 's')).toBeLessThanOrEqual(rays + 1e-4);
      expect(stairHeadroom(of(open), 's')).toBeGreaterThan(rays - 0.005);
    }
  });

  it('is never more than rays find, and hardly less, whatever the stair', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...STAIR_FORMS),
        fc.constantFrom('least' as const, 'whole' as const, 'none' as const),
        fc.double({ min: 2.3, max: 3, noNaN: true }),
        fc.double({ min: 0, max: 6, noNaN: true }),
        (form, hole, height, rotation) => {
          const project = withStair(storeys(height), { form, void: hole, rotation, x: 4, y: 4 });
          const model = deriveModel(project);
          const found = stairHeadroom(model, 's');
          const rays = byRays(model, 14);
          if (found === null) return expect(rays).toBe(Infinity);
          // At the very edges of steps the rays may meet what only touches them.
          expect(found).toBeLessThan(rays + 0.01);
        },
      ),
      { numRuns: 20, seed: 15 },
    );
  });

  it('is nothing where no stair is', () => {
    expect(stairHeadroom(deriveModel(emptyProject('p', 'P')), 's')).toBeNull();
  });
});
