import type { Draft } from 'immer';
import { z } from 'zod';
import { DomainError } from '../errors';
import type { Project } from '../schema';

/** What a command may use besides its arguments: ids that follow from the change's own id, so replays agree. */
export interface CommandContext {
  newId(prefix: string): string;
}

export interface CommandDefinition<A extends z.ZodType> {
  args: A;
  /** What the edit is called in undo and in the history. */
  title: string;
  /** Set where walls may change: rooms are found again and openings settled. */
  shell?: boolean;
  apply(draft: Draft<Project>, args: z.infer<A>, context: CommandContext): void;
}

export const define = <A extends z.ZodType>(definition: CommandDefinition<A>): CommandDefinition<A> => definition;

/** What stays where it is when a wall becomes thicker or thinner. */
export const Keep = z.enum(['left', 'right', 'middle', 'line']);

/** Fields of an entity that a `…set` command may change. */
export const editable = <S extends z.ZodObject>(schema: S, fixed: string[]): z.ZodObject => {
  const shape = Object.entries(schema.shape).filter(([key]) => !fixed.includes(key));
  // A field that is not told stays as it is: it does not get what one that is missing in a file gets.
  return z
    .object(Object.fromEntries(shape.map(([key, field]) => [key, field instanceof z.ZodDefault ? field.unwrap() : field])))
    .partial()
    .strict();
};

export function need<T>(collection: Record<string, T>, id: string, what: string): T {
  const found = Object.hasOwn(collection, id) ? collection[id] : undefined;
  if (!found)
    throw new DomainError('missing', `Nothing was changed: the ${what} is no longer in the project; it may have been deleted in another window.`, [id]);
  return found;
}

export function refuseTaken(collection: Record<string, unknown>, id: string): void {
  if (Object.hasOwn(collection, id)) throw new DomainError('taken', 'Nothing was changed: something with this id exists already.', [id]);
}

/** Fields whose limits are lengths. */
const METRES = new Set([
  'thickness',
  'base',
  'drop',
  'border',
  'rise',
  'gap',
  'start',
  'end',
  'fanlight',
  'threshold',
  'architrave',
  'sillBoard',
  'by',
  'face',
  'step',
  'height',
  'width',
  'depth',
  'sill',
  'elevation',
  'slab',
  'length',
  'at',
  'offset',
  'x',
  'y',
  'z',
  'size',
]);

/** What people call a field whose own name says nothing to them, by that of the value it is in. */
const CALLED: Record<string, string> = {
  'stand.by': 'the reveal',
  'to.x': 'the place to the east',
  'to.y': 'the place to the north',
  'slope.fall': 'the slope',
  'depth.from': 'the depth at its first edge',
  'depth.to': 'the depth opposite',
};

/** One sentence from the first thing Zod found wrong. */
export function sentence(error: z.ZodError): string {
  const issue = error.issues[0];
  const field = String(issue.path.at(-1) ?? 'value');
  const word = CALLED[issue.path.slice(-2).join('.')] ?? field.replace(/[A-Z]/g, (c) => ` ${c.toLowerCase()}`);
  if ((issue.code === 'too_big' || issue.code === 'too_small') && (issue.origin === 'number' || issue.origin === 'int')) {
    const limit = issue.code === 'too_big' ? issue.maximum : issue.minimum;
    return `${word} goes ${issue.code === 'too_big' ? 'up to' : 'from'} ${String(limit)}${METRES.has(field) ? ' m' : ''}${issue.code === 'too_big' ? '' : ' upwards'}.`;
  }
  const where = issue.path.length ? `${issue.path.join('.')}: ` : '';
  const text = issue.message.replace(/^Invalid input: /, '').replace(/\.$/, '');
  return `${where}${text}.`;
}
