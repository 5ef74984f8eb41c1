'use client';
import Box from '@mui/material/Box';
import Slider from '@mui/material/Slider';
import { useMemo, useState } from 'react';
import { illuminances, sunPosition } from '@/core/light/daylight';
import { SKY_TYPES, skyType } from '@/core/light/sky-types';
import { CARDS } from '@/core/stock/stock';
import { degrees } from '@/core/units/angle';
import { Choice } from '../look/Choice';
import { NumberField, Row, TextField } from '../look/fields';
import { colours } from '../look/theme';
import { useStudio } from '../store/studio';
import { Cards, StockCard, Tabs } from './cards';
import { SurroundingsLedge } from './SurroundingsLedge';

/** Headings over the kinds of sky, by the first of each. */
const SKY_GROUPS = { '1': 'Overcast', '6': 'Intermediate: sun and clouds', '11': 'Clear' };

/** Sun and sky together, in words as exact as the eye: two figures. */
function lux({ sun, sky }: { sun: number; sky: number }): string {
  const all = Number((sun + sky).toPrecision(2));
  return all < 1 ? 'less than 1' : all.toLocaleString('en-GB');
}

const clock = (minutes: number): string => `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;

const TABS = ['Daylight', 'Surroundings', 'Luminaires'] as const;

/** Daylight of the place, date and time; what lies beyond the site; the luminaires. */
export function LightLedge() {
  const [tab, setTab] = useState<(typeof TABS)[number]>('Daylight');
  return (
    <>
      <Tabs tabs={TABS} tab={tab} onTab={setTab} />
      {tab === 'Daylight' ? (
        <Daylight />
      ) : tab === 'Surroundings' ? (
        <SurroundingsLedge />
      ) : (
        <Cards>
          {CARDS.filter((c) => c.item.lamp).map((card) => (
            <StockCard key={card.id} card={card} />
          ))}
        </Cards>
      )}
    </>
  );
}

function Daylight() {
  const site = useStudio((s) => s.project.site);
  const { run, say, preview } = useStudio.getState();
  const [date, time] = site.moment.split('T');
  const [dragged, setDragged] = useState<number | null>(null);
  const minutes = dragged ?? Number(time.slice(0, 2)) * 60 + Number(time.slice(3));
  const shown = { ...site, moment: `${date}T${clock(minutes)}` };
  const { altitude, direction } = sunPosition(shown);
  const light = useMemo(() => illuminances({ ...site, moment: `${date}T${clock(minutes)}` }), [site, date, minutes]);
  const azimuth = (((degrees(site.north - Math.atan2(direction.y, direction.x)) % 360) + 360) % 360).toFixed(0);
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '210px 190px 1fr 150px', columnGap: 4, pr: 3, fontSize: 12.5 }}>
      <Box>
        <Row label="Place">
          <TextField label="Place" value={site.place} onCommit={(place) => run('site.set', { place })} />
        </Row>
        <Row label="Latitude">
          <NumberField label="Latitude" value={site.latitude} min={-90} max={90} onRefuse={say} onCommit={(latitude) => run('site.set', { latitude })} />
        </Row>
        <Row label="Longitude">
          <NumberField label="Longitude" value={site.longitude} min={-180} max={180} onRefuse={say} onCommit={(longitude) => run('site.set', { longitude })} />
        </Row>
      </Box>
      <Box>
        <Row label="Date">
          <TextField
            label="Date"
            value={date}
            onCommit={(d) => {
              if (!/^\d{4}-\d{2}-\d{2}$/.test(d) || Number.isNaN(Date.parse(d))) {
                say(`“${d}” was not taken: a date is year, month and day, for example 2026-05-12.`);
                return false;
              }
              return run('site.set', { moment: `${d}T${time}` });
            }}
          />
        </Row>
        <Row label="UTC +, min">
          <NumberField
            label="Minutes ahead of UTC"
            value={site.offset}
            min={-840}
            max={840}
            onRefuse={say}
            onCommit={(offset) => run('site.set', { offset: Math.round(offset) })}
          />
        </Row>
        <Row label="Sky">
          <Choice
            bare
            label="Sky"
            value={String(site.sky)}
            options={SKY_TYPES.map((t) => [String(t.number), t.name] as const)}
            groups={SKY_GROUPS}
            onChoose={(sky) => run('site.set', { sky: Number(sky) })}
          />
        </Row>
      </Box>
      <Box sx={{ pt: 0.5 }}>
        <Box sx={{ display: 'flex', justifyContent: 'space-between', color: colours.second }}>
          <span>Time of day</span>
          <b style={{ color: colours.ink, fontWeight: 600 }}>{clock(minutes)}</b>
        </Box>
        <Slider
          aria-label="Time of day"
          min={0}
          max={1435}
          step={5}
          value={minutes}
          valueLabelDisplay="off"
          getAriaValueText={clock}
          onChange={(_, v) => {
            setDragged(v as number);
            preview('site.set', { moment: `${date}T${clock(v as number)}` });
          }}
          onChangeCommitted={(_, v) => {
            setDragged(null);
            run('site.set', { moment: `${date}T${clock(v as number)}` });
          }}
        />
        <Box sx={{ color: colours.third }}>
          {altitude > 0 ? `The sun stands ${degrees(altitude).toFixed(0)}° high, at ${azimuth}° from north.` : 'The sun is below the horizon.'}
        </Box>
        <Box sx={{ color: colours.third }}>
          In the open: ground {lux(light.ground)} lx; walls to the north {lux(light.north)}, east {lux(light.east)}, south {lux(light.south)}, west{' '}
          {lux(light.west)} lx.
        </Box>
      </Box>
      <Box>
        <Row label="North, °">
          <NumberField
            label="North in the plan"
            value={degrees(site.north)}
            min={-360}
            max={360}
            onRefuse={say}
            onCommit={(v) => run('site.set', { north: (v * Math.PI) / 180 })}
          />
        </Row>
        {skyType(site.sky).group === 'clear' ? (
          <Row label="Haze">
            <NumberField label="Haze" value={site.turbidity} min={1.8} max={10} onRefuse={say} onCommit={(turbidity) => run('site.set', { turbidity })} />
          </Row>
        ) : null}
      </Box>
    </Box>
  );
}
