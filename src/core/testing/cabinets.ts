import { readLine } from '../cabinetry/said';
import type { Cabinet } from '../project/schema';

/** The units of a run as a line says them, in order; their ids are that of the run and their number. */
export function unitsSaid(line: string, run = 'run-a'): Cabinet[] {
  const read = readLine(line, 'metric');
  if (!read.ok) throw new Error(read.message);
  return read.units.map(({ word, band, width, front, corner, bare, fitting }, order) => ({
    id: `${run}-${order}`,
    name: word,
    run,
    order,
    band,
    width,
    height: null,
    depth: null,
    front,
    corner: corner ? 'L' : null,
    over: null,
    bare,
    fitting,
    open: 0,
    finishes: {},
  }));
}
