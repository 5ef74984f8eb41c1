import { regionArea } from '../geometry/polygon';
import { layBoards, SAW, SHEETS } from '../cabinetry/boards';
import { cuttingList, type Board, type Cut, type Panel } from '../cabinetry/carcass';
import { cornerCell, fittingsIn, followsCorner, frontOf, ownFootprint, type AssembledUnit } from '../cabinetry/assemble';
import { cornerBoards, cornerCuts } from '../cabinetry/corner';
import { isWithoutFronts } from '../cabinetry/fittings';
import { lengthOf } from '../cabinetry/trim';
import { panelsUnder } from '../cabinetry/under-roof';
import { unitCarcass } from '../cabinetry/unit';
import { finishedUnit, type DerivedRun } from '../cabinetry/derive';
import { finishIn } from '../finishes/store';
import { handlesOn, leavesOf } from './fronts';
import { derivedOf, type Model } from '../model/model';
import { finishedPart } from '../project/kinds';
import type { Project } from '../project/schema';
import type { FrontStyle } from '../project/schema/cabinets';

/** One unit of a run. SI units. */
export interface CabinetRow {
  id: string;
  run: string;
  /** Its number along its run, as in the plan. */
  mark: number;
  name: string;
  band: string;
  width: number;
  height: number;
  depth: number;
  /** "3 drawers", "pair of doors", "open". */
  front: string;
  handles: number;
  finish: string;
  /** What is built into it. */
  fittings: string;
  /** In the money of the project, without what is built into it; what is there already costs nothing. */
  price: number;
}

/** How many of a word: "3 drawers". */
const counted = (n: number, one: string, many = `${one}s`): string | null => (n === 0 ? null : n === 1 ? one : `${n} ${many}`);

/** What closes a unit, in words. */
function closing(own: AssembledUnit, run: DerivedRun): string {
  if (own.unit.bare) return own.unit.bare;
  const leaves = leavesOf(own, run);
  const of = (what: string): number => leaves.filter((l) => l.what === what).length;
  const doors = leaves.filter((l) => l.moves && !l.drawn);
  const open = !isWithoutFronts(own.unit) && (followsCorner(own) ? !leaves.length : frontOf(own, run.run.made).cells.some((c) => !c.leaves.length));
  return [
    counted(leaves.filter((l) => l.drawn).length, 'drawer'),
    doors.length === 1 && doors[0].hand ? `door ${doors[0].hand}` : counted(doors.length, 'door'),
    counted(of('dummy front'), 'dummy front'),
    counted(of('panel'), 'panel'),
    open ? 'open' : null,
  ]
    .filter(Boolean)
    .join(', ');
}

/** The finish of a part of a unit: its own, that of its run, or what the kind begins with. */
const finishOf = (project: Project, own: AssembledUnit, run: DerivedRun, part: string): string =>
  finishIn(project, finishedPart('cabinets', finishedUnit(run, own.unit), part, project).finish).name;

/** What making a unit costs, invented: its boards and fronts by the square metre, what moves by the piece. */
const MAKING = { each: 34, board: 46, front: 150, drawer: 39, door: 14, handle: 9 } as const;

/** By how much fronts cost more than flat ones. */
const FORM: Readonly<Record<FrontStyle, number>> = { flat: 1, framed: 1.35, beaded: 1.6, boarded: 1.3, reeded: 1.5, louvred: 1.9, glazed: 1.5 };

/** What a unit costs without what is built into it, to five. */
export function priceOfUnit(own: AssembledUnit, run: DerivedRun): number {
  const { unit } = own;
  if (unit.bare === 'space' || (isWithoutFronts(unit) && !unit.bare)) return 0;
  if (unit.bare) return 20;
  const cuts = followsCorner(own) ? cuttingList([], 0, shapedBoards(own, run)) : cuttingList(boardsOf(own, run), 0);
  const boards = cuts.reduce((sum, c) => sum + c.length * c.width * c.count, 0);
  const leaves = leavesOf(own, run);
  const fronts = leaves.reduce((sum, { width, height }) => sum + width * height, 0) * FORM[own.look.fronts];
  const drawn = leaves.filter((l) => l.drawn).length;
  const moves = leaves.filter((l) => l.moves).length;
  const whole =
    MAKING.each + boards * MAKING.board + fronts * MAKING.front + drawn * MAKING.drawer + (moves - drawn) * MAKING.door + handlesOn(own, run) * MAKING.handle;
  return Math.round(whole / 5) * 5;
}

/** Every unit of every run, from the left. */
export function cabinetSchedule(model: Model): CabinetRow[] {
  return derivedOf(model, 'runs').flatMap((run) =>
    run.units.map((own, i): CabinetRow => {
      const { unit, size } = own;
      return {
        id: unit.id,
        run: run.run.name,
        mark: i + 1,
        name: unit.name,
        band: unit.band,
        ...size,
        front: closing(own, run),
        handles: handlesOn(own, run),
        finish: unit.bare === 'space' ? '' : finishOf(model.project, own, run, 'fronts'),
        fittings: fittingsIn(own, run.run.made)
          .map((f) => f.item.name.toLowerCase())
          .join(', '),
        price: run.run.status === 'new' ? priceOfUnit(own, run) : 0,
      };
    }),
  );
}

/** The worktop of a run, and what runs along it. SI units. */
export interface WorktopRow {
  id: string;
  run: string;
  /** Along its legs, at the wall. */
  length: number;
  area: number;
  thickness: number;
  /** Joints between slabs, none nearer to a cut-out than is good, and at corners. */
  joints: number;
  slabs: number;
  /** Its longest slab. */
  longest: number;
  /** Openings for sinks, hobs and taps. */
  cutOuts: number;
  plinth: number;
  cornice: number;
  pelmet: number;
  /** End panels, and backs of what stands free. */
  panels: number;
  finish: string;
}

/** Worktops and plinths, run by run. */
export function worktopSchedule(model: Model): WorktopRow[] {
  return derivedOf(model, 'runs').flatMap((run): WorktopRow[] => {
    const { worktop, run: own } = run;
    const length = worktop.stretches.reduce((sum, s) => sum + s.to - s.from, 0);
    if (!run.units.length) return [];
    return [
      {
        id: own.id,
        run: own.name,
        length,
        area: [...worktop.regions, ...worktop.raised].reduce((sum, r) => sum + regionArea(r), 0),
        thickness: own.made.worktop.thickness,
        joints: worktop.joints.length,
        slabs: worktop.slabs.length + worktop.raised.length,
        longest: Math.max(0, ...worktop.slabs.map((s) => s.length)),
        cutOuts: worktop.regions.reduce((sum, r) => sum + r.holes.length, 0),
        plinth: run.units.filter((u) => u.unit.band !== 'wall' && u.unit.bare !== 'space').reduce((sum, u) => sum + u.placed.width, 0),
        cornice: run.look.cornices.length * run.trim.cornices.reduce((sum, e) => sum + lengthOf(e), 0),
        pelmet: run.trim.pelmets.reduce((sum, e) => sum + lengthOf(e), 0),
        panels: run.trim.panels.length,
        finish: finishIn(model.project, finishedPart('runs', own, 'worktop', model.project).finish).name,
      },
    ];
  });
}

/** Boards of one size, of all units. SI units. */
export interface PanelRow extends Omit<Cut, 'board' | 'shaped'> {
  id: string;
  board: string;
  /** Of those that are not cut square. */
  shape: string;
}

/** What a board is called. */
const BOARDS: Readonly<Record<Board, string>> = { carcass: 'carcass board', back: 'back board', frame: 'timber of the frame' };

/** The boards of a corner unit that follows its legs, some of which are cut to shapes. */
const shapedBoards = (own: AssembledUnit, { run: { made } }: DerivedRun): Cut[] =>
  cornerCuts(cornerBoards(ownFootprint(own.placed), own.size.height, cornerCell(own), made), made);

const shapedOf = (run: DerivedRun): Cut[] => run.units.filter((u) => !u.unit.bare && followsCorner(u)).flatMap((u) => shapedBoards(u, run));

/** The boards of the carcass of a unit that follows no corner, as they are cut to the roof over it. */
const boardsOf = (own: AssembledUnit, { run: { made } }: DerivedRun): Panel[] => {
  const { unit, size } = own;
  const { panels } = unitCarcass(unit, size, made, frontOf(own, made), fittingsIn(own, made));
  return panelsUnder(panels, own, made);
};

/** The boards of the carcasses of a run, but for corner units. */
const panelsOf = (run: DerivedRun): Panel[] => run.units.filter((u) => !u.unit.bare && !followsCorner(u)).flatMap((u) => boardsOf(u, run));

/** The cutting list of all runs: boards by what they are cut from and their sizes less edging. */
export function panelSchedule(model: Model): PanelRow[] {
  return derivedOf(model, 'runs').flatMap((run) =>
    cuttingList(panelsOf(run), run.run.made.edging, shapedOf(run))
      .sort((a, b) => a.board.localeCompare(b.board) || b.thickness - a.thickness || b.length - a.length || b.width - a.width)
      .map(({ shaped, ...cut }): PanelRow => ({ ...cut, id: run.id, board: BOARDS[cut.board], shape: shaped ? 'cut to shape' : '' })),
  );
}

/** Sheets of one kind and thickness that a run takes. SI units, waste as a share of them. */
export interface BoardRow {
  id: string;
  run: string;
  board: string;
  thickness: number;
  panels: number;
  sheets: number;
  waste: number;
  /** Panels larger than a sheet: they are on none. */
  over: number;
}

/** How many sheets the panels of each run are cut from, laid so that a panel saw can cut them, and how much of them is left over. */
export function boardSchedule(model: Model): BoardRow[] {
  return derivedOf(model, 'runs').flatMap((run) => {
    const kinds = new Map<string, Cut[]>();
    for (const cut of cuttingList(panelsOf(run), run.run.made.edging, shapedOf(run))) {
      if (cut.board === 'frame') continue;
      const key = `${cut.board} ${cut.thickness}`;
      kinds.set(key, [...(kinds.get(key) ?? []), cut]);
    }
    return [...kinds.values()].map((cuts): BoardRow => {
      const laid = layBoards(
        cuts.map(({ length, width, count }) => ({ length, width, count, turns: false })),
        SHEETS[model.project.units],
        SAW,
      );
      const { board, thickness } = cuts[0];
      return {
        id: run.id,
        run: run.run.name,
        board: BOARDS[board],
        thickness,
        panels: cuts.reduce((sum, cut) => sum + cut.count, 0),
        sheets: laid.sheets.length,
        waste: laid.sheets.length ? 1 - laid.area.wanted / laid.area.sheets : 0,
        over: laid.tooLarge.reduce((sum, of) => sum + cuts[of].count, 0),
      };
    });
  });
}
