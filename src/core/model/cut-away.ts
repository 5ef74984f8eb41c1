import type { Model } from './model';
import { insideRegion } from '../geometry/polygon';
import type { Vec3 } from '../geometry/vec';
import { withUnits } from '../project/things';
import { traitsOf, type Sort } from './sorts';
import { levelAbove } from '../project/levels';
import type { Look } from '../project/schema';
import { NEAR } from '../units/tolerance';
import { hangers } from './hangers';

/** How the model is looked at. */
export interface Looking {
  look: Look;
  eye: Vec3;
  /** The level in hand: cut away, the house is seen up to it. */
  level: string | null;
  room: string | null;
  /** Whether the eye stands where somebody chose to stand, or walks, rather than back from the model. */
  afoot: boolean;
  /** What is chosen shows though it covers something. */
  chosen: ReadonlySet<string>;
}

/** A part as far as it matters for whether it shows. */
export interface Seen {
  /** The id of its body. */
  entity: string;
  sort: Sort;
  /** Null outside. */
  level: string | null;
  /** The wall it goes with, where that is known from the start. */
  host?: string;
}

/** Whether the eye is inside a room, below its ceiling. */
export function insideRoom({ shell }: Model, { eye, level, look, afoot }: Pick<Looking, 'eye' | 'level' | 'look' | 'afoot'>): boolean {
  const { x, y, z } = eye;
  const own = shell.levels.find((l) => l.id === level)?.level;
  return shell.levels.some(
    (l) =>
      // Looked at from above, the storeys over the one in hand are taken away: one is not in their rooms.
      (afoot || !look.cut || !own || l.level.structure !== own.structure || l.level.elevation < own.elevation + NEAR) &&
      z > l.level.elevation &&
      // Under a roof a room may go on above the height of its level.
      z < l.level.elevation + Math.max(l.level.height, ...l.roofs.map((r) => (r.shape.roof.over.kind === 'outline' ? 0 : r.shape.top - 0.3))) &&
      l.rooms.some((r) => insideRegion({ x, y }, r.region)),
  );
}

/** What hangs on what in a model, and what would only cover a room from above. */
export interface Coverings {
  /** Walls that pieces hang on: what hangs on a wall goes with it. */
  hosts: ReadonlyMap<string, string>;
  /** Luminaires set flush under the ceiling, and rooflights. */
  flush: ReadonlySet<string>;
}

export const coveringsOf = (model: Model): Coverings => ({
  hosts: hangers(model),
  flush: new Set([
    ...model.pieces.filter((p) => p.item?.mount === 'ceiling' && p.piece.size.height < 0.2).map((p) => p.id),
    ...Object.keys(model.project.rooflights),
  ]),
});

/** Takes away the walls that stand between the eye and the rooms, and what covers them. `lidOff`: one looks into them from above. */
export function cutAway(
  model: Model,
  { hosts, flush }: Coverings,
  looking: Looking,
): { shows(part: Seen): boolean; stub(wall: string, level: string): boolean; lidOff: boolean } {
  const { look, eye, level, room, chosen } = looking;
  const { project, shell } = model;
  const inside = insideRoom(model, looking);
  const opened = look.cut && !inside;
  const gone = withUnits(project, [...look.hidden, ...project.contents.hidden]);
  const top = shell.levels.find((l) => l.id === level)?.level ?? shell.levels.at(-1)?.level;
  const higher = new Set(
    top ? shell.levels.filter((l) => l.level.structure === top.structure && l.level.elevation > top.elevation + NEAR).map((l) => l.id) : [],
  );
  const above = look.cut && !inside && (!top || eye.z > top.elevation + top.height);
  const walls = new Set<string>();
  if (opened)
    for (const wall of shell.walls.values())
      for (const side of wall.sides) {
        const outside = side.room === null;
        if (!outside && !(room !== null && side.room === room)) continue;
        const d = { x: side.to.x - side.from.x, y: side.to.y - side.from.y };
        const n = side.side === 'left' ? { x: -d.y, y: d.x } : { x: d.y, y: -d.x };
        const facing = (eye.x - side.from.x) * n.x + (eye.y - side.from.y) * n.y;
        if (outside ? facing > 0 : facing < 0) walls.add(wall.id);
      }
  const covered = new Set(shell.levels.flatMap((l) => ((l.level.id !== top?.id || !opened) && levelAbove(project, l.id) ? [l.id] : [])));
  const hostOf = ({ entity, sort, host }: Seen): string | undefined => host ?? (traitsOf(sort).ofWall ? entity : hosts.get(entity));
  return {
    lidOff: opened && above,
    shows: (part) => {
      const { entity, sort, level: own } = part;
      const { overhead } = traitsOf(sort);
      const host = hostOf(part);
      if (host && walls.has(host)) return false;
      if (gone.has(entity) || (own !== null && gone.has(own)) || gone.has(`all/${sort}`)) return false;
      if (opened && (overhead || (own !== null && higher.has(own)))) return false;
      if (!overhead && above && (sort === 'ceiling' || flush.has(entity)) && !chosen.has(entity)) return false;
      // The tops of walls are covered by the floor or the roof above, unless those are taken away.
      const wall = sort === 'top' ? project.walls[entity] : undefined;
      return !(wall && (wall.top.kind === 'ceiling' ? own !== null && covered.has(own) : wall.top.kind === 'roof' && !opened));
    },
    stub: (wall, own) => walls.has(wall) && !higher.has(own) && ![wall, own, 'all/wall'].some((key) => gone.has(key)),
  };
}
