import { isPlain, type Finish } from '../../finishes/finish';
import { textureOf } from '../../finishes/store';
import { normalMap } from '../../finishes/texture';

/** Pixels along the texture of a finish in the exported file. */
const TEXTURE = 512;

/** Writes RGBA pixels, 8 bits, as PNG. */
export type EncodePng = (pixels: Uint8Array, width: number, height: number) => Promise<Uint8Array> | Uint8Array;

/** The pictures of a finish, as PNG. */
export interface FinishPictures {
  colour: Uint8Array;
  /** Its relief as normals; null where it is flat. */
  relief: Uint8Array | null;
  /** Its roughness in green; null where it is even. */
  rough: Uint8Array | null;
}

/** Pictures made so far, by what their finish says; the one asked for last stands last. */
const made = new Map<string, Promise<FinishPictures>>();
const KEPT = 80;

async function make(finish: Finish, encode: EncodePng): Promise<FinishPictures> {
  const { width, height, colour, ...texture } = textureOf(finish, TEXTURE);
  const relief = normalMap({ width, height, colour, ...texture });
  // Green points along growing v here, up the picture in glTF.
  if (relief) for (let i = 1; i < relief.length; i += 4) relief[i] = 255 - relief[i];
  let rough: Uint8Array | null = null;
  if (texture.rough) {
    // glTF reads roughness from green and metalness from blue.
    rough = new Uint8Array(texture.rough.length * 4).fill(255);
    for (let i = 0; i < texture.rough.length; i++) rough[i * 4 + 1] = texture.rough[i];
  }
  const png = (pixels: Uint8Array | null): Promise<Uint8Array> | Uint8Array | null => pixels && encode(pixels, width, height);
  const [first, second, third] = await Promise.all([encode(colour, width, height), png(relief), png(rough)]);
  return { colour: first, relief: second, rough: third };
}

/**
 * The pictures of a finish, remembered by what it says: the next file of the same finishes is quick. Making them begins
 * at once; writing them as PNG may go on beside.
 */
function picturesOf(finish: Finish, encode: EncodePng): Promise<FinishPictures> {
  // What a photo shows is not in the finish: it is made anew.
  if (finish.body.kind === 'image') return make(finish, encode);
  const key = JSON.stringify(finish);
  const known = made.get(key);
  const pictures = known ?? make(finish, encode);
  made.delete(key);
  made.set(key, pictures);
  if (!known) pictures.catch(() => made.delete(key));
  if (made.size > KEPT) made.delete(made.keys().next().value!);
  return pictures;
}

/** How many finishes are in hand at once: one is made while others are written as PNG. */
const AHEAD = 3;

/**
 * The pictures of many finishes. Plain ones have none.
 *
 * @param tell told how far it has come, 0 to 1
 */
export async function makePictures(finishes: Iterable<Finish>, encode: EncodePng, tell?: (share: number) => void): Promise<Map<Finish, FinishPictures>> {
  const all = [...new Set(finishes)].filter((finish) => !isPlain(finish));
  const pictures = new Map<Finish, FinishPictures>();
  const pending: Promise<unknown>[] = [];
  for (const [i, finish] of all.entries()) {
    tell?.(i / all.length);
    const work = picturesOf(finish, encode).then((p) => pictures.set(finish, p));
    // A failure is met below, in its turn.
    work.catch(() => undefined);
    pending.push(work);
    if (i >= AHEAD) await pending[i - AHEAD];
  }
  await Promise.all(pending);
  return pictures;
}
