import { INKS, MARKED } from '@/core/drawing/inks';
import type { Placed } from '@/core/drawing/elevation/unroll';
import { handlesOf } from '@/core/shell/dress/patch-handles';
import type { DerivedPatch } from '@/core/shell/dress/dressed';
import type { View } from '../marks';

/** Where the chosen patch can be taken hold of. */
export function Handles({ placed: { face, x }, derived, view }: { placed: Placed; derived: DerivedPatch; view: View }) {
  return (
    <g>
      {handlesOf(derived.patch, face).map(({ at, adds }, i) => (
        <circle
          key={i}
          data-handle={i}
          data-patch={derived.patch.id}
          cx={view.x + (at.x + x) * view.k}
          cy={view.y - at.y * view.k}
          r={adds ? 3 : 5}
          fill={INKS.paper}
          fillOpacity={adds ? 0.7 : 1}
          stroke={MARKED.chosen}
          strokeWidth={1.4}
          style={{ cursor: 'grab' }}
        >
          <title>{adds ? 'Drag to add a corner' : derived.patch.shape.kind === 'band' ? 'Drag this edge' : 'Drag this corner'}</title>
        </circle>
      ))}
    </g>
  );
}
