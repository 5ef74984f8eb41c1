'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useEffect, useRef } from 'react';
import { develop } from '@/core/render/development';
import { colours, PANEL, SERIF } from '../look/theme';
import { Developing } from './Developing';
import { useRender } from './render';

const minutes = (seconds: number): string =>
  seconds < 60 ? `${Math.max(1, Math.round(seconds))} s` : `${Math.floor(seconds / 60)} min ${Math.round(seconds % 60)} s`;

/** The picture as it refines: progress, time left, exposure, and the way to stop it. */
export function RenderPanel() {
  const { phase, name, width, height, samples, target, left, exposure, white, radiance, version, message, cancel, setExposure, setWhite, close } = useRender();
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (!radiance || !canvas.current) return;
    canvas.current.getContext('2d')!.putImageData(new ImageData(develop(radiance, exposure, white) as Uint8ClampedArray<ArrayBuffer>, width, height), 0, 0);
  }, [radiance, exposure, white, version, width, height]);
  if (phase === 'idle') return null;
  const words = {
    preparing: 'preparing the scene',
    tracing: `${samples} of ${target} samples${left !== null ? `, about ${minutes(left)} left` : ''}`,
    cleaning: 'taking the last grain out',
    parting: 'telling its lights apart',
    keeping: 'keeping the picture',
    done: 'kept with the project',
    failed: message ?? 'not finished',
  }[phase];
  const busy = phase !== 'done' && phase !== 'failed';
  return (
    <Box
      component="section"
      data-testid="render-panel"
      aria-label="Picture"
      sx={{
        ...PANEL,
        left: 14,
        right: 14,
        bottom: 14,
        maxWidth: 720,
        zIndex: 7,
        p: 1.25,
      }}
    >
      <Box sx={{ bgcolor: colours.table, aspectRatio: `${width} / ${height}`, width: '100%' }}>
        <canvas ref={canvas} width={width} height={height} style={{ width: '100%', height: '100%', display: 'block' }} aria-label={`Picture of ${name}`} />
      </Box>
      {busy ? (
        <LinearProgress
          variant={phase === 'tracing' ? 'determinate' : 'indeterminate'}
          value={(100 * samples) / Math.max(1, target)}
          aria-label="Progress"
          sx={{ height: 3, bgcolor: colours.hairline }}
        />
      ) : (
        <Box sx={{ height: 3 }} />
      )}
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5, mt: 1, fontSize: 12.5 }}>
        <Box sx={{ flex: 1, minWidth: 0 }}>
          <Box sx={{ font: `17px ${SERIF}`, lineHeight: 1.1 }}>{name}</Box>
          <Box role="status" sx={{ color: colours.third }}>
            {words}
          </Box>
        </Box>
        {busy ? <Button onClick={cancel}>Stop</Button> : <Button onClick={close}>Close</Button>}
      </Box>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5, mt: 0.5, fontSize: 12.5, color: colours.second }}>
        <Developing
          value={{ exposure, white }}
          of=""
          onChange={(next) => {
            if (next.exposure !== exposure) setExposure(next.exposure);
            if (next.white !== null && next.white !== white) setWhite(next.white);
          }}
        />
      </Box>
    </Box>
  );
}
