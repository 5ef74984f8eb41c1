import type { Vec2 } from '../geometry/vec';
import type { CommandArgs, CommandName } from './commands';
import type { Patch, Project } from './schema';

/** A command with its arguments. */
export type Put = { [N in CommandName]: { command: N; args: CommandArgs<N> } }[CommandName];

const put = <N extends CommandName>(command: N, args: CommandArgs<N>): Put => ({ command, args }) as Put;

/** A patch that lies in the plan: on a floor or a ceiling. */
function flatPatch(project: Project, id: string): { patch: Patch; shape: Extract<Patch['shape'], { kind: 'polygon' }> } | null {
  const patch = project.patches[id];
  return patch && (patch.on.kind === 'floor' || patch.on.kind === 'ceiling') && patch.shape.kind === 'polygon' ? { patch, shape: patch.shape } : null;
}

/** The corners a thing is drawn by; null where it has none of its own. */
export function cornersOf(project: Project, id: string): readonly Vec2[] | null {
  const own = project.voids[id] ?? project.slabs[id] ?? project.grounds[id] ?? project.fences[id];
  if (own) return own.points;
  const flat = flatPatch(project, id);
  if (flat) return flat.shape.points;
  const beam = project.beams[id];
  if (beam) return [beam.a, beam.b];
  const over = project.roofs[id]?.over;
  if (over?.kind === 'outline' || over?.kind === 'plane') return over.points;
  return over?.kind === 'swept' ? over.path : null;
}

/** The command that gives a thing other corners, as many as it has or more; null where it has none. */
export function withCorners(project: Project, id: string, points: Vec2[]): Put | null {
  if (project.voids[id]) return put('void.put', { ...project.voids[id], points });
  if (project.slabs[id]) return put('slab.put', { ...project.slabs[id], points });
  if (project.grounds[id]) return put('ground.put', { ...project.grounds[id], points });
  if (project.fences[id]) return put('fence.put', { ...project.fences[id], points });
  const flat = flatPatch(project, id);
  if (flat) return put('patch.put', { patches: [{ ...flat.patch, shape: { kind: 'polygon', points } }] });
  const beam = project.beams[id];
  if (beam) return put('beam.put', { ...beam, a: { ...beam.a, ...points[0] }, b: { ...beam.b, ...points[1] } });
  const roof = project.roofs[id];
  const over = roof?.over;
  if (over?.kind === 'outline' || over?.kind === 'plane') return put('roof.put', { roof: { ...roof, over: { ...over, points } } });
  return over?.kind === 'swept' ? put('roof.put', { roof: { ...roof, over: { ...over, path: points } } }) : null;
}

/** A point by which a thing is taken hold of, and the level it is on; null where it follows from others. */
export function anchorOf(project: Project, id: string): Vec2 | null {
  const own = project.columns[id] ?? project.rooflights[id] ?? project.stairs[id];
  return own ? { x: own.x, y: own.y } : (cornersOf(project, id)?.[0] ?? null);
}

/** The command that brings a thing's anchor to a point, the rest along with it. */
export function withAnchor(project: Project, id: string, to: Vec2): Put | null {
  const at = { x: to.x, y: to.y };
  if (project.columns[id]) return put('column.put', { ...project.columns[id], ...at });
  if (project.rooflights[id]) return put('rooflight.put', { ...project.rooflights[id], ...at });
  if (project.stairs[id]) return put('stair.put', { ...project.stairs[id], ...at });
  const points = cornersOf(project, id);
  if (!points) return null;
  const by = { x: to.x - points[0].x, y: to.y - points[0].y };
  return withCorners(
    project,
    id,
    points.map((p) => ({ x: p.x + by.x, y: p.y + by.y })),
  );
}
