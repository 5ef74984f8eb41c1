import { current, isDraft } from 'immer';
import { arrange, cycleRing, type Arrangement, type Cycle, type Face } from '../geometry/arrangement';
import { insideRegion, insideRing, labelPoint, signedArea, type Region } from '../geometry/polygon';
import { distance, type Vec2 } from '../geometry/vec';
import { sideKey, type Project, type Room } from './schema';

/** The walls of one level as an arrangement of their centre lines, with the faces between them. */
export interface Plan {
  level: string;
  arrangement: Arrangement;
}

const plans = new WeakMap<object, Map<string, { corners: object; plan: Plan }>>();

/** What a collection is at the moment: of a draft its state, which is the object it was drawn from while nothing in it has changed. */
const stateOf = <T extends object>(collection: T): T => (isDraft(collection) ? (current(collection as never) as T) : collection);

/** The arrangement of a level's walls. Remembered for as long as the walls and corners stay the same objects. */
export function planOf(project: Pick<Project, 'walls' | 'corners'>, level: string): Plan {
  const walls = stateOf(project.walls);
  const corners = stateOf(project.corners);
  let byLevel = plans.get(walls);
  if (!byLevel) plans.set(walls, (byLevel = new Map()));
  const known = byLevel.get(level);
  if (known && known.corners === corners) return known.plan;
  const plan = makePlan({ walls, corners }, level);
  byLevel.set(level, { corners, plan });
  return plan;
}

function makePlan(project: Pick<Project, 'walls' | 'corners'>, level: string): Plan {
  const lines = Object.values(project.walls)
    .filter((w) => w.level === level)
    .map((w) => {
      const a = project.corners[w.start];
      const b = project.corners[w.end];
      return { id: w.id, a: { x: a.x, y: a.y }, b: { x: b.x, y: b.y }, half: w.thickness / 2 };
    });
  return { level, arrangement: arrange(lines) };
}

/** The wall sides along a face with the length of each, by side key. */
export function faceSides(arrangement: Arrangement, face: Face): Map<string, number> {
  const sides = new Map<string, number>();
  for (const cycle of [face.outer, ...face.inner])
    for (const edge of cycle.edges) {
      const piece = arrangement.pieces[edge.piece];
      const key = sideKey(piece.line, edge.forward ? 'left' : 'right');
      sides.set(key, (sides.get(key) ?? 0) + distance(arrangement.nodes[piece.from], arrangement.nodes[piece.to]));
    }
  return sides;
}

/** The region of a face along the centre lines; lines that stick out into the face take nothing away. */
export function faceRegion(arrangement: Arrangement, face: Face): Region {
  const hole = (c: Cycle): Vec2[] => cycleRing(arrangement, c);
  return {
    outer: cycleRing(arrangement, face.outer),
    holes: face.inner.map(hole).filter((ring) => Math.abs(signedArea(ring)) > 1e-9),
  };
}

/** Index of the smallest face that contains a point, or −1. */
export function faceAt(arrangement: Arrangement, p: Vec2): number {
  let best = -1;
  arrangement.faces.forEach((face, i) => {
    if (!insideRing(p, cycleRing(arrangement, face.outer))) return;
    if (best < 0 || face.outer.area < arrangement.faces[best].outer.area) best = i;
  });
  return best;
}

/** Which room of a level each face belongs to, by the rooms' anchors. */
export function roomsByFace(project: Project, level: string): Map<number, Room> {
  const { arrangement } = planOf(project, level);
  const found = new Map<number, Room>();
  for (const room of Object.values(project.rooms)) {
    if (room.level !== level) continue;
    const face = faceAt(arrangement, room.anchor);
    if (face >= 0 && !found.has(face)) found.set(face, room);
  }
  return found;
}

/** Side keys of a room before an edit, by room. */
function sidesByRoom(project: Project, level: string): Map<string, Map<string, number>> {
  const { arrangement } = planOf(project, level);
  return new Map([...roomsByFace(project, level)].map(([f, room]) => [room.id, faceSides(arrangement, arrangement.faces[f])]));
}

/** The first "Room n" that no room has yet. */
function freeName(project: Project): string {
  const taken = new Set(Object.values(project.rooms).map((r) => r.name));
  for (let n = 1; ; n++) if (!taken.has(`Room ${n}`)) return `Room ${n}`;
}

/**
 * Keeps the rooms in step with the walls after an edit: each face goes to the room that had most of its walls
 * before; a face without a room gets a new one (with the finishes of the room it was split from); a room without
 * a face ends. Changes `after.rooms` in place.
 */
export function reconcileRooms(before: Project, after: Project, newId: (prefix: string) => string): void {
  for (const level of Object.keys(after.levels)) reconcileLevel(before, after, level, newId);
}

function reconcileLevel(before: Project, after: Project, level: string, newId: (prefix: string) => string): void {
  const { arrangement } = planOf(after, level);
  const old = before.levels[level] ? sidesByRoom(before, level) : new Map<string, Map<string, number>>();
  const faces = arrangement.faces.map((face) => ({ face, sides: faceSides(arrangement, face), region: faceRegion(arrangement, face) }));
  const scored: { face: number; room: string; score: number }[] = [];
  faces.forEach(({ sides, region }, f) => {
    for (const [room, had] of old) {
      if (!after.rooms[room]) continue;
      let score = 0;
      for (const [key, length] of sides) if (had.has(key)) score += Math.min(length, had.get(key)!);
      if (insideRegion(after.rooms[room].anchor, region)) score += 1e-3 + score * 0.05;
      if (score > 0) scored.push({ face: f, room, score });
    }
  });
  // A room that had no face before (opened by hand in the file) is known by its anchor alone.
  for (const room of Object.values(after.rooms))
    if (room.level === level && !old.has(room.id)) {
      const face = faceAt(arrangement, room.anchor);
      if (face >= 0) scored.push({ face, room: room.id, score: 1e-6 });
    }
  scored.sort((a, b) => b.score - a.score || a.face - b.face || (a.room < b.room ? -1 : 1));
  const roomOf = new Map<number, string>();
  const taken = new Set<string>();
  const parent = new Map<number, string>();
  for (const { face, room } of scored) {
    if (!parent.has(face)) parent.set(face, room);
    if (roomOf.has(face) || taken.has(room)) continue;
    roomOf.set(face, room);
    taken.add(room);
  }
  for (const room of Object.values(after.rooms)) if (room.level === level && !taken.has(room.id)) delete after.rooms[room.id];
  faces.forEach(({ sides, region }, f) => {
    const known = roomOf.get(f);
    if (known) {
      const room = after.rooms[known];
      if (!insideRegion(room.anchor, region)) room.anchor = labelPoint(region);
      for (const key of Object.keys(room.faces)) if (!sides.has(key)) delete room.faces[key];
      return;
    }
    const from = before.rooms[parent.get(f) ?? ''];
    const id = newId('room');
    after.rooms[id] = {
      id,
      level,
      name: freeName(after),
      anchor: labelPoint(region),
      floor: from?.floor ?? null,
      ceiling: from?.ceiling ?? null,
      walls: from?.walls ?? null,
      faces: from ? Object.fromEntries(Object.entries(from.faces).filter(([key]) => sides.has(key))) : {},
    };
  });
  for (const key of Object.keys(after.outside.faces)) if (!after.walls[key.split('/')[0]]) delete after.outside.faces[key];
}
