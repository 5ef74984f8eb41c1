import { newDormer } from '@/core/project/dormers';
import { newRoof } from '@/core/project/roof-defaults';
import { emptyProject, type Project } from '@/core/project/schema';
import { newStair } from '@/core/project/stairs';
import { FRAMING } from '@/core/shell/framing';
import { Drafter } from './storey';

/** A house of two storeys on an L, with two stairs, a hipped roof with hips and a valley, its framing and a dormer. */
export function cottage(): Project {
  const d = new Drafter(emptyProject('cottage', 'Cottage'));
  const draw = (level: string, points: [number, number][], thickness: number, closed = false): void =>
    d.do('wall.draw', { level, points: points.map(([x, y]) => ({ x, y })), thickness, closed });
  const outline: [number, number][] = [
    [0, 0],
    [12, 0],
    [12, 6],
    [6, 6],
    [6, 11],
    [0, 11],
  ];
  d.do('level.add', { id: 'upper', name: 'Upper', of: 'ground', where: 'above', walls: 'none', height: 2.4, slab: 0.25 });
  for (const level of ['ground', 'upper']) {
    draw(level, outline, 0.3, true);
    for (const [a, b] of [
      [
        [4, 0],
        [4, 6],
      ],
      [
        [8, 0],
        [8, 6],
      ],
      [
        [0, 6],
        [6, 6],
      ],
      [
        [8, 3],
        [12, 3],
      ],
      [
        [0, 8.5],
        [6, 8.5],
      ],
    ] as [number, number][][])
      draw(level, [a, b], 0.1);
  }
  d.do('stair.put', newStair(d.project, { id: 'one', level: 'ground', x: 5, y: 1, form: 'half', width: 0.85 }));
  d.do('stair.put', newStair(d.project, { id: 'two', level: 'ground', x: 2, y: 7.2, rotation: -Math.PI / 2, form: 'spiral', width: 0.8 }));
  const roof = newRoof(d.project, { id: 'roof', level: 'upper' }, 'hip');
  d.do('roof.put', { roof: { ...roof, framing: { ...FRAMING, purlins: 1, ties: 'truss' } } });
  d.do('dormer.put', newDormer(d.project, { id: 'dormer', roof: 'roof' })!);
  return d.project;
}
