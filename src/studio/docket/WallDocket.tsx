'use client';
import type { FaceTarget } from '@/core/project/commands';
import { wallTop, wallLength } from '@/core/project/wall-line';
import { BARE } from '@/core/shell/model';
import { formatArea, formatLength } from '@/core/units/length';
import { LengthField, Row } from '../look/fields';
import { useStudio } from '../store/studio';
import { Actions, Swatches, useEdit } from './parts';

/** A wall: its length, thickness and height, the face in hand, its finishes. */
export function WallDocket({ id, target }: { id: string; target: FaceTarget | null }) {
  const project = useStudio((s) => s.project);
  const model = useStudio((s) => s.model);
  const { units, run, say } = useEdit();
  const wall = project.walls[id];
  const sides = model.shell.walls.get(id)?.sides ?? [];
  const face = target?.kind === 'wall' ? sides.find((s) => s.side === target.side && s.room === target.room) : undefined;
  return (
    <>
      <Row label="Length">
        <LengthField
          label="Length"
          metres={wallLength(project, wall)}
          units={units}
          onRefuse={say}
          onCommit={(length) => run('wall.length', { wall: id, length, keep: 'start' })}
        />
      </Row>
      <Row label="Thickness">
        <LengthField
          label="Thickness"
          metres={wall.thickness}
          units={units}
          onRefuse={say}
          onCommit={(thickness) => run('wall.set', { wall: id, set: { thickness } })}
        />
      </Row>
      <Row label="Height">
        <LengthField
          label="Height"
          metres={wallHeight(project, wall)}
          units={units}
          onRefuse={say}
          onCommit={(height) => run('wall.set', { wall: id, set: { height } })}
        />
      </Row>
      {face ? (
        <>
          <Row label="This face">{formatLength(face.s1 - face.s0, units)} long</Row>
          <Row label="Net area">{formatArea(face.area, units)}</Row>
        </>
      ) : null}
      <Swatches
        items={sides
          .filter((s, i) => sides.findIndex((o) => o.side === s.side && o.room === s.room) === i)
          .map((s) => {
            const owner = s.room ? project.rooms[s.room] : project.outside;
            return {
              label: s.room ? project.rooms[s.room].name : 'Outside',
              finish: owner?.faces[s.key] ?? owner?.walls ?? (s.room ? BARE.wall : BARE.outside),
              target: { kind: 'wall' as const, room: s.room, wall: id, side: s.side },
            };
          })}
      />
      <Actions />
    </>
  );
}
