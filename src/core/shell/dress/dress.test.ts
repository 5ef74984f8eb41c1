import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { deriveModel, Deriver } from '../../model/derive';
import type { Model } from '../../model/model';
import { PROFILES, profileIn } from '../../finishes/profiles';
import { heronLockCottage } from '../../demo/heron-lock';
import { meshArea } from '../../geometry/mesh';
import { totalArea } from '../../geometry/polygon';
import { closedSection, sweep } from '../../geometry/sweep';
import { newOpening } from '../../project/opening-defaults';
import type { Moulding, Patch, Project } from '../../project/schema';
import { draw, edit, house, wallAt } from '../../testing/drafting';
import { loadKernel, openEdges, volume } from '../../testing/solid';
import { faceS, faceX } from '../wall-face';
import { onFace, wallsRound } from './faces';
import { panelRings } from './patches';
import { sectionOf } from './mouldings';

beforeAll(loadKernel);

const seed = Number(process.env.FC_SEED ?? 5);
const room = (p: Project) => Object.values(p.rooms)[0].id;
const south = (p: Project) => wallAt(p, (a, b) => a.y === 0 && b.y === 0);
const faceOf = (m: Model, address: string) => m.shell.levels.flatMap((l) => l.faces).find((f) => f.address === address)!;
const square = (): Project =>
  house([
    [0, 0],
    [4, 0],
    [4, 3],
    [0, 3],
  ]);
const patch = (more: Partial<Patch> & Pick<Patch, 'on' | 'shape'>): Patch => ({
  id: 'patch-1',
  name: 'Patch 1',
  order: 0,
  finish: 'tile.square-white',
  panels: null,
  ...more,
});
const within = (p: Project, w: Project['walls'][string], x: number): boolean => (p.corners[w.start].x - x) * (p.corners[w.end].x - x) < 0;
const moulding = (p: Project, kind: Moulding['kind'], profile: string, more: Partial<Moulding> = {}): Moulding => ({
  id: `m-${kind}`,
  name: kind,
  room: room(p),
  kind,
  profile,
  height: null,
  at: null,
  without: [],
  finish: 'paint.skein',
  ...more,
});

describe('faces', () => {
  it('have their own coordinates: from the left end as one sees them, true to scale', () => {
    const p = square();
    const m = deriveModel(p);
    const walls = m.shell.levels[0].faces.filter((f) => f.kind === 'wall' && f.room === room(p));
    expect(walls).toHaveLength(4);
    for (const face of walls) {
      const [a, b] = [onFace(face, { x: 0, y: 0 }), onFace(face, { x: face.side!.length, y: 0 })];
      expect(Math.hypot(b.x - a.x, b.y - a.y)).toBeCloseTo(face.side!.length, 9);
      // The room's middle lies to the left of the way from the left end to the right one, seen from above … at its right.
      expect((b.x - a.x) * (1.5 - a.y) - (b.y - a.y) * (2 - a.x)).toBeLessThan(0);
      for (const x of [0, 0.3, 1.1, face.side!.length]) expect(faceX(face.side!, faceS(face.side!, x))).toBeCloseTo(x, 9);
    }
    const order = wallsRound(walls.map((f) => f.side!));
    expect(order.map((c) => [c.chain.length, c.closed])).toEqual([[4, true]]);
  });

  it('of the demo: regions have the area the walls say, and the floors that of their rooms', () => {
    const m = deriveModel(heronLockCottage());
    for (const level of m.shell.levels) {
      for (const face of level.faces) if (face.side) expect(totalArea(face.regions)).toBeCloseTo(face.side.area, 5);
      for (const r of level.rooms) expect(faceOf(m, `floor/${r.id}`)?.area ?? 0).toBeCloseTo(r.area, 6);
    }
  });
});

describe('patches', () => {
  it('net areas: a face is what is left of it and its patches, whatever overlaps what', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            at: fc.double({ min: 0, max: 4, noNaN: true }),
            base: fc.double({ min: -0.2, max: 2.4, noNaN: true }),
            width: fc.double({ min: 0.05, max: 3, noNaN: true }),
            height: fc.double({ min: 0.05, max: 2, noNaN: true }),
          }),
          { minLength: 1, maxLength: 5 },
        ),
        (list) => {
          let p = square();
          const wall = south(p);
          p = edit(p, 'opening.add', newOpening(p, { id: 'w', wall, kind: 'window', at: 2 }));
          p = edit(p, 'patch.put', {
            patches: list.map((shape, i) =>
              patch({ id: `p${i}`, order: i, on: { kind: 'wall', room: room(p), wall, side: 'left' }, shape: { kind: 'rectangle', ...shape } }),
            ),
          });
          const face = faceOf(deriveModel(p), `wall/${room(p)}/${wall}/left`);
          const laid = face.patches.reduce((sum, q) => sum + q.area, 0);
          expect(face.rest.area + laid).toBeCloseTo(face.area, 6);
          expect(face.area).toBeCloseTo(3.7 * 2.5 - 1.2 * 1.2, 6);
          for (const q of face.patches) {
            // Its front has its area; the rest of the body are its edges.
            expect(meshArea(q.mesh)).toBeGreaterThan(q.area - 1e-6);
            expect(q.area).toBeCloseTo(totalArea(q.regions), 9);
          }
        },
      ),
      { numRuns: 25, seed },
    );
  });

  it('a band round a room lies on all of its walls and leaves the doors free', () => {
    let p = square();
    p = edit(p, 'opening.add', newOpening(p, { id: 'd', wall: south(p), kind: 'door', at: 2 }));
    p = edit(p, 'patch.put', { patches: [patch({ on: { kind: 'walls', room: room(p) }, shape: { kind: 'band', from: 0, to: 1 } })] });
    const m = deriveModel(p);
    const sum = m.shell.levels[0].faces.flatMap((f) => f.patches).reduce((total, q) => total + q.area, 0);
    expect(sum).toBeCloseTo((2 * (3.7 + 2.7) - 0.992 - 2 * 0.06) * 1, 6);
  });

  it('panels: as many as were asked for, alike, within the patch', () => {
    const panels = { across: 3, up: 2, width: 0.5, margin: 0.1, gap: 0.08, profile: 'panel-ogee', moulding: null, field: null };
    const rings = panelRings(panels, [
      {
        outer: [
          { x: 0, y: 0 },
          { x: 3, y: 0 },
          { x: 3, y: 2 },
          { x: 0, y: 2 },
        ],
        holes: [],
      },
    ]);
    expect(rings).toHaveLength(6);
    const sizes = rings.map((r) => [r[1].x - r[0].x, r[2].y - r[1].y]);
    for (const [w, h] of sizes) {
      expect(w).toBeCloseTo((3 - 0.2 - 2 * 0.08) / 3, 9);
      expect(h).toBeCloseTo((2 - 0.2 - 0.08) / 2, 9);
    }
    expect(
      panelRings({ ...panels, across: null, width: 0.7 }, [
        {
          outer: [
            { x: 0, y: 0 },
            { x: 3, y: 0 },
            { x: 3, y: 2 },
            { x: 0, y: 2 },
          ],
          holes: [],
        },
      ]),
    ).toHaveLength(3 * 2);
  });

  it('panels: the moulding of each lies along the edges of that panel, whichever way the wall runs', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.double({ min: 3, max: 6, noNaN: true }),
        fc.integer({ min: 1, max: 5 }),
        (lean, width, across) => {
          let p = house([
            [0, 0],
            [width, lean],
            [width - 1, lean + 4],
            [-1, 4],
          ]);
          const panels = { across, up: 2, width: 0.5, margin: 0.1, gap: 0.08, profile: 'panel-ogee', moulding: null, field: null };
          p = edit(p, 'patch.put', { patches: [patch({ on: { kind: 'walls', room: room(p) }, shape: { kind: 'band', from: 0.1, to: 1.3 }, panels })] });
          const section = profileIn(p, 'panel-ogee')!;
          const wide = Math.max(...section.points.map((q) => q.y));
          const derived = deriveModel(p).shell.levels[0].faces.flatMap((f) => f.patches);
          expect(derived).toHaveLength(4);
          for (const { face, frames, panels: rings, thickness } of derived) {
            const mesh = frames!;
            const each = mesh.positions.length / rings.length;
            let [least, most, front] = [Infinity, -Infinity, Infinity];
            expect(volume(mesh)).toBeGreaterThan(0);
            expect(openEdges(mesh)).toBe(0);
            rings.forEach((ring, i) => {
              // Along the wall, up, and out of it.
              const side = face.side!;
              const [a, b] = [onFace(face, { x: 0, y: 0 }), onFace(face, { x: side.length, y: 0 })];
              const l = Math.hypot(b.x - a.x, b.y - a.y);
              const [ux, uy] = [(b.x - a.x) / l, (b.y - a.y) / l];
              const o = onFace(face, { x: 0, y: 0 }, 1);
              for (let k = i * each; k < (i + 1) * each; k += 3) {
                const [px, py, pz] = [mesh.positions[k] - a.x, mesh.positions[k + 1] - a.y, mesh.positions[k + 2] - a.z];
                const [x, out] = [px * ux + py * uy, px * (o.x - a.x) + py * (o.y - a.y)];
                const inside = Math.min(x - ring[0].x, ring[2].x - x, pz - ring[0].y, ring[2].y - pz);
                [least, most, front] = [Math.min(least, inside), Math.max(most, inside), Math.min(front, out)];
              }
            });
            expect(least).toBeCloseTo(0, 4);
            expect(most).toBeCloseTo(wide, 4);
            expect(front).toBeCloseTo(thickness, 4);
          }
        },
      ),
      { numRuns: 25, seed },
    );
  });

  it('sections of one’s own: whatever is shipped would be taken, crossed and flat ones are refused and nothing is lost', () => {
    const p = square();
    const put = (points: [number, number][]): Project =>
      edit(p, 'profile.put', { id: 'own', name: 'Own', use: 'rail', price: 1, points: points.map(([x, y]) => ({ x, y })) });
    for (const profile of PROFILES) expect(edit(p, 'profile.put', { ...profile, id: 'own' }).profiles.own.points).toEqual(profile.points);
    expect(() => put([[0, 0], [0.05, 0.05], [0.05, 0], [0.01, 0.05]])).toThrow('crosses itself'); // prettier-ignore
    expect(() => put([[0, 0], [0, 0.05]])).toThrow('crosses itself or has no height'); // prettier-ignore
    expect(() => put([[0, 0], [0.05, 0.001], [0, 0.001]])).toThrow('has no height'); // prettier-ignore
    expect(p.profiles).toEqual({});
  });

  it('goes with its wall when that is split and joined again', () => {
    let p = square();
    const wall = south(p);
    p = edit(p, 'patch.put', {
      patches: [patch({ on: { kind: 'wall', room: room(p), wall, side: 'left' }, shape: { kind: 'rectangle', at: 3, base: 0.5, width: 0.6, height: 0.6 } })],
    });
    const before = faceOf(deriveModel(p), `wall/${room(p)}/${wall}/left`).patches[0];
    p = edit(p, 'wall.split', { wall, at: [2] });
    const part = p.patches['patch-1'].on;
    expect(part.kind === 'wall' && part.wall).not.toBe(wall);
    const m = deriveModel(p);
    const after = m.shell.levels[0].faces.flatMap((f) => f.patches)[0];
    const middle = (q: typeof before) => onFace(q.face, { x: (q.regions[0].outer[0].x + q.regions[0].outer[2].x) / 2, y: 0.8 });
    expect(middle(after).x).toBeCloseTo(middle(before).x, 6);
    p = edit(p, 'wall.join', { a: wall, b: part.kind === 'wall' ? part.wall : '' });
    expect(middle(deriveModel(p).shell.levels[0].faces.flatMap((f) => f.patches)[0]).x).toBeCloseTo(middle(before).x, 6);
  });

  it('is refused in one sentence where it makes no sense', () => {
    const p = square();
    expect(() => edit(p, 'patch.put', { patches: [patch({ on: { kind: 'walls', room: room(p) }, shape: { kind: 'band', from: 1, to: 0.5 } })] })).toThrow(
      /upper edge/,
    );
    expect(() =>
      edit(p, 'patch.put', {
        patches: [
          patch({
            on: { kind: 'floor', room: room(p) },
            shape: {
              kind: 'polygon',
              points: [
                { x: 0, y: 0 },
                { x: 1, y: 1 },
                { x: 1, y: 0 },
                { x: 0, y: 1 },
              ],
            },
          }),
        ],
      }),
    ).toThrow(/crosses itself/);
  });
});

describe('mouldings', () => {
  it('of rooms along one wall: each ends with its room, whatever doors the wall has further on', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.8, max: 2.2, noNaN: true }), fc.subarray([0, 1, 2]), (at, doors) => {
        let p = house([[0, 0], [9, 0], [9, 3], [0, 3]]); // prettier-ignore
        for (const x of [3, 6]) p = draw(p, [[x, 0], [x, 3]]); // prettier-ignore
        const along = Object.values(p.walls).filter((w) => w.thickness === 0.3);
        for (const k of doors) {
          const here = 3 * k + at;
          const wall = along.find((w) => [w.start, w.end].every((c) => p.corners[c].y === 0) && within(p, w, here))!;
          const from = p.corners[wall.start].x;
          p = edit(p, 'opening.add', newOpening(p, { id: `d${k}`, wall: wall.id, kind: 'door', at: Math.abs(here - from), width: 0.9 }));
        }
        const rooms = Object.keys(p.rooms);
        expect(rooms).toHaveLength(3);
        p = edit(p, 'moulding.put', { mouldings: rooms.map((id) => moulding(p, 'skirting', 'skirting-plain', { id: `m-${id}`, room: id })) });
        const level = deriveModel(p).shell.levels[0];
        for (const made of level.mouldings) {
          const { region } = level.rooms.find((r) => r.id === made.moulding.room)!;
          const [xs, ys] = [region.outer.map((q) => q.x), region.outer.map((q) => q.y)];
          const [x0, x1] = [Math.min(...xs), Math.max(...xs)];
          const own = doors.filter((k) => 3 * k + at > x0 && 3 * k + at < x1).length;
          expect(made.length).toBeCloseTo(2 * (x1 - x0 + Math.max(...ys) - Math.min(...ys)) - own * (0.9 + 2 * 0.06), 6);
          for (const { mesh } of made.parts)
            for (let i = 0; i < mesh.positions.length; i += 3) {
              expect(mesh.positions[i]).toBeGreaterThan(x0 - 1e-5);
              expect(mesh.positions[i]).toBeLessThan(x1 + 1e-5);
            }
        }
      }),
      { numRuns: 25, seed },
    );
  });

  it('a section swept round four corners has the volume of its section times the way of its middle', () => {
    const section = closedSection(PROFILES.find((q) => q.id === 'skirting-low')!.points);
    // 12 × 60, inside a rectangle of 3 × 2: what is cut off at the corners follows from the mitres.
    const points = [
      [0, 0],
      [0, 2],
      [3, 2],
      [3, 0],
    ].map(([x, y]) => ({ x, y, z: 0 }));
    const mesh = sweep(
      section,
      points.map((from, i) => {
        const to = points[(i + 1) % 4];
        const d = { x: Math.sign(to.x - from.x), y: Math.sign(to.y - from.y) };
        return { from, to, out: { x: d.y, y: -d.x, z: 0 } };
      }),
      true,
    );
    expect(openEdges(mesh)).toBe(0);
    expect(volume(mesh)).toBeCloseTo((3 * 2 - (3 - 0.024) * (2 - 0.024)) * 0.06, 7);
  });

  it('runs round the room, stops at the door and turns in and out of its corners', () => {
    let p = house([
      [0, 0],
      [5, 0],
      [5, 4],
      [3, 4],
      [3, 2.5],
      [0, 2.5],
    ]);
    p = edit(p, 'opening.add', newOpening(p, { id: 'd', wall: south(p), kind: 'door', at: 2, architrave: 0.06 }));
    p = edit(p, 'moulding.put', { mouldings: [moulding(p, 'skirting', 'skirting-plain'), moulding(p, 'cornice', 'cornice-cove')] });
    const [skirting, cornice] = deriveModel(p).shell.levels[0].mouldings;
    const round = 2 * (4.7 + 3.7);
    expect(skirting.length).toBeCloseTo(round - 0.992 - 0.12, 6);
    expect([skirting.mitres, skirting.ends]).toEqual([6, 2]);
    expect(cornice.length).toBeCloseTo(round, 6);
    expect([cornice.mitres, cornice.ends]).toEqual([6, 0]);
    const solid = cornice.parts.map((q) => q.mesh);
    // Each part goes with its wall; together they are the section times the way, in and out of six corners.
    expect(new Set(cornice.parts.map((q) => q.wall)).size).toBe(6);
    expect(solid.every((mesh) => mesh.indices.length > 0)).toBe(true);
  });

  it('every section of the library is closed and swept to a solid, straight and round a corner', () => {
    for (const profile of PROFILES) {
      const section = closedSection(profile.points);
      const mesh = sweep(
        section,
        [
          { from: { x: 0, y: 0, z: 0 }, to: { x: 1, y: 0, z: 0 }, out: { x: 0, y: -1, z: 0 } },
          { from: { x: 1, y: 0, z: 0 }, to: { x: 1, y: -1, z: 0 }, out: { x: -1, y: 0, z: 0 } },
        ],
        false,
      );
      expect([profile.id, openEdges(mesh)]).toEqual([profile.id, 0]);
      expect(volume(mesh)).toBeGreaterThan(0);
    }
  });

  it('follows a raking ceiling and an arc', () => {
    let p = square();
    p = edit(p, 'wall.set', { wall: south(p), set: { top: { kind: 'raking', start: 2, end: 2.4, apex: null } } });
    p = edit(p, 'moulding.put', { mouldings: [moulding(p, 'cornice', 'cornice-small')] });
    const raking = deriveModel(p).shell.levels[0].mouldings[0];
    const along = Math.hypot(3.7, (0.4 * 3.7) / 4);
    expect(raking.length).toBeCloseTo(3.7 + 2 * 2.7 + along, 3);
    let round = house([
      [0, 0],
      [6, 0],
      [6, 5],
      [0, 5],
    ]);
    round = edit(round, 'wall.set', { wall: south(round), set: { bulge: 0.3 } });
    round = edit(round, 'moulding.put', { mouldings: [moulding(round, 'skirting', 'skirting-plain')] });
    const arc = deriveModel(round);
    const face = arc.shell.levels[0].faces.find((f) => f.side?.wall === south(round) && f.room)!;
    expect(arc.shell.levels[0].mouldings[0].length).toBeGreaterThan(face.side!.length + 5.7 + 2 * 4.7 - 0.8);
    expect(face.side!.length).toBeGreaterThan(5.7);
  });

  it('a larger section is the same section, larger', () => {
    const profile = profileIn({ profiles: {} }, 'cornice-cove')!;
    expect(sectionOf(profile, 0.16).depth).toBeCloseTo(sectionOf(profile, null).depth * 2, 9);
  });
});

describe('deriving again', () => {
  it('a patch that is dragged makes the faces of its room anew and no others', () => {
    const p = heronLockCottage();
    const kitchen = Object.values(p.rooms).find((r) => r.name === 'Kitchen & dining')!;
    const deriver = new Deriver();
    const before = deriver.derive(p);
    const put = (height: number) =>
      edit(p, 'patch.put', { patches: [patch({ on: { kind: 'walls', room: kitchen.id }, shape: { kind: 'band', from: 0.9, to: height } })] });
    deriver.derive(put(1.2));
    const after = deriver.derive(put(1.3));
    expect(deriver.made).toBeLessThan(6);
    for (const level of after.shell.levels)
      for (const face of level.faces) if (face.room !== kitchen.id) expect(before.shell.levels.flatMap((l) => l.faces).some((f) => f === face)).toBe(true);
  });
});
