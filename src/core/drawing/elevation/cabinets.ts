import { wallFoot, type AssembledUnit } from '../../cabinetry/assemble';
import type { DerivedRun } from '../../cabinetry/derive';
import { isDrawn, layFront, type Field, type Leaf } from '../../cabinetry/front';
import { distance, dot, sub, type Vec2 } from '../../geometry/vec';
import type { DressedFace } from '../../shell/dress/dressed';
import { NEAR } from '../../units/tolerance';
import type { DisplayItem, Pen } from '../display';
import { faceAxes } from './pieces';

const rectangle = ({ x0, x1, z0, z1 }: Field): Vec2[] => [
  { x: x0, y: z0 },
  { x: x1, y: z0 },
  { x: x1, y: z1 },
  { x: x0, y: z1 },
];

/**
 * A run as it is seen in front of one of its walls: carcasses and fronts, with the lines that say how doors open (they meet at
 * the hinge), the edge of the worktop, the plinth. Metres along the face from its left end, above the floor of the level.
 */
export function drawRunUpright(derived: DerivedRun, face: DressedFace): DisplayItem[] {
  const { run, legs, units, worktop, id } = derived;
  const axes = faceAxes(face);
  const side = face.side;
  if (!axes || !side) return [];
  return run.legs.flatMap((leg, i): DisplayItem[] => {
    if (leg.kind !== 'wall' || leg.wall !== side.wall || leg.side !== side.side || distance(legs[i].from, axes.origin) > side.length + NEAR) return [];
    const shift = dot(sub(legs[i].from, axes.origin), axes.right);
    const { made } = run;
    const top = made.plinth + made.base.height;
    const own = units.filter((u) => u.placed.leg === i && u.unit.bare !== 'space');
    const bar = (x0: number, x1: number, z0: number, z1: number): DisplayItem[] => {
      const rings = [rectangle({ x0: shift + x0, x1: shift + x1, z0, z1 })];
      return [
        { kind: 'fill', rings, ink: 'bare', entity: id, layer: 'piece' },
        { kind: 'lines', rings, ink: 'line', pen: 0.25, entity: id, layer: 'piece' },
      ];
    };
    return [
      ...own.filter((u) => u.unit.band !== 'wall' && made.plinth > 0).flatMap(({ placed: { stretch } }) => bar(stretch.from, stretch.to, 0, made.plinth)),
      ...own.flatMap((u) => drawUnit(derived, u, shift)),
      ...worktop.stretches.filter((s) => s.leg === i).flatMap((s) => bar(s.from, s.to, top, top + made.worktop.thickness)),
    ];
  });
}

function drawUnit({ run: { made } }: DerivedRun, { unit, placed, size }: AssembledUnit, shift: number): DisplayItem[] {
  const foot = unit.band === 'wall' ? wallFoot(made) : made.plinth;
  const x = shift + placed.stretch.from;
  const layer = 'piece' as const;
  const entity = unit.id;
  const at = ({ x0, x1, z0, z1 }: Field): Vec2[] => rectangle({ x0: x + x0, x1: x + x1, z0: foot + z0, z1: foot + z1 });
  const lines = (rings: Vec2[][], pen: Pen): DisplayItem => ({ kind: 'lines', rings, ink: 'line', pen, entity, layer });
  const body = at({ x0: 0, x1: placed.width, z0: 0, z1: size.height });
  const items: DisplayItem[] = [{ kind: 'fill', rings: [body], ink: 'bare', entity, layer }, lines([body], 0.25)];
  // A corner unit shows its one front beyond the next leg, which stands before it.
  if (unit.bare || (placed.corner && placed.corner !== 'blind left' && placed.corner !== 'blind right')) return items;
  const { cells, frame } = layFront(unit.front, placed.width, size.height, unit.band, made);
  const leaves = cells.flatMap((cell) => cell.leaves.map((leaf) => ({ leaf, drawn: isDrawn(cell.cell) })));
  const rings = [...frame, ...leaves.map((l) => l.leaf)].map(at);
  if (rings.length) items.push(lines(rings, 0.18));
  for (const { leaf, drawn } of leaves) {
    const points = drawn ? null : swing(leaf);
    if (points)
      items.push({
        kind: 'line',
        points: points.map((p) => ({ x: p.x + x, y: p.y + foot })),
        closed: false,
        ink: 'thin',
        pen: 0.13,
        dash: true,
        entity,
        layer,
      });
  }
  return items;
}

/** The lines of a door that opens: from its corners to the middle of the edge it is hung at. */
function swing({ x0, x1, z0, z1, hand }: Leaf): Vec2[] | null {
  const [mx, mz] = [(x0 + x1) / 2, (z0 + z1) / 2];
  const p = (px: number, pz: number): Vec2 => ({ x: px, y: pz });
  switch (hand) {
    case 'left':
      return [p(x1, z1), p(x0, mz), p(x1, z0)];
    case 'right':
      return [p(x0, z1), p(x1, mz), p(x0, z0)];
    case 'up':
      return [p(x0, z0), p(mx, z1), p(x1, z0)];
    case 'down':
      return [p(x0, z1), p(mx, z0), p(x1, z1)];
    default:
      return null;
  }
}
