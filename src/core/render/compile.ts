import { hiddenIn } from '../project/things';
import { blackBody, hexToLinear, type Rgb } from '../finishes/colour';
import { isOpen, isPlain, type Finish, type Texture } from '../finishes/finish';
import { normalMap } from '../finishes/texture';
import { transformPoint, type Matrix, type Mesh } from '../geometry/mesh';
import { insideRegion } from '../geometry/polygon';
import { cross3, dot3, sub3, type Vec3 } from '../geometry/vec';
import type { Daylight } from '../light/daylight';
import { placesOf, type Pane, type Part } from '../model/body';
import type { Model } from '../model/model';
import { bodyName } from '../model/names';
import { traitsOf } from '../model/sorts';
import type { Lamp } from '../project/schema';
import type { presenceIn } from './shot';
import { LIGHT_GROUPS, SceneBuilder, diffuse, type Material, type MaterialTexture, type Portal, type Scene } from './scene';

/** Roughness from which glass is no longer looked through. */
export const FROSTED = 0.2;

/** How far brushing draws reflections out. */
const BRUSHED = 0.7;

/** A finish with its texture as a material. */
export function materialOf(finish: Finish, texture: Texture | null): Material {
  return {
    name: finish.id,
    colour: hexToLinear(finish.colour),
    roughness: finish.roughness,
    metalness: finish.metalness,
    // Frosted glass scatters what passes through it.
    pane: finish.transmission > 0 && !finish.solid && finish.roughness < FROSTED,
    solid: finish.transmission > 0 && Boolean(finish.solid),
    translucency: finish.translucency,
    sheen: finish.sheen,
    opacity: finish.opacity,
    ior: finish.ior,
    coat: 0,
    coatRoughness: 0.05,
    // Its lines run along u; finer than any picture shows them they still draw reflections out.
    anisotropy: finish.body.kind === 'brushed' ? BRUSHED : 0,
    open: isOpen(finish),
    emission: null,
    lamp: -1,
    group: LIGHT_GROUPS.sky,
    texture: texture && !isPlain(finish) ? packed(texture) : null,
  };
}

const packs = new WeakMap<Texture, MaterialTexture>();

/** A texture as the tracer has it; made once. */
function packed(texture: Texture): MaterialTexture {
  const known = packs.get(texture);
  if (known) return known;
  const { width, height, rough, size } = texture;
  const map = normalMap(texture);
  let detail: Uint8Array | null = null;
  if (map || rough) {
    detail = new Uint8Array(width * height * 4);
    const slopes = new Int8Array(detail.buffer);
    for (let k = 0; k < detail.length; k += 4) {
      if (map) {
        slopes[k] = Math.round(map[k] - 127.5);
        slopes[k + 1] = Math.round(map[k + 1] - 127.5);
      }
      if (rough) detail[k + 2] = rough[k >> 2];
    }
  }
  const made = { width, height, colour: texture.colour, detail, normals: Boolean(map), rough: Boolean(rough), size };
  packs.set(texture, made);
  return made;
}

/** Corners of the triangles from which a mesh that stands in several places is kept once. */
const SHARED = 3 * 64;

/** Share of the light that is stopped by what is made see-through. */
const CLEAR = 0.3;

export interface SceneInput {
  model: Model;
  daylight: Daylight | null;
  /** How parts stand in the picture; all are shown unless told. */
  presence?: ReturnType<typeof presenceIn>;
  /** Whether all but glass is white, as a model of card is. */
  white?: boolean;
}

/** Gives the materials of a scene their textures. @param textureOf of a finish that is not plain */
export function texture(scene: Scene, textureOf: (finish: Finish) => Texture | null): void {
  scene.sources.forEach((finish, i) => {
    if (!finish) return;
    const pixels = textureOf(finish);
    scene.materials[i].texture = pixels && packed(pixels);
  });
}

/** The whole project as the tracer sees it, its finishes still without their textures. */
export function compileScene({ model, daylight, presence, white = false }: SceneInput): Scene {
  const builder = new SceneBuilder();
  const known = { clear: new Map<Finish, number>(), whole: new Map<Finish, number>() };
  const use = (finish: Finish, clear: boolean): number => {
    const list = known[clear ? 'clear' : 'whole'];
    let index = list.get(finish);
    if (index !== undefined) return index;
    const card = white && finish.transmission === 0;
    const made = card ? { ...diffuse(CARD), opacity: finish.opacity } : materialOf(finish, null);
    index = builder.material(clear ? { ...made, opacity: made.opacity * CLEAR } : made, card || isPlain(finish) ? null : finish);
    list.set(finish, index);
    return index;
  };
  const hidden = hiddenIn(model.project);
  const gone = (id: string | null | undefined): boolean => Boolean(id) && hidden.has(id!);
  // Equal meshes of one matter are gathered, wherever they stand.
  const equal = new Map<Mesh, Map<string, { places: Matrix[]; objects: number[]; index: number; unseen: boolean }>>();
  for (const body of model.bodies) {
    if (gone(body.id) || gone(body.level)) continue;
    const object = builder.object(bodyName(model.project, body));
    for (const part of body.parts) {
      if (gone(part.level)) continue;
      const level = part.level ?? body.level;
      const how = presence?.(body.id, level, part) ?? 'shown';
      if (how === 'gone') continue;
      const unseen = how === 'unseen';
      const places = placesOf(body, part);
      if (part.lamp) {
        addLamp(builder, part, part.lamp, places, builder.group(groupOf(model, level, places[0]), part.lamp.kelvin), unseen, object);
        continue;
      }
      const index = use(part.laid, how === 'through');
      const material = builder.materials[index];
      const passes = Boolean(traitsOf(part.sort).glazed) && material.pane;
      const mesh = part.fine?.() ?? part.mesh;
      if (passes || mesh.indices.length < SHARED) for (const place of places) builder.mesh(mesh, place, index, passes, unseen, object);
      else {
        let ways = equal.get(mesh);
        if (!ways) equal.set(mesh, (ways = new Map()));
        const key = `${index} ${unseen}`;
        let way = ways.get(key);
        if (!way) ways.set(key, (way = { places: [], objects: [], index, unseen }));
        way.places.push(...places);
        way.objects.push(...places.map(() => object));
      }
      if (!material.pane) continue;
      for (const pane of part.panes ?? []) {
        const portal = portalOf(pane, material.colour, material.ior);
        builder.portals.push(portal);
        builder.panes.push(portal);
      }
    }
  }
  // Daylight comes in where there is no glass too.
  for (const { id, level, clear } of model.shell.openings.values())
    if (!gone(id) && !gone(level)) for (const way of clear) builder.portals.push(portalOf(way, [1, 1, 1], 1));
  for (const [mesh, ways] of equal)
    for (const { places, objects, index, unseen } of ways.values())
      if (places.length > 1) builder.share(mesh, places, index, unseen, objects);
      else builder.mesh(mesh, places[0], index, false, unseen, objects[0]);
  return builder.build(daylight);
}

/** White card, as models are made of. */
const CARD: Rgb = [0.78, 0.78, 0.78];

/** What glows of a luminaire: its flux spread evenly over it; dark where the luminaire is off. */
function addLamp(
  builder: SceneBuilder,
  { mesh: plain, fine, laid }: Part,
  lamp: Lamp,
  places: readonly Matrix[],
  group: number,
  unseen: boolean,
  object: number,
): void {
  const mesh = fine?.() ?? plain;
  const area = places.reduce((sum, place) => sum + worldArea(mesh, place), 0);
  const colour = blackBody(lamp.kelvin);
  const l = lamp.on ? lamp.lumen / (Math.PI * area) : 0;
  const emission: Rgb = [colour[0] * l, colour[1] * l, colour[2] * l];
  const index = builder.material({ ...materialOf(laid, null), emission: l > 0 ? emission : null, lamp: l > 0 ? builder.lights.length : -1, group });
  const added = places.map((place) => builder.mesh(mesh, place, index, false, unseen, object));
  if (l > 0)
    builder.light(
      added[0].first,
      added.reduce((sum, a) => sum + a.count, 0),
      emission,
      lamp.lumen,
      group,
    );
}

/** Luminaires of a room are one group. */
function groupOf({ shell }: Model, level: string | null | undefined, [, , , , , , , , , , , , x, y]: Matrix): string {
  const room = shell.levels.find((l) => l.id === level)?.rooms.find((r) => insideRegion({ x, y }, r.region));
  return room ? `Lamps, ${room.room.name}` : 'Lamps outside';
}

export function portalOf({ corner, along, up }: Pane, tint: Rgb, ior: number): Portal {
  const n = cross3(along, up);
  const area = Math.hypot(n.x, n.y, n.z);
  return {
    corner,
    along,
    up,
    normal: { x: n.x / area, y: n.y / area, z: n.z / area },
    area,
    centre: { x: corner.x + (along.x + up.x) / 2, y: corner.y + (along.y + up.y) / 2, z: corner.z + (along.z + up.z) / 2 },
    tint,
    ior,
  };
}

function worldArea(mesh: Mesh, matrix: Matrix): number {
  const at = (i: number): Vec3 => transformPoint(matrix, { x: mesh.positions[i * 3], y: mesh.positions[i * 3 + 1], z: mesh.positions[i * 3 + 2] });
  let sum = 0;
  for (let k = 0; k < mesh.indices.length; k += 3) {
    const a = at(mesh.indices[k]);
    const n = cross3(sub3(at(mesh.indices[k + 1]), a), sub3(at(mesh.indices[k + 2]), a));
    sum += Math.sqrt(dot3(n, n)) / 2;
  }
  return sum;
}
