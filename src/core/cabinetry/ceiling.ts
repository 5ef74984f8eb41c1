import type { Opening } from '../project/schema';
import type { Cabinet, Run } from '../project/schema/cabinets';
import { newCell } from '../project/joinery';
import { micro } from '../units/length';
import { NEAR } from '../units/tolerance';
import { wallFoot } from './assemble';
import type { DerivedRun } from './derive';
import { isWithoutFronts } from './fittings';
import { inOrder } from './line';

/** Lower than this what is added is no row of its own: the fronts below get as much higher, metres. */
const LEAST_ROW = 0.2;

/** What is left under a ceiling that nothing covers, to bring a unit in, metres. */
const EASE = 0.02;

/** Height of the board that closes it, where one does, metres. */
const CLOSED = 0.05;

/**
 * The units of a run stacked up to the ceiling: what hangs and what is tall gets as much higher as there is room under the
 * cornice, and a row of fronts more where that is worth one. Nothing else of it changes.
 *
 * @returns the units, or one sentence on why nothing is changed
 */
export function upToCeiling(
  { run, look, ceiling, sections }: Pick<DerivedRun, 'run' | 'look' | 'ceiling' | 'sections'>,
  all: readonly Cabinet[],
): Cabinet[] | string {
  if (ceiling === null) return 'It stands in no room that has a ceiling of its own.';
  const { made } = run;
  const cornice = Math.max(0, ...look.cornices.map(({ up }, i) => up + Math.max(0, ...(sections[i] ?? []).map((p) => p.y))));
  const top = ceiling - (cornice > 0 ? cornice : run.infill ? CLOSED : EASE);
  let changed = false;
  const units = inOrder(all).map((u): Cabinet => {
    if (u.band === 'base' || u.bare || isWithoutFronts(u)) return u;
    const foot = u.band === 'wall' ? wallFoot(made) : made.plinth;
    const now = u.height ?? made[u.band].height;
    const more = micro(top - foot - now);
    if (more < NEAR) return u;
    changed = true;
    const height = micro(now + more);
    const [first] = u.front;
    // A unit whose rows all have heights would not reach; one that turns has one front.
    if (more < LEAST_ROW || !first || (u.corner !== null && !u.corner.startsWith('blind'))) {
      const stretches = u.front.some((r) => r.height === null);
      return { ...u, height, front: stretches || !first ? u.front : [{ ...first, height: micro((first.height ?? 0) + more) }, ...u.front.slice(1)] };
    }
    const cells = first.cells.map((c) => newCell({ width: c.width, kind: c.kind === 'glazed' ? 'glazed' : 'door' }));
    return { ...u, height, front: [{ height: more, cells }, ...u.front] };
  });
  return changed ? units : 'What hangs and what is tall is as high as its ceiling lets it be.';
}

/** No unit hangs that is lower, metres. */
const LOWEST = 0.2;

/** Something the tops of what hangs can be level with. */
export interface Level {
  id: string;
  text: string;
  /** Above the floor the run stands on, metres. */
  top: number;
}

/** What the tops of hung units can be level with: the tall units of the run, the heads of windows and doors in its walls. */
export function levelsFor({ run, units, step }: Pick<DerivedRun, 'run' | 'units' | 'step'>, openings: Readonly<Record<string, Opening>>): Level[] {
  const tall = units.filter((u) => u.unit.band === 'tall' && !u.unit.bare).map((u) => run.made.plinth + u.size.height);
  const walls = new Set(run.legs.flatMap((l) => (l.kind === 'wall' ? [l.wall] : [])));
  const heads = Object.values(openings).filter((o) => walls.has(o.wall) && o.kind !== 'niche');
  return [
    ...(tall.length ? [{ id: 'tall', text: 'the tall units', top: Math.max(...tall) }] : []),
    ...heads.map((o): Level => ({ id: o.id, text: `the head of ${o.name}`, top: o.sill + o.height - step })),
  ].filter((l) => l.top - wallFoot(run.made) >= LOWEST);
}

/** A run whose hung units are as high as brings their tops to a height above its floor, metres; hoods hang as they did. */
export function levelledTo({ run }: Pick<DerivedRun, 'run'>, all: readonly Cabinet[], top: number): { run: Run; units: Cabinet[] } {
  const height = micro(top - wallFoot(run.made));
  return {
    run: { ...run, made: { ...run.made, wall: { ...run.made.wall, height } } },
    units: inOrder(all).map((u) => (u.band === 'wall' && !isWithoutFronts(u) ? { ...u, height: null } : u)),
  };
}
