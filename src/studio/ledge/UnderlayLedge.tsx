'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Slider from '@mui/material/Slider';
import { useRef, useState } from 'react';
import { laidUnder, stretchOf } from '@/core/project/underlay';
import { cutText } from '@/core/units/text';
import { formatLength } from '@/core/units/length';
import { NumberField } from '../look/fields';
import { colours } from '../look/theme';
import { useStudio } from '../store/studio';
import { useErrands } from '../errands/errands';
import { planPicture, PDF_TYPE } from './planPicture';
import { api } from '../store/api';
import { errorText } from '../store/sync';

/** The scanned plan under the drawing: chosen, brought to scale, turned, faded, held. */
export function UnderlayLedge() {
  const level = useStudio((s) => s.project.levels[s.level]);
  const units = useStudio((s) => s.project.units);
  const tool = useStudio((s) => s.tool);
  const input = useRef<HTMLInputElement>(null);
  const [pdf, setPdf] = useState<{ file: File; pages: number } | null>(null);
  const [busy, setBusy] = useState(false);
  const { run, say, setTool } = useStudio.getState();
  const underlay = level?.underlay ?? null;
  const set = (values: Partial<NonNullable<typeof underlay>>): boolean =>
    Boolean(underlay) && run('level.set', { id: level.id, set: { underlay: { ...underlay!, ...values } } });

  const take = async (file: File, page = 1): Promise<void> => {
    setBusy(true);
    try {
      const read = await useErrands.getState().carry(file.name, async (signal, tell) => {
        const picture = await planPicture(file, page);
        if (!picture.ok) return { picture, hash: '' };
        tell('Keeping');
        return { picture, hash: signal.aborted ? '' : await api.keepFile(picture.png, signal) };
      });
      if (!read) return;
      const { picture, hash } = read;
      if (!picture.ok) {
        say(picture.message);
        return;
      }
      setPdf(file.type === PDF_TYPE && picture.pages > 1 ? { file, pages: picture.pages } : null);
      const corners = Object.values(useStudio.getState().project.corners).filter((c) => c.level === level.id);
      const middle = corners.length
        ? { x: corners.reduce((sum, c) => sum + c.x, 0) / corners.length, y: corners.reduce((sum, c) => sum + c.y, 0) / corners.length }
        : { x: 0, y: 0 };
      const laid = laidUnder(hash, cutText(file.name, 120), picture.pixels, middle);
      if (run('level.set', { id: level.id, set: { underlay: underlay && page > 1 ? { ...underlay, image: hash, pixels: picture.pixels } : laid } }))
        setTool({ kind: 'underlay', step: 'first' });
    } catch (error) {
      say(errorText(error));
    } finally {
      setBusy(false);
    }
  };

  return (
    <Box sx={{ display: 'flex', gap: 3, alignItems: 'center', fontSize: 12.5, pr: 2, flexWrap: 'wrap', rowGap: 0.75 }}>
      <input
        ref={input}
        type="file"
        accept="image/png,image/jpeg,application/pdf"
        hidden
        aria-label="Plan picture"
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = '';
          if (file) void take(file);
        }}
      />
      <Button variant={underlay ? 'text' : 'contained'} disabled={busy} onClick={() => input.current?.click()}>
        {underlay ? 'Choose another picture' : 'Choose a plan picture'}
      </Button>
      {pdf ? (
        <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 0.75 }}>
          Page{' '}
          <Box sx={{ width: 36 }}>
            <NumberField label="Page" value={1} min={1} max={pdf.pages} onRefuse={say} onCommit={(page) => void take(pdf.file, Math.round(page))} />
          </Box>{' '}
          of {pdf.pages}
        </Box>
      ) : null}
      {underlay ? (
        <>
          <Button
            variant={tool.kind === 'underlay' && tool.step === 'first' ? 'contained' : 'text'}
            onClick={() => setTool({ kind: 'underlay', step: 'first' })}
          >
            Bring to scale
          </Button>
          <Button
            variant={tool.kind === 'underlay' && tool.step === 'second' ? 'contained' : 'text'}
            onClick={() => setTool({ kind: 'underlay', step: 'second' })}
          >
            Second length
          </Button>
          <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, width: 150 }}>
            Strength
            <Slider
              size="small"
              aria-label="Strength of the underlay"
              min={0.05}
              max={1}
              step={0.05}
              defaultValue={underlay.opacity}
              key={underlay.opacity}
              onChangeCommitted={(_, v) => set({ opacity: v as number })}
            />
          </Box>
          <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 0.75 }}>
            Turned
            <Box sx={{ width: 56 }}>
              <NumberField
                label="Turned, degrees"
                value={(underlay.rotation * 180) / Math.PI}
                min={-360}
                max={360}
                onRefuse={say}
                onCommit={(v) => set({ rotation: (v * Math.PI) / 180 })}
              />
            </Box>
            °
          </Box>
          <Button onClick={() => set({ held: !underlay.held })}>{underlay.held ? 'Let go' : 'Hold'}</Button>
          <Button onClick={() => set({ shown: !underlay.shown })}>{underlay.shown ? 'Hide' : 'Show'}</Button>
          <Button onClick={() => run('level.set', { id: level.id, set: { underlay: null } })}>Take away</Button>
          <Box sx={{ color: colours.second }} data-testid="underlay-figures">
            {underlay.name}: {formatLength(underlay.pixels.width * underlay.scale.x, units)} × {formatLength(underlay.pixels.height * underlay.scale.y, units)}
            {Math.abs(stretchOf(underlay)) > 5e-4 ? `, stretched by ${(stretchOf(underlay) * 100).toFixed(1)} %` : ''}
          </Box>
        </>
      ) : (
        <Box sx={{ color: colours.second }}>
          A PNG, a JPEG or a page of a PDF lies under the drawing of this level; two points of it and the length between them bring it to scale.
        </Box>
      )}
    </Box>
  );
}
