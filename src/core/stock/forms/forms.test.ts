import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { within } from '../../geometry/shapes';
import { length3, sub3, type Vec3 } from '../../geometry/vec';
import { bounds, edgeLengths, triangles, volume } from '../../testing/measures';
import { blockSupport, drape, draped, filled, finerGrid, floorSupport, gridNet, roundSupport } from './cloth';
import { board, door, drawer, front } from './boards';
import { blade } from './leaves';
import { randomFrom } from './random';
import { bar, curve, loft, loop, rod, skin, slat } from './skin';
import { cushion, pillow } from './soft';
import { subdivide, subdivideOnce, thickened } from './subdivide';
import { filleted, post, turned, vessel } from './turned';

const v = (x: number, y: number, z: number): Vec3 => ({ x, y, z });
const fine = <T>(make: () => T): T => within(0.001, make);
const light = <T>(make: () => T): T => within(0.003, make);

describe('surfaces over points', () => {
  const ring = (r: number, z: number, n: number): Vec3[] =>
    Array.from({ length: n }, (_, i) => v(r * Math.cos((2 * Math.PI * i) / n), r * Math.sin((2 * Math.PI * i) / n), z));

  it('a lofted prism has the volume of its polygon times its height, and faces outwards', () => {
    for (const n of [3, 6, 40]) {
      const mesh = loft([ring(0.3, 0, n), ring(0.3, 0.5, n)]);
      expect(volume(mesh)).toBeCloseTo(((n * 0.09) / 2) * Math.sin((2 * Math.PI) / n) * 0.5, 6);
      expect(edgeLengths(mesh, 0.7).open).toBe(0);
    }
  });

  it('a corner’s normal weighs the faces about it by their area, as far as they are smooth', () => {
    // A broad face and a narrow one that lean on each other by 20°.
    const lean = (20 * Math.PI) / 180;
    const points = [
      v(0, 0, 0),
      v(1, 0, 0),
      v(1, 1, 0),
      v(0, 1, 0),
      v(1 + 0.1 * Math.cos(lean), 0, -0.1 * Math.sin(lean)),
      v(1 + 0.1 * Math.cos(lean), 1, -0.1 * Math.sin(lean)),
    ];
    const faces = [
      [0, 1, 2, 3],
      [1, 4, 5, 2],
    ];
    const { positions, normals } = skin(points, faces);
    const at = [...Array(positions.length / 3).keys()].find((i) => positions[i * 3] === 1)!;
    // Ten times as broad: the normal leans by atan(sin 20° / (10 + cos 20°)).
    expect(Math.atan2(normals[at * 3], normals[at * 3 + 2])).toBeCloseTo(Math.atan2(Math.sin(lean), 10 + Math.cos(lean)), 5);
    // Sharper than the crease each keeps its own.
    const own = skin(points, faces, 0.2);
    expect(new Set([...Array(own.normals.length / 3).keys()].filter((i) => own.positions[i * 3] === 1).map((i) => own.normals[i * 3].toFixed(3))).size).toBe(2);
  });

  it('a cord round a circle holds what a torus does', () => {
    const n = 96;
    const mesh = fine(() => loop(ring(0.2, 0, n), 0.02, 24));
    expect(volume(mesh) / (2 * Math.PI ** 2 * 0.2 * 0.02 ** 2)).toBeCloseTo(1, 1);
    expect(volume(mesh)).toBeLessThan(2 * Math.PI ** 2 * 0.2 * 0.02 ** 2);
    expect(edgeLengths(mesh, 0.7).open).toBe(0);
  });

  it('bars taper as they are told, stay on their path, and are closed and round at their ends only where they are fine', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.004, max: 0.05, noNaN: true }),
        fc.double({ min: 0.004, max: 0.05, noNaN: true }),
        fc.double({ min: 0.2, max: 2, noNaN: true }),
        (a, b, l) => {
          const cone = (Math.PI * l * (a * a + a * b + b * b)) / 3;
          for (const detail of [fine, light]) {
            const mesh = detail(() => bar(v(0, 0, 0), v(0, 0, l), a, b, { section: 24 }));
            expect(volume(mesh)).toBeLessThan(cone);
            expect(edgeLengths(mesh, 0.7).open).toBe(0);
            expect(bounds([mesh]).high[2]).toBeCloseTo(l, 6);
          }
          expect(volume(fine(() => bar(v(0, 0, 0), v(0, 0, l), a, b, { section: 24 })))).toBeGreaterThan(0.9 * cone);
        },
      ),
    );
    const bent = fine(() => rod([v(0, 0, 0), v(0, 0, 1), v(1, 0, 1)], 0.01));
    expect(bounds([bent]).low[0]).toBeGreaterThan(-0.02);
    expect(triangles([bent])).toBeGreaterThan(triangles([light(() => rod([v(0, 0, 0), v(0, 0, 1), v(1, 0, 1)], 0.01))]));
  });

  it('a smooth path runs through its points, evenly, and straight along a line', () => {
    const points = [v(0, 0, 0), v(1, 0, 0.2), v(1.2, 1, 0), v(3, 1, 0)];
    const path = curve(points, 6);
    points.forEach((p, i) => expect(length3(sub3(path[i * 6], p))).toBeLessThan(1e-12));
    for (const p of curve([v(0, 0, 0), v(1, 1, 1), v(3, 3, 3)], 5)) expect(Math.abs(p.x - p.y) + Math.abs(p.y - p.z)).toBeLessThan(1e-12);
    expect(curve(points, 4, true)).toHaveLength(16);
  });

  it('a slat is as thick and as wide as asked for', () => {
    const mesh = fine(() => slat([v(0, 0, 0), v(0.5, 0, 0)], () => v(0, 0.02, 0), 0.004));
    const { low, high } = bounds([mesh]);
    expect(high[1] - low[1]).toBeCloseTo(0.04, 6);
    expect(high[2] - low[2]).toBeCloseTo(0.004, 6);
    // Its long edges are half circles.
    expect(volume(mesh)).toBeCloseTo(0.5 * (0.036 * 0.004 + Math.PI * 0.002 ** 2), 6);
  });
});

describe('turned forms', () => {
  it('corners are arcs of their radius, which touch both sides', () => {
    const section = filleted(
      [
        [0, 0],
        [0.1, 0],
        [0.1, 0.2],
        [0, 0.2],
      ],
      0.01,
    );
    for (const [r, z] of section.filter(([r]) => r > 0.09 && r < 0.1 - 1e-9)) {
      const [cr, cz] = [0.09, z < 0.1 ? 0.01 : 0.19];
      expect(Math.hypot(r - cr, z - cz)).toBeCloseTo(0.01, 9);
    }
    expect(section.filter(([r]) => r > 0.09 + 1e-9)).toHaveLength(2 * 3);
  });

  it('a post holds what a cylinder does, less its round edges; a vessel what its wall does', () => {
    const cylinder = Math.PI * 0.05 ** 2 * 0.4;
    const made = volume(fine(() => post(0, 0, 0, 0.4, 0.05, 0.05, 64)));
    expect(made).toBeLessThan(cylinder);
    expect(made).toBeGreaterThan(0.985 * cylinder);
    // An even wall of a straight cup: its side and its bottom.
    const cup = fine(() =>
      turned(
        vessel(
          [
            [0.05, 0],
            [0.05, 0.1],
          ],
          0.004,
          0,
        ),
        { segments: 96, round: 0 },
      ),
    );
    const wall = Math.PI * (0.05 ** 2 - 0.046 ** 2) * 0.1 + Math.PI * 0.046 ** 2 * 0.004;
    expect(volume(cup) / wall).toBeGreaterThan(0.93);
    expect(volume(cup) / wall).toBeLessThan(1.05);
    expect(edgeLengths(cup, 0.7).open).toBe(0);
  });
});

describe('Catmull–Clark', () => {
  const cube = (): { points: Vec3[]; faces: number[][] } => ({
    points: [0, 1, 2, 3, 4, 5, 6, 7].map((i) => v(i & 1, (i >> 1) & 1, i >> 2)),
    faces: [
      [0, 2, 3, 1],
      [4, 5, 7, 6],
      [0, 1, 5, 4],
      [2, 6, 7, 3],
      [0, 4, 6, 2],
      [1, 3, 7, 5],
    ],
  });

  it('follows its published rules at a corner of a cube', () => {
    const { net } = subdivideOnce(cube());
    // (F + 2 R + (n − 3) P) / n with n = 3: F the mean of face points, R of the middles of edges.
    const f = (0.5 + 0.5 + 0) / 3;
    const r = (0.5 + 0 + 0) / 3;
    expect(net.points[0].x).toBeCloseTo((f + 2 * r) / 3, 12);
    expect(net.points).toHaveLength(8 + 6 + 12);
    expect(net.faces).toHaveLength(24);
  });

  it('keeps a closed surface closed: corners − edges + faces is two, at every step', () => {
    let net = cube();
    for (let i = 0; i < 3; i++) {
      ({ net } = subdivideOnce(net));
      const edges = new Set(net.faces.flatMap((q) => q.map((a, k) => [a, q[(k + 1) % 4]].sort((x, y) => x - y).join(' '))));
      expect(net.points.length - edges.size + net.faces.length).toBe(2);
      expect(edgeLengths(skin(net.points, net.faces, 3), 3).open).toBe(0);
    }
  });

  it('creases keep their line, and all of them the whole form', () => {
    const edges: [number, number][] = cube()
      .faces.flatMap((q) => q.map((a, k): [number, number] => [a, q[(k + 1) % 4]]))
      .filter(([a, b]) => a < b);
    const whole = subdivide(cube(), 2, edges);
    expect(volume(skin(whole.points, whole.faces, 0.5))).toBeCloseTo(1, 6);
    expect(volume(skin(...(Object.values(subdivide(cube(), 2)) as [Vec3[], number[][]]), 0.5))).toBeLessThan(0.6);
    // One crease: its ends stay, its points lie on it.
    const one = subdivide(cube(), 2, [[0, 1]]);
    expect(one.points.filter((p) => Math.abs(p.y) < 1e-12 && Math.abs(p.z) < 1e-12).length).toBeLessThan(6);
  });

  it('a thickened sheet is closed, and as thick as asked for', () => {
    const net = thickened({ points: [v(0, 0, 0), v(1, 0, 0), v(1, 1, 0), v(0, 1, 0)], faces: [[0, 1, 2, 3]] }, 0.1);
    const mesh = skin(net.points, net.faces, 0.5);
    expect(volume(mesh)).toBeCloseTo(0.1, 6);
    expect(edgeLengths(mesh, 0.7).open).toBe(0);
    expect(bounds([mesh]).low[2]).toBeCloseTo(-0.1, 6);
  });
});

describe('cloth', () => {
  const over = (seed = 1) =>
    drape({
      nu: 24,
      nv: 24,
      start: (u, w) => v((u - 0.5) * 1.2, (w - 0.5) * 1.2, 0.72),
      supports: [blockSupport(v(-0.4, -0.4, 0), v(0.4, 0.4, 0.7), 0.01), floorSupport],
      steps: 420,
      seed,
    });
  const rested = over();

  it('comes to rest on a table: on its top it lies, beside it it hangs, nowhere it goes through', () => {
    const support = blockSupport(v(-0.4, -0.4, 0), v(0.4, 0.4, 0.7), 0.01);
    for (const p of rested.flat()) {
      expect(support(p.x, p.y, p.z).off).toBeGreaterThan(0.003 - 1e-9);
      if (Math.abs(p.x) < 0.3 && Math.abs(p.y) < 0.3) expect(p.z).toBeCloseTo(0.703, 2);
    }
    // The middle of a side hangs by what is over, within a hundredth.
    const hem = rested[12][0];
    expect(0.7 - hem.z).toBeGreaterThan(0.15);
    expect(Math.abs(hem.y)).toBeLessThan(0.5);
  });

  it('hardly stretches: its threads are as long as they were, on average within 3 %, and by a fifth at most over an edge', () => {
    const step = 1.2 / 24;
    let [sum, count] = [0, 0];
    rested.forEach((row, i) =>
      row.forEach((p, j) => {
        for (const q of [rested[i + 1]?.[j], row[j + 1]]) {
          if (!q) continue;
          sum += length3(sub3(p, q)) / step;
          count++;
          expect(length3(sub3(p, q)) / step).toBeLessThan(1.2);
        }
      }),
    );
    expect(sum / count).toBeCloseTo(1, 1);
    expect(Math.abs(sum / count - 1)).toBeLessThan(0.03);
  });

  it('is the same for the same seed, and worked out once', () => {
    expect(over()).toEqual(rested);
    expect(over(2)).not.toEqual(rested);
    let times = 0;
    const how = () => {
      times++;
      return { nu: 4, nv: 4, start: (u: number, w: number) => v(u, w, 0.1), supports: [floorSupport], steps: 20 };
    };
    expect(draped('a test cloth', how)).toBe(draped('a test cloth', how));
    expect(times).toBe(1);
  });

  it('falls as everything falls where nothing holds it, and is held where it is pinned', () => {
    const free = drape({ nu: 2, nv: 2, start: (u, w) => v(u, w, 100), supports: [], steps: 24 });
    // A tenth of a second, slowed a little by the air: half of g t².
    const fallen = 100 - free[1][1].z;
    expect(fallen).toBeGreaterThan(0.8 * 0.5 * 9.81 * 0.01);
    expect(fallen).toBeLessThan(1.15 * 0.5 * 9.81 * 0.01);
    const held = drape({ nu: 4, nv: 4, start: (u, w) => v(u, 0, 1 - w), supports: [], held: (_i, j) => j === 0, steps: 300 });
    expect(held[2][0]).toMatchObject({ x: 0.5, y: 0 });
    expect(held[2][4].z).toBeCloseTo(0, 1);
  });

  it('supports say how far a point is off, and which way is out', () => {
    const block = blockSupport(v(-1, -1, 0), v(1, 1, 1), 0.1);
    expect(block(0, 0, 1.5)).toMatchObject({ off: 0.5, z: 1 });
    expect(block(0, 0, 0.9).off).toBeCloseTo(-0.1, 9);
    expect(block(2, 2, 0.5).off).toBeCloseTo(Math.hypot(1.1, 1.1) - 0.1, 9);
    const round = roundSupport(0.5, 0.5, 0.7);
    expect(round(0.8, 0, 0.3).off).toBeCloseTo(0.3, 9);
    expect(round(0, 0, 0.75).off).toBeCloseTo(0.05, 9);
  });

  it('drawn finer it runs through the same points; filled it is closed', () => {
    const finer = finerGrid(rested, 2);
    rested.forEach((row, i) => row.forEach((p, j) => expect(length3(sub3(finer[2 * i][2 * j], p))).toBeLessThan(1e-9)));
    const flat = [0, 1, 2].map((i) => [0, 1, 2].map((j) => v(i / 2, j / 2, 0)));
    expect(gridNet(flat).faces).toHaveLength(4);
    const net = filled(flat, 0.02, 0.02);
    expect(volume(skin(net.points, net.faces, 0.5))).toBeCloseTo(0.02, 6);
    expect(edgeLengths(skin(net.points, net.faces, 0.5), 0.7).open).toBe(0);
  });
});

describe('joiners’ and upholsterers’ forms', () => {
  it('a board is a box less its round edges, and a box where it is light', () => {
    expect(volume(light(() => board(0, 0, 0, 1, 0.2, 0.02)))).toBeCloseTo(0.004, 9);
    const made = fine(() => board(0, 0, 0, 1, 0.2, 0.02));
    expect(volume(made)).toBeGreaterThan(0.00399);
    expect(edgeLengths(made, (40 * Math.PI) / 180)).toMatchObject({ sharp: 0, open: 0 });
  });

  it('a framed front has a panel that lies back, a glazed one glass in its place', () => {
    const at = { x0: 0, x1: 0.5, z0: 0, z1: 0.8, y: 0 };
    const depth = (style: 'flat' | 'framed' | 'glazed') => {
      const { wood, glass } = fine(() => front({ ...at, style }));
      return [volume(wood), triangles([glass])];
    };
    expect(depth('flat')[0]).toBeCloseTo(0.5 * 0.8 * 0.02, 4);
    expect(depth('framed')[0]).toBeLessThan(0.75 * depth('flat')[0]);
    expect(depth('glazed')[0]).toBeLessThan(depth('framed')[0]);
    expect([depth('framed')[1], depth('glazed')[1] > 0]).toEqual([0, true]);
  });

  it('a drawer has a box behind its front that is open above; a door turns about its hinges', () => {
    const d = fine(() => drawer({ x0: 0, x1: 0.5, z0: 0, z1: 0.2, y: 0, depth: 0.45, style: 'flat', handles: 'knob' }));
    const { low, high } = bounds([d.box]);
    expect([low[1] > 0, high[1] < 0.45, low[0] > 0, high[0] < 0.5]).toEqual([true, true, true, true]);
    // Four walls and a bottom: much less than a solid block.
    expect(volume(d.box)).toBeLessThan(0.25 * (high[0] - low[0]) * (high[1] - low[1]) * (high[2] - low[2]));
    for (const hung of ['left', 'right'] as const) {
      const { joint } = light(() => door({ x0: 0, x1: 0.5, z0: 0, z1: 1, y: 0, style: 'flat', handles: 'bar', hung }));
      expect([joint.at.x, joint.axis.z]).toEqual(hung === 'left' ? [0, -1] : [0.5, 1]);
    }
  });

  it('cushions are closed, crown where they are filled and sink where one sits', () => {
    const size = { width: 0.6, depth: 0.6, thick: 0.12 };
    const top = (over: object): number => bounds([fine(() => cushion({ ...size, piping: false, ...over }))]).high[2];
    expect(top({ crown: 0.03 })).toBeCloseTo(0.15, 2);
    expect(top({ crown: 0 })).toBeCloseTo(0.12, 2);
    for (const mesh of [
      fine(() => cushion({ ...size, sag: 0.012 })),
      fine(() => pillow({ width: 0.5, depth: 0.4, thick: 0.14 })),
      light(() => pillow({ width: 0.5, depth: 0.4, thick: 0.14 })),
    ]) {
      expect(edgeLengths(mesh, 1).open).toBe(0);
      expect(volume(mesh)).toBeGreaterThan(0.005);
    }
    const middle = (sag: number): number => {
      const { positions: p } = fine(() => cushion({ ...size, crown: 0.03, sag, piping: false }));
      return Math.max(...[...Array(p.length / 3).keys()].filter((i) => Math.hypot(p[i * 3], p[i * 3 + 1] + 0.04) < 0.06).map((i) => p[i * 3 + 2]));
    };
    expect(middle(0) - middle(0.012)).toBeCloseTo(0.012, 2);
  });

  it('a leaf is as long as it is said to be along its midrib, and hangs by its droop', () => {
    const straight = fine(() => blade(v(0, 0, 0), { x: 1, y: 0, z: 0 }, { length: 0.3, width: 0.1, outline: 'lance', droop: 0, fold: 0 }));
    expect(bounds([straight]).high[0]).toBeCloseTo(0.3, 6);
    expect(bounds([straight]).high[1]).toBeCloseTo(0.05, 2);
    const hanging = fine(() => blade(v(0, 0, 0), { x: 1, y: 0, z: 0 }, { length: 0.3, width: 0.1, outline: 'lance', droop: 1.2 }));
    expect(bounds([hanging]).low[2]).toBeLessThan(-0.08);
    expect(bounds([hanging]).high[0]).toBeLessThan(0.3);
  });

  it('numbers that look random are even, and the same for a seed', () => {
    const draw = (seed: number): number[] => Array.from({ length: 4000 }, randomFrom(seed));
    expect(draw(3)).toEqual(draw(3));
    expect(draw(4)).not.toEqual(draw(3));
    const bins = Array(10).fill(0) as number[];
    for (const x of draw(5)) bins[Math.floor(x * 10)]++;
    // χ² with nine degrees of freedom stays below 21.7 in ninety-nine of a hundred.
    expect(bins.reduce((sum, n) => sum + (n - 400) ** 2 / 400, 0)).toBeLessThan(21.7);
  });
});
