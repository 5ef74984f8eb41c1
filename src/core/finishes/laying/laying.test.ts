import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boolean, regionArea, signedArea, totalArea } from '../../geometry/polygon';
import type { Region } from '../../geometry/region';
import { PATTERNS, type Laying } from '../../project/schema';
import { cellFault } from '../../project/laying-cell';
import { lay } from '../library/make';
import { layOut, unitsNeeded } from './layout';
import { jointShare, settleOffset, tilingOf } from './pattern';
import { evenStart, fromPattern, laidFinish, placeOf, toPattern } from './place';
import { finishById } from '../library';

const rectangle = (w: number, h: number, x = 0, y = 0): Region => ({
  outer: [
    { x, y },
    { x: x + w, y },
    { x: x + w, y: y + h },
    { x, y: y + h },
  ],
  holes: [],
});
const frame = (w: number, h: number) => ({ angle: 0, x0: 0, y0: 0, x1: w, y1: h });
const seed = Number(process.env.FC_SEED ?? 41);
const own: Laying = lay('own', 0.2, 0.1, 0.004, '#888888', {
  cell: {
    width: 0.6,
    height: 0.4,
    units: [
      { x: 0, y: 0, width: 0.4, height: 0.4 },
      { x: 0.4, y: 0, width: 0.2, height: 0.2 },
      { x: 0.4, y: 0.2, width: 0.2, height: 0.2 },
    ],
  },
});

const layings: Laying[] = PATTERNS.filter((p) => p !== 'own').map((p) =>
  lay(p, p === 'panel' ? 0.6 : 0.3, p === 'panel' ? 0.06 : 0.1, 0.004, '#888888', { offset: 0.37, small: 0.12 }),
);

describe.each([...layings, own].map((l) => [l.pattern, l] as const))('the pattern %s', (_, laying) => {
  const { period, units } = tilingOf(laying);

  it('covers its period exactly: units and joints, nothing twice', () => {
    const whole = tilingOf({ ...laying, joint: laying.pattern === 'own' ? 0 : 1e-9, width: laying.width, height: laying.height });
    const area = whole.units.reduce((sum, u) => sum + signedArea(u.ring), 0);
    expect(area / (whole.period.x * whole.period.y)).toBeCloseTo(1, 5);
    // No two units overlap, also across the edges of the period.
    const around = units.flatMap((u) =>
      [-1, 0, 1].flatMap((c) => [-1, 0, 1].map((r): Region => ({ outer: u.ring.map((p) => ({ x: p.x + c * period.x, y: p.y + r * period.y })), holes: [] }))),
    );
    units.forEach((u, i) => {
      const others = around.filter((_, k) => k !== i * 9 + 4);
      expect(totalArea(boolean('intersection', [{ outer: u.ring, holes: [] }], others))).toBeLessThan(1e-9);
    });
  });

  it('is laid over any face by exact clipping: parts and joints sum up to it', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 2, noNaN: true }),
        fc.double({ min: 0.4, max: 1.5, noNaN: true }),
        fc.double({ min: 0, max: 3, noNaN: true }),
        (w, h, rotation) => {
          const placing = placeOf(laying, { laying: null, start: 'even', origin: { x: 0, y: 0 }, rotation, scale: 1 }, frame(w, h));
          const face = rectangle(w, h);
          const layout = layOut(laying, placing, [face]);
          // Against the clipper: every unit of the plane cut with the face at once.
          const reach = Math.hypot(w, h) + 1;
          const all: Region[] = [];
          const at = toPattern(placing, { x: w / 2, y: h / 2 });
          const [c0, r0] = [Math.floor(at.x / period.x), Math.floor(at.y / period.y)];
          const n = Math.ceil(reach / Math.min(period.x, period.y)) + 1;
          if (n > 60) return;
          for (let c = -n; c <= n; c++)
            for (let r = -n; r <= n; r++)
              for (const u of units)
                all.push({ outer: u.ring.map((p) => fromPattern(placing, { x: p.x + (c + c0) * period.x, y: p.y + (r + r0) * period.y })), holes: [] });
          const sum = all.reduce((total, u) => total + totalArea(boolean('intersection', [face], [u])), 0);
          // Shavings of less than half a millimetre are lost in the joints.
          expect(Math.abs(layout.covered - sum)).toBeLessThan(0.002);
          expect(layout.units.reduce((total, u) => total + u.area, 0)).toBeCloseTo(layout.covered, 9);
          // Over a large face the joints have their share.
          expect(layout.covered / layout.area).toBeLessThan(1);
        },
      ),
      { numRuns: 4, seed },
    );
  });

  it('has the share of joints that is left between its units', () => {
    const share = jointShare(laying);
    expect(share).toBeGreaterThan(0.005);
    expect(share).toBeLessThan(0.25);
  });
});

describe('counting', () => {
  const tile = lay('stack', 0.1, 0.1, 0, '#888888');

  it('by hand: a metre by half a metre of 100 mm tiles is fifty whole ones', () => {
    const layout = layOut(tile, placeOf(tile, undefined, frame(1, 0.5)), [rectangle(1, 0.5)]);
    expect([layout.whole, layout.cut]).toEqual([50, 0]);
    expect(unitsNeeded(layout.units, tile)).toBe(50);
  });

  it('by hand: 1.05 m needs a column of cut tiles, two of which come from one', () => {
    const edge = { laying: null, start: 'edge', origin: { x: 0, y: 0 }, rotation: 0, scale: 1 } as const;
    const layout = layOut(tile, placeOf(tile, edge, frame(1.045, 0.5)), [rectangle(1.045, 0.5)]);
    expect([layout.whole, layout.cut]).toEqual([50, 5]);
    // 45 mm twice and a saw cut fit into 100 mm.
    expect(unitsNeeded(layout.units, tile)).toBe(53);
    // 60 mm twice do not.
    const wide = layOut(tile, placeOf(tile, edge, frame(1.06, 0.5)), [rectangle(1.06, 0.5)]);
    expect(unitsNeeded(wide.units, tile)).toBe(55);
  });

  it('by hand: a hole takes its tiles out, and a tile round its corner is cut, not two', () => {
    const hole = rectangle(0.3, 0.2, 0.2, 0.1);
    const face: Region = { outer: rectangle(1, 0.5).outer, holes: [[...hole.outer].reverse()] };
    const layout = layOut(tile, placeOf(tile, undefined, frame(1, 0.5)), [face]);
    expect([layout.whole, layout.cut]).toEqual([50 - 6, 0]);
    const askew = layOut(tile, placeOf(tile, undefined, frame(1, 0.5)), [
      { outer: rectangle(1, 0.5).outer, holes: [[...rectangle(0.1, 0.1, 0.25, 0.15).outer].reverse()] },
    ]);
    expect([askew.whole, askew.cut]).toEqual([46, 4]);
    expect(askew.covered).toBeCloseTo(0.5 - 0.01, 9);
  });

  it('a tile that falls apart behind a post is still one tile', () => {
    const left = rectangle(0.04, 0.1);
    const right = rectangle(0.03, 0.1, 0.07);
    const layout = layOut(tile, { origin: { x: 0, y: 0 }, angle: 0 }, [left, right]);
    expect([layout.cut, layout.units[0].parts.length]).toEqual([1, 2]);
  });

  it('running bond: half tiles at the ends of every other row', () => {
    const bond = lay('running', 0.2, 0.1, 0, '#888888', { offset: 0.5 });
    const edge = { laying: null, start: 'edge', origin: { x: 0, y: 0 }, rotation: 0, scale: 1 } as const;
    const layout = layOut(bond, placeOf(bond, edge, frame(1, 0.4)), [rectangle(1, 0.4)]);
    expect([layout.whole, layout.cut]).toEqual([5 + 4 + 5 + 4, 4]);
  });

  it('refuses what would be too many to count one by one', () => {
    expect(() => layOut(lay('stack', 0.005, 0.005, 0, '#888888'), { origin: { x: 0, y: 0 }, angle: 0 }, [rectangle(50, 50)])).toThrow(RangeError);
  });
});

describe('where a pattern begins', () => {
  it('leaves no piece smaller than a third of a tile, wherever that can be avoided', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.35, max: 6, noNaN: true }), fc.double({ min: 0.08, max: 0.3, noNaN: true }), (length, width) => {
        const tile = lay('stack', width, width, 0.003, '#888888');
        const layout = layOut(tile, { origin: { x: evenStart(length, width + 0.003, 0.003, [0]), y: -0.0015 }, angle: 0 }, [rectangle(length, width)]);
        for (const u of layout.units) expect(u.width).toBeGreaterThan(width / 3 - 0.002);
      }),
      { numRuns: 120, seed },
    );
  });

  it('in the middle it is the same from both ends', () => {
    const tile = lay('stack', 0.15, 0.15, 0.003, '#888888');
    const layout = layOut(tile, placeOf(tile, { laying: null, start: 'middle', origin: { x: 0, y: 0 }, rotation: 0, scale: 1 }, frame(1.7, 0.15)), [
      rectangle(1.7, 0.15),
    ]);
    const xs = layout.units.flatMap((u) => u.parts.flat().map((p) => p.x));
    const mirrored = xs.map((x) => 1.7 - x).sort((a, b) => a - b);
    xs.sort((a, b) => a - b).forEach((x, i) => expect(x).toBeCloseTo(mirrored[i], 9));
  });

  it('carried round a corner, what is cut off at the end of one face begins the next', () => {
    const tile = lay('stack', 0.2, 0.2, 0.004, '#888888');
    const carried = { laying: null, start: 'carried', origin: { x: 0, y: 0 }, rotation: 0, scale: 1 } as const;
    const first = layOut(tile, placeOf(tile, carried, frame(1.33, 0.19), 0), [rectangle(1.33, 0.19)]);
    const second = layOut(tile, placeOf(tile, carried, frame(1.33, 0.19), 1.33), [rectangle(1.33, 0.19)]);
    const last = Math.max(...first.units.map((u) => Math.max(...u.parts.flat().map((p) => p.x))));
    expect(last).toBeCloseTo(1.33, 9);
    const end = first.units.find((u) => u.parts.flat().some((p) => Math.abs(p.x - 1.33) < 1e-9))!;
    const begin = second.units.find((u) => u.parts.flat().some((p) => Math.abs(p.x) < 1e-9))!;
    expect(end.width + begin.width).toBeCloseTo(0.2, 9);
  });

  it('offsets are settled as fractions: halves and thirds exactly, others within a hundredth', () => {
    expect(settleOffset(0.5)).toMatchObject({ p: 1, q: 2 });
    expect(settleOffset(1 / 3)).toMatchObject({ p: 1, q: 3 });
    for (let o = 0.06; o < 0.95; o += 0.013) {
      const { p, q } = settleOffset(o);
      expect(Math.abs(p / q - o)).toBeLessThan(0.02);
    }
  });

  it('a scale is marked by the size of the finish, and joints go with it', () => {
    const finish = finishById('tile.square-ink');
    const laid = laidFinish(finish, { laying: null, start: 'even', origin: { x: 0, y: 0 }, rotation: 0, scale: 2 });
    expect([laid.laying!.width, laid.laying!.joint]).toEqual([0.2, 0.005]);
    expect(laidFinish(finish, undefined)).toBe(finish);
  });
});

describe('a pattern of one’s own', () => {
  it('closes, or says why it does not', () => {
    expect(cellFault(own.cell!)).toBeNull();
    expect(cellFault({ ...own.cell!, units: own.cell!.units.slice(1) })).toContain('cover');
    expect(cellFault({ ...own.cell!, units: [...own.cell!.units, { x: 0.1, y: 0.1, width: 0.1, height: 0.1 }] })).toContain('overlap');
  });
});

it('a region with holes has the area of what is left', () => {
  expect(regionArea({ outer: rectangle(2, 1).outer, holes: [[...rectangle(0.5, 0.5, 0.2, 0.2).outer].reverse()] })).toBeCloseTo(1.75, 9);
});
