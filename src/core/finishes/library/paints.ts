import { finish } from './make';

/** Three ranges of one maker: matt for walls, eggshell for woodwork, a mineral wash. Names and codes are invented. */
const MATT: [string, string, string][] = [
  ['sluice-white', 'Sluice white', '#e7dfcf'],
  ['chalk-ledge', 'Chalk ledge', '#f4f2ec'],
  ['gannet', 'Gannet', '#eceae4'],
  ['mist-gate', 'Mist gate', '#dfe2df'],
  ['oat-sack', 'Oat sack', '#ddd1b9'],
  ['whey', 'Whey', '#efe6cf'],
  ['curd', 'Curd', '#f3e9c9'],
  ['straw-bale', 'Straw bale', '#d9c48c'],
  ['gorse', 'Gorse', '#d8ae4c'],
  ['ochre-pit', 'Ochre pit', '#b98a3f'],
  ['lamp-oil', 'Lamp oil', '#c98f45'],
  ['apricot-wall', 'Apricot wall', '#e0b08a'],
  ['towpath-clay', 'Towpath clay', '#bd9377'],
  ['flowerpot', 'Flowerpot', '#b06a4a'],
  ['madder-lake', 'Madder lake', '#8c3f3d'],
  ['brick-dust', 'Brick dust', '#a4604c'],
  ['shell-inside', 'Shell inside', '#e6cabb'],
  ['thrift', 'Thrift', '#d3a3a0'],
  ['sloe', 'Sloe', '#5a3b4a'],
  ['mulberry-stain', 'Mulberry stain', '#7b4456'],
  ['dusk-heather', 'Dusk heather', '#a391a0'],
  ['wood-pigeon', 'Wood pigeon', '#8d8c9a'],
  ['heron-grey', 'Heron grey', '#9ba3a6'],
  ['rain-barrel', 'Rain barrel', '#6f7c82'],
  ['millpond', 'Millpond', '#4f6b7a'],
  ['ferry-blue', 'Ferry blue', '#3d5f86'],
  ['cornflower-row', 'Cornflower row', '#6f8fb5'],
  ['first-frost', 'First frost', '#c5d3da'],
  ['duck-egg', 'Duck egg', '#bcd0c9'],
  ['weir-foam', 'Weir foam', '#d5e0d8'],
  ['reed', 'Reed', '#a9ae8f'],
  ['sorrel-leaf', 'Sorrel leaf', '#7f8d5c'],
  ['hazel-copse', 'Hazel copse', '#64714d'],
  ['moss-stone', 'Moss stone', '#4d583c'],
  ['verdigris-roof', 'Verdigris roof', '#5e9083'],
  ['barge-green', 'Barge green', '#27483e'],
  ['peat', 'Peat', '#4a3c32'],
  ['walnut-husk', 'Walnut husk', '#6d563f'],
  ['putty-knife', 'Putty knife', '#b9ad98'],
  ['wet-slate', 'Wet slate', '#4b5154'],
];

const EGGSHELL: [string, string, string, number?][] = [
  ['skein', 'Skein', '#f0ede5', 0.45],
  ['lockgate-green', 'Lock-gate green', '#3f4f49', 0.42],
  ['soot', 'Soot', '#2e2f30', 0.4],
  ['candle-end', 'Candle end', '#ece2c8', 0.45],
  ['tin-roof', 'Tin roof', '#8a9296', 0.42],
  ['ink-bottle', 'Ink bottle', '#26364a', 0.4],
  ['ox-blood', 'Ox blood', '#6a2e2a', 0.4],
  ['pollard', 'Pollard', '#8b8f72', 0.45],
  ['bindweed', 'Bindweed', '#f6f4ee', 0.45],
  ['tarred-rope', 'Tarred rope', '#3c342b', 0.42],
];

const WASH: [string, string, string][] = [
  ['wash-linen', 'Mineral wash, linen', '#e4dac6'],
  ['wash-rose', 'Mineral wash, rose', '#cfa593'],
  ['wash-sage', 'Mineral wash, sage', '#a8af97'],
  ['wash-slate', 'Mineral wash, slate', '#7d878b'],
  ['wash-ochre', 'Mineral wash, ochre', '#cfa864'],
];

export const paints = [
  ...MATT.map(([id, name, colour]) => finish(`paint.${id}`, name, 'Paint', colour)),
  ...EGGSHELL.map(([id, name, colour, roughness]) => finish(`paint.${id}`, name, 'Paint', colour, { kind: 'flat' }, [1, 1], { roughness, price: 41 })),
  ...WASH.map(([id, name, colour]) =>
    finish(`paint.${id}`, name, 'Paint', colour, { kind: 'mottle', cell: 0.28, contrast: 0.07, relief: 0.0002 }, [2, 2], {
      roughness: 0.92,
      price: 52,
      coverage: 9,
      roles: ['wall', 'ceiling'],
    }),
  ),
];
