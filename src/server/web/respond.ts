import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { open, stat, unlink } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { z } from 'zod';
import { sentence } from '@/core/project/commands';
import { DomainError } from '@/core/project/errors';
import { app, heedFault } from '../application';
import { passing } from '../store/folder';
import { faultOf } from '../store/faults';
import { ChangeRefused } from '../store/projects';

const STATUS: [RegExp, number][] = [
  [/missing$/, 404],
  [/^(file|asset)\.(large|size)$/, 413],
  [/^asset\.kind/, 415],
  [/^project\.taken$/, 409],
  [/^project\.raised$/, 410],
  [/^store\.full$/, 507],
  [/^(store|work\.(crowded|died|time|memory))/, 503],
];

const answer = (value: unknown, status: number): Response => Response.json(value, { status, headers: { 'cache-control': 'no-store' } });

/** Runs a route's work and turns refusals into one sentence with a fitting status. */
export async function respond(work: () => Promise<Response>): Promise<Response> {
  try {
    const response = await work();
    if (!response.headers.has('cache-control')) response.headers.set('cache-control', 'no-store');
    return response;
  } catch (error) {
    void heedFault(error);
    const refusal = faultOf(error) ?? error;
    if (refusal instanceof DomainError) {
      const status = STATUS.find(([pattern]) => pattern.test(refusal.code))?.[1] ?? 422;
      const change = (refusal as Partial<ChangeRefused>).change;
      return answer({ code: refusal.code, message: refusal.message, ids: refusal.ids, ...(change === undefined ? {} : { change }) }, status);
    }
    console.error(error);
    return answer({ code: 'server', message: 'Something went wrong on the server; nothing was changed. Try again.' }, 500);
  }
}

const tooLarge = (limit: number): DomainError =>
  new DomainError('file.large', `The file was not taken: it is larger than ${Math.round(limit / 1024 / 1024) || 1} MB.`);
const cutShort = (): DomainError => new DomainError('file.short', 'The file was not taken: less arrived than was announced; send it again.');

/** The body as it comes in, bounded, and as long as was announced. */
async function* body(request: Request, limit: number): AsyncGenerator<Uint8Array> {
  const announced = request.headers.get('content-length');
  if (announced !== null && Number(announced) > limit) throw tooLarge(limit);
  let size = 0;
  const reader = request.body?.getReader();
  if (reader)
    try {
      for (;;) {
        const { done, value } = await reader.read().catch(() => {
          throw cutShort();
        });
        if (done) break;
        size += value.length;
        if (size > limit) throw tooLarge(limit);
        yield value;
      }
    } finally {
      void reader.cancel().catch(() => undefined);
    }
  if (announced !== null && Number(announced) !== size) throw cutShort();
}

/**
 * The body of a request as bytes, refused above a limit before it is read to the end.
 *
 * @throws DomainError `file.large`, `file.short`
 */
export async function bodyBytes(request: Request, limit: number): Promise<Uint8Array> {
  const chunks: Uint8Array[] = [];
  for await (const chunk of body(request, limit)) chunks.push(chunk);
  return Buffer.concat(chunks);
}

/**
 * Runs work on the body of a request, which has gone to a file on its way in. A digest that was sent along (RFC 9530) is
 * compared. The file is gone afterwards.
 *
 * @throws DomainError `file.large`, `file.short`, `file.digest`
 */
export async function withBodyFile<T>(request: Request, limit: number, work: (file: string) => Promise<T>): Promise<T> {
  const file = passing((await app()).folder);
  try {
    const handle = await open(file, 'w');
    const digest = createHash('sha256');
    try {
      for await (const chunk of body(request, limit)) {
        digest.update(chunk);
        await handle.write(chunk);
      }
    } finally {
      await handle.close();
    }
    const meant = /(?:^|,)\s*sha-256=:([A-Za-z0-9+/=]+):/.exec(request.headers.get('content-digest') ?? '')?.[1];
    if (meant !== undefined && meant !== digest.digest('base64'))
      throw new DomainError('file.digest', 'The file was not taken: it was damaged on its way; send it again.');
    return await work(file);
  } finally {
    await unlink(file).catch(() => undefined);
  }
}

/**
 * A JSON body that fits a schema.
 *
 * @throws DomainError `request` with what is wrong
 */
export async function bodyJson<S extends z.ZodType>(request: Request, schema: S, limit: number): Promise<z.infer<S>> {
  const bytes = await bodyBytes(request, limit);
  let value: unknown;
  try {
    value = JSON.parse(Buffer.from(bytes).toString('utf8'));
  } catch {
    throw new DomainError('request', 'The request was not understood: it is not JSON.');
  }
  const parsed = schema.safeParse(value);
  if (!parsed.success) throw new DomainError('request', `The request was not understood: ${sentence(parsed.error)}`);
  return parsed.data;
}

/** A file as an answer, read as it is sent. @param keep left out, the file is gone once it was sent */
export async function sendFile(file: string, headers: Record<string, string>, keep = false): Promise<Response> {
  const { size } = await stat(file);
  const stream = createReadStream(file);
  if (!keep) stream.once('close', () => void unlink(file).catch(() => undefined));
  return new Response(Readable.toWeb(stream) as ReadableStream<Uint8Array>, { headers: { ...headers, 'content-length': String(size) } });
}

/** Headers of a file for download. */
export function download(mime: string, name: string): Record<string, string> {
  const plain = name.replace(/[^A-Za-z0-9 ._-]/g, '_');
  return {
    'content-type': mime,
    'content-disposition': `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name.replace(/\p{Cs}/gu, '_'))}`,
    'cache-control': 'no-store',
  };
}
