import { entityOf, targetName } from '../project/targets';
import type { Finding } from './finding';
import { HAIR, NEAR } from '../units/tolerance';

export type { Finding } from './finding';
import { bodyOf, partsOf, type Model } from '../model/model';
import { finishLrv, meanHex } from '../finishes/finish';
import { inHues } from '../finishes/match';
import { finishIn, knowsFinish } from '../finishes/store';
import { modelKind } from '../model/kinds';
import { coveringFindings } from './coverings';
import { furnishingFindings } from './furnishing';
import { wetFindings } from './wet';
import { choices } from '../project/choices';
import { collections, type Thing } from '../project/kinds';
import { boolean, insideRegion, totalArea } from '../geometry/polygon';
import type { Region } from '../geometry/region';
import { add, distance, left, lerp, scale, sub, unit, type Vec2 } from '../geometry/vec';
import type { DerivedLevel, DerivedRoom } from '../shell/model';
import { holesIn } from '../project/stairs';
import { wallEnds } from '../project/wall-line';
import { levelBelow, levelsOf } from '../project/levels';
import { faceAt } from '../project/topology';

/** Everything worth a look in a model, in plain sentences. */
export function findings(model: Model): Finding[] {
  const { shell } = model;
  const { project } = shell;
  const out: Finding[] = [];
  const open = throughBoundaries(model);
  for (const room of shell.rooms.values()) {
    if (room.room.use === 'duct') continue;
    out.push(...bareFaces(model, room));
    const way = room.sides.some((s) => s.openings.some((id) => ['door', 'passage'].includes(project.openings[id].kind)));
    if (!way && !open.has(room.id)) out.push({ code: 'room.no-door', message: `${room.room.name} has no door.`, ids: [room.id] });
  }
  for (const level of levelsOf(project)) {
    const below = levelBelow(project, level.id);
    const own = shell.levels.find((l) => l.id === level.id);
    if (below && own?.rooms.length && !Object.values(project.stairs).some((s) => s.level === below.id && s.rise === null))
      out.push({ code: 'level.no-stair', message: `No stair leads up to ${level.name}.`, ids: [level.id] });
  }
  for (const level of shell.levels) out.push(...wallsOverVoids(model, level));
  shell.levels.forEach((level, i) => shell.levels.slice(i + 1).forEach((other) => out.push(...floorsInOne(level, other))));
  for (const collection of collections()) {
    const { checks } = modelKind(collection);
    if (checks) for (const thing of Object.values(project[collection] as Record<string, Thing>)) out.push(...checks(thing, model));
  }
  out.push(...coveringFindings(model), ...furnishingFindings(model), ...wetFindings(model));
  out.push(...offences(model));
  const used = new Set([...partsOf(model)].map(([, part]) => part.finish));
  for (const id of used)
    if (!knowsFinish(project, id)) out.push({ code: 'finish.unknown', message: `The finish ${id} is not in the library and shows as bare plaster.`, ids: [] });
  return out;
}

/** Floors that lie nearer to one another than this are at one height, metres. */
const ONE_HEIGHT = 0.01;

/** Two levels whose floors lie in one another. */
function floorsInOne(a: DerivedLevel, b: DerivedLevel): Finding[] {
  if (Math.abs(a.level.elevation - b.level.elevation) > ONE_HEIGHT) return [];
  const [p, q] = [a, b].map(({ rooms }) => rooms.map((r) => r.region));
  if (!p.length || !q.length || totalArea(boolean('intersection', p, q)) < OVER) return [];
  return [
    {
      code: 'level.one-height',
      message: `The floors of ${a.level.name} and ${b.level.name} lie at one height, one in the other; move one of them.`,
      ids: [a.level.id, b.level.id],
    },
  ];
}

/** How much of a wall may stand over a hole in its floor, m²: what a wall at its edge overlaps. */
const OVER = 0.01;

/** Walls that stand over the hole of a stair or a void: nothing carries them there. */
function wallsOverVoids(model: Model, { level, walls }: DerivedLevel): Finding[] {
  const { project } = model.shell;
  const holes = holesIn(project, level.id);
  if (!holes.length) return [];
  return walls.flatMap(({ wall, rings, height }) => {
    if (wall.kind === 'boundary' || wall.base > NEAR || height < NEAR) return [];
    const own = rings.map((outer) => ({ outer, holes: [] }));
    const over = totalArea(boolean('intersection', own, [...holes]));
    // A wall along the edge of a hole reaches into it by no more than half of its thickness.
    const [a, b] = wallEnds(project, wall);
    if (over < OVER || !crossesHole(a, b, holes)) return [];
    return [
      { code: 'wall.over-void', message: `A wall of ${level.name} stands over the hole of a stair or a void; end it at the edge or move it.`, ids: [wall.id] },
    ];
  });
}

/** Whether the line between two points runs through the inside of a hole, not along its edge: looked at every tenth of a metre, on both sides. */
function crossesHole(a: Vec2, b: Vec2, holes: readonly Region[]): boolean {
  const steps = Math.max(1, Math.ceil(distance(a, b) / 0.1));
  const beside = scale(left(unit(sub(b, a))), HAIR);
  return Array.from({ length: steps + 1 }, (_, i) => lerp(a, b, i / steps)).some((p) =>
    holes.some((hole) => insideRegion(add(p, beside), hole) && insideRegion(sub(p, beside), hole)),
  );
}

/** What of a room has no finish yet: the room as a whole, or one surface after another. */
function bareFaces(model: Model, room: DerivedRoom): Finding[] {
  const faces = model.shell.levels.flatMap((l) => l.faces.filter((f) => f.room === room.id));
  const bare = faces.filter((f) => !f.chosen && f.rest.area > NEAR);
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
