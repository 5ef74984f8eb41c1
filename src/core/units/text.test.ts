import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fileName, counted, cutText } from './text';

it('is cut between characters, and left alone where it is short enough', () => {
  expect(cutText('kitchen', 120)).toBe('kitchen');
  expect(cutText('a🛋b', 2)).toBe('a');
  expect(cutText('a🛋b', 3)).toBe('a🛋');
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), fc.nat(30), (text, longest) => {
      const cut = cutText(text, longest);
      expect(cut.length).toBeLessThanOrEqual(longest);
      expect(text.startsWith(cut)).toBe(true);
      // What is whole stays whole.
      if (!/\p{Cs}/u.test(text)) expect(/\p{Cs}/u.test(cut)).toBe(false);
      if (text.length <= longest) expect(cut).toBe(text);
    }),
  );
});

it('is counted with the right word', () => {
  expect([0, 1, 2].map((n) => counted(n, 'place'))).toEqual(['0 places', '1 place', '2 places']);
  expect([1, 3].map((n) => counted(n, 'leaf', 'leaves'))).toEqual(['1 leaf', '3 leaves']);
});

describe('the name of a file', () => {
  it('says project, what it is, and the day; and is one on every system', () => {
    const at = new Date(2026, 10, 8, 23, 59);
    expect(fileName('Weir House', 'model', at, '.glb')).toBe('Weir House, model, 2026-11-08.glb');
    expect(fileName('Weir House', '', at, '.zip')).toBe('Weir House, 2026-11-08.zip');
    expect(fileName('No. 3/4: "Mill"', 'a\\b', at, '.pdf')).toBe('No. 3-4- -Mill-, a-b, 2026-11-08.pdf');
  });
});
