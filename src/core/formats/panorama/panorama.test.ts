import { describe, expect, it } from 'vitest';
import { lookRoundPage } from './page';
import { SIDES, sideOf, type Side } from './sides';

/** A picture all round whose colour is the direction it is seen in: x ahead, y right, z up, −1…1 as 0…255. */
function directions(width: number): { data: Uint8ClampedArray; width: number; height: number } {
  const height = width / 2;
  const data = new Uint8ClampedArray(width * height * 4);
  for (let v = 0; v < height; v++)
    for (let u = 0; u < width; u++) {
      const [lon, lat] = [((u + 0.5) / width - 0.5) * 2 * Math.PI, (0.5 - (v + 0.5) / height) * Math.PI];
      const d = [Math.cos(lat) * Math.cos(lon), Math.cos(lat) * Math.sin(lon), Math.sin(lat)];
      data.set([...d.map((c) => Math.round((c * 0.5 + 0.5) * 255)), 255], (v * width + u) * 4);
    }
  return { data, width, height };
}

describe('the six sides of a picture all round', () => {
  const picture = directions(512);
  const MIDDLES: Record<Side, number[]> = { front: [1, 0, 0], right: [0, 1, 0], back: [-1, 0, 0], left: [0, -1, 0], up: [0, 0, 1], down: [0, 0, -1] };

  it.each(SIDES)('%s: shows in every pixel the direction a square picture of 90° shows there', (side) => {
    const size = 33;
    const pixels = sideOf(picture, side, size);
    const seen = (i: number, j: number): number[] => [0, 1, 2].map((c) => pixels[(j * size + i) * 4 + c] / 127.5 - 1);
    seen(16, 16).forEach((v, c) => expect(Math.abs(v - MIDDLES[side][c])).toBeLessThan(0.02));
    for (let j = 0; j < size; j++)
      for (let i = 0; i < size; i++) {
        const d = seen(i, j);
        // Along the axis of the side all directions of one row and column have their tangents in proportion.
        const [a, b] = [(2 * (i + 0.5)) / size - 1, 1 - (2 * (j + 0.5)) / size];
        const ahead = MIDDLES[side].reduce((sum, m, c) => sum + m * d[c], 0);
        expect(Math.abs(ahead - 1 / Math.hypot(1, a, b))).toBeLessThan(0.02);
      }
  });

  it('meet at their edges', () => {
    const size = 64;
    const of = (side: Side) => sideOf(picture, side, size);
    const [front, right, up, down] = [of('front'), of('right'), of('up'), of('down')];
    for (let k = 0; k < size; k++)
      for (let c = 0; c < 3; c++) {
        const at = (p: Uint8ClampedArray, i: number, j: number): number => p[(j * size + i) * 4 + c];
        expect(Math.abs(at(front, size - 1, k) - at(right, 0, k))).toBeLessThan(6);
        expect(Math.abs(at(front, k, 0) - at(up, k, size - 1))).toBeLessThan(6);
        expect(Math.abs(at(front, k, size - 1) - at(down, k, 0))).toBeLessThan(6);
      }
  });
});

describe('the page to look round in', () => {
  it('holds title and picture as text that can’t become anything else', () => {
    const page = lookRoundPage('Kitchen <b> & "hall"', 'data:image/jpeg;base64,AAAA');
    expect(page).toContain('<title>Kitchen &#60;b&#62; &#38; &#34;hall&#34;</title>');
    expect(page).toContain('data-picture="data:image/jpeg;base64,AAAA"');
    expect(page).not.toContain('<b>');
    expect(page.match(/https?:/g)).toBeNull();
    expect(lookRoundPage('Kitchen')).not.toContain('data-picture=');
  });
});
