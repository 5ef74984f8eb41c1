import { edgeDirection, type HalfEdge } from '../geometry/arrangement';
import { signedArea, tidyRing } from '../geometry/polygon';
import type { Ring } from '../geometry/region';
import { add, cross, dot, left, scale, sub, type Vec2 } from '../geometry/vec';
import type { LayerMaterial, Project, WallLayer } from '../project/schema';
import { wallExtents } from '../project/wall-line';
import type { DerivedLevel } from './model';
import { DUST } from '../units/tolerance';

/** One layer of a wall as it is cut in the plan. */
export interface LayerCut {
  /** The wall it belongs to: at a joint, the one that runs on. */
  wall: string;
  material: LayerMaterial;
  core: boolean;
  rings: Ring[];
}

/** The part of a ring on the left of the line through `p` along `d` (Sutherland and Hodgman). */
function clip(ring: Ring, p: Vec2, d: Vec2): Ring {
  const out: Ring = [];
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % ring.length];
    const [sa, sb] = [cross(d, sub(a, p)), cross(d, sub(b, p))];
    if (sa >= 0) out.push(a);
    if ((sa > 0 && sb < 0) || (sa < 0 && sb > 0)) out.push(add(a, scale(sub(b, a), sa / (sa - sb))));
  });
  return out.length < 3 ? [] : tidyRing(out);
}

/** The layers of a wall from its right to its left. */
function layersOf(project: Project, id: string): readonly WallLayer[] {
  const wall = project.walls[id];
  const type = wall.type === null ? undefined : project.wallTypes[wall.type];
  if (!type) return [];
  return wall.turned ? [...type.layers].reverse() : type.layers;
}

/** The core of a wall at the side a stem comes from: how far its near edge lies from the reference line, and what it is. */
function coreToward(project: Project, id: string, side: 1 | -1): { off: number; material: LayerMaterial } | null {
  const layers = layersOf(project, id);
  if (!layers.length) return null;
  const { right } = wallExtents(project, project.walls[id]);
  let y = -right;
  let found: { off: number; material: LayerMaterial } | null = null;
  for (const layer of layers) {
    if (layer.core && (side > 0 || !found)) found = { off: side > 0 ? y + layer.thickness : y, material: layer.material };
    y += layer.thickness;
  }
  return found;
}

/**
 * The layers of a wall, cut as its footprint is: they mitre at corners. Where the wall ends on one that runs on, that
 * one's core runs through and the layers stop in front of it; what covers that core gives way to the core of this wall.
 */
export function layerCuts(project: Project, level: DerivedLevel, wallId: string): LayerCut[] {
  const layers = layersOf(project, wallId);
  const cuts: LayerCut[] = layers.map(({ material, core }) => ({ wall: wallId, material, core, rings: [] }));
  const { arrangement } = level.plan;
  /** What the wall that runs on keeps of a joint, layer by layer. */
  const tips: LayerCut[] = [];
  for (const piece of arrangement.byLine.get(wallId) ?? []) {
    const print = level.joined.pieces[piece.index];
    if (!print) continue;
    const origin = arrangement.nodes[piece.from];
    const d = edgeDirection(arrangement, { piece: piece.index, forward: true });
    let rings = [print.ring, ...(print.rest ?? [])].filter((r) => r.length > 2);
    for (const forward of [true, false]) {
      const through = runsThrough(project, level, { piece: piece.index, forward });
      if (!through) continue;
      for (const ring of rings.map((r) => clip(r, through.p, scale(through.d, -1))).filter((r) => r.length > 2))
        for (const { layer, low, high } of through.strips) {
          const part = clip(clip(ring, low, through.along), high, scale(through.along, -1));
          if (part.length > 2 && Math.abs(signedArea(part)) > DUST)
            tips.push({ wall: through.wall, material: layer.material, core: layer.core, rings: [part] });
        }
      rings = rings.map((r) => clip(r, through.p, through.d)).filter((r) => r.length > 2);
    }
    let y = -piece.right;
    layers.forEach((layer, i) => {
      const n = left(d);
      const low = add(origin, scale(n, y));
      const high = add(origin, scale(n, y + layer.thickness));
      for (const ring of rings) {
        const strip = clip(clip(ring, low, d), high, scale(d, -1));
        if (strip.length > 2 && Math.abs(signedArea(strip)) > DUST) cuts[i].rings.push(strip);
      }
      y += layer.thickness;
    });
  }
  return [...cuts, ...tips];
}

interface Through {
  wall: string;
  /** The near edge of its core, the piece that ends there at the left. */
  p: Vec2;
  d: Vec2;
  /** Its own direction, and its layers between parallels of it. */
  along: Vec2;
  strips: { layer: WallLayer; low: Vec2; high: Vec2 }[];
}

/** The wall of another core that runs on where a piece ends; null where none does. */
function runsThrough(project: Project, level: DerivedLevel, edge: HalfEdge): Through | null {
  const { arrangement } = level.plan;
  const piece = arrangement.pieces[edge.piece]!;
  const own = layersOf(project, piece.line).find((l) => l.core);
  if (!own) return null;
  const node = edge.forward ? piece.from : piece.to;
  const away = edgeDirection(arrangement, edge);
  const others = arrangement.fans[node].filter((e) => arrangement.pieces[e.piece]!.line !== piece.line);
  // A line of its own that crosses here has no end to stop.
  if (arrangement.fans[node].filter((e) => arrangement.pieces[e.piece]!.line === piece.line).length > 1) return null;
  for (const e of others)
    for (const f of others) {
      if (e.piece >= f.piece) continue;
      const [de, df] = [edgeDirection(arrangement, e), edgeDirection(arrangement, f)];
      if (Math.abs(cross(de, df)) > 0.02 || dot(de, df) > 0) continue;
      const line = arrangement.pieces[e.piece]!.line;
      const along = e.forward ? de : scale(de, -1);
      const side = cross(along, away) > 0 ? 1 : -1;
      const core = coreToward(project, line, side);
      if (!core || core.material === own.material || Math.abs(cross(along, away)) < 0.05) continue;
      const at = (off: number): Vec2 => add(arrangement.nodes[node], scale(left(along), off));
      let y = -wallExtents(project, project.walls[line]).right;
      const strips = layersOf(project, line).map((layer) => ({ layer, low: at(y), high: at((y += layer.thickness)) }));
      return { wall: line, p: at(core.off), d: side > 0 ? along : scale(along, -1), along, strips };
    }
  return null;
}
