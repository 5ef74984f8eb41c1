import { dot, lerp, sub, unit, type Vec2 } from '../geometry/vec';
import type { Project } from './schema';
import { pointName } from './targets';

/** An edge of a roof in the plan, the roof at its left. */
interface Edge {
  a: Vec2;
  b: Vec2;
}

const TOWARDS: Record<string, string> = {
  north: 'northern',
  'north-east': 'north-eastern',
  east: 'eastern',
  'south-east': 'south-eastern',
  south: 'southern',
  'south-west': 'south-western',
  west: 'western',
  'north-west': 'north-western',
};

/** How far apart middles of edges must lie to be told apart by where they lie, metres. */
const APART = 0.05;

const outOf = ({ a, b }: Edge): Vec2 => {
  const d = unit(sub(b, a));
  return { x: d.y, y: -d.x };
};

/**
 * What the edges of a roof are called: by the point of the compass they look to, and where several look the same way, by
 * which of them is meant: "south", or "south, western" and "south, eastern"; one behind the other "outer" and "inner".
 */
export function roofEdgeNames(project: Pick<Project, 'site'>, edges: readonly Edge[]): string[] {
  const points = edges.map((edge) => {
    const out = outOf(edge);
    return pointName(project as Project, Math.atan2(out.y, out.x));
  });
  return edges.map((edge, i) => {
    const alike = edges.filter((_, k) => points[k] === points[i]);
    if (alike.length < 2) return points[i];
    const out = outOf(alike[0]);
    // Seen from outside, what lies to the right comes last.
    const along = { x: -out.y, y: out.x };
    const middle = (e: Edge): Vec2 => lerp(e.a, e.b, 0.5);
    const ranked = (d: Vec2): Edge[] => [...alike].sort((p, q) => dot(middle(p), d) - dot(middle(q), d));
    const spread = (list: readonly Edge[], d: Vec2): boolean => list.every((e, k) => k === 0 || dot(sub(middle(e), middle(list[k - 1])), d) > APART);
    const beside = ranked(along);
    if (!spread(beside, along)) {
      const behind = ranked(out);
      const words =
        behind.length === 2
          ? ['inner', 'outer']
          : behind.map((_, k) => (k === 0 ? 'innermost' : k === behind.length - 1 ? 'outermost' : `${k + 1} from inside`));
      return `${points[i]}, ${words[behind.indexOf(edge)]}`;
    }
    const at = beside.indexOf(edge);
    const end = (sign: 1 | -1): string => TOWARDS[pointName(project as Project, Math.atan2(along.y * sign, along.x * sign))];
    if (at === 0) return `${points[i]}, ${end(-1)}`;
    if (at === beside.length - 1) return `${points[i]}, ${end(1)}`;
    return beside.length === 3 ? `${points[i]}, middle` : `${points[i]}, ${at + 1} from the ${end(-1).replace(/ern$/, '')}`;
  });
}
