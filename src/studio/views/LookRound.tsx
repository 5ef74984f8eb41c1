'use client';
import Box from '@mui/material/Box';
import { useEffect, useRef, useState, type RefObject } from 'react';
import { lookRoundPage } from '@/core/formats/panorama/page';

/** A picture all round, in the very page it is handed over as. @param canvas where it is developed @param version changes when it is developed anew */
export function LookRound({ name, canvas, version }: { name: string; canvas: RefObject<HTMLCanvasElement | null>; version: number }) {
  const frame = useRef<HTMLIFrameElement>(null);
  const [ready, setReady] = useState(false);
  // The title is only read aloud: a new one does not turn the eye back.
  const [page] = useState(() => lookRoundPage(name));
  useEffect(() => {
    if (ready && version && canvas.current) frame.current?.contentWindow?.postMessage({ picture: canvas.current.toDataURL('image/jpeg', 0.92) }, '*');
  }, [ready, version, canvas]);
  return (
    <Box
      component="iframe"
      ref={frame}
      srcDoc={page}
      sandbox="allow-scripts"
      title={`${name}, all round`}
      onLoad={() => setReady(true)}
      sx={{ width: '100%', height: '100%', border: 0, display: 'block' }}
    />
  );
}
