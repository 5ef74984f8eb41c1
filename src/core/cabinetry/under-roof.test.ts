import { beforeAll, describe, expect, it } from 'vitest';
import { drawRunUpright } from '../drawing/elevation/cabinets';
import { transformPoint } from '../geometry/mesh';
import { within } from '../geometry/shapes';
import { deriveModel } from '../model/derive';
import { derivedOf } from '../model/model';
import { roofHeight, roofsOver, roofsToFollow } from '../project/roofs';
import { newRoof } from '../project/roof-defaults';
import type { Project, Run } from '../project/schema';
import { FINE, LIGHT } from '../stock/stock';
import { unitsSaid } from '../testing/cabinets';
import { box, edit, wallBy } from '../testing/drafting';
import { loadKernel, openEdges, volume } from '../testing/solid';
import { panelSchedule } from '../schedules/cabinets';
import { frontOf, unitParts } from './assemble';
import { panelsUnder } from './under-roof';
import { unitCarcass } from './unit';
import { newRun } from './begin';
import { CONSTRUCTIONS } from './figures';

beforeAll(loadKernel);

const plain = box(5, 4);
const [room] = Object.keys(plain.rooms);
const level = Object.keys(plain.levels)[0];
const roofed = edit(plain, 'roof.put', { roof: newRoof(plain, { id: 'roof', level, over: { kind: 'level' } }, 'gable') });
const open = edit(roofed, 'room.set', { room, set: { cover: { kind: 'roof' } } });

/** A wardrobe along one wall, as high as it may be. */
const wardrobe = (project: Project, wall: string, line = '600 wardrobe, 600 wardrobe shelves, 600 wardrobe drawers'): Project => {
  const made = { ...CONSTRUCTIONS.frameless, tall: { height: 3.6, depth: 0.58 } };
  const run: Run = { ...newRun('run-a', 'Wardrobe', level, [{ kind: 'wall', wall, side: 'left', room }], 'metric'), made };
  return edit(project, 'run.lay', { run, units: unitsSaid(line) });
};
const runOf = (p: Project) => derivedOf(deriveModel(p), 'runs')[0];
const walls = [wallBy(plain, [0, 0], [5, 0]), wallBy(plain, [5, 0], [5, 4])];

describe('units under a roof', () => {
  it('are cut where it is lower than they are high, closed all over, with nothing of them in the roof', () => {
    for (const wall of walls) {
      const p = wardrobe(open, wall);
      const run = runOf(p);
      const roofs = roofsToFollow(roofsOver(p, level));
      expect(run.units.some((u) => u.cut.length)).toBe(true);
      for (const own of run.units)
        for (const off of [LIGHT, FINE])
          within(off, () => {
            for (const { part, mesh } of unitParts(own, run.run.made)) {
              expect([part, openEdges(mesh)]).toEqual([part, 0]);
              for (let i = 0; i < mesh.positions.length; i += 3) {
                const q = transformPoint(own.matrix, { x: mesh.positions[i], y: mesh.positions[i + 1], z: mesh.positions[i + 2] });
                expect(q.z).toBeLessThan((roofHeight(roofs, q) ?? Infinity) - 0.004);
              }
            }
          });
    }
  });

  it('keep all that lies below it: what is cut off is what was above the plane, and a top leans with it', () => {
    const run = runOf(wardrobe(open, walls[0]));
    const own = run.units.find((u) => u.cut.length && !u.clad.length)!;
    within(LIGHT, () => {
      const size = (parts: ReturnType<typeof unitParts>, part: string): number =>
        parts.filter((p) => p.part === part).reduce((sum, p) => sum + volume(p.mesh), 0);
      const [cut, whole] = [unitParts(own, run.run.made), unitParts({ ...own, cut: [] }, run.run.made)];
      expect(size(cut, 'fronts')).toBeLessThan(size(whole, 'fronts'));
      // The plane falls towards the back: its height before the fronts tells how much is left of them.
      const { gx, gy, c } = own.cut[0];
      const high = run.run.made.plinth + own.size.height;
      const before = gy * -(own.size.depth + 0.01) + c;
      expect(Math.abs(gx)).toBeLessThan(1e-9);
      const left = Math.min(1, (before - run.run.made.plinth) / (high - run.run.made.plinth));
      // But for the rail at the head, which is cut off.
      expect(Math.abs(size(cut, 'fronts') / size(whole, 'fronts') - left)).toBeLessThan(0.01);
      const lid = 0.018 * Math.hypot(gy, 1) * (own.size.width - 2 * 0.018);
      const top = cut.filter((p) => p.part === 'carcass').at(-1)!;
      expect(volume(top.mesh) / (lid * own.size.depth)).toBeCloseTo(1, 1);
    });
  });

  it('are whole where their room has a ceiling of its own, and drawn as they are cut in the elevation', () => {
    expect(runOf(wardrobe(roofed, walls[0])).units.every((u) => !u.cut.length)).toBe(true);
    const p = wardrobe(open, walls[1]);
    const model = deriveModel(p);
    const [derived] = derivedOf(model, 'runs');
    const face = model.shell.levels[0].faces.find((f) => f.side?.wall === walls[1] && f.room === room)!;
    const rings = drawRunUpright(derived, face).flatMap((i) => (i.kind === 'lines' || i.kind === 'fill' ? i.rings : []));
    expect(rings.length).toBeGreaterThan(0);
    // Nothing is drawn above the roof over the line of the fronts.
    const [from, to] = [derived.legs[0].from, derived.legs[0].to];
    const length = Math.hypot(to.x - from.x, to.y - from.y);
    const [d, out] = [
      { x: (to.x - from.x) / length, y: (to.y - from.y) / length },
      { x: (to.y - from.y) / length, y: -(to.x - from.x) / length },
    ];
    const roofs = roofsToFollow(roofsOver(p, level));
    const at = (x: number): number => roofHeight(roofs, { x: from.x + d.x * x + out.x * 0.58, y: from.y + d.y * x + out.y * 0.58 }) ?? Infinity;
    for (const q of rings.flat()) expect(q.y).toBeLessThan(at(q.x) + 1e-6);
    expect(derived.units.some((u) => u.cut.length)).toBe(true);
  });

  it('are in the cutting list by the boards they are cut from: as high as the roof is where they stand, and the top along its slope', () => {
    const run = runOf(wardrobe(open, walls[0]));
    const own = run.units.find((u) => u.cut.length)!;
    const { made } = run.run;
    const whole = unitCarcass(own.unit, own.size, made, frontOf(own, made), []).panels;
    const cut = panelsUnder(whole, own, made);
    const { gx, gy, c } = own.cut[0];
    expect(gx).toBeCloseTo(0, 9);
    const roof = (p: { y: number }): number => gy * p.y + c - made.plinth;
    const sides = cut.filter((p) => p.name === 'side');
    expect(sides).toHaveLength(2);
    for (const side of sides) {
      // It falls to the back: a side is as high as the roof is before it.
      expect(side.max.z).toBeCloseTo(Math.max(roof(side.min), roof(side.max)), 9);
      expect(side.shaped).toBe(true);
    }
    const back = cut.find((p) => p.name === 'back')!;
    expect(back.max.z).toBeCloseTo(roof({ y: gy > 0 ? back.max.y : back.min.y }), 9);
    // What was above it is gone; nothing is higher than the roof over its highest place.
    for (const p of cut.slice(0, -1)) expect(p.max.z).toBeLessThan(Math.max(roof(p.min), roof(p.max)) + 1e-9);
    const lid = cut.at(-1)!;
    expect([lid.name, lid.max.x, lid.max.y]).toEqual(['top', expect.closeTo(own.size.width - 0.036, 9), expect.closeTo(own.size.depth * Math.hypot(gy, 1), 9)]);
    // Boards cut from them weigh no less than what is left of the carcass.
    const box = cut.reduce((sum, { min, max }) => sum + (max.x - min.x) * (max.y - min.y) * (max.z - min.z), 0);
    const left = within(LIGHT, () =>
      unitParts(own, made)
        .filter((p) => p.part === 'carcass')
        .reduce((sum, p) => sum + volume(p.mesh), 0),
    );
    expect(box).toBeGreaterThan(left * 0.99);
    expect(panelSchedule(deriveModel(wardrobe(open, walls[0]))).some((r) => r.shape === 'cut to shape')).toBe(true);
    expect(panelSchedule(deriveModel(wardrobe(roofed, walls[0]))).some((r) => r.shape === 'cut to shape')).toBe(false);
  });
});
