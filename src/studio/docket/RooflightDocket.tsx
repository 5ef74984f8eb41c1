'use client';
import type { Rooflight } from '@/core/project/schema';
import { OPENING_FINISHES } from '@/core/shell/openings/sizes';
import { Choice, STATUS_NAMES } from '../look/Choice';
import { LengthField, NumberField, Row, TextField } from '../look/fields';
import { useStudio } from '../store/studio';
import { Actions, GridRow, Swatches, useEdit } from './parts';

/** A rooflight: form, clear opening, depth of its shaft, panes, how far it stands open. */
export function RooflightDocket({ id }: { id: string }) {
  const rooflight = useStudio((s) => s.project.rooflights[id]);
  const { units, run, say } = useEdit();
  const set = (values: Partial<Rooflight>): boolean => run('rooflight.put', { ...rooflight, ...values });
  const length = (label: string, key: 'width' | 'length' | 'kerb' | 'frame') => (
    <Row label={label}>
      <LengthField label={label} metres={rooflight[key]} units={units} onRefuse={say} onCommit={(v) => set({ [key]: v })} />
    </Row>
  );
  return (
    <>
      <Row label="Name">
        <TextField label="Name" value={rooflight.name} onCommit={(name) => set({ name })} />
      </Row>
      <Row label="Form">
        <Choice
          bare
          label="Form"
          value={rooflight.form}
          options={[
            ['fixed', 'fixed pane'],
            ['hinged', 'hinged sash'],
            ['dome', 'dome'],
          ]}
          onChoose={(form) => void set({ form, open: form === 'hinged' ? rooflight.open : 0 })}
        />
      </Row>
      {length('Width', 'width')}
      {length('Length', 'length')}
      {length('Shaft', 'kerb')}
      {length('Frame', 'frame')}
      {rooflight.form === 'dome' ? null : <GridRow label="Panes" value={rooflight.panes} onSet={(panes) => set({ panes })} />}
      {rooflight.form === 'hinged' ? (
        <Row label="Open, %">
          <NumberField label="Open, %" value={rooflight.open * 100} min={0} max={100} onRefuse={say} onCommit={(v) => set({ open: v / 100 })} />
        </Row>
      ) : null}
      <Row label="Turned, °">
        <NumberField
          label="Turned, degrees"
          value={(rooflight.rotation * 180) / Math.PI}
          min={-360}
          max={360}
          onRefuse={say}
          onCommit={(v) => set({ rotation: (v * Math.PI) / 180 })}
        />
      </Row>
      <Row label="Status">
        <Choice bare label="Status" value={rooflight.status} options={STATUS_NAMES} onChoose={(status) => void set({ status })} />
      </Row>
      <Swatches
        items={(['frame', 'glass'] as const).map((part) => ({
          label: part,
          finish: rooflight.finishes[part] ?? OPENING_FINISHES[part],
          target: { kind: 'opening', opening: id, part },
        }))}
      />
      <Actions />
    </>
  );
}
