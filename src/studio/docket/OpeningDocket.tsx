'use client';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { openingGaps } from '@/core/project/openings';
import { partsOf } from '@/core/shell/model';
import { clearWidth, OPENING_FINISHES } from '@/core/shell/openings';
import { formatLength } from '@/core/units/length';
import { LengthField, Row, TextField } from '../look/fields';
import { useStudio } from '../store/studio';
import * as tools from '../tools/controller';
import { Diagram } from './Diagram';
import { Actions, Swatches, useEdit } from './parts';

/** A door or window: sizes, distances, hand, panes, finishes by part. */
export function OpeningDocket({ id }: { id: string }) {
  const project = useStudio((s) => s.project);
  const model = useStudio((s) => s.model);
  const { units, run, say } = useEdit();
  const opening = project.openings[id];
  const rooms = model.shell.openings.get(id)?.rooms;
  const gaps = openingGaps(project, opening);
  const set = (values: Record<string, unknown>): boolean => run('opening.set', { opening: id, set: values });
  const roomName = (side: 'left' | 'right'): string => (rooms?.[side] ? (project.rooms[rooms[side]!]?.name ?? 'Room') : 'Outside');
  return (
    <>
      <Diagram kind="opening" opening={opening} units={units} />
      <Row label="Name">
        <TextField label="Name" value={opening.name} onCommit={(name) => set({ name })} />
      </Row>
      {(['width', 'height', ...(opening.kind === 'window' ? (['sill'] as const) : [])] as const).map((key) => (
        <Row key={key} label={key[0].toUpperCase() + key.slice(1)}>
          <LengthField label={key[0].toUpperCase() + key.slice(1)} metres={opening[key]} units={units} onRefuse={say} onCommit={(v) => set({ [key]: v })} />
        </Row>
      ))}
      {gaps ? (
        <>
          <Row label="To one corner">
            <LengthField
              label="To one corner"
              metres={gaps.start}
              units={units}
              onRefuse={say}
              onCommit={(v) => set(tools.openingFrom(project, id, 'start', v) ?? {})}
            />
          </Row>
          <Row label="To the other">
            <LengthField
              label="To the other"
              metres={gaps.end}
              units={units}
              onRefuse={say}
              onCommit={(v) => set(tools.openingFrom(project, id, 'end', v) ?? {})}
            />
          </Row>
        </>
      ) : null}
      {opening.kind === 'door' ? (
        <>
          <Row label="Clear width">{formatLength(clearWidth(opening), units)}</Row>
          <Row label="Opens into">
            <Select
              value={opening.swing}
              onChange={(e) => set({ swing: e.target.value })}
              fullWidth
              disableUnderline
              inputProps={{ 'aria-label': 'Opens into' }}
            >
              <MenuItem value="left">{roomName('left')}</MenuItem>
              <MenuItem value="right">{roomName('right')}</MenuItem>
            </Select>
          </Row>
          <Row label="Hand">
            <Select
              value={hand(opening)}
              onChange={(e) => set({ hinge: hingeFor(e.target.value as 'left' | 'right', opening.swing) })}
              fullWidth
              disableUnderline
              inputProps={{ 'aria-label': 'Hand' }}
            >
              <MenuItem value="left">hinged left</MenuItem>
              <MenuItem value="right">hinged right</MenuItem>
            </Select>
          </Row>
        </>
      ) : (
        <Row label="Panes">
          <TextField
            label="Panes"
            value={`${opening.panes.across} × ${opening.panes.up}`}
            onCommit={(text) => {
              const match = /^\s*(\d+)\s*[x×*,]\s*(\d+)\s*$/.exec(text);
              if (!match) {
                say(`“${text}” was not taken: panes are two whole numbers, across and up, for example 3 × 2.`);
                return false;
              }
              return set({ panes: { across: Number(match[1]), up: Number(match[2]) } });
            }}
          />
        </Row>
      )}
      <Swatches
        items={partsOf(opening.kind).map((part) => ({
          label: part,
          finish: opening.finishes[part] ?? OPENING_FINISHES[part],
          target: { kind: 'opening', opening: id, part },
        }))}
      />
      <Actions />
    </>
  );
}

/** Hinged left or right, seen from the room the leaf opens into. */
const hand = ({ hinge, swing }: { hinge: 'start' | 'end'; swing: 'left' | 'right' }): 'left' | 'right' =>
  (hinge === 'start') === (swing === 'left') ? 'right' : 'left';
const hingeFor = (side: 'left' | 'right', swing: 'left' | 'right'): 'start' | 'end' => ((side === 'right') === (swing === 'left') ? 'start' : 'end');
