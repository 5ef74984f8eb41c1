import { z } from 'zod';

export const Id = z
  .string()
  .regex(/^[A-Za-z0-9_.:-]{1,80}$/, 'an id has 1 to 80 letters, digits or _ . : -')
  .describe('Stable identity, unique in its collection');
export const Name = z.string().min(1).max(120);
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
