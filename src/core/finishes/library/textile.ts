import type { Body } from '../../project/schema';
import { finish, type Options } from './make';

const plain = (thread: number, slub = 0.3, second: string | null = null): Body => ({ kind: 'weave', thread, pattern: 'plain', second, slub });
const woven = (pattern: 'twill' | 'herringbone' | 'basket', thread: number, second: string | null, slub = 0.25): Body => ({
  kind: 'weave',
  thread,
  pattern,
  second,
  slub,
});
const pile = (form: 'loop' | 'cut' | 'rib', loop: number, contrast: number): Body => ({ kind: 'pile', loop, contrast, form });
const motif = (name: Extract<Body, { kind: 'motif' }>['motif'], pitch: number, second: string, third: string | null = null, thread = 0): Body => ({
  kind: 'motif',
  motif: name,
  pitch,
  // The ground is the colour of the finish, see `finish`.
  ground: '#ffffff',
  second,
  third,
  thread,
});

const cloth = (id: string, name: string, colour: string, body: Body, size: number, options: Options = {}) =>
  finish(`cloth.${id}`, name, 'Cloth', colour, body, [size, size], options);
const carpet = (id: string, name: string, colour: string, body: Body, size: number, options: Options = {}) =>
  finish(`carpet.${id}`, name, 'Carpet', colour, body, [size, size], options);

export const carpets = [
  carpet('wool-oat', 'Wool loop, oat', '#c8bba4', pile('loop', 0.006, 0.3), 0.384),
  carpet('wool-slate', 'Wool loop, slate', '#767b7d', pile('loop', 0.006, 0.3), 0.384),
  carpet('wool-moss', 'Wool loop, moss', '#7a7d5e', pile('loop', 0.006, 0.3), 0.384),
  carpet('wool-clay', 'Wool loop, clay', '#a57f68', pile('loop', 0.006, 0.3), 0.384),
  carpet('velvet-ink', 'Cut pile, ink', '#39455a', pile('cut', 0.004, 0.28), 0.6),
  carpet('velvet-sand', 'Cut pile, sand', '#cbb795', pile('cut', 0.004, 0.22), 0.6),
  carpet('velvet-wine', 'Cut pile, wine', '#6f2f3c', pile('cut', 0.004, 0.28), 0.6),
  carpet('shag', 'Long pile, cream', '#e0d7c3', pile('cut', 0.011, 0.4), 0.66),
  carpet('sisal', 'Sisal rib', '#b59d74', pile('rib', 0.007, 0.35), 0.392),
  carpet('sisal-grey', 'Sisal rib, stone', '#9c968a', pile('rib', 0.007, 0.35), 0.392),
  carpet('jute', 'Jute basket', '#b3946a', woven('basket', 0.008, null, 0.5), 0.512),
  carpet('seagrass', 'Seagrass', '#9c9568', woven('herringbone', 0.007, '#84805a', 0.4), 0.448),
  carpet('coir', 'Coir', '#8a6a45', pile('cut', 0.006, 0.5), 0.36),
  carpet(
    'stripe',
    'Flat-woven stripe',
    '#d6ccb6',
    { kind: 'stripe', width: 0.06, ground: '#ffffff', colours: ['#7c8a86', '#d6ccb6', '#b0674a'], thread: 0.004 },
    0.96,
  ),
  carpet('kelim', 'Flat-woven lozenge', '#a9553d', motif('trellis', 0.16, '#e2d3b4', '#2f4049', 0.004), 0.64),
  carpet('key', 'Flat-woven key', '#d9cdb2', motif('key', 0.14, '#4d5b57', null, 0.004), 0.56),
];

export const cloths = [
  cloth('oat-weave', 'Oat weave', '#cdc2ac', plain(0.0022, 0.5), 0.1408),
  cloth('damson-linen', 'Damson linen', '#843550', plain(0.0016), 0.1024),
  cloth('ink-linen', 'Ink linen', '#39434f', plain(0.0016), 0.1024),
  cloth('white-linen', 'White linen', '#ebe8e0', plain(0.0014), 0.0896),
  cloth('flax-linen', 'Flax linen', '#b5a487', plain(0.0018, 0.6), 0.1152),
  cloth('sage-linen', 'Sage linen', '#9aa48b', plain(0.0016, 0.4), 0.1024),
  cloth('sky-linen', 'Sky linen', '#a9bccb', plain(0.0016, 0.4), 0.1024),
  cloth('moss-herringbone', 'Moss herringbone', '#7c8062', woven('herringbone', 0.002, '#98987a'), 0.128),
  cloth('grey-herringbone', 'Grey herringbone', '#83868a', woven('herringbone', 0.0024, '#b2b4b5'), 0.1536),
  cloth('fold-twill', 'Lambfold twill', '#9a8a78', woven('twill', 0.002, '#b2a48f', 0.2), 0.128),
  cloth('navy-twill', 'Navy twill', '#2f3a50', woven('twill', 0.0018, null, 0.2), 0.1152),
  cloth('tweed-heath', 'Heath tweed', '#7d6a63', woven('twill', 0.003, '#a5927f', 0.7), 0.192),
  cloth('basket-cream', 'Basket weave, cream', '#e0d6c0', woven('basket', 0.0026, null, 0.4), 0.1664),
  cloth('basket-rust', 'Basket weave, rust', '#a65b39', woven('basket', 0.0026, null, 0.4), 0.1664),
  cloth('rust-velvet', 'Rust velvet', '#9a4b2c', { kind: 'nap', contrast: 0.18 }, 0.5, { roughness: 0.8, sheen: 0.9 }),
  cloth('forest-velvet', 'Forest velvet', '#2f4a3c', { kind: 'nap', contrast: 0.22 }, 0.5, { roughness: 0.8, sheen: 0.9 }),
  cloth('midnight-velvet', 'Midnight velvet', '#27304a', { kind: 'nap', contrast: 0.22 }, 0.5, { roughness: 0.8, sheen: 0.9 }),
  cloth('blush-velvet', 'Blush velvet', '#cf9f95', { kind: 'nap', contrast: 0.14 }, 0.5, { roughness: 0.8, sheen: 0.9 }),
  cloth('boucle-cream', 'Bouclé, cream', '#e5ddcd', { kind: 'boucle', loop: 0.007, contrast: 0.35 }, 0.35),
  cloth('boucle-grey', 'Bouclé, pebble', '#a3a09a', { kind: 'boucle', loop: 0.007, contrast: 0.4 }, 0.35),
  cloth('boucle-olive', 'Bouclé, olive', '#7b7a54', { kind: 'boucle', loop: 0.007, contrast: 0.4 }, 0.35),
  cloth('sheer', 'Sheer voile', '#f2f0ea', plain(0.0012, 0.2), 0.0768, { translucency: 0.55, opacity: 0.75, coverage: 2.9 }),
  cloth('sheer-oat', 'Sheer linen, oat', '#ddd0b8', plain(0.0018, 0.6), 0.1152, { translucency: 0.5, opacity: 0.8, coverage: 2.9 }),
  cloth('shade', 'Shade cloth', '#efe6d3', plain(0.0012, 0.3), 0.0768, { translucency: 0.45 }),
  cloth('print-sprig', 'Printed cotton, sprig', '#ece4d2', motif('sprig', 0.09, '#6f7f5c', '#b0674a', 0.0011), 0.36),
  cloth('print-flower', 'Printed cotton, flower', '#dfe3e0', motif('flower', 0.07, '#5b7391', '#d8a94c', 0.0011), 0.28),
  cloth('print-dot', 'Printed cotton, dot', '#efe9dc', motif('dot', 0.035, '#7a2e4d', null, 0.0011), 0.28),
  cloth('print-wave', 'Printed linen, wave', '#e5ddca', motif('wave', 0.12, '#4d6b72', null, 0.0016), 0.48),
  cloth(
    'stripe-ticking',
    'Ticking stripe',
    '#e7e0cf',
    { kind: 'stripe', width: 0.006, ground: '#ffffff', colours: ['#e7e0cf', '#4b5a6c'], thread: 0.0009 },
    0.18,
  ),
  cloth('stripe-deck', 'Deckchair stripe', '#e4d9c0', { kind: 'stripe', width: 0.04, ground: '#ffffff', colours: ['#7f9a8c'], thread: 0.0014 }, 0.32),
  cloth('check-kitchen', 'Kitchen check', '#ebe6da', motif('check', 0.02, '#8f3b34', null, 0.001), 0.16),
  cloth('tan-hide', 'Tan hide', '#a06a42', { kind: 'hide', cell: 0.004 }, 0.256, { roughness: 0.5, sheen: 0, price: 190 }),
  cloth('black-hide', 'Black hide', '#2b2725', { kind: 'hide', cell: 0.004 }, 0.256, { roughness: 0.42, sheen: 0, price: 190 }),
  cloth('oxblood-hide', 'Oxblood hide', '#6a2f2a', { kind: 'hide', cell: 0.0045 }, 0.27, { roughness: 0.4, sheen: 0, price: 200 }),
  cloth('suede-stone', 'Suede, stone', '#a99a86', { kind: 'nap', contrast: 0.1 }, 0.4, { roughness: 0.95, sheen: 0.4, price: 160 }),
];

const paper = (id: string, name: string, colour: string, body: Body, size: [number, number], options: Options = {}) =>
  finish(`wallpaper.${id}`, name, 'Wallpaper', colour, body, size, options);

/** Papers 0.53 m wide: the pattern repeats across the roll a whole number of times. */
export const wallpapers = [
  paper(
    'stripe-chalk',
    'Broad stripe, chalk and stone',
    '#e6e0d3',
    { kind: 'stripe', width: 0.06625, ground: '#ffffff', colours: ['#d3cab8'], thread: 0 },
    [0.53, 0.53],
  ),
  paper('stripe-blue', 'Fine stripe, blue', '#e9ebea', { kind: 'stripe', width: 0.0133, ground: '#ffffff', colours: ['#9db1c2'], thread: 0 }, [0.53, 0.53]),
  paper(
    'stripe-garden',
    'Awning stripe, garden',
    '#e6e6d8',
    { kind: 'stripe', width: 0.0883, ground: '#ffffff', colours: ['#7c8d6a'], thread: 0 },
    [0.53, 0.53],
  ),
  paper('sprig-sage', 'Sprig, sage', '#eae6d8', motif('sprig', 0.1325, '#7e8d6b', '#c08a5a'), [0.53, 0.53]),
  paper('sprig-blue', 'Sprig, china blue', '#e8e9e6', motif('sprig', 0.1325, '#5d7a9c', '#5d7a9c'), [0.53, 0.53]),
  paper('flower-rose', 'Flower, rose', '#efe2d8', motif('flower', 0.10606, '#b86f6b', '#d9b25e'), [0.53, 0.53]),
  paper('leaf-forest', 'Leaf, forest', '#31473c', motif('leaf', 0.0883, '#5d7a5c', '#31473c'), [0.53, 0.53]),
  paper('leaf-ochre', 'Leaf, ochre', '#e9ddc2', motif('leaf', 0.10606, '#c08f45', '#e9ddc2'), [0.53, 0.53]),
  paper('star-night', 'Star, night', '#27344d', motif('star', 0.1325, '#d6b25c', '#d6b25c'), [0.53, 0.53]),
  paper('trellis-stone', 'Trellis, stone', '#e3dccd', motif('trellis', 0.1325, '#a99c84', '#8d9b84'), [0.53, 0.53]),
  paper('trellis-teal', 'Trellis, teal', '#dfe4df', motif('trellis', 0.0883, '#3f7073', null), [0.53, 0.53]),
  paper('scallop-sand', 'Scallop, sand', '#e5d9c3', motif('scallop', 0.1325, '#c09f70', null), [0.53, 0.53]),
  paper('scallop-ink', 'Scallop, ink', '#2f3b4a', motif('scallop', 0.1325, '#b9a77c', null), [0.53, 0.53]),
  paper('key-terracotta', 'Key, terracotta', '#e6d5c3', motif('key', 0.0883, '#b2694b', null), [0.53, 0.53]),
  paper('wave-grey', 'Wave, grey', '#e2e1dc', motif('wave', 0.1325, '#b6b6b0', null), [0.53, 0.53]),
  paper('dot-mustard', 'Dot, mustard', '#ece5d3', motif('dot', 0.05889, '#c7973d', null), [0.53, 0.53]),
  paper('grasscloth-straw', 'Grasscloth, straw', '#cdb88f', { kind: 'grasscloth', thread: 0.0022, second: '#a58c5f' }, [0.91, 0.91], {
    price: 96,
    coverage: 5,
  }),
  paper('grasscloth-indigo', 'Grasscloth, indigo', '#3d4a63', { kind: 'grasscloth', thread: 0.0022, second: '#6a7893' }, [0.91, 0.91], {
    price: 96,
    coverage: 5,
  }),
  paper('grasscloth-mist', 'Grasscloth, mist', '#c9cac2', { kind: 'grasscloth', thread: 0.002, second: '#aeb0a7' }, [0.91, 0.91], { price: 96, coverage: 5 }),
  paper('lining', 'Lining paper', '#ebe7dc', { kind: 'mottle', cell: 0.02, contrast: 0.02, relief: 0.0001 }, [0.53, 0.53], { price: 16 }),
];
