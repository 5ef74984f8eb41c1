import type { Laying } from './schema';
import { DUST, NEAR } from '../units/tolerance';

/** Why a pattern of one's own does not cover its cell exactly; null where it does. */
export function cellFault(cell: NonNullable<Laying['cell']>): string | null {
  const area = cell.units.reduce((sum, u) => sum + u.width * u.height, 0);
  for (const [i, u] of cell.units.entries())
    for (const v of cell.units.slice(i + 1))
      for (const dx of [-cell.width, 0, cell.width])
        for (const dy of [-cell.height, 0, cell.height]) {
          const w = Math.min(u.x + u.width, v.x + dx + v.width) - Math.max(u.x, v.x + dx);
          const h = Math.min(u.y + u.height, v.y + dy + v.height) - Math.max(u.y, v.y + dy);
          if (w > NEAR && h > NEAR) return 'two of its units overlap';
        }
  if (Math.abs(area - cell.width * cell.height) > NEAR * Math.max(1, area)) return 'its units do not cover all of it';
  return null;
}

export type Cell = NonNullable<Laying['cell']>;

/** A pattern with one of its units cut in two, so that nothing is left uncovered. @param along cut along its length: the parts lie above one another @param share of the first part, 0…1 */
export function cutUnit(cell: Cell, index: number, along: boolean, share = 0.5): Cell {
  const u = cell.units[index];
  if (!u || !(share > 0 && share < 1)) return cell;
  const parts = along
    ? [
        { ...u, height: u.height * share },
        { ...u, y: u.y + u.height * share, height: u.height * (1 - share) },
      ]
    : [
        { ...u, width: u.width * share },
        { ...u, x: u.x + u.width * share, width: u.width * (1 - share) },
      ];
  return { ...cell, units: [...cell.units.slice(0, index), ...parts, ...cell.units.slice(index + 1)] };
}

/** A pattern with two of its units made one, or null where they do not make a rectangle: also over the edge of what repeats. */
export function joinUnits(cell: Cell, first: number, second: number): Cell | null {
  const [a, b] = [cell.units[first], cell.units[second]];
  if (!a || !b || first === second) return null;
  const same = (p: number, q: number): boolean => Math.abs(p - q) < NEAR;
  for (const dx of [0, cell.width, -cell.width])
    for (const dy of [0, cell.height, -cell.height]) {
      const [x, y] = [b.x + dx, b.y + dy];
      const beside = same(y, a.y) && same(b.height, a.height) && (same(x, a.x + a.width) || same(x + b.width, a.x));
      const above = same(x, a.x) && same(b.width, a.width) && (same(y, a.y + a.height) || same(y + b.height, a.y));
      if (!beside && !above) continue;
      const [x0, y0] = [Math.min(a.x, x), Math.min(a.y, y)];
      const made = {
        // Units begin within what repeats.
        x: x0 < -DUST ? x0 + cell.width : x0,
        y: y0 < -DUST ? y0 + cell.height : y0,
        width: beside ? a.width + b.width : a.width,
        height: above ? a.height + b.height : a.height,
      };
      return { ...cell, units: [...cell.units.filter((_, i) => i !== first && i !== second), made] };
    }
  return null;
}
