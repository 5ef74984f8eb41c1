import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { BANDS, BUILDS, CELLS, HANDS, INSIDES, LIES, type Band, type Build, type Construction, type FrontGrid } from '../project/schema/cabinets';
import { INCH } from '../units/length';
import { carcassOf, cuttingList, panelVolume, type Panel } from './carcass';
import { CONSTRUCTIONS } from './figures';
import { newCell } from '../project/joinery';
import { layFront } from './front';
import { readLine } from './said';

const share = (least: number, most: number): fc.Arbitrary<number | null> =>
  fc.oneof(
    fc.constant(null),
    fc.integer({ min: least * 1000, max: most * 1000 }).map((mm) => mm / 1000),
  );
const held = fc.record({
  from: fc.constantFrom('left' as const, 'right' as const),
  in: fc.double({ min: 0, max: 0.5, noNaN: true }),
  up: fc.double({ min: 0, max: 1, noNaN: true }),
  upright: fc.boolean(),
});
const cell = fc.record({
  held: fc.oneof(fc.constant(null), held),
  width: share(0.15, 0.5),
  kind: fc.constantFrom(...CELLS),
  hand: fc.oneof(fc.constant(null), fc.constantFrom(...HANDS)),
  shelves: fc.integer({ min: 0, max: 4 }),
  inside: fc.array(
    fc.record({
      height: fc.constant(null),
      fields: fc.array(fc.record({ width: fc.constant(null), kind: fc.constantFrom(...INSIDES), count: fc.integer({ min: 0, max: 4 }) }), {
        minLength: 1,
        maxLength: 3,
      }),
    }),
    { maxLength: 3 },
  ),
});
const grid: fc.Arbitrary<FrontGrid> = fc.array(fc.record({ height: share(0.1, 0.4), cells: fc.array(cell, { minLength: 1, maxLength: 3 }) }), {
  minLength: 0,
  maxLength: 4,
});
const unit = fc.record({
  build: fc.constantFrom(...BUILDS),
  lies: fc.constantFrom(...LIES),
  band: fc.constantFrom(...BANDS),
  width: fc.integer({ min: 300, max: 1200 }).map((mm) => mm / 1000),
  height: fc.integer({ min: 500, max: 2300 }).map((mm) => mm / 1000),
  depth: fc.integer({ min: 300, max: 650 }).map((mm) => mm / 1000),
  grid,
});

const boxVolume = (a: Panel['min'], b: Panel['max']): number => Math.max(0, b.x - a.x) * Math.max(0, b.y - a.y) * Math.max(0, b.z - a.z);
const common = (p: Pick<Panel, 'min' | 'max'>, q: Pick<Panel, 'min' | 'max'>): number =>
  boxVolume(
    { x: Math.max(p.min.x, q.min.x), y: Math.max(p.min.y, q.min.y), z: Math.max(p.min.z, q.min.z) },
    { x: Math.min(p.max.x, q.max.x), y: Math.min(p.max.y, q.max.y), z: Math.min(p.max.z, q.max.z) },
  );

const made = ({
  build,
  lies,
  band,
  width,
  height,
  depth,
  grid: front,
}: {
  build: Build;
  lies?: Construction['lies'];
  band: Band;
  width: number;
  height: number;
  depth: number;
  grid: FrontGrid;
}) => {
  const figures = { ...CONSTRUCTIONS[build], ...(lies ? { lies } : {}) };
  const laid = layFront(front, width, height, band, figures);
  return { figures, laid, carcass: carcassOf(width, height, depth, band, figures, laid) };
};

describe('a front, however it is divided', () => {
  it('is filled by its cells and its frame, and leaves keep their gaps', () => {
    fc.assert(
      fc.property(unit, (one) => {
        const { figures, laid } = made(one);
        if (!one.grid.length || laid.lacks > 0) return;
        const area = ({ x0, x1, z0, z1 }: { x0: number; x1: number; z0: number; z1: number }): number => (x1 - x0) * (z1 - z0);
        const fields = laid.cells.reduce((sum, c) => sum + area(c.field), 0) + laid.frame.reduce((sum, f) => sum + area(f), 0);
        expect(fields).toBeCloseTo(one.width * one.height, 9);
        const leaves = laid.cells.flatMap((c) => c.leaves);
        for (const [i, a] of leaves.entries()) {
          expect(a.x1).toBeGreaterThan(a.x0);
          expect(a.z1).toBeGreaterThan(a.z0);
          for (const b of leaves.slice(i + 1)) {
            const apart = Math.max(a.x0 - b.x1, b.x0 - a.x1, a.z0 - b.z1, b.z0 - a.z1);
            expect(apart).toBeGreaterThan(Math.min(figures.gap, 2 * figures.side) - 1e-9);
          }
        }
      }),
    );
  });

  it('has the gaps of the trade: 3 between fronts, 1.5 at the sides, 3 under the worktop; a pair where it is wider than 600', () => {
    const front: FrontGrid = [
      { height: 0.14, cells: [newCell({ kind: 'drawer', hand: null, shelves: 0 })] },
      { height: null, cells: [newCell({ kind: 'door', hand: null, shelves: 1 })] },
    ];
    const { laid } = made({ build: 'frameless', band: 'base', width: 0.8, height: 0.72, depth: 0.56, grid: front });
    const [drawer, door] = laid.cells;
    expect(drawer.leaves).toHaveLength(1);
    expect(drawer.leaves[0]).toMatchObject({ x0: 0.0015, x1: expect.closeTo(0.7985, 9) as number, z1: expect.closeTo(0.717, 9) as number });
    expect(drawer.leaves[0].z0 - door.leaves[0].z1).toBeCloseTo(0.003, 12);
    expect(door.leaves.map((l) => l.hand)).toEqual(['left', 'right']);
    expect(door.leaves[1].x0 - door.leaves[0].x1).toBeCloseTo(0.003, 12);
  });

  it('lies on its boards, on half of them, or between them, wherever it is divided', () => {
    fc.assert(
      fc.property(unit, (one) => {
        const { figures, laid, carcass } = made(one);
        if (!one.grid.length || laid.lacks > 0) return;
        const [y0, y1] = figures.lies === 'inset' ? [-one.depth, -one.depth + figures.front] : [-one.depth - figures.front, -one.depth];
        for (const { x0, x1, z0, z1 } of laid.cells.flatMap((c) => c.leaves)) {
          const leaf = { min: { x: x0, y: y0, z: z0 }, max: { x: x1, y: y1, z: z1 } };
          // Nothing of the carcass or its frame is where a front is; shelves and what stands in cells lie behind it.
          for (const panel of carcass.panels)
            if (figures.frame === 0 || panel.board === 'frame') expect([panel.name, common(leaf, panel) > 1e-9]).toEqual([panel.name, false]);
          if (figures.lies === 'inset') {
            expect(Math.min(x0, z0, one.width - x1, one.height - z1)).toBeGreaterThan(Math.max(figures.board, figures.frame) - 1e-9);
            for (const f of carcass.fields.map((f) => f.space).filter((s) => s.x0 < x1 && s.x1 > x0 && s.z0 < z1 && s.z1 > z0))
              if (figures.frame === 0) expect(f.y0).toBeGreaterThan(y1 - 1e-9);
          }
        }
      }),
    );
  });

  it('half laid on, covers half of the board it hangs at, or half an inch of its frame; laid on, all but a joint', () => {
    const front: FrontGrid = [{ height: null, cells: [newCell({ kind: 'door', hand: 'left' })] }];
    const leaf = (build: Build, lies: Construction['lies']) =>
      made({ build, lies, band: 'wall', width: 0.5, height: 0.72, depth: 0.33, grid: front }).laid.cells[0].leaves[0];
    expect(leaf('frameless', 'half')).toMatchObject({ x0: 0.009, x1: 0.491, z0: 0.009, z1: 0.711 });
    expect(leaf('frameless', 'inset')).toMatchObject({ x0: expect.closeTo(0.021, 9) as number, z1: expect.closeTo(0.699, 9) as number });
    expect(leaf('imperial framed', 'half').x0).toBeCloseTo(1 * INCH, 9);
    expect(leaf('imperial framed', 'on').x0).toBeCloseTo(0.0015, 9);
    // Two doors beside one another in a frame part in the middle of the stile between them.
    const two = made({
      build: 'imperial framed',
      lies: 'on',
      band: 'wall',
      width: 0.9,
      height: 0.72,
      depth: 0.33,
      grid: [{ height: null, cells: [newCell({ hand: 'left' }), newCell({ hand: 'right' })] }],
    }).laid.cells.map((c) => c.leaves[0]);
    expect(two[1].x0 - two[0].x1).toBeCloseTo(0.003, 9);
    expect((two[1].x0 + two[0].x1) / 2).toBeCloseTo(0.45, 9);
  });

  it('stands in a frame of 40 with gaps of 2 where it is made in-frame', () => {
    const front: FrontGrid = [{ height: null, cells: [newCell({ kind: 'door', hand: 'left', shelves: 0 })] }];
    const { laid, carcass } = made({ build: 'in-frame', band: 'base', width: 0.5, height: 0.72, depth: 0.56, grid: front });
    expect(laid.cells[0].leaves[0]).toMatchObject({
      x0: 0.042,
      x1: expect.closeTo(0.458, 9) as number,
      z0: expect.closeTo(0.042, 9) as number,
      z1: expect.closeTo(0.678, 9) as number,
    });
    expect(carcass.panels.filter((p) => p.name === 'stile').map((p) => p.max.z - p.min.z)).toEqual([0.72, 0.72]);
    expect(carcass.panels.filter((p) => p.name === 'frame rail').map((p) => p.max.x - p.min.x)).toEqual([
      expect.closeTo(0.42, 9) as number,
      expect.closeTo(0.42, 9) as number,
    ]);
  });

  it('says by how much its rows need more than there is', () => {
    const front: FrontGrid = [0.4, 0.4].map((height) => ({ height, cells: [newCell({ kind: 'drawer', hand: null, shelves: 0 })] }));
    expect(made({ build: 'frameless', band: 'base', width: 0.6, height: 0.72, depth: 0.56, grid: front }).laid.lacks).toBeCloseTo(0.08, 9);
  });
});

describe('the boards of a carcass', () => {
  it('lie in one another nowhere but in the grooves that are listed, and nowhere outside of the unit', () => {
    fc.assert(
      fc.property(unit, (one) => {
        const { carcass, laid } = made(one);
        if (laid.lacks > 0) return;
        const { panels, foot } = carcass;
        for (const p of panels) {
          expect(Math.min(p.max.x - p.min.x, p.max.y - p.min.y, p.max.z - p.min.z)).toBeGreaterThan(0);
          expect(p.min.x).toBeGreaterThan(-1e-9);
          expect(p.max.x).toBeLessThan(one.width + 1e-9);
          expect(p.min.y).toBeGreaterThan(-one.depth - 1e-9);
          expect(p.max.y).toBeLessThan(1e-9);
          expect(p.min.z).toBeGreaterThan(-foot - 1e-9);
          expect(p.max.z).toBeLessThan(one.height + 1e-9);
        }
        let grooves = 0;
        panels.forEach((p, i) => {
          for (const q of panels.slice(i + 1)) {
            const shared = common(p, q);
            if (shared < 1e-12) continue;
            // What is in both is what is cut out of one of them.
            const cut = [...p.grooves, ...q.grooves].reduce((sum, g) => sum + Math.min(common(g, p), common(g, q)), 0);
            expect([p.name, q.name, shared]).toEqual([p.name, q.name, expect.closeTo(cut, 12)]);
            grooves += shared;
          }
        });
        const listed = panels.flatMap((p) => p.grooves).reduce((sum, g) => sum + boxVolume(g.min, g.max), 0);
        expect(grooves).toBeCloseTo(listed, 10);
      }),
    );
  });

  it('are what a cutting list holds: its boards with their edging, less grooves and notches', () => {
    fc.assert(
      fc.property(unit, (one) => {
        const { carcass, laid, figures } = made(one);
        if (laid.lacks > 0) return;
        const cuts = cuttingList(carcass.panels, figures.edging);
        expect(cuts.reduce((sum, c) => sum + c.count, 0)).toBe(carcass.panels.length);
        const boards = cuts.reduce((sum, c) => sum + c.count * (c.length * c.width + c.edging * figures.edging) * c.thickness, 0);
        const notches = carcass.panels.reduce((sum, p) => sum + (p.notch ? p.notch.deep * p.notch.high * (p.max.x - p.min.x) : 0), 0);
        const grooves = carcass.panels.flatMap((p) => p.grooves).reduce((sum, g) => sum + boxVolume(g.min, g.max), 0);
        expect(boards - notches - grooves).toBeCloseTo(
          carcass.panels.reduce((sum, p) => sum + panelVolume(p), 0),
          9,
        );
      }),
    );
  });

  it('of a base unit of 600 are the ones a joiner would list', () => {
    const said = readLine('600 door', 'metric');
    if (!said.ok) throw new Error(said.message);
    const { carcass } = made({ build: 'frameless', band: 'base', width: 0.6, height: 0.72, depth: 0.56, grid: said.units[0].front });
    const mm = (x: number): number => Math.round(x * 1e4) / 10;
    expect(cuttingList(carcass.panels, 0.001).map((c) => [c.count, c.name, mm(c.length), mm(c.width), mm(c.thickness)])).toEqual([
      [2, 'side', 720, 559, 18],
      [1, 'bottom', 564, 559, 18],
      [1, 'rail', 564, 99, 18],
      [1, 'rail', 564, 100, 18],
      // From the bottom of one groove to that of the other; up to the top of the sides, past the rail.
      [1, 'back', 710, 580, 8],
      [1, 'shelf', 564, 481, 18],
    ]);
  });

  it('of an imperial unit go to the floor, notched 4 by 3 inches for toes', () => {
    const { carcass } = made({ build: 'imperial', band: 'base', width: 24 * INCH, height: 30.5 * INCH, depth: 24 * INCH, grid: [] });
    const [side] = carcass.panels;
    expect(carcass.foot).toBeCloseTo(4 * INCH, 12);
    expect(side.max.z - side.min.z).toBeCloseTo(34.5 * INCH, 12);
    expect(side.notch).toEqual({ deep: 3 * INCH, high: 4 * INCH });
    expect(carcass.panels.filter((p) => p.name === 'shelf')).toHaveLength(0);
  });
});
