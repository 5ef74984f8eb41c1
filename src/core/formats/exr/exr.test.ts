import { EXRLoader } from 'three/examples/jsm/loaders/EXRLoader.js';
import { FloatType } from 'three';
import { describe, expect, it } from 'vitest';
import { Random } from '../../render/bsdf';
import { ExrFile, exrStart, isExr, packRows, readExr, writeExr, type ExrPicture } from './exr';
import { fromHalf, toHalf } from './half';

const random = new Random(3);
const picture = (width: number, height: number, type: 'half' | 'float' = 'half'): ExrPicture => ({
  width,
  height,
  channels: ['R', 'G', 'B', 'A'].map((name) => ({
    name,
    type,
    data: Float32Array.from({ length: width * height }, () => random.next() * 2 ** (random.next() * 20 - 10)),
  })),
  notes: { made: 'by a test, with “quotes”' },
});

describe('half floats', () => {
  it('are the nearest there is, for every exponent, and every half is its own', () => {
    for (let h = 0; h < 0x7c00; h++) expect(toHalf(fromHalf(h))).toBe(h);
    for (let i = 0; i < 20000; i++) {
      const v = (random.next() - 0.5) * 2 ** (random.next() * 42 - 26);
      const near = fromHalf(toHalf(v));
      // Half a step of the last place, or of the smallest number.
      expect(Math.abs(near - v)).toBeLessThanOrEqual(Math.max(Math.abs(v) * 2 ** -11, 2 ** -25));
    }
    expect([fromHalf(toHalf(1e9)), toHalf(0), fromHalf(toHalf(-2)), toHalf(Infinity)]).toEqual([65504, 0, -2, 0x7c00]);
    expect(fromHalf(toHalf(NaN))).toBeNaN();
  });
});

describe('an OpenEXR picture', () => {
  it.each([
    [1, 1],
    [17, 16],
    [33, 47],
  ])('of %i × %i is what it was when it is read again, notes and all', (width, height) => {
    for (const type of ['half', 'float'] as const) {
      const own = picture(width, height, type);
      const file = writeExr(own);
      expect(isExr(file)).toBe(true);
      const read = readExr(file);
      expect([read.width, read.height, read.notes]).toEqual([width, height, own.notes]);
      expect(read.channels.map((c) => c.name)).toEqual(['A', 'B', 'G', 'R']);
      for (const { name, data } of read.channels) {
        const was = own.channels.find((c) => c.name === name)!.data;
        data.forEach((v, i) => expect(v).toBe(type === 'float' ? was[i] : fromHalf(toHalf(was[i]))));
      }
    }
  });

  it('is packed in parts and read in parts to the same, whatever rows are asked for', async () => {
    const own = picture(19, 83);
    const whole = writeExr(own);
    const blocks = [0, 32, 64].map((from) => {
      const rows = Math.min(32, 83 - from);
      return packRows(
        own,
        from,
        rows,
        own.channels.map((c) => ({ ...c, data: c.data.slice(from * 19, (from + rows) * 19) })),
      );
    });
    const start = exrStart(
      own,
      blocks.flatMap((b) => b.sizes),
    );
    expect(Buffer.concat([start, ...blocks.map((b) => b.bytes)]).equals(whole)).toBe(true);
    const asked: number[] = [];
    const file = await ExrFile.open((from, length) => Promise.resolve((asked.push(length), whole.subarray(from, from + length))), whole.length);
    expect(file.layout).toMatchObject({ width: 19, height: 83, notes: own.notes });
    const read = readExr(whole);
    for (const [from, count] of [
      [0, 83],
      [16, 16],
      [48, 60],
      [80, 3],
    ])
      for (const { name, data } of await file.rows(from, count))
        expect(data).toEqual(read.channels.find((c) => c.name === name)!.data.slice(from * 19, (from + count) * 19));
    // Blocks lie one behind the other to the end.
    expect([0, 1, 2, 3, 4, 5].reduce((at, i) => (expect(file.place(i).start).toBe(at), at + file.place(i).bytes), start.length)).toBe(whole.length);
    expect(() => packRows(own, 8, 16, [])).toThrow(RangeError);
    expect(() => packRows(own, 0, 17, [])).toThrow(RangeError);
  });

  it('read in parts is refused in one sentence where it is damaged or cut short', async () => {
    const file = writeExr(picture(24, 40));
    const all = async (bytes: Uint8Array): Promise<void> => {
      const exr = await ExrFile.open((from, length) => Promise.resolve(bytes.subarray(from, from + length)));
      await exr.rows(0, Math.min(4096, exr.layout.height));
    };
    for (let n = 4; n < file.length; n += 61) await expect(all(file.slice(0, n))).rejects.toThrow(/^(The|Only) OpenEXR .*\.$/);
    for (let i = 0; i < 200; i++) {
      const hurt = file.slice();
      hurt[8 + Math.floor(random.next() * (hurt.length - 8))] ^= 1 << Math.floor(random.next() * 8);
      await all(hurt).catch((error: Error) => expect(error.message).toMatch(/^(The|Only) .*\.$/));
    }
  });

  it('reads only the channels that are wanted', () => {
    const own = picture(20, 20);
    expect(readExr(writeExr(own), (name) => name === 'G').channels.map((c) => c.name)).toEqual(['G']);
  });

  it('is read alike by another reader of the standard', () => {
    for (const type of ['half', 'float'] as const) {
      const own = picture(37, 35, type);
      const other = new EXRLoader().setDataType(FloatType).parse(writeExr(own).buffer);
      expect([other.width, other.height]).toEqual([37, 35]);
      const data = other.data as Float32Array;
      const own4 = ['R', 'G', 'B', 'A'].map((name) => own.channels.find((c) => c.name === name)!.data);
      for (let y = 0; y < 35; y++)
        for (let x = 0; x < 37; x++)
          for (let c = 0; c < 4; c++) {
            // That reader has the lowest row first.
            const v = data[((34 - y) * 37 + x) * 4 + c];
            const was = own4[c][y * 37 + x];
            expect(Math.abs(v - was)).toBeLessThanOrEqual(Math.abs(was) * (type === 'half' ? 2 ** -10 : 1e-6) + 2 ** -24);
          }
    }
  });

  it('is refused in one sentence where it is damaged, cut short or of another kind', () => {
    const file = writeExr(picture(24, 40));
    expect(() => readExr(new Uint8Array([1, 2, 3]))).toThrow('The file is not an OpenEXR picture.');
    const tiled = file.slice();
    tiled[5] |= 2;
    expect(() => readExr(tiled)).toThrow(/^Only OpenEXR pictures in scan lines/);
    for (let n = 8; n < file.length - 1; n += 97) expect(() => readExr(file.subarray(0, n))).toThrow(/damaged|Only OpenEXR/);
    for (let i = 0; i < 300; i++) {
      const hurt = file.slice();
      hurt[8 + Math.floor(random.next() * (hurt.length - 8))] ^= 1 << Math.floor(random.next() * 8);
      // Read as something, or refused in words; never anything else.
      try {
        readExr(hurt);
      } catch (error) {
        expect((error as Error).message).toMatch(/^(The|Only) .*\.$/);
      }
    }
    expect(() => writeExr({ ...picture(4, 4), width: 5 })).toThrow(RangeError);
    // A head that claims more than any memory holds is believed by nobody.
    const vast = file.slice();
    const at = new TextDecoder('latin1').decode(vast).indexOf('dataWindow\0box2i\0') + 'dataWindow\0box2i\0'.length + 4;
    new DataView(vast.buffer).setInt32(at + 8, 60000, true);
    new DataView(vast.buffer).setInt32(at + 12, 60000, true);
    expect(() => readExr(vast)).toThrow('The OpenEXR picture is too large.');
  });
});
