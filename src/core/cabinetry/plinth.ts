import { clipRegions } from '../geometry/clipping';
import { prism } from '../geometry/extrude';
import { MeshBuilder } from '../geometry/mesh';
import { withoutSpikes } from '../geometry/polygon';
import type { Region, Ring } from '../geometry/region';
import type { Cabinet, Construction } from '../project/schema/cabinets';
import type { Made } from '../stock/types';
import { wantsAir } from './fittings';
import { coverOf, straight, type BackLine, type PlacedUnit } from './run';

/** Thickness of a plinth board, metres. */
export const PLINTH = 0.016;

/**
 * Where a plinth stands below units: a strip of a thickness along their fronts, set back behind them, round corners as the
 * fronts go.
 *
 * @param back how far behind the fronts of the carcasses it stands, metres
 */
export function plinthOf(legs: readonly BackLine[], over: readonly PlacedUnit[], back: number, thickness: number): Region[] {
  const cover = (by: number): Region[] => {
    const rings = over.map((u): Region => ({ outer: coverOf(u, legs, u.depth - by), holes: [] }));
    return rings.length ? clipRegions('union', rings, []) : [];
  };
  return withoutSpikes(clipRegions('difference', cover(back), cover(back + thickness)));
}

/** A grille in a plinth: where it goes through it in the plan, and between which heights above the floor, metres. */
export interface Grille {
  ring: Ring;
  z0: number;
  z1: number;
}

/** Grilles: how far from the ends of their unit, how wide and high at most, what is left of the plinth below and above, metres. */
const GRILLE = { end: 0.05, widest: 0.5, least: 0.1, highest: 0.09, edge: 0.02 } as const;

/** The grille in the plinth below a unit that wants air; null where it wants none, or there is no room for one. */
export function grilleBelow(placed: PlacedUnit, unit: Pick<Cabinet, 'fittings' | 'backless'>, legs: readonly BackLine[], made: Construction): Grille | null {
  if ((!unit.backless && !wantsAir(unit)) || placed.corner) return null;
  const { from, to } = placed.stretch;
  const wide = Math.min(GRILLE.widest, to - from - 2 * GRILLE.end);
  const high = Math.min(GRILLE.highest, made.plinth - 2 * GRILLE.edge);
  if (wide < GRILLE.least || high < GRILLE.edge) return null;
  const middle = (from + to) / 2;
  const face = placed.depth - made.toe;
  // It goes through the board, which stands between its back and its face.
  const [near, far] = [
    straight(legs[placed.leg], { from: middle - wide / 2, to: middle + wide / 2 }, face - PLINTH),
    straight(legs[placed.leg], { from: middle - wide / 2, to: middle + wide / 2 }, face),
  ];
  return { ring: [near[1], far[1], far[2], near[2]], z0: (made.plinth - high) / 2, z1: (made.plinth + high) / 2 };
}

/** Bars of a grille: how thick, and from one to the next, metres. */
const BAR = { thick: 0.002, step: 0.009 } as const;

/** The boards of a plinth, and the bars of the grilles in it. @param top of it above the floor, metres */
export function plinthParts(plinth: readonly Region[], grilles: readonly Grille[], top: number): Made[] {
  if (!plinth.length) return [];
  if (!grilles.length) return [{ part: 'plinth', mesh: prism(plinth, 0, top) }];
  const gaps = grilles.map((g): Region => ({ outer: g.ring, holes: [] }));
  // Below and above a grille the board goes on.
  const board = new MeshBuilder().add(prism(clipRegions('difference', plinth, gaps), 0, top));
  const bars = new MeshBuilder();
  grilles.forEach(({ z0, z1 }, i) => {
    const through = clipRegions('intersection', plinth, [gaps[i]]);
    board.add(prism(through, 0, z0)).add(prism(through, z1, top));
    const count = Math.floor((z1 - z0) / BAR.step);
    for (let k = 1; k < count; k++) {
      const z = z0 + ((z1 - z0) * k) / count;
      bars.add(prism(through, z - BAR.thick / 2, z + BAR.thick / 2));
    }
  });
  return [
    { part: 'plinth', mesh: board.build() },
    { part: 'grilles', mesh: bars.build() },
  ];
}
