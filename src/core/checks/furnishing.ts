import type { Vec2 } from '../geometry/vec';
import type { Model } from '../model/model';
import { footprintOf, fromAxesOf, inAxesOf } from '../project/footprint';
import type { Clearances, Piece } from '../project/schema';
import { gapAlong, gapsOf, isChair, reachInto, roomAt, SIDE_WORDS, SIDES, type Gap, type PieceSide } from '../placing/around';
import { sweptBy, swingsOf } from '../shell/openings/swings';
import { clearOf, placesAt, sleepsIn, type DerivedPiece } from '../stock/stock';
import { formatLength } from '../units/length';
import type { Finding } from './finding';
import { narrowWays } from './ways';

/** Checks of how a house is furnished: the room beside pieces, the ways through rooms, doors, windows, rugs and lamps. */

/** Figures of a profile (trade figures): a share of what is usual, or so much where one uses a thing in a wheelchair, metres. */
const PROFILES: Readonly<Record<Clearances, { share: number; least: number; passage: number }>> = {
  close: { share: 0.8, least: 0, passage: 0.75 },
  usual: { share: 1, least: 0, passage: 0.9 },
  wheelchair: { share: 1, least: 1.2, passage: 1.2 },
};

/** Where less than this is missing nothing is said, metres. */
const SHORT = 0.01;
/** What is nearer than this stands against it, metres. */
const AGAINST = 0.05;
/** A thing that wants less room than this is not used from a wheelchair: a stove at its sides, metres. */
const USED = 0.5;

const say = (model: Model, metres: number): string => formatLength(metres, model.project.units);

/** How much room a thing wants at a side in a profile, metres. */
const needed = (usual: number, by: Clearances): number => {
  const { share, least } = PROFILES[by];
  return usual >= USED ? Math.max(usual * share, least) : usual * share;
};

/** All findings about the furniture of a model. */
export function furnishingFindings(model: Model): Finding[] {
  return [
    ...clearances(model),
    ...narrowWays(model, PROFILES[model.project.clearances].passage).map(({ room, width, from, to, near }): Finding => {
      const between = near.map((id) => nameOf(model, id)).filter(Boolean);
      return {
        code: 'way.narrow',
        message: `${model.project.rooms[room].name}: the way from ${nameOf(model, from)} to ${nameOf(model, to)} is ${say(model, width)} wide${between.length ? ` at ${between.join(' and ')}` : ''}; ${say(model, PROFILES[model.project.clearances].passage)} are wanted.`,
        ids: [near[0] ?? room, room],
      };
    }),
    ...swings(model),
    ...blockedWindows(model),
    ...radiators(model),
    ...rugs(model),
    ...lamps(model),
  ];
}

const nameOf = ({ project }: Model, id: string): string => project.pieces[id]?.name ?? project.openings[id]?.name ?? '';

const ids = (model: Model, piece: Piece): string[] => {
  const room = roomAt(model, piece);
  return room ? [piece.id, room] : [piece.id];
};

/** From where on, of its depth, one walks beside a bed: further up stand the tables at its head. */
const BESIDE_HEAD = 0.65;

/** Chairs are pushed aside. */
const stays = ({ item, piece }: DerivedPiece): boolean => !isChair(item, piece.size);

/** What is too near to a piece for it to be used. Of two that are too near to one another one is told. */
function clearances(model: Model): Finding[] {
  const told = new Set<string>();
  return model.pieces.flatMap((own): Finding[] => {
    const { item, piece } = own;
    // What hangs on a wall and wants room is used as what stands on the floor: a basin.
    if (!item || item.lies || isChair(item, piece.size) || (item.mount !== 'floor' && item.mount !== 'wall')) return [];
    const clear = clearOf(item, piece.size, piece.traits);
    const sleeps = sleepsIn(item, piece.size, piece.traits) > 0;
    const atTable = placesAt(item, piece.size, piece.traits).length > 0;
    const gaps = gapsOf(model, piece.id, stays);
    let worst: { side: PieceSide; gap: Gap; need: number } | null = null;
    for (const side of SIDES) {
      const usual = side === 'left' || side === 'right' ? clear.sides : side === 'front' ? clear.front : clear.back;
      const gap = sleeps && (side === 'left' || side === 'right') ? gapAlong(model, piece.id, side, 0, BESIDE_HEAD, stays) : gaps[side];
      if (!usual || !gap) continue;
      const need = needed(usual, model.project.clearances);
      // A side that stands against something is meant to: a bed in a corner, a chest beside a chest, any side of a table.
      if ((atTable || side === 'left' || side === 'right') && gap.distance < AGAINST) continue;
      if (need - gap.distance > SHORT && (!worst || need - gap.distance > worst.need - worst.gap.distance)) worst = { side, gap, need };
    }
    if (!worst) return [];
    const { side, gap, need } = worst;
    const pair = [piece.id, gap.id ?? side].sort().join(' ');
    if (gap.kind === 'piece' && told.has(pair)) return [];
    told.add(pair);
    const at = gap.kind === 'piece' && gap.id ? ` to ${nameOf(model, gap.id)}` : gap.kind === 'column' ? ' to a column' : '';
    return [
      {
        code: 'piece.clearance',
        message: `${piece.name}: ${say(model, Math.max(0, gap.distance))} ${SIDE_WORDS[side]}${at}; ${say(model, need)} are wanted.`,
        ids: ids(model, piece),
      },
    ];
  });
}

/** How far a door may reach into a piece before it is said, metres. */
const TOUCH_LEAF = 0.02;

/** Doors that meet furniture when they are opened. */
function swings(model: Model): Finding[] {
  return [...model.shell.openings.values()].flatMap((opening): Finding[] => {
    for (const swing of swingsOf(opening)) {
      const swept = sweptBy(swing);
      for (const own of model.pieces) {
        const { piece, item } = own;
        if (!item || item.lies || piece.level !== opening.level || item.mount === 'ceiling') continue;
        // It passes below what hangs higher, and over what is lower than its gap.
        if (piece.elevation > opening.opening.sill + opening.opening.height || piece.elevation + piece.size.height < opening.opening.sill + 0.03) continue;
        if (reachInto(swept, own.footprint) <= TOUCH_LEAF) continue;
        return [
          {
            code: 'door.meets',
            message: `${opening.opening.name} meets ${piece.name} when it is opened.`,
            ids: [piece.id, opening.id, ...ids(model, piece).slice(1)],
          },
        ];
      }
    }
    return [];
  });
}

/** How near to a window something stands before it, metres. */
const BEFORE = 0.4;
/** How much of its glass something may cover, as a share of its width and metres above its sill. */
const COVERED = 0.3;
const OVER_SILL = 0.15;

/** The footprint of a piece in the axes of an opening: along its wall from its middle, and away from the wall's middle line. */
const before = (own: DerivedPiece, { point, angle }: { point: Vec2; angle: number }): { x0: number; x1: number; near: number } => {
  const local = own.footprint.map((p) => inAxesOf({ ...point, rotation: angle }, p));
  return {
    x0: Math.min(...local.map((p) => p.x)),
    x1: Math.max(...local.map((p) => p.x)),
    near: Math.min(...local.map((p) => Math.abs(p.y))),
  };
};

/** Windows that a tall piece stands before. */
function blockedWindows(model: Model): Finding[] {
  return [...model.shell.openings.values()].flatMap((o): Finding[] => {
    const { opening } = o;
    if (opening.kind !== 'window') return [];
    return model.pieces.flatMap((own): Finding[] => {
      const { piece, item } = own;
      if (!item || piece.level !== o.level || item.mount !== 'floor' || item.category === 'Greenery') return [];
      const over = piece.elevation + piece.size.height - opening.sill;
      if (over <= OVER_SILL) return [];
      const { x0, x1, near } = before(own, o);
      const covered = Math.min(x1, opening.width / 2) - Math.max(x0, -opening.width / 2);
      if (covered < COVERED * opening.width || near > o.thickness / 2 + BEFORE || !roomAt(model, piece)) return [];
      return [
        {
          code: 'window.blocked',
          message: `${piece.name} stands before ${opening.name} and reaches ${say(model, over)} above its sill.`,
          ids: [...ids(model, piece), opening.id],
        },
      ];
    });
  });
}

/** Radiators behind a curtain that hangs over them. */
function radiators(model: Model): Finding[] {
  const heaters = model.pieces.filter((p) => p.item?.connections?.includes('heating'));
  const hung = model.pieces.filter((p) => p.item?.mount === 'window');
  return heaters.flatMap((heater): Finding[] => {
    const curtain = hung.find(
      (c) =>
        c.piece.level === heater.piece.level &&
        c.piece.elevation < heater.piece.elevation + heater.piece.size.height - SHORT &&
        reachInto(c.footprint, wider(heater)) > SHORT,
    );
    return curtain
      ? [
          {
            code: 'radiator.covered',
            message: `${heater.piece.name} is behind ${curtain.piece.name}: drawn, it keeps the warmth from the room; let it end above the radiator.`,
            ids: ids(model, heater.piece),
          },
        ]
      : [];
  });
}

/** How far before a heater a curtain may hang that covers it, metres. */
const BEFORE_HEATER = 0.15;

/** The footprint of a heater with what is before it. */
const wider = ({ piece }: DerivedPiece): Vec2[] =>
  footprintOf(
    { ...fromAxesOf(piece, { x: 0, y: -BEFORE_HEATER / 2 }), rotation: piece.rotation },
    { width: piece.size.width, depth: piece.size.depth + BEFORE_HEATER },
  );

/** How far a rug goes on beyond a dining table, for chairs that are drawn back, and under the front feet of a seat, metres (trade figures). */
const BEYOND_TABLE = 0.6;
const UNDER_FEET = 0.1;
/** How near before a seat a rug is meant for it, metres. */
const RUG_BEFORE = 0.5;

/** What is narrower is a runner, which one walks along, metres. */
const RUNNER = 1;

/** Rugs that are too small for what stands on them. */
function rugs(model: Model): Finding[] {
  const { share } = PROFILES[model.project.clearances];
  return model.pieces.flatMap((rug): Finding[] => {
    if (!rug.item?.lies || rug.item.category !== 'Textiles') return [];
    const out: Finding[] = [];
    for (const own of model.pieces) {
      const { piece, item } = own;
      if (!item || piece.level !== rug.piece.level || item.mount !== 'floor' || item.lies) continue;
      // In the axes of the rug.
      const local = own.footprint.map((p) => inAxesOf(rug.piece, p));
      const [w, d] = [rug.piece.size.width / 2, rug.piece.size.depth / 2];
      const middle = inAxesOf(rug.piece, piece);
      if (placesAt(item, piece.size, piece.traits).length > 1) {
        if (Math.abs(middle.x) > w || Math.abs(middle.y) > d) continue;
        const beyond = Math.min(...local.flatMap((p) => [w - p.x, p.x + w, d - p.y, p.y + d]));
        const wanted = BEYOND_TABLE * share;
        if (wanted - beyond > SHORT)
          out.push({
            code: 'rug.small',
            message: `${rug.piece.name} goes ${beyond > 0 ? `only ${say(model, beyond)}` : 'not at all'} beyond ${piece.name}: for chairs drawn back ${say(model, wanted)} are wanted.`,
            ids: [rug.piece.id, ...ids(model, piece).slice(1)],
          });
      } else if (item.category === 'Seating' && !isChair(item, piece.size) && Math.min(rug.piece.size.width, rug.piece.size.depth) >= RUNNER) {
        // Where its front feet are, and how far the rug is from there.
        const feet = inAxesOf(rug.piece, fromAxesOf(piece, { x: 0, y: -piece.size.depth / 2 + UNDER_FEET * share }));
        const gap = Math.max(Math.abs(feet.x) - w, Math.abs(feet.y) - d);
        if (gap > SHORT && gap < RUG_BEFORE)
          out.push({
            code: 'rug.small',
            message: `${rug.piece.name} stops ${say(model, gap)} short of the front feet of ${piece.name}: let it reach under them.`,
            ids: [rug.piece.id, ...ids(model, piece).slice(1)],
          });
      }
    }
    return out.slice(0, 1);
  });
}

/** How high a pendant hangs over a table, and how low one that is walked under, metres (trade figures; clear of heads). */
const OVER_TABLE = [0.65, 0.85] as const;
const OVER_HEADS = 2;

/** Lamps that hang too low or too high. */
function lamps(model: Model): Finding[] {
  return model.pieces.flatMap((own): Finding[] => {
    const { piece, item } = own;
    if (!item?.lamp || item.mount !== 'ceiling') return [];
    const table = model.pieces.find((t) => t.item && placesAt(t.item, t.piece.size, t.piece.traits).length > 1 && hangsOver(own, t));
    if (table) {
      const over = piece.elevation - table.piece.elevation - table.piece.size.height;
      // What lies at the ceiling is not meant for the table.
      const [low, high] = OVER_TABLE;
      if (over >= low - SHORT && (over <= high + SHORT || piece.size.height < 0.3)) return [];
      return [
        {
          code: 'lamp.height',
          message: `${piece.name} hangs ${say(model, over)} above ${table.piece.name}: ${say(model, low)} to ${say(model, high)} are wanted.`,
          ids: ids(model, piece),
        },
      ];
    }
    if (piece.elevation >= OVER_HEADS - SHORT || model.pieces.some((p) => p.item?.mount === 'floor' && !p.item.lies && hangsOver(own, p))) return [];
    return [
      {
        code: 'lamp.low',
        message: `${piece.name} hangs ${say(model, piece.elevation)} above the floor: heads pass below ${say(model, OVER_HEADS)}.`,
        ids: ids(model, piece),
      },
    ];
  });
}

/** Whether a lamp hangs over what another piece covers of the floor. */
function hangsOver(lamp: DerivedPiece, { piece }: DerivedPiece): boolean {
  const local = inAxesOf(piece, lamp.piece);
  return piece.level === lamp.piece.level && Math.abs(local.x) < piece.size.width / 2 && Math.abs(local.y) < piece.size.depth / 2;
}
