import { readFile, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { boardOf } from '@/core/boards/layout';
import type { Project } from '@/core/project/schema';
import { keptFile, type PictureFacts } from '../store/files';
import { pack } from '../store/packing';
import { lookThrough } from './pictures';
import type { TaskName, Tasks } from './tasks';

type Tell = (share: number, at: string) => void;
type Work = { [K in TaskName]: (given: Tasks[K]['given'], tell: Tell) => Promise<Tasks[K]['gives']> };

const open = async (file: string): Promise<Project> => JSON.parse(await readFile(file, 'utf8')) as Project;

// Each task loads what it needs when it is first called: a process that looks pictures through is ready at once.
const projectFiles = () => import('@/core/formats/project-file/project-file');
const exports = () => import('./exports');

/** How each task is done, inside the process for it. */
export const TASK_WORK: Work = {
  picture: ({ file, out }) => lookThrough(file, out),

  async import({ file, out, id }, tell) {
    const { ProjectZip } = await import('./project-file');
    const { assetsOf, renameAssets } = await projectFiles();
    const zip = await ProjectZip.open(file);
    try {
      tell(0, 'Reading the project');
      let project = await zip.project();
      const hashes = assetsOf(project);
      zip.checkSizes(hashes);
      const assets: PictureFacts[] = [];
      const renamed = new Map<string, string>();
      for (const [i, hash] of hashes.entries()) {
        tell(0.1 + (0.8 * i) / hashes.length, `Reading picture ${i + 1} of ${hashes.length}`);
        const facts = await lookThrough(await zip.extract(hash, out), path.join(out, `${hash}.plain`));
        if (facts.hash !== hash) renamed.set(hash, facts.hash);
        assets.push(facts);
      }
      tell(0.9, 'Putting it on the list');
      project = { ...renameAssets(project, renamed), id };
      return { id, name: project.name, data: new Uint8Array(pack(project)), assets };
    } finally {
      zip.close();
    }
  },

  async card({ project }) {
    const { deriveModel } = await import('@/core/model/derive');
    const model = deriveModel(await open(project));
    const rooms = [...model.shell.rooms.values()];
    return { rooms: rooms.length, area: rooms.reduce((sum, r) => sum + r.area, 0), pieces: model.pieces.length };
  },

  async thumbnail({ project, folder, out }) {
    await writeFile(out, await (await exports()).thumbnail(await open(project), folder));
    return { file: out };
  },

  async glb({ project, folder, out }, tell) {
    await writeFile(out, await (await exports()).exportGlb(await open(project), folder, tell));
    return { file: out };
  },

  async pdf({ project, folder, out, board }, tell) {
    const { exportPdf } = await exports();
    const own = await open(project);
    await writeFile(out, await exportPdf(own, boardOf(own, board), folder, tell));
    return { file: out };
  },

  async png({ project, folder, out, board, page }, tell) {
    const { exportPng } = await exports();
    const own = await open(project);
    await writeFile(out, await exportPng(own, boardOf(own, board), page, folder, tell));
    return { file: out };
  },

  async handed({ project, folder, out, picture, as, dots }) {
    const { handedPicture } = await import('./handed-picture');
    await writeFile(out, await handedPicture((await open(project)).pictures[picture], as, dots, folder));
    return { file: out };
  },

  async file({ project, folder, out, damaged }, tell) {
    const { assetsOf, writeProjectFile } = await projectFiles();
    const own = await open(project);
    const hashes = damaged ? [...new Set(JSON.stringify(own).match(/(?<=")[0-9a-f]{64}(?=")/g) ?? [])] : assetsOf(own);
    const assets: { hash: string; bytes: Uint8Array }[] = [];
    for (const [i, hash] of hashes.entries()) {
      tell((0.6 * i) / hashes.length, `Picture ${i + 1} of ${hashes.length}`);
      const bytes = await keptFile(folder, hash).then(
        (file) => readFile(file),
        (error: unknown) => {
          if (damaged) return null;
          throw error;
        },
      );
      if (bytes) assets.push({ hash, bytes });
    }
    tell(0.7, 'Packing');
    await writeFile(out, writeProjectFile(own, assets));
    return { file: out };
  },
};
