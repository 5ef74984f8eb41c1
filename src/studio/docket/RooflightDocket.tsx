'use client';
import type { Rooflight } from '@/core/project/schema';
import { STATUS_NAMES } from '../look/Choice';
import { FieldTable } from '../look/FieldTable';
import { useStudio } from '../store/studio';
import { Actions, GridRow, PartSwatches, useEdit } from './parts';

const FORMS = [
  ['fixed', 'fixed pane'],
  ['hinged', 'hinged sash'],
  ['dome', 'dome'],
] as const;

/** A rooflight: form, clear opening, depth of its shaft, panes, how far it stands open. */
export function RooflightDocket({ id }: { id: string }) {
  const rooflight = useStudio((s) => s.project.rooflights[id]);
  const { units, run, say } = useEdit();
  const set = (values: Partial<Rooflight>): boolean => run('rooflight.put', { ...rooflight, ...values });
  const { form } = rooflight;
  return (
    <>
      <FieldTable
        units={units}
        say={say}
        fields={[
          { kind: 'text', label: 'Name', value: rooflight.name, set: (name) => set({ name }) },
          {
            kind: 'choice',
            label: 'Form',
            value: form,
            options: FORMS,
            set: (v) => set({ form: v as Rooflight['form'], open: v === 'hinged' ? rooflight.open : 0 }),
          },
          { kind: 'length', label: 'Width', value: rooflight.width, set: (width) => set({ width }) },
          { kind: 'length', label: 'Length', value: rooflight.length, set: (length) => set({ length }) },
          { kind: 'length', label: 'Shaft', value: rooflight.kerb, set: (kerb) => set({ kerb }) },
          { kind: 'length', label: 'Frame', value: rooflight.frame, set: (frame) => set({ frame }) },
          form === 'hinged' && {
            kind: 'number',
            label: 'Open, %',
            value: rooflight.open,
            scale: 100,
            min: 0,
            max: 100,
            set: (open) => set({ open }),
          },
          { kind: 'angle', label: 'Turned, °', aria: 'Turned, degrees', value: rooflight.rotation, set: (rotation) => set({ rotation }) },
          { kind: 'choice', label: 'Status', value: rooflight.status, options: STATUS_NAMES, set: (v) => set({ status: v as Rooflight['status'] }) },
        ]}
      />
      {form === 'dome' ? null : <GridRow label="Panes" value={rooflight.panes} onSet={(panes) => set({ panes })} />}
      <PartSwatches id={id} />
      <Actions />
    </>
  );
}
