import { z } from 'zod';
import { Finish, ProjectSchema } from '@/core/project/schema';
import { SchemeKit } from '@/core/project/scheme-kit';

/** A refusal of the server, in one sentence; `offline` when it could not be reached at all. */
export class ApiError extends Error {
  constructor(
    message: string,
    readonly status: number,
  ) {
    super(message);
  }
  get offline(): boolean {
    return this.status === 0;
  }
}

const Refusal = z.object({ message: z.string() });
const PatchList = z.array(
  z.object({ op: z.enum(['add', 'remove', 'replace']), path: z.array(z.union([z.string(), z.number()])), value: z.unknown().optional() }),
);
const Kept = z.object({
  id: z.string(),
  seq: z.number(),
  kind: z.enum(['do', 'undo', 'redo']),
  target: z.string().nullable(),
  title: z.string(),
  patches: PatchList,
  inverse: PatchList,
});
export type Kept = z.infer<typeof Kept>;

const Card = z.object({ id: z.string(), name: z.string(), seq: z.number(), changedAt: z.string(), rooms: z.number(), area: z.number(), pieces: z.number() });
export type Card = z.infer<typeof Card>;

const Entry = z.discriminatedUnion('kind', [
  z.object({ id: z.string(), kind: z.literal('finish'), name: z.string(), data: Finish }),
  z.object({ id: z.string(), kind: z.literal('scheme'), name: z.string(), data: SchemeKit }),
]);
export type LibraryEntry = z.infer<typeof Entry>;

const Made = z.object({ id: z.string() });

async function call(path: string, init?: RequestInit, accept: number[] = []): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(path, init);
  } catch {
    throw new ApiError('The server can’t be reached; what you do is kept in this browser and sent later.', 0);
  }
  if (response.ok || accept.includes(response.status)) return response;
  const refusal = Refusal.safeParse(await response.json().catch(() => null));
  throw new ApiError(refusal.success ? refusal.data.message : `The server refused (${response.status}).`, response.status);
}

const json = (value: unknown, method = 'POST'): RequestInit => ({ method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(value) });

/** The server, seen from the browser. Everything that comes back is checked. */
export const api = {
  projects: async () => z.array(Card).parse(await (await call('/api/projects')).json()),
  create: async (name: string, units: 'metric' | 'imperial') => Made.parse(await (await call('/api/projects', json({ name, units }))).json()).id,
  duplicate: async (id: string) => Made.parse(await (await call(`/api/projects/${id}/duplicate`, { method: 'POST' })).json()).id,
  remove: async (id: string) => void (await call(`/api/projects/${id}`, { method: 'DELETE' })),
  restore: async (id: string) => void (await call(`/api/projects/${id}`, json({ deleted: false }, 'PATCH'))),
  importFile: async (file: Blob) => Made.parse(await (await call('/api/projects/import', { method: 'POST', body: file })).json()).id,
  load: async (id: string) =>
    z
      .object({ seq: z.number(), project: ProjectSchema, history: z.array(Kept) })
      .parse(await (await call(`/api/projects/${id}`, { cache: 'no-store' })).json()),
  since: async (id: string, seq: number) =>
    z.object({ seq: z.number(), changes: z.array(Kept) }).parse(await (await call(`/api/projects/${id}/changes?since=${seq}`, { cache: 'no-store' })).json()),
  append: async (id: string, base: number, changes: unknown[]) =>
    z
      .discriminatedUnion('ok', [
        z.object({ ok: z.literal(true), seq: z.number() }),
        z.object({ ok: z.literal(false), seq: z.number(), changes: z.array(Kept) }),
      ])
      .parse(await (await call(`/api/projects/${id}/changes`, json({ base, changes }), [409])).json()),
  library: async () => z.array(Entry).parse(await (await call('/api/library', { cache: 'no-store' })).json()),
  keepInLibrary: async (entry: unknown) => void (await call('/api/library', json(entry))),
  forget: async (id: string) => void (await call(`/api/library/${id}`, { method: 'DELETE' })),
  keepFile: async (bytes: Blob) => z.object({ hash: z.string() }).parse(await (await call('/api/assets', { method: 'POST', body: bytes })).json()).hash,
  file: async (hash: string) => new Uint8Array(await (await call(`/api/assets/${hash}`)).arrayBuffer()),
};
