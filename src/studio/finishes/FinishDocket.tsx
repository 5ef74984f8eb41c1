'use client';
import { counted } from '@/core/units/text';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { useMemo } from 'react';
import { sampleSpan } from '@/core/boards/sample';
import { finishLrv, meanHex } from '@/core/finishes/finish';
import { nearest, nearnessOf } from '@/core/finishes/match';
import { offered } from '@/core/finishes/library';
import { choices } from '@/core/project/choices';
import { roomOfTarget } from '@/core/project/targets';
import { BARE } from '@/core/project/kinds/first-finishes';
import { finishIn } from '@/core/finishes/store';
import { formatLength } from '@/core/units/length';
import { Label } from '../docket/Label';
import { Swatches, useEdit } from '../docket/parts';
import { Row } from '../look/fields';
import { colours } from '../look/theme';
import { targetName, useFinish, useStudio } from '../store/studio';
import { useSample } from './textures';
import { finishAt, takeFinish } from '../tools/finishing';
import { useFinishing } from './finishing';
import { UNIT_WORDS } from './words';

/** The finish in hand on its label: sample, figures, where it is used, what can be made of it. */
export function FinishDocket({ id }: { id: string }) {
  const finish = useFinish(id);
  const project = useStudio((s) => s.project);
  const room = useStudio((s) => s.room);
  const { units, run } = useEdit();
  const url = useSample(finish, 'tiles', 416, 232);
  // Where each finish is chosen; what would be replaced is within the room in hand.
  const places = useMemo(() => {
    const counts = new Map<string, number>();
    for (const { finish: f, target } of choices(project))
      if (!room || f === id || roomOfTarget(project, target) === room) counts.set(f, (counts.get(f) ?? 0) + 1);
    return counts;
  }, [project, id, room]);
  const used = places.get(id) ?? 0;
  const others = [...places.keys()].filter((f) => f !== id);
  const alike = useMemo(
    () =>
      nearest(
        meanHex(finish),
        offered.filter((f) => f.id !== id && f.category === (finish.category === 'Paint' ? 'Paint' : finish.category)),
        4,
      ),
    [finish, id],
  );
  const { laying } = finish;
  const own = Object.hasOwn(project.finishes, id);
  return (
    <Label title={finish.name} line={`${finish.category}, ${finish.supplier}`}>
      <Box
        sx={{
          height: 116,
          bgcolor: meanHex(finish),
          backgroundImage: url ? `url(${url})` : 'none',
          backgroundSize: 'cover',
          border: `1px solid ${colours.edge}`,
          mb: 0.25,
        }}
      />
      <Box sx={{ fontSize: 11, color: colours.second, textAlign: 'right', mb: 0.5 }}>{formatLength(sampleSpan(finish), units)} wide</Box>
      <Row label="LRV">
        {finishLrv(finish).toFixed(0)}
        {finish.reflectance === null ? '' : ', measured'}
      </Row>
      {laying ? (
        <Row label="Unit">
          {formatLength(laying.width, units)}
          {['hexagon', 'octagon'].includes(laying.pattern) ? '' : ` × ${formatLength(laying.height, units)}`}, joint {formatLength(laying.joint, units)}
        </Row>
      ) : null}
      <Row label="Made for">{finish.roles.join(', ') || 'no use in particular'}</Row>
      <Row label="Code">{finish.code}</Row>
      <Row label="Price">
        {project.money} {finish.price.toFixed(2)} {UNIT_WORDS[finish.unit]}
        {finish.unit === 'litre' || finish.unit === 'roll' || finish.unit === 'box' ? `, covers ${Number(finish.coverage.toFixed(2))} m²` : ''}
      </Row>
      <Row label="Chosen">{used ? `in ${counted(used, 'place')}` : 'nowhere yet'}</Row>
      {others.length ? (
        <Row label="In place of">
          <Select
            variant="standard"
            disableUnderline
            displayEmpty
            fullWidth
            value=""
            renderValue={() => (room ? 'replace in this room…' : 'replace everywhere…')}
            onChange={(e) => {
              const from = e.target.value;
              if (run('finish.replace', { from, to: id, room }))
                useStudio.getState().tell(`${finish.name} has taken the place of ${finishIn(project, from).name} in ${counted(places.get(from)!, 'place')}.`);
            }}
            inputProps={{ 'aria-label': 'Replace a finish by this one' }}
            sx={{ fontSize: 12.5, '& .MuiSelect-select': { py: 0 } }}
          >
            {others.map((f) => (
              <MenuItem key={f} value={f}>
                {finishIn(project, f).name}, in {counted(places.get(f)!, 'place')}
              </MenuItem>
            ))}
          </Select>
        </Row>
      ) : null}
      <Box sx={{ display: 'flex', gap: '6px', mt: 1, alignItems: 'center', fontSize: 11, color: colours.third }}>
        Nearest
        {alike.map(({ finish: f, deltaE }) => (
          <Box
            key={f.id}
            component="button"
            title={`${f.name}, ${nearnessOf(deltaE)}`}
            aria-label={`Take ${f.name}, ${nearnessOf(deltaE)}`}
            onClick={() => takeFinish(f.id)}
            sx={{
              all: 'unset',
              cursor: 'pointer',
              width: 26,
              height: 18,
              bgcolor: meanHex(f),
              border: `1px solid ${colours.edge}`,
              '&:focus-visible': { outline: `2px solid ${colours.damson}` },
            }}
          />
        ))}
      </Box>
      <Onto />
      <Box sx={{ display: 'flex', gap: 0.75, mt: 1, flexWrap: 'wrap' }}>
        <Button size="small" onClick={() => useFinishing.setState({ panel: 'own', from: id })}>
          {own ? 'Change…' : 'Make it my own…'}
        </Button>
        {own ? (
          <Button
            size="small"
            onClick={() => {
              if (run('delete', { ids: [id] })) useStudio.getState().setTool({ kind: 'select' });
            }}
          >
            Delete
          </Button>
        ) : null}
        <Button size="small" onClick={() => useStudio.getState().setTool({ kind: 'select' })}>
          Put down
        </Button>
      </Box>
    </Label>
  );
}

/** What is selected while a finish is in hand: a press on one of its parts puts the finish there. */
function Onto() {
  const spot = useStudio((s) => s.selection.at(-1));
  const project = useStudio((s) => s.project);
  if (!spot) return null;
  const room = project.rooms[spot.entity];
  const { target } = spot;
  const items = room
    ? [
        { label: 'floor', finish: room.floor ?? BARE.floor, target: { kind: 'floor' as const, room: room.id } },
        { label: 'walls', finish: room.walls ?? BARE.wall, target: { kind: 'walls' as const, room: room.id } },
        { label: 'ceiling', finish: room.ceiling ?? BARE.ceiling, target: { kind: 'ceiling' as const, room: room.id } },
      ]
    : target
      ? [{ label: 'selected', finish: finishAt(target) ?? BARE.wall, target }]
      : [];
  if (!items.length) return null;
  return (
    <>
      <Box sx={{ fontSize: 11, color: colours.third, mt: 1 }}>{room ? room.name : targetName(project, target!)}: press to put it on</Box>
      <Swatches items={items} />
    </>
  );
}
