import type { Body } from '../../project/schema';
import { finish, type Options } from './make';

const metal = (id: string, name: string, colour: string, body: Body, size: number, options: Options = {}) =>
  finish(`metal.${id}`, name, 'Metal', colour, body, [size, size], options);
const brushed: Body = { kind: 'brushed', contrast: 0.07 };
const hammered: Body = { kind: 'hammered', cell: 0.018, relief: 0.0012 };
const flat: Body = { kind: 'flat' };

export const metals = [
  metal('brass-brushed', 'Brass, brushed', '#c8a256', brushed, 0.3, { roughness: 0.32 }),
  metal('brass-polished', 'Brass, polished', '#d0aa58', flat, 1, { roughness: 0.08 }),
  metal('brass-aged', 'Brass, aged', '#8f7444', { kind: 'mottle', cell: 0.05, contrast: 0.16, relief: 0 }, 0.5, { roughness: 0.42 }),
  metal('brass-hammered', 'Brass, hammered', '#c49c50', hammered, 0.36, { roughness: 0.22 }),
  metal('steel-brushed', 'Steel, brushed', '#b9babb', brushed, 0.3, { roughness: 0.34, roles: ['metal', 'worktop'] }),
  metal('steel-polished', 'Steel, polished', '#c4c6c7', flat, 1, { roughness: 0.07 }),
  metal('steel-perforated', 'Perforated steel', '#b2b4b5', { kind: 'perforated', pitch: 0.012, hole: 0.007 }, 0.24, { roughness: 0.35 }),
  metal('steel-mesh', 'Woven wire, steel', '#a9abac', { kind: 'mesh', pitch: 0.008, wire: 0.002 }, 0.192, { roughness: 0.35 }),
  metal('brass-mesh', 'Woven wire, brass', '#b8954f', { kind: 'mesh', pitch: 0.008, wire: 0.002 }, 0.192, { roughness: 0.3 }),
  metal('copper', 'Copper', '#c6805c', flat, 1, { roughness: 0.22 }),
  metal('copper-hammered', 'Copper, hammered', '#c07a56', hammered, 0.36, { roughness: 0.2 }),
  metal('copper-patina', 'Copper, weathered', '#6f9a86', { kind: 'mottle', cell: 0.18, contrast: 0.16, relief: 0.0002 }, 1.4, {
    roughness: 0.7,
    metalness: 0.2,
    roles: ['metal', 'accent'],
  }),
  metal('chrome', 'Chrome', '#c9cbcc', flat, 1, { roughness: 0.06 }),
  metal('nickel', 'Nickel, satin', '#b6b0a5', brushed, 0.3, { roughness: 0.3 }),
  metal('bronze', 'Bronze, rubbed', '#5e4a37', { kind: 'mottle', cell: 0.06, contrast: 0.14, relief: 0.00005 }, 0.6, { roughness: 0.4 }),
  metal('pewter', 'Pewter', '#8c8d8d', { kind: 'mottle', cell: 0.05, contrast: 0.07, relief: 0 }, 0.5, { roughness: 0.38 }),
  metal('zinc', 'Zinc, pre-weathered', '#7f8486', { kind: 'mottle', cell: 0.2, contrast: 0.06, relief: 0 }, 1.6, {
    roughness: 0.5,
    roles: ['metal', 'worktop'],
  }),
  metal('iron-black', 'Blacked iron', '#2b2b2c', { kind: 'mottle', cell: 0.03, contrast: 0.1, relief: 0.0001 }, 0.5, {
    roughness: 0.5,
    metalness: 0.4,
    roles: ['metal', 'joinery'],
  }),
  metal('iron-rust', 'Weathering steel', '#7c4a30', { kind: 'mottle', cell: 0.12, contrast: 0.22, relief: 0.0002 }, 1.4, { roughness: 0.85, metalness: 0.15 }),
  metal('enamel-green', 'Enamel, lock-gate', '#34463f', flat, 1, { roughness: 0.16, metalness: 0, roles: ['accent', 'metal'] }),
  metal('enamel-white', 'Enamel, white', '#eceae4', flat, 1, { roughness: 0.16, metalness: 0, roles: ['accent', 'metal'] }),
  metal('powder-black', 'Powder coat, black', '#2a2a2b', flat, 1, { roughness: 0.55, metalness: 0 }),
];

const glass = (id: string, name: string, colour: string, options: Options = {}, body: Body = flat, size = 1) =>
  finish(id, name, 'Glass', colour, body, [size, size], { transmission: 1, ...options });

export const glasses = [
  glass('glass.clear', 'Clear glass', '#f4f8f6'),
  glass('glass.low-iron', 'Low-iron glass', '#fafcfb'),
  glass('glass.smoke', 'Smoked glass', '#6a6866'),
  glass('glass.weir', 'Weir-green glass', '#a9cbbd'),
  glass('glass.amber', 'Amber glass', '#d8a95c'),
  glass('glass.rose', 'Rose glass', '#dcb3ad'),
  glass('glass.blue', 'Harbour-blue glass', '#8fb2cc'),
  glass('glass.frosted', 'Frosted glass', '#eef3f1', { transmission: 0.8, roughness: 0.5, translucency: 0.7 }),
  glass('glass.frosted-green', 'Frosted glass, green', '#c5d9cf', { transmission: 0.75, roughness: 0.5, translucency: 0.65 }),
  glass(
    'glass.reeded',
    'Reeded glass',
    '#eaf1ee',
    { transmission: 0.85, roughness: 0.12, translucency: 0.5 },
    { kind: 'ribs', pitch: 0.013, gap: 0, depth: 0.0025, form: 'round', grain: 0, upright: true },
    0.52,
  ),
  glass('glass.cast', 'Cast glass', '#e8f3ee', { solid: true }),
  glass('mirror.silver', 'Mirror', '#e9ebea', { transmission: 0, metalness: 1, roughness: 0.01, roles: ['accent', 'wall'] }),
  glass(
    'mirror.antique',
    'Antiqued mirror',
    '#b7b3a8',
    { transmission: 0, metalness: 1, roughness: 0.06, roles: ['accent', 'wall'] },
    { kind: 'mottle', cell: 0.12, contrast: 0.2, relief: 0 },
    1.2,
  ),
  glass('glass.lacquered-white', 'Back-painted glass, white', '#eef1ee', { transmission: 0, roughness: 0.03, roles: ['wall', 'accent'] }),
  glass('glass.lacquered-teal', 'Back-painted glass, teal', '#2d5f63', { transmission: 0, roughness: 0.03, roles: ['wall', 'accent'] }),
  glass('light.opal', 'Lit opal', '#fff6e6', { transmission: 0, glows: true, bare: true, roughness: 0.4, roles: [] }),
];
