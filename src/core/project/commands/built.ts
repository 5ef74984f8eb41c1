import type { Draft } from 'immer';
import { current } from 'immer';
import { z } from 'zod';
import { isSimple, signedArea } from '../../geometry/polygon';
import type { Vec2 } from '../../geometry/vec';
import { DomainError } from '../errors';
import { checkDormer } from '../dormers';
import { Beam, Dormer, Fence, GroundArea, Id, Name, Slab, Stair, Void, type Project } from '../schema';
import { collectionOf } from '../things';
import { checkStair } from '../stairs';
import { define, need } from './define';

/** Refuses an outline that crosses itself or encloses nothing. @throws DomainError `outline.…` */
function checkOutline(name: string, id: string, points: readonly Vec2[]): void {
  if (!isSimple(points)) throw new DomainError('outline.crossed', `${name} was not set: its outline crosses itself; move one of its corners.`, [id]);
  if (Math.abs(signedArea(points)) < 0.01)
    throw new DomainError('outline.small', `${name} was not set: its outline encloses nothing; set its corners apart.`, [id]);
}

const onLevel = (draft: Draft<Project>, thing: { level: string }): void => void need(draft.levels, thing.level, 'level');

/** Edits of stairs, voids, slabs, beams and what lies outside: each sets one thing whole. */
export const builtCommands = {
  'stair.put': define({
    title: 'Set stair',
    args: Stair,
    apply(draft, stair) {
      onLevel(draft, stair);
      draft.stairs[stair.id] = stair;
      checkStair(current(draft) as Project, stair);
    },
  }),
  'void.put': define({
    title: 'Set void',
    args: Void,
    apply(draft, own) {
      onLevel(draft, own);
      checkOutline(own.name, own.id, own.points);
      draft.voids[own.id] = own;
    },
  }),
  'slab.put': define({
    title: 'Set slab',
    args: Slab,
    apply(draft, slab) {
      onLevel(draft, slab);
      checkOutline(slab.name, slab.id, slab.points);
      draft.slabs[slab.id] = slab;
    },
  }),
  'beam.put': define({
    title: 'Set beam',
    args: Beam,
    apply(draft, beam) {
      onLevel(draft, beam);
      const { a, b } = beam;
      if (Math.hypot(b.x - a.x, b.y - a.y, b.z - a.z) < 0.01)
        throw new DomainError('beam.short', `${beam.name} was not set: its ends lie in one point; set them apart.`, [beam.id]);
      draft.beams[beam.id] = beam;
    },
  }),
  'dormer.put': define({
    title: 'Set dormer',
    args: Dormer,
    apply(draft, dormer) {
      need(draft.roofs, dormer.roof, 'roof');
      draft.dormers[dormer.id] = dormer;
      checkDormer(current(draft) as Project, dormer);
    },
  }),
  'ground.put': define({
    title: 'Set area of the ground',
    args: GroundArea,
    apply(draft, area) {
      checkOutline(area.name, area.id, area.points);
      draft.grounds[area.id] = area;
    },
  }),
  'fence.put': define({
    title: 'Set fence',
    args: Fence,
    apply: (draft, fence) => void (draft.fences[fence.id] = fence),
  }),
  'thing.rename': define({
    title: 'Rename',
    args: z.object({ id: Id, name: Name }),
    apply(draft, { id, name }) {
      const collection = collectionOf(current(draft) as Project, id);
      const own = draft.outline.groups[id] ?? (collection && (draft[collection] as Record<string, { name?: string }>)[id]);
      if (!own || own.name === undefined) throw new DomainError('missing', 'Nothing was renamed: this thing has no name of its own.', [id]);
      own.name = name;
    },
  }),
  'outline.hide': define({
    title: 'Show or hide',
    args: z.object({ ids: z.array(Id).min(1).max(5000), hidden: z.boolean() }),
    apply: (draft, { ids, hidden }) => void (draft.outline.hidden = listed(draft.outline.hidden, ids, hidden)),
  }),
  'outline.lock': define({
    title: 'Lock or unlock',
    args: z.object({ ids: z.array(Id).min(1).max(5000), locked: z.boolean() }),
    apply: (draft, { ids, locked }) => void (draft.outline.locked = listed(draft.outline.locked, ids, locked)),
  }),
  'outline.group': define({
    title: 'Group',
    args: z.object({ id: Id, name: Name, members: z.array(Id).max(5000) }),
    apply(draft, group) {
      // A thing belongs to one group at a time; one without members ends.
      for (const other of Object.values(draft.outline.groups)) other.members = other.members.filter((m) => !group.members.includes(m));
      if (group.members.length) draft.outline.groups[group.id] = group;
      for (const other of Object.values(draft.outline.groups)) if (!other.members.length) delete draft.outline.groups[other.id];
      if (!group.members.length) delete draft.outline.groups[group.id];
    },
  }),
};

function listed(list: readonly string[], ids: readonly string[], on: boolean): string[] {
  const rest = list.filter((id) => !ids.includes(id));
  return on ? [...rest, ...new Set(ids)] : rest;
}
