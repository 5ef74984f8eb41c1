import { lerp, distance, project as projectOn, sub, unit, add, scale, type Vec2 } from '@/core/geometry/vec';
import { clearSpans, fitOpening } from '@/core/project/openings';
import { wallEnds } from '@/core/project/wall-line';
import { DEFAULTS, type Opening, type Project } from '@/core/project/schema';
import type { Model } from '@/core/derive';
import type { StockItem } from '@/core/stock/types';
import { snapStep } from '@/core/units/length';

/** Where a piece stands: the point and the way it faces. */
export interface Standing {
  x: number;
  y: number;
  rotation: number;
  note: string;
}

/**
 * Lets a piece find its place: with its back to a wall that is near, otherwise free at a whole step.
 *
 * @param reach how near a wall counts, metres
 */
export function standPiece(
  model: Model,
  level: string,
  item: Pick<StockItem, 'mount' | 'id'> | undefined,
  size: { width: number; depth: number },
  p: Vec2,
  rotation: number,
  reach: number,
): Standing {
  const { project } = model;
  const free = { x: snapStep(p.x, project.units), y: snapStep(p.y, project.units), rotation, note: '' };
  if (!item || item.mount === 'ceiling' || item.id === 'rug') return free;
  const gap = item.mount === 'window' ? 0.03 : 0;
  const near = Math.max(reach, item.mount === 'wall' || item.mount === 'window' ? 0.6 : 0.18);
  let best: Standing | null = null;
  let least = Infinity;
  for (const wall of model.shell.walls.values()) {
    if (wall.wall.level !== level) continue;
    for (const side of wall.sides) {
      const t = projectOn(p, side.from, side.to);
      if (t < 0 || t > 1) continue;
      const foot = lerp(side.from, side.to, t);
      const along = unit(sub(side.to, side.from));
      const out = side.side === 'left' ? { x: -along.y, y: along.x } : { x: along.y, y: -along.x };
      const off = (p.x - foot.x) * out.x + (p.y - foot.y) * out.y;
      if (off < -wall.wall.thickness / 2) continue;
      const gapNow = off - size.depth / 2;
      if (gapNow > near || off > size.depth / 2 + near) continue;
      if (Math.abs(gapNow) < least) {
        least = Math.abs(gapNow);
        // Along the wall: against a corner when near to it, else at a whole step from the start of the face.
        const length = distance(side.from, side.to);
        let s = t * length;
        if (s - size.width / 2 < near * 0.8) s = size.width / 2;
        else if (length - s - size.width / 2 < near * 0.8) s = length - size.width / 2;
        else s = snapStep(s, project.units);
        const at = add(add(side.from, scale(along, s)), scale(out, size.depth / 2 + gap));
        best = { x: at.x, y: at.y, rotation: Math.atan2(out.y, out.x) + Math.PI / 2, note: 'against the wall' };
      }
    }
  }
  return best ?? free;
}

/** A new opening at the point of a wall nearest to `p`; its centre is kept within the clear part of the wall. */
export function openingAt(project: Project, wallId: string, p: Vec2, kind: Opening['kind'], id: string): { opening: Opening; fits: boolean } {
  const wall = project.walls[wallId];
  const [a, b] = wallEnds(project, wall);
  const base = DEFAULTS[kind];
  const s = projectOn(p, a, b) * distance(a, b);
  const spans = clearSpans(project, wall);
  const fit = fitOpening(spans, snapStep(s, project.units), base.width);
  const number = Object.values(project.openings).filter((o) => o.kind === kind).length + 1;
  return {
    fits: Boolean(fit),
    opening: {
      id,
      name: `${kind === 'door' ? 'Door' : 'Window'} ${number}`,
      wall: wallId,
      kind,
      at: fit ? Math.round(fit.at * 1e6) / 1e6 : s,
      ...base,
      hinge: 'start',
      swing: (b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x) >= 0 ? 'left' : 'right',
      panes: { across: 2, up: 2 },
      finishes: {},
    },
  };
}
