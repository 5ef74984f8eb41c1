import { bowOf, STRAIGHT } from './bow';
import { edgeDirection, type HalfEdge } from '../geometry/arrangement';
import { joinMeshes, meshArea, MeshBuilder, type Mesh } from '../geometry/mesh';
import { signedArea } from '../geometry/polygon';
import type { Ring } from '../geometry/region';
import { cross, distance, dot, lerp, sub, unit, type Vec2 } from '../geometry/vec';
import { openingOutline } from '../project/openings';
import { sideKey, type Opening, type Side } from '../project/schema';
import type { Station } from '../project/wall-line';
import type { PieceFootprint } from './junctions';
import { ceilingHeight } from './rooms';

import { upperEdge } from './upper-edge';
import type { DerivedWall, UpperEdge, WallInputs, WallSide } from './wall-types';
import { faceX, sideRegions, sideTop } from './wall-face';
import { prism, RunSolid, type Stretch } from './wall-solid';
import { NEAR } from '../units/tolerance';

/** The solid of a wall with its openings cut out, its faces by side, in the level's own height (floor at 0). */
export function makeWall(inputs: WallInputs): DerivedWall {
  const { wall, level, path, thickness, foot } = inputs;
  const upper = upperEdge(inputs);
  const rings = inputs.footprints.flatMap((f) => [f.ring, ...(f.rest ?? [])]).filter((ring) => ring.length > 2);
  const sides: WallSide[] = [];
  if (wall.kind === 'boundary')
    return { id: wall.id, wall, thickness: 0, rings: [], sides, height: level.height, foot, faces: [], lids: joinMeshes([]), caps: joinMeshes([]) };
  const { runs, crowded } = runsOf(inputs, sides);
  const half = thickness / 2;
  const off = Math.max(-half, Math.min(half, wall.offset));
  const extents = { left: half - off, right: half + off };
  // Where the upper edge bends, so do the faces below it.
  for (const line of [...sides.map((s) => s.path), ...runs.flatMap((r) => [r.left, r.right])]) for (const s of upper.bends(line)) bendAt(line, s);
  const height = Math.min(...[path[0], path[path.length - 1], ...sides.flatMap((s) => s.path)].map((q) => upper.at(q.p, q.s)));
  for (const side of sides) {
    const own = inputs.openings.filter((o) => o.at > side.s0 && o.at < side.s1);
    side.openings = own.map((o) => o.id);
    side.bow = bowOf(wall, path, extents, side);
    side.area = sideArea(side, upper, own);
    side.length = faceX(side, side.side === 'left' ? side.s0 : side.s1);
    side.top = sideTop(side, upper);
    side.regions = sideRegions(side, own);
  }
  const meshes = new Map<WallSide, Mesh[]>(sides.map((side) => [side, []]));
  const [lids, caps]: [Mesh[], Mesh[]] = [[], []];
  runs.forEach((run, i) => {
    const solid = runMeshes(run, inputs, upper, runs[i - 1], runs[i + 1]);
    meshes.get(run.leftSide)?.push(solid.left);
    meshes.get(run.rightSide)?.push(solid.right);
    lids.push(solid.lids);
    caps.push(solid.caps);
    for (const [side, mesh] of [
      [run.leftSide, solid.leftEnds],
      [run.rightSide, solid.rightEnds],
    ] as const) {
      meshes.get(side)?.push(mesh);
      side.ends += meshArea(mesh);
    }
    const next = runs[i + 1];
    if (next && next.startNode === run.endNode)
      for (const which of ['left', 'right'] as const) {
        const gap = overLow(run, next, which, inputs, upper);
        if (!gap) continue;
        const side = run[`${which}Side`];
        meshes.get(side)?.push(gap.face);
        side.ends += meshArea(gap.face);
        lids.push(gap.lids);
        caps.push(gap.caps);
      }
  });
  for (const { ring, leftSide, rightSide } of crowded) {
    const [l, r, lid, cap] = [new MeshBuilder(), new MeshBuilder(), new MeshBuilder(), new MeshBuilder()];
    const shown = [meshes.has(leftSide) ? l : undefined, meshes.has(rightSide) ? r : undefined] as const;
    prism(ring, foot, upper, path, shown, lid, cap);
    meshes.get(leftSide)?.push(l.build());
    meshes.get(rightSide)?.push(r.build());
    lids.push(lid.build());
    caps.push(cap.build());
  }
  return {
    id: wall.id,
    wall,
    thickness,
    rings,
    sides,
    height,
    foot,
    faces: sides.map((side) => joinMeshes(meshes.get(side)!)),
    lids: joinMeshes(lids),
    caps: joinMeshes(caps),
  };
}

interface RunMeshes {
  left: Mesh;
  right: Mesh;
  leftEnds: Mesh;
  rightEnds: Mesh;
  lids: Mesh;
  caps: Mesh;
}

/** The solids of runs by the footprint they begin with: an edit beside one run leaves the other runs of its wall alone. */
const solids = new WeakMap<PieceFootprint, { deps: readonly unknown[]; meshes: RunMeshes }>();

function runMeshes(run: Stretch, inputs: WallInputs, upper: UpperEdge, previous: Stretch | undefined, next: Stretch | undefined): RunMeshes {
  const openings = inputs.openings.filter((o) => o.at > run.s0 && o.at < run.s1);
  const inside = run.leftSide.outdoors && !run.rightSide.outdoors ? 'right' : 'left';
  const deps = [
    ...run.prints,
    ...openings,
    inputs.wall,
    inputs.thickness,
    inputs.foot,
    inputs.level.height,
    inside,
    run.startSeen,
    run.endSeen,
    previous?.prints[previous.prints.length - 1],
    next?.prints[0],
    run.s0,
    run.s1,
    // Where its faces lie along the whole of theirs.
    ...[run.leftSide, run.rightSide].flatMap((side) => [faceX(side, run.s0), faceX(side, run.s1)]),
    inputs.path[inputs.path.length - 1].s,
    ...inputs.roofs,
  ];
  const known = solids.get(run.prints[0]);
  if (known && known.deps.length === deps.length && known.deps.every((d, i) => d === deps[i])) return known.meshes;
  const [left, right, lids, caps] = [new MeshBuilder(), new MeshBuilder(), new MeshBuilder(), new MeshBuilder()];
  const ends = { left: new MeshBuilder(), right: new MeshBuilder() };
  new RunSolid(run, inputs, upper, openings, [...(previous ? [previous.endCap] : []), ...(next ? [next.startCap] : [])]).build(left, right, lids, caps, ends);
  const meshes = {
    left: left.build(),
    right: right.build(),
    leftEnds: ends.left.build(),
    rightEnds: ends.right.build(),
    lids: lids.build(),
    caps: caps.build(),
  };
  solids.set(run.prints[0], { deps, meshes });
  return meshes;
}

/**
 * Where a lower wall meets the side of this one, the junction takes a wedge out of it all the way up: above the lower wall
 * the wedge is filled, so that the face goes on. Null where what meets it is as high.
 */
function overLow(run: Stretch, next: Stretch, which: Side, inputs: WallInputs, upper: UpperEdge): { face: Mesh; lids: Mesh; caps: Mesh } | null {
  const { arrangement, wall } = inputs;
  const [from, to] = [run[which][run[which].length - 1], next[which][0]];
  if (distance(from.p, to.p) <= NEAR * 10) return null;
  const node = arrangement.nodes[run.endNode];
  const along = sub(to.p, from.p);
  const beside = arrangement.fans[run.endNode].filter((e) => {
    const piece = arrangement.pieces[e.piece]!;
    if (piece.line === wall.id || piece.left + piece.right === 0) return false;
    const away = cross(along, edgeDirection(arrangement, e));
    return which === 'left' ? away > 0 : away < 0;
  });
  const low = Math.max(-Infinity, ...beside.map((e) => inputs.topOf(arrangement.pieces[e.piece]!.line)));
  const heights = [from, to].map((q) => upper.at(q.p, q.s));
  if (!Number.isFinite(low) || low >= Math.min(...heights) - NEAR) return null;
  const middle = upper.at(node, run.s1);
  // Counter-clockwise: the middle of the junction, then the face from its right to its left as it is seen from above.
  const ring = which === 'left' ? [node, to.p, from.p] : [node, from.p, to.p];
  const top = which === 'left' ? [middle, heights[1], heights[0]] : [middle, heights[0], heights[1]];
  const [face, lids, caps] = [new MeshBuilder(), new MeshBuilder(), new MeshBuilder()];
  ring.forEach((a, i) => {
    const j = (i + 1) % 3;
    const b = ring[j];
    (i === 1 ? face : caps).quad({ ...a, z: low }, { ...b, z: low }, { ...b, z: top[j] }, { ...a, z: top[i] });
  });
  for (const up of [true, false]) {
    const [a, b, c] = ring.map((p, i) => lids.vertex({ ...p, z: up ? top[i] : low }, { x: 0, y: 0, z: up ? 1 : -1 }, p.x, p.y));
    if (up) lids.triangle(a, b, c);
    else lids.triangle(a, c, b);
  }
  return { face: face.build(), lids: lids.build(), caps: caps.build() };
}

/** Puts a point into a path at a distance along the wall, where it goes past that and has none yet. */
function bendAt(path: Station[], s: number): void {
  const i = path.findIndex((q) => q.s > s + NEAR);
  if (i < 1 || s - path[i - 1].s <= NEAR) return;
  const [a, b] = [path[i - 1], path[i]];
  path.splice(i, 0, { p: lerp(a.p, b.p, (s - a.s) / (b.s - a.s)), s });
}

/** Pieces that follow one another without a junction, gathered, and the sides they belong to. */
function runsOf(inputs: WallInputs, sides: WallSide[]): { runs: Stretch[]; crowded: { ring: Ring; leftSide: WallSide; rightSide: WallSide }[] } {
  const { arrangement, pieces, footprints, wall } = inputs;
  const runs: Stretch[] = [];
  const crowded: { ring: Ring; leftSide: WallSide; rightSide: WallSide }[] = [];
  const last: Partial<Record<Side, WallSide>> = {};
  // Where nothing but lower walls meet an end, it is seen above them; where its own line goes on, not at all.
  const seenFrom = (fan: readonly HalfEdge[]): number => {
    const others = fan.filter((e) => arrangement.pieces[e.piece]!.left + arrangement.pieces[e.piece]!.right > 0);
    const own = others.filter((e) => arrangement.pieces[e.piece]!.line === wall.id).length;
    if (own > 1) return Infinity;
    return Math.max(-Infinity, ...others.map((e) => arrangement.pieces[e.piece]!.line).flatMap((line) => (line === wall.id ? [] : [inputs.topOf(line)])));
  };
  pieces.forEach((piece, i) => {
    const print = footprints[i];
    const d = unit(sub(arrangement.nodes[piece.to], arrangement.nodes[piece.from]));
    const origin = arrangement.nodes[piece.from];
    const scale = (piece.s1 - piece.s0) / (distance(origin, arrangement.nodes[piece.to]) || 1);
    const station = (p: Vec2): Station => ({ p, s: piece.s0 + dot(sub(p, origin), d) * scale });
    const goesOn = i > 0 && pieces[i - 1].to === piece.from && arrangement.fans[piece.from].length === 2;
    const side = (which: Side): WallSide => {
      const room = inputs.roomOf(arrangement.cycles[piece.index * 2 + (which === 'left' ? 0 : 1)]);
      const [from, to] = print[which].map(station);
      const previous = last[which];
      if (previous && previous.room === (room?.id ?? null) && distance(previous.to, from.p) < NEAR * 10) {
        previous.path.push(to);
        previous.to = to.p;
        previous.s1 = to.s;
        return previous;
      }
      const outdoors = room === null || room.outdoors;
      const next: WallSide = {
        key: sideKey(wall.id, which),
        wall: wall.id,
        side: which,
        room: room?.id ?? null,
        outdoors,
        from: from.p,
        to: to.p,
        path: [from, to],
        s0: from.s,
        s1: to.s,
        foot: room ? Math.max(inputs.foot, room.step) : inputs.foot,
        height: room && !(room.cover.kind === 'roof' && inputs.roofsOver) ? ceilingHeight(room, inputs.level) : Infinity,
        area: 0,
        ends: 0,
        length: 0,
        bow: STRAIGHT,
        top: [],
        regions: [],
        openings: [],
      };
      last[which] = next;
      sides.push(next);
      return next;
    };
    const [leftSide, rightSide] = [side('left'), side('right')];
    if (print.rest !== undefined) {
      for (const ring of [print.ring, ...print.rest]) if (ring.length > 2) crowded.push({ ring, leftSide, rightSide });
      return;
    }
    const [l0, l1] = print.left.map(station);
    const [r0, r1] = print.right.map(station);
    const run = runs[runs.length - 1];
    if (goesOn && run && run.leftSide === leftSide && run.rightSide === rightSide) {
      run.prints.push(print);
      run.left.push(l1);
      run.right.push(r1);
      run.endCap = print.endCap;
      run.s1 = piece.s1;
      run.endSeen = seenFrom(arrangement.fans[piece.to]);
      run.endNode = piece.to;
      return;
    }
    runs.push({
      prints: [print],
      left: [l0, l1],
      right: [r0, r1],
      startCap: print.startCap,
      endCap: print.endCap,
      leftSide,
      rightSide,
      startSeen: seenFrom(arrangement.fans[piece.from]),
      endSeen: seenFrom(arrangement.fans[piece.to]),
      startNode: piece.from,
      endNode: piece.to,
      s0: piece.s0,
      s1: piece.s1,
    });
  });
  // Between crowded junctions nothing may be left of a side.
  for (let i = sides.length - 1; i >= 0; i--) {
    const own = sides[i];
    if (
      own.s1 - own.s0 <= NEAR &&
      !runs.some((r) => r.leftSide === own || r.rightSide === own) &&
      !crowded.some((c) => c.leftSide === own || c.rightSide === own)
    )
      sides.splice(i, 1);
  }
  return { runs, crowded };
}

const areas = new WeakMap<Opening, number>();

function outlineArea(opening: Opening): number {
  let area = areas.get(opening);
  if (area === undefined) areas.set(opening, (area = signedArea(openingOutline(opening))));
  return area;
}

/** What shows of a side between floor and ceiling, openings taken off, m². */
function sideArea(side: WallSide, upper: UpperEdge, openings: readonly Opening[]): number {
  let area = 0;
  for (let i = 1; i < side.path.length; i++) {
    const [a, b] = [side.path[i - 1], side.path[i]];
    const width = distance(a.p, b.p) * side.bow.stretch;
    // A raking upper edge is cut by a level ceiling where the two cross.
    const [h0, h1] = [upper.at(a.p, a.s) - side.foot, upper.at(b.p, b.s) - side.foot];
    const limit = side.height - side.foot;
    if (h0 <= limit && h1 <= limit) area += (width * (h0 + h1)) / 2;
    else if (h0 >= limit && h1 >= limit) area += width * limit;
    else {
      const t = (limit - h0) / (h1 - h0);
      const [before, after] = h0 < limit ? [(h0 + limit) / 2, limit] : [limit, (limit + h1) / 2];
      area += width * (t * before + (1 - t) * after);
    }
  }
  const highest = Math.max(...side.path.map((q) => upper.at(q.p, q.s)));
  side.height = Math.min(side.height, highest);
  for (const o of openings) {
    // Round a corner the face inside loses less than the one outside.
    if (o.form === 'corner') area -= o.height * (o.hinge === 'start' ? o.at + o.width / 2 - side.s0 : side.s1 - o.at + o.width / 2);
    else if (o.kind !== 'niche' || o.swing === side.side) area -= outlineArea(o);
  }
  return area;
}

/** The whole solid of a wall as one mesh. */
export const wallSolid = (wall: Pick<DerivedWall, 'faces' | 'lids' | 'caps'>): Mesh => joinMeshes([...wall.faces, wall.lids, wall.caps]);
