import type { Model } from '@/core/model/model';
import { drawnUp, overlapping } from '@/core/placing/around';
import type { Piece } from '@/core/project/schema';
import { standingOn } from '@/core/project/standing-on';
import { stockItem } from '@/core/stock/stock';
import { length } from './session';

/** What a piece stands in, in a few words; empty where it stands clear. */
export function collisionNote(model: Model, piece: Piece): string {
  const { id, level, x, y, rotation, size, elevation, maker, on } = piece;
  const item = stockItem(maker);
  if (!item || item.lies || item.mount === 'top') return '';
  const but = new Set([id, ...standingOn(model.project.pieces, [id]), ...(on === null ? [] : [on])]);
  for (const p of model.pieces) if (drawnUp({ item, piece }, p)) but.add(p.id);
  const found = overlapping(model, level, { x, y, rotation }, size, but, elevation);
  if (!found) return '';
  const what = found.kind === 'piece' && found.id ? (model.project.pieces[found.id]?.name ?? 'a piece') : found.kind === 'column' ? 'a column' : 'a wall';
  return `${length(found.depth)} into ${what}`;
}
