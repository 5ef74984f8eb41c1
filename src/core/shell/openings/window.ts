import { extrude, offsetRing, shiftBy, turnAbout } from '../../geometry/extrude';
import { IDENTITY, MeshBuilder, placement, type Matrix } from '../../geometry/mesh';
import { boolean, type Region, type Ring } from '../../geometry/polygon';
import { lathe, roundedBox } from '../../geometry/shapes';
import { openingOutline } from '../../project/openings';
import type { Opening } from '../../project/schema';
import { architrave } from './architrave';
import { cornerFrames, cornerJoinery, type CornerShape } from './corner';
import type { OpeningParts, OpeningSpace } from './parts';
import { framePlace } from './place';
import { JOINERY, lightsOf } from './sizes';

const band = (x0: number, z0: number, x1: number, z1: number): Region => ({
  outer: [
    { x: x0, y: z0 },
    { x: x1, y: z0 },
    { x: x1, y: z1 },
    { x: x0, y: z1 },
  ],
  holes: [],
});

const box = (regions: readonly Region[]): [number, number, number, number] => {
  const xs = regions.flatMap((r) => r.outer.map((p) => p.x));
  const zs = regions.flatMap((r) => r.outer.map((p) => p.y));
  return [Math.min(...xs), Math.min(...zs), Math.max(...xs), Math.max(...zs)];
};

interface Builders {
  frame: MeshBuilder;
  glass: MeshBuilder;
  handle: MeshBuilder;
}

/**
 * A glazed frame in an outline of the elevation: frame, lights that open the way of the form, bars and panes.
 *
 * @param middle depth of the frame's middle; @param inward 1 or −1: the side that is indoors
 * @param carry where the whole comes to stand
 */
export function glazing(outline: Ring, opening: Opening, middle: number, inward: 1 | -1, into: Builders, carry: Matrix = IDENTITY): void {
  const { frame, panes, form } = opening;
  const { sash, sashDepth, bar, pane } = JOINERY;
  const whole: Region = { outer: outline, holes: [] };
  const inner = offsetRing(outline, frame.face);
  into.frame.add(extrude(boolean('difference', [whole], [{ outer: inner, holes: [] }]), middle - frame.depth / 2, middle + frame.depth / 2), carry);
  const count = form === 'bay' ? 1 : lightsOf(opening);
  const [x0, z0, x1, z1] = box([{ outer: inner, holes: [] }]);
  const post = form === 'glazed-wall' ? frame.face : 0;
  const step = (x1 - x0 - post * (count - 1)) / count;
  const half = (z0 + z1) / 2;
  for (let c = 0; c < count; c++) {
    const from = x0 + c * (step + post);
    if (post > 0 && c > 0)
      into.frame.add(
        extrude(boolean('intersection', [{ outer: inner, holes: [] }], [band(from - post, z0, from, z1)]), middle - frame.depth / 2, middle + frame.depth / 2),
        carry,
      );
    const column = boolean('intersection', [{ outer: inner, holes: [] }], [band(from, z0, from + step, z1)]);
    const parts =
      form === 'sash' ? [band(from, z0, from + step, half + sash / 2), band(from, half - sash / 2, from + step, z1)] : [band(from, z0, from + step, z1)];
    parts.forEach((part, k) => {
      const light = boolean('intersection', column, [part]);
      if (!light.length) return;
      const fixed = form === 'fixed' || form === 'bay' || form === 'glazed-wall';
      const [lx0, lz0, lx1, lz1] = box(light);
      const play = fixed ? 0 : JOINERY.play;
      const shape = light.flatMap((r) => (play ? [{ outer: offsetRing(r.outer, play), holes: [] }] : [r]));
      const panel = fixed ? shape : shape.flatMap((r) => [{ outer: offsetRing(r.outer, sash), holes: [] }]);
      // Sliding lights and sashes run one behind the other.
      const depth =
        middle +
        (form === 'sash' ? (k === 0 ? inward : -inward) : form === 'sliding' ? (c % 2 === 0 ? inward : -inward) : 0) *
          (form === 'sash' || form === 'sliding' ? sashDepth / 2 : 0);
      const thin = form === 'sash' || form === 'sliding' ? sashDepth * 0.45 : sashDepth / 2;
      const [px0, pz0, px1, pz1] = box(panel);
      const across = Math.max(1, form === 'glazed-wall' ? 1 : Math.round(panes.across / count));
      const up = Math.max(1, form === 'sash' ? Math.ceil(panes.up / 2) : panes.up);
      const bars: Region[] = [];
      for (let i = 1; i < across; i++) bars.push(band(px0 + ((px1 - px0) * i) / across - bar / 2, pz0, px0 + ((px1 - px0) * i) / across + bar / 2, pz1));
      for (let j = 1; j < up; j++) bars.push(band(px0, pz0 + ((pz1 - pz0) * j) / up - bar / 2, px1, pz0 + ((pz1 - pz0) * j) / up + bar / 2));
      const at = multiply(carry, lightCarry(opening, c, k, { x0: lx0, z0: lz0, x1: lx1, z1: lz1 }, depth, inward));
      if (!fixed) into.frame.add(extrude(boolean('difference', shape, panel), depth - thin, depth + thin), at);
      if (bars.length) into.frame.add(extrude(boolean('intersection', panel, bars), depth - thin + 0.006, depth + thin - 0.006), at);
      into.glass.add(extrude(panel, depth - pane / 2, depth + pane / 2), at);
      if (!fixed && opening.handle !== 'none') {
        const y = depth + inward * thin;
        const [hx, hz] =
          form === 'top-hung'
            ? [(lx0 + lx1) / 2, lz0 + sash / 2]
            : form === 'tilt'
              ? [(lx0 + lx1) / 2, lz1 - sash / 2]
              : form === 'sash'
                ? [(lx0 + lx1) / 2, k === 0 ? lz1 - sash / 2 : lz0 + sash / 2]
                : [c % 2 === 0 ? lx1 - sash / 2 : lx0 + sash / 2, (lz0 + lz1) / 2];
        const grip = new MeshBuilder()
          .add(
            lathe(
              [
                [0, hz - 0.05],
                [0.007, hz - 0.045],
                [0.009, hz],
                [0.007, hz + 0.045],
                [0, hz + 0.05],
              ],
              { x: hx, y: y + inward * 0.022, segments: 10 },
            ),
          )
          .box(hx - 0.006, Math.min(y, y + inward * 0.022), hz - 0.006, hx + 0.006, Math.max(y, y + inward * 0.022), hz + 0.006);
        if (c % 2 === 0 || form !== 'casement') into.handle.add(grip.build(), at);
      }
    });
  }
}

/** Where a light stands when the window is as far open as it is. */
function lightCarry(
  { form, open, hinge }: Opening,
  index: number,
  half: number,
  { x0, z0, x1, z1 }: { x0: number; z0: number; x1: number; z1: number },
  y: number,
  inward: 1 | -1,
): Matrix {
  if (open <= 0) return IDENTITY;
  const angle = (open * Math.PI) / 2;
  switch (form) {
    case 'casement': {
      // Outwards, hung at its outer edge; a single light at the hand of the window.
      const left = index % 2 === 0 ? hinge === 'start' : hinge !== 'start';
      return turnAbout({ x: left ? x0 : x1, y, z: 0 }, { x: 0, y: 0, z: 1 }, (left ? -1 : 1) * inward * angle);
    }
    case 'top-hung':
      return turnAbout({ x: 0, y, z: z1 }, { x: 1, y: 0, z: 0 }, -inward * angle * 0.5);
    case 'tilt':
      return turnAbout({ x: 0, y, z: z0 }, { x: 1, y: 0, z: 0 }, -inward * angle * 0.25);
    case 'sash':
      return half === 0 ? shiftBy(0, 0, open * (z1 - z0) * 0.9) : IDENTITY;
    case 'sliding':
      return index % 2 === 0 ? shiftBy(open * (x1 - x0) * 0.95, 0, 0) : IDENTITY;
    default:
      return IDENTITY;
  }
}

/** a · b, column-major. */
export function multiply(a: Matrix, b: Matrix): Matrix {
  if (b === IDENTITY) return a;
  const out: number[] = [];
  for (let c = 0; c < 4; c++)
    for (let r = 0; r < 4; r++) out.push(a[r] * b[c * 4] + a[4 + r] * b[c * 4 + 1] + a[8 + r] * b[c * 4 + 2] + a[12 + r] * b[c * 4 + 3]);
  return out;
}

export function windowParts({ opening, thickness, inside, corner, profile }: OpeningSpace): OpeningParts[] {
  if (opening.form === 'corner') return corner ? cornerParts(opening, corner) : [];
  const { width, sill, frame } = opening;
  const half = thickness / 2;
  const inward = inside === 'left' ? 1 : -1;
  const middle = framePlace(opening, thickness, inside);
  const into: Builders = { frame: new MeshBuilder(), glass: new MeshBuilder(), handle: new MeshBuilder() };
  if (opening.form === 'bay') bay(opening, -inward * half, inward, into);
  else glazing(openingOutline(opening), opening, middle, inward, into);
  const parts: OpeningParts[] = [
    { part: 'frame', mesh: into.frame.build() },
    { part: 'glass', mesh: into.glass.build() },
  ];
  const straight = opening.shape.kind === 'rectangle' || opening.shape.kind === 'arch';
  if (opening.sillBoard > 0 && straight && sill > 0.05) {
    const { sillThickness } = JOINERY;
    const edge = opening.form === 'bay' ? -inward * half : middle + (inward * frame.depth) / 2;
    const nose = inward * (half + opening.sillBoard);
    parts.push({
      part: 'sill',
      mesh: new MeshBuilder()
        .add(
          roundedBox(
            { x: -width / 2 - 0.04, y: Math.min(inward * (half - 0.001), nose), z: sill - sillThickness },
            { x: width / 2 + 0.04, y: Math.max(inward * (half - 0.001), nose), z: sill },
            { radius: 0.008, steps: 2 },
          ),
        )
        .box(-width / 2, Math.min(edge, inward * half), sill - 0.002, width / 2, Math.max(edge, inward * half), sill + 0.001)
        .build(),
    });
  }
  if (opening.architrave > 0) parts.push({ part: 'architrave', mesh: architrave(opening, inward * half, inward, profile) });
  if (!into.handle.empty) parts.push({ part: 'handle', mesh: into.handle.build() });
  return parts;
}

/** Two glazed frames with a post between them. */
function cornerParts(opening: Opening, shape: CornerShape): OpeningParts[] {
  const { post, sill } = cornerJoinery(shape, opening);
  const into: Builders = { frame: post, glass: new MeshBuilder(), handle: new MeshBuilder() };
  for (const { origin, d, length } of cornerFrames(shape, opening)) {
    const outline = [
      { x: 0, y: opening.sill },
      { x: length, y: opening.sill },
      { x: length, y: opening.sill + opening.height },
      { x: 0, y: opening.sill + opening.height },
    ];
    glazing(outline, { ...opening, form: 'fixed', width: length }, 0, shape.indoors, into, placement(origin.x, origin.y, 0, Math.atan2(d.y, d.x)));
  }
  const parts: OpeningParts[] = [
    { part: 'frame', mesh: into.frame.build() },
    { part: 'glass', mesh: into.glass.build() },
  ];
  if (!sill.empty) parts.push({ part: 'sill', mesh: sill.build() });
  return parts;
}

/** A bay that stands out before the wall: two splayed sides and a front, on a board and under a roof board. */
function bay(opening: Opening, face: number, inward: 1 | -1, into: Builders): void {
  const { width, height, sill, depth } = opening;
  const out = -inward;
  const reach = Math.max(0.1, depth);
  const side = Math.min(reach, width * 0.3);
  const plan = [
    { x: -width / 2, y: face },
    { x: -width / 2 + side, y: face + out * reach },
    { x: width / 2 - side, y: face + out * reach },
    { x: width / 2, y: face },
  ];
  for (let i = 0; i < 3; i++) {
    const [p, q] = [plan[i], plan[i + 1]];
    const l = Math.hypot(q.x - p.x, q.y - p.y);
    const angle = Math.atan2(q.y - p.y, q.x - p.x);
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    const outline = [
      { x: 0, y: sill },
      { x: l, y: sill },
      { x: l, y: sill + height },
      { x: 0, y: sill + height },
    ];
    glazing(outline, opening, (inward * opening.frame.depth) / 2, inward, into, [c, s, 0, 0, -s, c, 0, 0, 0, 0, 1, 0, p.x, p.y, 0, 1]);
  }
  const ring = out < 0 ? plan : [...plan].reverse();
  for (const [z0, z1] of [
    [sill - 0.08, sill],
    [sill + height, sill + height + 0.08],
  ]) {
    into.frame.region({ outer: ring, holes: [] }, (p) => ({ ...p, z: z1 }), { x: 0, y: 0, z: 1 });
    into.frame.region({ outer: ring, holes: [] }, (p) => ({ ...p, z: z0 }), { x: 0, y: 0, z: -1 }, true);
    ring.forEach((a, i) => {
      const b = ring[(i + 1) % ring.length];
      into.frame.quad({ ...a, z: z0 }, { ...b, z: z0 }, { ...b, z: z1 }, { ...a, z: z1 });
    });
  }
}
