import { createHash } from 'node:crypto';
import { mkdir, open, readFile, rename, rm, stat, unlink, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { DomainError } from '@/core/project/errors';
import type { Database } from './database';
import { passing, places } from './folder';

/** A picture as it is kept: its file, and what was found out when it was taken in. */
export interface PictureFacts {
  file: string;
  hash: string;
  mime: string;
  bytes: number;
  width: number;
  height: number;
}

/** Where a file lies in a data folder. */
export const filePlace = (folder: string, hash: string): string => path.join(places(folder).files, hash.slice(0, 2), hash);

const missing = (): DomainError => new DomainError('asset.missing', 'The file is not here.', []);

/** Where a file of a project lies. @throws DomainError `asset.missing` */
export async function keptFile(folder: string, hash: string): Promise<string> {
  const file = filePlace(folder, hash);
  if (await stat(file).catch(() => null)) return file;
  throw new DomainError('asset.missing', `Nothing was made: a picture of the project is not here any more (${hash.slice(0, 8)}…).`, []);
}

/** Files kept by the SHA-256 of their content: written once, never changed. */
export class FileStore {
  constructor(
    readonly folder: string,
    private readonly db: Database,
    /** Looks a picture through in a process of its own; what is found is a file that may be kept. */
    private readonly look: (file: string) => Promise<PictureFacts>,
  ) {}

  /**
   * Takes a picture in: it is looked through, made plain where it must be, flushed to the disk and moved to its place.
   *
   * @param source a file on its way in, which is used up, or bytes
   * @throws DomainError `asset.…` for anything but a sound picture of a size that can be worked with
   */
  async keep(source: string | Uint8Array): Promise<string> {
    const file = typeof source === 'string' ? source : passing(this.folder);
    try {
      if (typeof source !== 'string') await writeFile(file, source);
      const facts = await this.look(file);
      await this.put(facts);
      return facts.hash;
    } finally {
      await unlink(file).catch(() => undefined);
    }
  }

  /** Puts a file that was looked through in its place. */
  async put({ file, hash, mime, bytes, width, height }: PictureFacts): Promise<void> {
    const place = filePlace(this.folder, hash);
    const there = await stat(place).catch(() => null);
    // A file of another length is what a full disk left behind.
    if (there?.size === bytes) await unlink(file).catch(() => undefined);
    else {
      await mkdir(path.dirname(place), { recursive: true });
      await flush(file);
      await rename(file, place);
      await flush(path.dirname(place));
    }
    await this.db.write(async (transaction) => {
      const row = { hash, mime, bytes, width, height, at: new Date() };
      if (await this.db.assets.findByPk(hash, { transaction })) await this.db.assets.update(row, { where: { hash }, transaction });
      else await this.db.assets.create(row, { transaction });
    });
  }

  /** @throws DomainError `asset.missing` */
  async find(hash: string): Promise<{ file: string; mime: string; bytes: number; width: number | null; height: number | null }> {
    const row = /^[0-9a-f]{64}$/.test(hash) ? await this.db.assets.findByPk(hash) : null;
    if (!row) throw missing();
    const file = filePlace(this.folder, hash);
    if (!(await stat(file).catch(() => null))) throw missing();
    return { file, mime: row.mime, bytes: row.bytes, width: row.width, height: row.height };
  }

  /** @throws DomainError `asset.missing` */
  async read(hash: string): Promise<{ bytes: Buffer; mime: string }> {
    const { file, mime } = await this.find(hash);
    return { bytes: await readFile(file), mime };
  }

  async has(hash: string): Promise<boolean> {
    return Boolean(await stat(filePlace(this.folder, hash)).catch(() => null));
  }

  /** Takes a file away. What is gone already is not missed. */
  async remove(hash: string): Promise<void> {
    await this.db.write((transaction) => this.db.assets.destroy({ where: { hash }, transaction }));
    await rm(filePlace(this.folder, hash), { force: true });
  }
}

/** Flushes a file or a folder to the disk. */
async function flush(place: string): Promise<void> {
  const handle = await open(place, 'r');
  try {
    await handle.sync();
  } finally {
    await handle.close();
  }
}

/** SHA-256 of a file, and its length. */
export async function digest(file: string): Promise<{ hash: string; bytes: number }> {
  const handle = await open(file, 'r');
  const hash = createHash('sha256');
  let bytes = 0;
  try {
    for await (const chunk of handle.createReadStream({ autoClose: false })) {
      hash.update(chunk as Buffer);
      bytes += (chunk as Buffer).length;
    }
  } finally {
    await handle.close();
  }
  return { hash: hash.digest('hex'), bytes };
}
