import * as THREE from 'three';
import { LineMaterial } from 'three/addons/lines/LineMaterial.js';
import { LineSegments2 } from 'three/addons/lines/LineSegments2.js';
import { LineSegmentsGeometry } from 'three/addons/lines/LineSegmentsGeometry.js';
import { meshEdges } from '@/core/geometry/edges';
import type { Mesh } from '@/core/geometry/mesh';
import { colours } from '../../look/theme';
import type { Drawn } from './drawn';

/** Meshes with more corners than this are outlined by their creases alone. */
const FINE = 40000;

const known = new WeakMap<Mesh, LineSegmentsGeometry>();

/** All edges of a mesh as lines of a width: whichever way one looks, its outline is among them. Made once. */
function edgesOf(mesh: Mesh): LineSegmentsGeometry {
  let geometry = known.get(mesh);
  if (!geometry) {
    const { ends, kinds } = meshEdges(mesh);
    const fine = mesh.indices.length > FINE;
    const lines = fine ? kinds.flatMap((kind, i) => (kind === 'smooth' ? [] : [...ends.subarray(i * 6, i * 6 + 6)])) : ends;
    geometry = new LineSegmentsGeometry();
    geometry.setPositions(Float32Array.from(lines));
    known.set(mesh, geometry);
  }
  return geometry;
}

/** Where something is drawn already, its outline leaves it free. */
const DRAWN = 1;

const line = (color: string, linewidth: number, order: number): { material: LineMaterial; order: number } => ({
  order,
  material: new LineMaterial({
    color,
    linewidth,
    toneMapped: false,
    depthWrite: false,
    polygonOffset: true,
    polygonOffsetFactor: -2,
    polygonOffsetUnits: -4,
    stencilWrite: true,
    stencilRef: DRAWN,
    stencilFunc: THREE.NotEqualStencilFunc,
  }),
});

/**
 * Outlines round what is chosen or pointed at in the model: lines beside it, never over it, so that its finish keeps its colours.
 * What is outlined is marked where it shows, and its edges are then drawn thick wherever nothing is marked.
 */
export class Outlines {
  readonly group = new THREE.Group();
  private readonly mask = new THREE.MeshBasicMaterial({
    colorWrite: false,
    depthWrite: false,
    side: THREE.DoubleSide,
    polygonOffset: true,
    polygonOffsetFactor: -1,
    polygonOffsetUnits: -2,
    stencilWrite: true,
    stencilRef: DRAWN,
    stencilZPass: THREE.ReplaceStencilOp,
  });
  /** Pale under dark, so that it shows on every finish. */
  private readonly chosen = [line(colours.paper, 7, 11), line(colours.damson, 4.5, 12)];
  private readonly pointed = [line(colours.paper, 5, 11), line(colours.damson, 2.5, 12)];

  /** Forgets what was outlined. */
  clear(): void {
    this.group.clear();
  }

  /** Outlines a part of the model as it is drawn. */
  add({ object, source }: Pick<Drawn, 'object' | 'source'>, standing: 'chosen' | 'pointed'): void {
    const put = (mesh: THREE.Mesh, order: number): void => {
      mesh.matrixAutoUpdate = false;
      mesh.matrix.copy(object.matrix);
      mesh.renderOrder = order;
      mesh.raycast = () => undefined;
      this.group.add(mesh);
    };
    put(new THREE.Mesh(object.geometry, this.mask), 10);
    for (const { material, order } of this[standing]) put(new LineSegments2(edgesOf(source), material), order);
  }

  dispose(): void {
    this.clear();
    this.mask.dispose();
    for (const { material } of [...this.chosen, ...this.pointed]) material.dispose();
  }
}
