import { z } from 'zod';
import { Angle, Coordinate, Finishes, Hash, Id, Name, Point2, Status, Text } from './basics';

export const Underlay = z.object({
  image: Hash.describe('PNG of the plan'),
  name: Name,
  pixels: z.object({ width: z.number().int().min(1).max(20000), height: z.number().int().min(1).max(20000) }),
  origin: Point2.describe('where the middle of the picture lies in the plan, metres'),
  scale: z.object({ x: z.number().min(1e-5).max(10), y: z.number().min(1e-5).max(10) }).describe('metres a pixel, along and across the picture'),
  rotation: Angle,
  opacity: z.number().min(0.05).max(1),
  held: z.boolean().describe('out of reach of the pointer'),
  shown: z.boolean(),
});

export const Level = z.object({
  id: Id,
  name: Name,
  elevation: Coordinate,
  height: z.number().min(0.5).max(20).describe('floor to ceiling, metres'),
  slab: z.number().min(0).max(2).describe('thickness of the floor slab, metres'),
  underlay: Underlay.nullable().describe('a plan picture under the drawing'),
  structure: Text(80).describe('of a building that stands apart, its name; empty: the house'),
  finishes: Finishes.describe('of the edge of its slab'),
});

export const Corner = z.object({ id: Id, level: Id, x: Coordinate, y: Coordinate });

export const LayerMaterial = z.enum([
  'brick',
  'block',
  'concrete',
  'stone',
  'timber',
  'stud',
  'insulation',
  'cavity',
  'board',
  'plaster',
  'render',
  'cladding',
]);

export const WallLayer = z.object({
  material: LayerMaterial,
  thickness: z.number().min(0.001).max(1.5).describe('metres'),
  core: z.boolean().describe('carries the wall; runs through where walls meet'),
});

export const WallType = z.object({
  id: Id,
  name: Name,
  layers: z.array(WallLayer).min(1).max(12).describe('from the right side of the wall to its left side'),
});

/** How high a wall reaches, above the floor of its level. */
export const WallTop = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('ceiling') }),
  z.object({ kind: z.literal('half') }).describe('half the height of the level'),
  z.object({ kind: z.literal('fixed'), height: z.number().min(0.05).max(20) }),
  z.object({
    kind: z.literal('raking'),
    start: z.number().min(0.05).max(20),
    end: z.number().min(0.05).max(20),
    apex: z
      .object({ at: z.number().min(0.02).max(0.98).describe('share of the wall’s length'), height: z.number().min(0.05).max(20) })
      .nullable()
      .default(null)
      .describe('a ridge between its ends: the wall of a gable'),
  }),
  z.object({ kind: z.literal('roof') }).describe('follows the roof above; up to the ceiling where there is none'),
]);

export const Wall = z.object({
  id: Id,
  level: Id,
  kind: z.enum(['wall', 'boundary']).describe('a boundary parts rooms without being built'),
  start: Id.describe('corner the reference line leaves'),
  end: Id.describe('corner the reference line reaches'),
  bulge: z.number().min(-1).max(1).describe('tangent of a quarter of the arc’s angle, positive where it turns left; 0: straight'),
  type: Id.nullable().describe('wall type that gives its layers; null: one layer of `thickness`'),
  thickness: z.number().min(0.02).max(2).nullable().describe('metres; null where a type gives it'),
  turned: z.boolean().describe('the layers of the type run from left to right'),
  offset: z.number().min(-1).max(1).describe('metres the middle of the wall lies to the left of its reference line'),
  base: z.number().min(-5).max(20).describe('metres its foot stands above the floor of the level'),
  top: WallTop,
  status: Status,
  finishes: Finishes.describe('of its top; its faces have theirs by room'),
});
export const Guide = z.object({ id: Id, level: Id, x: Coordinate, y: Coordinate, angle: Angle }).describe('an endless line to draw along');

export type Level = z.infer<typeof Level>;
export type Corner = z.infer<typeof Corner>;
export type Wall = z.infer<typeof Wall>;
export type WallType = z.infer<typeof WallType>;
export type WallLayer = z.infer<typeof WallLayer>;
export type LayerMaterial = z.infer<typeof LayerMaterial>;
export type WallTop = z.infer<typeof WallTop>;
export type Guide = z.infer<typeof Guide>;
export type Underlay = z.infer<typeof Underlay>;
