import { roomOfTarget } from '../project/targets';
import { insideRegion } from '../geometry/polygon';
import { collections, kindOf, type CollectionName, type Thing } from '../project/kinds';
import { inPhase, type Phase } from '../project/phase';
import type { Project } from '../project/schema';
import type { DerivedBeam } from '../shell/built';
import { ShellDeriver, type DerivedColumn, type ShellModel } from '../shell/model';
import type { DerivedFence, DerivedGround } from '../shell/outside';
import { derivePiece, putPiece, type DerivedPiece } from '../stock/stock';
import { bodiesFrom, Parts, type Body, type Owned, type Part } from './body';
import { modelKind } from './kinds';
import { Memo, sameItems } from './memo';

/** Everything that follows from a project, which plan, 3D view, picture, drawing, schedule and export read. */
export interface Model {
  project: Project;
  shell: ShellModel;
  /** Where pieces stand and how they are drawn. */
  pieces: readonly DerivedPiece[];
  /** What follows from the things of kinds that are derived for themselves. */
  things: readonly DerivedThing[];
  /** Whatever stands, hangs, lies or grows: storey by storey, then the pieces, then what lies outside. */
  bodies: readonly Body[];
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
}

/** What follows from the things of one kind. @param level of this level alone */
export const derivedOf = <K extends keyof Derived>({ things }: Pick<Model, 'things'>, collection: K, level?: string): Derived[K][] =>
  things.flatMap((t) => (t.collection === collection && (level === undefined || t.level === level) ? [t.derived as Derived[K]] : []));

/** Derives models one after another, making anew only what an edit has touched. */
export class Deriver {
  private readonly memo = new Memo();
  private readonly shell = new ShellDeriver(this.memo);

  /** How many remembered values the last derivation had to make, for proof of locality. */
  get made(): number {
    return this.memo.made;
  }

  /** How many values are remembered in all. */
  get remembered(): number {
    return this.memo.size;
  }

  derive(whole: Project, phase: Phase = 'after'): Model {
    this.memo.begin();
    const shell = this.shell.derive(whole, phase);
    const pieces = this.memo.steady(
      'pieces',
      '',
      Object.values(whole.pieces).map((p) => derivePiece(whole, p)),
      sameItems,
    );
    const made = new Parts(this.memo, whole);
    for (const piece of pieces) putPiece(made, piece);
    const { onLevels, outside, things } = this.things(shell.project);
    const bodies = bodiesFrom(this.memo, [...shell.levels.flatMap((l) => l.parts), ...onLevels, ...made.made, ...outside, ...shell.site]);
    this.memo.end();
    return { project: whole, shell, pieces, things, bodies };
  }

  /** Derives the things of all kinds that are derived for themselves. @param project in one phase */
  private things(project: Project): { onLevels: readonly Owned[]; outside: readonly Owned[]; things: DerivedThing[] } {
    const { memo } = this;
    const [onLevels, outside] = [new Parts(memo, project), new Parts(memo, project)];
    const things: DerivedThing[] = [];
    for (const collection of collections()) {
      const { derive } = modelKind(collection);
      if (!derive) continue;
      for (const thing of Object.values(project[collection] as Record<string, Thing>)) {
        const level = kindOf(collection).onLevel ? project.levels[thing.level!] : null;
        const owner = { id: thing.id, kind: collection, level: level?.id ?? null } as never;
        const derived = derive(thing, { memo, project, level, owner, parts: level ? onLevels : outside });
        if (derived) things.push({ collection, id: thing.id, level: level?.id ?? null, derived });
      }
    }
    return { onLevels: onLevels.made, outside: outside.made, things };
  }
}

/** The model of one project, without a memory. */
export const deriveModel = (project: Project): Model => new Deriver().derive(project);

/** The shell alone of one project, without a memory. */
export const deriveShell = (project: Project, phase: Phase = 'after'): ShellModel => new ShellDeriver(new Memo()).derive(inPhase(project, phase), phase);

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
  if (body.kind !== 'pieces') return null;
  return model.shell.levels.find((l) => l.id === body.level)?.rooms.find((r) => insideRegion({ x, y }, r.region))?.id ?? null;
}
