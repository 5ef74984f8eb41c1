import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { cuts, isFine } from '../../geometry/shapes';
import { add3, cross3, scale3, unit3, type Vec3 } from '../../geometry/vec';
import { rod, skin } from './skin';

/** Leaves by rules. Sizes in metres, z up. */

/** How the edge of a blade runs: its half width at a share of its length, of the widest. */
const OUTLINES = {
  /** Widest in its middle, pointed. */
  lance: (t: number) => Math.sin(Math.PI * t ** 0.9) ** 0.85,
  /** Round. */
  round: (t: number) => Math.sqrt(Math.max(0, 1 - (2 * t - 1) ** 2)),
  /** Broad at its foot, drawn to a point. */
  heart: (t: number) => Math.min(1, 6 * t) ** 0.5 * (1 - t) ** 0.62 * 1.25,
  /** Even for most of its length. */
  strap: (t: number) => Math.min(1, 8 * t + 0.55) * Math.min(1, 3.2 * (1 - t)) ** 0.7,
  /** Broadest near its tip. */
  spoon: (t: number) => (0.12 + 0.88 * Math.sin((Math.PI / 2) * t) ** 2.2) * Math.sqrt(Math.max(0, 1 - t ** 7)),
  /** A needle, as of rosemary. */
  needle: (t: number) => Math.min(1, 12 * (1 - t)) ** 0.5,
} as const;

export type LeafOutline = keyof typeof OUTLINES;

export interface Leaf {
  length: number;
  width: number;
  outline: LeafOutline;
  /** How far its halves are folded up along the midrib, radians. */
  fold?: number;
  /** How far its tip bends down from its foot, radians. */
  droop?: number;
  /** Waves of its edge: how many, and how high as a share of its width. */
  waves?: number;
  wave?: number;
  /** Cut in from the edge between the veins: how many times on each side. */
  slits?: number;
  /** One of hundreds: few faces will do. */
  plain?: boolean;
}

/** A blade that grows from a point in a direction, its upper side up. @param out unit, where it goes; @param roll about that, radians */
export function blade(
  from: Vec3,
  out: Vec3,
  { length, width, outline, fold = 0.25, droop = 0.6, waves = 0, wave = 0.06, slits = 0, plain = false }: Leaf,
  roll = 0,
): Mesh {
  // What is as small as a finger nail needs few faces.
  const small = plain || length < 0.06;
  const n = cuts(isFine() ? (slits ? 18 : small ? 3 : 7) : slits ? 10 : 4, slits ? 8 : 2);
  const half = cuts(isFine() && !small ? 2 : 1, 1);
  const shape = OUTLINES[outline];
  let along = unit3(out);
  let side = cross3(along, { x: 0, y: 0, z: 1 });
  side = Math.hypot(side.x, side.y, side.z) < 1e-3 ? { x: 1, y: 0, z: 0 } : unit3(side);
  let up = cross3(side, along);
  const [c, s] = [Math.cos(roll), Math.sin(roll)];
  [side, up] = [add3(scale3(side, c), scale3(up, s)), add3(scale3(up, c), scale3(side, -s))];
  const points: Vec3[] = [];
  const faces: number[][] = [];
  let p = from;
  const step = length / n;
  const [cf, sf] = [Math.cos(fold), Math.sin(fold)];
  for (let i = 0; i <= n; i++) {
    const t = i / n;
    const own = (width / 2) * shape(Math.min(0.999, Math.max(0.02, t)));
    // Slits between the veins: every other row is drawn in.
    const drawn = slits && i % 3 === 2 && t > 0.15 && t < 0.9 ? 0.45 : 1;
    for (let k = -half; k <= half; k++) {
      const x = (k / half) * own * (k === half || k === -half ? drawn : 1);
      const edge = Math.abs(k) / half;
      const ripple = waves ? wave * width * edge * Math.sin(2 * Math.PI * waves * t + (k > 0 ? 1.3 : 0)) : 0;
      points.push(add3(p, add3(scale3(side, x * cf), scale3(up, Math.abs(x) * sf + ripple))));
    }
    // It hangs more the farther out.
    const turn = (droop / n) * (0.4 + 1.2 * t);
    const [ca, sa] = [Math.cos(turn), Math.sin(turn)];
    p = add3(p, scale3(along, step));
    [along, up] = [add3(scale3(along, ca), scale3(up, -sa)), add3(scale3(up, ca), scale3(along, sa))];
  }
  const m = 2 * half + 1;
  for (let i = 0; i < n; i++) for (let k = 0; k + 1 < m; k++) faces.push([i * m + k, (i + 1) * m + k, (i + 1) * m + k + 1, i * m + k + 1].reverse());
  return skin(points, faces, 1.2);
}

/** A blade on its stalk: from a point of a stem outwards, the stalk rising before the blade hangs. @returns where the blade begins */
export function stalked(leaves: MeshBuilder, stems: MeshBuilder, from: Vec3, turn: number, rise: number, stalk: number, leaf: Leaf, thick = 0.0018): void {
  const flat = { x: Math.cos(turn), y: Math.sin(turn), z: 0 };
  const direction = (a: number): Vec3 => ({ x: flat.x * Math.cos(a), y: flat.y * Math.cos(a), z: Math.sin(a) });
  const mid = add3(from, scale3(direction(rise), stalk * 0.55));
  const end = add3(mid, scale3(direction(rise - 0.25), stalk * 0.45));
  if (stalk > 0.012) stems.add(rod([from, mid, end], (t) => thick * (1.2 - 0.4 * t), { section: cuts(5, 3) }));
  leaves.add(blade(end, direction(rise - 0.35), leaf));
}

/** The angle between one leaf and the next of most plants, radians (Vogel 1979). */
export const GOLDEN = Math.PI * (3 - Math.sqrt(5));

/** What reaches beyond the room a thing may take is held back at its edge; the mesh itself, changed. */
export function heldWithin(mesh: Mesh, width: number, depth: number, height: number): Mesh {
  const p = mesh.positions;
  for (let k = 0; k < p.length; k += 3) {
    p[k] = Math.max(-width / 2, Math.min(width / 2, p[k]));
    p[k + 1] = Math.max(-depth / 2, Math.min(depth / 2, p[k + 1]));
    p[k + 2] = Math.max(0.003, Math.min(height, p[k + 2]));
  }
  return mesh;
}
