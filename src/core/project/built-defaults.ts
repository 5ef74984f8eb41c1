import type { Vec2 } from '../geometry/vec';
import { DEFAULTS, type Beam, type Fence, type GroundArea, type Project, type Slab, type Void } from './schema';
import { firstOrder } from './ground-order';
import { newGuard } from './stairs';
import { freeName } from './things';
import { NEAR } from '../units/tolerance';

export const SLAB_NAMES: Record<Slab['kind'], string> = { mezzanine: 'Mezzanine', balcony: 'Balcony', deck: 'Deck', foundation: 'Foundation' };

/** A slab with the sizes such slabs have (trade figures). */
export function newSlab(project: Project, basics: Pick<Slab, 'id' | 'level' | 'kind' | 'points'> & Partial<Slab>): Slab {
  const level = project.levels[basics.level];
  const { kind } = basics;
  const z =
    kind === 'mezzanine' ? Math.round((level.height + DEFAULTS.level.slab) * 1000) / 1000 : kind === 'foundation' ? -level.slab : kind === 'deck' ? -0.02 : 0;
  const ground = project.site.ground - level.elevation;
  return {
    name: freeName(SLAB_NAMES[kind], project.slabs),
    z,
    thickness: kind === 'foundation' ? 0.6 : kind === 'deck' ? Math.max(0.06, Math.min(0.3, z - ground)) : 0.2,
    // On the ground nobody falls from a low deck.
    guard: kind === 'foundation' || (kind === 'deck' && z - ground < 0.6) ? null : newGuard(),
    status: 'new',
    finishes: {},
    ...basics,
  };
}

export const newVoid = (project: Project, basics: Pick<Void, 'id' | 'level' | 'points'> & Partial<Void>): Void => ({
  name: freeName('Void', project.voids),
  guard: newGuard(),
  status: 'new',
  finishes: {},
  ...basics,
});

/** A beam or a post of a section such timbers have. */
export const newBeam = (project: Project, basics: Pick<Beam, 'id' | 'level' | 'a' | 'b'> & Partial<Beam>): Beam => {
  const upright = Math.hypot(basics.b.x - basics.a.x, basics.b.y - basics.a.y) < NEAR;
  return {
    name: freeName(upright ? 'Post' : 'Beam', project.beams),
    section: 'square',
    width: upright ? 0.12 : 0.1,
    depth: upright ? 0.12 : 0.2,
    turn: 0,
    status: 'new',
    finishes: {},
    ...basics,
  };
};

export const GROUND_NAMES: Record<GroundArea['kind'], string> = {
  lawn: 'Lawn',
  gravel: 'Gravel',
  paving: 'Paving',
  drive: 'Driveway',
  bed: 'Bed',
  water: 'Water',
  pool: 'Pool',
};

/** An area of the ground; water lies a little below its surroundings and has a depth. */
export const newGround = (project: Project, basics: Pick<GroundArea, 'id' | 'kind' | 'points'> & Partial<GroundArea>): GroundArea => {
  const { kind } = basics;
  const water = kind === 'water' || kind === 'pool';
  return {
    name: freeName(GROUND_NAMES[kind], project.grounds),
    z: water ? (kind === 'pool' ? -0.1 : -0.25) : kind === 'paving' || kind === 'drive' ? 0.03 : 0.01,
    slope: { direction: 0, fall: 0 },
    edge: kind === 'paving' || kind === 'drive' || kind === 'pool' ? 'kerb' : 'none',
    order: firstOrder(project, kind),
    depth: kind === 'pool' ? { from: 1.1, to: 1.9 } : water ? { from: 0.8, to: 0.8 } : { from: 0, to: 0 },
    status: 'new',
    finishes: {},
    ...basics,
  };
};

export const FENCE_NAMES: Record<Fence['kind'], string> = { boards: 'Board fence', rails: 'Rail fence', hedge: 'Hedge', wall: 'Garden wall' };

const FENCES: Record<Fence['kind'], { height: number; thickness: number }> = {
  boards: { height: 1.8, thickness: 0.04 },
  rails: { height: 1.1, thickness: 0.08 },
  hedge: { height: 1.5, thickness: 0.6 },
  wall: { height: 1.2, thickness: 0.215 },
};

export const newFence = (project: Project, basics: Pick<Fence, 'id' | 'kind' | 'points'> & Partial<Fence>): Fence => ({
  name: freeName(FENCE_NAMES[basics.kind], project.fences),
  closed: false,
  ...FENCES[basics.kind],
  z: 0,
  status: 'new',
  finishes: {},
  ...basics,
});

/** Cross-sections a roof can be swept from, over a span: of its underside, from right to left, metres. */
export const ROOF_SECTIONS = ['two-pitch', 'mansard', 'curved'] as const;
export type RoofSection = (typeof ROOF_SECTIONS)[number];

export function roofSection(form: RoofSection, span: number): { x: number; z: number }[] {
  const h = span / 2;
  if (form === 'two-pitch') return [-h, 0, h].map((x) => ({ x, z: (h - Math.abs(x)) * Math.tan((35 * Math.PI) / 180) }));
  if (form === 'mansard')
    return [
      { x: -h, z: 0 },
      { x: -h * 0.68, z: h * 0.75 },
      { x: 0, z: h * 1.05 },
      { x: h * 0.68, z: h * 0.75 },
      { x: h, z: 0 },
    ];
  // A segment of a circle that rises a fifth of the span.
  const rise = span / 5;
  const r = (h * h + rise * rise) / (2 * rise);
  const half = Math.asin(h / r);
  const STEPS = 24;
  return Array.from({ length: STEPS + 1 }, (_, i): { x: number; z: number } => {
    const a = -half + (2 * half * i) / STEPS;
    return { x: r * Math.sin(a), z: r * Math.cos(a) - (r - rise) };
  });
}

/** A rectangle between two opposite corners, counter-clockwise. */
export const rectangleOf = (a: Vec2, b: Vec2): Vec2[] => {
  const [x0, x1, y0, y1] = [Math.min(a.x, b.x), Math.max(a.x, b.x), Math.min(a.y, b.y), Math.max(a.y, b.y)];
  return [
    { x: x0, y: y0 },
    { x: x1, y: y0 },
    { x: x1, y: y1 },
    { x: x0, y: y1 },
  ];
};
