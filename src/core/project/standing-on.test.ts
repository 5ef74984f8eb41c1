import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pieceFrom, stockCard } from '../stock/stock';
import { applyPatches } from 'immer';
import { change, edit, house } from '../testing/drafting';
import { validateProject } from './commands';
import type { Piece, Project } from './schema';
import { standingOn } from './standing-on';

const bare = house([
  [0, 0],
  [6, 0],
  [6, 5],
  [0, 5],
]);
const table: Piece = { ...pieceFrom(stockCard('table')!, 'table', bare.levels.ground, { x: 3, y: 2 }), rotation: 0.4 };
const tray: Piece = { ...pieceFrom(stockCard('tray')!, 'tray', bare.levels.ground, { x: 3.2, y: 2.1 }), elevation: 0.75, on: 'table' };
const vase: Piece = { ...pieceFrom(stockCard('vase')!, 'vase', bare.levels.ground, { x: 3.25, y: 2.12 }), elevation: 0.79, on: 'tray' };
const laid = edit(bare, 'piece.add', { pieces: [table, tray, vase] });

/** Where a piece stands in the axes of another one. */
const within = ({ pieces }: Project, id: string, on: string): number[] => {
  const [p, q] = [pieces[id], pieces[on]];
  const [c, s] = [Math.cos(q.rotation), Math.sin(q.rotation)];
  const [x, y] = [p.x - q.x, p.y - q.y];
  return [c * x + s * y, c * y - s * x, p.elevation - q.elevation - q.size.height, p.rotation - q.rotation];
};
const stays = (
  after: Project,
  pairs: [string, string][] = [
    ['tray', 'table'],
    ['vase', 'tray'],
  ],
): void => {
  for (const [id, on] of pairs)
    within(after, id, on).forEach((v, k) => expect(v).toBeCloseTo(within(laid, id === 'tray' ? 'tray' : 'vase', on === 'table' ? 'table' : 'tray')[k], 8));
};

describe('what stands on a piece', () => {
  it('is found through others', () => {
    expect(standingOn(laid.pieces, ['table'])).toEqual(['tray', 'vase']);
    expect(standingOn(laid.pieces, ['tray'])).toEqual(['vase']);
    expect(standingOn(laid.pieces, ['table', 'vase'])).toEqual(['tray']);
  });

  it('keeps its place on it, wherever that is moved, turned or raised, and whether it was chosen too or not', () => {
    const way = fc.double({ min: -2, max: 2, noNaN: true });
    fc.assert(
      fc.property(way, way, way, fc.subarray(['tray', 'vase']), (x, y, turn, also) => {
        stays(edit(laid, 'pieces.move', { pieces: ['table', ...also], by: { x, y }, turn }));
        stays(
          edit(laid, 'piece.set', {
            piece: 'table',
            set: { x, y, rotation: turn, elevation: Math.abs(x), size: { ...table.size, height: 0.7 + Math.abs(y) / 8 } },
          }),
        );
        // Moved alone it stays on it.
        const alone = edit(laid, 'pieces.move', { pieces: ['tray'], by: { x: x / 9, y: y / 9 }, turn: 0 });
        expect(alone.pieces.tray.on).toBe('table');
        expect(alone.pieces.table).toBe(laid.pieces.table);
      }),
      { numRuns: 30 },
    );
  });

  it('is carried and copied with it: a copy stands on the copy', () => {
    const carry = { about: { x: 0, y: 0 }, turn: 0.3, mirror: null, by: { x: 1, y: 0.5 } };
    stays(edit(laid, 'carry', { ids: ['table'], ...carry, copy: false }));
    const twice = edit(laid, 'carry', { ids: ['table'], ...carry, copy: true });
    const own = Object.values(twice.pieces).filter((p) => !Object.hasOwn(laid.pieces, p.id));
    expect(own).toHaveLength(3);
    const by = (maker: string): Piece => own.find((p) => p.maker === maker)!;
    expect([by('table').on, by('bowl').on, by('vase').on]).toEqual([null, by('table').id, by('bowl').id]);
    expect(twice.pieces.vase).toBe(laid.pieces.vase);
  });

  it('stays where it was when what it stood on is deleted, with its level too, and all is undone', () => {
    const gone = edit(laid, 'delete', { ids: ['table'] });
    expect(gone.pieces.tray).toEqual({ ...laid.pieces.tray, on: null });
    expect(gone.pieces.vase.on).toBe('tray');
    const two = edit(laid, 'level.add', { id: 'upper', name: 'Upper', of: 'ground', where: 'above', walls: 'outer', height: 2.4, slab: 0.25 });
    const apart = edit(two, 'piece.set', { piece: 'vase', set: { level: 'upper', on: 'tray' } });
    const lower = edit(apart, 'level.delete', { id: 'ground' });
    expect(lower.pieces.vase.on).toBeNull();
    expect(() => validateProject(JSON.parse(JSON.stringify(lower)))).not.toThrow();
    const { project, inverse } = change(laid, 'delete', { ids: ['table', 'tray'] });
    expect(project.pieces.vase.on).toBeNull();
    expect(applyPatches(project, inverse)).toEqual(laid);
  });

  it('never stands on itself, or on what is not there', () => {
    expect(() => edit(laid, 'piece.set', { piece: 'table', set: { on: 'vase' } })).toThrow('it would stand on itself');
    expect(() => edit(laid, 'piece.set', { piece: 'table', set: { on: 'table' } })).toThrow('it would stand on itself');
    expect(() => edit(laid, 'piece.set', { piece: 'vase', set: { on: 'gone' } })).toThrow('no longer in the project');
    expect(edit(laid, 'piece.set', { piece: 'vase', set: { on: null } }).pieces.vase.on).toBeNull();
  });
});
