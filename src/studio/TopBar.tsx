'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import Popover from '@mui/material/Popover';
import Tooltip from '@mui/material/Tooltip';
import { ArrowUUpLeftIcon, ArrowUUpRightIcon } from '@phosphor-icons/react';
import { useMemo, useState } from 'react';
import { counted, cutText } from '@/core/units/text';
import { TextField } from './look/fields';
import { arrowThrough } from './look/focus';
import { Choice } from './look/Choice';
import { colours, SERIF } from './look/theme';
import { Warn } from './look/Warn';
import { ErrandList } from './errands/ErrandList';
import { PictureLine } from './views/PictureLine';
import { useErrands } from './errands/errands';
import { api } from './store/api';
import { modelWork, Superseded } from './work/model';
import { useWork } from './work/useWork';
import { useStudio } from './store/studio';
import { useBoard } from './boards/board';

const time = (date: Date): string => new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' }).format(date);

/** Name and state of the project, findings, undo and redo, units, hand-over. */
export function TopBar({ onActions, onContents }: { onActions(): void; onContents(): void }) {
  const name = useStudio((s) => s.project.name);
  const units = useStudio((s) => s.project.units);
  const { status, keptAt, undo, redo, earlier } = useStudio((s) => s.sync);
  const { run, undo: back, redo: forward } = useStudio.getState();
  const id = useStudio((s) => s.id);
  const [menu, setMenu] = useState<HTMLElement | null>(null);
  const board = useBoard((s) => s.board);
  const page = useBoard((s) => s.page);
  const handOver = (kind: string, query = ''): void =>
    void useErrands.getState().follow(
      () => api.beginExport(id, kind, query),
      (message) => useStudio.getState().say(message),
    );
  const words = {
    kept: keptAt ? `kept ${time(keptAt)}` : 'kept',
    keeping: 'keeping…',
    offline: 'offline: kept in this browser',
    held: 'waiting: kept in this browser',
  }[status];
  return (
    <Box
      component="header"
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: '16px',
        px: '18px',
        borderBottom: `1px solid ${colours.hairline}`,
        bgcolor: colours.panel,
        gridColumn: 2,
        minWidth: 0,
      }}
    >
      <Box
        sx={{
          minWidth: 0,
          fontSize: 23,
          '& input': { font: `23px ${SERIF}`, p: 0, fieldSizing: 'content', minWidth: 60, maxWidth: 340 },
          '& .MuiInput-root::before': { display: 'none' },
        }}
      >
        <TextField
          label="Name of the project"
          value={name}
          onCommit={(text) => (text.trim() ? run('project.rename', { name: cutText(text.trim(), 120) }) : false)}
        />
      </Box>
      <Box role="status" aria-label="Saving" data-testid="kept" sx={{ color: colours.third, fontSize: 12, whiteSpace: 'nowrap' }}>
        {words}
      </Box>
      <Box sx={{ flex: 1, minWidth: 0, display: 'flex', justifyContent: 'flex-end' }}>
        <ErrandList />
        <PictureLine />
      </Box>
      <Findings />
      <Box sx={{ display: 'flex' }}>
        <Tooltip
          title={undo.length ? `Undo: ${undo.at(-1)!.title}` : earlier ? 'Nothing to undo: earlier steps were made with an earlier version' : 'Nothing to undo'}
        >
          <span>
            <IconButton aria-label={undo.length ? `Undo: ${undo.at(-1)!.title}` : 'Undo'} disabled={!undo.length} onClick={back}>
              <ArrowUUpLeftIcon size={18} />
            </IconButton>
          </span>
        </Tooltip>
        <Tooltip title={redo.length ? `Redo: ${redo.at(-1)!.title}` : 'Nothing to redo'}>
          <span>
            <IconButton aria-label={redo.length ? `Redo: ${redo.at(-1)!.title}` : 'Redo'} disabled={!redo.length} onClick={forward}>
              <ArrowUUpRightIcon size={18} />
            </IconButton>
          </span>
        </Tooltip>
      </Box>
      <Tooltip title="Millimetres, or feet and inches">
        <Button
          onClick={() => run('project.units', { units: units === 'metric' ? 'imperial' : 'metric' })}
          aria-label={`Units: ${units}, ${units === 'metric' ? 'mm' : 'ft in'}`}
        >
          {units === 'metric' ? 'mm' : 'ft in'}
        </Button>
      </Tooltip>
      <Button variant="outlined" onClick={onContents}>
        Contents
      </Button>
      <Button onClick={onActions}>Actions</Button>
      <Button variant="contained" onClick={(e) => setMenu(e.currentTarget)} aria-haspopup="menu">
        Hand over
      </Button>
      <Menu anchorEl={menu} open={Boolean(menu)} onClose={() => setMenu(null)} onClick={() => setMenu(null)}>
        <MenuItem onClick={() => handOver('glb')}>Model as GLB</MenuItem>
        <MenuItem onClick={() => handOver('file')}>Project file</MenuItem>
        <MenuItem onClick={() => handOver('pdf', board ? `?board=${board}` : '')} disabled={!board}>
          Board as PDF
        </MenuItem>
        <MenuItem onClick={() => handOver('png', `?board=${board}${page ? `&page=${page}` : ''}`)} disabled={!board}>
          Page as PNG
        </MenuItem>
      </Menu>
    </Box>
  );
}

/** By which figures the room beside furniture is checked. */
const CLEARANCE_NAMES = [
  ['close', 'a close fit'],
  ['usual', 'as usual'],
  ['wheelchair', 'for a wheelchair'],
] as const;

function Findings() {
  const model = useStudio((s) => s.model);
  // What a drag shows is looked at once it stays: the drawing comes first.
  const moving = useStudio((s) => s.model.project !== s.project);
  const room = useStudio((s) => s.room);
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const { phase } = model.shell;
  const { value } = useWork(
    () => (moving ? Promise.reject(new Superseded('findings')) : modelWork().ask('findings', model.project, (s) => s.findings(phase))),
    [model.project, phase, moving],
  );
  const list = useMemo(() => {
    const all = value ?? [];
    return room
      ? all.filter((f) => !f.ids.length || f.ids.includes(room) || f.ids.some((id) => model.shell.rooms.get(room)?.sides.some((s) => s.openings.includes(id))))
      : all;
  }, [value, model, room]);
  return (
    <>
      <Button variant="text" onClick={(e) => setAnchor(e.currentTarget)} sx={{ gap: '7px', color: colours.ink }}>
        {list.length ? <Warn /> : null} {value ? counted(list.length, 'finding') : 'Looking through it…'}
      </Button>
      <Popover
        open={Boolean(anchor)}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'right' }}
        transformOrigin={{ vertical: 'top', horizontal: 'right' }}
      >
        <Box sx={{ p: '8px 16px 0', fontSize: 12.5, color: colours.third }}>
          <Choice
            label="Room beside furniture"
            value={model.project.clearances}
            options={CLEARANCE_NAMES}
            onChoose={(clearances) => void useStudio.getState().run('project.clearances', { clearances })}
          />
        </Box>
        <Box
          component="ul"
          aria-label="Findings"
          onKeyDown={(e: React.KeyboardEvent<HTMLElement>) => void arrowThrough(e, 'button', 'down')}
          sx={{ listStyle: 'none', m: 0, p: 1, width: 380, maxHeight: 420, overflow: 'auto' }}
        >
          {list.map((f, i) => (
            <li key={i}>
              <Box
                component="button"
                autoFocus={i === 0}
                onClick={() => {
                  const { project, setRoom, select, setStage } = useStudio.getState();
                  const first = f.ids[0];
                  // A surface leads to the stage in which it is given its finish.
                  if (f.target) {
                    setStage('Finishes');
                    select([{ entity: first ?? '', target: f.target }]);
                  } else if (project.rooms[first]) setRoom(first);
                  else if (first) select([{ entity: first, target: null }]);
                  setAnchor(null);
                }}
                sx={{
                  all: 'unset',
                  cursor: 'pointer',
                  display: 'flex',
                  gap: 1,
                  p: '6px 8px',
                  fontSize: 12.5,
                  width: '100%',
                  boxSizing: 'border-box',
                  '&:hover': { bgcolor: colours.strip },
                  '&:focus-visible': { outline: `2px solid ${colours.damson}` },
                }}
              >
                <Box sx={{ pt: '3px' }}>
                  <Warn />
                </Box>
                {f.message}
              </Box>
            </li>
          ))}
        </Box>
      </Popover>
    </>
  );
}
