import { add, distance, left, lerp, scale, sub, unit, type Vec2 } from '../geometry/vec';
import type { Model } from '../derive';
import type { DerivedLevel, DerivedOpening } from '../shell/model';
import { JOINERY } from '../shell/openings/sizes';
import { formatArea, formatLength, type UnitSystem } from '../units/length';
import type { DisplayItem } from './display';

export interface PlanOptions {
  /** Room names and areas. */
  labels: boolean;
  /** Overall dimensions outside the walls. */
  dimensions: boolean;
}

/** The plan of a level as a display list, from the floor finish up to the labels. */
export function drawPlan(model: Model, levelId: string, options: PlanOptions = { labels: true, dimensions: true }): DisplayItem[] {
  const level = model.shell.levels.find((l) => l.id === levelId);
  if (!level) return [];
  const items: DisplayItem[] = [];
  for (const room of level.rooms) items.push({ kind: 'fill', rings: [room.region.outer, ...room.region.holes], ink: 'room', entity: room.id, layer: 'room' });
  const pieces = model.pieces
    .filter((p) => p.piece.level === levelId)
    .sort((a, b) => a.piece.elevation + a.piece.size.height - b.piece.elevation - b.piece.size.height);
  for (const piece of pieces) {
    const overhead = piece.item?.mount === 'ceiling';
    items.push({ kind: 'fill', rings: [piece.footprint], ink: 'paper', entity: piece.id, layer: 'piece' });
    for (const line of piece.symbol)
      items.push({
        kind: 'line',
        points: line.points,
        closed: line.closed,
        ink: 'thin',
        pen: 0.18,
        dash: overhead || line.dashed,
        entity: piece.id,
        layer: 'piece',
      });
  }
  for (const wall of level.walls) items.push({ kind: 'fill', rings: wall.rings, ink: 'cut', entity: wall.id, layer: 'wall' });
  for (const opening of level.openings) items.push(...drawOpening(opening));
  if (options.dimensions) items.push(...overall(level, model.project.units));
  if (options.labels)
    for (const room of level.rooms) {
      items.push({
        kind: 'text',
        at: room.label,
        text: room.room.name,
        mm: 2.9,
        ink: 'line',
        weight: 600,
        angle: 0,
        entity: room.id,
        layer: 'label',
        dy: -1.1,
      });
      items.push({
        kind: 'text',
        at: room.label,
        text: formatArea(room.area, model.project.units),
        mm: 2.7,
        ink: 'thin',
        weight: 400,
        angle: 0,
        entity: room.id,
        layer: 'label',
        dy: 2.4,
      });
    }
  return items;
}

/** An opening: the wall taken out, and the door's leaf with its swing or the window's frame and panes. */
export function drawOpening(o: DerivedOpening): DisplayItem[] {
  const axis = { x: Math.cos(o.angle), y: Math.sin(o.angle) };
  const n = left(axis);
  const at = (x: number, y: number): Vec2 => ({ x: o.point.x + axis.x * x + n.x * y, y: o.point.y + axis.y * x + n.y * y });
  const w = o.opening.width / 2;
  const h = o.thickness / 2;
  const entity = o.id;
  const layer = 'opening' as const;
  const line = (points: Vec2[], pen: 0.13 | 0.25 | 0.35, ink: 'line' | 'thin' = 'line', closed = false): DisplayItem => ({
    kind: 'line',
    points,
    closed,
    ink,
    pen,
    entity,
    layer,
  });
  const items: DisplayItem[] = [{ kind: 'fill', rings: [[at(-w, -h), at(w, -h), at(w, h), at(-w, h)]], ink: 'paper', entity, layer }];
  if (o.opening.kind === 'window') {
    items.push(line([at(-w, -h), at(w, -h)], 0.25), line([at(-w, h), at(w, h)], 0.25), line([at(-w, -h), at(-w, h)], 0.25), line([at(w, -h), at(w, h)], 0.25));
    const middle = o.frame;
    const f = o.opening.frame.depth / 2;
    items.push(line([at(-w, middle - f), at(w, middle - f), at(w, middle + f), at(-w, middle + f)], 0.13, 'line', true));
    items.push({ kind: 'line', points: [at(-w, middle), at(w, middle)], closed: false, ink: 'glass', pen: 0.25, entity, layer });
    return items;
  }
  const side = o.opening.swing === 'left' ? 1 : -1;
  const hand = o.opening.hinge === 'start' ? 1 : -1;
  const l = o.opening.frame.face;
  for (const x of [-w, w - l]) items.push({ kind: 'fill', rings: [[at(x, -h), at(x + l, -h), at(x + l, h), at(x, h)]], ink: 'cut', entity, layer });
  const hinge = at(-hand * (w - l), side * h);
  const leaf = o.opening.width - 2 * l;
  const open = at(-hand * (w - l), side * (h + leaf));
  const shut = at(hand * (w - l), side * h);
  const t = JOINERY.leaf;
  items.push({
    kind: 'fill',
    rings: [[hinge, open, at(-hand * (w - l) + hand * t, side * (h + leaf)), at(-hand * (w - l) + hand * t, side * h)]],
    ink: 'paper',
    entity,
    layer,
  });
  items.push(line([hinge, open, at(-hand * (w - l) + hand * t, side * (h + leaf)), at(-hand * (w - l) + hand * t, side * h)], 0.25, 'line', true));
  items.push({ kind: 'arc', centre: hinge, from: open, to: shut, ink: 'thin', pen: 0.13, entity, layer });
  return items;
}

/** A dimension: line, oblique ticks and the figure above it. */
export function drawDimension(a: Vec2, b: Vec2, text: string, entity?: string): DisplayItem[] {
  const d = unit(sub(b, a));
  const angle = Math.atan2(d.y, d.x);
  const upright = angle > Math.PI / 2 + 1e-6 || angle <= -Math.PI / 2 + 1e-6 ? angle + Math.PI : angle;
  const tick = (p: Vec2): DisplayItem => {
    const q = { x: (d.x - d.y) * 0.06, y: (d.x + d.y) * 0.06 };
    return { kind: 'line', points: [sub(p, q), add(p, q)], closed: false, ink: 'measure', pen: 0.35, layer: 'dimension' };
  };
  return [
    { kind: 'line', points: [a, b], closed: false, ink: 'measure', pen: 0.18, layer: 'dimension', entity },
    tick(a),
    tick(b),
    { kind: 'text', at: lerp(a, b, 0.5), text, mm: 2.7, ink: 'measure', weight: 400, angle: upright, layer: 'dimension', dy: -1, entity },
  ];
}

function overall(level: DerivedLevel, units: UnitSystem): DisplayItem[] {
  const items: DisplayItem[] = [];
  const points = level.joined.outline.flatMap((r) => r.outer);
  if (points.length < 3 || !level.rooms.length) return items;
  const xs = points.map((p) => p.x);
  const ys = points.map((p) => p.y);
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const off = 0.45;
  const run = (a: Vec2, b: Vec2, toward: Vec2): void => {
    const push = scale(unit(toward), off);
    items.push(...drawDimension(add(a, push), add(b, push), formatLength(distance(a, b), units)));
    for (const p of [a, b])
      items.push({
        kind: 'line',
        points: [add(p, scale(push, 0.35)), add(p, scale(push, 1.15))],
        closed: false,
        ink: 'measure',
        pen: 0.13,
        layer: 'dimension',
      });
  };
  run({ x: x0, y: y0 }, { x: x1, y: y0 }, { x: 0, y: -1 });
  run({ x: x0, y: y0 }, { x: x0, y: y1 }, { x: -1, y: 0 });
  return items;
}
