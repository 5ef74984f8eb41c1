'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { stockItem } from '@/core/stock/stock';
import { Choice, STATUS_NAMES } from '../look/Choice';
import { LengthField, NumberField, Row, TextField } from '../look/fields';
import { useLibrary } from '../store/library';
import { useStudio } from '../store/studio';
import * as arranging from '../tools/arranging';
import * as tools from '../tools/controller';
import { ReplaceRow } from './CopyRows';
import { DressRows } from './HangRows';
import { Actions, useEdit } from './parts';
import { Presses, Showing } from './PlaceRows';

const LINES = [
  ['back', 'Backs'],
  ['front', 'Fronts'],
  ['left', 'Left sides'],
  ['right', 'Right sides'],
  ['middle along', 'Middles along'],
  ['middle across', 'Middles across'],
] as const;

/** Several things at once: moved, turned, copied, mirrored, given a status or a build-up together. */
export function ManyDocket() {
  const project = useStudio((s) => s.project);
  const selection = useStudio((s) => s.selection);
  const { units, run, say } = useEdit();
  const [by, setBy] = useState({ x: 0, y: 0 });
  const [turn, setTurn] = useState(0);
  const ids = selection.map((s) => s.entity);
  const walls = ids.filter((id) => project.walls[id]?.kind === 'wall');
  const status = ids.filter((id) => project.walls[id] || project.openings[id] || project.columns[id] || project.rooflights[id] || project.pieces[id]);
  const carried = ids.some((id) => project.walls[id] || project.pieces[id] || project.columns[id] || project.rooflights[id]);
  const pieces = ids.filter((id) => project.pieces[id]);
  const openings = ids.filter((id) => project.openings[id] && project.openings[id].kind !== 'niche');
  const [gap, setGap] = useState(0.1);
  const first = status.length
    ? (project.walls[status[0]] ?? project.openings[status[0]] ?? project.columns[status[0]] ?? project.rooflights[status[0]] ?? project.pieces[status[0]])
    : null;
  // What hangs from the ceiling is not replaced by what stands on the floor.
  const mounts = new Set(pieces.map((id) => stockItem(project.pieces[id].maker)?.mount));
  const mount = pieces.length === ids.length && mounts.size === 1 ? [...mounts][0] : undefined;
  return (
    <>
      {carried ? (
        <>
          <Row label="To the right">
            <LengthField label="To the right" metres={by.x} units={units} onRefuse={say} onCommit={(x) => setBy({ ...by, x })} />
          </Row>
          <Row label="Upwards">
            <LengthField label="Upwards" metres={by.y} units={units} onRefuse={say} onCommit={(y) => setBy({ ...by, y })} />
          </Row>
          <Row label="Turned, °">
            <NumberField label="Turned, degrees" value={turn} min={-360} max={360} onRefuse={say} onCommit={setTurn} />
          </Row>
        </>
      ) : null}
      {pieces.length > 1 ? (
        <Box component="section" aria-label="In one line">
          <Row label="In one line">with the first</Row>
          <Presses>
            {LINES.map(([line, word]) => (
              <Showing key={line} worked={() => arranging.inOneLine(line)}>
                {word}
              </Showing>
            ))}
          </Presses>
          <Row label="Gap">
            <LengthField label="Gap between them" metres={gap} units={units} onRefuse={say} onCommit={setGap} />
          </Row>
          <Presses>
            <Showing worked={() => arranging.evenly(gap)}>With this gap</Showing>
            {pieces.length > 2 ? <Showing worked={() => arranging.evenly(null)}>Even gaps</Showing> : null}
          </Presses>
        </Box>
      ) : null}
      {pieces.length > 1 && pieces.length === ids.length ? <SetRows /> : null}
      {openings.length === ids.length ? <DressRows key={openings.join(' ')} openings={openings} /> : null}
      {mount ? <ReplaceRow key={pieces.join(' ')} pieces={pieces} mount={mount} /> : null}
      {walls.length ? (
        <Row label="Build-up">
          <Choice
            bare
            label="Build-up of these walls"
            value={project.walls[walls[0]].type ?? 'plain'}
            options={[['plain', 'one layer'], ...Object.values(project.wallTypes).map((t) => [t.id, t.name] as const)]}
            onChoose={(v) =>
              void run('wall.build', {
                walls,
                type: v === 'plain' ? null : v,
                thickness: v === 'plain' ? (project.walls[walls[0]].thickness ?? 0.1) : null,
                keep: 'middle',
              })
            }
          />
        </Row>
      ) : null}
      {first ? (
        <Row label="Status">
          <Choice bare label="Status" value={first.status} options={STATUS_NAMES} onChoose={(s) => void run('status.set', { ids: status, status: s })} />
        </Row>
      ) : null}
      <Actions>
        {carried ? (
          <>
            <Button size="small" onClick={() => tools.carryCopies(by, (turn * Math.PI) / 180, false)}>
              Move
            </Button>
            <Button size="small" onClick={() => tools.carryCopies(by, (turn * Math.PI) / 180, true)}>
              Copy
            </Button>
            <Button size="small" onClick={() => tools.mirrorSelection('x')}>
              Mirror
            </Button>
          </>
        ) : null}
        {walls.length === 2 && ids.length === 2 ? (
          <Button size="small" onClick={() => run('wall.join', { a: walls[0], b: walls[1] })}>
            Join
          </Button>
        ) : null}
      </Actions>
    </>
  );
}

/** Pieces that are kept together, or could be. */
function SetRows() {
  const { run } = useEdit();
  useStudio((s) => s.project.contents);
  const own = tools.chosenSet();
  const library = useLibrary((s) => s.entries);
  if (!own)
    return (
      <Presses>
        <Button size="small" onClick={tools.keepTogether}>
          Keep together
        </Button>
      </Presses>
    );
  return (
    <Box component="section" aria-label="Set">
      <Row label="Set">
        <TextField label="Name of the set" value={own.name} onCommit={(name) => run('thing.rename', { id: own.id, name })} />
      </Row>
      {library.some((e) => e.kind === 'set' && e.name === own.name) ? <Row label="Library">kept under Sets</Row> : null}
      <Presses>
        <Button size="small" onClick={() => tools.openSet(own.id)}>
          Open the set
        </Button>
        <Button size="small" onClick={() => void tools.keepSet(own.id)}>
          {library.some((e) => e.kind === 'set' && e.name === own.name) ? 'Keep it anew' : 'Keep in the library'}
        </Button>
        <Button size="small" onClick={() => tools.partSet(own.id)}>
          Part the set
        </Button>
      </Presses>
    </Box>
  );
}
