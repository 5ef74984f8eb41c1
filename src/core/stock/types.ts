import type { z } from 'zod';
import type { Joint } from '../geometry/joint';
import type { Mesh } from '../geometry/mesh';
import type { Vec2, Vec3 } from '../geometry/vec';
import type { Hanging, Lamp } from '../project/schema';
import type { Traits } from './traits';

export interface PieceSize {
  width: number;
  depth: number;
  height: number;
}

/** A line of a plan symbol in the piece's own axes, metres. */
export interface SymbolLine {
  points: Vec2[];
  closed: boolean;
  dashed?: boolean;
}

export type StockCategory =
  | 'Seating'
  | 'Tables'
  | 'Beds'
  | 'Storage'
  | 'Bathroom'
  | 'Appliances'
  | 'Fires & radiators'
  | 'Textiles'
  | 'At windows'
  | 'On walls'
  | 'Books & things'
  | 'Greenery'
  | 'Luminaires';

/** Where a piece belongs: it says how it is placed and which height it starts at. `top`: on another piece. */
export type Mount = 'floor' | 'ceiling' | 'wall' | 'window' | 'top';

/** What has to be led to a piece. */
export type Connection = 'water' | 'waste' | 'heating' | 'socket' | 'flue';

/** Room kept clear beside a piece, metres. */
export interface Clear {
  front?: number;
  back?: number;
  /** At each of its sides. */
  sides?: number;
}

/** Where somebody sits at a piece: the middle of their stretch of its edge, in the piece's axes, and how a chair there is turned, radians. */
export interface SeatPlace extends Vec2 {
  rotation: number;
}

/** How a covering hangs at an opening, whichever that is. */
export type HangsHow = Pick<Hanging, 'where' | 'ends' | 'sides' | 'above' | 'below'>;

/** Something that is sewn for a covering: how wide and long it is when it is done, and how much cloth it takes across. Metres. */
export interface Sewn {
  part: string;
  /** What all of it covers together, and how long it hangs. */
  width: number;
  drop: number;
  /** Width of cloth for a width it covers. */
  fullness: number;
  /** How many there are beside one another. */
  count: 1 | 2;
}

/** Part of what a maker makes. What moves stands shut and says by which joint. */
export interface Made {
  part: string;
  mesh: Mesh;
  joint?: Joint;
  /** A picture on it is as large as this, metres, whatever size it has elsewhere. */
  framed?: { width: number; height: number };
}

/**
 * Where in a unit of cabinets something is built in: in a cell of its front; in the worktop; in the worktop and through the front;
 * behind what is in the worktop, as taps are; on the floor instead of a carcass; behind its fronts, in its carcass or instead of
 * one; hung instead of a carcass; under what hangs.
 */
export type BuiltInHow = 'cell' | 'top' | 'through' | 'tap' | 'stands' | 'inside' | 'behind' | 'hangs' | 'below';

/** How something is built into a unit of cabinets. Rings and points are in its own axes. */
export interface BuiltIn<T extends z.ZodObject = z.ZodObject> {
  /** What it is called there; its parts are told apart by it. */
  word: string;
  how(traits: z.output<T>): BuiltInHow;
  /** Of what is in the worktop: at what height of it the face of the worktop lies, metres; left out: it lies under it. */
  surface?(size: PieceSize, traits: z.output<T>): number | undefined;
  /** What of the worktop is cut out for it. */
  cut?(size: PieceSize, traits: z.output<T>): Vec2[];
  /** It wants air from below, through the plinth. */
  air?: true;
  /** Where a tap stands that belongs to it. */
  tap?(size: PieceSize, traits: z.output<T>): Vec2;
}

/** Who sells it, and for how much at its usual size. All of it is made up. */
export interface Sold {
  supplier: string;
  price: number;
}

/** One of the things a maker makes, as the ledge shows it. */
export interface Card {
  id: string;
  name: string;
  size?: PieceSize;
  traits?: Traits;
  /** Finishes of parts that are others than its maker begins with. */
  finishes?: Record<string, string>;
  words?: string;
  /** How it hangs at an opening, where that is not as its maker says. */
  hangs?: Partial<HangsHow>;
}

/**
 * A maker of things that can be placed. Local axes: x to its right seen from the front, y towards its back, z up;
 * the origin is the middle of its footprint on the floor.
 */
export interface StockItem<T extends z.ZodObject = z.ZodObject> {
  id: string;
  /** What all it makes is called. */
  name: string;
  /** What can be chosen of it; nothing but its size unless it says so. */
  traits?: T;
  /** What the ledge shows of it; itself, under its own name, unless it says so. */
  cards?: readonly Card[];
  category: StockCategory;
  size: PieceSize;
  /** Limits within which it may be resized, metres. */
  min: PieceSize;
  max: PieceSize;
  mount: Mount;
  /** How high above the floor it starts, metres, where that is not the floor or the ceiling. */
  foot?: number;
  /** How far it hangs down below what it lies on, metres: a cloth over the edges of its table. */
  drop?: (size: PieceSize, traits: z.output<T>) => number;
  /** Whether it lies flat: walls do not draw it to them. */
  lies?: boolean;
  /** Built in: what it stands on and against need not be finished behind it. */
  fixed?: boolean;
  /** The outline, convex, of what holds water one stands or lies in: electrical zones reach round it. */
  wet?(size: PieceSize, traits: z.output<T>): Vec2[];
  /** Made with fronts, worktop and handles, which a scheme decides for all. */
  cabinet?: boolean;
  /** How it is built into a unit of a run of cabinets; left out: it is not. */
  builtIn?: BuiltIn<T>;
  /** Named parts with the finish each starts with. */
  parts: Record<string, string>;
  lamp?: Lamp;
  words?: string;
  sold: Sold;
  /** What has to be kept clear beside it, so that one can use it. */
  clear?: Clear | ((size: PieceSize, traits: z.output<T>) => Clear);
  /** How many sit on it, or lie in it. */
  seats?: (size: PieceSize, traits: z.output<T>) => number;
  /** Where one sits at it, on a chair drawn up to it. */
  places?: (size: PieceSize, traits: z.output<T>) => SeatPlace[];
  sleeps?: (size: PieceSize, traits: z.output<T>) => number;
  connections?: readonly Connection[];
  /** How it hangs at a window or a door, where it belongs to one. */
  hangs?: HangsHow;
  /** Whether it has a left and a right, so that one of a pair is mirrored. */
  handed?: (traits: z.output<T>) => boolean;
  /** What is sewn for it, by the metre. */
  sewn?: (size: PieceSize, traits: z.output<T>) => Sewn[];
  /** Length of the pole or the track it runs on, metres. */
  track?: (size: PieceSize, traits: z.output<T>) => number;
  make(size: PieceSize, traits: z.output<T>): Made[];
  symbol(size: PieceSize, traits: z.output<T>): SymbolLine[];
}

/** A maker with its traits typed, as one of all. */
export const maker = <T extends z.ZodObject>(item: StockItem<T>): StockItem => item as unknown as StockItem;

/** A card with its maker, all said. */
export interface StockCard extends Required<Card> {
  item: StockItem;
}

/** A box of a given size about the origin, for symbols. */
export function rectangle(width: number, depth: number, x = 0, y = 0): Vec2[] {
  const [w, d] = [width / 2, depth / 2];
  return [
    { x: x - w, y: y - d },
    { x: x + w, y: y - d },
    { x: x + w, y: y + d },
    { x: x - w, y: y + d },
  ];
}

/** A rectangle with rounded corners, for symbols. */
export function rounded(width: number, depth: number, radius: number, x = 0, y = 0): Vec2[] {
  const r = Math.min(radius, width / 2, depth / 2);
  return rectangle(width - 2 * r, depth - 2 * r, x, y).flatMap((c, i) =>
    [0, 1, 2, 3].map((k) => {
      const a = Math.PI + ((i + k / 3) * Math.PI) / 2;
      return { x: c.x + r * Math.cos(a), y: c.y + r * Math.sin(a) };
    }),
  );
}

export function circle(radius: number, x = 0, y = 0, steps = 28): Vec2[] {
  return Array.from({ length: steps }, (_, i) => {
    const a = (i / steps) * 2 * Math.PI;
    return { x: x + radius * Math.cos(a), y: y + radius * Math.sin(a) };
  });
}

/** The lines of a symbol round a point, for what is round. */
export const ellipseLine = (width: number, depth: number): SymbolLine => outline(circle(0.5).map((p) => ({ x: p.x * width, y: p.y * depth })));

export const outline = (points: Vec2[], dashed = false): SymbolLine => ({ points, closed: true, dashed });
export const stroke = (...points: [number, number][]): SymbolLine => ({ points: points.map(([x, y]) => ({ x, y })), closed: false });
export const v3 = (x: number, y: number, z: number): Vec3 => ({ x, y, z });
