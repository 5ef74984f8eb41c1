import { converter } from 'culori';
import { meanHex, type Finish } from './finish';

const toOklch = converter('oklch');

/** What people call a colour: by its lightness, its strength and its hue, all words that fit. */
export function colourWords(hex: string): string[] {
  const { l, c, h } = toOklch(hex)!;
  const words: string[] = [];
  if (l > 0.88 && c < 0.035) words.push('white');
  if (l > 0.8 && c < 0.06) words.push('pale', 'light');
  if (l < 0.32) words.push('black', 'dark');
  else if (l < 0.45) words.push('dark');
  if (c < 0.025 && l < 0.9 && l > 0.25) words.push('grey', 'gray');
  if (c < 0.018 || h === undefined) return words;
  const between = (a: number, b: number): boolean => h >= a && h < b;
  if (between(0, 40) || h >= 345) words.push(l > 0.7 ? 'pink' : 'red', ...(l > 0.7 ? ['rose'] : []));
  if (between(15, 40) && l < 0.5) words.push('burgundy', 'maroon');
  if (between(40, 75)) words.push(...(l > 0.72 ? ['peach', 'beige'] : l > 0.5 && c > 0.09 ? ['orange', 'terracotta'] : ['brown']));
  if (between(75, 105)) words.push(...(c > 0.1 ? ['yellow', 'gold'] : l > 0.75 ? ['cream', 'beige', 'sand'] : ['brown', 'taupe']));
  if (between(105, 165)) words.push('green', ...(c < 0.07 ? ['sage', 'olive'] : []));
  if (between(165, 215)) words.push('teal', 'turquoise', 'green', 'blue');
  if (between(215, 285)) words.push('blue', ...(l < 0.4 ? ['navy'] : []));
  if (between(285, 345)) words.push('purple', 'violet', ...(l > 0.7 ? ['lilac'] : []));
  return words;
}

/** Everyday words for finishes, beside the names and kinds they have: found by what is in their name, pattern or matter. */
const SAYINGS: readonly (readonly [RegExp, string])[] = [
  [/(glazed brick|long glazed|narrow glazed).*\bTile\b/i, 'metro subway brick bathroom kitchen splashback ceramic'],
  [/\bTile\b/, 'tiles tiling ceramic porcelain bathroom wall floor'],
  [/mosaic|penny/i, 'mosaic small round shower wet room'],
  [/hexagon/i, 'hex honeycomb six-sided'],
  [/herringbone/i, 'parquet zigzag chevron'],
  [/basket|chevron|versailles|block/i, 'parquet pattern'],
  [/terrazzo/i, 'speckled chips'],
  [/\bBrick\b/, 'brickwork masonry wall exposed bare outside'],
  [/slip|limewash/i, 'painted brick'],
  [/\bStone\b/, 'rock slab natural'],
  [/marble|vein/i, 'marble veined worktop luxury'],
  [/slate|riven/i, 'slate flagstone dark hearth'],
  [/flag|paving|sett|cobble/i, 'patio paving terrace outdoor drive'],
  [/granite|quartz/i, 'worktop countertop kitchen'],
  [/\bTimber\b/, 'wood wooden'],
  [/plank|board/i, 'floorboards planks parquet laminate'],
  [/\bSheet\b/, 'board vinyl lino laminate resilient'],
  [/lino/i, 'linoleum vinyl'],
  [/\bCarpet\b/, 'rug pile fitted wool soft floor'],
  [/\bCloth\b/, 'fabric textile curtain upholstery material linen'],
  [/velvet/i, 'plush pile soft'],
  [/\bWallpaper\b/, 'paper wall covering print pattern'],
  [/\bPaint\b/, 'emulsion colour wall'],
  [/\bPlaster\b/, 'render limewash stucco skim concrete'],
  [/concrete|cement|microcement/i, 'concrete cement industrial grey'],
  [/\bMetal\b/, 'metallic steel'],
  [/brass|bronze|copper/i, 'gold metallic warm'],
  [/chrome|nickel|steel|zinc/i, 'silver metallic shiny'],
  [/\bGlass\b/, 'glazing pane see-through transparent'],
  [/ribbed|reeded|fluted/i, 'fluted ribbed reeded'],
  [/\bOutside\b/, 'garden outdoor ground'],
  [/gravel|drive|tarmac|setts/i, 'drive driveway vehicle car parking'],
  [/grass|lawn|meadow/i, 'lawn turf grass green'],
  [/water|canal|pool/i, 'water pond pool'],
  [/decking|deck/i, 'deck terrace boards outdoor'],
];

const known = new WeakMap<Finish, string>();

/** All a finish may be looked for by: its name, kind, use, maker and code, and what people say for them. */
export function finishWords(finish: Finish): string {
  let words = known.get(finish);
  if (!words) {
    const { laying, body } = finish;
    const plain = [finish.name, finish.category, ...finish.roles, finish.supplier, finish.code, laying?.pattern ?? '', body.kind].join(' ');
    const gloss = finish.roughness < 0.25 ? 'gloss shiny polished' : finish.roughness > 0.7 ? 'matt matte' : 'satin';
    known.set(
      finish,
      (words = [plain, ...SAYINGS.flatMap(([about, said]) => (about.test(plain) ? [said] : [])), ...colourWords(meanHex(finish)), gloss].join(' ')),
    );
  }
  return words;
}
