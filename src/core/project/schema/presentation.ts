import { z } from 'zod';
import { Angle, Coordinate, FinishRef, Finishes, Hash, Id, Moment, Name, Point3, Size, Status, Text } from './basics';

export const Lamp = z.object({
  lumen: z.number().min(0).max(50000),
  kelvin: z.number().min(1500).max(10000),
  on: z.boolean(),
});

/** Where the hem of what hangs at an opening is. */
export const ENDS = ['opening', 'floor', 'sill', 'below the sill', 'as high as it is'] as const;

/** How something hangs at a window or a door: its place and its size follow from that. */
export const Hanging = z.object({
  opening: Id,
  side: z.enum(['left', 'right']).describe('side of the wall, seen from start to end, it hangs at'),
  leg: z.boolean().default(false).describe('of a window round a corner: at the part of it in the other wall'),
  where: z.enum(['recess', 'wall']).describe('recess: between the reveals; wall: before the wall, over the edges of the opening'),
  ends: z.enum(ENDS).describe('opening: at its foot'),
  sides: z.number().min(0).max(2).describe('before the wall: how far it reaches beyond each side of the opening, as far as there is room, metres'),
  above: z.number().min(0).max(2).describe('before the wall: how far its top is above the head, as far as there is room, metres'),
  below: z.number().min(0).max(2).describe('before the wall, where it ends at the opening: how far below its foot, metres'),
});

export const Piece = z.object({
  id: Id,
  name: Name,
  maker: z.string().min(1).max(60).describe('name of the stock maker'),
  level: Id,
  x: Coordinate,
  y: Coordinate,
  elevation: Coordinate.describe('height of its foot above the floor of the level'),
  rotation: Angle.describe('0: its back towards +y, its front towards −y'),
  size: z.object({ width: Size, depth: Size, height: Size }),
  traits: z
    .record(Id, z.union([z.number(), z.boolean(), z.string().max(40)]))
    .default({})
    .describe('what it is of all that its maker can make; traits left out are as the maker begins'),
  finishes: Finishes.describe('finish by part; parts left out keep the finish of the stock'),
  open: z.number().min(0).max(1).default(0).describe('how far its doors and drawers stand open, 0…1'),
  mirrored: z.boolean().default(false).describe('its left and right have changed places'),
  linked: Id.nullable().default(null).describe('what it shares with its linked copies: they are of one size, one make and one finish'),
  status: Status.default('new'),
  supply: z.enum(['to order', 'ordered', 'bought']).default('to order').describe('how far one is with buying it, where it is new'),
  on: Id.nullable().default(null).describe('the piece it stands on and goes with'),
  hangs: Hanging.nullable().default(null).describe('the window or door it hangs at, which decides its place and size'),
  lamp: Lamp.nullable().describe('light it gives, for luminaires'),
});

/** How the model is shown. */
export const Look = z.object({
  projection: z.enum(['perspective', 'parallel']),
  upright: z.boolean().default(false).describe('verticals are kept upright: the picture is shifted, not the eye tilted'),
  mode: z.enum(['finishes', 'white', 'lines', 'translucent']),
  cut: z.boolean().describe('what hides the interior is cut away'),
  section: z
    .object({ axis: z.enum(['x', 'y', 'z']), at: Coordinate, keep: z.enum(['below', 'above']) })
    .nullable()
    .describe('a plane that everything on one side of is left out'),
  hidden: z.array(z.string().max(80)).max(2000).describe('things left out: ids, or "all/kind"'),
  through: z.array(z.string().max(80)).max(2000).describe('things made see-through'),
});

export const Viewpoint = z.object({
  id: Id,
  name: Name,
  eye: Point3,
  target: Point3,
  fov: z.number().min(0.05).max(2.6).describe('vertical field of view, radians'),
  look: Look.nullable().default(null),
  aperture: z.number().min(0.7).max(64).nullable().default(null).describe('f-number; null: all is sharp'),
  focus: z.number().min(0.05).max(1000).nullable().default(null).describe('metres to what is sharp; null: to the target'),
});

/** What a picture is taken with: where one stands, what one looks at, and how the model is shown. */
export const Shot = z.object({
  looking: z.object({
    look: Look,
    eye: Point3,
    level: Id.nullable().describe('level in hand'),
    room: Id.nullable().describe('room in hand'),
    afoot: z.boolean().describe('whether somebody chose to stand there, rather than back from the model'),
  }),
  camera: Viewpoint.pick({ eye: true, target: true, fov: true }).extend({
    aperture: Viewpoint.shape.aperture.unwrap(),
    focus: Viewpoint.shape.focus.unwrap(),
  }),
  round: z.boolean().default(false).describe('all round: an equirectangular picture'),
});

/** Stops down to which a group of light is dimmed; there it is off. */
export const OFF = -8;

/** One group of light of a picture, as it is set after rendering. */
export const GroupLight = z.object({
  name: z.string().min(1).max(200),
  level: z.number().min(OFF).max(6).describe('stops above or below what was rendered; -8: off'),
  kelvin: z.number().min(1500).max(15000).nullable().describe('colour temperature it is given; null: its own'),
});

const Developed = {
  exposure: z.number().min(-20).max(30).describe('EV at ISO 100 the radiance is shown with'),
  white: z
    .number()
    .min(1500)
    .max(15000)
    .nullable()
    .default(null)
    .describe('colour temperature of the light that is shown as white, K; null: that of the display'),
  contrast: z.number().min(-0.5).max(1).default(0).describe('about middle grey; 0: as it is'),
  warmth: z.number().min(-1).max(1).default(0).describe('warmer or colder than its white has it; 0: as it is'),
  saturation: z.number().min(-1).max(1).default(0),
  highlights: z.number().min(0).max(1).default(0).describe('how far bright parts are held back'),
  lights: z.array(GroupLight).max(64).default([]).describe('groups of light that were changed after rendering'),
};

/** How the light of a picture is shown. */
export const Development = z.object(Developed);

export const Picture = z.object({
  id: Id,
  name: Name,
  viewpoint: Id.nullable(),
  width: z.number().int().min(16).max(16384),
  height: z.number().int().min(16).max(16384),
  samples: z.number().int().min(1).max(100000),
  ...Developed,
  radiance: Hash.describe('the light: Radiance HDR, luminance in cd/m²; or OpenEXR, thousands of cd/m², with the shares of its light groups'),
  full: Hash.nullable()
    .default(null)
    .describe('of a picture for print, whose other files are smaller than it: all its light, OpenEXR, thousands of cd/m²; null: they are as large as it is'),
  scheme: Id.nullable().default(null).describe('the scheme that was in hand when it was made'),
  image: Hash.describe('PNG made from the light as it is shown'),
  made: z.string().max(40).describe('ISO date and time'),
  shot: Shot.nullable().default(null).describe('what it was taken with; null: of a time when that was not kept'),
  moment: Moment.nullable().default(null).describe('local date and time of its daylight'),
  noise: z.number().min(0).nullable().default(null).describe('standard error of its light before the grain was taken out, as a share of the mean'),
  state: Hash.nullable().default(null).describe('digest of all that it can show, as it was; null: not known'),
});

const itemBase = {
  id: Id,
  page: Id,
  order: z.number().min(-1e6).max(1e6).describe('higher lies on top'),
  x: z.number().min(-5).max(5).describe('left edge on the page, metres'),
  y: z.number().min(-5).max(5).describe('top edge on the page, metres downwards'),
  width: z.number().min(0.002).max(5),
  height: z.number().min(0.002).max(5),
  shadow: z.boolean(),
};

export const SampleForm = z.enum(['board', 'plank', 'swatch', 'tiles', 'disc']);

export const BoardItem = z.discriminatedUnion('kind', [
  z.object({ ...itemBase, kind: z.literal('picture'), picture: Id }),
  z.object({ ...itemBase, kind: z.literal('sample'), finish: FinishRef, form: SampleForm, note: Text(200) }),
  z.object({
    ...itemBase,
    kind: z.literal('text'),
    text: Text(4000),
    size: z.number().min(0.001).max(0.2).describe('type size, metres'),
    face: z.enum(['sans', 'serif']),
    align: z.enum(['left', 'centre', 'right']),
  }),
]);

export const Page = z.object({ id: Id, name: Name, order: z.number(), ground: z.string().regex(/^#[0-9a-fA-F]{6}$/) });

export const Board = z.object({
  id: Id,
  name: Name,
  paper: z.object({ width: z.number().min(0.02).max(5), height: z.number().min(0.02).max(5) }).describe('metres'),
  pages: z.record(Id, Page),
  items: z.record(Id, BoardItem),
});

export type Piece = z.infer<typeof Piece>;
export type Hanging = z.infer<typeof Hanging>;
export type Lamp = z.infer<typeof Lamp>;
export type Viewpoint = z.infer<typeof Viewpoint>;
export type Picture = z.infer<typeof Picture>;
export type Shot = z.infer<typeof Shot>;
export type Development = z.infer<typeof Development>;
export type GroupLight = z.infer<typeof GroupLight>;
export type Board = z.infer<typeof Board>;
export type Page = z.infer<typeof Page>;
export type BoardItem = z.infer<typeof BoardItem>;
export type SampleForm = z.infer<typeof SampleForm>;
export type Look = z.infer<typeof Look>;
