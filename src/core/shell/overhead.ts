import { joinMeshes } from '../geometry/mesh';
import { dormerShape, holesInRoof, rooflightInRoof } from '../project/dormers';
import { rooflightRoom } from '../project/rooflights';
import { roofShape, roofsToFollow, type RoofShape } from '../project/roofs';
import type { Level, Project } from '../project/schema';
import { deriveDormer, DORMER_FINISHES, type DerivedDormer } from './dormers';
import { deriveFraming } from './framing';
import { sameRegion, type JoinedPlan } from './junctions';
import { sameItems, type Memo } from './memo';
import type { DerivedRoom } from './model';
import { deriveInRoof, deriveRooflight, type DerivedRooflight } from './rooflights';
import { atticFaces, deriveRoof, type DerivedRoof, type RoofHole } from './roofs';
import { ROOF_FINISHES, type Surface } from './surfaces';

/** What is known of a level when what lies over it is derived; what is made is added to `surfaces`. */
interface Overhead {
  project: Project;
  level: Level;
  joined: JoinedPlan;
  /** The roofs over the level. */
  roofs: RoofShape[];
  surfaces: Surface[];
}

/** Derives what lies over the rooms of a level: rooflights, roofs with their framing, dormers. */
export class OverheadDeriver {
  constructor(private readonly memo: Memo) {}

  rooflights({ project, level, roofs, surfaces }: Overhead): DerivedRooflight[] {
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
      for (const { part, mesh, finish } of derived.parts)
        surfaces.push({
          key: `${id}/${part}`,
          entity: id,
          target: { kind: 'opening', opening: id, part },
          finish,
          kind: 'opening',
          mesh,
          matrix: derived.matrix,
          level: level.id,
        });
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

  dormers({ project, level, surfaces }: Overhead): DerivedDormer[] {
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
      for (const { part, mesh } of derived.parts)
        surfaces.push({
          key: `${id}/${part}`,
          entity: id,
          target: { kind: 'part', of: id, part },
          finish: dormer.finishes[part] ?? (part === 'covering' ? (project.roofs[dormer.roof].covering ?? DORMER_FINISHES.covering) : DORMER_FINISHES[part]),
          kind: 'dormer',
          mesh,
          matrix: derived.matrix,
          level: level.id,
        });
    }
    return out;
  }

  roofs({ project, level, joined, roofs, surfaces }: Overhead, rooms: readonly DerivedRoom[]): DerivedRoof[] {
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
      if (derived.cuts.indices.length)
        surfaces.push({
          key: `${roof.id}/cuts`,
          entity: roof.id,
          target: { kind: 'roof', roof: roof.id, part: 'soffit' },
          finish: roof.soffit ?? ROOF_FINISHES.soffit,
          kind: 'roof',
          mesh: derived.cuts,
          matrix: null,
          level: level.id,
        });
      // Over rooms with a ceiling of their own, the underside shows from the attic.
      const attic = this.memo.get('attic', roof.id, [shape, level, holes, open, ...joined.outline], () => atticFaces(derived, level, joined.outline, open));
      if (attic.indices.length)
        surfaces.push({
          key: `${roof.id}/attic`,
          entity: roof.id,
          target: null,
          finish: ROOF_FINISHES.timber,
          kind: 'roof',
          mesh: attic,
          matrix: null,
          level: level.id,
        });
      if (derived.framing && roof.framing?.shown)
        surfaces.push({
          key: `${roof.id}/timber`,
          entity: roof.id,
          target: { kind: 'roof', roof: roof.id, part: 'timber' },
          finish: roof.timber ?? ROOF_FINISHES.timber,
          kind: 'framing',
          mesh: derived.framing.mesh,
          matrix: null,
          level: level.id,
        });
      for (const [part, mesh] of [
        ['covering', derived.covering],
        ['fascia', this.memo.get('fascia and gutters', roof.id, [derived], () => joinMeshes([derived.fascia, derived.gutters]))],
        ['soffit', derived.soffit],
      ] as const)
        if (mesh.indices.length)
          surfaces.push({
            key: `${roof.id}/${part}`,
            entity: roof.id,
            target: { kind: 'roof', roof: roof.id, part },
            finish: roof[part] ?? ROOF_FINISHES[part],
            kind: 'roof',
            mesh,
            matrix: null,
            level: level.id,
          });
      return derived;
    });
  }
}
