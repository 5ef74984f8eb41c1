import { entityOf, type Target, targetName } from '../project/targets';
import { bodyOf, partsOf, type Model } from '../model/derive';
import { finishLrv, meanHex } from '../finishes/finish';
import { inHues } from '../finishes/match';
import { finishIn, knowsFinish } from '../finishes/store';
import { choices } from '../project/choices';
import { boolean, insideRegion, totalArea } from '../geometry/polygon';
import type { DerivedLevel, DerivedRoom } from '../shell/model';
import { clearWidth } from '../shell/openings/sizes';
import { levelBelow, levelsOf } from '../project/levels';
import { guardHeight, headroomOf } from '../project/stairs';
import { stairRise } from '../project/stair-layout';
import { STAIR_PROFILES } from '../project/stair-rules';
import { hasHeadroom, type DerivedStair } from '../shell/stairs';
import { faceAt } from '../project/topology';
import { formatLength } from '../units/length';

/** One result of an automatic check: what, where, how much. */
export interface Finding {
  code: string;
  message: string;
  /** What it concerns, the first one the place to go to. */
  ids: string[];
  /** The very surface, where it is one. */
  target?: Target;
}

/** Everything worth a look in a model, in plain sentences. */
export function findings(model: Model): Finding[] {
  const { shell, pieces } = model;
  const { project } = shell;
  const out: Finding[] = [];
  const open = throughBoundaries(model);
  const say = (metres: number): string => formatLength(metres, project.units);
  for (const room of shell.rooms.values()) {
    if (room.room.use === 'duct') continue;
    out.push(...bareFaces(model, room));
    const way = room.sides.some((s) => s.openings.some((id) => ['door', 'passage'].includes(project.openings[id].kind)));
    if (!way && !open.has(room.id)) out.push({ code: 'room.no-door', message: `${room.room.name} has no door.`, ids: [room.id] });
  }
  for (const level of shell.levels) {
    for (const derived of level.stairs) {
      const { stair, layout } = derived;
      for (const { rule, text } of layout.sizes.breaches) out.push({ code: `stair.${rule}`, message: `${stair.name}: ${lower(text)}`, ids: [stair.id] });
      const inWall = standsInWall(derived, level);
      if (inWall > 0.02) out.push({ code: 'stair.in-wall', message: `${stair.name} runs into a wall; move it or turn it.`, ids: [stair.id] });
      if (!hasHeadroom(derived))
        out.push({
          code: 'stair.headroom',
          message: `${stair.name}: over its steps ${say(derived.headroom!)} are left, less than ${say(headroomOf(stair))}.`,
          ids: [stair.id],
        });
      const open = [stair.left, stair.right].some((g) => g && guardHeight(g, stair.profile, 'stair') < STAIR_PROFILES[stair.profile].handrail.min - 1e-6);
      if (open)
        out.push({
          code: 'stair.handrail',
          message: `${stair.name}: a handrail is lower than ${say(STAIR_PROFILES[stair.profile].handrail.min)}.`,
          ids: [stair.id],
        });
    }
    for (const { id, void: own } of level.voids)
      if (!own.guard) out.push({ code: 'void.open', message: `${own.name} has no guard; where no wall stands round it one may fall.`, ids: [id] });
    for (const { id, slab } of level.slabs) {
      const drop = level.level.elevation + slab.z - project.site.ground;
      if (slab.kind !== 'foundation' && !slab.guard && drop > 0.6)
        out.push({ code: 'slab.open', message: `${slab.name} lies ${say(drop)} above the ground and has no guard.`, ids: [id] });
    }
  }
  for (const stair of Object.values(project.stairs))
    if (stairRise(project, stair) === null)
      out.push({
        code: 'stair.nowhere',
        message: `${stair.name} is not built: there is no level above it to climb to; add one, or give it a height of its own.`,
        ids: [stair.id],
      });
  for (const level of levelsOf(project)) {
    const below = levelBelow(project, level.id);
    const own = shell.levels.find((l) => l.id === level.id);
    if (below && own?.rooms.length && !Object.values(project.stairs).some((s) => s.level === below.id && s.rise === null))
      out.push({ code: 'level.no-stair', message: `No stair leads up to ${level.name}.`, ids: [level.id] });
  }
  for (const opening of Object.values(project.openings))
    if (opening.kind === 'door' && !GARAGE.has(opening.form) && clearWidth(opening) < 0.815)
      out.push({
        code: 'door.narrow',
        message: `${opening.name}: ${say(clearWidth(opening))} clear when open; a wheelchair wants ${say(0.815)}.`,
        ids: [opening.id],
      });
  for (const { piece, item, footprint } of pieces) {
    if (!item) {
      out.push({
        code: 'piece.unknown',
        message: `${piece.name}: this stock (${piece.maker}) is not shipped here and shows as an outline only.`,
        ids: [piece.id],
      });
      continue;
    }
    const level = shell.levels.find((l) => l.id === piece.level);
    const centre = { x: piece.x, y: piece.y };
    if (level?.rooms.length && item.mount === 'floor') {
      const room = level.rooms.find((r) => insideRegion(centre, r.region));
      const out2 = room && footprint.filter((p) => !insideRegion(p, { outer: room.region.outer, holes: [] })).length;
      if (room && out2 && deepest(footprint, room.region.outer) > 0.05)
        out.push({
          code: 'piece.in-wall',
          message: `${piece.name} stands ${say(deepest(footprint, room.region.outer))} in a wall of ${room.room.name}.`,
          ids: [piece.id],
        });
    }
  }
  out.push(...offences(model));
  const used = new Set([...partsOf(model)].map(([, part]) => part.finish));
  for (const id of used)
    if (!knowsFinish(project, id)) out.push({ code: 'finish.unknown', message: `The finish ${id} is not in the library and shows as bare plaster.`, ids: [] });
  return out;
}

/** What of a room has no finish yet: the room as a whole, or one surface after another. */
function bareFaces(model: Model, room: DerivedRoom): Finding[] {
  const faces = model.shell.levels.flatMap((l) => l.faces.filter((f) => f.room === room.id));
  const bare = faces.filter((f) => !f.chosen && f.rest.area > 1e-6);
  if (!bare.length) return [];
  const walls = faces.filter((f) => f.kind === 'wall');
  const open = bare.filter((f) => f.kind === 'wall');
  const whole = [
    bare.some((f) => f.kind === 'floor') ? 'floor' : '',
    bare.some((f) => f.kind === 'ceiling') ? 'ceiling' : '',
    open.length === walls.length && open.length ? 'walls' : '',
  ].filter(Boolean);
  const out: Finding[] = [];
  if (whole.length)
    out.push({
      code: 'finish.bare',
      message: `${room.room.name}: ${whole.join(', ').replace(/, ([^,]*)$/, ' and $1')} still without a finish.`,
      ids: [room.id],
    });
  if (open.length < walls.length)
    for (const face of open)
      out.push({
        code: 'finish.bare',
        message: `${targetName(model.project, face.target)}: still without a finish.`,
        ids: [face.side!.wall],
        target: face.target,
      });
  return out;
}

/** Least difference of light reflectance values that tells surfaces apart with low vision (trade figures). */
const CONTRAST = 30;

/** What of the finishes is worth a second look: too little contrast, not the real size, what the client does not like. */
function offences(model: Model): Finding[] {
  const { project } = model.shell;
  const out: Finding[] = [];
  const lrv = (id: string): number => finishLrv(finishIn(project, id));
  for (const level of model.shell.levels)
    for (const room of level.rooms) {
      if (room.room.use === 'duct' || room.room.outdoors) continue;
      const faces = level.faces.filter((f) => f.room === room.id && f.chosen);
      const floor = faces.find((f) => f.kind === 'floor');
      const walls = faces.filter((f) => f.kind === 'wall');
      const largest = walls.reduce<(typeof walls)[number] | null>((a, b) => (a && a.area >= b.area ? a : b), null);
      if (floor && largest && Math.abs(lrv(floor.finish) - lrv(largest.finish)) < CONTRAST)
        out.push({
          code: 'contrast.floor',
          message: `${room.room.name}: floor (LRV ${lrv(floor.finish).toFixed(0)}) and walls (LRV ${lrv(largest.finish).toFixed(0)}) differ by less than ${CONTRAST}; hard to tell apart with low vision.`,
          ids: [room.id],
          target: floor.target,
        });
      for (const face of walls)
        for (const id of face.side!.openings) {
          const door = level.openings.find((o) => o.id === id && o.opening.kind === 'door');
          const leaf = bodyOf(model, id)?.parts.find((p) => p.name === 'leaf');
          if (!door || !leaf || out.some((f) => f.code === 'contrast.door' && f.ids[0] === id)) continue;
          if (Math.abs(lrv(leaf.finish) - lrv(face.finish)) < CONTRAST)
            out.push({
              code: 'contrast.door',
              message: `${door.opening.name} (LRV ${lrv(leaf.finish).toFixed(0)}) stands in a wall of ${room.room.name} (LRV ${lrv(face.finish).toFixed(0)}): less than ${CONTRAST} apart, hard to tell with low vision.`,
              ids: [id],
            });
        }
    }
  for (const level of model.shell.levels)
    for (const face of level.faces) {
      const scale = project.layings[face.address]?.scale ?? 1;
      if (scale !== 1)
        out.push({
          code: 'finish.scaled',
          message: `${targetName(project, face.target)}: ${finishIn(project, face.finish).name} is shown at ${Math.round(scale * 100)} % of its real size.`,
          ids: [face.side?.wall ?? face.room ?? ''],
          target: face.target,
        });
    }
  if (project.dislikes.length) {
    const told = new Set<string>();
    for (const { target, finish: id } of choices(project)) {
      const finish = finishIn(project, id);
      const dislike = project.dislikes.find((d) => inHues(meanHex(finish), d));
      if (!dislike || told.has(id)) continue;
      told.add(id);
      out.push({
        code: 'finish.disliked',
        message: `${finish.name} (${targetName(project, target)}): the client does not care for ${dislike.name.toLowerCase()}.`,
        ids: [entityOf(target)].filter((e) => e !== null),
        target,
      });
    }
  }
  return out;
}

/** How much of a stair lies in the walls of its level where those stand in its way, m². */
function standsInWall({ stair, outline, layout }: DerivedStair, level: DerivedLevel): number {
  const steps = outline.filter((_, i) => stair.z + layout.steps[i].z < level.level.height).map((outer) => ({ outer, holes: [] }));
  const walls = level.walls.filter((w) => w.wall.kind === 'wall').flatMap((w) => w.rings.map((outer) => ({ outer, holes: [] })));
  return steps.length && walls.length ? totalArea(boolean('intersection', steps, walls)) : 0;
}

const lower = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

const GARAGE = new Set(['sectional', 'up-and-over']);

/** Rooms one can walk into across a boundary, where nothing is built. */
function throughBoundaries({ shell }: Model): Set<string> {
  const rooms = new Set<string>();
  for (const level of shell.levels) {
    const { arrangement } = level.plan;
    const boundaries = level.walls.filter((w) => w.wall.kind === 'boundary').flatMap((w) => arrangement.byLine.get(w.id) ?? []);
    const along = new Set(boundaries.flatMap((p) => [arrangement.cycles[p.index * 2], arrangement.cycles[p.index * 2 + 1]]));
    for (const room of level.rooms) {
      const face = arrangement.faces[faceAt(arrangement, room.room.anchor)];
      if (face && along.has(face.outer)) rooms.add(room.id);
    }
  }
  return rooms;
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
