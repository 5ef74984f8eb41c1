import type { Finding } from '../../checks/finding';
import type { DisplayItem } from '../../drawing/display';
import type { Thing } from '../../project/kinds';
import type { ScheduleList } from '../../schedules/list';
import type { DressedFace } from '../../shell/dress/dressed';
import type { Deriving, Putting } from '../deriving';
import type { Model } from '../model';

/**
 * All that the model layer knows of one kind of thing, beyond what follows for every kind from its bodies. Kinds whose
 * things make one another (walls, rooms, openings, roofs) are derived by the shell.
 */
export interface ModelKind<T extends Thing = Thing, D extends object = object> {
  /** What follows from one thing; its parts are put on the way. Null: nothing. */
  derive?(thing: T, at: Deriving): D | null;
  /** Puts its parts, where they are made only when somebody looks at them. */
  put?(derived: D, at: Putting): void;
  /** How it is drawn in the plan of its level, or of the site. */
  plan?(derived: D): DisplayItem[];
  /** It stands among the pieces: its plan is drawn under the walls. */
  standing?: true;
  /** How it is drawn upright in front of a face of a wall, in its coordinates; nothing where it does not stand there. */
  elevation?(derived: D, face: DressedFace): DisplayItem[];
  /** What of it is worth a look. */
  checks?(thing: T, model: Model): Finding[];
  /** The list its things are counted in, where it has one of its own. */
  schedule?: ScheduleList;
}
