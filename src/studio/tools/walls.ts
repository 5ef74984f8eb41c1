import { drawDimension } from '@/core/drawing/dimension';
import type { DisplayItem } from '@/core/drawing/display';
import { signedArea } from '@/core/geometry/polygon';
import { add, angleOf, cross, distance, meet, scale, sub, unit, type Vec2 } from '@/core/geometry/vec';
import { rectangleOf } from '@/core/project/built-defaults';
import { shapeOutline } from '@/core/project/drafting';
import type { Wall } from '@/core/project/schema';
import { bulgeThrough, stationNear, wallExtents, wallPath, wallThickness } from '@/core/project/wall-line';
import { parseLength } from '@/core/units/length';
import { get, length, readable, set, type TablePoint } from './session';
import { snapPoint } from './snap';

/** Corners of the chain, or the first corner of the rectangle, being drawn; of an arc, its two ends. */
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

/** Whether the tool draws one wall after another. */
const oneByOne = (shape: string): boolean => shape === 'chain' || shape === 'arc';

function snapped(at: TablePoint): ReturnType<typeof snapPoint> {
  const { project, level, tool, pen } = get();
  const walls = tool.kind === 'walls' && oneByOne(tool.shape);
  const through = tool.kind === 'walls' && tool.shape === 'arc' && chain.length === 2;
  return snapPoint(project, at.plan, {
    level,
    reach: at.reach,
    from: walls && !through ? chain.at(-1) : null,
    own: walls ? chain : [],
    angles: through ? null : pen.angles,
  });
}

/** Thickness of the walls that are drawn, metres. */
export function penThickness(): number {
  const { pen, project, tool } = get();
  if (tool.kind === 'walls' && tool.boundary) return 0;
  return wallThickness(project, { kind: 'wall', type: pen.type, thickness: pen.thickness } as Wall);
}

/** What the walls that are drawn are made of. The line drawn along is a face where lengths are meant along one: the inside lies at the left of the way one goes. */
function make(offset?: number): Pick<Wall, 'kind' | 'type' | 'thickness' | 'offset' | 'base' | 'top' | 'status'> {
  const { pen, tool } = get();
  const half = penThickness() / 2;
  const boundary = tool.kind === 'walls' && tool.boundary;
  const side = pen.reference === 'centre' ? 0 : pen.reference === 'inside' ? -half : half;
  return {
    kind: boundary ? 'boundary' : 'wall',
    type: boundary ? null : pen.type,
    thickness: boundary ? 0.02 : pen.type === null ? pen.thickness : null,
    offset: boundary ? 0 : (offset ?? side),
    base: pen.base,
    top: pen.top,
    status: pen.status,
  };
}

/** How much of a length from a point in a direction lies inside a wall that stands there: what an inside length leaves out. */
function inside(p: Vec2, d: Vec2): number {
  const { project, level, pen } = get();
  if (pen.reference !== 'inside') return 0;
  let most = 0;
  for (const id in project.walls) {
    const wall = project.walls[id];
    if (wall.level !== level || wall.kind === 'boundary') continue;
    const path = wallPath(project, wall);
    const near = stationNear(path, p);
    if (near.distance > 1e-5) continue;
    const k = Math.max(
      1,
      path.findIndex((q) => q.s >= near.s - 1e-9),
    );
    const sine = cross(unit(sub(path[k].p, path[k - 1].p)), d);
    if (Math.abs(sine) < 0.1 || chain.some((q, i) => i + 1 < chain.length && distance(q, path[0].p) < 1e-6)) continue;
    const { left, right } = wallExtents(project, wall);
    most = Math.max(most, (sine > 0 ? left : right) / Math.abs(sine));
  }
  return most;
}

export function showWalls(at: TablePoint): void {
  const { tool, measure, pen } = get();
  if (tool.kind !== 'walls') return;
  const { point, note, guides } = snapped(at);
  end = point;
  const marks: DisplayItem[] = guides.map(guide);
  const last = chain.at(-1);
  if (!last) {
    set({ marks: [...marks, ...cross2(point)], ghost: [point], measure: { fields: [], note: note || 'press to start', typed: null, field: 0 } });
    return;
  }
  if (tool.shape === 'arc' && chain.length === 2) return showArc(point, marks);
  const target = typedEnd(last, point) ?? point;
  end = target;
  if (!oneByOne(tool.shape)) {
    const ring = outline(last, target);
    const sizes = sizesOf(last, target);
    marks.push({ kind: 'line', points: ring, closed: true, ink: 'measure', pen: 0.35, layer: 'dimension' });
    const box = [last, { x: target.x, y: last.y }, target];
    marks.push(...drawDimension(box[0], box[1], length(sizes.x)), ...drawDimension(box[1], box[2], length(sizes.y)));
    const what = pen.reference === 'centre' ? 'centre' : pen.reference;
    set({
      marks,
      ghost: [...ring, ring[0]],
      measure: {
        fields: [
          { label: `${what} width`, value: sizes.x },
          { label: `${what} depth`, value: sizes.y },
        ],
        note,
        typed: measure?.typed ?? null,
        field: measure?.field ?? 0,
      },
    });
    return;
  }
  const d = unit(sub(target, last));
  const along = distance(last, target) - inside(last, d) - inside(target, scale(d, -1));
  const points = [...chain, target];
  marks.push({ kind: 'line', points, closed: false, ink: 'measure', pen: 0.35, layer: 'dimension' });
  for (let i = 0; i + 1 < points.length; i++)
    if (distance(points[i], points[i + 1]) > 1e-6)
      marks.push(...drawDimension(points[i], points[i + 1], length(i + 2 === points.length ? Math.max(0, along) : distance(points[i], points[i + 1]))));
  const angle = ((Math.round((angleOf(sub(target, last)) * 180) / Math.PI) % 360) + 360) % 360;
  const label = tool.boundary
    ? 'length'
    : { inside: 'length on the inside face', centre: 'length on the centre line', outside: 'length on the outside face' }[pen.reference];
  set({
    marks,
    ghost: points,
    measure: { fields: [{ label, value: Math.max(0, along) }], note: note || `${angle}°`, typed: measure?.typed ?? null, field: 0 },
  });
}

/** The arc through its two ends and a third point, or with a typed radius. */
function arcBulge(point: Vec2): number {
  const { measure, project } = get();
  const [a, b] = chain;
  const bulge = bulgeThrough(a, b, point);
  const parsed = measure?.typed ? parseLength(measure.typed, project.units) : null;
  if (!parsed?.ok || parsed.metres < distance(a, b) / 2) return bulge;
  const angle = 2 * Math.asin(Math.min(1, distance(a, b) / 2 / parsed.metres));
  return Math.sign(bulge || 1) * Math.tan(angle / 4);
}

function showArc(point: Vec2, marks: DisplayItem[]): void {
  const { measure } = get();
  const [a, b] = chain;
  const bulge = arcBulge(point);
  const path = wallPath({ corners: { a: { id: 'a', level: '', ...a }, b: { id: 'b', level: '', ...b } } }, { start: 'a', end: 'b', bulge } as Wall);
  const points = path.map((q) => q.p);
  marks.push({ kind: 'line', points, closed: false, ink: 'measure', pen: 0.35, layer: 'dimension' });
  const radius = Math.abs(bulge) > 1e-6 ? distance(a, b) / 2 / Math.abs(Math.sin(2 * Math.atan(bulge))) : 0;
  set({
    marks,
    ghost: points,
    measure: {
      fields: [{ label: 'radius', value: radius }],
      note: `rise ${length((Math.abs(bulge) * distance(a, b)) / 2)}`,
      typed: measure?.typed ?? null,
      field: 0,
    },
  });
}

const cross2 = (p: Vec2): DisplayItem[] =>
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

/** The wall that stands along a side of an outline already: it is shared, and the side is its line. */
function standingAlong(p: Vec2, q: Vec2): Wall | null {
  const { project, level } = get();
  const long = distance(p, q);
  if (long < 1e-6) return null;
  const d = unit(sub(q, p));
  const s = (r: Vec2): number => (r.x - p.x) * d.x + (r.y - p.y) * d.y;
  for (const id in project.walls) {
    const wall = project.walls[id];
    if (wall.level !== level || wall.kind === 'boundary' || wall.bulge !== 0) continue;
    const [a, b] = [project.corners[wall.start], project.corners[wall.end]];
    if ([a, b].some((r) => Math.abs(cross(d, sub(r, p))) > 1e-5)) continue;
    if (Math.max(s(a), s(b)) > -1e-5 && Math.min(s(a), s(b)) < long + 1e-5) return wall;
  }
  return null;
}

/** How far a wall reaches to the left of a direction along it, metres. */
function reachLeft(wall: Wall, d: Vec2): number {
  const { project } = get();
  const { left: l, right: r } = wallExtents(project, wall);
  return cross(sub(project.corners[wall.end], project.corners[wall.start]), { x: -d.y, y: d.x }) > 0 ? l : r;
}

/**
 * How far the face that is measured lies inside a side of an outline, metres: nothing where the side is that face, or
 * half of the wall that stands there already, whose middle the side follows.
 */
function gapAt(p: Vec2, q: Vec2): number {
  const { reference } = get().pen;
  const wall = reference === 'centre' ? null : standingAlong(p, q);
  if (!wall) return 0;
  const d = unit(sub(q, p));
  return reference === 'inside' ? reachLeft(wall, d) : -reachLeft(wall, scale(d, -1));
}

/** How far the measured faces lie inside the four sides of a box: below, right, above, left. */
const gapsOf = (a: Vec2, b: Vec2): number[] => rectangleOf(a, b).map((p, i, box) => gapAt(p, box[(i + 1) % 4]));

/** The sizes of an outline along what is measured: inside faces, outside faces or the middles of walls. */
function sizesOf(a: Vec2, b: Vec2): Vec2 {
  const [below, right, above, left] = gapsOf(a, b);
  return { x: Math.max(0, Math.abs(b.x - a.x) - left - right), y: Math.max(0, Math.abs(b.y - a.y) - below - above) };
}

/** The outline that is pressed. */
function outline(a: Vec2, b: Vec2): Vec2[] {
  const { tool } = get();
  const shape = tool.kind === 'walls' && !oneByOne(tool.shape) ? (tool.shape as 'rectangle') : 'rectangle';
  const low = { x: Math.min(a.x, b.x), y: Math.min(a.y, b.y) };
  return shapeOutline(shape, Math.abs(b.x - a.x), Math.abs(b.y - a.y)).map((p) => add(low, p));
}

/** The middles of the walls of an outline, whose faces go through what was pressed; where walls stand already, theirs. */
function centreLines(ring: readonly Vec2[]): Vec2[] {
  const { reference } = get().pen;
  const by = { inside: 0.5, centre: 0, outside: -0.5 }[reference] * penThickness();
  const lines = ring.map((p, i) => {
    const q = ring[(i + 1) % ring.length];
    const d = unit(sub(q, p));
    // The inside lies at the left of the way one goes.
    const out = by === 0 || standingAlong(p, q) ? 0 : by;
    return { p: add(p, { x: d.y * out, y: -d.x * out }), d };
  });
  return lines.map((line, i) => {
    const before = lines[(i + lines.length - 1) % lines.length];
    return meet(before.p, before.d, line.p, line.d) ?? line.p;
  });
}

/** Values typed so far for a rectangle. */
let typedSizes: (number | null)[] = [null, null];

/** Where the end lies once typed values are taken into account; null while nothing readable is typed. */
function typedEnd(last: Vec2, point: Vec2): Vec2 | null {
  const { measure, project, tool } = get();
  if (tool.kind !== 'walls') return null;
  const parsed = measure?.typed ? parseLength(measure.typed, project.units) : null;
  const current = parsed?.ok && parsed.metres > 0 ? parsed.metres : null;
  if (oneByOne(tool.shape)) {
    if (current === null || distance(last, point) < 1e-6) return null;
    const d = unit(sub(point, last));
    return add(last, scale(d, current + inside(last, d)));
  }
  const sizes = [...typedSizes];
  if (current !== null) sizes[measure!.field] = current;
  if (sizes[0] === null && sizes[1] === null) return null;
  const sign = { x: point.x < last.x ? -1 : 1, y: point.y < last.y ? -1 : 1 };
  const [below, right, above, left] = gapsOf(last, point);
  // Where a typed size ends no wall stands yet; where it begins one may.
  return {
    x: sizes[0] === null ? point.x : last.x + sign.x * (sizes[0] + (sign.x > 0 ? left : right)),
    y: sizes[1] === null ? point.y : last.y + sign.y * (sizes[1] + (sign.y > 0 ? below : above)),
  };
}

export function pressWalls(at: TablePoint): void {
  const { tool } = get();
  if (tool.kind !== 'walls') return;
  // What is typed and can’t be read is not passed over for where the pointer is.
  if (chain.length && !readable()) return;
  const last = chain.at(-1);
  const { point } = snapped(at);
  const target = last && !(tool.shape === 'arc' && chain.length === 2) ? (typedEnd(last, point) ?? point) : point;
  pressedAt = chain.length ? null : at.plan;
  addPoint(target);
}

/** Where the first corner of an outline was pressed: a release farther on is the second press. */
let pressedAt: Vec2 | null = null;

/** A release: press, drag and release draw an outline as two presses do. */
export function releaseWalls(at: TablePoint): void {
  const { tool } = get();
  const from = pressedAt;
  pressedAt = null;
  if (tool.kind !== 'walls' || oneByOne(tool.shape) || chain.length !== 1 || !from || distance(from, at.plan) < at.reach) return;
  pressWalls(at);
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
  const { shape } = state.tool;
  const draw = (points: Vec2[], closed: boolean, extra: { bulges?: number[]; offset?: number } = {}): boolean =>
    state.run('wall.draw', { level: state.level, points, closed, bulges: extra.bulges, ...make(extra.offset) });
  const ended = (): void => {
    chain = [];
    set({ marks: [], ghost: [], measure: null });
  };
  if (shape === 'arc') {
    if (chain.length === 1) {
      if (distance(chain[0], point) < 1e-6) return finishChain();
      chain = [...chain, point];
      set({ measure: { fields: [], note: 'press where the arc passes', typed: null, field: 0 } });
      return;
    }
    const bulge = arcBulge(point);
    if (draw(chain, false, { bulges: [bulge] })) ended();
    return;
  }
  if (shape !== 'chain') {
    if (draw(centreLines(outline(chain[0], point)), true, { offset: 0 })) ended();
    return;
  }
  const last = chain.at(-1)!;
  if (distance(last, point) < 1e-6) return finishChain();
  const closing = distance(chain[0], point) < 1e-6 && chain.length > 2;
  const joins = meetsWall(point);
  if (!draw([last, point], false)) return;
  if (closing) turnInside(chain);
  if (closing || joins) chain = [];
  else chain = [...chain, point];
  set({ measure: chain.length ? { fields: [], note: '', typed: null, field: 0 } : null, ...(chain.length ? {} : { marks: [], ghost: [] }) });
  if (chain.length && pointer) showWalls(pointer);
}

/** A ring that was drawn clockwise has its inside at the right: its walls go to the other side of their line. */
function turnInside(points: readonly Vec2[]): void {
  const { project, run, pen } = get();
  if (pen.reference === 'centre' || signedArea(points) > 0) return;
  const on = (p: Vec2): boolean => points.some((q) => distance(p, q) < 1e-6);
  const walls = Object.values(project.walls).filter(
    (w) => on(project.corners[w.start]) && on(project.corners[w.end]) && Math.abs(Math.abs(w.offset) - penThickness() / 2) < 1e-9,
  );
  if (walls.length) run('wall.side', { walls: walls.map((w) => w.id), offset: -walls[0].offset });
}

/** Whether a point lies on a wall that stood before, so that a chain ends there. */
export function meetsWall(p: Vec2): boolean {
  const { project, level } = get();
  const own = new Set(chain.map((q) => `${q.x.toFixed(6)} ${q.y.toFixed(6)}`));
  return Object.values(project.walls).some((wall) => {
    if (wall.level !== level) return false;
    const path = wallPath(project, wall);
    // The walls of the chain itself don't end it.
    if ([path[0].p, path[path.length - 1].p].every((q) => own.has(`${q.x.toFixed(6)} ${q.y.toFixed(6)}`))) return false;
    return stationNear(path, p).distance < 1e-5;
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
export function typeWalls(): void {
  if (pointer && chain.length) showWalls(pointer);
}

/** Tab on the measuring line: on to the next value. */
export function nextWallField(): void {
  const { measure, project } = get();
  if (!measure || measure.fields.length < 2) return;
  const parsed = measure.typed ? parseLength(measure.typed, project.units) : null;
  if (parsed?.ok) typedSizes[measure.field] = parsed.metres;
  set({ measure: { ...measure, typed: '', field: (measure.field + 1) % measure.fields.length } });
  if (pointer && chain.length) showWalls(pointer);
}

/** Enter on the measuring line: takes the typed value. */
export function enterWalls(): void {
  const { measure, project, say, tool } = get();
  if (!measure || !chain.length || tool.kind !== 'walls') return;
  if (measure.typed === null || measure.typed.trim() === '') {
    if (measure.fields.length < 2 && !measure.typed) return finishChain();
  } else {
    const parsed = parseLength(measure.typed, project.units);
    if (!readable() || !parsed.ok) return;
    if (measure.fields.length === 2 && measure.field === 0 && typedSizes[1] === null) return nextWallField();
    if (tool.shape === 'arc' && chain.length === 2 && parsed.metres < distance(chain[0], chain[1]) / 2)
      return say(
        `No arc was drawn: a radius of ${length(parsed.metres)} is too small to span ${length(distance(chain[0], chain[1]))}; type at least half of that.`,
      );
  }
  if (end && pointer) {
    const target = tool.shape === 'arc' && chain.length === 2 ? end : (typedEnd(chain.at(-1)!, end) ?? end);
    if (!(tool.shape === 'arc' && chain.length === 2)) set({ measure: { ...measure, typed: null, field: 0 } });
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
  const plan = !oneByOne(tool.shape)
    ? { x: d.x ? last.x + d.x * Math.max(0.5, Math.abs(now.x - last.x)) : now.x, y: d.y ? last.y + d.y * Math.max(0.5, Math.abs(now.y - last.y)) : now.y }
    : add(last, d);
  pointer = { plan, spot: null, reach: 0.02, shift: false };
  showWalls(pointer);
}
