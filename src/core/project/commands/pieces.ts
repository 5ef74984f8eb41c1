import { current, type Draft } from 'immer';
import { z } from 'zod';
import { DomainError } from '../errors';
import { Coordinate, Finish, Hanging, Id, Name, Picture, Piece, Viewpoint, type Project } from '../schema';
import { hangingSo, withHanging } from '../hanging';
import { linkedWith, share } from '../linked';
import { carriedAlong, inCircle, letGo, standingOn } from '../standing-on';
import { forget } from '../things';
import { stateOf } from '../topology';
import { define, editable, need, refuseTaken } from './define';

/** Refuses a piece that would stand on itself, or on nothing. @param now the pieces as they are; @throws DomainError `piece.circle` */
function refuseCircle(draft: Draft<Project>, id: string, on: string | null, now = (): Project['pieces'] => stateOf(draft.pieces) as Project['pieces']): void {
  if (on === null) return;
  need(draft.pieces, on, 'piece');
  if (inCircle(now(), id, on)) throw new DomainError('piece.circle', 'The piece was not put there: it would stand on itself.', [id]);
}

/** Takes what stands on a piece along with it. */
function carry(draft: Draft<Project>, before: Piece, after: Piece): void {
  const same = (['x', 'y', 'rotation', 'elevation', 'level'] as const).every((key) => before[key] === after[key]) && before.size.height === after.size.height;
  if (same) return;
  for (const id of standingOn(stateOf(draft.pieces) as Project['pieces'], [after.id]))
    Object.assign(draft.pieces[id], carriedAlong(draft.pieces[id], before, after), { level: after.level });
}

/** Changes of a piece, and of what is linked with it. */
function change(draft: Draft<Project>, id: string, set: Partial<Piece>): void {
  const target = need(draft.pieces, id, 'piece');
  const before = { ...(current(target) as Piece) };
  Object.assign(target, withHanging(before, set));
  if (target.hangs) need(draft.openings, target.hangs.opening, 'opening');
  need(draft.levels, target.level, 'level');
  refuseCircle(draft, id, target.on);
  carry(draft, before, current(target) as Piece);
  if (target.linked !== null && MAKE.some((key) => key in set)) for (const [was, is] of share(draft, id)) carry(draft, was, is);
}

/** What linked copies have in common, of what is set here. */
const MAKE = ['size', 'traits', 'lamp'] as const;

/** Changes of what stands on others come after those of what is below. */
function inOrder<T extends { piece: string }>(pieces: Project['pieces'], changes: readonly T[]): T[] {
  const depth = (id: string): number => {
    let n = 0;
    for (let on = pieces[id]?.on ?? null; on !== null && n < 50; on = pieces[on]?.on ?? null) n++;
    return n;
  };
  return [...changes].sort((a, b) => depth(a.piece) - depth(b.piece));
}

/** Edits of pieces, viewpoints and pictures. */
export const pieceCommands = {
  'piece.add': define({
    title: 'Place piece',
    args: z.object({
      pieces: z.array(Piece).min(1).max(500),
      link: z.object({ piece: Id, link: Id }).optional().describe('a piece that is there already, which the new ones are linked copies of'),
    }),
    apply(draft, { pieces, link }) {
      if (link) need(draft.pieces, link.piece, 'piece').linked = link.link;
      for (const piece of pieces) {
        refuseTaken(draft.pieces, piece.id);
        need(draft.levels, piece.level, 'level');
        if (piece.hangs) need(draft.openings, piece.hangs.opening, 'opening');
        draft.pieces[piece.id] = piece;
      }
      const now = stateOf(draft.pieces) as Project['pieces'];
      for (const { id, on } of pieces) refuseCircle(draft, id, on, () => now);
    },
  }),
  'set.place': define({
    title: 'Place set',
    args: z.object({ id: Id, name: Name, pieces: z.array(Piece).min(1).max(200), finishes: z.array(Finish).max(500) }),
    apply(draft, { id, name, pieces, finishes }) {
      refuseTaken(draft.contents.groups, id);
      for (const finish of finishes) if (!Object.hasOwn(draft.finishes, finish.id)) draft.finishes[finish.id] = finish;
      for (const piece of pieces) {
        refuseTaken(draft.pieces, piece.id);
        need(draft.levels, piece.level, 'level');
        draft.pieces[piece.id] = piece;
      }
      const now = stateOf(draft.pieces) as Project['pieces'];
      for (const { id: own, on } of pieces) refuseCircle(draft, own, on, () => now);
      draft.contents.groups[id] = { id, name, members: pieces.map((p) => p.id), together: true };
    },
  }),
  'coverings.hang': define({
    title: 'Hang coverings',
    args: z.object({ pieces: z.array(Piece).max(500), instead: z.array(Id).max(500).describe('what is taken down for them') }),
    apply(draft, { pieces, instead }) {
      for (const id of instead) need(draft.pieces, id, 'piece');
      letGo(draft, new Set(instead));
      forget(draft, instead);
      for (const id of instead) delete draft.pieces[id];
      for (const piece of pieces) {
        refuseTaken(draft.pieces, piece.id);
        need(draft.levels, piece.level, 'level');
        if (piece.hangs) need(draft.openings, piece.hangs.opening, 'opening');
        draft.pieces[piece.id] = piece;
      }
    },
  }),
  'piece.set': define({
    title: 'Change piece',
    args: z.object({ piece: Id, set: editable(Piece, ['id', 'maker', 'finishes', 'linked']) }),
    apply: (draft, { piece, set }) => change(draft, piece, set),
  }),
  'pieces.set': define({
    title: 'Arrange pieces',
    args: z.object({
      changes: z
        .array(z.object({ piece: Id, set: editable(Piece, ['id', 'maker', 'finishes', 'linked']) }))
        .min(1)
        .max(500),
    }),
    apply(draft, { changes }) {
      // What stands on one that is arranged too comes to where it is told, not along with it.
      for (const { piece, set } of inOrder(stateOf(draft.pieces) as Project['pieces'], changes)) change(draft, piece, set);
    },
  }),
  'pieces.replace': define({
    title: 'Replace pieces',
    args: z.object({
      pieces: z.array(Id).min(1).max(500),
      by: Piece.pick({ maker: true, name: true, size: true, traits: true, finishes: true, lamp: true }),
      hangs: Hanging.pick({ where: true, ends: true, sides: true, above: true, below: true })
        .nullable()
        .default(null)
        .describe('how it hangs at a window, where what it replaces hangs at one'),
      keep: z.enum(['foot', 'top']).default('foot').describe('whether it stands where the other stood, or hangs from where that hung'),
    }),
    apply(draft, { pieces, by, keep, hangs }) {
      for (const id of pieces) {
        const before = { ...(current(need(draft.pieces, id, 'piece')) as Piece) };
        // Its back stays where it was: at the wall.
        const forth = (before.size.depth - by.size.depth) / 2;
        const after: Piece = {
          ...before,
          ...structuredClone(by),
          x: before.x - Math.sin(before.rotation) * forth,
          y: before.y + Math.cos(before.rotation) * forth,
          elevation: keep === 'top' ? Math.max(0, before.elevation + before.size.height - by.size.height) : before.elevation,
          open: 0,
          hangs: before.hangs && hangs && hangingSo(stateOf(draft) as Project, { ...before.hangs, ...hangs }),
          // A piece that is replaced is no linked copy of the others any more, unless all of them are.
          linked: before.linked !== null && linkedWith(stateOf(draft.pieces) as Project['pieces'], id).every((o) => pieces.includes(o)) ? before.linked : null,
        };
        draft.pieces[id] = after;
        carry(draft, before, after);
      }
    },
  }),
  'pieces.link': define({
    title: 'Link pieces',
    args: z.object({ pieces: z.array(Id).min(1).max(500), link: Id.nullable().describe('what they are linked by; null: each is its own again') }),
    apply(draft, { pieces, link }) {
      for (const id of pieces) need(draft.pieces, id, 'piece').linked = link;
      // They are of the make of the first.
      if (link !== null) for (const [before, after] of share(draft, pieces[0])) carry(draft, before, after);
    },
  }),
  'pieces.move': define({
    title: 'Move pieces',
    args: z.object({
      pieces: z.array(Id).min(1).max(500),
      by: z.object({ x: Coordinate, y: Coordinate }),
      turn: Piece.shape.rotation.describe('radians each turns about its own middle'),
    }),
    apply(draft, { pieces, by, turn }) {
      // What stands on one that moves goes with it, once, whether it was chosen too or not.
      const known = stateOf(draft.pieces) as Project['pieces'];
      const along = new Set(pieces.flatMap((id) => standingOn(known, [id])));
      for (const id of pieces) {
        if (along.has(id)) continue;
        const piece = need(draft.pieces, id, 'piece');
        // What hangs at an opening goes where that goes.
        if (piece.hangs) continue;
        const before = { ...(current(piece) as Piece) };
        piece.x += by.x;
        piece.y += by.y;
        piece.rotation += turn;
        carry(draft, before, current(piece) as Piece);
      }
    },
  }),
  'viewpoint.add': define({
    title: 'Keep viewpoint',
    args: Viewpoint,
    apply(draft, viewpoint) {
      refuseTaken(draft.viewpoints, viewpoint.id);
      draft.viewpoints[viewpoint.id] = viewpoint;
    },
  }),
  'viewpoint.set': define({
    title: 'Change viewpoint',
    args: z.object({ viewpoint: Id, set: editable(Viewpoint, ['id']) }),
    apply: (draft, { viewpoint, set }) => void Object.assign(need(draft.viewpoints, viewpoint, 'viewpoint'), set),
  }),
  'picture.add': define({
    title: 'Keep picture',
    args: Picture,
    apply(draft, picture) {
      refuseTaken(draft.pictures, picture.id);
      draft.pictures[picture.id] = picture;
    },
  }),
  'picture.set': define({
    title: 'Change picture',
    args: z.object({
      picture: Id,
      set: editable(Picture, ['id', 'viewpoint', 'width', 'height', 'samples', 'scheme', 'made', 'shot', 'moment', 'noise', 'state']),
    }),
    apply: (draft, { picture, set }) => void Object.assign(need(draft.pictures, picture, 'picture'), set),
  }),
};
