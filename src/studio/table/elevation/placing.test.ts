import { describe, expect, it } from 'vitest';
import { elevationFaces } from '@/core/drawing/elevation/unroll';
import { deriveModel } from '@/core/model/derive';
import type { Piece } from '@/core/project/schema';
import { pieceFrom, stockCard } from '@/core/stock/stock';
import { box, edit, wallBy } from '@/core/testing/drafting';
import { standUpright } from '../../tools/place';
import { faceBehind, movedUpright, pointOn, uprightGaps } from './placing';

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

  it('has distances to the ends of its wall and to the floor, and is there where another is typed', () => {
    for (const own of [hung(2, 3.83, 0), hung(5.83, 2, -Math.PI / 2), hung(2.6, 0.17, Math.PI)]) {
      const gaps = uprightGaps(own, round);
      const { width } = own.size;
      const { length } = faceBehind(round, own)!.side!;
      expect(gaps.map((g) => g.words)).toEqual(['to the left end of the wall', 'to the right end of the wall', 'above the floor']);
      expect(gaps[0].value + width + gaps[1].value).toBeCloseTo(length, 9);
      expect(gaps[2].value).toBeCloseTo(1.4, 9);
      gaps.forEach((gap, i) => {
        expect(Math.hypot(gap.to.x - gap.from.x, gap.to.y - gap.from.y)).toBeCloseTo(gap.value, 9);
        const moved = { ...own, ...movedUpright(own, round, gap.by(0.75))! };
        expect(uprightGaps(moved, round)[i].value).toBeCloseTo(0.75, 9);
      });
    }
    // What stands on the floor stays on it; what hangs at a window has none of its own.
    const chest = pieceFrom(stockCard('chest')!, 'c', project.levels.ground, { x: 2, y: 3.6 });
    expect(uprightGaps(chest, round)).toHaveLength(2);
    const hangs = { opening: 'w', side: 'left', leg: false, where: 'wall', ends: 'floor', sides: 0, above: 0, below: 0 } as const;
    expect(uprightGaps({ ...chest, hangs }, round)).toEqual([]);
  });

  it('is placed where one points at its wall: what hangs with its middle there, all else with its back to it', () => {
    const picture = stockCard('picture')!;
    for (const { face, x } of round) {
      const at = pointOn(round, { x: x + 1.2, y: 1.6 }, 'ground')!;
      const { rests, note, ...stands } = standUpright(model, picture.item, picture.size, at.wall!);
      const made = { ...hung(0, 0, 0), ...stands, elevation: rests!.elevation };
      expect(note).toBe('on the wall');
      expect(faceBehind(round, made)).toBe(face);
      expect(rests!.elevation + picture.size.height / 2).toBeCloseTo(1.6, 1);
      expect(uprightGaps(made, round)[0].value + picture.size.width / 2).toBeCloseTo(1.2, 6);
      // Its back is at the face: the room's outline lies half its depth behind it.
      const axes = at.wall!;
      expect((made.x - axes.origin.x) * axes.out.x + (made.y - axes.origin.y) * axes.out.y).toBeCloseTo(picture.size.depth / 2, 9);
    }
    // At the end of the wall it stays on it; a chest stands on the floor; a vase on the chest that is there.
    const [first] = round;
    const end = standUpright(model, picture.item, picture.size, pointOn(round, { x: first.x + 0.01, y: 1.6 }, 'ground')!.wall!);
    expect(uprightGaps({ ...hung(0, 0, 0), ...end }, round)[0].value).toBeCloseTo(0, 9);
    const chest = stockCard('chest')!;
    const low = standUpright(model, chest.item, chest.size, pointOn(round, { x: first.x + 2, y: 1.6 }, 'ground')!.wall!);
    expect([low.note, low.rests]).toEqual(['against the wall', undefined]);
    const there = deriveModel(edit(project, 'piece.add', { pieces: [{ ...pieceFrom(chest, 'chest', project.levels.ground, low, low.rotation) }] }));
    const vase = stockCard('vase')!;
    const on = standUpright(there, vase.item, vase.size, pointOn(round, { x: first.x + 2, y: 1 }, 'ground')!.wall!);
    expect(on).toMatchObject({ note: 'on Chest of drawers', rests: { on: 'chest', elevation: expect.closeTo(chest.size.height, 3) } });
  });
});
