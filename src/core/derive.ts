import type { Phase } from './project/phase';
import type { Project } from './project/schema';
import { ShellDeriver, type ShellModel } from './shell/model';
import { derivePiece, type DerivedPiece } from './stock/stock';

/** Everything that follows from a project, which plan, 3D view, picture, drawing, schedule and export read. */
export interface Model {
  project: Project;
  shell: ShellModel;
  pieces: DerivedPiece[];
}

/** Derives models one after another, making anew only what an edit has touched. */
export class Deriver {
  readonly shell = new ShellDeriver();

  derive(project: Project, phase: Phase = 'after'): Model {
    return { project, shell: this.shell.derive(project, phase), pieces: Object.values(project.pieces).map((p) => derivePiece(project, p)) };
  }
}

/** The model of one project, without a memory. */
export const deriveModel = (project: Project): Model => new Deriver().derive(project);
