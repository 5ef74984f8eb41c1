import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { clipRegions } from '../geometry/clipping';
import { totalArea } from '../geometry/polygon';
import { distance } from '../geometry/vec';
import { SLAB_JOINTS, type CornerForm, type Run } from '../project/schema/cabinets';
import { unitsSaid } from '../testing/cabinets';
import { loadKernel, openEdges, volume } from '../testing/solid';
import { assembleRun, runParts } from './assemble';
import { newRun } from './begin';
import { layRun, type BackLine } from './run';
import { slabJoints } from './slabs';
import { slabMeshes, worktopOf } from './worktop';

beforeAll(loadKernel);

describe('joints across a leg', () => {
  it('are as few as slabs allow, away from cut-outs', () => {
    expect(slabJoints({ from: 0, to: 3.9 }, 4.1)).toEqual([]);
    expect(slabJoints({ from: 0, to: 6 }, 4.1)).toEqual([3]);
    expect(slabJoints({ from: 0, to: 6 }, 4.1, [{ from: 2.7, to: 3.2 }])).toEqual([expect.closeTo(3.35, 9)]);
    expect(slabJoints({ from: 0, to: 5 }, 3, [{ from: 0.2, to: 4.8 }])).toBeNull();
    fc.assert(
      fc.property(
        fc.double({ min: 0.3, max: 12, noNaN: true }),
        fc.double({ min: 1.5, max: 4.1, noNaN: true }),
        fc.array(fc.record({ from: fc.double({ min: 0, max: 11, noNaN: true }), long: fc.double({ min: 0.05, max: 0.8, noNaN: true }) }), { maxLength: 3 }),
        (length, longest, cuts) => {
          const cutOuts = cuts.map(({ from, long }) => ({ from, to: from + long }));
          const joints = slabJoints({ from: 0, to: length }, longest, cutOuts);
          if (!joints) return;
          const ends = [0, ...joints, length];
          for (let i = 1; i < ends.length; i++) {
            expect(ends[i]).toBeGreaterThan(ends[i - 1]);
            expect(ends[i] - ends[i - 1]).toBeLessThan(longest + 1e-6);
          }
          for (const x of joints) for (const c of cutOuts) expect(x <= c.from - 0.15 + 1e-6 || x >= c.to + 0.15 - 1e-6).toBe(true);
          if (!cutOuts.length) expect(joints).toHaveLength(Math.ceil(length / longest - 1e-9) - 1);
        },
      ),
    );
  });
});

/** Three walls of a room of so many metres, the angles between them as is said. */
const walls = (a: number, b: number, c: number, first: number, second: number): BackLine[] => {
  const corners = [
    { x: 0, y: 0 },
    { x: a, y: 0 },
  ];
  let angle = 0;
  for (const [long, turn] of [
    [b, first],
    [c, second],
  ]) {
    angle -= turn;
    const p = corners[corners.length - 1];
    corners.push({ x: p.x + long * Math.cos(angle), y: p.y + long * Math.sin(angle) });
  }
  return corners.slice(1).map((to, i) => ({ from: corners[i], to }));
};

const square = walls(3, 2.6, 3.4, Math.PI / 2, Math.PI / 2);

const turned = (legs: readonly BackLine[], form: CornerForm, joint: Run['slabs']['joint'], longest = 4) => {
  const row = legs.flatMap((_, i) => [
    { id: `a${i}`, width: 0.5, depth: 0.56 },
    ...(i < legs.length - 1 ? [{ id: `c${i}`, width: 1.1, depth: 0.56, corner: form }] : []),
  ]);
  return worktopOf({ legs, under: layRun(legs, row).units, overhang: 0.04, slabs: { joint, longest } });
};

describe('joints in corners', () => {
  it('butt the second slab against the front of the first, or the first against what runs blind along the second', () => {
    const two = square.slice(0, 2);
    const { slabs, joints } = turned(two, 'L', 'butted');
    expect(slabs.map((s) => [s.leg, s.length, s.width].map((x) => Math.round(x * 1e6) / 1e6))).toEqual([
      [0, 1.6, 0.6],
      [1, 1, 0.6],
    ]);
    expect(joints).toHaveLength(1);
    expect(joints[0].lines.map(([p, q]) => distance(p, q))).toEqual([expect.closeTo(0.6, 6)]);
    // What lies along the second wall goes through.
    const blind = turned(two, 'blind right', 'butted').slabs;
    expect(blind[1].length).toBeCloseTo(1.6, 5);
  });

  it('mitre from corner to corner, and mason\u2019s joints by a short mitre at the front', () => {
    const two = square.slice(0, 2);
    const mitred = turned(two, 'L', 'mitred');
    expect(mitred.joints[0].lines.map(([p, q]) => distance(p, q))).toEqual([expect.closeTo(0.6 * Math.SQRT2, 5)]);
    // Both are as long as they are at the wall.
    expect(mitred.slabs.map((s) => s.length)).toEqual([expect.closeTo(1.6, 5), expect.closeTo(1.6, 5)]);
    const masons = turned(two, 'L', 'masons');
    expect(masons.joints[0].lines.map(([p, q]) => distance(p, q))).toEqual([expect.closeTo(0.025 * Math.SQRT2, 5), expect.closeTo(0.575, 5)]);
    expect(masons.slabs[1].length).toBeCloseTo(1.025, 5);
  });

  it('part the outline in slabs that cover it once, whatever the angle, the form of the unit and the way it is jointed', () => {
    fc.assert(
      fc.property(
        fc.tuple(...[0, 1].map(() => fc.double({ min: 1.1, max: 2.0, noNaN: true }))),
        fc.tuple(...[0, 1, 2].map(() => fc.double({ min: 2.6, max: 5, noNaN: true }))),
        fc.constantFrom<CornerForm>('L', 'diagonal', 'blind left', 'blind right'),
        fc.constantFrom(...SLAB_JOINTS),
        fc.double({ min: 1, max: 4, noNaN: true }),
        ([first, second], [a, b, c], form, joint, longest) => {
          const legs = walls(a, b, c, first, second);
          const { regions, slabs, joints, tooLong } = turned(legs, form, joint, longest);
          const all = slabs.flatMap((s) => s.regions);
          // Units that meet before the opposite leg overlap in the plan: their outline is one, and no slabs of two legs.
          if (regions.length > 1) return;
          expect(totalArea(all)).toBeCloseTo(totalArea(regions), 5);
          expect(totalArea(clipRegions('union', all, []))).toBeCloseTo(totalArea(regions), 5);
          expect(joints.filter((j) => j.corner)).toHaveLength(2);
          expect(new Set(slabs.map((s) => s.leg))).toEqual(new Set([0, 1, 2]));
          expect(tooLong).toBe(0);
          for (const s of slabs) expect(s.length).toBeLessThan(longest + 1e-5);
        },
      ),
      { numRuns: 200 },
    );
  });

  it('leave closed slabs, whose volumes are those of the outline, edges shaped or not', () => {
    for (const form of ['L', 'diagonal', 'blind left', 'blind right'] as const)
      for (const joint of SLAB_JOINTS)
        for (const edge of ['square', 'eased', 'rounded', 'bevelled'] as const) {
          const worktop = turned(square, form, joint, 1.4);
          const meshes = slabMeshes(worktop, square, 0.87, 0.9, edge);
          for (const m of meshes) expect([form, joint, edge, openEdges(m)]).toEqual([form, joint, edge, 0]);
          const sum = meshes.reduce((v, m) => v + volume(m), 0);
          const whole = totalArea(worktop.regions) * 0.03;
          if (edge === 'square') expect(sum).toBeCloseTo(whole, 6);
          else expect(whole - sum).toBeLessThan(0.0005);
          expect(sum).toBeLessThan(whole + 1e-6);
        }
  });
});

describe('a worktop with grooves and a part for seats', () => {
  const leg = [{ kind: 'wall', wall: 'w', side: 'left' as const, room: 'r' }] as Run['legs'];
  const line: BackLine[] = [{ from: { x: 0, y: 0 }, to: { x: 4, y: 0 } }];
  const grooved = (words: string, more: Partial<Run>) => {
    const run = { ...newRun('run-a', 'Run', 'ground', leg, 'metric'), ...more };
    const own = assembleRun(run, unitsSaid(words), line);
    return { own, parts: runParts(own, run, line) };
  };

  it('drains into a sink under the worktop: grooves as deep as they are, open at its edge, and a closed slab', () => {
    for (const edge of ['square', 'eased', 'rounded'] as const)
      for (const words of ['800 door, 800 undermounted sink, 800 door', '800 door, 600 belfast sink, 800 door']) {
        const { own, parts } = grooved(words, { grooves: 'left', look: { edge } });
        const { grooves, regions } = own.worktop;
        expect(grooves.length).toBeGreaterThan(6);
        const top = parts.filter((p) => p.part === 'worktop');
        expect([words, edge, ...top.map((p) => openEdges(p.mesh))]).toEqual([words, edge, 0]);
        const out = totalArea(regions) * 0.03 - volume(top[0].mesh);
        if (edge !== 'square') continue;
        // Each is 9 wide and 420 long with a round end, from 1.5 to 6 deep: its mean depth times its area in the slab.
        const each = totalArea(clipRegions('intersection', regions, [{ outer: grooves[0].ring, holes: [] }]));
        expect(each).toBeCloseTo(0.009 * 0.42 - (1 - Math.PI / 4) * 0.009 * 0.0045, 4);
        expect(out / (grooves.length * each)).toBeCloseTo(0.00375, 4);
      }
  });

  it('has none beside an inset sink, whose rim would hold the water, nor where there is no room', () => {
    expect(grooved('800 door, 800 sink', { grooves: 'both' }).own.worktop.grooves).toEqual([]);
    const tight = grooved('150 door, 800 undermounted sink, 800 door', { grooves: 'both' }).own.worktop;
    for (const { far } of tight.grooves) expect(far.x).toBeGreaterThan(0.06);
    expect(new Set(tight.grooves.map(({ far, mouth }) => Math.sign(far.x - mouth.x)))).toEqual(new Set([-1, 1]));
    // Less than a hand wide there are none.
    expect(grooved('800 undermounted sink', { grooves: 'both' }).own.worktop.grooves).toEqual([]);
  });

  it('is borne by the back of an island, and lies over it and behind it', () => {
    const free = [{ kind: 'free', from: { x: 0, y: 0 }, to: { x: 2, y: 0 } }] as Run['legs'];
    const run = { ...newRun('run-a', 'Run', 'ground', free, 'metric'), behind: 0.3, raised: 0.15 };
    const own = assembleRun(run, unitsSaid('1000 pans, 1000 door'), [{ from: { x: 0, y: 0 }, to: { x: 2, y: 0 } }]);
    const parts = runParts(own, run, [{ from: { x: 0, y: 0 }, to: { x: 2, y: 0 } }]);
    expect(totalArea(own.worktop.raised)).toBeCloseTo(2 * (0.3 + 0.1), 6);
    const top = parts.filter((p) => p.part === 'worktop').map((p) => [...p.mesh.positions].filter((_, i) => i % 3 === 2));
    expect(Math.max(...top.flat())).toBeCloseTo(0.9 + 0.15, 6);
    for (const { mesh } of parts) expect(openEdges(mesh)).toBe(0);
    // Its back goes up to it.
    expect(Math.max(...own.trim.panels.map((p) => p.z1))).toBeCloseTo(0.87 + 0.15, 9);
    // Without, the worktop itself goes on behind.
    const flat = assembleRun({ ...run, raised: 0 }, unitsSaid('1000 pans, 1000 door'), [{ from: { x: 0, y: 0 }, to: { x: 2, y: 0 } }]).worktop;
    expect(flat.raised).toEqual([]);
    expect(totalArea(flat.regions)).toBeCloseTo(totalArea(own.worktop.regions) + 0.3 * 2, 6);
  });
});
