'use client';
import { roofEdgeNames } from '@/core/project/roof-edge-names';
import { roofShape } from '@/core/project/roofs';
import { DORMER_FORMS, type Dormer } from '@/core/project/schema';
import { slopeFrame } from '@/core/project/dormers';
import { STATUS_NAMES } from '../look/Choice';
import { FieldTable } from '../look/FieldTable';
import { useStudio } from '../store/studio';
import { Actions, GridRow, PartSwatches, useEdit } from './parts';

const FORM_NAMES: Record<Dormer['form'], string> = { gable: 'gable', hip: 'hipped', shed: 'single slope', flat: 'flat' };

/** A dormer: where it stands on its roof, its form, its window. */
export function DormerDocket({ id }: { id: string }) {
  const dormer = useStudio((s) => s.project.dormers[id]);
  const shown = useStudio((s) => s.model.shell.project);
  const { units, run, say } = useEdit();
  const set = (values: Partial<Dormer>): boolean => run('dormer.put', { ...dormer, ...values });
  const roof = shown.roofs[dormer.roof] && roofShape(shown, shown.roofs[dormer.roof]);
  const names = roofEdgeNames(shown, roof?.lines ?? []);
  const slopes = (roof?.lines ?? []).flatMap((line, i) => (roof && slopeFrame(roof, i) ? [[line.key, `to ${names[i]}`] as const] : []));
  return (
    <>
      <FieldTable
        units={units}
        say={say}
        fields={[
          { kind: 'text', label: 'Name', value: dormer.name, set: (name) => set({ name }) },
          {
            kind: 'choice',
            label: 'Form',
            value: dormer.form,
            options: DORMER_FORMS.map((f) => [f, FORM_NAMES[f]] as const),
            set: (v) => set({ form: v as Dormer['form'], ...(v === 'shed' ? { pitch: Math.min(dormer.pitch, 0.2) } : {}) }),
          },
          { kind: 'choice', label: 'Slope', value: dormer.edge, options: slopes, set: (edge) => set({ edge }) },
          { kind: 'length', label: 'Along', aria: 'Along the eave', value: dormer.at, set: (at) => set({ at }) },
          { kind: 'length', label: 'Set back', value: dormer.setback, set: (setback) => set({ setback }) },
          { kind: 'length', label: 'Width', value: dormer.width, set: (width) => set({ width }) },
          { kind: 'length', label: 'Front, high', value: dormer.height, set: (height) => set({ height }) },
          dormer.form !== 'flat' && {
            kind: 'angle',
            label: 'Pitch, °',
            aria: 'Pitch, degrees',
            min: 0,
            max: 80,
            value: dormer.pitch,
            set: (pitch) => set({ pitch }),
          },
          { kind: 'length', label: 'Overhang', value: dormer.overhang, set: (overhang) => set({ overhang }) },
          { kind: 'length', label: 'Walls', aria: 'Thickness of its walls', value: dormer.cheek, set: (cheek) => set({ cheek }) },
          { kind: 'choice', label: 'Status', value: dormer.status, options: STATUS_NAMES, set: (v) => set({ status: v as Dormer['status'] }) },
        ]}
      />
      <GridRow label="Panes" value={dormer.panes} onSet={(panes) => set({ panes })} />
      <PartSwatches id={id} />
      <Actions />
    </>
  );
}
