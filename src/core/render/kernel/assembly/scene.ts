// What the tracer works on, in linear memory. All places are told once, by `configure`; nothing here is written while paths run.
//
// Triangle, 128 bytes: 0 normal of its plane; 12 material, with what shadow rays do in bits 24 and 25 and, in bit 26, whether
//   the eye passes it; 16 three normals; 52 three texture coordinates; 76 direction of growing u; 88 of growing v (zero where
//   there is none); 100 the object it is of.
// Instance, 128 bytes: 0 three rows of the matrix to its mesh (12 numbers), 48 three rows back, 96 the root of its mesh, 100 its object.
// Material, 128 bytes: 0 colour; 12 roughness; 16 metalness; 20 index of refraction; 24 opacity; 28 translucency; 32 sheen;
//   36 reflectance at normal incidence; 40 flags; 44 luminaire or −1; 48 emission; 60 brightest channel of the colour;
//   64 texture, 68 its width, 72 its height, 76 its details; 80 coat; 84, 88 texture coordinates to one repeat; 92 roughness
//   of the coat; 96 anisotropy, −1…1; 100 light group.
// Texture: four bytes a pixel, colour as sRGB and how much of it is matter; its details: slope along u and v (signed), roughness, a spare one.
// Luminaires, portals and panes lie in groups of four, number by number, so that four are worked on at once:
//   luminaire group, 64 bytes: x, y, z of the centre, flux;
//   rectangle group, 256 bytes: corner, normal, (portal: centre; pane: tint), (area; index), along and up over their squared lengths.
// Luminaire, 32 bytes: emission, area, triangles, their list, light group. A triangle of it, 64 bytes: corner, cumulative share
//   of the area, two edges, normal. Portal, 48 bytes: corner, along, up.

export let nodes: usize = 0;
export let leaves: usize = 0;
export let instances: usize = 0;
export let triangles: usize = 0;
export let materials: usize = 0;
export let lampGroups: usize = 0;
export let lamps: usize = 0;
export let portalGroups: usize = 0;
export let portals: usize = 0;
export let paneGroups: usize = 0;
export let sky: usize = 0;
export let linear: usize = 0;
export let sheens: usize = 0;
export let albedos: usize = 0;
export let sun: usize = 0;
export let lampCount: i32 = 0;
export let portalCount: i32 = 0;
export let paneCount: i32 = 0;
export let skySize: i32 = 0;
export let sunUp: bool = false;
export let skyOpen: bool = false;
export let hasSky: bool = false;
export let groups: i32 = 0;
/** The picture of what lies beyond the site; nowhere without one. */
export let beyond: usize = 0;
/** What an eye indoors sees outside is shown so many times as bright as it is. */
export let outside: f32 = 1;

/** Memory for the caller, aligned to 16 bytes. */
export function alloc(bytes: u32): usize {
  return heap.alloc(bytes);
}

export function configureScene(p: usize): void {
  nodes = load<i32>(p);
  leaves = load<i32>(p, 4);
  instances = load<i32>(p, 8);
  triangles = load<i32>(p, 12);
  materials = load<i32>(p, 16);
  lampGroups = load<i32>(p, 20);
  lamps = load<i32>(p, 24);
  portalGroups = load<i32>(p, 28);
  portals = load<i32>(p, 32);
  paneGroups = load<i32>(p, 36);
  sky = load<i32>(p, 40);
  linear = load<i32>(p, 44);
  sheens = load<i32>(p, 48);
  albedos = load<i32>(p, 52);
  sun = load<i32>(p, 56);
  lampCount = load<i32>(p, 60);
  portalCount = load<i32>(p, 64);
  paneCount = load<i32>(p, 68);
  skySize = load<i32>(p, 72);
  sunUp = load<i32>(p, 76) != 0;
  hasSky = load<i32>(p, 80) != 0;
  skyOpen = hasSky && portalCount > 0;
  groups = load<i32>(p, 84);
  beyond = load<i32>(p, 88);
  outside = load<f32>(p, 92);
}

export const PANE: i32 = 1;
export const SOLID: i32 = 2;
export const TEXTURED: i32 = 4;
export const ROUGHED: i32 = 8;
export const SLOPED: i32 = 16;
export const GLOWS: i32 = 32;
/** The spare byte of its texture says how far it is open. */
export const OPEN: i32 = 64;

/** What shadow rays do at a triangle. */
export const DIMMED: i32 = 2;
export const UNSEEN: i32 = 1 << 26;
