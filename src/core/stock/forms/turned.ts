import type { Mesh } from '../../geometry/mesh';
import { isLight, lathe } from '../../geometry/shapes';
import { DUST } from '../../units/tolerance';

/** Turned forms: what is made on a lathe or a wheel. Sizes in metres, z up. */

/** A corner of a section: its radius from the axis, its height, and how round it is. */
export type Turn = readonly [radius: number, height: number, round?: number];

/** Corners that turn by less are part of a curve, radians. */
const GENTLE = 0.6;

/**
 * A section whose corners are rounded by arcs of three chords, as far as the sides beside them reach.
 *
 * @param round of corners that do not say, metres
 */
export function filleted(profile: readonly Turn[], round: number): [number, number][] {
  const out: [number, number][] = [];
  profile.forEach(([r, z, own = round], i) => {
    const before = profile[i - 1];
    const after = profile[i + 1];
    if (!before || !after || own <= 0) return out.push([r, z]);
    const [ax, ay] = [before[0] - r, before[1] - z];
    const [bx, by] = [after[0] - r, after[1] - z];
    const [la, lb] = [Math.hypot(ax, ay), Math.hypot(bx, by)];
    if (la < DUST || lb < DUST) return out.push([r, z]);
    const cos = (ax * bx + ay * by) / (la * lb);
    const angle = Math.acos(Math.max(-1, Math.min(1, cos)));
    if (Math.PI - angle < GENTLE) return out.push([r, z]);
    // How far along its sides the arc begins.
    const reach = Math.min(own / Math.tan(angle / 2), la * 0.45, lb * 0.45);
    const [p, q] = [
      [r + (ax / la) * reach, z + (ay / la) * reach],
      [r + (bx / lb) * reach, z + (by / lb) * reach],
    ];
    const steps = Math.max(3, Math.ceil((Math.PI - angle) / 0.6));
    const radius = reach * Math.tan(angle / 2);
    // The middle of the arc lies on the line that halves the corner.
    const [hx, hy] = [ax / la + bx / lb, ay / la + by / lb];
    const h = Math.hypot(hx, hy);
    if (h < DUST) return out.push([r, z]);
    const away = radius / Math.sin(angle / 2);
    const [cx, cy] = [r + (hx / h) * away, z + (hy / h) * away];
    const a0 = Math.atan2(p[1] - cy, p[0] - cx);
    let turn = Math.atan2(q[1] - cy, q[0] - cx) - a0;
    if (turn > Math.PI) turn -= 2 * Math.PI;
    if (turn < -Math.PI) turn += 2 * Math.PI;
    for (let k = 0; k <= steps; k++) {
      const a = a0 + (turn * k) / steps;
      out.push([Math.max(0, cx + radius * Math.cos(a)), cy + radius * Math.sin(a)]);
    }
  });
  return out;
}

/** A turned form about the z axis through (x, y): every corner of its section is round. @param round radius of corners, metres */
export function turned(profile: readonly Turn[], { x = 0, y = 0, segments = 24, round = 0.0015 } = {}): Mesh {
  return lathe(isLight() ? profile.map(([r, z]) => [r, z] as const) : filleted(profile, round), { x, y, segments });
}

/** An upright rod with round ends. */
export const post = (x: number, y: number, z0: number, z1: number, r0: number, r1 = r0, segments = 14): Mesh =>
  turned(
    [
      [0, z0],
      [r0, z0],
      [r1, z1],
      [0, z1],
    ],
    { x, y, segments, round: Math.min(0.002, r0 * 0.3) },
  );

/** The radius of a section at a height, by its corners from the foot up. */
function radiusAt(outer: readonly Turn[], z: number): number {
  for (let i = 0; i + 1 < outer.length; i++) {
    const [[r0, z0], [r1, z1]] = [outer[i], outer[i + 1]];
    if (z >= z0 && z <= z1) return z1 - z0 < DUST ? r1 : r0 + ((r1 - r0) * (z - z0)) / (z1 - z0);
  }
  return outer[outer.length - 1][0];
}

/** The outer and the inner side of a vessel of an even wall, from its foot ring to its rounded lip, as a section. @param outer corners from the foot up */
export function vessel(outer: readonly Turn[], wall: number, foot = 0.003): Turn[] {
  const [r0, z0] = outer[0];
  const bottom = z0 + foot + wall;
  const inner = [[radiusAt(outer, bottom) - wall, bottom] as Turn, ...outer.filter(([, z]) => z > bottom + wall / 2).map(([r, z]): Turn => [r - wall, z])].map(
    ([r, z]): Turn => [Math.max(0.001, r), z],
  );
  return [[0, z0 + foot, 0], [Math.max(0.001, r0 - wall * 1.2), z0 + foot], [Math.max(0.001, r0 - wall), z0], ...outer, ...inner.reverse(), [0, bottom, 0]];
}
