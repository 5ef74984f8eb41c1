import { architraves } from './architrave';
import { doorParts } from './door';
import { extrude, offsetRing, turnAbout } from '../../geometry/extrude';
import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { openingOutline } from '../../project/openings';
import type { Opening } from '../../project/schema';
import { fixedPart, type OpeningParts, type OpeningSpace } from './space';
import { windowParts } from './window';

/**
 * Frame, leaves, panes and fittings of an opening as solids. Local axes: x along the wall from the centre of the
 * opening, y to the left of the wall's direction from the middle of the wall, z up from the floor of the level. What opens
 * by a joint stands shut; what folds or tips in another way stands as far open as the opening says.
 */
export function openingParts(space: OpeningSpace): OpeningParts[] {
  const { opening, thickness, inside, profile } = space;
  if (opening.kind === 'door') return doorParts(space);
  if (opening.kind === 'window') return windowParts(space);
  if (opening.kind === 'niche') return [fixedPart('lining', nicheLining(opening, thickness))];
  return architraves(opening, thickness, inside, profile);
}

/** Tiles in a niche: how thick they are, and how far they lie off its faces, metres. */
const LINED = { thick: 0.003, off: 0.0006 } as const;

/** What lines a niche: its back, and a band round it as deep as it is. */
function nicheLining(opening: Opening, thickness: number): Mesh {
  const seen = openingOutline(opening);
  // Seen from the other side of the wall it is turned about.
  const outline = opening.swing === 'left' ? seen : seen.map((p) => ({ x: -p.x, y: p.y })).reverse();
  const [outer, inner] = [offsetRing(outline, LINED.off), offsetRing(outline, LINED.off + LINED.thick)];
  const [back, front] = [thickness / 2 - opening.depth + LINED.off, thickness / 2 + LINED.off];
  const made = new MeshBuilder();
  made.add(extrude([{ outer, holes: [] }], back, back + LINED.thick));
  made.add(extrude([{ outer, holes: [[...inner].reverse()] }], back + LINED.thick, front));
  const mesh = made.build();
  return opening.swing === 'left' ? mesh : new MeshBuilder().add(mesh, turnAbout({ x: 0, y: 0, z: 0 }, { x: 0, y: 0, z: 1 }, Math.PI)).build();
}
