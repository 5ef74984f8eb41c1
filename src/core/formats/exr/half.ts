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
