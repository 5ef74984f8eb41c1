'use client';
import type { Column } from '@/core/project/schema';
import { BARE } from '@/core/shell/surfaces';
import { Choice, STATUS_NAMES } from '../look/Choice';
import { LengthField, NumberField, Row, TextField } from '../look/fields';
import { useStudio } from '../store/studio';
import { Actions, Swatches, useEdit } from './parts';

/** A column: section, sizes, height, finish. */
export function ColumnDocket({ id }: { id: string }) {
  const column = useStudio((s) => s.project.columns[id]);
  const high = useStudio((s) => s.project.levels[column.level].height);
  const { units, run, say } = useEdit();
  const set = (values: Partial<Column>): boolean => run('column.put', { ...column, ...values });
  return (
    <>
      <Row label="Name">
        <TextField label="Name" value={column.name} onCommit={(name) => set({ name })} />
      </Row>
      <Row label="Section">
        <Choice
          bare
          label="Section"
          value={column.section}
          options={[
            ['square', 'square'],
            ['round', 'round'],
          ]}
          onChoose={(section) => void set({ section })}
        />
      </Row>
      {(['width', 'depth'] as const).map((key) => (
        <Row key={key} label={key === 'width' ? 'Width' : 'Depth'}>
          <LengthField label={key === 'width' ? 'Width' : 'Depth'} metres={column[key]} units={units} onRefuse={say} onCommit={(v) => set({ [key]: v })} />
        </Row>
      ))}
      <Row label="Height">
        <LengthField
          label="Height"
          metres={column.height ?? high}
          units={units}
          onRefuse={say}
          onCommit={(v) => set({ height: Math.abs(v - high) < 1e-9 ? null : v })}
        />
      </Row>
      <Row label="Turned, °">
        <NumberField
          label="Turned, degrees"
          value={(column.rotation * 180) / Math.PI}
          min={-360}
          max={360}
          onRefuse={say}
          onCommit={(v) => set({ rotation: (v * Math.PI) / 180 })}
        />
      </Row>
      <Row label="Status">
        <Choice bare label="Status" value={column.status} options={STATUS_NAMES} onChoose={(status) => void set({ status })} />
      </Row>
      <Swatches items={[{ label: 'face', finish: column.finish ?? BARE.wall, target: { kind: 'column', column: id } }]} />
      <Actions />
    </>
  );
}
