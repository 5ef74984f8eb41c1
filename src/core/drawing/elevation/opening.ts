import { offsetRing } from '../../geometry/extrude';
import type { Ring } from '../../geometry/region';
import type { Vec2 } from '../../geometry/vec';
import { openingOutline } from '../../project/openings';
import type { Opening, Side } from '../../project/schema';
import { foldsOf, JOINERY, lightsOf, wayOf, type UprightBox } from '../../shell/openings/sizes';
import type { DisplayItem, Pen } from '../display';

/** From where an opening is looked at. */
export interface Standpoint {
  /** The side of its wall. */
  from: Side;
  /** Whether one stands outside the house there. */
  outside: boolean;
}

/**
 * An opening face on: what fills it, and how it opens. Two lines meet where a light or a leaf hangs; they are dashed
 * where it opens away from whoever looks (ISO 7518). Metres, x along its wall from its middle, y up from the floor.
 */
export function openingFront(o: Opening, seen: Standpoint): DisplayItem[] {
  const outline = openingOutline(o);
  const pen = new Pencil(o.id);
  pen.items.push({ kind: 'fill', rings: [outline], ink: 'paper', entity: o.id, layer: 'opening' });
  pen.line(outline, 0.35, true);
  if (o.kind === 'door') door(o, seen, pen);
  else if (o.kind === 'window') window(o, seen, pen);
  return pen.items;
}

type Edge = 'start' | 'end' | 'top' | 'foot';

/** The two lines that meet in the middle of the edge something hangs at. */
export function hangingLines({ x0, z0, x1, z1 }: UprightBox, at: Edge): Vec2[] {
  const [mx, mz] = [(x0 + x1) / 2, (z0 + z1) / 2];
  return {
    start: [p(x1, z1), p(x0, mz), p(x1, z0)],
    end: [p(x0, z1), p(x1, mz), p(x0, z0)],
    top: [p(x0, z0), p(mx, z1), p(x1, z0)],
    foot: [p(x0, z1), p(mx, z0), p(x1, z1)],
  }[at];
}

class Pencil {
  readonly items: DisplayItem[] = [];

  constructor(private readonly entity: string) {}

  line(points: Vec2[], pen: Pen = 0.18, closed = false, dash = false): void {
    this.items.push({ kind: 'line', points, closed, ink: 'line', pen, dash: dash || undefined, entity: this.entity, layer: 'opening' });
  }

  box({ x0, z0, x1, z1 }: UprightBox): void {
    this.line([p(x0, z0), p(x1, z0), p(x1, z1), p(x0, z1)], 0.18, true);
  }

  /** The two lines that meet where something hangs. */
  hung(box: UprightBox, at: Edge, toward: boolean): void {
    this.line(hangingLines(box, at), 0.13, false, !toward);
  }

  /** An arrow the way something slides. */
  slides({ x0, z0, x1, z1 }: UprightBox, way: 'start' | 'end' | 'up'): void {
    const [mx, mz] = [(x0 + x1) / 2, (z0 + z1) / 2];
    const l = Math.min(0.3, (way === 'up' ? z1 - z0 : x1 - x0) * 0.4);
    const head = l * 0.25;
    if (way === 'up') {
      this.line([p(mx, mz - l / 2), p(mx, mz + l / 2)], 0.13);
      this.line([p(mx - head, mz + l / 2 - head), p(mx, mz + l / 2), p(mx + head, mz + l / 2 - head)], 0.13);
      return;
    }
    const to = way === 'end' ? 1 : -1;
    this.line([p(mx - (to * l) / 2, mz), p(mx + (to * l) / 2, mz)], 0.13);
    this.line([p(mx + to * (l / 2 - head), mz + head), p(mx + (to * l) / 2, mz), p(mx + to * (l / 2 - head), mz - head)], 0.13);
  }

  /** An upright or level line as far as it runs within a ring. */
  within(ring: Ring, axis: 'x' | 'y', at: number, pen: Pen = 0.13): void {
    for (const [a, b] of chords(ring, axis, at)) this.line(axis === 'x' ? [p(at, a), p(at, b)] : [p(a, at), p(b, at)], pen);
  }
}

const p = (x: number, y: number): Vec2 => ({ x, y });

/** Where a line square to an axis runs within a ring, from and to along the other axis. */
function chords(ring: Ring, axis: 'x' | 'y', at: number): [number, number][] {
  const other = axis === 'x' ? 'y' : 'x';
  const cuts: number[] = [];
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % ring.length];
    // Half open, so that a corner on the line counts once.
    if (a[axis] > at === b[axis] > at) return;
    cuts.push(a[other] + ((b[other] - a[other]) * (at - a[axis])) / (b[axis] - a[axis]));
  });
  cuts.sort((u, v) => u - v);
  return Array.from({ length: cuts.length >> 1 }, (_, i) => [cuts[2 * i], cuts[2 * i + 1]]);
}

function window(o: Opening, { outside }: Standpoint, pen: Pencil): void {
  const inner = offsetRing(openingOutline(o), o.frame.face);
  pen.line(inner, 0.18, true);
  const [xs, zs] = [inner.map((q) => q.x), inner.map((q) => q.y)];
  const [x0, x1, z0, z1] = [Math.min(...xs), Math.max(...xs), Math.min(...zs), Math.max(...zs)];
  const { form, panes } = o;
  const count = lightsOf(o);
  const post = form === 'glazed-wall' ? o.frame.face : 0;
  const step = (x1 - x0 - post * (count - 1)) / count;
  for (let c = 0; c < count; c++) {
    const from = x0 + c * (step + post);
    if (c > 0) pen.within(inner, 'x', from, 0.18);
    if (c > 0 && post > 0) pen.within(inner, 'x', from - post, 0.18);
    const across = form === 'glazed-wall' ? 1 : Math.max(1, Math.round(panes.across / count));
    for (let i = 1; i < across; i++) pen.within(inner, 'x', from + (step * i) / across);
    const light: UprightBox = { x0: from, x1: from + step, z0, z1 };
    if (form === 'casement') {
      const hung = (c % 2 === 0) === (o.hinge === 'start') ? 'start' : 'end';
      pen.hung(light, hung, outside);
    } else if (form === 'top-hung') pen.hung(light, 'top', outside);
    else if (form === 'tilt') pen.hung(light, 'foot', !outside);
    else if (form === 'sliding' && c % 2 === 0) pen.slides(light, 'end');
    else if (form === 'sash') pen.slides({ ...light, z1: (z0 + z1) / 2 }, 'up');
  }
  const sash = form === 'sash';
  const up = sash ? 2 * Math.max(1, Math.ceil(panes.up / 2)) : panes.up;
  for (let j = 1; j < up; j++) pen.within(inner, 'y', z0 + ((z1 - z0) * j) / up, sash && j === up / 2 ? 0.18 : 0.13);
}

function door(o: Opening, { from }: Standpoint, pen: Pencil): void {
  const way = wayOf(o);
  const { x0, x1, z0, z1 } = way;
  const f = o.frame.face;
  const toward = o.swing === from;
  const inner = offsetRing(openingOutline(o), f);
  if (way.foot !== null) {
    pen.within(inner, 'y', way.foot, 0.18);
    for (let i = 1; i < o.panes.across; i++) {
      const x = -o.width / 2 + f + ((o.width - 2 * f) * i) / o.panes.across;
      for (const [a, b] of chords(inner, 'x', x)) if (b > way.foot) pen.line([p(x, Math.max(a, way.foot)), p(x, b)], 0.13);
    }
  }
  for (const [light, a, b] of [
    [o.sidelights.start, -o.width / 2 + f, -o.width / 2 + f + o.sidelights.start],
    [o.sidelights.end, o.width / 2 - f - o.sidelights.end, o.width / 2 - f],
  ] as const)
    if (light > 0) pen.box({ x0: a, x1: b, z0: o.sill, z1 });
  // A head that is not straight closes the leaf itself.
  if (o.shape.kind === 'rectangle' || way.foot !== null) pen.box(way);
  else pen.line(inner, 0.18, true);
  const hand = o.hinge;
  const other = hand === 'start' ? 'end' : 'start';
  const span = x1 - x0;
  switch (o.form) {
    case 'pair':
    case 'unequal': {
      const share = o.form === 'pair' ? 0.5 : 2 / 3;
      const at = hand === 'start' ? x0 + span * share : x1 - span * share;
      pen.line([p(at, z0), p(at, z1)]);
      const [first, second] =
        hand === 'start'
          ? [
              { ...way, x1: at },
              { ...way, x0: at },
            ]
          : [
              { ...way, x0: at },
              { ...way, x1: at },
            ];
      pen.hung(first, hand, toward);
      pen.hung(second, other, toward);
      return;
    }
    case 'stable': {
      const half = z0 + (z1 - z0) / 2;
      pen.line([p(x0, half), p(x1, half)]);
      pen.hung({ ...way, z1: half }, hand, toward);
      pen.hung({ ...way, z0: half }, hand, toward);
      return;
    }
    case 'sliding':
    case 'pocket':
      pen.slides(way, hand);
      return;
    case 'bifold': {
      const count = foldsOf(span);
      for (let i = 1; i < count; i++) pen.line([p(x0 + (span * i) / count, z0), p(x0 + (span * i) / count, z1)]);
      pen.slides(way, hand);
      return;
    }
    case 'sectional': {
      const count = Math.max(3, Math.round((z1 - z0 - JOINERY.play - JOINERY.foot) / 0.5));
      for (let i = 1; i < count; i++) pen.line([p(x0, z0 + ((z1 - z0) * i) / count), p(x1, z0 + ((z1 - z0) * i) / count)]);
      pen.slides(way, 'up');
      return;
    }
    case 'up-and-over':
      pen.slides(way, 'up');
      return;
    default:
      pen.hung(way, hand, toward);
  }
}
