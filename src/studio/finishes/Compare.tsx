'use client';
import Box from '@mui/material/Box';
import { useMemo, useState, type ReactNode } from 'react';
import { Deriver } from '@/core/model/derive';
import { withScheme } from '@/core/project/choices';
import type { Project } from '@/core/project/schema';
import { drawPlan } from '@/core/drawing/plan/plan';
import { displaySvg } from '@/core/drawing/svg';
import { Choice } from '../look/Choice';
import { colours } from '../look/theme';
import { modelWork } from '../work/model';
import { useWork } from '../work/useWork';
import { useStudio } from '../store/studio';
import { useViews } from '../views/views';
import { Still } from './Still';
import { Sheet } from './Sheet';
import { ordered } from './Schemes';

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
            project={project}
            id={pair[i]}
            cost={value?.costs[i] ?? null}
            head={
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

/** One scheme of a project: its cost, its plan, a still of its model, its latest picture. */
export function Side({
  project,
  id,
  cost,
  head,
  pictured = true,
}: {
  project: Project;
  id: string;
  cost: number | null;
  head: ReactNode;
  /** Whether its picture has a place. */
  pictured?: boolean;
}) {
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
        {head}
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
      {pictured ? (
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
      ) : null}
    </Box>
  );
}
