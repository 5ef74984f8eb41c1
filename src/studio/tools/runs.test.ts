import { beforeEach, describe, expect, it, vi } from 'vitest';
import { derivedOf } from '@/core/model/model';
import { box } from '@/core/testing/drafting';
import * as tools from './controller';
import { openBefore, state } from './testing';

vi.mock('idb-keyval', () => import('./empty-store'));

// Inside, the room is 4.7 by 3.7 m; who faces the south wall has x = 4.85 at the left.
openBefore(() => box(5, 4));

const at = (x: number, y: number) => ({ plan: { x, y }, spot: null, reach: 0.1, shift: false });
const press = (x: number, y: number): void => {
  tools.move(at(x, y));
  tools.down(at(x, y));
  tools.up(at(x, y));
};
const hold = (said: string): void => state().setTool({ kind: 'unit', said });
const names = (): string[] =>
  Object.values(state().project.cabinets)
    .sort((a, b) => a.order - b.order)
    .map((u) => u.name);

describe('a unit in hand', () => {
  beforeEach(() => hold('600 drawers'));

  it('is shown where a press puts it, with what is left, and stays in hand', () => {
    const before = state().project;
    tools.move(at(4.6, 0.4));
    const shown = state().model.project;
    expect(Object.keys(shown.cabinets)).toHaveLength(1);
    expect(state().project).toBe(before);
    expect(state().measure!.note).toContain('4100 left');
    press(4.6, 0.4);
    expect(state().project.cabinets).toEqual(shown.cabinets);
    expect(state().project.runs).toEqual(shown.runs);
    expect(state().tool.kind).toBe('unit');
    // It is chosen: its docket is open.
    expect(state().selection.map((s) => s.entity)).toEqual(Object.keys(shown.cabinets));
  });

  it('goes beside those that stand there, one press one unit, each undone for itself', () => {
    press(4.6, 0.4);
    hold('800 sink');
    press(4.0, 0.4);
    hold('450 door');
    press(4.85 - 0.65, 0.4);
    expect(names()).toEqual(['drawers', 'door', 'sink']);
    expect(derivedOf(state().model, 'runs')).toHaveLength(1);
    state().undo();
    expect(names()).toEqual(['drawers', 'sink']);
    state().undo();
    state().undo();
    expect(state().project.runs).toEqual({});
  });

  it('goes to the end of the run that is chosen by a key, and says where it can’t go', () => {
    tools.actByKey();
    expect(state().notice).toBe('No unit was placed: select a run, or a unit of one, first.');
    press(4.6, 0.4);
    tools.actByKey();
    hold('900 corner');
    tools.actByKey();
    expect(names()).toEqual(['drawers', 'drawers', 'corner']);
    expect(Object.values(state().project.runs)[0].legs).toHaveLength(2);
    hold('600 hob');
    tools.actByKey();
    const [run] = derivedOf(state().model, 'runs');
    expect(run.floor.units.at(-1)).toMatchObject({ leg: 1, stretch: { from: expect.closeTo(0.9, 6) } });
    const before = state().project;
    press(9, 9);
    expect(state().notice).toBe('No unit was placed. Point into a room, or at the face of a wall that a room sees.');
    expect(state().project).toBe(before);
    tools.escape();
    expect(state().tool.kind).toBe('select');
    expect(state().model.project).toBe(before);
  });
});
