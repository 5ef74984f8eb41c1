import { add, distance, left, lerp, rotate, scale, sub, unit, type Vec2 } from '../../geometry/vec';
import { boolean, clipHalf, labelPoint } from '../../geometry/polygon';
import type { Region } from '../../geometry/region';
import { stairToPlan } from '../../project/stair-layout';
import type { DerivedSlab, DerivedVoid } from '../../shell/built';
import type { DerivedStair } from '../../shell/stairs';
import { formatLength, type UnitSystem } from '../../units/length';
import { TYPE, type DisplayItem, type Ink, type Pen } from '../display';
import { HAIR } from '../../units/tolerance';

/** Height of the horizontal cut of a plan above the floor, metres. */
export const PLAN_CUT = 1.2;

/** Length of an arrow's head, metres. */
const HEAD = 0.16;

/**
 * A stair in plan: risers, the line one walks with an arrow upwards, numbers of the steps; above the cut dashed, behind
 * a break line.
 *
 * @param through what of it is seen from the level it arrives at, through the void; null: the level it starts on
 */
export function drawStair(stair: DerivedStair, units: UnitSystem, through: readonly Region[] | null): DisplayItem[] {
  const { layout, id } = stair;
  const { sizes, steps, risers } = layout;
  const own = layout.stair;
  const to = (p: Vec2): Vec2 => stairToPlan(own, p);
  const out: DisplayItem[] = [];
  const line = (points: Vec2[], pen: Pen = 0.18, ink: Ink = 'line', dash = false): void =>
    void out.push({ kind: 'line', points, closed: false, ink, pen, dash, entity: id, layer: 'stair' });
  const arrow = (path: Vec2[]): void => {
    line(path, 0.18, 'thin');
    const [tail, tip] = [path[path.length - 2], path[path.length - 1]];
    const d = unit(sub(tip, tail));
    const wing = (k: number): Vec2 => add(tip, rotate(scale(d, -HEAD), k * 0.42));
    line([wing(1), tip, wing(-1)], 0.25, 'thin');
    const r = 0.035;
    const from = path[0];
    out.push({
      kind: 'line',
      points: Array.from({ length: 12 }, (_, k) => add(from, rotate({ x: r, y: 0 }, (k * Math.PI) / 6))),
      closed: true,
      ink: 'thin',
      pen: 0.18,
      entity: id,
      layer: 'stair',
    });
  };
  const walk = layout.walk.map(to);
  if (through) {
    // What shows from above: the steps within the void, and the way down.
    steps.forEach((_, i) => {
      for (const part of boolean('intersection', [{ outer: stair.outline[i], holes: [] }], [...through])) {
        out.push({ kind: 'fill', rings: [part.outer], ink: 'paper', entity: id, layer: 'stair' });
        out.push({ kind: 'line', points: part.outer, closed: true, ink: 'line', pen: 0.18, entity: id, layer: 'stair' });
      }
    });
    const shown = [...walk].reverse().slice(0, Math.max(2, Math.ceil(walk.length * 0.75)));
    arrow(shown);
    return out;
  }
  // The first step that the cut passes over.
  const cutAt = steps.findIndex((s) => s.z + own.z > PLAN_CUT);
  const low = cutAt < 0 ? steps.length : cutAt;
  for (const ring of stair.outline) out.push({ kind: 'fill', rings: [ring], ink: 'paper', entity: id, layer: 'stair' });
  risers.forEach(({ left: a, right: b }, i) => {
    if (distance(a, b) > 0.01) line([to(a), to(b)], i < low ? 0.25 : 0.18, i < low ? 'line' : 'thin', i >= low + 1);
  });
  for (const edge of [layout.left, layout.right])
    for (let k = 0; k + 1 < edge.points.length; k++) {
      const [a, b] = [edge.points[k], edge.points[k + 1]].map(to);
      // Where along this piece the cut lies.
      const from = sumTo(edge.points, k);
      const l = distance(a, b);
      const at = low < risers.length ? edge.at[low] : Infinity;
      const t = Math.max(0, Math.min(1, (at - from) / l));
      if (t > 0) line([a, lerp(a, b, t)], 0.35);
      if (t < 1) line([lerp(a, b, t), b], 0.18, 'thin', true);
    }
  if (low < steps.length && low > 0) breakLine(risers[low].left, risers[low].right).forEach((points) => line(points.map(to), 0.25));
  arrow(walk);
  steps.forEach((step, i) => {
    const at =
      own.form === 'spiral' || layout.narrow !== null
        ? lerp(lerp(layout.walk[i] ?? { x: 0, y: 0 }, centre(step.ring), 0.9), layout.risers[i].right, 0.25)
        : lerp(centre(step.ring), lerp(risers[i].right, risers[i + 1].right, 0.5), 0.55);
    out.push({ kind: 'text', at: to(at), text: String(i + 1), mm: TYPE.number, ink: 'thin', weight: 400, angle: 0, entity: id, layer: 'stair', yields: 'out' });
  });
  const { left: a, right: b } = risers[0];
  const d = unit(sub(b, a));
  const foot = to(add(lerp(a, b, 0.5), scale(left(d), -0.28)));
  out.push({
    kind: 'text',
    at: foot,
    text: `up ${sizes.risers} × ${formatLength(sizes.rise, units)} / ${formatLength(sizes.going, units)}`,
    mm: TYPE.note,
    ink: 'thin',
    weight: 400,
    angle: 0,
    yields: 'aside',
    entity: id,
    layer: 'stair',
  });
  return out;
}

const sumTo = (points: readonly Vec2[], k: number): number => points.slice(1, k + 1).reduce((sum, p, i) => sum + distance(points[i], p), 0);

const centre = (ring: readonly Vec2[]): Vec2 =>
  scale(
    ring.reduce((sum, p) => add(sum, p), { x: 0, y: 0 }),
    1 / ring.length,
  );

/** Two lines across a flight, with the kink that says it goes on. */
function breakLine(a: Vec2, b: Vec2): Vec2[][] {
  const d = unit(sub(b, a));
  const n = left(d);
  return [0, 0.07].map((off) => {
    const [p, q] = [add(a, scale(n, 0.12 + off)), add(b, scale(n, -0.12 + off))];
    const m = lerp(p, q, 0.5);
    return [add(p, scale(d, -0.06)), add(m, scale(d, -0.06)), add(m, scale(n, 0.08)), add(m, scale(n, -0.08)), add(m, scale(d, 0.06)), add(q, scale(d, 0.06))];
  });
}

/** A void: its edge, with the crossing lines that say there is no floor. */
export function drawVoid({ id, void: own }: DerivedVoid): DisplayItem[] {
  const ring = own.points;
  const at = labelPoint({ outer: ring, holes: [] });
  const line = (points: Vec2[], closed: boolean, dash: boolean): DisplayItem => ({
    kind: 'line',
    points,
    closed,
    ink: 'thin',
    pen: 0.18,
    dash,
    entity: id,
    layer: 'stair',
  });
  return [
    { kind: 'fill', rings: [ring], ink: 'paper', entity: id, layer: 'stair' },
    line(ring, true, false),
    ...(ring.length === 4 ? [line([ring[0], ring[2]], false, true), line([ring[1], ring[3]], false, true)] : []),
    { kind: 'text', at, text: 'void', mm: TYPE.note, ink: 'thin', weight: 400, angle: 0, entity: id, layer: 'stair' },
  ];
}

/** A slab of its own: seen below the cut, dashed above it. */
export function drawSlab({ id, slab, ring }: DerivedSlab): DisplayItem[] {
  const dash = slab.z - slab.thickness > PLAN_CUT || slab.kind === 'foundation';
  const items: DisplayItem[] = dash ? [] : [{ kind: 'fill', rings: [ring], ink: 'room', entity: id, layer: 'slab' }];
  items.push({ kind: 'line', points: ring, closed: true, ink: dash ? 'thin' : 'line', pen: dash ? 0.18 : 0.25, dash, entity: id, layer: 'slab' });
  if (slab.kind !== 'deck') return items;
  // Its boards, across the shorter way.
  const xs = ring.map((p) => p.x);
  const [x0, x1] = [Math.min(...xs), Math.max(...xs)];
  const BOARD = 0.145;
  for (let x = x0 + BOARD; x < x1; x += BOARD) {
    const strip = clipHalf(
      clipHalf(ring, (p) => p.x - x),
      (p) => x + HAIR - p.x,
    );
    if (strip.length < 2) continue;
    const ys = strip.map((p) => p.y);
    items.push({
      kind: 'line',
      points: [
        { x, y: Math.min(...ys) },
        { x, y: Math.max(...ys) },
      ],
      closed: false,
      ink: 'faint',
      pen: 0.13,
      entity: id,
      layer: 'slab',
    });
  }
  return items;
}
