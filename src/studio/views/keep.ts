import { FIRST_COLOURS } from '@/core/project/kinds/first-finishes';
import type { LightShare } from '@/core/light/shares';
import { writePng } from '@/core/formats/png';
import { DomainError } from '@/core/project/errors';
import type { Change } from '@/core/project/commands';
import type { BoardItem, Development, Project } from '@/core/project/schema';
import { AS_TRACED, developed, relight } from '@/core/render/development';
import { passesOf, readLight, writeLight } from '@/core/formats/light-file';
import { blend, maskWithPart, partWeights, withPart } from '@/core/render/part-again';
import { smallSize } from '@/core/render/large';
import { pictureState } from '@/core/project/picture-state';
import { sheetPicture, sheetTitle } from '@/core/boards/hours';
import { PAPERS } from '@/core/boards/layout';
import type { OnSheet, Order } from '@/core/render/orders';
import type { Finished } from '@/core/render/trace-job';
import { printWithPart, smallPart } from './print';
import { api, ApiError } from '../store/api';
import { isOpen, newId, useStudio } from '../store/studio';

export interface KeptPicture extends Finished {
  /** Colour temperature shown as white, K; null: that of the display. */
  white: number | null;
  /** Of one for print: all its light, of which the rest is a small picture. */
  print: Blob | null;
}

/** A picture as it is shown, as PNG. */
export const developPng = (
  light: { radiance: Float32Array; shares: readonly LightShare[]; width: number; height: number },
  as: Development,
): Uint8Array<ArrayBuffer> => writePng(developed(relight(light.radiance, light.shares, as.lights), as), light.width, light.height);

/** How often it is tried to add to a project that others change meanwhile. */
const TRIES = 6;

/**
 * Keeps a finished picture with the project it was begun in: in this window where that project is still open, else on
 * the server.
 *
 * @throws DomainError, ApiError where it was not kept
 */
export async function keepPicture(
  { stamp, project: shownProject, shot, width, height, sheet }: Pick<Order, 'stamp' | 'project' | 'shot' | 'width' | 'height' | 'sheet'>,
  { radiance, shares, samples, exposure, white, noise, passes, print }: KeptPicture,
): Promise<void> {
  const light = { radiance, shares, ...(print ? smallSize({ width, height }) : { width, height }) };
  const development = { ...AS_TRACED, exposure, white };
  const kept = await api.keepFile(new Blob([writeLight(light, passes)]));
  const image = await api.keepFile(new Blob([developPng(light, development)]));
  const full = print && (await api.keepFile(print));
  const id = newId('picture');
  const made = new Date().toISOString();
  const argsFor = (project: Project) => {
    const number = Object.values(project.pictures).filter((p) => p.name.startsWith(stamp.name)).length;
    return {
      id,
      name: number ? `${stamp.name} ${number + 1}` : stamp.name,
      viewpoint: stamp.viewpoint && project.viewpoints[stamp.viewpoint] ? stamp.viewpoint : null,
      width,
      height,
      samples: Math.round(samples),
      ...development,
      shot,
      moment: shownProject.site.moment,
      noise,
      state: pictureState(shownProject),
      radiance: kept,
      full,
      scheme: project.schemes[stamp.scheme] ? stamp.scheme : null,
      image,
      made,
    };
  };
  await carryOut(stamp.project, (project) => [
    { command: 'picture.add', args: argsFor(project) },
    ...(sheet ? onSheet(project, sheet, id, width / height) : []),
  ]);
}

/**
 * Puts a part that was made again into its picture, whose lights stay as they are set. Undone, the picture is as before.
 *
 * @throws DomainError, ApiError where it was not kept
 */
export async function keepPart({ stamp, part }: Pick<Order, 'stamp' | 'part'>, { radiance, shares, passes }: KeptPicture): Promise<void> {
  const { picture: id, region } = part!;
  const { project } = isOpen(stamp.project) ? useStudio.getState() : await api.load(stamp.project);
  const picture = Object.hasOwn(project.pictures, id) ? project.pictures[id] : undefined;
  if (!picture) throw new DomainError('picture.missing', 'The picture it is a part of is gone.', [id]);
  const bytes = await api.file(picture.radiance);
  const whole = readLight(bytes);
  const { width, height } = whole;
  // Of a picture for print the part is put into the full light, and smaller into the small picture.
  const full = picture.full && (await api.keepFile(await printWithPart(await api.blob(picture.full), { radiance, cover: passes.cover }, region, picture)));
  const own = full ? smallPart({ radiance, shares, passes }, region, picture, whole) : { region, light: { radiance, shares }, passes };
  const light = { ...withPart(whole, own.light, own.region, { width, height }), width, height };
  const before = passesOf(bytes, width, height);
  const weights = partWeights(own.region, { width, height });
  const objects = before?.objects && own.passes.objects && maskWithPart(before.objects, own.passes.objects, weights, own.region, width);
  const together = (key: 'guides' | 'depth' | 'cover', per: number): Float32Array => blend(before![key], own.passes[key], weights, own.region, width, per);
  const kept = await api.keepFile(
    new Blob([writeLight(light, before ? { guides: together('guides', 6), depth: together('depth', 1), cover: together('cover', 1), objects } : undefined)]),
  );
  const image = await api.keepFile(new Blob([developPng(light, picture)]));
  await carryOut(stamp.project, () => [{ command: 'picture.set', args: { picture: id, set: { radiance: kept, image, ...(full ? { full } : {}) } } }]);
}

interface Edit {
  command: Change['command'];
  args: Record<string, unknown>;
}

const SHEET = PAPERS['A3 landscape'];

/** Puts a picture at its place on a sheet: a page of the project’s board, which is made with the first of them. */
function onSheet(project: Project, { page, title, index, count, caption }: OnSheet, picture: string, aspect: number): Edit[] {
  const boards = Object.values(project.boards);
  const board = boards.find((b) => Object.hasOwn(b.pages, page)) ?? boards[0];
  const paper = board?.paper ?? SHEET;
  const item = (name: string, plain: ReturnType<typeof sheetPicture>[number]): BoardItem => ({ ...plain, id: `${page}-${name}`, page }) as BoardItem;
  const placed = sheetPicture(paper, { index, count, aspect }, picture, caption).map((plain) => item(`${plain.kind}-${index}`, plain));
  if (board && Object.hasOwn(board.pages, page)) return [{ command: 'item.add', args: { board: board.id, items: placed } }];
  const items = [item('title', sheetTitle(paper, title)), ...placed];
  const made = { id: page, name: title, order: board ? Object.keys(board.pages).length : 0, ground: FIRST_COLOURS.page };
  if (board)
    return [
      { command: 'page.put', args: { board: board.id, page: made } },
      { command: 'item.add', args: { board: board.id, items } },
    ];
  const own = { id: newId('board'), name: title, paper, pages: { [page]: made }, items: Object.fromEntries(items.map((i) => [i.id, i])) };
  return [{ command: 'board.add', args: own }];
}

/**
 * Edits a project: in this window where it is open, else on the server.
 *
 * @throws DomainError, ApiError where it was not done
 */
async function carryOut(id: string, edits: (project: Project) => Edit[]): Promise<void> {
  if (isOpen(id)) {
    const { project, run } = useStudio.getState();
    for (const { command, args } of edits(project))
      if (!run(command, args)) throw new DomainError('picture.refused', useStudio.getState().notice ?? 'The project did not take it.');
    return;
  }
  const own = crypto.randomUUID().replace(/-/g, '').slice(0, 14);
  for (let tries = 0; tries < TRIES; tries++) {
    const { seq, project } = await api.load(id);
    const answer = await api.append(
      id,
      seq,
      edits(project).map((edit, i) => ({ id: `${own}${String(i).padStart(2, '0')}`, kind: 'do', ...edit })),
    );
    if (answer.ok) return;
  }
  throw new ApiError('The project it belongs to is being changed elsewhere; render it again.', 409);
}
