import type { Fence, GroundArea } from '../schema/outside';
import type { Roof } from '../schema/roofs';
import type { Guard, Slab } from '../schema/stairs';
import type { PartKind } from './kind';

/** What a surface is worth before anybody has chosen a finish. */
export const BARE = {
  wall: 'bare.plaster',
  floor: 'bare.screed',
  ceiling: 'bare.ceiling',
  outside: 'bare.render',
  ground: 'bare.ground',
  cut: 'bare.cut',
} as const;

/** The colours that what is made by the designer begins with. */
export const FIRST_COLOURS = {
  /** A finish of one's own. */
  own: '#9aa48b',
  /** The coat in a colour of one's own over another finish. */
  coat: '#5d4a36',
  /** The joints of what is laid. */
  joints: '#b9b6ae',
  /** The page of a board. */
  page: '#f4f1ea',
} as const;

export const INFILLS: Record<Guard['infill'], string> = { balusters: 'paint.skein', glass: 'glass.clear', cable: 'metal.steel-brushed', none: 'paint.skein' };

export const SLABS: Record<Slab['kind'], { top: string; edge: string }> = {
  mezzanine: { top: 'timber.oak-plank', edge: 'paint.skein' },
  balcony: { top: 'stone.flag', edge: 'bare.render' },
  deck: { top: 'timber.ash-plank', edge: 'timber.ash' },
  foundation: { top: 'bare.screed', edge: 'bare.screed' },
};

/** What new roofs are covered with. */
export const COVERINGS: Record<Roof['form'], string> = { pitched: 'tile.riven-slate', flat: 'ground.gravel' };

export const GROUNDS: Record<GroundArea['kind'], string> = {
  lawn: 'ground.grass',
  gravel: 'ground.gravel',
  paving: 'stone.flag',
  drive: 'ground.gravel',
  bed: 'ground.soil',
  water: 'water.canal',
  pool: 'water.pool',
};

/** Kerbs and retaining edges. */
export const EDGE = 'stone.flag';
export const BASINS: Record<'water' | 'pool', string> = { water: 'ground.soil', pool: 'tile.square-white' };

export const FENCES: Record<Fence['kind'], string> = { boards: 'timber.ash', rails: 'timber.ash', hedge: 'leaf.green', wall: 'brick.red-stock' };

/** The parts of cabinets. */
export const CABINETS = {
  fronts: 'paint.lockgate-green',
  worktop: 'terrazzo.pale',
  handles: 'metal.brass-brushed',
  carcass: 'timber.birch-veneer',
  drawers: 'timber.birch',
  glass: 'glass.clear',
  legs: 'metal.powder-black',
  grilles: 'metal.powder-black',
  wire: 'metal.chrome',
  bins: 'sheet.laminate-ink',
  splashback: 'tile.glazed-white',
} as const;

/** The parts of a guard, if there is one. */
export const guardParts = (guard: Guard | null): PartKind[] =>
  guard
    ? [
        { part: 'rail', role: 'joinery', finish: 'timber.oak' },
        { part: 'infill', role: guard.infill === 'cable' ? 'metal' : 'joinery', finish: INFILLS[guard.infill] },
      ]
    : [];
