import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { z } from 'zod';
import { validateProject } from '../../project/commands';
import { DomainError } from '../../project/errors';
import { FORMAT_VERSION, ProjectSchema, type Project } from '../../project/schema';

/** File name ending of project files. */
export const PROJECT_FILE = '.enstegon';

/** The most a project file may hold, unpacked. */
export const MAX_UNPACKED = 512 * 1024 * 1024;
const MAX_ENTRIES = 5000;

/** A file among a project's assets. */
export interface Asset {
  hash: string;
  bytes: Uint8Array;
}

/** SHA-256 of bytes, in lower-case hexadecimal. */
export const contentHash = (bytes: Uint8Array): string => bytesToHex(sha256(bytes));

/** The hashes of all files a project refers to. */
export function assetsOf(project: Project): string[] {
  const hashes = new Set<string>();
  for (const level of Object.values(project.levels)) if (level.underlay) hashes.add(level.underlay.image);
  for (const finish of Object.values(project.finishes)) if (finish.body.kind === 'image') hashes.add(finish.body.image);
  for (const picture of Object.values(project.pictures)) {
    hashes.add(picture.radiance);
    hashes.add(picture.image);
  }
  return [...hashes].sort();
}

/** JSON with keys in the order of the schema and collections sorted by id: the same project gives the same bytes. */
export function projectJson(project: Project): string {
  const sorted: Record<string, unknown> = {};
  for (const key of Object.keys(ProjectSchema.shape) as (keyof Project)[]) sorted[key] = sortKeys(project[key]);
  return `${JSON.stringify(sorted, null, 1)}\n`;
}

function sortKeys(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sortKeys);
  if (value === null || typeof value !== 'object') return value;
  return Object.fromEntries(
    Object.entries(value)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([k, v]) => [k, sortKeys(v)]),
  );
}

/** Packs a project and its files. */
export function writeProjectFile(project: Project, assets: readonly Asset[]): Uint8Array<ArrayBuffer> {
  const entries: Parameters<typeof zipSync>[0] = { 'project.json': [strToU8(projectJson(project)), { level: 6, mtime: ZIP_TIME }] };
  for (const { hash, bytes } of [...assets].sort((a, b) => (a.hash < b.hash ? -1 : 1))) entries[`assets/${hash}`] = [bytes, { level: 0, mtime: ZIP_TIME }];
  return new Uint8Array(zipSync(entries));
}

// A fixed moment, so that equal projects give equal bytes (zip holds local times from 1980 on).
const ZIP_TIME = new Date(2020, 0, 1);

/**
 * Unpacks and checks a project file.
 *
 * @throws DomainError with one sentence: not a zip, no project.json, a later version, an invalid project, a damaged asset
 */
export function readProjectFile(bytes: Uint8Array): { project: Project; assets: Asset[] } {
  let entries: Record<string, Uint8Array>;
  let total = 0;
  let count = 0;
  try {
    entries = unzipSync(bytes, {
      filter({ originalSize }) {
        total += originalSize;
        if (++count > MAX_ENTRIES || total > MAX_UNPACKED)
          throw new DomainError('file.large', 'The file was not opened: unpacked it would be larger than 512 MB.');
        return true;
      },
    });
  } catch (error) {
    if (error instanceof DomainError) throw error;
    throw new DomainError('file.zip', 'The file was not opened: it is not a project file (a zip holding project.json).');
  }
  const json = entries['project.json'];
  if (!json) throw new DomainError('file.missing', 'The file was not opened: it holds no project.json.');
  const project = readProjectJson(strFromU8(json));
  const assets: Asset[] = [];
  for (const hash of assetsOf(project)) {
    const content = entries[`assets/${hash}`];
    if (!content) throw new DomainError('file.asset', `The file was not opened: a picture it refers to is missing (assets/${hash.slice(0, 8)}…).`);
    if (contentHash(content) !== hash)
      throw new DomainError('file.damaged', `The file was not opened: a picture in it is damaged (assets/${hash.slice(0, 8)}…).`);
    assets.push({ hash, bytes: content });
  }
  return { project, assets };
}

/** Reads the JSON of a project, brings it to the current version and checks it. */
export function readProjectJson(text: string): Project {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new DomainError('file.json', 'The file was not opened: its project.json is not valid JSON.');
  }
  const head = z.object({ format: z.literal('enstegon'), version: z.number().int() }).safeParse(value);
  if (!head.success) throw new DomainError('file.format', 'The file was not opened: its project.json is not a project (format and version are missing).');
  if (head.data.version > FORMAT_VERSION)
    throw new DomainError(
      'file.version',
      `The file was not opened: it was written by a later version (${head.data.version}; this one reads up to ${FORMAT_VERSION}).`,
    );
  return validateProject(value);
}

/** JSON Schema of project.json, generated from the Zod schemas. */
export const projectJsonSchema = (): unknown => ({ title: 'Enstegon project', ...(z.toJSONSchema(ProjectSchema, { unrepresentable: 'any' }) as object) });
