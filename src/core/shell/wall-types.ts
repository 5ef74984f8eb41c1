import type { Bow } from './bow';
import type { Arrangement, Cycle, LinePiece } from '../geometry/arrangement';
import type { Mesh } from '../geometry/mesh';
import type { Region } from '../geometry/region';
import type { Vec2 } from '../geometry/vec';
import type { RoofShape } from '../project/roofs';
import type { Level, Opening, Room, Side, Wall } from '../project/schema';
import type { Station } from '../project/wall-line';
import type { PieceFootprint } from './junctions';

/** One stretch of a wall's face, as one room (or the outside) sees it. */
export interface WallSide {
  key: string;
  wall: string;
  side: Side;
  /** The room it belongs to; null outside. */
  room: string | null;
  /** Whether it is seen from outdoors: from no room, or from one that is a terrace or a carport. */
  outdoors: boolean;
  /** Its ends in the plan, from the start towards the end of the wall. */
  from: Vec2;
  to: Vec2;
  /** All its points in the plan, with their distances along the wall's reference line. */
  path: Station[];
  /** The ends as distances along the wall's reference line. */
  s0: number;
  s1: number;
  /** Foot and upper edge of what shows of it, above the floor of the level: between the room's floor and its ceiling. */
  foot: number;
  height: number;
  /** Its surface, openings taken off, m². */
  area: number;
  /** What is seen of the ends of the wall on this side, m². */
  ends: number;
  /** Its length along its own face, metres: along the chords of an arc. */
  length: number;
  /** How its true arc differs from those. */
  bow: Bow;
  /** Its upper edge in the coordinates of the face, from left to right. */
  top: Vec2[];
  /** What shows of it in the coordinates of the face: along it from its left end as it is seen, and up from the floor of the level. */
  regions: Region[];
  openings: string[];
}

export interface DerivedWall {
  id: string;
  wall: Wall;
  thickness: number;
  /** Footprints of its pieces between junctions. */
  rings: Vec2[][];
  sides: WallSide[];
  /** Height of its upper edge at its lowest, above the floor of the level. */
  height: number;
  foot: number;
  /** Vertical faces of each side, in the order of `sides`. */
  faces: Mesh[];
  /** Upper side and underside. */
  lids: Mesh;
  /** What is hidden inside junctions. With the faces and the lids, a closed solid. */
  caps: Mesh;
}

/** All that a wall's shape follows from. */
export interface WallInputs {
  wall: Wall;
  level: Level;
  path: Station[];
  thickness: number;
  foot: number;
  pieces: readonly LinePiece[];
  footprints: readonly PieceFootprint[];
  openings: readonly Opening[];
  /** The roofs that cut it: none where it does not follow them. */
  roofs: readonly RoofShape[];
  /** Whether there is a roof over its level, which rooms may be open to. */
  roofsOver: boolean;
  arrangement: Arrangement;
  roomOf(cycle: Cycle | undefined): Room | null;
  /** Height up to which another wall certainly reaches: ∞ unless it ends level below the ceiling. */
  topOf(wall: string): number;
}

/** The upper edge of a wall. */
export interface UpperEdge {
  /** Height at a point of its footprint, whose place along the wall is `s`, above the floor of the level. */
  at(p: Vec2, s: number): number;
  /** Whether the height follows from the place along the wall alone. */
  alongWall: boolean;
  /** Where it folds square across the wall, as distances along it. */
  folds: number[];
  /** Where it bends above a line of the plan, as distances along the wall. */
  bends(line: readonly Station[]): number[];
  /** The planes it lies in, where these are not square to the wall. */
  roofs: readonly RoofShape[];
}
