import type { Vec2, Vec3 } from '@/core/geometry/vec';
import { formatLength, parseSize } from '@/core/units/length';
import { newId, useStudio, type Spot } from '../store/studio';

/** A point of a face of a wall in its elevation. */
export interface WallPoint {
  level: string;
  /** The left end of the face as one sees it, the way along it to the right, and out of it into the room. */
  origin: Vec2;
  right: Vec2;
  out: Vec2;
  length: number;
  /** From its left end, and above the floor, metres. */
  along: number;
  height: number;
}

/** A pointer event in the model: where on the floor, what is under it, how far a few pixels reach. */
export interface TablePoint {
  plan: Vec2;
  spot: Spot | null;
  /** What ten pixels are here, metres. */
  reach: number;
  shift: boolean;
  /** What one points at in the model, without some things; left out where one points at a drawing. */
  onto?(except: ReadonlySet<string>): Vec3 | null;
  /** Where one points in an elevation. */
  wall?: WallPoint;
}

/** What the underlay of the level is called where things are told apart by id. */
export const UNDERLAY = 'underlay';

export const get = useStudio.getState;
export const set = useStudio.setState;

/** Ids of what is set next, by what it is: what is shown is what will be there. */
const coming = new Map<string, string[]>();

/** Ids for the things that are shown now and set next, one after another. @param what their kind, the beginning of their ids */
export function comingIds(what: string): () => string {
  const ids = coming.get(what) ?? [];
  coming.set(what, ids);
  let n = 0;
  return () => (ids[n++] ??= newId(what));
}

/** The id of the thing that is shown now and set next. */
export const comingId = (what: string): string => comingIds(what)();

/** They were set: the next ones are others. */
export const wasSet = (what: string): void => void coming.delete(what);

/** A length in the units of the project. */
export const length = (metres: number): string => formatLength(metres, get().project.units);

/** Whether what is typed on the measuring line can be built, or nothing is typed; else it is said why not. */
export function readable(least?: number): boolean {
  const { measure, project, say } = get();
  const text = measure?.typed?.trim();
  if (!text) return true;
  const parsed = parseSize(text, project.units, least);
  if (!parsed.ok) say(parsed.message);
  return parsed.ok;
}
