import { describe, expect, it } from 'vitest';
import { expose, type Endpoint } from 'comlink';
import { MessageChannel } from 'node:worker_threads';
import { Summoned } from './summoned';

interface Doubler {
  double(n: number): number;
  never(): void;
}

/** A worker as the page sees one, answered from this thread; `breakDown` is what a script that is not there does. */
class Stand extends EventTarget {
  private readonly channel = new MessageChannel();
  terminated = false;

  constructor(service: object) {
    super();
    expose(service, this.channel.port1 as unknown as Endpoint);
    this.channel.port2.on('message', (data) => this.dispatchEvent(Object.assign(new Event('message'), { data })));
  }

  postMessage(message: unknown): void {
    this.channel.port2.postMessage(message);
  }

  breakDown(): void {
    this.dispatchEvent(new Event('error'));
  }

  terminate(): void {
    this.terminated = true;
    this.channel.port1.close();
  }
}

function made() {
  const stands: Stand[] = [];
  const said: string[] = [];
  const summoned = new Summoned<Doubler>(
    () => {
      const stand = new Stand({ double: (n: number) => 2 * n, never: () => new Promise(() => undefined) });
      stands.push(stand);
      return stand as unknown as Worker;
    },
    'Nothing was doubled: reload the page.',
    (sentence) => said.push(sentence),
  );
  return { stands, said, summoned };
}

describe('a worker that is summoned', () => {
  it('is made once, when it is first asked', async () => {
    const { stands, said, summoned } = made();
    expect(stands).toHaveLength(0);
    expect(await Promise.all([3, 4].map((n) => summoned.ask((s) => s.double(n))))).toEqual([6, 8]);
    expect([stands.length, said]).toEqual([1, []]);
    stands[0].terminate();
  });

  it('says in a sentence that it is gone, to all who wait and once to the designer, and is made anew', async () => {
    const { stands, said, summoned } = made();
    const waiting = [summoned.ask((s) => s.never()), summoned.ask((s) => s.never())];
    stands[0].breakDown();
    for (const result of await Promise.allSettled(waiting))
      expect(result).toMatchObject({ status: 'rejected', reason: { code: 'work.lost', message: /reload/ } });
    expect(said).toEqual(['Nothing was doubled: reload the page.']);
    expect(stands[0].terminated).toBe(true);
    expect(await summoned.ask((s) => s.double(21))).toBe(42);
    expect(stands).toHaveLength(2);
    stands[1].terminate();
  });
});
