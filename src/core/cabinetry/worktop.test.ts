import { beforeAll, describe, expect, it } from 'vitest';
import { totalArea } from '../geometry/polygon';
import type { Run } from '../project/schema';
import { unitsSaid } from '../testing/cabinets';
import { assembleRun } from './assemble';
import { newRun } from './begin';
import { layRun, type BackLine } from './run';
import { EDGES } from '../project/schema/cabinets';
import { loadKernel, openEdges, volume } from '../testing/solid';
import { plinthOf } from './plinth';
import { slabOf, withCorners, worktopOf } from './worktop';

beforeAll(loadKernel);

const corner: BackLine[] = [
  { from: { x: 0, y: 0 }, to: { x: 3, y: 0 } },
  { from: { x: 3, y: 0 }, to: { x: 3, y: -2.4 } },
];

const laying = { legs: corner, overhang: 0.04, slabs: { joint: 'butted', longest: 3 } } as const;

describe('a worktop', () => {
  const { units } = layRun(corner, [
    { id: 'a', width: 0.6, depth: 0.56 },
    { id: 'b', width: 0.9, depth: 0.56, corner: 'L' },
    { id: 'c', width: 0.8, depth: 0.56 },
  ]);

  it('has the area of its legs, counted once in the corner, less its cut-outs', () => {
    const bowl = [
      { x: 2.65, y: -1.5 },
      { x: 2.9, y: -1.5 },
      { x: 2.9, y: -1.1 },
      { x: 2.65, y: -1.1 },
    ];
    const { regions, stretches } = worktopOf({ ...laying, under: units, cutOuts: [bowl] });
    // 1.5 m and 1.7 m at 600 deep, the corner of 600 by 600 in both, a bowl of 250 by 400.
    expect(totalArea(regions)).toBeCloseTo((1.5 + 1.7 - 0.6) * 0.6 - 0.25 * 0.4, 5);
    expect(regions).toHaveLength(1);
    expect(regions[0].holes).toHaveLength(1);
    expect(stretches.map((s) => [s.leg, s.from, s.to].map((x) => Math.round(x * 1e6) / 1e6))).toEqual([
      [0, 1.5, 3],
      [1, 0, 1.7],
    ]);
  });

  it('stops where there is no unit under it, and stands on a plinth that runs round the corner', () => {
    const two = worktopOf({ ...laying, under: units.filter((u) => u.id !== 'b') });
    expect(two.regions).toHaveLength(2);
    expect(two.stretches).toHaveLength(2);
    // Set back 55 mm behind 560 it runs at 505 from both walls: 1.5 + 1.7 less twice 505 along its face, 16 thick.
    const plinth = plinthOf(corner, units, 0.055, 0.016);
    expect(plinth).toHaveLength(1);
    expect(totalArea(plinth)).toBeCloseTo((1.5 + 1.7 - 2 * 0.505) * 0.016 + 0.016 * 0.016, 5);
    expect(worktopOf({ ...laying, under: [] })).toMatchObject({ regions: [], stretches: [], slabs: [], joints: [] });
  });
});

describe('the edges and corners of a worktop', () => {
  const square = [
    { x: 0, y: 0 },
    { x: 2, y: 0 },
    { x: 2, y: 0.6 },
    { x: 0, y: 0.6 },
  ];
  const hole = [
    { x: 0.5, y: 0.1 },
    { x: 0.5, y: 0.5 },
    { x: 1, y: 0.5 },
    { x: 1, y: 0.1 },
  ];

  it('take off what their section is, round the outline and round cut-outs, and leave a closed slab', () => {
    const t = 0.03;
    const whole = (2 * 0.6 - 0.5 * 0.4) * t;
    for (const edge of EDGES) {
      const mesh = slabOf([{ outer: square, holes: [hole] }], 0.9, 0.9 + t, edge);
      expect([edge, openEdges(mesh)]).toEqual([edge, 0]);
      const by = { square: 0, eased: 0.002, rounded: 0.012, bevelled: 0.008 }[edge];
      // A quarter of a square less a quarter of a circle, in chords; a triangle.
      const section = edge === 'bevelled' ? by ** 2 / 2 : by ** 2 * (1 - Math.PI / 4);
      const round = 2 * (2 + 0.6) + 2 * (0.5 + 0.4);
      expect(Math.abs(whole - volume(mesh) - section * round)).toBeLessThan(section * round * 0.08 + 2e-7);
    }
  });

  it('are rounded or cut off where they are free, by no more than there is edge', () => {
    const area = (ring: typeof square): number => totalArea([{ outer: ring, holes: [] }]);
    const free = (p: { x: number; y: number }): boolean => p.y > 0.3;
    expect(withCorners(square, { form: 'square', by: 0.1 }, free)).toBe(square);
    expect(1.2 - area(withCorners(square, { form: 'cut', by: 0.1 }, free))).toBeCloseTo(2 * (0.1 ** 2 / 2), 9);
    const rounded = withCorners(square, { form: 'rounded', by: 0.1 }, free);
    expect(1.2 - area(rounded)).toBeCloseTo(2 * 0.1 ** 2 * (1 - Math.PI / 4), 4);
    // Each point of the arc is as far from its centre.
    for (const p of rounded.filter((q) => q.x > 1.9 && q.y > 0.5)) expect(Math.hypot(p.x - 1.9, p.y - 0.5)).toBeCloseTo(0.1, 9);
    expect(1.2 - area(withCorners(square, { form: 'cut', by: 5 }, free))).toBeCloseTo((2 * (0.3 * 0.3)) / 2, 9);
  });

  it('of an island are all free, of a run between walls none', () => {
    const laid = (kind: 'free' | 'wall', long: number): number => {
      const units = unitsSaid('600 pans, 600 door');
      const legs = kind === 'free' ? [{ kind, from: { x: 0, y: 0 }, to: { x: long, y: 0 } }] : [{ kind, wall: 'w', side: 'left' as const, room: 'r' }];
      const run = { ...newRun('run-a', 'Run', 'ground', legs as Run['legs'], 'metric'), ends: 'bare' as const, corners: { form: 'cut' as const, by: 0.05 } };
      return assembleRun(run, units, [{ from: { x: 0, y: 0 }, to: { x: long, y: 0 } }]).worktop.regions[0].outer.length;
    };
    expect(laid('free', 1.2)).toBe(8);
    expect(laid('wall', 1.2)).toBe(4);
    // It ends in the room: one corner in front is free.
    expect(laid('wall', 3)).toBe(5);
  });
});
