import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '../demo/heron-lock';
import { deriveModel } from './derive';
import { partsOf } from './model';
import { insideRegion } from '../geometry/polygon';
import type { Vec3 } from '../geometry/vec';
import { house } from '../testing/drafting';
import { FIRST_LOOK } from '../project/looks';
import { coveringsOf, cutAway, insideRoom, type Looking, type Seen } from './cut-away';

const project = house([
  [0, 0],
  [4, 0],
  [4, 3],
  [0, 3],
]);
const model = deriveModel(project);
const [room] = Object.keys(project.rooms);
const from = (eye: Vec3, more: Partial<Looking> = {}): Looking => ({
  look: FIRST_LOOK,
  eye,
  level: 'ground',
  room: null,
  afoot: false,
  chosen: new Set(),
  ...more,
});
const none = coveringsOf(model);
const wallsGone = (looking: Looking, of = model): string[] =>
  [...of.shell.walls.keys()].filter((id) => !cutAway(of, coveringsOf(of), looking).shows({ entity: id, sort: 'wall' as const, level: 'ground' }));
/** The middle of a wall, told by its sides. */
const middle = (id: string) => {
  const { from: a, to: b } = model.shell.walls.get(id)!.sides[0];
  return { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
};

describe('what is cut away', () => {
  it('are the outer walls that turn their face to the eye, and no others', () => {
    // From the south-east: the walls nearest to y = 0 and x = 4.
    const gone = wallsGone(from({ x: 9, y: -6, z: 6 }));
    expect(gone).toHaveLength(2);
    for (const id of gone) expect(middle(id).y < 0.5 || middle(id).x > 3.5).toBe(true);
    expect(wallsGone(from({ x: 2, y: -9, z: 6 }))).toHaveLength(1);
    expect(wallsGone(from({ x: 9, y: -6, z: 6 }, { look: { ...FIRST_LOOK, cut: false } }))).toEqual([]);
  });

  it('is nothing while one stands in a room', () => {
    const eye = { x: 2, y: 1.5, z: 1.6 };
    expect(insideRoom(model, from(eye))).toBe(true);
    expect(insideRoom(model, from({ ...eye, z: 6 }))).toBe(false);
    expect(insideRoom(model, from({ ...eye, x: 9 }))).toBe(false);
    expect(wallsGone(from(eye))).toEqual([]);
    expect(cutAway(model, none, from(eye)).shows({ entity: room, sort: 'ceiling' as const, level: 'ground' })).toBe(true);
  });

  it('takes ceilings and roofs off from above, but what is chosen stays', () => {
    const above = from({ x: 9, y: -6, z: 8 });
    const ceiling = { entity: room, sort: 'ceiling' as const, level: 'ground' };
    expect(cutAway(model, none, above).shows(ceiling)).toBe(false);
    expect(cutAway(model, none, { ...above, chosen: new Set([room]) }).shows(ceiling)).toBe(true);
    expect(cutAway(model, none, { ...above, chosen: new Set(['r']) }).shows({ entity: 'r', sort: 'roof' as const, level: 'ground' })).toBe(false);
    expect(cutAway(model, none, from({ x: 9, y: -6, z: 1 })).shows(ceiling)).toBe(true);
  });

  it('hides what is hidden by name, by level or by kind, and leaves a low rest of walls', () => {
    const [wall] = wallsGone(from({ x: 2, y: -9, z: 6 }));
    const { stub } = cutAway(model, none, from({ x: 2, y: -9, z: 6 }));
    expect(stub(wall, 'ground')).toBe(true);
    for (const id of model.shell.walls.keys()) if (id !== wall) expect(stub(id, 'ground')).toBe(false);
    const part = { entity: room, sort: 'floor' as const, level: 'ground' };
    const seen = (hidden: string[]) => cutAway(model, none, from({ x: 9, y: -6, z: 8 }, { look: { ...FIRST_LOOK, hidden } })).shows(part);
    expect([[], [room], ['ground'], ['all/floor'], ['all/wall']].map(seen)).toEqual([true, false, false, false, true]);
    const out = deriveModel({ ...project, contents: { ...project.contents, hidden: [room] } });
    expect(cutAway(out, none, from({ x: 9, y: -6, z: 8 })).shows(part)).toBe(false);
  });
});

describe('what is cut away in a house of two storeys', () => {
  const cottage = deriveModel(heronLockCottage());
  const coverings = coveringsOf(cottage);
  const [lower, upper] = cottage.shell.levels.map((l) => l.id);
  const eye = { x: 14, y: -10, z: 12 };
  const below = cutAway(cottage, coverings, from(eye, { level: lower }));
  const whole = cutAway(cottage, coverings, from(eye, { level: upper }));
  const parts = [...partsOf(cottage)]
    .filter(([body]) => body.level !== null)
    .map(([body, p]): Seen => ({ entity: body.id, sort: p.sort, level: p.level ?? body.level, host: p.host }));

  it('is all that lies above the level in hand', () => {
    expect(parts.some((p) => p.level === upper && below.shows(p))).toBe(false);
    expect(parts.some((p) => p.level === upper && p.sort === 'floor' && whole.shows(p))).toBe(true);
    expect(parts.some((p) => p.level === lower && p.sort === 'floor' && below.shows(p))).toBe(true);
  });

  it('are openings and what hangs on a wall together with it', () => {
    for (const part of parts.filter((p) => p.sort === 'opening' && p.level === lower)) {
      const wall = part.host ?? cottage.project.openings[part.entity]?.wall;
      if (wall && !below.shows({ entity: wall, sort: 'wall' as const, level: lower })) expect(below.shows(part)).toBe(false);
    }
    expect(coverings.hosts.size).toBeGreaterThan(0);
    for (const [piece, wall] of coverings.hosts) {
      const { level } = cottage.project.pieces[piece];
      if (level === lower && !below.shows({ entity: wall, sort: 'wall' as const, level }))
        expect(below.shows({ entity: piece, sort: 'piece' as const, level })).toBe(false);
    }
  });

  it('opens the walls towards a room in hand, also those within the house', () => {
    const kitchen = Object.values(cottage.project.rooms).find((r) => r.name === 'Kitchen & dining')!;
    const region = cottage.shell.rooms.get(kitchen.id)!.region;
    const inner = [...cottage.shell.walls.values()].filter((w) => w.sides.every((s) => s.room !== null) && w.sides.some((s) => s.room === kitchen.id));
    const gone = (looking: Looking) => inner.filter((w) => !cutAway(cottage, coverings, looking).shows({ entity: w.id, sort: 'wall' as const, level: lower }));
    const sides = [
      [14, -10],
      [-10, -10],
      [-10, 14],
      [14, 14],
    ].map(([x, y]) => gone(from({ x, y, z: 9 }, { level: lower, room: kitchen.id })).length);
    expect(insideRegion(kitchen.anchor, region)).toBe(true);
    expect(Math.max(...sides)).toBeGreaterThan(0);
    expect(gone(from({ x: 14, y: -10, z: 9 }, { level: lower }))).toHaveLength(0);
  });

  it('what is hidden leaves no low wall behind', () => {
    const eye = { x: -8, y: -8, z: 12 };
    const looking = from(eye);
    const cutWalls = [...model.shell.walls.keys()].filter((id) => cutAway(model, none, looking).stub(id, 'ground'));
    expect(cutWalls.length).toBeGreaterThan(0);
    const hidden = (...ids: string[]) => ({ ...model, project: { ...model.project, contents: { ...model.project.contents, hidden: ids } } });
    const [first, second] = cutWalls;
    expect([first, second].map((id) => cutAway(hidden(first), none, looking).stub(id, 'ground'))).toEqual([false, second !== undefined]);
    expect(cutWalls.some((id) => cutAway(hidden('ground'), none, looking).stub(id, 'ground'))).toBe(false);
    expect(cutWalls.some((id) => cutAway(model, none, from(eye, { look: { ...FIRST_LOOK, hidden: ['all/wall'] } })).stub(id, 'ground'))).toBe(false);
  });
});
