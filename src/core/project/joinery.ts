import type { Draft } from 'immer';
import { z } from 'zod';
import { Finish, JoineryStyle, Profile, type Project } from './schema';
import type { Cabinet, Cell, FrontLook, Run, RunLook } from './schema/cabinets';
import { stateOf } from './topology';

/** How far handles are from edges where nobody has said it, metres. */
export const HANDLE_INSET: NonNullable<FrontLook['inset']> = { edge: 0.035, end: 0.1, top: 0.06 };

/** How runs look that are made in no style. */
export const PLAIN_LOOK: RunLook = {
  fronts: 'framed',
  stile: 0.065,
  rail: 0.065,
  panes: { across: 1, up: 1 },
  handles: 'bar',
  grip: null,
  holds: 'reach',
  cornices: [],
  pelmet: 0,
  edge: 'square',
};

/** How a run looks: as its style says, but for what is chosen apart. */
export const lookOf = ({ look }: Pick<Run, 'look'>, style: JoineryStyle | null = null): RunLook => ({ ...PLAIN_LOOK, ...style?.look, ...look });

/** How the fronts of a unit look: as its run’s, but for what is chosen apart. */
export const unitLook = ({ look }: Pick<Cabinet, 'look'>, run: FrontLook): FrontLook => ({ ...run, ...look });

/** Finishes by part of what stands in a run: as its style says, but for what is chosen for it. */
export const finishesOf = ({ finishes }: Pick<Run, 'finishes'>, style: JoineryStyle | null): Record<string, string> => ({ ...style?.parts, ...finishes });

/** Parts of a look, or finishes, that are chosen apart from a style. */
export function apart(of: Pick<Run, 'look' | 'finishes'> | Pick<Cabinet, 'look' | 'finishes'>, style: JoineryStyle | null): string[] {
  const whole = { ...PLAIN_LOOK, ...style?.look } as Record<string, unknown>;
  const looks = Object.entries(of.look).flatMap(([key, value]) => (JSON.stringify(value) === JSON.stringify(whole[key]) ? [] : [key]));
  const parts = Object.entries(of.finishes).flatMap(([part, finish]) =>
    !style || style.parts[part] === undefined || style.parts[part] === finish ? [] : [part],
  );
  return [...new Set([...looks, ...parts])];
}

/** A run or a unit that is as its style says again: nothing of its look is apart, nor the finishes its style has a word for. */
export const broughtBack = <T extends Run | Cabinet>(of: T, style: JoineryStyle | null): T => ({
  ...of,
  look: {},
  finishes: Object.fromEntries(Object.entries(of.finishes).filter(([part]) => style?.parts[part] === undefined)),
});

/** A run as a style, to be kept: all that its look and its finishes are. */
export const styleFrom = (id: string, name: string, run: Pick<Run, 'look' | 'finishes'>, style: JoineryStyle | null): JoineryStyle => ({
  id,
  name,
  look: lookOf(run, style),
  parts: finishesOf(run, style),
});

/** Whether handles stand out before the fronts: what opens beside them needs room for them. */
export const standsOut = ({ handles }: Pick<FrontLook, 'handles'>): boolean => handles !== 'none' && handles !== 'rail' && handles !== 'recessed';

/** A cell of a front that is like any until something is said of it. */
export const newCell = (values: Partial<Cell> = {}): Cell => ({ width: null, kind: 'door', hand: null, shelves: 0, inside: [], held: null, ...values });

/** A joinery style told so that it fits any project. */
export const StyleKit = z.object({
  style: JoineryStyle,
  /** Finishes and sections of one's own that it needs. */
  finishes: z.array(Finish).max(50),
  profiles: z.array(Profile).max(4),
});
export type StyleKit = z.infer<typeof StyleKit>;

/** A style with what of a project it needs besides. */
export const kitOfStyle = ({ finishes, profiles }: Pick<Project, 'finishes' | 'profiles'>, style: JoineryStyle): StyleKit => ({
  style,
  finishes: [...new Set(Object.values(style.parts))].flatMap((id) => (Object.hasOwn(finishes, id) ? [finishes[id]] : [])),
  profiles: style.look.cornices.flatMap(({ profile }) => (Object.hasOwn(profiles, profile) ? [profiles[profile]] : [])),
});

/** Makes runs in a style, or in none; what a project has already of what that needs stays as it is there. */
export function giveStyle(draft: Draft<Project>, kit: StyleKit | null, runs: readonly string[]): void {
  if (kit) {
    for (const finish of kit.finishes) draft.finishes[finish.id] ??= finish;
    for (const profile of kit.profiles) draft.profiles[profile.id] ??= profile;
    draft.joinery[kit.style.id] ??= kit.style;
  }
  const style = kit && (stateOf(draft.joinery) as Project['joinery'])[kit.style.id];
  for (const id of runs) draft.runs[id] = { ...broughtBack(stateOf(draft.runs[id]) as Run, style), style: style?.id ?? null };
}
