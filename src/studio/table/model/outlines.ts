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

/** How far within the edges of a face its outline runs, metres: clear of skirtings and of what stands in the corners. */
const INSET = 0.03;

const within = new WeakMap<Mesh, LineSegmentsGeometry>();

/**
 * The boundary of a sheet as lines a little within it: an edge that one triangle alone has, moved towards the third corner of that
 * triangle, square to itself.
 */
export function boundaryWithin({ positions: p, indices }: Pick<Mesh, 'positions' | 'indices'>, inset: number): Float32Array {
  const at = (i: number): THREE.Vector3 => new THREE.Vector3(p[i * 3], p[i * 3 + 1], p[i * 3 + 2]);
  const key = (i: number): string => [0, 1, 2].map((k) => Math.round(p[i * 3 + k] * 1e4)).join();
  const uses = new Map<string, { a: number; b: number; c: number; count: number }>();
  for (let k = 0; k < indices.length; k += 3)
    for (const [i, j, l] of [
      [0, 1, 2],
      [1, 2, 0],
      [2, 0, 1],
    ]) {
      const [a, b, c] = [indices[k + i], indices[k + j], indices[k + l]];
      const edge = [key(a), key(b)].sort().join(' ');
      const known = uses.get(edge);
      if (known) known.count++;
      else uses.set(edge, { a, b, c, count: 1 });
    }
  const lines: number[] = [];
  for (const { a, b, c, count } of uses.values()) {
    if (count > 1) continue;
    const [u, v, w] = [at(a), at(b), at(c)];
    const along = v.clone().sub(u).normalize();
    const inwards = w.sub(u);
    inwards.addScaledVector(along, -inwards.dot(along)).normalize().multiplyScalar(inset);
    for (const q of [u.add(inwards), v.add(inwards)]) lines.push(q.x, q.y, q.z);
  }
  return Float32Array.from(lines);
}

function borderOf(mesh: Mesh): LineSegmentsGeometry {
  let geometry = within.get(mesh);
  if (!geometry) {
    geometry = new LineSegmentsGeometry();
    geometry.setPositions(boundaryWithin(mesh, INSET));
    within.set(mesh, geometry);
  }
  return geometry;
}

/** Where something is drawn already, its outline leaves it free. */
const DRAWN = 1;

interface Line {
  material: LineMaterial;
  order: number;
}

const line = (color: string, linewidth: number, order: number, beside: boolean): Line => ({
  order,
  material: new LineMaterial({
    color,
    linewidth,
    toneMapped: false,
    depthWrite: false,
    polygonOffset: true,
    polygonOffsetFactor: -2,
    polygonOffsetUnits: -4,
    ...(beside ? { stencilWrite: true, stencilRef: DRAWN, stencilFunc: THREE.NotEqualStencilFunc } : {}),
  }),
});

/** Pale under dark, so that it shows on every finish. @param beside only where nothing is marked */
const pair = (width: number, beside: boolean): Line[] => [line(colours.paper, width + 2.5, 11, beside), line(colours.damson, width, 12, beside)];

/**
 * Outlines round what is chosen or pointed at in the model: lines beside it, never over it, so that its finish keeps its colours.
 * What is outlined is marked where it shows, and its edges are then drawn thick wherever nothing is marked. The edges of a face
 * lie in the corners of a room: its outline runs a little within them.
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
  private readonly bodies = { chosen: pair(4.5, true), pointed: pair(2.5, true) };
  private readonly faces = { chosen: pair(2.5, false), pointed: pair(1.5, false) };

  /** The lines on the graphics card. */
  private lines(): Set<LineSegmentsGeometry> {
    return new Set(this.group.children.flatMap((c) => (c instanceof LineSegments2 ? [c.geometry] : [])));
  }

  /** Outlines what is given to `add`, and nothing else. Lines that are no longer shown leave the graphics card. */
  show(fill: () => void): void {
    const before = this.lines();
    this.group.clear();
    fill();
    const now = this.lines();
    for (const geometry of before) if (!now.has(geometry)) geometry.dispose();
  }

  /** Outlines a part of the model as it is drawn. */
  add({ object, source }: Pick<Drawn, 'object' | 'source'>, standing: 'chosen' | 'pointed', face: boolean): void {
    const put = (mesh: THREE.Mesh, order: number): void => {
      mesh.matrixAutoUpdate = false;
      mesh.matrix.copy(object.matrix);
      mesh.renderOrder = order;
      mesh.raycast = () => undefined;
      this.group.add(mesh);
    };
    if (!face) put(new THREE.Mesh(object.geometry, this.mask), 10);
    for (const { material, order } of (face ? this.faces : this.bodies)[standing])
      put(new LineSegments2(face ? borderOf(source) : edgesOf(source), material), order);
  }

  dispose(): void {
    this.show(() => undefined);
    this.mask.dispose();
    for (const { material } of [this.bodies, this.faces].flatMap((of) => [...of.chosen, ...of.pointed])) material.dispose();
  }
}
