import { collections, kindOf, type Thing } from '../project/kinds';
import { inPhase, type Phase } from '../project/phase';
import type { Project } from '../project/schema';
import { ShellDeriver } from '../shell/derive';
import type { ShellModel } from '../shell/model';
import { derivePiece, putPiece } from '../stock/stock';
import type { DerivedThing, Model } from './model';
import { bodiesFrom, Parts, type Owned } from './body';
import { modelKind } from './kinds';
import { Memo, sameItems } from './memo';

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
      Object.values(shell.project.pieces).map((p) => derivePiece(whole, p)),
      sameItems,
    );
    const made = new Parts(this.memo, whole);
    for (const piece of pieces) putPiece(made, whole, piece);
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
