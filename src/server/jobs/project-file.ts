import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import path from 'node:path';
import { Transform, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { crc32 } from 'node:zlib';
import yauzl, { type Entry, type ZipFile } from 'yauzl';
import { assetsOf, readProjectJson, type Asset } from '@/core/formats/project-file/project-file';
import { DomainError } from '@/core/project/errors';
import type { Project } from '@/core/project/schema';
import { LIMITS } from '../config';

const MB = 1024 * 1024;
const refuse = (code: string, why: string): DomainError => new DomainError(`file.${code}`, `The file was not opened: ${why}.`);
const noZip = (): DomainError => refuse('zip', 'it is not a project file (a zip holding project.json), or it is damaged');

/**
 * An opened project file. Only what is asked for is inflated, as a stream that ends at the size the entry declares and
 * the size that is allowed; its checksum is compared.
 */
export class ProjectZip {
  private constructor(
    private readonly zip: ZipFile,
    private readonly entries: Map<string, Entry>,
  ) {}

  /**
   * @param source path of a file, or its bytes
   * @throws DomainError `file.…` with what is wrong
   */
  static async open(source: string | Uint8Array): Promise<ProjectZip> {
    const options = { lazyEntries: true, autoClose: false, validateEntrySizes: true } as const;
    const zip = await new Promise<ZipFile>((resolve, reject) => {
      const opened = (error: Error | null, file: ZipFile | undefined): void => (error || !file ? reject(noZip()) : resolve(file));
      if (typeof source === 'string') yauzl.open(source, options, opened);
      else yauzl.fromBuffer(Buffer.from(source.buffer, source.byteOffset, source.length), options, opened);
    });
    try {
      if (zip.entryCount > LIMITS.entries) throw refuse('entries', `it has too many entries (${zip.entryCount}; a project file has at most ${LIMITS.entries})`);
      const entries = new Map<string, Entry>();
      let packed = 0;
      await new Promise<void>((resolve, reject) => {
        zip.on('entry', (entry: Entry) => {
          if (entries.has(entry.fileName)) return reject(refuse('twice', `it holds ${entry.fileName.slice(0, 40)} twice`));
          entries.set(entry.fileName, entry);
          packed += entry.compressedSize;
          zip.readEntry();
        });
        zip.on('end', resolve);
        zip.on('error', () => reject(noZip()));
        zip.readEntry();
      });
      // Entries that share their bytes add up to more than the file is long.
      if (packed > zip.fileSize) throw refuse('overlap', 'its entries lie over one another');
      return new ProjectZip(zip, entries);
    } catch (error) {
      zip.close();
      throw error;
    }
  }

  close(): void {
    this.zip.close();
  }

  has(name: string): boolean {
    return this.entries.has(name);
  }

  /** Size an entry declares, bytes. */
  size(name: string): number {
    return this.entries.get(name)?.uncompressedSize ?? 0;
  }

  /** Inflates one entry. @param limit bytes it may have */
  private async stream(name: string, limit: number, sink: (source: Readable) => Promise<void>): Promise<void> {
    const entry = this.entries.get(name)!;
    if (entry.uncompressedSize > limit) throw refuse('large', `unpacked, ${name.slice(0, 24)} is larger than ${Math.round(limit / MB)} MB`);
    if (entry.isEncrypted()) throw refuse('encrypted', 'it is encrypted');
    let sum = 0;
    let size = 0;
    const meter = new Transform({
      transform(chunk: Buffer, _encoding, done) {
        size += chunk.length;
        sum = crc32(chunk, sum);
        if (size > Math.min(limit, entry.uncompressedSize)) done(refuse('size', `${name.slice(0, 24)} is larger than it says`));
        else done(null, chunk);
      },
    });
    try {
      const source = await new Promise<Readable>((resolve, reject) =>
        this.zip.openReadStream(entry, (error, stream) => (error || !stream ? reject(error ?? new Error('no stream')) : resolve(stream))),
      );
      await Promise.all([pipeline(source, meter), sink(meter)]);
    } catch (error) {
      throw error instanceof DomainError ? error : refuse('damaged', `${name.slice(0, 24)} in it is damaged`);
    }
    if (sum !== entry.crc32 || size !== entry.uncompressedSize) throw refuse('damaged', `${name.slice(0, 24)} in it is damaged`);
  }

  /** @throws DomainError `file.…`, also for what is wrong with the project in it */
  async project(): Promise<Project> {
    if (!this.has('project.json')) throw refuse('missing', 'it holds no project.json');
    return readProjectJson((await this.bytes('project.json', LIMITS.projectJson)).toString('utf8'));
  }

  private async bytes(name: string, limit: number): Promise<Buffer> {
    const chunks: Buffer[] = [];
    await this.stream(name, limit, async (source) => {
      for await (const chunk of source) chunks.push(chunk as Buffer);
    });
    return Buffer.concat(chunks);
  }

  private name(hash: string): string {
    const name = `assets/${hash}`;
    if (!this.has(name)) throw refuse('asset', `a picture it refers to is missing (assets/${hash.slice(0, 8)}…)`);
    return name;
  }

  /** @throws DomainError where all the pictures together are larger than is allowed */
  checkSizes(hashes: readonly string[]): void {
    const total = hashes.reduce((sum, hash) => sum + this.size(this.name(hash)), 0);
    if (total > LIMITS.unpacked) throw refuse('large', `unpacked it would be larger than ${LIMITS.unpacked / MB} MB`);
  }

  /** Writes a picture to a folder, compared with its hash. Gives back where. */
  async extract(hash: string, folder: string): Promise<string> {
    const file = path.join(folder, hash);
    const digest = createHash('sha256');
    await this.stream(this.name(hash), LIMITS.light, (source) =>
      pipeline(
        source,
        new Transform({
          transform(chunk: Buffer, _encoding, done) {
            digest.update(chunk);
            done(null, chunk);
          },
        }),
        createWriteStream(file),
      ),
    );
    if (digest.digest('hex') !== hash) throw refuse('damaged', `a picture in it is damaged (assets/${hash.slice(0, 8)}…)`);
    return file;
  }

  /** The bytes of a picture, compared with its hash. */
  async asset(hash: string): Promise<Uint8Array> {
    const bytes = await this.bytes(this.name(hash), LIMITS.light);
    if (createHash('sha256').update(bytes).digest('hex') !== hash) throw refuse('damaged', `a picture in it is damaged (assets/${hash.slice(0, 8)}…)`);
    return new Uint8Array(bytes);
  }
}

/**
 * Unpacks and checks a project file with all its pictures.
 *
 * @throws DomainError with one sentence: not a zip, no project.json, a later version, an invalid project, a damaged asset
 */
export async function readProjectFile(source: string | Uint8Array): Promise<{ project: Project; assets: Asset[] }> {
  const zip = await ProjectZip.open(source);
  try {
    const project = await zip.project();
    const hashes = assetsOf(project);
    zip.checkSizes(hashes);
    const assets: Asset[] = [];
    for (const hash of hashes) assets.push({ hash, bytes: await zip.asset(hash) });
    return { project, assets };
  } finally {
    zip.close();
  }
}
