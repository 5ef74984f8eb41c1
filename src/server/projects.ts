import { randomUUID } from 'node:crypto';
import { applyPatches, enablePatches, type Patch } from 'immer';
import { Op, type Transaction } from 'sequelize';
import { assetsOf, readProjectFile, writeProjectFile } from '@/core/formats/project-file/project-file';
import { commandTitle, runChange, validateProject, type Change } from '@/core/project/commands';
import { DomainError } from '@/core/project/errors';
import { emptyProject, FORMAT_VERSION, type Project } from '@/core/project/schema';
import { HISTORY_SENT, SNAPSHOT_EVERY } from './config';
import type { ChangeRow, Database } from './database';
import type { FileStore } from './files';

enablePatches();

/** A project on the list. */
export interface ProjectCard {
  id: string;
  name: string;
  changedAt: string;
  seq: number;
  rooms: number;
  area: number;
  pieces: number;
}

/** A change as it was kept, with its patches there and back. */
export interface KeptChange {
  id: string;
  seq: number;
  kind: Change['kind'];
  target: string | null;
  title: string;
  patches: Patch[];
  inverse: Patch[];
}

export type Appended = { ok: true; seq: number } | { ok: false; seq: number; changes: KeptChange[] };

interface State {
  seq: number;
  project: Project;
}

/**
 * Projects as an append-only log of changes with snapshots. One writer at a time: the log is the only thing that
 * decides, and what `append` has answered is on the disk.
 */
export class Projects {
  private readonly states = new Map<string, State>();
  private queue: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly db: Database,
    readonly files: FileStore,
  ) {}

  /** Runs one write after another. */
  private exclusive<T>(work: () => Promise<T>): Promise<T> {
    const next = this.queue.then(work, work);
    this.queue = next.catch(() => undefined);
    return next;
  }

  async list(): Promise<{ id: string; name: string; seq: number; changedAt: Date }[]> {
    return (await this.db.projects.findAll({ where: { deletedAt: null }, order: [['changedAt', 'DESC']] })).map((row) => ({
      id: row.id,
      name: row.name,
      seq: row.seq,
      changedAt: row.changedAt,
    }));
  }

  /** @throws DomainError `project.missing` */
  async load(id: string): Promise<State> {
    const row = await this.db.projects.findByPk(id);
    if (!row || row.deletedAt) throw new DomainError('project.missing', 'This project is not here; it may have been deleted.', [id]);
    const known = this.states.get(id);
    if (known && known.seq === row.seq) return known;
    const snapshot = await this.db.snapshots.findOne({ where: { projectId: id }, order: [['seq', 'DESC']] });
    if (!snapshot) throw new DomainError('project.broken', 'This project can’t be opened: its first state is missing.', [id]);
    let project = JSON.parse(snapshot.json) as Project;
    const rows = await this.db.changes.findAll({ where: { projectId: id, seq: { [Op.gt]: snapshot.seq } }, order: [['seq', 'ASC']] });
    for (const change of rows) project = applyPatches(project, JSON.parse(change.patches) as Patch[]);
    const seq = rows.length ? rows[rows.length - 1].seq : snapshot.seq;
    if ((project.version as number) < FORMAT_VERSION) {
      // What an earlier version kept is brought up to date once; later changes stand on this snapshot.
      project = validateProject(project);
      await this.db.snapshots.destroy({ where: { projectId: id, seq } });
      await this.db.snapshots.create({ projectId: id, seq, json: JSON.stringify(project) });
    }
    const state = { seq, project };
    this.states.set(id, state);
    return state;
  }

  /** Changes after a sequence number, oldest first. */
  async changesSince(id: string, seq: number): Promise<KeptChange[]> {
    const rows = await this.db.changes.findAll({ where: { projectId: id, seq: { [Op.gt]: seq } }, order: [['seq', 'ASC']], limit: 5000 });
    return rows.map(kept);
  }

  /** The newest changes, for undo after a reload, oldest first. */
  async history(id: string): Promise<KeptChange[]> {
    const rows = await this.db.changes.findAll({ where: { projectId: id }, order: [['seq', 'DESC']], limit: HISTORY_SENT });
    return rows.reverse().map(kept);
  }

  create(project: Project): Promise<string> {
    return this.exclusive(async () => {
      const valid = validateProject(project);
      const now = new Date();
      await this.db.sequelize.transaction(async (transaction) => {
        await this.db.projects.create({ id: valid.id, name: valid.name, seq: 0, createdAt: now, changedAt: now, deletedAt: null }, { transaction });
        await this.db.snapshots.create({ projectId: valid.id, seq: 0, json: JSON.stringify(valid) }, { transaction });
      });
      return valid.id;
    });
  }

  createEmpty(name: string, units: Project['units']): Promise<string> {
    return this.create(emptyProject(newProjectId(), name, units));
  }

  /** A copy under a new name that lives its own life. */
  async duplicate(id: string): Promise<string> {
    const { project } = await this.load(id);
    return this.create({ ...project, id: newProjectId(), name: `${project.name}, copy`.slice(0, 120) });
  }

  /** Takes in a project file; it always becomes a project of its own. */
  async import(bytes: Uint8Array): Promise<string> {
    const { project, assets } = readProjectFile(bytes);
    for (const asset of assets) await this.files.keep(asset.bytes);
    return this.create({ ...project, id: newProjectId() });
  }

  async export(id: string): Promise<{ name: string; bytes: Uint8Array<ArrayBuffer> }> {
    const { project } = await this.load(id);
    const assets = await Promise.all(assetsOf(project).map(async (hash) => ({ hash, bytes: (await this.files.read(hash)).bytes as Uint8Array })));
    return { name: project.name, bytes: writeProjectFile(project, assets) };
  }

  /** Takes a project off the list, or puts it back. */
  setDeleted(id: string, deleted: boolean): Promise<void> {
    return this.exclusive(async () => {
      const [count] = await this.db.projects.update({ deletedAt: deleted ? new Date() : null }, { where: { id } });
      if (!count) throw new DomainError('project.missing', 'This project is not here.', [id]);
      this.states.delete(id);
    });
  }

  /**
   * Appends changes that stand on sequence number `base`, all or none. Changes that were kept before (a repeated
   * request) are passed over. Where others have come between, nothing is written and they are returned.
   *
   * @throws DomainError for a change that can't be run, or refers to a file that is not here
   */
  append(id: string, base: number, changes: readonly Change[]): Promise<Appended> {
    return this.exclusive(async () => {
      const state = await this.load(id);
      const since = base < state.seq ? await this.changesSince(id, base) : [];
      const incoming = new Set(changes.map((c) => c.id));
      const known = new Set(
        (await this.db.changes.findAll({ where: { projectId: id, changeId: [...incoming] }, attributes: ['changeId'] })).map((r) => r.changeId),
      );
      const fresh = changes.filter((c) => !known.has(c.id));
      if (base > state.seq || since.some((c) => !incoming.has(c.id))) return { ok: false, seq: state.seq, changes: since };
      if (!fresh.length) return { ok: true, seq: state.seq };
      const before = new Set(assetsOf(state.project));
      let { project, seq } = state;
      const rows: ChangeRow[] = [];
      const at = new Date();
      for (const change of fresh) {
        const outcome = runChange(project, change);
        project = outcome.project;
        rows.push({
          projectId: id,
          seq: ++seq,
          changeId: change.id,
          kind: change.kind,
          target: change.target ?? null,
          command: change.command,
          title: outcome.title || commandTitle(change.command),
          args: JSON.stringify(change.args ?? null),
          patches: JSON.stringify(outcome.patches),
          inverse: JSON.stringify(outcome.inverse),
          at,
        });
      }
      for (const hash of assetsOf(project))
        if (!before.has(hash) && !(await this.files.has(hash)))
          throw new DomainError('asset.missing', 'The picture was not kept: its file has not arrived; try again.', []);
      await this.db.sequelize.transaction(async (transaction) => {
        await this.db.changes.bulkCreate(rows, { transaction });
        await this.db.projects.update({ seq, name: project.name, changedAt: at }, { where: { id }, transaction });
        if (Math.floor(seq / SNAPSHOT_EVERY) > Math.floor(state.seq / SNAPSHOT_EVERY)) await this.snapshot(id, seq, project, transaction);
      });
      this.states.set(id, { seq, project });
      return { ok: true, seq };
    });
  }

  private async snapshot(id: string, seq: number, project: Project, transaction: Transaction): Promise<void> {
    await this.db.snapshots.create({ projectId: id, seq, json: JSON.stringify(project) }, { transaction });
  }
}

const kept = (row: ChangeRow): KeptChange => ({
  id: row.changeId,
  seq: row.seq,
  kind: row.kind,
  target: row.target,
  title: row.title,
  patches: JSON.parse(row.patches) as Patch[],
  inverse: JSON.parse(row.inverse) as Patch[],
});

export const newProjectId = (): string => `p-${randomUUID().slice(0, 18)}`;
