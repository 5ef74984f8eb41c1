import { prism, shiftBy, turnAbout } from '../geometry/extrude';
import type { SlopedPlace } from '../project/dormers';
import { IDENTITY, MeshBuilder, multiply, placement, transformPoint, type Matrix, type Mesh } from '../geometry/mesh';
import type { Ring } from '../geometry/region';
import { add, rotate, type Vec2, type Vec3 } from '../geometry/vec';
import { rooflightRing } from '../project/rooflights';
import type { Level, Room, Rooflight } from '../project/schema';
import type { Pane } from '../model/body';
import { JOINERY } from './openings/sizes';
import { ceilingHeight } from './rooms';

export interface DerivedRooflight {
  id: string;
  rooflight: Rooflight;
  /** Its clear opening in the plan. */
  ring: Ring;
  room: string;
  matrix: Matrix;
  parts: { part: 'frame' | 'glass'; mesh: Mesh }[];
  glazing: Pane[];
  /** Height of its glass above the floor of the level, metres. */
  height: number;
}

const KERB = 0.04;
const SASH = 0.06;

const rectangle = (x: number, y: number): Ring => [
  { x: -x, y: -y },
  { x, y: -y },
  { x, y },
  { x: -x, y },
];

/** A rooflight in the slope of a roof: its shaft goes through the build-up, its frame lies on the covering. */
export function deriveInRoof(rooflight: Rooflight, place: SlopedPlace, room: Pick<Room, 'id' | 'cover'>, level: Level): DerivedRooflight {
  const flat = deriveRooflight({ ...rooflight, x: 0, y: 0, kerb: 0.08 }, room, { ...level, elevation: 0, height: 0 });
  const { gx, gy, c } = place.upper.plane!;
  const l = Math.hypot(gx, gy, 1);
  const n = { x: -gx / l, y: -gy / l, z: 1 / l };
  const x = { ...place.along, z: 0 };
  const y = { x: n.y * x.z - n.z * x.y, y: n.z * x.x - n.x * x.z, z: n.x * x.y - n.y * x.x };
  const z = level.elevation + gx * rooflight.x + gy * rooflight.y + c;
  const tilt: Matrix = [x.x, x.y, x.z, 0, y.x, y.y, y.z, 0, n.x, n.y, n.z, 0, rooflight.x, rooflight.y, z, 1];
  const matrix = multiply(tilt, placement(0, 0, 0, rooflight.rotation));
  const turn = (v: Vec3): Vec3 => {
    const [o, p] = [transformPoint(tilt, { x: 0, y: 0, z: 0 }), transformPoint(tilt, v)];
    return { x: p.x - o.x, y: p.y - o.y, z: p.z - o.z };
  };
  const base = flat.matrix[14];
  return {
    ...flat,
    rooflight,
    ring: place.ring,
    matrix: IDENTITY,
    parts: flat.parts.map((p) => ({ ...p, mesh: new MeshBuilder().add(p.mesh, matrix).build() })),
    glazing: flat.glazing.map((p) => ({ corner: transformPoint(tilt, { ...p.corner, z: p.corner.z - base }), along: turn(p.along), up: turn(p.up) })),
    height: gx * rooflight.x + gy * rooflight.y + c,
  };
}

/** A rooflight as solids: its kerb on the ceiling, its sash with bars and glass, as far open as it stands. */
export function deriveRooflight(rooflight: Rooflight, room: Pick<Room, 'id' | 'cover'>, level: Level): DerivedRooflight {
  const { width, length, kerb, frame: face, panes, form, open, rotation } = rooflight;
  const [w, l] = [width / 2, length / 2];
  const matrix = placement(rooflight.x, rooflight.y, level.elevation + ceilingHeight(room, level), rotation);
  const [frame, glass] = [new MeshBuilder(), new MeshBuilder()];
  const outer = rectangle(w + KERB, l + KERB);
  frame.add(prism([{ outer, holes: [rectangle(w, l).reverse()] }], 0, kerb));
  const hang = form === 'hinged' && open > 0 ? turnAbout({ x: 0, y: l + KERB, z: kerb }, { x: 1, y: 0, z: 0 }, (-open * Math.PI) / 4) : IDENTITY;
  const carry = hang === IDENTITY ? shiftBy(0, 0, kerb) : multiply(hang, shiftBy(0, 0, kerb));
  const [gx, gy] = [w - face, l - face];
  frame.add(prism([{ outer, holes: [rectangle(gx, gy).reverse()] }], 0, SASH), carry);
  if (form === 'dome') glass.add(dome(gx, gy, Math.min(width, length) * 0.22), multiply(carry, shiftBy(0, 0, SASH / 2)));
  else {
    glass.add(prism([{ outer: rectangle(gx, gy), holes: [] }], SASH / 2 - JOINERY.pane / 2, SASH / 2 + JOINERY.pane / 2), carry);
    const half = JOINERY.bar / 2;
    for (let i = 1; i < panes.across; i++) frame.add(bar(-gx + (2 * gx * i) / panes.across - half, -gy, -gx + (2 * gx * i) / panes.across + half, gy), carry);
    for (let j = 1; j < panes.up; j++) frame.add(bar(-gx, -gy + (2 * gy * j) / panes.up - half, gx, -gy + (2 * gy * j) / panes.up + half), carry);
  }
  const z = matrix[14] + kerb + SASH / 2;
  const turned = (p: Vec2): Vec3 => ({ ...rotate(p, rotation), z: 0 });
  return {
    id: rooflight.id,
    rooflight,
    ring: rooflightRing(rooflight),
    room: room.id,
    matrix,
    parts: (
      [
        ['frame', frame],
        ['glass', glass],
      ] as const
    ).map(([part, builder]) => ({ part, mesh: builder.build() })),
    glazing: [
      {
        corner: { ...add(rooflight, rotate({ x: -gx, y: -gy }, rotation)), z },
        along: turned({ x: 2 * gx, y: 0 }),
        up: turned({ x: 0, y: 2 * gy }),
      },
    ],
    height: ceilingHeight(room, level) + kerb,
  };
}

const bar = (x0: number, y0: number, x1: number, y1: number): Mesh => new MeshBuilder().box(x0, y0, SASH / 2 - 0.012, x1, y1, SASH / 2 + 0.012).build();

/** A domed pane: two shells a pane's thickness apart, closed along the rim. */
function dome(a: number, b: number, rise: number): Mesh {
  const builder = new MeshBuilder();
  const n = 16;
  const height = (x: number, y: number): number => rise * (1 - x ** 4) * (1 - y ** 4);
  const point = (i: number, j: number, drop: number): Vec3 => {
    const [x, y] = [-1 + (2 * i) / n, -1 + (2 * j) / n];
    return { x: a * x, y: b * y, z: height(x, y) - drop };
  };
  const normal = (i: number, j: number, up: 1 | -1): Vec3 => {
    const [x, y] = [-1 + (2 * i) / n, -1 + (2 * j) / n];
    const v = { x: (rise * 4 * x ** 3 * (1 - y ** 4)) / a, y: (rise * 4 * y ** 3 * (1 - x ** 4)) / b, z: 1 };
    const k = up / Math.hypot(v.x, v.y, v.z);
    return { x: v.x * k, y: v.y * k, z: v.z * k };
  };
  for (const up of [1, -1] as const) {
    const drop = up > 0 ? 0 : JOINERY.pane;
    const base: number[][] = [];
    for (let i = 0; i <= n; i++)
      base.push(
        Array.from({ length: n + 1 }, (_, j) => {
          const p = point(i, j, drop);
          return builder.vertex(p, normal(i, j, up), p.x, p.y);
        }),
      );
    for (let i = 0; i < n; i++)
      for (let j = 0; j < n; j++) {
        const [p, q, r, s] = [base[i][j], base[i + 1][j], base[i + 1][j + 1], base[i][j + 1]];
        if (up > 0) builder.triangle(p, q, r).triangle(p, r, s);
        else builder.triangle(p, r, q).triangle(p, s, r);
      }
  }
  for (let i = 0; i < n; i++) {
    const edge = (p: [number, number], q: [number, number]): void =>
      void builder.quad(point(...p, JOINERY.pane), point(...q, JOINERY.pane), point(...q, 0), point(...p, 0));
    edge([i, 0], [i + 1, 0]);
    edge([n, i], [n, i + 1]);
    edge([i + 1, n], [i, n]);
    edge([0, i + 1], [0, i]);
  }
  return builder.build();
}
