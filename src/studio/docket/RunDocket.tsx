'use client';
import Autocomplete from '@mui/material/Autocomplete';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { CONSTRUCTIONS } from '@/core/cabinetry/figures';
import { inMarks, inOrder, sayRun, unitsFrom } from '@/core/cabinetry/line';
import { leftOn } from '@/core/cabinetry/left';
import { completed, completions, lastSaid } from '@/core/cabinetry/said';
import { legRound, legsAround } from '@/core/cabinetry/sides';
import { splashbacksOf, splashFields } from '@/core/cabinetry/splashback';
import { derivedOf } from '@/core/model/model';
import { CABINETS } from '@/core/project/kinds/first-finishes';
import type { Cabinet, Run } from '@/core/project/schema';
import { BUILDS, CORNERS, FRONTS, HANDLES, type Build, type Construction, type FrontStyle, type HandleStyle } from '@/core/project/schema/cabinets';
import { formatLength } from '@/core/units/length';
import { STATUS_NAMES } from '../look/Choice';
import { FieldTable, type Field } from '../look/FieldTable';
import { colours } from '../look/theme';
import { newId, useStudio } from '../store/studio';
import { Group } from './Group';
import { FittingRows } from './FittingRows';
import { Actions, PartSwatches, useEdit } from './parts';
import { RunEdges } from './RunEdges';

const plain = <T extends string>(values: readonly T[]): (readonly [T, string])[] => values.map((v) => [v, v] as const);

/** The units of a run, from the left. */
function useUnits(run: string): Cabinet[] {
  const cabinets = useStudio((s) => s.project.cabinets);
  return useMemo(() => inOrder(Object.values(cabinets).filter((u) => u.run === run)), [cabinets, run]);
}

/** The units of a run, typed in one line in the words of the trade; they are shown as they are typed. */
function LineField({ run }: { run: Run }) {
  const { units: system, say } = useEdit();
  const units = useUnits(run.id);
  const said = sayRun(units, system);
  const [typed, setTyped] = useState<string | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  // Words that end what is typed are offered; Enter takes the one that was gone to, else the line.
  const [offered, setOffered] = useState(false);
  const gone = useRef<string | null>(null);
  // New units have the same ids from one letter to the next: what is shown is what is done.
  const ids = useRef<string[]>([]);
  const text = typed ?? said;
  const read = (line: string): ReturnType<typeof unitsFrom> => {
    let next = 0;
    return unitsFrom(line, run.id, units, system, () => (ids.current[next++] ??= newId('unit')));
  };
  const leave = (): void => {
    useStudio.getState().endPreview();
    ids.current = [];
    setTyped(null);
    setMessage(null);
  };
  useEffect(() => () => useStudio.getState().endPreview(), []);
  // A corner unit takes the run round the corner.
  const laid = (own: Cabinet[]): { run: Run; units: Cabinet[] } => ({
    run: { ...run, legs: legsAround(run, own, useStudio.getState().model.shell) },
    units: own,
  });
  const type = (line: string): void => {
    setTyped(line);
    let now = read(line);
    // A word that is still being typed waits to be whole: what stands before it is shown.
    if (!now.ok && completions(line).length) now = read(line.slice(0, lastSaid(line)));
    setMessage(now.ok ? useStudio.getState().preview('run.lay', laid(now.units)) : now.message);
  };
  const take = (): void => {
    if (typed === null || typed === said) return leave();
    const now = read(typed);
    if (!now.ok) return say(now.message);
    if (useStudio.getState().run('run.lay', laid(now.units))) leave();
  };
  return (
    <Box sx={{ my: 0.75 }}>
      <Autocomplete
        freeSolo
        disableClearable
        multiple={false}
        options={typed === null ? [] : completions(text)}
        filterOptions={(all) => all}
        value={text}
        inputValue={text}
        onInputChange={(_, line, reason) => {
          if (reason !== 'input') return;
          gone.current = null;
          type(line.replace(/\s*\n\s*/g, ' '));
        }}
        onChange={(_, word, reason) => reason === 'selectOption' && type(completed(text, word))}
        open={offered && typed !== null}
        onOpen={() => setOffered(true)}
        onClose={() => setOffered(false)}
        onHighlightChange={(_, word) => (gone.current = word)}
        onKeyDown={(e: KeyboardEvent & { defaultMuiPrevented?: boolean }) => {
          e.stopPropagation();
          if (e.key === 'Escape' && !offered) leave();
          if (e.key !== 'Enter' || (offered && gone.current !== null)) return;
          e.preventDefault();
          e.defaultMuiPrevented = true;
          take();
        }}
        renderInput={(params) => (
          <TextField
            {...params}
            variant="standard"
            multiline
            label="Units, from the left"
            placeholder="600 drawers, 800 sink, rest door"
            error={message !== null}
            helperText={message ?? (typed !== null && typed !== said ? 'Enter takes it' : ' ')}
            onBlur={take}
          />
        )}
      />
    </Box>
  );
}

/** How a run is built and looks. */
function RunRows({ run }: { run: Run }) {
  const { units: system, run: edit, say } = useEdit();
  const model = useStudio((s) => s.model);
  const set = (values: Partial<Run>): boolean => edit('run.put', { ...run, ...values });
  const make = (values: Partial<Construction>): boolean => set({ made: { ...run.made, ...values } });
  const { made } = run;
  const derived = derivedOf(model, 'runs').find((r) => r.id === run.id);
  const left = derived ? leftOn(derived, system) : [];
  const fields: Field[] = [
    { kind: 'text', label: 'Name', aria: 'Name of the run', value: run.name, set: (name) => set({ name }) },
    ...left.map((value, i): Field => ({ kind: 'fact', label: left.length > 1 ? `Wall ${i + 1}` : 'Along it', value })),
    { kind: 'choice', label: 'Fronts', value: run.fronts, options: plain(FRONTS), set: (v) => set({ fronts: v as FrontStyle }) },
    { kind: 'choice', label: 'Handles', value: run.handles, options: plain(HANDLES), set: (v) => set({ handles: v as HandleStyle }) },
    { kind: 'choice', label: 'Made', aria: 'How it is made', value: made.build, options: plain(BUILDS), set: (v) => set({ made: CONSTRUCTIONS[v as Build] }) },
  ];
  return (
    <>
      <FieldTable units={system} say={say} fields={fields} />
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
            { kind: 'length', label: 'Plinth', value: made.plinth, set: (plinth) => make({ plinth }) },
            { kind: 'length', label: 'Base, high', value: made.base.height, set: (height) => make({ base: { ...made.base, height } }) },
            { kind: 'length', label: 'Base, deep', value: made.base.depth, set: (depth) => make({ base: { ...made.base, depth } }) },
            { kind: 'length', label: 'Worktop', value: made.worktop.thickness, set: (thickness) => make({ worktop: { ...made.worktop, thickness } }) },
            { kind: 'length', label: 'Overhang', value: made.worktop.overhang, set: (overhang) => make({ worktop: { ...made.worktop, overhang } }) },
            { kind: 'length', label: 'Wall, above', value: made.wall.above, set: (above) => make({ wall: { ...made.wall, above } }) },
            { kind: 'length', label: 'Wall, high', value: made.wall.height, set: (height) => make({ wall: { ...made.wall, height } }) },
            { kind: 'length', label: 'Wall, deep', value: made.wall.depth, set: (depth) => make({ wall: { ...made.wall, depth } }) },
            { kind: 'length', label: 'Tall, high', value: made.tall.height, set: (height) => make({ tall: { ...made.tall, height } }) },
            { kind: 'choice', label: 'Status', value: run.status, options: STATUS_NAMES, set: (v) => set({ status: v as Run['status'] }) },
          ]}
        />
      </Group>
      <RunEdges run={run} />
    </>
  );
}

/** Takes a run round the next corner of its room. */
function Further({ run }: { run: Run }) {
  const shell = useStudio((s) => s.model.shell);
  const { run: edit } = useEdit();
  const next = legRound(run, shell);
  return next ? (
    <Button size="small" onClick={() => edit('run.put', { ...run, legs: [...run.legs, next] })}>
      Round the right corner
    </Button>
  ) : null;
}

/** Tiles the walls between the worktop of a run and what hangs above it, with the finish in hand. */
function Splash({ run }: { run: Run }) {
  const { run: edit } = useEdit();
  const derived = useStudio((s) => derivedOf(s.model, 'runs').find((r) => r.id === run.id));
  if (!derived || !splashFields(derived).length) return null;
  const press = (): void => {
    const { model, project, tool, select } = useStudio.getState();
    const patches = splashbacksOf(derived, model.shell, project.patches, tool.kind === 'finish' ? tool.finish : CABINETS.splashback);
    if (patches.length && edit('patch.put', { patches })) select(patches.map((p) => ({ entity: p.id, target: null })));
  };
  return (
    <Button size="small" onClick={press}>
      Splashback
    </Button>
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
      <Actions>
        <Further run={run} />
        <Splash run={run} />
      </Actions>
    </>
  );
}

/** A unit of a run, and the run it stands in. */
export function UnitDocket({ id }: { id: string }) {
  const unit = useStudio((s) => s.project.cabinets[id]);
  const run = useStudio((s) => s.project.runs[unit.run]);
  const all = useUnits(unit.run);
  const { units: system, run: edit, say } = useEdit();
  const set = (values: Partial<Cabinet>): boolean => edit('unit.put', { ...unit, ...values });
  const of = run.made[unit.band];
  const moved = (by: -1 | 1): void => {
    const at = all.findIndex((u) => u.id === id);
    const order = all.slice();
    [order[at], order[at + by]] = [order[at + by], order[at]];
    edit('run.lay', { run, units: order.map((u, i) => ({ ...u, order: i })) });
  };
  const at = all.findIndex((u) => u.id === id);
  const marks = inMarks(all);
  const below = all.filter((u) => u.band !== 'wall' && !u.bare);
  return (
    <>
      <FieldTable
        units={system}
        say={say}
        fields={[
          {
            kind: 'length?',
            label: 'Width',
            value: unit.width,
            auto: 'what is left',
            set: (width) => set({ width }),
          },
          { kind: 'length?', label: 'Height', value: unit.height, auto: formatLength(of.height, system), set: (height) => set({ height }) },
          { kind: 'length?', label: 'Depth', value: unit.depth, auto: formatLength(of.depth, system), set: (depth) => set({ depth }) },
          unit.corner
            ? { kind: 'choice', label: 'Corner', value: unit.corner, options: plain(CORNERS), set: (v) => set({ corner: v as Cabinet['corner'] }) }
            : null,
          unit.band === 'wall'
            ? {
                kind: 'choice',
                label: 'Hangs',
                value: unit.over ?? '',
                options: [['', 'beside the one before'], ...below.map((u) => [u.id, `over ${marks.indexOf(u) + 1}, ${u.name}`] as const)],
                set: (v) => set({ over: v || null }),
              }
            : null,
          unit.bare ? null : { kind: 'number', label: 'Open, %', value: unit.open, min: 0, max: 100, scale: 100, set: (open) => set({ open }) },
        ]}
      />
      <FittingRows unit={unit} />
      <PartSwatches id={id} />
      <Actions>
        <Button size="small" disabled={at <= 0} onClick={() => moved(-1)}>
          To the left
        </Button>
        <Button size="small" disabled={at < 0 || at >= all.length - 1} onClick={() => moved(1)}>
          To the right
        </Button>
      </Actions>
      <Box sx={{ mt: 1.25, pt: 0.5, borderTop: `1px solid ${colours.hairline}`, fontSize: 12.5, fontWeight: 550, color: colours.second }}>{run.name}</Box>
      <LineField key={run.id} run={run} />
      <RunRows run={run} />
    </>
  );
}
