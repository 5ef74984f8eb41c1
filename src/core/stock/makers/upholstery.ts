import { z } from 'zod';
import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { isFine } from '../../geometry/shapes';
import { timber } from '../forms/boards';
import { about, shiftBy, upright } from '../forms/carry';
import { bar, loft, loop, squareSection } from '../forms/skin';
import { cushion, frontSeam, padded, pillow, PIPING, tufted } from '../forms/soft';
import { turned } from '../forms/turned';
import { choice, length, toggle, unless } from '../traits';
import { maker, outline, rectangle, rounded, stroke, v3, type Made, type PieceSize, type StockItem } from '../types';

const upholsteredTraits = (arms: 'broad' | 'slim') =>
  z.object({
    arms: choice('Arms', ['broad', 'slim', 'low', 'rolled', 'none'], arms),
    back: choice('Back', ['cushions', 'tight', 'buttoned', 'winged'], 'cushions'),
    chaise: choice('Chaise', ['none', 'left', 'right', 'corner left', 'corner right'], 'none'),
    seat: unless(length('Depth beside the chaise', { min: 0.78, max: 1.1, first: 0.92, step: 0.01 }), 'chaise', 'none'),
    base: choice('Base', ['turned legs', 'block feet', 'plinth', 'skirt'], 'turned legs'),
    piping: toggle('Piping', true),
    scatter: toggle('Scatter cushions', false),
  });

type Upholstered = z.output<ReturnType<typeof upholsteredTraits>>;

/** What an armchair is of a sofa. Nothing lies beside a chaise it has not. */
const WITHOUT_CHAISE = { chaise: 'none', seat: 0.92 } as const;

/** Width of an arm, metres. */
const ARM = { broad: 0.18, slim: 0.14, low: 0.16, rolled: 0.2, none: 0.012 } as const;

/** How thick the back is with its rake, and how a seat lies, metres. */
const BACK = 0.2;
const SEAT = 0.43;

/** How an upholstered piece is divided: arms, seats in the width between them, and what stands out to the front. */
function divided({ width, depth }: PieceSize, { arms, chaise, seat }: Upholstered) {
  const arm = ARM[arms];
  const inner = width - 2 * arm;
  const seats = Math.max(1, Math.round(inner / 0.68));
  // Without a chaise the whole depth is seat; with one the seat lies at the back of it.
  const own = chaise === 'none' ? depth : Math.min(seat, depth);
  const corner = chaise.startsWith('corner');
  const left = chaise.endsWith('left');
  // A piece that is no deeper than its seat has no room for a return.
  const stands = chaise !== 'none' && depth - own > 0.2;
  return {
    arm,
    inner,
    seats,
    step: inner / seats,
    front: depth / 2 - own,
    own,
    out: stands && !corner ? (left ? 0 : seats - 1) : -1,
    corner: stands && corner,
    left,
  };
}

/** A turned leg, a little splayed. */
function turnedLeg(x: number, y: number, height: number, sx: number, sy: number): Mesh {
  return new MeshBuilder()
    .add(
      turned(
        [
          [0, 0],
          [0.011, 0],
          [0.0135, height * 0.3],
          [0.021, height * 0.82],
          [0.0225, height],
          [0, height],
        ],
        { segments: 14 },
      ),
      [1, 0, 0, 0, 0, 1, 0, 0, -sx * 0.12, -sy * 0.12, 1, 0, x + sx * 0.12 * height, y + sy * 0.12 * height, 0, 1],
    )
    .build();
}

/** An arm with a scroll: its section swept from front to back. */
function rolledArm(x0: number, x1: number, y0: number, y1: number, z0: number, top: number): Mesh {
  const out = new MeshBuilder();
  const r = 0.075;
  const middle = (x0 + x1) / 2;
  out.add(padded(v3(x0 + 0.03, y0 + 0.012, z0), v3(x1 - 0.03, y1, top - r), 0.02, 0.004));
  const n = isFine() ? 24 : 8;
  const ring = (y: number, k: number) =>
    Array.from({ length: n }, (_, i) =>
      v3(middle + 0.098 * k * Math.cos((2 * Math.PI * i) / n), y, top - r + r * k * Math.sin((2 * Math.PI * i) / n)),
    ).reverse();
  // From the middle of its filled facing over the seam to where the roll begins: share of its radius, and how far behind its front.
  const turn = [0, 0.35, 0.7, 1].map((t): [number, number] => [0.84 + 0.16 * Math.sin((Math.PI / 2) * t), 0.007 + 0.022 * (1 - Math.cos((Math.PI / 2) * t))]);
  const ends: [number, number][] = isFine() ? [[0.4, 0], [0.72, 0.003], ...turn] : [[1, 0]];
  out.add(loft([...ends.map(([k, e]) => ring(y0 + e, k)), ...[...ends].reverse().map(([k, e]) => ring(y1 - e, k))]));
  if (isFine()) out.add(loop(ring(y0 + 0.006, 0.84), PIPING, 6));
  return out.build();
}

interface Parts {
  frame: MeshBuilder;
  cushions: MeshBuilder;
  legs: MeshBuilder;
  scatter: MeshBuilder;
}

/** A back that leans: its block, and buttons where it is deep-buttoned. From x0 to x1, its foot's back at y, leaning by an angle. */
function leaningBack({ frame }: Parts, x0: number, x1: number, y: number, z0: number, z1: number, thick: number, buttoned: boolean): void {
  const rake = 0.1;
  const h = z1 - z0;
  const carry = about('x', -rake, (x0 + x1) / 2, y - Math.sin(rake) * h, z0);
  const w = (x1 - x0) / 2;
  frame.add(padded(v3(-w, -thick, -0.02), v3(w, 0, h - 0.004), Math.min(0.06, thick * 0.4), 0.01), carry);
  if (!buttoned) return;
  // From just above the seat to where its upper edge begins to turn.
  const [low, high] = [Math.max(0.1, h * 0.3), h - 0.05];
  const quilt = tufted({
    width: 2 * w - 0.08,
    height: high - low,
    thick: 0.04,
    columns: Math.max(2, Math.round((x1 - x0) / 0.2)),
    rows: Math.max(2, Math.round((high - low) / 0.14)),
  });
  frame.add(new MeshBuilder().add(quilt, upright(0, -thick - 0.002, (low + high) / 2)).build(), carry);
}

/** Sofas and armchairs: legs, frame, arms, back and as many seats as the width holds, one of them drawn out where there is a chaise, or a return with seats along it. */
function upholstered(size: PieceSize, traits: Upholstered): Made[] {
  const { width, depth, height } = size;
  const { arm, step, seats, front, out, corner, left, own } = divided(size, traits);
  const parts: Parts = { frame: new MeshBuilder(), cushions: new MeshBuilder(), legs: new MeshBuilder(), scatter: new MeshBuilder() };
  const { frame, cushions, legs } = parts;
  const [w, d] = [width / 2, depth / 2];
  const foot = traits.base === 'plinth' ? 0.06 : traits.base === 'skirt' ? 0.02 : traits.base === 'block feet' ? 0.09 : 0.13;
  const deck = SEAT - 0.15;
  const side = left ? -1 : 1;
  const piping = traits.piping;
  // Blocks that stand on the floor: the row along the back, and what comes to the front of it.
  const blocks: [number, number, number, number][] = [[-w + 0.015, front + 0.02, w - 0.015, d - 0.02]];
  const chaiseX = -w + arm + out * step;
  // A return is as wide as the row is deep.
  const wing = Math.min(own, width * 0.6);
  if (out >= 0) blocks.push([chaiseX + 0.004, -d + 0.02, chaiseX + step - 0.004, front + 0.04]);
  if (corner) blocks.push(side > 0 ? [w - wing + 0.015, -d + 0.02, w - 0.015, front + 0.04] : [-w + 0.015, -d + 0.02, -w + wing - 0.015, front + 0.04]);
  for (const [k, [x0, y0, x1, y1]] of blocks.entries()) {
    if (traits.base === 'plinth') legs.add(timber(x0 + 0.035, y0 + 0.04, 0, x1 - 0.035, y1 - 0.03, foot + 0.01));
    else if (traits.base === 'skirt') {
      // Box pleats at the corners: a skirt hangs straight between them.
      frame.add(timber(x0 + 0.004, y0 + 0.004, 0.008, x1 - 0.004, y1 - 0.004, foot + 0.15));
      for (const x of [x0 + 0.05, x1 - 0.05]) for (const y of [y0 + 0.05, y1 - 0.05]) legs.add(timber(x - 0.025, y - 0.025, 0, x + 0.025, y + 0.025, 0.02));
    } else {
      const ys: number[] = k ? [y0 + 0.07] : [y0 + 0.07, y1 - 0.07];
      for (const x of [x0 + 0.07, x1 - 0.07])
        for (const y of ys) {
          if (traits.base === 'turned legs') legs.add(turnedLeg(x, y, foot + 0.004, x > (x0 + x1) / 2 ? 1 : -1, y > (y0 + y1) / 2 ? 0.5 : -1));
          else legs.add(bar(v3(x, y, 0), v3(x, y, foot + 0.004), 0.03, 0.036, { section: squareSection(0.12) }));
        }
    }
    frame.add(padded(v3(x0, y0, foot), v3(x1, y1, deck + 0.012), 0.022, 0));
  }
  const rest = traits.arms === 'low' ? 0.52 : 0.61;
  if (traits.arms !== 'none')
    for (const s of [-1, 1]) {
      const [x0, x1] = s < 0 ? [-w, -w + arm] : [w - arm, w];
      const from = corner && s === side ? -d : front;
      if (traits.arms === 'rolled') frame.add(rolledArm(x0, x1, from + 0.004, d - 0.06, foot + 0.01, rest + 0.02));
      else {
        frame.add(padded(v3(x0, from, foot + 0.012), v3(x1, d - 0.05, rest), traits.arms === 'slim' ? 0.035 : 0.04, 0.006));
        if (piping) frame.add(frontSeam(x0 + 0.012, x1 - 0.012, foot + 0.024, rest - 0.012, from + 0.0115, 0.03));
      }
    }
  const inset = traits.arms === 'none' ? 0.004 : arm * 0.35;
  const loose = traits.back === 'cushions';
  leaningBack(parts, -w + inset, w - inset, d - 0.004, foot + 0.03, height, loose ? 0.15 : BACK, traits.back === 'buttoned');
  if (traits.back === 'winged')
    for (const s of [-1, 1]) {
      const x = s * (w - inset - 0.05);
      frame.add(padded(v3(x - 0.045, d - 0.34, rest - 0.03), v3(x + 0.045, d - 0.09, height - 0.02), 0.035, 0.006));
    }
  if (corner) {
    // The back of the return stands at its outer side.
    const [x0, x1] = side > 0 ? [w - 0.15, w - 0.006] : [-w + 0.006, -w + 0.15];
    frame.add(padded(v3(x0, -d + (traits.arms === 'none' ? 0.01 : 0.1), foot + 0.03), v3(x1, d - 0.1, height - 0.015), 0.05, 0.008));
  }
  const back = loose ? 0.15 : BACK;
  const seatCushion = (x0: number, x1: number, y0: number, y1: number, seed: number, swell: readonly [number, number, number, number]): void =>
    void cushions.add(
      cushion({ width: x1 - x0 - 0.004, depth: y1 - y0, thick: SEAT - deck - 0.024, crown: 0.032, sag: 0.012, corner: 0.035, swell, piping, seed }),
      shiftBy((x0 + x1) / 2, (y0 + y1) / 2, deck + 0.002),
    );
  const backCushion = (x0: number, x1: number, seed: number): void => {
    const h = height + 0.02 - SEAT;
    cushions.add(
      cushion({ width: x1 - x0 - 0.012, depth: h, thick: 0.11, crown: 0.04, sag: 0.008, corner: 0.05, swell: [0, 0, 0.006, 0.006], piping, seed }),
      // It stands on the seat and leans on the back.
      [
        1,
        0,
        0,
        0,
        0,
        Math.sin(0.2),
        Math.cos(0.2),
        0,
        0,
        -Math.cos(0.2),
        Math.sin(0.2),
        0,
        (x0 + x1) / 2,
        d - back - 0.055 - Math.sin(0.2) * (h / 2) * 0.35,
        SEAT + h / 2 - 0.004,
        1,
      ],
    );
  };
  // Seats between the arms; a return takes the last of its side.
  const right = corner && side > 0 ? w - wing : w - arm;
  const start = corner && side < 0 ? -w + wing : -w + arm;
  const row = Math.max(1, corner ? Math.round((right - start) / 0.7) : seats);
  const each = (right - start) / row;
  for (let i = 0; i < row; i++) {
    const y0 = i === out ? -d : front;
    const x0 = start + i * each;
    seatCushion(x0, x0 + each, y0 + 0.004, d - back - 0.02, i + 1, [0, 0, 0.009, 0]);
    if (loose) backCushion(x0, x0 + each, i + 11);
  }
  if (corner) {
    const [x0, x1] = side > 0 ? [w - wing, w - 0.15] : [-w + 0.15, -w + wing];
    const end = traits.arms === 'none' ? -d + 0.004 : -d + 0.004;
    const n = Math.max(1, Math.round((front - end) / 0.72));
    seatCushion(x0, x1, front, d - back - 0.02, 31, [0, 0, 0, 0]);
    for (let i = 0; i < n; i++)
      seatCushion(
        x0,
        x1,
        end + ((front - end) * i) / n,
        end + ((front - end) * (i + 1)) / n,
        32 + i,
        side > 0 ? [0.008, 0, i ? 0 : 0.008, 0] : [0, 0.008, i ? 0 : 0.008, 0],
      );
    if (loose) backCushion(x0, x1 - 0.02, 41);
  }
  if (traits.scatter && height > 0.72) {
    const spots: [number, number][] =
      row > 1
        ? [
            [start + 0.2, 0.25],
            [right - 0.24, -0.2],
          ]
        : [[0, 0.1]];
    spots.forEach(([x, turn], i) => {
      const m = about('z', turn);
      const lean = 0.42;
      const y = d - back - (loose ? 0.2 : 0.075);
      const [c, s] = [Math.cos(lean), Math.sin(lean)];
      parts.scatter.add(
        pillow({ width: Math.min(0.42, (height - SEAT) * 1.05), depth: Math.min(0.42, (height - SEAT) * 1.05), thick: 0.13, piping: true, seed: i + 2 }),
        [m[0], m[1], 0, 0, -m[1] * s, m[0] * s, c, 0, m[1] * c, -m[0] * c, s, 0, x, y, SEAT + Math.min(0.42, (height - SEAT) * 1.05) * 0.49, 1],
      );
    });
  }
  return [
    { part: 'frame', mesh: frame.build() },
    { part: 'cushions', mesh: cushions.build() },
    { part: 'scatter', mesh: parts.scatter.build() },
    { part: 'legs', mesh: legs.build() },
  ];
}

function upholsteredSymbol(size: PieceSize, traits: Upholstered) {
  const { width, depth } = size;
  const { arm, inner, seats, step, front, out, own, corner, left } = divided(size, traits);
  const middle = depth / 2 - own / 2;
  const lines = [outline(rounded(width, own, 0.07, 0, middle)), outline(rounded(inner, own - 0.24, 0.05, 0, middle - 0.12))];
  for (let i = 1; i < seats; i++) {
    const x = -inner / 2 + step * i;
    lines.push(stroke([x, front], [x, depth / 2 - 0.24]));
  }
  const wing = Math.min(own, width * 0.6);
  const stand = out >= 0 ? [-width / 2 + arm + out * step, step] : corner ? [left ? -width / 2 : width / 2 - wing, wing] : null;
  if (stand) {
    const [x, wide] = stand;
    const foot = -depth / 2;
    lines.push(stroke([x, front], [x, foot + 0.05], [x + 0.05, foot], [x + wide - 0.05, foot], [x + wide, foot + 0.05], [x + wide, front]));
    if (corner) lines.push(stroke([left ? x + 0.15 : x + wide - 0.15, front], [left ? x + 0.15 : x + wide - 0.15, foot + 0.03]));
  }
  return lines;
}

const seatsOf = (size: PieceSize, traits: Upholstered): number => {
  const { seats, corner, own } = divided(size, traits);
  return seats + (corner ? Math.max(1, Math.round((size.depth - own) / 0.72)) - 1 : 0);
};

/** A chair that lies back: a footrest comes out of it and its back leans. */
const reclinerTraits = z.object({
  pose: choice('Pose', ['upright', 'reading', 'lying'], 'upright'),
  arms: choice('Arms', ['broad', 'slim'], 'broad'),
  head: toggle('Headrest', true),
});

function recliner({ width, depth, height }: PieceSize, { pose, arms, head }: z.output<typeof reclinerTraits>): Made[] {
  const [w, d] = [width / 2, depth / 2];
  const share = pose === 'upright' ? 0 : pose === 'reading' ? 0.5 : 1;
  const frame = new MeshBuilder();
  const cushions = new MeshBuilder();
  const legs = new MeshBuilder();
  const arm = ARM[arms];
  // Footrest, seat and back share its depth.
  const out = share * Math.min(0.36, depth * 0.26);
  const y0 = -d + 0.012 + out;
  const seat = { y0, y1: Math.min(d - 0.27, y0 + 0.54) };
  legs.add(timber(-w + 0.06, seat.y0 + 0.1, 0, w - 0.06, Math.min(d - 0.05, seat.y1 + 0.12), 0.05));
  frame.add(padded(v3(-w + 0.02, seat.y0 + 0.03, 0.05), v3(w - 0.02, Math.min(d - 0.02, seat.y1 + 0.16), 0.3), 0.025, 0.003));
  for (const s of [-1, 1])
    frame.add(padded(v3(s < 0 ? -w : w - arm, seat.y0, 0.06), v3(s < 0 ? -w + arm : w, Math.min(d - 0.03, seat.y1 + 0.14), 0.6), 0.045, 0.008));
  cushions.add(
    cushion({ width: width - 2 * arm - 0.006, depth: seat.y1 - seat.y0, thick: 0.13, crown: 0.03, sag: 0.012, seed: 3 }),
    shiftBy(0, (seat.y0 + seat.y1) / 2, 0.295),
  );
  // The back turns about its foot.
  const run = d - 0.012 - seat.y1;
  const lean = Math.min(0.16 + 0.75 * share, Math.asin(Math.min(1, Math.max(0.05, (run - 0.1) / 0.74))));
  const [c, s] = [Math.cos(lean), Math.sin(lean)];
  const long = Math.min(0.74, (height - 0.4) / c, (run - 0.1 * c) / Math.max(0.05, s));
  const carry = [1, 0, 0, 0, 0, s, c, 0, 0, -c, s, 0, 0, seat.y1 - 0.02, 0.36, 1];
  const put = (mesh: Mesh, y: number, z: number): void =>
    void cushions.add(mesh, [...carry.slice(0, 12), 0, carry[13] + s * y - c * z, carry[14] + c * y + s * z, 1]);
  const wide = width - 2 * arm - 0.004;
  put(cushion({ width: wide, depth: long, thick: 0.15, crown: 0.045, corner: 0.06, swell: [0.004, 0.004, 0, 0.004], seed: 4 }), long / 2, -0.12);
  if (head) put(pillow({ width: wide * 0.82, depth: 0.22, thick: 0.1, pinch: 0.03, seed: 1 }), long - 0.14, 0.055);
  if (share > 0) {
    cushions.add(cushion({ width: wide - 0.02, depth: out, thick: 0.09, crown: 0.02, seed: 5 }), shiftBy(0, seat.y0 - out / 2, 0.29));
    for (const x of [-wide * 0.35, wide * 0.35]) legs.add(bar(v3(x, seat.y0 + 0.05, 0.2), v3(x, seat.y0 - out * 0.6, 0.285), 0.008));
  }
  return [
    { part: 'frame', mesh: frame.build() },
    { part: 'cushions', mesh: cushions.build() },
    { part: 'legs', mesh: legs.build() },
  ];
}

const benchTraits = z.object({
  back: choice('Back', ['none', 'slats', 'panel'], 'none'),
  seat: choice('Seat', ['wood', 'cushion'], 'wood'),
  under: choice('Under the seat', ['open', 'shelf', 'box'], 'open'),
  arms: toggle('Arms', false),
});

function bench({ width, depth, height }: PieceSize, { back, seat, under, arms }: z.output<typeof benchTraits>): Made[] {
  const [w, d] = [width / 2, depth / 2];
  const frame = new MeshBuilder();
  const top = new MeshBuilder();
  const pad = new MeshBuilder();
  const backed = back !== 'none' && height > 0.72;
  const sit = Math.min(height, backed ? 0.46 : height);
  const board = sit - (seat === 'cushion' ? 0.07 : 0);
  const thick = 0.032;
  const y1 = backed ? d - 0.05 : d;
  const boards = Math.max(1, Math.round((y1 + d) / 0.16));
  for (let i = 0; i < boards; i++)
    top.add(timber(-w, -d + ((y1 + d) * i) / boards + (i ? 0.003 : 0), board - thick, w, -d + ((y1 + d) * (i + 1)) / boards, board));
  if (seat === 'cushion') {
    const n = Math.max(1, Math.round(width / 0.8));
    for (let i = 0; i < n; i++)
      pad.add(
        cushion({ width: width / n - 0.006, depth: y1 + d - 0.01, thick: 0.052, crown: 0.018, corner: 0.02, seed: i }),
        shiftBy(-w + (width * (i + 0.5)) / n, (y1 - d) / 2, board + 0.001),
      );
  }
  if (under === 'box') {
    frame
      .add(timber(-w + 0.01, -d + 0.015, 0.06, w - 0.01, -d + 0.035, board - thick))
      .add(timber(-w + 0.01, y1 - 0.03, 0.0, w - 0.01, y1 - 0.01, board - thick));
    for (const s of [-1, 1]) frame.add(timber(s < 0 ? -w + 0.01 : w - 0.03, -d + 0.035, 0, s < 0 ? -w + 0.03 : w - 0.01, y1 - 0.03, board - thick));
    frame.add(timber(-w + 0.03, -d + 0.035, 0.06, w - 0.03, y1 - 0.03, 0.075));
  } else {
    for (const x of [-1, 1])
      for (const y of [-1, 1]) {
        const [px, py] = [x * (w - 0.09), y < 0 ? -d + 0.05 : y1 - 0.045];
        if (!(backed && y > 0))
          frame.add(bar(v3(px + x * 0.03, py + y * 0.015, 0), v3(px, py, board - thick + 0.002), 0.015, 0.022, { section: squareSection(0.35) }));
      }
    for (const x of [-1, 1])
      frame.add(timber(x * (w - 0.09) - 0.011, -d + 0.06, board - thick - 0.06, x * (w - 0.09) + 0.011, y1 - 0.05, board - thick - 0.001));
    frame.add(timber(-w + 0.1, -0.012, board - thick - 0.055, w - 0.1, 0.012, board - thick - 0.002));
    if (under === 'shelf')
      for (let i = 0; i < 5; i++)
        frame.add(timber(-w + 0.075, -d + 0.045 + i * ((y1 + d - 0.12) / 5), 0.14, w - 0.075, -d + 0.045 + i * ((y1 + d - 0.12) / 5) + 0.032, 0.156));
  }
  if (backed) {
    for (const x of [-1, 1])
      frame.add(bar(v3(x * (w - 0.03), d - 0.045, 0), v3(x * (w - 0.03), d - 0.018, height), 0.018, 0.018, { section: squareSection(0.25) }));
    frame.add(bar(v3(-w, d - 0.02, height - 0.03), v3(w, d - 0.02, height - 0.03), 0.012, 0.012, { section: squareSection(0.4), flat: 2.6 }));
    if (back === 'slats') {
      const n = Math.max(3, Math.round(width / 0.12));
      for (let i = 1; i < n; i++) {
        const x = -w + (width * i) / n;
        frame.add(bar(v3(x, d - 0.04, sit - 0.02), v3(x, d - 0.021, height - 0.05), 0.02, 0.02, { section: squareSection(0.3), flat: 0.35, up: v3(0, 1, 0) }));
      }
    } else frame.add(timber(-w + 0.04, d - 0.042, sit - 0.03, w - 0.04, d - 0.026, height - 0.05));
    if (arms)
      for (const x of [-1, 1]) {
        frame.add(bar(v3(x * (w - 0.035), -d + 0.06, board - 0.01), v3(x * (w - 0.035), -d + 0.06, sit + 0.2), 0.016, 0.014, { section: squareSection(0.3) }));
        frame.add(
          bar(v3(x * (w - 0.035), -d + 0.02, sit + 0.21), v3(x * (w - 0.035), d - 0.03, sit + 0.22), 0.028, 0.024, { section: squareSection(0.3), flat: 0.45 }),
        );
      }
  }
  return [
    { part: 'cushions', mesh: pad.build() },
    { part: 'top', mesh: top.build() },
    { part: 'legs', mesh: frame.build() },
  ];
}

const round = (cloth: string, legs: string): StockItem['parts'] => ({ cushions: cloth, frame: cloth, scatter: 'cloth.sage-linen', legs });

export const upholstery: StockItem[] = [
  maker({
    id: 'sofa',
    name: 'Sofa',
    category: 'Seating',
    traits: upholsteredTraits('broad'),
    size: { width: 2.1, depth: 0.92, height: 0.8 },
    min: { width: 1.3, depth: 0.78, height: 0.68 },
    max: { width: 3.6, depth: 2.6, height: 1.1 },
    mount: 'floor',
    parts: round('cloth.oat-weave', 'timber.oak'),
    words: 'couch settee lounge',
    sold: { supplier: 'Quay Lane Upholstery', price: 1680 },
    clear: { front: 0.4 },
    seats: seatsOf,
    cards: [
      { id: 'sofa', name: 'Sofa' },
      { id: 'sofa-two', name: 'Two-seat sofa', size: { width: 1.6, depth: 0.9, height: 0.8 }, traits: { arms: 'slim' } },
      {
        id: 'sofa-plinth',
        name: 'Plinth sofa',
        size: { width: 2.4, depth: 0.98, height: 0.74 },
        traits: { arms: 'low', base: 'plinth', scatter: true },
        words: 'low',
      },
      { id: 'sofa-tight', name: 'Tight-back sofa', size: { width: 1.9, depth: 0.84, height: 0.84 }, traits: { arms: 'slim', back: 'tight' }, words: 'upright' },
      {
        id: 'sofa-chaise',
        name: 'Chaise sofa',
        size: { width: 2.5, depth: 1.6, height: 0.8 },
        traits: { chaise: 'right', base: 'block feet' },
        words: 'corner',
      },
      {
        id: 'sofa-corner',
        name: 'Corner sofa',
        size: { width: 2.7, depth: 2.1, height: 0.78 },
        traits: { chaise: 'corner right', base: 'plinth', arms: 'slim', scatter: true },
        finishes: { cushions: 'cloth.grey-herringbone', frame: 'cloth.grey-herringbone' },
        words: 'L',
      },
      { id: 'sofa-armless', name: 'Armless sofa', size: { width: 1.5, depth: 0.86, height: 0.78 }, traits: { arms: 'none', base: 'block feet' } },
      {
        id: 'sofa-rolled',
        name: 'Rolled-arm sofa',
        size: { width: 2, depth: 0.94, height: 0.84 },
        traits: { arms: 'rolled', base: 'skirt', piping: true },
        finishes: { cushions: 'cloth.stripe-ticking', frame: 'cloth.stripe-ticking' },
        words: 'scroll country',
      },
      {
        id: 'sofa-buttoned',
        name: 'Buttoned sofa',
        size: { width: 1.9, depth: 0.9, height: 0.82 },
        traits: { arms: 'rolled', back: 'buttoned' },
        finishes: { cushions: 'cloth.forest-velvet', frame: 'cloth.forest-velvet' },
        words: 'velvet deep',
      },
    ],
    make: upholstered,
    symbol: upholsteredSymbol,
  }),
  maker({
    id: 'armchair',
    name: 'Armchair',
    category: 'Seating',
    traits: upholsteredTraits('slim').omit({ chaise: true, seat: true }),
    size: { width: 0.84, depth: 0.86, height: 0.78 },
    min: { width: 0.55, depth: 0.72, height: 0.65 },
    max: { width: 1.1, depth: 1.05, height: 1.15 },
    mount: 'floor',
    parts: round('cloth.moss-herringbone', 'timber.walnut'),
    words: 'easy chair reading',
    sold: { supplier: 'Quay Lane Upholstery', price: 820 },
    clear: { front: 0.4 },
    seats: () => 1,
    cards: [
      { id: 'armchair', name: 'Armchair' },
      { id: 'armchair-tight', name: 'Upright armchair', size: { width: 0.76, depth: 0.8, height: 0.86 }, traits: { back: 'tight' } },
      { id: 'armchair-broad', name: 'Broad armchair', size: { width: 1, depth: 0.92, height: 0.76 }, traits: { arms: 'broad', base: 'plinth' } },
      {
        id: 'armchair-wing',
        name: 'Wing chair',
        size: { width: 0.8, depth: 0.86, height: 1.08 },
        traits: { arms: 'rolled', back: 'winged' },
        finishes: { cushions: 'cloth.check-kitchen', frame: 'cloth.check-kitchen' },
        words: 'fireside high back',
      },
      {
        id: 'armchair-buttoned',
        name: 'Buttoned armchair',
        size: { width: 0.82, depth: 0.84, height: 0.84 },
        traits: { arms: 'rolled', back: 'buttoned' },
        finishes: { cushions: 'cloth.tan-hide', frame: 'cloth.tan-hide' },
        words: 'leather club',
      },
      {
        id: 'slipper-chair',
        name: 'Slipper chair',
        size: { width: 0.64, depth: 0.76, height: 0.78 },
        traits: { arms: 'none', back: 'tight' },
        words: 'low bedroom',
      },
    ],
    make: (size, traits) => upholstered(size, { ...traits, ...WITHOUT_CHAISE }),
    symbol: (size, traits) => upholsteredSymbol(size, { ...traits, ...WITHOUT_CHAISE }),
  }),
  maker({
    id: 'recliner',
    name: 'Recliner',
    category: 'Seating',
    traits: reclinerTraits,
    size: { width: 0.86, depth: 0.96, height: 1.04 },
    min: { width: 0.72, depth: 0.88, height: 0.95 },
    max: { width: 1, depth: 1.8, height: 1.15 },
    mount: 'floor',
    parts: { cushions: 'cloth.oxblood-hide', frame: 'cloth.oxblood-hide', legs: 'metal.iron-black' },
    words: 'armchair lie back',
    sold: { supplier: 'Quay Lane Upholstery', price: 1140 },
    clear: ({ depth }, { pose }) => ({ front: pose === 'upright' ? 0.6 : 0.3, back: depth < 1.2 ? 0.3 : 0.1 }),
    seats: () => 1,
    cards: [
      { id: 'recliner', name: 'Recliner' },
      { id: 'recliner-open', name: 'Recliner, lying', size: { width: 0.86, depth: 1.55, height: 1 }, traits: { pose: 'lying' } },
    ],
    make: recliner,
    symbol: ({ width, depth }) => [
      outline(rounded(width, depth, 0.07)),
      outline(rounded(width - 0.36, depth - 0.24, 0.05, 0, -0.1)),
      stroke([0, -depth / 2 + 0.1], [0, depth / 2 - 0.3]),
    ],
  }),
  maker({
    id: 'bench',
    name: 'Bench',
    category: 'Seating',
    traits: benchTraits,
    size: { width: 1.4, depth: 0.36, height: 0.45 },
    min: { width: 0.6, depth: 0.28, height: 0.38 },
    max: { width: 2.4, depth: 0.6, height: 1.15 },
    mount: 'floor',
    parts: { top: 'timber.ash', legs: 'timber.ash', cushions: 'cloth.flax-linen' },
    words: 'seat hall',
    sold: { supplier: 'Ferrow & Daughters', price: 340 },
    clear: { front: 0.4 },
    seats: ({ width }) => Math.max(1, Math.floor(width / 0.5)),
    cards: [
      { id: 'bench', name: 'Bench' },
      {
        id: 'bench-settle',
        name: 'Settle',
        size: { width: 1.2, depth: 0.46, height: 1.02 },
        traits: { back: 'panel', under: 'box', arms: true },
        words: 'hall high back',
      },
      {
        id: 'bench-shoe',
        name: 'Shoe bench',
        size: { width: 0.9, depth: 0.34, height: 0.47 },
        traits: { under: 'shelf', seat: 'cushion' },
        words: 'porch hall boots',
      },
      { id: 'bench-window', name: 'Window seat', size: { width: 1.5, depth: 0.5, height: 0.46 }, traits: { under: 'box', seat: 'cushion' }, words: 'alcove' },
      {
        id: 'bench-slatted',
        name: 'Slatted bench',
        size: { width: 1.5, depth: 0.54, height: 0.86 },
        traits: { back: 'slats', arms: true },
        words: 'garden porch',
      },
    ],
    make: bench,
    symbol: ({ width, depth }, { back }) => [
      outline(rounded(width, depth, 0.02)),
      ...(back === 'none' ? [] : [outline(rectangle(width, 0.04, 0, depth / 2 - 0.02))]),
    ],
  }),
];
