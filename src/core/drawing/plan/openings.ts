import { openingOutline } from '../../project/openings';
import { add, left, scale, sub, type Vec2 } from '../../geometry/vec';
import { bandOf, frameHalves, frameLines, parallel } from '../../shell/openings/corner';
import type { DerivedOpening } from '../../shell/openings/derive';
import { foldsOf, JOINERY } from '../../shell/openings/sizes';
import { swingsOf } from '../../shell/openings/swings';
import type { DisplayItem, Ink, Pen } from '../display';

/** An opening in the plan: the wall taken out, and what fills it the way it opens. */
export function drawOpening(o: DerivedOpening): DisplayItem[] {
  const axis = { x: Math.cos(o.angle), y: Math.sin(o.angle) };
  const n = left(axis);
  const at = (x: number, y: number): Vec2 => ({ x: o.point.x + axis.x * x + n.x * y, y: o.point.y + axis.y * x + n.y * y });
  const w = o.opening.width / 2;
  const h = o.thickness / 2;
  const entity = o.id;
  const layer = 'opening' as const;
  const line = (points: Vec2[], pen: Pen, ink: Ink = 'line', closed = false, dash = false): DisplayItem => ({
    kind: 'line',
    points,
    closed,
    ink,
    pen,
    dash,
    entity,
    layer,
  });
  const fill = (points: Vec2[], ink: Ink): DisplayItem => ({ kind: 'fill', rings: [points], ink, entity, layer });
  const { kind, form } = o.opening;
  if (kind === 'niche') {
    const side = o.opening.swing === 'left' ? 1 : -1;
    const back = side * (h - o.opening.depth);
    const ring = [at(-w, side * h), at(-w, back), at(w, back), at(w, side * h)];
    return [fill(ring, 'paper'), line(ring, 0.25), line([at(-w, side * h), at(w, side * h)], 0.13, 'thin', false, true)];
  }
  if (o.corner) {
    const { first, second } = o.corner;
    const [y1, y2] = frameLines(o.corner, o.opening);
    const [f1, f2] = frameHalves(o.corner, o.opening);
    const [outer, inner] = [parallel(o.corner, first.half, second.half), parallel(o.corner, -first.half, -second.half)];
    return [
      fill(bandOf(o.corner, [-first.half, -second.half], [first.half, second.half]), 'paper'),
      line(outer, 0.25),
      line(inner, 0.25),
      line([outer[0], inner[0]], 0.25),
      line([outer[2], inner[2]], 0.25),
      line(bandOf(o.corner, [y1 - f1, y2 - f2], [y1 + f1, y2 + f2]), 0.13, 'line', true),
      line(parallel(o.corner, y1, y2), 0.25, 'glass'),
    ];
  }
  const items: DisplayItem[] = [fill([at(-w, -h), at(w, -h), at(w, h), at(-w, h)], 'paper')];
  const jambs = [line([at(-w, -h), at(-w, h)], 0.25), line([at(w, -h), at(w, h)], 0.25)];
  if (kind === 'passage') {
    // What closes it above lies before the cut: dashed.
    items.push(...jambs, line([at(-w, -h), at(w, -h)], 0.13, 'thin', false, true), line([at(-w, h), at(w, h)], 0.13, 'thin', false, true));
    return items;
  }
  if (kind === 'window') {
    const bare = openingOutline(o.opening).length > 4 || form !== 'bay';
    items.push(...(bare ? [line([at(-w, -h), at(w, -h)], 0.25), line([at(-w, h), at(w, h)], 0.25)] : []), ...jambs);
    if (form === 'bay') {
      const out = o.stands.frame > 0 || (o.rooms.left === null && o.rooms.right !== null) ? 1 : -1;
      const reach = Math.max(0.1, o.opening.depth);
      const side = Math.min(reach, o.opening.width * 0.3);
      const f = o.stands.depth;
      const ring = [at(-w, out * h), at(-w + side, out * (h + reach)), at(w - side, out * (h + reach)), at(w, out * h)];
      const inner = [at(-w + f, out * h), at(-w + side + f * 0.4, out * (h + reach - f)), at(w - side - f * 0.4, out * (h + reach - f)), at(w - f, out * h)];
      items.push(line(ring, 0.25), line(inner, 0.13), line([at(-w, -out * h), at(w, -out * h)], 0.13, 'thin', false, true));
      return items;
    }
    const f = o.stands.depth / 2;
    const middle = o.stands.frame;
    items.push(line([at(-w, middle - f), at(w, middle - f), at(w, middle + f), at(-w, middle + f)], 0.13, 'line', true));
    if (form === 'glazed-wall' || form === 'casement')
      for (let i = 1; i < o.opening.panes.across; i++) {
        const x = -w + (o.opening.width * i) / o.opening.panes.across;
        items.push(line([at(x, middle - f), at(x, middle + f)], 0.13));
      }
    if (form === 'sliding') {
      items.push(
        line([at(-w, middle - f / 2), at(0.04, middle - f / 2)], 0.25, 'glass'),
        line([at(-0.04, middle + f / 2), at(w, middle + f / 2)], 0.25, 'glass'),
      );
      return items;
    }
    items.push(line([at(-w, middle), at(w, middle)], 0.25, 'glass'));
    return items;
  }
  const side = o.opening.swing === 'left' ? 1 : -1;
  const hand = o.opening.hinge === 'start' ? 1 : -1;
  const l = o.opening.frame.face;
  const { start, end } = o.opening.sidelights;
  const t = JOINERY.leaf;
  const { leaf: face, frame: middle, depth } = o.stands;
  const [back, front] = [middle - depth / 2, middle + depth / 2];
  items.push(...(depth < o.thickness ? jambs : []));
  for (const x of [-w, w - l]) items.push(fill([at(x, back), at(x + l, back), at(x + l, front), at(x, front)], 'cut'));
  const x0 = -w + l + (start > 0 ? start + l : 0);
  const x1 = w - l - (end > 0 ? end + l : 0);
  for (const [a, b] of [
    [-w + l, -w + l + start],
    [w - l - end, w - l],
  ])
    if (b - a > 0)
      items.push(line([at(a, middle), at(b, middle)], 0.25, 'glass'), line([at(a, back), at(a, front), at(b, front), at(b, back)], 0.13, 'line', true));
  if (o.opening.threshold > 0) items.push(line([at(x0, -h), at(x1, -h)], 0.13), line([at(x0, h), at(x1, h)], 0.13));
  for (const { hinge, shut, open, width } of swingsOf(o)) {
    // As thick as a leaf, towards where it shuts.
    const thick = scale(sub(shut, hinge), t / width);
    const ring = [hinge, open, add(open, thick), add(hinge, thick)];
    items.push(fill(ring, 'paper'), line(ring, 0.25, 'line', true));
    items.push({ kind: 'arc', centre: hinge, from: open, to: shut, ink: 'thin', pen: 0.13, entity, layer });
  }
  const span = x1 - x0;
  switch (form) {
    case 'sliding': {
      const y = side * (h + 0.012);
      const shift = -hand * o.opening.open * span;
      items.push(line([at(x0 + shift, y), at(x1 + shift, y), at(x1 + shift, y + side * t), at(x0 + shift, y + side * t)], 0.25, 'line', true));
      items.push(line([at(x0 - (hand > 0 ? span : 0), y + (side * t) / 2), at(x1 + (hand > 0 ? 0 : span), y + (side * t) / 2)], 0.13, 'thin', false, true));
      break;
    }
    case 'pocket': {
      const shift = -hand * Math.max(o.opening.open, 0.35) * span;
      items.push(line([at(x0 + shift, face), at(x1 + shift, face), at(x1 + shift, face - side * t), at(x0 + shift, face - side * t)], 0.25, 'line', true));
      const end2 = hand > 0 ? x0 - span : x1 + span;
      const slot = face - (side * t) / 2;
      items.push(
        line([at(hand > 0 ? x0 : x1, slot - t), at(end2, slot - t), at(end2, slot + t), at(hand > 0 ? x0 : x1, slot + t)], 0.13, 'faint', false, true),
      );
      break;
    }
    case 'bifold': {
      const count = foldsOf(span);
      const width = span / count;
      const lean = 0.5;
      const points: Vec2[] = [];
      for (let i = 0; i <= count; i++)
        points.push(
          at(hand > 0 ? x0 + i * width * Math.cos(lean) : x1 - i * width * Math.cos(lean), face - (side * t) / 2 + side * (i % 2 ? width * Math.sin(lean) : 0)),
        );
      items.push(line(points, 0.35));
      break;
    }
    case 'sectional':
    case 'up-and-over': {
      const y = face;
      items.push(line([at(x0, y), at(x1, y), at(x1, y - side * t), at(x0, y - side * t)], 0.25, 'line', true));
      const reach = form === 'sectional' ? o.opening.height : o.opening.height * 0.7;
      items.push(line([at(x0, side * h), at(x0, side * (h + reach)), at(x1, side * (h + reach)), at(x1, side * h)], 0.13, 'thin', false, true));
      break;
    }
    case 'stable':
      items.push(line([at(hand > 0 ? x0 : x1, face + (side * span) / 2), at(hand > 0 ? x0 + t : x1 - t, face + (side * span) / 2)], 0.25));
  }
  return items;
}
