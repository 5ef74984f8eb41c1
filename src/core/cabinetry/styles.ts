import { PLAIN_LOOK } from '../project/joinery';
import type { Project } from '../project/schema';
import type { JoineryStyle } from '../project/schema/cabinets';

/** Fronts and all that goes along with them, of one finish. */
const inOne = (finish: string): JoineryStyle['parts'] => Object.fromEntries(['fronts', 'plinth', 'panels', 'cornice', 'pelmet'].map((part) => [part, finish]));

/** Joinery styles drawn for this library. */
export const STYLES: readonly JoineryStyle[] = [
  {
    id: 'style.painted-frame',
    name: 'Painted frame',
    look: {
      ...PLAIN_LOOK,
      stile: 0.075,
      rail: 0.075,
      panes: { across: 2, up: 3 },
      handles: 'knob',
      cornices: [{ profile: 'cornice-small', up: 0, out: 0.002 }],
      pelmet: 0.04,
      edge: 'eased',
    },
    parts: {
      ...inOne('paint.lockgate-green'),
      handles: 'metal.brass-brushed',
      worktop: 'timber.oak',
    },
  },
  {
    id: 'style.plain-oak',
    name: 'Plain oak',
    look: { ...PLAIN_LOOK, fronts: 'flat', handles: 'rail', edge: 'square' },
    parts: {
      fronts: 'timber.oak-quarter',
      panels: 'timber.oak-quarter',
      plinth: 'metal.powder-black',
      handles: 'metal.powder-black',
      worktop: 'terrazzo.pale',
      carcass: 'timber.birch-veneer',
    },
  },
  {
    id: 'style.beaded',
    name: 'Beaded, with cups',
    look: {
      ...PLAIN_LOOK,
      fronts: 'beaded',
      stile: 0.08,
      rail: 0.08,
      panes: { across: 2, up: 4 },
      handles: 'cup',
      cornices: [{ profile: 'cornice-small', up: 0, out: 0.002 }],
      pelmet: 0.05,
      edge: 'rounded',
    },
    parts: {
      ...inOne('paint.skein'),
      handles: 'metal.steel-brushed',
      worktop: 'stone.soapstone',
    },
  },
  {
    id: 'style.reeded-ash',
    name: 'Reeded ash',
    look: { ...PLAIN_LOOK, fronts: 'reeded', handles: 'edge', edge: 'bevelled' },
    parts: { fronts: 'timber.ash', panels: 'timber.ash', plinth: 'timber.ash', handles: 'metal.powder-black', worktop: 'terrazzo.pale' },
  },
  {
    id: 'style.boards',
    name: 'Boards',
    look: { ...PLAIN_LOOK, fronts: 'boarded', handles: 'recessed', edge: 'eased' },
    parts: { fronts: 'timber.ash', panels: 'timber.ash', plinth: 'timber.ash', worktop: 'timber.oak' },
  },
];

/** A joinery style of a project, or one of this library; null where there is none. */
export const styleIn = ({ joinery }: Pick<Project, 'joinery'>, id: string | null): JoineryStyle | null =>
  id === null ? null : ((Object.hasOwn(joinery, id) ? joinery[id] : STYLES.find((s) => s.id === id)) ?? null);

/** Every style one can choose: the project’s own, then those of this library that it has not made its own. */
export const stylesIn = ({ joinery }: Pick<Project, 'joinery'>): JoineryStyle[] => [
  ...Object.values(joinery),
  ...STYLES.filter((s) => !Object.hasOwn(joinery, s.id)),
];
