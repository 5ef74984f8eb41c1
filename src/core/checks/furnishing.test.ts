import { describe, expect, it } from 'vitest';
import { deriveModel, Deriver } from '../model/derive';
import { newOpening } from '../project/opening-defaults';
import type { Opening, Piece, Project } from '../project/schema';
import { pieceFrom, stockCard } from '../stock/stock';
import { edit, house } from '../testing/drafting';
import { findings } from './findings';
import { furnishingFindings } from './furnishing';
import { narrowWays } from './ways';

/** A room of 6 × 4 m inside, its lower left corner at the origin. */
const bare = house([
  [-0.15, -0.15],
  [6.15, -0.15],
  [6.15, 4.15],
  [-0.15, 4.15],
]);
const wall = (test: (a: { x: number; y: number }, b: { x: number; y: number }) => boolean): string =>
  Object.values(bare.walls).find((w) => test(bare.corners[w.start], bare.corners[w.end]))!.id;
const NORTH = wall((a, b) => a.y > 4 && b.y > 4);
const SOUTH = wall((a, b) => a.y < 0 && b.y < 0);
const WEST = wall((a, b) => a.x < 0 && b.x < 0);
const EAST = wall((a, b) => a.x > 6 && b.x > 6);

const idOf = (name: string): string => name.replace(/ /g, '-');
const piece = (card: string, name: string, x: number, y: number, own: Partial<Piece> = {}): Piece => ({
  ...pieceFrom(stockCard(card)!, idOf(name), bare.levels.ground, { x, y }),
  name,
  ...own,
});
const size = (width: number, depth: number, height = 0.8): { size: Piece['size'] } => ({ size: { width, depth, height } });
const withPieces = (p: Project, ...pieces: Piece[]): Project => edit(p, 'piece.add', { pieces });
const opened = (p: Project, name: string, on: string, kind: Opening['kind'], at: number, own: Partial<Opening> = {}): Project =>
  edit(p, 'opening.add', { ...newOpening(p, { id: idOf(name), wall: on, kind, at }), name, ...own });
const said = (p: Project, code: string): string[] => furnishingFindings(deriveModel(p)).flatMap((f) => (f.code === code ? [f.message] : []));

describe('room beside furniture', () => {
  it('is wanted beside a bed below the tables at its head, and before it', () => {
    const bed = (x: number, y: number): Project =>
      withPieces(bare, piece('bed', 'Bed', x, y, size(1.6, 2.05)), piece('bedside', 'Left table', x - 1.05, y + 0.85, size(0.45, 0.35, 0.5)));
    expect(said(bed(3, 2.97), 'piece.clearance')).toEqual([]);
    // 500 mm are left to the wall at its right, 700 are wanted.
    expect(said(bed(6 - 0.5 - 0.8, 2.97), 'piece.clearance')).toEqual(['Bed: 500 at its right; 700 are wanted.']);
    // In a corner it is meant to stand.
    expect(said(bed(6 - 0.8, 2.97), 'piece.clearance')).toEqual([]);
    const chest = withPieces(bed(3, 2.97), piece('chest', 'Chest', 3, 2.97 - 1.025 - 0.6 - 0.25, size(1, 0.5)));
    expect(said(chest, 'piece.clearance')).toEqual(['Bed: 600 before it to Chest; 900 are wanted.']);
  });

  it('is wanted beside and before sanitary ware: 400 from its middle to a wall, 600 before a WC, 700 before a basin', () => {
    const ware = (card: string, name: string, middle: number, more: Piece[] = []): string[] => {
      const own = pieceFrom(stockCard(card)!, 'x', bare.levels.ground, { x: 0, y: 0 });
      return said(withPieces(bare, piece(card, name, middle, 4 - own.size.depth / 2), ...more), 'piece.clearance');
    };
    for (const [card, name] of [
      ['wc', 'WC'],
      ['wc-hung', 'WC'],
      ['bidet', 'Bidet'],
      ['basin', 'Basin'],
    ] as const) {
      expect([card, ware(card, name, 0.4)]).toEqual([card, []]);
      expect([card, ware(card, name, 0.34)]).toEqual([card, [expect.stringMatching(/^\w+: \d+ at its (left|right); \d+ are wanted\.$/)]]);
    }
    expect(ware('wc', 'WC', 0.34)[0]).toContain('150 at its');
    const chest = (gap: number, depth: number) => [piece('chest', 'Chest', 3, 4 - depth - gap - 0.25, size(1, 0.5))];
    expect(ware('wc', 'WC', 3, chest(0.5, 0.66))).toEqual(['WC: 500 before it to Chest; 600 are wanted.']);
    expect(ware('basin', 'Basin', 3, chest(0.6, 0.45))).toEqual(['Basin: 600 before it to Chest; 700 are wanted.']);
    expect(ware('basin', 'Basin', 3, chest(0.72, 0.45))).toEqual([]);
  });

  it('follows the profile: a close fit, as usual, for a wheelchair', () => {
    const p = withPieces(bare, piece('wardrobe', 'Wardrobe', 3, 3.7, size(1.2, 0.6, 2.1)), piece('chest', 'Chest', 3, 3.4 - 0.8 - 0.25, size(1, 0.5)));
    const by = (clearances: Project['clearances']): string[] => said(edit(p, 'project.clearances', { clearances }), 'piece.clearance');
    expect(by('usual')[0]).toBe('Wardrobe: 800 before it to Chest; 900 are wanted.');
    expect(by('close')).toEqual([]);
    expect(by('wheelchair')[0]).toContain('1200 are wanted');
    const inches = said({ ...p, units: 'imperial' }, 'piece.clearance')[0];
    expect(inches).toContain(`2'-7 1/2"`);
  });

  it('round a table is wanted behind drawn-up chairs, which are no obstacle themselves', () => {
    const table = (y: number): Project =>
      withPieces(
        bare,
        piece('table', 'Table', 3, y, size(1.8, 0.9, 0.75)),
        piece('chair', 'Chair 1', 2.55, y - 0.45),
        piece('chair', 'Chair 2', 2.55, y + 0.45, { rotation: Math.PI }),
      );
    expect(said(table(2), 'piece.clearance')).toEqual([]);
    expect(said(table(4 - 0.45 - 0.5), 'piece.clearance')).toEqual(['Table: 500 behind it; 750 are wanted.']);
    expect(said(table(4 - 0.45), 'piece.clearance')).toEqual([]);
  });

  it('between a sofa and a low table is told once', () => {
    const p = withPieces(bare, piece('sofa', 'Sofa', 3, 3.5, size(2, 0.9)), piece('low-table', 'Low table', 3, 3.05 - 0.25 - 0.3, size(1.1, 0.6, 0.4)));
    expect(said(p, 'piece.clearance')).toEqual(['Sofa: 250 before it to Low table; 400 are wanted.']);
  });
});

describe('ways through a room', () => {
  const doors = opened(opened(bare, 'West door', WEST, 'door', 2.15), 'East door', EAST, 'door', 2.15);
  const across = (gap: number): Project => withPieces(doors, piece('chest', 'Long chest', 3, (4 - gap) / 2, size(0.5, 4 - gap)));

  it('are as wide as what is left between a piece and the wall, to the grid', () => {
    for (const gap of [0.5, 0.62, 0.8]) {
      const [way] = narrowWays(deriveModel(across(gap)), 0.9);
      expect(way.width).toBeGreaterThan(gap - 0.06);
      expect(way.width).toBeLessThanOrEqual(gap + 1e-9);
      expect(way).toMatchObject({ near: ['Long-chest'] });
      expect([way.from, way.to].sort()).toEqual(['East-door', 'West-door']);
    }
    expect(narrowWays(deriveModel(across(1)), 0.9)).toEqual([]);
    expect(narrowWays(deriveModel(doors), 0.9)).toEqual([]);
  });

  it('take the wider side of a piece, and are narrower turned askew', () => {
    const aside = withPieces(doors, piece('chest', 'Chest', 3, 1.6, size(0.5, 1.8)));
    // 0.7 below it and 1.5 above it.
    expect(narrowWays(deriveModel(aside), 0.9)).toEqual([]);
    const [way] = narrowWays(deriveModel(aside), 1.6);
    expect(way.width).toBeGreaterThan(1.4);
    expect(said(across(0.6), 'way.narrow')[0]).toMatch(
      /^Room 1: the way from (West|East) door to (West|East) door is \d+ wide at Long chest; 900 are wanted\.$/,
    );
  });

  it('are looked for anew when a door is moved, and nothing else is', () => {
    // A chest parts the room but for half a metre: a door in the north wall is on one side of it, then on the other.
    const p = withPieces(
      opened(opened(bare, 'West door', WEST, 'door', 2.15), 'North door', NORTH, 'door', 4.8),
      piece('chest', 'Long chest', 3, 1.75, size(0.5, 3.5)),
    );
    const deriver = new Deriver();
    const told = (at: number): number => narrowWays(deriver.derive(edit(p, 'opening.set', { opening: 'North-door', set: { at } })), 0.9).length;
    expect([told(4.8), told(1.4), told(4.9), told(1.5)].sort()).toEqual([0, 0, 1, 1]);
    expect(told(4.8)).not.toBe(told(1.4));
  });

  it('are not told of a room that is narrow by itself, nor of chairs and rugs', () => {
    const corridor = house([[-0.15, -0.15], [6.15, -0.15], [6.15, 0.95], [-0.15, 0.95]]); // prettier-ignore
    const at = (x: number): string => Object.values(corridor.walls).find((w) => [w.start, w.end].every((c) => Math.abs(corridor.corners[c].x - x) < 0.01))!.id;
    const p = opened(opened(corridor, 'A', at(-0.15), 'passage', 0.55, { width: 0.7 }), 'B', at(6.15), 'passage', 0.55, { width: 0.7 });
    expect(narrowWays(deriveModel(withPieces(p, piece('rug', 'Rug', 3, 0.4))), 0.9)).toEqual([]);
    expect(narrowWays(deriveModel(withPieces(doors, piece('chair', 'Chair', 3, 2), piece('rug', 'Rug', 3, 2))), 0.9)).toEqual([]);
  });
});

describe('doors, windows, radiators', () => {
  it('a door meets what stands where it is opened, and not what stands behind its hinge', () => {
    const p = opened(bare, 'Door', SOUTH, 'door', 3, { swing: 'left' });
    const { openings } = deriveModel(p).shell;
    const inward = openings.get('Door')!.rooms.left !== null;
    const door = inward ? p : edit(p, 'opening.set', { opening: 'Door', set: { swing: 'right' } });
    const chest = (x: number, y: number): string[] => said(withPieces(door, piece('chest', 'Chest', x, y, size(0.5, 0.4))), 'door.meets');
    const { point } = deriveModel(door).shell.openings.get('Door')!;
    expect(chest(point.x, 0.5)).toEqual(['Door meets Chest when it is opened.']);
    expect(chest(point.x, 1.4)).toEqual([]);
    // What is hung above it, and rugs under it, are passed.
    expect(said(withPieces(door, piece('rug', 'Rug', point.x, 0.6)), 'door.meets')).toEqual([]);
    // Outwards it meets nothing indoors.
    const out = edit(door, 'opening.set', { opening: 'Door', set: { swing: inward ? 'right' : 'left' } });
    expect(said(withPieces(out, piece('chest', 'Chest', point.x, 0.5, size(0.5, 0.4))), 'door.meets')).toEqual([]);
  });

  it('a window is blocked by what is higher than its sill and near before it', () => {
    const p = opened(bare, 'Window', NORTH, 'window', 3, { sill: 0.9 });
    const { point } = deriveModel(p).shell.openings.get('Window')!;
    const stand = (own: Piece): string[] => said(withPieces(p, own), 'window.blocked');
    expect(stand(piece('wardrobe', 'Wardrobe', point.x, 3.7, size(1.2, 0.6, 2.1)))).toEqual(['Wardrobe stands before Window and reaches 1200 above its sill.']);
    expect(stand(piece('chest', 'Chest', point.x, 3.7, size(1.2, 0.6, 0.9)))).toEqual([]);
    expect(stand(piece('wardrobe', 'Wardrobe', point.x, 2, size(1.2, 0.6, 2.1)))).toEqual([]);
    expect(stand(piece('wardrobe', 'Wardrobe', point.x + 2, 3.7, size(1.2, 0.6, 2.1)))).toEqual([]);
  });

  it('a radiator is behind a curtain that hangs to the floor, and not behind one that ends above it', () => {
    const curtain = (elevation: number): string[] =>
      said(
        withPieces(
          bare,
          piece('radiator', 'Radiator', 3, 3.95, { ...size(1, 0.1, 0.6), elevation: 0.1 }),
          piece('curtain', 'Curtains', 3, 3.85, { size: { width: 2, depth: 0.14, height: 2.3 - elevation }, elevation }),
        ),
        'radiator.covered',
      );
    expect(curtain(0.02)).toHaveLength(1);
    expect(curtain(0.8)).toEqual([]);
  });
});

describe('rugs and lamps', () => {
  it('a rug goes on beyond a table for drawn-back chairs, and under the front feet of a sofa', () => {
    const table = piece('table', 'Table', 3, 2, size(1.8, 0.9, 0.75));
    const rug = (w: number, d: number): string[] => said(withPieces(bare, table, piece('rug', 'Rug', 3, 2, size(w, d, 0.015))), 'rug.small');
    expect(rug(3, 2.1)).toEqual([]);
    expect(rug(2.4, 1.7)).toEqual(['Rug goes only 300 beyond Table: for chairs drawn back 600 are wanted.']);
    const sofa = piece('sofa', 'Sofa', 3, 3.5, size(2, 0.9));
    const before = (y: number): string[] => said(withPieces(bare, sofa, piece('rug', 'Rug', 3, y, size(2.4, 1.6, 0.015))), 'rug.small');
    // Its front is at 3.05; the rug reaches to y + 0.8.
    expect(before(2.4)).toEqual([]);
    expect(before(2.1)).toEqual(['Rug stops 250 short of the front feet of Sofa: let it reach under them.']);
    expect(before(1)).toEqual([]);
  });

  it('a pendant hangs 650 to 850 above a table, and elsewhere clear of heads', () => {
    const table = piece('table', 'Table', 3, 2, size(1.8, 0.9, 0.75));
    const over = (elevation: number, x = 3): string[] => {
      const p = withPieces(bare, table, piece('pendant', 'Pendant', x, 2, { ...size(0.4, 0.4, 0.9), elevation }));
      return furnishingFindings(deriveModel(p)).flatMap((f) => (f.code.startsWith('lamp') ? [f.message] : []));
    };
    expect(over(1.5)).toEqual([]);
    expect(over(1.3)).toEqual(['Pendant hangs 550 above Table: 650 to 850 are wanted.']);
    expect(over(1.8)).toEqual(['Pendant hangs 1050 above Table: 650 to 850 are wanted.']);
    expect(over(1.8, 5)).toEqual(['Pendant hangs 1800 above the floor: heads pass below 2000.']);
    expect(over(2.05, 5)).toEqual([]);
  });

  it('are among all findings of a model', () => {
    const p = withPieces(bare, piece('sofa', 'Sofa', 3, 3.5, size(2, 0.9)), piece('low-table', 'Low table', 3, 2.5, size(1.1, 0.6, 0.4)));
    const found = findings(deriveModel(p)).find((f) => f.code === 'piece.clearance')!;
    expect(found.ids[0]).toBe('Sofa');
    expect(Object.keys(p.rooms)).toContain(found.ids[1]);
  });
});
