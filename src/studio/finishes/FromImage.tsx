'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useRef, useState } from 'react';
import { useEdit } from '../docket/parts';
import { useErrands } from '../errands/errands';
import { colours } from '../look/theme';
import { api } from '../store/api';
import { errorText } from '../store/sync';
import { readPicture, seamless, straighten, type Corners, type Pixels } from './pictures';

/** From a picture: its four corners set on what is square in it, straightened, made to repeat, at its true width. */
export function FromImage({ onMaking, onMade }: { onMaking(busy: boolean): void; onMade(picture: { image: string; colour: string; ratio: number }): void }) {
  const { say } = useEdit();
  const [picture, setPicture] = useState<Pixels | null>(null);
  const [corners, setCorners] = useState<Corners | null>(null);
  /** The seam made good, to be held beside the picture as it is; null until it is asked for. */
  const [seams, setSeams] = useState<{ plain: Pixels; mended: Pixels } | null>(null);
  const [repeat, setRepeat] = useState(false);
  const canvas = useRef<HTMLCanvasElement>(null);
  const drag = useRef(-1);
  useEffect(() => {
    if (!picture || !canvas.current) return;
    canvas.current.getContext('2d')!.putImageData(new ImageData(new Uint8ClampedArray(picture.data), picture.width, picture.height), 0, 0);
  }, [picture]);
  const take = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    try {
      const read = await useErrands.getState().carry(file.name, () => readPicture(file));
      if (!read) return;
      setPicture(read);
      setSeams(null);
      setRepeat(false);
      setCorners([
        { x: 0, y: 0 },
        { x: 1, y: 0 },
        { x: 1, y: 1 },
        { x: 0, y: 1 },
      ]);
    } catch (error) {
      say(errorText(error));
    }
  };
  /** Both ways to take it, small: what is beside it when it repeats shows. */
  const compare = (): void => {
    if (!picture || !corners) return;
    const plain = straighten(picture, corners, 256);
    setSeams({ plain, mended: seamless(plain) });
    setRepeat(true);
  };
  const make = async (): Promise<void> => {
    if (!picture || !corners) return;
    onMaking(true);
    try {
      const flat = straighten(picture, corners, 768);
      const done = repeat ? seamless(flat) : flat;
      const hash = await useErrands.getState().carry('Picture of the finish', (signal, tell) => {
        tell('Keeping');
        return api.keepFile(new Blob([done.png()]), signal);
      });
      if (hash) onMade({ image: hash, colour: done.mean(), ratio: done.height / done.width });
    } catch (error) {
      say(errorText(error));
    } finally {
      onMaking(false);
    }
  };
  const at = (e: React.PointerEvent): { x: number; y: number } => {
    const box = canvas.current!.getBoundingClientRect();
    const clamp = (v: number): number => Math.min(1, Math.max(0, v));
    return { x: clamp((e.clientX - box.left) / box.width), y: clamp((e.clientY - box.top) / box.height) };
  };
  return (
    <Box sx={{ mt: 1 }}>
      <Button size="small" component="label">
        From a picture…
        <input
          type="file"
          accept="image/png,image/jpeg,image/webp"
          hidden
          aria-label="Picture of the finish"
          onChange={(e) => void take(e.target.files?.[0])}
        />
      </Button>
      {picture && corners ? (
        <>
          <Box
            sx={{ position: 'relative', mt: 0.75, touchAction: 'none', cursor: 'crosshair' }}
            onPointerDown={(e) => {
              const p = at(e);
              const away = corners.map((c) => Math.hypot(c.x - p.x, c.y - p.y));
              drag.current = away.indexOf(Math.min(...away));
              e.currentTarget.setPointerCapture(e.pointerId);
            }}
            onPointerMove={(e) => {
              if (drag.current < 0) return;
              const p = at(e);
              setCorners(corners.map((c, i) => (i === drag.current ? p : c)) as Corners);
            }}
            onPointerUp={() => {
              drag.current = -1;
              if (seams) compare();
            }}
          >
            <canvas
              ref={canvas}
              width={picture.width}
              height={picture.height}
              aria-label="Picture, with the four corners of what is square in it"
              style={{ width: '100%', display: 'block' }}
            />
            <svg
              viewBox="0 0 100 100"
              preserveAspectRatio="none"
              style={{ position: 'absolute', inset: 0, width: '100%', height: '100%', pointerEvents: 'none' }}
            >
              <path
                d={`M${corners.map((c) => `${c.x * 100} ${c.y * 100}`).join('L')}Z`}
                fill="none"
                stroke={colours.damson}
                strokeWidth="1.5"
                vectorEffect="non-scaling-stroke"
              />
            </svg>
            {corners.map((c, i) => (
              <Box
                key={i}
                sx={{
                  position: 'absolute',
                  left: `${c.x * 100}%`,
                  top: `${c.y * 100}%`,
                  width: 11,
                  height: 11,
                  m: '-6px',
                  borderRadius: '50%',
                  bgcolor: colours.paper,
                  border: `1.5px solid ${colours.damson}`,
                  pointerEvents: 'none',
                }}
              />
            ))}
          </Box>
          {seams ? (
            <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 0.75, mt: 0.75 }} role="group" aria-label="How it repeats">
              <Repeats pixels={seams.plain} name="As it is" on={!repeat} onChoose={() => setRepeat(false)} />
              <Repeats pixels={seams.mended} name="Seam made good" on={repeat} onChoose={() => setRepeat(true)} />
            </Box>
          ) : null}
          <Box sx={{ display: 'flex', gap: 0.75, mt: 0.5, alignItems: 'center' }}>
            {seams ? null : (
              <Button size="small" onClick={compare}>
                Make the seam good…
              </Button>
            )}
            <Button size="small" onClick={() => void make()}>
              Take it
            </Button>
          </Box>
          <Box sx={{ fontSize: 11.5, color: colours.third }}>
            Drag the corners onto what is square in the picture; its true width is set at “repeats after”.
          </Box>
        </>
      ) : null}
    </Box>
  );
}

/** A picture four times over, as it lies side by side on a wall; pressed, it is the one that is taken. */
function Repeats({ pixels, name, on, onChoose }: { pixels: Pixels; name: string; on: boolean; onChoose(): void }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { width, height, data } = pixels;
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const image = new ImageData(new Uint8ClampedArray(data), width, height);
    for (const [x, y] of [
      [0, 0],
      [width, 0],
      [0, height],
      [width, height],
    ])
      context.putImageData(image, x, y);
  }, [data, width, height]);
  return (
    <Box
      component="button"
      type="button"
      aria-pressed={on}
      onClick={onChoose}
      sx={{
        all: 'unset',
        cursor: 'pointer',
        fontSize: 11.5,
        fontWeight: on ? 650 : 400,
        outline: on ? `2px solid ${colours.damson}` : 'none',
        '&:focus-visible': { outline: `2px solid ${colours.damson}`, outlineOffset: 2 },
      }}
    >
      <canvas ref={canvas} width={width * 2} height={height * 2} aria-hidden="true" style={{ width: '100%', display: 'block' }} />
      {name}
    </Box>
  );
}
