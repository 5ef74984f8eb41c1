import { shiftBy } from '../geometry/extrude';
import { MeshBuilder, transformPoint } from '../geometry/mesh';
import { add3, type Vec2, type Vec3 } from '../geometry/vec';
import type { Cabinet, Construction, Fitting } from '../project/schema/cabinets';
import { CARDS, clampSize, madeShut, stockItem, traitsFor } from '../stock/stock';
import type { Traits } from '../stock/traits';
import type { BuiltIn, BuiltInHow, Made, PieceSize, StockCard, StockItem } from '../stock/types';
import { NEAR } from '../units/tolerance';
import type { LaidFront } from './front';

/** Something of the stock where it is built into a unit. */
export interface PlacedFitting {
  fitting: Fitting;
  item: StockItem;
  built: BuiltIn;
  how: BuiltInHow;
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

/** Whether something built in stands or hangs where the carcass of its unit would be. */
export const isWithoutCarcass = (fittings: readonly Fitting[]): boolean => fittings.some((f) => ['stands', 'behind', 'hangs'].includes(whatIs(f)?.how ?? ''));

/** Whether what is built in is all there is: it has a front of its own. */
export const isWithoutFronts = (fittings: readonly Fitting[]): boolean => fittings.some((f) => ['stands', 'hangs'].includes(whatIs(f)?.how ?? ''));

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
export function placeFittings(
  { band, fittings }: Pick<Cabinet, 'band' | 'fittings'>,
  { width, height, depth }: PieceSize,
  front: LaidFront,
  made: Construction,
): PlacedFitting[] {
  const lift = band === 'wall' ? 0 : made.plinth;
  const face = -depth - (made.frame > 0 ? 0 : made.front);
  const top = lift + height;
  const cells = front.cells.filter((c) => c.cell.kind === 'appliance');
  const inside = width - 2 * made.board;
  let cell = 0;
  const out: PlacedFitting[] = [];
  for (const fitting of fittings) {
    const what = whatIs(fitting);
    if (!what) continue;
    const { item, how, built, traits } = what;
    const put = (room: Partial<PieceSize>, at: (size: PieceSize) => Vec3): void => {
      const { size, over } = fitted(item, fitting.size, room);
      out.push({ fitting, ...what, size, over, at: at(size) });
    };
    const x = width / 2;
    switch (how) {
      case 'cell': {
        const field = cells[Math.min(cell++, cells.length - 1)]?.field;
        if (!field) break;
        put({ width: field.x1 - field.x0 - EASE, height: field.z1 - field.z0 - EASE, depth: -face - EASE }, (s) => ({
          x: (field.x0 + field.x1) / 2,
          y: face + s.depth / 2,
          z: lift + field.z0 + EASE / 2,
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
          return { x, y: -(depth + made.worktop.overhang) / 2, z: surface === undefined ? top - s.height - 0.0004 : top + made.worktop.thickness - surface };
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
