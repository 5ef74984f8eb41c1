import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { guard, originsOf, parseOrigins, type Asked } from './guard';

const origins = originsOf({ host: '127.0.0.1', port: 3210, origins: [] });
const ask = (over: Partial<Omit<Asked, 'headers'>> & { headers?: Record<string, string | undefined> } = {}): number | null =>
  guard({ method: 'GET', url: '/api/projects', ...over, headers: { host: '127.0.0.1:3210', ...over.headers } }, origins)?.status ?? null;
const json = { 'content-type': 'application/json', 'content-length': '2' };

describe('the guard', () => {
  it('lets the application’s own pages through, and programs that are no browser', () => {
    expect(ask()).toBeNull();
    for (const host of ['localhost:3210', '[::1]:3210', 'LOCALHOST:3210']) expect(ask({ headers: { host } })).toBeNull();
    expect(ask({ method: 'POST', headers: { ...json, origin: 'http://127.0.0.1:3210', 'sec-fetch-site': 'same-origin' } })).toBeNull();
    expect(ask({ method: 'POST', headers: json })).toBeNull();
    expect(ask({ method: 'DELETE' })).toBeNull();
    expect(ask({ method: 'POST', headers: { ...json, 'content-type': 'image/png' } })).toBeNull();
    expect(ask({ url: '/project/heron-lock-cottage', headers: { 'sec-fetch-site': 'cross-site' } })).toBeNull();
  });

  it('answers under no name but its own', () => {
    for (const host of ['evil.example', 'evil.example:3210', '127.0.0.1', '127.0.0.1:80', '', '127.0.0.1.nip.example:3210', undefined])
      expect(ask({ headers: { host } })).toBe(403);
    for (const url of ['/', '/project/x', '/_next/static/x.js']) expect(ask({ url, headers: { host: 'evil.example:3210' } })).toBe(403);
  });

  it('turns away what pages of other sites send and read', () => {
    for (const method of ['POST', 'PATCH', 'DELETE', 'GET'])
      for (const headers of [
        { origin: 'http://evil.example' },
        { origin: 'null' },
        { origin: 'http://127.0.0.1:4000' },
        { 'sec-fetch-site': 'cross-site' },
        { 'sec-fetch-site': 'same-site' },
      ])
        expect(ask({ method, headers: { ...json, ...headers } })).toBe(403);
  });

  it('takes no body that a form could send', () => {
    for (const type of [
      'text/plain',
      'application/x-www-form-urlencoded',
      'multipart/form-data; boundary=x',
      '',
      undefined,
      'application/jsonp',
      'text/plain;application/json',
    ])
      expect(ask({ method: 'POST', headers: { ...json, 'content-type': type } })).toBe(415);
    expect(ask({ method: 'POST', headers: { 'transfer-encoding': 'chunked' } })).toBe(415);
  });

  it('refuses methods and addresses that are none', () => {
    for (const method of ['TRACE', 'CONNECT', 'PUT', 'OPTIONS', 'get', '']) expect(ask({ method })).toBe(405);
    for (const url of ['/api/projects/%ff', '/api/projects/%00', '/api/%', '/api/projects/a%0ab', `/api/${'x'.repeat(5000)}`]) expect(ask({ url })).toBe(400);
    expect(ask({ method: 'POST', url: '/', headers: json })).toBe(405);
  });

  it('says why in a sentence, and gives no header back as it came', () => {
    fc.assert(
      fc.property(fc.string(), fc.string(), (host, url) => {
        const turned = guard({ method: 'GET', url: `/${url}`, headers: { host } }, origins);
        expect(turned!.message).toMatch(/^[A-Z].*\.$/);
        expect(turned!.message).not.toMatch(/[<>"\r\n]/);
      }),
    );
  });

  it('knows the origins it is given, and no others', () => {
    const behind = originsOf({ host: '0.0.0.0', port: 3210, origins: parseOrigins('https://studio.example, http://practice.example:8080/') });
    const asked = (host: string, origin: string): number | null =>
      guard({ method: 'POST', url: '/api/projects', headers: { ...json, host, origin } }, behind)?.status ?? null;
    expect(asked('studio.example', 'https://studio.example')).toBeNull();
    expect(asked('practice.example:8080', 'http://practice.example:8080')).toBeNull();
    expect(asked('studio.example', 'http://studio.example')).toBe(403);
    expect(asked('0.0.0.0:3210', 'http://0.0.0.0:3210')).toBe(403);
    expect(asked('192.0.2.7:3210', 'http://192.0.2.7:3210')).toBe(403);
    expect(originsOf({ host: '::1', port: 80, origins: [] })).toContain('http://[::1]');
    for (const bad of ['studio.example', 'https://a.example/path', 'ftp://a.example', 'https://']) expect(() => parseOrigins(bad)).toThrow(/no origin/);
    expect(parseOrigins(undefined)).toEqual([]);
  });
});
