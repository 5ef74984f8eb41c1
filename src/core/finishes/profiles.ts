import type { Profile, Project } from '../project/schema';

type Point = [number, number];

/** A quarter round between two points, hollow (its centre outside the section) or full. */
function arc(from: Point, to: Point, full: boolean, steps = 6): Point[] {
  const [cx, cy] = full ? [from[0], to[1]] : [to[0], from[1]];
  const [rx, ry] = [Math.abs(to[0] - from[0]), Math.abs(to[1] - from[1])];
  const a0 = Math.atan2((from[1] - cy) / (ry || 1), (from[0] - cx) / (rx || 1));
  let a1 = Math.atan2((to[1] - cy) / (ry || 1), (to[0] - cx) / (rx || 1));
  if (a1 - a0 > Math.PI) a1 -= 2 * Math.PI;
  if (a0 - a1 > Math.PI) a1 += 2 * Math.PI;
  return Array.from({ length: steps + 1 }, (_, i) => {
    const a = a0 + ((a1 - a0) * i) / steps;
    return [cx + rx * Math.cos(a), cy + ry * Math.sin(a)];
  });
}

/** A profile from its points in millimetres, from the lower back corner to the upper one. */
/** What a metre costs: by how much wood it is cut from, invented. */
const priceOf = (points: Point[]): number => Math.round(3 + 0.0035 * Math.max(...points.map((p) => p[0])) * Math.max(...points.map((p) => p[1])));

const profile = (id: string, name: string, use: Profile['use'], points: Point[]): Profile => ({
  id,
  name,
  use,
  price: priceOf(points),
  // To a hundredth of a millimetre.
  points: points.map(([x, y]) => ({ x: Math.round(x * 100) / 1e5, y: Math.round(y * 100) / 1e5 })),
});

/** Sections drawn for this library (sizes from the trade figures). */
export const PROFILES: readonly Profile[] = [
  profile('skirting-plain', 'Plain, eased edge', 'skirting', [[0, 0], [15, 0], ...arc([15, 92], [12, 95], true, 4), [0, 95]]),
  profile('skirting-tall', 'Tall plain', 'skirting', [[0, 0], [18, 0], ...arc([18, 142], [15, 145], true, 4), [0, 145]]),
  profile('skirting-chamfer', 'Chamfered', 'skirting', [
    [0, 0],
    [18, 0],
    [18, 105],
    [8, 119],
    [0, 119],
  ]),
  profile('skirting-torus', 'Round nose', 'skirting', [
    [0, 0],
    [18, 0],
    [18, 112],
    ...arc([18, 119], [12, 125], true),
    ...arc([12, 131], [9, 134], false, 3),
    [9, 139],
    [0, 144],
  ]),
  profile('skirting-ogee', 'Double curve', 'skirting', [
    [0, 0],
    [18, 0],
    [18, 90],
    [16, 92],
    ...arc([16, 92], [11, 104], false),
    ...arc([11, 106], [5, 116], true),
    [4, 119],
    [0, 119],
  ]),
  profile('skirting-stepped', 'Two steps', 'skirting', [
    [0, 0],
    [20, 0],
    [20, 110],
    [14, 110],
    [14, 128],
    [8, 128],
    [8, 140],
    [0, 140],
  ]),
  profile('skirting-low', 'Low square', 'skirting', [
    [0, 0],
    [12, 0],
    [12, 60],
    [0, 60],
  ]),

  profile('cornice-cove', 'Cove', 'cornice', [[0, 0], [4, 0], [4, 6], ...arc([6, 8], [72, 74], false, 10), [74, 76], [80, 76], [80, 80]]),
  profile('cornice-small', 'Small cove', 'cornice', [[0, 0], ...arc([0, 2], [46, 46], false, 8), [48, 48]]),
  profile('cornice-ogee', 'Double curve', 'cornice', [
    [0, 0],
    [6, 0],
    [6, 8],
    ...arc([8, 10], [30, 40], true),
    ...arc([30, 42], [62, 74], false),
    [66, 78],
    [72, 80],
    [80, 80],
    [80, 90],
  ]),
  profile('cornice-stepped', 'Three steps', 'cornice', [
    [0, 0],
    [12, 0],
    [12, 24],
    [34, 24],
    [34, 46],
    [58, 46],
    [58, 66],
    [80, 66],
    [80, 80],
  ]),
  profile('cornice-large', 'Deep cornice', 'cornice', [
    [0, 0],
    [8, 0],
    [8, 12],
    ...arc([10, 14], [26, 34], false),
    [30, 36],
    [30, 48],
    ...arc([34, 50], [86, 96], false, 9),
    [90, 100],
    [96, 102],
    [110, 102],
    [110, 120],
  ]),

  profile('rail-plain', 'Plain rail', 'rail', [[0, 0], [20, 4], ...arc([20, 40], [16, 44], true, 3), [0, 48]]),
  profile('rail-dado', 'Dado, rounded', 'rail', [
    [0, 0],
    [8, 0],
    [8, 6],
    ...arc([10, 8], [26, 26], false),
    ...arc([28, 28], [22, 40], true),
    ...arc([14, 42], [8, 52], true),
    [0, 58],
  ]),
  profile('rail-picture', 'Picture rail', 'rail', [
    [0, 0],
    [10, 0],
    ...arc([10, 4], [22, 22], false),
    [24, 26],
    ...arc([26, 30], [20, 40], true),
    [12, 36],
    [10, 45],
    [0, 45],
  ]),

  profile('architrave-plain', 'Plain band', 'architrave', [[0, 0], [18, 0], ...arc([18, 57], [15, 60], true, 3), [0, 60]]),
  profile('architrave-chamfer', 'Chamfered band', 'architrave', [
    [0, 0],
    [12, 0],
    [12, 4],
    [20, 16],
    [20, 70],
    [0, 70],
  ]),
  profile('architrave-ogee', 'Double-curve band', 'architrave', [
    [0, 0],
    [9, 0],
    [9, 8],
    ...arc([9, 8], [13, 20], true),
    ...arc([13, 22], [21, 34], false),
    [21, 62],
    [18, 68],
    [0, 68],
  ]),
  profile('architrave-torus', 'Round-nose band', 'architrave', [[0, 0], [8, 0], ...arc([10, 2], [16, 10], true, 4), [16, 14], [21, 18], [21, 70], [0, 70]]),

  profile('panel-bead', 'Half-round bead', 'panel', [[0, 0], ...arc([4, 1], [10, 9], true, 4), ...arc([10, 11], [4, 19], true, 4), [0, 20]]),
  profile('panel-ogee', 'Panel moulding', 'panel', [[0, 0], [12, 0], [14, 4], ...arc([14, 6], [8, 16], false, 5), ...arc([8, 18], [4, 26], true, 4), [0, 30]]),
  profile('panel-bolection', 'Raised moulding', 'panel', [
    [0, 0],
    [10, 0],
    ...arc([12, 2], [22, 14], true, 5),
    [22, 18],
    ...arc([20, 20], [10, 32], false, 6),
    [6, 36],
    [6, 40],
    [0, 40],
  ]),
  profile('panel-flat', 'Flat frame', 'panel', [
    [0, 0],
    [10, 0],
    [10, 60],
    [0, 60],
  ]),
];

const byId = new Map(PROFILES.map((p) => [p.id, p]));

/** A section of a project: one of its own or a shipped one; null where it is neither. */
export const profileIn = (project: Pick<Project, 'profiles'>, id: string): Profile | null =>
  Object.hasOwn(project.profiles, id) ? project.profiles[id] : (byId.get(id) ?? null);

/** What each kind of moulding starts with, and what it may be cut from. */
export const MOULDING_USE = {
  skirting: { use: 'skirting', profile: 'skirting-plain', at: null },
  cornice: { use: 'cornice', profile: 'cornice-cove', at: null },
  'dado rail': { use: 'rail', profile: 'rail-dado', at: 0.9 },
  'picture rail': { use: 'rail', profile: 'rail-picture', at: 2.05 },
} as const;
