import { z } from 'zod';

/** Version of the project file format; raised with a migration when the shape changes. */
export const FORMAT_VERSION = 2;

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

export const Underlay = z.object({
  image: Hash.describe('PNG of the plan'),
  name: Name,
  pixels: z.object({ width: z.number().int().min(1).max(20000), height: z.number().int().min(1).max(20000) }),
  origin: Point2.describe('where the middle of the picture lies in the plan, metres'),
  scale: z.object({ x: z.number().min(1e-5).max(10), y: z.number().min(1e-5).max(10) }).describe('metres a pixel, along and across the picture'),
  rotation: Angle,
  opacity: z.number().min(0.05).max(1),
  locked: z.boolean().describe('out of reach of the pointer'),
  shown: z.boolean(),
});

export const Level = z.object({
  id: Id,
  name: Name,
  elevation: Coordinate,
  height: z.number().min(0.5).max(20).describe('floor to ceiling, metres'),
  slab: z.number().min(0).max(2).describe('thickness of the floor slab, metres'),
  underlay: Underlay.nullable().describe('a plan picture under the drawing'),
});

export const Corner = z.object({ id: Id, level: Id, x: Coordinate, y: Coordinate });

export const Status = z.enum(['existing', 'removed', 'new']).describe('what the work does with it');

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
});

export const Finishes = z.record(z.string().max(80), FinishRef);

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

const Grid = z.object({ across: z.number().int().min(1).max(12), up: z.number().int().min(1).max(12) });

/** What rooms are for. */
export const USES = [
  'unnamed',
  'living',
  'dining',
  'kitchen',
  'bedroom',
  'bathroom',
  'shower room',
  'cloakroom',
  'hall',
  'landing',
  'study',
  'library',
  'workshop',
  'utility',
  'store',
  'dressing',
  'porch',
  'terrace',
  'carport',
  'garage',
  'duct',
] as const;

const RoomHeight = z.number().min(0.5).max(20).nullable();

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
  frame: z.object({ face: z.number().min(0.01).max(0.3), depth: z.number().min(0.02).max(0.5) }).describe('of the frame, metres'),
  reveal: z.union([z.literal('equal'), z.number().min(0).max(2)]).describe('metres from the outer face to the frame; equal: as much on both faces'),
  architrave: z.number().min(0).max(0.4).describe('width, metres; 0: none'),
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

export const RoomUse = z.enum(USES);

/** How a room is closed above. Heights are above the floor of the level; null: the height of the level. */
export const Ceiling = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('flat'), height: RoomHeight }),
  z.object({ kind: z.literal('coffer'), height: RoomHeight, drop: z.number().min(0.01).max(3), border: z.number().min(0.05).max(10) }),
  z.object({
    kind: z.literal('bulkhead'),
    height: RoomHeight,
    drop: z.number().min(0.01).max(3),
    depth: z.number().min(0.05).max(10),
    along: z.string().max(100),
  }),
  z.object({ kind: z.literal('roof') }).describe('follows the roof above; flat at the height of the level where there is none'),
  z.object({ kind: z.literal('open') }).describe('open to the sky'),
]);

export const Room = z.object({
  id: Id,
  level: Id,
  name: Name,
  anchor: Point2.describe('a point inside the room, by which it is known again'),
  use: RoomUse,
  step: z.number().min(-3).max(3).describe('metres its floor lies above that of the level'),
  cover: Ceiling,
  outdoors: z.boolean().describe('a terrace or a carport: its walls are outside'),
  status: Status,
  floor: FinishRef.nullable(),
  ceiling: FinishRef.nullable(),
  walls: FinishRef.nullable().describe('finish of all its walls'),
  faces: Finishes.describe('finish of single walls, by "wallId/left" or "wallId/right"'),
});

export const Column = z.object({
  id: Id,
  name: Name,
  level: Id,
  x: Coordinate,
  y: Coordinate,
  rotation: Angle,
  section: z.enum(['square', 'round']),
  width: Size,
  depth: Size,
  height: z.number().min(0.05).max(20).nullable().describe('metres; null: up to the ceiling of the level'),
  status: Status,
  finish: FinishRef.nullable(),
});

export const Rooflight = z
  .object({
    id: Id,
    name: Name,
    level: Id,
    x: Coordinate,
    y: Coordinate,
    rotation: Angle,
    form: z.enum(['fixed', 'hinged', 'dome']),
    width: Size.describe('of the clear opening in the ceiling, metres'),
    length: Size,
    kerb: z.number().min(0.05).max(3).describe('height of its glass above the ceiling: how deep its shaft is, metres'),
    panes: Grid,
    frame: z.number().min(0.01).max(0.3).describe('width of its frame, metres'),
    open: z.number().min(0).max(1).describe('how far it stands open'),
    status: Status,
    finishes: Finishes,
  })
  .describe('an opening in a ceiling');

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

export const Roof = z.object({
  id: Id,
  name: Name,
  level: Id.describe('the level it covers'),
  over: z
    .discriminatedUnion('kind', [
      z.object({ kind: z.literal('level') }),
      z.object({ kind: z.literal('rooms'), rooms: z.array(Id).min(1).max(200) }),
      z.object({ kind: z.literal('outline'), points: z.array(Point2).min(3).max(200) }),
    ])
    .describe('the outline it covers: all of the level, some of its rooms, or one of its own (over posts)'),
  form: z.enum(['pitched', 'flat']),
  all: RoofEdge.describe('every edge that is not told otherwise'),
  edges: z.record(z.string().max(100), RoofEdge).describe('single edges, by the wall below them or by their number in a free outline'),
  thickness: z.number().min(0.02).max(1).describe('of the build-up, square to its planes, metres'),
  parapet: z.number().min(0).max(3).describe('height above a flat roof, metres'),
  gutter: z.boolean(),
  status: Status,
  covering: FinishRef.nullable(),
  soffit: FinishRef.nullable(),
  fascia: FinishRef.nullable(),
});

export const Guide = z.object({ id: Id, level: Id, x: Coordinate, y: Coordinate, angle: Angle }).describe('an endless line to draw along');

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
  wallTypes: z.record(Id, WallType),
  levels: z.record(Id, Level),
  guides: z.record(Id, Guide),
  corners: z.record(Id, Corner),
  walls: z.record(Id, Wall),
  openings: z.record(Id, Opening),
  columns: z.record(Id, Column),
  rooflights: z.record(Id, Rooflight),
  roofs: z.record(Id, Roof),
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
export type WallType = z.infer<typeof WallType>;
export type WallLayer = z.infer<typeof WallLayer>;
export type LayerMaterial = z.infer<typeof LayerMaterial>;
export type WallTop = z.infer<typeof WallTop>;
export type Status = z.infer<typeof Status>;
export type OpeningForm = z.infer<typeof OpeningForm>;
export type OpeningShape = z.infer<typeof OpeningShape>;
export type Place = z.infer<typeof Place>;
export type Ceiling = z.infer<typeof Ceiling>;
export type RoomUse = z.infer<typeof RoomUse>;
export type Column = z.infer<typeof Column>;
export type Rooflight = z.infer<typeof Rooflight>;
export type Roof = z.infer<typeof Roof>;
export type RoofEdge = z.infer<typeof RoofEdge>;
export type Guide = z.infer<typeof Guide>;
export type Underlay = z.infer<typeof Underlay>;
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
const layer = (material: WallLayer['material'], mm: number, core = false): WallLayer => ({ material, thickness: mm / 1000, core });

/** The wall types a new project starts with (trade figures); each can be changed and others added. */
export const WALL_TYPES: readonly WallType[] = [
  { id: 'cavity-300', name: 'Cavity wall', layers: [layer('brick', 102.5), layer('cavity', 85), layer('block', 100, true), layer('plaster', 12.5)] },
  { id: 'solid-215', name: 'Solid brick', layers: [layer('brick', 215, true)] },
  {
    id: 'frame-250',
    name: 'Timber frame',
    layers: [layer('cladding', 25), layer('cavity', 50), layer('board', 12), layer('stud', 148, true), layer('board', 15)],
  },
  { id: 'stud-100', name: 'Stud partition', layers: [layer('board', 12.5), layer('stud', 75, true), layer('board', 12.5)] },
  { id: 'block-140', name: 'Block partition', layers: [layer('plaster', 20), layer('block', 100, true), layer('plaster', 20)] },
  {
    id: 'stud-4half',
    name: 'Stud partition, 4 1/2 in',
    layers: [
      { material: 'board', thickness: 0.0127, core: false },
      { material: 'stud', thickness: 0.0889, core: true },
      { material: 'board', thickness: 0.0127, core: false },
    ],
  },
  {
    id: 'frame-6half',
    name: 'Timber frame, 6 1/2 in',
    layers: [
      { material: 'cladding', thickness: 0.0127, core: false },
      { material: 'stud', thickness: 0.1397, core: true },
      { material: 'board', thickness: 0.0127, core: false },
    ],
  },
];

export const DEFAULTS = {
  wall: { thickness: 0.1, outside: 0.3 },
  recess: { width: 1.2, depth: 0.35 },
  niche: { width: 0.6, height: 0.4, depth: 0.1, sill: 1.1 },
  boxing: { width: 0.3, depth: 0.3, thickness: 0.05 },
  column: { width: 0.2, depth: 0.2 },
  roof: { pitch: (40 * Math.PI) / 180, overhang: 0.3, thickness: 0.25, parapet: 0.4 },
  rooflight: { width: 0.8, length: 1.2, kerb: 0.35 },
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
    wallTypes: Object.fromEntries(WALL_TYPES.map((t) => [t.id, t])),
    levels: { ground: { id: 'ground', name: 'Ground', elevation: 0, ...DEFAULTS.level, underlay: null } },
    guides: {},
    corners: {},
    walls: {},
    openings: {},
    columns: {},
    rooflights: {},
    roofs: {},
    rooms: {},
    outside: { walls: null, faces: {}, ground: null },
    pieces: {},
    viewpoints: {},
    pictures: {},
    boards: {},
  };
}
