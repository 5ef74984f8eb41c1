import { prism } from '../geometry/extrude';
import { MeshBuilder, type Mesh } from '../geometry/mesh';
import { isLight } from '../geometry/shapes';
import type { Vec2 } from '../geometry/vec';
import type { Inside, InsideKind } from '../project/schema/cabinets';
import { board } from '../stock/forms/boards';
import { basketOf, type Span } from '../stock/forms/metalwork';
import { loop, rod } from '../stock/forms/skin';
import { post, turned } from '../stock/forms/turned';
import type { Made } from '../stock/types';
import { sharedOut } from './shares';

/** A field of the inside of a cell, and the space it has, metres. */
export interface InsideField {
  /** Its row and its place in it, from above and from the left. */
  row: number;
  column: number;
  kind: InsideKind;
  count: number;
  space: Span;
}

/** The inside of a cell as it is divided: boards between rows and fields, shelves, and what stands in each field. Metres. */
export interface LaidInside {
  fields: InsideField[];
  /** Boards from side to side, by their lower faces; set back where they are shelves of a field. */
  shelves: { x0: number; x1: number; z: number; back: boolean }[];
  dividers: { x: number; z0: number; z1: number }[];
  /** By how much rows or fields need more than there is, metres. */
  lacks: number;
}

/** No field is smaller, metres. */
const LEAST = 0.05;

/** No shelves are made that are nearer to one another, metres. */
const LOWEST_SHELF = 0.08;

/**
 * Divides the inside of a cell: rows share its height less the boards between them, fields the width of their row less its
 * dividers.
 *
 * @param board thickness of what divides it, metres
 */
export function layInside(inside: Inside, space: Span, board: number): LaidInside {
  const out: LaidInside = { fields: [], shelves: [], dividers: [], lacks: 0 };
  const rows = sharedOut(
    space.z1 - space.z0 - (inside.length - 1) * board,
    inside.map((r) => r.height),
    LEAST,
  );
  out.lacks = Math.max(0, -rows.rest);
  let top = space.z1;
  for (const [row, { fields }] of inside.entries()) {
    const last = row === inside.length - 1;
    // Rows and fields that find no room are left out; the last that does takes what is left.
    const foot = last || top - rows.sizes[row] - board - LEAST < space.z0 ? space.z0 : top - rows.sizes[row];
    const widths = sharedOut(
      space.x1 - space.x0 - (fields.length - 1) * board,
      fields.map((f) => f.width),
      LEAST,
    );
    out.lacks = Math.max(out.lacks, -widths.rest);
    let x = space.x0;
    for (const [column, { kind, count }] of fields.entries()) {
      const end = column === fields.length - 1 || x + widths.sizes[column] + board + LEAST > space.x1 ? space.x1 : x + widths.sizes[column];
      out.fields.push({ row, column, kind, count, space: { ...space, x0: x, x1: end, z0: foot, z1: top } });
      if (kind === 'shelves') {
        const each = (top - foot - count * board) / (count + 1);
        if (each >= LOWEST_SHELF) for (let k = 1; k <= count; k++) out.shelves.push({ x0: x, x1: end, z: foot + k * each + (k - 1) * board, back: true });
      }
      if (end === space.x1) break;
      out.dividers.push({ x: end, z0: foot, z1: top });
      x = end + board;
    }
    if (foot === space.z0) break;
    out.shelves.push({ x0: space.x0, x1: space.x1, z: foot - board, back: false });
    top = foot - board;
  }
  return out;
}

/** How far below the board over it a rail for clothes hangs, how thick it is, and how far trousers hang below theirs, metres. */
const RAIL = { below: 0.06, radius: 0.0125, trousers: 0.09 } as const;

/** What keeps free of the sides, of the fronts and of the back, metres. */
const FREE = { side: 0.013, front: 0.03, back: 0.02 } as const;

/** Heights of drawers and baskets inside, and of the shoes on a board that leans, metres. */
const HIGH = { drawer: 0.16, basket: 0.18, bin: 0.42, shoes: 0.19 } as const;

/** What finds no place in a lower field, metres. */
const LOWEST: Readonly<Record<InsideKind, number>> = {
  shelves: LEAST,
  drawers: 0.08,
  rail: 0.12,
  baskets: 0.08,
  bins: 0.15,
  carousel: 0.2,
  plates: 0.08,
  bottles: 0.08,
  shoes: 0.1,
  trousers: 0.16,
  nothing: LEAST,
};

/** Between plates, and between bottles, metres. */
const PITCH = { plates: 0.045, bottles: 0.105 } as const;

/** A box that is open above. */
const boxes = (spans: readonly Span[], thick: number): Mesh => {
  const out = new MeshBuilder();
  for (const { x0, x1, y0, y1, z0, z1 } of spans) {
    out.add(board(x0, y0, z0, x0 + thick, y1, z1)).add(board(x1 - thick, y0, z0, x1, y1, z1));
    out.add(board(x0 + thick, y0, z0, x1 - thick, y0 + thick, z1)).add(board(x0 + thick, y1 - thick, z0, x1 - thick, y1, z1));
    out.add(board(x0 + thick, y0 + thick, z0 + 0.004, x1 - thick, y1 - thick, z0 + 0.012));
  }
  return out.build();
};

/** Spaces one above another from the foot, none higher than is said. */
function stacked({ z0, z1, ...rest }: Span, count: number, most: number): Span[] {
  const each = Math.min(most + 0.03, (z1 - z0) / count);
  return Array.from({ length: count }, (_, k) => ({ ...rest, z0: z0 + k * each + 0.008, z1: z0 + (k + 1) * each - 0.022 })).filter((s) => s.z1 - s.z0 > 0.03);
}

/** Boards that lean to the front, with a lip that holds shoes. */
function leaning({ x0, x1, y0, y1, z0, z1 }: Span, count: number): Mesh {
  const out = new MeshBuilder();
  const each = Math.min(HIGH.shoes, (z1 - z0) / count);
  const t = 0.012;
  for (let k = 0; k < count; k++) {
    const low = z0 + k * each + 0.012;
    const rise = Math.min(0.09, each - 0.05);
    if (rise < 0.02) continue;
    const section: Vec2[] = [
      { x: y0, y: low },
      { x: y1, y: low + rise },
      { x: y1, y: low + rise + t },
      { x: y0 + t, y: low + t },
      { x: y0 + t, y: low + 0.03 },
      { x: y0, y: low + 0.03 },
    ];
    // Its section seen from the right, carried along x.
    out.add(prism([{ outer: section, holes: [] }], x0, x1), [0, 1, 0, 0, 0, 0, 1, 0, 1, 0, 0, 0, 0, 0, 0, 1]);
  }
  return out.build();
}

/** Boards crossed into pigeon-holes for bottles: those that lie go through. */
function crossed({ x0, x1, y0, y1, z0, z1 }: Span): Mesh {
  const out = new MeshBuilder();
  const t = 0.01;
  const [n, m] = [Math.max(1, Math.round((x1 - x0) / PITCH.bottles)), Math.max(1, Math.round((z1 - z0) / PITCH.bottles))];
  const at = (k: number, of: number, from: number, to: number): number => from + ((to - from) * k) / of;
  for (let k = 1; k < m; k++) out.add(board(x0, y0, at(k, m, z0, z1) - t / 2, x1, y1, at(k, m, z0, z1) + t / 2));
  for (let r = 0; r < m; r++)
    for (let k = 1; k < n; k++) {
      const x = at(k, n, x0, x1);
      out.add(board(x - t / 2, y0 + 0.0004, at(r, m, z0, z1) + (r > 0 ? t / 2 : 0), x + t / 2, y1, at(r + 1, m, z0, z1) - (r < m - 1 ? t / 2 : 0)));
    }
  return out.build();
}

/**
 * What stands in a field of the inside of a unit, in the axes of its space; shelves and what divides fields are boards of the
 * carcass.
 *
 * @param setback how far things stay behind the front edges of the boards, metres
 */
export function insideParts({ kind, count, space }: Pick<InsideField, 'kind' | 'count' | 'space'>, setback: number): Made[] {
  const { x0, x1, y0, y1, z0, z1 } = space;
  const [wide, deep] = [x1 - x0, y1 - y0];
  if (wide < LEAST || z1 - z0 < LOWEST[kind] || deep < LEAST) return [];
  const free: Span = { x0: x0 + FREE.side, x1: x1 - FREE.side, y0: y0 + setback, y1: y1 - FREE.back, z0, z1 };
  const n = Math.max(1, count);
  switch (kind) {
    case 'rail': {
      const [y, z] = [(y0 + y1) / 2, z1 - RAIL.below];
      const rail = rod(
        [
          { x: x0 + 0.002, y, z },
          { x: x1 - 0.002, y, z },
        ],
        RAIL.radius,
        { section: 16 },
      );
      const out = new MeshBuilder().add(rail);
      for (const [a, b] of [
        [x0, x0 + 0.006],
        [x1 - 0.006, x1],
      ])
        out.add(board(a, y - 0.022, z - 0.022, b, y + 0.022, z + 0.022));
      return [{ part: 'wire', mesh: out.build() }];
    }
    case 'drawers':
      return [{ part: 'drawers', mesh: boxes(stacked(free, n, HIGH.drawer), 0.014) }];
    case 'baskets': {
      const out = new MeshBuilder();
      for (const span of stacked(free, n, HIGH.basket)) out.add(basketOf(span));
      return [{ part: 'wire', mesh: out.build() }];
    }
    case 'bins': {
      const each = (free.x1 - free.x0) / n;
      const top = Math.min(free.z1 - 0.03, free.z0 + HIGH.bin);
      const all = Array.from({ length: n }, (_, k) => ({ ...free, x0: free.x0 + k * each + 0.004, x1: free.x0 + (k + 1) * each - 0.004, z1: top }));
      return [{ part: 'bins', mesh: boxes(all, 0.004) }];
    }
    case 'carousel': {
      const r = Math.min(free.x1 - free.x0, free.y1 - free.y0) / 2 - 0.004;
      const [x, y] = [(free.x0 + free.x1) / 2, (free.y0 + free.y1) / 2];
      const trays = new MeshBuilder();
      const wire = new MeshBuilder().add(post(x, y, z0, z1 - 0.004, 0.012, 0.012, 14));
      for (let k = 0; k < n; k++) {
        const z = z0 + 0.02 + ((z1 - z0 - 0.1) * k) / n;
        trays.add(
          turned(
            [
              [0, z],
              [r, z],
              [r, z + 0.012],
              [0, z + 0.012],
            ],
            { x, y, segments: isLight() ? 18 : 48, round: 0.001 },
          ),
        );
        const round = isLight() ? 16 : 40;
        wire.add(
          loop(
            Array.from({ length: round }, (_, i) => {
              const a = (2 * Math.PI * i) / round;
              return { x: x + (r - 0.003) * Math.cos(a), y: y + (r - 0.003) * Math.sin(a), z: z + 0.05 };
            }),
            0.003,
          ),
        );
      }
      return [
        { part: 'carcass', mesh: trays.build() },
        { part: 'wire', mesh: wire.build() },
      ];
    }
    case 'plates': {
      const out = new MeshBuilder();
      const across = Math.max(1, Math.floor((wide - 0.02) / PITCH.plates));
      for (const y of [y0 + deep * 0.3, y0 + deep * 0.7]) {
        out.add(board(x0, y - 0.012, z0, x1, y + 0.012, z0 + 0.018));
        for (let k = 0; k <= across; k++) {
          const x = x0 + 0.01 + ((wide - 0.02) * k) / across;
          out.add(post(x, y, z0 + 0.0176, Math.min(z1 - 0.02, z0 + 0.2), 0.005, 0.005, 8));
        }
      }
      return [{ part: 'carcass', mesh: out.build() }];
    }
    case 'bottles':
      return [{ part: 'carcass', mesh: crossed({ ...space, y0: y0 + 0.002, y1: y1 - 0.002 }) }];
    case 'shoes':
      return [{ part: 'carcass', mesh: leaning({ ...space, y0: y0 + setback, y1: y1 - 0.002 }, n) }];
    case 'trousers': {
      const out = new MeshBuilder();
      const z = z1 - RAIL.trousers;
      for (const x of [free.x0, free.x1 - 0.012]) out.add(board(x, free.y0, z - 0.012, x + 0.012, free.y1, z + 0.012));
      out.add(board(free.x0 + 0.012, free.y0, z - 0.012, free.x1 - 0.012, free.y0 + 0.012, z + 0.03));
      const bars = Math.max(2, count || Math.floor(deep / 0.07));
      for (let k = 1; k <= bars; k++) {
        const y = free.y0 + 0.02 + ((free.y1 - free.y0 - 0.03) * k) / (bars + 0.5);
        out.add(
          rod(
            [
              { x: free.x0 + 0.01, y, z },
              { x: free.x1 - 0.01, y, z },
            ],
            0.005,
            { section: 10 },
          ),
        );
      }
      return [{ part: 'wire', mesh: out.build() }];
    }
    default:
      return [];
  }
}
