import type { Body } from '../../project/schema';
import { finish, lay } from './make';

const mottle = (cell: number, contrast: number, relief: number): Body => ({ kind: 'mottle', cell, contrast, relief });
const rock = (cell: number, contrast: number, relief: number, layers = 0): Body => ({ kind: 'rock', cell, contrast, relief, layers });
const veins = (scale: number, vein: string, strength = 1): Body => ({ kind: 'veins', scale, vein, strength });
const slab = { roughness: 0.16, roles: ['worktop', 'wall', 'floor'] as const };

export const plasters = [
  finish('plaster.lime', 'Lime plaster', 'Plaster', '#e4dccb', mottle(0.25, 0.05, 0.0006), [2, 2]),
  finish('plaster.clay', 'Clay plaster, heather', 'Plaster', '#b79d95', mottle(0.3, 0.09, 0.0006), [2, 2], { roughness: 0.9 }),
  finish('plaster.clay-straw', 'Clay plaster, straw', 'Plaster', '#c9b184', mottle(0.12, 0.12, 0.001), [2, 2], { roughness: 0.95 }),
  finish('plaster.clay-olive', 'Clay plaster, olive', 'Plaster', '#8f8d6a', mottle(0.3, 0.09, 0.0006), [2, 2], { roughness: 0.9 }),
  finish('plaster.polished-ivory', 'Polished plaster, ivory', 'Plaster', '#e6dfcf', mottle(0.35, 0.09, 0.00008), [2.4, 2.4], { roughness: 0.22, price: 88 }),
  finish('plaster.polished-slate', 'Polished plaster, slate', 'Plaster', '#5f666a', mottle(0.35, 0.14, 0.00008), [2.4, 2.4], { roughness: 0.22, price: 88 }),
  finish('plaster.polished-rose', 'Polished plaster, rose', 'Plaster', '#c8a294', mottle(0.35, 0.1, 0.00008), [2.4, 2.4], { roughness: 0.22, price: 88 }),
  finish('plaster.soaped', 'Soaped lime, waterproof', 'Plaster', '#d5cdbb', mottle(0.25, 0.12, 0.0001), [2, 2], { roughness: 0.3, price: 120 }),
  finish('plaster.limewash-white', 'Limewash, white', 'Plaster', '#eeeae0', mottle(0.4, 0.06, 0.0002), [2.4, 2.4], { roughness: 0.95, price: 24 }),
  finish('plaster.limewash-blue', 'Limewash, laundry blue', 'Plaster', '#aebcc6', mottle(0.4, 0.11, 0.0002), [2.4, 2.4], { roughness: 0.95, price: 24 }),
  finish('plaster.limewash-ochre', 'Limewash, ochre', 'Plaster', '#d3b279', mottle(0.4, 0.11, 0.0002), [2.4, 2.4], { roughness: 0.95, price: 24 }),
  finish('plaster.micro', 'Microcement, pewter', 'Plaster', '#92918c', mottle(0.5, 0.12, 0.0002), [2.4, 2.4], {
    roughness: 0.5,
    roles: ['floor', 'wall', 'worktop'],
    price: 110,
  }),
  finish('plaster.micro-sand', 'Microcement, sand', 'Plaster', '#c5b8a3', mottle(0.5, 0.1, 0.0002), [2.4, 2.4], {
    roughness: 0.5,
    roles: ['floor', 'wall', 'worktop'],
    price: 110,
  }),
  finish('plaster.micro-coal', 'Microcement, coal', 'Plaster', '#494a4b', mottle(0.5, 0.16, 0.0002), [2.4, 2.4], {
    roughness: 0.5,
    roles: ['floor', 'wall', 'worktop'],
    price: 110,
  }),
  finish('plaster.stipple-fine', 'Ceiling coat, fine stipple', 'Plaster', '#eeece6', { kind: 'stipple', cell: 0.006, relief: 0.0012 }, [0.6, 0.6], {
    roles: ['ceiling'],
    price: 18,
  }),
  finish('plaster.stipple-coarse', 'Ceiling coat, coarse stipple', 'Plaster', '#e9e6de', { kind: 'stipple', cell: 0.014, relief: 0.004 }, [0.84, 0.84], {
    roles: ['ceiling'],
    price: 18,
  }),
  finish('plaster.comb', 'Ceiling coat, combed fans', 'Plaster', '#ece9e1', { kind: 'comb', radius: 0.14, relief: 0.0025 }, [1.12, 1.12], {
    roles: ['ceiling', 'wall'],
    price: 26,
  }),
  finish('concrete.cast', 'Cast concrete', 'Plaster', '#a3a19b', { kind: 'concrete', board: 0, contrast: 0.16 }, [2.4, 2.4], {
    roughness: 0.7,
    roles: ['wall', 'floor', 'worktop'],
  }),
  finish('concrete.boarded', 'Board-marked concrete', 'Plaster', '#9c9a94', { kind: 'concrete', board: 0.12, contrast: 0.14 }, [2.4, 2.4], {
    roughness: 0.8,
    roles: ['wall', 'ceiling'],
  }),
  finish('concrete.dark', 'Cast concrete, dark', 'Plaster', '#5d5d5c', { kind: 'concrete', board: 0, contrast: 0.2 }, [2.4, 2.4], {
    roughness: 0.55,
    roles: ['worktop', 'floor'],
  }),
  finish('render.smooth', 'Smooth render', 'Plaster', '#d8d2c4', mottle(0.2, 0.05, 0.0008), [2, 2], { roles: ['wall'], price: 30 }),
  finish('render.roughcast', 'Roughcast', 'Plaster', '#cfc8b9', { kind: 'stipple', cell: 0.009, relief: 0.006 }, [0.72, 0.72], {
    roles: ['wall'],
    roughness: 0.95,
    price: 32,
  }),
  finish(
    'render.scraped',
    'Scraped render, stone',
    'Plaster',
    '#b9ad97',
    { kind: 'rock', cell: 0.012, contrast: 0.3, relief: 0.002, layers: 0 },
    [0.96, 0.96],
    { roles: ['wall'], roughness: 0.95, price: 34 },
  ),
];

export const stones = [
  finish('tile.riven-slate', 'Riven slate', 'Stone', '#565a5c', rock(0.16, 0.7, 0.0025, 0.8), [1.2, 1.2], {
    roughness: 0.55,
    roles: ['floor', 'wall'],
    price: 84,
    laying: lay('running', 0.6, 0.3, 0.004, '#6f6e6a', { offset: 0.5, variation: 0.12, edge: 0.003 }),
  }),
  finish('stone.flag', 'Lock-side flag', 'Stone', '#a89d8b', rock(0.2, 0.6, 0.002, 0.3), [1.4, 1.4], {
    roughness: 0.75,
    roles: ['floor'],
    price: 92,
    laying: lay('coursed', 0.6, 0.45, 0.008, '#8b8477', { variation: 0.1, edge: 0.004, recess: 0.003 }),
  }),
  finish('stone.limestone', 'Limestone, honed', 'Stone', '#d3c7b0', rock(0.2, 0.22, 0.0001), [1.4, 1.4], {
    roughness: 0.45,
    laying: lay('running', 0.9, 0.6, 0.003, '#b9ae99', { offset: 0.5, variation: 0.05 }),
  }),
  finish('stone.limestone-tumbled', 'Limestone, tumbled', 'Stone', '#cbbc9f', rock(0.14, 0.35, 0.0012), [1.4, 1.4], {
    roughness: 0.75,
    roles: ['floor'],
    laying: lay('coursed', 0.4, 0.4, 0.008, '#a99c85', { variation: 0.1, edge: 0.01, recess: 0.004 }),
  }),
  finish('stone.sandstone', 'Sandstone, sawn', 'Stone', '#c2a37c', rock(0.3, 0.35, 0.0006, 0.5), [1.4, 1.4], {
    roughness: 0.8,
    laying: lay('running', 0.6, 0.4, 0.006, '#a48d70', { offset: 0.5, variation: 0.12 }),
  }),
  finish('stone.travertine', 'Travertine, filled', 'Stone', '#d2bf9f', rock(0.28, 0.3, 0.0002, 1), [1.6, 1.6], {
    ...slab,
    roles: [...slab.roles],
    roughness: 0.35,
  }),
  finish('stone.cobble', 'River cobble', 'Stone', '#8c877d', { kind: 'pebbles', stone: 0.09, contrast: 0.4 }, [1.08, 1.08], {
    roles: ['floor'],
    roughness: 0.8,
    price: 62,
  }),
  finish('stone.rubble', 'Rubble wall', 'Stone', '#9a9080', { kind: 'rubble', stone: 0.26, joint: 0.018, joints: '#b3aa99', contrast: 0.4 }, [2.1, 2.1], {
    roles: ['wall'],
    roughness: 0.9,
    price: 150,
  }),
  finish(
    'stone.rubble-dark',
    'Rubble wall, slate',
    'Stone',
    '#5f6264',
    { kind: 'rubble', stone: 0.22, joint: 0.012, joints: '#85837d', contrast: 0.4 },
    [1.9, 1.9],
    { roles: ['wall'], roughness: 0.85, price: 150 },
  ),
  finish('stone.ashlar', 'Ashlar', 'Stone', '#c8b797', rock(0.2, 0.3, 0.0008), [1.4, 1.4], {
    roles: ['wall'],
    roughness: 0.85,
    laying: lay('coursed', 0.6, 0.3, 0.004, '#b1a287', { variation: 0.09, edge: 0.002 }),
  }),
  finish('stone.ledge', 'Split ledge stone', 'Stone', '#8d8172', rock(0.12, 0.7, 0.005, 0.9), [1.2, 1.2], {
    roles: ['wall'],
    roughness: 0.9,
    laying: lay('coursed', 0.3, 0.045, 0.001, '#2f2a25', { variation: 0.22, edge: 0.006, recess: 0.008 }),
  }),
  finish('stone.marble', 'Vein marble', 'Stone', '#e2dfd8', veins(0.6, '#8f8d88'), [1.8, 1.2], { ...slab, roles: [...slab.roles] }),
  finish('stone.marble-green', 'Green marble', 'Stone', '#4c6353', veins(0.5, '#b9c8b8'), [1.8, 1.2], { ...slab, roles: [...slab.roles], price: 260 }),
  finish('stone.marble-black', 'Black marble', 'Stone', '#2a2a2b', veins(0.7, '#d9d5cc', 0.9), [2.1, 1.4], { ...slab, roles: [...slab.roles], price: 250 }),
  finish('stone.marble-rose', 'Rose marble', 'Stone', '#cfaa9b', veins(0.45, '#8e5f56'), [1.8, 1.35], { ...slab, roles: [...slab.roles], price: 240 }),
  finish('stone.marble-gold', 'Gold-vein marble', 'Stone', '#e8e3d8', veins(0.8, '#b08a4e', 1), [2.4, 1.6], { ...slab, roles: [...slab.roles], price: 310 }),
  finish('stone.marble-hex', 'Marble hexagon', 'Stone', '#e0ddd6', veins(0.35, '#8f8d88', 0.9), [1.05, 1.05], {
    roughness: 0.2,
    roles: ['floor', 'wall'],
    laying: lay('hexagon', 0.05, 0.05, 0.002, '#aeaaa2', { variation: 0.06 }),
  }),
  finish('stone.marble-chequer', 'Marble squares', 'Stone', '#d9d5cc', veins(0.4, '#85827c', 0.9), [1.2, 1.2], {
    roughness: 0.2,
    roles: ['floor', 'wall'],
    laying: lay('stack', 0.4, 0.4, 0.0015, '#9d9a93', { variation: 0.07 }),
  }),
  finish(
    'stone.granite-grey',
    'Granite, grey',
    'Stone',
    '#8f9092',
    { kind: 'granite', grain: 0.006, flecks: ['#3a3b3d', '#c9c8c4', '#6d6e70'], share: 0.9 },
    [0.9, 0.9],
    { ...slab, roles: [...slab.roles] },
  ),
  finish(
    'stone.granite-black',
    'Granite, black',
    'Stone',
    '#2f3032',
    { kind: 'granite', grain: 0.004, flecks: ['#17181a', '#6f7072', '#4a4b4d'], share: 0.8 },
    [0.9, 0.9],
    { ...slab, roles: [...slab.roles] },
  ),
  finish(
    'stone.granite-rose',
    'Granite, rose',
    'Stone',
    '#a98a80',
    { kind: 'granite', grain: 0.009, flecks: ['#4b4444', '#d9c2b4', '#8d6c62'], share: 0.9 },
    [0.9, 0.9],
    { ...slab, roles: [...slab.roles] },
  ),
  finish('stone.basalt', 'Basalt, honed', 'Stone', '#55575a', rock(0.05, 0.2, 0.0001), [1.2, 1.2], {
    roughness: 0.5,
    laying: lay('stack', 0.6, 0.3, 0.003, '#4b4d4f', { variation: 0.05 }),
  }),
  finish('stone.soapstone', 'Soapstone', 'Stone', '#6b7370', veins(0.9, '#99a39d', 0.4), [1.8, 1.2], { ...slab, roles: [...slab.roles], roughness: 0.45 }),
  finish(
    'terrazzo.pale',
    'Terrazzo, pale',
    'Stone',
    '#d4cfc4',
    { kind: 'terrazzo', chip: 0.014, chips: ['#8d8f88', '#b98d74', '#efeae0', '#6d7c76', '#c9b79c'] },
    [0.8, 0.8],
    { roughness: 0.25, roles: ['worktop', 'floor'] },
  ),
  finish(
    'terrazzo.dark',
    'Terrazzo, weir',
    'Stone',
    '#4d5450',
    { kind: 'terrazzo', chip: 0.016, chips: ['#7e8c84', '#c9c2b2', '#2d3230', '#8a6f5c', '#a7b0a8'] },
    [0.8, 0.8],
    { roughness: 0.25, roles: ['worktop', 'floor'] },
  ),
  finish(
    'terrazzo.rose',
    'Terrazzo, rose',
    'Stone',
    '#d8b9ab',
    { kind: 'terrazzo', chip: 0.022, chips: ['#8c4f45', '#efe2d6', '#b57f6d', '#e9cdbf'] },
    [0.88, 0.88],
    { roughness: 0.25, roles: ['worktop', 'floor'] },
  ),
  finish(
    'terrazzo.large',
    'Terrazzo, large marble',
    'Stone',
    '#ccc6ba',
    { kind: 'terrazzo', chip: 0.05, chips: ['#e9e4da', '#8c8a84', '#b8a486', '#5d625f'] },
    [1.32, 1.32],
    { roughness: 0.22, roles: ['floor', 'worktop'] },
  ),
];

export const sheets = [
  finish(
    'sheet.quartz-white',
    'Quartz composite, milk',
    'Sheet',
    '#e9e7e1',
    { kind: 'granite', grain: 0.0025, flecks: ['#d2cfc7', '#f7f5f0', '#c3beb4'], share: 0.5 },
    [0.6, 0.6],
    { roughness: 0.2, roles: ['worktop'], price: 230 },
  ),
  finish(
    'sheet.quartz-sand',
    'Quartz composite, sand',
    'Sheet',
    '#c9bba4',
    { kind: 'granite', grain: 0.003, flecks: ['#a8977d', '#e4dac8', '#8d7d66'], share: 0.6 },
    [0.6, 0.6],
    { roughness: 0.22, roles: ['worktop'], price: 230 },
  ),
  finish(
    'sheet.quartz-storm',
    'Quartz composite, storm',
    'Sheet',
    '#5b5f62',
    { kind: 'granite', grain: 0.003, flecks: ['#3a3d3f', '#8d9194', '#2a2c2e'], share: 0.6 },
    [0.6, 0.6],
    { roughness: 0.22, roles: ['worktop'], price: 230 },
  ),
  finish('sheet.solid-white', 'Solid surface, white', 'Sheet', '#f0eee8', { kind: 'flat' }, [1, 1], { roughness: 0.35, roles: ['worktop'], price: 260 }),
  finish(
    'sheet.solid-speck',
    'Solid surface, oat speck',
    'Sheet',
    '#d8cdb9',
    { kind: 'granite', grain: 0.0018, flecks: ['#a3947b', '#f0e8d9'], share: 0.25 },
    [0.4, 0.4],
    { roughness: 0.35, roles: ['worktop'], price: 260 },
  ),
  finish('sheet.laminate-white', 'Laminate, white', 'Sheet', '#efeeea', { kind: 'flat' }, [1, 1], { roughness: 0.5, roles: ['joinery', 'worktop'], price: 28 }),
  finish('sheet.laminate-ink', 'Laminate, ink', 'Sheet', '#2f3a46', { kind: 'flat' }, [1, 1], { roughness: 0.55, roles: ['joinery', 'worktop'], price: 28 }),
  finish('sheet.laminate-oak', 'Laminate, oak', 'Sheet', '#bd9b6f', { kind: 'timber', cut: 'plain', contrast: 0.3, figure: 0.6, pores: 0.3 }, [2.4, 0.8], {
    roughness: 0.5,
    roles: ['joinery', 'worktop', 'floor'],
    price: 32,
  }),
  finish('sheet.lacquer-cream', 'Lacquer, cream', 'Sheet', '#ece4d0', { kind: 'flat' }, [1, 1], { roughness: 0.08, roles: ['joinery'], price: 120 }),
  finish('sheet.lacquer-petrol', 'Lacquer, petrol', 'Sheet', '#274a52', { kind: 'flat' }, [1, 1], { roughness: 0.08, roles: ['joinery'], price: 120 }),
  finish('sheet.lacquer-red', 'Lacquer, sealing wax', 'Sheet', '#8f2a26', { kind: 'flat' }, [1, 1], {
    roughness: 0.08,
    roles: ['joinery', 'accent'],
    price: 120,
  }),
  finish('sheet.cork', 'Cork tile', 'Sheet', '#b58a5b', { kind: 'cork', grain: 0.008, contrast: 0.35 }, [0.6, 0.6], {
    roles: ['floor', 'wall'],
    laying: lay('stack', 0.3, 0.3, 0.0004, '#6d5136', { variation: 0.05, edge: 0.0008 }),
  }),
  finish('sheet.cork-dark', 'Smoked cork', 'Sheet', '#6b4d33', { kind: 'cork', grain: 0.01, contrast: 0.4 }, [0.6, 0.6], {
    roles: ['floor', 'wall'],
    laying: lay('running', 0.6, 0.3, 0.0004, '#3b2b1d', { offset: 0.5, variation: 0.06, edge: 0.0008 }),
  }),
  finish('sheet.lino-moss', 'Linoleum, moss', 'Sheet', '#7d8463', { kind: 'marbled', scale: 0.12, second: '#8f9675' }, [1.2, 1.2], {
    roles: ['floor'],
    price: 46,
  }),
  finish('sheet.lino-rust', 'Linoleum, rust', 'Sheet', '#9a5b3f', { kind: 'marbled', scale: 0.12, second: '#b1765a' }, [1.2, 1.2], {
    roles: ['floor'],
    price: 46,
  }),
  finish('sheet.lino-charcoal', 'Linoleum, charcoal', 'Sheet', '#4b4a48', { kind: 'marbled', scale: 0.12, second: '#62605d' }, [1.2, 1.2], {
    roles: ['floor'],
    price: 46,
  }),
  finish('sheet.vinyl-oak', 'Vinyl plank, oak', 'Sheet', '#b4936a', { kind: 'timber', cut: 'plain', contrast: 0.35, figure: 0.6, pores: 0.3 }, [3, 0.8], {
    roles: ['floor'],
    unit: 'box',
    coverage: 2.5,
    price: 84,
    laying: lay('plank', 1.2, 0.18, 0.0006, '#5d4933', { variation: 0.06, edge: 0.001, recess: 0.0004 }),
  }),
  finish('sheet.vinyl-check', 'Vinyl tile, two greys', 'Sheet', '#b7b6b1', { kind: 'marbled', scale: 0.1, second: '#a09f9a' }, [0.9, 0.9], {
    roles: ['floor'],
    price: 38,
    laying: lay('stack', 0.3, 0.3, 0.0005, '#807e79', { variation: 0.12, edge: 0.0006, recess: 0.0003 }),
  }),
  finish('sheet.rubber-stud', 'Studded rubber, black', 'Sheet', '#303131', { kind: 'studs', pitch: 0.033, stud: 0.024 }, [0.495, 0.495], {
    roles: ['floor'],
    roughness: 0.7,
    price: 58,
  }),
  finish('sheet.rubber-sage', 'Studded rubber, sage', 'Sheet', '#8b9a86', { kind: 'studs', pitch: 0.033, stud: 0.024 }, [0.495, 0.495], {
    roles: ['floor'],
    roughness: 0.7,
    price: 58,
  }),
  finish('sheet.leather-floor', 'Leather tile', 'Sheet', '#7b4d30', { kind: 'hide', cell: 0.005 }, [0.5, 0.5], {
    roles: ['floor', 'wall'],
    price: 220,
    laying: lay('stack', 0.45, 0.45, 0.0008, '#3b2417', { variation: 0.08 }),
  }),
];
