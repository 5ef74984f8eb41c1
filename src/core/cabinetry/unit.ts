import { prism, shiftBy } from '../geometry/extrude';
import { MeshBuilder, type Mesh } from '../geometry/mesh';
import { isLight } from '../geometry/shapes';
import type { Joint } from '../geometry/joint';
import type { Vec2 } from '../geometry/vec';
import type { Band, Cabinet, Cell, Construction, Fitting, FrontGrid, FrontLook } from '../project/schema/cabinets';
import { board, front as frontMesh, handle, timber } from '../stock/forms/boards';
import { post } from '../stock/forms/turned';
import type { Made, PieceSize } from '../stock/types';
import { carcassOf, type Carcass, type Panel } from './carcass';
import { DRAWER_BOXES, RUNNERS } from './figures';
import { placeHandles, type Holding } from './handles';
import { fittingParts, isLetIn, isWithoutCarcass, isWithoutFronts, placeFittings, type PlacedFitting } from './fittings';
import { insideParts, layInside } from './inside';
import { isDrawn, layFront, type LaidCell, type LaidFront, type Leaf } from './front';

/** A unit of a run as it is made. */
export interface UnitMade {
  front: LaidFront;
  carcass: Carcass;
  /** What is built into it. */
  fittings: PlacedFitting[];
  /** Its parts about its axes: x from its left side seen from before it, y from its back to its front (less than nothing), z above the floor or the foot of a wall unit. */
  parts: Made[];
}

/** Legs of frameless units: how far in from the plinth, the back and the sides, metres. */
const LEG_IN = { plinth: 0.045, back: 0.07, side: 0.05 } as const;

/** How far doors open, radians; flaps and pull-outs as well as they can. */
const OPEN = (105 * Math.PI) / 180;
const FLAP = (90 * Math.PI) / 180;

/** Sides of drawer boxes, and the room for their runners beside them, metres. */
const BOX = { side: 0.012, runner: 0.013 } as const;

/**
 * All parts of a unit: its carcass board by board, its fronts with what hangs on them, drawers, legs. What opens is made shut and
 * has its joint.
 *
 * @param width, height, depth of its carcass, metres
 * @param hangs where a single door hangs that nobody has said
 * @param fittings what is built into it
 * @param clad sides that are seen
 * @param backless it has no back
 * @param banded the edging of its boards is of another finish than these: it is a part of its own
 */
export function makeUnit(
  grid: FrontGrid,
  { width, height, depth }: { width: number; height: number; depth: number },
  band: Band,
  made: Construction,
  look: FrontLook,
  hangs: 'left' | 'right' = 'left',
  fittings: readonly Fitting[] = [],
  clad: readonly ('left' | 'right')[] = [],
  { backless = false, banded = false }: { backless?: boolean; banded?: boolean } = {},
): UnitMade {
  const unit = { band, front: grid, fittings: [...fittings] };
  const front = layFront(grid, width, height, band, made, hangs);
  const placed = placeFittings(unit, { width, height, depth }, front, made);
  const lift = band === 'wall' ? 0 : made.plinth;
  const carcass = unitCarcass({ ...unit, backless }, { width, height, depth }, made, front, placed);
  const boards = new MeshBuilder();
  const seen = new MeshBuilder();
  // A side that no neighbour covers is of the fronts, as the frame before the carcass is.
  const isClad = ({ name, min }: Panel): boolean => name === 'side' && clad.includes(min.x < width / 2 ? 'left' : 'right');
  const edges = new MeshBuilder();
  for (const panel of carcass.panels) {
    const clad = panel.board === 'frame' || isClad(panel);
    const strip = banded && !clad && panel.edged.includes('front') ? edgingOf(panel, made.edging) : null;
    (clad ? seen : boards).add(panelMesh(strip?.rest ?? panel), shiftBy(0, 0, lift));
    if (strip) edges.add(strip.mesh, shiftBy(0, 0, lift));
  }
  const parts: Made[] = [
    { part: 'carcass', mesh: boards.build() },
    { part: 'edges', mesh: edges.build() },
    { part: 'fronts', mesh: seen.build() },
  ];
  if (!isWithoutFronts(unit)) for (const cell of front.cells) parts.push(...closing(cell, carcass, band, made, look, lift, depth));
  for (const field of carcass.fields) parts.push(...insideParts(field, made.setback).map(({ part, mesh }) => ({ part, mesh: lifted(mesh, lift) })));
  if (lift > 0 && carcass.panels.length && carcass.foot === 0 && made.stands !== 'hung')
    parts.push(made.stands === 'feet' ? { part: 'feet', mesh: feet(width, depth, lift) } : { part: 'legs', mesh: legs(width, depth - made.toe, lift) });
  parts.push(...fittingParts(placed));
  return { front, carcass, fittings: placed, parts: parts.filter((p) => p.mesh.indices.length) };
}

const lifted = (mesh: Mesh, by: number): Mesh => (by === 0 ? mesh : new MeshBuilder().add(mesh, shiftBy(0, 0, by)).build());

/** The boards of a unit, with room for what is built into it; none where something else stands or hangs there. */
export function unitCarcass(
  unit: Pick<Cabinet, 'band' | 'front' | 'fittings' | 'backless'>,
  { width, height, depth }: PieceSize,
  made: Construction,
  front: LaidFront,
  placed: readonly PlacedFitting[],
): Carcass {
  const { band } = unit;
  const lift = band === 'wall' ? 0 : made.plinth;
  const heights = (of: (p: PlacedFitting) => boolean): { z0: number; z1: number }[] =>
    placed.filter(of).map((p) => ({ z0: p.at.z - lift, z1: p.at.z - lift + p.size.height }));
  const whole = carcassOf(
    width,
    height,
    depth,
    band,
    made,
    front,
    isLetIn(unit.fittings),
    heights((p) => p.how === 'inside'),
  );
  if (isWithoutCarcass(unit)) return { ...whole, panels: [] };
  if (unit.backless) return { ...whole, panels: whole.panels.filter((p) => p.name !== 'back') };
  // Behind what is built in there is no back: it is as deep as its housing, and air goes up behind it.
  const open = heights((p) => p.how === 'inside' || ((p.how === 'cell' || p.how === 'raised') && p.size.depth > depth - made.void - made.back));
  return open.length ? { ...whole, panels: whole.panels.flatMap((p) => (p.name === 'back' ? backsBeside(p, open) : [p])) } : whole;
}

/** No back is made that is lower, metres. */
const LOWEST_BACK = 0.08;

/** What is left of a back above and below what is built in before it. */
function backsBeside(back: Panel, open: readonly { z0: number; z1: number }[]): Panel[] {
  const out: Panel[] = [];
  let from = back.min.z;
  for (const { z0, z1 } of [...open].sort((a, b) => a.z0 - b.z0).concat({ z0: back.max.z, z1: back.max.z })) {
    if (z0 - from > LOWEST_BACK) out.push({ ...back, min: { ...back.min, z: from }, max: { ...back.max, z: Math.min(z0, back.max.z) } });
    from = Math.max(from, z1);
  }
  return out;
}

/** A board as it is seen: edges rounded in pictures, its notch cut out. Grooves are filled by what is let into them. */
export function panelMesh({ min, max, notch, board: kind }: Panel): Mesh {
  if (!notch) return (kind === 'frame' ? timber : board)(min.x, min.y, min.z, max.x, max.y, max.z);
  // Its outline seen from the right, front at the left: (y, z), cut out below at the front.
  const step = min.z + notch.high;
  const outline = [
    { x: min.y + notch.deep, y: min.z },
    { x: max.y, y: min.z },
    { x: max.y, y: max.z },
    { x: min.y, y: max.z },
    { x: min.y, y: step },
    { x: min.y + notch.deep, y: step },
  ];
  // The outline bulges inwards at the notch: its edges stay sharp.
  return new MeshBuilder().add(prism([{ outer: outline, holes: [] }], min.x, max.x), [0, 1, 0, 0, 0, 0, 1, 0, 1, 0, 0, 0, 0, 0, 0, 1]).build();
}

/** A board without the edging at its front, and that edging; a board that is notched for toes has it above its notch alone. */
function edgingOf(panel: Panel, thick: number): { rest: Panel; mesh: Mesh } | null {
  const { min, max, notch } = panel;
  if (thick <= 0 || max.y - min.y <= thick) return null;
  const foot = min.z + (notch?.high ?? 0);
  return {
    rest: { ...panel, min: { ...min, y: min.y + thick }, ...(notch ? { notch: { ...notch, deep: notch.deep - thick } } : {}) },
    mesh: new MeshBuilder().box(min.x, min.y, foot, max.x, min.y + thick, max.z).build(),
  };
}

/** @param depth to the face of the plinth, metres */
function legs(width: number, depth: number, high: number): Mesh {
  const out = new MeshBuilder();
  for (const x of [LEG_IN.side, width - LEG_IN.side])
    for (const y of [-depth + LEG_IN.plinth, -LEG_IN.back]) {
      out.add(post(x, y, 0, high + 0.0004, 0.02, 0.02, 14));
      if (!isLight()) out.add(post(x, y, 0, 0.008, 0.03, 0.028, 18));
    }
  return out.build();
}

/** Radii of feet at the floor and under the carcass, and how far their middles lie in from its edges, metres. */
export const FOOT = { low: 0.014, high: 0.021, in: 0.032 } as const;

/** A foot that is seen, turned to a taper. */
export const footAt = ({ x, y }: Vec2, high: number): Mesh => post(x, y, 0, high + 0.0004, FOOT.low, FOOT.high, isLight() ? 12 : 24);

/** Feet at the corners of a carcass. */
function feet(width: number, depth: number, high: number): Mesh {
  const out = new MeshBuilder();
  for (const x of [FOOT.in, width - FOOT.in]) for (const y of [-depth + FOOT.in, -FOOT.in]) out.add(footAt({ x, y }, high));
  return out.build();
}

/** What closes a cell, with what moves along. */
function closing({ cell, leaves, field }: LaidCell, carcass: Carcass, band: Band, made: Construction, look: FrontLook, lift: number, depth: number): Made[] {
  const { inside } = carcass;
  // Laid on, a front lies before the carcass or its frame; inset, it is flush with these.
  const back = made.lies === 'inset' ? -depth + made.front : -depth - 0.0004;
  const room = inside.y1 - Math.max(inside.y0, back);
  return leaves.flatMap((leaf): Made[] => {
    const at = { x0: leaf.x0, x1: leaf.x1, z0: leaf.z0 + lift, z1: leaf.z1 + lift, y: back, thick: made.front };
    const drawn = isDrawn(cell);
    const { wood, glass, metal, fixed } = leafParts(leaf, at, look, {
      glazed: cell.kind === 'glazed',
      drawn,
      band,
      held: cell.held,
      handled: cell.kind !== 'panel',
    });
    const joint = leaf.pocket ? pocketJoint(leaf, at, made, room) : jointOf(leaf, at, drawn, room);
    const parts: Made[] = [
      { part: 'fronts', mesh: wood, joint },
      { part: 'glass', mesh: glass, joint },
      { part: 'handles', mesh: metal, joint: fixed ? undefined : joint },
    ];
    if (drawn && cell.inside.length) parts.push(...pulledOut(cell, leaf, field, carcass.inside, back, lift, made.board).map((p) => ({ ...p, joint })));
    else if (drawn)
      parts.push({ part: 'drawers', mesh: drawerBox(leaf, field, inside, back, lift, leaf.hand === 'pull-out' ? Math.max(1, cell.shelves) : 1), joint });
    return parts;
  });
}

/** Where a leaf is: its edges, and its back. */
type At = { x0: number; x1: number; z0: number; z1: number; y: number };

function jointOf(leaf: Leaf, { x0, x1, z0, z1, y }: At, drawn: boolean, room: number): Joint | undefined {
  if (drawn) return { kind: 'slide', at: { x: 0, y: 0, z: 0 }, axis: { x: 0, y: -1, z: 0 }, range: [0, Math.max(0.1, runnerFor(room) * 0.9)] };
  const [left, right, up, down] = [x0, x1, z1, z0];
  switch (leaf.hand) {
    case 'left':
      return { kind: 'hinge', at: { x: left, y, z: 0 }, axis: { x: 0, y: 0, z: -1 }, range: [0, OPEN] };
    case 'right':
      return { kind: 'hinge', at: { x: right, y, z: 0 }, axis: { x: 0, y: 0, z: 1 }, range: [0, OPEN] };
    case 'up':
      return { kind: 'hinge', at: { x: 0, y, z: up }, axis: { x: -1, y: 0, z: 0 }, range: [0, FLAP] };
    case 'down':
      return { kind: 'hinge', at: { x: 0, y, z: down }, axis: { x: 1, y: 0, z: 0 }, range: [0, FLAP] };
    case 'sliding':
      return { kind: 'slide', at: { x: 0, y: 0, z: 0 }, axis: { x: 1, y: 0, z: 0 }, range: [0, right - left] };
    default:
      return undefined;
  }
}

/** How far the axis of a door that goes into its pocket lies from its edge, beyond the side of its unit; and what of it stays out, metres. */
const POCKET = { beside: 0.004, out: 0.05 } as const;

/** A door that turns to a right angle, then slides back between the side of its unit and its shelves. */
function pocketJoint({ hand }: Pick<Leaf, 'hand'>, { x0, x1, y }: At, { board: side, front }: Construction, room: number): Joint {
  const off = side + front + POCKET.beside;
  return {
    kind: 'hinge',
    at: { x: hand === 'left' ? x0 + off : x1 - off, y, z: 0 },
    axis: { x: 0, y: 0, z: hand === 'left' ? -1 : 1 },
    range: [0, Math.PI / 2],
    then: { axis: { x: 0, y: 1, z: 0 }, by: Math.max(0, Math.min(x1 - x0 - off - POCKET.out, room - 0.02)) },
  };
}

/** What is left free at the edge of a front that has no handle, and how thick the rail in its shade is, metres. */
const RAIL = { free: 0.02, thick: 0.004 } as const;

type Edge = 'top' | 'foot' | 'left' | 'right';

/** The edge by which a front without a handle is pulled: its top, the foot of what hangs or lifts, the free side of tall doors. */
const pulledAt = ({ hand }: Pick<Leaf, 'hand'>, { z0, z1 }: At, drawn: boolean, band: Band): Edge => {
  if (drawn || hand === 'down' || hand === null) return 'top';
  if (hand === 'up') return 'foot';
  if (z1 - z0 > 1.2) return hand === 'left' ? 'right' : 'left';
  return band === 'wall' ? 'foot' : 'top';
};

/** A front without a handle: it ends before its edge, and a rail runs there in its shade. */
function railed(leaf: Pick<Leaf, 'hand'>, whole: At, drawn: boolean, band: Band): { at: At; metal: Mesh } {
  const { x0, x1, z0, z1, y } = whole;
  const [a, b] = [y - RAIL.thick, y - 0.0002];
  switch (pulledAt(leaf, whole, drawn, band)) {
    case 'top':
      return { at: { ...whole, z1: z1 - RAIL.free }, metal: board(x0, a, z1 - RAIL.free, x1, b, z1) };
    case 'foot':
      return { at: { ...whole, z0: z0 + RAIL.free }, metal: board(x0, a, z0, x1, b, z0 + RAIL.free) };
    case 'left':
      return { at: { ...whole, x0: x0 + RAIL.free }, metal: board(x0, a, z0, x0 + RAIL.free, b, z1) };
    case 'right':
      return { at: { ...whole, x1: x1 - RAIL.free }, metal: board(x1 - RAIL.free, a, z0, x1, b, z1) };
  }
}

/** A leaf with its wood, its glass, and what one takes hold of it by. @param handled whether it has a handle */
export function leafParts(
  leaf: Pick<Leaf, 'hand' | 'second'>,
  whole: At & { thick: number },
  look: FrontLook,
  { glazed, handled, ...holding }: Holding & { glazed: boolean; handled: boolean },
): { wood: Mesh; glass: Mesh; metal: Mesh; fixed: boolean } {
  const { stile, rail, panes, fronts } = look;
  const form = { style: glazed ? ('glazed' as const) : fronts, stile, rail, panes };
  if (look.handles === 'rail' && handled) {
    const { at, metal } = railed(leaf, whole, holding.drawn, holding.band);
    return { ...frontMesh({ ...at, thick: whole.thick, ...form }), metal, fixed: true };
  }
  const metal = new MeshBuilder();
  if (handled)
    for (const { style, x, z, long, upright, before } of placeHandles({ ...leaf, ...whole }, holding, look))
      metal.add(handle(style, x, whole.y - whole.thick, z, long, upright, before));
  return { ...frontMesh({ ...whole, ...form }), metal: metal.build(), fixed: false };
}

/** The longest runner that fits, metres. */
export const runnerFor = (room: number): number => Math.max(RUNNERS[0], ...RUNNERS.filter((r) => r <= room - 0.01));

/** How long a drawer is made in so much room, metres. */
const longFor = (room: number): number => Math.min(runnerFor(room), room - 0.004);

/** The highest box that fits behind a front, metres. */
export const boxFor = (high: number): number => Math.max(DRAWER_BOXES[0], ...DRAWER_BOXES.filter((b) => b <= high - 0.045));

/** What comes out with a front that is pulled: baskets, bins, as its inside is divided. */
function pulledOut(
  cell: Cell,
  leaf: Leaf,
  field: LaidCell['field'],
  { x0, x1, y0, y1, z1 }: Carcass['inside'],
  back: number,
  lift: number,
  thick: number,
): Made[] {
  const f = back + 0.0004;
  const space = {
    x0: Math.max(x0, field.x0) + BOX.runner,
    x1: Math.min(x1, field.x1) - BOX.runner,
    y0: f,
    y1: Math.max(y0, f) + longFor(y1 - Math.max(y0, f)),
    z0: leaf.z0 + 0.018,
    z1: Math.min(leaf.z1, z1) - 0.018,
  };
  return layInside(cell.inside, space, thick).fields.flatMap((own) => insideParts(own, 0).map(({ part, mesh }) => ({ part, mesh: lifted(mesh, lift) })));
}

/** Boxes behind a front: one of a drawer, several of a pull-out, each with a bottom let into its sides. */
function drawerBox(leaf: Leaf, field: LaidCell['field'], { x0, x1, y0, y1 }: Carcass['inside'], back: number, lift: number, count: number): Mesh {
  const out = new MeshBuilder();
  const [a, b] = [Math.max(x0, field.x0) + BOX.runner, Math.min(x1, field.x1) - BOX.runner];
  // It begins at the back of its front.
  const f = back + 0.0004;
  const long = longFor(y1 - Math.max(y0, f));
  const rear = Math.max(y0, f) + long;
  const each = (leaf.z1 - leaf.z0) / count;
  for (let k = 0; k < count; k++) {
    const low = leaf.z0 + lift + k * each + 0.018;
    const high = low + Math.min(boxFor(each), each - 0.03);
    if (high - low < 0.03 || b - a < 0.08) continue;
    const t = BOX.side;
    for (const x of [a, b - t]) out.add(board(x, f, low, x + t, rear, high));
    out.add(board(a + t, f, low, b - t, f + t, high - 0.0004)).add(board(a + t, rear - t, low + 0.012, b - t, rear - 0.0004, high - 0.006));
    out.add(board(a + t - 0.004, f + t - 0.004, low + 0.012, b - t + 0.004, rear - t + 0.004, low + 0.02));
  }
  return out.build();
}
