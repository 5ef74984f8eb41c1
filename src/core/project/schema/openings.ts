import { z } from 'zod';
import { Coordinate, Finishes, Grid, Id, Name, Status } from './basics';

/** What fills an opening; doors and windows have their own. */
export const FORMS = {
  door: ['hinged', 'pair', 'unequal', 'sliding', 'pocket', 'bifold', 'stable', 'sectional', 'up-and-over'],
  window: ['casement', 'fixed', 'sash', 'sliding', 'top-hung', 'tilt', 'bay', 'corner', 'glazed-wall'],
  passage: ['clear'],
  niche: ['clear'],
} as const;
export const OpeningForm = z.enum([...new Set(Object.values(FORMS).flat())]);

/** The outline of an opening in the elevation of its wall, within its width and height. */
export const OpeningShape = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('rectangle') }),
  z.object({ kind: z.literal('arch'), rise: z.number().min(0.01).max(10).describe('of the arched head, metres; half the width: a round head') }),
  z.object({ kind: z.literal('ellipse') }).describe('a round window'),
  z.object({
    kind: z.literal('outline'),
    points: z
      .array(z.object({ x: z.number().min(0).max(1), y: z.number().min(0).max(1) }))
      .min(3)
      .max(64)
      .describe('counter-clockwise, as shares of width and height'),
  }),
]);

/** A thing on a wall that an opening may be placed by: a corner of the wall, another opening, or a piece. */
const Mark = z.union([z.enum(['start', 'end']), Id]);

/** What decides where an opening stands along its wall, and holds when the wall changes. */
export const Place = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('free') }),
  z.object({ kind: z.literal('corner'), from: z.enum(['start', 'end']), gap: z.number().min(0).max(500) }).describe('a distance to one corner'),
  z.object({ kind: z.literal('centred') }).describe('in the middle of the clear stretch of its wall'),
  z.object({ kind: z.literal('ridge') }).describe('under the highest point of its wall'),
  z.object({ kind: z.literal('between'), a: Mark, b: Mark, fill: z.boolean().describe('as wide as the space between the two') }),
  z.object({ kind: z.literal('row'), index: z.number().int().min(0).max(49), count: z.number().int().min(2).max(50) }).describe('one of a row with equal gaps'),
  z.object({ kind: z.literal('gap'), from: Mark, side: z.enum(['before', 'after']), gap: z.number().min(0).max(500) }).describe('beside another thing'),
]);

/** Where in the thickness of its wall a frame stands, or the leaf of a door whose lining is as deep as the wall. */
export const Stand = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('centred') }).describe('as much reveal on both faces'),
  z.object({
    kind: z.literal('set-back'),
    from: z.enum(['front', 'back']).describe('front: the side a door opens into, the outer side of a window; back: the other'),
    by: z.number().min(0).max(2).describe('metres of reveal on that side; 0: flush with it'),
  }),
]);

export const Opening = z.object({
  id: Id,
  name: Name,
  wall: Id,
  kind: z.enum(['door', 'window', 'passage', 'niche']),
  form: OpeningForm,
  at: Coordinate.describe('distance of its centre from the start corner along the reference line, metres'),
  width: z.number().min(0.1).max(20).describe('clear structural width, metres'),
  height: z.number().min(0.1).max(10),
  sill: z.number().min(-3).max(10).describe('height of its foot above the floor of the level, metres'),
  shape: OpeningShape,
  hinge: z.enum(['start', 'end']).describe('hand: the end of the wall the leaf hangs at'),
  swing: z.enum(['left', 'right']).describe('side of the wall, seen from start to end, the leaf swings into'),
  panes: Grid.describe('divided by bars into so many panes'),
  panels: Grid.describe('panels of a door leaf'),
  glazed: z.number().min(0).max(1).describe('share of a door leaf’s height that is glass, from its head down'),
  open: z.number().min(0).max(1).describe('how far it stands open'),
  frame: z
    .object({ face: z.number().min(0.01).max(0.3), depth: z.union([z.literal('wall'), z.number().min(0.02).max(0.5)]) })
    .describe('of the frame, metres; wall: as deep as its wall'),
  stand: Stand,
  architrave: z.number().min(0).max(0.4).describe('width, metres; 0: none'),
  profile: Id.nullable().describe('section of the architrave; null: a plain band'),
  sillBoard: z.number().min(0).max(1).describe('how far it stands out from the wall, metres; 0: none'),
  handle: z.enum(['lever', 'knob', 'pull', 'none']),
  threshold: z.number().min(0).max(0.2).describe('height, metres; 0: none'),
  sidelights: z.object({ start: z.number().min(0).max(3), end: z.number().min(0).max(3) }).describe('widths of fixed lights beside a door, metres'),
  fanlight: z.number().min(0).max(3).describe('height of a fixed light above a door, metres'),
  depth: z.number().min(0).max(20).describe('how deep a niche goes, how far a bay stands out or a corner window goes along the other wall, metres'),
  status: Status,
  place: Place,
  head: Id.nullable().describe('opening or piece whose head this one’s is level with'),
  finishes: Finishes,
});

export type Opening = z.infer<typeof Opening>;
export type OpeningForm = z.infer<typeof OpeningForm>;
export type OpeningShape = z.infer<typeof OpeningShape>;
export type Stand = z.infer<typeof Stand>;
export type Place = z.infer<typeof Place>;
