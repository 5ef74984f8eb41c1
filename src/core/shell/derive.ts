import type { Memo } from '../model/memo';
import { inPhase, type Phase } from '../project/phase';
import type { Project } from '../project/schema';
import { LevelDeriver } from './level';
import type { DerivedRoom, ShellModel } from './model';
import type { DerivedOpening } from './openings/derive';
import { deriveSite } from './outside';
import type { DerivedWall } from './wall-types';

/**
 * Derives the shell and remembers, per wall, opening and room, what it made last time and from which objects: an edit
 * recomputes only what its inputs have changed for. What is equal is told by identity, so the rest costs a comparison.
 */
export class ShellDeriver {
  private readonly levels: LevelDeriver;

  constructor(private readonly memo: Memo) {
    this.levels = new LevelDeriver(memo);
  }

  derive(whole: Project, phase: Phase = 'after'): ShellModel {
    const project = inPhase(whole, phase);
    const levels = Object.values(project.levels)
      .sort((a, b) => a.elevation - b.elevation)
      .map((level) => this.levels.derive(project, level));
    const rooms = new Map<string, DerivedRoom>();
    const walls = new Map<string, DerivedWall>();
    const openings = new Map<string, DerivedOpening>();
    for (const l of levels) {
      for (const r of l.rooms) rooms.set(r.id, r);
      for (const w of l.walls) walls.set(w.id, w);
      for (const o of l.openings) openings.set(o.id, o);
    }
    const site = deriveSite(this.memo, project);
    return { project, phase, levels, site, rooms, walls, openings };
  }
}
