import { describe, expect, it } from 'vitest';
import { hasFinish } from '../finishes/library';
import { emptyProject } from '../project/schema';
import { CARDS, clampSize, derivePiece, makeParts, pieceFrom, STOCK, stockItem, symbolOf } from './stock';
import { bounds } from '../testing/measures';
import { LAMP_PART } from './makers/shades';

describe('the stock', () => {
  it('ships at least a dozen pieces of the named kinds', () => {
    const ids = CARDS.map((c) => c.id);
    for (const id of ['sofa', 'armchair', 'table', 'chair', 'bed', 'wardrobe', 'bookcase', 'rug', 'plant', 'floor-lamp', 'pendant', 'curtain'])
      expect(ids).toContain(id);
    expect(new Set(ids).size).toBe(ids.length);
  });
});

describe.each(CARDS.map((card) => [card.id, card] as const))('%s', (_, { item, size: usual, traits }) => {
  it('fills its usual size and stands on the floor', () => {
    // A size is that of the body: taps stand on a worktop, a flue goes up to the ceiling.
    const { low, high } = bounds(
      makeParts(item, usual, traits)
        .filter(({ part }) => !/tap|flue|pipe/.test(part))
        .map((p) => p.mesh),
    );
    // Handles stand out a little.
    const slack = 0.075;
    expect(high[0]).toBeLessThanOrEqual(usual.width / 2 + slack);
    expect(low[0]).toBeGreaterThanOrEqual(-usual.width / 2 - slack);
    expect(high[1]).toBeLessThanOrEqual(usual.depth / 2 + slack);
    expect(low[1]).toBeGreaterThanOrEqual(-usual.depth / 2 - slack);
    expect(low[2]).toBeGreaterThanOrEqual(-1e-6);
    expect(high[2]).toBeLessThanOrEqual(usual.height + slack);
    // It fills its size: a resized piece really is that large.
    expect(high[2] - low[2]).toBeGreaterThan(Math.min(usual.height * 0.5, 0.3));
    expect(high[0] - low[0]).toBeGreaterThan(usual.width * 0.5);
  });

  it('has named parts with finishes, finite coordinates and whole normals', () => {
    const parts = makeParts(item, usual, traits);
    expect(parts.length).toBeGreaterThan(0);
    for (const { part, mesh } of parts) {
      expect(Object.keys(item.parts)).toContain(part);
      expect(hasFinish(item.parts[part])).toBe(true);
      expect(mesh.indices.length % 3).toBe(0);
      expect(mesh.indices.every((i) => i < mesh.positions.length / 3)).toBe(true);
      for (const array of [mesh.positions, mesh.normals, mesh.uvs]) expect(array.every(Number.isFinite)).toBe(true);
      for (let k = 0; k < mesh.normals.length; k += 3) expect(Math.hypot(mesh.normals[k], mesh.normals[k + 1], mesh.normals[k + 2])).toBeLessThan(1.01);
    }
    expect(Boolean(item.lamp)).toBe(parts.some((p) => p.part === LAMP_PART));
  });

  it('has a symbol within its footprint', () => {
    const points = symbolOf({ maker: item.id, size: usual, traits })!.flatMap((line) => line.points);
    expect(points.length).toBeGreaterThan(1);
    for (const p of points) {
      expect(Math.abs(p.x)).toBeLessThanOrEqual(usual.width / 2 + 0.03);
      expect(Math.abs(p.y)).toBeLessThanOrEqual(usual.depth / 2 + 0.03);
    }
  });

  it('is brought back within its limits', () => {
    expect(clampSize(item, { width: 1000, depth: 0, height: usual.height })).toEqual({
      width: item.max.width,
      depth: item.min.depth,
      height: usual.height,
    });
  });
});

describe('a placed piece', () => {
  it('turns about its middle and stands at its height', () => {
    const project = emptyProject('p', 'P');
    const item = stockItem('sofa')!;
    const piece = { ...pieceFrom(item, 'a', project.levels.ground, { x: 2, y: 1 }, Math.PI / 2), elevation: 0.3 };
    const { footprint, matrix } = derivePiece(project, piece);
    const xs = footprint.map((p) => p.x);
    const ys = footprint.map((p) => p.y);
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(item.size.depth, 9);
    expect(Math.max(...ys) - Math.min(...ys)).toBeCloseTo(item.size.width, 9);
    expect(matrix[14]).toBeCloseTo(0.3, 9);
  });

  it('hangs luminaires for the ceiling from the ceiling', () => {
    const project = emptyProject('p', 'P');
    const pendant = STOCK.find((s) => s.id === 'pendant')!;
    const piece = pieceFrom(pendant, 'a', project.levels.ground, { x: 0, y: 0 });
    expect(piece.elevation + piece.size.height).toBeCloseTo(project.levels.ground.height, 9);
    expect(piece.lamp).toEqual(pendant.lamp);
  });
});
