import type { Role } from '../project/schema';

/** What everything of one sort has in common, for whoever shows, traces or counts it. */
interface SortTraits {
  /** What people call it together with its like. */
  group: SortGroup;
  /** What its finish is meant for, where nothing nearer says so. */
  role: Role | null;
  /** A covering is bought for what it covers; what something is built of is bought only as paint on it; a piece comes with its own. */
  counts: 'covering' | 'built' | 'piece';
  /** Bounds a solid, whose inside a section shows. */
  solid?: true;
  /** Would only cover what is looked into from above. */
  overhead?: true;
  /** Throws no shadow in the view. */
  shadeless?: true;
  /** Its panes are known to the light that comes in through them. */
  glazed?: true;
  /** Goes with its wall as the wall itself does. */
  ofWall?: true;
}

export const SORT_GROUPS = [
  'Walls',
  'Ceilings',
  'Floors',
  'Doors and windows',
  'Stairs and guards',
  'Roofs',
  'Framing and beams',
  'Columns',
  'Patches and mouldings',
  'Cabinets',
  'Pieces',
  'Outside',
] as const;
export type SortGroup = (typeof SORT_GROUPS)[number];

/**
 * The sorts of parts: by what they are to the eye and to the bill, whatever thing they belong to. The end of a wall inside
 * a junction is a `cap`: it is seen only where its neighbour is taken away.
 */
export const SORTS = {
  wall: { group: 'Walls', role: 'wall', counts: 'covering', solid: true, ofWall: true },
  top: { group: 'Walls', role: 'wall', counts: 'covering', solid: true, ofWall: true },
  cap: { group: 'Walls', role: null, counts: 'built', solid: true, ofWall: true },
  ceiling: { group: 'Ceilings', role: 'ceiling', counts: 'covering', shadeless: true },
  floor: { group: 'Floors', role: 'floor', counts: 'covering' },
  slab: { group: 'Floors', role: 'wall', counts: 'covering', solid: true },
  'floor-slab': { group: 'Floors', role: 'floor', counts: 'built', solid: true },
  opening: { group: 'Doors and windows', role: 'joinery', counts: 'built', glazed: true },
  stair: { group: 'Stairs and guards', role: 'joinery', counts: 'built', solid: true },
  guard: { group: 'Stairs and guards', role: 'joinery', counts: 'built' },
  roof: { group: 'Roofs', role: null, counts: 'covering', solid: true, overhead: true },
  dormer: { group: 'Roofs', role: null, counts: 'built', solid: true, overhead: true, glazed: true },
  framing: { group: 'Framing and beams', role: 'joinery', counts: 'built', solid: true, overhead: true },
  beam: { group: 'Framing and beams', role: 'joinery', counts: 'built', solid: true },
  column: { group: 'Columns', role: 'wall', counts: 'covering', solid: true },
  patch: { group: 'Patches and mouldings', role: 'wall', counts: 'covering' },
  moulding: { group: 'Patches and mouldings', role: 'joinery', counts: 'built' },
  cabinet: { group: 'Cabinets', role: 'joinery', counts: 'built' },
  piece: { group: 'Pieces', role: null, counts: 'piece' },
  ground: { group: 'Outside', role: 'floor', counts: 'covering', shadeless: true },
  fence: { group: 'Outside', role: null, counts: 'built' },
  backdrop: { group: 'Outside', role: null, counts: 'built', overhead: true, shadeless: true },
} as const satisfies Record<string, SortTraits>;

export type Sort = keyof typeof SORTS;

/** What everything of a sort has in common. */
export const traitsOf = (sort: Sort): SortTraits => SORTS[sort];

/** The sorts that go by one name together. */
export const sortsIn = (group: SortGroup): Sort[] => (Object.keys(SORTS) as Sort[]).filter((sort) => SORTS[sort].group === group);
