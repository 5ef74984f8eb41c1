import { applyPatches, current, enablePatches, produceWithPatches, type Draft, type Patch } from 'immer';
import { z } from 'zod';
import { distance } from '../geometry/vec';
import { DomainError } from './errors';
import { boxIn, drawWalls } from './drafting';
import { addLevel, deleteLevel, setLevel } from './levels';
import { migrate } from './migrations';
import { checkOpening } from './openings';
import { settleOpenings } from './relations';
import { checkRooflight, checkRooflights } from './rooflights';
import { checkRoof, wallsBelow } from './roofs';
import { carryRoom } from './room-carry';
import {
  Board,
  BoardItem,
  Column,
  Coordinate,
  Guide,
  Id,
  Level,
  Opening,
  Page,
  Picture,
  Piece,
  Point2,
  ProjectSchema,
  Roof,
  Rooflight,
  Room,
  sideKey,
  Site,
  Status,
  Viewpoint,
  Wall,
  WALL_TYPES,
  WallType,
  type Project,
} from './schema';
import { reconcileRooms, stateOf } from './topology';
import { carryThings, deleteWalls, joinTwo, keepFace, moveWalls, offsetWall, rebuildWall, recessWall, setWallLength, splitWall } from './walls';
import { wallEnds, wallExtents } from './wall-line';

enablePatches();

/** What a command may use besides its arguments: ids that follow from the change's own id, so replays agree. */
export interface CommandContext {
  newId(prefix: string): string;
}

interface CommandDefinition<A extends z.ZodType> {
  args: A;
  /** What the edit is called in undo and in the history. */
  title: string;
  /** Set where walls may change: rooms are found again and openings settled. */
  shell?: boolean;
  apply(draft: Draft<Project>, args: z.infer<A>, context: CommandContext): void;
}

const define = <A extends z.ZodType>(definition: CommandDefinition<A>): CommandDefinition<A> => definition;

/** What stays where it is when a wall becomes thicker or thinner. */
export const Keep = z.enum(['left', 'right', 'middle', 'line']);

/** Fields of an entity that a `…set` command may change. */
const editable = <S extends z.ZodObject>(schema: S, fixed: string[]): z.ZodObject => {
  const shape = Object.fromEntries(Object.entries(schema.shape).filter(([key]) => !fixed.includes(key)));
  return z.object(shape).partial().strict();
};

function need<T>(collection: Record<string, T>, id: string, what: string): T {
  const found = Object.hasOwn(collection, id) ? collection[id] : undefined;
  if (!found)
    throw new DomainError('missing', `Nothing was changed: the ${what} is no longer in the project; it may have been deleted in another window.`, [id]);
  return found;
}

function refuseTaken(collection: Record<string, unknown>, id: string): void {
  if (Object.hasOwn(collection, id)) throw new DomainError('taken', 'Nothing was changed: something with this id exists already.', [id]);
}

/** The surface a finish goes on. `room: null` is the outside. */
export const FaceTarget = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('floor'), room: Id }),
  z.object({ kind: z.literal('ceiling'), room: Id }),
  z.object({ kind: z.literal('walls'), room: Id.nullable() }),
  z.object({ kind: z.literal('wall'), room: Id.nullable(), wall: Id, side: z.enum(['left', 'right']) }),
  z.object({ kind: z.literal('piece'), piece: Id, part: z.string().min(1).max(60) }),
  z.object({ kind: z.literal('opening'), opening: Id, part: z.string().min(1).max(60) }),
  z.object({ kind: z.literal('column'), column: Id }),
  z.object({ kind: z.literal('roof'), roof: Id, part: z.enum(['covering', 'soffit', 'fascia']) }),
  z.object({ kind: z.literal('ground') }),
]);
export type FaceTarget = z.infer<typeof FaceTarget>;

function applyFinish(draft: Draft<Project>, target: FaceTarget, finish: string | null): void {
  const put = (record: Record<string, string>, key: string): void => {
    if (finish === null) delete record[key];
    else record[key] = finish;
  };
  switch (target.kind) {
    case 'floor':
    case 'ceiling':
      need(draft.rooms, target.room, 'room')[target.kind] = finish;
      return;
    case 'walls': {
      const owner = target.room === null ? draft.outside : need(draft.rooms, target.room, 'room');
      owner.walls = finish;
      owner.faces = {};
      return;
    }
    case 'wall': {
      need(draft.walls, target.wall, 'wall');
      const owner = target.room === null ? draft.outside : need(draft.rooms, target.room, 'room');
      put(owner.faces, sideKey(target.wall, target.side));
      return;
    }
    case 'piece':
      put(need(draft.pieces, target.piece, 'piece').finishes, target.part);
      return;
    case 'opening':
      put((draft.rooflights[target.opening] ?? need(draft.openings, target.opening, 'opening')).finishes, target.part);
      return;
    case 'column':
      need(draft.columns, target.column, 'column').finish = finish;
      return;
    case 'roof':
      need(draft.roofs, target.roof, 'roof')[target.part] = finish;
      return;
    case 'ground':
      draft.outside.ground = finish;
  }
}

const Patches = z
  .array(z.object({ op: z.enum(['add', 'remove', 'replace']), path: z.array(z.union([z.string(), z.number()])).max(12), value: z.unknown().optional() }))
  .max(20000);

const commands = {
  'project.rename': define({
    title: 'Rename project',
    args: z.object({ name: ProjectSchema.shape.name }),
    apply: (draft, { name }) => void (draft.name = name),
  }),
  'project.units': define({
    title: 'Change units',
    args: z.object({ units: ProjectSchema.shape.units }),
    apply: (draft, { units }) => void (draft.units = units),
  }),
  'site.set': define({
    title: 'Change place and daylight',
    args: editable(Site, []),
    apply: (draft, values) => void Object.assign(draft.site, values),
  }),
  'level.set': define({
    title: 'Change level',
    shell: true,
    args: z.object({ id: Id, set: editable(Level, ['id']) }),
    apply(draft, { id, set }) {
      need(draft.levels, id, 'level');
      setLevel(draft, id, set);
    },
  }),
  'level.add': define({
    title: 'Add level',
    shell: true,
    args: z.object({
      id: Id,
      name: Level.shape.name,
      of: Id,
      where: z.enum(['above', 'below']),
      walls: z.enum(['all', 'outer', 'none']).describe('which of the walls of the other level it takes over'),
      height: Level.shape.height,
      slab: Level.shape.slab,
    }),
    apply(draft, args, { newId }) {
      refuseTaken(draft.levels, args.id);
      need(draft.levels, args.of, 'level');
      addLevel(draft, args, newId);
    },
  }),
  'level.delete': define({
    title: 'Delete level',
    shell: true,
    args: z.object({ id: Id }),
    apply(draft, { id }) {
      need(draft.levels, id, 'level');
      deleteLevel(draft, id);
    },
  }),

  'type.put': define({
    title: 'Change wall type',
    shell: true,
    args: z.object({ type: WallType, keep: Keep.default('middle') }),
    apply(draft, { type, keep }, { newId }) {
      const built = Object.values(stateOf(draft.walls)).filter((w) => w.type === type.id && w.kind === 'wall');
      const before = built.map((w) => wallExtents(draft, w));
      draft.wallTypes[type.id] = type;
      built.forEach((w, i) => keepFace(draft, w.id, before[i], keep, newId));
    },
  }),
  'guide.put': define({
    title: 'Set guide line',
    args: Guide,
    apply(draft, guide) {
      need(draft.levels, guide.level, 'level');
      draft.guides[guide.id] = guide;
    },
  }),

  'wall.draw': define({
    title: 'Draw walls',
    shell: true,
    args: z.object({
      level: Id,
      points: z.array(Point2).min(2).max(200),
      closed: z.boolean(),
      bulges: z.array(Wall.shape.bulge).max(200).optional().describe('of the arcs, one a stretch; left out: straight'),
      kind: Wall.shape.kind.default('wall'),
      type: Wall.shape.type.default(null),
      thickness: Wall.shape.thickness,
      turned: z.boolean().default(false),
      offset: Wall.shape.offset.default(0),
      base: Wall.shape.base.default(0),
      top: Wall.shape.top.default({ kind: 'ceiling' }),
      status: Status.default('new'),
    }),
    apply(draft, { level, points, closed, bulges, ...make }, { newId }) {
      need(draft.levels, level, 'level');
      if (make.type !== null) need(draft.wallTypes, make.type, 'wall type');
      drawWalls(draft, level, { points, closed, bulges }, make, newId);
    },
  }),
  'wall.move': define({
    title: 'Move wall',
    shell: true,
    args: z.object({ wall: Id, run: z.array(Id).max(500).default([]).describe('walls in its line that move along'), offset: z.number().min(-1000).max(1000) }),
    apply(draft, { wall, run, offset }, { newId }) {
      for (const id of [wall, ...run]) need(draft.walls, id, 'wall');
      moveWalls(draft, [...new Set([wall, ...run])], offset, newId);
    },
  }),
  'wall.length': define({
    title: 'Set wall length',
    shell: true,
    args: z.object({
      wall: Id,
      length: z.number().min(0.01, 'a wall is at least 10 mm long').max(500),
      measured: z.number().min(0).max(1000).optional().describe('length of the same stretch before; left out: of the reference line'),
      keep: z.enum(['start', 'end']),
    }),
    apply(draft, { wall, length, measured, keep }, { newId }) {
      const own = need(draft.walls, wall, 'wall');
      setWallLength(draft, wall, length, measured ?? distance(...wallEnds(draft, own)), keep, newId);
    },
  }),
  'wall.set': define({
    title: 'Change wall',
    shell: true,
    args: z.object({ wall: Id, set: editable(Wall, ['id', 'level', 'start', 'end', 'kind', 'type', 'thickness']) }),
    apply: (draft, { wall, set }) => void Object.assign(need(draft.walls, wall, 'wall'), set),
  }),
  'wall.build': define({
    title: 'Change wall build-up',
    shell: true,
    args: z.object({
      walls: z.array(Id).min(1).max(2000),
      type: Wall.shape.type,
      thickness: Wall.shape.thickness,
      keep: Keep,
    }),
    apply(draft, { walls, type, thickness, keep }, { newId }) {
      if (type !== null) need(draft.wallTypes, type, 'wall type');
      else if (thickness === null) throw new DomainError('arguments', 'Nothing was changed: a wall has a type or a thickness; choose one.', []);
      for (const id of walls) {
        need(draft.walls, id, 'wall');
        rebuildWall(draft, id, { type, thickness: type === null ? thickness : null }, keep, newId);
      }
    },
  }),
  'wall.side': define({
    title: 'Turn walls to the other side',
    shell: true,
    args: z.object({ walls: z.array(Id).min(1).max(2000), offset: Wall.shape.offset }),
    apply(draft, { walls, offset }) {
      for (const id of walls) need(draft.walls, id, 'wall').offset = offset;
    },
  }),
  'wall.split': define({
    title: 'Split wall',
    shell: true,
    args: z.object({ wall: Id, at: z.array(z.number()).min(1).max(50) }),
    apply(draft, { wall, at }, { newId }) {
      need(draft.walls, wall, 'wall');
      splitWall(draft, wall, at, newId);
    },
  }),
  'wall.join': define({
    title: 'Join walls',
    shell: true,
    args: z.object({ a: Id, b: Id }),
    apply(draft, { a, b }, { newId }) {
      need(draft.walls, a, 'wall');
      need(draft.walls, b, 'wall');
      joinTwo(draft, a, b, newId);
    },
  }),
  'wall.offset': define({
    title: 'Draw parallel wall',
    shell: true,
    args: z.object({ wall: Id, by: z.number().min(-500).max(500) }),
    apply(draft, { wall, by }, { newId }) {
      need(draft.walls, wall, 'wall');
      offsetWall(draft, wall, by, newId);
    },
  }),
  'wall.recess': define({
    title: 'Make recess',
    shell: true,
    args: z.object({ wall: Id, at: z.number(), width: z.number().min(0.05).max(100), depth: z.number().min(-20).max(20) }),
    apply(draft, { wall, at, width, depth }, { newId }) {
      need(draft.walls, wall, 'wall');
      recessWall(draft, wall, at, width, depth, newId);
    },
  }),
  'wall.box': define({
    title: 'Box in',
    shell: true,
    args: z.object({
      wall: Id,
      side: z.enum(['left', 'right']),
      at: z.number().describe('distance of its middle from the start of the wall, metres'),
      width: z.number().min(0.05).max(50).describe('outside, along the wall'),
      depth: z.number().min(0.03).max(20).describe('outside, from the face of the wall'),
      thickness: z.number().min(0.02).max(0.5),
      top: Wall.shape.top.default({ kind: 'ceiling' }),
      base: Wall.shape.base.default(0),
      name: z.string().min(1).max(120).default('Boxing'),
    }),
    apply(draft, args, { newId }) {
      need(draft.walls, args.wall, 'wall');
      boxIn(draft, args, newId);
    },
  }),
  carry: define({
    title: 'Move or copy',
    shell: true,
    args: z.object({
      ids: z.array(Id).min(1).max(5000),
      about: Point2,
      turn: z.number().min(-100).max(100),
      mirror: z.number().min(-100).max(100).nullable(),
      by: Point2,
      copy: z.boolean(),
    }),
    apply(draft, { ids, copy, ...how }, { newId }) {
      carryThings(draft, ids, how, copy, newId);
    },
  }),
  'room.carry': define({
    title: 'Mirror or turn room',
    shell: true,
    args: z.object({ room: Id, how: z.enum(['mirror-x', 'mirror-y', 'half-turn', 'quarter-turn']) }),
    apply(draft, { room, how }, { newId }) {
      need(draft.rooms, room, 'room');
      carryRoom(draft, room, how, newId);
    },
  }),
  'column.put': define({
    title: 'Set column',
    args: Column,
    apply(draft, column) {
      need(draft.levels, column.level, 'level');
      draft.columns[column.id] = column;
    },
  }),
  'roof.put': define({
    title: 'Set roof',
    shell: true,
    args: z.object({ roof: Roof, raise: z.boolean().default(true).describe('the walls below it that went to the ceiling rise to it') }),
    apply(draft, { roof, raise }) {
      need(draft.levels, roof.level, 'level');
      const fresh = !Object.hasOwn(draft.roofs, roof.id);
      draft.roofs[roof.id] = roof;
      const project = current(draft) as Project;
      checkRoof(project, roof);
      if (fresh && raise)
        for (const wall of wallsBelow(project, roof)) if (project.walls[wall].top.kind === 'ceiling') draft.walls[wall].top = { kind: 'roof' };
    },
  }),
  'rooflight.put': define({
    title: 'Set rooflight',
    shell: true,
    args: Rooflight,
    apply(draft, rooflight) {
      need(draft.levels, rooflight.level, 'level');
      draft.rooflights[rooflight.id] = rooflight;
    },
  }),
  'status.set': define({
    title: 'Change status',
    shell: true,
    args: z.object({ ids: z.array(Id).min(1).max(5000), status: Status }),
    apply(draft, { ids, status }) {
      for (const id of ids)
        for (const collection of [draft.walls, draft.openings, draft.columns, draft.rooflights, draft.roofs, draft.rooms])
          if (Object.hasOwn(collection, id)) collection[id].status = status;
      // What goes with its wall goes when the wall goes.
      const openings = stateOf(draft.openings);
      for (const id in openings) if (ids.includes(openings[id].wall) && status === 'removed') draft.openings[id].status = 'removed';
    },
  }),
  'corner.move': define({
    title: 'Move corner',
    shell: true,
    args: z.object({ corner: Id, to: Point2 }),
    apply(draft, { corner, to }) {
      const c = need(draft.corners, corner, 'corner');
      if (Object.values(stateOf(draft.corners)).some((o) => o.id !== corner && o.level === c.level && distance(o, to) < 0.01))
        throw new DomainError('corner.taken', 'The corner was not moved: another corner stands there already.', [corner]);
      Object.assign(c, to);
    },
  }),

  'opening.add': define({
    title: 'Place opening',
    // One opening, or several at once.
    args: z.preprocess(
      (given) => (given !== null && typeof given === 'object' && 'openings' in given ? given : { openings: [given] }),
      z.object({ openings: z.array(Opening).min(1).max(50) }),
    ) as unknown as z.ZodType<{ openings: Opening[] }, z.input<typeof Opening> | { openings: z.input<typeof Opening>[] }>,
    apply(draft, { openings }) {
      for (const opening of openings) {
        refuseTaken(draft.openings, opening.id);
        need(draft.walls, opening.wall, 'wall');
        draft.openings[opening.id] = opening;
      }
    },
  }),
  'opening.set': define({
    title: 'Change opening',
    args: z.object({ opening: Id, set: editable(Opening, ['id', 'finishes']) }),
    apply(draft, { opening, set }) {
      const target = need(draft.openings, opening, 'opening');
      Object.assign(target, set);
      need(draft.walls, target.wall, 'wall');
    },
  }),

  'room.set': define({
    title: 'Change room',
    args: z.object({ room: Id, set: editable(Room, ['id', 'level', 'floor', 'ceiling', 'walls', 'faces', 'anchor']) }),
    apply: (draft, { room, set }) => void Object.assign(need(draft.rooms, room, 'room'), set),
  }),
  'finish.apply': define({
    title: 'Apply finish',
    args: z.object({ targets: z.array(FaceTarget).min(1).max(2000), finish: z.string().min(1).max(80).nullable() }),
    apply(draft, { targets, finish }) {
      for (const target of targets) applyFinish(draft, target, finish);
    },
  }),

  'piece.add': define({
    title: 'Place piece',
    args: z.object({ pieces: z.array(Piece).min(1).max(500) }),
    apply(draft, { pieces }) {
      for (const piece of pieces) {
        refuseTaken(draft.pieces, piece.id);
        need(draft.levels, piece.level, 'level');
        draft.pieces[piece.id] = piece;
      }
    },
  }),
  'piece.set': define({
    title: 'Change piece',
    args: z.object({ piece: Id, set: editable(Piece, ['id', 'maker', 'finishes']) }),
    apply(draft, { piece, set }) {
      const target = need(draft.pieces, piece, 'piece');
      Object.assign(target, set);
      need(draft.levels, target.level, 'level');
    },
  }),

  'pieces.move': define({
    title: 'Move pieces',
    args: z.object({
      pieces: z.array(Id).min(1).max(500),
      by: z.object({ x: Coordinate, y: Coordinate }),
      turn: Piece.shape.rotation.describe('radians each turns about its own middle'),
    }),
    apply(draft, { pieces, by, turn }) {
      for (const id of pieces) {
        const piece = need(draft.pieces, id, 'piece');
        piece.x += by.x;
        piece.y += by.y;
        piece.rotation += turn;
      }
    },
  }),

  'viewpoint.add': define({
    title: 'Keep viewpoint',
    args: Viewpoint,
    apply(draft, viewpoint) {
      refuseTaken(draft.viewpoints, viewpoint.id);
      draft.viewpoints[viewpoint.id] = viewpoint;
    },
  }),
  'viewpoint.set': define({
    title: 'Change viewpoint',
    args: z.object({ viewpoint: Id, set: editable(Viewpoint, ['id']) }),
    apply: (draft, { viewpoint, set }) => void Object.assign(need(draft.viewpoints, viewpoint, 'viewpoint'), set),
  }),
  'picture.add': define({
    title: 'Keep picture',
    args: Picture,
    apply(draft, picture) {
      refuseTaken(draft.pictures, picture.id);
      draft.pictures[picture.id] = picture;
    },
  }),
  'picture.set': define({
    title: 'Change picture',
    args: z.object({ picture: Id, set: Picture.pick({ name: true, exposure: true, image: true }).partial().strict() }),
    apply: (draft, { picture, set }) => void Object.assign(need(draft.pictures, picture, 'picture'), set),
  }),

  'board.add': define({
    title: 'Add board',
    args: Board,
    apply(draft, board) {
      refuseTaken(draft.boards, board.id);
      draft.boards[board.id] = board;
    },
  }),
  'board.set': define({
    title: 'Change board',
    args: z.object({ board: Id, set: editable(Board, ['id', 'pages', 'items']) }),
    apply: (draft, { board, set }) => void Object.assign(need(draft.boards, board, 'board'), set),
  }),
  'page.put': define({
    title: 'Change page',
    args: z.object({ board: Id, page: Page }),
    apply: (draft, { board, page }) => void (need(draft.boards, board, 'board').pages[page.id] = page),
  }),
  'item.add': define({
    title: 'Place on board',
    args: z.object({ board: Id, items: z.array(BoardItem).min(1).max(200) }),
    apply(draft, { board, items }) {
      const target = need(draft.boards, board, 'board');
      for (const item of items) {
        refuseTaken(target.items, item.id);
        need(target.pages, item.page, 'page');
        target.items[item.id] = item;
      }
    },
  }),
  'item.set': define({
    title: 'Change item',
    args: z.object({ board: Id, item: Id, set: z.record(z.string().max(40), z.unknown()) }),
    apply(draft, { board, item, set }) {
      const target = need(draft.boards, board, 'board');
      const old = need(target.items, item, 'item');
      const next = BoardItem.safeParse({ ...old, ...set, id: old.id, kind: old.kind });
      if (!next.success) throw new DomainError('item.values', `The item was not changed: ${sentence(next.error)}`, [item]);
      need(target.pages, next.data.page, 'page');
      target.items[item] = next.data;
    },
  }),

  delete: define({
    title: 'Delete',
    shell: true,
    args: z.object({ ids: z.array(Id).min(1).max(5000) }),
    apply(draft, { ids }) {
      deleteWalls(
        draft,
        ids.filter((id) => Object.hasOwn(draft.walls, id)),
      );
      for (const id of ids) {
        delete draft.guides[id];
        delete draft.columns[id];
        delete draft.rooflights[id];
        delete draft.roofs[id];
        if (Object.hasOwn(draft.wallTypes, id)) {
          if (Object.values(stateOf(draft.walls)).some((w) => w.type === id))
            throw new DomainError('type.used', 'The wall type was not deleted: walls are built of it; give them another type first.', [id]);
          delete draft.wallTypes[id];
        }
        delete draft.openings[id];
        delete draft.pieces[id];
        if (Object.hasOwn(draft.viewpoints, id)) {
          delete draft.viewpoints[id];
          for (const picture of Object.values(draft.pictures)) if (picture.viewpoint === id) picture.viewpoint = null;
        }
        delete draft.pictures[id];
        delete draft.boards[id];
        for (const board of Object.values(draft.boards)) {
          delete board.pages[id];
          for (const item of Object.values(board.items))
            if (item.id === id || item.page === id || (item.kind === 'picture' && item.picture === id)) delete board.items[item.id];
        }
      }
    },
  }),

  /** Undo and redo: the recorded patches of an earlier change, the other way round. */
  'history.patch': define({
    title: 'Undo',
    args: z.object({ patches: Patches }),
    apply: () => undefined,
  }),
};

export type CommandName = keyof typeof commands;
export type CommandArgs<N extends CommandName> = z.input<(typeof commands)[N]['args']>;
export const commandNames = Object.keys(commands) as CommandName[];

/** One edit as it travels and is kept: enough to run it again on another copy of the project. */
export const Change = z.object({
  id: z.string().regex(/^[A-Za-z0-9_-]{6,40}$/),
  kind: z.enum(['do', 'undo', 'redo']),
  /** The change that is undone or redone. */
  target: z.string().max(40).optional(),
  command: z.enum(commandNames as [CommandName, ...CommandName[]]),
  args: z.unknown(),
});
export type Change = z.infer<typeof Change>;

/** What a change did: the new project, and the patches there and back. */
export interface Outcome {
  project: Project;
  patches: Patch[];
  inverse: Patch[];
  title: string;
}

/** Fields whose limits are lengths. */
const METRES = new Set([
  'thickness',
  'base',
  'drop',
  'border',
  'rise',
  'gap',
  'start',
  'end',
  'fanlight',
  'threshold',
  'architrave',
  'sillBoard',
  'reveal',
  'face',
  'step',
  'height',
  'width',
  'depth',
  'sill',
  'elevation',
  'slab',
  'length',
  'at',
  'offset',
  'x',
  'y',
  'z',
  'size',
]);

/** One sentence from the first thing Zod found wrong. */
export function sentence(error: z.ZodError): string {
  const issue = error.issues[0];
  const field = String(issue.path.at(-1) ?? 'value');
  if ((issue.code === 'too_big' || issue.code === 'too_small') && (issue.origin === 'number' || issue.origin === 'int')) {
    const limit = issue.code === 'too_big' ? issue.maximum : issue.minimum;
    return `${field} goes ${issue.code === 'too_big' ? 'up to' : 'from'} ${String(limit)}${METRES.has(field) ? ' m' : ''}${issue.code === 'too_big' ? '' : ' upwards'}.`;
  }
  const where = issue.path.length ? `${issue.path.join('.')}: ` : '';
  const text = issue.message.replace(/^Invalid input: /, '').replace(/\.$/, '');
  return `${where}${text}.`;
}

export const commandTitle = (command: CommandName): string => commands[command].title;

/**
 * Runs a change on a project.
 *
 * @throws DomainError when the arguments or the result are not acceptable; the given project is left as it was
 */
export function runChange(project: Project, change: Change): Outcome {
  const definition = commands[change.command] as CommandDefinition<z.ZodType>;
  const args = definition.args.safeParse(change.args);
  if (!args.success) throw new DomainError('arguments', `Nothing was changed: ${sentence(args.error)}`, []);
  if (change.command === 'history.patch') return runPatches(project, (args.data as { patches: Patch[] }).patches, change.kind);
  let counter = 0;
  const newId = (prefix: string): string => `${prefix}-${change.id}.${counter++}`;
  const [edited, patches, inverse] = produceWithPatches(project, (draft) => definition.apply(draft, args.data, { newId }));
  if (!definition.shell && edited.openings === project.openings && edited.pieces === project.pieces) {
    checkRooflights(project, edited);
    return { project: edited, patches, inverse, title: definition.title };
  }
  // A second pass brings openings and rooms in step; it leaves the walls alone, so that their plan is worked out once.
  let touched: string[] = [];
  const [next, more, back] = produceWithPatches(edited, (draft) => {
    touched = settleOpenings(project, edited, draft);
    if (definition.shell) reconcileRooms(project, edited, draft, newId);
  });
  for (const id of touched) checkOpening(next, next.openings[id]);
  checkRooflights(project, next);
  return { project: next, patches: [...patches, ...more], inverse: [...back, ...inverse], title: definition.title };
}

function runPatches(project: Project, patches: Patch[], kind: Change['kind']): Outcome {
  let next: Project;
  try {
    next = applyPatches(project, patches);
  } catch {
    throw new DomainError('history.gone', 'That step can’t be taken back: what it changed has been changed or deleted since.', []);
  }
  validateProject(next);
  // The way back from a patch is its own difference, found by replaying it on a draft.
  const [result, forward, inverse] = produceWithPatches(project, (draft) => void applyPatches(draft, patches));
  return { project: result, patches: forward, inverse, title: kind === 'redo' ? 'Redo' : 'Undo' };
}

/**
 * Checks that a value is a project and that everything it refers to is there.
 *
 * @throws DomainError `project.…` with one sentence
 */
export function validateProject(value: unknown): Project {
  const parsed = ProjectSchema.safeParse(migrate(value, Object.fromEntries(WALL_TYPES.map((t) => [t.id, t]))));
  if (!parsed.success) throw new DomainError('project.shape', `The project is not valid: ${sentence(parsed.error)}`, []);
  const project = parsed.data;
  const fail = (what: string, id: string): never => {
    throw new DomainError('project.reference', `The project is not valid: ${what}.`, [id]);
  };
  for (const collection of [
    'wallTypes',
    'levels',
    'guides',
    'corners',
    'walls',
    'openings',
    'columns',
    'rooflights',
    'roofs',
    'rooms',
    'pieces',
    'viewpoints',
    'pictures',
    'boards',
  ] as const)
    for (const [key, entity] of Object.entries(project[collection])) if (entity.id !== key) fail(`${collection}.${key} carries another id (${entity.id})`, key);
  const known = (collection: Record<string, unknown>, id: string): boolean => Object.hasOwn(collection, id);
  for (const c of Object.values(project.corners))
    if (!known(project.levels, c.level)) fail(`corner ${c.id} stands on a level that is not there (${c.level})`, c.id);
  for (const w of Object.values(project.walls)) {
    if (!known(project.levels, w.level)) fail(`wall ${w.id} stands on a level that is not there (${w.level})`, w.id);
    for (const end of [w.start, w.end]) if (!known(project.corners, end)) fail(`wall ${w.id} ends at a corner that is not there (${end})`, w.id);
    if (distance(project.corners[w.start], project.corners[w.end]) < 0.01) fail(`wall ${w.id} is shorter than 10 mm`, w.id);
    if (w.type !== null && !known(project.wallTypes, w.type)) fail(`wall ${w.id} is of a type that is not there (${w.type})`, w.id);
    if (w.type === null && w.thickness === null && w.kind === 'wall') fail(`wall ${w.id} has neither a type nor a thickness`, w.id);
  }
  for (const o of Object.values(project.openings)) {
    if (!known(project.walls, o.wall)) fail(`opening ${o.id} stands in a wall that is not there (${o.wall})`, o.id);
    checkOpening(project, o);
  }
  for (const r of Object.values(project.rooflights)) if (known(project.levels, r.level)) checkRooflight(project, r);
  for (const c of [...Object.values(project.columns), ...Object.values(project.rooflights), ...Object.values(project.roofs), ...Object.values(project.guides)])
    if (!known(project.levels, c.level)) fail(`${c.id} stands on a level that is not there (${c.level})`, c.id);
  for (const r of Object.values(project.rooms)) if (!known(project.levels, r.level)) fail(`room ${r.id} is on a level that is not there (${r.level})`, r.id);
  for (const p of Object.values(project.pieces))
    if (!known(project.levels, p.level)) fail(`piece ${p.id} stands on a level that is not there (${p.level})`, p.id);
  for (const p of Object.values(project.pictures))
    if (p.viewpoint !== null && !known(project.viewpoints, p.viewpoint)) fail(`picture ${p.id} belongs to a viewpoint that is not there`, p.id);
  for (const b of Object.values(project.boards))
    for (const [key, item] of Object.entries(b.items)) {
      if (item.id !== key) fail(`board item ${key} carries another id (${item.id})`, key);
      if (!known(b.pages, item.page)) fail(`board item ${item.id} lies on a page that is not there (${item.page})`, item.id);
      if (item.kind === 'picture' && !known(project.pictures, item.picture)) fail(`board item ${item.id} shows a picture that is not there`, item.id);
    }
  return project;
}
