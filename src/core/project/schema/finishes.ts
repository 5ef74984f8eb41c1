import { z } from 'zod';
import { Angle, Hash, Id, Name, Point2, Text } from './basics';

/** What a finish is meant for. It guides, it never forbids. */
export const ROLES = ['floor', 'wall', 'ceiling', 'joinery', 'worktop', 'metal', 'textile', 'accent'] as const;
export const Role = z.enum(ROLES);

export const CATEGORIES = [
  'Paint',
  'Plaster',
  'Wallpaper',
  'Timber',
  'Tile',
  'Brick',
  'Stone',
  'Sheet',
  'Carpet',
  'Cloth',
  'Metal',
  'Glass',
  'Outside',
] as const;
export const Category = z.enum(CATEGORIES);

export const Colour = z
  .string()
  .regex(/^#[0-9a-f]{6}$/)
  .describe('sRGB, six lower-case hexadecimal digits');

/** A length of a maker, metres. */
export const MakerLength = z.number().min(0.0001).max(20).describe('metres');
/** A measure without a unit: how much of a maker's trait there is. */
export const MakerShare = z.number().min(0).max(2);
/** A height of a maker's relief, metres. */
export const MakerRelief = z.number().min(0).max(0.2).describe('metres');
const Colours = z.array(Colour).min(1).max(12);

/** How the matter of a finish looks: which maker draws it, with its lengths in metres. */
export const Body = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('flat') }),
  z.object({ kind: z.literal('timber'), cut: z.enum(['plain', 'quarter', 'burr']), contrast: MakerShare, figure: MakerShare, pores: MakerShare }),
  z.object({ kind: z.literal('glaze'), pool: MakerShare, crackle: MakerShare }),
  z.object({ kind: z.literal('ceramic'), speckle: MakerShare, relief: MakerRelief }),
  z.object({ kind: z.literal('brick'), contrast: MakerShare, relief: MakerRelief }),
  z.object({ kind: z.literal('rock'), cell: MakerLength, contrast: MakerShare, relief: MakerRelief, layers: MakerShare }),
  z.object({ kind: z.literal('mottle'), cell: MakerLength, contrast: MakerShare, relief: MakerRelief }),
  z.object({ kind: z.literal('concrete'), board: z.number().min(0).max(5), contrast: MakerShare }),
  z.object({ kind: z.literal('terrazzo'), chip: MakerLength, chips: Colours }),
  z.object({ kind: z.literal('granite'), grain: MakerLength, flecks: Colours, share: MakerShare }),
  z.object({ kind: z.literal('veins'), scale: MakerLength, vein: Colour, strength: MakerShare }),
  z.object({ kind: z.literal('rubble'), stone: MakerLength, joint: MakerLength, joints: Colour, contrast: MakerShare }),
  z.object({ kind: z.literal('stipple'), cell: MakerLength, relief: MakerRelief }),
  z.object({ kind: z.literal('comb'), radius: MakerLength, relief: MakerRelief }),
  z.object({ kind: z.literal('pile'), loop: MakerLength, contrast: MakerShare, form: z.enum(['loop', 'cut', 'rib']) }),
  z.object({
    kind: z.literal('weave'),
    thread: MakerLength,
    pattern: z.enum(['plain', 'twill', 'herringbone', 'basket']),
    second: Colour.nullable(),
    slub: MakerShare,
  }),
  z.object({ kind: z.literal('boucle'), loop: MakerLength, contrast: MakerShare }),
  z.object({ kind: z.literal('nap'), contrast: MakerShare }),
  z.object({ kind: z.literal('hide'), cell: MakerLength }),
  z.object({
    kind: z.literal('motif'),
    motif: z.enum(['sprig', 'flower', 'dot', 'star', 'trellis', 'scallop', 'wave', 'check', 'key', 'leaf', 'star-tile', 'quarter']),
    pitch: MakerLength,
    ground: Colour,
    second: Colour,
    third: Colour.nullable(),
    thread: z.number().min(0).max(0.01).describe('of the cloth it is printed on, metres; 0: smooth paper'),
  }),
  z.object({ kind: z.literal('stripe'), width: MakerLength, ground: Colour, colours: Colours, thread: z.number().min(0).max(0.01) }),
  z.object({ kind: z.literal('grasscloth'), thread: MakerLength, second: Colour }),
  z.object({ kind: z.literal('brushed'), contrast: MakerShare }),
  z.object({ kind: z.literal('hammered'), cell: MakerLength, relief: MakerRelief }),
  z.object({ kind: z.literal('perforated'), pitch: MakerLength, hole: MakerLength }),
  z.object({ kind: z.literal('mesh'), pitch: MakerLength, wire: MakerLength }),
  z.object({ kind: z.literal('seam'), pitch: MakerLength, height: MakerRelief }),
  z.object({
    kind: z.literal('ribs'),
    pitch: MakerLength,
    gap: z.number().min(0).max(1),
    depth: MakerRelief,
    form: z.enum(['round', 'flute', 'slat']),
    grain: MakerShare,
    upright: z.boolean(),
  }),
  z.object({ kind: z.literal('boards'), height: MakerLength, form: z.enum(['lap', 'groove', 'log']), grain: MakerShare, contrast: MakerShare }),
  z.object({ kind: z.literal('cork'), grain: MakerLength, contrast: MakerShare }),
  z.object({ kind: z.literal('marbled'), scale: MakerLength, second: Colour }),
  z.object({ kind: z.literal('studs'), pitch: MakerLength, stud: MakerLength }),
  z.object({ kind: z.literal('blades'), contrast: MakerShare }),
  z.object({ kind: z.literal('pebbles'), stone: MakerLength, contrast: MakerShare }),
  z.object({ kind: z.literal('sand'), grain: MakerLength, contrast: MakerShare }),
  z.object({ kind: z.literal('water'), wave: MakerLength, contrast: MakerShare }),
  z.object({ kind: z.literal('thatch'), contrast: MakerShare }),
  z.object({ kind: z.literal('image'), image: Hash }).describe('a picture among the assets, over the size of the finish'),
]);

export const PATTERNS = [
  'stack',
  'running',
  'plank',
  'herringbone',
  'chevron',
  'basket',
  'pinwheel',
  'hexagon',
  'octagon',
  'hopscotch',
  'flemish',
  'english',
  'coursed',
  'panel',
  'own',
] as const;

/** How units (tiles, planks, bricks) are laid beside one another. */
export const Laying = z.object({
  pattern: z.enum(PATTERNS),
  width: z.number().min(0.005).max(5).describe('of a unit along its length, metres; of hexagons and octagons across their flats'),
  height: z.number().min(0.005).max(5).describe('of a unit across its length, metres'),
  joint: z.number().min(0).max(0.05).describe('metres'),
  joints: Colour,
  offset: z.number().min(0).max(1).describe('of each row against the one below, as a share of the unit'),
  angle: z.number().min(0.2).max(1.4).describe('of the blocks of a chevron against its rows, radians'),
  small: z.number().min(0.005).max(2).describe('side of the small square of hopscotch, octagon and pinwheel, metres'),
  variation: z.number().min(0).max(1).describe('how much units differ in tone'),
  edge: z.number().min(0).max(0.05).describe('width of the rounded edge of a unit, metres'),
  recess: z.number().min(0).max(0.03).describe('depth of the joint, metres'),
  lap: z.number().min(0).max(0.05).describe('how far a unit’s lower edge stands out over the course below, metres'),
  cell: z
    .object({
      width: MakerLength,
      height: MakerLength,
      units: z
        .array(z.object({ x: z.number().min(0).max(20), y: z.number().min(0).max(20), width: MakerLength, height: MakerLength }))
        .min(1)
        .max(60),
    })
    .nullable()
    .describe('of a pattern of one’s own: what repeats, and the units in it, joints included'),
});

/** In which unit a finish is bought. */
export const Unit = z.enum(['m2', 'litre', 'roll', 'box', 'piece', 'metre']);

/** A material with a real size and appearance: one definition drives view, picture, sample, drawing and schedule. */
export const Finish = z.object({
  id: Id,
  name: Name,
  category: Category,
  roles: z.array(Role).max(8),
  colour: Colour.describe('mean colour of the matter, without joints'),
  body: Body,
  laying: Laying.nullable().describe('null: one sheet without units'),
  size: z.object({ width: z.number().min(0.002).max(20), height: z.number().min(0.002).max(20) }).describe('of what repeats, metres; units are cut from it'),
  roughness: z.number().min(0).max(1).describe('perceptual, as in glTF'),
  sheen: z.number().min(0).max(1).describe('of cloth: light caught by fibres at a grazing angle'),
  metalness: z.number().min(0).max(1),
  transmission: z.number().min(0).max(1).describe('share of light that passes through: glass'),
  translucency: z.number().min(0).max(1).describe('share that passes through scattered: thin cloth, shades, leaves'),
  opacity: z.number().min(0.02).max(1).describe('share of the surface that is there: loose weaves, mesh'),
  ior: z.number().min(1).max(3),
  relief: z.number().min(0).max(4).describe('factor on the heights of its maker'),
  figure: z.number().int().min(0).max(9999).default(1).describe('which of the many figures of its maker: veins and grain lie elsewhere, their character stays'),
  solid: z.boolean().default(false).describe('solid glass, through which light is bent; otherwise a pane'),
  glows: z.boolean().default(false).describe('lit from within when its luminaire is on'),
  bare: z.boolean().default(false).describe('what a surface is before anything has been chosen'),
  reflectance: z.number().min(0).max(100).nullable().describe('measured light reflectance value; null: computed from its own pixels'),
  supplier: Text(120),
  code: Text(60),
  unit: Unit,
  price: z.number().min(0).max(1e6).describe('of one unit, in the money of the project'),
  coverage: z.number().min(0.001).max(1000).describe('m² one unit covers: one litre in one coat, one roll, one box, one piece'),
  waste: z.number().min(0).max(1).describe('allowance where no layout is counted, as a share'),
});

export const STARTS = ['even', 'edge', 'middle', 'unit', 'carried', 'point'] as const;

/** How a finish is laid on one face, where it differs from how it comes. */
export const FaceLaying = z.object({
  laying: Laying.nullable().describe('null: as the finish comes'),
  start: z
    .enum(STARTS)
    .describe(
      'even: no sliver; edge: whole units from the left and below; middle: a joint in the middle; unit: a unit in the middle; carried: on from the face at its left; point: at `origin`',
    ),
  origin: Point2.describe('metres from the left lower corner of the face, for `point`'),
  rotation: Angle,
  scale: z.number().min(0.05).max(20).describe('1: real size; anything else is no longer the product’s'),
});

export type Role = z.infer<typeof Role>;
export type Category = z.infer<typeof Category>;
export type Body = z.infer<typeof Body>;
export type Laying = z.infer<typeof Laying>;
export type Pattern = Laying['pattern'];
export type Finish = z.output<typeof Finish>;
export type FaceLaying = z.infer<typeof FaceLaying>;
export type FinishUnit = z.infer<typeof Unit>;
