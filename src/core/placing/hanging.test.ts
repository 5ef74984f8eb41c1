import { describe, expect, it } from 'vitest';
import { insideRegion } from '../geometry/polygon';
import { deriveModel } from '../model/derive';
import { newOpening } from '../project/opening-defaults';
import type { Opening, Project } from '../project/schema';
import { CARDS, pieceFrom, stockCard } from '../stock/stock';
import { box, draw, edit, wallBy } from '../testing/drafting';
import { dressed, dressedLike, hungFrom, hungOver, placeNear, placesAtOpening } from './hanging';

let n = 0;
const next = (): string => `new${n++}`;

/** Two rooms: three windows in the front wall of the left one, one in its side, two in the right one, a door between them. */
function twoRooms(): Project {
  let p = draw(box(10, 4), [[6, 0], [6, 4]]); // prettier-ignore
  const front = wallBy(p, [0, 0], [10, 0]);
  const add = (id: string, wall: string, at: number, own: Partial<Opening> = {}): void => {
    p = edit(p, 'opening.add', { ...newOpening(p, { id, wall, kind: 'window', at, width: 0.8, height: 1.1, sill: 0.9 }), ...own });
  };
  add('a', front, 1);
  add('b', front, 3);
  add('c', front, 5);
  add('d', wallBy(p, [0, 4], [0, 0]), 2);
  add('e', front, 7);
  add('f', front, 9);
  add('door', wallBy(p, [6, 0], [6, 4]), 2, { ...newOpening(p, { id: 'door', wall: wallBy(p, [6, 0], [6, 4]), kind: 'door', at: 2 }) });
  return p;
}

const hang = (p: Project, card: string, opening: string, id = 'own'): Project =>
  edit(p, 'piece.add', { pieces: [hungFrom(p, stockCard(card)!, id, placesAtOpening(deriveModel(p), opening)[0])!] });

describe('places at openings', () => {
  it('are at the sides where there are rooms', () => {
    const model = deriveModel(twoRooms());
    expect(placesAtOpening(model, 'a')).toHaveLength(1);
    expect(placesAtOpening(model, 'door')).toHaveLength(2);
    expect(placesAtOpening(model, 'nothing')).toEqual([]);
    const bare = draw(twoRooms(), [[20, 0], [24, 0]]); // prettier-ignore
    const lone = edit(bare, 'opening.add', newOpening(bare, { id: 'lone', wall: wallBy(bare, [20, 0], [24, 0]), kind: 'window', at: 2 }));
    expect(placesAtOpening(deriveModel(lone), 'lone').map((p) => p.side)).toEqual(['left', 'right']);
    // At a window round a corner something hangs at each of its parts.
    const p = twoRooms();
    const corner = edit(p, 'opening.add', {
      ...newOpening(p, { id: 'corner', wall: wallBy(p, [10, 4], [0, 4]), kind: 'window', form: 'corner', at: 0 }),
      hinge: 'start',
      width: 1,
      depth: 1,
      at: 0.5,
    });
    expect(placesAtOpening(deriveModel(corner), 'corner').map((l) => l.leg)).toEqual([false, true]);
    const parts = dressed(deriveModel(corner), stockCard('roller-blind')!, placesAtOpening(deriveModel(corner), 'corner'), next).pieces;
    const hung = edit(corner, 'coverings.hang', { pieces: parts, instead: [] });
    const turns = parts.map(({ id }) => hung.pieces[id].rotation);
    expect(Math.abs(Math.cos(turns[0] - turns[1]))).toBeLessThan(1e-6);
  });

  it('are meant by where one points: at the nearest, in the room one points from', () => {
    const model = deriveModel(twoRooms());
    expect(placeNear(model, 'ground', { x: 1.1, y: 0.3 }, 0.3)?.opening).toBe('a');
    expect(placeNear(model, 'ground', { x: 2.6, y: 0 }, 0.3)?.opening).toBe('b');
    // From outside the room behind it is meant.
    expect(placeNear(model, 'ground', { x: 3, y: -0.2 }, 0.3)).toEqual(placeNear(model, 'ground', { x: 3, y: 0.2 }, 0.3));
    expect(placeNear(model, 'ground', { x: 3, y: 2 }, 0.3)).toBeNull();
    expect(placeNear(model, 'other', { x: 3, y: 0.2 }, 0.3)).toBeNull();
    // A door is between two rooms.
    const sides = [5.8, 6.2].map((x) => placeNear(model, 'ground', { x, y: 2 }, 0.3));
    expect(sides.map((s) => s?.opening)).toEqual(['door', 'door']);
    expect(sides[0]!.side).not.toBe(sides[1]!.side);
  });
});

describe('hanging', () => {
  it('puts every card of the kind in the room before its window, as the shell knows it', () => {
    const p = twoRooms();
    const model = deriveModel(p);
    const cards = CARDS.filter((c) => c.item.hangs);
    expect(cards.length).toBeGreaterThan(20);
    expect(CARDS.filter((c) => c.item.mount === 'window' && !c.item.hangs)).toEqual([]);
    for (const card of cards) {
      const [place] = placesAtOpening(model, 'b');
      const piece = hungFrom(p, card, 'x', place)!;
      const room = model.shell.rooms.get(model.shell.openings.get('b')!.rooms[place.side]!)!;
      // Its front is in the room; in a recess its back is in the wall.
      const front = { x: piece.x + Math.sin(piece.rotation) * 0.3, y: piece.y - Math.cos(piece.rotation) * 0.3 };
      expect(insideRegion(front, room.region), card.id).toBe(true);
      // What is added is where it was said to be.
      expect(edit(p, 'piece.add', { pieces: [piece] }).pieces.x).toEqual(piece);
    }
    expect(hungFrom(p, stockCard('chair')!, 'x', placesAtOpening(model, 'b')[0])).toBeNull();
  });

  it('a piece that is moved over another window hangs there as it hung here', () => {
    const p = hang(twoRooms(), 'curtain', 'a');
    const shifted = edit(p, 'piece.set', { piece: 'own', set: { hangs: { ...p.pieces.own.hangs!, sides: 0.1, ends: 'sill' } } });
    const over = hungOver(shifted, shifted.pieces.own, placesAtOpening(deriveModel(shifted), 'b')[0])!;
    expect(over.hangs).toMatchObject({ opening: 'b', sides: 0.1, ends: 'sill' });
    const free = pieceFrom(stockCard('curtain')!, 'x', p.levels.ground, { x: 3, y: 2 });
    expect(hungOver(p, free, placesAtOpening(deriveModel(p), 'b')[0])!.hangs).toMatchObject({ opening: 'b', ends: 'floor' });
    expect(hungOver(p, pieceFrom(stockCard('chair')!, 'y', p.levels.ground, { x: 3, y: 2 }), placesAtOpening(deriveModel(p), 'b')[0])).toBeNull();
  });

  it('dresses all windows of the room or of the house alike, and takes down what hung there of the same making', () => {
    let p = hang(twoRooms(), 'curtain', 'a');
    p = hang(p, 'curtain-eyelet', 'b', 'other');
    p = hang(p, 'roller-blind', 'b', 'blind');
    const room = dressedLike(deriveModel(p), 'own', 'room', next);
    expect(room.pieces.map((q) => q.hangs!.opening).sort()).toEqual(['b', 'c', 'd']);
    expect(room.instead).toEqual(['other']);
    const done = edit(p, 'coverings.hang', room);
    expect(done.pieces.other).toBeUndefined();
    expect(done.pieces.blind).toEqual(p.pieces.blind);
    for (const { id, ...made } of room.pieces) expect(done.pieces[id]).toMatchObject({ traits: p.pieces.own.traits, x: made.x, y: made.y });
    const house_ = dressedLike(deriveModel(p), 'own', 'house', next);
    expect(house_.pieces.map((q) => q.hangs!.opening).sort()).toEqual(['b', 'c', 'd', 'e', 'f']);
    // Once more changes nothing but ids.
    const again = dressedLike(deriveModel(edit(p, 'coverings.hang', house_)), 'own', 'house', next);
    expect(again.pieces).toHaveLength(5);
    expect(again.instead.sort()).toEqual(house_.pieces.map((q) => q.id).sort());
    // A free piece dresses nothing.
    expect(dressedLike(deriveModel(edit(p, 'piece.set', { piece: 'own', set: { x: 3, y: 2 } })), 'own', 'house', next)).toEqual({ pieces: [], instead: [] });
  });

  it('mirrors what has a left and a right in the other half of a wall', () => {
    const p = hang(twoRooms(), 'curtain-single', 'a');
    const by = (id: string, list: { hangs: { opening: string } | null; mirrored: boolean }[]): boolean => list.find((q) => q.hangs!.opening === id)!.mirrored;
    const { pieces } = dressedLike(deriveModel(p), 'own', 'room', next);
    expect([by('b', pieces), by('c', pieces), by('d', pieces)]).toEqual([false, true, false]);
    // Of the other room's two one is as the first, the other mirrored; so it is whichever one begins with.
    const all = dressedLike(deriveModel(p), 'own', 'house', next).pieces;
    expect(by('e', all)).not.toBe(by('f', all));
    // A pair is the same both ways.
    const pair = dressedLike(deriveModel(hang(twoRooms(), 'curtain', 'a')), 'own', 'house', next).pieces;
    expect(pair.every((q) => !q.mirrored)).toBe(true);
  });

  it('hangs a card at both sides of a door between rooms, instead of what its maker hung there', () => {
    const p = twoRooms();
    const first = dressed(deriveModel(p), stockCard('curtain')!, placesAtOpening(deriveModel(p), 'door'), next);
    expect(first.pieces).toHaveLength(2);
    const hung = edit(p, 'coverings.hang', first);
    const second = dressed(deriveModel(hung), stockCard('curtain-eyelet')!, placesAtOpening(deriveModel(hung), 'door'), next);
    expect(second.instead.sort()).toEqual(first.pieces.map((q) => q.id).sort());
    // A door has no recess: a blind hangs before its wall.
    expect(
      dressed(deriveModel(p), stockCard('roller-blind')!, placesAtOpening(deriveModel(p), 'door'), next).pieces.every((q) => q.hangs!.where === 'wall'),
    ).toBe(true);
  });
});
