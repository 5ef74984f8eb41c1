import { frontOf, type AssembledUnit } from '@/core/cabinetry/assemble';
import { borderAt, cellAt, cellSet, frontMoved, type At, type Border } from '@/core/cabinetry/dividing';
import type { LaidFront, Leaf } from '@/core/cabinetry/front';
import { handleField, handlesIn, heldAt, type PlacedHandle } from '@/core/cabinetry/handles';
import { frontsUpright, type FrontUpright } from '@/core/drawing/elevation/cabinets';
import type { Placed } from '@/core/drawing/elevation/unroll';
import type { Vec2 } from '@/core/geometry/vec';
import { derivedOf, type Model } from '@/core/model/model';
import { formatLength, snapStep } from '@/core/units/length';
import { useStudio } from '../../store/studio';
import type { Construction } from '@/core/project/schema/cabinets';
import { takeCell, useFront } from '../../tools/fronts';
import { edgeAlong } from '../../tools/runs';

/** What of a front is dragged in an elevation: a border between its cells, an edge of its unit, a handle. */
export type FrontDrag = { front: FrontUpright; laid: LaidFront; from: Vec2; moved: boolean; meant: (() => void) | null } & (
  { of: 'border'; border: Border } | { of: 'edge'; side: 'left' | 'right' } | { of: 'handle'; at: At; leaf: Leaf; handle: PlacedHandle }
);

/** The front of a unit in an elevation. */
export function frontIn({ things }: Pick<Model, 'things'>, faces: readonly Placed[], unit: string): FrontUpright | null {
  for (const derived of derivedOf({ things }, 'runs'))
    if (derived.units.some((u) => u.unit.id === unit))
      for (const placed of faces) for (const front of frontsUpright(derived, placed)) if (front.own.unit.id === unit) return front;
  return null;
}

/**
 * Takes hold of the front of a unit where one presses: of a handle of the cell in hand, of one of its edges, of a border between its
 * cells; or takes the cell one presses in hand.
 *
 * @param near how near counts, metres
 */
export function takeFront(model: Model, faces: readonly Placed[], unit: string, point: Vec2, near: number): FrontDrag | null {
  const front = frontIn(model, faces, unit);
  if (!front) return null;
  const { own, at, derived } = front;
  const laid = frontOf(own, derived.run.made);
  const [x, z] = [point.x - at.x, point.y - at.y];
  const begun = { front, laid, from: point, moved: false, meant: null };
  const { corner, width } = own.unit;
  // On a handle one means it; beside it an edge or a border that is as near.
  const handle = (within: number): FrontDrag | null => {
    const found = corner ? null : handleNear(laid, own, derived.run.made, x, z, within);
    return found && { ...begun, of: 'handle', ...found };
  };
  const on = handle(0);
  if (on) return on;
  if (!corner && width !== null && Math.abs(x) < near) return { ...begun, of: 'edge', side: 'left' };
  if (!corner && width !== null && Math.abs(x - own.size.width) < near) return { ...begun, of: 'edge', side: 'right' };
  // The panel of a unit that runs blind into a corner is no cell of its own: nothing of it is dragged.
  const border = corner ? null : borderAt(laid, x, z, near);
  if (border) return { ...begun, of: 'border', border };
  const by = handle(near);
  if (by) return by;
  const cell = corner ? null : cellAt(laid, x, z);
  if (cell) takeCell(unit, cell);
  return null;
}

/** The handle of the cell in hand that one points at. */
function handleNear(
  laid: LaidFront,
  { unit, look }: AssembledUnit,
  made: Construction,
  x: number,
  z: number,
  near: number,
): { at: At; leaf: Leaf; handle: PlacedHandle } | null {
  const inHand = useFront.getState();
  const own = laid.cells.find((c) => inHand.unit === unit.id && c.row === inHand.at.row && c.column === inHand.at.column);
  if (!own) return null;
  const lift = unit.band === 'wall' ? 0 : made.plinth;
  for (const leaf of own.leaves)
    for (const high of handlesIn({ cell: own.cell, leaves: [leaf] }, unit.band, look, lift)) {
      const handle = { ...high, z: high.z - lift };
      const f = handleField(handle);
      if (x > f.x0 - near && x < f.x1 + near && z > f.z0 - near && z < f.z1 + near) return { at: inHand.at, leaf, handle };
    }
  return null;
}

/** Shows what dragging does. @param fine edges of units in the finer steps @param least how far one drags before anything is meant, metres */
export function dragFront(drag: FrontDrag, point: Vec2, fine: boolean, least: number): void {
  if (!drag.moved && Math.hypot(point.x - drag.from.x, point.y - drag.from.y) < least) return;
  const state = useStudio.getState();
  const { own, at } = drag.front;
  const { units } = state.project;
  drag.moved = true;
  if (drag.of === 'edge') {
    // The stretch of a unit begins where it is drawn.
    const { args, width, note, refusal } = edgeAlong(own.unit.id, drag.side, own.placed.stretch.from + point.x - at.x, fine);
    const said = refusal ?? state.preview('run.lay', args) ?? note;
    drag.meant = refusal ? null : () => void state.run('run.lay', args);
    return useStudio.setState({ measure: { fields: width === null ? [] : [{ label: 'wide', value: width }], note: said, typed: null, field: 0 } });
  }
  if (drag.of === 'handle') {
    const { leaf, handle, at: cell, from } = drag;
    const step = (by: number): number => (fine ? Math.round(by * 1000) / 1000 : snapStep(by, units));
    const held = heldAt(leaf, { ...handle, x: handle.x + step(point.x - from.x), z: handle.z + step(point.y - from.y) });
    const next = { ...own.unit, front: cellSet(own.unit.front, cell, { held }) };
    const refusal = state.preview('unit.put', next);
    drag.meant = () => void state.run('unit.put', next);
    const said = `${formatLength(held.in, units)} from the ${held.from}, ${formatLength(held.up, units)} up`;
    return useStudio.setState({ measure: { fields: [], note: refusal ?? said, typed: null, field: 0 } });
  }
  const { border, from, laid } = drag;
  const way = border.between === 'rows' ? from.y - point.y : point.x - from.x;
  const by = fine ? Math.round(way * 1000) / 1000 : snapStep(way, units);
  if (by === 0) {
    // Back where it was: nothing is changed, not even what shares.
    state.endPreview();
    drag.meant = null;
    return useStudio.setState({ measure: null });
  }
  const unit = { ...own.unit, front: frontMoved(own.unit.front, laid, border, by) };
  const refusal = state.preview('unit.put', unit);
  drag.meant = () => void state.run('unit.put', unit);
  const row = unit.front[border.at.row];
  const size = border.between === 'rows' ? row.height : row.cells[border.at.column].width;
  useStudio.setState({ measure: { fields: [], note: refusal ?? (size === null ? 'shares the rest' : formatLength(size, units)), typed: null, field: 0 } });
}

/** Does what was shown last, or nothing where nothing was dragged. */
export function dropFront(drag: FrontDrag): void {
  const state = useStudio.getState();
  state.endPreview();
  useStudio.setState({ measure: null });
  if (drag.moved) drag.meant?.();
}
