import type { Model } from '../model/model';
import { roomAt } from '../placing/around';
import { allZones, zoneOf } from '../placing/zones';
import { formatLength } from '../units/length';
import type { Finding } from './finding';

/** Lamps and what has a plug, where they stand in the electrical zones about a bath or a shower. Of several zones the strictest is told. */
export function wetFindings(model: Model): Finding[] {
  const zones = allZones(model);
  if (!zones.length) return [];
  const { project } = model;
  return model.pieces.flatMap(({ id, item, piece, footprint }): Finding[] => {
    if (!item || item.wet || (!item.lamp && !item.connections?.includes('socket'))) return [];
    const room = roomAt(model, piece);
    const found = zones
      .filter((z) => z.room === room && project.pieces[z.piece].level === piece.level)
      .flatMap((z) => {
        const zone = zoneOf(z, footprint, piece.elevation);
        return zone === null ? [] : [{ zone, by: z }];
      })
      .sort((a, b) => a.zone - b.zone)[0];
    if (!found) return [];
    return [
      {
        code: 'zone.electric',
        message: `${piece.name} is in zone ${found.zone} of ${project.pieces[found.by.piece].name}: below ${formatLength(found.by.top, project.units)} only what is made for it is allowed there.`,
        ids: [id, found.by.piece],
      },
    ];
  });
}
