import type { Status } from '../../project/schema';
import type { DerivedBeam } from '../../shell/built';
import type { DerivedColumn } from '../../shell/model';
import type { DisplayItem, Ink } from '../display';
import { PLAN_CUT } from './stairs';

/** What a status is cut in: what stands in grey, what is new in solid ink. */
export const poche = (status: Status): Ink => (status === 'existing' ? 'standing' : 'cut');

/** A column, cut. */
export const drawColumn = ({ id, column, ring }: DerivedColumn): DisplayItem[] => [
  { kind: 'fill', rings: [ring], ink: poche(column.status), entity: id, layer: 'column' },
  { kind: 'line', points: ring, closed: true, ink: 'line', pen: 0.35, entity: id, layer: 'column' },
];

/** A post is cut; a beam above the cut is dashed. */
export function drawBeam({ id, beam, ring }: DerivedBeam): DisplayItem[] {
  const [z0, z1] = [Math.min(beam.a.z, beam.b.z), Math.max(beam.a.z, beam.b.z)];
  if (z0 < PLAN_CUT && z1 > PLAN_CUT && Math.hypot(beam.b.x - beam.a.x, beam.b.y - beam.a.y) < 0.3 * (z1 - z0))
    return [
      { kind: 'fill', rings: [ring], ink: beam.status === 'existing' ? 'standing' : 'cut', entity: id, layer: 'column' },
      { kind: 'line', points: ring, closed: true, ink: 'line', pen: 0.35, entity: id, layer: 'column' },
    ];
  return [{ kind: 'line', points: ring, closed: true, ink: 'thin', pen: 0.18, dash: z0 > PLAN_CUT, entity: id, layer: 'roof' }];
}
