'use client';
import { useDraggable } from '@dnd-kit/core';
import Box from '@mui/material/Box';
import Input from '@mui/material/Input';
import Tab from '@mui/material/Tab';
import MuiTabs from '@mui/material/Tabs';
import Tooltip from '@mui/material/Tooltip';
import type { ReactNode } from 'react';
import type { StockCard as StockCardOf } from '@/core/stock/types';
import { formatLength } from '@/core/units/length';
import { Coming } from '../look/Coming';
import { arrowThrough } from '../look/focus';
import { colours } from '../look/theme';
import { useStudio } from '../store/studio';
import type { LibraryEntry } from '../store/api';
import { cardOfSet } from '../tools/sets';
import { useSetPicture, useStockPicture } from './stockPictures';

/** Puts what a part of the ledge sets beside the tabs. */
export interface Beside {
  beside(more: ReactNode): ReactNode;
}

/** Tabs, gone through with the arrow keys, with a field to search what they hold. */
export function Tabs<T extends string>({
  tabs,
  tab,
  onTab,
  find,
  onFind,
  placeholder,
  children,
}: {
  tabs: readonly T[];
  tab: NoInfer<T>;
  onTab(tab: NoInfer<T>): void;
  find?: string;
  onFind?(text: string): void;
  placeholder?: string;
  children?: ReactNode;
}) {
  return (
    <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', fontSize: 12, color: colours.second, pr: 2, minHeight: 21 }}>
      <MuiTabs
        value={tab}
        selectionFollowsFocus
        sx={{
          minHeight: 21,
          flex: 'none',
          '& .MuiTabs-list': { gap: '16px' },
          '& .MuiTabs-indicator': { bgcolor: colours.damson, transition: 'none' },
        }}
        onChange={(_, t: T) => onTab(t)}
      >
        {tabs.map((t) => (
          <Tab
            key={t}
            value={t}
            label={t}
            // Pressed again, it shows all of itself.
            onClick={() => onFind?.('')}
            sx={{
              minHeight: 21,
              minWidth: 0,
              p: '0 0 2px',
              fontSize: 12,
              lineHeight: 1.4,
              fontWeight: 400,
              textTransform: 'none',
              fontStretch: 'inherit',
              color: colours.second,
              '&.Mui-selected': { color: colours.ink, fontWeight: 600 },
            }}
          />
        ))}
      </MuiTabs>
      {children}
      {onFind ? <Find text={find ?? ''} onText={onFind} placeholder={placeholder ?? ''} /> : null}
    </Box>
  );
}

/** A field to search the ledge. */
export const Find = ({ text, onText, placeholder }: { text: string; onText(text: string): void; placeholder: string }) => (
  <Input
    value={text}
    onChange={(e) => onText(e.target.value)}
    onKeyDown={(e) => e.stopPropagation()}
    placeholder={placeholder}
    inputProps={{ 'aria-label': placeholder }}
    sx={{ ml: 'auto', width: 180, minWidth: 90 }}
  />
);

export const Cards = ({ children }: { children: ReactNode }) => (
  <Box
    role="group"
    aria-label="Cards"
    onKeyDown={(e: React.KeyboardEvent<HTMLElement>) => void arrowThrough(e, 'button', 'across')}
    sx={{ display: 'flex', gap: '9px', overflowX: 'auto', pb: '8px', pr: 2, scrollbarWidth: 'thin' }}
  >
    {children}
  </Box>
);

interface CardProps {
  name: string;
  line: string;
  on?: boolean;
  picture: ReactNode;
  /** What it is seen as at a second look, large, before it is used. */
  large?: ReactNode;
  onPress(): void;
  drag?: { id: string; data: Record<string, string> };
}

/** How long the pointer rests on a card before it is shown large, milliseconds. */
const SECOND_LOOK = 500;

/** A card of the ledge: pressed, or dragged onto the table. */
export function Card({ name, line, on, picture, large, onPress, drag }: CardProps) {
  const draggable = useDraggable({ id: drag?.id ?? `still ${name}`, data: drag?.data, disabled: !drag });
  const card = (
    <Box
      component="button"
      type="button"
      ref={draggable.setNodeRef}
      {...draggable.listeners}
      onClick={(e: React.MouseEvent) => {
        onPress?.();
        // Chosen by a key, a tool goes on in the drawing.
        if (e.detail === 0 && useStudio.getState().tool.kind !== 'select') document.querySelector<HTMLElement>('[data-testid="plan"]')?.focus();
      }}
      aria-pressed={Boolean(on)}
      aria-label={`${name}, ${line}`}
      sx={{
        all: 'unset',
        boxSizing: 'border-box',
        cursor: 'pointer',
        width: 104,
        flex: 'none',
        display: 'flex',
        flexDirection: 'column',
        bgcolor: colours.paper,
        border: `1px solid ${colours.hairline}`,
        fontSize: 11.5,
        lineHeight: 1.25,
        pb: '4px',
        touchAction: 'none',
        opacity: draggable.isDragging ? 0.5 : 1,
        outline: on ? `2px solid ${colours.damson}` : 'none',
        outlineOffset: -1,
        '&:hover': { borderColor: colours.third },
        '&:focus-visible': { outline: `2px solid ${colours.damson}` },
      }}
    >
      <Box sx={{ height: 44, flex: 'none', mb: '3px', borderBottom: `1px solid ${colours.table}`, display: 'grid', placeItems: 'center', overflow: 'hidden' }}>
        {picture}
      </Box>
      {/* Two lines hold the word that tells one from the next. */}
      <Box sx={{ px: '7px', fontWeight: 550, overflow: 'hidden', display: '-webkit-box', WebkitLineClamp: 2, WebkitBoxOrient: 'vertical' }}>{name}</Box>{' '}
      <Box sx={{ px: '7px', color: colours.third, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>{line}</Box>
    </Box>
  );
  return (
    <Tooltip
      describeChild
      disableInteractive
      enterDelay={SECOND_LOOK}
      enterNextDelay={SECOND_LOOK}
      placement="top"
      title={draggable.isDragging ? '' : (large ?? `${name}, ${line}`)}
      slotProps={{
        tooltip: {
          sx: { bgcolor: colours.paper, color: colours.ink, border: `1px solid ${colours.firm}`, borderRadius: '2px', p: 1, maxWidth: 'none', fontSize: 12 },
        },
      }}
    >
      {card}
    </Tooltip>
  );
}

/** Something large, with what is to be said of it below. */
export function Large({ name, lines, children }: { name: string; lines: readonly string[]; children: ReactNode }) {
  return (
    <Box sx={{ width: 320 }} data-testid="large">
      <Box sx={{ height: 200, display: 'grid', placeItems: 'center', overflow: 'hidden', border: `1px solid ${colours.hairline}`, mb: 0.5 }}>{children}</Box>
      <Box sx={{ fontWeight: 600 }}>{name}</Box>
      {lines.filter(Boolean).map((line) => (
        <Box key={line} sx={{ color: colours.second }}>
          {line}
        </Box>
      ))}
    </Box>
  );
}

/** A piece of the stock, to be placed. */
export function StockCard({ card }: { card: StockCardOf }) {
  const tool = useStudio((s) => s.tool);
  const units = useStudio((s) => s.project.units);
  const url = useStockPicture(card.id);
  return (
    <Card
      name={card.name}
      line={`${formatLength(card.size.width, units)} × ${formatLength(card.size.depth, units)}`}
      on={tool.kind === 'place' && tool.card === card.id}
      onPress={() => useStudio.getState().setTool({ kind: 'place', card: card.id })}
      drag={{ id: `stock ${card.id}`, data: { kind: 'stock', card: card.id } }}
      large={<LargePiece card={card} />}
      picture={
        url ? (
          <img src={url} alt="" height={43} draggable={false} />
        ) : (
          <Box sx={{ position: 'relative', width: '100%', height: '100%' }}>
            <Coming />
          </Box>
        )
      }
    />
  );
}

/** A set of one’s own library, to be placed. */
export function SetCard({ entry }: { entry: Extract<LibraryEntry, { kind: 'set' }> }) {
  const tool = useStudio((s) => s.tool);
  const url = useSetPicture(entry.id, entry.data);
  const card = cardOfSet(entry.id);
  return (
    <Card
      name={entry.name}
      line={`${entry.data.pieces.length} pieces`}
      on={tool.kind === 'place' && tool.card === card}
      onPress={() => useStudio.getState().setTool({ kind: 'place', card })}
      drag={{ id: `stock ${card}`, data: { kind: 'stock', card } }}
      picture={
        url ? (
          <img src={url} alt="" height={43} draggable={false} />
        ) : (
          <Box sx={{ position: 'relative', width: '100%', height: '100%' }}>
            <Coming />
          </Box>
        )
      }
    />
  );
}

function LargePiece({ card }: { card: StockCardOf }) {
  const units = useStudio((s) => s.project.units);
  const url = useStockPicture(card.id, 4);
  const { item } = card;
  const { width, depth, height } = card.size;
  return (
    <Large
      name={card.name}
      lines={[
        `${[width, depth, height].map((v) => formatLength(v, units)).join(' × ')}, width, depth, height`,
        Object.keys(item.parts).length > 1 ? `Parts: ${Object.keys(item.parts).join(', ')}` : '',
      ]}
    >
      {url ? <img src={url} alt="" height={198} /> : <Coming />}
    </Large>
  );
}

/** A small line drawing on a card. */
export const Line = ({ children }: { children: ReactNode }) => (
  <svg width="56" height="42" viewBox="0 0 60 46" fill="none" stroke={colours.ink} strokeWidth="1.3" aria-hidden="true">
    {children}
  </svg>
);
