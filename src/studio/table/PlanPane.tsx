'use client';
import Box from '@mui/material/Box';
import { memo, useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { displayBounds, type DisplayItem, type Ink } from '@/core/drawing/display';
import { drawDimension, drawPlanGroups, type PlanGroup } from '@/core/drawing/plan/plan';
import { setLabel } from '@/core/drawing/plan/labels';
import { arcPath, linePath, ringPath } from '@/core/drawing/svg';
import { add, left, scale, sub, unit, type Vec2 } from '@/core/geometry/vec';
import type { Underlay } from '@/core/project/schema';
import { corners } from '@/core/project/underlay';
import { stationNear, wallExtents, wallPath } from '@/core/project/wall-line';
import { dimensionEdit, roomDimensions, wallDimensions, type Dimension } from '@/core/shell/dimensions';
import type { DerivedRoom } from '@/core/shell/model';
import { partsOf } from '@/core/shell/openings/parts';
import { formatLengthExact, parseLength } from '@/core/units/length';
import { colours } from '../look/theme';
import { useStudio, type Spot } from '../store/studio';
import * as tools from '../tools/controller';
import { registerPane } from '../tools/panes';
import { UNDERLAY } from '../tools/session';

interface View {
  /** Pixels per metre. */
  k: number;
  x: number;
  y: number;
}

const PX_PER_MM = 96 / 25.4;
const PEN = 2.6;

const inkColour = (ink: Ink): string =>
  ({
    cut: '#2b2c2b',
    standing: '#9b9c99',
    leaf: '#7d7e7b',
    line: colours.ink,
    thin: '#6f706d',
    faint: colours.firm,
    measure: colours.teal,
    paper: '#ffffff',
    room: '#ffffff',
    glass: '#7f9aa0',
  })[ink];

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
  const groups = useMemo(() => drawPlanGroups(model, level), [model, level]);
  const items = useMemo(() => groups.flatMap((g) => g.items), [groups]);
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
        if (turn && piece) tools.grabTurn(piece);
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
          {layersOf(groups).map((list, n) => (
            // Over an underlay walls are thinned as a whole, so that their pieces don’t show through one another.
            <g key={n} opacity={underlay?.shown && list[0]?.key.startsWith('wall ') ? 0.72 : 1}>
              {list.map((g) => (
                <Group
                  key={g.key}
                  group={g}
                  on={g.items.some((item) => item.entity !== undefined && selected.has(item.entity))}
                  over={g.items.some((item) => item.entity !== undefined && item.entity === hover?.entity)}
                  room={g.key.startsWith('room ') ? room : null}
                  clear={Boolean(underlay?.shown)}
                />
              ))}
            </g>
          ))}
          <Marks items={marks} />
          {showGaps ? <Marks items={tools.gapMarks(opening.id)} /> : null}
        </g>
        <Texts items={items} view={view} selected={selected} room={room} />
        <Texts items={marks} view={view} selected={NONE} room={null} />
        {showGaps ? <GapFields id={opening.id} view={view} /> : null}
        {piece ? <TurnHandle view={view} piece={piece} /> : null}
        {wall && tool.kind === 'select'
          ? [wall.start, wall.end].map((id) => {
              const c = model.project.corners[id];
              return (
                <rect
                  key={id}
                  data-corner={id}
                  x={view.x + c.x * view.k - 5}
                  y={view.y - c.y * view.k - 5}
                  width={10}
                  height={10}
                  fill="#fff"
                  stroke={colours.damson}
                  strokeWidth={1.5}
                  style={{ cursor: 'move' }}
                >
                  <title>Move this corner</title>
                </rect>
              );
            })
          : null}
        {tool.kind === 'select' && marks.length === 0 ? (
          <Dimensions view={view} wall={wall && model.project.walls[one!] === wall ? one : null} room={model.shell.rooms.has(one ?? '') ? one : null} />
        ) : null}
      </svg>
      <Box
        sx={{ position: 'absolute', right: 8, top: 6, px: 0.75, py: '1px', bgcolor: '#FFFFFFD9', fontSize: 12, color: colours.second, pointerEvents: 'none' }}
      >
        1 : {Math.max(1, Math.round((PX_PER_MM * 1000) / view.k))}
      </Box>
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

const NONE = new Set<string>();

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
  if (project.columns[entity]) return { entity, target: { kind: 'column', column: entity } };
  const piece = model.pieces.find((p) => p.id === entity);
  if (piece) return { entity, target: { kind: 'piece', piece: entity, part: Object.keys(piece.item?.parts ?? { body: '' })[0] } };
  const opening = project.openings[entity];
  return { entity, target: opening ? { kind: 'opening', opening: entity, part: partsOf(opening)[0] ?? 'frame' } : null };
}

/** Groups that follow one another in one layer: what lies under the walls, the walls, what lies over them. */
function layersOf(groups: readonly PlanGroup[]): PlanGroup[][] {
  const first = groups.findIndex((g) => g.key.startsWith('wall '));
  if (first < 0) return [[...groups], [], []];
  const after = groups.findIndex((g, i) => i > first && !g.key.startsWith('wall '));
  const end = after < 0 ? groups.length : after;
  return [groups.slice(0, first), groups.slice(first, end), groups.slice(end)];
}

/** The marks of one thing: drawn again only when it has changed, or is pointed at or selected. */
const Group = memo(function Group({ group, on, over, room, clear }: { group: PlanGroup; on: boolean; over: boolean; room: string | null; clear: boolean }) {
  return (
    <>
      {group.items.map((item, i) => (
        <Mark key={i} item={item} on={on} over={over} room={room} clear={clear} />
      ))}
    </>
  );
});

/** Marks a tool shows while it works: out of the pointer's reach. */
function Marks({ items }: { items: readonly DisplayItem[] }) {
  return (
    <>
      {items.map((item, i) => (
        <Mark key={i} item={item} on={false} over={false} room={null} clear still />
      ))}
    </>
  );
}

function Mark({ item, on, over, room, clear, still }: { item: DisplayItem; on: boolean; over: boolean; room: string | null; clear: boolean; still?: boolean }) {
  if (item.kind === 'text' || item.kind === 'label') return null;
  const common = { 'data-entity': still ? undefined : item.entity, style: still ? ({ pointerEvents: 'none' } as const) : undefined };
  if (item.kind === 'fill') {
    let fill = inkColour(item.ink);
    if (item.layer === 'room') fill = item.entity === room ? colours.damsonTint : over ? '#FAFAF9' : '#ffffff';
    else if (item.layer === 'wall' && item.ink !== 'paper') fill = on ? colours.damson : over ? '#5b4650' : fill;
    else if (item.layer === 'column') fill = on ? colours.damson : fill;
    else if (item.layer === 'piece') fill = on ? '#EBD9E0' : over ? '#F5F3F3' : '#ffffff';
    else if (item.layer === 'opening' && item.ink === 'paper') fill = on ? '#EBD9E0' : over ? '#F5F3F3' : '#ffffff';
    // Over an underlay the floors stay clear, so that one sees what one traces.
    const opacity = (item.layer === 'piece' && !on && !over) || (item.layer === 'room' && clear) ? 0 : 1;
    // A hairline in the same ink closes the seams between the pieces of a wall.
    const seam = item.ink === 'cut' || item.ink === 'standing' ? { stroke: fill, strokeWidth: 1.2, vectorEffect: 'non-scaling-stroke' as const } : {};
    return <path d={ringPath(item.rings)} fill={fill} fillOpacity={opacity} fillRule="evenodd" {...seam} {...common} />;
  }
  const d = item.kind === 'arc' ? arcPath(item) : linePath(item.points, item.closed);
  const line = (
    <path
      d={d}
      fill="none"
      stroke={on ? colours.damson : inkColour(item.ink)}
      strokeWidth={item.pen * PEN + (on ? 0.5 : 0)}
      vectorEffect="non-scaling-stroke"
      strokeDasharray={item.kind === 'line' && item.dash ? '5 3' : undefined}
      {...common}
    />
  );
  // What is only a line wants a wider band to be pressed.
  if (still || item.kind !== 'line' || (item.layer !== 'guide' && !(item.layer === 'wall' && !item.closed))) return line;
  return (
    <>
      {line}
      <path d={d} fill="none" stroke="transparent" strokeWidth={11} vectorEffect="non-scaling-stroke" data-entity={item.entity} />
    </>
  );
}

/** The scanned plan under the drawing. */
function UnderlayPicture({ underlay, dim }: { underlay: Underlay; dim: boolean }) {
  const { origin, scale: k, rotation, pixels, opacity, image, locked } = underlay;
  return (
    <image
      href={`/api/assets/${image}`}
      data-testid="underlay"
      data-entity={locked || !dim ? undefined : UNDERLAY}
      width={pixels.width}
      height={pixels.height}
      opacity={opacity}
      preserveAspectRatio="none"
      style={{ pointerEvents: locked || !dim ? 'none' : undefined }}
      transform={`translate(${origin.x} ${-origin.y}) rotate(${(-rotation * 180) / Math.PI}) scale(${k.x} ${k.y}) translate(${-pixels.width / 2} ${-pixels.height / 2})`}
    />
  );
}

/** The lengths of the selected wall's faces, or of the selected room, typed over where they stand; a press on an arrow says which end gives way. */
function Dimensions({ view, wall, room }: { view: View; wall: string | null; room: string | null }) {
  const model = useStudio((s) => s.model);
  const level = useStudio((s) => s.level);
  const [end, setEnd] = useState<0 | 1>(1);
  const own = model.shell.levels.find((l) => l.id === level);
  if (!own || (!wall && !room)) return null;
  const list: { d: Dimension; off: Vec2 }[] = wall
    ? wallDimensions(own, wall).map((d) => {
        const along = unit(sub(d.b, d.a));
        const side = d.key.split('/')[1] === 'left' ? 1 : -1;
        return { d, off: scale(left(along), (side * 24) / view.k) };
      })
    : besideFaces(model.shell.rooms.get(room!)!, view.k);
  const { units } = model.project;
  return (
    <>
      {list.map(({ d, off }) => {
        const [a, b] = [add(d.a, off), add(d.b, off)];
        const marks = drawDimension(a, b, '');
        const text = marks.find((m) => m.kind === 'text')!;
        const [x, y] = [view.x + text.at.x * view.k, view.y - text.at.y * view.k];
        // Along an upright dimension the figure reads from below: the far end comes first.
        const turned = Math.cos(text.angle - Math.atan2(b.y - a.y, b.x - a.x)) < 0;
        const commit = (metres: number): boolean => {
          const state = useStudio.getState();
          const edit = dimensionEdit(state.project, d, metres, end) ?? dimensionEdit(state.project, d, metres, end === 1 ? 0 : 1);
          if (!edit) {
            state.say('The length was not changed: nothing at its ends can give way; move a wall instead.');
            return false;
          }
          return edit.command === 'wall.move' ? state.run('wall.move', edit.args) : state.run('wall.length', edit.args);
        };
        return (
          <g key={d.key}>
            <g transform={`translate(${view.x} ${view.y}) scale(${view.k})`}>
              <Marks items={marks} />
            </g>
            <foreignObject transform={`translate(${x} ${y}) rotate(${(-text.angle * 180) / Math.PI})`} x={-56} y={-20} width={112} height={20}>
              <div style={{ display: 'flex', justifyContent: 'center', alignItems: 'center', height: 20, gap: 1 }}>
                {([turned ? 1 : 0, turned ? 0 : 1] as const).map((which, i) => {
                  const arrow = (
                    <button
                      key={i}
                      type="button"
                      aria-label={`${i === 0 ? 'This' : 'The other'} end gives way`}
                      aria-pressed={end === which}
                      title="This end gives way"
                      onClick={() => setEnd(which as 0 | 1)}
                      style={{
                        border: 0,
                        background: '#ffffffd9',
                        color: end === which ? colours.teal : '#b9bab6',
                        font: 'inherit',
                        fontSize: 11,
                        padding: '0 3px',
                        cursor: 'pointer',
                      }}
                    >
                      {i === 0 ? '◂' : '▸'}
                    </button>
                  );
                  return i === 0
                    ? [
                        arrow,
                        <FigureField
                          key="figure"
                          label={room ? (d.key.endsWith('width') ? 'Inside width' : 'Inside depth') : 'Length of this face'}
                          value={d.value}
                          units={units}
                          onCommit={commit}
                        />,
                      ]
                    : arrow;
                })}
              </div>
            </foreignObject>
          </g>
        );
      })}
    </>
  );
}

/** The dimensions of a room, brought beside the faces they run along, clear of its label. */
function besideFaces(room: DerivedRoom, k: number): { d: Dimension; off: Vec2 }[] {
  const list = roomDimensions(room);
  return list.map((d, i) => {
    const other = list[1 - i];
    if (!other) return { d, off: { x: 0, y: 0 } };
    const toward = sub(other.a, room.label);
    const l = Math.hypot(toward.x, toward.y);
    return { d, off: scale(toward, Math.max(0, l - (i === 0 ? 20 : 26) / k) / (l || 1)) };
  });
}

/** A figure of a dimension that can be typed over. */
function FigureField({ label, value, units, onCommit }: { label: string; value: number; units: 'metric' | 'imperial'; onCommit(metres: number): boolean }) {
  return (
    <input
      key={`${value.toFixed(6)} ${units}`}
      aria-label={label}
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
        const reset = (): void => void (e.currentTarget.value = formatLengthExact(value, units));
        if (!parsed.ok) {
          useStudio.getState().say(parsed.message);
          reset();
        } else if (Math.abs(parsed.metres - value) > 1e-7 && !onCommit(parsed.metres)) reset();
      }}
      style={{ width: 68, height: 19, border: 0, background: '#ffffffd9', color: colours.teal, font: 'inherit', fontSize: 11, textAlign: 'center', padding: 0 }}
    />
  );
}

function Texts({ items, view, selected, room }: { items: readonly DisplayItem[]; view: View; selected: Set<string>; room: string | null }) {
  return (
    <g style={{ pointerEvents: 'none' }}>
      {items.map((item, i) => {
        if (item.kind === 'label') {
          const set = setLabel(item.region, item.at, item.lines, view.k / PX_PER_MM);
          if (!set) return null;
          const own = selected.has(item.entity) || item.entity === room;
          return (
            <g
              key={i}
              transform={`translate(${view.x + set.at.x * view.k} ${view.y - set.at.y * view.k}) rotate(${(-set.angle * 180) / Math.PI})`}
              data-label={item.entity}
            >
              {set.lines.map((l, n) => (
                <text
                  key={n}
                  y={(l.dy + l.mm * 0.35) * PX_PER_MM}
                  textAnchor="middle"
                  fontSize={l.mm * PX_PER_MM}
                  fontWeight={l.strong ? 600 : 400}
                  fill={own ? colours.damson : l.strong ? colours.ink : colours.third}
                  stroke="#ffffff"
                  strokeWidth={3}
                  strokeOpacity={0.85}
                  paintOrder="stroke"
                >
                  {l.text}
                </text>
              ))}
            </g>
          );
        }
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
  const set = (which: string, metres: number): boolean => {
    const { run, project } = useStudio.getState();
    const fit = tools.openingFrom(project, id, which, metres);
    return fit !== null && run('opening.set', { opening: id, set: fit });
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
            <FigureField
              label={{ start: 'Distance to the start corner', end: 'Distance to the end corner', width: 'Opening width' }[which]!}
              value={value}
              units={units}
              onCommit={(metres) => set(which, metres)}
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
