import type { Mesh } from '../../geometry/mesh';
import type { OpeningPart } from '../../project/kinds/openings';
import type { Opening, Profile, Side } from '../../project/schema';
import type { CornerShape } from './corner';

export interface OpeningParts {
  part: OpeningPart;
  mesh: Mesh;
}

export interface OpeningSpace {
  opening: Opening;
  /** Thickness of the wall. */
  thickness: number;
  /** The side of the wall that is indoors: where the sill board and the architrave of a window lie. */
  inside: Side;
  /** The path of a corner window, in its local axes. */
  corner: CornerShape | null;
  /** The section of its architraves; null: a plain band. */
  profile: Profile | null;
}
