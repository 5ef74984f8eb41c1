import { drawDimension } from '@/core/drawing/dimension';
import type { DisplayItem } from '@/core/drawing/display';
import { add, angleOf, distance, left, scale, sub, type Vec2 } from '@/core/geometry/vec';
import { rooflightName } from '@/core/project/rooflights';
import { DEFAULTS, type Rooflight, type Side } from '@/core/project/schema';
import { stationAt, stationNear, wallExtents, wallPath } from '@/core/project/wall-line';
import { brought, toPixels } from '@/core/project/underlay';
import { parseLength, snapStep } from '@/core/units/length';
import { newId } from '../store/studio';
import { wallUnder } from './openings';
import { comingId, get, length, readable, set, wasSet, type TablePoint } from './session';
import { snapPoint } from './snap';

/** What has been begun with a press: a recess or boxing on a wall, or a first point. */
let begun: { kind: 'recess'; wall: string; s: number; off: number } | { kind: 'point'; p: Vec2 } | null = null;
let pointer: TablePoint | null = null;
let typed: (number | null)[] = [null, null];

export function dropBuilding(): void {
  begun = null;
  picked = null;
  typed = [null, null];
}

export const building = (): boolean => begun !== null;

// Recesses and boxing: one gesture on a face ---------------------------------------------------------------------------

const otherSide = (side: Side): Side => (side === 'left' ? 'right' : 'left');

interface Gesture {
  wall: string;
  side: Side;
  at: number;
  width: number;
  depth: number;
}

/** What the gesture means so far: along the wall its width, away from the face its depth; typed values count. */
function gesture(at: TablePoint): Gesture | null {
  const { project, tool } = get();
  if (tool.kind !== 'recess' || begun?.kind !== 'recess') return null;
  const path = wallPath(project, project.walls[begun.wall]);
  const { s, off } = stationNear(path, at.plan);
  const { left: l, right: r } = wallExtents(project, project.walls[begun.wall]);
  // It goes where one drags; until then a recess goes away from the face that was pressed, and a box stands before it.
  const across = off - begun.off;
  const pressed = begun.off >= 0 ? 'left' : 'right';
  const towards = Math.abs(across) > at.reach ? (across > 0 ? 'left' : 'right') : tool.make === 'recess' ? otherSide(pressed) : pressed;
  // A recess is made from the face behind it.
  const side = tool.make === 'recess' ? otherSide(towards) : towards;
  const face = side === 'left' ? l : r;
  const out = (side === 'left' ? off : -off) - face;
  const base = tool.make === 'recess' ? DEFAULTS.recess : DEFAULTS.boxing;
  const dragged = Math.abs(s - begun.s) > at.reach;
  const width = typed[0] ?? (dragged ? snapStep(Math.abs(s - begun.s), project.units) : base.width);
  const drawn = snapStep(Math.abs(out), project.units);
  const depth = typed[1] ?? (Math.abs(out) > at.reach ? drawn : base.depth);
  const middle = dragged ? (s > begun.s ? begun.s + width / 2 : begun.s - width / 2) : begun.s;
  return { wall: begun.wall, side, at: Math.round(middle * 1e6) / 1e6, width, depth };
}

// A recess goes away from the side it is made from.
const recessArgs = (g: Gesture) => ({ wall: g.wall, at: g.at, width: g.width, depth: g.side === 'left' ? -g.depth : g.depth });

const boxArgs = (g: Gesture) => ({ ...g, thickness: DEFAULTS.boxing.thickness });

function previewGesture(g: Gesture): string | null {
  const { tool, preview } = get();
  if (tool.kind !== 'recess') return null;
  return tool.make === 'recess' ? preview('wall.recess', recessArgs(g)) : preview('wall.box', boxArgs(g));
}

// Points: columns, guide lines, the scale of an underlay --------------------------------------------------------------

const snapped = (at: TablePoint): ReturnType<typeof snapPoint> => {
  const { project, level } = get();
  return snapPoint(project, at.plan, { level, reach: at.reach });
};

const dot = (p: Vec2): DisplayItem[] => [
  { kind: 'line', points: [add(p, { x: -0.08, y: 0 }), add(p, { x: 0.08, y: 0 })], closed: false, ink: 'measure', pen: 0.25, layer: 'dimension' },
  { kind: 'line', points: [add(p, { x: 0, y: -0.08 }), add(p, { x: 0, y: 0.08 })], closed: false, ink: 'measure', pen: 0.25, layer: 'dimension' },
];

const say = (note: string, fields: { label: string; value: number }[] = []): void => {
  const { measure } = get();
  set({ measure: { fields, note, typed: measure?.typed ?? null, field: measure?.field ?? 0 } });
};

/** Shows what the tool would do where the pointer is. */
export function showBuilding(at: TablePoint): void {
  const state = get();
  pointer = at;
  const { tool } = state;
  if (tool.kind === 'recess') {
    const g = gesture(at);
    if (!g) {
      state.endPreview();
      return say(wallUnder(at) ? 'press, and drag along the wall and away from it' : 'point at the face of a wall');
    }
    const refusal = previewGesture(g);
    const path = wallPath(state.project, state.project.walls[g.wall]);
    const { d } = stationAt(path, g.at);
    const n = scale(left(d), g.side === 'left' ? 0.5 : -0.5);
    const end = (s: number): Vec2 => add(stationAt(path, s).p, n);
    set({ marks: drawDimension(end(g.at - g.width / 2), end(g.at + g.width / 2), length(g.width)) });
    return say(refusal ?? '', [
      { label: 'wide', value: g.width },
      { label: 'deep', value: g.depth },
    ]);
  }
  if (tool.kind === 'split') {
    const wall = wallUnder(at);
    if (!wall) {
      set({ marks: [] });
      return say('point at a wall');
    }
    const path = wallPath(state.project, state.project.walls[wall]);
    const s = snapStep(stationNear(path, at.plan).s, state.project.units);
    const { p, d } = stationAt(path, s);
    const n = scale(left(d), 0.35);
    set({ marks: [{ kind: 'line', points: [add(p, n), sub(p, n)], closed: false, ink: 'measure', pen: 0.35, layer: 'dimension' }] });
    return say('', [
      { label: 'from the start', value: s },
      { label: 'from the end', value: path[path.length - 1].s - s },
    ]);
  }
  const { point, note } = tool.kind === 'underlay' ? { point: at.plan, note: '' } : snapped(at);
  if (tool.kind === 'column') {
    const refusal = state.preview('column.put', columnAt(point, comingId('column')));
    return say(refusal ?? note);
  }
  if (tool.kind === 'rooflight') {
    const refusal = state.preview('rooflight.put', rooflightAt(point, comingId('rooflight')));
    return say(refusal ?? note);
  }
  if (begun?.kind !== 'point') {
    set({ marks: dot(point) });
    return say(tool.kind === 'guide' ? note || 'press a first point' : 'press one end of a length you know');
  }
  set({
    marks: [
      ...dot(begun.p),
      { kind: 'line', points: [begun.p, point], closed: false, ink: 'measure', pen: 0.35, dash: tool.kind === 'guide', layer: 'dimension' },
    ],
  });
  if (tool.kind === 'guide') return say(note || `${Math.round((angleOf(sub(point, begun.p)) * 180) / Math.PI)}°`);
  return say('press its other end, then type what it measures', [{ label: 'as drawn', value: distance(begun.p, point) }]);
}

function columnAt(p: Vec2, id: string) {
  const { level, tool, pen } = get();
  const number = Object.keys(get().project.columns).length + 1;
  const section = tool.kind === 'column' ? tool.section : 'square';
  return {
    id,
    name: `Column ${number}`,
    level,
    x: p.x,
    y: p.y,
    rotation: 0,
    section,
    ...DEFAULTS.column,
    height: null,
    status: pen.status,
    finishes: {},
  } as const;
}

function rooflightAt(p: Vec2, id: string): Rooflight {
  const { level, tool, pen, project } = get();
  return {
    id,
    name: rooflightName(project),
    level,
    x: p.x,
    y: p.y,
    rotation: 0,
    form: tool.kind === 'rooflight' ? tool.form : 'fixed',
    ...DEFAULTS.rooflight,
    panes: { across: 1, up: 1 },
    frame: 0.045,
    open: 0,
    status: pen.status,
    finishes: {},
  };
}

export function pressBuilding(at: TablePoint): void {
  const state = get();
  pointer = at;
  const { tool } = state;
  switch (tool.kind) {
    case 'recess': {
      const wall = wallUnder(at);
      if (!wall) return state.say(`No ${tool.make} was made: press on the face of a wall.`);
      const { s, off } = stationNear(wallPath(state.project, state.project.walls[wall]), at.plan);
      typed = [null, null];
      begun = { kind: 'recess', wall, s: snapStep(s, state.project.units), off };
      return;
    }
    case 'split': {
      const wall = wallUnder(at);
      if (!wall) return state.say('Nothing was split: point at a wall.');
      const s = snapStep(stationNear(wallPath(state.project, state.project.walls[wall]), at.plan).s, state.project.units);
      state.run('wall.split', { wall, at: [s] });
      return;
    }
    case 'column': {
      const id = comingId('column');
      if (state.run('column.put', columnAt(snapped(at).point, id))) {
        wasSet('column');
        state.select([{ entity: id, target: { kind: 'part', of: id, part: 'body' } }]);
      }
      return;
    }
    case 'rooflight': {
      const id = comingId('rooflight');
      if (state.run('rooflight.put', rooflightAt(snapped(at).point, id))) {
        wasSet('rooflight');
        state.select([{ entity: id, target: { kind: 'part', of: id, part: 'frame' } }]);
      }
      return;
    }
    case 'guide': {
      const { point } = snapped(at);
      if (begun?.kind !== 'point') {
        begun = { kind: 'point', p: point };
        return;
      }
      if (distance(begun.p, point) < 0.01) return;
      state.run('guide.put', { id: newId('guide'), level: state.level, x: begun.p.x, y: begun.p.y, angle: angleOf(sub(point, begun.p)) });
      dropBuilding();
      set({ marks: [], measure: null });
      return;
    }
    case 'underlay': {
      if (begun?.kind !== 'point') {
        begun = { kind: 'point', p: at.plan };
        return;
      }
      if (picked || distance(begun.p, at.plan) < 0.01) return;
      picked = [begun.p, at.plan];
      set({ measure: { fields: [{ label: 'measures in truth', value: distance(begun.p, at.plan) }], note: 'type it and press Enter', typed: '', field: 0 } });
    }
  }
}

/** The two points picked on the underlay, waiting for their true distance. */
let picked: [Vec2, Vec2] | null = null;
/** The pair that gave the first scale, in pixels, with its true distance. */
let firstPair: { u: number; v: number; d: number } | null = null;
export const waitingForLength = (): boolean => picked !== null;

/** Takes the true distance between the two points picked on the underlay. */
function scaleBy(metres: number): void {
  const state = get();
  if (!picked || state.tool.kind !== 'underlay') return;
  const level = state.project.levels[state.level];
  if (!level.underlay) return;
  const [a, b] = picked.map((p) => toPixels(level.underlay!, p));
  const own = { u: Math.abs(b.x - a.x), v: Math.abs(b.y - a.y), d: metres };
  const { underlay, note } = brought(level.underlay, picked, metres, state.tool.step, firstPair ?? undefined);
  firstPair = state.tool.step === 'first' ? own : null;
  picked = null;
  dropBuilding();
  if (state.run('level.set', { id: level.id, set: { underlay } })) {
    set({ marks: [], measure: null });
    state.setTool(state.tool.step === 'first' ? { kind: 'underlay', step: 'second' } : { kind: 'select' });
    get().say(note);
  }
}

/** A release: ends a gesture that is drawn with the button held. */
export function releaseBuilding(at: TablePoint): void {
  const state = get();
  if (state.tool.kind !== 'recess' || begun?.kind !== 'recess') return;
  const g = gesture(at);
  if (!g) return;
  commitGesture(g);
}

function commitGesture(g: Gesture): void {
  const state = get();
  if (state.tool.kind !== 'recess') return;
  if (state.tool.make === 'recess') state.run('wall.recess', recessArgs(g));
  else state.run('wall.box', boxArgs(g));
  dropBuilding();
  set({ marks: [], measure: null });
}

export function typeBuilding(): void {
  const { measure, project } = get();
  if (begun?.kind !== 'recess' || !measure || !pointer) return;
  const parsed = measure.typed ? parseLength(measure.typed, project.units) : null;
  typed[measure.field] = parsed?.ok ? parsed.metres : null;
  showBuilding(pointer);
}

export function nextBuildingField(): void {
  const { measure } = get();
  if (!measure || measure.fields.length < 2) return;
  set({ measure: { ...measure, typed: '', field: (measure.field + 1) % measure.fields.length } });
}

export function enterBuilding(): void {
  const { measure, project, say: tell } = get();
  if (!measure) return;
  if (picked) {
    const parsed = parseLength(measure.typed ?? '', project.units);
    if (!parsed.ok) return tell(parsed.message);
    if (parsed.metres < 0.05) return tell('The underlay keeps its scale: the two points must measure at least 50 mm in truth; type a greater length.');
    return scaleBy(parsed.metres);
  }
  if (begun?.kind !== 'recess' || !pointer || !readable()) return;
  if (measure.field === 0 && typed[0] !== null && typed[1] === null) return nextBuildingField();
  const g = gesture(pointer);
  if (g) commitGesture(g);
}
