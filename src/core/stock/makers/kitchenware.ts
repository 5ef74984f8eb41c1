import { z } from 'zod';
import { MeshBuilder } from '../../geometry/mesh';
import { cuts } from '../../geometry/shapes';
import type { Vec3 } from '../../geometry/vec';
import { board, timber } from '../forms/boards';
import { about, shiftBy } from '../forms/carry';
import { roundRectangle, slab } from '../forms/flat';
import { bar, curve, loop, rod } from '../forms/skin';
import { post, turned, vessel } from '../forms/turned';
import { choice, toggle } from '../traits';
import { ellipseLine, maker, v3, type Made, type PieceSize, type StockItem } from '../types';

const kitchenTraits = z.object({
  what: choice('What', ['saucepan', 'kettle', 'chopping boards', 'jars', 'toaster', 'utensils', 'knife block', 'scales'], 'saucepan'),
  lid: toggle('Lid', true),
});

function kitchenware({ width, depth, height }: PieceSize, { what, lid }: z.output<typeof kitchenTraits>): Made[] {
  const body = new MeshBuilder();
  const grip = new MeshBuilder();
  const clear = new MeshBuilder();
  const [w, d] = [width / 2, depth / 2];
  if (what === 'saucepan') {
    const r = Math.min(d, w * 0.6);
    const x = -w + r;
    const h = height * (lid ? 0.72 : 0.94);
    body.add(
      turned(
        vessel(
          [
            [r * 0.93, 0],
            [r * 0.985, 0.008],
            [r, h - 0.003],
            [r, h],
          ],
          0.003,
          0.0005,
        ),
        { x, segments: 44, round: 0.0015 },
      ),
    );
    if (lid) {
      body.add(
        turned(
          [
            [0, h + 0.0035, 0],
            [r * 0.985, h + 0.0005],
            [r * 0.985, h + 0.004],
            [r * 0.6, h + height * 0.09],
            [0, h + height * 0.11, 0],
          ],
          { x, segments: 44, round: 0.0015 },
        ),
      );
      grip.add(
        turned(
          [
            [0, h + height * 0.1],
            [0.006, h + height * 0.1],
            [0.006, h + height * 0.15],
            [0.014, h + height * 0.2],
            [0.013, height],
            [0, height],
          ],
          { x, segments: 18, round: 0.002 },
        ),
      );
    }
    body.add(rod([v3(x + r * 0.97, 0, h * 0.8), v3(x + r + (width - 2 * r) * 0.3, 0, h * 0.84)], 0.006, { section: 8 }));
    grip.add(
      rod(
        [v3(x + r + (width - 2 * r) * 0.22, 0, h * 0.83), v3(x + r + (width - 2 * r) * 0.6, 0, h * 0.87), v3(w - 0.004, 0, h * 0.92)],
        (t) => 0.009 + 0.003 * t,
        { section: 12, flat: 0.7 },
      ),
    );
  } else if (what === 'kettle') {
    const r = Math.min(d, w * 0.72);
    const x = w - r;
    const h = height * 0.62;
    body.add(
      turned(
        [
          [0, 0],
          [r * 0.98, 0],
          [r, h * 0.08],
          [r * 0.98, h * 0.3],
          [r * 0.72, h * 0.82],
          [r * 0.42, h],
          [0, h],
        ],
        { x, segments: 44, round: 0.004 },
      ),
    );
    body
      .add(
        turned(
          [
            [0, h - 0.001, 0],
            [r * 0.4, h - 0.001],
            [r * 0.36, h + 0.01],
            [0, h + 0.014, 0],
          ],
          { x, segments: 36, round: 0.002 },
        ),
      )
      .add(
        rod(curve([v3(x - r * 0.8, 0, h * 0.5), v3(x - r * 1.15, 0, h * 0.7), v3(-w + 0.008, 0, h * 0.97)], cuts(6, 2)), (t) => r * (0.2 - 0.1 * t), {
          section: 12,
        }),
      );
    grip
      .add(
        rod(
          curve(
            [
              v3(x - r * 0.5, 0, h * 0.94),
              v3(x - r * 0.55, 0, height * 0.9),
              v3(x, 0, height - 0.009),
              v3(x + r * 0.55, 0, height * 0.9),
              v3(x + r * 0.5, 0, h * 0.94),
            ],
            cuts(7, 2),
          ),
          0.0085,
          { section: 10, flat: 0.7 },
        ),
      )
      .add(
        turned(
          [
            [0, h + 0.012],
            [0.006, h + 0.012],
            [0.012, h + 0.026],
            [0, h + 0.032],
          ],
          { x, segments: 16, round: 0.002 },
        ),
      );
  } else if (what === 'chopping boards') {
    // Boards that lean on one another against the wall.
    const lean = 0.16;
    for (let i = 0; i < 3; i++) {
      const t = 0.02 - 0.003 * i;
      const tall = (height - 0.004) * (1 - 0.16 * i);
      const wide = width * (0.72 - 0.1 * i);
      const m = about(
        'x',
        Math.PI / 2 - lean,
        (i - 1) * width * 0.14,
        d - 0.022 - i * 0.024 - Math.sin(lean) * tall * 0.5 + 0.012,
        Math.cos(lean) * tall * 0.5 + 0.0015,
      );
      body.add(slab(i === 1 ? roundRectangle(wide, tall, wide * 0.48) : roundRectangle(wide, tall, 0.03), -t / 2, t / 2, 0.004, 4), m);
    }
  } else if (what === 'jars') {
    const n = Math.max(1, Math.round(width / 0.12));
    for (let i = 0; i < n; i++) {
      const r = Math.min((width / n) * 0.46, d * 0.94);
      const h = height * (1 - 0.14 * ((i * 0.618) % 1) * 2);
      const x = -w + (width / n) * (i + 0.5);
      clear.add(
        turned(
          vessel(
            [
              [r * 0.93, 0],
              [r, 0.006],
              [r, h * 0.76],
              [r * 0.86, h * 0.83],
              [r * 0.86, h * 0.86],
            ],
            0.0028,
            0.002,
          ),
          { x, segments: 36, round: 0.002 },
        ),
      );
      grip.add(
        turned(
          [
            [0, h * 0.84],
            [r * 0.8, h * 0.84],
            [r * 0.84, h * 0.862],
            [r * 0.94, h * 0.864],
            [r * 0.94, h],
            [0, h],
          ],
          { x, segments: 36, round: 0.003 },
        ),
      );
      body.add(
        turned(
          [
            [0, 0.0056],
            [r * 0.9, 0.0056],
            [r * 0.9, h * (0.3 + 0.14 * (i % 3))],
            [0, h * (0.33 + 0.14 * (i % 3))],
          ],
          { x, segments: 28, round: 0.004 },
        ),
      );
    }
  } else if (what === 'toaster') {
    // Its lever and its dial stand out.
    body.add(slab(roundRectangle(width - 0.012, depth, Math.min(0.05, d * 0.7)), 0.012, height, 0.018, 5), shiftBy(-0.006, 0, 0));
    grip
      .add(slab(roundRectangle(width - 0.02, depth - 0.02, 0.03), 0, 0.013, 0.003))
      .add(timber(w - 0.018, -0.014, height * 0.55, w, 0.014, height * 0.62))
      .add(
        turned(
          [
            [0, 0],
            [0.014, 0],
            [0.012, 0.006],
            [0, 0.006],
          ],
          { segments: 18 },
        ),
        about('y', Math.PI / 2, w - 0.0125, 0, height * 0.28),
      );
    for (const y of [-d * 0.36, d * 0.36]) grip.add(board(-w * 0.7, y - 0.012, height - 0.0006, w * 0.7, y + 0.012, height + 0.0004 - 0.0002, 0.0002));
  } else if (what === 'utensils') {
    const r = Math.min(w, d) * 0.72;
    const h = height * 0.46;
    body.add(
      turned(
        vessel(
          [
            [r * 0.92, 0],
            [r, h * 0.08],
            [r, h],
          ],
          0.0045,
          0.002,
        ),
        { segments: 36, round: 0.002 },
      ),
    );
    for (let i = 0; i < 6; i++) {
      const a = i * 2.39996;
      const tip = v3(Math.min(w - 0.012, r * 1.1) * Math.cos(a) * 0.9, Math.min(d - 0.012, r * 1.1) * Math.sin(a) * 0.9, height * (0.98 - 0.1 * (i % 3)));
      const from = v3(-r * 0.5 * Math.cos(a), -r * 0.5 * Math.sin(a), 0.012);
      grip.add(rod([from, tip], (t) => 0.005 + 0.001 * Math.sin(9 * t), { section: 8 }));
      const head = v3(tip.x, tip.y, tip.z - 0.03);
      if (i % 2)
        grip.add(
          rod([head, v3(tip.x, tip.y, Math.min(height, tip.z))], (t) => 0.008 + 0.012 * Math.sin(Math.PI * Math.min(1, 0.2 + t)), {
            section: 12,
            flat: 0.35,
          }),
        );
      else grip.add(slab(roundRectangle(0.034, 0.05, 0.01), -0.0018, 0.0018, 0.0012), about('x', Math.PI / 2, tip.x, tip.y, tip.z - 0.026));
    }
  } else if (what === 'knife block') {
    body.add(slab(roundRectangle(width, depth * 0.86, 0.012), 0, height * 0.7, 0.004));
    for (let i = 0; i < 5; i++) {
      const x = -w * 0.7 + (i * w * 1.4) / 4;
      const y = i % 2 ? -d * 0.3 : d * 0.3;
      grip.add(rod([v3(x, y, height * 0.69), v3(x, y, height * 0.86), v3(x, y - 0.004, height * (1 - 0.025 * i) - 0.004)], 0.0078, { section: 10, flat: 1.4 }));
    }
  } else {
    body
      .add(slab(roundRectangle(width * 0.86, depth * 0.86, 0.02), 0, height * 0.34, 0.006))
      .add(post(0, 0, height * 0.33, height * 0.62, 0.012))
      .add(
        turned(
          vessel(
            [
              [w * 0.4, height * 0.6],
              [w * 0.8, height * 0.76],
              [w * 0.98, height],
            ],
            0.0016,
            0.0004,
          ),
          { segments: 40, round: 0.0006 },
        ),
        [1, 0, 0, 0, 0, depth / width, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1],
      );
    clear.add(
      turned(
        [
          [0, 0],
          [height * 0.13, 0],
          [height * 0.13, 0.004],
          [0, 0.0045],
        ],
        { segments: 32 },
      ),
      about('x', Math.PI / 2, 0, -depth * 0.43 + 0.001, height * 0.18),
    );
    const n = cuts(32, 12);
    grip
      .add(
        loop(
          Array.from({ length: n }, (_, i): Vec3 =>
            v3(height * 0.135 * Math.cos((2 * Math.PI * i) / n), -depth * 0.43 - 0.002, height * 0.18 + height * 0.135 * Math.sin((2 * Math.PI * i) / n)),
          ),
          0.003,
          8,
        ),
      )
      .add(bar(v3(0, -depth * 0.43 - 0.0042, height * 0.18), v3(height * 0.07, -depth * 0.43 - 0.0042, height * 0.26), 0.0012, 0.0008, { section: 6 }));
  }
  return [
    { part: 'body', mesh: body.build() },
    { part: 'grip', mesh: grip.build() },
    { part: 'glass', mesh: clear.build() },
  ];
}

export const kitchenwareMakers: StockItem[] = [
  maker({
    id: 'kitchenware',
    name: 'Kitchen things',
    category: 'Books & things',
    traits: kitchenTraits,
    size: { width: 0.36, depth: 0.2, height: 0.2 },
    min: { width: 0.1, depth: 0.08, height: 0.08 },
    max: { width: 0.8, depth: 0.4, height: 0.5 },
    mount: 'top',
    foot: 0.91,
    parts: { body: 'metal.steel-brushed', grip: 'timber.beech', glass: 'glass.low-iron' },
    words: 'pan pot worktop',
    sold: { supplier: 'Marren Market Hall', price: 55 },
    cards: [
      { id: 'saucepan', name: 'Saucepan' },
      {
        id: 'kettle',
        name: 'Kettle',
        size: { width: 0.26, depth: 0.19, height: 0.25 },
        traits: { what: 'kettle' },
        finishes: { body: 'metal.enamel-white', grip: 'timber.ebonised' },
      },
      {
        id: 'chopping-boards',
        name: 'Chopping boards',
        size: { width: 0.4, depth: 0.16, height: 0.38 },
        traits: { what: 'chopping boards' },
        finishes: { body: 'timber.walnut' },
      },
      {
        id: 'jars',
        name: 'Storage jars',
        size: { width: 0.48, depth: 0.12, height: 0.22 },
        traits: { what: 'jars' },
        finishes: { body: 'ground.sand', grip: 'sheet.cork' },
      },
      {
        id: 'toaster',
        name: 'Toaster',
        size: { width: 0.3, depth: 0.18, height: 0.19 },
        traits: { what: 'toaster' },
        finishes: { body: 'metal.steel-polished', grip: 'paint.soot' },
      },
      {
        id: 'utensils',
        name: 'Utensils in a pot',
        size: { width: 0.16, depth: 0.16, height: 0.36 },
        traits: { what: 'utensils' },
        finishes: { body: 'ceramic.white' },
      },
      {
        id: 'knife-block',
        name: 'Knife block',
        size: { width: 0.12, depth: 0.16, height: 0.34 },
        traits: { what: 'knife block' },
        finishes: { body: 'timber.walnut', grip: 'timber.ebonised' },
      },
      {
        id: 'scales',
        name: 'Kitchen scales',
        size: { width: 0.26, depth: 0.24, height: 0.26 },
        traits: { what: 'scales' },
        finishes: { body: 'metal.enamel-green', grip: 'metal.brass-brushed' },
      },
    ],
    make: kitchenware,
    symbol: ({ width, depth }) => [ellipseLine(width, depth)],
  }),
];
