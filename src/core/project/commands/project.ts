import { z } from 'zod';
import { addLevel, deleteLevel, setLevel } from '../levels';
import { CLEARANCES, Id, Level, ProjectSchema, Site } from '../schema';

import { define, editable, need, refuseTaken } from './define';

/** Edits of the project as a whole: its name, site, levels. */
export const projectCommands = {
  'project.rename': define({
    title: 'Rename project',
    args: z.object({ name: ProjectSchema.shape.name }),
    apply: (draft, { name }) => void (draft.name = name),
  }),
  'project.units': define({
    title: 'Change units',
    args: z.object({ units: ProjectSchema.shape.units }),
    apply: (draft, { units }) => void (draft.units = units),
  }),
  'project.clearances': define({
    title: 'Change clearances',
    args: z.object({ clearances: z.enum(CLEARANCES) }),
    apply: (draft, { clearances }) => void (draft.clearances = clearances),
  }),
  'site.set': define({
    title: 'Change place and daylight',
    args: editable(Site, []),
    apply: (draft, values) => void Object.assign(draft.site, values),
  }),
  'level.set': define({
    title: 'Change level',
    shell: true,
    args: z.object({ id: Id, set: editable(Level, ['id', 'finishes']) }),
    apply(draft, { id, set }) {
      need(draft.levels, id, 'level');
      setLevel(draft, id, set);
    },
  }),
  'level.add': define({
    title: 'Add level',
    shell: true,
    args: z.object({
      id: Id,
      name: Level.shape.name,
      of: Id,
      where: z.enum(['above', 'below', 'apart']).describe('apart: the lowest level of a building of its own, a step above the ground'),
      walls: z.enum(['all', 'outer', 'none']).describe('which of the walls of the other level it takes over'),
      height: Level.shape.height,
      slab: Level.shape.slab,
    }),
    apply(draft, args, { newId }) {
      refuseTaken(draft.levels, args.id);
      need(draft.levels, args.of, 'level');
      addLevel(draft, args, newId);
    },
  }),
  'level.delete': define({
    title: 'Delete level',
    shell: true,
    args: z.object({ id: Id }),
    apply(draft, { id }) {
      need(draft.levels, id, 'level');
      deleteLevel(draft, id);
    },
  }),
};
