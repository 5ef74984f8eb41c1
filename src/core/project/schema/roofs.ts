import { z } from 'zod';
import { Angle, Finishes, Grid, Id, Name, Point2, Status } from './basics';

/** How one edge of a roof's outline is closed. */
export const RoofEdge = z.object({
  form: z.enum(['slope', 'gable', 'half-hip']).describe('a plane that rises from it; a wall that goes up to the roof; one that goes up to `hip`, then a plane'),
  pitch: z.number().min(0.02).max(1.5).describe('radians'),
  upper: z
    .object({ from: z.number().min(0.1).max(20).describe('metres above the eave line'), pitch: z.number().min(0.02).max(1.5) })
    .nullable()
    .describe('a second slope above a height: a mansard'),
  overhang: z.number().min(0).max(3).describe('metres, beyond the wall'),
  rise: z.number().min(-2).max(5).describe('metres its line over the wall lies above the top of the level'),
  hip: z.number().min(0).max(20).describe('metres above its line, where a half hip begins'),
});

const Section = z.object({ width: z.number().min(0.01).max(0.6), depth: z.number().min(0.02).max(1) });

/** The timbers under a roof, at spacing and section; an illustration, not a structural design. */
export const Framing = z.object({
  shown: z.boolean(),
  spacing: z.number().min(0.15).max(3).describe('of the rafters, metres'),
  rafter: Section,
  ridge: Section,
  purlins: z.number().int().min(0).max(4).describe('on each slope'),
  purlin: Section,
  ties: z.enum(['none', 'tie', 'truss']),
  tie: Section,
  every: z.number().int().min(1).max(20).describe('a tie at every so many rafters'),
});

export const DORMER_FORMS = ['gable', 'hip', 'shed', 'flat'] as const;

export const Dormer = z
  .object({
    id: Id,
    name: Name,
    roof: Id,
    edge: z.string().max(100).describe('the edge of the roof whose plane it stands on, by the wall below or its number'),
    at: z.number().min(-500).max(500).describe('metres of its middle along the edge'),
    form: z.enum(DORMER_FORMS),
    width: z.number().min(0.3).max(20).describe('of its front over its cheeks, metres'),
    setback: z.number().min(-3).max(20).describe('metres its front stands in from the wall below'),
    height: z.number().min(0.3).max(6).describe('of its front above the roof, metres'),
    pitch: z.number().min(0).max(1.4),
    overhang: z.number().min(0).max(1.5),
    cheek: z.number().min(0.03).max(0.6).describe('thickness of its walls, metres'),
    panes: Grid,
    status: Status,
    finishes: Finishes,
  })
  .describe('a window in a small house of its own on a roof');

export const Roof = z.object({
  id: Id,
  name: Name,
  level: Id.describe('the level it covers'),
  over: z
    .discriminatedUnion('kind', [
      z.object({ kind: z.literal('level') }),
      z.object({ kind: z.literal('rooms'), rooms: z.array(Id).min(1).max(200) }),
      z.object({ kind: z.literal('outline'), points: z.array(Point2).min(3).max(200) }),
      z
        .object({
          kind: z.literal('swept'),
          path: z.array(Point2).min(2).max(50),
          section: z
            .array(z.object({ x: z.number().min(-50).max(50), z: z.number().min(-20).max(30) }))
            .min(2)
            .max(100)
            .describe('of its underside across the path, from its right to its left; z above the top of the level'),
        })
        .describe('a cross-section carried along a path'),
      z
        .object({
          kind: z.literal('plane'),
          points: z.array(Point2).min(3).max(100),
          z: z.number().min(-20).max(30).describe('height of its underside at its first point above the top of the level'),
          direction: Angle.describe('uphill'),
          pitch: z.number().min(0).max(1.5),
        })
        .describe('one plane of its own'),
    ])
    .describe('what it covers: all of the level, some of its rooms, an outline of its own (over posts), or how it is drawn'),
  form: z.enum(['pitched', 'flat']),
  all: RoofEdge.describe('every edge that is not told otherwise'),
  edges: z.record(z.string().max(100), RoofEdge).describe('single edges, by the wall below them or by their number in a free outline'),
  thickness: z.number().min(0.02).max(1).describe('of the build-up, square to its planes, metres'),
  parapet: z.number().min(0).max(3).describe('height above a flat roof, metres'),
  gutter: z.boolean(),
  framing: Framing.nullable(),
  status: Status,
  finishes: Finishes.describe('of covering, soffit, fascia, and the timber of its framing'),
});

export type Roof = z.infer<typeof Roof>;
export type RoofEdge = z.infer<typeof RoofEdge>;
export type Framing = z.infer<typeof Framing>;
export type Dormer = z.infer<typeof Dormer>;
