import { clear, createStore, delMany, entries, get, set, type UseStore } from 'idb-keyval';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import type { Finish, Texture } from '@/core/finishes/finish';
import { textureOf } from '@/core/finishes/store';
import { orderedJson } from '@/core/project/ordered-json';

/** A texture as it is kept in this browser, and when it was last asked for. */
interface Kept {
  texture: Texture;
  at: number;
}

/** More textures than these are not kept: those that were not asked for longest go. */
const MOST = 200;
/** What is kept is looked through once in so many new ones. */
const EVERY = 20;

const DAY = 24 * 60 * 60 * 1000;

// Another build may draw otherwise: it has a store of its own.
const BUILD = process.env.ENSTEGON_BUILD ?? '';

let store: UseStore | null = null;
const own = (): UseStore => (store ??= createStore('enstegon-textures', 'textures'));
let fresh = 0;

const keyOf = (finish: Finish, pixels: number): string => `${BUILD} ${pixels} ${bytesToHex(sha256(utf8ToBytes(orderedJson(finish))))}`;

/** Lets go what is of another build, and what has not been asked for longest. */
async function tidy(): Promise<void> {
  const all = await entries<string, Kept>(own());
  const old = all.filter(([key]) => !key.startsWith(`${BUILD} `)).map(([key]) => key);
  const current = all.filter(([key]) => key.startsWith(`${BUILD} `)).sort(([, a], [, b]) => b.at - a.at);
  await delMany([...old, ...current.slice(MOST).map(([key]) => key)], own());
}

/**
 * The texture of a finish: as it was drawn before in this browser, for the view or for a picture, or drawn now. Pictures it is
 * made from must be at hand.
 *
 * @param pixels of its longer side
 */
export async function drawnTexture(finish: Finish, pixels: number): Promise<Texture> {
  const key = keyOf(finish, pixels);
  const kept = await get<Kept>(key, own()).catch(() => undefined);
  if (kept) {
    if (Date.now() - kept.at > DAY) void set(key, { ...kept, at: Date.now() }, own()).catch(() => undefined);
    return kept.texture;
  }
  // A copy: whoever is handed it may hand it on to another thread.
  const texture = structuredClone(textureOf(finish, pixels));
  // Where nothing can be kept, or no more, it is drawn again another time.
  await set(key, { texture, at: Date.now() } satisfies Kept, own()).catch(() => clear(own()).catch(() => undefined));
  if (++fresh % EVERY === 0) void tidy().catch(() => undefined);
  return texture;
}
