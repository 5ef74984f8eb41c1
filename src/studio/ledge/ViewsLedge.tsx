'use client';
import { counted } from '@/core/units/text';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { useState } from 'react';
import { expectedSeconds, spanText } from '@/core/render/pace';
import { rememberedPace } from '../store/habits';
import type { Viewpoint } from '@/core/project/schema';
import { colours } from '../look/theme';
import { newId, useStudio } from '../store/studio';
import { current } from '../table/model/ModelPane';
import { useLook, useViews } from '../views/views';
import { QUALITIES, SIZES, useRender, workerCount, type PictureSize, type Quality } from '../views/render';
import { Card, Cards, Tabs } from './cards';

/** Viewpoints and the pictures made from them. */
export function ViewsLedge() {
  const [tab, setTab] = useState<'Viewpoints' | 'Pictures'>('Viewpoints');
  const [size, setSize] = useState<PictureSize>('Medium');
  const [quality, setQuality] = useState<Quality>('Client');
  const project = useStudio((s) => s.project);
  const phase = useRender((s) => s.phase);
  // What the machine is known to take is learned with every picture.
  const pace = rememberedPace(workerCount());
  const chosen = useViews((s) => s.viewpoint);
  const picture = useViews((s) => s.picture);
  const { run } = useStudio.getState();
  const keep = (): void => {
    const eye = current.scene?.eye();
    if (!eye) return;
    const id = newId('view');
    const number = Object.keys(project.viewpoints).length + 1;
    if (run('viewpoint.add', { id, name: `View ${number}`, ...eye, look: useLook.getState().look, aperture: null, focus: null }))
      useViews.setState({ viewpoint: id });
  };
  const render = (): void => {
    const shot = current.scene?.shot();
    if (!shot) return;
    const viewpoint = chosen ? project.viewpoints[chosen] : undefined;
    const { aperture = null, focus = null } = viewpoint ?? {};
    useRender
      .getState()
      .start(project, viewpoint?.name ?? 'Picture', viewpoint?.id ?? null, { ...shot, camera: { ...shot.camera, aperture, focus } }, size, quality);
  };
  const go = (v: Viewpoint): void => {
    useViews.setState({ viewpoint: v.id });
    useStudio.getState().select([]);
    if (v.look) useLook.getState().set(v.look);
    current.scene?.setEye(v);
  };
  const choice = { disableUnderline: true, sx: { fontSize: 12 } };
  return (
    <>
      <Tabs tabs={['Viewpoints', 'Pictures'] as const} tab={tab} onTab={setTab}>
        <Box sx={{ ml: 'auto', display: 'flex', gap: 1.5, alignItems: 'center' }}>
          <Button onClick={keep} sx={{ py: 0 }}>
            Keep this view
          </Button>
          <Select value={size} onChange={(e) => setSize(e.target.value)} inputProps={{ 'aria-label': 'Picture size' }} {...choice}>
            {Object.entries(SIZES).map(([name, [w, h]]) => (
              <MenuItem key={name} value={name}>
                {name}, {w} × {h}
              </MenuItem>
            ))}
          </Select>
          <Select value={quality} onChange={(e) => setQuality(e.target.value)} inputProps={{ 'aria-label': 'Picture quality' }} {...choice}>
            {(Object.keys(QUALITIES) as Quality[]).map((name) => (
              <MenuItem key={name} value={name}>
                {name}, about {spanText(expectedSeconds(pace, { width: SIZES[size][0], height: SIZES[size][1], samples: QUALITIES[name] }))}
              </MenuItem>
            ))}
          </Select>
          <Button variant="contained" onClick={render} disabled={phase !== 'idle' && phase !== 'done' && phase !== 'failed'} sx={{ py: 0 }}>
            Render this view
          </Button>
        </Box>
      </Tabs>
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
          : Object.values(project.pictures)
              .sort((a, b) => (a.made < b.made ? 1 : -1))
              .map((p) => (
                <Card
                  key={p.id}
                  name={p.name}
                  line={`${counted(p.samples, 'sample')}, EV ${p.exposure.toFixed(1)}`}
                  on={picture === p.id}
                  onPress={() => useViews.setState({ picture: p.id })}
                  picture={<img src={`/api/assets/${p.image}`} alt="" style={{ width: '100%', height: '100%', objectFit: 'cover' }} draggable={false} />}
                />
              ))}
        {tab === 'Viewpoints' && !Object.keys(project.viewpoints).length ? (
          <Box sx={{ color: colours.second, py: 2 }}>Turn the model to what you want to show, then press “Keep this view”.</Box>
        ) : null}
        {tab === 'Pictures' && !Object.keys(project.pictures).length ? (
          <Box sx={{ color: colours.second, py: 2 }}>No picture yet. Press “Render this view”.</Box>
        ) : null}
      </Cards>
    </>
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
