import { Deriver, type Model } from '@/core/derive';
import { dataFolder } from './config';
import { database, type Database } from './database';
import { FileStore } from './files';
import { Library } from './library';
import { Projects } from './projects';

/** Everything a request needs. */
export interface App {
  db: Database;
  files: FileStore;
  projects: Projects;
  library: Library;
}

const shared = globalThis as typeof globalThis & { enstegonApp?: Promise<App> };

export const makeApp = (db: Database, folder: string): App => {
  const files = new FileStore(folder, db);
  return { db, files, projects: new Projects(db, files), library: new Library(db) };
};

/** The application of this process. */
export const app = (): Promise<App> => (shared.enstegonApp ??= database().then((db) => makeApp(db, dataFolder())));

const models = new Map<string, { seq: number; model: Model }>();

/** The derived model of a project as it is kept; remembered for its sequence number. */
export async function modelOf(projects: Projects, id: string): Promise<{ seq: number; model: Model }> {
  const { seq, project } = await projects.load(id);
  const known = models.get(id);
  if (known?.seq === seq) return known;
  const made = { seq, model: new Deriver().derive(project) };
  if (models.size > 20) models.delete(models.keys().next().value!);
  models.set(id, made);
  return made;
}
