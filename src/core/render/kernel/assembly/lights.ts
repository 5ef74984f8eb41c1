// Where light comes from, aimed at: the sun's disc, the sky behind openings, luminaires. Each `aim…` draws a direction and leaves
// it with the light that would arrive along it; the densities tell how likely a direction was to be drawn, for weighing against
// scattered rays (Veach 1997). Which opening and which luminaire is drawn goes by what each can give and by whether it can be
// seen at all from thereabouts: a table, filled cell by cell as paths come by, of rays from the cell that reached it.
import { blocked } from './hierarchy';
import { hasSky, lampCount, lampGroups, lamps, portalCount, portalGroups, portals, sky, skySize, sun } from './scene';
import { hash, pair, second, single } from './sampler';
import { turn, turnedCos, turnedSin } from './surface';

export const EPS: f32 = 1e-4;

/** The direction drawn last, how far its light is, and the light: cd/m², the sun's as lux. */
export let dx: f32 = 0;
export let dy: f32 = 0;
export let dz: f32 = 0;
export let far: f32 = 0;
export let lr: f32 = 0;
export let lg: f32 = 0;
export let lb: f32 = 0;
/** Density it was drawn with, of luminaires. */
export let drawn: f32 = 0;
/** The point of the luminaire that is aimed at, a little before it. */
export let px: f32 = 0;
export let py: f32 = 0;
export let pz: f32 = 0;
/** Whether the light is a point near by: wherever a ray to it sets out from, it goes there. */
export let near: bool = false;
/** What it is, for remembering what blocks it: 0 the sun, then openings, then luminaires; and its light group. */
export let kind: i32 = 0;
export let group: i32 = 0;
/** Colour of the sky looked up last. */
export let skyR: f32 = 0;
export let skyG: f32 = 0;
export let skyB: f32 = 0;

export const SUN_GROUP: i32 = 0;
export const SKY_GROUP: i32 = 1;

// ------------------------------------------------------------------ what can be seen from where
const CELLS_BITS: u32 = 14;
/** Cells a metre. */
const CELLS: f32 = 2;
const TRIES: i32 = 6;
/** The share of its weight that is left to what no ray has reached. */
const UNSEEN_SHARE: f32 = 0.04;
let cells: usize = 0;
let cellFloats: usize = 0;
let cellAt: usize = 0;
let portalWeights: usize = 0;
let lampWeights: usize = 0;
const PROBE: usize = memory.data(32, 16);

/** Makes room for the tables; the scene must be there. */
export function prepareLights(): void {
  const p = (<usize>(portalCount + 3) >> 2) << 2, l = (<usize>(lampCount + 3) >> 2) << 2;
  cellFloats = p + l;
  portalWeights = heap.alloc(max<usize>(16, p << 2));
  lampWeights = heap.alloc(max<usize>(16, l << 2));
  cells = heap.alloc(4 << CELLS_BITS);
  memory.fill(cells, 0, 4 << CELLS_BITS);
}

// A cell, in the heap: its three coordinates, the next of the same hash, then shares of openings and of luminaires.
function makeCell(ix: i32, iy: i32, iz: i32, slot: usize): usize {
  const cell = heap.alloc(16 + (cellFloats << 2));
  store<i32>(cell, ix);
  store<i32>(cell, iy, 4);
  store<i32>(cell, iz, 8);
  store<i32>(cell, load<i32>(slot), 12);
  store<i32>(slot, <i32>cell);
  const p = (portalCount + 3) >> 2 << 2;
  let random = hash((<u32>ix * 0x9e3779b1) ^ (<u32>iy * 0x85ebca77) ^ (<u32>iz * 0xc2b2ae3d));
  for (let k = 0; k < portalCount + lampCount; k++) {
    let seen = 0;
    for (let t = 0; t < TRIES && !seen; t++) {
      random = hash(random + 0x9e3779b9);
      const ox = (<f32>ix + <f32>(random & 1023) / 1023) / CELLS, oy = (<f32>iy + <f32>((random >>> 10) & 1023) / 1023) / CELLS;
      const oz = (<f32>iz + <f32>((random >>> 20) & 1023) / 1023) / CELLS;
      random = hash(random + 0x9e3779b9);
      const u = <f32>(random & 0xffff) / 65536, v = <f32>(random >>> 16) / 65536;
      let qx: f32, qy: f32, qz: f32;
      if (k < portalCount) {
        const a = portals + <usize>k * 48;
        qx = load<f32>(a) + load<f32>(a, 16) * u + load<f32>(a, 32) * v;
        qy = load<f32>(a, 4) + load<f32>(a, 20) * u + load<f32>(a, 36) * v;
        qz = load<f32>(a, 8) + load<f32>(a, 24) * u + load<f32>(a, 40) * v;
      } else {
        const a = lamps + (<usize>(k - portalCount) << 5);
        const c = <usize>load<i32>(a, 20) + (<usize>min<i32>(load<i32>(a, 16) - 1, <i32>(u * <f32>load<i32>(a, 16))) << 6);
        const s = v * <f32>0.5;
        qx = load<f32>(c) + load<f32>(c, 16) * s + load<f32>(c, 32) * s + load<f32>(c, 48) * EPS;
        qy = load<f32>(c, 4) + load<f32>(c, 20) * s + load<f32>(c, 36) * s + load<f32>(c, 52) * EPS;
        qz = load<f32>(c, 8) + load<f32>(c, 24) * s + load<f32>(c, 40) * s + load<f32>(c, 56) * EPS;
      }
      const x = qx - ox, y = qy - oy, z = qz - oz;
      const l = sqrt<f32>(x * x + y * y + z * z);
      if (l < 1e-3) {
        seen = 1;
        break;
      }
      store<f32>(PROBE, ox);
      store<f32>(PROBE, oy, 4);
      store<f32>(PROBE, oz, 8);
      store<f32>(PROBE, 0, 12);
      store<f32>(PROBE, x / l, 16);
      store<f32>(PROBE, y / l, 20);
      store<f32>(PROBE, z / l, 24);
      store<f32>(PROBE, l * <f32>0.999, 28);
      if (!blocked(PROBE)) seen = 1;
    }
    const at = k < portalCount ? k : p + k - portalCount;
    store<f32>(cell + 16 + (<usize>at << 2), seen ? <f32>1 : UNSEEN_SHARE);
  }
  return cell;
}

let lastX: i32 = 0x7fffffff;
let lastY: i32 = 0;
let lastZ: i32 = 0;
let lastCell: usize = 0;

function cellOf(x: f32, y: f32, z: f32): usize {
  const ix = <i32>floor(x * CELLS), iy = <i32>floor(y * CELLS), iz = <i32>floor(z * CELLS);
  if (ix == lastX && iy == lastY && iz == lastZ) return lastCell;
  lastX = ix;
  lastY = iy;
  lastZ = iz;
  lastCell = findCell(ix, iy, iz);
  return lastCell;
}

function findCell(ix: i32, iy: i32, iz: i32): usize {
  const slot = cells + (<usize>(hash((<u32>ix * 73856093) ^ (<u32>iy * 19349663) ^ (<u32>iz * 83492791)) & ((1 << CELLS_BITS) - 1)) << 2);
  let cell = <usize>load<i32>(slot);
  while (cell) {
    if (load<i32>(cell) == ix && load<i32>(cell, 4) == iy && load<i32>(cell, 8) == iz) return cell + 16;
    cell = <usize>load<i32>(cell, 12);
  }
  return makeCell(ix, iy, iz, slot) + 16;
}

// ------------------------------------------------------------------ sky
/** The sky in a direction, from a table over the octahedron. */
export function lookAtSky(x: f32, y: f32, z: f32): void {
  if (!hasSky) {
    skyR = 0;
    skyG = 0;
    skyB = 0;
    return;
  }
  const k = <f32>1 / (abs(x) + abs(y) + abs(z));
  let u = x * k, v = y * k;
  if (z < 0) {
    const a = (<f32>1 - abs(v)) * (u < 0 ? <f32>-1 : <f32>1), b = (<f32>1 - abs(u)) * (v < 0 ? <f32>-1 : <f32>1);
    u = a;
    v = b;
  }
  const n = <f32>(skySize - 1);
  const fu = min<f32>(n - <f32>0.001, max<f32>(0, (u * <f32>0.5 + <f32>0.5) * n)), fv = min<f32>(n - <f32>0.001, max<f32>(0, (v * <f32>0.5 + <f32>0.5) * n));
  const iu = <i32>fu, iv = <i32>fv;
  const au = fu - <f32>iu, av = fv - <f32>iv;
  const p = sky + (<usize>(iv * skySize + iu) << 4), q = p + (<usize>skySize << 4);
  const A = f32x4.add(f32x4.mul(v128.load(p), f32x4.splat(<f32>1 - au)), f32x4.mul(v128.load(p, 16), f32x4.splat(au)));
  const B = f32x4.add(f32x4.mul(v128.load(q), f32x4.splat(<f32>1 - au)), f32x4.mul(v128.load(q, 16), f32x4.splat(au)));
  const o = f32x4.add(f32x4.mul(A, f32x4.splat(<f32>1 - av)), f32x4.mul(B, f32x4.splat(av)));
  skyR = f32x4.extract_lane(o, 0);
  skyG = f32x4.extract_lane(o, 1);
  skyB = f32x4.extract_lane(o, 2);
}

// @ts-ignore: decorator
@inline
function across(v: v128): f32 {
  return f32x4.extract_lane(v, 0) + f32x4.extract_lane(v, 1) + f32x4.extract_lane(v, 2) + f32x4.extract_lane(v, 3);
}

let portalTotal: f32 = 0;
/** What each opening may give a point: the solid angle it fills, about, where it can be seen. */
function weighPortals(x: f32, y: f32, z: f32): void {
  const cell = cellOf(x, y, z);
  const X = f32x4.splat(x), Y = f32x4.splat(y), Z = f32x4.splat(z);
  let total = f32x4.splat(0);
  for (let k = 0; k < portalCount; k += 4) {
    const p = portalGroups + (<usize>k << 6);
    const ex = f32x4.sub(v128.load(p, 96), X), ey = f32x4.sub(v128.load(p, 112), Y), ez = f32x4.sub(v128.load(p, 128), Z);
    // Never nothing: the empty places of a group lie at the origin, where a point may lie too.
    const d2 = f32x4.add(f32x4.add(f32x4.add(f32x4.mul(ex, ex), f32x4.mul(ey, ey)), f32x4.mul(ez, ez)), f32x4.splat(1e-12));
    const dn = f32x4.add(f32x4.add(f32x4.mul(ex, v128.load(p, 48)), f32x4.mul(ey, v128.load(p, 64))), f32x4.mul(ez, v128.load(p, 80)));
    const c = f32x4.div(f32x4.abs(dn), f32x4.sqrt(d2));
    const area = v128.load(p, 144);
    const w = f32x4.mul(f32x4.div(f32x4.mul(area, f32x4.add(c, f32x4.splat(0.1))), f32x4.add(d2, area)), v128.load(cell + (<usize>k << 2)));
    v128.store(portalWeights + (<usize>k << 2), w);
    total = f32x4.add(total, w);
  }
  portalTotal = across(total);
}

/** Density with which `aimSky` draws a direction from a point. @param known whether the openings have been weighed for the point */
export function skyDensity(x: f32, y: f32, z: f32, ddx: f32, ddy: f32, ddz: f32, known: bool): f32 {
  if (!known) weighPortals(x, y, z);
  const X = f32x4.splat(x), Y = f32x4.splat(y), Z = f32x4.splat(z), DX = f32x4.splat(ddx), DY = f32x4.splat(ddy), DZ = f32x4.splat(ddz);
  const zero = f32x4.splat(0), one = f32x4.splat(1);
  let sum = zero;
  for (let k = 0; k < portalCount; k += 4) {
    const p = portalGroups + (<usize>k << 6);
    const ex = f32x4.sub(v128.load(p), X), ey = f32x4.sub(v128.load(p, 16), Y), ez = f32x4.sub(v128.load(p, 32), Z);
    const n0 = v128.load(p, 48), n1 = v128.load(p, 64), n2 = v128.load(p, 80);
    const c = f32x4.add(f32x4.add(f32x4.mul(DX, n0), f32x4.mul(DY, n1)), f32x4.mul(DZ, n2));
    const t = f32x4.div(f32x4.add(f32x4.add(f32x4.mul(ex, n0), f32x4.mul(ey, n1)), f32x4.mul(ez, n2)), c);
    const qx = f32x4.sub(f32x4.mul(DX, t), ex), qy = f32x4.sub(f32x4.mul(DY, t), ey), qz = f32x4.sub(f32x4.mul(DZ, t), ez);
    const a = f32x4.add(f32x4.add(f32x4.mul(qx, v128.load(p, 160)), f32x4.mul(qy, v128.load(p, 176))), f32x4.mul(qz, v128.load(p, 192)));
    const b = f32x4.add(f32x4.add(f32x4.mul(qx, v128.load(p, 208)), f32x4.mul(qy, v128.load(p, 224))), f32x4.mul(qz, v128.load(p, 240)));
    let ok = v128.and(f32x4.gt(t, zero), f32x4.ge(f32x4.abs(c), f32x4.splat(1e-9)));
    ok = v128.and(ok, v128.and(v128.and(f32x4.ge(a, zero), f32x4.le(a, one)), v128.and(f32x4.ge(b, zero), f32x4.le(b, one))));
    if (v128.any_true(ok))
      sum = f32x4.add(
        sum,
        v128.and(ok, f32x4.div(f32x4.mul(v128.load(portalWeights + (<usize>k << 2)), f32x4.mul(t, t)), f32x4.mul(v128.load(p, 144), f32x4.abs(c)))),
      );
  }
  return across(sum) / portalTotal;
}

/** Whether a stretch of a ray leads through an opening. */
export function leadsOut(x: f32, y: f32, z: f32, ddx: f32, ddy: f32, ddz: f32, end: f32): bool {
  const X = f32x4.splat(x), Y = f32x4.splat(y), Z = f32x4.splat(z), DX = f32x4.splat(ddx), DY = f32x4.splat(ddy), DZ = f32x4.splat(ddz);
  const zero = f32x4.splat(0), one = f32x4.splat(1), last = f32x4.splat(end + EPS);
  for (let k = 0; k < portalCount; k += 4) {
    const p = portalGroups + (<usize>k << 6);
    const ex = f32x4.sub(v128.load(p), X), ey = f32x4.sub(v128.load(p, 16), Y), ez = f32x4.sub(v128.load(p, 32), Z);
    const n0 = v128.load(p, 48), n1 = v128.load(p, 64), n2 = v128.load(p, 80);
    const c = f32x4.add(f32x4.add(f32x4.mul(DX, n0), f32x4.mul(DY, n1)), f32x4.mul(DZ, n2));
    const t = f32x4.div(f32x4.add(f32x4.add(f32x4.mul(ex, n0), f32x4.mul(ey, n1)), f32x4.mul(ez, n2)), c);
    const qx = f32x4.sub(f32x4.mul(DX, t), ex), qy = f32x4.sub(f32x4.mul(DY, t), ey), qz = f32x4.sub(f32x4.mul(DZ, t), ez);
    const a = f32x4.add(f32x4.add(f32x4.mul(qx, v128.load(p, 160)), f32x4.mul(qy, v128.load(p, 176))), f32x4.mul(qz, v128.load(p, 192)));
    const b = f32x4.add(f32x4.add(f32x4.mul(qx, v128.load(p, 208)), f32x4.mul(qy, v128.load(p, 224))), f32x4.mul(qz, v128.load(p, 240)));
    let ok = v128.and(v128.and(f32x4.gt(t, zero), f32x4.le(t, last)), f32x4.ge(f32x4.abs(c), f32x4.splat(1e-9)));
    ok = v128.and(ok, v128.and(v128.and(f32x4.ge(a, zero), f32x4.le(a, one)), v128.and(f32x4.ge(b, zero), f32x4.le(b, one))));
    if (v128.any_true(ok)) return true;
  }
  return false;
}

let lampTotal: f32 = 0;
function weighLamps(x: f32, y: f32, z: f32): void {
  const cell = cellOf(x, y, z) + (<usize>((portalCount + 3) >> 2) << 4);
  const X = f32x4.splat(x), Y = f32x4.splat(y), Z = f32x4.splat(z);
  let total = f32x4.splat(0);
  for (let k = 0; k < lampCount; k += 4) {
    const p = lampGroups + (<usize>k << 4);
    const ex = f32x4.sub(v128.load(p), X), ey = f32x4.sub(v128.load(p, 16), Y), ez = f32x4.sub(v128.load(p, 32), Z);
    const d2 = f32x4.add(f32x4.add(f32x4.mul(ex, ex), f32x4.mul(ey, ey)), f32x4.mul(ez, ez));
    const w = f32x4.mul(f32x4.div(v128.load(p, 48), f32x4.add(d2, f32x4.splat(0.01))), v128.load(cell + (<usize>k << 2)));
    v128.store(lampWeights + (<usize>k << 2), w);
    total = f32x4.add(total, w);
  }
  lampTotal = across(total);
}

/** Density with which `aimLamp` draws a point of a luminaire, from the point (x, y, z). */
export function lampDensity(x: f32, y: f32, z: f32, lx: f32, ly: f32, lz: f32, cos: f32, lamp: i32): f32 {
  weighLamps(x, y, z);
  const d2 = (lx - x) * (lx - x) + (ly - y) * (ly - y) + (lz - z) * (lz - z);
  return ((load<f32>(lampWeights + (<usize>lamp << 2)) / lampTotal) * d2) / (load<f32>(lamps + (<usize>lamp << 5), 12) * max<f32>(1e-6, abs(cos)));
}

// What is left of the number after a pick, stretched to 0…1 again: one number serves for which and for where.
let rest: f32 = 0;
// @ts-ignore: decorator
@inline
function pick(at: usize, n: i32, total: f32, u: f32): i32 {
  let x = u * total;
  let k = 0;
  while (k < n - 1) {
    const w = load<f32>(at + (<usize>k << 2));
    if (x < w) break;
    x -= w;
    k++;
  }
  rest = min<f32>(0.9999999, max<f32>(0, x / load<f32>(at + (<usize>k << 2))));
  return k;
}

/** Draws a point of the sun's disc. */
export function aimSun(dimension: u32): void {
  kind = 0;
  group = SUN_GROUP;
  near = false;
  const r = load<f32>(sun, 48) * sqrt<f32>(pair(dimension));
  turn(second);
  const p = r * turnedCos(), q = r * turnedSin();
  const x = load<f32>(sun) + load<f32>(sun, 16) * p + load<f32>(sun, 32) * q;
  const y = load<f32>(sun, 4) + load<f32>(sun, 20) * p + load<f32>(sun, 36) * q;
  const z = load<f32>(sun, 8) + load<f32>(sun, 24) * p + load<f32>(sun, 40) * q;
  const l = <f32>1 / sqrt<f32>(x * x + y * y + z * z);
  dx = x * l;
  dy = y * l;
  dz = z * l;
  far = 1e30;
  lr = load<f32>(sun, 64);
  lg = load<f32>(sun, 68);
  lb = load<f32>(sun, 72);
}

/** Draws a point of an opening, seen from a point. Returns whether the sky lies behind it. */
export function aimSky(x: f32, y: f32, z: f32, dimension: u32): bool {
  weighPortals(x, y, z);
  const k = pick(portalWeights, portalCount, portalTotal, single(dimension));
  kind = 1 + k;
  group = SKY_GROUP;
  near = false;
  const p = portals + <usize>k * 48;
  const u = pair(dimension + 1);
  const v = second;
  const ex = load<f32>(p) + load<f32>(p, 16) * u + load<f32>(p, 32) * v - x;
  const ey = load<f32>(p, 4) + load<f32>(p, 20) * u + load<f32>(p, 36) * v - y;
  const ez = load<f32>(p, 8) + load<f32>(p, 24) * u + load<f32>(p, 40) * v - z;
  if (ez <= 0) return false;
  const l = <f32>1 / sqrt<f32>(ex * ex + ey * ey + ez * ez);
  dx = ex * l;
  dy = ey * l;
  dz = ez * l;
  far = 1e30;
  lookAtSky(dx, dy, dz);
  lr = skyR;
  lg = skyG;
  lb = skyB;
  return true;
}

/** Draws a point of a luminaire. Returns whether its bright side is turned to the point. */
export function aimLamp(x: f32, y: f32, z: f32, dimension: u32): bool {
  weighLamps(x, y, z);
  const k = pick(lampWeights, lampCount, lampTotal, single(dimension));
  kind = 1 + portalCount + k;
  near = true;
  const a = lamps + (<usize>k << 5);
  group = load<i32>(a, 24);
  const share = rest;
  const list = <usize>load<i32>(a, 20);
  let low = 0, high = load<i32>(a, 16) - 1;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (load<f32>(list + (<usize>middle << 6), 12) <= share) low = middle + 1;
    else high = middle;
  }
  const c = list + (<usize>low << 6);
  const s = sqrt<f32>(pair(dimension + 1));
  const q = second;
  const wb = s * (<f32>1 - q), wc = s * q;
  const qx = load<f32>(c) + load<f32>(c, 16) * wb + load<f32>(c, 32) * wc;
  const qy = load<f32>(c, 4) + load<f32>(c, 20) * wb + load<f32>(c, 36) * wc;
  const qz = load<f32>(c, 8) + load<f32>(c, 24) * wb + load<f32>(c, 40) * wc;
  const mx = load<f32>(c, 48), my = load<f32>(c, 52), mz = load<f32>(c, 56);
  let ex = qx - x, ey = qy - y, ez = qz - z;
  const d2 = ex * ex + ey * ey + ez * ez;
  const d = sqrt<f32>(d2), id = <f32>1 / d;
  ex *= id;
  ey *= id;
  ez *= id;
  const cos = -(mx * ex + my * ey + mz * ez);
  if (cos <= 1e-6) return false;
  drawn = ((load<f32>(lampWeights + (<usize>k << 2)) / lampTotal) * d2) / (load<f32>(a, 12) * cos);
  dx = ex;
  dy = ey;
  dz = ez;
  far = d;
  px = qx + mx * EPS;
  py = qy + my * EPS;
  pz = qz + mz * EPS;
  lr = load<f32>(a);
  lg = load<f32>(a, 4);
  lb = load<f32>(a, 8);
  return true;
}
