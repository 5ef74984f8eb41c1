'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useRef, useState } from 'react';
import { readHdr } from '@/core/formats/hdr/hdr';
import { develop } from '@/core/render/tone';
import { TextField } from '../look/fields';
import { useFocusInside } from '../look/focus';
import { colours, PANEL } from '../look/theme';
import { api } from '../store/api';
import { useStudio } from '../store/studio';
import { errorText } from '../store/sync';
import { Developing, type Development } from './Developing';
import { developPng } from './keep';
import { useViews } from './views';

/** A kept picture, whose exposure and white can be set again at any time: its radiance is kept with it. */
export function PicturePanel() {
  const id = useViews((s) => s.picture);
  const picture = useStudio((s) => (id ? s.project.pictures[id] : undefined));
  const [radiance, setRadiance] = useState<{ hash: string; data: Float32Array } | null>(null);
  const [shown, setShown] = useState<Development>({ exposure: 10, white: null });
  const [meant, setMeant] = useState<Development | null>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const hash = picture?.radiance;
  const [exposure, white] = [picture?.exposure, picture?.white ?? null];
  useEffect(() => {
    if (!hash) return;
    let alive = true;
    api
      .file(hash)
      .then((bytes) => alive && setRadiance({ hash, data: readHdr(bytes).radiance }))
      .catch((error: unknown) => useStudio.getState().say(errorText(error)));
    return () => {
      alive = false;
    };
  }, [hash]);
  useEffect(() => {
    if (exposure !== undefined) setShown({ exposure, white });
  }, [exposure, white]);
  useEffect(() => {
    if (!picture || !radiance || radiance.hash !== picture.radiance || !canvas.current) return;
    canvas.current
      .getContext('2d')!
      .putImageData(new ImageData(develop(radiance.data, shown.exposure, shown.white) as Uint8ClampedArray<ArrayBuffer>, picture.width, picture.height), 0, 0);
  }, [radiance, shown, picture]);
  useEffect(() => {
    if (!picture || !radiance || radiance.hash !== picture.radiance || meant === null) return;
    // Only what was meant last is kept, also where it was chosen before the radiance had come.
    let latest = true;
    const keep = async (): Promise<void> => {
      try {
        const image = await api.keepFile(new Blob([developPng(radiance.data, picture.width, picture.height, meant.exposure, meant.white)]));
        if (!latest) return;
        setMeant(null);
        if (meant.exposure !== picture.exposure || meant.white !== picture.white)
          useStudio.getState().run('picture.set', { picture: picture.id, set: { ...meant, image } });
      } catch (error) {
        useStudio.getState().say(errorText(error));
      }
    };
    void keep();
    return () => {
      latest = false;
    };
  }, [picture, radiance, meant]);
  // Escape closes it, wherever the focus is but in a field.
  useEffect(() => {
    if (!id) return;
    const close = (e: KeyboardEvent): void => {
      if (e.key !== 'Escape' || (e.target as HTMLElement).closest('input:not([type=range]), textarea')) return;
      e.stopPropagation();
      useViews.setState({ picture: null });
    };
    window.addEventListener('keydown', close, { capture: true });
    return () => window.removeEventListener('keydown', close, { capture: true });
  }, [id]);
  const inside = useFocusInside<HTMLElement>(undefined, Boolean(picture));
  if (!picture) return null;
  const { run } = useStudio.getState();
  return (
    <Box
      component="section"
      data-testid="picture-panel"
      aria-label="Kept picture"
      ref={inside}
      tabIndex={-1}
      sx={{
        outline: 'none',
        ...PANEL,
        inset: '34px 14px 14px 14px',
        zIndex: 7,
        p: 1.25,
        display: 'flex',
        flexDirection: 'column',
        minHeight: 0,
      }}
    >
      <Box sx={{ flex: 1, minHeight: 0, display: 'grid', placeItems: 'center', bgcolor: colours.strip }}>
        <canvas
          ref={canvas}
          width={picture.width}
          height={picture.height}
          style={{ maxWidth: '100%', maxHeight: '100%', display: 'block' }}
          aria-label={picture.name}
        />
      </Box>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5, mt: 1, fontSize: 12.5, color: colours.second }}>
        <Box sx={{ flex: '1 1 200px' }}>
          <TextField label="Picture name" value={picture.name} onCommit={(name) => run('picture.set', { picture: picture.id, set: { name } })} />
        </Box>
        <Button
          onClick={() => {
            useViews.setState({ picture: null });
            run('delete', { ids: [picture.id] });
          }}
        >
          Delete
        </Button>
        <Button onClick={() => useViews.setState({ picture: null })}>Close</Button>
      </Box>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5, mt: 0.75, fontSize: 12.5, color: colours.second }}>
        <Developing value={shown} of=" of the picture" onChange={setShown} onSettle={setMeant} />
      </Box>
    </Box>
  );
}
