import { fittingsIn, frontOf, type AssembledUnit } from '../cabinetry/assemble';
import type { DerivedRun } from '../cabinetry/derive';
import { isWithoutFronts } from '../cabinetry/fittings';
import type { LaidCell } from '../cabinetry/front';
import { unitCarcass } from '../cabinetry/unit';
import { transformPoint } from '../geometry/mesh';
import { add, distance, left, scale, sub, unit as unitVector, type Vec2 } from '../geometry/vec';
import type { Model } from '../model/model';
import { roomOfRun } from '../project/runs';
import type { Piece } from '../project/schema';
import { ceilingHeight } from '../shell/rooms';
import { clampSize, pieceFrom, stockCard } from '../stock/stock';
import { NEAR } from '../units/tolerance';
import { roomAt } from './around';

/** What can be put to a run besides, to take or to leave. */
export const SUGGESTIONS = ['downlights', 'lights under wall units', 'crockery and jars', 'stools'] as const;
export type Suggestion = (typeof SUGGESTIONS)[number];

/** About how far downlights are apart, and how near one over the sink makes another needless, metres. */
const SPOTS = { apart: 0.9, near: 0.45 } as const;

/** Room for one who sits at a worktop, and how far the seat is below it, metres (trade figures). */
const SEAT = { wide: 0.6, below: 0.27 } as const;

/** What stands on open shelves, one after another. */
const ON_SHELVES = ['jars', 'plates', 'mugs', 'jugs', 'books'] as const;

/** Room round what stands on a shelf, metres. */
const ROUND = { side: 0.03, front: 0.03, above: 0.02 } as const;

/** A strip of light is so much shorter than its unit, and so far behind its front, metres. */
const STRIP = { less: 0.06, behind: 0.05 } as const;

interface Putting {
  model: Model;
  run: DerivedRun;
  newId: () => string;
}

/** A piece of a card of the stock where it goes, in the axes of a unit: it looks where the unit does. */
function inUnit(
  { model, run, newId }: Putting,
  { matrix }: AssembledUnit,
  card: string,
  at: { x: number; y: number; z: number },
  size?: Partial<Piece['size']>,
): Piece {
  const own = stockCard(card)!;
  const p = transformPoint(matrix, at);
  const { project } = model;
  const piece = pieceFrom(
    own,
    newId(),
    project.levels[run.run.level],
    { x: p.x, y: p.y },
    Math.atan2(matrix[1], matrix[0]),
    project.schemes[project.scheme].starts,
  );
  return { ...piece, size: size ? clampSize(own.item, { ...piece.size, ...size }) : piece.size, elevation: p.z + run.step };
}

/** Downlights over the front edge of the worktop, even along each stretch of it, and one over each sink. */
function downlights(putting: Putting): Piece[] | string {
  const { model, run, newId } = putting;
  const { project } = model;
  const level = project.levels[run.run.level];
  const card = stockCard('recessed-light')!;
  const front = run.run.made.base.depth + run.run.made.worktop.overhang;
  const sinks = run.units.flatMap((own) =>
    fittingsIn(own, run.run.made)
      .filter((f) => f.built.word === 'sink')
      .map(({ at }): Vec2 => transformPoint(own.matrix, { ...at, z: 0 })),
  );
  const along = run.worktop.stretches.flatMap(({ leg, from, to }): Vec2[] => {
    const line = run.legs[leg];
    const d = unitVector(sub(line.to, line.from));
    const n = Math.max(1, Math.round((to - from) / SPOTS.apart));
    return Array.from({ length: n }, (_, k) => add(add(line.from, scale(d, from + ((k + 0.5) * (to - from)) / n)), scale(left(d), -front)));
  });
  const points = [...sinks, ...along.filter((p) => !sinks.some((q) => distance(p, q) < SPOTS.near))];
  if (!points.length) return 'It has no worktop to light.';
  const room = roomOfRun(run.run) ?? roomAt(model, { level: level.id, ...points[0] });
  const own = room === null ? undefined : project.rooms[room];
  if (!own || own.cover.kind === 'roof') return 'Its room has no ceiling that lights could be let into.';
  const height = ceilingHeight(own, level);
  return points.map((p) => ({ ...pieceFrom(card, newId(), level, p, 0, project.schemes[project.scheme].starts), elevation: height - card.size.height }));
}

/** A strip of light under each wall unit. */
function underUnits(putting: Putting): Piece[] | string {
  const { run } = putting;
  const card = stockCard('shelf-light')!;
  const hung = run.units.filter(({ unit, placed }) => unit.band === 'wall' && !unit.bare && !placed.corner && !isWithoutFronts(unit));
  if (!hung.length) return 'Nothing hangs there that light could be put under.';
  return hung.map((own) => {
    const { width, depth } = own.size;
    return inUnit(putting, own, card.id, { x: width / 2, y: -depth + STRIP.behind, z: -card.size.height }, { width: width - STRIP.less });
  });
}

/** The floors of an open cell, and how much room there is above each, metres. */
function floorsIn(own: AssembledUnit, run: DerivedRun, { field }: LaidCell): { z: number; high: number }[] {
  const { unit, size } = own;
  const { made } = run.run;
  const { panels } = unitCarcass(unit, size, made, frontOf(own, made), fittingsIn(own, made));
  const middle = (field.x0 + field.x1) / 2;
  const boards = panels
    .filter(
      (p) =>
        ['bottom', 'shelf', 'top', 'rail'].includes(p.name) &&
        p.min.x < middle &&
        p.max.x > middle &&
        p.max.z > field.z0 - made.board &&
        p.min.z < field.z1 + made.board,
    )
    .sort((a, b) => a.min.z - b.min.z);
  return boards.flatMap((board, i) => {
    const next = boards.slice(i + 1).find((b) => b.min.z > board.max.z + NEAR);
    return next ? [{ z: board.max.z, high: next.min.z - board.max.z }] : [];
  });
}

/** Crockery, jars and books on open shelves. */
function onShelves(putting: Putting): Piece[] | string {
  const { model, run } = putting;
  const { made } = run.run;
  const out: Piece[] = [];
  let turn = 0;
  let open = false;
  for (const own of run.units) {
    if (own.unit.bare || own.placed.corner) continue;
    for (const cell of frontOf(own, made).cells) {
      if ((cell.cell.kind !== 'open' && cell.cell.kind !== 'niche') || cell.cell.inside.length) continue;
      open = true;
      const wide = cell.field.x1 - cell.field.x0 - 2 * made.board - 2 * ROUND.side;
      const deep = own.size.depth - made.void - made.back - ROUND.front;
      for (const { z, high } of floorsIn(own, run, cell)) {
        // The next of them that fits there.
        const fits = ON_SHELVES.map((_, k) => stockCard(ON_SHELVES[(turn + k) % ON_SHELVES.length])!).find(
          (c) => c.size.width <= wide && c.size.depth <= deep && c.size.height <= high - ROUND.above,
        );
        if (!fits) continue;
        turn = (ON_SHELVES.indexOf(fits.id as (typeof ON_SHELVES)[number]) + 1) % ON_SHELVES.length;
        const lift = own.unit.band === 'wall' ? 0 : made.plinth;
        const at = { x: (cell.field.x0 + cell.field.x1) / 2, y: -own.size.depth + ROUND.front + fits.size.depth / 2, z: lift + z };
        const piece = inUnit(putting, own, fits.id, at);
        // What stands there already stays alone.
        const there = model.pieces.some(
          ({ piece: p }) => p.level === piece.level && Math.hypot(p.x - piece.x, p.y - piece.y) < wide / 2 && Math.abs(p.elevation - piece.elevation) < high,
        );
        if (!there) out.push(piece);
      }
    }
  }
  if (!open) return 'It has no open shelves.';
  return out.length ? out : 'On its open shelves nothing more finds room.';
}

/** Bar stools where one sits behind a run that stands free. */
function stools(putting: Putting): Piece[] | string {
  const { run, model, newId } = putting;
  const { made, behind } = run.run;
  const line = run.legs[0];
  if (run.run.legs[0].kind !== 'free' || behind < SEAT.below)
    return 'One sits where a worktop stands out behind what stands free: give it room for seats first.';
  const long = distance(line.from, line.to);
  const n = Math.floor(long / SEAT.wide + NEAR);
  if (n < 1) return 'It is too short for a seat.';
  const d = unitVector(sub(line.to, line.from));
  const card = stockCard('stool-bar')!;
  const { project } = model;
  const height = made.plinth + made.base.height + made.worktop.thickness + run.run.raised - SEAT.below;
  return Array.from({ length: n }, (_, k): Piece => {
    const at = add(add(line.from, scale(d, ((k + 0.5) * long) / n)), scale(left(d), behind));
    const piece = pieceFrom(card, newId(), project.levels[run.run.level], at, Math.atan2(d.y, d.x), project.schemes[project.scheme].starts);
    return { ...piece, size: clampSize(card.item, { ...piece.size, height }), elevation: run.step };
  });
}

/**
 * What can be put to a run besides, as ordinary pieces.
 *
 * @returns the pieces, or one sentence on why there is no place for any
 */
export function suggested(model: Model, run: DerivedRun, what: Suggestion, newId: () => string): Piece[] | string {
  const putting = { model, run, newId };
  switch (what) {
    case 'downlights':
      return downlights(putting);
    case 'lights under wall units':
      return underUnits(putting);
    case 'crockery and jars':
      return onShelves(putting);
    case 'stools':
      return stools(putting);
  }
}
