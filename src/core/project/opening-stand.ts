import { formatLength } from '../units/length';
import { NEAR } from '../units/tolerance';
import { DomainError } from './errors';
import { firstStand, tipping } from './opening-defaults';
import type { Opening, OpeningForm, Project, Side } from './schema';
import { wallThickness } from './wall-line';

/** Thickness of a leaf (trade figures), metres. */
export const LEAF = 0.04;

/** What decides where a frame and a leaf stand in the thickness of their wall. */
export type Standing = Pick<Opening, 'kind' | 'form' | 'stand' | 'frame' | 'swing'>;

/** Where a frame and a leaf stand in the thickness of their wall. */
export interface InWall {
  /** How far the middle of the frame lies to the left of the middle of the wall, metres. */
  frame: number;
  /** Depth of the frame, metres. */
  depth: number;
  /** How far the face of a leaf at the side it opens into lies to the left of the middle of the wall, metres. */
  leaf: number;
  /** Reveals at both sides: from the face of the wall to the frame, or to the leaf where the lining is as deep as the wall, metres. */
  reveals: Record<Side, number>;
  /** The side that is its front. */
  front: Side;
}

/** Depth of a frame in a wall, metres: never more than the wall has, but for windows, which may stand out. */
export const frameDepth = ({ kind, frame }: Pick<Opening, 'kind' | 'frame'>, thickness: number): number =>
  frame.depth === 'wall' ? thickness : kind === 'door' ? Math.min(thickness, frame.depth) : frame.depth;

/** The side that is the front of an opening: the one a door opens into, the outer one of a window. */
export const frontOf = ({ kind, swing }: Pick<Opening, 'kind' | 'swing'>, inside: Side): Side =>
  kind === 'window' ? (inside === 'left' ? 'right' : 'left') : swing;

/** What of a door or a window is set back: its frame, or the leaf in a lining as deep as the wall. Metres of the thickness it takes. */
export const bodyDepth = (opening: Pick<Opening, 'kind' | 'frame'>, thickness: number): number =>
  opening.kind === 'door' && opening.frame.depth === 'wall' ? Math.min(thickness, LEAF) : frameDepth(opening, thickness);

/**
 * Where a frame and a leaf stand in their wall: so far behind one of its faces, or half way, and never outside the wall.
 *
 * @param thickness of the wall, metres; @param inside the side of the wall that is indoors
 */
export function inWall(opening: Standing, thickness: number, inside: Side): InWall {
  const { kind, frame, stand } = opening;
  const depth = frameDepth(opening, thickness);
  const front = frontOf(opening, inside);
  if (kind !== 'window' && kind !== 'door') return { frame: 0, depth, leaf: 0, reveals: { left: 0, right: 0 }, front };
  const body = bodyDepth(opening, thickness);
  const most = Math.max(0, (thickness - body) / 2);
  const side = stand.kind === 'set-back' && (stand.from === 'front') === (front === 'left') ? 1 : -1;
  const middle = stand.kind === 'centred' ? 0 : side * Math.max(-most, Math.min(most, thickness / 2 - stand.by - body / 2));
  const swing = opening.swing === 'left' ? 1 : -1;
  return {
    frame: frame.depth === 'wall' ? 0 : middle,
    depth,
    leaf: middle + (swing * body) / 2,
    reveals: { left: thickness / 2 - middle - body / 2, right: thickness / 2 + middle - body / 2 },
    front,
  };
}

/** How far the middle of a frame lies to the left of the middle of its wall, metres. @param inside the side of the wall that is indoors */
export const framePlace = (opening: Standing, thickness: number, inside: Side): number => inWall(opening, thickness, inside).frame;

/** What goes along when an opening takes another form: where it stands, unless that was chosen, and a frame such forms have. */
export function withForm(opening: Opening, form: OpeningForm): Pick<Opening, 'form' | 'stand' | 'frame'> {
  const { kind, frame, stand } = opening;
  const first = JSON.stringify(stand) === JSON.stringify(firstStand(kind, opening.form));
  const depth = kind !== 'door' || tipping(form) === tipping(opening.form) ? frame.depth : tipping(form) ? 0.1 : 'wall';
  return { form, stand: first ? firstStand(kind, form) : stand, frame: { ...frame, depth } };
}

/** Refuses a distance the wall has no room for. @throws DomainError `opening.stand` */
export function checkStand(project: Project, opening: Opening): void {
  const { stand, kind, name } = opening;
  if (stand.kind !== 'set-back' || (kind !== 'door' && kind !== 'window')) return;
  const thickness = wallThickness(project, project.walls[opening.wall]);
  const most = Math.max(0, thickness - bodyDepth(opening, thickness));
  if (stand.by <= most + NEAR) return;
  const length = (v: number): string => formatLength(v, project.units);
  const body = kind === 'door' && opening.frame.depth === 'wall' ? 'leaf' : 'frame';
  throw new DomainError(
    'opening.stand',
    `${name} was not changed: in a wall of ${length(thickness)} a ${body} of ${length(bodyDepth(opening, thickness))} can be set back by up to ${length(most)}.`,
    [opening.id],
  );
}
