import type { Leg, Run } from '../project/schema/cabinets';
import type { UnitSystem } from '../units/length';
import { CONSTRUCTIONS } from './figures';

/** A run as it begins: built as is usual where one measures in such units, in a joinery style or in none, packed to the left. */
export const newRun = (id: string, name: string, level: string, legs: Leg[], units: UnitSystem, style: string | null = null): Run => ({
  id,
  name,
  level,
  legs,
  packed: 'start',
  start: 0,
  made: CONSTRUCTIONS[units === 'metric' ? 'frameless' : 'imperial'],
  style,
  look: {},
  ends: 'panels',
  upstand: 0,
  falls: 'none',
  corners: { form: 'square', by: 0.05 },
  behind: 0,
  raised: 0,
  slabs: { joint: 'butted', longest: 3 },
  grooves: 'none',
  infill: false,
  status: 'new',
  finishes: {},
});
