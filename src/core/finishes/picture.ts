import { encode8, LINEAR, linearToHex } from './colour';
import type { ImagePixels } from './finish';

/** Four corners of what is square in a picture, from the upper left clockwise, as shares of its width and height. */
export type Quad = readonly [Corner, Corner, Corner, Corner];
interface Corner {
  x: number;
  y: number;
}

/** The projective map that takes the unit square to four corners (Heckbert 1989, "Fundamentals of texture mapping"). */
export function squareTo([p0, p1, p2, p3]: Quad): (u: number, v: number) => Corner {
  const sx = p0.x - p1.x + p2.x - p3.x;
  const sy = p0.y - p1.y + p2.y - p3.y;
  const [dx1, dy1, dx2, dy2] = [p1.x - p2.x, p1.y - p2.y, p3.x - p2.x, p3.y - p2.y];
  const det = dx1 * dy2 - dx2 * dy1;
  const g = Math.abs(det) < 1e-12 ? 0 : (sx * dy2 - dx2 * sy) / det;
  const h = Math.abs(det) < 1e-12 ? 0 : (dx1 * sy - sx * dy1) / det;
  const [a, b, c] = [p1.x - p0.x + g * p1.x, p3.x - p0.x + h * p3.x, p0.x];
  const [d, e, f] = [p1.y - p0.y + g * p1.y, p3.y - p0.y + h * p3.y, p0.y];
  return (u, v) => {
    const w = g * u + h * v + 1;
    return { x: (a * u + b * v + c) / w, y: (d * u + e * v + f) / w };
  };
}

/**
 * The part of a picture between four corners, seen straight on.
 *
 * @param most pixels of its longer side
 */
export function straightened(image: ImagePixels, quad: Quad, most: number): ImagePixels {
  const { width: w, height: h, data } = image;
  const side = (a: Corner, b: Corner): number => Math.hypot((a.x - b.x) * w, (a.y - b.y) * h);
  const across = Math.max(side(quad[0], quad[1]), side(quad[3], quad[2]));
  const down = Math.max(side(quad[0], quad[3]), side(quad[1], quad[2]));
  const k = Math.min(1, most / Math.max(across, down, 1));
  const width = Math.max(4, Math.round(across * k));
  const height = Math.max(4, Math.round(down * k));
  const map = squareTo(quad);
  const out = new Uint8Array(width * height * 4);
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      const p = map((i + 0.5) / width, (j + 0.5) / height);
      const fx = Math.min(w - 1.001, Math.max(0, p.x * w - 0.5));
      const fy = Math.min(h - 1.001, Math.max(0, p.y * h - 0.5));
      const [x, y] = [Math.floor(fx), Math.floor(fy)];
      const [a, b] = [fx - x, fy - y];
      const o = (j * width + i) * 4;
      for (let c = 0; c < 3; c++) {
        const at = (px: number, py: number): number => LINEAR[data[(Math.min(h - 1, py) * w + Math.min(w - 1, px)) * 4 + c]];
        out[o + c] = encode8((at(x, y) * (1 - a) + at(x + 1, y) * a) * (1 - b) + (at(x, y + 1) * (1 - a) + at(x + 1, y + 1) * a) * b);
      }
      out[o + 3] = 255;
    }
  return { width, height, data: out };
}

/**
 * A picture made to repeat: its slow changes of light are evened out, and each edge is blended with what lies half a picture
 * away, keeping the contrast of the blend (Heitz and Neyret 2018: weights scaled by their norm about the mean).
 */
export function repeated(image: ImagePixels): ImagePixels {
  const { width, height, data } = image;
  const count = width * height;
  const linear = new Float32Array(count * 3);
  const mean = [0, 0, 0];
  for (let k = 0; k < count; k++)
    for (let c = 0; c < 3; c++) {
      const v = LINEAR[data[k * 4 + c]];
      linear[k * 3 + c] = v;
      mean[c] += v / count;
    }
  // Evening: the gradient of light across the picture, by least squares in each direction.
  for (let c = 0; c < 3; c++) {
    let [sx, sy, nx, ny] = [0, 0, 0, 0];
    for (let j = 0; j < height; j++)
      for (let i = 0; i < width; i++) {
        const v = linear[(j * width + i) * 3 + c] - mean[c];
        const [u, w] = [(i + 0.5) / width - 0.5, (j + 0.5) / height - 0.5];
        sx += v * u;
        sy += v * w;
        nx += u * u;
        ny += w * w;
      }
    for (let j = 0; j < height; j++)
      for (let i = 0; i < width; i++) linear[(j * width + i) * 3 + c] -= (sx / nx) * ((i + 0.5) / width - 0.5) + (sy / ny) * ((j + 0.5) / height - 0.5);
  }
  const out = new Uint8Array(count * 4);
  const weight = (t: number): number => {
    const edge = Math.min(t, 1 - t) * 2;
    return edge * edge * (3 - 2 * edge);
  };
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      // Four copies, moved by half: each has its seam where it weighs nothing.
      const wx = weight((i + 0.5) / width);
      const wy = weight((j + 0.5) / height);
      const half = [Math.floor(width / 2), Math.floor(height / 2)];
      const parts = [
        [wx * wy, 0, 0],
        [(1 - wx) * wy, half[0], 0],
        [wx * (1 - wy), 0, half[1]],
        [(1 - wx) * (1 - wy), half[0], half[1]],
      ];
      const norm = Math.sqrt(parts.reduce((sum, [w]) => sum + w * w, 0)) || 1;
      const o = (j * width + i) * 4;
      for (let c = 0; c < 3; c++) {
        let v = 0;
        for (const [w, dx, dy] of parts) v += w * (linear[(((j + dy) % height) * width + ((i + dx) % width)) * 3 + c] - mean[c]);
        out[o + c] = encode8(Math.min(1, Math.max(0, mean[c] + v / norm)));
      }
      out[o + 3] = 255;
    }
  return { width, height, data: out };
}

/** Mean colour of a picture, taken linearly. */
export function meanOfImage({ width, height, data }: ImagePixels): string {
  const sum: [number, number, number] = [0, 0, 0];
  for (let k = 0; k < width * height; k++) for (let c = 0; c < 3; c++) sum[c] += LINEAR[data[k * 4 + c]] / (width * height);
  return linearToHex(sum);
}
