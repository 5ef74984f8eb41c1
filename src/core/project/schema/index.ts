import { z } from 'zod';
import { collections, kindOf, type CollectionName, type PROJECT_KINDS } from '../kinds';
import { Angle, FinishRef, Finishes, Id, Moment, Name } from './basics';
import { Construction } from './cabinets';
import { FaceLaying } from './finishes';
import { BACKGROUNDS, Surroundings } from './outside';
import { Address, Dislike, type Starts } from './surfaces';
import { type WallLayer, type WallType } from './walls';

export * from './basics';
export * from './walls';
export * from './openings';
export * from './rooms';
export * from './roofs';
export * from './stairs';
export * from './outside';
export { Cabinet, JoineryStyle, Run, type Leg } from './cabinets';
export * from './presentation';
export * from './finishes';
export * from './surfaces';

/** Version of the project file format; raised with a migration when the shape changes. */
export const FORMAT_VERSION = 19;

export const Site = z.object({
  place: Name,
  latitude: z.number().min(-90).max(90).describe('degrees, north positive'),
  longitude: z.number().min(-180).max(180).describe('degrees, east positive'),
  north: Angle.describe('direction of north in the plan, from the x axis'),
  moment: Moment.describe('local date and time the daylight is shown for'),
  offset: z.number().int().min(-840).max(840).describe('minutes the local clock is ahead of UTC'),
  sky: z.number().int().min(1).max(15).describe('how light is spread over the sky: number in ISO 15469; 1 to 5 overcast, 6 to 10 intermediate, 11 to 15 clear'),
  turbidity: z.number().min(1.8).max(10).describe('haze of the air under a clear sky: 2 very clear, 3 clear, 6 hazy'),
  ground: z.number().min(-50).max(50).describe('height of the ground, from which the heights outside are measured, metres'),
  background: z.enum(BACKGROUNDS).describe('what is modelled beyond the site'),
  surroundings: Surroundings.nullable(),
  seen: z
    .number()
    .min(-8)
    .max(4)
    .describe('how much brighter or darker what lies outside is shown to an eye indoors than it is, stops; its light stays as it is'),
});

/** How the list of all that a project holds is ordered, and what of it is out of sight or held where it is. */
export const Contents = z.object({
  groups: z.record(
    Id,
    z.object({
      id: Id,
      name: Name,
      members: z.array(Id).max(5000),
      together: z.boolean().default(false).describe('a set: its pieces are chosen and moved together'),
    }),
  ),
  hidden: z.array(Id).max(20000),
  held: z.array(Id).max(20000),
});

/** By which figures the room beside furniture is checked: a close fit, as it is usual, or for a wheelchair. */
export const CLEARANCES = ['close', 'usual', 'wheelchair'] as const;
export type Clearances = (typeof CLEARANCES)[number];

/** What is said of a project as a whole. */
const whole = {
  format: z.literal('enstegon'),
  version: z.literal(FORMAT_VERSION),
  id: Id,
  name: Name,
  units: z.enum(['metric', 'imperial']),
  site: Site,
  outside: z.object({ walls: FinishRef.nullable(), faces: Finishes, ground: FinishRef.nullable() }),
  layings: z.record(Address, FaceLaying).describe('faces whose finish is laid otherwise than it comes'),
  scheme: Id.describe('the scheme in hand'),
  dislikes: z.array(Dislike).max(12),
  money: z.string().min(1).max(4).describe('sign of the money prices are in'),
  contents: Contents,
  construction: Construction.nullable().default(null).describe('how new runs of cabinets are made; null: as is usual'),
  clearances: z.enum(CLEARANCES).default('usual').describe('by which figures the room beside furniture and the ways through rooms are checked'),
};

type Tables = { [K in CollectionName]: z.ZodRecord<typeof Id, (typeof PROJECT_KINDS)[K]['schema']> };

/** A table of things by id for every kind. */
const tables = (): Tables => Object.fromEntries(collections().map((name) => [name, z.record(Id, kindOf(name).schema)])) as unknown as Tables;

const build = () => z.object({ ...whole, ...tables() });
let built = { of: collections().length, schema: build() };

/** The shape of a project, with a table for every kind there is. */
export function projectSchema(): ReturnType<typeof build> {
  if (built.of !== collections().length) built = { of: collections().length, schema: build() };
  return built.schema;
}

export const ProjectSchema = built.schema;

export type Project = z.infer<typeof ProjectSchema>;
export type Site = z.infer<typeof Site>;
export type Contents = z.infer<typeof Contents>;

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
  ground: -0.26,
  stair: { width: 0.9, tread: 0.032, nosing: 0.02, column: 0.08, well: 0.1, riser: 0.018, string: 0.035 },
  window: { width: 1.2, height: 1.2, sill: 0.9 },
} as const;

/** A scheme in which nothing has been decided for new rooms and cabinets. */
export const NO_STARTS: Starts = { floor: null, wall: null, ceiling: null, joinery: null, worktop: null, metal: null };

/** A project with one level and nothing on it. */
export function emptyProject(id: string, name: string, units: Project['units'] = 'metric'): Project {
  return {
    ...(Object.fromEntries(collections().map((name) => [name, {}])) as Pick<Project, CollectionName>),
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
      sky: 12,
      turbidity: 3,
      ground: DEFAULTS.ground,
      background: 'none',
      surroundings: null,
      seen: 0,
    },
    wallTypes: Object.fromEntries(WALL_TYPES.map((t) => [t.id, t])),
    levels: { ground: { id: 'ground', name: 'Ground', elevation: 0, ...DEFAULTS.level, underlay: null, structure: '', finishes: {} } },
    outside: { walls: null, faces: {}, ground: null },
    layings: {},
    schemes: { 'scheme-1': { id: 'scheme-1', name: 'First scheme', order: 0, choices: null, starts: NO_STARTS, style: null } },
    scheme: 'scheme-1',
    dislikes: [],
    money: '€',
    contents: { groups: {}, hidden: [], held: [] },
    construction: null,
    clearances: 'usual',
  };
}
