import type { Body, Laying } from '../../project/schema';
import { finish, lay, type Options } from './make';

const glaze = (pool = 1, crackle = 0): Body => ({ kind: 'glaze', pool, crackle });
const matt = (speckle = 0.4, relief = 0.0002): Body => ({ kind: 'ceramic', speckle, relief });
const shiny: Options = { roughness: 0.12 };
const running = (w: number, h: number, joints: string, variation: number, offset = 0.5): Laying =>
  lay('running', w, h, 0.0025, joints, { offset, variation, edge: 0.003 });
const stack = (w: number, h: number, joint: number, joints: string, variation = 0.04): Laying => lay('stack', w, h, joint, joints, { variation });
const grout = '#b9b6ae';

/** Ware: not for faces of the house. */
const ware: Options = { roughness: 0.1, roles: ['accent'] };

export const tiles = [
  finish('tile.glazed-green', 'Glazed brick, weir', 'Tile', '#5d8177', glaze(1.2), [0.6, 0.6], { ...shiny, laying: running(0.15, 0.075, '#d9d4c8', 0.12) }),
  finish('tile.glazed-white', 'Glazed brick, milk', 'Tile', '#e6e3da', glaze(0.5), [0.6, 0.6], { ...shiny, laying: running(0.15, 0.075, '#bdb8ac', 0.03) }),
  finish('tile.glazed-ink', 'Glazed brick, ink', 'Tile', '#2c3b4d', glaze(1.2), [0.6, 0.6], { ...shiny, laying: running(0.15, 0.075, '#8f8d88', 0.12) }),
  finish('tile.glazed-honey', 'Glazed brick, honey', 'Tile', '#c08c3e', glaze(1.4), [0.6, 0.6], { ...shiny, laying: running(0.15, 0.075, '#d9d0bd', 0.12) }),
  finish('tile.glazed-oxblood', 'Glazed brick, oxblood', 'Tile', '#6d2f2b', glaze(1.4), [0.6, 0.6], {
    ...shiny,
    laying: running(0.15, 0.075, '#b3a79b', 0.14),
  }),
  finish('tile.metro-white', 'Long glazed, chalk', 'Tile', '#edebe5', glaze(0.3), [0.6, 0.6], { ...shiny, laying: running(0.3, 0.1, grout, 0.02) }),
  finish('tile.metro-sage', 'Long glazed, sage', 'Tile', '#9aa88f', glaze(0.9), [0.6, 0.6], { ...shiny, laying: running(0.3, 0.1, '#d8d6cd', 0.07, 1 / 3) }),
  finish('tile.stacked-sand', 'Stacked glaze, sand', 'Tile', '#d9c7a8', glaze(1), [0.6, 0.6], { ...shiny, laying: stack(0.2, 0.065, 0.002, '#cfc6b4', 0.07) }),
  finish('tile.stacked-teal', 'Stacked glaze, teal', 'Tile', '#3c6f73', glaze(1.2), [0.6, 0.6], { ...shiny, laying: stack(0.2, 0.065, 0.002, '#c9cbc6', 0.1) }),
  finish('tile.crackle-celadon', 'Crackle square, celadon', 'Tile', '#b3c8b7', glaze(0.8, 1), [0.5, 0.5], {
    ...shiny,
    laying: stack(0.13, 0.13, 0.002, '#d2d2c8', 0.06),
  }),
  finish('tile.crackle-bone', 'Crackle square, bone', 'Tile', '#e3dcc9', glaze(0.6, 1), [0.5, 0.5], {
    ...shiny,
    laying: stack(0.13, 0.13, 0.002, '#c9c2b2', 0.05),
  }),
  finish('tile.square-white', 'Square tile, chalk', 'Tile', '#ecebe6', glaze(0.2), [0.6, 0.6], {
    roughness: 0.15,
    laying: stack(0.15, 0.15, 0.0025, grout, 0.02),
  }),
  finish('tile.square-ink', 'Square tile, ink', 'Tile', '#3c4a55', glaze(1), [0.6, 0.6], { roughness: 0.15, laying: stack(0.1, 0.1, 0.0025, '#8f908d', 0.1) }),
  finish('tile.square-rose', 'Square tile, rose', 'Tile', '#d6aea0', glaze(0.8), [0.6, 0.6], {
    roughness: 0.15,
    laying: stack(0.1, 0.1, 0.0025, '#e2dcd4', 0.08),
  }),
  finish('tile.diagonal-cream', 'Square tile, cream', 'Tile', '#e8dfc6', glaze(0.4), [0.6, 0.6], {
    roughness: 0.2,
    laying: stack(0.1, 0.1, 0.0025, '#c9c0ab', 0.04),
  }),
  finish('tile.herring-white', 'Narrow glazed, chalk', 'Tile', '#ecebe5', glaze(0.4), [0.6, 0.6], {
    ...shiny,
    laying: lay('herringbone', 0.2, 0.05, 0.002, grout, { variation: 0.03 }),
  }),
  finish('tile.herring-forest', 'Narrow glazed, forest', 'Tile', '#2f4f40', glaze(1.3), [0.6, 0.6], {
    ...shiny,
    laying: lay('herringbone', 0.2, 0.05, 0.002, '#9fa49a', { variation: 0.14 }),
  }),
  finish('tile.mosaic-white', 'Mosaic, chalk', 'Tile', '#e9e8e2', glaze(0.3), [0.5, 0.5], { ...shiny, laying: stack(0.023, 0.023, 0.002, grout, 0.04) }),
  finish('tile.mosaic-sea', 'Mosaic, sea', 'Tile', '#6fa3a3', glaze(1), [0.5, 0.5], { ...shiny, laying: stack(0.023, 0.023, 0.002, '#dfe2de', 0.22) }),
  finish('tile.mosaic-gold', 'Mosaic, brass', 'Tile', '#a9884a', glaze(1), [0.5, 0.5], {
    roughness: 0.18,
    metalness: 0.7,
    laying: stack(0.02, 0.02, 0.0015, '#4b463c', 0.2),
  }),
  finish('tile.penny-black', 'Small hexagon, soot', 'Tile', '#2b2b2c', matt(0.2), [0.5, 0.5], {
    laying: lay('hexagon', 0.025, 0.025, 0.002, '#9b9891', { variation: 0.06 }),
  }),
  finish('tile.penny-white', 'Small hexagon, milk', 'Tile', '#e9e7df', matt(0.1), [0.5, 0.5], {
    laying: lay('hexagon', 0.025, 0.025, 0.002, '#8d8a83', { variation: 0.03 }),
  }),
  finish('tile.hex-clay', 'Hexagon, burnt clay', 'Tile', '#a9694a', matt(0.9, 0.0005), [0.8, 0.8], {
    roughness: 0.6,
    roles: ['floor'],
    laying: lay('hexagon', 0.2, 0.2, 0.004, '#8d8377', { variation: 0.16, edge: 0.003 }),
  }),
  finish('tile.hex-bone', 'Hexagon, bone', 'Tile', '#d8d2c4', matt(0.4), [0.8, 0.8], {
    roughness: 0.45,
    roles: ['floor'],
    laying: lay('hexagon', 0.15, 0.15, 0.003, '#9d978c', { variation: 0.06 }),
  }),
  finish('tile.hex-slate', 'Hexagon, slate blue', 'Tile', '#5f6f7d', matt(0.5), [0.8, 0.8], {
    roughness: 0.5,
    roles: ['floor', 'wall'],
    laying: lay('hexagon', 0.173, 0.173, 0.003, '#b1b1ac', { variation: 0.08 }),
  }),
  finish('tile.octagon', 'Octagon with key square', 'Tile', '#dcd8ce', matt(0.2), [0.6, 0.6], {
    roughness: 0.4,
    roles: ['floor'],
    laying: lay('octagon', 0.15, 0.15, 0.002, '#77736c', { small: 0.045, variation: 0.05 }),
  }),
  finish('tile.hopscotch-clay', 'Two-size clay', 'Tile', '#b57e5c', matt(0.9, 0.0005), [0.8, 0.8], {
    roughness: 0.6,
    roles: ['floor'],
    laying: lay('hopscotch', 0.2, 0.2, 0.004, '#9b8b7b', { small: 0.1, variation: 0.14 }),
  }),
  finish('tile.quarry-red', 'Quarry tile, red', 'Tile', '#8e4b38', matt(0.7, 0.0004), [0.8, 0.8], {
    roughness: 0.6,
    roles: ['floor'],
    laying: stack(0.15, 0.15, 0.005, '#857a70', 0.12),
  }),
  finish('tile.quarry-black', 'Quarry tile, black', 'Tile', '#33302f', matt(0.6, 0.0004), [0.8, 0.8], {
    roughness: 0.55,
    roles: ['floor'],
    laying: stack(0.15, 0.15, 0.005, '#77716a', 0.12),
  }),
  finish('tile.terracotta', 'Hand-made terracotta', 'Tile', '#bf7c56', matt(1.2, 0.001), [0.9, 0.9], {
    roughness: 0.7,
    roles: ['floor'],
    laying: lay('stack', 0.28, 0.28, 0.008, '#a5927e', { variation: 0.16, edge: 0.006, recess: 0.003 }),
  }),
  finish('tile.clay-basket', 'Clay pavers, basket', 'Tile', '#a8694d', matt(1, 0.0006), [0.8, 0.8], {
    roughness: 0.75,
    roles: ['floor'],
    laying: lay('basket', 0.2, 0.098, 0.004, '#8f8273', { variation: 0.16, edge: 0.003 }),
  }),
  finish('tile.porcelain-sand', 'Porcelain slab, sand', 'Tile', '#cabfae', matt(0.3), [1.2, 1.2], {
    roughness: 0.45,
    roles: ['floor', 'wall'],
    laying: stack(0.6, 0.6, 0.003, '#a79e90', 0.03),
  }),
  finish('tile.porcelain-grey', 'Porcelain slab, rain', 'Tile', '#9b9d9c', matt(0.35), [1.2, 1.2], {
    roughness: 0.5,
    roles: ['floor', 'wall'],
    laying: stack(0.6, 0.6, 0.003, '#7f817f', 0.04),
  }),
  finish('tile.porcelain-char', 'Porcelain slab, char', 'Tile', '#45474a', matt(0.4), [1.2, 1.2], {
    roughness: 0.5,
    roles: ['floor', 'wall'],
    laying: lay('running', 1.2, 0.6, 0.003, '#3b3c3e', { offset: 1 / 3, variation: 0.05 }),
  }),
  finish('tile.porcelain-oak', 'Porcelain plank, oak', 'Tile', '#b2926b', { kind: 'timber', cut: 'plain', contrast: 0.35, figure: 0.7, pores: 0.4 }, [3, 0.8], {
    roughness: 0.45,
    roles: ['floor'],
    laying: lay('running', 1.2, 0.2, 0.002, '#8e7759', { offset: 1 / 3, variation: 0.06 }),
  }),
  finish(
    'tile.cement-star',
    'Cement tile, eight star',
    'Tile',
    '#d9d3c6',
    { kind: 'motif', motif: 'star-tile', pitch: 0.2, ground: '#ffffff', second: '#5f7a83', third: '#b0674a', thread: 0 },
    [0.2, 0.2],
    {
      roughness: 0.6,
      roles: ['floor', 'wall'],
      laying: stack(0.2, 0.2, 0.002, '#b8b2a6', 0.03),
    },
  ),
  finish(
    'tile.cement-quarter',
    'Cement tile, quarter rounds',
    'Tile',
    '#d7d2c7',
    { kind: 'motif', motif: 'quarter', pitch: 0.2, ground: '#ffffff', second: '#3f4e57', third: null, thread: 0 },
    [0.2, 0.4],
    {
      roughness: 0.6,
      roles: ['floor', 'wall'],
      laying: stack(0.2, 0.2, 0.002, '#b8b2a6', 0.03),
    },
  ),
  finish(
    'tile.cement-leaf',
    'Cement tile, leaf',
    'Tile',
    '#cfd1c2',
    { kind: 'motif', motif: 'leaf', pitch: 0.1, ground: '#ffffff', second: '#5d7057', third: '#d8d9cb', thread: 0 },
    [0.2, 0.2],
    {
      roughness: 0.6,
      roles: ['floor', 'wall'],
      laying: stack(0.2, 0.2, 0.002, '#b8b8aa', 0.03),
    },
  ),
  finish(
    'tile.fish-scale',
    'Scallop glaze, lagoon',
    'Tile',
    '#4f8d93',
    { kind: 'motif', motif: 'scallop', pitch: 0.13, ground: '#ffffff', second: '#2f6168', third: null, thread: 0 },
    [0.52, 0.52],
    shiny,
  ),
];

const brick = (contrast = 1, relief = 0.0022): Body => ({ kind: 'brick', contrast, relief });
const bond = (pattern: Laying['pattern'], joints: string, variation: number, more: Partial<Laying> = {}): Laying =>
  lay(pattern, 0.215, 0.065, 0.01, joints, { offset: 0.5, variation, edge: 0.004, recess: 0.003, ...more });

export const bricks = [
  finish('brick.red-stock', 'Red stock brick', 'Brick', '#96573f', brick(), [0.9, 0.7], { laying: bond('running', '#b4aa9a', 0.22) }),
  finish('brick.limewashed', 'Limewashed brick', 'Brick', '#dcd6ca', brick(0.4), [0.9, 0.7], { laying: bond('running', '#d2ccc0', 0.06) }),
  finish('brick.yellow-stock', 'Yellow stock brick', 'Brick', '#b99a66', brick(1.1), [0.9, 0.7], { laying: bond('flemish', '#b9b2a4', 0.2) }),
  finish('brick.red-flemish', 'Red brick, header and stretcher', 'Brick', '#8f4f3b', brick(), [0.9, 0.7], { laying: bond('flemish', '#b8ad9d', 0.24) }),
  finish('brick.red-english', 'Red brick, alternate courses', 'Brick', '#8a4c38', brick(), [0.9, 0.7], { laying: bond('english', '#b0a696', 0.22) }),
  finish('brick.grey-long', 'Long grey brick', 'Brick', '#83807a', brick(0.7), [0.9, 0.7], {
    laying: lay('running', 0.49, 0.04, 0.008, '#77746e', { offset: 0.37, variation: 0.14, edge: 0.003, recess: 0.006 }),
  }),
  finish('brick.buff', 'Buff brick', 'Brick', '#c7a985', brick(0.8), [0.9, 0.7], { laying: bond('running', '#cfc6b6', 0.12) }),
  finish('brick.engineering', 'Blue engineering brick', 'Brick', '#4a4d55', brick(0.4, 0.0006), [0.9, 0.7], {
    roughness: 0.55,
    laying: bond('running', '#8d8b86', 0.1),
  }),
  finish('brick.white-painted', 'Painted brick, white', 'Brick', '#ebe8e0', brick(0.15), [0.9, 0.7], {
    roughness: 0.7,
    laying: bond('running', '#e6e3db', 0.02, { recess: 0.002 }),
  }),
  finish('brick.clay-slip', 'Clay slips, stacked', 'Brick', '#ab6c50', brick(), [0.9, 0.7], { laying: bond('stack', '#c5b9a8', 0.16) }),
  finish('brick.herringbone', 'Brick herringbone', 'Brick', '#9a5c45', brick(), [0.9, 0.7], {
    roles: ['floor'],
    laying: bond('herringbone', '#a39683', 0.2, { joint: 0.006 }),
  }),

  // What is thrown or cast and glazed as a whole: it has no joints.
  finish('ceramic.milk', 'Glaze, milk', 'Tile', '#e6e3da', glaze(0.4), [0.6, 0.6], ware),
  finish('ceramic.ink', 'Glaze, ink', 'Tile', '#2c3b4d', glaze(1), [0.6, 0.6], ware),
  finish('ceramic.honey', 'Glaze, honey', 'Tile', '#c08c3e', glaze(1.2), [0.6, 0.6], ware),
  finish('ceramic.celadon', 'Crackle glaze, celadon', 'Tile', '#b3c8b7', glaze(0.8, 1), [0.5, 0.5], ware),
];
