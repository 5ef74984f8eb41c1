import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runChange, validateProject } from './commands';
import { box, change, draw, edit } from '../testing/drafting';
import { wallLength } from './wall-line';

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
                ? change(project, 'wall.move', { wall: wall.id, offset: by / 12 })
                : kind === 'split'
                  ? change(project, 'wall.split', { wall: wall.id, at: [length * (0.5 + by / 20)] })
                  : kind === 'build'
                    ? change(project, 'wall.build', {
                        walls: [wall.id],
                        type: by > 0 ? 'block-140' : null,
                        thickness: by > 0 ? null : 0.2,
                        keep: by % 2 ? 'left' : 'right',
                      })
                    : kind === 'recess'
                      ? change(project, 'wall.recess', { wall: wall.id, at: length / 2, width: 0.8, depth: by / 20 })
                      : kind === 'status'
                        ? change(project, 'status.set', { ids: [wall.id], status: by > 3 ? 'existing' : 'new' })
                        : kind === 'offset'
                          ? change(project, 'wall.offset', { wall: wall.id, by: by / 4 || 1 })
                          : change(project, 'wall.draw', {
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
