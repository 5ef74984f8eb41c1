import { DomainError } from '@/core/project/errors';

/** What can be wrong with the folder or its database, each in its own sentence. */
const FAULTS = {
  full: 'The disk is full: nothing was written and nothing is lost; make room on it and go on.',
  readonly: 'The data folder can’t be written: nothing was changed; give the server the right to write it and go on.',
  damaged:
    'The database is damaged: nothing is written to it any more; stop the server and run “npm run -s enstegon -- repair”, which sets it aside and rebuilds what its log holds.',
  locked: 'Another server is working with this data folder: this one leaves it alone; stop the other one, or choose another folder with ENSTEGON_DATA.',
  gone: 'The data folder or its database can’t be opened: nothing was changed; see that its disk is there and go on.',
  disk: 'The disk answers with errors: nothing was changed; see to the disk and go on.',
  busy: 'The database is busy: nothing was changed; try again.',
} as const;
export type FaultKind = keyof typeof FAULTS;

/** The refusal that goes with a fault of the store. */
export const storeFault = (kind: FaultKind): DomainError => new DomainError(`store.${kind}`, FAULTS[kind]);

const CODES: [RegExp, FaultKind][] = [
  [/^(SQLITE_FULL|ENOSPC|EDQUOT)/, 'full'],
  [/^(SQLITE_READONLY|EROFS|EACCES|EPERM)/, 'readonly'],
  [/^(SQLITE_CORRUPT|SQLITE_NOTADB)/, 'damaged'],
  [/^(SQLITE_BUSY|SQLITE_LOCKED)/, 'busy'],
  [/^(SQLITE_CANTOPEN|ENOENT|ENOTDIR|SQLITE_MISUSE)/, 'gone'],
  [/^(SQLITE_IOERR|EIO)/, 'disk'],
];

const codeOf = (error: unknown): string => {
  for (let e = error as { code?: unknown; parent?: unknown; cause?: unknown } | undefined, depth = 0; e && depth < 4; depth++) {
    if (typeof e.code === 'string') return e.code;
    e = (e.parent ?? e.cause) as typeof e;
  }
  return '';
};

/** What an error of the database or the file system means, as a refusal; null for any other error. */
export function faultOf(error: unknown): DomainError | null {
  if (error instanceof DomainError) return error.code.startsWith('store.') ? error : null;
  // A request that was under way when the database was let go of.
  if (error instanceof Error && /connection manager was closed/.test(error.message)) return storeFault('busy');
  const code = codeOf(error);
  const kind = CODES.find(([pattern]) => pattern.test(code))?.[1];
  return kind ? storeFault(kind) : null;
}
