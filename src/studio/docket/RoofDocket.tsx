'use client';
import Button from '@mui/material/Button';
import type { Vec2 } from '@/core/geometry/vec';
import { roofEdgeNames } from '@/core/project/roof-edge-names';
import { endBelowBreak, edgeOf, isDrawn } from '@/core/project/roofs';
import type { Framing, Roof, RoofEdge } from '@/core/project/schema';
import { FRAMING } from '@/core/shell/framing';
import { formatArea, formatLength } from '@/core/units/length';
import { STATUS_NAMES } from '../look/Choice';
import { FieldTable, type Field } from '../look/FieldTable';
import { colours } from '../look/theme';
import { useStudio } from '../store/studio';
import { Group } from './Group';
import { Actions, PartSwatches, useEdit } from './parts';

const degrees = { min: 2, max: 85 };

/** Shows in the drawing which edge is meant. */
const lightUp = (edge: { a: Vec2; b: Vec2 } | null): void =>
  useStudio.setState({ marks: edge ? [{ kind: 'line', points: [edge.a, edge.b], closed: false, ink: 'measure', pen: 0.7, layer: 'roof' }] : [] });

/** A roof: what it covers, its planes edge by edge, its build-up, its timbers, what it is of. */
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
  const { over, framing } = roof;
  const drawn = isDrawn(roof);
  const pitched = roof.form === 'pitched' && !drawn;
  const frame = (values: Partial<Framing>): boolean => set({ framing: { ...(framing ?? FRAMING), ...values } });
  const section = (name: string, key: 'ridge' | 'purlin' | 'tie'): Field[] =>
    framing && (key !== 'purlin' || framing.purlins > 0) && (key !== 'tie' || framing.ties !== 'none')
      ? (['width', 'depth'] as const).map((side) => ({
          kind: 'length',
          label: `${name}, ${side === 'width' ? 'wide' : 'deep'}`,
          value: framing[key][side],
          set: (v) => frame({ [key]: { ...framing[key], [side]: v } }),
        }))
      : [];
  const covers =
    over.kind === 'level'
      ? (project.levels[roof.level]?.name ?? 'level')
      : over.kind === 'rooms'
        ? over.rooms.map((r) => project.rooms[r]?.name ?? '').join(', ')
        : over.kind === 'swept'
          ? 'swept along its path'
          : over.kind === 'plane'
            ? 'one plane'
            : 'its own outline';
  const ended = new Set(derived ? endBelowBreak(derived.shape) : []);
  const names = roofEdgeNames(project, derived?.shape.lines ?? []);
  const edge = (key: string, name: string, i: number): Field[] => {
    const own = edgeOf(roof, key);
    const of = `${name} edge ${i + 1}`;
    return [
      {
        kind: 'choice',
        label: `To ${name}`,
        aria: `Form of the ${of}`,
        value: own.form,
        options: [
          ['slope', 'slopes'],
          ['gable', 'gable'],
          ['half-hip', 'half hip'],
        ],
        set: (form) => setEdge(key, { form: form as RoofEdge['form'] }),
      },
      own.form !== 'gable' && {
        kind: 'angle',
        label: 'Pitch, °',
        aria: `Pitch of the ${of}`,
        ...degrees,
        value: own.pitch,
        set: (pitch) => setEdge(key, { pitch }),
      },
      { kind: 'length', label: 'Overhang', aria: `Overhang of the ${of}`, value: own.overhang, set: (overhang) => setEdge(key, { overhang }) },
      { kind: 'length', label: 'Raised by', aria: `Rise of the ${of}`, value: own.rise, set: (rise) => setEdge(key, { rise }) },
      own.form === 'half-hip' && { kind: 'length', label: 'Hip from', aria: `Hip of the ${of}`, value: own.hip, set: (hip) => setEdge(key, { hip }) },
      own.upper && {
        kind: 'angle',
        label: 'Above, °',
        aria: `Upper pitch of the ${of}`,
        ...degrees,
        value: own.upper.pitch,
        set: (pitch) => setEdge(key, { upper: { ...own.upper!, pitch } }),
      },
    ];
  };
  const plane = over.kind === 'plane' ? over : null;
  /** Three heights decide a plane: those of its first three corners. */
  const heights = plane && derived ? derived.shape.under[0].ring.slice(0, 3) : [];
  const setHeight = (i: number, z: number): boolean => {
    if (!plane || !derived) return false;
    const [a, b, c] = heights.map((p, k) => ({ ...p, z: k === i ? z : p.z }));
    const det = (b.x - a.x) * (c.y - a.y) - (c.x - a.x) * (b.y - a.y);
    if (Math.abs(det) < 1e-9) {
      say('The plane was not changed: its first three corners lie in one line; move one of them.');
      return false;
    }
    const gx = ((b.z - a.z) * (c.y - a.y) - (c.z - a.z) * (b.y - a.y)) / det;
    const gy = ((b.x - a.x) * (c.z - a.z) - (c.x - a.x) * (b.z - a.z)) / det;
    const first = a.z + gx * (plane.points[0].x - a.x) + gy * (plane.points[0].y - a.y);
    return set({
      over: { ...plane, direction: Math.atan2(gy, gx), pitch: Math.atan(Math.hypot(gx, gy)), z: first - project.levels[roof.level].height },
    });
  };
  const count = (kind: string): string => {
    const list = derived?.framing?.members.filter((m) => m.kind === kind) ?? [];
    return `${list.length}, ${formatLength(
      list.reduce((sum, m) => sum + m.length, 0),
      units,
    )}`;
  };
  return (
    <>
      <FieldTable
        units={units}
        say={say}
        fields={[
          { kind: 'text', label: 'Name', value: roof.name, set: (name) => set({ name }) },
          { kind: 'fact', label: 'Covers', value: covers },
          pitched && { kind: 'angle', label: 'Pitch, °', aria: 'Pitch, degrees', ...degrees, value: roof.all.pitch, set: (pitch) => setAll({ pitch }) },
          !drawn && { kind: 'length', label: 'Overhang', value: roof.all.overhang, set: (overhang) => setAll({ overhang }) },
          !drawn && { kind: 'length', label: 'Raised by', value: roof.all.rise, set: (rise) => setAll({ rise }) },
          plane && {
            kind: 'angle',
            label: 'Pitch, °',
            aria: 'Pitch, degrees',
            min: 0,
            max: 85,
            value: plane.pitch,
            set: (pitch) => set({ over: { ...plane, pitch } }),
          },
          plane && {
            kind: 'angle',
            label: 'Uphill to, °',
            aria: 'Uphill to, degrees',
            value: plane.direction,
            set: (direction) => set({ over: { ...plane, direction } }),
          },
          ...heights.map((p, i): Field => ({ kind: 'length', label: `Corner ${i + 1} at`, value: p.z, set: (z) => setHeight(i, z) })),
          over.kind === 'swept' && {
            kind: 'length',
            label: 'Raised by',
            value: Math.min(...over.section.map((p) => p.z)),
            set: (z) => {
              const by = z - Math.min(...over.section.map((p) => p.z));
              return set({ over: { ...over, section: over.section.map((p) => ({ ...p, z: p.z + by })) } });
            },
          },
          over.kind === 'swept' && {
            kind: 'length',
            label: 'Span',
            value: over.section[over.section.length - 1].x - over.section[0].x,
            set: (span) => {
              const k = span / (over.section[over.section.length - 1].x - over.section[0].x);
              return set({ over: { ...over, section: over.section.map((p) => ({ ...p, x: p.x * k })) } });
            },
          },
          ...(over.kind === 'swept' && over.section.length <= 7
            ? over.section.flatMap((p, i): Field[] => [
                {
                  kind: 'length',
                  label: `Point ${i + 1} at`,
                  value: p.z,
                  set: (z) => set({ over: { ...over, section: over.section.map((q, k) => (k === i ? { ...q, z } : q)) } }),
                },
              ])
            : []),
          derived ? { kind: 'fact', label: 'Sloping area', value: formatArea(derived.area, units) } : null,
          derived ? { kind: 'fact', label: 'Top', value: `${formatLength(derived.shape.top, units)} above the floor` } : null,
        ]}
      />
      <FieldTable
        units={units}
        say={say}
        fields={[
          {
            kind: 'choice',
            label: 'Status',
            value: roof.status,
            options: STATUS_NAMES,
            set: (status) => run('status.set', { ids: [id], status: status as Roof['status'] }),
          },
        ]}
      />
      <PartSwatches id={id} />
      {pitched && derived ? (
        <Group title="Edge by edge">
          {derived.shape.lines.map((line, i) => (
            <div
              key={`${line.key} ${i}`}
              style={{ borderTop: `1px solid ${colours.hairline}`, paddingTop: 2 }}
              data-testid={`roof-edge-${i}`}
              onPointerEnter={() => lightUp(line)}
              onPointerLeave={() => lightUp(null)}
              onFocus={() => lightUp(line)}
              onBlur={() => lightUp(null)}
            >
              <FieldTable units={units} say={say} fields={edge(line.key, names[i], i)} />
              {ended.has(i) ? (
                <div role="note" style={{ fontSize: 11.5, color: colours.third, paddingBottom: 4 }}>
                  It has come to an end below its break; above that its neighbours go on.
                </div>
              ) : null}
            </div>
          ))}
        </Group>
      ) : null}
      <Group title="Build-up and timbers">
        <FieldTable
          units={units}
          say={say}
          fields={[
            { kind: 'length', label: 'Build-up', aria: 'Thickness of the build-up', value: roof.thickness, set: (thickness) => set({ thickness }) },
            pitched && { kind: 'switch', label: 'Gutters', value: roof.gutter, set: (gutter) => set({ gutter }) },
            roof.form === 'flat' && { kind: 'length', label: 'Parapet', value: roof.parapet, set: (parapet) => set({ parapet }) },
            roof.form === 'pitched' && {
              kind: 'switch',
              label: 'Framing',
              value: Boolean(framing?.shown),
              set: (shown) => (shown || framing ? frame({ shown }) : true),
            },
            ...(framing
              ? ([
                  { kind: 'length', label: 'Spacing', aria: 'Spacing of the rafters', value: framing.spacing, set: (spacing) => frame({ spacing }) },
                  { kind: 'length', label: 'Rafter, wide', value: framing.rafter.width, set: (width) => frame({ rafter: { ...framing.rafter, width } }) },
                  { kind: 'length', label: 'Rafter, deep', value: framing.rafter.depth, set: (depth) => frame({ rafter: { ...framing.rafter, depth } }) },
                  {
                    kind: 'number',
                    label: 'Purlins',
                    aria: 'Purlins on each slope',
                    min: 0,
                    max: 4,
                    value: framing.purlins,
                    set: (v) => frame({ purlins: Math.round(v) }),
                  },
                  {
                    kind: 'choice',
                    label: 'Ties',
                    value: framing.ties,
                    options: [
                      ['none', 'none'],
                      ['tie', 'tie beams'],
                      ['truss', 'trusses'],
                    ],
                    set: (v) => frame({ ties: v as Framing['ties'] }),
                  },
                  {
                    kind: 'number',
                    label: 'Every',
                    aria: 'A tie every so many rafters',
                    min: 1,
                    max: 20,
                    value: framing.every,
                    set: (v) => frame({ every: Math.round(v) }),
                  },
                  ...section('Ridge', 'ridge'),
                  ...section('Purlin', 'purlin'),
                  ...section('Tie', 'tie'),
                  { kind: 'fact', label: 'Rafters', value: count('rafter') },
                ] satisfies Field[])
              : []),
          ]}
        />
      </Group>
      <Actions>
        {!drawn && over.kind !== 'outline' ? (
          <Button size="small" onClick={() => setAll({ rise: roof.all.rise + 0.1 })}>
            Raise by {formatLength(0.1, units)}
          </Button>
        ) : null}
      </Actions>
    </>
  );
}
