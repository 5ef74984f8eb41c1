import { clipRegions } from '../geometry/clipping';
import { signedArea, totalArea } from '../geometry/polygon';
import type { Region, Ring } from '../geometry/region';
import { add, left, scale, sub, unit, type Vec2 } from '../geometry/vec';
import type { Model } from '../model/model';
import { fromAxesOf } from '../project/footprint';
import { traitsFor } from '../stock/stock';
import { DUST } from '../units/tolerance';
import { roomAt } from './around';

/**
 * Electrical zones about a bath or a shower (IEC 60364-7-701): 0 is what holds water, 1 lies over it, 2 goes on 600 beyond that
 * in its room; both end 2250 above the floor.
 */
export interface Zones {
  /** What they lie about. */
  piece: string;
  room: string;
  /** In the plan: zone 0 and 1, which cover the same floor, and zone 2 without it. */
  one: Region[];
  two: Region[];
  /** Height at which zone 0 ends and zone 1 begins, and at which 1 and 2 end, metres above the floor of the level. */
  rim: number;
  top: number;
}

/** How far zone 2 goes beyond zone 1, and how high both go, metres. */
const BEYOND = 0.6;
const TOP = 2.25;

/** Chords of a quarter of a circle. */
const STEPS = 8;

/** A ring that is convex, grown by a distance: its corners become arcs. */
function grown(ring: Ring, by: number): Ring {
  const own = signedArea(ring) < 0 ? [...ring].reverse() : ring;
  const n = own.length;
  return own.flatMap((p, i) => {
    const [a, b] = [left(unit(sub(p, own[(i + n - 1) % n]))), left(unit(sub(own[(i + 1) % n], p)))];
    const [from, to] = [Math.atan2(-a.y, -a.x), Math.atan2(-b.y, -b.x)];
    const turn = (to - from + 2 * Math.PI) % (2 * Math.PI);
    const steps = Math.max(1, Math.ceil((turn / (Math.PI / 2)) * STEPS - DUST));
    return Array.from({ length: steps + 1 }, (_, k): Vec2 => {
      const angle = from + (turn * k) / steps;
      return add(p, scale({ x: Math.cos(angle), y: Math.sin(angle) }, by));
    });
  });
}

/** The zones about a piece; null where it holds no water one stands or lies in, or stands in no room. Walls end them. */
export function zonesOf(model: Model, id: string): Zones | null {
  const own = model.pieces.find((p) => p.id === id);
  const room = own?.item?.wet ? roomAt(model, own.piece) : null;
  const region = room === null ? undefined : model.shell.rooms.get(room)?.region;
  if (!own || room === null || !region) return null;
  const { piece, item } = own;
  const shape = item!.wet!(piece.size, traitsFor(item!, piece.traits)).map((p) => fromAxesOf(piece, piece.mirrored ? { x: -p.x, y: p.y } : p));
  const ring = signedArea(shape) < 0 ? [...shape].reverse() : shape;
  const one = clipRegions('intersection', [{ outer: ring, holes: [] }], [region]);
  const two = clipRegions('difference', clipRegions('intersection', [{ outer: grown(ring, BEYOND), holes: [] }], [region]), one);
  const { elevation, size } = piece;
  return { piece: id, room, one, two, rim: elevation + size.height, top: elevation + TOP };
}

/** The zones of all that is washed in, on every level. */
export const allZones = (model: Model): Zones[] => model.pieces.flatMap((p) => (p.item?.wet ? (zonesOf(model, p.id) ?? []) : []));

/** The zone what covers an outline from a height stands in: 0, 1 or 2; null: it is in none. */
export function zoneOf(zones: Zones, outline: Ring, foot: number): 0 | 1 | 2 | null {
  if (foot >= zones.top) return null;
  const ring = signedArea(outline) < 0 ? [...outline].reverse() : outline;
  const meets = (regions: readonly Region[]): boolean => totalArea(clipRegions('intersection', [{ outer: ring, holes: [] }], regions)) > DUST;
  if (meets(zones.one)) return foot < zones.rim ? 0 : 1;
  return meets(zones.two) ? 2 : null;
}
