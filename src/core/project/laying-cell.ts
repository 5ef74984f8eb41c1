import type { Laying } from './schema';

/** Why a pattern of one's own does not cover its cell exactly; null where it does. */
export function cellFault(cell: NonNullable<Laying['cell']>): string | null {
  const area = cell.units.reduce((sum, u) => sum + u.width * u.height, 0);
  for (const [i, u] of cell.units.entries())
    for (const v of cell.units.slice(i + 1))
      for (const dx of [-cell.width, 0, cell.width])
        for (const dy of [-cell.height, 0, cell.height]) {
          const w = Math.min(u.x + u.width, v.x + dx + v.width) - Math.max(u.x, v.x + dx);
          const h = Math.min(u.y + u.height, v.y + dy + v.height) - Math.max(u.y, v.y + dy);
          if (w > 1e-6 && h > 1e-6) return 'two of its units overlap';
        }
  if (Math.abs(area - cell.width * cell.height) > 1e-6 * Math.max(1, area)) return 'its units do not cover all of it';
  return null;
}
