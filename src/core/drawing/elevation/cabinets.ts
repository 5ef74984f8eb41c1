import { fittingsIn, wallFoot, type AssembledUnit } from '../../cabinetry/assemble';
import { isWithoutFronts } from '../../cabinetry/fittings';
import { boolean, clipHalf } from '../../geometry/polygon';
import { makeParts } from '../../stock/stock';
import type { DerivedRun } from '../../cabinetry/derive';
import { isDrawn, layFront, type Field } from '../../cabinetry/front';
import { handleField, handlesIn, type PlacedHandle } from '../../cabinetry/handles';
import type { Stretch } from '../../cabinetry/leg';
import { stretchOn, type BackLine } from '../../cabinetry/run';
import type { WallSide } from '../../shell/wall-types';
import { cross, distance, dot, sub, unit as unitVector, type Vec2 } from '../../geometry/vec';
import { FOOT } from '../../cabinetry/unit';
import type { Cabinet, Construction, FrontLook, Hand, Leg } from '../../project/schema/cabinets';
import type { PieceSize } from '../../stock/types';
import type { DressedFace } from '../../shell/dress/dressed';
import { NEAR } from '../../units/tolerance';
import { carry, type DisplayItem, type Pen } from '../display';
import { hangingLines } from './opening';
import { frontOutline, nearestOf } from './outline';
import { faceAxes, type FaceAxes } from './pieces';
import type { Placed } from './unroll';

const rectangle = ({ x0, x1, z0, z1 }: Field): Vec2[] => [
  { x: x0, y: z0 },
  { x: x1, y: z0 },
  { x: x1, y: z1 },
  { x: x0, y: z1 },
];

/** At which edge of its front a door hangs; what slides or is pulled out hangs at none. */
const HANGS: Readonly<Partial<Record<Hand, 'start' | 'end' | 'top' | 'foot'>>> = { left: 'start', right: 'end', up: 'top', down: 'foot' };

/** A box with its outline. */
const solid = (box: Field, entity: string, pen: Pen = 0.25): DisplayItem[] => [
  { kind: 'fill', rings: [rectangle(box)], ink: 'bare', entity, layer: 'piece' },
  { kind: 'lines', rings: [rectangle(box)], ink: 'line', pen, entity, layer: 'piece' },
];

/**
 * A run as it is seen in front of one of its walls: carcasses and fronts, with the lines that meet where doors hang (ISO 7518:
 * unbroken, they open towards whoever looks), the edge of the worktop, the plinth. Metres along the face from its left end,
 * above the floor of the level.
 */
export function drawRunUpright(derived: DerivedRun, face: DressedFace): DisplayItem[] {
  const { run, legs, units, worktop, id, step } = derived;
  const axes = faceAxes(face);
  const side = face.side;
  if (!axes || !side) return [];
  const { made } = run;
  const top = made.plinth + made.base.height;
  return run.legs.flatMap((leg, i): DisplayItem[] => {
    if (!runsBefore(leg, side, legs[i], axes)) return [];
    const shift = dot(sub(legs[i].from, axes.origin), axes.right);
    const here = units.flatMap((own) => {
      const stretch = own.unit.bare === 'space' ? null : stretchOn(own.placed, legs, i);
      return stretch ? [{ own, stretch }] : [];
    });
    const items = [
      ...here.flatMap(({ own, stretch: { from, to } }) => (own.unit.band !== 'wall' && !isWithoutFronts(own.unit) ? standsOn({ from, to }, made, id) : [])),
      ...here.flatMap(({ own, stretch }) => drawUnit(derived, own, stretch, own.placed.leg === i)),
      ...edges(derived, i),
      ...worktop.stretches.flatMap((s) => (s.leg === i ? solid({ x0: s.from, x1: s.to, z0: top, z1: top + made.worktop.thickness }, id) : [])),
      ...jointsUpright(derived, i, top),
      ...infillUpright(derived, i),
    ];
    return carry(items, (q) => ({ x: q.x + shift, y: q.y + step }));
  });
}

/** What the units of a stretch stand on: a plinth, feet; nothing under what hangs. */
function standsOn({ from, to }: Stretch, { stands, plinth }: Construction, id: string): DisplayItem[] {
  if (plinth <= 0 || stands === 'hung') return [];
  if (stands === 'plinth') return solid({ x0: from, x1: to, z0: 0, z1: plinth }, id);
  return [from + FOOT.in, to - FOOT.in].flatMap((x): DisplayItem[] => {
    const ring = [
      { x: x - FOOT.low, y: 0 },
      { x: x + FOOT.low, y: 0 },
      { x: x + FOOT.high, y: plinth },
      { x: x - FOOT.high, y: plinth },
    ];
    return [{ kind: 'lines', rings: [ring], ink: 'line', pen: 0.18, entity: id, layer: 'piece' }];
  });
}

/** Boards that close what is left up to the ceiling, as far as they lie along a leg. */
function infillUpright({ trim, legs, id }: DerivedRun, leg: number): DisplayItem[] {
  const { from, to } = legs[leg];
  const d = unitVector(sub(to, from));
  return trim.infills.flatMap(({ ring, z0, z1 }) => {
    const [xs, ys] = [ring.map((p) => dot(sub(p, from), d)), ring.map((p) => cross(d, sub(p, from)))];
    const [x0, x1] = [Math.min(...xs), Math.max(...xs)];
    return x1 - x0 > Math.max(...ys) - Math.min(...ys) ? solid({ x0, x1, z0, z1 }, id, 0.18) : [];
  });
}

/** Joints of the worktop across a leg, as short lines on its edge. */
function jointsUpright({ worktop, legs, run, id }: DerivedRun, leg: number, top: number): DisplayItem[] {
  const { from, to } = legs[leg];
  const d = unitVector(sub(to, from));
  return worktop.joints.flatMap(({ corner, lines }) =>
    lines.flatMap(([p, q]): DisplayItem[] => {
      const [x, y] = [dot(sub(p, from), d), dot(sub(q, from), d)];
      // In corners it is the side of a slab one sees, or its end.
      if (corner || Math.abs(x - y) > NEAR || Math.abs(cross(sub(p, from), d)) > 1.5) return [];
      const points = [
        { x, y: top },
        { x, y: top + run.made.worktop.thickness },
      ];
      return [{ kind: 'line', points, closed: false, ink: 'line', pen: 0.18, entity: id, layer: 'piece' }];
    }),
  );
}

/** A unit whose front is seen in an elevation: the lower left corner of its carcass. Metres. */
export interface FrontUpright {
  derived: DerivedRun;
  own: AssembledUnit;
  at: Vec2;
}

/** The units whose fronts are seen before one of the faces of an elevation, as they are drawn there. */
export function frontsUpright(derived: DerivedRun, { face, x }: Placed): FrontUpright[] {
  const axes = faceAxes(face);
  const side = face.side;
  if (!axes || !side) return [];
  const { run, legs, units, step } = derived;
  return run.legs.flatMap((leg, i): FrontUpright[] => {
    if (!runsBefore(leg, side, legs[i], axes)) return [];
    const shift = x + dot(sub(legs[i].from, axes.origin), axes.right);
    return units.flatMap((own): FrontUpright[] => {
      if (own.placed.leg !== i || own.unit.bare === 'space') return [];
      return [{ derived, own, at: { x: shift + own.placed.stretch.from, y: step + footOf(own, run.made) } }];
    });
  });
}

/** Height of the foot of a carcass above the floor. */
const footOf = ({ unit }: AssembledUnit, made: Construction): number => (unit.band === 'wall' ? wallFoot(made) : made.plinth);

/** Whether a leg of a run is what one sees before a face. */
const runsBefore = (leg: Leg, side: WallSide, { from }: BackLine, { origin }: FaceAxes): boolean =>
  leg.kind === 'wall' && leg.wall === side.wall && leg.side === side.side && distance(from, origin) <= side.length + NEAR;

/** @param whole whether its front is along this leg */
function drawUnit({ run: { made } }: DerivedRun, own: AssembledUnit, { from, to }: Stretch, whole: boolean): DisplayItem[] {
  const { unit, placed, size } = own;
  const foot = footOf(own, made);
  const entity = unit.id;
  const body = solid({ x0: from, x1: to, z0: foot, z1: foot + size.height }, entity);
  // Of a corner unit its box shows: the next leg stands before its front.
  if (unit.bare || !whole || (placed.corner && placed.corner !== 'blind left' && placed.corner !== 'blind right')) return body;
  if (own.cut.length)
    return belowRoof([...body, ...carry(drawFront(unit, own.look, size, made, entity), (q) => ({ x: q.x + from, y: q.y + foot }))], own, from, foot, made);
  const built = drawFittings(own, made);
  const lift = foot - (unit.band === 'wall' ? 0 : made.plinth);
  const seen = carry(built, (q) => ({ x: q.x + from, y: q.y + lift }));
  // What has a front of its own stands where the unit would be.
  if (isWithoutFronts(unit)) return seen;
  const front = drawFront(unit, own.look, size, made, entity);
  return [...body, ...carry(front, (q) => ({ x: q.x + from, y: q.y + foot })), ...seen];
}

/** Marks of a unit cut off where the roof it is cut to passes its front. */
function belowRoof(items: readonly DisplayItem[], own: AssembledUnit, from: number, foot: number, made: Construction): DisplayItem[] {
  const lift = foot - (own.unit.band === 'wall' ? 0 : made.plinth);
  return own.cut.reduce<DisplayItem[]>(
    (all, { gx, gy, c }) => {
      const room = (p: Vec2): number => gx * (p.x - from) - gy * own.size.depth + c + lift - p.y;
      return all.flatMap((item): DisplayItem[] => {
        if (item.kind === 'fill' || item.kind === 'lines') {
          const rings = item.rings.map((r) => clipHalf(r, room)).filter((r) => r.length > 2);
          return rings.length ? [{ ...item, rings }] : [];
        }
        // Lines to where a door hangs show only where all of them lie on it.
        return item.kind === 'line' && item.points.some((p) => room(p) < 0) ? [] : [item];
      });
    },
    [...items],
  );
}

/** What of the things built into a unit is seen from before it, in its axes: not what is behind its fronts. */
function drawFittings(own: AssembledUnit, made: Construction): DisplayItem[] {
  return fittingsIn(own, made).flatMap(({ item, size, traits, at, how }) => {
    if (how === 'inside' || how === 'behind' || how === 'raised') return [];
    const parts = [...makeParts(item, size, traits)].sort((a, b) => nearestOf(b.mesh) - nearestOf(a.mesh));
    // Of what is let into the worktop only what stands above it is seen.
    const above = how === 'top' || how === 'tap' ? made.plinth + own.size.height + made.worktop.thickness : -Infinity;
    return parts.flatMap(({ mesh }): DisplayItem[] => {
      const whole = frontOutline(mesh).map((r) => ({ outer: moved(r.outer, at), holes: r.holes.map((h) => moved(h, at)) }));
      const shown =
        above === -Infinity ? whole : boolean('intersection', whole, [{ outer: rectangle({ x0: -2, x1: 6, z0: above, z1: above + 3 }), holes: [] }]);
      const rings = shown.flatMap((r) => [r.outer, ...r.holes]);
      if (!rings.length) return [];
      return [
        { kind: 'fill', rings, ink: 'bare', entity: own.unit.id, layer: 'piece' },
        { kind: 'lines', rings, ink: 'thin', pen: 0.18, entity: own.unit.id, layer: 'piece' },
      ];
    });
  });
}

const moved = (ring: readonly Vec2[], at: { x: number; z: number }): Vec2[] => ring.map((p) => ({ x: p.x + at.x, y: p.y + at.z }));

/** Cornices and light rails along one leg, as the strips they are seen as, and panels at its ends. */
function edges({ id, look, legs, trim, sections }: DerivedRun, leg: number): DisplayItem[] {
  const { from, to } = legs[leg];
  const length = distance(from, to);
  const along = { x: (to.x - from.x) / length, y: (to.y - from.y) / length };
  const at = (p: Vec2): number => dot(sub(p, from), along);
  const runsAlong = ({ from: a, to: b }: { from: Vec2; to: Vec2 }): boolean => Math.abs(at(b) - at(a)) > distance(a, b) - NEAR && at(b) > at(a);
  const panels = [...trim.panels, ...trim.falls].flatMap(({ ring, z0, z1 }) => {
    const xs = ring.map(at);
    const off = Math.min(...ring.map((p) => Math.abs((p.x - from.x) * along.y - (p.y - from.y) * along.x)));
    return off < NEAR && Math.max(...xs) > -NEAR && Math.min(...xs) < length + NEAR ? solid({ x0: Math.min(...xs), x1: Math.max(...xs), z0, z1 }, id) : [];
  });
  const strips = (all: typeof trim.cornices, low: number, high: number, out: number): DisplayItem[] =>
    all.flatMap(({ stretches, z }) =>
      stretches.filter(runsAlong).flatMap((s) => solid({ x0: at(s.from) - out, x1: at(s.to) + out, z0: z + low, z1: z + high }, id, 0.18)),
    );
  const cornices = look.cornices.flatMap(({ up, out }, k) => {
    const points = sections[k] ?? [];
    if (!points.length) return [];
    const ys = points.map((p) => p.y);
    return strips(trim.cornices, up + Math.min(...ys), up + Math.max(...ys), out + Math.max(...points.map((p) => p.x)));
  });
  return [...panels, ...cornices, ...(look.pelmet > 0 ? strips(trim.pelmets, -look.pelmet, 0, 0) : [])];
}

/** The outline of a handle: of a knob round. */
const handleRing = (handle: PlacedHandle): Vec2[] => {
  const field = handleField(handle);
  if (handle.style !== 'knob') return rectangle(field);
  const r = (field.x1 - field.x0) / 2;
  return Array.from({ length: 16 }, (_, k) => ({ x: handle.x + r * Math.cos((Math.PI * k) / 8), y: handle.z + r * Math.sin((Math.PI * k) / 8) }));
};

/** What closes a unit, from its lower left corner: leaves, their handles and the frame, with lines to where doors hang. @param size of its carcass, metres */
export function drawFront(
  { front, band }: Pick<Cabinet, 'front' | 'band'>,
  look: FrontLook,
  size: Pick<PieceSize, 'width' | 'height'>,
  made: Construction,
  entity?: string,
): DisplayItem[] {
  const { cells, frame } = layFront(front, size.width, size.height, band, made);
  const leaves = cells.flatMap(({ cell, leaves: all }) =>
    all.map((leaf) => ({ leaf, edge: isDrawn(cell) || leaf.hand === null ? undefined : HANGS[leaf.hand] })),
  );
  const rings = [...frame, ...leaves.map((l) => l.leaf)].map(rectangle);
  const marks: DisplayItem[] = rings.length ? [{ kind: 'lines', rings, ink: 'line', pen: 0.18, entity, layer: 'piece' }] : [];
  for (const { leaf, edge } of leaves)
    if (edge) marks.push({ kind: 'line', points: hangingLines(leaf, edge), closed: false, ink: 'thin', pen: 0.13, entity, layer: 'piece' });
  const lift = band === 'wall' ? 0 : made.plinth;
  const handles = cells.flatMap((c) => handlesIn(c, band, look, lift)).map((h) => handleRing({ ...h, z: h.z - lift }));
  if (handles.length) marks.push({ kind: 'lines', rings: handles, ink: 'line', pen: 0.13, entity, layer: 'piece' });
  return marks;
}
