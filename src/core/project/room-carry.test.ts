import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '../demo/heron-lock';
import { insideRegion } from '../geometry/polygon';
import { distance } from '../geometry/vec';
import { deriveModel } from '../model/derive';
import { draw, edit, house } from '../testing/drafting';
import { validateProject } from './commands';
import { newOpening } from './opening-defaults';
import type { RoomCarry } from './room-carry';
import type { Project } from './schema';

const WAYS: RoomCarry[] = ['mirror-x', 'mirror-y', 'half-turn'];
const demo = heronLockCottage();
const room = (project: Project, name: string): string => Object.values(project.rooms).find((r) => r.name === name)!.id;
const regionOf = (project: Project, id: string) => deriveModel(project).shell.rooms.get(id)!.region;
const piecesIn = (project: Project, id: string): string[] => {
  const { level } = project.rooms[id];
  const region = regionOf(project, id);
  return Object.values(project.pieces)
    .filter((p) => p.level === level && insideRegion(p, region))
    .map((p) => p.id);
};
/** Distance of a point from the nearest edge of a ring. */
const away = (p: { x: number; y: number }, ring: { x: number; y: number }[]): number =>
  Math.min(
    ...ring.map((a, i) => {
      const b = ring[(i + 1) % ring.length];
      const l = distance(a, b);
      const t = Math.max(0, Math.min(1, ((p.x - a.x) * (b.x - a.x) + (p.y - a.y) * (b.y - a.y)) / (l * l)));
      return distance(p, { x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t });
    }),
  );

describe('a room mirrored or turned by half', () => {
  it.each(['Bedroom', 'Living', 'Hall', 'Workshop', 'Bathroom'].flatMap((name) => WAYS.map((how) => [name, how] as const)))(
    '%s of the demo, %s',
    (name, how) => {
      const id = room(demo, name);
      const after = edit(demo, 'room.carry', { room: id, how });
      validateProject(after);
      // Its outline stays, and the rooms round it.
      const [was, is] = [deriveModel(demo), deriveModel(after)];
      for (const [other, own] of was.shell.rooms) expect(is.shell.rooms.get(other)!.area).toBeCloseTo(own.area, 6);
      // What stands in it stands as far from the walls as before: from the faces, not from lines within walls of unequal thickness.
      const ring = regionOf(demo, id).outer;
      for (const piece of piecesIn(demo, id)) {
        expect(insideRegion(after.pieces[piece], { outer: ring, holes: [] })).toBe(true);
        expect(away(after.pieces[piece], ring)).toBeCloseTo(away(demo.pieces[piece], ring), 4);
      }
      // What stands in the same walls beyond the room stays.
      const own = new Set([...was.shell.openings.values()].filter((o) => o.rooms.left === id || o.rooms.right === id).map((o) => o.id));
      for (const opening of Object.values(demo.openings)) if (!own.has(opening.id)) expect(after.openings[opening.id]).toEqual(opening);
      for (const opening of own) expect([is.shell.openings.get(opening)!.rooms.left, is.shell.openings.get(opening)!.rooms.right]).toContain(id);
      // Twice is not at all.
      const back = edit(after, 'room.carry', { room: id, how });
      for (const piece of piecesIn(demo, id)) expect(distance(back.pieces[piece], demo.pieces[piece])).toBeLessThan(1e-6);
      // A door that is kept within the clear stretch of its wall may come to stand a little aside.
      for (const opening of own) expect(Math.abs(back.openings[opening].at - demo.openings[opening].at)).toBeLessThan(0.05);
    },
  );

  it('names what cannot follow', () => {
    expect(() => edit(demo, 'room.carry', { room: room(demo, 'Kitchen & dining'), how: 'mirror-x' })).toThrow(/W4 Kitchen east was not changed/);
  });

  it('says which way would do where the outline is no mirror of itself', () => {
    // Trapezoidal: only left and right are alike.
    let project = house([
      [0, 0],
      [6, 0],
      [5, 4],
      [1, 4],
    ]);
    project = draw(project, [
      [0, 0],
      [0, -3],
      [6, -3],
      [6, 0],
    ]);
    const upper = [...deriveModel(project).shell.rooms.values()].sort((a, b) => b.label.y - a.label.y)[0].id;
    expect(() => edit(project, 'room.carry', { room: upper, how: 'half-turn' })).toThrow(/it can be mirrored left–right\.$/);
    expect(validateProject(edit(project, 'room.carry', { room: upper, how: 'mirror-x' }))).toBeTruthy();
    expect(() => edit(demo, 'room.carry', { room: room(demo, 'Shower room'), how: 'mirror-x' })).toThrow(/its outline is another from every side\.$/);
  });

  it('carries a door across a wall of a room between walls of unequal thickness', () => {
    let project = house([
      [0, 0],
      [8, 0],
      [8, 4],
      [0, 4],
    ]);
    project = draw(project, [
      [5, 0],
      [5, 4],
    ]);
    const [left] = [...deriveModel(project).shell.rooms.values()].sort((a, b) => a.label.x - b.label.x);
    const wall = Object.values(project.walls).find((w) => w.thickness === 0.1)!.id;
    project = edit(project, 'opening.add', newOpening(project, { id: 'd', wall, kind: 'door', at: 1 }));
    const after = edit(project, 'room.carry', { room: left.id, how: 'mirror-y' });
    expect(after.openings.d.wall).toBe(wall);
    expect(after.openings.d.at).toBeCloseTo(3, 6);
    expect(after.openings.d.hinge).not.toBe(project.openings.d.hinge);
  });
});
