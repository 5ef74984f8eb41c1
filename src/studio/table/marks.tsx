'use client';
import { memo, useMemo } from 'react';
import type { DisplayItem, MarkGroup } from '@/core/drawing/display';
import { fillOf, INKS, MARKED, penWidth, seamed, slim, strokeOf } from '@/core/drawing/inks';
import { setLabel, settled } from '@/core/drawing/plan/labels';
import { markPath, ringPath } from '@/core/drawing/svg';

/** Where the drawing stands in its pane. */
export interface View {
  /** Pixels per metre. */
  k: number;
  x: number;
  y: number;
}

export const PX_PER_MM = 96 / 25.4;
/** The marks of one thing, with what is said of it: drawn again only when it has changed, or is pointed at or selected. */
export const Group = memo(function Group({
  group,
  on,
  over,
  room,
  clear,
}: {
  group: MarkGroup;
  on: boolean;
  over: boolean;
  room: string | null;
  clear: boolean;
}) {
  const marks = group.items.map((item, i) => <Mark key={i} item={item} on={on} over={over} room={room} clear={clear} />);
  return group.title ? (
    <g style={{ cursor: 'pointer' }}>
      <title>{group.title}</title>
      {marks}
    </g>
  ) : (
    <>{marks}</>
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
    const fill = fillOf(item, (item.layer === 'room' ? item.entity === room : on) ? 'chosen' : over ? 'pointed' : 'plain');
    // Over an underlay the floors stay clear, so that one sees what one traces.
    const opacity = (item.layer === 'piece' && !on && !over) || (item.layer === 'room' && clear) ? 0 : 1;
    const seam = seamed(item.ink) ? { stroke: fill, strokeWidth: 1.2, vectorEffect: 'non-scaling-stroke' as const } : {};
    return <path d={ringPath(item.rings)} fill={fill} fillOpacity={opacity} fillRule="evenodd" {...seam} {...common} />;
  }
  const d = markPath(item);
  const line = (
    <path
      d={d}
      fill="none"
      stroke={strokeOf(item.ink, on ? 'chosen' : 'plain')}
      strokeWidth={penWidth(item.pen, on ? 'chosen' : 'plain')}
      vectorEffect="non-scaling-stroke"
      strokeDasharray={item.kind === 'line' && item.dash ? '5 3' : undefined}
      {...common}
    />
  );
  // What is only a line wants a wider band to be pressed.
  if (still || !slim(item)) return line;
  return (
    <>
      {line}
      <path d={d} fill="none" stroke="transparent" strokeWidth={11} vectorEffect="non-scaling-stroke" data-entity={item.entity} />
    </>
  );
}

/** Texts and labels of a drawing: as large as their type is on paper, whatever the scale. */
export function Texts({ items, view, selected, room }: { items: readonly DisplayItem[]; view: View; selected: ReadonlySet<string>; room: string | null }) {
  const set = useMemo(() => settled(items, view.k / PX_PER_MM), [items, view.k]);
  return (
    <g style={{ pointerEvents: 'none' }}>
      {set.map((item, i) => {
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
          fill={own ? MARKED.chosen : l.strong ? INKS.line : MARKED.quiet}
          stroke={INKS.paper}
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
      fill={accent ? MARKED.chosen : item.ink === 'thin' ? MARKED.quiet : INKS[item.ink]}
      stroke={INKS.paper}
      strokeWidth={item.layer === 'label' ? 3 : 2.5}
      strokeOpacity={0.85}
      paintOrder="stroke"
    >
      {item.text}
    </text>
  );
});
