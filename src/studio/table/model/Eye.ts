import * as THREE from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import type { Model } from '@/core/model/model';
import { insideRegion } from '@/core/geometry/polygon';
import type { Vec2, Vec3 } from '@/core/geometry/vec';
import { backFrom, between, Camera, inSight, outOfWalls, STANDPOINTS, upwards, type EyeState, type Solid, type Standpoint } from './camera';

/** How far the eye stays above the ground, metres. */
const ABOVE = 0.15;

/** Whoever has turned the view within so long is left where they are, ms. */
const JUST_TURNED = 6000;

/** How long a move of the eye takes, ms. */
const GLIDE = 350;

/** What the eye looks at, and who is told when it moves. */
interface Seen {
  readonly model: Model | null;
  /** The level and the room in hand. */
  readonly level: string | null;
  readonly room: string | null;
  /** It was turned by hand, a little. */
  turned(): void;
  /** It stands elsewhere. */
  moved(): void;
  draw(): void;
}

/** The eye of the 3D view: where it stands, how it is turned by hand, and how it is brought to what is to be seen. */
export class Eye {
  readonly lens = new Camera(() => this.controls.target);
  readonly controls: OrbitControls;
  /** Whether it stands where somebody chose to stand, or walks, rather than back from the model. */
  afoot = false;
  private readonly place = this.lens.perspective;
  /** What it was last brought to see, in numbers. */
  private known = '';
  private turned = -Infinity;
  private gliding = 0;

  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly scene: Seen,
  ) {
    this.controls = new OrbitControls(this.place, canvas);
    this.controls.enableDamping = false;
    this.controls.mouseButtons = { LEFT: THREE.MOUSE.ROTATE, MIDDLE: THREE.MOUSE.PAN, RIGHT: THREE.MOUSE.PAN };
    this.controls.maxPolarAngle = Math.PI * 0.98;
    this.controls.addEventListener('change', () => {
      // Turned by hand, the eye stays above the ground, or the lowest floor.
      const least = Math.min(this.scene.model?.project.site.ground ?? 0, ...(this.scene.model?.shell.levels.map((l) => l.level.elevation) ?? [])) + ABOVE;
      if (!this.afoot && this.place.position.z < least) {
        this.place.position.z = least;
        this.place.lookAt(this.controls.target);
      }
      if (!this.afoot) this.leaveWalls();
      this.scene.turned();
    });
    this.controls.addEventListener('start', () => cancelAnimationFrame(this.gliding));
    this.controls.addEventListener('end', () => (this.turned = performance.now()));
  }

  /** @param aspect width of the pane over its height */
  resize(aspect: number): void {
    this.place.aspect = aspect;
    this.place.updateProjectionMatrix();
  }

  dispose(): void {
    cancelAnimationFrame(this.gliding);
    this.controls.dispose();
  }

  /** Where it is. */
  get at(): Vec3 {
    const { x, y, z } = this.place.position;
    return { x, y, z };
  }

  /** Brings the eye out of a wall it was moved into. */
  private leaveWalls(): void {
    const { position } = this.place;
    const at = { x: position.x, y: position.y, z: position.z };
    const out = outOfWalls(at, this.solids());
    if (out === at) return;
    position.set(out.x, out.y, out.z);
    this.place.lookAt(this.controls.target);
  }

  /** The walls of the model as solids. */
  private solids(): Solid[] {
    return (this.scene.model?.shell.levels ?? []).flatMap(({ level, walls }) =>
      walls.flatMap((wall) => wall.rings.map((ring) => ({ ring, low: level.elevation + wall.foot, high: level.elevation + wall.foot + wall.height }))),
    );
  }

  /** Metres that one pixel covers at the distance of the target. */
  get pixel(): number {
    const d = this.place.position.distanceTo(this.controls.target);
    return (2 * d * Math.tan(this.lens.fov / 2)) / Math.max(1, this.canvas.clientHeight);
  }

  /** Where it stands and what it looks at. */
  state(): EyeState {
    const { position: e } = this.place;
    const t = this.controls.target;
    return { eye: { x: e.x, y: e.y, z: e.z }, target: { x: t.x, y: t.y, z: t.z }, fov: (this.place.fov * Math.PI) / 180 };
  }

  /** Shows all of a picture of these proportions. @param aspect width over height; null: the pane is the picture */
  frame(aspect: number | null): void {
    if (aspect === this.lens.frame) return;
    this.lens.frame = aspect;
    this.scene.draw();
  }

  /** Stands where somebody chose to stand: the eye may be in any storey. */
  set(state: EyeState): void {
    this.afoot = true;
    this.lookFrom(state);
  }

  /** Looks up at the ceiling of a room, unless one is in it already. */
  lookUp(id: string): void {
    const own = this.scene.model?.shell.rooms.get(id);
    const level = own && this.scene.model!.project.levels[own.room.level];
    if (!own || !level) return;
    const { x, y, z } = this.place.position;
    const [floor, ceiling] = [level.elevation + own.room.step, level.elevation + own.room.step + own.height];
    if (insideRegion({ x, y }, own.region) && z > floor && z < ceiling) return;
    this.set(upwards(own.region, floor, ceiling));
    this.scene.draw();
  }

  /** Looks from where another scene looks. */
  like(other: Eye): void {
    this.afoot = other.afoot;
    this.lookFrom(other.state());
  }

  private lookFrom({ eye, target, fov }: EyeState): void {
    this.place.position.set(eye.x, eye.y, eye.z);
    this.place.fov = (fov * 180) / Math.PI;
    this.place.updateProjectionMatrix();
    this.controls.target.set(target.x, target.y, target.z);
    this.controls.update();
    this.scene.moved();
  }

  /** Stands back so that everything, or one room, is in view from the south-east above. */
  fit(region?: readonly Vec2[]): void {
    const box = region ? new THREE.Box3() : boundsOf(this.scene.model);
    const own = this.scene.model?.shell.levels.find((l) => l.id === this.scene.level)?.level;
    const z = own?.elevation ?? 0;
    if (region) for (const p of region) box.expandByPoint(new THREE.Vector3(p.x, p.y, z)).expandByPoint(new THREE.Vector3(p.x, p.y, z + 2));
    const centre = box.getCenter(new THREE.Vector3());
    const r = box.getSize(new THREE.Vector3()).length() / 2;
    const fov = (44 * Math.PI) / 180;
    const across = Math.min(fov, 2 * Math.atan(Math.tan(fov / 2) * this.place.aspect));
    const view = new THREE.Vector3(0.42, -0.72, 0.72).normalize();
    // A small room is looked into from above its storey.
    const least = region && own ? (z + own.height + 1.2 - centre.z) / view.z : 0;
    const d = Math.max(least, (r / Math.sin(across / 2)) * (region ? 0.95 : 0.92));
    this.afoot = false;
    this.lookFrom({
      eye: { x: centre.x + view.x * d, y: centre.y + view.y * d, z: centre.z + view.z * d },
      target: { x: centre.x, y: centre.y, z: Math.max(z, centre.z - 0.6) },
      fov,
    });
  }

  /**
   * Brings what has been added into sight by a short move, in the direction one looks in. Nothing moves while one walks, has
   * a room in hand or has just turned the view.
   */
  follow(): void {
    const box = boundsOf(this.scene.model);
    const key = [box.min, box.max].map(({ x, y, z }) => `${x.toFixed(2)} ${y.toFixed(2)} ${z.toFixed(2)}`).join(' ');
    const known = this.known;
    this.known = key;
    if (known === '' || known === key || this.afoot || this.scene.room || performance.now() - this.turned < JUST_TURNED) return;
    if (inSight(box, this.lens.view)) return;
    this.glide(backFrom(this.state(), box, this.place.aspect));
  }

  private glide(to: EyeState): void {
    const from = this.state();
    const begun = performance.now();
    cancelAnimationFrame(this.gliding);
    const step = (): void => {
      const t = matchMedia('(prefers-reduced-motion: reduce)').matches ? 1 : Math.min(1, (performance.now() - begun) / GLIDE);
      this.lookFrom(between(from, to, t));
      if (t < 1) this.gliding = requestAnimationFrame(step);
    };
    step();
  }

  /** Looks at everything, or at one room, from one of the directions people know, parallel. */
  standFrom(from: Standpoint, region?: readonly Vec2[]): void {
    this.afoot = false;
    const box = region ? new THREE.Box3() : boundsOf(this.scene.model);
    if (region) for (const p of region) box.expandByPoint(new THREE.Vector3(p.x, p.y, 0)).expandByPoint(new THREE.Vector3(p.x, p.y, 2.5));
    const c = box.getCenter(new THREE.Vector3());
    const size = box.getSize(new THREE.Vector3());
    const [x, y, z] = STANDPOINTS[from].from;
    // What is seen of the box, across and up.
    const d = new THREE.Vector3(x, y, z);
    const right = new THREE.Vector3(-y, x, 0);
    if (right.lengthSq() < 1e-6) right.set(1, 0, 0);
    right.normalize();
    const up = d.clone().cross(right).normalize();
    const extent = (v: THREE.Vector3): number => Math.abs(v.x) * size.x + Math.abs(v.y) * size.y + Math.abs(v.z) * size.z;
    const fov = 0.5;
    const half = Math.max(extent(up), extent(right) / this.place.aspect) / 2;
    const far = (half * 1.12) / Math.tan(fov / 2);
    this.lookFrom({ eye: { x: c.x + x * far, y: c.y + y * far, z: c.z + z * far }, target: { x: c.x, y: c.y, z: c.z }, fov });
  }

  /** Where one walks: eyes at a height over the feet, looking in a direction. @param yaw from the x axis @param pitch upwards */
  walkTo(feet: Vec3, height: number, yaw: number, pitch: number): void {
    const eye = { x: feet.x, y: feet.y, z: feet.z + height };
    const c = Math.cos(pitch);
    this.set({ eye, target: { x: eye.x + Math.cos(yaw) * c * 2, y: eye.y + Math.sin(yaw) * c * 2, z: eye.z + Math.sin(pitch) * 2 }, fov: 1.15 });
  }
}

/** What walls and roofs of a model take up; some room about the origin where there are none. */
export function boundsOf(model: Model | null): THREE.Box3 {
  const box = new THREE.Box3();
  for (const level of model?.shell.levels ?? [])
    for (const wall of level.walls)
      for (const ring of wall.rings)
        for (const p of ring) {
          box.expandByPoint(new THREE.Vector3(p.x, p.y, level.level.elevation));
          box.expandByPoint(new THREE.Vector3(p.x, p.y, level.level.elevation + wall.height));
        }
  for (const level of model?.shell.levels ?? [])
    for (const roof of level.roofs)
      for (const p of roof.shape.outlines.flatMap((o) => o.outer)) box.expandByPoint(new THREE.Vector3(p.x, p.y, level.level.elevation + roof.shape.top));
  if (box.isEmpty()) box.set(new THREE.Vector3(-2, -2, 0), new THREE.Vector3(4, 4, 2.5));
  return box;
}
