import { describe, expect, it } from 'vitest';
import { deriveModel } from '../model/derive';
import { runChange, validateProject, type CommandArgs, type CommandName } from './commands';
import { levelBelow, levelsOf } from './levels';
import { newOpening } from './opening-defaults';
import { newRoof } from './roof-defaults';
import type { Project } from './schema';
import { draw, edit, house, wallAt } from '../testing/drafting';

let step = 0;
const run = <N extends CommandName>(project: Project, command: N, args: CommandArgs<N>) =>
  runChange(project, { id: `change${String(step++).padStart(5, '0')}`, kind: 'do', command, args });
const parted = (): Project => {
  let project = house([
    [0, 0],
    [8, 0],
    [8, 5],
    [0, 5],
  ]);
  project = draw(project, [
    [3, 0],
    [3, 5],
  ]);
  const south = wallAt(project, (a, b) => a.y === 0 && b.y === 0);
  return edit(project, 'opening.add', newOpening(project, { id: 'o', wall: south, kind: 'window', at: 5 }));
};
const upper = { id: 'upper', name: 'Upper', of: 'ground', where: 'above', height: 2.4, slab: 0.3 } as const;

describe('adding a level', () => {
  it('takes over all walls, the outer ones, or none, and leaves openings where they are', () => {
    for (const [walls, count, rooms] of [
      ['all', 5, 2],
      ['outer', 4, 1],
      ['none', 0, 0],
    ] as const) {
      const project = edit(parted(), 'level.add', { ...upper, walls });
      expect(Object.values(project.walls).filter((w) => w.level === 'upper')).toHaveLength(count);
      expect(Object.values(project.rooms).filter((r) => r.level === 'upper')).toHaveLength(rooms);
      expect(project.levels.upper.elevation).toBeCloseTo(2.5 + 0.3, 9);
      expect(Object.keys(project.openings)).toEqual(['o']);
      expect(validateProject(JSON.parse(JSON.stringify(project)))).toEqual(project);
      expect(deriveModel(project).shell.levels.map((l) => l.id)).toEqual(['ground', 'upper']);
    }
  });

  it('between two others makes room, and below the lowest goes down', () => {
    let project = edit(parted(), 'level.add', { ...upper, walls: 'all' });
    project = edit(project, 'level.add', { ...upper, id: 'between', walls: 'none' });
    expect(project.levels.between.elevation).toBeCloseTo(2.8, 9);
    expect(project.levels.upper.elevation).toBeCloseTo(2.8 + 2.4 + 0.3, 9);
    project = edit(project, 'level.add', { ...upper, id: 'cellar', where: 'below', walls: 'outer', height: 2.2, slab: 0.2 });
    expect(project.levels.cellar.elevation).toBeCloseTo(-0.25 - 2.2, 9);
    expect(levelsOf(project).map((l) => l.id)).toEqual(['cellar', 'ground', 'between', 'upper']);
    expect(levelBelow(project, 'ground')!.id).toBe('cellar');
    expect(levelBelow(project, 'cellar')).toBeNull();
  });

  it('takes the roof up, with the edges over the walls that now carry it', () => {
    let project = parted();
    project = edit(project, 'roof.put', { roof: newRoof(project, { id: 'roof', level: 'ground' }, 'gable') });
    project = edit(project, 'level.add', { ...upper, walls: 'outer' });
    const roof = project.roofs.roof;
    expect(roof.level).toBe('upper');
    for (const key of Object.keys(roof.edges)) expect(project.walls[key].level).toBe('upper');
    expect(
      Object.values(project.walls)
        .filter((w) => w.top.kind === 'roof')
        .every((w) => w.level === 'upper'),
    ).toBe(true);
    const [ground, top] = deriveModel(project).shell.levels;
    expect([ground.roofs.length, top.roofs.length]).toEqual([0, 1]);
  });

  it('leaves a shelter where it stands, and the roof where no walls are taken over', () => {
    let project = parted();
    project = edit(project, 'roof.put', { roof: newRoof(project, { id: 'roof', level: 'ground' }, 'hip') });
    const points = [
      { x: 9, y: 0 },
      { x: 12, y: 0 },
      { x: 12, y: 3 },
      { x: 9, y: 3 },
    ];
    project = edit(project, 'roof.put', { roof: newRoof(project, { id: 'shelter', level: 'ground', over: { kind: 'outline', points } }, 'hip') });
    const carried = edit(project, 'level.add', { ...upper, walls: 'outer' });
    expect([carried.roofs.roof.level, carried.roofs.shelter.level]).toEqual(['upper', 'ground']);
    const bare = edit(project, 'level.add', { ...upper, walls: 'none' });
    expect(bare.roofs.roof.level).toBe('ground');
    expect(Object.values(bare.walls).some((w) => w.top.kind === 'roof')).toBe(true);
  });

  it('is undone to the identical project', () => {
    const before = parted();
    const { project, inverse } = run(before, 'level.add', { ...upper, walls: 'all' });
    const back = runChange(project, { id: 'undo00001', kind: 'undo', command: 'history.patch', args: { patches: inverse } }).project;
    expect(back).toEqual(before);
  });
});

describe('heights', () => {
  it('carry what is above: the ceiling height and the thickness of the slab', () => {
    let project = edit(parted(), 'level.add', { ...upper, walls: 'all' });
    project = edit(project, 'level.set', { id: 'ground', set: { height: 2.7 } });
    expect(project.levels.upper.elevation).toBeCloseTo(3, 9);
    project = edit(project, 'level.set', { id: 'upper', set: { slab: 0.2 } });
    expect(project.levels.upper.elevation).toBeCloseTo(2.9, 9);
    expect(project.levels.ground.elevation).toBe(0);
    project = edit(project, 'level.set', { id: 'ground', set: { elevation: 0.4 } });
    expect([project.levels.ground.elevation, project.levels.upper.elevation]).toEqual([0.4, expect.closeTo(3.3, 9)]);
  });

  it('come down again when a level is deleted, with all that stood on it', () => {
    let project = edit(parted(), 'level.add', { ...upper, walls: 'all' });
    project = edit(project, 'level.add', { ...upper, id: 'top', of: 'upper', name: 'Top', walls: 'outer' });
    const before = Object.keys(parted().walls).length;
    project = edit(project, 'level.delete', { id: 'upper' });
    expect(project.levels.top.elevation).toBeCloseTo(2.8, 9);
    expect(Object.values(project.walls).filter((w) => w.level === 'ground')).toHaveLength(before);
    expect(Object.values(project.rooms).some((r) => r.level === 'upper')).toBe(false);
    expect(validateProject(JSON.parse(JSON.stringify(project)))).toEqual(project);
    expect(() => edit(parted(), 'level.delete', { id: 'ground' })).toThrow('at least one');
  });
});
