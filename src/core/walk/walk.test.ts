import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '../demo/heron-lock';
import { deriveModel } from '../model/derive';
import { insideRing } from '../geometry/polygon';
import { add, distance, lerp, scale, segmentDistance, sub, unit, type Vec3 } from '../geometry/vec';
import { stairToPlan } from '../project/stair-layout';
import { footing, startOf, walk, WALKER, walkMap } from './walk';

const model = deriveModel(heronLockCottage());
const map = walkMap(model);
const room = (name: string): string => Object.values(model.project.rooms).find((r) => r.name === name)!.id;

/** Walks towards points one after another, a step of a hand's breadth at a time. */
function along(from: Vec3, points: { x: number; y: number }[]): Vec3 {
  let p = from;
  for (const q of points)
    for (let i = 0; i < 400 && distance(p, q) > 0.06; i++) {
      const next = walk(map, p, scale(unit(sub(q, p)), Math.min(0.1, distance(p, q))));
      if (distance(next, p) < 1e-4) break;
      p = next;
    }
  return p;
}

describe('walking', () => {
  it('never comes nearer to a wall than its shoulders, and never through one', () => {
    const turns = fc.array(fc.tuple(fc.double({ min: -Math.PI, max: Math.PI, noNaN: true }), fc.double({ min: 0.1, max: 1.5, noNaN: true })), {
      minLength: 3,
      maxLength: 25,
    });
    fc.assert(
      fc.property(turns, fc.constantFrom('Living', 'Hall', 'Kitchen & dining', 'Reading loft', 'Bedroom'), (steps, name) => {
        let p = startOf(model, room(name), 'ground');
        for (const [angle, long] of steps) {
          const next = walk(map, p, { x: Math.cos(angle) * long, y: Math.sin(angle) * long });
          expect(distance(next, p)).toBeLessThan(long + 0.05);
          expect(Math.abs(next.z - p.z)).toBeLessThan(Math.ceil(long / 0.08) * WALKER.down);
          expect(footing(map, next, next.z)).toBeCloseTo(next.z, 6);
          p = next;
          for (const b of map.barriers)
            if (b.high > p.z + WALKER.up && b.low < p.z + 1.7) expect(segmentDistance(p, b.a, b.b)).toBeGreaterThan(WALKER.radius * 0.89);
          // Not in a wall.
          for (const level of model.shell.levels)
            if (Math.abs(level.level.elevation - p.z) < 0.1)
              for (const w of level.walls)
                if (w.wall.kind === 'wall')
                  for (const ring of w.rings)
                    if (insideRing(p, ring)) expect(Object.values(model.project.openings).some((o) => o.wall === w.id && o.kind !== 'window')).toBe(true);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('goes through doors and not through windows', () => {
    const hall = { x: 5.1, y: 4.6, z: 0 };
    const living = along(hall, [
      { x: 4.8, y: 5.3 },
      { x: 3.4, y: 5.3 },
    ]);
    expect(living.x).toBeLessThan(3.6);
    // Straight at the north window of the living room.
    const stopped = along(living, [{ x: 2.2, y: 8 }]);
    expect(stopped.y).toBeLessThan(6.7 - WALKER.radius * 0.85);
  });

  it('goes up the stair from the kitchen to the loft, and down again', () => {
    const { layout, stair } = model.shell.levels[0].stairs.find((s) => s.id === 'stair-main')!;
    const walkLine = layout.walk.map((p) => stairToPlan(stair, p));
    const foot = { ...add(walkLine[0], scale(unit(sub(walkLine[0], walkLine[1])), 0.4)), z: 0 };
    const end = walkLine[walkLine.length - 1];
    const beyond = add(end, scale(unit(sub(end, walkLine[walkLine.length - 2])), 0.5));
    const top = along(foot, [...walkLine, beyond]);
    expect(top.z).toBeCloseTo(2.75, 9);
    expect(distance(top, beyond)).toBeLessThan(0.2);
    const down = along(top, [...walkLine].reverse().concat({ x: foot.x, y: foot.y }));
    expect(down.z).toBeCloseTo(0, 9);
    expect(distance(down, foot)).toBeLessThan(0.3);
  });

  it('does not fall through the void, nor walk on the canal', () => {
    const loft: Vec3 = { x: 8.4, y: 2.2, z: 2.75 };
    const hole = lerp({ x: 6.5, y: 1.6 }, { x: 6.5, y: 2.4 }, 0.5);
    const p = along(loft, [hole]);
    expect(p.z).toBeCloseTo(2.75, 9);
    const bank = along({ x: 0, y: -6, z: -0.33 }, [{ x: 0, y: -12 }]);
    expect(bank.y).toBeGreaterThan(-7.9);
  });
});
