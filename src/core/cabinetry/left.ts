import { formatLength, type UnitSystem } from '../units/length';
import { NEAR } from '../units/tolerance';
import type { DerivedRun } from './derive';

/** What is left on each leg of a run, or by how much its units are too long for it, in words. */
export const leftOn = ({ legs, floor }: Pick<DerivedRun, 'legs' | 'floor'>, system: UnitSystem): string[] =>
  legs.map((_, i) => {
    const lacks = floor.lacks[i] ?? 0;
    if (lacks > NEAR) return `${formatLength(lacks, system)} too long for its wall`;
    const gaps = floor.gaps.filter((g) => g.leg === i).map((g) => formatLength(g.to - g.from, system));
    return gaps.length ? `${gaps.join(' and ')} left` : 'full';
  });
