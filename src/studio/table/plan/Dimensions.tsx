'use client';
import { useMemo, useRef, useState } from 'react';
import { drawDimension, inRows } from '@/core/drawing/dimension';
import { overallLines } from '@/core/drawing/plan/plan';
import { drawZones } from '@/core/drawing/plan/zones';
import { add, left, rotate, scale, sub, unit, type Vec2 } from '@/core/geometry/vec';
import { gapsOf, halfOf, OUT, SIDE_WORDS, SIDES, type Gap, type PieceSide } from '@/core/placing/around';
import { zonesOf } from '@/core/placing/zones';
import type { Piece } from '@/core/project/schema';
import { dimensionEdit, endWords, roomDimensions, wallDimensions, type Dimension } from '@/core/shell/dimensions';
import type { DerivedRoom } from '@/core/shell/model';
import { colours } from '../../look/theme';
import { useStudio } from '../../store/studio';
import * as arranging from '../../tools/arranging';
import * as tools from '../../tools/controller';
import { FigureField, figureWidth } from '../FigureField';
import { Marks, type View } from '../marks';
import { TypedDistance, type Distance } from '../TypedDistance';
import { ZoneMarks } from '../ZoneMarks';

/** The lengths of the selected wall's faces, or of the selected room, typed over where they stand; a press on an arrow says which end gives way. */
export function Dimensions({ view, wall, room }: { view: View; wall: string | null; room: string | null }) {
  const model = useStudio((s) => s.model);
  const level = useStudio((s) => s.level);
  const own = model.shell.levels.find((l) => l.id === level);
  if (!own || (!wall && !room)) return null;
  const list: { d: Dimension; off: Vec2 }[] = wall
    ? wallDimensions(own, wall).map((d) => {
        const along = unit(sub(d.b, d.a));
        const side = d.key.split('/')[1] === 'left' ? 1 : -1;
        return { d, off: scale(left(along), (side * 24) / view.k) };
      })
    : besideFaces(model.shell.rooms.get(room!)!, view.k);
  return (
    <>
      {list.map(({ d, off }) => (
        <Typed key={d.key} d={d} off={off} view={view} label={room ? (d.key.endsWith('width') ? 'Inside width' : 'Inside depth') : 'Length of this face'} />
      ))}
    </>
  );
}

/** The overall dimensions of the level, typed over where the plan shows them. */
export function OverallFields({ view }: { view: View }) {
  const model = useStudio((s) => s.model);
  const level = useStudio((s) => s.level);
  const own = model.shell.levels.find((l) => l.id === level);
  return (
    <>
      {(own ? overallLines(own) : []).map(({ d, push }) => (
        <Typed key={d.key} d={d} off={push} view={view} label={d.key.endsWith('width') ? 'Overall width' : 'Overall depth'} quiet />
      ))}
    </>
  );
}

/** One length with its figure as a field, and arrows for the end that gives way. @param quiet the plan draws it already; arrows only while one is at it */
function Typed({ d, off, view, label, quiet = false }: { d: Dimension; off: Vec2; view: View; label: string; quiet?: boolean }) {
  const units = useStudio((s) => s.project.units);
  const [end, setEnd] = useState<0 | 1>(1);
  const [a, b] = [add(d.a, off), add(d.b, off)];
  const marks = drawDimension(a, b, '');
  const text = marks.find((m) => m.kind === 'text')!;
  const [x, y] = [view.x + text.at.x * view.k, view.y - text.at.y * view.k];
  // Along an upright dimension the figure reads from below: the far end comes first.
  const turned = Math.cos(text.angle - Math.atan2(b.y - a.y, b.x - a.x)) < 0;
  // While one types, the length that is meant stays the one that was there.
  const held = useRef<Dimension | null>(null);
  const editOf = (metres: number, which = end): ReturnType<typeof dimensionEdit> => {
    const { project } = useStudio.getState();
    const own = held.current ?? d;
    return dimensionEdit(project, own, metres, which) ?? dimensionEdit(project, own, metres, which === 1 ? 0 : 1);
  };
  const commit = (metres: number): boolean => {
    const state = useStudio.getState();
    const edit = editOf(metres);
    if (!edit) {
      state.say('The length was not changed: nothing at its ends can give way; move a wall instead.');
      return false;
    }
    return edit.command === 'wall.move' ? state.run('wall.move', edit.args) : state.run('wall.length', edit.args);
  };
  /** What a length that is being typed would move. */
  const show = (metres: number | null): void => {
    const state = useStudio.getState();
    held.current ??= d;
    const edit = metres === null ? null : editOf(metres);
    if (!edit) state.endPreview();
    else if (edit.command === 'wall.move') state.preview('wall.move', edit.args);
    else state.preview('wall.length', edit.args);
  };
  const over = (which: 0 | 1 | null): void => {
    const edit = which === null ? null : editOf(d.value, which);
    useStudio.getState().setHover(edit ? { entity: edit.args.wall, target: null } : null);
  };
  const words = endWords(d);
  const arrow = (which: 0 | 1, first: boolean) => (
    <button
      type="button"
      aria-label={words[which]}
      aria-pressed={end === which}
      title={words[which]}
      onClick={() => setEnd(which)}
      onPointerEnter={() => over(which)}
      onPointerLeave={() => over(null)}
      className="gives-way"
      style={{
        border: 0,
        background: colours.veil,
        color: end === which ? colours.teal : colours.faint,
        font: 'inherit',
        fontSize: 11,
        padding: '0 3px',
        cursor: 'pointer',
      }}
    >
      {first ? '◂' : '▸'}
    </button>
  );
  return (
    <g>
      {quiet ? null : (
        <g transform={`translate(${view.x} ${view.y}) scale(${view.k})`}>
          <Marks items={marks} />
        </g>
      )}
      <foreignObject transform={`translate(${x} ${y}) rotate(${(-text.angle * 180) / Math.PI})`} x={-56} y={-21} width={112} height={20}>
        <div className={quiet ? 'quiet-figure' : undefined} style={{ display: 'flex', justifyContent: 'center', alignItems: 'center', height: 20, gap: 1 }}>
          {arrow(turned ? 1 : 0, true)}
          <FigureField
            label={label}
            value={(held.current ?? d).value}
            units={units}
            onCommit={commit}
            onType={show}
            onLeave={() => (held.current = null)}
            rounded={quiet}
          />
          {arrow(turned ? 0 : 1, false)}
        </div>
      </foreignObject>
    </g>
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

/** The figures beside a selected opening, which can be typed over. */
export function GapFields({ id, view }: { id: string; view: View }) {
  const model = useStudio((s) => s.model);
  const units = model.project.units;
  const texts = tools.gapMarks(id).filter((m) => m.kind === 'text');
  const opening = model.project.openings[id];
  const rows = inRows(texts.map((t) => ({ at: scale(t.at, view.k), angle: t.angle, width: figureWidth(t.text) + 4 })));
  const set = (which: string, metres: number): boolean => {
    const { run, project } = useStudio.getState();
    const fit = tools.openingFrom(project, id, which, metres);
    return fit !== null && run('opening.set', { opening: id, set: fit });
  };
  return (
    <>
      {texts.map((t, i) => {
        const which = t.entity!.split('/')[1];
        const x = view.x + t.at.x * view.k;
        const y = view.y - t.at.y * view.k;
        const value = tools.openingValue(model, opening, which);
        return (
          <foreignObject
            key={which}
            transform={`translate(${x} ${y}) rotate(${(-t.angle * 180) / Math.PI})`}
            x={-34}
            y={-19 - rows[i] * 14}
            width={68}
            height={19}
          >
            <FigureField
              label={{ start: 'Distance to the start corner', end: 'Distance to the end corner', width: 'Opening width' }[which]!}
              value={value}
              units={units}
              least={which === 'width' ? undefined : null}
              onCommit={(metres) => set(which, metres)}
            />
          </foreignObject>
        );
      })}
    </>
  );
}

/** How far the selected piece is from what bounds it, which can be typed over. */
export function PieceGaps({ id, view }: { id: string; view: View }) {
  const model = useStudio((s) => s.model);
  const piece = model.project.pieces[id];
  // What hangs at a window stands where that is.
  if (!piece || piece.hangs) return null;
  const gaps = gapsOf(model, id);
  return (
    <>
      {SIDES.map((side) => (
        <TypedDistance
          key={side}
          label={`Distance: ${SIDE_WORDS[side]}`}
          distance={distanceOf(piece, side, gaps[side])}
          view={view}
          worked={(v) => arranging.atDistance(id, side, v)}
        />
      ))}
    </>
  );
}

/** The electrical zones about the selected piece, where it is washed in. */
export function PieceZones({ id, view }: { id: string; view: View }) {
  const model = useStudio((s) => s.model);
  const items = useMemo(() => {
    const zones = zonesOf(model, id);
    return zones ? drawZones(zones) : [];
  }, [model, id]);
  return <ZoneMarks items={items} view={view} />;
}

/** The line of a gap. It begins at the middle of the side: the figure belongs to the piece, whatever it is measured to. */
function distanceOf(piece: Piece, side: PieceSide, gap: Gap | undefined): Distance | null {
  if (!gap) return null;
  const out = (d: number): Vec2 => rotate(scale(OUT[side], d), piece.rotation);
  const from = add(piece, out(halfOf(piece, side)));
  return { from, to: add(from, out(gap.distance)), value: gap.distance };
}
