import { describe, expect, it } from 'vitest';
import { cross, distance, dot, sub, unit, type Vec2 } from '../geometry/vec';
import { deriveModel } from '../model/derive';
import { draw, edit, house, wallAt } from '../testing/drafting';
import { random } from '../testing/random';
import { validateProject } from './commands';
import { DomainError } from './errors';
import { newOpening } from './opening-defaults';
import { emptyProject, type Project } from './schema';
import { wallEnds } from './wall-line';

const directionIn = (project: Project, id: string): Vec2 => {
  const [a, b] = wallEnds(project, project.walls[id]);
  return unit(sub(b, a));
};

/** How far the directions of the walls of both projects have turned, at most: the sine. */
function mostTurned(before: Project, after: Project): number {
  let most = 0;
  for (const id of Object.keys(before.walls)) {
    if (!after.walls[id]) continue;
    const [d, e] = [directionIn(before, id), directionIn(after, id)];
    most = Math.max(most, dot(d, e) <= 0 ? 2 : Math.abs(cross(d, e)));
  }
  return most;
}

const roomCount = (project: Project): number => deriveModel(project).shell.rooms.size;
const areas = (project: Project): number[] => [...deriveModel(project).shell.rooms.values()].map((r) => r.area).sort((a, b) => a - b);

/** A house of 8 × 6 m. */
const BOX = house([
  [0, 0],
  [8, 0],
  [8, 6],
  [0, 6],
]);

/** Four rooms about a cross of partitions that all end on the corner in the middle. */
function cross4(): Project {
  let project = BOX;
  for (const end of [
    [4, 0],
    [4, 6],
    [0, 3],
    [8, 3],
  ] as [number, number][])
    project = draw(project, [[4, 3], end]);
  return project;
}

describe('a wall that is moved', () => {
  it('leaves the one that runs on in its line where it stands: four rooms about a cross', () => {
    const before = cross4();
    expect(roomCount(before)).toBe(4);
    const upper = wallAt(before, (a, b) => a.x === 4 && b.x === 4 && Math.max(a.y, b.y) === 6);
    const lower = wallAt(before, (a, b) => a.x === 4 && b.x === 4 && Math.min(a.y, b.y) === 0);
    const after = edit(before, 'wall.move', { wall: upper, offset: before.corners[before.walls[upper].start].y === 3 ? -0.75 : 0.75 });
    expect(mostTurned(before, after)).toBeLessThan(1e-12);
    expect(wallEnds(after, after.walls[upper]).map((p) => p.x)).toEqual([expect.closeTo(4.75, 9), expect.closeTo(4.75, 9)]);
    expect(wallEnds(after, after.walls[lower])).toEqual(wallEnds(before, before.walls[lower]));
    // No stub, no wall more: it ends on the partition it slid along.
    expect(Object.keys(after.walls).sort()).toEqual(Object.keys(before.walls).sort());
    expect(roomCount(after)).toBe(4);
    expect(areas(after)[3]).toBeCloseTo((4.75 - 0.15 - 0.05) * (3 - 0.15 - 0.05), 6);
  });

  it('slides along an oblique wall, and the one beyond its end goes on from where it stood', () => {
    // A bay of three walls at one corner: two of them can’t both be slid along.
    let project = draw(BOX, [
      [4, 3],
      [4, 6],
    ]);
    project = draw(project, [
      [4, 3],
      [0, 3],
    ]);
    project = draw(project, [
      [4, 3],
      [8, 0],
    ]);
    const wall = wallAt(project, (a, b) => a.x === 4 && b.x === 4);
    const up = project.corners[project.walls[wall].start].y === 3 ? 1 : -1;
    for (const by of [0.6, -0.6]) {
      const after = edit(project, 'wall.move', { wall, offset: -up * by });
      expect(mostTurned(project, after)).toBeLessThan(1e-12);
      expect(roomCount(after)).toBe(3);
      expect(areas(after).reduce((a, b) => a + b)).toBeGreaterThan(40);
    }
  });

  it('is bridged by a step where nothing leads to where it goes', () => {
    // The only wall across lies on the other side.
    let project = draw(BOX, [
      [4, 3],
      [4, 6],
    ]);
    project = draw(project, [
      [4, 3],
      [4, 0],
    ]);
    project = draw(project, [
      [4, 3],
      [0, 3],
    ]);
    const upper = wallAt(project, (a, b) => a.x === 4 && b.x === 4 && Math.max(a.y, b.y) === 6);
    const up = project.corners[project.walls[upper].start].y === 3 ? 1 : -1;
    const after = edit(project, 'wall.move', { wall: upper, offset: -up * 1 });
    expect(mostTurned(project, after)).toBeLessThan(1e-12);
    expect(Object.keys(after.walls)).toHaveLength(Object.keys(project.walls).length + 1);
    const step = Object.values(after.walls).find((w) => !project.walls[w.id])!;
    expect(distance(...wallEnds(after, step))).toBeCloseTo(1, 9);
    expect(roomCount(after)).toBe(3);
  });

  it('takes along what ends on it from both sides, each in its own line', () => {
    let project = draw(BOX, [
      [4, 0],
      [4, 6],
    ]);
    // Two partitions meet it at one point from both sides, one of them obliquely.
    project = draw(project, [
      [4, 3],
      [0, 3],
    ]);
    project = draw(project, [
      [4, 3],
      [8, 5],
    ]);
    const wall = wallAt(project, (a, b) => a.x === 4 && b.x === 4);
    const after = edit(project, 'wall.move', { wall, offset: 0.5 });
    expect(mostTurned(project, after)).toBeLessThan(1e-12);
    expect(roomCount(after)).toBe(4);
    expect(validateProject(after)).toBeTruthy();
  });

  it('is refused in a sentence where a neighbour would vanish, turn over or lose what ends on it', () => {
    const project = cross4();
    const right = wallAt(project, (a, b) => a.x === 8 && b.x === 8);
    const up = wallEnds(project, project.walls[right])[0].y === 0 ? 1 : -1;
    for (const by of [8, 9, 20]) expect(() => edit(project, 'wall.move', { wall: right, offset: up * by })).toThrow(/would shrink to nothing/);
    const passing = draw(BOX, [
      [6, 0],
      [6, 4],
      [3, 4],
    ]);
    const east = wallAt(passing, (a, b) => a.x === 8 && b.x === 8);
    const out = wallEnds(passing, passing.walls[east])[0].y === 0 ? 1 : -1;
    expect(() => edit(passing, 'wall.move', { wall: east, offset: out * 3 })).toThrow(/would pass a wall that ends on its neighbour/);
  });
});

describe('a wall that is moved beside others', () => {
  it('keeps the direction of the chord of an arc it meets, and its openings where they were', () => {
    const corners: [number, number][] = [
      [0, 0],
      [6, 0],
      [6, 4],
      [0, 4],
    ];
    const project = edit(emptyProject('p', 'P'), 'wall.draw', {
      level: 'ground',
      points: corners.map(([x, y]) => ({ x, y })),
      bulges: [0, 0.2, 0, 0],
      closed: true,
      thickness: 0.2,
    });
    const arc = Object.values(project.walls).find((w) => w.bulge !== 0)!;
    const top = wallAt(project, (a, b) => a.y === 4 && b.y === 4);
    const withDoor = edit(project, 'opening.add', newOpening(project, { id: 'd', wall: top, kind: 'door', at: 3 }));
    const out = wallEnds(project, project.walls[top])[0].x === 6 ? -1 : 1;
    const after = edit(withDoor, 'wall.move', { wall: top, offset: 0.5 * out });
    expect(mostTurned(withDoor, after)).toBeLessThan(1e-12);
    expect(after.walls[arc.id].bulge).toBe(arc.bulge);
    expect(after.openings.d).toMatchObject({ wall: top, at: withDoor.openings.d.at });
    expect(roomCount(after)).toBe(1);
  });

  it('is refused where several that are moved do not lie in one line', () => {
    const project = cross4();
    const [a, b] = [wallAt(project, (p, q) => p.x === 0 && q.x === 0), wallAt(project, (p, q) => p.y === 0 && q.y === 0)];
    expect(() => edit(project, 'wall.move', { wall: a, run: [b], offset: 0.2 })).toThrow(/do not lie in one line/);
    expect(edit(project, 'wall.move', { wall: a, offset: 1e-9 })).toEqual(project);
  });
});

/** A house of rooms, each parted from another again and again, across or obliquely. */
function randomPlan(next: () => number): Project {
  const [w, d] = [6 + Math.floor(next() * 6), 5 + Math.floor(next() * 5)];
  let project = house([
    [0, 0],
    [w, 0],
    [w, d],
    [0, d],
  ]);
  const boxes: [number, number, number, number][] = [[0, 0, w, d]];
  for (let k = 0; k < 2 + Math.floor(next() * 4); k++) {
    const [x0, y0, x1, y1] = boxes.splice(Math.floor(next() * boxes.length), 1)[0];
    const upright = x1 - x0 > y1 - y0;
    const t = 0.3 + 0.4 * next();
    if ((upright ? x1 - x0 : y1 - y0) < 2.4) {
      boxes.push([x0, y0, x1, y1]);
      continue;
    }
    if (upright) {
      const x = Math.round((x0 + (x1 - x0) * t) * 10) / 10;
      project = draw(project, [
        [x, y0],
        [x, y1],
      ]);
      boxes.push([x0, y0, x, y1], [x, y0, x1, y1]);
    } else {
      const y = Math.round((y0 + (y1 - y0) * t) * 10) / 10;
      project = draw(project, [
        [x0, y],
        [x1, y],
      ]);
      boxes.push([x0, y0, x1, y], [x0, y, x1, y1]);
    }
  }
  return project;
}

describe('walls of random plans, dragged by random amounts', () => {
  it('leave all directions as they were, keep every room, and are hardly ever refused', () => {
    const next = random(20261128);
    let [tried, refused] = [0, 0];
    for (let k = 0; k < 120; k++) {
      const plan = randomPlan(next);
      // Some partitions cut in two at a crossing, as they are when one draws from the middle.
      const ids = Object.keys(plan.walls);
      for (let n = 0; n < 5; n++) {
        const wall = ids[Math.floor(next() * ids.length)];
        const offset = (next() - 0.5) * 1.2;
        tried++;
        let after: Project;
        try {
          after = edit(plan, 'wall.move', { wall, offset });
        } catch (error) {
          expect(error).toBeInstanceOf(DomainError);
          refused++;
          continue;
        }
        expect(mostTurned(plan, after)).toBeLessThan(1e-9);
        expect(roomCount(after)).toBe(roomCount(plan));
        validateProject(after);
      }
    }
    expect(tried).toBe(600);
    expect(refused / tried).toBeLessThanOrEqual(0.02);
  });
});

describe('lengths typed over in random plans', () => {
  it('come out as typed, and leave all directions as they were', () => {
    const next = random(424242);
    let [tried, refused] = [0, 0];
    for (let k = 0; k < 80; k++) {
      const plan = randomPlan(next);
      const ids = Object.keys(plan.walls);
      for (let n = 0; n < 4; n++) {
        const wall = ids[Math.floor(next() * ids.length)];
        const keep = next() < 0.5 ? 'start' : 'end';
        const before = distance(...wallEnds(plan, plan.walls[wall]));
        const length = Math.max(0.5, before + (next() - 0.5) * 1.2);
        tried++;
        let after: Project;
        try {
          after = edit(plan, 'wall.length', { wall, length, keep });
        } catch (error) {
          expect(error).toBeInstanceOf(DomainError);
          refused++;
          continue;
        }
        expect(distance(...wallEnds(after, after.walls[wall]))).toBeCloseTo(length, 6);
        expect(mostTurned(plan, after)).toBeLessThan(1e-9);
        // The end that was to stay stayed.
        const corner = plan.corners[plan.walls[wall][keep]];
        const still = after.corners[after.walls[wall][keep]];
        expect(Math.abs(cross(sub(still, corner), directionIn(plan, wall)))).toBeLessThan(1e-9);
        expect(distance(still, corner)).toBeLessThan(1e-9);
        validateProject(after);
      }
    }
    expect(tried).toBe(320);
    expect(refused / tried).toBeLessThanOrEqual(0.05);
  });

  it('move the whole straight run a partition meets, however many walls it is drawn in', () => {
    let project = draw(BOX, [
      [0, 3],
      [3, 3],
      [6, 3],
      [8, 3],
    ]);
    project = draw(project, [
      [3, 0],
      [3, 3],
    ]);
    const partition = wallAt(project, (a, b) => a.x === 3 && b.x === 3);
    const keep = project.corners[project.walls[partition].start].y === 0 ? 'start' : 'end';
    const after = edit(project, 'wall.length', { wall: partition, length: 3.6, keep });
    const run = Object.values(project.walls).filter((w) => wallEnds(project, w).every((p) => p.y === 3));
    expect(run).toHaveLength(3);
    for (const w of run) for (const p of wallEnds(after, after.walls[w.id])) expect(p.y).toBeCloseTo(3.6, 9);
    expect(mostTurned(project, after)).toBeLessThan(1e-12);
    expect(Object.keys(after.walls)).toHaveLength(Object.keys(project.walls).length);
  });

  it('are refused where the wall itself or one in its line would vanish', () => {
    const project = draw(BOX, [
      [2, 2],
      [4, 2],
      [6, 2],
    ]);
    const first = wallAt(project, (a, b) => Math.min(a.x, b.x) === 2 && Math.max(a.x, b.x) === 4);
    const keep = project.corners[project.walls[first].start].x === 2 ? 'start' : 'end';
    expect(() => edit(project, 'wall.length', { wall: first, length: 4, keep })).toThrow(/the wall in its line would shrink to nothing/);
    const free = keep === 'start' ? 'end' : 'start';
    expect(distance(...wallEnds(project, edit(project, 'wall.length', { wall: first, length: 1, keep: free }).walls[first]))).toBeGreaterThan(0);
    expect(() => edit(project, 'wall.length', { wall: first, length: 0, keep: free })).toThrow(/length goes from 0.01 m upwards/);
  });
});
