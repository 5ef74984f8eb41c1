import { mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { unzipSync } from 'fflate';
import { PDFDocument, PDFName, PDFRawStream } from 'pdf-lib';
import sharp from 'sharp';
import { FloatType } from 'three';
import { EXRLoader } from 'three/examples/jsm/loaders/EXRLoader.js';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readExr } from '@/core/formats/exr/exr';
import { readHdr, writeHdr } from '@/core/formats/hdr/hdr';
import { packPrint, printStart, writeLight } from '@/core/formats/light-file';
import { contentHash } from '@/core/formats/project-file/project-file';
import { Board, emptyProject, Picture } from '@/core/project/schema';
import { developed } from '@/core/render/development';
import { filePlace } from '../store/files';
import { exportPdf, exportPng } from './exports';
import { handedPicture } from './handed-picture';
import type { PictureKind } from './picture-kinds';

const [width, height] = [64, 32];
const n = width * height;
let folder = '';
let picture: Picture;

const keep = async (bytes: Uint8Array): Promise<string> => {
  const hash = contentHash(bytes);
  const file = filePlace(folder, hash);
  await mkdir(path.dirname(file), { recursive: true });
  await writeFile(file, bytes);
  return hash;
};

/** A picture whose left half is built, lit by two lamps as strong as each other. */
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'handed-'));
  const left = (k: number): boolean => k % width < width / 2;
  const radiance = Float32Array.from({ length: n * 3 }, (_, i) => 40 + (i % 3) * 20);
  const shares = ['Lamps, Kitchen & hall', 'Sky'].map((name) => ({ name, kelvin: 3000, share: new Float32Array(n * 3).fill(0.5) }));
  const passes = {
    guides: new Float32Array(n * 6).fill(0.5),
    depth: Float32Array.from({ length: n }, (_, k) => (left(k) ? 2.5 : Infinity)),
    cover: Float32Array.from({ length: n }, (_, k) => (left(k) ? 1 : 0)),
    objects: { ids: Uint32Array.from({ length: n }, (_, k) => (left(k) ? 2 : 0)), names: ['Fence', 'Dresser'] },
  };
  const eye = { x: 0, y: 0, z: 1.6 };
  picture = Picture.parse({
    id: 'p',
    name: 'Kitchen',
    viewpoint: null,
    width,
    height,
    samples: 8,
    exposure: 6,
    lights: [{ name: 'Sky', level: -8, kelvin: null }],
    radiance: await keep(writeLight({ width, height, radiance, shares }, passes)),
    image: await keep(
      await sharp({ create: { width, height, channels: 3, background: '#8a6040' } })
        .png()
        .toBuffer(),
    ),
    made: '2026-01-01',
    shot: {
      looking: {
        look: { projection: 'perspective', mode: 'finishes', cut: false, section: null, hidden: [], through: [] },
        eye,
        level: null,
        room: null,
        afoot: true,
      },
      camera: { eye, target: { x: 1, y: 0, z: 1.6 }, fov: 1, aperture: null, focus: null },
      round: true,
    },
  });
});
afterAll(() => rm(folder, { recursive: true, force: true }));

const handed = (as: PictureKind, own = picture): Promise<Uint8Array> => handedPicture(own, as, 240, folder);

describe('a picture that is handed over', () => {
  it.each(['png', 'jpeg'] as const)('as %s says its colours and how large it is on paper', async (as) => {
    const facts = await sharp(await handed(as)).metadata();
    expect(facts).toMatchObject({ width, height, density: 240, hasProfile: true, channels: 3 });
    // Its names are of two bytes a letter.
    expect(Buffer.from(facts.icc!).toString('latin1').replaceAll('\0', '')).toMatch(/sRGB/);
  });

  it('without ground is clear where nothing is built', async () => {
    const { data, info } = await sharp(await handed('clear'))
      .raw()
      .toBuffer({ resolveWithObject: true });
    expect(info.channels).toBe(4);
    for (let k = 0; k < n; k++) expect(data[k * 4 + 3]).toBe(k % width < width / 2 ? 255 : 0);
    // As it is developed: the sky is off, half of the light is left.
    expect(data[0]).toBeGreaterThan(0);
    const old = { ...picture, radiance: contentHash(writeHdr(new Float32Array(n * 3), width, height)) };
    await mkdir(path.dirname(filePlace(folder, old.radiance)), { recursive: true });
    await writeFile(filePlace(folder, old.radiance), writeHdr(new Float32Array(n * 3), width, height));
    await expect(handed('clear', old)).rejects.toThrow(/was not kept with it; render it again/);
  });

  it('as light holds what is left of it with its lamps as they are set', async () => {
    const { radiance } = readHdr(await handed('hdr'));
    [20, 30, 40].forEach((v, c) => expect(Math.abs(radiance[c] - v)).toBeLessThan(0.5));
  });

  it('as OpenEXR is read by another reader, with every light and pass', async () => {
    const bytes = await handed('exr');
    // The reader takes the main channels: red, green, blue and clear.
    const read = new EXRLoader().setDataType(FloatType).parse(bytes.slice().buffer) as { width: number; height: number; data: Float32Array };
    expect([read.width, read.height]).toEqual([width, height]);
    expect([...read.data.subarray(0, 3)].map((v) => Math.round(v * 1000))).toEqual([20, 30, 40]);
    const head = Buffer.from(bytes.subarray(0, 1200)).toString('latin1');
    for (const name of ['Lamps_Kitchen_hall.R', 'Sky.B', 'albedo.G', 'N.X', 'Z', 'A', 'object']) expect(head).toContain(`${name}\0`);
    // What each pixel shows is a number of its own, and the file says whose.
    const { channels, notes } = readExr(bytes);
    const mask = channels.find((c) => c.name === 'object')!.data;
    expect([mask[0], mask[width - 1], JSON.parse(notes.objects) as string[]]).toEqual([2, 0, ['Fence', 'Dresser']]);
  });

  it('all round comes as six sides and as a page of one file', async () => {
    const sides = unzipSync(await handed('sides'));
    expect(Object.keys(sides).sort()).toEqual(['back.png', 'down.png', 'front.png', 'left.png', 'right.png', 'up.png']);
    expect(await sharp(sides['front.png']).metadata()).toMatchObject({ width: 16, height: 16 });
    const page = new TextDecoder().decode(await handed('round'));
    const [, jpeg] = /data:image\/jpeg;base64,([^"]+)"/.exec(page)!;
    expect(await sharp(Buffer.from(jpeg, 'base64')).metadata()).toMatchObject({ format: 'jpeg', width, height });
    const flat = { ...picture, shot: { ...picture.shot!, round: false } };
    await expect(handed('sides', flat)).rejects.toThrow(/not one all round/);
  });

  /** A picture for print, its upper rows half as bright as its lower ones; its left half is built. */
  async function forPrint(): Promise<{ print: Picture; radiance: Float32Array }> {
    const size = { width: 640, height: 331 };
    const count = size.width * size.height;
    const radiance = Float32Array.from({ length: count * 3 }, (_, i) => (40 + (i % 3) * 20) * (i / 3 < 160 * 640 ? 1 : 2));
    const cover = Float32Array.from({ length: count }, (_, i) => (i % 640 < 320 ? 1 : 0));
    const { bytes, sizes } = packPrint(size, 0, radiance, cover);
    return { print: { ...picture, ...size, full: await keep(Buffer.concat([printStart(size, sizes), bytes])) }, radiance };
  }

  it('for print is developed at its full size, a few rows at a time, whatever it is handed over as', async () => {
    const { print, radiance } = await forPrint();
    // The sky is off: half of the light is left, as in the small picture.
    const want = (i: number, c: number): number => radiance[i * 3 + c] / 2;
    const [top, foot] = [10 * 640 + 5, 330 * 640 + 5];
    const hdr = readHdr(await handed('hdr', print));
    expect([hdr.width, hdr.height]).toEqual([640, 331]);
    for (const i of [top, foot]) for (let c = 0; c < 3; c++) expect(Math.abs(hdr.radiance[i * 3 + c] / want(i, c) - 1)).toBeLessThan(0.01);
    const read = new EXRLoader().setDataType(FloatType).parse((await handed('exr', print)).slice().buffer) as {
      width: number;
      height: number;
      data: Float32Array;
    };
    expect([read.width, read.height]).toEqual([640, 331]);
    // That reader has the lowest row first.
    expect(read.data[5 * 4] * 1000).toBeCloseTo(want(foot, 0), 0);
    const shown = developed(
      Float32Array.from({ length: 6 }, (_, k) => want(k < 3 ? top : foot, k % 3)),
      print,
    );
    for (const as of ['png', 'jpeg', 'clear'] as const) {
      const { data, info } = await sharp(await handed(as, print))
        .raw()
        .toBuffer({ resolveWithObject: true });
      expect([info.width, info.height, info.channels]).toEqual([640, 331, as === 'clear' ? 4 : 3]);
      for (const [k, i] of [top, foot].entries())
        for (let c = 0; c < 3; c++) expect(Math.abs(data[i * info.channels + c] - shown[k * 4 + c])).toBeLessThanOrEqual(as === 'jpeg' ? 3 : 1);
      if (as === 'clear') expect([data[3], data[639 * 4 + 3]]).toEqual([255, 0]);
    }
    // Its lamps and passes are those of the small picture.
    const passes = new EXRLoader().setDataType(FloatType).parse((await handed('passes', print)).slice().buffer) as { width: number };
    expect(passes.width).toBe(width);
    expect(Object.keys(unzipSync(await handed('sides', print)))).toHaveLength(6);
  });

  it('for print is as fine on a page as the page wants it, and its small picture where that is enough', async () => {
    const { print } = await forPrint();
    const item = { id: 'i', page: 'g', order: 0, kind: 'picture', picture: 'p', x: 0.01, y: 0.01, width: 0.1, height: 0.0517, shadow: false };
    const board = Board.parse({
      id: 'b',
      name: 'Board',
      paper: { width: 0.12, height: 0.08 },
      pages: { g: { id: 'g', name: 'Page', order: 0, ground: '#ffffff' } },
      items: { i: item },
    });
    const project = { ...emptyProject('p', 'P'), pictures: { p: print }, boards: { b: board } };
    const page = async (pixels: number): Promise<{ data: Buffer; at(x: number, y: number): number[] }> => {
      const { data, info } = await sharp(await exportPng(project, board, null, folder, undefined, pixels))
        .removeAlpha()
        .raw()
        .toBuffer({ resolveWithObject: true });
      return { data, at: (x, y) => [0, 1, 2].map((c) => data[(Math.round(y * info.height) * info.width + Math.round(x * info.width)) * 3 + c]) };
    };
    // Six hundred pixels across: from the full light, lower rows brighter.
    const fine = await page(720);
    expect(fine.at(0.5, 0.6)[0]).toBeGreaterThan(fine.at(0.5, 0.2)[0] + 20);
    // Fifty across: the small picture, which is of one colour.
    const coarse = await page(60);
    expect(coarse.at(0.5, 0.5)).toEqual([0x8a, 0x60, 0x40]);
    // On paper it has 300 dots an inch, or all it has: of 0.1 m it would be 1,181.
    const pdf = await PDFDocument.load(await exportPdf(project, board, folder));
    const widths = pdf.context
      .enumerateIndirectObjects()
      .flatMap(([, o]) =>
        o instanceof PDFRawStream && o.dict.get(PDFName.of('Subtype')) === PDFName.of('Image') ? [Number(o.dict.get(PDFName.of('Width')))] : [],
      );
    expect(widths).toEqual([640]);
  });
});
