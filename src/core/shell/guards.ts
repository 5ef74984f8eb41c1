import { bar, post } from '../geometry/extrude';
import { MeshBuilder, type Mesh } from '../geometry/mesh';
import { boolean } from '../geometry/polygon';
import type { Region } from '../geometry/region';
import { add, cross, distance, dot, lerp, scale, sub, unit, type Vec2, type Vec3 } from '../geometry/vec';
import type { Guard } from '../project/schema';
import { DUST, NEAR, TIGHT } from '../units/tolerance';

/** Sizes of the parts of a guard, metres. */
export const GUARD = {
  rail: 0.05,
  railDepth: 0.06,
  low: 0.06,
  lowDepth: 0.035,
  baluster: 0.022,
  post: 0.08,
  slim: 0.04,
  pane: 0.0125,
  cable: 0.008,
  bay: 1.2,
} as const;

/** A guard along a line: handrail, newels, and what is between rail and floor. */
export interface GuardMeshes {
  rail: Mesh;
  infill: Mesh;
  /** Length along its line, metres. */
  length: number;
  /** Widest gap between its balusters or cables, metres; 0 for panes; null for a handrail alone. */
  gap: number | null;
}

/** Balusters in a stretch, as many as keep every gap below the rule: their number and the gap. */
export function balustersIn(length: number, limit: number): { count: number; gap: number } {
  const d = GUARD.baluster;
  // A ball of the rule's size must not pass: a gap equal to it would let it through.
  const most = limit - 0.002;
  const count = Math.max(0, Math.ceil((length - most) / (most + d) - DUST));
  return { count, gap: (length - count * d) / (count + 1) };
}

/** Points of a line that bend it; those on a straight stretch are left out. */
function bends(points: readonly Vec3[]): Vec3[] {
  const kept: Vec3[] = [];
  points.forEach((p, i) => {
    const [a, b] = [kept[kept.length - 1], points[i + 1]];
    if (a && b) {
      const [d, e] = [
        { x: p.x - a.x, y: p.y - a.y, z: p.z - a.z },
        { x: b.x - p.x, y: b.y - p.y, z: b.z - p.z },
      ];
      const c = Math.hypot(d.y * e.z - d.z * e.y, d.z * e.x - d.x * e.z, d.x * e.y - d.y * e.x);
      if (c < TIGHT * Math.max(1, Math.hypot(d.x, d.y, d.z) * Math.hypot(e.x, e.y, e.z))) return;
    }
    if (!a || distance(a, p) > NEAR) kept.push(p);
  });
  return kept;
}

/**
 * Guards along lines in space: z is that of the floor, or of the pitch line of a stair.
 *
 * @param height of the handrail above the line, metres
 * @param limit the ball that must not pass, metres
 */
export function guardAlong(runs: readonly (readonly Vec3[])[], guard: Guard, height: number, limit: number): GuardMeshes {
  const [rail, infill] = [new MeshBuilder(), new MeshBuilder()];
  let total = 0;
  let widest = 0;
  for (const run of runs) {
    const points = bends(run);
    if (points.length < 2) continue;
    const slim = guard.infill === 'glass' || guard.infill === 'cable';
    const size = slim ? GUARD.slim : GUARD.post;
    points.forEach((p, i) => {
      const [a, b] = [points[i - 1] ?? p, points[i + 1] ?? p];
      const d = unit(sub(b, a));
      const turns = i === 0 || i === points.length - 1 || Math.abs(cross(unit(sub(p, a)), unit(sub(b, p)))) > 0.35;
      if (turns && (guard.posts || slim)) post(rail, p, d, size, p.z - 0.1, p.z + height + 0.04);
    });
    for (let i = 0; i + 1 < points.length; i++) {
      const [a, b] = [points[i], points[i + 1]];
      const length = distance(a, b);
      total += length;
      const at = (s: number): Vec3 => ({ ...lerp(a, b, s / length), z: a.z + ((b.z - a.z) * s) / length });
      bar(rail, a, b, GUARD.rail, height - GUARD.railDepth, height);
      if (guard.infill === 'none') continue;
      const own = slim ? Math.max(1, Math.ceil(length / GUARD.bay)) : 1;
      const d = unit(sub(b, a));
      const clear = size / 2;
      if (slim) for (let k = 1; k < own; k++) post(rail, at((length * k) / own), d, size, at((length * k) / own).z - 0.02, at((length * k) / own).z + height);
      if (guard.infill === 'balusters') {
        bar(rail, a, b, GUARD.rail, GUARD.low, GUARD.low + GUARD.lowDepth);
        const from = guard.posts ? clear : 0;
        const { count, gap } = balustersIn(length - 2 * from, limit);
        widest = Math.max(widest, gap);
        for (let k = 0; k < count; k++) {
          const p = at(from + gap + GUARD.baluster / 2 + k * (gap + GUARD.baluster));
          post(infill, p, d, GUARD.baluster, p.z + GUARD.low + GUARD.lowDepth, p.z + height - GUARD.railDepth);
        }
      } else
        for (let k = 0; k < own; k++) {
          const [p, q] = [at((length * k) / own + clear), at((length * (k + 1)) / own - clear)];
          if (distance(p, q) < 0.05) continue;
          if (guard.infill === 'glass') {
            const inset = Math.min(0.015, distance(p, q) / 4);
            const [u, v] = [inset, distance(p, q) - inset].map((s) => ({ ...lerp(p, q, s / distance(p, q)), z: p.z + ((q.z - p.z) * s) / distance(p, q) }));
            bar(infill, u, v, GUARD.pane, GUARD.low, height - GUARD.railDepth - 0.01);
          } else {
            // Square to the cables the gap is smaller than upright, by the slope.
            const cos = length / Math.hypot(length, b.z - a.z);
            const room = (height - GUARD.railDepth) * cos;
            const { count, gap } = balustersIn(room, limit);
            widest = Math.max(widest, gap);
            for (let c = 0; c < count; c++) {
              const z = (gap + GUARD.baluster / 2 + c * (gap + GUARD.baluster)) / cos;
              bar(infill, p, q, GUARD.cable, z - GUARD.cable / 2, z + GUARD.cable / 2);
            }
          }
        }
    }
  }
  return { rail: rail.build(), infill: infill.build(), length: total, gap: guard.infill === 'none' ? null : guard.infill === 'glass' ? 0 : widest };
}

/**
 * The stretches of a ring that want a guard: not along walls, and not where one walks in.
 *
 * @param walls what stands along it, seen in plan
 * @param ways lines one passes over, for example where a stair arrives
 * @param inward how far inside the ring the guard stands, metres (outside where negative)
 */
export function openStretches(ring: readonly Vec2[], walls: readonly Region[], ways: readonly (readonly [Vec2, Vec2])[], inward: number): Vec2[][] {
  const out: Vec2[][] = [];
  const n = ring.length;
  const REACH = 0.06;
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % n];
    const length = distance(a, b);
    if (length < NEAR) return;
    const d = unit(sub(b, a));
    const normal = { x: -d.y, y: d.x };
    const cuts: [number, number][] = [];
    // A thin strip on both sides of the edge: where a wall reaches into it, the wall keeps one from falling.
    const strip = [add(a, scale(normal, -REACH)), add(b, scale(normal, -REACH)), add(b, scale(normal, REACH)), add(a, scale(normal, REACH))];
    for (const part of walls.length ? boolean('intersection', [{ outer: strip, holes: [] }], [...walls]) : []) {
      const s = part.outer.map((p) => dot(sub(p, a), d));
      cuts.push([Math.min(...s), Math.max(...s)]);
    }
    for (const [p, q] of ways) {
      const e = unit(sub(q, p));
      if (Math.abs(cross(d, e)) > 0.02 || Math.abs(dot(sub(p, a), normal)) > 0.08 || Math.abs(dot(sub(q, a), normal)) > 0.08) continue;
      const s = [p, q].map((r) => dot(sub(r, a), d));
      cuts.push([Math.min(...s) - 0.005, Math.max(...s) + 0.005]);
    }
    cuts.sort((p, q) => p[0] - q[0]);
    let s = 0;
    const put = (to: number): void => {
      if (to - s > 0.12) {
        const shift = scale(normal, inward);
        const [p, q] = [add(add(a, scale(d, s)), shift), add(add(a, scale(d, to)), shift)];
        const last = out[out.length - 1];
        // Neighbours that meet at a corner of the ring become one line, set in together.
        if (last && s < NEAR && distance(last[last.length - 1], add(a, shiftOf(ring, i, inward))) < Math.abs(inward) * 3 + NEAR) {
          const corner = cornerOf(ring, i, inward);
          last[last.length - 1] = corner;
          last.push(q);
        } else out.push([p, q]);
      }
    };
    for (const [from, to] of cuts) {
      put(Math.max(s, Math.min(from, length)));
      s = Math.max(s, to);
    }
    put(length);
  });
  // The last and the first stretch may meet at the ring's first point.
  const [first, last] = [out[0], out[out.length - 1]];
  if (out.length > 1 && distance(last[last.length - 1], first[0]) < Math.abs(inward) * 3 + NEAR) {
    const corner = cornerOf(ring, 0, inward);
    out[0] = [...last.slice(0, -1), corner, ...first.slice(1)];
    out.pop();
  } else if (out.length === 1 && first.length > 2 && distance(first[first.length - 1], first[0]) < Math.abs(inward) * 3 + NEAR) {
    const corner = cornerOf(ring, 0, inward);
    out[0] = [corner, ...first.slice(1, -1), corner];
  }
  return out;
}

const shiftOf = (ring: readonly Vec2[], i: number, by: number): Vec2 => {
  const d = unit(sub(ring[(i + 1) % ring.length], ring[i]));
  return { x: -d.y * by, y: d.x * by };
};

/** A corner of a ring set in with both of its edges. */
function cornerOf(ring: readonly Vec2[], i: number, by: number): Vec2 {
  const [a, p, b] = [ring[(i + ring.length - 1) % ring.length], ring[i], ring[(i + 1) % ring.length]];
  const [d, e] = [unit(sub(p, a)), unit(sub(b, p))];
  const turn = cross(d, e);
  const k = Math.abs(turn) < NEAR ? 0 : (1 - dot(d, e)) / turn;
  return { x: p.x + by * (-d.y - d.x * k), y: p.y + by * (d.x - d.y * k) };
}
