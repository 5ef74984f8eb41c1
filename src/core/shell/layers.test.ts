import Module, { type ManifoldToplevel } from 'manifold-3d';
import { beforeAll, describe, expect, it } from 'vitest';
import { deriveModel } from '../model/derive';
import { signedArea, totalArea } from '../geometry/polygon';
import { runChange, type CommandArgs } from '../project/commands';
import { emptyProject, type LayerMaterial, type Project } from '../project/schema';
import { dimensionEdit, roomDimensions, wallDimensions } from './dimensions';
import { layerCuts } from './layers';

let kernel: ManifoldToplevel;
beforeAll(async () => {
  kernel = await Module();
  kernel.setup();
});

let step = 0;
const draw = (project: Project, points: [number, number][], extra: Partial<CommandArgs<'wall.draw'>> = {}): Project =>
  runChange(project, {
    id: `change${String(step++).padStart(5, '0')}`,
    kind: 'do',
    command: 'wall.draw',
    args: { level: 'ground', points: points.map(([x, y]) => ({ x, y })), closed: false, thickness: null, type: 'stud-100', ...extra },
  }).project;

/** Area of each material over all walls of a project. */
function materials(project: Project): Map<LayerMaterial, number> {
  const [level] = deriveModel(project).shell.levels;
  const sums = new Map<LayerMaterial, number>();
  for (const id of Object.keys(project.walls))
    for (const cut of layerCuts(project, level, id)) sums.set(cut.material, (sums.get(cut.material) ?? 0) + cut.rings.reduce((s, r) => s + signedArea(r), 0));
  return sums;
}

describe('the layers of walls', () => {
  it('mitre at a corner: each layer as long as its own middle line', () => {
    // Two metres and one, along the middle; boards 12.5 at both faces of a 75 core.
    const sums = materials(
      draw(emptyProject('p', 'P'), [
        [0, 0],
        [2, 0],
        [2, 1],
      ]),
    );
    // Core: 3 m along the middle. Inner board at 43.75 from it: shorter by twice that at the corner; outer longer.
    expect(sums.get('stud')).toBeCloseTo(3 * 0.075, 9);
    expect(sums.get('board')).toBeCloseTo(0.0125 * (3 - 2 * 0.04375) + 0.0125 * (3 + 2 * 0.04375), 9);
  });

  it('of one kind run into one another at a T: core to core, the boards round the corners', () => {
    const project = draw(
      draw(emptyProject('p', 'P'), [
        [0, 0],
        [4, 0],
      ]),
      [
        [2, 0],
        [2, 2],
      ],
    );
    const sums = materials(project);
    // The far board runs through whole; the near one is broken by the width of the stem’s core.
    const far = 4 * 0.0125;
    const near = (4 - 0.075) * 0.0125;
    const stem = 2 * (2 - 0.0375) * 0.0125 - 2 * 0.0125 ** 2;
    expect(sums.get('board')).toBeCloseTo(far + near + stem, 6);
    expect(sums.get('stud')).toBeCloseTo(4 * 0.075 + (2 - 0.0375) * 0.075, 6);
  });

  it('stop in front of a core of another kind that runs on', () => {
    const project = draw(
      draw(
        emptyProject('p', 'P'),
        [
          [0, 0],
          [4, 0],
        ],
        { type: 'block-140' },
      ),
      [
        [2, 0],
        [2, 2],
      ],
    );
    const sums = materials(project);
    // The block of the through wall: 100 of its 140, from end to end.
    expect(sums.get('block')).toBeCloseTo(4 * 0.1, 6);
    // The stud reaches through the plaster to the block, at 50 from the axis, in the taper of the joint.
    expect(sums.get('stud')).toBeLessThan((2 - 0.05) * 0.075 + 1e-9);
    expect(sums.get('stud')).toBeGreaterThan((2 - 0.07) * 0.075);
  });

  it('cover the footprints of the walls, at 30°, 45° and 90°, without overlap', () => {
    for (const degrees of [30, 45, 90, 135]) {
      const a = (degrees * Math.PI) / 180;
      const project = draw(
        draw(
          emptyProject('p', 'P'),
          [
            [-2, 0],
            [2, 0],
          ],
          { type: 'cavity-300' },
        ),
        [
          [0, 0],
          [3 * Math.cos(a), 3 * Math.sin(a)],
        ],
      );
      const [level] = deriveModel(project).shell.levels;
      const prints = level.walls.flatMap((w) => w.rings).map((outer) => ({ outer, holes: [] }));
      const all = Object.keys(project.walls).flatMap((id) => layerCuts(project, level, id).flatMap((c) => c.rings));
      const sum = all.reduce((s, r) => s + signedArea(r), 0);
      expect(sum).toBeCloseTo(totalArea(prints), 6);
      const section = new kernel.CrossSection(
        all.map((ring) => ring.map((p) => [p.x, p.y] as [number, number])),
        'NonZero',
      );
      expect(section.area()).toBeCloseTo(sum, 5);
      section.delete();
    }
  });
});

describe('dimensions that are typed over', () => {
  it('give the room the size, whichever end gives way', () => {
    for (const end of [0, 1] as const)
      for (const which of [0, 1]) {
        const project = draw(
          emptyProject('p', 'P'),
          [
            [0, 0],
            [5, 0],
            [5, 4],
            [0, 4],
          ],
          { closed: true },
        );
        const room = [...deriveModel(project).shell.rooms.values()][0];
        const dimension = roomDimensions(room)[which];
        const edit = dimensionEdit(project, dimension, 3.333, end)!;
        const next = runChange(project, { id: 'dimension', kind: 'do', command: edit.command, args: edit.args }).project;
        const after = [...deriveModel(next).shell.rooms.values()][0];
        expect([after.size.x, after.size.y][which]).toBeCloseTo(3.333, 9);
        expect([after.size.x, after.size.y][1 - which]).toBeCloseTo([room.size.x, room.size.y][1 - which], 9);
        // The wall at the other end has stayed.
        const still = dimension.ends[1 - end]!;
        expect(next.corners[next.walls[still].start][which === 0 ? 'x' : 'y']).toBeCloseTo(
          project.corners[project.walls[still].start][which === 0 ? 'x' : 'y'],
          9,
        );
      }
  });

  it('set a face between a corner and a partition by moving the partition', () => {
    const project = draw(
      draw(
        emptyProject('p', 'P'),
        [
          [0, 0],
          [6, 0],
          [6, 4],
          [0, 4],
        ],
        { closed: true },
      ),
      [
        [2, 0],
        [2, 4],
      ],
    );
    const south = Object.values(project.walls).find((w) => project.corners[w.start].y === 0 && project.corners[w.end].y === 0)!.id;
    const dimension = wallDimensions(deriveModel(project).shell.levels[0], south).find((d) => Math.abs(d.value - 1.9) < 1e-6)!;
    const edit = dimensionEdit(project, dimension, 2.5, dimension.a.x < dimension.b.x ? 1 : 0)!;
    const next = runChange(project, { id: 'dimension', kind: 'do', command: edit.command, args: edit.args }).project;
    expect([...deriveModel(next).shell.rooms.values()].map((r) => r.size.x).sort()).toEqual([expect.closeTo(2.5), expect.closeTo(3.3)]);
  });
});
