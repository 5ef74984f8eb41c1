import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { inRows } from './dimension';

describe('figures along a line', () => {
  it('stand in the first row where they cover no other, whichever way the line runs', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.double({ min: -200, max: 200, noNaN: true }), fc.double({ min: 1, max: 60, noNaN: true })), { maxLength: 8 }),
        fc.double({ min: -3, max: 3, noNaN: true }),
        (list, angle) => {
          const rows = inRows(list.map(([s, width]) => ({ at: { x: s * Math.cos(angle), y: s * Math.sin(angle) }, angle, width })));
          const meet = (i: number, k: number): boolean => Math.abs(list[i][0] - list[k][0]) < (list[i][1] + list[k][1]) / 2 - 1e-6;
          rows.forEach((row, i) => {
            for (let k = 0; k < i; k++) if (rows[k] === row) expect(meet(i, k)).toBe(false);
            // No row before it would have done.
            for (let before = 0; before < row; before++)
              expect(rows.slice(0, i).some((r, k) => r === before && Math.abs(list[i][0] - list[k][0]) < (list[i][1] + list[k][1]) / 2 + 1e-6)).toBe(true);
          });
        },
      ),
    );
  });
});
