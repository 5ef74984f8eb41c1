import { z } from 'zod';
import { FinishRef, Id, Name, Point2 } from './basics';
import { RunOwnLook } from './cabinets';
import { FaceLaying } from './finishes';

const Height = z.number().min(-5).max(20).describe('metres above the floor of the level');
const Size = z.number().min(0.005).max(100).describe('metres');
export const Address = z
  .string()
  .regex(/^[A-Za-z0-9_.:*/ -]{1,260}$/)
  .describe('what a finish is chosen for, see docs/project-file.md');

/** The face a patch lies on: one wall as a room (or the outside) sees it, all walls of a room, a floor, a ceiling. */
export const PatchFace = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('wall'), room: Id.nullable(), wall: Id, side: z.enum(['left', 'right']) }),
  z.object({ kind: z.literal('walls'), room: Id }),
  z.object({ kind: z.literal('floor'), room: Id }),
  z.object({ kind: z.literal('ceiling'), room: Id }),
]);

/** Its outline on the face: on walls x runs along the wall’s reference line and y up; on floors and ceilings they are those of the plan. */
export const PatchShape = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('rectangle'),
    at: z.number().min(-500).max(500).describe('of its middle along the wall'),
    base: Height,
    width: Size,
    height: Size,
  }),
  z.object({ kind: z.literal('polygon'), points: z.array(Point2).min(3).max(200) }),
  z.object({ kind: z.literal('band'), from: Height, to: Height }).describe('all along the face between two heights'),
]);

/** Panels set out over a patch, each framed by a moulding. */
export const Panels = z.object({
  across: z.number().int().min(1).max(60).nullable().describe('null: as many as `width` allows'),
  up: z.number().int().min(1).max(12),
  width: Size.describe('least width of a panel where `across` is null'),
  margin: z.number().min(0).max(2).describe('between the edge of the patch and the panels'),
  gap: z.number().min(0).max(2).describe('between panels'),
  profile: Id,
  moulding: FinishRef.nullable().describe('null: the finish of the patch'),
  field: FinishRef.nullable().describe('finish within the panels; null: the finish of the patch'),
});

export const Patch = z.object({
  id: Id,
  name: Name,
  on: PatchFace,
  shape: PatchShape,
  order: z.number().min(-1e6).max(1e6).describe('the higher one shows where two overlap'),
  finish: FinishRef,
  panels: Panels.nullable(),
});

export const MOULDING_KINDS = ['skirting', 'cornice', 'dado rail', 'picture rail'] as const;

export const Moulding = z.object({
  id: Id,
  name: Name,
  room: Id,
  kind: z.enum(MOULDING_KINDS),
  profile: Id,
  height: z.number().min(0.005).max(1).nullable().describe('of the section; null: as its profile is'),
  at: Height.nullable().describe('lower edge of a rail above the floor of the room; null for skirtings and cornices'),
  without: z.array(z.string().max(100)).max(200).describe('faces it leaves out, by "wallId/side"'),
  finish: FinishRef,
});

/** The section of a moulding: x away from the wall, y up, both metres, from the lower back corner round to the upper one. */
export const Profile = z.object({
  id: Id,
  name: Name,
  use: z.enum(['skirting', 'cornice', 'rail', 'architrave', 'panel']),
  price: z.number().min(0).max(1e5).describe('of a metre, in the money of the project'),
  points: z
    .array(z.object({ x: z.number().min(0).max(1), y: z.number().min(0).max(1) }))
    .min(2)
    .max(120),
});

export const Choices = z.object({
  finishes: z.record(Address, FinishRef),
  layings: z.record(Address, FaceLaying),
  patches: z.record(Id, Patch),
  mouldings: z.record(Id, Moulding),
  joinery: z.record(Id, z.object({ style: Id.nullable(), look: RunOwnLook })).describe('styles of runs, and what is apart from them; of units what is apart'),
});

export const Starts = z.object({
  floor: FinishRef.nullable(),
  wall: FinishRef.nullable(),
  ceiling: FinishRef.nullable(),
  joinery: FinishRef.nullable(),
  worktop: FinishRef.nullable(),
  metal: FinishRef.nullable(),
});

export const Scheme = z.object({
  id: Id,
  name: Name,
  order: z.number().min(-1e6).max(1e6),
  choices: Choices.nullable().describe('null for the scheme in hand: its choices stand on the things themselves'),
  starts: Starts.describe('what new rooms and new cabinets begin with'),
  style: Id.nullable().describe('the joinery style new runs begin with'),
});

/** A range of hues the client does not care for, degrees of OKLCH. */
export const Dislike = z.object({ name: Name, from: z.number().min(0).max(360), to: z.number().min(0).max(360) });

export type PatchFace = z.infer<typeof PatchFace>;
export type Patch = z.infer<typeof Patch>;
export type Panels = z.infer<typeof Panels>;
export type Moulding = z.infer<typeof Moulding>;
export type MouldingKind = Moulding['kind'];
export type Profile = z.infer<typeof Profile>;
export type Choices = z.infer<typeof Choices>;
export type Scheme = z.infer<typeof Scheme>;
export type Starts = z.infer<typeof Starts>;
export type StartRole = keyof Starts;
export type Dislike = z.infer<typeof Dislike>;
