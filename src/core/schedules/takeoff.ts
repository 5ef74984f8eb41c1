import type { Body, Part } from '../model/body';
import { partsOf, roomOfPart, type Model } from '../model/model';
import type { Finish } from '../finishes/finish';
import { finishIn } from '../finishes/store';
import { MOST_UNITS, layOut, unitsNeeded, type LaidUnit, type Layout } from '../finishes/laying/layout';
import { tilingOf } from '../finishes/laying/pattern';
import type { Placing } from '../finishes/laying/place';
import { meshArea } from '../geometry/mesh';
import { boolean, signedArea, totalArea, union } from '../geometry/polygon';
import type { Region } from '../geometry/region';
import { distance, type Vec2 } from '../geometry/vec';
import { isStraight } from '../shell/bow';
import { patchPlacing } from '../shell/dress/dress';
import type { DressedFace } from '../shell/dress/dressed';
import { patchOutline } from '../shell/dress/patches';
import { faceX } from '../shell/wall-face';
import { DUST, HAIR, TIGHT } from '../units/tolerance';
import { goodsOf, type Goods } from './goods';

/** Something that a finish covers: a face or a patch of it, or the surface of a thing. */
export interface Lot {
  finish: string;
  laid: Finish;
  room: string | null;
  /** What it is, as people say it. */
  what: string;
  /** Where it leads to. */
  entity: string;
  kind: 'floor' | 'wall' | 'ceiling' | 'patch' | 'thing';
  /** Net, m²: openings, patches and what stands fixed against it taken off. */
  area: number;
  /** Taken off for what stands fixed against it, m². */
  hidden: number;
  /** Its layout, where units are laid and can be counted. */
  layout: Layout | null;
  /** Whether it is bought as a finish: what things are built of is not. */
  ordered: boolean;
  /** Lengths of wall and the heights papered there, for goods sold by the roll. */
  runs: HungLength[];
}

/** A length of wall over which drops of one height hang, metres. */
export interface HungLength {
  length: number;
  height: number;
}

/** How near a thing stands to a face that it hides, metres. */
const AGAINST = 0.035;

/** What fixed things hide of the faces of a room, by address of the face. */
function hiddenBy(model: Model, faces: readonly DressedFace[], level: string): Map<DressedFace, Region[]> {
  const out = new Map<DressedFace, Region[]>();
  const hide = (face: DressedFace, region: Region): void => void out.set(face, [...(out.get(face) ?? []), region]);
  for (const { piece, item, footprint } of model.pieces) {
    if (!item?.fixed || piece.level !== level) continue;
    const ring = signedArea(footprint) < 0 ? [...footprint].reverse() : footprint;
    for (const face of faces) {
      if (face.kind === 'floor' && piece.elevation < 0.02) hide(face, { outer: ring, holes: [] });
      if (face.kind !== 'wall' || !face.side || !isStraight(face.side)) continue;
      const { side } = face;
      const [a, b] = [side.path[0], side.path[side.path.length - 1]];
      const l = distance(a.p, b.p) || 1;
      const d = { x: (b.p.x - a.p.x) / l, y: (b.p.y - a.p.y) / l };
      const near = footprint.flatMap((p: Vec2) => {
        const r = { x: p.x - a.p.x, y: p.y - a.p.y };
        const along = r.x * d.x + r.y * d.y;
        const off = (side.side === 'left' ? 1 : -1) * (r.y * d.x - r.x * d.y);
        return off > -AGAINST && off < AGAINST ? [faceX(side, a.s + ((b.s - a.s) * along) / l)] : [];
      });
      if (near.length < 2) continue;
      const [x0, x1] = [Math.min(...near), Math.max(...near)];
      if (x1 - x0 < 0.02) continue;
      const [y0, y1] = [piece.elevation, piece.elevation + piece.size.height];
      hide(face, {
        outer: [
          { x: x0, y: y0 },
          { x: x1, y: y0 },
          { x: x1, y: y1 },
          { x: x0, y: y1 },
        ],
        holes: [],
      });
    }
  }
  return out;
}

function laidOut(laid: Finish, placing: Placing, regions: readonly Region[]): Layout | null {
  if (!laid.laying || !regions.length) return null;
  const { period, units } = tilingOf(laid.laying);
  if ((totalArea(regions) / (period.x * period.y)) * units.length > MOST_UNITS / 8) return null;
  return layOut(laid.laying, placing, regions);
}

const kept = new WeakMap<DressedFace, { pieces: Model['pieces']; lots: Lot[] }>();
const things = new WeakMap<Part, Lot>();

/** Everything finishes cover in a model, net: faces with their patches, then every part of a thing that takes a finish. */
export function takeOff(model: Model): Lot[] {
  const lots: Lot[] = [];
  const faced = new Set<Part>();
  for (const level of model.shell.levels) {
    let gone: Map<DressedFace, Region[]> | undefined;
    for (const face of level.faces) {
      if (face.part) faced.add(face.part);
      for (const way of face.ways) faced.add(way.part);
      const known = kept.get(face);
      if (known?.pieces === model.pieces) {
        lots.push(...known.lots);
        continue;
      }
      gone ??= hiddenBy(model, level.faces, level.id);
      const own = faceLots(model, face, gone.get(face) ?? []);
      kept.set(face, { pieces: model.pieces, lots: own });
      lots.push(...own);
    }
  }
  for (const [body, part] of partsOf(model)) {
    // Patches are counted with their faces, mouldings by their length, the land round about not at all.
    if (!part.target || body.kind === 'site' || faced.has(part) || part.sort === 'patch' || part.sort === 'moulding') continue;
    let lot = things.get(part);
    if (!lot) things.set(part, (lot = thingLot(model, body, part)));
    lots.push(lot);
  }
  return lots;
}

/** What a part of a thing takes of its finish: all of its surface. Of a piece, what somebody chose for it is to be had. */
function thingLot(model: Model, body: Body, part: Part): Lot {
  const { sort, counts, laid } = part;
  return {
    finish: part.finish,
    laid,
    room: sort === 'floor' || sort === 'ceiling' ? roomOfPart(model, body, part) : null,
    what: sort === 'floor' || sort === 'ceiling' ? sort : part.name,
    entity: body.id,
    kind: sort === 'floor' || sort === 'ceiling' ? sort : 'thing',
    area: meshArea(part.mesh) * part.at.length,
    hidden: 0,
    layout: null,
    // Water is let in, not bought.
    ordered: laid.body.kind !== 'water' && (counts === 'piece' ? part.chosen : laid.unit === 'litre' || counts === 'covering'),
    runs: [],
  };
}

function faceLots(model: Model, face: DressedFace, hidden: readonly Region[]): Lot[] {
  const { project } = model.shell;
  const covered = face.patches.flatMap((p) => p.regions);
  // Faces and outlines are drawn by chords; what arcs have more than those is counted with them.
  const bowed = face.kind === 'wall' ? 0 : (model.shell.rooms.get(face.room ?? '')?.bowed ?? 0);
  const stretch = face.side?.bow.stretch ?? 1;
  const flat = face.kind !== 'ceiling' || Math.abs(totalArea(face.regions) + bowed - face.area) < HAIR;
  // A floor goes on in the ways through the walls: there it is laid without a break.
  const whole = face.ways.length ? union([...face.regions, ...face.ways.map((way) => way.region)]) : face.regions;
  const free = covered.length ? boolean('difference', [...whole], covered) : whole;
  const seen = hidden.length ? boolean('difference', [...free], [...hidden]) : free;
  const off = totalArea(free) - totalArea(seen);
  const lots: Lot[] = [
    {
      finish: face.finish,
      laid: face.laid,
      room: face.room,
      what: face.kind,
      entity: face.side?.wall ?? face.room ?? '',
      kind: face.kind,
      area: flat ? totalArea(seen) * stretch + bowed : Math.max(0, face.rest.area - off),
      hidden: off,
      layout: flat ? laidOut(face.laid, face.placing, seen) : null,
      ordered: true,
      runs: face.laid.unit === 'roll' ? runsOf(face) : [],
    },
  ];
  // The ends of a wall that are seen are finished as its faces; nobody sets units out on them.
  if (face.side?.ends) lots.push({ ...lots[0], what: 'wall end', area: face.side.ends, hidden: 0, layout: null, runs: [] });
  for (const patch of face.patches) {
    const seenOf = (regions: readonly Region[]): readonly Region[] =>
      hidden.length && regions.length ? boolean('difference', [...regions], [...hidden]) : regions;
    const inSight = seenOf(patch.regions);
    const fields = totalArea(seenOf(patch.fieldRegions)) * stretch;
    const { laid, placing } = patchPlacing(project, patch);
    const ys = patch.regions.flatMap((r) => r.outer.map((p) => p.y));
    const xs = patch.regions.flatMap((r) => r.outer.map((p) => p.x));
    const put = (finish: string, area: number, more: Partial<Lot>): void =>
      void lots.push({
        finish,
        laid: finishIn(project, finish),
        room: face.room,
        what: patch.patch.name,
        entity: patch.patch.id,
        kind: 'patch',
        area,
        hidden: 0,
        layout: null,
        ordered: true,
        runs: [{ length: Math.max(...xs) - Math.min(...xs), height: Math.max(...ys) - Math.min(...ys) }],
        ...more,
      });
    const area = totalArea(inSight) * stretch;
    put(patch.patch.finish, area - fields, { laid, hidden: patch.area * stretch - area, layout: laidOut(laid, placing, inSight) });
    if (fields > 0) put(patch.patch.panels!.field!, fields, { runs: [] });
  }
  return lots.filter((lot) => lot.area > TIGHT);
}

/**
 * Where drops of one height hang on a wall: patches shorten them, openings do not, as the trade counts (what is cut out of
 * them is lost).
 */
function runsOf(face: DressedFace): HungLength[] {
  const { side } = face;
  if (!side) return [];
  const covered = face.patches.flatMap(({ patch }): Region[] => {
    const outer = patchOutline(patch, face);
    return outer ? [{ outer: signedArea(outer) < 0 ? [...outer].reverse() : outer, holes: [] }] : [];
  });
  const outer = [{ x: 0, y: side.foot }, { x: side.length, y: side.foot }, ...[...side.top].reverse()];
  const papered = covered.length ? boolean('difference', [{ outer, holes: [] }], covered) : [{ outer, holes: [] }];
  const ends = [...new Set(papered.flatMap((r) => [r.outer, ...r.holes].flatMap((ring) => ring.map((p) => Math.round(p.x * 1000)))))].sort((a, b) => a - b);
  const runs: HungLength[] = [];
  for (let i = 0; i + 1 < ends.length; i++) {
    const [x0, x1] = [ends[i] / 1000, ends[i + 1] / 1000];
    const strip = [
      { x: x0, y: -1e3 },
      { x: x1, y: -1e3 },
      { x: x1, y: 1e3 },
      { x: x0, y: 1e3 },
    ];
    const ys = boolean('intersection', papered, [{ outer: strip, holes: [] }]).flatMap((r) => r.outer.map((p) => p.y));
    if (ys.length) runs.push({ length: x1 - x0, height: Math.max(...ys) - Math.min(...ys) });
  }
  return runs;
}

/** Length of a roll of wallpaper, what is added to each drop for trimming (trade figures), metres. */
export const ROLL = { length: 10.05, trim: 0.1 } as const;

/**
 * Rolls of wallpaper for walls of one height: drops = ceil(length / width); a drop is the height and the trimming, rounded up
 * to the repeat of the pattern; drops a roll = floor(roll / drop).
 *
 * @param walls lengths and heights, metres
 * @param repeat height after which the pattern repeats; 0: none
 */
export function rollsFor(walls: readonly HungLength[], width: number, repeat: number, roll: number = ROLL.length): { drops: number; rolls: number } {
  const byHeight = new Map<number, number>();
  for (const { length, height } of walls) {
    const key = Math.round(height * 1000) / 1000;
    byHeight.set(key, (byHeight.get(key) ?? 0) + length);
  }
  let [drops, rolls] = [0, 0];
  for (const [height, length] of byHeight) {
    const count = Math.ceil(length / width - DUST);
    const long = height + ROLL.trim;
    const drop = repeat > 0 ? Math.ceil(long / repeat - DUST) * repeat : long;
    drops += count;
    rolls += count / Math.max(1, Math.floor(roll / drop + DUST));
  }
  return { drops, rolls: Math.ceil(rolls - DUST) };
}

/** Coats of paint, and the share of units that break (trade figures). */
const COATS = 2;
const BREAKAGE = 0.04;

export interface Order {
  /** What is used up, waste included, in the unit the finish is sold in. */
  need: number;
  /** What is bought for it. */
  goods: Goods;
  whole: number;
  cut: number;
  /** Units (tiles, bricks) with breakage; 0 where they are not counted. */
  units: number;
  drops: number;
}

/** After how much a printed paper repeats upwards, metres. */
export function repeatOf(finish: Finish): number {
  if (finish.body.kind !== 'motif' && finish.body.kind !== 'image') return 0;
  return finish.size.height;
}

/** What must be had of one finish for all it covers. */
export function orderFor(finish: Finish, all: readonly Lot[]): Order {
  const lots = all.filter((lot) => lot.ordered);
  const area = lots.reduce((sum, lot) => sum + lot.area, 0);
  const none = { whole: 0, cut: 0, units: 0, drops: 0 };
  const bought = (need: number): Pick<Order, 'need' | 'goods'> => ({ need, goods: goodsOf(finish.unit, need) });
  if (finish.unit === 'litre') return { ...none, ...bought((area * COATS * (1 + finish.waste)) / finish.coverage) };
  if (finish.unit === 'roll') {
    const papered = lots.flatMap((lot) => lot.runs);
    const rest = lots.filter((lot) => !lot.runs.length).reduce((sum, lot) => sum + lot.area, 0);
    const width = Math.min(finish.size.width, 1.4);
    const { drops, rolls } = rollsFor(papered, width, repeatOf(finish), finish.coverage / width);
    return { ...none, drops, ...bought(rolls + Math.ceil((rest * (1 + finish.waste)) / finish.coverage - DUST)) };
  }
  const counted = lots.filter((lot) => lot.layout && lot.laid.laying && lot.laid.laying.pattern !== 'plank');
  const byLaying = new Map<string, { lot: Lot; units: LaidUnit[] }>();
  for (const lot of counted) {
    const { pattern, width, height, joint } = lot.laid.laying!;
    const key = `${pattern} ${width} ${height} ${joint}`;
    const group = byLaying.get(key) ?? { lot, units: [] };
    group.units.push(...lot.layout!.units);
    byLaying.set(key, group);
  }
  let [whole, cut, units, covered] = [0, 0, 0, 0];
  for (const { lot, units: list } of byLaying.values()) {
    const laying = lot.laid.laying!;
    whole += list.filter((u) => u.whole).length;
    cut += list.filter((u) => !u.whole).length;
    const needed = Math.ceil(unitsNeeded(list, laying) * (1 + BREAKAGE) - DUST);
    units += needed;
    const { period, units: kinds } = tilingOf(laying);
    covered += needed * ((period.x * period.y) / kinds.length);
  }
  const loose = lots.filter((lot) => !counted.includes(lot)).reduce((sum, lot) => sum + lot.area, 0) * (1 + finish.waste);
  return { whole, cut, units, drops: 0, ...bought((covered + loose) / finish.coverage) };
}
