import { current } from 'immer';
import { z } from 'zod';
import { distance } from '../../geometry/vec';
import { DomainError } from '../errors';
import { boxIn, drawWalls } from '../drafting';
import { checkRoof, wallsBelow } from '../roofs';
import { checkStand } from '../opening-stand';
import { carryRoom } from '../room-carry';
import { Id, Name, Opening, Point2, Roof, Room, Status, Wall, WallType, type Project } from '../schema';
import { collectionsWithStatus } from '../kinds';
import { stateOf } from '../topology';
import { joinTwo, keepFace, offsetWall, rebuildWall, recessWall, splitWall } from '../walls';
import { moveWalls, setWallLength } from '../wall-move';
import { carryThings } from '../thing-carry';
import { wallEnds, wallExtents } from '../wall-line';

import { define, editable, Keep, need, refuseTaken } from './define';

/** Edits of walls, openings, rooms, roofs and what else is built. */
export const shellCommands = {
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
    args: z.object({ wall: Id, set: editable(Wall, ['id', 'level', 'start', 'end', 'kind', 'type', 'thickness', 'finishes']) }),
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
      name: Name.default('Boxing'),
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
  'status.set': define({
    title: 'Change status',
    shell: true,
    args: z.object({ ids: z.array(Id).min(1).max(5000), status: Status }),
    apply(draft, { ids, status }) {
      for (const id of ids)
        for (const name of collectionsWithStatus()) if (Object.hasOwn(draft[name], id)) (draft[name] as Record<string, { status: Status }>)[id].status = status;
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
      if (set.stand) checkStand(current(draft) as Project, current(target) as Opening);
    },
  }),
  'room.set': define({
    title: 'Change room',
    args: z.object({ room: Id, set: editable(Room, ['id', 'level', 'floor', 'ceiling', 'walls', 'faces', 'anchor']) }),
    apply: (draft, { room, set }) => void Object.assign(need(draft.rooms, room, 'room'), set),
  }),
};
