import { shiftBy } from '../geometry/extrude';
import { MeshBuilder, transformPoint } from '../geometry/mesh';
import { add3, type Vec2, type Vec3 } from '../geometry/vec';
import type { Cabinet, Cell, Construction, Fitting } from '../project/schema/cabinets';
import { CARDS, clampSize, madeShut, stockItem, traitsFor } from '../stock/stock';
import type { Traits } from '../stock/traits';
import type { BuiltIn, BuiltInHow, Made, PieceSize, StockCard, StockItem } from '../stock/types';
import { NEAR } from '../units/tolerance';
import { frontOut, type Field, type LaidFront } from './front';

/** How something is built into a unit: as it is made to be, or raised behind a door of a tall one that opens downwards. */
export type HowIn = BuiltInHow | 'raised';

/** Something of the stock where it is built into a unit. */
export interface PlacedFitting {
  fitting: Fitting;
  item: StockItem;
  built: BuiltIn;
  how: HowIn;
  traits: Traits;
  size: PieceSize;
  /** The origin of its axes in those of its unit; both look the same way. Metres. */
  at: Vec3;
  /** By how much it is larger than the room there is for it, metres; nothing where it fits. */
  over: Partial<PieceSize>;
}

/** How far a hood hangs above the worktop, metres: as gas needs (trade figures). */
const HOOD = 0.65;

/** A tap stands on the flange of its sink, which is no thicker, metres. */
const ON_FLANGE = 0.0014;

/** How far the middle of a tap is from the back edge of the worktop at least, metres. */
const TAP_IN = 0.03;

/** Room beside and above what stands in its place, metres. */
const EASE = 0.003;

/** What a hood under a wall unit shows below it, metres. */
const SLIM = 0.12;

/** What of the stock a fitting is, with all its traits; null where its maker is not shipped or is not built in. */
export function whatIs({ maker, traits }: Pick<Fitting, 'maker' | 'traits'>): { item: StockItem; built: BuiltIn; how: BuiltInHow; traits: Traits } | null {
  const item = stockItem(maker);
  if (!item?.builtIn) return null;
  const whole = traitsFor(item, traits);
  return { item, built: item.builtIn as BuiltIn, how: (item.builtIn as BuiltIn).how(whole), traits: whole };
}

/** The card of the stock something built in is: of those whose traits it has the one that says most, and is nearest in width. */
export function cardOf({ item, traits, size }: Pick<PlacedFitting, 'item' | 'traits' | 'size'>): StockCard {
  const own = CARDS.filter((c) => c.item === item && Object.entries(c.traits).every(([key, value]) => traits[key] === value));
  const said = (c: StockCard): number => Object.keys(c.traits).length;
  const off = (c: StockCard): number => Math.abs(c.size.width - size.width) + Math.abs(c.size.height - size.height);
  return own.sort((a, b) => said(b) - said(a) || off(a) - off(b))[0] ?? CARDS.find((c) => c.item === item)!;
}

type Housing = Pick<Cabinet, 'band' | 'front' | 'fittings'>;

/** The cells of a tall unit a machine stands in that would stand on the floor: beside others, open or behind a door that opens downwards. */
export const isRaisedIn = (cell: Cell, how: BuiltInHow): boolean =>
  how === 'stands' ? cell.kind === 'appliance' : cell.kind === 'door' && cell.hand === 'down';

/** How something is built into a unit: what stands on the floor elsewhere is raised in a tall unit whose front has a cell for it among others. */
export function howIn({ band, front }: Pick<Housing, 'band' | 'front'>, how: BuiltInHow): HowIn {
  const cells = front.flatMap((row) => row.cells);
  if ((how !== 'stands' && how !== 'behind') || band !== 'tall' || cells.length < 2 || !cells.some((c) => isRaisedIn(c, how))) return how;
  return how === 'stands' ? 'cell' : 'raised';
}

const hasOne = (unit: Housing, ...hows: HowIn[]): boolean =>
  unit.fittings.some((f) => {
    const what = whatIs(f);
    return what !== null && hows.includes(howIn(unit, what.how));
  });

/** Whether something built in stands or hangs where the carcass of its unit would be. */
export const isWithoutCarcass = (unit: Housing): boolean => hasOne(unit, 'stands', 'behind', 'hangs');

/** Whether what is built in is all there is: it has a front of its own. */
export const isWithoutFronts = (unit: Housing): boolean => hasOne(unit, 'stands', 'hangs');

/** Whether something stands on the floor itself, not on what its run stands on. */
export const standsItself = (unit: Housing): boolean => hasOne(unit, 'stands');

/** Whether what is built in wants air from below. */
export const wantsAir = ({ fittings }: Pick<Housing, 'fittings'>): boolean => fittings.some((f) => whatIs(f)?.built.air);

/** Whether something is let into the worktop over a unit: its rails stand upright there. */
export const isLetIn = (fittings: readonly Fitting[]): boolean => fittings.some((f) => ['top', 'through'].includes(whatIs(f)?.how ?? ''));

/** The name of a part of a fitting among those of its unit. */
export const partOf = (built: Pick<BuiltIn, 'word'>, part: string): string => `${built.word} ${part}`;

/** The finish a part of a fitting begins with, by its name among those of its unit; undefined where no fitting has it. */
export function firstFinish(fittings: readonly Fitting[], part: string): string | undefined {
  for (const fitting of fittings) {
    const own = whatIs(fitting);
    const found = own && Object.keys(own.item.parts).find((p) => partOf(own.built, p) === part);
    if (found) return own.item.parts[found];
  }
  return undefined;
}

/** Between which heights something stands that is raised between the boards of its row: the bottom and the top of its unit, or shelves about its lines. Metres. */
const betweenBoards = ({ z0, z1 }: Field, height: number, board: number): { z0: number; z1: number } => ({
  z0: z0 < NEAR ? board : z0 + board / 2,
  z1: z1 > height - NEAR ? height - board : z1 - board / 2,
});

/** How much lower a machine is made so that the worktop goes over it, metres. */
const LOWER = 0.05;

/** Whether a machine that stands on the floor goes under a worktop whose underside is so high, metres. */
export const goesUnder = ({ size }: Pick<Fitting, 'size'>, item: StockItem, under: number): boolean =>
  size ? size.height <= under + NEAR : item.size.height <= under + LOWER && item.min.height <= under + NEAR;

/** A size as far as there is room, within the limits of what it is of; what was asked for is kept, and what of it is too large is said. */
function fitted(item: StockItem, asked: PieceSize | null, room: Partial<PieceSize>): { size: PieceSize; over: Partial<PieceSize> } {
  const wanted = asked ?? item.size;
  const keys = ['width', 'depth', 'height'] as const;
  const less = Object.fromEntries(keys.map((key) => [key, Math.min(wanted[key], room[key] ?? Infinity)])) as unknown as PieceSize;
  const size = asked ? wanted : clampSize(item, less);
  return { size, over: Object.fromEntries(keys.flatMap((key) => (size[key] > (room[key] ?? Infinity) + NEAR ? [[key, size[key] - room[key]!]] : []))) };
}

/**
 * Where what is built into a unit stands, in its axes: x from its left side seen from before it, y from its back to its front
 * (less than nothing), z above the floor, or above the foot of a wall unit.
 *
 * @param size of its carcass, metres
 * @param front its front as it is divided
 */
export function placeFittings(unit: Housing, { width, height, depth }: PieceSize, front: LaidFront, made: Construction): PlacedFitting[] {
  const { band, fittings } = unit;
  const lift = band === 'wall' ? 0 : made.plinth;
  // What stands in an opening of the carcass itself has a rim before its edges.
  const face = -depth - (made.frame > 0 ? frontOut(made) : made.front);
  const top = lift + height;
  const cells = front.cells.filter((c) => c.cell.kind === 'appliance');
  const doors = front.cells.filter((c) => isRaisedIn(c.cell, 'behind'));
  const inside = width - 2 * made.board;
  let [cell, door] = [0, 0];
  const out: PlacedFitting[] = [];
  for (const fitting of fittings) {
    const what = whatIs(fitting);
    if (!what) continue;
    const { item, built, traits } = what;
    const how = howIn(unit, what.how);
    const put = (room: Partial<PieceSize>, at: (size: PieceSize) => Vec3): void => {
      const { size, over } = fitted(item, fitting.size, room);
      out.push({ fitting, ...what, how, size, over, at: at(size) });
    };
    const x = width / 2;
    switch (how) {
      case 'cell': {
        const field = cells[Math.min(cell++, cells.length - 1)]?.field;
        if (!field) break;
        // A machine that stands elsewhere has no rim: it stands between the boards.
        const raised = what.how === 'stands';
        const { z0, z1 } = raised ? betweenBoards(field, height, made.board) : field;
        put({ width: (raised ? inside : field.x1 - field.x0) - EASE, height: z1 - z0 - EASE, depth: -face - EASE }, (s) => ({
          x: (field.x0 + field.x1) / 2,
          y: face + s.depth / 2,
          z: lift + z0 + EASE / 2,
        }));
        break;
      }
      case 'raised': {
        const field = doors[Math.min(door++, doors.length - 1)].field;
        const { z0, z1 } = betweenBoards(field, height, made.board);
        put({ width: inside - EASE, height: z1 - z0 - EASE, depth: depth - EASE }, (s) => ({
          x: (field.x0 + field.x1) / 2,
          y: -depth + (made.front - frontOut(made)) + EASE / 2 + s.depth / 2,
          z: lift + z0 + EASE / 2,
        }));
        break;
      }
      case 'through':
        cell++;
        put({ width: inside - EASE, depth: depth + made.worktop.overhang - 0.06, height }, (s) => ({
          x,
          y: -(depth + made.worktop.overhang) + s.depth / 2,
          z: top - s.height,
        }));
        break;
      case 'top': {
        // A drainer may go on over the neighbour.
        put({ width: 'drainer' in traits && traits.drainer !== 'none' ? undefined : width - 2 * EASE, depth: depth + made.worktop.overhang - 0.09 }, (s) => {
          const surface = built.surface?.(s, traits);
          // In the middle, but where the tap behind it wants room before the wall; no nearer to the front edge than that.
          const deep = depth + made.worktop.overhang;
          const behind = built.tap ? -TAP_IN - built.tap(s, traits).y : Infinity;
          return {
            x,
            y: Math.max(Math.min(-deep / 2, behind), Math.min(-deep / 2, s.depth / 2 - deep + TAP_IN / 2)),
            z: surface === undefined ? top - s.height - 0.0004 : top + made.worktop.thickness - surface,
          };
        });
        break;
      }
      case 'tap': {
        // Behind its sink, not behind a hob beside that.
        const by = out.find((p) => p.how !== 'tap' && p.built.tap);
        const behind = by?.built.tap ? add3(by.at, { ...by.built.tap(by.size, by.traits), z: 0 }) : { x, y: -0.05, z: 0 };
        put({}, (s) => {
          const foot = built.tap?.(s, traits) ?? { x: 0, y: 0 };
          return { x: behind.x - foot.x, y: behind.y - foot.y, z: top + made.worktop.thickness + ON_FLANGE };
        });
        break;
      }
      case 'stands':
      case 'behind': {
        const foot = how === 'behind' ? lift : 0;
        const under = band === 'tall' || how === 'behind' || goesUnder(fitting, item, top);
        put({ width: width - EASE, ...(under ? { height: top - foot - EASE } : {}) }, (s) => ({
          x,
          // It may be deeper than its neighbours, and then stands out before them.
          y: Math.min((how === 'behind' ? -depth : face) + s.depth / 2, -0.001 - s.depth / 2),
          z: foot,
        }));
        break;
      }
      case 'inside':
        // Its housing has no back: air goes up behind it.
        put({ width: inside - EASE, height: height - 2 * made.board - EASE, depth: depth - 2 * EASE }, (s) => ({
          x,
          y: -depth + EASE + s.depth / 2,
          z: lift + made.board + 0.0004,
        }));
        break;
      case 'hangs': {
        // It hangs above the worktop as far as what is cooked on needs, and goes up as far as its neighbours.
        const foot = HOOD - made.wall.above;
        // One that is said to be higher goes on up.
        put({ width, ...(fitting.size ? {} : { height: Math.max(item.min.height, height - foot) }) }, (s) => ({
          x,
          y: -0.0004 - s.depth / 2,
          z: foot,
        }));
        break;
      }
      case 'below':
        put({ width: inside, height: SLIM, depth: depth - 0.01 }, (s) => ({ x, y: -0.005 - s.depth / 2, z: -s.height - 0.0004 }));
        break;
    }
  }
  return out;
}

/** What of the worktop over a unit is cut out, in the plan of its axes. */
export const cutsOf = (placed: readonly PlacedFitting[]): Vec2[][] =>
  placed.flatMap(({ built, size, traits, at }) => {
    const ring = built.cut?.(size, traits) ?? [];
    return ring.length > 2 ? [ring.map((p) => ({ x: p.x + at.x, y: p.y + at.y }))] : [];
  });

/** The parts of what is built into a unit, in its axes: what moves keeps its joint. */
export function fittingParts(placed: readonly PlacedFitting[]): Made[] {
  return placed.flatMap(({ item, built, size, traits, at }) => {
    const place = shiftBy(at.x, at.y, at.z);
    const joints = new Map<Made['joint'], Made['joint']>();
    return madeShut(item, size, traits).map(({ part, mesh, joint, ...rest }): Made => {
      if (joint && !joints.has(joint)) joints.set(joint, { ...joint, at: transformPoint(place, joint.at) });
      return { ...rest, part: partOf(built, part), mesh: new MeshBuilder().add(mesh, place).build(), ...(joint ? { joint: joints.get(joint) } : {}) };
    });
  });
}
