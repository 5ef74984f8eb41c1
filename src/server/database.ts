import path from 'node:path';
import { DataTypes, Sequelize, type ModelStatic, type Model, type QueryInterface } from 'sequelize';
import sqlite3 from 'sqlite3';
import { SequelizeStorage, Umzug } from 'umzug';
import { dataFolder } from './config';

export interface ProjectRow {
  id: string;
  name: string;
  seq: number;
  createdAt: Date;
  changedAt: Date;
  deletedAt: Date | null;
}

export interface ChangeRow {
  projectId: string;
  seq: number;
  changeId: string;
  kind: 'do' | 'undo' | 'redo';
  target: string | null;
  command: string;
  title: string;
  args: string;
  patches: string;
  inverse: string;
  at: Date;
}

export interface SnapshotRow {
  projectId: string;
  seq: number;
  json: string;
}

export interface AssetRow {
  hash: string;
  mime: string;
  bytes: number;
  at: Date;
}

export interface LibraryRow {
  id: string;
  kind: 'finish' | 'scheme';
  name: string;
  data: string;
  at: Date;
}

type Table<R extends object> = ModelStatic<Model<R> & R>;

export interface Database {
  sequelize: Sequelize;
  projects: Table<ProjectRow>;
  changes: Table<ChangeRow>;
  snapshots: Table<SnapshotRow>;
  assets: Table<AssetRow>;
  library: Table<LibraryRow>;
}

const id = { type: DataTypes.STRING(80), allowNull: false };
const projectKey = { ...id, references: { model: 'projects', key: 'id' }, onDelete: 'CASCADE' };

/** The tables as the first release made them; later ones add steps, never change these. */
const migrations = [
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
];

/** Opens the database of a folder, in write-ahead mode with foreign keys on, and brings its tables up to date. */
export async function openDatabase(folder: string): Promise<Database> {
  const sequelize = new Sequelize({
    dialect: 'sqlite',
    dialectModule: sqlite3,
    storage: path.join(folder, 'enstegon.sqlite'),
    logging: false,
    define: { timestamps: false },
  });
  await sequelize.query('PRAGMA journal_mode = WAL');
  await sequelize.query('PRAGMA synchronous = FULL');
  await sequelize.query('PRAGMA foreign_keys = ON');
  await sequelize.query('PRAGMA busy_timeout = 5000');
  const umzug = new Umzug({ migrations, context: sequelize.getQueryInterface(), storage: new SequelizeStorage({ sequelize }), logger: undefined });
  await umzug.up();

  const define = <R extends object>(name: string, columns: Record<string, object>): Table<R> =>
    sequelize.define(name, columns as never, { tableName: name }) as unknown as Table<R>;
  // The library writes into the column objects it is given: each model gets its own.
  const key = (): object => ({ ...id, primaryKey: true });
  const number = (): object => ({ type: DataTypes.INTEGER, allowNull: false });
  return {
    sequelize,
    projects: define<ProjectRow>('projects', {
      id: key(),
      name: DataTypes.STRING(120) as never,
      seq: number(),
      createdAt: DataTypes.DATE as never,
      changedAt: DataTypes.DATE as never,
      deletedAt: DataTypes.DATE as never,
    }),
    changes: define<ChangeRow>('changes', {
      projectId: key(),
      seq: { ...number(), primaryKey: true },
      changeId: DataTypes.STRING(40) as never,
      kind: DataTypes.STRING(8) as never,
      target: DataTypes.STRING(40) as never,
      command: DataTypes.STRING(40) as never,
      title: DataTypes.STRING(120) as never,
      args: DataTypes.TEXT as never,
      patches: DataTypes.TEXT as never,
      inverse: DataTypes.TEXT as never,
      at: DataTypes.DATE as never,
    }),
    snapshots: define<SnapshotRow>('snapshots', { projectId: key(), seq: { ...number(), primaryKey: true }, json: DataTypes.TEXT as never }),
    assets: define<AssetRow>('assets', {
      hash: { type: DataTypes.STRING(64), primaryKey: true },
      mime: DataTypes.STRING(60) as never,
      bytes: DataTypes.INTEGER as never,
      at: DataTypes.DATE as never,
    }),
    library: define<LibraryRow>('library', {
      id: key(),
      kind: DataTypes.STRING(20) as never,
      name: DataTypes.STRING(120) as never,
      data: DataTypes.TEXT as never,
      at: DataTypes.DATE as never,
    }),
  };
}

const shared = globalThis as typeof globalThis & { enstegonDatabase?: Promise<Database> };

/** The application's database, opened once a process. */
export const database = (): Promise<Database> => (shared.enstegonDatabase ??= openDatabase(dataFolder()));
