'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { levelledTo, levelsFor } from '@/core/cabinetry/ceiling';
import { CONSTRUCTIONS } from '@/core/cabinetry/figures';
import { inOrder } from '@/core/cabinetry/line';
import { leftOn } from '@/core/cabinetry/left';
import { lyingOf, turnedTo } from '@/core/cabinetry/turning';
import { offersOn } from '@/core/cabinetry/widths';
import { derivedOf } from '@/core/model/model';
import type { Run } from '@/core/project/schema';
import { BUILDS, STANDS, type Build, type Construction } from '@/core/project/schema/cabinets';
import { STATUS_NAMES } from '../../look/Choice';
import { FieldTable, type Field } from '../../look/FieldTable';
import { newId, useStudio } from '../../store/studio';
import { Group } from '../Group';
import { Actions, PartSwatches, useEdit } from '../parts';
import { LineField } from './LineField';
import { MakingRows } from './MakingRows';
import { RunEdges } from './RunEdges';
import { RunPresses } from './RunPresses';
import { StyleRows } from './StyleRows';
import { SuggestRows } from './SuggestRows';

export const plain = <T extends string>(values: readonly T[]): (readonly [T, string])[] => values.map((v) => [v, v] as const);

/** What units stand on, and what its height is called. */
const STANDING: Readonly<Record<Construction['stands'], { word: string; high: string }>> = {
  plinth: { word: 'on a plinth', high: 'Plinth' },
  feet: { word: 'on feet', high: 'Feet' },
  hung: { word: 'hung on the wall', high: 'Free below' },
};

/** How a run is built and looks. */
export function RunRows({ run }: { run: Run }) {
  const { units: system, run: edit, say } = useEdit();
  const model = useStudio((s) => s.model);
  const set = (values: Partial<Run>): boolean => edit('run.put', { ...run, ...values });
  const make = (values: Partial<Construction>): boolean => set({ made: { ...run.made, ...values } });
  const { made } = run;
  const runs = useStudio((s) => s.project.runs);
  const project = useStudio((s) => s.project.construction);
  const derived = derivedOf(model, 'runs').find((r) => r.id === run.id);
  const openings = useStudio((s) => s.project.openings);
  const levels = derived?.units.some((u) => u.unit.band === 'wall') ? levelsFor(derived, openings) : [];
  const lying = derived ? lyingOf(derived, run) : null;
  const left = derived ? leftOn(derived, system) : [];
  const fields: Field[] = [
    { kind: 'text', label: 'Name', aria: 'Name of the run', value: run.name, set: (name) => set({ name }) },
    ...left.map((value, i): Field => ({ kind: 'fact', label: left.length > 1 ? `Wall ${i + 1}` : 'Along it', value })),
    ...(derived && lying !== null
      ? [
          {
            kind: 'angle' as const,
            label: 'Turned, °',
            aria: 'Turned, degrees',
            value: lying,
            set: (angle: number) => set({ legs: turnedTo(derived, run, angle) }),
          },
        ]
      : []),
    { kind: 'choice', label: 'Made', aria: 'How it is made', value: made.build, options: plain(BUILDS), set: (v) => set({ made: CONSTRUCTIONS[v as Build] }) },
  ];
  return (
    <>
      <FieldTable units={system} say={say} fields={fields} />
      <Fill run={run} />
      <SuggestRows key={run.id} run={run} />
      <StyleRows run={run} />
      <Group title="Heights and depths">
        <FieldTable
          units={system}
          say={say}
          fields={[
            { kind: 'length', label: 'Begins at', value: run.start, set: (start) => set({ start }) },
            {
              kind: 'choice',
              label: 'Packed',
              value: run.packed,
              options: [
                ['start', 'to the left'],
                ['end', 'to the right'],
              ],
              set: (v) => set({ packed: v as Run['packed'] }),
            },
            {
              kind: 'choice',
              label: 'Stands',
              aria: 'What its units stand on',
              value: made.stands,
              options: STANDS.map((v) => [v, STANDING[v].word] as const),
              set: (v) => make({ stands: v as Construction['stands'] }),
            },
            { kind: 'length', label: STANDING[made.stands].high, value: made.plinth, set: (plinth) => make({ plinth }) },
            { kind: 'length', label: 'Base, high', value: made.base.height, set: (height) => make({ base: { ...made.base, height } }) },
            { kind: 'length', label: 'Base, deep', value: made.base.depth, set: (depth) => make({ base: { ...made.base, depth } }) },
            { kind: 'length', label: 'Worktop', value: made.worktop.thickness, set: (thickness) => make({ worktop: { ...made.worktop, thickness } }) },
            { kind: 'length', label: 'Overhang', value: made.worktop.overhang, set: (overhang) => make({ worktop: { ...made.worktop, overhang } }) },
            { kind: 'length', label: 'Wall, above', value: made.wall.above, set: (above) => make({ wall: { ...made.wall, above } }) },
            { kind: 'length', label: 'Wall, high', value: made.wall.height, set: (height) => make({ wall: { ...made.wall, height } }) },
            levels.length && derived
              ? {
                  kind: 'choice',
                  label: 'Tops level',
                  aria: 'What the tops of hung units are level with',
                  value: '',
                  options: [['', 'with …'], ...levels.map((l) => [l.id, l.text] as const)],
                  set: (id) => {
                    const level = levels.find((l) => l.id === id);
                    return level
                      ? edit(
                          'run.lay',
                          levelledTo(
                            derived,
                            derived.units.map((u) => u.unit),
                            level.top,
                          ),
                        )
                      : undefined;
                  },
                }
              : null,
            { kind: 'length', label: 'Wall, deep', value: made.wall.depth, set: (depth) => make({ wall: { ...made.wall, depth } }) },
            { kind: 'length', label: 'Tall, high', value: made.tall.height, set: (height) => make({ tall: { ...made.tall, height } }) },
            { kind: 'choice', label: 'Status', value: run.status, options: STATUS_NAMES, set: (v) => set({ status: v as Run['status'] }) },
          ]}
        />
        <Box sx={{ display: 'flex', gap: 0.75, mt: 0.75, flexWrap: 'wrap' }}>
          <Button size="small" onClick={() => edit('construction.set', { made, runs: Object.keys(runs) })}>
            So for all runs
          </Button>
          {project && JSON.stringify(project) !== JSON.stringify(made) ? (
            <Button size="small" onClick={() => set({ made: project })}>
              As others are made
            </Button>
          ) : null}
        </Box>
      </Group>
      <MakingRows run={run} make={make} />
      <RunEdges run={run} />
      <RunPresses run={run} />
    </>
  );
}

/** Ways to fill what is left along the walls of a run, each by one press. */
function Fill({ run }: { run: Run }) {
  const { units: system, run: edit } = useEdit();
  const derived = useStudio((s) => derivedOf(s.model, 'runs').find((r) => r.id === run.id));
  const cabinets = useStudio((s) => s.project.cabinets);
  if (!derived) return null;
  const all = inOrder(Object.values(cabinets).filter((u) => u.run === run.id));
  const offers = run.legs.flatMap((_, leg) => offersOn(derived, all, leg, system, () => newId('unit')).map((o) => ({ ...o, leg })));
  if (!offers.length) return null;
  return (
    <FieldTable
      units={system}
      say={() => undefined}
      fields={run.legs.map((_, leg): Field => {
        const own = offers.filter((o) => o.leg === leg);
        return own.length
          ? {
              kind: 'choice',
              label: 'Fill',
              aria: run.legs.length > 1 ? `Fill wall ${leg + 1}` : 'Fill what is left',
              value: '',
              options: [['', 'what is left with …'], ...own.map((o, i) => [String(i), o.text] as const)],
              set: (i) => (i === '' ? undefined : edit('run.lay', { run, units: own[Number(i)].units })),
            }
          : null;
      })}
    />
  );
}

/** A run of cabinets: its units in one line, how it is built, how it looks. */
export function RunDocket({ id }: { id: string }) {
  const run = useStudio((s) => s.project.runs[id]);
  return (
    <>
      <LineField key={id} run={run} />
      <RunRows run={run} />
      <PartSwatches id={id} />
      <Actions />
    </>
  );
}
