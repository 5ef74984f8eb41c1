import type { Draft } from 'immer';
import { z } from 'zod';
import { choices, choicesOf, forgetLaying, giveOtherWalls, takeScheme } from './choices';
import { giveStyle, kitOfStyle, StyleKit } from './joinery';
import { roomOfRun } from './runs';
import { FinishRef, Finish, MOULDING_KINDS, Name, RoomUse, Starts, type Choices, type MouldingKind, type Project, type Room, type Run } from './schema';
import { applyFinish } from './targets';
import { freeName } from './things';
import { stateOf } from './topology';

const RoomChoices = z.object({ floor: FinishRef.nullable(), walls: FinishRef.nullable(), ceiling: FinishRef.nullable() });

/** A scheme told by roles, so that it fits any project: what rooms of a use get, what new things start with, which mouldings run round. */
export const SchemeKit = z.object({
  name: Name,
  /** By the use of a room; "any" for all others. */
  rooms: z.partialRecord(z.union([RoomUse, z.literal('any')]), RoomChoices),
  mouldings: z.partialRecord(
    z.enum(MOULDING_KINDS),
    z.object({
      profile: z.string().max(80),
      height: z.number().nullable(),
      at: z.number().nullable(),
      finish: FinishRef,
      uses: z.array(RoomUse).optional().describe('of rooms it runs round; left out: of all'),
    }),
  ),
  starts: Starts,
  /** The joinery styles of runs, by the use of their room; "any" for those that stand free and for all others. */
  joinery: z.object({ styles: z.array(StyleKit).max(50), uses: z.partialRecord(z.union([RoomUse, z.literal('any')]), z.string()) }).optional(),
  /** Finishes of one's own that it needs. */
  finishes: z.array(Finish).max(500),
});
export type SchemeKit = z.infer<typeof SchemeKit>;

/** The value that comes up most often; the first of equals. */
function most<T>(values: readonly (T | null)[]): T | null {
  const count = new Map<T, number>();
  for (const v of values) if (v !== null) count.set(v, (count.get(v) ?? 0) + 1);
  return [...count].reduce<[T, number] | null>((a, b) => (a && a[1] >= b[1] ? a : b), null)?.[0] ?? null;
}

/** The scheme in hand of a project, by roles. */
export function kitOf(project: Project): SchemeKit {
  const scheme = project.schemes[project.scheme];
  const rooms = Object.values(project.rooms).filter((r) => r.use !== 'duct');
  const of = (list: typeof rooms): z.infer<typeof RoomChoices> => ({
    floor: most(list.map((r) => r.floor)),
    walls: most(list.map((r) => r.walls)),
    ceiling: most(list.map((r) => r.ceiling)),
  });
  const uses = [...new Set(rooms.map((r) => r.use))].filter((u) => u !== 'unnamed');
  const mouldings: SchemeKit['mouldings'] = {};
  for (const kind of MOULDING_KINDS) {
    const own = Object.values(project.mouldings).find((m) => m.kind === kind);
    // A section of one's own belongs to its project.
    if (!own || Object.hasOwn(project.profiles, own.profile)) continue;
    const round = new Set(Object.values(project.mouldings).flatMap((m) => (m.kind === kind ? [m.room] : [])));
    const of = uses.filter((use) => rooms.some((r) => r.use === use && round.has(r.id)));
    mouldings[kind] = { profile: own.profile, height: own.height, at: own.at, finish: own.finish, uses: of };
  }
  const styled = Object.values(project.runs).filter((r) => r.style !== null && Object.hasOwn(project.joinery, r.style));
  const styleOf = (list: typeof styled): string | null => most(list.map((r) => r.style));
  const useOf = (run: Run): Room['use'] | null => project.rooms[roomOfRun(run) ?? '']?.use ?? null;
  const joined = [...new Set(styled.map((r) => r.style!))].map((id) => kitOfStyle(project, project.joinery[id]));
  const used = new Set([...[...choices(project)].map((c) => c.finish), ...Object.values(scheme.starts)]);
  return {
    name: scheme.name,
    rooms: { any: of(rooms), ...Object.fromEntries(uses.map((use) => [use, of(rooms.filter((r) => r.use === use))])) },
    mouldings,
    starts: scheme.starts,
    ...(styled.length
      ? {
          joinery: {
            styles: joined,
            uses: Object.fromEntries(
              [...new Set(styled.map(useOf))]
                .flatMap((use): [string, string | null][] => (use === null ? [] : [[use, styleOf(styled.filter((r) => useOf(r) === use))]]))
                .concat([['any', styleOf(styled)]]),
            ) as Record<string, string>,
          },
        }
      : {}),
    finishes: Object.values(project.finishes).filter((f) => used.has(f.id)),
  };
}

/**
 * Starts a scheme from the one in hand, takes it in hand, and gives every room what a kit has for its use. What the kit
 * has no word for stays as it is: walls with a finish of their own, patches, doors, pieces, mouldings of other kinds.
 */
export function applyKit(draft: Draft<Project>, id: string, kit: SchemeKit, newId: (prefix: string) => string): void {
  const project = stateOf(draft as Project);
  for (const finish of kit.finishes) if (!Object.hasOwn(project.finishes, finish.id)) draft.finishes[finish.id] = finish;
  const order = Math.max(...Object.values(project.schemes).map((s) => s.order)) + 1;
  const named = Object.values(project.schemes).some((s) => s.name === kit.name);
  const starts = { ...project.schemes[project.scheme].starts };
  for (const [role, finish] of Object.entries(kit.starts)) if (finish) starts[role as keyof Starts] = finish;
  draft.schemes[id] = {
    id,
    name: named ? freeName(kit.name, project.schemes, 2) : kit.name,
    order,
    starts,
    style: project.schemes[project.scheme].style,
    choices: choicesOf(project) as Draft<Choices>,
  };
  takeScheme(draft, id);
  for (const room of Object.values(project.rooms)) {
    if (room.use === 'duct') continue;
    const own = kit.rooms[room.use];
    const any = kit.rooms.any;
    for (const kind of ['walls', 'floor', 'ceiling'] as const) {
      const finish = own?.[kind] ?? any?.[kind] ?? null;
      if (!finish || finish === room[kind]) continue;
      if (kind === 'walls') giveOtherWalls(draft, room.id, finish);
      else {
        forgetLaying(draft, { kind, room: room.id });
        applyFinish(draft, { kind, room: room.id }, finish);
      }
    }
    if (room.outdoors) continue;
    for (const [kind, moulding] of Object.entries(kit.mouldings)) {
      if (!moulding) continue;
      const { uses, ...set } = moulding;
      // A use the kit knows has the moulding only where it had it there; of one it does not know nothing speaks against it.
      if (uses && kit.rooms[room.use] && !uses.includes(room.use)) continue;
      const there = Object.values(project.mouldings).filter((m) => m.room === room.id && m.kind === kind);
      for (const m of there) draft.mouldings[m.id] = { ...m, ...set };
      if (there.length) continue;
      const made = newId('moulding');
      draft.mouldings[made] = { ...set, id: made, name: kind, room: room.id, kind: kind as MouldingKind, without: [] };
    }
  }
  for (const run of Object.values(project.runs)) {
    const use = project.rooms[roomOfRun(run) ?? '']?.use;
    const style = kit.joinery && ((use && kit.joinery.uses[use]) ?? kit.joinery.uses.any);
    const own = kit.joinery?.styles.find((s) => s.style.id === style);
    if (own && run.style !== style) giveStyle(draft, own, [run.id]);
  }
}
