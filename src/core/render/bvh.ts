import type { Matrix } from '../geometry/mesh';

/**
 * A bounding volume hierarchy for the ray kernel: built with binned surface-area splits (Wald, "On fast construction
 * of SAH-based bounding volume hierarchies", 2007), two-wide, then gathered into eight-wide nodes whose leaves hold up
 * to four triangles.
 */
export interface Hierarchy {
  /** 56 words a node; layout in kernel/assembly/hierarchy.ts. */
  nodes: ArrayBuffer;
  /** 40 words a leaf. */
  leaves: ArrayBuffer;
  /** 32 words for each place a shared mesh stands in: to the mesh and back (three rows each), its root. */
  instances: ArrayBuffer;
  nodeCount: number;
  leafCount: number;
  instanceCount: number;
}

const BINS = 16;
const LEAF = 4;
/** Children of a node. */
const WIDE = 8;
/** Words of a node. */
const NODE = WIDE * 7;
/** Bits of a leaf's triangle number: shadow rays pass; and they are dimmed. */
const SEE_THROUGH = 0x40000000;
const DIMS = 0x20000000;
/** Child numbers below this are instances. */
const FIRST_INSTANCE = -0x20000000;

interface Node2 {
  min: [number, number, number];
  max: [number, number, number];
  left: Node2 | null;
  right: Node2 | null;
  start: number;
  count: number;
}

const area = (min: ArrayLike<number>, max: ArrayLike<number>): number => {
  const x = max[0] - min[0];
  const y = max[1] - min[1];
  const z = max[2] - min[2];
  return x < 0 ? 0 : x * y + y * z + z * x;
};

/** Boxes of triangles, six numbers each. */
function boxesOf(positions: Float32Array, ids: Uint32Array, out: Float32Array): void {
  for (let i = 0; i < ids.length; i++) {
    const k = ids[i] * 9;
    for (let c = 0; c < 3; c++) {
      const a = positions[k + c];
      const b = positions[k + 3 + c];
      const d = positions[k + 6 + c];
      out[i * 6 + c] = Math.min(a, b, d);
      out[i * 6 + 3 + c] = Math.max(a, b, d);
    }
  }
}

/** The three rows of a matrix, and of its inverse. */
function rowsOf(m: Matrix): { out: number[]; into: number[] } {
  const at = (row: number, column: number): number => m[column * 4 + row];
  const cofactor = (r: number, c: number): number => {
    const [r1, r2, c1, c2] = [(r + 1) % 3, (r + 2) % 3, (c + 1) % 3, (c + 2) % 3];
    return at(r1, c1) * at(r2, c2) - at(r1, c2) * at(r2, c1);
  };
  const det = at(0, 0) * cofactor(0, 0) + at(0, 1) * cofactor(0, 1) + at(0, 2) * cofactor(0, 2);
  const out: number[] = [];
  const into: number[] = [];
  for (let r = 0; r < 3; r++) {
    out.push(at(r, 0), at(r, 1), at(r, 2), at(r, 3));
    const row = [0, 1, 2].map((c) => cofactor(c, r) / det);
    into.push(...row, -(row[0] * at(0, 3) + row[1] * at(1, 3) + row[2] * at(2, 3)));
  }
  return { out, into };
}

/**
 * @param positions nine coordinates a triangle, metres
 * @param seeThrough 1 for triangles that shadow rays pass, 2 for those that dim them
 * @param shared runs of triangles that are given in the space of their mesh and stand in several places
 */
export function buildHierarchy(
  positions: Float32Array,
  seeThrough?: Uint8Array,
  shared: readonly { first: number; count: number; places: readonly Matrix[] }[] = [],
): Hierarchy {
  const total = positions.length / 9;
  const own = new Uint8Array(total).fill(1);
  for (const { first, count } of shared) own.fill(0, first, first + count);
  const world = new Uint32Array(own.reduce((n, o) => n + o, 0));
  for (let t = 0, k = 0; t < total; t++) if (own[t]) world[k++] = t;

  const wide: { min: number[]; max: number[]; child: number }[][] = [];
  const leafList: Uint32Array[] = [];
  const places = shared.flatMap((mesh, of) => mesh.places.map((matrix) => ({ matrix, of, ...rowsOf(matrix) })));
  const boxes = new Float32Array((world.length + places.length) * 6);
  boxesOf(positions, world, boxes);
  places.forEach(({ of, out }, i) => {
    const { first, count } = shared[of];
    const box = boxes
      .subarray((world.length + i) * 6, (world.length + i) * 6 + 6)
      .fill(Infinity, 0, 3)
      .fill(-Infinity, 3);
    for (let k = first * 9; k < (first + count) * 9; k += 3)
      for (let c = 0; c < 3; c++) {
        const v = Math.fround(out[c * 4] * positions[k] + out[c * 4 + 1] * positions[k + 1] + out[c * 4 + 2] * positions[k + 2] + out[c * 4 + 3]);
        box[c] = Math.min(box[c], v);
        box[c + 3] = Math.max(box[c + 3], v);
      }
    // Rounding on the way into the mesh must not lose its rim.
    for (let c = 0; c < 3; c++) {
      box[c] -= 1e-5;
      box[c + 3] += 1e-5;
    }
  });
  // The whole first, so that its root is node 0; then each shared mesh.
  if (world.length + places.length)
    gather(boxes, world.length + places.length, world.length, (list) =>
      list[0] >= world.length ? FIRST_INSTANCE - 1 - (list[0] - world.length) : leaf(list.map((k) => world[k])),
    );
  else wide.push([]);
  const roots = shared.map(({ first, count }) => {
    const ids = Uint32Array.from({ length: count }, (_, i) => first + i);
    const meshBoxes = new Float32Array(count * 6);
    boxesOf(positions, ids, meshBoxes);
    return gather(meshBoxes, ids.length, ids.length, (list) => leaf(list.map((k) => ids[k])));
  });

  function leaf(ids: Uint32Array): number {
    return -leafList.push(ids);
  }

  /** Splits boxes and gathers them into wide nodes, opening the child with the largest surface until as many as fit are there. Returns the root. */
  function gather(bounds: Float32Array, count: number, firstSolo: number, leafOf: (ids: Uint32Array) => number): number {
    const { root, order } = splitBoxes(bounds, count, firstSolo);
    const childOf = (c: Node2): number => (c.left ? visit(c) : leafOf(order.slice(c.start, c.start + c.count)));
    const visit = (node: Node2): number => {
      const children: Node2[] = node.left ? [node.left, node.right!] : [node];
      while (children.length < WIDE) {
        let pick = -1;
        children.forEach((c, i) => {
          if (c.left && (pick < 0 || area(c.min, c.max) > area(children[pick].min, children[pick].max))) pick = i;
        });
        if (pick < 0) break;
        const [open] = children.splice(pick, 1);
        children.push(open.left!, open.right!);
      }
      const index = wide.push([]) - 1;
      wide[index] = children.map((c) => ({ min: c.min, max: c.max, child: childOf(c) }));
      return index;
    };
    return visit(root);
  }

  const nodes = new ArrayBuffer(wide.length * NODE * 4);
  const f = new Float32Array(nodes);
  const w = new Int32Array(nodes);
  wide.forEach((children, i) => {
    for (let lane = 0; lane < WIDE; lane++) {
      const c = children[lane];
      for (let axis = 0; axis < 3; axis++) {
        f[i * NODE + axis * WIDE + lane] = c ? c.min[axis] : Infinity;
        f[i * NODE + (axis + 3) * WIDE + lane] = c ? c.max[axis] : -Infinity;
      }
      w[i * NODE + 6 * WIDE + lane] = c ? c.child : 0;
    }
  });
  const leaves = new ArrayBuffer(leafList.length * 160);
  const lf = new Float32Array(leaves);
  const lw = new Int32Array(leaves);
  leafList.forEach((ids, i) => {
    for (let lane = 0; lane < 4; lane++) {
      const base = i * 40 + lane;
      if (lane >= ids.length) {
        lw[base + 36] = -1;
        continue;
      }
      const t = ids[lane];
      for (let c = 0; c < 3; c++) {
        lf[base + c * 4] = positions[t * 9 + c];
        lf[base + 12 + c * 4] = positions[t * 9 + 3 + c] - positions[t * 9 + c];
        lf[base + 24 + c * 4] = positions[t * 9 + 6 + c] - positions[t * 9 + c];
      }
      lw[base + 36] = t | (seeThrough?.[t] ? SEE_THROUGH : 0) | (seeThrough?.[t] === 2 ? DIMS : 0);
    }
  });
  const instances = new ArrayBuffer(places.length * 128);
  const inf = new Float32Array(instances);
  places.forEach(({ of, out, into }, i) => {
    inf.set(into, i * 32);
    inf.set(out, i * 32 + 12);
    new Int32Array(instances)[i * 32 + 24] = roots[of];
  });
  return { nodes, leaves, instances, nodeCount: wide.length, leafCount: leafList.length, instanceCount: places.length };
}

/**
 * Splits boxes in two again and again, down to four or fewer.
 *
 * @param bounds six numbers a box
 * @param firstSolo boxes from this number on stand alone in a leaf
 */
function splitBoxes(bounds: Float32Array, count: number, firstSolo: number): { root: Node2; order: Uint32Array } {
  const order = new Uint32Array(count);
  const centres = new Float32Array(count * 3);
  for (let i = 0; i < count; i++) {
    order[i] = i;
    for (let c = 0; c < 3; c++) centres[i * 3 + c] = (bounds[i * 6 + c] + bounds[i * 6 + 3 + c]) / 2;
  }
  // Work space of one split, used again by all.
  const counts = new Uint32Array(BINS);
  const mins = new Float32Array(BINS * 3);
  const maxs = new Float32Array(BINS * 3);
  const rightArea = new Float64Array(BINS);
  const low = new Float64Array(3);
  const high = new Float64Array(3);
  const min = new Float64Array(3);
  const max = new Float64Array(3);
  return { root: split(0, count), order };

  // The inner loops are written out for the three axes: they run some hundred million times.
  function boxOf(start: number, n: number): { min: [number, number, number]; max: [number, number, number] } {
    let x0 = Infinity;
    let y0 = Infinity;
    let z0 = Infinity;
    let x1 = -Infinity;
    let y1 = -Infinity;
    let z1 = -Infinity;
    for (let i = start; i < start + n; i++) {
      const k = order[i] * 6;
      if (bounds[k] < x0) x0 = bounds[k];
      if (bounds[k + 1] < y0) y0 = bounds[k + 1];
      if (bounds[k + 2] < z0) z0 = bounds[k + 2];
      if (bounds[k + 3] > x1) x1 = bounds[k + 3];
      if (bounds[k + 4] > y1) y1 = bounds[k + 4];
      if (bounds[k + 5] > z1) z1 = bounds[k + 5];
    }
    return { min: [x0, y0, z0], max: [x1, y1, z1] };
  }

  function solo(start: number, n: number): boolean {
    for (let i = start; i < start + n; i++) if (order[i] >= firstSolo) return true;
    return false;
  }

  function split(start: number, n: number): Node2 {
    const { min: boxMin, max: boxMax } = boxOf(start, n);
    const node: Node2 = { min: boxMin, max: boxMax, left: null, right: null, start, count: n };
    if (n === 1 || (n <= LEAF && !solo(start, n))) return node;
    low.fill(Infinity);
    high.fill(-Infinity);
    for (let i = start; i < start + n; i++) {
      const k = order[i] * 3;
      const x = centres[k];
      const y = centres[k + 1];
      const z = centres[k + 2];
      if (x < low[0]) low[0] = x;
      if (x > high[0]) high[0] = x;
      if (y < low[1]) low[1] = y;
      if (y > high[1]) high[1] = y;
      if (z < low[2]) low[2] = z;
      if (z > high[2]) high[2] = z;
    }
    let bestCost = Infinity;
    let bestAxis = -1;
    let bestBin = 0;
    for (let axis = 0; axis < 3; axis++) {
      const extent = high[axis] - low[axis];
      if (extent < 1e-9) continue;
      counts.fill(0);
      mins.fill(Infinity);
      maxs.fill(-Infinity);
      const k = (BINS * (1 - 1e-6)) / extent;
      for (let i = start; i < start + n; i++) {
        const t = order[i];
        const bin = ((centres[t * 3 + axis] - low[axis]) * k) | 0;
        counts[bin]++;
        const o = t * 6;
        const m = bin * 3;
        if (bounds[o] < mins[m]) mins[m] = bounds[o];
        if (bounds[o + 1] < mins[m + 1]) mins[m + 1] = bounds[o + 1];
        if (bounds[o + 2] < mins[m + 2]) mins[m + 2] = bounds[o + 2];
        if (bounds[o + 3] > maxs[m]) maxs[m] = bounds[o + 3];
        if (bounds[o + 4] > maxs[m + 1]) maxs[m + 1] = bounds[o + 4];
        if (bounds[o + 5] > maxs[m + 2]) maxs[m + 2] = bounds[o + 5];
      }
      min.fill(Infinity);
      max.fill(-Infinity);
      let seen = 0;
      const grow = (bin: number): void => {
        if (!counts[bin]) return;
        const m = bin * 3;
        if (mins[m] < min[0]) min[0] = mins[m];
        if (mins[m + 1] < min[1]) min[1] = mins[m + 1];
        if (mins[m + 2] < min[2]) min[2] = mins[m + 2];
        if (maxs[m] > max[0]) max[0] = maxs[m];
        if (maxs[m + 1] > max[1]) max[1] = maxs[m + 1];
        if (maxs[m + 2] > max[2]) max[2] = maxs[m + 2];
        seen += counts[bin];
      };
      for (let bin = BINS - 1; bin > 0; bin--) {
        grow(bin);
        rightArea[bin] = area(min, max) * seen;
      }
      min.fill(Infinity);
      max.fill(-Infinity);
      seen = 0;
      for (let bin = 0; bin < BINS - 1; bin++) {
        grow(bin);
        if (seen === 0 || seen === n) continue;
        const cost = area(min, max) * seen + rightArea[bin + 1];
        if (cost < bestCost) {
          bestCost = cost;
          bestAxis = axis;
          bestBin = bin;
        }
      }
    }
    let middle = start + (n >> 1);
    if (bestAxis >= 0) {
      const k = (BINS * (1 - 1e-6)) / (high[bestAxis] - low[bestAxis]);
      let i = start;
      let j = start + n - 1;
      while (i <= j) {
        if ((((centres[order[i] * 3 + bestAxis] - low[bestAxis]) * k) | 0) <= bestBin) i++;
        else {
          const t = order[i];
          order[i] = order[j];
          order[j] = t;
          j--;
        }
      }
      if (i > start && i < start + n) middle = i;
    }
    node.left = split(start, middle - start);
    node.right = split(middle, start + n - middle);
    return node;
  }
}
