import type { Vec2 } from '../geometry/vec';
import { displayBounds, type DisplayItem } from './display';
import { fillOf, INKS, seamed } from './inks';

const n = (v: number): string => String(Math.round(v * 1e4) / 1e4);

/** An SVG path of rings in screen axes (y down). */
export const ringPath = (rings: readonly (readonly Vec2[])[]): string => rings.map((ring) => `M${ring.map((p) => `${n(p.x)} ${n(-p.y)}`).join('L')}Z`).join('');

/** An SVG path of an open or closed line. */
export const linePath = (points: readonly Vec2[], closed: boolean): string => `M${points.map((p) => `${n(p.x)} ${n(-p.y)}`).join('L')}${closed ? 'Z' : ''}`;

/** An SVG path of a quarter swing from one point to another about a centre. */
export function arcPath({ centre, from, to }: { centre: Vec2; from: Vec2; to: Vec2 }): string {
  const r = Math.hypot(from.x - centre.x, from.y - centre.y);
  const turn = (from.x - centre.x) * (to.y - centre.y) - (from.y - centre.y) * (to.x - centre.x);
  return `M${n(from.x)} ${n(-from.y)}A${n(r)} ${n(r)} 0 0 ${turn > 0 ? 0 : 1} ${n(to.x)} ${n(-to.y)}`;
}

/** The SVG path of a mark that is drawn with a pen. */
export const markPath = (item: Extract<DisplayItem, { kind: 'line' | 'lines' | 'arc' }>): string =>
  item.kind === 'arc' ? arcPath(item) : item.kind === 'lines' ? ringPath(item.rings) : linePath(item.points, item.closed);

/**
 * A display list as an SVG picture without its texts, filling a frame: thumbnails.
 *
 * @param width pixels
 * @param height pixels
 */
export function displaySvg(items: readonly DisplayItem[], width: number, height: number, background = '#ffffff'): string {
  const box = displayBounds(items);
  const head = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}"><rect width="100%" height="100%" fill="${background}"/>`;
  if (!box) return `${head}</svg>`;
  const margin = 0.08;
  const k = Math.min((width * (1 - 2 * margin)) / Math.max(0.1, box.max.x - box.min.x), (height * (1 - 2 * margin)) / Math.max(0.1, box.max.y - box.min.y));
  const tx = width / 2 - ((box.min.x + box.max.x) / 2) * k;
  const ty = height / 2 + ((box.min.y + box.max.y) / 2) * k;
  const body = items.map((item) => {
    if (item.kind === 'fill')
      return `<path d="${ringPath(item.rings)}" fill="${fillOf(item)}" stroke="${seamed(item.ink) ? INKS[item.ink] : 'none'}" stroke-width="${n(0.7 / k)}" fill-rule="evenodd"/>`;
    if (item.kind === 'text' || item.kind === 'label') return '';
    const d = markPath(item);
    const dash = item.kind === 'line' && item.dash ? ` stroke-dasharray="${n(5 / k)} ${n(3 / k)}"` : '';
    return `<path d="${d}" fill="none" stroke="${INKS[item.ink]}" stroke-width="${n((item.pen * 3) / k)}"${dash}/>`;
  });
  return `${head}<g transform="translate(${n(tx)} ${n(ty)}) scale(${n(k)})">${body.join('')}</g></svg>`;
}
