import { beforeEach, describe, expect, it, vi } from 'vitest';
import { readExr } from '@/core/formats/exr/exr';
import { packPrint, passesOf, printStart, readLight } from '@/core/formats/light-file';
import { readPng } from '@/core/formats/png';
import { contentHash } from '@/core/formats/project-file/project-file';
import { runChange, type Change } from '@/core/project/commands';
import { FIRST_LOOK } from '@/core/project/looks';
import { isOld } from '@/core/project/picture-state';
import { emptyProject, type Project, type Shot } from '@/core/project/schema';
import type { OnSheet } from '@/core/render/orders';
import { smallSize } from '@/core/render/large';
import type { Stamp } from '@/core/render/trace-job';
import { keepPart, keepPicture, type KeptPicture as Finished } from './keep';

/** The server and the window, as far as a picture meets them. */
const files = new Map<string, Uint8Array>();
const projects = new Map<string, { seq: number; project: Project }>();
let open: string | null = null;
let refusal: string | null = null;
/** How often another window is quicker. */
let races = 0;

const take = (id: string, change: Change): void => {
  const kept = projects.get(id)!;
  projects.set(id, { seq: kept.seq + 1, project: runChange(kept.project, change).project });
};

vi.mock('../store/api', () => ({
  ApiError: class extends Error {},
  api: {
    keepFile: async (blob: Blob) => {
      const bytes = new Uint8Array(await blob.arrayBuffer());
      files.set(contentHash(bytes), bytes);
      return contentHash(bytes);
    },
    file: (hash: string) => Promise.resolve(files.get(hash)!),
    blob: (hash: string) => Promise.resolve(new Blob([files.get(hash)! as Uint8Array<ArrayBuffer>])),
    load: (id: string) => (projects.has(id) ? Promise.resolve(projects.get(id)) : Promise.reject(new Error('This project is not here.'))),
    append: (id: string, base: number, changes: Change[]) => {
      if (races > 0) {
        races--;
        take(id, { id: `other${races}xx`, kind: 'do', command: 'project.rename', args: { name: `Other ${races}` } });
      }
      const { seq } = projects.get(id)!;
      if (base !== seq) return Promise.resolve({ ok: false, seq, changes: [] });
      for (const change of changes) take(id, change);
      return Promise.resolve({ ok: true, seq: seq + changes.length });
    },
  },
}));
let number = 0;
vi.mock('../store/studio', () => ({
  newId: (prefix: string) => `${prefix}-${number++}`,
  isOpen: (id: string) => open === id,
  useStudio: {
    getState: () => ({
      project: projects.get(open!)!.project,
      notice: refusal,
      run: (command: Change['command'], args: unknown) => {
        if (refusal) return false;
        take(open!, { id: `window${number++}`, kind: 'do', command, args });
        return true;
      },
    }),
  },
}));

const stamp: Stamp = { project: 'begun', scheme: 'scheme-1', name: 'Kitchen', viewpoint: 'view-a' };
const begun = emptyProject('begun', 'begun');
const eye = { x: 0, y: 0, z: 1 };
const shot: Shot = {
  looking: { look: FIRST_LOOK, eye, level: null, room: null, afoot: true },
  camera: { eye, target: { x: 1, y: 0, z: 1 }, fov: 1, aperture: null, focus: null },
  round: false,
};
const order = { stamp, project: begun, shot, width: 16, height: 16, sheet: null };
const finished: Finished = {
  radiance: Float32Array.from({ length: 16 * 16 * 3 }, (_, i) => 50 + i),
  samples: 8,
  exposure: 7,
  white: 5500,
  shares: [],
  noise: 0.03,
  print: null,
  passes: { guides: new Float32Array(16 * 16 * 6), depth: new Float32Array(16 * 16), cover: new Float32Array(16 * 16).fill(1) },
};
const pictures = (id: string) => Object.values(projects.get(id)!.project.pictures);

beforeEach(() => {
  files.clear();
  projects.clear();
  [refusal, races] = [null, 0];
  for (const id of ['begun', 'other']) projects.set(id, { seq: 0, project: emptyProject(id, id) });
  take('begun', {
    id: 'viewpoint1',
    kind: 'do',
    command: 'viewpoint.add',
    args: { id: 'view-a', name: 'A', eye: { x: 0, y: 0, z: 1 }, target: { x: 1, y: 0, z: 1 }, fov: 1, look: null },
  });
  open = 'begun';
});

describe('a finished picture', () => {
  it('is kept in the open project, with radiance and image as two files', async () => {
    await keepPicture(order, finished);
    const [picture] = pictures('begun');
    expect(picture).toMatchObject({
      name: 'Kitchen',
      viewpoint: 'view-a',
      scheme: 'scheme-1',
      samples: 8,
      exposure: 7,
      white: 5500,
      width: 16,
      height: 16,
      shot,
      noise: 0.03,
    });
    // What it was made of is known: it is not old until that changes.
    expect(isOld(picture, projects.get('begun')!.project)).toBe(false);
    const back = readLight(files.get(picture.radiance)!);
    expect([back.width, back.height]).toEqual([16, 16]);
    back.radiance.forEach((v, i) => expect(Math.abs(v - finished.radiance[i])).toBeLessThan(finished.radiance[i] / 60));
    expect(readPng(files.get(picture.image)!)).toMatchObject({ width: 16, height: 16 });
    await keepPicture(order, finished);
    expect(
      pictures('begun')
        .map((p) => p.name)
        .sort(),
    ).toEqual(['Kitchen', 'Kitchen 2']);
  });

  it.each([
    ['another project is open', 'other'],
    ['none is open', null],
  ])('goes to the project it was begun in when %s', async (_, now) => {
    open = now;
    await keepPicture(order, finished);
    expect(pictures('begun')).toHaveLength(1);
    expect(pictures('other')).toHaveLength(0);
  });

  it('waits its turn where others change that project meanwhile, and says so where it never comes', async () => {
    open = null;
    races = 3;
    await keepPicture(order, finished);
    expect(pictures('begun')).toHaveLength(1);
    expect(projects.get('begun')!.project.name).toBe('Other 0');
    races = 100;
    await expect(keepPicture(order, finished)).rejects.toThrow(/being changed elsewhere/);
    expect(pictures('begun')).toHaveLength(1);
  });

  it('is not called kept where it was not', async () => {
    refusal = 'Nothing was changed: no.';
    await expect(keepPicture(order, finished)).rejects.toThrow('Nothing was changed: no.');
    [refusal, open] = [null, null];
    projects.delete('begun');
    await expect(keepPicture(order, finished)).rejects.toThrow(/not here/);
  });

  it('loses what is gone by then: its viewpoint, its scheme', async () => {
    open = 'begun';
    await keepPicture({ ...order, stamp: { ...stamp, viewpoint: 'gone', scheme: 'gone' } }, finished);
    expect(pictures('begun')[0]).toMatchObject({ viewpoint: null, scheme: null });
  });

  it('goes to its place on a sheet: a page of the board there is, or of one that comes with the first of them', async () => {
    const sheet = (index: number, page = 'page-hours'): OnSheet => ({ page, title: 'Kitchen, 12 May', index, count: 2, caption: index ? '12:00' : '10:00' });
    // In any order: one may have had to be made again.
    for (const index of [1, 0]) await keepPicture({ ...order, sheet: sheet(index) }, finished);
    const boards = () => Object.values(projects.get('begun')!.project.boards);
    expect(boards()).toHaveLength(1);
    const [board] = boards();
    expect(Object.values(board.pages).map((p) => p.name)).toEqual(['Kitchen, 12 May']);
    const items = Object.values(board.items);
    expect(items.filter((i) => i.kind === 'picture')).toHaveLength(2);
    expect(items.flatMap((i) => (i.kind === 'text' ? [i.text] : [])).sort()).toEqual(['10:00', '12:00', 'Kitchen, 12 May']);
    // Another sheet is another page of the same board, also where the project is not open here.
    open = null;
    for (const index of [0, 1]) await keepPicture({ ...order, sheet: sheet(index, 'page-other') }, finished);
    expect(boards()).toHaveLength(1);
    expect(Object.values(boards()[0].pages).map((p) => p.order)).toEqual([0, 1]);
    expect(Object.values(boards()[0].items).filter((i) => i.page === 'page-other')).toHaveLength(5);
  });
});

/** Light of one brightness all over. */
const even = (width: number, height: number, light: number): Finished => ({
  ...finished,
  radiance: new Float32Array(width * height * 3).fill(light),
  passes: { guides: new Float32Array(width * height * 6), depth: new Float32Array(width * height).fill(3), cover: new Float32Array(width * height).fill(1) },
});

describe('a part made again', () => {
  const region = { x: 0, y: 0, width: 12, height: 16 };
  const part = (id: string, of = region) => ({ stamp, part: { picture: id, region: of } });

  it('is put into its picture, whose lights stay as they are set, and into what else is known of it', async () => {
    await keepPicture(order, even(16, 16, 60));
    const [before] = pictures('begun');
    take('begun', { id: 'developed1', kind: 'do', command: 'picture.set', args: { picture: before.id, set: { warmth: 0.3 } } });
    const again = even(12, 16, 200);
    again.passes.depth.fill(9);
    await keepPart(part(before.id), again);
    const [after] = pictures('begun');
    expect(after).toMatchObject({ warmth: 0.3, white: 5500, name: 'Kitchen', samples: 8, full: null });
    const bytes = files.get(after.radiance)!;
    const { radiance } = readLight(bytes);
    const { depth } = passesOf(bytes, 16, 16)!;
    expect([radiance[0], depth[0]].map(Math.round)).toEqual([200, 9]);
    expect([radiance.at(-1)!, depth.at(-1)!].map(Math.round)).toEqual([60, 3]);
    // Towards the side that lies within the picture one passes over into the other.
    expect(radiance[11 * 3]).toBeLessThan(100);
    const { data, channels } = readPng(files.get(after.image)!);
    expect(data[0]).toBeGreaterThan(data[15 * channels]);
  });

  it('has nowhere to go where its picture is gone', async () => {
    await expect(keepPart(part('gone'), even(12, 16, 200))).rejects.toThrow('The picture it is a part of is gone.');
  });

  it('of a picture for print goes into its full light and its small picture alike', async () => {
    const size = { width: 2000, height: 1200 };
    const small = smallSize(size);
    const light = { radiance: new Float32Array(size.width * size.height * 3).fill(60), cover: new Float32Array(size.width * size.height).fill(1) };
    const { bytes, sizes } = packPrint(size, 0, light.radiance, light.cover);
    const print = new Blob([printStart(size, sizes), bytes]);
    await keepPicture({ ...order, ...size }, { ...even(small.width, small.height, 60), print });
    const [kept] = pictures('begun');
    expect(kept).toMatchObject(size);
    expect(readLight(files.get(kept.radiance)!)).toMatchObject(small);
    expect(readPng(files.get(kept.image)!)).toMatchObject(small);
    const where = { x: 1000, y: 600, width: 400, height: 200 };
    await keepPart(part(kept.id, where), even(400, 200, 240));
    const [after] = pictures('begun');
    expect(after.full).not.toBe(kept.full);
    const green = readExr(files.get(after.full!)!).channels.find((c) => c.name === 'G')!.data;
    const own = readLight(files.get(after.radiance)!).radiance;
    const k = small.width / size.width;
    for (const [x, y, want] of [
      [1200, 700, 240],
      [900, 700, 60],
      [1200, 900, 60],
    ]) {
      expect(Math.round(green[y * size.width + x] * 1000)).toBeCloseTo(want, -1);
      expect(Math.round(own[(Math.floor(y * k) * small.width + Math.floor(x * k)) * 3 + 1])).toBeCloseTo(want, -1);
    }
  });
});
