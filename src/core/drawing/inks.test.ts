import { describe, expect, it } from 'vitest';
import type { DisplayItem, Layer } from './display';
import { fillOf, INKS, MARKED, penWidth, slim, strokeOf } from './inks';
import { displaySvg } from './svg';

type Fill = Extract<DisplayItem, { kind: 'fill' }>;

const square = [
  { x: 0, y: 0 },
  { x: 1, y: 0 },
  { x: 1, y: 1 },
  { x: 0, y: 1 },
];
const fill = (layer: Layer, ink: Fill['ink'], colour?: string): Fill => ({ kind: 'fill', rings: [square], ink, layer, colour, entity: 'one' });

/** Relative luminance of WCAG 2.2, of `#rrggbb`. */
function luminance(hex: string): number {
  const [r, g, b] = [1, 3, 5].map((i) => {
    const v = parseInt(hex.slice(i, i + 2), 16) / 255;
    return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

describe('the inks', () => {
  it('are what a file is written in, and nothing of it is marked', () => {
    const svg = displaySvg([fill('wall', 'cut'), { kind: 'line', points: square, closed: true, ink: 'thin', pen: 0.18, layer: 'wall' }], 100, 100);
    expect(svg).toContain(`fill="${INKS.cut}" stroke="${INKS.cut}"`);
    expect(svg).toContain(`fill="none" stroke="${INKS.thin}"`);
    expect(svg).not.toContain(MARKED.chosen);
  });

  it('keep what is read at 4.5 : 1 on the paper, and what is chosen too', () => {
    const paper = luminance(INKS.paper);
    for (const ink of [INKS.line, INKS.cut, INKS.thin, INKS.measure, MARKED.chosen, MARKED.quiet])
      expect((paper + 0.05) / (luminance(ink) + 0.05)).toBeGreaterThan(4.5);
  });

  it('give way to the colour of a finish, even where its room is chosen', () => {
    expect(fillOf(fill('room', 'room', '#aa7744'), 'chosen')).toBe('#aa7744');
    expect(fillOf(fill('room', 'room'), 'chosen')).toBe(MARKED.chosenRoom);
    expect(fillOf(fill('room', 'room'), 'pointed')).toBe(MARKED.pointedRoom);
  });

  it('mark what is chosen by what it is', () => {
    expect(fillOf(fill('wall', 'cut'), 'chosen')).toBe(MARKED.chosen);
    expect(fillOf(fill('wall', 'paper'), 'chosen')).toBe(INKS.paper);
    expect(fillOf(fill('column', 'cut'), 'pointed')).toBe(INKS.cut);
    expect(fillOf(fill('piece', 'paper'), 'pointed')).toBe(MARKED.pointedThing);
    expect(fillOf(fill('opening', 'glass'), 'chosen')).toBe(INKS.glass);
    expect(strokeOf('thin', 'chosen')).toBe(MARKED.chosen);
    expect(strokeOf('thin', 'pointed')).toBe(INKS.thin);
    expect(penWidth(0.35, 'chosen')).toBeGreaterThan(penWidth(0.35));
  });

  it('know what is only a line and wants a band to be pressed', () => {
    const line = (layer: Layer, closed: boolean, dash?: boolean): DisplayItem => ({
      kind: 'line',
      points: square,
      closed,
      ink: 'thin',
      pen: 0.18,
      dash,
      layer,
    });
    expect([line('wall', false), line('guide', false), line('roof', true), line('opening', false, true)].every(slim)).toBe(true);
    expect([line('wall', true), line('opening', false), line('piece', false), fill('wall', 'cut')].some(slim)).toBe(false);
  });
});
