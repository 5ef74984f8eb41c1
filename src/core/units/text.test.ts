import fc from 'fast-check';
import { expect, it } from 'vitest';
import { counted, cutText } from './text';

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
