import { z } from 'zod';
import { Angle, Finishes, Id, Name, Point2, Status } from './basics';

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

export type GroundArea = z.infer<typeof GroundArea>;
export type Fence = z.infer<typeof Fence>;
export type Background = (typeof BACKGROUNDS)[number];
