import { apart, insideRegion, type Box } from '../../geometry/polygon';
import type { Region } from '../../geometry/region';
import { add, cross, rotate, sub, type Vec2 } from '../../geometry/vec';
import type { DisplayItem, LabelLine } from '../display';

/** A label as it is set: its lines from above, all turned alike. */
export interface SetLabel {
  at: Vec2;
  angle: number;
  /** By how much the type was made smaller. */
  scale: number;
  /** Offset of each line's middle from the middle of the label, paper millimetres downwards. */
  lines: (LabelLine & { dy: number })[];
}

/** Widest a letter of the label's face is on average, as a share of its size; a little more than measured. */
const LETTER = 0.57;
const LEADING = 1.28;

/** Width and height of a set of lines on paper, millimetres. */
export function labelSize(lines: readonly LabelLine[], scale: number): { width: number; height: number } {
  return {
    width: Math.max(0, ...lines.map((l) => l.text.length * LETTER * l.mm * scale)),
    height: lines.reduce((sum, l) => sum + l.mm * LEADING * scale, 0),
  };
}

/** Whether a rectangle lies wholly in a region. */
function holds(region: Region, at: Vec2, half: Vec2, angle: number): boolean {
  const corners = [
    { x: -half.x, y: -half.y },
    { x: half.x, y: -half.y },
    { x: half.x, y: half.y },
    { x: -half.x, y: half.y },
  ].map((c) => add(at, rotate(c, angle)));
  if (!corners.every((c) => insideRegion(c, region))) return false;
  return ![region.outer, ...region.holes].some((ring) =>
    ring.some((p, i) => {
      const q = ring[(i + 1) % ring.length];
      return corners.some((a, k) => {
        const b = corners[(k + 1) % 4];
        return cross(sub(b, a), sub(p, a)) * cross(sub(b, a), sub(q, a)) < 0 && cross(sub(q, p), sub(a, p)) * cross(sub(q, p), sub(b, p)) < 0;
      });
    }),
  );
}

/**
 * Sets a label so that it never leaves its room: whole if it fits, else without its lesser lines, smaller, or turned
 * upright; where not even the first line fits, nothing.
 *
 * @param at the point of the room that is farthest from its walls
 * @param mmPerMetre paper millimetres a metre of the model takes up
 */
export function setLabel(region: Region, at: Vec2, lines: readonly LabelLine[], mmPerMetre: number): SetLabel | null {
  for (const scale of [1, 0.85, 0.7])
    for (let count = lines.length; count >= 1; count--) {
      // A smaller name is better than none, a full label better than a small one.
      if (scale < 1 && count > 2) continue;
      const shown = lines.slice(0, count);
      const { width, height } = labelSize(shown, scale);
      const half = { x: width / 2 / mmPerMetre, y: height / 2 / mmPerMetre };
      for (const angle of [0, Math.PI / 2]) {
        if (angle && count > 2) continue;
        if (!holds(region, at, half, angle)) continue;
        let y = -height / 2;
        return {
          at,
          angle,
          scale,
          lines: shown.map((l) => {
            const dy = y + (l.mm * LEADING * scale) / 2;
            y += l.mm * LEADING * scale;
            return { ...l, mm: l.mm * scale, dy };
          }),
        };
      }
    }
  return null;
}

type Text = Extract<DisplayItem, { kind: 'text' }>;

/** A rectangle of the drawing about its middle, paper millimetres, y up. */
const frame = (x: number, y: number, width: number, height: number): Box => ({
  x0: x - width / 2,
  y0: y - height / 2,
  x1: x + width / 2,
  y1: y + height / 2,
});

/** How far a text that moves aside goes at most, lines of its own size. */
const ASIDE = [0, -1, 1, -2, 2, -3, 3, -4, 4];
/** The same for what has figures above it: only downwards. */
const DOWN = [0, 1, 2, 3, 4, 5, 6];

/**
 * Texts that yield, brought clear of the labels and of one another: moved aside by whole lines, or left out. The others are as
 * they are.
 *
 * @param mmPerMetre paper millimetres a metre of the model takes up
 */
export function settled(items: readonly DisplayItem[], mmPerMetre: number): readonly DisplayItem[] {
  if (!items.some((i) => i.kind === 'text' && i.yields)) return items;
  const taken: Box[] = items.flatMap((item) => {
    const set = item.kind === 'label' ? setLabel(item.region, item.at, item.lines, mmPerMetre) : null;
    if (!set) return [];
    const { width, height } = labelSize(set.lines, 1);
    const [w, h] = set.angle ? [height, width] : [width, height];
    return [frame(set.at.x * mmPerMetre, set.at.y * mmPerMetre, w, h)];
  });
  const place = (item: Text, lines: number): Box => {
    const dy = (item.dy ?? 0) + lines * item.mm * LEADING;
    // The type stands on its place: its middle lies above.
    return frame(item.at.x * mmPerMetre, item.at.y * mmPerMetre - dy + item.mm * 0.35, item.text.length * LETTER * item.mm, item.mm);
  };
  return items.flatMap((item): DisplayItem[] => {
    if (item.kind !== 'text' || !item.yields) return [item];
    const by = (item.yields === 'aside' ? ASIDE : item.yields === 'down' ? DOWN : [0]).find(
      (lines) => !taken.some((other) => !apart(place(item, lines), other)),
    );
    if (by === undefined) return [];
    taken.push(place(item, by));
    return [by ? { ...item, dy: (item.dy ?? 0) + by * item.mm * LEADING } : item];
  });
}
