'use client';
import type { Target } from '@/core/project/targets';
import Button from '@mui/material/Button';
import { useDeferredValue, useState } from 'react';
import type { WallTop } from '@/core/project/schema';
import { arcOf, wallEnds, wallLength, wallThickness, wallTopAt } from '@/core/project/wall-line';
import { BARE } from '@/core/project/kinds/first-finishes';
import { formatArea, formatLength } from '@/core/units/length';
import { Choice, STATUS_NAMES } from '../look/Choice';
import { LengthField, Row } from '../look/fields';
import { useStudio } from '../store/studio';
import * as tools from '../tools/controller';
import { beginRun } from '../tools/runs';
import { Group } from './Group';
import { Actions, PartSwatches, Swatches, useEdit } from './parts';

/** A wall: its length, build-up, height and status, the face in hand, its finishes. */
export function WallDocket({ id, target }: { id: string; target: Target | null }) {
  const project = useStudio((s) => s.project);
  const model = useDeferredValue(useStudio((s) => s.model));
  const [keep, setKeep] = useState<'left' | 'right' | 'middle'>('middle');
  const [beside, setBeside] = useState(1);
  const { units, run, say } = useEdit();
  const wall = project.walls[id];
  const derived = model.shell.walls.get(id);
  const sides = derived?.sides ?? [];
  const face = target?.kind === 'wall' ? sides.find((s) => s.side === target.side && s.room === target.room) : undefined;
  const level = project.levels[wall.level];
  const set = (values: Record<string, unknown>): boolean => run('wall.set', { wall: id, set: values });
  const build = (type: string | null, thickness: number | null): boolean => run('wall.build', { walls: [id], type, thickness, keep });
  const sideName = (side: 'left' | 'right'): string => {
    const own = sides.find((s) => s.side === side);
    return own?.room ? (project.rooms[own.room]?.name ?? 'room') : 'outside';
  };
  if (wall.kind === 'boundary')
    return (
      <>
        <Row label="Length">{formatLength(wallLength(project, wall), units)}</Row>
        <Row label="Parts">{[...new Set(boundaryRooms(model, id))].join(' and ') || 'nothing yet'}</Row>
        <Actions />
      </>
    );
  const radius = wall.bulge !== 0 ? arcOf(...wallEnds(project, wall), wall.bulge).radius : 0;
  const top = wall.top;
  const setTop = (kind: WallTop['kind'] | 'ridge'): boolean => {
    const [start, end] = [wallTopAt(wall, level, 0), wallTopAt(wall, level, 1)];
    if (kind === 'fixed') return set({ top: { kind, height: start } });
    // A gable starts with a pitch of 45°, or as much of it as a wall may be high.
    if (kind === 'ridge')
      return set({
        top: {
          kind: 'raking',
          start,
          end,
          apex: { at: 0.5, height: Math.min(20, Math.round((Math.max(start, end) + wallLength(project, wall) / 2) * 100) / 100) },
        },
      });
    return set({ top: kind === 'raking' ? { kind, start, end, apex: null } : { kind } });
  };
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
      {radius ? <Row label="Radius">{formatLength(radius, units)}</Row> : null}
      <Row label="Build-up">
        <Choice
          bare
          label="Build-up of this wall"
          value={wall.type ?? 'plain'}
          options={[['plain', 'one layer'], ...Object.values(project.wallTypes).map((t) => [t.id, t.name] as const)]}
          onChoose={(v) => void (v === 'plain' ? build(null, wallThickness(project, wall)) : build(v, null))}
        />
      </Row>
      <Row label="Thickness">
        {wall.type === null ? (
          <LengthField label="Thickness" metres={wall.thickness ?? 0.1} units={units} onRefuse={say} onCommit={(thickness) => build(null, thickness)} />
        ) : (
          formatLength(wallThickness(project, wall), units)
        )}
      </Row>
      <Row label="Up to">
        <Choice
          bare
          label="How high it goes"
          value={top.kind === 'raking' && top.apex ? 'ridge' : top.kind}
          options={[
            ['ceiling', 'the ceiling'],
            ['half', 'half height'],
            ['fixed', 'its own height'],
            ['raking', 'a rake'],
            ['ridge', 'a rake with a ridge'],
            ['roof', 'the roof'],
          ]}
          onChoose={(kind) => void setTop(kind)}
        />
      </Row>
      {top.kind === 'raking' ? (
        <>
          <Row label="At its start">
            <LengthField label="Height at its start" metres={top.start} units={units} onRefuse={say} onCommit={(start) => set({ top: { ...top, start } })} />
          </Row>
          <Row label="At its end">
            <LengthField label="Height at its end" metres={top.end} units={units} onRefuse={say} onCommit={(end) => set({ top: { ...top, end } })} />
          </Row>
          {top.apex ? (
            <>
              <Row label="Ridge">
                <LengthField
                  label="Height of the ridge"
                  metres={top.apex.height}
                  units={units}
                  onRefuse={say}
                  onCommit={(height) => set({ top: { ...top, apex: { ...top.apex!, height } } })}
                />
              </Row>
              <Row label="Ridge at">
                <LengthField
                  label="Ridge from the start"
                  metres={top.apex.at * wallLength(project, wall)}
                  units={units}
                  onRefuse={say}
                  onCommit={(v) => set({ top: { ...top, apex: { ...top.apex!, at: v / wallLength(project, wall) } } })}
                />
              </Row>
            </>
          ) : null}
        </>
      ) : (
        <Row label="Height">
          <LengthField
            label="Height"
            metres={wallTopAt(wall, level, 0)}
            units={units}
            onRefuse={say}
            onCommit={(height) => set({ top: { kind: 'fixed', height } })}
          />
        </Row>
      )}
      <Row label="Status">
        <Choice bare label="Status" value={wall.status} options={STATUS_NAMES} onChoose={(status) => void run('status.set', { ids: [id], status })} />
      </Row>
      <Swatches
        items={sides
          .filter((s, i) => sides.findIndex((o) => o.side === s.side && o.room === s.room) === i)
          .map((s) => {
            const owner = s.room ? project.rooms[s.room] : project.outside;
            return {
              label: s.room ? (project.rooms[s.room]?.name ?? 'Room') : 'Outside',
              finish: owner?.faces[s.key] ?? owner?.walls ?? (s.outdoors ? BARE.outside : BARE.wall),
              target: { kind: 'wall' as const, room: s.room, wall: id, side: s.side },
            };
          })}
      />
      <PartSwatches id={id} />
      <Group title="More of this wall">
        <Row label="Keeps in place">
          <Choice
            bare
            label="What stays when the thickness changes"
            value={keep}
            options={[
              ['middle', 'the middle'],
              ['left', `the face to ${sideName('left')}`],
              ['right', `the face to ${sideName('right')}`],
            ]}
            onChoose={(v) => setKeep(v)}
          />
        </Row>
        {wall.type ? (
          <Row label="Layers">
            <Choice
              bare
              label="Which way the layers run"
              value={wall.turned ? 'turned' : 'plain'}
              options={[
                ['plain', `outside to ${sideName('right')}`],
                ['turned', `outside to ${sideName('left')}`],
              ]}
              onChoose={(v) => void set({ turned: v === 'turned' })}
            />
          </Row>
        ) : null}
        <Row label="Foot at">
          <LengthField label="Foot above the floor" metres={wall.base} units={units} onRefuse={say} onCommit={(base) => set({ base })} />
        </Row>
        {face ? (
          <>
            <Row label="This face">{formatLength(face.s1 - face.s0, units)} long</Row>
            <Row label="Net area">{formatArea(face.area, units)}</Row>
          </>
        ) : null}
        <Row label="Parallel at">
          <LengthField label="Distance of a parallel wall" metres={beside} units={units} onRefuse={say} onCommit={setBeside} />
        </Row>
      </Group>
      <Actions>
        <Button size="small" onClick={() => run('wall.offset', { wall: id, by: target?.kind === 'wall' && target.side === 'right' ? -beside : beside })}>
          Draw parallel
        </Button>
        {target?.kind === 'wall' && target.room !== null && project.rooms[target.room] ? (
          <Button size="small" onClick={() => beginRun(id, target.side, target.room!)}>
            Cabinets along it
          </Button>
        ) : null}
        <Button size="small" onClick={tools.lineUp}>
          Its whole line
        </Button>
        <Button
          size="small"
          onClick={() =>
            useStudio.setState({ elevation: target?.kind === 'wall' ? { wall: id, side: target.side, room: target.room } : { wall: id, side: 'left' } })
          }
        >
          Elevation
        </Button>
      </Actions>
    </>
  );
}

/** Names of the rooms at both sides of a boundary. */
function boundaryRooms(model: ReturnType<typeof useStudio.getState>['model'], id: string): string[] {
  const { project } = model.shell;
  const level = model.shell.levels.find((l) => l.walls.some((w) => w.id === id));
  if (!level) return [];
  const { arrangement } = level.plan;
  return (arrangement.byLine.get(id) ?? []).flatMap((piece) =>
    [0, 1].flatMap((k) => {
      const cycle = arrangement.cycles[piece.index * 2 + k];
      const at = arrangement.faces.findIndex((f) => f.outer === cycle);
      const region = at >= 0 ? level.joined.faces[at] : undefined;
      const room =
        region &&
        level.rooms.find(
          (r) => r.region.outer.length === region.outer.length && r.region.outer[0].x === region.outer[0].x && r.region.outer[0].y === region.outer[0].y,
        );
      return room ? [project.rooms[room.id].name] : [];
    }),
  );
}
