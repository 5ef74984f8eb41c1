import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { transformPoint } from '../../geometry/mesh';
import { deriveModel } from '../../model/derive';
import { drawOpening } from '../../drawing/plan/openings';
import { runChange } from '../../project/commands';
import { newOpening } from '../../project/opening-defaults';
import { inWall, LEAF, withForm } from '../../project/opening-stand';
import { emptyProject, type Opening, type Project } from '../../project/schema';
import type { OpeningParts } from './space';
import { openingParts } from './parts';

const house = (thickness = 0.3): Project => {
  const points = [
    { x: 0, y: 0 },
    { x: 6, y: 0 },
    { x: 6, y: 4 },
    { x: 0, y: 4 },
  ];
  return runChange(emptyProject('p', 'P'), { id: 'draw', kind: 'do', command: 'wall.draw', args: { level: 'ground', points, closed: true, thickness } })
    .project;
};

const opening = (kind: 'door' | 'window', over: Partial<Opening> = {}): Opening =>
  newOpening(emptyProject('p', 'P'), { id: 'o', wall: 'w', kind, at: 2, ...over });

/** How far the parts of a name reach across the wall, metres to the left of its middle. */
function across(parts: readonly OpeningParts[], name: string): [number, number] {
  const ys = parts
    .filter((p) => p.part === name)
    .flatMap(({ mesh, at }) =>
      Array.from(
        { length: mesh.positions.length / 3 },
        (_, i) => transformPoint(at, { x: mesh.positions[i * 3], y: mesh.positions[i * 3 + 1], z: mesh.positions[i * 3 + 2] }).y,
      ),
    );
  return [Math.min(...ys), Math.max(...ys)];
}

const partsOf = (own: Opening, thickness = 0.3, inside: 'left' | 'right' = 'left'): OpeningParts[] =>
  openingParts({ opening: own, thickness, inside, corner: null, profile: null });

describe('where a door or a window stands in its wall', () => {
  it('has both reveals and what stands between them make up the wall', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('door' as const, 'window' as const),
        fc.constantFrom('left' as const, 'right' as const),
        fc.constantFrom('left' as const, 'right' as const),
        fc.constantFrom('front' as const, 'back' as const),
        fc.constantFrom('wall' as const, 0.07, 0.12),
        fc.double({ min: 0.1, max: 0.6, noNaN: true }),
        fc.double({ min: 0, max: 0.8, noNaN: true }),
        (kind, swing, inside, from, depth, thickness, by) => {
          const own = opening(kind, { swing, stand: { kind: 'set-back', from, by }, frame: { face: 0.03, depth } });
          const { reveals, front } = inWall(own, thickness, inside);
          const body = thickness - reveals.left - reveals.right;
          expect(body).toBeCloseTo(
            kind === 'door' && depth === 'wall' ? LEAF : Math.min(depth === 'wall' ? thickness : depth, kind === 'door' ? thickness : Infinity),
            9,
          );
          // As far behind its side as was said, and never out of the wall.
          const side = from === 'front' ? front : front === 'left' ? 'right' : 'left';
          const free = thickness - body;
          expect(reveals[side]).toBeCloseTo(free < 0 ? free / 2 : Math.min(by, free), 9);
          expect(front).toBe(kind === 'door' ? swing : inside === 'left' ? 'right' : 'left');
        },
      ),
    );
  });

  it('has the leaf and its lining there: flush with either side, centred, by a distance', () => {
    for (const swing of ['left', 'right'] as const) {
      const k = swing === 'left' ? 1 : -1;
      const leaf = (stand: Opening['stand']): number[] => across(partsOf(opening('door', { swing, stand, handle: 'none' })), 'leaf').map((y) => y * k);
      const near = (stand: Opening['stand'], face: number): void => expect(Math.max(...leaf(stand))).toBeCloseTo(face, 4);
      near({ kind: 'set-back', from: 'front', by: 0 }, 0.15);
      near({ kind: 'set-back', from: 'back', by: 0 }, -0.15 + LEAF);
      near({ kind: 'centred' }, LEAF / 2);
      near({ kind: 'set-back', from: 'front', by: 0.08 }, 0.07);
      expect(across(partsOf(opening('door', { swing })), 'frame')).toEqual([-0.15, 0.15].map((v) => expect.closeTo(v, 5)));
    }
  });

  it('has a frame of its own depth follow, its leaf flush with the frame, and an architrave only where the frame reaches the wall’s face', () => {
    const own = (by: number): OpeningParts[] =>
      partsOf(opening('door', { swing: 'left', handle: 'none', frame: { face: 0.03, depth: 0.1 }, stand: { kind: 'set-back', from: 'front', by } }));
    expect(across(own(0.06), 'frame')).toEqual([expect.closeTo(-0.01, 5), expect.closeTo(0.09, 5)]);
    expect(across(own(0.06), 'leaf')[1]).toBeCloseTo(0.09, 4);
    expect(own(0.06).some((p) => p.part === 'architrave')).toBe(false);
    expect(across(own(0), 'architrave')[0]).toBeGreaterThan(0.14);
  });

  it('has sidelights, fanlight and stops stay within a frame of its own depth', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('hinged', 'pair', 'stable', 'unequal') as fc.Arbitrary<Opening['form']>,
        fc.double({ min: 0, max: 0.2, noNaN: true }),
        (form, by) => {
          const own = opening('door', {
            form,
            width: 2.4,
            height: 2.6,
            fanlight: 0.3,
            sidelights: { start: 0.3, end: 0.3 },
            architrave: 0,
            handle: 'none',
            frame: { face: 0.03, depth: 0.1 },
            stand: { kind: 'set-back', from: 'front', by },
          });
          const { frame } = inWall(own, 0.3, 'left');
          const [y0, y1] = across(partsOf(own), 'frame');
          expect(y0).toBeGreaterThan(frame - 0.05 - 1e-5);
          expect(y1).toBeLessThan(frame + 0.05 + 1e-5);
        },
      ),
    );
  });

  it('has its plan show the leaf where it hangs', () => {
    let project = house();
    const wall = Object.keys(project.walls)[0];
    const add = newOpening(project, { id: 'door', wall, kind: 'door', at: 2, open: 0, stand: { kind: 'set-back', from: 'back', by: 0.05 } });
    project = runChange(project, { id: 'add', kind: 'do', command: 'opening.add', args: add }).project;
    const derived = deriveModel(project).shell.openings.get('door')!;
    const arc = drawOpening(derived).find((i) => i.kind === 'arc')!;
    const off = -Math.sin(derived.angle) * (arc.centre.x - derived.point.x) + Math.cos(derived.angle) * (arc.centre.y - derived.point.y);
    expect(off).toBeCloseTo(derived.stands.leaf, 9);
    expect(Math.abs(off)).toBeCloseTo(0.15 - 0.05 - LEAF, 9);
  });

  it('refuses a distance the wall has no room for, in one sentence, and keeps what was', () => {
    let project = house();
    const wall = Object.keys(project.walls)[0];
    project = runChange(project, {
      id: 'add',
      kind: 'do',
      command: 'opening.add',
      args: newOpening(project, { id: 'win', wall, kind: 'window', at: 2 }),
    }).project;
    const set = (by: number): Project =>
      runChange(project, { id: 'set', kind: 'do', command: 'opening.set', args: { opening: 'win', set: { stand: { kind: 'set-back', from: 'front', by } } } })
        .project;
    expect(set(0.23).openings.win.stand).toEqual({ kind: 'set-back', from: 'front', by: 0.23 });
    expect(() => set(0.24)).toThrow('Window 1 was not changed: in a wall of 300 a frame of 70 can be set back by up to 230.');
  });

  it('goes along with another form, unless it was chosen', () => {
    const hinged = opening('door');
    expect(withForm(hinged, 'pocket').stand).toEqual({ kind: 'centred' });
    expect(withForm({ ...hinged, ...withForm(hinged, 'pocket') }, 'hinged')).toEqual({ form: 'hinged', stand: hinged.stand, frame: hinged.frame });
    const own = { ...hinged, stand: { kind: 'set-back', from: 'back', by: 0.02 } as const };
    expect(withForm(own, 'pair').stand).toEqual(own.stand);
    expect(withForm(hinged, 'sectional').frame.depth).toBe(0.1);
  });
});
