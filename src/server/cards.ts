import { readFile, unlink } from 'node:fs/promises';
import { DomainError } from '@/core/project/errors';
import { workOn, type App } from './application';
import { KEPT_DAYS } from './config';
import type { CardFigures, ProjectRow } from './store/database';
import { faultOf } from './store/faults';
import type { ProjectCard } from './store/projects';

/**
 * The projects as cards. Figures are worked out in a process of their own where a project has changed since; one that
 * can't be read is listed with the reason, and leaves the others alone.
 *
 * @param wait left out: cards whose figures are not known yet are `pending`, with those they had, and are worked out meanwhile
 */
export const cards = async (app: App, wait = true): Promise<ProjectCard[]> =>
  Promise.all(
    (await app.projects.list()).map((row) => {
      const known = figuresOf(row.card);
      if (known?.seq === row.seq) return cardOf(row, known, null);
      const worked = working(app, row);
      return wait || worked.done ? worked.card : cardOf(row, known ?? NO_FIGURES, null, true);
    }),
  );

const UNREADABLE = 'This project can’t be shown: something in it is damaged; export it to keep what can still be read.';
const NO_FIGURES = { rooms: 0, area: 0, pieces: 0 };

const cardOf = (row: ProjectRow, { rooms, area, pieces }: Omit<CardFigures, 'seq'>, damaged: string | null, pending = false): ProjectCard => ({
  id: row.id,
  name: row.name,
  seq: row.seq,
  changedAt: row.changedAt.toISOString(),
  rooms,
  area,
  pieces,
  damaged,
  pending,
});

interface Working {
  card: Promise<ProjectCard>;
  done: boolean;
}

/** Cards being worked out, and those that turned out to be damaged, by project and state: nobody works one out twice. */
const workings = new WeakMap<App, Map<string, Working>>();

function working(app: App, row: ProjectRow): Working {
  let own = workings.get(app);
  if (!own) workings.set(app, (own = new Map()));
  const key = `${row.id} ${row.seq}`;
  let made = own.get(key);
  if (!made) {
    const begun: Working = { card: workOut(app, row), done: false };
    made = begun;
    own.set(key, begun);
    void begun.card.then(
      // What is known is kept with the project; only what can't be worked out stays here, for a while.
      (card) => {
        begun.done = true;
        if (card.damaged === null) own.delete(key);
        else setTimeout(() => own.delete(key), 10_000).unref();
      },
      () => own.delete(key),
    );
  }
  return made;
}

async function workOut(app: App, row: ProjectRow): Promise<ProjectCard> {
  try {
    const { seq, project } = await app.projects.load(row.id);
    const figures = await workOn(app, 'card', project, {});
    await app.projects.noteCard(row.id, { ...figures, seq });
    return cardOf(row, figures, null);
  } catch (error) {
    if (faultOf(error)) throw error;
    if (!(error instanceof DomainError)) console.error(error);
    // Work that was stopped says nothing about the project.
    const stopped = error instanceof DomainError && error.code.startsWith('work.');
    return cardOf(row, NO_FIGURES, stopped ? null : error instanceof DomainError ? error.message : UNREADABLE);
  }
}

function figuresOf(json: string | null): CardFigures | null {
  try {
    return json ? (JSON.parse(json) as CardFigures) : null;
  } catch {
    return null;
  }
}

/** What was deleted and can still be put back. */
export const deletedProjects = async ({ projects }: App): Promise<{ id: string; name: string; deletedAt: string; until: string }[]> =>
  (await projects.list(true)).map(({ id, name, deletedAt }) => ({
    id,
    name,
    deletedAt: deletedAt!.toISOString(),
    until: new Date(deletedAt!.getTime() + KEPT_DAYS * 24 * 60 * 60 * 1000).toISOString(),
  }));

const pictures = new Map<string, { seq: number; png: Uint8Array<ArrayBuffer> }>();

/** The picture of a project's card as PNG; remembered for the state it shows. */
export async function cardPicture(app: App, id: string, signal?: AbortSignal): Promise<Uint8Array<ArrayBuffer>> {
  const { seq, project } = await app.projects.load(id);
  const known = pictures.get(id);
  if (known?.seq === seq) return known.png;
  const { file } = await workOn(app, 'thumbnail', project, {}, { signal });
  const png = new Uint8Array(await readFile(file));
  await unlink(file);
  pictures.delete(id);
  pictures.set(id, { seq, png });
  if (pictures.size > 60) pictures.delete(pictures.keys().next().value!);
  return png;
}
