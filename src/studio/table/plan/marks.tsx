'use client';
import { memo } from 'react';
import type { DisplayItem, Ink } from '@/core/drawing/display';
import { setLabel } from '@/core/drawing/plan/labels';
import type { PlanGroup } from '@/core/drawing/plan/plan';
import { arcPath, linePath, ringPath } from '@/core/drawing/svg';
import type { Underlay } from '@/core/project/schema';
import { colours } from '../../look/theme';
import { UNDERLAY } from '../../tools/session';

/** Where the drawing stands in its pane. */
export interface View {
  /** Pixels per metre. */
  k: number;
  x: number;
  y: number;
}

export const PX_PER_MM = 96 / 25.4;
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
    site: '#F4F3F0',
    water: '#E6ECEC',
  })[ink];

/** Groups that follow one another in one layer: what lies under the walls, the walls, what lies over them. */
export function layersOf(groups: readonly PlanGroup[]): PlanGroup[][] {
  const first = groups.findIndex((g) => g.key.startsWith('wall '));
  if (first < 0) return [[...groups], [], []];
  const after = groups.findIndex((g, i) => i > first && !g.key.startsWith('wall '));
  const end = after < 0 ? groups.length : after;
  return [groups.slice(0, first), groups.slice(first, end), groups.slice(end)];
}

/** The marks of one thing: drawn again only when it has changed, or is pointed at or selected. */
export const Group = memo(function Group({
  group,
  on,
  over,
  room,
  clear,
}: {
  group: PlanGroup;
  on: boolean;
  over: boolean;
  room: string | null;
  clear: boolean;
}) {
  return (
    <>
      {group.items.map((item, i) => (
        <Mark key={i} item={item} on={on} over={over} room={room} clear={clear} />
      ))}
    </>
  );
});

/** Marks a tool shows while it works: out of the pointer's reach. */
export function Marks({ items }: { items: readonly DisplayItem[] }) {
  return (
    <>
      {items.map((item, i) => (
        <Mark key={i} item={item} on={false} over={false} room={null} clear still />
      ))}
    </>
  );
}

function Mark({
  item,
  on: chosen,
  over,
  room,
  clear,
  still,
}: {
  item: DisplayItem;
  on: boolean;
  over: boolean;
  room: string | null;
  clear: boolean;
  still?: boolean;
}) {
  if (item.kind === 'text' || item.kind === 'label') return null;
  // What belongs to nothing that can be chosen stays as it is drawn.
  const on = chosen && item.entity !== undefined;
  const common = {
    'data-entity': still ? undefined : item.entity,
    style: still || item.entity === undefined ? ({ pointerEvents: 'none' } as const) : undefined,
  };
  if (item.kind === 'fill') {
    let fill = item.colour ?? inkColour(item.ink);
    if (item.layer === 'room' && !item.colour) fill = item.entity === room ? colours.damsonTint : over ? '#FAFAF9' : '#ffffff';
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
  const thin =
    item.layer === 'guide' ||
    item.layer === 'roof' ||
    (item.layer === 'wall' && item.kind === 'line' && !item.closed) ||
    (item.layer === 'opening' && item.kind === 'line' && item.dash);
  if (still || !thin) return line;
  return (
    <>
      {line}
      <path d={d} fill="none" stroke="transparent" strokeWidth={11} vectorEffect="non-scaling-stroke" data-entity={item.entity} />
    </>
  );
}

/** The scanned plan under the drawing. */
export function UnderlayPicture({ underlay, dim }: { underlay: Underlay; dim: boolean }) {
  const { origin, scale: k, rotation, pixels, opacity, image, held } = underlay;
  return (
    <image
      href={`/api/assets/${image}`}
      data-testid="underlay"
      data-entity={held || !dim ? undefined : UNDERLAY}
      width={pixels.width}
      height={pixels.height}
      opacity={opacity}
      preserveAspectRatio="none"
      style={{ pointerEvents: held || !dim ? 'none' : undefined }}
      transform={`translate(${origin.x} ${-origin.y}) rotate(${(-rotation * 180) / Math.PI}) scale(${k.x} ${k.y}) translate(${-pixels.width / 2} ${-pixels.height / 2})`}
    />
  );
}

/** Texts and labels of a drawing: as large as their type is on paper, whatever the scale. */
export function Texts({ items, view, selected, room }: { items: readonly DisplayItem[]; view: View; selected: Set<string>; room: string | null }) {
  return (
    <g style={{ pointerEvents: 'none' }}>
      {items.map((item, i) => {
        if (item.kind === 'label') return <RoomLabel key={i} item={item} view={view} own={selected.has(item.entity) || item.entity === room} />;
        if (item.kind !== 'text') return null;
        const accent = item.entity !== undefined && (selected.has(item.entity) || item.entity === room);
        return <DrawnText key={i} item={item} view={view} accent={accent} />;
      })}
    </g>
  );
}

/** A room's label, set where it fits; set again only when the room or the view changes. */
const RoomLabel = memo(function RoomLabel({ item, view, own }: { item: Extract<DisplayItem, { kind: 'label' }>; view: View; own: boolean }) {
  const set = setLabel(item.region, item.at, item.lines, view.k / PX_PER_MM);
  if (!set) return null;
  return (
    <g transform={`translate(${view.x + set.at.x * view.k} ${view.y - set.at.y * view.k}) rotate(${(-set.angle * 180) / Math.PI})`} data-label={item.entity}>
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
});

const DrawnText = memo(function DrawnText({ item, view, accent }: { item: Extract<DisplayItem, { kind: 'text' }>; view: View; accent: boolean }) {
  const x = view.x + item.at.x * view.k;
  const y = view.y - item.at.y * view.k;
  return (
    <text
      transform={`translate(${x} ${y}) rotate(${(-item.angle * 180) / Math.PI})`}
      y={(item.dy ?? 0) * PX_PER_MM}
      textAnchor="middle"
      fontSize={item.mm * PX_PER_MM}
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
});
