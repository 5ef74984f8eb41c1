import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '../demo/heron-lock';
import { sparseCottage } from '../testing/cottage';
import { deriveModel } from '../model/derive';
import { finishLrv, meanHex } from '../finishes/finish';
import { finishById, offered } from '../finishes/library';
import { inHues } from '../finishes/match';
import { newSlab, newVoid, rectangleOf } from '../project/built-defaults';
import type { Project } from '../project/schema';
import { newGuard, newStair } from '../project/stairs';
import { newOpening } from '../project/opening-defaults';
import { draw, edit, house, wallAt } from '../testing/drafting';
import { findings } from './findings';

const found = (change: (p: Project) => void): string[] => {
  const project = structuredClone(heronLockCottage());
  change(project);
  return findings(deriveModel(project)).map((f) => f.code);
};
const base = found(() => undefined);

describe('findings', () => {
  it('names doors too narrow for a wheelchair, in the units of the project', () => {
    const list = findings(deriveModel(heronLockCottage()));
    expect(list.filter((f) => f.code === 'door.narrow').map((f) => f.message)).toEqual([
      'Living door: 798 clear when open; a wheelchair wants 815.',
      'Workshop door: 798 clear when open; a wheelchair wants 815.',
      'Bedroom door: 798 clear when open; a wheelchair wants 815.',
      'Bathroom door: 798 clear when open; a wheelchair wants 815.',
    ]);
    expect(findings(deriveModel({ ...heronLockCottage(), units: 'imperial' }))[0].message).toContain(`2'-8 1/16"`);
  });

  it.each([
    ['finish.bare', (p: Project) => void (Object.values(p.rooms)[0].floor = null)],
    ['room.no-door', (p: Project) => void (p.openings = {})],
    ['piece.unknown', (p: Project) => void (Object.values(p.pieces)[0].maker = 'harpsichord')],
    ['piece.in-wall', (p: Project) => void (Object.values(p.pieces).find((x) => x.maker === 'sofa')!.y = 3.1)],
    ['finish.unknown', (p: Project) => void (Object.values(p.rooms)[0].floor = 'timber.lost-oak')],
  ])('finds %s', (code, change) => {
    expect(base).not.toContain(code);
    const list = found(change);
    expect(list).toContain(code);
  });

  it('says every finding in one sentence with its place', () => {
    for (const f of findings(deriveModel(heronLockCottage()))) {
      expect(f.message).toMatch(/^[A-Z].*\.$/);
      expect(f.ids.length).toBeGreaterThan(0);
    }
  });
});

describe('a door as it is first placed', () => {
  it.each(['metric', 'imperial'] as const)('passes the checks, hinged, sliding, in two leaves or halves: %s', (units) => {
    const base = {
      ...house([
        [0, 0],
        [9, 0],
        [9, 7],
        [0, 7],
      ]),
      units,
    };
    const wall = wallAt(base, (a, b) => a.y === 0 && b.y === 0);
    for (const form of ['hinged', 'stable', 'sliding', 'pocket', 'pair', 'unequal', 'bifold'] as const) {
      const project = edit(base, 'opening.add', newOpening(base, { id: 'd', wall, kind: 'door', form, at: 4 }));
      expect(findings(deriveModel(project)).filter((f) => f.code === 'door.narrow')).toEqual([]);
    }
  });
});

describe('walls over holes', () => {
  it('are found where they cross one, and not along its edge', () => {
    let project = house([
      [0, 0],
      [9, 0],
      [9, 7],
      [0, 7],
    ]);
    project = edit(project, 'void.put', newVoid(project, { id: 'v', level: 'ground', points: rectangleOf({ x: 3, y: 2 }, { x: 5, y: 5 }) }));
    const found = (p: Project): string[] =>
      findings(deriveModel(p))
        .filter((f) => f.code === 'wall.over-void')
        .flatMap((f) => f.ids);
    expect(found(project)).toEqual([]);
    const beside = draw(project, [
      [3, 2],
      [3, 5],
    ]);
    expect(found(beside)).toEqual([]);
    const across = draw(project, [
      [2, 3],
      [6, 3],
    ]);
    expect(found(across)).toEqual([wallAt(across, (a, b) => a.y === 3 && b.y === 3)]);
  });
});

describe('two floors at one height', () => {
  it('are told where they lie in one another, and not where a building stands apart', () => {
    const corners: [number, number][] = [
      [0, 0],
      [6, 0],
      [6, 5],
      [0, 5],
    ];
    const one = edit(house(corners), 'level.add', { id: 'shed', name: 'Shed', of: 'ground', where: 'apart', walls: 'none', height: 2.4, slab: 0.2 });
    const level = one.levels.ground.elevation;
    const told = (x: number, elevation: number): string[] => {
      const moved = edit(one, 'level.set', { id: 'shed', set: { elevation } });
      const p = draw(
        moved,
        corners.map(([a, b]) => [a + x, b] as [number, number]),
        { closed: true, level: 'shed' },
      );
      return findings(deriveModel(p))
        .filter((f) => f.code === 'level.one-height')
        .map((f) => f.message);
    };
    expect(told(2, level)).toEqual(['The floors of Ground and Shed lie at one height, one in the other; move one of them.']);
    expect(told(20, level)).toEqual([]);
    expect(told(2, level + 3)).toEqual([]);
  });
});

describe('findings upwards', () => {
  const codes = (project: Project): string[] => findings(deriveModel(project)).map((f) => f.code);

  it('of stairs, voids and slabs name what is wrong, and are gone once it is right', () => {
    let project = house([
      [0, 0],
      [9, 0],
      [9, 7],
      [0, 7],
    ]);
    project = edit(project, 'level.add', { id: 'upper', name: 'Upper', of: 'ground', where: 'above', walls: 'all', height: 2.4, slab: 0.25 });
    expect(codes(project)).toContain('level.no-stair');
    const stair = newStair(project, { id: 's', level: 'ground', x: 4, y: 1 });
    project = edit(project, 'stair.put', stair);
    expect(codes(project).filter((c) => c.startsWith('stair.') || c === 'level.no-stair')).toEqual([]);
    expect(codes(edit(project, 'stair.put', { ...stair, risers: 10 }))).toEqual(expect.arrayContaining(['stair.rise', 'stair.going']));
    expect(codes(edit(project, 'stair.put', { ...stair, void: 'none' }))).toContain('stair.headroom');
    expect(codes(edit(project, 'stair.put', { ...stair, x: 0.1 }))).toContain('stair.in-wall');
    expect(codes(edit(project, 'stair.put', { ...stair, left: newGuard(), right: { ...newGuard(), height: 0.6 } }))).toContain('stair.handrail');
    // With the level above it gone it leads nowhere; it is said, and kept.
    const alone = edit(project, 'level.delete', { id: 'upper' });
    expect(codes(alone)).toContain('stair.nowhere');
    expect(alone.stairs.s).toEqual(stair);
    const hole = newVoid(project, { id: 'v', level: 'upper', points: rectangleOf({ x: 6, y: 2 }, { x: 8, y: 4 }) });
    expect(codes(edit(project, 'void.put', { ...hole, guard: null }))).toContain('void.open');
    expect(codes(edit(project, 'void.put', hole))).not.toContain('void.open');
    const slab = newSlab(project, { id: 'b', level: 'upper', kind: 'balcony', points: rectangleOf({ x: 9.3, y: 2 }, { x: 10.5, y: 5 }) });
    expect(codes(edit(project, 'slab.put', slab))).not.toContain('slab.open');
    expect(codes(edit(project, 'slab.put', { ...slab, guard: null }))).toContain('slab.open');
    for (const f of findings(deriveModel(edit(project, 'stair.put', { ...stair, risers: 10, x: 0.1 })))) expect(f.message).toMatch(/^[A-Z].*\.$/);
  });
});

describe('findings of finishes', () => {
  const demo = sparseCottage();
  const room = Object.values(demo.rooms).find((r) => r.name === 'Living')!;
  const lrv = (id: string): number => finishLrv(finishById(id));
  const paints = offered.filter((f) => f.category === 'Paint').map((f) => f.id);
  /** The demo with one room painted. */
  const painted = (floor: string, walls: string): Project => ({ ...demo, rooms: { ...demo.rooms, [room.id]: { ...room, floor, walls, faces: {} } } });
  const of = (project: Project, code: string) => findings(deriveModel(project)).filter((f) => f.code === code);

  it('tell floor and walls that are hard to tell apart, by the difference of their light reflectance', () => {
    fc.assert(
      fc.property(fc.constantFrom(...paints), fc.constantFrom(...paints), (floor, walls) => {
        const [found] = of(painted(floor, walls), 'contrast.floor').filter((f) => f.ids[0] === room.id);
        expect(found !== undefined).toBe(Math.abs(lrv(floor) - lrv(walls)) < 30);
        if (!found) return;
        expect(found.message).toContain(`floor (LRV ${lrv(floor).toFixed(0)}) and walls (LRV ${lrv(walls).toFixed(0)})`);
        // It leads to the very surface.
        expect(found.target).toEqual({ kind: 'floor', room: room.id });
      }),
      { numRuns: 12 },
    );
  });

  it('tell doors that are hard to find in their wall, each once', () => {
    const light = paints.reduce((a, b) => (lrv(a) > lrv(b) ? a : b));
    const dark = paints.reduce((a, b) => (lrv(a) < lrv(b) ? a : b));
    const door = Object.values(demo.openings).find((o) => o.name === 'Living door')!;
    const withDoor = (leaf: string): Project => ({
      ...painted(dark, light),
      openings: { ...demo.openings, [door.id]: { ...door, finishes: { ...door.finishes, leaf } } },
    });
    const found = of(withDoor(light), 'contrast.door').filter((f) => f.ids[0] === door.id);
    expect(found).toHaveLength(1);
    expect(found[0].message).toContain(`Living door (LRV ${lrv(light).toFixed(0)}) stands in a wall of Living (LRV ${lrv(light).toFixed(0)})`);
    // On its other side it stands in a wall of the hall, which is light too.
    expect(of(withDoor(dark), 'contrast.door').filter((f) => f.ids[0] === door.id)).toEqual([]);
  });

  it('tell a finish that is not shown at its real size', () => {
    const { address } = deriveModel(demo)
      .shell.levels.flatMap((l) => l.faces)
      .find((f) => f.room === room.id && f.kind === 'floor')!;
    const laid = (scale: number): Project => ({
      ...demo,
      layings: { ...demo.layings, [address]: { laying: null, start: 'even', origin: { x: 0, y: 0 }, rotation: 0, scale } },
    });
    expect(of(laid(1), 'finish.scaled')).toEqual(of(demo, 'finish.scaled'));
    const found = of(laid(1.25), 'finish.scaled').find((f) => f.ids[0] === room.id)!;
    expect(found.message).toMatch(/^Living, floor: .* is shown at 125 % of its real size\.$/);
  });

  it('tell what the client does not care for, once a finish, with its place', () => {
    const blue = paints.find((id) => inHues(meanHex(finishById(id)), { from: 200, to: 260 }))!;
    const dislikes = [{ name: 'Blues', from: 200, to: 260 }];
    const list = of({ ...painted(blue, blue), dislikes }, 'finish.disliked');
    const own = list.filter((f) => f.message.startsWith(finishById(blue).name));
    expect(own.map((f) => f.message)).toEqual([expect.stringMatching(/\(Living, .*\): the client does not care for blues\.$/)]);
    expect(own[0].ids).toEqual([room.id]);
    expect(of({ ...painted(blue, blue), dislikes: [] }, 'finish.disliked')).toEqual([]);
    // A grey has no hue to dislike.
    expect(of({ ...demo, dislikes: [{ name: 'Everything', from: 0, to: 360 }] }, 'finish.disliked').length).toBeGreaterThan(2);
  });
});
