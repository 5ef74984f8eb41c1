const luma = (light: Float32Array, i: number): number => 0.2126 * light[i * 3] + 0.7152 * light[i * 3 + 1] + 0.0722 * light[i * 3 + 2];

/** Brings lone pixels that outshine all their neighbours down to the second brightest of the neighbourhood. */
function calm(light: Float32Array, width: number, height: number): Float32Array<ArrayBuffer> {
  const out = new Float32Array(light);
  const l = (i: number): number => luma(light, i);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const own = l(i);
      let first = 0;
      let second = 0;
      for (let q = Math.max(0, y - 1); q <= Math.min(height - 1, y + 1); q++)
        for (let p = Math.max(0, x - 1); p <= Math.min(width - 1, x + 1); p++) {
          if (p === x && q === y) continue;
          const v = l(q * width + p);
          if (v > first) {
            second = first;
            first = v;
          } else if (v > second) second = v;
        }
      if (own > second * 1.2 && own > 0) for (let c = 0; c < 3; c++) out[i * 3 + c] *= (second * 1.2) / own;
    }
  return out;
}

/**
 * Edge-avoiding à-trous wavelet filter (Dammertz et al. 2010) for traced pictures: the surface colour is divided out,
 * what is left (the light) is smoothed where normals and colours agree, and the colour is put back. Energy is kept:
 * every weight is normalised.
 *
 * @param radiance three values a pixel (mean over samples)
 * @param guides six values a pixel: first-hit colour and normal (means)
 * @param strength 0 leaves the picture as it is; about 1 at 64 samples
 */
export function denoise(radiance: Float32Array, guides: Float32Array, width: number, height: number, strength: number): Float32Array {
  if (strength <= 0) return radiance;
  const n = width * height;
  let light: Float32Array<ArrayBuffer> = new Float32Array(n * 3);
  for (let i = 0; i < n; i++) for (let c = 0; c < 3; c++) light[i * 3 + c] = radiance[i * 3 + c] / Math.max(0.02, guides[i * 6 + c]);
  light = calm(light, width, height);
  let mean = 0;
  for (let i = 0; i < n; i++) mean += Math.log(1e-3 + luma(light, i));
  const middle = Math.exp(mean / n);
  const kernel = [1 / 16, 1 / 4, 3 / 8, 1 / 4, 1 / 16];
  for (let level = 0; level < 4; level++) {
    const step = 1 << level;
    const next = new Float32Array(n * 3);
    const sigma = (0.9 * strength) / 2 ** level;
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const i = y * width + x;
        const l = Math.log1p(luma(light, i) / middle);
        let [r, g, b, total] = [0, 0, 0, 0];
        for (let dy = -2; dy <= 2; dy++) {
          const q = y + dy * step;
          if (q < 0 || q >= height) continue;
          for (let dx = -2; dx <= 2; dx++) {
            const p = x + dx * step;
            if (p < 0 || p >= width) continue;
            const j = q * width + p;
            const dot = guides[i * 6 + 3] * guides[j * 6 + 3] + guides[i * 6 + 4] * guides[j * 6 + 4] + guides[i * 6 + 5] * guides[j * 6 + 5];
            const dc = Math.abs(guides[i * 6] - guides[j * 6]) + Math.abs(guides[i * 6 + 1] - guides[j * 6 + 1]) + Math.abs(guides[i * 6 + 2] - guides[j * 6 + 2]);
            const dl = l - Math.log1p(luma(light, j) / middle);
            const w = kernel[dx + 2] * kernel[dy + 2] * Math.max(0, dot) ** 48 * Math.exp(-dc * 4 - (dl * dl) / (sigma * sigma));
            r += light[j * 3] * w;
            g += light[j * 3 + 1] * w;
            b += light[j * 3 + 2] * w;
            total += w;
          }
        }
        const k = total > 1e-9 ? 1 / total : 0;
        next[i * 3] = k ? r * k : light[i * 3];
        next[i * 3 + 1] = k ? g * k : light[i * 3 + 1];
        next[i * 3 + 2] = k ? b * k : light[i * 3 + 2];
      }
    light = next;
  }
  const out = new Float32Array(n * 3);
  for (let i = 0; i < n; i++) for (let c = 0; c < 3; c++) out[i * 3 + c] = light[i * 3 + c] * Math.max(0.02, guides[i * 6 + c]);
  return out;
}
