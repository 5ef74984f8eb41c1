import { describe, expect, it } from 'vitest';
import { findings } from '../checks/findings';
import { sparseCottage } from '../testing/cottage';
import { deriveModel } from '../model/derive';
import { deltaOf } from '../project/delta';
import type { Project } from '../project/schema';
import { edit } from '../testing/drafting';
import { scheduleLists } from '../schedules/lists';
import { ResidentModel } from './resident';
import { compareSchemes } from '../schedules/schemes';

const plain = (value: unknown): unknown => JSON.parse(JSON.stringify(value));
const demo = sparseCottage(({ lamp, maker }) => lamp !== null || maker === 'sofa');

/** A resident that is told as a page tells it: by data alone. */
function told(): { model: ResidentModel; tell(p: Project): void } {
  const model = new ResidentModel();
  let [known, version]: [Project | null, number] = [null, 0];
  return {
    model,
    tell(p) {
      expect(model.follow(known ? version : 0, ++version, structuredClone(deltaOf(known, p)))).toBe(true);
      known = p;
    },
  };
}

describe('the resident model', () => {
  it('counts, finds and compares as a model from nothing does, edit by edit', () => {
    const { model, tell } = told();
    let project = demo;
    const [first, second] = Object.keys(demo.schemes);
    const rooms = Object.keys(demo.rooms);
    const edits: [Parameters<typeof edit>[1], never][] = [
      ['wall.move', { wall: Object.keys(demo.walls)[5], offset: 0.05 } as never],
      ['finish.apply', { targets: [{ kind: 'walls', room: rooms[0] }], finish: 'paint.reed' } as never],
      ['level.set', { id: Object.keys(demo.levels)[0], set: { height: 2.55 } } as never],
    ];
    for (let i = 0; i <= edits.length; i++) {
      tell(project);
      const fresh = deriveModel(project);
      for (const list of ['rooms', 'finishes', 'openings', 'outside'])
        expect(plain(model.rows(list, 'after'))).toEqual(plain(scheduleLists()[list].rows(fresh)));
      expect(plain(model.findings('after'))).toEqual(plain(findings(fresh)));
      expect(plain(model.compare(first, second))).toEqual(plain(compareSchemes(project, first, second)));
      if (i < edits.length) project = edit(project, ...edits[i]);
    }
  });

  it('makes a small part of the model for an edit, and nothing where it is asked again', () => {
    const { model, tell } = told();
    tell(demo);
    model.rows('rooms', 'after');
    const whole = model.made('after');
    // Findings are the first that look at bodies.
    model.findings('after');
    model.rows('finishes', 'after');
    model.findings('after');
    expect(model.made('after')).toBe(0);
    tell(edit(demo, 'piece.set', { piece: Object.keys(demo.pieces)[0], set: { x: 1 } }));
    model.rows('rooms', 'after');
    expect(model.made('after')).toBeLessThan(whole / 20);
  });

  it('says where it has lost the thread, and what it does not know', () => {
    const model = new ResidentModel();
    expect(model.follow(3, 4, deltaOf(null, demo))).toBe(false);
    expect(() => model.findings('after')).toThrow(/no project has been told/);
    expect(model.follow(0, 1, deltaOf(null, demo))).toBe(true);
    expect(() => model.rows('nothing', 'after')).toThrow(/no schedule called nothing/);
  });
});
