'use client';
import Autocomplete from '@mui/material/Autocomplete';
import Box from '@mui/material/Box';
import TextField from '@mui/material/TextField';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { inOrder, sayRun, unitsFrom } from '@/core/cabinetry/line';
import { completed, completions, lastSaid } from '@/core/cabinetry/said';
import { legsAround } from '@/core/cabinetry/sides';
import type { Cabinet, Run } from '@/core/project/schema';
import { newId, useStudio } from '../../store/studio';
import { useEdit } from '../parts';

/** The units of a run, from the left. */
export function useUnits(run: string): Cabinet[] {
  const cabinets = useStudio((s) => s.project.cabinets);
  return useMemo(() => inOrder(Object.values(cabinets).filter((u) => u.run === run)), [cabinets, run]);
}

/** The units of a run, typed in one line in the words of the trade; they are shown as they are typed. */
export function LineField({ run }: { run: Run }) {
  const { units: system, say } = useEdit();
  const units = useUnits(run.id);
  const said = sayRun(units, system);
  const [typed, setTyped] = useState<string | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  // Words that end what is typed are offered; Enter takes the one that was gone to, else the line.
  const [offered, setOffered] = useState(false);
  const gone = useRef<string | null>(null);
  // New units have the same ids from one letter to the next: what is shown is what is done.
  const ids = useRef<string[]>([]);
  const text = typed ?? said;
  const read = (line: string): ReturnType<typeof unitsFrom> => {
    let next = 0;
    return unitsFrom(line, run.id, units, system, () => (ids.current[next++] ??= newId('unit')));
  };
  const leave = (): void => {
    useStudio.getState().endPreview();
    ids.current = [];
    setTyped(null);
    setMessage(null);
  };
  useEffect(() => () => useStudio.getState().endPreview(), []);
  // A corner unit takes the run round the corner.
  const laid = (own: Cabinet[]): { run: Run; units: Cabinet[] } => ({
    run: { ...run, legs: legsAround(run, own, useStudio.getState().model.shell) },
    units: own,
  });
  const type = (line: string): void => {
    setTyped(line);
    let now = read(line);
    // A word that is still being typed waits to be whole: what stands before it is shown.
    if (!now.ok && completions(line).length) now = read(line.slice(0, lastSaid(line)));
    setMessage(now.ok ? useStudio.getState().preview('run.lay', laid(now.units)) : now.message);
  };
  const take = (): void => {
    if (typed === null || typed === said) return leave();
    const now = read(typed);
    if (!now.ok) return say(now.message);
    if (useStudio.getState().run('run.lay', laid(now.units))) leave();
  };
  return (
    <Box sx={{ my: 0.75 }}>
      <Autocomplete
        freeSolo
        disableClearable
        multiple={false}
        options={typed === null ? [] : completions(text)}
        filterOptions={(all) => all}
        value={text}
        inputValue={text}
        onInputChange={(_, line, reason) => {
          if (reason !== 'input') return;
          gone.current = null;
          type(line.replace(/\s*\n\s*/g, ' '));
        }}
        onChange={(_, word, reason) => reason === 'selectOption' && type(completed(text, word))}
        open={offered && typed !== null}
        onOpen={() => setOffered(true)}
        onClose={() => setOffered(false)}
        onHighlightChange={(_, word) => (gone.current = word)}
        onKeyDown={(e: KeyboardEvent & { defaultMuiPrevented?: boolean }) => {
          e.stopPropagation();
          if (e.key === 'Escape' && !offered) leave();
          if (e.key !== 'Enter' || (offered && gone.current !== null)) return;
          e.preventDefault();
          e.defaultMuiPrevented = true;
          take();
        }}
        renderInput={(params) => (
          <TextField
            {...params}
            variant="standard"
            multiline
            label="Units, from the left"
            placeholder="600 drawers, 800 sink, rest door"
            error={message !== null}
            helperText={message ?? (typed !== null && typed !== said ? 'Enter takes it' : ' ')}
            onBlur={take}
          />
        )}
      />
    </Box>
  );
}
