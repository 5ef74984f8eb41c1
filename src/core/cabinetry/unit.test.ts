import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { moved, opensTo, reachOf } from '../geometry/joint';
import { transformPoint } from '../geometry/mesh';
import { within } from '../geometry/shapes';
import { BANDS, BUILDS, CELLS, FRONTS, HANDLES, HANDS, HOLDS, INSIDES, LIES, type FrontGrid } from '../project/schema/cabinets';
import { FINE, LIGHT } from '../stock/stock';
import { bounds } from '../testing/measures';
import { loadKernel, openEdges, volume } from '../testing/solid';
import { panelVolume } from './carcass';
import { CONSTRUCTIONS } from './figures';
import { newCell, PLAIN_LOOK } from '../project/joinery';
import { boxFor, makeUnit, panelMesh, runnerFor } from './unit';

beforeAll(loadKernel);

const held = fc.record({
  from: fc.constantFrom('left' as const, 'right' as const),
  in: fc.double({ min: 0, max: 0.5, noNaN: true }),
  up: fc.double({ min: 0, max: 1, noNaN: true }),
  upright: fc.boolean(),
});
const cell = fc.record({
  held: fc.oneof(fc.constant(null), held),
  width: fc.constant(null),
  kind: fc.constantFrom(...CELLS),
  hand: fc.oneof(fc.constant(null), fc.constantFrom(...HANDS)),
  shelves: fc.integer({ min: 0, max: 3 }),
  inside: fc.array(
    fc.record({
      height: fc.oneof(fc.constant(null), fc.constantFrom(0.2, 0.5)),
      fields: fc.array(fc.record({ width: fc.constant(null), kind: fc.constantFrom(...INSIDES), count: fc.integer({ min: 0, max: 4 }) }), {
        minLength: 1,
        maxLength: 2,
      }),
    }),
    { maxLength: 3 },
  ),
});
const grid: fc.Arbitrary<FrontGrid> = fc.array(fc.record({ height: fc.constant(null), cells: fc.array(cell, { minLength: 1, maxLength: 2 }) }), {
  minLength: 1,
  maxLength: 3,
});
const unit = fc.record({
  build: fc.constantFrom(...BUILDS),
  lies: fc.constantFrom(...LIES),
  band: fc.constantFrom(...BANDS),
  width: fc.integer({ min: 350, max: 1200 }).map((mm) => mm / 1000),
  height: fc.integer({ min: 600, max: 2200 }).map((mm) => mm / 1000),
  depth: fc.integer({ min: 320, max: 620 }).map((mm) => mm / 1000),
  grid,
  fronts: fc.constantFrom(...FRONTS),
  handles: fc.constantFrom(...HANDLES),
  panes: fc.record({ across: fc.integer({ min: 1, max: 3 }), up: fc.integer({ min: 1, max: 4 }) }),
  holds: fc.constantFrom(...HOLDS),
  grip: fc.oneof(fc.constant(null), fc.constantFrom(0.05, 0.3, 1.2)),
});

describe('a unit as it is made', () => {
  it('is of closed parts within its sizes, light and fine, and of the same parts both times', () => {
    fc.assert(
      fc.property(unit, ({ build, lies, band, width, height, depth, grid: front, ...look }) => {
        const names = [LIGHT, FINE].map((off) =>
          within(off, () => {
            const made = makeUnit(front, { width, height, depth }, band, { ...CONSTRUCTIONS[build], lies }, { ...PLAIN_LOOK, ...look });
            const lift = band === 'wall' ? 0 : CONSTRUCTIONS[build].plinth;
            for (const { part, mesh } of made.parts) {
              expect([part, openEdges(mesh)]).toEqual([part, 0]);
              const { low: min, high: max } = bounds([mesh]);
              expect(min[0]).toBeGreaterThan(-1e-5);
              expect(max[0]).toBeLessThan(width + 1e-5);
              // Fronts and handles stand out before the carcass.
              expect(min[1]).toBeGreaterThan(-depth - 0.08);
              expect(max[1]).toBeLessThan(1e-5);
              expect(min[2]).toBeGreaterThan(-1e-5);
              expect(max[2]).toBeLessThan(lift + height + 1e-5);
            }
            return made.parts.map((p) => p.part);
          }),
        );
        expect(names[1]).toEqual(names[0]);
      }),
      { numRuns: 60 },
    );
  });

  it('has boards of the volume of its cutting list, as an independent kernel measures them', () => {
    fc.assert(
      fc.property(unit, ({ build, lies, band, width, height, depth, grid: front }) => {
        const { carcass } = makeUnit(
          front,
          { width, height, depth },
          band,
          { ...CONSTRUCTIONS[build], lies },
          { ...PLAIN_LOOK, fronts: 'flat', handles: 'none' },
        );
        for (const panel of carcass.panels) {
          const grooves = panel.grooves.reduce((sum, { min, max }) => sum + (max.x - min.x) * (max.y - min.y) * (max.z - min.z), 0);
          const mesh = within(LIGHT, () => panelMesh(panel));
          expect(openEdges(mesh)).toBe(0);
          expect(volume(mesh) / (panelVolume(panel) + grooves)).toBeCloseTo(1, 3);
        }
      }),
      { numRuns: 30 },
    );
  });

  it('has the edging of its boards as a part of its own where that is of another finish: what it is, they are less', () => {
    fc.assert(
      fc.property(unit, ({ build, lies, band, width, height, depth, grid: front }) => {
        const made = { ...CONSTRUCTIONS[build], lies, edging: 0.002 };
        const of = (banded: boolean) => {
          const all = within(LIGHT, () => makeUnit(front, { width, height, depth }, band, made, PLAIN_LOOK, 'left', [], [], { banded }));
          const sum = (part: string): number => all.parts.filter((p) => p.part === part).reduce((s, p) => s + volume(p.mesh), 0);
          return { carcass: all.carcass, boards: sum('carcass'), edges: sum('edges') };
        };
        const [plain, banded] = [of(false), of(true)];
        expect(plain.edges).toBe(0);
        expect(banded.boards + banded.edges).toBeCloseTo(plain.boards, 6);
        const edged = banded.carcass.panels.filter((p) => p.edged.includes('front'));
        const strips = edged.reduce((s, p) => s + (p.max.x - p.min.x) * (p.max.z - p.min.z - (p.notch?.high ?? 0)) * made.edging, 0);
        expect(banded.edges).toBeCloseTo(strips, 7);
      }),
      { numRuns: 40 },
    );
  });

  it('opens to its own front: doors about their hinges, flaps up and down, drawers straight out', () => {
    // Behind the front are 502 mm: the runner of 470 fits, and comes out by nine tenths.
    const style = { ...PLAIN_LOOK, fronts: 'flat' } as const;
    const open = (kind: 'door' | 'drawer', hand: (typeof HANDS)[number] | null): { x: number; y: number; z: number }[] => {
      const { parts } = makeUnit(
        [{ height: null, cells: [newCell({ kind, hand })] }],
        { width: 0.6, height: 0.72, depth: 0.56 },
        'base',
        CONSTRUCTIONS.frameless,
        style,
      );
      const front = parts.find((p) => p.part === 'fronts')!;
      const m = moved(front.joint!, reachOf(front.joint!, 1));
      const { positions: p } = front.mesh;
      return Array.from({ length: p.length / 3 }, (_, i) => transformPoint(m, { x: p[i * 3], y: p[i * 3 + 1], z: p[i * 3 + 2] }));
    };
    const reach = (points: { x: number; y: number; z: number }[]): number => -Math.min(...points.map((q) => q.y));
    // A door of 597 swings 597 before the front; the flap as far as it is high.
    for (const hand of ['left', 'right'] as const) expect(reach(open('door', hand))).toBeCloseTo(0.56 + 0.597 * Math.sin((105 * Math.PI) / 180), 1.5);
    expect(Math.min(...open('door', 'left').map((q) => q.x))).toBeLessThan(0.01);
    expect(Math.max(...open('door', 'right').map((q) => q.x))).toBeGreaterThan(0.59);
    expect(reach(open('door', 'up'))).toBeCloseTo(0.56 + 0.7155, 1.5);
    expect(Math.min(...open('door', 'up').map((q) => q.z))).toBeGreaterThan(0.8);
    expect(Math.max(...open('door', 'down').map((q) => q.z))).toBeLessThan(0.2);
    expect(reach(open('drawer', null))).toBeCloseTo(0.56 + 0.0204 + 0.9 * 0.47, 3);
  });

  it('slides its doors back into pockets, between its sides and its shelves, a pair where it is wide', () => {
    for (const width of [0.55, 0.9]) {
      const size = { width, height: 0.72, depth: 0.56 };
      const made = CONSTRUCTIONS.frameless;
      const grid = [{ height: null, cells: [newCell({ kind: 'door', hand: 'pocket', shelves: 2 })] }];
      const { parts, carcass, front } = makeUnit(grid, size, 'base', made, { ...PLAIN_LOOK, fronts: 'flat', handles: 'none' });
      const leaves = parts.filter((p) => p.part === 'fronts');
      expect(front.cells[0].leaves).toHaveLength(width > 0.6 ? 2 : 1);
      expect(leaves).toHaveLength(front.cells[0].leaves.length);
      const shelves = carcass.panels.filter((p) => p.name === 'shelf');
      const stands = (mesh: (typeof leaves)[0]['mesh'], joint: NonNullable<(typeof leaves)[0]['joint']>, share: number) => {
        const m = opensTo(joint, share);
        const all = Array.from({ length: mesh.positions.length / 3 }, (_, i) =>
          transformPoint(m, { x: mesh.positions[i * 3], y: mesh.positions[i * 3 + 1], z: mesh.positions[i * 3 + 2] }),
        );
        const of = (key: 'x' | 'y'): [number, number] => [Math.min(...all.map((p) => p[key])), Math.max(...all.map((p) => p[key]))];
        return { x: of('x'), y: of('y') };
      };
      for (const { mesh, joint } of leaves) {
        // Half its way it stands out before the front, at a right angle.
        const half = stands(mesh, joint!, 0.5);
        expect(half.y[0]).toBeLessThan(-0.56 - 0.35);
        const { x, y } = stands(mesh, joint!, 1);
        // All of its way only its edge stands out, within the unit, clear of sides, shelves and back.
        expect(y[0]).toBeGreaterThan(-0.56 - 0.13);
        expect(y[1]).toBeLessThan(-0.05);
        expect(x[0]).toBeGreaterThan(0.018);
        expect(x[1]).toBeLessThan(width - 0.018);
        for (const { min, max } of shelves) expect(Math.min(max.x, x[1]) - Math.max(min.x, x[0])).toBeLessThan(0);
        // It opens without a leap.
        for (let k = 1; k <= 20; k++) {
          const [a, b] = [stands(mesh, joint!, (k - 1) / 20), stands(mesh, joint!, k / 20)];
          expect(Math.abs(a.y[0] - b.y[0])).toBeLessThan(0.13);
        }
      }
    }
  });

  it('has no shelves where boxes are drawn out', () => {
    const names = (kind: 'door' | 'drawer', hand: 'left' | 'pull-out'): string[] =>
      makeUnit([{ height: null, cells: [newCell({ kind, hand, shelves: 2 })] }], { width: 0.4, height: 0.72, depth: 0.56 }, 'base', CONSTRUCTIONS.frameless, {
        ...PLAIN_LOOK,
        fronts: 'flat',
        handles: 'none',
      }).carcass.panels.map((p) => p.name);
    expect(names('door', 'left').filter((n) => n === 'shelf')).toHaveLength(2);
    expect(names('door', 'pull-out')).not.toContain('shelf');
    expect(names('drawer', 'left')).not.toContain('shelf');
  });

  it('has runners and boxes of the lengths and heights they are sold in', () => {
    expect([0.3, 0.5, 0.53, 0.6].map(runnerFor)).toEqual([0.27, 0.47, 0.52, 0.55]);
    expect([0.14, 0.2, 0.29, 0.4].map(boxFor)).toEqual([0.085, 0.15, 0.21, 0.21]);
  });
});
