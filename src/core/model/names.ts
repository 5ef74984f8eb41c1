import type { Project } from '../project/schema';
import type { Body, BodyKind } from './body';

/** What one thing of a kind is called. */
export const KIND_WORDS: Record<BodyKind, string> = {
  wallTypes: 'wall type',
  levels: 'level',
  guides: 'guide',
  corners: 'corner',
  walls: 'wall',
  openings: 'opening',
  columns: 'column',
  rooflights: 'rooflight',
  roofs: 'roof',
  dormers: 'dormer',
  stairs: 'stair',
  voids: 'void',
  slabs: 'slab',
  beams: 'beam',
  rooms: 'room',
  grounds: 'ground',
  fences: 'fence',
  pieces: 'piece',
  viewpoints: 'viewpoint',
  pictures: 'picture',
  boards: 'board',
  finishes: 'finish',
  patches: 'patch',
  mouldings: 'moulding',
  profiles: 'profile',
  schemes: 'scheme',
  site: 'site',
  backdrop: 'backdrop',
};

/** The name of a body, as people know it. */
export function bodyName(project: Project, { id, kind }: Pick<Body, 'id' | 'kind'>): string {
  if (kind === 'site' || kind === 'backdrop') return kind === 'site' ? 'Ground' : 'Background';
  const own = project[kind][id] as { name?: string } | undefined;
  if (kind === 'levels') return `Slab ${own?.name ?? ''}`;
  return own?.name ?? `${KIND_WORDS[kind].charAt(0).toUpperCase()}${KIND_WORDS[kind].slice(1)} ${id}`;
}
