'use client';
import { useDeferredValue } from 'react';
import type { Opening, Side } from '@/core/project/schema';
import { Choice } from '../look/Choice';
import { LengthField, Row } from '../look/fields';
import { useStudio } from '../store/studio';
import { useEdit } from './parts';

/** The depth a frame starts with when it is no longer as deep as its wall, metres. */
const FRAME_DEPTH = 0.1;

/** Where in the thickness of its wall a door or a window stands: the reveals at both sides, and how deep its frame is. */
export function StandRows({ opening, sides }: { opening: Opening; sides: Record<Side, string> }) {
  const stands = useDeferredValue(useStudio((s) => s.model)).shell.openings.get(opening.id)?.stands;
  const { units, run, say } = useEdit();
  const set = (values: Partial<Opening>): boolean => run('opening.set', { opening: opening.id, set: values });
  const { stand, frame, kind } = opening;
  if (!stands) return null;
  const nameOf = (side: Side): string => (sides.left === sides.right ? `${sides[side]}, ${side === stands.front ? 'front' : 'back'}` : sides[side]);
  const back: Side = stands.front === 'left' ? 'right' : 'left';
  const sideAt = { front: stands.front, back };
  const setBack = (side: Side, by: number): boolean => set({ stand: { kind: 'set-back', from: side === stands.front ? 'front' : 'back', by } });
  const through = frame.depth === 'wall';
  return (
    <>
      <Row label="In the wall">
        <Choice
          bare
          label="Where it stands in the wall"
          value={stand.kind === 'centred' ? 'centred' : stand.by === 0 ? `flush ${stand.from}` : stand.from}
          options={[
            ['centred', 'centred'],
            ...(['front', 'back'] as const).map((from) => [`flush ${from}`, `flush with ${nameOf(sideAt[from])}`] as const),
            ...(['front', 'back'] as const).map((from) => [from, `set back from ${nameOf(sideAt[from])}`] as const),
          ]}
          onChoose={(v) => {
            if (v === 'centred') return void set({ stand: { kind: 'centred' } });
            const from = v.endsWith('back') ? 'back' : 'front';
            setBack(sideAt[from], v.startsWith('flush') ? 0 : Math.max(0, stands.reveals[sideAt[from]]));
          }}
        />
      </Row>
      {(['front', 'back'] as const).map((from) => {
        const side = sideAt[from];
        return (
          <Row key={from} label="Reveal" note={nameOf(side)}>
            <LengthField
              label={`Reveal at ${nameOf(side)}`}
              metres={Math.max(0, stands.reveals[side])}
              units={units}
              onRefuse={say}
              onCommit={(by) => setBack(side, by)}
            />
          </Row>
        );
      })}
      {kind === 'door' ? (
        <Row label="Lining">
          <Choice
            bare
            label="Lining"
            value={through ? 'wall' : 'own'}
            options={[
              ['wall', 'as deep as the wall'],
              ['own', 'a frame of its own depth'],
            ]}
            onChoose={(v) => void set({ frame: { ...frame, depth: v === 'wall' ? 'wall' : FRAME_DEPTH } })}
          />
        </Row>
      ) : null}
      {through ? null : (
        <Row label="Frame depth">
          <LengthField label="Frame depth" metres={stands.depth} units={units} onRefuse={say} onCommit={(depth) => set({ frame: { ...frame, depth } })} />
        </Row>
      )}
    </>
  );
}
