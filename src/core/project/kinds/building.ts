import { Corner, Guide, Level, Wall, WallType } from '../schema/walls';
import { Column, Room } from '../schema/rooms';
import { BARE } from './first-finishes';
import { kind, onLevel, type Reference } from './kind';

/** Walls and what they stand on and enclose. */
export const buildingKinds = {
  wallTypes: kind({ schema: WallType, word: 'wall type' }),
  levels: kind({
    schema: Level,
    word: 'level',
    // Between the walls of two levels the edge of the slab shows as they do.
    parts: (_, { outside }) => [
      { part: 'edge', role: 'wall', finish: outside.walls ?? BARE.outside },
      { part: 'voids', role: 'wall', finish: BARE.wall },
    ],
  }),
  guides: kind({ schema: Guide, word: 'guide line', onLevel: true, refers: ({ level }) => [onLevel(level)], put: { title: 'Set guide line' } }),
  corners: kind({ schema: Corner, word: 'corner', refers: ({ level }) => [onLevel(level)] }),
  walls: kind({
    schema: Wall,
    word: 'wall',
    onLevel: true,
    status: true,
    // The top of a wall that ends below the ceiling is seen; until one is chosen it shows as the face beside it.
    parts: ({ top }) => (top.kind === 'ceiling' || top.kind === 'roof' ? [] : [{ part: 'top', role: 'wall', finish: BARE.wall }]),
    refers: ({ level, start, end, type }) => [
      onLevel(level),
      ...[start, end].map((id): Reference => ({ to: 'corners', id, as: 'ends at a corner', gone: 'stays' })),
      ...(type === null ? [] : [{ to: 'wallTypes', id: type, as: 'is of a type', gone: 'stays' } as const]),
    ],
  }),
  columns: kind({
    schema: Column,
    word: 'column',
    onLevel: true,
    status: true,
    parts: () => [{ part: 'body', role: 'wall', finish: BARE.wall }],
    refers: ({ level }) => [onLevel(level)],
    put: { title: 'Set column' },
  }),
  rooms: kind({ schema: Room, word: 'room', onLevel: true, status: true, refers: ({ level }) => [onLevel(level)] }),
};
