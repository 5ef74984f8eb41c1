import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import net from 'node:net';
import { crc32, deflateRawSync } from 'node:zlib';
import { zipSync, strToU8 } from 'fflate';
import sharp from 'sharp';
import { contentHash, projectJson } from '../src/core/formats/project-file/project-file';
import { picturedProject } from '../src/core/formats/project-file/testing';
import { emptyProject, type Project } from '../src/core/project/schema';
import { Tally } from './tally';
import { jsonOf, type Answer, type Target } from './target';

/** Asks something small again and again while work runs. Gives back the longest it had to wait, ms. */
async function beside<T>(target: Target, id: string, work: () => Promise<T>): Promise<{ result: T; longest: number }> {
  const pings = spawn('node', ['attack/ping.mjs', `http://127.0.0.1:${target.port}/api/projects/${id}/changes?since=0`], {
    stdio: ['pipe', 'pipe', 'inherit'],
  });
  let said = '';
  pings.stdout.on('data', (chunk: Buffer) => (said += chunk.toString()));
  const ended = new Promise((done) => pings.once('exit', done));
  await new Promise((done) => setTimeout(done, 150));
  const result = await work().finally(() => pings.stdin.end());
  await ended;
  return { result, longest: Number(said) };
}

/** A zip whose directory names one stream again and again. */
function overlapping(copies: number): Uint8Array {
  const one = zipSync({ 'project.json': strToU8(projectJson(emptyProject('p', 'P'))), 'assets/00000': [new Uint8Array(4_000_000), { level: 9 }] });
  const view = new DataView(one.buffer);
  const at = view.getUint32(one.length - 6, true);
  const skip = 46 + view.getUint16(at + 28, true) + view.getUint16(at + 30, true) + view.getUint16(at + 32, true);
  const entry = one.slice(at + skip, one.length - 22);
  const all = Array.from({ length: copies }, (_, i) => {
    const copy = entry.slice();
    copy.set(strToU8(String(10000 + i)), 46 + 'assets/'.length);
    return copy;
  });
  const end = one.slice(one.length - 22);
  const endView = new DataView(end.buffer);
  for (const field of [8, 10]) endView.setUint16(field, copies + 2, true);
  endView.setUint32(12, one.length - 22 - at + entry.length * copies, true);
  return new Uint8Array(Buffer.concat([one.subarray(0, one.length - 22), ...all, end]));
}

/** What is small and wants to become large, or to keep the server busy. */
export async function bombs(target: Target, short: boolean): Promise<Tally> {
  const tally = new Tally('bombs');
  const id = await target.newProject('Beside');
  let waited = 0;
  const waits: string[] = [];
  const slow: string[] = [];
  // What is sent is made before, so that only the server's own waiting is measured.
  const drop = async (what: string, work: () => Promise<Answer>, statuses: number[]): Promise<Answer> => {
    const { result, longest } = await beside(target, id, work);
    waited = Math.max(waited, longest);
    if (longest > 200) waits.push(`${what} ${Math.round(longest)} ms`);
    tally.count(result, what);
    if (result.ms > 3000) slow.push(`${what} ${(result.ms / 1000).toFixed(1)} s`);
    tally.hold(statuses.includes(result.status), `${what}: ${result.status} ${result.body.toString().slice(0, 120)}`);
    return result;
  };
  const plain = strToU8(projectJson(emptyProject('p', 'P')));
  const zeros = deflated('', new Uint8Array(64 * 1024 * 1024));
  const gigabyte = rawZip([deflated('project.json', plain), ...Array.from({ length: 16 }, (_, i) => ({ ...zeros, name: `assets/${i}` }))]);
  await drop('a gigabyte beside the project', () => target.bytes('/api/projects/import', gigabyte), [201]);
  const blanks = rawZip([deflated('project.json', new Uint8Array(64 * 1024 * 1024).fill(32))]);
  await drop('a project of 64 MB of blanks', () => target.bytes('/api/projects/import', blanks), [413]);
  const layered = overlapping(4000);
  await drop('4000 entries on one stream', () => target.bytes('/api/projects/import', layered), [422]);
  const crowd = manyEntries(100_000);
  const many = await drop('100,000 entries', () => target.bytes('/api/projects/import', crowd), [422]);
  tally.hold(/too many/.test(many.body.toString()), '100,000 entries are too many');
  const side = short ? 12_000 : 30_000;
  const huge = await grey(side);
  await drop(`a picture of ${side} by ${side} pixels`, () => target.bytes('/api/assets', huge), [413]);
  await drop('JSON nested 200,000 deep', () => target.json(`/api/projects/${id}/changes`, `${'['.repeat(200_000)}${']'.repeat(200_000)}`), [422]);
  await drop('JSON of 9 MB', () => target.json(`/api/projects/${id}/changes`, `"${'x'.repeat(9 * 1024 * 1024)}"`), [413]);
  await drop(
    'a project file nested deep',
    () =>
      target.bytes(
        '/api/projects/import',
        zipSync({ 'project.json': strToU8(`{"format":"enstegon","version":4,"walls":${'['.repeat(100_000)}${']'.repeat(100_000)}}`) }),
      ),
    [422],
  );

  // A picture cut after 60 bytes never gets onto a board, nor by way of a project file.
  const png = new Uint8Array(
    await sharp({ create: { width: 400, height: 300, channels: 3, noise: { type: 'gaussian', mean: 128, sigma: 60 } } } as never)
      .png()
      .toBuffer(),
  );
  const cut = png.subarray(0, 60);
  await drop('a PNG of 60 bytes', () => target.bytes('/api/assets', cut), [422]);
  const pictured = boarded(contentHash(cut));
  await drop(
    'a PNG of 60 bytes in a project file',
    () => target.bytes('/api/projects/import', zipSync({ 'project.json': strToU8(projectJson(pictured)), [`assets/${contentHash(cut)}`]: cut })),
    [422],
  );

  // A board that is allowed and heavy: very large samples with shadows, on paper of five metres.
  const heavy = jsonOf<{ id: string }>(
    await drop(
      'a heavy board',
      () =>
        target.bytes(
          '/api/projects/import',
          zipSync({ 'project.json': strToU8(projectJson(boarded(contentHash(png), 5))), [`assets/${contentHash(png)}`]: png }),
        ),
      [201],
    ),
  )!.id;
  for (const kind of ['pdf', 'png']) await drop(`a heavy board as ${kind}`, () => target.ask(`/api/projects/${heavy}/export/${kind}`), [200]);
  for (const kind of short ? ['glb', 'file'] : ['glb', 'pdf', 'png', 'file'])
    await drop(`the demo as ${kind}`, () => target.ask(`/api/projects/heron-lock-cottage/export/${kind}`), [200]);

  // Work that is begun can be cancelled, and is then over.
  const errand = jsonOf<{ id: string }>(await target.json('/api/projects/heron-lock-cottage/export/glb', {}))!;
  tally.count(await target.ask(`/api/errands/${errand.id}`, { method: 'DELETE' }), 'cancel');
  await new Promise((done) => setTimeout(done, 300));
  tally.hold(jsonOf<{ state: string }>(await target.ask(`/api/errands/${errand.id}`))?.state === 'cancelled', 'cancelled work is over');
  // Who hangs up ends the work too: what comes next does not wait for it.
  for (let i = 0; i < 3; i++) await target.ask('/api/projects/heron-lock-cottage/export/glb', { patience: 150 });
  tally.count(await target.ask(`/api/projects/${id}/export/file`), 'an export after three that were hung up on');
  tally.notes.push(`took longest: ${slow.join(', ')}`);
  tally.notes.push(`longest wait of other requests beside all this: ${Math.round(waited)} ms${waits.length ? ` (over 200 ms: ${waits.join(', ')})` : ''}`);
  return tally;
}

/** A project with a picture on a board. @param large side of the paper and of two samples, metres */
function boarded(image: string, large = 0): Project {
  const item = { page: 'page', order: 0, x: 0, y: 0, shadow: true };
  return {
    ...picturedProject('Board', image),
    boards: {
      b: {
        id: 'b',
        name: 'B',
        paper: { width: large || 0.3, height: large || 0.2 },
        pages: { page: { id: 'page', name: 'P', order: 0, ground: '#ffffff' } },
        items: {
          picture: { ...item, id: 'picture', kind: 'picture', picture: 'a', width: large || 0.1, height: large || 0.1 },
          ...(large
            ? {
                one: { ...item, id: 'one', kind: 'sample', finish: 'tile.glazed-75x150', form: 'tiles', note: '', width: large, height: large, x: -1 },
                two: { ...item, id: 'two', kind: 'sample', finish: 'tile.glazed-75x150', form: 'swatch', note: '', width: 0.002, height: large },
              }
            : {}),
        },
      },
    },
  } as Project;
}

const grey = async (side: number): Promise<Uint8Array> =>
  new Uint8Array(
    await sharp({ create: { width: side, height: side, channels: 3, background: '#777' }, limitInputPixels: false } as never)
      .toColourspace('b-w')
      .png({ compressionLevel: 6 })
      .toBuffer(),
  );

/** A zip written by hand, of entries that are deflated already: what no zip writer would make. */
function rawZip(entries: readonly { name: string; size: number; deflated: Uint8Array; crc: number }[]): Uint8Array {
  const locals: Uint8Array[] = [];
  const listed: Uint8Array[] = [];
  let at = 0;
  for (const { name, size, deflated, crc } of entries) {
    const local = Buffer.alloc(30 + name.length);
    local.writeUInt32LE(0x04034b50, 0);
    // Method 8: deflated.
    local.writeUInt16LE(8, 8);
    local.writeUInt32LE(crc, 14);
    local.writeUInt32LE(deflated.length, 18);
    local.writeUInt32LE(size, 22);
    local.writeUInt16LE(name.length, 26);
    local.write(name, 30);
    const entry = Buffer.alloc(46 + name.length);
    entry.writeUInt32LE(0x02014b50, 0);
    local.copy(entry, 6, 4, 30);
    entry.writeUInt32LE(at, 42);
    entry.write(name, 46);
    locals.push(local, deflated);
    listed.push(entry);
    at += local.length + deflated.length;
  }
  const directory = Buffer.concat(listed);
  const end = Buffer.alloc(22);
  end.writeUInt32LE(0x06054b50, 0);
  // A count of 16 bits holds no more than this; what is beyond stands in the directory all the same.
  for (const field of [8, 10]) end.writeUInt16LE(Math.min(entries.length, 65534), field);
  end.writeUInt32LE(directory.length, 12);
  end.writeUInt32LE(at, 16);
  return new Uint8Array(Buffer.concat([...locals, directory, end]));
}

const deflated = (name: string, bytes: Uint8Array) => ({ name, size: bytes.length, deflated: deflateRawSync(bytes), crc: crc32(bytes) });

const manyEntries = (n: number): Uint8Array => {
  const empty = deflated('', new Uint8Array());
  return rawZip(Array.from({ length: n }, (_, i) => ({ ...empty, name: String(100_000 + i) })));
};

/** Bodies of all sizes up to the limits and beyond, whole, cut and changed on their way. */
export async function sizes(target: Target, short: boolean): Promise<Tally> {
  const tally = new Tally('bodies of all sizes');
  const noise = async (megabytes: number): Promise<Uint8Array> => {
    // Noise does not get smaller: three bytes a pixel.
    const side = Math.round(Math.sqrt((megabytes * 1024 * 1024) / 3));
    return new Uint8Array(
      await sharp({ create: { width: side, height: side, channels: 3, noise: { type: 'gaussian', mean: 128, sigma: 90 } } } as never)
        .png({ compressionLevel: 0 })
        .toBuffer(),
    );
  };
  const kept: { hash: string; bytes: Uint8Array }[] = [];
  for (const megabytes of short ? [12, 30] : [9, 12, 30, 45, 62]) {
    const bytes = await noise(megabytes);
    const answer = tally.count(await target.bytes('/api/assets', bytes), `${megabytes} MB`);
    const hash = jsonOf<{ hash: string }>(answer)?.hash ?? '';
    tally.hold(answer.status === 201 && hash === contentHash(bytes), `${megabytes} MB are kept whole (${answer.status})`);
    const back = await target.ask(`/api/assets/${hash}`);
    tally.hold(Buffer.compare(back.body, Buffer.from(bytes)) === 0, `${megabytes} MB come back as they were`);
    kept.push({ hash, bytes });
  }
  const over = tally.count(await target.bytes('/api/assets', new Uint8Array(65 * 1024 * 1024)), '65 MB');
  tally.hold(over.status === 413 && /larger than 64 MB/.test(over.body.toString()), '65 MB are refused in a sentence');
  // What says that it is the light of a large picture may be larger, if it is.
  const liar = tally.count(await target.bytes('/api/assets', await noise(66), { 'content-type': 'image/x-exr' }), '66 MB that say they are light');
  tally.hold(liar.status === 413 && /larger than 64 MB/.test(liar.body.toString()), '66 MB that are no light are refused in a sentence');
  // A project file of tens of megabytes there and back.
  const [a, b] = kept;
  const pictured = boarded(a.hash);
  pictured.pictures.b = { ...pictured.pictures.a, id: 'b', radiance: b.hash, image: b.hash };
  const zip = zipSync({
    'project.json': strToU8(projectJson(pictured)),
    [`assets/${a.hash}`]: [a.bytes, { level: 0 }],
    [`assets/${b.hash}`]: [b.bytes, { level: 0 }],
  });
  const made = tally.count(await target.bytes('/api/projects/import', zip), `a project file of ${Math.round(zip.length / 1048576)} MB`);
  const id = jsonOf<{ id: string }>(made)?.id ?? 'none';
  const file = tally.count(await target.ask(`/api/projects/${id}/export/file`), 'its export');
  tally.hold(file.body.length > a.bytes.length + b.bytes.length, 'the export is whole');
  const again = tally.count(await target.bytes('/api/projects/import', file.body), 'our own export');
  tally.hold(again.status === 201, 'our own export is taken in again');

  // Announced and not sent; sent with the digest of something else.
  const digest = tally.count(
    await target.bytes('/api/assets', a.bytes, { 'content-digest': `sha-256=:${createHash('sha256').update('x').digest('base64')}:` }),
    'another digest',
  );
  tally.hold(digest.status === 422, 'bytes that are not those of the digest are refused');
  const right = tally.count(
    await target.bytes('/api/assets', a.bytes, { 'content-digest': `sha-256=:${createHash('sha256').update(a.bytes).digest('base64')}:` }),
    'the right digest',
  );
  tally.hold(right.status === 201, 'bytes with their digest are kept');
  await new Promise<void>((done) => {
    const socket = net.connect(target.port, '127.0.0.1', () => {
      socket.write(`POST /api/assets HTTP/1.1\r\nhost: 127.0.0.1:${target.port}\r\ncontent-type: image/png\r\ncontent-length: ${a.bytes.length}\r\n\r\n`);
      socket.write(a.bytes.subarray(0, 1000), () => setTimeout(() => socket.destroy(), 100));
    });
    socket.on('close', () => done());
    socket.on('error', () => done());
  });
  tally.count(await target.ask('/api/projects'), 'the list after a body that broke off');
  return tally;
}
