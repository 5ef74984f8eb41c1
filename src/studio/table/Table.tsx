'use client';
import Box from '@mui/material/Box';
import { useRef, useState } from 'react';
import type { Project } from '@/core/project/schema';
import { Docket } from '../docket/Docket';
import { colours } from '../look/theme';
import { useStudio } from '../store/studio';
import { PicturePanel } from '../views/PicturePanel';
import { RenderPanel } from '../views/RenderPanel';
import { ElevationPane } from './ElevationPane';
import { MeasuringLine } from './MeasuringLine';
import { current, ModelPane } from './ModelPane';
import { PlanPane } from './PlanPane';

/** Two panes in step: the drawing at the left, the model at the right, a double rule to drag between them. */
export function Table() {
  const layout = useStudio((s) => s.layout);
  const elevation = useStudio((s) => s.elevation);
  const phase = useStudio((s) => s.phase);
  const changes = useStudio((s) => parted(s.project));
  const [share, setShare] = useState(0.5);
  const [mode, setMode] = useState<'cut' | 'whole'>('cut');
  const frame = useRef<HTMLDivElement>(null);
  const dragging = useRef(false);
  const columns = layout === 'both' ? `minmax(0,${share}fr) 5px minmax(0,${1 - share}fr)` : layout === 'drawing' ? 'minmax(0,1fr) 0 0' : '0 0 minmax(0,1fr)';
  const toggle = (side: 'drawing' | 'model'): void => useStudio.setState({ layout: layout === 'both' ? side : 'both' });
  return (
    <Box ref={frame} sx={{ position: 'absolute', inset: 0, display: 'grid', gridTemplateColumns: columns }}>
      <Box sx={{ position: 'relative', overflow: 'hidden', bgcolor: '#fff' }}>
        {elevation ? <ElevationPane wall={elevation.wall} side={elevation.side} /> : <PlanPane />}
        <PaneHead>
          <Word
            on={!elevation}
            onPress={() => (elevation ? useStudio.setState({ elevation: null }) : toggle('drawing'))}
            title={elevation ? 'Back to the plan' : layout === 'both' ? 'Let the plan fill the table' : 'Show the model beside it'}
          >
            Plan
          </Word>
          {elevation ? (
            <Word on onPress={() => toggle('drawing')} title="Let the elevation fill the table">
              Elevation
            </Word>
          ) : null}
          {changes ? (
            <>
              <Word on={phase === 'before'} onPress={() => useStudio.getState().setPhase('before')} title="The house as it stands now">
                Before
              </Word>
              <Word on={phase === 'after'} onPress={() => useStudio.getState().setPhase('after')} title="The house as it will be">
                After
              </Word>
            </>
          ) : null}
        </PaneHead>
        <MeasuringLine />
      </Box>
      <Box
        role="separator"
        aria-orientation="vertical"
        aria-label="Width of the panes"
        aria-valuenow={Math.round(share * 100)}
        tabIndex={layout === 'both' ? 0 : -1}
        onPointerDown={(e) => {
          dragging.current = true;
          e.currentTarget.setPointerCapture(e.pointerId);
        }}
        onPointerMove={(e) => {
          if (!dragging.current) return;
          const box = frame.current!.getBoundingClientRect();
          setShare(Math.min(0.8, Math.max(0.2, (e.clientX - box.left) / box.width)));
        }}
        onPointerUp={() => (dragging.current = false)}
        onKeyDown={(e) => {
          if (e.key === 'ArrowLeft') setShare(Math.max(0.2, share - 0.05));
          if (e.key === 'ArrowRight') setShare(Math.min(0.8, share + 0.05));
        }}
        sx={{ cursor: 'col-resize', bgcolor: '#fff', borderLeft: '1.5px solid #D0D0CC', borderRight: '1.5px solid #D0D0CC', overflow: 'hidden' }}
      />
      <Box sx={{ position: 'relative', overflow: 'hidden', bgcolor: '#E6E6E3' }}>
        <ModelPane mode={mode} />
        <PaneHead>
          <Word on={mode === 'cut'} onPress={() => setMode('cut')} title="Walls towards the eye are taken away">
            Cut away
          </Word>
          <Word on={mode === 'whole'} onPress={() => setMode('whole')} title="All walls stand">
            Whole
          </Word>
          <Word onPress={() => current.scene?.top()} title="See it from above">
            From above
          </Word>
          <Word onPress={() => current.scene?.fit()} title="Stand back until everything is in view">
            Stand back
          </Word>
          <Word onPress={() => toggle('model')} title={layout === 'both' ? 'Let the model fill the table' : 'Show the plan beside it'}>
            {layout === 'both' ? 'Wide' : 'Beside the plan'}
          </Word>
        </PaneHead>
        <RenderPanel />
        <PicturePanel />
      </Box>
      <Docket />
    </Box>
  );
}

/** Whether anything stands now that will go, or something new comes to what stands. */
function parted(project: Project): boolean {
  const seen = new Set<string>();
  for (const collection of [project.walls, project.openings, project.columns, project.rooflights]) for (const id in collection) seen.add(collection[id].status);
  return seen.has('removed') || (seen.has('existing') && seen.has('new'));
}

const PaneHead = ({ children }: { children: React.ReactNode }) => (
  <Box
    sx={{
      position: 'absolute',
      left: 6,
      top: 5,
      px: 1,
      py: '2px',
      display: 'flex',
      gap: '14px',
      alignItems: 'baseline',
      fontSize: 12,
      zIndex: 3,
      bgcolor: '#F7F7F5E0',
      borderRadius: '2px',
    }}
  >
    {children}
  </Box>
);

function Word({ children, on, onPress, title }: { children: React.ReactNode; on?: boolean; onPress(): void; title: string }) {
  return (
    <Box
      component="button"
      title={title}
      aria-pressed={on}
      onClick={onPress}
      sx={{
        all: 'unset',
        cursor: 'pointer',
        pb: '1px',
        color: on ? colours.ink : colours.second,
        fontWeight: on ? 600 : 400,
        borderBottom: `1.5px solid ${on ? colours.ink : 'transparent'}`,
        '&:focus-visible': { outline: `2px solid ${colours.damson}` },
      }}
    >
      {children}
    </Box>
  );
}
