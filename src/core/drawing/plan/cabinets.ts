import type { DerivedRun } from '../../cabinetry/derive';
import { fittingsIn, type AssembledUnit } from '../../cabinetry/assemble';
import { isWithoutFronts } from '../../cabinetry/fittings';
import { frontOut } from '../../cabinetry/front';
import { transformPoint } from '../../geometry/mesh';
import { coverOf } from '../../cabinetry/run';
import type { Vec2 } from '../../geometry/vec';
import { NEAR } from '../../units/tolerance';
import { TYPE, type DisplayItem } from '../display';

/** A run in the plan: its units with their fronts, what hangs dashed, the edge of its worktop, and a mark on each unit. */
export function drawRun(derived: DerivedRun): DisplayItem[] {
  const { id, units, worktop, trim } = derived;
  const layer = 'piece' as const;
  return [
    ...units.filter((u) => u.unit.band !== 'wall').flatMap((u) => drawUnit(derived, u)),
    // The worktop stands out before the fronts.
    ...worktop.regions.map(({ outer: points }): DisplayItem => ({ kind: 'line', points, closed: true, ink: 'line', pen: 0.25, entity: id, layer })),
    ...worktop.raised.map(({ outer: points }): DisplayItem => ({ kind: 'line', points, closed: true, ink: 'line', pen: 0.25, entity: id, layer })),
    ...worktop.joints.flatMap(({ lines }) =>
      lines.map((points): DisplayItem => ({ kind: 'line', points: [...points], closed: false, ink: 'line', pen: 0.13, entity: id, layer })),
    ),
    ...worktop.grooves.map(({ far, mouth }): DisplayItem => ({ kind: 'line', points: [far, mouth], closed: false, ink: 'thin', pen: 0.13, entity: id, layer })),
    ...[...trim.panels, ...trim.falls]
      .filter((p) => p.z0 < derived.run.made.plinth + NEAR)
      .map(({ ring: points }): DisplayItem => ({ kind: 'line', points, closed: true, ink: 'line', pen: 0.18, entity: id, layer })),
    ...units.filter((u) => u.unit.band === 'wall').flatMap((u) => drawUnit(derived, u)),
  ];
}

function drawUnit({ run: { made }, legs, units }: DerivedRun, own: AssembledUnit): DisplayItem[] {
  const { unit, placed } = own;
  if (unit.bare === 'space') return [];
  const entity = unit.id;
  const layer = 'piece' as const;
  const hung = unit.band === 'wall';
  const outline = coverOf(placed, legs, placed.depth + frontOut(made));
  const line = (points: Vec2[], pen: 0.18 | 0.25): DisplayItem => ({
    kind: 'line',
    points,
    closed: true,
    ink: hung ? 'thin' : 'line',
    pen,
    dash: hung,
    entity,
    layer,
  });
  const built = fittingsIn(own, made);
  const symbols = built.flatMap(({ item, size: s, traits, at }) =>
    item.symbol(s, traits as never).map(({ points, closed, dashed }): DisplayItem => ({
      kind: 'line',
      points: points.map((p) => {
        const q = transformPoint(own.matrix, { x: p.x + at.x, y: p.y + at.y, z: 0 });
        return { x: q.x, y: q.y };
      }),
      closed,
      ink: 'thin',
      pen: 0.18,
      dash: hung || dashed,
      entity,
      layer,
    })),
  );
  // A hood alone is drawn as it is.
  if (hung && isWithoutFronts(unit)) return symbols;
  const items: DisplayItem[] = [line(outline, 0.18), ...symbols];
  if (hung) return items;
  items.unshift({ kind: 'fill', rings: [outline], ink: 'paper', entity, layer });
  if (unit.bare) return items;
  const at = middle(placed.footprint);
  const text = String(units.findIndex((u) => u.unit.id === unit.id) + 1);
  if (!isWithoutFronts(unit)) items.push(line(placed.footprint, 0.18));
  items.push({ kind: 'text', at, text, mm: TYPE.number, ink: 'note', weight: 400, angle: 0, entity, layer, yields: 'out' });
  return items;
}

const middle = (ring: readonly Vec2[]): Vec2 => ({
  x: ring.reduce((sum, p) => sum + p.x, 0) / ring.length,
  y: ring.reduce((sum, p) => sum + p.y, 0) / ring.length,
});
