'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useMemo, useRef, useState } from 'react';
import { meanHex } from '@/core/finishes/finish';
import { nearest, nearnessOf, paletteOf, type Match, type Swatch } from '@/core/finishes/match';
import { offered } from '@/core/finishes/library';
import { useEdit } from '../docket/parts';
import { useErrands } from '../errands/errands';
import { colours } from '../look/theme';
import { errorText } from '../store/sync';
import { takeFinish } from '../tools/finishing';
import { readPicture, type Pixels } from './pictures';
import { Sheet } from './Sheet';

const OTHERS = ['Cloth', 'Timber', 'Tile'] as const;

/** Colours from a photo: its palette with shares, or any point of it; and what of the library comes nearest to them. */
export function FromPicture() {
  const { say } = useEdit();
  const [picture, setPicture] = useState<Pixels | null>(null);
  const [picked, setPicked] = useState<Swatch | null>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const palette = useMemo(() => (picture ? paletteOf(picture.data) : []), [picture]);
  useEffect(() => {
    if (picture && canvas.current)
      canvas.current.getContext('2d')!.putImageData(new ImageData(new Uint8ClampedArray(picture.data), picture.width, picture.height), 0, 0);
  }, [picture]);
  const take = (file: File | undefined): void => {
    if (!file) return;
    useErrands
      .getState()
      .carry(file.name, () => readPicture(file))
      .then((read) => {
        if (!read) return;
        setPicture(read);
        setPicked(null);
      })
      .catch((error: unknown) => say(errorText(error)));
  };
  const pick = (e: React.MouseEvent): void => {
    const box = canvas.current!.getBoundingClientRect();
    const x = Math.min(picture!.width - 1, Math.max(0, Math.floor(((e.clientX - box.left) / box.width) * picture!.width)));
    const y = Math.min(picture!.height - 1, Math.max(0, Math.floor(((e.clientY - box.top) / box.height) * picture!.height)));
    const k = (y * picture!.width + x) * 4;
    const hex = (v: number): string => v.toString(16).padStart(2, '0');
    setPicked({ colour: `#${hex(picture!.data[k])}${hex(picture!.data[k + 1])}${hex(picture!.data[k + 2])}`, share: 0 });
  };
  return (
    <Sheet
      title="Colours from a picture"
      width={640}
      actions={
        <Button size="small" component="label">
          Choose a picture…
          <input
            type="file"
            accept="image/png,image/jpeg,image/webp"
            hidden
            aria-label="Picture to take colours from"
            onChange={(e) => take(e.target.files?.[0])}
          />
        </Button>
      }
    >
      {picture ? (
        <>
          <canvas
            ref={canvas}
            width={picture.width}
            height={picture.height}
            onClick={pick}
            aria-label="Picture; press a point to take its colour"
            style={{ maxWidth: '100%', maxHeight: 230, display: 'block', cursor: 'crosshair' }}
          />
          {[...(picked ? [picked] : []), ...palette].map((swatch, i) => (
            <Near key={`${swatch.colour} ${i}`} swatch={swatch} />
          ))}
        </>
      ) : (
        <Box sx={{ color: colours.third, py: 2 }}>
          Choose a photo: its colours are gathered, and the paints, cloths and timbers nearest to them are offered.
        </Box>
      )}
    </Sheet>
  );
}

/** One colour with what comes nearest to it. */
function Near({ swatch }: { swatch: Swatch }) {
  const near = useMemo(() => {
    const of = (kind: string, count: number): (Match & { kind: string })[] =>
      nearest(
        swatch.colour,
        offered.filter((f) => f.category === kind),
        count,
      ).map((m) => ({ kind, ...m }));
    // The nearest paints first: what a colour is mostly wanted as.
    return [...of('Paint', 3), ...OTHERS.flatMap((kind) => of(kind, 1))];
  }, [swatch.colour]);
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: '60px 66px repeat(3, minmax(0, 1fr))',
        gap: 1,
        alignItems: 'center',
        borderTop: `1px solid ${colours.hairline}`,
        py: '4px',
      }}
    >
      <Box sx={{ height: 26, bgcolor: swatch.colour, border: `1px solid ${colours.edge}` }} />
      <Box sx={{ color: colours.third }}>{swatch.share ? `${Math.round(swatch.share * 100)} %` : swatch.colour}</Box>
      {near.map(({ finish, deltaE, kind }, i) => (
        <Box
          key={finish.id}
          component="button"
          aria-label={`Take ${finish.name}, ${kind}, ${nearnessOf(deltaE)}`}
          onClick={() => takeFinish(finish.id)}
          sx={{
            all: 'unset',
            cursor: 'pointer',
            display: 'flex',
            gap: 0.75,
            alignItems: 'center',
            minWidth: 0,
            // The others stand in a line of their own, under the paints.
            ...(i === 3 ? { gridColumnStart: 3 } : {}),
            '&:focus-visible': { outline: `2px solid ${colours.damson}` },
          }}
        >
          <Box sx={{ width: 20, height: 20, flex: 'none', bgcolor: meanHex(finish), border: `1px solid ${colours.edge}` }} />
          <Box sx={{ minWidth: 0 }}>
            <Box sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>{finish.name}</Box>
            <Box sx={{ color: colours.third, fontSize: 11 }}>{nearnessOf(deltaE)}</Box>
          </Box>
        </Box>
      ))}
    </Box>
  );
}
