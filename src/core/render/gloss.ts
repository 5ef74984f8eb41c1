import { fresnelDielectric, ggxValue } from './bsdf';

/**
 * Gloss as it is measured: the share of light that a surface throws into the receiver of a gloss meter at 60°, against polished
 * black glass of the refractive index 1.567, which has 100 units (ISO 2813).
 */

const ANGLE = Math.PI / 3;
/** The receiver of a meter at 60° (ISO 2813): half its angles in and across the plane of incidence. */
const RECEIVER = { along: (4.4 / 2) * (Math.PI / 180), across: (11.7 / 2) * (Math.PI / 180) } as const;
/** Half the image of its source: what is not rough is reflected within this. */
const SOURCE = { along: (0.75 / 2) * (Math.PI / 180), across: (2.5 / 2) * (Math.PI / 180) } as const;
const BLACK_GLASS = 1.567;
/** Below this the lobe is narrower than the image of the source: a mirror. */
const MIRROR = 0.004;
const STEPS = 48;

/** What gloss follows from. */
interface Glossy {
  /** Perceptual, as in glTF: its square is the width of the lobe. */
  roughness: number;
  ior: number;
  metalness?: number;
}

/** What of the light that comes in at 60° leaves through the receiver: the lobe of a microfacet surface (GGX; Walter 2007) over its solid angle. */
function caught({ roughness, ior, metalness = 0 }: Glossy): number {
  const a = roughness * roughness;
  const mirror = fresnelDielectric(Math.cos(ANGLE), ior);
  if (a < MIRROR) return mirror + (1 - mirror) * metalness;
  const [vz, vx] = [Math.cos(ANGLE), Math.sin(ANGLE)];
  // Blurred by the source: as if the receiver were a little larger.
  const along = Math.hypot(RECEIVER.along, SOURCE.along);
  const across = Math.hypot(RECEIVER.across, SOURCE.across);
  let sum = 0;
  for (let i = 0; i < STEPS; i++)
    for (let j = 0; j < STEPS; j++) {
      const up = ((i + 0.5) / STEPS - 0.5) * 2 * along;
      const side = ((j + 0.5) / STEPS - 0.5) * 2 * across;
      // Angles about the mirrored direction; the patch of solid angle shrinks with the cosine of the elevation.
      const [lx, ly, lz] = [-Math.sin(ANGLE + up) * Math.cos(side), Math.sin(side), Math.cos(ANGLE + up) * Math.cos(side)];
      const l = Math.hypot(vx + lx, ly, vz + lz);
      const [hz, vh] = [(vz + lz) / l, (vx * (vx + lx) + vz * (vz + lz)) / l];
      const f = fresnelDielectric(vh, ior);
      sum += ggxValue(vz, lz, hz, a) * (f + (1 - f) * metalness) * Math.cos(side);
    }
  return (sum * (2 * along) * (2 * across)) / (STEPS * STEPS);
}

/** Gloss units at 60° of a surface. @param roughness perceptual, 0 to 1 */
export const glossOf = (surface: Glossy): number => (100 * caught(surface)) / fresnelDielectric(Math.cos(ANGLE), BLACK_GLASS);

/** The roughness at which a surface has so many gloss units; the nearest there is where none has. */
export function roughnessFor(gloss: number, ior: number, metalness = 0): number {
  // Gloss falls as roughness grows: found by halving.
  let [low, high] = [0, 1];
  for (let i = 0; i < 30; i++) {
    const middle = (low + high) / 2;
    if (glossOf({ roughness: middle, ior, metalness }) > gloss) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** What the trade calls a gloss, up to how many units at 60°, and how many such a finish has about. */
export const SHEENS = [
  { name: 'dead flat', upTo: 2, about: 1.5 },
  { name: 'matt', upTo: 10, about: 6 },
  { name: 'eggshell', upTo: 26, about: 18 },
  { name: 'satin', upTo: 60, about: 40 },
  { name: 'gloss', upTo: Infinity, about: 85 },
] as const;
export type Sheen = (typeof SHEENS)[number]['name'];

/** What the trade calls so many gloss units at 60°. */
export const sheenOf = (gloss: number): Sheen => SHEENS.find((s) => gloss <= s.upTo)!.name;
