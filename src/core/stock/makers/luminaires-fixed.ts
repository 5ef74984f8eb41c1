import { z } from 'zod';
import { cuts, isFine, lathe } from '../../geometry/shapes';
import type { Vec3 } from '../../geometry/vec';
import { board } from '../forms/boards';
import { about, stretched, upright } from '../forms/carry';
import { bar, curve, rod } from '../forms/skin';
import { post, turned, vessel, type Turn } from '../forms/turned';
import { choice, count, length } from '../traits';
import { circle, ellipseLine, maker, outline, rectangle, v3, type Made, type PieceSize, type StockItem } from '../types';
import { LAMP_PART, bulb, shaded, tallOf, shadeAt, listed, crossed, strip, sold } from './shades';

const ceilingTraits = z.object({
  form: choice('Form', ['disc', 'dish', 'ring', 'square', 'spots'], 'disc'),
  count: count('Spots', { min: 1, max: 6, first: 3 }),
});

function onCeiling({ width, depth, height }: PieceSize, { form, count: n }: z.output<typeof ceilingTraits>): Made[] {
  const into = shaded();
  const k = depth / width;
  const r = width / 2;
  const carry = stretched(1, k, 1);
  if (form === 'square') {
    into.shade.add(board(-r, -depth / 2, 0.012, r, depth / 2, height, 0.004));
    into.lamp.add(board(-r + 0.012, -depth / 2 + 0.012, 0, r - 0.012, depth / 2 - 0.012, 0.014, 0.005));
  } else if (form === 'spots') {
    into.shade.add(board(-r, -Math.min(0.035, depth / 2), height - Math.min(0.02, height * 0.3), r, Math.min(0.035, depth / 2), height, 0.004));
    for (let i = 0; i < n; i++) {
      const x = -r + (width * (i + 0.5)) / n;
      const head = Math.min(0.032, (width / n) * 0.4);
      const pivot = height - Math.min(0.05, height * 0.4);
      const tilt = about('x', 0.5, x, -0.01, pivot);
      const long = Math.min(0.09, pivot * 0.95);
      into.shade.add(post(x, 0, pivot, height - 0.012, 0.006));
      into.shade.add(
        turned(
          [
            [head, -long],
            [head, 0.0],
            [head * 0.5, 0.016],
            [0, 0.018],
          ],
          { segments: 24 },
        ),
        tilt,
      );
      into.inner.add(
        turned(
          [
            [0, -0.02],
            [head - 0.003, -long + 0.01],
            [head, -long],
          ],
          { segments: 24, round: 0 },
        ),
        tilt,
      );
      into.lamp.add(
        turned(
          [
            [0, -long + 0.01],
            [head * 0.8, -long + 0.01],
            [head * 0.8, -long + 0.016],
            [0, -long + 0.016],
          ],
          { segments: 20 },
        ),
        tilt,
      );
    }
  } else if (form === 'ring') {
    into.shade.add(
      turned(
        [
          [r * 0.62, height],
          [r * 0.62, 0.012],
          [r * 0.66, 0.004],
          [r * 0.96, 0.004],
          [r, 0.012],
          [r, height],
        ],
        { segments: 56, round: 0.003 },
      ),
      carry,
    );
    into.lamp.add(
      turned(
        [
          [r * 0.68, 0.0042],
          [r * 0.7, 0.0],
          [r * 0.92, 0.0],
          [r * 0.94, 0.0042],
        ],
        { segments: 56 },
      ),
      carry,
    );
  } else if (form === 'dish') {
    into.shade.add(
      turned(
        [
          [r * 0.5, height - 0.012],
          [r * 0.5, height],
          [0, height],
        ],
        { segments: 40 },
      ),
      carry,
    );
    into.fittings.add(post(0, 0, height * 0.3, height - 0.01, 0.008)).add(
      turned(
        [
          [0, 0],
          [0.011, 0.004],
          [0.012, 0.012],
          [0, 0.014],
        ],
        { segments: 16 },
      ),
    );
    // A dish of glass that glows.
    into.lamp.add(
      turned(
        Array.from({ length: cuts(12, 5) + 1 }, (_, i): Turn => {
          const t = i / cuts(12, 5);
          return [r * 0.985 * t, 0.012 + height * 0.62 * t ** 2.4, 0];
        }),
        { segments: 48 },
      ),
      carry,
    );
    into.inner.add(
      turned(
        [
          [r * 0.985, height * 0.62 + 0.012],
          [r, height * 0.62 + 0.016],
          [r * 0.985, height * 0.62 + 0.02],
        ],
        { segments: 48, round: 0.001 },
      ),
      carry,
    );
  } else {
    into.shade.add(
      turned(
        [
          [r * 0.985, 0.006],
          [r, 0.008],
          [r, height],
          [0, height],
        ],
        { segments: 48, round: 0.002 },
      ),
      carry,
    );
    into.lamp.add(
      turned(
        [
          [0, 0, 0],
          [r * 0.9, 0.0008],
          [r * 0.985, 0.0062, 0],
        ],
        { segments: 48, round: 0.01 },
      ),
      carry,
    );
  }
  return listed(into, { shade: 'body' });
}

const recessedTraits = z.object({ form: choice('Form', ['round', 'square', 'pair'], 'round') });

/** Set into the ceiling: a rim that lies on it, a dark cone, the lamp behind. All of it is shallow, for the ceiling is not cut. */
function recessed({ width, depth, height }: PieceSize, { form }: z.output<typeof recessedTraits>): Made[] {
  const into = shaded();
  const one = (x: number, r: number): void => {
    into.shade.add(
      turned(
        [
          [r * 0.78, height],
          [r * 0.8, 0.001],
          [r * 0.97, 0.0005],
          [r, height * 0.6],
          [r, height],
        ],
        { x, segments: 40, round: 0.001 },
      ),
    );
    into.inner.add(
      turned(
        [
          [r * 0.55, height * 0.92],
          [r * 0.79, 0.0012],
        ],
        { x, segments: 40, round: 0 },
      ),
    );
    into.lamp.add(
      turned(
        [
          [0, height * 0.7, 0],
          [r * 0.57, height * 0.86],
          [r * 0.57, height * 0.98],
          [0, height * 0.98],
        ],
        { x, segments: 28, round: 0.001 },
      ),
    );
  };
  const k = Math.min(width, depth) / 2;
  if (form === 'square') {
    const r = k;
    into.shade
      .add(board(-r, -r, 0, r, -r * 0.82, height))
      .add(board(-r, r * 0.82, 0, r, r, height))
      .add(board(-r, -r * 0.82, 0.0003, -r * 0.82, r * 0.82, height))
      .add(board(r * 0.82, -r * 0.82, 0.0003, r, r * 0.82, height));
    into.lamp.add(board(-r * 0.82, -r * 0.82, height * 0.5, r * 0.82, r * 0.82, height * 0.95));
  } else if (form === 'pair') {
    const r = Math.min(depth / 2, width / 4) * 0.86;
    for (const x of [-1, 1]) one((x * width) / 4, r);
    into.shade.add(board(-width / 2, -depth / 2, height * 0.72, width / 2, depth / 2, height));
  } else one(0, k);
  return listed(into, { shade: 'rim', inner: 'cone' });
}

const trackTraits = z.object({ heads: count('Heads', { min: 1, max: 8, first: 3 }), tilt: length('Tilt', { min: 0, max: 1.2, first: 0.5, step: 0.05 }) });

function track({ width, height }: PieceSize, { heads, tilt }: z.output<typeof trackTraits>): Made[] {
  const into = shaded();
  const w = width / 2;
  into.fittings.add(board(-w, -0.017, height - 0.02, w, 0.017, height, 0.002));
  into.inner.add(board(-w + 0.004, -0.006, height - 0.0205, w - 0.004, 0.006, height - 0.018, 0.0004));
  for (let i = 0; i < heads; i++) {
    const x = -w + (width * (i + 0.5)) / heads;
    const long = Math.min(0.13, height - 0.04);
    into.fittings.add(board(x - 0.03, -0.014, height - 0.038, x + 0.03, 0.014, height - 0.0195, 0.002)).add(post(x, 0, height - 0.075, height - 0.037, 0.005));
    const m = about('x', i % 2 ? tilt : -tilt * 0.6, x, 0, height - 0.075);
    into.shade.add(
      turned(
        [
          [0.032, -long + 0.05],
          [0.032, 0.035],
          [0.027, 0.045],
          [0, 0.047],
        ],
        { segments: 24 },
      ),
      m,
    );
    into.inner.add(
      turned(
        [
          [0.012, -long + 0.08],
          [0.0295, -long + 0.052],
          [0.032, -long + 0.05],
        ],
        { segments: 24, round: 0 },
      ),
      m,
    );
    into.lamp.add(
      turned(
        [
          [0, -long + 0.068],
          [0.023, -long + 0.068],
          [0.023, -long + 0.075],
          [0, -long + 0.075],
        ],
        { segments: 20 },
      ),
      m,
    );
  }
  return listed(into, { shade: 'heads', fittings: 'track' });
}

const wallTraits = z.object({
  form: choice('Form', ['arm', 'globe', 'up and down', 'half shade', 'candle'], 'arm'),
  shade: choice('Shade', ['empire', 'drum', 'cone', 'dome'], 'empire'),
  arms: count('Arms', { min: 1, max: 3, first: 1 }),
});

function wallLight({ width, depth, height }: PieceSize, { form, shade, arms }: z.output<typeof wallTraits>): Made[] {
  const into = shaded();
  const back = depth / 2;
  const plate = (z0: number, r: number): void =>
    void into.fittings.add(
      turned(
        [
          [0, 0],
          [r, 0],
          [r, 0.008],
          [r * 0.8, 0.014],
          [0, 0.015],
        ],
        { segments: 28, round: 0.003 },
      ),
      upright(0, back, z0),
    );
  if (form === 'up and down') {
    const r = Math.min(width / 2, depth * 0.42);
    const y = back - depth + r;
    into.shade
      .add(
        turned(
          [
            [r * 0.92, 0.008],
            [r, 0],
            [r, height],
            [r * 0.92, height - 0.008],
          ],
          { y, segments: 32, round: 0.001 },
        ),
      )
      .add(
        turned(
          [
            [r * 0.92, height - 0.008],
            [r * 0.9, height * 0.86],
            [0, height * 0.84],
          ],
          { y, segments: 32, round: 0.001 },
        ),
      )
      .add(
        turned(
          [
            [0, height * 0.16],
            [r * 0.9, height * 0.14],
            [r * 0.92, 0.008],
          ],
          { y, segments: 32, round: 0.001 },
        ),
      );
    into.fittings.add(board(-r * 0.5, y + r * 0.5, height * 0.3, r * 0.5, back, height * 0.7, 0.003));
    for (const [z0, z1] of [
      [height * 0.86, height * 0.9],
      [height * 0.1, height * 0.14],
    ])
      into.lamp.add(
        turned(
          [
            [0, z0],
            [r * 0.8, z0],
            [r * 0.8, z1],
            [0, z1],
          ],
          { y, segments: 24 },
        ),
      );
  } else if (form === 'half shade') {
    const r = Math.min(width / 2, depth - 0.01);
    const n = cuts(28, 8);
    const at = (i: number, q: number, zz: number) =>
      v3(q * Math.cos(Math.PI + (Math.PI * i) / n), back - 0.004 + q * Math.sin(Math.PI + (Math.PI * i) / n), zz);
    for (let i = 0; i < n; i++) into.shade.quad(at(i, r, 0), at(i + 1, r, 0), at(i + 1, r * 0.86, height), at(i, r * 0.86, height));
    const hem = (q: number, zz: number): Vec3[] => Array.from({ length: n + 1 }, (_, i) => at(i, q, zz));
    into.shade.add(rod(hem(r, 0.003), 0.003, { section: 6 })).add(rod(hem(r * 0.86, height - 0.003), 0.003, { section: 6 }));
    into.fittings
      .add(board(-0.05, back - 0.012, height * 0.2, 0.05, back, height * 0.8, 0.003))
      .add(post(0, back - r * 0.42, height * 0.3, height * 0.42, 0.014))
      .add(bar(v3(0, back - 0.01, height * 0.32), v3(0, back - r * 0.42, height * 0.32), 0.006));
    into.lamp.add(bulb(height * 0.56, Math.min(0.03, r * 0.25), 0, back - r * 0.42, 'down'));
  } else {
    const r = form === 'globe' ? Math.min(width / 2 / arms, height * 0.36, depth * 0.36) : Math.min(width / 2 / arms, depth * 0.45, height * 0.34);
    const h = form === 'candle' ? 0.16 : tallOf(form === 'globe' ? 'globe' : shade, r);
    const z0 = height - h - (form === 'globe' ? 0.035 : 0.05);
    const reach = depth - r;
    for (let i = 0; i < arms; i++) {
      const x = arms === 1 ? 0 : -width / 2 + r + ((width - 2 * r) * i) / (arms - 1);
      const y = back - reach;
      const low = Math.max(0.03, z0 * 0.45);
      into.fittings.add(
        rod(
          curve(
            [
              v3(0, back - 0.006, low),
              v3(x * 0.5, back - reach * 0.45, low - Math.min(0.03, low * 0.5)),
              v3(x, y, low + (z0 - low) * 0.35),
              v3(x, y, Math.max(low + 0.01, z0 + h * 0.1)),
            ],
            cuts(isFine() ? 7 : 4, 2),
          ),
          0.0055,
          { section: 8 },
        ),
      );
      if (form === 'candle') {
        into.fittings.add(
          turned(
            vessel(
              [
                [0.012, z0 - 0.004],
                [0.034, z0 + 0.01],
              ],
              0.0015,
              0.001,
            ),
            { x, y, segments: 20, round: 0.0008 },
          ),
        );
        into.inner.add(post(x, y, z0, z0 + 0.075, 0.0105));
        into.lamp.add(
          lathe(
            [
              [0, z0 + 0.075],
              [0.012, z0 + 0.085],
              [0.0145, z0 + 0.1],
              [0.008, z0 + 0.122],
              [0, z0 + 0.136],
            ],
            { x, y, segments: 12 },
          ),
        );
      } else shadeAt(into, form === 'globe' ? 'globe' : shade, r, x, y, form === 'globe' ? z0 : z0 + 0.03, 'below');
    }
    plate(Math.max(0.05, Math.max(0.03, z0 * 0.45)), Math.min(0.05, height * 0.25, width * 0.45));
  }
  return listed(into);
}

const stripTraits = z.object({ form: choice('For', ['picture', 'mirror', 'shelf'], 'picture') });

function stripLight({ width, depth, height }: PieceSize, { form }: z.output<typeof stripTraits>): Made[] {
  const into = shaded();
  const [w, back] = [width / 2, depth / 2];
  if (form === 'picture') {
    // A trough on an arm that reaches over the frame.
    const r = Math.min(0.028, height * 0.25, depth * 0.3);
    const low = Math.min(0.03, height * 0.25);
    const [y, zz] = [-depth / 2 + r, height - r];
    into.fittings
      .add(
        rod(
          curve(
            [v3(0, back, low), v3(0, back - depth * 0.3, height * 0.55), v3(0, y + depth * 0.15, height - r * 0.4), v3(0, y, zz + r * 0.7)],
            cuts(isFine() ? 7 : 4, 2),
          ),
          0.0045,
          { section: 8 },
        ),
      )
      .add(board(-0.025, back - Math.min(0.008, depth * 0.3), 0, 0.025, back, Math.min(0.07, height * 0.8), 0.002));
    into.shade.add(rod([v3(-w, y, zz), v3(w, y, zz)], r, { section: 20 }));
    into.lamp.add(board(-w + 0.01, y - r * 0.4, zz - r - 0.001, w - 0.01, y + r * 0.7, zz - r * 0.72, 0.001));
  } else if (form === 'mirror') {
    const r = Math.min(0.022, height * 0.4);
    into.fittings
      .add(board(-w * 0.3, back - 0.014, height * 0.2, w * 0.3, back, height * 0.8, 0.003))
      .add(bar(v3(0, back - 0.01, height / 2), v3(0, -depth / 2 + r, height / 2), 0.012));
    into.lamp.add(rod([v3(-w + 0.012, -depth / 2 + r, height / 2), v3(w - 0.012, -depth / 2 + r, height / 2)], r * 0.9, { section: 20 }));
    for (const s of [-1, 1])
      into.shade.add(
        turned(
          [
            [0, 0],
            [r, 0],
            [r, 0.02],
            [0, 0.02],
          ],
          { segments: 24 },
        ),
        about('y', Math.PI / 2, s > 0 ? w - 0.02 : -w, -depth / 2 + r, height / 2),
      );
  } else {
    into.shade.add(board(-w, -depth / 2, 0.003, w, back, height, 0.0008));
    into.lamp.add(board(-w + 0.006, -depth / 2 + depth * 0.18, 0, w - 0.006, back - depth * 0.18, 0.0042, 0.0006));
  }
  return listed(into, { shade: 'body' });
}

export const fixedLuminaires: StockItem[] = [
  maker({
    id: 'ceiling-disc',
    name: 'Ceiling light',
    category: 'Luminaires',
    traits: ceilingTraits,
    size: { width: 0.36, depth: 0.36, height: 0.07 },
    min: { width: 0.15, depth: 0.08, height: 0.04 },
    max: { width: 1.2, depth: 0.8, height: 0.25 },
    mount: 'ceiling',
    parts: { body: 'metal.steel-brushed', inner: 'metal.brass-brushed', fittings: 'metal.brass-brushed', [LAMP_PART]: 'light.opal' },
    lamp: { lumen: 1600, kelvin: 3000, on: true },
    words: 'flush bathroom hall',
    sold: sold(95),
    connections: ['socket'],
    cards: [
      { id: 'ceiling-disc', name: 'Ceiling disc' },
      { id: 'ceiling-dish', name: 'Glass dish', size: { width: 0.4, depth: 0.4, height: 0.17 }, traits: { form: 'dish' } },
      {
        id: 'ceiling-ring',
        name: 'Ceiling ring',
        size: { width: 0.5, depth: 0.5, height: 0.06 },
        traits: { form: 'ring' },
        finishes: { body: 'metal.powder-black' },
      },
      {
        id: 'ceiling-square',
        name: 'Square ceiling light',
        size: { width: 0.32, depth: 0.32, height: 0.06 },
        traits: { form: 'square' },
        finishes: { body: 'metal.enamel-white' },
      },
      {
        id: 'ceiling-spots',
        name: 'Ceiling spots',
        size: { width: 0.6, depth: 0.1, height: 0.15 },
        traits: { form: 'spots' },
        finishes: { body: 'metal.enamel-white', inner: 'metal.steel-brushed' },
      },
    ],
    make: onCeiling,
    symbol: crossed,
  }),
  maker({
    id: 'recessed-light',
    name: 'Recessed light',
    category: 'Luminaires',
    traits: recessedTraits,
    size: { width: 0.09, depth: 0.09, height: 0.012 },
    min: { width: 0.05, depth: 0.05, height: 0.008 },
    max: { width: 0.4, depth: 0.25, height: 0.03 },
    mount: 'ceiling',
    parts: { rim: 'metal.enamel-white', cone: 'metal.steel-brushed', [LAMP_PART]: 'light.opal' },
    lamp: { lumen: 600, kelvin: 3000, on: true },
    words: 'downlight ceiling spot',
    sold: sold(32),
    connections: ['socket'],
    cards: [
      { id: 'recessed-light', name: 'Recessed light' },
      { id: 'recessed-square', name: 'Square recessed light', size: { width: 0.1, depth: 0.1, height: 0.012 }, traits: { form: 'square' } },
      {
        id: 'recessed-pair',
        name: 'Recessed pair',
        size: { width: 0.2, depth: 0.11, height: 0.012 },
        traits: { form: 'pair' },
        finishes: { rim: 'metal.powder-black' },
      },
    ],
    make: recessed,
    symbol: (size) => [ellipseLine(size.width, size.depth), ...crossed(size).slice(1)],
  }),
  maker({
    id: 'track-light',
    name: 'Track',
    category: 'Luminaires',
    traits: trackTraits,
    size: { width: 1.2, depth: 0.14, height: 0.18 },
    min: { width: 0.4, depth: 0.08, height: 0.12 },
    max: { width: 3, depth: 0.2, height: 0.3 },
    mount: 'ceiling',
    parts: { heads: 'metal.powder-black', inner: 'metal.steel-brushed', track: 'metal.powder-black', [LAMP_PART]: 'light.opal' },
    lamp: { lumen: 1800, kelvin: 3000, on: true },
    words: 'spots ceiling rail',
    sold: sold(210),
    connections: ['socket'],
    cards: [
      { id: 'track-light', name: 'Track with spots' },
      {
        id: 'track-long',
        name: 'Long track',
        size: { width: 2.2, depth: 0.14, height: 0.18 },
        traits: { heads: 5 },
        finishes: { heads: 'metal.enamel-white', track: 'metal.enamel-white' },
      },
    ],
    make: track,
    symbol: strip,
  }),
  maker({
    id: 'wall-light',
    name: 'Wall light',
    category: 'Luminaires',
    traits: wallTraits,
    size: { width: 0.2, depth: 0.22, height: 0.32 },
    min: { width: 0.08, depth: 0.07, height: 0.15 },
    max: { width: 0.6, depth: 0.4, height: 0.6 },
    mount: 'wall',
    foot: 1.55,
    parts: { shade: 'cloth.shade', inner: 'paper.cream', fittings: 'metal.brass-aged', [LAMP_PART]: 'light.opal' },
    lamp: { lumen: 400, kelvin: 2700, on: true },
    words: 'sconce bracket lamp',
    sold: sold(88),
    connections: ['socket'],
    cards: [
      { id: 'wall-light', name: 'Wall light' },
      {
        id: 'wall-globe',
        name: 'Globe wall light',
        size: { width: 0.15, depth: 0.19, height: 0.28 },
        traits: { form: 'globe' },
        finishes: { shade: 'glass.frosted', fittings: 'metal.brass-brushed' },
      },
      {
        id: 'wall-up-down',
        name: 'Up and down light',
        size: { width: 0.1, depth: 0.13, height: 0.2 },
        traits: { form: 'up and down' },
        finishes: { shade: 'metal.powder-black', fittings: 'metal.powder-black' },
      },
      { id: 'wall-half', name: 'Half-shade light', size: { width: 0.26, depth: 0.15, height: 0.2 }, traits: { form: 'half shade' } },
      { id: 'wall-candles', name: 'Candle bracket', size: { width: 0.3, depth: 0.18, height: 0.34 }, traits: { form: 'candle', arms: 2 } },
    ],
    make: wallLight,
    symbol: ({ width, depth }) => [
      outline(rectangle(Math.min(0.1, width), 0.015, 0, depth / 2 - 0.0075)),
      outline(circle(Math.min(width, depth) * 0.35, 0, -depth * 0.05)),
    ],
  }),
  maker({
    id: 'strip-light',
    name: 'Strip light',
    category: 'Luminaires',
    traits: stripTraits,
    size: { width: 0.45, depth: 0.18, height: 0.14 },
    min: { width: 0.2, depth: 0.012, height: 0.008 },
    max: { width: 2, depth: 0.3, height: 0.3 },
    mount: 'wall',
    foot: 1.9,
    parts: { body: 'metal.brass-brushed', fittings: 'metal.brass-brushed', [LAMP_PART]: 'light.opal' },
    lamp: { lumen: 450, kelvin: 3000, on: true },
    words: 'picture mirror shelf under cabinet',
    sold: sold(74),
    connections: ['socket'],
    cards: [
      { id: 'picture-light', name: 'Picture light' },
      {
        id: 'mirror-light',
        name: 'Mirror light',
        size: { width: 0.6, depth: 0.1, height: 0.06 },
        traits: { form: 'mirror' },
        finishes: { body: 'metal.chrome', fittings: 'metal.chrome' },
        words: 'bathroom',
      },
      {
        id: 'shelf-light',
        name: 'Shelf strip',
        size: { width: 0.8, depth: 0.025, height: 0.01 },
        traits: { form: 'shelf' },
        finishes: { body: 'metal.steel-brushed' },
      },
    ],
    make: stripLight,
    symbol: strip,
  }),
];
