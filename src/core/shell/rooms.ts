import { MeshBuilder, type Mesh } from '../geometry/mesh';
import { boolean, clipHalf, totalArea } from '../geometry/polygon';
import type { Region, Ring } from '../geometry/region';
import { planRing, type RoofShape } from '../project/roofs';
import { add, distance, left, scale, sub, unit, type Vec2 } from '../geometry/vec';
import type { Level, Room } from '../project/schema';
import { DUST, NEAR, TOUCH } from '../units/tolerance';

/** The hole of a rooflight in a ceiling, with the height its shaft reaches above that of the room. */
export interface CeilingHole {
  region: Region;
  kerb: number;
}

/** Height of a room's ceiling above the floor of the level, metres; a room open to the sky counts up to the level's height. */
export function ceilingHeight(room: Pick<Room, 'cover'>, level: Level): number {
  const { cover } = room;
  return 'height' in cover && cover.height !== null ? cover.height : level.height;
}

/** Clear height of a room from its own floor, metres; null where it is open to the sky. */
export const clearHeight = (room: Pick<Room, 'cover' | 'step'>, level: Level): number | null =>
  room.cover.kind === 'open' ? null : ceilingHeight(room, level) - room.step;

/** The strip of a region along an edge of its outline. */
function strip(a: Vec2, b: Vec2, depth: number): Region {
  const d = unit(sub(b, a));
  const n = scale(left(d), depth);
  const [p, q] = [sub(a, scale(d, depth)), add(b, scale(d, depth))];
  return { outer: [p, q, add(q, n), add(p, n)], holes: [] };
}

/** A region less a border of a width all round; empty where it is narrower than two borders. */
export function inset(region: Region, border: number): Region[] {
  const edges = [region.outer, ...region.holes].flatMap((ring) => ring.map((a, i) => [a, ring[(i + 1) % ring.length]] as const));
  return boolean(
    'difference',
    [region],
    edges.filter(([a, b]) => distance(a, b) > NEAR).map(([a, b]) => strip(a, b, border)),
  );
}

/** The part of a region within a depth of the faces of one wall. */
function alongWall(region: Region, edges: readonly (readonly [Vec2, Vec2])[], depth: number): Region[] {
  if (!edges.length) return [];
  return boolean(
    'intersection',
    [region],
    edges.map(([a, b]) => strip(a, b, depth)),
  );
}

/**
 * The ceiling of a room as it is seen from below: flat, lowered along its border (coffer) or along one wall (bulkhead),
 * with the upright faces between the two heights.
 *
 * @param edges faces of the wall a bulkhead runs along, the room at their left
 * @param holes of rooflights, with the height of their shafts above the room's ceiling
 */
export function ceilingMesh(
  region: Region,
  room: Pick<Room, 'cover'>,
  level: Level,
  z: number,
  edges: readonly (readonly [Vec2, Vec2])[],
  holes: readonly CeilingHole[] = [],
): Mesh {
  const builder = new MeshBuilder();
  const { cover } = room;
  if (cover.kind === 'open') return builder.build();
  const high = z + ceilingHeight(room, level);
  const down = { x: 0, y: 0, z: -1 };
  const plane = (regions: readonly Region[], height: number): void => {
    const cut = holes.map((h) => h.region);
    for (const r of cut.length ? boolean('difference', [...regions], cut) : regions) builder.region(r, (p) => ({ ...p, z: height }), down, true);
    for (const { region: hole, kerb } of holes)
      if (high + kerb > height + NEAR)
        for (const { outer } of boolean('intersection', [hole], [...regions]))
          outer.forEach((a, i) => {
            const b = outer[(i + 1) % outer.length];
            builder.quad({ ...b, z: height }, { ...a, z: height }, { ...a, z: high + kerb }, { ...b, z: high + kerb });
          });
  };
  if (cover.kind === 'flat' || cover.kind === 'roof') {
    plane([region], high);
    return builder.build();
  }
  const raised = cover.kind === 'coffer' ? inset(region, cover.border) : boolean('difference', [region], alongWall(region, edges, cover.depth));
  const lowered = boolean('difference', [region], raised);
  const low = high - cover.drop;
  plane(raised, high);
  plane(lowered, low);
  // Upright faces stand where the two heights meet: along the raised part, apart from the walls themselves.
  const outline = [region.outer, ...region.holes].flatMap((ring) => ring.map((a, i) => [a, ring[(i + 1) % ring.length]] as const));
  for (const r of raised)
    for (const ring of [r.outer, ...r.holes])
      ring.forEach((a: Vec2, i: number) => {
        const b = ring[(i + 1) % ring.length];
        if (outline.some(([p, q]) => onLine(a, p, q) && onLine(b, p, q))) return;
        builder.quad({ ...b, z: low }, { ...a, z: low }, { ...a, z: high }, { ...b, z: high });
      });
  return builder.build();
}

/** From this height on an area counts, metres. */
export const COUNTED = 1.5;

/** How much of a floor has a height of 1.5 m or more over it, m². @param floor the floor of the room without its voids */
export function highArea(floor: readonly Region[], room: Pick<Room, 'cover' | 'step'>, level: Level, roofs: readonly RoofShape[]): number {
  if (!roofs.length) {
    const height = clearHeight(room, level);
    return height === null || height > COUNTED - DUST ? totalArea(floor) : 0;
  }
  let area = 0;
  for (const { under } of roofs)
    for (const plane of under) {
      if (!plane.plane) continue;
      const { gx, gy, c } = plane.plane;
      const counts = clipHalf(planRing(plane), (p) => gx * p.x + gy * p.y + c - room.step - COUNTED);
      if (counts.length > 2) area += totalArea(boolean('intersection', [...floor], [{ outer: counts, holes: [] }]));
    }
  const rest = boolean(
    'difference',
    [...floor],
    roofs.flatMap((r) => r.outlines),
  );
  return area + (level.height - room.step > COUNTED - DUST ? totalArea(rest) : 0);
}

function onLine(p: Vec2, a: Vec2, b: Vec2): boolean {
  const d = unit(sub(b, a));
  return Math.abs(d.x * (p.y - a.y) - d.y * (p.x - a.x)) < TOUCH;
}

/** The step between two floors, or two ceilings, along a boundary where nothing is built. */
export function stepFace(a: Vec2, b: Vec2, z0: number, z1: number): Mesh {
  // Seen from the side of the lower floor; `a` to `b` has it at its right.
  return new MeshBuilder().quad({ ...a, z: z0 }, { ...b, z: z0 }, { ...b, z: z1 }, { ...a, z: z1 }).build();
}

/** Extent of a ring along the plan axes, metres. */
export function extent(ring: Ring): Vec2 {
  const xs = ring.map((p) => p.x);
  const ys = ring.map((p) => p.y);
  return { x: Math.max(...xs) - Math.min(...xs), y: Math.max(...ys) - Math.min(...ys) };
}
