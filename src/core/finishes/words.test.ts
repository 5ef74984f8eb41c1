import { describe, expect, it } from 'vitest';
import { findsAll } from '../units/text';
import { meanHex } from './finish';
import { offered } from './library';
import { colourWords, finishWords } from './words';

const found = (find: string): string[] => offered.filter((f) => findsAll(finishWords(f), find)).map((f) => f.name);

describe('looking for a finish', () => {
  it('finds what people say', () => {
    expect(found('metro')).toEqual(expect.arrayContaining(['Glazed brick, milk', 'Long glazed, chalk']));
    expect(found('white tile')).toEqual(expect.arrayContaining(['Square tile, chalk', 'Mosaic, chalk']));
    expect(found('white tiles')).toEqual(found('white tile'));
    expect(found('brick').length).toBeGreaterThan(3);
    for (const find of [
      'wood',
      'parquet',
      'honeycomb',
      'lino',
      'marble',
      'concrete',
      'gold',
      'grass',
      'vehicle',
      'fabric',
      'fluted',
      'navy',
      'terracotta',
      'sage',
    ])
      expect([find, found(find).length > 0]).toEqual([find, true]);
  });

  it('finds every finish by its own name and its code, and nothing by nonsense', () => {
    for (const f of offered) {
      expect(found(f.name)).toContain(f.name);
      expect(found(f.code)).toContain(f.name);
    }
    expect(found('qwertz')).toEqual([]);
  });

  it('white tiles are light ones', () => {
    for (const f of offered.filter((o) => o.category === 'Tile' && findsAll(finishWords(o), 'white tile'))) {
      const [r, g, b] = [1, 3, 5].map((i) => parseInt(meanHex(f).slice(i, i + 2), 16));
      // Either white by its colour, or called so by its kind.
      expect(Math.min(r, g, b) > 190 || /white/i.test(f.name)).toBe(true);
    }
  });
});

describe('words for colours', () => {
  it.each([
    ['#ffffff', 'white'],
    ['#101010', 'black'],
    ['#808080', 'grey'],
    ['#c0261e', 'red'],
    ['#1d3f9e', 'blue'],
    ['#2f7d3b', 'green'],
    ['#e8c520', 'yellow'],
    ['#6b4428', 'brown'],
    ['#e9b7c0', 'pink'],
    ['#1c2947', 'navy'],
    ['#e07b26', 'orange'],
    ['#6a3d8f', 'purple'],
    ['#ece2c6', 'cream'],
  ])('%s is %s', (hex, word) => {
    expect(colourWords(hex)).toContain(word);
  });

  it('has something to say of every colour', () => {
    for (let r = 0; r < 256; r += 51)
      for (let g = 0; g < 256; g += 51)
        for (let b = 0; b < 256; b += 51) {
          const hex = `#${[r, g, b].map((v) => v.toString(16).padStart(2, '0')).join('')}`;
          expect([hex, colourWords(hex).length > 0]).toEqual([hex, true]);
        }
  });
});

describe('what is looked for', () => {
  it('has all its words in what is found, a plural its singular', () => {
    expect(findsAll('Square tile, chalk', 'tiles chalk')).toBe(true);
    expect(findsAll('Square tile, chalk', 'tiles ink')).toBe(false);
    expect(findsAll('Bus', 'bus')).toBe(true);
    expect(findsAll('Anything', '')).toBe(true);
  });
});
