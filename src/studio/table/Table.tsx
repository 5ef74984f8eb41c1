'use client';
import Box from '@mui/material/Box';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { useEffect, useRef, useState } from 'react';
import type { Project } from '@/core/project/schema';
import { colours } from '../look/theme';
import { recallLayout, rememberTrueLight } from '../store/habits';
import { useStudio } from '../store/studio';
import { PicturePanel } from '../views/PicturePanel';
import { RenderPanel } from '../views/RenderPanel';
import { hintFor } from '../tools/hints';
import { useLook, useTrueLight } from '../views/views';
import { WALKER } from '@/core/walk/walk';
import { STANDPOINTS, type Standpoint } from './model/camera';
import { ElevationPane } from './elevation/ElevationPane';
import { LookPanel } from './model/LookPanel';
import { MeasuringLine } from './plan/MeasuringLine';
import { current, ModelPane } from './model/ModelPane';
import { PlanPane } from './plan/PlanPane';
import { walker } from './model/useWalking';

/** A pane without room is out of reach of the keyboard too. */
const FOLDED = { visibility: 'hidden' } as const;

/** Two panes in step: the drawing at the left, the model at the right, a double rule to drag between them. */
export function Table() {
  const layout = useStudio((s) => s.layout);
  const elevation = useStudio((s) => s.elevation);
  const phase = useStudio((s) => s.phase);
  const changes = useStudio((s) => parted(s.project));
  const [share, setShare] = useState(0.5);
  const look = useLook((s) => s.look);
  const walking = useLook((s) => s.walking);
  const trueLight = useTrueLight((s) => s.on);
  const [panel, setPanel] = useState(false);
  const setLook = useLook.getState().set;
  const plain = look.mode === 'finishes' && !look.section && !look.hidden.length && !look.through.length;
  const [recalled, setRecalled] = useState(false);
  // The model is made when it is first shown: whoever only draws does not wait for it.
  const modelled = useRef(false);
  if (recalled && layout !== 'drawing') modelled.current = true;
  useEffect(() => {
    const end = recallLayout();
    setRecalled(true);
    return end;
  }, []);
  const frame = useRef<HTMLDivElement>(null);
  const dragging = useRef(false);
  const columns = layout === 'both' ? `minmax(0,${share}fr) 5px minmax(0,${1 - share}fr)` : layout === 'drawing' ? 'minmax(0,1fr) 0 0' : '0 0 minmax(0,1fr)';
  const toggle = (side: 'drawing' | 'model'): void => useStudio.setState({ layout: layout === 'both' ? side : 'both' });
  return (
    <Box ref={frame} sx={{ position: 'absolute', inset: 0, display: 'grid', gridTemplateColumns: columns }}>
      <Box sx={{ position: 'relative', overflow: 'hidden', bgcolor: colours.paper, ...(layout === 'model' ? FOLDED : null) }}>
        {elevation ? <ElevationPane {...elevation} /> : <PlanPane />}
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
          <PutDown />
        </PaneHead>
        <MeasuringLine />
        {layout === 'drawing' ? <RenderPanel /> : null}
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
        sx={{
          cursor: 'col-resize',
          bgcolor: colours.paper,
          borderLeft: `1.5px solid ${colours.firm}`,
          borderRight: `1.5px solid ${colours.firm}`,
          overflow: 'hidden',
        }}
      />
      <Box sx={{ position: 'relative', overflow: 'hidden', bgcolor: colours.table, ...(layout === 'drawing' ? FOLDED : null) }}>
        {modelled.current ? <ModelPane /> : null}
        <PaneHead>
          <Word on={look.cut} onPress={() => setLook({ cut: true })} title="Walls towards the eye are taken away">
            Cut away
          </Word>
          <Word on={!look.cut} onPress={() => setLook({ cut: false })} title="All walls stand">
            Whole
          </Word>
          <From />
          <Word onPress={standBack} title="Stand back until everything is in view, in perspective">
            Stand back
          </Word>
          <Word on={panel || !plain} onPress={() => setPanel(!panel)} title="What of the model is shown, and how">
            Shown
          </Word>
          <Word on={walking} onPress={() => useLook.setState({ walking: !walking })} title="Walk through the model at eye height">
            Walk
          </Word>
          <Word
            on={trueLight}
            onPress={() => {
              rememberTrueLight(!trueLight);
              useTrueLight.setState({ on: !trueLight });
            }}
            title={trueLight ? 'Leave the view as it is drawn' : 'When the eye rests, show the model as it is really lit'}
          >
            True light
          </Word>
          <Word onPress={() => toggle('model')} title={layout === 'both' ? 'Let the model fill the table' : 'Show the plan beside it'}>
            {layout === 'both' ? 'Wide' : 'Beside the plan'}
          </Word>
        </PaneHead>
        {panel ? <LookPanel onClose={() => setPanel(false)} /> : null}
        {walking ? <WalkLine /> : null}
        {layout === 'drawing' ? null : <RenderPanel />}
      </Box>
      <PicturePanel />
      <Hint />
    </Box>
  );
}

/** Puts the tool in hand down, by pointer. */
function PutDown() {
  const inHand = useStudio((s) => s.tool.kind !== 'select');
  return inHand ? (
    <Word onPress={() => useStudio.getState().setTool({ kind: 'select' })} title="Put the tool in hand down (Escape)">
      Put down
    </Word>
  ) : null;
}

/** What to do with the tool in hand, for those who hear it. */
function Hint() {
  const tool = useStudio((s) => s.tool);
  return (
    <Box
      role="status"
      data-testid="tool-hint"
      sx={{ position: 'absolute', width: '1px', height: '1px', overflow: 'hidden', clipPath: 'inset(50%)', whiteSpace: 'nowrap' }}
    >
      {hintFor(tool)}
    </Box>
  );
}

const standBack = (): void => {
  useLook.getState().set({ projection: 'perspective' });
  current.scene?.eye.fit();
};

/** Looks at the model, or the room in hand, from one of the directions people know. */
export function standAt(from: Standpoint): void {
  const { room, model } = useStudio.getState();
  useLook.getState().set({ projection: 'parallel' });
  current.scene?.eye.standFrom(from, room ? model.shell.rooms.get(room)?.region.outer : undefined);
}

/** The directions one may look from. */
function From() {
  return (
    <Select
      variant="standard"
      disableUnderline
      displayEmpty
      value=""
      renderValue={() => 'From'}
      onChange={(e) => standAt(e.target.value as Standpoint)}
      inputProps={{ 'aria-label': 'From' }}
      sx={{ fontSize: 12, color: colours.second, '& .MuiSelect-select': { py: 0, pr: '18px !important' }, '& .MuiSelect-icon': { fontSize: 16, top: 2 } }}
    >
      {Object.entries(STANDPOINTS).map(([key, { name }]) => (
        <MenuItem key={key} value={key}>
          {name}
        </MenuItem>
      ))}
    </Select>
  );
}

/** What one may do while one walks. */
function WalkLine() {
  const [seated, setSeated] = useState(walker.seated);
  return (
    <Box
      role="status"
      sx={{
        position: 'absolute',
        left: '50%',
        bottom: 10,
        transform: 'translateX(-50%)',
        zIndex: 3,
        bgcolor: colours.veil,
        px: 1.25,
        py: '3px',
        fontSize: 12,
        display: 'flex',
        gap: 1.5,
        whiteSpace: 'nowrap',
      }}
    >
      <span>Arrow keys walk and turn, dragging looks round, Escape ends.</span>
      <Word
        on={seated}
        onPress={() => {
          walker.seated = !seated;
          setSeated(!seated);
          current.scene?.eye.walkTo(walker.at, walker.seated ? WALKER.seated : WALKER.eye, walker.yaw, walker.pitch);
        }}
        title="See it with the eyes of one who sits"
      >
        Seated
      </Word>
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
      bgcolor: colours.veil,
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
