import { z } from 'zod';
import { Coordinate, Finishes, Grid, Id, Name, Status } from './basics';

/** How cabinets are made. */
export const BUILDS = ['frameless', 'imperial', 'imperial framed', 'in-frame'] as const;
export type Build = (typeof BUILDS)[number];

/** What units stand on: a plinth, feet that are seen, nothing, since they hang on the wall as high as a plinth would lift them. */
export const STANDS = ['plinth', 'feet', 'hung'] as const;

/** How fronts lie: before the carcass or its frame, and over all of its edges or over half of them; or between these, flush with them. */
export const LIES = ['on', 'half', 'inset'] as const;

const length = (most: number) => z.number().min(0).max(most);

/** The figures cabinets are made by, for a project or a run. Metres. */
export const Construction = z.object({
  build: z
    .enum(BUILDS)
    .describe('frameless: on legs, with a plinth; imperial: sides to the floor, notched for toes; imperial framed, in-frame: with a frame before the carcass'),
  board: length(0.05).describe('thickness of sides, bottoms, tops'),
  back: length(0.03).describe('thickness of backs'),
  groove: length(0.02).describe('how deep the back is let into sides, bottom and top; 0: it is screwed on behind them'),
  void: length(0.2).describe('room for pipes behind the back; 0: none'),
  rail: length(0.3).describe('width of the rails that join the sides of a base unit at its top'),
  setback: length(0.1).describe('how far shelves stand back behind the front edge'),
  edging: length(0.005).describe('thickness of edging on edges that are seen'),
  front: length(0.05).describe('thickness of fronts'),
  lies: z.enum(LIES).describe('how fronts lie on the carcass or its frame'),
  gap: length(0.02).describe('between fronts'),
  side: length(0.02).describe('from a front to the edge of its unit, laid on; to the frame, inset'),
  under: length(0.02).describe('from fronts to a worktop above them'),
  frame: length(0.1).describe('width of the stiles and rails of a frame before the carcass'),
  frameThick: length(0.05).describe('thickness of that frame'),
  stands: z.enum(STANDS).describe('what units stand on'),
  plinth: length(0.6).describe('height of the plinth, of the room for toes, of feet, or of what is left free under units that hang'),
  toe: length(0.2).describe('how far the plinth stands back behind the carcass'),
  vented: z.boolean().describe('the plinth has grilles under what is built in and wants air'),
  base: z.object({ height: length(2), depth: length(2) }),
  wall: z.object({ height: length(2), depth: length(2), above: length(2).describe('above the worktop') }),
  tall: z.object({ height: length(4), depth: length(2) }),
  worktop: z.object({ thickness: length(0.2), overhang: length(0.5).describe('in front of the carcass') }),
});

/** Where a unit of a run is: on the plinth under the worktop, on the wall above it, from the plinth up past it. */
export const BANDS = ['base', 'wall', 'tall'] as const;
export type Band = (typeof BANDS)[number];

/** What a cell of a front is closed with. */
export const CELLS = ['door', 'drawer', 'pan drawer', 'dummy', 'open', 'glazed', 'appliance', 'niche', 'panel'] as const;
export type CellKind = (typeof CELLS)[number];

/** How a door moves; into a pocket: it turns, then slides back into its unit, as a pair where it is wide. */
export const HANDS = ['left', 'right', 'pair', 'up', 'down', 'sliding', 'pocket', 'pull-out'] as const;
export type Hand = (typeof HANDS)[number];

const Share = length(4).nullable().describe('metres; null: shares what is left with others');

/** What is inside a unit, behind its doors or in an open cell. */
export const INSIDES = ['shelves', 'drawers', 'rail', 'baskets', 'bins', 'carousel', 'plates', 'bottles', 'shoes', 'trousers', 'nothing'] as const;
export type InsideKind = (typeof INSIDES)[number];

/** How the inside of a cell is divided: rows from above, each into fields from the left, boards between them. */
export const Inside = z
  .array(
    z.object({
      height: Share,
      fields: z
        .array(z.object({ width: Share, kind: z.enum(INSIDES), count: z.number().int().min(0).max(20).describe('of shelves, drawers, baskets, bins, trays') }))
        .min(1)
        .max(8),
    }),
  )
  .max(12);

/** Where somebody has put the handle of a front: its middle, from a side and from the foot of the front; a pair has its other one as in a mirror. Metres. */
export const Held = z.object({
  from: z.enum(['left', 'right']),
  in: length(4),
  up: length(4),
  upright: z.boolean(),
});

/** One field of a front. */
export const Cell = z.object({
  width: Share,
  kind: z.enum(CELLS),
  hand: z.enum(HANDS).nullable().default(null).describe('of doors; null: as its width and its place say'),
  shelves: z.number().int().min(0).max(20).default(0).describe('shelves behind it, or in it, where its inside is not divided'),
  inside: Inside.default([]).describe('what is behind it, or in it; empty: its shelves'),
  held: Held.nullable().default(null).describe('where its handle is; null: where the look of its unit has it'),
});

/** How the front of a unit is divided: rows from above, each into cells from the left. */
export const FrontGrid = z.array(z.object({ height: Share, cells: z.array(Cell).min(1).max(12) })).max(20);

/** How a unit turns its run into the next leg: L-shaped, cut across, or running on blind to the wall, seen from before it. */
export const CORNERS = ['L', 'diagonal', 'blind left', 'blind right'] as const;
export type CornerForm = (typeof CORNERS)[number];

/** How fronts and handles look. */
export const FRONTS = ['flat', 'framed', 'beaded', 'boarded', 'reeded', 'louvred', 'glazed'] as const;
export type FrontStyle = (typeof FRONTS)[number];
export const HANDLES = ['bar', 'knob', 'cup', 'edge', 'recessed', 'rail', 'none'] as const;
export type HandleStyle = (typeof HANDLES)[number];

/** Where a handle is on a door, by the edge that opens: at the end one reaches first, or in the middle. */
export const HOLDS = ['reach', 'middle'] as const;

/** The front edge of a worktop. */
export const EDGES = ['square', 'eased', 'rounded', 'bevelled'] as const;
export type WorktopEdge = (typeof EDGES)[number];

/** How slabs of a worktop meet in a corner: end against front, along the line between both corners, or end against front with a short mitre at the front. */
export const SLAB_JOINTS = ['butted', 'mitred', 'masons'] as const;
export type SlabJoint = (typeof SLAB_JOINTS)[number];

/** How free corners of a worktop are. */
export const CORNER_FORMS = ['square', 'rounded', 'cut'] as const;

const frontLook = {
  fronts: z.enum(FRONTS),
  stile: length(0.3).describe('width of the stiles of what is framed, metres'),
  rail: length(0.3).describe('width of its rails, metres'),
  panes: Grid.describe('of what is glazed: divided by bars into so many panes'),
  handles: z.enum(HANDLES),
  grip: length(2).nullable().describe('length of bars and pulls, metres; null: as the width of the front says'),
  holds: z.enum(HOLDS),
  inset: z
    .object({
      edge: length(0.5).describe('from the edge of a door that opens'),
      end: length(0.5).describe('from the end of a door one reaches first'),
      top: length(0.5).describe('from the upper edge of a drawer'),
    })
    .optional()
    .describe('how far handles are from edges, metres; left out: as is usual'),
};

/** How the fronts of a unit look. */
export const FrontLook = z.object(frontLook);

/** How a run looks, but for its finishes. */
export const RunLook = z.object({
  ...frontLook,
  cornices: z
    .array(z.object({ profile: Id, up: length(0.5).describe('above the carcass'), out: length(0.3).describe('before the fronts') }))
    .max(2)
    .describe('on hung and tall units, the lower one first'),
  pelmet: length(0.3).describe('height of the light rail under what hangs, metres; 0: none'),
  edge: z.enum(EDGES).describe('of the worktop'),
});

/** A joinery style: fronts, handles, mouldings and finishes that belong together. */
export const JoineryStyle = z.object({
  id: Id,
  name: Name,
  look: RunLook,
  parts: Finishes.describe('finishes by part: fronts, carcass, worktop, plinth, handles …'),
});

/** What is chosen apart from a style. */
export const RunOwnLook = RunLook.partial();
export const FrontOwnLook = FrontLook.partial();

/** Something of the stock that is built into a unit: an appliance, a sink, a tap. Where in the unit it is follows from what it is. */
export const Fitting = z.object({
  maker: z.string().min(1).max(60).describe('name of the stock maker'),
  size: z
    .object({ width: length(4), depth: length(2), height: length(4) })
    .nullable()
    .describe('metres; null: as its maker begins, as far as that fits into its unit'),
  traits: z.record(Id, z.union([z.number(), z.boolean(), z.string().max(40)])).describe('what it is of all that its maker can make'),
});

/** What the middle of a unit keeps to: a unit below it, an opening of its wall, the middle of its leg. */
export const Middle = z.discriminatedUnion('of', [
  z.object({ of: z.literal('unit'), id: Id }),
  z.object({ of: z.literal('opening'), id: Id }),
  z.object({ of: z.literal('leg') }),
]);

/** One cabinet of a run. */
export const Cabinet = z.object({
  id: Id,
  name: Name,
  run: Id,
  order: z.number().int().min(0).max(10000).describe('its place in the run, from the left as one sees it'),
  band: z.enum(BANDS),
  width: Share.describe('along its leg, metres; null: it takes what is left'),
  height: length(4).nullable().describe('of its carcass, metres; null: as its run is made'),
  depth: length(2).nullable().describe('of its carcass, metres; null: as its run is made'),
  front: FrontGrid,
  corner: z.enum(CORNERS).nullable().describe('it stands in the corner between two legs: what follows is on the next one'),
  middle: Middle.nullable().describe('what its middle keeps to; null: it stands beside the one before it'),
  like: Id.nullable().describe('the unit of its run it is as wide as; null: of its own width'),
  backless: z.boolean().describe('it has no back, so that what is on the wall behind it is reached'),
  bare: z.enum(['filler', 'space']).nullable().describe('no carcass: a strip beside a wall, or room that is left free'),
  fittings: z.array(Fitting).max(6).describe('what is built into it; its parts take their finishes under its word: “sink bowl”'),
  open: z.number().min(0).max(1).describe('how far its fronts stand open, 0…1'),
  look: FrontOwnLook.describe('what of its fronts is apart from its run'),
  finishes: Finishes.describe('by part, where it is another than that of its run'),
});

const Point = z.object({ x: Coordinate, y: Coordinate });

/** The line the backs of units stand on: a side of a wall, or a line in the room, from left to right as one sees them. A single line in the room is as long as its units, where all of them have a width. */
export const Leg = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('wall'),
    wall: Id,
    side: z.enum(['left', 'right']),
    room: Id.describe('which sees that side'),
    at: Coordinate.optional().describe(
      'a place it stands before, metres along the wall from its start, where doors or what stands out part the wall; left out: where it is packed',
    ),
  }),
  z.object({ kind: z.literal('free'), from: Point, to: Point }),
]);

/** Cabinets side by side. */
export const Run = z.object({
  id: Id,
  name: Name,
  level: Id,
  legs: z.array(Leg).min(1).max(6).describe('each begins where the one before it ends'),
  packed: z.enum(['start', 'end']).describe('at which end of a leg without a corner units lie together'),
  start: length(20).describe('how far from that end they begin, metres'),
  made: Construction,
  style: Id.nullable().describe('the joinery style it is made in; null: as runs begin'),
  look: RunOwnLook.describe('what is chosen for it apart from its style'),
  ends: z.enum(['panels', 'bare']).describe('what free ends of rows show, and the back of what stands free: panels of the fronts, or the carcass'),
  upstand: length(0.6).describe('height of the strip of worktop along the wall, metres; 0: none'),
  falls: z.enum(['none', 'left', 'right', 'both']).describe('ends at which the worktop goes down to the floor'),
  corners: z
    .object({ form: z.enum(CORNER_FORMS), by: length(0.6).describe('how far from the corner, metres') })
    .describe('of the worktop, where they stand free in front'),
  behind: length(0.8).describe('how far the worktop stands out behind units that stand free, for seats, metres'),
  raised: length(0.6).describe('how far the part for seats lies above the worktop, metres; 0: it is one with it'),
  slabs: z
    .object({ joint: z.enum(SLAB_JOINTS).describe('in corners'), longest: z.number().min(0.3).max(20).describe('slab that is had, metres') })
    .describe('what the worktop is put together from'),
  grooves: z.enum(['none', 'left', 'right', 'both']).describe('sides of its sinks at which the worktop is grooved, to drain into them'),
  infill: z.boolean().describe('what is left over hung and tall units is closed up to the ceiling'),
  status: Status,
  finishes: Finishes.describe('by part, where it is another than that of its style'),
});

export type Construction = z.infer<typeof Construction>;
export type Cell = z.infer<typeof Cell>;
export type Held = z.infer<typeof Held>;
export type FrontGrid = z.infer<typeof FrontGrid>;
export type Inside = z.infer<typeof Inside>;
export type FrontLook = z.infer<typeof FrontLook>;
export type RunLook = z.infer<typeof RunLook>;
export type JoineryStyle = z.infer<typeof JoineryStyle>;
export type Middle = z.infer<typeof Middle>;
export type Fitting = z.infer<typeof Fitting>;
export type Cabinet = z.infer<typeof Cabinet>;
export type Leg = z.infer<typeof Leg>;
export type Run = z.infer<typeof Run>;
