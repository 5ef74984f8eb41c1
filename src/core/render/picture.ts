import type { Model } from '../model/model';
import { textureOf } from '../finishes/store';
import { daylight } from '../light/daylight';
import { litBy, sceneryOf } from '../light/surroundings';
import type { Camera } from './camera';
import type { Shot } from '../project/schema';
import { presenceIn } from './shot';
import { compileScene, texture } from './compile';
import { type Scene } from './scene';

/** Longest side of the textures a picture is traced with, pixels. */
export const PICTURE_TEXTURE = 768;

/** A model with its finishes, textures, daylight and surroundings, ready to be traced; pictures these are made from are at hand. @param looking how it is looked at; all of it shows unless told */
export function pictureScene(model: Model, pixels = PICTURE_TEXTURE, looking?: Shot['looking']): Scene {
  const scene = untextured(model, looking);
  texture(scene, (finish) => textureOf(finish, pixels));
  return scene;
}

/** The same before textures are put on: they can be drawn elsewhere meanwhile. */
export function untextured(model: Model, looking?: Shot['looking']): Scene {
  const { site } = model.project;
  const light = daylight(site);
  const beyond = sceneryOf(site, light);
  const scene = compileScene({
    model,
    daylight: litBy(light, beyond),
    ...(looking ? { presence: presenceIn(model, looking), white: looking.look.mode === 'white' } : {}),
  });
  return { ...scene, beyond, outside: 2 ** site.seen };
}

/**
 * The cut-off for single indirect contributions, cd/m². It stands far above the sky at the horizon, sunlit ground and lamps,
 * also where one of two lights is aimed at and counts twice: only what is rare is cut, and no region of a picture by more than a
 * hundredth (bench/references proves it).
 */
export const FIREFLY = 120_000;

export type { Camera };
