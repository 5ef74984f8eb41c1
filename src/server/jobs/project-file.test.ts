import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { strToU8, zipSync } from 'fflate';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { heronLockCottage } from '@/core/demo/heron-lock';
import { writeHdr } from '@/core/formats/hdr/hdr';
import { writePng } from '@/core/formats/png';
import { contentHash, projectJson, renameAssets, writeProjectFile } from '@/core/formats/project-file/project-file';
import { picturedProject } from '@/core/formats/project-file/testing';
import { DomainError } from '@/core/project/errors';
import { emptyProject } from '@/core/project/schema';
import { LIMITS } from '../config';
import { ProjectZip, readProjectFile } from './project-file';

let folder: string;
beforeEach(async () => {
  folder = await mkdtemp(path.join(os.tmpdir(), 'enstegon-zip-'));
});
afterEach(() => rm(folder, { recursive: true, force: true }));

const refusal = async (work: Promise<unknown>): Promise<string> => {
  const error: unknown = await work.then(
    () => null,
    (e: unknown) => e,
  );
  expect(error).toBeInstanceOf(DomainError);
  expect((error as DomainError).message).toMatch(/^The (file|project) [^.]+.*\.$/);
  return (error as DomainError).message;
};

const png = writePng(new Uint8Array([255, 0, 0, 255]), 1, 1);
const hdr = writeHdr(new Float32Array([1, 2, 3]), 1, 1);
const pictured = picturedProject('P', contentHash(png), contentHash(hdr));
const assets = [png, hdr].map((bytes) => ({ hash: contentHash(bytes), bytes }));
const plain = strToU8(projectJson(emptyProject('p', 'P')));

/** Where the central directory of a zip begins, and how many entries it lists. */
const directory = (zip: Uint8Array): { at: number; count: number; view: DataView } => {
  const view = new DataView(zip.buffer, zip.byteOffset, zip.length);
  return { at: view.getUint32(zip.length - 6, true), count: view.getUint16(zip.length - 12, true), view };
};

describe('a project file', () => {
  it('comes back as it was, with its pictures', async () => {
    const project = heronLockCottage();
    expect((await readProjectFile(writeProjectFile(project, []))).project).toEqual(project);
    const file = path.join(folder, 'p.enstegon');
    await writeFile(file, writeProjectFile(pictured, assets));
    const back = await readProjectFile(file);
    expect(back.project).toEqual(pictured);
    expect(back.assets.map((a) => contentHash(a.bytes))).toEqual(back.assets.map((a) => a.hash));
  });

  it('notices a damaged picture, a missing one, and bytes that were changed', async () => {
    const swapped = zipSync({ 'project.json': strToU8(projectJson(pictured)), [`assets/${assets[0].hash}`]: hdr, [`assets/${assets[1].hash}`]: hdr });
    expect(await refusal(readProjectFile(swapped))).toMatch(/damaged/);
    expect(await refusal(readProjectFile(writeProjectFile(pictured, assets.slice(0, 1))))).toMatch(/missing/);
    const whole = writeProjectFile(heronLockCottage(), []);
    for (const share of [0.2, 0.5, 0.8]) {
      const changed = whole.slice();
      changed[Math.floor(changed.length * share)] ^= 0x55;
      expect(await refusal(readProjectFile(changed))).toMatch(/damaged/);
      expect(await refusal(readProjectFile(whole.subarray(0, Math.floor(whole.length * share))))).toMatch(/not a project file/);
    }
  });

  it('is refused where it is no zip, or holds no project', async () => {
    expect(await refusal(readProjectFile(strToU8('not a zip')))).toMatch(/not a project file/);
    expect(await refusal(readProjectFile(new Uint8Array()))).toMatch(/not a project file/);
    expect(await refusal(readProjectFile(zipSync({ 'other.txt': strToU8('x') })))).toMatch(/no project\.json/);
    expect(await refusal(readProjectFile(zipSync({ 'project.json': strToU8('{"format":') })))).toMatch(/not valid JSON/);
  });

  it('inflates nothing it does not need, and no further than is said and allowed', async () => {
    // A gigabyte of zeros beside the project is left alone.
    const bomb = new Uint8Array(32 * 1024 * 1024);
    const beside = zipSync({ 'project.json': plain, 'assets/bomb': [bomb, { level: 9 }] });
    expect((await readProjectFile(beside)).project.name).toBe('P');
    // The project itself as one is refused by what it declares,
    const large = zipSync({ 'project.json': [new Uint8Array(LIMITS.projectJson + 1).fill(32), { level: 9 }] });
    expect(large.length).toBeLessThan(100_000);
    expect(await refusal(readProjectFile(large))).toMatch(/larger than 32 MB/);
    // and, where it declares less than it holds, where that ends.
    const liar = large.slice();
    const { at, view } = directory(liar);
    new DataView(liar.buffer).setUint32(at + 24, 1000, true);
    expect(view.getUint32(at, true)).toBe(0x02014b50);
    expect(await refusal(readProjectFile(liar))).toMatch(/damaged|larger than it says/);
  });

  it('has so many entries and no more, each once, and each its own bytes', async () => {
    const many = Object.fromEntries(Array.from({ length: LIMITS.entries + 1 }, (_, i) => [`a${i}`, new Uint8Array()]));
    expect(await refusal(readProjectFile(zipSync({ 'project.json': plain, ...many })))).toMatch(/too many entries \(5002; a project file has at most 5000\)/);
    // Entries of the directory that all point at one stream.
    const one = zipSync({ 'project.json': plain, 'assets/0000': [new Uint8Array(200_000).map((_, i) => (i * 7919) >> 3), { level: 6 }] });
    const { at, count, view } = directory(one);
    let start = at;
    for (let i = 1; i < count; i++) start += 46 + view.getUint16(start + 28, true) + view.getUint16(start + 30, true) + view.getUint16(start + 32, true);
    const entry = one.slice(start, one.length - 22);
    const copies = Array.from({ length: 50 }, (_, i) => {
      const copy = entry.slice();
      copy.set(strToU8(String(1000 + i)), 46 + 'assets/'.length);
      return copy;
    });
    const end = one.slice(one.length - 22);
    const endView = new DataView(end.buffer);
    for (const field of [8, 10]) endView.setUint16(field, count + copies.length, true);
    endView.setUint32(12, one.length - 22 - at + entry.length * copies.length, true);
    const overlapping = new Uint8Array([...one.subarray(0, one.length - 22), ...copies.flatMap((c) => [...c]), ...end]);
    expect(await refusal(readProjectFile(overlapping))).toMatch(/lie over one another/);
  });

  it('gives its pictures to files one by one', async () => {
    const zip = await ProjectZip.open(writeProjectFile(pictured, assets));
    for (const { hash } of assets) expect(path.basename(await zip.extract(hash, folder))).toBe(hash);
    await expect(zip.extract('f'.repeat(64), folder)).rejects.toThrow(/missing/);
    zip.close();
  });

  it('names other files where pictures became other ones', () => {
    const renamed = renameAssets(pictured, new Map([[assets[0].hash, 'e'.repeat(64)]]));
    expect(renamed.pictures.a).toMatchObject({ image: 'e'.repeat(64), radiance: assets[1].hash });
    expect(pictured.pictures.a.image).toBe(assets[0].hash);
  });
});
