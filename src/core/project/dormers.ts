import { boolean, insideRing, totalArea } from '../geometry/polygon';
import type { Region, Ring } from '../geometry/region';
import { add, distance, dot, left, scale, sub, unit, type Vec2 } from '../geometry/vec';
import { DomainError } from './errors';
import { inPhase, standsIn } from './phase';
import { planRing, roofHeight, roofShape, roofsOver, roofsToFollow, type EaveLine, type RoofPlane, type RoofShape } from './roofs';
import type { Dormer, Project, Rooflight } from './schema';
import { rooflightRoom } from './rooflights';
import { freeName } from './things';
import { HAIR, NEAR } from '../units/tolerance';

/** A plane of a roof seen from its eave: u along the wall below, v inwards, heights above the floor of its level. */
export interface SlopeFrame {
  line: EaveLine;
  /** Unit directions along the eave and inwards. */
  along: Vec2;
  inward: Vec2;
  /** Tangent of the pitch. */
  tan: number;
  /** Height of underside and upper side over the wall line. */
  under: number;
  upper: number;
}

/** A dormer worked out against the slope it stands on. Lengths in the slope's frame, u from the dormer's middle. */
export interface DormerShape {
  dormer: Dormer;
  roof: RoofShape;
  edge: number;
  frame: SlopeFrame;
  /** Height of the top of its front wall. */
  plate: number;
  /** Height of its roof's underside at a distance from its middle and inwards. */
  underside(u: number, v: number): number;
  /** How far inwards its underside meets that of the roof. */
  meets(u: number): number;
  /** The same for both upper sides. */
  meetsUpper(u: number): number;
  /** Thickness of its own roof, upright, metres. */
  thickness: number;
  /** What is cut out of the roof for it, in the plan. */
  hole: Ring;
}

/** How far the hole in the roof reaches into the dormer's own walls, so that its cut does not show, metres. */
const BITE = 0.012;

/** The frame of one sloping edge of a roof; null where it is no slope. */
export function slopeFrame(shape: RoofShape, edge: number): SlopeFrame | null {
  const line = shape.lines[edge];
  const [under, upper] = [shape.under, shape.upper].map((planes) => planes.find((q) => q.edge === edge && q.plane)?.plane ?? null);
  if (!line || !under || !upper) return null;
  const along = unit(sub(line.b, line.a));
  const inward = left(along);
  const tan = under.gx * inward.x + under.gy * inward.y;
  if (tan < 0.05 || Math.abs(under.gx * along.x + under.gy * along.y) > NEAR) return null;
  const at = (p: { gx: number; gy: number; c: number }): number => p.gx * line.a.x + p.gy * line.a.y + p.c;
  return { line, along, inward, tan, under: at(under), upper: at(upper) };
}

/** A point of a slope's frame in the plan. */
export const fromFrame = (frame: SlopeFrame, u: number, v: number): Vec2 => add(frame.line.a, add(scale(frame.along, u), scale(frame.inward, v)));

/** The dormer on its roof; null where its roof or slope is not there. @param project in one phase */
export function dormerShape(project: Project, dormer: Dormer): DormerShape | null {
  const roof = project.roofs[dormer.roof];
  const shape = roof && roofShape(project, roof);
  if (!shape) return null;
  const edge = shape.lines.findIndex((l) => l.key === dormer.edge);
  const frame = edge < 0 ? null : slopeFrame(shape, edge);
  if (!frame) return null;
  const { width, setback: f, height, form, cheek } = dormer;
  const half = width / 2;
  const t = form === 'flat' ? 0.02 : Math.tan(dormer.pitch);
  const plate = frame.upper + frame.tan * f + height;
  const rising = form === 'shed' || form === 'flat';
  const underside = (u: number, v: number): number => {
    if (rising) return plate + (v - f) * t;
    const side = plate + (half - Math.abs(u)) * t;
    return form === 'hip' ? Math.min(side, plate + (v - f) * t) : side;
  };
  const thickness = (0.55 * roof.thickness) / Math.cos(Math.atan(t));
  const meet =
    (base: number, lift: number) =>
    (u: number): number =>
      rising ? (plate + lift - f * t - base) / (frame.tan - t) : (plate + lift + (half - Math.abs(u)) * t - base) / frame.tan;
  const meets = meet(frame.under, 0);
  const meetsUpper = meet(frame.upper, thickness);
  const inner = half - cheek + BITE;
  const m = dormer.at;
  const us = rising ? [-inner, inner] : [-inner, 0, inner];
  const hole = [
    fromFrame(frame, m - inner, f + cheek - BITE),
    fromFrame(frame, m + inner, f + cheek - BITE),
    // It ends where the dormer is closed above, or where its underside has run into the roof, whichever comes first.
    ...us.reverse().map((u) => fromFrame(frame, m + u, Math.min(meets(u) + BITE, meetsUpper(u) - BITE))),
  ];
  return { dormer, roof: shape, edge, frame, plate, underside, meets, meetsUpper, thickness, hole };
}

/** Refuses a dormer that does not fit its slope. @throws DomainError `dormer.…` */
export function checkDormer(project: Project, dormer: Dormer): void {
  const refuse = (code: string, why: string, ids: string[] = []): never => {
    throw new DomainError(`dormer.${code}`, `${dormer.name} was not set: ${why}`, [dormer.id, ...ids]);
  };
  const then = inPhase(project, standsIn(dormer.status, 'after') ? 'after' : 'before');
  const shape = dormerShape(then, dormer);
  if (!shape) return refuse('no-slope', 'the edge of the roof it stands on does not slope; choose another edge.');
  if (dormer.width < 2 * dormer.cheek + 0.2) refuse('narrow', 'between its walls there would be no room for a window; make it wider.');
  if (dormer.form === 'shed' && Math.tan(dormer.pitch) > shape.frame.tan - 0.05)
    refuse('steep', 'its own slope is as steep as the roof’s and would never meet it; make it flatter.');
  const hole: Region = { outer: shape.hole, holes: [] };
  for (const planes of [shape.roof.under, shape.roof.upper]) {
    const own = planes.filter((q) => q.edge === shape.edge && q.plane).map((q): Region => ({ outer: planRing(q), holes: [] }));
    if (totalArea(boolean('difference', [hole], own)) > HAIR)
      refuse('off-slope', 'it would reach over the edge of its slope; make it lower or narrower, or set it nearer the middle.');
  }
  for (const other of Object.values(then.dormers)) {
    if (other.id === dormer.id || other.roof !== dormer.roof) continue;
    const o = dormerShape(then, other);
    if (o && totalArea(boolean('intersection', [hole], [{ outer: o.hole, holes: [] }])) > NEAR)
      refuse('overlap', `it would overlap ${other.name}; move one of them.`, [other.id]);
  }
}

/** A dormer in the middle of the longest slope of a roof, with the sizes such dormers have; null where nothing slopes. */
export function newDormer(project: Project, basics: Pick<Dormer, 'id' | 'roof'> & Partial<Dormer>): Dormer | null {
  const roof = project.roofs[basics.roof];
  const shape = roof && roofShape(inPhase(project, standsIn(roof.status, 'after') ? 'after' : 'before'), roof);
  if (!shape) return null;
  const taken = new Set(
    Object.values(project.dormers)
      .filter((d) => d.roof === roof.id)
      .map((d) => d.edge),
  );
  const slopes = shape.lines
    .map((line, i) => ({ line, frame: slopeFrame(shape, i) }))
    .filter((s) => s.frame)
    // An edge without a dormer first, then the longest.
    .sort((a, b) => Number(taken.has(a.line.key)) - Number(taken.has(b.line.key)) || distance(b.line.a, b.line.b) - distance(a.line.a, a.line.b));
  const own = slopes[0];
  if (!own) return null;
  const form = basics.form ?? 'gable';
  return {
    name: freeName('Dormer', project.dormers),
    edge: own.line.key,
    at: distance(own.line.a, own.line.b) / 2,
    form,
    width: 1.4,
    setback: 0.6,
    height: 1.15,
    pitch: form === 'shed' ? Math.max(0.06, Math.atan(own.frame!.tan) * 0.35) : form === 'flat' ? 0.02 : Math.min(0.75, Math.atan(own.frame!.tan)),
    overhang: 0.12,
    cheek: 0.12,
    panes: { across: 2, up: 2 },
    status: 'new',
    finishes: {},
    ...basics,
  };
}

/** A rooflight that lies in a roof: its frame in space. */
export interface SlopedPlace {
  roof: RoofShape;
  plane: RoofPlane;
  upper: RoofPlane;
  /** Its outline in the plan: what is cut out. */
  ring: Ring;
  /** Unit direction in the plan along the eave. */
  along: Vec2;
}

/** Where a rooflight lies in the roof over a room that is open to it; null where it lies in a flat ceiling. @param project in one phase */
export function rooflightInRoof(project: Project, rooflight: Rooflight): SlopedPlace | null {
  const room = rooflightRoom(project, rooflight);
  if (room?.cover.kind !== 'roof') return null;
  for (const roof of roofsToFollow(roofsOver(project, rooflight.level))) {
    const plane = roof.under.find((q) => q.plane && insideRing(rooflight, planRing(q)));
    const upper = roof.upper.find((q) => q.plane && insideRing(rooflight, planRing(q)));
    if (!plane?.plane || !upper?.plane) continue;
    const { gx, gy } = plane.plane;
    const g = Math.hypot(gx, gy);
    const slope = g < NEAR ? { x: 0, y: 1 } : { x: gx / g, y: gy / g };
    // Turned in the slope: by its own rotation from the line of the eave.
    const [c, s] = [Math.cos(rooflight.rotation), Math.sin(rooflight.rotation)];
    const eave = { x: slope.y, y: -slope.x };
    const flat = 1 / Math.hypot(1, g);
    const project2 = (x: number, y: number): Vec2 => add(scale(eave, x), scale(slope, y * flat));
    const at = (i: number, j: number): Vec2 => {
      const [x, y] = [(i * rooflight.width) / 2, (j * rooflight.length) / 2];
      return add(rooflight, project2(x * c - y * s, x * s + y * c));
    };
    return { roof, plane, upper, ring: [at(-1, -1), at(1, -1), at(1, 1), at(-1, 1)], along: eave };
  }
  return null;
}

/** What is cut out of a roof, by the edge of the plane it is cut from. @param project in one phase */
export function holesInRoof(project: Project, shape: RoofShape): { edge: number; ring: Ring }[] {
  const out: { edge: number; ring: Ring }[] = [];
  for (const id in project.dormers) {
    if (project.dormers[id].roof !== shape.roof.id) continue;
    const dormer = dormerShape(project, project.dormers[id]);
    if (dormer) out.push({ edge: dormer.edge, ring: dormer.hole });
  }
  for (const id in project.rooflights) {
    if (project.rooflights[id].level !== shape.roof.level) continue;
    const place = rooflightInRoof(project, project.rooflights[id]);
    if (place?.roof === shape) out.push({ edge: place.plane.edge, ring: place.ring });
  }
  return out;
}

/** Height under the roofs over a point, dormers counted; null where no roof is. Metres above the floor of the level. */
export function heightUnderRoof(project: Project, roofs: readonly RoofShape[], p: Vec2): number | null {
  for (const id in project.dormers) {
    const shape = dormerShape(project, project.dormers[id]);
    if (!shape || !roofs.includes(shape.roof) || !insideRing(p, shape.hole)) continue;
    const by = sub(p, shape.frame.line.a);
    return shape.underside(dot(by, shape.frame.along) - shape.dormer.at, dot(by, shape.frame.inward));
  }
  return roofHeight(roofs, p);
}
