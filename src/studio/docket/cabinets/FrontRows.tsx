'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { frontOf, followsCorner, type AssembledUnit } from '@/core/cabinetry/assemble';
import { cellDivided, cellRemoved, cellSet, cellSized, rowDivided, rowSized, type At } from '@/core/cabinetry/dividing';
import { isDrawn, type LaidCell } from '@/core/cabinetry/front';
import { handlesIn, heldAt } from '@/core/cabinetry/handles';
import { isWithoutFronts } from '@/core/cabinetry/fittings';
import { derivedOf } from '@/core/model/model';
import type { Cabinet } from '@/core/project/schema';
import { CELLS, HANDS, type Cell, type CellKind, type Construction, type FrontGrid, type Hand, type Held } from '@/core/project/schema/cabinets';
import { formatLength } from '@/core/units/length';
import { FieldTable, type Field } from '../../look/FieldTable';
import { colours } from '../../look/theme';
import { useStudio } from '../../store/studio';
import { takeCell, useFront } from '../../tools/fronts';
import { useEdit } from '../parts';
import { InsideRows } from './InsideRows';
import { plain } from './RunDocket';

/** What closes a cell, in the words of the trade. */
const CLOSED: Readonly<Record<CellKind, string>> = {
  door: 'door',
  drawer: 'drawer',
  'pan drawer': 'pan drawer',
  dummy: 'dummy drawer front',
  open: 'nothing, it is open',
  glazed: 'glazed door',
  appliance: 'an appliance',
  niche: 'nothing, a niche',
  panel: 'fixed panel',
};

const HANGS: Readonly<Record<Hand, string>> = {
  left: 'left',
  right: 'right',
  pair: 'a pair',
  up: 'flap up',
  down: 'flap down',
  sliding: 'sliding',
  pocket: 'into pockets',
  'pull-out': 'pull-out',
};

/** Height of the drawing of a front, pixels. */
const HIGH = 132;
const WIDE = 206;

/** A front as it is divided, small: each cell a button that takes it in hand. */
function Cells({ cells, width, height, at, take }: { cells: readonly LaidCell[]; width: number; height: number; at: At; take(at: At): void }) {
  const k = Math.min(WIDE / width, HIGH / height);
  return (
    <Box
      role="radiogroup"
      aria-label="Cells of the front"
      sx={{ position: 'relative', width: width * k, height: height * k, my: 0.75, border: `1px solid ${colours.second}` }}
    >
      {cells.map(({ row, column, cell, field, leaves }) => {
        const on = row === at.row && column === at.column;
        return (
          <Box
            key={`${row} ${column}`}
            component="button"
            type="button"
            role="radio"
            aria-checked={on}
            aria-label={`Row ${row + 1}, cell ${column + 1}: ${CLOSED[cell.kind]}`}
            title={`${CLOSED[cell.kind]}${leaves.length > 1 ? ', a pair' : ''}`}
            onClick={() => take({ row, column })}
            sx={{
              all: 'unset',
              position: 'absolute',
              boxSizing: 'border-box',
              cursor: 'pointer',
              left: field.x0 * k,
              width: (field.x1 - field.x0) * k,
              top: (height - field.z1) * k,
              height: (field.z1 - field.z0) * k,
              border: `1px solid ${on ? colours.damson : colours.edge}`,
              bgcolor: on ? colours.damsonTint : leaves.length ? colours.paper : colours.veil,
              fontSize: 10.5,
              color: colours.second,
              display: 'grid',
              placeItems: 'center',
              overflow: 'hidden',
              '&:focus-visible': { outline: `2px solid ${colours.damson}` },
            }}
          >
            {field.z1 - field.z0 > 0.11 && field.x1 - field.x0 > 0.16 ? cell.kind : ''}
          </Box>
        );
      })}
    </Box>
  );
}

/** Where the handle of a cell is: by rule, or put somewhere by hand. */
function handleFields(at: LaidCell, { unit, look }: AssembledUnit, made: Construction, set: (held: Held | null) => boolean): Field[] {
  const lift = unit.band === 'wall' ? 0 : made.plinth;
  const [leaf] = at.leaves;
  const [handle] = handlesIn({ cell: at.cell, leaves: at.leaves.slice(0, 1) }, unit.band, look, lift);
  if (!handle) return [];
  const { held } = at.cell;
  return [
    {
      kind: 'choice',
      label: 'Handle',
      aria: 'Where its handle is',
      value: held ? 'hand' : 'rule',
      options: [
        ['rule', 'by rule'],
        ['hand', 'put by hand'],
      ],
      set: (v) => set(v === 'rule' ? null : heldAt(leaf, { ...handle, z: handle.z - lift })),
    },
    held && {
      kind: 'choice',
      label: 'Handle, from',
      aria: 'Side the handle is measured from',
      value: held.from,
      options: plain(['left', 'right']),
      set: (v) => set({ ...held, from: v as Held['from'], in: leaf.x1 - leaf.x0 - held.in }),
    },
    held && { kind: 'length', label: 'Handle, in', aria: 'How far the handle is from that side', value: held.in, set: (by) => set({ ...held, in: by }) },
    held && {
      kind: 'length',
      label: 'Handle, up',
      aria: 'How far the handle is from the foot of the front',
      value: held.up,
      set: (up) => set({ ...held, up }),
    },
    held && {
      kind: 'choice',
      label: 'Handle, lies',
      aria: 'Which way the handle lies',
      value: held.upright ? 'upright' : 'level',
      options: plain(['upright', 'level']),
      set: (v) => set({ ...held, upright: v === 'upright' }),
    },
  ];
}

/** The front of a unit: its cells, what closes each, how large they are; divided across and down. */
export function FrontRows({ unit }: { unit: Cabinet }) {
  const { units: system, run: edit, say } = useEdit();
  const derived = useStudio((s) => derivedOf(s.model, 'runs').find((r) => r.id === unit.run));
  const front = useFront();
  const own = derived?.units.find((u) => u.unit.id === unit.id);
  if (!derived || !own || unit.bare || isWithoutFronts(unit)) return null;
  const { made } = derived.run;
  const grid = unit.front;
  const put = (next: FrontGrid): boolean => edit('unit.put', { ...unit, front: next });
  if (followsCorner(own)) {
    const cell = grid[0]?.cells[0];
    if (!cell) return null;
    const kinds = ['door', 'glazed', 'open'] as const;
    return (
      <FieldTable
        units={system}
        say={say}
        fields={[
          {
            kind: 'choice',
            label: 'Closed with',
            value: cell.kind,
            options: kinds.map((v) => [v, CLOSED[v]] as const),
            set: (v) => put(cellSet(grid, { row: 0, column: 0 }, { kind: v as CellKind })),
          },
          {
            kind: 'choice',
            label: 'Hangs',
            value: cell.hand ?? '',
            options: [
              ['', 'at the right'],
              ['left', 'at the left'],
            ],
            set: (v) => put(cellSet(grid, { row: 0, column: 0 }, { hand: (v || null) as Hand | null })),
          },
          {
            kind: 'number',
            label: 'Shelves',
            value: cell.shelves,
            min: 0,
            max: 20,
            set: (shelves) => put(cellSet(grid, { row: 0, column: 0 }, { shelves: Math.round(shelves) })),
          },
        ]}
      />
    );
  }
  // The panel of a unit that runs blind into a corner is no cell of its own.
  const whole = frontOf(own, made);
  const blind = own.placed.corner === 'blind right';
  const laid = {
    ...whole,
    cells: whole.cells.flatMap((c): LaidCell[] => {
      const column = c.column - (blind ? 1 : 0);
      return column >= 0 && column < (grid[c.row]?.cells.length ?? 0) ? [{ ...c, column }] : [];
    }),
  };
  if (!laid.cells.length) return null;
  const inHand = front.unit === unit.id && grid[front.at.row]?.cells[front.at.column] ? front.at : { row: 0, column: 0 };
  const cell: Cell = grid[inHand.row].cells[inHand.column];
  const at = laid.cells.find((c) => c.row === inHand.row && c.column === inHand.column)!;
  const take = (next: At): void => takeCell(unit.id, next);
  const fitted = (next: FrontGrid | { lacks: number }): boolean => {
    if (Array.isArray(next)) return put(next);
    say(`Nothing was changed: it needs ${formatLength(next.lacks, system)} more than its neighbours can give.`);
    return false;
  };
  const hung = cell.kind === 'door' || cell.kind === 'glazed';
  const hand = at.leaves.length > 1 ? 'pair' : (at.leaves[0]?.hand ?? 'left');
  const filled = hung || cell.kind === 'open' || cell.kind === 'niche';
  const fields: Field[] = [
    {
      kind: 'choice',
      label: 'Closed with',
      value: cell.kind,
      options: CELLS.map((v) => [v, CLOSED[v]] as const),
      set: (v) => put(cellSet(grid, inHand, { kind: v as CellKind })),
    },
    hung
      ? {
          kind: 'choice',
          label: 'Opens',
          aria: 'How it opens',
          value: cell.hand ?? '',
          options: [['', `(${HANGS[hand]})`], ...HANDS.map((v) => [v, HANGS[v]] as const)],
          set: (v) => put(cellSet(grid, inHand, { hand: (v || null) as Hand | null })),
        }
      : null,
    grid.length > 1
      ? {
          kind: 'length?',
          label: 'Row, high',
          value: grid[inHand.row].height,
          auto: formatLength(at.field.z1 - at.field.z0, system),
          set: (height) => fitted(rowSized(grid, laid, inHand.row, height)),
        }
      : null,
    grid[inHand.row].cells.length > 1
      ? {
          kind: 'length?',
          label: 'Cell, wide',
          value: cell.width,
          auto: formatLength(at.field.x1 - at.field.x0, system),
          set: (width) => fitted(cellSized(grid, laid, inHand, width)),
        }
      : null,
    (filled && !cell.inside.length && !isDrawn(cell)) || (isDrawn(cell) && cell.hand === 'pull-out' && !cell.inside.length)
      ? { kind: 'number', label: 'Shelves', value: cell.shelves, min: 0, max: 20, set: (n) => put(cellSet(grid, inHand, { shelves: Math.round(n) })) }
      : null,
    ...handleFields(at, own, made, (held) => put(cellSet(grid, inHand, { held }))),
  ];
  return (
    <Box component="section" aria-label="Front" sx={{ borderTop: `1px solid ${colours.hairline}`, mt: 0.75, pt: 0.25 }}>
      <Cells cells={laid.cells} width={own.size.width} height={own.size.height} at={inHand} take={take} />
      <FieldTable units={system} say={say} fields={fields} />
      {filled ? <InsideRows cell={cell} set={(inside) => put(cellSet(grid, inHand, { inside }))} /> : null}
      <Box sx={{ display: 'flex', gap: 0.75, mt: 0.5, flexWrap: 'wrap' }}>
        <Button size="small" disabled={grid.length >= 20} onClick={() => put(rowDivided(grid, laid, inHand.row))}>
          Divide across
        </Button>
        <Button size="small" disabled={grid[inHand.row].cells.length >= 12} onClick={() => put(cellDivided(grid, laid, inHand))}>
          Divide down
        </Button>
        {grid.length > 1 || grid[0].cells.length > 1 ? (
          <Button
            size="small"
            onClick={() => {
              if (put(cellRemoved(grid, laid, inHand))) take({ row: Math.max(0, inHand.row - 1), column: 0 });
            }}
          >
            Remove cell
          </Button>
        ) : null}
      </Box>
    </Box>
  );
}
