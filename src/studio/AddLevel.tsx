'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import IconButton from '@mui/material/IconButton';
import Popover from '@mui/material/Popover';
import Radio from '@mui/material/Radio';
import RadioGroup from '@mui/material/RadioGroup';
import { PlusIcon } from '@phosphor-icons/react';
import { useState } from 'react';
import { colours } from './look/theme';
import { useStudio } from './store/studio';
import { addLevel, TAKEN_OVER, type TakenOver } from './tools/levels';

const PLACES = [
  ['above', 'Above'],
  ['below', 'Below'],
  ['apart', 'Building apart'],
] as const;

/** A plus beside the levels: where the new one goes, and which walls it takes over. */
export function AddLevel() {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [walls, setWalls] = useState<TakenOver>('outer');
  const name = useStudio((s) => s.project.levels[s.level]?.name ?? '');
  return (
    <>
      <IconButton aria-label="Add level" title="Add a level" aria-haspopup="dialog" onClick={(e) => setAnchor(e.currentTarget)} sx={{ p: '3px', ml: 0.5 }}>
        <PlusIcon size={13} />
      </IconButton>
      <Popover open={anchor !== null} anchorEl={anchor} onClose={() => setAnchor(null)} anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}>
        <Box role="dialog" aria-label="Add level" sx={{ p: 1.5, width: 250, fontSize: 13 }}>
          <Box id="taken-over" sx={{ color: colours.second, mb: 0.5 }}>
            From {name}, it takes over
          </Box>
          <RadioGroup aria-labelledby="taken-over" value={walls} onChange={(e) => setWalls(e.target.value as TakenOver)}>
            {TAKEN_OVER.map(([key, words]) => (
              <FormControlLabel
                key={key}
                value={key}
                control={<Radio size="small" sx={{ p: 0.5 }} />}
                label={words}
                sx={{ '& .MuiFormControlLabel-label': { fontSize: 13 } }}
              />
            ))}
          </RadioGroup>
          <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75, mt: 1.25 }}>
            {PLACES.map(([where, words]) => (
              <Button
                key={where}
                size="small"
                onClick={() => {
                  setAnchor(null);
                  addLevel(useStudio.getState().level, where, walls);
                }}
              >
                {words}
              </Button>
            ))}
          </Box>
        </Box>
      </Popover>
    </>
  );
}
