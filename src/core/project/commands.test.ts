import { newOpening } from './opening-defaults';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { deriveModel } from '../model/derive';
import { distance } from '../geometry/vec';
import { pieceFrom, stockItem, STOCK } from '../stock/stock';
import { commandNames, runChange, validateProject, type CommandArgs, type CommandName } from './commands';
import { DomainError } from './errors';
import { openingGaps } from './openings';
import { wallLength } from './wall-line';
import { z } from 'zod';
import { editable } from './commands/define';
import * as schemas from './schema';
import { emptyProject, type Opening, type Project, type Room } from './schema';

let step = 0;
const METRIC = { openings: {}, units: 'metric' } as const;
const run = <N extends CommandName>(project: Project, command: N, args: CommandArgs<N>) =>
  runChange(project, { id: `change${String(step++).padStart(5, '0')}`, kind: 'do', command, args });
const edit = <N extends CommandName>(project: Project, command: N, args: CommandArgs<N>): Project => run(project, command, args).project;

const rectangle = (project: Project, x: number, y: number, width: number, depth: number, thickness = 0.1): Project =>
  edit(project, 'wall.draw', {
    level: 'ground',
    points: [
      { x, y },
      { x: x + width, y },
      { x: x + width, y: y + depth },
      { x, y: y + depth },
    ],
    closed: true,
    thickness,
  });

const house = (): Project => rectangle(emptyProject('p-1', 'House'), 0, 0, 5, 4, 0.2);
const wallAlong = (project: Project, test: (a: { x: number; y: number }, b: { x: number; y: number }) => boolean): string =>
  Object.values(project.walls).find((w) => test(project.corners[w.start], project.corners[w.end]))!.id;
const south = (project: Project): string => wallAlong(project, (a, b) => a.y === 0 && b.y === 0);

const door = (wall: string, at: number, extra: Partial<Opening> = {}): Opening =>
  newOpening(METRIC, {
    id: `door-${step++}`,
    name: 'Door',
    wall,
    kind: 'door',
    at,
    width: 0.9,
    height: 2.1,
    sill: 0,
    hinge: 'start',
    swing: 'left',
    panes: { across: 1, up: 1 },
    finishes: {},
    ...extra,
  });

const only = <T>(record: Record<string, T>): T => Object.values(record)[0];

describe('walls and rooms', () => {
  it('finds a room in a closed ring and measures it inside', () => {
    const project = house();
    const model = deriveModel(project);
    expect(Object.keys(project.rooms)).toHaveLength(1);
    expect([...model.shell.rooms.values()][0].area).toBeCloseTo(4.8 * 3.8, 9);
    expect(only(project.rooms).name).toBe('Room 1');
  });

  it('keeps room, name and finishes when a wall moves, and lets the neighbours follow', () => {
    let project = house();
    const room = only(project.rooms);
    project = edit(project, 'room.set', { room: room.id, set: { name: 'Scullery' } });
    project = edit(project, 'finish.apply', { targets: [{ kind: 'floor', room: room.id }], finish: 'timber.oak-plank' });
    project = edit(project, 'wall.move', { wall: south(project), offset: -1.5 });
    expect(Object.values(project.rooms)).toEqual([expect.objectContaining({ id: room.id, name: 'Scullery', floor: 'timber.oak-plank' })]);
    expect([...deriveModel(project).shell.rooms.values()][0].area).toBeCloseTo(4.8 * 5.3, 9);
    // The walls at both sides have grown with it: the ring is still four walls that meet.
    expect(Object.keys(project.walls)).toHaveLength(4);
    expect(Object.keys(project.corners)).toHaveLength(4);
  });

  it('splits a room with a partition and merges it again, the larger part keeping the identity', () => {
    let project = house();
    const first = only(project.rooms).id;
    project = edit(project, 'finish.apply', { targets: [{ kind: 'walls', room: first }], finish: 'paint.reed' });
    project = edit(project, 'wall.draw', {
      level: 'ground',
      points: [
        { x: 3.5, y: 0 },
        { x: 3.5, y: 4 },
      ],
      closed: false,
      thickness: 0.1,
    });
    expect(Object.keys(project.rooms)).toHaveLength(2);
    expect(project.rooms[first]).toBeDefined();
    const rooms = deriveModel(project).shell.rooms;
    expect(rooms.get(first)!.area).toBeCloseTo((3.5 - 0.05 - 0.1) * 3.8, 9);
    // The new room starts with the finishes of the one it was cut from.
    expect(Object.values(project.rooms).every((r: Room) => r.walls === 'paint.reed')).toBe(true);
    const partition = wallAlong(project, (a, b) => a.x === 3.5 && b.x === 3.5);
    project = edit(project, 'delete', { ids: [partition] });
    expect(Object.keys(project.rooms)).toEqual([first]);
  });

  it('gives a wall a typed length exactly, on the side that is let go', () => {
    let project = house();
    const wall = south(project);
    project = edit(project, 'wall.length', { wall, length: 3.4503, keep: 'start' });
    expect(wallLength(project, project.walls[wall])).toBeCloseTo(3.4503, 9);
    expect(project.corners[project.walls[wall].start]).toMatchObject({ x: 0, y: 0 });
    expect(Object.keys(project.rooms)).toHaveLength(1);
  });

  it.each([
    [
      'a wall of no length',
      (p: Project) =>
        run(p, 'wall.draw', {
          level: 'ground',
          points: [
            { x: 1, y: 1 },
            { x: 1.004, y: 1 },
          ],
          closed: false,
          thickness: 0.1,
        }),
    ],
    ['a length below the least', (p: Project) => run(p, 'wall.length', { wall: south(p), length: 0.001, keep: 'start' })],
    ['a wall moved onto its opposite', (p: Project) => run(p, 'wall.move', { wall: south(p), offset: 4 })],
    [
      'a level that is not there',
      (p: Project) =>
        run(p, 'wall.draw', {
          level: 'attic',
          points: [
            { x: 0, y: 0 },
            { x: 1, y: 0 },
          ],
          closed: false,
          thickness: 0.1,
        }),
    ],
    ['a door wider than its wall', (p: Project) => run(p, 'opening.add', door(south(p), 2.5, { width: 6 }))],
    ['a door beyond the corner', (p: Project) => run(p, 'opening.add', door(south(p), 4.9))],
    ['a window above the wall', (p: Project) => run(p, 'opening.add', door(south(p), 2.5, { kind: 'window', sill: 1, height: 2 }))],
    ['a thing deleted elsewhere', (p: Project) => run(p, 'piece.set', { piece: 'gone', set: { x: 1 } })],
    ['a value of the wrong kind', (p: Project) => run(p, 'project.units', { units: 'cubits' as never })],
  ])('refuses %s with one sentence and leaves the project as it is', (_, attempt) => {
    const project = house();
    const before = JSON.stringify(project);
    let refusal: unknown = null;
    try {
      attempt(project);
    } catch (error) {
      refusal = error;
    }
    expect(refusal).toBeInstanceOf(DomainError);
    expect((refusal as DomainError).message).toMatch(/^[A-Z].{10,}\.$/);
    expect(JSON.stringify(project)).toBe(before);
  });
});

describe('openings', () => {
  it('refuses one that overlaps another, and takes it beside', () => {
    let project = house();
    const wall = south(project);
    project = edit(project, 'opening.add', door(wall, 1.5));
    expect(() => run(project, 'opening.add', door(wall, 2.2))).toThrow(/overlap/);
    project = edit(project, 'opening.add', door(wall, 2.6));
    expect(Object.keys(project.openings)).toHaveLength(2);
  });

  it('says its distances to both corners, inside the room', () => {
    const plain = house();
    const project = edit(plain, 'opening.add', door(south(plain), 1.5));
    const gaps = openingGaps(project, only(project.openings))!;
    expect(gaps.start).toBeCloseTo(1.5 - 0.45 - 0.1, 9);
    expect(gaps.end).toBeCloseTo(5 - 0.1 - 1.95, 9);
  });

  it('stays where it stands in space when the wall grows at its start', () => {
    let project = house();
    const wall = south(project);
    project = edit(project, 'opening.add', door(wall, 2.5));
    const side = wallAlong(project, (a, b) => a.x === 0 && b.x === 0);
    const [a, b] = [project.corners[project.walls[side].start], project.corners[project.walls[side].end]];
    project = edit(project, 'wall.move', { wall: side, offset: a.y > b.y ? -1 : 1 });
    const opening = only(project.openings);
    const start = project.corners[project.walls[wall].start];
    const x = start.x + (start.x < 2.5 ? opening.at : -opening.at);
    expect(x).toBeCloseTo(2.5, 6);
  });
});

describe('history', () => {
  /** Random edits that a person could make; those that are refused are passed over. */
  const edits = fc.array(
    fc.record({
      kind: fc.integer({ min: 0, max: 8 }),
      a: fc.double({ min: -4, max: 4, noNaN: true }),
      b: fc.double({ min: -4, max: 4, noNaN: true }),
      n: fc.nat(1000),
    }),
    { minLength: 3, maxLength: 14 },
  );

  const attempt = (project: Project, { kind, a, b, n }: { kind: number; a: number; b: number; n: number }) => {
    const pick = (record: Record<string, unknown>): string => Object.keys(record)[n % Math.max(1, Object.keys(record).length)] ?? 'none';
    const level = project.levels.ground;
    switch (kind) {
      case 0:
        return run(project, 'wall.draw', {
          level: 'ground',
          points: [
            { x: a, y: b },
            { x: b, y: -a },
          ],
          closed: false,
          thickness: 0.1 + (n % 3) / 10,
        });
      case 1:
        return run(project, 'wall.move', { wall: pick(project.walls), offset: a / 4 });
      case 2:
        return run(project, 'opening.add', door(pick(project.walls), Math.abs(a)));
      case 3:
        return run(project, 'delete', { ids: [pick(n % 2 ? project.walls : project.openings)] });
      case 4: {
        const item = STOCK[n % STOCK.length];
        return run(project, 'piece.add', { pieces: [pieceFrom(stockItem(item.id)!, `piece-${step++}`, level, { x: a, y: b })] });
      }
      case 5:
        return run(project, 'finish.apply', { targets: [{ kind: 'walls', room: pick(project.rooms) }], finish: 'paint.millpond' });
      case 6:
        return run(project, 'wall.length', { wall: pick(project.walls), length: Math.abs(a) + 0.3, keep: n % 2 ? 'start' : 'end' });
      case 7:
        return run(project, 'room.set', { room: pick(project.rooms), set: { name: `Room of ${n}` } });
      default:
        return run(project, 'corner.move', { corner: pick(project.corners), to: { x: a, y: b } });
    }
  };

  it('comes back to the identical project by undoing, and forward by redoing', () => {
    fc.assert(
      fc.property(edits, (list) => {
        const states: Project[] = [house()];
        const outcomes: ReturnType<typeof run>[] = [];
        for (const e of list) {
          try {
            const outcome = attempt(states.at(-1)!, e);
            states.push(outcome.project);
            outcomes.push(outcome);
          } catch (error) {
            expect(error).toBeInstanceOf(DomainError);
          }
        }
        let project = states.at(-1)!;
        for (let i = outcomes.length - 1; i >= 0; i--) {
          project = runChange(project, { id: `undo${i}xx`, kind: 'undo', command: 'history.patch', args: { patches: outcomes[i].inverse } }).project;
          expect(project).toEqual(states[i]);
        }
        for (const outcome of outcomes)
          project = runChange(project, { id: 'redoxxx', kind: 'redo', command: 'history.patch', args: { patches: outcome.patches } }).project;
        expect(project).toEqual(states.at(-1));
      }),
      { numRuns: 80 },
    );
  });

  it('gives the same project for the same changes, and always a valid one', () => {
    fc.assert(
      fc.property(edits, (list) => {
        const play = (): Project => {
          let project = house();
          list.forEach((e, i) => {
            const before = step;
            step = 100000 + i * 10;
            try {
              project = attempt(project, e).project;
            } catch {
              // Refusals are part of the play.
            }
            step = before;
          });
          return project;
        };
        step = 50000;
        const one = play();
        step = 50000;
        const two = play();
        expect(JSON.stringify(one)).toBe(JSON.stringify(two));
        expect(validateProject(JSON.parse(JSON.stringify(one)))).toEqual(JSON.parse(JSON.stringify(one)));
      }),
      { numRuns: 60 },
    );
  });

  it('keeps a room through a sequence of moves that leave it closed', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(3), fc.double({ min: -0.6, max: 0.6, noNaN: true })), { minLength: 1, maxLength: 20 }), (moves) => {
        let project = house();
        const { id } = only(project.rooms);
        for (const [which, offset] of moves) {
          try {
            project = edit(project, 'wall.move', { wall: Object.keys(project.walls)[which], offset });
          } catch (error) {
            expect(error).toBeInstanceOf(DomainError);
          }
        }
        expect(Object.keys(project.rooms)).toEqual([id]);
      }),
      { numRuns: 100 },
    );
  });
});

describe('every command', () => {
  it('says limits in words', () => {
    const project = house();
    const wall = south(project);
    expect(() => edit(project, 'wall.build', { walls: [wall], type: null, thickness: 5, keep: 'middle' })).toThrow(
      'Nothing was changed: thickness goes up to 2 m.',
    );
    expect(() => edit(project, 'level.set', { id: 'ground', set: { height: 0.1 } })).toThrow('Nothing was changed: height goes from 0.5 m upwards.');
    // In words of the trade where the name of a field says nothing.
    const door = edit(project, 'opening.add', newOpening(project, { id: 'd', wall, kind: 'door', at: 2 }));
    expect(() => edit(door, 'opening.set', { opening: 'd', set: { stand: { kind: 'set-back', from: 'front', by: 4 } } })).toThrow(
      'Nothing was changed: the reveal goes up to 2 m.',
    );
    expect(() => edit(door, 'opening.set', { opening: 'd', set: { sillBoard: 40 } })).toThrow('sill board goes up to');
  });

  it('refuses arguments that are not its own', () => {
    for (const command of commandNames)
      for (const args of [null, 7, 'x', { nonsense: true }, []])
        if (!(command === 'site.set' && JSON.stringify(args) === '{}'))
          expect(() => runChange(house(), { id: 'badargs', kind: 'do', command, args })).toThrow(DomainError);
  });

  it('that set something leave all they are not told of as it is', () => {
    // What is missing in a file gets a first value; what is not told of in an edit does not.
    for (const schema of Object.values(schemas)) if (schema instanceof z.ZodObject) expect(editable(schema, []).parse({})).toEqual({});
    const hash = 'a'.repeat(64);
    const lights = [{ name: 'Sun', level: -2, kelvin: null }];
    const picture = {
      viewpoint: null,
      width: 40,
      height: 30,
      samples: 4,
      exposure: 9,
      white: 5200,
      warmth: 0.2,
      lights,
      radiance: hash,
      image: hash,
      full: hash,
      made: '',
    };
    const project = edit(house(), 'picture.add', { id: 'picture-a', name: 'A', ...picture });
    expect(edit(project, 'picture.set', { picture: 'picture-a', set: { name: 'B' } }).pictures['picture-a']).toEqual({
      ...project.pictures['picture-a'],
      name: 'B',
    });
  });

  it('moves a corner, and refuses a place that is taken', () => {
    const project = house();
    const [a, b] = Object.values(project.corners);
    expect(distance(edit(project, 'corner.move', { corner: a.id, to: { x: -1, y: -1 } }).corners[a.id], { x: -1, y: -1 })).toBe(0);
    expect(() => edit(project, 'corner.move', { corner: a.id, to: { x: b.x, y: b.y } })).toThrow(/another corner/);
  });
});

describe('undo', () => {
  it('reaches what edits change, and nothing else of the project', () => {
    const project = emptyProject('p', 'P');
    const patch = (path: (string | number)[], value: unknown) => ({
      id: 'patch0001',
      kind: 'undo' as const,
      command: 'history.patch' as const,
      args: { patches: [{ op: 'replace', path, value }] },
    });
    expect(runChange(project, patch(['name'], 'Q')).project.name).toBe('Q');
    for (const [path, value] of [
      [['id'], 'other'],
      [['version'], 1],
      [['format'], 'x'],
      [['new'], 1],
      [['__proto__', 'x'], 1],
      [['constructor'], 1],
      [[], {}],
      [[0], 1],
    ] as const)
      expect(() => runChange(project, patch([...path], value))).toThrow(/^Nothing was changed: undo reaches only/);
  });
});
