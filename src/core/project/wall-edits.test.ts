import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { deriveModel } from '../model/derive';
import { distance } from '../geometry/vec';
import { areas, box, draw, edit, wallBy } from '../testing/drafting';
import { shapeOutline } from './drafting';
import { newOpening } from './opening-defaults';
import { emptyProject, WALL_TYPES } from './schema';
import { arcOf, bulgeThrough, wallLength, wallThickness } from './wall-line';
import { runOf } from './wall-meeting';

describe('walls drawn along a face', () => {
  it('give a room its typed inside size whatever they are built of', () => {
    for (const type of WALL_TYPES) {
      const thick = wallThickness({ wallTypes: { [type.id]: type } }, { kind: 'wall', type: type.id } as never);
      const project = box(5, 3.4, { type: type.id, thickness: null, offset: -thick / 2 });
      expect(areas(project)[0]).toBeCloseTo(5 * 3.4, 9);
      const outside = box(5, 3.4, { type: type.id, thickness: null, offset: thick / 2 });
      expect(areas(outside)[0]).toBeCloseTo((5 - 2 * thick) * (3.4 - 2 * thick), 9);
    }
  });

  it('join at their faces where walls of different offset meet', () => {
    let project = box(6, 4, { offset: -0.15 });
    project = draw(project, [
      [2, 0],
      [2, 4],
    ]);
    expect(areas(project)).toEqual([expect.closeTo(1.95 * 4), expect.closeTo(3.95 * 4)]);
  });

  it('close the starter shapes with the areas one works out by hand', () => {
    for (const [shape, share] of [
      ['rectangle', 1],
      ['L', 0.75],
      ['T', 2 / 3],
      ['U', 0.8],
    ] as const) {
      const project = edit(emptyProject('p', 'P'), 'wall.draw', {
        level: 'ground',
        points: shapeOutline(shape, 6, 5),
        closed: true,
        thickness: 0.2,
        offset: -0.1,
      });
      expect(areas(project)[0]).toBeCloseTo(30 * share, 6);
    }
    const bay = edit(emptyProject('p', 'P'), 'wall.draw', { level: 'ground', points: shapeOutline('bay', 4, 3), closed: true, thickness: 0.2, offset: -0.1 });
    expect(areas(bay)[0]).toBeGreaterThan(12 + 0.8 * 1.0);
  });
});

describe('arcs', () => {
  it('pass through the point they are drawn through, with the radius of its circle', () => {
    fc.assert(
      fc.property(fc.double({ min: -0.95, max: 0.95, noNaN: true }), (bulge) => {
        fc.pre(Math.abs(bulge) > 0.02);
        const [a, b] = [
          { x: 0, y: 0 },
          { x: 4, y: 1 },
        ];
        const { centre, radius, angle } = arcOf(a, b, bulge);
        expect(distance(centre, a)).toBeCloseTo(radius, 9);
        expect(distance(centre, b)).toBeCloseTo(radius, 9);
        const start = Math.atan2(a.y - centre.y, a.x - centre.x);
        const p = { x: centre.x + radius * Math.cos(start + angle * 0.3), y: centre.y + radius * Math.sin(start + angle * 0.3) };
        expect(bulgeThrough(a, b, p)).toBeCloseTo(bulge, 6);
      }),
    );
  });

  it('enclose the area of their circle segment', () => {
    let project = draw(emptyProject('p', 'P'), [
      [0, 0],
      [4, 0],
    ]);
    project = edit(project, 'wall.draw', {
      level: 'ground',
      points: [
        { x: 4, y: 0 },
        { x: 0, y: 0 },
      ],
      bulges: [1],
      closed: false,
      thickness: 0.1,
    });
    // Half a circle of radius 2, less half a wall all round, followed by chords within 2 mm.
    expect(areas(project)[0]).toBeCloseTo((Math.PI * 1.95 ** 2) / 2 - 0.05 * 3.9, 1);
    const arc = Object.values(project.walls).find((w) => w.bulge === 1)!;
    expect(wallLength(project, arc)).toBeCloseTo(2 * Math.PI, 9);
  });
});

describe('what stays when a wall changes', () => {
  it('keeps the face one says', () => {
    const plain = box();
    const south = wallBy(plain, [0, 0], [6, 0]);
    const inside = areas(plain)[0];
    for (const [keep, expected] of [
      ['left', inside],
      ['right', 5.7 * (3.7 - 0.2)],
      ['middle', 5.7 * (3.7 - 0.1)],
    ] as const) {
      const thicker = edit(plain, 'wall.build', { walls: [south], type: null, thickness: 0.5, keep });
      expect(areas(thicker)[0]).toBeCloseTo(expected, 9);
    }
    // Thinner than its line allows: the line moves, the face does not.
    const thin = edit(plain, 'wall.build', { walls: [south], type: null, thickness: 0.1, keep: 'left' });
    expect(areas(thin)[0]).toBeCloseTo(inside, 9);
    expect(areas(edit(thin, 'wall.build', { walls: [south], type: null, thickness: 0.3, keep: 'left' }))[0]).toBeCloseTo(inside, 9);
  });

  it('follows a type that is changed, on every wall of it', () => {
    const project = box(6, 4, { type: 'stud-100', thickness: null });
    const type = project.wallTypes['stud-100'];
    const next = edit(project, 'type.put', { type: { ...type, layers: type.layers.map((l) => ({ ...l, thickness: l.thickness * 2 })) }, keep: 'middle' });
    expect(areas(next)[0]).toBeCloseTo(5.8 * 3.8, 9);
    expect(() => edit(next, 'delete', { ids: ['stud-100'] })).toThrow('walls are built of it');
  });
});

describe('editing walls', () => {
  it('moves a run of walls in one line together, without jogs', () => {
    let project = draw(box(8, 4), [
      [4, 0],
      [4, 4],
    ]);
    const south = wallBy(project, [0, 0], [8, 0]);
    project = edit(project, 'wall.split', { wall: south, at: [4] });
    const run = runOf(project, south);
    expect(run).toHaveLength(2);
    const moved = edit(project, 'wall.move', { wall: run[0], run: run.slice(1), offset: -0.5 });
    expect(Object.keys(moved.walls)).toHaveLength(Object.keys(project.walls).length);
    expect(areas(moved).map((a) => a.toFixed(6))).toEqual(areas(project).map((a) => (a + 0.5 * 3.8).toFixed(6)));
    expect(() => edit(project, 'wall.move', { wall: run[0], run: [wallBy(project, [8, 0], [8, 4])], offset: 0.2 })).toThrow('one line');
  });

  it('draws a parallel, splits beside a window, joins two into a corner', () => {
    let project = box();
    const south = wallBy(project, [0, 0], [6, 0]);
    project = edit(project, 'wall.offset', { wall: south, by: 2 });
    expect(areas(project)).toHaveLength(2);
    project = edit(project, 'opening.add', newOpening(project, { id: 'w', wall: south, kind: 'window', at: 3 }));
    expect(() => edit(project, 'wall.split', { wall: south, at: [3.2] })).toThrow('Window 1 stands there');
    const split = edit(project, 'wall.split', { wall: south, at: [4.5] });
    expect(split.openings.w).toMatchObject({ wall: south, at: 3 });
    let loose = draw(emptyProject('p', 'P'), [
      [0, 0],
      [2, 0],
    ]);
    loose = draw(loose, [
      [3, 1],
      [3, 3],
    ]);
    const [a, b] = Object.keys(loose.walls);
    const met = edit(loose, 'wall.join', { a, b });
    expect(Object.values(met.corners).filter((c) => c.x === 3 && c.y === 0)).toHaveLength(1);
    expect(() => edit(met, 'wall.join', { a, b })).toThrow('meet already');
  });

  it('makes a recess, a projection and boxing with the areas they take and give', () => {
    const plain = box();
    const south = wallBy(plain, [0, 0], [6, 0]);
    const [before] = areas(plain);
    const recess = edit(plain, 'wall.recess', { wall: south, at: 3, width: 1.2, depth: -0.4 });
    // Between the inner faces of its jambs it is as wide as drawn, less their thickness.
    expect(areas(recess)[0]).toBeCloseTo(before + (1.2 - 0.3) * 0.4, 6);
    const boxed = edit(plain, 'wall.box', { wall: south, side: 'left', at: 3, width: 0.9, depth: 0.4, thickness: 0.05 });
    expect(areas(boxed)[1]).toBeCloseTo(before - 0.9 * 0.4, 6);
    expect(Object.values(boxed.rooms).find((r) => r.name === 'Boxing')).toMatchObject({ use: 'duct' });
    const corner = edit(plain, 'wall.box', { wall: south, side: 'left', at: 0.3, width: 0.3, depth: 0.3, thickness: 0.05 });
    expect(areas(corner)[1]).toBeCloseTo(before - 0.3 * 0.3, 6);
    expect(() => edit(plain, 'wall.recess', { wall: south, at: 0.3, width: 1.2, depth: -0.4 })).toThrow('end of its wall');
    expect(() => edit(plain, 'wall.box', { wall: south, side: 'left', at: 3, width: 9, depth: 0.3, thickness: 0.05 })).toThrow('no clear stretch');
  });

  it('turns crossing walls into junctions', () => {
    let project = draw(box(), [
      [3, 0],
      [3, 4],
    ]);
    project = draw(project, [
      [0, 2],
      [6, 2],
    ]);
    expect(areas(project)).toEqual(Array(4).fill(expect.closeTo(2.8 * 1.8)));
  });

  it('copies, moves, turns and mirrors walls with what stands in them', () => {
    let project = box(3, 2);
    const walls = Object.keys(project.walls);
    project = edit(
      project,
      'opening.add',
      newOpening(project, { id: 'd', wall: wallBy(project, [0, 0], [3, 0]), kind: 'door', at: 1, hinge: 'start', swing: 'left' }),
    );
    const about = { x: 1.5, y: 1 };
    const copied = edit(project, 'carry', { ids: walls, about, turn: 0, mirror: null, by: { x: 6, y: 0 }, copy: true });
    expect(Object.keys(copied.walls)).toHaveLength(8);
    expect(Object.keys(copied.openings)).toHaveLength(2);
    expect(areas(copied)[0]).toBeCloseTo(areas(copied)[1], 9);
    const mirrored = edit(project, 'carry', { ids: walls, about, turn: 0, mirror: Math.PI / 2, by: { x: 0, y: 0 }, copy: false });
    const door = deriveModel(mirrored).shell.openings.get('d')!;
    expect(door.point).toEqual({ x: expect.closeTo(2), y: expect.closeTo(0) });
    // Mirrored, it still opens into the room.
    expect(door.rooms[mirrored.openings.d.swing]).not.toBeNull();
    const turned = edit(project, 'carry', { ids: walls, about, turn: Math.PI / 2, mirror: null, by: { x: 0, y: 0 }, copy: false });
    expect(areas(turned)[0]).toBeCloseTo(areas(project)[0], 9);
    expect(deriveModel(turned).shell.openings.get('d')!.point).toEqual({ x: expect.closeTo(2.5), y: expect.closeTo(0.5) });
  });
});
