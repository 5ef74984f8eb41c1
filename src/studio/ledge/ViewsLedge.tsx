'use client';
import { counted } from '@/core/units/text';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { useState } from 'react';
import { isOld } from '@/core/project/picture-state';
import { momentText } from '@/core/render/orders';
import { expectedSeconds, spanText } from '@/core/render/pace';
import type { Viewpoint } from '@/core/project/schema';
import { NumberField } from '../look/fields';
import { colours } from '../look/theme';
import { rememberedPace } from '../store/habits';
import { newId, useStudio } from '../store/studio';
import { current } from '../table/model/ModelPane';
import { FRAME_LIMITS, FRAMES, QUALITIES, ROUND_FRAMES, type FrameName, type Quality } from '../views/frames';
import { workerCount } from '../views/queue/hands';
import { useQueue } from '../views/queue/queue';
import { standing } from '../views/RenderPanel';
import { SeveralPictures } from '../views/SeveralPictures';
import { frameOf, useFrame, useLook, useViews } from '../views/views';
import { Card, Cards, Tabs } from './cards';

/** Said where there is no view to be kept. */
const UNSEEN = 'Nothing was kept: the model is folded away; show it beside the plan, and turn it to what you want to show.';

/** Viewpoints, the pictures made from them, and those that are being made. */
export function ViewsLedge() {
  const [tab, setTab] = useState<'Viewpoints' | 'Pictures' | 'Under way'>('Viewpoints');
  const [several, setSeveral] = useState(false);
  const frame = useFrame();
  const project = useStudio((s) => s.project);
  const orders = useQueue((s) => s.orders);
  const live = useQueue((s) => s.live);
  const unkept = useQueue((s) => s.unkept);
  const looked = useQueue((s) => s.looked);
  // What the machine is known to take is learned with every picture.
  const pace = rememberedPace(workerCount());
  const chosen = useViews((s) => s.viewpoint);
  const picture = useViews((s) => s.picture);
  const layout = useStudio((s) => s.layout);
  const { run, say } = useStudio.getState();
  const { round, ...size } = frameOf(frame);
  const keep = (): void => {
    const eye = current.scene?.eye.state();
    if (!eye || layout === 'drawing') return say(UNSEEN);
    const id = newId('view');
    const number = Object.keys(project.viewpoints).length + 1;
    if (run('viewpoint.add', { id, name: `View ${number}`, ...eye, look: useLook.getState().look, aperture: null, focus: null }))
      useViews.setState({ viewpoint: id });
  };
  const render = (): void => {
    const shot = current.scene?.shot();
    if (!shot || layout === 'drawing') return say(UNSEEN);
    const viewpoint = chosen ? project.viewpoints[chosen] : undefined;
    const { aperture = null, focus = null } = viewpoint ?? {};
    const stamp = { project: project.id, scheme: project.scheme, name: viewpoint?.name ?? 'Picture', viewpoint: viewpoint?.id ?? null };
    void useQueue
      .getState()
      .ask([{ stamp, project, shot: { ...shot, camera: { ...shot.camera, aperture, focus }, round }, ...size, samples: QUALITIES[frame.quality] }], true);
  };
  const go = (v: Viewpoint): void => {
    useViews.setState({ viewpoint: v.id });
    useStudio.getState().select([]);
    if (v.look) useLook.getState().set(v.look);
    current.scene?.eye.set(v);
  };
  const choice = { disableUnderline: true, sx: { fontSize: 12 } };
  const others = orders.filter((o) => o.stamp.project !== project.id).length;
  return (
    <>
      <Tabs tabs={['Viewpoints', 'Pictures', 'Under way'] as const} tab={tab} onTab={setTab}>
        {orders.length ? <Box sx={{ color: colours.damson, ml: -1.5 }}>{orders.length}</Box> : null}
        <Box sx={{ ml: 'auto', display: 'flex', gap: 1.25, alignItems: 'center' }}>
          <Button onClick={keep} sx={{ py: 0 }}>
            Keep this view
          </Button>
          <Select
            value={frame.name}
            onChange={(e) => useFrame.setState({ name: e.target.value })}
            renderValue={() => `${frame.name}, ${size.width} × ${size.height}`}
            inputProps={{ 'aria-label': 'Picture size' }}
            {...choice}
          >
            {(Object.entries({ ...FRAMES, ...ROUND_FRAMES }) as [FrameName, readonly [number, number]][]).map(([name, [w, h]]) => (
              <MenuItem key={name} value={name}>
                {name}, {w} × {h}
              </MenuItem>
            ))}
            <MenuItem value="Own size">Own size</MenuItem>
          </Select>
          {frame.name === 'Own size' ? <OwnSize /> : null}
          {round ? null : (
            <Button
              aria-pressed={frame.guides}
              onClick={() => useFrame.setState({ guides: !frame.guides })}
              title="The edge of the picture over the model, with its thirds and safe edges"
              sx={{ py: 0, ...(frame.guides ? { color: colours.damson } : {}) }}
            >
              Frame
            </Button>
          )}
          <Select
            value={frame.quality}
            onChange={(e) => useFrame.setState({ quality: e.target.value })}
            inputProps={{ 'aria-label': 'Picture quality' }}
            {...choice}
          >
            {(Object.keys(QUALITIES) as Quality[]).map((name) => (
              <MenuItem key={name} value={name}>
                {name}, about {spanText(expectedSeconds(pace, { ...size, samples: QUALITIES[name] }))}
              </MenuItem>
            ))}
          </Select>
          <Button onClick={() => setSeveral(true)} disabled={!Object.keys(project.viewpoints).length} sx={{ py: 0 }}>
            Several
          </Button>
          <Button variant="contained" onClick={render} sx={{ py: 0, whiteSpace: 'nowrap' }}>
            Render this view
          </Button>
        </Box>
      </Tabs>
      {several ? <SeveralPictures onClose={() => setSeveral(false)} onAsked={() => setTab('Under way')} /> : null}
      <Cards>
        {tab === 'Viewpoints'
          ? Object.values(project.viewpoints).map((v) => (
              <Card
                key={v.id}
                name={v.name}
                line={`eye at ${(v.eye.z * 1000).toFixed(0)}`}
                on={chosen === v.id}
                onPress={() => go(v)}
                picture={<Eye v={v} />}
              />
            ))
          : null}
        {tab === 'Pictures'
          ? Object.values(project.pictures)
              .sort((a, b) => (a.made < b.made ? 1 : -1))
              .map((p) => (
                <Card
                  key={p.id}
                  name={p.name}
                  line={isOld(p, project) ? 'the model has changed since' : p.moment ? momentText(p.moment) : counted(p.samples, 'sample')}
                  on={picture === p.id}
                  onPress={() => useViews.setState({ picture: p.id })}
                  picture={<img src={`/api/assets/${p.image}`} alt="" style={{ width: '100%', height: '100%', objectFit: 'cover' }} draggable={false} />}
                />
              ))
          : null}
        {tab === 'Under way'
          ? orders.map((o, place) => (
              <Card
                key={o.id}
                name={o.stamp.name}
                line={standing(o, live, place, unkept === 0)}
                on={looked === o.id}
                onPress={() => useQueue.getState().look(o.id)}
                picture={<Grown share={(live?.order.id === o.id ? live.samples : o.done) / o.samples} held={o.state !== 'waiting'} />}
              />
            ))
          : null}
        {tab === 'Viewpoints' && !Object.keys(project.viewpoints).length ? (
          <Box sx={{ color: colours.second, py: 2 }}>Turn the model to what you want to show, then press “Keep this view”.</Box>
        ) : null}
        {tab === 'Pictures' && !Object.keys(project.pictures).length ? (
          <Box sx={{ color: colours.second, py: 2 }}>No picture yet. Press “Render this view”.</Box>
        ) : null}
        {tab === 'Under way' && !orders.length ? (
          <Box sx={{ color: colours.second, py: 2 }}>No picture is being made. Press “Render this view”, or “Several” for many at once.</Box>
        ) : null}
        {tab === 'Under way' && others ? <Box sx={{ color: colours.third, py: 2 }}>{counted(others, 'picture')} of another project among them.</Box> : null}
      </Cards>
    </>
  );
}

/** A size of one's own, pixels. */
function OwnSize() {
  const own = useFrame((s) => s.own);
  const say = useStudio((s) => s.say);
  const set = (values: Partial<typeof own>): void => {
    const next = { ...own, ...values };
    if (next.width * next.height > FRAME_LIMITS.pixels)
      say(`The size was not changed: ${next.width} × ${next.height} has more than ${FRAME_LIMITS.pixels / 1e6} million pixels; choose a smaller one.`);
    else useFrame.setState({ own: next });
  };
  const limits = { min: FRAME_LIMITS.least, max: FRAME_LIMITS.most, onRefuse: say };
  return (
    <Box sx={{ display: 'flex', gap: 0.5, alignItems: 'center', '& input': { width: 44 } }}>
      <NumberField label="Width of the picture" value={own.width} {...limits} onCommit={(v) => set({ width: Math.round(v) })} />×
      <NumberField label="Height of the picture" value={own.height} {...limits} onCommit={(v) => set({ height: Math.round(v) })} />
    </Box>
  );
}

/** How far a picture has grown: a frame that fills from its foot. */
function Grown({ share, held }: { share: number; held: boolean }) {
  const high = 40 * Math.min(1, Math.max(0, share));
  return (
    <svg width="64" height="44" viewBox="0 0 64 44" fill="none" aria-hidden="true">
      <rect x="2" y={42 - high} width="60" height={high} fill={colours.hairline} />
      <rect x="2" y="2" width="60" height="40" stroke={colours.ink} strokeWidth="1.2" strokeDasharray={held ? '4 3' : undefined} />
    </svg>
  );
}

/** The eye and what it sees, in the plan. */
function Eye({ v }: { v: Viewpoint }) {
  const angle = Math.atan2(v.target.y - v.eye.y, v.target.x - v.eye.x);
  const half = Math.min(1.2, v.fov * 0.72);
  const ray = (a: number): string => `L${30 + 26 * Math.cos(a)} ${30 - 26 * Math.sin(a)}`;
  return (
    <svg width="60" height="56" viewBox="0 2 60 56" fill="none" stroke={colours.ink} strokeWidth="1.2" aria-hidden="true">
      <path d={`M30 30${ray(angle + half)}M30 30${ray(angle - half)}`} />
      <path d={`M30 30L${30 + 18 * Math.cos(angle)} ${30 - 18 * Math.sin(angle)}`} stroke={colours.teal} strokeDasharray="4 2 1 2" />
      <circle cx="30" cy="30" r="3" fill={colours.ink} />
    </svg>
  );
}
