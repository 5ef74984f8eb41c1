import type { Model } from '../model/model';
import { textureOf } from '../finishes/store';
import { daylight } from '../light/daylight';
import type { Camera } from './camera';
import type { Shot } from '../project/schema';
import { presenceIn } from './shot';
import { compileScene, texture, type Scene } from './scene';

/** Longest side of the textures a picture is traced with, pixels. */
export const PICTURE_TEXTURE = 768;

/** A model with its finishes, textures and daylight, ready to be traced. @param looking how it is looked at; all of it shows unless told */
export function pictureScene(model: Model, pixels = PICTURE_TEXTURE, looking?: Shot['looking']): Scene {
  const scene = untextured(model, looking);
  texture(scene, (finish) => textureOf(finish, pixels));
  return scene;
}

/** The same before textures are put on: they can be drawn elsewhere meanwhile. */
export function untextured(model: Model, looking?: Shot['looking']): Scene {
  return compileScene({
    model,
    daylight: daylight(model.project.site),
    ...(looking ? { presence: presenceIn(model, looking), white: looking.look.mode === 'white' } : {}),
  });
}

/**
 * The cut-off for single indirect contributions, cd/m². It stands above the sky at the horizon, sunlit ground and lamps,
 * also where one of two lights is aimed at and counts twice: only what is rare is cut, and no mean by more than a hundredth.
 */
export const FIREFLY = 40_000;

export type { Camera };
