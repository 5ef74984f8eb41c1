'use client';
import Button from '@mui/material/Button';
import Switch from '@mui/material/Switch';
import { useState } from 'react';
import { levelBelow } from '@/core/project/levels';
import type { Level } from '@/core/project/schema';
import { formatLength } from '@/core/units/length';
import { Choice } from '../look/Choice';
import { LengthField, Row, TextField } from '../look/fields';
import { useStudio } from '../store/studio';
import { addLevel, removeLevel, TAKEN_OVER, type TakenOver } from '../tools/levels';
import { Actions, PartSwatches, useEdit } from './parts';

/** A level: name, heights, and others added above or below it. */
export function LevelDocket({ id }: { id: string }) {
  const project = useStudio((s) => s.project);
  const showBelow = useStudio((s) => s.showBelow);
  const { units, run, say } = useEdit();
  const [walls, setWalls] = useState<TakenOver>('outer');
  const level = project.levels[id];
  const below = levelBelow(project, id);
  const set = (values: Partial<Level>): boolean => run('level.set', { id, set: values });
  return (
    <>
      <Row label="Name">
        <TextField label="Name" value={level.name} onCommit={(name) => set({ name })} />
      </Row>
      <Row label="Ceilings at">
        <LengthField label="Height of the level" metres={level.height} units={units} onRefuse={say} onCommit={(height) => set({ height })} />
      </Row>
      <Row label="Slab">
        <LengthField label="Thickness of the slab" metres={level.slab} units={units} onRefuse={say} onCommit={(slab) => set({ slab })} />
      </Row>
      <Row label="Floor at">
        {below ? (
          formatLength(level.elevation, units)
        ) : (
          <LengthField label="Floor above zero" metres={level.elevation} units={units} onRefuse={say} onCommit={(elevation) => set({ elevation })} />
        )}
      </Row>
      {below ? (
        <Row label="Below">
          <Switch
            checked={showBelow}
            slotProps={{ input: { 'aria-label': 'Show the level below' } }}
            onChange={(e) => useStudio.setState({ showBelow: e.target.checked })}
          />
        </Row>
      ) : null}
      <Row label="New ones with">
        <Choice bare label="New levels with" value={walls} options={TAKEN_OVER} onChoose={setWalls} />
      </Row>
      <PartSwatches id={id} />
      <Actions plain>
        <Button size="small" onClick={() => addLevel(id, 'above', walls)}>
          Add above
        </Button>
        <Button size="small" onClick={() => addLevel(id, 'below', walls)}>
          Add below
        </Button>
        <Button size="small" onClick={() => addLevel(id, 'apart', walls)}>
          Add building apart
        </Button>
        <Button size="small" onClick={() => removeLevel(id)}>
          Delete level
        </Button>
      </Actions>
    </>
  );
}
