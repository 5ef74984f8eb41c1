import type { Model } from '../derive';
import { finishById } from '../finishes/library';
import { makeTexture } from '../finishes/texture';
import type { Finish, Texture } from '../finishes/finish';
import { daylight } from '../light/daylight';
import { compileScene, type Camera, type Scene } from './scene';

/** Longest side of the textures a picture is traced with, pixels. */
export const PICTURE_TEXTURE = 768;

const textures = new Map<string, Texture>();

/** The texture of a shipped finish, made once. */
export function textureOf(finish: Finish, pixels: number): Texture {
  const key = `${finish.id} ${pixels}`;
  let texture = textures.get(key);
  if (!texture) textures.set(key, (texture = makeTexture(finish, pixels)));
  return texture;
}

/** A model with its finishes, textures and daylight, ready to be traced. */
export function pictureScene(model: Model, pixels = PICTURE_TEXTURE): Scene {
  return compileScene({
    shell: model.shell,
    pieces: model.pieces,
    finish: finishById,
    texture: (finish) => (finish.maker.kind === 'flat' ? null : textureOf(finish, pixels)),
    daylight: daylight(model.project.site),
  });
}

/** The cut-off for indirect fireflies, cd/m²: far above what a lit room shows, well below a bulb or the sun. */
export const FIREFLY = 4000;

export type { Camera };
