'use client';
import { derivedOf } from '@/core/model/model';
import { useMemo } from 'react';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { FENCE_NAMES, GROUND_NAMES, SLAB_NAMES } from '@/core/project/built-defaults';
import { cutting, orderPast } from '@/core/project/ground-order';
import { cornersOf, withCorners } from '@/core/project/putting';
import type { Beam, Fence, GroundArea, Slab, Void } from '@/core/project/schema';
import { formatArea, formatLength } from '@/core/units/length';
import { STATUS_NAMES } from '../look/Choice';
import { FieldTable, type Field } from '../look/FieldTable';
import { colours } from '../look/theme';
import { useStudio } from '../store/studio';
import { SECTIONS } from './ColumnDocket';
import { guardField } from './StairDocket';
import { Actions, PartSwatches, useEdit } from './parts';

const status = (value: string, set: (v: never) => boolean): Field => ({
  kind: 'choice',
  label: 'Status',
  value,
  options: STATUS_NAMES,
  set: (v) => set(v as never),
});

/** The corners of an outline, to be typed. */
function Corners({ id }: { id: string }) {
  const project = useStudio((s) => s.project);
  const { units, run, say } = useEdit();
  const points = cornersOf(project, id) ?? [];
  const set =
    (i: number, axis: 'x' | 'y') =>
    (v: number): boolean => {
      const put = withCorners(
        project,
        id,
        points.map((p, k) => (k === i ? { x: p.x, y: p.y, [axis]: v } : { x: p.x, y: p.y })),
      );
      return put ? run(put.command, put.args as never) : false;
    };
  return (
    <Box component="details" sx={{ fontSize: 12.5, mt: 0.5, color: colours.second }}>
      <summary>Its {points.length} corners</summary>
      <FieldTable
        units={units}
        say={say}
        fields={points.flatMap((p, i): Field[] => [
          { kind: 'length', label: `${i + 1}, across`, value: p.x, set: set(i, 'x') },
          { kind: 'length', label: `${i + 1}, up`, value: p.y, set: set(i, 'y') },
        ])}
      />
    </Box>
  );
}

/** A slab of its own: mezzanine, balcony, deck or foundation. */
export function SlabDocket({ id }: { id: string }) {
  const slab = useStudio((s) => s.project.slabs[id]);
  const derived = useStudio((s) => s.model.shell.levels.flatMap((l) => l.slabs).find((d) => d.id === id));
  const { units, run, say } = useEdit();
  const set = (values: Partial<Slab>): boolean => run('slab.put', { ...slab, ...values });
  return (
    <>
      <FieldTable
        units={units}
        say={say}
        fields={[
          { kind: 'text', label: 'Name', value: slab.name, set: (name) => set({ name }) },
          {
            kind: 'choice',
            label: 'Kind',
            value: slab.kind,
            options: Object.entries(SLAB_NAMES).map(([k, n]) => [k, n.toLowerCase()] as const),
            set: (v) => set({ kind: v as Slab['kind'] }),
          },
          { kind: 'length', label: 'Top at', value: slab.z, set: (z) => set({ z }) },
          { kind: 'length', label: 'Thickness', value: slab.thickness, set: (thickness) => set({ thickness }) },
          { kind: 'fact', label: 'Area', value: derived ? formatArea(derived.area, units) : '' },
          guardField('Guard', slab.guard, (guard) => set({ guard })),
          derived?.guard ? { kind: 'fact', label: 'Guard, long', value: formatLength(derived.guard.length, units) } : null,
          status(slab.status, (v) => set({ status: v })),
        ]}
      />
      <Corners id={id} />
      <PartSwatches id={id} />
      <Actions />
    </>
  );
}

/** A hole in a floor. */
export function VoidDocket({ id }: { id: string }) {
  const own = useStudio((s) => s.project.voids[id]);
  const derived = useStudio((s) => s.model.shell.levels.flatMap((l) => l.voids).find((d) => d.id === id));
  const { units, run, say } = useEdit();
  const set = (values: Partial<Void>): boolean => run('void.put', { ...own, ...values });
  return (
    <>
      <FieldTable
        units={units}
        say={say}
        fields={[
          { kind: 'text', label: 'Name', value: own.name, set: (name) => set({ name }) },
          { kind: 'fact', label: 'Area', value: derived ? formatArea(derived.area, units) : '' },
          guardField('Guard', own.guard, (guard) => set({ guard })),
          derived?.guard ? { kind: 'fact', label: 'Guard, long', value: formatLength(derived.guard.length, units) } : null,
          status(own.status, (v) => set({ status: v })),
        ]}
      />
      <Corners id={id} />
      <PartSwatches id={id} />
      <Actions />
    </>
  );
}

/** A beam or a post between two points. */
export function BeamDocket({ id }: { id: string }) {
  const beam = useStudio((s) => s.project.beams[id]);
  const { units, run, say } = useEdit();
  const set = (values: Partial<Beam>): boolean => run('beam.put', { ...beam, ...values });
  const end = (key: 'a' | 'b', name: string): Field[] =>
    (['x', 'y', 'z'] as const).map((axis) => ({
      kind: 'length',
      label: `${name}, ${axis === 'x' ? 'across' : axis === 'y' ? 'up' : 'high'}`,
      value: beam[key][axis],
      set: (v) => set({ [key]: { ...beam[key], [axis]: v } }),
    }));
  const long = Math.hypot(beam.b.x - beam.a.x, beam.b.y - beam.a.y, beam.b.z - beam.a.z);
  return (
    <>
      <FieldTable
        units={units}
        say={say}
        fields={[
          { kind: 'text', label: 'Name', value: beam.name, set: (name) => set({ name }) },
          { kind: 'choice', label: 'Section', value: beam.section, options: SECTIONS, set: (v) => set({ section: v as Beam['section'] }) },
          { kind: 'length', label: 'Width', value: beam.width, set: (width) => set({ width }) },
          { kind: 'length', label: 'Depth', value: beam.depth, set: (depth) => set({ depth }) },
          ...end('a', 'From'),
          ...end('b', 'To'),
          { kind: 'fact', label: 'Long', value: formatLength(long, units) },
          { kind: 'angle', label: 'Turned, °', aria: 'Turned, degrees', value: beam.turn, set: (turn) => set({ turn }) },
          status(beam.status, (v) => set({ status: v })),
        ]}
      />
      <PartSwatches id={id} />
      <Actions />
    </>
  );
}

/** An area of the ground. */
export function GroundDocket({ id }: { id: string }) {
  const area = useStudio((s) => s.project.grounds[id]);
  const derived = useStudio((s) => derivedOf(s.model, 'grounds').find((g) => g.id === id));
  const { units, run, say } = useEdit();
  const set = (values: Partial<GroundArea>): boolean => run('ground.put', { ...area, ...values });
  const grounds = useStudio((s) => s.project.grounds);
  const { below, above } = useMemo(() => cutting({ grounds }, id), [grounds, id]);
  const past = (way: 'over' | 'under'): void => {
    const order = orderPast({ grounds }, id, way);
    if (order !== null) set({ order });
  };
  const water = area.kind === 'water' || area.kind === 'pool';
  return (
    <>
      <FieldTable
        units={units}
        say={say}
        fields={[
          { kind: 'text', label: 'Name', value: area.name, set: (name) => set({ name }) },
          {
            kind: 'choice',
            label: 'Kind',
            value: area.kind,
            options: Object.entries(GROUND_NAMES).map(([k, n]) => [k, n.toLowerCase()] as const),
            set: (v) => set({ kind: v as GroundArea['kind'], finishes: {} }),
          },
          { kind: 'length', label: water ? 'Surface at' : 'Height', value: area.z, set: (z) => set({ z }) },
          !water && {
            kind: 'number',
            label: 'Slope, %',
            value: area.slope.fall,
            scale: 100,
            min: 0,
            max: 100,
            set: (fall) => set({ slope: { ...area.slope, fall } }),
          },
          !water && {
            kind: 'angle',
            label: 'Uphill to, °',
            aria: 'Uphill to, degrees',
            value: area.slope.direction,
            set: (direction) => set({ slope: { ...area.slope, direction } }),
          },
          water && { kind: 'length', label: 'Depth', value: area.depth.from, set: (from) => set({ depth: { ...area.depth, from } }) },
          water && { kind: 'length', label: 'Opposite', aria: 'Depth opposite', value: area.depth.to, set: (to) => set({ depth: { ...area.depth, to } }) },
          {
            kind: 'choice',
            label: 'Edge',
            value: area.edge,
            options: [
              ['none', 'none'],
              ['kerb', 'kerb'],
              ['retaining', 'retaining edge'],
            ],
            set: (v) => set({ edge: v as GroundArea['edge'] }),
          },
          { kind: 'fact', label: 'Area', value: derived ? formatArea(derived.area, units) : '' },
          below.length > 0 && { kind: 'fact', label: 'Cuts', value: below.map((g) => g.name).join(', ') },
          above.length > 0 && { kind: 'fact', label: 'Cut by', value: above.map((g) => g.name).join(', ') },
          water && { kind: 'fact', label: 'Water', value: derived ? `${derived.volume.toFixed(2)} m³` : '' },
          status(area.status, (v) => set({ status: v })),
        ]}
      />
      <Corners id={id} />
      <PartSwatches id={id} />
      <Actions>
        {above.length ? (
          <Button size="small" onClick={() => past('over')}>
            Lay over {above[0].name}
          </Button>
        ) : null}
        {below.length ? (
          <Button size="small" onClick={() => past('under')}>
            Lay under {below[below.length - 1].name}
          </Button>
        ) : null}
      </Actions>
    </>
  );
}

/** A fence, a hedge or a garden wall. */
export function FenceDocket({ id }: { id: string }) {
  const fence = useStudio((s) => s.project.fences[id]);
  const derived = useStudio((s) => derivedOf(s.model, 'fences').find((f) => f.id === id));
  const { units, run, say } = useEdit();
  const set = (values: Partial<Fence>): boolean => run('fence.put', { ...fence, ...values });
  return (
    <>
      <FieldTable
        units={units}
        say={say}
        fields={[
          { kind: 'text', label: 'Name', value: fence.name, set: (name) => set({ name }) },
          {
            kind: 'choice',
            label: 'Kind',
            value: fence.kind,
            options: Object.entries(FENCE_NAMES).map(([k, n]) => [k, n.toLowerCase()] as const),
            set: (v) => set({ kind: v as Fence['kind'], finishes: {} }),
          },
          { kind: 'length', label: 'Height', value: fence.height, set: (height) => set({ height }) },
          { kind: 'length', label: 'Thickness', value: fence.thickness, set: (thickness) => set({ thickness }) },
          { kind: 'length', label: 'Foot at', value: fence.z, set: (z) => set({ z }) },
          { kind: 'switch', label: 'Closed', value: fence.closed, set: (closed) => set({ closed }) },
          { kind: 'fact', label: 'Long', value: derived ? formatLength(derived.length, units) : '' },
          status(fence.status, (v) => set({ status: v })),
        ]}
      />
      <Corners id={id} />
      <PartSwatches id={id} />
      <Actions />
    </>
  );
}
