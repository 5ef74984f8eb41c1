'use client';
import Box from '@mui/material/Box';
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import type { DisplayItem } from '@/core/drawing/display';
import { CHAINS, runChains, type Chain } from '@/core/drawing/elevation/chains';
import { drawElevation, laidOn, laying, unitsDrawn } from '@/core/drawing/elevation/elevation';
import { settled } from '@/core/drawing/plan/labels';
import { elevationFaces, placedAt, type Elevation } from '@/core/drawing/elevation/unroll';
import { distance, type Vec2 } from '@/core/geometry/vec';
import type { Patch } from '@/core/project/schema';
import { withUnits } from '@/core/project/things';
import { draggedHandle, movedPatch } from '@/core/shell/dress/patch-handles';
import { formatLength, snapStep } from '@/core/units/length';
import { colours } from '../../look/theme';
import { targetName, useStudio } from '../../store/studio';
import { useLayouts, type Wanted } from '../../finishes/layouts';
import { Group, Marks, PX_PER_MM, Texts, type View } from '../marks';
import { useWheel } from '../zoom';
import { Handles } from './Handles';
import { dragFront, dropFront, takeFront, type FrontDrag } from './fronts';
import { FrontInHand } from './FrontInHand';
import { UprightZones } from './UprightZones';
import { UnitFigures } from './UnitFigures';
import { UprightGaps } from './UprightGaps';
import * as tools from '../../tools/controller';
import { pressFinish, showFinish } from '../../tools/finishing';
import { registerPane } from '../../tools/panes';
import { nudge } from '../../tools/pieces';
import type { TablePoint } from '../../tools/session';
import { bandOf, KIND_WORDS, KINDS, movedUpright, placeOutline, pointOn, spotUpright, type Carrying, type Kind } from './placing';

const NONE: Set<string> = new Set();

/** A wall, or all walls of its room unrolled side by side, upright and true to scale: openings, patches, how units are laid. */
export function ElevationPane({ wall: wallId, side, room }: Elevation) {
  const model = useStudio((s) => s.model);
  const project = useStudio((s) => s.project);
  const selection = useStudio((s) => s.selection);
  /** The card in hand, to be placed at the wall. */
  const dressing = useStudio((s) => s.tool.kind === 'finish');
  const holding = useStudio((s) => (s.tool.kind === 'place' ? s.tool.card : null));
  const frame = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 600, height: 400 });
  const [kind, setKind] = useState<Kind>(useStudio.getState().stage === 'Finishes' ? 'patch' : 'window');
  const [round, setRound] = useState(false);
  /** Strings of dimensions that are shown. */
  const [chains, setChains] = useState<readonly Chain[]>(CHAINS);
  const [points, setPoints] = useState<Vec2[]>([]);
  const [pointer, setPointer] = useState<Vec2 | null>(null);
  const [corner, setCorner] = useState<Vec2 | null>(null);
  const carrying = useRef<Carrying | null>(null);
  const fronts = useRef<FrontDrag | null>(null);
  const drag = useRef<{ patch: Patch; handle: number | null; from: Vec2; moved: boolean; meant: Patch | null } | null>(null);
  useLayoutEffect(() => {
    const element = frame.current!;
    const take = (): void => setSize({ width: element.clientWidth, height: element.clientHeight });
    const observer = new ResizeObserver(take);
    observer.observe(element);
    take();
    return () => observer.disconnect();
  }, []);
  useEffect(() => {
    setPoints([]);
    setCorner(null);
    setOwn(null);
  }, [wallId, side, room, round]);

  const faces = useMemo(() => elevationFaces(model, { wall: wallId, side, room }, round), [model, wallId, side, room, round]);
  // The drawing fills its pane, with room for lengths and names below.
  const last = faces[faces.length - 1];
  const total = last ? last.x + last.face.side!.length : 1;
  const foot = last ? Math.min(...faces.map((f) => f.face.side!.foot)) : 0;
  const high = last ? Math.max(...faces.flatMap((f) => f.face.side!.top.map((p) => p.y))) : 1;
  const fit = Math.max(1, Math.min((size.width - 90) / total, (size.height - 130) / (high - foot)));
  const whole: View = { k: fit, x: size.width / 2 - (fit * total) / 2, y: size.height / 2 + (fit * (high + foot)) / 2 };
  // Until one goes nearer or aside all of it shows.
  const [own, setOwn] = useState<View | null>(null);
  const view = own ?? whole;
  const { k } = view;
  const fitted = useRef(whole);
  fitted.current = whole;
  const pan = useRef<{ x: number; y: number; view: View } | null>(null);
  useWheel(
    frame,
    useCallback((next: (v: View) => View) => setOwn((v) => next(v ?? fitted.current)), []),
  );
  const scale = PX_PER_MM / k;
  const wanted = useMemo(
    () =>
      laidOn(faces)
        .filter(({ of }) => unitsDrawn(project, of, scale))
        .map(({ key, of }): Wanted => {
          const { laid, placing, regions } = laying(project, of);
          return { key, of, laying: laid.laying!, placing, regions };
        }),
    [faces, project, scale],
  );
  const layouts = useLayouts(wanted);
  const groups = useMemo(
    () => drawElevation(model, faces, { scale, named: faces.length > 1, chains, units: (key) => layouts.get(key)?.rings ?? null }),
    [model, faces, scale, layouts, chains],
  );
  /** Strings of dimensions there are. */
  const strings = useMemo(
    () => new Set(faces.flatMap((f) => Object.entries(runChains(model, f, 1)).flatMap(([c, own]) => (own.length ? [c] : [])))),
    [model, faces],
  );
  const items = useMemo(
    () =>
      settled(
        groups.flatMap((g) => g.items),
        1 / scale,
      ),
    [groups, scale],
  );
  const find = useCallback(
    (e: { clientX: number; clientY: number; shiftKey?: boolean }): TablePoint | null => {
      if (!faces.length) return null;
      const box = frame.current!.getBoundingClientRect();
      const { wall } = faces[0].face.side!;
      const p = { x: (e.clientX - box.left - view.x) / view.k, y: (view.y - (e.clientY - box.top)) / view.k };
      // What is dragged from the ledge lies over what is drawn.
      const over = document.elementsFromPoint(e.clientX, e.clientY).filter((el) => frame.current!.contains(el));
      const entity = over.map((el) => el.closest('[data-entity]')?.getAttribute('data-entity')).find((id) => id) ?? null;
      return pointOn(faces, p, project.walls[wall].level, e.shiftKey, spotUpright(model, faces, entity, p));
    },
    [faces, view, project, model],
  );
  // What is dragged from the ledge lands here too.
  useEffect(() => registerPane('elevation', frame, find), [find]);
  if (!faces.length) return <Box ref={frame} data-testid="elevation" sx={{ position: 'absolute', inset: 0 }} />;

  /** Where the pointer is, metres. */
  const p0 = (e: { clientX: number; clientY: number }): Vec2 => {
    const box = frame.current!.getBoundingClientRect();
    return { x: (e.clientX - box.left - view.x) / k, y: (view.y - (e.clientY - box.top)) / k };
  };

  const at = (e: { clientX: number; clientY: number }): Vec2 => {
    const p = p0(e);
    const near = points.length > 2 && distance(p, points[0]) < 10 / k ? points[0] : null;
    if (near) return near;
    // Measured from the left end of the face it is over.
    const own = placedAt(faces, p.x);
    return { x: own.x + snapStep(p.x - own.x, project.units), y: snapStep(p.y, project.units) };
  };

  const place = (outline: Vec2[]): void => {
    setPoints([]);
    setCorner(null);
    placeOutline(kind, outline, placedAt(faces, outline.reduce((sum, p) => sum + p.x, 0) / outline.length), round);
  };
  const drawn =
    corner && pointer ? [corner, { x: pointer.x, y: corner.y }, pointer, { x: corner.x, y: pointer.y }] : points.length && pointer ? [...points, pointer] : [];
  const extent =
    drawn.length > 1
      ? {
          x: Math.max(...drawn.map((p) => p.x)) - Math.min(...drawn.map((p) => p.x)),
          y: Math.max(...drawn.map((p) => p.y)) - Math.min(...drawn.map((p) => p.y)),
        }
      : null;
  // What is being drawn: its outline, and the points pressed.
  const line = (points: Vec2[], closed: boolean, pen: 0.35 | 0.5): DisplayItem => ({ kind: 'line', points, closed, ink: 'measure', pen, layer: 'guide' });
  const dot = (p: Vec2, r: number): Vec2[] =>
    Array.from({ length: 12 }, (_, i) => ({ x: p.x + r * Math.cos((i * Math.PI) / 6), y: p.y + r * Math.sin((i * Math.PI) / 6) }));
  const marks: DisplayItem[] = [
    ...(drawn.length > 1 ? [line(corner && kind === 'band' ? bandOf(faces, drawn, round) : drawn, corner !== null, 0.5)] : []),
    ...points.flatMap((p, i): DisplayItem[] => {
      const ring = dot(p, (i === 0 ? 1 : 0.66) * scale);
      return [{ kind: 'fill', rings: [ring], ink: i === 0 ? 'paper' : 'measure', layer: 'guide' }, line(ring, true, 0.35)];
    }),
  ];
  const chosen = withUnits(
    model.project,
    selection.map((s) => s.entity),
  );
  // The patch in hand, on the face it is seen on.
  const only = selection.length === 1 ? selection[0].entity : null;
  const piece = only ? project.pieces[only] : undefined;
  const held = faces.flatMap((placed) => placed.face.patches.filter((p) => p.patch.id === only).map((derived) => ({ placed, derived })))[0];
  return (
    <Box
      ref={frame}
      data-testid="elevation"
      data-view={`${k} ${view.x} ${view.y}`}
      role="application"
      aria-label="Elevation"
      tabIndex={0}
      sx={{ position: 'absolute', inset: 0, bgcolor: colours.paper, cursor: 'crosshair', outline: 'none', touchAction: 'none' }}
      onContextMenu={(e) => e.preventDefault()}
      onPointerDown={(e) => {
        if ((e.target as Element).closest('button, input')) return;
        if (e.button !== 0) {
          pan.current = { x: e.clientX, y: e.clientY, view };
          e.currentTarget.setPointerCapture(e.pointerId);
          return;
        }
        if (holding) return e.currentTarget.focus();
        const handle = (e.target as Element).getAttribute('data-handle');
        if (handle !== null && held) {
          drag.current = { patch: held.derived.patch, handle: Number(handle), from: at(e), moved: false, meant: null };
          e.currentTarget.setPointerCapture(e.pointerId);
          return;
        }
        const entity = (e.target as Element).closest('[data-entity]')?.getAttribute('data-entity');
        const patch = entity ? project.patches[entity] : undefined;
        const state = useStudio.getState();
        const front =
          entity &&
          !points.length &&
          state.tool.kind === 'select' &&
          entity === only &&
          project.cabinets[entity] &&
          !withUnits(project, project.contents.held).has(entity)
            ? takeFront(model, faces, entity, p0(e), 8 / k)
            : null;
        if (front) {
          fronts.current = front;
          e.currentTarget.focus();
          e.currentTarget.setPointerCapture(e.pointerId);
          return;
        }
        if (entity && !points.length && (!patch || chosen.has(entity) || e.shiftKey || kind !== 'patch' || patch.shape.kind !== 'band')) {
          // A finish in hand is put on what is drawn; on the bare wall a patch of it is begun.
          const point = dressing ? find(e) : null;
          if (point?.spot?.target && point.spot.target.kind !== 'wall') return pressFinish(point);
          state.select([{ entity, target: patch ? { kind: 'patch', patch: entity, part: 'field' } : null }]);
          const piece = project.pieces[entity];
          if (piece && !project.contents.held.includes(entity)) {
            carrying.current = { piece, from: at(e), meant: null };
            e.currentTarget.focus();
            e.currentTarget.setPointerCapture(e.pointerId);
            return;
          }
          if (patch && patch.shape.kind !== 'band') {
            drag.current = { patch, handle: null, from: at(e), moved: false, meant: null };
            e.currentTarget.setPointerCapture(e.pointerId);
          }
          return;
        }
        e.currentTarget.focus();
        e.currentTarget.setPointerCapture(e.pointerId);
        if (!points.length) setCorner(at(e));
      }}
      onPointerLeave={() => (holding || dressing) && useStudio.getState().endPreview()}
      onPointerMove={(e) => {
        if (holding && !pan.current) {
          const point = find(e);
          if (point) tools.showDrop(holding, point);
          return;
        }
        if (dressing && !pan.current && !drag.current && !corner && !points.length) {
          const point = find(e);
          if (point?.spot?.target && point.spot.target.kind !== 'wall') showFinish(point);
          else useStudio.getState().endPreview();
        }
        if (pan.current) {
          const { x, y, view: v } = pan.current;
          return setOwn({ ...v, x: v.x + e.clientX - x, y: v.y + e.clientY - y });
        }
        if (fronts.current) return dragFront(fronts.current, p0(e), e.shiftKey, 4 / k);
        const p = at(e);
        const c = carrying.current;
        if (c) {
          const by = { x: p.x - c.from.x, y: p.y - c.from.y };
          if (!c.meant && Math.hypot(by.x, by.y) < 6 / k) return;
          c.meant = movedUpright(c.piece, faces, by);
          if (c.meant) useStudio.getState().preview('piece.set', { piece: c.piece.id, set: c.meant });
          return;
        }
        const d = drag.current;
        if (!d) return setPointer(p);
        const by = { x: p.x - d.from.x, y: p.y - d.from.y };
        if (!d.moved && Math.hypot(by.x, by.y) < 6 / k) return;
        d.moved = true;
        const own = held?.placed ?? faces.find((f) => f.face.patches.some((q) => q.patch.id === d.patch.id)) ?? faces[0];
        d.meant = d.handle === null ? movedPatch(d.patch, by, own.face) : draggedHandle(d.patch, own.face, d.handle, { x: p.x - own.x, y: p.y });
        useStudio.getState().preview('patch.put', { patches: [d.meant] });
      }}
      onPointerUp={(e) => {
        if (pan.current) {
          pan.current = null;
          return;
        }
        if ((e.target as Element).closest('button')) return;
        if (holding) {
          const point = find(e);
          if (point) tools.dropPiece(holding, point);
          return;
        }
        if (fronts.current) {
          dropFront(fronts.current);
          fronts.current = null;
          return;
        }
        const c = carrying.current;
        if (c) {
          carrying.current = null;
          const state = useStudio.getState();
          if (c.meant) state.run('piece.set', { piece: c.piece.id, set: c.meant });
          else state.endPreview();
          return;
        }
        const d = drag.current;
        if (d) {
          drag.current = null;
          const state = useStudio.getState();
          if (d.meant) state.run('patch.put', { patches: [d.meant] });
          else state.endPreview();
          return;
        }
        const p = at(e);
        // A drag makes a rectangle; single presses make an outline, closed where it began.
        if (corner && distance(corner, p) > 12 / k) return place([corner, { x: p.x, y: corner.y }, p, { x: corner.x, y: p.y }]);
        if (!corner && !points.length) return;
        setCorner(null);
        if (points.length > 2 && distance(points[0], p) < 1e-9) return place(points);
        if (!points.some((q) => distance(q, p) < 1e-9)) setPoints([...points, corner ?? p]);
      }}
      onKeyDown={(e) => {
        if (e.key === 'Enter' && points.length > 2) place(points);
        else if (e.key === 'Escape' && (fronts.current || carrying.current || drag.current)) {
          // What is dragged is where it was.
          fronts.current = carrying.current = drag.current = null;
          useStudio.getState().endPreview();
          useStudio.setState({ measure: null });
        } else if (e.key === 'Escape' && (points.length || corner)) {
          setPoints([]);
          setCorner(null);
        } else if (e.key.startsWith('Arrow') && only && project.pieces[only]) {
          const by = nudge(e.key, project.units, e.shiftKey ? 'large' : e.ctrlKey || e.metaKey ? 'small' : 'middle');
          const set = by && movedUpright(project.pieces[only], faces, by);
          if (!set) return;
          useStudio.getState().run('piece.set', { piece: only, set });
        } else return;
        e.stopPropagation();
        e.preventDefault();
      }}
    >
      <svg width={size.width} height={size.height} style={{ position: 'absolute', inset: 0, display: 'block' }}>
        <g transform={`translate(${view.x} ${view.y}) scale(${k})`}>
          {groups.map((group) => (
            <Group
              key={group.key}
              group={group}
              on={group.items.some((item) => item.entity !== undefined && chosen.has(item.entity))}
              over={false}
              room={null}
              clear={false}
            />
          ))}
          <Marks items={marks} />
        </g>
        <Texts items={items} view={view} selected={NONE} room={null} />
        {only && project.cabinets[only] ? <FrontInHand unit={only} faces={faces} view={view} /> : null}
        {only && project.cabinets[only] && !points.length && !corner ? <UnitFigures unit={only} faces={faces} view={view} scale={scale} /> : null}
        {only && project.pieces[only] ? <UprightZones id={only} faces={faces} view={view} /> : null}
        {held ? <Handles {...held} view={view} /> : null}
        {piece && !points.length && !corner ? <UprightGaps piece={piece} faces={faces} view={view} /> : null}
      </svg>
      <Box
        sx={{
          position: 'absolute',
          left: 14,
          bottom: 12,
          display: 'flex',
          gap: 1.5,
          fontSize: 12,
          color: colours.second,
          alignItems: 'baseline',
          bgcolor: colours.veil,
          px: 1,
          py: 0.5,
          maxWidth: 'calc(100% - 28px)',
          flexWrap: 'wrap',
        }}
      >
        <span>{targetName(project, faces[0].face.target)}</span>
        <Box component="span" role="radiogroup" aria-label="What is drawn" sx={{ display: 'flex', gap: 0.5 }}>
          {KINDS.map((name) => (
            <Mark key={name} on={kind === name} role="radio" onPress={() => setKind(name)}>
              {KIND_WORDS[name]}
            </Mark>
          ))}
        </Box>
        {faces[0].face.room ? (
          <Mark on={round} role="switch" onPress={() => setRound(!round)}>
            all round the room
          </Mark>
        ) : null}
        {CHAINS.filter((c) => strings.has(c)).map((c) => (
          <Mark key={c} on={chains.includes(c)} role="switch" onPress={() => setChains(chains.includes(c) ? chains.filter((o) => o !== c) : [...chains, c])}>
            {c}
          </Mark>
        ))}
        {own ? <Mark onPress={() => setOwn(null)}>all of it</Mark> : null}
        <span>
          {extent
            ? `${formatLength(extent.x, project.units)} × ${formatLength(extent.y, project.units)}`
            : kind === 'band'
              ? 'drag from the lower to the upper edge'
              : 'drag a rectangle, or press point by point and close the outline'}
        </span>
      </Box>
    </Box>
  );
}

function Mark({ on = false, role, onPress, children }: { on?: boolean; role?: 'radio' | 'switch'; onPress(): void; children: React.ReactNode }) {
  return (
    <Box
      component="button"
      role={role}
      aria-checked={role && on}
      onClick={onPress}
      sx={{
        all: 'unset',
        cursor: 'pointer',
        px: 0.75,
        border: `1px solid ${on ? colours.ink : colours.hairline}`,
        borderRadius: '2px',
        color: colours.ink,
        '&:focus-visible': { outline: `2px solid ${colours.damson}` },
      }}
    >
      {children}
    </Box>
  );
}
