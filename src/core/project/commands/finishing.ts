import type { Draft } from 'immer';
import { z } from 'zod';
import { Id, sideKey, type Project } from '../schema';

import { need } from './define';

/** The surface a finish goes on. `room: null` is the outside. */
export const FaceTarget = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('floor'), room: Id }),
  z.object({ kind: z.literal('ceiling'), room: Id }),
  z.object({ kind: z.literal('walls'), room: Id.nullable() }),
  z.object({ kind: z.literal('wall'), room: Id.nullable(), wall: Id, side: z.enum(['left', 'right']) }),
  z.object({ kind: z.literal('piece'), piece: Id, part: z.string().min(1).max(60) }),
  z.object({ kind: z.literal('opening'), opening: Id, part: z.string().min(1).max(60) }),
  z.object({ kind: z.literal('column'), column: Id }),
  z.object({ kind: z.literal('roof'), roof: Id, part: z.enum(['covering', 'soffit', 'fascia', 'timber']) }),
  z
    .object({ kind: z.literal('part'), of: Id, part: z.string().min(1).max(60) })
    .describe('a named part of a stair, a slab, a dormer, a beam, an area of the ground or a fence'),
  z.object({ kind: z.literal('patch'), patch: Id, part: z.enum(['field', 'panels', 'moulding']) }),
  z.object({ kind: z.literal('moulding'), moulding: Id }),
  z.object({ kind: z.literal('ground') }),
]);
export type FaceTarget = z.infer<typeof FaceTarget>;

export function applyFinish(draft: Draft<Project>, target: FaceTarget, finish: string | null): void {
  const put = (record: Record<string, string>, key: string): void => {
    if (finish === null) delete record[key];
    else record[key] = finish;
  };
  switch (target.kind) {
    case 'floor':
    case 'ceiling':
      need(draft.rooms, target.room, 'room')[target.kind] = finish;
      return;
    case 'walls': {
      const owner = target.room === null ? draft.outside : need(draft.rooms, target.room, 'room');
      owner.walls = finish;
      owner.faces = {};
      return;
    }
    case 'wall': {
      need(draft.walls, target.wall, 'wall');
      const owner = target.room === null ? draft.outside : need(draft.rooms, target.room, 'room');
      put(owner.faces, sideKey(target.wall, target.side));
      return;
    }
    case 'piece':
      put(need(draft.pieces, target.piece, 'piece').finishes, target.part);
      return;
    case 'opening':
      put((draft.rooflights[target.opening] ?? need(draft.openings, target.opening, 'opening')).finishes, target.part);
      return;
    case 'column':
      need(draft.columns, target.column, 'column').finish = finish;
      return;
    case 'roof':
      need(draft.roofs, target.roof, 'roof')[target.part] = finish;
      return;
    case 'part': {
      for (const collection of [draft.stairs, draft.slabs, draft.dormers])
        if (Object.hasOwn(collection, target.of)) return put(collection[target.of].finishes, target.part);
      for (const collection of [draft.beams, draft.fences, draft.grounds])
        if (Object.hasOwn(collection, target.of)) {
          collection[target.of].finish = finish;
          return;
        }
      need({}, target.of, 'part');
      return;
    }
    case 'patch': {
      const patch = need(draft.patches, target.patch, 'patch');
      if (target.part === 'field') patch.finish = finish ?? patch.finish;
      else if (patch.panels) patch.panels[target.part === 'panels' ? 'field' : 'moulding'] = finish;
      return;
    }
    case 'moulding': {
      const moulding = need(draft.mouldings, target.moulding, 'moulding');
      moulding.finish = finish ?? moulding.finish;
      return;
    }
    case 'ground':
      draft.outside.ground = finish;
  }
}
