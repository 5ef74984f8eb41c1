import { readFile } from 'node:fs/promises';
import path from 'node:path';

const FILES = {
  sans: '@fontsource/instrument-sans/files/instrument-sans-latin-400-normal.woff',
  serif: '@fontsource/instrument-serif/files/instrument-serif-latin-400-normal.woff',
} as const;

export type BoardFonts = Record<keyof typeof FILES, Uint8Array>;

let loaded: Promise<BoardFonts> | null = null;

/** The shipped fonts as files, for documents made on the server. */
export function boardFonts(): Promise<BoardFonts> {
  return (loaded ??= Promise.all(
    Object.entries(FILES).map(async ([name, file]) => [name, new Uint8Array(await readFile(path.join(process.cwd(), 'node_modules', file)))] as const),
  ).then((entries) => Object.fromEntries(entries) as BoardFonts));
}
