'use client';
import { addressOf, type Target } from '@/core/project/targets';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useDeferredValue } from 'react';
import { Swatches } from '../docket/parts';
import { Row } from '../look/fields';
import { colours } from '../look/theme';
import { useStudio } from '../store/studio';
import { finishAt } from '../tools/finishing';
import { useFinishing } from './finishing';
import { LayingRows } from './LayingRows';
import { RoomMouldings } from './MouldingDocket';

type OnRoom = Extract<Target, { kind: 'wall' | 'floor' | 'ceiling' }>;

/** A face in the finishing stage: its finish, how it is laid, what lies on it, the mouldings of its room. */
export function FaceDocket({ target }: { target: OnRoom }) {
  const model = useDeferredValue(useStudio((s) => s.model));
  const project = useStudio((s) => s.project);
  const tool = useStudio((s) => s.tool);
  const address = addressOf(target);
  const face = model.shell.levels.flatMap((l) => l.faces).find((f) => f.address === address);
  const finish = finishAt(target);
  const state = useStudio.getState;
  return (
    <>
      <Swatches
        items={[
          ...(finish ? [{ label: 'this face', finish, target }] : []),
          ...(target.kind === 'wall'
            ? [
                {
                  label: 'all walls',
                  finish: (target.room ? project.rooms[target.room]?.walls : project.outside.walls) ?? 'bare.plaster',
                  target: { kind: 'walls' as const, room: target.room },
                },
              ]
            : []),
        ]}
      />
      <LayingRows key={address} target={target} />
      {face?.patches.length ? (
        <Row label="On it">
          <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 1 }}>
            {face.patches.map(({ patch }) => (
              <Box
                key={patch.id}
                component="button"
                onClick={() => state().select([{ entity: patch.id, target: { kind: 'patch', patch: patch.id, part: 'field' } }])}
                sx={{
                  all: 'unset',
                  cursor: 'pointer',
                  borderBottom: `1px solid ${colours.third}`,
                  '&:focus-visible': { outline: `2px solid ${colours.damson}` },
                }}
              >
                {patch.name}
              </Box>
            ))}
          </Box>
        </Row>
      ) : null}
      {target.kind === 'wall' ? (
        <Box sx={{ display: 'flex', gap: 0.5, mt: 1, flexWrap: 'wrap' }}>
          <Button size="small" onClick={() => useStudio.setState({ elevation: { wall: target.wall, side: target.side, room: target.room } })}>
            In elevation
          </Button>
          <Button
            size="small"
            aria-pressed={tool.kind === 'treat' && !tool.mirrored}
            onClick={() => state().setTool({ kind: 'treat', from: target, mirrored: false })}
          >
            Copy onto…
          </Button>
          <Button
            size="small"
            aria-pressed={tool.kind === 'treat' && tool.mirrored}
            onClick={() => state().setTool({ kind: 'treat', from: target, mirrored: true })}
          >
            Mirrored onto…
          </Button>
        </Box>
      ) : null}
      {target.kind === 'floor' ? (
        <Button
          size="small"
          sx={{ mt: 1 }}
          onClick={() => state().setTool({ kind: 'outline', make: { what: 'patch', finish: useFinishing.getState().recent[0] ?? 'tile.riven-slate' } })}
        >
          Draw a patch
        </Button>
      ) : null}
      {target.room ? <RoomMouldings room={target.room} /> : null}
    </>
  );
}
