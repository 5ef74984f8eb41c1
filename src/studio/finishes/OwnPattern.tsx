'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { cutUnit, joinUnits, type Cell } from '@/core/project/laying-cell';
import type { Laying } from '@/core/project/schema';
import { LengthRows } from '../look/LengthRows';
import { colours } from '../look/theme';

export const FIRST_CELL: Cell = {
  width: 0.6,
  height: 0.4,
  units: [
    { x: 0, y: 0, width: 0.4, height: 0.4 },
    { x: 0.4, y: 0, width: 0.2, height: 0.2 },
    { x: 0.4, y: 0.2, width: 0.2, height: 0.2 },
  ],
};

/** Pixels of the drawing. */
const SIZE = { width: 206, height: 150 };

/** A pattern of one's own: units are cut in two and joined in the drawing, or typed. What is cut always covers all of it. */
export function OwnPattern({ laying, onSet, say }: { laying: Laying; onSet(cell: Cell): boolean; say(text: string): void }) {
  const cell = laying.cell ?? FIRST_CELL;
  const [picked, setPicked] = useState<number[]>([]);
  const put = (next: Cell | null, wrong: string): void => {
    if (!next) return say(wrong);
    if (onSet(next)) setPicked([]);
  };
  const cut = (along: boolean): void =>
    put(picked.length === 1 ? cutUnit(cell, picked[0], along) : null, 'Nothing was cut: press the one unit that is to be cut first.');
  // Half of what repeats is shown again beside and above it.
  const k = Math.min(SIZE.width / (cell.width * 1.5), SIZE.height / (cell.height * 1.5));
  return (
    <Box sx={{ mt: 0.5, fontSize: 11.5, color: colours.third }}>
      <svg width={SIZE.width} height={cell.height * 1.5 * k} role="group" aria-label="Pattern, drawn" style={{ display: 'block', background: colours.paper }}>
        {[-1, 0, 1].flatMap((c) =>
          [-1, 0, 1].flatMap((r) =>
            cell.units.map((u, i) => (
              <rect
                key={`${c} ${r} ${i}`}
                x={(u.x + c * cell.width) * k}
                y={(cell.height * 1.5 - (u.y + r * cell.height) - u.height) * k}
                width={u.width * k}
                height={u.height * k}
                fill={picked.includes(i) ? colours.damsonWash : c === 0 && r === 0 ? colours.panel : colours.paper}
                stroke={c === 0 && r === 0 ? colours.ink : colours.hairline}
                style={{ cursor: 'pointer' }}
                role="button"
                aria-label={c === 0 && r === 0 ? `Unit ${i + 1}` : undefined}
                aria-hidden={c !== 0 || r !== 0}
                aria-pressed={picked.includes(i)}
                tabIndex={c === 0 && r === 0 ? 0 : -1}
                onClick={() => setPicked(picked.includes(i) ? picked.filter((n) => n !== i) : [...picked.slice(-1), i])}
                onKeyDown={(e) => {
                  if (e.key === 'Enter' || e.key === ' ') setPicked(picked.includes(i) ? picked.filter((n) => n !== i) : [...picked.slice(-1), i]);
                }}
              />
            )),
          ),
        )}
      </svg>
      <Box sx={{ display: 'flex', gap: 0.5, my: 0.5, '& button': { whiteSpace: 'nowrap', px: 0.75 } }}>
        <Button size="small" onClick={() => cut(false)}>
          Cut across
        </Button>
        <Button size="small" onClick={() => cut(true)}>
          Cut along
        </Button>
        <Button
          size="small"
          onClick={() =>
            put(picked.length === 2 ? joinUnits(cell, picked[0], picked[1]) : null, 'Nothing was joined: press two units that make a rectangle together first.')
          }
        >
          Join
        </Button>
      </Box>
      Or typed: what repeats, then a line a unit: from left, from below, width, height, all in mm, joints included.
      <LengthRows
        label="Pattern of one’s own"
        rows={[[cell.width, cell.height], ...cell.units.map((u) => [u.x, u.y, u.width, u.height])]}
        fits={([size, ...units]) => size === 2 && units.length > 0 && units.every((n) => n === 4)}
        wrong="The pattern was not set: the first line holds two numbers, every other line four, in millimetres."
        say={say}
        onSet={([[width, height], ...units]) => onSet({ width, height, units: units.map(([x, y, w, h]) => ({ x, y, width: w, height: h })) })}
      />
    </Box>
  );
}
