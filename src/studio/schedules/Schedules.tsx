'use client';
import { knowsFinish } from '@/core/finishes/store';
import { collectionOf } from '@/core/project/things';
import { takeFinish } from '../tools/finishing';
import { fileName } from '@/core/units/text';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { useState } from 'react';
import type { ColumnKind } from '@/core/schedules/list';
import { scheduleLists, written } from '@/core/schedules/lists';
import { toCsv } from '@/core/schedules/rooms';
import { useErrands } from '../errands/errands';
import { errorText } from '../store/sync';
import { arrowThrough } from '../look/focus';
import { colours, SERIF } from '../look/theme';
import { useStudio } from '../store/studio';
import { Tabs } from '../ledge/cards';
import { modelWork } from '../work/model';
import { useWork } from '../work/useWork';

type Row = Record<string, unknown> & { id: string };
const NONE: Row[] = [];

const LISTS = scheduleLists();
const NAMES = Object.keys(LISTS);
const TITLES = NAMES.map((name) => LISTS[name].title);

/** Figures stand under one another by their last digit, each on one line. */
const RIGHT = { textAlign: 'right', whiteSpace: 'nowrap', fontVariantNumeric: 'tabular-nums' } as const;
const FIGURES = new Set<ColumnKind>(['length', 'area', 'count', 'degrees', 'volume', 'cloth', 'money', 'lrv', 'share', 'figure']);

/** The schedules, always current; a row leads to what it counts. */
export function Schedules() {
  const model = useStudio((s) => s.model);
  const { units, money } = model.project;
  const [name, setName] = useState('rooms');
  const list = LISTS[name];
  const { phase } = model.shell;
  const { value, busy } = useWork(
    async () => ({ name, rows: (await modelWork().ask('rows', model.project, (s) => s.rows(name, phase))) as Row[] }),
    [model.project, name, phase],
  );
  const rows = value?.name === name ? value.rows : NONE;
  /** As the project is now, also where the table on the screen is still being worked out. */
  const save = async (): Promise<void> => {
    const title = `${list.title} as CSV`;
    try {
      const made = await useErrands.getState().carry(title, (_, tell) => {
        tell('Working it out');
        return modelWork().ask('csv', model.project, (s) => s.rows(name, phase));
      });
      if (!made) return;
      const url = URL.createObjectURL(new Blob([toCsv(made as Row[])], { type: 'text/csv' }));
      const link = document.createElement('a');
      link.href = url;
      link.download = fileName(model.project.name, list.title.toLowerCase(), new Date(), '.csv');
      link.click();
      setTimeout(() => URL.revokeObjectURL(url), 1000);
    } catch (error) {
      useStudio.getState().say(errorText(error));
    }
  };
  const go = (id: string): void => {
    const state = useStudio.getState();
    if (state.project.rooms[id]) state.setRoom(id);
    else if (knowsFinish(state.project, id)) {
      state.setStage('Finishes');
      takeFinish(id);
    } else if (collectionOf(state.project, id)) state.select([{ entity: id, target: null }]);
  };
  const { project } = model;
  /** Whether a row leads to something in the project. */
  const leads = (id: string): boolean => Boolean(project.rooms[id]) || knowsFinish(project, id) || collectionOf(project, id) !== null;
  const first = rows.findIndex((row) => leads(row.id));
  const single = list.title.replace(/(?<=sh)es$|s$/, '');
  return (
    <Box sx={{ bgcolor: colours.paper, height: '100%', overflow: 'auto', p: '14px 28px 20px' }} aria-busy={busy}>
      <Tabs tabs={TITLES} tab={list.title} onTab={(title) => setName(NAMES[TITLES.indexOf(title)])} />
      <Box sx={{ display: 'flex', alignItems: 'center', mt: 1.5, mb: 1 }}>
        <Box component="h2" sx={{ font: `26px ${SERIF}`, m: 0, flex: 1 }}>
          {list.title}
        </Box>
        <Button onClick={() => void save()} disabled={!rows.length}>
          Save as CSV
        </Button>
      </Box>
      {list.note ? <Box sx={{ maxWidth: 820, mb: 1.5, color: colours.third }}>{list.note}</Box> : null}
      {/* A wide table scrolls within itself; the page stays where it is. */}
      <Box sx={{ overflowX: 'auto' }}>
        <Table size="small" aria-label={`${single} schedule`} sx={{ '& td, & th': { px: 1 } }}>
          <TableHead>
            <TableRow>
              {list.columns.map((c) => (
                <TableCell key={c.key} sx={FIGURES.has(c.kind) ? RIGHT : undefined}>
                  {c.title}
                </TableCell>
              ))}
            </TableRow>
          </TableHead>
          <TableBody onKeyDown={(e) => void arrowThrough(e, 'tr[tabindex]', 'down')}>
            {rows.map((row, n) => (
              <TableRow
                key={`${row.id} ${n}`}
                {...(leads(row.id)
                  ? {
                      hover: true,
                      // One stop of the tab key for all rows; the arrows go from one to the next.
                      tabIndex: n === first ? 0 : -1,
                      onClick: () => go(row.id),
                      onKeyDown: (e: React.KeyboardEvent) => e.key === 'Enter' && go(row.id),
                    }
                  : {})}
                sx={{ cursor: leads(row.id) ? 'pointer' : undefined, '&:focus-visible': { outline: `2px solid ${colours.damson}`, outlineOffset: -2 } }}
              >
                {list.columns.map((c, i) => (
                  <TableCell key={c.key} sx={{ ...(i === 0 ? { fontWeight: 550 } : {}), ...(FIGURES.has(c.kind) ? RIGHT : {}) }}>
                    {written(c.kind, row[c.key], units, money) || (['floor', 'walls', 'ceiling'].includes(c.key) ? 'none yet' : '')}
                  </TableCell>
                ))}
              </TableRow>
            ))}
            {rows.length ? (
              <TableRow>
                {list.columns.map((c, i) => (
                  <TableCell key={c.key} sx={{ fontWeight: 600, ...(FIGURES.has(c.kind) ? RIGHT : {}) }}>
                    {c.sum
                      ? written(
                          c.kind,
                          rows.reduce((sum, row) => sum + Number(row[c.key] || 0), 0),
                          units,
                          money,
                        )
                      : i === 0
                        ? 'In all'
                        : ''}
                  </TableCell>
                ))}
              </TableRow>
            ) : null}
          </TableBody>
        </Table>
      </Box>
      {rows.length ? null : <Box sx={{ mt: 2 }}>{busy ? 'Counting…' : list.empty}</Box>}
    </Box>
  );
}
