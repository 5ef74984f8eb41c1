import { partsOf, roomOfPart, type Model } from '../model/model';
import type { Sort } from '../model/sorts';
import { finishIn } from '../finishes/store';
import { meshArea } from '../geometry/mesh';
import type { BoardItem } from '../project/schema';
import { fit, NOTE } from './layout';
import { naturalForm } from './sample';

/** A finish in use with the surface it covers in the project, m², largest first. */
export function finishesInUse(model: Model, room: string | null = null): { finish: string; area: number }[] {
  const areas = new Map<string, number>();
  const take = (finish: string, area: number): void => void areas.set(finish, (areas.get(finish) ?? 0) + area);
  for (const [body, part] of partsOf(model)) {
    if (!part.target || body.level === null || part.laid.bare || (room && roomOfPart(model, body, part) !== room)) continue;
    // Of a piece one sees about half at a time.
    take(part.finish, (meshArea(part.mesh) * part.at.length) / (part.counts === 'piece' ? 2 : 1));
  }
  return [...areas].map(([finish, area]) => ({ finish, area })).sort((a, b) => b.area - a.area || (a.finish < b.finish ? -1 : 1));
}

type Plain = BoardItem extends infer I ? (I extends BoardItem ? Omit<I, 'id' | 'page'> : never) : never;

/**
 * A first arrangement of a page: title, the latest picture, and samples of the finishes in use, their size following
 * the share of surface they cover. All of it can be moved afterwards.
 *
 * @param paper page size, metres
 */
export function composePage(
  model: Model,
  paper: { width: number; height: number },
  options: { title: string; line: string; picture: string | null; room: string | null },
): Plain[] {
  const { project } = model;
  const { width: w, height: h } = paper;
  const margin = w * 0.045;
  const items: Plain[] = [];
  let order = 0;
  items.push({
    kind: 'text',
    order: order++,
    x: margin,
    y: h * 0.045,
    width: w * 0.6,
    height: h * 0.07,
    shadow: false,
    text: options.title,
    size: h * 0.048,
    face: 'serif',
    align: 'left',
  });
  items.push({
    kind: 'text',
    order: order++,
    x: margin,
    y: h * 0.115,
    width: w * 0.6,
    height: h * 0.03,
    shadow: false,
    text: options.line,
    size: h * 0.0145,
    face: 'sans',
    align: 'left',
  });
  const top = h * 0.165;
  const gap = w * 0.028;
  const note = NOTE.drop + NOTE.size;
  const picture = options.picture ? project.pictures[options.picture] : undefined;
  let left = margin;
  let bottom = h * 0.67;
  if (picture) {
    const box = fit(picture.width / picture.height, w * 0.57, h * 0.51);
    items.push({ kind: 'picture', order: order++, x: margin, y: top, ...box, shadow: true, picture: picture.id });
    left = margin + box.width + gap;
    bottom = top + box.height;
  }
  const used = finishesInUse(model, options.room).slice(0, 9);
  // The large surfaces beside the picture, down to its foot; the accents in a row along the foot of the page.
  const large = used.slice(0, 3);
  const column = w - left - margin;
  const shares = large.map(({ area }) => Math.max(0.55, Math.min(1, Math.sqrt(area / large[0].area))));
  const total = shares.reduce((sum, share) => sum + share, 0);
  const free = bottom - top - (large.length - 1) * gap * 0.9 - note;
  let y = top;
  large.forEach(({ finish }, i) => {
    const height = (free * shares[i]) / total - (i < large.length - 1 ? note / 2 : 0);
    const own = finishIn(project, finish);
    const width = column * (i === 1 ? 0.82 : 1);
    items.push({
      kind: 'sample',
      order: order++,
      x: left + column - width,
      y,
      width,
      height,
      shadow: true,
      finish,
      form: naturalForm(own),
      note: `${own.name}, ${where(model, finish)}`,
    });
    y += height + note / 2 + gap * 0.9;
  });
  const small = used.slice(large.length);
  const across = Math.max(5, small.length);
  const width = (w - 2 * margin - (across - 1) * gap) / across;
  const foot = bottom + h * 0.065;
  small.forEach(({ finish }, i) => {
    const own = finishIn(project, finish);
    const form = naturalForm(own);
    const side = Math.min(width, h - foot - margin - note);
    items.push({
      kind: 'sample',
      order: order++,
      x: margin + i * (width + gap),
      y: foot,
      width: form === 'disc' ? side : width,
      height: side,
      shadow: true,
      finish,
      form,
      note: own.name,
    });
  });
  return items;
}

const WORDS: Partial<Record<Sort, string>> = { wall: 'walls', floor: 'floor', ceiling: 'ceiling', roof: 'roof', ground: 'garden', fence: 'garden' };

/** What a finish is used for, in a word or two. */
function where(model: Model, finish: string): string {
  const kinds = new Set<string>();
  for (const [, part] of partsOf(model))
    if (part.finish === finish && part.target) kinds.add(WORDS[part.sort] ?? (part.counts === 'piece' ? 'furniture' : 'joinery'));
  return [...kinds].slice(0, 2).join(' and ');
}
