import { multiply, placement, type Matrix } from '../geometry/mesh';
import { within } from '../geometry/shapes';
import type { Vec2 } from '../geometry/vec';
import { profileIn } from '../finishes/profiles';
import { roomOfRun } from '../project/runs';
import type { Run } from '../project/schema/cabinets';
import type { Owner } from '../model/body';
import type { Deriving, Putting } from '../model/deriving';
import { joinParts, type MadePart } from '../stock/joined';
import { FINE, LIGHT } from '../stock/stock';
import type { Made } from '../stock/types';
import { assembleRun, likeness, runParts, unitParts, type AssembledRun } from './assemble';
import { firstFinish } from './fittings';
import type { BackLine } from './run';
import { asLongAs, backLines } from './sides';

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
  /** The sections of its cornices. */
  sections: readonly (readonly Vec2[])[];
}

/** A run as it is laid out; null where a wall it stands along is not there. */
export function deriveRunIn(run: Run, { memo, project, level, walls }: Deriving): DerivedRun | null {
  const units = Object.values(project.cabinets).filter((u) => u.run === run.id);
  const legs = asLongAs(units, run, backLines(run, walls));
  if (!legs) return null;
  const lines = legs.map(({ from, to }) => `${from.x} ${from.y} ${to.x} ${to.y}`).join(' ');
  const step = project.rooms[roomOfRun(run) ?? '']?.step ?? 0;
  const ground = level!.elevation + step;
  const profiles = run.cornices.map(({ profile }) => profileIn(project, profile));
  return memo.get('run', run.id, [run, lines, step, ground, ...profiles, ...units], () => ({
    id: run.id,
    run,
    legs,
    step,
    ground,
    sections: profiles.map((p) => p?.points ?? []),
    ...assembleRun(run, units, legs),
  }));
}

/** Puts the parts of a run and of its units: those of one name in one mesh, what opens as far open as its unit says. */
export function putRun(derived: DerivedRun, { memo, owner, parts }: Putting): void {
  const { id, run, units } = derived;
  const ground = memo.get('run at', id, [derived.ground], () => placement(0, 0, derived.ground, 0));
  const put = (
    of: Owner & { kind: 'runs' | 'cabinets' },
    thing: { id: string; finishes: Record<string, string> },
    alike: unknown[],
    open: number,
    make: () => Made[],
    first: (part: string) => string | undefined = () => undefined,
  ): void => {
    const made = (off: number): MadePart[] => joinParts(within(off, make), open);
    const light = memo.get('parts of cabinets', of.id, [...alike, open], () => made(LIGHT));
    const fine = memo.get('close parts of cabinets', of.id, [light], () => {
      let own: MadePart[] | undefined;
      return () => (own ??= made(FINE));
    });
    const finished = { ...thing, finishes: { ...run.finishes, ...thing.finishes } };
    for (const { part, mesh } of light)
      parts.putOf(of, finished, { part, sort: 'cabinet', mesh, grain: 'length', fine: () => fine().find((p) => p.part === part)!.mesh }, first(part));
  };
  put({ id, kind: 'runs', level: owner.level, matrix: ground }, run, [derived], 0, () => runParts(derived, run, derived.sections));
  for (const own of units) {
    const matrix = memo.get('unit at', own.unit.id, [derived.ground, ...own.matrix], (): Matrix => multiply(ground, own.matrix));
    const alike = likeness(own, run);
    parts.kept('unit put', own.unit.id, [own.unit, run.finishes, alike, matrix, owner.level], () => {
      const of = { id: own.unit.id, kind: 'cabinets', level: owner.level, matrix } as const;
      put(
        of,
        own.unit,
        [alike],
        own.unit.open,
        () => unitParts(own, run),
        (part) => firstFinish(own.unit.fittings, part),
      );
    });
  }
}
