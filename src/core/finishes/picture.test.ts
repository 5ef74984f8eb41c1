import { describe, expect, it } from 'vitest';
import type { ImagePixels } from './finish';
import { colourDifference } from './match';
import { meanOfImage, repeated, squareTo, straightened, type Quad } from './picture';

const image = (width: number, height: number, at: (x: number, y: number) => [number, number, number]) => {
  const data = new Uint8Array(width * height * 4).fill(255);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) data.set(at(x, y), (y * width + x) * 4);
  return { width, height, data };
};

describe('a picture as a finish', () => {
  it('is straightened: four corners come to the corners, and lines stay lines', () => {
    const quad: Quad = [
      { x: 0.1, y: 0.2 },
      { x: 0.8, y: 0.1 },
      { x: 0.9, y: 0.85 },
      { x: 0.2, y: 0.7 },
    ];
    const map = squareTo(quad);
    for (const [i, [u, v]] of [
      [0, 0],
      [1, 0],
      [1, 1],
      [0, 1],
    ].entries()) {
      expect(map(u, v).x).toBeCloseTo(quad[i].x, 9);
      expect(map(u, v).y).toBeCloseTo(quad[i].y, 9);
    }
    // Three points of a line lie on a line.
    const [a, b, c] = [map(0.3, 0), map(0.3, 0.4), map(0.3, 1)];
    expect((b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x)).toBeCloseTo(0, 9);
  });

  it('a checkerboard photographed askew comes out as a checkerboard', () => {
    const quad: Quad = [
      { x: 0.15, y: 0.1 },
      { x: 0.85, y: 0.2 },
      { x: 0.95, y: 0.9 },
      { x: 0.05, y: 0.8 },
    ];
    // Every pixel of the photo is asked which field it shows, by searching the map backwards on a fine grid.
    const map = squareTo(quad);
    const photo = image(240, 240, () => [128, 128, 128]);
    for (let j = 0; j < 900; j++)
      for (let i = 0; i < 900; i++) {
        const p = map(i / 900, j / 900);
        const dark = (Math.floor((i / 900) * 4) + Math.floor((j / 900) * 4)) % 2 === 0;
        photo.data.set(dark ? [20, 20, 20] : [230, 230, 230], (Math.floor(p.y * 240) * 240 + Math.floor(p.x * 240)) * 4);
      }
    const flat = straightened(photo, quad, 128);
    for (let j = 0; j < 4; j++)
      for (let i = 0; i < 4; i++) {
        const k = (Math.floor(((j + 0.5) / 4) * flat.height) * flat.width + Math.floor(((i + 0.5) / 4) * flat.width)) * 4;
        expect(flat.data[k] < 128).toBe((i + j) % 2 === 0);
      }
  });

  it('repeats without a seam, evens its light, and keeps its mean', () => {
    // Grain under a light that falls off from left to right.
    const source = image(96, 64, (x, y) => {
      const v = 60 + x * 1.2 + 30 * Math.sin(x * 1.7 + y * 2.3) + 20 * Math.sin(y * 0.9);
      return [v, v * 0.9, v * 0.7].map((c) => Math.max(0, Math.min(255, Math.round(c)))) as [number, number, number];
    });
    const made = repeated(source);
    const column = (img: ImagePixels, x: number): number => {
      let sum = 0;
      for (let y = 0; y < img.height; y++) sum += img.data[(y * img.width + x) * 4] / img.height;
      return sum;
    };
    expect(Math.abs(column(source, 95) - column(source, 0))).toBeGreaterThan(60);
    let inside = 0;
    for (let x = 1; x < 96; x++) inside = Math.max(inside, Math.abs(column(made, x) - column(made, x - 1)));
    expect(Math.abs(column(made, 95) - column(made, 0))).toBeLessThanOrEqual(inside + 1);
    expect(colourDifference(meanOfImage(made), meanOfImage(source))).toBeLessThan(2.5);
  });
});
