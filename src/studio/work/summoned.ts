import { wrap, type Remote } from 'comlink';
import { DomainError } from '@/core/project/errors';

export interface Alive<T> {
  remote: Remote<T>;
  /** Fails once it is gone. */
  broken: Promise<never>;
}

/** That a worker is gone has been said; any other failure of what was asked is a fault, and is not passed over. */
export function unlessLost(error: unknown): void {
  if (!(error instanceof DomainError) || error.code !== 'work.lost') throw error;
}

/** A worker that is made when it is first asked, and anew where the one before could not be loaded or broke down. */
export class Summoned<T> {
  private alive: Alive<T> | null = null;
  private worker: Worker | null = null;

  /**
   * @param make the worker
   * @param lost what is said where it is gone
   * @param onLost told that sentence, once a worker
   */
  constructor(
    private readonly make: () => Worker,
    private readonly lost: string,
    private readonly onLost: (sentence: string) => void = () => undefined,
  ) {}

  /** The worker there is, or a new one. The same object as long as it lives. */
  summon(): Alive<T> {
    if (this.alive) return this.alive;
    const worker = this.make();
    this.worker = worker;
    let breaks: (why: Error) => void = () => undefined;
    const broken = new Promise<never>((_, reject) => (breaks = reject));
    // Nobody may be asking when it breaks.
    broken.catch(() => undefined);
    const own: Alive<T> = { remote: wrap<T>(worker), broken };
    worker.addEventListener('error', () => {
      breaks(new DomainError('work.lost', this.lost));
      worker.terminate();
      if (this.alive === own) this.alive = null;
      this.onLost(this.lost);
    });
    return (this.alive = own);
  }

  /** Ends the worker there is; the next question summons another. */
  dismiss(): void {
    this.worker?.terminate();
    this.alive = this.worker = null;
  }

  /** @throws DomainError `work.lost` where the worker is gone before it has answered */
  ask<R>(question: (service: Remote<T>) => Promise<R>): Promise<R> {
    const { remote, broken } = this.summon();
    const answer = question(remote);
    answer.catch(() => undefined);
    return Promise.race([broken, answer]);
  }
}
