import { current, isDraft, type Draft } from 'immer';
import { Arranger, type ArrangedLine, type Arrangement, type Cycle, type PlanFace } from '../geometry/arrangement';
import { insideRegion, insideRing, labelPoint, signedArea } from '../geometry/polygon';
import type { Region } from '../geometry/region';
import { distance, type Vec2 } from '../geometry/vec';
import { inPhase } from './phase';
import { sideKey, type Corner, type Project, type Room, type Wall, type WallType } from './schema';
import { wallExtents, wallPath } from './wall-line';
import { DUST, NEAR } from '../units/tolerance';

/** The walls of one level as an arrangement of their reference lines, with the faces between them. */
export interface Plan {
  level: string;
  arrangement: Arrangement;
}

type Walled = Pick<Project, 'walls' | 'corners' | 'wallTypes'>;

const plans = new WeakMap<object, WeakMap<object, Map<string, { types: object; plan: Plan }>>>();
/** The arrangers of each level, the one used last first: an edited project differs little from one asked about before. */
const arrangers = new Map<string, { arranger: Arranger; lines: ReadonlySet<ArrangedLine> }[]>();
const ARRANGERS = 4;
/** A project that differs in more lines than this from all known ones gets an arranger of its own. */
const ALIKE = 24;
/**
 * In a plan of fewer lines than this an arranger keeps to one set of walls: the house before the work and after it, asked
 * about by turns, would otherwise make all of its pieces anew each time. Arranging so few afresh is soon done.
 */
const SMALL = 60;
const lines = new WeakMap<Wall, { a: Corner; b: Corner; type: WallType | undefined; line: ArrangedLine }>();

/** What a collection is at the moment: of a draft its state, which is the object it was drawn from while nothing in it has changed. */
export const stateOf = <T extends object>(collection: T): T => (isDraft(collection) ? (current(collection as never) as T) : collection);

/** The arrangement of a level's walls. Remembered for as long as the walls, corners and types stay the same objects. */
export function planOf(project: Walled, level: string): Plan {
  const walls = stateOf(project.walls);
  const corners = stateOf(project.corners);
  const types = stateOf(project.wallTypes);
  let byCorners = plans.get(walls);
  if (!byCorners) plans.set(walls, (byCorners = new WeakMap()));
  let byLevel = byCorners.get(corners);
  if (!byLevel) byCorners.set(corners, (byLevel = new Map()));
  const known = byLevel.get(level);
  if (known && known.types === types) return known.plan;
  const arranged: ArrangedLine[] = [];
  for (const id in walls) if (walls[id].level === level) arranged.push(lineOf({ walls, corners, wallTypes: types }, walls[id]));
  const plan = { level, arrangement: arrangerFor(level, arranged).update(arranged) };
  byLevel.set(level, { types, plan });
  return plan;
}

function arrangerFor(level: string, arranged: readonly ArrangedLine[]): Arranger {
  const known = arrangers.get(level) ?? [];
  const lines = new Set(arranged);
  const ids = new Set(arranged.map((line) => line.id));
  const sameWalls = (other: ReadonlySet<ArrangedLine>): boolean => other.size === ids.size && [...other].every((line) => ids.has(line.id));
  let best: { at: number; apart: number } | null = null;
  known.forEach((k, at) => {
    if (lines.size < SMALL && !sameWalls(k.lines)) return;
    let common = 0;
    for (const line of arranged) if (k.lines.has(line)) common++;
    const apart = k.lines.size + lines.size - 2 * common;
    if (!best || apart < best.apart) best = { at, apart };
  });
  const near = best as { at: number; apart: number } | null;
  const arranger = near && (lines.size < SMALL || near.apart <= ALIKE) ? known[near.at].arranger : new Arranger();
  const rest = known.filter((k) => k.arranger !== arranger).slice(0, ARRANGERS - 1);
  arrangers.set(level, [{ arranger, lines }, ...rest]);
  return arranger;
}

/** A wall as a line of the arrangement; the same object as long as nothing it depends on has changed. */
function lineOf(project: Walled, wall: Wall): ArrangedLine {
  const a = project.corners[wall.start];
  const b = project.corners[wall.end];
  const type = wall.type === null ? undefined : project.wallTypes[wall.type];
  const known = lines.get(wall);
  if (known && known.a === a && known.b === b && known.type === type) return known.line;
  const line = { id: wall.id, path: wallPath(project, wall), ...wallExtents(project, wall) };
  lines.set(wall, { a, b, type, line });
  return line;
}

/** The wall sides along a face with the length of each, by side key. */
export function faceSides(arrangement: Arrangement, face: PlanFace): Map<string, number> {
  const sides = new Map<string, number>();
  for (const cycle of [face.outer, ...face.inner])
    for (const edge of cycle.edges) {
      const piece = arrangement.pieces[edge.piece]!;
      const key = sideKey(piece.line, edge.forward ? 'left' : 'right');
      sides.set(key, (sides.get(key) ?? 0) + distance(arrangement.nodes[piece.from], arrangement.nodes[piece.to]));
    }
  return sides;
}

/** The region of a face along the reference lines; lines that stick out into the face take nothing away. */
export function faceRegion(face: PlanFace): Region {
  const hole = (c: Cycle): Vec2[] => c.ring;
  return { outer: face.outer.ring, holes: face.inner.map(hole).filter((ring) => Math.abs(signedArea(ring)) > DUST) };
}

const boxes = new WeakMap<Cycle, { x0: number; y0: number; x1: number; y1: number }>();

function within(p: Vec2, cycle: Cycle): boolean {
  let box = boxes.get(cycle);
  if (!box) {
    box = { x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity };
    for (const q of cycle.ring) {
      box.x0 = Math.min(box.x0, q.x);
      box.x1 = Math.max(box.x1, q.x);
      box.y0 = Math.min(box.y0, q.y);
      box.y1 = Math.max(box.y1, q.y);
    }
    boxes.set(cycle, box);
  }
  return p.x >= box.x0 && p.x <= box.x1 && p.y >= box.y0 && p.y <= box.y1 && insideRing(p, cycle.ring);
}

/** Index of the smallest face that contains a point, or −1. */
export function faceAt(arrangement: Pick<Arrangement, 'faces'>, p: Vec2): number {
  let best = -1;
  arrangement.faces.forEach((face, i) => {
    if (best >= 0 && face.outer.area >= arrangement.faces[best].outer.area) return;
    if (within(p, face.outer)) best = i;
  });
  return best;
}

/** Which room was found in a face last, and by which anchor: while both are the same objects it need not be looked for. */
const found = new WeakMap<PlanFace, { id: string; anchor: Vec2 }>();

const placed = new WeakMap<Arrangement, { rooms: object; byFace: Map<number, Room> }>();

/** Which room of a level each face belongs to, by the rooms' anchors. */
export function roomsByFace(project: Project, level: string): Map<number, Room> {
  const { arrangement } = planOf(project, level);
  const rooms = stateOf(project.rooms);
  const known = placed.get(arrangement);
  if (known?.rooms === rooms) return known.byFace;
  const byFace = placeRooms(arrangement, rooms, level);
  placed.set(arrangement, { rooms, byFace });
  return byFace;
}

function placeRooms(arrangement: Arrangement, all: Record<string, Room>, level: string): Map<number, Room> {
  const rooms = new Map<number, Room>();
  const taken = new Set<string>();
  arrangement.faces.forEach((face, f) => {
    const hint = found.get(face);
    const room = hint && all[hint.id];
    if (!room || room.anchor !== hint.anchor || room.level !== level) return;
    rooms.set(f, room);
    taken.add(room.id);
  });
  for (const id in all) {
    const room = all[id];
    if (room.level !== level || taken.has(id)) continue;
    const face = faceAt(arrangement, room.anchor);
    if (face < 0 || rooms.has(face)) continue;
    rooms.set(face, room);
    found.set(arrangement.faces[face], { id, anchor: room.anchor });
  }
  // In the order of the faces, whatever was known before.
  return new Map([...rooms].sort(([a], [b]) => a - b));
}

/** The first "Room n" that no room has yet. */
function freeName(rooms: Record<string, Room>): string {
  const taken = new Set(Object.values(rooms).map((r) => r.name));
  for (let n = 1; ; n++) if (!taken.has(`Room ${n}`)) return `Room ${n}`;
}

/**
 * Keeps the rooms in step with the walls after an edit: each face goes to the room that had most of its walls
 * before; a face without a room gets a new one (with the finishes of the room it was split from); a room without
 * a face ends, or is kept as removed where it still stands in the house as it is now.
 *
 * @param before the project before the edit
 * @param edited the project after it, with the rooms of before
 * @param draft of `edited`, whose rooms are changed
 */
export function reconcileRooms(before: Project, edited: Project, draft: Draft<Project>, newId: (prefix: string) => string): void {
  for (const level of Object.keys(edited.levels)) reconcileLevel(before, edited, draft, level, newId);
  if (before.walls !== edited.walls) for (const key of Object.keys(edited.outside.faces)) if (!edited.walls[key.split('/')[0]]) delete draft.outside.faces[key];
}

function reconcileLevel(before: Project, edited: Project, draft: Draft<Project>, level: string, newId: (prefix: string) => string): void {
  const was = inPhase(before, 'after');
  const now = inPhase(edited, 'after');
  const { arrangement } = planOf(now, level);
  const old = before.levels[level] ? planOf(was, level).arrangement : { faces: [] as readonly PlanFace[] };
  if (old === arrangement && was.rooms === now.rooms) return;
  const oldRooms = before.levels[level] ? roomsByFace(was, level) : new Map<number, Room>();
  const roomOf = new Map<PlanFace, string>();
  const taken = new Set<string>();
  const standing = new Set(arrangement.faces);
  /** Rooms whose faces have changed, with the sides they had. */
  const loose = new Map<string, Map<string, number>>();
  old.faces.forEach((face, f) => {
    const room = oldRooms.get(f);
    if (!room || !edited.rooms[room.id]) return;
    if (standing.has(face)) {
      roomOf.set(face, room.id);
      taken.add(room.id);
    } else loose.set(room.id, faceSides(old as Arrangement, face));
  });
  const open = arrangement.faces.filter((face) => !roomOf.has(face)).map((face) => ({ face, sides: faceSides(arrangement, face), region: faceRegion(face) }));
  const unplaced = Object.values(edited.rooms).filter((r) => r.level === level && !taken.has(r.id) && !loose.has(r.id));
  if (!open.length && !loose.size && !unplaced.length) return;

  const scored: { at: number; room: string; score: number }[] = [];
  open.forEach(({ sides, region, face }, at) => {
    for (const [room, had] of loose) {
      let score = 0;
      for (const [key, length] of sides) if (had.has(key)) score += Math.min(length, had.get(key)!);
      if (insideRegion(edited.rooms[room].anchor, region)) score += 1e-3 + score * 0.05;
      if (score > 0) scored.push({ at, room, score });
    }
    // A room that had no face (opened by hand in the file, or removed and now wanted back) is known by its anchor alone.
    for (const room of unplaced) if (within(room.anchor, face.outer) && insideRegion(room.anchor, region)) scored.push({ at, room: room.id, score: NEAR });
  });
  scored.sort((a, b) => b.score - a.score || a.at - b.at || (a.room < b.room ? -1 : 1));
  const own = new Map<number, string>();
  const parent = new Map<number, string>();
  for (const { at, room } of scored) {
    if (!parent.has(at)) parent.set(at, room);
    if (own.has(at) || taken.has(room)) continue;
    own.set(at, room);
    taken.add(room);
  }
  const earlier = inPhase(edited, 'before');
  for (const room of [...[...loose.keys()].map((id) => edited.rooms[id]), ...unplaced]) {
    if (taken.has(room.id)) continue;
    const stands = room.status !== 'new' && earlier.walls !== now.walls && faceAt(planOf(earlier, level).arrangement, room.anchor) >= 0;
    if (stands) draft.rooms[room.id].status = 'removed';
    else delete draft.rooms[room.id];
  }
  open.forEach(({ sides, region }, at) => {
    const known = own.get(at);
    if (known) {
      const room = edited.rooms[known];
      if (room.status === 'removed') draft.rooms[known].status = 'existing';
      if (!insideRegion(room.anchor, region)) draft.rooms[known].anchor = labelPoint(region);
      for (const key of Object.keys(room.faces)) if (!sides.has(key)) delete draft.rooms[known].faces[key];
      return;
    }
    const from = before.rooms[parent.get(at) ?? ''];
    // A room of nothing starts as the scheme has it.
    const { starts } = edited.schemes[edited.scheme];
    const id = newId('room');
    const walls = [...sides.keys()].map((key) => edited.walls[key.split('/')[0]]).filter((w) => w.kind === 'wall');
    draft.rooms[id] = {
      id,
      level,
      name: freeName({ ...edited.rooms, ...draft.rooms }),
      anchor: labelPoint(region),
      use: 'unnamed',
      step: from?.step ?? 0,
      cover: from && from.cover.kind !== 'bulkhead' ? from.cover : { kind: 'flat', height: null },
      outdoors: from?.outdoors ?? false,
      status: walls.every((w) => w.status === 'existing') ? 'existing' : 'new',
      floor: from ? from.floor : starts.floor,
      ceiling: from ? from.ceiling : starts.ceiling,
      walls: from ? from.walls : starts.wall,
      faces: from ? Object.fromEntries(Object.entries(from.faces).filter(([key]) => sides.has(key))) : {},
    };
  });
}
