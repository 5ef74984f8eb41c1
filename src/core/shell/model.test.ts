import { newOpening } from '../project/opening-defaults';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '../demo/heron-lock';
import { Deriver, deriveModel } from '../model/derive';
import { bodyOf, partsOf } from '../model/model';
import { meshArea } from '../geometry/mesh';
import { boolean, regionArea, totalArea } from '../geometry/polygon';
import { runChange, type CommandArgs, type CommandName } from '../project/commands';
import { emptyProject, type Project } from '../project/schema';
import { roomSchedule, toCsv } from '../schedules/rooms';
import { clearWidth } from './openings/sizes';

let step = 0;
const METRIC = { openings: {}, units: 'metric' } as const;
const edit = <N extends CommandName>(project: Project, command: N, args: CommandArgs<N>): Project =>
  runChange(project, { id: `change${step++}x`, kind: 'do', command, args }).project;

const box = (width: number, depth: number, thickness: number): Project =>
  edit(emptyProject('p', 'Box'), 'wall.draw', {
    level: 'ground',
    points: [
      { x: 0, y: 0 },
      { x: width, y: 0 },
      { x: width, y: depth },
      { x: 0, y: depth },
    ],
    closed: true,
    thickness,
  });

const faceArea = (project: Project, wall: string): number =>
  bodyOf(deriveModel(project), wall)!
    .parts.filter((p) => p.sort === 'wall')
    .reduce((sum, p) => sum + meshArea(p.mesh), 0);

describe('a wall with an opening', () => {
  it('loses exactly the opening’s area from both faces, and gains its reveals', () => {
    fc.assert(
      fc.property(
        fc.record({
          width: fc.double({ min: 0.4, max: 1.6, noNaN: true }),
          height: fc.double({ min: 0.4, max: 1.2, noNaN: true }),
          sill: fc.double({ min: 0.1, max: 1.1, noNaN: true }),
          at: fc.double({ min: 1.2, max: 3.8, noNaN: true }),
          thickness: fc.double({ min: 0.08, max: 0.4, noNaN: true }),
        }),
        ({ width, height, sill, at, thickness }) => {
          const plain = box(5, 4, thickness);
          const wall = Object.keys(plain.walls)[0];
          const cut = edit(
            plain,
            'opening.add',
            newOpening(METRIC, {
              id: 'w',
              name: 'W',
              wall,
              kind: 'window',
              at,
              width,
              height,
              sill,
              hinge: 'start',
              swing: 'left',
              panes: { across: 1, up: 1 },
              finishes: {},
            }),
          );
          const reveals = thickness * 2 * (width + height);
          expect(faceArea(plain, wall) - faceArea(cut, wall)).toBeCloseTo(2 * width * height - reveals, 4);
          const [before, after] = [plain, cut].map((p) => [...deriveModel(p).shell.walls.get(wall)!.sides].reduce((sum, s) => sum + s.area, 0));
          expect(before - after).toBeCloseTo(2 * width * height, 9);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('shows a hole in the plan where it stands', () => {
    const plain = box(5, 4, 0.2);
    const wall = Object.keys(plain.walls)[0];
    const cut = edit(
      plain,
      'opening.add',
      newOpening(METRIC, {
        id: 'd',
        name: 'D',
        wall,
        kind: 'door',
        at: 2,
        width: 0.9,
        height: 2.1,
        sill: 0,
        hinge: 'start',
        swing: 'left',
        panes: { across: 1, up: 1 },
        finishes: {},
      }),
    );
    const opening = deriveModel(cut).shell.openings.get('d')!;
    expect(opening.point).toEqual({ x: expect.closeTo(2), y: expect.closeTo(0) });
    expect(opening.parts.map((p) => p.part).sort()).toEqual(['architrave', 'frame', 'handle', 'leaf']);
    // Leaf 926: lining, stop and the leaf's own thickness take 55 to 115 off the structural width.
    expect(0.99 - clearWidth({ ...opening.opening, width: 0.99 })).toBeGreaterThan(0.055);
    expect(clearWidth({ ...opening.opening, width: 0.99 })).toBeGreaterThan(0.815);
  });
});

describe('the plan as a whole', () => {
  it('fills the outline with rooms and wall footprints, random partitions included', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({ t: fc.double({ min: 0.2, max: 0.8, noNaN: true }), across: fc.boolean(), thickness: fc.double({ min: 0.06, max: 0.25, noNaN: true }) }),
          { maxLength: 4 },
        ),
        (cuts) => {
          let project = box(9, 7, 0.3);
          for (const [i, { t: share, across, thickness }] of cuts.entries()) {
            // Each in a band of its own: walls on top of one another are no plan.
            const t = (i + share) / cuts.length;
            project = edit(project, 'wall.draw', {
              level: 'ground',
              points: across
                ? [
                    { x: 0, y: 7 * t },
                    { x: 9, y: 7 * t },
                  ]
                : [
                    { x: 9 * t, y: 0 },
                    { x: 9 * t, y: 7 },
                  ],
              closed: false,
              thickness,
            });
          }
          const [level] = deriveModel(project).shell.levels;
          const walls = level.walls
            .flatMap((w) => w.rings)
            .filter((r) => r.length > 2)
            .map((outer) => ({ outer, holes: [] }));
          const rooms = level.rooms.map((r) => r.region);
          expect(totalArea(walls) + rooms.reduce((sum, r) => sum + regionArea(r), 0)).toBeCloseTo(9.3 * 7.3, 3);
          expect(totalArea(boolean('intersection', walls, rooms))).toBeLessThan(1e-4);
          expect(level.rooms.length).toBe(Object.keys(project.rooms).length);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('gives every face of the demo to the room that sees it', () => {
    const model = deriveModel(heronLockCottage());
    expect([...model.shell.rooms.values()].map((r) => r.room.name).sort()).toEqual([
      'Bathroom',
      'Bedroom',
      'Hall',
      'Kitchen & dining',
      'Living',
      'Porch',
      'Reading loft',
      'Shower room',
      'Soil pipe',
      'Workshop',
    ]);
    for (const room of model.shell.rooms.values()) {
      const inside = room.sides.reduce((sum, s) => sum + (s.s1 - s.s0), 0);
      expect(inside).toBeCloseTo(room.perimeter, 6);
      const floor = bodyOf(model, room.id)!.parts.find((p) => p.key === `${room.id}/floor`)!;
      expect(meshArea(floor.mesh)).toBeCloseTo(room.area, 4);
    }
  });
});

describe('deriving again', () => {
  it('makes only what an edit has touched, and the same as from scratch', () => {
    // A row of twenty-four rooms, a door in every partition.
    let before = box(120, 5, 0.3);
    for (let i = 1; i < 24; i++) {
      const x = i * 5;
      const points = [
        { x, y: 0 },
        { x, y: 5 },
      ];
      before = edit(before, 'wall.draw', { level: 'ground', points, closed: false, thickness: 0.1 });
      const wall = Object.values(before.walls).find((w) => before.corners[w.start].x === x && before.corners[w.end].x === x)!;
      before = edit(before, 'opening.add', newOpening(before, { id: `door-${i}`, wall: wall.id, kind: 'door', at: 2 }));
    }
    const deriver = new Deriver();
    deriver.derive(before);
    const whole = deriver.made;
    const partition = Object.values(before.walls).find((w) => before.corners[w.start].x === 25 && before.corners[w.end].x === 25)!;
    const after = edit(before, 'wall.move', { wall: partition.id, offset: 0.05 });
    const again = deriver.derive(after);
    expect(deriver.made).toBeGreaterThan(0);
    expect(deriver.made).toBeLessThan(whole / 5);
    const fresh = deriveModel(after);
    const shape = (m: typeof fresh) => [...partsOf(m)].map(([body, p]) => [body.id, p.key, p.finish, p.mesh.indices.length, meshArea(p.mesh)]);
    expect(shape(again)).toEqual(shape(fresh));
  });
});

describe('the room schedule', () => {
  it('counts net wall area by hand: perimeter × height − openings', () => {
    const hall = roomSchedule(deriveModel(heronLockCottage())).find((r) => r.name === 'Hall')!;
    expect(hall.area).toBeCloseTo(1.65 * 3.9, 6);
    expect(hall.wallArea).toBeCloseTo(2 * (1.65 + 3.9) * 2.5 - (0.99 * 2.1 + 0.91 * 2.05 + 2 * 0.99 * 2.05), 6);
    expect([hall.doors, hall.windows]).toEqual([4, 0]);
  });

  it('writes CSV with quotes where they are needed', () => {
    expect(toCsv([{ a: 'x, "y"', b: 1.23456789 }])).toBe('a,b\r\n"x, ""y""",1.2346\r\n');
    // What a spreadsheet would run is made text; figures below zero stay figures.
    for (const bad of ['=1+1', '+1', '-1', '@a', '\ta', '\ra'])
      expect(
        toCsv([{ a: bad }])
          .split('\r\n')
          .slice(1)
          .join('\r\n')
          .replace(/^"/, '')
          .startsWith(`'${bad[0]}`),
      ).toBe(true);
    expect(toCsv([{ a: 'plain', b: -2.5, c: null }])).toBe('a,b,c\r\nplain,-2.5,\r\n');
  });
});
