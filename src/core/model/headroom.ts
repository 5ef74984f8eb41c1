import { offsetRing } from '../geometry/extrude';
import { clipHalf, triangulate } from '../geometry/polygon';
import { cross, sub, type Vec2 } from '../geometry/vec';
import type { Ring } from '../geometry/region';
import type { Matrix } from '../geometry/mesh';
import { headroomOf } from '../project/stairs';
import type { DerivedStair } from '../shell/stairs';
import { stairToPlan } from '../project/stair-layout';
import { DUST, NEAR } from '../units/tolerance';
import { placesOf, type Body, type Part } from './body';
import type { Model } from './model';
import type { Sort } from './sorts';

/** What one could strike one's head on: what stands or hangs in the house, not what is set about in it. */
const HARD: ReadonlySet<Sort> = new Set<Sort>(['wall', 'top', 'cap', 'ceiling', 'slab', 'floor-slab', 'stair', 'roof', 'dormer', 'framing', 'beam', 'column']);
/** Of its own stair only what is a turn higher is over a step, metres; nosings reach over the step below. */
const OWN = 1;
/** What is nearer than this over a step is part of what bears it, metres. */
const BEARS = 0.05;
/** How far from the edges of a step it is asked, so that what it only touches is not over it, metres. */
const WITHIN = 0.005;

type Point = readonly [x: number, y: number, z: number];

interface Step {
  z: number;
  box: [number, number, number, number];
  triangles: Vec2[][];
}

function stepsOf({ layout, stair }: DerivedStair, foot: number): Step[] {
  return layout.steps.map((step): Step => {
    const own = step.tread.map((p) => stairToPlan(stair, p));
    const inner: Ring = offsetRing(own, WITHIN);
    const ring = inner.length === own.length ? inner : own;
    const { points, indices } = triangulate({ outer: ring, holes: [] });
    const triangles = Array.from({ length: indices.length / 3 }, (_, k) => {
      const t = [0, 1, 2].map((j) => points[indices[k * 3 + j]]);
      const turn = (t[1].x - t[0].x) * (t[2].y - t[0].y) - (t[1].y - t[0].y) * (t[2].x - t[0].x);
      return turn < 0 ? t.reverse() : t;
    });
    const [xs, ys] = [ring.map((p) => p.x), ring.map((p) => p.y)];
    return { z: foot + step.z, box: [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)], triangles };
  });
}

/** The least height of a part over steps; `best` where it is nowhere lower. */
function leastUnder({ mesh }: Part, m: Matrix, steps: readonly Step[], least: number, best: number): number {
  const { positions: p, indices } = mesh;
  const at = (i: number): Point => {
    const [x, y, z] = [p[i * 3], p[i * 3 + 1], p[i * 3 + 2]];
    return [m[0] * x + m[4] * y + m[8] * z + m[12], m[1] * x + m[5] * y + m[9] * z + m[13], m[2] * x + m[6] * y + m[10] * z + m[14]];
  };
  for (let k = 0; k < indices.length; k += 3) {
    const triangle = [at(indices[k]), at(indices[k + 1]), at(indices[k + 2])];
    const [a, b, c] = triangle;
    // What looks down is an underside. The upper side of what begins below a step, as a wall beside it, is over nobody.
    const [u, v] = [b, c].map(([x, y]) => ({ x: x - a[0], y: y - a[1] }));
    const turn = cross(u, v);
    if (turn > -DUST) continue;
    const [x0, x1] = [Math.min(a[0], b[0], c[0]), Math.max(a[0], b[0], c[0])];
    const [y0, y1] = [Math.min(a[1], b[1], c[1]), Math.max(a[1], b[1], c[1])];
    const [z0, z1] = [Math.min(a[2], b[2], c[2]), Math.max(a[2], b[2], c[2])];
    for (const step of steps) {
      if (z1 < step.z + least || z0 > step.z + best) continue;
      if (x1 < step.box[0] || x0 > step.box[2] || y1 < step.box[1] || y0 > step.box[3]) continue;
      for (const tread of step.triangles) {
        // What both have in common in the plan, and how high the triangle's plane lies over its corners.
        let ring: readonly Vec2[] = [a, b, c].map(([x, y]) => ({ x, y }));
        for (let i = 0; i < 3 && ring.length; i++) {
          const [from, along] = [tread[i], sub(tread[(i + 1) % 3], tread[i])];
          ring = clipHalf(ring, (p) => cross(along, sub(p, from)));
        }
        for (const q of ring) {
          const over = a[2] + ((b[2] - a[2]) * cross(sub(q, { x: a[0], y: a[1] }), v) + (c[2] - a[2]) * cross(u, sub(q, { x: a[0], y: a[1] }))) / turn - step.z;
          if (over > least && over < best) best = over;
        }
      }
    }
  }
  return best;
}

const known = new WeakMap<readonly Body[], Map<string, number | null>>();

/**
 * The least height over the steps of a stair, metres; null where nothing is over them. Exact, by the solids: every step, nosing
 * included, against all that stands or hangs over it, its own next turn too. A plane over a step is lowest at a corner of what
 * both have in common in the plan.
 */
export function stairHeadroom(model: Pick<Model, 'bodies' | 'shell'>, id: string): number | null {
  let of = known.get(model.bodies);
  if (!of) known.set(model.bodies, (of = new Map()));
  if (of.has(id)) return of.get(id)!;
  const level = model.shell.levels.find((l) => l.stairs.some((s) => s.id === id));
  const derived = level?.stairs.find((s) => s.id === id);
  let best = Infinity;
  if (level && derived) {
    const steps = stepsOf(derived, level.level.elevation + derived.stair.z);
    for (const body of model.bodies)
      for (const part of body.parts) {
        if (!HARD.has(part.sort)) continue;
        // Its handrail goes along with whoever climbs.
        if (body.id === id && part.name !== 'tread' && part.name !== 'string' && part.name !== 'riser') continue;
        for (const place of placesOf(body, part)) best = leastUnder(part, place, steps, body.id === id ? OWN : BEARS, best);
      }
  }
  const found = Number.isFinite(best) ? best : null;
  of.set(id, found);
  return found;
}

/** Whether the headroom of a stair is enough. */
export function hasHeadroom(model: Pick<Model, 'bodies' | 'shell'>, { id, stair }: Pick<DerivedStair, 'id' | 'stair'>): boolean {
  const headroom = stairHeadroom(model, id);
  return headroom === null || headroom > headroomOf(stair) - NEAR;
}
