import { z } from 'zod';
import { Angle, Finishes, Hash, Id, Name, Point2, Status } from './basics';

export const GROUND_KINDS = ['lawn', 'gravel', 'paving', 'drive', 'bed', 'water', 'pool'] as const;

export const GroundArea = z
  .object({
    id: Id,
    name: Name,
    kind: z.enum(GROUND_KINDS),
    points: z.array(Point2).min(3).max(400),
    z: z.number().min(-20).max(20).describe('height of its first point above the ground of the site; of water, of its surface'),
    slope: z.object({ direction: Angle.describe('uphill'), fall: z.number().min(0).max(1).describe('metres a metre') }),
    edge: z.enum(['none', 'kerb', 'retaining']).describe('what holds it where it lies above or below its surroundings'),
    depth: z.object({ from: z.number().min(0).max(10), to: z.number().min(0).max(10) }).describe('of water, at its first edge and opposite, metres'),
    order: z.number().min(-1e6).max(1e6).describe('an area cuts those of a lower order where it lies over them'),
    status: Status,
    finishes: Finishes,
  })
  .describe('an area of the ground');

export const FENCE_KINDS = ['boards', 'rails', 'hedge', 'wall'] as const;

export const Fence = z.object({
  id: Id,
  name: Name,
  kind: z.enum(FENCE_KINDS),
  points: z.array(Point2).min(2).max(400),
  closed: z.boolean(),
  height: z.number().min(0.1).max(6),
  thickness: z.number().min(0.01).max(3),
  z: z.number().min(-20).max(20).describe('height of its foot above the ground of the site'),
  status: Status,
  finishes: Finishes,
});

export const BACKGROUNDS = ['none', 'fields', 'woods', 'town'] as const;

/** Pictures of skies and landscapes that ship. */
export const LANDSCAPES = ['meadow', 'woodland', 'morning-field', 'dry-hills', 'harbour', 'starlit-field', 'cloud-sea', 'square'] as const;

export const Surroundings = z
  .object({
    picture: z.discriminatedUnion('kind', [
      z.object({ kind: z.literal('shipped'), landscape: z.enum(LANDSCAPES) }),
      z.object({ kind: z.literal('own'), name: Name, image: Hash, ratio: z.number().min(0.05).max(20).describe('width over height') }),
    ]),
    lie: z.enum(['round', 'flat']).describe('all round, infinitely far; or upright at a distance'),
    turn: Angle.describe('where the middle of the picture lies in the plan, seen from the house; from the x axis'),
    at: Point2.describe('what distances of a flat one are measured from: the middle of the house when it was chosen'),
    lift: z.number().min(-0.8).max(0.8).describe('how far the horizon of one all round is lifted, radians'),
    tilt: z.number().min(-0.8).max(0.8).describe('how far one all round is turned about the line to its middle, clockwise, radians'),
    distance: z.number().min(1).max(2000).describe('of a flat one, metres'),
    width: z.number().min(0.5).max(5000).describe('of a flat one, metres'),
    foot: z.number().min(-500).max(500).describe('of a flat one: its lower edge above the ground, metres'),
    lights: z.boolean().describe('whether the light of the sky is that of one all round'),
    reach: z.number().min(2).max(400).describe('how far the ground of the site goes before that of one all round begins, metres'),
  })
  .describe('a picture of what lies beyond the site');

export type Surroundings = z.infer<typeof Surroundings>;
export type Landscape = (typeof LANDSCAPES)[number];
export type GroundArea = z.infer<typeof GroundArea>;
export type Fence = z.infer<typeof Fence>;
export type Background = (typeof BACKGROUNDS)[number];
