import { luminance, type Rgb } from '../finishes/colour';
import { meanColour } from '../finishes/finish';
import { insideRegion } from '../geometry/polygon';
import type { Region } from '../geometry/region';
import type { Vec2, Vec3 } from '../geometry/vec';
import type { Model } from '../model/model';
import { FIREFLY, untextured } from './picture';
import { prepareScene, type PreparedScene } from './prepared';
import { Tracer } from './tracer';

/** A place in a room where light is gathered. */
export interface Probe {
  room: string;
  at: Vec3;
}

/** Light about a place: spherical harmonics up to the second order of its radiance, red, green and blue of each of the nine; the first is the mean. */
export type Gathered = Float32Array;

/**
 * Light in the rooms of a house, place by place: what the 3D view lights surfaces with that no sun or lamp shines on straight.
 * Cells lie along x, then y, then z; nine groups a cell, of red, green, blue and, in the first, whether it lies in a room, 0 or 1.
 */
export interface RoomLight {
  min: Vec3;
  /** Edge of a cell, metres. */
  cell: number;
  count: { x: number; y: number; z: number };
  values: Float32Array;
}

/** Terms that are kept, and words of a cell. */
export const TERMS = 9;
const WORDS = TERMS * 4;

/** What each term is of a direction, scaled so that the first is 1 and a field is the sum of its terms times these. */
const harmonics = ({ x, y, z }: Vec3): number[] => [1, x, y, z, x * y, y * z, z * x, 3 * z * z - 1, x * x - y * y];

/** One over the mean square of each over the sphere. */
const NORMS = [1, 3, 3, 3, 15, 15, 15, 5 / 4, 15 / 4] as const;

/** Greatest distance between probes of a room, and from its walls, floor and ceiling, metres. */
const STEP = 0.95;
const INSET = 0.35;

/** Edge of a cell, and how far beyond a room its light is carried into the walls about it, metres. */
const CELL = 0.2;
const REACH = 0.16;

/** Rays of a probe unless told. */
const RAYS = 400;

/** A probe that stands in a cabinet is darker than this share of its room. */
const SHUT = 0.12;

const extentOf = ({ outer }: Region): { min: Vec2; max: Vec2 } => ({
  min: { x: Math.min(...outer.map((p) => p.x)), y: Math.min(...outer.map((p) => p.y)) },
  max: { x: Math.max(...outer.map((p) => p.x)), y: Math.max(...outer.map((p) => p.y)) },
});

/** Evenly between two places, the ends set in. */
function spread(from: number, to: number): number[] {
  const inset = Math.min(INSET, (to - from) / 3);
  const length = to - from - 2 * inset;
  const n = Math.max(1, Math.ceil(length / STEP));
  return Array.from({ length: n + 1 }, (_, i) => from + inset + (length * i) / n);
}

/** Places in all rooms where light is gathered. */
export function probesIn({ shell }: Model): Probe[] {
  const out: Probe[] = [];
  for (const { level, rooms } of shell.levels)
    for (const { id, region, height, label } of rooms) {
      const { min, max } = extentOf(region);
      const places = spread(min.x, max.x).flatMap((x) => spread(min.y, max.y).flatMap((y) => (insideRegion({ x, y }, region) ? [{ x, y }] : [])));
      for (const place of places.length ? places : [label])
        for (const z of spread(level.elevation, level.elevation + height)) out.push({ room: id, at: { ...place, z } });
    }
  return out;
}

/** Directions evenly over the sphere (a spiral of golden angles), turned by a share of a turn. */
function directions(n: number, turn: number): Vec3[] {
  return Array.from({ length: n }, (_, i) => {
    const z = 1 - (2 * i + 1) / n;
    const r = Math.sqrt(1 - z * z);
    const angle = 2 * Math.PI * ((i * 0.618033988749895 + turn) % 1);
    return { x: r * Math.cos(angle), y: r * Math.sin(angle), z };
  });
}

/** A scene for gathering light: every finish in its mean colour. */
export function gatheringScene(model: Model): PreparedScene {
  const scene = untextured(model);
  scene.sources.forEach((finish, i) => {
    if (finish) scene.materials[i].colour = meanColour(finish);
  });
  return prepareScene(scene);
}

/**
 * Gathers the light at places: that of the sky and all that walls, floors and things send on, but not what the sun and luminaires
 * send straight, which the view has lights of its own for.
 */
export function gather(scene: PreparedScene, places: readonly Vec3[], seed: number, rays = RAYS): Gathered[] {
  const lists = places.map((origin, i) => directions(rays, (i * 0.7548776662 + seed * 0.5698402909) % 1).map((direction) => ({ origin, direction })));
  const light = Tracer.along(scene, lists.flat(), { seed, clamp: FIREFLY, bare: true });
  return lists.map((list, p) => {
    const sum = new Float32Array(TERMS * 3);
    list.forEach(({ direction }, i) => {
      const own = harmonics(direction);
      for (let c = 0; c < 3; c++) {
        const l = light[(p * rays + i) * 3 + c] / rays;
        for (let g = 0; g < TERMS; g++) sum[g * 3 + c] += NORMS[g] * own[g] * l;
      }
    });
    return sum;
  });
}

/** Lays gathered light out in cells; null where there are no rooms. */
export function roomLight({ shell }: Model, probes: readonly Probe[], gathered: readonly Gathered[]): RoomLight | null {
  const rooms = shell.levels.flatMap(({ level, rooms: list, roofs }) =>
    list.map(({ id, region, height, room }) => {
      // Under a roof a room goes up to it, wherever its light was gathered.
      const top = room.cover.kind === 'flat' ? height : Math.max(height, ...roofs.map((r) => r.shape.top));
      return { id, region, low: level.elevation, high: level.elevation + top, ...extentOf(region) };
    }),
  );
  const byRoom = new Map<string, { at: Vec3; light: Gathered }[]>();
  probes.forEach(({ room, at }, i) => {
    let list = byRoom.get(room);
    if (!list) byRoom.set(room, (list = []));
    list.push({ at, light: gathered[i] });
  });
  for (const [room, list] of byRoom) {
    const levels = list.map(({ light }) => luminance([light[0], light[1], light[2]]));
    const usual = levels.toSorted((a, b) => a - b)[levels.length >> 1];
    const open = list.filter((_, i) => levels[i] >= usual * SHUT);
    byRoom.set(room, open.length ? open : list);
  }
  if (!rooms.length) return null;
  const margin = 2 * CELL;
  const least = (axis: 'x' | 'y'): number => Math.min(...rooms.map((r) => r.min[axis])) - margin;
  const most = (axis: 'x' | 'y'): number => Math.max(...rooms.map((r) => r.max[axis])) + margin;
  const min = { x: least('x'), y: least('y'), z: Math.min(...rooms.map((r) => r.low)) - margin };
  const cells = (from: number, to: number): number => Math.max(2, Math.ceil((to - from) / CELL));
  const count = { x: cells(min.x, most('x')), y: cells(min.y, most('y')), z: cells(min.z, Math.max(...rooms.map((r) => r.high)) + margin) };
  const values = new Float32Array(count.x * count.y * count.z * WORDS);
  for (let j = 0; j < count.y; j++)
    for (let i = 0; i < count.x; i++) {
      const p = { x: min.x + (i + 0.5) * CELL, y: min.y + (j + 0.5) * CELL };
      // A cell in a wall has the light of the room it lies nearest to.
      const near = rooms
        .map((room) => ({ room, away: distanceTo(p, room) }))
        .filter(({ away }) => away <= REACH)
        .sort((a, b) => a.away - b.away);
      for (let k = 0; k < count.z; k++) {
        const z = min.z + (k + 0.5) * CELL;
        const own = near.find(({ room }) => z > room.low - REACH && z < room.high + REACH);
        const list = own && byRoom.get(own.room.id);
        if (list) mixed(list, { ...p, z }, values, ((k * count.y + j) * count.x + i) * WORDS);
      }
    }
  return { min, cell: CELL, count, values };
}

/** Distance from a place to a room in plan, metres; 0 within. */
function distanceTo(p: Vec2, { region, min, max }: { region: Region; min: Vec2; max: Vec2 }): number {
  if (p.x < min.x - REACH || p.x > max.x + REACH || p.y < min.y - REACH || p.y > max.y + REACH) return Infinity;
  if (insideRegion(p, region)) return 0;
  let best = Infinity;
  for (const ring of [region.outer, ...region.holes])
    ring.forEach((a, i) => {
      const b = ring[(i + 1) % ring.length];
      const [dx, dy] = [b.x - a.x, b.y - a.y];
      const t = Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / (dx * dx + dy * dy || 1)));
      best = Math.min(best, Math.hypot(a.x + dx * t - p.x, a.y + dy * t - p.y));
    });
  return best;
}

/** How far light is carried from a probe, metres: wide enough that its grain is not seen. */
const SOFT = 0.48;

function mixed(list: readonly { at: Vec3; light: Gathered }[], p: Vec3, out: Float32Array, o: number): void {
  let total = 0;
  for (const { at, light } of list) {
    // Never nothing: a place far from all probes has the light of the nearest.
    const w = Math.exp(-((at.x - p.x) ** 2 + (at.y - p.y) ** 2 + (at.z - p.z) ** 2) / (2 * SOFT * SOFT)) + 1e-12;
    total += w;
    for (let g = 0; g < TERMS; g++) for (let c = 0; c < 3; c++) out[o + g * 4 + c] += light[g * 3 + c] * w;
  }
  for (let g = 0; g < TERMS; g++) for (let c = 0; c < 3; c++) out[o + g * 4 + c] /= total;
  out[o + 3] = 1;
}

/** Light about a place, between cells; null outside the rooms. */
export function lightAt({ min, cell, count, values }: RoomLight, p: Vec3): Gathered | null {
  const f = [(p.x - min.x) / cell - 0.5, (p.y - min.y) / cell - 0.5, (p.z - min.z) / cell - 0.5];
  const sizes = [count.x, count.y, count.z];
  if (f.some((v, a) => v < 0 || v > sizes[a] - 1)) return null;
  const [i, j, k] = f.map((v, a) => Math.min(sizes[a] - 2, Math.floor(v)));
  const out = new Float32Array(TERMS * 3);
  let total = 0;
  for (let n = 0; n < 8; n++) {
    const [a, b, c] = [n & 1, (n >> 1) & 1, n >> 2];
    const w = Math.abs(1 - a - (f[0] - i)) * Math.abs(1 - b - (f[1] - j)) * Math.abs(1 - c - (f[2] - k));
    const o = (((k + c) * count.y + j + b) * count.x + i + a) * WORDS;
    if (!values[o + 3]) continue;
    total += w;
    for (let g = 0; g < TERMS; g++) for (let ch = 0; ch < 3; ch++) out[g * 3 + ch] += values[o + g * 4 + ch] * w;
  }
  return total > 0.05 ? out.map((v) => v / total) : null;
}

/** How much of each order of radiance a surface takes (Ramamoorthi and Hanrahan 2001), over π. */
const TAKEN = [1, 2 / 3, 2 / 3, 2 / 3, 1 / 4, 1 / 4, 1 / 4, 1 / 4, 1 / 4] as const;

/** Nothing in a room is darker than this share of the mean: the series swings below it behind a window. */
const LEAST = 0.04;

/**
 * Illuminance of a surface, lux, from the light about it: the cosine series cut off after its second order, which holds all but a
 * hundredth of any illuminance.
 *
 * @param normal unit vector
 */
export function illuminanceFrom(light: Gathered, normal: Vec3): Rgb {
  const own = harmonics(normal);
  return [0, 1, 2].map((c) => {
    let sum = 0;
    for (let g = 0; g < TERMS; g++) sum += TAKEN[g] * own[g] * light[g * 3 + c];
    return Math.PI * Math.max(LEAST * Math.max(0, light[c]), sum);
  }) as unknown as Rgb;
}
