import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { moved, reachOf } from '../geometry/joint';
import { transformPoint } from '../geometry/mesh';
import { boxOf, insideRing } from '../geometry/polygon';
import { within } from '../geometry/shapes';
import { FINE, LIGHT } from '../stock/stock';
import { loadKernel, openEdges, volume } from '../testing/solid';
import { totalArea } from '../geometry/polygon';
import { cornerBoards, cornerCuts, cornerParts } from './corner';
import { CONSTRUCTIONS } from './figures';
import { newCell, PLAIN_LOOK } from '../project/joinery';
import { layRun, type BackLine } from './run';

beforeAll(loadKernel);

/** Two legs that meet under an angle inside of the room. */
const legs = (angle: number): BackLine[] => [
  { from: { x: -4, y: 0 }, to: { x: 0, y: 0 } },
  { from: { x: 0, y: 0 }, to: { x: 4 * Math.cos(Math.PI + angle), y: 4 * Math.sin(Math.PI + angle) } },
];

describe('a corner unit', () => {
  it('is of closed boards within its footprint, whatever the angle between its legs', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1.2, max: 2.3, noNaN: true }),
        fc.constantFrom<'L' | 'diagonal'>('L', 'diagonal'),
        fc.constantFrom<'base' | 'wall'>('base', 'wall'),
        fc.constantFrom(LIGHT, FINE),
        fc.integer({ min: 0, max: 3 }),
        (angle, corner, band, off, shelves) => {
          const [{ footprint }] = layRun(legs(angle), [{ id: 'c', width: 0.95, depth: 0.56, corner }]).units;
          const style = PLAIN_LOOK;
          const cell = newCell({ shelves });
          const parts = within(off, () => cornerParts(footprint, 0.72, cell, band, CONSTRUCTIONS.frameless, style, 0.15));
          expect([...new Set(parts.map((p) => p.part))].sort()).toEqual(['carcass', 'fronts', 'handles']);
          for (const { part, mesh } of parts) {
            expect([part, openEdges(mesh)]).toEqual([part, 0]);
            const p = mesh.positions;
            for (let i = 0; i < p.length; i += 3) {
              expect(p[i + 2]).toBeGreaterThan(0.15 - 1e-5);
              expect(p[i + 2]).toBeLessThan(0.87 + 1e-5);
            }
          }
          const box = boxOf(footprint, 1e-5);
          const { positions: p } = parts[0].mesh;
          for (let i = 0; i < p.length; i += 3) expect(p[i] > box.x0 && p[i] < box.x1 && p[i + 1] > box.y0 && p[i + 1] < box.y1).toBe(true);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('has the edging along its boards as a part of its own where that is of another finish: what it is, they are less', () => {
    fc.assert(
      fc.property(fc.double({ min: 1.2, max: 2.3, noNaN: true }), fc.constantFrom<'L' | 'diagonal'>('L', 'diagonal'), (angle, corner) => {
        const [{ footprint }] = layRun(legs(angle), [{ id: 'c', width: 0.95, depth: 0.56, corner }]).units;
        const cell = newCell({ shelves: 2 });
        const made = { ...CONSTRUCTIONS.frameless, edging: 0.002 };
        const of = (banded: boolean, part: string): number =>
          cornerParts(footprint, 0.72, cell, 'base', made, PLAIN_LOOK, 0.15, banded)
            .filter((p) => p.part === part)
            .reduce((sum, p) => sum + volume(p.mesh), 0);
        expect(of(true, 'carcass') + of(true, 'edges')).toBeCloseTo(of(false, 'carcass'), 6);
        expect(of(false, 'edges')).toBe(0);
        const banded = cornerBoards(footprint, 0.72, cell, made).reduce((sum, b) => sum + b.edged * (b.name === 'side' ? made.board : b.z1 - b.z0), 0);
        // Where bands meet in a corner one is as much shorter as the other is longer.
        expect(of(true, 'edges') / (banded * made.edging)).toBeCloseTo(1, 1.5);
      }),
      { numRuns: 20 },
    );
  });

  it('opens out of its corner: no leaf goes into its carcass', () => {
    for (const corner of ['L', 'diagonal'] as const)
      for (const hand of ['left', 'right'] as const) {
        const [{ footprint }] = layRun(legs(Math.PI / 2), [{ id: 'c', width: 0.9, depth: 0.56, corner }]).units;
        const parts = cornerParts(
          footprint,
          0.72,
          newCell({ hand, shelves: 1 }),
          'base',
          CONSTRUCTIONS.frameless,
          { ...PLAIN_LOOK, fronts: 'flat', handles: 'none' },
          0.15,
        );
        const leaves = parts.filter((q) => q.part === 'fronts');
        expect(leaves).toHaveLength(corner === 'L' ? 2 : 1);
        for (const { mesh, joint } of leaves) {
          const m = moved(joint!, reachOf(joint!, 1));
          const p = mesh.positions;
          for (let i = 0; i < p.length; i += 3) {
            const at = transformPoint(m, { x: p[i], y: p[i + 1], z: p[i + 2] });
            // Its hinges lie at the corner of the footprint.
            const near = Math.hypot(at.x - joint!.at.x, at.y - joint!.at.y) < 0.03;
            expect(near || !insideRing(at, footprint)).toBe(true);
          }
        }
      }
  });

  it('has boards of the volume that is built, and comes from boards that are as large at least, less their edging', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1.2, max: 2.3, noNaN: true }),
        fc.constantFrom<'L' | 'diagonal'>('L', 'diagonal'),
        fc.integer({ min: 0, max: 3 }),
        (angle, corner, shelves) => {
          const [{ footprint }] = layRun(legs(angle), [{ id: 'c', width: 0.95, depth: 0.56, corner }]).units;
          const made = CONSTRUCTIONS.frameless;
          const cell = newCell({ kind: 'open', shelves });
          const boards = cornerBoards(footprint, 0.72, cell, made);
          const listed = boards.reduce((sum, b) => sum + totalArea([{ outer: b.ring, holes: [] }]) * (b.z1 - b.z0), 0);
          const [carcass] = cornerParts(footprint, 0.72, cell, 'base', made, PLAIN_LOOK, 0.15);
          expect(volume(carcass.mesh)).toBeCloseTo(listed, 4);
          const cuts = cornerCuts(boards, made);
          expect(cuts.map((c) => c.name)).toEqual(['side', 'side', 'back', 'back', 'bottom', 'top', ...Array.from({ length: shelves }, () => 'shelf')]);
          cuts.forEach((cut, i) => {
            const { ring, z0, z1 } = boards[i];
            const solid = totalArea([{ outer: ring, holes: [] }]) * (z1 - z0);
            const from = cut.length * (cut.width + (cut.edging > 0 ? made.edging : 0)) * cut.thickness;
            expect(from).toBeGreaterThan(solid - 1e-9);
            if (!cut.shaped && cut.name === 'side') expect(from).toBeCloseTo(solid, 9);
          });
        },
      ),
      { numRuns: 40 },
    );
  });
});
