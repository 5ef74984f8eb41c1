import { takenIn } from '../project/choices';
import type { Project, Shot, Viewpoint } from '../project/schema';
import type { Stamp } from './trace-job';
import { shotFrom } from './shot';
import type { Region } from './tracer';

/** A picture that is to be made: of a project as it was when it was asked for. */
export interface Order {
  id: string;
  /** Its place in the line: the least comes first. */
  place: number;
  stamp: Stamp;
  project: Project;
  shot: Shot;
  width: number;
  height: number;
  /** A pixel. */
  samples: number;
  /** Held: it waits until it is let go on. Failed: it waits to be tried again. */
  state: 'waiting' | 'held' | 'failed';
  /** Samples a pixel that are kept of it. */
  done: number;
  /** Why it failed. */
  message: string | null;
  /** EV it is shown with; null: as it is metered. */
  exposure: number | null;
  /** Colour temperature shown as white, K; null: that of its light. */
  white: number | null;
  /** A page on which it is put when it is made, beside others of its view. */
  sheet: OnSheet | null;
  /** A part of a kept picture that is made again; null: a picture of its own. */
  part: { picture: string; region: Region } | null;
}

/** A place on a sheet of several pictures. */
export interface OnSheet {
  /** Id of the page. */
  page: string;
  title: string;
  index: number;
  count: number;
  caption: string;
}

/** One of several pictures that are asked for at once. */
export interface Wish {
  project: Project;
  name: string;
  viewpoint: Viewpoint;
  shot: Shot;
}

const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', timeZone: 'UTC' });

/** 12 May, 10:30: as a moment is spoken of. @param moment ISO, local, to the minute */
export const momentText = (moment: string): string => `${dayText(moment)}, ${moment.split('T')[1]}`;

/** 12 May. @param moment as above */
export const dayText = (moment: string): string => DAY.format(Date.parse(`${moment.split('T')[0]}T00:00Z`));

/**
 * Every viewpoint with every scheme at every moment. A name says what tells it from the others.
 *
 * @param from what is asked for, by ids; what is not in the project is passed over
 * @param round all round from each viewpoint
 */
export function wishes(
  project: Project,
  from: { viewpoints: readonly string[]; schemes: readonly string[]; moments: readonly string[] },
  round = false,
): Wish[] {
  // In the order in which the project has them, however they were chosen.
  const views = Object.values(project.viewpoints).filter((v) => from.viewpoints.includes(v.id));
  const schemes = Object.values(project.schemes)
    .toSorted((a, b) => a.order - b.order)
    .flatMap((s) => (from.schemes.includes(s.id) ? [s.id] : []));
  const moments = [...new Set(from.moments)];
  const oneDay = new Set(moments.map((m) => m.split('T')[0])).size < 2;
  return views.flatMap((viewpoint) =>
    schemes.flatMap((scheme) =>
      moments.map((moment): Wish => {
        const parts = [viewpoint.name];
        if (schemes.length > 1) parts.push(project.schemes[scheme].name);
        if (moments.length > 1) parts.push(oneDay ? moment.split('T')[1] : momentText(moment));
        return { project: takenIn(project, scheme, moment), name: parts.join(', '), viewpoint, shot: shotFrom(viewpoint, round) };
      }),
    ),
  );
}

/** Moments of one day, from the first to the last, every so many minutes. @param day ISO date @param first, last, every minutes of the day */
export function hoursOf(day: string, first: number, last: number, every: number): string[] {
  const out: string[] = [];
  const two = (n: number): string => String(n).padStart(2, '0');
  for (let t = first; t <= last && t < 24 * 60 && every > 0; t += every) out.push(`${day}T${two(Math.floor(t / 60))}:${two(t % 60)}`);
  return out;
}

const inLine = (a: Order, b: Order): number => a.place - b.place || (a.id < b.id ? -1 : 1);

/** Orders as they come: the least place first. */
export const lined = (orders: readonly Order[]): Order[] => orders.toSorted(inLine);

/** The order that is made next; null where all are held. */
export const nextOf = (orders: readonly Order[]): Order | null => lined(orders).find((o) => o.state === 'waiting') ?? null;

/** Orders that change where one goes before or behind its neighbour in the line; none where there is no neighbour. */
export function moved(orders: readonly Order[], id: string, by: -1 | 1): Order[] {
  const line = lined(orders);
  const at = line.findIndex((o) => o.id === id);
  const other = line[at + by];
  if (at < 0 || !other) return [];
  // Two that were asked for in one moment have one place: places are given anew.
  const turned = line.with(at, other).with(at + by, line[at]);
  return turned.flatMap((o, place) => (o.place === place ? [] : [{ ...o, place }]));
}

/** A place behind all others. */
export const lastPlace = (orders: readonly Order[]): number => orders.reduce((most, o) => Math.max(most, o.place + 1), 0);
