import { mkdir, rm } from 'node:fs/promises';
import { boardOf, pagesOf } from '@/core/boards/layout';
import { PROJECT_FILE } from '@/core/formats/project-file/project-file';
import { DomainError } from '@/core/project/errors';
import { fileName } from '@/core/units/text';
import type { Project } from '@/core/project/schema';
import { workOn, type App } from './application';
import { DOTS, PICTURE_KINDS, type PictureKind } from './jobs/picture-kinds';
import type { WorkOptions } from './jobs/workers';
import { passing } from './store/folder';
import { newProjectId } from './store/projects';
import { download } from './web/respond';

/** What can be taken away of a project. */
export interface Wanted {
  kind: string;
  board: string | null;
  page: string | null;
  picture?: string | null;
  /** What a picture is handed over as. */
  as?: string | null;
  /** Dots an inch. */
  dots?: number | null;
}

export interface Export {
  file: string;
  headers: Record<string, string>;
  name: string;
}

/**
 * Makes an export of a project, in a process of its own.
 *
 * @throws DomainError where there is no such export, board or page, or the project can't be read
 */
export async function makeExport(app: App, id: string, wanted: Wanted, options: WorkOptions = {}): Promise<Export> {
  const as = ({ file }: { file: string }, mime: string, name: string): Export => ({ file, name, headers: download(mime, name) });
  if (wanted.kind === 'file') {
    const { project, name, damaged } = await readable(app, id);
    return as(
      await workOn(app, 'file', project, { damaged }, options),
      'application/zip',
      fileName(name, damaged ? 'what could be read' : '', new Date(), PROJECT_FILE),
    );
  }
  const { project } = await app.projects.load(id);
  switch (wanted.kind) {
    case 'glb':
      return as(await workOn(app, 'glb', project, {}, options), 'model/gltf-binary', fileName(project.name, 'model', new Date(), '.glb'));
    case 'pdf': {
      const board = boardOf(project, wanted.board);
      return as(await workOn(app, 'pdf', project, { board: board.id }, options), 'application/pdf', fileName(project.name, board.name, new Date(), '.pdf'));
    }
    case 'png': {
      const board = boardOf(project, wanted.board);
      const pages = pagesOf(board).map((own) => own.id);
      const page = pages.length > 1 && wanted.page ? `, page ${pages.indexOf(wanted.page) + 1}` : '';
      const name = fileName(project.name, `${board.name}${page}`, new Date(), '.png');
      return as(await workOn(app, 'png', project, { board: board.id, page: wanted.page }, options), 'image/png', name);
    }
    case 'picture': {
      const picture = Object.hasOwn(project.pictures, wanted.picture ?? '') ? project.pictures[wanted.picture!] : undefined;
      if (!picture) throw new DomainError('picture.missing', 'There is no such picture in the project.');
      const as_ = wanted.as ?? 'png';
      if (!isPictureKind(as_)) throw new DomainError('export.missing', 'A picture can’t be had as that.');
      const dots = wanted.dots ?? 300;
      if (!(dots >= DOTS.least && dots <= DOTS.most))
        throw new DomainError('picture.dots', `The picture was not made: dots an inch are a number from ${DOTS.least} to ${DOTS.most}.`);
      const { ending, mime } = PICTURE_KINDS[as_];
      const name = fileName(project.name, picture.name, new Date(), ending);
      return as(await workOn(app, 'handed', project, { picture: picture.id, as: as_, dots }, options), mime, name);
    }
    default:
      throw new DomainError('export.missing', 'There is no such export.');
  }
}

const isPictureKind = (as: string): as is PictureKind => Object.hasOwn(PICTURE_KINDS, as);

/** A project for its file: as it stands, or what can be read of a damaged one. */
async function readable(app: App, id: string): Promise<{ project: Project | unknown; name: string; damaged: boolean }> {
  try {
    const { project } = await app.projects.load(id);
    return { project, name: project.name, damaged: false };
  } catch (error) {
    if (!(error instanceof DomainError) || !error.code.startsWith('project.') || error.code === 'project.missing') throw error;
    const { project, name } = await app.projects.salvage(id);
    return { project, name, damaged: true };
  }
}

/**
 * Takes in a project file; it always becomes a project of its own.
 *
 * @param file where its bytes lie
 * @returns the id of the new project
 */
export async function importProject({ folder, workers, files, projects }: App, file: string, options: WorkOptions = {}): Promise<string> {
  const out = passing(folder);
  await mkdir(out, { recursive: true });
  try {
    const { id, name, data, assets } = await workers.run('import', { file, out, id: newProjectId() }, options);
    for (const facts of assets) await files.put(facts);
    return await projects.createPacked({ id, name, data: Buffer.from(data), assets: [...new Set(assets.map((a) => a.hash))] });
  } finally {
    await rm(out, { recursive: true, force: true });
  }
}
