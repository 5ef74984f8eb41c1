'use client';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { hasRecess, openingOf } from '@/core/project/hanging';
import { ENDS, type Hanging, type Piece } from '@/core/project/schema';
import { stockItem } from '@/core/stock/stock';
import type { StockCard } from '@/core/stock/types';
import { FieldTable, type Field } from '../look/FieldTable';
import { Row } from '../look/fields';
import { useStudio } from '../store/studio';
import * as arranging from '../tools/arranging';
import * as hanging from '../tools/hanging';
import { CardField } from './CardField';
import { Presses, Showing } from './PlaceRows';
import { useEdit } from './parts';

/** What the foot of something that hangs is at, at a window or a door. */
const endWords = (what: string): Readonly<Record<Hanging['ends'], string>> => ({
  opening: `the foot of the ${what}`,
  floor: 'the floor',
  sill: 'the sill',
  'below the sill': 'below the sill',
  'as high as it is': 'its own height',
});

/** At which window or door a piece hangs, and how; or that it could hang at one. */
export function HangRows({ piece }: { piece: Piece }) {
  const { units, say } = useEdit();
  const project = useStudio((s) => s.project);
  const { id, hangs } = piece;
  if (!stockItem(piece.maker)?.hangs) return null;
  if (!hangs)
    return (
      <Presses>
        <Showing worked={() => hanging.hungNear(id)}>Hang at the window</Showing>
      </Presses>
    );
  const opening = openingOf(project, hangs);
  const words = endWords(opening.kind === 'door' ? 'door' : 'window');
  const so = (how: Partial<Hanging>): boolean => arranging.doWorked(hanging.hungSo(id, how));
  const over = (key: 'sides' | 'above' | 'below', label: string): Field => ({ kind: 'length', label, value: hangs[key], set: (v) => so({ [key]: v }) });
  const wall = hangs.where === 'wall';
  const fields: Field[] = [
    {
      kind: 'choice',
      label: 'Hangs',
      value: hangs.where,
      options: [...(hasRecess(project, opening, hangs.side) || !wall ? ([['recess', 'in the recess']] as const) : []), ['wall', 'before the wall']],
      set: (v) => so({ where: v as Hanging['where'] }),
    },
    {
      kind: 'choice',
      label: 'Ends at',
      value: hangs.ends,
      options: ENDS.map((e) => [e, words[e]] as const),
      set: (v) => so({ ends: v as Hanging['ends'] }),
    },
    wall && over('sides', 'Over the sides'),
    wall && over('above', 'Over the head'),
    wall && hangs.ends === 'opening' && over('below', 'Below the foot'),
  ];
  return (
    <>
      <Row label="At">
        <Button size="small" onClick={() => useStudio.getState().select([{ entity: opening.id, target: null }])}>
          {opening.name}
        </Button>
      </Row>
      <FieldTable units={units} say={say} fields={fields} />
      <Presses>
        <Showing worked={() => hanging.hungEverywhere(id, 'room')}>To all of the room</Showing>
        <Showing worked={() => hanging.hungEverywhere(id, 'house')}>To all of the house</Showing>
        <Showing worked={() => hanging.takenOff(id)}>Take off</Showing>
      </Presses>
    </>
  );
}

/** What hangs at openings, and a card to hang there. @param room the room it is hung in; left out: at every side that has one */
export function DressRows({ openings, room }: { openings: readonly string[]; room?: string }) {
  const pieces = useStudio((s) => s.project.pieces);
  const [card, setCard] = useState<StockCard | null>(null);
  const there = openings.length === 1 ? Object.values(pieces).filter((p) => p.hangs?.opening === openings[0]) : [];
  return (
    <>
      {there.map((p) => (
        <Row key={p.id} label="Hangs here">
          <Button size="small" onClick={() => useStudio.getState().select([{ entity: p.id, target: null }])}>
            {p.name}
          </Button>
        </Row>
      ))}
      <Row label="Hang">
        <CardField label="Hang" options={hanging.HANGING_CARDS} value={card} placeholder="a curtain, blind or shutter" onChoose={setCard} />
      </Row>
      {card ? (
        <Presses>
          <Showing worked={() => hanging.hungAtAll(openings, card.id, room)}>{openings.length > 1 ? `Hang at ${openings.length}` : 'Hang it'}</Showing>
        </Presses>
      ) : null}
    </>
  );
}
