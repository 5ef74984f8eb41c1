import type { z } from 'zod';
import type { Status } from '../schema/basics';
import type { Role } from '../schema/finishes';

/** Anything a project holds under an id. */
export interface Thing {
  id: string;
  name?: string;
  level?: string;
  status?: Status;
  finishes?: Record<string, string>;
}

/** A part that takes a finish. */
export interface PartKind {
  part: string;
  /** What its finish is meant for. */
  role: Role | null;
  /** Id of the finish it has before anybody has chosen. */
  finish: string;
}

/** What one thing refers to. */
export interface Reference {
  /** The collection the other is in. */
  to: string;
  id: string;
  /** How it is said where the other is missing: "stands on a level". */
  as: string;
  /** What becomes of the one when the other is deleted: it goes along, or it is in the way. */
  gone: 'along' | 'stays';
}

/** What a command needs to know to set a thing of a kind as a whole. */
export interface Putting {
  /** What the edit is called. */
  title: string;
  /** Set where walls, rooms and openings follow from it. */
  shell?: true;
}

/** All that the project layer knows of one kind of thing. */
export interface ProjectKind<T = Thing> {
  schema: z.ZodType<T>;
  /** What one of it is called in a sentence. */
  word: string;
  /** It stands on a level and goes with it. */
  onLevel?: true;
  /** The work keeps it, takes it away or makes it new. */
  status?: true;
  /** Its parts with their roles and first finishes; left out: it takes no finish of its own. */
  parts?(thing: T, look: Look): readonly PartKind[];
  /** Any part may have a finish: the makers of stock know which there are. */
  openParts?: true;
  /** What is alike, by a key that like things share, and what several of them are called; left out: all of the collection. */
  alike?(thing: T): { key: string; words: string };
  refers?(thing: T): readonly Reference[];
  /** Set as a whole by the command `word.put`. */
  put?: Putting;
}

/** What first finishes may follow from besides the thing itself. */
export interface Look {
  roofs: Record<string, { finishes: Record<string, string> }>;
  outside: { walls: string | null };
}

/** A kind with the type of its things told by its schema. */
export const kind = <T extends Thing, S extends z.ZodType<T>>(own: Omit<ProjectKind<z.infer<S>>, 'schema'> & { schema: S }): typeof own => own;

/** A reference to the level a thing stands on. */
export const onLevel = (level: string): Reference => ({ to: 'levels', id: level, as: 'stands on a level', gone: 'along' });
