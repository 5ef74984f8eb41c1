import { newOpening } from '../project/opening-defaults';
import type { Opening, Patch, Project } from '../project/schema';
import { wallThickness } from '../project/wall-line';
import { dot, sub, unit } from '../geometry/vec';
import { faceS } from '../shell/wall-face';
import type { WallSide } from '../shell/wall-types';
import type { ShellModel } from '../shell/model';
import { NEAR } from '../units/tolerance';
import { fittingsIn, wallFoot } from './assemble';
import type { DerivedRun } from './derive';
import type { Stretch } from './leg';
import { lineOf, sideOf } from './sides';

/** Lower ones are none, metres. */
const LEAST = 0.05;

/** Between two heights along a stretch of a leg, metres above the floor of the level. */
interface Field extends Stretch {
  leg: number;
  base: number;
  top: number;
}

/** Where a place on a leg lies along its wall: the leg may begin elsewhere than the side of the wall does. */
function stationOn({ legs }: Pick<DerivedRun, 'legs'>, leg: number, side: WallSide, at: number): number {
  const { from, to } = legs[leg];
  return faceS(side, at + dot(sub(from, lineOf(side).from), unit(sub(to, from))));
}

/** How the ids of the patches of a run’s splashback begin. */
const splashId = ({ id }: Pick<DerivedRun, 'id'>): string => `${id.slice(0, 60)}-splash-`;

/** Where the splashback of a run begins, above the floor of the level, metres. */
const splashBase = ({ run: { made, upstand }, step }: Pick<DerivedRun, 'run' | 'step'>): number =>
  step + made.plinth + made.base.height + made.worktop.thickness + upstand;

/** Where walls are seen between the worktop of a run and what hangs above it: up to wall units, and on up to hoods. */
export function splashFields({ run, look, worktop, units, step }: DerivedRun): Field[] {
  const { made } = run;
  const base = splashBase({ run, step });
  const foot = step + wallFoot(made) - look.pelmet;
  const out: Field[] = [];
  for (const { leg, from, to } of worktop.stretches) {
    if (run.legs[leg]?.kind !== 'wall') continue;
    out.push({ leg, from, to, base, top: foot });
    for (const own of units) {
      const hood = fittingsIn(own, made).find((f) => f.how === 'hangs');
      if (!hood || own.placed.leg !== leg) continue;
      const low = Math.max(from, own.placed.stretch.from);
      const high = Math.min(to, own.placed.stretch.to);
      if (high - low > LEAST) out.push({ leg, from: low, to: high, base: foot, top: step + own.matrix[14] + hood.at.z });
    }
  }
  return out.filter((f) => f.top - f.base > LEAST - NEAR);
}

/**
 * The splashback of a run, as patches of the walls it stands along: openings cut them. Those it had before are found again, with
 * their finishes.
 *
 * @param before the patches of the project
 * @param finish of those that are new
 */
export function splashbacksOf(derived: DerivedRun, { walls }: Pick<ShellModel, 'walls'>, before: Readonly<Record<string, Patch>>, finish: string): Patch[] {
  const order = Math.max(0, ...Object.values(before).map((p) => p.order));
  return splashFields(derived).flatMap(({ leg: at, from, to, base, top }, i): Patch[] => {
    const leg = derived.run.legs[at];
    const side = leg.kind === 'wall' ? sideOf(leg, walls) : null;
    if (leg.kind !== 'wall' || !side) return [];
    const id = `${splashId(derived)}${i}`;
    const known = Object.hasOwn(before, id) ? before[id] : null;
    return [
      {
        id,
        name: known?.name ?? `Splashback, ${derived.run.name}`.slice(0, 120),
        order: known?.order ?? order + 1 + i,
        finish: known?.finish ?? finish,
        panels: known?.panels ?? null,
        on: { kind: 'wall', room: leg.room, wall: leg.wall, side: leg.side },
        shape: { kind: 'rectangle', at: stationOn(derived, at, side, (from + to) / 2), base, width: to - from, height: top - base },
      },
    ];
  });
}

/** How far a niche stays from the edges of its splashback, and how large it is made at most, metres. */
const NICHE = { edge: 0.05, width: 0.9, height: 0.36, least: 0.1, deep: 0.09, wall: 0.02 } as const;

/**
 * A niche in the splashback of a run, lined as that is tiled: over the hob, else over the sink, else in the middle of the longest
 * stretch; as large as is usual and as there is room, as deep as its wall lets it be.
 *
 * @returns the niche, or one sentence on why there is no place for one
 */
export function nicheIn(derived: DerivedRun, { walls }: Pick<ShellModel, 'walls'>, project: Project, id: string): Opening | string {
  const fields = splashFields(derived).filter((f) => f.base < splashBase(derived) + NEAR && f.top - f.base > NICHE.least + 2 * NICHE.edge);
  if (!fields.length) return 'Between its worktop and what hangs above there is no room for a niche.';
  const over = (word: string): { leg: number; at: number } | null => {
    for (const own of derived.units)
      for (const f of fittingsIn(own, derived.run.made)) if (f.built.word === word) return { leg: own.placed.leg, at: own.placed.stretch.from + f.at.x };
    return null;
  };
  const meant = over('hob') ?? over('range cooker') ?? over('sink');
  const field =
    (meant && fields.find((f) => f.leg === meant.leg && f.from <= meant.at && f.to >= meant.at)) ??
    fields.reduce((best, f) => (f.to - f.from > best.to - best.from ? f : best));
  const leg = derived.run.legs[field.leg];
  const side = leg.kind === 'wall' ? sideOf(leg, walls) : null;
  if (leg.kind !== 'wall' || !side) return 'It stands along no wall.';
  const room = field.to - field.from - 2 * NICHE.edge;
  const width = Math.min(NICHE.width, room);
  if (width < NICHE.least) return 'Between its worktop and what hangs above there is no room for a niche.';
  const middle = meant && meant.leg === field.leg ? meant.at : (field.from + field.to) / 2;
  const at = Math.max(field.from + NICHE.edge + width / 2, Math.min(field.to - NICHE.edge - width / 2, middle));
  const height = Math.min(NICHE.height, field.top - field.base - 2 * NICHE.edge);
  const deep = Math.min(NICHE.deep, wallThickness(project, project.walls[leg.wall]) - NICHE.wall);
  if (deep < NICHE.wall) return 'Its wall is too thin for a niche.';
  const patch = Object.values(project.patches).find((p) => p.id.startsWith(splashId(derived)));
  return newOpening(project, {
    id,
    wall: leg.wall,
    kind: 'niche',
    at: stationOn(derived, field.leg, side, at),
    width,
    height,
    sill: (field.base + field.top) / 2 - height / 2,
    depth: deep,
    swing: leg.side,
    status: derived.run.status === 'existing' ? 'existing' : 'new',
    finishes: patch ? { lining: patch.finish } : {},
  });
}
