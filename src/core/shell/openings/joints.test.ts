import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { moved, reachOf } from '../../geometry/joint';
import { multiply, transformPoint, type Matrix, type Mesh } from '../../geometry/mesh';
import { placesOf, type Body, type Part } from '../../model/body';
import { Deriver } from '../../model/derive';
import { bodyOf } from '../../model/model';
import { newOpening } from '../../project/opening-defaults';
import type { Opening, Project } from '../../project/schema';
import { edit, house, wallAt } from '../../testing/drafting';

const FORMS = {
  door: ['hinged', 'pair', 'unequal', 'stable', 'sliding', 'pocket', 'bifold', 'sectional', 'up-and-over'],
  window: ['fixed', 'casement', 'top-hung', 'tilt', 'sash', 'sliding', 'bay', 'glazed-wall'],
} as const;

const base = house([
  [0, 0],
  [5, 0],
  [5, 4],
  [0, 4],
]);
const wall = wallAt(base, (a, b) => a.y === 0 && b.y === 0);

function withOpening(set: Partial<Opening>): Project {
  const kind = set.kind ?? 'door';
  const sill = kind === 'door' ? 0 : 0.8;
  const size = { at: 2, width: 1.7, height: kind === 'door' ? 2.1 : 1.3, sill };
  return edit(base, 'opening.add', newOpening(base, { id: 'o', wall, kind, ...size, ...set }));
}

const opening = (project: Project): Body => bodyOf(new Deriver().derive(project), 'o')!;

const corners = (mesh: Mesh, m: Matrix): { x: number; y: number; z: number }[] =>
  Array.from({ length: mesh.positions.length / 3 }, (_, i) =>
    transformPoint(m, { x: mesh.positions[i * 3], y: mesh.positions[i * 3 + 1], z: mesh.positions[i * 3 + 2] }),
  );

const forms = [...FORMS.door.map((form) => ['door', form] as const), ...FORMS.window.map((form) => ['window', form] as const)];

describe('the joints of openings', () => {
  it.each(forms)('%s, %s: what is shut and moved by its joint stands where the open one does', (kind, form) => {
    fc.assert(
      fc.property(fc.constantFrom('start', 'end'), fc.constantFrom('left', 'right'), fc.double({ min: 0.05, max: 1, noNaN: true }), (hinge, swing, open) => {
        const set = { kind, form, hinge, swing } as Partial<Opening>;
        const [shut, wide] = [opening(withOpening({ ...set, open: 0 })), opening(withOpening({ ...set, open }))];
        expect(wide.parts.map((p) => p.key)).toEqual(shut.parts.map((p) => p.key));
        shut.parts.forEach((part, i) => {
          const now: Part = wide.parts[i];
          if (!part.joint) return;
          // Opening it makes no mesh anew.
          expect(now.mesh).toBe(part.mesh);
          const { value } = now.joint!;
          expect(value === 0 || Math.abs(value - reachOf(part.joint, open)) < 1e-12).toBe(true);
          const carried = multiply(shut.matrix, multiply(moved(part.joint, value), part.at[0]));
          const there = corners(part.mesh, carried);
          corners(now.mesh, placesOf(wide, now)[0]).forEach((p, k) => {
            expect(Math.hypot(p.x - there[k].x, p.y - there[k].y, p.z - there[k].z)).toBeLessThan(1e-9);
          });
        });
      }),
      { numRuns: 6 },
    );
  });

  it('have as many leaves as the form has, and none where nothing opens by a hinge or a slide', () => {
    const leaves = (set: Partial<Opening>): Part[] => opening(withOpening(set)).parts.filter((p) => p.joint && (p.name === 'leaf' || p.name === 'frame'));
    const kinds = (set: Partial<Opening>): string[] => leaves(set).map((p) => p.joint!.kind);
    expect(kinds({ form: 'hinged' })).toEqual(['hinge']);
    expect(kinds({ form: 'pair' })).toEqual(['hinge', 'hinge']);
    expect(kinds({ form: 'stable' })).toEqual(['hinge', 'hinge']);
    expect(kinds({ form: 'sliding' })).toEqual(['slide']);
    expect(kinds({ form: 'pocket' })).toEqual(['slide']);
    for (const form of ['bifold', 'sectional', 'up-and-over'] as const) expect(kinds({ form })).toEqual([]);
    expect(kinds({ kind: 'window', form: 'fixed' })).toEqual([]);
    expect(kinds({ kind: 'window', form: 'top-hung' })).toEqual(['hinge']);
    expect(kinds({ kind: 'window', form: 'sash' })).toEqual(['slide']);
    expect(kinds({ kind: 'window', form: 'casement' }).length).toBeGreaterThan(1);
  });

  it('turn about their hinge: its foot stays, the far edge goes round it', () => {
    const body = opening(withOpening({ form: 'hinged', open: 1 }));
    const leaf = body.parts.find((p) => p.name === 'leaf')!;
    const joint = leaf.joint!;
    expect(joint.value).toBeCloseTo(Math.PI / 2, 12);
    const shut = opening(withOpening({ form: 'hinged', open: 0 })).parts.find((p) => p.name === 'leaf')!;
    const from = corners(shut.mesh, shut.at[0]);
    corners(leaf.mesh, leaf.at[0]).forEach((p, i) => {
      const radius = (q: { x: number; y: number }): number => Math.hypot(q.x - joint.at.x, q.y - joint.at.y);
      expect(radius(p)).toBeCloseTo(radius(from[i]), 6);
      expect(p.z).toBeCloseTo(from[i].z, 6);
    });
  });

  it('share one mesh among equal leaves', () => {
    const one = withOpening({ form: 'hinged', width: 0.9, at: 1 });
    const two = edit(one, 'opening.add', { ...one.openings.o, id: 'o2', at: 3.2, open: 0.4 });
    const model = new Deriver().derive(two);
    const leaf = (id: string): Part => bodyOf(model, id)!.parts.find((p) => p.name === 'leaf')!;
    expect(leaf('o').mesh).toBe(leaf('o2').mesh);
  });

  it('lay wood the way a leaf is sawn: upright', () => {
    const oak = edit(withOpening({ form: 'hinged', panels: { across: 1, up: 1 } }), 'finish.apply', {
      targets: [{ kind: 'part', of: 'o', part: 'leaf' }],
      finish: 'timber.oak',
    });
    const leaf = opening(oak).parts.find((p) => p.name === 'leaf')!;
    expect(leaf.finish).toBe('timber.oak');
    expect(leaf.grain).toEqual({ x: 0, y: 0, z: 1 });
    // On the broad faces u follows z.
    const { positions: p, normals: n, uvs: t, indices } = leaf.mesh;
    for (let k = 0; k < indices.length; k += 3) {
      const [a, b] = [indices[k], indices[k + 1]];
      if (Math.abs(n[a * 3 + 1]) < 0.9) continue;
      expect(Math.abs(t[b * 2] - t[a * 2])).toBeCloseTo(Math.abs(p[b * 3 + 2] - p[a * 3 + 2]), 5);
    }
  });
});
