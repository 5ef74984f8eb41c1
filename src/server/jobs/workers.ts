import { fork, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { DomainError } from '@/core/project/errors';
import { WORK } from '../config';
import { LANE, type Call, type Progress, type Reply, type TaskName, type Tasks } from './tasks';

export interface WorkOptions {
  /** Ends the work when it is aborted. */
  signal?: AbortSignal;
  onProgress?(progress: Progress): void;
}

interface Waiting {
  call: Call;
  options: WorkOptions;
  resolve(result: unknown): void;
  reject(error: unknown): void;
}

/** What one piece of work may take. */
export interface Limits {
  seconds: number;
  megabytes: number;
}

/** What may wait in one lane; more is refused. */
const LONGEST_QUEUE = 200;

export const cancelled = (): DomainError => new DomainError('work.cancelled', 'The work was cancelled; nothing was changed.');

/** Runs work one piece after another in a process of its own, which is ended when a piece takes too long or too much memory, or is no longer wanted. */
class Lane {
  private readonly queue: Waiting[] = [];
  private running: Waiting | null = null;
  private process: ChildProcess | null = null;
  private watch: ReturnType<typeof setInterval> | null = null;

  constructor(private readonly limits: Limits) {}

  run(call: Call, options: WorkOptions): Promise<unknown> {
    return new Promise((resolve, reject) => {
      if (options.signal?.aborted) return reject(cancelled());
      if (this.queue.length >= LONGEST_QUEUE) return reject(new DomainError('work.crowded', 'The server has too much to do at once; try again in a moment.'));
      const waiting: Waiting = { call, options, resolve, reject };
      options.signal?.addEventListener('abort', () => this.drop(waiting), { once: true });
      this.queue.push(waiting);
      this.next();
    });
  }

  private drop(waiting: Waiting): void {
    const at = this.queue.indexOf(waiting);
    if (at >= 0) this.queue.splice(at, 1);
    else if (this.running === waiting) this.end();
    else return;
    waiting.reject(cancelled());
    this.next();
  }

  private next(): void {
    if (this.running || !this.queue.length) return;
    const waiting = this.queue.shift()!;
    this.running = waiting;
    const child = this.start();
    child.ref();
    child.channel?.ref();
    const until = Date.now() + this.limits.seconds * 1000;
    this.watch = setInterval(() => {
      if (Date.now() > until) this.fail(new DomainError('work.time', `The work was stopped: it took more than ${this.limits.seconds} seconds.`));
      else if (memoryOf(child.pid) > this.limits.megabytes)
        this.fail(new DomainError('work.memory', `The work was stopped: it needed more than ${this.limits.megabytes} MB of memory.`));
    }, 100);
    child.send(waiting.call);
  }

  private start(): ChildProcess {
    if (this.process) return this.process;
    const child = fork(/* turbopackIgnore: true */ program(), [], {
      execArgv: ['--import', 'tsx', `--max-old-space-size=${Math.round(this.limits.megabytes * 0.75)}`],
      serialization: 'advanced',
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    });
    child.on('message', (reply: Reply) => this.hear(child, reply));
    child.on('error', () => undefined);
    child.on('exit', () => {
      if (this.process === child) this.fail(new DomainError('work.died', 'The work was stopped: its process ended; nothing was changed.'));
    });
    return (this.process = child);
  }

  private hear(child: ChildProcess, reply: Reply): void {
    const { running } = this;
    if (child !== this.process || !running || running.call.id !== reply.id) return;
    if (reply.kind === 'progress') return running.options.onProgress?.(reply.progress);
    this.settle();
    if (reply.kind === 'done') running.resolve(reply.result);
    else running.reject(reply.kind === 'refused' ? new DomainError(reply.code, reply.message, reply.ids) : new Error(reply.text));
    this.next();
  }

  private fail(error: DomainError): void {
    const { running } = this;
    this.end();
    running?.reject(error);
    this.next();
  }

  private settle(): void {
    if (this.watch) clearInterval(this.watch);
    this.watch = null;
    this.running = null;
    // An idle process does not keep the server from ending.
    this.process?.unref();
    this.process?.channel?.unref();
  }

  /** Ends the process; the next piece of work gets a new one. */
  end(): void {
    this.settle();
    const child = this.process;
    this.process = null;
    child?.kill('SIGKILL');
  }

  close(): void {
    for (const waiting of this.queue.splice(0)) waiting.reject(cancelled());
    const { running } = this;
    this.end();
    running?.reject(cancelled());
  }
}

/** What the process runs. The bundler is not to look for it: it is run from its source. */
const program = (): string => path.resolve(['src', 'server', 'jobs', 'process.ts'].join(path.sep));

/** Memory a process holds, MB; 0 where the system does not tell. */
function memoryOf(pid: number | undefined): number {
  try {
    return Number(/^VmRSS:\s+(\d+) kB$/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;
  } catch {
    return 0;
  }
}

/** Heavy work, off the server's own thread and under limits. */
export class Workers {
  private readonly lanes: Record<keyof typeof WORK, Lane>;
  private number = 0;

  constructor(limits: Record<keyof typeof WORK, Limits> = WORK) {
    this.lanes = { short: new Lane(limits.short), long: new Lane(limits.long) };
  }

  /**
   * @throws DomainError what the task refuses, or `work.…` where it took too long, too much memory, or was cancelled
   */
  run<K extends TaskName>(task: K, given: Tasks[K]['given'], options: WorkOptions = {}): Promise<Tasks[K]['gives']> {
    return this.lanes[LANE[task]].run({ id: ++this.number, task, given }, options) as Promise<Tasks[K]['gives']>;
  }

  close(): void {
    this.lanes.short.close();
    this.lanes.long.close();
  }
}
