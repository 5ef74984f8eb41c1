import * as THREE from 'three';
import type { Look } from '@/core/project/schema';

/** The eye of the 3D view: in perspective, or parallel at the scale the perspective has at what it looks at. */
export class Camera {
  readonly perspective = new THREE.PerspectiveCamera(48, 1, 0.05, 900);
  private readonly parallel = new THREE.OrthographicCamera(-1, 1, 1, -1, -600, 900);
  projection: Look['projection'] = 'perspective';

  constructor(private readonly target: () => THREE.Vector3) {
    this.perspective.up.set(0, 0, 1);
    this.perspective.position.set(12, -10, 11);
  }

  /** What is drawn and picked with, brought up to date. */
  get view(): THREE.PerspectiveCamera | THREE.OrthographicCamera {
    const { perspective: p, parallel: o } = this;
    if (this.projection === 'perspective') return p;
    const half = p.position.distanceTo(this.target()) * Math.tan((p.fov * Math.PI) / 360);
    Object.assign(o, { left: -half * p.aspect, right: half * p.aspect, top: half, bottom: -half });
    o.position.copy(p.position);
    o.quaternion.copy(p.quaternion);
    o.updateProjectionMatrix();
    o.updateMatrixWorld();
    return o;
  }
}

/** Directions one looks from, as unit vectors from what is looked at to the eye, x east and y north of the plan. */
export const STANDPOINTS = {
  above: { name: 'from above', from: [0, -0.0005, 1] },
  south: { name: 'face-on from the south', from: [0, -1, 0] },
  east: { name: 'face-on from the east', from: [1, 0, 0] },
  north: { name: 'face-on from the north', from: [0, 1, 0] },
  west: { name: 'face-on from the west', from: [-1, 0, 0] },
  // Isometric: the three axes foreshortened alike.
  'iso-se': { name: 'isometric, south-east', from: [0.57735, -0.57735, 0.57735] },
  'iso-ne': { name: 'isometric, north-east', from: [0.57735, 0.57735, 0.57735] },
  'iso-nw': { name: 'isometric, north-west', from: [-0.57735, 0.57735, 0.57735] },
  'iso-sw': { name: 'isometric, south-west', from: [-0.57735, -0.57735, 0.57735] },
} as const satisfies Record<string, { name: string; from: readonly [number, number, number] }>;
export type Standpoint = keyof typeof STANDPOINTS;
