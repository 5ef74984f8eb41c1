import { boolean, insideRegion, insideRing, totalArea } from '../geometry/polygon';
import { derivedOf, type Model } from '../model/model';
import { cutting } from '../project/ground-order';
import { stairRise } from '../project/stair-layout';
import { STAIR_PROFILES } from '../project/stair-rules';
import { guardHeight, headroomOf } from '../project/stairs';
import type { GroundArea, Opening, Piece, Slab, Stair, Void } from '../project/schema';
import type { DerivedLevel } from '../shell/model';
import { groundHeight } from '../shell/ground';
import { clearWidth } from '../shell/openings/sizes';
import { hasHeadroom, stairHeadroom } from '../model/headroom';
import type { DerivedStair } from '../shell/stairs';
import { formatLength } from '../units/length';
import type { Finding } from './finding';
import { NEAR } from '../units/tolerance';

/** Checks of single things: each says what of one thing is worth a look. */

const say = (model: Model, metres: number): string => formatLength(metres, model.project.units);

/** The rules of stairs: sizes, headroom, handrails; that it leads somewhere and runs into no wall. */
export function stairFindings(stair: Stair, model: Model): Finding[] {
  const { project } = model.shell;
  const ids = [stair.id];
  if (stairRise(project, stair) === null)
    return [
      {
        code: 'stair.nowhere',
        message: `${stair.name} is not built: there is no level above it to climb to; add one, or give it a height of its own.`,
        ids,
      },
    ];
  const level = model.shell.levels.find((l) => l.id === stair.level);
  const derived = level?.stairs.find((d) => d.id === stair.id);
  if (!level || !derived) return [];
  const out: Finding[] = derived.layout.sizes.breaches.map(({ rule, text }) => ({ code: `stair.${rule}`, message: `${stair.name}: ${lower(text)}`, ids }));
  const inWall = standsInWall(derived, level);
  if (inWall > 0.02) out.push({ code: 'stair.in-wall', message: `${stair.name} runs into a wall; move it or turn it.`, ids });
  if (!hasHeadroom(model, derived))
    out.push({
      code: 'stair.headroom',
      message: `${stair.name}: over its steps ${say(model, stairHeadroom(model, derived.id)!)} are left, less than ${say(model, headroomOf(stair))}.`,
      ids,
    });
  const { min } = STAIR_PROFILES[stair.profile].handrail;
  if ([stair.left, stair.right].some((g) => g && guardHeight(g, stair.profile, 'stair') < min - NEAR))
    out.push({ code: 'stair.handrail', message: `${stair.name}: a handrail is lower than ${say(model, min)}.`, ids });
  return out;
}

/** A hole in a floor that nothing guards. */
export const voidFindings = ({ id, name, guard }: Void): Finding[] =>
  guard ? [] : [{ code: 'void.open', message: `${name} has no guard; where no wall stands round it one may fall.`, ids: [id] }];

/** Height above the ground from which a floor wants a guard, metres. */
const FALL = 0.6;

/** A floor one may fall from. */
export function slabFindings({ id, name, kind, guard, level, z }: Slab, model: Model): Finding[] {
  const { project } = model.shell;
  const drop = project.levels[level].elevation + z - project.site.ground;
  return kind === 'foundation' || guard || drop <= FALL
    ? []
    : [{ code: 'slab.open', message: `${name} lies ${say(model, drop)} above the ground and has no guard.`, ids: [id] }];
}

/** Clear width a wheelchair wants of a door (trade figures), metres. */
const WHEELCHAIR = 0.815;

/** A door that is narrow when it stands open, or that leads into the air. */
export function openingFindings(opening: Opening, model: Model): Finding[] {
  const ids = [opening.id];
  const out: Finding[] = [];
  const clear = clearWidth(opening);
  if (opening.kind === 'door' && !GARAGE.has(opening.form) && clear < WHEELCHAIR)
    out.push({
      code: 'door.narrow',
      message: `${opening.name}: ${say(model, clear)} clear when open; a wheelchair wants ${say(model, WHEELCHAIR)}.`,
      ids,
    });
  const drop = dropBehind(opening, model);
  if (drop > FALL) out.push({ code: 'door.drop', message: `${opening.name} leads into the air: outside it the ground lies ${say(model, drop)} lower.`, ids });
  return out;
}

/** How far beside a door or a pass-through one steps, metres. */
const STEP_OUT = 0.4;
/** How far below a way something to step on may lie, metres. */
const STEP_DOWN = 0.3;

/** How deep one falls who goes out of an opening, metres; 0 where it does not lead outside, or to something that can be stepped on. */
function dropBehind(opening: Opening, model: Model): number {
  if (opening.kind !== 'door' && opening.kind !== 'passage') return 0;
  const { project, openings } = model.shell;
  const derived = openings.get(opening.id);
  if (!derived?.floors.length || (derived.rooms.left === null) === (derived.rooms.right === null)) return 0;
  const side = derived.rooms.left === null ? 1 : -1;
  const out = side * (derived.thickness / 2 + STEP_OUT);
  const at = { x: derived.point.x - Math.sin(derived.angle) * out, y: derived.point.y + Math.cos(derived.angle) * out };
  const level = project.levels[derived.level];
  const z = level.elevation + opening.sill;
  const near = (top: number): boolean => Math.abs(z - top) < STEP_DOWN;
  for (const slab of Object.values(project.slabs)) if (near(project.levels[slab.level].elevation + slab.z) && insideRing(at, slab.points)) return 0;
  for (const own of model.shell.levels) {
    // The floor of another level, or a flat roof to walk out on.
    if (own.rooms.some((r) => near(own.level.elevation + r.room.step) && insideRegion(at, r.region))) return 0;
    for (const { outline, layout, stair } of own.stairs)
      if (outline.some((ring, i) => near(own.level.elevation + stair.z + layout.steps[i].z) && insideRing(at, ring))) return 0;
    if (own.roofs.some(({ shape }) => shape.roof.form === 'flat' && near(own.level.elevation + shape.top) && shape.outlines.some((o) => insideRegion(at, o))))
      return 0;
  }
  return z - groundHeight(project, at);
}

/** An area of the ground of which nothing is seen. */
export function groundFindings({ id, name }: GroundArea, model: Model): Finding[] {
  const derived = derivedOf(model, 'grounds').find((g) => g.id === id);
  if (!derived || derived.area > NEAR) return [];
  const { above } = cutting(model.shell.project, id);
  return [
    {
      code: 'ground.covered',
      message: `${name} is not seen: ${above.map((g) => g.name).join(' and ')} ${above.length > 1 ? 'lie' : 'lies'} over all of it.`,
      ids: [id],
    },
  ];
}

/** A piece whose stock is not shipped, or that stands in a wall. */
export function pieceFindings(piece: Piece, model: Model): Finding[] {
  const derived = model.pieces.find((p) => p.id === piece.id);
  if (!derived) return [];
  if (!derived.item)
    return [
      { code: 'piece.unknown', message: `${piece.name}: this stock (${piece.maker}) is not shipped here and shows as an outline only.`, ids: [piece.id] },
    ];
  const level = model.shell.levels.find((l) => l.id === piece.level);
  if (!level?.rooms.length || derived.item.mount !== 'floor') return [];
  const room = level.rooms.find((r) => insideRegion({ x: piece.x, y: piece.y }, r.region));
  const far = room ? deepest(derived.footprint, room.region.outer) : 0;
  return far > 0.05 ? [{ code: 'piece.in-wall', message: `${piece.name} stands ${say(model, far)} in a wall of ${room!.room.name}.`, ids: [piece.id] }] : [];
}

const lower = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

const GARAGE = new Set(['sectional', 'up-and-over']);

/** How much of a stair lies in the walls of its level where those stand in its way, m². */
function standsInWall({ stair, outline, layout }: DerivedStair, level: DerivedLevel): number {
  const steps = outline.filter((_, i) => stair.z + layout.steps[i].z < level.level.height).map((outer) => ({ outer, holes: [] }));
  const walls = level.walls.filter((w) => w.wall.kind === 'wall').flatMap((w) => w.rings.map((outer) => ({ outer, holes: [] })));
  return steps.length && walls.length ? totalArea(boolean('intersection', steps, walls)) : 0;
}

/** How far the farthest corner of a footprint lies outside a ring, metres. */
function deepest(footprint: { x: number; y: number }[], ring: { x: number; y: number }[]): number {
  let most = 0;
  for (const p of footprint) {
    if (insideRegion(p, { outer: ring, holes: [] })) continue;
    let least = Infinity;
    ring.forEach((a, i) => {
      const b = ring[(i + 1) % ring.length];
      const t = Math.max(0, Math.min(1, ((p.x - a.x) * (b.x - a.x) + (p.y - a.y) * (b.y - a.y)) / ((b.x - a.x) ** 2 + (b.y - a.y) ** 2)));
      least = Math.min(least, Math.hypot(a.x + (b.x - a.x) * t - p.x, a.y + (b.y - a.y) * t - p.y));
    });
    most = Math.max(most, least);
  }
  return most;
}
