import type { Mesh } from '../../geometry/mesh';
import { closedSection, sweep, type SweepStretch } from '../../geometry/sweep';
import { cross3, dot3, sub3, unit3, type Vec2, type Vec3 } from '../../geometry/vec';
import { openingOutline } from '../../project/openings';
import type { Moulding, Opening, Profile } from '../../project/schema';
import { faceX } from '../wall-face';
import type { WallSide } from '../wall-types';
import { onFace, outOf, wallsRound } from './faces';
import type { Face, DerivedMoulding } from './dressed';
import { NEAR } from '../../units/tolerance';

/** The section of a moulding at its size: drawn larger or smaller as a whole. */
export function sectionOf(profile: Profile, height: number | null): { points: Vec2[]; height: number; depth: number } {
  const own = Math.max(...profile.points.map((p) => p.y));
  const k = height === null ? 1 : height / own;
  const points = profile.points.map((p) => ({ x: p.x * k, y: p.y * k }));
  return { points, height: own * k, depth: Math.max(...points.map((p) => p.x)) };
}

/** How far from the bare edge of an opening a moulding ends, so that its end does not lie in the plane of the reveal, metres. */
const SHORT = 0.001;

/** The stretches of a face, as distances along it, that openings leave free between two heights. */
export function freeAlong(side: WallSide, openings: readonly Opening[], low: number, high: number): [number, number][] {
  const blocked = openings
    .filter((o) => o.kind !== 'niche' || o.swing === side.side)
    .flatMap((o): [number, number][] => {
      const ring = openingOutline(o).map((p) => ({ x: faceX(side, o.at + p.x), y: p.y }));
      const ys = ring.map((p) => p.y);
      // The moulding round the opening is in its way too.
      const a = o.architrave;
      if (Math.min(...ys) - (o.kind === 'window' ? a : 0) > high - NEAR || Math.max(...ys) + a < low + NEAR) return [];
      const xs = ring.map((p) => p.x);
      const beside = Math.max(a, SHORT);
      const [from, to] = [Math.min(...xs) - beside, Math.max(...xs) + beside];
      // The wall may go on beyond this face, past other rooms, with openings of theirs.
      return to < NEAR || from > side.length - NEAR ? [] : [[from, to]];
    })
    .sort((p, q) => p[0] - q[0]);
  const free: [number, number][] = [];
  let at = 0;
  for (const [from, to] of blocked) {
    if (from > at + 0.005) free.push([at, from]);
    at = Math.max(at, to);
  }
  if (side.length > at + 0.005) free.push([at, side.length]);
  return free;
}

interface Piece {
  wall: string;
  /** Points of its path on the face, from left to right. */
  points: Vec2[];
  /** Whether it reaches the left and the right end of its face. */
  left: boolean;
  right: boolean;
  face: Face;
}

/** The path of a moulding along one face, in pieces between what is in its way. */
function piecesOn(moulding: Moulding, face: Face, height: number, floor: number, openings: readonly Opening[]): Piece[] {
  const side = face.side!;
  if (moulding.without.includes(side.key)) return [];
  const bends = side.path.map((q) => faceX(side, q.s)).sort((a, b) => a - b);
  const pieces = (free: [number, number][], y: (x: number) => number, at: readonly number[]): Piece[] =>
    free.map(([a, b]) => ({
      wall: side.wall,
      face,
      left: a < NEAR,
      right: b > side.length - NEAR,
      points: [a, ...at.filter((x) => x > a + NEAR && x < b - NEAR), b].map((x) => ({ x, y: y(x) })),
    }));
  if (moulding.kind === 'cornice') {
    const edge = side.top;
    if (edge.length < 2) return [];
    const y = (x: number): number => {
      let i = 1;
      while (i < edge.length - 1 && x > edge[i].x) i++;
      const [p, q] = [edge[i - 1], edge[i]];
      return p.y + ((q.y - p.y) * (x - p.x)) / (q.x - p.x || 1);
    };
    const lowest = Math.min(...edge.map((p) => p.y)) - height;
    return pieces(
      freeAlong(side, openings, lowest, 100),
      y,
      [...bends, ...edge.map((p) => p.x)].sort((a, b) => a - b),
    );
  }
  // A skirting stands on the floor of the room, a rail at its height above it.
  const base = moulding.kind === 'skirting' ? floor : floor + (moulding.at ?? 0.9);
  if (base < side.foot - 0.01 && moulding.kind !== 'skirting') return [];
  if (base + height > side.height + NEAR) return [];
  return pieces(freeAlong(side, openings, base, base + height), () => base, bends);
}

/** Stretches of pieces that meet end to end. */
function chainsOf(pieces: readonly Piece[], closed: boolean): { pieces: Piece[]; closed: boolean }[] {
  const chains: { pieces: Piece[]; closed: boolean }[] = [];
  for (const piece of pieces) {
    const last = chains[chains.length - 1];
    const before = last?.pieces[last.pieces.length - 1];
    if (before && before.right && piece.left && before.face !== piece.face) last.pieces.push(piece);
    else chains.push({ pieces: [piece], closed: false });
  }
  if (!closed || !chains.length) return chains;
  const [first, last] = [chains[0], chains[chains.length - 1]];
  if (!first.pieces[0].left || !last.pieces[last.pieces.length - 1].right || first.pieces[0].face === last.pieces[last.pieces.length - 1].face) return chains;
  if (first === last) return [{ pieces: first.pieces, closed: true }];
  return [{ pieces: [...last.pieces, ...first.pieces], closed: false }, ...chains.slice(1, -1)];
}

/**
 * A moulding along the walls of a room: mitred in and out of corners, interrupted by what stands in its way, following arcs
 * and raking ceilings.
 *
 * @param faces of the room
 */
export function deriveMoulding(
  moulding: Moulding,
  profile: Profile,
  faces: readonly Face[],
  floor: number,
  openingsOf: (wall: string) => readonly Opening[],
): DerivedMoulding {
  const { points, height } = sectionOf(profile, moulding.height);
  const walls = faces.filter((f) => f.kind === 'wall' && f.room === moulding.room);
  const bySide = new Map(walls.map((f) => [f.side!, f]));
  // What hangs from the ceiling is measured from its upper edge.
  const section = closedSection(moulding.kind === 'cornice' ? points.map((p) => ({ x: p.x, y: p.y - height })) : points);
  const parts = new Map<string, Mesh[]>();
  let [length, mitres, ends] = [0, 0, 0];
  for (const { chain, closed } of wallsRound([...bySide.keys()])) {
    const pieces = chain.flatMap((side) => piecesOn(moulding, bySide.get(side)!, height, floor, openingsOf(side.wall)));
    for (const run of chainsOf(pieces, closed)) {
      const stretches: (SweepStretch & { wall: string; bow: number })[] = run.pieces.flatMap(({ points: line, face, wall }) =>
        line.slice(1).map((b, i) => {
          const [from, to] = [onFace(face, line[i]), onFace(face, b)];
          const normal = outOf(face, (line[i].x + b.x) / 2);
          const along = unit3(sub3(to, from));
          return { wall, bow: face.side!.bow.stretch, from, to, out: unit3(cross3(along, unit3(cross3(normal, along)))) };
        }),
      );
      const solid = stretches.filter((s) => distance3(s.from, s.to) > NEAR);
      if (!solid.length) continue;
      // Along true arcs, though it is swept along their chords.
      length += solid.reduce((sum, s) => sum + distance3(s.from, s.to) * s.bow, 0);
      const turns = solid.filter((s, i) => {
        const next = solid[i + 1] ?? (run.closed ? solid[0] : undefined);
        return next && dot3(unit3(sub3(s.to, s.from)), unit3(sub3(next.to, next.from))) < Math.cos(Math.PI / 36);
      });
      mitres += turns.length;
      if (!run.closed) ends += 2;
      for (const [wall, mesh] of byWall(section, solid, run.closed)) parts.set(wall, [...(parts.get(wall) ?? []), mesh]);
    }
  }
  return {
    moulding,
    parts: [...parts].flatMap(([wall, meshes]) => meshes.map((mesh) => ({ wall, mesh }))),
    length,
    mitres,
    ends,
  };
}

const distance3 = (a: Vec3, b: Vec3): number => Math.hypot(a.x - b.x, a.y - b.y, a.z - b.z);

/** A swept run, parted by the walls it follows, so that each part goes with its wall. */
function byWall(section: readonly Vec2[], stretches: readonly (SweepStretch & { wall: string })[], closed: boolean): [string, Mesh][] {
  const n = stretches.length;
  const out: [string, Mesh][] = [];
  let i = 0;
  while (i < n) {
    let j = i;
    while (j + 1 < n && stretches[j + 1].wall === stretches[i].wall) j++;
    // The neighbours decide how its ends are cut; they are swept along and left out again.
    const before = i > 0 ? stretches[i - 1] : closed && n > j - i + 1 ? stretches[n - 1] : null;
    const after = j < n - 1 ? stretches[j + 1] : closed && n > j - i + 1 ? stretches[0] : null;
    const whole = !before && !after && closed;
    out.push([stretches[i].wall, sweep(section, stretches.slice(i, j + 1), whole, before, after)]);
    i = j + 1;
  }
  return out;
}
