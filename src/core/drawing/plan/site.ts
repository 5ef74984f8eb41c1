import { clipHalf, labelPoint } from '../../geometry/polygon';
import { add, scale, unit, type Vec2 } from '../../geometry/vec';
import type { DerivedFence, DerivedGround } from '../../shell/outside';
import type { DisplayItem } from '../display';
import { HAIR } from '../../units/tolerance';

/** How far apart the lines of a hatch lie, metres; 0: none. */
const HATCH = { lawn: 0, gravel: 0, paving: 0.6, drive: 0, bed: 0, water: 0.35, pool: 0.25 } as const;

/** An area of the ground: its edge, its hatch, its name. */
export function drawGround({ id, own, ring }: DerivedGround): DisplayItem[] {
  const layer = 'ground' as const;
  const items: DisplayItem[] = [{ kind: 'fill', rings: [ring], ink: own.kind === 'water' || own.kind === 'pool' ? 'water' : 'site', entity: id, layer }];
  const step = HATCH[own.kind];
  if (step) {
    const ys = ring.map((p) => p.y);
    for (let y = Math.min(...ys) + step; y < Math.max(...ys); y += step) {
      // A thin strip of the ring has its ends on it.
      const strip = clipHalf(
        clipHalf(ring, (p) => p.y - y),
        (p) => y + HAIR - p.y,
      );
      const xs = strip.map((p) => p.x);
      if (strip.length > 1)
        items.push({
          kind: 'line',
          points: [
            { x: Math.min(...xs), y },
            { x: Math.max(...xs), y },
          ],
          closed: false,
          ink: 'faint',
          pen: 0.13,
          entity: id,
          layer,
        });
    }
  }
  items.push({ kind: 'line', points: ring, closed: true, ink: 'thin', pen: own.edge === 'none' ? 0.18 : 0.35, entity: id, layer });
  items.push({ kind: 'text', at: labelPoint({ outer: ring, holes: [] }), text: own.name, mm: 2.2, ink: 'thin', weight: 400, angle: 0, entity: id, layer });
  if (own.slope.fall > 0) {
    // An arrow downhill.
    const d = scale(unit({ x: Math.cos(own.slope.direction), y: Math.sin(own.slope.direction) }), -0.6);
    const at = add(labelPoint({ outer: ring, holes: [] }), { x: 0, y: -0.5 });
    const tip = add(at, d);
    const wing = (k: number): Vec2 => add(tip, { x: -d.x * 0.25 - d.y * 0.15 * k, y: -d.y * 0.25 + d.x * 0.15 * k });
    items.push({ kind: 'line', points: [at, tip], closed: false, ink: 'thin', pen: 0.18, entity: id, layer });
    items.push({ kind: 'line', points: [wing(1), tip, wing(-1)], closed: false, ink: 'thin', pen: 0.18, entity: id, layer });
  }
  return items;
}

/** A fence in plan: the line of a fence, the body of a hedge or a wall. */
export const drawFence = ({ id, fence, rings }: DerivedFence): DisplayItem[] =>
  rings.flatMap((points): DisplayItem[] => [
    { kind: 'fill', rings: [points], ink: fence.kind === 'wall' ? 'standing' : 'site', entity: id, layer: 'ground' },
    { kind: 'line', points, closed: true, ink: 'line', pen: 0.25, entity: id, layer: 'ground' },
  ]);
