import { current, isDraft, type Draft } from 'immer';
import { add, left, scale } from '../geometry/vec';
import { DUST } from '../units/tolerance';
import { DomainError } from './errors';
import { inWall } from './opening-stand';
import { openingGaps, openingStation } from './openings';
import { coexist, inPhase, standsIn } from './phase';
import { wallHeight } from './roofs';
import type { Hanging, Opening, Piece, Project, Side } from './schema';
import { legOf, standingIn } from './standing';
import { stateOf } from './topology';
import { wallExtents, wallThickness } from './wall-line';

/**
 * What hangs at windows and doors: curtains, blinds, shutters. Where it hangs and how large it is follows from the
 * opening (trade figures), and again after every edit.
 */

/** How far a pole or a track reaches beyond an opening at each side, and lies above it, metres. */
export const POLE = { sides: 0.2, above: 0.15 } as const;

/** How far a blind before the wall reaches beyond the opening at each side, above and below, metres. */
export const BEFORE_WALL = { sides: 0.075, above: 0.08, below: 0.03 } as const;

/** What is left free at both sides of a blind in its recess together, metres. */
const IN_RECESS = 0.01;

/** How far the hem of a curtain hangs from what it ends at: above the floor or the sill, or below the sill, metres. */
const CLEAR_OF = 0.01;
const BELOW_SILL = 0.15;

/** Handles of a window stand so far into its recess, metres. */
const HANDLES = 0.06;

/** A blind before the wall keeps so far off it, metres, where an architrave runs round the opening. */
const ARCHITRAVE = 0.02;

/** What is left to the corner of a room, to the ceiling, and between what hangs at two openings side by side, metres. */
const BESIDE = 0.005;

/** What hangs is at least so wide and high, metres. */
const LEAST = 0.05;

/** Height of a hem above the floor. @param sill height of the foot of the opening, metres */
export const hemAt = (ends: 'floor' | 'sill' | 'below the sill', sill: number): number =>
  ends === 'floor' || sill < BELOW_SILL ? CLEAR_OF : ends === 'sill' ? sill + CLEAR_OF : sill - BELOW_SILL;

/** Place and size of a piece. */
export type Hung = Pick<Piece, 'level' | 'x' | 'y' | 'rotation' | 'elevation' | 'size'>;

/** The project in the phase an opening stands in: as it will be, if it is there then. */
const phaseOf = (project: Project, { status }: Opening): Project => inPhase(project, standsIn(status, 'after') ? 'after' : 'before');

/** The opening a piece hangs at, as it stands in its wall; of one round a corner the part that is meant. */
export function openingOf(project: Project, { opening: id, leg }: Pick<Hanging, 'opening' | 'leg'>): Opening {
  const opening = project.openings[id];
  return (leg && opening.form === 'corner' && legOf(phaseOf(project, opening), opening)) || opening;
}

/** How deep the recess of an opening is at a side, metres: to its frame, or to the middle of the wall where it has none. */
export function revealOf(project: Project, opening: Opening, side: Side): number {
  const thickness = wallThickness(project, project.walls[opening.wall]);
  return opening.kind === 'passage' ? thickness / 2 : inWall(opening, thickness, side).reveals[side];
}

/** What is shallower is no recess, metres. */
const LEAST_REVEAL = 0.02;

/** Whether something can hang between the reveals of an opening: its head is straight, there is a recess at that side, and no leaf moves in it. */
export const hasRecess = (project: Project, opening: Opening, side: Side): boolean =>
  opening.shape.kind === 'rectangle' && (opening.kind === 'passage' || (opening.kind === 'window' && revealOf(project, opening, side) > LEAST_REVEAL));

/** How something hangs at an opening: between the reveals only where there is a recess. */
export const hangingSo = (project: Project, hangs: Hanging): Hanging => ({
  ...hangs,
  where: hangs.where === 'recess' && hasRecess(project, openingOf(project, hangs), hangs.side) ? 'recess' : 'wall',
});

/** How far what hangs before the wall may reach beyond the start and the end of an opening, metres. */
function roomBeside(project: Project, opening: Opening, sides: number): Record<'start' | 'end', number> {
  const gaps = openingGaps(project, opening) ?? { start: sides, end: sides };
  const room = { start: Math.min(sides, gaps.start - BESIDE), end: Math.min(sides, gaps.end - BESIDE) };
  for (const other of standingIn(phaseOf(project, opening), opening.wall)) {
    if (other.id === opening.id || other.kind === 'niche' || !coexist(other.status, opening.status)) continue;
    // One above or below is not beside it.
    if (other.sill >= opening.sill + opening.height || opening.sill >= other.sill + other.height) continue;
    const end = other.at < opening.at ? 'start' : 'end';
    // What hangs at two openings meets half way.
    room[end] = Math.min(room[end], (Math.abs(other.at - opening.at) - (other.width + opening.width) / 2) / 2 - BESIDE);
  }
  return { start: Math.max(0, room.start), end: Math.max(0, room.end) };
}

/** Where a piece hangs at its opening, and how wide and high it is there. Its depth is its own. */
export function hungAt(project: Project, { hangs, size }: { hangs: Hanging; size: Piece['size'] }): Hung {
  const opening = openingOf(project, hangs);
  const wall = project.walls[opening.wall];
  const { side, ends } = hangs;
  const { sill, height, width } = opening;
  const { p, d } = openingStation(project, opening);
  const out = scale(left(d), side === 'left' ? 1 : -1);
  const face = wallExtents(project, wall)[side];
  const head = sill + height;
  const recess = hangs.where === 'recess' && opening.shape.kind === 'rectangle';
  const hem = ends === 'opening' || ends === 'as high as it is' ? sill : hemAt(ends, sill);
  let box: { along: number; off: number; width: number; foot: number; top: number };
  if (recess) {
    const reveal = revealOf(project, opening, side);
    const gap = Math.max(0, Math.min(HANDLES, reveal - size.depth));
    // In the recess nothing hangs lower than the foot of the opening.
    box = { along: 0, off: face - reveal + gap + size.depth / 2, width: width - IN_RECESS, foot: Math.max(sill, hem), top: head };
  } else {
    const beside = roomBeside(project, opening, hangs.sides);
    const highest = Math.min(
      ...[-1, 0, 1].map((t) => wallHeight(project, wall, opening.at + (t * width) / 2)),
      ...(wall.top.kind === 'roof' ? [] : [project.levels[wall.level].height]),
    );
    // A board at the foot of the window stands in the way of what would hang lower.
    const below = opening.sillBoard > 0 && sill > LEAST ? 0 : hangs.below;
    box = {
      along: (beside.end - beside.start) / 2,
      off: face + size.depth / 2 + (opening.architrave > 0 && ends === 'opening' ? ARCHITRAVE : 0),
      width: width + beside.start + beside.end,
      foot: ends === 'opening' ? Math.max(0, sill - below) : hem,
      top: Math.max(head, Math.min(head + hangs.above, highest - BESIDE)),
    };
  }
  const high = ends === 'as high as it is' ? size.height : Math.max(LEAST, box.top - box.foot);
  const at = add(add(p, scale(d, box.along)), scale(out, box.off));
  // What is worked out is kept free of dust.
  const clean = (v: number): number => Math.round(v * 1e9) / 1e9;
  return {
    level: wall.level,
    x: clean(at.x),
    y: clean(at.y),
    rotation: clean(Math.atan2(out.y, out.x) + Math.PI / 2),
    elevation: clean(Math.max(0, box.top - high)),
    size: { width: clean(Math.max(LEAST, box.width)), depth: size.depth, height: clean(high) },
  };
}

/** What hangs at an opening. */
export const hungAtOpening = (pieces: Project['pieces'], opening: string): Piece[] =>
  Object.values(stateOf(pieces)).filter((p) => p.hangs?.opening === opening);

/** Lets what hangs at an opening change the side of its wall, where left and right of the wall changed places. */
export function turnHung(draft: Draft<Project>, opening: string): void {
  for (const { id } of hungAtOpening(draft.pieces as Project['pieces'], opening)) {
    const { hangs } = draft.pieces[id];
    hangs!.side = hangs!.side === 'left' ? 'right' : 'left';
  }
}

const different = (a: Hung, b: Hung): boolean =>
  a.level !== b.level ||
  [a.x - b.x, a.y - b.y, a.rotation - b.rotation, a.elevation - b.elevation, a.size.width - b.size.width, a.size.height - b.size.height].some(
    (v) => Math.abs(v) > DUST,
  );

/**
 * After an edit, what has to change of all that hangs at openings, so that it hangs where they are now.
 *
 * @throws DomainError `piece.hangs` where something was hung in a recess that is none
 */
export function settledHung(before: Project, edited: Project): Map<string, Hung> {
  const shell = (['walls', 'corners', 'openings', 'wallTypes', 'levels', 'roofs', 'rooms'] as const).some((key) => before[key] !== edited[key]);
  const changed = new Map<string, Hung>();
  if (!shell && before.pieces === edited.pieces) return changed;
  for (const id in edited.pieces) {
    const piece = edited.pieces[id];
    const { hangs } = piece;
    if (!hangs || !edited.openings[hangs.opening]) continue;
    const then = before.pieces[id];
    if (!shell && then === piece) continue;
    const opening = openingOf(edited, hangs);
    if (hangs.where === 'recess' && opening.shape.kind !== 'rectangle' && (then?.hangs?.where !== 'recess' || then.hangs.opening !== hangs.opening))
      throw new DomainError(
        'piece.hangs',
        `${piece.name} was not hung between the reveals of ${opening.name}: its head is not straight; hang it before the wall.`,
        [id, opening.id],
      );
    const now = hungAt(edited, { hangs, size: piece.size });
    if (different(now, piece)) changed.set(id, now);
  }
  return changed;
}

/** What of a piece an opening it hangs at decides: who sets it takes the piece off. */
const PLACE = ['level', 'x', 'y', 'rotation', 'elevation', 'on'] as const;

/** What is set of a piece, and that it hangs no longer where its place is set. */
export function withHanging(piece: Piece | Draft<Piece>, set: Partial<Piece>): Partial<Piece> {
  const own = isDraft(piece) ? (current(piece) as Piece) : (piece as Piece);
  const moved = own.hangs !== null && !('hangs' in set) && PLACE.some((key) => key in set && set[key] !== own[key]);
  return moved ? { ...set, hangs: null } : set;
}
