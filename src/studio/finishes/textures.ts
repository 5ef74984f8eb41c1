import { useEffect, useState } from 'react';
import type { ColourMip, ReliefMip } from '@/core/finishes/mips';
import type { LightPixels } from '@/core/light/rgbe';
import type { Finish, SampleForm, Surroundings } from '@/core/project/schema';
import type { TextureService } from '@/workers/textures.worker';
import { useStudio } from '../store/studio';
import { Summoned, unlessLost } from '../work/summoned';

const textures = new Summoned<TextureService>(
  () => new Worker(new URL('../../workers/textures.worker.ts', import.meta.url), { type: 'module' }),
  'Finishes show as plain colours: the part of the application that draws them has stopped; reload the page.',
  (sentence) => useStudio.getState().say(sentence),
);

export interface TexturePixels {
  width: number;
  height: number;
  /** What it covers, metres. */
  size: { width: number; height: number };
  /** In steps of half the size. */
  colour: ColourMip[];
  /** Normals and the roughness that goes with them, in steps of half the size; null where it is smooth. */
  relief: ReliefMip[] | null;
  rough: Uint8Array | null;
}

/** Longest side of the textures in the view, pixels; most pictures take the same. */
export const VIEW_TEXTURE = 512;

/** Pixels of a finish, from the texture worker. */
export const loadTexture = (finish: Finish, pixels: number): Promise<TexturePixels> => textures.ask((s) => s.texture(finish, pixels) as Promise<TexturePixels>);

/** The picture of surroundings, no wider than told, pixels. */
export const loadBeyond = (picture: Surroundings['picture'], most: number): Promise<LightPixels> => textures.ask((s) => s.beyond(picture, most));

const samples = new WeakMap<Finish, Map<string, Promise<string>>>();

/** A sample as a picture address. */
export function sampleUrl(finish: Finish, form: SampleForm, width: number, height: number): Promise<string> {
  const key = `${form} ${width} ${height}`;
  let own = samples.get(finish);
  if (!own) samples.set(finish, (own = new Map()));
  let made = own.get(key);
  if (!made) {
    made = textures
      .ask((s) => s.sample(finish, form, width, height))
      .then(async ({ pixels }) => {
        const canvas = document.createElement('canvas');
        canvas.width = width;
        canvas.height = height;
        canvas.getContext('2d')!.putImageData(new ImageData(new Uint8ClampedArray(pixels), width, height), 0, 0);
        const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done));
        return URL.createObjectURL(blob!);
      });
    own.set(key, made);
    // It is asked for again where the worker was gone.
    made.catch(() => own.delete(key));
  }
  return made;
}

/** A sample as a picture address, empty until it is made. */
export function useSample(finish: Finish, form: SampleForm, width: number, height: number): string {
  const [url, setUrl] = useState('');
  useEffect(() => {
    let alive = true;
    sampleUrl(finish, form, width, height).then((made) => alive && setUrl(made), unlessLost);
    return () => {
      alive = false;
    };
  }, [finish, form, width, height]);
  return url;
}
