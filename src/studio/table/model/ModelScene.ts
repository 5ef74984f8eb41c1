import * as THREE from 'three';
import type { Target } from '@/core/project/targets';
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
import { withUnits } from '@/core/project/things';
import type { Closeness } from './batches';
import { coarserWorker } from './coarser';
import { DrawnParts } from './drawn';
import { coveringsOf, cutAway, insideRoom, type Coverings, type Looking } from '@/core/model/cut-away';
import { loadBeyond } from '../../finishes/textures';
import { BeyondSheet } from './BeyondSheet';
import { ContactShade } from './ContactShade';
import { FramePace } from './FramePace';
import { Lighting } from './Lighting';
import { Mirrors } from './Mirrors';
import { Outlines } from './outlines';
import { boundsOf, Eye } from './Eye';
import { geometryOf } from './geometries';
import { Materials } from './materials';
import { exposureOutdoors, RoomGlow } from './RoomGlow';
import { floorPoint, pickFrom, sightAt, type Sight } from './picking';

/** Exposure values at ISO 100 the view is shown with: a doll's house in daylight, and a room by day. */
export const EV = { outside: 14.35, inside: 8.5 } as const;

const AS_IT_IS: Rgb = [1, 1, 1];

/** Pixels by which what is drawn may be off, and across which something is left out: seen by nobody, and while one moves. */
const CLOSE = { off: 0.7, least: 0.7 } as const;
const MOVING = { off: 3, least: 3 } as const;

/** Pixels a side for each of the pane's while one moves with slow graphics. */
const COARSE = 0.5;

/** A moment when the page has nothing else to do. */
const leisure = (): Promise<unknown> =>
  new Promise((resolve) => ('requestIdleCallback' in window ? requestIdleCallback(resolve, { timeout: 500 }) : setTimeout(resolve, 16)));

/** What has not changed for so long is drawn together, ms. */
const STILL = 400;

/** After so long without a move there is time for what slow graphics take long for, ms. */
const CALM = 160;

/** The first picture waits no longer than this for its shaders, ms. */
const PATIENCE = 4000;

/** Whether something is one face of a room or of the outside. */
const isFace = (target: Target | null): boolean => target?.kind === 'wall' || target?.kind === 'floor' || target?.kind === 'ceiling';

/** The 3D view of a model: keeps three.js objects in step with derived surfaces and draws only when something changed. */
export class ModelScene {
  private readonly renderer: THREE.WebGLRenderer;
  private readonly scene = new THREE.Scene();
  readonly eye: Eye;
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
  model: Model | null = null;
  private coverings: Coverings = { hosts: new Map(), flush: new Set() };
  private site: Project['site'] | null = null;
  /** Whether one looks into the house from above. */
  private lidOff = true;
  private frame = 0;
  private compiling: ReturnType<typeof setTimeout> | null = null;
  private resting: ReturnType<typeof setTimeout> | null = null;
  private calming: ReturnType<typeof setTimeout> | null = null;
  private shade = true;
  /** Whether its pane has no room. */
  private folded = false;
  /** Pixels drawn a side for each of the pane's when the eye rests. */
  private ratio = 1;
  /** Whether shadows are no longer as what is drawn throws them. */
  private shadowsOld = true;
  /** Where the eye stood in the frame before. */
  private readonly stood = new THREE.Matrix4();
  private coarser: ReturnType<typeof coarserWorker> | null = null;
  private spots: { selection: Spot[]; hover: Spot | null } = { selection: [], hover: null };
  private look: Look = FIRST_LOOK;
  /** The level in hand: cut away, the house is seen up to it. */
  level: string | null = null;
  room: string | null = null;
  /** Called when a picture has been drawn, for what lies over it. */
  readonly onDrawn = new Set<() => void>();

  constructor(private readonly canvas: HTMLCanvasElement) {
    this.eye = new Eye(canvas, this);
    this.renderer = new THREE.WebGLRenderer({ canvas, antialias: true, stencil: true, preserveDrawingBuffer: true, powerPreference: 'low-power' });
    // Asking each shader for its faults makes the page wait for it.
    this.renderer.debug.checkShaderErrors = process.env.NODE_ENV !== 'production';
    this.contact = new ContactShade(this.renderer, this.scene);
    this.renderer.toneMapping = THREE.CustomToneMapping;
    this.renderer.shadowMap.enabled = true;
    this.renderer.shadowMap.type = THREE.PCFShadowMap;
    this.renderer.shadowMap.autoUpdate = false;
    this.scene.background = new THREE.Color(0xe6e6e3);
    this.lighting = new Lighting(this.scene);
    const ground = new THREE.PlaneGeometry(120, 120);
    this.ground = new THREE.Mesh(ground, new THREE.ShadowMaterial({ opacity: 0.16 }));
    this.ground.receiveShadow = true;
    this.scene.add(this.beyond.group, this.ground, this.outlines.group, this.ghost, this.stubs, this.mirrors.group);
  }

  dispose(): void {
    cancelAnimationFrame(this.frame);
    if (this.resting) clearTimeout(this.resting);
    if (this.compiling) clearTimeout(this.compiling);
    if (this.calming) clearTimeout(this.calming);
    this.coarser?.end();
    this.lighting.dispose();
    this.parts.dispose();
    this.contact.dispose();
    this.mirrors.dispose();
    this.outlines.dispose();
    this.beyond.dispose();
    this.glow.dispose();
    for (const stub of [...this.stubs.children]) this.dropStub(stub);
    this.eye.dispose();
    this.renderer.dispose();
  }

  /** @param width, height of the pane, pixels; nothing is drawn while it has none, and the eye stays where it was */
  resize(width: number, height: number): void {
    this.folded = !width || !height;
    const [before, ratio] = [this.renderer.getSize(new THREE.Vector2()), Math.min(devicePixelRatio, 2)];
    if (this.folded || (before.x === width && before.y === height && this.ratio === ratio)) return;
    this.ratio = ratio;
    this.renderer.setPixelRatio(ratio);
    this.renderer.setSize(width, height, false);
    this.eye.resize(width / height);
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
    // A pane that is folded away has nothing to draw.
    if (this.frame || this.compiling || this.folded) return;
    const asked = performance.now();
    this.frame = requestAnimationFrame(() => {
      this.frame = 0;
      const { view } = this.eye.lens;
      this.pace.frame(performance.now() - asked);
      // What slow graphics take long for comes when the eye rests.
      const full = calm || this.pace.quick;
      const shaded = this.shade && this.look.mode !== 'lines';
      const mirrored = this.shade && this.inside && this.mirrors.any;
      this.mirrors.look(mirrored && full ? this.eye.at : null);
      // Less closely only while the eye moves: an edit seen from where one stands needs no second frame.
      view.updateMatrixWorld();
      const hasty = !full && !view.matrixWorld.equals(this.stood);
      const late = this.shadowsOld && !full;
      this.renderer.shadowMap.needsUpdate = this.shadowsOld && full;
      if (full) this.shadowsOld = false;
      this.stood.copy(view.matrixWorld);
      const ratio = hasty ? this.ratio * COARSE : this.ratio;
      if (this.renderer.getPixelRatio() !== ratio) this.renderer.setPixelRatio(ratio);
      this.parts.fit(this.closeness(view, hasty));
      if (shaded && full) this.contact.prepare(view);
      else this.contact.none();
      this.renderer.render(this.scene, view);
      // What was drawn, for whoever measures or waits: calls, triangles, bytes of geometry.
      const { calls, triangles } = this.renderer.info.render;
      if (this.model) this.canvas.dataset.drawn = `${calls} ${triangles} ${this.parts.bytes}`;
      if ((shaded || mirrored || hasty || late) && !full)
        this.calming = setTimeout(() => {
          this.calming = null;
          this.request(true);
        }, CALM);
      this.canvas.dataset.rested = String(this.resting === null && this.calming === null);
      for (const tell of this.onDrawn) tell();
    });
  }

  /** How closely things have to be drawn: whole where shadows are drawn anew, and with slow graphics less closely while one moves. */
  private closeness(view: Closeness['view'], hasty: boolean): Closeness | null {
    if (this.renderer.shadowMap.needsUpdate) return null;
    return { view, height: this.canvas.height, ...(hasty ? MOVING : CLOSE) };
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
    this.eye.lens.projection = look.projection;
    this.eye.lens.upright = look.upright;
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
    this.lighting.daylight(this.site, boundsOf(model));
    this.coverings = coveringsOf(model);
    this.lighting.setLamps(model);
    this.makeStubs();
    this.lighting.setLids(model);
    this.cut();
    if (first) this.rest();
    else this.restSoon();
    this.light();
    this.highlight();
    this.shadowsOld = true;
    if (first && this.parts.size) this.compile();
    this.draw();
  }

  /** Has the shaders made beside the page before the first picture, so that nothing waits for them. */
  private compile(): void {
    const materials = [...this.renderer.compile(this.scene, this.eye.lens.view)];
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

  private rest(): void {
    this.parts.rest();
    this.coarser?.end();
    this.coarser = null;
    if (!this.parts.fineOnly) return;
    const own = (this.coarser = coarserWorker());
    // Without it everything is drawn whole, however far off.
    void this.parts
      .coarsen(own.make, leisure)
      .catch(() => undefined)
      .finally(() => own.end());
  }

  /** What has changed is drawn together with the rest once nothing changes any more. */
  private restSoon(): void {
    if (this.resting) clearTimeout(this.resting);
    this.resting = setTimeout(() => {
      this.resting = null;
      this.rest();
      this.draw();
    }, STILL);
  }

  /** Whether the eye is inside a room, below its ceiling. */
  get inside(): boolean {
    return this.model !== null && insideRoom(this.model, this.looking());
  }

  private looking(): Looking {
    const chosen = new Set(this.spots.selection.map((s) => s.entity));
    return { look: this.look, eye: this.eye.at, level: this.level, room: this.room, afoot: this.eye.afoot, chosen };
  }

  /** What light is multiplied by so that what pictures of the moment show as white is white in the view too. */
  private white(): Rgb {
    return this.site ? balance(usualWhite(this.site)) : AS_IT_IS;
  }

  private light(): void {
    const { inside } = this;
    const { lidOff } = this;
    // What is cut open is looked into: its rooms have the even light of a house without its roof, not what comes through their windows.
    const open = lidOff || this.look.section !== null;
    const at = inside ? this.eye.at : null;
    const glow = this.glow.use((inside || !open) && this.look.mode !== 'lines', at, this.white());
    const ev = glow ? (glow.ev ?? exposureOutdoors(this.lighting.onGround)) : inside ? EV.inside : EV.outside;
    this.renderer.toneMappingExposure = exposureScale(ev);
    this.canvas.dataset.exposure = ev.toFixed(2);
    const drawing = this.look.mode === 'lines';
    const tint = glow ? this.white() : AS_IT_IS;
    this.beyond.see({ perspective: this.look.projection === 'perspective' && !drawing, sky: inside || (!lidOff && !this.ground.visible), inside, tint });
    const [shadows, ceilings] = [this.lighting.show(at, open, glow !== null, tint, this.shade && !drawing), this.parts.roofOver(inside)];
    if (shadows || ceilings) this.shadowsOld = true;
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

  /** Takes away the walls that stand between the eye and the rooms. */
  private cut(): void {
    if (!this.model) return;
    const { shows, stub, lidOff } = cutAway(this.model, this.coverings, this.looking());
    this.lidOff = lidOff;
    if (this.parts.reveal(shows)) this.shadowsOld = true;
    for (const low of this.stubs.children) {
      const { entity, wall } = low.userData as { entity: string; wall: DerivedWall };
      low.visible = stub(entity, wall.wall.level);
    }
  }

  /** The eye was turned by hand: walls before it give way, and it is lit as it stands now. */
  turned(): void {
    this.cut();
    this.light();
    this.draw();
  }

  /** The eye stands elsewhere. */
  moved(): void {
    this.cut();
    this.light();
    this.highlight();
    this.draw();
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
      const own = this.model ? withUnits(this.model.project, [spot.entity]) : new Set<string>();
      for (const drawn of this.parts) {
        const { target, seen, object } = drawn;
        if (!own.has(seen.entity) || !object.visible) continue;
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
    return sightAt(this.canvas, this.eye.lens.view, x, y);
  }

  /** What lies under a point of the canvas. */
  pick(x: number, y: number): { spot: Spot; point: Vec3 } | null {
    const walls = this.model?.project.walls ?? {};
    return pickFrom(this.parts, this.sight(x, y), (part) => part.target !== null || Object.hasOwn(walls, part.seen.entity));
  }

  /** Where the line of sight through a point of the canvas meets anything but some things. */
  sightOn(x: number, y: number, except: ReadonlySet<string>): Vec3 | null {
    return pickFrom(this.parts, this.sight(x, y), (part) => !except.has(part.seen.entity))?.point ?? null;
  }

  /** Where the line of sight through a point of the canvas meets a horizontal plane. */
  floorPoint(x: number, y: number, z: number): Vec2 | null {
    return floorPoint(this.sight(x, y), z);
  }

  /** Where a point shows, pixels from the upper left of the canvas; null: behind the eye. */
  screenOf({ x, y, z }: Vec3): Vec2 | null {
    const { view } = this.eye.lens;
    view.updateMatrixWorld();
    const p = new THREE.Vector3(x, y, z).applyMatrix4(view.matrixWorldInverse);
    if (p.z >= 0) return null;
    p.applyMatrix4(view.projectionMatrix);
    return { x: ((p.x + 1) / 2) * this.canvas.clientWidth, y: ((1 - p.y) / 2) * this.canvas.clientHeight };
  }

  /** What a picture of what is seen now is taken with. */
  shot(): Shot {
    const { look, eye, level, room, afoot } = this.looking();
    return { looking: { look, eye, level, room, afoot }, camera: { ...this.eye.state(), aperture: null, focus: null }, round: false };
  }

  /** What a picture of all the pane shows is taken with. */
  paneShot(): Shot {
    const shot = this.shot();
    return { ...shot, camera: { ...shot.camera, fov: this.eye.lens.fov } };
  }
}
