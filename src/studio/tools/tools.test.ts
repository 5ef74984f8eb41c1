import { describe, expect, it } from 'vitest';
import { deriveModel } from '@/core/model/derive';
import { distance } from '@/core/geometry/vec';
import { runChange } from '@/core/project/commands';
import { checkOpening } from '@/core/project/openings';
import { emptyProject, type Project } from '@/core/project/schema';
import { pieceFrom, stockCard } from '@/core/stock/stock';
import { edit } from '@/core/testing/drafting';
import { openingAt, standPiece } from './place';
import { snapPoint } from './snap';

const house = (): Project =>
  runChange(emptyProject('p', 'House'), {
    id: 'drawhouse',
    kind: 'do',
    command: 'wall.draw',
    args: {
      level: 'ground',
      points: [
        { x: 0, y: 0 },
        { x: 5, y: 0 },
        { x: 5, y: 4 },
        { x: 0, y: 4 },
      ],
      closed: true,
      thickness: 0.2,
    },
  }).project;

describe('snapping', () => {
  const project = house();
  const snap = (x: number, y: number, from: { x: number; y: number } | null = null) => snapPoint(project, { x, y }, { level: 'ground', reach: 0.1, from });

  it('catches a corner before anything else', () => {
    expect(snap(0.05, -0.04)).toMatchObject({ point: { x: 0, y: 0 }, note: 'corner' });
  });

  it('lands on a wall, along a right angle where one is drawn', () => {
    expect(snap(2.02, 0.03)).toMatchObject({ point: { x: expect.closeTo(2.02), y: 0 }, note: 'on a wall' });
    const { point, note } = snap(2.53, 0.06, { x: 2.5, y: 2 });
    expect(point).toEqual({ x: 2.5, y: 0 });
    expect(note).toBe('on a wall, 270°');
  });

  it('keeps to multiples of 45° and to whole steps of length', () => {
    const { point, note } = snap(9.03, 6.02, { x: 7, y: 6 });
    expect(note).toContain('0°');
    expect(point.y).toBe(6);
    expect((point.x * 1000) % 5).toBeCloseTo(0, 6);
    const free = snap(8.3017, 7.1123, { x: 7, y: 6 });
    expect(Math.abs((distance(free.point, { x: 7, y: 6 }) * 1000) / 5 - Math.round((distance(free.point, { x: 7, y: 6 }) * 1000) / 5))).toBeLessThan(1e-3);
  });

  it('lines up with a corner that is far away, and shows the guide', () => {
    const { point, note, guides } = snap(8, 4.05);
    expect(point).toEqual({ x: 8, y: 4 });
    expect(note).toBe('in line with a corner');
    expect(guides).toHaveLength(1);
    // Along a right angle it stops where it comes in line.
    expect(snap(7.03, 4.04, { x: 7, y: 1 }).point).toEqual({ x: 7, y: 4 });
  });

  it('steps in inches where the project does', () => {
    const { point } = snapPoint({ ...project, units: 'imperial' }, { x: 9.001, y: 8.2 }, { level: 'ground', reach: 0.01 });
    expect(Math.abs(point.x / 0.0127 - Math.round(point.x / 0.0127))).toBeLessThan(1e-6);
  });
});

describe('standing', () => {
  const model = deriveModel(house());
  const stand = (name: string, x: number, y: number, reach = 0.1) => {
    const { item, size } = stockCard(name)!;
    return { item, ...standPiece(model, { level: 'ground', item, size, at: { x, y }, rotation: 0, reach }) };
  };

  it('puts a sofa with its back to each wall it is brought to', () => {
    const { size } = stockCard('sofa')!;
    for (const [x, y, expected] of [
      [2.5, 3.4, { x: 2.5, y: 3.9 - size.depth / 2, turn: 0 }],
      [2.5, 0.6, { x: 2.5, y: 0.1 + size.depth / 2, turn: 180 }],
      [0.6, 2, { x: 0.1 + size.depth / 2, y: 2, turn: 90 }],
      [4.4, 2, { x: 4.9 - size.depth / 2, y: 2, turn: 270 }],
    ] as const) {
      const { x: px, y: py, rotation, note } = stand('sofa', x, y);
      expect(note).toBe('against the wall');
      expect(px).toBeCloseTo(expected.x, 6);
      expect(py).toBeCloseTo(expected.y, 6);
      expect((((rotation * 180) / Math.PI) % 360) + (rotation < 0 ? 360 : 0)).toBeCloseTo(expected.turn, 6);
    }
  });

  it('tucks a wardrobe into the corner when it is near', () => {
    const { item, x, y } = stand('wardrobe', 0.75, 3.6);
    expect(x).toBeCloseTo(0.1 + item.size.width / 2, 6);
    expect(y).toBeCloseTo(3.9 - item.size.depth / 2, 6);
  });

  it('leaves rugs, pendants and what is far from walls where it is put', () => {
    for (const maker of ['rug', 'pendant']) expect(stand(maker, 2.5, 3.6)).toMatchObject({ x: 2.5, y: 3.6, rotation: 0 });
    expect(stand('sofa', 2.501, 2.002)).toMatchObject({ x: 2.5, y: 2, note: '' });
  });

  it('draws a curtain to the wall from farther away, with room for its folds', () => {
    const { item, y } = stand('curtain', 2.5, 3.3);
    expect(y).toBeCloseTo(3.9 - item.size.depth / 2 - 0.03, 6);
  });
});

describe('beside others', () => {
  const put = (card: string, id: string, x: number, y: number, over = {}) => ({
    ...pieceFrom(stockCard(card)!, id, emptyProject('p', 'P').levels.ground, { x, y }),
    ...over,
  });

  it('stands side by side with what is at the wall already, and not on it', () => {
    const { item, size } = stockCard('chest')!;
    const first = put('chest', 'first', 2.5, 3.9 - size.depth / 2);
    const model = deriveModel(edit(house(), 'piece.add', { pieces: [first] }));
    const stand = (x: number) => standPiece(model, { level: 'ground', item, size, at: { x, y: 3.6 }, rotation: 0, reach: 0.1 });
    const right = stand(2.5 + size.width + 0.06);
    expect(right).toMatchObject({ x: expect.closeTo(2.5 + size.width, 6), note: 'beside Chest of drawers' });
    expect(stand(2.5 - size.width - 0.05).x).toBeCloseTo(2.5 - size.width, 6);
    // Farther off it stands where it is put.
    expect(stand(2.5 + size.width + 0.3).note).toBe('against the wall');
  });

  it('stands in the middle of a recess it fills, and anywhere in a wider one', () => {
    const bare = house();
    const wall = Object.values(bare.walls).find((w) => bare.corners[w.start].y > 3.5 && bare.corners[w.end].y > 3.5)!.id;
    for (const [width, middle] of [
      [1.5, true],
      [2.6, false],
    ] as const) {
      const model = deriveModel(edit(bare, 'wall.recess', { wall, at: 2.4, width, depth: 0.5 }));
      const faces = [...model.shell.walls.values()].flatMap((w) => w.sides.filter((s) => s.room));
      // The back of the recess lies farthest up.
      const back = faces.filter((f) => Math.abs(f.from.y - f.to.y) < 1e-6).sort((a, b) => b.from.y - a.from.y)[0];
      const [x0, x1] = [Math.min(back.from.x, back.to.x), Math.max(back.from.x, back.to.x)];
      const { item } = stockCard('bookcase')!;
      const size = { width: 1.1, depth: 0.3, height: 2 };
      const at = standPiece(model, { level: 'ground', item, size, at: { x: (x0 + x1) / 2 + 0.1, y: back.from.y - 0.2 }, rotation: 0, reach: 0.1 });
      expect(at.y).toBeCloseTo(back.from.y - 0.15, 6);
      expect(at.note).toBe(middle ? 'between the walls' : 'against the wall');
      if (middle) expect(at.x).toBeCloseTo((x0 + x1) / 2, 9);
      else expect(Math.abs(at.x - (x0 + x1) / 2)).toBeGreaterThan(0.01);
    }
  });

  it('a chair takes the free place of a table that is nearest, and stands free away from it', () => {
    const table = put('table', 't', 2.5, 2, { size: { width: 1.6, depth: 0.8, height: 0.75 } });
    const model = deriveModel(edit(house(), 'piece.add', { pieces: [table] }));
    const { item, size } = stockCard('chair')!;
    const stand = (x: number, y: number) => standPiece(model, { level: 'ground', item, size, at: { x, y }, rotation: 0, reach: 0.1 });
    const seat = stand(2.15, 1.4);
    expect(seat).toMatchObject({ x: expect.closeTo(2.1, 6), note: 'at Dining table' });
    expect(Math.cos(seat.rotation)).toBeCloseTo(-1, 9);
    expect(stand(0.9, 0.9).note).toBe('');
    // A sofa is none that is drawn up.
    const sofa = stockCard('sofa')!;
    expect(standPiece(model, { level: 'ground', item: sofa.item, size: sofa.size, at: { x: 2.15, y: 1.4 }, rotation: 0, reach: 0.1 }).note).not.toContain(
      'at ',
    );
  });
});

describe('what belongs on top of something', () => {
  const put = (card: string, x: number, y: number, over = {}) => ({
    ...pieceFrom(stockCard(card)!, card, emptyProject('p', 'P').levels.ground, { x, y }),
    ...over,
  });
  const furnished = edit(house(), 'piece.add', { pieces: [put('table', 2.5, 2, { rotation: 0.5 })] });
  const model = deriveModel(furnished);
  const { item, size } = stockCard('table-lamp')!;
  const stand = (x: number, y: number, onto?: () => { x: number; y: number; z: number } | null) =>
    standPiece(model, { level: 'ground', item, size, at: { x, y }, rotation: 0, reach: 0.1, onto });

  it('stands on the table under the pointer, turned as that is, and on the floor beside it', () => {
    expect(stand(2.5, 2)).toMatchObject({ x: 2.5, y: 2, rotation: 0.5, note: 'on Dining table', rests: { on: 'table' } });
    expect(stand(2.5, 2).rests!.elevation).toBeCloseTo(0.75, 6);
    expect(stand(0.6, 0.6)).toMatchObject({ rotation: 0, note: 'on the floor', rests: { elevation: 0, on: null } });
  });

  it('hangs down from what it lies on: a cloth has its top at the top of its table', () => {
    for (const id of ['tablecloth', 'tablecloth-round', 'table-runner', 'throw-arm']) {
      const { item: own, size: wide, traits } = stockCard(id)!;
      const at = standPiece(model, { level: 'ground', item: own, size: wide, traits, at: { x: 2.5, y: 2 }, rotation: 0, reach: 0.1 });
      const top = at.rests!.elevation + wide.height;
      expect(top, id).toBeGreaterThan(0.75);
      expect(top, id).toBeLessThan(0.765);
    }
    // Folded it lies on it.
    const folded = stockCard('throw')!;
    expect(
      standPiece(model, { level: 'ground', item: folded.item, size: folded.size, traits: folded.traits, at: { x: 2.5, y: 2 }, rotation: 0, reach: 0.1 }).rests!
        .elevation,
    ).toBeCloseTo(0.75, 6);
  });

  it('is put where one points in the model, not where the line of sight meets the floor', () => {
    const over = stand(4.5, 3.5, () => ({ x: 2.4, y: 2.1, z: 0.75 }));
    expect(over).toMatchObject({ x: 2.4, y: 2.1, rests: { on: 'table' } });
    // The floor before the table, seen past its edge.
    expect(stand(4.5, 3.5, () => ({ x: 4.5, y: 3.5, z: 0 })).rests).toEqual({ elevation: 0, on: null });
  });
});

describe('a new opening', () => {
  it('stands where one points, opening into the side one points from', () => {
    const project = house();
    const wall = Object.values(project.walls)[0];
    const inside = openingAt(project, wall.id, { x: 2, y: 0.05 }, 'door', 'd');
    expect(inside).toMatchObject({ fits: true, opening: { at: 2, swing: 'left', name: 'Door 1' } });
    expect(openingAt(project, wall.id, { x: 2, y: -0.05 }, 'door', 'd').opening.swing).toBe('right');
  });

  it('is brought between the corners, and always fits then', () => {
    const project = house();
    for (const wall of Object.values(project.walls))
      for (const x of [-1, 0, 0.3, 2.5, 4.9, 7]) {
        const { opening, fits } = openingAt(project, wall.id, { x, y: x * 0.8 }, 'window', 'w');
        expect(fits).toBe(true);
        expect(() => checkOpening(project, opening)).not.toThrow();
      }
  });

  it('says when the wall is too short for it', () => {
    const short = runChange(emptyProject('p', 'P'), {
      id: 'drawshort',
      kind: 'do',
      command: 'wall.draw',
      args: {
        level: 'ground',
        points: [
          { x: 0, y: 0 },
          { x: 0.5, y: 0 },
        ],
        closed: false,
        thickness: 0.1,
      },
    }).project;
    expect(openingAt(short, Object.keys(short.walls)[0], { x: 0.2, y: 0 }, 'door', 'd').fits).toBe(false);
  });
});
