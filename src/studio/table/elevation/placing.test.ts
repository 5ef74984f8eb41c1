import { describe, expect, it } from 'vitest';
import { elevationFaces } from '@/core/drawing/elevation/unroll';
import { deriveModel } from '@/core/model/derive';
import type { Piece } from '@/core/project/schema';
import { pieceFrom, stockCard } from '@/core/stock/stock';
import { box, wallBy } from '@/core/testing/drafting';
import { faceBehind, movedUpright } from './placing';

/** A room of 5.7 × 3.7 m inside, its lower left inner corner at 0.15. */
const project = box(6, 4);
const model = deriveModel(project);
const north = wallBy(project, [0, 4], [6, 4]);
const east = wallBy(project, [6, 0], [6, 4]);
const side = model.shell.walls.get(north)!.sides.find((s) => s.room !== null)!.side;
const round = elevationFaces(model, { wall: north, side }, true);
const hung = (x: number, y: number, rotation: number): Piece => ({
  ...pieceFrom(stockCard('picture')!, 'p', project.levels.ground, { x, y }, rotation),
  elevation: 1.4,
});

describe('a piece in an elevation', () => {
  it('goes along the wall it hangs on, whichever of the room’s walls the drawing begins with', () => {
    expect(round).toHaveLength(4);
    const [back, right] = [hung(2, 3.83, 0), hung(5.83, 2, -Math.PI / 2)];
    expect(faceBehind(round, back)!.side!.wall).toBe(north);
    expect(faceBehind(round, right)!.side!.wall).toBe(east);
    // To the right of who looks at it from the room: at the north wall that is +x, at the east wall −y.
    expect(movedUpright(back, round, { x: 0.3, y: 0.2 })).toEqual({ x: expect.closeTo(2.3, 9), y: expect.closeTo(3.83, 9), elevation: expect.closeTo(1.6, 9) });
    expect(movedUpright(right, round, { x: 0.3, y: -0.2 })).toEqual({
      x: expect.closeTo(5.83, 9),
      y: expect.closeTo(1.7, 9),
      elevation: expect.closeTo(1.2, 9),
    });
  });

  it('stays on the floor where it stands there, and never sinks into it', () => {
    const chest = pieceFrom(stockCard('chest')!, 'c', project.levels.ground, { x: 2, y: 3.6 });
    expect(movedUpright(chest, round, { x: -0.5, y: 1 })).toEqual({ x: expect.closeTo(1.5, 9), y: expect.closeTo(3.6, 9) });
    expect(movedUpright(hung(2, 3.83, 0), round, { x: 0, y: -9 })!.elevation).toBe(0);
    expect(movedUpright(hung(20, 20, 0), round, { x: 1, y: 0 })).toBeNull();
  });
});
