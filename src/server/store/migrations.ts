import { DataTypes, QueryTypes, type QueryInterface, type Transaction } from 'sequelize';
import { pack } from './packing';

const id = { type: DataTypes.STRING(80), allowNull: false };
const projectKey = { ...id, references: { model: 'projects', key: 'id' }, onDelete: 'CASCADE' };

/** The tables as the first release made them; later ones add steps, never change these. */
export const migrations = [
  {
    name: '0001-first-tables',
    async up({ context: q }: { context: QueryInterface }): Promise<void> {
      await q.createTable('projects', {
        id: { ...id, primaryKey: true },
        name: { type: DataTypes.STRING(120), allowNull: false },
        seq: { type: DataTypes.INTEGER, allowNull: false },
        createdAt: { type: DataTypes.DATE, allowNull: false },
        changedAt: { type: DataTypes.DATE, allowNull: false },
        deletedAt: { type: DataTypes.DATE, allowNull: true },
      });
      await q.createTable('changes', {
        projectId: { ...projectKey, primaryKey: true },
        seq: { type: DataTypes.INTEGER, allowNull: false, primaryKey: true },
        changeId: { type: DataTypes.STRING(40), allowNull: false },
        kind: { type: DataTypes.STRING(8), allowNull: false },
        target: { type: DataTypes.STRING(40), allowNull: true },
        command: { type: DataTypes.STRING(40), allowNull: false },
        title: { type: DataTypes.STRING(120), allowNull: false },
        args: { type: DataTypes.TEXT, allowNull: false },
        patches: { type: DataTypes.TEXT, allowNull: false },
        inverse: { type: DataTypes.TEXT, allowNull: false },
        at: { type: DataTypes.DATE, allowNull: false },
      });
      await q.addIndex('changes', ['projectId', 'changeId'], { unique: true });
      await q.createTable('snapshots', {
        projectId: { ...projectKey, primaryKey: true },
        seq: { type: DataTypes.INTEGER, allowNull: false, primaryKey: true },
        json: { type: DataTypes.TEXT, allowNull: false },
      });
      await q.createTable('assets', {
        hash: { type: DataTypes.STRING(64), allowNull: false, primaryKey: true },
        mime: { type: DataTypes.STRING(60), allowNull: false },
        bytes: { type: DataTypes.INTEGER, allowNull: false },
        at: { type: DataTypes.DATE, allowNull: false },
      });
    },
    async down({ context: q }: { context: QueryInterface }): Promise<void> {
      for (const table of ['assets', 'snapshots', 'changes', 'projects']) await q.dropTable(table);
    },
  },
  {
    name: '0002-library',
    async up({ context: q }: { context: QueryInterface }): Promise<void> {
      await q.createTable('library', {
        id: { ...id, primaryKey: true },
        kind: { type: DataTypes.STRING(20), allowNull: false },
        name: { type: DataTypes.STRING(120), allowNull: false },
        data: { type: DataTypes.TEXT, allowNull: false },
        at: { type: DataTypes.DATE, allowNull: false },
      });
    },
    async down({ context: q }: { context: QueryInterface }): Promise<void> {
      await q.dropTable('library');
    },
  },
  {
    // Records are packed, snapshots thinned later; which files a project has ever needed is known without reading its log.
    name: '0003-packed-log',
    async up({ context: q }: { context: QueryInterface }): Promise<void> {
      if ('data' in (await q.describeTable('changes'))) return;
      await q.sequelize.transaction((transaction) => packLog(q, transaction));
    },
    async down(): Promise<void> {
      throw new Error('The packed log is not unpacked again.');
    },
  },
  {
    // A log may go on in a newer format than it began in: where, is kept with its project.
    name: '0004-boundaries',
    async up({ context: q }: { context: QueryInterface }): Promise<void> {
      if ('boundaries' in (await q.describeTable('projects'))) return;
      await q.addColumn('projects', 'boundaries', { type: DataTypes.TEXT, allowNull: false, defaultValue: '[]' });
    },
    async down({ context: q }: { context: QueryInterface }): Promise<void> {
      await q.removeColumn('projects', 'boundaries');
    },
  },
];

const HASH = /"([0-9a-f]{64})"/g;

/** Copies the log into tables of packed records, in one transaction. */
async function packLog(q: QueryInterface, transaction: Transaction): Promise<void> {
  const { sequelize } = q;
  const blob = { type: DataTypes.BLOB, allowNull: false };
  await q.createTable(
    'packed_changes',
    {
      projectId: { ...projectKey, primaryKey: true },
      seq: { type: DataTypes.INTEGER, allowNull: false, primaryKey: true },
      changeId: { type: DataTypes.STRING(40), allowNull: false },
      kind: { type: DataTypes.STRING(8), allowNull: false },
      target: { type: DataTypes.STRING(40), allowNull: true },
      command: { type: DataTypes.STRING(40), allowNull: false },
      title: { type: DataTypes.STRING(120), allowNull: false },
      data: blob,
      at: { type: DataTypes.DATE, allowNull: false },
    },
    { transaction },
  );
  await q.createTable(
    'packed_snapshots',
    { projectId: { ...projectKey, primaryKey: true }, seq: { type: DataTypes.INTEGER, allowNull: false, primaryKey: true }, data: blob },
    { transaction },
  );
  await q.createTable(
    'uses',
    { projectId: { ...projectKey, primaryKey: true }, hash: { type: DataTypes.STRING(64), allowNull: false, primaryKey: true } },
    { transaction },
  );
  for (const column of ['width', 'height']) await q.addColumn('assets', column, { type: DataTypes.INTEGER, allowNull: true }, { transaction });
  await q.addColumn('projects', 'card', { type: DataTypes.TEXT, allowNull: true }, { transaction });

  const select = <R extends object>(sql: string, bind: unknown[]): Promise<R[]> => sequelize.query<R>(sql, { bind, type: QueryTypes.SELECT, transaction });
  const uses = new Set<string>();
  const note = (projectId: string, text: string): void => {
    for (const [, hash] of text.matchAll(HASH)) uses.add(`${projectId} ${hash}`);
  };
  let from = 0;
  for (;;) {
    const rows = await select<Record<'projectId' | 'args' | 'patches' | 'inverse', string> & { rowid: number }>(
      'SELECT rowid, projectId, args, patches, inverse FROM changes WHERE rowid > $1 ORDER BY rowid LIMIT 500',
      [from],
    );
    if (!rows.length) break;
    for (const { rowid, projectId, args, patches, inverse } of rows) {
      note(projectId, patches + inverse);
      const data = pack({ args: JSON.parse(args) as unknown, patches: JSON.parse(patches) as unknown, inverse: JSON.parse(inverse) as unknown });
      await sequelize.query(
        'INSERT INTO packed_changes (projectId, seq, changeId, kind, target, command, title, data, at) SELECT projectId, seq, changeId, kind, target, command, title, $1, at FROM changes WHERE rowid = $2',
        { bind: [data, rowid], transaction },
      );
    }
    from = rows[rows.length - 1].rowid;
  }
  const snapshots = await select<{ rowid: number; projectId: string }>('SELECT rowid, projectId FROM snapshots', []);
  for (const { rowid, projectId } of snapshots) {
    const [{ seq, json }] = await select<{ seq: number; json: string }>('SELECT seq, json FROM snapshots WHERE rowid = $1', [rowid]);
    note(projectId, json);
    // A state that can't be read stays as it is: text in place of packed bytes is found when the project is opened, and named then.
    let data: unknown = json;
    try {
      data = pack(JSON.parse(json));
    } catch {
      // Kept as text.
    }
    await sequelize.query('INSERT INTO packed_snapshots (projectId, seq, data) VALUES ($1, $2, $3)', { bind: [projectId, seq, data], transaction });
  }
  const known = new Set((await select<{ hash: string }>('SELECT hash FROM assets', [])).map((r) => r.hash));
  for (const use of uses) {
    const [projectId, hash] = use.split(' ');
    if (known.has(hash)) await sequelize.query('INSERT INTO uses (projectId, hash) VALUES ($1, $2)', { bind: [projectId, hash], transaction });
  }
  for (const table of ['changes', 'snapshots']) {
    await q.dropTable(table, { transaction });
    await q.renameTable(`packed_${table}`, table, { transaction });
  }
  await q.addIndex('changes', ['projectId', 'changeId'], { unique: true, transaction });
}
