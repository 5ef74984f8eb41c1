import * as THREE from 'three';
import { insideRing, labelPoint, union } from '@/core/geometry/polygon';
import type { Region } from '@/core/geometry/region';
import { add, distance, dot, dot3, left, scale, sub, type Vec2, type Vec3 } from '@/core/geometry/vec';
import type { Look } from '@/core/project/schema';
import { cameraFrame } from '@/core/render/camera';
import { NEAR } from '@/core/units/tolerance';

/** The eye of the 3D view: in perspective, or parallel at the scale the perspective has at what it looks at. */
export class Camera {
  readonly perspective = new THREE.PerspectiveCamera(48, 1, 0.05, 900);
  private readonly parallel = new THREE.OrthographicCamera(-1, 1, 1, -1, -600, 900);
  private readonly level = new THREE.PerspectiveCamera();
  projection: Look['projection'] = 'perspective';
  /** Whether verticals are kept upright. */
  upright = false;

  constructor(private readonly target: () => THREE.Vector3) {
    this.perspective.up.set(0, 0, 1);
    this.perspective.position.set(12, -10, 11);
  }

  /** Width over height of the picture that is to show whole in the view; null: the view is the picture. */
  frame: number | null = null;

  /** Vertical field of view of the view, radians: where the picture is wider than the view, more than the picture has. */
  get fov(): number {
    const { fov, aspect } = this.perspective;
    return fovFor((fov * Math.PI) / 180, this.frame, aspect);
  }

  /** What is drawn and picked with, brought up to date. */
  get view(): THREE.PerspectiveCamera | THREE.OrthographicCamera {
    const { perspective: p, parallel: o } = this;
    const zoom = Math.tan((p.fov * Math.PI) / 360) / Math.tan(this.fov / 2);
    if (p.zoom !== zoom) {
      p.zoom = zoom;
      p.updateProjectionMatrix();
    }
    if (this.projection === 'perspective') return this.upright ? this.shifted() : p;
    const half = p.position.distanceTo(this.target()) * Math.tan(this.fov / 2);
    Object.assign(o, { left: -half * p.aspect, right: half * p.aspect, top: half, bottom: -half });
    o.position.copy(p.position);
    o.quaternion.copy(p.quaternion);
    o.updateProjectionMatrix();
    o.updateMatrixWorld();
    return o;
  }

  /** The eye held level, the picture shifted to what is looked at, as pictures are taken (`cameraFrame`). */
  private shifted(): THREE.PerspectiveCamera {
    const { perspective: p, level } = this;
    const frame = cameraFrame({ eye: p.position, target: this.target(), fov: this.fov, upright: true }, p.aspect);
    level.copy(p, false);
    level.up.set(0, 0, 1);
    level.lookAt(p.position.x + frame.axis.x, p.position.y + frame.axis.y, p.position.z + frame.axis.z);
    level.updateProjectionMatrix();
    // How far the middle of the picture lies above the axis, in halves of its height.
    const { forward, up, rise } = frame;
    level.projectionMatrix.elements[9] = dot3(forward, rise) / dot3(up, rise);
    level.projectionMatrixInverse.copy(level.projectionMatrix).invert();
    level.updateMatrixWorld();
    return level;
  }
}

/**
 * Vertical field of view of a pane that shows a picture whole, radians.
 *
 * @param fov of the picture
 * @param frame width over height of the picture; null: it fills the pane
 * @param aspect width over height of the pane
 */
export const fovFor = (fov: number, frame: number | null, aspect: number): number =>
  frame === null || frame <= aspect ? fov : 2 * Math.atan((Math.tan(fov / 2) * frame) / aspect);

/** Where one stands and what one looks at. */
export interface EyeState {
  eye: Vec3;
  target: Vec3;
  fov: number;
}

interface Box {
  min: Vec3;
  max: Vec3;
}

const cornersOf = ({ min, max }: Box): Vec3[] =>
  [0, 1, 2, 3, 4, 5, 6, 7].map((k) => ({ x: k & 1 ? max.x : min.x, y: k & 2 ? max.y : min.y, z: k & 4 ? max.z : min.z }));

/** Whether all of a box shows in a view. */
export function inSight(box: Box, view: THREE.Camera): boolean {
  view.updateMatrixWorld();
  return cornersOf(box).every(({ x, y, z }) => {
    const p = new THREE.Vector3(x, y, z).applyMatrix4(view.matrixWorldInverse);
    if (p.z >= 0) return false;
    p.applyMatrix4(view.projectionMatrix);
    return Math.abs(p.x) <= 1 && Math.abs(p.y) <= 1;
  });
}

/** Farther back in the direction one looks in, so far that all of a box shows about its middle. @param aspect width of the picture over its height */
export function backFrom({ eye, target, fov }: EyeState, box: Box, aspect: number): EyeState {
  const centre = { x: (box.min.x + box.max.x) / 2, y: (box.min.y + box.max.y) / 2, z: (box.min.z + box.max.z) / 2 };
  const d = new THREE.Vector3(eye.x - target.x, eye.y - target.y, eye.z - target.z).normalize();
  const radius = new THREE.Vector3(box.max.x - box.min.x, box.max.y - box.min.y, box.max.z - box.min.z).length() / 2;
  // A sphere of this radius touches the sides of the narrower of the two angles.
  const across = Math.min(fov, 2 * Math.atan(Math.tan(fov / 2) * aspect));
  const far = radius / Math.sin(across / 2);
  return { eye: { x: centre.x + d.x * far, y: centre.y + d.y * far, z: centre.z + d.z * far }, target: centre, fov };
}

/** Between two places to stand. @param t 0 to 1 */
export function between(a: EyeState, b: EyeState, t: number): EyeState {
  const ease = t * t * (3 - 2 * t);
  const mix = (p: Vec3, q: Vec3): Vec3 => ({ x: p.x + (q.x - p.x) * ease, y: p.y + (q.y - p.y) * ease, z: p.z + (q.z - p.z) * ease });
  return { eye: mix(a.eye, b.eye), target: mix(a.target, b.target), fov: a.fov + (b.fov - a.fov) * ease };
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

/** How far the eye stays off the face of a wall, metres. */
const OFF = 0.08;

/** A wall as something the eye may get into: its outline in the plan and its heights in the world, metres. */
export interface Solid {
  ring: readonly Vec2[];
  low: number;
  high: number;
}

/** An eye that has got into a wall, brought out of it by the nearest way; any other stays where it is. */
export function outOfWalls(eye: Vec3, walls: readonly Solid[]): Vec3 {
  const about = walls.filter(({ low, high }) => eye.z >= low && eye.z <= high);
  if (!about.some(({ ring }) => insideRing(eye, ring))) return eye;
  // Where walls meet, out of the one would be into the next: the way out is through the sides of them all.
  const sides = union(about.map(({ ring }) => ({ outer: [...ring], holes: [] }))).flatMap(({ outer, holes }) => [outer, ...holes]);
  const ways = sides.flatMap((ring) =>
    ring.flatMap((a, i) => {
      const b = ring[(i + 1) % ring.length];
      const length = distance(a, b);
      if (length < NEAR) return [];
      const d = scale(sub(b, a), 1 / length);
      const on = add(a, scale(d, Math.min(length, Math.max(0, dot(sub(eye, a), d)))));
      const off = sub(on, eye);
      const l = Math.hypot(off.x, off.y);
      return [
        { far: l, to: add(on, scale(l < NEAR ? left(d) : scale(off, 1 / l), OFF)) },
        { far: l, to: add(on, scale(left(d), -OFF)) },
      ];
    }),
  );
  const way = ways.sort((p, q) => p.far - q.far).find(({ to }) => !about.some(({ ring }) => insideRing(to, ring)));
  return way ? { ...way.to, z: eye.z } : eye;
}

/** How high over the floor one looks up at a ceiling from, metres, and how wide. */
const LOOKING_UP = { eye: 1.1, fov: (86 * Math.PI) / 180 } as const;

/**
 * An eye in a room that looks up at its ceiling: from its middle, along its longer side.
 *
 * @param region of the room in the plan; @param floor and @param ceiling their heights in the world, metres
 */
export function upwards(region: Region, floor: number, ceiling: number): EyeState {
  const { outer } = region;
  let along = { x: 1, y: 0 };
  let longest = 0;
  outer.forEach((p, i) => {
    const q = outer[(i + 1) % outer.length];
    const l = distance(p, q);
    if (l <= longest) return;
    longest = l;
    along = scale(sub(q, p), 1 / l);
  });
  const at = labelPoint(region);
  const z = floor + Math.min(LOOKING_UP.eye, (ceiling - floor) / 2);
  const rise = ceiling - z;
  return { eye: { ...at, z }, target: { ...add(at, scale(along, rise * 0.35)), z: ceiling }, fov: LOOKING_UP.fov };
}
