import { between, extrude, hexahedron } from '../geometry/extrude';
import { MeshBuilder, placement, transformPoint, type Matrix, type Mesh } from '../geometry/mesh';
import { rectangle, type Region, type Ring } from '../geometry/region';
import { angleOf, type Vec2, type Vec3 } from '../geometry/vec';
import { fromFrame, type DormerShape } from '../project/dormers';
import type { Level } from '../project/schema';
import type { Pane } from '../model/body';
import { JOINERY } from './openings/sizes';
import { DUST, NEAR } from '../units/tolerance';

export const DORMER_PARTS = ['walls', 'lining', 'covering', 'frame', 'glass'] as const;
export type DormerPart = (typeof DORMER_PARTS)[number];
export interface DerivedDormer {
  id: string;
  shape: DormerShape;
  matrix: Matrix;
  parts: { part: DormerPart; mesh: Mesh }[];
  glazing: Pane[];
  /** Its outline in the plan, with its overhangs. */
  ring: Ring;
  /** Bodies that are closed solids: front wall, cheeks, roof, frame, glass. Local coordinates. */
  solids: Mesh[];
}

/** How far its walls end above the underside of the roof they stand in, so that no two faces lie in one plane, metres. */
const BEDDED = 0.002;
const FRAME = { face: 0.045, depth: 0.07, below: 0.14, above: 0.07, side: 0.06 };

/** Faces of solids, sorted to parts by where they look. */
function sorted(solids: readonly { mesh: Mesh; part(n: Vec3, at: Vec3): DormerPart }[]): Map<DormerPart, MeshBuilder> {
  const out = new Map<DormerPart, MeshBuilder>();
  for (const { mesh, part } of solids) {
    const { positions: p, normals: n, uvs, indices } = mesh;
    for (let k = 0; k < indices.length; k += 3) {
      const ids = [indices[k], indices[k + 1], indices[k + 2]];
      const normal = { x: n[ids[0] * 3], y: n[ids[0] * 3 + 1], z: n[ids[0] * 3 + 2] };
      const middle = { x: 0, y: 0, z: 0 };
      for (const i of ids) {
        middle.x += p[i * 3] / 3;
        middle.y += p[i * 3 + 1] / 3;
        middle.z += p[i * 3 + 2] / 3;
      }
      const name = part(normal, middle);
      let builder = out.get(name);
      if (!builder) out.set(name, (builder = new MeshBuilder()));
      const at = ids.map((i) => builder.vertex({ x: p[i * 3], y: p[i * 3 + 1], z: p[i * 3 + 2] }, normal, uvs[i * 2], uvs[i * 2 + 1]));
      builder.triangle(at[0], at[1], at[2]);
    }
  }
  return out;
}

/**
 * A dormer as solids in the frame of its slope: its front wall with a window, its cheeks down into the roof, its own roof
 * up to where both undersides and both upper sides meet.
 */
export function deriveDormer(shape: DormerShape, level: Level): DerivedDormer {
  const { dormer, frame, plate, underside, meets, meetsUpper, thickness } = shape;
  const { width, setback: f, cheek: t, form, overhang: o, panes } = dormer;
  const half = width / 2;
  const low = (v: number): number => frame.under + frame.tan * v + BEDDED;
  const gable = form === 'gable';
  // Front wall: upright outline with the window cut out.
  const top: Vec2[] = gable
    ? [
        { x: half, y: plate },
        { x: 0, y: underside(0, f) },
        { x: -half, y: plate },
      ]
    : [
        { x: half, y: underside(half, f) },
        { x: -half, y: underside(-half, f) },
      ];
  const outline: Ring = [{ x: -half, y: low(f) }, { x: half, y: low(f) }, ...top];
  const sill = frame.upper + frame.tan * f + FRAME.below;
  const head = plate - FRAME.above;
  const w = half - t - FRAME.side + 0.04;
  const window: Ring = [
    { x: -w, y: sill },
    { x: w, y: sill },
    { x: w, y: head },
    { x: -w, y: head },
  ];
  const front = extrude([{ outer: outline, holes: [[...window].reverse()] }], f, f + t);
  const cheeks = new MeshBuilder();
  for (const k of [1, -1] as const) {
    const [u0, u1] = [half, half - t];
    const z = (u: number, v: number): number => underside(u, Math.max(v, f + (form === 'hip' ? width : 0)));
    // Where the underside of its roof meets that of the main roof, on both faces of the cheek.
    const a = f + t;
    const at = (u: number, v: number, h: number): Vec3 => ({ x: k * u, y: v, z: h });
    const bottom = [at(u0, a, low(a)), at(u0, meets(u0), low(meets(u0))), at(u1, meets(u1), low(meets(u1))), at(u1, a, low(a))];
    const upper = [at(u0, a, z(u0, a)), bottom[1], bottom[2], at(u1, a, z(u1, a))];
    const ring = k === 1 ? [0, 1, 2, 3] : [3, 2, 1, 0];
    // Two of its edges have come together at the back: a body of two triangles and three quadrilaterals.
    const [b, q] = [ring.map((i) => bottom[i]), ring.map((i) => upper[i])];
    const side = (p0: Vec3, p1: Vec3, p2: Vec3): void => {
      const u = { x: p1.x - p0.x, y: p1.y - p0.y, z: p1.z - p0.z };
      const v = { x: p2.x - p0.x, y: p2.y - p0.y, z: p2.z - p0.z };
      const n = { x: u.y * v.z - u.z * v.y, y: u.z * v.x - u.x * v.z, z: u.x * v.y - u.y * v.x };
      const l = Math.hypot(n.x, n.y, n.z) || 1;
      const ids = [p0, p1, p2].map((p) => cheeks.vertex(p, { x: n.x / l, y: n.y / l, z: n.z / l }, p.y, p.z));
      cheeks.triangle(ids[0], ids[1], ids[2]);
    };
    cheeks.quad(q[0], q[1], q[2], q[3]).quad(b[3], b[2], b[1], b[0]);
    for (let i = 0; i < 4; i++) {
      const j = (i + 1) % 4;
      const flatI = Math.abs(b[i].z - q[i].z) < DUST;
      const flatJ = Math.abs(b[j].z - q[j].z) < DUST;
      if (flatI && flatJ) continue;
      if (flatI) side(b[i], b[j], q[j]);
      else if (flatJ) side(b[i], b[j], q[i]);
      else cheeks.quad(b[i], b[j], q[j], q[i]);
    }
  }
  // Its roof: bodies between its underside and its upper side.
  const roof = new MeshBuilder();
  const point = (u: number, v: number, lift: number): Vec3 => ({ x: u, y: v, z: underside(u, v) + lift });
  const wide = half + o;
  const back = (u: number, lift: number): number => Math.max(f - o + 0.01, lift > 0 ? meetsUpper(u) : meets(u));
  if (form === 'shed' || form === 'flat') {
    const ring = (lift: number): Vec3[] => [
      point(-wide, f - o, lift),
      point(wide, f - o, lift),
      point(wide, back(wide, lift), lift),
      point(-wide, back(-wide, lift), lift),
    ];
    hexahedron(roof, ring(0), ring(thickness));
  } else {
    const t2 = Math.tan(dormer.pitch);
    const sideZ = (u: number, lift: number): number => plate + (half - Math.abs(u)) * t2 + lift;
    for (const k of [1, -1] as const) {
      const corner = (u: number, v: number, lift: number): Vec3 => ({ x: k * u, y: v, z: sideZ(u, lift) });
      const ridge = (lift: number): number => (form === 'hip' ? Math.min(f + half, back(0, lift) - 0.01) : f - o);
      const ring = (lift: number): Vec3[] => {
        const r = [corner(0, ridge(lift), lift), corner(wide, f - o, lift), corner(wide, back(wide, lift), lift), corner(0, back(0, lift), lift)];
        return k === 1 ? r : [r[3], r[2], r[1], r[0]];
      };
      hexahedron(roof, ring(0), ring(thickness));
    }
    if (form === 'hip') {
      const tri = (lift: number): Vec3[] => [
        { x: -wide, y: f - o, z: sideZ(wide, lift) },
        { x: wide, y: f - o, z: sideZ(wide, lift) },
        { x: 0, y: Math.min(f + half, back(0, lift) - 0.01), z: sideZ(0, lift) },
      ];
      between(roof, tri(0), tri(thickness));
    }
  }
  // The window in its front.
  const middle = f + Math.min(t, FRAME.depth + 0.03) / 2 + 0.01;
  const [g0, g1] = [middle - FRAME.depth / 2, middle + FRAME.depth / 2];
  const pane: Ring = [
    { x: -w + FRAME.face, y: sill + FRAME.face },
    { x: w - FRAME.face, y: sill + FRAME.face },
    { x: w - FRAME.face, y: head - FRAME.face },
    { x: -w + FRAME.face, y: head - FRAME.face },
  ];
  const frameMesh = new MeshBuilder().add(extrude([{ outer: window, holes: [[...pane].reverse()] }], g0, g1));
  const bars: Region[] = [];
  const BAR = JOINERY.bar / 2;
  const [x0, x1, y0, y1] = [pane[0].x, pane[1].x, pane[0].y, pane[2].y];
  for (let i = 1; i < panes.across; i++) {
    const x = x0 + ((x1 - x0) * i) / panes.across;
    bars.push({ outer: rectangle(x - BAR, y0, x + BAR, y1), holes: [] });
  }
  for (let j = 1; j < panes.up; j++) {
    const y = y0 + ((y1 - y0) * j) / panes.up;
    bars.push({ outer: rectangle(x0, y - BAR, x1, y + BAR), holes: [] });
  }
  for (const bar of bars) frameMesh.add(extrude([bar], middle - 0.012, middle + 0.012));
  const glass = extrude([{ outer: pane, holes: [] }], middle - JOINERY.pane / 2, middle + JOINERY.pane / 2);
  const [cheekMesh, roofMesh, framed] = [cheeks.build(), roof.build(), frameMesh.build()];
  const byPart = sorted([
    { mesh: front, part: (n) => (n.y > 0.5 ? 'lining' : 'walls') },
    { mesh: cheekMesh, part: (n, p) => (n.x * p.x < -NEAR || n.z > 0.7 ? 'lining' : 'walls') },
    { mesh: roofMesh, part: (n) => (n.z < -0.2 ? 'lining' : n.z > 0.2 ? 'covering' : 'walls') },
  ]);
  const z = level.elevation;
  const angle = angleOf(frame.along);
  const origin = fromFrame(frame, dormer.at, 0);
  const matrix = placement(origin.x, origin.y, z, angle);
  const parts = [...byPart].map(([part, builder]) => ({ part, mesh: builder.build() }));
  parts.push({ part: 'frame', mesh: framed }, { part: 'glass', mesh: glass });
  const corner = transformPoint(matrix, { x: x1, y: middle, z: y0 });
  const opposite = transformPoint(matrix, { x: x0, y: middle, z: y0 });
  const ring = [
    fromFrame(frame, dormer.at - wide, f - o),
    fromFrame(frame, dormer.at + wide, f - o),
    fromFrame(frame, dormer.at + wide, Math.max(f, back(wide, thickness))),
    ...(form === 'gable' || form === 'hip' ? [fromFrame(frame, dormer.at, back(0, thickness))] : []),
    fromFrame(frame, dormer.at - wide, Math.max(f, back(-wide, thickness))),
  ];
  return {
    id: dormer.id,
    shape,
    matrix,
    parts,
    glazing: [{ corner, along: { x: opposite.x - corner.x, y: opposite.y - corner.y, z: 0 }, up: { x: 0, y: 0, z: y1 - y0 } }],
    ring,
    solids: [front, cheekMesh, roofMesh, framed, glass],
  };
}
