'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect } from 'react';
import { isFixed } from '@/core/cabinetry/handles';
import { styleIn, stylesIn } from '@/core/cabinetry/styles';
import { apart, HANDLE_INSET, kitOfStyle, lookOf, styleFrom, unitLook, type StyleKit } from '@/core/project/joinery';
import { roomOfRun } from '@/core/project/runs';
import type { Cabinet, Run } from '@/core/project/schema';
import { EDGES, FRONTS, HANDLES, HOLDS, type FrontLook, type FrontStyle, type HandleStyle, type WorktopEdge } from '@/core/project/schema/cabinets';
import { freeName } from '@/core/project/things';
import { counted } from '@/core/units/text';
import { FieldTable, type Field } from '../../look/FieldTable';
import { colours } from '../../look/theme';
import { keepInLibrary, readLibrary, useLibrary } from '../../store/library';
import { newId, useStudio } from '../../store/studio';
import { Group } from '../Group';
import { useEdit } from '../parts';
import { useUnits } from './LineField';
import { plain } from './RunDocket';

/** What of a look is called how, where it is said that it is apart. */
const CALLED: Readonly<Record<string, string>> = {
  stile: 'stiles',
  rail: 'rails',
  grip: 'length of handles',
  holds: 'place of handles',
  inset: 'place of handles',
  cornices: 'cornice',
  edge: 'edge of the worktop',
};

const FRAMED: ReadonlySet<FrontStyle> = new Set(['framed', 'beaded', 'louvred', 'glazed']);
const LONG: ReadonlySet<HandleStyle> = new Set(['bar', 'edge', 'recessed']);

/** How far handles are from edges. */
function insets({ inset = HANDLE_INSET, holds }: FrontLook, set: (values: Partial<FrontLook>) => boolean): Field[] {
  const row = (key: keyof typeof inset, label: string, aria: string): Field => ({
    kind: 'length',
    label,
    aria,
    value: inset[key],
    set: (value) => set({ inset: { ...inset, [key]: value } }),
  });
  return [
    row('edge', 'From edge', 'Handles from the edge of doors that opens'),
    holds === 'reach' ? row('end', 'From end', 'Handles from the end of doors') : null,
    holds === 'reach' ? row('top', 'From top', 'Handles from the upper edge of drawers') : null,
  ];
}

/** How fronts and handles look. @param set puts a value apart */
function lookFields(look: FrontLook, set: (values: Partial<FrontLook>) => boolean): Field[] {
  return [
    { kind: 'choice', label: 'Fronts', value: look.fronts, options: plain(FRONTS), set: (v) => set({ fronts: v as FrontStyle }) },
    FRAMED.has(look.fronts) ? { kind: 'length', label: 'Stiles', aria: 'Width of stiles', value: look.stile, set: (stile) => set({ stile }) } : null,
    FRAMED.has(look.fronts) ? { kind: 'length', label: 'Rails', aria: 'Width of rails', value: look.rail, set: (rail) => set({ rail }) } : null,
    { kind: 'number', label: 'Panes across', value: look.panes.across, min: 1, max: 12, set: (n) => set({ panes: { ...look.panes, across: Math.round(n) } }) },
    { kind: 'number', label: 'Panes up', value: look.panes.up, min: 1, max: 12, set: (n) => set({ panes: { ...look.panes, up: Math.round(n) } }) },
    { kind: 'choice', label: 'Handles', value: look.handles, options: plain(HANDLES), set: (v) => set({ handles: v as HandleStyle }) },
    LONG.has(look.handles)
      ? { kind: 'length?', label: 'Long', aria: 'Length of handles', value: look.grip, auto: 'as the front is wide', set: (grip) => set({ grip }) }
      : null,
    !isFixed(look.handles)
      ? null
      : {
          kind: 'choice',
          label: 'Placed',
          aria: 'Where handles are',
          value: look.holds,
          options: [
            [HOLDS[0], 'at the end within reach'],
            [HOLDS[1], 'in the middle'],
          ],
          set: (v) => set({ holds: v as FrontLook['holds'] }),
        },
    ...(isFixed(look.handles) && look.handles !== 'edge' ? insets(look, set) : []),
  ];
}

const NONE = '';
const KEPT = 'kept ';

/** The joinery style of a run: chosen, given to others, what is apart from it brought back, kept. */
export function StyleRows({ run }: { run: Run }) {
  const { units: system, run: edit, say } = useEdit();
  const project = useStudio((s) => s.project);
  const units = useUnits(run.id);
  const entries = useLibrary((s) => s.entries);
  const read = useLibrary((s) => s.read);
  useEffect(() => {
    if (!read) void readLibrary();
  }, [read]);
  const style = styleIn(project, run.style);
  const look = lookOf(run, style);
  const kept = entries.flatMap((e) => (e.kind === 'style' && !project.joinery[e.data.style.id] ? [e] : []));
  const set = (values: Partial<Run['look']>): boolean => edit('run.put', { ...run, look: { ...run.look, ...values } });
  const kitFor = (id: string): StyleKit | null => {
    const own = id.startsWith(KEPT) ? kept.find((e) => e.id === id.slice(KEPT.length))?.data : undefined;
    const known = styleIn(project, id);
    return own ?? (known && kitOfStyle(project, known));
  };
  const give = (kit: StyleKit | null, runs: readonly Run[]): boolean => edit('style.give', { kit, runs: runs.map((r) => r.id) });
  const own = style ? apart(run, style) : [];
  const others = style ? units.filter((u) => apart(u, style).length) : [];
  const room = roomOfRun(run);
  const all = Object.values(project.runs);
  const inRoom = all.filter((r) => room !== null && roomOfRun(r) === room);
  const scheme = project.schemes[project.scheme];
  const keep = (): void => {
    const made = styleFrom(newId('style'), freeName('Style', project.joinery), run, style);
    // From now on it is the style that says how the run looks.
    if (edit('style.give', { kit: kitOfStyle(project, made), runs: [run.id] })) useStudio.getState().tell(`${made.name} is kept with this project.`);
  };
  const change = (name: string): boolean => (style ? edit('style.put', { ...style, name }) : false);
  const mine = style && Object.hasOwn(project.joinery, style.id);
  return (
    <Group title="Joinery style">
      <FieldTable
        units={system}
        say={say}
        fields={[
          {
            kind: 'choice',
            label: 'Style',
            aria: 'Style it is made in',
            value: style?.id ?? NONE,
            options: [
              [NONE, 'none'],
              ...stylesIn(project).map((s) => [s.id, s.name] as const),
              ...kept.map((e) => [`${KEPT}${e.id}`, `${e.name}, from the library`] as const),
            ],
            set: (id) => give(id === NONE ? null : kitFor(id), [run]),
          },
          mine ? { kind: 'text', label: 'Called', aria: 'Name of the style', value: style.name, set: change } : null,
          own.length ? { kind: 'fact', label: 'Apart', value: own.map((key) => CALLED[key] ?? key).join(', ') } : null,
          others.length ? { kind: 'fact', label: 'Units apart', value: others.map((u) => u.name).join(', ') } : null,
          ...lookFields(look, set),
          { kind: 'choice', label: 'Edge', aria: 'Edge of the worktop', value: look.edge, options: plain(EDGES), set: (v) => set({ edge: v as WorktopEdge }) },
        ]}
      />
      <Box sx={{ display: 'flex', gap: 0.75, mt: 0.75, flexWrap: 'wrap' }}>
        {own.length || others.length ? (
          <Button size="small" onClick={() => edit('style.return', { ids: [...(own.length ? [run.id] : []), ...others.map((u) => u.id)] })}>
            Bring back
          </Button>
        ) : null}
        {style && inRoom.length > 1 ? (
          <Button size="small" onClick={() => give(kitOfStyle(project, style), inRoom)}>
            To all of the room
          </Button>
        ) : null}
        {style && all.length > 1 ? (
          <Button size="small" onClick={() => give(kitOfStyle(project, style), all)}>
            To all {counted(all.length, 'run')}
          </Button>
        ) : null}
        {style ? (
          <Button
            size="small"
            aria-pressed={scheme.style === style.id}
            onClick={() => edit('scheme.set', { id: scheme.id, set: { style: scheme.style === style.id ? null : style.id } })}
          >
            {scheme.style === style.id ? 'New runs have it' : 'For new runs'}
          </Button>
        ) : null}
        <Button size="small" onClick={keep}>
          Keep as a style
        </Button>
        {mine ? (
          <Button size="small" onClick={() => void keepInLibrary({ kind: 'style', name: style.name, data: kitOfStyle(project, style) })}>
            {entries.some((e) => e.kind === 'style' && e.name === style.name) ? 'Keep it anew' : 'Keep in the library'}
          </Button>
        ) : null}
        {mine && own.length ? (
          <Button size="small" onClick={() => edit('style.put', styleFrom(style.id, style.name, run, style)) && edit('style.return', { ids: [run.id] })}>
            Change the style so
          </Button>
        ) : null}
      </Box>
    </Group>
  );
}

/** How the fronts of one unit look apart from its run. */
export function UnitStyleRows({ unit }: { unit: Cabinet }) {
  const { units: system, run: edit, say } = useEdit();
  const project = useStudio((s) => s.project);
  const run = project.runs[unit.run];
  const style = styleIn(project, run.style);
  if (unit.bare) return null;
  const look = unitLook(unit, lookOf(run, style));
  const own = [...Object.keys(unit.look), ...(style ? apart({ look: {}, finishes: unit.finishes }, style) : [])];
  return (
    <Group title="Fronts of this unit">
      <FieldTable
        units={system}
        say={say}
        fields={[
          own.length ? { kind: 'fact', label: 'Apart', value: [...new Set(own)].map((key) => CALLED[key] ?? key).join(', ') } : null,
          ...lookFields(look, (values) => edit('unit.put', { ...unit, look: { ...unit.look, ...values } })),
        ]}
      />
      {own.length ? (
        <Button size="small" onClick={() => edit('style.return', { ids: [unit.id] })} sx={{ mt: 0.5, color: colours.ink }}>
          As its run
        </Button>
      ) : null}
    </Group>
  );
}
