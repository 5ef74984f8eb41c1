import { DUST, LATTICE, NEAR, NIL } from '../units/tolerance';
import { clipRegions } from './clipping';
import { MeshBuilder, type Mesh } from './mesh';
import { signedArea, triangulateAll } from './polygon';
import type { Region, Ring } from './region';
import { add, cross, distance, dot, left, meet, scale, sub, unit, type Vec2, type Vec3 } from './vec';

/** The arris of an upper edge from below: how far in, and at which height; the last is of the upper face. Metres. */
export type Arris = readonly (readonly [inset: number, z: number])[];

/** Something sunk into the upper face of a slab: its outline, and how high its floor lies over a point. Metres. */
export interface Pocket {
  ring: Ring;
  floor(p: Vec2): number;
}

/** A corner of an outline: where it lies at each height of the arris. */
interface Column {
  /** At the foot. */
  foot: Vec2;
  levels: Vec3[];
  /** The floor of a pocket that ends here. */
  floor: number | null;
}

/** Points of two clippings are one where the lattice may have moved them apart. */
const SAME = 4 * LATTICE;

const keyOf = ({ x, y }: Vec2): string => `${x} ${y}`;

/** Where two edges that meet in a point do so once each has gone in by its own measure; two points where they lie in one line and part. */
function corners(p: Vec2, before: Vec2, behind: Vec2, insets: readonly (readonly [number, number])[]): Vec2[][] {
  const [d, e] = [unit(sub(p, before)), unit(sub(behind, p))];
  const straight = Math.abs(cross(d, e)) < NEAR && dot(d, e) > 0;
  const at = (by: number, along: Vec2): Vec2 => add(p, scale(left(along), by));
  if (straight && insets.some(([a, b]) => Math.abs(a - b) > DUST)) return [insets.map(([a]) => at(a, d)), insets.map(([, b]) => at(b, e))];
  return [insets.map(([a, b]) => (straight ? at(a, d) : (meet(at(a, d), d, at(b, e), e) ?? at(a, d))))];
}

/** The way round a ring as columns; at each the edge that goes on from it. */
function columnsOf(ring: Ring, arris: Arris, ratios: readonly number[], floorAt: (p: Vec2) => number | null): { column: Column; edge: number | null }[] {
  return ring.flatMap((p, i) => {
    const n = ring.length;
    const own = arris.map(([by]): [number, number] => [by * ratios[(i + n - 1) % n], by * ratios[i]]);
    const made = corners(p, ring[(i + n - 1) % n], ring[(i + 1) % n], own);
    return made.map((at, k) => ({
      column: { foot: p, levels: at.map((q, j) => ({ ...q, z: arris[j][1] })), floor: floorAt(p) },
      edge: k === made.length - 1 ? i : null,
    }));
  });
}

/** What stands between two columns, as triangles. @param low where it begins, at each; null: at the foot of the slab */
function wall(builder: MeshBuilder, a: Column, b: Column, low: readonly [number, number] | null, z0: number): void {
  const chain = ({ foot, levels, floor }: Column, from: number | undefined): Vec3[] => {
    const start = from ?? z0;
    const out = [{ ...foot, z: start }, ...levels.filter((p) => p.z > start + DUST)];
    if (from === undefined && floor !== null && floor > z0) out.push({ ...foot, z: floor });
    return out.sort((p, q) => p.z - q.z);
  };
  const [left, right] = [chain(a, low?.[0]), chain(b, low?.[1])];
  const long = distance(a.foot, b.foot);
  const put = (p: Vec3, q: Vec3, r: Vec3): void => {
    const [ux, uy, uz, vx, vy, vz] = [q.x - p.x, q.y - p.y, q.z - p.z, r.x - p.x, r.y - p.y, r.z - p.z];
    const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    const area = Math.hypot(nx, ny, nz);
    if (area < NIL) return;
    const n = { x: nx / area, y: ny / area, z: nz / area };
    const across = long > DUST ? unit(sub(b.foot, a.foot)) : { x: 1, y: 0 };
    const at = (s: Vec3): number => builder.vertex(s, n, s.x * across.x + s.y * across.y, s.z);
    builder.triangle(at(p), at(q), at(r));
  };
  let [i, j] = [0, 0];
  while (i < left.length - 1 || j < right.length - 1) {
    const [p, q] = [left[i + 1]?.z ?? Infinity, right[j + 1]?.z ?? Infinity];
    if (Math.abs(p - q) < DUST) {
      put(left[i], right[j], right[j + 1]);
      put(left[i], right[j + 1], left[i + 1]);
      i++;
      j++;
    } else if (q < p) put(left[i], right[j], right[++j]);
    else put(left[i], right[j], left[++i]);
  }
}

/** A face that lies: every point of its outline is a corner of it, also where that runs straight on. */
function cap(builder: MeshBuilder, region: Region, height: (p: Vec2) => number, down = false): void {
  const { points, indices } = triangulateAll(region);
  const base = points.map(({ x, y }) => builder.vertex({ x, y, z: height({ x, y }) }, { x: 0, y: 0, z: down ? -1 : 1 }, x, y));
  for (let k = 0; k < indices.length; k += 3) {
    const [a, b, c] = [base[indices[k]], base[indices[k + 1]], base[indices[k + 2]]];
    if (down) builder.triangle(a, c, b);
    else builder.triangle(a, b, c);
  }
}

/** Whether outlines went in without turning over. */
const holds = (ring: Ring, top: Ring): boolean => Math.sign(signedArea(ring)) === Math.sign(signedArea(top)) && Math.abs(signedArea(top)) > NIL;

/**
 * Flat regions as upright closed solids whose upper edges are shaped, some more than others, with pockets in their upper face
 * that may run out over an edge.
 *
 * @param z0 their foot, metres
 * @param ratio how much of the arris an edge has, 0…1: none where it meets a wall
 */
export function slab(regions: readonly Region[], z0: number, arris: Arris, ratio: (a: Vec2, b: Vec2) => number, pockets: readonly Pocket[] = []): Mesh {
  const builder = new MeshBuilder();
  const sunk = pockets.map(({ ring }): Region => ({ outer: ring, holes: [] }));
  const cells = sunk.length ? clipRegions('difference', regions, sunk) : regions;
  const points = cells.flatMap(({ outer, holes }) => [outer, ...holes].flat());
  const snapped = (p: Vec2): Vec2 => points.find((q) => distance(p, q) < SAME) ?? p;
  const floors = pockets.flatMap(({ floor }, i) => clipRegions('intersection', regions, [sunk[i]]).map(({ outer }) => ({ outer: outer.map(snapped), floor })));
  // Where a pocket is, by its corners and by its edges as the slab round it goes along them.
  const heights = new Map<string, number>();
  const shared = new Set<string>();
  for (const { outer, floor } of floors)
    outer.forEach((p, i) => {
      heights.set(keyOf(p), floor(p));
      shared.add(`${keyOf(outer[(i + 1) % outer.length])} ${keyOf(p)}`);
    });
  const edges = new Set<string>();
  const floorAt = (p: Vec2): number | null => heights.get(keyOf(p)) ?? null;
  const top = arris[arris.length - 1][1];
  const shaped = arris.some(([by]) => by > 0);
  for (const { outer, holes } of cells) {
    if (Math.abs(signedArea(outer)) < DUST) continue;
    const rings = [outer, ...holes].map((ring) => ring.filter((p, i) => distance(p, ring[(i + 1) % ring.length]) > DUST));
    const made = rings.map((ring) => {
      const sides = ring.map((p, i): [Vec2, Vec2] => [p, ring[(i + 1) % ring.length]]);
      const isShared = sides.map(([a, b]) => shared.has(`${keyOf(a)} ${keyOf(b)}`));
      sides.forEach(([a, b], i) => isShared[i] && edges.add(`${keyOf(a)} ${keyOf(b)}`));
      const ratios = sides.map(([a, b], i) => (isShared[i] || !shaped ? 0 : ratio(a, b)));
      let way = columnsOf(ring, arris, ratios, floorAt);
      const upper = (): Ring => way.map(({ column: { levels } }) => levels[levels.length - 1]);
      if (!holds(ring, upper()))
        way = columnsOf(
          ring,
          arris,
          ratios.map(() => 0),
          floorAt,
        );
      return { ring, way, isShared, upper: upper() };
    });
    const [first, ...rest] = made;
    cap(builder, { outer: first.ring, holes: rest.map((m) => m.ring) }, () => z0, true);
    cap(builder, { outer: first.upper, holes: rest.map((m) => m.upper) }, () => top);
    for (const { way, isShared } of made)
      way.forEach(({ column, edge }, i) => {
        const next = way[(i + 1) % way.length].column;
        wall(builder, column, next, edge !== null && isShared[edge] ? [column.floor!, next.floor!] : null, z0);
      });
  }
  for (const { outer, floor } of floors) {
    cap(builder, { outer, holes: [] }, () => z0, true);
    cap(builder, { outer, holes: [] }, floor);
    outer.forEach((a, i) => {
      const b = outer[(i + 1) % outer.length];
      if (edges.has(`${keyOf(b)} ${keyOf(a)}`)) return;
      // What goes on beside it has corners at the heights of the arris.
      const column = (p: Vec2): Column => ({
        foot: p,
        levels: [...arris.map(([, z]) => z).filter((z) => z < floor(p) - DUST), floor(p)].map((z) => ({ ...p, z })),
        floor: null,
      });
      wall(builder, column(a), column(b), null, z0);
    });
  }
  return builder.build();
}
