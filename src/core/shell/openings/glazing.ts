import { extrude, offsetRing } from '../../geometry/extrude';
import type { Joint } from '../../geometry/joint';
import { IDENTITY, MeshBuilder, type Matrix } from '../../geometry/mesh';
import { boolean } from '../../geometry/polygon';
import { rectangleRegion, type Region, type Ring } from '../../geometry/region';
import { lathe } from '../../geometry/shapes';
import type { Opening } from '../../project/schema';
import { JOINERY, lightsOf } from './sizes';
import type { Wing } from './space';

const box = (regions: readonly Region[]): [number, number, number, number] => {
  const xs = regions.flatMap((r) => r.outer.map((p) => p.x));
  const zs = regions.flatMap((r) => r.outer.map((p) => p.y));
  return [Math.min(...xs), Math.min(...zs), Math.max(...xs), Math.max(...zs)];
};

/** What glazed frames are built into. */
export interface Builders {
  frame: MeshBuilder;
  glass: MeshBuilder;
  handle: MeshBuilder;
  /** The lights that open. */
  wings: Wing[];
}

/** Nothing built yet. */
export const builders = (): Builders => ({ frame: new MeshBuilder(), glass: new MeshBuilder(), handle: new MeshBuilder(), wings: [] });

/**
 * A glazed frame in an outline of the elevation: frame, lights that open the way of the form, bars and panes.
 *
 * @param middle where in the wall the middle of the frame lies, @param depth how deep it is, metres; @param inward 1 or −1: the side that is indoors
 * @param carry where the whole comes to stand
 */
export function glazing(
  outline: Ring,
  opening: Opening,
  { middle, depth: deep }: { middle: number; depth: number },
  inward: 1 | -1,
  into: Builders,
  carry: Matrix = IDENTITY,
): void {
  const { panes, form } = opening;
  const { sash, sashDepth, bar, pane } = JOINERY;
  const frame = { face: opening.frame.face, depth: deep };
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
        extrude(
          boolean('intersection', [{ outer: inner, holes: [] }], [rectangleRegion(from - post, z0, from, z1)]),
          middle - frame.depth / 2,
          middle + frame.depth / 2,
        ),
        carry,
      );
    const column = boolean('intersection', [{ outer: inner, holes: [] }], [rectangleRegion(from, z0, from + step, z1)]);
    const parts =
      form === 'sash'
        ? [rectangleRegion(from, z0, from + step, half + sash / 2), rectangleRegion(from, half - sash / 2, from + step, z1)]
        : [rectangleRegion(from, z0, from + step, z1)];
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
      for (let i = 1; i < across; i++)
        bars.push(rectangleRegion(px0 + ((px1 - px0) * i) / across - bar / 2, pz0, px0 + ((px1 - px0) * i) / across + bar / 2, pz1));
      for (let j = 1; j < up; j++) bars.push(rectangleRegion(px0, pz0 + ((pz1 - pz0) * j) / up - bar / 2, px1, pz0 + ((pz1 - pz0) * j) / up + bar / 2));
      const barred = bars.length ? extrude(boolean('intersection', panel, bars), depth - thin + 0.006, depth + thin - 0.006) : null;
      const clear = extrude(panel, depth - pane / 2, depth + pane / 2);
      if (fixed) {
        if (barred) into.frame.add(barred, carry);
        into.glass.add(clear, carry);
        return;
      }
      const frameOf = new MeshBuilder().add(extrude(boolean('difference', shape, panel), depth - thin, depth + thin));
      if (barred) frameOf.add(barred);
      const meshes: Wing['meshes'] = { frame: frameOf.build(), glass: clear };
      if (opening.handle !== 'none') {
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
        if (c % 2 === 0 || form !== 'casement') meshes.handle = grip.build();
      }
      const joint = jointOf(opening, c, k, { x0: lx0, z0: lz0, x1: lx1, z1: lz1 }, depth, inward);
      into.wings.push({ meshes, at: carry, ...(joint ? { joint: { ...joint, share: 1 } } : {}) });
    });
  }
}

/** What a light opens by; null where it stays. */
function jointOf(
  { form, hinge }: Opening,
  index: number,
  half: number,
  { x0, z0, x1, z1 }: { x0: number; z0: number; x1: number; z1: number },
  y: number,
  inward: 1 | -1,
): Joint | null {
  const right = Math.PI / 2;
  switch (form) {
    case 'casement': {
      // Outwards, hung at its outer edge; a single light at the hand of the window.
      const left = index % 2 === 0 ? hinge === 'start' : hinge !== 'start';
      return { kind: 'hinge', at: { x: left ? x0 : x1, y, z: 0 }, axis: { x: 0, y: 0, z: (left ? -1 : 1) * inward }, range: [0, right] };
    }
    case 'top-hung':
      return { kind: 'hinge', at: { x: 0, y, z: z1 }, axis: { x: -inward, y: 0, z: 0 }, range: [0, right * 0.5] };
    case 'tilt':
      return { kind: 'hinge', at: { x: 0, y, z: z0 }, axis: { x: -inward, y: 0, z: 0 }, range: [0, right * 0.25] };
    case 'sash':
      return half === 0 ? { kind: 'slide', at: { x: x0, y, z: z0 }, axis: { x: 0, y: 0, z: 1 }, range: [0, (z1 - z0) * 0.9] } : null;
    case 'sliding':
      return index % 2 === 0 ? { kind: 'slide', at: { x: x0, y, z: z0 }, axis: { x: 1, y: 0, z: 0 }, range: [0, (x1 - x0) * 0.95] } : null;
    default:
      return null;
  }
}
