import type { LightShare } from '../light/shares';
import { sharesOf } from './development';
import type { Film } from './film';
import type { LightGroup } from './scene';

/** Groups that give less of a picture’s light are not told apart. */
const LEAST_SHARE = 1e-5;

/** Most groups that are told apart: each is cleaned by itself and kept with the picture, whose file has a limit. */
const MOST = 6;

interface Lit {
  group: LightGroup;
  light: Float32Array;
  total: number;
}

/** The weakest groups become one where there are too many. */
function gathered(lit: Lit[]): Lit[] {
  if (lit.length <= MOST) return lit;
  const byTotal = lit.toSorted((a, b) => b.total - a.total);
  const rest = byTotal.slice(MOST - 1);
  const total = rest.reduce((sum, r) => sum + r.total, 0);
  const light = new Float32Array(rest[0].light.length);
  for (const r of rest) r.light.forEach((v, i) => (light[i] += v));
  const kelvin = rest.reduce((sum, r) => sum + (r.group.kelvin * r.total) / total, 0);
  // The others stay in their order.
  return [...lit.filter((l) => !rest.includes(l)), { group: { name: 'Other lights', kelvin }, light, total }];
}

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
  const lit = gathered(
    groups.flatMap((group, g) => {
      const light = film.mean(g);
      const total = light.reduce((sum, v) => sum + v, 0);
      return total > all * LEAST_SHARE ? [{ group, light, total }] : [];
    }),
  );
  if (lit.length < 2) return lit.map(({ group, light }) => ({ ...group, share: light.fill(1) }));
  const guides = film.guides();
  const cleaned: Float32Array[] = [];
  for (const { light } of lit) cleaned.push(await clean(light, guides));
  const shares = sharesOf(cleaned);
  return lit.map(({ group }, i) => ({ ...group, share: shares[i] }));
}
