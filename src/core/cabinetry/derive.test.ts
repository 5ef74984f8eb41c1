import { beforeAll, describe, expect, it } from 'vitest';
import { drawRunUpright } from '../drawing/elevation/cabinets';
import { drawPlan, drawPlanSheets } from '../drawing/plan/plan';
import { Deriver, deriveModel } from '../model/derive';
import { placesOf } from '../model/body';
import { bodyOf, derivedOf, roomOfPart, type Model } from '../model/model';
import { transformPoint } from '../geometry/mesh';
import { runChange, validateProject } from '../project/commands';
import { hiddenIn, withUnits } from '../project/things';
import { pictureState } from '../project/picture-state';
import type { Cabinet, Project, Run } from '../project/schema';
import { box, change, edit, wallBy } from '../testing/drafting';
import { unitsSaid } from '../testing/cabinets';
import { loadKernel, openEdges } from '../testing/solid';
import { frontOf } from './assemble';
import { newRun } from './begin';
import { CONSTRUCTIONS } from './figures';

beforeAll(loadKernel);

const room = box(5, 4);
const south = wallBy(room, [0, 0], [5, 0]);
const west = wallBy(room, [0, 4], [0, 0]);
const made = CONSTRUCTIONS.frameless;
const inside = Object.keys(room.rooms)[0];

const runOf = (over: Partial<Run> = {}): Run => ({
  ...newRun('run-a', 'Kitchen', Object.keys(room.levels)[0], [{ kind: 'wall', wall: south, side: 'left', room: inside }], 'metric'),
  ...over,
});

const laid = (project: Project, line: string, run = runOf()): Project => edit(project, 'run.lay', { run, units: unitsSaid(line, run.id) });
const kitchen = laid(room, '600 drawers, 800 sink, 600 door, 600 wall glazed');

/** The smallest box round all that a body is of, in the world. */
const extentOf = (model: Model, id: string): { min: number[]; max: number[] } => {
  const body = bodyOf(model, id)!;
  const out = { min: [Infinity, Infinity, Infinity], max: [-Infinity, -Infinity, -Infinity] };
  for (const part of body.parts)
    for (const at of placesOf(body, part))
      for (let i = 0, p = part.mesh.positions; i < p.length; i += 3) {
        const { x, y, z } = transformPoint(at, { x: p[i], y: p[i + 1], z: p[i + 2] });
        [x, y, z].forEach((v, k) => ((out.min[k] = Math.min(out.min[k], v)), (out.max[k] = Math.max(out.max[k], v))));
      }
  return out;
};

describe('a door', () => {
  it('is a pair where it is wider than 600, whatever the last bits of its place say', () => {
    // Its width comes of differences of lengths along its wall.
    for (const before of ['100 filler', '37 filler', '333 drawers', '450 door']) {
      const [run] = derivedOf(deriveModel(laid(room, `${before}, 600 door, 601 door`)), 'runs');
      const doors = run.units.slice(-2).map((u) => frontOf(u, run.run.made).cells[0].leaves.length);
      expect([before, ...doors]).toEqual([before, 1, 2]);
    }
  });
});

describe('the grain of a run', () => {
  it('runs up flat fronts and end panels, on from one to the next; along each board of what is joined', () => {
    const grains = (look: Run['look'], made = {}): unknown[] => {
      const run = runOf({ look, made: { ...CONSTRUCTIONS.frameless, ...made }, finishes: { fronts: 'timber.oak', panels: 'timber.oak' } });
      const model = deriveModel(laid(room, '600 drawers, 600 door', run));
      return [bodyOf(model, 'run-a-0')!, bodyOf(model, 'run-a')!].map((b) => b.parts.find((p) => p.name === 'fronts' || p.name === 'panels')!.grain);
    };
    const up = { x: 0, y: 0, z: 1 };
    expect(grains({ fronts: 'flat' })).toEqual([up, up]);
    expect(grains({ fronts: 'framed' })).toEqual(['length', up]);
    expect(grains({ fronts: 'flat' }, CONSTRUCTIONS['in-frame'])).toEqual(['length', up]);
    // Up a drawer front of 600, wider than it is high, the texture runs upwards: v across it.
    const model = deriveModel(laid(room, '600 drawers', runOf({ look: { fronts: 'flat' }, finishes: { fronts: 'timber.oak' } })));
    const { positions: p, uvs: t, indices } = bodyOf(model, 'run-a-0')!.parts.find((q) => q.name === 'fronts')!.mesh;
    let seen = 0;
    for (let k = 0; k < indices.length; k += 3) {
      const [a, b, c] = [indices[k], indices[k + 1], indices[k + 2]];
      // Faces that look to the room.
      if (Math.abs(p[a * 3 + 1] - p[b * 3 + 1]) > 1e-6 || Math.abs(p[a * 3 + 1] - p[c * 3 + 1]) > 1e-6) continue;
      for (const [q, r] of [
        [a, b],
        [b, c],
      ]) {
        expect(Math.abs(t[q * 2] - t[r * 2])).toBeCloseTo(Math.abs(p[q * 3 + 2] - p[r * 3 + 2]), 4);
        seen++;
      }
    }
    expect(seen).toBeGreaterThan(8);
  });
});

describe('a run in the model', () => {
  it('shows the edging of its boards where that is of another finish than these, and else not', () => {
    const edges = (finishes: Record<string, string>) =>
      bodyOf(deriveModel(laid(room, '600 open', runOf({ finishes }))), 'run-a-0')!
        .parts.filter((p) => p.name === 'edges')
        .map((p) => p.finish);
    expect(edges({})).toEqual([]);
    expect(edges({ carcass: 'timber.oak', edges: 'timber.oak' })).toEqual([]);
    expect(edges({ edges: 'timber.walnut' })).toEqual(['timber.walnut']);
  });

  it('is bodies of its units and one of its own, closed, with their backs at the face of their wall', () => {
    const model = deriveModel(kitchen);
    const [side] = model.shell.walls.get(south)!.sides.filter((s) => s.room === inside);
    expect(side.side).toBe('left');
    for (const id of ['run-a', 'run-a-0', 'run-a-1', 'run-a-2', 'run-a-3'])
      for (const part of bodyOf(model, id)!.parts) expect([id, part.name, openEdges(part.mesh)]).toEqual([id, part.name, 0]);
    const drawers = extentOf(model, 'run-a-0');
    // Who looks at the south wall from within has its east end, x = 5, at the left.
    const [low, high] = [Math.min(side.from.x, side.to.x), Math.max(side.from.x, side.to.x)];
    expect(high - low).toBeGreaterThan(4.5);
    expect([drawers.max[0], drawers.min[0]]).toEqual([expect.closeTo(high, 4), expect.closeTo(high - 0.6, 4)]);
    expect(drawers.min[1]).toBeCloseTo(side.from.y, 3);
    expect(drawers.min[2]).toBeCloseTo(0, 3);
    // What hangs starts with the run, above its worktop.
    expect(extentOf(model, 'run-a-3').min[2]).toBeCloseTo(0.15 + 0.72 + 0.03 + 0.48, 3);
  });

  it('goes with its wall when that is moved, and on its level when that is raised', () => {
    const before = extentOf(deriveModel(kitchen), 'run-a-1');
    const moved = extentOf(deriveModel(edit(kitchen, 'wall.move', { wall: south, offset: 0.2 })), 'run-a-1');
    expect(Math.abs(moved.min[1] - before.min[1])).toBeCloseTo(0.2, 5);
    const [level] = Object.keys(kitchen.levels);
    const raised = extentOf(deriveModel(edit(kitchen, 'level.set', { id: level, set: { elevation: 0.4 } })), 'run-a-1');
    expect(raised.min[2] - before.min[2]).toBeCloseTo(0.4, 5);
  });

  it('goes round a corner along two walls, and is drawn in the plan with what hangs dashed', () => {
    const legs: Run['legs'] = [
      { kind: 'wall', wall: south, side: 'left', room: inside },
      { kind: 'wall', wall: west, side: 'left', room: inside },
    ];
    const project = laid(room, 'rest door, 900 corner, 600 oven, 600 wall', runOf({ legs }));
    const model = deriveModel(project);
    const [run] = derivedOf(model, 'runs');
    expect(run.floor.lacks).toEqual([0, 0]);
    expect(Math.hypot(run.legs[0].to.x - run.legs[1].from.x, run.legs[0].to.y - run.legs[1].from.y)).toBeLessThan(1e-9);
    const marks = drawPlan(model, run.run.level).filter((i) => 'entity' in i && i.entity?.startsWith('run-a-'));
    const dashed = (id: string): boolean[] => marks.filter((i) => i.kind === 'line' && i.entity === id).map((i) => i.kind === 'line' && Boolean(i.dash));
    expect(dashed('run-a-3')).toEqual([true]);
    expect(dashed('run-a-0').every((d) => !d)).toBe(true);
    expect(marks.flatMap((i) => (i.kind === 'text' ? [i.text] : []))).toEqual(['1', '2', '3']);
  });

  it('is drawn unit by unit: each is chosen, pointed at and hidden for itself, and all with their run', () => {
    const hiding = (...hidden: string[]): Project => ({ ...kitchen, contents: { ...kitchen.contents, hidden } });
    const groups = (project: Project): string[] =>
      Object.values(drawPlanSheets(deriveModel(project), runOf().level))
        .flat()
        .filter((g) => g.items.some((i) => i.entity?.startsWith('run-a')))
        .map((g) => [...new Set(g.items.map((i) => i.entity))].join());
    expect(groups(kitchen)).toEqual(['run-a-0', 'run-a-1', 'run-a-2', 'run-a', 'run-a-3']);
    expect(groups(hiding('run-a-1'))).toEqual(['run-a-0', 'run-a-2', 'run-a', 'run-a-3']);
    expect(groups(hiding('run-a'))).toEqual([]);
    // In the model and in pictures too.
    const hidden = hiding('run-a');
    expect([...hiddenIn(hidden)]).toEqual(['run-a', 'run-a-0', 'run-a-1', 'run-a-2', 'run-a-3']);
    expect([...withUnits(kitchen, ['sofa', 'run-a-2'])]).toEqual(['sofa', 'run-a-2']);
  });

  it('is drawn in the elevation of its wall alone, where it stands, doors with lines to their hinges', () => {
    const model = deriveModel(laid(room, '600 drawers, 450 door left, 600 wall', runOf({ start: 0.25 })));
    const faces = model.shell.levels[0].faces.filter((f) => f.side && f.room === inside);
    const [run] = derivedOf(model, 'runs');
    for (const face of faces) expect(drawRunUpright(run, face).length > 0).toBe(face.side!.wall === south);
    const marks = drawRunUpright(
      run,
      faces.find((f) => f.side!.wall === south)!,
    );
    const box = (id: string): number[] => {
      const [fill] = marks.filter((m) => m.kind === 'fill' && m.entity === id);
      const points = fill.kind === 'fill' ? fill.rings[0] : [];
      return [
        Math.min(...points.map((p) => p.x)),
        Math.max(...points.map((p) => p.x)),
        Math.min(...points.map((p) => p.y)),
        Math.max(...points.map((p) => p.y)),
      ];
    };
    const near = (values: number[]) => values.map((v) => expect.closeTo(v, 6) as number);
    expect(box('run-a-0')).toEqual(near([0.25, 0.85, 0.15, 0.87]));
    expect(box('run-a-1')).toEqual(near([0.85, 1.3, 0.15, 0.87]));
    expect(box('run-a-2')).toEqual(near([0.25, 0.85, 1.38, 2.1]));
    // The two lines of the door meet half way up, at its left edge.
    const [swing] = marks.filter((m) => m.kind === 'line' && m.entity === 'run-a-1');
    expect(swing.kind === 'line' && swing.points[1].x).toBeCloseTo(0.85 + made.side, 6);
    expect(swing.kind === 'line' && swing.points[1].y).toBeCloseTo(0.15 + (0.72 - made.under) / 2, 2);
  });

  it('shows the box of its corner unit in both elevations, and stands on the floor of its room where that has a step', () => {
    const legs: Run['legs'] = [south, west].map((wall) => ({ kind: 'wall', wall, side: 'left', room: inside }));
    const corner = laid(room, 'rest door, 900 corner, 600 oven', runOf({ legs }));
    const lowered = edit(corner, 'room.set', { room: inside, set: { step: -0.3 } });
    const ends = (project: Project, wall: string): number[] => {
      const model = deriveModel(project);
      const face = model.shell.levels[0].faces.find((f) => f.side?.wall === wall && f.room === inside)!;
      const [fill] = drawRunUpright(derivedOf(model, 'runs')[0], face).filter((m) => m.kind === 'fill' && m.entity === 'run-a-1');
      const points = fill.kind === 'fill' ? fill.rings[0] : [];
      return [Math.min(...points.map((p) => p.x)), Math.max(...points.map((p) => p.x)), Math.min(...points.map((p) => p.y))];
    };
    const near = (values: number[]) => values.map((v) => expect.closeTo(v, 6) as number);
    expect(ends(corner, south)).toEqual(near([3.8, 4.7, 0.15]));
    expect(ends(corner, west)).toEqual(near([0, 0.9, 0.15]));
    expect(ends(lowered, west)).toEqual(near([0, 0.9, -0.15]));
    expect(extentOf(deriveModel(lowered), 'run-a-0').min[2]).toBeCloseTo(-0.3, 3);
  });

  it('belongs to the room that sees its wall', () => {
    const model = deriveModel(kitchen);
    for (const id of ['run-a', 'run-a-1', 'run-a-3']) {
      const body = bodyOf(model, id)!;
      expect(roomOfPart(model, body, body.parts[0])).toBe(inside);
    }
  });

  it('is finished unit before run before what its kind begins with', () => {
    const one = edit(kitchen, 'run.put', { ...kitchen.runs['run-a'], finishes: { fronts: 'paint.reed' } });
    const two = edit(one, 'finish.apply', { targets: [{ kind: 'part', of: 'run-a-0', part: 'fronts' }], finish: 'paint.millpond' });
    const finish = (p: Project, id: string): string => bodyOf(deriveModel(p), id)!.parts.find((q) => q.name === 'fronts')!.finish;
    expect([kitchen, one, two].map((p) => [finish(p, 'run-a-0'), finish(p, 'run-a-1')])).toEqual([
      ['paint.lockgate-green', 'paint.lockgate-green'],
      ['paint.reed', 'paint.reed'],
      ['paint.millpond', 'paint.reed'],
    ]);
  });

  it('makes one unit anew where one is changed, and none where a plan or a list is wanted', () => {
    const deriver = new Deriver();
    const first = deriver.derive(kitchen);
    drawPlan(first, runOf().level);
    const without = deriver.remembered;
    expect(first.bodies.length).toBeGreaterThan(4);
    expect(deriver.remembered).toBeGreaterThan(without + 4);
    const unit = kitchen.cabinets['run-a-0'];
    const opened = deriver.derive(edit(kitchen, 'unit.put', { ...unit, open: 1 }));
    const meshes = (m: Model, id: string) => bodyOf(m, id)!.parts.map((p) => p.mesh);
    const before = deriveModel(kitchen);
    expect(extentOf(opened, 'run-a-0').max[1]).toBeGreaterThan(extentOf(before, 'run-a-0').max[1] + 0.3);
    const wider = deriver.derive(edit(kitchen, 'unit.put', { ...unit, width: 0.7 }));
    meshes(wider, 'run-a-1').forEach((mesh, i) => expect(mesh).toBe(meshes(opened, 'run-a-1')[i]));
    expect(extentOf(wider, 'run-a-1').max[0] - extentOf(opened, 'run-a-1').max[0]).toBeCloseTo(-0.1, 5);
  });

  it('has rounder curves in pictures, of the same parts', () => {
    const body = bodyOf(deriveModel(kitchen), 'run-a-0')!;
    const triangles = body.parts.map((part) => [part.name, part.fine!().indices.length, part.mesh.indices.length] as const);
    for (const [, fine, light] of triangles) expect(fine).toBeGreaterThanOrEqual(light);
    expect(triangles.find(([name]) => name === 'handles')![1]).toBeGreaterThan(triangles.find(([name]) => name === 'handles')![2] * 1.5);
  });
});

describe('the commands of a run', () => {
  it('lay it out with its units in one step that is taken back whole', () => {
    const { project, inverse } = change(kitchen, 'run.lay', { run: kitchen.runs['run-a'], units: unitsSaid('900 door') });
    expect(Object.keys(project.cabinets)).toEqual(['run-a-0']);
    const back = runChange(project, { id: 'backback', kind: 'undo', target: 'x', command: 'history.patch', args: { patches: inverse } }).project;
    expect(back).toEqual(kitchen);
    expect(validateProject(JSON.parse(JSON.stringify(kitchen)))).toEqual(kitchen);
  });

  it('take it away with its wall, its level or itself, and let what hung over a unit go on hanging', () => {
    for (const id of [south, 'run-a']) {
      const gone = edit(kitchen, 'delete', { ids: [id] });
      expect([gone.runs, gone.cabinets]).toEqual([{}, {}]);
    }
    const [ground] = Object.keys(kitchen.levels);
    const two = edit(kitchen, 'level.add', { id: 'upper', name: 'Upper', of: ground, where: 'above', height: 2.4, slab: 0.3, walls: 'all' });
    expect(Object.keys(two.runs)).toEqual(['run-a']);
    const gone = edit(two, 'level.delete', { id: ground });
    expect([gone.runs, gone.cabinets]).toEqual([{}, {}]);
    const over = edit(kitchen, 'unit.put', { ...kitchen.cabinets['run-a-3'], middle: { of: 'unit', id: 'run-a-1' } });
    const without = edit(over, 'delete', { ids: ['run-a-1'] });
    expect(without.cabinets['run-a-3'].middle).toBeNull();
    expect(Object.keys(without.cabinets)).toHaveLength(3);
  });

  it('refuse in a sentence what makes no run', () => {
    const lay =
      (units: Cabinet[], run = runOf()) =>
      () =>
        laid(room, '600 door') && edit(room, 'run.lay', { run, units });
    const [a, b] = unitsSaid('600 door, 600 wall');
    expect(lay([{ ...a, run: 'other' }])).toThrow(/belongs to another run/);
    expect(lay([{ ...b, middle: { of: 'unit', id: 'nobody' } }])).toThrow(/hangs over one that is not in it/);
    expect(lay([b, { ...b, id: 'c', middle: { of: 'unit', id: b.id } }])).toThrow(/can’t hang over one that hangs itself/);
    expect(lay([{ ...a, corner: 'L' }])).toThrow(/more corner units than corners/);
    expect(lay([a], runOf({ legs: [{ kind: 'wall', wall: 'nowhere', side: 'left', room: inside }] }))).toThrow(/no longer in the project/);
  });

  it('leave the digest of pictures of a project without runs as it was, and change it with a unit', () => {
    const digest = pictureState(room);
    // As it was while there were no such tables.
    const { runs: _r, cabinets: _c, ...plain } = room;
    expect(pictureState(plain as Project)).toBe(digest);
    expect(pictureState(kitchen)).not.toBe(digest);
    expect(pictureState(edit(kitchen, 'unit.put', { ...kitchen.cabinets['run-a-0'], open: 0.5 }))).not.toBe(pictureState(kitchen));
  });
});
