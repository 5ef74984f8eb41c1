// Ray queries over an eight-wide bounding volume hierarchy, four triangles at a time, with meshes that stand in many places.
//
// Node, 224 bytes: min x, min y, min z, max x, max y, max z of eight children (two v128 each), then eight child numbers.
//   A child ≥ 0 is a node, one from −1 down to −2²⁹ the leaf −1 − child, one below the instance −2²⁹ − 1 − child.
// Leaf, 160 bytes: first corner (x, y, z), edge 1, edge 2 of four triangles (nine v128), then four triangle numbers;
//   bit 30 marks triangles that shadow rays pass through, bit 29 those of them that dim, −1 an empty place.
// Ray, 32 bytes: origin, tmin, direction, tmax.
import { instances, leaves, nodes } from './scene';

const STACK: usize = memory.data(8192, 16);
const LANES: usize = memory.data(64, 16);
const INNER: usize = memory.data(32, 16);
const FIRST_INSTANCE: i32 = -0x20000000;
const DIMMED: i32 = 0x20000000;
const IDS: i32 = 0x1fffffff;

/** Where a ray has met something: distance, place in the triangle, its number or −1, the instance or −1. */
export let hitT: f32 = 0;
export let hitU: f32 = 0;
export let hitV: f32 = 0;
export let hitId: i32 = -1;
export let hitInstance: i32 = -1;
/** Whether something on the way of a shadow ray dims it. */
export let dims: bool = false;
/** The leaf that last blocked a shadow ray; 0 where it lies in an instance. */
export let blocker: usize = 0;

// @ts-ignore: decorator
@inline
function safeInverse(d: f32): f32 {
  return abs(d) < 1e-18 ? (d < 0 ? <f32>-1e18 : <f32>1e18) : <f32>1 / d;
}

/** Puts a ray into the space of an instance; its lengths stay those of the outer ray. */
function enter(ray: usize, instance: usize, t: f32): void {
  const ox = load<f32>(ray), oy = load<f32>(ray, 4), oz = load<f32>(ray, 8);
  const dx = load<f32>(ray, 16), dy = load<f32>(ray, 20), dz = load<f32>(ray, 24);
  for (let row: usize = 0; row < 3; row++) {
    const m = instance + (row << 4);
    const a = load<f32>(m), b = load<f32>(m, 4), c = load<f32>(m, 8);
    store<f32>(INNER + (row << 2), a * ox + b * oy + c * oz + load<f32>(m, 12));
    store<f32>(INNER + (row << 2), a * dx + b * dy + c * dz, 16);
  }
  store<f32>(INNER, load<f32>(ray, 12), 12);
  store<f32>(INNER, t, 28);
}

/** Walks to the nearest hit; what it finds nearer than the ray's end is left in the globals. */
function walkNearest(ray: usize, root: i32, bottom: usize, instance: i32): void {
  walk(ray, false, root, bottom, instance);
}

/** Walks until something opaque blocks a shadow ray. Returns whether anything does. */
function walkShadow(ray: usize, root: i32, bottom: usize, instance: i32): bool {
  return walk(ray, true, root, bottom, instance);
}

/** Walks one hierarchy: written once, compiled for each kind of ray. */
// @ts-ignore: decorator
@inline
function walk(ray: usize, any: bool, root: i32, bottom: usize, instance: i32): bool {
  const ox = load<f32>(ray), oy = load<f32>(ray, 4), oz = load<f32>(ray, 8), tmin = load<f32>(ray, 12);
  const dx = load<f32>(ray, 16), dy = load<f32>(ray, 20), dz = load<f32>(ray, 24);
  let t = load<f32>(ray, 28);
  const ix = safeInverse(dx), iy = safeInverse(dy), iz = safeInverse(dz);
  const vix = f32x4.splat(ix), viy = f32x4.splat(iy), viz = f32x4.splat(iz);
  const cox = f32x4.splat(ox * ix), coy = f32x4.splat(oy * iy), coz = f32x4.splat(oz * iz);
  const nx: usize = dx < 0 ? 96 : 0, fx: usize = 96 - nx;
  const ny: usize = dy < 0 ? 128 : 32, fy: usize = 160 - ny;
  const nz: usize = dz < 0 ? 160 : 64, fz: usize = 224 - nz;
  const vmin = f32x4.splat(tmin);
  const vox = f32x4.splat(ox), voy = f32x4.splat(oy), voz = f32x4.splat(oz);
  const vdx = f32x4.splat(dx), vdy = f32x4.splat(dy), vdz = f32x4.splat(dz);
  const zero = f32x4.splat(0), one = f32x4.splat(1);

  let sp: usize = bottom;
  let current: i32 = root;
  while (true) {
    if (current >= 0) {
      const base = nodes + <usize>current * 224;
      const end = f32x4.splat(t);
      const nearA = f32x4.pmax(
        f32x4.pmax(f32x4.pmax(vmin, f32x4.sub(f32x4.mul(v128.load(base + nx), vix), cox)), f32x4.sub(f32x4.mul(v128.load(base + ny), viy), coy)),
        f32x4.sub(f32x4.mul(v128.load(base + nz), viz), coz),
      );
      const farA = f32x4.pmin(
        f32x4.pmin(f32x4.pmin(end, f32x4.sub(f32x4.mul(v128.load(base + fx), vix), cox)), f32x4.sub(f32x4.mul(v128.load(base + fy), viy), coy)),
        f32x4.sub(f32x4.mul(v128.load(base + fz), viz), coz),
      );
      const nearB = f32x4.pmax(
        f32x4.pmax(f32x4.pmax(vmin, f32x4.sub(f32x4.mul(v128.load(base + nx, 16), vix), cox)), f32x4.sub(f32x4.mul(v128.load(base + ny, 16), viy), coy)),
        f32x4.sub(f32x4.mul(v128.load(base + nz, 16), viz), coz),
      );
      const farB = f32x4.pmin(
        f32x4.pmin(f32x4.pmin(end, f32x4.sub(f32x4.mul(v128.load(base + fx, 16), vix), cox)), f32x4.sub(f32x4.mul(v128.load(base + fy, 16), viy), coy)),
        f32x4.sub(f32x4.mul(v128.load(base + fz, 16), viz), coz),
      );
      let mask = i32x4.bitmask(f32x4.le(nearA, farA)) | (i32x4.bitmask(f32x4.le(nearB, farB)) << 4);
      if (mask) {
        v128.store(LANES, nearA);
        v128.store(LANES, nearB, 16);
        const low = ctz(mask);
        mask &= mask - 1;
        let best = load<i32>(base + (<usize>low << 2), 192);
        if (mask) {
          let bestT = load<f32>(LANES + (<usize>low << 2));
          // The nearest child is next; the others go on the stack, the farther ones deeper.
          const floor = sp;
          while (mask) {
            const lane = ctz(mask);
            mask &= mask - 1;
            let child = load<i32>(base + (<usize>lane << 2), 192);
            let at = load<f32>(LANES + (<usize>lane << 2));
            if (at < bestT) {
              const c = best, a = bestT;
              best = child;
              bestT = at;
              child = c;
              at = a;
            }
            let place = sp;
            while (place > floor && load<f32>(place - 4) < at) {
              store<i32>(place, load<i32>(place - 8));
              store<f32>(place, load<f32>(place - 4), 4);
              place -= 8;
            }
            store<i32>(place, child);
            store<f32>(place, at, 4);
            sp += 8;
          }
        }
        current = best;
        continue;
      }
    } else if (current >= FIRST_INSTANCE) {
      const leaf = leaves + <usize>(-1 - current) * 160;
      const e1x = v128.load(leaf, 48), e1y = v128.load(leaf, 64), e1z = v128.load(leaf, 80);
      const e2x = v128.load(leaf, 96), e2y = v128.load(leaf, 112), e2z = v128.load(leaf, 128);
      // Möller and Trumbore, four triangles at once.
      const px = f32x4.sub(f32x4.mul(vdy, e2z), f32x4.mul(vdz, e2y));
      const py = f32x4.sub(f32x4.mul(vdz, e2x), f32x4.mul(vdx, e2z));
      const pz = f32x4.sub(f32x4.mul(vdx, e2y), f32x4.mul(vdy, e2x));
      const det = f32x4.add(f32x4.add(f32x4.mul(e1x, px), f32x4.mul(e1y, py)), f32x4.mul(e1z, pz));
      const inv = f32x4.div(one, det);
      const sx = f32x4.sub(vox, v128.load(leaf)), sy = f32x4.sub(voy, v128.load(leaf, 16)), sz = f32x4.sub(voz, v128.load(leaf, 32));
      const uu = f32x4.mul(inv, f32x4.add(f32x4.add(f32x4.mul(sx, px), f32x4.mul(sy, py)), f32x4.mul(sz, pz)));
      const qx = f32x4.sub(f32x4.mul(sy, e1z), f32x4.mul(sz, e1y));
      const qy = f32x4.sub(f32x4.mul(sz, e1x), f32x4.mul(sx, e1z));
      const qz = f32x4.sub(f32x4.mul(sx, e1y), f32x4.mul(sy, e1x));
      const vv = f32x4.mul(inv, f32x4.add(f32x4.add(f32x4.mul(vdx, qx), f32x4.mul(vdy, qy)), f32x4.mul(vdz, qz)));
      const tt = f32x4.mul(inv, f32x4.add(f32x4.add(f32x4.mul(e2x, qx), f32x4.mul(e2y, qy)), f32x4.mul(e2z, qz)));
      let inside = v128.and(f32x4.ge(uu, zero), f32x4.ge(vv, zero));
      inside = v128.and(inside, f32x4.le(f32x4.add(uu, vv), one));
      inside = v128.and(inside, v128.and(f32x4.gt(tt, vmin), f32x4.lt(tt, f32x4.splat(t))));
      let mask = i32x4.bitmask(inside);
      if (mask) {
        if (any) {
          const ids = v128.load(leaf, 144);
          if (v128.any_true(v128.and(inside, i32x4.lt_u(ids, i32x4.splat(DIMMED))))) {
            blocker = instance < 0 ? leaf : 0;
            return true;
          }
          if (v128.any_true(v128.and(inside, v128.and(i32x4.ge_s(ids, i32x4.splat(0)), i32x4.ne(v128.and(ids, i32x4.splat(DIMMED)), i32x4.splat(0)))))) dims = true;
        } else {
          v128.store(LANES, tt);
          v128.store(LANES, uu, 16);
          v128.store(LANES, vv, 32);
          while (mask) {
            const lane = <usize>ctz(mask) << 2;
            mask &= mask - 1;
            const at = load<f32>(LANES + lane);
            if (at < t) {
              t = at;
              hitT = at;
              hitU = load<f32>(LANES + lane, 16);
              hitV = load<f32>(LANES + lane, 32);
              hitId = load<i32>(leaf + lane, 144) & IDS;
              hitInstance = instance;
            }
          }
        }
      }
    } else {
      const which = FIRST_INSTANCE - 1 - current;
      const at = instances + (<usize>which << 7);
      enter(ray, at, t);
      if (any) {
        if (walkShadow(INNER, load<i32>(at, 96), sp, which)) return true;
      } else {
        walkNearest(INNER, load<i32>(at, 96), sp, which);
        if (hitT < t) t = hitT;
      }
    }
    // Next from the stack, skipping what lies behind the hit.
    let found = false;
    while (sp > bottom) {
      sp -= 8;
      if (load<f32>(sp, 4) <= t) {
        current = load<i32>(sp);
        found = true;
        break;
      }
    }
    if (!found) break;
  }
  return false;
}

/** The nearest hit of a ray, in the globals. */
// @ts-ignore: decorator
@inline
export function nearest(ray: usize): void {
  hitT = load<f32>(ray, 28);
  hitId = -1;
  hitInstance = -1;
  walkNearest(ray, 0, STACK, -1);
}

/** Whether something opaque lies along a ray; `dims` tells whether something on its way dims it. */
// @ts-ignore: decorator
@inline
export function blocked(ray: usize): bool {
  dims = false;
  return walkShadow(ray, 0, STACK, -1);
}

/** Whether something opaque of one leaf blocks a ray. */
// @ts-ignore: decorator
@inline
export function blocksIn(leaf: usize, ray: usize): bool {
  const vdx = v128.load32_splat(ray, 16), vdy = v128.load32_splat(ray, 20), vdz = v128.load32_splat(ray, 24);
  const e1x = v128.load(leaf, 48), e1y = v128.load(leaf, 64), e1z = v128.load(leaf, 80);
  const e2x = v128.load(leaf, 96), e2y = v128.load(leaf, 112), e2z = v128.load(leaf, 128);
  const px = f32x4.sub(f32x4.mul(vdy, e2z), f32x4.mul(vdz, e2y));
  const py = f32x4.sub(f32x4.mul(vdz, e2x), f32x4.mul(vdx, e2z));
  const pz = f32x4.sub(f32x4.mul(vdx, e2y), f32x4.mul(vdy, e2x));
  const det = f32x4.add(f32x4.add(f32x4.mul(e1x, px), f32x4.mul(e1y, py)), f32x4.mul(e1z, pz));
  const inv = f32x4.div(f32x4.splat(1), det);
  const sx = f32x4.sub(v128.load32_splat(ray), v128.load(leaf));
  const sy = f32x4.sub(v128.load32_splat(ray, 4), v128.load(leaf, 16));
  const sz = f32x4.sub(v128.load32_splat(ray, 8), v128.load(leaf, 32));
  const uu = f32x4.mul(inv, f32x4.add(f32x4.add(f32x4.mul(sx, px), f32x4.mul(sy, py)), f32x4.mul(sz, pz)));
  const qx = f32x4.sub(f32x4.mul(sy, e1z), f32x4.mul(sz, e1y));
  const qy = f32x4.sub(f32x4.mul(sz, e1x), f32x4.mul(sx, e1z));
  const qz = f32x4.sub(f32x4.mul(sx, e1y), f32x4.mul(sy, e1x));
  const vv = f32x4.mul(inv, f32x4.add(f32x4.add(f32x4.mul(vdx, qx), f32x4.mul(vdy, qy)), f32x4.mul(vdz, qz)));
  const tt = f32x4.mul(inv, f32x4.add(f32x4.add(f32x4.mul(e2x, qx), f32x4.mul(e2y, qy)), f32x4.mul(e2z, qz)));
  let inside = v128.and(f32x4.ge(uu, f32x4.splat(0)), f32x4.ge(vv, f32x4.splat(0)));
  inside = v128.and(inside, f32x4.le(f32x4.add(uu, vv), f32x4.splat(1)));
  inside = v128.and(inside, v128.and(f32x4.gt(tt, v128.load32_splat(ray, 12)), f32x4.lt(tt, v128.load32_splat(ray, 28))));
  return v128.any_true(v128.and(inside, i32x4.lt_u(v128.load(leaf, 144), i32x4.splat(DIMMED))));
}

/** For each of `count` rays its nearest hit, 16 bytes: t, u, v, triangle or −1. */
export function closest(count: u32, rays: usize, hits: usize): void {
  for (let i: u32 = 0; i < count; i++) {
    nearest(rays + (<usize>i << 5));
    const hit = hits + (<usize>i << 4);
    store<f32>(hit, hitT);
    store<f32>(hit, hitU, 4);
    store<f32>(hit, hitV, 8);
    store<i32>(hit, hitId, 12);
  }
}

/** For each of `count` rays, 1 where something opaque lies between tmin and tmax, else 0. */
export function occluded(count: u32, rays: usize, out: usize): void {
  for (let i: u32 = 0; i < count; i++) store<i32>(out + (<usize>i << 2), blocked(rays + (<usize>i << 5)) ? 1 : 0);
}
