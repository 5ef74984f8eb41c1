import { unzlibSync, zlibSync } from 'fflate';
import { DomainError } from '../../project/errors';

/**
 * OpenEXR pictures of half and single floats: scan lines, sixteen to a block, deflated after the reordering and differences of
 * the format's own ZIP (OpenEXR file layout, version 2; Academy Software Foundation). What is written is read by any reader of the standard;
 * what is read is what is written here.
 */

/** One plane of numbers of a picture. */
export interface ExrChannel {
  /** As the standard names them: R, G, B, Z, or with a layer before it: light.Sun.R. */
  name: string;
  type: 'half' | 'float';
  /** One value a pixel, top row first. */
  data: Float32Array;
}

export interface ExrPicture {
  width: number;
  height: number;
  channels: ExrChannel[];
  /** Texts kept with it. */
  notes: Record<string, string>;
}

const MAGIC = 20000630;
const LINES = 16;
const ZIP = 3;
const TYPES = { half: 1, float: 2 } as const;
const SIZES = { half: 2, float: 4 } as const;

const toBits = new Float32Array(1);
const bits = new Uint32Array(toBits.buffer);

/** The nearest half float of a number, as its bits (ties to even); what is too large becomes the largest finite one. */
export function toHalf(value: number): number {
  toBits[0] = value;
  const x = bits[0];
  const sign = (x >>> 16) & 0x8000;
  const rest = x & 0x7fffffff;
  if (rest > 0x7f800000) return sign | 0x7e00;
  if (rest >= 0x477ff000) return rest === 0x7f800000 ? sign | 0x7c00 : sign | 0x7bff;
  if (rest >= 0x38800000) {
    const half = rest - 0x38000000;
    return sign | ((half + 0xfff + ((half >>> 13) & 1)) >>> 13);
  }
  if (rest < 0x33000000) return sign;
  // Below the smallest normal number the steps are all of one size.
  const shift = 126 - (rest >>> 23);
  const mantissa = (rest & 0x7fffff) | 0x800000;
  const kept = mantissa >>> shift;
  const lost = mantissa & ((1 << shift) - 1);
  const middle = 1 << (shift - 1);
  return sign | (kept + (lost > middle || (lost === middle && kept & 1) ? 1 : 0));
}

let halves: Float32Array | null = null;

/** The number of a half float. */
export function fromHalf(half: number): number {
  halves ??= Float32Array.from({ length: 65536 }, (_, h) => {
    const [sign, exponent, mantissa] = [h & 0x8000 ? -1 : 1, (h >> 10) & 31, h & 1023];
    if (exponent === 31) return mantissa ? NaN : sign * Infinity;
    return exponent ? sign * 2 ** (exponent - 15) * (1 + mantissa / 1024) : sign * 2 ** -14 * (mantissa / 1024);
  });
  return halves[half & 0xffff];
}

const byName = (a: ExrChannel, b: ExrChannel): number => (a.name < b.name ? -1 : 1);

/** A picture as an OpenEXR file. @throws RangeError where a channel has not one value a pixel */
export function writeExr({ width, height, channels, notes }: ExrPicture): Uint8Array<ArrayBuffer> {
  const sorted = [...channels].sort(byName);
  if (sorted.some((c) => c.data.length !== width * height)) throw new RangeError('A channel has one value a pixel.');
  const head = new Writer();
  head.u32(MAGIC);
  // Names longer than 31 letters are allowed for.
  head.u32(2 | (sorted.some((c) => c.name.length > 31) ? 0x400 : 0));
  head.attribute('channels', 'chlist', (w) => {
    for (const { name, type } of sorted) {
      w.text(name);
      w.u32(TYPES[type]);
      w.bytes([0, 0, 0, 0]);
      w.u32(1);
      w.u32(1);
    }
    w.bytes([0]);
  });
  // Primaries and white of sRGB, so that linear values are read as they are meant.
  head.attribute('chromaticities', 'chromaticities', (w) => [0.64, 0.33, 0.3, 0.6, 0.15, 0.06, 0.3127, 0.329].forEach((v) => w.f32(v)));
  head.attribute('compression', 'compression', (w) => w.bytes([ZIP]));
  for (const name of ['dataWindow', 'displayWindow']) head.attribute(name, 'box2i', (w) => [0, 0, width - 1, height - 1].forEach((v) => w.u32(v)));
  head.attribute('lineOrder', 'lineOrder', (w) => w.bytes([0]));
  head.attribute('pixelAspectRatio', 'float', (w) => w.f32(1));
  head.attribute('screenWindowCenter', 'v2f', (w) => [0, 0].forEach((v) => w.f32(v)));
  head.attribute('screenWindowWidth', 'float', (w) => w.f32(1));
  for (const [name, text] of Object.entries(notes)) head.attribute(name, 'string', (w) => w.bytes(new TextEncoder().encode(text)));
  head.bytes([0]);
  const line = sorted.reduce((sum, c) => sum + SIZES[c.type] * width, 0);
  const blocks: Uint8Array[] = [];
  for (let y0 = 0; y0 < height; y0 += LINES) {
    const rows = Math.min(LINES, height - y0);
    const raw = new Uint8Array(line * rows);
    const view = new DataView(raw.buffer);
    let o = 0;
    for (let y = y0; y < y0 + rows; y++)
      for (const { type, data } of sorted)
        for (let x = 0; x < width; x++) {
          if (type === 'half') view.setUint16(o, toHalf(data[y * width + x]), true);
          else view.setFloat32(o, data[y * width + x], true);
          o += SIZES[type];
        }
    const packed = zlibSync(apart(raw), { level: 4 });
    const body = packed.length < raw.length ? packed : raw;
    const block = new Writer();
    block.u32(y0);
    block.u32(body.length);
    block.bytes(body);
    blocks.push(block.done());
  }
  const start = head.length + blocks.length * 8;
  const out = new Uint8Array(start + blocks.reduce((sum, b) => sum + b.length, 0));
  out.set(head.done());
  const view = new DataView(out.buffer);
  let at = start;
  blocks.forEach((block, i) => {
    view.setBigUint64(head.length + i * 8, BigInt(at), true);
    out.set(block, at);
    at += block.length;
  });
  return out;
}

/** Even bytes first, then odd ones, each as the difference to the one before: what deflates well. */
function apart(raw: Uint8Array): Uint8Array {
  const out = new Uint8Array(raw.length);
  const half = (raw.length + 1) >> 1;
  for (let i = 0; i < raw.length; i++) out[i & 1 ? half + (i >> 1) : i >> 1] = raw[i];
  for (let i = out.length - 1; i > 0; i--) out[i] = out[i] - out[i - 1] + 128;
  return out;
}

function together(packed: Uint8Array): Uint8Array {
  for (let i = 1; i < packed.length; i++) packed[i] = packed[i - 1] + packed[i] - 128;
  const out = new Uint8Array(packed.length);
  const half = (packed.length + 1) >> 1;
  for (let i = 0; i < packed.length; i++) out[i] = packed[i & 1 ? half + (i >> 1) : i >> 1];
  return out;
}

/** Whether bytes begin as an OpenEXR file does. */
export const isExr = (bytes: Uint8Array): boolean => bytes[0] === 0x76 && bytes[1] === 0x2f && bytes[2] === 0x31 && bytes[3] === 0x01;

/** Size of a picture from the head of its file alone. @throws DomainError `exr.…` as `readExr` */
export function exrSize(bytes: Uint8Array): { width: number; height: number } {
  const { width, height } = guarded(() => readHead(bytes));
  return { width, height };
}

/**
 * @param wanted whether a channel is read; all are unless told
 * @throws DomainError `exr.header`, `exr.kind`, `exr.size`, `exr.damaged`
 */
export function readExr(bytes: Uint8Array, wanted: (name: string) => boolean = () => true): ExrPicture {
  return guarded(() => {
    const { width, height, channels, notes, at } = readHead(bytes);
    const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    const read = channels.map(({ name, type }) => ({ name, type, data: new Float32Array(wanted(name) ? width * height : 0) }));
    const line = channels.reduce((sum, c) => sum + SIZES[c.type] * width, 0);
    for (let y0 = 0, b = 0; y0 < height; y0 += LINES, b++) {
      const from = Number(view.getBigUint64(at + b * 8, true));
      const size = view.getUint32(from + 4, true);
      const rows = Math.min(LINES, height - y0);
      if (view.getUint32(from, true) !== y0 || from + 8 + size > bytes.length) throw new RangeError('A block is not where it should be.');
      const body = bytes.subarray(from + 8, from + 8 + size);
      const raw = size === line * rows ? body : together(unzlibSync(body, { out: new Uint8Array(line * rows) }));
      const block = new DataView(raw.buffer, raw.byteOffset, raw.byteLength);
      let o = 0;
      for (let y = y0; y < y0 + rows; y++)
        for (const { type, data } of read) {
          if (data.length)
            for (let x = 0; x < width; x++)
              data[y * width + x] = type === 'half' ? fromHalf(block.getUint16(o + x * 2, true)) : block.getFloat32(o + x * 4, true);
          o += SIZES[type] * width;
        }
    }
    return { width, height, channels: read.filter((c) => c.data.length), notes };
  });
}

function guarded<T>(read: () => T): T {
  try {
    return read();
  } catch (error) {
    if (error instanceof DomainError) throw error;
    throw new DomainError('exr.damaged', 'The OpenEXR picture is damaged or ends too early.');
  }
}

/** Most values that are read, over all channels: a small file can claim any number. */
const MOST = 1.5e8;

function readHead(bytes: Uint8Array): {
  width: number;
  height: number;
  channels: { name: string; type: 'half' | 'float' }[];
  notes: Record<string, string>;
  at: number;
} {
  if (!isExr(bytes)) throw new DomainError('exr.header', 'The file is not an OpenEXR picture.');
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const other = new DomainError('exr.kind', 'Only OpenEXR pictures in scan lines with ZIP compression are read.');
  // Tiles, deep data and several parts are other kinds of files.
  if (view.getUint32(4, true) & 0x1a00) throw other;
  let at = 8;
  const word = (): string => {
    const end = bytes.indexOf(0, at);
    if (end < 0) throw new RangeError('The head has no end.');
    const text = new TextDecoder().decode(bytes.subarray(at, end));
    at = end + 1;
    return text;
  };
  const channels: { name: string; type: 'half' | 'float' }[] = [];
  const notes: Record<string, string> = {};
  let [width, height] = [0, 0];
  for (let name = word(); name; name = word()) {
    const type = word();
    const size = view.getUint32(at, true);
    const next = at + 4 + size;
    at += 4;
    if (name === 'channels')
      while (bytes[at]) {
        const channel = word();
        const kind = view.getUint32(at, true);
        if (kind !== TYPES.half && kind !== TYPES.float) throw other;
        channels.push({ name: channel, type: kind === TYPES.half ? 'half' : 'float' });
        at += 16;
      }
    else if (name === 'compression' && bytes[at] !== ZIP) throw other;
    else if (name === 'dataWindow') {
      const [x0, y0, x1, y1] = [0, 4, 8, 12].map((k) => view.getInt32(at + k, true));
      if (x0 !== 0 || y0 !== 0) throw other;
      [width, height] = [x1 + 1, y1 + 1];
    } else if (type === 'string') notes[name] = new TextDecoder().decode(bytes.subarray(at, next));
    at = next;
  }
  if (!(width > 0 && height > 0) || !channels.length) throw new RangeError('It has no pixels.');
  if (width * height * channels.length > MOST) throw new DomainError('exr.size', 'The OpenEXR picture is too large.');
  return { width, height, channels, notes, at };
}

/** Bytes that grow. */
class Writer {
  private data = new Uint8Array(1024);
  length = 0;

  private room(n: number): DataView {
    if (this.length + n > this.data.length) {
      const next = new Uint8Array(Math.max(this.length + n, this.data.length * 2));
      next.set(this.data);
      this.data = next;
    }
    const view = new DataView(this.data.buffer, this.length);
    this.length += n;
    return view;
  }

  u32(value: number): void {
    this.room(4).setUint32(0, value >>> 0, true);
  }
  f32(value: number): void {
    this.room(4).setFloat32(0, value, true);
  }
  bytes(list: ArrayLike<number>): void {
    const at = this.length;
    this.room(list.length);
    this.data.set(list, at);
  }
  text(value: string): void {
    this.bytes([...new TextEncoder().encode(value), 0]);
  }
  attribute(name: string, type: string, write: (w: Writer) => void): void {
    this.text(name);
    this.text(type);
    const value = new Writer();
    write(value);
    this.u32(value.length);
    this.bytes(value.done());
  }
  done(): Uint8Array {
    return this.data.slice(0, this.length);
  }
}
