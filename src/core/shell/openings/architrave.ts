import { extrude, offsetRing } from '../../geometry/extrude';
import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { boolean } from '../../geometry/polygon';
import { roundedBox } from '../../geometry/shapes';
import { openingOutline } from '../../project/openings';
import { closedSection, sweep } from '../../geometry/sweep';
import type { Opening, Profile } from '../../project/schema';
import { JOINERY } from './sizes';

/**
 * The moulding around an opening on one face of its wall: three bars around a straight opening, a band around any
 * other outline. Where the opening stands on the floor it ends there.
 *
 * @param y the face; @param out 1 or −1: away from the wall
 */
export function architrave(opening: Opening, y: number, out: 1 | -1, profile: Profile | null = null): Mesh {
  const a = opening.architrave;
  if (profile && opening.shape.kind === 'rectangle' && a > 0) return moulded(opening, y, out, profile);
  const d = JOINERY.architraveDepth;
  const [y0, y1] = out > 0 ? [y, y + d] : [y - d, y];
  const foot = opening.sill;
  if (opening.shape.kind !== 'rectangle') {
    const outline = openingOutline(opening);
    const band = boolean('difference', [{ outer: offsetRing(outline, -a), holes: [] }], [{ outer: outline, holes: [] }]);
    const low = opening.kind === 'window' ? foot - a * 2 : foot;
    const above = {
      outer: [
        { x: -100, y: low },
        { x: 100, y: low },
        { x: 100, y: 100 },
        { x: -100, y: 100 },
      ],
      holes: [],
    };
    return extrude(boolean('intersection', band, [above]), y0, y1);
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
