import { describe, expect, it } from 'vitest';
import { deriveModel } from '../model/derive';
import { bodyOf } from '../model/model';
import { pieceFrom, stockItem } from '../stock/stock';
import { areas, box, draw, edit, wallBy } from '../testing/drafting';
import { newOpening } from './opening-defaults';
import { inPhase } from './phase';
import { type Project } from './schema';

describe('a room with all that stands in it', () => {
  const showerRoom = (): Project => {
    let project = draw(box(6, 3), [
      [2.4, 0],
      [2.4, 3],
    ]);
    const partition = wallBy(project, [2.4, 0], [2.4, 3]);
    project = edit(project, 'opening.add', newOpening(project, { id: 'd', wall: partition, kind: 'door', at: 0.8 }));
    project = edit(project, 'opening.add', newOpening(project, { id: 'w', wall: wallBy(project, [0, 0], [6, 0]), kind: 'window', at: 0.9, width: 0.6 }));
    const wc = { ...pieceFrom(stockItem('wc')!, 'wc', project.levels.ground, { x: 0.5, y: 2.4 }), rotation: Math.PI / 2 };
    return edit(project, 'piece.add', { pieces: [wc] });
  };
  const roomAt = (p: Project, x: number): string => Object.values(p.rooms).find((r) => r.anchor.x < 2.4 === x < 2.4)!.id;

  it('is mirrored within its walls', () => {
    const project = showerRoom();
    const next = edit(project, 'room.carry', { room: roomAt(project, 1), how: 'mirror-y' });
    expect(next.walls).toEqual(project.walls);
    // Front to back: the door from 0.8 to 2.2 along the partition, the window from the south into the north wall.
    expect(deriveModel(next).shell.openings.get('d')!.point.y).toBeCloseTo(2.2, 6);
    expect(deriveModel(next).shell.openings.get('w')!.point.y).toBeCloseTo(3, 6);
    expect(next.pieces.wc.y).toBeCloseTo(0.6, 6);
    const back = edit(next, 'room.carry', { room: roomAt(project, 1), how: 'mirror-y' });
    expect(back.pieces.wc).toMatchObject({ x: expect.closeTo(0.5), y: expect.closeTo(2.4) });
    expect(Math.sin(back.pieces.wc.rotation)).toBeCloseTo(1, 6);
  });

  it('is turned by half, and refused a quarter where others share its walls', () => {
    const project = showerRoom();
    const next = edit(project, 'room.carry', { room: roomAt(project, 1), how: 'half-turn' });
    // From face to face: the outer wall reaches 150 mm into its line, the partition 50 mm.
    expect(next.pieces.wc.x).toBeCloseTo(0.15 + 2.35 - 0.5, 6);
    expect(() => edit(project, 'room.carry', { room: roomAt(project, 1), how: 'quarter-turn' })).toThrow('share its walls');
    const alone = box(3, 2);
    expect(areas(edit(alone, 'room.carry', { room: Object.keys(alone.rooms)[0], how: 'quarter-turn' }))[0]).toBeCloseTo(areas(alone)[0], 9);
  });
});

describe('boundaries', () => {
  it('part an open plan into rooms that share its area out', () => {
    const plain = box();
    const [whole] = areas(plain);
    const [first] = Object.keys(plain.rooms);
    const parted = draw(
      plain,
      [
        [2, 0],
        [2, 4],
      ],
      { kind: 'boundary' },
    );
    expect(areas(parted).reduce((a, b) => a + b, 0)).toBeCloseTo(whole, 9);
    expect(parted.rooms[first]).toBeDefined();
    const model = deriveModel(parted);
    const boundary = Object.values(parted.walls).find((w) => w.kind === 'boundary')!;
    expect(model.shell.walls.get(boundary.id)!.sides).toEqual([]);
    expect(() => edit(parted, 'opening.add', newOpening(parted, { id: 'd', wall: boundary.id, kind: 'door', at: 2 }))).toThrow('nothing is built');
    expect(areas(edit(parted, 'delete', { ids: [boundary.id] }))).toEqual([expect.closeTo(whole)]);
  });

  it('close the step between floors of different height', () => {
    let project = draw(
      box(),
      [
        [2, 0],
        [2, 4],
      ],
      { kind: 'boundary' },
    );
    const [room] = Object.keys(project.rooms);
    project = edit(project, 'room.set', { room, set: { step: -0.3, cover: { kind: 'flat', height: 2.2 } } });
    const boundary = Object.values(project.walls).find((w) => w.kind === 'boundary')!.id;
    const risers = bodyOf(deriveModel(project), boundary)!.parts;
    expect(risers.map((p) => p.sort).sort()).toEqual(['ceiling', 'floor']);
    const heights = (i: number): number[] => [...risers[i].mesh.positions].filter((_, k) => k % 3 === 2);
    expect(Math.max(...heights(0)) - Math.min(...heights(0))).toBeCloseTo(0.3, 5);
  });
});

describe('status', () => {
  it('tells the house as it stands from the house as it will be', () => {
    let project = draw(
      box(6, 4, { status: 'existing' }),
      [
        [3, 0],
        [3, 4],
      ],
      { status: 'existing' },
    );
    const partition = wallBy(project, [3, 0], [3, 4]);
    project = edit(project, 'opening.add', newOpening(project, { id: 'd', wall: partition, kind: 'door', at: 2, status: 'existing' }));
    const names = Object.keys(project.rooms);
    const merged = edit(project, 'status.set', { ids: [partition], status: 'removed' });
    expect(merged.openings.d.status).toBe('removed');
    expect(deriveModel(merged).shell.rooms.size).toBe(1);
    const gone = Object.values(merged.rooms).find((r) => r.status === 'removed')!;
    expect(names).toContain(gone.id);
    expect(Object.keys(inPhase(merged, 'before').walls)).toHaveLength(5);
    expect(Object.keys(inPhase(merged, 'after').walls)).toHaveLength(4);
    // Wanted back after all, the room comes back as what it was.
    const back = edit(merged, 'status.set', { ids: [partition], status: 'existing' });
    expect(Object.keys(back.rooms).sort()).toEqual(names.sort());
    expect(back.rooms[gone.id].status).toBe('existing');
  });

  it('lets a new door stand where an old one goes', () => {
    let project = box(6, 4, { status: 'existing' });
    const wall = wallBy(project, [0, 0], [6, 0]);
    project = edit(project, 'opening.add', newOpening(project, { id: 'old', wall, kind: 'door', at: 3, status: 'existing' }));
    const fresh = newOpening(project, { id: 'new', wall, kind: 'door', at: 3.2 });
    expect(() => edit(project, 'opening.add', fresh)).toThrow('overlap');
    project = edit(project, 'status.set', { ids: ['old'], status: 'removed' });
    expect(edit(project, 'opening.add', fresh).openings.new.at).toBe(3.2);
  });
});
