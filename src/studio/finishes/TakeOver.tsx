'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMemo } from 'react';
import { takingOver } from '@/core/schedules/schemes';
import { counted } from '@/core/units/text';
import { colours, SERIF } from '../look/theme';
import { errorText } from '../store/sync';
import { useStudio } from '../store/studio';
import { modelWork } from '../work/model';
import { useWork } from '../work/useWork';
import { Side } from './Compare';
import { close, Sheet } from './Sheet';
import { useFinishing } from './finishing';

/** What a kept scheme would change, room by room, with the house before and after; it is taken over only when one says so. */
export function TakeOver() {
  const project = useStudio((s) => s.project);
  const taking = useFinishing((s) => s.taking)!;
  const look = useMemo(() => {
    try {
      return takingOver(project, taking.id, taking.kit);
    } catch (error) {
      return errorText(error);
    }
  }, [project, taking]);
  const { value: costs } = useWork(
    () =>
      typeof look === 'string'
        ? Promise.resolve(null)
        : modelWork()
            .ask('compare', look.project, (s) => s.compare(project.scheme, taking.id))
            .then((c) => c.costs),
    [look, project.scheme, taking.id],
  );
  if (typeof look === 'string')
    return (
      <Sheet title="Take a scheme over" width={420}>
        {look}
      </Sheet>
    );
  const { name } = look.project.schemes[taking.id];
  const nothing = look.rooms.length === 0;
  return (
    <Sheet
      title={`Take over: ${taking.kit.name}`}
      width="100%"
      actions={
        <Button
          size="small"
          variant="contained"
          onClick={() => {
            const { run, tell } = useStudio.getState();
            if (!run('scheme.from-kit', taking)) return;
            close();
            tell(
              `${name} is in hand: ${nothing ? 'nothing changed' : `${counted(look.rooms.length, 'room')} changed`}. ${project.schemes[project.scheme].name} is kept beside it.`,
            );
          }}
        >
          Take over
        </Button>
      }
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 300px', gap: 2, height: '100%', minHeight: 0 }}>
        <Side
          project={look.project}
          id={project.scheme}
          cost={costs?.[0] ?? null}
          head={<b>Before: {project.schemes[project.scheme].name}</b>}
          pictured={false}
        />
        <Side project={look.project} id={taking.id} cost={costs?.[1] ?? null} head={<b>After: {name}</b>} pictured={false} />
        <Box sx={{ overflow: 'auto', fontSize: 12 }} role="region" aria-label="What changes" tabIndex={0}>
          <Box sx={{ color: colours.second, mb: 0.5 }}>
            {nothing ? 'Nothing changes: every room has this already.' : `${counted(look.rooms.length, 'room')} will change.`}{' '}
            {look.kept
              ? `${counted(look.kept, 'other choice')} of finishes ${look.kept === 1 ? 'stays' : 'stay'} as ${look.kept === 1 ? 'it is' : 'they are'}.`
              : null}{' '}
            A scheme of its own is made; the one in hand now stays on the list.
          </Box>
          {look.rooms.map(({ room, name: called, changes }) => (
            <Box key={room} component="section" aria-label={called} sx={{ borderTop: `1px solid ${colours.hairline}`, py: '4px' }}>
              <Box component="h3" sx={{ m: 0, font: `15px ${SERIF}` }}>
                {called}
              </Box>
              {changes.map((c, i) => (
                <Box key={i} sx={{ display: 'grid', gridTemplateColumns: '72px 1fr', columnGap: 1 }}>
                  <span style={{ color: colours.third }}>{c.what}</span>
                  <span>
                    <span style={{ color: colours.second }}>{c.first || 'bare'}</span> → {c.second}
                  </span>
                </Box>
              ))}
            </Box>
          ))}
        </Box>
      </Box>
    </Sheet>
  );
}
