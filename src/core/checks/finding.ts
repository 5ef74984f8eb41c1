import type { Target } from '../project/targets';

/** One result of an automatic check: what, where, how much. */
export interface Finding {
  code: string;
  message: string;
  /** What it concerns, the first one the place to go to. */
  ids: string[];
  /** The very surface, where it is one. */
  target?: Target;
}
