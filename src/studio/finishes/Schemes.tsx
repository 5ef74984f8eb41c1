'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import { XIcon } from '@phosphor-icons/react';
import { useEffect } from 'react';
import { meanHex } from '@/core/finishes/finish';
import { hueOf } from '@/core/finishes/match';
import { finishIn } from '@/core/finishes/store';
import { withScheme } from '@/core/project/choices';
import { kitOf } from '@/core/project/scheme-kit';
import type { Scheme, StartRole } from '@/core/project/schema';
import { useEdit } from '../docket/parts';
import { TextField } from '../look/fields';
import { colours } from '../look/theme';
import { newId, useStudio } from '../store/studio';
import { Sheet } from './Sheet';
import { useFinishing } from './finishing';
import { forget, keepInLibrary, readLibrary, useLibrary } from '../store/library';

/** The schemes of a project in their order. */
export const ordered = (schemes: Record<string, Scheme>): Scheme[] => Object.values(schemes).sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1));

const ROLE_WORDS: Record<StartRole, string> = { floor: 'floors', wall: 'walls', ceiling: 'ceilings', joinery: 'joinery', worktop: 'worktops', metal: 'metal' };

/** The schemes of a project: which is in hand, what each starts new rooms with; and what the client does not like. */
export function Schemes() {
  const project = useStudio((s) => s.project);
  const tool = useStudio((s) => s.tool);
  const { run } = useEdit();
  const inHand = tool.kind === 'finish' ? tool.finish : null;
  const all = ordered(project.schemes);
  const hue = inHand ? hueOf(meanHex(finishIn(project, inHand))) : null;
  return (
    <Sheet
      title="Schemes"
      width={480}
      actions={
        all.length > 1 ? (
          <Button size="small" onClick={() => useFinishing.setState({ panel: 'compare' })}>
            Side by side
          </Button>
        ) : null
      }
    >
      <Box sx={{ color: colours.second, mb: 1 }}>
        A scheme is every finish of the house under one name. The one in hand is shown, and what you choose now belongs to it; the others wait as they were
        left.
      </Box>
      {all.map((scheme) => {
        const on = scheme.id === project.scheme;
        return (
          <Box key={scheme.id} sx={{ borderTop: `1px solid ${colours.hairline}`, py: 1 }}>
            <Box sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
              <Button size="small" aria-pressed={on} onClick={() => run('scheme.choose', { id: scheme.id })}>
                {on ? 'In hand' : 'Take in hand'}
              </Button>
              <Box sx={{ flex: 1 }}>
                <TextField label="Name of the scheme" value={scheme.name} onCommit={(name) => run('scheme.set', { id: scheme.id, set: { name } })} />
              </Box>
              <Button size="small" onClick={() => run('scheme.add', { id: newId('scheme'), name: `${scheme.name}, copy`, from: scheme.id })}>
                Duplicate
              </Button>
              <Button
                size="small"
                title="Keep it by roles, for other projects"
                onClick={() => void keepInLibrary({ kind: 'scheme', name: scheme.name, data: kitOf(withScheme(project, scheme.id)) })}
              >
                Keep
              </Button>
              {on ? null : (
                <Button size="small" onClick={() => run('scheme.delete', { id: scheme.id })}>
                  Delete
                </Button>
              )}
            </Box>
            <Starts scheme={scheme} inHand={inHand} />
          </Box>
        );
      })}
      <Box sx={{ borderTop: `1px solid ${colours.hairline}`, pt: 1 }}>
        <Button size="small" onClick={() => run('scheme.add', { id: newId('scheme'), name: `Scheme ${all.length + 1}`, from: null })}>
          An empty scheme
        </Button>
        <FromLibrary />
        <Box sx={{ color: colours.third, mt: 1.5 }}>What the client does not like</Box>
        {project.dislikes.map((d, i) => (
          <Box key={i} sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
            <Box
              sx={{
                width: 60,
                height: 14,
                background: `linear-gradient(to right, oklch(0.65 0.14 ${d.from}), oklch(0.65 0.14 ${d.from <= d.to ? (d.from + d.to) / 2 : (d.from + d.to + 360) / 2}), oklch(0.65 0.14 ${d.to}))`,
              }}
            />
            <Box sx={{ flex: 1 }}>
              <TextField
                label="What is not liked"
                value={d.name}
                onCommit={(name) => run('dislikes.set', { dislikes: project.dislikes.map((q, k) => (k === i ? { ...q, name } : q)) })}
              />
            </Box>
            <Button size="small" onClick={() => run('dislikes.set', { dislikes: project.dislikes.filter((_, k) => k !== i) })}>
              Take out
            </Button>
          </Box>
        ))}
        {hue !== null && project.dislikes.length < 12 ? (
          <Button
            size="small"
            sx={{ mt: 0.5 }}
            onClick={() =>
              run('dislikes.set', {
                dislikes: [
                  ...project.dislikes,
                  { name: `hues like ${finishIn(project, inHand!).name}`, from: Math.round((hue + 340) % 360), to: Math.round((hue + 20) % 360) },
                ],
              })
            }
          >
            Hues like the finish in hand
          </Button>
        ) : (
          <Box sx={{ color: colours.third, fontSize: 11.5 }}>Take a finish with a colour in hand to note its hues here.</Box>
        )}
      </Box>
    </Sheet>
  );
}

/** What new rooms and cabinets of a scheme begin with. */
function Starts({ scheme, inHand }: { scheme: Scheme; inHand: string | null }) {
  const project = useStudio((s) => s.project);
  const { run } = useEdit();
  const set = (role: StartRole, finish: string | null): boolean => run('scheme.set', { id: scheme.id, set: { starts: { ...scheme.starts, [role]: finish } } });
  const roles = Object.keys(ROLE_WORDS) as StartRole[];
  const chosen = roles.filter((role) => scheme.starts[role]);
  return (
    <Box sx={{ mt: 0.5 }}>
      <Box sx={{ color: colours.third }}>{chosen.length ? 'What is new starts with' : 'What is new starts bare.'}</Box>
      {chosen.map((role) => (
        <Box key={role} sx={{ display: 'grid', gridTemplateColumns: '70px 1fr auto', columnGap: 1, alignItems: 'center' }}>
          <span>{ROLE_WORDS[role]}</span>
          <span>{finishIn(project, scheme.starts[role]!).name}</span>
          <IconButton size="small" aria-label={`Start ${ROLE_WORDS[role]} bare in ${scheme.name}`} title="Start bare" onClick={() => set(role, null)}>
            <XIcon size={12} />
          </IconButton>
        </Box>
      ))}
      {inHand ? (
        <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'baseline' }}>
          <Box sx={{ color: colours.third, mr: 0.5 }}>Start with {finishIn(project, inHand).name}:</Box>
          {roles
            .filter((role) => scheme.starts[role] !== inHand)
            .map((role) => (
              <Button key={role} size="small" variant="text" sx={{ minWidth: 0, px: 0.5 }} onClick={() => set(role, inHand)}>
                {ROLE_WORDS[role]}
              </Button>
            ))}
        </Box>
      ) : null}
    </Box>
  );
}

/** Schemes kept for other projects: taken over by roles. */
function FromLibrary() {
  const entries = useLibrary((s) => s.entries);
  useEffect(() => void readLibrary(), []);
  const schemes = entries.filter((e) => e.kind === 'scheme');
  if (!schemes.length) return null;
  return (
    <>
      <Box sx={{ color: colours.third, mt: 1.5 }}>From the practice’s library</Box>
      {schemes.map((entry) => (
        <Box key={entry.id} sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
          <Box sx={{ flex: 1 }}>{entry.name}</Box>
          <Button
            size="small"
            aria-label={`Look at ${entry.name}, to take it over`}
            onClick={() => entry.kind === 'scheme' && useFinishing.setState({ panel: 'takeover', taking: { id: newId('scheme'), kit: entry.data } })}
          >
            Take over…
          </Button>
          <Button size="small" aria-label={`Forget ${entry.name}`} onClick={() => void forget(entry.id)}>
            Forget
          </Button>
        </Box>
      ))}
    </>
  );
}
