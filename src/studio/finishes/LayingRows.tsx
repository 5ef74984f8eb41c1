'use client';
import { FIRST_COLOURS } from '@/core/project/kinds/first-finishes';
import { addressOf, type Target } from '@/core/project/targets';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useDeferredValue, useMemo, useState } from 'react';
import type { Model } from '@/core/model/model';
import { laidFinish, type Placing } from '@/core/finishes/laying/place';
import { PATTERNS, type FaceLaying, type Finish, type Laying } from '@/core/project/schema';
import { patchPlacing } from '@/core/shell/dress/dress';
import { totalArea } from '@/core/geometry/polygon';
import type { Region } from '@/core/geometry/region';
import { formatArea } from '@/core/units/length';
import { useEdit } from '../docket/parts';
import { FieldTable, type Field } from '../look/FieldTable';
import { colours } from '../look/theme';
import { useFinish, useStudio } from '../store/studio';
import { finishAt } from '../tools/finishing';
import { useLayout } from './layouts';
import { FIRST_CELL, OwnPattern } from './OwnPattern';

const PATTERN_NAMES: Record<(typeof PATTERNS)[number], string> = {
  stack: 'stacked',
  running: 'running bond',
  plank: 'planks, staggered',
  herringbone: 'herringbone',
  chevron: 'chevron',
  basket: 'basket',
  pinwheel: 'blocks round a square',
  hexagon: 'hexagons',
  octagon: 'octagons and squares',
  hopscotch: 'large and small squares',
  flemish: 'header and stretcher',
  english: 'alternate courses',
  coursed: 'courses of different lengths',
  panel: 'panels',
  own: 'one’s own',
};

const STARTS = [
  ['even', 'where no sliver is left'],
  ['edge', 'whole at the left, below'],
  ['middle', 'a joint in the middle'],
  ['unit', 'a unit in the middle'],
  ['carried', 'carried round the corner'],
  ['point', 'at a point'],
] as const;

const AS_IT_COMES: FaceLaying = { laying: null, start: 'even', origin: { x: 0, y: 0 }, rotation: 0, scale: 1 };

const FRESH: Laying = {
  pattern: 'stack',
  width: 0.2,
  height: 0.2,
  joint: 0.003,
  joints: FIRST_COLOURS.joints,
  offset: 0.5,
  angle: Math.PI / 4,
  small: 0.1,
  variation: 0.05,
  edge: 0.002,
  recess: 0.001,
  lap: 0,
  cell: null,
};

/** How a face's finish is laid, and what is counted from it. */
export function LayingRows({ target }: { target: Target }) {
  const project = useStudio((s) => s.project);
  const model = useDeferredValue(useStudio((s) => s.model));
  const { units, run, say } = useEdit();
  const [open, setOpen] = useState(false);
  const address = addressOf(target);
  const own = project.layings[address];
  const finish = useFinish(finishAt(target) ?? 'bare.plaster');
  const laid = laidFinish(finish, own);
  const laying = laid.laying;
  const counted = useMemo(() => surfaceAt(model, address), [model, address]);
  const layout = useLayout(counted?.whole ? counted.of : null, counted?.laid.laying ?? null, counted?.placing ?? NOWHERE, counted?.regions ?? []);
  const put = (values: Partial<FaceLaying>): boolean => {
    const next = { ...(own ?? AS_IT_COMES), ...values };
    const plain = next.laying === null && next.start === 'even' && next.rotation === 0 && next.scale === 1;
    return run('laying.put', { addresses: [address], laying: plain ? null : next });
  };
  const change = (values: Partial<Laying>): boolean => put({ laying: { ...(own?.laying ?? finish.laying ?? FRESH), ...values } });
  const fields: Field[] = [
    { kind: 'fact', label: 'Net area', value: formatArea(counted?.area ?? 0, units) },
    layout && laying
      ? {
          kind: 'fact',
          label: 'Units',
          value: `${layout.whole} whole, ${layout.cut} cut, ${layout.needed} needed`,
        }
      : null,
  ];
  const more: Field[] = [
    {
      kind: 'choice',
      label: 'Pattern',
      value: own?.laying ? own.laying.pattern : 'as it comes',
      options: [
        ['as it comes', finish.laying ? `as it comes, ${PATTERN_NAMES[finish.laying.pattern]}` : 'as it comes, one sheet'],
        ...PATTERNS.map((p) => [p, PATTERN_NAMES[p]] as const),
      ],
      set: (v) =>
        v === 'as it comes'
          ? put({ laying: null })
          : change({ pattern: v as Laying['pattern'], ...(v === 'own' ? { cell: (own?.laying ?? finish.laying)?.cell ?? FIRST_CELL } : {}) }),
    },
    laying && laying.pattern !== 'own'
      ? { kind: 'length', label: 'Unit, long', aria: 'Length of a unit', value: laying.width, set: (width) => change({ width }) }
      : null,
    laying && !['own', 'hexagon', 'octagon', 'hopscotch'].includes(laying.pattern)
      ? { kind: 'length', label: 'Unit, high', aria: 'Height of a unit', value: laying.height, set: (height) => change({ height }) }
      : null,
    laying && ['octagon', 'hopscotch', 'pinwheel'].includes(laying.pattern)
      ? { kind: 'length', label: 'Small', aria: 'Side of the small square', value: laying.small, set: (small) => change({ small }) }
      : null,
    laying?.pattern === 'running'
      ? { kind: 'number', label: 'Offset, %', value: laying.offset, scale: 100, min: 0, max: 100, set: (offset) => change({ offset }) }
      : null,
    laying?.pattern === 'chevron' ? { kind: 'angle', label: 'Angle, °', value: laying.angle, min: 12, max: 80, set: (angle) => change({ angle }) } : null,
    laying ? { kind: 'length', label: 'Joint', value: laying.joint, set: (joint) => change({ joint }) } : null,
    { kind: 'choice', label: 'Start', value: own?.start ?? 'even', options: STARTS, set: (v) => put({ start: v as FaceLaying['start'] }) },
    own?.start === 'point' ? { kind: 'length', label: 'From left', value: own.origin.x, set: (x) => put({ origin: { ...own.origin, x } }) } : null,
    own?.start === 'point' ? { kind: 'length', label: 'From below', value: own.origin.y, set: (y) => put({ origin: { ...own.origin, y } }) } : null,
    { kind: 'angle', label: 'Turned, °', value: own?.rotation ?? 0, set: (rotation) => put({ rotation }) },
    { kind: 'number', label: 'Scale, %', value: own?.scale ?? 1, scale: 100, min: 5, max: 2000, set: (scale) => put({ scale }) },
  ];
  return (
    <Box sx={{ mt: 1 }}>
      <FieldTable fields={fields} units={units} say={say} />
      <Button size="small" aria-expanded={open} onClick={() => setOpen(!open)} sx={{ my: 0.5 }}>
        {open ? 'Laying, done' : 'Laying…'}
      </Button>
      {open ? (
        <>
          <FieldTable fields={more} units={units} say={say} />
          {laying ? (
            <Box component="label" sx={{ display: 'flex', gap: 1, fontSize: 12.5, color: colours.third, alignItems: 'center', mt: 0.5 }}>
              Joint colour
              <input type="color" value={laying.joints} aria-label="Joint colour" onChange={(e) => void change({ joints: e.target.value })} />
            </Box>
          ) : null}
          {laying?.pattern === 'own' ? <OwnPattern laying={laying} onSet={(cell) => change({ cell })} say={say} /> : null}
          {own && own.scale !== 1 ? <Box sx={{ fontSize: 11.5, color: colours.rust }}>▲ Not the product’s real size.</Box> : null}
        </>
      ) : null}
    </Box>
  );
}

const NOWHERE: Placing = { origin: { x: 0, y: 0 }, angle: 0 };

interface Surface {
  of: object;
  area: number;
  laid: Finish;
  placing: Placing;
  regions: readonly Region[];
  /** Whether all of it is laid in one: what lies between patches is counted in the schedule. */
  whole: boolean;
}

/** The face or patch of an address, as it is laid. */
function surfaceAt(model: Model, address: string): Surface | null {
  for (const { faces } of model.shell.levels)
    for (const face of faces) {
      if (face.address === address)
        return { of: face, area: face.rest.area, laid: face.laid, placing: face.placing, regions: face.regions, whole: !face.patches.length };
      for (const derived of face.patches)
        if (addressOf({ kind: 'patch', patch: derived.patch.id, part: 'field' }) === address) {
          const { laid, placing } = patchPlacing(model.shell.project, derived);
          return { of: derived, area: totalArea(derived.regions), laid, placing, regions: derived.regions, whole: true };
        }
    }
  return null;
}
