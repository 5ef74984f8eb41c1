import type { Underlay } from '@/core/project/schema';
import { UNDERLAY } from '../../tools/session';

/** The scanned plan under the drawing. */
export function UnderlayPicture({ underlay, dim }: { underlay: Underlay; dim: boolean }) {
  const { origin, scale: k, rotation, pixels, opacity, image, held } = underlay;
  return (
    <image
      href={`/api/assets/${image}`}
      data-testid="underlay"
      data-entity={held || !dim ? undefined : UNDERLAY}
      width={pixels.width}
      height={pixels.height}
      opacity={opacity}
      preserveAspectRatio="none"
      style={{ pointerEvents: held || !dim ? 'none' : undefined }}
      transform={`translate(${origin.x} ${-origin.y}) rotate(${(-rotation * 180) / Math.PI}) scale(${k.x} ${k.y}) translate(${-pixels.width / 2} ${-pixels.height / 2})`}
    />
  );
}
