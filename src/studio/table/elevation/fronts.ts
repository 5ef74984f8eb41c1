import { frontOf } from '@/core/cabinetry/assemble';
import { borderAt, cellAt, frontMoved, type Border } from '@/core/cabinetry/dividing';
import type { LaidFront } from '@/core/cabinetry/front';
import { frontsUpright, type FrontUpright } from '@/core/drawing/elevation/cabinets';
import type { Placed } from '@/core/drawing/elevation/unroll';
import type { Vec2 } from '@/core/geometry/vec';
import { derivedOf, type Model } from '@/core/model/model';
import { formatLength, snapStep } from '@/core/units/length';
import { useStudio } from '../../store/studio';
import { takeCell } from '../../tools/fronts';
import { edgeAlong } from '../../tools/runs';

/** What of a front is dragged in an elevation: a border between its cells, or an edge of its unit. */
export type FrontDrag = { front: FrontUpright; laid: LaidFront; from: Vec2; moved: boolean; meant: (() => void) | null } & (
  { of: 'border'; border: Border } | { of: 'edge'; side: 'left' | 'right' }
);

/** The front of a unit in an elevation. */
export function frontIn({ things }: Pick<Model, 'things'>, faces: readonly Placed[], unit: string): FrontUpright | null {
  for (const derived of derivedOf({ things }, 'runs'))
    if (derived.units.some((u) => u.unit.id === unit))
      for (const placed of faces) for (const front of frontsUpright(derived, placed)) if (front.own.unit.id === unit) return front;
  return null;
}

/**
 * Takes hold of the front of a unit where one presses: of one of its edges, of a border between its cells; or takes the cell one
 * presses in hand.
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
  if (!corner && width !== null && Math.abs(x) < near) return { ...begun, of: 'edge', side: 'left' };
  if (!corner && width !== null && Math.abs(x - own.size.width) < near) return { ...begun, of: 'edge', side: 'right' };
  // The panel of a unit that runs blind into a corner is no cell of its own: nothing of it is dragged.
  const border = corner ? null : borderAt(laid, x, z, near);
  if (border) return { ...begun, of: 'border', border };
  const cell = corner ? null : cellAt(laid, x, z);
  if (cell) takeCell(unit, cell);
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
