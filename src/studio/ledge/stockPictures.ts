import { useEffect, useState } from 'react';
import type { PieceSet } from '@/core/project/piece-set';
import { stockCard } from '@/core/stock/stock';
import type { CardPictureService, Shown } from '@/workers/card-pictures.worker';
import { useStudio } from '../store/studio';
import { Summoned, unlessLost } from '../work/summoned';
import { Turns } from './turns';

/** Pieces that are pictured together, with the finishes of theirs that do not ship. */
type Pictured = Pick<PieceSet, 'finishes'> & { pieces: Shown[]; low: number };

/** A picture that is wanted, and the cards that are told of it. */
interface Wanted {
  times: number;
  of(): Pictured;
  tell: Set<(url: string) => void>;
}

/** Pictures that were drawn, by what they are of. */
const drawn = new Map<string, string>();
const waiting = new Turns<Wanted>();
let busy = false;

const pictures = new Summoned<CardPictureService>(
  () => new Worker(new URL('../../workers/card-pictures.worker.ts', import.meta.url), { type: 'module' }),
  'Cards stay without their pictures: the part of the application that draws them has stopped; reload the page.',
  (sentence) => useStudio.getState().say(sentence),
);

/** Draws what waits, beside the page, one after another; what no card shows any more is left out. */
async function draw(): Promise<void> {
  if (busy) return;
  busy = true;
  try {
    for (let next; (next = waiting.take());) {
      const [key, { times, of, tell }] = next;
      const { pieces, finishes, low } = of();
      const url = drawn.get(key) ?? URL.createObjectURL(await pictures.ask((s) => s.picture(pieces, finishes, times, low)));
      drawn.set(key, url);
      for (const told of tell) told(url);
    }
  } finally {
    busy = false;
  }
}

/** Asks for a picture. Returns what takes that back. */
function want(key: string, times: number, of: () => Pictured, tell: (url: string) => void): () => void {
  const known = waiting.get(key) ?? { times, of, tell: new Set() };
  known.tell.add(tell);
  waiting.add(key, known);
  void draw().catch(unlessLost);
  return () => {
    known.tell.delete(tell);
    if (!known.tell.size && waiting.get(key) === known) waiting.drop(key);
  };
}

/** How far from below the eye looks at what stands, and at what hangs. */
const LOW = { standing: 0.42, hanging: -0.12 } as const;

function pictureOfCard(id: string): Pictured {
  const { item, size, traits, finishes } = stockCard(id)!;
  const piece: Shown = { maker: item.id, size, traits, finishes, x: 0, y: 0, elevation: 0, rotation: 0, open: 0, mirrored: false };
  return { pieces: [piece], finishes: [], low: item.mount === 'ceiling' ? LOW.hanging : LOW.standing };
}

/** The picture of a stock item, empty until it is drawn. @param times how much larger than on a card */
export const useStockPicture = (id: string, times = 1): string => usePicture(`${id} ${times}`, times, () => pictureOfCard(id));

/** The picture of a set, empty until it is drawn. */
export const useSetPicture = (id: string, { pieces, finishes }: PieceSet): string =>
  usePicture(`set ${id}`, 1, () => ({ pieces, finishes, low: LOW.standing }));

function usePicture(key: string, times: number, of: () => Pictured): string {
  const [own, setOwn] = useState({ key, url: drawn.get(key) ?? '' });
  // What is pictured is told by its key alone.
  useEffect(() => {
    const known = drawn.get(key);
    if (known !== undefined) {
      setOwn({ key, url: known });
      return;
    }
    return want(key, times, of, (url) => setOwn({ key, url }));
  }, [key, times]);
  return own.key === key ? own.url : '';
}
