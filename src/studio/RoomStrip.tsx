'use client';
import Box from '@mui/material/Box';
import { memo } from 'react';
import { formatArea } from '@/core/units/length';
import { AddLevel } from './AddLevel';
import { arrowThrough } from './look/focus';
import { colours, UNSEEN } from './look/theme';
import { useStudio } from './store/studio';

/** One room: drawn again only when its name, its area or its being in hand changes. */
const Chip = memo(function Chip({ id, name, area, on }: { id: string | null; name: string; area?: string; on: boolean }) {
  return (
    <Box
      component="button"
      aria-pressed={on}
      onClick={() => useStudio.getState().setRoom(id)}
      sx={{
        all: 'unset',
        cursor: 'pointer',
        whiteSpace: 'nowrap',
        p: '2px 11px',
        border: `1px solid ${on ? colours.damson : colours.firm}`,
        borderRadius: '11px',
        bgcolor: on ? colours.damsonTint : colours.paper,
        color: on ? colours.damson : colours.second,
        fontWeight: on ? 600 : 400,
        '& em': { fontStyle: 'normal', color: on ? 'inherit' : colours.third, ml: '5px' },
        '&:focus-visible': { outline: `2px solid ${colours.damson}` },
      }}
    >
      {name}
      {/* Read as a pause, not shown: the gap shows it. */}
      {area ? <span style={UNSEEN}>, </span> : null}
      {area ? <em>{area}</em> : null}
    </Box>
  );
});

/** The level, then its rooms; the one in hand narrows everything else to it. */
export function RoomStrip() {
  const model = useStudio((s) => s.model);
  const level = useStudio((s) => s.level);
  const room = useStudio((s) => s.room);
  // Ducts are no rooms for people.
  const rooms = (model.shell.levels.find((l) => l.id === level)?.rooms ?? []).filter((r) => r.room.use !== 'duct');
  return (
    <Box
      component="nav"
      aria-label="Level and rooms"
      onKeyDown={(e: React.KeyboardEvent<HTMLElement>) => void arrowThrough(e, 'button', 'across')}
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: '8px',
        px: '18px',
        bgcolor: colours.strip,
        borderBottom: `1px solid ${colours.hairline}`,
        fontSize: 12.5,
        gridColumn: 2,
        overflowX: 'auto',
        scrollbarWidth: 'none',
      }}
    >
      <Box sx={{ display: 'flex', mr: 1.25 }}>
        {model.shell.levels.map((l) => (
          <Box
            key={l.id}
            component="button"
            aria-current={l.id === level}
            onClick={() => {
              useStudio.setState({ level: l.id, room: null });
              useStudio.getState().select([{ entity: l.id, target: null }]);
            }}
            sx={{
              all: 'unset',
              cursor: 'pointer',
              p: '3px 9px 1px',
              ...(l.id === level ? { fontWeight: 600, borderBottom: `2px solid ${colours.ink}` } : { color: colours.second }),
            }}
          >
            {l.level.name}
          </Box>
        ))}
        <AddLevel />
      </Box>
      <Chip name="Whole level" on={!room} id={null} />
      {rooms.map((r) => (
        <Chip key={r.id} name={r.room.name} area={formatArea(r.area, model.project.units)} on={r.id === room} id={r.id} />
      ))}
      {rooms.length ? null : <Box sx={{ color: colours.third }}>Rooms appear here as soon as walls close round them.</Box>}
    </Box>
  );
}
