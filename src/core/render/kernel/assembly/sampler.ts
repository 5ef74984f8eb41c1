// Numbers that paths are drawn from: for each pixel, sample and dimension one number, whatever the order of the work. Pairs of
// dimensions are Sobol's first two with nested uniform scrambling by hashes (Owen 1995; Laine and Karras 2011; Burley 2020),
// each pair shuffled by itself; beyond the first bounces plain hashes.

let seed: u32 = 0;
let index: u32 = 0;

/** Sets what the next numbers belong to. @param pixel hash of pixel and picture @param sample number of the sample of that pixel */
// @ts-ignore: decorator
@inline
export function begin(pixel: u32, sample: u32): void {
  seed = pixel;
  index = sample;
}

// @ts-ignore: decorator
@inline
export function hash(x: u32): u32 {
  // Wellons' lowbias32.
  x ^= x >>> 16;
  x *= 0x21f0aaad;
  x ^= x >>> 15;
  x *= 0xd35a2d97;
  return x ^ (x >>> 15);
}

// @ts-ignore: decorator
@inline
function reversed(x: u32): u32 {
  x = ((x >>> 1) & 0x55555555) | ((x & 0x55555555) << 1);
  x = ((x >>> 2) & 0x33333333) | ((x & 0x33333333) << 2);
  x = ((x >>> 4) & 0x0f0f0f0f) | ((x & 0x0f0f0f0f) << 4);
  x = ((x >>> 8) & 0x00ff00ff) | ((x & 0x00ff00ff) << 8);
  return (x >>> 16) | (x << 16);
}

/** Nested uniform scrambling of bit-reversed numbers (Vegdahl's constants). */
// @ts-ignore: decorator
@inline
function scrambled(x: u32, key: u32): u32 {
  x ^= x * 0x3d20adea;
  x += key;
  x *= (key >>> 16) | 1;
  x ^= x * 0x05526c56;
  x ^= x * 0x53a22864;
  return x;
}

// @ts-ignore: decorator
@inline
function unit(x: u32): f32 {
  // 24 bits: a full u32 as f32 can round up to 1.
  return <f32>(x >>> 8) * <f32>5.9604644775390625e-8;
}

/** Dimensions from which numbers are plain hashes. */
const STRATIFIED: u32 = 68;

export let second: f32 = 0;

/** A pair of numbers in 0…1 (1 excluded): the first is returned, the other left in `second`. */
// @ts-ignore: decorator
@inline
export function pair(dimension: u32): f32 {
  const key = hash(seed ^ (dimension * 0x9e3779b1));
  if (dimension >= STRATIFIED) {
    const a = hash(key + index * 0x85ebca77);
    second = unit(hash(a ^ 0x6a09e667));
    return unit(a);
  }
  // The shuffled number of the sample, bits reversed: Sobol's first dimension.
  const first = scrambled(reversed(index), key);
  // The second: Pascal's triangle modulo two, in five steps (of the number, not of its reverse).
  let y = reversed(first);
  y ^= (y & 0xaaaaaaaa) >>> 1;
  y ^= (y & 0xcccccccc) >>> 2;
  y ^= (y & 0xf0f0f0f0) >>> 4;
  y ^= (y & 0xff00ff00) >>> 8;
  y ^= (y & 0xffff0000) >>> 16;
  second = unit(reversed(scrambled(y, hash(key ^ 0x51633e2d))));
  return unit(reversed(scrambled(reversed(first), hash(key ^ 0x68bc21eb))));
}

/** One number in 0…1. */
// @ts-ignore: decorator
@inline
export function single(dimension: u32): f32 {
  return pair(dimension);
}
