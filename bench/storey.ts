import { runChange, type CommandArgs, type CommandName } from '@/core/project/commands';
import { newOpening } from '@/core/project/opening-defaults';
import { clearSpans } from '@/core/project/openings';
import { emptyProject, type Opening, type Project } from '@/core/project/schema';

/** Runs commands with ids that follow from their number. */
export class Drafter {
  private step = 0;
  constructor(public project: Project) {}

  do<N extends CommandName>(command: N, args: CommandArgs<N>): void {
    this.project = runChange(this.project, { id: `bench${String(this.step++).padStart(6, '0')}`, kind: 'do', command, args }).project;
  }
}

const NONE = { openings: {}, units: 'metric' } as const;

/**
 * A storey of 12 rooms and 40 openings, repeated side by side: neighbours share their walls, so that it is one connected
 * plan however large.
 */
export function storey(units: number): Project {
  const drafter = new Drafter(emptyProject('bench', 'Bench'));
  const draw = (points: [number, number][], thickness: number, closed = false): void =>
    drafter.do('wall.draw', { level: 'ground', points: points.map(([x, y]) => ({ x, y })), thickness, closed });
  const across = Math.ceil(Math.sqrt(units));
  for (let u = 0; u < units; u++) {
    const [x, y] = [(u % across) * 14, Math.floor(u / across) * 10];
    const known = new Set(Object.keys(drafter.project.walls));
    draw(
      [
        [x, y],
        [x + 14, y],
        [x + 14, y + 10],
        [x, y + 10],
      ],
      0.3,
      true,
    );
    for (const k of [3.4, 6.6])
      draw(
        [
          [x, y + k],
          [x + 14, y + k],
        ],
        0.1,
      );
    for (const k of [3.5, 7, 10.5])
      draw(
        [
          [x + k, y],
          [x + k, y + 10],
        ],
        0.1,
      );
    const openings: Opening[] = [];
    for (const wall of Object.values(drafter.project.walls).filter((w) => !known.has(w.id)))
      for (const span of clearSpans(drafter.project, wall)) {
        const width = 0.8;
        if (openings.length >= 40 || span.to - span.from < width + 0.3) continue;
        const thick = wall.thickness === 0.3;
        for (const share of openings.length < 31 ? [0.28, 0.72] : [0.5]) {
          const at = span.from + (span.to - span.from) * share;
          if (openings.length >= 40 || (span.to - span.from) * 0.44 < width + 0.05) continue;
          const id = `o${u}-${openings.length}`;
          openings.push(newOpening(NONE, { id, name: id, wall: wall.id, kind: thick ? 'window' : 'door', at, width }));
        }
      }
    drafter.do('opening.add', { openings });
  }
  return drafter.project;
}
