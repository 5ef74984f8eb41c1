'use client';
import Box from '@mui/material/Box';
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { signedArea } from '@/core/geometry/polygon';
import { distance, type Vec2 } from '@/core/geometry/vec';
import { newOpening } from '@/core/project/opening-defaults';
import { openingOutline } from '@/core/project/openings';
import { roofHeight } from '@/core/project/roofs';
import { standingIn } from '@/core/project/standing';
import type { Opening, Side } from '@/core/project/schema';
import { wallPath, wallProfile, wallTopAt } from '@/core/project/wall-line';
import { formatLength, snapStep } from '@/core/units/length';
import { colours } from '../look/theme';
import { newId, surfaceName, useStudio } from '../store/studio';

const KINDS = ['window', 'passage', 'niche'] as const;
const KIND_WORDS = { window: 'window', passage: 'pass-through', niche: 'niche' } as const;

/** A face of a wall, upright and true to scale: its openings, and new ones drawn with any outline. */
export function ElevationPane({ wall: wallId, side }: { wall: string; side: Side }) {
  const model = useStudio((s) => s.model);
  const selection = useStudio((s) => s.selection);
  const frame = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 600, height: 400 });
  const [kind, setKind] = useState<(typeof KINDS)[number]>('window');
  const [points, setPoints] = useState<Vec2[]>([]);
  const [pointer, setPointer] = useState<Vec2 | null>(null);
  const [corner, setCorner] = useState<Vec2 | null>(null);
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
  }, [wallId, side]);

  const { project } = model;
  const wall = project.walls[wallId];
  const derived = model.shell.walls.get(wallId);
  const level = wall && project.levels[wall.level];
  const face = useMemo(() => {
    if (!wall || !level) return null;
    const path = wallPath(project, wall);
    const length = path[path.length - 1].s;
    const own = derived?.sides.filter((s) => s.side === side) ?? [];
    const s0 = Math.min(0, ...own.map((s) => s.s0));
    const s1 = Math.max(length, ...own.map((s) => s.s1));
    const top = (s: number): number => wallTopAt(wall, level, s / length);
    const bends = wallProfile(wall, level).slice(1, -1);
    const roofs = wall.top.kind === 'roof' ? (model.shell.levels.find((l) => l.id === wall.level)?.roofs ?? []).map((r) => r.shape) : [];
    const upper = roofs.length
      ? own.flatMap((s) => s.path.map((q): Vec2 => ({ x: q.s, y: roofHeight(roofs, q.p) ?? level.height })))
      : [s0, ...bends.map((q) => q.t * length), s1].map((s): Vec2 => ({ x: s, y: top(s) }));
    return { length, s0, s1, foot: derived?.foot ?? 0, upper };
  }, [model, wall, level, derived, side]);
  if (!wall || !face) return <Box ref={frame} sx={{ position: 'absolute', inset: 0 }} />;

  // Seen from the left of the wall its start lies at the right.
  const flip = side === 'left' ? -1 : 1;
  const high = Math.max(...face.upper.map((p) => p.y));
  const k = Math.min((size.width - 90) / (face.s1 - face.s0), (size.height - 130) / (high - face.foot));
  const ox = size.width / 2 - (flip * k * (face.s0 + face.s1)) / 2;
  const oy = size.height / 2 + (k * (high + face.foot)) / 2;
  const screen = (s: number, z: number): string => `${(ox + flip * k * s).toFixed(2)} ${(oy - k * z).toFixed(2)}`;
  const ring = (list: readonly Vec2[]): string => `M${list.map((p) => screen(p.x, p.y)).join('L')}Z`;
  const at = (e: { clientX: number; clientY: number }): Vec2 => {
    const box = frame.current!.getBoundingClientRect();
    const p = { x: (flip * (e.clientX - box.left - ox)) / k, y: (oy - (e.clientY - box.top)) / k };
    const near = points.length > 2 && distance(p, points[0]) < 10 / k ? points[0] : null;
    return near ?? { x: snapStep(p.x, project.units), y: snapStep(p.y, project.units) };
  };

  const place = (outline: Vec2[]): void => {
    const state = useStudio.getState();
    const xs = outline.map((p) => p.x);
    const ys = outline.map((p) => p.y);
    const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
    setPoints([]);
    setCorner(null);
    if (x1 - x0 < 0.1 || y1 - y0 < 0.1) return state.say('Nothing was placed: an opening is at least 100 mm wide and high; draw it larger.');
    const turned = signedArea(outline) < 0 ? [...outline].reverse() : outline;
    const rectangle = outline.length === 4 && Math.abs(Math.abs(signedArea(outline)) - (x1 - x0) * (y1 - y0)) < 1e-9;
    const low = turned.findIndex((p, i) => p.y === y0 && turned[(i + 1) % turned.length].y === y0);
    const from = low < 0 ? 0 : low;
    const shape: Opening['shape'] = rectangle
      ? { kind: 'rectangle' }
      : { kind: 'outline', points: [...turned.slice(from), ...turned.slice(0, from)].map((p) => ({ x: (p.x - x0) / (x1 - x0), y: (p.y - y0) / (y1 - y0) })) };
    const id = newId(kind);
    const opening = newOpening(state.project, {
      id,
      wall: wallId,
      kind,
      at: (x0 + x1) / 2,
      width: x1 - x0,
      height: y1 - y0,
      sill: y0,
      shape,
      swing: side,
      status: wall.status === 'existing' ? 'existing' : 'new',
    });
    if (kind === 'window' && !rectangle) Object.assign(opening, { form: 'fixed' });
    if (state.run('opening.add', opening)) state.select([{ entity: id, target: null }]);
  };

  const target = { kind: 'wall' as const, room: derived?.sides.find((s) => s.side === side)?.room ?? null, wall: wallId, side };
  const drawn =
    corner && pointer ? [corner, { x: pointer.x, y: corner.y }, pointer, { x: corner.x, y: pointer.y }] : points.length && pointer ? [...points, pointer] : [];
  const extent =
    drawn.length > 1
      ? {
          x: Math.max(...drawn.map((p) => p.x)) - Math.min(...drawn.map((p) => p.x)),
          y: Math.max(...drawn.map((p) => p.y)) - Math.min(...drawn.map((p) => p.y)),
        }
      : null;
  return (
    <Box
      ref={frame}
      data-testid="elevation"
      data-view={`${k * flip} ${ox} ${oy}`}
      role="application"
      aria-label="Elevation"
      tabIndex={0}
      sx={{ position: 'absolute', inset: 0, bgcolor: '#fff', cursor: 'crosshair', outline: 'none', touchAction: 'none' }}
      onPointerDown={(e) => {
        if ((e.target as Element).closest('button')) return;
        const entity = (e.target as Element).closest('[data-entity]')?.getAttribute('data-entity');
        if (entity && !points.length) return useStudio.getState().select([{ entity, target: null }]);
        e.currentTarget.focus();
        e.currentTarget.setPointerCapture(e.pointerId);
        if (!points.length) setCorner(at(e));
      }}
      onPointerMove={(e) => setPointer(at(e))}
      onPointerUp={(e) => {
        if ((e.target as Element).closest('button')) return;
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
        else if (e.key === 'Escape' && (points.length || corner)) {
          setPoints([]);
          setCorner(null);
        } else return;
        e.stopPropagation();
        e.preventDefault();
      }}
    >
      <svg width={size.width} height={size.height} style={{ position: 'absolute', inset: 0, display: 'block' }}>
        <path
          d={ring([{ x: face.s0, y: face.foot }, { x: face.s1, y: face.foot }, ...[...face.upper].reverse()])}
          fill="#F7F7F5"
          stroke={colours.ink}
          strokeWidth={1.3}
        />
        {standingIn(model.shell.project, wallId).map((o) => {
          if (o.kind === 'niche' && o.swing !== side) return null;
          const outline = openingOutline(o).map((p) => ({ x: p.x + o.at, y: p.y }));
          const on = selection.some((s) => s.entity === o.id);
          return (
            <path
              key={o.id}
              data-entity={o.id}
              d={ring(outline)}
              fill={on ? '#EBD9E0' : '#fff'}
              stroke={on ? colours.damson : colours.ink}
              strokeWidth={1.1}
              style={{ cursor: 'pointer' }}
            >
              <title>{o.name}</title>
            </path>
          );
        })}
        {derived?.sides
          .filter((s) => s.side === side)
          .map((s, i) => (
            <g key={i} stroke={colours.teal} fill={colours.teal} fontSize={11} textAnchor="middle">
              <path d={`M${screen(s.s0, face.foot)}L${screen(s.s1, face.foot)}`} transform="translate(0 22)" strokeWidth={0.8} />
              {[s.s0, s.s1].map((end) => {
                const [tx, ty] = screen(end, face.foot).split(' ').map(Number);
                return <path key={end} d={`M${tx - 4} ${ty + 26}L${tx + 4} ${ty + 18}`} strokeWidth={1} />;
              })}
              <text stroke="none" x={ox + (flip * k * (s.s0 + s.s1)) / 2} y={oy - k * face.foot + 18}>
                {formatLength(distance(s.from, s.to), project.units)}
              </text>
            </g>
          ))}
        {drawn.length > 1 ? (
          <path
            d={corner ? ring(drawn) : `M${drawn.map((p) => screen(p.x, p.y)).join('L')}`}
            fill="none"
            stroke={colours.teal}
            strokeWidth={1.3}
            pointerEvents="none"
          />
        ) : null}
        {points.map((p, i) => (
          <circle
            key={i}
            cx={Number(screen(p.x, p.y).split(' ')[0])}
            cy={Number(screen(p.x, p.y).split(' ')[1])}
            r={i === 0 ? 4 : 2.5}
            fill={i === 0 ? '#fff' : colours.teal}
            stroke={colours.teal}
            pointerEvents="none"
          />
        ))}
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
          bgcolor: '#FFFFFFE0',
          px: 1,
          py: 0.5,
          maxWidth: 'calc(100% - 28px)',
          flexWrap: 'wrap',
        }}
      >
        <span>{surfaceName(project, target)}</span>
        <Box component="span" role="radiogroup" aria-label="What is drawn" sx={{ display: 'flex', gap: 0.5 }}>
          {KINDS.map((name) => (
            <Box
              key={name}
              component="button"
              role="radio"
              aria-checked={kind === name}
              onClick={() => setKind(name)}
              sx={{
                all: 'unset',
                cursor: 'pointer',
                px: 0.75,
                border: `1px solid ${kind === name ? colours.ink : colours.hairline}`,
                borderRadius: '2px',
                color: colours.ink,
                '&:focus-visible': { outline: `2px solid ${colours.damson}` },
              }}
            >
              {KIND_WORDS[name]}
            </Box>
          ))}
        </Box>
        <span>
          {extent
            ? `${formatLength(extent.x, project.units)} × ${formatLength(extent.y, project.units)}`
            : 'drag a rectangle, or press point by point and close the outline'}
        </span>
      </Box>
    </Box>
  );
}
