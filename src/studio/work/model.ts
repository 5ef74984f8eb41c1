import type { Remote } from 'comlink';
import { deltaOf } from '@/core/project/delta';
import type { Project } from '@/core/project/schema';
import type { ModelService } from '@/workers/model.worker';
import { Summoned, type Alive } from './summoned';

/** What the worker answers: its methods, each with a promise. */
export type Service = Pick<Remote<ModelService>, 'follow' | 'rows' | 'compare' | 'findings'>;

/** An asking that a newer one of the same kind has taken the place of. */
export class Superseded extends Error {}

interface Line {
  running: boolean;
  next: { run: () => Promise<void>; drop: () => void } | null;
}

/**
 * Asks the resident model. Before each question it is told what has changed since the last one; of questions of one kind
 * only the latest is asked, the ones between are passed over.
 */
export class ModelWork {
  private told: Project | null = null;
  private version = 0;
  private readonly lines = new Map<string, Line>();

  /** @param broken fails once the worker is gone: what is asked, and what will be, fails with it */
  constructor(
    private readonly service: Service,
    private readonly broken: Promise<never> = new Promise(() => undefined),
  ) {}

  /** Whether it knew what the change stands on; where not, it was told all of it. */
  private async tell(project: Project): Promise<boolean> {
    if (this.told === project) return true;
    const [before, from] = [this.told, this.version];
    // Taken as told at once: what is asked meanwhile stands on it, and messages keep their order.
    this.told = project;
    const to = ++this.version;
    if (await this.service.follow(before ? from : 0, to, deltaOf(before, project))) return true;
    await this.service.follow(0, to, deltaOf(null, project));
    return false;
  }

  /**
   * Asks about a project.
   *
   * @param kind of question: a newer one of the same kind takes its place while it waits
   * @throws Superseded where a newer one has
   */
  ask<T>(kind: string, project: Project, question: (service: Service) => Promise<T>): Promise<T> {
    let line = this.lines.get(kind);
    if (!line) this.lines.set(kind, (line = { running: false, next: null }));
    const own = line;
    return new Promise<T>((resolve, reject) => {
      own.next?.drop();
      own.next = {
        drop: () => reject(new Superseded(kind)),
        run: async () => {
          try {
            // Told and asked without a pause between: another question may stand on another state.
            const told = this.tell(project);
            const answer = question(this.service);
            answer.catch(() => undefined);
            resolve(await Promise.race([this.broken, told.then((known) => (known ? answer : question(this.service)))]));
          } catch (error) {
            reject(error as Error);
          }
        },
      };
      if (!own.running) void this.go(own);
    });
  }

  private async go(line: Line): Promise<void> {
    line.running = true;
    while (line.next) {
      const { run } = line.next;
      line.next = null;
      await run();
    }
    line.running = false;
  }
}

const summoned = new Summoned<ModelService>(
  () => new Worker(new URL('../../workers/model.worker.ts', import.meta.url), { type: 'module' }),
  'Nothing was counted: the part of the application that counts has stopped; reload the page.',
);
let work: { alive: Alive<ModelService>; own: ModelWork } | null = null;

/** The resident model of this window; one whose worker could not be loaded or broke down is made anew at the next question. */
export function modelWork(): ModelWork {
  const alive = summoned.summon();
  if (work?.alive !== alive) work = { alive, own: new ModelWork(alive.remote, alive.broken) };
  return work.own;
}
