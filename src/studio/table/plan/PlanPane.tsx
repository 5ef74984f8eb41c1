'use client';
import { INKS } from '@/core/drawing/inks';
import Box from '@mui/material/Box';
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { displayBounds, type DisplayItem } from '@/core/drawing/display';
import { drawPlanSheets, PLAN_SHEETS } from '@/core/drawing/plan/plan';
import type { Vec2 } from '@/core/geometry/vec';
import { cornersOf } from '@/core/project/putting';
import type { Project } from '@/core/project/schema';
import { bodyOf } from '@/core/model/model';
import { partKinds, type Thing } from '@/core/project/kinds';
import { collectionOf, withUnits } from '@/core/project/things';
import { corners } from '@/core/project/underlay';
import { stationNear, wallExtents, wallPath } from '@/core/project/wall-line';
import { colours } from '../../look/theme';
import { useStudio, type Spot } from '../../store/studio';
import * as tools from '../../tools/controller';
import { registerPane } from '../../tools/panes';
import { Dimensions, GapFields, OverallFields, PieceGaps, PieceZones } from './Dimensions';
import { Group, Marks, PX_PER_MM, Texts, type View } from '../marks';
import { useWheel } from '../zoom';
import { UnderlayPicture } from './UnderlayPicture';
import { UNDERLAY } from '../../tools/session';

const NONE = new Set<string>();

type Bounds = ReturnType<typeof displayBounds>;

/** The plan: drawn from the display list, edited with the pointer. */
export function PlanPane() {
  const model = useStudio((s) => s.model);
  const level = useStudio((s) => s.level);
  const room = useStudio((s) => s.room);
  const marks = useStudio((s) => s.marks);
  const selection = useStudio((s) => s.selection);
  const hover = useStudio((s) => s.hover);
  const tool = useStudio((s) => s.tool);
  const stage = useStudio((s) => s.stage);
  const ready = useStudio((s) => s.ready);
  const frame = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 600, height: 500 });
  const [view, setView] = useState<View>({ k: 50, x: 300, y: 300 });
  const pan = useRef<{ x: number; y: number; view: View } | null>(null);
  const below = useStudio((s) => s.showBelow);
  const finishes = useStudio((s) => s.stage === 'Finishes');
  const sheets = useMemo(() => drawPlanSheets(model, level, { labels: true, dimensions: true, below, finishes }), [model, level, below, finishes]);
  const items = useMemo(() => PLAN_SHEETS.flatMap((sheet) => sheets[sheet].flatMap((g) => g.items)), [sheets]);
  const underlay = model.project.levels[level]?.underlay ?? null;
  const viewRef = useRef(view);
  viewRef.current = view;

  useLayoutEffect(() => {
    const element = frame.current!;
    const observer = new ResizeObserver(() => setSize({ width: element.clientWidth, height: element.clientHeight }));
    observer.observe(element);
    setSize({ width: element.clientWidth, height: element.clientHeight });
    return () => observer.disconnect();
  }, []);

  const fitTo = useCallback(
    (what: readonly DisplayItem[], margin: number) => {
      const box = displayBounds(what);
      const { width, height } = frame.current ? { width: frame.current.clientWidth, height: frame.current.clientHeight } : size;
      if (!box || box.max.x - box.min.x < 0.1) return setView({ k: 60, x: width / 2 - 180, y: height / 2 + 150 });
      const k = Math.min((width - margin * 2) / (box.max.x - box.min.x), (height - margin * 2 - 20) / (box.max.y - box.min.y));
      setView({ k, x: width / 2 - (k * (box.min.x + box.max.x)) / 2, y: height / 2 + 8 + (k * (box.min.y + box.max.y)) / 2 });
    },
    [size],
  );

  const fitted = useRef('');
  useEffect(() => {
    if (!ready) return;
    // A scan that is laid under an empty drawing, or brought to scale there, is shown whole.
    const traced = items.length === 0 && underlay ? `${underlay.image} ${underlay.scale.x} ${underlay.scale.y}` : (fitted.current.split('|')[1] ?? '');
    const key = `${model.project.id} ${level} ${room ?? ''}|${traced}`;
    if (fitted.current === key) return;
    fitted.current = key;
    const own = room ? model.shell.rooms.get(room) : null;
    if (own) fitTo([{ kind: 'fill', rings: [own.region.outer], ink: 'room', layer: 'room' }], 110);
    else if (items.length === 0 && underlay) fitTo([{ kind: 'fill', rings: [corners(underlay)], ink: 'paper', layer: 'room' }], 24);
    else fitTo(items, 34);
  }, [ready, room, level, items, model, underlay, fitTo]);

  // What is drawn or typed beyond the edge of the paper comes into sight, unless one has gone closer to something before.
  const seen = useRef<{ level: string; box: Bounds }>({ level: '', box: null });
  useEffect(() => {
    // While a tool is in hand, or something is only shown, the paper stays as it lies under the pointer.
    if (tool.kind !== 'select' || model.project !== useStudio.getState().project) return;
    const before = seen.current;
    const box = displayBounds(items);
    seen.current = { level, box };
    if (before.level !== level || room || !box || !frame.current) return;
    const { k, x, y } = viewRef.current;
    const { clientWidth: width, clientHeight: height } = frame.current;
    const inSight = (b: NonNullable<Bounds>): boolean => x + b.min.x * k >= 0 && x + b.max.x * k <= width && y - b.max.y * k >= 0 && y - b.min.y * k <= height;
    const grown = !before.box || box.min.x < before.box.min.x || box.min.y < before.box.min.y || box.max.x > before.box.max.x || box.max.y > before.box.max.y;
    if (grown && !inSight(box) && (!before.box || inSight(before.box))) fitTo(items, 34);
  }, [items, level, room, model, tool, fitTo]);

  const toModel = useCallback((clientX: number, clientY: number): Vec2 => {
    const box = frame.current!.getBoundingClientRect();
    const v = viewRef.current;
    return { x: (clientX - box.left - v.x) / v.k, y: -(clientY - box.top - v.y) / v.k };
  }, []);

  const point = useCallback(
    (e: { clientX: number; clientY: number; shiftKey?: boolean }): tools.TablePoint => {
      const plan = toModel(e.clientX, e.clientY);
      // What is dragged from the ledge lies over the paper: look through it.
      const under = document
        .elementsFromPoint(e.clientX, e.clientY)
        .find((element) => frame.current?.contains(element))
        ?.closest('[data-entity]');
      const entity = under?.getAttribute('data-entity') ?? null;
      return { plan, spot: entity ? planSpot(entity, plan) : null, reach: 10 / viewRef.current.k, shift: Boolean(e.shiftKey) };
    },
    [toModel],
  );

  useEffect(() => registerPane('plan', frame, point), [point]);

  useWheel(frame, setView);

  const selected = withUnits(
    model.project,
    selection.map((s) => s.entity),
  );
  const one = selection.length === 1 ? selection[0].entity : null;
  const opening = one ? model.project.openings[one] : undefined;
  const showGaps = opening && (tool.kind === 'select' || tool.kind === 'opening') && marks.length === 0;
  const piece = one ? model.project.pieces[one] : undefined;
  const wall = one ? model.project.walls[one] : undefined;

  return (
    <Box
      ref={frame}
      data-testid="plan"
      data-view={`${view.k} ${view.x} ${view.y}`}
      role="application"
      aria-label="Plan"
      tabIndex={0}
      sx={{
        position: 'absolute',
        inset: 0,
        overflow: 'hidden',
        cursor: tool.kind === 'select' ? 'default' : 'crosshair',
        outline: 'none',
        touchAction: 'none',
      }}
      onPointerDown={(e) => {
        if ((e.target as Element).closest('foreignObject')) return;
        (e.currentTarget as HTMLElement).focus();
        if (e.button === 1 || e.button === 2) {
          pan.current = { x: e.clientX, y: e.clientY, view };
          e.currentTarget.setPointerCapture(e.pointerId);
          return;
        }
        const turn = (e.target as Element).closest('[data-turn]');
        const corner = (e.target as Element).closest('[data-corner]')?.getAttribute('data-corner');
        const edge = (e.target as Element).closest('[data-edge]')?.getAttribute('data-edge');
        if (turn && piece) tools.grabTurn(piece);
        else if (edge && one) tools.grabEdge(one, edge as 'left' | 'right');
        else if (corner?.includes('/')) tools.grabPoint(corner.split('/')[0], Number(corner.split('/')[1]));
        else if (corner) tools.grabCorner(corner);
        else if (!tools.down(point(e))) pan.current = { x: e.clientX, y: e.clientY, view };
        e.currentTarget.setPointerCapture(e.pointerId);
      }}
      onPointerMove={(e) => {
        if (pan.current) {
          const { x, y, view: v } = pan.current;
          setView({ ...v, x: v.x + e.clientX - x, y: v.y + e.clientY - y });
        } else tools.move(point(e));
      }}
      onPointerUp={(e) => {
        if (pan.current) pan.current = null;
        else tools.up(point(e));
      }}
      onPointerLeave={() => tools.leave()}
      onDoubleClick={() => tools.drawing() && tools.finishChain()}
      onContextMenu={(e) => e.preventDefault()}
    >
      <svg width={size.width} height={size.height} style={{ position: 'absolute', inset: 0, display: 'block' }}>
        <g transform={`translate(${view.x} ${view.y}) scale(${view.k})`}>
          {underlay?.shown ? <UnderlayPicture underlay={underlay} dim={tool.kind !== 'underlay'} /> : null}
          {PLAN_SHEETS.map((sheet) => (
            // Over an underlay walls are thinned as a whole, so that their pieces don’t show through one another.
            <g key={sheet} opacity={underlay?.shown && sheet === 'walls' ? 0.72 : 1}>
              {sheets[sheet].map((g) => (
                <Group
                  key={g.key}
                  group={g}
                  on={g.items.some((item) => item.entity !== undefined && selected.has(item.entity))}
                  over={g.items.some((item) => item.entity !== undefined && item.entity === hover?.entity)}
                  room={g.items.some((item) => item.layer === 'room' && item.entity === room) ? room : null}
                  clear={Boolean(underlay?.shown)}
                />
              ))}
            </g>
          ))}
          <Marks items={marks} />
          {showGaps ? <Marks items={tools.gapMarks(opening.id).filter((m) => m.kind !== 'text')} /> : null}
        </g>
        <Texts items={items} view={view} selected={selected} room={room} />
        <Texts items={marks} view={view} selected={NONE} room={null} />
        {showGaps ? <GapFields id={opening.id} view={view} /> : null}
        {piece && tool.kind === 'select' && marks.length === 0 ? <PieceGaps id={piece.id} view={view} /> : null}
        {piece ? <PieceZones id={piece.id} view={view} /> : null}
        {piece ? <TurnHandle view={view} piece={piece} /> : null}
        {tool.kind === 'select' && one
          ? handles(model.project, one).map(({ id, p: c }) => {
              return (
                <rect
                  key={id}
                  data-corner={id}
                  x={view.x + c.x * view.k - 5}
                  y={view.y - c.y * view.k - 5}
                  width={10}
                  height={10}
                  fill={colours.paper}
                  stroke={colours.damson}
                  strokeWidth={1.5}
                  style={{ cursor: 'move' }}
                >
                  <title>Move this corner</title>
                </rect>
              );
            })
          : null}
        {tool.kind === 'select' && one && model.project.cabinets[one] && !withUnits(model.project, model.project.contents.held).has(one)
          ? tools.edgesOf(one).map(({ side, p }) => (
              <rect
                key={side}
                data-edge={side}
                x={view.x + p.x * view.k - 5}
                y={view.y - p.y * view.k - 5}
                width={10}
                height={10}
                rx={5}
                fill={colours.paper}
                stroke={colours.damson}
                strokeWidth={1.5}
                style={{ cursor: 'ew-resize' }}
              >
                <title>{side === 'left' ? 'Drag its left edge' : 'Drag its right edge'}</title>
              </rect>
            ))
          : null}
        {tool.kind === 'select' && stage === 'Shell' && marks.length === 0 ? <OverallFields view={view} /> : null}
        {tool.kind === 'select' && marks.length === 0 ? (
          <Dimensions view={view} wall={wall && model.project.walls[one!] === wall ? one : null} room={model.shell.rooms.has(one ?? '') ? one : null} />
        ) : null}
      </svg>
      <Box
        sx={{ position: 'absolute', right: 8, top: 6, px: 0.75, py: '1px', bgcolor: colours.veil, fontSize: 12, color: colours.second, pointerEvents: 'none' }}
      >
        1 : {Math.max(1, Math.round((PX_PER_MM * 1000) / view.k))}
      </Box>
      <NorthMark />
      {ready && items.length === 0 && !underlay && tool.kind === 'select' ? (
        <Box
          sx={{
            position: 'absolute',
            inset: 0,
            display: 'grid',
            placeItems: 'center',
            pointerEvents: 'none',
            color: colours.second,
            fontSize: 14,
            textAlign: 'center',
          }}
        >
          <span>
            Nothing is drawn yet.
            <br />
            Choose “Room by corners” on the ledge below and press twice on this paper.
          </span>
        </Box>
      ) : null}
    </Box>
  );
}

/** Where north lies in the plan. */
function NorthMark() {
  const north = useStudio((s) => s.project.site.north);
  return (
    <svg
      role="img"
      aria-label={`North, ${Math.round(90 - (north * 180) / Math.PI)}° from straight up`}
      data-testid="north"
      width={34}
      height={34}
      viewBox="-17 -17 34 34"
      style={{ position: 'absolute', right: 12, top: 36, pointerEvents: 'none' }}
    >
      <g transform={`rotate(${90 - (north * 180) / Math.PI})`} stroke={INKS.thin} fill="none" strokeWidth={0.8}>
        <circle r={9} />
        <path d="M0 9V-9" />
        <path d="M0 -9L4 0H-4Z" fill={INKS.line} stroke="none" />
        <text y={-11} textAnchor="middle" fontSize={7} fill={INKS.line} stroke="none">
          N
        </text>
      </g>
    </svg>
  );
}

/** The corners that the selected thing can be dragged by. */
function handles(project: Project, one: string): { id: string; p: Vec2 }[] {
  if (project.contents.held.includes(one)) return [];
  const wall = project.walls[one];
  if (wall) return [wall.start, wall.end].map((id) => ({ id, p: project.corners[id] }));
  return (cornersOf(project, one) ?? []).map((p, i) => ({ id: `${one}/${i}`, p }));
}

/** The surface a place in the plan stands for: a wall's nearer face, a room's floor, a piece's first part. */
function planSpot(entity: string, plan: Vec2): Spot {
  const { model } = useStudio.getState();
  const { project } = model;
  if (project.rooms[entity]) return { entity, target: { kind: 'floor', room: entity } };
  const wall = project.walls[entity];
  if (wall) {
    const near = stationNear(wallPath(project, wall), plan);
    const { left: l, right: r } = wallExtents(project, wall);
    const side = near.off >= (l - r) / 2 ? 'left' : 'right';
    const s = model.shell.walls.get(entity)?.sides.filter((x) => x.side === side) ?? [];
    const own = s.find((x) => near.s >= x.s0 - 0.2 && near.s <= x.s1 + 0.2) ?? s[0];
    return { entity, target: { kind: 'wall', room: own?.room ?? null, wall: entity, side } };
  }
  if (entity === UNDERLAY || project.guides[entity]) return { entity, target: null };
  // The first part its kind names, or else its maker.
  const collection = collectionOf(project, entity);
  const [first] = collection ? partKinds(collection, project[collection][entity] as Thing, project) : [];
  if (first) return { entity, target: { kind: 'part', of: entity, part: first.part } };
  return { entity, target: bodyOf(model, entity)?.parts.find((p) => p.target)?.target ?? null };
}

function TurnHandle({ view, piece }: { view: View; piece: { x: number; y: number; rotation: number; size: { depth: number } } }) {
  const r = piece.size.depth / 2 + 22 / view.k;
  const x = view.x + (piece.x + Math.sin(piece.rotation) * r) * view.k;
  const y = view.y - (piece.y - Math.cos(piece.rotation) * r) * view.k;
  return (
    <circle data-turn cx={x} cy={y} r={5.5} fill={colours.paper} stroke={colours.damson} strokeWidth={1.5} style={{ cursor: 'grab' }}>
      <title>Turn</title>
    </circle>
  );
}
