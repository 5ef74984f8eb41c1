/**
 * Splits boxes in two again and again by the binned surface area heuristic (Wald, "On fast construction of SAH-based
 * bounding volume hierarchies", 2007). A box is two vectors of four, its least and its greatest corner. A node is one box
 * with numbers in the fourth places: its first member, how many; then its left child (0: none) and its right one.
 */

const BINS: i32 = 16;
/** Few boxes need fewer bins: most of the work is in them. */
const FEW: u32 = 8;
const LEAF: u32 = 4;

/** Bytes of a box, of a node, of a bin. */
const BOX: usize = 32;
const NODE: usize = 48;
const BIN: usize = 48;

/** Bins of three axes, and areas to the right of each bin. */
const bins = memory.data(3 * 16 * 48, 16);
const rights = memory.data(16 * 8, 16);

let boxes: usize = 0;
let order: usize = 0;
let nodes: usize = 0;
let soloFrom: u32 = 0;
let made: u32 = 0;

function area(low: v128, high: v128): f64 {
  const e = f32x4.sub(high, low);
  const x: f64 = f32x4.extract_lane(e, 0);
  const y: f64 = f32x4.extract_lane(e, 1);
  const z: f64 = f32x4.extract_lane(e, 2);
  return x < 0 ? 0 : x * y + y * z + z * x;
}

function solo(start: u32, count: u32): bool {
  for (let i: u32 = 0; i < count; i++) if (load<u32>(order + ((<usize>(start + i)) << 2)) >= soloFrom) return true;
  return false;
}

/** Of one axis: cost of the best split, and after which bin. */
let foundCost: f64 = 0;
let foundBin: i32 = 0;
function sweep(axis: i32, count: u32, used: i32): void {
  const at = bins + <usize>(axis * BINS) * BIN;
  let low = f32x4.splat(Infinity);
  let high = f32x4.splat(-Infinity);
  let seen: u32 = 0;
  for (let b = used - 1; b > 0; b--) {
    const o = at + <usize>b * BIN;
    low = f32x4.min(low, v128.load(o));
    high = f32x4.max(high, v128.load(o, 16));
    seen += load<u32>(o, 32);
    store<f64>(rights + ((<usize>b) << 3), seen ? area(low, high) * <f64>seen : 0);
  }
  low = f32x4.splat(Infinity);
  high = f32x4.splat(-Infinity);
  seen = 0;
  foundCost = Infinity;
  foundBin = -1;
  for (let b = 0; b < used - 1; b++) {
    const o = at + <usize>b * BIN;
    low = f32x4.min(low, v128.load(o));
    high = f32x4.max(high, v128.load(o, 16));
    seen += load<u32>(o, 32);
    if (seen == 0 || seen == count) continue;
    const cost = area(low, high) * <f64>seen + load<f64>(rights + ((<usize>(b + 1)) << 3));
    if (cost < foundCost) {
      foundCost = cost;
      foundBin = b;
    }
  }
}

/** Bins of the three axes a centre falls into. */
// @ts-ignore: decorator
@inline
function binsOf(box: usize, low: v128, scale: v128): v128 {
  const centre = f32x4.add(v128.load(box), v128.load(box, 16));
  return i32x4.trunc_sat_f32x4_s(f32x4.mul(f32x4.sub(centre, low), scale));
}

function put(axis: i32, bin: i32, low: v128, high: v128): void {
  const o = bins + <usize>(axis * BINS + bin) * BIN;
  v128.store(o, f32x4.min(v128.load(o), low));
  v128.store(o, f32x4.max(v128.load(o, 16), high), 16);
  store<u32>(o, load<u32>(o, 32) + 1, 32);
}

function split(start: u32, count: u32): u32 {
  let low = f32x4.splat(Infinity);
  let high = f32x4.splat(-Infinity);
  // Centres, twice as far from the origin as they are.
  let near = low;
  let far = high;
  for (let i: u32 = 0; i < count; i++) {
    const box = boxes + <usize>load<u32>(order + ((<usize>(start + i)) << 2)) * BOX;
    const a = v128.load(box);
    const b = v128.load(box, 16);
    low = f32x4.min(low, a);
    high = f32x4.max(high, b);
    const c = f32x4.add(a, b);
    near = f32x4.min(near, c);
    far = f32x4.max(far, c);
  }
  const own = made++;
  const node = nodes + <usize>own * NODE;
  v128.store(node, i32x4.replace_lane(low, 3, start));
  v128.store(node, i32x4.replace_lane(high, 3, count), 16);
  store<u32>(node, 0, 32);
  store<u32>(node, 0, 36);
  if (count == 1 || (count <= LEAF && !solo(start, count))) return own;

  const used: i32 = count <= FEW ? FEW : BINS;
  const extent = f32x4.sub(far, near);
  // An axis along which all lie alike has no bins.
  const wide = f32x4.gt(extent, f32x4.splat(2e-9));
  const scale = v128.and(f32x4.div(f32x4.splat(<f32>used * 0.99999), extent), wide);
  for (let k = 0; k < 3; k++)
    for (let b = 0; b < used; b++) {
      const o = bins + <usize>(k * BINS + b) * BIN;
      v128.store(o, f32x4.splat(Infinity));
      v128.store(o, f32x4.splat(-Infinity), 16);
      store<u32>(o, 0, 32);
    }
  for (let i: u32 = 0; i < count; i++) {
    const box = boxes + <usize>load<u32>(order + ((<usize>(start + i)) << 2)) * BOX;
    const a = v128.load(box);
    const b = v128.load(box, 16);
    const at = binsOf(box, near, scale);
    put(0, i32x4.extract_lane(at, 0), a, b);
    put(1, i32x4.extract_lane(at, 1), a, b);
    put(2, i32x4.extract_lane(at, 2), a, b);
  }
  let axis = -1;
  let bin = -1;
  let best: f64 = Infinity;
  for (let k = 0; k < 3; k++) {
    const some = k == 0 ? i32x4.extract_lane(wide, 0) : k == 1 ? i32x4.extract_lane(wide, 1) : i32x4.extract_lane(wide, 2);
    if (!some) continue;
    sweep(k, count, used);
    if (foundCost < best) {
      best = foundCost;
      bin = foundBin;
      axis = k;
    }
  }
  let middle = start + (count >> 1);
  if (axis >= 0) {
    let i = start;
    let j = start + count;
    while (i < j) {
      const p = order + ((<usize>i) << 2);
      const at = binsOf(boxes + <usize>load<u32>(p) * BOX, near, scale);
      const b = axis == 0 ? i32x4.extract_lane(at, 0) : axis == 1 ? i32x4.extract_lane(at, 1) : i32x4.extract_lane(at, 2);
      if (b <= bin) i++;
      else {
        j--;
        const q = order + ((<usize>j) << 2);
        const swapped = load<u32>(p);
        store<u32>(p, load<u32>(q));
        store<u32>(q, swapped);
      }
    }
    if (i > start && i < start + count) middle = i;
  }
  const left = split(start, middle - start);
  const right = split(middle, start + count - middle);
  store<u32>(node, left, 32);
  store<u32>(node, right, 36);
  return own;
}

/**
 * @param at where the boxes lie @param members where their order is written @param into where nodes are written, two for each box at most
 * @param first boxes from this number on stand alone in a leaf
 * @returns how many nodes there are; the root is the first
 */
export function splitBoxes(at: usize, count: u32, first: u32, members: usize, into: usize): u32 {
  boxes = at;
  order = members;
  nodes = into;
  soloFrom = first;
  made = 0;
  for (let i: u32 = 0; i < count; i++) store<u32>(members + ((<usize>i) << 2), i);
  split(0, count);
  return made;
}
