import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import fc from 'fast-check';
import sharp, { type Sharp } from 'sharp';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { writeExr } from '@/core/formats/exr/exr';
import { writeHdr } from '@/core/formats/hdr/hdr';
import { readPng, writePng } from '@/core/formats/png';
import { DomainError } from '@/core/project/errors';
import { MAX_PIXELS } from '../config';
import type { PictureFacts } from '../store/files';
import { lookThrough, sniff } from './pictures';

let folder: string;
beforeEach(async () => {
  folder = await mkdtemp(path.join(os.tmpdir(), 'enstegon-pictures-'));
});
afterEach(() => rm(folder, { recursive: true, force: true }));

const take = async (bytes: Uint8Array): Promise<PictureFacts> => {
  await writeFile(path.join(folder, 'in'), bytes);
  return lookThrough(path.join(folder, 'in'), path.join(folder, 'out'));
};
const refusal = async (bytes: Uint8Array): Promise<string> => {
  const error: unknown = await take(bytes).then(
    () => null,
    (e: unknown) => e,
  );
  expect(error).toBeInstanceOf(DomainError);
  return (error as DomainError).message;
};

/** Left half red, right half green. */
const halves = (width = 40, height = 20): Sharp =>
  sharp(Buffer.from(Array.from({ length: width * height }, (_, i) => (i % width < width / 2 ? [220, 20, 20] : [20, 200, 20])).flat()), {
    raw: { width, height, channels: 3 },
  });
const colourAt = async (file: string, x: number, y: number): Promise<number[]> => [
  ...(await sharp(file).removeAlpha().extract({ left: x, top: y, width: 1, height: 1 }).raw().toBuffer()),
];

/** Light in OpenEXR, as pictures keep it. */
const light = (width = 20, height = 10): Buffer =>
  Buffer.from(
    writeExr({
      width,
      height,
      channels: ['R', 'G', 'B', 'light1.R'].map((name, i) => ({ name, type: 'half', data: new Float32Array(width * height).fill(i + 1) })),
      notes: {},
    }),
  );

describe('a picture that is taken in', () => {
  it('may be light in OpenEXR, which is kept as it is, and refused where it is damaged', async () => {
    expect(await take(light())).toMatchObject({ mime: 'image/x-exr', width: 20, height: 10 });
    expect(sniff(light())).toBe('exr');
    for (const cut of [9, 60, 200]) expect(await refusal(light().subarray(0, light().length - cut))).toMatch(/damaged or ends too early/);
  });

  it('is kept byte for byte where it is plain', async () => {
    for (const bytes of [writePng(new Uint8Array(16).fill(200), 2, 2), await halves().jpeg().toBuffer()]) {
      const facts = await take(bytes);
      expect(await readFile(facts.file)).toEqual(Buffer.from(bytes));
      expect(facts.bytes).toBe(bytes.length);
    }
    expect(await take(writeHdr(new Float32Array(12).fill(3), 2, 2))).toMatchObject({ mime: 'image/vnd.radiance', width: 2, height: 2 });
  });

  it('is turned upright, and says nothing of place, camera or maker any more', async () => {
    const photo = await halves()
      .withExif({ IFD0: { Make: 'A maker', Copyright: 'Somebody' }, IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '52/1 30/1 0/1' } })
      .withMetadata({ orientation: 6 })
      .jpeg({ quality: 95 })
      .toBuffer();
    expect((await sharp(photo).metadata()).exif).toBeDefined();
    const facts = await take(photo);
    // A quarter turn clockwise: the left half lies on top.
    expect([facts.width, facts.height]).toEqual([20, 40]);
    const after = await sharp(facts.file).metadata();
    expect([after.exif, after.orientation, after.icc]).toEqual([undefined, undefined, undefined]);
    const [top, bottom] = [await colourAt(facts.file, 10, 5), await colourAt(facts.file, 10, 34)];
    expect(top[0]).toBeGreaterThan(200);
    expect(bottom[1]).toBeGreaterThan(180);
    expect((await readFile(facts.file)).includes('A maker')).toBe(false);
  });

  it('has its wide or printing colours made sRGB', async () => {
    // Pure green of Display P3 lies outside sRGB: read as if it were sRGB it would stay as it is; converted, red and blue fall to the bound.
    const wide = await sharp({ create: { width: 8, height: 8, channels: 3, background: { r: 120, g: 180, b: 90 } } })
      .withIccProfile('p3')
      .png()
      .toBuffer();
    const { data: stored } = readPng(new Uint8Array(await sharp(wide).keepIccProfile().png().toBuffer()));
    const facts = await take(wide);
    expect((await sharp(facts.file).metadata()).icc).toBeUndefined();
    const colour = await colourAt(facts.file, 4, 4);
    // The colour that was meant, not the numbers it was stored with.
    [120, 180, 90].forEach((v, i) => expect(Math.abs(colour[i] - v)).toBeLessThanOrEqual(2));
    expect([...stored.slice(0, 3)]).not.toEqual([120, 180, 90]);

    const printed = await sharp({ create: { width: 8, height: 8, channels: 3, background: { r: 200, g: 40, b: 40 } } })
      .toColourspace('cmyk')
      .withIccProfile('cmyk')
      .jpeg({ quality: 98 })
      .toBuffer();
    expect((await sharp(printed).metadata()).space).toBe('cmyk');
    const plain = await take(printed);
    expect((await sharp(plain.file).metadata()).space).toBe('srgb');
    const red = await colourAt(plain.file, 4, 4);
    expect(red[0]).toBeGreaterThan(150);
    expect(Math.max(red[1], red[2])).toBeLessThan(90);
  });

  it('becomes 8 bits of one PNG that every later reader knows, whatever it was', async () => {
    for (const bytes of [
      await halves().png({ palette: true }).toBuffer(),
      await halves().png({ progressive: true }).toBuffer(),
      await halves().toColourspace('rgb16').png().toBuffer(),
      await halves().tiff().toBuffer(),
    ]) {
      const facts = await take(bytes);
      expect(facts.mime).toBe('image/png');
      const { width, height, channels, data } = readPng(new Uint8Array(await readFile(facts.file)));
      expect([width, height, data.length]).toEqual([40, 20, 40 * 20 * channels]);
      expect(Math.abs(data[0] - 220)).toBeLessThan(4);
    }
    for (const bytes of [await halves().webp().toBuffer(), await halves().avif().toBuffer()])
      expect(await take(bytes)).toMatchObject({ mime: 'image/jpeg', width: 40 });
  });

  it('is refused in one sentence where it is cut short, anywhere', async () => {
    const noise = Buffer.from(Array.from({ length: 64 * 64 * 3 }, (_, i) => (i * 7919) % 251));
    const whole = {
      png: await sharp(noise, { raw: { width: 64, height: 64, channels: 3 } })
        .png()
        .toBuffer(),
      jpeg: await sharp(noise, { raw: { width: 64, height: 64, channels: 3 } })
        .jpeg()
        .toBuffer(),
      hdr: Buffer.from(writeHdr(new Float32Array(64 * 64 * 3).fill(2), 64, 64)),
    };
    for (const bytes of Object.values(whole))
      for (const share of [0.02, 0.1, 0.5, 0.9])
        expect(await refusal(bytes.subarray(0, Math.max(30, Math.floor(bytes.length * share))))).toMatch(/^The picture was not kept: .*\.$/);
    expect(await refusal(whole.png.subarray(0, 60))).toMatch(/damaged or ends too early/);
  });

  it('is refused where it would take gigabytes to look at, by what its head says', async () => {
    const side = Math.ceil(Math.sqrt(MAX_PIXELS)) + 50;
    const huge = await sharp({ create: { width: side, height: side, channels: 3, background: '#888' }, limitInputPixels: false } as never)
      .png({ compressionLevel: 9 })
      .toBuffer();
    expect(huge.length).toBeLessThan(2e6);
    expect(await refusal(huge)).toMatch(/more than 100 million pixels/);
    const head = new TextEncoder().encode('#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n-Y 60000 +X 60000\n');
    expect(await refusal(new Uint8Array([...head, ...new Uint8Array(100)]))).toMatch(/million pixels/);
  });

  it('is refused plainly where it is no picture, or one that can’t be read here', async () => {
    expect(await refusal(Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>'))).toMatch(/only PNG, JPEG/);
    expect(await refusal(Buffer.from('\0\0\0\x18ftypheic\0\0\0\0mif1heic', 'latin1'))).toMatch(/HEIC photos can’t be read here; save it as JPEG first/);
    expect(sniff(new Uint8Array())).toBeNull();
  });

  it('never ends in anything but a file or a sentence, whatever its bytes', async () => {
    const seeds = [
      await halves().png().toBuffer(),
      await halves().jpeg().toBuffer(),
      Buffer.from(writeHdr(new Float32Array(600).fill(2), 20, 10)),
      await halves().webp().toBuffer(),
    ];
    await fc.assert(
      fc.asyncProperty(fc.nat(3), fc.array(fc.tuple(fc.nat(5000), fc.nat(255)), { minLength: 1, maxLength: 6 }), async (which, changes) => {
        const bytes = Buffer.from(seeds[which]);
        for (const [at, value] of changes) bytes[at % bytes.length] = value;
        await take(bytes).catch((error: unknown) => expect(error).toBeInstanceOf(DomainError));
      }),
      { numRuns: 150 },
    );
  });
});
