import { MeshBuilder, placement } from '../../geometry/mesh';
import { roundedBox } from '../../geometry/shapes';
import { openingOutline } from '../../project/openings';
import type { Opening } from '../../project/schema';
import { architraves } from './architrave';
import { cornerFrames, cornerJoinery, type CornerShape } from './corner';
import { builders, glazing, type Builders } from './glazing';
import { fixedPart, wingParts, type OpeningParts, type OpeningSpace } from './space';
import { inWall } from '../../project/opening-stand';
import { hasSillBoard, JOINERY, SILL_HORN } from './sizes';

export function windowParts({ opening, thickness, inside, corner, profile }: OpeningSpace): OpeningParts[] {
  if (opening.form === 'corner') return corner ? cornerParts(opening, corner) : [];
  const { width, sill } = opening;
  const half = thickness / 2;
  const inward = inside === 'left' ? 1 : -1;
  const { frame: middle, depth } = inWall(opening, thickness, inside);
  const into = builders();
  if (opening.form === 'bay') bay(opening, -inward * half, depth, inward, into);
  else glazing(openingOutline(opening), opening, { middle, depth }, inward, into);
  const parts: OpeningParts[] = [...framed(into), ...wingParts(into.wings, ['frame', 'glass'])];
  if (hasSillBoard(opening)) {
    const { sillThickness } = JOINERY;
    const edge = opening.form === 'bay' ? -inward * half : middle + (inward * depth) / 2;
    const nose = inward * (half + opening.sillBoard);
    // The board begins in the wall, and its lining ends there: neither has a face in the plane of the wall.
    const lap = inward * (half - 0.001);
    const board = new MeshBuilder()
      .add(
        roundedBox(
          { x: -width / 2 - SILL_HORN, y: Math.min(lap, nose), z: sill - sillThickness },
          { x: width / 2 + SILL_HORN, y: Math.max(lap, nose), z: sill },
          { radius: 0.008, steps: 2 },
        ),
      )
      .box(-width / 2, Math.min(edge, lap), sill - 0.002, width / 2, Math.max(edge, lap), sill + 0.001);
    parts.push({ ...fixedPart('sill', board.build()), grain: 'length' });
  }
  parts.push(...architraves(opening, thickness, inside, profile));
  parts.push(...wingParts(into.wings, ['handle']));
  return parts;
}

/** Frame and glass that do not open. */
const framed = ({ frame, glass }: Builders): OpeningParts[] => [fixedPart('frame', frame.build()), ...(glass.empty ? [] : [fixedPart('glass', glass.build())])];

/** Two glazed frames with a post between them. */
function cornerParts(opening: Opening, shape: CornerShape): OpeningParts[] {
  const { post, sill } = cornerJoinery(shape, opening);
  const into: Builders = { ...builders(), frame: post };
  for (const { origin, d, length, depth } of cornerFrames(shape, opening)) {
    const outline = [
      { x: 0, y: opening.sill },
      { x: length, y: opening.sill },
      { x: length, y: opening.sill + opening.height },
      { x: 0, y: opening.sill + opening.height },
    ];
    glazing(
      outline,
      { ...opening, form: 'fixed', width: length },
      { middle: 0, depth },
      shape.indoors,
      into,
      placement(origin.x, origin.y, 0, Math.atan2(d.y, d.x)),
    );
  }
  return sill.empty ? framed(into) : [...framed(into), { ...fixedPart('sill', sill.build()), grain: 'length' }];
}

/** A bay that stands out before the wall: two splayed sides and a front, on a board and under a roof board. */
function bay(opening: Opening, face: number, deep: number, inward: 1 | -1, into: Builders): void {
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
    glazing(outline, opening, { middle: (inward * deep) / 2, depth: deep }, inward, into, [c, s, 0, 0, -s, c, 0, 0, 0, 0, 1, 0, p.x, p.y, 0, 1]);
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
