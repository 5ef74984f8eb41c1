'use client';
import Box from '@mui/material/Box';
import { useRef, useState } from 'react';
import { cornersOf, draggedCorner } from '@/core/geometry/corners';
import type { Vec2 } from '@/core/geometry/vec';
import type { Profile } from '@/core/project/schema';
import { LengthRows } from '../look/LengthRows';
import { colours } from '../look/theme';
import { newId, useStudio } from '../store/studio';

/** Pixels of the drawing, and the space round the section. */
const SIZE = { width: 206, height: 180 };
const MARGIN = 22;

/** A section of one's own: its points dragged in a drawing, to the millimetre, or typed from the lower back corner up. */
export function OwnSection({ from, onSet, say }: { from: Profile | null; onSet(profile: Profile): boolean; say(text: string): void }) {
  const kept = useStudio((s) => (from ? Object.hasOwn(s.project.profiles, from.id) : false));
  const points = from?.points ?? [];
  const [meant, setMeant] = useState<Vec2[] | null>(null);
  const drag = useRef<number | null>(null);
  const svg = useRef<SVGSVGElement>(null);
  const shown = meant ?? points;
  // The scale follows what is kept, so that nothing jumps under the pointer.
  const k = Math.min(
    (SIZE.width - 2 * MARGIN) / Math.max(0.02, ...points.map((p) => p.x * 1.5)),
    (SIZE.height - 2 * MARGIN) / Math.max(0.02, ...points.map((p) => p.y)),
  );
  const put = (list: Vec2[]): boolean =>
    onSet({
      // One's own is changed where it is; a shipped one is changed as one's own.
      id: kept ? from!.id : newId('profile'),
      name: kept ? from!.name : 'Own section',
      use: from?.use ?? 'rail',
      price: from?.price ?? 8,
      points: list,
    });
  const at = (e: React.PointerEvent): Vec2 => {
    const box = svg.current!.getBoundingClientRect();
    const mm = (v: number): number => Math.max(0, Math.round((v / k) * 1000) / 1000);
    return { x: mm(e.clientX - box.left - MARGIN), y: mm(SIZE.height - MARGIN - (e.clientY - box.top)) };
  };
  const screen = (p: Vec2): string => `${(MARGIN + p.x * k).toFixed(1)} ${(SIZE.height - MARGIN - p.y * k).toFixed(1)}`;
  const back = shown.length ? [...shown, { x: 0, y: shown[shown.length - 1].y }, { x: 0, y: shown[0].y }] : [];
  return (
    <Box sx={{ fontSize: 11.5, color: colours.third, mt: 0.5 }}>
      <svg
        ref={svg}
        width={SIZE.width}
        height={SIZE.height}
        role="application"
        aria-label="Section, drawn: drag its points"
        style={{ display: 'block', background: colours.paper, touchAction: 'none' }}
        onPointerDown={(e) => {
          const handle = (e.target as Element).getAttribute('data-handle');
          if (handle === null) return;
          drag.current = Number(handle);
          e.currentTarget.setPointerCapture(e.pointerId);
        }}
        onPointerMove={(e) => {
          if (drag.current !== null) setMeant(draggedCorner(points, drag.current, at(e), false, 0.0005));
        }}
        onPointerUp={() => {
          drag.current = null;
          if (meant) put(meant);
          setMeant(null);
        }}
      >
        <path d={`M${MARGIN} 4V${SIZE.height - 4}`} stroke={colours.firm} />
        <path d={`M${back.map(screen).join('L')}Z`} fill={colours.section} stroke={colours.ink} strokeWidth="1.1" />
        {cornersOf(shown, false).map(({ at: p, adds }, i) => {
          const [cx, cy] = screen(p).split(' ');
          return (
            <circle
              key={i}
              data-handle={i}
              cx={cx}
              cy={cy}
              r={adds ? 2.5 : 4}
              fill={colours.paper}
              stroke={colours.damson}
              strokeWidth="1.2"
              style={{ cursor: 'grab' }}
            >
              <title>{adds ? 'Drag to add a point' : `${Math.round(p.x * 1000)} out, ${Math.round(p.y * 1000)} up, mm`}</title>
            </circle>
          );
        })}
      </svg>
      Or a line a point: out from the wall, up, in mm; from the lower back corner to the upper one.
      <LengthRows
        label="Own section"
        rows={points.map((p) => [p.x, p.y])}
        fits={(counts) => counts.length > 1 && counts.every((n) => n === 2)}
        wrong="The section was not set: every line holds two numbers in millimetres, none below nought."
        say={say}
        onSet={(rows) => put(rows.map(([x, y]) => ({ x, y })))}
      />
    </Box>
  );
}
