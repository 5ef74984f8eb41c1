import * as THREE from 'three';
import type { Target } from '@/core/project/targets';
import { insideRegion } from '@/core/geometry/polygon';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import type { Model } from '@/core/model/model';
import { finishById } from '@/core/finishes/library';
import type { Vec2, Vec3 } from '@/core/geometry/vec';
import type { Look, Project, Shot } from '@/core/project/schema';
import type { Rgb } from '@/core/finishes/colour';
import { usualWhite } from '@/core/light/white';
import { balance, exposureScale } from '@/core/render/tone';
import { prism } from '@/core/geometry/extrude';
import { BARE } from '@/core/project/kinds/first-finishes';
import type { DerivedWall } from '@/core/shell/wall-types';
import type { Spot } from '../../store/studio';
import { FIRST_LOOK } from '@/core/project/looks';
import { DrawnParts } from './drawn';
import { coveringsOf, cutAway, insideRoom, type Coverings, type Looking } from '@/core/model/cut-away';
import { loadBeyond } from '../../finishes/textures';
import { BeyondSheet } from './BeyondSheet';
import { ContactShade } from './ContactShade';
import { FramePace } from './FramePace';
import { Lighting } from './Lighting';
import { Mirrors } from './Mirrors';
import { Outlines } from './outlines';
import { upwards, backFrom, between, Camera, inSight, STANDPOINTS, type EyeState, type Standpoint, outOfWalls, type Solid } from './camera';
import { geometryOf } from './geometries';
import { Materials } from './materials';
import { exposureOutdoors, RoomGlow } from './RoomGlow';
import { floorPoint, pickFrom, sightAt, type Sight } from './picking';

/** Exposure values at ISO 100 the view is shown with: a doll's house in daylight, and a room by day. */
export const EV = { outside: 14.35, inside: 8.5 } as const;

const AS_IT_IS: Rgb = [1, 1, 1];

/** What has not changed for so long is drawn together, ms. */
const STILL = 400;

/** After so long without a move there is time for what slow graphics take long for, ms. */
const CALM = 160;

/** How far the eye stays above the ground, metres. */
const ABOVE = 0.15;

/** Whoever has turned the view within so long is left where they are, ms. */
const JUST_TURNED = 6000;

/** How long a move of the eye takes, ms. */
const GLIDE = 350;

/** The first picture waits no longer than this for its shaders, ms. */
const PATIENCE = 4000;

/** Whether something is one face of a room or of the outside. */
const isFace = (target: Target | null): boolean => target?.kind === 'wall' || target?.kind === 'floor' || target?.kind === 'ceiling';

/** The 3D view of a model: keeps three.js objects in step with derived surfaces and draws only when something changed. */
export class ModelScene {
  private readonly renderer: THREE.WebGLRenderer;
  private readonly scene = new THREE.Scene();
  private readonly eyeCamera = new Camera(() => this.controls.target);
  private readonly camera = this.eyeCamera.perspective;
  readonly controls: OrbitControls;
  private readonly glow = new RoomGlow(() => {
    this.light();
    this.draw();
  });
  private readonly contact: ContactShade;
  private readonly pace = new FramePace();
  private readonly mirrors = new Mirrors(
    () => this.contact.hold(true),
    () => this.contact.hold(false),
  );
  private readonly materials = new Materials(
    () => this.draw(),
    (material) => this.contact.into(this.glow.into(material)),
  );
  private readonly parts = new DrawnParts(this.scene, this.materials);
  private readonly outlines = new Outlines();
  private readonly ghost = new THREE.Group();
  private readonly beyond = new BeyondSheet(loadBeyond, () => this.draw());
  private readonly lighting: Lighting;
  private readonly ground: THREE.Mesh;
  private readonly stubs = new THREE.Group();
  private model: Model | null = null;
  private coverings: Coverings = { hosts: new Map(), flush: new Set() };
  private site: Project['site'] | null = null;
  /** Whether one looks into the house from above. */
  private lidOff = true;
  private frame = 0;
  private compiling: ReturnType<typeof setTimeout> | null = null;
  private resting: ReturnType<typeof setTimeout> | null = null;
  private calming: ReturnType<typeof setTimeout> | null = null;
  private shade = true;
  private spots: { selection: Spot[]; hover: Spot | null } = { selection: [], hover: null };
  private look: Look = FIRST_LOOK;
  /** The level in hand: cut away, the house is seen up to it. */
  level: string | null = null;
  room: string | null = null;
  /** Whether the eye stands where somebody chose to stand, or walks, rather than back from the model. */
  private afoot = false;
  /** What the eye was last brought to see, in numbers. */
  private known = '';
  private turned = -Infinity;
  private gliding = 0;
  /** Called when a picture has been drawn, for what lies over it. */
  readonly onDrawn = new Set<() => void>();

  constructor(private readonly canvas: HTMLCanvasElement) {
    this.renderer = new THREE.WebGLRenderer({ canvas, antialias: true, stencil: true, preserveDrawingBuffer: true, powerPreference: 'low-power' });
    // Asking each shader for its faults makes the page wait for it.
    this.renderer.debug.checkShaderErrors = process.env.NODE_ENV !== 'production';
    this.contact = new ContactShade(this.renderer, this.scene);
    this.renderer.toneMapping = THREE.CustomToneMapping;
    this.renderer.shadowMap.enabled = true;
    this.renderer.shadowMap.type = THREE.PCFShadowMap;
    this.renderer.shadowMap.autoUpdate = false;
    this.controls = new OrbitControls(this.camera, canvas);
    this.controls.enableDamping = false;
    this.controls.mouseButtons = { LEFT: THREE.MOUSE.ROTATE, MIDDLE: THREE.MOUSE.PAN, RIGHT: THREE.MOUSE.PAN };
    this.controls.maxPolarAngle = Math.PI * 0.98;
    this.controls.addEventListener('change', () => {
      // Turned by hand, the eye stays above the ground, or the lowest floor.
      const least = Math.min(this.site?.ground ?? 0, ...(this.model?.shell.levels.map((l) => l.level.elevation) ?? [])) + ABOVE;
      if (!this.afoot && this.camera.position.z < least) {
        this.camera.position.z = least;
        this.camera.lookAt(this.controls.target);
      }
      if (!this.afoot) this.leaveWalls();
      this.cut();
      this.light();
      this.draw();
    });
    this.controls.addEventListener('start', () => cancelAnimationFrame(this.gliding));
    this.controls.addEventListener('end', () => (this.turned = performance.now()));
    this.scene.background = new THREE.Color(0xe6e6e3);
    this.lighting = new Lighting(this.scene);
    const ground = new THREE.PlaneGeometry(120, 120);
    this.ground = new THREE.Mesh(ground, new THREE.ShadowMaterial({ opacity: 0.16 }));
    this.ground.receiveShadow = true;
    this.scene.add(this.beyond.group, this.ground, this.outlines.group, this.ghost, this.stubs, this.mirrors.group);
  }

  dispose(): void {
    cancelAnimationFrame(this.frame);
    cancelAnimationFrame(this.gliding);
    if (this.resting) clearTimeout(this.resting);
    if (this.compiling) clearTimeout(this.compiling);
    if (this.calming) clearTimeout(this.calming);
    this.lighting.dispose();
    this.parts.dispose();
    this.contact.dispose();
    this.mirrors.dispose();
    this.outlines.dispose();
    this.beyond.dispose();
    this.glow.dispose();
    for (const stub of [...this.stubs.children]) this.dropStub(stub);
    this.controls.dispose();
    this.renderer.dispose();
  }

  resize(width: number, height: number): void {
    this.renderer.setPixelRatio(Math.min(devicePixelRatio, 2));
    this.renderer.setSize(width, height, false);
    this.camera.aspect = width / Math.max(1, height);
    this.camera.updateProjectionMatrix();
    this.draw();
  }

  /** Asks for one picture in the next frame. */
  draw(): void {
    this.canvas.dataset.rested = 'false';
    if (this.calming) clearTimeout(this.calming);
    this.calming = null;
    this.request(false);
  }

  /** @param calm whether nothing has moved for a while: there is time for what takes long */
  private request(calm: boolean): void {
    if (this.frame || this.compiling) return;
    const asked = performance.now();
    this.frame = requestAnimationFrame(() => {
      this.frame = 0;
      const { view } = this.eyeCamera;
      this.pace.frame(performance.now() - asked);
      // What slow graphics take long for comes when the eye rests.
      const full = calm || this.pace.quick;
      const shaded = this.shade && this.look.mode !== 'lines';
      const mirrored = this.shade && this.inside && this.mirrors.any;
      this.mirrors.look(mirrored && full ? this.camera.position : null);
      if (shaded && full) this.contact.prepare(view);
      else this.contact.none();
      this.renderer.render(this.scene, view);
      // What was drawn, for whoever measures or waits: calls, triangles, bytes of geometry.
      const { calls, triangles } = this.renderer.info.render;
      if (this.model) this.canvas.dataset.drawn = `${calls} ${triangles} ${this.parts.bytes}`;
      if ((shaded || mirrored) && !full)
        this.calming = setTimeout(() => {
          this.calming = null;
          this.request(true);
        }, CALM);
      this.canvas.dataset.rested = String(this.resting === null && this.calming === null);
      for (const tell of this.onDrawn) tell();
    });
  }

  /** Whether surfaces that come close shade one another, luminaires throw shadows in the room of the eye, and mirrors show an image. */
  setShade(on: boolean): void {
    if (on === this.shade) return;
    this.shade = on;
    this.light();
    this.draw();
  }

  /** How the model is shown: projection, surfaces, what is cut away, hidden or made see-through. */
  setLook(look: Look): void {
    if (look === this.look) return;
    const again = look.mode !== this.look.mode || look.through !== this.look.through || (look.section === null) !== (this.look.section === null);
    this.look = look;
    this.eyeCamera.projection = look.projection;
    this.eyeCamera.upright = look.upright;
    const { section } = look;
    const sign = section?.keep === 'above' ? 1 : -1;
    this.renderer.clippingPlanes = section
      ? [
          new THREE.Plane(
            new THREE.Vector3(section.axis === 'x' ? sign : 0, section.axis === 'y' ? sign : 0, section.axis === 'z' ? sign : 0),
            -sign * section.at,
          ),
        ]
      : [];
    this.scene.background = new THREE.Color(look.mode === 'lines' ? 0xfbfbfa : 0xe6e6e3);
    if (again && this.model) this.setModel(this.model);
    else {
      this.cut();
      this.light();
      this.highlight();
      this.draw();
    }
  }

  setModel(model: Model): void {
    const site = Object.keys(model.shell.project.grounds).length > 0 || model.project.site.background !== 'none' || model.project.site.surroundings !== null;
    const first = this.parts.size === 0;
    this.parts.show(model, this.look, site);
    this.mirrors.show(this.parts);
    this.ground.visible = !site;
    this.ground.position.z = model.project.site.ground;
    this.model = model;
    this.site = model.project.site;
    this.beyond.show(this.site);
    this.glow.show(model.project);
    this.lighting.daylight(this.site, this.bounds());
    this.coverings = coveringsOf(model);
    this.lighting.setLamps(model);
    this.makeStubs();
    this.lighting.setLids(model);
    this.cut();
    if (first) this.parts.rest();
    else this.restSoon();
    this.light();
    this.highlight();
    this.renderer.shadowMap.needsUpdate = true;
    if (first && this.parts.size) this.compile();
    this.draw();
  }

  /** Has the shaders made beside the page before the first picture, so that nothing waits for them. */
  private compile(): void {
    const materials = [...this.renderer.compile(this.scene, this.eyeCamera.view)];
    const until = performance.now() + PATIENCE;
    const ready = (material: THREE.Material): boolean =>
      (this.renderer.properties.get(material) as { currentProgram?: { isReady(): boolean } }).currentProgram?.isReady() ?? true;
    const look = (): void => {
      const done = performance.now() > until || materials.every(ready);
      this.compiling = done ? null : setTimeout(look, 10);
      if (done) this.draw();
    };
    look();
  }

  /** What has changed is drawn together with the rest once nothing changes any more. */
  private restSoon(): void {
    if (this.resting) clearTimeout(this.resting);
    this.resting = setTimeout(() => {
      this.resting = null;
      this.parts.rest();
      this.draw();
    }, STILL);
  }

  private bounds(): THREE.Box3 {
    const box = new THREE.Box3();
    for (const level of this.model?.shell.levels ?? [])
      for (const wall of level.walls)
        for (const ring of wall.rings)
          for (const p of ring) {
            box.expandByPoint(new THREE.Vector3(p.x, p.y, level.level.elevation));
            box.expandByPoint(new THREE.Vector3(p.x, p.y, level.level.elevation + wall.height));
          }
    for (const level of this.model?.shell.levels ?? [])
      for (const roof of level.roofs)
        for (const p of roof.shape.outlines.flatMap((o) => o.outer)) box.expandByPoint(new THREE.Vector3(p.x, p.y, level.level.elevation + roof.shape.top));
    if (box.isEmpty()) box.set(new THREE.Vector3(-2, -2, 0), new THREE.Vector3(4, 4, 2.5));
    return box;
  }

  /** Whether the eye is inside a room, below its ceiling. */
  get inside(): boolean {
    return this.model !== null && insideRoom(this.model, this.looking());
  }

  private looking(): Looking {
    const { x, y, z } = this.camera.position;
    const chosen = new Set(this.spots.selection.map((s) => s.entity));
    return { look: this.look, eye: { x, y, z }, level: this.level, room: this.room, afoot: this.afoot, chosen };
  }

  /** What light is multiplied by so that what pictures of the moment show as white is white in the view too. */
  private white(): Rgb {
    return this.site ? balance(usualWhite(this.site)) : AS_IT_IS;
  }

  private light(): void {
    const { inside } = this;
    const { lidOff } = this;
    const { x, y, z } = this.camera.position;
    const glow = this.glow.use((inside || !lidOff) && this.look.mode !== 'lines', inside ? { x, y, z } : null, this.white());
    const ev = glow ? (glow.ev ?? exposureOutdoors(this.lighting.onGround)) : inside ? EV.inside : EV.outside;
    this.renderer.toneMappingExposure = exposureScale(ev);
    this.canvas.dataset.exposure = ev.toFixed(2);
    const drawing = this.look.mode === 'lines';
    const tint = glow ? this.white() : AS_IT_IS;
    this.beyond.see({ perspective: this.look.projection === 'perspective' && !drawing, sky: inside || (!lidOff && !this.ground.visible), inside, tint });
    const [shadows, ceilings] = [
      this.lighting.show(inside ? { x, y, z } : null, lidOff, glow !== null, tint, this.shade && !drawing),
      this.parts.roofOver(inside),
    ];
    if (shadows || ceilings) this.renderer.shadowMap.needsUpdate = true;
  }

  /** Low remains of walls that are cut away. */
  private makeStubs(): void {
    const kept = new Map(this.stubs.children.map((stub) => [stub.userData.entity as string, stub]));
    for (const wall of this.model!.shell.walls.values()) {
      const known = kept.get(wall.id);
      kept.delete(wall.id);
      if (known?.userData.wall === wall) continue;
      if (known) this.dropStub(known);
      const z = this.model!.project.levels[wall.wall.level].elevation;
      const rings = wall.rings.filter((ring) => ring.length > 2).map((outer) => ({ outer, holes: [] }));
      if (!rings.length) continue;
      const stub = new THREE.Mesh(geometryOf(prism(rings, z, z + 0.1)), this.materials.finish(finishById(BARE.outside)));
      stub.userData = { entity: wall.id, wall };
      stub.visible = false;
      this.stubs.add(stub);
    }
    for (const gone of kept.values()) this.dropStub(gone);
  }

  private dropStub(stub: THREE.Object3D): void {
    this.stubs.remove(stub);
    (stub as THREE.Mesh).geometry.dispose();
  }

  /** Brings the eye out of a wall it was moved into. */
  private leaveWalls(): void {
    const { position } = this.camera;
    const at = { x: position.x, y: position.y, z: position.z };
    const out = outOfWalls(at, this.solids());
    if (out === at) return;
    position.set(out.x, out.y, out.z);
    this.camera.lookAt(this.controls.target);
  }

  /** The walls of the model as solids. */
  private solids(): Solid[] {
    return (this.model?.shell.levels ?? []).flatMap(({ level, walls }) =>
      walls.flatMap((wall) => wall.rings.map((ring) => ({ ring, low: level.elevation + wall.foot, high: level.elevation + wall.foot + wall.height }))),
    );
  }

  /** Takes away the walls that stand between the eye and the rooms. */
  private cut(): void {
    if (!this.model) return;
    const { shows, stub, lidOff } = cutAway(this.model, this.coverings, this.looking());
    this.lidOff = lidOff;
    if (this.parts.reveal(shows)) this.renderer.shadowMap.needsUpdate = true;
    for (const low of this.stubs.children) {
      const { entity, wall } = low.userData as { entity: string; wall: DerivedWall };
      low.visible = stub(entity, wall.wall.level);
    }
  }

  setSpots(selection: Spot[], hover: Spot | null): void {
    this.spots = { selection, hover };
    this.cut();
    this.highlight();
    this.draw();
  }

  private highlight(): void {
    const { selection, hover } = this.spots;
    const show = (spot: Spot, standing: 'chosen' | 'pointed', exact: boolean): void => {
      for (const drawn of this.parts) {
        const { target, seen, object } = drawn;
        if (seen.entity !== spot.entity || !object.visible) continue;
        if (exact && spot.target && JSON.stringify(target) !== JSON.stringify(spot.target)) continue;
        this.outlines.add(drawn, standing, exact && isFace(target));
      }
    };
    this.outlines.show(() => {
      for (const spot of selection) show(spot, 'chosen', isFace(spot.target));
      if (hover && !selection.some((s) => s.entity === hover.entity)) show(hover, 'pointed', true);
    });
  }

  /** Lines on the floor that a tool draws. */
  setGhost(points: readonly Vec2[], z: number): void {
    this.ghost.clear();
    if (points.length > 1) {
      const geometry = new THREE.BufferGeometry().setFromPoints(points.map((p) => new THREE.Vector3(p.x, p.y, z + 0.02)));
      this.ghost.add(new THREE.Line(geometry, new THREE.LineBasicMaterial({ color: 0x0b6468, depthTest: false })));
    }
    this.draw();
  }

  private sight(x: number, y: number): Sight {
    return sightAt(this.canvas, this.eyeCamera.view, x, y);
  }

  /** What lies under a point of the canvas. */
  pick(x: number, y: number): { spot: Spot; point: Vec3 } | null {
    const walls = this.model?.project.walls ?? {};
    return pickFrom(this.parts, this.sight(x, y), (part) => part.target !== null || Object.hasOwn(walls, part.seen.entity));
  }

  /** Where the line of sight through a point of the canvas meets a horizontal plane. */
  floorPoint(x: number, y: number, z: number): Vec2 | null {
    return floorPoint(this.sight(x, y), z);
  }

  /** Where a point shows, pixels from the upper left of the canvas; null: behind the eye. */
  screenOf({ x, y, z }: Vec3): Vec2 | null {
    const { view } = this.eyeCamera;
    view.updateMatrixWorld();
    const p = new THREE.Vector3(x, y, z).applyMatrix4(view.matrixWorldInverse);
    if (p.z >= 0) return null;
    p.applyMatrix4(view.projectionMatrix);
    return { x: ((p.x + 1) / 2) * this.canvas.clientWidth, y: ((1 - p.y) / 2) * this.canvas.clientHeight };
  }

  /** Metres that one pixel covers at the distance of the target. */
  get pixel(): number {
    const d = this.camera.position.distanceTo(this.controls.target);
    return (2 * d * Math.tan(this.eyeCamera.fov / 2)) / Math.max(1, this.canvas.clientHeight);
  }

  eye(): EyeState {
    const { position: e } = this.camera;
    const t = this.controls.target;
    return { eye: { x: e.x, y: e.y, z: e.z }, target: { x: t.x, y: t.y, z: t.z }, fov: (this.camera.fov * Math.PI) / 180 };
  }

  /** What a picture of what is seen now is taken with. */
  shot(): Shot {
    const { look, eye, level, room, afoot } = this.looking();
    return { looking: { look, eye, level, room, afoot }, camera: { ...this.eye(), aperture: null, focus: null }, round: false };
  }

  /** What a picture of all the pane shows is taken with. */
  paneShot(): Shot {
    const shot = this.shot();
    return { ...shot, camera: { ...shot.camera, fov: this.eyeCamera.fov } };
  }

  /** Shows all of a picture of these proportions. @param aspect width over height; null: the pane is the picture */
  setFrame(aspect: number | null): void {
    if (aspect === this.eyeCamera.frame) return;
    this.eyeCamera.frame = aspect;
    this.draw();
  }

  /** Stands where somebody chose to stand: the eye may be in any storey. */
  setEye(state: EyeState): void {
    this.afoot = true;
    this.lookFrom(state);
  }

  /** Looks up at the ceiling of a room, unless one is in it already. */
  lookUp(id: string): void {
    const own = this.model?.shell.rooms.get(id);
    const level = own && this.model!.project.levels[own.room.level];
    if (!own || !level) return;
    const { x, y, z } = this.camera.position;
    const [floor, ceiling] = [level.elevation + own.room.step, level.elevation + own.room.step + own.height];
    if (insideRegion({ x, y }, own.region) && z > floor && z < ceiling) return;
    this.setEye(upwards(own.region, floor, ceiling));
    this.draw();
  }

  /** Looks from where another scene looks. */
  like(other: ModelScene): void {
    this.afoot = other.afoot;
    this.lookFrom(other.eye());
  }

  private lookFrom({ eye, target, fov }: EyeState): void {
    this.camera.position.set(eye.x, eye.y, eye.z);
    this.camera.fov = (fov * 180) / Math.PI;
    this.camera.updateProjectionMatrix();
    this.controls.target.set(target.x, target.y, target.z);
    this.controls.update();
    this.cut();
    this.light();
    this.highlight();
    this.draw();
  }

  /** Stands back so that everything, or one room, is in view from the south-east above. */
  fit(region?: readonly Vec2[]): void {
    const box = region ? new THREE.Box3() : this.bounds();
    const own = this.model?.shell.levels.find((l) => l.id === this.level)?.level;
    const z = own?.elevation ?? 0;
    if (region) for (const p of region) box.expandByPoint(new THREE.Vector3(p.x, p.y, z)).expandByPoint(new THREE.Vector3(p.x, p.y, z + 2));
    const centre = box.getCenter(new THREE.Vector3());
    const r = box.getSize(new THREE.Vector3()).length() / 2;
    const fov = (44 * Math.PI) / 180;
    const across = Math.min(fov, 2 * Math.atan(Math.tan(fov / 2) * this.camera.aspect));
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
    this.renderer.shadowMap.needsUpdate = true;
  }

  /**
   * Brings what has been added into sight by a short move, in the direction one looks in. Nothing moves while one walks, has
   * a room in hand or has just turned the view.
   */
  follow(): void {
    const box = this.bounds();
    const key = [box.min, box.max].map(({ x, y, z }) => `${x.toFixed(2)} ${y.toFixed(2)} ${z.toFixed(2)}`).join(' ');
    const known = this.known;
    this.known = key;
    if (known === '' || known === key || this.afoot || this.room || performance.now() - this.turned < JUST_TURNED) return;
    if (inSight(box, this.eyeCamera.view)) return;
    this.glide(backFrom(this.eye(), box, this.camera.aspect));
  }

  private glide(to: EyeState): void {
    const from = this.eye();
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
  stand(from: Standpoint, region?: readonly Vec2[]): void {
    this.afoot = false;
    const box = region ? new THREE.Box3() : this.bounds();
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
    const half = Math.max(extent(up), extent(right) / this.camera.aspect) / 2;
    const far = (half * 1.12) / Math.tan(fov / 2);
    this.lookFrom({ eye: { x: c.x + x * far, y: c.y + y * far, z: c.z + z * far }, target: { x: c.x, y: c.y, z: c.z }, fov });
  }

  /** Where one walks: eyes at a height over the feet, looking in a direction. @param yaw from the x axis @param pitch upwards */
  walkTo(feet: Vec3, height: number, yaw: number, pitch: number): void {
    const eye = { x: feet.x, y: feet.y, z: feet.z + height };
    const c = Math.cos(pitch);
    this.setEye({ eye, target: { x: eye.x + Math.cos(yaw) * c * 2, y: eye.y + Math.sin(yaw) * c * 2, z: eye.z + Math.sin(pitch) * 2 }, fov: 1.15 });
  }
}
