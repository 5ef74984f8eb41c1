import { unzlibSync, zlibSync } from 'fflate';
import { DomainError } from '../../project/errors';
import { fromHalf, toHalf } from './half';

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

/** What a file says of itself before its pixels. */
export interface ExrLayout {
  width: number;
  height: number;
  channels: Pick<ExrChannel, 'name' | 'type'>[];
  /** Texts kept with it. */
  notes: Record<string, string>;
}

/** Rows of a picture, packed as the file has them: blocks of sixteen, each with its own head. */
export interface ExrBlocks {
  bytes: Uint8Array<ArrayBuffer>;
  /** Bytes of each block. */
  sizes: number[];
}

const byName = (a: { name: string }, b: { name: string }): number => (a.name < b.name ? -1 : 1);

const lineOf = ({ channels, width }: Pick<ExrLayout, 'channels' | 'width'>): number => channels.reduce((sum, c) => sum + SIZES[c.type] * width, 0);

/** A picture as an OpenEXR file. @throws RangeError where a channel has not one value a pixel */
export function writeExr(picture: ExrPicture): Uint8Array<ArrayBuffer> {
  const { bytes, sizes } = packRows(picture, 0, picture.height, picture.channels);
  const start = exrStart(picture, sizes);
  const out = new Uint8Array(start.length + bytes.length);
  out.set(start);
  out.set(bytes, start.length);
  return out;
}

/** What stands before the blocks of a file: its head and where each block lies. @param sizes bytes of all blocks */
export function exrStart({ width, height, channels, notes }: ExrLayout, sizes: readonly number[]): Uint8Array<ArrayBuffer> {
  const sorted = channels.toSorted(byName);
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
  const out = new Uint8Array(head.length + sizes.length * 8);
  out.set(head.done());
  const view = new DataView(out.buffer);
  let at = out.length;
  sizes.forEach((size, i) => {
    view.setBigUint64(head.length + i * 8, BigInt(at), true);
    at += size;
  });
  return out;
}

/**
 * Packs rows of a picture.
 *
 * @param from first row, where a block begins: a multiple of sixteen
 * @param rows how many; where they do not end the picture, a multiple of sixteen
 * @param planes the channels of the layout, with these rows alone
 * @throws RangeError where a channel has not one value a pixel, or the rows are not those of whole blocks
 */
export function packRows(layout: ExrLayout, from: number, rows: number, planes: readonly ExrChannel[]): ExrBlocks {
  const { width, height } = layout;
  const sorted = planes.toSorted(byName);
  if (sorted.some((c) => c.data.length !== width * rows)) throw new RangeError('A channel has one value a pixel.');
  if (from % LINES || (rows % LINES && from + rows !== height)) throw new RangeError('Rows are packed in blocks of sixteen.');
  const line = lineOf({ channels: sorted, width });
  const blocks = new Writer();
  const sizes: number[] = [];
  for (let y0 = 0; y0 < rows; y0 += LINES) {
    const high = Math.min(LINES, rows - y0);
    const raw = new Uint8Array(line * high);
    const view = new DataView(raw.buffer);
    let o = 0;
    for (let y = y0; y < y0 + high; y++)
      for (const { type, data } of sorted)
        for (let x = 0; x < width; x++) {
          if (type === 'half') view.setUint16(o, toHalf(data[y * width + x]), true);
          else view.setFloat32(o, data[y * width + x], true);
          o += SIZES[type];
        }
    const packed = zlibSync(apart(raw), { level: 4 });
    const body = packed.length < raw.length ? packed : raw;
    blocks.u32(from + y0);
    blocks.u32(body.length);
    blocks.bytes(body);
    sizes.push(8 + body.length);
  }
  return { bytes: blocks.done(), sizes };
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

/** The texts kept with a picture, from the head of its file alone. @throws DomainError `exr.…` as `readExr` */
export const exrNotes = (bytes: Uint8Array): Record<string, string> => guarded(() => readHead(bytes).notes);

/**
 * @param wanted whether a channel is read; all are unless told
 * @throws DomainError `exr.header`, `exr.kind`, `exr.size`, `exr.damaged`
 */
export function readExr(bytes: Uint8Array, wanted: (name: string) => boolean = () => true): ExrPicture {
  return guarded(() => {
    const { at, ...layout } = readHead(bytes);
    const { width, height, channels, notes } = layout;
    if (width * height * channels.length > MOST) throw new DomainError('exr.size', 'The OpenEXR picture is too large.');
    const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    const read = channels.map(({ name, type }) => ({ name, type, data: new Float32Array(wanted(name) ? width * height : 0) }));
    for (let y0 = 0, b = 0; y0 < height; y0 += LINES, b++) {
      const from = Number(view.getBigUint64(at + b * 8, true));
      const size = view.getUint32(from + 4, true);
      if (view.getUint32(from, true) !== y0 || from + 8 + size > bytes.length) throw new RangeError('A block is not where it should be.');
      unpack(layout, bytes.subarray(from + 8, from + 8 + size), Math.min(LINES, height - y0), read, y0);
    }
    return { width, height, channels: read.filter((c) => c.data.length), notes };
  });
}

/** Unpacks a block into the planes that have room for values, from a row on. */
function unpack(layout: ExrLayout, body: Uint8Array, rows: number, into: readonly ExrChannel[], row: number): void {
  const { width } = layout;
  const bytes = lineOf(layout) * rows;
  const raw = body.length === bytes ? body : together(unzlibSync(body, { out: new Uint8Array(bytes) }));
  const block = new DataView(raw.buffer, raw.byteOffset, raw.byteLength);
  let o = 0;
  for (let y = row; y < row + rows; y++)
    for (const { type, data } of into) {
      if (data.length)
        for (let x = 0; x < width; x++) data[y * width + x] = type === 'half' ? fromHalf(block.getUint16(o + x * 2, true)) : block.getFloat32(o + x * 4, true);
      o += SIZES[type] * width;
    }
}

/** Bytes of a file from a place on; fewer only where it ends. */
export type ReadAt = (from: number, length: number) => Promise<Uint8Array>;

/** So much of a file holds its head. */
const HEAD = 1 << 16;

/** An OpenEXR file that is read a few rows at a time, however large it is. */
export class ExrFile {
  private constructor(
    private readonly read: ReadAt,
    readonly layout: ExrLayout,
    /** Where each block begins. */
    private readonly starts: readonly number[],
    /** Bytes of the file; blocks lie one behind the other. */
    private readonly length: number,
  ) {}

  /** @param length bytes of the file, where it is asked where its blocks lie @throws DomainError as `readExr`, but for its size */
  static async open(read: ReadAt, length = Infinity): Promise<ExrFile> {
    const first = await read(0, HEAD);
    const { at, ...layout } = guarded(() => readHead(first));
    const blocks = Math.ceil(layout.height / LINES);
    const table = await read(at, blocks * 8);
    return guarded(() => {
      const view = new DataView(table.buffer, table.byteOffset, table.byteLength);
      const starts = Array.from({ length: blocks }, (_, i) => Number(view.getBigUint64(i * 8, true)));
      return new ExrFile(read, layout, starts, length);
    });
  }

  /** Where a block lies in a file whose blocks follow one another: its first byte, and how many it has. */
  place(index: number): { start: number; bytes: number } {
    const start = this.starts[index];
    return { start, bytes: (this.starts[index + 1] ?? this.length) - start };
  }

  /** A block as it lies in the file, head and all. @throws DomainError `exr.damaged` */
  async block(index: number): Promise<Uint8Array> {
    const from = this.starts[index];
    const head = await this.read(from, 8);
    const size = guarded(() => {
      const view = new DataView(head.buffer, head.byteOffset, head.byteLength);
      const bytes = view.getUint32(4, true);
      if (view.getUint32(0, true) !== index * LINES || bytes > lineOf(this.layout) * LINES) throw new RangeError('A block is not where it should be.');
      return bytes;
    });
    const bytes = await this.read(from, 8 + size);
    if (bytes.length < 8 + size) throw damaged();
    return bytes;
  }

  /** Rows of the channels, one block or more. @param from a multiple of sixteen @throws DomainError `exr.damaged` */
  async rows(from: number, count: number): Promise<ExrChannel[]> {
    const { layout } = this;
    const [start, end] = [from, Math.min(layout.height, from + count)];
    const out = layout.channels.map(({ name, type }) => ({ name, type, data: new Float32Array(layout.width * (end - start)) }));
    for (let y = start; y < end; y += LINES) {
      const bytes = await this.block(y / LINES);
      guarded(() => unpack(layout, bytes.subarray(8), Math.min(LINES, layout.height - y), out, y - start));
    }
    return out;
  }
}

const damaged = (): DomainError => new DomainError('exr.damaged', 'The OpenEXR picture is damaged or ends too early.');

function guarded<T>(read: () => T): T {
  try {
    return read();
  } catch (error) {
    if (error instanceof DomainError) throw error;
    throw damaged();
  }
}

/** Most values that are read, over all channels: a small file can claim any number. */
const MOST = 1.5e8;

/** @returns the layout, and where the table of blocks begins */
function readHead(bytes: Uint8Array): ExrLayout & { at: number } {
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
  done(): Uint8Array<ArrayBuffer> {
    return this.data.slice(0, this.length);
  }
}
