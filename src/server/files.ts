import { createHash, randomBytes } from 'node:crypto';
import { mkdir, open, readFile, rename, stat } from 'node:fs/promises';
import path from 'node:path';
import { DomainError } from '@/core/project/errors';
import type { Database } from './database';

/** Kinds of files a project may hold, known by their first bytes. */
const SIGNATURES: { mime: string; starts: number[] }[] = [
  { mime: 'image/png', starts: [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a] },
  { mime: 'image/jpeg', starts: [0xff, 0xd8, 0xff] },
  { mime: 'image/vnd.radiance', starts: [0x23, 0x3f, 0x52, 0x41, 0x44, 0x49, 0x41, 0x4e, 0x43, 0x45] },
];

/** The kind of a file by its content; null for anything a project does not hold. */
export const sniff = (bytes: Uint8Array): string | null => SIGNATURES.find((s) => s.starts.every((b, i) => bytes[i] === b))?.mime ?? null;

/** Files kept by the SHA-256 of their content: written once, never changed. */
export class FileStore {
  constructor(
    private readonly folder: string,
    private readonly db: Database,
  ) {}

  private place(hash: string): string {
    return path.join(this.folder, 'files', hash.slice(0, 2), hash);
  }

  /**
   * Keeps a file: to a temporary name, flushed to the disk, then moved to its place.
   *
   * @throws DomainError `asset.kind` for anything but PNG, JPEG and Radiance HDR pictures
   */
  async keep(bytes: Uint8Array): Promise<string> {
    const mime = sniff(bytes);
    if (!mime) throw new DomainError('asset.kind', 'The file was not kept: only PNG, JPEG and Radiance HDR pictures belong here.');
    const hash = createHash('sha256').update(bytes).digest('hex');
    const place = this.place(hash);
    if (!(await stat(place).catch(() => null))) {
      await mkdir(path.dirname(place), { recursive: true });
      const temporary = `${place}.${randomBytes(6).toString('hex')}`;
      const file = await open(temporary, 'w');
      await file.writeFile(bytes);
      await file.sync();
      await file.close();
      await rename(temporary, place);
    }
    if (!(await this.db.assets.findByPk(hash))) await this.db.assets.create({ hash, mime, bytes: bytes.length, at: new Date() }, { ignoreDuplicates: true });
    return hash;
  }

  /** @throws DomainError `asset.missing` */
  async read(hash: string): Promise<{ bytes: Buffer; mime: string }> {
    const row = /^[0-9a-f]{64}$/.test(hash) ? await this.db.assets.findByPk(hash) : null;
    const bytes = row && (await readFile(this.place(hash)).catch(() => null));
    if (!row || !bytes) throw new DomainError('asset.missing', 'The file is not here.', []);
    return { bytes, mime: row.mime };
  }

  async has(hash: string): Promise<boolean> {
    return Boolean(await stat(this.place(hash)).catch(() => null));
  }
}
