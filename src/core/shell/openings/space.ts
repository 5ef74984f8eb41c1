import type { Grain } from '../../geometry/grain';
import type { Joint } from '../../geometry/joint';
import { IDENTITY, type Matrix, type Mesh } from '../../geometry/mesh';
import type { OpeningPart } from '../../project/kinds/openings';
import type { Opening, Profile, Side } from '../../project/schema';
import type { CornerShape } from './corner';

export interface OpeningParts {
  part: OpeningPart;
  /** Tells apart what goes by one name; none: it is fixed. */
  key?: string;
  mesh: Mesh;
  /** Where it stands, shut if it has a joint. */
  at: Matrix;
  /** What it opens by, and how much of the way it goes when the whole is opened: 1, or 0 for what stays shut. */
  joint?: Joint & { share: number };
  grain?: Grain;
}

/** A part that is fixed. */
export const fixedPart = (part: OpeningPart, mesh: Mesh): OpeningParts => ({ part, mesh, at: IDENTITY });

/** What hangs together: a leaf or a light with its glass and its handle. */
export interface Wing {
  meshes: Partial<Record<OpeningPart, Mesh>>;
  at: Matrix;
  joint?: Joint & { share: number };
  grain?: Grain;
}

/** The parts of leaves and lights, in the order of their names. */
export const wingParts = (wings: readonly Wing[], order: readonly OpeningPart[]): OpeningParts[] =>
  order.flatMap((part) =>
    wings.flatMap(({ meshes, at, joint, grain }, i): OpeningParts[] => {
      const mesh = meshes[part];
      return mesh?.indices.length ? [{ part, key: `${part}-${i + 1}`, mesh, at, joint, grain }] : [];
    }),
  );

export interface OpeningSpace {
  opening: Opening;
  /** Thickness of the wall. */
  thickness: number;
  /** The side of the wall that is indoors: where the sill board and the architrave of a window lie. */
  inside: Side;
  /** The path of a corner window, in its local axes. */
  corner: CornerShape | null;
  /** The section of its architraves; null: a plain band. */
  profile: Profile | null;
}
