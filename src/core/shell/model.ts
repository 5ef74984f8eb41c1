import type { Phase } from '../project/phase';
import type { Column, Level, Project, Room } from '../project/schema';
import type { Region } from '../geometry/region';
import type { Mesh } from '../geometry/mesh';
import type { Vec2 } from '../geometry/vec';
import type { Plan } from '../project/topology';
import type { JoinedPlan } from './junctions';
import type { Owned } from '../model/body';
import type { DerivedOpening } from './openings/derive';
import type { DerivedRooflight } from './rooflights';
import type { DerivedSlab, DerivedVoid } from './built';
import type { DerivedDormer } from './dormers';
import type { DressedFace, DerivedMoulding } from './dress/dressed';
import type { DerivedRoof } from './roofs';
import type { DerivedStair } from './stairs';
import type { DerivedWall, WallSide } from './wall-types';

export interface DerivedRoom {
  id: string;
  room: Room;
  region: Region;
  /** Clear floor area inside the walls, voids taken off, m². */
  area: number;
  /** What of that lies between the true arcs of its walls and their chords, of which its outline is made, m². */
  bowed: number;
  /** Of it, what has a height of 1.5 m or more over it. */
  highArea: number;
  perimeter: number;
  label: Vec2;
  /** Extent inside the walls along the plan axes, metres. */
  size: Vec2;
  sides: WallSide[];
  /** Clear height from its floor to its ceiling, metres; of a room open to the sky, up to the height of the level. */
  height: number;
  /** Whether anything closes it above. */
  covered: boolean;
  /** Its floor without voids, and what its ceiling covers of the plan. */
  floor: Region[];
  ceiling: Region[];
}

export interface DerivedColumn {
  id: string;
  column: Column;
  ring: Vec2[];
  height: number;
  mesh: Mesh;
}

export interface DerivedLevel {
  id: string;
  level: Level;
  plan: Plan;
  joined: JoinedPlan;
  walls: DerivedWall[];
  rooms: DerivedRoom[];
  openings: DerivedOpening[];
  rooflights: DerivedRooflight[];
  roofs: DerivedRoof[];
  dormers: DerivedDormer[];
  stairs: DerivedStair[];
  voids: DerivedVoid[];
  slabs: DerivedSlab[];
  /** What it is made of, as laid. */
  parts: readonly Owned[];
  /** Every side of a wall, floor and ceiling with what is laid on it. */
  faces: DressedFace[];
  mouldings: DerivedMoulding[];
}

/** The shell of a project: what follows from walls, openings and rooms. */
export interface ShellModel {
  /** The project as it is in the phase shown. */
  project: Project;
  phase: Phase;
  levels: DerivedLevel[];
  /** The ground round about and what lies beyond it. */
  site: readonly Owned[];
  rooms: Map<string, DerivedRoom>;
  walls: Map<string, DerivedWall>;
  openings: Map<string, DerivedOpening>;
}
