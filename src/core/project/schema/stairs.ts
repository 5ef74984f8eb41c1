import { z } from 'zod';
import { Angle, Coordinate, Finishes, Id, Name, Point2, Point3, Status } from './basics';

/** What keeps people from falling: a handrail, and what is between it and the floor. */
export const Guard = z.object({
  infill: z.enum(['balusters', 'glass', 'cable', 'none']),
  height: z.number().min(0.3).max(2).nullable().describe('of its handrail above floor or pitch line, metres; null: as the profile asks'),
  posts: z.boolean().describe('newels at its ends and corners'),
});

export const STAIR_FORMS = ['straight', 'quarter', 'half', 'three', 'spiral'] as const;
export const StairProfile = z.enum(['A', 'B']);

export const Stair = z.object({
  id: Id,
  name: Name,
  level: Id.describe('the level it starts on'),
  x: Coordinate.describe('middle of its first riser'),
  y: Coordinate,
  z: z.number().min(-20).max(20).describe('height of its foot above the floor of the level'),
  rotation: Angle.describe('0: it sets out towards +y'),
  form: z.enum(STAIR_FORMS),
  turn: z.enum(['left', 'right']),
  corners: z.enum(['landing', 'winders']).describe('how it turns'),
  width: z.number().min(0.4).max(5).describe('between its strings’ outer sides; of a spiral, from its column to its edge, metres'),
  rise: z.number().min(0.1).max(12).nullable().describe('metres it climbs; null: up to the level above'),
  profile: StairProfile,
  risers: z.number().int().min(2).max(60).nullable().describe('null: chosen by the rules'),
  going: z.number().min(0.1).max(1).nullable().describe('metres; null: chosen by the rules'),
  space: z.number().min(0.3).max(30).nullable().describe('length there is for its goings, all flights together, metres'),
  first: z.number().int().min(1).max(58).nullable().describe('steps before the first turn; null: shared out'),
  second: z.number().int().min(1).max(58).nullable().describe('steps between the turns of three flights'),
  well: z.number().min(0).max(4).describe('gap between the flights of a half turn, metres'),
  column: z.number().min(0.02).max(2).describe('radius of the column of a spiral, metres'),
  build: z.enum(['closed', 'cut', 'solid']).describe('strings that cover the ends of the steps, strings cut to the steps, or one solid flight'),
  open: z.boolean().describe('without risers'),
  tread: z.number().min(0.015).max(0.3).describe('thickness, metres'),
  nosing: z.number().min(0).max(0.1),
  left: Guard.nullable().describe('on its left side as one goes up'),
  right: Guard.nullable(),
  above: Guard.nullable().describe('round the void it comes up through'),
  void: z.enum(['least', 'whole', 'none']).describe('cut where headroom asks for it, over all of the stair, or not at all'),
  status: Status,
  finishes: Finishes,
});

export const Void = z
  .object({ id: Id, name: Name, level: Id, points: z.array(Point2).min(3).max(200), guard: Guard.nullable(), status: Status, finishes: Finishes })
  .describe('a hole in the floor of a level');

export const Slab = z
  .object({
    id: Id,
    name: Name,
    level: Id,
    kind: z.enum(['mezzanine', 'balcony', 'deck', 'foundation']),
    points: z.array(Point2).min(3).max(200),
    z: z.number().min(-10).max(20).describe('height of its upper side above the floor of the level, metres'),
    thickness: z.number().min(0.02).max(5),
    guard: Guard.nullable(),
    status: Status,
    finishes: Finishes,
  })
  .describe('a floor of its own outline');

export const Beam = z
  .object({
    id: Id,
    name: Name,
    level: Id,
    a: Point3.describe('one end of its middle line; z above the floor of the level'),
    b: Point3,
    section: z.enum(['square', 'round']),
    width: z.number().min(0.005).max(3),
    depth: z.number().min(0.005).max(3),
    turn: Angle.describe('about its own line'),
    status: Status,
    finishes: Finishes,
  })
  .describe('a beam, a post or a brace between two points in space');

export type Guard = z.infer<typeof Guard>;
export type Stair = z.infer<typeof Stair>;
export type Void = z.infer<typeof Void>;
export type Slab = z.infer<typeof Slab>;
export type Beam = z.infer<typeof Beam>;
