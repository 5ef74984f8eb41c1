import { add, angleOf, cross, distance, meet, scale, sub, unit, type Vec2 } from '@/core/geometry/vec';
import { stationNear, wallExtents, wallPath } from '@/core/project/wall-line';
import type { Project } from '@/core/project/schema';
import { degrees } from '@/core/units/angle';
import { snapStep } from '@/core/units/length';

export interface Snapped {
  point: Vec2;
  /** What it caught, in words; empty where it is free. */
  note: string;
  /** Guide lines to show. */
  guides: [Vec2, Vec2][];
}

interface Snapping {
  level: string;
  /** How near counts, metres. */
  reach: number;
  /** The last point, from which it is drawn. */
  from?: Vec2 | null;
  /** Points that are drawn already and are no corners yet. */
  own?: readonly Vec2[];
  /** Directions are kept to multiples of so many degrees; null: free, catching 45° nearby. */
  angles?: number | null;
}

/**
 * Brings a point to what it is meant to meet: a corner, a wall's centre line, a right angle from the last point,
 * the line of another corner; else to a whole step of length.
 */
export function snapPoint(project: Project, p: Vec2, { level, reach, from = null, own = [], angles = null }: Snapping): Snapped {
  const corners = [...Object.values(project.corners).filter((c) => c.level === level), ...own];
  let best: Vec2 | null = null;
  for (const c of corners) if (distance(c, p) < reach && (!best || distance(c, p) < distance(best, p))) best = { x: c.x, y: c.y };
  if (best) return { point: best, note: 'corner', guides: [] };

  // A direction from the last point: multiples of 45° within 4°.
  let along: Vec2 | null = null;
  let note = '';
  if (from && distance(from, p) > reach) {
    const angle = angleOf(sub(p, from));
    const step = angles === null ? Math.PI / 4 : (angles * Math.PI) / 180;
    const nearest = Math.round(angle / step) * step;
    if (angles !== null || Math.abs(angle - nearest) < 0.07) {
      along = { x: Math.round(Math.cos(nearest) * 1e9) / 1e9, y: Math.round(Math.sin(nearest) * 1e9) / 1e9 };
      note = `${((Math.round(degrees(nearest)) % 360) + 360) % 360}°`;
    }
  }

  // A wall to end on.
  for (const wall of Object.values(project.walls)) {
    if (wall.level !== level) continue;
    const path = wallPath(project, wall);
    const near = stationNear(path, p);
    const extents = wallExtents(project, wall);
    const thick = Math.max(reach, near.off > 0 ? extents.left : extents.right);
    if (near.distance > thick) continue;
    const k = Math.max(
      1,
      path.findIndex((q) => q.s >= near.s),
    );
    const [a, b] = [path[k - 1].p, path[k].p];
    const d = unit(sub(b, a));
    const foot = add(a, scale(d, near.s - path[k - 1].s));
    const point = along && from ? (meet(from, along, a, sub(b, a)) ?? foot) : foot;
    if (distance(point, p) < thick * 2) return { point: round(point), note: note ? `on a wall, ${note}` : 'on a wall', guides: [] };
  }

  // A guide line, and where two of them cross.
  const lines = Object.values(project.guides)
    .filter((g) => g.level === level)
    .map((g) => ({ p: { x: g.x, y: g.y }, d: { x: Math.cos(g.angle), y: Math.sin(g.angle) } }));
  const close = lines.filter((g) => Math.abs(cross(g.d, sub(p, g.p))) < reach);
  for (const [i, g] of close.entries()) {
    const other = close
      .slice(i + 1)
      .map((h) => meet(g.p, g.d, h.p, h.d))
      .find((q) => q && distance(q, p) < reach);
    if (other) return { point: round(other), note: 'where guide lines cross', guides: [] };
  }
  if (close.length) {
    const [g] = close;
    const k = (p.x - g.p.x) * g.d.x + (p.y - g.p.y) * g.d.y;
    const foot = add(g.p, scale(g.d, k));
    const point = along && from ? (meet(from, along, g.p, g.d) ?? foot) : foot;
    if (distance(point, p) < reach * 2) return { point: round(point), note: note ? `on a guide line, ${note}` : 'on a guide line', guides: [] };
  }

  // In line with a corner, straight up or across.
  const guides: [Vec2, Vec2][] = [];
  const q = along && from ? add(from, scale(along, Math.max(0, (p.x - from.x) * along.x + (p.y - from.y) * along.y))) : { ...p };
  let aligned = false;
  for (const axis of ['x', 'y'] as const) {
    if (along && Math.abs(along[axis]) < 0.5) continue;
    let near: Vec2 | null = null;
    for (const c of corners) if (Math.abs(c[axis] - q[axis]) < reach && (!near || Math.abs(c[axis] - q[axis]) < Math.abs(near[axis] - q[axis]))) near = c;
    if (near && (!from || Math.abs(near[axis] - from[axis]) > 1e-9 || !along)) {
      if (along && from) {
        const k = (near[axis] - from[axis]) / along[axis];
        if (k <= 0) continue;
        Object.assign(q, add(from, scale(along, k)));
      } else q[axis] = near[axis];
      guides.push([{ x: near.x, y: near.y }, { ...q }]);
      aligned = true;
    }
  }
  if (aligned) return { point: round(q), note: [note, 'in line with a corner'].filter(Boolean).join(', '), guides: guides.map(([a]) => [a, q]) };
  if (from) {
    const l = snapStep(distance(from, q), project.units);
    const d = unit(sub(q, from));
    return { point: l > 0 ? round(add(from, scale(d, l))) : q, note, guides: [] };
  }
  return { point: { x: snapStep(q.x, project.units), y: snapStep(q.y, project.units) }, note: '', guides: [] };
}

const round = (p: Vec2): Vec2 => ({ x: Math.round(p.x * 1e7) / 1e7, y: Math.round(p.y * 1e7) / 1e7 });
