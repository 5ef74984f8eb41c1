import { z } from 'zod';

// Ids are keys of plain objects: the names every object answers to are left out.
const RESERVED = Object.getOwnPropertyNames(Object.prototype).join('|');
export const Id = z
  .string()
  .regex(new RegExp(`^(?!(?:${RESERVED})$)[A-Za-z0-9_.:-]{1,80}$`), 'an id has 1 to 80 letters, digits or _ . : -')
  .describe('Stable identity, unique in its collection');
/** Something to read, in whole characters: no control characters, no halves of surrogate pairs. */
export const Name = z
  .string()
  .min(1)
  .max(120)
  .regex(/^(?=.*[\p{L}\p{N}\p{P}\p{S}])[^\p{Cc}\p{Cs}]*$/u, 'a name has at least one letter, digit or sign, and whole characters only');
/** Text of several lines in whole characters; it may be empty. */
export const Text = (longest: number): z.ZodString =>
  z
    .string()
    .max(longest)
    .regex(/^(?:[^\p{Cc}\p{Cs}]|[\n\t])*$/u, 'it has whole characters only, and no control characters');
export const Coordinate = z.number().min(-10000).max(10000).describe('metres');
export const Size = z.number().min(0.001).max(500).describe('metres');
export const Angle = z.number().min(-1000).max(1000).describe('radians, counter-clockwise');
export const FinishRef = z.string().min(1).max(80).describe('id of a finish in the library');
export const Hash = z
  .string()
  .regex(/^[0-9a-f]{64}$/)
  .describe('SHA-256 of a file among the assets');

export const Point2 = z.object({ x: Coordinate, y: Coordinate });
export const Point3 = z.object({ x: Coordinate, y: Coordinate, z: Coordinate });

export const Status = z.enum(['existing', 'removed', 'new']).describe('what the work does with it');

export const Finishes = z.record(z.string().max(80), FinishRef);

export const Grid = z.object({ across: z.number().int().min(1).max(12), up: z.number().int().min(1).max(12) });

export type Status = z.infer<typeof Status>;

/** A local date and time, to the minute. */
export const Moment = z
  .string()
  .regex(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/)
  .refine((s) => !Number.isNaN(Date.parse(`${s}:00Z`)), 'not a date and time');
