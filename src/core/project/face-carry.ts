import { addressOf, targetOf } from './targets';
import type { Draft } from 'immer';
import type { Patch, Project, Side } from './schema';
import { stateOf } from './topology';

type NewId = (prefix: string) => string;

const onWall = (patch: Patch, wall: string): boolean => patch.on.kind === 'wall' && patch.on.wall === wall;

/** Where along its wall a patch has its middle. */
function middleOf(patch: Patch): number | null {
  const { shape } = patch;
  if (shape.kind === 'band') return null;
  if (shape.kind === 'rectangle') return shape.at;
  return shape.points.reduce((sum, p) => sum + p.x, 0) / shape.points.length;
}

/** A patch moved along its wall. @param turn its wall now runs the other way and is so long */
function carried(patch: Patch, by: number, turn: number | null = null): Patch['shape'] {
  const x = (s: number): number => (turn === null ? s : turn - s) + by;
  const { shape } = patch;
  if (shape.kind === 'band') return shape;
  if (shape.kind === 'rectangle') return { ...shape, at: x(shape.at) };
  const points = shape.points.map((p) => ({ x: x(p.x), y: p.y }));
  return { ...shape, points: turn === null ? points : points.reverse() };
}

/** Patches and layings of a wall that is split: each patch goes with the part its middle is on, bands and layings with all of them. */
export function splitFaces(draft: Draft<Project>, wall: string, part: string, from: number, to: number, newId: NewId): void {
  for (const patch of Object.values(stateOf(draft.patches))) {
    if (!onWall(patch, wall) || patch.on.kind !== 'wall') continue;
    const at = middleOf(patch);
    if (at === null) {
      const id = newId('patch');
      draft.patches[id] = { ...patch, id, on: { ...patch.on, wall: part } };
    } else if (at > from && at <= to) Object.assign(draft.patches[patch.id], { on: { ...patch.on, wall: part }, shape: carried(patch, -from) });
  }
  const layings = stateOf(draft.layings);
  for (const address in layings) {
    const target = targetOf(address);
    if (target?.kind === 'wall' && target.wall === wall) draft.layings[addressOf({ ...target, wall: part })] = layings[address];
  }
}

/**
 * Patches of a wall that becomes a part of another.
 *
 * @param turned the length of the wall where it runs against the other one; null: it runs along
 */
export function joinFaces(draft: Draft<Project>, wall: string, into: string, by: number, turned: number | null): void {
  const flip = (side: Side): Side => (turned === null ? side : side === 'left' ? 'right' : 'left');
  for (const patch of Object.values(stateOf(draft.patches)))
    if (onWall(patch, wall) && patch.on.kind === 'wall')
      Object.assign(draft.patches[patch.id], { on: { ...patch.on, wall: into, side: flip(patch.on.side) }, shape: carried(patch, by, turned) });
}

/** Patches of a wall whose start moves along it. */
export function shiftFaces(draft: Draft<Project>, wall: string, by: number): void {
  for (const patch of Object.values(stateOf(draft.patches))) if (onWall(patch, wall)) Object.assign(draft.patches[patch.id], { shape: carried(patch, by) });
}

/** Takes away what lay on walls and rooms that are no more. */
export function dropFaces(before: Project, edited: Project, draft: Draft<Project>): void {
  if (before.walls === edited.walls && before.rooms === edited.rooms) return;
  const rooms = stateOf(draft.rooms);
  const there = (room: string | null): boolean => room === null || Object.hasOwn(rooms, room);
  for (const patch of Object.values(edited.patches))
    if (!there(patch.on.room) || (patch.on.kind === 'wall' && !Object.hasOwn(edited.walls, patch.on.wall))) delete draft.patches[patch.id];
  for (const moulding of Object.values(edited.mouldings)) if (!there(moulding.room)) delete draft.mouldings[moulding.id];
  for (const address in edited.layings) {
    const target = targetOf(address);
    if (!target || ('room' in target && !there(target.room)) || (target.kind === 'wall' && !Object.hasOwn(edited.walls, target.wall)))
      delete draft.layings[address];
  }
}
