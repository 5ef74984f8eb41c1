import * as polyclip from 'polyclip-ts';
import { encode } from 'fast-png';
import { Deriver } from '@/core/model/derive';
import { isPlain } from '@/core/finishes/finish';
import { lay } from '@/core/finishes/library/make';
import { layOut } from '@/core/finishes/laying/layout';
import { tilingOf } from '@/core/finishes/laying/pattern';
import { fromPattern, placeOf } from '@/core/finishes/laying/place';
import { FINISHES } from '@/core/finishes/library';
import { makeTexture } from '@/core/finishes/texture';
import { runChange } from '@/core/project/commands';
import { storey } from './storey';

type Put = (what: string, ours: string, peer: string, ratio: number) => void;
type Time = (work: () => void, rounds?: number) => number;

/** Speed of what the finishing stage computes: textures, layouts, a finish on every wall of a hundred houses. */
export function finishes(put: Put, time: Time): void {
  const textured = FINISHES.filter((f) => !isPlain(f));
  const side = 128;
  let pixels = 0;
  const made = textured.map((f) => makeTexture(f, side));
  for (const t of made) pixels += t.width * t.height;
  const ours = time(() => void textured.forEach((f) => makeTexture(f, side)), 1);
  const png = time(() => void made.forEach((t) => encode({ data: t.colour, width: t.width, height: t.height, channels: 4, depth: 8 })), 1);
  const rate = (ms: number): string => `${(pixels / ms / 1000).toFixed(2)} MP/s`;
  put(`textures of ${textured.length} finishes, against writing them with fast-png`, rate(ours), rate(png), png / ours);

  // Ten thousand tiles on a wall with openings.
  const tile = lay('running', 0.1, 0.1, 0.002, '#888888', { offset: 0.5 });
  const ring = (x: number, y: number, w: number, h: number) => [
    { x, y },
    { x: x + w, y },
    { x: x + w, y: y + h },
    { x, y: y + h },
  ];
  const region = { outer: ring(0, 0, 24, 5.3), holes: [1, 4, 7, 10, 13, 16].map((x) => ring(x, 1.03, 1.57, 2.1).reverse()) };
  const placing = placeOf(tile, undefined, { angle: 0, x0: 0, y0: 0, x1: 24, y1: 5.3 });
  const layout = layOut(tile, placing, [region]);
  const own = time(() => void layOut(tile, placing, [region]), 5);
  const geom = [region.outer, ...region.holes].map((r) => [...r, r[0]].map((p): [number, number] => [p.x, p.y]));
  const { period, units } = tilingOf(tile);
  let area = 0;
  const clipped = time(() => {
    area = 0;
    for (const unit of units)
      for (let c = -2; c <= 24 / period.x + 1; c++)
        for (let r = -2; r <= 5.3 / period.y + 1; r++) {
          const u = unit.ring.map((p) => fromPattern(placing, { x: p.x + c * period.x, y: p.y + r * period.y }));
          const found = polyclip.intersection([[...u, u[0]].map((p): [number, number] => [p.x, p.y])], geom as [number, number][][]);
          for (const poly of found)
            for (const line of poly) for (let i = 1; i < line.length; i++) area += (line[i - 1][0] * line[i][1] - line[i][0] * line[i - 1][1]) / 2;
        }
  }, 1);
  if (Math.abs(area - layout.covered) > 0.05) throw new Error(`the layout covers ${layout.covered} m², the clipper ${area} m²`);
  put(`laying ${layout.whole + layout.cut} tiles, against clipping each with polyclip-ts`, `${own.toFixed(0)} ms`, `${clipped.toFixed(0)} ms`, clipped / own);

  // A finish on every wall of a storey a hundred times as large.
  const large = storey(100);
  const deriver = new Deriver();
  const whole = time(() => void new Deriver().derive(large), 1);
  deriver.derive(large);
  let step = 0;
  const targets = Object.keys(large.rooms).map((room) => ({ kind: 'walls' as const, room }));
  const applied = time(() => {
    const finish = step++ % 2 ? 'paint.reed' : 'tile.glazed-white';
    deriver.derive(runChange(large, { id: `finish${step}xxx`, kind: 'do', command: 'finish.apply', args: { targets, finish } }).project);
  }, 3);
  put(`a finish on every wall of ${targets.length} rooms, against deriving them whole`, `${applied.toFixed(0)} ms`, `${whole.toFixed(0)} ms`, whole / applied);
}
