import { clipRegions } from '../../geometry/clipping';
import { signedArea } from '../../geometry/polygon';
import type { Region, Ring } from '../../geometry/region';
import { add, dot, scale, sub } from '../../geometry/vec';
import type { Zones } from '../../placing/zones';
import { TYPE, type DisplayItem } from '../display';
import { faceAxes } from './pieces';
import type { Placed } from './unroll';

/** How far before a face what lies at it is looked for, metres: what stands there may stand a hair off the wall. */
const NEAR_WALL = 0.012;

/** What is narrower is what the round corner of a tub leaves at the wall, metres. */
const LEAST = 0.05;

/** The stretches of a face before which regions of the floor lie, metres along it. */
function stretchesOf(regions: readonly Region[], placed: Placed): { from: number; to: number }[] {
  const axes = faceAxes(placed.face);
  const side = placed.face.side;
  if (!axes || !side) return [];
  const { origin, right, out } = axes;
  const end = add(origin, scale(right, side.length));
  const far = scale(out, NEAR_WALL);
  const strip: Ring = [origin, end, add(end, far), add(origin, far)];
  const ring = signedArea(strip) < 0 ? [...strip].reverse() : strip;
  return clipRegions('intersection', regions, [{ outer: ring, holes: [] }]).flatMap(({ outer }) => {
    const at = outer.map((p) => dot(sub(p, origin), right));
    const [from, to] = [Math.min(...at), Math.max(...at)];
    return to - from > LEAST ? [{ from, to }] : [];
  });
}

/** The electrical zones about a bath or a shower as far as they lie at a wall, in its elevation: dashed, numbered. */
export function drawZonesUpright(zones: Zones, placed: Placed): DisplayItem[] {
  const zone = (regions: readonly Region[], z0: number, z1: number, text: string): DisplayItem[] =>
    stretchesOf(regions, placed).flatMap(({ from, to }): DisplayItem[] => {
      const [x0, x1] = [placed.x + from, placed.x + to];
      const points = [
        { x: x0, y: z0 },
        { x: x1, y: z0 },
        { x: x1, y: z1 },
        { x: x0, y: z1 },
      ];
      const at = { x: (x0 + x1) / 2, y: (z0 + z1) / 2 };
      return [
        { kind: 'line', points, closed: true, ink: 'measure', pen: 0.18, dash: true, layer: 'dimension' },
        { kind: 'text', at, text, mm: TYPE.note, ink: 'measure', weight: 400, angle: 0, layer: 'dimension' },
      ];
    });
  return [...zone(zones.two, 0, zones.top, 'zone 2'), ...zone(zones.one, 0, zones.rim, 'zone 0'), ...zone(zones.one, zones.rim, zones.top, 'zone 1')];
}
