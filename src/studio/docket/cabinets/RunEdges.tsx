'use client';
import { styleIn } from '@/core/cabinetry/styles';
import { PROFILES } from '@/core/finishes/profiles';
import { lookOf } from '@/core/project/joinery';
import type { Run } from '@/core/project/schema';
import { CORNER_FORMS, SLAB_JOINTS, type SlabJoint } from '@/core/project/schema/cabinets';
import { FieldTable, type Field } from '../../look/FieldTable';
import { useStudio } from '../../store/studio';
import { Group } from '../Group';
import { useEdit } from '../parts';

/** How far a cornice stands before the fronts it lies on, metres. */
const PROUD = 0.002;

const JOINTS: Readonly<Record<SlabJoint, string>> = { butted: 'butted', mitred: 'mitred', masons: 'mason’s mitre' };

/** What finishes a run at its ends and along its edges. */
export function RunEdges({ run }: { run: Run }) {
  const { units, run: edit, say } = useEdit();
  const own = useStudio((s) => s.project.profiles);
  const project = useStudio((s) => s.project);
  const { cornices, pelmet } = lookOf(run, styleIn(project, run.style));
  const set = (values: Partial<Run>): boolean => edit('run.put', { ...run, ...values });
  const look = (values: Run['look']): boolean => set({ look: { ...run.look, ...values } });
  const sections = [...PROFILES, ...Object.values(own)].filter((p) => p.use === 'cornice');
  const cornice = (k: 0 | 1): Field => ({
    kind: 'choice',
    label: k === 0 ? 'Cornice' : 'Upon it',
    value: cornices[k]?.profile ?? '',
    options: [['', 'none'], ...sections.map((p) => [p.id, p.name] as const)],
    set(profile) {
      const kept = cornices.slice(0, k);
      if (!profile) return look({ cornices: kept });
      const below = sections.find((p) => p.id === kept[0]?.profile);
      // The second begins where the first one ends.
      const up = below ? Math.max(...below.points.map((p) => p.y)) : 0;
      return look({ cornices: [...kept, { profile, up, out: PROUD }, ...(k === 0 ? cornices.slice(1) : [])] });
    },
  });
  const raised = (k: 0 | 1): Field[] => {
    const own = cornices[k];
    if (!own) return [];
    const put = (values: Partial<typeof own>): boolean => look({ cornices: cornices.map((c, i) => (i === k ? { ...c, ...values } : c)) });
    const which = k === 0 ? 'the cornice' : 'the one upon it';
    return [
      { kind: 'length', label: 'Begins', aria: `How far above the carcass ${which} begins`, value: own.up, set: (up) => put({ up }) },
      { kind: 'length', label: 'Stands out', aria: `How far ${which} stands before the fronts`, value: own.out, set: (out) => put({ out }) },
    ];
  };
  const free = run.legs.some((l) => l.kind === 'free');
  return (
    <Group title="Ends and edges">
      <FieldTable
        units={units}
        say={say}
        fields={[
          {
            kind: 'choice',
            label: 'Free ends',
            value: run.ends,
            options: [
              ['panels', 'panels of the fronts'],
              ['bare', 'bare carcass'],
            ],
            set: (v) => set({ ends: v as Run['ends'] }),
          },
          cornice(0),
          ...raised(0),
          cornices.length ? cornice(1) : null,
          ...raised(1),
          { kind: 'length', label: 'Pelmet', aria: 'Height of the pelmet', value: pelmet, set: (high) => look({ pelmet: high }) },
          { kind: 'length', label: 'Upstand', value: run.upstand, set: (upstand) => set({ upstand }) },
          {
            kind: 'choice',
            label: 'Worktop falls',
            value: run.falls,
            options: [
              ['none', 'nowhere'],
              ['left', 'at the left end'],
              ['right', 'at the right end'],
              ['both', 'at both ends'],
            ],
            set: (v) => set({ falls: v as Run['falls'] }),
          },
          {
            kind: 'choice',
            label: 'Corners',
            aria: 'Free corners of the worktop',
            value: run.corners.form,
            options: CORNER_FORMS.map((v) => [v, v] as const),
            set: (v) => set({ corners: { ...run.corners, form: v as Run['corners']['form'] } }),
          },
          run.corners.form === 'square'
            ? null
            : { kind: 'length', label: 'By', aria: 'How far from the corner', value: run.corners.by, set: (by) => set({ corners: { ...run.corners, by } }) },
          {
            kind: 'choice',
            label: 'Joints',
            aria: 'Joints of the worktop in corners',
            value: run.slabs.joint,
            options: SLAB_JOINTS.map((v) => [v, JOINTS[v]] as const),
            set: (v) => set({ slabs: { ...run.slabs, joint: v as SlabJoint } }),
          },
          {
            kind: 'length',
            label: 'Slabs up to',
            aria: 'Longest slab of worktop',
            value: run.slabs.longest,
            set: (longest) => set({ slabs: { ...run.slabs, longest } }),
          },
          {
            kind: 'choice',
            label: 'Grooves',
            aria: 'Grooves that drain into sinks under the worktop',
            value: run.grooves,
            options: [
              ['none', 'none'],
              ['left', 'left of sinks'],
              ['right', 'right of sinks'],
              ['both', 'on both sides'],
            ],
            set: (v) => set({ grooves: v as Run['grooves'] }),
          },
          free ? { kind: 'length', label: 'For seats', aria: 'Worktop behind, for seats', value: run.behind, set: (behind) => set({ behind }) } : null,
          free && run.behind > 0
            ? {
                kind: 'length',
                label: 'Raised by',
                aria: 'How far the part for seats lies above the worktop',
                value: run.raised,
                set: (raised) => set({ raised }),
              }
            : null,
          {
            kind: 'choice',
            label: 'Over it',
            aria: 'What is left up to the ceiling',
            value: run.infill ? 'closed' : 'open',
            options: [
              ['open', 'open'],
              ['closed', 'closed up to the ceiling'],
            ],
            set: (v) => set({ infill: v === 'closed' }),
          },
        ]}
      />
    </Group>
  );
}
