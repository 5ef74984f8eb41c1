import { wallFoot } from '../../cabinetry/assemble';
import { isWithoutFronts } from '../../cabinetry/fittings';
import type { Vec2 } from '../../geometry/vec';
import { derivedOf, type Model } from '../../model/model';
import { formatLength } from '../../units/length';
import { NEAR } from '../../units/tolerance';
import { drawDimension } from '../dimension';
import type { DisplayItem } from '../display';
import { frontsUpright, type FrontUpright } from './cabinets';
import type { Placed } from './unroll';

/** A string of dimensions of a run in an elevation. */
export const CHAINS = ['widths below', 'widths above', 'heights'] as const;
export type Chain = (typeof CHAINS)[number];

/** How far a string is from what it measures, millimetres of the paper. */
const OFF = { below: 4.5, above: 3, side: 5 } as const;

/** Shorter ones have no figure of their own, metres. */
const SHORTEST = 0.004;

const sorted = (values: readonly number[]): number[] => [...values].sort((a, b) => a - b).filter((v, i, all) => i === 0 || v - all[i - 1] > NEAR);

/** Where the strings of widths lie before a face: below what stands, above what hangs; metres above the floor of the level. */
function stringsAt(fronts: readonly FrontUpright[], foot: number, scale: number): { below: number; above: number } {
  const top = Math.max(...fronts.filter((f) => f.own.unit.band !== 'base').map((f) => f.at.y + f.own.size.height), -Infinity);
  return { below: foot - OFF.below * scale, above: top + OFF.above * scale };
}

/**
 * Width and height of a unit where the strings of its run measure them, in an elevation; null where it is not seen there.
 *
 * @param scale metres that one millimetre of the paper stands for
 */
export function figuresOf(model: Model, placed: readonly Placed[], unit: string, scale: number): { front: FrontUpright; width: Span; height: Span } | null {
  for (const own of placed) {
    const side = own.face.side;
    const fronts = side ? derivedOf(model, 'runs').flatMap((run) => frontsUpright(run, own)) : [];
    const front = fronts.find((f) => f.own.unit.id === unit);
    if (!side || !front) continue;
    const { at, own: assembled } = front;
    const { below, above } = stringsAt(fronts, side.foot, scale);
    const y = assembled.unit.band === 'wall' ? above : below;
    const left = own.x - OFF.side * scale;
    const { from, to } = assembled.placed.stretch;
    return {
      front,
      width: { from: { x: at.x, y }, to: { x: at.x + to - from, y }, value: to - from },
      height: { from: { x: left, y: at.y }, to: { x: left, y: at.y + assembled.size.height }, value: assembled.size.height },
    };
  }
  return null;
}

/** A length that is measured in a drawing, metres. */
interface Span {
  from: Vec2;
  to: Vec2;
  value: number;
}

/**
 * The dimensions of the runs before a face: widths of what stands with what is left at both ends, widths of what hangs, and the
 * heights of plinth, worktop, what hangs and what is tall.
 *
 * @param scale metres that one millimetre of the paper stands for
 */
export function runChains(model: Model, placed: Placed, scale: number): Record<Chain, DisplayItem[]> {
  const { face, x } = placed;
  const side = face.side;
  const out: Record<Chain, DisplayItem[]> = { 'widths below': [], 'widths above': [], heights: [] };
  const fronts = derivedOf(model, 'runs').flatMap((run) => frontsUpright(run, placed));
  if (!side || !fronts.length) return out;
  const { units } = model.project;
  const tick = 0.9 * scale;
  const string = (at: readonly number[], point: (v: number) => { x: number; y: number }): DisplayItem[] =>
    at.slice(1).flatMap((to, i) => (to - at[i] > SHORTEST ? drawDimension(point(at[i]), point(to), formatLength(to - at[i], units), { tick }) : []));
  const ends = (hung: boolean): number[] =>
    fronts.filter((f) => (f.own.unit.band === 'wall') === hung).flatMap(({ at, own }) => [at.x, at.x + (own.placed.stretch.to - own.placed.stretch.from)]);
  const floor = ends(false);
  const { below, above } = stringsAt(fronts, side.foot, scale);
  if (floor.length) {
    const y = below;
    // Figures of narrow units go below those beside them.
    out['widths below'] = string(sorted([x, ...floor, x + side.length]), (v) => ({ x: v, y })).map((i) => (i.kind === 'text' ? { ...i, yields: 'down' } : i));
  }
  const hung = ends(true);
  if (hung.length) out['widths above'] = string(sorted(hung), (v) => ({ x: v, y: above }));
  const heights = fronts.flatMap(({ own, at, derived: { run, step } }): number[] => {
    const { made } = run;
    const { band } = own.unit;
    if (band === 'wall') return isWithoutFronts(own.unit) ? [] : [step + wallFoot(made), at.y + own.size.height];
    if (band === 'tall') return [step + made.plinth, at.y + own.size.height];
    return [step + made.plinth, at.y + own.size.height, at.y + own.size.height + made.worktop.thickness];
  });
  const left = x - OFF.side * scale;
  out.heights = string(sorted([side.foot, ...heights, side.height]), (v) => ({ x: left, y: v }));
  return out;
}
