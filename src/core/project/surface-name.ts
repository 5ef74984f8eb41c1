import type { FaceTarget } from './commands/finishing';
import type { Project } from './schema';
import { collectionOf } from './things';

/** "Kitchen, north wall": the name of a surface as people say it. */
export function surfaceName(project: Project, target: FaceTarget): string {
  const room = 'room' in target && target.room ? (project.rooms[target.room]?.name ?? 'Room') : 'Outside';
  switch (target.kind) {
    case 'floor':
    case 'ceiling':
      return `${room}, ${target.kind}`;
    case 'walls':
      return `${room}, all walls`;
    case 'wall':
      return `${room}, ${compass(project, target.wall, target.side)} wall`;
    case 'piece':
      return `${project.pieces[target.piece]?.name ?? 'Piece'}, ${target.part}`;
    case 'opening':
      return `${(project.openings[target.opening] ?? project.rooflights[target.opening])?.name ?? 'Opening'}, ${target.part}`;
    case 'column':
      return project.columns[target.column]?.name ?? 'Column';
    case 'roof':
      return `${project.roofs[target.roof]?.name ?? 'Roof'}, ${target.part}`;
    case 'part': {
      const collection = collectionOf(project, target.of);
      const own = collection && (project[collection][target.of] as { name?: string });
      return `${own?.name ?? 'Part'}, ${target.part}`;
    }
    case 'patch':
      return `${project.patches[target.patch]?.name ?? 'Patch'}${target.part === 'field' ? '' : `, ${target.part}`}`;
    case 'moulding':
      return `${project.rooms[project.mouldings[target.moulding]?.room]?.name ?? 'Room'}, ${project.mouldings[target.moulding]?.name ?? 'moulding'}`;
    case 'ground':
      return 'Ground';
  }
}

/** Which wall of a room it is, by the direction one looks to see it. */
function compass(project: Project, wallId: string, side: 'left' | 'right'): string {
  const wall = project.walls[wallId];
  if (!wall) return '';
  const a = project.corners[wall.start];
  const b = project.corners[wall.end];
  // Looking at the left face means looking to the right of the wall's direction.
  return pointName(project, Math.atan2(b.y - a.y, b.x - a.x) + (side === 'left' ? -1 : 1) * (Math.PI / 2));
}

/** The point of the compass a direction of the plan looks to. @param angle radians from the x axis */
export function pointName(project: Project, angle: number): string {
  const clockwise = (((project.site.north - angle) / (2 * Math.PI)) % 1) + 1;
  return ['north', 'north-east', 'east', 'south-east', 'south', 'south-west', 'west', 'north-west'][Math.round((clockwise % 1) * 8) % 8];
}

/** The thing a surface belongs to, which one selects to get to it; null where it is none. */
export function entityOf(target: FaceTarget): string | null {
  switch (target.kind) {
    case 'floor':
    case 'ceiling':
    case 'walls':
      return target.room;
    case 'wall':
      return target.wall;
    case 'piece':
      return target.piece;
    case 'opening':
      return target.opening;
    case 'column':
      return target.column;
    case 'roof':
      return target.roof;
    case 'part':
      return target.of;
    case 'patch':
      return target.patch;
    case 'moulding':
      return target.moulding;
    case 'ground':
      return null;
  }
}
