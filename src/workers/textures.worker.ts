import { expose, transfer } from 'comlink';
import { z } from 'zod';
import { makeSample } from '@/core/boards/sample';
import { colourMips, reliefMips } from '@/core/finishes/mips';
import { fetchImages } from '@/core/finishes/store';
import { normalMap } from '@/core/finishes/texture';
import { lightPixels, radianceOf, type LightPixels } from '@/core/light/rgbe';
import { Finish, SampleForm, Surroundings } from '@/core/project/schema';
import { readAsset, readBeyond } from './assets';
import { drawnTexture } from './drawn-textures';

const Pixels = z.number().int().min(8).max(2048);

/** Pixels of finishes and samples, made off the page's own thread. */
const service = {
  async texture(finish: unknown, pixels: number) {
    const own = Finish.parse(finish);
    await fetchImages([own], readAsset);
    const texture = await drawnTexture(own, Pixels.parse(pixels));
    const normals = normalMap(texture);
    const rough = texture.rough?.slice() ?? null;
    const { width, height, size } = texture;
    const colour = colourMips(width, height, texture.colour.slice());
    const relief = normals && reliefMips(width, height, normals, rough, own.roughness);
    return transfer({ width, height, size, colour, relief, rough }, [
      ...colour.map((step) => step.data.buffer),
      ...(relief ?? []).flatMap((step) => [step.normals.buffer, step.rough.buffer]),
      ...(rough ? [rough.buffer] : []),
    ]);
  },
  async sample(finish: unknown, form: SampleForm, width: number, height: number) {
    const own = Finish.parse(finish);
    await fetchImages([own], readAsset);
    const { pixels } = makeSample(own, SampleForm.parse(form), Pixels.parse(width), Pixels.parse(height));
    return transfer({ pixels, width, height }, [pixels.buffer]);
  },
  /** The picture of surroundings, as the view shows it. @param most widest, pixels */
  async beyond(picture: unknown, most: number): Promise<LightPixels> {
    const read = await readBeyond(Surroundings.shape.picture.parse(picture));
    const made = read.width > most ? lightPixels(radianceOf(read), read.width, read.height, most) : read;
    return transfer(made, [made.rgbe.buffer as ArrayBuffer]);
  },
};

export type TextureService = typeof service;

expose(service);
