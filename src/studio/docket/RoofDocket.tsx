'use client';
import Switch from '@mui/material/Switch';
import { edgeOf } from '@/core/project/roofs';
import type { Roof, RoofEdge } from '@/core/project/schema';
import { ROOF_FINISHES } from '@/core/shell/surfaces';
import { formatArea, formatLength } from '@/core/units/length';
import { Choice, STATUS_NAMES } from '../look/Choice';
import { LengthField, NumberField, Row, TextField } from '../look/fields';
import { colours } from '../look/theme';
import { pointName, useStudio } from '../store/studio';
import { Actions, Swatches, useEdit } from './parts';

const DEGREES = 180 / Math.PI;

/** A roof: what it covers, its planes edge by edge, its build-up, what it is of. */
export function RoofDocket({ id }: { id: string }) {
  const project = useStudio((s) => s.project);
  const derived = useStudio((s) => s.model.shell.levels.flatMap((l) => l.roofs).find((r) => r.id === id));
  const { units, run, say } = useEdit();
  const roof = project.roofs[id];
  const set = (values: Partial<Roof>): boolean => run('roof.put', { roof: { ...roof, ...values } });
  /** Changes every edge at once, also those that are told otherwise. */
  const setAll = (values: Partial<RoofEdge>): boolean =>
    set({ all: { ...roof.all, ...values }, edges: Object.fromEntries(Object.entries(roof.edges).map(([key, edge]) => [key, { ...edge, ...values }])) });
  const setEdge = (key: string, values: Partial<RoofEdge>): boolean => set({ edges: { ...roof.edges, [key]: { ...edgeOf(roof, key), ...values } } });
  const pitched = roof.form === 'pitched';
  const length = (label: string, key: 'overhang' | 'rise', value: number) => (
    <Row label={label}>
      <LengthField label={label} metres={value} units={units} onRefuse={say} onCommit={(v) => setAll({ [key]: v })} />
    </Row>
  );
  return (
    <>
      <Row label="Name">
        <TextField label="Name" value={roof.name} onCommit={(name) => set({ name })} />
      </Row>
      <Row label="Covers">
        {roof.over.kind === 'level'
          ? (project.levels[roof.level]?.name ?? 'level')
          : roof.over.kind === 'rooms'
            ? roof.over.rooms.map((r) => project.rooms[r]?.name ?? '').join(', ')
            : 'its own outline'}
      </Row>
      {pitched ? (
        <Row label="Pitch, °">
          <NumberField
            label="Pitch, degrees"
            value={roof.all.pitch * DEGREES}
            min={2}
            max={85}
            onRefuse={say}
            onCommit={(v) => setAll({ pitch: v / DEGREES })}
          />
        </Row>
      ) : null}
      {length('Overhang', 'overhang', roof.all.overhang)}
      {length('Raised by', 'rise', roof.all.rise)}
      <Row label="Build-up">
        <LengthField label="Thickness of the build-up" metres={roof.thickness} units={units} onRefuse={say} onCommit={(thickness) => set({ thickness })} />
      </Row>
      {pitched ? (
        <Row label="Gutters">
          <Switch
            size="small"
            checked={roof.gutter}
            slotProps={{ input: { 'aria-label': 'Gutters' } }}
            onChange={(e) => void set({ gutter: e.target.checked })}
          />
        </Row>
      ) : (
        <Row label="Parapet">
          <LengthField label="Parapet" metres={roof.parapet} units={units} onRefuse={say} onCommit={(parapet) => set({ parapet })} />
        </Row>
      )}
      {derived ? (
        <>
          <Row label="Sloping area">{formatArea(derived.area, units)}</Row>
          <Row label="Top">{formatLength(derived.shape.top, units)} above the floor</Row>
        </>
      ) : null}
      {pitched && derived
        ? derived.shape.lines.map((line, i) => {
            const edge = edgeOf(roof, line.key);
            const name = pointName(project, Math.atan2(line.b.y - line.a.y, line.b.x - line.a.x) - Math.PI / 2);
            const of = `${name} edge ${i + 1}`;
            return (
              <div key={`${line.key} ${i}`} style={{ borderTop: `1px solid ${colours.hairline}`, paddingTop: 2 }}>
                <Row label={`To ${name}`}>
                  <Choice
                    bare
                    label={`Form of the ${of}`}
                    value={edge.form}
                    options={[
                      ['slope', 'slopes'],
                      ['gable', 'gable'],
                      ['half-hip', 'half hip'],
                    ]}
                    onChoose={(form) => void setEdge(line.key, { form })}
                  />
                </Row>
                {edge.form === 'gable' ? null : (
                  <Row label="Pitch, °">
                    <NumberField
                      label={`Pitch of the ${of}`}
                      value={edge.pitch * DEGREES}
                      min={2}
                      max={85}
                      onRefuse={say}
                      onCommit={(v) => setEdge(line.key, { pitch: v / DEGREES })}
                    />
                  </Row>
                )}
                {edge.form === 'half-hip' ? (
                  <Row label="Hip from">
                    <LengthField label={`Hip of the ${of}`} metres={edge.hip} units={units} onRefuse={say} onCommit={(hip) => setEdge(line.key, { hip })} />
                  </Row>
                ) : null}
                {edge.upper ? (
                  <Row label="Above, °">
                    <NumberField
                      label={`Upper pitch of the ${of}`}
                      value={edge.upper.pitch * DEGREES}
                      min={2}
                      max={85}
                      onRefuse={say}
                      onCommit={(v) => setEdge(line.key, { upper: { ...edge.upper!, pitch: v / DEGREES } })}
                    />
                  </Row>
                ) : null}
              </div>
            );
          })
        : null}
      <Row label="Status">
        <Choice bare label="Status" value={roof.status} options={STATUS_NAMES} onChoose={(status) => void run('status.set', { ids: [id], status })} />
      </Row>
      <Swatches
        items={(['covering', 'soffit', 'fascia'] as const).map((part) => ({
          label: part,
          finish: roof[part] ?? ROOF_FINISHES[part],
          target: { kind: 'roof', roof: id, part },
        }))}
      />
      <Actions />
    </>
  );
}
