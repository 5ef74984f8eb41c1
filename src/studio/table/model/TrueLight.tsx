'use client';
import Box from '@mui/material/Box';
import { useEffect, useRef, type RefObject } from 'react';
import { colours } from '../../look/theme';
import { recalledTrueLight } from '../../store/habits';
import { useStudio } from '../../store/studio';
import { useQueue } from '../../views/queue/queue';
import { useLook, useTrueLight } from '../../views/views';
import type { ModelScene } from './ModelScene';
import { RestingView, STAGES } from './rest';

/** Over the 3D view, the same as it really is lit: it comes when the eye rests and gives way at the first touch. */
export function TrueLight({ scene, frame }: { scene: RefObject<ModelScene | null>; frame: RefObject<HTMLElement | null> }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const on = useTrueLight((s) => s.on);
  const samples = useTrueLight((s) => s.samples);
  useEffect(() => useTrueLight.setState({ on: recalledTrueLight() }), []);
  useEffect(() => {
    const [made, own, element] = [scene.current, canvas.current, frame.current];
    if (!on || !made || !own || !element) return;
    const resting = new RestingView(
      () => {
        const { model, ready } = useStudio.getState();
        const { walking, look } = useLook.getState();
        const { width, height } = element.getBoundingClientRect();
        // Lines and see-through models are drawings: they have no light of their own.
        const lit = look.mode === 'finishes' || look.mode === 'white';
        // Bodies are made where they are looked at: they are asked for last.
        if (Math.min(width, height) < 40 || !ready || walking || !lit || useQueue.getState().live || document.hidden || !model.bodies.length) return null;
        return { project: model.project, shot: made.paneShot(), width: Math.round(width), height: Math.round(height) };
      },
      {
        show(pixels, width, height) {
          if (own.width !== width || own.height !== height) Object.assign(own, { width, height });
          own.getContext('2d')!.putImageData(new ImageData(pixels, width, height), 0, 0);
          own.style.opacity = '1';
        },
        hide: () => void (own.style.opacity = '0'),
        tell: (samples) => useTrueLight.setState({ samples }),
      },
    );
    const touch = (): void => resting.touch();
    made.onDrawn.add(touch);
    const events = ['pointerdown', 'wheel', 'keydown'] as const;
    for (const event of events) element.addEventListener(event, touch, { passive: true });
    // Pictures that are being made have the machine to themselves.
    const busy = useQueue.subscribe((s, before) => {
      if (s.live && !before.live) resting.stop(true);
      else if (!s.live && before.live) touch();
    });
    const ends = [busy, useLook.subscribe(touch)];
    touch();
    return () => {
      made.onDrawn.delete(touch);
      for (const event of events) element.removeEventListener(event, touch);
      for (const end of ends) end();
      resting.dispose();
      own.style.opacity = '0';
      useTrueLight.setState({ samples: null });
    };
  }, [on, scene, frame]);
  return (
    <>
      <Box
        component="canvas"
        ref={canvas}
        data-testid="true-light"
        aria-hidden="true"
        sx={{
          position: 'absolute',
          inset: 0,
          width: '100%',
          height: '100%',
          pointerEvents: 'none',
          opacity: 0,
          transition: 'opacity 160ms',
          '@media (prefers-reduced-motion: reduce)': { transition: 'none' },
        }}
      />
      {samples === null ? null : (
        <Box
          data-testid="true-light-state"
          sx={{ position: 'absolute', left: 8, bottom: 8, px: 0.75, fontSize: 11.5, color: colours.second, bgcolor: colours.panel, pointerEvents: 'none' }}
        >
          true light, {samples === 'first look' ? samples : `${samples} of ${STAGES.fine} samples`}
        </Box>
      )}
    </>
  );
}
