import type { Body } from '../../project/schema';
import { boards, finish, type Options } from './make';

const wood = (cut: 'plain' | 'quarter' | 'burr', contrast: number, figure: number, pores = 1): Body => ({ kind: 'timber', cut, contrast, figure, pores });

const floor: Options = { roles: ['floor'], unit: 'box', coverage: 2.2, price: 178, waste: 0.08 };

const SOLID: [string, string, string, Body, Options?][] = [
  ['oak', 'Oak, oiled', '#bf9868', wood('plain', 0.45, 0.5), { roles: ['joinery', 'worktop'] }],
  ['oak-quarter', 'Oak, quarter-sawn', '#b9935f', wood('quarter', 0.5, 1)],
  ['oak-smoked', 'Smoked oak', '#6f5338', wood('plain', 0.5, 0.5)],
  ['moon-oak', 'Moon oak, limed', '#d2c3a8', wood('plain', 0.35, 0.5)],
  ['bog-oak', 'Bog oak', '#3b322b', wood('plain', 0.5, 0.5)],
  ['ash', 'Ash, soaped', '#d3bd97', wood('plain', 0.35, 0.6), { roughness: 0.55, roles: ['joinery', 'worktop'] }],
  ['ash-olive', 'Olive ash', '#b79a6c', wood('plain', 0.6, 0.9)],
  ['walnut', 'Walnut, waxed', '#66462f', wood('plain', 0.55, 0.7), { roughness: 0.4 }],
  ['walnut-burr', 'Walnut burr', '#6f4a2f', wood('burr', 0.6, 1), { roughness: 0.25 }],
  ['elm', 'Elm, oiled', '#a77f55', wood('plain', 0.6, 1)],
  ['elm-burr', 'Elm burr', '#9d744b', wood('burr', 0.5, 1), { roughness: 0.3 }],
  ['beech', 'Beech, steamed', '#cda37c', wood('quarter', 0.25, 0.5, 0.5)],
  ['birch', 'Birch ply', '#dcc69e', wood('plain', 0.22, 0.8, 0.3), { price: 48 }],
  ['maple', 'Maple', '#dcc29a', wood('plain', 0.2, 0.6, 0.2)],
  ['cherry', 'Cherry', '#a9663f', wood('plain', 0.35, 0.6, 0.4)],
  ['pear', 'Pear', '#b5805c', wood('quarter', 0.18, 0.3, 0.2)],
  ['larch', 'Larch', '#c08a59', wood('plain', 0.6, 0.8, 0.3), { roles: ['joinery', 'wall'] }],
  ['pine', 'Pine, waxed', '#d3a76c', wood('plain', 0.5, 0.9, 0.2)],
  ['cedar', 'Cedar', '#9c5f41', wood('quarter', 0.4, 0.4, 0.3)],
  ['chestnut', 'Sweet chestnut', '#a98457', wood('plain', 0.5, 0.6)],
  ['teak', 'Teak', '#94683f', wood('quarter', 0.4, 0.5)],
  ['ebonised', 'Ebonised ash', '#252220', wood('plain', 0.5, 0.5)],
];

export const timbers = [
  ...SOLID.map(([id, name, colour, body, options]) => finish(`timber.${id}`, name, 'Timber', colour, body, [3.2, 0.8], { roughness: 0.45, ...options })),

  finish('timber.oak-plank', 'Oak plank, brushed', 'Timber', '#b88f63', wood('plain', 0.5, 0.6), [4, 1], { ...floor, laying: boards('plank', 1.8, 0.18) }),
  finish('timber.ash-plank', 'Ash plank, oiled', 'Timber', '#cdb48e', wood('plain', 0.35, 0.6), [4, 1], { ...floor, laying: boards('plank', 1.8, 0.15) }),
  finish('timber.walnut-plank', 'Walnut plank', 'Timber', '#6d4c36', wood('plain', 0.55, 0.7), [4, 1], {
    ...floor,
    price: 260,
    laying: boards('plank', 1.6, 0.16),
  }),
  finish('timber.scrubbed-pine', 'Scrubbed pine board', 'Timber', '#d8bd92', wood('plain', 0.45, 0.9, 0.2), [4, 1], {
    ...floor,
    price: 96,
    roughness: 0.65,
    laying: boards('plank', 2.4, 0.2, { joint: 0.0015 }),
  }),
  finish('timber.larch-deck', 'Larch decking', 'Timber', '#a98766', wood('plain', 0.55, 0.8, 0.3), [4, 1], {
    ...floor,
    roughness: 0.8,
    laying: boards('plank', 3, 0.14, { joint: 0.006, joints: '#191512', edge: 0.004, recess: 0.006 }),
  }),
  finish('timber.oak-wide', 'Oak board, wide', 'Timber', '#c09a6c', wood('plain', 0.45, 0.9), [4, 1], {
    ...floor,
    price: 240,
    laying: boards('plank', 2.4, 0.26),
  }),
  finish('timber.oak-strip', 'Oak strip', 'Timber', '#bb9263', wood('quarter', 0.45, 0.8), [3, 1], { ...floor, laying: boards('plank', 0.9, 0.07) }),
  finish('timber.oak-herringbone', 'Oak herringbone', 'Timber', '#b08a5e', wood('plain', 0.5, 0.5), [3, 1], {
    ...floor,
    laying: boards('herringbone', 0.35, 0.07),
  }),
  finish('timber.walnut-herringbone', 'Walnut herringbone', 'Timber', '#66462f', wood('plain', 0.5, 0.6), [3, 1], {
    ...floor,
    price: 270,
    laying: boards('herringbone', 0.5, 0.1),
  }),
  finish('timber.oak-chevron', 'Oak chevron', 'Timber', '#b58e62', wood('quarter', 0.45, 0.7), [3, 1], {
    ...floor,
    price: 230,
    laying: boards('chevron', 0.6, 0.09),
  }),
  finish('timber.smoked-chevron', 'Smoked oak chevron', 'Timber', '#6f5338', wood('plain', 0.5, 0.5), [3, 1], {
    ...floor,
    price: 250,
    laying: boards('chevron', 0.7, 0.12, { angle: Math.PI / 3.6 }),
  }),
  finish('timber.oak-basket', 'Oak basket', 'Timber', '#b58c5f', wood('quarter', 0.45, 0.7), [2, 1], { ...floor, laying: boards('basket', 0.32, 0.064) }),
  finish('timber.beech-mosaic', 'Beech finger block', 'Timber', '#cda37c', wood('quarter', 0.25, 0.5, 0.5), [2, 1], {
    ...floor,
    price: 120,
    laying: boards('basket', 0.12, 0.024, { variation: 0.14 }),
  }),
  finish('timber.oak-panel', 'Oak panel parquet', 'Timber', '#ae875a', wood('plain', 0.5, 0.5), [3, 1], {
    ...floor,
    price: 340,
    laying: boards('panel', 0.8, 0.09),
  }),
  finish('timber.walnut-panel', 'Walnut panel parquet', 'Timber', '#674830', wood('plain', 0.5, 0.5), [3, 1], {
    ...floor,
    price: 420,
    laying: boards('panel', 0.6, 0.07),
  }),
  finish('timber.oak-hopscotch', 'Oak and block squares', 'Timber', '#b28a5d', wood('plain', 0.45, 0.5), [2, 1], {
    ...floor,
    laying: boards('pinwheel', 0.4, 0.2, { small: 0.2 }),
  }),
  finish('timber.end-grain', 'End-grain block', 'Timber', '#8e6a45', wood('burr', 0.4, 0.6, 0.4), [1, 1], {
    ...floor,
    laying: boards('running', 0.1, 0.07, { offset: 0.5, variation: 0.16 }),
  }),

  finish(
    'timber.oak-reeded',
    'Reeded oak',
    'Timber',
    '#b58e60',
    { kind: 'ribs', pitch: 0.02, gap: 0, depth: 0.008, form: 'round', grain: 0.6, upright: true },
    [0.8, 2.4],
    {
      roles: ['joinery', 'wall'],
    },
  ),
  finish(
    'timber.walnut-reeded',
    'Reeded walnut',
    'Timber',
    '#64442e',
    { kind: 'ribs', pitch: 0.024, gap: 0, depth: 0.009, form: 'round', grain: 0.7, upright: true },
    [0.96, 2.4],
    {
      roles: ['joinery', 'wall'],
    },
  ),
  finish(
    'timber.ash-fluted',
    'Fluted ash',
    'Timber',
    '#cbb38b',
    { kind: 'ribs', pitch: 0.03, gap: 0.1, depth: 0.007, form: 'flute', grain: 0.5, upright: true },
    [0.9, 2.4],
    {
      roles: ['joinery', 'wall'],
    },
  ),
  finish(
    'timber.oak-slat',
    'Oak slats on felt',
    'Timber',
    '#9a7a54',
    { kind: 'ribs', pitch: 0.04, gap: 0.34, depth: 0.02, form: 'slat', grain: 0.7, upright: true },
    [0.96, 2.4],
    {
      roles: ['wall', 'ceiling'],
    },
  ),
  finish(
    'timber.black-slat',
    'Black slats on felt',
    'Timber',
    '#26221f',
    { kind: 'ribs', pitch: 0.04, gap: 0.34, depth: 0.02, form: 'slat', grain: 0.5, upright: true },
    [0.96, 2.4],
    {
      roles: ['wall', 'ceiling'],
    },
  ),
  finish(
    'timber.pine-matchboard',
    'Matchboard, pine',
    'Timber',
    '#d0a66f',
    { kind: 'ribs', pitch: 0.1, gap: 0.06, depth: 0.004, form: 'slat', grain: 0.7, upright: true },
    [1, 2.4],
    {
      roles: ['wall', 'ceiling'],
      price: 44,
    },
  ),
  finish('timber.birch-veneer', 'Birch veneer', 'Timber', '#dac49b', wood('plain', 0.2, 1.2, 0.2), [2.4, 1.2], { price: 72, roughness: 0.35 }),
  finish('timber.sycamore-veneer', 'Sycamore veneer, rippled', 'Timber', '#e0cfae', wood('quarter', 0.16, 1.2, 0.1), [2.4, 1.2], {
    price: 130,
    roughness: 0.25,
  }),
];
