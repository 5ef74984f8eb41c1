import { LIGHT_TYPE } from '@/core/formats/light-type';
import { z } from 'zod';
import { Finish, projectSchema } from '@/core/project/schema';
import { StyleKit } from '@/core/project/joinery';
import { PieceSet } from '@/core/project/piece-set';
import { SchemeKit } from '@/core/project/scheme-kit';

/** A refusal of the server, in one sentence; `offline` when it could not be reached at all. */
export class ApiError extends Error {
  constructor(
    message: string,
    readonly status: number,
    /** Id of the edit at fault, where one of several is. */
    readonly change: string | null = null,
  ) {
    super(message);
  }
  get offline(): boolean {
    return this.status === 0;
  }
}

const Refusal = z.object({ message: z.string(), change: z.string().optional() });
const PatchList = z.array(
  z.object({ op: z.enum(['add', 'remove', 'replace']), path: z.array(z.union([z.string(), z.number()])), value: z.unknown().optional() }),
);
const KeptChange = z.object({
  id: z.string(),
  seq: z.number(),
  kind: z.enum(['do', 'undo', 'redo']),
  target: z.string().nullable(),
  title: z.string(),
  patches: PatchList,
  inverse: PatchList,
});
export type KeptChange = z.infer<typeof KeptChange>;

const Card = z.object({
  id: z.string(),
  name: z.string(),
  seq: z.number(),
  changedAt: z.string(),
  rooms: z.number(),
  area: z.number(),
  pieces: z.number(),
  damaged: z.string().nullable(),
  pending: z.boolean(),
});
export type Card = z.infer<typeof Card>;

const Deleted = z.object({ id: z.string(), name: z.string(), deletedAt: z.string(), until: z.string() });
/** A project that was deleted and can be put back until a day. */
export type Deleted = z.infer<typeof Deleted>;

const Errand = z.object({
  id: z.string(),
  title: z.string(),
  state: z.enum(['running', 'done', 'failed', 'cancelled']),
  share: z.number(),
  at: z.string(),
  left: z.number().nullable(),
  message: z.string().nullable(),
  result: z.union([z.object({ file: z.literal(true), name: z.string() }), z.object({ project: z.string() })]).nullable(),
});
/** Long work on the server, as far as it has come. */
export type Errand = z.infer<typeof Errand>;

const Entry = z.discriminatedUnion('kind', [
  z.object({ id: z.string(), kind: z.literal('finish'), name: z.string(), data: Finish }),
  z.object({ id: z.string(), kind: z.literal('scheme'), name: z.string(), data: SchemeKit }),
  z.object({ id: z.string(), kind: z.literal('set'), name: z.string(), data: PieceSet }),
  z.object({ id: z.string(), kind: z.literal('style'), name: z.string(), data: StyleKit }),
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
  throw new ApiError(
    refusal.success ? refusal.data.message : `The server refused (${response.status}).`,
    response.status,
    refusal.success ? (refusal.data.change ?? null) : null,
  );
}

const json = (value: unknown, method = 'POST'): RequestInit => ({ method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(value) });

/** A body of bytes, with its digest (RFC 9530) where the browser can make one. */
async function bytesBody(body: Blob): Promise<RequestInit> {
  const headers: Record<string, string> = { 'content-type': body.type === LIGHT_TYPE ? LIGHT_TYPE : 'application/octet-stream' };
  // Of a very large file it would take as long as sending it.
  if (crypto.subtle && body.size <= 64 * 1024 * 1024) {
    const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', await body.arrayBuffer()));
    headers['content-digest'] = `sha-256=:${btoa(String.fromCharCode(...digest))}:`;
  }
  return { method: 'POST', headers, body };
}

/** The server, seen from the browser. Everything that comes back is checked. */
export const api = {
  projects: async () => z.array(Card).parse(await (await call('/api/projects?known', { cache: 'no-store' })).json()),
  create: async (name: string, units: 'metric' | 'imperial') => Made.parse(await (await call('/api/projects', json({ name, units }))).json()).id,
  duplicate: async (id: string) => Made.parse(await (await call(`/api/projects/${id}/duplicate`, { method: 'POST' })).json()).id,
  remove: async (id: string) => void (await call(`/api/projects/${id}`, { method: 'DELETE' })),
  restore: async (id: string) => void (await call(`/api/projects/${id}`, json({ deleted: false }, 'PATCH'))),
  deleted: async () => z.array(Deleted).parse(await (await call('/api/projects?deleted', { cache: 'no-store' })).json()),
  /** Begins to open a project file. */
  importFile: async (file: Blob, signal?: AbortSignal) => {
    const body = await bytesBody(file);
    return Errand.parse(await (await call('/api/projects/import', { ...body, signal, headers: { ...body.headers, prefer: 'respond-async' } })).json());
  },
  /** Begins an export. @param query which board and page */
  beginExport: async (id: string, kind: string, query = '') =>
    Errand.parse(await (await call(`/api/projects/${id}/export/${kind}${query}`, { method: 'POST' })).json()),
  errand: async (id: string) => Errand.parse(await (await call(`/api/errands/${id}`, { cache: 'no-store' })).json()),
  cancelErrand: async (id: string) => void (await call(`/api/errands/${id}`, { method: 'DELETE' })),
  load: async (id: string) =>
    z
      .object({ seq: z.number(), project: projectSchema(), history: z.array(KeptChange), earlier: z.boolean().default(false) })
      .parse(await (await call(`/api/projects/${id}`, { cache: 'no-store' })).json()),
  since: async (id: string, seq: number) =>
    z
      .object({ seq: z.number(), changes: z.array(KeptChange) })
      .parse(await (await call(`/api/projects/${id}/changes?since=${seq}`, { cache: 'no-store' })).json()),
  append: async (id: string, base: number, changes: unknown[]) =>
    z
      .discriminatedUnion('ok', [
        z.object({ ok: z.literal(true), seq: z.number() }),
        z.object({ ok: z.literal(false), seq: z.number(), changes: z.array(KeptChange) }),
      ])
      .parse(await (await call(`/api/projects/${id}/changes`, json({ base, changes }), [409])).json()),
  library: async () => z.array(Entry).parse(await (await call('/api/library', { cache: 'no-store' })).json()),
  keepInLibrary: async (entry: unknown) => void (await call('/api/library', json(entry))),
  forget: async (id: string) => void (await call(`/api/library/${id}`, { method: 'DELETE' })),
  keepFile: async (bytes: Blob, signal?: AbortSignal) =>
    z.object({ hash: z.string() }).parse(await (await call('/api/assets', { ...(await bytesBody(bytes)), signal })).json()).hash,
  blob: async (hash: string) => (await call(`/api/assets/${hash}`)).blob(),
  file: async (hash: string) => new Uint8Array(await (await call(`/api/assets/${hash}`)).arrayBuffer()),
};
