import type { Frame, Placing } from '../../finishes/laying/place';
import type { Mesh } from '../../geometry/mesh';
import type { Region, Ring } from '../../geometry/region';
import type { Part } from '../../model/body';
import type { Finish, Moulding, Patch } from '../../project/schema';
import type { Target } from '../../project/targets';
import type { WallSide } from '../wall-types';

/** One face as a room, or the outside, sees it, in coordinates of its own. */
export interface Face {
  address: string;
  target: Target;
  kind: 'wall' | 'floor' | 'ceiling';
  room: string | null;
  level: string;
  /** The wall it is a side of. */
  side: WallSide | null;
  /**
   * What shows of it, openings taken off. Of walls: x from the left end as it is seen, y above the floor of the level; of
   * floors and ceilings the coordinates of the plan.
   */
  regions: Region[];
  /** m², also where it slopes. */
  area: number;
  frame: Frame;
  finish: string;
  /** Whether anybody has chosen that. */
  chosen: boolean;
  /** Length of the faces before it, going round the room to the right, metres. */
  carried: number;
  /** Height of coordinate y = 0 (walls), or of the face itself. */
  z: number;
}

/** A patch as it comes to lie on one face. */
export interface DerivedPatch {
  patch: Patch;
  face: Face;
  /** What shows of it, in the coordinates of the face. */
  regions: Region[];
  area: number;
  thickness: number;
  mesh: Mesh;
  /** Panels in the coordinates of the face, their frames and what lies within them. */
  panels: Ring[];
  frames: Mesh | null;
  /** Length of panel moulding, metres, and its mitres. */
  moulding: { length: number; mitres: number };
  fields: Mesh | null;
  /** What lies within the panels where it has a finish of its own, in the coordinates of the face. */
  fieldRegions: Region[];
}

/** A moulding of a room as it runs along its walls. */
export interface DerivedMoulding {
  moulding: Moulding;
  /** One mesh for each wall it runs along. */
  parts: { wall: string; mesh: Mesh }[];
  /** Along the wall, metres. */
  length: number;
  /** Joints cut at an angle, and plain ends. */
  mitres: number;
  ends: number;
}

/** A face with all that is laid on it. */
export interface DressedFace extends Face {
  /** Its finish as it is laid here, and where its pattern begins. */
  laid: Finish;
  placing: Placing;
  patches: DerivedPatch[];
  /** The part it shows as. */
  part: Part | null;
  /** Of a floor, the ways through walls it goes on in, with their parts. */
  ways: { region: Region; part: Part }[];
  /** What is left of it between its patches. */
  rest: { area: number };
}
