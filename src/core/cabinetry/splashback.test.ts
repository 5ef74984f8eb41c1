import { beforeAll, describe, expect, it } from 'vitest';
import { deriveModel } from '../model/derive';
import { derivedOf } from '../model/model';
import { newOpening } from '../project/opening-defaults';
import type { Project } from '../project/schema';
import { unitsSaid } from '../testing/cabinets';
import { bodyOf } from '../model/model';
import { box, edit, wallBy } from '../testing/drafting';
import { loadKernel, openEdges } from '../testing/solid';
import { newRun } from './begin';
import { legAlong, legsAround } from './sides';
import { nicheIn, splashbacksOf, splashFields } from './splashback';

beforeAll(loadKernel);

const room = box(5, 4);
const [level] = Object.keys(room.levels);
const south = wallBy(room, [0, 0], [5, 0]);
const leg = legAlong({ wall: south, side: 'left', room: Object.keys(room.rooms)[0] });

function laid(line: string, project: Project = room, upstand = 0) {
  const own = { ...newRun('run-a', 'Kitchen', level, [leg], 'metric'), upstand, ends: 'bare' as const };
  const units = unitsSaid(line);
  const run = { ...own, legs: legsAround(own, units, deriveModel(project).shell) };
  const next = edit(project, 'run.lay', { run, units });
  const model = deriveModel(next);
  return { project: next, model, derived: derivedOf(model, 'runs').find((r) => r.id === 'run-a')! };
}

/** The patches of a run put, with the area each covers. */
function put({ project, model, derived }: ReturnType<typeof laid>, finish = 'tile.glazed-white') {
  const patches = splashbacksOf(derived, model.shell, project.patches, finish);
  const next = edit(project, 'patch.put', { patches });
  const faces = deriveModel(next).shell.levels.flatMap((l) => l.faces.flatMap((f) => f.patches));
  return { patches, next, areas: patches.map((p) => faces.filter((f) => f.patch.id === p.id).reduce((sum, f) => sum + f.area, 0)) };
}

describe('the splashback of a run', () => {
  it('lies between the worktop and what hangs above it, along all of it', () => {
    const { patches, areas } = put(laid('600 drawers, 800 sink, 600 door, 600 larder'));
    expect(patches).toHaveLength(1);
    // 2 m beside the larder, 480 high.
    expect(areas[0]).toBeCloseTo(2 * 0.48, 6);
    expect(patches[0].shape).toMatchObject({ base: expect.closeTo(0.9, 9), height: expect.closeTo(0.48, 9), width: expect.closeTo(2, 9) });
  });

  it('begins above an upstand, goes on up to a hood, and round the corner', () => {
    const { patches, areas } = put(laid('600 door, 900 hob, rest door, corner, 600 door, 900 canopy hood', room, 0.1));
    // One along each wall, and one up to the hood, which hangs 170 higher than wall units would.
    expect(patches).toHaveLength(3);
    expect(areas[0]).toBeCloseTo(4.7 * 0.38, 6);
    expect(areas[1]).toBeCloseTo(0.9 * 0.17, 6);
    expect(areas[2]).toBeCloseTo(1.5 * 0.38, 6);
  });

  it('leaves windows out, and is found again where it was, with its finish', () => {
    const lit = edit(room, 'opening.add', newOpening(room, { id: 'w1', name: 'W1', wall: south, kind: 'window', at: 2.5, width: 1.2, height: 1, sill: 1.05 }));
    const first = laid('2350 door, 2350 door', lit);
    const { areas, next, patches } = put(first, 'tile.glazed-green');
    // The reveal of the window is not part of the face.
    expect(areas[0]).toBeLessThan(4.7 * 0.48 - 1.2 * 0.33 + 1e-6);
    expect(areas[0]).toBeGreaterThan(4.7 * 0.48 - 1.5 * 0.33);
    const again = laid('2000 door, 600 larder', next);
    const [changed] = splashbacksOf(again.derived, again.model.shell, again.project.patches, 'tile.glazed-white');
    expect([changed.id, changed.finish]).toEqual([patches[0].id, 'tile.glazed-green']);
    expect(changed.shape).toMatchObject({ width: expect.closeTo(2, 9) });
  });

  it('is none behind what stands free', () => {
    const run = newRun('run-b', 'Island', level, [{ kind: 'free', from: { x: 3, y: 2 }, to: { x: 1, y: 2 } }], 'metric');
    const island = deriveModel(edit(room, 'run.lay', { run, units: unitsSaid('900 door', 'run-b') }));
    expect(splashFields(derivedOf(island, 'runs')[0])).toEqual([]);
  });
});

describe('a niche in a splashback', () => {
  it('lies over the hob, within the splashback, lined with its tiles, which do not lie in the faces of the wall', () => {
    const tiled = put(laid('600 drawers, 900 hob, 1200 door, 600 door')).next;
    const model = deriveModel(tiled);
    const [derived] = derivedOf(model, 'runs');
    const niche = nicheIn(derived, model.shell, tiled, 'niche-1');
    if (typeof niche === 'string') throw new Error(niche);
    expect(niche).toMatchObject({ kind: 'niche', width: 0.9, height: 0.36, depth: 0.09, finishes: { lining: 'tile.glazed-white' } });
    expect(niche.sill).toBeCloseTo(0.9 + (0.48 - 0.36) / 2, 6);
    const next = edit(tiled, 'opening.add', niche);
    const made = deriveModel(next);
    // The middle of the hob, 1050 from the east end of the wall.
    const { point } = made.shell.openings.get('niche-1')!;
    const [side] = made.shell.walls.get(south)!.sides.filter((s) => s.room === leg.room);
    const east = Math.max(side.from.x, side.to.x);
    expect(east - point.x).toBeCloseTo(1.05, 6);
    const body = bodyOf(made, 'niche-1')!;
    expect(body.parts.map((p) => [p.name, p.finish])).toEqual([['lining', 'tile.glazed-white']]);
    expect(openEdges(body.parts[0].mesh)).toBe(0);
    const ys = [...body.parts[0].mesh.positions].filter((_, i) => i % 3 === 1);
    // From its back to a hair before the wall.
    expect(Math.max(...ys) - Math.min(...ys)).toBeCloseTo(0.09, 5);
    // Without tiles its wall goes on in it.
    const { model: bare, derived: own, project } = laid('600 drawers, 900 hob');
    const plain = nicheIn(own, bare.shell, project, 'niche-1');
    if (typeof plain === 'string') throw new Error(plain);
    expect(bodyOf(deriveModel(edit(project, 'opening.add', plain)), 'niche-1')).toBeUndefined();
  });

  it('is refused in a sentence where there is no room, and where a window is', () => {
    const { model, derived, project } = laid('600 larder');
    expect(nicheIn(derived, model.shell, project, 'n')).toMatch(/no room for a niche/);
    const low = laid('600 door, 600 wall', room, 0.4);
    expect(nicheIn(low.derived, low.model.shell, low.project, 'n')).toMatch(/no room for a niche/);
    const lit = edit(room, 'opening.add', newOpening(room, { id: 'w1', name: 'W1', wall: south, kind: 'window', at: 2.5, width: 1.2, height: 1, sill: 1.05 }));
    const { model: m, derived: d, project: p } = laid('1900 door, 900 sink, 1900 door', lit);
    const over = nicheIn(d, m.shell, p, 'n');
    if (typeof over === 'string') throw new Error(over);
    expect(() => edit(p, 'opening.add', over)).toThrow(/W1/);
  });
});
