import path from 'node:path';
import { DataTypes, QueryTypes, Sequelize, type Model, type ModelStatic, type Transaction } from 'sequelize';
import sqlite3 from 'sqlite3';
import { SequelizeStorage, Umzug } from 'umzug';
import { migrations } from './migrations';

/** Figures of a project as its card shows them, and the state they were worked out from. */
export interface CardFigures {
  seq: number;
  rooms: number;
  /** m² */
  area: number;
  pieces: number;
}

export interface ProjectRow {
  id: string;
  name: string;
  seq: number;
  createdAt: Date;
  changedAt: Date;
  deletedAt: Date | null;
  /** JSON of its figures; null until they are worked out. */
  card: string | null;
  /** JSON of the states in which its log went on in a newer format, oldest first: `{ seq, version }`. */
  boundaries: string;
}

export interface ChangeRow {
  projectId: string;
  seq: number;
  changeId: string;
  kind: 'do' | 'undo' | 'redo';
  target: string | null;
  command: string;
  title: string;
  /** Packed arguments, and patches there and back. */
  data: Buffer;
  at: Date;
}

export interface SnapshotRow {
  projectId: string;
  seq: number;
  /** The packed project. */
  data: Buffer;
}

export interface AssetRow {
  hash: string;
  mime: string;
  bytes: number;
  /** Pixels; null for what was taken in before they were kept. */
  width: number | null;
  height: number | null;
  at: Date;
}

/** A file that some state of a project needs. */
export interface UseRow {
  projectId: string;
  hash: string;
}

export interface LibraryRow {
  id: string;
  kind: 'finish' | 'scheme' | 'set' | 'style';
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
  uses: Table<UseRow>;
  library: Table<LibraryRow>;
  /** Runs writes one after another, each in a transaction of its own. */
  write<T>(work: (transaction: Transaction) => Promise<T>): Promise<T>;
}

export const DATABASE_FILE = 'enstegon.sqlite';

/** Each transaction has a connection of its own: what holds for one connection is set on every one, as it opens. */
class TunedDatabase extends sqlite3.Database {
  constructor(file: string, mode: number, opened: (error: Error | null) => void) {
    super(file, mode, (error) => {
      if (error) return opened(error);
      this.exec('PRAGMA busy_timeout = 5000; PRAGMA synchronous = FULL; PRAGMA foreign_keys = ON', opened);
    });
  }
}

/** Opens the database of a folder, in write-ahead mode with foreign keys on, and brings its tables up to date. */
export async function openDatabase(folder: string): Promise<Database> {
  const sequelize = new Sequelize({
    dialect: 'sqlite',
    dialectModule: { ...sqlite3, Database: TunedDatabase },
    storage: path.join(folder, DATABASE_FILE),
    logging: false,
    define: { timestamps: false },
  });
  try {
    const [{ auto_vacuum: giving }] = await sequelize.query<{ auto_vacuum: number }>('PRAGMA auto_vacuum', { type: QueryTypes.SELECT });
    // Space is given back piece by piece; a database from before that is rearranged once, and works without where there is no room for it.
    if (giving !== 2) {
      await sequelize.query('PRAGMA auto_vacuum = INCREMENTAL');
      await sequelize.query('VACUUM').catch(() => undefined);
    }
    await sequelize.query('PRAGMA journal_mode = WAL');
    const umzug = new Umzug({ migrations, context: sequelize.getQueryInterface(), storage: new SequelizeStorage({ sequelize }), logger: undefined });
    await umzug.up();
  } catch (error) {
    await sequelize.close().catch(() => undefined);
    throw error;
  }

  const define = <R extends object>(name: string, columns: Record<string, object>): Table<R> =>
    sequelize.define(name, columns as never, { tableName: name }) as unknown as Table<R>;
  // The library writes into the column objects it is given: each model gets its own.
  const key = (length = 80): object => ({ type: DataTypes.STRING(length), allowNull: false, primaryKey: true });
  const number = (): object => ({ type: DataTypes.INTEGER, allowNull: false });
  let queue: Promise<unknown> = Promise.resolve();
  return {
    sequelize,
    projects: define<ProjectRow>('projects', {
      id: key(),
      name: DataTypes.STRING(120) as never,
      seq: number(),
      createdAt: DataTypes.DATE as never,
      changedAt: DataTypes.DATE as never,
      deletedAt: DataTypes.DATE as never,
      card: DataTypes.TEXT as never,
      boundaries: { type: DataTypes.TEXT, allowNull: false, defaultValue: '[]' },
    }),
    changes: define<ChangeRow>('changes', {
      projectId: key(),
      seq: { ...number(), primaryKey: true },
      changeId: DataTypes.STRING(40) as never,
      kind: DataTypes.STRING(8) as never,
      target: DataTypes.STRING(40) as never,
      command: DataTypes.STRING(40) as never,
      title: DataTypes.STRING(120) as never,
      data: DataTypes.BLOB as never,
      at: DataTypes.DATE as never,
    }),
    snapshots: define<SnapshotRow>('snapshots', { projectId: key(), seq: { ...number(), primaryKey: true }, data: DataTypes.BLOB as never }),
    assets: define<AssetRow>('assets', {
      hash: key(64),
      mime: DataTypes.STRING(60) as never,
      bytes: DataTypes.INTEGER as never,
      width: DataTypes.INTEGER as never,
      height: DataTypes.INTEGER as never,
      at: DataTypes.DATE as never,
    }),
    uses: define<UseRow>('uses', { projectId: key(), hash: key(64) }),
    library: define<LibraryRow>('library', {
      id: key(),
      kind: DataTypes.STRING(20) as never,
      name: DataTypes.STRING(120) as never,
      data: DataTypes.TEXT as never,
      at: DataTypes.DATE as never,
    }),
    write(work) {
      const next = queue.then(() => sequelize.transaction(work));
      queue = next.catch(() => undefined);
      return next;
    },
  };
}
