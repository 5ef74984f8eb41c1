import { applyFinish } from './targets';
import type { Draft } from 'immer';
import { z } from 'zod';
import { choices, takeScheme } from './choices';
import { FinishRef, Finish, MOULDING_KINDS, Name, RoomUse, Starts, type MouldingKind, type Project, type Scheme } from './schema';
import { stateOf } from './topology';

const RoomChoices = z.object({ floor: FinishRef.nullable(), walls: FinishRef.nullable(), ceiling: FinishRef.nullable() });

/** A scheme told by roles, so that it fits any project: what rooms of a use get, what new things start with, which mouldings run round. */
export const SchemeKit = z.object({
  name: Name,
  /** By the use of a room; "any" for all others. */
  rooms: z.partialRecord(z.union([RoomUse, z.literal('any')]), RoomChoices),
  mouldings: z.partialRecord(
    z.enum(MOULDING_KINDS),
    z.object({ profile: z.string().max(80), height: z.number().nullable(), at: z.number().nullable(), finish: FinishRef }),
  ),
  starts: Starts,
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
    if (own && !Object.hasOwn(project.profiles, own.profile)) mouldings[kind] = { profile: own.profile, height: own.height, at: own.at, finish: own.finish };
  }
  const used = new Set([...[...choices(project)].map((c) => c.finish), ...Object.values(scheme.starts)]);
  return {
    name: scheme.name,
    rooms: { any: of(rooms), ...Object.fromEntries(uses.map((use) => [use, of(rooms.filter((r) => r.use === use))])) },
    mouldings,
    starts: scheme.starts,
    finishes: Object.values(project.finishes).filter((f) => used.has(f.id)),
  };
}

/** Starts a scheme from a kit, takes it in hand, and gives every room what the kit has for its use. */
export function applyKit(draft: Draft<Project>, id: string, kit: SchemeKit, newId: (prefix: string) => string): void {
  const project = stateOf(draft as Project);
  for (const finish of kit.finishes) if (!Object.hasOwn(project.finishes, finish.id)) draft.finishes[finish.id] = finish;
  const order = Math.max(...Object.values(project.schemes).map((s) => s.order)) + 1;
  draft.schemes[id] = { id, name: kit.name, order, starts: kit.starts, choices: { finishes: {}, layings: {}, patches: {}, mouldings: {} } } satisfies Scheme;
  takeScheme(draft, id);
  for (const room of Object.values(project.rooms)) {
    if (room.use === 'duct') continue;
    const own = kit.rooms[room.use];
    const any = kit.rooms.any;
    for (const kind of ['walls', 'floor', 'ceiling'] as const) {
      const finish = own?.[kind] ?? any?.[kind] ?? null;
      if (finish) applyFinish(draft, { kind, room: room.id }, finish);
    }
    if (room.outdoors) continue;
    for (const [kind, moulding] of Object.entries(kit.mouldings))
      if (moulding) {
        const made = newId('moulding');
        draft.mouldings[made] = { ...moulding, id: made, name: kind, room: room.id, kind: kind as MouldingKind, without: [] };
      }
  }
}
