'use client';
import Box from '@mui/material/Box';
import Link from 'next/link';
import type { Project } from '@/core/project/schema';
import { Mark } from '../look/Look';
import { colours } from '../look/theme';
import { STAGES, useStudio, type Stage } from '../store/studio';

/** Whether anything has been done in a stage yet. */
function worked(project: Project, stage: Stage): boolean {
  const some = (record: object): boolean => Object.keys(record).length > 0;
  switch (stage) {
    case 'Shell':
      return some(project.walls);
    case 'Fit-out':
      return some(project.pieces);
    case 'Finishes':
      return Object.values(project.rooms).some((r) => r.floor || r.walls || r.ceiling || some(r.faces));
    case 'Light':
      return Object.values(project.pieces).some((p) => p.lamp);
    case 'Views':
      return some(project.viewpoints) || some(project.pictures);
    case 'Boards':
      return some(project.boards);
    case 'Schedules':
      return some(project.rooms);
  }
}

/** The stages of the job as stations on one line; it reports and never blocks. */
export function Spine() {
  const stage = useStudio((s) => s.stage);
  const project = useStudio((s) => s.project);
  return (
    <Box component="nav" aria-label="Stages" sx={{ gridRow: '1 / 5', bgcolor: colours.panel, borderRight: `1px solid ${colours.hairline}` }}>
      <Link href="/" aria-label="All projects" style={{ height: 82, display: 'grid', placeItems: 'center' }}>
        <Mark />
      </Link>
      <Box component="ul" sx={{ listStyle: 'none', m: 0, ml: '20px', p: '4px 0', borderLeft: `1px solid ${colours.faint}` }}>
        {STAGES.map((s) => {
          const on = s === stage;
          const done = worked(project, s);
          return (
            <li key={s}>
              <Box
                component="button"
                aria-current={on ? 'step' : undefined}
                aria-label={`${s}${done ? ', worked on' : ', untouched'}`}
                onClick={() => useStudio.getState().setStage(s)}
                sx={{
                  all: 'unset',
                  cursor: 'pointer',
                  display: 'block',
                  position: 'relative',
                  p: '12.5px 4px 12.5px 12px',
                  fontSize: 12.5,
                  color: on ? colours.damson : colours.second,
                  fontWeight: on ? 650 : 400,
                  '&:focus-visible': { outline: `2px solid ${colours.damson}`, outlineOffset: -2 },
                  '&::before': {
                    content: '""',
                    position: 'absolute',
                    left: -4.5,
                    top: 17,
                    width: 8,
                    height: 8,
                    boxSizing: 'border-box',
                    transform: 'rotate(45deg)',
                    border: `1px solid ${on ? colours.damson : colours.third}`,
                    bgcolor: on ? colours.damson : done ? colours.third : colours.panel,
                    boxShadow: on ? `0 0 0 3px ${colours.panel}, 0 0 0 4px ${colours.damson}` : 'none',
                  },
                }}
              >
                {s}
              </Box>
            </li>
          );
        })}
      </Box>
    </Box>
  );
}
