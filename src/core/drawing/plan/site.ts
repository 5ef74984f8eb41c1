import { labelPoint, regionArea } from '../../geometry/polygon';
import type { Ring } from '../../geometry/region';
import { add, scale, unit, type Vec2 } from '../../geometry/vec';
import { isWater, type DerivedGround } from '../../shell/ground';
import type { DerivedFence } from '../../shell/outside';
import { TYPE, type DisplayItem } from '../display';

/** How far apart the lines of a hatch lie, metres; 0: none. */
const HATCH = { lawn: 0, gravel: 0, paving: 0.6, drive: 0, bed: 0, water: 0.35, pool: 0.25 } as const;

/** An area of the ground: its edge, its hatch, its name. */
export function drawGround({ id, own, regions }: DerivedGround): DisplayItem[] {
  const layer = 'ground' as const;
  const items: DisplayItem[] = regions.map(({ outer, holes }) => ({
    kind: 'fill',
    rings: [outer, ...holes],
    ink: isWater(own) ? 'water' : 'site',
    entity: id,
    layer,
  }));
  const rings = regions.flatMap(({ outer, holes }) => [outer, ...holes]);
  const largest = regions.toSorted((p, q) => regionArea(q) - regionArea(p))[0];
  // Others may cover it wholly.
  if (!largest) return items;
  const step = HATCH[own.kind];
  if (step) {
    const ys = rings.flatMap((ring) => ring.map((p) => p.y));
    for (let y = Math.min(...ys) + step; y < Math.max(...ys); y += step)
      for (const [x0, x1] of chords(rings, y))
        items.push({
          kind: 'line',
          points: [
            { x: x0, y },
            { x: x1, y },
          ],
          closed: false,
          ink: 'faint',
          pen: 0.13,
          entity: id,
          layer,
        });
  }
  for (const points of rings) items.push({ kind: 'line', points, closed: true, ink: 'thin', pen: own.edge === 'none' ? 0.18 : 0.35, entity: id, layer });
  items.push({ kind: 'text', at: labelPoint(largest), text: own.name, mm: TYPE.note, ink: 'thin', weight: 400, angle: 0, entity: id, layer });
  if (own.slope.fall > 0) {
    // An arrow downhill.
    const d = scale(unit({ x: Math.cos(own.slope.direction), y: Math.sin(own.slope.direction) }), -0.6);
    const at = add(labelPoint(largest), { x: 0, y: -0.5 });
    const tip = add(at, d);
    const wing = (k: number): Vec2 => add(tip, { x: -d.x * 0.25 - d.y * 0.15 * k, y: -d.y * 0.25 + d.x * 0.15 * k });
    items.push({ kind: 'line', points: [at, tip], closed: false, ink: 'thin', pen: 0.18, entity: id, layer });
    items.push({ kind: 'line', points: [wing(1), tip, wing(-1)], closed: false, ink: 'thin', pen: 0.18, entity: id, layer });
  }
  return items;
}

/** The stretches of a level line inside of rings, by the even–odd rule. */
function chords(rings: readonly Ring[], y: number): [number, number][] {
  const xs = rings.flatMap((ring) =>
    ring.flatMap((a, i) => {
      const b = ring[(i + 1) % ring.length];
      return a.y > y !== b.y > y ? [a.x + ((b.x - a.x) * (y - a.y)) / (b.y - a.y)] : [];
    }),
  );
  xs.sort((p, q) => p - q);
  return xs.flatMap((x, i): [number, number][] => (i % 2 === 0 && i + 1 < xs.length ? [[x, xs[i + 1]]] : []));
}

/** A fence in plan: the line of a fence, the body of a hedge or a wall. */
export const drawFence = ({ id, fence, rings }: DerivedFence): DisplayItem[] =>
  rings.flatMap((points): DisplayItem[] => [
    { kind: 'fill', rings: [points], ink: fence.kind === 'wall' ? 'standing' : 'site', entity: id, layer: 'ground' },
    { kind: 'line', points, closed: true, ink: 'line', pen: 0.25, entity: id, layer: 'ground' },
  ]);
