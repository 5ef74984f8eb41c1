import { finish, lay, type Options } from './make';

const roof: Options = { roles: [], price: 54 };

export const outside = [
  finish('roof.slate', 'Roof slate', 'Outside', '#53585c', { kind: 'rock', cell: 0.12, contrast: 0.4, relief: 0.0012, layers: 0.6 }, [1, 1], {
    ...roof,
    roughness: 0.6,
    laying: lay('running', 0.25, 0.2, 0.002, '#22252a', { offset: 0.5, variation: 0.12, lap: 0.006, edge: 0.001, recess: 0.002 }),
  }),
  finish('roof.slate-purple', 'Roof slate, plum', 'Outside', '#615660', { kind: 'rock', cell: 0.12, contrast: 0.4, relief: 0.0012, layers: 0.6 }, [1, 1], {
    ...roof,
    roughness: 0.6,
    laying: lay('running', 0.25, 0.2, 0.002, '#292329', { offset: 0.5, variation: 0.14, lap: 0.006, edge: 0.001, recess: 0.002 }),
  }),
  finish('roof.clay', 'Plain clay tile', 'Outside', '#9b583e', { kind: 'ceramic', speckle: 1, relief: 0.0008 }, [0.8, 0.8], {
    ...roof,
    laying: lay('running', 0.165, 0.1, 0.002, '#3a211a', { offset: 0.5, variation: 0.2, lap: 0.012, edge: 0.001, recess: 0.002 }),
  }),
  finish('roof.clay-brown', 'Plain clay tile, brindled', 'Outside', '#6f4a3b', { kind: 'ceramic', speckle: 1.2, relief: 0.0008 }, [0.8, 0.8], {
    ...roof,
    laying: lay('running', 0.165, 0.1, 0.002, '#2c1c16', { offset: 0.5, variation: 0.24, lap: 0.012, edge: 0.001, recess: 0.002 }),
  }),
  finish('roof.shingle', 'Cedar shingle', 'Outside', '#8c7359', { kind: 'timber', cut: 'quarter', contrast: 0.5, figure: 0.3, pores: 0.6 }, [1, 1], {
    ...roof,
    laying: lay('coursed', 0.14, 0.13, 0.003, '#2b2119', { variation: 0.16, lap: 0.01, edge: 0.001, recess: 0.003 }),
  }),
  finish('roof.shake', 'Split shake', 'Outside', '#77675a', { kind: 'timber', cut: 'quarter', contrast: 0.8, figure: 0.4, pores: 1 }, [1, 1], {
    ...roof,
    laying: lay('coursed', 0.2, 0.2, 0.006, '#221a14', { variation: 0.2, lap: 0.018, edge: 0.002, recess: 0.004 }),
  }),
  finish('roof.seam-zinc', 'Standing seam, zinc', 'Outside', '#7e8487', { kind: 'seam', pitch: 0.5, height: 0.025 }, [2, 2.4], {
    ...roof,
    roughness: 0.45,
    metalness: 0.8,
    price: 96,
  }),
  finish('roof.seam-black', 'Standing seam, black', 'Outside', '#2d2f31', { kind: 'seam', pitch: 0.5, height: 0.025 }, [2, 2.4], {
    ...roof,
    roughness: 0.5,
    metalness: 0.3,
    price: 88,
  }),
  finish('roof.seam-copper', 'Standing seam, copper green', 'Outside', '#6d9a85', { kind: 'seam', pitch: 0.5, height: 0.025 }, [2, 2.4], {
    ...roof,
    roughness: 0.65,
    metalness: 0.2,
    price: 170,
  }),
  finish('roof.thatch', 'Water-reed thatch', 'Outside', '#9a8358', { kind: 'thatch', contrast: 0.4 }, [1.2, 1.2], { ...roof, price: 140 }),

  finish(
    'cladding.weatherboard-white',
    'Weatherboard, white',
    'Outside',
    '#eae7df',
    { kind: 'boards', height: 0.15, form: 'lap', grain: 0.1, contrast: 0.1 },
    [2.4, 1.5],
    { roles: ['wall'], roughness: 0.6 },
  ),
  finish(
    'cladding.weatherboard-tar',
    'Weatherboard, tarred',
    'Outside',
    '#2b2a29',
    { kind: 'boards', height: 0.15, form: 'lap', grain: 0.6, contrast: 0.4 },
    [2.4, 1.5],
    { roles: ['wall'] },
  ),
  finish(
    'cladding.weatherboard-larch',
    'Weatherboard, larch',
    'Outside',
    '#b18a60',
    { kind: 'boards', height: 0.15, form: 'lap', grain: 1, contrast: 0.5 },
    [2.4, 1.5],
    { roles: ['wall'] },
  ),
  finish(
    'cladding.shiplap-blue',
    'Shiplap, boat blue',
    'Outside',
    '#5b7488',
    { kind: 'boards', height: 0.12, form: 'groove', grain: 0.1, contrast: 0.1 },
    [2.4, 1.2],
    { roles: ['wall', 'ceiling'], roughness: 0.55 },
  ),
  finish(
    'cladding.shiplap-white',
    'Shiplap, white',
    'Outside',
    '#ecebe6',
    { kind: 'boards', height: 0.12, form: 'groove', grain: 0.05, contrast: 0.05 },
    [2.4, 1.2],
    { roles: ['wall', 'ceiling'], roughness: 0.55 },
  ),
  finish(
    'cladding.shiplap-cedar',
    'Shiplap, cedar',
    'Outside',
    '#9a6546',
    { kind: 'boards', height: 0.12, form: 'groove', grain: 1, contrast: 0.5 },
    [2.4, 1.2],
    { roles: ['wall', 'ceiling'] },
  ),
  finish('cladding.log', 'Round log', 'Outside', '#a3784e', { kind: 'boards', height: 0.2, form: 'log', grain: 1, contrast: 0.5 }, [2.4, 1.6], {
    roles: ['wall'],
  }),

  finish('ground.grass', 'Meadow grass', 'Outside', '#6b7a45', { kind: 'blades', contrast: 0.5 }, [1.2, 1.2], { roles: ['floor'] }),
  finish('ground.lawn', 'Mown lawn', 'Outside', '#7a8f4d', { kind: 'blades', contrast: 0.32 }, [1.2, 1.2], { roles: ['floor'] }),
  finish('ground.gravel', 'Towpath gravel', 'Outside', '#a39a8a', { kind: 'pebbles', stone: 0.018, contrast: 0.5 }, [0.72, 0.72], { roles: ['floor'] }),
  finish('ground.gravel-buff', 'Buff gravel', 'Outside', '#c2ab85', { kind: 'pebbles', stone: 0.012, contrast: 0.5 }, [0.6, 0.6], { roles: ['floor'] }),
  finish('ground.sand', 'Sand', 'Outside', '#d3bd93', { kind: 'sand', grain: 0.002, contrast: 0.16 }, [1.2, 1.2], { roles: ['floor'] }),
  finish('ground.bark', 'Bark mulch', 'Outside', '#6b4b35', { kind: 'pebbles', stone: 0.03, contrast: 0.7 }, [0.9, 0.9], { roles: ['floor'] }),
  finish('ground.setts', 'Granite setts', 'Outside', '#7d7c79', { kind: 'rock', cell: 0.03, contrast: 0.5, relief: 0.003, layers: 0 }, [0.8, 0.8], {
    roles: ['floor'],
    price: 88,
    laying: lay('running', 0.1, 0.1, 0.01, '#6a655c', { offset: 0.5, variation: 0.16, edge: 0.012, recess: 0.008 }),
  }),
  finish('ground.paving', 'Concrete flag', 'Outside', '#b0aca3', { kind: 'concrete', board: 0, contrast: 0.12 }, [1.8, 1.8], {
    roles: ['floor'],
    laying: lay('running', 0.6, 0.45, 0.008, '#8b867b', { offset: 0.5, variation: 0.05 }),
  }),
  finish('water.canal', 'Canal water', 'Outside', '#3f4a3c', { kind: 'water', wave: 0.4, contrast: 0.12 }, [2.4, 2.4], { roughness: 0.06 }),
  finish('water.pool', 'Pool water', 'Outside', '#9cc4c4', { kind: 'water', wave: 0.3, contrast: 0.1 }, [2.4, 2.4], { roughness: 0.05 }),
  finish('ground.soil', 'Soil', 'Outside', '#3b2f26', { kind: 'pebbles', stone: 0.008, contrast: 0.5 }, [0.256, 0.256]),

  finish('ceramic.white', 'Vitreous china', 'Outside', '#f0f0ec', { kind: 'flat' }, [1, 1], { roughness: 0.1, roles: ['accent'] }),
  finish('clay.pot', 'Thrown clay', 'Outside', '#b0714f', { kind: 'mottle', cell: 0.05, contrast: 0.1, relief: 0.0002 }, [0.6, 0.6], {
    roughness: 0.85,
    roles: ['accent'],
  }),
  finish('leaf.green', 'Leaf', 'Outside', '#45643a', { kind: 'mottle', cell: 0.03, contrast: 0.16, relief: 0 }, [0.24, 0.24], {
    roughness: 0.4,
    translucency: 0.15,
    roles: ['accent'],
  }),
  finish('paper.cream', 'Cream paper', 'Outside', '#ddd2b8', { kind: 'flat' }, [1, 1], { roles: ['accent'] }),
];

const bare = (id: string, name: string, colour: string, options: Options = {}) =>
  finish(id, name, 'Outside', colour, { kind: 'flat' }, [1, 1], { bare: true, roughness: 0.95, roles: [], price: 0, ...options });

/** What things to eat are of: it comes with them, and is neither offered for surfaces nor ordered. */
const food = (id: string, name: string, colour: string, contrast: number, roughness: number) =>
  finish(id, name, 'Outside', colour, { kind: 'mottle', cell: 0.02, contrast, relief: 0.0001 }, [0.3, 0.3], {
    roughness,
    bare: true,
    roles: [],
    price: 0,
  });

/** What surfaces show before anybody has chosen: ceiling 0.7, walls 0.5, floor 0.2 (trade figures); and what lies beyond. */
export const bares = [
  bare('bare.plaster', 'Bare plaster', '#bcbcbc'),
  bare('bare.ceiling', 'Bare ceiling', '#dadada'),
  finish('bare.screed', 'Bare screed', 'Outside', '#7c7c7c', { kind: 'mottle', cell: 0.4, contrast: 0.06, relief: 0 }, [2, 2], {
    bare: true,
    roughness: 0.95,
    price: 0,
  }),
  finish('bare.render', 'Bare render', 'Outside', '#cfccc4', { kind: 'mottle', cell: 0.1, contrast: 0.05, relief: 0.0005 }, [1.5, 1.5], {
    bare: true,
    roughness: 0.95,
    price: 0,
  }),
  bare('bare.ground', 'Bare ground', '#8f8b80'),
  bare('bare.cut', 'Cut wall', '#53524f'),
  bare('backdrop.near', 'Near green', '#56623f', { roughness: 1 }),
  bare('backdrop.middle', 'Middle green', '#7c8a6c', { roughness: 1 }),
  bare('backdrop.far', 'Far hills', '#9fabab', { roughness: 1 }),
  food('food.apple', 'Apple skin', '#8a2b26', 0.32, 0.3),
  food('food.lemon', 'Lemon peel', '#dfb32f', 0.1, 0.42),
  food('food.pear', 'Pear skin', '#a5a04a', 0.2, 0.4),
  food('food.crust', 'Bread crust', '#a86f3b', 0.16, 0.85),
];
