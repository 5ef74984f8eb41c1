'use client';
import Box from '@mui/material/Box';
import { useEffect, useRef, useState, type RefObject } from 'react';
import { lookRoundPage } from '@/core/formats/panorama/page';

/** A picture all round, in the very page it is handed over as. @param canvas where it is developed @param version changes when it is developed anew */
export function LookRound({ name, canvas, version }: { name: string; canvas: RefObject<HTMLCanvasElement | null>; version: number }) {
  const frame = useRef<HTMLIFrameElement>(null);
  // It may be loaded more than once: each time it knows nothing of the picture.
  const [loads, setLoads] = useState(0);
  // The title is only read aloud: a new one does not turn the eye back.
  // The frame stands under the policy of this page: its script runs by the same nonce.
  const [page] = useState(() => lookRoundPage(name, undefined, document.querySelector<HTMLScriptElement>('script[nonce]')?.nonce));
  useEffect(() => {
    if (loads && version && canvas.current) frame.current?.contentWindow?.postMessage({ picture: canvas.current.toDataURL('image/jpeg', 0.92) }, '*');
  }, [loads, version, canvas]);
  return (
    <Box
      component="iframe"
      ref={frame}
      srcDoc={page}
      sandbox="allow-scripts"
      title={`${name}, all round`}
      onLoad={() => setLoads((n) => n + 1)}
      sx={{ width: '100%', height: '100%', border: 0, display: 'block' }}
    />
  );
}
