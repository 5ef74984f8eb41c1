import { collections, kindOf, type Thing } from '../project/kinds';
import { inPhase, type Phase } from '../project/phase';
import type { Project } from '../project/schema';
import { ShellDeriver } from '../shell/derive';
import type { ShellModel } from '../shell/model';
import { derivePiece, putPiece, type DerivedPiece } from '../stock/stock';
import type { DerivedThing, Model } from './model';
import { bodiesFrom, Parts, type Body, type Owned } from './body';
import { modelKind } from './kinds';
import { Memo, sameItems } from './memo';

/** Derives models one after another, making anew only what an edit has touched. */
export class Deriver {
  private readonly memo = new Memo();
  private readonly shell = new ShellDeriver(this.memo);
  /** Of the bodies, which are made when somebody first looks at them: plans, lists and findings need no meshes. */
  private readonly looks = new Memo();

  /** How many remembered values the last derivation had to make, for proof of locality. */
  get made(): number {
    return this.memo.made + this.looks.made;
  }

  /** How many values are remembered in all. */
  get remembered(): number {
    return this.memo.size + this.looks.size;
  }

  derive(whole: Project, phase: Phase = 'after'): Model {
    this.memo.begin();
    const shell = this.shell.derive(whole, phase);
    const pieces = this.memo.steady(
      'pieces',
      '',
      Object.values(shell.project.pieces).map((p) => derivePiece(whole, p)),
      sameItems,
    );
    const { onLevels, outside, things } = this.things(shell);
    this.memo.end();
    this.looks.made = 0;
    const before = [...shell.levels.flatMap((l) => l.parts), ...onLevels];
    const behind = [...outside, ...shell.site];
    const look = () => this.bodies(whole, before, things, pieces, behind);
    let bodies: readonly Body[] | undefined;
    return {
      project: whole,
      shell,
      pieces,
      things,
      get bodies() {
        return (bodies ??= look());
      },
    };
  }

  /** All bodies: storey by storey, then cabinets, then the pieces, then what lies outside. */
  private bodies(
    whole: Project,
    before: readonly Owned[],
    things: readonly DerivedThing[],
    pieces: readonly DerivedPiece[],
    behind: readonly Owned[],
  ): readonly Body[] {
    const { looks } = this;
    looks.begin();
    const made = new Parts(looks, whole);
    for (const { collection, id, level, derived } of things)
      modelKind(collection).put?.(derived, { memo: looks, owner: { id, kind: collection, level } as never, parts: made });
    for (const piece of pieces) putPiece(made, whole, piece);
    const bodies = bodiesFrom(looks, [...before, ...made.made, ...behind]);
    looks.end();
    return bodies;
  }

  /** Derives the things of all kinds that are derived for themselves. */
  private things({ project, walls }: ShellModel): { onLevels: readonly Owned[]; outside: readonly Owned[]; things: DerivedThing[] } {
    const { memo } = this;
    const [onLevels, outside] = [new Parts(memo, project), new Parts(memo, project)];
    const things: DerivedThing[] = [];
    for (const collection of collections()) {
      const { derive } = modelKind(collection);
      if (!derive) continue;
      for (const thing of Object.values(project[collection] as Record<string, Thing>)) {
        const level = kindOf(collection).onLevel ? project.levels[thing.level!] : null;
        const owner = { id: thing.id, kind: collection, level: level?.id ?? null } as never;
        const derived = derive(thing, { memo, project, level, walls, owner, parts: level ? onLevels : outside });
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
