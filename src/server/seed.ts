import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { composePage } from '@/core/boards/compose';
import { PAPERS } from '@/core/boards/layout';
import { heronLockCottage } from '@/core/demo/heron-lock';
import { deriveModel } from '@/core/model/derive';
import { readLight } from '@/core/formats/light-file';
import { writePng } from '@/core/formats/png';
import { usualWhite } from '@/core/light/white';
import { contentHash, type Asset } from '@/core/formats/project-file/project-file';
import { pictureState } from '@/core/project/picture-state';
import { develop } from '@/core/render/development';
import { shotFrom } from '@/core/render/shot';
import { meterExposure } from '@/core/render/tone';
import { runChange } from '@/core/project/commands';
import type { BoardItem, Project } from '@/core/project/schema';
import type { App } from './application';

interface Shipped {
  file: string;
  id: string;
  name: string;
  viewpoint: string;
  scheme: string;
  samples: number;
  made: string;
  /** Another hour than that of the project. */
  moment?: string;
}

/** The id of the demo project. */
const DEMO = 'heron-lock-cottage';

/** The pictures that ship with the demo, from its own viewpoints, rendered by `enstegon render`. */
const PICTURES: Shipped[] = [
  {
    file: 'kitchen.exr',
    id: 'picture-kitchen',
    name: 'Kitchen from the hall door',
    viewpoint: 'view-kitchen',
    scheme: 'scheme-1',
    samples: 96,
    made: '2026-12-01T05:02:00.000Z',
  },
  {
    file: 'kitchen-bindery.hdr',
    id: 'picture-kitchen-bindery',
    name: 'Kitchen from the hall door, bindery',
    viewpoint: 'view-kitchen',
    scheme: 'scheme-bindery',
    samples: 40,
    made: '2026-12-01T05:01:30.000Z',
  },
  {
    file: 'living.hdr',
    id: 'picture-living',
    name: 'Living room',
    viewpoint: 'view-living',
    scheme: 'scheme-1',
    samples: 96,
    made: '2026-12-01T05:01:00.000Z',
  },
  {
    file: 'shower.hdr',
    id: 'picture-shower',
    name: 'Shower room',
    viewpoint: 'view-shower',
    scheme: 'scheme-1',
    samples: 64,
    made: '2026-12-01T09:36:00.000Z',
  },
  {
    file: 'loft.exr',
    id: 'picture-loft',
    name: 'Reading loft in the evening',
    viewpoint: 'view-loft',
    scheme: 'scheme-1',
    samples: 64,
    made: '2026-12-01T05:00:20.000Z',
    moment: '2026-05-12T21:50',
  },
  {
    file: 'canal.hdr',
    id: 'picture-canal',
    name: 'From the towpath',
    viewpoint: 'view-garden',
    scheme: 'scheme-1',
    samples: 48,
    made: '2026-12-01T05:00:10.000Z',
  },
];

/** The demo project with its pictures and its board, and the files they need. */
export async function demoProject(id = DEMO): Promise<{ project: Project; assets: Asset[] }> {
  let project = heronLockCottage(id);
  const assets: Asset[] = [];
  let step = 0;
  const run = (command: Parameters<typeof runChange>[1]['command'], args: unknown): void => {
    project = runChange(project, { id: `demoboard${step++}`, kind: 'do', command, args }).project;
  };
  for (const { file, moment = project.site.moment, ...picture } of PICTURES) {
    const light = new Uint8Array(await readFile(path.join(process.cwd(), 'assets', 'demo', file)));
    const { width, height, radiance } = readLight(light);
    const exposure = Math.round(meterExposure(radiance) * 10) / 10;
    const white = usualWhite({ ...project.site, moment });
    const [kept, image] = [light, writePng(develop(radiance, exposure, white), width, height)].map((bytes) => ({ hash: contentHash(bytes), bytes }));
    assets.push(kept, image);
    const shot = shotFrom(project.viewpoints[picture.viewpoint]);
    const state = pictureState(project, picture.scheme, moment);
    run('picture.add', { ...picture, width, height, exposure, white, radiance: kept.hash, image: image.hash, shot, moment, state });
  }
  const kitchen = Object.values(project.rooms).find((r) => r.name.startsWith('Kitchen'))!;
  const paper = PAPERS['A3 landscape'];
  const items = composePage(deriveModel(project), paper, {
    title: kitchen.name,
    line: 'Heron Lock Cottage. Sample sizes follow the surface they cover.',
    picture: PICTURES[0].id,
    room: kitchen.id,
  });
  run('board.add', {
    id: 'board-client',
    name: 'Client presentation',
    paper,
    pages: { 'page-1': { id: 'page-1', name: 'Kitchen', order: 0, ground: '#F4F1EA' } },
    items: Object.fromEntries(items.map((item, i) => [`item-${i}`, { ...item, id: `item-${i}`, page: 'page-1' } as BoardItem])),
  });
  return { project, assets };
}

/** Puts the demo on the list, once: a database that has had it keeps what has become of it. @param made how the demo is made */
export async function seedDemo({ db, files, projects }: App, made = demoProject): Promise<boolean> {
  if (await db.projects.findByPk(DEMO)) return false;
  const { project, assets } = await made();
  for (const asset of assets) await files.keep(asset.bytes);
  await projects.create(project);
  return true;
}
