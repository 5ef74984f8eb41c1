import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { distance, rotate, sub } from '../geometry/vec';
import { deriveModel } from '../model/derive';
import type { Piece, Project } from '../project/schema';
import { CARDS, pieceFrom, placesAt, seatsOf, stockCard, stockItem } from '../stock/stock';
import { traitRows } from '../stock/traits';
import { edit, house } from '../testing/drafting';
import { centred, centredOnOpening, chairsRound, inLine, ringOf, rowsOf, seatNear, spread, type Place } from './arrange';
import { gapsOf, overlapping } from './around';
import { newOpening } from '../project/opening-defaults';

/** A room of 8 × 6 m inside, its lower left corner at the origin. */
const bare = house([
  [-0.15, -0.15],
  [8.15, -0.15],
  [8.15, 6.15],
  [-0.15, 6.15],
]);
const size = (width: number, depth: number, height = 0.8): { size: Piece['size'] } => ({ size: { width, depth, height } });
const piece = (card: string, id: string, x: number, y: number, own: Partial<Piece> = {}): Piece => ({
  ...pieceFrom(stockCard(card)!, id, bare.levels.ground, { x, y }),
  ...own,
});
const withPieces = (...pieces: Piece[]): Project => edit(bare, 'piece.add', { pieces });
const placed = (project: Project, places: Place[]): Project =>
  places.length ? edit(project, 'pieces.set', { changes: places.map((p) => ({ piece: p.piece, set: p.set })) }) : project;
let made = 0;
const newId = (): string => `copy${made++}`;

describe('pieces in line', () => {
  const project = withPieces(
    piece('table', 'a', 2, 2, size(1, 0.6)),
    piece('table', 'b', 4, 2.3, size(0.8, 0.4)),
    piece('chair', 'c', 6, 3, size(0.5, 0.5, 0.9)),
  );

  it('have their backs, fronts, sides or middles in the line of the first, which stays', () => {
    const lines = {
      back: (p: Piece) => p.y + p.size.depth / 2,
      front: (p: Piece) => p.y - p.size.depth / 2,
      left: (p: Piece) => p.x - p.size.width / 2,
      right: (p: Piece) => p.x + p.size.width / 2,
      'middle along': (p: Piece) => p.y,
      'middle across': (p: Piece) => p.x,
    } as const;
    for (const [line, at] of Object.entries(lines)) {
      const { pieces } = placed(project, inLine(deriveModel(project), ['a', 'b', 'c'], line as keyof typeof lines));
      expect(pieces.a).toEqual(project.pieces.a);
      for (const id of ['b', 'c']) expect(at(pieces[id])).toBeCloseTo(at(pieces.a), 9);
    }
  });

  it('is in the axes of the first when that is turned', () => {
    const turned = edit(project, 'piece.set', { piece: 'a', set: { rotation: 0.3 } });
    const { pieces } = placed(turned, inLine(deriveModel(turned), ['a', 'b'], 'middle along'));
    expect(rotate(sub(pieces.b, pieces.a), -0.3).y).toBeCloseTo(0, 9);
  });

  it('stand with even gaps between the outermost, or with the gap that is given', () => {
    const even = placed(project, spread(deriveModel(project), ['c', 'a', 'b'])).pieces;
    expect([even.a.x, even.c.x]).toEqual([2, 6]);
    expect(even.b.x - 0.4 - 2.5).toBeCloseTo(5.75 - even.b.x - 0.4, 9);
    const given = placed(project, spread(deriveModel(project), ['a', 'b', 'c'], 0.05)).pieces;
    expect(given.b.x).toBeCloseTo(2 + 0.5 + 0.05 + 0.4, 9);
    expect(given.c.x).toBeCloseTo(given.b.x + 0.4 + 0.05 + 0.25, 9);
    expect(given.b.y).toBe(2.3);
    expect(spread(deriveModel(project), ['a', 'b'])).toEqual([]);
  });
});

describe('pieces in the middle', () => {
  it('of what bounds them: of a wall, and of the way between two neighbours', () => {
    const project = withPieces(
      piece('table', 'a', 2, 5, size(1, 0.6)),
      piece('table', 'b', 6.5, 5, size(1, 0.6)),
      piece('chest', 'c', 3.1, 5, size(0.5, 0.5, 0.9)),
    );
    const between = placed(project, centred(deriveModel(project), 'c', 'across')).pieces.c;
    expect(between.x).toBeCloseTo((2.5 + 6) / 2, 9);
    const alone = withPieces(piece('table', 'a', 2, 5, size(1, 0.6)));
    expect(placed(alone, centred(deriveModel(alone), 'a', 'across')).pieces.a).toMatchObject({ x: 4, y: 5 });
    expect(placed(alone, centred(deriveModel(alone), 'a', 'along')).pieces.a.y).toBeCloseTo(3, 9);
  });

  it('of the window behind them', () => {
    const wall = Object.values(bare.walls).find((w) => bare.corners[w.start].y > 6 && bare.corners[w.end].y > 6)!.id;
    const opened = edit(bare, 'opening.add', newOpening(bare, { id: 'w', wall, kind: 'window', at: 3 }));
    const project = edit(opened, 'piece.add', { pieces: [piece('table', 'a', 2, 5.6, size(1, 0.6))] });
    const model = deriveModel(project);
    const { point } = model.shell.openings.get('w')!;
    expect(placed(project, centredOnOpening(model, 'a')).pieces.a).toMatchObject({ x: expect.closeTo(point.x, 9), y: 5.6 });
    // Far from that wall there is none behind it.
    const far = edit(project, 'piece.set', { piece: 'a', set: { y: 2 } });
    expect(centredOnOpening(deriveModel(far), 'a')).toEqual([]);
  });
});

describe('copies', () => {
  const project = withPieces(piece('table', 'a', 2, 2, { ...size(1, 0.6), rotation: Math.PI / 2 }), piece('vase', 'v', 2.1, 2, { on: 'a', elevation: 0.8 }));

  it('in rows stand a step on in the axes of the piece, with what stands on it', () => {
    const all = rowsOf(project, 'a', { count: { across: 3, along: 2 }, step: { across: 1.2, along: 0.9 } }, newId);
    const tables = all.filter((p) => p.maker === 'table');
    const vases = all.filter((p) => p.maker !== 'table');
    expect([tables.length, vases.length]).toEqual([5, 5]);
    const own = tables.map((t) => rotate(sub(t, project.pieces.a), -Math.PI / 2)).map(({ x, y }) => `${x.toFixed(6)} ${y.toFixed(6)}`);
    const wanted = [[1.2, 0], [2.4, 0], [0, 0.9], [1.2, 0.9], [2.4, 0.9]].map(([x, y]) => `${x.toFixed(6)} ${y.toFixed(6)}`); // prettier-ignore
    expect(own.map((s) => s.replace('-0.000000', '0.000000')).sort()).toEqual(wanted.sort());
    for (const v of vases) {
      const table = tables.find((t) => t.id === v.on)!;
      expect(distance(v, table)).toBeCloseTo(0.1, 9);
    }
    expect(() => rowsOf(project, 'a', { count: { across: 50, along: 50 }, step: { across: 1, along: 1 } }, newId)).toThrow(/at most 200/);
  });

  it('in a ring stand evenly round the point, each turned with it', () => {
    const about = { x: 4, y: 3 };
    const all = ringOf(project, 'a', about, 6, newId).filter((p) => p.maker === 'table');
    expect(all).toHaveLength(5);
    const r = distance(project.pieces.a, about);
    for (const [i, p] of all.entries()) {
      expect(distance(p, about)).toBeCloseTo(r, 9);
      expect(p.rotation - project.pieces.a.rotation).toBeCloseTo(((i + 1) * Math.PI) / 3, 9);
    }
    const six = [project.pieces.a, ...all];
    for (const [i, p] of six.entries()) expect(distance(p, six[(i + 1) % 6])).toBeCloseTo(r, 9);
  });

  it('that are linked are of one make for ever, and free ones are not', () => {
    const linked = edit(edit(project, 'pieces.link', { pieces: ['a'], link: 'k' }), 'piece.add', {
      pieces: rowsOf(project, 'a', { count: { across: 3, along: 1 }, step: { across: 1.2, along: 0 } }, newId, 'k'),
    });
    const tables = Object.values(linked.pieces).filter((p) => p.linked === 'k');
    expect(tables).toHaveLength(3);
    let after = edit(linked, 'piece.set', { piece: tables[1].id, set: { size: { width: 1.1, depth: 0.7, height: 0.9 }, traits: { top: 'round' } } });
    after = edit(after, 'finish.apply', { targets: [{ kind: 'part', of: tables[2].id, part: 'top' }], finish: 'paint.reed' });
    for (const { id, x, y } of tables) {
      expect(after.pieces[id]).toMatchObject({ x, y, traits: { top: 'round' }, size: { width: 1.1 }, finishes: { top: 'paint.reed' } });
      // What stands on any of them rises with it.
      for (const v of Object.values(after.pieces)) if (v.on === id) expect(v.elevation).toBeCloseTo(0.9, 9);
    }
    const free = edit(edit(after, 'pieces.link', { pieces: [tables[0].id], link: null }), 'piece.set', {
      piece: tables[1].id,
      set: { traits: { top: 'square corners' } },
    });
    expect(tables.map((t) => free.pieces[t.id].traits.top)).toEqual(['round', 'square corners', 'square corners']);
  });
});

describe('chairs round a table', () => {
  const chair = stockCard('chair')!;
  const roundTable = (card: string, own: Partial<Piece> = {}): Project => withPieces(piece(card, 't', 4, 3, own));

  it('stand at every place of it, face it, and clear of one another', () => {
    for (const { id } of CARDS.filter((c) => c.item.places && placesAt(c.item, c.size, c.traits).length > 1)) {
      const project = roundTable(id, { rotation: 0.7 });
      const model = deriveModel(project);
      const { size: own, traits } = project.pieces.t;
      const at = chairsRound(model, 't', chair);
      expect(at, id).toHaveLength(seatsOf(stockCard(id)!.item, own, traits));
      for (const { x, y, rotation } of at) {
        const to = sub({ x: 4, y: 3 }, { x, y });
        const facing = { x: Math.sin(rotation), y: -Math.cos(rotation) };
        expect(to.x * facing.x + to.y * facing.y, id).toBeGreaterThan(0);
      }
      const chairs = at.map((a, i) => piece('chair', `c${i}`, a.x, a.y, { rotation: a.rotation }));
      const full = deriveModel(edit(project, 'piece.add', { pieces: chairs }));
      for (const c of chairs) expect(overlapping(full, 'ground', c, c.size, new Set([c.id, 't'])), `${id} ${c.id}`).toBeNull();
    }
  });

  it('are left out where a wall or another piece is', () => {
    const open = chairsRound(deriveModel(roundTable('table', size(1.8, 0.9, 0.75))), 't', chair);
    expect(open).toHaveLength(6);
    // With its back to the wall, only the front and the ends are left.
    const against = withPieces(piece('table', 't', 4, 5.55, size(1.8, 0.9, 0.75)));
    expect(chairsRound(deriveModel(against), 't', chair)).toHaveLength(4);
    const beside = edit(against, 'piece.add', { pieces: [piece('chair', 'x', 5.1, 5.55)] });
    expect(chairsRound(deriveModel(beside), 't', chair)).toHaveLength(3);
  });

  it('finds the free place that is nearest to where one points', () => {
    const project = roundTable('table', size(1.8, 0.9, 0.75));
    const model = deriveModel(project);
    const seat = { size: chair.size, except: new Set<string>() };
    const near = seatNear(model, 'ground', { x: 3.5, y: 2.2 }, seat, 0.6)!;
    expect(near).toMatchObject({ x: expect.closeTo(3.55, 9), table: 't' });
    expect(Math.cos(near.rotation)).toBeCloseTo(-1, 9);
    expect(seatNear(model, 'ground', { x: 1, y: 1 }, seat, 0.6)).toBeNull();
    const taken = deriveModel(edit(project, 'piece.add', { pieces: [piece('chair', 'x', near.x, near.y, { rotation: near.rotation })] }));
    expect(seatNear(taken, 'ground', { x: 3.5, y: 2.2 }, seat, 0.3)).toBeNull();
  });

  it('places of a table lie on its edge, for every size and make', () => {
    const item = stockItem('table')!;
    const [top] = traitRows(item.traits!).filter((r) => r.key === 'top');
    fc.assert(
      fc.property(
        fc.double({ min: 0.6, max: 3.2, noNaN: true }),
        fc.double({ min: 0.3, max: 1.6, noNaN: true }),
        fc.constantFrom(...(top.kind === 'choice' ? top.options : [])),
        (width, depth, form) => {
          for (const p of placesAt(item, { width, depth, height: 0.75 }, { top: form })) {
            const onEdge = form === 'round' ? (2 * p.x / width) ** 2 + (2 * p.y / depth) ** 2 : Math.max((2 * Math.abs(p.x)) / width, (2 * Math.abs(p.y)) / depth); // prettier-ignore
            expect(onEdge).toBeCloseTo(1, 6);
          }
        },
      ),
    );
  });
});

describe('replaced and mirrored', () => {
  it('keeps its back where it was, or the height it hangs from', () => {
    const project = withPieces(piece('table', 'a', 4, 5.7, { ...size(1, 0.6), rotation: 0.2 }));
    const { item, size: own, traits, finishes, name } = stockCard('desk-drawers')!;
    const by = { maker: item.id, name, size: own, traits, finishes, lamp: null };
    const after = edit(project, 'pieces.replace', { pieces: ['a'], by });
    const back = (p: Piece) => rotate({ x: 0, y: p.size.depth / 2 }, p.rotation);
    expect(after.pieces.a.x + back(after.pieces.a).x).toBeCloseTo(4 + back(project.pieces.a).x, 9);
    expect(after.pieces.a.y + back(after.pieces.a).y).toBeCloseTo(5.7 + back(project.pieces.a).y, 9);
    expect(after.pieces.a).toMatchObject({ id: 'a', name, rotation: 0.2, maker: item.id });
    const hung = withPieces(piece('pendant', 'p', 4, 3, { elevation: 1.9, ...size(0.4, 0.4, 0.7) }));
    const lower = edit(hung, 'pieces.replace', { pieces: ['p'], by: { ...by, size: { width: 0.5, depth: 0.5, height: 1 } }, keep: 'top' });
    expect(lower.pieces.p.elevation).toBeCloseTo(1.6, 9);
  });

  it('mirrored, a piece has its left and right changed, and is itself again when mirrored twice', () => {
    const project = withPieces(piece('sofa', 'a', 4, 3, { ...size(2.6, 1.6), traits: { out: 'left' } }));
    const mirror = { ids: ['a'], about: { x: 4, y: 3 }, turn: 0, mirror: Math.PI / 2, by: { x: 0, y: 0 }, copy: false };
    const once = edit(project, 'carry', mirror);
    expect(once.pieces.a.mirrored).toBe(true);
    const [was, is] = [project, once].map((p) => deriveModel(p).pieces[0]);
    const across = (d: typeof was): number[] => d.footprint.map((p) => Math.round(p.x * 1e9)).sort();
    expect(across(is)).toEqual(across(was));
    for (const [i, part] of is.parts.entries()) {
      const [p, q] = [part.mesh, was.parts[i].mesh];
      expect(p.positions.length).toBe(q.positions.length);
      for (let k = 0; k < p.positions.length; k += 997 * 3) expect(p.positions[k]).toBe(-q.positions[k]);
    }
    expect(is.symbol.map((l) => l.points.map((v) => v.x))).not.toEqual(was.symbol.map((l) => l.points.map((v) => v.x)));
    expect(edit(once, 'carry', mirror).pieces.a).toEqual(project.pieces.a);
    expect(gapsOf(deriveModel(once), 'a').left!.distance).toBeCloseTo(gapsOf(deriveModel(project), 'a').right!.distance, 9);
  });
});
