import { mkdtemp, rm } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { finishById } from '@/core/finishes/library';
import { readHdr } from '@/core/formats/hdr/hdr';
import { writePng } from '@/core/formats/png';
import { LANDSCAPES, type Project } from '@/core/project/schema';

let folder: string;
const at = <T extends object>(params: T): { params: Promise<T> } => ({ params: Promise.resolve(params) });
const post = (body: unknown, raw = false): Request =>
  new Request('http://localhost/api', {
    method: 'POST',
    body: raw ? (body as Uint8Array<ArrayBuffer>) : JSON.stringify(body),
    headers: { 'content-type': 'application/json' },
  });

beforeAll(async () => {
  folder = await mkdtemp(path.join(os.tmpdir(), 'enstegon-routes-'));
  process.env.ENSTEGON_DATA = folder;
});
afterAll(async () => {
  const { app } = await import('@/server/application');
  await (await app()).db.sequelize.close();
  delete process.env.ENSTEGON_DATA;
  await rm(folder, { recursive: true, force: true });
});

const start = async (name = 'House'): Promise<string> => {
  const { POST } = await import('./projects/route');
  const response = await POST(post({ name, units: 'metric' }));
  expect(response.status).toBe(201);
  return ((await response.json()) as { id: string }).id;
};

describe('routes', () => {
  it('make a project, list it with its figures and hand it out', async () => {
    const id = await start();
    const list = await import('./projects/route');
    expect(await (await list.GET(new Request('http://localhost'))).json()).toContainEqual(
      expect.objectContaining({ id, name: 'House', rooms: 0, area: 0, pieces: 0 }),
    );
    const one = await import('./projects/[id]/route');
    const loaded = (await (await one.GET(new Request('http://localhost'), at({ id }))).json()) as { seq: number; project: Project; history: unknown[] };
    expect(loaded).toMatchObject({ seq: 0, project: { id, name: 'House' }, history: [] });
    expect((await one.GET(new Request('http://localhost'), at({ id: 'none' }))).status).toBe(404);
  });

  it('take changes on the number they stand on, and answer 409 with what came between', async () => {
    const id = await start();
    const { GET, POST } = await import('./projects/[id]/changes/route');
    const change = (n: number, name: string) => ({ id: `route${n}xxx`, kind: 'do', command: 'project.rename', args: { name } });
    expect(await (await POST(post({ base: 0, changes: [change(1, 'A')] }), at({ id }))).json()).toEqual({ ok: true, seq: 1 });
    const conflict = await POST(post({ base: 0, changes: [change(2, 'B')] }), at({ id }));
    expect(conflict.status).toBe(409);
    expect(await conflict.json()).toMatchObject({ ok: false, seq: 1, changes: [{ id: 'route1xxx' }] });
    const since = await GET(new Request('http://localhost/x?since=0'), at({ id }));
    expect(await since.json()).toMatchObject({ seq: 1, changes: [{ title: 'Rename project' }] });
    expect(await (await GET(new Request('http://localhost/x?since=1'), at({ id }))).json()).toEqual({ seq: 1, changes: [] });
    for (const bad of [
      { base: -1, changes: [change(3, 'C')] },
      { base: 1, changes: [] },
      { base: 1, changes: [{ ...change(3, 'C'), command: 'rm -rf' }] },
      { base: 1 },
      7,
    ]) {
      const refused = await POST(post(bad), at({ id }));
      expect(refused.status).toBe(422);
      expect(((await refused.json()) as { message: string }).message).toMatch(/^The request was not understood: .*\.$/);
    }
    const impossible = await POST(
      post({ base: 1, changes: [{ id: 'route9xxx', kind: 'do', command: 'wall.length', args: { wall: 'none', length: 3, keep: 'start' } }] }),
      at({ id }),
    );
    expect(impossible.status).toBe(404);
  });

  it('delete and bring back', async () => {
    const id = await start();
    const { DELETE, PATCH, GET } = await import('./projects/[id]/route');
    expect((await DELETE(new Request('http://localhost'), at({ id }))).status).toBe(204);
    expect((await GET(new Request('http://localhost'), at({ id }))).status).toBe(404);
    expect((await PATCH(post({ deleted: true }), at({ id }))).status).toBe(422);
    expect((await PATCH(post({ deleted: false }), at({ id }))).status).toBe(204);
    expect((await GET(new Request('http://localhost'), at({ id }))).status).toBe(200);
  });

  it('duplicate, export and import a project file', async () => {
    const id = await start('Twin');
    const copy = await (await import('./projects/[id]/duplicate/route')).POST(new Request('http://localhost'), at({ id }));
    expect(copy.status).toBe(201);
    const { GET } = await import('./projects/[id]/export/[kind]/route');
    const file = await GET(new Request('http://localhost/x'), at({ id, kind: 'file' }));
    expect(file.headers.get('content-disposition')).toMatch(/Twin%2C%20\d{4}-\d{2}-\d{2}\.enstegon/);
    const bytes = new Uint8Array(await file.arrayBuffer());
    const { POST } = await import('./projects/import/route');
    expect((await POST(post(bytes, true))).status).toBe(201);
    expect((await POST(post(new Uint8Array([1, 2, 3]), true))).status).toBe(422);
    expect((await GET(new Request('http://localhost/x'), at({ id, kind: 'glb' }))).headers.get('content-type')).toBe('model/gltf-binary');
    for (const kind of ['pdf', 'png', 'exe']) expect((await GET(new Request('http://localhost/x'), at({ id, kind }))).status).toBe(404);
  });

  it('keep pictures and nothing else, and send them with their kind', async () => {
    const { POST } = await import('./assets/route');
    const png = writePng(new Uint8Array(16), 2, 2);
    const kept = await POST(post(png, true));
    expect(kept.status).toBe(201);
    const { hash } = (await kept.json()) as { hash: string };
    const { GET } = await import('./assets/[hash]/route');
    const sent = await GET(new Request('http://localhost'), at({ hash }));
    expect([sent.headers.get('content-type'), new Uint8Array(await sent.arrayBuffer())]).toEqual(['image/png', png]);
    expect((await POST(post(new TextEncoder().encode('<html>'), true))).status).toBe(415);
    expect((await GET(new Request('http://localhost'), at({ hash: 'f'.repeat(64) }))).status).toBe(404);
  });

  it('draw a thumbnail of the plan where there is no picture', async () => {
    const id = await start();
    const { GET } = await import('./projects/[id]/thumbnail/route');
    const picture = await GET(new Request('http://localhost'), at({ id }));
    expect(picture.headers.get('content-type')).toBe('image/png');
    expect((await picture.arrayBuffer()).byteLength).toBeGreaterThan(100);
  });

  it('keep finishes and schemes for other projects, give them back, and refuse what is none', async () => {
    const list = await import('./library/route');
    const one = await import('./library/[id]/route');
    const finish = { ...finishById('paint.reed'), id: 'own-reed', name: 'My reed' };
    const kept = await list.POST(post({ kind: 'finish', name: 'My reed', data: finish }));
    expect(kept.status).toBe(201);
    // One of the same name takes its place.
    await list.POST(post({ kind: 'finish', name: 'My reed', data: { ...finish, colour: '#aabbcc' } }));
    const entries = (await (await list.GET()).json()) as { id: string; name: string; data: { colour: string } }[];
    expect(entries.map((e) => [e.name, e.data.colour])).toEqual([['My reed', '#aabbcc']]);
    expect((await list.POST(post({ kind: 'finish', name: 'Broken', data: { id: 'x' } }))).status).toBe(422);
    const gone = (): Promise<Response> => one.DELETE(new Request('http://localhost'), at({ id: entries[0].id }));
    expect((await gone()).status).toBe(200);
    expect((await gone()).status).toBe(404);
    expect(await (await list.GET()).json()).toEqual([]);
  });

  it('hand out the landscapes that ship, each the very file its licence goes with, and no other file', async () => {
    const { GET } = await import('./surroundings/[landscape]/route');
    const get = (landscape: string): Promise<Response> => GET(new Request('http://localhost'), at({ landscape }));
    for (const landscape of LANDSCAPES) {
      const response = await get(landscape);
      const { width, height, radiance } = readHdr(new Uint8Array(await response.arrayBuffer()));
      expect([response.status, width, height]).toEqual([200, 512, 256]);
      expect(radiance.every((v) => Number.isFinite(v) && v >= 0)).toBe(true);
    }
    for (const other of ['../demo/kitchen', 'meadow.hdr', 'nowhere', '__proto__']) expect((await get(other)).status).toBe(404);
  });
});
