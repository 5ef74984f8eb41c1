import type { Matrix } from '../geometry/mesh';
import { Halves } from './splitting/splitting';

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

/** Children of a node. */
const WIDE = 8;
/** Words of a node. */
const NODE = WIDE * 7;
/** Bits of a leaf's triangle number: shadow rays pass; and they are dimmed. */
const SEE_THROUGH = 0x40000000;
const DIMS = 0x20000000;
/** Child numbers below this are instances. */
const FIRST_INSTANCE = -0x20000000;

/** Boxes of triangles, eight numbers each. */
function boxesOf(positions: Float32Array, ids: Uint32Array, out: Float32Array): void {
  for (let i = 0; i < ids.length; i++) {
    const k = ids[i] * 9;
    for (let c = 0; c < 3; c++) {
      const a = positions[k + c];
      const b = positions[k + 3 + c];
      const d = positions[k + 6 + c];
      out[i * 8 + c] = Math.min(a, b, d);
      out[i * 8 + 4 + c] = Math.max(a, b, d);
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

  const wide: { of: Halves; node: number; child: number }[][] = [];
  const leafList: Uint32Array[] = [];
  const places = shared.flatMap((mesh, of) => mesh.places.map((matrix) => ({ matrix, of, ...rowsOf(matrix) })));
  /** Boxes of the places where meshes stand. */
  function placeBoxes(boxes: Float32Array): void {
    places.forEach(({ of, out }, i) => {
      const { first, count } = shared[of];
      const box = boxes
        .subarray(i * 8, i * 8 + 8)
        .fill(Infinity, 0, 4)
        .fill(-Infinity, 4);
      for (let k = first * 9; k < (first + count) * 9; k += 3)
        for (let c = 0; c < 3; c++) {
          const v = Math.fround(out[c * 4] * positions[k] + out[c * 4 + 1] * positions[k + 1] + out[c * 4 + 2] * positions[k + 2] + out[c * 4 + 3]);
          box[c] = Math.min(box[c], v);
          box[c + 4] = Math.max(box[c + 4], v);
        }
      // Rounding on the way into the mesh must not lose its rim.
      for (let c = 0; c < 3; c++) {
        box[c] -= 1e-5;
        box[c + 4] += 1e-5;
      }
    });
  }
  // The whole first, so that its root is node 0; then each shared mesh.
  if (world.length + places.length)
    gather(
      Halves.of(world.length + places.length, world.length, (boxes) => {
        boxesOf(positions, world, boxes);
        placeBoxes(boxes.subarray(world.length * 8));
      }),
      (list) => (list[0] >= world.length ? FIRST_INSTANCE - 1 - (list[0] - world.length) : leaf(list.map((k) => world[k]))),
    );
  else wide.push([]);
  const roots = shared.map(({ first, count }) => {
    const ids = Uint32Array.from({ length: count }, (_, i) => first + i);
    return gather(
      Halves.of(count, count, (boxes) => boxesOf(positions, ids, boxes)),
      (list) => leaf(list.map((k) => ids[k])),
    );
  });

  function leaf(ids: Uint32Array): number {
    return -leafList.push(ids);
  }

  /** Gathers halves into wide nodes, opening the child with the largest surface until as many as fit are there. Returns the root. */
  function gather(of: Halves, leafOf: (ids: Uint32Array) => number): number {
    const visit = (node: number): number => {
      const children = of.children(node) ?? [node];
      while (children.length < WIDE) {
        let pick = -1;
        children.forEach((c, i) => {
          if (of.children(c) && (pick < 0 || of.area(c) > of.area(children[pick]))) pick = i;
        });
        if (pick < 0) break;
        const [open] = children.splice(pick, 1);
        children.push(...of.children(open)!);
      }
      const index = wide.push([]) - 1;
      wide[index] = children.map((c) => ({ of, node: c, child: of.children(c) ? visit(c) : leafOf(of.members(c)) }));
      return index;
    };
    return visit(0);
  }

  const nodes = new ArrayBuffer(wide.length * NODE * 4);
  const f = new Float32Array(nodes);
  const w = new Int32Array(nodes);
  wide.forEach((children, i) => {
    for (let lane = 0; lane < WIDE; lane++) {
      const c = children[lane];
      for (let axis = 0; axis < 3; axis++) {
        f[i * NODE + axis * WIDE + lane] = c ? c.of.side(c.node, axis) : Infinity;
        f[i * NODE + (axis + 3) * WIDE + lane] = c ? c.of.side(c.node, axis + 3) : -Infinity;
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
