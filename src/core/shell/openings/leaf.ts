import { extrude, offsetRing } from '../../geometry/extrude';
import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { boolean } from '../../geometry/polygon';
import { rectangleRegion, type Region } from '../../geometry/region';
import { lathe, roundedBox, tube } from '../../geometry/shapes';
import type { Opening } from '../../project/schema';
import { JOINERY } from './sizes';

/** What a leaf is made of, in its own axes: x from its hinge, y from the face it opens towards, z up from its foot. */
export interface Leaf {
  leaf: Mesh;
  glass: Mesh;
  handle: Mesh;
}

export interface LeafShape {
  width: number;
  height: number;
  /** The leaf's outline where its head is not straight. */
  outline?: Region;
}

/** In which directions a leaf is mirrored. */
export interface Flip {
  x: boolean;
  y: boolean;
}
export const NO_FLIP: Flip = { x: false, y: false };

const leaves = new Map<string, Leaf>();
/** So many leaves are remembered; doors are alike. */
const KEPT = 400;

type Joinery = Pick<Opening, 'panels' | 'panes' | 'glazed' | 'handle'>;

/** A leaf as `makeLeaf` makes it, mirrored; the same meshes for equal leaves of all doors. @param at height of its handle above its foot, metres */
export function leafOf(shape: LeafShape, { panels, panes, glazed, handle }: Joinery, { at = 1.0, flip = NO_FLIP } = {}): Leaf {
  const key = JSON.stringify([shape, panels, panes, glazed, handle, at, flip]);
  let leaf = leaves.get(key);
  if (!leaf) {
    const made = makeLeaf(shape, { panels, panes, glazed, handle }, at);
    leaf = flip.x || flip.y ? { leaf: mirror(made.leaf, flip), glass: mirror(made.glass, flip), handle: mirror(made.handle, flip) } : made;
    if (leaves.size >= KEPT) leaves.delete(leaves.keys().next().value!);
    leaves.set(key, leaf);
  }
  return leaf;
}

/** A mesh mirrored along x, y or both, its triangles facing out as before. */
function mirror(mesh: Mesh, { x, y }: Flip): Mesh {
  const sign = [x ? -1 : 1, y ? -1 : 1, 1];
  const flip = (list: Float32Array): Float32Array => list.map((v, i) => v * sign[i % 3]);
  const indices = mesh.indices.slice();
  if (x !== y) for (let k = 0; k < indices.length; k += 3) [indices[k + 1], indices[k + 2]] = [indices[k + 2], indices[k + 1]];
  return { ...mesh, positions: flip(mesh.positions), normals: flip(mesh.normals), indices };
}

/** A framed leaf with panels below and, where it is glazed, panes above. */
export function makeLeaf({ width, height, outline }: LeafShape, opening: Joinery, at = 1.0): Leaf {
  const { leaf: t, bar, pane } = JOINERY;
  const stile = Math.min(JOINERY.stile, width / 4);
  const rail = Math.min(JOINERY.rail, height / 6);
  const whole = outline ?? rectangleRegion(0, 0, width, height);
  const body = new MeshBuilder();
  const glass = new MeshBuilder();
  // What lies within stiles, top rail and the higher foot rail.
  const field = outline
    ? boolean('intersection', [{ outer: offsetRing(outline.outer, stile), holes: [] }], [rectangleRegion(0, rail * 1.5, width, height)])
    : [rectangleRegion(stile, rail * 1.5, width - stile, height - rail)];
  const split = height - opening.glazed * height;
  const lock = opening.glazed > 0.02 && opening.glazed < 0.98 ? split : null;
  const lower =
    lock === null && opening.glazed > 0.5 ? [] : boolean('intersection', field, [rectangleRegion(0, 0, width, lock === null ? height : lock - rail / 2)]);
  const upper =
    lock === null && opening.glazed <= 0.5 ? [] : boolean('intersection', field, [rectangleRegion(0, lock === null ? 0 : lock + rail / 2, width, height)]);
  const cells = (regions: Region[], across: number, up: number, gap: number): Region[] => {
    if (!regions.length) return [];
    const xs = regions.flatMap((r) => r.outer.map((p) => p.x));
    const zs = regions.flatMap((r) => r.outer.map((p) => p.y));
    const [x0, x1, z0, z1] = [Math.min(...xs), Math.max(...xs), Math.min(...zs), Math.max(...zs)];
    const made: Region[] = [];
    for (let i = 0; i < across; i++)
      for (let j = 0; j < up; j++) {
        const [w, h] = [(x1 - x0 - gap * (across - 1)) / across, (z1 - z0 - gap * (up - 1)) / up];
        if (w <= 0.01 || h <= 0.01) continue;
        made.push(
          ...boolean('intersection', regions, [rectangleRegion(x0 + i * (w + gap), z0 + j * (h + gap), x0 + i * (w + gap) + w, z0 + j * (h + gap) + h)]),
        );
      }
    return made;
  };
  const panels = cells(lower, opening.panels.across, opening.panels.up, stile * 0.8);
  const lights = cells(upper, opening.panes.across, opening.panes.up, bar);
  body.add(extrude(boolean('difference', [whole], [...panels, ...lights]), 0, t));
  body.add(extrude(panels, t * 0.3, t * 0.7));
  glass.add(extrude(lights, t / 2 - pane / 2, t / 2 + pane / 2));
  const z = Math.min(at, height * 0.6);
  return { leaf: body.build(), glass: glass.build(), handle: furniture(opening.handle, width - Math.min(0.06, width / 6), z, t) };
}

/** Handles on both faces of a leaf. */
function furniture(kind: Opening['handle'], x: number, z: number, t: number): Mesh {
  const builder = new MeshBuilder();
  if (kind === 'none') return builder.build();
  for (const [y, out] of [
    [0, -1],
    [t, 1],
  ] as const) {
    const plate = (w: number, h: number): void =>
      void builder.add(
        roundedBox(
          { x: x - w, y: Math.min(y, y + out * 0.008), z: z - h },
          { x: x + w, y: Math.max(y, y + out * 0.008), z: z + h * 0.75 },
          { radius: 0.003, steps: 1 },
        ),
      );
    if (kind === 'lever') {
      builder.add(
        tube(
          [
            { x, y, z },
            { x, y: y + out * 0.045, z },
            { x: x - 0.012, y: y + out * 0.052, z },
            { x: x - 0.12, y: y + out * 0.052, z },
          ],
          0.009,
        ),
      );
      plate(0.022, 0.08);
    } else if (kind === 'pull') {
      builder.add(
        tube(
          [
            { x, y, z: z - 0.15 },
            { x, y: y + out * 0.05, z: z - 0.15 },
            { x, y: y + out * 0.05, z: z + 0.15 },
            { x, y, z: z + 0.15 },
          ],
          0.01,
        ),
      );
    } else {
      // Turned about the upright, then laid on its side.
      const knob = lathe([
        [0, 0],
        [0.012, 0.002],
        [0.012, 0.03],
        [0.026, 0.036],
        [0.03, 0.05],
        [0.02, 0.064],
        [0, 0.066],
      ]);
      builder.add(knob, [1, 0, 0, 0, 0, 0, -out, 0, 0, out, 0, 0, x, y, z, 1]);
      plate(0.02, 0.02);
    }
  }
  return builder.build();
}
