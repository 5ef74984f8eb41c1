import { fittingsIn, followsCorner, frontOf, ownFootprint, type AssembledUnit } from '../cabinetry/assemble';
import { cornerLeaves } from '../cabinetry/corner';
import { finishedUnit, type DerivedRun } from '../cabinetry/derive';
import { isWithoutFronts } from '../cabinetry/fittings';
import { isDrawn } from '../cabinetry/front';
import { handlesIn, isFixed } from '../cabinetry/handles';
import { runnerFor, unitCarcass } from '../cabinetry/unit';
import { finishIn } from '../finishes/store';
import { derivedOf, type Model } from '../model/model';
import { finishedPart } from '../project/kinds';
import type { Cell, Construction, Hand } from '../project/schema/cabinets';

/** A leaf of a unit: a door, a drawer front, a panel. SI units. */
interface Leaf {
  what: string;
  hand: Hand | null;
  drawn: boolean;
  moves: boolean;
  /** It slides into its unit once it stands open. */
  pocket?: true;
  width: number;
  height: number;
}

const WORDS: Readonly<Partial<Record<Cell['kind'], string>>> = { panel: 'panel', dummy: 'dummy front', glazed: 'glazed door' };

/** All leaves of a unit, from its upper left. */
export function leavesOf(own: AssembledUnit, { run: { made } }: DerivedRun): Leaf[] {
  const { unit, placed, size } = own;
  if (unit.bare === 'space' || isWithoutFronts(unit)) return [];
  if (unit.bare) return [{ what: 'filler', hand: null, drawn: false, moves: false, width: size.width, height: size.height }];
  if (followsCorner(own)) {
    const cell = unit.front[0]?.cells[0];
    if (!cell || cell.kind === 'open') return [];
    return cornerLeaves(ownFootprint(placed), size.height, unit.band, made).map((leaf): Leaf => ({
      what: WORDS[cell.kind] ?? 'corner door',
      hand: cell.hand ?? 'right',
      drawn: false,
      moves: true,
      width: leaf.x1 - leaf.x0,
      height: leaf.z1 - leaf.z0,
    }));
  }
  return frontOf(own, made).cells.flatMap(({ cell, leaves }) => {
    const drawn = isDrawn(cell);
    const what = WORDS[cell.kind] ?? (drawn ? 'drawer front' : 'door');
    return leaves.map((leaf): Leaf => ({
      what,
      hand: drawn ? null : leaf.hand,
      drawn,
      moves: cell.kind !== 'panel' && cell.kind !== 'dummy',
      ...(leaf.pocket ? { pocket: true as const } : {}),
      width: leaf.x1 - leaf.x0,
      height: leaf.z1 - leaf.z0,
    }));
  });
}

/** How many handles a unit has, dummy fronts too; one takes hold of both leaves of a corner unit at once. */
export function handlesOn(own: AssembledUnit, run: DerivedRun): number {
  const { look, unit } = own;
  if (look.handles === 'none') return 0;
  const moving = leavesOf(own, run).filter((l) => l.moves).length;
  if (followsCorner(own)) return Math.min(1, moving);
  if (!isFixed(look.handles) || isWithoutFronts(unit)) return moving;
  return frontOf(own, run.run.made).cells.reduce((sum, c) => sum + handlesIn(c, unit.band, look).length, 0);
}

/** Fronts of one unit that are alike. SI units. */
export interface FrontRow {
  /** Of their unit. */
  id: string;
  run: string;
  mark: number;
  unit: string;
  what: string;
  hand: string;
  count: number;
  width: number;
  height: number;
  thickness: number;
  style: string;
  handle: string;
  finish: string;
}

/** Every front of every run, as it is ordered: those of one unit that are alike are one line. */
export function frontSchedule(model: Model): FrontRow[] {
  return derivedOf(model, 'runs').flatMap((run) =>
    run.units.flatMap((own, i): FrontRow[] => {
      const { unit } = own;
      const finish = finishIn(model.project, finishedPart('cabinets', finishedUnit(run, unit), 'fronts', model.project).finish).name;
      const rows = new Map<string, FrontRow>();
      for (const { what, hand, moves, width, height } of leavesOf(own, run)) {
        const key = [what, hand, Math.round(width * 1e5), Math.round(height * 1e5)].join();
        const known = rows.get(key);
        if (known) known.count++;
        else
          rows.set(key, {
            id: unit.id,
            run: run.run.name,
            mark: i + 1,
            unit: unit.name,
            what,
            hand: hand ?? '',
            count: 1,
            width,
            height,
            thickness: run.run.made.front,
            style: own.look.fronts,
            handle: moves && own.look.handles !== 'none' ? own.look.handles : '',
            finish,
          });
      }
      return [...rows.values()];
    }),
  );
}

/** Hinges of a door by its height, metres: as many as hold its weight. */
const HINGES: readonly (readonly [upTo: number, count: number])[] = [
  [0.9, 2],
  [1.6, 3],
  [2, 4],
  [Infinity, 5],
];

export const hingesFor = (height: number): number => HINGES.find(([upTo]) => height <= upTo)![1];

/** Metal of a run that is bought by the piece. */
export interface IronmongeryRow {
  id: string;
  run: string;
  what: string;
  count: number;
}

/** Supports of a shelf, and legs of a unit that stands on them. */
const PER = { shelf: 4, legs: 4 } as const;

/** The hinge doors of a run hang at: how far its arm is cranked follows from how they lie. */
const hingeOf = ({ lies, build }: Construction): string =>
  lies === 'inset' ? (build === 'in-frame' ? 'butt hinge' : 'hinge, inset') : lies === 'half' ? 'hinge, half laid on' : 'hinge';

/** Handles, hinges, runners, stays, shelf supports and legs of each run. */
export function ironmongerySchedule(model: Model): IronmongeryRow[] {
  return derivedOf(model, 'runs').flatMap((run) => {
    const { made } = run.run;
    const counts = new Map<string, number>();
    const add = (what: string, count: number): void => void (count && counts.set(what, (counts.get(what) ?? 0) + count));
    for (const own of run.units) {
      const { unit, size } = own;
      for (const { hand, drawn, moves, height, pocket } of leavesOf(own, run)) {
        if (!moves) continue;
        if (drawn) add(`pair of runners, ${Math.round(runnerFor(size.depth - made.void - made.back) * 1000)}`, 1);
        else if (pocket) add('set of pocket gear', 1);
        else if (hand === 'left' || hand === 'right') add(hingeOf(made), hingesFor(height));
        else if (hand === 'up' || hand === 'down') add('stay of a flap', 2);
        else if (hand === 'sliding') add('set of sliding gear', 1);
      }
      add(`handle, ${own.look.handles}`, handlesOn(own, run));
      if (unit.bare) continue;
      const panels = followsCorner(own) ? [] : unitCarcass(unit, size, made, frontOf(own, made), fittingsIn(own, made)).panels;
      add('shelf support', PER.shelf * panels.filter((p) => p.name === 'shelf' && p.max.y - p.min.y < size.depth - made.board).length);
      const onLegs = made.build === 'frameless' || made.build === 'in-frame';
      if (unit.band !== 'wall' && onLegs && made.stands !== 'hung' && (panels.length || followsCorner(own)))
        add(made.stands === 'feet' ? 'foot' : 'leg', PER.legs);
      if ((unit.band === 'wall' || made.stands === 'hung') && (panels.length || followsCorner(own))) add('hanger', 2);
    }
    return [...counts].map(([what, count]): IronmongeryRow => ({ id: run.id, run: run.run.name, what, count })).sort((a, b) => a.what.localeCompare(b.what));
  });
}
