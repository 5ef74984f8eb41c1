'use client';
import { BARE } from '@/core/shell/model';
import { formatArea, formatLength } from '@/core/units/length';
import { LengthField, Row, TextField } from '../look/fields';
import { useStudio } from '../store/studio';
import { Swatches, useEdit } from './parts';

/** A room: name, figures, ceiling, finishes. */
export function RoomDocket({ id }: { id: string }) {
  const project = useStudio((s) => s.project);
  const model = useStudio((s) => s.model);
  const { units, run, say } = useEdit();
  const room = project.rooms[id];
  const derived = model.shell.rooms.get(id);
  const level = project.levels[room.level];
  return (
    <>
      <Row label="Name">
        <TextField label="Room name" value={room.name} onCommit={(name) => run('room.set', { room: id, set: { name } })} />
      </Row>
      {derived ? (
        <>
          <Row label="Area">{formatArea(derived.area, units)}</Row>
          <Row label="Inside">
            {formatLength(derived.size.x, units)} × {formatLength(derived.size.y, units)}
          </Row>
          <Row label="Perimeter">{formatLength(derived.perimeter, units)}</Row>
        </>
      ) : null}
      <Row label="Ceiling">
        <LengthField
          label="Ceiling height of the level"
          metres={level.height}
          units={units}
          onRefuse={say}
          onCommit={(height) => run('level.set', { id: level.id, set: { height } })}
        />
      </Row>
      <Swatches
        items={[
          { label: 'floor', finish: room.floor ?? BARE.floor, target: { kind: 'floor', room: id } },
          { label: 'walls', finish: room.walls ?? BARE.wall, target: { kind: 'walls', room: id } },
          { label: 'ceiling', finish: room.ceiling ?? BARE.ceiling, target: { kind: 'ceiling', room: id } },
        ]}
      />
    </>
  );
}
