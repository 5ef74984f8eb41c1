import type { Mask } from '../light/mask';
import type { LightShare } from '../light/shares';
import { exrNotes, exrStart, isExr, packRows, readExr, writeExr, type ExrBlocks, type ExrChannel, type ExrFile, type ExrLayout } from './exr/exr';
import { readHdr } from './hdr/hdr';

/** The light of a picture as it is kept: of the whole, and what of it each group gives. */
export interface PictureLight {
  width: number;
  height: number;
  /** Three values a pixel, cd/m². */
  radiance: Float32Array;
  shares: LightShare[];
}

/** What else is known of each pixel. */
export interface PicturePasses {
  /** Colour and normal of the first surface that scatters, six values a pixel. */
  guides: Float32Array;
  /** Distance along the axis of the camera, metres; infinite where nothing is. */
  depth: Float32Array;
  /** How much of each pixel shows something, 0…1. */
  cover: Float32Array;
  /** The object of each pixel; none where it is not known. */
  objects?: Mask | null;
}

const RGB = ['R', 'G', 'B'] as const;
/** Light is kept in thousands of cd/m²: the sun on snow is 30, starlight still a half float. */
const UNIT = 1000;
const NOTE = 'enstegonLights';
/** Names of the objects in the channel of that name. */
export const OBJECTS = 'enstegonObjects';

const plane = (data: Float32Array, c: number, k = 1): Float32Array => Float32Array.from({ length: data.length / 3 }, (_, i) => data[i * 3 + c] * k);

/** The light of a picture as an OpenEXR file: R, G, B in thousands of cd/m², and a layer of shares for each light group; with passes where they are given. */
export function writeLight({ width, height, radiance, shares }: PictureLight, passes?: PicturePasses): Uint8Array<ArrayBuffer> {
  const channels: ExrChannel[] = RGB.map((name, c) => ({ name, type: 'half', data: plane(radiance, c, 1 / UNIT) }));
  shares.forEach(({ share }, i) => RGB.forEach((name, c) => channels.push({ name: `light${i + 1}.${name}`, type: 'half', data: plane(share, c) })));
  if (passes) {
    const of = (k: number): Float32Array => Float32Array.from({ length: width * height }, (_, i) => passes.guides[i * 6 + k]);
    RGB.forEach((name, c) => channels.push({ name: `albedo.${name}`, type: 'half', data: of(c) }));
    ['X', 'Y', 'Z'].forEach((name, c) => channels.push({ name: `N.${name}`, type: 'half', data: of(3 + c) }));
    channels.push({ name: 'Z', type: 'float', data: passes.depth }, { name: 'A', type: 'half', data: passes.cover });
    if (passes.objects) channels.push({ name: 'object', type: 'float', data: Float32Array.from(passes.objects.ids) });
  }
  const objects: Record<string, string> = passes?.objects ? { [OBJECTS]: JSON.stringify(passes.objects.names) } : {};
  const names = shares.map(({ name, kelvin }) => ({ name, kelvin }));
  return writeExr({ width, height, channels, notes: { [NOTE]: JSON.stringify(names), ...objects } });
}

/** The light of a picture for print at its full size: R, G, B as above, and how much of each pixel shows something. */
const printLayout = (width: number, height: number): ExrLayout => ({
  width,
  height,
  channels: [...RGB, 'A'].map((name) => ({ name, type: 'half' })),
  notes: {},
});

/** Rows of a picture for print, packed as its file has them. @param from first row, a multiple of sixteen @param radiance of these rows @param cover of these rows */
export function packPrint(size: { width: number; height: number }, from: number, radiance: Float32Array, cover: Float32Array): ExrBlocks {
  const planes: ExrChannel[] = [
    ...RGB.map((name, c): ExrChannel => ({ name, type: 'half', data: plane(radiance, c, 1 / UNIT) })),
    { name: 'A', type: 'half', data: cover },
  ];
  return packRows(printLayout(size.width, size.height), from, cover.length / size.width, planes);
}

/** What stands before the packed rows of a picture for print. @param sizes bytes of all its blocks */
export const printStart = ({ width, height }: { width: number; height: number }, sizes: readonly number[]): Uint8Array<ArrayBuffer> =>
  exrStart(printLayout(width, height), sizes);

/** Rows of a picture for print: radiance, three values a pixel, cd/m², and cover. @throws DomainError of the reader */
export async function printRows(file: ExrFile, from: number, count: number): Promise<{ radiance: Float32Array<ArrayBuffer>; cover: Float32Array }> {
  const channels = await file.rows(from, count);
  const cover = channels.find((c) => c.name === 'A')?.data;
  const radiance = new Float32Array(channels[0].data.length * 3);
  RGB.forEach((name, c) => channels.find((ch) => ch.name === name)?.data.forEach((v, i) => (radiance[i * 3 + c] = v * UNIT)));
  return { radiance, cover: cover ?? new Float32Array(channels[0].data.length).fill(1) };
}

/** Reads what was kept, also as Radiance HDR, which earlier pictures were. @throws DomainError of either reader */
export function readLight(bytes: Uint8Array): PictureLight {
  if (!isExr(bytes)) return { ...readHdr(bytes), shares: [] };
  const { width, height, channels, notes } = readExr(bytes);
  const of = (prefix: string, k: number): Float32Array => {
    const out = new Float32Array(width * height * 3);
    RGB.forEach((name, c) => {
      const data = channels.find((ch) => ch.name === prefix + name)?.data;
      if (data) for (let i = 0; i < data.length; i++) out[i * 3 + c] = data[i] * k;
    });
    return out;
  };
  return { width, height, radiance: of('', UNIT), shares: namesIn(notes[NOTE]).map((own, i) => ({ ...own, share: of(`light${i + 1}.`, 1) })) };
}

const PASSES = /^(albedo\.[RGB]|N\.[XYZ]|Z|A|object)$/;

/** Names of the objects of a picture’s mask; null where it has none. */
export function objectNames(bytes: Uint8Array): string[] | null {
  try {
    const list: unknown = JSON.parse((isExr(bytes) && exrNotes(bytes)[OBJECTS]) || 'null');
    return Array.isArray(list) ? list.map(String) : null;
  } catch {
    return null;
  }
}

/** The passes that were kept with a picture’s light; none with earlier ones. @throws DomainError of the reader */
export const passesIn = (bytes: Uint8Array): ExrChannel[] => (isExr(bytes) ? readExr(bytes).channels.filter(({ name }) => PASSES.test(name)) : []);

/** The passes by what they are; null where not all of them were kept. */
export function passesOf(bytes: Uint8Array, width: number, height: number): PicturePasses | null {
  const known = new Map(passesIn(bytes).map(({ name, data }) => [name, data]));
  const guides = [...RGB.map((c) => known.get(`albedo.${c}`)), ...['X', 'Y', 'Z'].map((c) => known.get(`N.${c}`))];
  const [depth, cover] = [known.get('Z'), known.get('A')];
  if (!depth || !cover || guides.includes(undefined)) return null;
  const [ids, names] = [known.get('object'), objectNames(bytes)];
  const mask = ids && names ? { objects: { ids: Uint32Array.from(ids), names } } : {};
  return { guides: Float32Array.from({ length: width * height * 6 }, (_, k) => guides[k % 6]![Math.floor(k / 6)]), depth, cover, ...mask };
}

/** Names and colour temperatures of the groups; none where the note is not what was written. */
function namesIn(note: string | undefined): { name: string; kelvin: number }[] {
  try {
    const list: unknown = JSON.parse(note ?? '[]');
    if (!Array.isArray(list)) return [];
    return list.flatMap((v: { name?: unknown; kelvin?: unknown } | null) =>
      typeof v?.name === 'string' && typeof v.kelvin === 'number' && v.kelvin > 0 ? [{ name: v.name, kelvin: v.kelvin }] : [],
    );
  } catch {
    return [];
  }
}
