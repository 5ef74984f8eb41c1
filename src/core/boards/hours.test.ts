import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sheetPicture, sheetTitle } from './hours';
import { PAPERS } from './layout';

describe('a sheet of hours', () => {
  it('keeps every picture on the paper, true in its sides and apart from all others, whatever their number', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...Object.values(PAPERS)),
        fc.integer({ min: 1, max: 30 }),
        fc.double({ min: 0.4, max: 2.6, noNaN: true }),
        (paper, count, aspect) => {
          const title = sheetTitle(paper, 'Kitchen, 12 May');
          const all = Array.from({ length: count }, (_, index) => sheetPicture(paper, { index, count, aspect }, 'p', '10:00'));
          const boxes = all.map(([picture, caption]) => ({ ...picture, height: caption.y + caption.height - picture.y }));
          for (const [picture] of all) expect(picture.width / picture.height).toBeCloseTo(aspect, 6);
          for (const { x, y, width, height } of [title, ...boxes]) {
            expect(Math.min(x, y, paper.width - x - width, paper.height - y - height)).toBeGreaterThan(0.005);
          }
          boxes.forEach((a, i) =>
            [title, ...boxes.slice(0, i)].forEach((b) => {
              const across = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x);
              const down = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y);
              expect(Math.min(across, down)).toBeLessThan(1e-6);
            }),
          );
        },
      ),
    );
  });

  it('lets nine wide pictures stand three by three on a wide paper', () => {
    const paper = PAPERS['A3 landscape'];
    const places = Array.from({ length: 9 }, (_, index) => sheetPicture(paper, { index, count: 9, aspect: 1.6 }, 'p', '')[0]);
    expect(new Set(places.map((p) => p.x.toFixed(4))).size).toBe(3);
    expect(new Set(places.map((p) => p.y.toFixed(4))).size).toBe(3);
  });
});
