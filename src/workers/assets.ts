import type { ImagePixels } from '@/core/finishes/finish';
import { readPixels } from '@/core/formats/png';

/** The picture a finish of one's own is made from, from the server. */
export const readAsset = async (hash: string): Promise<ImagePixels> => readPixels(new Uint8Array(await (await fetch(`/api/assets/${hash}`)).arrayBuffer()));
