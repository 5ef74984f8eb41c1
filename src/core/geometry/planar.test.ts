import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '../demo/heron-lock';
import { deriveModel } from '../model/derive';
import { partsOf } from '../model/model';
import { meshEdges, type EdgeKind } from './edges';
import { extrude, prism } from './extrude';
import { meshArea, MeshBuilder, type Mesh } from './mesh';
import { planarFaces } from './planar';
import { cylinder } from './shapes';

const count = (mesh: Mesh, kind: EdgeKind): number => meshEdges(mesh).kinds.filter((k) => k === kind).length;
const ring = (x0: number, y0: number, x1: number, y1: number) => [
  { x: x0, y: y0 },
  { x: x1, y: y0 },
  { x: x1, y: y1 },
  { x: x0, y: y1 },
];

describe('plane faces and edges of a mesh', () => {
  it('of a box are six and twelve', () => {
    const box = new MeshBuilder().box(-1, 0, 0.5, 2, 1.5, 3).build();
    const faces = planarFaces(box);
    expect(faces.map((f) => f.outer.length)).toEqual([4, 4, 4, 4, 4, 4]);
    expect(faces.map((f) => f.area).sort((a, b) => a - b)).toEqual([3.75, 3.75, 4.5, 4.5, 7.5, 7.5].map((v) => expect.closeTo(v, 5)));
    expect([count(box, 'crease'), count(box, 'boundary'), count(box, 'smooth')]).toEqual([12, 0, 0]);
  });

  it('of a prism with a hole keep the hole in its floor and its top', () => {
    const made = prism([{ outer: ring(0, 0, 4, 3), holes: [ring(1, 1, 2, 2).reverse()] }], 0, 1);
    const faces = planarFaces(made);
    expect(faces).toHaveLength(10);
    const pierced = faces.filter((f) => f.holes.length);
    expect(pierced.map((f) => f.area)).toEqual([expect.closeTo(11, 5), expect.closeTo(11, 5)]);
    expect(pierced.map((f) => f.normal.z).sort()).toEqual([-1, 1]);
    expect(count(made, 'crease')).toBe(24);
  });

  it('of a cylinder: its rims are creases, the joints of its facets smooth', () => {
    const made = cylinder(0, 0, 0, 2, 1, 1, 24);
    expect([count(made, 'crease'), count(made, 'boundary'), count(made, 'smooth')]).toEqual([48, 0, 24]);
    expect(planarFaces(made)).toHaveLength(26);
  });

  it('a sheet has a boundary all round and nothing within', () => {
    const sheet = new MeshBuilder().region({ outer: ring(0, 0, 2, 1), holes: [] }, (p) => ({ ...p, z: 1 }), { x: 0, y: 0, z: 1 }).build();
    expect([count(sheet, 'crease'), count(sheet, 'boundary'), count(sheet, 'smooth')]).toEqual([0, 4, 0]);
  });

  it('do not depend on where neighbours were parted: a T-shaped joint is no edge', () => {
    const builder = new MeshBuilder();
    const v = (x: number, y: number) => ({ x, y, z: 0 });
    builder.quad(v(0, 0), v(2, 0), v(2, 1), v(0, 1));
    builder.quad(v(0, 1), v(1, 1), v(1, 2), v(0, 2));
    builder.quad(v(1, 1), v(2, 1), v(2, 2), v(1, 2));
    const made = builder.build();
    const faces = planarFaces(made);
    expect(faces).toHaveLength(1);
    expect(faces[0].outer).toHaveLength(4);
    expect(faces[0].area).toBeCloseTo(4, 6);
    expect(count(made, 'crease')).toBe(0);
  });

  it('of random pierced plates: areas of faces are those of the mesh, and V − E + F is 2 − 2 × holes', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5 }), fc.integer({ min: 1, max: 3 }), fc.double({ min: 0.05, max: 0.4, noNaN: true }), (nx, ny, size) => {
        const holes = Array.from({ length: nx * ny }, (_, i) => {
          const [x, y] = [(i % nx) + 0.5, Math.floor(i / nx) + 0.5];
          return ring(x - size / 2, y - size / 2, x + size / 2, y + size / 2).reverse();
        });
        const made = extrude([{ outer: ring(0, 0, nx, ny), holes }], 0, 0.1);
        const faces = planarFaces(made);
        expect(faces.reduce((sum, f) => sum + f.area, 0)).toBeCloseTo(meshArea(made), 4);
        const corners = new Set(faces.flatMap((f) => [f.outer, ...f.holes].flat()).map((p) => [p.x, p.y, p.z].map((c) => c.toFixed(4)).join(' ')));
        expect(faces).toHaveLength(6 + 4 * holes.length);
        expect(corners.size - count(made, 'crease') + faces.length - 2 * holes.length).toBe(2 - 2 * holes.length);
      }),
      { numRuns: 40 },
    );
  });

  it('of everything in the demo have the area of its meshes', () => {
    const model = deriveModel(heronLockCottage());
    let checked = 0;
    for (const [, { mesh, sort }] of partsOf(model)) {
      if (sort === 'backdrop' || sort === 'piece' || mesh.indices.length > 6000) continue;
      const area = planarFaces(mesh).reduce((sum, f) => sum + f.area, 0);
      expect(Math.abs(area - meshArea(mesh))).toBeLessThan(1e-3 + meshArea(mesh) * 1e-4);
      checked++;
    }
    expect(checked).toBeGreaterThan(300);
  });
});
