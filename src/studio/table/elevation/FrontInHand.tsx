import { frontOf } from '@/core/cabinetry/assemble';
import { MARKED } from '@/core/drawing/inks';
import type { Placed } from '@/core/drawing/elevation/unroll';
import { useStudio } from '../../store/studio';
import { useFront } from '../../tools/fronts';
import type { View } from '../marks';
import { frontIn } from './fronts';

/** The cell in hand of a unit in an elevation, and the borders it is dragged by. */
export function FrontInHand({ unit, faces, view }: { unit: string; faces: readonly Placed[]; view: View }) {
  const model = useStudio((s) => s.model);
  const inHand = useFront();
  const front = frontIn(model, faces, unit);
  if (!front || front.own.unit.corner) return null;
  const { cells } = frontOf(front.own, front.derived.run.made);
  const own = cells.find((c) => inHand.unit === unit && c.row === inHand.at.row && c.column === inHand.at.column);
  const px = (x: number): number => view.x + (front.at.x + x) * view.k;
  const py = (z: number): number => view.y - (front.at.y + z) * view.k;
  return (
    <g style={{ pointerEvents: 'none' }}>
      {own ? (
        <rect
          data-testid="cell-in-hand"
          x={px(own.field.x0)}
          y={py(own.field.z1)}
          width={(own.field.x1 - own.field.x0) * view.k}
          height={(own.field.z1 - own.field.z0) * view.k}
          fill={MARKED.chosenThing}
          stroke={MARKED.chosen}
          strokeWidth={1.4}
        />
      ) : null}
      {cells.flatMap(({ row, column, field }) => {
        const below = cells.some((c) => c.row === row + 1) && column === 0;
        const beside = cells.some((c) => c.row === row && c.column === column + 1);
        return [
          below ? <circle key={`row ${row}`} cx={(px(field.x0) + px(front.own.size.width)) / 2} cy={py(field.z0)} r={3.5} fill={MARKED.chosen} /> : null,
          beside ? <circle key={`cell ${row} ${column}`} cx={px(field.x1)} cy={(py(field.z0) + py(field.z1)) / 2} r={3.5} fill={MARKED.chosen} /> : null,
        ];
      })}
    </g>
  );
}
