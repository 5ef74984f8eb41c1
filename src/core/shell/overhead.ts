import { joinMeshes, type Mesh } from '../geometry/mesh';
import { dormerShape, holesInRoof, rooflightInRoof } from '../project/dormers';
import { rooflightRoom } from '../project/rooflights';
import { roofShape, roofsToFollow, type RoofShape } from '../project/roofs';
import type { Level, Project } from '../project/schema';
import { deriveDormer, type DerivedDormer } from './dormers';
import { deriveFraming } from './framing';
import { sameRegion, type JoinedPlan } from './junctions';
import type { Parts } from '../model/body';
import { sameItems, type Memo } from '../model/memo';
import type { DerivedRoom } from './model';
import { deriveInRoof, deriveRooflight, type DerivedRooflight } from './rooflights';
import { atticFaces, deriveRoof, type DerivedRoof, type RoofHole } from './roofs';

/** What is known of a level when what lies over it is derived; what is made is added to `parts`. */
interface Overhead {
  project: Project;
  level: Level;
  joined: JoinedPlan;
  /** The roofs over the level. */
  roofs: RoofShape[];
  parts: Parts;
}

/** Derives what lies over the rooms of a level: rooflights, roofs with their framing, dormers. */
export class OverheadDeriver {
  constructor(private readonly memo: Memo) {}

  rooflights({ project, level, roofs, parts }: Overhead): DerivedRooflight[] {
    const rooflights: DerivedRooflight[] = [];
    for (const id in project.rooflights) {
      const rooflight = project.rooflights[id];
      const room = rooflight.level === level.id ? rooflightRoom(project, rooflight) : null;
      if (!room) continue;
      const follows = room.cover.kind === 'roof' ? roofsToFollow(roofs) : [];
      const derived = this.memo.get('rooflight', id, [rooflight, room.id, room.cover, level, ...follows], () => {
        const place = follows.length ? rooflightInRoof(project, rooflight) : null;
        return place ? deriveInRoof(rooflight, place, room, level) : deriveRooflight(rooflight, room, level);
      });
      rooflights.push(derived);
      const owner = { id, kind: 'rooflights', level: level.id, matrix: derived.matrix } as const;
      for (const { part, mesh } of derived.parts)
        parts.putOf(owner, rooflight, { part, sort: 'opening', mesh, panes: part === 'glass' ? derived.glazing : undefined });
    }
    return rooflights;
  }

  /** What is cut out of a roof; the same object while it stays the same. */
  cut(project: Project, shape: RoofShape): readonly RoofHole[] {
    return this.memo.steady(
      'roof holes',
      shape.roof.id,
      holesInRoof(project, shape),
      (a, b) => a.length === b.length && a.every((h, i) => h.edge === b[i].edge && sameRegion({ outer: h.ring, holes: [] }, { outer: b[i].ring, holes: [] })),
    );
  }

  dormers({ project, level, parts }: Overhead): DerivedDormer[] {
    const out: DerivedDormer[] = [];
    for (const id in project.dormers) {
      const dormer = project.dormers[id];
      if (project.roofs[dormer.roof]?.level !== level.id) continue;
      const roof = roofShape(project, project.roofs[dormer.roof]);
      const derived = this.memo.get('dormer', id, [dormer, roof, level], () => {
        const shape = dormerShape(project, dormer);
        return shape && deriveDormer(shape, level);
      });
      if (!derived) continue;
      out.push(derived);
      const owner = { id, kind: 'dormers', level: level.id, matrix: derived.matrix } as const;
      for (const { part, mesh } of derived.parts)
        parts.putOf(owner, dormer, { part, sort: 'dormer', mesh, panes: part === 'glass' ? derived.glazing : undefined });
    }
    return out;
  }

  roofs({ project, level, joined, roofs, parts }: Overhead, rooms: readonly DerivedRoom[]): DerivedRoof[] {
    const open = this.memo.steady(
      'rooms open to the roof',
      level.id,
      rooms.filter((r) => r.room.cover.kind === 'roof').map((r) => r.region),
      sameItems,
    );
    return roofs.map((shape) => {
      const { roof } = shape;
      const holes = this.cut(project, shape);
      const derived = this.memo.get('roof', roof.id, [shape, level, holes, ...joined.outline], () => {
        const made = deriveRoof(shape, level, joined.outline, holes);
        return roof.framing ? { ...made, framing: deriveFraming(shape, roof.framing, level, holes) } : made;
      });
      const owner = { id: roof.id, kind: 'roofs', level: level.id } as const;
      const put = (part: 'covering' | 'fascia' | 'soffit' | 'timber', mesh: Mesh, sort: 'roof' | 'framing' = 'roof', key: string = part): void =>
        parts.putOf(owner, roof, { part, key, sort, mesh, grain: sort === 'framing' ? 'length' : undefined });
      put('soffit', derived.cuts, 'roof', 'cuts');
      // Over rooms with a ceiling of their own, the underside shows from the attic.
      const attic = this.memo.get('attic', roof.id, [shape, level, holes, open, ...joined.outline], () => atticFaces(derived, level, joined.outline, open));
      parts.put(owner, { part: 'attic', sort: 'roof', finish: 'timber.oak', target: null, mesh: attic });
      if (derived.framing && roof.framing?.shown) put('timber', derived.framing.mesh, 'framing');
      put('covering', derived.covering);
      put(
        'fascia',
        this.memo.get('fascia and gutters', roof.id, [derived], () => joinMeshes([derived.fascia, derived.gutters])),
      );
      put('soffit', derived.soffit);
      return derived;
    });
  }
}
