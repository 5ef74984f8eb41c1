import type { Finish } from '../../project/schema';
import { bricks, tiles } from './ceramic';
import { glasses, metals } from './metal';
import { plasters, sheets, stones } from './mineral';
import { bares, outside } from './outside';
import { paints } from './paints';
import { carpets, cloths, wallpapers } from './textile';
import { timbers } from './timber';

/** The shipped finishes. All names, suppliers, codes and prices are invented. */
export const FINISHES: readonly Finish[] = [
  ...paints,
  ...plasters,
  ...wallpapers,
  ...timbers,
  ...tiles,
  ...bricks,
  ...stones,
  ...sheets,
  ...carpets,
  ...cloths,
  ...metals,
  ...glasses,
  ...outside,
  ...bares,
];

const byId = new Map(FINISHES.map((f) => [f.id, f]));

/** A shipped finish by id; one that is not in the library shows as bare plaster. */
export const finishById = (id: string): Finish => byId.get(id) ?? byId.get('bare.plaster')!;

export const hasFinish = (id: string): boolean => byId.has(id);

/** What the ledge offers. */
export const offered: readonly Finish[] = FINISHES.filter((f) => !f.bare);
