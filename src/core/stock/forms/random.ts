/** Numbers in 0…1 that look random and are the same for the same seed (mulberry32, public domain). */
export function randomFrom(seed: number): () => number {
  let a = Math.imul(seed | 0, 2654435761) | 0;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A number from two whole numbers, in 0…1, for leaves and folds that differ but never change. */
export const scatter = (a: number, b: number): number => randomFrom(a * 7919 + b * 104729 + 1)();
