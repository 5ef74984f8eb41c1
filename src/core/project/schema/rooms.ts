import { z } from 'zod';
import { Angle, Coordinate, FinishRef, Finishes, Grid, Id, Name, Point2, Size, Status } from './basics';

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
  finishes: Finishes,
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

export type Room = z.infer<typeof Room>;
export type Ceiling = z.infer<typeof Ceiling>;
export type RoomUse = z.infer<typeof RoomUse>;
export type Column = z.infer<typeof Column>;
export type Rooflight = z.infer<typeof Rooflight>;
