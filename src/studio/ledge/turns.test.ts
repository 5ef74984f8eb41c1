import { describe, expect, it } from 'vitest';
import { Turns } from './turns';

const all = (turns: Turns<number>): string[] => {
  const out: string[] = [];
  for (let next; (next = turns.take());) out.push(next[0]);
  return out;
};

describe('what waits for its picture', () => {
  it('comes from the left within a turn, the latest turn first, without what was dropped', async () => {
    const turns = new Turns<number>();
    for (const key of ['a', 'b', 'c']) turns.add(key, 1);
    await Promise.resolve();
    for (const key of ['x', 'y']) turns.add(key, 2);
    turns.drop('b');
    expect([turns.get('a'), turns.get('b')]).toEqual([1, undefined]);
    expect(all(turns)).toEqual(['x', 'y', 'a', 'c']);
    expect(turns.take()).toBeNull();
  });

  it('goes on with an earlier turn once the later one is done, and takes again what is asked for again', async () => {
    const turns = new Turns<number>();
    for (const key of ['a', 'b']) turns.add(key, 1);
    expect(turns.take()![0]).toBe('a');
    await Promise.resolve();
    turns.add('x', 2);
    await Promise.resolve();
    turns.add('b', 3);
    expect(all(turns)).toEqual(['b', 'x']);
  });
});
