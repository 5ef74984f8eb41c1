import { placement } from '@/core/geometry/mesh';
import type { Body } from '@/core/model/body';
import type { Model } from '@/core/model/model';

/** How far houses of a street stand apart, m. */
export const APART = 30;

/** A house many times side by side: what a street would be. */
export function street(model: Model, houses: number): Model {
  const places = Array.from({ length: houses }, (_, n) => placement(APART * n, 0, 0, 0));
  return {
    ...model,
    bodies: places.flatMap((place, n) =>
      model.bodies.map((body): Body => ({ ...body, id: `${body.id} ${n}`, matrix: place, parts: body.parts.map((p) => ({ ...p, key: `${p.key} ${n}` })) })),
    ),
  };
}
