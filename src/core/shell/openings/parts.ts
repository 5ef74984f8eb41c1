import type { Mesh } from '../../geometry/mesh';
import type { Opening, Profile, Side } from '../../project/schema';
import { MeshBuilder } from '../../geometry/mesh';
import { architrave } from './architrave';
import type { CornerShape } from './corner';
import { doorParts } from './door';
import type { OpeningPart } from '../../project/kinds/openings';
import { windowParts } from './window';

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

/**
 * Frame, leaves, panes and fittings of an opening as solids. Local axes: x along the wall from the centre of the
 * opening, y to the left of the wall's direction from the middle of the wall, z up from the floor of the level.
 */
export function openingParts(space: OpeningSpace): OpeningParts[] {
  const { opening, thickness, profile } = space;
  if (opening.kind === 'door') return doorParts(space);
  if (opening.kind === 'window') return windowParts(space);
  if (opening.kind === 'passage' && opening.architrave > 0) {
    const builder = new MeshBuilder().add(architrave(opening, thickness / 2, 1, profile)).add(architrave(opening, -thickness / 2, -1, profile));
    return [{ part: 'architrave', mesh: builder.build() }];
  }
  return [];
}
