'use client';
import Box from '@mui/material/Box';
import { memo, useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { displayBounds, type DisplayItem, type Ink } from '@/core/drawing/display';
import { drawPlan } from '@/core/drawing/plan';
import { arcPath, linePath, ringPath } from '@/core/drawing/svg';
import { cross, sub, type Vec2 } from '@/core/geometry/vec';
import { wallEnds } from '@/core/project/wall-line';
import { formatLengthExact, parseLength } from '@/core/units/length';
import { colours } from '../look/theme';
import { useStudio, type Spot } from '../store/studio';
import * as tools from '../tools/controller';
import { registerPane } from '../tools/panes';

interface View {
  /** Pixels per metre. */
  k: number;
  x: number;
  y: number;
}

const PX_PER_MM = 96 / 25.4;
const PEN = 2.6;

const inkColour = (ink: Ink): string =>
  ({ cut: '#2b2c2b', line: colours.ink, thin: '#6f706d', faint: colours.firm, measure: colours.teal, paper: '#ffffff', room: '#ffffff', glass: '#7f9aa0' })[
    ink
  ];

/** The plan: drawn from the display list, edited with the pointer. */
export function PlanPane() {
  const model = useStudio((s) => s.model);
  const level = useStudio((s) => s.level);
  const room = useStudio((s) => s.room);
  const marks = useStudio((s) => s.marks);
  const selection = useStudio((s) => s.selection);
  const hover = useStudio((s) => s.hover);
  const tool = useStudio((s) => s.tool);
  const ready = useStudio((s) => s.ready);
  const frame = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 600, height: 500 });
  const [view, setView] = useState<View>({ k: 50, x: 300, y: 300 });
  const pan = useRef<{ x: number; y: number; view: View } | null>(null);
  const items = useMemo(() => drawPlan(model, level), [model, level]);
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
    const key = `${model.project.id} ${level} ${room ?? ''}`;
    if (fitted.current === key) return;
    fitted.current = key;
    const own = room ? model.shell.rooms.get(room) : null;
    if (own) fitTo([{ kind: 'fill', rings: [own.region.outer], ink: 'room', layer: 'room' }], 110);
    else fitTo(items, 34);
  }, [ready, room, level, items, model, fitTo]);

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

  useEffect(() => {
    const element = frame.current!;
    const wheel = (e: WheelEvent): void => {
      e.preventDefault();
      const box = element.getBoundingClientRect();
      const [px, py] = [e.clientX - box.left, e.clientY - box.top];
      setView((v) => {
        const k = Math.min(2000, Math.max(4, v.k * Math.exp(-e.deltaY * 0.0015)));
        return { k, x: px - ((px - v.x) / v.k) * k, y: py - ((py - v.y) / v.k) * k };
      });
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => element.removeEventListener('wheel', wheel);
  }, []);

  const selected = new Set(selection.map((s) => s.entity));
  const one = selection.length === 1 ? selection[0].entity : null;
  const opening = one ? model.project.openings[one] : undefined;
  const showGaps = opening && tool.kind === 'select' && marks.length === 0;
  const piece = one ? model.project.pieces[one] : undefined;

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
        if (turn && piece) tools.grabTurn(piece);
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
          <Marks items={items} selected={selected} hover={hover?.entity ?? null} room={room} />
          <Marks items={marks} selected={NONE} hover={null} room={null} still />
          {showGaps ? <Marks items={tools.gapMarks(opening.id)} selected={NONE} hover={null} room={null} still /> : null}
        </g>
        <Texts items={items} view={view} selected={selected} room={room} />
        <Texts items={marks} view={view} selected={NONE} room={null} />
        {showGaps ? <GapFields id={opening.id} view={view} /> : null}
        {piece ? <TurnHandle view={view} piece={piece} /> : null}
      </svg>
      <Box
        sx={{ position: 'absolute', right: 8, top: 6, px: 0.75, py: '1px', bgcolor: '#FFFFFFD9', fontSize: 12, color: colours.second, pointerEvents: 'none' }}
      >
        1 : {Math.max(1, Math.round((PX_PER_MM * 1000) / view.k))}
      </Box>
      {ready && items.length === 0 && tool.kind === 'select' ? (
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

const NONE = new Set<string>();

/** The surface a place in the plan stands for: a wall's nearer face, a room's floor, a piece's first part. */
function planSpot(entity: string, plan: Vec2): Spot {
  const { model } = useStudio.getState();
  const { project } = model;
  if (project.rooms[entity]) return { entity, target: { kind: 'floor', room: entity } };
  const wall = project.walls[entity];
  if (wall) {
    const [a, b] = wallEnds(project, wall);
    const side = cross(sub(b, a), sub(plan, a)) >= 0 ? 'left' : 'right';
    const s = model.shell.walls.get(entity)?.sides.filter((x) => x.side === side) ?? [];
    const t = ((plan.x - a.x) * (b.x - a.x) + (plan.y - a.y) * (b.y - a.y)) / Math.hypot(b.x - a.x, b.y - a.y);
    const own = s.find((x) => t >= x.s0 - 0.2 && t <= x.s1 + 0.2) ?? s[0];
    return { entity, target: { kind: 'wall', room: own?.room ?? null, wall: entity, side } };
  }
  const piece = model.pieces.find((p) => p.id === entity);
  if (piece) return { entity, target: { kind: 'piece', piece: entity, part: Object.keys(piece.item?.parts ?? { body: '' })[0] } };
  const opening = project.openings[entity];
  return { entity, target: opening ? { kind: 'opening', opening: entity, part: opening.kind === 'door' ? 'leaf' : 'frame' } : null };
}

const Marks = memo(function Marks({
  items,
  selected,
  hover,
  room,
  still,
}: {
  items: readonly DisplayItem[];
  selected: Set<string>;
  hover: string | null;
  room: string | null;
  still?: boolean;
}) {
  return (
    <>
      {items.map((item, i) => {
        if (item.kind === 'text') return null;
        const on = item.entity !== undefined && selected.has(item.entity);
        const over = item.entity !== undefined && hover === item.entity;
        const common = { 'data-entity': still ? undefined : item.entity, style: still ? ({ pointerEvents: 'none' } as const) : undefined };
        if (item.kind === 'fill') {
          let fill = inkColour(item.ink);
          if (item.layer === 'room') fill = item.entity === room ? colours.damsonTint : over ? '#FAFAF9' : '#ffffff';
          else if (item.layer === 'wall') fill = on ? colours.damson : over ? '#5b4650' : fill;
          else if (item.layer === 'piece') fill = on ? '#EBD9E0' : over ? '#F5F3F3' : '#ffffff';
          else if (item.layer === 'opening' && item.ink === 'paper') fill = on ? '#EBD9E0' : over ? '#F5F3F3' : '#ffffff';
          const opacity = item.layer === 'piece' && !on && !over ? 0 : 1;
          // A hairline in the same ink closes the seams between the pieces of a wall.
          const seam = item.ink === 'cut' ? { stroke: fill, strokeWidth: 1.2, vectorEffect: 'non-scaling-stroke' as const } : {};
          return <path key={i} d={ringPath(item.rings)} fill={fill} fillOpacity={opacity} fillRule="evenodd" {...seam} {...common} />;
        }
        const d = item.kind === 'arc' ? arcPath(item) : linePath(item.points, item.closed);
        return (
          <path
            key={i}
            d={d}
            fill="none"
            stroke={on ? colours.damson : inkColour(item.ink)}
            strokeWidth={item.pen * PEN + (on ? 0.5 : 0)}
            vectorEffect="non-scaling-stroke"
            strokeDasharray={item.kind === 'line' && item.dash ? '5 3' : undefined}
            {...common}
          />
        );
      })}
    </>
  );
});

function Texts({ items, view, selected, room }: { items: readonly DisplayItem[]; view: View; selected: Set<string>; room: string | null }) {
  return (
    <g style={{ pointerEvents: 'none' }}>
      {items.map((item, i) => {
        if (item.kind !== 'text') return null;
        const x = view.x + item.at.x * view.k;
        const y = view.y - item.at.y * view.k;
        const px = item.mm * PX_PER_MM;
        const accent = item.entity && (selected.has(item.entity) || item.entity === room);
        return (
          <text
            key={i}
            transform={`translate(${x} ${y}) rotate(${(-item.angle * 180) / Math.PI})`}
            y={(item.dy ?? 0) * PX_PER_MM}
            textAnchor="middle"
            fontSize={px}
            fontWeight={item.weight}
            fill={accent ? colours.damson : item.ink === 'thin' ? colours.third : inkColour(item.ink)}
            stroke="#ffffff"
            strokeWidth={item.layer === 'label' ? 3 : 2.5}
            strokeOpacity={0.85}
            paintOrder="stroke"
          >
            {item.text}
          </text>
        );
      })}
    </g>
  );
}

/** The figures beside a selected opening, which can be typed over. */
function GapFields({ id, view }: { id: string; view: View }) {
  const model = useStudio((s) => s.model);
  const units = model.project.units;
  const texts = tools.gapMarks(id).filter((m) => m.kind === 'text');
  const opening = model.project.openings[id];
  const set = (which: string, metres: number): void => {
    const { run, project } = useStudio.getState();
    const fit = tools.openingFrom(project, id, which, metres);
    if (fit) run('opening.set', { opening: id, set: fit });
  };
  return (
    <>
      {texts.map((t) => {
        const which = t.entity!.split('/')[1];
        const x = view.x + t.at.x * view.k;
        const y = view.y - t.at.y * view.k;
        const value = tools.openingValue(model, opening, which);
        return (
          <foreignObject key={which} transform={`translate(${x} ${y}) rotate(${(-t.angle * 180) / Math.PI})`} x={-34} y={-19} width={68} height={19}>
            <input
              key={`${which} ${value.toFixed(6)} ${units}`}
              aria-label={{ start: 'Distance to the start corner', end: 'Distance to the end corner', width: 'Opening width' }[which]}
              defaultValue={formatLengthExact(value, units)}
              onKeyDown={(e) => {
                e.stopPropagation();
                if (e.key === 'Enter') e.currentTarget.blur();
                if (e.key === 'Escape') {
                  e.currentTarget.value = formatLengthExact(value, units);
                  e.currentTarget.blur();
                }
              }}
              onBlur={(e) => {
                const parsed = parseLength(e.currentTarget.value, units);
                if (!parsed.ok) {
                  useStudio.getState().say(parsed.message);
                  e.currentTarget.value = formatLengthExact(value, units);
                } else if (Math.abs(parsed.metres - value) > 1e-7) set(which, parsed.metres);
              }}
              style={{
                width: '100%',
                height: '100%',
                border: 0,
                background: '#ffffffd9',
                color: colours.teal,
                font: 'inherit',
                fontSize: 11,
                textAlign: 'center',
                padding: 0,
              }}
            />
          </foreignObject>
        );
      })}
    </>
  );
}

function TurnHandle({ view, piece }: { view: View; piece: { x: number; y: number; rotation: number; size: { depth: number } } }) {
  const r = piece.size.depth / 2 + 22 / view.k;
  const x = view.x + (piece.x + Math.sin(piece.rotation) * r) * view.k;
  const y = view.y - (piece.y - Math.cos(piece.rotation) * r) * view.k;
  return (
    <circle data-turn cx={x} cy={y} r={5.5} fill="#fff" stroke={colours.damson} strokeWidth={1.5} style={{ cursor: 'grab' }}>
      <title>Turn</title>
    </circle>
  );
}
