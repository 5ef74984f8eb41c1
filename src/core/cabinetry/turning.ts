import { add, angleOf, rotate, sub, type Vec2 } from '../geometry/vec';
import type { Leg, Run } from '../project/schema/cabinets';
import { micro } from '../units/length';
import type { DerivedRun } from './derive';

/** How a run that stands free lies, radians from the x axis of the plan, in 0…2π; null where a leg of it is at a wall. */
export function lyingOf({ legs }: Pick<DerivedRun, 'legs'>, run: Pick<Run, 'legs'>): number | null {
  if (!legs.length || run.legs.some((l) => l.kind !== 'free')) return null;
  const angle = angleOf(sub(legs[0].to, legs[0].from));
  return angle < 0 ? angle + 2 * Math.PI : angle;
}

/** The legs of a run that stands free, turned about the middle of its units until it lies at an angle, radians. */
export function turnedTo({ legs, units }: Pick<DerivedRun, 'legs' | 'units'>, run: Pick<Run, 'legs'>, angle: number): Leg[] {
  const points = units.length ? units.flatMap((u) => u.placed.footprint) : legs.flatMap((l) => [l.from, l.to]);
  // The mean of corners turns with them: turned back, a run is where it was.
  const middle = points.reduce((m, p) => ({ x: m.x + p.x / points.length, y: m.y + p.y / points.length }), { x: 0, y: 0 });
  const by = angle - angleOf(sub(legs[0].to, legs[0].from));
  const turn = (p: Vec2): Vec2 => {
    const { x, y } = add(middle, rotate(sub(p, middle), by));
    return { x: micro(x), y: micro(y) };
  };
  return run.legs.map((leg): Leg => (leg.kind === 'free' ? { kind: 'free', from: turn(leg.from), to: turn(leg.to) } : leg));
}
