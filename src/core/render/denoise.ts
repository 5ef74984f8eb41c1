const KERNEL = [1 / 16, 1 / 4, 3 / 8, 1 / 4, 1 / 16];
const LEVELS = 6;

/** Colours below this are not divided out: nothing would be left of the light. */
const DARKEST = 0.02;

/** How many standard deviations two pixels' light may differ before they count as lit differently. */
const SPREAD = 3;

/**
 * Smooths what is left of the grain in a traced picture, after Schied et al. 2017 ("Spatiotemporal variance-guided
 * filtering", its spatial half): the surface colour is divided out, the light is filtered by an edge-avoiding wavelet
 * (Dammertz et al. 2010) whose reach follows the measured uncertainty of each pixel, and the colour is put back. A
 * pixel that is sure of itself keeps its value, so that a shadow's edge stays sharp once it has been sampled well.
 *
 * @param radiance mean radiance, three values a pixel
 * @param guides mean first-hit colour and normal, six values a pixel
 * @param variance variance of the mean luminance, one value a pixel
 */
export function denoise(radiance: Float32Array, guides: Float32Array, variance: Float32Array, width: number, height: number): Float32Array<ArrayBuffer> {
  const n = width * height;
  let light = new Float32Array(n * 3);
  let doubt = new Float32Array(n);
  for (let i = 0; i < n; i++) {
    let own = 0;
    for (let c = 0; c < 3; c++) {
      const albedo = Math.max(DARKEST, guides[i * 6 + c]);
      light[i * 3 + c] = radiance[i * 3 + c] / albedo;
      own += WEIGHTS[c] * albedo;
    }
    doubt[i] = variance[i] / (own * own);
  }
  for (let level = 0; level < LEVELS; level++) {
    const step = 1 << level;
    const calm = blur(doubt, width, height);
    const next = new Float32Array(n * 3);
    const nextDoubt = new Float32Array(n);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const i = y * width + x;
        const l = luma(light, i);
        let r = 0;
        let g = 0;
        let b = 0;
        let v = 0;
        let total = 0;
        for (let dy = -2; dy <= 2; dy++) {
          const q = y + dy * step;
          if (q < 0 || q >= height) continue;
          for (let dx = -2; dx <= 2; dx++) {
            const p = x + dx * step;
            if (p < 0 || p >= width) continue;
            const j = q * width + p;
            // The larger doubt of the two counts for both, so that light is handed over and not lost.
            const reach = SPREAD * Math.sqrt(Math.max(calm[i], calm[j])) + 1e-3 * l + 1e-6;
            const w = KERNEL[dx + 2] * KERNEL[dy + 2] * Math.exp(-apart(guides, i, j) - Math.abs(l - luma(light, j)) / reach);
            r += light[j * 3] * w;
            g += light[j * 3 + 1] * w;
            b += light[j * 3 + 2] * w;
            v += doubt[j] * w * w;
            total += w;
          }
        }
        next[i * 3] = r / total;
        next[i * 3 + 1] = g / total;
        next[i * 3 + 2] = b / total;
        nextDoubt[i] = v / (total * total);
      }
    light = next;
    doubt = nextDoubt;
  }
  for (let i = 0; i < n; i++) for (let c = 0; c < 3; c++) light[i * 3 + c] *= Math.max(DARKEST, guides[i * 6 + c]);
  return light;
}

const WEIGHTS = [0.2126, 0.7152, 0.0722];

const luma = (light: Float32Array, i: number): number => 0.2126 * light[i * 3] + 0.7152 * light[i * 3 + 1] + 0.0722 * light[i * 3 + 2];

/**
 * How far two pixels are apart as surfaces: by normal, and a little by colour. A mean normal shorter than 1 tells of a
 * pixel that an edge runs through; it has no likes, so it may borrow from both sides.
 */
function apart(guides: Float32Array, i: number, j: number): number {
  const a = i * 6;
  const b = j * 6;
  const normal = (guides[a + 3] - guides[b + 3]) ** 2 + (guides[a + 4] - guides[b + 4]) ** 2 + (guides[a + 5] - guides[b + 5]) ** 2;
  const colour = Math.abs(guides[a] - guides[b]) + Math.abs(guides[a + 1] - guides[b + 1]) + Math.abs(guides[a + 2] - guides[b + 2]);
  const whole = Math.min(1, length2(guides, a + 3), length2(guides, b + 3)) ** 5;
  return (normal * 24 + colour * 3) * whole;
}

const length2 = (v: Float32Array, k: number): number => v[k] * v[k] + v[k + 1] * v[k + 1] + v[k + 2] * v[k + 2];

/** A 5 × 5 binomial mean, for a field of variances that is itself noisy. */
function blur(field: Float32Array, width: number, height: number): Float32Array {
  const across = new Float32Array(field.length);
  const out = new Float32Array(field.length);
  const clamp = (v: number, top: number): number => (v < 0 ? 0 : v > top ? top : v);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      let sum = 0;
      for (let d = -2; d <= 2; d++) sum += KERNEL[d + 2] * field[y * width + clamp(x + d, width - 1)];
      across[y * width + x] = sum;
    }
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      let sum = 0;
      for (let d = -2; d <= 2; d++) sum += KERNEL[d + 2] * across[clamp(y + d, height - 1) * width + x];
      out[y * width + x] = sum;
    }
  return out;
}
