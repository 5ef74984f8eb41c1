'use client';
import type { Run } from '@/core/project/schema';
import { LIES, type Construction } from '@/core/project/schema/cabinets';
import { formatLengthExact } from '@/core/units/length';
import { FieldTable, type Field } from '../../look/FieldTable';
import { Group } from '../Group';
import { useEdit } from '../parts';

const LYING: Readonly<Record<Construction['lies'], string>> = { on: 'laid on', half: 'half laid on', inset: 'inset' };

/** No board is thinner that others are joined to, metres. */
const THINNEST = 0.006;

/** Lengths of how cabinets are made that are a row of the docket each. */
type Figure = 'front' | 'gap' | 'board' | 'back' | 'void' | 'edging' | 'setback' | 'frame';

/** The boards a run is made of, and how its fronts lie on them. */
export function MakingRows({ run, make }: { run: Run; make: (values: Partial<Construction>) => boolean }) {
  const { units, say } = useEdit();
  const { made } = run;
  const thick = (key: Figure, label: string, aria: string, least = 0): Field => ({
    kind: 'length',
    label,
    aria,
    value: made[key],
    set(value) {
      if (value >= least) return make({ [key]: value });
      say(`Nothing was changed. ${aria} is at least ${formatLengthExact(least, units)}.`);
      return false;
    },
  });
  return (
    <Group title="Boards and fronts">
      <FieldTable
        units={units}
        say={say}
        fields={[
          {
            kind: 'choice',
            label: 'Fronts lie',
            aria: 'How fronts lie',
            value: made.lies,
            options: LIES.map((v) => [v, LYING[v]] as const),
            set: (v) => make({ lies: v as Construction['lies'] }),
          },
          thick('front', 'Fronts', 'The thickness of fronts', THINNEST),
          thick('gap', 'Gaps', 'The gap between fronts'),
          made.frame > 0 ? thick('frame', 'Frame', 'The width of the frame', 2 * THINNEST) : null,
          thick('board', 'Boards', 'The thickness of boards', THINNEST),
          thick('back', 'Backs', 'The thickness of backs', THINNEST / 2),
          thick('void', 'Behind backs', 'The room behind backs'),
          thick('edging', 'Edging', 'The thickness of edging'),
          thick('setback', 'Shelves back', 'How far shelves stand back'),
          made.stands === 'plinth' && made.plinth > 0
            ? {
                kind: 'switch',
                label: 'Grilles',
                aria: 'Grilles in the plinth under what wants air',
                value: made.vented,
                set: (vented) => make({ vented }),
              }
            : null,
        ]}
      />
    </Group>
  );
}
