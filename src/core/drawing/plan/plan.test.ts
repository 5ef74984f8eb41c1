import { boolean, totalArea } from '../../geometry/polygon';
import { holesIn } from '../../project/stairs';
import { stairToPlan } from '../../project/stair-layout';
import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '../../demo/heron-lock';
import { deriveModel } from '../../model/derive';
import { distance } from '../../geometry/vec';
import { displayBounds } from '../display';
import { drawDimension } from '../dimension';
import { drawPlan } from './plan';
import { arcPath, displaySvg } from '../svg';

const model = deriveModel(heronLockCottage());
const items = drawPlan(model, 'ground');

describe('the plan', () => {
  it('is drawn from the floor up: rooms, pieces, walls, openings, dimensions, labels', () => {
    const order = ['ground', 'room', 'slab', 'stair', 'piece', 'wall', 'opening', 'roof', 'dimension', 'label'];
    const seen = items.map((i) => order.indexOf(i.layer));
    expect(seen).toEqual([...seen].sort((a, b) => a - b));
  });

  it('cuts what is new in solid ink, what stands in grey, dashes what goes, and draws furniture thin', () => {
    const { walls } = heronLockCottage();
    const inks = (status: string) =>
      new Set(items.flatMap((i) => (i.layer === 'wall' && i.kind === 'fill' && walls[i.entity!].status === status ? [i.ink] : [])));
    // At a joint the layers of the wall that runs on come through.
    expect([...inks('new')].sort()).toEqual(['cut', 'leaf', 'paper', 'standing']);
    expect([...inks('existing')].sort()).toEqual(['leaf', 'paper', 'standing']);
    const gone = Object.values(walls).find((w) => w.status === 'removed')!;
    expect(items.filter((i) => i.kind === 'line' && i.entity === gone.id).every((i) => i.kind === 'line' && i.dash)).toBe(true);
    expect(items.some((i) => i.layer === 'piece' && i.kind === 'line' && i.pen === 0.18)).toBe(true);
  });

  it('writes every room with its area and the overall size of the house', () => {
    const texts = items.flatMap((i) => (i.kind === 'text' ? [i.text] : i.kind === 'label' ? i.lines.map((l) => l.text) : []));
    expect(texts).toEqual(expect.arrayContaining(['Living', '15.2 m²', 'Kitchen & dining', '10400', '8250']));
    const imperial = drawPlan(deriveModel({ ...heronLockCottage(), units: 'imperial' }), 'ground').flatMap((i) =>
      i.kind === 'text' ? [i.text] : i.kind === 'label' ? i.lines.map((l) => l.text) : [],
    );
    expect(imperial).toEqual(expect.arrayContaining([`34'-1 7/16"`, '164 sq ft']));
  });

  it('swings a door through a quarter turn of its own leaf', () => {
    for (const arc of items.filter((i) => i.kind === 'arc')) {
      const radius = distance(arc.centre, arc.from);
      expect(distance(arc.centre, arc.to)).toBeCloseTo(radius, 6);
      expect(distance(arc.from, arc.to)).toBeCloseTo(radius * Math.SQRT2, 6);
      expect(arcPath(arc)).toMatch(/^M\S+ \S+A/);
    }
  });

  it('is empty for a level that is not there', () => {
    expect(drawPlan(model, 'attic')).toEqual([]);
    expect(displayBounds([])).toBeNull();
  });
});

describe('the type of a plan', () => {
  it('is nowhere too small to be read on a screen: nine pixels and more', () => {
    const sizes = ['ground', 'upper'].flatMap((level) =>
      drawPlan(model, level).flatMap((i) => (i.kind === 'text' ? [i.mm] : i.kind === 'label' ? i.lines.map((l) => l.mm) : [])),
    );
    expect(sizes.length).toBeGreaterThan(30);
    expect((Math.min(...sizes) * 96) / 25.4).toBeGreaterThan(9);
  });
});

describe('a dimension', () => {
  it('keeps its figure upright whichever way it runs', () => {
    for (let k = 0; k < 16; k++) {
      const a = (k / 16) * 2 * Math.PI;
      const text = drawDimension({ x: 0, y: 0 }, { x: Math.cos(a), y: Math.sin(a) }, '1000').find((i) => i.kind === 'text')!;
      expect(Math.cos(text.angle)).toBeGreaterThanOrEqual(-1e-9);
    }
  });
});

describe('the drawing as SVG', () => {
  it('fits its frame', () => {
    const svg = displaySvg(items, 560, 350);
    expect(svg).toMatch(/^<svg [^>]*width="560" height="350"/);
    expect(svg).not.toMatch(/NaN|Infinity/);
  });
});

describe('stairs in plan', () => {
  const model = deriveModel(heronLockCottage());
  const own = (level: string, id: string) => drawPlan(model, level).filter((i) => i.kind !== 'label' && i.entity === id);

  it('are numbered step by step, with an arrow upwards, a break at the cut, and dashed above it', () => {
    const marks = own('ground', 'stair-main');
    const numbers = marks.flatMap((i) => (i.kind === 'text' && /^\d+$/.test(i.text) ? [Number(i.text)] : []));
    expect(numbers).toEqual(Array.from({ length: 13 }, (_, k) => k + 1));
    expect(marks.some((i) => i.kind === 'text' && i.text.startsWith('up 14 × 196'))).toBe(true);
    const lines = marks.filter((i) => i.kind === 'line');
    expect(lines.some((i) => i.kind === 'line' && i.dash)).toBe(true);
    // Two lines with a kink: six points each.
    expect(lines.filter((i) => i.kind === 'line' && i.points.length === 6 && !i.closed)).toHaveLength(2);
    // The arrow’s head lies where one arrives.
    const { layout, stair } = model.shell.levels[0].stairs.find((s) => s.id === 'stair-main')!;
    const top = stairToPlan(stair, layout.walk[layout.walk.length - 1]);
    expect(lines.some((i) => i.kind === 'line' && i.points.length === 3 && distance(i.points[1], top) < 1e-9)).toBe(true);
  });

  it('show from above only through their void, without the numbers', () => {
    const marks = own('upper', 'stair-main');
    expect(marks.length).toBeGreaterThan(5);
    expect(marks.some((i) => i.kind === 'text')).toBe(false);
    const hole = totalArea(holesIn(model.project, 'upper'));
    const shown = marks.flatMap((i) => (i.kind === 'fill' ? [{ outer: i.rings[0], holes: [] }] : []));
    expect(totalArea(boolean('union', [shown[0]], shown.slice(1)))).toBeCloseTo(hole, 2);
  });

  it('lie on the site: the canal, the deck and the steps outside are drawn on the ground floor alone', () => {
    const entities = (level: string): Set<string> => new Set(drawPlan(model, level).flatMap((i) => (i.entity ? [i.entity] : [])));
    for (const id of ['canal', 'deck', 'steps-porch', 'hedge']) {
      expect(entities('ground').has(id)).toBe(true);
      expect(entities('upper').has(id)).toBe(false);
    }
    const hidden = { ...model.project, contents: { ...model.project.contents, hidden: ['canal'] } };
    expect(drawPlan(deriveModel(hidden), 'ground').some((i) => i.entity === 'canal')).toBe(false);
  });
});
