import type { Finish, Project } from '../project/schema';
import type { ImagePixels, Texture } from './finish';
import { finishById, hasFinish } from './library';
import { makeCutting, makeTexture, type Window } from './texture';

type Own = Pick<Project, 'finishes'>;

/** A finish of a project: one of its own, or a shipped one; what is in neither shows as bare plaster. */
export const finishIn = (project: Own, id: string): Finish => (Object.hasOwn(project.finishes, id) ? project.finishes[id] : finishById(id));

export const knowsFinish = (project: Own, id: string): boolean => Object.hasOwn(project.finishes, id) || hasFinish(id);

/** Pictures that finishes are made from, by the hash of their bytes: what lies under a hash never changes. */
const images = new Map<string, ImagePixels>();

/** The pictures the finishes of a project are made from that are not at hand yet. */
export const imagesWanted = (finishes: Iterable<Finish>): string[] => [
  ...new Set([...finishes].flatMap((f) => (f.body.kind === 'image' && !images.has(f.body.image) ? [f.body.image] : []))),
];

/** Brings the pictures of finishes to hand, so that their textures can be made. @param read decodes the file of a hash */
export async function fetchImages(finishes: Iterable<Finish>, read: (hash: string) => Promise<ImagePixels>): Promise<void> {
  await Promise.all(imagesWanted(finishes).map(async (hash) => void images.set(hash, await read(hash))));
}

const textures = new WeakMap<Finish, Map<number, Texture>>();

/**
 * The texture of a finish, made once for each resolution.
 *
 * @param pixels of its longer side
 */
export function textureOf(finish: Finish, pixels: number): Texture {
  let made = textures.get(finish);
  if (!made) textures.set(finish, (made = new Map()));
  let texture = made.get(pixels);
  if (!texture) made.set(pixels, (texture = makeTexture(finish, pixels, finish.figure, imageOf(finish))));
  return texture;
}

/** A part of a finish, made anew. @param width, height pixels */
export const cuttingOf = (finish: Finish, window: Window, width: number, height: number): Texture =>
  makeCutting(finish, window, width, height, finish.figure, imageOf(finish));

const imageOf = (finish: Finish): ImagePixels | undefined => (finish.body.kind === 'image' ? images.get(finish.body.image) : undefined);
