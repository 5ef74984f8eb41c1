import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pieceFrom, stockCard } from '../stock/stock';
import { box, edit, wallBy } from '../testing/drafting';
import { newOpening } from './opening-defaults';
import { clearSpans, openingGaps } from './openings';
import { type Opening, type Project } from './schema';
import { pieceSpan } from './relations';

describe('relations', () => {
  const house = (): { project: Project; wall: string } => {
    const project = box();
    return { project, wall: wallBy(project, [0, 0], [6, 0]) };
  };
  const middleOf = (p: Project, id: string): number => {
    const gaps = openingGaps(p, p.openings[id])!;
    return gaps.start - gaps.end;
  };

  it('hold through random edits: centred, a row, a gap, filling, level heads', () => {
    const change = fc.record({ which: fc.nat(3), offset: fc.integer({ min: -8, max: 8 }), shift: fc.integer({ min: -5, max: 5 }) });
    fc.assert(
      fc.property(fc.array(change, { minLength: 1, maxLength: 6 }), (changes) => {
        let { project } = house();
        const { wall } = house();
        const own = Object.keys(project.walls)[0];
        void wall;
        const add = (o: Partial<Opening> & { id: string }): void => {
          project = edit(project, 'opening.add', newOpening(project, { kind: 'window', wall: own, at: 3, ...o }));
        };
        const north = wallBy(project, [6, 4], [0, 4]);
        const east = wallBy(project, [6, 0], [6, 4]);
        add({ id: 'centred', width: 0.8, place: { kind: 'centred' } });
        for (let i = 0; i < 3; i++) add({ id: `row${i}`, wall: north, width: 0.6, place: { kind: 'row', index: i, count: 3 } });
        add({ id: 'beside', wall: own, width: 0.5, at: 4.2, place: { kind: 'gap', from: 'centred', side: 'after', gap: 0.3 }, head: 'centred', height: 0.7 });
        add({ id: 'fill', wall: own, width: 0.5, at: 0.8, sill: 0.9, place: { kind: 'between', a: 'start', b: 'centred', fill: true }, height: 1 });
        add({ id: 'across', wall: east, width: 0.6, at: 2, place: { kind: 'centred' } });
        for (const { which, offset, shift } of changes) {
          const walls = Object.keys(project.walls);
          const before = project;
          try {
            project = edit(project, 'wall.move', { wall: walls[which % walls.length], offset: offset / 10 });
            project = edit(project, 'opening.set', { opening: 'centred', set: { width: 0.8 + shift / 100, sill: 0.9 + shift / 100 } });
          } catch {
            project = before;
          }
          expect(middleOf(project, 'centred')).toBeCloseTo(0, 6);
          expect(middleOf(project, 'across')).toBeCloseTo(0, 6);
          const { centred, beside, fill } = project.openings;
          expect(beside.at - beside.width / 2 - centred.at - centred.width / 2).toBeCloseTo(0.3, 6);
          expect(beside.sill + beside.height).toBeCloseTo(centred.sill + centred.height, 6);
          const gaps = openingGaps(project, fill)!;
          expect(gaps.start).toBeCloseTo(0, 6);
          expect(fill.at + fill.width / 2).toBeCloseTo(centred.at - centred.width / 2, 6);
          const [a, b, c] = [0, 1, 2].map((i) => project.openings[`row${i}`]);
          expect(b.at - a.at).toBeCloseTo(c.at - b.at, 6);
          const row = openingGaps(project, a)!;
          expect(row.start).toBeCloseTo(openingGaps(project, c)!.end, 6);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('follow a piece, and let go of what is deleted', () => {
    let { project } = house();
    const wall = Object.keys(project.walls)[0];
    const sofa = pieceFrom(stockCard('sofa')!, 'sofa', project.levels.ground, { x: 2, y: 0.6 });
    project = edit(project, 'piece.add', { pieces: [{ ...sofa, rotation: Math.PI }] });
    project = edit(
      project,
      'opening.add',
      newOpening(project, { id: 'w', wall, kind: 'window', at: 3, place: { kind: 'between', a: 'sofa', b: 'end', fill: false } }),
    );
    const span = pieceSpan(project, wall, project.pieces.sofa);
    const end = clearSpans(project, project.walls[wall]).at(-1)!.to;
    expect(project.openings.w.at).toBeCloseTo((span.to + end) / 2, 6);
    project = edit(project, 'pieces.move', { pieces: ['sofa'], by: { x: -0.4, y: 0 }, turn: 0 });
    expect(project.openings.w.at).toBeCloseTo((span.to - 0.4 + end) / 2, 6);
    project = edit(project, 'delete', { ids: ['sofa'] });
    expect(project.openings.w.place).toEqual({ kind: 'free' });
  });

  it('refuse to go round in a circle', () => {
    let { project } = house();
    const wall = Object.keys(project.walls)[0];
    for (const [id, at] of [
      ['a', 1.5],
      ['b', 4],
    ] as const)
      project = edit(project, 'opening.add', newOpening(project, { id, wall, kind: 'window', at, width: 0.6 }));
    project = edit(project, 'opening.set', { opening: 'b', set: { place: { kind: 'gap', from: 'a', side: 'after', gap: 0.5 } } });
    expect(() => edit(project, 'opening.set', { opening: 'a', set: { place: { kind: 'gap', from: 'b', side: 'before', gap: 0.5 } } })).toThrow(
      'placed by something',
    );
  });

  it('refuse what has no room, with one sentence', () => {
    const { project } = house();
    const wall = Object.keys(project.walls)[0];
    const tries: [Partial<Opening>, string][] = [
      [{ kind: 'niche', depth: 0.3 }, 'would go through the wall'],
      [{ kind: 'window', height: 2, sill: 1 }, 'above the wall'],
      [{ kind: 'window', width: 7 }, 'free in one stretch'],
    ];
    for (const [values, text] of tries)
      expect(() => edit(project, 'opening.add', newOpening(project, { id: 'o', wall, at: 3, ...values, kind: values.kind! }))).toThrow(text);
    const raked = edit(project, 'wall.set', { wall, set: { top: { kind: 'raking', start: 1.4, end: 3.4 } } });
    // High enough at the one end, not at the other.
    expect(() => edit(raked, 'opening.add', newOpening(raked, { id: 'o', wall, kind: 'window', at: 1.2 }))).toThrow('above the wall');
    expect(edit(raked, 'opening.add', newOpening(raked, { id: 'o', wall, kind: 'window', at: 4.5 })).openings.o.at).toBe(4.5);
  });
});
