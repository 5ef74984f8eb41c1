import type { Model } from '../../model/model';
import { modelKind } from '../../model/kinds';
import { meanHex } from '../../finishes/finish';
import { layOut, outlinesOf } from '../../finishes/laying/layout';
import { add, scale, sub, unit, type Vec2 } from '../../geometry/vec';
import type { Region } from '../../geometry/region';
import { patchPlacing } from '../../shell/dress/dress';
import { onFace } from '../../shell/dress/faces';
import type { DerivedPatch } from '../../shell/dress/dressed';
import { faceX } from '../../shell/wall-face';
import { hiddenIn } from '../../project/things';
import { levelBelow, levelsOf } from '../../project/levels';
import { holesIn } from '../../project/stairs';
import type { DerivedStair } from '../../shell/stairs';
import { standsIn } from '../../project/phase';
import type { Guide, Level, Project } from '../../project/schema';
import { layerCuts } from '../../shell/layers';
import { clearHeight } from '../../shell/rooms';
import type { DerivedLevel, DerivedRoom } from '../../shell/model';
import { overallDimensions, type Dimension } from '../../shell/dimensions';
import type { DerivedDormer } from '../../shell/dormers';
import type { DerivedRoof } from '../../shell/roofs';
import type { DerivedRooflight } from '../../shell/rooflights';
import type { DerivedOpening } from '../../shell/openings/derive';
import type { DerivedWall } from '../../shell/wall-types';
import { wallPath, wallThickness } from '../../project/wall-line';
import { formatArea, formatLength, type UnitSystem } from '../../units/length';
import type { DerivedPiece } from '../../stock/stock';
import { drawDimension } from '../dimension';
import { byThing, TYPE, type DisplayItem, type Ink, type LabelLine, type MarkGroup } from '../display';
import { drawOpening } from './openings';
import { roofFolds } from './roof-folds';
import { poche } from './posts';
import { drawSlab, drawStair, drawVoid } from './stairs';

export { drawOpening };

export interface PlanOptions {
  /** Room names, areas and sizes. */
  labels: boolean;
  /** The walls of the level below, faintly. */
  below?: boolean;
  /** Overall dimensions outside the walls. */
  dimensions: boolean;
  /** Floors in the colour of their finish, with the units as they are laid, and the walls’ colours along their faces. */
  finishes?: boolean;
  /** Show what is to be removed, dashed. */
  removed?: boolean;
}

const groups = new WeakMap<object, { deps: readonly unknown[]; group: MarkGroup }>();

/** The group of a derived thing, drawn again only when what it depends on has changed. */
function grouped(of: object, key: string, deps: readonly unknown[], draw: () => DisplayItem[]): MarkGroup {
  const known = groups.get(of);
  if (known && known.deps.length === deps.length && known.deps.every((d, i) => d === deps[i])) return known.group;
  const group = { key, items: draw() };
  groups.set(of, { deps, group });
  return group;
}

/** The sheets of a plan from below: what lies under the walls, the walls, what lies over them. */
export const PLAN_SHEETS = ['under', 'walls', 'over'] as const;
export type PlanSheet = (typeof PLAN_SHEETS)[number];

/** The plan of a level as a display list, from the floor finish up to the labels. */
export const drawPlan = (model: Model, levelId: string, options: PlanOptions = { labels: true, dimensions: true }): DisplayItem[] => {
  const sheets = drawPlanSheets(model, levelId, options);
  return PLAN_SHEETS.flatMap((sheet) => sheets[sheet].flatMap((g) => g.items));
};

/** The same in groups, one a thing, on their sheets. */
export function drawPlanSheets(model: Model, levelId: string, options: PlanOptions = { labels: true, dimensions: true }): Record<PlanSheet, MarkGroup[]> {
  const level = model.shell.levels.find((l) => l.id === levelId);
  if (!level) return { under: [], walls: [], over: [] };
  const hidden = hiddenIn(model.shell.project);
  const shown = (groups: MarkGroup[]): MarkGroup[] =>
    hidden.size ? groups.filter((g) => !g.items.some((item) => item.entity !== undefined && hidden.has(item.entity))) : groups;
  return {
    under: shown(underWalls(model, level, options)),
    walls: shown(level.walls.map((wall) => wallGroup(model.shell.project, level, wall))),
    over: shown(overWalls(model, level, options)),
  };
}

/** The site, the level below, floors, stairs, pieces, and what has gone. */
function underWalls(model: Model, level: DerivedLevel, options: PlanOptions): MarkGroup[] {
  const { project } = model.shell;
  const out: MarkGroup[] = [];
  if (options.below) out.push(...belowGroups(model, level.id));
  // The site is drawn on the level that stands on it.
  if (levelsOf(project)[0]?.id === level.id || (level.level.elevation <= project.site.ground + 1 && level.level.elevation >= project.site.ground - 0.5))
    out.push(...kindGroups(model, null));
  for (const room of level.rooms) out.push(options.finishes ? finishedGroup(model, level, room) : plainRoom(room));
  if (options.finishes) for (const face of level.faces) if (face.kind === 'floor') for (const patch of face.patches) out.push(patchGroup(model, patch));
  for (const slab of level.slabs) out.push(grouped(slab, `slab ${slab.id}`, [], () => drawSlab(slab)));
  for (const own of level.voids) out.push(grouped(own, `void ${own.id}`, [], () => drawVoid(own)));
  const from = levelBelow(project, level.id);
  const holes = holesIn(project, level.id);
  for (const stair of model.shell.levels.find((l) => l.id === from?.id)?.stairs ?? [])
    if (stair.stair.rise === null) out.push({ key: `stair from below ${stair.id}`, items: throughVoid(stair, project.units, holes) });
  for (const stair of level.stairs) out.push(grouped(stair, `stair ${stair.id}`, [project.units], () => drawStair(stair, project.units, null)));
  const pieces = model.pieces
    .filter((p) => p.piece.level === level.id)
    .sort((a, b) => a.piece.elevation + a.piece.size.height - b.piece.elevation - b.piece.size.height);
  // What stands on cabinets is drawn over them.
  out.push(...kindGroups(model, level.id, true));
  for (const piece of pieces) out.push(grouped(piece.footprint, `piece ${piece.id}`, [], () => drawPiece(piece)));
  if (options.removed !== false) out.push(...goneGroups(model.project, level.level));
  return out;
}

/** What the walls are cut by or carry, what lies above the cut, guides, dimensions and labels. */
function overWalls(model: Model, level: DerivedLevel, options: PlanOptions): MarkGroup[] {
  const { project } = model.shell;
  const out: MarkGroup[] = [];
  for (const light of level.rooflights) out.push(grouped(light, `rooflight ${light.id}`, [], () => drawRooflight(light)));
  out.push(...kindGroups(model, level.id));
  for (const opening of level.openings) out.push(grouped(opening, `opening ${opening.id}`, [], () => drawOpening(opening)));
  for (const dormer of level.dormers) out.push(grouped(dormer, `dormer ${dormer.id}`, [], () => drawDormer(dormer)));
  for (const roof of level.roofs) out.push(grouped(roof, `roof ${roof.id}`, [], () => drawRoof(roof)));
  for (const id in model.project.guides) {
    const guide = model.project.guides[id];
    if (guide.level === level.id) out.push(grouped(guide, `guide ${id}`, [], () => drawGuide(guide)));
  }
  if (options.dimensions) out.push({ key: 'overall', items: overall(level, project.units) });
  if (options.labels) for (const room of level.rooms) if (room.room.use !== 'duct') out.push(labelGroup(room, level.level, project.units));
  return out;
}

const plainRoom = (room: DerivedRoom): MarkGroup =>
  grouped(room.region, `room ${room.id}`, [room.id], () => [
    { kind: 'fill', rings: [room.region.outer, ...room.region.holes], ink: 'room', entity: room.id, layer: 'room' },
  ]);

/** How far the colour of a wall shows on the floor in front of it, metres; units smaller than this show as a tone. */
const STRIP = 0.07;

/** A room with its finishes. */
function finishedGroup(model: Model, level: DerivedLevel, room: DerivedRoom): MarkGroup {
  const faces = level.faces.filter((f) => f.room === room.id);
  const floor = faces.find((f) => f.kind === 'floor');
  if (!floor) return plainRoom(room);
  return grouped(floor, `finished room ${room.id}`, faces, () => {
    const entity = room.id;
    const layer = 'room' as const;
    const items: DisplayItem[] = [
      { kind: 'fill', rings: [room.region.outer, ...room.region.holes], ink: 'room', colour: floor.chosen ? meanHex(floor.laid) : undefined, entity, layer },
    ];
    const { laying } = floor.laid;
    if (laying && Math.min(laying.width, laying.height) >= STRIP)
      items.push({ kind: 'lines', rings: layOut(laying, floor.placing, floor.regions).units.flatMap(outlinesOf), ink: 'thin', pen: 0.13, layer });
    for (const face of faces) {
      if (!face.side || !face.chosen) continue;
      const { length } = face.side;
      const at = (x: number, out: number): Vec2 => onFace(face, { x, y: 0 }, out);
      const xs = face.side.path.map((q) => faceX(face.side!, q.s)).sort((a, b) => a - b);
      items.push({
        kind: 'fill',
        rings: [[...xs.map((x) => at(x, 0)), ...xs.reverse().map((x) => at(Math.min(length - STRIP, Math.max(STRIP, x)), STRIP))]],
        ink: 'room',
        colour: meanHex(face.laid),
        entity,
        layer,
      });
    }
    return items;
  });
}

/** A patch on a floor, in the colour of its finish and with its units. */
function patchGroup(model: Model, derived: DerivedPatch): MarkGroup {
  const { project } = model.shell;
  const { laid, placing } = patchPlacing(project, derived);
  return grouped(derived, `patch ${derived.patch.id}`, [laid, placing.origin.x, placing.origin.y, placing.angle], () => {
    const entity = derived.patch.id;
    const layer = 'room' as const;
    const items: DisplayItem[] = [];
    for (const { outer, holes } of derived.regions) {
      items.push({ kind: 'fill', rings: [outer, ...holes], ink: 'room', colour: meanHex(laid), entity, layer });
      items.push({ kind: 'line', points: outer, closed: true, ink: 'line', pen: 0.18, entity, layer });
    }
    if (laid.laying && Math.min(laid.laying.width, laid.laying.height) >= STRIP)
      items.push({ kind: 'lines', rings: layOut(laid.laying, placing, derived.regions).units.flatMap(outlinesOf), ink: 'thin', pen: 0.13, layer });
    return items;
  });
}

const seenThrough = new WeakMap<DerivedStair, { units: UnitSystem; holes: readonly Region[]; items: DisplayItem[] }>();

/** What of a stair of the level below is seen through its void. */
function throughVoid(stair: DerivedStair, units: UnitSystem, holes: readonly Region[]): DisplayItem[] {
  const known = seenThrough.get(stair);
  if (known?.units === units && known.holes === holes) return known.items;
  const items = holes.length ? drawStair(stair, units, holes) : [];
  seenThrough.set(stair, { units, holes, items });
  return items;
}

function drawPiece(piece: DerivedPiece): DisplayItem[] {
  const overhead = piece.item?.mount === 'ceiling';
  return [
    { kind: 'fill', rings: [piece.footprint], ink: 'paper', entity: piece.id, layer: 'piece' },
    ...piece.symbol.map((line): DisplayItem => ({
      kind: 'line',
      points: line.points,
      closed: line.closed,
      ink: 'thin',
      pen: 0.18,
      dash: overhead || line.dashed,
      entity: piece.id,
      layer: 'piece',
    })),
  ];
}

function wallGroup(project: Project, level: DerivedLevel, wall: DerivedWall): MarkGroup {
  const { arrangement } = level.plan;
  const meeting = (arrangement.byLine.get(wall.id) ?? []).flatMap((p) =>
    [...arrangement.fans[p.from], ...arrangement.fans[p.to]].map((e) => arrangement.pieces[e.piece]!.line),
  );
  const types = [wall.id, ...meeting].map((id) => project.walls[id]?.type ?? null).map((type) => (type === null ? null : project.wallTypes[type]));
  return grouped(wall, `wall ${wall.id}`, types, () => {
    const entity = wall.id;
    const layer = 'wall' as const;
    if (wall.wall.kind === 'boundary')
      return [{ kind: 'line', points: wallPath(project, wall.wall).map((q) => q.p), closed: false, ink: 'thin', pen: 0.18, dash: true, entity, layer }];
    const ink = poche(wall.wall.status);
    const low = wall.height <= 1.5 && wall.foot < 1.2;
    // What stays below the cut is seen from above: an outline. What hangs above it is dashed.
    if (low || wall.foot > 1.3)
      return wall.rings.flatMap((points): DisplayItem[] => [
        { kind: 'fill', rings: [points], ink: 'paper', entity, layer },
        { kind: 'line', points, closed: true, ink: 'line', pen: 0.25, dash: wall.foot > 1.3, entity, layer },
      ]);
    const cuts = layerCuts(project, level, wall.id);
    const items: DisplayItem[] = [{ kind: 'fill', rings: wall.rings, ink, entity, layer }];
    if (cuts.length < 2) return items;
    for (const cut of cuts) {
      const own = poche(project.walls[cut.wall].status);
      if (!cut.rings.length || (cut.core && own === ink)) continue;
      const tone: Ink = cut.material === 'cavity' || cut.material === 'insulation' ? 'paper' : cut.core ? own : 'leaf';
      items.push({ kind: 'fill', rings: cut.rings, ink: tone, entity, layer });
      if (cut.material === 'insulation') for (const points of cut.rings) items.push({ kind: 'line', points, closed: true, ink: 'thin', pen: 0.13, layer });
    }
    // The faces, and what is seen of its ends; not the joints with other walls.
    for (const side of wall.sides) items.push({ kind: 'line', points: side.path.map((q) => q.p), closed: false, ink: 'line', pen: 0.25, entity, layer });
    const pieces = arrangement.byLine.get(wall.id) ?? [];
    for (const [piece, node] of [
      [pieces[0], pieces[0]?.from],
      [pieces[pieces.length - 1], pieces[pieces.length - 1]?.to],
    ] as const) {
      const print = piece && level.joined.pieces[piece.index];
      if (!print || arrangement.fans[node].length > 1) continue;
      items.push({ kind: 'line', points: node === piece.from ? print.startCap : print.endCap, closed: false, ink: 'line', pen: 0.25, entity, layer });
    }
    return items;
  });
}

const drawnThings = new WeakMap<object, MarkGroup[]>();

/** The things of kinds that are drawn for themselves: those of a level, or of the site (null). @param standing those that stand among the pieces */
const kindGroups = (model: Model, level: string | null, standing = false): MarkGroup[] =>
  model.things.flatMap(({ collection, level: own, derived }) => {
    const { plan, standing: stands = false } = modelKind(collection);
    if (!plan || own !== level || stands !== standing) return [];
    let known = drawnThings.get(derived);
    if (!known) drawnThings.set(derived, (known = byThing(`${collection} ${(derived as { id?: string }).id ?? ''}`, plan(derived))));
    return known;
  });

/** The outlines of the walls of the level below: what one draws over. */
function belowGroups(model: Model, levelId: string): MarkGroup[] {
  const below = levelBelow(model.project, levelId);
  const own = below && model.shell.levels.find((l) => l.id === below.id);
  return (own?.walls ?? []).map((wall) =>
    grouped(wall.rings, `below ${wall.id}`, [], () =>
      wall.rings.map((points): DisplayItem => ({ kind: 'line', points, closed: true, ink: 'faint', pen: 0.18, layer: 'dimension' })),
    ),
  );
}

/** A roof lies above the cut: the edge of its overhang, its ridges, hips and valleys, dashed. */
const drawRoof = ({ id, shape }: DerivedRoof): DisplayItem[] => [
  ...shape.outlines
    .flatMap(({ outer, holes }) => [outer, ...holes])
    .map((points): DisplayItem => ({ kind: 'line', points, closed: true, ink: 'thin', pen: 0.18, dash: true, entity: id, layer: 'roof' })),
  ...roofFolds(shape).map((points): DisplayItem => ({ kind: 'line', points, closed: false, ink: 'faint', pen: 0.18, dash: true, entity: id, layer: 'roof' })),
];

/** A dormer stands on the roof above the cut: its outline, dashed. */
const drawDormer = ({ id, ring }: DerivedDormer): DisplayItem[] => [
  { kind: 'line', points: ring, closed: true, ink: 'thin', pen: 0.18, dash: true, entity: id, layer: 'roof' },
];

/** A rooflight lies above the cut: dashed, with its diagonals. */
function drawRooflight({ id, ring }: DerivedRooflight): DisplayItem[] {
  const line = (points: Vec2[], closed: boolean): DisplayItem => ({
    kind: 'line',
    points,
    closed,
    ink: 'thin',
    pen: 0.18,
    dash: true,
    entity: id,
    layer: 'opening',
  });
  return [line(ring, true), line([ring[0], ring[2]], false), line([ring[1], ring[3]], false)];
}

/** An endless line, drawn as far as any plan goes. */
function drawGuide(guide: Guide): DisplayItem[] {
  const d = { x: Math.cos(guide.angle) * 200, y: Math.sin(guide.angle) * 200 };
  return [{ kind: 'line', points: [sub(guide, d), add(guide, d)], closed: false, ink: 'measure', pen: 0.13, dash: true, entity: guide.id, layer: 'guide' }];
}

/** Walls and openings to be removed, as dashed outlines. */
function goneGroups(project: Project, level: Level): MarkGroup[] {
  const out: MarkGroup[] = [];
  for (const id in project.walls) {
    const wall = project.walls[id];
    if (wall.level !== level.id || standsIn(wall.status, 'after') || wall.kind === 'boundary') continue;
    const [a, b] = [project.corners[wall.start], project.corners[wall.end]];
    out.push(
      grouped(wall, `gone ${id}`, [a, b, project.wallTypes], () => {
        const half = wallThickness(project, wall) / 2;
        const path = wallPath(project, wall);
        const side = (by: number): Vec2[] =>
          path.map(({ p }, i) => {
            const d = unit(sub(path[Math.min(i + 1, path.length - 1)].p, path[Math.max(i - 1, 0)].p));
            return { x: p.x - d.y * by, y: p.y + d.x * by };
          });
        const ring = [...side(wall.offset + half), ...side(wall.offset - half).reverse()];
        return [
          { kind: 'fill', rings: [ring], ink: 'paper', entity: id, layer: 'wall' },
          { kind: 'line', points: ring, closed: true, ink: 'thin', pen: 0.25, dash: true, entity: id, layer: 'wall' },
        ];
      }),
    );
  }
  return out;
}

function labelGroup(room: DerivedRoom, level: Level, units: UnitSystem): MarkGroup {
  return grouped(room.room, `label ${room.id}`, [room.region, level, units], () => {
    const height = clearHeight(room.room, level);
    const lines: LabelLine[] = [
      { text: room.room.name, mm: TYPE.name, strong: true },
      { text: formatArea(room.area, units), mm: TYPE.value, strong: false },
      { text: `${formatLength(room.size.x, units)} × ${formatLength(room.size.y, units)}`, mm: TYPE.note, strong: false },
      {
        text: height === null ? 'open above' : room.room.cover.kind === 'roof' ? 'open to the roof' : `ceiling ${formatLength(height, units)}`,
        mm: TYPE.note,
        strong: false,
      },
    ];
    return [{ kind: 'label', at: room.label, region: room.region, lines, entity: room.id, layer: 'label' }];
  });
}

/** How far outside the house, and its roof, the overall dimensions stand, metres. */
const OVERALL = 0.45;

/** The overall dimensions of a level, brought outside its walls. */
export const overallLines = (level: DerivedLevel): { d: Dimension; push: Vec2 }[] =>
  overallDimensions(level).map((d, i) => {
    const eaves = level.roofs.flatMap((r) => r.shape.outlines.flatMap((o) => o.outer));
    const axis = i === 0 ? 'y' : 'x';
    const out = OVERALL + Math.max(0, ...eaves.map((p) => d.a[axis] - p[axis]));
    return { d, push: i === 0 ? { x: 0, y: -out } : { x: -out, y: 0 } };
  });

function overall(level: DerivedLevel, units: UnitSystem): DisplayItem[] {
  return overallLines(level).flatMap(({ d: { a, b, value }, push }) => [
    ...drawDimension(add(a, push), add(b, push), formatLength(value, units)),
    ...[a, b].map((p): DisplayItem => ({
      kind: 'line',
      points: [add(p, scale(push, 0.35)), add(p, scale(push, 1.15))],
      closed: false,
      ink: 'measure',
      pen: 0.13,
      layer: 'dimension',
    })),
  ]);
}

/** The derived opening's marks for previews, without the wall taken out. */
export const openingLines = (o: DerivedOpening): DisplayItem[] => drawOpening(o).filter((m) => m.kind !== 'fill');
