'use client';
import { useDeferredValue } from 'react';
import Box from '@mui/material/Box';
import { PROFILES } from '@/core/finishes/profiles';
import type { Panels, Patch } from '@/core/project/schema';
import { addressOf } from '@/core/project/targets';
import { faceS, faceX } from '@/core/shell/wall-face';
import { Actions, Swatches, useEdit } from '../docket/parts';
import { FieldTable, type Field } from '../look/FieldTable';
import { useStudio } from '../store/studio';
import { CARRIED } from './finishing';
import { LayingRows } from './LayingRows';

const FIRST_PANELS: Panels = { across: null, up: 1, width: 0.5, margin: 0.1, gap: 0.09, profile: 'panel-ogee', moulding: null, field: null };

/** A patch: where it lies and how large it is, its panels, its finishes. */
export function PatchDocket({ id }: { id: string }) {
  const project = useStudio((s) => s.project);
  const model = useDeferredValue(useStudio((s) => s.model));
  const { units, run, say } = useEdit();
  const patch = project.patches[id];
  const set = (values: Partial<Patch>): boolean => run('patch.put', { patches: [{ ...patch, ...values }] });
  const { shape } = patch;
  const side = model.shell.levels.flatMap((l) => l.faces).find((f) => f.patches.some((p) => p.patch.id === id))?.side ?? null;
  /** Along the wall it is seen on, or round all of them with its joints carried on. */
  const runsAs = (kind: string): boolean => {
    const { room } = patch.on;
    if (kind !== 'walls') return side ? set({ on: { kind: 'wall', room, wall: side.wall, side: side.side } }) : false;
    const address = addressOf({ kind: 'patch', patch: id, part: 'field' });
    return (
      room !== null &&
      run('patch.put', { patches: [{ ...patch, on: { kind: 'walls', room } }], layings: project.layings[address] ? {} : { [address]: CARRIED } })
    );
  };
  const left = shape.kind === 'rectangle' && side ? Math.min(faceX(side, shape.at - shape.width / 2), faceX(side, shape.at + shape.width / 2)) : 0;
  const rails = Object.values(project.profiles).concat(PROFILES.filter((p) => p.use === 'panel' || p.use === 'rail'));
  const panels = patch.panels;
  const setPanels = (values: Partial<Panels>): boolean => set({ panels: { ...panels!, ...values } });
  const fields: Field[] = [
    { kind: 'text', label: 'Name', aria: 'Patch name', value: patch.name, set: (name) => set({ name }) },
    ...(shape.kind === 'rectangle' && side
      ? ([
          { kind: 'length', label: 'From left', value: left, set: (x) => set({ shape: { ...shape, at: faceS(side, x + shape.width / 2) } }) },
          { kind: 'length', label: 'From floor', value: shape.base, set: (base) => set({ shape: { ...shape, base } }) },
          {
            kind: 'length',
            label: 'Width',
            value: shape.width,
            // Its left edge stays.
            set: (width) => set({ shape: { ...shape, width, at: faceS(side, left + width / 2) } }),
          },
          { kind: 'length', label: 'Height', value: shape.height, set: (height) => set({ shape: { ...shape, height } }) },
        ] as Field[])
      : []),
    ...(shape.kind === 'band'
      ? ([
          { kind: 'length', label: 'From', aria: 'Lower edge', value: shape.from, set: (from) => set({ shape: { ...shape, from } }) },
          { kind: 'length', label: 'To', aria: 'Upper edge', value: shape.to, set: (to) => set({ shape: { ...shape, to } }) },
          patch.on.room && {
            kind: 'choice',
            label: 'Runs',
            value: patch.on.kind,
            options: [
              ['wall', 'along this wall'],
              ['walls', 'all round the room'],
            ],
            set: (v) => v !== patch.on.kind && runsAs(v),
          },
        ] as Field[])
      : []),
    { kind: 'number', label: 'Stacked, highest on top', aria: 'Order among patches', value: patch.order, min: -100, max: 100, set: (order) => set({ order }) },
    { kind: 'switch', label: 'Panelled', value: panels !== null, set: (on) => set({ panels: on ? FIRST_PANELS : null }) },
    ...(panels
      ? ([
          { kind: 'number?', label: 'Across', value: panels.across, auto: 'by width', min: 1, max: 60, set: (across) => setPanels({ across }) },
          panels.across === null
            ? { kind: 'length', label: 'At least', aria: 'Least width of a panel', value: panels.width, set: (width) => setPanels({ width }) }
            : null,
          { kind: 'number', label: 'Up', value: panels.up, min: 1, max: 12, set: (up) => setPanels({ up: Math.round(up) }) },
          { kind: 'length', label: 'Margin', value: panels.margin, set: (margin) => setPanels({ margin }) },
          { kind: 'length', label: 'Between', aria: 'Between panels', value: panels.gap, set: (gap) => setPanels({ gap }) },
          {
            kind: 'choice',
            label: 'Moulding',
            value: panels.profile,
            options: rails.map((p) => [p.id, p.name] as const),
            set: (profile) => setPanels({ profile }),
          },
        ] as Field[])
      : []),
  ];
  return (
    <>
      <FieldTable fields={fields} units={units} say={say} />
      <Swatches
        items={[
          { label: 'patch', finish: patch.finish, target: { kind: 'patch', patch: id, part: 'field' } },
          ...(panels
            ? [
                { label: 'panels', finish: panels.field ?? patch.finish, target: { kind: 'patch' as const, patch: id, part: 'panels' as const } },
                { label: 'moulding', finish: panels.moulding ?? patch.finish, target: { kind: 'patch' as const, patch: id, part: 'moulding' as const } },
              ]
            : []),
        ]}
      />
      <LayingRows target={{ kind: 'patch', patch: id, part: 'field' }} />
      <Box sx={{ height: 4 }} />
      <Actions />
    </>
  );
}
