'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Slider from '@mui/material/Slider';
import Switch from '@mui/material/Switch';
import { useEffect, useRef, useState } from 'react';
import { radianceOf, type LightPixels } from '@/core/light/rgbe';
import { beyondKey, chosenSurroundings, sunInPlace } from '@/core/light/surroundings';
import { BACKGROUNDS, LANDSCAPES, type Background, type Landscape, type Surroundings } from '@/core/project/schema';
import { develop } from '@/core/render/development';
import { meterExposure } from '@/core/render/tone';
import { degrees, radians } from '@/core/units/angle';
import { cutText } from '@/core/units/text';
import { useErrands } from '../errands/errands';
import { loadBeyond } from '../finishes/textures';
import { Choice } from '../look/Choice';
import { LengthField, NumberField, Row } from '../look/fields';
import { colours } from '../look/theme';
import { api } from '../store/api';
import { useStudio } from '../store/studio';
import { errorText } from '../store/sync';
import { Card, Cards, Line } from './cards';

type Beyond = Surroundings['picture'];

const MODELLED: Record<Background, { name: string; line: string }> = {
  none: { name: 'Nothing', line: 'M8 34H52' },
  fields: { name: 'Fields', line: 'M6 36H54M6 30Q20 22 32 28T54 24M10 36V32M16 36V33M22 36V32' },
  woods: { name: 'Woods', line: 'M6 38H54M10 38L16 16L22 38M22 38L29 10L36 38M36 38L43 18L50 38' },
  town: { name: 'Town', line: 'M6 38H54M10 38V22H20V38M20 38V14H30V38M34 38V26L40 20L46 26V38' },
};

const NAMES: Record<Landscape, string> = {
  meadow: 'Meadow',
  woodland: 'Among trees',
  'morning-field': 'Field at sunrise',
  'dry-hills': 'Dry hills, dusk',
  harbour: 'Harbour, dusk',
  'starlit-field': 'Field by night',
  'cloud-sea': 'Clouds on water',
  square: 'Town square',
};

/** Pixels across a card's picture. */
const SMALL = 208;

const pictures = new Map<string, Promise<{ pixels: LightPixels; url: string }>>();

/** A picture of surroundings, small, and as an address of an image. */
function small(picture: Beyond): Promise<{ pixels: LightPixels; url: string }> {
  const key = beyondKey(picture);
  let made = pictures.get(key);
  if (!made) {
    made = loadBeyond(picture, SMALL).then((pixels) => {
      const radiance = radianceOf(pixels);
      const canvas = document.createElement('canvas');
      canvas.width = pixels.width;
      canvas.height = pixels.height;
      canvas.getContext('2d')!.putImageData(new ImageData(develop(radiance, meterExposure(radiance)), pixels.width, pixels.height), 0, 0);
      return { pixels, url: canvas.toDataURL() };
    });
    pictures.set(key, made);
    made.catch(() => pictures.delete(key));
  }
  return made;
}

function Small({ picture }: { picture: Beyond }) {
  const [url, setUrl] = useState('');
  const key = beyondKey(picture);
  useEffect(() => {
    let alive = true;
    small(picture).then(
      (made) => alive && setUrl(made.url),
      () => undefined,
    );
    return () => {
      alive = false;
    };
    // What lies under a key never changes.
  }, [key]);
  return <Box sx={{ height: '100%', width: '100%', backgroundImage: url ? `url(${url})` : 'none', backgroundSize: 'cover', backgroundPosition: 'center' }} />;
}

/** How much darker or brighter, in words. */
const stopsText = (stops: number): string =>
  stops === 0
    ? 'An eye indoors sees what lies outside as bright as it is.'
    : `An eye indoors is shown what lies outside ${Math.abs(stops).toLocaleString('en-GB')} ${Math.abs(stops) === 1 ? 'stop' : 'stops'} ${stops < 0 ? 'darker' : 'brighter'} than it is; the light it gives stays.`;

/** What lies beyond the site: modelled, or a picture all round or flat; how bright it is seen from indoors. */
export function SurroundingsLedge() {
  const site = useStudio((s) => s.project.site);
  const input = useRef<HTMLInputElement>(null);
  const cards = useRef<HTMLElement>(null);
  // What is chosen may stand far along the row.
  useEffect(() => {
    void cards.current?.querySelector('[aria-pressed="true"]')?.scrollIntoView({ inline: 'nearest', block: 'nearest' });
  }, []);
  const { run, say, preview } = useStudio.getState();
  const { surroundings } = site;
  const [seen, setSeen] = useState<number | null>(null);
  const stops = seen ?? site.seen;
  const chooseModelled = (background: Background): void => void run('site.set', { background, surroundings: null });
  const choose = async (picture: Beyond): Promise<void> => {
    try {
      const { pixels } = await small(picture);
      run('site.set', { background: 'none', surroundings: chosenSurroundings(useStudio.getState().project, picture, pixels) });
    } catch (error) {
      say(errorText(error));
    }
  };
  const take = async (file: File): Promise<void> => {
    try {
      const image = await useErrands.getState().carry(file.name, (signal, tell) => {
        tell('Keeping');
        return api.keepFile(file, signal);
      });
      if (!image) return;
      const own: Beyond = { kind: 'own', name: cutText(file.name, 120), image, ratio: 2 };
      const { pixels } = await small(own);
      await choose({ ...own, ratio: Math.min(20, Math.max(0.05, pixels.width / pixels.height)) });
    } catch (error) {
      say(errorText(error));
    }
  };
  const own = surroundings?.picture.kind === 'own' ? surroundings.picture : null;
  return (
    <Box sx={{ display: 'flex', gap: 3, alignItems: 'flex-start' }}>
      <Box sx={{ display: 'flex', gap: 3, flex: 'none', fontSize: 12.5 }}>
        {surroundings ? <Lie key={beyondKey(surroundings.picture)} surroundings={surroundings} /> : null}
        <Box sx={{ width: 190 }}>
          <Box sx={{ display: 'flex', justifyContent: 'space-between', color: colours.second }}>
            <span>Seen from indoors</span>
            <b style={{ color: colours.ink, fontWeight: 600 }}>{stops > 0 ? `+${stops}` : String(stops).replace('-', '−')} stops</b>
          </Box>
          <Slider
            aria-label="Seen from indoors, stops"
            min={-8}
            max={2}
            step={0.5}
            value={stops}
            onChange={(_, v) => {
              setSeen(v as number);
              preview('site.set', { seen: v as number });
            }}
            onChangeCommitted={(_, v) => {
              setSeen(null);
              run('site.set', { seen: v as number });
            }}
          />
          <Box sx={{ color: colours.third, lineHeight: 1.3 }}>{stopsText(stops)}</Box>
        </Box>
      </Box>
      <Box ref={cards} sx={{ minWidth: 0, flex: 1 }}>
        <input
          ref={input}
          type="file"
          accept="image/png,image/jpeg,image/webp,.hdr"
          hidden
          aria-label="Picture of the surroundings"
          onChange={(e) => {
            const file = e.target.files?.[0];
            e.target.value = '';
            if (file) void take(file);
          }}
        />
        <Cards>
          <Card
            name={own ? own.name : 'Picture of one’s own'}
            line={own ? 'press for another' : 'photo or panorama'}
            on={Boolean(own)}
            onPress={() => input.current?.click()}
            picture={
              own ? (
                <Small picture={own} />
              ) : (
                <Line>
                  <path d="M8 38V12H52V38ZM8 32L22 22L32 30L42 20L52 28M18 18H18.1" />
                </Line>
              )
            }
          />
          {BACKGROUNDS.map((background) => (
            <Card
              key={background}
              name={MODELLED[background].name}
              line={background === 'none' ? 'the sky alone' : 'modelled'}
              on={!surroundings && site.background === background}
              onPress={() => chooseModelled(background)}
              picture={
                <Line>
                  <path d={MODELLED[background].line} />
                </Line>
              }
            />
          ))}
          {LANDSCAPES.map((landscape) => {
            const picture: Beyond = { kind: 'shipped', landscape };
            return (
              <Card
                key={landscape}
                name={NAMES[landscape]}
                line="all round"
                on={surroundings !== null && beyondKey(surroundings.picture) === landscape}
                onPress={() => void choose(picture)}
                picture={<Small picture={picture} />}
              />
            );
          })}
        </Cards>
      </Box>
    </Box>
  );
}

const LIES = [
  ['round', 'all round'],
  ['flat', 'flat, at a distance'],
] as const;

const turned = (angle: number): number => Math.round(degrees(Math.atan2(Math.sin(angle), Math.cos(angle))));

/** How the picture lies. */
function Lie({ surroundings }: { surroundings: Surroundings }) {
  const units = useStudio((s) => s.project.units);
  const site = useStudio((s) => s.project.site);
  const { run, say, preview } = useStudio.getState();
  const [dragged, setDragged] = useState<number | null>(null);
  const set = (values: Partial<Surroundings>): boolean => run('site.set', { surroundings: { ...surroundings, ...values } });
  const round = surroundings.lie === 'round';
  // Clockwise from north, as headings are told.
  const heading = dragged ?? turned(site.north - surroundings.turn);
  const turnOf = (v: number): number => site.north - radians(v);
  const length = (label: string, key: 'distance' | 'width' | 'foot' | 'reach') => (
    <Row label={label}>
      <LengthField label={label} metres={surroundings[key]} units={units} onRefuse={say} onCommit={(v) => set({ [key]: v })} />
    </Row>
  );
  const angle = (label: string, key: 'lift' | 'tilt') => (
    <Row label={`${label}, °`}>
      <NumberField
        label={label}
        value={Math.round(degrees(surroundings[key]) * 10) / 10}
        min={-45}
        max={45}
        onRefuse={say}
        onCommit={(v) => set({ [key]: radians(v) })}
      />
    </Row>
  );
  return (
    <>
      <Box sx={{ width: 200 }}>
        <Row label="Lies">
          <Choice bare label="How the picture lies" value={surroundings.lie} options={LIES} onChoose={(lie) => void set({ lie })} />
        </Row>
        {round ? (
          <>
            {angle('Horizon up', 'lift')}
            {angle('Tilt', 'tilt')}
            {length('Ground to', 'reach')}
          </>
        ) : (
          <>
            {length('Distance', 'distance')}
            {length('Width', 'width')}
          </>
        )}
      </Box>
      <Box sx={{ width: 200 }}>
        <Box sx={{ display: 'flex', justifyContent: 'space-between', color: colours.second }}>
          <span>Middle at</span>
          <b style={{ color: colours.ink, fontWeight: 600 }}>{(heading + 360) % 360}° from north</b>
        </Box>
        <Slider
          aria-label="Heading of its middle"
          min={-180}
          max={180}
          step={1}
          value={heading}
          onChange={(_, v) => {
            setDragged(v as number);
            preview('site.set', { surroundings: { ...surroundings, turn: turnOf(v as number) } });
          }}
          onChangeCommitted={(_, v) => {
            setDragged(null);
            set({ turn: turnOf(v as number) });
          }}
        />
        {round ? (
          <>
            <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
              <Switch
                checked={surroundings.lights}
                onChange={(e) => void set({ lights: e.target.checked })}
                slotProps={{ input: { 'aria-label': 'Gives the light of the sky' } }}
              />
              Gives the sky’s light
            </Box>
            <Button
              variant="text"
              size="small"
              sx={{ p: 0 }}
              onClick={() =>
                void small(surroundings.picture).then(
                  ({ pixels }) => set({ turn: sunInPlace(surroundings, pixels, site).turn }),
                  (error: unknown) => say(errorText(error)),
                )
              }
            >
              Turn its sun to the sun
            </Button>
          </>
        ) : (
          length('Lower edge', 'foot')
        )}
      </Box>
    </>
  );
}
