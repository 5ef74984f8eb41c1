import { runChange, type Change, type Outcome } from '@/core/project/commands';
import type { Project } from '@/core/project/schema';

/** A command as it was shown, with what it did. */
export interface Shown {
  change: Change;
  outcome: Outcome;
}

/** An id for a change. */
export const changeId = (): string => crypto.randomUUID().replace(/-/g, '').slice(0, 16);

/**
 * One drag, hover or typing over: it begins on a project, shows what commands would do to it, and ends with one of them
 * or with none. What is shown is what is done: the change carries the id that it will be kept under, so that what it
 * makes has the same ids, and a commit of what was shown last runs nothing again.
 */
export class Gesture {
  private readonly id = changeId();
  private last: { said: string; shown: Shown } | null = null;

  /** @param base what it begins on; another gesture is begun where the project has become another */
  constructor(readonly base: Project) {}

  /**
   * What a command would do.
   *
   * @throws DomainError where it is refused
   */
  show(command: Change['command'], args: unknown): Outcome {
    const said = JSON.stringify([command, args]);
    if (this.last?.said === said) return this.last.shown.outcome;
    this.last = null;
    const change: Change = { id: this.id, kind: 'do', command, args };
    const outcome = runChange(this.base, change);
    this.last = { said, shown: { change, outcome } };
    return outcome;
  }

  /** What was shown last, where that is what is now to be done; null: it has to be run. */
  commit(command: Change['command'], args: unknown): Shown | null {
    return this.last?.said === JSON.stringify([command, args]) ? this.last.shown : null;
  }
}
