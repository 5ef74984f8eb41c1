import type { RoofSection } from '@/core/project/built-defaults';
import type { RoofForm } from '@/core/project/roof-defaults';
import type { Fence, GroundArea, Slab, Stair } from '@/core/project/schema';

/** What is drawn by points of the plan. */
export type Make =
  | { what: 'roof'; form: RoofForm }
  | { what: 'plane' }
  | { what: 'swept'; section: RoofSection }
  | { what: 'void' }
  | { what: 'slab'; kind: Slab['kind'] }
  | { what: 'stair'; form: Stair['form']; corners: Stair['corners']; turn: Stair['turn'] }
  | { what: 'steps' }
  | { what: 'beam'; as: 'beam' | 'post' }
  | { what: 'ground'; kind: GroundArea['kind'] }
  | { what: 'fence'; kind: Fence['kind'] }
  | { what: 'patch'; finish: string };
