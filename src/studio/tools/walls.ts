import { drawDimension } from '@/core/drawing/plan';
import type { DisplayItem } from '@/core/drawing/display';
import { add, angleOf, distance, dot, scale, sub, unit, type Vec2 } from '@/core/geometry/vec';
import { wallEnds } from '@/core/project/wall-line';
import { parseLength } from '@/core/units/length';
import { get, length, set, type TablePoint } from './session';
import { snapPoint } from './snap';

/** Corners of the chain, or the first corner of the rectangle, being drawn. */
let chain: Vec2[] = [];
let pointer: TablePoint | null = null;
let end: Vec2 | null = null;

/** Forgets what has been begun. */
export function dropWalls(): void {
  chain = [];
  end = null;
}

/** Where the pointer is, for values that are typed while it rests. */
export function follow(at: TablePoint): void {
  pointer = at;
}

const guide = ([a, b]: [Vec2, Vec2]): DisplayItem => ({
  kind: 'line',
  points: [a, b],
  closed: false,
  ink: 'measure',
  pen: 0.13,
  dash: true,
  layer: 'dimension',
});

function snapped(at: TablePoint): ReturnType<typeof snapPoint> {
  const { project, level, tool } = get();
  const from = tool.kind === 'walls' && tool.shape === 'chain' ? (chain.at(-1) ?? null) : null;
  return snapPoint(project, level, at.plan, at.reach, from, tool.kind === 'walls' && tool.shape === 'chain' ? chain : []);
}

export function showWalls(at: TablePoint): void {
  const { tool, measure } = get();
  if (tool.kind !== 'walls') return;
  const { point, note, guides } = snapped(at);
  end = point;
  const marks: DisplayItem[] = guides.map(guide);
  const last = chain.at(-1);
  if (!last) {
    set({ marks: [...marks, ...cross(point)], ghost: [point], measure: { fields: [], note: note || 'press to start', typed: null, field: 0 } });
    return;
  }
  const target = typedEnd(last, point) ?? point;
  end = target;
  if (tool.shape === 'rectangle') {
    const ring = [last, { x: target.x, y: last.y }, target, { x: last.x, y: target.y }];
    const inside = rectangleInside(last, target, tool.thickness);
    marks.push({ kind: 'line', points: ring, closed: true, ink: 'measure', pen: 0.35, layer: 'dimension' });
    marks.push(...drawDimension(ring[0], ring[1], length(inside.x)), ...drawDimension(ring[1], ring[2], length(inside.y)));
    set({
      marks,
      ghost: [...ring, ring[0]],
      measure: {
        fields: [
          { label: 'inside width', value: inside.x },
          { label: 'inside depth', value: inside.y },
        ],
        note,
        typed: measure?.typed ?? null,
        field: measure?.field ?? 0,
      },
    });
    return;
  }
  const along = distance(last, target);
  const points = [...chain, target];
  marks.push({ kind: 'line', points, closed: false, ink: 'measure', pen: 0.35, layer: 'dimension' });
  for (let i = 0; i + 1 < points.length; i++)
    if (distance(points[i], points[i + 1]) > 1e-6) marks.push(...drawDimension(points[i], points[i + 1], length(distance(points[i], points[i + 1]))));
  const angle = ((Math.round((angleOf(sub(target, last)) * 180) / Math.PI) % 360) + 360) % 360;
  set({
    marks,
    ghost: points,
    measure: { fields: [{ label: 'length on the centre line', value: along }], note: note || `${angle}°`, typed: measure?.typed ?? null, field: 0 },
  });
}

const cross = (p: Vec2): DisplayItem[] =>
  [
    [
      { x: p.x - 0.08, y: p.y },
      { x: p.x + 0.08, y: p.y },
    ],
    [
      { x: p.x, y: p.y - 0.08 },
      { x: p.x, y: p.y + 0.08 },
    ],
  ].map((points) => ({ kind: 'line', points, closed: false, ink: 'measure', pen: 0.25, layer: 'dimension' }));

const rectangleInside = (a: Vec2, b: Vec2, thickness: number): Vec2 => ({
  x: Math.max(0, Math.abs(b.x - a.x) - thickness),
  y: Math.max(0, Math.abs(b.y - a.y) - thickness),
});

/** Values typed so far for a rectangle. */
let typedSizes: (number | null)[] = [null, null];

/** Where the end lies once typed values are taken into account; null while nothing readable is typed. */
function typedEnd(last: Vec2, point: Vec2): Vec2 | null {
  const { measure, project, tool } = get();
  if (tool.kind !== 'walls') return null;
  const parsed = measure?.typed ? parseLength(measure.typed, project.units) : null;
  const current = parsed?.ok && parsed.metres > 0 ? parsed.metres : null;
  if (tool.shape === 'chain') {
    if (current === null || distance(last, point) < 1e-6) return null;
    return add(last, scale(unit(sub(point, last)), current));
  }
  const sizes = [...typedSizes];
  if (current !== null) sizes[measure!.field] = current;
  if (sizes[0] === null && sizes[1] === null) return null;
  const sign = { x: point.x < last.x ? -1 : 1, y: point.y < last.y ? -1 : 1 };
  return {
    x: sizes[0] === null ? point.x : last.x + sign.x * (sizes[0] + tool.thickness),
    y: sizes[1] === null ? point.y : last.y + sign.y * (sizes[1] + tool.thickness),
  };
}

export function pressWalls(at: TablePoint): void {
  const { tool } = get();
  if (tool.kind !== 'walls') return;
  const last = chain.at(-1);
  const { point } = snapped(at);
  const target = last ? (typedEnd(last, point) ?? point) : point;
  addPoint(target);
}

function addPoint(point: Vec2): void {
  const state = get();
  if (state.tool.kind !== 'walls') return;
  if (!chain.length) {
    chain = [point];
    typedSizes = [null, null];
    set({ measure: { fields: [], note: '', typed: null, field: 0 } });
    return;
  }
  const { thickness, shape } = state.tool;
  const draw = (points: Vec2[], closed: boolean): boolean => state.run('wall.draw', { level: state.level, points, closed, thickness, height: null });
  if (shape === 'rectangle') {
    const a = chain[0];
    if (draw([a, { x: point.x, y: a.y }, point, { x: a.x, y: point.y }], true)) {
      chain = [];
      set({ marks: [], ghost: [], measure: null });
    }
    return;
  }
  const last = chain.at(-1)!;
  if (distance(last, point) < 1e-6) return finishChain();
  const closing = distance(chain[0], point) < 1e-6 && chain.length > 2;
  const joins = meetsWall(point);
  if (!draw([last, point], false)) return;
  if (closing || joins) chain = [];
  else chain = [...chain, point];
  set({ measure: chain.length ? { fields: [], note: '', typed: null, field: 0 } : null, ...(chain.length ? {} : { marks: [], ghost: [] }) });
  if (chain.length && pointer) showWalls(pointer);
}

/** Whether a point lies on a wall that stood before, so that a chain ends there. */
export function meetsWall(p: Vec2): boolean {
  const { project, level } = get();
  const own = new Set(chain.map((q) => `${q.x.toFixed(6)} ${q.y.toFixed(6)}`));
  return Object.values(project.walls).some((wall) => {
    if (wall.level !== level) return false;
    const [a, b] = wallEnds(project, wall);
    // The walls of the chain itself don't end it.
    if ([a, b].every((q) => own.has(`${q.x.toFixed(6)} ${q.y.toFixed(6)}`))) return false;
    const d = sub(b, a);
    const t = dot(sub(p, a), d) / dot(d, d);
    return t >= -1e-9 && t <= 1 + 1e-9 && distance(add(a, scale(d, t)), p) < 1e-5;
  });
}

/** Ends a chain where it is. */
export function finishChain(): void {
  chain = [];
  set({ marks: [], ghost: [], measure: null });
}

export const drawing = (): boolean => chain.length > 0;

// The measuring line ------------------------------------------------------------------------------------------------

/** A typed character or a changed text on the measuring line. */
export function type(text: string | null): void {
  const { measure } = get();
  if (!measure) return;
  set({ measure: { ...measure, typed: text } });
  if (pointer && chain.length) showWalls(pointer);
}

/** Tab on the measuring line: on to the next value. */
export function nextField(): void {
  const { measure, project } = get();
  if (!measure || measure.fields.length < 2) return;
  const parsed = measure.typed ? parseLength(measure.typed, project.units) : null;
  if (parsed?.ok) typedSizes[measure.field] = parsed.metres;
  set({ measure: { ...measure, typed: '', field: (measure.field + 1) % measure.fields.length } });
  if (pointer && chain.length) showWalls(pointer);
}

/** Enter on the measuring line: takes the typed value. */
export function enter(): void {
  const { measure, project, say } = get();
  if (!measure || !chain.length) return;
  if (measure.typed === null || measure.typed.trim() === '') {
    if (measure.fields.length < 2 && !measure.typed) return finishChain();
  } else {
    const parsed = parseLength(measure.typed, project.units);
    if (!parsed.ok) return say(parsed.message);
    if (parsed.metres <= 0.01 || parsed.metres > 500)
      return say(`A wall can’t be ${measure.typed.trim()} long; nothing was drawn. Type a length between 10 mm and 500 m.`);
    if (measure.fields.length === 2 && measure.field === 0 && typedSizes[1] === null) return nextField();
  }
  if (end && pointer) {
    const target = typedEnd(chain.at(-1)!, end) ?? end;
    set({ measure: { ...measure, typed: null, field: 0 } });
    addPoint(target);
  }
}

/** Arrow keys give the wall being drawn its direction; a typed length does the rest. */
export function steer(key: string): void {
  const last = chain.at(-1);
  const { tool } = get();
  if (!last || tool.kind !== 'walls') return;
  const d = { ArrowLeft: { x: -1, y: 0 }, ArrowRight: { x: 1, y: 0 }, ArrowUp: { x: 0, y: 1 }, ArrowDown: { x: 0, y: -1 } }[key];
  if (!d) return;
  const now = pointer?.plan ?? last;
  const plan =
    tool.shape === 'rectangle'
      ? { x: d.x ? last.x + d.x * Math.max(0.5, Math.abs(now.x - last.x)) : now.x, y: d.y ? last.y + d.y * Math.max(0.5, Math.abs(now.y - last.y)) : now.y }
      : add(last, d);
  pointer = { plan, spot: null, reach: 0.02, shift: false };
  showWalls(pointer);
}
