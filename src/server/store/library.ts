import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { DomainError } from '@/core/project/errors';
import { Finish, Name } from '@/core/project/schema';
import { StyleKit } from '@/core/project/joinery';
import { PieceSet } from '@/core/project/piece-set';
import { SchemeKit } from '@/core/project/scheme-kit';
import type { Database } from './database';

/** What a practice keeps for its next projects. */
export const LibraryEntry = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('finish'), name: Name, data: Finish }),
  z.object({ kind: z.literal('scheme'), name: Name, data: SchemeKit }),
  z.object({ kind: z.literal('style'), name: Name, data: StyleKit }),
  z.object({ kind: z.literal('set'), name: Name, data: PieceSet }),
]);
export type LibraryEntry = z.infer<typeof LibraryEntry>;

/** The practice's own library: finishes, schemes, joinery styles and sets of pieces, beyond any one project. */
export class Library {
  constructor(private readonly db: Database) {}

  /** Everything that is kept, the latest first. What no longer fits is left out. */
  async list(): Promise<(LibraryEntry & { id: string })[]> {
    const rows = await this.db.library.findAll({ order: [['at', 'DESC']] });
    return rows.flatMap((row) => {
      const entry = LibraryEntry.safeParse({ kind: row.kind, name: row.name, data: parsed(row.data) });
      return entry.success ? [{ id: row.id, ...entry.data }] : [];
    });
  }

  /** Keeps an entry; one of the same kind and name takes its place. */
  async keep(entry: LibraryEntry): Promise<string> {
    const id = `own-${randomUUID().slice(0, 13)}`;
    await this.db.write(async (transaction) => {
      await this.db.library.destroy({ where: { kind: entry.kind, name: entry.name }, transaction });
      await this.db.library.create({ id, kind: entry.kind, name: entry.name, data: JSON.stringify(entry.data), at: new Date() }, { transaction });
    });
    return id;
  }

  /** @throws DomainError `library.missing` */
  async remove(id: string): Promise<void> {
    if (!(await this.db.write((transaction) => this.db.library.destroy({ where: { id }, transaction }))))
      throw new DomainError('library.missing', 'There is no such entry in the library any more.', [id]);
  }
}

const parsed = (json: string): unknown => {
  try {
    return JSON.parse(json) as unknown;
  } catch {
    return null;
  }
};
