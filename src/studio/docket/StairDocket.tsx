'use client';
import { useDeferredValue } from 'react';
import Box from '@mui/material/Box';
import type { Guard, Stair } from '@/core/project/schema';
import { headroomOf, newGuard } from '@/core/project/stairs';
import { hasHeadroom, stairHeadroom } from '@/core/model/headroom';
import { formatLength } from '@/core/units/length';
import { STATUS_NAMES } from '../look/Choice';
import { FieldTable, type Field } from '../look/FieldTable';
import { Warn } from '../look/Warn';
import { useStudio } from '../store/studio';
import { Group } from './Group';
import { Actions, PartSwatches, useEdit } from './parts';

const FORMS = [
  ['straight', 'straight flight'],
  ['quarter', 'quarter turn'],
  ['half', 'half turn'],
  ['three', 'three flights'],
  ['spiral', 'spiral'],
] as const;
const BUILDS = [
  ['closed', 'closed strings'],
  ['cut', 'cut strings'],
  ['solid', 'solid flight'],
] as const;
export const GUARDS = [
  ['none', 'none'],
  ['balusters', 'balusters'],
  ['glass', 'panes of glass'],
  ['cable', 'cables'],
  ['rail', 'handrail alone'],
] as const;

/** A choice of what guards a side. */
export const guardField = (label: string, guard: Guard | null, set: (guard: Guard | null) => boolean): Field => ({
  kind: 'choice',
  label,
  value: guard === null ? 'none' : guard.infill === 'none' ? 'rail' : guard.infill,
  options: GUARDS,
  set: (v) => set(v === 'none' ? null : { ...(guard ?? newGuard()), infill: v === 'rail' ? 'none' : (v as Guard['infill']) }),
});

/** A stair: how it goes, its steps by the rules, how it is built and guarded; what breaks a rule is said. */
export function StairDocket({ id }: { id: string }) {
  const stair = useStudio((s) => s.project.stairs[id]);
  const model = useDeferredValue(useStudio((s) => s.model));
  const derived = model.shell.levels.flatMap((l) => l.stairs).find((d) => d.id === id);
  const headroom = derived ? stairHeadroom(model, id) : null;
  const low = derived !== undefined && !hasHeadroom(model, derived);
  const { units, run, say } = useEdit();
  const set = (values: Partial<Stair>): boolean => run('stair.put', { ...stair, ...values });
  const sizes = derived?.layout.sizes;
  const length = (v: number): string => formatLength(v, units);
  const turns = stair.form === 'quarter' || stair.form === 'half' || stair.form === 'three';
  const first = derived && derived.layout.steps.findIndex((s) => s.landing);
  return (
    <>
      <FieldTable
        units={units}
        say={say}
        fields={[
          { kind: 'text', label: 'Name', value: stair.name, set: (name) => set({ name }) },
          { kind: 'choice', label: 'Form', value: stair.form, options: FORMS, set: (v) => set({ form: v as Stair['form'] }) },
          stair.form !== 'straight' && {
            kind: 'choice',
            label: 'Turns',
            value: stair.turn,
            options: [
              ['left', 'to the left'],
              ['right', 'to the right'],
            ],
            set: (v) => set({ turn: v as Stair['turn'] }),
          },
          turns && {
            kind: 'choice',
            label: 'On',
            aria: 'Turns on',
            value: stair.corners,
            options: [
              ['landing', 'a landing'],
              ['winders', 'winders'],
            ],
            set: (v) => set({ corners: v as Stair['corners'] }),
          },
          { kind: 'length', label: 'Width', value: stair.width, set: (width) => set({ width }) },
          {
            kind: 'length?',
            label: 'Climbs',
            value: stair.rise,
            auto: derived ? length(derived.layout.height) : 'to the level above',
            set: (rise) => set({ rise }),
          },
          { kind: 'number?', label: 'Risers', value: stair.risers, auto: String(sizes?.risers ?? ''), min: 2, max: 60, set: (risers) => set({ risers }) },
          { kind: 'fact', label: 'Rise', value: sizes ? length(sizes.rise) : '' },
          { kind: 'length?', label: 'Going', value: stair.going, auto: sizes ? length(sizes.going) : '', set: (going) => set({ going }) },
          { kind: 'fact', label: 'Pitch', value: sizes ? `${Math.round((sizes.pitch * 180) / Math.PI)}°` : '' },
          {
            kind: 'fact',
            label: 'Headroom',
            value: headroom === null ? 'open above' : `${length(headroom)} of ${length(headroomOf(stair))}`,
          },
          { kind: 'choice', label: 'Status', value: stair.status, options: STATUS_NAMES, set: (v) => set({ status: v as Stair['status'] }) },
        ]}
      />
      {sizes?.breaches.length || low ? (
        <Box role="note" aria-label="Rules" sx={{ fontSize: 12, mt: 1 }}>
          {sizes?.breaches.map((b) => (
            <Box key={b.rule} sx={{ mb: 0.5 }}>
              <Warn /> {b.text}
            </Box>
          ))}
          {low ? (
            <Box>
              <Warn /> Over its steps {length(headroom!)} are left, less than {length(headroomOf(stair))}.
            </Box>
          ) : null}
        </Box>
      ) : null}
      <PartSwatches id={id} />
      <Group title="Where it goes">
        <FieldTable
          units={units}
          say={say}
          fields={[
            { kind: 'length', label: 'Foot at', value: stair.z, set: (z) => set({ z }) },
            turns && {
              kind: 'number?',
              label: 'First flight',
              value: stair.first,
              auto: first !== undefined && first >= 0 ? String(first) : 'shared out',
              min: 1,
              max: 58,
              set: (v) => set({ first: v }),
            },
            stair.form === 'three' && {
              kind: 'number?',
              label: 'Second flight',
              value: stair.second,
              auto: 'shared out',
              min: 1,
              max: 58,
              set: (v) => set({ second: v }),
            },
            stair.form !== 'spiral' && { kind: 'length?', label: 'Room for it', value: stair.space, auto: 'as needed', set: (space) => set({ space }) },
            stair.form === 'half' && { kind: 'length', label: 'Well', value: stair.well, set: (well) => set({ well }) },
            stair.form === 'spiral' && { kind: 'length', label: 'Column, radius', value: stair.column, set: (column) => set({ column }) },
            {
              kind: 'choice',
              label: 'Void above',
              value: stair.void,
              options: [
                ['least', 'for headroom'],
                ['whole', 'over all of it'],
                ['none', 'none'],
              ],
              set: (v) => set({ void: v as Stair['void'] }),
            },
            { kind: 'angle', label: 'Turned, °', aria: 'Turned, degrees', value: stair.rotation, set: (rotation) => set({ rotation }) },
            {
              kind: 'choice',
              label: 'Rules',
              value: stair.profile,
              options: [
                ['A', 'profile A'],
                ['B', 'profile B'],
              ],
              set: (v) => set({ profile: v as Stair['profile'] }),
            },
          ]}
        />
      </Group>
      <Group title="How it is built">
        <FieldTable
          units={units}
          say={say}
          fields={[
            { kind: 'choice', label: 'Build', value: stair.build, options: BUILDS, set: (v) => set({ build: v as Stair['build'] }) },
            { kind: 'switch', label: 'Open risers', value: stair.open, set: (open) => set({ open }) },
            { kind: 'length', label: 'Nosing', value: stair.nosing, set: (nosing) => set({ nosing }) },
            { kind: 'length', label: 'Tread', aria: 'Thickness of the treads', value: stair.tread, set: (tread) => set({ tread }) },
          ]}
        />
      </Group>
      <Group title="Guards">
        <FieldTable
          units={units}
          say={say}
          fields={[
            guardField('Left side', stair.left, (left) => set({ left })),
            guardField('Right side', stair.right, (right) => set({ right })),
            guardField('Round the void', stair.above, (above) => set({ above })),
          ]}
        />
      </Group>
      <Actions />
    </>
  );
}
