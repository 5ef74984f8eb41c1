'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import Switch from '@mui/material/Switch';
import { MinusIcon, PlusIcon } from '@phosphor-icons/react';
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { FIRST_COLOURS } from '@/core/project/kinds/first-finishes';
import { composePage } from '@/core/boards/compose';
import { itemsOf, pagesOf, PAPERS } from '@/core/boards/layout';
import { itemMarks, pageMarks } from '@/core/boards/page';
import { finishIn } from '@/core/finishes/store';
import { finishLrv } from '@/core/finishes/finish';
import type { Board, BoardItem } from '@/core/project/schema';
import { LengthField, Row, TextField } from '../look/fields';
import { colours, PANEL } from '../look/theme';
import { newId, useStudio } from '../store/studio';
import { Label } from '../docket/Label';
import { useBoard } from './board';
import { measureText, PageMarks } from './PageMarks';

/** The boards stage: pages at the left, the page in hand in the middle. */
export function BoardTable() {
  const project = useStudio((s) => s.project);
  const model = useStudio((s) => s.model);
  const { board: boardId, page: pageId } = useBoard();
  const board: Board | undefined = (boardId ? project.boards[boardId] : undefined) ?? Object.values(project.boards)[0];
  const pages = board ? pagesOf(board) : [];
  const page = pages.find((p) => p.id === pageId) ?? pages[0];
  useEffect(() => useBoard.setState({ board: board?.id ?? null, page: page?.id ?? null }), [board?.id, page?.id]);

  const start = (): void => {
    const id = newId('board');
    const first = newId('page');
    const { run, room } = useStudio.getState();
    const paper = PAPERS['A3 landscape'];
    const latest = Object.values(project.pictures).sort((a, b) => (a.made < b.made ? 1 : -1))[0];
    const title = room ? project.rooms[room].name : project.name;
    const items = composePage(model, paper, { title, line: 'Sample sizes follow the surface they cover.', picture: latest?.id ?? null, room });
    run('board.add', {
      id,
      name: 'Client presentation',
      paper,
      pages: { [first]: { id: first, name: title, order: 0, ground: FIRST_COLOURS.page } },
      items: Object.fromEntries(
        items.map((item) => [item, newId('item')] as const).map(([item, key]) => [key, { ...item, id: key, page: first } as BoardItem]),
      ),
    });
    useBoard.setState({ board: id, page: first });
  };

  if (!board || !page)
    return (
      <Box sx={{ display: 'grid', placeItems: 'center', height: '100%', color: colours.second, textAlign: 'center', fontSize: 14 }}>
        <div>
          There is no board yet. The first page starts with the latest picture and samples of the finishes in use.
          <Box sx={{ mt: 2 }}>
            <Button variant="contained" onClick={start}>
              Start a board
            </Button>
          </Box>
        </div>
      </Box>
    );

  const addPage = (): void => {
    const id = newId('page');
    useStudio.getState().run('page.put', { board: board.id, page: { id, name: `Page ${pages.length + 1}`, order: pages.length, ground: page.ground } });
    useBoard.setState({ page: id });
  };
  const compose = (): void => {
    const { run, room } = useStudio.getState();
    const latest = Object.values(project.pictures).sort((a, b) => (a.made < b.made ? 1 : -1))[0];
    const title = room ? project.rooms[room].name : project.name;
    const items = composePage(model, board.paper, { title, line: 'Sample sizes follow the surface they cover.', picture: latest?.id ?? null, room });
    run('item.add', { board: board.id, items: items.map((item) => ({ ...item, id: newId('item'), page: page.id }) as BoardItem) });
  };

  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '92px 1fr', height: '100%', minHeight: 0 }}>
      <Box component="nav" aria-label="Pages" sx={{ bgcolor: colours.strip, borderRight: `1px solid ${colours.hairline}`, p: '12px', overflow: 'auto' }}>
        {pages.map((p, i) => (
          <Box
            key={p.id}
            component="button"
            onClick={() => useBoard.setState({ page: p.id, item: null })}
            aria-current={p.id === page.id}
            sx={{
              all: 'unset',
              cursor: 'pointer',
              display: 'block',
              mb: 1.5,
              width: '100%',
              fontSize: 11,
              color: colours.second,
              '&:focus-visible': { outline: `2px solid ${colours.damson}` },
            }}
          >
            <Box
              sx={{
                position: 'relative',
                aspectRatio: `${board.paper.width} / ${board.paper.height}`,
                bgcolor: p.ground,
                border: p.id === page.id ? `2px solid ${colours.damson}` : `1px solid ${colours.firm}`,
                mb: 0.5,
                overflow: 'hidden',
              }}
            >
              <PageMarks marks={pageMarks(project, board, p, measureText)} paper={board.paper} small />
            </Box>
            {i + 1} {p.name}
          </Box>
        ))}
        <Button size="small" onClick={addPage} sx={{ fontSize: 11, px: 0.75 }}>
          Add page
        </Button>
      </Box>
      <Box sx={{ position: 'relative', bgcolor: colours.table, overflow: 'hidden', minHeight: 0 }}>
        <Page board={board} pageId={page.id} onCompose={compose} />
        <ItemDocket board={board} pageName={page.name} />
      </Box>
    </Box>
  );
}

function Page({ board, pageId, onCompose }: { board: Board; pageId: string; onCompose(): void }) {
  const frame = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 800, height: 500 });
  // Measured before it is first shown: the page never jumps to its size.
  useLayoutEffect(() => {
    const element = frame.current!;
    const measure = (): void => setSize({ width: element.offsetWidth, height: element.offsetHeight });
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    measure();
    const wheel = (e: WheelEvent): void => {
      if (!e.ctrlKey && !e.metaKey) return;
      e.preventDefault();
      step(Math.exp(-e.deltaY * 0.003));
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => {
      observer.disconnect();
      element.removeEventListener('wheel', wheel);
    };
  }, []);
  const [zoom, setZoom] = useState(1);
  const step = (by: number): void => setZoom((z) => Math.min(8, Math.max(1, Math.round(z * by * 100) / 100)));
  const selected = useBoard((s) => s.item);
  const items = itemsOf(board, pageId);
  const fitted = Math.max(50, Math.min((size.width - 44) / board.paper.width, (size.height - 64) / board.paper.height));
  const k = fitted * zoom;
  const page = board.pages[pageId];
  return (
    <>
      <Box
        ref={frame}
        sx={{ position: 'absolute', inset: 0, overflow: zoom > 1 ? 'auto' : 'hidden' }}
        onPointerDown={(e) => e.target === e.currentTarget && useBoard.setState({ item: null })}
      >
        <Box
          data-testid="page"
          data-scale={k}
          sx={{
            position: 'absolute',
            // In the middle of its place while all of it is seen.
            left: Math.max(22, (size.width - board.paper.width * k) / 2),
            top: Math.max(16, (size.height - 32 - board.paper.height * k) / 2),
            width: board.paper.width * k,
            height: board.paper.height * k,
            bgcolor: page.ground,
            boxShadow: PANEL.boxShadow,
            overflow: 'hidden',
          }}
          onPointerDown={(e) => e.target === e.currentTarget && useBoard.setState({ item: null })}
        >
          {items.map((item) => (
            <Item key={item.id} item={item} board={board.id} paper={board.paper} k={k} selected={item.id === selected} />
          ))}
          {!items.length ? (
            <Box sx={{ position: 'absolute', inset: 0, display: 'grid', placeItems: 'center' }}>
              <Button onClick={onCompose}>Arrange this project’s picture and samples</Button>
            </Box>
          ) : null}
        </Box>
      </Box>
      <Box
        sx={{
          position: 'absolute',
          left: 14,
          bottom: 4,
          display: 'flex',
          alignItems: 'center',
          gap: 0.5,
          fontSize: 12,
          color: colours.second,
          bgcolor: colours.veil,
          borderRadius: '2px',
          px: 0.75,
        }}
      >
        <IconButton aria-label="Farther" disabled={zoom <= 1} onClick={() => step(1 / 1.4)}>
          <MinusIcon size={13} />
        </IconButton>
        <span>{Math.round((k / (96 / 0.0254)) * 100)} % of true size</span>
        <IconButton aria-label="Closer" disabled={zoom >= 8} onClick={() => step(1.4)}>
          <PlusIcon size={13} />
        </IconButton>
      </Box>
    </>
  );
}

function Item({ item, board, paper, k, selected }: { item: BoardItem; board: string; paper: Board['paper']; k: number; selected: boolean }) {
  const [moved, setMoved] = useState<{ x: number; y: number; width: number; height: number } | null>(null);
  const drag = useRef<{ x: number; y: number; size: boolean } | null>(null);
  const place = moved ?? item;
  const { run, project } = useStudio.getState();
  const begin = (e: React.PointerEvent, size: boolean): void => {
    e.stopPropagation();
    useBoard.setState({ item: item.id });
    drag.current = { x: e.clientX, y: e.clientY, size };
    (e.currentTarget as HTMLElement).setPointerCapture(e.pointerId);
  };
  const move = (e: React.PointerEvent): void => {
    if (!drag.current) return;
    const dx = (e.clientX - drag.current.x) / k;
    const dy = (e.clientY - drag.current.y) / k;
    if (!moved && Math.hypot(dx, dy) * k < 3) return;
    if (drag.current.size) {
      const width = Math.max(0.008, item.width + dx);
      // Pictures keep their proportion; everything else goes both ways.
      const height = item.kind === 'picture' ? (width * item.height) / item.width : Math.max(0.006, item.height + dy);
      setMoved({ x: item.x, y: item.y, width, height });
    } else setMoved({ x: item.x + dx, y: item.y + dy, width: item.width, height: item.height });
  };
  const finish = (): void => {
    if (moved && drag.current) run('item.set', { board, item: item.id, set: moved });
    drag.current = null;
    setMoved(null);
  };
  const marks = itemMarks(project, paper, { ...item, ...place } as BoardItem, measureText);
  return (
    <Box
      data-testid={`item-${item.kind}`}
      tabIndex={0}
      role="button"
      aria-label={
        item.kind === 'text'
          ? `Text: ${item.text}`
          : item.kind === 'sample'
            ? `Sample: ${finishIn(project, item.finish).name}${item.note ? `, ${item.note}` : ''}`
            : 'Picture'
      }
      aria-pressed={selected}
      onFocus={() => useBoard.setState({ item: item.id })}
      onPointerDown={(e) => begin(e, false)}
      onPointerMove={move}
      onPointerUp={finish}
      onKeyDown={(e) => {
        const step = e.shiftKey ? 0.01 : 0.001;
        const delta = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[e.key];
        if (delta) {
          e.preventDefault();
          run('item.set', { board, item: item.id, set: { x: item.x + delta[0], y: item.y + delta[1] } });
        } else if (e.key === 'Delete' || e.key === 'Backspace') run('delete', { ids: [item.id] });
        else return;
        e.stopPropagation();
      }}
      sx={{
        position: 'absolute',
        left: place.x * k,
        top: place.y * k,
        width: place.width * k,
        height: place.height * k,
        cursor: 'move',
        outline: selected ? `1.5px solid ${colours.damson}` : 'none',
        outlineOffset: 2,
        touchAction: 'none',
      }}
    >
      {/* The page is drawn in its own coordinates, wherever the thing lies. */}
      <Box
        aria-hidden
        sx={{ position: 'absolute', left: -place.x * k, top: -place.y * k, width: paper.width * k, height: paper.height * k, pointerEvents: 'none' }}
      >
        <PageMarks marks={marks} paper={paper} />
      </Box>
      {selected ? (
        <Box
          aria-hidden
          data-testid="resize"
          onPointerDown={(e) => begin(e, true)}
          onPointerMove={move}
          onPointerUp={finish}
          sx={{
            position: 'absolute',
            right: -7,
            bottom: -7,
            width: 11,
            height: 11,
            bgcolor: colours.paper,
            border: `1.5px solid ${colours.damson}`,
            cursor: 'nwse-resize',
          }}
        />
      ) : null}
    </Box>
  );
}

function ItemDocket({ board, pageName }: { board: Board; pageName: string }) {
  const id = useBoard((s) => s.item);
  const project = useStudio((s) => s.project);
  const item = id ? board.items[id] : undefined;
  const { run, say } = useStudio.getState();
  const units = project.units;
  const orders = useMemo(() => Object.values(board.items).map((i) => i.order), [board.items]);
  if (!item) return null;
  const set = (values: Record<string, unknown>): boolean => run('item.set', { board: board.id, item: item.id, set: values });
  const finish = item.kind === 'sample' ? finishIn(project, item.finish) : null;
  const title = item.kind === 'text' ? 'Text' : finish ? finish.name : (project.pictures[(item as { picture: string }).picture]?.name ?? 'Picture');
  return (
    <Label title={title} line={finish ? `${finish.supplier}, ${finish.code}` : pageName}>
      {item.kind === 'text' ? (
        <>
          <Row label="Words">
            <TextField label="Words" value={item.text} multiline onCommit={(text) => set({ text })} />
          </Row>
          <Row label="Type size">
            <LengthField label="Type size" metres={item.size} units={units} onRefuse={say} onCommit={(size) => set({ size })} />
          </Row>
          <Row label="Face">
            <Select value={item.face} onChange={(e) => set({ face: e.target.value })} disableUnderline fullWidth inputProps={{ 'aria-label': 'Face' }}>
              <MenuItem value="serif">Instrument Serif</MenuItem>
              <MenuItem value="sans">Instrument Sans</MenuItem>
            </Select>
          </Row>
          <Row label="Aligned">
            <Select value={item.align} onChange={(e) => set({ align: e.target.value })} disableUnderline fullWidth inputProps={{ 'aria-label': 'Aligned' }}>
              <MenuItem value="left">left</MenuItem>
              <MenuItem value="centre">centred</MenuItem>
              <MenuItem value="right">right</MenuItem>
            </Select>
          </Row>
        </>
      ) : (
        <>
          {item.kind === 'sample' ? (
            <>
              <Row label="Shown as">
                <Select value={item.form} onChange={(e) => set({ form: e.target.value })} disableUnderline fullWidth inputProps={{ 'aria-label': 'Shown as' }}>
                  <MenuItem value="board">Board</MenuItem>
                  <MenuItem value="plank">Plank</MenuItem>
                  <MenuItem value="swatch">Pinked swatch</MenuItem>
                  <MenuItem value="tiles">Tile field</MenuItem>
                  <MenuItem value="disc">Disc</MenuItem>
                </Select>
              </Row>
              <Row label="Note">
                <TextField label="Note" value={item.note} onCommit={(note) => set({ note })} />
              </Row>
              <Row label="LRV">{finishLrv(finish!).toFixed(0)}</Row>
            </>
          ) : null}
          <Row label="Shadow">
            <Switch slotProps={{ input: { 'aria-label': 'Shadow' } }} checked={item.shadow} onChange={(e) => set({ shadow: e.target.checked })} />
          </Row>
        </>
      )}
      {(['width', 'height'] as const).map((key) => (
        <Row key={key} label={key[0].toUpperCase() + key.slice(1)}>
          <LengthField label={key[0].toUpperCase() + key.slice(1)} metres={item[key]} units={units} onRefuse={say} onCommit={(v) => set({ [key]: v })} />
        </Row>
      ))}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75, mt: 1.25 }}>
        <Button onClick={() => set({ order: Math.max(...orders) + 1 })}>To the front</Button>
        <Button onClick={() => set({ order: Math.min(...orders) - 1 })}>To the back</Button>
        <Button
          onClick={() => {
            run('delete', { ids: [item.id] });
            useBoard.setState({ item: null });
          }}
        >
          Delete
        </Button>
      </Box>
    </Label>
  );
}
