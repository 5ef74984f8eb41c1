import { extrude, offsetRing } from '../../geometry/extrude';
import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { boolean } from '../../geometry/polygon';
import { roundedBox } from '../../geometry/shapes';
import { openingOutline } from '../../project/openings';
import { closedSection, sweep } from '../../geometry/sweep';
import { inWall } from '../../project/opening-stand';
import type { Opening, Profile, Side } from '../../project/schema';
import { rectangle, type Region } from '../../geometry/region';
import { fixedPart, type OpeningParts } from './space';
import { JOINERY } from './sizes';

/** How far behind the face of the wall a frame still counts as flush with it, metres. */
const FLUSH = 0.02;

/**
 * The faces of its wall an opening has a moulding around it on: both for a way through, the inner one for a window. One
 * covers the joint between a frame and the wall: where the frame of a door stands back there is none to cover.
 */
export function architraveSides(opening: Opening, thickness: number, inside: Side): Side[] {
  if (opening.architrave <= 0 || opening.kind === 'niche') return [];
  if (opening.kind === 'window') return opening.form === 'corner' ? [] : [inside];
  if (opening.kind === 'passage') return ['left', 'right'];
  const { frame, depth } = inWall(opening, thickness, inside);
  return (['left', 'right'] as const).filter((side) => (side === 'left' ? frame : -frame) + depth / 2 > thickness / 2 - FLUSH);
}

/** The outline of the moulding around an opening, the opening itself with it: x along the wall from its middle, y up. */
export function architraveOutline(opening: Opening): Region[] {
  const a = opening.architrave;
  const foot = opening.sill;
  if (opening.shape.kind === 'rectangle') {
    const w = opening.width / 2 + a;
    return [{ outer: rectangle(-w, foot, w, foot + opening.height + a), holes: [] }];
  }
  const low = opening.kind === 'window' ? foot - a * 2 : foot;
  return boolean('intersection', [{ outer: offsetRing(openingOutline(opening), -a), holes: [] }], [{ outer: rectangle(-100, low, 100, 100), holes: [] }]);
}

/** The mouldings around an opening, as one part. */
export function architraves(opening: Opening, thickness: number, inside: Side, profile: Profile | null): OpeningParts[] {
  const sides = architraveSides(opening, thickness, inside);
  if (!sides.length) return [];
  const builder = new MeshBuilder();
  for (const side of sides) {
    const out = side === 'left' ? 1 : -1;
    builder.add(architrave(opening, (out * thickness) / 2, out, profile));
  }
  return [fixedPart('architrave', builder.build())];
}

/**
 * The moulding around an opening on one face of its wall: three bars around a straight opening, a band around any
 * other outline. Where the opening stands on the floor it ends there.
 *
 * @param y the face; @param out 1 or −1: away from the wall
 */
function architrave(opening: Opening, y: number, out: 1 | -1, profile: Profile | null = null): Mesh {
  const a = opening.architrave;
  if (profile && opening.shape.kind === 'rectangle' && a > 0) return moulded(opening, y, out, profile);
  const d = JOINERY.architraveDepth;
  const [y0, y1] = out > 0 ? [y, y + d] : [y - d, y];
  const foot = opening.sill;
  if (opening.shape.kind !== 'rectangle') {
    const outline = openingOutline(opening);
    return extrude(boolean('difference', architraveOutline(opening), [{ outer: outline, holes: [] }]), y0, y1);
  }
  const w = opening.width / 2;
  const z1 = foot + opening.height;
  const builder = new MeshBuilder();
  const bar = (x0: number, z0: number, x1: number, z2: number): void =>
    void builder.add(roundedBox({ x: x0, y: y0, z: z0 }, { x: x1, y: y1, z: z2 }, { radius: 0.004, steps: 2 }));
  bar(-w - a, foot, -w, z1 + a);
  bar(w, foot, w + a, z1 + a);
  bar(-w, z1, w, z1 + a);
  return builder.build();
}

/** A moulding of a section round a straight opening, mitred at its upper corners, as wide as the architrave is. */
function moulded(opening: Opening, y: number, out: 1 | -1, profile: Profile): Mesh {
  const wide = Math.max(...profile.points.map((p) => p.y));
  const k = opening.architrave / wide;
  const section = closedSection(profile.points.map((p) => ({ x: p.x * k, y: p.y * k })));
  const w = opening.width / 2;
  const z1 = opening.sill + opening.height;
  // Walked so that its outer edge lies away from the opening.
  const path = [
    { x: w * out, y, z: opening.sill },
    { x: w * out, y, z: z1 },
    { x: -w * out, y, z: z1 },
    { x: -w * out, y, z: opening.sill },
  ];
  return sweep(
    section,
    path.slice(1).map((to, i) => ({ from: path[i], to, out: { x: 0, y: out, z: 0 } })),
    false,
  );
}
