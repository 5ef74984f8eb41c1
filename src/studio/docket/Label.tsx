'use client';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import { CaretDownIcon, CaretUpIcon } from '@phosphor-icons/react';
import { useLayoutEffect, useRef, useState, type ReactNode } from 'react';
import { colours, LIFT, SERIF } from '../look/theme';
import { useStudio } from '../store/studio';
import { current } from '../table/model/ModelPane';

/** The label itself: a cut corner, an eyelet, a title in the book face. */
export function Label({
  title,
  line,
  children,
  folded,
  onFold,
  about = null,
}: {
  title: string;
  line: string;
  children: ReactNode;
  folded?: boolean;
  onFold?(): void;
  about?: string | null;
}) {
  const own = useRef<HTMLElement>(null);
  const aside = useAside(own, about);
  return (
    <Box
      component="aside"
      ref={own}
      data-testid="docket"
      aria-label={`Docket: ${title}`}
      sx={{
        position: 'absolute',
        ...(aside === null ? { right: 14 } : { left: aside }),
        top: 34,
        width: 236,
        maxHeight: 'calc(100% - 48px)',
        zIndex: 6,
        filter: `drop-shadow(${LIFT.cut})`,
        display: 'flex',
      }}
    >
      <Box
        sx={{
          bgcolor: colours.paper,
          border: `1px solid ${colours.firm}`,
          p: '14px 14px 12px',
          width: '100%',
          overflow: 'auto',
          clipPath: 'polygon(16px 0,100% 0,100% 100%,0 100%,0 16px)',
          position: 'relative',
          '&::before': {
            content: '""',
            position: 'absolute',
            left: 12,
            top: 12,
            width: 9,
            height: 9,
            border: `1.5px solid ${colours.third}`,
            borderRadius: '50%',
          },
        }}
      >
        <Box component="h2" sx={{ m: 0, ml: '18px', mr: '22px', font: `20px ${SERIF}`, lineHeight: 1.15, overflowWrap: 'anywhere' }}>
          {title}
        </Box>
        {onFold ? (
          <IconButton aria-label={folded ? 'Unfold the docket' : 'Fold the docket'} onClick={onFold} sx={{ position: 'absolute', right: 6, top: 8 }}>
            {folded ? <CaretDownIcon size={14} /> : <CaretUpIcon size={14} />}
          </IconButton>
        ) : null}
        <Box sx={{ ml: '18px', mb: folded ? 0 : 1, color: colours.third, fontSize: 12 }}>{line}</Box>
        {folded ? null : children}
      </Box>
    </Box>
  );
}

/**
 * Where the docket hangs so that it does not cover what it is about: at the table's right edge (null), or at the left
 * edge of the model, in pixels from the left of the table.
 */
function useAside(own: { current: HTMLElement | null }, about: string | null): number | null {
  const rests = useStudio((s) => s.rests);
  const moving = useStudio((s) => (about && (s.model.project.pieces[about] ?? s.model.project.openings[about])) || null);
  const layout = useStudio((s) => s.layout);
  const [aside, setAside] = useState<number | null>(null);
  useLayoutEffect(() => {
    const table = own.current?.offsetParent?.getBoundingClientRect();
    const pane = document.querySelector('[data-testid="model"]')?.getBoundingClientRect();
    const seen = moving && layout !== 'drawing' ? current.scene?.frameOf(about!) : null;
    if (!table || !pane || !seen || !own.current) return setAside(null);
    const { offsetWidth: width, offsetHeight: height } = own.current;
    const covered = (left: number): number => {
      const top = table.top + 34;
      const x = Math.min(seen.right, left + width) - Math.max(seen.left, left);
      const y = Math.min(seen.bottom, top + height) - Math.max(seen.top, top);
      return x > 0 && y > 0 ? x * y : 0;
    };
    const atLeft = Math.max(0, pane.left - table.left) + 14;
    const atRight = table.width - width - 14;
    setAside(covered(table.left + atRight) > covered(table.left + atLeft) ? atLeft : null);
  }, [own, about, moving, rests, layout]);
  return aside;
}
