import { randomBytes } from 'node:crypto';
import { unlink } from 'node:fs/promises';
import { DomainError } from '@/core/project/errors';
import type { Progress } from './tasks';

/** Long work as it is seen from the interface. */
export interface Errand {
  id: string;
  title: string;
  state: 'running' | 'done' | 'failed' | 'cancelled';
  /** 0 to 1. */
  share: number;
  at: string;
  /** Estimate of what is left, seconds; null until there is one. */
  left: number | null;
  /** Why it failed. */
  message: string | null;
  /** What came of it: a file to fetch, or the project that was made. */
  result: { file: true; name: string } | { project: string } | null;
}

export type Outcome = { file: string; headers: Record<string, string>; name: string } | { project: string };

interface Kept {
  errand: Errand;
  begun: number;
  abort: AbortController;
  outcome: Outcome | null;
  timer: ReturnType<typeof setTimeout> | null;
}

/** How long a result waits to be fetched, ms. */
const FETCHED_WITHIN = 15 * 60 * 1000;

/** Errands that run on while the page asks after them. They live in memory: a restart ends them, and nothing depends on them. */
export class Errands {
  private readonly kept = new Map<string, Kept>();

  /** Begins an errand. @param work is given a signal that ends it, and whom to tell how far it has come */
  begin(title: string, work: (signal: AbortSignal, onProgress: (progress: Progress) => void) => Promise<Outcome>): Errand {
    const id = randomBytes(12).toString('hex');
    const kept: Kept = {
      errand: { id, title, state: 'running', share: 0, at: 'Waiting', left: null, message: null, result: null },
      begun: Date.now(),
      abort: new AbortController(),
      outcome: null,
      timer: null,
    };
    this.kept.set(id, kept);
    const onProgress = ({ share, at }: Progress): void => {
      const seconds = (Date.now() - kept.begun) / 1000;
      // An estimate from the first moments would be a guess.
      const left = share > 0.05 && seconds > 0.5 ? Math.ceil((seconds * (1 - share)) / share) : null;
      kept.errand = { ...kept.errand, share, at, left };
    };
    void work(kept.abort.signal, onProgress)
      .then(
        (outcome) => {
          kept.outcome = outcome;
          kept.errand = { ...kept.errand, state: 'done', share: 1, left: 0, result: 'file' in outcome ? { file: true, name: outcome.name } : outcome };
        },
        (error: unknown) => {
          const state = error instanceof DomainError && error.code === 'work.cancelled' ? 'cancelled' : 'failed';
          if (!(error instanceof DomainError)) console.error(error);
          kept.errand = {
            ...kept.errand,
            state,
            left: null,
            message: error instanceof DomainError ? error.message : 'Something went wrong on the server; nothing was changed. Try again.',
          };
        },
      )
      .then(() => {
        kept.timer = setTimeout(() => this.forget(id), FETCHED_WITHIN);
        kept.timer.unref();
      });
    return kept.errand;
  }

  private get(id: string): Kept {
    const kept = this.kept.get(id);
    if (!kept) throw new DomainError('errand.missing', 'This work is not known any more; start it again.');
    return kept;
  }

  /** @throws DomainError `errand.missing` */
  look(id: string): Errand {
    return this.get(id).errand;
  }

  /** The file that came of it, to be sent once. @throws DomainError `errand.missing` */
  take(id: string): { file: string; headers: Record<string, string> } {
    const { outcome } = this.get(id);
    if (!outcome || !('file' in outcome)) throw new DomainError('errand.missing', 'There is no file of this work.');
    this.get(id).outcome = null;
    return outcome;
  }

  /** Ends an errand. */
  cancel(id: string): void {
    this.get(id).abort.abort();
    if (this.get(id).errand.state !== 'running') this.forget(id);
  }

  private forget(id: string): void {
    const kept = this.kept.get(id);
    this.kept.delete(id);
    if (kept?.timer) clearTimeout(kept.timer);
    if (kept?.outcome && 'file' in kept.outcome) void unlink(kept.outcome.file).catch(() => undefined);
  }
}
