import type { Category, Finish, Maker, Role } from './finish';

type Options = Partial<Pick<Finish, 'roughness' | 'metalness' | 'transmission' | 'translucency' | 'ior' | 'solid' | 'glows' | 'bare'>>;

const SUPPLIERS: Record<Category, string> = {
  Paint: 'Marren Colour Works',
  Timber: 'Sallow & Ridd',
  'Tile & brick': 'Orrin Kilns',
  'Stone & plaster': 'Tarn Edge Stone',
  'Carpet & cloth': 'Wether Mill',
  Metal: 'Brake Forge',
  Glass: 'Pellan Glass',
  'Outside & other': 'Lower Marren Yard',
};

const BASE_ROUGHNESS: Record<Category, number> = {
  Paint: 0.75,
  Timber: 0.5,
  'Tile & brick': 0.35,
  'Stone & plaster': 0.7,
  'Carpet & cloth': 0.95,
  Metal: 0.3,
  Glass: 0.02,
  'Outside & other': 0.9,
};

let number = 100;

function finish(
  id: string,
  name: string,
  category: Category,
  roles: Role[],
  colour: string,
  maker: Maker = { kind: 'flat' },
  size: [number, number] = [1, 1],
  options: Options = {},
): Finish {
  number += 7;
  return {
    id,
    name,
    category,
    roles,
    colour,
    maker,
    size: { width: size[0], height: size[1] },
    roughness: BASE_ROUGHNESS[category],
    metalness: category === 'Metal' ? 1 : 0,
    transmission: 0,
    translucency: 0,
    ior: 1.5,
    supplier: SUPPLIERS[category],
    code: `${SUPPLIERS[category].slice(0, 2).toUpperCase()}-${number}`,
    ...options,
  };
}

const paint = (id: string, name: string, colour: string, options: Options = {}): Finish =>
  finish(`paint.${id}`, name, 'Paint', ['wall', 'ceiling', 'joinery'], colour, { kind: 'flat' }, [1, 1], options);

const cloth = (id: string, name: string, colour: string, maker: Maker, size: [number, number], options: Options = {}): Finish =>
  finish(`cloth.${id}`, name, 'Carpet & cloth', ['textile', 'accent'], colour, maker, size, options);

const plain = (thread: number, slub = 0.3): Maker => ({ kind: 'weave', thread, pattern: 'plain', second: null, slub });

const planks = (width: number, length: number, contrast: number): Maker => ({ kind: 'planks', width, length, contrast, gap: 0.0012 });

const glazed = (width: number, height: number, offset: number, joints: string, variation = 0.12): Maker => ({
  kind: 'tiles',
  width,
  height,
  joint: 0.0025,
  offset,
  joints,
  variation,
  surface: 'glazed',
});

/** The shipped finishes. All names, suppliers and codes are invented. */
export const FINISHES: readonly Finish[] = [
  paint('sluice-white', 'Sluice white', '#e7dfcf'),
  paint('skein', 'Skein', '#f0ede5', { roughness: 0.45 }),
  paint('chalk-ledge', 'Chalk ledge', '#f4f2ec'),
  paint('reed', 'Reed', '#a9ae8f'),
  paint('lockgate-green', 'Lock-gate green', '#3f4f49', { roughness: 0.42 }),
  paint('towpath-clay', 'Towpath clay', '#bd9377'),
  paint('heron-grey', 'Heron grey', '#9ba3a6'),
  paint('millpond', 'Millpond', '#4f6b7a'),
  paint('madder-lake', 'Madder lake', '#8c3f3d'),
  paint('soot', 'Soot', '#2e2f30', { roughness: 0.4 }),
  paint('straw-bale', 'Straw bale', '#d9c48c'),

  finish('timber.oak-plank', 'Oak plank, brushed', 'Timber', ['floor'], '#b88f63', planks(0.18, 1.8, 0.5), [3.6, 1.44]),
  finish('timber.ash-plank', 'Ash plank, oiled', 'Timber', ['floor'], '#cdb48e', planks(0.15, 1.8, 0.35), [3.6, 1.2]),
  finish('timber.walnut-plank', 'Walnut plank', 'Timber', ['floor'], '#6d4c36', planks(0.16, 1.6, 0.55), [3.2, 1.28]),
  finish('timber.scrubbed-pine', 'Scrubbed pine board', 'Timber', ['floor'], '#d8bd92', planks(0.2, 2.4, 0.45), [2.4, 1.6], { roughness: 0.65 }),
  finish(
    'timber.oak-herringbone',
    'Oak herringbone',
    'Timber',
    ['floor'],
    '#b08a5e',
    { kind: 'herringbone', width: 0.07, length: 0.35, contrast: 0.5, gap: 0.001 },
    [0.98995, 0.98995],
  ),
  finish('timber.oak', 'Oak, oiled', 'Timber', ['joinery', 'worktop'], '#bf9868', { kind: 'grain', contrast: 0.45, figure: 0.5 }, [1.6, 0.8], {
    roughness: 0.45,
  }),
  finish('timber.ash', 'Ash, soaped', 'Timber', ['joinery', 'worktop'], '#d3bd97', { kind: 'grain', contrast: 0.35, figure: 0.4 }, [1.6, 0.8], {
    roughness: 0.55,
  }),
  finish('timber.walnut', 'Walnut, waxed', 'Timber', ['joinery', 'accent'], '#66462f', { kind: 'grain', contrast: 0.55, figure: 0.7 }, [1.6, 0.8], {
    roughness: 0.4,
  }),
  finish('timber.bog-oak', 'Bog oak', 'Timber', ['joinery', 'accent'], '#3b322b', { kind: 'grain', contrast: 0.5, figure: 0.5 }, [1.6, 0.8], {
    roughness: 0.45,
  }),

  finish('tile.glazed-green', 'Glazed brick, weir', 'Tile & brick', ['wall', 'accent'], '#5d8177', glazed(0.15, 0.075, 0.5, '#d9d4c8', 0.16), [1.22, 0.62], {
    roughness: 0.12,
  }),
  finish('tile.glazed-white', 'Glazed brick, milk', 'Tile & brick', ['wall'], '#e6e3da', glazed(0.15, 0.075, 0.5, '#bdb8ac', 0.05), [1.22, 0.62], {
    roughness: 0.12,
  }),
  finish('tile.square-white', 'Square tile, chalk', 'Tile & brick', ['wall', 'floor'], '#ecebe6', glazed(0.15, 0.15, 0, '#b9b6ae', 0.03), [1.22, 1.22], {
    roughness: 0.15,
  }),
  finish('tile.square-ink', 'Square tile, ink', 'Tile & brick', ['wall', 'floor'], '#3c4a55', glazed(0.1, 0.1, 0, '#8f908d', 0.12), [0.82, 0.82], {
    roughness: 0.15,
  }),
  finish(
    'tile.hex-clay',
    'Hexagon, burnt clay',
    'Tile & brick',
    ['floor'],
    '#a9694a',
    { kind: 'hexagons', across: 0.2, joint: 0.004, joints: '#8d8377', variation: 0.22 },
    [1.22, 1.4134],
    { roughness: 0.6 },
  ),
  finish(
    'tile.hex-bone',
    'Hexagon, bone',
    'Tile & brick',
    ['floor'],
    '#d8d2c4',
    { kind: 'hexagons', across: 0.15, joint: 0.003, joints: '#9d978c', variation: 0.08 },
    [0.918, 1.06],
    { roughness: 0.45 },
  ),
  finish(
    'tile.riven-slate',
    'Riven slate',
    'Tile & brick',
    ['floor'],
    '#565a5c',
    { kind: 'tiles', width: 0.6, height: 0.3, joint: 0.004, offset: 0.5, joints: '#6f6e6a', variation: 0.22, surface: 'stone' },
    [2.416, 1.216],
    { roughness: 0.55 },
  ),
  finish(
    'brick.red-stock',
    'Red stock brick',
    'Tile & brick',
    ['wall'],
    '#96573f',
    { kind: 'tiles', width: 0.215, height: 0.065, joint: 0.01, offset: 0.5, joints: '#b4aa9a', variation: 0.4, surface: 'brick' },
    [1.35, 0.9],
    { roughness: 0.92 },
  ),
  finish(
    'brick.limewashed',
    'Limewashed brick',
    'Tile & brick',
    ['wall'],
    '#dcd6ca',
    { kind: 'tiles', width: 0.215, height: 0.065, joint: 0.01, offset: 0.5, joints: '#d2ccc0', variation: 0.1, surface: 'brick' },
    [1.35, 0.9],
    { roughness: 0.92 },
  ),

  finish(
    'plaster.lime',
    'Lime plaster',
    'Stone & plaster',
    ['wall', 'ceiling'],
    '#e4dccb',
    { kind: 'mottle', cell: 0.25, contrast: 0.05, relief: 0.0006 },
    [2, 2],
    { roughness: 0.85 },
  ),
  finish(
    'plaster.clay',
    'Clay plaster, heather',
    'Stone & plaster',
    ['wall'],
    '#b79d95',
    { kind: 'mottle', cell: 0.3, contrast: 0.09, relief: 0.0006 },
    [2, 2],
    { roughness: 0.9 },
  ),
  finish(
    'plaster.micro',
    'Microcement, pewter',
    'Stone & plaster',
    ['floor', 'wall'],
    '#92918c',
    { kind: 'mottle', cell: 0.5, contrast: 0.12, relief: 0.0002 },
    [2.4, 2.4],
    { roughness: 0.5 },
  ),
  finish(
    'stone.flag',
    'Lock-side flag',
    'Stone & plaster',
    ['floor'],
    '#a89d8b',
    { kind: 'tiles', width: 0.6, height: 0.45, joint: 0.008, offset: 0.33, joints: '#8b8477', variation: 0.16, surface: 'stone' },
    [1.824, 1.374],
    { roughness: 0.75 },
  ),
  finish(
    'terrazzo.pale',
    'Terrazzo, pale',
    'Stone & plaster',
    ['worktop', 'floor'],
    '#d4cfc4',
    { kind: 'terrazzo', chip: 0.014, chips: ['#8d8f88', '#b98d74', '#efeae0', '#6d7c76', '#c9b79c'] },
    [0.8, 0.8],
    { roughness: 0.25 },
  ),
  finish(
    'terrazzo.dark',
    'Terrazzo, weir',
    'Stone & plaster',
    ['worktop', 'floor'],
    '#4d5450',
    { kind: 'terrazzo', chip: 0.016, chips: ['#7e8c84', '#c9c2b2', '#2d3230', '#8a6f5c', '#a7b0a8'] },
    [0.8, 0.8],
    { roughness: 0.25 },
  ),
  finish(
    'stone.marble',
    'Vein marble',
    'Stone & plaster',
    ['worktop', 'wall', 'floor'],
    '#e2dfd8',
    { kind: 'veins', scale: 0.6, vein: '#8f8d88' },
    [1.8, 1.2],
    { roughness: 0.18 },
  ),

  finish(
    'carpet.wool-oat',
    'Wool loop, oat',
    'Carpet & cloth',
    ['floor', 'textile'],
    '#c8bba4',
    { kind: 'pile', loop: 0.006, contrast: 0.3, ribbed: false },
    [0.384, 0.384],
  ),
  finish(
    'carpet.wool-slate',
    'Wool loop, slate',
    'Carpet & cloth',
    ['floor', 'textile'],
    '#767b7d',
    { kind: 'pile', loop: 0.006, contrast: 0.3, ribbed: false },
    [0.384, 0.384],
  ),
  finish(
    'carpet.sisal',
    'Sisal rib',
    'Carpet & cloth',
    ['floor', 'textile'],
    '#b59d74',
    { kind: 'pile', loop: 0.007, contrast: 0.35, ribbed: true },
    [0.392, 0.392],
  ),
  cloth('oat-weave', 'Oat weave', '#cdc2ac', plain(0.0022, 0.5), [0.1408, 0.1408]),
  cloth('damson-linen', 'Damson linen', '#843550', plain(0.0016), [0.1024, 0.1024]),
  cloth('ink-linen', 'Ink linen', '#39434f', plain(0.0016), [0.1024, 0.1024]),
  cloth('white-linen', 'White linen', '#ebe8e0', plain(0.0014), [0.0896, 0.0896]),
  cloth(
    'moss-herringbone',
    'Moss herringbone',
    '#7c8062',
    { kind: 'weave', thread: 0.002, pattern: 'herringbone', second: '#98987a', slub: 0.25 },
    [0.128, 0.128],
  ),
  cloth('fold-twill', 'Lambfold twill', '#9a8a78', { kind: 'weave', thread: 0.002, pattern: 'twill', second: '#b2a48f', slub: 0.2 }, [0.128, 0.128]),
  cloth('rust-velvet', 'Rust velvet', '#9a4b2c', { kind: 'nap', contrast: 0.18 }, [0.5, 0.5], { roughness: 0.8 }),
  cloth('sheer', 'Sheer voile', '#f2f0ea', plain(0.0012, 0.2), [0.0768, 0.0768], { translucency: 0.55 }),
  cloth('shade', 'Shade cloth', '#efe6d3', plain(0.0012, 0.3), [0.0768, 0.0768], { translucency: 0.45 }),
  cloth('tan-hide', 'Tan hide', '#a06a42', { kind: 'hide', cell: 0.004 }, [0.256, 0.256], { roughness: 0.5 }),

  finish('metal.brass-brushed', 'Brass, brushed', 'Metal', ['metal', 'accent'], '#c8a256', { kind: 'brushed', contrast: 0.07 }, [0.3, 0.3], {
    roughness: 0.32,
  }),
  finish('metal.steel-brushed', 'Steel, brushed', 'Metal', ['metal', 'worktop'], '#b9babb', { kind: 'brushed', contrast: 0.07 }, [0.3, 0.3], {
    roughness: 0.34,
  }),
  finish('metal.copper', 'Copper', 'Metal', ['metal', 'accent'], '#c6805c', { kind: 'flat' }, [1, 1], { roughness: 0.22 }),
  finish('metal.chrome', 'Chrome', 'Metal', ['metal'], '#c9cbcc', { kind: 'flat' }, [1, 1], { roughness: 0.06 }),
  finish(
    'metal.iron-black',
    'Blacked iron',
    'Metal',
    ['metal', 'joinery'],
    '#2b2b2c',
    { kind: 'mottle', cell: 0.03, contrast: 0.1, relief: 0.0001 },
    [0.5, 0.5],
    { roughness: 0.5, metalness: 0.4 },
  ),
  finish('metal.enamel-green', 'Enamel, lock-gate', 'Metal', ['accent', 'metal'], '#34463f', { kind: 'flat' }, [1, 1], { roughness: 0.16, metalness: 0 }),

  finish('glass.clear', 'Clear glass', 'Glass', ['accent'], '#f4f8f6', { kind: 'flat' }, [1, 1], { transmission: 1 }),
  finish('glass.smoke', 'Smoked glass', 'Glass', ['accent'], '#6a6866', { kind: 'flat' }, [1, 1], { transmission: 1 }),
  finish('glass.weir', 'Weir-green glass', 'Glass', ['accent'], '#a9cbbd', { kind: 'flat' }, [1, 1], { transmission: 1 }),
  finish('glass.cast', 'Cast glass', 'Glass', ['accent'], '#e8f3ee', { kind: 'flat' }, [1, 1], { transmission: 1, solid: true }),
  finish('mirror.silver', 'Mirror', 'Glass', ['accent', 'wall'], '#e9ebea', { kind: 'flat' }, [1, 1], { metalness: 1, roughness: 0.01 }),

  finish('ceramic.white', 'Vitreous china', 'Outside & other', ['accent'], '#f0f0ec', { kind: 'flat' }, [1, 1], { roughness: 0.1 }),
  finish('clay.pot', 'Thrown clay', 'Outside & other', ['accent'], '#b0714f', { kind: 'mottle', cell: 0.05, contrast: 0.1, relief: 0.0002 }, [0.6, 0.6], {
    roughness: 0.85,
  }),
  finish('leaf.green', 'Leaf', 'Outside & other', ['accent'], '#45643a', { kind: 'mottle', cell: 0.03, contrast: 0.16, relief: 0 }, [0.24, 0.24], {
    roughness: 0.4,
    translucency: 0.15,
  }),
  finish('paper.cream', 'Cream paper', 'Outside & other', ['accent'], '#ddd2b8', { kind: 'flat' }, [1, 1]),
  finish('ground.grass', 'Meadow grass', 'Outside & other', ['floor'], '#6b7a45', { kind: 'blades', contrast: 0.5 }, [1.2, 1.2]),
  finish('ground.gravel', 'Towpath gravel', 'Outside & other', ['floor'], '#a39a8a', { kind: 'pebbles', size: 0.018, contrast: 0.5 }, [0.72, 0.72]),
  finish('water.canal', 'Canal water', 'Outside & other', [], '#3f4a3c', { kind: 'mottle', cell: 0.4, contrast: 0.12, relief: 0.0015 }, [2.4, 2.4], {
    roughness: 0.06,
  }),
  finish('water.pool', 'Pool water', 'Outside & other', [], '#9cc4c4', { kind: 'mottle', cell: 0.3, contrast: 0.1, relief: 0.001 }, [2.4, 2.4], {
    roughness: 0.05,
  }),
  finish('backdrop.near', 'Near green', 'Outside & other', [], '#56623f', { kind: 'flat' }, [1, 1], { bare: true, roughness: 1 }),
  finish('backdrop.middle', 'Middle green', 'Outside & other', [], '#7c8a6c', { kind: 'flat' }, [1, 1], { bare: true, roughness: 1 }),
  finish('backdrop.far', 'Far hills', 'Outside & other', [], '#9fabab', { kind: 'flat' }, [1, 1], { bare: true, roughness: 1 }),
  finish('ground.soil', 'Soil', 'Outside & other', [], '#3b2f26', { kind: 'pebbles', size: 0.008, contrast: 0.5 }, [0.256, 0.256]),

  finish('light.opal', 'Lit opal', 'Glass', [], '#fff6e6', { kind: 'flat' }, [1, 1], { glows: true, bare: true, roughness: 0.4 }),
  // Reflectances of surfaces nobody has chosen yet: ceiling 0.7, walls 0.5, floor 0.2 (trade figures).
  finish('bare.plaster', 'Bare plaster', 'Stone & plaster', [], '#bcbcbc', { kind: 'flat' }, [1, 1], { bare: true, roughness: 0.95 }),
  finish('bare.ceiling', 'Bare ceiling', 'Stone & plaster', [], '#dadada', { kind: 'flat' }, [1, 1], { bare: true, roughness: 0.95 }),
  finish('bare.screed', 'Bare screed', 'Stone & plaster', [], '#7c7c7c', { kind: 'mottle', cell: 0.4, contrast: 0.06, relief: 0 }, [2, 2], {
    bare: true,
    roughness: 0.95,
  }),
  finish('bare.render', 'Bare render', 'Stone & plaster', [], '#cfccc4', { kind: 'mottle', cell: 0.1, contrast: 0.05, relief: 0.0005 }, [1.5, 1.5], {
    bare: true,
    roughness: 0.95,
  }),
  finish('bare.ground', 'Bare ground', 'Outside & other', [], '#8f8b80', { kind: 'flat' }, [1, 1], { bare: true }),
  finish('bare.cut', 'Cut wall', 'Stone & plaster', [], '#53524f', { kind: 'flat' }, [1, 1], { bare: true, roughness: 0.95 }),
];

const byId = new Map(FINISHES.map((f) => [f.id, f]));

/** A finish by id; one that is not in the library shows as bare plaster. */
export const finishById = (id: string): Finish => byId.get(id) ?? byId.get('bare.plaster')!;

export const hasFinish = (id: string): boolean => byId.has(id);

/** What the ledge offers. */
export const offered: readonly Finish[] = FINISHES.filter((f) => !f.bare);
