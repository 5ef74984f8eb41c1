import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '../demo/heron-lock';
import { deriveModel } from '../model/derive';
import { FINISHES, finishById } from '../finishes/library';
import { luminance, toLinear } from '../finishes/colour';
import { finishLrv } from '../finishes/finish';
import { composePage, finishesInUse } from './compose';
import { fit, layoutText, PAPERS } from './layout';
import { makeSample, naturalForm } from './sample';
import { SHADOW, shadowPicture } from './shadow';

const model = deriveModel(heronLockCottage());

describe('finishes in use', () => {
  it('are those of the room, with the surface they cover', () => {
    const living = [...model.shell.rooms.values()].find((r) => r.room.name === 'Living')!;
    const used = finishesInUse(model, living.id);
    // Its floor, and the half of each doorway that belongs to it.
    const ways = [...model.shell.openings.values()].filter((o) => o.opening.kind === 'door' && Object.values(o.rooms).includes(living.id));
    const halves = ways.reduce((sum, o) => sum + (o.opening.width * o.thickness) / 2, 0);
    expect(used.find((u) => u.finish === 'timber.oak-plank')!.area).toBeCloseTo(living.area + halves, 3);
    expect(used.find((u) => u.finish === 'paint.reed')).toBeDefined();
    expect(used.find((u) => u.finish === 'tile.glazed-green')).toBeUndefined();
    expect(used.every((u, i) => i === 0 || u.area <= used[i - 1].area)).toBe(true);
    expect(used.some((u) => finishById(u.finish).bare)).toBe(false);
  });
});

describe('a composed page', () => {
  it.each(Object.entries(PAPERS))('keeps everything on the paper and apart: %s', (_, paper) => {
    const items = composePage(model, paper, { title: 'Kitchen', line: 'A line', picture: null, room: null });
    expect(items.filter((i) => i.kind === 'sample').length).toBeGreaterThanOrEqual(6);
    for (const i of items) {
      expect(i.x).toBeGreaterThanOrEqual(0);
      expect(i.y).toBeGreaterThanOrEqual(0);
      expect(i.x + i.width).toBeLessThanOrEqual(paper.width + 1e-9);
      expect(i.y + i.height).toBeLessThanOrEqual(paper.height + 1e-9);
    }
    const samples = items.filter((i) => i.kind === 'sample');
    for (const a of samples)
      for (const b of samples)
        if (a !== b)
          expect(
            Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x) > 1e-6 && Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y) > 1e-6,
          ).toBe(false);
  });
});

describe('text on a page', () => {
  const item = {
    id: 't',
    page: 'p',
    order: 0,
    x: 0.1,
    y: 0.2,
    width: 0.05,
    height: 0.1,
    shadow: false,
    kind: 'text',
    text: 'one two three\nfour',
    size: 0.01,
    face: 'sans',
    align: 'left',
  } as const;
  const measure = (text: string): number => text.length * 0.005;

  it('breaks where it must and where it is told', () => {
    expect(layoutText(item, measure).map((l) => l.text)).toEqual(['one two', 'three', 'four']);
  });

  it('is set left, centred and right within its width', () => {
    const x = (align: 'left' | 'centre' | 'right'): number => layoutText({ ...item, align }, measure)[1].x;
    expect([x('left'), x('centre'), x('right')]).toEqual([expect.closeTo(0.1), expect.closeTo(0.1125), expect.closeTo(0.125)]);
  });
});

describe('samples', () => {
  it.each(['board', 'plank', 'swatch', 'tiles', 'disc'] as const)('shows a paint’s colour in the middle of a %s', (form) => {
    const finish = finishById('paint.millpond');
    const { pixels, width, height } = makeSample(finish, form, 60, 60);
    const k = ((height / 2) * width + width / 2) * 4;
    const l = luminance([toLinear(pixels[k] / 255), toLinear(pixels[k + 1] / 255), toLinear(pixels[k + 2] / 255)]) * 100;
    expect(pixels[k + 3]).toBe(255);
    expect(Math.abs(l - finishLrv(finish))).toBeLessThan(finishLrv(finish) * 0.15);
  });

  it('pinks a swatch, rounds a disc and fills a board', () => {
    const corner = (form: 'disc' | 'swatch' | 'board'): number => makeSample(finishById('cloth.damson-linen'), form, 80, 60).pixels[3];
    expect(corner('disc')).toBe(0);
    expect(corner('board')).toBeGreaterThan(100);
    const alpha = makeSample(finishById('cloth.damson-linen'), 'swatch', 80, 60).pixels.filter((_, i) => i % 4 === 3);
    expect(alpha.slice(0, 80).some((a) => a === 0) && alpha.slice(160, 240).some((a) => a === 255)).toBe(true);
  });

  it('has a form for every finish', () => {
    for (const f of FINISHES) expect(['board', 'plank', 'swatch', 'tiles', 'disc']).toContain(naturalForm(f));
  });
});

describe('shadows and frames', () => {
  it('are soft outside and full in the middle', () => {
    const { width, height, pixels } = shadowPicture(0.05, 0.03, 2000);
    expect(pixels[3]).toBeLessThan(5);
    expect(pixels[((height >> 1) * width + (width >> 1)) * 4 + 3]).toBe(Math.round(255 * SHADOW.strength));
  });

  it('fits a proportion into a frame', () => {
    expect(fit(2, 10, 10)).toEqual({ width: 10, height: 5 });
    expect(fit(0.5, 10, 10)).toEqual({ width: 5, height: 10 });
  });
});
