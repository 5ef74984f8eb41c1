'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Development, Picture } from '@/core/project/schema';
import { developed, markLimits, relight, whiteFrom } from '@/core/render/development';
import { readLight, type PictureLight } from '@/core/formats/light-file';
import { TextField } from '../look/fields';
import { useFocusInside } from '../look/focus';
import { colours, LIMIT_MARKS, PANEL } from '../look/theme';
import { api } from '../store/api';
import { useStudio } from '../store/studio';
import { errorText } from '../store/sync';
import { DevelopmentColumn } from './DevelopmentColumn';
import { developPng } from './keep';
import { useViews } from './views';

const developmentOf = ({ exposure, white, contrast, saturation, highlights, lights }: Picture): Development => ({
  exposure,
  white,
  contrast,
  saturation,
  highlights,
  lights,
});

const same = (a: Development, b: Development): boolean => JSON.stringify(a) === JSON.stringify(b);

/** A kept picture, developed anew at any time, its lights dimmed, switched and coloured: all its light is kept with it. */
export function PicturePanel() {
  const id = useViews((s) => s.picture);
  const picture = useStudio((s) => (id ? s.project.pictures[id] : undefined));
  const [light, setLight] = useState<(PictureLight & { hash: string }) | null>(null);
  const [shown, setShown] = useState<Development | null>(null);
  const [meant, setMeant] = useState<Development | null>(null);
  const [limits, setLimits] = useState(false);
  const [picking, setPicking] = useState(false);
  const canvas = useRef<HTMLCanvasElement>(null);
  const hash = picture?.radiance;
  const known = useMemo(() => (picture ? developmentOf(picture) : null), [picture]);
  useEffect(() => {
    if (!hash) return;
    let alive = true;
    api
      .file(hash)
      .then((bytes) => alive && setLight({ hash, ...readLight(bytes) }))
      .catch((error: unknown) => useStudio.getState().say(errorText(error)));
    return () => {
      alive = false;
    };
  }, [hash]);
  useEffect(() => setShown(known), [known]);
  const ready = picture && light?.hash === picture.radiance ? light : null;
  const lights = shown?.lights;
  // Dimming lights takes longer than the rest of the development: it is only done anew where they change.
  const lit = useMemo(() => (ready && lights ? relight(ready.radiance, ready.shares, lights) : null), [ready, lights]);
  const [share, setShare] = useState({ over: 0, under: 0 });
  useEffect(() => {
    if (!ready || !lit || !shown || !canvas.current) return;
    const pixels = developed(lit, shown);
    if (limits) setShare(markLimits(pixels, ready.width, LIMIT_MARKS.over, LIMIT_MARKS.under));
    canvas.current.getContext('2d')!.putImageData(new ImageData(pixels, ready.width, ready.height), 0, 0);
  }, [ready, lit, shown, limits]);
  useEffect(() => {
    if (!picture || !ready || meant === null) return;
    // Only what was meant last is kept, also where it was chosen before the light had come.
    let latest = true;
    const keep = async (): Promise<void> => {
      try {
        const image = await api.keepFile(new Blob([developPng(ready, meant)]));
        if (!latest) return;
        setMeant(null);
        if (!same(meant, developmentOf(picture))) useStudio.getState().run('picture.set', { picture: picture.id, set: { ...meant, image } });
      } catch (error) {
        useStudio.getState().say(errorText(error));
      }
    };
    void keep();
    return () => {
      latest = false;
    };
  }, [picture, ready, meant]);
  // Escape closes it, wherever the focus is but in a field; a grey that is being picked is put down first.
  useEffect(() => {
    if (!id) return;
    const close = (e: KeyboardEvent): void => {
      if (e.key !== 'Escape' || (e.target as HTMLElement).closest('input:not([type=range]), textarea')) return;
      e.stopPropagation();
      if (picking) setPicking(false);
      else useViews.setState({ picture: null });
    };
    window.addEventListener('keydown', close, { capture: true });
    return () => window.removeEventListener('keydown', close, { capture: true });
  }, [id, picking]);
  const inside = useFocusInside<HTMLElement>(undefined, Boolean(picture));
  if (!picture || !shown) return null;
  const { run } = useStudio.getState();
  const settle = (next: Development): void => {
    setShown(next);
    setMeant(next);
  };
  const pick = (e: React.PointerEvent<HTMLCanvasElement>): void => {
    if (!picking || !lit) return;
    const box = e.currentTarget.getBoundingClientRect();
    const [x, y] = [((e.clientX - box.left) / box.width) * picture.width, ((e.clientY - box.top) / box.height) * picture.height].map(Math.floor);
    settle({ ...shown, white: whiteFrom(meanAbout(lit, picture.width, picture.height, x, y)) });
    setPicking(false);
  };
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
        inset: '14px',
        zIndex: 7,
        p: 1.25,
        display: 'grid',
        gridTemplateColumns: 'minmax(0, 1fr) 216px',
        gridTemplateRows: 'minmax(0, 1fr)',
        gap: 1.5,
        minHeight: 0,
      }}
    >
      <Box sx={{ display: 'flex', flexDirection: 'column', minHeight: 0, minWidth: 0 }}>
        <Box sx={{ flex: 1, minHeight: 0, display: 'grid', placeItems: 'center', bgcolor: colours.strip }}>
          <canvas
            ref={canvas}
            width={picture.width}
            height={picture.height}
            onPointerDown={pick}
            style={{ maxWidth: '100%', maxHeight: '100%', display: 'block', cursor: picking ? 'crosshair' : undefined }}
            aria-label={picture.name}
          />
        </Box>
        <Box role="status" sx={{ fontSize: 12, color: colours.third, mt: 0.75, minHeight: 18 }}>
          {picking
            ? 'Press on something in the picture that is grey or white.'
            : limits
              ? `Over-exposed: ${percent(share.over)} of the picture. Under-exposed: ${percent(share.under)}.`
              : `${picture.width} × ${picture.height}, ${picture.samples} samples a pixel`}
        </Box>
      </Box>
      <Box sx={{ display: 'flex', flexDirection: 'column', minHeight: 0, fontSize: 12.5, color: colours.second }}>
        <TextField label="Picture name" value={picture.name} onCommit={(name) => run('picture.set', { picture: picture.id, set: { name } })} />
        <Box sx={{ flex: 1, minHeight: 0, overflowY: 'auto', mt: 1, pr: 0.5 }}>
          <DevelopmentColumn
            value={shown}
            shares={ready?.shares ?? []}
            of=" of the picture"
            picking={picking}
            limits={limits}
            onPick={() => setPicking(!picking)}
            onLimits={setLimits}
            onChange={setShown}
            onSettle={settle}
          />
        </Box>
        <Box sx={{ display: 'flex', gap: 1, mt: 1, justifyContent: 'flex-end' }}>
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
      </Box>
    </Box>
  );
}

const percent = (share: number): string => `${(100 * share).toFixed(1)} %`;

/** Mean radiance of the pixels about a place: one alone may be grain. */
function meanAbout(radiance: Float32Array, width: number, height: number, x: number, y: number): number[] {
  const sum = [0, 0, 0];
  for (let j = Math.max(0, y - 2); j <= Math.min(height - 1, y + 2); j++)
    for (let i = Math.max(0, x - 2); i <= Math.min(width - 1, x + 2); i++) for (let c = 0; c < 3; c++) sum[c] += radiance[(j * width + i) * 3 + c];
  return sum;
}
