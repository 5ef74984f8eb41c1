import { add, rotate, type Vec2 } from '../../geometry/vec';
import type { DerivedOpening } from './derive';

/** What the leaf of a door sweeps: a quarter of a circle round its hinge. */
export interface Swing {
  hinge: Vec2;
  /** Where its free edge stands when it is shut, and when it stands open at a right angle. */
  shut: Vec2;
  open: Vec2;
  width: number;
}

/** The swings of a door whose leaves turn on hinges; none of one that slides, folds or lifts. */
export function swingsOf({ opening, point, angle, stands }: DerivedOpening): Swing[] {
  if (opening.kind !== 'door' || !SWINGS.has(opening.form)) return [];
  const side = opening.swing === 'left' ? 1 : -1;
  const fromStart = opening.hinge === 'start';
  const { face: l } = opening.frame;
  const { start, end } = opening.sidelights;
  const w = opening.width / 2;
  const x0 = -w + l + (start > 0 ? start + l : 0);
  const x1 = w - l - (end > 0 ? end + l : 0);
  const at = (x: number, y: number): Vec2 => add(point, rotate({ x, y }, angle));
  const leaf = (atStart: boolean, width: number): Swing => {
    const x = atStart ? x0 : x1;
    return {
      hinge: at(x, stands.leaf),
      shut: at(x + (atStart ? width : -width), stands.leaf),
      open: at(x, stands.leaf + side * width),
      width,
    };
  };
  const span = x1 - x0;
  switch (opening.form) {
    case 'pair':
      return [leaf(true, span / 2), leaf(false, span / 2)];
    case 'unequal':
      return [leaf(fromStart, (span * 2) / 3), leaf(!fromStart, span / 3)];
    default:
      return [leaf(fromStart, span)];
  }
}

const SWINGS: ReadonlySet<string> = new Set(['hinged', 'pair', 'unequal', 'stable']);

/** The outline of what a leaf sweeps, convex. @param steps of its arc */
export function sweptBy({ hinge, shut, open }: Swing, steps = 8): Vec2[] {
  const [a, b] = [shut, open].map((p) => ({ x: p.x - hinge.x, y: p.y - hinge.y }));
  return [
    hinge,
    ...Array.from({ length: steps + 1 }, (_, i) => {
      const t = (i / steps) * (Math.PI / 2);
      return { x: hinge.x + a.x * Math.cos(t) + b.x * Math.sin(t), y: hinge.y + a.y * Math.cos(t) + b.y * Math.sin(t) };
    }),
  ];
}
