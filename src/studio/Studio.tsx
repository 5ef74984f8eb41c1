'use client';
import { DndContext, DragOverlay, PointerSensor, useSensor, useSensors, type DragMoveEvent } from '@dnd-kit/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import { XIcon } from '@phosphor-icons/react';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useEffect, useRef, useState } from 'react';
import { Actions } from './Actions';
import { Asides } from './Asides';
import { DocketPlace } from './docket/DocketPlace';
import { Docket } from './docket/Docket';
import { Ledge } from './ledge/Ledge';
import { colours, PANEL } from './look/theme';
import { Warn } from './look/Warn';
import { FinishingPanels } from './finishes/FinishingPanels';
import { ContentsPanel } from './ContentsPanel';
import { RoomStrip } from './RoomStrip';
import { Spine } from './spine/Spine';
import { dismissMessage, openProject, useStudio } from './store/studio';
import { Table } from './table/Table';
import * as tools from './tools/controller';
import { paneAt } from './tools/panes';
import { TopBar } from './TopBar';
import { takeUpQueue } from './views/queue/queue';
import { useLook } from './views/views';

// What another stage shows comes when it is first shown.
const BoardTable = dynamic(() => import('./boards/BoardTable').then((m) => m.BoardTable), { ssr: false });
const Schedules = dynamic(() => import('./schedules/Schedules').then((m) => m.Schedules), { ssr: false });

/** The studio of one project. */
export function Studio({ id }: { id: string }) {
  const failed = useStudio((s) => s.failed);
  const ready = useStudio((s) => s.ready);
  const stage = useStudio((s) => s.stage);
  const walking = useLook((s) => s.walking);
  const [actions, setActions] = useState(false);
  const [contents, setContents] = useState(false);
  useEffect(() => openProject(id), [id]);
  useEffect(takeUpQueue, []);
  useKeys(() => setActions(true));
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const last = useRef<ReturnType<typeof paneAt>>(null);
  const [dragged, setDragged] = useState<string | null>(null);

  if (failed)
    return (
      <Box sx={{ display: 'grid', placeItems: 'center', height: '100vh', textAlign: 'center' }}>
        <div>
          <Box sx={{ mb: 2 }}>
            <Warn /> {failed}
          </Box>
          <Link href="/">
            <Button>All projects</Button>
          </Link>
        </div>
      </Box>
    );

  const under = (e: Pick<DragMoveEvent, 'activatorEvent' | 'delta'>): ReturnType<typeof paneAt> => {
    const start = e.activatorEvent as PointerEvent;
    return paneAt(start.clientX + e.delta.x, start.clientY + e.delta.y);
  };
  return (
    <DndContext
      sensors={sensors}
      autoScroll={false}
      onDragStart={(e) => setDragged((e.active.data.current?.card as string) ?? (e.active.data.current?.finish as string) ?? null)}
      onDragMove={(e) => {
        const data = e.active.data.current;
        const at = under(e);
        last.current = at;
        if (!at) return useStudio.getState().endPreview();
        if (data?.kind === 'stock') tools.showDrop(data.card as string, at);
        else if (data?.kind === 'finish') tools.showDropFinish(data.finish as string, at);
      }}
      onDragEnd={(e) => {
        setDragged(null);
        const data = e.active.data.current;
        const at = under(e);
        useStudio.setState({ measure: null });
        if (!at || !data) return useStudio.getState().endPreview();
        if (data.kind === 'stock') tools.dropPiece(data.card as string, at);
        else if (data.kind === 'finish') tools.applyFinish(data.finish as string, at);
      }}
      onDragCancel={() => {
        setDragged(null);
        tools.cancel();
      }}
    >
      <Box
        sx={{ height: '100vh', display: 'grid', gridTemplate: '44px 38px minmax(0,1fr) 138px / 98px minmax(0,1fr)', overflow: 'hidden', userSelect: 'none' }}
      >
        <Spine />
        <TopBar onActions={() => setActions(true)} onContents={() => setContents(!contents)} />
        <RoomStrip />
        <Box component="main" aria-busy={!ready} sx={{ gridColumn: 2, display: 'grid', gridTemplateColumns: 'minmax(0,1fr) auto', minHeight: 0, minWidth: 0 }}>
          <Box sx={{ position: 'relative', minHeight: 0, minWidth: 0 }}>
            {stage === 'Boards' ? <BoardTable /> : stage === 'Schedules' ? <Schedules /> : null}
            {/* The table stays mounted, so that view and camera are as they were when one comes back. */}
            <Box
              sx={{ position: 'absolute', inset: 0, visibility: stage === 'Boards' || stage === 'Schedules' ? 'hidden' : 'visible' }}
              inert={stage === 'Boards' || stage === 'Schedules'}
            >
              <Table />
            </Box>
            <FinishingPanels />
            {contents ? <ContentsPanel onClose={() => setContents(false)} /> : null}
            <Notice />
            <Asides />
          </Box>
          {walking ? null : <DocketPlace />}
          {stage === 'Boards' ? null : <Docket />}
        </Box>
        <Ledge />
        <Actions open={actions} onClose={() => setActions(false)} />
      </Box>
      <DragOverlay dropAnimation={null}>
        {dragged ? <Box sx={{ width: 10, height: 10, border: `1.5px solid ${colours.damson}`, borderRadius: '50%', bgcolor: colours.paper }} /> : null}
      </DragOverlay>
    </DndContext>
  );
}

/** One sentence when something was refused, when another window was at work too, or of what was done and can be taken back. */
function Notice() {
  const notice = useStudio((s) => s.notice);
  const message = useStudio((s) => s.sync.message);
  const told = useStudio((s) => s.told);
  const wrong = notice ?? message;
  const text = wrong ?? told;
  if (!text) return null;
  const { say, tell, undo } = useStudio.getState();
  return (
    <Box
      role={wrong ? 'alert' : 'status'}
      data-testid="notice"
      sx={{
        ...PANEL,
        left: '50%',
        // Above the measuring line, clear of all tools.
        bottom: 46,
        transform: 'translateX(-50%)',
        zIndex: 20,
        border: `1px solid ${wrong ? colours.rust : colours.firm}`,
        borderRadius: '2px',
        p: '6px 6px 6px 12px',
        display: 'flex',
        alignItems: 'center',
        gap: 1,
        fontSize: 13,
        maxWidth: 640,
      }}
    >
      {wrong ? <Warn /> : null}
      <span>{text}</span>
      {wrong ? null : (
        <Button size="small" onClick={undo}>
          Undo
        </Button>
      )}
      <IconButton
        aria-label="Close"
        onClick={() => {
          say(null);
          if (!wrong) tell(null);
          dismissMessage();
        }}
      >
        <XIcon size={13} />
      </IconButton>
    </Box>
  );
}

/** Keys that work wherever no field has the focus. */
function useKeys(openActions: () => void): void {
  useEffect(() => {
    const key = (e: KeyboardEvent): void => {
      const target = e.target as HTMLElement;
      if (target.closest('input, textarea, [contenteditable], [role="dialog"], [role="listbox"], [role="menu"]')) return;
      const state = useStudio.getState();
      const command = e.ctrlKey || e.metaKey;
      if (command && e.key.toLowerCase() === 'z') {
        e.preventDefault();
        if (e.shiftKey) state.redo();
        else state.undo();
        return;
      }
      if (command && e.code === 'Space') {
        e.preventDefault();
        openActions();
        return;
      }
      const moving = e.key.startsWith('Arrow') && !tools.drawing() && tools.selectedPieces().length > 0 && target.closest('[role="application"]');
      if (moving && !e.altKey) {
        e.preventDefault();
        tools.nudgeSelection(e.key, e.shiftKey ? 'large' : command ? 'small' : 'middle');
        return;
      }
      if (command || e.altKey) return;
      // What begins a length begins to be typed; after that every character belongs to it.
      const begins = /^[\d.,=('"-]$/.test(e.key);
      if (state.measure && tools.drawing() && (begins || (state.measure.typed && e.key.length === 1))) {
        e.preventDefault();
        tools.type((state.measure.typed ?? '') + e.key);
      } else if (e.key === 'Enter' && tools.drawing()) tools.enter();
      else if (e.key === 'Enter' && target.closest('[role="application"]')) tools.actByKey();
      else if (e.key.startsWith('Arrow') && tools.drawing()) {
        e.preventDefault();
        tools.steer(e.key);
      } else if (e.key === 'Escape') tools.escape();
      else if (e.key === 'Delete' || e.key === 'Backspace') tools.deleteSelection();
    };
    addEventListener('keydown', key);
    return () => removeEventListener('keydown', key);
  }, [openActions]);
}
