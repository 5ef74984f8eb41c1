import { centred, centredOnOpening, chairsRound, inLine, MOST_COPIES, ringOf, rowsOf, spread, type Line, type Place } from '@/core/placing/arrange';
import { isChair, movedTo, type PieceSide } from '@/core/placing/around';
import type { Vec2 } from '@/core/geometry/vec';
import type { CommandArgs, CommandName } from '@/core/project/commands';
import type { Piece, Project } from '@/core/project/schema';
import { CARDS, pieceFrom, seatsOf, stockCard, stockItem, traitsFor } from '@/core/stock/stock';
import type { StockCard, StockItem } from '@/core/stock/types';
import { errorText } from '../store/sync';
import { selectedPieces } from './selected';
import { comingIds, get, wasSet } from './session';

/** An edit that is worked out: what is shown while one is at it is what a press does. */
type Edit = { [N in CommandName]: { command: N; args: CommandArgs<N> } }[CommandName];

/** An edit, or the sentence why there is none. */
export type Worked = { edit: Edit; select?: string[] } | { refusal: string };

/** An edit by its command. @param select what is selected then */
export const to = <N extends CommandName>(command: N, args: CommandArgs<N>, select?: string[]): Worked => ({ edit: { command, args } as Edit, select });

/** Shows an edit, or nothing. */
export function showWorked(worked: Worked | null): void {
  const state = get();
  if (worked && 'edit' in worked) state.preview(worked.edit.command, worked.edit.args as never);
  else state.endPreview();
}

/** Carries an edit out; what can't be is said. */
export function doWorked(worked: Worked): boolean {
  const state = get();
  if ('refusal' in worked) {
    state.say(worked.refusal);
    return false;
  }
  if (!state.run(worked.edit.command, worked.edit.args as never)) return false;
  wasSet('piece');
  if (worked.select) state.select(worked.select.map((entity) => ({ entity, target: null })));
  return true;
}

const arranged = (places: readonly Place[], refusal: string): Worked =>
  places.length ? to('pieces.set', { changes: places.map(({ piece, set }) => ({ piece, set })) }) : { refusal };

const named = (id: string): string => get().project.pieces[id]?.name ?? 'The piece';

/** One side of a piece at a distance from what bounds it. */
export function atDistance(id: string, side: PieceSide, metres: number): Worked {
  const at = movedTo(get().model, id, side, metres);
  return at ? to('piece.set', { piece: id, set: { ...at } }) : { refusal: `${named(id)} was not moved: nothing bounds it at that side.` };
}

/** With its back to what is behind it. */
export const backed = (id: string): Worked => atDistance(id, 'back', 0);

/** In the middle between what bounds it. */
export const inMiddle = (id: string, way: 'across' | 'along'): Worked =>
  arranged(centred(get().model, id, way), `${named(id)} was not moved: it has to be bounded at both sides to stand in the middle.`);

/** In the middle of the window or door behind it. */
export const beforeOpening = (id: string): Worked =>
  arranged(centredOnOpening(get().model, id), `${named(id)} was not moved: there is no window or door in the wall at its back.`);

/** Facing the other way, where it stands. */
export const faced = (id: string): Worked => to('pieces.move', { pieces: [id], by: { x: 0, y: 0 }, turn: Math.PI });

/** All selected ones in one line with the first. */
export const inOneLine = (line: Line): Worked =>
  arranged(inLine(get().model, selectedPieces(), line), 'Nothing was moved: select two pieces or more; the first one stays.');

/** All selected ones with even gaps. @param gap metres; null: shared out between the outermost */
export const evenly = (gap: number | null): Worked =>
  arranged(
    spread(get().model, selectedPieces(), gap),
    gap === null ? 'Nothing was moved: select three pieces or more; the outermost stay.' : 'Nothing was moved: select two pieces or more.',
  );

/** The most of one kind that are asked for at once. */
export const MOST = MOST_COPIES;

/** What is asked of copies. */
export interface Copying {
  across: number;
  stepAcross: number;
  along: number;
  stepAlong: number;
  ring: number;
  radius: number;
  linked: boolean;
}

function copied(id: string, linked: boolean, make: (project: Project, next: () => string, link: string | null) => Piece[]): Worked {
  const { project } = get();
  const own = project.pieces[id];
  try {
    const link = linked ? (own.linked ?? `link.${id}`) : null;
    const pieces = make(project, comingIds('piece'), link);
    if (!pieces.length) return { refusal: `${own.name} was not copied: ask for two or more.` };
    return to('piece.add', { pieces, link: link === null || own.linked !== null ? undefined : { piece: id, link } });
  } catch (error) {
    return { refusal: errorText(error) };
  }
}

/** Rows of copies. */
export const inRows = (id: string, { across, along, stepAcross, stepAlong, linked }: Copying): Worked =>
  copied(id, linked, (project, next, link) => rowsOf(project, id, { count: { across, along }, step: { across: stepAcross, along: stepAlong } }, next, link));

/** The point a ring of copies goes round: before the front of the piece. */
const ringMiddle = ({ x, y, rotation }: Piece, radius: number): Vec2 => ({ x: x + Math.sin(rotation) * radius, y: y - Math.cos(rotation) * radius });

/** A ring of copies that look to its middle, as far before the piece as is said. */
export const inRing = (id: string, { ring, radius, linked }: Copying): Worked =>
  copied(id, linked, (project, next, link) => ringOf(project, id, ringMiddle(project.pieces[id], radius), ring, next, link));

/** Cards of seats that are drawn up to a table. */
export const CHAIR_CARDS: readonly StockCard[] = CARDS.filter(({ item, size, traits }) => isChair(item, size) && seatsOf(item, size, traits) === 1);

/** Chairs round a table: at every place of it that is clear. */
export function chairsAt(table: string, card: string): Worked {
  const { model, project } = get();
  const chair = stockCard(card)!;
  const next = comingIds('piece');
  const level = project.levels[project.pieces[table].level];
  const pieces = chairsRound(model, table, chair).map((at) => pieceFrom(chair, next(), level, at, at.rotation, project.schemes[project.scheme].starts));
  return pieces.length ? to('piece.add', { pieces }) : { refusal: `No chair was placed: at ${named(table)} no place is clear.` };
}

/** Pieces that are like one: of its maker, size and traits. */
export function alikeWith(project: Pick<Project, 'pieces'>, id: string): string[] {
  const own = project.pieces[id];
  const item = stockItem(own.maker);
  const make = (p: Piece): string => JSON.stringify([p.maker, p.size.width, p.size.depth, p.size.height, item ? traitsFor(item, p.traits) : p.traits]);
  const key = make(own);
  return Object.values(project.pieces).flatMap((p) => (p.id !== id && p.maker === own.maker && make(p) === key ? [p.id] : []));
}

/** Finishes that somebody has chosen for parts of a piece which another maker has as well: no card of its own maker begins with them. */
function chosenFor({ maker, finishes }: Piece, other: StockItem): Record<string, string> {
  const cards = CARDS.filter((c) => c.item.id === maker);
  const begun = (part: string, finish: string): boolean => cards.some((c) => (c.finishes[part] ?? c.item.parts[part]) === finish);
  return Object.fromEntries(Object.entries(finishes).filter(([part, finish]) => Object.hasOwn(other.parts, part) && !begun(part, finish)));
}

/** Pieces replaced by what a card is, each in its place. What was chosen for parts that this has too is kept, where it is the same for all of them. */
export function replacedBy(pieces: string[], cardId: string): Worked {
  const { item, name, size, traits, finishes: own, hangs } = stockCard(cardId)!;
  const { project } = get();
  const [chosen, ...others] = pieces.map((id) => chosenFor(project.pieces[id], item));
  const finishes = { ...own, ...(others.every((o) => JSON.stringify(o) === JSON.stringify(chosen)) ? chosen : {}) };
  return to('pieces.replace', {
    pieces,
    by: { maker: item.id, name, size: { ...size }, traits: { ...traits }, finishes: { ...finishes }, lamp: item.lamp ? { ...item.lamp } : null },
    hangs: item.hangs ? { ...item.hangs, ...hangs } : null,
    keep: item.mount === 'ceiling' ? 'top' : 'foot',
  });
}

/** Linked copies are each their own again. */
export const unlinked = (pieces: string[]): Worked => to('pieces.link', { pieces, link: null });
