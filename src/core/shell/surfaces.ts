import type { Matrix, Mesh } from '../geometry/mesh';
import type { FaceTarget } from '../project/commands';
import { finishIn } from '../finishes/store';
import type { Finish, Project, Slab } from '../project/schema';
import type { DerivedWall } from './walls';

/** What a surface is worth before anybody has chosen a finish. */
export const BARE = {
  wall: 'bare.plaster',
  floor: 'bare.screed',
  ceiling: 'bare.ceiling',
  outside: 'bare.render',
  ground: 'bare.ground',
  cut: 'bare.cut',
} as const;

/** What the parts of a roof are of before anybody has chosen. */
export const ROOF_FINISHES = { covering: 'bare.cut', fascia: 'paint.skein', soffit: 'paint.skein', timber: 'timber.oak' } as const;

/** What the parts of stairs, guards and slabs are of before anybody has chosen. */
export const STAIR_FINISHES = { tread: 'timber.oak-plank', riser: 'paint.skein', string: 'paint.skein', rail: 'timber.oak', infill: 'paint.skein' } as const;
export const INFILL_FINISHES = { balusters: 'paint.skein', glass: 'glass.clear', cable: 'metal.steel-brushed', none: 'paint.skein' } as const;
export const SLAB_FINISHES: Record<Slab['kind'], { top: string; edge: string }> = {
  mezzanine: { top: 'timber.oak-plank', edge: 'paint.skein' },
  balcony: { top: 'stone.flag', edge: 'bare.render' },
  deck: { top: 'timber.ash-plank', edge: 'timber.ash' },
  foundation: { top: 'bare.screed', edge: 'bare.screed' },
};

/** A part of the model that has one finish and one address. Meshes are in world metres, z up. */
export interface Surface {
  key: string;
  /** The wall, opening, column, room or level it comes from. */
  entity: string;
  target: FaceTarget | null;
  finish: string;
  /** The finish as it is laid here, where that differs from how it comes. */
  laid?: Finish;
  /** The wall it goes with, where it is not a part of one. */
  host?: string;
  /** A `cap` is the end of a wall inside a junction: seen only where its neighbour is taken away. */
  kind:
    | 'wall'
    | 'top'
    | 'cap'
    | 'floor'
    | 'ceiling'
    | 'slab'
    | 'opening'
    | 'column'
    | 'roof'
    | 'dormer'
    | 'framing'
    | 'stair'
    | 'floor-slab'
    | 'guard'
    | 'beam'
    | 'fence'
    | 'ground'
    | 'backdrop'
    | 'patch'
    | 'moulding';
  mesh: Mesh;
  /** Where the mesh stands, for meshes shared by several openings. */
  matrix: Matrix | null;
  level: string;
}

/** The finish of a surface as it is laid there. */
export const surfaceFinish = (project: Pick<Project, 'finishes'>, surface: Pick<Surface, 'finish' | 'laid'>): Finish =>
  surface.laid ?? finishIn(project, surface.finish);

/** The surfaces of a wall: its faces with their finishes, its top, its hidden ends. */
export function wallSurfaces(wall: DerivedWall, finishes: readonly string[], level: string): Surface[] {
  const surfaces: Surface[] = wall.sides.map((side, i) => ({
    key: `${side.key}/${i}`,
    entity: wall.id,
    target: { kind: 'wall', room: side.room, wall: wall.id, side: side.side },
    finish: finishes[i],
    kind: 'wall',
    mesh: wall.faces[i],
    matrix: null,
    level,
  }));
  if (wall.wall.kind === 'wall')
    for (const [kind, mesh] of [
      ['top', wall.lids],
      ['cap', wall.caps],
    ] as const)
      surfaces.push({ key: `${wall.id}/${kind}`, entity: wall.id, target: null, finish: BARE.cut, kind, mesh, matrix: null, level });
  return surfaces;
}
