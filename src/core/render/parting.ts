import type { LightShare } from '../light/shares';
import { sharesOf } from './development';
import type { Film } from './film';
import type { LightGroup } from './scene';

/** Groups that give less of a picture’s light are not told apart. */
const LEAST_SHARE = 1e-5;

/**
 * Parts the light of a film into its groups, each cleaned by itself; nothing is parted where all comes from one.
 *
 * @param groups in the order in which the film keeps them
 * @param clean takes the grain out of three values a pixel, guided by six a pixel
 */
export async function partLight(
  film: Film,
  groups: readonly LightGroup[],
  clean: (radiance: Float32Array, guides: Float32Array) => Promise<Float32Array>,
): Promise<LightShare[]> {
  const all = film.mean().reduce((sum, v) => sum + v, 0);
  const lit = groups.flatMap((group, g) => {
    const light = film.mean(g);
    return light.reduce((sum, v) => sum + v, 0) > all * LEAST_SHARE ? [{ group, light }] : [];
  });
  if (lit.length < 2) return lit.map(({ group, light }) => ({ ...group, share: light.fill(1) }));
  const guides = film.guides();
  const cleaned: Float32Array[] = [];
  for (const { light } of lit) cleaned.push(await clean(light, guides));
  const shares = sharesOf(cleaned);
  return lit.map(({ group }, i) => ({ ...group, share: shares[i] }));
}
