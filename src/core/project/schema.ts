import { z } from 'zod';

/** Version of the project file format; raised with a migration when the shape changes. */
export const FORMAT_VERSION = 1;

export const Id = z
  .string()
  .regex(/^[A-Za-z0-9_.:-]{1,80}$/, 'an id has 1 to 80 letters, digits or _ . : -')
  .describe('Stable identity, unique in its collection');
const Name = z.string().min(1).max(120);
export const Coordinate = z.number().min(-10000).max(10000).describe('metres');
const Size = z.number().min(0.001).max(500).describe('metres');
const Angle = z.number().min(-1000).max(1000).describe('radians, counter-clockwise');
const FinishRef = z.string().min(1).max(80).describe('id of a finish in the library');
const Hash = z
  .string()
  .regex(/^[0-9a-f]{64}$/)
  .describe('SHA-256 of a file among the assets');

export const Point2 = z.object({ x: Coordinate, y: Coordinate });
export const Point3 = z.object({ x: Coordinate, y: Coordinate, z: Coordinate });

export const Site = z.object({
  place: Name,
  latitude: z.number().min(-90).max(90).describe('degrees, north positive'),
  longitude: z.number().min(-180).max(180).describe('degrees, east positive'),
  north: Angle.describe('direction of north in the plan, from the x axis'),
  moment: z
    .string()
    .regex(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/)
    .refine((s) => !Number.isNaN(Date.parse(`${s}:00Z`)), 'not a date and time')
    .describe('local date and time the daylight is shown for'),
  offset: z.number().int().min(-840).max(840).describe('minutes the local clock is ahead of UTC'),
  turbidity: z.number().min(1.8).max(10).describe('haze of the air: 2 very clear, 3 clear, 6 hazy'),
});

export const Level = z.object({
  id: Id,
  name: Name,
  elevation: Coordinate,
  height: z.number().min(0.5).max(20).describe('floor to ceiling, metres'),
  slab: z.number().min(0).max(2).describe('thickness of the floor slab, metres'),
});

export const Corner = z.object({ id: Id, level: Id, x: Coordinate, y: Coordinate });

export const Wall = z.object({
  id: Id,
  level: Id,
  start: Id.describe('corner the centre line leaves'),
  end: Id.describe('corner the centre line reaches'),
  thickness: z.number().min(0.02).max(2).describe('metres, half at each side of the centre line'),
  height: z.number().min(0.05).max(20).nullable().describe('metres; null: up to the ceiling of the level'),
});

export const Finishes = z.record(z.string().max(80), FinishRef);

export const Opening = z.object({
  id: Id,
  name: Name,
  wall: Id,
  kind: z.enum(['door', 'window']),
  at: Coordinate.describe('distance of its centre from the start corner along the centre line, metres'),
  width: z.number().min(0.1).max(20).describe('clear structural width, metres'),
  height: z.number().min(0.1).max(10),
  sill: z.number().min(0).max(10).describe('height of its foot above the floor, metres'),
  hinge: z.enum(['start', 'end']).describe('hand: the end of the wall the leaf hangs at'),
  swing: z.enum(['left', 'right']).describe('side of the wall, seen from start to end, the leaf swings into'),
  panes: z.object({ across: z.number().int().min(1).max(12), up: z.number().int().min(1).max(12) }),
  finishes: Finishes,
});

export const Room = z.object({
  id: Id,
  level: Id,
  name: Name,
  anchor: Point2.describe('a point inside the room, by which it is known again'),
  floor: FinishRef.nullable(),
  ceiling: FinishRef.nullable(),
  walls: FinishRef.nullable().describe('finish of all its walls'),
  faces: Finishes.describe('finish of single walls, by "wallId/left" or "wallId/right"'),
});

export const Lamp = z.object({
  lumen: z.number().min(0).max(50000),
  kelvin: z.number().min(1500).max(10000),
  on: z.boolean(),
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
  finishes: Finishes.describe('finish by part; parts left out keep the finish of the stock'),
  lamp: Lamp.nullable().describe('light it gives, for luminaires'),
});

export const Viewpoint = z.object({
  id: Id,
  name: Name,
  eye: Point3,
  target: Point3,
  fov: z.number().min(0.05).max(2.6).describe('vertical field of view, radians'),
});

export const Picture = z.object({
  id: Id,
  name: Name,
  viewpoint: Id.nullable(),
  width: z.number().int().min(16).max(8192),
  height: z.number().int().min(16).max(8192),
  samples: z.number().int().min(1).max(100000),
  exposure: z.number().min(-20).max(30).describe('EV at ISO 100 the radiance is shown with'),
  radiance: Hash.describe('Radiance HDR file, luminance in cd/m²'),
  image: Hash.describe('PNG made from the radiance at this exposure'),
  made: z.string().max(40).describe('ISO date and time'),
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
  z.object({ ...itemBase, kind: z.literal('sample'), finish: FinishRef, form: SampleForm, note: z.string().max(200) }),
  z.object({
    ...itemBase,
    kind: z.literal('text'),
    text: z.string().max(4000),
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

export const ProjectSchema = z.object({
  format: z.literal('enstegon'),
  version: z.literal(FORMAT_VERSION),
  id: Id,
  name: Name,
  units: z.enum(['metric', 'imperial']),
  site: Site,
  levels: z.record(Id, Level),
  corners: z.record(Id, Corner),
  walls: z.record(Id, Wall),
  openings: z.record(Id, Opening),
  rooms: z.record(Id, Room),
  outside: z.object({ walls: FinishRef.nullable(), faces: Finishes, ground: FinishRef.nullable() }),
  pieces: z.record(Id, Piece),
  viewpoints: z.record(Id, Viewpoint),
  pictures: z.record(Id, Picture),
  boards: z.record(Id, Board),
});

export type Project = z.infer<typeof ProjectSchema>;
export type Level = z.infer<typeof Level>;
export type Corner = z.infer<typeof Corner>;
export type Wall = z.infer<typeof Wall>;
export type Opening = z.infer<typeof Opening>;
export type Room = z.infer<typeof Room>;
export type Piece = z.infer<typeof Piece>;
export type Lamp = z.infer<typeof Lamp>;
export type Site = z.infer<typeof Site>;
export type Viewpoint = z.infer<typeof Viewpoint>;
export type Picture = z.infer<typeof Picture>;
export type Board = z.infer<typeof Board>;
export type Page = z.infer<typeof Page>;
export type BoardItem = z.infer<typeof BoardItem>;
export type SampleForm = z.infer<typeof SampleForm>;

/** Which side of a wall, seen from its start to its end. */
export type Side = 'left' | 'right';

/** Key of one side of a wall in the finishes of a room or of the outside. */
export const sideKey = (wall: string, side: Side): string => `${wall}/${side}`;

/** Sizes a new thing starts with (trade figures), metres. */
export const DEFAULTS = {
  wall: { thickness: 0.1, outside: 0.3 },
  level: { height: 2.5, slab: 0.25 },
  door: { width: 0.926, height: 2.1, sill: 0 },
  window: { width: 1.2, height: 1.2, sill: 0.9 },
} as const;

/** A project with one level and nothing on it. */
export function emptyProject(id: string, name: string, units: Project['units'] = 'metric'): Project {
  return {
    format: 'enstegon',
    version: FORMAT_VERSION,
    id,
    name,
    units,
    site: {
      place: 'Lower Marren',
      latitude: 52.2,
      longitude: -1.4,
      north: Math.PI / 2,
      moment: '2026-05-12T10:30',
      offset: 60,
      turbidity: 3,
    },
    levels: { ground: { id: 'ground', name: 'Ground', elevation: 0, ...DEFAULTS.level } },
    corners: {},
    walls: {},
    openings: {},
    rooms: {},
    outside: { walls: null, faces: {}, ground: null },
    pieces: {},
    viewpoints: {},
    pictures: {},
    boards: {},
  };
}
