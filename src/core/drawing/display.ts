import type { Region } from '../geometry/region';
import type { Vec2 } from '../geometry/vec';
import type { SampleForm } from '../project/schema';

/** Pens of a drawing, paper millimetres (ISO 128). */
export type Pen = 0.13 | 0.18 | 0.25 | 0.35 | 0.5 | 0.7;

/** What a mark means; writers choose its colour. */
export type Ink =
  'cut' | 'standing' | 'leaf' | 'line' | 'thin' | 'faint' | 'measure' | 'paper' | 'room' | 'glass' | 'site' | 'water' | 'bare' | 'joint' | 'note';

/** One line of a label. */
export interface LabelLine {
  text: string;
  /** Type size on paper, millimetres. */
  mm: number;
  strong: boolean;
}

/** One mark of a drawing. Coordinates are model metres, y up; sizes with `mm` are millimetres on paper. */
export type DisplayItem =
  /** `colour` is that of a finish, in place of the ink’s. */
  | { kind: 'fill'; rings: Vec2[][]; ink: Ink; colour?: string; entity?: string; layer: Layer }
  | { kind: 'line'; points: Vec2[]; closed: boolean; ink: Ink; pen: Pen; dash?: boolean; entity?: string; layer: Layer }
  /** Many closed lines as one mark. */
  | { kind: 'lines'; rings: Vec2[][]; ink: Ink; pen: Pen; entity?: string; layer: Layer }
  | { kind: 'arc'; centre: Vec2; from: Vec2; to: Vec2; ink: Ink; pen: Pen; entity?: string; layer: Layer }
  | {
      kind: 'text';
      at: Vec2;
      text: string;
      mm: number;
      ink: Ink;
      weight: 400 | 600;
      angle: number;
      entity?: string;
      layer: Layer;
      dy?: number;
      /** What it does where it would cover a label or another such text: it moves aside, or down, or is left out. */
      yields?: 'aside' | 'down' | 'out';
    }
  /** A room's label, set by the writer at its scale so that it stays within the room. */
  | { kind: 'label'; at: Vec2; region: Region; lines: LabelLine[]; entity: string; layer: 'label' };

/** Sizes of type, paper millimetres: on a screen of 96 dots an inch a note is ten pixels high, which can still be read. */
export const TYPE = { name: 3.3, value: 2.9, note: 2.7, number: 2.4 } as const;

export type Layer =
  'room' | 'piece' | 'wall' | 'opening' | 'column' | 'stair' | 'slab' | 'ground' | 'roof' | 'guide' | 'dimension' | 'label' | 'face' | 'patch' | 'page';

/** What lies on a page, metres from its lower left corner, y up. */
interface OnPage {
  min: Vec2;
  max: Vec2;
  /** The thing of the page it belongs to. */
  entity: string;
}

/** What a picture on a page shows: a kept picture, or a sample of a finish. */
export type Shown = { kind: 'picture'; hash: string } | { kind: 'sample'; finish: string; form: SampleForm };

/** The marks of a page beside those of drawings. `words`: one line, from the start of its baseline; `size` metres. */
export type PageMark =
  | Extract<DisplayItem, { kind: 'fill' }>
  | (OnPage & { kind: 'shadow'; round: boolean })
  | (OnPage & { kind: 'image'; shows: Shown })
  | { kind: 'words'; at: Vec2; text: string; size: number; face: 'sans' | 'serif'; ink: Ink; entity: string };

/** The marks of one thing; the same object as long as the thing has not changed. */
export interface MarkGroup {
  key: string;
  /** What is said of it where it is pointed at. */
  title?: string;
  items: DisplayItem[];
}

/** Marks in other coordinates. @param to where a point comes to lie */
export function carry(items: readonly DisplayItem[], to: (p: Vec2) => Vec2): DisplayItem[] {
  return items.map((item): DisplayItem => {
    if (item.kind === 'fill' || item.kind === 'lines') return { ...item, rings: item.rings.map((r) => r.map(to)) };
    if (item.kind === 'line') return { ...item, points: item.points.map(to) };
    if (item.kind === 'arc') return { ...item, centre: to(item.centre), from: to(item.from), to: to(item.to) };
    return { ...item, at: to(item.at) };
  });
}

/** The extent of all marks, metres. */
export function displayBounds(items: readonly DisplayItem[]): { min: Vec2; max: Vec2 } | null {
  let box: { min: Vec2; max: Vec2 } | null = null;
  const take = (p: Vec2): void => {
    if (!box) box = { min: { ...p }, max: { ...p } };
    box.min.x = Math.min(box.min.x, p.x);
    box.min.y = Math.min(box.min.y, p.y);
    box.max.x = Math.max(box.max.x, p.x);
    box.max.y = Math.max(box.max.y, p.y);
  };
  // The house decides; the site round it only where there is no house yet.
  const site = items.every((item) => item.layer === 'ground' || item.layer === 'guide');
  for (const item of items) {
    if (item.layer === 'guide' || (item.layer === 'ground' && !site)) continue;
    if (item.kind === 'fill' || item.kind === 'lines') item.rings.flat().forEach(take);
    else if (item.kind === 'line') item.points.forEach(take);
    else if (item.kind === 'arc') [item.centre, item.from, item.to].forEach(take);
    else take(item.at);
  }
  return box;
}

/** Marks in groups of one thing each, in the order they are drawn: each is chosen, pointed at and hidden for itself. */
export function byThing(key: string, items: readonly DisplayItem[]): MarkGroup[] {
  const groups: MarkGroup[] = [];
  for (const item of items) {
    const last = groups.at(-1);
    if (last && last.items[0].entity === item.entity) last.items.push(item);
    else groups.push({ key: `${key} ${groups.length}`, items: [item] });
  }
  return groups;
}
