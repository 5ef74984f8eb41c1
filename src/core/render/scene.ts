import { hiddenIn } from '../project/things';
import { blackBody, hexToLinear, toLinear, type Rgb } from '../finishes/colour';
import { isPlain, type Finish, type Texture } from '../finishes/finish';
import { normalMap } from '../finishes/texture';
import { transformPoint, type Matrix, type Mesh } from '../geometry/mesh';
import { cross3, dot3, sub3, type Vec3 } from '../geometry/vec';
import type { Daylight } from '../light/daylight';
import { placesOf, type Pane, type Part } from '../model/body';
import type { Model } from '../model/model';
import { traitsOf } from '../model/sorts';
import type { Lamp } from '../project/schema';

/** A finish as the tracer needs it. Colours are linear. */
export interface Material {
  name: string;
  colour: Rgb;
  roughness: number;
  metalness: number;
  /** Thin clear sheet: light goes straight through, tinted. */
  pane: boolean;
  /** Solid glass: light is bent. */
  solid: boolean;
  translucency: number;
  /** Light caught by fibres at a grazing angle, 0…1. */
  sheen: number;
  /** Share of the surface that is there. */
  opacity: number;
  ior: number;
  /** Luminance it gives off, cd/m²; null for everything that does not glow. */
  emission: Rgb | null;
  lamp: number;
  texture: {
    width: number;
    height: number;
    pixels: Float32Array;
    normals: Int8Array | null;
    rough: Uint8Array | null;
    size: { width: number; height: number };
  } | null;
}

/** A luminaire: glowing triangles that can be aimed at. */
export interface AreaLight {
  triangles: Uint32Array;
  /** Cumulative share of area, the last one 1. */
  cumulative: Float32Array;
  area: number;
  centre: Vec3;
  emission: Rgb;
  /** Luminous flux, lumen. */
  flux: number;
}

/** A rectangle of glass in the outer wall, through which the sky is seen. */
export interface Portal {
  corner: Vec3;
  along: Vec3;
  up: Vec3;
  normal: Vec3;
  area: number;
  centre: Vec3;
  /** What the pane lets through at normal incidence. */
  tint: Rgb;
  ior: number;
}

export interface Camera {
  eye: Vec3;
  target: Vec3;
  /** Vertical field of view, radians. */
  fov: number;
}

/** Shadow rays are stopped; they pass, for the list of panes has taken its part; or they are followed and dimmed: loose weaves, glass of pieces. */
export const SHADOW = { blocked: 0, passes: 1, dimmed: 2 } as const;

/** Everything the tracer needs, flat. */
export interface Scene {
  positions: Float32Array;
  normals: Float32Array;
  uvs: Float32Array;
  material: Uint16Array;
  /** What shadow rays do at a triangle: `SHADOW`. */
  seeThrough: Uint8Array;
  materials: Material[];
  lights: AreaLight[];
  portals: Portal[];
  /** All panes shadow rays pass through, portals or not. */
  panes: Portal[];
  daylight: Pick<Daylight, 'sun' | 'sunIlluminance' | 'sky'> | null;
}

/** Gathers triangles and materials into a scene. */
export class SceneBuilder {
  private readonly p: number[] = [];
  private readonly n: number[] = [];
  private readonly t: number[] = [];
  private readonly m: number[] = [];
  private readonly s: number[] = [];
  readonly materials: Material[] = [];
  readonly lights: AreaLight[] = [];
  readonly portals: Portal[] = [];
  readonly panes: Portal[] = [];

  material(material: Material): number {
    return this.materials.push(material) - 1;
  }

  /** Adds a mesh. @param seeThrough a pane of the list of panes, where shadow rays lose their part without meeting it */
  mesh(mesh: Mesh, matrix: Matrix, material: number, seeThrough = false): { first: number; count: number } {
    const first = this.m.length;
    const { opacity, pane } = this.materials[material];
    for (const index of mesh.indices) {
      const at = { x: mesh.positions[index * 3], y: mesh.positions[index * 3 + 1], z: mesh.positions[index * 3 + 2] };
      const q = transformPoint(matrix, at);
      const [nx, ny, nz] = [mesh.normals[index * 3], mesh.normals[index * 3 + 1], mesh.normals[index * 3 + 2]];
      this.p.push(q.x, q.y, q.z);
      this.n.push(
        matrix[0] * nx + matrix[4] * ny + matrix[8] * nz,
        matrix[1] * nx + matrix[5] * ny + matrix[9] * nz,
        matrix[2] * nx + matrix[6] * ny + matrix[10] * nz,
      );
      this.t.push(mesh.uvs[index * 2], mesh.uvs[index * 2 + 1]);
    }
    for (let k = 0; k < mesh.indices.length; k += 3) {
      this.m.push(material);
      this.s.push(seeThrough ? SHADOW.passes : opacity < 1 || pane ? SHADOW.dimmed : SHADOW.blocked);
    }
    return { first, count: this.m.length - first };
  }

  /** Makes triangles already added into a light that can be aimed at. */
  light(first: number, count: number, emission: Rgb, flux: number): void {
    const triangles = Uint32Array.from({ length: count }, (_, i) => first + i);
    const cumulative = new Float32Array(count);
    const centre = { x: 0, y: 0, z: 0 };
    let area = 0;
    for (let i = 0; i < count; i++) {
      const at = (c: number): Vec3 => {
        const k = (first + i) * 9 + c * 3;
        return { x: this.p[k], y: this.p[k + 1], z: this.p[k + 2] };
      };
      const [a, b, c] = [at(0), at(1), at(2)];
      const n = cross3(sub3(b, a), sub3(c, a));
      const own = Math.hypot(n.x, n.y, n.z) / 2;
      area += own;
      cumulative[i] = area;
      for (const axis of ['x', 'y', 'z'] as const) centre[axis] += ((a[axis] + b[axis] + c[axis]) / 3) * own;
    }
    for (let i = 0; i < count; i++) cumulative[i] /= area;
    for (const axis of ['x', 'y', 'z'] as const) centre[axis] /= area;
    this.lights.push({ triangles, cumulative, area, centre, emission, flux });
  }

  build(daylight: Scene['daylight']): Scene {
    return {
      positions: Float32Array.from(this.p),
      normals: Float32Array.from(this.n),
      uvs: Float32Array.from(this.t),
      material: Uint16Array.from(this.m),
      seeThrough: Uint8Array.from(this.s),
      materials: this.materials,
      lights: this.lights,
      portals: this.portals,
      panes: this.panes,
      daylight,
    };
  }
}

/** A plain diffuse material, for tests and helpers. */
export const diffuse = (colour: Rgb): Material => ({
  name: 'diffuse',
  colour,
  roughness: 1,
  metalness: 0,
  pane: false,
  solid: false,
  translucency: 0,
  sheen: 0,
  opacity: 1,
  ior: 1.5,
  emission: null,
  lamp: -1,
  texture: null,
});

/** Roughness from which glass is no longer looked through. */
export const FROSTED = 0.2;

/** A finish with its texture as a material. */
export function materialOf(finish: Finish, texture: Texture | null): Material {
  const table = new Float32Array(256).map((_, i) => toLinear(i / 255));
  let pixels: Float32Array | null = null;
  let normals: Int8Array | null = null;
  if (texture && !isPlain(finish)) {
    const count = texture.width * texture.height;
    pixels = new Float32Array(count * 3);
    for (let i = 0; i < count; i++) for (let c = 0; c < 3; c++) pixels[i * 3 + c] = table[texture.colour[i * 4 + c]];
    const map = normalMap(texture);
    if (map) {
      normals = new Int8Array(count * 2);
      for (let i = 0; i < count; i++) {
        normals[i * 2] = Math.round(map[i * 4] - 127.5);
        normals[i * 2 + 1] = Math.round(map[i * 4 + 1] - 127.5);
      }
    }
  }
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
    emission: null,
    lamp: -1,
    texture: pixels ? { width: texture!.width, height: texture!.height, pixels, normals, rough: texture!.rough, size: texture!.size } : null,
  };
}

export interface SceneInput {
  model: Model;
  texture(finish: Finish): Texture | null;
  daylight: Daylight | null;
}

/** The whole project as the tracer sees it. */
export function compileScene({ model, texture, daylight }: SceneInput): Scene {
  const builder = new SceneBuilder();
  const known = new Map<Finish, number>();
  const use = (finish: Finish): number => {
    let index = known.get(finish);
    if (index === undefined) known.set(finish, (index = builder.material(materialOf(finish, texture(finish)))));
    return index;
  };
  const hidden = hiddenIn(model.project);
  const gone = (id: string | null | undefined): boolean => Boolean(id) && hidden.has(id!);
  for (const body of model.bodies) {
    if (gone(body.id) || gone(body.level)) continue;
    for (const part of body.parts) {
      if (gone(part.level)) continue;
      const places = placesOf(body, part);
      if (part.lamp) addLamp(builder, part, part.lamp, places);
      else {
        const index = use(part.laid);
        const material = builder.materials[index];
        const passes = Boolean(traitsOf(part.sort).glazed) && material.pane;
        for (const place of places) builder.mesh(part.fine?.() ?? part.mesh, place, index, passes);
        if (!material.pane) continue;
        for (const pane of part.panes ?? []) {
          const portal = portalOf(pane, material.colour, material.ior);
          builder.portals.push(portal);
          builder.panes.push(portal);
        }
      }
    }
  }
  return builder.build(daylight);
}

/** What glows of a luminaire: its flux spread evenly over it; dark where the luminaire is off. */
function addLamp(builder: SceneBuilder, { mesh: plain, fine, laid }: Part, lamp: Lamp, places: readonly Matrix[]): void {
  const mesh = fine?.() ?? plain;
  const area = places.reduce((sum, place) => sum + worldArea(mesh, place), 0);
  const colour = blackBody(lamp.kelvin);
  const l = lamp.on ? lamp.lumen / (Math.PI * area) : 0;
  const emission: Rgb = [colour[0] * l, colour[1] * l, colour[2] * l];
  const index = builder.material({ ...materialOf(laid, null), emission: l > 0 ? emission : null, lamp: l > 0 ? builder.lights.length : -1 });
  const added = places.map((place) => builder.mesh(mesh, place, index));
  if (l > 0)
    builder.light(
      added[0].first,
      added.reduce((sum, a) => sum + a.count, 0),
      emission,
      lamp.lumen,
    );
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
