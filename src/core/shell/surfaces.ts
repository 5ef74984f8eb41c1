import type { Owner, Parts } from '../model/body';
import type { Slab } from '../project/schema';
import type { DerivedWall, WallSide } from './walls';

/** What a surface is worth before anybody has chosen a finish. */
export const BARE = {
  wall: 'bare.plaster',
  floor: 'bare.screed',
  ceiling: 'bare.ceiling',
  outside: 'bare.render',
  ground: 'bare.ground',
  cut: 'bare.cut',
} as const;

/** What the parts of a roof are of before anybody has chosen. */
export const ROOF_FINISHES = { covering: 'bare.cut', fascia: 'paint.skein', soffit: 'paint.skein', timber: 'timber.oak' } as const;

/** What the parts of stairs, guards and slabs are of before anybody has chosen. */
export const STAIR_FINISHES = { tread: 'timber.oak-plank', riser: 'paint.skein', string: 'paint.skein', rail: 'timber.oak', infill: 'paint.skein' } as const;
export const INFILL_FINISHES = { balusters: 'paint.skein', glass: 'glass.clear', cable: 'metal.steel-brushed', none: 'paint.skein' } as const;
export const SLAB_FINISHES: Record<Slab['kind'], { top: string; edge: string }> = {
  mezzanine: { top: 'timber.oak-plank', edge: 'paint.skein' },
  balcony: { top: 'stone.flag', edge: 'bare.render' },
  deck: { top: 'timber.ash-plank', edge: 'timber.ash' },
  foundation: { top: 'bare.screed', edge: 'bare.screed' },
};

/** The parts of a wall: its faces with their finishes, its top, its hidden ends. */
export function putWall(parts: Parts, wall: DerivedWall, finishOf: (side: WallSide) => { finish: string; chosen: boolean }, level: string): void {
  const owner: Owner = { id: wall.id, kind: 'walls', level };
  wall.sides.forEach((side, i) =>
    parts.put(owner, {
      part: side.side,
      key: `${side.side}/${i}`,
      sort: 'wall',
      ...finishOf(side),
      target: { kind: 'wall', room: side.room, wall: wall.id, side: side.side },
      mesh: wall.faces[i],
    }),
  );
  if (wall.wall.kind !== 'wall') return;
  parts.put(owner, { part: 'top', sort: 'top', finish: BARE.cut, target: null, mesh: wall.lids });
  parts.put(owner, { part: 'cap', sort: 'cap', finish: BARE.cut, target: null, mesh: wall.caps });
}
