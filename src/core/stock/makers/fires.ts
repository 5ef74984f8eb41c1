import { z } from 'zod';
import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { cuts, isFine, isLight } from '../../geometry/shapes';
import { add3, scale3, type Vec3 } from '../../geometry/vec';
import { board, timber } from '../forms/boards';
import { about, upright } from '../forms/carry';
import { roundRectangle, slab } from '../forms/flat';
import { randomFrom } from '../forms/random';
import { bar, framesAlong, loft, rod, slat } from '../forms/skin';
import { padded } from '../forms/soft';
import { post, turned } from '../forms/turned';
import { choice, count, length, toggle } from '../traits';
import { circle, ellipseLine, maker, outline, rectangle, stroke, v3, type Made, type PieceSize, type StockItem } from '../types';

const stoveTraits = z.object({
  form: choice('Form', ['box', 'cylinder', 'wide', 'log store'], 'box'),
  pipe: choice('Flue', ['up', 'back', 'none'], 'up'),
  logs: toggle('Logs inside', true),
  flue: length('Flue up to', { min: 1.2, max: 3.2, first: 2.48, step: 0.01 }),
});

/** A log, sawn at both ends. */
function log(from: Vec3, to: Vec3, r0: number, r1: number): Mesh {
  const n = cuts(10, 6);
  const [frame] = framesAlong([from, to]);
  const ring = (p: Vec3, r: number): Vec3[] =>
    Array.from({ length: n }, (_, i) => {
      const a = (2 * Math.PI * i) / n;
      const own = r * (1 + 0.06 * Math.sin(3 * a + 70 * r0));
      return add3(p, add3(scale3(frame.side, own * Math.cos(a)), scale3(frame.up, own * Math.sin(a))));
    });
  return loft([ring(from, r0), ring(to, r1)]);
}

/** A few logs on one another. */
function logs(out: MeshBuilder, x0: number, x1: number, y: number, z: number, seed: number, n = 4): void {
  const random = randomFrom(seed);
  for (let i = 0; i < n; i++) {
    const r = 0.03 + 0.012 * random();
    const row = Math.floor(i / 2);
    const yy = y + (i % 2 ? 0.036 : -0.036) * (row ? 0.4 : 1);
    const a = 0.25 * (random() - 0.5);
    const l = (x1 - x0) / 2;
    const m = (x0 + x1) / 2;
    out.add(
      log(v3(m - l * Math.cos(a), yy - l * Math.sin(a), z + r + row * 0.062), v3(m + l * Math.cos(a), yy + l * Math.sin(a), z + r + row * 0.062), r, r * 0.94),
    );
  }
}

function stove({ width, depth, height }: PieceSize, { form, pipe, logs: burning, flue }: z.output<typeof stoveTraits>): Made[] {
  const [w, d] = [width / 2, depth / 2];
  const body = new MeshBuilder();
  const glass = new MeshBuilder();
  const wood = new MeshBuilder();
  const pipes = new MeshBuilder();
  const store = form === 'log store' ? height * 0.34 : 0;
  const foot = form === 'cylinder' ? 0.03 : store ? 0.02 : 0.13;
  const z0 = foot + store;
  const top = height - 0.02;
  if (form === 'cylinder') {
    const r = Math.min(w, d) - 0.008;
    const [kx, ky] = [w / (r + 0.008), d / (r + 0.008)];
    const carry = [kx, 0, 0, 0, 0, ky, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];
    body.add(
      turned(
        [
          [0, 0],
          [r * 0.96, 0],
          [r * 0.96, foot],
          [r, foot],
          [r, top],
          [r + 0.008, top],
          [r + 0.008, height],
          [0, height],
        ],
        { segments: 40, round: 0.003 },
      ),
      carry,
    );
    // The door is a part of the drum a little before it, its pane bent.
    const arc = (rr: number, za: number, zb: number, half: number, t: number): Mesh => {
      const n = cuts(isFine() ? 20 : 12, 5);
      const line = Array.from({ length: n + 1 }, (_, i) => {
        const a = -Math.PI / 2 - half + (2 * half * i) / n;
        return v3((rr - t / 2) * Math.cos(a), (rr - t / 2) * Math.sin(a), (za + zb) / 2);
      });
      return slat(line, () => v3(0, 0, (zb - za) / 2), t);
    };
    const [ga, gb] = [z0 + (top - z0) * 0.36, top - 0.08];
    body.add(arc(r + 0.012, ga - 0.035, ga, 0.72, 0.014), carry).add(arc(r + 0.012, gb, gb + 0.035, 0.72, 0.014), carry);
    for (const s of [-1, 1]) {
      const a = -Math.PI / 2 + s * 0.68;
      body.add(
        bar(
          v3((r + 0.004) * kx * Math.cos(a), (r + 0.004) * ky * Math.sin(a), ga - 0.035),
          v3((r + 0.004) * kx * Math.cos(a), (r + 0.004) * ky * Math.sin(a), gb + 0.035),
          0.012,
        ),
      );
    }
    glass.add(arc(r + 0.006, ga - 0.004, gb + 0.004, 0.66, 0.004), carry);
    const a = -Math.PI / 2 + 0.76;
    body.add(
      bar(
        v3((r + 0.03) * kx * Math.cos(a), (r + 0.03) * ky * Math.sin(a), (ga + gb) / 2 - 0.07),
        v3((r + 0.03) * kx * Math.cos(a), (r + 0.03) * ky * Math.sin(a), (ga + gb) / 2 + 0.07),
        0.007,
      ),
    );
  } else {
    if (store) {
      body
        .add(board(-w + 0.01, -d + 0.01, 0, -w + 0.022, d - 0.01, z0))
        .add(board(w - 0.022, -d + 0.01, 0, w - 0.01, d - 0.01, z0))
        .add(board(-w + 0.022, d - 0.022, 0.001, w - 0.022, d - 0.0102, z0))
        .add(board(-w + 0.011, -d + 0.011, 0.0005, w - 0.011, d - 0.011, foot));
      for (let row = 0; row < 3; row++)
        for (let i = 0; i < Math.floor((width - 0.1) / 0.085); i++) {
          const zz = foot + 0.04 + row * 0.075;
          if (zz + 0.04 < z0)
            wood.add(
              log(v3(-w + 0.075 + i * 0.085 + (row % 2) * 0.02, -d + 0.03, zz), v3(-w + 0.075 + i * 0.085 + (row % 2) * 0.02, d - 0.04, zz), 0.036, 0.038),
            );
        }
    } else
      for (const x of [-w + 0.055, w - 0.055])
        for (const y of [-d + 0.055, d - 0.055])
          body.add(
            turned(
              [
                [0, 0],
                [0.02, 0],
                [0.015, 0.03],
                [0.022, 0.09],
                [0.03, foot],
                [0.03, foot + 0.012],
                [0, foot + 0.012],
              ],
              { x, y, segments: 14 },
            ),
          );
    // A box with a room for the fire: sides, back, floor, roof, and a front round the door.
    const [x0, x1] = [-w + 0.055, w - 0.055];
    const [a, b] = [z0 + 0.1, top - 0.075];
    body
      .add(timber(-w, -d + 0.016, z0, -w + 0.03, d, top))
      .add(timber(w - 0.03, -d + 0.016, z0, w, d, top))
      .add(timber(-w + 0.03, d - 0.03, z0 + 0.0005, w - 0.03, d - 0.0005, top));
    body
      .add(timber(-w + 0.03, -d + 0.017, z0 + 0.0004, w - 0.03, d - 0.03, z0 + 0.05))
      .add(timber(-w + 0.03, -d + 0.017, top - 0.05, w - 0.03, d - 0.03, top - 0.0004));
    body
      .add(timber(-w + 0.03, -d + 0.0165, z0 + 0.05, x0 + 0.012, -d + 0.04, top - 0.05))
      .add(timber(x1 - 0.012, -d + 0.0165, z0 + 0.05, w - 0.03, -d + 0.04, top - 0.05));
    // The door: a frame before it, its pane set back.
    const f = 0.042;
    body
      .add(timber(x0, -d - 0.002, a, x0 + f, -d + 0.016, b))
      .add(timber(x1 - f, -d - 0.002, a, x1, -d + 0.016, b))
      .add(timber(x0 + f, -d - 0.0015, a, x1 - f, -d + 0.0155, a + f))
      .add(timber(x0 + f, -d - 0.0015, b - f, x1 - f, -d + 0.0155, b));
    glass.add(board(x0 + f - 0.004, -d + 0.004, a + f - 0.004, x1 - f + 0.004, -d + 0.008, b - f + 0.004));
    body.add(slab(roundRectangle(width, depth, 0.02), top, height, 0.006, 4));
    const hx = x1 - 0.018;
    body.add(rod([v3(hx, -d, (a + b) / 2 - 0.05), v3(hx, -d - 0.028, (a + b) / 2 - 0.05), v3(hx, -d - 0.03, (a + b) / 2 + 0.06)], 0.006, { section: 10 }));
    for (const zz of [a + 0.03, b - 0.03]) body.add(post(x0 - 0.004, -d + 0.004, zz - 0.018, zz + 0.018, 0.007));
    body
      .add(
        turned(
          [
            [0, 0],
            [0.012, 0],
            [0.014, 0.01],
            [0, 0.012],
          ],
          { segments: 14 },
        ),
        upright(-w * 0.4, -d + 0.016, z0 + 0.05),
      )
      .add(
        turned(
          [
            [0, 0],
            [0.012, 0],
            [0.014, 0.01],
            [0, 0.012],
          ],
          { segments: 14 },
        ),
        upright(w * 0.4, -d + 0.016, z0 + 0.05),
      );
    if (burning) logs(wood, -w * 0.55, w * 0.55, -0.01, z0 + 0.052, 3);
  }
  const y = form === 'cylinder' ? 0.02 : d - 0.13;
  if (pipe === 'up')
    pipes.add(
      turned(
        [
          [0.065, height - 0.012, 0],
          [0.078, height - 0.012],
          [0.078, height + 0.03],
          [0.066, height + 0.034],
          [0.065, Math.max(height + 0.1, flue), 0],
        ],
        { y, segments: 24 },
      ),
    );
  else if (pipe === 'back')
    pipes.add(
      turned(
        [
          [0, 0, 0],
          [0.065, 0],
          [0.065, 0.1],
          [0.078, 0.104],
          [0.078, 0.14],
          [0, 0.14],
        ],
        { segments: 24 },
      ),
      about('x', -Math.PI / 2, 0, d - 0.1, top - 0.12),
    );
  return [
    { part: 'body', mesh: body.build() },
    { part: 'window', mesh: glass.build() },
    { part: 'pipe', mesh: pipes.build() },
    { part: 'logs', mesh: wood.build() },
  ];
}

const fireTraits = z.object({
  surround: choice('Surround', ['plain', 'pilasters', 'beam'], 'plain'),
  opening: length('Opening wide', { min: 0.4, max: 1.2, first: 0.62, step: 0.01 }),
  tall: length('Opening high', { min: 0.4, max: 1.1, first: 0.68, step: 0.01 }),
  hearth: length('Hearth before it', { min: 0.2, max: 0.7, first: 0.4, step: 0.01 }),
  logs: toggle('Logs laid', true),
});

/** An open fire on the face of a breast: hearth before it, surround with a shelf, a fireback in a shallow recess with a basket. */
function fire({ width, depth, height }: PieceSize, { surround, opening, tall, hearth, logs: laid }: z.output<typeof fireTraits>): Made[] {
  const [w, d] = [width / 2, depth / 2];
  const stone = new MeshBuilder();
  const slabs = new MeshBuilder();
  const iron = new MeshBuilder();
  const wood = new MeshBuilder();
  const lining = new MeshBuilder();
  const before = Math.min(hearth, depth - 0.12);
  const face = -d + before;
  const ow = Math.min(opening, width - 0.24) / 2;
  const oh = Math.min(tall, height - 0.2);
  slabs.add(timber(-w, -d, 0, w, face + 0.02, 0.04)).add(timber(-ow, face + 0.02, 0, ow, d - 0.02, 0.0395));
  const jamb = w - ow;
  if (surround === 'beam') {
    for (const x of [-1, 1]) lining.add(board(x < 0 ? -w + 0.05 : ow, face + 0.015, 0.04, x < 0 ? -ow : w - 0.05, d, oh));
    lining.add(board(-w + 0.05, face + 0.0155, oh + 0.0005, w - 0.05, d, height - 0.01));
    stone.add(timber(-w, face - 0.05, oh - 0.02, w, face + 0.02, oh + 0.16));
  } else {
    for (const x of [-1, 1]) {
      const [x0, x1] = x < 0 ? [-w + 0.03, -ow - 0.02] : [ow + 0.02, w - 0.03];
      stone.add(timber(x0, face, 0.04, x1, d, oh + 0.02));
      lining.add(board(x < 0 ? -ow - 0.02 : ow, face + 0.03, 0.04, x < 0 ? -ow : ow + 0.02, d - 0.001, oh));
      if (surround === 'pilasters') {
        stone
          .add(timber(x0 - 0.006, face - 0.016, 0.0405, x1 + 0.006, face + 0.01, 0.17))
          .add(timber(x0 + 0.014, face - 0.012, 0.17, x1 - 0.014, face + 0.01, oh - 0.03));
        const flutes = Math.max(2, Math.floor((jamb - 0.12) / 0.025));
        for (let i = 0; i < flutes && !isLight(); i++)
          stone.add(
            bar(
              v3(x0 + 0.024 + ((x1 - x0 - 0.048) * i) / Math.max(1, flutes - 1), face - 0.0125, 0.2),
              v3(x0 + 0.024 + ((x1 - x0 - 0.048) * i) / Math.max(1, flutes - 1), face - 0.0125, oh - 0.06),
              0.0055,
              0.0055,
              { section: 8 },
            ),
          );
        stone.add(timber(x0 - 0.004, face - 0.018, oh - 0.03, x1 + 0.004, face + 0.01, oh + 0.021));
      }
    }
    stone.add(timber(-w + 0.028, face - 0.004, oh + 0.021, w - 0.028, d - 0.0005, height - 0.045));
    lining.add(board(-ow - 0.02, face + 0.03, oh, ow + 0.02, d - 0.001, oh + 0.02));
    // The shelf stands out over a small moulding.
    stone
      .add(timber(-w + 0.012, face - 0.03, height - 0.0455, w - 0.012, d - 0.0004, height - 0.03))
      .add(timber(-w, face - 0.05, height - 0.0305, w, d - 0.0002, height));
  }
  // The back of the fire leans forward, its sides splay.
  const back = d - 0.025;
  lining.quad(v3(-ow * 0.72, back, 0.04), v3(ow * 0.72, back, 0.04), v3(ow * 0.72, back - 0.03, oh), v3(-ow * 0.72, back - 0.03, oh));
  lining.quad(v3(-ow, face + 0.04, 0.04), v3(-ow * 0.72, back, 0.04), v3(-ow * 0.72, back - 0.03, oh), v3(-ow, face + 0.04, oh));
  lining.quad(v3(ow * 0.72, back, 0.04), v3(ow, face + 0.04, 0.04), v3(ow, face + 0.04, oh), v3(ow * 0.72, back - 0.03, oh));
  // A basket of bars on four feet.
  const bw = ow * 0.66;
  const [by0, by1] = [face + 0.02, Math.max(face + 0.09, back - 0.06)];
  for (const x of [-bw, bw]) for (const y of [by0, by1]) iron.add(post(x, y, 0.04, 0.22, 0.008, 0.008, 10));
  for (const x of [-bw, bw])
    iron.add(
      turned(
        [
          [0, 0],
          [0.012, 0.004],
          [0.013, 0.014],
          [0.006, 0.024],
          [0, 0.025],
        ],
        { x, y: by0, segments: 14 },
      ),
      [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0.218, 1],
    );
  for (const zz of [0.11, 0.15, 0.19])
    iron
      .add(bar(v3(-bw, by0, zz), v3(bw, by0, zz), 0.0055))
      .add(bar(v3(-bw, by0, zz), v3(-bw, by1, zz), 0.0055))
      .add(bar(v3(bw, by0, zz), v3(bw, by1, zz), 0.0055));
  for (let i = 0; i < 7; i++) iron.add(bar(v3(-bw + (2 * bw * i) / 6, by0, 0.1), v3(-bw + (2 * bw * i) / 6, by1, 0.1), 0.005));
  if (laid) logs(wood, -bw * 0.9, bw * 0.9, (by0 + by1) / 2, 0.105, 5, 5);
  return [
    { part: 'surround', mesh: stone.build() },
    { part: 'hearth', mesh: slabs.build() },
    { part: 'lining', mesh: lining.build() },
    { part: 'basket', mesh: iron.build() },
    { part: 'logs', mesh: wood.build() },
  ];
}

const radiatorTraits = z.object({
  form: choice('Form', ['panel', 'columns', 'ladder', 'plinth'], 'panel'),
  panels: count('Panels or columns deep', { min: 1, max: 4, first: 2 }),
  valve: choice('Valve', ['left', 'right'], 'left'),
});

function radiator({ width, depth, height }: PieceSize, { form, panels, valve }: z.output<typeof radiatorTraits>): Made[] {
  const [w, d] = [width / 2, depth / 2];
  const body = new MeshBuilder();
  const valves = new MeshBuilder();
  const gap = Math.min(0.03, depth * 0.25);
  const back = d - gap;
  const low = form === 'ladder' ? 0 : Math.min(0.09, height * 0.14);
  if (form === 'panel' || form === 'plinth') {
    const n = Math.max(1, Math.min(panels, Math.floor((back + d) / 0.03)));
    const t = 0.014;
    const run = n === 1 ? 0 : (back + d - t) / (n - 1);
    for (let p = 0; p < n; p++) {
      const y0 = -d + p * run;
      body.add(board(-w, y0, low, w, y0 + t, height - 0.004, 0.004));
      // Waterways stand out of the sheet, a hand's breadth apart.
      const m = Math.round(width / 0.034);
      if (p === 0 && !isLight())
        for (let i = 0; i < m; i++) {
          const x = -w + (width * (i + 0.5)) / m;
          body.add(bar(v3(x, y0 + 0.002, low + 0.035), v3(x, y0 + 0.002, height - 0.04), 0.0095, 0.0095, { section: 8, flat: 0.45, up: v3(1, 0, 0) }));
        }
    }
    // Convectors between them: folded sheet, too thin to be round.
    if (n > 1) {
      const m = cuts(Math.round(width / 0.026), Math.round(width / 0.2));
      for (let i = 0; i < m; i++)
        body.box(-w + 0.02 + ((width - 0.04) * i) / m, -d + t, low + 0.04, -w + 0.02 + ((width - 0.04) * i) / m + 0.0012, back - t, height - 0.03);
      // The grille above, the covers at both ends.
      for (let i = 0; i < cuts(Math.round(width / 0.016), 0); i++)
        body.box(
          -w + 0.006 + ((width - 0.02) * i) / Math.round(width / 0.016),
          -d + 0.006,
          height - 0.008,
          -w + 0.0105 + ((width - 0.02) * i) / Math.round(width / 0.016),
          back - 0.006,
          height,
        );
      for (const s of [-1, 1])
        body.add(board(s < 0 ? -w - 0.0 : w - 0.0025, -d + t + 0.0005, low + 0.01, s < 0 ? -w + 0.0025 : w, back - t - 0.0005, height - 0.008, 0.0006));
    }
  } else if (form === 'columns') {
    const m = Math.max(2, Math.round(width / 0.046));
    const step = width / m;
    const deep = Math.max(1, Math.min(panels, Math.floor((back + d) / 0.032)));
    const across = deep === 1 ? 0 : (back + d - 0.028) / (deep - 1);
    for (let i = 0; i < m; i++) {
      const x = -w + step * (i + 0.5);
      for (let k = 0; k < deep; k++) {
        const y = -d + 0.014 + k * across;
        body.add(
          rod([v3(x, y, low + 0.02), v3(x, y, low + 0.05), v3(x, y, height - 0.05), v3(x, y, height - 0.02)], (t) => (t < 0.02 || t > 0.98 ? 0.0105 : 0.0125), {
            section: 10,
          }),
        );
      }
      // Bosses join the columns of a section and the sections.
      for (const zz of [low + 0.026, height - 0.03]) body.add(padded(v3(x - step * 0.5, -d, zz - 0.02), v3(x + step * 0.5, back, zz + 0.022), 0.012, 0));
    }
    for (const x of [-w + step * 0.5, w - step * 0.5]) for (const y of [-d + 0.02, back - 0.02]) body.add(bar(v3(x, y, 0), v3(x, y, low + 0.01), 0.012, 0.009));
  } else {
    // Rungs between two uprights, in groups with room for towels.
    for (const x of [-w + 0.016, w - 0.016]) body.add(bar(v3(x, back - 0.02, 0.02), v3(x, back - 0.02, height - 0.01), 0.016));
    const m = Math.max(4, Math.round((height - 0.1) / 0.045));
    for (let i = 0; i < m; i++) {
      if (i % 7 === 6) continue;
      const zz = 0.06 + ((height - 0.12) * i) / (m - 1);
      body.add(bar(v3(-w + 0.014, -d + 0.012, zz), v3(w - 0.014, -d + 0.012, zz), 0.0112));
      for (const x of [-w + 0.016, w - 0.016]) body.add(bar(v3(x, -d + 0.012, zz), v3(x, back - 0.02, zz), 0.0095, 0.0095, { section: 8 }));
    }
    for (const x of [-w + 0.016, w - 0.016]) for (const zz of [0.15, height - 0.15]) body.add(bar(v3(x, back - 0.02, zz), v3(x, d, zz), 0.008));
  }
  // Brackets at the back, tails to the floor, a valve on one and a lock shield on the other.
  if (form !== 'ladder') for (const x of [-w * 0.7, w * 0.7]) body.add(board(x - 0.012, back - 0.001, low + 0.05, x + 0.012, d, height - 0.08));
  const py = form === 'ladder' ? back - 0.02 : (-d + back) / 2;
  const zz = form === 'ladder' ? 0.045 : low + 0.04;
  for (const s of [-1, 1]) {
    const x = s * (form === 'ladder' ? w - 0.016 : w + 0.028);
    const own = (valve === 'left' ? -1 : 1) === s;
    if (form !== 'ladder') valves.add(bar(v3(s * (w - 0.012), py, zz), v3(x, py, zz), 0.0075));
    valves
      .add(post(x, py, 0, Math.max(0.02, zz), 0.0075, 0.0075, 12))
      .add(post(x, py, Math.max(0.0, zz - 0.02), zz + 0.018, 0.0125, 0.0125, 16))
      .add(
        turned(
          [
            [0, 0],
            [0.021, 0],
            [0.021, 0.003],
            [0.009, 0.006],
            [0, 0.006],
          ],
          { x, y: py, segments: 20 },
        ),
      );
    if (form !== 'ladder')
      valves.add(
        turned(
          own
            ? [
                [0, 0],
                [0.0135, 0],
                [0.019, 0.014],
                [0.0195, 0.05],
                [0.016, 0.06],
                [0, 0.062],
              ]
            : [
                [0, 0],
                [0.012, 0],
                [0.012, 0.022],
                [0.009, 0.03],
                [0, 0.031],
              ],
          { x, y: py, segments: 18, round: 0.002 },
        ),
        [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, zz + 0.017, 1],
      );
  }
  return [
    { part: 'body', mesh: body.build() },
    { part: 'valves', mesh: valves.build() },
  ];
}

const logTraits = z.object({ form: choice('Form', ['basket', 'stack'], 'basket') });

function logBasket({ width, depth, height }: PieceSize, { form }: z.output<typeof logTraits>): Made[] {
  const wood = new MeshBuilder();
  const holder = new MeshBuilder();
  const random = randomFrom(4);
  const [w, d] = [width / 2, depth / 2];
  const r = 0.042;
  const rim = form === 'basket' ? height * 0.7 : 0;
  if (form === 'basket') {
    const k = depth / width;
    const carry = [1, 0, 0, 0, 0, k, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];
    const coils = cuts(Math.round(rim / 0.02), 4);
    const ring: [number, number][] = [];
    for (let i = 0; i < coils; i++) {
      const t = (i + 0.5) / coils;
      const rr = w * (0.82 + 0.16 * t);
      const h = rim / coils / 2;
      for (const a of cuts(1, 0) ? [-0.9, -0.3, 0.3, 0.9] : [0]) ring.push([rr - h * 1.2 * (1 - Math.cos(a)), rim * t + h * Math.sin(a) * 1.1]);
    }
    holder.add(
      turned([[0, 0, 0], [ring[0][0] - 0.006, 0], ...ring.map(([a, b]) => [a, b, 0] as const), [w * 0.94, rim - 0.002], [w * 0.8, 0.04], [0, 0.034, 0]], {
        segments: 40,
      }),
      carry,
    );
    for (const s of [-1, 1])
      holder.add(
        rod(
          Array.from({ length: 9 }, (_, i) =>
            v3(s * (w * 0.95 + 0.012 * Math.sin((Math.PI * i) / 8)), -0.09 + (0.18 * i) / 8, rim - 0.03 + 0.07 * Math.sin((Math.PI * i) / 8)),
          ),
          0.007,
          { section: 8 },
        ),
      );
  }
  const inner = form === 'basket' ? [w * 0.72, d * 0.72] : [w, d];
  let row = 0;
  for (let z = form === 'basket' ? 0.04 + r : r; z + r <= height - 0.004; z += r * 1.76, row++) {
    const across = Math.max(1, Math.floor((2 * inner[0]) / (2 * r)) - (row % 2));
    for (let i = 0; i < across; i++) {
      const x = (i - (across - 1) / 2) * 2 * r;
      const own = r * (0.86 + 0.13 * random());
      const slip = 0.02 * (random() - 0.5);
      wood.add(log(v3(x, -inner[1] + 0.012 + slip, z), v3(x + 0.006 * (random() - 0.5), inner[1] - 0.012 + slip, z), own, own * (0.94 + 0.05 * random())));
    }
  }
  return [
    { part: 'basket', mesh: holder.build() },
    { part: 'logs', mesh: wood.build() },
  ];
}

export const fires: StockItem[] = [
  maker({
    id: 'stove',
    name: 'Wood stove',
    category: 'Fires & radiators',
    traits: stoveTraits,
    size: { width: 0.52, depth: 0.42, height: 0.72 },
    min: { width: 0.36, depth: 0.32, height: 0.5 },
    max: { width: 0.9, depth: 0.6, height: 1.4 },
    mount: 'floor',
    parts: { body: 'metal.iron-black', window: 'glass.smoke', pipe: 'metal.iron-black', logs: 'timber.birch' },
    words: 'fire hearth',
    sold: { supplier: 'Brake Forge', price: 1650 },
    // Nothing that burns may stand before it.
    clear: { front: 0.8, sides: 0.3 },
    connections: ['flue'],
    cards: [
      { id: 'stove', name: 'Wood stove' },
      { id: 'stove-round', name: 'Round stove', size: { width: 0.46, depth: 0.46, height: 1.08 }, traits: { form: 'cylinder' } },
      { id: 'stove-wide', name: 'Wide stove', size: { width: 0.72, depth: 0.42, height: 0.64 }, traits: { form: 'wide' } },
      { id: 'stove-store', name: 'Stove over a log store', size: { width: 0.5, depth: 0.42, height: 1.1 }, traits: { form: 'log store' } },
    ],
    make: stove,
    symbol: ({ width, depth }, { form, pipe }) => [
      form === 'cylinder' ? ellipseLine(width, depth) : outline(rectangle(width, depth)),
      ...(pipe === 'up' ? [outline(circle(0.065, 0, form === 'cylinder' ? 0.02 : depth / 2 - 0.13))] : []),
    ],
  }),
  maker({
    id: 'open-fire',
    name: 'Open fire',
    category: 'Fires & radiators',
    traits: fireTraits,
    size: { width: 1.3, depth: 0.8, height: 1.1 },
    min: { width: 0.8, depth: 0.5, height: 0.8 },
    max: { width: 2, depth: 1.1, height: 1.5 },
    mount: 'floor',
    fixed: true,
    parts: { surround: 'stone.limestone', hearth: 'stone.flag', lining: 'brick.engineering', basket: 'metal.iron-black', logs: 'timber.birch' },
    words: 'fireplace hearth surround mantel chimney',
    sold: { supplier: 'Tarn Edge Stone', price: 1900 },
    clear: { front: 0.8 },
    connections: ['flue'],
    cards: [
      { id: 'open-fire', name: 'Open fire' },
      { id: 'open-fire-pilasters', name: 'Fire with pilasters', traits: { surround: 'pilasters' }, finishes: { surround: 'stone.marble' } },
      {
        id: 'open-fire-beam',
        name: 'Fire below a beam',
        size: { width: 1.6, depth: 0.85, height: 1.2 },
        traits: { surround: 'beam', opening: 0.9, tall: 0.85 },
        finishes: { surround: 'timber.bog-oak', lining: 'brick.red-stock' },
      },
    ],
    make: fire,
    symbol: ({ width, depth }, { hearth, opening }) => [
      outline(rectangle(width, depth)),
      stroke([-width / 2, -depth / 2 + Math.min(hearth, depth - 0.12)], [width / 2, -depth / 2 + Math.min(hearth, depth - 0.12)]),
      outline(rectangle(Math.min(opening, width - 0.24), depth - Math.min(hearth, depth - 0.12) - 0.03, 0, Math.min(hearth, depth - 0.12) / 2 - 0.015)),
    ],
  }),
  maker({
    id: 'radiator',
    name: 'Radiator',
    category: 'Fires & radiators',
    traits: radiatorTraits,
    size: { width: 1, depth: 0.11, height: 0.6 },
    min: { width: 0.3, depth: 0.06, height: 0.2 },
    max: { width: 2.6, depth: 0.25, height: 1.9 },
    mount: 'wall',
    foot: 0.0,
    fixed: true,
    parts: { body: 'metal.enamel-white', valves: 'metal.chrome' },
    words: 'heating panel column towel',
    sold: { supplier: 'Cray Heat', price: 260 },
    connections: ['heating'],
    clear: { front: 0.1 },
    cards: [
      { id: 'radiator', name: 'Panel radiator' },
      { id: 'radiator-columns', name: 'Column radiator', size: { width: 0.92, depth: 0.17, height: 0.62 }, traits: { form: 'columns', panels: 3 } },
      {
        id: 'radiator-tall',
        name: 'Tall column radiator',
        size: { width: 0.46, depth: 0.14, height: 1.8 },
        traits: { form: 'columns', panels: 2 },
        finishes: { body: 'paint.soot' },
      },
      {
        id: 'radiator-ladder',
        name: 'Towel radiator',
        size: { width: 0.5, depth: 0.11, height: 1.15 },
        traits: { form: 'ladder' },
        finishes: { body: 'metal.chrome' },
        words: 'bathroom',
      },
      { id: 'radiator-low', name: 'Low radiator', size: { width: 1.4, depth: 0.14, height: 0.3 }, traits: { form: 'plinth', panels: 3 }, words: 'window' },
    ],
    make: radiator,
    symbol: ({ width, depth }) => [outline(rectangle(width, depth)), stroke([-width / 2, -depth / 2 + 0.02], [width / 2, -depth / 2 + 0.02])],
  }),
  maker({
    id: 'logs',
    name: 'Logs',
    category: 'Fires & radiators',
    traits: logTraits,
    size: { width: 0.5, depth: 0.38, height: 0.36 },
    min: { width: 0.3, depth: 0.25, height: 0.2 },
    max: { width: 1.4, depth: 0.5, height: 1.6 },
    mount: 'floor',
    parts: { basket: 'carpet.seagrass', logs: 'timber.birch' },
    words: 'firewood fuel',
    sold: { supplier: 'Lower Marren Yard', price: 45 },
    cards: [
      { id: 'logs', name: 'Log basket' },
      { id: 'log-stack', name: 'Stack of logs', size: { width: 0.9, depth: 0.33, height: 0.7 }, traits: { form: 'stack' } },
    ],
    make: logBasket,
    symbol: ({ width, depth }, { form }) => [form === 'basket' ? ellipseLine(width, depth) : outline(rectangle(width, depth))],
  }),
];
