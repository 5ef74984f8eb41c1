import { WebIO, type Node } from '@gltf-transform/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '../demo/heron-lock';
import { writeGlb } from '../formats/glb/glb';
import { meshArea, transformPoint } from '../geometry/mesh';
import { totalArea, union } from '../geometry/polygon';
import { newOpening } from '../project/opening-defaults';
import { validateProject } from '../project/commands';
import type { Project } from '../project/schema';
import { takeOff, type Lot } from '../schedules/takeoff';
import { draw, edit, house } from '../testing/drafting';
import { plainHouse, random, randomEdit } from '../testing/random';
import { placesOf, type Body } from './body';
import { deriveModel, Deriver } from './derive';
import { bodyOf, partsOf, roomOfPart, type Model } from './model';

type Box = [number, number, number, number, number, number];

function boxOf(body: Body): Box {
  const box: Box = [Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity];
  for (const part of body.parts)
    for (const place of placesOf(body, part))
      for (const i of part.mesh.indices) {
        const { positions: v } = part.mesh;
        const p = transformPoint(place, { x: v[i * 3], y: v[i * 3 + 1], z: v[i * 3 + 2] });
        [p.x, p.y, p.z].forEach((c, k) => {
          box[k] = Math.min(box[k], c);
          box[k + 3] = Math.max(box[k + 3], c);
        });
      }
  return box;
}

/** Boxes of the things of a GLB as another reader finds them, z up. */
async function glbBoxes(model: Model): Promise<Map<string, Box>> {
  const document = await new WebIO().readBinary(await writeGlb(model));
  const found = new Map<string, Box>();
  const look = (node: Node, owner: string | null): void => {
    const extras = node.getExtras() as { id?: string; kind?: string };
    const own = extras.id ? `${extras.kind} ${extras.id}` : owner;
    const m = node.getWorldMatrix();
    for (const primitive of node.getMesh()?.listPrimitives() ?? []) {
      const position = primitive.getAttribute('POSITION')!;
      const box = found.get(own!) ?? [Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity];
      const indices = primitive.getIndices()!.getArray()!;
      for (const i of indices) {
        const e = position.getElement(i, [0, 0, 0]);
        const [x, y, z] = [0, 1, 2].map((r) => m[r] * e[0] + m[4 + r] * e[1] + m[8 + r] * e[2] + m[12 + r]);
        [x, -z, y].forEach((c, k) => {
          box[k] = Math.min(box[k], c);
          box[k + 3] = Math.max(box[k + 3], c);
        });
      }
      found.set(own!, box);
    }
    for (const child of node.listChildren()) look(child, own);
  };
  for (const child of document.getRoot().listScenes()[0].listChildren()) look(child, null);
  return found;
}

/** All of a model in numbers that can be compared. */
const told = (model: Model): unknown =>
  model.bodies.map((b) => [b.kind, b.id, b.level, b.parts.map((p) => [p.key, p.finish, p.chosen, p.mesh.indices.length, Number(meshArea(p.mesh).toFixed(6))])]);

describe('random edits of every kind', () => {
  it('leave a project that is valid, and derives step by step as from nothing', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e9 }), (seed) => {
        const next = random(seed);
        let project = plainHouse(next);
        const deriver = new Deriver();
        for (let n = 0; n < 14; n++) {
          project = randomEdit(project, next, n);
          deriver.derive(project);
        }
        expect(validateProject(project)).toEqual(project);
        expect(told(deriver.derive(project))).toEqual(told(deriveModel(project)));
        expect(told(deriver.derive(project, 'before'))).toEqual(told(new Deriver().derive(project, 'before')));
        expect(told(deriver.derive(project))).toEqual(told(deriveModel(project)));
      }),
      { numRuns: 30 },
    );
  });

  it('give bodies that lie in the GLB where they lie in the model', async () => {
    for (let seed = 1; seed <= 6; seed++) {
      const next = random(seed * 7919);
      let project = plainHouse(next);
      for (let n = 0; n < 16; n++) project = randomEdit(project, next, n);
      const model = deriveModel(project);
      const found = await glbBoxes(model);
      for (const body of model.bodies) {
        if (body.kind === 'site' || body.kind === 'backdrop') continue;
        const other = [...found].find(([key]) => key.endsWith(` ${body.id}`));
        expect([body.id, other !== undefined]).toEqual([body.id, true]);
        boxOf(body).forEach((v, i) => expect(Math.abs(v - other![1][i])).toBeLessThan(2e-4));
      }
    }
  });

  it('take of all finishes together what the faces and parts of all bodies have', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e9 }), (seed) => {
        const next = random(seed);
        let project = plainHouse(next);
        for (let n = 0; n < 14; n++) project = randomEdit(project, next, n);
        const model = deriveModel(project);
        const faces = model.shell.levels.flatMap((l) => l.faces);
        const shown = new Set(faces.flatMap((f) => [f.part, ...f.ways.map((w) => w.part)]));
        const parts = [...partsOf(model)]
          .filter(([body, part]) => part.target && !shown.has(part) && body.kind !== 'site' && part.sort !== 'patch' && part.sort !== 'moulding')
          .reduce((sum, [, part]) => sum + meshArea(part.mesh) * part.at.length, 0);
        const laid = faces.reduce((sum, f) => {
          const ways = f.ways.length ? totalArea(union([...f.regions, ...f.ways.map((w) => w.region)])) - totalArea(f.regions) : 0;
          return sum + f.area + ways + (f.side?.ends ?? 0);
        }, 0);
        const lots = takeOff(model);
        const sum = lots.reduce((s, lot) => s + lot.area + lot.hidden, 0);
        expect(sum).toBeGreaterThan((parts + laid) * (1 - 1e-6) - 1e-4);
        expect(sum).toBeLessThan((parts + laid) * (1 + 1e-6) + 1e-4);
      }),
      { numRuns: 40 },
    );
  });
});

const inFinish = (lots: readonly Lot[], finish: string): number => lots.filter((l) => l.finish === finish).reduce((sum, l) => sum + l.area, 0);
const square = house(
  [
    [0, 0],
    [6, 0],
    [6, 4],
    [0, 4],
  ],
  0.2,
);
const room = (p: Project): string => Object.keys(p.rooms)[0];
const painted = (p: Project): Project => edit(p, 'finish.apply', { targets: [{ kind: 'walls', room: room(p) }], finish: 'paint.reed' });

describe('what had no finish before', () => {
  it('the free end of a nib is a part of its faces', () => {
    const h = square.levels.ground.height;
    const plain = inFinish(takeOff(deriveModel(painted(square))), 'paint.reed');
    const nib = painted(
      draw(square, [
        [3, 0],
        [3, 1.5],
      ]),
    );
    // Two faces from the inside of the wall on, and the end; the wall loses what the nib covers.
    expect(inFinish(takeOff(deriveModel(nib)), 'paint.reed') - plain).toBeCloseTo(2 * 1.4 * h + 0.1 * h - 0.1 * h, 6);
  });

  it('the face of a wall goes on above a low wall that meets it, and the low wall has a top', () => {
    const h = square.levels.ground.height;
    const plain = inFinish(takeOff(deriveModel(painted(square))), 'paint.reed');
    for (const top of [{ kind: 'fixed', height: 1.1 }, { kind: 'half' }] as const) {
      const low = top.kind === 'half' ? h / 2 : top.height;
      const project = painted(
        draw(
          square,
          [
            [3, 0],
            [3, 1.5],
          ],
          { top },
        ),
      );
      const model = deriveModel(project);
      // Two faces, an end and a top, which reaches to the middle of the junction; the wall loses what the low wall covers, no more.
      const wedge = (0.1 * 0.1) / 2;
      expect(inFinish(takeOff(model), 'paint.reed') - plain).toBeCloseTo(2 * 1.4 * low + 0.1 * low + 0.1 * 1.4 + wedge - 0.1 * low, 6);
      const id = Object.values(project.walls).find((w) => w.top.kind === top.kind)!.id;
      expect(bodyOf(model, id)!.parts.find((p) => p.name === 'top')).toMatchObject({ finish: 'paint.reed', target: { kind: 'part', of: id, part: 'top' } });
      const oak = edit(project, 'finish.apply', { targets: [{ kind: 'part', of: id, part: 'top' }], finish: 'timber.oak' });
      expect(inFinish(takeOff(deriveModel(oak)), 'timber.oak')).toBeCloseTo(0.1 * 1.4 + wedge, 6);
    }
  });

  it('the end of a wall is seen above the lower wall it goes on as', () => {
    const h = square.levels.ground.height;
    const wide = draw(
      draw(square, [
        [3, 0],
        [3, 1.5],
      ]),
      [
        [3, 1.5],
        [3, 3],
      ],
      { top: { kind: 'fixed', height: 1 } },
    );
    const plain = inFinish(takeOff(deriveModel(painted(square))), 'paint.reed');
    const sum = inFinish(takeOff(deriveModel(painted(wide))), 'paint.reed') - plain;
    const full = 2 * 1.4 * h - 0.1 * h;
    const low = 2 * 1.5 * 1 + 0.1 * 1 + 0.1 * 1.5;
    expect(sum).toBeCloseTo(full + low + 0.1 * (h - 1), 6);
  });

  it('the edge of a slab under the outer walls', () => {
    const two = edit(square, 'level.add', { id: 'upper', name: 'Upper', of: 'ground', where: 'above', walls: 'all', height: 2.4, slab: 0.3 });
    const clad = edit(two, 'finish.apply', { targets: [{ kind: 'part', of: 'upper', part: 'edge' }], finish: 'metal.brass-brushed' });
    const part = bodyOf(deriveModel(clad), 'upper')!.parts.find((p) => p.name === 'edge')!;
    expect([part.finish, part.chosen]).toEqual(['metal.brass-brushed', true]);
    // From the walls below to those above: no slit is left between them.
    expect(meshArea(part.mesh)).toBeCloseTo((6.2 + 4.2) * 2 * 0.3, 4);
    // Until then it goes with the walls outside.
    const brick = edit(two, 'finish.apply', { targets: [{ kind: 'walls', room: null }], finish: 'brick.limewashed' });
    expect(bodyOf(deriveModel(brick), 'upper')!.parts.find((p) => p.name === 'edge')!.finish).toBe('brick.limewashed');
  });

  it('the floor in a doorway is laid and counted with that of its room', () => {
    let project = draw(square, [
      [3, 0],
      [3, 4],
    ]);
    const wall = Object.values(project.walls).find((w) => project.corners[w.start].x === 3 && project.corners[w.end].x === 3)!;
    project = edit(project, 'opening.add', newOpening(project, { id: 'd', wall: wall.id, kind: 'door', at: 2, width: 0.9 }));
    const rooms = Object.keys(project.rooms);
    const floors = edit(project, 'finish.apply', { targets: rooms.map((r) => ({ kind: 'floor', room: r })), finish: 'tile.hex-clay' });
    const model = deriveModel(floors);
    const area = [...model.shell.rooms.values()].reduce((sum, r) => sum + r.area, 0);
    expect(inFinish(takeOff(model), 'tile.hex-clay')).toBeCloseTo(area + 0.9 * 0.1, 5);
    // Its pattern goes on from the room's: texture coordinates differ from those of the plan by one shift and turn.
    for (const id of rooms) {
      const [whole, way] = bodyOf(model, id)!.parts.filter((p) => p.sort === 'floor');
      const at = (mesh: typeof whole.mesh, i: number) => ({
        x: mesh.positions[i * 3],
        y: mesh.positions[i * 3 + 1],
        u: mesh.uvs[i * 2],
        v: mesh.uvs[i * 2 + 1],
      });
      const [p, q] = [at(whole.mesh, 0), at(way.mesh, 0)];
      expect(Math.hypot(q.u - p.u, q.v - p.v)).toBeCloseTo(Math.hypot(q.x - p.x, q.y - p.y), 4);
      expect(way.laid).toBe(whole.laid);
    }
  });

  it('what is chosen for pieces, areas and fences reaches the schedule; what a piece comes with does not', () => {
    const demo = heronLockCottage();
    const before = takeOff(deriveModel(demo));
    const sofa = Object.values(demo.pieces).find((p) => p.maker === 'sofa')!;
    const part = bodyOf(deriveModel(demo), sofa.id)!.parts.find((p) => !p.chosen)!;
    expect(before.filter((l) => l.entity === sofa.id && l.finish === part.finish).every((l) => !l.ordered)).toBe(true);
    const chosen = edit(demo, 'finish.apply', { targets: [part.target!], finish: 'metal.brass-brushed' });
    const model = deriveModel(chosen);
    const lot = takeOff(model).find((l) => l.entity === sofa.id && l.finish === 'metal.brass-brushed')!;
    expect([lot.ordered, lot.area > 0.01]).toEqual([true, true]);
    for (const kind of ['grounds', 'fences'] as const)
      for (const id of Object.keys(demo[kind])) expect(before.some((l) => l.entity === id && l.area > 0)).toBe(true);
    const piece = bodyOf(model, sofa.id)!;
    expect(roomOfPart(model, piece, piece.parts[0])).toBe(Object.values(demo.rooms).find((r) => r.name === 'Living')!.id);
  });
});
