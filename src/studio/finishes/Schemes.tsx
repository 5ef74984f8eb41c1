'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useMemo, useState } from 'react';
import { Deriver } from '@/core/model/derive';
import { meanHex } from '@/core/finishes/finish';
import { hueOf } from '@/core/finishes/match';
import { finishIn } from '@/core/finishes/store';
import { withScheme } from '@/core/project/choices';
import { kitOf } from '@/core/project/scheme-kit';
import type { Scheme, StartRole } from '@/core/project/schema';
import { drawPlan } from '@/core/drawing/plan/plan';
import { displaySvg } from '@/core/drawing/svg';
import { useEdit } from '../docket/parts';
import { Choice } from '../look/Choice';
import { TextField } from '../look/fields';
import { colours } from '../look/theme';
import { modelWork } from '../work/model';
import { useWork } from '../work/useWork';
import { newId, useStudio } from '../store/studio';
import { useViews } from '../views/views';
import { Still } from './Still';
import { Sheet } from './Sheet';
import { useFinishing } from './finishing';
import { forget, keepInLibrary, readLibrary, useLibrary } from './library';

const ordered = (schemes: Record<string, Scheme>): Scheme[] => Object.values(schemes).sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1));

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
      {all.map((scheme) => {
        const on = scheme.id === project.scheme;
        const setStart = (role: StartRole, finish: string | null): boolean =>
          run('scheme.set', { id: scheme.id, set: { starts: { ...scheme.starts, [role]: finish } } });
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
            <Box sx={{ color: colours.third, mt: 0.5, mb: 0.25 }}>New rooms and cabinets start with</Box>
            <Box sx={{ display: 'grid', gridTemplateColumns: '70px 1fr auto', columnGap: 1, rowGap: '2px', alignItems: 'center' }}>
              {(Object.keys(ROLE_WORDS) as StartRole[]).map((role) => {
                const finish = scheme.starts[role];
                return (
                  <Box key={role} sx={{ display: 'contents' }}>
                    <span>{ROLE_WORDS[role]}</span>
                    <span style={{ color: finish ? colours.ink : colours.third }}>{finish ? finishIn(project, finish).name : 'nothing yet'}</span>
                    <span>
                      {inHand ? (
                        <Button size="small" onClick={() => setStart(role, inHand)}>
                          The one in hand
                        </Button>
                      ) : null}
                      {finish ? (
                        <Button size="small" aria-label={`Nothing for ${ROLE_WORDS[role]}`} onClick={() => setStart(role, null)}>
                          Nothing
                        </Button>
                      ) : null}
                    </span>
                  </Box>
                );
              })}
            </Box>
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

/** Schemes kept for other projects: taken over by roles. */
function FromLibrary() {
  const entries = useLibrary((s) => s.entries);
  const { run } = useEdit();
  useEffect(() => void readLibrary(), []);
  const schemes = entries.filter((e) => e.kind === 'scheme');
  if (!schemes.length) return null;
  return (
    <>
      <Box sx={{ color: colours.third, mt: 1.5 }}>From the practice’s library</Box>
      {schemes.map((entry) => (
        <Box key={entry.id} sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
          <Box sx={{ flex: 1 }}>{entry.name}</Box>
          <Button size="small" onClick={() => entry.kind === 'scheme' && run('scheme.from-kit', { id: newId('scheme'), kit: entry.data })}>
            Take over
          </Button>
          <Button size="small" onClick={() => void forget(entry.id)}>
            Forget
          </Button>
        </Box>
      ))}
    </>
  );
}

/** Two schemes side by side: in plan, in 3D, in their latest pictures; what differs and what it costs. */
export function Compare() {
  const project = useStudio((s) => s.project);
  const all = ordered(project.schemes);
  const [pair, setPair] = useState<[string, string]>([project.scheme, all.find((s) => s.id !== project.scheme)?.id ?? project.scheme]);
  const { value, busy } = useWork(() => modelWork().ask('compare', project, (s) => s.compare(pair[0], pair[1])), [project, pair[0], pair[1]]);
  const options = all.map((s) => [s.id, s.name] as const);
  return (
    <Sheet title="Two schemes" width="100%">
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 290px', gap: 2, height: '100%', minHeight: 0 }}>
        {([0, 1] as const).map((i) => (
          <Side
            key={i}
            id={pair[i]}
            cost={value?.costs[i] ?? null}
            choose={
              <Choice
                bare
                label={i === 0 ? 'First scheme' : 'Second scheme'}
                value={pair[i]}
                options={options}
                onChoose={(id) => setPair(i === 0 ? [id, pair[1]] : [pair[0], id])}
              />
            }
          />
        ))}
        <Box sx={{ overflow: 'auto', fontSize: 12 }} aria-label="What differs" aria-busy={busy}>
          <Box sx={{ color: colours.third, mb: 0.5 }}>
            {value ? (value.differences.length === 1 ? '1 choice differs' : `${value.differences.length} choices differ`) : 'comparing…'}
          </Box>
          {value?.differences.map((d) => (
            <Box key={d.address} sx={{ borderTop: `1px solid ${colours.hairline}`, py: '3px' }}>
              <Box sx={{ fontWeight: 550 }}>{d.what}</Box>
              <Box sx={{ color: colours.second }}>
                {d.first || 'nothing'} → {d.second || 'nothing'}
              </Box>
            </Box>
          ))}
        </Box>
      </Box>
    </Sheet>
  );
}

function Side({ id, cost, choose }: { id: string; cost: number | null; choose: React.ReactNode }) {
  const project = useStudio((s) => s.project);
  const level = useStudio((s) => s.level);
  const viewpoint = useViews((s) => s.viewpoint);
  const own = useMemo(() => withScheme(project, id), [project, id]);
  const model = useMemo(() => new Deriver().derive(own), [own]);
  const plan = useMemo(() => displaySvg(drawPlan(model, level, { labels: false, dimensions: false, finishes: true }), 380, 230), [model, level]);
  // The pictures of a scheme are those made while it was in hand.
  const picture = Object.values(project.pictures)
    .filter((p) => p.scheme === id && (viewpoint === null || p.viewpoint === viewpoint))
    .sort((a, b) => (a.made < b.made ? 1 : -1))[0];
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1, minHeight: 0, minWidth: 0 }} data-testid="scheme-side">
      <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 1 }}>
        {choose}
        <Box sx={{ whiteSpace: 'nowrap', fontVariantNumeric: 'tabular-nums' }}>
          {cost === null ? '…' : `${project.money} ${Math.round(cost).toLocaleString('en').replace(/,/g, ' ')}`}
        </Box>
      </Box>
      <Box
        aria-label={`Plan of ${project.schemes[id]?.name ?? ''}`}
        role="img"
        sx={{ flex: '1 1 0', minHeight: 0, border: `1px solid ${colours.hairline}`, '& svg': { width: '100%', height: '100%' } }}
        dangerouslySetInnerHTML={{ __html: plan }}
      />
      <Still model={model} label={`Model of ${project.schemes[id]?.name ?? ''}`} />
      <Box
        sx={{
          flex: '1.5 1 0',
          position: 'relative',
          minHeight: 0,
          border: `1px solid ${colours.hairline}`,
          display: 'grid',
          placeItems: 'center',
          overflow: 'hidden',
          color: colours.third,
        }}
      >
        {picture ? (
          <img
            src={`/api/assets/${picture.image}`}
            alt={picture.name}
            style={{ position: 'absolute', inset: 0, width: '100%', height: '100%', objectFit: 'contain' }}
          />
        ) : (
          'No picture of this scheme yet: render one in the Views stage.'
        )}
      </Box>
    </Box>
  );
}
