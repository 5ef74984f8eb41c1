import path from 'node:path';

/** Folder that holds the database and the files; `ENSTEGON_DATA` chooses another one. */
export const dataFolder = (): string => path.resolve(/* turbopackIgnore: true */ process.env.ENSTEGON_DATA ?? 'data');

const MB = 1024 * 1024;

/** Limits of what comes in, bytes. */
export const LIMITS = {
  changes: 8 * MB,
  projectFile: 1024 * MB,
  /** Of a project file, unpacked: its project.json, and all of it. */
  projectJson: 32 * MB,
  unpacked: 1024 * MB,
  /** How many entries a project file may have. */
  entries: 5000,
  asset: 64 * MB,
  /** Of the light of a picture for print: 60 million pixels. */
  light: 384 * MB,
  small: 64 * 1024,
} as const;

/** Pixels a picture may have: a sheet of A1 scanned at 300 dots an inch has 70 million. */
export const MAX_PIXELS = 100e6;

/** Changes between two snapshots of a project. */
export const SNAPSHOT_EVERY = 50;

/** How many changes of the past are sent with a project, for undo after a reload. */
export const HISTORY_SENT = 300;

/** How long what was deleted can be put back, days. Files that no project needs stay as long. */
export const KEPT_DAYS = 30;

/** What one piece of work may take in its own process. */
export const WORK = {
  /** Taking in a picture, a thumbnail, the figures of a card. */
  short: { seconds: 30, megabytes: 1536 },
  /** Exports and imports. */
  long: { seconds: 300, megabytes: 3072 },
} as const;
