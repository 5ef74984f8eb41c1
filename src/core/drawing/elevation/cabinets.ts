import { wallFoot, type AssembledUnit } from '../../cabinetry/assemble';
import type { DerivedRun } from '../../cabinetry/derive';
import { isDrawn, layFront, type Field } from '../../cabinetry/front';
import type { Stretch } from '../../cabinetry/leg';
import { stretchOn } from '../../cabinetry/run';
import { distance, dot, sub, type Vec2 } from '../../geometry/vec';
import type { Cabinet, Construction, Hand } from '../../project/schema/cabinets';
import type { PieceSize } from '../../stock/types';
import type { DressedFace } from '../../shell/dress/dressed';
import { NEAR } from '../../units/tolerance';
import { carry, type DisplayItem, type Pen } from '../display';
import { hangingLines } from './opening';
import { faceAxes } from './pieces';

const rectangle = ({ x0, x1, z0, z1 }: Field): Vec2[] => [
  { x: x0, y: z0 },
  { x: x1, y: z0 },
  { x: x1, y: z1 },
  { x: x0, y: z1 },
];

/** At which edge of its front a door hangs; what slides or is pulled out hangs at none. */
const HANGS: Readonly<Partial<Record<Hand, 'start' | 'end' | 'top' | 'foot'>>> = { left: 'start', right: 'end', up: 'top', down: 'foot' };

/** A box with its outline. */
const solid = (box: Field, entity: string, pen: Pen = 0.25): DisplayItem[] => [
  { kind: 'fill', rings: [rectangle(box)], ink: 'bare', entity, layer: 'piece' },
  { kind: 'lines', rings: [rectangle(box)], ink: 'line', pen, entity, layer: 'piece' },
];

/**
 * A run as it is seen in front of one of its walls: carcasses and fronts, with the lines that meet where doors hang (ISO 7518:
 * unbroken, they open towards whoever looks), the edge of the worktop, the plinth. Metres along the face from its left end,
 * above the floor of the level.
 */
export function drawRunUpright(derived: DerivedRun, face: DressedFace): DisplayItem[] {
  const { run, legs, units, worktop, id, step } = derived;
  const axes = faceAxes(face);
  const side = face.side;
  if (!axes || !side) return [];
  const { made } = run;
  const top = made.plinth + made.base.height;
  return run.legs.flatMap((leg, i): DisplayItem[] => {
    if (leg.kind !== 'wall' || leg.wall !== side.wall || leg.side !== side.side || distance(legs[i].from, axes.origin) > side.length + NEAR) return [];
    const shift = dot(sub(legs[i].from, axes.origin), axes.right);
    const here = units.flatMap((own) => {
      const stretch = own.unit.bare === 'space' ? null : stretchOn(own.placed, legs, i);
      return stretch ? [{ own, stretch }] : [];
    });
    const items = [
      ...here.flatMap(({ own, stretch: { from, to } }) =>
        own.unit.band !== 'wall' && made.plinth > 0 ? solid({ x0: from, x1: to, z0: 0, z1: made.plinth }, id) : [],
      ),
      ...here.flatMap(({ own, stretch }) => drawUnit(derived, own, stretch, own.placed.leg === i)),
      ...worktop.stretches.flatMap((s) => (s.leg === i ? solid({ x0: s.from, x1: s.to, z0: top, z1: top + made.worktop.thickness }, id) : [])),
    ];
    return carry(items, (q) => ({ x: q.x + shift, y: q.y + step }));
  });
}

/** @param whole whether its front is along this leg */
function drawUnit({ run: { made } }: DerivedRun, { unit, placed, size }: AssembledUnit, { from, to }: Stretch, whole: boolean): DisplayItem[] {
  const foot = unit.band === 'wall' ? wallFoot(made) : made.plinth;
  const entity = unit.id;
  const body = solid({ x0: from, x1: to, z0: foot, z1: foot + size.height }, entity);
  // Of a corner unit its box shows: the next leg stands before its front.
  if (unit.bare || !whole || (placed.corner && placed.corner !== 'blind left' && placed.corner !== 'blind right')) return body;
  const front = drawFront(unit, size, made, entity);
  return [...body, ...carry(front, (q) => ({ x: q.x + from, y: q.y + foot }))];
}

/** What closes a unit, from its lower left corner: leaves and frame, with lines to where doors hang. @param size of its carcass, metres */
export function drawFront(
  { front, band }: Pick<Cabinet, 'front' | 'band'>,
  size: Pick<PieceSize, 'width' | 'height'>,
  made: Construction,
  entity?: string,
): DisplayItem[] {
  const { cells, frame } = layFront(front, size.width, size.height, band, made);
  const leaves = cells.flatMap(({ cell, leaves: all }) =>
    all.map((leaf) => ({ leaf, edge: isDrawn(cell) || leaf.hand === null ? undefined : HANGS[leaf.hand] })),
  );
  const rings = [...frame, ...leaves.map((l) => l.leaf)].map(rectangle);
  const marks: DisplayItem[] = rings.length ? [{ kind: 'lines', rings, ink: 'line', pen: 0.18, entity, layer: 'piece' }] : [];
  for (const { leaf, edge } of leaves)
    if (edge) marks.push({ kind: 'line', points: hangingLines(leaf, edge), closed: false, ink: 'thin', pen: 0.13, entity, layer: 'piece' });
  return marks;
}
