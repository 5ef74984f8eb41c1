'use client';
import { resized } from '@/core/cabinetry/widths';
import { figuresOf } from '@/core/drawing/elevation/chains';
import type { Placed } from '@/core/drawing/elevation/unroll';
import { useStudio } from '../../store/studio';
import * as arranging from '../../tools/arranging';
import type { View } from '../marks';
import { TypedDistance } from '../TypedDistance';

/** Width and height of the unit in hand, which are typed over where the strings of its run measure them. */
export function UnitFigures({ unit, faces, view, scale }: { unit: string; faces: readonly Placed[]; view: View; scale: number }) {
  const model = useStudio((s) => s.model);
  const project = useStudio((s) => s.project);
  const own = figuresOf(model, faces, unit, scale);
  if (!own) return null;
  const { derived } = own.front;
  const cabinet = project.cabinets[unit];
  if (!cabinet) return null;
  const all = derived.units.map((u) => u.unit);
  return (
    <>
      {cabinet.width === null || cabinet.corner ? null : (
        <TypedDistance
          label={`Width of ${cabinet.name}`}
          distance={own.width}
          view={view}
          worked={(v) => {
            const units = resized(derived.run, all, derived.legs, unit, v, 'shift', 'right', project.units);
            return typeof units === 'string' ? { refusal: `Nothing was changed. ${units}` } : arranging.to('run.lay', { run: derived.run, units });
          }}
        />
      )}
      <TypedDistance
        label={`Height of ${cabinet.name}`}
        distance={own.height}
        view={view}
        worked={(v) => (v > 0 && v <= 4 ? arranging.to('unit.put', { ...cabinet, height: v }) : { refusal: 'Nothing was changed. A unit is up to 4 m high.' })}
      />
    </>
  );
}
