import type { Level, Project } from '../project/schema';
import type { Owner, Parts } from './body';
import type { Memo } from './memo';

/** What is at hand while one thing is derived. */
export interface Deriving {
  memo: Memo;
  /** In the phase that is shown. */
  project: Project;
  /** The level it stands on; null: outside. */
  level: Level | null;
  /** Who its parts belong to. */
  owner: Owner & { kind: never };
  parts: Parts;
}
