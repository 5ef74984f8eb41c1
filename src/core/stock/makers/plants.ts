import { z } from 'zod';
import { MeshBuilder } from '../../geometry/mesh';
import { heldWithin } from '../forms/leaves';
import { rod } from '../forms/skin';
import { turned, vessel } from '../forms/turned';
import { choice, toggle } from '../traits';
import { circle, maker, outline, v3, type Made, type PieceSize, type StockItem } from '../types';
import { type Species, SPECIES, type Grown, grow, filling } from './growing';
import { POTS, potOf, soilIn, type Pot } from './pots';

const NAMES = Object.keys(SPECIES) as [keyof typeof SPECIES, ...(keyof typeof SPECIES)[]];

const plantTraits = (first: keyof typeof SPECIES) =>
  z.object({
    plant: choice('Plant', NAMES, first),
    pot: choice('Pot', POTS, 'clay'),
    saucer: toggle('Saucer', false),
  });

export type PlantTraits = Omit<z.output<ReturnType<typeof plantTraits>>, 'pot'> & { pot: Pot };

export function plant({ width, depth, height }: PieceSize, { plant: name, pot: form, saucer }: PlantTraits): Made[] {
  const species: Species = SPECIES[name];
  const reach = Math.min(width, depth) / 2;
  const trailing = species.habit === 'trailing';
  const r = Math.min(reach * (trailing ? 0.62 : 0.52), Math.max(0.045, height * 0.13), 0.22);
  const hung = form === 'hanging';
  const high = Math.min(r * 1.75, height * 0.42);
  const made = potOf(form, r, high);
  // Trailing plants hang down beside their pot: it stands as high as they need.
  const lift = trailing ? Math.max(0.004, height - (hung ? high + r * 3.6 : high + Math.min(0.12, height * 0.2))) : saucer ? 0.004 : 0;
  const grown: Grown = { leaves: new MeshBuilder(), stems: new MeshBuilder() };
  grow(grown, species, reach, made.soil + lift, hung && trailing ? Math.min(height, made.soil + lift + 0.12) : height);
  const up = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, lift, 1];
  const pots = new MeshBuilder().add(made.pot, up);
  if (trailing && !hung && lift > 0.05) {
    // A stand of three legs under it.
    const ring = r * 0.82;
    for (let i = 0; i < 3; i++) {
      const a = (i / 3) * 2 * Math.PI + 0.5;
      pots.add(
        rod([v3(Math.cos(a) * ring * 1.15, Math.sin(a) * ring * 1.15, 0), v3(Math.cos(a) * ring * 0.9, Math.sin(a) * ring * 0.9, lift + high * 0.25)], 0.006, {
          section: 8,
        }),
      );
    }
  }
  if (saucer && !trailing)
    pots.add(
      turned(
        vessel(
          [
            [r * 0.86, 0],
            [r * 1.08, 0.022],
          ],
          0.003,
          0.001,
        ),
        { segments: 36 },
      ),
    );
  const [leaves, stems] = filling([grown.leaves.build(), grown.stems.build()], reach, made.soil + lift, trailing ? null : height);
  return [
    { part: 'leaves', mesh: heldWithin(leaves, width, depth, height) },
    { part: 'stems', mesh: stems },
    { part: 'pot', mesh: pots.build() },
    { part: 'hanger', mesh: new MeshBuilder().add(made.hanger, up).build() },
    { part: 'soil', mesh: new MeshBuilder().add(soilIn(made.soilR, made.soil), up).build() },
  ];
}

const plantSymbol: StockItem['symbol'] = ({ width, depth }) => {
  const r = Math.min(width, depth) / 2;
  const star = Array.from({ length: 18 }, (_, i) => {
    const a = (i / 18) * 2 * Math.PI;
    const k = i % 2 ? 0.72 : 1;
    return { x: r * k * Math.cos(a), y: r * k * Math.sin(a) };
  });
  return [outline(star), outline(circle(Math.min(0.17, r * 0.52)))];
};

const parts = { leaves: 'leaf.green', stems: 'timber.walnut', pot: 'clay.pot', soil: 'ground.soil' };

export const greenery: StockItem[] = [
  maker({
    id: 'plant',
    name: 'House plant',
    category: 'Greenery',
    traits: plantTraits('rubber plant'),
    size: { width: 0.7, depth: 0.7, height: 1.4 },
    min: { width: 0.2, depth: 0.2, height: 0.25 },
    max: { width: 1.6, depth: 1.6, height: 2.6 },
    mount: 'floor',
    parts,
    words: 'pot green',
    sold: { supplier: 'Fern Lane Nursery', price: 64 },
    cards: [
      { id: 'plant', name: 'Rubber plant' },
      {
        id: 'plant-fiddle',
        name: 'Fiddle-leaf fig',
        size: { width: 0.8, depth: 0.8, height: 1.7 },
        traits: { plant: 'fiddle-leaf fig', pot: 'basket' },
        finishes: { pot: 'carpet.seagrass' },
        words: 'tree',
      },
      {
        id: 'plant-weeping',
        name: 'Weeping fig',
        size: { width: 0.9, depth: 0.9, height: 1.8 },
        traits: { plant: 'weeping fig', pot: 'tapered' },
        finishes: { pot: 'ceramic.white' },
        words: 'tree',
      },
      {
        id: 'plant-split',
        name: 'Split-leaf plant',
        size: { width: 1, depth: 1, height: 1.1 },
        traits: { plant: 'split-leaf', pot: 'round' },
        finishes: { pot: 'ceramic.white', stems: 'leaf.green' },
      },
      {
        id: 'plant-sword',
        name: 'Sword plant',
        size: { width: 0.4, depth: 0.4, height: 0.8 },
        traits: { plant: 'sword plant', pot: 'tapered' },
        finishes: { pot: 'concrete.cast' },
      },
      {
        id: 'plant-palm',
        name: 'Parlour palm',
        size: { width: 1, depth: 1, height: 1.5 },
        traits: { plant: 'parlour palm', pot: 'basket' },
        finishes: { pot: 'carpet.jute', stems: 'leaf.green' },
      },
      {
        id: 'plant-fern',
        name: 'Fern',
        size: { width: 0.7, depth: 0.7, height: 0.55 },
        traits: { plant: 'fern', pot: 'clay' },
        finishes: { stems: 'leaf.green' },
      },
      {
        id: 'plant-lily',
        name: 'Peace lily',
        size: { width: 0.6, depth: 0.6, height: 0.65 },
        traits: { plant: 'peace lily', pot: 'tapered' },
        finishes: { pot: 'ceramic.white', stems: 'leaf.green' },
      },
      {
        id: 'plant-dragon',
        name: 'Dragon tree',
        size: { width: 0.8, depth: 0.8, height: 1.6 },
        traits: { plant: 'dragon tree', pot: 'square' },
        finishes: { pot: 'concrete.dark' },
      },
      {
        id: 'plant-olive',
        name: 'Olive tree',
        size: { width: 0.85, depth: 0.85, height: 1.7 },
        traits: { plant: 'olive tree', pot: 'clay', saucer: true },
        words: 'tree',
      },
    ],
    make: plant,
    symbol: plantSymbol,
  }),
  maker({
    id: 'small-plant',
    name: 'Small plant',
    category: 'Greenery',
    traits: plantTraits('aloe'),
    size: { width: 0.26, depth: 0.26, height: 0.32 },
    min: { width: 0.1, depth: 0.1, height: 0.12 },
    max: { width: 0.6, depth: 0.6, height: 0.9 },
    mount: 'top',
    foot: 0.9,
    parts: { ...parts, stems: 'leaf.green' },
    words: 'pot green sill shelf',
    sold: { supplier: 'Fern Lane Nursery', price: 14 },
    cards: [
      { id: 'small-plant', name: 'Aloe' },
      {
        id: 'plant-ivy',
        name: 'Ivy',
        size: { width: 0.4, depth: 0.4, height: 0.5 },
        traits: { plant: 'ivy', pot: 'tapered' },
        finishes: { pot: 'ceramic.white' },
        words: 'trailing',
      },
      { id: 'herb-basil', name: 'Basil', size: { width: 0.2, depth: 0.2, height: 0.26 }, traits: { plant: 'basil', saucer: true }, words: 'herb kitchen' },
      {
        id: 'herb-rosemary',
        name: 'Rosemary',
        size: { width: 0.24, depth: 0.24, height: 0.34 },
        traits: { plant: 'rosemary', saucer: true },
        finishes: { stems: 'timber.walnut' },
        words: 'herb kitchen',
      },
      { id: 'herb-chives', name: 'Chives', size: { width: 0.18, depth: 0.18, height: 0.28 }, traits: { plant: 'chives' }, words: 'herb kitchen' },
    ],
    make: plant,
    symbol: plantSymbol,
  }),
  maker({
    id: 'hanging-plant',
    name: 'Hanging plant',
    category: 'Greenery',
    traits: plantTraits('string of hearts').omit({ saucer: true, pot: true }),
    size: { width: 0.36, depth: 0.36, height: 0.95 },
    min: { width: 0.24, depth: 0.24, height: 0.6 },
    max: { width: 0.8, depth: 0.8, height: 1.8 },
    mount: 'ceiling',
    parts: { ...parts, stems: 'leaf.green', hanger: 'timber.ash' },
    words: 'pot green trailing ceiling',
    sold: { supplier: 'Fern Lane Nursery', price: 28 },
    cards: [
      { id: 'hanging-plant', name: 'Hanging hearts', finishes: { pot: 'ceramic.white' } },
      { id: 'hanging-ivy', name: 'Hanging ivy', traits: { plant: 'ivy' } },
    ],
    make: (size, traits) => plant(size, { ...traits, pot: 'hanging', saucer: false }),
    symbol: plantSymbol,
  }),
];
