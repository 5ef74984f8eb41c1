'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Vec2 } from '@/core/geometry/vec';
import { takenIn } from '@/core/project/choices';
import type { Development, Picture } from '@/core/project/schema';
import { developed, markLimits, relight, whiteFrom } from '@/core/render/development';
import { readLight, type PictureLight } from '@/core/formats/light-file';
import { momentText } from '@/core/render/orders';
import { isLarge, ONE_PIECE } from '@/core/render/large';
import type { Region } from '@/core/render/tracer';
import { TextField } from '../look/fields';
import { useFocusInside } from '../look/focus';
import { colours, LIMIT_MARKS, PANEL } from '../look/theme';
import { api } from '../store/api';
import { useStudio } from '../store/studio';
import { errorText } from '../store/sync';
import { DevelopmentColumn } from './DevelopmentColumn';
import { HandOver } from './HandOver';
import { developPng } from './keep';
import { LookRound } from './LookRound';
import { useQueue } from './queue/queue';
import { useViews } from './views';

const developmentOf = ({ exposure, white, warmth, contrast, saturation, highlights, lights }: Picture): Development => ({
  exposure,
  white,
  warmth,
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
  // What one was about to do with a picture is not done with the next.
  useEffect(() => {
    setPart(null);
    setPicking(false);
  }, [id]);
  const ready = picture && light?.hash === picture.radiance ? light : null;
  const lights = shown?.lights;
  // Dimming lights takes longer than the rest of the development: it is only done anew where they change.
  const lit = useMemo(() => (ready && lights ? relight(ready.radiance, ready.shares, lights) : null), [ready, lights]);
  const [share, setShare] = useState({ over: 0, under: 0 });
  const [version, setVersion] = useState(0);
  const [part, setPart] = useState<Part | null>(null);
  useEffect(() => {
    if (!ready || !lit || !shown || !canvas.current) return;
    const pixels = developed(lit, shown);
    if (limits) setShare(markLimits(pixels, ready.width, LIMIT_MARKS.over, LIMIT_MARKS.under));
    canvas.current.getContext('2d')!.putImageData(new ImageData(pixels, ready.width, ready.height), 0, 0);
    setVersion((v) => v + 1);
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
      else if (part) setPart(null);
      else useViews.setState({ picture: null });
    };
    window.addEventListener('keydown', close, { capture: true });
    return () => window.removeEventListener('keydown', close, { capture: true });
  }, [id, picking, part]);
  const flat = picking || part !== null || limits || !picture?.shot?.round;
  const drawn = picture && part ? regionOf(part, picture) : null;
  const region = drawn && !isLarge(drawn) ? drawn : null;
  const inside = useFocusInside<HTMLElement>(undefined, Boolean(picture));
  if (!picture || !shown) return null;
  const { run } = useStudio.getState();
  const settle = (next: Development): void => {
    setShown(next);
    setMeant(next);
  };
  const again = (of: Region | null): void => {
    void askAgain(picture, of);
    useViews.setState({ picture: null });
  };
  const placeOf = (e: React.PointerEvent<HTMLCanvasElement>): { x: number; y: number } => {
    const box = e.currentTarget.getBoundingClientRect();
    const within = (v: number, most: number): number => Math.min(most, Math.max(0, Math.floor(v * most)));
    return { x: within((e.clientX - box.left) / box.width, picture.width), y: within((e.clientY - box.top) / box.height, picture.height) };
  };
  const pick = (e: React.PointerEvent<HTMLCanvasElement>): void => {
    const { x, y } = placeOf(e);
    if (part) {
      e.currentTarget.setPointerCapture(e.pointerId);
      return setPart({ from: { x, y }, to: { x, y } });
    }
    if (!picking || !lit) return;
    const [sw, sh] = [ready!.width / picture.width, ready!.height / picture.height];
    settle({ ...shown, white: whiteFrom(meanAbout(lit, ready!.width, ready!.height, Math.floor(x * sw), Math.floor(y * sh))) });
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
        <Box
          sx={{ flex: 1, minHeight: 0, display: 'grid', placeItems: 'center', bgcolor: colours.strip, position: 'relative', '& > *': { gridArea: '1 / 1' } }}
        >
          {flat ? null : <LookRound name={picture.name} canvas={canvas} version={version} />}
          <canvas
            ref={canvas}
            width={ready?.width ?? picture.width}
            height={ready?.height ?? picture.height}
            onPointerDown={pick}
            onPointerMove={(e) => part && e.buttons && setPart({ ...part, to: placeOf(e) })}
            tabIndex={part ? 0 : undefined}
            onKeyDown={(e) => {
              const by = part && STEPS[e.key];
              if (!by) return;
              e.preventDefault();
              setPart(stepped(part, by, e.shiftKey, picture));
            }}
            style={{ maxWidth: '100%', maxHeight: '100%', display: flat ? 'block' : 'none', cursor: picking || part ? 'crosshair' : undefined }}
            aria-label={picture.name}
          />
          {region ? (
            <Box
              component="svg"
              aria-hidden="true"
              viewBox={`0 0 ${picture.width} ${picture.height}`}
              // As large as the picture under it.
              sx={{ width: '100%', maxWidth: ready?.width, maxHeight: `min(100%, ${ready?.height ?? 0}px)`, pointerEvents: 'none' }}
            >
              <rect {...region} fill="none" stroke={colours.damson} strokeWidth={picture.width / 400} />
            </Box>
          ) : null}
        </Box>
        <Box role="status" sx={{ fontSize: 12, color: colours.third, mt: 0.75, minHeight: 18 }}>
          {picking
            ? 'Press on something in the picture that is grey or white.'
            : part
              ? region
                ? `${region.width} × ${region.height} pixels are made again with twice the samples, and the model as it is now. Draw over another part, or move it with the arrow keys (with Shift its size).`
                : drawn
                  ? `Draw over a smaller part: at most ${ONE_PIECE / 1e6} million pixels are made again at once.`
                  : 'Draw over a larger part.'
              : limits
                ? `Over-exposed: ${percent(share.over)} of the picture. Under-exposed: ${percent(share.under)}.`
                : factsOf(picture)}
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
        {picture.shot ? (
          <Box sx={{ display: 'flex', gap: 1, mt: 1 }}>
            <Button size="small" aria-pressed={part !== null} onClick={() => setPart(part ? null : middleOf(picture))}>
              A part again
            </Button>
            {part ? null : (
              <Button size="small" onClick={() => again(null)}>
                All of it again
              </Button>
            )}
            {region ? (
              <Button size="small" onClick={() => again(region)}>
                Make it
              </Button>
            ) : null}
          </Box>
        ) : null}
        <Box sx={{ display: 'flex', gap: 1, mt: 1, justifyContent: 'flex-end' }}>
          <HandOver picture={picture} />
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

/** A part that is being drawn, from one corner to the other, pixels. */
interface Part {
  from: Vec2;
  to: Vec2;
}

const STEPS: Readonly<Record<string, Vec2>> = { ArrowLeft: { x: -1, y: 0 }, ArrowRight: { x: 1, y: 0 }, ArrowUp: { x: 0, y: -1 }, ArrowDown: { x: 0, y: 1 } };

/** What is offered first: the middle of the picture, no larger than is made again at once. */
function middleOf({ width, height }: Picture): Part {
  const half = Math.min(0.15, 0.45 * Math.sqrt(ONE_PIECE / (width * height)));
  const at = (k: number): Vec2 => ({ x: Math.round(width * k), y: Math.round(height * k) });
  return { from: at(0.5 - half), to: at(0.5 + half) };
}

/** A part moved by a step within the picture, or its second corner alone. */
function stepped({ from, to }: Part, by: Vec2, size: boolean, { width, height }: Picture): Part {
  const step = Math.max(1, Math.round(width / 50));
  const go = (p: Vec2): Vec2 => ({
    x: Math.min(width, Math.max(0, p.x + by.x * step)),
    y: Math.min(height, Math.max(0, p.y + by.y * step)),
  });
  return { from: size ? from : go(from), to: go(to) };
}

/** The smallest part that is worth making again, pixels a side. */
const LEAST_PART = 16;

/** What was drawn, as whole pixels of the picture; null where it is too small to be meant. */
function regionOf({ from, to }: Part, { width, height }: Picture): Region | null {
  const [x, y] = [Math.min(from.x, to.x), Math.min(from.y, to.y)];
  const region = { x, y, width: Math.min(width, Math.max(from.x, to.x)) - x, height: Math.min(height, Math.max(from.y, to.y)) - y };
  return Math.min(region.width, region.height) < LEAST_PART ? null : region;
}

/** Size, samples and noise of a picture, and its light, in words. */
function factsOf({ width, height, samples, noise, moment }: Picture): string {
  const grain = noise === null ? '' : `, grain before cleaning ${percent(noise)}`;
  return `${width} × ${height}, ${samples} samples a pixel${grain}${moment ? `; ${momentText(moment)}` : ''}`;
}

/**
 * Asks for a picture again, of the model as it is now, in the scheme and the light it was taken in.
 *
 * @param region the part that is put into it, with twice the samples; null: all of it, as a picture of its own
 */
function askAgain(picture: Picture, region: Region | null): Promise<void> {
  const { project } = useStudio.getState();
  const { shot, width, height, samples, viewpoint, moment, name } = picture;
  const scheme = picture.scheme !== null && Object.hasOwn(project.schemes, picture.scheme) ? picture.scheme : project.scheme;
  const lit = takenIn(project, scheme, moment ?? project.site.moment);
  const whole = { stamp: { project: project.id, scheme, name, viewpoint }, project: lit, shot: shot!, width, height, samples };
  const part = region && { ...whole, stamp: { ...whole.stamp, name: `${name}, a part` }, samples: 2 * samples, part: { picture: picture.id, region } };
  return useQueue.getState().ask([part ?? whole], true);
}
