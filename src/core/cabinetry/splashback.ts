import type { Patch } from '../project/schema';
import { faceS } from '../shell/wall-face';
import type { ShellModel } from '../shell/model';
import { NEAR } from '../units/tolerance';
import { fittingsIn, wallFoot } from './assemble';
import type { DerivedRun } from './derive';
import type { Stretch } from './leg';
import { sideOf } from './sides';

/** Lower ones are none, metres. */
const LEAST = 0.05;

/** Between two heights along a stretch of a leg, metres above the floor of the level. */
interface Field extends Stretch {
  leg: number;
  base: number;
  top: number;
}

/** Where walls are seen between the worktop of a run and what hangs above it: up to wall units, and on up to hoods. */
export function splashFields({ run, look, worktop, units, step }: DerivedRun): Field[] {
  const { made } = run;
  const base = step + made.plinth + made.base.height + made.worktop.thickness + run.upstand;
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
    const id = `${derived.id.slice(0, 60)}-splash-${i}`;
    const known = Object.hasOwn(before, id) ? before[id] : null;
    return [
      {
        id,
        name: known?.name ?? `Splashback, ${derived.run.name}`.slice(0, 120),
        order: known?.order ?? order + 1 + i,
        finish: known?.finish ?? finish,
        panels: known?.panels ?? null,
        on: { kind: 'wall', room: leg.room, wall: leg.wall, side: leg.side },
        shape: { kind: 'rectangle', at: faceS(side, (from + to) / 2), base, width: to - from, height: top - base },
      },
    ];
  });
}
