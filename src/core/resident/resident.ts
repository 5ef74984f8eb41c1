import { findings, type Finding } from '../checks/findings';
import { Deriver } from '../model/derive';
import type { Model } from '../model/model';
import { withScheme } from '../project/choices';
import { applyDelta, type Delta } from '../project/delta';
import { DomainError } from '../project/errors';
import type { Phase } from '../project/phase';
import type { Project } from '../project/schema';
import { scheduleLists } from '../schedules/lists';
import { compareSchemes } from '../schedules/schemes';

/** How many derivers are kept: for the phases of the scheme in hand, and for two that are compared. */
const KEPT = 4;

/**
 * A model that stays and is told what changes: what is counted, compared and found follows edit by edit, without deriving
 * from nothing. Lives in a worker; a page tells it of each state before it asks about it.
 */
export class ResidentModel {
  private project: Project | null = null;
  private version = 0;
  private readonly derivers = new Map<string, Deriver>();

  /**
   * Takes in what has changed.
   *
   * @param from the state the delta stands on; 0: nothing
   * @returns whether that state was the one held here; where not, all of it has to be told anew
   */
  follow(from: number, to: number, delta: Delta): boolean {
    if (from !== 0 && from !== this.version) return false;
    this.project = applyDelta(from === 0 ? null : this.project, delta);
    this.version = to;
    return true;
  }

  private get held(): Project {
    if (!this.project) throw new DomainError('model.unknown', 'Nothing was counted: no project has been told of yet.');
    return this.project;
  }

  /** How many values the last derivation under a name had to make, for proof of locality. */
  made(name: string): number {
    return this.derivers.get(name)?.made ?? 0;
  }

  private model(name: string, project: Project, phase: Phase): Model {
    const deriver = this.derivers.get(name) ?? new Deriver();
    this.derivers.delete(name);
    this.derivers.set(name, deriver);
    if (this.derivers.size > KEPT) this.derivers.delete(this.derivers.keys().next().value!);
    return deriver.derive(project, phase);
  }

  /** The rows of a schedule. @throws DomainError `schedule.unknown` */
  rows(list: string, phase: Phase): object[] {
    const own = scheduleLists()[list];
    if (!own) throw new DomainError('schedule.unknown', `Nothing was listed: there is no schedule called ${list}.`);
    return own.rows(this.model(phase, this.held, phase));
  }

  /** Everything worth a look, in the phase after the work. */
  findings(phase: Phase): Finding[] {
    return findings(this.model(phase, this.held, phase));
  }

  /** What two schemes have chosen differently, and what each costs. */
  compare(first: string, second: string): ReturnType<typeof compareSchemes> {
    return compareSchemes(this.held, first, second, (id) => this.model(`scheme ${id}`, withScheme(this.held, id), 'after'));
  }
}
