import { MeshBuilder, type Mesh } from '../geometry/mesh';
import { roundedBox, tube, lathe } from '../geometry/shapes';
import type { Opening, Side } from '../project/schema';

/** The parts of a door or window, each with its own finish. */
export type OpeningPart = 'frame' | 'leaf' | 'handle' | 'architrave' | 'glass' | 'sill';

export const OPENING_FINISHES: Record<OpeningPart, string> = {
  frame: 'paint.skein',
  leaf: 'paint.skein',
  handle: 'metal.brass-brushed',
  architrave: 'paint.skein',
  glass: 'glass.clear',
  sill: 'paint.skein',
};

/** Sizes of the parts (trade figures), metres. */
export const JOINERY = {
  frameFace: 0.045,
  frameDepth: 0.07,
  lining: 0.03,
  leaf: 0.04,
  stop: 0.012,
  sash: 0.045,
  bar: 0.022,
  pane: 0.006,
  architraveWidth: 0.06,
  architraveDepth: 0.018,
  sillDepth: 0.04,
  sillThickness: 0.03,
} as const;

/** The part of a door's width that is free when its leaf stands at 90°: lining, stop and leaf thickness taken off. */
export const clearWidth = (opening: Pick<Opening, 'width'>): number => opening.width - 2 * JOINERY.lining - JOINERY.stop - JOINERY.leaf;

export interface OpeningParts {
  part: OpeningPart;
  mesh: Mesh;
}

interface OpeningSpace {
  opening: Opening;
  /** Thickness of the wall. */
  thickness: number;
  /** The side of the wall that has the room: where the sill board and the architrave of a window lie. */
  inside: Side;
  /** How far a door leaf stands open, radians. */
  ajar: number;
}

/**
 * Frame, leaf, panes and fittings of an opening as solids. Local axes: x along the wall from the centre of the
 * opening, y to the left of the wall's direction, z up from the floor.
 */
export function openingParts(space: OpeningSpace): OpeningParts[] {
  return space.opening.kind === 'door' ? doorParts(space) : windowParts(space);
}

function ring(width: number, z0: number, z1: number, face: number, y0: number, y1: number, foot: boolean): Mesh {
  const w = width / 2;
  const builder = new MeshBuilder()
    .box(-w, y0, z0, -w + face, y1, z1)
    .box(w - face, y0, z0, w, y1, z1)
    .box(-w + face, y0, z1 - face, w - face, y1, z1);
  if (foot) builder.box(-w + face, y0, z0, w - face, y1, z0 + face);
  return builder.build();
}

function architrave(opening: Opening, y: number, out: 1 | -1, foot: boolean): Mesh {
  const { architraveWidth: a, architraveDepth: d } = JOINERY;
  const w = opening.width / 2;
  const [y0, y1] = out > 0 ? [y, y + d] : [y - d, y];
  const z1 = opening.sill + opening.height;
  const builder = new MeshBuilder();
  const bar = (x0: number, z0: number, x1: number, z2: number): void =>
    void builder.add(roundedBox({ x: x0, y: y0, z: z0 }, { x: x1, y: y1, z: z2 }, { radius: 0.004, steps: 2 }));
  const low = foot ? 0 : opening.sill;
  bar(-w - a, low, -w, z1 + a);
  bar(w, low, w + a, z1 + a);
  bar(-w, z1, w, z1 + a);
  return builder.build();
}

function doorParts({ opening, thickness, ajar }: OpeningSpace): OpeningParts[] {
  const { lining, leaf, stop } = JOINERY;
  const { width, height } = opening;
  const half = thickness / 2;
  const parts: OpeningParts[] = [{ part: 'frame', mesh: ring(width, 0, height, lining, -half, half, false) }];
  parts.push({
    part: 'architrave',
    mesh: new MeshBuilder()
      .add(architrave(opening, half, 1, true))
      .add(architrave(opening, -half, -1, true))
      .build(),
  });
  // The leaf hangs flush with the face it opens towards.
  const side = opening.swing === 'left' ? 1 : -1;
  const hand = opening.hinge === 'start' ? 1 : -1;
  const leafWidth = width - 2 * lining - 0.006;
  const leafHeight = height - lining - 0.008;
  const panel = new MeshBuilder();
  const [stile, rail] = [0.11, 0.14];
  const t = leaf;
  // Leaf coordinates: x from the hinge, y from the flush face inwards.
  panel.add(roundedBox({ x: 0, y: 0, z: 0.008 }, { x: stile, y: t, z: leafHeight }, { radius: 0.003, steps: 1 }));
  panel.add(roundedBox({ x: leafWidth - stile, y: 0, z: 0.008 }, { x: leafWidth, y: t, z: leafHeight }, { radius: 0.003, steps: 1 }));
  for (const [z0, z1] of [
    [0.008, 0.008 + 1.5 * rail],
    [0.95, 0.95 + rail],
    [leafHeight - rail, leafHeight],
  ])
    panel.add(roundedBox({ x: stile, y: 0, z: z0 }, { x: leafWidth - stile, y: t, z: z1 }, { radius: 0.003, steps: 1 }));
  panel.box(stile, t * 0.3, 0.2, leafWidth - stile, t * 0.7, leafHeight - 0.1);
  const handle = new MeshBuilder();
  const hx = leafWidth - 0.06;
  for (const [y0, dir] of [
    [0, -1],
    [t, 1],
  ] as const) {
    handle.add(
      tube(
        [
          { x: hx, y: y0, z: 1.0 },
          { x: hx, y: y0 + dir * 0.045, z: 1.0 },
          { x: hx - 0.012, y: y0 + dir * 0.052, z: 1.0 },
          { x: hx - 0.12, y: y0 + dir * 0.052, z: 1.0 },
        ],
        0.009,
      ),
    );
    handle.add(
      roundedBox(
        { x: hx - 0.022, y: Math.min(y0, y0 + dir * 0.008), z: 0.92 },
        { x: hx + 0.022, y: Math.max(y0, y0 + dir * 0.008), z: 1.06 },
        { radius: 0.003, steps: 1 },
      ),
    );
  }
  const angle = ajar;
  const carry = (mesh: Mesh): Mesh => {
    // From leaf axes to opening axes: open about the hinge, mirror for hand and side (winding kept by swapping).
    const c = Math.cos(angle);
    const s = Math.sin(angle);
    const flip = hand * side > 0;
    const out: Mesh = { ...mesh, positions: mesh.positions.slice(), normals: mesh.normals.slice(), indices: mesh.indices.slice() };
    const map = (x: number, y: number): [number, number] => {
      const rx = x * c + y * s;
      const ry = -x * s + y * c;
      return [hand * rx, -side * ry];
    };
    for (let k = 0; k < out.positions.length; k += 3) {
      const [x, y] = map(mesh.positions[k], mesh.positions[k + 1]);
      out.positions[k] = x - hand * (width / 2 - lining - 0.003);
      out.positions[k + 1] = y + side * half;
      const [nx, ny] = map(mesh.normals[k], mesh.normals[k + 1]);
      out.normals[k] = nx;
      out.normals[k + 1] = ny;
    }
    if (flip) for (let k = 0; k < out.indices.length; k += 3) [out.indices[k + 1], out.indices[k + 2]] = [out.indices[k + 2], out.indices[k + 1]];
    return out;
  };
  parts.push({ part: 'leaf', mesh: carry(panel.build()) }, { part: 'handle', mesh: carry(handle.build()) });
  const y = side * (half - leaf);
  const stops = ring(width - 2 * lining, 0, height - lining, stop, Math.min(y, y - side * 0.03), Math.max(y, y - side * 0.03), false);
  parts[0] = { part: 'frame', mesh: new MeshBuilder().add(parts[0].mesh).add(stops).build() };
  return parts;
}

function windowParts({ opening, thickness, inside }: OpeningSpace): OpeningParts[] {
  const { frameFace, frameDepth, sash, bar, pane, sillDepth, sillThickness } = JOINERY;
  const { width, height, sill } = opening;
  const half = thickness / 2;
  const side = inside === 'left' ? 1 : -1;
  // The frame stands towards the outside, two fifths of the wall deep.
  const middle = -side * Math.max(0, half - frameDepth / 2 - thickness * 0.2);
  const [y0, y1] = [middle - frameDepth / 2, middle + frameDepth / 2];
  const z1 = sill + height;
  const frame = new MeshBuilder().add(ring(width, sill, z1, frameFace, y0, y1, true));
  const inner = { x0: -width / 2 + frameFace, x1: width / 2 - frameFace, z0: sill + frameFace, z1: z1 - frameFace };
  const casements = Math.max(1, Math.min(4, Math.round((inner.x1 - inner.x0) / 0.65)));
  const step = (inner.x1 - inner.x0) / casements;
  const glass = new MeshBuilder();
  const handle = new MeshBuilder();
  for (let c = 0; c < casements; c++) {
    const x0 = inner.x0 + c * step + 0.003;
    const x1 = inner.x0 + (c + 1) * step - 0.003;
    const [sy0, sy1] = [middle - 0.022, middle + 0.022];
    frame.box(x0, sy0, inner.z0, x0 + sash, sy1, inner.z1).box(x1 - sash, sy0, inner.z0, x1, sy1, inner.z1);
    frame.box(x0 + sash, sy0, inner.z0, x1 - sash, sy1, inner.z0 + sash).box(x0 + sash, sy0, inner.z1 - sash, x1 - sash, sy1, inner.z1);
    const across = Math.max(1, Math.round(opening.panes.across / casements));
    for (let i = 1; i < across; i++) {
      const x = x0 + sash + ((x1 - x0 - 2 * sash) * i) / across;
      frame.box(x - bar / 2, sy0 + 0.006, inner.z0 + sash, x + bar / 2, sy1 - 0.006, inner.z1 - sash);
    }
    for (let j = 1; j < opening.panes.up; j++) {
      const z = inner.z0 + sash + ((inner.z1 - inner.z0 - 2 * sash) * j) / opening.panes.up;
      frame.box(x0 + sash, sy0 + 0.006, z - bar / 2, x1 - sash, sy1 - 0.006, z + bar / 2);
    }
    glass.box(x0 + sash, middle - pane / 2, inner.z0 + sash, x1 - sash, middle + pane / 2, inner.z1 - sash);
    if (c % 2 === 0 && casements > 1) {
      const hy = middle + side * 0.022;
      const z = (inner.z0 + inner.z1) / 2;
      handle.add(
        lathe(
          [
            [0, z - 0.05],
            [0.007, z - 0.045],
            [0.009, z],
            [0.007, z + 0.045],
            [0, z + 0.05],
          ],
          { x: x1 - sash / 2, y: hy + side * 0.022, segments: 10 },
        ),
      );
      handle.box(x1 - sash / 2 - 0.006, Math.min(hy, hy + side * 0.022), z - 0.006, x1 - sash / 2 + 0.006, Math.max(hy, hy + side * 0.022), z + 0.006);
    }
  }
  const face = side * half;
  const boardFrom = side > 0 ? y1 : -half - sillDepth;
  const boardTo = side > 0 ? half + sillDepth : y0;
  const board = roundedBox(
    { x: -width / 2 - 0.04, y: side > 0 ? half - 0.001 : boardFrom, z: sill - sillThickness },
    { x: width / 2 + 0.04, y: side > 0 ? boardTo : -half + 0.001, z: sill },
    { radius: 0.008, steps: 2 },
  );
  const parts: OpeningParts[] = [
    { part: 'frame', mesh: frame.build() },
    { part: 'glass', mesh: glass.build() },
    {
      part: 'sill',
      mesh: new MeshBuilder()
        .add(board)
        .box(
          -width / 2,
          Math.min(boardFrom, boardTo - sillDepth),
          sill - 0.002,
          width / 2,
          Math.max(boardTo, boardFrom) - (side > 0 ? sillDepth : 0),
          sill + 0.001,
        )
        .build(),
    },
    { part: 'architrave', mesh: architrave(opening, face, side as 1 | -1, false) },
  ];
  if (!handle.empty) parts.push({ part: 'handle', mesh: handle.build() });
  return parts;
}
