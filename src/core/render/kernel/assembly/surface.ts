// What a ray has hit: the plane of the triangle, the normal as smoothing and relief bend it, colour and roughness of the finish
// there, and how it scatters: fibres over a clear coat over a dielectric or a metal over a diffuse or translucent body.
// Sources: Walter et al. 2007 (GGX), Heitz 2018 (visible normals), Kulla and Conty 2017 (light scattered many times, coupling of
// layers by albedo), Estevez and Kulla 2017 and Neubelt and Pettineo 2013 (fibres), Duff et al. 2017 (frames).
import { albedos, instances, linear, materials, OPEN, PANE, ROUGHED, sheens, SLOPED, TEXTURED, triangles } from './scene';
import { pair, second, single } from './sampler';

export const PI: f32 = 3.14159265358979;
const OVER_PI: f32 = 0.3183098861837907;

/** Normal of the plane, on the side of the ray. */
export let gx: f32 = 0;
export let gy: f32 = 0;
export let gz: f32 = 0;
/** The normal before relief bends it: what the denoiser is guided by. */
export let sx: f32 = 0;
export let sy: f32 = 0;
export let sz: f32 = 0;
/** The normal light is scattered about. */
export let nx: f32 = 0;
export let ny: f32 = 0;
export let nz: f32 = 0;
let tx: f32 = 0;
let ty: f32 = 0;
let tz: f32 = 0;
let bx: f32 = 0;
let by: f32 = 0;
let bz: f32 = 0;
/** Colour of the finish, linear. */
export let cr: f32 = 0;
export let cg: f32 = 0;
export let cb: f32 = 0;
/** Perceptual roughness. */
export let rough: f32 = 1;
/** How much of it is matter: the rest is open. */
export let matter: f32 = 1;
/** Scattering times cosine of the last direction asked about. */
export let valueR: f32 = 0;
export let valueG: f32 = 0;
export let valueB: f32 = 0;
/** The last direction scattered to. */
export let wx: f32 = 0;
export let wy: f32 = 0;
export let wz: f32 = 0;

// The lobes, as the ray meets them.
let vx: f32 = 0;
let vy: f32 = 0;
let vz: f32 = 0;
let ax: f32 = 0;
let ay: f32 = 0;
let ac: f32 = 0;
let f0: f32 = 0;
let metal: f32 = 0;
let through: f32 = 0;
let sheen: f32 = 0;
let coat: f32 = 0;
let matt: bool = false;
let pCoat: f32 = 0;
let pSpecular: f32 = 0;
// Albedos of the dielectric, of a perfect metal and of the coat towards the eye, and their means.
let eD: f32 = 0;
let eDMean: f32 = 0;
let eM: f32 = 0;
let eMMean: f32 = 0;
let eC: f32 = 0;
let eCMean: f32 = 0;
let manyR: f32 = 0;
let manyG: f32 = 0;
let manyB: f32 = 0;
let rowA: usize = 0;
let rowB: usize = 0;
let rowW: f32 = 0;
let coatRowA: usize = 0;
let coatRowB: usize = 0;
let coatRowW: f32 = 0;

// @ts-ignore: decorator
@inline
function lin(p: u32, shift: u32): f32 {
  return load<f32>(linear + (((p >>> shift) & 255) << 2));
}

/** Turns a direction of a mesh into one of the room, by the rows of a matrix. */
let ix: f32 = 0;
let iy: f32 = 0;
let iz: f32 = 0;
// @ts-ignore: decorator
@inline
function outward(m: usize, x: f32, y: f32, z: f32): void {
  ix = load<f32>(m) * x + load<f32>(m, 4) * y + load<f32>(m, 8) * z;
  iy = load<f32>(m, 16) * x + load<f32>(m, 20) * y + load<f32>(m, 24) * z;
  iz = load<f32>(m, 32) * x + load<f32>(m, 36) * y + load<f32>(m, 40) * z;
}
/** The same for a normal: by the columns of the matrix into the mesh. */
// @ts-ignore: decorator
@inline
function outwardNormal(m: usize, x: f32, y: f32, z: f32): void {
  ix = load<f32>(m) * x + load<f32>(m, 16) * y + load<f32>(m, 32) * z;
  iy = load<f32>(m, 4) * x + load<f32>(m, 20) * y + load<f32>(m, 36) * z;
  iz = load<f32>(m, 8) * x + load<f32>(m, 24) * y + load<f32>(m, 40) * z;
}

/** Sets up normal, frame and colour at a hit. Returns whether the front of the triangle faces the ray. */
export function at(tri: usize, instance: i32, u: f32, v: f32, m: usize, dx: f32, dy: f32, dz: f32): bool {
  const inst = instances + (<usize>max(0, instance) << 7);
  gx = load<f32>(tri);
  gy = load<f32>(tri, 4);
  gz = load<f32>(tri, 8);
  const w = <f32>1 - u - v;
  let x = load<f32>(tri, 16) * w + load<f32>(tri, 28) * u + load<f32>(tri, 40) * v;
  let y = load<f32>(tri, 20) * w + load<f32>(tri, 32) * u + load<f32>(tri, 44) * v;
  let z = load<f32>(tri, 24) * w + load<f32>(tri, 36) * u + load<f32>(tri, 48) * v;
  if (instance >= 0) {
    outwardNormal(inst, gx, gy, gz);
    const l = <f32>1 / sqrt<f32>(ix * ix + iy * iy + iz * iz);
    gx = ix * l;
    gy = iy * l;
    gz = iz * l;
    outwardNormal(inst, x, y, z);
    x = ix;
    y = iy;
    z = iz;
  }
  const front = dx * gx + dy * gy + dz * gz < 0;
  if (!front) {
    gx = -gx;
    gy = -gy;
    gz = -gz;
  }
  if (x * gx + y * gy + z * gz < 0) {
    x = -x;
    y = -y;
    z = -z;
  }
  const l2 = x * x + y * y + z * z;
  if (l2 < 1e-12) {
    x = gx;
    y = gy;
    z = gz;
  } else {
    const l = <f32>1 / sqrt<f32>(l2);
    x *= l;
    y *= l;
    z *= l;
  }
  sx = x;
  sy = y;
  sz = z;
  const flags = load<i32>(m, 40);
  matter = 1;
  rough = load<f32>(m, 12);
  let mx: f32 = 0, my: f32 = 0;
  if (flags & TEXTURED) {
    const tu = load<f32>(tri, 52) * w + load<f32>(tri, 60) * u + load<f32>(tri, 68) * v;
    const tv = load<f32>(tri, 56) * w + load<f32>(tri, 64) * u + load<f32>(tri, 72) * v;
    const W = load<i32>(m, 68), H = load<i32>(m, 72);
    let fx = tu * load<f32>(m, 84), fy = tv * load<f32>(m, 88);
    fx -= floor(fx);
    fy -= floor(fy);
    fx = fx * <f32>W - <f32>0.5;
    fy = fy * <f32>H - <f32>0.5;
    const flx = floor(fx), fly = floor(fy);
    let x0 = <i32>flx, y0 = <i32>fly;
    const px = fx - flx, py = fy - fly;
    if (x0 < 0) x0 += W;
    else if (x0 >= W) x0 -= W;
    if (y0 < 0) y0 += H;
    else if (y0 >= H) y0 -= H;
    const x1 = x0 + 1 == W ? 0 : x0 + 1, y1 = y0 + 1 == H ? 0 : y0 + 1;
    const t00 = y0 * W + x0;
    const tex = <usize>load<i32>(m, 64);
    const a = load<u32>(tex + (<usize>t00 << 2)), b = load<u32>(tex + (<usize>(y0 * W + x1) << 2));
    const c = load<u32>(tex + (<usize>(y1 * W + x0) << 2)), d = load<u32>(tex + (<usize>(y1 * W + x1) << 2));
    const w00 = (<f32>1 - px) * (<f32>1 - py), w10 = px * (<f32>1 - py), w01 = (<f32>1 - px) * py, w11 = px * py;
    cr = lin(a, 0) * w00 + lin(b, 0) * w10 + lin(c, 0) * w01 + lin(d, 0) * w11;
    cg = lin(a, 8) * w00 + lin(b, 8) * w10 + lin(c, 8) * w01 + lin(d, 8) * w11;
    cb = lin(a, 16) * w00 + lin(b, 16) * w10 + lin(c, 16) * w01 + lin(d, 16) * w11;
    if (flags & OPEN) matter = (<f32>(a >> 24) * w00 + <f32>(b >> 24) * w10 + <f32>(c >> 24) * w01 + <f32>(d >> 24) * w11) * <f32>(1.0 / 255.0);
    if (flags & (ROUGHED | SLOPED)) {
      const detail = load<i32>(m, 76) + (t00 << 2);
      if (flags & ROUGHED) rough = <f32>load<u8>(<usize>detail, 2) * <f32>(1.0 / 255.0);
      if (flags & SLOPED) {
        mx = <f32>load<i8>(<usize>detail) * <f32>(1.0 / 127.5);
        my = <f32>load<i8>(<usize>detail, 1) * <f32>(1.0 / 127.5);
      }
    }
  } else {
    cr = load<f32>(m);
    cg = load<f32>(m, 4);
    cb = load<f32>(m, 8);
  }
  const grain = load<f32>(m, 96) != 0;
  let ux: f32 = 0, uy: f32 = 0, uz: f32 = 0;
  if (flags & SLOPED || grain) {
    ux = load<f32>(tri, 76);
    uy = load<f32>(tri, 80);
    uz = load<f32>(tri, 84);
    let qx = load<f32>(tri, 88), qy = load<f32>(tri, 92), qz = load<f32>(tri, 96);
    if (ux != 0 || uy != 0 || uz != 0) {
      if (instance >= 0) {
        outward(inst + 48, ux, uy, uz);
        let l = <f32>1 / sqrt<f32>(ix * ix + iy * iy + iz * iz);
        ux = ix * l;
        uy = iy * l;
        uz = iz * l;
        outward(inst + 48, qx, qy, qz);
        l = <f32>1 / sqrt<f32>(ix * ix + iy * iy + iz * iz);
        qx = ix * l;
        qy = iy * l;
        qz = iz * l;
      }
      if (flags & SLOPED) {
        const mz = sqrt<f32>(max<f32>(0.05, <f32>1 - mx * mx - my * my));
        let p = x * mz + ux * mx + qx * my;
        let q = y * mz + uy * mx + qy * my;
        let r = z * mz + uz * mx + qz * my;
        const bl = <f32>1 / sqrt<f32>(p * p + q * q + r * r);
        p *= bl;
        q *= bl;
        r *= bl;
        if (p * gx + q * gy + r * gz > 0.02 && -(p * dx + q * dy + r * dz) > 0.02) {
          x = p;
          y = q;
          z = r;
        }
      }
    }
  }
  if (-(x * dx + y * dy + z * dz) < 1e-3) {
    x = gx;
    y = gy;
    z = gz;
  }
  nx = x;
  ny = y;
  nz = z;
  // A grain runs along growing u; all else may lie anyhow.
  const along = ux * x + uy * y + uz * z;
  let px = ux - along * x, py = uy - along * y, pz = uz - along * z;
  const pl = px * px + py * py + pz * pz;
  if (grain && pl > 1e-6) {
    const l = <f32>1 / sqrt<f32>(pl);
    tx = px * l;
    ty = py * l;
    tz = pz * l;
    bx = y * tz - z * ty;
    by = z * tx - x * tz;
    bz = x * ty - y * tx;
  } else {
    const sign: f32 = z >= 0 ? 1 : -1;
    const a2 = <f32>-1 / (sign + z), b2 = x * y * a2;
    tx = <f32>1 + sign * x * x * a2;
    ty = sign * b2;
    tz = -sign * x;
    bx = b2;
    by = sign + y * y * a2;
    bz = -y;
  }
  return front;
}

// @ts-ignore: decorator
@inline
function fifth(x: f32): f32 {
  const y = x * x;
  return y * y * x;
}

/** Reflectance of a smooth dielectric boundary (Fresnel), for unpolarised light. */
export function fresnel(cos: f32, eta: f32): f32 {
  const c = abs(cos);
  const s2 = (<f32>1 - c * c) / (eta * eta);
  if (s2 >= 1) return 1;
  const ct = sqrt<f32>(<f32>1 - s2);
  const rs = (c - eta * ct) / (c + eta * ct), rp = (eta * c - ct) / (eta * c + ct);
  return (rs * rs + rp * rp) * <f32>0.5;
}

/** Smith's masking of a direction whose slopes are stretched to `x`, `y` over the cosine `z`. */
// @ts-ignore: decorator
@inline
function lambda(x: f32, y: f32, z: f32): f32 {
  return (sqrt<f32>(<f32>1 + (x * x + y * y) / (z * z)) - <f32>1) * <f32>0.5;
}

/** Density of microfacet normals (Trowbridge and Reitz) with widths along and across. */
// @ts-ignore: decorator
@inline
function facets(hx: f32, hy: f32, hz: f32, a: f32, b: f32): f32 {
  const p = hx / a, q = hy / b;
  const k = p * p + q * q + hz * hz;
  return <f32>1 / (PI * a * b * k * k);
}

const STEPS: i32 = 32;
// A row of the table of albedos, for one roughness: 33 pairs (perfect reflector, fifth-power part), then the pair of their means.
const ROW: usize = 34 * 8;

// @ts-ignore: decorator
@inline
function rowAt(r: f32): f32 {
  return min<f32>(<f32>1, max<f32>(<f32>0, r)) * <f32>STEPS;
}

let albedoOne: f32 = 0;
let albedoFifth: f32 = 0;
/** Albedos of a microfacet surface towards a cosine: that of a perfect reflector, and of the part that grows to grazing. */
// @ts-ignore: decorator
@inline
function albedoAt(a: usize, b: usize, w: f32, cos: f32): void {
  const p = min<f32>(1, max<f32>(0, cos)) * <f32>STEPS;
  const i = min<i32>(STEPS - 1, <i32>p);
  const k = p - <f32>i;
  const at = <usize>i << 3;
  const one = (load<f32>(a + at) * (<f32>1 - k) + load<f32>(a + at, 8) * k) * (<f32>1 - w) + (load<f32>(b + at) * (<f32>1 - k) + load<f32>(b + at, 8) * k) * w;
  albedoFifth =
    (load<f32>(a + at, 4) * (<f32>1 - k) + load<f32>(a + at, 12) * k) * (<f32>1 - w) + (load<f32>(b + at, 4) * (<f32>1 - k) + load<f32>(b + at, 12) * k) * w;
  albedoOne = one;
}
// @ts-ignore: decorator
@inline
function meanAlbedos(a: usize, b: usize, w: f32): void {
  albedoOne = load<f32>(a, 264) * (<f32>1 - w) + load<f32>(b, 264) * w;
  albedoFifth = load<f32>(a, 268) * (<f32>1 - w) + load<f32>(b, 268) * w;
}
/** Of a reflectance at normal incidence, by Schlick's approximation. */
// @ts-ignore: decorator
@inline
function withFresnel(f: f32): f32 {
  return f * (albedoOne - albedoFifth) + albedoFifth;
}

function sheenAlbedo(c: f32): f32 {
  const p = min<f32>(1, max<f32>(0, c)) * 64;
  const i = min<i32>(63, <i32>p);
  const a = load<f32>(sheens + (<usize>i << 2)), b = load<f32>(sheens + (<usize>i << 2), 4);
  return a + (b - a) * (p - <f32>i);
}

/** Share of the light that fibres leave to what lies below: what they may throw back is taken, whichever way light runs. */
// @ts-ignore: decorator
@inline
function belowFibres(m: usize, lz: f32): f32 {
  return <f32>1 - sheen * load<f32>(m, 60) * max(sheenAlbedo(vz), sheenAlbedo(lz));
}

/** Whether the surface throws back one ray as a mirror does. */
// @ts-ignore: decorator
@inline
export function mirrors(m: usize): bool {
  return load<f32>(m, 16) > <f32>0.5 && rough < <f32>0.05 && load<f32>(m, 80) == 0;
}

/** Light scattered more than once between microfacets of a metal of one colour: what its share of the lost energy is multiplied by. */
// @ts-ignore: decorator
@inline
function many(f: f32): f32 {
  // Mean of Schlick's reflectance over all directions.
  const mean = f + (<f32>1 - f) * <f32>(1.0 / 21.0);
  return (mean * mean * eMMean) / (<f32>1 - mean * (<f32>1 - eMMean));
}

/** Weighs the lobes for a ray. */
export function meet(m: usize, dx: f32, dy: f32, dz: f32): void {
  metal = load<f32>(m, 16);
  through = load<f32>(m, 28);
  sheen = load<f32>(m, 32);
  coat = load<f32>(m, 80);
  vx = -(dx * tx + dy * ty + dz * tz);
  vy = -(dx * bx + dy * by + dz * bz);
  vz = max<f32>(1e-4, -(dx * nx + dy * ny + dz * nz));
  matt = rough >= 0.9 && metal == 0;
  pCoat = 0;
  pSpecular = 0;
  eD = 0;
  eDMean = 0;
  let left: f32 = 1;
  if (coat > 0) {
    const r = load<f32>(m, 92);
    ac = max<f32>(0.002, r * r);
    const p = rowAt(r);
    const i = min<i32>(STEPS - 1, <i32>p);
    coatRowA = albedos + <usize>i * ROW;
    coatRowB = coatRowA + ROW;
    coatRowW = p - <f32>i;
    albedoAt(coatRowA, coatRowB, coatRowW, vz);
    eC = coat * withFresnel(0.04);
    meanAlbedos(coatRowA, coatRowB, coatRowW);
    eCMean = coat * withFresnel(0.04);
    left = <f32>1 - eC;
  }
  const bright = max(cr, max(cg, cb));
  if (!matt) {
    f0 = load<f32>(m, 36);
    const a = max<f32>(0.002, rough * rough);
    const grain = load<f32>(m, 96);
    // Burley 2012: the widths along and across keep their product.
    const stretch = sqrt<f32>(<f32>1 - <f32>0.9 * abs(grain));
    // Lines that run along growing u scatter light across them.
    ax = grain > 0 ? max<f32>(0.002, a * stretch) : min<f32>(1, a / stretch);
    ay = grain > 0 ? min<f32>(1, a / stretch) : max<f32>(0.002, a * stretch);
    if (grain == 0) {
      ax = a;
      ay = a;
    }
    // Of a grain, the smoother way: what is made up for never exceeds what is lost.
    const p = rowAt(sqrt<f32>(min(ax, ay)));
    const i = min<i32>(STEPS - 1, <i32>p);
    rowA = albedos + <usize>i * ROW;
    rowB = rowA + ROW;
    rowW = p - <f32>i;
    albedoAt(rowA, rowB, rowW, vz);
    eD = withFresnel(f0);
    eM = albedoOne;
    const grazing = albedoFifth;
    meanAlbedos(rowA, rowB, rowW);
    eDMean = withFresnel(f0);
    eMMean = albedoOne;
    const spec = f0 * (<f32>1 - metal) + bright * metal;
    const specular = spec * (eM - grazing) + grazing;
    let body = (<f32>1 - metal) * (<f32>1 - eD) * bright;
    if (metal > 0) {
      manyR = metal * many(cr);
      manyG = metal * many(cg);
      manyB = metal * many(cb);
      body += max(manyR, max(manyG, manyB)) * (<f32>1 - eM);
    } else {
      manyR = 0;
      manyG = 0;
      manyB = 0;
    }
    pSpecular = min<f32>(<f32>0.95, max<f32>(<f32>0.15, specular / (specular + body + <f32>1e-6)));
  }
  if (coat > 0) {
    pCoat = min<f32>(<f32>0.8, max<f32>(<f32>0.1, eC / (eC + left * max<f32>(bright, <f32>0.05))));
    pSpecular *= <f32>1 - pCoat;
  }
}

/** One microfacet lobe without Fresnel, times cosine; its density is left in `lobeDensity`, the cosine to its facet in `facet`. */
let lobeDensity: f32 = 0;
let facet: f32 = 0;
// @ts-ignore: decorator
@inline
function lobe(lx: f32, ly: f32, lz: f32, a: f32, b: f32): f32 {
  let hx = vx + lx, hy = vy + ly, hz = vz + lz;
  const l = <f32>1 / sqrt<f32>(hx * hx + hy * hy + hz * hz);
  hx *= l;
  hy *= l;
  hz *= l;
  facet = vx * hx + vy * hy + vz * hz;
  const d = facets(hx, hy, hz, a, b) / (<f32>4 * vz), lv = lambda(a * vx, b * vy, vz);
  lobeDensity = d / (<f32>1 + lv);
  return d / (<f32>1 + lv + lambda(a * lx, b * ly, lz));
}

/** Scattering times cosine towards a local direction; returns the density of scattering there. */
function evaluate(m: usize, lx: f32, ly: f32, lz: f32): f32 {
  const below = lz <= 0;
  if (below && through <= 0) return 0;
  const c = abs(lz);
  // What the layers above leave of the body: coupled by their albedos, so that a white body under them gives back all.
  let over: f32 = 1, body: f32 = 1;
  if (coat > 0) {
    albedoAt(coatRowA, coatRowB, coatRowW, c);
    const e = coat * withFresnel(0.04);
    over = (<f32>1 - eC) * (<f32>1 - e);
    body = over / (<f32>1 - eCMean);
  }
  let one: f32 = 1;
  if (!matt) {
    albedoAt(rowA, rowB, rowW, c);
    one = albedoOne;
    body *= ((<f32>1 - eD) * (<f32>1 - withFresnel(f0))) / (<f32>1 - eDMean);
  }
  const pBody = <f32>1 - pSpecular - pCoat;
  if (below) {
    const k = through * (<f32>1 - metal) * body * (sheen > 0 ? belowFibres(m, c) : <f32>1) * c * OVER_PI;
    valueR = cr * k;
    valueG = cg * k;
    valueB = cb * k;
    return pBody * through * c * OVER_PI;
  }
  const k = (<f32>1 - through) * (<f32>1 - metal) * body * c * OVER_PI;
  let density = pBody * (<f32>1 - through) * c * OVER_PI;
  let r = cr * k, g = cg * k, b = cb * k;
  if (!matt) {
    const s = lobe(lx, ly, lz, ax, ay) * over;
    const w = fifth(max<f32>(0, <f32>1 - facet));
    const f = f0 * (<f32>1 - metal);
    const fr = f + cr * metal, fg = f + cg * metal, fb = f + cb * metal;
    r += s * (fr + (<f32>1 - fr) * w);
    g += s * (fg + (<f32>1 - fg) * w);
    b += s * (fb + (<f32>1 - fb) * w);
    density += pSpecular * lobeDensity;
    if (metal > 0) {
      const lost = (over * c * OVER_PI * (<f32>1 - eM) * (<f32>1 - one)) / max<f32>(1e-4, <f32>1 - eMMean);
      r += manyR * lost;
      g += manyG * lost;
      b += manyB * lost;
    }
  }
  if (coat > 0) {
    const s = coat * lobe(lx, ly, lz, ac, ac);
    const f = s * (<f32>0.04 + <f32>0.96 * fifth(max<f32>(0, <f32>1 - facet)));
    r += f;
    g += f;
    b += f;
    density += pCoat * lobeDensity;
  }
  if (sheen > 0) {
    const left = belowFibres(m, lz);
    const hz = (vz + lz) / sqrt<f32>(<f32>2 + <f32>2 * (vx * lx + vy * ly + vz * lz));
    const sin = sqrt<f32>(max<f32>(0, <f32>1 - hz * hz));
    const fibres = sheen * ((<f32>(2 + 1 / 0.36) * Mathf.pow(sin, <f32>(1 / 0.36))) / (<f32>2 * PI) / (<f32>4 * (vz + lz - vz * lz))) * lz;
    r = r * left + load<f32>(m) * fibres;
    g = g * left + load<f32>(m, 4) * fibres;
    b = b * left + load<f32>(m, 8) * fibres;
  }
  valueR = r;
  valueG = g;
  valueB = b;
  return density;
}

/** Scattering towards a direction of the room; returns the density of scattering there, 0 for none. */
export function towards(m: usize, dx: f32, dy: f32, dz: f32): f32 {
  const lz = dx * nx + dy * ny + dz * nz;
  if ((dx * gx + dy * gy + dz * gz) * lz <= 0) return 0;
  return evaluate(m, dx * tx + dy * ty + dz * tz, dx * bx + dy * by + dz * bz, lz);
}

let sn: f32 = 0;
let cs: f32 = 0;
/** Sine and cosine of 2πu − π for u in 0…1: half the angle lies in −π/2…π/2, where the cosine is a root and no quadrant is asked for. */
// @ts-ignore: decorator
@inline
export function turn(u: f32): void {
  const h = PI * (u - <f32>0.5), q = h * h;
  const s = h * (<f32>1 + q * (<f32>-0.16666659 + q * (<f32>0.0083330255 + q * (<f32>-0.00019807414 + q * <f32>2.6019031e-6))));
  sn = <f32>2 * s * sqrt<f32>(max<f32>(0, <f32>1 - s * s));
  cs = <f32>1 - <f32>2 * s * s;
}
// @ts-ignore: decorator
@inline
export function turnedCos(): f32 {
  return cs;
}
// @ts-ignore: decorator
@inline
export function turnedSin(): f32 {
  return sn;
}

/** Draws a direction to scatter to; returns its density, 0 where the path ends. @param from the first dimension of the bounce */
export function scatter(m: usize, from: u32): f32 {
  let lx: f32, ly: f32, lz: f32;
  const which = single(from);
  const side = second;
  const u = pair(from + 1);
  const v = second;
  if (which < pSpecular + pCoat) {
    const a = which < pSpecular ? ax : ac, b = which < pSpecular ? ay : ac;
    let hx = a * vx, hy = b * vy, hz = vz;
    const l = <f32>1 / sqrt<f32>(hx * hx + hy * hy + hz * hz);
    hx *= l;
    hy *= l;
    hz *= l;
    const l2 = hx * hx + hy * hy;
    const il = l2 > 0 ? <f32>1 / sqrt<f32>(l2) : <f32>0;
    const t1x = l2 > 0 ? -hy * il : <f32>1, t1y = hx * il;
    const t2x = -hz * t1y, t2y = hz * t1x, t2z = hx * t1y - hy * t1x;
    const r = sqrt<f32>(u);
    turn(v);
    const p1 = r * cs;
    const s = (<f32>1 + hz) * <f32>0.5;
    const p2 = (<f32>1 - s) * sqrt<f32>(max<f32>(0, <f32>1 - p1 * p1)) + s * r * sn;
    const p3 = sqrt<f32>(max<f32>(0, <f32>1 - p1 * p1 - p2 * p2));
    let qx = a * (p1 * t1x + p2 * t2x + p3 * hx), qy = b * (p1 * t1y + p2 * t2y + p3 * hy), qz = max<f32>(1e-6, p2 * t2z + p3 * hz);
    const k = <f32>1 / sqrt<f32>(qx * qx + qy * qy + qz * qz);
    qx *= k;
    qy *= k;
    qz *= k;
    const vh = vx * qx + vy * qy + vz * qz;
    lx = <f32>2 * vh * qx - vx;
    ly = <f32>2 * vh * qy - vy;
    lz = <f32>2 * vh * qz - vz;
    if (lz <= 1e-5) return 0;
  } else {
    turn(v);
    const s = sqrt<f32>(u);
    lx = s * cs;
    ly = s * sn;
    lz = sqrt<f32>(max<f32>(1e-9, <f32>1 - u));
    if (through > 0 && side < through) lz = -lz;
  }
  wx = tx * lx + bx * ly + nx * lz;
  wy = ty * lx + by * ly + ny * lz;
  wz = tz * lx + bz * ly + nz * lz;
  if ((wx * gx + wy * gy + wz * gz) * lz <= 0) return 0;
  return evaluate(m, lx, ly, lz);
}

/** What a layer that dims lets through, at a place in a triangle, of a ray along `d`: a share of each channel, in `valueR`, `valueG`, `valueB`. */
export function passed(tri: usize, instance: i32, u: f32, v: f32, dx: f32, dy: f32, dz: f32): void {
  const word = load<i32>(tri, 12);
  const m = materials + (<usize>(word & 0xffff) << 7);
  if (load<i32>(m, 40) & PANE) {
    gx = load<f32>(tri);
    gy = load<f32>(tri, 4);
    gz = load<f32>(tri, 8);
    if (instance >= 0) {
      outwardNormal(instances + (<usize>instance << 7), gx, gy, gz);
      const l = <f32>1 / sqrt<f32>(ix * ix + iy * iy + iz * iz);
      gx = ix * l;
      gy = iy * l;
      gz = iz * l;
    }
    // Through glass as paths go straight through it: one face after the other.
    const f = <f32>1 - fresnel(dx * gx + dy * gy + dz * gz, load<f32>(m, 20));
    valueR = f * sqrt<f32>(load<f32>(m));
    valueG = f * sqrt<f32>(load<f32>(m, 4));
    valueB = f * sqrt<f32>(load<f32>(m, 8));
  } else {
    matter = 1;
    if (load<i32>(m, 40) & OPEN) at(tri, instance, u, v, m, dx, dy, dz);
    const k = <f32>1 - load<f32>(m, 24) * matter;
    valueR = k;
    valueG = k;
    valueB = k;
  }
}

/** The triangle of a number. */
// @ts-ignore: decorator
@inline
export function triangle(id: i32): usize {
  return triangles + (<usize>id << 7);
}
