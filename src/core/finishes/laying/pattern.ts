import { clipHalf, signedArea } from '../../geometry/polygon';
import type { Ring } from '../../geometry/region';
import { cross, rotate, sub, unit, type Vec2 } from '../../geometry/vec';
import type { Laying } from '../../project/schema';
import { hash } from '../noise';
import { DUST } from '../../units/tolerance';

/** One unit of a pattern: its outline without joints, and where its own length runs. */
export interface PatternUnit {
  /** Convex, counter-clockwise, metres. */
  ring: Ring;
  /** A corner of it, from which its matter is measured. */
  origin: Vec2;
  /** Direction of its length. */
  along: Vec2;
  width: number;
  height: number;
}

/** What repeats of a laid surface: a rectangle of the pattern's own axes and the units that begin in it. */
export interface Tiling {
  period: Vec2;
  /** Angle from the axes of the face to those of the pattern, radians. */
  angle: number;
  units: PatternUnit[];
}

/** The most rows an offset may take until it comes round again. */
const MOST_ROWS = 24;

/** An offset as a fraction with few rows to its period: halves and thirds exactly, any other as near as 24 rows allow. */
export function settleOffset(offset: number): { p: number; q: number } {
  let best = { p: 0, q: 1, error: Math.min(offset, 1 - offset) };
  for (let q = 2; q <= MOST_ROWS; q++) {
    const p = Math.round(offset * q);
    const error = Math.abs(offset - p / q);
    if (error < best.error - DUST) best = { p: p % q, q, error };
  }
  return best;
}

const rect = (x: number, y: number, w: number, h: number): Ring => [
  { x, y },
  { x: x + w, y },
  { x: x + w, y: y + h },
  { x, y: y + h },
];

/** A convex ring with each edge set inwards. */
export function insetConvex(ring: Ring, by: number): Ring {
  let out = ring;
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % ring.length];
    if (Math.hypot(b.x - a.x, b.y - a.y) < DUST) return;
    const d = unit(sub(b, a));
    out = clipHalf(out, (p) => cross(d, sub(p, a)) - by);
  });
  return out;
}

/** A unit from the outline of its cell, which has half a joint on every side. */
function fromCell(cell: Ring, joint: number, along: Vec2 = { x: 1, y: 0 }): PatternUnit {
  const ring = insetConvex(cell, joint / 2);
  const across = { x: -along.y, y: along.x };
  const us = ring.map((p) => p.x * along.x + p.y * along.y);
  const vs = ring.map((p) => p.x * across.x + p.y * across.y);
  const [u0, v0] = [Math.min(...us), Math.min(...vs)];
  return {
    ring,
    along,
    origin: { x: along.x * u0 + across.x * v0, y: along.y * u0 + across.y * v0 },
    width: Math.max(...us) - u0,
    height: Math.max(...vs) - v0,
  };
}

const UP = { x: 0, y: 1 };

type Make = (laying: Laying) => Tiling;

/** A plain tiling of cells that stand upright. */
const upright = (width: number, height: number, units: PatternUnit[]): Tiling => ({ period: { x: width, y: height }, angle: 0, units });

const makers: Record<Laying['pattern'], Make> = {
  stack: ({ width, height, joint }) => {
    const [w, h] = [width + joint, height + joint];
    return upright(w, h, [fromCell(rect(0, 0, w, h), joint)]);
  },

  running: ({ width, height, joint, offset }) => {
    const [w, h] = [width + joint, height + joint];
    const { p, q } = settleOffset(offset);
    return upright(
      w,
      h * q,
      Array.from({ length: q }, (_, row) => fromCell(rect((((row * p) % q) / q) * w, row * h, w, h), joint)),
    );
  },

  // Boards of one length, every row begun somewhere else; end joints of neighbours keep a quarter apart.
  plank: ({ width, height, joint }) => {
    const [w, h] = [width + joint, height + joint];
    const rows = 9;
    let before = 0;
    const units = Array.from({ length: rows }, (_, row) => {
      if (row) before = (before + 0.28 + 0.44 * hash(row, 3, 7)) % 1;
      return fromCell(rect(before * w, row * h, w, h), joint);
    });
    return upright(w, h * rows, units);
  },

  // In axes turned by 45° the pattern of blocks L × W repeats after W√2 and L√2.
  herringbone: ({ width, height, joint }) => {
    const [l, w] = [width + joint, height + joint];
    const turn = (p: Vec2): Vec2 => rotate(p, -Math.PI / 4);
    return upright(w * Math.SQRT2, l * Math.SQRT2, [
      fromCell(rect(0, 0, l, w).map(turn), joint, turn({ x: 1, y: 0 })),
      fromCell(rect(0, w, w, l).map(turn), joint, turn(UP)),
    ]);
  },

  chevron: ({ width, height, joint, angle }) => {
    const c = width * Math.cos(angle) + joint;
    const v = (height + joint) / Math.cos(angle);
    const rise = c * Math.tan(angle);
    const at = (x: number, y: number): Vec2 => ({ x, y });
    const d = { x: Math.cos(angle), y: Math.sin(angle) };
    return upright(2 * c, v, [
      fromCell([at(0, 0), at(c, rise), at(c, rise + v), at(0, v)], joint, d),
      fromCell([at(c, rise), at(2 * c, 0), at(2 * c, v), at(c, rise + v)], joint, { x: d.x, y: -d.y }),
    ]);
  },

  basket: ({ width, height, joint }) => {
    const w = height + joint;
    const n = Math.max(1, Math.round((width + joint) / w));
    const side = n * w;
    const units: PatternUnit[] = [];
    for (const [bx, by] of [
      [0, 0],
      [1, 0],
      [0, 1],
      [1, 1],
    ])
      for (let k = 0; k < n; k++)
        units.push(bx === by ? fromCell(rect(bx * side, by * side + k * w, side, w), joint) : fromCell(rect(bx * side + k * w, by * side, w, side), joint, UP));
    return upright(2 * side, 2 * side, units);
  },

  pinwheel: ({ width, small, joint }) => {
    const s = small + joint;
    const l = Math.max(s * 1.05, width + joint);
    // Four blocks round a small square.
    const w = l - s;
    const side = l + w;
    return upright(side, side, [
      fromCell(rect(0, 0, l, w), joint),
      fromCell(rect(l, 0, w, l), joint, UP),
      fromCell(rect(w, l, l, w), joint),
      fromCell(rect(0, w, w, l), joint, UP),
      fromCell(rect(w, w, s, s), joint),
    ]);
  },

  hexagon: ({ width, joint }) => {
    const d = width + joint;
    const r = d / Math.sqrt(3);
    const hexagon = (x: number, y: number): Ring =>
      Array.from({ length: 6 }, (_, i) => {
        const a = Math.PI / 6 + (i * Math.PI) / 3;
        return { x: x + r * Math.cos(a), y: y + r * Math.sin(a) };
      });
    return upright(d, 3 * r, [fromCell(hexagon(0, 0), joint), fromCell(hexagon(d / 2, 1.5 * r), joint)]);
  },

  octagon: ({ width, small, joint }) => {
    const d = width + joint;
    // The small squares stand on their corners where four octagons meet.
    const c = Math.min(d * 0.45, (small + joint) / Math.SQRT2);
    const octagon: Ring = [
      { x: c, y: 0 },
      { x: d - c, y: 0 },
      { x: d, y: c },
      { x: d, y: d - c },
      { x: d - c, y: d },
      { x: c, y: d },
      { x: 0, y: d - c },
      { x: 0, y: c },
    ];
    const square: Ring = [
      { x: c, y: 0 },
      { x: 0, y: c },
      { x: -c, y: 0 },
      { x: 0, y: -c },
    ];
    return upright(d, d, [fromCell(octagon, joint), fromCell(square, joint, { x: Math.SQRT1_2, y: Math.SQRT1_2 })]);
  },

  // Large and small squares; the pattern repeats along (a, b) and (−b, a), which are square to one another.
  hopscotch: ({ width, small, joint }) => {
    const a = width + joint;
    const b = Math.min(a * 0.95, small + joint);
    const angle = Math.atan2(b, a);
    const turn = (p: Vec2): Vec2 => rotate(p, -angle);
    const side = Math.hypot(a, b);
    const along = turn({ x: 1, y: 0 });
    return {
      period: { x: side, y: side },
      angle,
      units: [fromCell(rect(0, 0, a, a).map(turn), joint, along), fromCell(rect(a, 0, b, b).map(turn), joint, along)],
    };
  },

  flemish: ({ width, height, joint }) => {
    const [l, h] = [width + joint, height + joint];
    const header = (width - joint) / 2 + joint;
    const period = l + header;
    const course = (x: number, y: number): PatternUnit[] => [fromCell(rect(x, y, l, h), joint), fromCell(rect(x + l, y, header, h), joint)];
    return upright(period, 2 * h, [...course(0, 0), ...course(period / 2, h)]);
  },

  english: ({ width, height, joint }) => {
    const [l, h] = [width + joint, height + joint];
    const header = l / 2;
    return upright(l, 2 * h, [
      fromCell(rect(0, 0, l, h), joint),
      fromCell(rect(header / 2, h, header, h), joint),
      fromCell(rect(header * 1.5, h, header, h), joint),
    ]);
  },

  // Courses of stones of one height and different lengths.
  coursed: ({ width, height, joint }) => {
    const h = height + joint;
    const [rows, across] = [6, 4];
    const period = across * (width + joint);
    const units: PatternUnit[] = [];
    for (let row = 0; row < rows; row++) {
      const shares = Array.from({ length: across }, (_, k) => 0.6 + 0.8 * hash(row, k, 41));
      const total = shares.reduce((sum, v) => sum + v, 0);
      let x = hash(row, 9, 41) * period;
      for (const share of shares) {
        const w = (share / total) * period;
        units.push(fromCell(rect(x, row * h, w, h), joint));
        x += w;
      }
    }
    return upright(period, rows * h, units);
  },

  // Square panels: a frame of four boards, and within it boards woven along the diagonals.
  panel: ({ width, height, joint }) => {
    const side = width + joint;
    const b = Math.min(height + joint, side / 5);
    const units: PatternUnit[] = [
      fromCell(rect(0, 0, side - b, b), joint),
      fromCell(rect(side - b, 0, b, side - b), joint, UP),
      fromCell(rect(b, side - b, side - b, b), joint),
      fromCell(rect(0, b, b, side - b), joint, UP),
    ];
    const inner = rect(b, b, side - 2 * b, side - 2 * b);
    const block = (side - 2 * b) / Math.SQRT2 / 2;
    const boards = Math.max(2, Math.round(block / b));
    const w = block / boards;
    const middle = { x: side / 2, y: side / 2 };
    const turn = (p: Vec2): Vec2 => {
      const q = rotate(p, Math.PI / 4);
      return { x: middle.x + q.x, y: middle.y + q.y };
    };
    for (let i = -2; i < 2; i++)
      for (let j = -2; j < 2; j++)
        for (let k = 0; k < boards; k++) {
          const lying = (i + j) % 2 === 0;
          const cell = (lying ? rect(i * block, j * block + k * w, block, w) : rect(i * block + k * w, j * block, w, block)).map(turn);
          let ring = cell;
          inner.forEach((a, n) => {
            const d = unit(sub(inner[(n + 1) % 4], a));
            ring = clipHalf(ring, (p) => cross(d, sub(p, a)));
          });
          if (ring.length > 2 && signedArea(ring) > b * b * 0.02) units.push(fromCell(ring, joint, rotate(lying ? { x: 1, y: 0 } : UP, Math.PI / 4)));
        }
    return upright(
      side,
      side,
      units.filter((u) => u.ring.length > 2),
    );
  },

  own: ({ cell, joint, width, height }) => {
    if (!cell) return upright(width, height, [fromCell(rect(0, 0, width, height), joint)]);
    return upright(
      cell.width,
      cell.height,
      cell.units.map((u) => fromCell(rect(u.x, u.y, u.width, u.height), joint, u.width >= u.height ? { x: 1, y: 0 } : UP)),
    );
  },
};

const made = new WeakMap<Laying, Tiling>();

/** What repeats of a laying, remembered by the laying. */
export function tilingOf(laying: Laying): Tiling {
  let tiling = made.get(laying);
  if (!tiling) {
    tiling = makers[laying.pattern](laying);
    tiling.units = tiling.units.filter((u) => u.ring.length > 2);
    made.set(laying, tiling);
  }
  return tiling;
}

/** Share of a laid surface that is joint. */
export function jointShare(laying: Laying): number {
  const { period, units } = tilingOf(laying);
  return Math.max(0, 1 - units.reduce((sum, u) => sum + signedArea(u.ring), 0) / (period.x * period.y));
}
