import { mkdirSync } from 'node:fs';
import path from 'node:path';

/** Folder that holds the database and the files; `ENSTEGON_DATA` chooses another one. */
export function dataFolder(): string {
  const folder = path.resolve(process.env.ENSTEGON_DATA ?? 'data');
  mkdirSync(folder, { recursive: true });
  return folder;
}

/** Limits of what comes in, bytes. */
export const LIMITS = {
  changes: 8 * 1024 * 1024,
  projectFile: 256 * 1024 * 1024,
  asset: 64 * 1024 * 1024,
  small: 64 * 1024,
} as const;

/** Changes between two snapshots of a project. */
export const SNAPSHOT_EVERY = 50;

/** How many changes of the past are sent with a project, for undo after a reload. */
export const HISTORY_SENT = 300;
