// Whole paths, in batches: rays from the eye, their nearest hits, shading, shadow rays; what goes on is the next batch's work.
//
// Path, 96 bytes: 0 ray (origin, tmin, direction, tmax); 32 throughput; 44 its place in the batch; 48 where it was scattered last,
//   60 with what density; 64 state; 68 instance hit; 72 hash of its pixel; 76 number of its sample; 80 hit (t, u, v, triangle).
// State: how it came in bits 0–7, how often it has met something in bits 8–15, whether it is what the eye sees outside in bit 16.
// Shadow ray, 64 bytes: 0 ray; 32 light; 44 place in the batch; 48 kind of light; 52 light group; 56 most light it may bring.
// Camera, 256 bytes: 0 kind (perspective, parallel, sphere, given rays); 4 planes of the cut; 8 whether the eye is indoors; 16 eye;
//   32 forward; 48, 64 half the picture's width and height from its middle; 80 lens radius, 84 distance in focus; 88 width, 92
//   height of the whole picture; 96 axis; 112, 128 unit directions across the lens; 144 planes (normal, offset).
// Frame, 32 bytes: 0 x, 4 y, 8 width, 12 height of the part that is traced; 16 seed; 20, 24 sample numbers: own = count × stride + offset.
import { blocked, blocker, blocksIn, dims, hitId, hitInstance, hitT, hitU, hitV, nearest } from './hierarchy';
import {
  aimLamp,
  aimSky,
  aimSun,
  drawn,
  dx as lightX,
  dy as lightY,
  dz as lightZ,
  EPS,
  far,
  group,
  kind,
  lampDensity,
  lb,
  leadsOut,
  lg,
  lookAtSky,
  lr,
  near,
  px as pointX,
  py as pointY,
  pz as pointZ,
  skyB,
  skyDensity,
  skyG,
  SKY_GROUP,
  skyR,
  SUN_GROUP,
} from './lights';
import { farB, farG, farR, lookBeyond } from './beyond';
import { begin, hash, pair, second, single } from './sampler';
import { beyond, GLOWS, groups, hasSky, instances, lampCount, materials, outside, PANE, paneCount, paneGroups, portalCount, SLOPED, SOLID, sun, sunUp, UNSEEN } from './scene';
import {
  at,
  cb,
  cg,
  cr,
  fresnel,
  gx,
  gy,
  gz,
  meet,
  mirrors,
  nx,
  ny,
  nz,
  passed,
  scatter,
  matter,
  sx,
  sy,
  sz,
  towards,
  triangle,
  turn,
  turnedCos,
  turnedSin,
  valueB,
  valueG,
  valueR,
  wx,
  wy,
  wz,
} from './surface';

/** Scattered, where lights have been aimed at already; by mirrors and glass alone since the eye; by these after it was scattered. */
const SCATTERED: i32 = 0;
const FROM_EYE: i32 = 1;
const MIRRORED: i32 = 2;
const OUTSIDE: i32 = 1 << 16;
const MET: i32 = 1 << 8;

const BATCH: i32 = 16384;
/** From how many meetings on a path is ended by chance, as little as it carries. */
const ROULETTE: i32 = 2;
const PAIRS: u32 = 8;

let camera: usize = 0;
let frame: usize = 0;
let list: usize = 0;
let given: usize = 0;
let counts: usize = 0;
let sums: usize = 0;
let squares: usize = 0;
let guides: usize = 0;
/** The object that each pixel shows, 4 bytes each: that of the first sample that met one. */
let objects: usize = 0;
let bounces: i32 = 10;
let clamp: f32 = Infinity;
/** Where what the limit takes is added up, four words a pixel; nowhere where that is not asked. */
let taken: usize = 0;
/** Whether the eye passes over what shines by itself: the sun’s disc and luminaires, which others add. */
let bare: bool = false;
let pathsA: usize = 0;
let pathsB: usize = 0;
let queue: usize = 0;
let pixels: usize = 0;
let samples: usize = 0;
let queued: i32 = 0;
const OCCLUDERS: i32 = 14;
let occluders: usize = 0;

/** Rays sent so far, for measuring. */
export let nearestRays: u32 = 0;
export let shadowRays: u32 = 0;

/** How often glass that is looked at mirrors at least: before a dark room few would meet what it shows, and it would be speckled. */
const OFTEN: f32 = 0.2;

/** How often a path is turned back by a boundary of glass; its weight makes up for the difference. @param f what it reflects */
// @ts-ignore: decorator
@inline
function oftener(f: f32, spec: i32, depth: i32): f32 {
  return spec == FROM_EYE && depth < 2 && f < OFTEN ? OFTEN : f;
}

/** Room for batches; once. */
export function preparePaths(): void {
  pathsA = heap.alloc(BATCH * 96);
  pathsB = heap.alloc(BATCH * 96);
  queue = heap.alloc(BATCH * 3 * 64);
  pixels = heap.alloc(BATCH * 4);
  samples = heap.alloc((BATCH * groups) << 4);
  occluders = heap.alloc(4 << OCCLUDERS);
  memory.fill(occluders, 0, 4 << OCCLUDERS);
}

export function configurePaths(p: usize): void {
  camera = load<i32>(p);
  frame = load<i32>(p, 4);
  list = load<i32>(p, 8);
  given = load<i32>(p, 12);
  counts = load<i32>(p, 16);
  sums = load<i32>(p, 20);
  squares = load<i32>(p, 24);
  guides = load<i32>(p, 28);
  bounces = load<i32>(p, 32);
  clamp = load<f32>(p, 36);
  taken = load<i32>(p, 40);
  bare = load<i32>(p, 44) != 0;
  objects = load<i32>(p, 48);
}

// @ts-ignore: decorator
@inline
function put(p: usize, r: f32, g: f32, b: f32): void {
  v128.store(p, f32x4.add(v128.load(p), f32x4.replace_lane(f32x4.replace_lane(f32x4.replace_lane(f32x4.splat(0), 0, r), 1, g), 2, b)));
}

// @ts-ignore: decorator
@inline
function deposit(slot: i32, g: i32, r: f32, gr: f32, b: f32, limit: f32): void {
  const l = <f32>0.2126 * r + <f32>0.7152 * gr + <f32>0.0722 * b;
  // Nothing that is not a number gets in.
  if (!(l >= 0) || l == Infinity) return;
  const k = l > limit ? limit / l : <f32>1;
  // What is seen outside is shown as bright as is wished, once all of it is weighed.
  const shown = g == groups - 1 ? outside : <f32>1;
  put(samples + (<usize>(slot * groups + g) << 4), r * k * shown, gr * k * shown, b * k * shown);
  const cut = (<f32>1 - k) * shown;
  if (taken && cut > 0) put(taken + (<usize>load<i32>(pixels + (<usize>slot << 2)) << 4), r * cut, gr * cut, b * cut);
}

// @ts-ignore: decorator
@inline
function groupOf(state: i32, own: i32): i32 {
  return state & OUTSIDE ? groups - 1 : own;
}

// @ts-ignore: decorator
@inline
function go(q: usize, p: usize, x: f32, y: f32, z: f32, dx: f32, dy: f32, dz: f32, tr: f32, tg: f32, tb: f32, state: i32, density: f32): void {
  store<f32>(q, x);
  store<f32>(q, y, 4);
  store<f32>(q, z, 8);
  store<f32>(q, 0, 12);
  store<f32>(q, dx, 16);
  store<f32>(q, dy, 20);
  store<f32>(q, dz, 24);
  store<f32>(q, 1e30, 28);
  store<f32>(q, tr, 32);
  store<f32>(q, tg, 36);
  store<f32>(q, tb, 40);
  store<i32>(q, load<i32>(p, 44), 44);
  store<f32>(q, density, 60);
  store<i32>(q, state, 64);
  store<u64>(q, load<u64>(p, 72), 72);
}

/** Lets a path go on as it came: it keeps where it was scattered, so that the light behind is weighed right. */
// @ts-ignore: decorator
@inline
function straight(q: usize, p: usize, x: f32, y: f32, z: f32, tr: f32, tg: f32, tb: f32, state: i32): void {
  const from = v128.load(p, 48);
  const dx = load<f32>(p, 16), dy = load<f32>(p, 20), dz = load<f32>(p, 24), density = load<f32>(p, 60);
  v128.store(q, from, 48);
  go(q, p, x, y, z, dx, dy, dz, tr, tg, tb, state, density);
}

/**
 * Adds what a sample of a pixel met to its guides: depth, normal, and whether it met anything. What glass mirrors faintly says
 * as little of what is seen there as it carries; the rest stays as it was so far.
 */
function addMet(at: usize, p: usize, depth: f32, ax: f32, ay: f32, az: f32, met: f32): void {
  const w = min<f32>(1, max(load<f32>(p, 32), max(load<f32>(p, 36), load<f32>(p, 40))));
  const before = load<u32>(counts + (<usize>load<i32>(pixels + (<usize>load<i32>(p, 44) << 2)) << 2));
  const own: f32 = before ? w : 1;
  const so: f32 = before ? (<f32>1 - w) / <f32>before : 0;
  store<f32>(at, load<f32>(at, 12) * (<f32>1 + so) + own * depth, 12);
  store<f32>(at, load<f32>(at, 16) * (<f32>1 + so) + own * ax, 16);
  store<f32>(at, load<f32>(at, 20) * (<f32>1 + so) + own * ay, 20);
  store<f32>(at, load<f32>(at, 24) * (<f32>1 + so) + own * az, 24);
  store<f32>(at, load<f32>(at, 28) * (<f32>1 + so) + own * met, 28);
}

function guide(p: usize, tri: usize, x: f32, y: f32, z: f32, r: f32, g: f32, b: f32): void {
  if (!guides) return;
  const at = guides + (<usize>load<i32>(pixels + (<usize>load<i32>(p, 44) << 2)) << 5);
  const depth =
    (x - load<f32>(camera, 16)) * load<f32>(camera, 96) + (y - load<f32>(camera, 20)) * load<f32>(camera, 100) + (z - load<f32>(camera, 24)) * load<f32>(camera, 104);
  addMet(at, p, depth, sx, sy, sz, 1);
  store<f32>(at, load<f32>(at) + min<f32>(1, r));
  store<f32>(at, load<f32>(at, 4) + min<f32>(1, g), 4);
  store<f32>(at, load<f32>(at, 8) + min<f32>(1, b), 8);
  const own = objects + (<usize>load<i32>(pixels + (<usize>load<i32>(p, 44) << 2)) << 2);
  if (load<i32>(own)) return;
  const instance = load<i32>(p, 68);
  store<i32>(own, instance < 0 ? load<i32>(tri, 100) : load<i32>(instances + (<usize>instance << 7), 100));
}

function miss(p: usize, state: i32, tr: f32, tg: f32, tb: f32, dx: f32, dy: f32, dz: f32, limit: f32): void {
  const spec = state & 255;
  if (spec == FROM_EYE && guides) {
    const at = guides + (<usize>load<i32>(pixels + (<usize>load<i32>(p, 44) << 2)) << 5);
    addMet(at, p, 0, 0, 0, 0, 0);
    store<f32>(at, load<f32>(at) + min<f32>(1, tr));
    store<f32>(at, load<f32>(at, 4) + min<f32>(1, tg), 4);
    store<f32>(at, load<f32>(at, 8) + min<f32>(1, tb), 8);
  }
  if (spec == FROM_EYE && beyond && lookBeyond(load<f32>(p), load<f32>(p, 4), load<f32>(p, 8), dx, dy, dz)) {
    // The sun stands behind it: what is in the picture of it is seen.
    deposit(load<i32>(p, 44), groupOf(state, SKY_GROUP), tr * farR, tg * farG, tb * farB, limit);
    return;
  }
  if (!hasSky) return;
  lookAtSky(dx, dy, dz);
  const r = skyR, g = skyG, b = skyB;
  let w: f32 = 1;
  if (spec == SCATTERED && portalCount) {
    const own = load<f32>(p, 60);
    const other = skyDensity(load<f32>(p, 48), load<f32>(p, 52), load<f32>(p, 56), dx, dy, dz, false);
    w = (own * own) / (own * own + other * other);
  }
  deposit(load<i32>(p, 44), groupOf(state, SKY_GROUP), tr * r * w, tg * g * w, tb * b * w, limit);
  if (spec == FROM_EYE && !bare && dx * load<f32>(sun) + dy * load<f32>(sun, 4) + dz * load<f32>(sun, 8) > load<f32>(sun, 52)) {
    const k = load<f32>(sun, 56);
    deposit(load<i32>(p, 44), groupOf(state, SUN_GROUP), tr * load<f32>(sun, 64) * k, tg * load<f32>(sun, 68) * k, tb * load<f32>(sun, 72) * k, limit);
  }
}

/**
 * Puts the way to the light aimed at on the list of shadow rays. It sets out a little off the surface; to a point near by it is
 * taken anew from there, as at grazing angles the old direction would meet the luminaire's plane before its end.
 */
function connect(p: usize, x: f32, y: f32, z: f32, r: f32, g: f32, b: f32, state: i32): void {
  const e: f32 = lightX * gx + lightY * gy + lightZ * gz > 0 ? EPS : -EPS;
  const ray = queue + (<usize>queued << 6);
  queued++;
  const ox = x + gx * e, oy = y + gy * e, oz = z + gz * e;
  let dx = lightX, dy = lightY, dz = lightZ, end = far;
  if (near) {
    dx = pointX - ox;
    dy = pointY - oy;
    dz = pointZ - oz;
    end = sqrt<f32>(dx * dx + dy * dy + dz * dz);
    const l = <f32>1 / end;
    dx *= l;
    dy *= l;
    dz *= l;
  }
  store<f32>(ray, ox);
  store<f32>(ray, oy, 4);
  store<f32>(ray, oz, 8);
  store<f32>(ray, 0, 12);
  store<f32>(ray, dx, 16);
  store<f32>(ray, dy, 20);
  store<f32>(ray, dz, 24);
  store<f32>(ray, end, 28);
  store<f32>(ray, r * valueR * lr, 32);
  store<f32>(ray, g * valueG * lg, 36);
  store<f32>(ray, b * valueB * lb, 40);
  store<i32>(ray, load<i32>(p, 44), 44);
  store<i32>(ray, kind, 48);
  store<i32>(ray, groupOf(state, group), 52);
  store<f32>(ray, (state >> 8) & 255 ? clamp : Infinity, 56);
}

/**
 * Sends shadow rays towards sun, sky through an opening, and a luminaire: all at the first hit; later always to the sun, whose
 * patches are small and bright, and to one of the others.
 */
function aim(m: usize, p: usize, state: i32, x: f32, y: f32, z: f32, tr: f32, tg: f32, tb: f32, from: u32): void {
  const sky = hasSky && portalCount > 0, lamp = lampCount > 0;
  const both = sky && lamp && ((state >> 8) & 255) > 0;
  let first = false;
  let boost: f32 = 1;
  if (both) {
    pair(from);
    first = second < 0.5;
    boost = 2;
  }
  if (sunUp) {
    aimSun(from + 3);
    if (towards(m, lightX, lightY, lightZ) > 0) connect(p, x, y, z, tr, tg, tb, state);
  }
  if (sky && (!both || first) && aimSky(x, y, z, from + 4)) {
    const s = towards(m, lightX, lightY, lightZ);
    if (s > 0) {
      const own = skyDensity(x, y, z, lightX, lightY, lightZ, true);
      if (own > 0) {
        const w = boost * (own / (own * own + s * s));
        connect(p, x, y, z, tr * w, tg * w, tb * w, state);
      }
    }
  }
  if (lamp && (!both || !first) && aimLamp(x, y, z, from + 6)) {
    const s = towards(m, lightX, lightY, lightZ);
    if (s > 0) {
      const w = boost * (drawn / (drawn * drawn + s * s));
      connect(p, x, y, z, tr * w, tg * w, tb * w, state);
    }
  }
}

/** Shades the hit of path `p`; writes what goes on to `q`. */
function shade(p: usize, q: usize): bool {
  let state = load<i32>(p, 64);
  const spec = state & 255;
  const depth = (state >> 8) & 255;
  let tr = load<f32>(p, 32), tg = load<f32>(p, 36), tb = load<f32>(p, 40);
  const dx = load<f32>(p, 16), dy = load<f32>(p, 20), dz = load<f32>(p, 24);
  const id = load<i32>(p, 92);
  const t = load<f32>(p, 80);
  if (spec == FROM_EYE && !(state & OUTSIDE) && load<i32>(camera, 8) && leadsOut(load<f32>(p), load<f32>(p, 4), load<f32>(p, 8), dx, dy, dz, id < 0 ? <f32>1e30 : t))
    state |= OUTSIDE;
  const limit: f32 = depth == 0 || spec == FROM_EYE ? Infinity : clamp;
  if (id < 0) {
    miss(p, state, tr, tg, tb, dx, dy, dz, limit);
    return false;
  }
  const tri = triangle(id);
  const word = load<i32>(tri, 12);
  const m = materials + (<usize>(word & 0xffff) << 7);
  const x = load<f32>(p) + dx * t, y = load<f32>(p, 4) + dy * t, z = load<f32>(p, 8) + dz * t;
  const front = at(tri, load<i32>(p, 68), load<f32>(p, 84), load<f32>(p, 88), m, dx, dy, dz);
  const next = state + MET;
  // What is left out of the picture is passed by the eye alone.
  if (word & UNSEEN && spec == FROM_EYE && depth < 200) {
    straight(q, p, x - gx * EPS, y - gy * EPS, z - gz * EPS, tr, tg, tb, next);
    return true;
  }
  begin(load<u32>(p, 72), load<u32>(p, 76));
  const from: u32 = 2 + <u32>depth * PAIRS;
  const flags = load<i32>(m, 40);
  const opacity = load<f32>(m, 24) * matter;
  if (opacity < 1 && depth < bounces && single(from) >= opacity) {
    straight(q, p, x - gx * EPS, y - gy * EPS, z - gz * EPS, tr, tg, tb, next);
    return true;
  }
  if (flags & GLOWS && front) {
    if (spec == FROM_EYE) guide(p, tri, x, y, z, tr, tg, tb);
    let w: f32 = 1;
    const lamp = load<i32>(m, 44);
    if (spec == SCATTERED && lamp >= 0) {
      const own = load<f32>(p, 60);
      const other = lampDensity(load<f32>(p, 48), load<f32>(p, 52), load<f32>(p, 56), x, y, z, -(dx * gx + dy * gy + dz * gz), lamp);
      w = (own * own) / (own * own + other * other);
    }
    if (!bare || spec != FROM_EYE)
      deposit(load<i32>(p, 44), groupOf(state, load<i32>(m, 100)), tr * load<f32>(m, 48) * w, tg * load<f32>(m, 52) * w, tb * load<f32>(m, 56) * w, limit);
    if (cr + cg + cb == 0) return false;
  }
  if (depth >= bounces) return false;
  const mirrored = (next & ~255) | (spec == FROM_EYE ? FROM_EYE : MIRRORED);
  // What is seen through ribbed glass is bent; the light that scattered paths find behind it comes straight, as shadow rays go.
  const ribbed = (flags & (PANE | SLOPED)) == (PANE | SLOPED) && spec != SCATTERED;
  if (flags & PANE && !ribbed) {
    const c = dx * gx + dy * gy + dz * gz;
    const f = fresnel(c, load<f32>(m, 20));
    const often = oftener(f, spec, depth);
    if (single(from) < often) {
      const k = <f32>2 * c;
      const w = f / often;
      go(q, p, x + gx * EPS, y + gy * EPS, z + gz * EPS, dx - k * gx, dy - k * gy, dz - k * gz, tr * w, tg * w, tb * w, mirrored, 0);
    } else {
      const w = often < 1 ? (<f32>1 - f) / (<f32>1 - often) : <f32>1;
      straight(q, p, x - gx * EPS, y - gy * EPS, z - gz * EPS, tr * sqrt<f32>(cr) * w, tg * sqrt<f32>(cg) * w, tb * sqrt<f32>(cb) * w, next);
    }
    return true;
  }
  if (flags & SOLID || ribbed) {
    const ior = load<f32>(m, 20);
    const eta = front ? ior : <f32>1 / ior;
    // Ribbed glass is flat where light enters and ribbed where it leaves.
    const own = ribbed && !front;
    const ax = own ? nx : gx, ay = own ? ny : gy, az = own ? nz : gz;
    const c = -(dx * ax + dy * ay + dz * az);
    const s2 = (<f32>1 - c * c) / (eta * eta);
    const f = s2 <= 1 ? fresnel(c, eta) : <f32>1;
    const often = oftener(f, spec, depth);
    if (single(from) >= often) {
      const k = c / eta - sqrt<f32>(<f32>1 - s2);
      const ie = <f32>1 / eta;
      const state2 = ribbed ? next : mirrored;
      const w = (<f32>1 - f) / (<f32>1 - often);
      tr *= w;
      tg *= w;
      tb *= w;
      go(q, p, x - gx * EPS, y - gy * EPS, z - gz * EPS, dx * ie + k * ax, dy * ie + k * ay, dz * ie + k * az, front ? tr * cr : tr, front ? tg * cg : tg, front ? tb * cb : tb, state2, 0);
    } else {
      const k = <f32>2 * (dx * gx + dy * gy + dz * gz);
      const w = f / often;
      go(q, p, x + gx * EPS, y + gy * EPS, z + gz * EPS, dx - k * gx, dy - k * gy, dz - k * gz, tr * w, tg * w, tb * w, mirrored, 0);
    }
    return true;
  }
  if (mirrors(m)) {
    const k = <f32>2 * (dx * nx + dy * ny + dz * nz);
    go(q, p, x + gx * EPS, y + gy * EPS, z + gz * EPS, dx - k * nx, dy - k * ny, dz - k * nz, tr * cr, tg * cg, tb * cb, mirrored, 0);
    return true;
  }
  meet(m, dx, dy, dz);
  if (spec == FROM_EYE && !(flags & GLOWS)) guide(p, tri, x, y, z, tr * cr, tg * cg, tb * cb);
  aim(m, p, state, x, y, z, tr, tg, tb, from);
  const d = scatter(m, from + 1);
  if (d <= 0) return false;
  const inverse = <f32>1 / d;
  tr *= valueR * inverse;
  tg *= valueG * inverse;
  tb *= valueB * inverse;
  if (depth >= ROULETTE) {
    const survive = min<f32>(<f32>0.95, max(tr, max(tg, tb)));
    pair(from);
    // The other half of this number chose between lights.
    const chance = second < 0.5 ? second * <f32>2 : second * <f32>2 - <f32>1;
    if (chance >= survive) return false;
    const k = <f32>1 / survive;
    tr *= k;
    tg *= k;
    tb *= k;
  }
  const e: f32 = wx * gx + wy * gy + wz * gz > 0 ? EPS : -EPS;
  const ox = x + gx * e, oy = y + gy * e, oz = z + gz * e;
  go(q, p, ox, oy, oz, wx, wy, wz, tr, tg, tb, (next & ~255) | SCATTERED, d);
  store<f32>(q, x, 48);
  store<f32>(q, y, 52);
  store<f32>(q, z, 56);
  return true;
}

// ------------------------------------------------------------------ shadow rays
let rr: f32 = 0;
let rg: f32 = 0;
let rb: f32 = 0;
const PASSED: usize = memory.data(32, 16);

/** Takes what the panes of windows keep of a ray's light. */
function throughPanes(ray: usize): void {
  const x = load<f32>(ray), y = load<f32>(ray, 4), z = load<f32>(ray, 8);
  const dx = load<f32>(ray, 16), dy = load<f32>(ray, 20), dz = load<f32>(ray, 24);
  const X = f32x4.splat(x), Y = f32x4.splat(y), Z = f32x4.splat(z), DX = f32x4.splat(dx), DY = f32x4.splat(dy), DZ = f32x4.splat(dz);
  const FAR = f32x4.splat(load<f32>(ray, 28));
  const zero = f32x4.splat(0), one = f32x4.splat(1);
  for (let k = 0; k < paneCount; k += 4) {
    const p = paneGroups + (<usize>k << 6);
    const ex = f32x4.sub(v128.load(p), X), ey = f32x4.sub(v128.load(p, 16), Y), ez = f32x4.sub(v128.load(p, 32), Z);
    const n0 = v128.load(p, 48), n1 = v128.load(p, 64), n2 = v128.load(p, 80);
    const c = f32x4.add(f32x4.add(f32x4.mul(DX, n0), f32x4.mul(DY, n1)), f32x4.mul(DZ, n2));
    const t = f32x4.div(f32x4.add(f32x4.add(f32x4.mul(ex, n0), f32x4.mul(ey, n1)), f32x4.mul(ez, n2)), c);
    const qx = f32x4.sub(f32x4.mul(DX, t), ex), qy = f32x4.sub(f32x4.mul(DY, t), ey), qz = f32x4.sub(f32x4.mul(DZ, t), ez);
    const a = f32x4.add(f32x4.add(f32x4.mul(qx, v128.load(p, 160)), f32x4.mul(qy, v128.load(p, 176))), f32x4.mul(qz, v128.load(p, 192)));
    const b = f32x4.add(f32x4.add(f32x4.mul(qx, v128.load(p, 208)), f32x4.mul(qy, v128.load(p, 224))), f32x4.mul(qz, v128.load(p, 240)));
    let ok = v128.and(v128.and(f32x4.gt(t, zero), f32x4.lt(t, FAR)), f32x4.ge(f32x4.abs(c), f32x4.splat(1e-9)));
    ok = v128.and(ok, v128.and(v128.and(f32x4.ge(a, zero), f32x4.le(a, one)), v128.and(f32x4.ge(b, zero), f32x4.le(b, one))));
    let mask = i32x4.bitmask(ok);
    while (mask) {
      const q = p + (<usize>ctz(mask) << 2);
      mask &= mask - 1;
      const f = <f32>1 - fresnel(dx * load<f32>(q, 48) + dy * load<f32>(q, 64) + dz * load<f32>(q, 80), load<f32>(q, 144));
      rr *= f * f * load<f32>(q, 96);
      rg *= f * f * load<f32>(q, 112);
      rb *= f * f * load<f32>(q, 128);
    }
  }
}

/** Most layers a shadow ray is followed through: hardly any light is left behind them. */
const LAYERS: i32 = 24;

/** Takes what loose weaves and the glass of pieces keep, one layer after another. */
function dim(ray: usize): void {
  memory.copy(PASSED, ray, 32);
  const dx = load<f32>(ray, 16), dy = load<f32>(ray, 20), dz = load<f32>(ray, 24);
  for (let i = 0; i < LAYERS; i++) {
    nearest(PASSED);
    nearestRays++;
    if (hitId < 0) return;
    const tri = triangle(hitId);
    if (((load<i32>(tri, 12) >> 24) & 3) == 2) {
      passed(tri, hitInstance, hitU, hitV, dx, dy, dz);
      rr *= valueR;
      rg *= valueG;
      rb *= valueB;
    }
    store<f32>(PASSED, hitT + <f32>1e-5, 12);
  }
}

function resolve(ray: usize): void {
  shadowRays++;
  // What blocked a ray from about here to this light before is likely to block this one.
  const cx = <i32>floor(load<f32>(ray) * 2), cy = <i32>floor(load<f32>(ray, 4) * 2), cz = <i32>floor(load<f32>(ray, 8) * 2);
  const slot = occluders + (<usize>((cx * 73856093) ^ (cy * 19349663) ^ (cz * 83492791) ^ (load<i32>(ray, 48) * 3928695)) & ((1 << OCCLUDERS) - 1)) * 4;
  const leaf = <usize>load<i32>(slot);
  if (leaf && blocksIn(leaf, ray)) return;
  if (blocked(ray)) {
    store<i32>(slot, <i32>blocker);
    return;
  }
  rr = load<f32>(ray, 32);
  rg = load<f32>(ray, 36);
  rb = load<f32>(ray, 40);
  const veiled = dims;
  throughPanes(ray);
  if (veiled) dim(ray);
  deposit(load<i32>(ray, 44), load<i32>(ray, 52), rr, rg, rb, load<f32>(ray, 56));
}

// ------------------------------------------------------------------ eye
function eyeRay(q: usize, slot: i32, local: i32): void {
  const sample = load<u32>(counts + (<usize>local << 2)) * load<u32>(frame, 20) + load<u32>(frame, 24);
  const width = load<i32>(frame, 8);
  const cx = load<i32>(frame) + local % width, cy = load<i32>(frame, 4) + local / width;
  const key = hash((<u32>cy * <u32>0x10001 + <u32>cx * <u32>0x9e3779b1) ^ hash(load<u32>(frame, 16)));
  store<i32>(q, slot, 44);
  store<u32>(q, key, 72);
  store<u32>(q, sample, 76);
  const what = load<i32>(camera);
  if (what == 3) {
    const ray = given + (<usize>local << 5);
    go(q, q, load<f32>(ray), load<f32>(ray, 4), load<f32>(ray, 8), load<f32>(ray, 16), load<f32>(ray, 20), load<f32>(ray, 24), 1, 1, 1, FROM_EYE, 0);
    store<f32>(q, 1e-4, 12);
    return;
  }
  begin(key, sample);
  const u = pair(0), v = second;
  const x = ((<f32>cx + u) / <f32>load<i32>(camera, 88)) * <f32>2 - <f32>1;
  const y = <f32>1 - ((<f32>cy + v) / <f32>load<i32>(camera, 92)) * <f32>2;
  let ox = load<f32>(camera, 16), oy = load<f32>(camera, 20), oz = load<f32>(camera, 24);
  let dx = load<f32>(camera, 32), dy = load<f32>(camera, 36), dz = load<f32>(camera, 40);
  const rx = load<f32>(camera, 48), ry = load<f32>(camera, 52), rz = load<f32>(camera, 56);
  const ux = load<f32>(camera, 64), uy = load<f32>(camera, 68), uz = load<f32>(camera, 72);
  if (what == 0) {
    dx += rx * x + ux * y;
    dy += ry * x + uy * y;
    dz += rz * x + uz * y;
    const lens = load<f32>(camera, 80);
    if (lens > 0) {
      const r = lens * sqrt<f32>(pair(1));
      turn(second);
      const p = r * turnedCos(), s = r * turnedSin(), f = load<f32>(camera, 84);
      const ex = load<f32>(camera, 112) * p + load<f32>(camera, 128) * s;
      const ey = load<f32>(camera, 116) * p + load<f32>(camera, 132) * s;
      const ez = load<f32>(camera, 120) * p + load<f32>(camera, 136) * s;
      dx = dx * f - ex;
      dy = dy * f - ey;
      dz = dz * f - ez;
      ox += ex;
      oy += ey;
      oz += ez;
    }
  } else if (what == 1) {
    ox += rx * x + ux * y;
    oy += ry * x + uy * y;
    oz += rz * x + uz * y;
  } else {
    // Round the horizon, and up and down from it.
    turn(x * <f32>0.5 + <f32>0.5);
    const ca = turnedCos(), sa = turnedSin();
    turn(y * <f32>0.25 + <f32>0.5);
    const ce = turnedCos(), se = turnedSin();
    const fx = dx, fy = dy, fz = dz;
    dx = (fx * ca + rx * sa) * ce + ux * se;
    dy = (fy * ca + ry * sa) * ce + uy * se;
    dz = (fz * ca + rz * sa) * ce + uz * se;
  }
  const l = <f32>1 / sqrt<f32>(dx * dx + dy * dy + dz * dz);
  dx *= l;
  dy *= l;
  dz *= l;
  go(q, q, ox, oy, oz, dx, dy, dz, 1, 1, 1, FROM_EYE, 0);
  // The eye sees what lies on the kept side of every plane of the cut.
  let from: f32 = 1e-4, to: f32 = 1e30;
  const planes = load<i32>(camera, 4);
  for (let k = 0; k < planes; k++) {
    const a = camera + 144 + (<usize>k << 4);
    const n = load<f32>(a) * dx + load<f32>(a, 4) * dy + load<f32>(a, 8) * dz;
    const side = load<f32>(a) * ox + load<f32>(a, 4) * oy + load<f32>(a, 8) * oz + load<f32>(a, 12);
    if (n > 1e-9) from = max<f32>(from, -side / n);
    else if (n < -1e-9) to = min<f32>(to, -side / n);
    else if (side < 0) to = -1;
  }
  store<f32>(q, from, 12);
  store<f32>(q, to, 28);
}

/** Adds what the samples of a batch have brought to their pixels. */
function fold(count: i32): void {
  for (let i = 0; i < count; i++) {
    const pixel = <usize>load<i32>(pixels + (<usize>i << 2));
    let total = f32x4.splat(0);
    for (let g = 0; g < groups; g++) {
      const p = samples + (<usize>(i * groups + g) << 4);
      const s = sums + ((pixel * <usize>groups + <usize>g) << 4);
      const value = v128.load(p);
      total = f32x4.add(total, value);
      v128.store(s, f32x4.add(v128.load(s), value));
    }
    const l = <f32>0.2126 * f32x4.extract_lane(total, 0) + <f32>0.7152 * f32x4.extract_lane(total, 1) + <f32>0.0722 * f32x4.extract_lane(total, 2);
    const q = squares + (pixel << 2);
    store<f32>(q, load<f32>(q) + l * l);
    const c = counts + (pixel << 2);
    store<u32>(c, load<u32>(c) + 1);
  }
}

/** Adds one sample to each of the pixels on the list from `from` on, `count` of them. No pixel may stand on it twice. */
export function trace(from: i32, count: i32): void {
  for (let start = from; start < from + count; start += BATCH) {
    const size = min(BATCH, from + count - start);
    let a = pathsA, b = pathsB;
    memory.fill(samples, 0, (<usize>(size * groups)) << 4);
    for (let i = 0; i < size; i++) {
      const local = load<i32>(list + (<usize>(start + i) << 2));
      store<i32>(pixels + (<usize>i << 2), local);
      eyeRay(a + <usize>i * 96, i, local);
    }
    let alive = size;
    while (alive > 0) {
      for (let i = 0; i < alive; i++) {
        const p = a + <usize>i * 96;
        nearest(p);
        store<f32>(p, hitT, 80);
        store<f32>(p, hitU, 84);
        store<f32>(p, hitV, 88);
        store<i32>(p, hitId, 92);
        store<i32>(p, hitInstance, 68);
      }
      nearestRays += alive;
      queued = 0;
      let next = 0;
      for (let i = 0; i < alive; i++) if (shade(a + <usize>i * 96, b + <usize>next * 96)) next++;
      for (let i = 0; i < queued; i++) resolve(queue + (<usize>i << 6));
      alive = next;
      const c = a;
      a = b;
      b = c;
    }
    fold(size);
  }
}
