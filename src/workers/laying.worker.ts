import { expose } from 'comlink';
import { layOut, outlinesOf, unitsNeeded } from '@/core/finishes/laying/layout';
import type { Placing } from '@/core/finishes/laying/place';
import type { Region } from '@/core/geometry/region';
import type { Vec2 } from '@/core/geometry/vec';
import { Laying } from '@/core/project/schema';

export interface CountedLayout {
  whole: number;
  cut: number;
  /** Units that must be had. */
  needed: number;
  /** Outlines of the units, in the coordinates of the face. */
  rings: Vec2[][];
}

/** Units laid over a face, off the page's own thread; null where there would be too many. */
const service = {
  layOut(laying: unknown, placing: Placing, regions: readonly Region[]): CountedLayout | null {
    const own = Laying.parse(laying);
    try {
      const { whole, cut, units } = layOut(own, placing, regions);
      return { whole, cut, needed: unitsNeeded(units, own), rings: units.flatMap(outlinesOf) };
    } catch (error) {
      if (error instanceof RangeError) return null;
      throw error;
    }
  },
};

export type LayingService = typeof service;

expose(service);
