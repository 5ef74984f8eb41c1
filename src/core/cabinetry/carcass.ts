import type { Band, Cell, Construction } from '../project/schema/cabinets';
import type { Vec3 } from '../geometry/vec';
import { isDrawn, parted, type LaidFront } from './front';
import { layInside, type InsideField } from './inside';

/** The three directions of a unit: along the run, from its front to its back, up. */
export type Axis = 'x' | 'y' | 'z';

/** What a panel is cut from. */
export type Board = 'carcass' | 'back' | 'frame';

/** A groove another panel is let into, as the box that is cut out of this one. */
export interface Groove {
  min: Vec3;
  max: Vec3;
}

/**
 * One board of a unit, as a box in its axes: x from its left side seen from before it, y from the back of the unit (0) to its
 * front (less than nothing), z above the foot of its carcass. Metres.
 */
export interface Panel {
  name: 'side' | 'bottom' | 'top' | 'rail' | 'back' | 'shelf' | 'divider' | 'stile' | 'frame rail';
  board: Board;
  min: Vec3;
  max: Vec3;
  /** The direction it is thin in. */
  thin: Axis;
  /** The direction its grain runs. */
  grain: Axis;
  /** Edges that are banded: the direction they look to. */
  edged: readonly ('front' | 'back' | 'left' | 'right' | 'up' | 'down')[];
  grooves: readonly Groove[];
  /** A corner that is cut out below at the front, for toes. */
  notch?: { deep: number; high: number };
  /** It is cut to a shape: its box is the least board that is had from. */
  shaped?: true;
}

const v = (x: number, y: number, z: number): Vec3 => ({ x, y, z });

/** A unit as its carcass is made. */
export interface Carcass {
  panels: Panel[];
  /** What is free inside, metres. */
  inside: { x0: number; x1: number; y0: number; y1: number; z0: number; z1: number };
  /** What stands in its cells, where their insides are divided. */
  fields: (InsideField & { cell: { row: number; column: number } })[];
  /** Height of the foot of the carcass boards above the floor the unit stands on, metres: 0 where its sides stand on the floor. */
  foot: number;
}

/** Cells that shelves are made in, where nothing is drawn out of them. */
const HELD: ReadonlySet<Cell['kind']> = new Set(['door', 'glazed', 'open', 'niche']);

/** Width of the pocket a door slides into, metres: its thickness, and room beside it. */
const POCKET = 0.045;

/** No shelf is made in a lower cell, metres. */
const LOWEST_SHELF = 0.08;

/**
 * The boards of a carcass. Sides go through; bottom, top, rails, dividers and shelves stand between them; the back is let into
 * grooves of sides, bottom and top, or screwed on behind. Imperial sides go down to the floor and are notched for toes; a base
 * unit has rails at its top, others a top.
 *
 * @param width, height, depth of the carcass, metres; of a unit whose sides go to the floor the height is above the room for toes
 * @param letIn something is let into the worktop above it: its rails stand upright
 * @param filled heights something is built into from side to side, above its foot: no board lies there
 */
export function carcassOf(
  width: number,
  height: number,
  depth: number,
  band: Band,
  made: Construction,
  front: LaidFront,
  letIn = false,
  filled: readonly { z0: number; z1: number }[] = [],
): Carcass {
  const { board: t, back, groove, void: behind, rail, setback, plinth, toe, frame, frameThick } = made;
  const floor = made.build !== 'frameless' && made.build !== 'in-frame' && band !== 'wall' && made.stands === 'plinth' ? plinth : 0;
  // A frame stands before the carcass, which is so much less deep.
  const face = -depth + (frame > 0 ? frameThick : 0);
  const grooved = groove > 0;
  // The face of the back, towards the inside.
  const backFace = -(grooved ? behind + back : back);
  const panels: Panel[] = [];
  const slot = (min: Vec3, max: Vec3): Groove => ({ min, max });
  const [bx0, bx1, bz0, bz1] = grooved ? [t - groove, width - t + groove, t - groove, height - (band === 'base' ? 0 : t - groove)] : [0, width, 0, height];
  const [by0, by1] = grooved ? [backFace, backFace + back] : [-back, 0];
  const rear = grooved ? 0 : -back;
  for (const x of [0, width - t]) {
    const inner = x === 0 ? [t - groove, t] : [width - t, width - t + groove];
    panels.push({
      name: 'side',
      board: 'carcass',
      min: v(x, face, -floor),
      max: v(x + t, rear, height),
      thin: 'x',
      grain: 'z',
      edged: ['front'],
      grooves: grooved ? [slot(v(inner[0], by0, bz0), v(inner[1], by1, bz1))] : [],
      ...(floor > 0 ? { notch: { deep: toe, high: floor } } : {}),
    });
  }
  panels.push({
    name: 'bottom',
    board: 'carcass',
    min: v(t, face, 0),
    max: v(width - t, rear, t),
    thin: 'z',
    grain: 'x',
    edged: ['front'],
    grooves: grooved ? [slot(v(t, by0, t - groove), v(width - t, by1, t))] : [],
  });
  // Fronts that are set in between the boards want one over them, whatever is let into the worktop behind it.
  const setIn = made.lies === 'inset' && frame === 0;
  if (band === 'base') {
    // Rails lie flat under the worktop, at the front and against the back; under what is let into it they stand.
    const deep = Math.min(rail, (backFace - face) / 2);
    const flat = [
      [face, face + (letIn ? Math.min(deep, 2 * made.front) : deep), height - t],
      [backFace - deep, backFace, height - t],
    ] as const;
    const upright = [
      [face, face + t, height - rail],
      [backFace - t, backFace, height - rail],
    ] as const;
    [setIn || !letIn ? flat[0] : upright[0], letIn ? upright[1] : flat[1]].forEach(([y0, y1, low], i) => {
      const stands = low < height - t;
      panels.push({
        name: 'rail',
        board: 'carcass',
        min: v(t, y0, low),
        max: v(width - t, y1, height),
        thin: stands ? 'y' : 'z',
        grain: 'x',
        edged: i === 0 ? [stands ? 'down' : 'front'] : [],
        grooves: [],
      });
    });
  } else
    panels.push({
      name: 'top',
      board: 'carcass',
      min: v(t, face, height - t),
      max: v(width - t, rear, height),
      thin: 'z',
      grain: 'x',
      edged: ['front'],
      grooves: grooved ? [slot(v(t, by0, height - t), v(width - t, by1, height - t + groove))] : [],
    });
  panels.push({ name: 'back', board: 'back', min: v(bx0, by0, bz0), max: v(bx1, by1, bz1), thin: 'y', grain: 'z', edged: [], grooves: [] });
  const inside = { x0: t, x1: width - t, y0: face, y1: backFace, z0: t, z1: height - t };
  const fields = divide(panels, inside, front, t, setback, setIn ? made.front : 0);
  const isFilled = ({ name, min, max }: Panel): boolean => (name === 'shelf' || name === 'divider') && filled.some((f) => max.z > f.z0 && min.z < f.z1);
  const kept = panels.filter((p) => !isFilled(p));
  const [fy0, fy1] = [-depth, -depth + frameThick];
  for (const { x0, x1, z0, z1 } of front.frame) {
    const upright = z1 - z0 > x1 - x0;
    kept.push({
      name: upright ? 'stile' : 'frame rail',
      board: 'frame',
      min: v(x0, fy0, upright && z0 === 0 ? -floor : z0),
      max: v(x1, fy1, z1),
      thin: 'y',
      grain: upright ? 'z' : 'x',
      edged: [],
      grooves: [],
    });
  }
  return { panels: kept, inside, fields, foot: floor };
}

/**
 * Puts boards between rows and cells of the front, and what divides cells behind doors and in open ones.
 *
 * @param fronts how far fronts lie in between the boards, metres
 * @returns what stands in the cells
 */
function divide(panels: Panel[], inside: Carcass['inside'], front: LaidFront, t: number, setback: number, fronts: number): Carcass['fields'] {
  const out: Carcass['fields'] = [];
  const { x0, x1, y0, y1, z0, z1 } = inside;
  const shelf = (a: number, b: number, z: number, back: number): void =>
    void panels.push({ name: 'shelf', board: 'carcass', min: v(a, y0 + back, z), max: v(b, y1, z + t), thin: 'z', grain: 'x', edged: ['front'], grooves: [] });
  front.between.rows.forEach((z, i) => {
    const row = (r: number): Cell[] => front.cells.filter((c) => c.row === r).map((c) => c.cell);
    if (parted(row(i), row(i + 1))) shelf(x0, x1, Math.max(z0, Math.min(z1 - t, z - t / 2)), 0);
  });
  for (const { row, x } of front.between.cells) {
    const { field } = front.cells.find((c) => c.row === row)!;
    // It stands between the boards over and under its row.
    const bound = (z: number, up: boolean): number => {
      const boards = panels.filter((p) => p.name === 'shelf' && Math.abs((p.min.z + p.max.z) / 2 - z) < t);
      if (boards.length) return up ? boards[0].min.z : boards[0].max.z;
      return up ? Math.min(z1, z) : Math.max(z0, z);
    };
    panels.push({
      name: 'divider',
      board: 'carcass',
      min: v(x - t / 2, y0, bound(field.z0, false)),
      max: v(x + t / 2, y1, bound(field.z1, true)),
      thin: 'x',
      grain: 'z',
      edged: ['front'],
      grooves: [],
    });
  }
  for (const { cell, field, row, column, leaves } of front.cells) {
    // Between a side and a shelf a door slides in.
    const pocket = (hand: 'left' | 'right'): number => (leaves.some((l) => l.pocket && l.hand === hand) ? POCKET : 0);
    const dividers = panels.filter((p) => p.name === 'divider');
    const near = (x: number, left: boolean): number => {
      const d = dividers.find((p) => Math.abs((p.min.x + p.max.x) / 2 - x) < t * 2 && p.min.z < field.z1 && p.max.z > field.z0);
      return d ? (left ? d.max.x : d.min.x) : left ? x0 : x1;
    };
    const boards = panels.filter((p) => p.name === 'shelf' && p.max.x - p.min.x > x1 - x0 - t);
    const low = Math.max(z0, ...boards.filter((p) => p.max.z <= field.z0 + t * 2).map((p) => p.max.z));
    const high = Math.min(z1, ...boards.filter((p) => p.min.z >= field.z1 - t * 2).map((p) => p.min.z));
    // Behind what closes a cell.
    const behind = cell.kind === 'open' || cell.kind === 'niche' ? 0 : fronts;
    if (cell.inside.length && !isDrawn(cell) && HELD.has(cell.kind)) {
      const back = cell.kind === 'open' ? 0 : setback + behind;
      const space = { x0: near(field.x0, true) + pocket('left'), x1: near(field.x1, false) - pocket('right'), y0: y0 + behind, y1, z0: low, z1: high };
      const laid = layInside(cell.inside, space, t);
      for (const s of laid.shelves) shelf(s.x0, s.x1, s.z, s.back ? back : behind);
      for (const d of laid.dividers)
        panels.push({
          name: 'divider',
          board: 'carcass',
          min: v(d.x, y0 + behind, d.z0),
          max: v(d.x + t, y1, d.z1),
          thin: 'x',
          grain: 'z',
          edged: ['front'],
          grooves: [],
        });
      out.push(...laid.fields.map((f) => ({ ...f, cell: { row, column } })));
      continue;
    }
    const count = isDrawn(cell) || !HELD.has(cell.kind) ? 0 : cell.shelves;
    const each = (high - low - count * t) / (count + 1);
    if (each < LOWEST_SHELF) continue;
    for (let k = 1; k <= count; k++)
      shelf(
        near(field.x0, true) + pocket('left'),
        near(field.x1, false) - pocket('right'),
        low + k * each + (k - 1) * t,
        cell.kind === 'open' ? 0 : setback + behind,
      );
  }
  return out;
}

const box = ({ min, max }: { min: Vec3; max: Vec3 }): number => (max.x - min.x) * (max.y - min.y) * (max.z - min.z);

/** Volume of what a panel is, less its grooves and its notch, m³. */
export function panelVolume(panel: Panel): number {
  const notch = panel.notch ? panel.notch.deep * panel.notch.high * (panel.max.x - panel.min.x) : 0;
  return box(panel) - panel.grooves.reduce((sum, g) => sum + box(g), 0) - notch;
}

/** A line of a cutting list: equal panels are one line. Sizes are of the board before it is edged, metres. */
export interface Cut {
  name: Panel['name'];
  board: Board;
  /** Along the grain. */
  length: number;
  width: number;
  thickness: number;
  /** Length of edging on it, metres. */
  edging: number;
  count: number;
  /** It is cut to a shape from a board of these sizes. */
  shaped?: true;
}

const AXES: readonly Axis[] = ['x', 'y', 'z'];

/** The direction an edge looks to, by its name. */
const EDGE_AXIS: Readonly<Record<Panel['edged'][number], Axis>> = { left: 'x', right: 'x', front: 'y', back: 'y', up: 'z', down: 'z' };

/**
 * The panels of units as a cutting list: every board with its sizes less edging, along and across its grain.
 *
 * @param edging thickness, metres
 * @param shaped boards that are cut to a shape, as lines of their own
 */
export function cuttingList(panels: readonly Panel[], edging: number, shaped: readonly Cut[] = []): Cut[] {
  const lines = new Map<string, Cut>();
  const add = (cut: Cut): void => {
    const key = [cut.name, cut.board, cut.shaped ?? '', ...[cut.length, cut.width, cut.thickness, cut.edging].map((x) => Math.round(x * 1e6))].join();
    const known = lines.get(key);
    if (known) known.count += cut.count;
    else lines.set(key, { ...cut });
  };
  for (const { name, board, min, max, thin, grain, edged, shaped: cut } of panels) {
    const across = AXES.find((a) => a !== thin && a !== grain)!;
    const size = (axis: Axis): number => max[axis] - min[axis];
    const less = (axis: Axis): number => size(axis) - edging * edged.filter((e) => EDGE_AXIS[e] === axis).length;
    const banded = edged.reduce((sum, e) => sum + size(AXES.find((a) => a !== thin && a !== EDGE_AXIS[e])!), 0);
    add({ name, board, length: less(grain), width: less(across), thickness: size(thin), edging: banded, count: 1, ...(cut ? { shaped: true as const } : {}) });
  }
  shaped.forEach(add);
  return [...lines.values()];
}
