import { z } from 'zod';
import { MeshBuilder } from '../../geometry/mesh';
import { isFine } from '../../geometry/shapes';
import { board, timber } from '../forms/boards';
import { upright } from '../forms/carry';
import { roundRectangle, slab } from '../forms/flat';
import { bar, curve, rod, slat } from '../forms/skin';
import { post, turned } from '../forms/turned';
import { choice, count, length, toggle } from '../traits';
import { maker, outline, rectangle, stroke, v3, type Made, type PieceSize, type StockItem } from '../types';

const hookTraits = z.object({
  form: choice('Form', ['pegs', 'hooks'], 'pegs'),
  spacing: length('Between them', { min: 0.08, max: 0.3, first: 0.14, step: 0.01 }),
  shelf: toggle('Shelf above', false),
});

function hooks({ width, depth, height }: PieceSize, { form, spacing, shelf }: z.output<typeof hookTraits>): Made[] {
  const [w, d] = [width / 2, depth / 2];
  const wood = new MeshBuilder();
  const metal = new MeshBuilder();
  const rail = Math.min(height, 0.11);
  wood.add(timber(-w, d - 0.02, 0, w, d, rail));
  if (shelf) {
    wood.add(timber(-w, -d, height - 0.02, w, d - 0.0005, height));
    for (const x of [-1, 1]) wood.add(timber(x < 0 ? -w + 0.03 : w - 0.05, -d + 0.04, rail - 0.02, x < 0 ? -w + 0.05 : w - 0.03, d - 0.0005, height - 0.0195));
  }
  const n = Math.max(1, Math.floor((width - 0.08) / spacing) + 1);
  const reach = Math.min(depth - 0.02, 0.09);
  for (let i = 0; i < n; i++) {
    const x = n === 1 ? 0 : -((n - 1) * spacing) / 2 + i * spacing;
    if (form === 'pegs')
      wood.add(
        turned(
          [
            [0, -0.004],
            [0.009, -0.004],
            [0.0075, reach * 0.45],
            [0.0065, reach * 0.75],
            [0.0125, reach * 0.93],
            [0.011, reach],
            [0, reach],
          ],
          { segments: 16, round: 0.002 },
        ),
        // Pegs point a little upwards.
        [1, 0, 0, 0, 0, Math.sin(0.2), Math.cos(0.2), 0, 0, -Math.cos(0.2), Math.sin(0.2), 0, x, d - 0.02, rail * 0.45, 1],
      );
    else {
      const y = d - 0.02;
      metal.add(
        rod(
          curve(
            [v3(x, y, rail * 0.75), v3(x, y - reach * 0.55, rail * 0.82), v3(x, y - reach * 0.9, rail * 0.98), v3(x, y - reach, rail * 1.12)],
            isFine() ? 6 : 2,
          ),
          0.0038,
          { section: 8 },
        ),
      );
      metal.add(
        rod(
          curve(
            [v3(x, y, rail * 0.55), v3(x, y - reach * 0.25, rail * 0.2), v3(x, y - reach * 0.5, rail * 0.14), v3(x, y - reach * 0.62, rail * 0.38)],
            isFine() ? 6 : 2,
          ),
          0.0036,
          { section: 8 },
        ),
      );
      metal.add(slab(roundRectangle(0.018, 0.06, 0.008), 0, 0.004, 0.001), upright(x, y + 0.0005, rail * 0.6));
    }
  }
  return [
    { part: 'rail', mesh: wood.build() },
    { part: 'hooks', mesh: metal.build() },
  ];
}

const standTraits = z.object({ arms: count('Arms', { min: 3, max: 10, first: 8 }), ring: toggle('Ring for umbrellas', false) });

function coatStand({ width, depth, height }: PieceSize, { arms, ring }: z.output<typeof standTraits>): Made[] {
  const frame = new MeshBuilder();
  const r = Math.min(width, depth) / 2;
  const n = isFine() ? 6 : 2;
  frame.add(rod([v3(0, 0, 0.2), v3(0, 0, 0.6), v3(0, 0, height - 0.18)], 0.018, { section: 14 }));
  frame.add(post(0, 0, height - 0.185, height, 0.021, 0.008, 14));
  for (let i = 0; i < 4; i++) {
    const a = (i / 4) * 2 * Math.PI + Math.PI / 4;
    const at = (k: number, zz: number) => v3(Math.cos(a) * r * k, Math.sin(a) * r * k, zz);
    frame.add(rod(curve([at(0.05, 0.46), at(0.2, 0.3), at(0.55, 0.1), at(0.95, 0.012)], n), 0.011, { section: 10 }));
  }
  for (let i = 0; i < arms; i++) {
    const a = (i / arms) * 2 * Math.PI;
    const low = i % 2 ? 0.16 : 0;
    const at = (k: number, zz: number) => v3(Math.cos(a) * r * k, Math.sin(a) * r * k, zz);
    frame.add(
      rod(curve([at(0.05, height - 0.22 - low), at(0.3, height - 0.25 - low), at(0.62, height - 0.17 - low), at(0.72, height - 0.08 - low)], n), 0.009, {
        section: 10,
      }),
    );
  }
  if (ring) {
    const rr = r * 0.72;
    frame.add(
      rod(
        Array.from({ length: 25 }, (_, i) => v3(rr * Math.cos((i / 24) * 2 * Math.PI), rr * Math.sin((i / 24) * 2 * Math.PI), 0.56)),
        0.006,
        { section: 8 },
      ),
    );
    for (let i = 0; i < 4; i++) frame.add(bar(v3(0, 0, 0.56), v3(rr * Math.cos((i * Math.PI) / 2), rr * Math.sin((i * Math.PI) / 2), 0.56), 0.005));
  }
  return [{ part: 'frame', mesh: frame.build() }];
}

const screenTraits = z.object({
  leaves: count('Leaves', { min: 2, max: 6, first: 3 }),
  filling: choice('Filling', ['cloth', 'slats', 'panel'], 'cloth'),
});

/** A folding screen: leaves that stand in a zigzag over its whole depth. */
function screen({ width, depth, height }: PieceSize, { leaves, filling }: z.output<typeof screenTraits>): Made[] {
  const frame = new MeshBuilder();
  const infill = new MeshBuilder();
  const step = width / leaves;
  const deep = Math.max(0.03, depth - 0.03);
  const t = 0.02;
  for (let i = 0; i < leaves; i++) {
    const up = i % 2 === 0;
    const [x0, y0] = [-width / 2 + i * step, up ? deep / 2 : -deep / 2];
    const [x1, y1] = [x0 + step, -y0];
    const long = Math.hypot(x1 - x0, y1 - y0);
    const a = Math.atan2(y1 - y0, x1 - x0);
    const [c, s] = [Math.cos(a), Math.sin(a)];
    const carry = [c, s, 0, 0, -s, c, 0, 0, 0, 0, 1, 0, x0, y0, 0, 1];
    const [u0, u1] = [0.008, long - 0.008];
    for (const u of [u0, u1 - 0.036]) frame.add(timber(u, -t / 2, 0.02, u + 0.036, t / 2, height), carry);
    for (const [zz, hh] of [
      [0.12, 0.05],
      [height * 0.56, 0.04],
      [height - 0.055, 0.05],
    ])
      frame.add(timber(u0 + 0.036, -t / 2 + 0.0006, zz, u1 - 0.036, t / 2 - 0.0006, zz + hh), carry);
    for (const [p, q] of [
      [0.17, height * 0.56],
      [height * 0.56 + 0.04, height - 0.055],
    ]) {
      if (filling === 'slats') {
        const n = Math.round((q - p) / 0.045);
        for (let k = 0; k < n; k++)
          infill.add(
            slat([v3(u0 + 0.03, 0, p + ((q - p) * (k + 0.5)) / n), v3(u1 - 0.03, 0, p + ((q - p) * (k + 0.5)) / n)], () => v3(0, 0.009, 0.014), 0.004),
            carry,
          );
      } else infill.add(board(u0 + 0.03, filling === 'cloth' ? -0.002 : -0.005, p - 0.006, u1 - 0.03, filling === 'cloth' ? 0.002 : 0.005, q + 0.006), carry);
    }
  }
  return [
    { part: 'frame', mesh: frame.build() },
    { part: 'filling', mesh: infill.build() },
  ];
}

export const hallThings: StockItem[] = [
  maker({
    id: 'hooks',
    name: 'Hook rail',
    category: 'Storage',
    traits: hookTraits,
    size: { width: 0.9, depth: 0.1, height: 0.11 },
    min: { width: 0.2, depth: 0.05, height: 0.06 },
    max: { width: 2.4, depth: 0.35, height: 0.5 },
    mount: 'wall',
    foot: 1.6,
    parts: { rail: 'timber.oak', hooks: 'metal.iron-black' },
    words: 'coat pegs hall porch',
    sold: { supplier: 'Brake Forge', price: 55 },
    cards: [
      { id: 'hooks', name: 'Peg rail' },
      { id: 'hooks-iron', name: 'Hook rail', traits: { form: 'hooks' } },
      { id: 'hooks-shelf', name: 'Hook rail with shelf', size: { width: 1.1, depth: 0.26, height: 0.32 }, traits: { form: 'hooks', shelf: true } },
    ],
    make: hooks,
    symbol: ({ width, depth }) => [outline(rectangle(width, 0.02, 0, depth / 2 - 0.01)), outline(rectangle(width, depth), true)],
  }),
  maker({
    id: 'coat-stand',
    name: 'Coat stand',
    category: 'Storage',
    traits: standTraits,
    size: { width: 0.5, depth: 0.5, height: 1.8 },
    min: { width: 0.35, depth: 0.35, height: 1.5 },
    max: { width: 0.7, depth: 0.7, height: 2 },
    mount: 'floor',
    parts: { frame: 'timber.beech' },
    words: 'hall hat umbrella bentwood',
    sold: { supplier: 'Ferrow & Daughters', price: 130 },
    cards: [
      { id: 'coat-stand', name: 'Coat stand' },
      { id: 'coat-stand-ring', name: 'Coat and umbrella stand', traits: { ring: true }, finishes: { frame: 'metal.powder-black' } },
    ],
    make: coatStand,
    symbol: ({ width, depth }) => [
      outline(rectangle(width * 0.7, depth * 0.7), true),
      stroke([-width / 2, 0], [width / 2, 0]),
      stroke([0, -depth / 2], [0, depth / 2]),
    ],
  }),
  maker({
    id: 'screen',
    name: 'Folding screen',
    category: 'Storage',
    traits: screenTraits,
    size: { width: 1.35, depth: 0.25, height: 1.75 },
    min: { width: 0.8, depth: 0.12, height: 1.2 },
    max: { width: 3, depth: 0.6, height: 2.2 },
    mount: 'floor',
    parts: { frame: 'timber.ash', filling: 'cloth.flax-linen' },
    words: 'room divider paravent',
    sold: { supplier: 'Ferrow & Daughters', price: 260 },
    cards: [
      { id: 'screen', name: 'Folding screen' },
      { id: 'screen-slatted', name: 'Slatted screen', traits: { filling: 'slats', leaves: 4 }, size: { width: 1.8, depth: 0.3, height: 1.8 } },
    ],
    make: screen,
    symbol: ({ width, depth }, { leaves }) => [
      stroke(...Array.from({ length: leaves + 1 }, (_, i): [number, number] => [-width / 2 + (width * i) / leaves, (i % 2 ? -1 : 1) * (depth / 2 - 0.015)])),
    ],
  }),
];
