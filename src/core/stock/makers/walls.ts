import { z } from 'zod';
import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { cuts, isFine } from '../../geometry/shapes';
import type { Vec2, Vec3 } from '../../geometry/vec';
import { board } from '../forms/boards';
import { upright } from '../forms/carry';
import { ellipse, roundRectangle, slab } from '../forms/flat';
import { loftNet, skin } from '../forms/skin';
import { filleted, turned } from '../forms/turned';
import { choice, count, length, toggle } from '../traits';
import { maker, outline, rectangle, v3, type Made, type PieceSize, type StockItem } from '../types';

/** Sections of frames: x from the edge inwards, y off the wall, as shares of width and depth. */
const SECTIONS = {
  flat: [
    [0, 0],
    [0, 0.92],
    [0.06, 1],
    [0.94, 1],
    [1, 0.92],
    [1, 0],
  ],
  round: [
    [0, 0],
    [0, 0.3],
    [0.07, 0.6],
    [0.24, 0.87],
    [0.5, 1],
    [0.76, 0.87],
    [0.93, 0.6],
    [1, 0.3],
    [1, 0],
  ],
  scoop: [
    [0, 0],
    [0, 0.94],
    [0.05, 1],
    [0.16, 1],
    [0.2, 0.93],
    [0.35, 0.62],
    [0.6, 0.42],
    [0.86, 0.36],
    [0.9, 0.42],
    [0.96, 0.42],
    [1, 0.36],
    [1, 0],
  ],
  step: [
    [0, 0],
    [0, 0.46],
    [0.04, 0.5],
    [0.46, 0.54],
    [0.5, 0.6],
    [0.52, 0.94],
    [0.57, 1],
    [0.94, 1],
    [1, 0.94],
    [1, 0],
  ],
} as const;

type Section = keyof typeof SECTIONS;

/** A frame of a section round an outline in the plane of the wall; looks up, on z = 0. Corners of rectangles are mitred. */
function frameRound(ring: (by: number) => readonly Vec2[], section: Section, wide: number, deep: number): Mesh {
  const profile = SECTIONS[section].map(([x, y]) => [x * wide, y * deep] as const);
  const rings = (isFine() ? filleted(profile, 0.1 * Math.min(wide, deep)) : profile).map(([x, z]): Vec3[] => ring(x).map((p) => ({ ...p, z })));
  // From the outer edge over the face to the inner edge, then closed below.
  const { points, faces } = loftNet([...rings, rings[0]], true);
  return skin(points, faces, 0.6);
}

const shapeOf =
  (shape: 'rectangle' | 'round' | 'arch', width: number, height: number) =>
  (by: number): Vec2[] => {
    if (shape === 'round') return ellipse(width - 2 * by, height - 2 * by, 48, ellipse(width, height, 48).length);
    const [w, h] = [width / 2 - by, height / 2 - by];
    if (shape === 'rectangle')
      return [
        { x: w, y: -h },
        { x: w, y: h },
        { x: -w, y: h },
        { x: -w, y: -h },
      ];
    const n = cuts(isFine() ? 32 : 20, 8);
    const r = Math.min(w, 2 * h);
    return [
      { x: -w, y: -h },
      { x: w, y: -h },
      ...Array.from({ length: n + 1 }, (_, i) => ({ x: w * Math.cos((Math.PI * i) / n), y: h - r + r * Math.sin((Math.PI * i) / n) })),
    ];
  };

const mirrorTraits = z.object({
  shape: choice('Shape', ['round', 'rectangle', 'arch'], 'round'),
  section: choice('Frame', ['flat', 'round', 'scoop', 'step'], 'round'),
  wide: length('Width of frame', { min: 0.006, max: 0.12, first: 0.012, step: 0.001 }),
  standing: toggle('Leans on the wall', false),
});

function mirror({ width, depth, height }: PieceSize, { shape, section, wide, standing }: z.output<typeof mirrorTraits>): Made[] {
  const lean = standing ? Math.asin(Math.min(0.25, (depth - 0.03) / height)) : 0;
  const thick = standing ? Math.min(0.03, depth) : depth;
  const high = standing ? height / Math.max(0.5, Math.cos(lean)) - thick * Math.sin(lean) : height;
  const own = shapeOf(shape, width, high);
  const frame = Math.min(wide, width * 0.25, height * 0.25);
  // Lying it looks up; stood up it looks to the front, its top back against the wall.
  const [c, s] = [Math.cos(lean), Math.sin(lean)];
  const carry = [1, 0, 0, 0, 0, s, c, 0, 0, -c, s, 0, 0, depth / 2 - (s * high) / 2 - (standing ? 0.002 : 0), (c * high) / 2 + (standing ? 0.001 : 0), 1];
  const glass = new MeshBuilder().add(slab(own(frame * 0.9), thick * 0.3, thick * 0.55, 0.0008), carry);
  const rim = new MeshBuilder().add(frameRound(own, section, frame, thick), carry);
  return [
    { part: 'glass', mesh: glass.build() },
    { part: 'rim', mesh: rim.build() },
  ];
}

const pictureTraits = z.object({
  section: choice('Frame', ['flat', 'round', 'scoop', 'step'], 'flat'),
  wide: length('Width of frame', { min: 0.006, max: 0.12, first: 0.018, step: 0.001 }),
  mount: length('Mount', { min: 0, max: 0.2, first: 0.05, step: 0.005 }),
  across: count('Side by side', { min: 1, max: 6, first: 1 }),
  up: count('One above another', { min: 1, max: 4, first: 1 }),
  gap: length('Between them', { min: 0.01, max: 0.3, first: 0.05, step: 0.005 }),
  glass: toggle('Glass', true),
});

function pictures({ width, depth, height }: PieceSize, { section, wide, mount, across, up, gap, glass }: z.output<typeof pictureTraits>): Made[] {
  const frames = new MeshBuilder();
  const mounts = new MeshBuilder();
  const art = new MeshBuilder();
  const panes = new MeshBuilder();
  const space = Math.min(gap, (width / across) * 0.5, (height / up) * 0.5);
  const [w, h] = [(width - space * (across - 1)) / across, (height - space * (up - 1)) / up];
  const frame = Math.min(wide, w * 0.2, h * 0.2);
  const card = Math.min(mount, (w - 2 * frame) * 0.35, (h - 2 * frame) * 0.35);
  const seen = { width: w - 2 * frame - 2 * card, height: h - 2 * frame - 2 * card };
  const back = depth / 2;
  for (let i = 0; i < across; i++)
    for (let j = 0; j < up; j++) {
      const [x, zz] = [-width / 2 + w / 2 + i * (w + space), h / 2 + j * (h + space)];
      const carry = upright(x, back, zz);
      frames.add(frameRound(shapeOf('rectangle', w, h), section, frame, depth), carry);
      if (card > 0.003) {
        // Cut on the bevel: its edge shows white.
        const cut = shapeOf('rectangle', w - 2 * frame + 0.004, h - 2 * frame + 0.004);
        const t = 0.0015;
        mounts.add(
          frameRound((by) => cut(by), 'flat', card + 0.002, depth * 0.45 + t - 0.001),
          upright(x, back - 0.001, zz),
        );
      }
      const y = back - depth * 0.36;
      art.quad(
        v3(x - seen.width / 2 - 0.003, y, zz - seen.height / 2 - 0.003),
        v3(x + seen.width / 2 + 0.003, y, zz - seen.height / 2 - 0.003),
        v3(x + seen.width / 2 + 0.003, y, zz + seen.height / 2 + 0.003),
        v3(x - seen.width / 2 - 0.003, y, zz + seen.height / 2 + 0.003),
      );
      if (glass)
        panes.add(
          board(x - w / 2 + frame * 0.7, back - depth * 0.72, zz - h / 2 + frame * 0.7, x + w / 2 - frame * 0.7, back - depth * 0.64, zz + h / 2 - frame * 0.7),
        );
    }
  return [
    { part: 'picture', mesh: art.build(), framed: { width: seen.width + 0.006, height: seen.height + 0.006 } },
    { part: 'mount', mesh: mounts.build() },
    { part: 'frame', mesh: frames.build() },
    { part: 'glass', mesh: panes.build() },
  ];
}

const clockTraits = z.object({
  form: choice('Form', ['plain', 'rimmed', 'boxed'], 'rimmed'),
  marks: choice('Hours', ['strokes', 'dots', 'quarters'], 'strokes'),
  hour: count('Hour shown', { min: 1, max: 12, first: 10 }),
  minute: count('Minute shown', { min: 0, max: 59, first: 9 }),
});

function clock({ width, depth, height }: PieceSize, { form, marks, hour, minute }: z.output<typeof clockTraits>): Made[] {
  const r = Math.min(width, height) / 2;
  const body = new MeshBuilder();
  const face = new MeshBuilder();
  const hands = new MeshBuilder();
  const carry = upright(0, depth / 2, height / 2);
  const [cw, sw] = [width / (2 * r), height / (2 * r)];
  const stretch = (m: readonly number[]): number[] => m.map((v, k) => (k < 3 ? v * cw : k >= 4 && k < 7 ? v * sw : v));
  const own = form === 'boxed' ? carry : stretch(carry);
  if (form === 'boxed') body.add(slab(roundRectangle(width, height, 0.012), 0, depth * 0.8, 0.004), carry);
  else if (form === 'rimmed')
    body.add(
      turned(
        [
          [0, 0],
          [r * 0.98, 0],
          [r, depth * 0.3],
          [r, depth * 0.85],
          [r * 0.97, depth],
          [r * 0.92, depth],
          [r * 0.9, depth * 0.72],
          [r * 0.9, depth * 0.5],
        ],
        { segments: 48 },
      ),
      own,
    );
  const z0 = form === 'boxed' ? depth * 0.8 + 0.0015 : depth * 0.45;
  const rr = form === 'rimmed' ? r * 0.905 : form === 'boxed' ? r * 0.88 : r;
  face.add(
    turned(
      [
        [0, form === 'plain' ? 0 : z0 - 0.003],
        [rr, form === 'plain' ? 0 : z0 - 0.003],
        [rr, z0],
        [0, z0],
      ],
      { segments: 48, round: 0.0008 },
    ),
    own,
  );
  const put = (a: number, from: number, long: number, wide: number, lift: number): void => {
    // Clockwise from above: the mesh lies along y.
    const [c, s] = [Math.cos(-a), Math.sin(-a)];
    const turn = [c, s, 0, 0, -s, c, 0, 0, 0, 0, 1, 0, 0, 0, z0, 1];
    const mesh = new MeshBuilder().add(board(-wide / 2, from, lift, wide / 2, from + long, lift + 0.0012, 0.0003), turn).build();
    hands.add(mesh, own);
  };
  for (let i = 0; i < 12; i++) {
    if (marks === 'quarters' && i % 3) continue;
    const a = (i / 12) * 2 * Math.PI;
    if (marks === 'dots')
      hands.add(
        turned(
          [
            [0, z0],
            [r * 0.022, z0],
            [r * 0.022, z0 + 0.001],
            [0, z0 + 0.001],
          ],
          { x: rr * 0.84 * Math.sin(a), y: rr * 0.84 * Math.cos(a), segments: 12, round: 0.0003 },
        ),
        own,
      );
    else put(a, rr * (i % 3 ? 0.82 : 0.77), rr * (i % 3 ? 0.09 : 0.14), r * (i % 3 ? 0.02 : 0.032), 0.0002);
  }
  put((((hour % 12) + minute / 60) / 12) * 2 * Math.PI, -rr * 0.1, rr * 0.6, r * 0.045, 0.002);
  put((minute / 60) * 2 * Math.PI, -rr * 0.12, rr * 0.9, r * 0.03, 0.0045);
  hands.add(
    turned(
      [
        [0, z0],
        [r * 0.045, z0],
        [r * 0.04, z0 + 0.007],
        [0, z0 + 0.007],
      ],
      { segments: 16, round: 0.0008 },
    ),
    own,
  );
  return [
    { part: 'case', mesh: body.build() },
    { part: 'face', mesh: face.build() },
    { part: 'hands', mesh: hands.build() },
  ];
}

const standing = ({ width, depth }: PieceSize) => [outline(rectangle(width, depth))];

export const walls: StockItem[] = [
  maker({
    id: 'mirror',
    foot: 1.2,
    name: 'Mirror',
    category: 'On walls',
    traits: mirrorTraits,
    size: { width: 0.7, depth: 0.03, height: 0.7 },
    min: { width: 0.2, depth: 0.015, height: 0.2 },
    max: { width: 2, depth: 0.4, height: 2.2 },
    mount: 'wall',
    parts: { glass: 'mirror.silver', rim: 'metal.brass-brushed' },
    words: 'looking glass bathroom hall',
    sold: { supplier: 'Pellan Glass', price: 160 },
    cards: [
      { id: 'mirror', name: 'Round mirror' },
      {
        id: 'mirror-framed',
        name: 'Framed mirror',
        size: { width: 0.8, depth: 0.035, height: 1.1 },
        traits: { shape: 'rectangle', section: 'scoop', wide: 0.06 },
        finishes: { rim: 'timber.oak' },
      },
      {
        id: 'mirror-arch',
        name: 'Arched mirror',
        size: { width: 0.7, depth: 0.025, height: 1.2 },
        traits: { shape: 'arch', section: 'flat' },
        finishes: { rim: 'metal.powder-black' },
      },
      {
        id: 'mirror-bath',
        name: 'Plain mirror',
        size: { width: 0.6, depth: 0.02, height: 0.8 },
        traits: { shape: 'rectangle', section: 'flat', wide: 0.006 },
        finishes: { rim: 'metal.chrome' },
        words: 'bathroom',
      },
    ],
    make: mirror,
    symbol: standing,
  }),
  maker({
    id: 'standing-mirror',
    name: 'Standing mirror',
    category: 'On walls',
    traits: mirrorTraits.omit({ standing: true }),
    size: { width: 0.6, depth: 0.22, height: 1.7 },
    min: { width: 0.35, depth: 0.1, height: 1.2 },
    max: { width: 1.2, depth: 0.4, height: 2.1 },
    mount: 'floor',
    parts: { glass: 'mirror.silver', rim: 'timber.oak' },
    words: 'looking glass leaning bedroom',
    sold: { supplier: 'Pellan Glass', price: 230 },
    cards: [
      { id: 'standing-mirror', name: 'Leaning mirror', traits: { shape: 'rectangle', section: 'flat', wide: 0.04 } },
      { id: 'standing-mirror-arch', name: 'Leaning arch', traits: { shape: 'arch', section: 'round', wide: 0.02 }, finishes: { rim: 'metal.brass-brushed' } },
    ],
    make: (size, traits) => mirror(size, { ...traits, standing: true }),
    symbol: standing,
  }),
  maker({
    id: 'picture',
    foot: 1.3,
    name: 'Framed picture',
    category: 'On walls',
    traits: pictureTraits,
    size: { width: 0.5, depth: 0.025, height: 0.7 },
    min: { width: 0.1, depth: 0.012, height: 0.1 },
    max: { width: 3, depth: 0.06, height: 2 },
    mount: 'wall',
    parts: { picture: 'wallpaper.leaf-ochre', mount: 'paper.cream', frame: 'timber.oak', glass: 'glass.low-iron' },
    words: 'print painting photograph art own image',
    sold: { supplier: 'Lantern Yard Framers', price: 85 },
    cards: [
      { id: 'picture', name: 'Framed print' },
      {
        id: 'picture-wide',
        name: 'Wide print',
        size: { width: 1, depth: 0.03, height: 0.7 },
        finishes: { picture: 'wallpaper.wave-grey', frame: 'timber.ebonised' },
      },
      {
        id: 'picture-canvas',
        name: 'Painting',
        size: { width: 0.8, depth: 0.035, height: 0.6 },
        traits: { section: 'scoop', wide: 0.06, mount: 0, glass: false },
        finishes: { picture: 'stone.marble-rose', frame: 'metal.brass-aged' },
      },
      {
        id: 'picture-pair',
        name: 'Pair of prints',
        size: { width: 0.88, depth: 0.022, height: 0.55 },
        traits: { across: 2, gap: 0.08 },
        finishes: { picture: 'wallpaper.leaf-forest' },
      },
      {
        id: 'picture-grid',
        name: 'Grid of prints',
        size: { width: 1.3, depth: 0.022, height: 0.86 },
        traits: { across: 3, up: 2, gap: 0.05, mount: 0.04 },
        finishes: { picture: 'wallpaper.sprig-sage', frame: 'paint.soot' },
      },
      {
        id: 'picture-small',
        name: 'Small frame',
        size: { width: 0.2, depth: 0.02, height: 0.25 },
        traits: { section: 'step', wide: 0.025, mount: 0.015 },
        finishes: { picture: 'wallpaper.flower-rose', frame: 'metal.brass-brushed' },
      },
    ],
    make: pictures,
    symbol: standing,
  }),
  maker({
    id: 'clock',
    foot: 1.7,
    name: 'Wall clock',
    category: 'On walls',
    traits: clockTraits,
    size: { width: 0.32, depth: 0.045, height: 0.32 },
    min: { width: 0.15, depth: 0.02, height: 0.15 },
    max: { width: 0.8, depth: 0.12, height: 0.8 },
    mount: 'wall',
    parts: { case: 'metal.powder-black', face: 'paper.cream', hands: 'metal.iron-black' },
    words: 'time kitchen',
    sold: { supplier: 'Brake Forge', price: 62 },
    cards: [
      { id: 'clock', name: 'Wall clock' },
      {
        id: 'clock-plain',
        name: 'Plain clock',
        size: { width: 0.36, depth: 0.03, height: 0.36 },
        traits: { form: 'plain', marks: 'dots' },
        finishes: { face: 'timber.oak' },
      },
      {
        id: 'clock-square',
        name: 'Square clock',
        size: { width: 0.28, depth: 0.05, height: 0.28 },
        traits: { form: 'boxed', marks: 'quarters' },
        finishes: { case: 'timber.walnut' },
      },
    ],
    make: clock,
    symbol: standing,
  }),
];
