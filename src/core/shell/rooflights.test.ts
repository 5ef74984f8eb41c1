import { describe, expect, it } from 'vitest';
import { deriveModel } from '../model/derive';
import { meshArea } from '../geometry/mesh';
import { validateProject } from '../project/commands';
import { DEFAULTS, type Project, type Rooflight } from '../project/schema';
import { openingSchedule } from '../schedules/shell';
import { edit, house } from '../testing/drafting';
import { openEdges } from '../testing/solid';

const plain = (): Project =>
  house(
    [
      [0, 0],
      [6, 0],
      [6, 4],
      [0, 4],
    ],
    0.2,
  );
const light = (extra: Partial<Rooflight> = {}): Rooflight => ({
  id: 'r',
  name: 'Rooflight 1',
  level: 'ground',
  x: 3,
  y: 2,
  rotation: 0,
  form: 'fixed',
  ...DEFAULTS.rooflight,
  panes: { across: 1, up: 1 },
  frame: 0.045,
  open: 0,
  status: 'new',
  finishes: {},
  ...extra,
});

describe('a rooflight', () => {
  it('opens the ceiling of its room and lines the shaft', () => {
    const project = edit(plain(), 'rooflight.put', light());
    const model = deriveModel(project);
    const [room] = model.shell.rooms.values();
    const ceiling = model.shell.levels[0].parts.find((p) => p.part.key === `${room.id}/ceiling`)!.part;
    expect(meshArea(ceiling.mesh)).toBeCloseTo(5.8 * 3.8 - 0.8 * 1.2 + 2 * (0.8 + 1.2) * 0.35, 4);
    expect(validateProject(JSON.parse(JSON.stringify(project)))).toEqual(project);
  });

  it('cuts lowered ceilings through, up to the same height', () => {
    let project = plain();
    const room = Object.keys(project.rooms)[0];
    project = edit(project, 'room.set', { room, set: { cover: { kind: 'coffer', height: null, drop: 0.2, border: 0.5 } } });
    const before = deriveModel(project).shell.levels[0].parts.find((p) => p.part.key === `${room}/ceiling`)!.part;
    project = edit(project, 'rooflight.put', light());
    const after = deriveModel(project).shell.levels[0].parts.find((p) => p.part.key === `${room}/ceiling`)!.part;
    expect(meshArea(after.mesh) - meshArea(before.mesh)).toBeCloseTo(-0.8 * 1.2 + 2 * (0.8 + 1.2) * 0.35, 4);
  });

  it('is of closed solids in every form, however far it stands open', () => {
    for (const form of ['fixed', 'hinged', 'dome'] as const)
      for (const open of [0, 0.6]) {
        const project = edit(plain(), 'rooflight.put', light({ form, open, rotation: 0.5, panes: { across: 2, up: 3 } }));
        const [derived] = deriveModel(project).shell.levels[0].rooflights;
        for (const { part, mesh } of derived.parts) expect([form, part, openEdges(mesh)]).toEqual([form, part, 0]);
        expect(derived.height).toBeCloseTo(2.85, 9);
        const { along, up } = derived.glazing[0];
        expect(Math.hypot(along.x, along.y) * Math.hypot(up.x, up.y)).toBeCloseTo((0.8 - 0.09) * (1.2 - 0.09), 9);
      }
  });

  it('is counted, carried with its room, and told by its status', () => {
    let project = edit(plain(), 'rooflight.put', light({ x: 1.5 }));
    expect(openingSchedule(deriveModel(project))).toMatchObject([{ kind: 'Rooflight', width: 0.8, height: 1.2, to: 'sky' }]);
    project = edit(project, 'room.carry', { room: Object.keys(project.rooms)[0], how: 'mirror-x' });
    expect(project.rooflights.r.x).toBeCloseTo(4.5, 9);
    expect(() => edit(project, 'status.set', { ids: ['r'], status: 'removed' })).toThrow('there when it is');
    project = edit(project, 'status.set', { ids: [...Object.keys(project.walls), ...Object.keys(project.rooms), 'r'], status: 'existing' });
    project = edit(project, 'status.set', { ids: ['r'], status: 'removed' });
    expect(deriveModel(project).shell.levels[0].rooflights).toHaveLength(0);
    expect(edit(project, 'delete', { ids: ['r'] }).rooflights).toEqual({});
  });

  it('is refused out of its room, over another one, under the open sky, and keeps walls off', () => {
    const project = edit(plain(), 'rooflight.put', light());
    expect(() => edit(project, 'rooflight.put', light({ x: 9 }))).toThrow('lies in the ceiling of a room');
    expect(() => edit(project, 'rooflight.put', light({ x: 5.8 }))).toThrow('reach out of');
    expect(() => edit(project, 'rooflight.put', light({ id: 's', name: 'Rooflight 2', x: 3.5 }))).toThrow('overlap Rooflight 1');
    const room = Object.keys(project.rooms)[0];
    expect(() => edit(project, 'room.set', { room, set: { cover: { kind: 'open' } } })).toThrow('open to the sky');
    expect(() =>
      edit(project, 'wall.draw', {
        level: 'ground',
        points: [
          { x: 3, y: 0 },
          { x: 3, y: 4 },
        ],
        closed: false,
        thickness: 0.1,
      }),
    ).toThrow('Rooflight 1');
  });
});
