import type { Construction, Leg, Run } from '../project/schema/cabinets';
import type { Project } from '../project/schema';
import type { UnitSystem } from '../units/length';
import { CONSTRUCTIONS } from './figures';

/**
 * A run as it begins: in a joinery style or in none, packed to the left.
 *
 * @param made how; null: as is usual where one measures in such units
 */
export const newRun = (
  id: string,
  name: string,
  level: string,
  legs: Leg[],
  units: UnitSystem,
  style: string | null = null,
  made: Construction | null = null,
): Run => ({
  id,
  name,
  level,
  legs,
  packed: 'start',
  start: 0,
  made: made ?? CONSTRUCTIONS[units === 'metric' ? 'frameless' : 'imperial'],
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

/** A run as it begins in a project: made as that says, in the joinery style its scheme has for new runs. */
export const newRunIn = ({ units, schemes, scheme, construction }: Project, id: string, name: string, level: string, legs: Leg[]): Run =>
  newRun(id, name, level, legs, units, schemes[scheme].style, construction);
