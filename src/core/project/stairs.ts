import { isSimple, tidyRing, union } from '../geometry/polygon';
import type { Region, Ring } from '../geometry/region';
import { Polyline } from '../geometry/polyline';
import { add, rotate } from '../geometry/vec';
import { DomainError } from './errors';
import { levelBelow } from './levels';
import { DEFAULTS, type Guard, type Project, type Stair } from './schema';
import { noseOf, spiralCentre, stairLayout, stairToPlan, withNose, type StairLayout } from './stair-layout';
import { STAIR_PROFILES } from './stair-rules';
import { freeName } from './things';
import { DUST } from '../units/tolerance';

/** What of a stair lies at or above its step `first`, as one outline in its coordinates. */
function upperPart(layout: StairLayout, first: number): Ring {
  const [l, r] = [new Polyline(layout.left.points), new Polyline(layout.right.points)];
  const end = layout.risers.length - 1;
  const ring = tidyRing([...r.between(layout.right.at[first], layout.right.at[end]), ...l.between(layout.left.at[first], layout.left.at[end]).reverse()]);
  const nose = noseOf(l, r, layout.left.at[first], layout.right.at[first], layout.stair.nosing);
  return withNose(ring, layout.risers[first], nose, layout.stair.nosing);
}

const NONE: Region[] = [];

/** Headroom a stair needs, metres. */
export const headroomOf = (stair: Stair): number => {
  const rules = STAIR_PROFILES[stair.profile];
  return stair.form === 'spiral' ? rules.spiral.headroom : rules.headroom;
};

const layouts = new WeakMap<Stair, { levels: object; units: string; layout: StairLayout }>();

/** The layout of a stair, remembered while stair and levels stay the same objects. @throws DomainError `stair.…` */
export function layoutOf(project: Pick<Project, 'levels' | 'units'>, stair: Stair): StairLayout {
  const known = layouts.get(stair);
  if (known && known.levels === project.levels && known.units === project.units) return known.layout;
  const layout = stairLayout(project, stair);
  layouts.set(stair, { levels: project.levels, units: project.units, layout });
  return layout;
}

/** The layout of a stair; null where it cannot be built as things are (its level above was deleted). */
export function tryLayout(project: Pick<Project, 'levels' | 'units'>, stair: Stair): StairLayout | null {
  try {
    return layoutOf(project, stair);
  } catch (error) {
    if (error instanceof DomainError) return null;
    throw error;
  }
}

/**
 * What of the floor above has to be left out over a stair: every step, nosing included, that has less than its headroom
 * below the underside of that floor. In the plan.
 */
export function stairVoid(project: Pick<Project, 'levels' | 'units'>, stair: Stair): Region[] {
  if (stair.void === 'none' || stair.rise !== null) return NONE;
  const layout = tryLayout(project, stair);
  if (!layout) return NONE;
  const underside = project.levels[stair.level].height - stair.z;
  const known = voids.get(layout);
  if (known?.underside === underside) return known.regions;
  const regions = voidOf(layout, underside);
  voids.set(layout, { underside, regions });
  return regions;
}

const voids = new WeakMap<StairLayout, { underside: number; regions: Region[] }>();

function voidOf(layout: StairLayout, underside: number): Region[] {
  const { stair, steps } = layout;
  const needed = headroomOf(stair);
  const first = stair.void === 'whole' ? 0 : steps.findIndex((step) => step.z + needed > underside + DUST);
  if (first < 0) return NONE;
  const plan = (ring: Ring): Region => ({ outer: ring.map((p) => stairToPlan(stair, p)), holes: [] });
  // Steps only rise: all that come after lie in the void too.
  if (stair.form !== 'spiral') {
    const ring = upperPart(layout, first);
    // Flights without a gap between them touch: their steps are joined one by one.
    return isSimple(ring) ? [plan(ring)] : union(steps.slice(first).map((step) => plan(step.tread)));
  }
  const c = stairToPlan(stair, spiralCentre(stair));
  // The column goes through as well.
  const column: Ring = Array.from({ length: 48 }, (_, k) => add(c, rotate({ x: stair.column + 0.005, y: 0 }, (k * Math.PI) / 24)));
  return union([...steps.slice(first).map((step) => plan(step.tread)), { outer: column, holes: [] }]);
}

const holes = new WeakMap<object, WeakMap<object, Map<string, { levels: object; holes: Region[] }>>>();

/** The holes in the floor of a level: its voids, and those of the stairs that come up through it. @param project in one phase */
export function holesIn(project: Project, level: string): Region[] {
  let byVoids = holes.get(project.stairs);
  if (!byVoids) holes.set(project.stairs, (byVoids = new WeakMap()));
  let byLevel = byVoids.get(project.voids);
  if (!byLevel) byVoids.set(project.voids, (byLevel = new Map()));
  const known = byLevel.get(level);
  if (known && known.levels === project.levels) return known.holes;
  const below = levelBelow(project, level);
  const found: Region[] = [];
  for (const id in project.voids) if (project.voids[id].level === level) found.push({ outer: project.voids[id].points, holes: [] });
  if (below) for (const id in project.stairs) if (project.stairs[id].level === below.id) found.push(...stairVoid(project, project.stairs[id]));
  const merged = found.length ? union(found) : NONE;
  byLevel.set(level, { levels: project.levels, holes: merged });
  return merged;
}

/** The guard things start with. */
export const newGuard = (infill: Guard['infill'] = 'balusters'): Guard => ({ infill, height: null, posts: true });

/** Height of a guard's handrail, metres. */
export const guardHeight = (guard: Guard, profile: Stair['profile'], where: 'stair' | 'inside' | 'outside'): number => {
  const rules = STAIR_PROFILES[profile];
  return guard.height ?? (where === 'stair' ? Math.max(rules.handrail.min, rules.guard.inside) : rules.guard[where]);
};

/** The profile that goes with the units of a project. */
export const profileOf = (project: Pick<Project, 'units'>): Stair['profile'] => (project.units === 'metric' ? 'A' : 'B');

/** A stair with the sizes stairs have (trade figures). */
export function newStair(project: Pick<Project, 'stairs' | 'units'>, basics: Pick<Stair, 'id' | 'level' | 'x' | 'y'> & Partial<Stair>): Stair {
  const profile = profileOf(project);
  const { tread, nosing, column, well } = DEFAULTS.stair;
  return {
    name: freeName('Stair', project.stairs),
    z: 0,
    rotation: 0,
    form: 'straight',
    turn: 'left',
    corners: 'landing',
    width: Math.max(DEFAULTS.stair.width, STAIR_PROFILES[profile].width),
    rise: null,
    profile,
    risers: null,
    going: null,
    space: null,
    first: null,
    second: null,
    well,
    column,
    build: 'closed',
    open: false,
    tread,
    nosing,
    left: newGuard(),
    right: newGuard(),
    above: newGuard(),
    void: 'least',
    status: 'new',
    finishes: {},
    ...basics,
  };
}

/** Refuses a stair that cannot be built. @throws DomainError `stair.…` */
export function checkStair(project: Project, stair: Stair): void {
  stairLayout(project, stair);
}
