'use client';
import { useDraggable } from '@dnd-kit/core';
import Box from '@mui/material/Box';
import Input from '@mui/material/Input';
import Tab from '@mui/material/Tab';
import MuiTabs from '@mui/material/Tabs';
import type { ReactNode } from 'react';
import type { StockItem } from '@/core/stock/types';
import { formatLength } from '@/core/units/length';
import { Coming } from '../look/Coming';
import { colours } from '../look/theme';
import { useStudio } from '../store/studio';
import { useStockPicture } from './stockPictures';

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
  <Box sx={{ display: 'flex', gap: '9px', overflowX: 'auto', pb: '8px', pr: 2, scrollbarWidth: 'thin' }}>{children}</Box>
);

interface CardProps {
  name: string;
  line: string;
  on?: boolean;
  picture: ReactNode;
  onPress(): void;
  drag?: { id: string; data: Record<string, string> };
}

/** A card of the ledge: pressed, or dragged onto the table. */
export function Card({ name, line, on, picture, onPress, drag }: CardProps) {
  const draggable = useDraggable({ id: drag?.id ?? `still ${name}`, data: drag?.data, disabled: !drag });
  return (
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
      <Box sx={{ height: 58, mb: '3px', borderBottom: `1px solid ${colours.table}`, display: 'grid', placeItems: 'center', overflow: 'hidden' }}>{picture}</Box>
      <Box sx={{ px: '7px', fontWeight: 550, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>{name}</Box>{' '}
      <Box sx={{ px: '7px', color: colours.third, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>{line}</Box>
    </Box>
  );
}

/** A piece of the stock, to be placed. */
export function StockCard({ item }: { item: StockItem }) {
  const tool = useStudio((s) => s.tool);
  const units = useStudio((s) => s.project.units);
  const url = useStockPicture(item.id);
  return (
    <Card
      name={item.name}
      line={`${formatLength(item.size.width, units)} × ${formatLength(item.size.depth, units)}`}
      on={tool.kind === 'place' && tool.maker === item.id}
      onPress={() => useStudio.getState().setTool({ kind: 'place', maker: item.id })}
      drag={{ id: `stock ${item.id}`, data: { kind: 'stock', maker: item.id } }}
      picture={
        url ? (
          <img src={url} alt="" height={57} draggable={false} />
        ) : (
          <Box sx={{ position: 'relative', width: '100%', height: '100%' }}>
            <Coming />
          </Box>
        )
      }
    />
  );
}

/** A small line drawing on a card. */
export const Line = ({ children }: { children: ReactNode }) => (
  <svg width="60" height="46" viewBox="0 0 60 46" fill="none" stroke={colours.ink} strokeWidth="1.3" aria-hidden="true">
    {children}
  </svg>
);
