// Ray queries over a four-wide bounding volume hierarchy, four triangles at a time.
// AssemblyScript, compiled to WebAssembly with SIMD by scripts/build-kernel.mjs.
//
// Node, 112 bytes: min x, min y, min z, max x, max y, max z of four children (six v128), then four child numbers.
//   A child ≥ 0 is a node, a negative one the leaf −1 − child.
// Leaf, 160 bytes: first corner (x, y, z), edge 1, edge 2 of four triangles (nine v128), then four triangle numbers;
//   bit 30 marks triangles that shadow rays pass through, −1 an empty place.
// Ray, 32 bytes: origin, tmin, direction, tmax. Hit, 16 bytes: t, u, v, triangle or −1.

const STACK: usize = memory.data(4096, 16);
const LANES: usize = memory.data(64, 16);
const SEE_THROUGH: i32 = 0x40000000;

let nodes: usize = 0;
let leaves: usize = 0;

/** Memory for the caller, aligned to 16 bytes. */
export function alloc(bytes: u32): usize {
  return heap.alloc(bytes);
}

export function setScene(nodesAt: usize, leavesAt: usize): void {
  nodes = nodesAt;
  leaves = leavesAt;
}

// @ts-ignore: decorator
@inline
function safeInverse(d: f32): f32 {
  return abs(d) < 1e-18 ? (d < 0 ? <f32>-1e18 : <f32>1e18) : 1 / d;
}

// @ts-ignore: decorator
@inline
function trace(ray: usize, hit: usize, any: bool): bool {
  const ox = load<f32>(ray), oy = load<f32>(ray, 4), oz = load<f32>(ray, 8), tmin = load<f32>(ray, 12);
  const dx = load<f32>(ray, 16), dy = load<f32>(ray, 20), dz = load<f32>(ray, 24);
  let t = load<f32>(ray, 28);
  let u: f32 = 0, v: f32 = 0;
  let id: i32 = -1;

  const ix = safeInverse(dx), iy = safeInverse(dy), iz = safeInverse(dz);
  const vix = f32x4.splat(ix), viy = f32x4.splat(iy), viz = f32x4.splat(iz);
  const cox = f32x4.splat(ox * ix), coy = f32x4.splat(oy * iy), coz = f32x4.splat(oz * iz);
  const nx: usize = dx < 0 ? 48 : 0, fx: usize = 48 - nx;
  const ny: usize = dy < 0 ? 64 : 16, fy: usize = 80 - ny;
  const nz: usize = dz < 0 ? 80 : 32, fz: usize = 112 - nz;
  const vmin = f32x4.splat(tmin);
  const vox = f32x4.splat(ox), voy = f32x4.splat(oy), voz = f32x4.splat(oz);
  const vdx = f32x4.splat(dx), vdy = f32x4.splat(dy), vdz = f32x4.splat(dz);
  const zero = f32x4.splat(0), one = f32x4.splat(1);

  let sp: usize = STACK;
  let current: i32 = 0;
  while (true) {
    if (current >= 0) {
      const base = nodes + <usize>current * 112;
      const near = f32x4.pmax(
        f32x4.pmax(f32x4.pmax(vmin, f32x4.sub(f32x4.mul(v128.load(base + nx), vix), cox)), f32x4.sub(f32x4.mul(v128.load(base + ny), viy), coy)),
        f32x4.sub(f32x4.mul(v128.load(base + nz), viz), coz),
      );
      const far = f32x4.pmin(
        f32x4.pmin(f32x4.pmin(f32x4.splat(t), f32x4.sub(f32x4.mul(v128.load(base + fx), vix), cox)), f32x4.sub(f32x4.mul(v128.load(base + fy), viy), coy)),
        f32x4.sub(f32x4.mul(v128.load(base + fz), viz), coz),
      );
      let mask = i32x4.bitmask(f32x4.le(near, far));
      if (mask) {
        v128.store(LANES, near);
        const low = ctz(mask);
        mask &= mask - 1;
        let best = load<i32>(base + (<usize>low << 2), 96);
        if (mask) {
          let bestT = load<f32>(LANES + (<usize>low << 2));
          // The nearest child is next; the others go on the stack, the farther ones deeper.
          const bottom = sp;
          while (mask) {
            const lane = ctz(mask);
            mask &= mask - 1;
            let child = load<i32>(base + (<usize>lane << 2), 96);
            let at = load<f32>(LANES + (<usize>lane << 2));
            if (at < bestT) {
              const c = best, a = bestT;
              best = child;
              bestT = at;
              child = c;
              at = a;
            }
            let place = sp;
            while (place > bottom && load<f32>(place - 4) < at) {
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
    } else {
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
      const ids = v128.load(leaf, 144);
      if (any) inside = v128.and(inside, i32x4.lt_u(ids, i32x4.splat(SEE_THROUGH)));
      let mask = i32x4.bitmask(inside);
      if (mask) {
        if (any) return true;
        v128.store(LANES, tt);
        v128.store(LANES, uu, 16);
        v128.store(LANES, vv, 32);
        while (mask) {
          const lane = <usize>ctz(mask) << 2;
          mask &= mask - 1;
          const at = load<f32>(LANES + lane);
          if (at < t) {
            t = at;
            u = load<f32>(LANES + lane, 16);
            v = load<f32>(LANES + lane, 32);
            id = load<i32>(leaf + lane, 144) & 0x3fffffff;
          }
        }
      }
    }
    // Next from the stack, skipping what lies behind the hit.
    let found = false;
    while (sp > STACK) {
      sp -= 8;
      if (load<f32>(sp, 4) <= t) {
        current = load<i32>(sp);
        found = true;
        break;
      }
    }
    if (!found) break;
  }
  if (!any) {
    store<f32>(hit, t);
    store<f32>(hit, u, 4);
    store<f32>(hit, v, 8);
    store<i32>(hit, id, 12);
  }
  return id >= 0;
}

/** Nearest hit of each of `count` rays. */
export function closest(count: u32, rays: usize, hits: usize): void {
  for (let i: u32 = 0; i < count; i++) trace(rays + (<usize>i << 5), hits + (<usize>i << 4), false);
}

/** For each of `count` rays, 1 where something opaque lies between tmin and tmax, else 0. */
export function occluded(count: u32, rays: usize, out: usize): void {
  for (let i: u32 = 0; i < count; i++) store<i32>(out + (<usize>i << 2), trace(rays + (<usize>i << 5), 0, true) ? 1 : 0);
}
