import { drawDimension } from '@/core/drawing/dimension';
import type { DisplayItem } from '@/core/drawing/display';
import { insideRegion } from '@/core/geometry/polygon';
import { add, angleOf, distance, scale, sub, unit, type Vec2 } from '@/core/geometry/vec';
import { newBeam, newFence, newGround, newSlab, newVoid, rectangleOf, roofSection } from '@/core/project/built-defaults';
import type { Put } from '@/core/project/putting';
import { newRoof } from '@/core/project/roof-defaults';
import { DEFAULTS, type Stair } from '@/core/project/schema';
import { newGuard, newStair } from '@/core/project/stairs';
import { freeName } from '@/core/project/things';
import { againstWall } from '@/core/shell/stair-place';
import { riseOf } from './climbing';
import { parseLength } from '@/core/units/length';
import type { Make } from './make';
import { comingId, get, length, readable, set, wasSet, type TablePoint } from './session';
import { snapPoint } from './snap';

interface Way {
  /** Whether it is an outline, which a press on its first point closes. */
  closed: boolean;
  least: number;
  /** With so many points it is done. */
  most: number;
  noun: string;
  first: string;
  make(id: string, points: Vec2[]): Put;
}

const put = (command: Put['command'], args: unknown): Put => ({ command, args }) as Put;

/** How each thing is drawn, and what comes of it. */
function wayOf(make: Make): Way {
  const { project, level, pen } = get();
  const basics = { level, status: pen.status };
  const outline = { closed: true, least: 3, most: Infinity, first: 'press its first corner' };
  switch (make.what) {
    case 'roof':
      return {
        ...outline,
        noun: 'roof',
        make: (id, points) => put('roof.put', { roof: newRoof(project, { id, ...basics, over: { kind: 'outline', points } }, make.form) }),
      };
    case 'plane':
      return {
        ...outline,
        noun: 'roof plane',
        make: (id, points) => {
          const over = { kind: 'plane' as const, points, z: 0, direction: angleOf(sub(points[2], points[1])), pitch: DEFAULTS.roof.pitch };
          return put('roof.put', { roof: { ...newRoof(project, { id, ...basics, over }, 'hip'), thickness: 0.15, gutter: false } });
        },
      };
    case 'swept':
      return {
        closed: false,
        least: 2,
        most: Infinity,
        noun: 'roof',
        first: 'press where its ridge starts',
        make: (id, points) => {
          const over = { kind: 'swept' as const, path: points, section: roofSection(make.section, 5) };
          return put('roof.put', { roof: { ...newRoof(project, { id, ...basics, over }, 'hip'), thickness: 0.15 } });
        },
      };
    case 'patch':
      return {
        ...outline,
        noun: 'patch',
        make: (id, points) => {
          const middle = scale(
            points.reduce((sum, p) => add(sum, p), { x: 0, y: 0 }),
            1 / points.length,
          );
          const rooms = get().model.shell.levels.find((l) => l.id === level)?.rooms ?? [];
          const room = rooms.find((r) => insideRegion(middle, r.region)) ?? rooms.find((r) => r.id === get().room);
          const order = Math.max(0, ...Object.values(project.patches).map((p) => p.order)) + 1;
          const patch = {
            id,
            name: freeName('Patch', project.patches),
            on: { kind: 'floor', room: room?.id ?? 'none' },
            shape: { kind: 'polygon', points },
            order,
            finish: make.finish,
            panels: null,
          };
          return put('patch.put', { patches: [patch] });
        },
      };
    case 'void':
      return { ...outline, noun: 'void', make: (id, points) => put('void.put', newVoid(project, { id, ...basics, points })) };
    case 'slab':
      return { ...outline, noun: 'slab', make: (id, points) => put('slab.put', newSlab(project, { id, ...basics, kind: make.kind, points })) };
    case 'stair':
      return {
        closed: false,
        least: 2,
        most: 2,
        noun: 'stair',
        first: 'press the middle of its first riser',
        make: (id, [a, b]) => put('stair.put', stairFrom(id, { form: make.form, corners: make.corners, turn: make.turn }, a, b)),
      };
    case 'steps':
      return {
        closed: false,
        least: 2,
        most: 2,
        noun: 'stair',
        first: 'press the middle of the lowest step',
        make: (id, [a, b]) => {
          // From the ground up to the floor of the level.
          const up = Math.max(0.12, project.levels[level].elevation - project.site.ground);
          const guard = up > 0.6 ? newGuard() : null;
          const own = {
            name: freeName('Steps', project.stairs),
            z: -up,
            rise: up,
            width: 1.2,
            build: 'solid',
            void: 'none',
            left: guard,
            right: guard,
            above: null,
          } as const;
          return put('stair.put', stairFrom(id, own, a, b));
        },
      };
    case 'beam':
      if (make.as === 'post')
        return {
          closed: false,
          least: 1,
          most: 1,
          noun: 'post',
          first: 'press where it stands',
          make: (id, [p]) => put('beam.put', newBeam(project, { id, ...basics, a: { ...p, z: 0 }, b: { ...p, z: project.levels[level].height } })),
        };
      return {
        closed: false,
        least: 2,
        most: 2,
        noun: 'beam',
        first: 'press one of its ends',
        make: (id, [a, b]) => {
          const z = project.levels[level].height - 0.1;
          return put('beam.put', newBeam(project, { id, ...basics, a: { ...a, z }, b: { ...b, z } }));
        },
      };
    case 'ground':
      return { ...outline, noun: 'area', make: (id, points) => put('ground.put', newGround(project, { id, status: pen.status, kind: make.kind, points })) };
    case 'fence':
      return {
        closed: false,
        least: 2,
        most: Infinity,
        noun: 'fence',
        first: 'press where it starts',
        make: (id, points) => put('fence.put', newFence(project, { id, status: pen.status, kind: make.kind, points })),
      };
  }
}

/** A stair that sets out from one point towards another; beside a wall it has no guard. */
function stairFrom(id: string, set: Partial<Stair>, a: Vec2, b: Vec2): Stair {
  const { project, level, pen, model } = get();
  const rotation = distance(a, b) < 0.01 ? 0 : angleOf(sub(b, a)) - Math.PI / 2;
  const stair = newStair(project, { id, level, x: a.x, y: a.y, rotation, status: pen.status, rise: riseOf(project, level, pen.climb), ...set });
  const own = model.shell.levels.find((l) => l.id === level);
  return own ? againstWall(stair, own).stair : stair;
}

/** Points set so far, and where the pointer is. */
let points: Vec2[] = [];
let pointer: TablePoint | null = null;
let typed: (number | null)[] = [null, null];

export const outlining = (): boolean => points.length > 0;

export function dropOutline(): void {
  points = [];
  typed = [null, null];
}

const way = (): Way | null => {
  const { tool } = get();
  return tool.kind === 'outline' ? wayOf(tool.make) : null;
};

/** Whether the outline is drawn as a rectangle, by two opposite corners. */
const asRectangle = (own: Way): boolean => own.closed && get().pen.outline === 'rectangle';

function next(at: TablePoint, own: Way): { point: Vec2; note: string; closes: boolean } {
  const { project, level, pen } = get();
  const last = points.at(-1) ?? null;
  if (own.closed && points.length > 2 && distance(points[0], at.plan) < at.reach) return { point: points[0], note: 'closes the outline', closes: true };
  const snapped = snapPoint(project, at.plan, { level, reach: at.reach, ...(asRectangle(own) ? {} : { from: last, angles: pen.angles }) });
  if (!last) return { ...snapped, closes: false };
  // Typed values count.
  if (asRectangle(own)) {
    const by = sub(snapped.point, last);
    const x = typed[0] === null ? by.x : typed[0] * (by.x < 0 ? -1 : 1);
    const y = typed[1] === null ? by.y : typed[1] * (by.y < 0 ? -1 : 1);
    return { ...snapped, point: add(last, { x, y }), closes: false };
  }
  if (typed[0] === null) return { ...snapped, closes: false };
  const d = distance(last, snapped.point) < 1e-6 ? { x: 1, y: 0 } : unit(sub(snapped.point, last));
  return { ...snapped, point: add(last, scale(d, typed[0])), closes: false };
}

/** Shows what is drawn as it is drawn. */
export function showOutline(at: TablePoint): void {
  const own = way();
  if (!own) return;
  pointer = at;
  const state = get();
  const { point, note } = next(at, own);
  const last = points.at(-1);
  const line = (list: Vec2[], closed = false): DisplayItem => ({ kind: 'line', points: list, closed, ink: 'measure', pen: 0.35, layer: 'dimension' });
  let marks: DisplayItem[] = [];
  let fields: { label: string; value: number }[] = [];
  let refusal: string | null = null;
  if (own.most === 1) refusal = preview(own, [point]);
  else if (last && asRectangle(own)) {
    const ring = rectangleOf(last, point);
    marks = [
      line(ring, true),
      ...drawDimension(ring[0], ring[1], length(distance(ring[0], ring[1]))),
      ...drawDimension(ring[1], ring[2], length(distance(ring[1], ring[2]))),
    ];
    fields = [
      { label: 'wide', value: Math.abs(point.x - last.x) },
      { label: 'deep', value: Math.abs(point.y - last.y) },
    ];
    if (hasArea(last, point)) refusal = preview(own, ring);
    else state.endPreview();
  } else if (last) {
    marks = [line([...points, point]), ...drawDimension(last, point, length(distance(last, point)))];
    fields = [{ label: 'long', value: distance(last, point) }];
    if (own.most === 2 && distance(last, point) > 0.05) refusal = preview(own, [last, point]);
  } else state.endPreview();
  const hint =
    points.length === 0
      ? own.first
      : asRectangle(own)
        ? 'press the corner opposite'
        : own.closed
          ? 'press the first corner, or Enter'
          : own.most === 2
            ? ''
            : 'Enter ends it';
  const { measure } = get();
  set({ marks, measure: { fields, note: refusal ?? (note || hint), typed: points.length ? (measure?.typed ?? null) : null, field: measure?.field ?? 0 } });
}

/** Whether two corners are far enough apart for a rectangle. */
const hasArea = (a: Vec2, b: Vec2): boolean => Math.abs(b.x - a.x) >= 0.02 && Math.abs(b.y - a.y) >= 0.02;

/** What the ids of what is drawn begin with. */
const idOf = (own: Way): string => own.noun.replace(/ /g, '-');

function preview(own: Way, list: Vec2[]): string | null {
  const { command, args } = own.make(comingId(idOf(own)), list);
  return get().preview(command, args as never);
}

/** A press sets a point; on the first one it closes an outline. */
export function pressOutline(at: TablePoint): void {
  const own = way();
  if (!own || (points.length && !readable())) return;
  const { point, closes } = next(at, own);
  if (closes) return finishOutline();
  const last = points.at(-1);
  if (last && distance(last, point) < 0.01) return;
  if (last && asRectangle(own)) {
    if (!hasArea(last, point)) return;
    points = rectangleOf(last, point);
    return finishOutline();
  }
  points = [...points, point];
  typed = [null, null];
  if (points.length >= own.most) return finishOutline();
  const { measure } = get();
  if (measure) set({ measure: { ...measure, typed: null, field: 0 } });
  showOutline(at);
}

/** Makes what has been drawn. */
export function finishOutline(): void {
  const state = get();
  const own = way();
  if (!own) return;
  if (points.length < own.least)
    return state.say(`No ${own.noun} was set: it is drawn by at least ${own.least} ${own.closed ? 'corners' : 'points'}; press another one.`);
  const id = comingId(idOf(own));
  const { command, args } = own.make(id, points);
  dropOutline();
  set({ marks: [], measure: null });
  if (!state.run(command, args as never)) return;
  wasSet(idOf(own));
  state.select([{ entity: id, target: null }]);
}

export function typeOutline(): void {
  const { measure, project } = get();
  if (!points.length || !measure || !pointer) return;
  const parsed = measure.typed ? parseLength(measure.typed, project.units) : null;
  typed[measure.field] = parsed?.ok ? parsed.metres : null;
  showOutline(pointer);
}

export function nextOutlineField(): void {
  const { measure } = get();
  if (!measure || measure.fields.length < 2) return;
  set({ measure: { ...measure, typed: '', field: (measure.field + 1) % measure.fields.length } });
}

/** Enter: takes a typed value as the next point, or ends what is drawn. */
export function enterOutline(): void {
  const { measure } = get();
  const own = way();
  if (!own || !pointer || !readable()) return;
  if (asRectangle(own) && points.length === 1) {
    if (measure?.field === 0 && typed[0] !== null && typed[1] === null) return nextOutlineField();
    return pressOutline(pointer);
  }
  if (typed[0] !== null) return pressOutline(pointer);
  finishOutline();
}

/** What Enter in a pane does: sets the thing in the middle of a place, with the size it starts with. */
export function outlineByKey(middle: Vec2): void {
  const own = way();
  if (!own) return;
  points = own.closed
    ? rectangleOf(sub(middle, { x: 0.75, y: 0.75 }), add(middle, { x: 0.75, y: 0.75 }))
    : own.most === 1
      ? [middle]
      : [middle, add(middle, { x: 0, y: 2 })];
  finishOutline();
}
