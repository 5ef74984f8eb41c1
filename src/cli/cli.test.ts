import { execFile } from 'node:child_process';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import { WebIO } from '@gltf-transform/core';
import { build } from 'esbuild';
import sharp from 'sharp';
import { readExr } from '@/core/formats/exr/exr';
import { readHdr } from '@/core/formats/hdr/hdr';
import { heronLockCottage } from '@/core/demo/heron-lock';
import { emptyProject } from '@/core/project/schema';
import { writeProjectFile } from '@/core/formats/project-file/project-file';
import { edit, house } from '@/core/testing/drafting';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';

const run = promisify(execFile);
let folder: string;
let file: string;
/** The demo’s house without what stands in it, which lists of the house have nothing of: it is read in a third of the time. */
let shell: string;

interface Said {
  code: number;
  stdout: string;
  stderr: string;
}

/** The command line as a person calls it. */
const fromSource = (...args: string[]): Promise<Said> => call(['--import', 'tsx', 'src/cli/main.ts', ...args]);

/** The same program, put together once: it need not be translated anew for every call. */
const BUILT = 'tmp/cli-test.mjs';
const enstegon = (...args: string[]): Promise<Said> => call([BUILT, ...args]);

const call = async (args: string[]): Promise<Said> => {
  try {
    return { code: 0, ...(await run(process.execPath, args, { maxBuffer: 1e8, env: { ...process.env, npm_config_loglevel: 'silent' } })) };
  } catch (error) {
    const { code, stdout, stderr } = error as { code: number; stdout: string; stderr: string };
    return { code, stdout, stderr };
  }
};

beforeAll(async () => {
  folder = await mkdtemp(path.join(os.tmpdir(), 'enstegon-cli-'));
  file = path.join(folder, 'demo.enstegon');
  await build({
    entryPoints: ['src/cli/main.ts'],
    bundle: true,
    platform: 'node',
    format: 'esm',
    packages: 'external',
    alias: { '@': './src' },
    outfile: BUILT,
  });
  expect(await fromSource('demo', '--out', file)).toMatchObject({ code: 0, stdout: '' });
  shell = path.join(folder, 'house.enstegon');
  await writeFile(shell, writeProjectFile({ ...heronLockCottage(), pieces: {} }, []));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

describe('the command line', () => {
  it('checks a file: valid with its findings, or one sentence and exit 1', async () => {
    const good = await enstegon('check', file, '--as', 'json');
    expect(good.code).toBe(0);
    const said = JSON.parse(good.stdout) as { findings: { code: string }[] };
    expect(said).toMatchObject({ valid: true, name: 'Heron Lock Cottage' });
    expect(said.findings.filter((f) => f.code === 'door.narrow')).toHaveLength(4);
    expect([...new Set(said.findings.map((f) => f.code.split('.')[0]))].sort()).toEqual(['contrast', 'door', 'finish', 'run']);
    const bad = path.join(folder, 'bad.enstegon');
    await writeFile(bad, 'nothing');
    const refused = await enstegon('check', bad);
    expect(refused.code).toBe(1);
    expect(refused.stdout).toBe('');
    expect(refused.stderr.trim()).toMatch(/^The file was not opened: [^\n]*\.$/);
    expect(await enstegon('check', path.join(folder, 'none'))).toMatchObject({ code: 1, stderr: expect.stringMatching(/can’t be read\.\n$/) });
  });

  it('reports finishes with what is ordered, and mouldings with their mitres', async () => {
    const finishes = JSON.parse((await enstegon('report', shell, '--what', 'finishes')).stdout) as { id: string; area: number; order: string; cost: number }[];
    expect(finishes.find((f) => f.id === 'tile.glazed-white')).toMatchObject({ order: expect.stringMatching(/boxes$/), area: expect.any(Number) });
    const mouldings = JSON.parse((await enstegon('report', shell, '--what', 'mouldings')).stdout) as { kind: string; mitres: number; length: number }[];
    expect(mouldings.filter((m) => m.kind === 'skirting').every((m) => m.length > 5 && m.mitres >= 4)).toBe(true);
  });

  it('lists what ships: every card with the traits and parts it has, every finish with its supplier', async () => {
    const stock = JSON.parse((await enstegon('list', '--what', 'stock')).stdout) as {
      card: string;
      maker: string;
      traits: string;
      parts: string;
      width: number;
    }[];
    expect(stock.length).toBeGreaterThan(50);
    expect(stock.find((s) => s.card === 'stool-bar')).toMatchObject({
      maker: 'stool',
      width: 0.38,
      traits: 'shape: round; seat: wood; base: four legs',
      parts: 'board; frame',
    });
    const csv = (await enstegon('list', '--what', 'finishes', '--as', 'csv')).stdout.trim().split('\n');
    expect(csv[0].trim()).toBe('id,name,category,supplier,code,unit,price');
    expect(csv.length).toBeGreaterThan(100);
    expect((await enstegon('list', '--what', 'moons')).code).not.toBe(0);
  });

  it('reports rooms as CSV and JSON', async () => {
    const csv = await enstegon('report', shell, '--what', 'rooms', '--as', 'csv');
    expect(csv.stdout.split('\r\n')).toHaveLength(11);
    const rooms = JSON.parse((await enstegon('report', shell, '--what', 'rooms')).stdout) as { name: string; area: number }[];
    expect(rooms.find((r) => r.name === 'Kitchen & dining')!.area).toBeCloseTo(25.92, 6);
    expect((await enstegon('report', shell, '--what', 'moons')).code).not.toBe(0);
    const openings = JSON.parse((await enstegon('report', shell, '--what', 'openings')).stdout) as { name: string; clear: number; kind: string }[];
    expect(openings).toHaveLength(23);
    expect(openings.find((o) => o.name === 'Living door')!.clear).toBeCloseTo(0.798, 6);
    const walls = async (phase: string): Promise<{ status: string; type: string }[]> =>
      JSON.parse((await enstegon('report', shell, '--what', 'walls', '--phase', phase)).stdout) as { status: string; type: string }[];
    expect((await walls('before')).filter((w) => w.status === 'removed')).toHaveLength(1);
    expect((await walls('after')).filter((w) => w.type === 'Cavity wall')).toHaveLength(8);
    const stairs = JSON.parse((await enstegon('report', shell, '--what', 'stairs')).stdout) as { name: string; risers: number }[];
    expect(stairs.find((s) => s.name === 'Stair')!.risers).toBe(14);
    expect((await enstegon('report', shell, '--what', 'timber', '--as', 'csv')).stdout).toContain('rafter');
  });

  it('exports a GLB and renders a picture', async () => {
    // The demo’s own GLB and pictures are looked into elsewhere; here a bare house will do.
    const bare = edit(
      house([
        [0, 0],
        [6, 0],
        [6, 4],
        [0, 4],
      ]),
      'viewpoint.add',
      { id: 'v', name: 'Living room', eye: { x: 1, y: 1, z: 1.5 }, target: { x: 5, y: 3, z: 1 }, fov: 1 },
    );
    const file = path.join(folder, 'bare.enstegon');
    await writeFile(file, writeProjectFile(bare, []));
    const glb = path.join(folder, 'demo.glb');
    expect((await enstegon('export', file, '--to', 'glb', '--out', glb)).code).toBe(0);
    expect((await new WebIO().readBinary(new Uint8Array(await readFile(glb)))).getRoot().listMeshes().length).toBeGreaterThan(5);
    const png = path.join(folder, 'view.png');
    expect((await enstegon('render', file, '--view', 'Living room', '--size', '64x40', '--samples', '1', '--out', png)).code).toBe(0);
    const { width, height } = await sharp(png).metadata();
    expect([width, height]).toEqual([64, 40]);
    const refused = await enstegon('render', file, '--view', 'Attic', '--size', '64x40', '--samples', '1', '--out', png);
    expect(refused).toMatchObject({ code: 1, stdout: '', stderr: expect.stringMatching(/^There is no viewpoint “Attic”.*\.\n$/) });
  });

  it('renders a picture for print in bands, with its light at full size and its passes smaller', async () => {
    // An eye that looks at the ground: hardly anything is to be traced.
    const bare = edit(emptyProject('p', 'P'), 'viewpoint.add', { id: 'v', name: 'Ground', eye: { x: 0, y: 0, z: 2 }, target: { x: 0.5, y: 0, z: 0 }, fov: 1 });
    const file = path.join(folder, 'ground.enstegon');
    await writeFile(file, writeProjectFile(bare, []));
    const of = (name: string): string => path.join(folder, name);
    const size = '2080x1136';
    const files = ['--out', of('print.png'), '--exr', of('print.exr'), '--hdr', of('print.hdr')];
    expect(await enstegon('render', file, '--view', 'Ground', '--size', size, '--samples', '1', '--grain', ...files)).toMatchObject({ code: 0, stderr: '' });
    expect(await sharp(of('print.png')).metadata()).toMatchObject({ width: 2080, height: 1136 });
    const light = readExr(new Uint8Array(await readFile(of('print.exr'))));
    expect([light.width, light.height, light.channels.map((c) => c.name).join()]).toEqual([2080, 1136, 'A,B,G,R']);
    const hdr = readHdr(new Uint8Array(await readFile(of('print.hdr'))));
    const green = light.channels.find((c) => c.name === 'G')!.data;
    for (let i = 0; i < green.length; i += 9973) expect(Math.abs(hdr.radiance[i * 3 + 1] / (green[i] * 1000) - 1)).toBeLessThan(0.01);
    const passes = readExr(new Uint8Array(await readFile(of('print-passes.exr'))));
    expect(passes.width * passes.height).toBeLessThanOrEqual(2.3e6);
    expect(passes.channels.map((c) => c.name)).toContain('N.Z');
    const refused = await enstegon('render', file, '--view', 'Ground', '--size', '12000x8000', '--out', of('x.png'));
    expect(refused).toMatchObject({ code: 1, stderr: expect.stringMatching(/at most 60 million/) });
  });
});
