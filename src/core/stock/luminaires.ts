import { MeshBuilder } from '../geometry/mesh';
import { cylinder, lathe, tube } from '../geometry/shapes';
import { circle, outline, stroke, v3, type StockItem } from './types';

/** The glowing bulb of a luminaire: the part that gives its light. */
export const LAMP_PART = 'lamp';

const bulb = (z: number, r: number, x = 0): ReturnType<typeof lathe> =>
  lathe(
    Array.from({ length: 9 }, (_, i) => {
      const a = (i / 8) * Math.PI;
      return [r * Math.sin(a), z - r * Math.cos(a)] as const;
    }),
    { x, segments: 14 },
  );

/** A thin shade: one sheet, lit from within. */
const shade = (profile: [number, number][]): ReturnType<typeof lathe> => lathe(profile, { segments: 40 });

const crossed = (r: number) => [outline(circle(r)), stroke([-r * 0.7, -r * 0.7], [r * 0.7, r * 0.7]), stroke([-r * 0.7, r * 0.7], [r * 0.7, -r * 0.7])];

export const luminaires: StockItem[] = [
  {
    id: 'pendant',
    name: 'Pendant',
    category: 'Luminaires',
    size: { width: 0.42, depth: 0.42, height: 0.95 },
    min: { width: 0.15, depth: 0.15, height: 0.3 },
    max: { width: 0.9, depth: 0.9, height: 2 },
    mount: 'ceiling',
    parts: { shade: 'metal.enamel-green', inner: 'paint.skein', flex: 'metal.iron-black', [LAMP_PART]: 'light.opal' },
    lamp: { lumen: 900, kelvin: 2700, on: true },
    words: 'lamp light hanging ceiling',
    make({ width, height }) {
      const r = width / 2;
      const drop = r * 0.85;
      const bell: [number, number][] = [
        [r, 0],
        [r * 0.97, 0.012],
        [r * 0.8, drop * 0.45],
        [r * 0.45, drop * 0.8],
        [r * 0.2, drop * 0.95],
        [0.035, drop],
        [0.03, drop + 0.04],
        [0.0, drop + 0.045],
      ];
      const flex = new MeshBuilder()
        .add(tube([v3(0, 0, drop + 0.04), v3(0, 0, height - 0.02)], 0.003, 8))
        .add(
          lathe(
            [
              [0, height - 0.03],
              [0.045, height - 0.022],
              [0.05, height],
              [0, height],
            ],
            { segments: 24 },
          ),
        )
        .add(cylinder(0, 0, drop * 0.72, drop * 0.98, 0.016, 0.016));
      return [
        { part: 'shade', mesh: lathe(bell, { segments: 48 }) },
        {
          part: 'inner',
          mesh: lathe(
            bell
              .slice(0, 6)
              .map(([q, z]) => [Math.max(0.02, q - 0.003), z] as const)
              .reverse(),
            { segments: 48 },
          ),
        },
        { part: 'flex', mesh: flex.build() },
        { part: LAMP_PART, mesh: bulb(drop * 0.5, Math.min(0.045, r * 0.35)) },
      ];
    },
    symbol: ({ width }) => crossed(width / 2),
  },
  {
    id: 'floor-lamp',
    name: 'Floor lamp',
    category: 'Luminaires',
    size: { width: 0.42, depth: 0.42, height: 1.55 },
    min: { width: 0.25, depth: 0.25, height: 1.0 },
    max: { width: 0.7, depth: 0.7, height: 2.0 },
    mount: 'floor',
    parts: { shade: 'cloth.shade', stand: 'metal.brass-brushed', [LAMP_PART]: 'light.opal' },
    lamp: { lumen: 800, kelvin: 2700, on: true },
    words: 'standard light reading',
    make({ width, height }) {
      const r = width / 2;
      const drum = Math.min(0.3, height * 0.2);
      const stand = new MeshBuilder().add(
        lathe(
          [
            [0, 0],
            [0.14, 0],
            [0.14, 0.008],
            [0.13, 0.018],
            [0.02, 0.026],
            [0.011, 0.06],
            [0.011, height - drum * 0.55],
            [0, height - drum * 0.55],
          ],
          { segments: 32 },
        ),
      );
      stand.add(cylinder(0, 0, height - drum * 0.6, height - drum * 0.42, 0.017, 0.017));
      for (let i = 0; i < 3; i++) {
        const a = (i / 3) * 2 * Math.PI;
        stand.add(tube([v3(0, 0, height - drum * 0.12), v3(Math.cos(a) * r * 0.8, Math.sin(a) * r * 0.8, height - drum * 0.06)], 0.002, 6));
      }
      stand.add(tube([v3(0, 0, height - drum * 0.5), v3(0, 0, height - drum * 0.1)], 0.003, 6));
      return [
        {
          part: 'shade',
          mesh: shade([
            [r, height - drum],
            [r * 0.82, height],
          ]),
        },
        { part: 'stand', mesh: stand.build() },
        { part: LAMP_PART, mesh: bulb(height - drum * 0.36, 0.035) },
      ];
    },
    symbol: ({ width }) => [...crossed(width / 2), outline(circle(0.14))],
  },
  {
    id: 'table-lamp',
    name: 'Table lamp',
    category: 'Luminaires',
    size: { width: 0.32, depth: 0.32, height: 0.5 },
    min: { width: 0.15, depth: 0.15, height: 0.25 },
    max: { width: 0.5, depth: 0.5, height: 0.8 },
    mount: 'floor',
    parts: { shade: 'cloth.shade', base: 'clay.pot', [LAMP_PART]: 'light.opal' },
    lamp: { lumen: 470, kelvin: 2700, on: true },
    words: 'light bedside',
    make({ width, height }) {
      const r = width / 2;
      const drum = height * 0.42;
      const b = r * 0.6;
      return [
        {
          part: 'shade',
          mesh: shade([
            [r, height - drum],
            [r * 0.72, height],
          ]),
        },
        {
          part: 'base',
          mesh: lathe(
            [
              [0, 0],
              [b * 0.75, 0],
              [b * 0.8, 0.01],
              [b, height * 0.2],
              [b * 0.75, height * 0.38],
              [b * 0.28, height * 0.48],
              [0.012, height * 0.52],
              [0.012, height * 0.66],
              [0, height * 0.66],
            ],
            { segments: 32 },
          ),
        },
        { part: LAMP_PART, mesh: bulb(height - drum * 0.5, 0.03) },
      ];
    },
    symbol: ({ width }) => crossed(width / 2),
  },
  {
    id: 'ceiling-disc',
    name: 'Ceiling disc',
    category: 'Luminaires',
    size: { width: 0.36, depth: 0.36, height: 0.07 },
    min: { width: 0.15, depth: 0.15, height: 0.04 },
    max: { width: 0.8, depth: 0.8, height: 0.15 },
    mount: 'ceiling',
    parts: { body: 'metal.steel-brushed', [LAMP_PART]: 'light.opal' },
    lamp: { lumen: 1600, kelvin: 3000, on: true },
    words: 'light flush bathroom hall',
    make({ width, height }) {
      const r = width / 2;
      return [
        {
          part: 'body',
          mesh: lathe(
            [
              [r * 0.99, 0.006],
              [r, 0.006],
              [r, 0.006],
              [r, height],
              [r, height],
              [0, height],
            ],
            { segments: 40 },
          ),
        },
        {
          part: LAMP_PART,
          mesh: lathe(
            [
              [0, 0],
              [r * 0.9, 0.001],
              [r * 0.985, 0.006],
            ],
            { segments: 40 },
          ),
        },
      ];
    },
    symbol: ({ width }) => crossed(width / 2),
  },
];
