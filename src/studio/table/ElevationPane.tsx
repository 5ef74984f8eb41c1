'use client';
import Box from '@mui/material/Box';
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { meanHex } from '@/core/finishes/finish';
import { layOut, outlinesOf } from '@/core/finishes/laying/layout';
import type { Placing } from '@/core/finishes/laying/place';
import { finishIn } from '@/core/finishes/store';
import { signedArea, type Region } from '@/core/geometry/polygon';
import { distance, type Vec2 } from '@/core/geometry/vec';
import { newOpening } from '@/core/project/opening-defaults';
import { openingOutline } from '@/core/project/openings';
import { freeName } from '@/core/project/things';
import { standingIn } from '@/core/project/standing';
import type { Finish, Opening, Patch, Project, Side } from '@/core/project/schema';
import { patchPlacing, type DressedFace } from '@/core/shell/dress/dress';
import { wallsRound } from '@/core/shell/dress/faces';
import { faceS, faceX } from '@/core/shell/wall-face';
import { formatLength, snapStep } from '@/core/units/length';
import { colours } from '../look/theme';
import { newId, surfaceName, useStudio } from '../store/studio';

const KINDS = ['window', 'passage', 'niche', 'patch', 'band'] as const;
type Kind = (typeof KINDS)[number];
const KIND_WORDS: Record<Kind, string> = { window: 'window', passage: 'pass-through', niche: 'niche', patch: 'patch', band: 'band' };

/** A face as it stands in the drawing: where its left end lies. */
interface Placed {
  face: DressedFace;
  x: number;
}

/** Between unrolled walls of a room, metres. */
const GAP = 0.35;

/** A wall, or all walls of its room unrolled side by side, upright and true to scale: openings, patches, how units are laid. */
export function ElevationPane({ wall: wallId, side }: { wall: string; side: Side }) {
  const model = useStudio((s) => s.model);
  const project = useStudio((s) => s.project);
  const selection = useStudio((s) => s.selection);
  const frame = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 600, height: 400 });
  const [kind, setKind] = useState<Kind>(useStudio.getState().stage === 'Finishes' ? 'patch' : 'window');
  const [round, setRound] = useState(false);
  const [points, setPoints] = useState<Vec2[]>([]);
  const [pointer, setPointer] = useState<Vec2 | null>(null);
  const [corner, setCorner] = useState<Vec2 | null>(null);
  const drag = useRef<{ patch: Patch; from: Vec2; moved: boolean; meant: Patch | null } | null>(null);
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
  }, [wallId, side, round]);

  const faces = useMemo((): Placed[] => {
    const level = model.shell.levels.find((l) => l.walls.some((w) => w.id === wallId));
    const own = level?.faces.filter((f) => f.side?.wall === wallId && f.side.side === side) ?? [];
    const room = own[0]?.room ?? null;
    const all = round && room ? (level?.faces.filter((f) => f.kind === 'wall' && f.room === room) ?? []) : own;
    const bySide = new Map(all.map((f) => [f.side!, f]));
    const ordered = wallsRound([...bySide.keys()]).flatMap((c) => c.chain.map((s) => bySide.get(s)!));
    // The wall in hand comes first.
    const at = Math.max(
      0,
      ordered.findIndex((f) => f.side!.wall === wallId),
    );
    let x = 0;
    return (round ? [...ordered.slice(at), ...ordered.slice(0, at)] : ordered).map((face) => {
      const placed = { face, x };
      x += face.side!.length + GAP;
      return placed;
    });
  }, [model, wallId, side, round]);
  if (!faces.length) return <Box ref={frame} data-testid="elevation" sx={{ position: 'absolute', inset: 0 }} />;

  const last = faces[faces.length - 1];
  const total = last.x + last.face.side!.length;
  const foot = Math.min(...faces.map((f) => f.face.side!.foot));
  const high = Math.max(...faces.flatMap((f) => f.face.side!.top.map((p) => p.y)));
  const k = Math.min((size.width - 90) / total, (size.height - 130) / (high - foot));
  const ox = size.width / 2 - (k * total) / 2;
  const oy = size.height / 2 + (k * (high + foot)) / 2;
  const screen = (x: number, y: number): string => `${(ox + k * x).toFixed(2)} ${(oy - k * y).toFixed(2)}`;
  const ring = (list: readonly Vec2[], x = 0): string => `M${list.map((p) => screen(p.x + x, p.y)).join('L')}Z`;
  const region = (list: readonly Region[], x: number): string =>
    list
      .flatMap((r) => [r.outer, ...r.holes])
      .map((r) => ring(r, x))
      .join('');
  const at = (e: { clientX: number; clientY: number }): Vec2 => {
    const box = frame.current!.getBoundingClientRect();
    const p = { x: (e.clientX - box.left - ox) / k, y: (oy - (e.clientY - box.top)) / k };
    const near = points.length > 2 && distance(p, points[0]) < 10 / k ? points[0] : null;
    if (near) return near;
    // Measured from the left end of the face it is over.
    const own = placedAt(faces, p.x);
    return { x: own.x + snapStep(p.x - own.x, project.units), y: snapStep(p.y, project.units) };
  };

  const place = (outline: Vec2[]): void => {
    setPoints([]);
    setCorner(null);
    placeOutline(kind, outline, placedAt(faces, outline.reduce((sum, p) => sum + p.x, 0) / outline.length));
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
  const chosen = new Set(selection.map((s) => s.entity));
  return (
    <Box
      ref={frame}
      data-testid="elevation"
      data-view={`${k} ${ox} ${oy}`}
      role="application"
      aria-label="Elevation"
      tabIndex={0}
      sx={{ position: 'absolute', inset: 0, bgcolor: '#fff', cursor: 'crosshair', outline: 'none', touchAction: 'none' }}
      onPointerDown={(e) => {
        if ((e.target as Element).closest('button')) return;
        const entity = (e.target as Element).closest('[data-entity]')?.getAttribute('data-entity');
        const patch = entity ? project.patches[entity] : undefined;
        const state = useStudio.getState();
        if (entity && !points.length && (!patch || chosen.has(entity) || e.shiftKey || kind !== 'patch' || patch.shape.kind !== 'band')) {
          if (state.tool.kind === 'finish' && patch)
            return void state.run('finish.apply', { targets: [{ kind: 'patch', patch: entity, part: 'field' }], finish: state.tool.finish });
          state.select([{ entity, target: patch ? { kind: 'patch', patch: entity, part: 'field' } : null }]);
          if (patch && patch.shape.kind !== 'band') {
            drag.current = { patch, from: at(e), moved: false, meant: null };
            e.currentTarget.setPointerCapture(e.pointerId);
          }
          return;
        }
        e.currentTarget.focus();
        e.currentTarget.setPointerCapture(e.pointerId);
        if (!points.length) setCorner(at(e));
      }}
      onPointerMove={(e) => {
        const p = at(e);
        const d = drag.current;
        if (!d) return setPointer(p);
        const by = { x: p.x - d.from.x, y: p.y - d.from.y };
        if (!d.moved && Math.hypot(by.x, by.y) < 6 / k) return;
        d.moved = true;
        d.meant = movedPatch(d.patch, by, faces.find((f) => f.face.patches.some((q) => q.patch.id === d.patch.id)) ?? faces[0]);
        useStudio.getState().preview('patch.put', { patches: [d.meant] });
      }}
      onPointerUp={(e) => {
        if ((e.target as Element).closest('button')) return;
        const d = drag.current;
        if (d) {
          drag.current = null;
          const state = useStudio.getState();
          state.endPreview();
          if (d.meant) state.run('patch.put', { patches: [d.meant] });
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
        else if (e.key === 'Escape' && (points.length || corner)) {
          setPoints([]);
          setCorner(null);
        } else return;
        e.stopPropagation();
        e.preventDefault();
      }}
    >
      <svg width={size.width} height={size.height} style={{ position: 'absolute', inset: 0, display: 'block' }}>
        {faces.map(({ face, x }) => (
          <g key={`${face.address} ${face.side!.s0}`}>
            <path
              d={ring([{ x: 0, y: face.side!.foot }, { x: face.side!.length, y: face.side!.foot }, ...[...face.side!.top].reverse()], x)}
              fill={tint(project, face.finish, face.chosen)}
              stroke={colours.ink}
              strokeWidth={1.3}
            />
            <path
              d={laidLines(face, face.laid, face.placing, rest(face), screen, x, k)}
              fill="none"
              stroke="#00000040"
              strokeWidth={0.6}
              pointerEvents="none"
            />
            {face.patches.map((derived) => {
              const { laid, placing } = patchPlacing(project, derived);
              const on = chosen.has(derived.patch.id);
              return (
                <g key={derived.patch.id} data-entity={derived.patch.id} style={{ cursor: 'pointer' }}>
                  <path
                    d={region(derived.regions, x)}
                    fill={tint(project, derived.patch.finish, true)}
                    fillRule="evenodd"
                    stroke={on ? colours.damson : colours.ink}
                    strokeWidth={on ? 1.8 : 0.9}
                  >
                    <title>{derived.patch.name}</title>
                  </path>
                  <path
                    d={laidLines(derived, laid, placing, derived.regions, screen, x, k)}
                    fill="none"
                    stroke="#00000055"
                    strokeWidth={0.6}
                    pointerEvents="none"
                  />
                  {derived.panels.map((r, i) => (
                    <path key={i} d={ring(r, x)} fill="none" stroke={colours.ink} strokeWidth={0.7} />
                  ))}
                </g>
              );
            })}
            {standingIn(model.shell.project, face.side!.wall).map((o) => (
              <OpeningMark key={o.id} opening={o} face={face} d={(list) => ring(list, x)} on={chosen.has(o.id)} />
            ))}
            <g stroke={colours.teal} fill={colours.teal} fontSize={11} textAnchor="middle">
              <path d={`M${screen(x, face.side!.foot)}L${screen(x + face.side!.length, face.side!.foot)}`} transform="translate(0 22)" strokeWidth={0.8} />
              {[0, face.side!.length].map((end) => {
                const [tx, ty] = screen(x + end, face.side!.foot)
                  .split(' ')
                  .map(Number);
                return <path key={end} d={`M${tx - 4} ${ty + 26}L${tx + 4} ${ty + 18}`} strokeWidth={1} />;
              })}
              <text stroke="none" x={ox + k * (x + face.side!.length / 2)} y={oy - k * face.side!.foot + 18}>
                {formatLength(face.side!.length, project.units)}
              </text>
              {faces.length > 1 ? (
                <text stroke="none" fill={colours.second} x={ox + k * (x + face.side!.length / 2)} y={oy - k * face.side!.foot + 38}>
                  {surfaceName(project, face.target).replace(/^.*, /, '')}
                </text>
              ) : null}
            </g>
          </g>
        ))}
        {drawn.length > 1 ? (
          <path
            d={corner ? ring(kind === 'band' ? bandOf(faces, drawn) : drawn) : `M${drawn.map((p) => screen(p.x, p.y)).join('L')}`}
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
        <span>{surfaceName(project, faces[0].face.target)}</span>
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

function Mark({ on, role, onPress, children }: { on: boolean; role: 'radio' | 'switch'; onPress(): void; children: React.ReactNode }) {
  return (
    <Box
      component="button"
      role={role}
      aria-checked={on}
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

function OpeningMark({ opening: o, face, d, on }: { opening: Opening; face: DressedFace; d(list: readonly Vec2[]): string; on: boolean }) {
  const side = face.side!;
  if (o.kind === 'niche' && o.swing !== side.side) return null;
  if (o.at < side.s0 - 1e-6 || o.at > side.s1 + 1e-6) return null;
  const outline = openingOutline(o).map((p) => ({ x: faceX(side, o.at + p.x), y: p.y }));
  return (
    <path
      data-entity={o.id}
      d={d(outline)}
      fill={on ? '#EBD9E0' : '#fff'}
      stroke={on ? colours.damson : colours.ink}
      strokeWidth={1.1}
      style={{ cursor: 'pointer' }}
    >
      <title>{o.name}</title>
    </path>
  );
}

/** The face a place along the drawing lies on, or the nearest one. */
function placedAt(faces: readonly Placed[], x: number): Placed {
  let best = faces[0];
  let least = Infinity;
  for (const placed of faces) {
    const off = Math.max(0, placed.x - x, x - placed.x - placed.face.side!.length);
    if (off < least) {
      least = off;
      best = placed;
    }
  }
  return best;
}

const bandOf = (faces: readonly Placed[], drawn: readonly Vec2[]): Vec2[] => {
  const { x, face } = placedAt(faces, drawn[0].x);
  const ys = drawn.map((p) => p.y);
  const [a, b] = [Math.min(...ys), Math.max(...ys)];
  return [
    { x, y: a },
    { x: x + face.side!.length, y: a },
    { x: x + face.side!.length, y: b },
    { x, y: b },
  ];
};

/** What of a face lies between its patches. */
const rest = (face: DressedFace): Region[] => (face.patches.length ? [] : face.regions);

/** The colour of a finish, paled so that lines show on it. */
function tint(project: Project, finish: string, chosen: boolean): string {
  if (!chosen) return '#F7F7F5';
  const n = parseInt(meanHex(finishIn(project, finish)).slice(1), 16);
  const pale = (v: number): number => Math.round(v + (255 - v) * 0.45);
  return `rgb(${pale((n >> 16) & 255)} ${pale((n >> 8) & 255)} ${pale(n & 255)})`;
}

const lines = new WeakMap<object, { placing: Placing; rings: Vec2[][] }>();

/** The outlines of the units on a face, as they are counted; none where they would be a grey. */
function laidLines(
  of: object,
  laid: Finish,
  placing: Placing,
  regions: readonly Region[],
  screen: (x: number, y: number) => string,
  x: number,
  k: number,
): string {
  if (!laid.laying || laid.laying.height * k < 3) return '';
  let known = lines.get(of);
  if (!known || known.placing !== placing) {
    let rings: Vec2[][] = [];
    try {
      rings = layOut(laid.laying, placing, regions).units.flatMap(outlinesOf);
    } catch {
      rings = [];
    }
    lines.set(of, (known = { placing, rings }));
  }
  if (known.rings.length > 6000) return '';
  return known.rings.map((r) => `M${r.map((p) => screen(p.x + x, p.y)).join('L')}Z`).join('');
}

/** A patch moved on its face. */
function movedPatch(patch: Patch, by: Vec2, { face }: Placed): Patch {
  const { shape } = patch;
  const side = face.side!;
  if (shape.kind === 'rectangle')
    return { ...patch, shape: { ...shape, at: faceS(side, faceX(side, shape.at) + by.x), base: Math.max(-5, shape.base + by.y) } };
  if (shape.kind === 'polygon')
    return { ...patch, shape: { ...shape, points: shape.points.map((p) => ({ x: faceS(side, faceX(side, p.x) + by.x), y: p.y + by.y })) } };
  return patch;
}

/** Places what was drawn: an opening, a patch or a band. */
function placeOutline(kind: Kind, outline: readonly Vec2[], { face, x }: Placed): void {
  const state = useStudio.getState();
  const side = face.side!;
  const { wall } = side;
  const local = outline.map((p) => ({ x: p.x - x, y: p.y }));
  const along = local.map((p) => ({ x: faceS(side, p.x), y: p.y }));
  const xs = along.map((p) => p.x);
  const ys = along.map((p) => p.y);
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const rectangle = outline.length === 4 && Math.abs(Math.abs(signedArea([...along])) - (x1 - x0) * (y1 - y0)) < 1e-9;
  if (kind === 'patch' || kind === 'band') {
    if (y1 - y0 < 0.01 || (kind === 'patch' && x1 - x0 < 0.01))
      return state.say('Nothing was placed: a patch is at least 10 mm wide and high; draw it larger.');
    const id = newId('patch');
    const shape: Patch['shape'] =
      kind === 'band'
        ? { kind: 'band', from: y0, to: y1 }
        : rectangle
          ? { kind: 'rectangle', at: (x0 + x1) / 2, base: y0, width: x1 - x0, height: y1 - y0 }
          : { kind: 'polygon', points: along };
    const finish = state.tool.kind === 'finish' ? state.tool.finish : 'tile.square-white';
    const orders = Object.values(state.project.patches).map((p) => p.order);
    const patch: Patch = {
      id,
      name: freeName(kind === 'band' ? 'Band' : 'Patch', state.project.patches),
      on: { kind: 'wall', room: face.room, wall, side: side.side },
      shape,
      order: Math.min(1e6, Math.max(0, ...orders) + 1),
      finish,
      panels: null,
    };
    if (state.run('patch.put', { patches: [patch] })) state.select([{ entity: id, target: { kind: 'patch', patch: id, part: 'field' } }]);
    return;
  }
  if (x1 - x0 < 0.1 || y1 - y0 < 0.1) return state.say('Nothing was placed: an opening is at least 100 mm wide and high; draw it larger.');
  const turned = signedArea(along) < 0 ? [...along].reverse() : along;
  const low = turned.findIndex((p, i) => p.y === y0 && turned[(i + 1) % turned.length].y === y0);
  const from = low < 0 ? 0 : low;
  const shape: Opening['shape'] = rectangle
    ? { kind: 'rectangle' }
    : { kind: 'outline', points: [...turned.slice(from), ...turned.slice(0, from)].map((p) => ({ x: (p.x - x0) / (x1 - x0), y: (p.y - y0) / (y1 - y0) })) };
  const id = newId(kind);
  const opening = newOpening(state.project, {
    id,
    wall,
    kind,
    at: (x0 + x1) / 2,
    width: x1 - x0,
    height: y1 - y0,
    sill: y0,
    shape,
    swing: side.side,
    status: state.project.walls[wall].status === 'existing' ? 'existing' : 'new',
  });
  if (kind === 'window' && !rectangle) Object.assign(opening, { form: 'fixed' });
  if (state.run('opening.add', opening)) state.select([{ entity: id, target: null }]);
}
