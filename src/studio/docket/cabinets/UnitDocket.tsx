'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { inMarks } from '@/core/cabinetry/line';
import { unitKinds } from '@/core/cabinetry/said';
import { canGive, mirroredAbout, replacedBy, resized, withoutUnit } from '@/core/cabinetry/widths';
import { derivedOf } from '@/core/model/model';
import type { Cabinet } from '@/core/project/schema';
import { CORNERS } from '@/core/project/schema/cabinets';
import { formatLength } from '@/core/units/length';
import { FieldTable, type Field } from '../../look/FieldTable';
import { colours } from '../../look/theme';
import { newId, useStudio } from '../../store/studio';
import { Group } from '../Group';
import { Actions, PartSwatches, useEdit } from '../parts';
import { FittingRows } from './FittingRows';
import { FrontRows } from './FrontRows';
import { LineField, useUnits } from './LineField';
import { plain, RunRows } from './RunDocket';
import { UnitStyleRows } from './StyleRows';

/** What a unit keeps to, as one word of a list and back. */
const middleWord = ({ middle }: Pick<Cabinet, 'middle'>): string => (middle === null ? '' : middle.of === 'leg' ? 'leg' : `${middle.of} ${middle.id}`);

function middleFrom(word: string): Cabinet['middle'] {
  if (!word) return null;
  if (word === 'leg') return { of: 'leg' };
  const at = word.indexOf(' ');
  return { of: word.slice(0, at) as 'unit' | 'opening', id: word.slice(at + 1) };
}

/** How a unit stands to others: what its middle keeps to, which one it is as wide as, and what can be done with its place. */
function PlaceRows({ unit }: { unit: Cabinet }) {
  const { units: system, run: edit, say } = useEdit();
  const run = useStudio((s) => s.project.runs[unit.run]);
  const openings = useStudio((s) => s.project.openings);
  const all = useUnits(unit.run);
  const marks = inMarks(all);
  const named = (u: Cabinet): string => `${marks.indexOf(u) + 1}, ${u.name}`;
  const walls = run.legs.flatMap((l) => (l.kind === 'wall' ? [l.wall] : []));
  const below = unit.band === 'wall' ? all.filter((u) => u.band !== 'wall' && !u.bare) : [];
  const alike = all.filter((u) => u.id !== unit.id && u.width !== null && !u.corner && u.like !== unit.id);
  const set = (values: Partial<Cabinet>): boolean => edit('unit.put', { ...unit, ...values });
  const lay = (units: Cabinet[] | string): void => {
    if (typeof units === 'string') say(`Nothing was changed. ${units}`);
    else edit('run.lay', { run, units });
  };
  const at = all.findIndex((u) => u.id === unit.id);
  const moved = (by: -1 | 1): void => {
    const order = all.slice();
    [order[at], order[at + by]] = [order[at + by], order[at]];
    lay(order.map((u, i) => ({ ...u, order: i })));
  };
  const derived = (): ReturnType<typeof derivedOf<'runs'>>[number] | undefined => derivedOf(useStudio.getState().model, 'runs').find((r) => r.id === run.id);
  const mirror = (from: 'left' | 'right'): void => {
    const own = derived();
    if (own) lay(mirroredAbout(own, all, unit.id, from, () => newId('unit')));
  };
  const leave = (): void => {
    const wide = derived()?.units.find((u) => u.unit.id === unit.id)?.size.width ?? 0;
    lay(withoutUnit(all, unit.id, true, wide));
  };
  const fields: Field[] = [
    unit.corner
      ? null
      : {
          kind: 'choice',
          label: 'Middle',
          aria: 'What its middle keeps to',
          value: middleWord(unit),
          options: [
            ['', 'beside the one before'],
            ['leg', 'of its wall'],
            ...below.map((u) => [`unit ${u.id}`, `of ${named(u)}`] as const),
            ...Object.values(openings)
              .filter((o) => walls.includes(o.wall))
              .map((o) => [`opening ${o.id}`, `of ${o.name}`] as const),
          ],
          set: (v) => set({ middle: middleFrom(v) }),
        },
    unit.corner || unit.width === null
      ? null
      : {
          kind: 'choice',
          label: 'As wide',
          aria: 'As wide as',
          value: unit.like ?? '',
          options: [['', 'as it is'], ...alike.map((u) => [u.id, `as ${named(u)}`] as const)],
          set(like) {
            const other = all.find((u) => u.id === like);
            return set({ like: like || null, ...(other ? { width: other.width } : {}) });
          },
        },
  ];
  return (
    <Group title="Place in its run">
      <FieldTable units={system} say={say} fields={fields} />
      <Box sx={{ display: 'flex', gap: 0.75, mt: 0.75, flexWrap: 'wrap' }}>
        <Button size="small" disabled={at <= 0} onClick={() => moved(-1)}>
          To the left
        </Button>
        <Button size="small" disabled={at < 0 || at >= all.length - 1} onClick={() => moved(1)}>
          To the right
        </Button>
        <Button size="small" onClick={() => mirror('left')}>
          Mirror its left
        </Button>
        <Button size="small" onClick={() => mirror('right')}>
          Mirror its right
        </Button>
        {unit.bare === 'space' || unit.corner ? null : (
          <Button size="small" onClick={leave}>
            Leave its place free
          </Button>
        )}
      </Box>
    </Group>
  );
}

/** A unit of a run, and the run it stands in. */
export function UnitDocket({ id }: { id: string }) {
  const unit = useStudio((s) => s.project.cabinets[id]);
  const run = useStudio((s) => s.project.runs[unit.run]);
  const all = useUnits(unit.run);
  const { units: system, run: edit, say } = useEdit();
  // Who gives way when its width is typed; the next unit has its own.
  const [room, setRoom] = useState({ of: id, who: '' });
  const who = room.of === id ? room.who : '';
  const set = (values: Partial<Cabinet>): boolean => edit('unit.put', { ...unit, ...values });
  const of = run.made[unit.band];
  const marks = inMarks(all);
  const givers = all.filter((u) => u.id !== id && canGive(u) && (u.band === 'wall') === (unit.band === 'wall'));
  const widen = (width: number | null): boolean => {
    if (width === null || !who) return set({ width });
    const derived = derivedOf(useStudio.getState().model, 'runs').find((r) => r.id === run.id);
    const next = derived && resized(run, all, derived.legs, id, width, { unit: who }, 'right', system);
    if (typeof next === 'string') {
      say(`Nothing was changed. ${next}`);
      return false;
    }
    return !!next && edit('run.lay', { run, units: next });
  };
  const kinds = unitKinds(system).filter((k) => k.band === unit.band);
  return (
    <>
      <FieldTable
        units={system}
        say={say}
        fields={[
          unit.bare || unit.corner
            ? null
            : {
                kind: 'choice',
                label: 'Kind',
                value: unit.name,
                options: [
                  ...(kinds.some((k) => k.word === unit.name) ? [] : [[unit.name, unit.name] as const]),
                  ...kinds.map((k) => [k.word, k.word] as const),
                ],
                set(word) {
                  const next = word === unit.name ? unit : replacedBy(unit, word, system);
                  if (typeof next === 'string') return say(next);
                  return edit('unit.put', next);
                },
              },
          { kind: 'length?', label: 'Width', value: unit.width, auto: 'what is left', set: widen },
          givers.length && unit.width !== null
            ? {
                kind: 'choice',
                label: 'Room from',
                aria: 'Who gives way when its width changes',
                value: who,
                options: [['', 'all that follow shift'], ...givers.map((u) => [u.id, `${marks.indexOf(u) + 1}, ${u.name}`] as const)],
                set: (v) => setRoom({ of: id, who: v }),
              }
            : null,
          { kind: 'length?', label: 'Height', value: unit.height, auto: formatLength(of.height, system), set: (height) => set({ height }) },
          { kind: 'length?', label: 'Depth', value: unit.depth, auto: formatLength(of.depth, system), set: (depth) => set({ depth }) },
          unit.corner
            ? { kind: 'choice', label: 'Corner', value: unit.corner, options: plain(CORNERS), set: (v) => set({ corner: v as Cabinet['corner'] }) }
            : null,
          unit.bare || unit.corner
            ? null
            : { kind: 'switch', label: 'Back', aria: 'It has a back', value: !unit.backless, set: (back) => set({ backless: !back }) },
          unit.bare ? null : { kind: 'number', label: 'Open, %', value: unit.open, min: 0, max: 100, scale: 100, set: (open) => set({ open }) },
        ]}
      />
      <FrontRows unit={unit} />
      <FittingRows unit={unit} />
      <PlaceRows unit={unit} />
      <UnitStyleRows unit={unit} />
      <PartSwatches id={id} />
      <Actions />
      <Box sx={{ mt: 1.25, pt: 0.5, borderTop: `1px solid ${colours.hairline}`, fontSize: 12.5, fontWeight: 550, color: colours.second }}>{run.name}</Box>
      <LineField key={run.id} run={run} />
      <RunRows run={run} />
    </>
  );
}
