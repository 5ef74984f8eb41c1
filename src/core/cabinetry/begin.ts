import type { Leg, Run } from '../project/schema/cabinets';
import type { UnitSystem } from '../units/length';
import { CONSTRUCTIONS } from './figures';

/** A run as it begins: built as is usual where one measures in such units, its fronts framed, packed to the left. */
export const newRun = (id: string, name: string, level: string, legs: Leg[], units: UnitSystem): Run => ({
  id,
  name,
  level,
  legs,
  packed: 'start',
  start: 0,
  made: CONSTRUCTIONS[units === 'metric' ? 'frameless' : 'imperial'],
  fronts: 'framed',
  handles: 'bar',
  ends: 'panels',
  cornices: [],
  pelmet: 0,
  upstand: 0,
  falls: 'none',
  behind: 0,
  status: 'new',
  finishes: {},
});
