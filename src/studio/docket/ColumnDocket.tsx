'use client';
import type { Column } from '@/core/project/schema';
import { STATUS_NAMES } from '../look/Choice';
import { FieldTable } from '../look/FieldTable';
import { useStudio } from '../store/studio';
import { Actions, PartSwatches, useEdit } from './parts';

/** A column: section, sizes, height, finish. */
export function ColumnDocket({ id }: { id: string }) {
  const column = useStudio((s) => s.project.columns[id]);
  const high = useStudio((s) => s.project.levels[column.level].height);
  const { units, run, say } = useEdit();
  const set = (values: Partial<Column>): boolean => run('column.put', { ...column, ...values });
  return (
    <>
      <FieldTable
        units={units}
        say={say}
        fields={[
          { kind: 'text', label: 'Name', value: column.name, set: (name) => set({ name }) },
          { kind: 'choice', label: 'Section', value: column.section, options: SECTIONS, set: (v) => set({ section: v as Column['section'] }) },
          { kind: 'length', label: 'Width', value: column.width, set: (width) => set({ width }) },
          { kind: 'length', label: 'Depth', value: column.depth, set: (depth) => set({ depth }) },
          { kind: 'length', label: 'Height', value: column.height ?? high, set: (v) => set({ height: Math.abs(v - high) < 1e-9 ? null : v }) },
          { kind: 'angle', label: 'Turned, °', aria: 'Turned, degrees', value: column.rotation, set: (rotation) => set({ rotation }) },
          { kind: 'choice', label: 'Status', value: column.status, options: STATUS_NAMES, set: (v) => set({ status: v as Column['status'] }) },
        ]}
      />
      <PartSwatches id={id} />
      <Actions />
    </>
  );
}

export const SECTIONS = [
  ['square', 'square'],
  ['round', 'round'],
] as const;
