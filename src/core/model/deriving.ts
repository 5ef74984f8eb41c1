import type { Level, Project } from '../project/schema';
import type { Owner, Parts } from './body';
import type { DerivedWall } from '../shell/wall-types';
import type { Memo } from './memo';

/** What is at hand while one thing is derived. */
export interface Deriving {
  memo: Memo;
  /** In the phase that is shown. */
  project: Project;
  /** The level it stands on; null: outside. */
  level: Level | null;
  /** The walls as they stand. */
  walls: ReadonlyMap<string, DerivedWall>;
  /** Who its parts belong to. */
  owner: Owner & { kind: never };
  parts: Parts;
}

/** What is at hand while the parts of one thing are put, when somebody first looks at them. */
export type Putting = Pick<Deriving, 'memo' | 'owner' | 'parts'>;
