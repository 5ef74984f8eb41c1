import { insideRegion } from '../geometry/polygon';
import type { Vec2 } from '../geometry/vec';
import { derivedOf, type Model } from '../model/model';
import { restUnder } from '../stock/resting';

/** What something small comes to rest on. */
export interface RestsOn {
  /** The piece it then goes with; null: a worktop, which keeps nothing. */
  piece: string | null;
  /** What it is called. */
  name: string;
  /** How that stands turned, radians; null where that says nothing. */
  rotation: number | null;
  /** Height of that surface above the floor of the level, metres. */
  height: number;
}

/**
 * What lies under a point of a level, to put something on: a piece, or the worktop of a run of cabinets; the highest, or the nearest
 * to where one points in the model. Null: the floor.
 *
 * @param except pieces that do not count
 * @param aim height one points at above the floor of the level, metres, where that is known
 */
export function restsOn(model: Model, level: string, p: Vec2, except: ReadonlySet<string>, aim?: number): RestsOn | null {
  const rest = restUnder(model.pieces, level, p, except, aim);
  const under = rest && model.pieces.find((d) => d.id === rest.piece);
  let best: RestsOn | null = rest && under ? { ...rest, name: under.piece.name, rotation: under.piece.rotation } : null;
  for (const { run, worktop, step } of derivedOf(model, 'runs')) {
    if (run.level !== level) continue;
    const higher = worktop.raised.some((r) => insideRegion(p, r));
    if (!higher && !worktop.regions.some((r) => insideRegion(p, r))) continue;
    const { plinth, base, worktop: top } = run.made;
    const height = step + plinth + base.height + top.thickness + (higher ? run.raised : 0);
    // Who points at the floor before it means the floor.
    if (aim !== undefined && aim < height - 0.12 && aim < 0.05) continue;
    const nearer = !best || (aim === undefined ? height > best.height : Math.abs(height - aim) < Math.abs(best.height - aim));
    if (nearer) best = { piece: null, name: 'the worktop', rotation: null, height };
  }
  return best;
}
