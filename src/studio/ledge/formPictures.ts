import { displaySvg } from '@/core/drawing/svg';
import { drawPlan } from '@/core/drawing/plan/plan';
import { deriveModel } from '@/core/model/derive';
import { runChange } from '@/core/project/commands';
import { newOpening } from '@/core/project/opening-defaults';
import { emptyProject, type Opening, type OpeningForm } from '@/core/project/schema';

const pictures = new Map<string, string>();

/** A form of opening as its plan draws it, in a stretch of wall: the picture of its card. */
export function formPicture(kind: Opening['kind'], form: OpeningForm, shape?: Opening['shape']): string {
  const key = `${kind} ${form}`;
  let url = pictures.get(key);
  if (!url) {
    const plain = emptyProject('card', 'Card');
    const opening = newOpening(plain, { id: 'o', wall: 'wall-cards00.2', kind, form, at: 0, ...(shape ? { shape } : {}) });
    const half = opening.width / 2 + 0.45;
    const walled = runChange(plain, {
      id: 'cards00',
      kind: 'do',
      command: 'wall.draw',
      args: {
        level: 'ground',
        points:
          form === 'corner'
            ? [
                { x: -half, y: 0 },
                { x: half, y: 0 },
                { x: half, y: -2 * half },
              ]
            : [
                { x: -half, y: 0 },
                { x: half, y: 0 },
              ],
        closed: false,
        thickness: 0.2,
      },
    }).project;
    const project = runChange(walled, {
      id: 'cards01',
      kind: 'do',
      command: 'opening.add',
      args: { ...opening, wall: Object.keys(walled.walls)[0], at: half, hinge: form === 'corner' ? 'end' : opening.hinge },
    }).project;
    const items = drawPlan(deriveModel(project), 'ground', { labels: false, dimensions: false });
    url = `data:image/svg+xml,${encodeURIComponent(displaySvg(items, 204, 116))}`;
    pictures.set(key, url);
  }
  return url;
}
