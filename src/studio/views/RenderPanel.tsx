'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useEffect, useRef } from 'react';
import { develop } from '@/core/render/development';
import type { Order } from '@/core/render/orders';
import { spanText } from '@/core/render/pace';
import { colours, PANEL, SERIF } from '../look/theme';
import { Developing } from './Developing';
import { shownSize, useQueue, whiteOf, type Live } from './queue/queue';

/** Where an order stands, in words. @param place how many come before it @param kept whether that is kept already */
export function standing(order: Order, live: Live | null, place: number, kept = true): string {
  if (order.state === 'failed') return order.message ?? 'not finished';
  const have = order.done ? `${order.done} of ${order.samples} samples kept` : '';
  if (order.state === 'held' && !kept) return 'being put aside';
  if (order.state === 'held') return have ? `held, ${have}` : 'held';
  if (live?.order.id !== order.id) return `waiting, ${place ? `${place} before it` : 'the next one'}${have ? `, ${have}` : ''}`;
  return {
    preparing: 'preparing the scene',
    tracing: `${live.samples} of ${order.samples} samples${live.left === null ? '' : `, about ${spanText(live.left)} left`}`,
    cleaning: 'taking the last grain out',
    parting: 'telling its lights apart',
    keeping: 'keeping the picture',
    done: 'kept with the project',
  }[live.phase];
}

/** A picture that was asked for, as it grows: progress, time left, exposure, its place in the line, and the way to stop it. */
export function RenderPanel() {
  const { orders, unkept, live, last, looked, hold, goOn, move, remove, set, look } = useQueue();
  const canvas = useRef<HTMLCanvasElement>(null);
  const place = orders.findIndex((o) => o.id === looked);
  const shown = live?.order.id === looked ? live : last?.order.id === looked ? last : null;
  const order = place >= 0 ? orders[place] : shown?.order;
  const white = order ? whiteOf(order) : 0;
  const { radiance = null, exposure = order?.exposure ?? null, version = 0 } = shown ?? {};
  const { width, height } = order ? shownSize(order) : { width: 1, height: 1 };
  useEffect(() => {
    if (!radiance || exposure === null || !canvas.current) return;
    const pixels = develop(radiance, exposure, white);
    canvas.current.getContext('2d')!.putImageData(new ImageData(pixels, width, height), 0, 0);
  }, [radiance, exposure, white, version, width, height]);
  if (!order) return null;
  const { name } = order.stamp;
  const done = place < 0;
  const busy = !done && shown !== null;
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
        maxHeight: 'calc(100% - 28px)',
        display: 'flex',
        flexDirection: 'column',
      }}
    >
      {/* All of the picture shows, however high it is: its commands stay in reach. */}
      <Box sx={{ bgcolor: colours.table, flex: '0 1 auto', minHeight: 0, display: 'grid', placeItems: 'center', overflow: 'hidden' }}>
        <canvas
          ref={canvas}
          width={width}
          height={height}
          style={{ width: '100%', height: '100%', minHeight: 0, objectFit: 'contain', aspectRatio: `${width} / ${height}`, display: 'block' }}
          aria-label={`Picture of ${name}`}
        />
      </Box>
      {busy ? (
        <LinearProgress
          variant={shown.phase === 'tracing' ? 'determinate' : 'indeterminate'}
          value={(100 * shown.samples) / Math.max(1, order.samples)}
          aria-label="Progress"
          sx={{ height: 3, bgcolor: colours.hairline, flex: 'none' }}
        />
      ) : (
        <Box sx={{ height: 3, flex: 'none' }} />
      )}
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, mt: 1, fontSize: 12.5, flex: 'none' }}>
        <Box sx={{ flex: 1, minWidth: 0 }}>
          <Box sx={{ font: `17px ${SERIF}`, lineHeight: 1.1 }}>{name}</Box>
          <Box role="status" sx={{ color: colours.third }}>
            {done ? 'kept with the project' : standing(order, live, place, unkept === 0)}
          </Box>
        </Box>
        {done ? null : (
          <>
            {orders.length > 1 ? (
              <>
                <Button disabled={place === 0} onClick={() => move(order.id, -1)}>
                  Earlier
                </Button>
                <Button disabled={place === orders.length - 1} onClick={() => move(order.id, 1)}>
                  Later
                </Button>
              </>
            ) : null}
            {order.state === 'waiting' ? <Button onClick={() => hold(order.id)}>Hold</Button> : null}
            {order.state === 'held' ? <Button onClick={() => goOn(order.id)}>Go on</Button> : null}
            {order.state === 'failed' ? <Button onClick={() => goOn(order.id)}>Try again</Button> : null}
            <Button onClick={() => remove(order.id)}>Stop</Button>
          </>
        )}
        <Button onClick={() => look(null)}>Close</Button>
      </Box>
      {exposure !== null && !done ? (
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5, mt: 0.5, fontSize: 12.5, color: colours.second, flex: 'none' }}>
          <Developing
            value={{ exposure, white }}
            of=""
            onChange={(next) => {
              if (next.exposure !== exposure) set(order.id, { exposure: next.exposure });
              if (next.white !== null && next.white !== white) set(order.id, { white: next.white });
            }}
          />
        </Box>
      ) : null}
    </Box>
  );
}
