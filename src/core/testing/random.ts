import { newBeam, newFence, newGround, newSlab, newVoid, rectangleOf } from '../project/built-defaults';
import { runChange, type CommandName } from '../project/commands';
import { newDormer } from '../project/dormers';
import { newOpening } from '../project/opening-defaults';
import { newRoof } from '../project/roof-defaults';
import { FENCE_KINDS, GROUND_KINDS, STAIR_FORMS, type Project } from '../project/schema';
import { newStair } from '../project/stairs';
import type { Target } from '../project/targets';
import { CARDS, pieceFrom } from '../stock/stock';
import { house } from './drafting';

/** Numbers that follow from a seed, 0 to 1 (a linear congruence, Numerical Recipes). */
export function random(seed: number): () => number {
  let state = seed >>> 0;
  return () => (state = (state * 1664525 + 1013904223) >>> 0) / 2 ** 32;
}

const FINISHES = ['paint.reed', 'timber.oak-plank', 'tile.hex-clay', 'metal.brass-brushed', 'stone.flag', 'tile.glazed-white'];

/** A house of one room that random edits begin with. */
export const plainHouse = (next: () => number): Project =>
  house([
    [0, 0],
    [8 + next() * 3, 0],
    [8 + next() * 3, 7],
    [0, 7],
  ]);

/** A finish for something there is. */
function someTarget(p: Project, next: () => number): Target {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)];
  const part = (of: string | undefined, name: string): Target | null => (of ? { kind: 'part', of, part: name } : null);
  const some = (table: Record<string, unknown>): string | undefined => pick(Object.keys(table));
  const all: (Target | null)[] = [
    ...Object.keys(p.rooms).flatMap((room): Target[] => [
      { kind: 'floor', room },
      { kind: 'ceiling', room },
      { kind: 'walls', room },
    ]),
    { kind: 'walls', room: null },
    part(some(p.roofs), 'covering'),
    part(some(p.columns), 'body'),
    part(some(p.beams), 'body'),
    part(some(p.fences), 'body'),
    part(some(p.grounds), 'surface'),
    part(some(p.stairs), 'tread'),
    part(some(p.slabs), 'edge'),
    part(some(p.voids), 'rail'),
    part(some(p.levels), 'edge'),
    part(some(p.openings), 'frame'),
    part(some(p.dormers), 'walls'),
  ];
  return pick(all.filter((t) => t !== null));
}

/**
 * A project after one random edit of any kind; the same one where that edit is refused.
 *
 * @param next numbers 0 to 1
 * @param n number of the edit, for its id
 */
export function randomEdit(p: Project, next: () => number, n: number): Project {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)];
  const id = `t${n}`;
  const [x, y] = [0.8 + next() * 6, 0.8 + next() * 4.5];
  const ring = rectangleOf({ x, y }, { x: x + 0.6 + next() * 1.5, y: y + 0.6 + next() * 1.2 });
  const far = ring.map((q) => ({ x: q.x - 14, y: q.y - 9 }));
  const level = pick(Object.keys(p.levels));
  const wall = pick(Object.keys(p.walls));
  const edits: (() => [CommandName, unknown] | null)[] = [
    () => [
      'wall.draw',
      {
        level,
        points: [
          { x, y: 0 },
          { x, y: 7 },
        ],
        closed: false,
        thickness: pick([0.1, 0.15]),
      },
    ],
    () => [
      'wall.draw',
      {
        level,
        points: [
          { x: 0, y },
          { x: 1 + next() * 3, y },
        ],
        closed: false,
        thickness: 0.12,
        top: pick([{ kind: 'half' }, { kind: 'fixed', height: 1.1 }, { kind: 'ceiling' }]),
      },
    ],
    () => ['wall.move', { wall, offset: next() * 0.6 - 0.3 }],
    () => ['wall.set', { wall, set: { top: pick([{ kind: 'ceiling' }, { kind: 'half' }, { kind: 'roof' }]) } }],
    () => ['opening.add', newOpening(p, { id, wall, kind: pick(['door', 'window', 'passage', 'niche']), at: 0.8 + next() * 5 })],
    () => ['opening.add', newOpening(p, { id, wall, kind: pick(['door', 'window']), at: 0.8 + next() * 5 })],
    () => ['level.add', { id, name: 'Level', of: level, where: 'above', walls: pick(['all', 'outer']), height: 2.4, slab: 0.25 }],
    () => ['level.set', { id: level, set: { height: 2.3 + next() * 0.5 } }],
    () => [
      'roof.put',
      {
        roof: newRoof(
          p,
          { id: 'roof', level: Object.values(p.levels).sort((a, b) => b.elevation - a.elevation)[0].id },
          pick(['gable', 'hip', 'mansard', 'flat']),
        ),
      },
    ],
    () => {
      const dormer = p.roofs.roof && newDormer(p, { id, roof: 'roof' });
      return dormer ? ['dormer.put', dormer] : null;
    },
    () => [
      'rooflight.put',
      {
        id,
        name: 'Rooflight',
        level,
        x,
        y,
        rotation: 0,
        form: 'fixed',
        width: 0.7,
        length: 0.9,
        kerb: 0.35,
        panes: { across: 1, up: 1 },
        frame: 0.06,
        open: 0,
        status: 'new',
        finishes: {},
      },
    ],
    () => [
      'column.put',
      {
        id,
        name: 'Column',
        level,
        x,
        y,
        rotation: next(),
        section: pick(['square', 'round']),
        width: 0.2,
        depth: 0.2,
        height: null,
        status: 'new',
        finishes: {},
      },
    ],
    () => ['beam.put', newBeam(p, { id, level, a: { x, y, z: 2 }, b: { x: x + 2, y, z: 2.3 } })],
    () => ['fence.put', newFence(p, { id, kind: pick(FENCE_KINDS), points: far })],
    () => ['ground.put', newGround(p, { id, kind: pick(GROUND_KINDS), points: far })],
    () => ['slab.put', newSlab(p, { id, level, kind: pick(['mezzanine', 'balcony']), points: ring })],
    () => ['void.put', newVoid(p, { id, level, points: ring })],
    () => ['stair.put', newStair(p, { id, level, x, y, form: pick(STAIR_FORMS) })],
    () => ['piece.add', { pieces: [pieceFrom(pick(CARDS), id, p.levels[level], { x, y }, next() * 6)] }],
    () => ['finish.apply', { targets: [someTarget(p, next), someTarget(p, next)], finish: next() < 0.15 ? null : pick(FINISHES) }],
    () => ['finish.apply', { targets: [someTarget(p, next)], finish: pick(FINISHES) }],
    () => [
      'moulding.put',
      {
        mouldings: [
          {
            id,
            name: 'Skirting',
            room: pick(Object.keys(p.rooms)),
            kind: 'skirting',
            profile: 'skirting-plain',
            height: null,
            at: null,
            without: [],
            finish: 'paint.skein',
          },
        ],
      },
    ],
    () => ['status.set', { ids: [pick([wall, ...Object.keys(p.openings)])], status: pick(['existing', 'new', 'removed']) }],
    () => ['contents.hide', { ids: [level], hidden: next() < 0.3 }],
    () => ['delete', { ids: [pick([wall, ...Object.keys(p.openings), ...Object.keys(p.stairs), ...Object.keys(p.pieces), ...Object.keys(p.slabs)])] }],
  ];
  const edit = pick(edits)();
  if (!edit) return p;
  try {
    return runChange(p, { id: `random${String(n).padStart(5, '0')}`, kind: 'do', command: edit[0], args: edit[1] }).project;
  } catch {
    return p;
  }
}
