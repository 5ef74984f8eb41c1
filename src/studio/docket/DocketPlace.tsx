'use client';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import { CaretLeftIcon, CaretRightIcon } from '@phosphor-icons/react';
import { create } from 'zustand';
import { colours } from '../look/theme';
import { useStudio } from '../store/studio';
import { hintFor } from '../tools/hints';

/** Where the label hangs; null while the place is folded. */
export const usePlace = create<{ slot: HTMLElement | null }>(() => ({ slot: null }));

const WIDTH = 248;

/** The place of the docket at the right of the table: it folds away, and never lies over what is worked on. */
export function DocketPlace() {
  const open = useStudio((s) => s.docket);
  const chosen = useStudio((s) => s.selection.length > 0);
  const tool = useStudio((s) => s.tool);
  const fold = (): void => useStudio.setState({ docket: !open });
  return (
    <Box
      sx={{
        position: 'relative',
        width: open ? WIDTH : 26,
        minHeight: 0,
        borderLeft: `1px solid ${colours.firm}`,
        bgcolor: colours.strip,
        display: 'flex',
        flexDirection: 'column',
      }}
    >
      <Tooltip title={open ? 'Fold the docket away' : 'Unfold the docket'} placement="left">
        <IconButton
          aria-label={open ? 'Fold the docket' : 'Unfold the docket'}
          aria-expanded={open}
          onClick={fold}
          sx={{ position: 'absolute', right: open ? 12 : 1, top: open ? 14 : 4, zIndex: 1, p: '4px' }}
        >
          {open ? <CaretRightIcon size={14} /> : <CaretLeftIcon size={14} color={chosen ? colours.damson : undefined} />}
        </IconButton>
      </Tooltip>
      {open ? (
        <>
          <Box
            ref={(slot: HTMLElement | null) => usePlace.setState({ slot })}
            sx={{ p: '6px', minHeight: 0, maxHeight: '100%', display: 'flex', '&:empty': { display: 'none' }, '&:not(:empty) + *': { display: 'none' } }}
          />
          <Box sx={{ p: '16px 40px 0 16px', fontSize: 12.5, color: colours.third }}>
            {hintFor(tool) || 'Nothing is selected. Press a thing in the drawing or in the model: its sizes and finishes show here.'}
          </Box>
        </>
      ) : (
        <Box component="span" sx={{ writingMode: 'vertical-rl', mt: '34px', mx: 'auto', fontSize: 12, color: colours.third }}>
          Docket
        </Box>
      )}
    </Box>
  );
}
