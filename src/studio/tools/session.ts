import type { Vec2 } from '@/core/geometry/vec';
import { formatLength } from '@/core/units/length';
import { useStudio, type Spot } from '../store/studio';

/** A pointer event in the model: where on the floor, what is under it, how far a few pixels reach. */
export interface TablePoint {
  plan: Vec2;
  spot: Spot | null;
  /** What ten pixels are here, metres. */
  reach: number;
  shift: boolean;
}

/** What the underlay of the level is called where things are told apart by id. */
export const UNDERLAY = 'underlay';

export const get = useStudio.getState;
export const set = useStudio.setState;

/** A length in the units of the project. */
export const length = (metres: number): string => formatLength(metres, get().project.units);
