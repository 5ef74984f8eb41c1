'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { insideFieldAdded, insideFieldRemoved, insideRowAdded, insideSet } from '@/core/cabinetry/dividing';
import { INSIDES, type Cell, type Inside, type InsideKind } from '@/core/project/schema/cabinets';
import { FieldTable, type Field } from '../../look/FieldTable';
import { colours } from '../../look/theme';
import { useEdit } from '../parts';

/** What is inside, in the words of the trade. */
const WORDS: Readonly<Record<InsideKind, string>> = {
  shelves: 'shelves',
  drawers: 'inner drawers',
  rail: 'hanging rail',
  baskets: 'wire baskets',
  bins: 'bins',
  carousel: 'carousel',
  plates: 'plate rack',
  bottles: 'bottle rack',
  shoes: 'shoe shelves',
  trousers: 'trouser rail',
  nothing: 'nothing',
};

/** Of what there can be several. */
const COUNTED: ReadonlySet<InsideKind> = new Set(['shelves', 'drawers', 'baskets', 'bins', 'carousel', 'shoes', 'trousers']);

/** The inside of a cell: rows from above, each of one field or several. */
export function InsideRows({ cell, set }: { cell: Cell; set(inside: Inside): boolean }) {
  const { units: system, say } = useEdit();
  const { inside, shelves } = cell;
  if (!inside.length)
    return (
      <Button size="small" onClick={() => set(insideRowAdded([], 0, shelves))}>
        Divide inside
      </Button>
    );
  return (
    <Box component="section" aria-label="Inside" sx={{ my: 0.5, pl: 1, borderLeft: `2px solid ${colours.hairline}` }}>
      {inside.flatMap(({ height, fields }, row) =>
        fields.map(({ width, kind, count }, column) => {
          const at = { row, column };
          const named = fields.length > 1 ? `${row + 1}, ${column + 1}` : `${row + 1}`;
          const rows: Field[] = [
            {
              kind: 'choice',
              label: `Inside ${named}`,
              value: kind,
              options: INSIDES.map((v) => [v, WORDS[v]] as const),
              set: (v) => set(insideSet(inside, at, { kind: v as InsideKind })),
            },
            COUNTED.has(kind)
              ? {
                  kind: 'number',
                  label: 'How many',
                  aria: `How many inside ${named}`,
                  value: count,
                  min: 0,
                  max: 20,
                  set: (n) => set(insideSet(inside, at, { count: Math.round(n) })),
                }
              : null,
            inside.length > 1 && column === 0
              ? { kind: 'length?', label: 'High', aria: `Height inside ${named}`, value: height, auto: 'shares', set: (h) => set(insideSet(inside, at, {}, h)) }
              : null,
            fields.length > 1
              ? {
                  kind: 'length?',
                  label: 'Wide',
                  aria: `Width inside ${named}`,
                  value: width,
                  auto: 'shares',
                  set: (w) => set(insideSet(inside, at, { width: w })),
                }
              : null,
          ];
          return (
            <Box key={named} sx={{ pb: 0.5 }}>
              <FieldTable units={system} say={say} fields={rows} />
              <Box sx={{ display: 'flex', gap: 0.5 }}>
                <Button size="small" aria-label={`Below inside ${named}`} onClick={() => set(insideRowAdded(inside, row, 1))}>
                  Below
                </Button>
                <Button size="small" aria-label={`Beside inside ${named}`} onClick={() => set(insideFieldAdded(inside, at))}>
                  Beside
                </Button>
                <Button size="small" aria-label={`Take out inside ${named}`} onClick={() => set(insideFieldRemoved(inside, at))}>
                  Take out
                </Button>
              </Box>
            </Box>
          );
        }),
      )}
    </Box>
  );
}
