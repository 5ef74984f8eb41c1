import { boolean, totalArea } from '../geometry/polygon';
import type { Ring } from '../geometry/region';
import { add, rotate, type Vec2 } from '../geometry/vec';
import { DomainError } from './errors';
import { coexist, inPhase, standsIn } from './phase';
import type { Project, Room, Rooflight } from './schema';
import { faceAt, faceRegion, planOf, roomsByFace } from './topology';
import { NEAR } from '../units/tolerance';

/** The clear opening of a rooflight in the ceiling, counter-clockwise. */
export function rooflightRing({ x, y, rotation, width, length }: Pick<Rooflight, 'x' | 'y' | 'rotation' | 'width' | 'length'>): Ring {
  const corner = (i: number, j: number): Vec2 => add({ x, y }, rotate({ x: (i * width) / 2, y: (j * length) / 2 }, rotation));
  return [corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)];
}

/** The room whose ceiling a rooflight is in: the one its middle lies in. @param project in one phase */
export function rooflightRoom(project: Project, rooflight: Rooflight): Room | null {
  const { arrangement } = planOf(project, rooflight.level);
  const face = faceAt(arrangement, rooflight);
  return face < 0 ? null : (roomsByFace(project, rooflight.level).get(face) ?? null);
}

/** The first "Rooflight n" that no rooflight has yet. */
export function rooflightName(project: Pick<Project, 'rooflights'>): string {
  const taken = new Set(Object.values(project.rooflights).map((r) => r.name));
  for (let n = 1; ; n++) if (!taken.has(`Rooflight ${n}`)) return `Rooflight ${n}`;
}

/**
 * Refuses a rooflight that is not wholly in the ceiling of one room, or lies over another one.
 *
 * @throws DomainError `rooflight.…`
 */
export function checkRooflight(project: Project, rooflight: Rooflight): void {
  const refuse = (code: string, why: string, ids: string[] = []): never => {
    throw new DomainError(`rooflight.${code}`, `${rooflight.name} was not changed: ${why}`, [rooflight.id, ...ids]);
  };
  const ring = { outer: rooflightRing(rooflight), holes: [] };
  let found = false;
  for (const phase of (['before', 'after'] as const).filter((p) => standsIn(rooflight.status, p))) {
    const then = inPhase(project, phase);
    const { arrangement } = planOf(then, rooflight.level);
    const face = faceAt(arrangement, rooflight);
    const room = rooflightRoom(then, rooflight);
    if (!room) continue;
    found = true;
    if (room.cover.kind === 'open') refuse('open', `${room.name} is open to the sky; give it a ceiling first.`, [room.id]);
    if (totalArea(boolean('difference', [ring], [faceRegion(arrangement.faces[face])])) > NEAR)
      refuse('off-room', `there it would reach out of ${room.name}; move it inwards or make it smaller.`, [room.id]);
  }
  if (!found) refuse('no-room', 'a rooflight lies in the ceiling of a room; move it into one that is there when it is.');
  for (const other of Object.values(project.rooflights)) {
    if (other.id === rooflight.id || other.level !== rooflight.level || !coexist(other.status, rooflight.status)) continue;
    if (totalArea(boolean('intersection', [ring], [{ outer: rooflightRing(other), holes: [] }])) > NEAR)
      refuse('overlap', `there it would overlap ${other.name}; move one of them.`, [other.id]);
  }
}

/** After an edit, checks the rooflights that it may have touched. @throws DomainError `rooflight.…` */
export function checkRooflights(before: Project, edited: Project): void {
  const shell = before.walls !== edited.walls || before.corners !== edited.corners || before.rooms !== edited.rooms;
  if (!shell && before.rooflights === edited.rooflights) return;
  for (const id in edited.rooflights) if (shell || before.rooflights[id] !== edited.rooflights[id]) checkRooflight(edited, edited.rooflights[id]);
}
