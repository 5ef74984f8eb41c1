'use client';
import Button from '@mui/material/Button';
import Box from '@mui/material/Box';
import { useDeferredValue, type ReactNode } from 'react';
import { gapsOf, SIDE_WORDS, SIDES, type PieceSide } from '@/core/placing/around';
import type { Model } from '@/core/model/model';
import type { Piece } from '@/core/project/schema';
import { LengthField, Row } from '../look/fields';
import { useStudio } from '../store/studio';
import * as arranging from '../tools/arranging';
import { useEdit } from './parts';

const wordOf = (side: PieceSide): string => SIDE_WORDS[side].replace(/^./, (c) => c.toUpperCase());

/** What bounds a side, in a word. */
function boundWord(model: Model, kind: 'wall' | 'piece' | 'column', id: string | null): string {
  return kind === 'piece' && id ? (model.project.pieces[id]?.name ?? '') : kind;
}

/** A press that shows what it does while one is at it. */
export function Showing({ children, worked }: { children: ReactNode; worked(): arranging.Worked }) {
  const show = (): void => arranging.showWorked(worked());
  const end = (): void => arranging.showWorked(null);
  return (
    <Button
      size="small"
      onPointerEnter={show}
      onPointerLeave={end}
      onFocus={(e) => e.currentTarget.matches(':focus-visible') && show()}
      onBlur={end}
      onClick={() => {
        end();
        arranging.doWorked(worked());
      }}
    >
      {children}
    </Button>
  );
}

/** Presses side by side. */
export const Presses = ({ children }: { children: ReactNode }) => <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5, my: 0.75 }}>{children}</Box>;

/** How far a piece is from what bounds it, and where else it could stand. */
export function PlaceRows({ piece }: { piece: Piece }) {
  const { units, say } = useEdit();
  const model = useDeferredValue(useStudio((s) => s.model));
  const gaps = gapsOf(model, piece.id);
  const { id } = piece;
  return (
    <>
      {SIDES.map((side) => {
        const gap = gaps[side];
        return gap ? (
          <Row key={side} label={wordOf(side)} note={boundWord(model, gap.kind, gap.id)}>
            <LengthField
              label={wordOf(side)}
              metres={gap.distance}
              units={units}
              onRefuse={say}
              onCommit={(v) => arranging.doWorked(arranging.atDistance(id, side, v))}
            />
          </Row>
        ) : null;
      })}
      <Presses>
        <Showing worked={() => arranging.backed(id)}>Back to the wall</Showing>
        <Showing worked={() => arranging.inMiddle(id, 'across')}>Middle across</Showing>
        <Showing worked={() => arranging.inMiddle(id, 'along')}>Middle along</Showing>
        <Showing worked={() => arranging.beforeOpening(id)}>Before the window</Showing>
        <Showing worked={() => arranging.faced(id)}>Face about</Showing>
      </Presses>
    </>
  );
}
