import { cross, distance, sub } from '../geometry/vec';
import { COVERINGS } from './kinds/first-finishes';
import { roofShape, type EaveLine } from './roofs';
import { DEFAULTS, type Project, type Roof, type RoofEdge } from './schema';

/** The forms a roof starts with; each edge can be changed afterwards. */
export const ROOF_FORMS = ['hip', 'gable', 'half-hip', 'single', 'mansard', 'flat'] as const;
export type RoofForm = (typeof ROOF_FORMS)[number];

/** What a form is called. */
export const ROOF_NAMES: Record<RoofForm, string> = {
  hip: 'hipped',
  gable: 'with gables',
  'half-hip': 'half hips',
  single: 'single slope',
  mansard: 'mansard',
  flat: 'flat, parapet',
};

const degrees = (v: number): number => (v * Math.PI) / 180;

/** A roof of a form over what it is to cover, with the sizes such roofs have (trade figures). */
export function newRoof(project: Project, basics: Pick<Roof, 'id' | 'level'> & Partial<Roof>, form: RoofForm): Roof {
  const { pitch, overhang, thickness, parapet } = DEFAULTS.roof;
  const slope: RoofEdge = { form: 'slope', pitch, upper: null, overhang, rise: 0, hip: 1 };
  const mansard: RoofEdge = { ...slope, pitch: degrees(70), upper: { from: 2, pitch: degrees(25) } };
  const taken = new Set(Object.values(project.roofs).map((r) => r.name));
  let n = 1;
  while (taken.has(`Roof ${n}`)) n++;
  const roof: Roof = {
    name: `Roof ${n}`,
    over: { kind: 'level' },
    form: form === 'flat' ? 'flat' : 'pitched',
    all: form === 'mansard' ? mansard : slope,
    edges: {},
    thickness,
    parapet: form === 'flat' ? parapet : 0,
    gutter: form !== 'flat',
    status: 'new',
    framing: null,
    finishes: { covering: COVERINGS[form === 'flat' ? 'flat' : 'pitched'] },
    ...basics,
  };
  if (form === 'hip' || form === 'mansard' || form === 'flat') return roof;
  const rings = roofShape(project, roof)?.rings ?? [];
  const edge = (over: Partial<RoofEdge>): RoofEdge => ({ ...slope, ...over });
  if (form === 'single') {
    // Each outline has one slope, over its longest edge.
    const sloping = new Set(rings.map((lines) => lines.reduce((a, b) => (distance(a.a, a.b) >= distance(b.a, b.b) ? a : b)).key));
    const edges = rings.flat().filter((l) => !sloping.has(l.key));
    return { ...roof, edges: Object.fromEntries(edges.map((l) => [l.key, edge({ form: 'gable', overhang })])) };
  }
  const ends = rings.flatMap((lines) => lines.filter((l) => isEnd(lines, l)));
  return { ...roof, edges: Object.fromEntries(ends.map((l) => [l.key, edge({ form: form === 'gable' ? 'gable' : 'half-hip' })])) };
}

/**
 * Whether an edge is the end of a wing: both of its corners turn outwards, about square, and a side of the wing runs from it to
 * a corner that turns inwards; of a plain body, that both of its neighbours are longer.
 */
function isEnd(lines: readonly EaveLine[], line: EaveLine): boolean {
  const count = lines.length;
  const i = lines.indexOf(line);
  const at = (k: number): EaveLine => lines[(i + k + count) % count];
  const length = (l: EaveLine): number => distance(l.a, l.b);
  /** The sine of the turn between two edges. */
  const turn = (p: EaveLine, q: EaveLine): number => cross(sub(p.b, p.a), sub(q.b, q.a)) / (length(p) * length(q));
  const [before, after] = [at(-1), at(1)];
  if (turn(before, line) < SQUARE || turn(line, after) < SQUARE) return false;
  const wing = turn(at(-2), before) < 0 || turn(after, at(2)) < 0;
  return wing || (length(before) > length(line) && length(after) > length(line));
}

/** The sine from which a corner counts as square: within a seventh of a right angle. */
const SQUARE = 0.97;
