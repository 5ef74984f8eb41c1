/**
 * A bounding volume hierarchy for the ray kernel: built with binned surface-area splits (Wald, "On fast construction
 * of SAH-based bounding volume hierarchies", 2007), two-wide, then gathered into four-wide nodes whose leaves hold up
 * to four triangles.
 */
export interface Hierarchy {
  /** 28 words a node; layout in kernel/assembly/index.ts. */
  nodes: ArrayBuffer;
  /** 40 words a leaf. */
  leaves: ArrayBuffer;
  nodeCount: number;
  leafCount: number;
}

const BINS = 16;
const LEAF = 4;
const SEE_THROUGH = 0x40000000;

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

/**
 * @param positions nine coordinates a triangle, metres
 * @param seeThrough 1 for triangles that shadow rays pass
 */
export function buildHierarchy(positions: Float32Array, seeThrough?: Uint8Array): Hierarchy {
  const count = positions.length / 9;
  const order = new Uint32Array(count);
  const bounds = new Float32Array(count * 6);
  const centres = new Float32Array(count * 3);
  for (let i = 0; i < count; i++) {
    order[i] = i;
    for (let c = 0; c < 3; c++) {
      const a = positions[i * 9 + c];
      const b = positions[i * 9 + 3 + c];
      const d = positions[i * 9 + 6 + c];
      bounds[i * 6 + c] = Math.min(a, b, d);
      bounds[i * 6 + 3 + c] = Math.max(a, b, d);
      centres[i * 3 + c] = (bounds[i * 6 + c] + bounds[i * 6 + 3 + c]) / 2;
    }
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
  const root = split(0, count);

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

  function split(start: number, n: number): Node2 {
    const { min: boxMin, max: boxMax } = boxOf(start, n);
    const node: Node2 = { min: boxMin, max: boxMax, left: null, right: null, start, count: n };
    if (n <= LEAF) return node;
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

  // Gather: open the child with the largest surface until four are there.
  const wide: { min: number[]; max: number[]; child: number }[][] = [];
  const leafList: Node2[] = [];
  const gather = (node: Node2): number => {
    const children: Node2[] = node.left ? [node.left, node.right!] : [node];
    while (children.length < 4) {
      let pick = -1;
      children.forEach((c, i) => {
        if (c.left && (pick < 0 || area(c.min, c.max) > area(children[pick].min, children[pick].max))) pick = i;
      });
      if (pick < 0) break;
      const [open] = children.splice(pick, 1);
      children.push(open.left!, open.right!);
    }
    const index = wide.push([]) - 1;
    wide[index] = children.map((c) => ({
      min: c.min,
      max: c.max,
      child: c.left ? gather(c) : -leafList.push(c),
    }));
    return index;
  };
  if (count) gather(root);
  else wide.push([]);

  const nodes = new ArrayBuffer(wide.length * 112);
  const f = new Float32Array(nodes);
  const w = new Int32Array(nodes);
  wide.forEach((children, i) => {
    for (let lane = 0; lane < 4; lane++) {
      const c = children[lane];
      for (let axis = 0; axis < 3; axis++) {
        f[i * 28 + axis * 4 + lane] = c ? c.min[axis] : Infinity;
        f[i * 28 + 12 + axis * 4 + lane] = c ? c.max[axis] : -Infinity;
      }
      w[i * 28 + 24 + lane] = c ? c.child : 0;
    }
  });
  const leaves = new ArrayBuffer(leafList.length * 160);
  const lf = new Float32Array(leaves);
  const lw = new Int32Array(leaves);
  leafList.forEach((leaf, i) => {
    for (let lane = 0; lane < 4; lane++) {
      const base = i * 40 + lane;
      if (lane >= leaf.count) {
        lw[base + 36] = -1;
        continue;
      }
      const t = order[leaf.start + lane];
      for (let c = 0; c < 3; c++) {
        lf[base + c * 4] = positions[t * 9 + c];
        lf[base + 12 + c * 4] = positions[t * 9 + 3 + c] - positions[t * 9 + c];
        lf[base + 24 + c * 4] = positions[t * 9 + 6 + c] - positions[t * 9 + c];
      }
      lw[base + 36] = t | (seeThrough?.[t] ? SEE_THROUGH : 0);
    }
  });
  return { nodes, leaves, nodeCount: wide.length, leafCount: leafList.length };
}
