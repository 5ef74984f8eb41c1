import { insideRegion } from '../geometry/polygon';
import type { CollectionName } from '../project/kinds';
import type { Project } from '../project/schema';
import { roomOfRun } from '../project/runs';
import { roomOfTarget } from '../project/targets';
import type { DerivedRun } from '../cabinetry/derive';
import type { DerivedBeam } from '../shell/built';
import type { DerivedColumn, ShellModel } from '../shell/model';
import type { DerivedGround } from '../shell/ground';
import type { DerivedFence } from '../shell/outside';
import type { DerivedPiece } from '../stock/stock';
import type { Body, Part } from './body';

/** Everything that follows from a project, which plan, 3D view, picture, drawing, schedule and export read. */
export interface Model {
  project: Project;
  shell: ShellModel;
  /** Where pieces stand and how they are drawn. */
  pieces: readonly DerivedPiece[];
  /** What follows from the things of kinds that are derived for themselves. */
  things: readonly DerivedThing[];
  /** Whatever stands, hangs, lies or grows: storey by storey, then the pieces, then what lies outside. Made when they are first looked at. */
  readonly bodies: readonly Body[];
}

/** What follows from one thing. */
export interface DerivedThing {
  collection: CollectionName;
  id: string;
  /** The level it stands on; null: outside. */
  level: string | null;
  derived: object;
}

/** What is derived of the kinds that are derived for themselves. */
interface Derived {
  columns: DerivedColumn;
  beams: DerivedBeam;
  grounds: DerivedGround;
  fences: DerivedFence;
  runs: DerivedRun;
}

/** What follows from the things of one kind. @param level of this level alone */
export const derivedOf = <K extends keyof Derived>({ things }: Pick<Model, 'things'>, collection: K, level?: string): Derived[K][] =>
  things.flatMap((t) => (t.collection === collection && (level === undefined || t.level === level) ? [t.derived as Derived[K]] : []));

const indices = new WeakMap<readonly Body[], Map<string, Body>>();

/** The body of a thing; undefined where it has none. */
export function bodyOf({ bodies }: Pick<Model, 'bodies'>, id: string): Body | undefined {
  let index = indices.get(bodies);
  if (!index) indices.set(bodies, (index = new Map(bodies.map((b) => [b.id, b]))));
  return index.get(id);
}

/** Every part of a model with its body. */
export function* partsOf({ bodies }: Pick<Model, 'bodies'>): Generator<readonly [Body, Part]> {
  for (const body of bodies) for (const part of body.parts) yield [body, part];
}

/** The room a part is of, or that its body stands in; null outside and in walls. */
export function roomOfPart(model: Model, body: Body, part: Part): string | null {
  const own = part.target && roomOfTarget(model.project, part.target);
  if (own !== undefined) return own;
  const [x, y] = [body.matrix[12], body.matrix[13]];
  if (body.kind === 'runs' || body.kind === 'cabinets') {
    const run = model.project.runs[body.kind === 'runs' ? body.id : model.project.cabinets[body.id]?.run];
    const room = run && roomOfRun(run);
    return room && model.shell.rooms.has(room) ? room : null;
  }
  if (body.kind !== 'pieces') return null;
  return model.shell.levels.find((l) => l.id === body.level)?.rooms.find((r) => insideRegion({ x, y }, r.region))?.id ?? null;
}
