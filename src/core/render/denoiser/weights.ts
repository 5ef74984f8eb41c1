/** A tensor of weights. */
export interface Tensor {
  dims: readonly number[];
  data: Float32Array;
}

export type Weights = ReadonlyMap<string, Tensor>;

const half = (h: number): number => {
  const [sign, exponent, mantissa] = [h >> 15 ? -1 : 1, (h >> 10) & 31, h & 1023];
  if (exponent === 0) return sign * mantissa * 2 ** -24;
  return exponent === 31 ? (mantissa ? NaN : sign * Infinity) : sign * (1 + mantissa / 1024) * 2 ** (exponent - 15);
};

/**
 * Weights of a network from a tensor archive (`.tza`, version 2, the format of Open Image Denoise): names, sizes and
 * values as halves or floats.
 *
 * @throws RangeError where it is no such archive
 */
export function readWeights(bytes: Uint8Array): Weights {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < 12 || view.getUint16(0, true) !== 0x41d7 || view.getUint8(2) !== 2) throw new RangeError('not an archive of weights');
  const text = (from: number, length: number): string => String.fromCharCode(...bytes.subarray(from, from + length));
  let at = Number(view.getBigUint64(4, true));
  const count = view.getUint32(at, true);
  at += 4;
  const out = new Map<string, Tensor>();
  for (let i = 0; i < count; i++) {
    const length = view.getUint16(at, true);
    const name = text(at + 2, length);
    at += 2 + length;
    const rank = view.getUint8(at++);
    const dims = Array.from({ length: rank }, (_, k) => view.getUint32(at + 4 * k, true));
    // The order of the axes is written out after their sizes; it is the same for all of a kind.
    at += 4 * rank + rank;
    const type = text(at++, 1);
    const from = Number(view.getBigUint64(at, true));
    at += 8;
    const data = new Float32Array(dims.reduce((a, b) => a * b, 1));
    for (let k = 0; k < data.length; k++) data[k] = type === 'h' ? half(view.getUint16(from + 2 * k, true)) : view.getFloat32(from + 4 * k, true);
    out.set(name, { dims, data });
  }
  return out;
}
