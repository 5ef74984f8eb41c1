import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { deriveModel } from '../model/derive';
import { bodyOf } from '../model/model';
import { distance } from '../geometry/vec';
import { pieceFrom, stockItem } from '../stock/stock';
import { runChange, validateProject, type CommandArgs, type CommandName } from './commands';
import { shapeOutline } from './drafting';
import { newOpening } from './opening-defaults';
import { clearSpans, openingGaps } from './openings';
import { inPhase } from './phase';
import { emptyProject, WALL_TYPES, type Opening, type Project } from './schema';
import { arcOf, bulgeThrough, wallEnds, wallLength, wallThickness } from './wall-line';
import { pieceSpan } from './relations';
import { runOf } from './wall-meeting';

let step = 0;
const run = <N extends CommandName>(project: Project, command: N, args: CommandArgs<N>) =>
  runChange(project, { id: `change${String(step++).padStart(5, '0')}`, kind: 'do', command, args });
const edit = <N extends CommandName>(project: Project, command: N, args: CommandArgs<N>): Project => run(project, command, args).project;
const draw = (project: Project, points: [number, number][], extra: Partial<CommandArgs<'wall.draw'>> = {}): Project =>
  edit(project, 'wall.draw', { level: 'ground', points: points.map(([x, y]) => ({ x, y })), closed: false, thickness: 0.1, ...extra });
const box = (width = 6, depth = 4, extra: Partial<CommandArgs<'wall.draw'>> = {}): Project =>
  draw(
    emptyProject('p', 'P'),
    [
      [0, 0],
      [width, 0],
      [width, depth],
      [0, depth],
    ],
    { closed: true, thickness: 0.3, ...extra },
  );
const wallBy = (p: Project, a: [number, number], b: [number, number]): string =>
  Object.values(p.walls).find((w) => {
    const [s, e] = wallEnds(p, w);
    const at = (q: { x: number; y: number }, [x, y]: [number, number]): boolean => Math.hypot(q.x - x, q.y - y) < 1e-6;
    return (at(s, a) && at(e, b)) || (at(s, b) && at(e, a));
  })!.id;
const areas = (p: Project): number[] => [...deriveModel(p).shell.rooms.values()].map((r) => r.area).sort((a, b) => a - b);

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

describe('relations', () => {
  const house = (): { project: Project; wall: string } => {
    const project = box();
    return { project, wall: wallBy(project, [0, 0], [6, 0]) };
  };
  const middleOf = (p: Project, id: string): number => {
    const gaps = openingGaps(p, p.openings[id])!;
    return gaps.start - gaps.end;
  };

  it('hold through random edits: centred, a row, a gap, filling, level heads', () => {
    const change = fc.record({ which: fc.nat(3), offset: fc.integer({ min: -8, max: 8 }), shift: fc.integer({ min: -5, max: 5 }) });
    fc.assert(
      fc.property(fc.array(change, { minLength: 1, maxLength: 6 }), (changes) => {
        let { project } = house();
        const { wall } = house();
        const own = Object.keys(project.walls)[0];
        void wall;
        const add = (o: Partial<Opening> & { id: string }): void => {
          project = edit(project, 'opening.add', newOpening(project, { kind: 'window', wall: own, at: 3, ...o }));
        };
        const north = wallBy(project, [6, 4], [0, 4]);
        const east = wallBy(project, [6, 0], [6, 4]);
        add({ id: 'centred', width: 0.8, place: { kind: 'centred' } });
        for (let i = 0; i < 3; i++) add({ id: `row${i}`, wall: north, width: 0.6, place: { kind: 'row', index: i, count: 3 } });
        add({ id: 'beside', wall: own, width: 0.5, at: 4.2, place: { kind: 'gap', from: 'centred', side: 'after', gap: 0.3 }, head: 'centred', height: 0.7 });
        add({ id: 'fill', wall: own, width: 0.5, at: 0.8, sill: 0.9, place: { kind: 'between', a: 'start', b: 'centred', fill: true }, height: 1 });
        add({ id: 'across', wall: east, width: 0.6, at: 2, place: { kind: 'centred' } });
        for (const { which, offset, shift } of changes) {
          const walls = Object.keys(project.walls);
          const before = project;
          try {
            project = edit(project, 'wall.move', { wall: walls[which % walls.length], offset: offset / 10 });
            project = edit(project, 'opening.set', { opening: 'centred', set: { width: 0.8 + shift / 100, sill: 0.9 + shift / 100 } });
          } catch {
            project = before;
          }
          expect(middleOf(project, 'centred')).toBeCloseTo(0, 6);
          expect(middleOf(project, 'across')).toBeCloseTo(0, 6);
          const { centred, beside, fill } = project.openings;
          expect(beside.at - beside.width / 2 - centred.at - centred.width / 2).toBeCloseTo(0.3, 6);
          expect(beside.sill + beside.height).toBeCloseTo(centred.sill + centred.height, 6);
          const gaps = openingGaps(project, fill)!;
          expect(gaps.start).toBeCloseTo(0, 6);
          expect(fill.at + fill.width / 2).toBeCloseTo(centred.at - centred.width / 2, 6);
          const [a, b, c] = [0, 1, 2].map((i) => project.openings[`row${i}`]);
          expect(b.at - a.at).toBeCloseTo(c.at - b.at, 6);
          const row = openingGaps(project, a)!;
          expect(row.start).toBeCloseTo(openingGaps(project, c)!.end, 6);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('follow a piece, and let go of what is deleted', () => {
    let { project } = house();
    const wall = Object.keys(project.walls)[0];
    const sofa = pieceFrom(stockItem('sofa')!, 'sofa', project.levels.ground, { x: 2, y: 0.6 });
    project = edit(project, 'piece.add', { pieces: [{ ...sofa, rotation: Math.PI }] });
    project = edit(
      project,
      'opening.add',
      newOpening(project, { id: 'w', wall, kind: 'window', at: 3, place: { kind: 'between', a: 'sofa', b: 'end', fill: false } }),
    );
    const span = pieceSpan(project, wall, project.pieces.sofa);
    const end = clearSpans(project, project.walls[wall]).at(-1)!.to;
    expect(project.openings.w.at).toBeCloseTo((span.to + end) / 2, 6);
    project = edit(project, 'pieces.move', { pieces: ['sofa'], by: { x: -0.4, y: 0 }, turn: 0 });
    expect(project.openings.w.at).toBeCloseTo((span.to - 0.4 + end) / 2, 6);
    project = edit(project, 'delete', { ids: ['sofa'] });
    expect(project.openings.w.place).toEqual({ kind: 'free' });
  });

  it('refuse to go round in a circle', () => {
    let { project } = house();
    const wall = Object.keys(project.walls)[0];
    for (const [id, at] of [
      ['a', 1.5],
      ['b', 4],
    ] as const)
      project = edit(project, 'opening.add', newOpening(project, { id, wall, kind: 'window', at, width: 0.6 }));
    project = edit(project, 'opening.set', { opening: 'b', set: { place: { kind: 'gap', from: 'a', side: 'after', gap: 0.5 } } });
    expect(() => edit(project, 'opening.set', { opening: 'a', set: { place: { kind: 'gap', from: 'b', side: 'before', gap: 0.5 } } })).toThrow(
      'placed by something',
    );
  });

  it('refuse what has no room, with one sentence', () => {
    const { project } = house();
    const wall = Object.keys(project.walls)[0];
    const tries: [Partial<Opening>, string][] = [
      [{ kind: 'niche', depth: 0.3 }, 'would go through the wall'],
      [{ kind: 'window', height: 2, sill: 1 }, 'above the wall'],
      [{ kind: 'window', width: 7 }, 'free in one stretch'],
    ];
    for (const [values, text] of tries)
      expect(() => edit(project, 'opening.add', newOpening(project, { id: 'o', wall, at: 3, ...values, kind: values.kind! }))).toThrow(text);
    const raked = edit(project, 'wall.set', { wall, set: { top: { kind: 'raking', start: 1.4, end: 3.4 } } });
    // High enough at the one end, not at the other.
    expect(() => edit(raked, 'opening.add', newOpening(raked, { id: 'o', wall, kind: 'window', at: 1.2 }))).toThrow('above the wall');
    expect(edit(raked, 'opening.add', newOpening(raked, { id: 'o', wall, kind: 'window', at: 4.5 })).openings.o.at).toBe(4.5);
  });
});

describe('identity and undo', () => {
  it('a room stays itself, and undo gives the identical project, through random edits', () => {
    const act = fc.record({
      kind: fc.constantFrom('move', 'split', 'build', 'boundary', 'recess', 'status', 'offset') as fc.Arbitrary<string>,
      which: fc.nat(12),
      by: fc.integer({ min: -6, max: 6 }),
    });
    fc.assert(
      fc.property(fc.array(act, { minLength: 1, maxLength: 8 }), (acts) => {
        let project = draw(box(7, 5), [
          [3, 0],
          [3, 5],
        ]);
        const named = Object.keys(project.rooms);
        named.forEach((id, i) => (project = edit(project, 'room.set', { room: id, set: { name: ['Parlour', 'Scullery'][i], use: 'living' } })));
        for (const { kind, which, by } of acts) {
          const walls = Object.values(project.walls);
          const wall = walls[which % walls.length];
          const length = wallLength(project, wall);
          let outcome;
          try {
            outcome =
              kind === 'move'
                ? run(project, 'wall.move', { wall: wall.id, offset: by / 12 })
                : kind === 'split'
                  ? run(project, 'wall.split', { wall: wall.id, at: [length * (0.5 + by / 20)] })
                  : kind === 'build'
                    ? run(project, 'wall.build', {
                        walls: [wall.id],
                        type: by > 0 ? 'block-140' : null,
                        thickness: by > 0 ? null : 0.2,
                        keep: by % 2 ? 'left' : 'right',
                      })
                    : kind === 'recess'
                      ? run(project, 'wall.recess', { wall: wall.id, at: length / 2, width: 0.8, depth: by / 20 })
                      : kind === 'status'
                        ? run(project, 'status.set', { ids: [wall.id], status: by > 3 ? 'existing' : 'new' })
                        : kind === 'offset'
                          ? run(project, 'wall.offset', { wall: wall.id, by: by / 4 || 1 })
                          : run(project, 'wall.draw', {
                              level: 'ground',
                              points: [
                                { x: 1, y: 0 },
                                { x: 1 + by / 10, y: 5 },
                              ],
                              closed: false,
                              kind: 'boundary',
                              thickness: 0.1,
                            });
          } catch {
            continue;
          }
          const undone = runChange(outcome.project, {
            id: 'undoundo',
            kind: 'undo',
            target: 'x',
            command: 'history.patch',
            args: { patches: outcome.inverse },
          }).project;
          expect(undone).toEqual(project);
          project = outcome.project;
          expect(validateProject(project)).toEqual(project);
        }
        for (const id of named) expect(project.rooms[id]?.name).toMatch(/Parlour|Scullery/);
      }),
      { numRuns: 60 },
    );
  });
});
