'use client';
import Button from '@mui/material/Button';
import { useDeferredValue, useState } from 'react';
import Box from '@mui/material/Box';
import { MOULDING_USE, PROFILES, profileIn } from '@/core/finishes/profiles';
import { MOULDING_KINDS, type Moulding, type MouldingKind, type Profile } from '@/core/project/schema';
import { sectionOf } from '@/core/shell/dress/mouldings';
import { formatLength } from '@/core/units/length';
import { Actions, Swatches, useEdit } from '../docket/parts';
import { FieldTable, type Field } from '../look/FieldTable';
import { colours } from '../look/theme';
import { newId, useStudio } from '../store/studio';
import { OwnSection } from './OwnSection';

/** A section drawn true to itself, with its sizes. */
function Section({ profile, height }: { profile: Profile; height: number | null }) {
  const units = useStudio((s) => s.project.units);
  const { points, height: h, depth } = sectionOf(profile, height);
  const k = Math.min(80 / h, 150 / Math.max(depth, 1e-6));
  const d = `M20 ${90}L${[...points, { x: 0, y: h }].map((p) => `${20 + p.x * k} ${90 - p.y * k}`).join('L')}Z`;
  return (
    <svg width="206" height="100" role="img" aria-label={`Section, ${formatLength(depth, units)} by ${formatLength(h, units)}`}>
      <path d="M20 4V96" stroke={colours.firm} />
      <path d={d} fill={colours.section} stroke={colours.ink} strokeWidth="1.1" />
      <g stroke={colours.teal} fill={colours.teal} fontSize="10.5">
        <path d={`M${28 + depth * k} 90V${90 - h * k}`} strokeWidth="0.8" />
        <text stroke="none" x={33 + depth * k} y={94 - (h * k) / 2}>
          {formatLength(h, units)}
        </text>
      </g>
    </svg>
  );
}

/** Skirtings, cornices and rails of a room: one press sets one all round, where it already has one takes it away. */
export function RoomMouldings({ room }: { room: string }) {
  const project = useStudio((s) => s.project);
  const { run } = useEdit();
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5, mt: 1 }} role="group" aria-label="Mouldings of the room">
      {MOULDING_KINDS.map((kind) => {
        const own = Object.values(project.mouldings).find((m) => m.room === room && m.kind === kind);
        return (
          <Button
            key={kind}
            size="small"
            aria-pressed={Boolean(own)}
            onClick={() => {
              if (own) return useStudio.getState().select([{ entity: own.id, target: { kind: 'moulding', moulding: own.id } }]);
              const moulding = newMoulding(room, kind);
              if (run('moulding.put', { mouldings: [moulding] }))
                useStudio.getState().select([{ entity: moulding.id, target: { kind: 'moulding', moulding: moulding.id } }]);
            }}
          >
            {own ? kind.charAt(0).toUpperCase() + kind.slice(1) : `Add ${kind}`}
          </Button>
        );
      })}
    </Box>
  );
}

const newMoulding = (room: string, kind: MouldingKind): Moulding => ({
  id: newId('moulding'),
  name: kind,
  room,
  kind,
  profile: MOULDING_USE[kind].profile,
  height: null,
  at: MOULDING_USE[kind].at,
  without: [],
  finish: 'paint.skein',
});

/** A moulding: its section, its height, where it runs. */
export function MouldingDocket({ id }: { id: string }) {
  const project = useStudio((s) => s.project);
  const model = useDeferredValue(useStudio((s) => s.model));
  const [drawing, setDrawing] = useState(false);
  const { units, run, say } = useEdit();
  const moulding = project.mouldings[id];
  const profile = profileIn(project, moulding.profile);
  const derived = model.shell.levels.flatMap((l) => l.mouldings).find((m) => m.moulding.id === id);
  const set = (values: Partial<Moulding>): boolean => run('moulding.put', { mouldings: [{ ...moulding, ...values }] });
  const { use } = MOULDING_USE[moulding.kind];
  const sections = [...Object.values(project.profiles), ...PROFILES.filter((p) => p.use === use)];
  const others = Object.values(project.rooms).filter(
    (r) => r.id !== moulding.room && r.use !== 'duct' && !Object.values(project.mouldings).some((m) => m.room === r.id && m.kind === moulding.kind),
  );
  const fields: Field[] = [
    {
      kind: 'choice',
      label: 'Section',
      value: moulding.profile,
      options: sections.map((p) => [p.id, p.name] as const),
      set: (v) => set({ profile: v, height: null }),
    },
    profile ? { kind: 'length', label: 'Height', value: sectionOf(profile, moulding.height).height, set: (height) => set({ height }) } : null,
    moulding.at === null ? null : { kind: 'length', label: 'From floor', value: moulding.at, set: (at) => set({ at }) },
    { kind: 'fact', label: 'Length', value: derived ? formatLength(derived.length, units) : '' },
    { kind: 'fact', label: 'Joints', value: derived ? `${derived.mitres} mitres, ${derived.ends} ends` : '' },
  ];
  return (
    <>
      {profile ? <Section profile={profile} height={moulding.height} /> : null}
      <FieldTable fields={fields} units={units} say={say} />
      <Swatches items={[{ label: 'finish', finish: moulding.finish, target: { kind: 'moulding', moulding: id } }]} />
      {drawing ? (
        <OwnSection
          from={profile}
          onSet={(own) => run('profile.put', own) && (own.id === moulding.profile || set({ profile: own.id, height: null }))}
          say={say}
        />
      ) : null}
      <Actions>
        {others.length ? (
          <Button
            size="small"
            onClick={() => run('moulding.put', { mouldings: others.map((r) => ({ ...moulding, id: newId('moulding'), room: r.id, without: [] })) })}
          >
            In every room
          </Button>
        ) : null}
        <Button size="small" aria-expanded={drawing} onClick={() => setDrawing(!drawing)}>
          Own section…
        </Button>
      </Actions>
    </>
  );
}
