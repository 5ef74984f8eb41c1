import { MeshBuilder, placement } from '../geometry/mesh';
import { cylinder } from '../geometry/shapes';
import type { Vec2 } from '../geometry/vec';
import type { Column, Level } from '../project/schema';
import type { DerivedColumn } from './model';

/** A column as a solid, up to the ceiling of its level where it has no height of its own. */
export function columnSolid(column: Column, level: Level): DerivedColumn {
  const height = column.height ?? level.height;
  const m = placement(column.x, column.y, level.elevation, column.rotation);
  const [w, d] = [column.width / 2, column.depth / 2];
  const outline: Vec2[] =
    column.section === 'square'
      ? [
          { x: -w, y: -d },
          { x: w, y: -d },
          { x: w, y: d },
          { x: -w, y: d },
        ]
      : Array.from({ length: 32 }, (_, i) => ({ x: w * Math.cos((i / 16) * Math.PI), y: d * Math.sin((i / 16) * Math.PI) }));
  const body =
    column.section === 'square'
      ? new MeshBuilder().box(-w, -d, 0, w, d, height).build()
      : new MeshBuilder().add(cylinder(0, 0, 0, height, 1, 1, 32), [w, 0, 0, 0, 0, d, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1]).build();
  const ring = outline.map((p) => ({ x: m[0] * p.x + m[4] * p.y + m[12], y: m[1] * p.x + m[5] * p.y + m[13] }));
  return { id: column.id, column, ring, height, mesh: new MeshBuilder().add(body, m).build() };
}
