'use client';
import Box from '@mui/material/Box';
import { useEffect, useState, type RefObject } from 'react';
import { colours } from '../../look/theme';
import { useStudio } from '../../store/studio';
import { frameOf, useFrame } from '../../views/views';
import type { ModelScene } from './ModelScene';

/** Share of the picture’s sides that may be cut off in print or covered on a screen. */
const SAFE = 0.05;

/** The picture’s frame over the model: what lies outside it is dimmed, thirds and safe edges are drawn. */
export function PictureFrame({ scene, pane }: { scene: RefObject<ModelScene | null>; pane: RefObject<HTMLElement | null> }) {
  const { guides, name, own } = useFrame();
  const { width, height, round } = frameOf({ name, own });
  const aspect = width / height;
  const [size, setSize] = useState({ width: 0, height: 0 });
  const views = useStudio((s) => s.stage === 'Views');
  const shown = guides && views && !round;
  useEffect(() => {
    scene.current?.eye.frame(shown ? aspect : null);
  }, [scene, shown, aspect]);
  useEffect(() => {
    const element = pane.current;
    if (!element || !shown) return;
    const observer = new ResizeObserver(() => setSize({ width: element.clientWidth, height: element.clientHeight }));
    observer.observe(element);
    return () => observer.disconnect();
  }, [pane, shown]);
  if (!shown || !size.height) return null;
  const high = Math.min(size.height, size.width / aspect);
  const wide = high * aspect;
  const line = { stroke: colours.paper, strokeOpacity: 0.75, strokeWidth: 1, vectorEffect: 'non-scaling-stroke' } as const;
  const thirds = [1 / 3, 2 / 3];
  return (
    <Box
      sx={{ position: 'absolute', inset: 0, overflow: 'hidden', pointerEvents: 'none', display: 'grid', placeItems: 'center' }}
      data-testid="picture-frame"
      aria-hidden="true"
    >
      <Box sx={{ width: wide, height: high, boxShadow: `0 0 0 4000px ${colours.ink}88`, outline: `1px solid ${colours.paper}` }}>
        <svg width="100%" height="100%" viewBox="0 0 1 1" preserveAspectRatio="none" style={{ display: 'block', mixBlendMode: 'difference' }}>
          {thirds.map((t) => (
            <path key={t} d={`M${t} 0V1M0 ${t}H1`} {...line} />
          ))}
          <rect x={SAFE} y={SAFE} width={1 - 2 * SAFE} height={1 - 2 * SAFE} fill="none" strokeDasharray="5 4" {...line} />
        </svg>
      </Box>
    </Box>
  );
}
