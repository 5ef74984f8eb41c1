import { applyPatches, enablePatches, type Patch } from 'immer';
import { commandTitle, EARLIER_FORMAT, runChange, type Change } from '@/core/project/commands';
import { DomainError } from '@/core/project/errors';
import type { Project } from '@/core/project/schema';
import { api, ApiError, type KeptChange } from './api';
import { changeId, type Shown } from './gesture';
import { Outbox, type Aside } from './outbox';

enablePatches();

/** What an edit left behind, for taking it back. */
export interface UndoStep {
  id: string;
  title: string;
  patches: Patch[];
  inverse: Patch[];
}

interface Pending {
  /** Where it waits in the browser. */
  key: string;
  change: Change;
  /** The project after this change. */
  after: Project;
}

export interface SyncState {
  project: Project;
  /** `held`: the server answers, but can keep nothing now. */
  status: 'kept' | 'keeping' | 'offline' | 'held';
  keptAt: Date | null;
  undo: UndoStep[];
  redo: UndoStep[];
  /** Whether there are steps before those, made with an earlier version, which can’t be taken back. */
  earlier: boolean;
  message: string | null;
  /** Edits that were refused, with the reason; they can be tried again. */
  aside: Aside[];
}

/** The most edits in one request. */
const BATCH = 200;

/** Steps back and forward from a kept history: every change that stands, newest last. */
export function stacksOf(history: readonly KeptChange[]): { undo: UndoStep[]; redo: UndoStep[] } {
  const undo: UndoStep[] = [];
  const redo: UndoStep[] = [];
  for (const c of history) {
    if (c.kind === 'do') {
      undo.push({ id: c.id, title: c.title, patches: c.patches, inverse: c.inverse });
      redo.length = 0;
    } else if (c.kind === 'undo') {
      const i = undo.findIndex((s) => s.id === c.target);
      if (i >= 0) redo.push(...undo.splice(i, 1));
    } else {
      const i = redo.findIndex((s) => s.id === c.target);
      if (i >= 0) undo.push(...redo.splice(i, 1));
    }
  }
  return { undo, redo };
}

/**
 * Keeps one project in step with the server: edits show at once, travel as changes standing on a sequence number, and
 * wait in the browser while the server can't be reached. Where another window was first, its changes come in and the
 * waiting edits are run again on top; one that no longer can be run is named.
 */
export class Sync {
  private confirmed: Project;
  private seq: number;
  private pending: Pending[] = [];
  private batch = BATCH;
  private readonly outbox: Outbox;
  private sending = false;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private poll: ReturnType<typeof setInterval> | null = null;
  private state: SyncState;

  private constructor(
    private readonly id: string,
    loaded: { seq: number; project: Project; history: KeptChange[]; earlier: boolean },
    private readonly publish: (state: SyncState) => void,
  ) {
    this.confirmed = loaded.project;
    this.seq = loaded.seq;
    this.outbox = new Outbox(id);
    this.state = { project: loaded.project, status: 'kept', keptAt: null, ...stacksOf(loaded.history), earlier: loaded.earlier, message: null, aside: [] };
  }

  static async open(id: string, publish: (state: SyncState) => void): Promise<Sync> {
    const loaded = await api.load(id);
    const sync = new Sync(id, loaded, publish);
    const known = new Set(loaded.history.map((c) => c.id));
    sync.state.aside = await sync.outbox.asides();
    for (const { key, change } of await sync.outbox.waiting())
      if (known.has(change.id)) await sync.outbox.remove([key]);
      else sync.take(key, change);
    sync.publish(sync.state);
    if (sync.pending.length) sync.schedule(0);
    sync.poll = setInterval(() => void sync.fetch(), 2500);
    addEventListener('online', sync.online);
    return sync;
  }

  close(): void {
    if (this.poll) clearInterval(this.poll);
    if (this.timer) clearTimeout(this.timer);
    removeEventListener('online', this.online);
  }

  private readonly online = (): void => this.schedule(0);

  get project(): Project {
    return this.state.project;
  }

  /**
   * Runs an edit.
   *
   * @param shown what it did when it was shown on the very project that is here now: it is not run again
   * @throws DomainError when it can't be run; nothing is changed then
   */
  run(command: Change['command'], args: unknown, shown: Shown | null = null): void {
    const change: Change = shown?.change ?? { id: changeId(), kind: 'do', command, args };
    const outcome = shown?.outcome ?? runChange(this.state.project, change);
    if (!outcome.patches.length) return;
    const step = { id: change.id, title: outcome.title, patches: outcome.patches, inverse: outcome.inverse };
    this.accept(change, outcome.project, { undo: [...this.state.undo, step], redo: [] });
  }

  undo(): void {
    const step = this.state.undo.at(-1);
    if (step) this.patch('undo', step, step.inverse, { undo: this.state.undo.slice(0, -1), redo: [...this.state.redo, step] });
    else if (this.state.earlier) this.set({ message: EARLIER_FORMAT });
  }

  redo(): void {
    const step = this.state.redo.at(-1);
    if (step) this.patch('redo', step, step.patches, { undo: [...this.state.undo, step], redo: this.state.redo.slice(0, -1) });
  }

  private patch(kind: 'undo' | 'redo', step: UndoStep, patches: Patch[], stacks: Pick<SyncState, 'undo' | 'redo'>): void {
    const change: Change = { id: changeId(), kind, target: step.id, command: 'history.patch', args: { patches } };
    try {
      this.accept(change, runChange(this.state.project, change).project, stacks);
    } catch (error) {
      // What it touched is gone: the step leaves the stack so that earlier ones can be reached.
      this.set({ ...(kind === 'undo' ? { undo: this.state.undo.slice(0, -1) } : { redo: this.state.redo.slice(0, -1) }), message: errorText(error) });
    }
  }

  private accept(change: Change, after: Project, stacks: Pick<SyncState, 'undo' | 'redo'>): void {
    this.pending.push({ key: this.outbox.add(change), change, after });
    const unreached = this.state.status === 'offline' || this.state.status === 'held';
    this.set({ project: after, ...stacks, status: unreached ? this.state.status : 'keeping', message: unreached ? this.state.message : null });
    this.schedule(120);
  }

  /** Takes up a change that waited in the browser. */
  private take(key: string, change: Change): void {
    try {
      const outcome = runChange(this.state.project, change);
      this.pending.push({ key, change, after: outcome.project });
      const step = { id: change.id, title: outcome.title, patches: outcome.patches, inverse: outcome.inverse };
      this.state = { ...this.state, project: outcome.project, status: 'keeping', undo: change.kind === 'do' ? [...this.state.undo, step] : this.state.undo };
    } catch (error) {
      void this.outbox.remove([key]);
      this.state = { ...this.state, aside: this.putAside(change, errorText(error)) };
    }
  }

  /** Keeps a refused edit apart. Gives back all that are. */
  private putAside(change: Change, message: string): Aside[] {
    const aside = { change, title: commandTitle(change.command), message };
    void this.outbox.setAside(aside);
    return [...this.state.aside.filter((a) => a.change.id !== change.id), aside];
  }

  /** Runs an edit that was set aside once more; where it is refused again it stays, with the reason of now. */
  retry(id: string): void {
    const aside = this.state.aside.find((a) => a.change.id === id);
    if (!aside) return;
    try {
      const outcome = runChange(this.state.project, aside.change);
      this.letGo(id);
      const step = { id, title: outcome.title, patches: outcome.patches, inverse: outcome.inverse };
      this.accept(aside.change, outcome.project, { undo: [...this.state.undo, step], redo: [] });
    } catch (error) {
      this.set({ aside: this.putAside(aside.change, errorText(error)) });
    }
  }

  /** Lets an edit go that was set aside. */
  letGo(id: string): void {
    void this.outbox.letGo(id);
    this.set({ aside: this.state.aside.filter((a) => a.change.id !== id) });
  }

  private set(next: Partial<SyncState>): void {
    this.state = { ...this.state, ...next };
    this.publish(this.state);
  }

  private schedule(ms: number): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), ms);
  }

  private async flush(): Promise<void> {
    if (this.sending || !this.pending.length) return;
    this.sending = true;
    const batch = this.pending.slice(0, this.batch);
    try {
      const answer = await api.append(
        this.id,
        this.seq,
        batch.map((p) => p.change),
      );
      if (answer.ok) {
        this.confirmed = batch.at(-1)!.after;
        this.seq = answer.seq;
        this.pending = this.pending.slice(batch.length);
        this.batch = BATCH;
        await this.outbox.remove(batch.map((p) => p.key));
        const message = this.state.status === 'held' ? null : this.state.message;
        this.set(this.pending.length ? { status: 'keeping', keptAt: new Date(), message } : { status: 'kept', keptAt: new Date(), message });
      } else this.rebase(answer.seq, answer.changes);
    } catch (error) {
      this.refused(error, batch);
    } finally {
      this.sending = false;
    }
    if (this.pending.length && this.state.status === 'keeping') this.schedule(0);
  }

  /** A batch that was not kept: the edit at fault is set aside and the others go again; where it is not an edit’s fault, all of them wait. */
  private refused(error: unknown, batch: readonly Pending[]): void {
    const refusal = error instanceof ApiError && !error.offline ? error : null;
    const named = refusal && batch.find((p) => p.change.id === refusal.change);
    const doubtful = refusal !== null && !named && (refusal.status === 413 || refusal.status === 422);
    // Where no edit is named, half of them are sent at a time until the one at fault is alone.
    const culprit = named ?? (doubtful && batch.length === 1 ? batch[0] : null);
    if (culprit) {
      const { key, change } = culprit;
      this.pending = this.pending.filter((p) => p !== culprit);
      void this.outbox.remove([key]);
      this.state = { ...this.state, aside: this.putAside(change, refusal!.message) };
      // What is set aside is shown with its reason: a notice would say it twice.
      this.replay(null, change.id);
    } else if (doubtful) {
      this.batch = Math.max(1, Math.floor(batch.length / 2));
      this.set({ status: 'keeping' });
    } else {
      this.set(refusal ? { status: 'held', message: refusal.message } : { status: 'offline' });
      this.schedule(3000);
    }
  }

  /** Brings in what other windows did and runs the waiting edits again on top. */
  private rebase(seq: number, changes: readonly KeptChange[]): void {
    const own = new Set(this.pending.map((p) => p.change.id));
    for (const c of changes) this.confirmed = applyPatches(this.confirmed, c.patches as Patch[]);
    this.seq = seq;
    const arrived = this.pending.filter((p) => changes.some((c) => c.id === p.change.id));
    void this.outbox.remove(arrived.map((p) => p.key));
    this.pending = this.pending.filter((p) => !arrived.includes(p));
    this.replay(changes.some((c) => !own.has(c.id)) && this.pending.length ? 'Another window changed this project too; both sets of edits are kept.' : null);
  }

  private replay(message: string | null, dropped?: string): void {
    let project = this.confirmed;
    const lost: string[] = [];
    const gone = new Set(dropped ? [dropped] : []);
    const next: Pending[] = [];
    for (const { key, change } of this.pending) {
      try {
        project = runChange(project, change).project;
        next.push({ key, change, after: project });
      } catch (error) {
        lost.push(errorText(error));
        gone.add(change.id);
        void this.outbox.remove([key]);
        this.state = { ...this.state, aside: this.putAside(change, errorText(error)) };
      }
    }
    this.pending = next;
    this.set({
      project,
      undo: this.state.undo.filter((s) => !gone.has(s.id)),
      redo: this.state.redo.filter((s) => !gone.has(s.id)),
      status: next.length ? 'keeping' : 'kept',
      message:
        lost.length && !dropped
          ? `Another window changed this project; ${lost.length === 1 ? 'one edit' : `${lost.length} edits`} of this window could not be kept. ${lost[0]}`
          : message,
    });
  }

  /** Looks for changes of other windows. */
  private async fetch(): Promise<void> {
    if (this.sending || document.hidden) return;
    try {
      const { seq, changes } = await api.since(this.id, this.seq);
      if (this.sending) return;
      if (seq > this.seq && changes.length && changes[0].seq === this.seq + 1) this.rebase(seq, changes);
      if (this.state.status === 'offline' || this.state.status === 'held') this.schedule(0);
    } catch {
      if (this.pending.length && this.state.status !== 'held') this.set({ status: 'offline' });
    }
  }

  dismiss(): void {
    this.set({ message: null });
  }
}

export const errorText = (error: unknown): string =>
  error instanceof DomainError || error instanceof ApiError ? error.message : 'Something unexpected happened; nothing was changed.';
