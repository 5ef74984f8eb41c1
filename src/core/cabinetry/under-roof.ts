import { prism } from '../geometry/extrude';
import { belowPlane, type Leaning } from '../geometry/halfspace';
import { MeshBuilder, type Matrix, type Mesh } from '../geometry/mesh';
import { boolean, totalArea } from '../geometry/polygon';
import { planRing, type RoofPlane, type RoofShape } from '../project/roofs';
import type { Construction } from '../project/schema/cabinets';
import type { Made } from '../stock/types';
import type { Vec3 } from '../geometry/vec';
import type { Panel } from './carcass';
import { TOUCH } from '../units/tolerance';
import type { AssembledUnit } from './assemble';

/** What is left free between a unit and the roof it is cut to, metres. */
const CLEAR = 0.005;

/** A plane of a roof that cuts a unit: in the axes of the unit, and in the plan above the floor of its room. */
export interface RoofCut {
  of: RoofPlane;
  own: Leaning;
  whole: Leaning;
}

/**
 * The planes of roofs a unit is cut to: those that lie lower over some of its footprint than it is high.
 *
 * @param roofs over its level, heights above the floor of that
 * @param step by how much the floor it stands on lies above that of the level, metres
 */
export function cutsOfRoofs({ placed, matrix: m, size, unit }: AssembledUnit, roofs: readonly RoofShape[], made: Construction, step: number): RoofCut[] {
  const high = size.height + (unit.band === 'wall' ? 0 : made.plinth);
  return roofs.flatMap(({ under }) =>
    under.flatMap((own): RoofCut[] => {
      if (!own.plane) return [];
      const { gx, gy, c } = own.plane;
      const lowest = Math.min(...placed.footprint.map((p) => gx * p.x + gy * p.y + c)) - step - m[14];
      if (lowest >= high) return [];
      const over = totalArea(boolean('intersection', [{ outer: placed.footprint, holes: [] }], [{ outer: planRing(own), holes: [] }]));
      if (over < TOUCH) return [];
      const whole = { gx, gy, c: c - step - CLEAR };
      return [{ of: own, whole, own: { gx: gx * m[0] + gy * m[1], gy: gx * m[4] + gy * m[5], c: gx * m[12] + gy * m[13] + whole.c - m[14] } }];
    }),
  );
}

/** A board under a plane, as wide as the inside of a unit: its top where it is cut. */
function lid({ gx, gy, c }: Leaning, { width, height, depth }: AssembledUnit['size'], made: Construction, lift: number): Mesh {
  const { board: t } = made;
  const thick = t * Math.hypot(gx, gy, 1);
  const ring = [
    { x: t, y: -depth },
    { x: width - t, y: -depth },
    { x: width - t, y: 0 },
    { x: t, y: 0 },
  ];
  // What lies between the plane and one below it, no higher than the unit.
  const whole = belowPlane(prism([{ outer: ring, holes: [] }], lift, lift + height), { gx, gy, c });
  return above(whole, { gx, gy, c: c - thick });
}

/** What of a solid lies above a plane: below it, upside down. */
function above(mesh: Mesh, { gx, gy, c }: Leaning): Mesh {
  // Turned over about the x axis: y and z change their signs.
  const over: Matrix = [1, 0, 0, 0, 0, -1, 0, 0, 0, 0, -1, 0, 0, 0, 0, 1];
  const turn = (m: Mesh): Mesh => new MeshBuilder().add(m, over).build();
  return turn(belowPlane(turn(mesh), { gx: -gx, gy, c: -c }));
}

/** Parts cut off at some planes. */
export const belowRoofs = (parts: readonly Made[], planes: readonly Leaning[]): Made[] =>
  planes.reduce<Made[]>((all, plane) => all.map((p) => ({ ...p, mesh: belowPlane(p.mesh, plane) })), [...parts]).filter((p) => p.mesh.indices.length);

/** The parts of a unit cut to the roof over it, its top a board that leans with it. */
export function cutToRoof(parts: readonly Made[], own: AssembledUnit, made: Construction): Made[] {
  const lift = own.unit.band === 'wall' ? 0 : made.plinth;
  const cut = belowRoofs(parts, own.cut);
  const lids = own.cut.map((plane, i): Made => ({
    part: 'carcass',
    mesh: own.cut.reduce((mesh, other, k) => (k === i ? mesh : belowPlane(mesh, other)), lid(plane, own.size, made, lift)),
  }));
  return [...cut, ...lids].filter((p) => p.mesh.indices.length);
}

const corner = ({ min, max }: Panel, k: number): Vec3 => ({ x: k & 1 ? max.x : min.x, y: k & 2 ? max.y : min.y, z: k & 4 ? max.z : min.z });

/** Corners of a box that are joined by its edges. */
const EDGES = [0, 1, 2, 3, 4, 5, 6, 7].flatMap((a) => [1, 2, 4].flatMap((bit): [number, number][] => (a & bit ? [] : [[a, a | bit]])));

/** What of a board lies below a plane, by the least board it is cut from; null: nothing. */
function panelBelow(panel: Panel, { gx, gy, c }: Leaning): Panel | null {
  const above = (p: Vec3): number => p.z - (gx * p.x + gy * p.y + c);
  const corners = Array.from({ length: 8 }, (_, k) => corner(panel, k));
  if (corners.every((p) => above(p) <= TOUCH)) return panel;
  const kept = corners.filter((p) => above(p) <= 0);
  if (!kept.length) return null;
  for (const [a, b] of EDGES) {
    const [p, q] = [corners[a], corners[b]];
    const [u, v] = [above(p), above(q)];
    if (u <= 0 === v <= 0) continue;
    const t = u / (u - v);
    kept.push({ x: p.x + (q.x - p.x) * t, y: p.y + (q.y - p.y) * t, z: p.z + (q.z - p.z) * t });
  }
  const of = (key: keyof Vec3, pick: (...all: number[]) => number): number => pick(...kept.map((p) => p[key]));
  return {
    ...panel,
    min: { x: of('x', Math.min), y: of('y', Math.min), z: of('z', Math.min) },
    max: { x: of('x', Math.max), y: of('y', Math.max), z: of('z', Math.max) },
    shaped: true,
  };
}

/** The boards of a unit as they are cut to the roof over it, by the least boards they are cut from, with the tops that lean. */
export function panelsUnder(panels: readonly Panel[], { cut, size, unit }: Pick<AssembledUnit, 'cut' | 'size' | 'unit'>, made: Construction): Panel[] {
  if (!cut.length) return [...panels];
  const lift = unit.band === 'wall' ? 0 : made.plinth;
  const planes = cut.map((p): Leaning => ({ ...p, c: p.c - lift }));
  const below = panels.flatMap((panel) => planes.reduce<Panel | null>((p, plane) => p && panelBelow(p, plane), panel) ?? []);
  const lids = cut.map((plane): Panel => {
    // As wide as the inside; along the slope it is longer than the unit is deep.
    const { x: wide, y: deep } = { x: size.width - 2 * made.board, y: size.depth };
    const long = plane.gx === 0 && plane.gy === 0 ? 1 : Math.hypot(plane.gx, plane.gy, 1);
    const across = Math.abs(plane.gx) > Math.abs(plane.gy);
    return {
      name: 'top',
      board: 'carcass',
      min: { x: 0, y: 0, z: 0 },
      max: { x: across ? wide * long : wide, y: across ? deep : deep * long, z: made.board },
      thin: 'z',
      grain: 'x',
      edged: ['front'],
      grooves: [],
      shaped: true,
    };
  });
  return [...below, ...lids];
}
