import { toLinear } from '../finishes/colour';
import { cross3, unit3, type Vec3 } from '../geometry/vec';
import { SUN_RADIUS } from '../light/daylight';
import type { Scenery } from '../light/surroundings';
import { microfacetAlbedos, sheenAlbedo } from './bsdf';
import { buildHierarchy } from './bvh';
import type { LightGroup, MaterialTexture, Portal, Scene } from './scene';

/**
 * A scene laid out as the kernel reads it (kernel/assembly/scene.ts). It is plain data: made once, it is handed to all who trace.
 */
export interface PreparedScene {
  nodes: ArrayBuffer;
  leaves: ArrayBuffer;
  instances: ArrayBuffer;
  /** 32 words a triangle. */
  triangles: Float32Array;
  /** 32 words a material; words 16 and 19 are numbers of textures, put in place by the kernel’s memory. */
  materials: Float32Array;
  textures: Uint8Array[];
  lampGroups: Float32Array;
  /** 8 words a luminaire; word 5 is the first of its triangles in `lampTriangles`. */
  lamps: Float32Array;
  /** 16 words each. */
  lampTriangles: Float32Array;
  portalGroups: Float32Array;
  portals: Float32Array;
  paneGroups: Float32Array;
  /** Four words a place of the octahedron; null without a sky. */
  sky: Float32Array | null;
  sun: Float32Array;
  /** 24 words; null without a picture of what lies beyond the site. The first word is put in place by the kernel’s memory. */
  beyond: { table: Float32Array; pixels: Uint8Array } | null;
  /** What an eye indoors sees outside is shown so many times as bright as it is. */
  outside: number;
  counts: { lamps: number; portals: number; panes: number };
  sunUp: boolean;
  groups: LightGroup[];
  /** What objects are called: number 1 is the first. */
  names: string[];
}

/** Places along an edge of the octahedral table of the sky. */
export const SKY_SIZE = 257;

const FLAG = { pane: 1, solid: 2, textured: 4, rough: 8, slopes: 16, glows: 32, open: 64 } as const;
const UNSEEN = 1 << 26;

/** What of a prepared scene goes without textures: the hierarchy, what each triangle needs, the table of the sky. */
export type PreparedShape = Pick<PreparedScene, 'nodes' | 'leaves' | 'instances' | 'triangles' | 'sky'>;

export function prepareShape(scene: Scene): PreparedShape {
  const { nodes, leaves, instances } = buildHierarchy(scene.positions, scene.seeThrough, scene.shared);
  const words = new Int32Array(instances);
  scene.shared.flatMap((s) => s.objects).forEach((object, i) => (words[i * 32 + 25] = object));
  return { nodes, leaves, instances, triangles: triangleTable(scene), sky: scene.daylight && skyTable(scene.daylight.sky) };
}

/** Lays a scene out for the kernel. @param shape what has been worked out of it before */
export function prepareScene(scene: Scene, shape = prepareShape(scene)): PreparedScene {
  const textures: Uint8Array[] = [];
  const materials = materialTable(scene, textures);
  const lampTriangles: number[] = [];
  const lamps = new Float32Array(Math.max(1, scene.lights.length) * 8);
  const lampWords = new Int32Array(lamps.buffer);
  const lampGroups = new Float32Array(fours(scene.lights.length) * 16);
  scene.lights.forEach((light, i) => {
    const g = (i >> 2) * 16 + (i & 3);
    [lampGroups[g], lampGroups[g + 4], lampGroups[g + 8], lampGroups[g + 12]] = [light.centre.x, light.centre.y, light.centre.z, light.flux];
    lamps.set([...light.emission, light.area], i * 8);
    lampWords.set([light.triangles.length, lampTriangles.length / 16, light.group], i * 8 + 4);
    light.triangles.forEach((t, k) => {
      const { first, e1, e2, normal } = triangleOf(scene.positions, t);
      lampTriangles.push(...first, light.cumulative[k], ...e1, 0, ...e2, 0, ...normal, 0);
    });
  });
  const portals = new Float32Array(Math.max(1, scene.portals.length) * 12);
  scene.portals.forEach(({ corner, along, up }, i) => {
    portals.set([corner.x, corner.y, corner.z, 0, along.x, along.y, along.z, 0, up.x, up.y, up.z, 0], i * 12);
  });
  return {
    ...shape,
    materials,
    textures,
    lampGroups,
    lamps,
    lampTriangles: Float32Array.from(lampTriangles),
    portalGroups: rectangles(scene.portals, ({ centre, area }) => [centre.x, centre.y, centre.z, area]),
    portals,
    paneGroups: rectangles(scene.panes, ({ tint, ior }) => [...tint, ior]),
    sun: sunTable(scene),
    beyond: scene.beyond && { table: beyondTable(scene.beyond), pixels: scene.beyond.pixels.rgbe },
    outside: scene.outside,
    counts: { lamps: scene.lights.length, portals: scene.portals.length, panes: scene.panes.length },
    sunUp: Boolean(scene.daylight && scene.daylight.sunIlluminance[1] > 0),
    // What the eye sees through an opening is a group of its own.
    groups: [...scene.groups, OUTSIDE],
    names: scene.names,
  };
}

const OUTSIDE: LightGroup = { name: 'Seen outside', kelvin: 6000 };

const fours = (n: number): number => Math.max(1, Math.ceil(n / 4));

function triangleOf(p: Float32Array, t: number): { first: number[]; e1: number[]; e2: number[]; normal: number[] } {
  const k = t * 9;
  const first = [p[k], p[k + 1], p[k + 2]];
  const e1 = [p[k + 3] - p[k], p[k + 4] - p[k + 1], p[k + 5] - p[k + 2]];
  const e2 = [p[k + 6] - p[k], p[k + 7] - p[k + 1], p[k + 8] - p[k + 2]];
  const n = [e1[1] * e2[2] - e1[2] * e2[1], e1[2] * e2[0] - e1[0] * e2[2], e1[0] * e2[1] - e1[1] * e2[0]];
  const l = Math.hypot(n[0], n[1], n[2]) || 1;
  return { first, e1, e2, normal: n.map((v) => v / l) };
}

function triangleTable({ positions: p, normals, uvs: s, material, seeThrough, unseen, object }: Scene): Float32Array {
  const count = material.length;
  const out = new Float32Array(count * 32);
  const words = new Int32Array(out.buffer);
  for (let t = 0; t < count; t++) {
    const o = t * 32;
    const k = t * 9;
    const m = t * 6;
    const e1x = p[k + 3] - p[k];
    const e1y = p[k + 4] - p[k + 1];
    const e1z = p[k + 5] - p[k + 2];
    const e2x = p[k + 6] - p[k];
    const e2y = p[k + 7] - p[k + 1];
    const e2z = p[k + 8] - p[k + 2];
    const nx = e1y * e2z - e1z * e2y;
    const ny = e1z * e2x - e1x * e2z;
    const nz = e1x * e2y - e1y * e2x;
    const l = 1 / (Math.sqrt(nx * nx + ny * ny + nz * nz) || 1);
    out[o] = nx * l;
    out[o + 1] = ny * l;
    out[o + 2] = nz * l;
    words[o + 3] = material[t] | (seeThrough[t] << 24) | (unseen[t] ? UNSEEN : 0);
    words[o + 25] = object[t];
    for (let i = 0; i < 9; i++) out[o + 4 + i] = normals[k + i];
    for (let i = 0; i < 6; i++) out[o + 13 + i] = s[m + i];
    // Directions along growing u and v, from the triangle's own parametrisation.
    const du1 = s[m + 2] - s[m];
    const dv1 = s[m + 3] - s[m + 1];
    const du2 = s[m + 4] - s[m];
    const dv2 = s[m + 5] - s[m + 1];
    const det = du1 * dv2 - du2 * dv1;
    if (Math.abs(det) <= 1e-12) continue;
    const f = 1 / det;
    const ux = f * (dv2 * e1x - dv1 * e2x);
    const uy = f * (dv2 * e1y - dv1 * e2y);
    const uz = f * (dv2 * e1z - dv1 * e2z);
    const wx = f * (du1 * e2x - du2 * e1x);
    const wy = f * (du1 * e2y - du2 * e1y);
    const wz = f * (du1 * e2z - du2 * e1z);
    const [ul, wl] = [Math.sqrt(ux * ux + uy * uy + uz * uz), Math.sqrt(wx * wx + wy * wy + wz * wz)];
    if (!(ul > 0) || !(wl > 0)) continue;
    out[o + 19] = ux / ul;
    out[o + 20] = uy / ul;
    out[o + 21] = uz / ul;
    out[o + 22] = wx / wl;
    out[o + 23] = wy / wl;
    out[o + 24] = wz / wl;
  }
  return out;
}

function materialTable(scene: Scene, textures: Uint8Array[]): Float32Array {
  const out = new Float32Array(scene.materials.length * 32);
  const words = new Int32Array(out.buffer);
  const known = new Map<MaterialTexture, [number, number]>();
  scene.materials.forEach((m, i) => {
    const k = i * 32;
    const t = m.texture;
    out.set([...m.colour, m.roughness, m.metalness, m.ior, m.opacity, m.translucency, m.sheen, ((m.ior - 1) / (m.ior + 1)) ** 2], k);
    words[k + 10] =
      (m.pane ? FLAG.pane : 0) |
      (m.solid ? FLAG.solid : 0) |
      (t ? FLAG.textured : 0) |
      (t?.rough ? FLAG.rough : 0) |
      (t?.normals ? FLAG.slopes : 0) |
      (m.emission ? FLAG.glows : 0) |
      (t && m.open ? FLAG.open : 0);
    words[k + 11] = m.lamp;
    if (m.emission) out.set(m.emission, k + 12);
    out[k + 15] = Math.max(...m.colour);
    out[k + 20] = m.coat;
    out[k + 23] = m.coatRoughness;
    out[k + 24] = m.anisotropy;
    words[k + 25] = m.group;
    words[k + 16] = -1;
    words[k + 19] = -1;
    if (!t) return;
    let at = known.get(t);
    if (!at) {
      at = [textures.push(t.colour) - 1, t.detail ? textures.push(t.detail) - 1 : -1];
      known.set(t, at);
    }
    words[k + 16] = at[0];
    words[k + 17] = t.width;
    words[k + 18] = t.height;
    words[k + 19] = at[1];
    out[k + 21] = 1 / t.size.width;
    out[k + 22] = 1 / t.size.height;
  });
  return out;
}

/** Rectangles in groups of four, number by number. */
function rectangles(list: readonly Portal[], own: (p: Portal) => readonly number[]): Float32Array {
  const out = new Float32Array(fours(list.length) * 64);
  list.forEach((r, i) => {
    const g = (i >> 2) * 64 + (i & 3);
    const scaled = (v: Vec3): number[] => {
      const l2 = v.x ** 2 + v.y ** 2 + v.z ** 2;
      return [v.x / l2, v.y / l2, v.z / l2];
    };
    const numbers = [r.corner.x, r.corner.y, r.corner.z, r.normal.x, r.normal.y, r.normal.z, ...own(r), ...scaled(r.along), ...scaled(r.up)];
    numbers.forEach((v, k) => (out[g + k * 4] = v));
  });
  return out;
}

/** The sky over the octahedron |x| + |y| + |z| = 1, unfolded to a square (Praun and Hoppe 2003). */
function skyTable(sky: (d: Vec3) => readonly number[]): Float32Array {
  const n = SKY_SIZE;
  const out = new Float32Array(n * n * 4);
  for (let j = 0; j < n; j++)
    for (let i = 0; i < n; i++) {
      let u = (i / (n - 1)) * 2 - 1;
      let v = (j / (n - 1)) * 2 - 1;
      const z = 1 - Math.abs(u) - Math.abs(v);
      if (z < 0) [u, v] = [(1 - Math.abs(v)) * (u < 0 ? -1 : 1), (1 - Math.abs(u)) * (v < 0 ? -1 : 1)];
      out.set(sky(unit3({ x: u, y: v, z })) as number[], (j * n + i) * 4);
    }
  return out;
}

/** The sun, two directions across its disc, and its light. */
function sunTable({ daylight }: Scene): Float32Array {
  const out = new Float32Array(32);
  const sun = daylight?.sun ?? { x: 0, y: 0, z: 1 };
  const along = unit3(Math.abs(sun.z) < 0.9 ? cross3(sun, { x: 0, y: 0, z: 1 }) : cross3(sun, { x: 1, y: 0, z: 0 }));
  const across = cross3(sun, along);
  [sun, along, across].forEach((d, i) => out.set([d.x, d.y, d.z], i * 4));
  out.set([SUN_RADIUS, Math.cos(SUN_RADIUS), 1 / (Math.PI * SUN_RADIUS * SUN_RADIUS)], 12);
  out.set(daylight?.sunIlluminance ?? [0, 0, 0], 16);
  return out;
}

/** The picture of what lies beyond, as kernel/assembly/beyond.ts reads it. */
function beyondTable({ settings, pixels, axes, foot, height, scale }: Scenery): Float32Array {
  const out = new Float32Array(24);
  new Int32Array(out.buffer).set([0, pixels.width, pixels.height, settings.lie === 'flat' ? 1 : 0]);
  axes.forEach((d, i) => out.set([d.x, d.y, d.z], 4 + i * 4));
  out.set([foot.x, foot.y, foot.z, 1 / settings.width, 1 / height, scale], 16);
  return out;
}

let tables: { linear: Float32Array; sheens: Float32Array; albedos: Float32Array } | null = null;

/** Tables that are the same for every scene: sRGB to linear, albedos of fibres and of microfacets. */
export function kernelTables(): { linear: Float32Array; sheens: Float32Array; albedos: Float32Array } {
  return (tables ??= {
    linear: Float32Array.from({ length: 256 }, (_, i) => toLinear(i / 255)),
    sheens: Float32Array.from({ length: 65 }, (_, i) => sheenAlbedo(i / 64)),
    albedos: microfacetAlbedos(),
  });
}
