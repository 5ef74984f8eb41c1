import { describe, expect, it } from 'vitest';
import { newRun } from '../cabinetry/begin';
import { legAlong } from '../cabinetry/sides';
import { deriveModel } from '../model/derive';
import { pieceFrom, stockCard } from '../stock/stock';
import { unitsSaid } from '../testing/cabinets';
import { box, edit, wallBy } from '../testing/drafting';
import { restsOn } from './resting';

const room = box(5, 4);
const [level] = Object.keys(room.levels);
const leg = legAlong({ wall: wallBy(room, [0, 0], [5, 0]), side: 'left', room: Object.keys(room.rooms)[0] });
const fitted = edit(room, 'run.lay', { run: newRun('run-a', 'Kitchen', level, [leg], 'metric'), units: unitsSaid('600 door, 800 sink, 600 door') });
const NONE: ReadonlySet<string> = new Set();
const on = (project: typeof room, x: number, y: number, aim?: number) => restsOn(deriveModel(project), level, { x, y }, NONE, aim);

describe('what something small is put on', () => {
  it('is the worktop of a run, not the sink in it, nor the floor before it', () => {
    // Who faces the wall has x = 4.85 at the left.
    expect(on(fitted, 4.5, 0.4)).toEqual({ piece: null, name: 'the worktop', rotation: null, height: expect.closeTo(0.9, 9) });
    expect(on(fitted, 4.85 - 1, 0.45)).toBeNull();
    expect(on(fitted, 4.5, 1.2)).toBeNull();
    expect(on(fitted, 4.5, 0.4, 0)).toBeNull();
    expect(on(fitted, 4.5, 0.4, 0.88)?.name).toBe('the worktop');
  });

  it('is a piece that stands on it, which is then taken along', () => {
    const tray = { ...pieceFrom(stockCard('tray')!, 'tray', room.levels[level], { x: 4.5, y: 0.4 }), elevation: 0.9 };
    const project = edit(fitted, 'piece.add', { pieces: [tray] });
    expect(on(project, 4.5, 0.4)).toMatchObject({ piece: 'tray', name: tray.name });
    expect(on(project, 4.5, 0.4)!.height).toBeGreaterThan(0.9);
  });
});
