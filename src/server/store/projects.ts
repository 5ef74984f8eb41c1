import { randomUUID } from 'node:crypto';
import { applyPatches, enablePatches, type Patch } from 'immer';
import { Op, type Transaction } from 'sequelize';
import { assetsOf } from '@/core/formats/project-file/project-file';
import { broughtUp, commandTitle, runChange, validateProject, type Change } from '@/core/project/commands';
import { DomainError } from '@/core/project/errors';
import { emptyProject, FORMAT_VERSION, type Project } from '@/core/project/schema';
import { cutText } from '@/core/units/text';
import { HISTORY_SENT, SNAPSHOT_EVERY } from '../config';
import type { CardFigures, ChangeRow, Database, ProjectRow } from './database';
import { pack, unpack } from './packing';
import { thinned } from './thinning';

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
  /** Why it can’t be opened; null where it can. */
  damaged: string | null;
  /** Whether its figures are those of an earlier state, and being worked out. */
  pending: boolean;
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

/** A refusal of one change of a batch; the others are not at fault. */
export class ChangeRefused extends DomainError {
  constructor(
    refusal: DomainError,
    /** Id of the change that was refused. */
    readonly change: string,
  ) {
    super(refusal.code, refusal.message, refusal.ids);
  }
}

export interface State {
  seq: number;
  project: Project;
}

/** A state in which a log went on in a newer format. */
interface Boundary {
  seq: number;
  version: number;
}

/** How many changes are sent at once. */
export const STRETCH = 5000;

/** How many projects are held ready. */
const HELD = 24;

/** @param rest whether something of it can be read and taken elsewhere */
const broken = (id: string, why: string, rest = true): DomainError =>
  new DomainError('project.broken', `This project can’t be opened: ${why}${rest ? '; export it to keep what can still be read' : ''}.`, [id]);

/**
 * Projects as an append-only log of changes with snapshots. One writer at a time: the log is the only thing that
 * decides, and what `append` has answered is on the disk.
 */
export class Projects {
  private readonly states = new Map<string, State>();
  private readonly loading = new Map<string, Promise<State>>();
  private readonly queues = new Map<string, Promise<unknown>>();

  constructor(
    private readonly db: Database,
    private readonly files: { has(hash: string): Promise<boolean> },
  ) {}

  /** Runs what changes one project one after another. */
  private exclusive<T>(id: string, work: () => Promise<T>): Promise<T> {
    const next = (this.queues.get(id) ?? Promise.resolve()).then(work, work);
    const settled = next.then(
      () => undefined,
      () => undefined,
    );
    this.queues.set(id, settled);
    void settled.then(() => this.queues.get(id) === settled && this.queues.delete(id));
    return next;
  }

  private hold(id: string, state: State): State {
    this.states.delete(id);
    this.states.set(id, state);
    if (this.states.size > HELD) this.states.delete(this.states.keys().next().value!);
    return state;
  }

  /** Projects as they stand on the list, the latest changed first; or those that were deleted. */
  async list(deleted = false): Promise<ProjectRow[]> {
    const rows = await this.db.projects.findAll({
      where: { deletedAt: deleted ? { [Op.ne]: null } : null },
      order: [[deleted ? 'deletedAt' : 'changedAt', 'DESC']],
    });
    return rows.map((row) => row.get({ plain: true }) as ProjectRow);
  }

  /** Keeps the figures of a card with the state they belong to. */
  async noteCard(id: string, figures: CardFigures): Promise<void> {
    await this.db.write((transaction) => this.db.projects.update({ card: JSON.stringify(figures) }, { where: { id }, transaction }));
  }

  /** @throws DomainError `project.missing`, or `project.…` where its data can’t be read */
  async load(id: string): Promise<State> {
    const row = await this.db.projects.findByPk(id);
    if (!row || row.deletedAt) throw new DomainError('project.missing', 'This project is not here; it may have been deleted.', [id]);
    const known = this.states.get(id);
    if (known && known.seq === row.seq) return this.hold(id, known);
    // Whoever asks while it is read waits for the same reading.
    let reading = this.loading.get(id);
    if (!reading) {
      reading = this.bring(id).finally(() => this.loading.delete(id));
      this.loading.set(id, reading);
    }
    return reading;
  }

  /** Reads a project, and brings what an earlier version kept up to date, in one transaction. */
  private async bring(id: string): Promise<State> {
    const { seq, project, last } = await this.replay(id);
    if (seq !== last) throw broken(id, `of its ${last} changes, those from ${seq + 1} on can’t be read`);
    const version = (project as { version?: unknown }).version;
    if (typeof version !== 'number' || version > FORMAT_VERSION)
      throw broken(
        id,
        typeof version === 'number' ? `it was kept by a later version (${version}; this one reads up to ${FORMAT_VERSION})` : 'its state is damaged',
      );
    let current = project as Project;
    if (version < FORMAT_VERSION) {
      current = validateProject(project);
      const data = pack(current);
      // Later changes stand on this snapshot; those before it keep the format they were made in.
      const boundaries = [...(await this.boundaries(id)), { seq, version: FORMAT_VERSION }];
      await this.db.write(async (transaction) => {
        await this.db.snapshots.destroy({ where: { projectId: id, seq }, transaction });
        await this.db.snapshots.create({ projectId: id, seq, data }, { transaction });
        await this.db.projects.update({ boundaries: JSON.stringify(boundaries) }, { where: { id }, transaction });
      });
    }
    return this.hold(id, { seq, project: current });
  }

  /** The states in which the log of a project went on in a newer format, oldest first. */
  private async boundaries(id: string): Promise<Boundary[]> {
    const row = await this.db.projects.findByPk(id, { attributes: ['boundaries'] });
    return JSON.parse(row?.boundaries ?? '[]') as Boundary[];
  }

  /**
   * The newest state that can be read: from the newest readable snapshot as far as its changes reach without a gap.
   * Changes are run in the format they were kept in; where the log goes on in a newer one, the state is brought up.
   *
   * @param to the last change to be run; left out: the newest
   * @throws DomainError `project.broken` where there is no readable snapshot
   */
  private async replay(id: string, to = Infinity): Promise<{ seq: number; project: unknown; last: number }> {
    const until = Number.isFinite(to) ? { [Op.lte]: to } : {};
    const [row, boundaries, seqs] = await Promise.all([
      this.db.projects.findByPk(id),
      this.boundaries(id),
      this.db.snapshots.findAll({ where: { projectId: id, seq: { [Op.gte]: 0, ...until } }, attributes: ['seq'], order: [['seq', 'DESC']] }),
    ]);
    if (!seqs.length) throw broken(id, 'its first state is missing', false);
    const last = row?.seq ?? 0;
    for (const { seq: from } of seqs) {
      const snapshot = await this.db.snapshots.findOne({ where: { projectId: id, seq: from } });
      let project: unknown;
      try {
        project = unpack(snapshot!.data);
        if (project === null || typeof project !== 'object') continue;
      } catch {
        continue;
      }
      const rows = await this.db.changes.findAll({ where: { projectId: id, seq: { [Op.gt]: from, ...until } }, order: [['seq', 'ASC']] });
      const bringUp = (at: number): void => {
        for (const b of boundaries) if (b.seq === at) project = broughtUp(project, b.version);
      };
      let seq = from;
      for (const change of rows) {
        if (change.seq !== seq + 1) break;
        try {
          bringUp(seq);
          project = applyPatches(project as object, dataOf(change).patches);
        } catch {
          break;
        }
        seq = change.seq;
      }
      // An earlier snapshot would come to the same gap.
      return { seq, project, last };
    }
    throw broken(id, 'none of its states can be read', false);
  }

  /**
   * The project as it was after so many changes, brought up to the format of today.
   *
   * @throws DomainError `project.missing`, `project.broken` where that state can’t be read
   */
  async stateAt(id: string, at: number): Promise<Project> {
    const row = await this.db.projects.findByPk(id);
    if (!row || at < 0 || at > row.seq) throw new DomainError('project.missing', 'This state of the project is not here.', [id]);
    const { seq, project } = await this.replay(id, at);
    if (seq !== at) throw broken(id, `its change ${seq + 1} can’t be read`);
    return validateProject(project);
  }

  /** What can still be read of a project, checked or not, for taking it elsewhere. */
  async salvage(id: string): Promise<{ name: string; seq: number; last: number; project: unknown }> {
    const row = await this.db.projects.findByPk(id);
    if (!row) throw new DomainError('project.missing', 'This project is not here.', [id]);
    return { ...(await this.replay(id)), name: row.name };
  }

  /**
   * Changes after a sequence number, oldest first, `STRETCH` of them at most.
   *
   * @throws DomainError `project.raised` where they are of an earlier format, which no window knows any more
   */
  async changesSince(id: string, seq: number): Promise<KeptChange[]> {
    if (seq < (await this.boundary(id))) throw new DomainError('project.raised', 'This project was brought up to a newer version; reload the window.', [id]);
    const rows = await this.db.changes.findAll({ where: { projectId: id, seq: { [Op.gt]: seq } }, order: [['seq', 'ASC']], limit: STRETCH });
    const changes = rows.map(kept);
    if (changes.includes(null)) throw broken(id, 'one of its changes is damaged');
    return changes as KeptChange[];
  }

  /** Up to which change the log is of an earlier format; 0 where all of it is of today's. */
  async boundary(id: string): Promise<number> {
    return (await this.boundaries(id)).at(-1)?.seq ?? 0;
  }

  /** The newest changes, for undo after a reload, oldest first, as far back as they can be read and taken back. */
  async history(id: string): Promise<KeptChange[]> {
    const from = await this.boundary(id);
    const rows = await this.db.changes.findAll({ where: { projectId: id, seq: { [Op.gt]: from } }, order: [['seq', 'DESC']], limit: HISTORY_SENT });
    const changes = rows.map(kept);
    const end = changes.indexOf(null);
    return (end < 0 ? changes : changes.slice(0, end)).reverse() as KeptChange[];
  }

  create(project: Project): Promise<string> {
    const valid = validateProject(project);
    return this.createPacked({ id: valid.id, name: valid.name, data: pack(valid), assets: assetsOf(valid) });
  }

  /** Puts a project on the list whose first state is packed and was checked already. */
  async createPacked({ id, name, data, assets }: { id: string; name: string; data: Buffer; assets: readonly string[] }): Promise<string> {
    const now = new Date();
    await this.db.write(async (transaction) => {
      if (await this.db.projects.findByPk(id, { transaction }))
        throw new DomainError('project.taken', 'The project was not made: there is one with its id.', [id]);
      await this.db.projects.create({ id, name, seq: 0, createdAt: now, changedAt: now, deletedAt: null, card: null, boundaries: '[]' }, { transaction });
      await this.db.snapshots.create({ projectId: id, seq: 0, data }, { transaction });
      await this.note(id, assets, transaction);
    });
    return id;
  }

  private async note(projectId: string, hashes: readonly string[], transaction: Transaction): Promise<void> {
    if (hashes.length)
      await this.db.uses.bulkCreate(
        hashes.map((hash) => ({ projectId, hash })),
        { ignoreDuplicates: true, transaction },
      );
  }

  createEmpty(name: string, units: Project['units']): Promise<string> {
    return this.create(emptyProject(newProjectId(), name, units));
  }

  /** A copy under a new name that lives its own life. */
  async duplicate(id: string): Promise<string> {
    const { project } = await this.load(id);
    return this.create({ ...project, id: newProjectId(), name: `${cutText(project.name, 110)}, copy` });
  }

  /** Takes a project off the list, or puts it back. */
  setDeleted(id: string, deleted: boolean): Promise<void> {
    return this.exclusive(id, async () => {
      const [count] = await this.db.write((transaction) => this.db.projects.update({ deletedAt: deleted ? new Date() : null }, { where: { id }, transaction }));
      if (!count) throw new DomainError('project.missing', 'This project is not here.', [id]);
      this.states.delete(id);
    });
  }

  /** Takes a project away for good, with all that was kept of it but its files. */
  purge(id: string): Promise<void> {
    return this.exclusive(id, async () => {
      await this.db.write(async (transaction) => {
        // Changes, snapshots and uses go with it.
        await this.db.projects.destroy({ where: { id }, transaction });
      });
      this.states.delete(id);
    });
  }

  /**
   * Appends changes that stand on sequence number `base`, all or none. Changes that were kept before (a repeated
   * request) are passed over. Where others have come between, nothing is written and they are returned.
   *
   * @throws ChangeRefused for a change that can't be run, comes twice, or refers to a file that is not here
   */
  append(id: string, base: number, changes: readonly Change[]): Promise<Appended> {
    return this.exclusive(id, async () => {
      const state = await this.load(id);
      const since = base < state.seq ? await this.changesSince(id, base) : [];
      const incoming = new Set<string>();
      for (const change of changes) {
        if (incoming.has(change.id))
          throw new ChangeRefused(new DomainError('change.twice', 'Nothing was changed: one edit came twice in one request.'), change.id);
        incoming.add(change.id);
      }
      const known = new Set(
        (await this.db.changes.findAll({ where: { projectId: id, changeId: [...incoming] }, attributes: ['changeId'] })).map((r) => r.changeId),
      );
      const fresh = changes.filter((c) => !known.has(c.id));
      if (base > state.seq || since.some((c) => !incoming.has(c.id))) return { ok: false, seq: since.at(-1)?.seq ?? state.seq, changes: since };
      if (!fresh.length) return { ok: true, seq: state.seq };
      const needed = new Set(assetsOf(state.project));
      const added: string[] = [];
      let { project, seq } = state;
      const rows: ChangeRow[] = [];
      const at = new Date();
      for (const change of fresh) {
        try {
          const outcome = runChange(project, change);
          for (const hash of outcome.project === project ? [] : assetsOf(outcome.project))
            if (!needed.has(hash)) {
              if (!(await this.files.has(hash))) throw new DomainError('asset.missing', 'The picture was not kept: its file has not arrived; try again.', []);
              needed.add(hash);
              added.push(hash);
            }
          project = outcome.project;
          rows.push({
            projectId: id,
            seq: ++seq,
            changeId: change.id,
            kind: change.kind,
            target: change.target ?? null,
            command: change.command,
            title: outcome.title || commandTitle(change.command),
            data: pack({ args: change.args ?? null, patches: outcome.patches, inverse: outcome.inverse }),
            at,
          });
        } catch (error) {
          throw error instanceof DomainError ? new ChangeRefused(error, change.id) : error;
        }
        // A long batch lets other requests through between its changes.
        if (rows.length % 4 === 0) await new Promise((done) => setImmediate(done));
      }
      await this.db.write(async (transaction) => {
        await this.db.changes.bulkCreate(rows, { transaction });
        await this.db.projects.update({ seq, name: project.name, changedAt: at }, { where: { id }, transaction });
        await this.note(id, added, transaction);
        if (Math.floor(seq / SNAPSHOT_EVERY) > Math.floor(state.seq / SNAPSHOT_EVERY)) await this.snapshot(id, seq, project, transaction);
      });
      this.hold(id, { seq, project });
      return { ok: true, seq };
    });
  }

  private async snapshot(projectId: string, seq: number, project: Project, transaction: Transaction): Promise<void> {
    await this.db.snapshots.create({ projectId, seq, data: pack(project) }, { transaction });
    await this.thin(projectId, transaction);
  }

  /** Takes away snapshots that lie closer together than their age asks for. */
  async thin(projectId: string, transaction: Transaction): Promise<number> {
    const seqs = (await this.db.snapshots.findAll({ where: { projectId }, attributes: ['seq'], transaction })).map((s) => s.seq);
    const gone = thinned(seqs);
    if (gone.length) await this.db.snapshots.destroy({ where: { projectId, seq: gone }, transaction });
    return gone.length;
  }
}

interface ChangeData {
  args: unknown;
  patches: Patch[];
  inverse: Patch[];
}

const dataOf = (row: Pick<ChangeRow, 'data'>): ChangeData => unpack(row.data) as ChangeData;

/** A change as it is sent; null where its record is damaged. */
const kept = (row: ChangeRow): KeptChange | null => {
  try {
    const { patches, inverse } = dataOf(row);
    return { id: row.changeId, seq: row.seq, kind: row.kind, target: row.target, title: row.title, patches, inverse };
  } catch {
    return null;
  }
};

export const newProjectId = (): string => `p-${randomUUID().slice(0, 18)}`;
