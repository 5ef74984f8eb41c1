import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { strToU8, zipSync } from 'fflate';
import { z } from 'zod';
import { validateProject } from '../../project/commands';
import { DomainError } from '../../project/errors';
import { FORMAT_VERSION, ProjectSchema, type Project } from '../../project/schema';

/** File name ending of project files. */
export const PROJECT_FILE = '.enstegon';

/** A file among a project's assets. */
export interface Asset {
  hash: string;
  bytes: Uint8Array;
}

/** SHA-256 of bytes, in lower-case hexadecimal. */
export const contentHash = (bytes: Uint8Array): string => bytesToHex(sha256(bytes));

/** Every place in a project that names a file: how it is read, and how it is given another one. */
function* assetPlaces(project: Project): Generator<{ hash: string; rename(hash: string): void }> {
  for (const { underlay } of Object.values(project.levels)) if (underlay) yield { hash: underlay.image, rename: (hash) => (underlay.image = hash) };
  for (const { body } of Object.values(project.finishes)) if (body.kind === 'image') yield { hash: body.image, rename: (hash) => (body.image = hash) };
  const beyond = project.site.surroundings?.picture;
  if (beyond?.kind === 'own') yield { hash: beyond.image, rename: (hash) => (beyond.image = hash) };
  for (const picture of Object.values(project.pictures)) {
    yield { hash: picture.radiance, rename: (hash) => (picture.radiance = hash) };
    if (picture.full !== null) yield { hash: picture.full, rename: (hash) => (picture.full = hash) };
    yield { hash: picture.image, rename: (hash) => (picture.image = hash) };
  }
}

/** The hashes of all files a project refers to. */
export const assetsOf = (project: Project): string[] => [...new Set([...assetPlaces(project)].map((place) => place.hash))].sort();

/** The project with other files in place of some of its own. */
export function renameAssets(project: Project, renamed: ReadonlyMap<string, string>): Project {
  if (!renamed.size) return project;
  const copy = JSON.parse(JSON.stringify(project)) as Project;
  for (const { hash, rename } of assetPlaces(copy)) rename(renamed.get(hash) ?? hash);
  return copy;
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
