'use client';
import { useDeferredValue } from 'react';
import Button from '@mui/material/Button';
import Switch from '@mui/material/Switch';
import { USES, type Ceiling, type Room } from '@/core/project/schema';
import { BARE } from '@/core/project/kinds/first-finishes';
import { ceilingHeight } from '@/core/shell/rooms';
import { formatArea, formatLength } from '@/core/units/length';
import { Choice, STATUS_NAMES } from '../look/Choice';
import { LengthField, Row, TextField } from '../look/fields';
import { targetName, useStudio } from '../store/studio';
import { windowsOf } from '../tools/hanging';
import { Group } from './Group';
import { DressRows } from './HangRows';
import { Actions, Swatches, useEdit } from './parts';

/** A room: name, use, figures, floor and ceiling, finishes. */
export function RoomDocket({ id }: { id: string }) {
  const project = useStudio((s) => s.project);
  const model = useDeferredValue(useStudio((s) => s.model));
  const { units, run, say } = useEdit();
  const room = project.rooms[id];
  const derived = model.shell.rooms.get(id);
  const level = project.levels[room.level];
  const { cover } = room;
  const windows = windowsOf(model, id);
  const set = (values: Partial<Room>): boolean => run('room.set', { room: id, set: values });
  const setCover = (kind: Ceiling['kind']): void => {
    const height = 'height' in cover ? cover.height : null;
    const longest = derived?.sides.reduce<(typeof derived.sides)[number] | null>((a, b) => (a && a.s1 - a.s0 >= b.s1 - b.s0 ? a : b), null);
    switch (kind) {
      case 'flat':
        return void set({ cover: { kind, height } });
      case 'coffer':
        return void set({ cover: { kind, height, drop: 0.15, border: 0.4 } });
      case 'bulkhead':
        return void set({ cover: { kind, height, drop: 0.3, depth: 0.6, along: longest?.key ?? '' } });
      default:
        return void set({ cover: { kind } });
    }
  };
  const carry = (how: 'mirror-x' | 'mirror-y' | 'half-turn' | 'quarter-turn') => () => run('room.carry', { room: id, how });
  const faces = derived ? [...new Map(derived.sides.map((s) => [s.key, s])).values()] : [];
  return (
    <>
      <Row label="Name">
        <TextField label="Room name" value={room.name} onCommit={(name) => set({ name })} />
      </Row>
      <Row label="Use">
        <Choice
          bare
          label="Use"
          value={room.use}
          options={USES.map((u) => [u, u === 'unnamed' ? 'not said' : u] as const)}
          onChoose={(use) => void set({ use })}
        />
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
      <Row label="Ceiling is">
        <Choice
          bare
          label="Kind of ceiling"
          value={cover.kind}
          options={[
            ['flat', 'flat'],
            ['coffer', 'lowered all round'],
            ['bulkhead', 'lowered along a wall'],
            ['roof', 'following the roof'],
            ['open', 'none, open to the sky'],
          ]}
          onChoose={setCover}
        />
      </Row>
      {'height' in cover ? (
        <Row label="Ceiling">
          <LengthField
            label="Ceiling height of the room"
            metres={ceilingHeight(room, level)}
            units={units}
            onRefuse={say}
            onCommit={(height) => set({ cover: { ...cover, height: Math.abs(height - level.height) < 1e-9 ? null : height } })}
          />
        </Row>
      ) : null}
      {cover.kind === 'coffer' || cover.kind === 'bulkhead' ? (
        <Row label="Lowered by">
          <LengthField label="Lowered by" metres={cover.drop} units={units} onRefuse={say} onCommit={(drop) => set({ cover: { ...cover, drop } })} />
        </Row>
      ) : null}
      {cover.kind === 'coffer' ? (
        <Row label="Border">
          <LengthField
            label="Width of the border"
            metres={cover.border}
            units={units}
            onRefuse={say}
            onCommit={(border) => set({ cover: { ...cover, border } })}
          />
        </Row>
      ) : null}
      {cover.kind === 'bulkhead' ? (
        <>
          <Row label="Depth">
            <LengthField
              label="Depth of the bulkhead"
              metres={cover.depth}
              units={units}
              onRefuse={say}
              onCommit={(depth) => set({ cover: { ...cover, depth } })}
            />
          </Row>
          <Row label="Along">
            <Choice
              bare
              label="Along which wall"
              value={cover.along}
              options={faces.map((s) => [s.key, targetName(project, { kind: 'wall', room: id, wall: s.wall, side: s.side }).replace(/^.*, /, '')] as const)}
              onChoose={(along) => void set({ cover: { ...cover, along } })}
            />
          </Row>
        </>
      ) : null}
      <Swatches
        items={[
          { label: 'floor', finish: room.floor ?? BARE.floor, target: { kind: 'floor', room: id } },
          { label: 'walls', finish: room.walls ?? BARE.wall, target: { kind: 'walls', room: id } },
          { label: 'ceiling', finish: room.ceiling ?? BARE.ceiling, target: { kind: 'ceiling', room: id } },
        ]}
      />
      {windows.length ? (
        <Group title="At its windows">
          <DressRows key={id} openings={windows} room={id} />
        </Group>
      ) : null}
      <Group title="More of this room">
        <Row label="Floor step">
          <LengthField label="Floor above the level" metres={room.step} units={units} onRefuse={say} onCommit={(step) => set({ step })} />
        </Row>
        <Row label="Level">
          <LengthField
            label="Ceiling height of the level"
            metres={level.height}
            units={units}
            onRefuse={say}
            onCommit={(height) => run('level.set', { id: level.id, set: { height } })}
          />
        </Row>
        <Row label="Outdoors">
          <Switch checked={room.outdoors} slotProps={{ input: { 'aria-label': 'Outdoors' } }} onChange={(e) => void set({ outdoors: e.target.checked })} />
        </Row>
        <Row label="Status">
          <Choice bare label="Status" value={room.status} options={STATUS_NAMES} onChoose={(status) => void run('status.set', { ids: [id], status })} />
        </Row>
      </Group>
      <Actions plain>
        <Button size="small" onClick={carry('mirror-x')}>
          Mirror left–right
        </Button>
        <Button size="small" onClick={carry('mirror-y')}>
          Mirror front–back
        </Button>
        <Button size="small" onClick={carry('half-turn')}>
          Turn by half
        </Button>
        <Button size="small" onClick={carry('quarter-turn')}>
          Turn a quarter
        </Button>
      </Actions>
    </>
  );
}
