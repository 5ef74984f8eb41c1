import * as THREE from 'three';
import type { Mesh, Matrix } from '@/core/geometry/mesh';
import { placesOf, type Body, type Part } from '@/core/model/body';
import type { Model } from '@/core/model/model';
import { traitsOf, type Sort } from '@/core/model/sorts';
import type { Finish, Look } from '@/core/project/schema';
import type { Target } from '@/core/project/targets';
import { isOpen } from '@/core/finishes/finish';
import { Batches, byGroup, type Batchable, type Closeness } from './batches';
import { coarsen, coarserOf, type MakeCoarser } from './coarser';
import { SHADING } from './ContactShade';
import type { Seen } from '@/core/model/cut-away';
import { edgesOf } from './edges';
import { Geometries, geometryBytes } from './geometries';
import type { Materials } from './materials';

/** A part of the model as it is drawn. */
export interface Drawn extends Batchable {
  finish: Finish;
  matrix: Matrix;
  /** How it is shown. */
  way: string;
  seen: Seen;
  target: Target | null;
  /** Round it, in the world; null until somebody asks. */
  box: THREE.Box3 | null;
}

/** A mesh with more corners than this is shown without its edges: they would be all that is seen. */
const MOST_EDGES = 60000;

/** The parts of a model as objects of a scene, in step with it. */
export class DrawnParts {
  private readonly drawn = new Map<string, Drawn>();
  private readonly geometries = new Geometries();
  private readonly batches: Batches;
  private readonly lineMaterial = new THREE.LineBasicMaterial({ color: 0x1d1c1b, toneMapped: false });
  /** Whether the eye is in a room, where ceilings throw shadows. */
  private inside = false;
  private counted: number | null = null;
  /** Which working out of coarser meshes is the last one that was asked for. */
  private coarsening = 0;

  constructor(
    private readonly scene: THREE.Object3D,
    private readonly materials: Pick<Materials, 'of' | 'cut'>,
  ) {
    this.batches = new Batches(scene);
  }

  [Symbol.iterator](): IterableIterator<Drawn> {
    return this.drawn.values();
  }

  get size(): number {
    return this.drawn.size;
  }

  /** Geometry that lies on the graphics card, bytes; counted when it has changed. */
  get bytes(): number {
    return (this.counted ??= this.count());
  }

  private count(): number {
    const alone = new Set<THREE.BufferGeometry>();
    for (const { object, slot } of this.drawn.values()) if (!slot) alone.add(object.geometry);
    return [...alone].reduce((sum, g) => sum + geometryBytes(g), this.batches.bytes);
  }

  /** Brings the objects in step with a model and a way of showing it. @param site whether what lies round it shows */
  show(model: Model, look: Look, site: boolean): void {
    this.counted = null;
    const seen = new Set<string>();
    const through = new Set(look.through);
    for (const body of model.bodies) {
      if (body.kind === 'site' && !site) continue;
      for (const part of body.parts)
        placesOf(body, part).forEach((matrix, i) => {
          const key = `${body.kind} ${part.key} ${i}`;
          seen.add(key);
          this.put(key, body, part, matrix, look, through.has(body.id) || through.has(`all/${part.sort}`));
        });
    }
    for (const [key, drawn] of this.drawn)
      if (!seen.has(key)) {
        this.batches.drop(drawn);
        this.geometries.give(drawn.source);
        this.drawn.delete(key);
      }
  }

  private put(key: string, body: Body, part: Part, matrix: Matrix, look: Look, clear: boolean): void {
    const { mesh, laid: finish, sort, target } = part;
    const lit = part.lamp?.on ? part.lamp.kelvin : null;
    const known = this.drawn.get(key);
    const way = `${look.mode} ${clear} ${look.section !== null} ${lit}`;
    if (known && known.source === mesh && known.finish === finish && known.matrix === matrix && known.way === way) {
      known.target = target;
      return;
    }
    const object = known?.object ?? new THREE.Mesh();
    if (known?.source !== mesh) {
      object.geometry = this.geometries.take(mesh);
      if (known) this.geometries.give(known.source);
    }
    const material = this.materials.of(finish, sort, look.mode, clear, lit);
    object.material = material;
    this.drawLines(object, mesh, sort, look);
    this.fillCut(object, sort, look);
    object.matrixAutoUpdate = false;
    object.matrix.fromArray(matrix as number[]);
    // While it is drawn in a batch no scene keeps this for it.
    object.matrixWorld.copy(object.matrix);
    // What is seen through shades nothing that is close to it.
    if (material.transparent || isOpen(finish) || look.mode === 'lines') object.layers.disable(SHADING);
    else object.layers.enable(SHADING);
    const shadow = !traitsOf(sort).shadeless && finish.transmission === 0 && lit === null && !clear && look.mode !== 'translucent' && look.mode !== 'lines';
    object.castShadow = sort === 'ceiling' ? this.inside : shadow;
    object.receiveShadow = lit === null && look.mode !== 'lines';
    // A batch draws neither lines nor the inside of what is cut, does not turn mirrored faces over, and has one place in the
    // order of what is seen through.
    const alone = look.mode === 'lines' || look.section !== null || material.transparent || object.matrix.determinant() < 0;
    const group = alone ? '' : `${material.uuid} ${sort === 'ceiling' ? sort : shadow} ${object.receiveShadow}`;
    const entry: Drawn = {
      object,
      source: mesh,
      finish,
      matrix,
      way,
      target,
      seen: { entity: body.id, sort, level: part.level ?? body.level, host: part.host },
      box: null,
      group,
      slot: null,
    };
    if (known) this.batches.drop(known);
    this.scene.add(object);
    this.drawn.set(key, entry);
  }

  /** The edges of a surface as lines, where it is shown so. */
  private drawLines(object: THREE.Mesh, mesh: Mesh, sort: Sort, look: Look): void {
    const known = object.children.find((c) => c instanceof THREE.LineSegments) as THREE.LineSegments | undefined;
    // What is shown again later goes back onto the graphics card by itself.
    known?.geometry.dispose();
    if (known) object.remove(known);
    if (look.mode !== 'lines' || sort === 'backdrop' || mesh.indices.length > MOST_EDGES) return;
    const lines = new THREE.LineSegments(edgesOf(mesh), this.lineMaterial);
    lines.raycast = () => undefined;
    object.add(lines);
  }

  /** What a section plane cuts open shows its inside in one tone. */
  private fillCut(object: THREE.Mesh, sort: Sort, look: Look): void {
    const known = object.children.find((c) => c.userData.fill);
    if (known) object.remove(known);
    if (!look.section || !traitsOf(sort).solid) return;
    const fill = new THREE.Mesh(object.geometry, this.materials.cut());
    fill.userData.fill = true;
    fill.raycast = () => undefined;
    object.add(fill);
  }

  /** Shows some and hides the rest. Returns whether that changed: what is hidden throws no shadow. */
  reveal(shows: (part: Seen) => boolean): boolean {
    let changed = false;
    for (const { object, slot, seen } of this.drawn.values()) {
      const visible = shows(seen);
      if (visible !== object.visible) changed = true;
      object.visible = visible;
      slot?.batch.setVisibleAt(slot.instance, visible && slot.way !== null);
    }
    return changed;
  }

  /** Ceilings throw shadows for whoever is inside. Returns whether that changed. */
  roofOver(inside: boolean): boolean {
    if (this.inside === inside) return false;
    this.inside = inside;
    for (const { object, seen, slot } of this.drawn.values())
      if (seen.sort === 'ceiling') {
        object.castShadow = inside;
        if (slot) slot.batch.castShadow = inside;
      }
    return true;
  }

  /** What has come to rest is drawn together. */
  rest(): void {
    this.counted = null;
    this.batches.gather([...this.drawn.values()].filter((d) => d.group));
  }

  /** Draws what is far off coarser. @param closeness null: everything whole */
  fit(closeness: Closeness | null): void {
    this.batches.fit(this.drawn.values(), closeness);
  }

  /** Whether something rests whose coarser meshes are still to be worked out, or to be packed. */
  get fineOnly(): boolean {
    for (const { slot, source } of this.drawn.values()) if (slot && slot.ways.length <= (coarserOf(source)?.length ?? Infinity)) return true;
    return false;
  }

  /**
   * Works out coarser meshes of all that rests and packs them beside the whole ones, a group at a time. Broken off when it is asked again.
   *
   * @param leisure resolves when there is a moment to pack
   */
  async coarsen(make: MakeCoarser, leisure: () => Promise<unknown>): Promise<void> {
    const run = ++this.coarsening;
    const over = (): boolean => run !== this.coarsening;
    for (const members of byGroup([...this.drawn.values()].filter((d) => d.slot)).values()) {
      for (const { source } of members) {
        if (!coarserOf(source)) await coarsen(source, make);
        if (over()) return;
      }
      if (!members.some(({ slot, source }) => slot && slot.ways.length <= coarserOf(source)!.length)) continue;
      await leisure();
      if (over()) return;
      // Some may have left their batch meanwhile: they join it again when they rest.
      if (!members.every((d) => d.slot)) continue;
      this.counted = null;
      this.batches.gather(members);
    }
  }

  dispose(): void {
    this.coarsening++;
    for (const { source } of this.drawn.values()) this.geometries.give(source);
    this.batches.dispose();
  }
}
