import { createHash } from 'node:crypto';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { api, ApiError } from './api';

afterEach(() => void vi.unstubAllGlobals());

const answer = (value: unknown, status = 200): { last: () => { url: string; init: RequestInit } } => {
  let last = { url: '', init: {} as RequestInit };
  vi.stubGlobal('fetch', (url: string, init: RequestInit = {}) => {
    last = { url, init };
    return Promise.resolve(typeof value === 'string' ? new Response(value, { status }) : Response.json(value, { status }));
  });
  return { last: () => last };
};

describe('the server, seen from the browser', () => {
  it('gets bytes with their digest, so that what is damaged on its way is not kept', async () => {
    const { last } = answer({ hash: 'a'.repeat(64) }, 201);
    const bytes = new Uint8Array([1, 2, 3, 250]);
    expect(await api.keepFile(new Blob([bytes]))).toBe('a'.repeat(64));
    const headers = last().init.headers as Record<string, string>;
    // RFC 9530: the digest as a byte sequence of structured fields.
    expect(headers['content-digest']).toBe(`sha-256=:${createHash('sha256').update(bytes).digest('base64')}:`);
    expect(headers['content-type']).toBe('application/octet-stream');
  });

  it('gets bytes without one where the browser can make none', async () => {
    vi.stubGlobal('crypto', {});
    const { last } = answer({ hash: 'a'.repeat(64) }, 201);
    await api.keepFile(new Blob(['x']));
    expect((last().init.headers as Record<string, string>)['content-digest']).toBeUndefined();
  });

  it('is asked to open a project file as an errand', async () => {
    const { last } = answer({ id: 'e', title: 'Open', state: 'running', share: 0, at: 'Waiting', left: null, message: null, result: null }, 202);
    expect((await api.importFile(new Blob(['x']))).state).toBe('running');
    expect((last().init.headers as Record<string, string>).prefer).toBe('respond-async');
  });

  it('names the edit at fault, hands over what came between, and has a sentence for everything', async () => {
    answer({ message: 'Nothing was changed: no.', change: 'change0001' }, 422);
    const refused = (await api.append('p', 0, [{}]).catch((e: unknown) => e)) as ApiError;
    expect([refused.status, refused.change, refused.message, refused.offline]).toEqual([422, 'change0001', 'Nothing was changed: no.', false]);
    answer({ ok: false, seq: 4, changes: [] }, 409);
    expect(await api.append('p', 0, [{}])).toEqual({ ok: false, seq: 4, changes: [] });
    answer('<html>', 502);
    expect(((await api.projects().catch((e: unknown) => e)) as ApiError).message).toBe('The server refused (502).');
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('x')));
    const gone = (await api.projects().catch((e: unknown) => e)) as ApiError;
    expect([gone.offline, gone.change]).toEqual([true, null]);
  });
});
