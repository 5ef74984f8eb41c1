import { add, cross, distance, dot, left, lerp, scale, sub, unit, type Vec2 } from '../geometry/vec';
import type { Level, Project, Wall } from './schema';
import { DUST, NEAR, NIL } from '../units/tolerance';

/** A point of a wall's reference line with its distance from the start of the wall along the line, metres. */
export interface Station {
  p: Vec2;
  s: number;
}

/** The greatest distance a chord may keep from its arc, metres. */
export const CHORD_ERROR = 0.002;

type Corners = Pick<Project, 'corners'>;

/** The two ends of a wall's reference line. */
export function wallEnds(project: Corners, wall: Wall): [Vec2, Vec2] {
  const a = project.corners[wall.start];
  const b = project.corners[wall.end];
  return [
    { x: a.x, y: a.y },
    { x: b.x, y: b.y },
  ];
}

/** Thickness of a wall: the sum of the layers of its type, or its own, metres. */
export function wallThickness(project: Pick<Project, 'wallTypes'>, wall: Wall): number {
  if (wall.kind === 'boundary') return 0;
  const type = wall.type === null ? undefined : project.wallTypes[wall.type];
  if (!type) return wall.thickness ?? 0.1;
  return Math.round(type.layers.reduce((sum, l) => sum + l.thickness, 0) * 1e9) / 1e9;
}

/** How far a wall stands out at the left and the right of its reference line, metres; never less than 0. */
export function wallExtents(project: Pick<Project, 'wallTypes'>, wall: Wall): { left: number; right: number } {
  const half = wallThickness(project, wall) / 2;
  const offset = Math.max(-half, Math.min(half, wall.offset));
  return { left: half + offset, right: half - offset };
}

/** Centre and radius of the arc with this bulge over a chord. A bulge is the tangent of a quarter of the angle. */
export function arcOf(a: Vec2, b: Vec2, bulge: number): { centre: Vec2; radius: number; angle: number } {
  const angle = 4 * Math.atan(bulge);
  const chord = distance(a, b);
  const radius = chord / 2 / Math.abs(Math.sin(angle / 2));
  // Positive bulge: the arc turns counter-clockwise, its centre lies at the left of the chord while it is less than half a circle.
  const apothem = (chord / 2) * (1 / Math.tan(angle / 2));
  const centre = add(lerp(a, b, 0.5), scale(left(unit(sub(b, a))), apothem));
  return { centre, radius, angle };
}

/** The bulge of an arc from `a` to `b` through a point; 0 where the three lie on one line. */
export function bulgeThrough(a: Vec2, b: Vec2, through: Vec2): number {
  // The inscribed angle at the point sees the chord; the arc on the other side of it holds twice the rest.
  const u = sub(a, through);
  const v = sub(b, through);
  const inscribed = Math.atan2(Math.abs(cross(u, v)), dot(u, v));
  const side = cross(sub(b, a), sub(through, a));
  if (Math.abs(side) < DUST) return 0;
  const bulge = Math.tan((Math.PI - inscribed) / 2);
  return Math.max(-1, Math.min(1, side > 0 ? -bulge : bulge));
}

/** The reference line of a wall as straight stretches; an arc is followed within `CHORD_ERROR`. */
export function wallPath(project: Corners, wall: Wall): Station[] {
  const [a, b] = wallEnds(project, wall);
  if (Math.abs(wall.bulge) < NEAR)
    return [
      { p: a, s: 0 },
      { p: b, s: distance(a, b) },
    ];
  const { centre, radius, angle } = arcOf(a, b, wall.bulge);
  const step = 2 * Math.acos(Math.max(0, 1 - CHORD_ERROR / Math.max(radius, CHORD_ERROR * 2)));
  const count = Math.max(2, Math.min(96, Math.ceil(Math.abs(angle) / Math.min(step, Math.PI / 12))));
  const from = Math.atan2(a.y - centre.y, a.x - centre.x);
  return Array.from({ length: count + 1 }, (_, i) => {
    const t = i / count;
    const p = i === 0 ? a : i === count ? b : { x: centre.x + radius * Math.cos(from + angle * t), y: centre.y + radius * Math.sin(from + angle * t) };
    return { p, s: radius * Math.abs(angle) * t };
  });
}

/** Length of a wall along its reference line, metres. */
export const wallLength = (project: Corners, wall: Wall): number => {
  const [a, b] = wallEnds(project, wall);
  if (Math.abs(wall.bulge) < NEAR) return distance(a, b);
  const { radius, angle } = arcOf(a, b, wall.bulge);
  return radius * Math.abs(angle);
};

/** The point of a wall's reference line at a distance from its start, and the direction there. */
export function stationAt(path: readonly Station[], s: number): { p: Vec2; d: Vec2 } {
  let i = 1;
  while (i < path.length - 1 && path[i].s < s) i++;
  const [a, b] = [path[i - 1], path[i]];
  return { p: lerp(a.p, b.p, (s - a.s) / (b.s - a.s)), d: unit(sub(b.p, a.p)) };
}

/** The place along a wall's reference line nearest to a point, and how far the point lies to the left of it. */
export function stationNear(path: readonly Station[], p: Vec2): { s: number; off: number; distance: number } {
  let best = { s: 0, off: 0, distance: Infinity };
  for (let i = 1; i < path.length; i++) {
    const [a, b] = [path[i - 1], path[i]];
    const d = sub(b.p, a.p);
    const t = Math.max(0, Math.min(1, dot(sub(p, a.p), d) / dot(d, d)));
    const foot = lerp(a.p, b.p, t);
    const away = distance(foot, p);
    if (away < best.distance - NIL) best = { s: a.s + (b.s - a.s) * t, off: cross(unit(d), sub(p, a.p)), distance: away };
  }
  return best;
}

/** Height of a wall's upper edge above the floor of its level at a share of its length, metres. */
export function wallTopAt(wall: Wall, level: Pick<Level, 'height'>, t: number): number {
  const { top } = wall;
  switch (top.kind) {
    case 'ceiling':
    case 'roof':
      return level.height;
    case 'half':
      return level.height / 2;
    case 'fixed':
      return top.height;
    case 'raking': {
      const { apex } = top;
      const share = Math.max(0, Math.min(1, t));
      if (!apex) return top.start + (top.end - top.start) * share;
      return share <= apex.at
        ? top.start + ((apex.height - top.start) * share) / apex.at
        : apex.height + ((top.end - apex.height) * (share - apex.at)) / (1 - apex.at);
    }
  }
}

/** The upper edge of a wall as points, from its start to its end: shares of its length, heights above the floor of the level. */
export const wallProfile = (wall: Wall, level: Level): { t: number; z: number }[] =>
  [0, ...(wall.top.kind === 'raking' && wall.top.apex ? [wall.top.apex.at] : []), 1].map((t) => ({ t, z: wallTopAt(wall, level, t) }));

/** Where along a wall its upper edge has a ridge, as a share of its length; null where it has none. */
export function wallRidge(wall: Wall, level: Level): number | null {
  const profile = wallProfile(wall, level);
  const ridge = profile.findIndex(({ z }, i) => i > 0 && i < profile.length - 1 && z > profile[i - 1].z + DUST && z > profile[i + 1].z + DUST);
  return ridge < 0 ? null : profile[ridge].t;
}
