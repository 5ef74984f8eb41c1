'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { useMemo } from 'react';
import { roomSchedule, toCsv } from '@/core/schedules/rooms';
import { formatArea, formatLength } from '@/core/units/length';
import { SERIF } from '../look/theme';
import { useStudio } from '../store/studio';

/** The room schedule, always current. */
export function Schedules() {
  const model = useStudio((s) => s.model);
  const units = model.project.units;
  const rows = useMemo(() => roomSchedule(model), [model]);
  const save = (): void => {
    const url = URL.createObjectURL(new Blob([toCsv(rows)], { type: 'text/csv' }));
    const link = document.createElement('a');
    link.href = url;
    link.download = `${model.project.name}, rooms.csv`;
    link.click();
    setTimeout(() => URL.revokeObjectURL(url), 1000);
  };
  return (
    <Box sx={{ bgcolor: '#fff', height: '100%', overflow: 'auto', p: '20px 28px' }}>
      <Box sx={{ display: 'flex', alignItems: 'center', mb: 1 }}>
        <Box component="h2" sx={{ font: `26px ${SERIF}`, m: 0, flex: 1 }}>
          Rooms
        </Box>
        <Button onClick={save} disabled={!rows.length}>
          Save as CSV
        </Button>
      </Box>
      <Table size="small" aria-label="Room schedule">
        <TableHead>
          <TableRow>
            {['Room', 'Level', 'Area', 'Perimeter', 'Height', 'Walls, net', 'Doors', 'Windows', 'Floor', 'Wall finish', 'Ceiling'].map((h) => (
              <TableCell key={h}>{h}</TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody>
          {rows.map((r) => (
            <TableRow key={r.id} hover onClick={() => useStudio.getState().setRoom(r.id)} sx={{ cursor: 'pointer' }}>
              <TableCell sx={{ fontWeight: 550 }}>{r.name}</TableCell>
              <TableCell>{r.level}</TableCell>
              <TableCell>{formatArea(r.area, units)}</TableCell>
              <TableCell>{formatLength(r.perimeter, units)}</TableCell>
              <TableCell>{formatLength(r.height, units)}</TableCell>
              <TableCell>{formatArea(r.wallArea, units)}</TableCell>
              <TableCell>{r.doors}</TableCell>
              <TableCell>{r.windows}</TableCell>
              <TableCell>{r.floor || 'none yet'}</TableCell>
              <TableCell>{r.walls || 'none yet'}</TableCell>
              <TableCell>{r.ceiling || 'none yet'}</TableCell>
            </TableRow>
          ))}
          {rows.length ? (
            <TableRow>
              <TableCell sx={{ fontWeight: 600 }}>In all</TableCell>
              <TableCell />
              <TableCell sx={{ fontWeight: 600 }}>
                {formatArea(
                  rows.reduce((s, r) => s + r.area, 0),
                  units,
                )}
              </TableCell>
              <TableCell colSpan={8} />
            </TableRow>
          ) : null}
        </TableBody>
      </Table>
      {rows.length ? null : <Box sx={{ mt: 2 }}>No room yet: rooms are listed here as soon as walls close round them.</Box>}
    </Box>
  );
}
