import { z } from 'zod';
import { sentence } from '@/core/project/commands';
import { DomainError } from '@/core/project/errors';

const STATUS: [RegExp, number][] = [
  [/missing$/, 404],
  [/^(file|asset)\.(large|size)/, 413],
  [/^asset\.kind/, 415],
];

/** Runs a route's work and turns refusals into one sentence with a fitting status. */
export async function respond(work: () => Promise<Response>): Promise<Response> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof DomainError) {
      const status = STATUS.find(([pattern]) => pattern.test(error.code))?.[1] ?? 422;
      return Response.json({ code: error.code, message: error.message, ids: error.ids }, { status });
    }
    console.error(error);
    return Response.json({ code: 'server', message: 'Something went wrong on the server; nothing was changed. Try again.' }, { status: 500 });
  }
}

/**
 * The body of a request as bytes, refused above a limit before it is read to the end.
 *
 * @throws DomainError `file.large`
 */
export async function bodyBytes(request: Request, limit: number): Promise<Uint8Array> {
  const refuse = (): never => {
    throw new DomainError('file.large', `The file was not taken: it is larger than ${Math.round(limit / 1024 / 1024) || 1} MB.`);
  };
  if (Number(request.headers.get('content-length') ?? 0) > limit) refuse();
  const chunks: Uint8Array[] = [];
  let size = 0;
  const reader = request.body?.getReader();
  if (reader)
    for (;;) {
      const { done, value } = await reader.read();
      if (done) break;
      size += value.length;
      if (size > limit) {
        await reader.cancel();
        refuse();
      }
      chunks.push(value);
    }
  return Buffer.concat(chunks);
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

/** A file for download. */
export function download(bytes: Uint8Array, mime: string, name: string): Response {
  const plain = name.replace(/[^A-Za-z0-9 ._-]/g, '_');
  return new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': mime,
      'content-disposition': `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name)}`,
      'cache-control': 'no-store',
    },
  });
}
