'use client';
import { findsAll } from '@/core/units/text';
import Autocomplete from '@mui/material/Autocomplete';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState, type ReactNode } from 'react';
import { createPortal } from 'react-dom';
import { formName, newOpening } from '@/core/project/opening-defaults';
import { FORMS, type Opening, type OpeningForm, type WallTop } from '@/core/project/schema';
import { formatLength, formatLengthExact, parseLength } from '@/core/units/length';
import { Choice, STATUS_NAMES } from '../look/Choice';
import { colours } from '../look/theme';
import { useStudio, type Tool, type WallPen, type WallShape } from '../store/studio';
import { Card, Cards, Find, Line, Tabs, type Beside } from './cards';
import { FloorLedge } from './FloorLedge';
import { OutsideLedge } from './OutsideLedge';
import { RoofLedge } from './RoofLedge';
import { formPicture } from './formPictures';
import { UnderlayLedge } from './UnderlayLedge';
import { WallTypes } from './WallTypes';

const TABS = ['Walls', 'Doors and windows', 'Stairs and floors', 'Roofs', 'Outside', 'Underlay'] as const;

/** Walls, openings and the picture under the drawing. */
export function ShellLedge() {
  const [tab, setTab] = useState<(typeof TABS)[number]>('Walls');
  // The tabs stay where they are, so that the arrow keys go on; what each part sets beside them is put there.
  const [slot, setSlot] = useState<HTMLElement | null>(null);
  const beside = (more: ReactNode): ReactNode => slot && createPortal(more, slot);
  return (
    <>
      <Tabs tabs={TABS} tab={tab} onTab={setTab}>
        <Box ref={setSlot} sx={{ display: 'contents' }} />
      </Tabs>
      {tab === 'Walls' ? (
        <Walls beside={beside} />
      ) : tab === 'Doors and windows' ? (
        <Openings beside={beside} />
      ) : tab === 'Stairs and floors' ? (
        <FloorLedge beside={beside} />
      ) : tab === 'Roofs' ? (
        <RoofLedge beside={beside} />
      ) : tab === 'Outside' ? (
        <OutsideLedge beside={beside} />
      ) : (
        <UnderlayLedge />
      )}
    </>
  );
}

/** What the next walls are made of and how their lengths are meant. */
function Pen() {
  const pen = useStudio((s) => s.pen);
  const units = useStudio((s) => s.project.units);
  const types = useStudio((s) => s.project.wallTypes);
  const [editing, setEditing] = useState(false);
  const set = (values: Partial<WallPen>): void => useStudio.setState({ pen: { ...useStudio.getState().pen, ...values } });
  const sizes = units === 'metric' ? [0.1, 0.14, 0.215, 0.25, 0.3] : [4.5, 6.5, 8, 12].map((i) => i * 0.0254);
  return (
    <Box sx={{ ml: 1, display: 'flex', gap: 1.25, alignItems: 'baseline', flex: 1, minWidth: 0, overflowX: 'auto', scrollbarWidth: 'none' }}>
      <Choice
        label="Build-up"
        value={pen.type ?? 'plain'}
        options={[['plain', 'one layer'], ...Object.values(types).map((t) => [t.id, t.name] as const), ['types', 'Wall types…']]}
        onChoose={(v) => (v === 'types' ? setEditing(true) : set({ type: v === 'plain' ? null : v }))}
      />
      {pen.type === null ? <Thickness metres={pen.thickness} usual={sizes} onChoose={(thickness) => set({ thickness })} /> : null}
      <Choice
        label="Lengths along the"
        value={pen.reference}
        options={[
          ['inside', 'inside face'],
          ['centre', 'centre line'],
          ['outside', 'outside face'],
        ]}
        onChoose={(reference) => set({ reference })}
      />
      <Choice
        label="Up to"
        value={pen.top.kind === 'raking' ? 'ceiling' : pen.top.kind}
        options={[
          ['ceiling', 'the ceiling'],
          ['half', 'half height'],
          ['fixed', 'a height of its own'],
          ['roof', 'the roof'],
        ]}
        onChoose={(kind) => set({ top: (kind === 'fixed' ? { kind, height: 2.1 } : { kind }) as WallTop })}
      />
      <Choice label="Status" value={pen.status} options={STATUS_NAMES} onChoose={(status) => set({ status })} />
      <Choice
        label="Angles"
        value={String(pen.angles ?? 'free') as 'free'}
        options={[
          ['free', 'free'],
          ['15', 'every 15°'],
          ['30', 'every 30°'],
          ['45', 'every 45°'],
          ['90', 'square'],
        ]}
        onChoose={(v) => set({ angles: v === 'free' ? null : Number(v) })}
      />
      {editing ? <WallTypes onClose={() => setEditing(false)} /> : null}
    </Box>
  );
}

/** The thickness of the next walls: typed, or one of the usual ones. */
function Thickness({ metres, usual, onChoose }: { metres: number; usual: readonly number[]; onChoose(metres: number): void }) {
  const units = useStudio((s) => s.project.units);
  const shown = formatLengthExact(metres, units);
  const take = (text: string): void => {
    const parsed = parseLength(text, units);
    const { say } = useStudio.getState();
    if (!parsed.ok) say(parsed.message);
    else if (parsed.metres < 0.02 - 1e-9 || parsed.metres > 2)
      say(`“${text.trim()}” is no thickness of a wall; nothing was changed. Type one between ${formatLength(0.02, units)} and ${formatLength(2, units)}.`);
    else onChoose(parsed.metres);
  };
  return (
    <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 0.75, whiteSpace: 'nowrap', flexShrink: 0 }}>
      <span>Thickness</span>
      <Autocomplete
        key={shown}
        freeSolo
        disableClearable
        forcePopupIcon
        clearOnBlur
        blurOnSelect
        options={usual.map((t) => formatLengthExact(t, units))}
        filterOptions={(all) => all}
        value={shown}
        onChange={(_, text) => take(text)}
        sx={{
          width: units === 'metric' ? 48 : 74,
          '& .MuiInputBase-root': { mt: 0, pr: '18px !important', height: 18 },
          '& .MuiInputBase-input': { p: '0 !important', minWidth: '0 !important' },
          '& .MuiAutocomplete-endAdornment': { right: 0 },
          '& .MuiAutocomplete-popupIndicator': { p: 0, mr: 0 },
        }}
        renderInput={(params) => (
          <TextField
            {...params}
            variant="standard"
            slotProps={{
              ...params.slotProps,
              input: { ...params.slotProps.input, disableUnderline: true, sx: { fontSize: 12, color: colours.ink, py: '0 !important' } },
              htmlInput: {
                ...params.slotProps.htmlInput,
                'aria-label': 'Wall thickness',
                onKeyDown: (e: React.KeyboardEvent) => e.key !== 'Enter' && e.stopPropagation(),
              },
            }}
          />
        )}
      />
    </Box>
  );
}

function Walls({ beside }: Beside) {
  const tool = useStudio((s) => s.tool);
  const choose = (next: Tool) => () => useStudio.getState().setTool(next);
  const isWalls = (shape: WallShape, boundary = false): boolean => tool.kind === 'walls' && tool.shape === shape && Boolean(tool.boundary) === boundary;
  const wall = (shape: WallShape, name: string, line: string, path: string) => (
    <Card key={name} name={name} line={line} on={isWalls(shape)} onPress={choose({ kind: 'walls', shape })} picture={<Line>{<path d={path} />}</Line>} />
  );
  return (
    <>
      {beside(<Pen />)}
      <Cards>
        {wall('rectangle', 'Room by corners', 'two presses', 'M8 8H52V38H8ZM13 13H47V33H13Z')}
        {wall('chain', 'Walls in a chain', 'press, type, press', 'M8 38V10H34L52 30M13 38V15H32L48 33')}
        {wall('arc', 'Arc', 'two ends, then through', 'M8 36A24 24 0 0 1 52 36M14 36A18 18 0 0 1 46 36')}
        <Card
          name="Boundary"
          line="parts an open plan"
          on={isWalls('chain', true)}
          onPress={choose({ kind: 'walls', shape: 'chain', boundary: true })}
          picture={
            <Line>
              <path d="M8 8H52V38H8Z" />
              <path d="M30 8V38" strokeDasharray="4 3" />
            </Line>
          }
        />
        {wall('L', 'L-shaped room', 'two presses', 'M8 6H32V22H52V40H8Z')}
        {wall('T', 'T-shaped room', 'two presses', 'M8 8H52V22H38V40H22V22H8Z')}
        {wall('U', 'U-shaped room', 'two presses', 'M8 6H22V26H38V6H52V40H8Z')}
        {wall('bay', 'Room with bay', 'two presses', 'M8 6H52V32H44L38 40H22L16 32H8Z')}
        <Card
          name="Recess"
          line="press and drag"
          on={tool.kind === 'recess' && tool.make === 'recess'}
          onPress={choose({ kind: 'recess', make: 'recess' })}
          picture={
            <Line>
              <path d="M4 30H18V14H42V30H56M4 35H23V19H37V35H56" />
            </Line>
          }
        />
        <Card
          name="Boxing"
          line="pipe, cupboard, breast"
          on={tool.kind === 'recess' && tool.make === 'boxing'}
          onPress={choose({ kind: 'recess', make: 'boxing' })}
          picture={
            <Line>
              <path d="M4 12H56M4 18H18V34H42V18H56M22 18V30H38V18" />
            </Line>
          }
        />
        <Card
          name="Column"
          line="square"
          on={tool.kind === 'column' && tool.section === 'square'}
          onPress={choose({ kind: 'column', section: 'square' })}
          picture={
            <Line>
              <path d="M22 15H38V31H22Z" fill={colours.ink} />
            </Line>
          }
        />
        <Card
          name="Round column"
          line="round"
          on={tool.kind === 'column' && tool.section === 'round'}
          onPress={choose({ kind: 'column', section: 'round' })}
          picture={
            <Line>
              <circle cx="30" cy="23" r="8" fill={colours.ink} />
            </Line>
          }
        />
        <Card
          name="Split"
          line="press on a wall"
          on={tool.kind === 'split'}
          onPress={choose({ kind: 'split' })}
          picture={
            <Line>
              <path d="M6 19H27V27H6ZM33 19H54V27H33ZM30 12V34" />
            </Line>
          }
        />
        <Card
          name="Guide line"
          line="two presses"
          on={tool.kind === 'guide'}
          onPress={choose({ kind: 'guide' })}
          picture={
            <Line>
              <path d="M4 38L56 8" stroke={colours.teal} strokeDasharray="5 3" />
            </Line>
          }
        />
      </Cards>
    </>
  );
}

/** What a form is called on its card. */
const CARD_NAMES: Partial<Record<string, string>> = {
  'door hinged': 'Door',
  'window casement': 'Window',
  'window fixed': 'Fixed light',
  'window sash': 'Sash window',
  'window tilt': 'Tilting window',
  'window bay': 'Bay window',
  'passage clear': 'Pass-through',
};

const GROUPS = [
  ['all', 'everything'],
  ['door', 'doors'],
  ['window', 'windows'],
  ['open', 'open ways and niches'],
  ['rooflight', 'rooflights'],
] as const;
type Group = (typeof GROUPS)[number][0];

const ROOFLIGHTS = [
  ['fixed', 'Rooflight', 'M14 10H46V36H14ZM18 14H42V32H18Z'],
  ['hinged', 'Hinged rooflight', 'M14 10H46V36H14ZM18 14H42V32H18ZM18 14L30 32L42 14'],
  ['dome', 'Dome light', 'M10 34H50V38H10ZM14 34C14 14 46 14 46 34'],
] as const;

/** The doors, windows and other openings there are, by group and by name. */
function Openings({ beside }: Beside) {
  const tool = useStudio((s) => s.tool);
  const units = useStudio((s) => s.project.units);
  const [row, setRow] = useState<'1' | '2' | '3' | '4' | '5' | '6'>('1');
  const [group, setGroup] = useState<Group>('all');
  const [find, setFind] = useState('');
  const card = (kind: Opening['kind'], form: OpeningForm) => {
    const { width, height } = newOpening({ openings: {}, units }, { id: 'card', wall: '', kind, form, at: 0 });
    const name = CARD_NAMES[`${kind} ${form}`] ?? formName(kind, form).replace(/^./, (c) => c.toUpperCase());
    return {
      name,
      words: `${name} ${kind === 'passage' ? 'opening arch way' : kind}`,
      group: kind === 'door' || kind === 'window' ? kind : ('open' as const),
      card: (
        <Card
          key={`${kind} ${form}`}
          name={name}
          line={kind === 'niche' ? `${formatLength(width, units)} × ${formatLength(height, units)}` : `${formatLength(width, units)} wide`}
          on={tool.kind === 'opening' && tool.opening === kind && tool.form === form}
          onPress={() => useStudio.getState().setTool({ kind: 'opening', opening: kind, form, row: Number(row) })}
          picture={<img src={formPicture(kind, form)} alt="" width={102} height={58} draggable={false} />}
        />
      ),
    };
  };
  const all = [
    ...FORMS.door.map((form) => card('door', form)),
    ...FORMS.window.map((form) => card('window', form)),
    card('passage', 'clear'),
    card('niche', 'clear'),
    ...ROOFLIGHTS.map(([form, name, path]) => ({
      name,
      words: `${name} roof window skylight`,
      group: 'rooflight' as const,
      card: (
        <Card
          key={form}
          name={name}
          line="in a ceiling"
          on={tool.kind === 'rooflight' && tool.form === form}
          onPress={() => useStudio.getState().setTool({ kind: 'rooflight', form })}
          picture={
            <Line>
              <path d={path} />
            </Line>
          }
        />
      ),
    })),
  ];
  const shown = all.filter((one) => (find.trim() ? findsAll(one.words, find) : group === 'all' || one.group === group));
  return (
    <>
      {beside(
        <Box sx={{ ml: 1, flex: 1, display: 'flex', gap: 1.5, alignItems: 'baseline', minWidth: 0 }}>
          <Choice label="Show" value={group} options={GROUPS} onChoose={setGroup} />
          <Choice
            label="Placed"
            value={row}
            options={[
              ['1', 'one by one'],
              ['2', 'as a row of 2'],
              ['3', 'as a row of 3'],
              ['4', 'as a row of 4'],
              ['5', 'as a row of 5'],
              ['6', 'as a row of 6'],
            ]}
            onChoose={(v) => {
              setRow(v);
              if (tool.kind === 'opening') useStudio.getState().setTool({ ...tool, row: Number(v) });
            }}
          />
          <Elevation />
          <Find text={find} onText={setFind} placeholder="Find an opening…" />
        </Box>,
      )}
      <Cards>
        {shown.map((one) => one.card)}
        {shown.length ? null : <Box sx={{ color: colours.second, py: 2, fontSize: 12.5 }}>No opening is called that.</Box>}
      </Cards>
    </>
  );
}

/** Shows the face of the selected wall upright, to draw an opening of any outline in it. */
function Elevation() {
  const selection = useStudio((s) => s.selection);
  const walls = useStudio((s) => s.project.walls);
  const target = selection.at(-1)?.target;
  const own = target?.kind === 'wall' && walls[target.wall] ? target : null;
  return (
    <Button size="small" disabled={!own} onClick={() => own && useStudio.setState({ elevation: { wall: own.wall, side: own.side, room: own.room } })}>
      In the wall’s elevation
    </Button>
  );
}
