'use client';
import Button from '@mui/material/Button';
import { useState } from 'react';
import type { Piece } from '@/core/project/schema';
import { CARDS, placesAt, stockItem } from '@/core/stock/stock';
import type { StockCard } from '@/core/stock/types';
import { Choice } from '../look/Choice';
import { FieldTable } from '../look/FieldTable';
import { Row } from '../look/fields';
import { useStudio } from '../store/studio';
import * as arranging from '../tools/arranging';
import { CardField } from './CardField';
import { useEdit } from './parts';
import { Presses, Showing } from './PlaceRows';

/** Copies of a piece in rows and rings, linked with it or not. */
export function CopyRows({ piece }: { piece: Piece }) {
  const { units, run, say } = useEdit();
  const { id, size } = piece;
  const [asked, setAsked] = useState<arranging.Copying>({
    across: 2,
    stepAcross: Math.round((size.width + 0.1) * 100) / 100,
    along: 1,
    stepAlong: Math.round((size.depth + 0.6) * 100) / 100,
    ring: 4,
    radius: 1,
    linked: piece.linked !== null,
  });
  const linked = useStudio((s) => (piece.linked === null ? 0 : Object.values(s.project.pieces).filter((p) => p.linked === piece.linked).length));
  const put = (key: keyof arranging.Copying) => (v: number) => {
    setAsked({ ...asked, [key]: v });
    return true;
  };
  const count = (key: 'across' | 'along' | 'ring', label: string) =>
    ({ kind: 'number', label, value: asked[key], min: 1, max: arranging.MOST, set: (v: number) => put(key)(Math.round(v)) }) as const;
  const length = (key: 'stepAcross' | 'stepAlong' | 'radius', label: string) => ({ kind: 'length', label, value: asked[key], set: put(key) }) as const;
  return (
    <>
      <FieldTable
        units={units}
        say={say}
        fields={[
          count('across', 'Side by side'),
          length('stepAcross', 'Step across'),
          count('along', 'Behind it'),
          length('stepAlong', 'Step back'),
          count('ring', 'In a ring'),
          length('radius', 'Ring radius'),
          { kind: 'switch', label: 'Linked', value: asked.linked, set: (v) => (setAsked({ ...asked, linked: v }), true) },
        ]}
      />
      <Presses>
        <Showing worked={() => arranging.inRows(id, asked)}>Make rows</Showing>
        <Showing worked={() => arranging.inRing(id, asked)}>Make ring</Showing>
        <Button
          size="small"
          onClick={() =>
            run('carry', { ids: [id], about: { x: piece.x, y: piece.y }, turn: 0, mirror: piece.rotation + Math.PI / 2, by: { x: 0, y: 0 }, copy: false })
          }
        >
          Mirror
        </Button>
        {linked > 1 ? <Showing worked={() => arranging.unlinked([id])}>{`Unlink from ${linked - 1}`}</Showing> : null}
      </Presses>
    </>
  );
}

/** Chairs round a table, at all of its places that are clear. */
export function ChairRows({ piece }: { piece: Piece }) {
  const [card, setCard] = useState(arranging.CHAIR_CARDS[0].id);
  const item = stockItem(piece.maker);
  if (!item || !placesAt(item, piece.size, piece.traits).length) return null;
  return (
    <>
      <Row label="Chairs">
        <Choice bare label="Chairs round it" value={card} options={arranging.CHAIR_CARDS.map((c) => [c.id, c.name] as const)} onChoose={setCard} />
      </Row>
      <Presses>
        <Showing worked={() => arranging.chairsAt(piece.id, card)}>Chairs round it</Showing>
      </Presses>
    </>
  );
}

/** Another piece in the place of this one, or of all like it. */
export function ReplaceRow({ pieces, mount }: { pieces: string[]; mount: string }) {
  const [card, setCard] = useState<StockCard | null>(null);
  const options = CARDS.filter((c) => c.item.mount === mount);
  return (
    <>
      <Row label="Replace by">
        <CardField label="Replace by" options={options} value={card} placeholder="a piece of the stock" onChoose={setCard} />
      </Row>
      {card ? (
        <Presses>
          <Showing worked={() => arranging.replacedBy(pieces, card.id)}>{pieces.length > 1 ? `Replace ${pieces.length}` : 'Replace'}</Showing>
        </Presses>
      ) : null}
    </>
  );
}
