import { type Rgb } from '../finishes/colour';
import { type Finish } from '../finishes/finish';
import { IDENTITY, type Matrix, type Mesh } from '../geometry/mesh';
import { cross3, sub3, type Vec3 } from '../geometry/vec';
import type { Daylight } from '../light/daylight';
import type { Scenery } from '../light/surroundings';

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
  /** Share of the surface under a clear coat (varnish, lacquer, glaze), and how rough the coat is. */
  coat: number;
  coatRoughness: number;
  /** How far a grain stretches what it reflects: 0 evenly, up to 1 across lines along growing u, down to −1 along them. */
  anisotropy: number;
  /** Whether its texture says where it is open. */
  open: boolean;
  /** Luminance it gives off, cd/m²; null for everything that does not glow. */
  emission: Rgb | null;
  lamp: number;
  /** Number of the light group that what it gives off counts to. */
  group: number;
  texture: MaterialTexture | null;
}

/** Pixels of a finish as the tracer has them. */
export interface MaterialTexture {
  width: number;
  height: number;
  /** RGBA, 8 bits, sRGB; nothing in A. */
  colour: Uint8Array;
  /** Four bytes a pixel: the normal's parts along u and v (signed, 127.5 for 1), perceptual roughness, nothing; null where both are even. */
  detail: Uint8Array | null;
  /** Whether the detail has normals, and roughness. */
  normals: boolean;
  rough: boolean;
  size: { width: number; height: number };
}

/** A part of the light of a picture that can be changed by itself afterwards. */
export interface LightGroup {
  name: string;
  /** Colour temperature of its light, about, K. */
  kelvin: number;
}

/** Numbers of the light groups every picture has; luminaires follow. */
export const LIGHT_GROUPS = { sun: 0, sky: 1, lamps: 2 } as const;

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
  group: number;
}

/** Triangles, given in the space of their mesh, that stand in several places. */
export interface Shared {
  first: number;
  count: number;
  places: readonly Matrix[];
  /** The object that stands in each place. */
  objects: readonly number[];
}

/** A rectangle in the outer wall, of glass or open, through which the sky is seen. */
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
  /** 1 for triangles that the eye passes: they are left out of the picture, not of the light. */
  unseen: Uint8Array;
  /** Which object each triangle is of: 1 for the first of `names`, 0 for none. */
  object: Uint16Array;
  /** What objects are called. */
  names: string[];
  /** Runs of triangles that stand in several places; all others stand where they are. */
  shared: Shared[];
  materials: Material[];
  /** The finish each material is of; null for one that has no texture to come. */
  sources: (Finish | null)[];
  lights: AreaLight[];
  portals: Portal[];
  /** All panes shadow rays pass through, portals or not. */
  panes: Portal[];
  daylight: Pick<Daylight, 'sun' | 'sunIlluminance' | 'sky'> | null;
  /** The picture of what lies beyond the site, as the eye sees it. */
  beyond: Scenery | null;
  /** What an eye indoors sees outside is shown so many times as bright as it is. */
  outside: number;
  /** The light groups: the sun, the sky, then groups of luminaires. */
  groups: LightGroup[];
}

/** A list of numbers that grows by doubling. */
class Growing<T extends Float32Array | Uint16Array | Uint8Array> {
  length = 0;
  constructor(
    public data: T,
    private readonly make: (n: number) => T,
  ) {}
  /** Makes room for so many more; returns where they go. */
  more(n: number): number {
    const at = this.length;
    this.length += n;
    if (this.length > this.data.length) {
      const next = this.make(Math.max(this.length, this.data.length * 2));
      next.set(this.data.subarray(0, at) as never);
      this.data = next;
    }
    return at;
  }
  /** Adds one value so many times. */
  fill(value: number, n: number): void {
    // Room is made first: it may be made elsewhere.
    const at = this.more(n);
    this.data.fill(value, at, at + n);
  }
  done(): T {
    return this.data.slice(0, this.length) as T;
  }
}
const floats = (): Growing<Float32Array> => new Growing(new Float32Array(4096), (n) => new Float32Array(n));
const bytes = (): Growing<Uint8Array> => new Growing(new Uint8Array(4096), (n) => new Uint8Array(n));

/** Gathers triangles and materials into a scene. */
export class SceneBuilder {
  private readonly p = floats();
  private readonly n = floats();
  private readonly t = floats();
  private readonly m = new Growing(new Uint16Array(4096), (n) => new Uint16Array(n));
  private readonly s = bytes();
  private readonly e = bytes();
  private readonly o = new Growing(new Uint16Array(4096), (n) => new Uint16Array(n));
  private readonly names: string[] = [];
  private readonly shared: Shared[] = [];
  readonly materials: Material[] = [];
  private readonly sources: (Finish | null)[] = [];
  readonly lights: AreaLight[] = [];
  readonly portals: Portal[] = [];
  readonly panes: Portal[] = [];
  readonly groups: LightGroup[] = [
    { name: 'Sun', kelvin: 5300 },
    { name: 'Sky', kelvin: 7000 },
  ];

  /** @param source the finish whose texture it gets by `texture`, where it gets one */
  material(material: Material, source: Finish | null = null): number {
    this.sources.push(source);
    return this.materials.push(material) - 1;
  }

  /** The number of an object of a name; another one each time. */
  object(name: string): number {
    return this.names.push(name);
  }

  /** The number of a group of luminaires. */
  group(name: string, kelvin: number): number {
    const at = this.groups.findIndex((g, i) => i >= LIGHT_GROUPS.lamps && g.name === name);
    return at < 0 ? this.groups.push({ name, kelvin }) - 1 : at;
  }

  /**
   * Adds a mesh.
   *
   * @param seeThrough a pane of the list of panes, where shadow rays lose their part without meeting it
   * @param unseen left out of the picture, though not of the light
   * @param object by `object`
   */
  mesh(mesh: Mesh, matrix: Matrix, material: number, seeThrough = false, unseen = false, object = 0): { first: number; count: number } {
    const { positions, normals, uvs, indices } = mesh;
    const first = this.m.length;
    const count = indices.length / 3;
    const { opacity, pane, open } = this.materials[material];
    let [p, n, t] = [this.p.more(count * 9), this.n.more(count * 9), this.t.more(count * 6)];
    const m = matrix;
    // A mirrored mesh is turned inside out: its corners are taken the other way round.
    const det = m[0] * (m[5] * m[10] - m[6] * m[9]) - m[4] * (m[1] * m[10] - m[2] * m[9]) + m[8] * (m[1] * m[6] - m[2] * m[5]);
    const [second, third] = det < 0 ? [2, 1] : [1, 2];
    for (let k = 0; k < indices.length; k += 3)
      for (let corner = 0; corner < 3; corner++) {
        const index = indices[k + (corner === 1 ? second : corner === 2 ? third : 0)];
        const [x, y, z] = [positions[index * 3], positions[index * 3 + 1], positions[index * 3 + 2]];
        const [nx, ny, nz] = [normals[index * 3], normals[index * 3 + 1], normals[index * 3 + 2]];
        for (let axis = 0; axis < 3; axis++) {
          this.p.data[p++] = m[axis] * x + m[axis + 4] * y + m[axis + 8] * z + m[axis + 12];
          this.n.data[n++] = m[axis] * nx + m[axis + 4] * ny + m[axis + 8] * nz;
        }
        this.t.data[t++] = uvs[index * 2];
        this.t.data[t++] = uvs[index * 2 + 1];
      }
    this.m.fill(material, count);
    this.s.fill(seeThrough ? SHADOW.passes : opacity < 1 || pane || open ? SHADOW.dimmed : SHADOW.blocked, count);
    this.e.fill(unseen ? 1 : 0, count);
    this.o.fill(object, count);
    return { first, count };
  }

  /** Adds a mesh that stands in several places; it is kept once. */
  share(mesh: Mesh, places: readonly Matrix[], material: number, unseen = false, objects: readonly number[] = places.map(() => 0)): void {
    this.shared.push({ ...this.mesh(mesh, IDENTITY, material, false, unseen), places, objects });
  }

  /** Makes triangles already added into a light that can be aimed at. */
  light(first: number, count: number, emission: Rgb, flux: number, group: number = LIGHT_GROUPS.lamps): void {
    if (group >= this.groups.length) this.group('Lamps', 3000);
    const triangles = Uint32Array.from({ length: count }, (_, i) => first + i);
    const cumulative = new Float32Array(count);
    const centre = { x: 0, y: 0, z: 0 };
    let area = 0;
    for (let i = 0; i < count; i++) {
      const at = (c: number): Vec3 => {
        const k = (first + i) * 9 + c * 3;
        return { x: this.p.data[k], y: this.p.data[k + 1], z: this.p.data[k + 2] };
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
    this.lights.push({ triangles, cumulative, area, centre, emission, flux, group });
  }

  build(daylight: Scene['daylight']): Scene {
    return {
      positions: this.p.done(),
      normals: this.n.done(),
      uvs: this.t.done(),
      material: this.m.done(),
      seeThrough: this.s.done(),
      unseen: this.e.done(),
      object: this.o.done(),
      names: this.names,
      shared: this.shared,
      materials: this.materials,
      sources: this.sources,
      lights: this.lights,
      portals: this.portals,
      panes: this.panes,
      daylight,
      beyond: null,
      outside: 1,
      groups: this.groups,
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
  coat: 0,
  coatRoughness: 0.05,
  anisotropy: 0,
  open: false,
  emission: null,
  lamp: -1,
  group: LIGHT_GROUPS.sky,
  texture: null,
});
