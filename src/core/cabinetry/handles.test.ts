import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { BANDS, HANDLES, HANDS, HOLDS, type FrontLook, type HandleStyle } from '../project/schema/cabinets';
import { HANDLE_INSET, newCell, PLAIN_LOOK } from '../project/joinery';
import { handleField, handlesIn, heldAt, isFixed, placeHandles } from './handles';

const door = { x0: 0.0015, x1: 0.5985, z0: 0.15, z1: 0.867 };
const look = (over: Partial<FrontLook> = {}): FrontLook => ({ ...PLAIN_LOOK, ...over });
const by = { drawn: false, band: 'base', held: null } as const;

const leaf = fc
  .record({
    x0: fc.double({ min: 0, max: 1, noNaN: true }),
    z0: fc.double({ min: 0, max: 1.5, noNaN: true }),
    w: fc.double({ min: 0.1, max: 1, noNaN: true }),
    h: fc.double({ min: 0.08, max: 2.2, noNaN: true }),
    hand: fc.oneof(fc.constant(null), fc.constantFrom(...HANDS)),
    second: fc.oneof(fc.constant(undefined), fc.constant(true as const)),
  })
  .map(({ x0, z0, w, h, hand, second }) => ({ x0, x1: x0 + w, z0, z1: z0 + h, hand, second }));

describe('handles', () => {
  it('are on the edge that opens, at the end within reach: as far from both as is said', () => {
    const [left] = placeHandles({ ...door, hand: 'left' }, by, look());
    // A bar of 160, upright: its upper end 100 below the top of a base door.
    expect(left).toMatchObject({ upright: true, x: expect.closeTo(door.x1 - 0.035, 9) as number, z: expect.closeTo(door.z1 - 0.1 - 0.08, 9) as number });
    const [right] = placeHandles({ ...door, hand: 'right' }, by, look({ inset: { edge: 0.05, end: 0.03, top: 0.02 } }));
    expect(right).toMatchObject({ x: expect.closeTo(door.x0 + 0.05, 9) as number, z: expect.closeTo(door.z1 - 0.03 - 0.08, 9) as number });
    const [hung] = placeHandles({ ...door, hand: 'right' }, { ...by, band: 'wall' }, look());
    expect(hung.z).toBeCloseTo(door.z0 + 0.1 + 0.08, 9);
    expect(placeHandles({ ...door, z1: 2.2, hand: 'left' }, { ...by, band: 'tall' }, look())[0].z).toBeCloseTo(1.05, 9);
    expect(placeHandles({ ...door, hand: 'left' }, by, look({ holds: 'middle' }))[0].z).toBeCloseTo((door.z0 + door.z1) / 2, 9);
  });

  it('lie along the upper edge of drawers, or in the middle: of low ones, and where that is the rule', () => {
    const pull = { ...by, drawn: true };
    expect(placeHandles({ ...door, hand: null }, pull, look())).toMatchObject([
      { upright: false, x: expect.closeTo(0.3, 9) as number, z: expect.closeTo(door.z1 - 0.06, 9) as number },
    ]);
    expect(placeHandles({ ...door, hand: null }, pull, look({ holds: 'middle' }))[0].z).toBeCloseTo((door.z0 + door.z1) / 2, 9);
    expect(placeHandles({ ...door, z0: 0.73, hand: null }, pull, look())[0].z).toBeCloseTo((0.73 + door.z1) / 2, 9);
    // A wide drawer has two knobs, and is not pulled askew.
    expect(placeHandles({ ...door, x1: 0.8, hand: null }, pull, look({ handles: 'knob' })).map((h) => h.x)).toHaveLength(2);
  });

  it('that are folded over an edge are at that edge', () => {
    const edge = look({ handles: 'edge' });
    for (const [hand, drawn] of [
      ['left', false],
      ['right', false],
      ['up', false],
      [null, true],
    ] as const) {
      const [h] = placeHandles({ ...door, hand }, { ...by, drawn }, edge);
      const f = handleField(h);
      const off = { left: door.x1 - f.x1, right: f.x0 - door.x0, up: f.z0 - door.z0, drawer: door.z1 - f.z1 }[hand ?? 'drawer'];
      expect(off).toBeGreaterThanOrEqual(0);
      expect(off).toBeLessThan(0.001);
      expect(h.before).toBe(hand === 'right' || hand === 'up');
    }
  });

  it('stay on their fronts, wherever somebody puts them, and are where they were put', () => {
    fc.assert(
      fc.property(
        leaf,
        fc.constantFrom(...HANDLES),
        fc.constantFrom(...HOLDS),
        fc.constantFrom(...BANDS),
        fc.boolean(),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.boolean(),
        (own, handles, holds, band, drawn, a, b, upright) => {
          const rule = placeHandles(own, { drawn, band, held: null }, look({ handles, holds }));
          expect(rule.length > 0).toBe(isFixed(handles));
          for (const handle of rule) {
            const f = handleField(handle);
            expect(Math.min(f.x0 - own.x0, own.x1 - f.x1, f.z0 - own.z0, own.z1 - f.z1)).toBeGreaterThan(-1e-9);
          }
          // All of a knob stays on it: it is where it is put, to the micrometre.
          const r = 0.0155;
          const at = { x: own.x0 + r + a * (own.x1 - own.x0 - 2 * r), z: own.z0 + r + b * (own.z1 - own.z0 - 2 * r), upright };
          const [put] = placeHandles(own, { drawn, band, held: heldAt(own, at) }, look({ handles: 'knob' }));
          expect(put.x).toBeCloseTo(at.x, 5);
          expect(put.z).toBeCloseTo(at.z, 5);
        },
      ),
    );
  });

  it('of a pair are put as in a mirror; fixed panels have none', () => {
    const pair = [
      { ...door, x1: 0.2985, hand: 'left' as const },
      { ...door, x0: 0.3015, hand: 'right' as const, second: true as const },
    ];
    const held = heldAt(pair[0], { x: 0.2785, z: 0.5, upright: true });
    expect(held).toEqual({ from: 'right', in: 0.02, up: 0.35, upright: true });
    const both = handlesIn({ cell: newCell({ kind: 'door', held }), leaves: pair }, 'base', look({ handles: 'knob' }));
    expect(both.map((h) => h.x)).toEqual([expect.closeTo(0.2785, 9), expect.closeTo(0.3215, 9)]);
    // Said of the other leaf it is the same.
    expect(heldAt(pair[1], { x: 0.3215, z: 0.5, upright: true })).toEqual(held);
    expect(handlesIn({ cell: newCell({ kind: 'panel' }), leaves: pair }, 'base', look())).toEqual([]);
  });

  it('look from before them as long as they are, a cup no wider than it is made', () => {
    const at = (style: HandleStyle, upright = false) => handleField({ style, x: 0, z: 0, long: 0.16, upright, before: false });
    expect(at('bar', true).z1).toBeCloseTo(0.08, 9);
    expect(at('cup').x1).toBeCloseTo(0.042, 9);
    expect(at('knob').x1).toBeCloseTo(0.0155, 9);
    expect(HANDLE_INSET.edge).toBe(0.035);
  });
});
