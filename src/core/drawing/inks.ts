import type { WallLayer } from '../project/schema';
import type { DisplayItem, Ink, Pen } from './display';

/** Colours of the inks on white paper: the one table that every writer reads. */
export const INKS: Readonly<Record<Ink, string>> = {
  cut: '#2b2c2b',
  standing: '#9b9c99',
  leaf: '#7d7e7b',
  line: '#1d1e1d',
  thin: '#6f706d',
  faint: '#bdbdb9',
  measure: '#0b6468',
  paper: '#ffffff',
  room: '#ffffff',
  site: '#f4f3f0',
  water: '#e6ecec',
  glass: '#7f9aa0',
  /** A face without a finish of its own. */
  bare: '#f7f7f5',
  /** Seen through: lines on the colour of any finish. */
  joint: '#00000048',
  /** Small words beside a thing of a page. */
  note: '#5d5e5b',
};

/** What is pointed at or chosen on the screen: marks of their own, which no printed writer uses. */
export const MARKED = {
  /** Lines, walls and posts that are chosen. */
  chosen: '#7a2e4d',
  /** A chosen room’s floor. */
  chosenRoom: '#f3e9ed',
  /** What is chosen and lies on the floor. */
  chosenThing: '#ebd9e0',
  pointedRoom: '#fafaf9',
  pointedWall: '#5b4650',
  pointedThing: '#f5f3f3',
  /** A room’s second and third lines. */
  quiet: '#686967',
} as const;

/** The layers of a wall that is cut through, each in its tone. */
export const LAYER_TONES: Readonly<Record<WallLayer['material'], string>> = {
  brick: '#8a8b88',
  block: '#6f706d',
  concrete: '#5d5e5b',
  stone: '#7b7c79',
  timber: '#9b9c99',
  stud: '#b4b5b1',
  insulation: '#ededeb',
  cavity: '#ffffff',
  board: '#c9cac6',
  plaster: '#d8d8d4',
  render: '#d0d0cc',
  cladding: '#a9aaa6',
};

/** How a mark stands to the person at the screen. */
export type Standing = 'plain' | 'pointed' | 'chosen';

/** Width of a pen on the screen, pixels: wider than on paper, since the screen is looked at from farther away. */
export const penWidth = (pen: Pen, standing: Standing = 'plain'): number => pen * 2.6 + (standing === 'chosen' ? 0.5 : 0);

/** The colour of a line or a text. */
export const strokeOf = (ink: Ink, standing: Standing = 'plain'): string => (standing === 'chosen' ? MARKED.chosen : INKS[ink]);

/** The colour of a filled mark; a finish’s own colour comes before the ink’s. */
export function fillOf(item: Extract<DisplayItem, { kind: 'fill' }>, standing: Standing = 'plain'): string {
  const plain = item.colour ?? INKS[item.ink];
  if (standing === 'plain') return plain;
  const chosen = standing === 'chosen';
  if (item.layer === 'room') return item.colour ? plain : chosen ? MARKED.chosenRoom : MARKED.pointedRoom;
  if (item.layer === 'wall' && item.ink !== 'paper') return chosen ? MARKED.chosen : MARKED.pointedWall;
  if (item.layer === 'column') return chosen ? MARKED.chosen : plain;
  if (item.layer === 'piece' || (item.layer === 'opening' && item.ink === 'paper')) return chosen ? MARKED.chosenThing : MARKED.pointedThing;
  return plain;
}

/** Whether a filled mark has a hairline in its own ink, which closes the seams between the pieces of a wall. */
export const seamed = (ink: Ink): boolean => ink === 'cut' || ink === 'standing';

/** Whether a mark is only a line, so that the screen gives it a wider band to be pressed. */
export const slim = (item: DisplayItem): boolean =>
  item.layer === 'guide' ||
  item.layer === 'roof' ||
  (item.kind === 'line' && ((item.layer === 'wall' && !item.closed) || (item.layer === 'opening' && item.dash === true)));
