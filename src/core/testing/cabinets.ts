import { unitsFrom } from '../cabinetry/line';
import type { Cabinet } from '../project/schema';

/** The units of a run as a line says them, in order; their ids are that of the run and their number. */
export function unitsSaid(line: string, run = 'run-a'): Cabinet[] {
  let count = 0;
  const made = unitsFrom(line, run, [], 'metric', () => `${run}-${count++}`);
  if (!made.ok) throw new Error(made.message);
  return made.units;
}
