'use client';
import type { Target } from '@/core/project/targets';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Tooltip from '@mui/material/Tooltip';
import type { ReactNode } from 'react';
import { finishLrv, meanHex } from '@/core/finishes/finish';
import { bodyOf } from '@/core/model/model';
import { finishedPart, kindOf, partKinds, type Thing } from '@/core/project/kinds';
import { collectionOf } from '@/core/project/things';
import { Row, TextField } from '../look/fields';
import { colours } from '../look/theme';
import { useFinish, useStudio } from '../store/studio';
import { takeFinish } from '../tools/finishing';
import { useSample } from '../finishes/textures';
import { toggleShown, useLook } from '../views/views';
import * as tools from '../tools/controller';

/** Units and the way to run edits, for the fields of a docket. */
export const useEdit = () => {
  const units = useStudio((s) => s.project.units);
  const { run, say } = useStudio.getState();
  return { units, run, say };
};

/** What can be done with the selected thing. */
export function Actions({ children, plain }: { children?: ReactNode; plain?: boolean }) {
  return (
    <Box sx={{ display: 'flex', gap: 0.75, mt: 1.25, flexWrap: 'wrap' }}>
      {children}
      {plain ? null : <Shown />}
      {plain ? null : (
        <Button size="small" onClick={tools.deleteSelection}>
          Delete
        </Button>
      )}
    </Box>
  );
}

/** Hides the selected things in the view, or makes them see-through. */
function Shown() {
  const ids = useStudio((s) => s.selection.map((q) => q.entity).join(' '));
  const look = useLook((s) => s.look);
  const list = ids.split(' ').filter(Boolean);
  const all = (how: 'hidden' | 'through'): boolean => list.length > 0 && list.every((id) => look[how].includes(id));
  return (
    <>
      <Button size="small" aria-pressed={all('through')} onClick={() => list.forEach((id) => toggleShown(id, 'through'))}>
        {all('through') ? 'Solid again' : 'See through'}
      </Button>
      <Button size="small" aria-pressed={all('hidden')} onClick={() => list.forEach((id) => toggleShown(id, 'hidden'))}>
        {all('hidden') ? 'Show again' : 'Hide in view'}
      </Button>
    </>
  );
}

/** Chips of finishes by part; pressing one picks its finish up, or takes the finish in hand. */
export function Swatches({ items }: { items: { label: string; finish: string; target: Target }[] }) {
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(4,1fr)', gap: '6px', mt: 1.25 }}>
      {items.map((item) => (
        <Swatch key={item.label} {...item} />
      ))}
    </Box>
  );
}

/** The parts of a thing with their finishes: those its body shows, and those its kind knows besides. */
export function PartSwatches({ id }: { id: string }) {
  const project = useStudio((s) => s.project);
  const body = useStudio((s) => bodyOf(s.model, id));
  const items = new Map<string, { label: string; finish: string; target: Target }>();
  for (const { name, finish, target } of body?.parts ?? []) if (target?.kind === 'part' && !items.has(name)) items.set(name, { label: name, finish, target });
  const collection = collectionOf(project, id);
  const thing = collection && (project[collection][id] as Thing);
  // What is built of the stock knows its parts by itself: only those that are there are shown.
  for (const { part } of thing && !kindOf(collection).openParts ? partKinds(collection, thing, project) : [])
    if (!items.has(part))
      items.set(part, { label: part, finish: finishedPart(collection!, thing!, part, project).finish, target: { kind: 'part', of: id, part } });
  return items.size ? <Swatches items={[...items.values()]} /> : null;
}

function Swatch({ label, finish, target }: { label: string; finish: string; target: Target }) {
  const inHand = useStudio((s) => (s.tool.kind === 'finish' ? s.tool.finish : null));
  const own = useFinish(finish);
  const held = useFinish(inHand ?? finish);
  const url = useSample(own, 'board', 96, 56);
  return (
    <Tooltip title={`${label}: ${own.name}, LRV ${finishLrv(own).toFixed(0)}. ${inHand ? `Press to put ${held.name} here.` : 'Press to apply it elsewhere.'}`}>
      <Box
        component="button"
        onClick={() => {
          const state = useStudio.getState();
          if (inHand) {
            if (state.run('finish.apply', { targets: [target], finish: inHand }) && target.kind === 'ceiling') state.select([{ entity: target.room, target }]);
            return;
          }
          state.setStage('Finishes');
          takeFinish(finish);
        }}
        sx={{
          all: 'unset',
          cursor: 'pointer',
          minWidth: 0,
          textAlign: 'center',
          fontSize: 10.5,
          color: colours.second,
          '&:focus-visible': { outline: `2px solid ${colours.damson}` },
        }}
      >
        <Box
          sx={{
            height: 26,
            border: `1px solid ${colours.edge}`,
            mb: '2px',
            backgroundColor: meanHex(own),
            backgroundImage: url ? `url(${url})` : 'none',
            backgroundSize: 'cover',
          }}
        />
        <Box sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>{label}</Box>
      </Box>
    </Tooltip>
  );
}

/** Two whole numbers, across and up. */
export function GridRow({ label, value, onSet }: { label: string; value: { across: number; up: number }; onSet(v: { across: number; up: number }): boolean }) {
  const { say } = useEdit();
  return (
    <Row label={label}>
      <TextField
        label={label}
        value={`${value.across} × ${value.up}`}
        onCommit={(text) => {
          const match = /^\s*(\d+)\s*[x×*,]\s*(\d+)\s*$/.exec(text);
          if (!match) {
            say(`“${text}” was not taken: ${label.toLowerCase()} are two whole numbers, across and up, for example 3 × 2.`);
            return false;
          }
          return onSet({ across: Number(match[1]), up: Number(match[2]) });
        }}
      />
    </Row>
  );
}
