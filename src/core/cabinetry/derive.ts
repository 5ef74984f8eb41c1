import type { Grain } from '../geometry/grain';
import type { Leaning } from '../geometry/halfspace';
import { multiply, placement, type Matrix } from '../geometry/mesh';
import { within } from '../geometry/shapes';
import { dot, sub, unit, type Vec2 } from '../geometry/vec';
import { profileIn } from '../finishes/profiles';
import { roofsOver, roofsToFollow, type RoofPlane, type RoofShape } from '../project/roofs';
import { cornersOf, roomOfRun } from '../project/runs';
import { clearHeight } from '../shell/rooms';
import type { Cabinet, JoineryStyle, Leg, Run, RunLook } from '../project/schema/cabinets';
import type { Project } from '../project/schema';
import type { Owner } from '../model/body';
import type { Deriving, Putting } from '../model/deriving';
import { joinParts, type MadePart } from '../stock/joined';
import { FINE, LIGHT } from '../stock/stock';
import type { Made } from '../stock/types';
import { assembleRun, likeness, runParts, unitParts, type AssembledRun } from './assemble';
import { firstFinish } from './fittings';
import type { BackLine } from './run';
import { asLongAs, standingLines, type Obstacle } from './sides';
import { belowRoofs, cutsOfRoofs } from './under-roof';
import { finishesOf, lookOf } from '../project/joinery';
import { styleIn } from './styles';

/** A run with everything that follows from it. */
export interface DerivedRun extends AssembledRun {
  id: string;
  run: Run;
  /** The lines its units stand along, in the plan. */
  legs: BackLine[];
  /** By how much the floor of its room lies above that of its level, metres. */
  step: number;
  /** Height of the floor it stands on, metres. */
  ground: number;
  /** How it looks, as its style says and as is chosen apart. */
  look: RunLook;
  /** The joinery style it is made in; null: none. */
  style: JoineryStyle | null;
  /** Height of the ceiling of its room above the floor it stands on, metres; null where there is none, or a roof. */
  ceiling: number | null;
  /** What stands out from its walls behind its units. */
  obstacles: readonly Obstacle[];
  /** Planes of the roofs its units are cut to, in the plan, above the floor of its room. */
  over: readonly Leaning[];
  /** The sections of its cornices. */
  sections: readonly (readonly Vec2[])[];
}

/** A leg with the middles of the openings of its wall that units keep to. */
function withOpenings(line: BackLine, leg: Leg, units: readonly Cabinet[], { openings, walls, corners }: Project): BackLine {
  if (leg.kind !== 'wall') return line;
  const middles: Record<string, number> = {};
  for (const { middle } of units) {
    const opening = middle?.of === 'opening' ? openings[middle.id] : undefined;
    if (opening?.wall !== leg.wall) continue;
    const { start, end } = walls[leg.wall];
    const [a, b] = [corners[start], corners[end]];
    const along = unit(sub(b, a));
    const at = { x: a.x + along.x * opening.at, y: a.y + along.y * opening.at };
    middles[opening.id] = dot(sub(at, line.from), unit(sub(line.to, line.from)));
  }
  return Object.keys(middles).length ? { ...line, middles } : line;
}

/** The roofs over a run whose room is open to them; none where it has a ceiling of its own. */
function roofsOverRun(run: Run, project: Project): readonly RoofShape[] {
  const room = project.rooms[roomOfRun(run) ?? ''];
  return room?.cover.kind === 'roof' ? roofsToFollow(roofsOver(project, run.level)) : [];
}

/** All that units are cut to, as one word. */
const roofsKey = (roofs: readonly RoofShape[]): string => JSON.stringify(roofs.map((r) => r.under));

/** A run whose units are cut to the roofs over them. */
function underRoofs(laid: AssembledRun, roofs: readonly RoofShape[], made: Run['made'], step: number): AssembledRun & Pick<DerivedRun, 'over'> {
  if (!roofs.length) return { ...laid, over: [] };
  const over = new Map<RoofPlane, Leaning>();
  const units = laid.units.map((own) => {
    const cuts = cutsOfRoofs(own, roofs, made, step);
    for (const { of, whole } of cuts) over.set(of, whole);
    return { ...own, cut: cuts.map((c) => c.own) };
  });
  return { ...laid, units, over: [...over.values()] };
}

/** A run as it is laid out; null where a wall it stands along is not there. */
export function deriveRunIn(run: Run, { memo, project, level, walls }: Deriving): DerivedRun | null {
  const units = Object.values(project.cabinets).filter((u) => u.run === run.id);
  const standing = standingLines(run, cornersOf(units), walls, project.openings);
  const lines = asLongAs(units, run, standing?.lines ?? null);
  if (!lines || !standing) return null;
  const { obstacles } = standing;
  const legs = lines.map((line, i) => withOpenings(line, run.legs[i], units, project));
  const where = JSON.stringify([legs, obstacles]);
  const style = styleIn(project, run.style);
  const look = lookOf(run, style);
  const step = project.rooms[roomOfRun(run) ?? '']?.step ?? 0;
  const ground = level!.elevation + step;
  const roofs = roofsOverRun(run, project);
  const room = project.rooms[roomOfRun(run) ?? ''];
  const ceiling = room && room.cover.kind !== 'roof' ? clearHeight(room, level!) : null;
  const profiles = look.cornices.map(({ profile }) => profileIn(project, profile));
  return memo.get('run', run.id, [run, style, where, step, ground, ceiling, roofsKey(roofs), ...profiles, ...units], () => ({
    id: run.id,
    run,
    legs,
    step,
    ground,
    look,
    style,
    ceiling,
    obstacles,
    sections: profiles.map((p) => p?.points ?? []),
    ...underRoofs(assembleRun({ ...run, look }, units, legs, ceiling, obstacles), roofs, run.made, step),
  }));
}

/** A unit with the finishes of all its parts that somebody has chosen: for itself, for its run, in its style. */
export const finishedUnit = ({ run, style }: Pick<DerivedRun, 'run' | 'style'>, unit: Cabinet): Cabinet => ({
  ...unit,
  finishes: { ...finishesOf(run, style), ...unit.finishes },
});

const UPRIGHT = { x: 0, y: 0, z: 1 } as const;

/** Which way the grain of a part runs: up along panels and flat fronts, on from one to the next; along each board of what is joined. */
const grainOf = (part: string, { frame }: Run['made'], flat: boolean): Grain =>
  part === 'panels' || (part === 'fronts' && flat && frame === 0) ? UPRIGHT : 'length';

/** Puts the parts of a run and of its units: those of one name in one mesh, what opens as far open as its unit says. */
export function putRun(derived: DerivedRun, { memo, owner, parts }: Putting): void {
  const { id, run, units, look, style } = derived;
  const finishes = finishesOf(run, style);
  const ground = memo.get('run at', id, [derived.ground], () => placement(0, 0, derived.ground, 0));
  const put = (
    of: Owner & { kind: 'runs' | 'cabinets' },
    thing: { id: string; finishes: Record<string, string> },
    alike: unknown[],
    open: number,
    flat: boolean,
    make: () => Made[],
    first: (part: string) => string | undefined = () => undefined,
  ): void => {
    const made = (off: number): MadePart[] => joinParts(within(off, make), open);
    const light = memo.get('parts of cabinets', of.id, [...alike, open], () => made(LIGHT));
    const fine = memo.get('close parts of cabinets', of.id, [light], () => {
      let own: MadePart[] | undefined;
      return () => (own ??= made(FINE));
    });
    const finished = { ...thing, finishes: { ...finishes, ...thing.finishes } };
    for (const { part, mesh } of light)
      parts.putOf(
        of,
        finished,
        { part, sort: 'cabinet', mesh, grain: grainOf(part, run.made, flat), fine: () => fine().find((p) => p.part === part)!.mesh },
        first(part),
      );
  };
  put({ id, kind: 'runs', level: owner.level, matrix: ground }, run, [derived], 0, false, () =>
    belowRoofs(runParts(derived, { ...run, look }, derived.legs, derived.sections), derived.over),
  );
  for (const own of units) {
    const matrix = memo.get('unit at', own.unit.id, [derived.ground, ...own.matrix], (): Matrix => multiply(ground, own.matrix));
    const alike = likeness(own, run.made);
    const { edges, carcass } = { ...finishes, ...own.unit.finishes };
    const banded = edges !== undefined && edges !== carcass;
    parts.kept('unit put', own.unit.id, [own.unit, style, run.finishes, alike, matrix, owner.level], () => {
      const of = { id: own.unit.id, kind: 'cabinets', level: owner.level, matrix } as const;
      put(
        of,
        own.unit,
        [alike, banded],
        own.unit.open,
        own.look.fronts === 'flat',
        () => unitParts(own, run.made, banded),
        (part) => firstFinish(own.unit.fittings, part),
      );
    });
  }
}
