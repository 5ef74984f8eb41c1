import { kindOf } from '../project/kinds';
import type { Project } from '../project/schema';
import type { Body, BodyKind } from './body';

/** What one body of a kind is called. */
export const kindWord = (kind: BodyKind): string => (kind === 'site' || kind === 'backdrop' ? kind : kindOf(kind).word);

/** The name of a body, as people know it. */
export function bodyName(project: Project, { id, kind }: Pick<Body, 'id' | 'kind'>): string {
  if (kind === 'site' || kind === 'backdrop') return kind === 'site' ? 'Ground' : 'Background';
  const own = project[kind][id] as { name?: string } | undefined;
  if (kind === 'levels') return `Slab ${own?.name ?? ''}`;
  const word = kindWord(kind);
  return own?.name ?? `${word.charAt(0).toUpperCase()}${word.slice(1)} ${id}`;
}
