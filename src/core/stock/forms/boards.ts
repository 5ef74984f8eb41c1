import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { isLight } from '../../geometry/shapes';
import type { Joint } from '../../geometry/joint';
import type { Vec3 } from '../../geometry/vec';
import type { FrontStyle, HandleStyle } from '../../project/schema/cabinets';
import { shiftBy, upright } from './carry';
import { roundRectangle, slab } from './flat';
import { rod, skin } from './skin';
import { post, turned } from './turned';

/** Joiners' forms: boards, framed doors, drawers, handles. Sizes in metres, z up. */

/** How round the edges of boards and of solid timber are, metres. */
export const BOARD = 0.001;
export const TIMBER = 0.0025;

/** A board between two corners, every edge rounded. */
export function board(x0: number, y0: number, z0: number, x1: number, y1: number, z1: number, round = BOARD): Mesh {
  if (isLight()) return new MeshBuilder().box(x0, y0, z0, x1, y1, z1).build();
  const r = Math.min(round, (x1 - x0) / 2.5, (y1 - y0) / 2.5, (z1 - z0) / 2.5);
  return new MeshBuilder().add(slab(roundRectangle(x1 - x0, y1 - y0, r, 3), z0, z1, r, 3), shiftBy((x0 + x1) / 2, (y0 + y1) / 2, 0)).build();
}

/** A piece of solid timber between two corners. */
export const timber = (x0: number, y0: number, z0: number, x1: number, y1: number, z1: number): Mesh => board(x0, y0, z0, x1, y1, z1, TIMBER);

interface Front {
  x0: number;
  x1: number;
  z0: number;
  z1: number;
  /** Its back, and how thick it is to the front of it. */
  y: number;
  thick?: number;
  style: FrontStyle;
  /** Widths of its stiles and rails where it is framed, and into how many panes it is divided where it is glazed. */
  stile?: number;
  rail?: number;
  panes?: { across: number; up: number };
}

/** Width of stiles and rails, metres. */
const STILE = 0.065;

/** Widths of reeds, of boards, of louvres, of beads and of glazing bars, metres. */
const REED = 0.016;
const BOARDED = 0.09;
const LOUVRE = 0.03;
const BEAD = 0.008;
const BAR = 0.022;

/** Reeds side by side on a board, upright: round bars, half of each in the board. */
function reeds(x0: number, x1: number, z0: number, z1: number, f: number, y: number): Mesh {
  if (isLight()) return board(x0, f, z0, x1, y, z1);
  const n = Math.max(1, Math.round((x1 - x0) / REED));
  const w = (x1 - x0) / n;
  const r = Math.min(w / 2, (y - f) * 0.45);
  const out = new MeshBuilder().add(board(x0, f + r, z0, x1, y, z1));
  for (let i = 0; i < n; i++) out.add(post(x0 + (i + 0.5) * w, f + r, z0 + 0.0004, z1 - 0.0004, r, r, 12));
  return out.build();
}

/** Slats that lie over one another between stiles, their upper edges behind. */
function louvres(x0: number, x1: number, z0: number, z1: number, f: number, y: number): Mesh[] {
  if (isLight()) return [board(x0, (f + y) / 2 - 0.003, z0, x1, (f + y) / 2 + 0.003, z1)];
  const n = Math.max(1, Math.round((z1 - z0) / LOUVRE));
  const high = (z1 - z0) / n;
  const thin = 0.006;
  // As long in section as there is room from face to face, leaning.
  const deep = y - f - 0.004;
  const long = Math.min(Math.hypot(deep, high) - thin, high * 0.98);
  const a = Math.asin(Math.min(1, deep / Math.max(long, deep)));
  const [c, s] = [Math.cos(a), Math.sin(a)];
  return Array.from({ length: n }, (_, i) => {
    const slat = board(x0, -thin / 2, -long / 2, x1, thin / 2, long / 2, 0.002);
    // Turned about the length of the slat so that its upper edge goes back.
    return new MeshBuilder().add(slat, [1, 0, 0, 0, 0, c, -s, 0, 0, s, c, 0, 0, (f + y) / 2, z0 + (i + 0.5) * high, 1]).build();
  });
}

/** A door or a drawer front that looks to −y. Framed ones have stiles that go through, rails between them and a panel set back in their groove. @returns wood and glass */
export function front({ x0, x1, z0, z1, y, thick = 0.02, style, stile = STILE, rail = STILE, panes }: Front): { wood: Mesh; glass: Mesh } {
  const wood = new MeshBuilder();
  const glass = new MeshBuilder();
  const [w, h] = [x1 - x0, z1 - z0];
  const f = y - thick;
  const s = Math.min(stile, w * 0.28);
  const r = Math.min(rail, h * 0.34);
  if (style === 'flat' || Math.min(s, r) < 0.018) wood.add(board(x0, f, z0, x1, y, z1, TIMBER));
  else if (style === 'boarded') {
    const n = Math.max(2, Math.round(w / BOARDED));
    for (let i = 0; i < n; i++) wood.add(board(x0 + (w * i) / n, f, z0, x0 + (w * (i + 1)) / n, y, z1, 0.004));
  } else if (style === 'reeded') wood.add(reeds(x0, x1, z0, z1, f, y));
  else {
    wood.add(timber(x0, f, z0, x0 + s, y, z1)).add(timber(x1 - s, f, z0, x1, y, z1));
    wood.add(timber(x0 + s, f + 0.0004, z0, x1 - s, y - 0.0004, z0 + r)).add(timber(x0 + s, f + 0.0004, z1 - r, x1 - s, y - 0.0004, z1));
    const tall = h > 1.3;
    const mid = z0 + h * 0.42;
    if (tall) wood.add(timber(x0 + s, f + 0.0004, mid - r / 2, x1 - s, y - 0.0004, mid + r / 2));
    for (const [a, b] of tall
      ? [
          [z0 + r, mid - r / 2],
          [mid + r / 2, z1 - r],
        ]
      : [[z0 + r, z1 - r]]) {
      const [i0, i1] = [x0 + s, x1 - s];
      if (style === 'louvred') {
        for (const slat of louvres(i0, i1, a, b, f, y)) wood.add(slat);
        continue;
      }
      // Panels lie in grooves of the frame.
      const into = style === 'glazed' ? glass : wood;
      into.add(board(i0 - 0.006, y - thick * 0.62, a - 0.006, i1 + 0.006, y - thick * (style === 'glazed' ? 0.42 : 0.2), b + 0.006));
      if (style === 'beaded' && !isLight()) {
        const [n0, n1] = [f + 0.002, y - thick * 0.62 + 0.0004];
        wood.add(board(i0, n0, a, i0 + BEAD, n1, b, 0.003)).add(board(i1 - BEAD, n0, a, i1, n1, b, 0.003));
        wood.add(board(i0 + BEAD, n0, a, i1 - BEAD, n1, a + BEAD, 0.003)).add(board(i0 + BEAD, n0, b - BEAD, i1 - BEAD, n1, b, 0.003));
      }
      if (style === 'glazed' && panes) {
        for (let k = 1; k < panes.across; k++) {
          const x = i0 + ((i1 - i0) * k) / panes.across;
          wood.add(board(x - BAR / 2, f + 0.001, a, x + BAR / 2, y - 0.002, b, TIMBER));
        }
        for (let k = 1; k < panes.up; k++) {
          const z = a + ((b - a) * k) / panes.up;
          // Upright bars go through.
          for (let c = 0; c < panes.across; c++) {
            const [from, to] = [
              i0 + ((i1 - i0) * c) / panes.across + (c > 0 ? BAR / 2 : 0),
              i0 + ((i1 - i0) * (c + 1)) / panes.across - (c < panes.across - 1 ? BAR / 2 : 0),
            ];
            if (to - from > BAR / 2) wood.add(board(from, f + 0.0014, z - BAR / 2, to, y - 0.0024, z + BAR / 2, TIMBER));
          }
        }
      }
    }
  }
  return { wood: wood.build(), glass: glass.build() };
}

/** How far the middle of a pull that is folded over an edge lies within it, metres. */
export const EDGE_PULL = 0.0102;

/**
 * A handle at a point of a front that looks to −y.
 *
 * @param before what is folded over an edge is so over the left one, or over the lower one
 */
export function handle(style: HandleStyle, x: number, y: number, z: number, long: number, standing: boolean, before = false): Mesh {
  const out = new MeshBuilder();
  if (style === 'knob')
    out.add(
      turned(
        [
          [0, 0],
          [0.011, 0],
          [0.011, 0.002],
          [0.006, 0.004],
          [0.006, 0.014],
          [0.014, 0.02],
          [0.0155, 0.025],
          [0.013, 0.029],
          [0, 0.0305, 0],
        ],
        { segments: 18, round: 0.001 },
      ),
      upright(x, y, z),
    );
  else if (style === 'bar') {
    const l = long / 2;
    const at = (t: number, d: number): Vec3 => (standing ? { x, y: y - d, z: z + t } : { x: x + t, y: y - d, z });
    out.add(rod([at(-l, 0.034), at(l, 0.034)], 0.0055, { section: 12 }));
    for (const t of [-l * 0.8, l * 0.8]) out.add(rod([at(t, -0.001), at(t, 0.034)], 0.0042, { section: 10 }));
  } else if (style === 'edge') {
    // A strip folded over the edge of the front, with a lip to pull at.
    const l = long / 2;
    const at = (t0: number, t1: number, near: number, far: number, d0: number, d1: number): Mesh => {
      const [a0, a1] = before ? [-far, -near] : [near, far];
      return standing ? board(x + a0, y - d1, z + t0, x + a1, y - d0, z + t1, 0.0006) : board(x + t0, y - d1, z + a0, x + t1, y - d0, z + a1, 0.0006);
    };
    out
      .add(at(-l, l, -0.01, 0.01, -0.0002, 0.0018))
      .add(at(-l, l, 0.0085, 0.01, 0.0018, 0.018))
      .add(at(-l, l, 0.001, 0.0085, 0.0165, 0.018));
  } else if (style === 'recessed') {
    // A dish let into the front: its rim stands out by hardly anything, its floor lies in its shade.
    const l = Math.max(0.03, long / 2);
    const size = standing ? [0.017, l] : [l, 0.017];
    const bar = 0.004;
    const b = (x0: number, x1: number, z0: number, z1: number, proud: number): void =>
      void out.add(board(x + x0, y - proud, z + z0, x + x1, y + 0.0006, z + z1, 0.0006));
    b(-size[0], -size[0] + bar, -size[1], size[1], 0.0024);
    b(size[0] - bar, size[0], -size[1], size[1], 0.0024);
    b(-size[0] + bar, size[0] - bar, -size[1], -size[1] + bar, 0.0024);
    b(-size[0] + bar, size[0] - bar, size[1] - bar, size[1], 0.0024);
    b(-size[0] + bar, size[0] - bar, -size[1] + bar, size[1] - bar, 0.0004);
  } else if (style === 'cup') {
    // A quarter of a bowl, open below.
    const n = isLight() ? 6 : 14;
    const k = isLight() ? 2 : 5;
    const w = Math.min(0.042, long / 2);
    const points: Vec3[] = [];
    const faces: number[][] = [];
    for (const inner of [0, 0.0018])
      for (let i = 0; i <= n; i++)
        for (let j = 0; j <= k; j++) {
          const a = Math.PI * (i / n);
          const b = (Math.PI / 2) * (j / k);
          points.push({
            x: x + (w - inner) * Math.cos(a),
            y: y - (0.026 - inner) * Math.sin(b) * Math.sin(a) ** 0.6,
            z: z - 0.012 + (0.027 - inner) * Math.cos(b) * Math.sin(a) ** 0.6,
          });
        }
    const at = (side: number, i: number, j: number): number => side * (n + 1) * (k + 1) + i * (k + 1) + j;
    for (let i = 0; i < n; i++) {
      for (let j = 0; j < k; j++) {
        faces.push([at(0, i, j), at(0, i + 1, j), at(0, i + 1, j + 1), at(0, i, j + 1)]);
        faces.push([at(1, i, j), at(1, i, j + 1), at(1, i + 1, j + 1), at(1, i + 1, j)]);
      }
      faces.push([at(0, i, k), at(0, i + 1, k), at(1, i + 1, k), at(1, i, k)]);
      faces.push([at(0, i, 0), at(1, i, 0), at(1, i + 1, 0), at(0, i + 1, 0)]);
    }
    out.add(skin(points, faces, 1));
  }
  return out.build();
}

/** What of a cabinet moves: its front with what hangs on it. */
export interface Moving {
  wood: Mesh;
  glass: Mesh;
  metal: Mesh;
  /** What is behind the front: the box of a drawer. */
  box: Mesh;
  joint: Joint;
}

/** A drawer with its front between two corners, its box behind it as deep as there is room. */
export function drawer(at: Omit<Front, 'style'> & { depth: number; style: FrontStyle; handles: HandleStyle }): Moving {
  const { x0, x1, z0, z1, y, depth, style, handles } = at;
  const face = front({ ...at, style: style === 'glazed' ? 'framed' : style });
  const box = new MeshBuilder();
  const [bx0, bx1, bz0, bz1] = [x0 + 0.016, x1 - 0.016, z0 + 0.014, z1 - Math.min(0.03, (z1 - z0) * 0.2)];
  const back = y + depth - 0.03;
  const t = 0.012;
  // Boxes are seen when they are drawn out, and then from above.
  box.box(bx0, y + 0.0005, bz0, bx0 + t, back, bz1).box(bx1 - t, y + 0.0005, bz0, bx1, back, bz1);
  box
    .box(bx0 + t, back - t, bz0 + 0.008, bx1 - t, back - 0.0005, bz1 - 0.006)
    .box(bx0 + t - 0.004, y + 0.001, bz0 + 0.008, bx1 - t + 0.004, back - 0.004, bz0 + 0.014);
  const metal = new MeshBuilder();
  const long = Math.min(0.16, (x1 - x0) * 0.4);
  const z = handles === 'edge' ? z1 - EDGE_PULL : handles === 'cup' || z1 - z0 < 0.16 ? (z0 + z1) / 2 : z1 - 0.06;
  const f = y - (at.thick ?? 0.02);
  if (handles === 'knob' && x1 - x0 > 0.7) for (const k of [0.25, 0.75]) metal.add(handle(handles, x0 + (x1 - x0) * k, f, z, long, false));
  else metal.add(handle(handles, (x0 + x1) / 2, f, z, long, false));
  return {
    ...face,
    metal: metal.build(),
    box: box.build(),
    joint: { kind: 'slide', at: { x: 0, y: 0, z: 0 }, axis: { x: 0, y: -1, z: 0 }, range: [0, Math.max(0.05, depth * 0.75)] },
  };
}

/** A door between two corners, hung at its left or right. @param level at what height its handle is; in its middle unless said */
export function door(at: Front & { hung: 'left' | 'right'; handles: HandleStyle; level?: number }): Moving {
  const { x0, x1, z0, z1, y, hung, handles, level = (z0 + z1) / 2 } = at;
  const f = y - (at.thick ?? 0.02);
  const edge = handles === 'edge' ? EDGE_PULL : 0.032;
  const x = hung === 'left' ? x1 - edge : x0 + edge;
  const metal = new MeshBuilder().add(handle(handles === 'cup' ? 'knob' : handles, x, f, level, Math.min(0.2, (z1 - z0) * 0.3), true, hung !== 'left'));
  // Hinges show as knuckles where it turns.
  for (const t of z1 - z0 > 1.3 ? [0.1, 0.5, 0.9] : [0.15, 0.85])
    metal.add(post(hung === 'left' ? x0 : x1, y + 0.004, z0 + (z1 - z0) * t - 0.025, z0 + (z1 - z0) * t + 0.025, 0.004, 0.004, 8));
  return {
    ...front(at),
    metal: metal.build(),
    box: new MeshBuilder().build(),
    joint: {
      kind: 'hinge',
      at: { x: hung === 'left' ? x0 : x1, y: f, z: 0 },
      axis: { x: 0, y: 0, z: hung === 'left' ? -1 : 1 },
      range: [0, (100 * Math.PI) / 180],
    },
  };
}
