import { extrude, offsetRing, shiftBy, turnAbout } from '../../geometry/extrude';
import { multiply, type Matrix } from '../../geometry/mesh';
import { boolean } from '../../geometry/polygon';
import { rectangleRegion, type Region } from '../../geometry/region';
import { openingOutline } from '../../project/openings';
import type { Opening } from '../../project/schema';
import type { Vec3 } from '../../geometry/vec';
import { architraves } from './architrave';
import { leafOf, NO_FLIP, type Flip } from './leaf';
import { inWall } from '../../project/opening-stand';
import { fixedPart, wingParts, type OpeningParts, type OpeningSpace, type Wing } from './space';
import { foldsOf, JOINERY, wayOf, type UprightBox } from './sizes';
import { builders, glazing, type Builders } from './glazing';

export function doorParts({ opening, thickness, inside, profile }: OpeningSpace): OpeningParts[] {
  const { width, height, sill, frame: f, sidelights, fanlight, threshold } = opening;
  const half = thickness / 2;
  const into = builders();
  const outline = openingOutline(opening);
  const lining = f.face;
  const w = width / 2;
  // The lining runs along jambs and head; the foot stays free.
  const inner = offsetRing(outline, lining);
  const free = boolean('union', [{ outer: inner, holes: [] }], [rectangleRegion(-w + lining, sill - 1, w - lining, sill + Math.min(lining * 2, height / 4))]);
  const { frame: middle, depth, leaf: face } = inWall(opening, thickness, inside);
  const [back, front] = [middle - depth / 2, middle + depth / 2];
  into.frame.add(extrude(boolean('difference', [{ outer: outline, holes: [] }], free), back, front));
  const way = wayOf(opening);
  const [left, right] = [-w + lining, w - lining];
  const lights = {
    ...opening,
    kind: 'window',
    form: 'fixed',
    panes: { across: 1, up: opening.panes.up },
    handle: 'none',
    frame: { face: lining * 0.7, depth: f.depth },
  } as Opening;
  const lit = { middle, depth: f.depth === 'wall' ? Math.min(thickness, LIGHT) : depth };
  const inward = inside === 'left' ? 1 : -1;
  if (way.foot !== null) {
    into.frame.box(left, back, way.z1, right, front, way.foot);
    const region = boolean('intersection', [{ outer: inner, holes: [] }], [rectangleRegion(left, way.foot, right, sill + height + 1)]);
    for (const r of region) glazing(r.outer, { ...lights, panes: { across: opening.panes.across, up: 1 } }, lit, inward, into);
  }
  for (const end of ['start', 'end'] as const) {
    const light = sidelights[end];
    if (light <= 0) continue;
    const [x0, x1] = end === 'start' ? [left, left + light] : [right - light, right];
    glazing(rectangleRegion(x0, sill, x1, way.z1).outer, lights, lit, inward, into);
    if (end === 'start') into.frame.box(x1, back, sill, way.x0, front, way.z1);
    else into.frame.box(way.x1, back, sill, x0, front, way.z1);
  }
  if (threshold > 0) into.frame.box(-w + lining, -half - 0.01, sill, w - lining, half + 0.01, sill + threshold);
  leaves(opening, { half, back, front, face }, way, fanlight > 0 ? null : { outer: inner, holes: [] }, into);
  const parts: OpeningParts[] = [fixedPart('frame', into.frame.build()), ...wingParts(into.wings, ['leaf'])];
  parts.push(...architraves(opening, thickness, inside, profile));
  if (!into.glass.empty) parts.push(fixedPart('glass', into.glass.build()));
  parts.push(...wingParts(into.wings, ['glass', 'handle']));
  return parts;
}

/** Depth of the fixed lights beside and above a leaf whose lining is as deep as the wall, metres. */
const LIGHT = 0.1;
/** Depth of the stops a leaf shuts against, metres. */
const STOPS = 0.03;

/** Across the wall, metres to the left of its middle. */
interface Across {
  /** Of the thickness of the wall. */
  half: number;
  /** The faces of the frame. */
  back: number;
  front: number;
  /** The face of the leaves at the side they open into. */
  face: number;
}

const UPRIGHT: Vec3 = { x: 0, y: 0, z: 1 };

/** Hangs the leaves of a door in its way: shut by their joints, or as far open as they stand where they fold or tip. */
function leaves(opening: Opening, { half, back, front, face }: Across, way: UprightBox, arch: Region | null, into: Builders): void {
  const { leaf: t, play, foot, stop } = JOINERY;
  const side = opening.swing === 'left' ? 1 : -1;
  const fromStart = opening.hinge === 'start';
  const span = way.x1 - way.x0;
  const z0 = way.z0 + foot;
  const height = way.z1 - play - z0;
  const put = (wing: Omit<Wing, 'grain'>, grain = UPRIGHT): void => void into.wings.push({ ...wing, grain });
  /** A leaf hung at one end of the way, its face where it stands in the wall. @param share of the way it is opened with the door */
  const hang = (atStart: boolean, width: number, share = 1, from = z0, high = height): void => {
    const straight = opening.shape.kind === 'rectangle' || arch === null;
    const x0 = atStart ? way.x0 + play : way.x1 - play - width;
    const shape = straight
      ? undefined
      : boolean('intersection', [{ outer: offsetRing(arch.outer, play), holes: [] }], [rectangleRegion(x0, from, x0 + width, from + high)])[0];
    const local = shape && {
      outer: (atStart ? shape.outer : [...shape.outer].reverse()).map((p) => ({ x: atStart ? p.x - x0 : x0 + width - p.x, y: p.y - from })),
      holes: [],
    };
    // Leaf axes: x from the hinge, y from the flush face inwards. Mirrored for the hand, turned over for the side.
    const meshes = leafOf({ width, height: high, outline: local }, opening, { at: 1.0 - (from - way.z0), flip: { x: side > 0 === atStart, y: false } });
    const hinge = { x: atStart ? way.x0 + play : way.x1 - play, y: face, z: from };
    // For the left side y points from the left face down to the middle: half a turn about the upright does it.
    const place: Matrix = side > 0 ? [-1, 0, 0, 0, 0, -1, 0, 0, 0, 0, 1, 0, hinge.x, hinge.y, hinge.z, 1] : shiftBy(hinge.x, hinge.y, hinge.z);
    const axis = { x: 0, y: 0, z: (atStart ? 1 : -1) * side };
    put({ meshes, at: place, joint: { kind: 'hinge', at: hinge, axis, range: [0, Math.PI / 2], share } });
  };
  /** What the leaves shut against, as deep as the frame has room for behind them. */
  const stops = (): void => {
    const y = face - side * t;
    const end = Math.max(back, Math.min(front, y - side * STOPS));
    if (side * (y - end) < stop / 2) return;
    const [y0, y1] = [Math.min(y, end), Math.max(y, end)];
    into.frame.box(way.x0, y0, way.z0, way.x0 + stop, y1, way.z1).box(way.x1 - stop, y0, way.z0, way.x1, y1, way.z1);
    if (opening.shape.kind === 'rectangle') into.frame.box(way.x0 + stop, y0, way.z1 - stop, way.x1 - stop, y1, way.z1);
  };
  const plain = (width: number, flip: Flip = NO_FLIP): Wing['meshes'] => leafOf({ width, height }, opening, { flip });
  const along: Vec3 = { x: fromStart ? -1 : 1, y: 0, z: 0 };
  switch (opening.form) {
    case 'pair':
    case 'unequal': {
      const share = opening.form === 'pair' ? 0.5 : 2 / 3;
      const free = span - 3 * play;
      hang(fromStart, free * share);
      hang(!fromStart, free * (1 - share), opening.form === 'pair' ? 1 : 0);
      stops();
      return;
    }
    case 'stable': {
      const low = height * 0.5 - play / 2;
      hang(fromStart, span - 2 * play, 0, z0, low);
      hang(fromStart, span - 2 * play, 1, z0 + low + play, height - low - play);
      stops();
      return;
    }
    case 'sliding': {
      // Before the face of the wall, a little wider than the way, on a rail.
      const width = span + 0.06;
      const y = side > 0 ? half + 0.012 : -half - 0.012 - t;
      const at = { x: way.x0 - 0.03, y, z: z0 };
      put({ meshes: plain(width), at: shiftBy(at.x, at.y, at.z), joint: { kind: 'slide', at, axis: along, range: [0, span], share: 1 } });
      const rail = fromStart ? [way.x0 - span - 0.05, way.x1 + 0.05] : [way.x0 - 0.05, way.x1 + span + 0.05];
      into.frame.box(rail[0], Math.min(y, y + t), way.z1 + 0.01, rail[1], Math.max(y, y + t), way.z1 + 0.06);
      return;
    }
    case 'pocket': {
      const at = { x: way.x0, y: face - (side > 0 ? t : 0), z: z0 };
      put({ meshes: plain(span), at: shiftBy(at.x, at.y, at.z), joint: { kind: 'slide', at, axis: along, range: [0, span - 0.05], share: 1 } });
      return;
    }
    case 'bifold': {
      const count = foldsOf(span);
      const width = span / count;
      const fold = opening.open * 1.45;
      let x = 0;
      for (let i = 0; i < count; i++) {
        const outward = i % 2 === 0;
        const flip = { x: !fromStart, y: side < 0 };
        const { leaf, glass, handle } = plain(width - play, flip);
        const y = outward ? 0 : Math.sin(fold) * width;
        const own = multiply(shiftBy(x, y, z0), turnAbout({ x: 0, y: 0, z: 0 }, UPRIGHT, outward ? fold : -fold));
        // Folds towards +y from the start; mirrored for the other hand and side, leaf and place alike.
        const at = multiply(shiftBy(fromStart ? way.x0 : way.x1, face - side * t, 0), mirrored(own, flip));
        put({ meshes: i === count - 1 ? { leaf, glass, handle } : { leaf, glass }, at });
        x += Math.cos(fold) * width;
      }
      return;
    }
    case 'sectional': {
      const count = Math.max(3, Math.round(height / 0.5));
      const tall = height / count;
      const y = face - (side > 0 ? t : 0);
      for (let i = 0; i < count; i++) {
        const rise = opening.open * height;
        const low = z0 + i * tall + rise;
        const over = low - way.z1;
        const section = { ...opening, panels: { across: opening.panels.across, up: 1 }, glazed: 0, handle: 'none' } as const;
        const meshes = leafOf({ width: span - 2 * play, height: tall - play }, section);
        // Above the head the sections lie flat under the ceiling.
        const at =
          over < -tall / 2
            ? shiftBy(way.x0 + play, y, low)
            : multiply(
                shiftBy(way.x0 + play, y + side * (over + tall / 2), way.z1 + 0.05),
                turnAbout({ x: 0, y: 0, z: 0 }, { x: 1, y: 0, z: 0 }, (-side * Math.PI) / 2),
              );
        put({ meshes, at }, { x: 1, y: 0, z: 0 });
      }
      return;
    }
    case 'up-and-over': {
      const y = face - (side > 0 ? t : 0);
      const meshes = plain(span - 2 * play);
      const at = shiftBy(way.x0 + play, y + side * opening.open * height * 0.7, z0);
      const head = { x: 0, y: y + side * opening.open * height * 0.7, z: z0 + height };
      put({ meshes, at: multiply(turnAbout(head, { x: 1, y: 0, z: 0 }, (side * opening.open * Math.PI) / 2), at) });
      return;
    }
    default:
      hang(fromStart, span - 2 * play);
      stops();
  }
}

/** A move and turn as its mirror shows it. */
function mirrored(m: Matrix, { x, y }: Flip): Matrix {
  const sign = [x ? -1 : 1, y ? -1 : 1, 1, 1];
  return m.map((v, k) => v * sign[k % 4] * sign[Math.floor(k / 4)]);
}
