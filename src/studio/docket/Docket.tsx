'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import Switch from '@mui/material/Switch';
import Tooltip from '@mui/material/Tooltip';
import { CaretDownIcon, CaretUpIcon } from '@phosphor-icons/react';
import { useLayoutEffect, useRef, useState, type ReactNode } from 'react';
import { finishById } from '@/core/finishes/library';
import { finishLrv } from '@/core/finishes/finish';
import type { FaceTarget } from '@/core/project/commands';
import { openingGaps, wallLength, wallHeight } from '@/core/project/openings';
import { clearWidth, OPENING_FINISHES } from '@/core/shell/openings';
import { BARE, partsOf } from '@/core/shell/model';
import { clampSize, stockItem } from '@/core/stock/stock';
import { LAMP_PART } from '@/core/stock/luminaires';
import { formatArea, formatLength } from '@/core/units/length';
import { LengthField, NumberField, Row, TextField } from '../look/fields';
import { colours, SERIF } from '../look/theme';
import { surfaceName, useStudio } from '../store/studio';
import { useSample } from '../table/textures';
import { current } from '../table/ModelPane';
import * as tools from '../tools/controller';
import { Diagram } from './Diagram';

/** The paper label with what is selected. */
export function Docket() {
  const selection = useStudio((s) => s.selection);
  const project = useStudio((s) => s.project);
  const [folded, setFolded] = useState(false);
  if (!selection.length) return null;
  const { entity, target } = selection[selection.length - 1];
  const many = selection.length > 1;
  let body: ReactNode = null;
  let title = '';
  let line = '';
  if (many) {
    title = `${selection.length} things`;
    line = 'selected together';
    body = <Many />;
  } else if (project.walls[entity]) {
    title = 'Wall';
    line = target ? surfaceName(project, useStudio.getState().model, target) : '';
    body = <WallDocket id={entity} target={target} />;
  } else if (project.openings[entity]) {
    title = project.openings[entity].name;
    line = project.openings[entity].kind === 'door' ? 'Door, one hinged leaf' : 'Window';
    body = <OpeningDocket id={entity} />;
  } else if (project.rooms[entity]) {
    title = project.rooms[entity].name;
    line = target ? surfaceName(project, useStudio.getState().model, target) : 'Room';
    body = <RoomDocket id={entity} />;
  } else if (project.pieces[entity]) {
    title = project.pieces[entity].name;
    line = stockItem(project.pieces[entity].maker)?.category ?? '';
    body = <PieceDocket id={entity} />;
  }
  if (!body) return null;
  return (
    <Label title={title} line={line} folded={folded} onFold={() => setFolded(!folded)} about={many ? null : entity}>
      {body}
    </Label>
  );
}

/** The label itself: a cut corner, an eyelet, a title in the book face. */
export function Label({
  title,
  line,
  children,
  folded,
  onFold,
  about = null,
}: {
  title: string;
  line: string;
  children: ReactNode;
  folded?: boolean;
  onFold?(): void;
  about?: string | null;
}) {
  const own = useRef<HTMLElement>(null);
  const aside = useAside(own, about);
  return (
    <Box
      component="aside"
      ref={own}
      data-testid="docket"
      aria-label={`Docket: ${title}`}
      sx={{
        position: 'absolute',
        ...(aside === null ? { right: 14 } : { left: aside }),
        top: 34,
        width: 236,
        maxHeight: 'calc(100% - 48px)',
        zIndex: 6,
        filter: 'drop-shadow(0 6px 9px #0000001c)',
        display: 'flex',
      }}
    >
      <Box
        sx={{
          bgcolor: '#fff',
          border: `1px solid ${colours.firm}`,
          p: '14px 14px 12px',
          width: '100%',
          overflow: 'auto',
          clipPath: 'polygon(16px 0,100% 0,100% 100%,0 100%,0 16px)',
          position: 'relative',
          '&::before': {
            content: '""',
            position: 'absolute',
            left: 12,
            top: 12,
            width: 9,
            height: 9,
            border: `1.5px solid ${colours.third}`,
            borderRadius: '50%',
          },
        }}
      >
        <Box component="h2" sx={{ m: 0, ml: '18px', mr: '22px', font: `20px ${SERIF}`, lineHeight: 1.15, overflowWrap: 'anywhere' }}>
          {title}
        </Box>
        {onFold ? (
          <IconButton aria-label={folded ? 'Unfold the docket' : 'Fold the docket'} onClick={onFold} sx={{ position: 'absolute', right: 6, top: 8 }}>
            {folded ? <CaretDownIcon size={14} /> : <CaretUpIcon size={14} />}
          </IconButton>
        ) : null}
        <Box sx={{ ml: '18px', mb: folded ? 0 : 1, color: colours.third, fontSize: 12 }}>{line}</Box>
        {folded ? null : children}
      </Box>
    </Box>
  );
}

/**
 * Where the docket hangs so that it does not cover what it is about: at the table's right edge (null), or at the left
 * edge of the model, in pixels from the left of the table.
 */
function useAside(own: { current: HTMLElement | null }, about: string | null): number | null {
  const rests = useStudio((s) => s.rests);
  const moving = useStudio((s) => (about && (s.model.project.pieces[about] ?? s.model.project.openings[about])) || null);
  const layout = useStudio((s) => s.layout);
  const [aside, setAside] = useState<number | null>(null);
  useLayoutEffect(() => {
    const table = own.current?.offsetParent?.getBoundingClientRect();
    const pane = document.querySelector('[data-testid="model"]')?.getBoundingClientRect();
    const seen = moving && layout !== 'drawing' ? current.scene?.frameOf(about!) : null;
    if (!table || !pane || !seen || !own.current) return setAside(null);
    const { offsetWidth: width, offsetHeight: height } = own.current;
    const covered = (left: number): number => {
      const top = table.top + 34;
      const x = Math.min(seen.right, left + width) - Math.max(seen.left, left);
      const y = Math.min(seen.bottom, top + height) - Math.max(seen.top, top);
      return x > 0 && y > 0 ? x * y : 0;
    };
    const atLeft = Math.max(0, pane.left - table.left) + 14;
    const atRight = table.width - width - 14;
    setAside(covered(table.left + atRight) > covered(table.left + atLeft) ? atLeft : null);
  }, [own, about, moving, rests, layout]);
  return aside;
}

const useEdit = () => {
  const units = useStudio((s) => s.project.units);
  const { run, say } = useStudio.getState();
  return { units, run, say };
};

function Actions({ children }: { children?: ReactNode }) {
  return (
    <Box sx={{ display: 'flex', gap: 0.75, mt: 1.25, flexWrap: 'wrap' }}>
      {children}
      <Button size="small" onClick={tools.deleteSelection}>
        Delete
      </Button>
    </Box>
  );
}

function Many() {
  const pieces = useStudio((s) => s.selection.every((x) => s.project.pieces[x.entity]));
  return <Actions>{pieces ? <Button onClick={tools.duplicateSelection}>Duplicate</Button> : null}</Actions>;
}

/** Chips of finishes by part; pressing one picks its finish up, or takes the finish in hand. */
function Swatches({ items }: { items: { label: string; finish: string; target: FaceTarget }[] }) {
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(4,1fr)', gap: '6px', mt: 1.25 }}>
      {items.map((item) => (
        <Swatch key={item.label} {...item} />
      ))}
    </Box>
  );
}

function Swatch({ label, finish, target }: { label: string; finish: string; target: FaceTarget }) {
  const inHand = useStudio((s) => (s.tool.kind === 'finish' ? s.tool.finish : null));
  const own = finishById(finish);
  const url = useSample(finish, 'board', 96, 56);
  return (
    <Tooltip
      title={`${label}: ${own.name}, LRV ${finishLrv(own).toFixed(0)}. ${inHand ? `Press to put ${finishById(inHand).name} here.` : 'Press to apply it elsewhere.'}`}
    >
      <Box
        component="button"
        onClick={() => {
          const state = useStudio.getState();
          if (inHand) return void state.run('finish.apply', { targets: [target], finish: inHand });
          state.setStage('Finishes');
          state.setTool({ kind: 'finish', finish });
        }}
        sx={{
          all: 'unset',
          cursor: 'pointer',
          minWidth: 0,
          textAlign: 'center',
          fontSize: 10.5,
          color: colours.second,
          '&:focus-visible': { outline: `2px solid ${colours.damson}` },
        }}
      >
        <Box
          sx={{
            height: 26,
            border: '1px solid #0002',
            mb: '2px',
            backgroundColor: own.colour,
            backgroundImage: url ? `url(${url})` : 'none',
            backgroundSize: 'cover',
          }}
        />
        <Box sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>{label}</Box>
      </Box>
    </Tooltip>
  );
}

function WallDocket({ id, target }: { id: string; target: FaceTarget | null }) {
  const project = useStudio((s) => s.project);
  const model = useStudio((s) => s.model);
  const { units, run, say } = useEdit();
  const wall = project.walls[id];
  const sides = model.shell.walls.get(id)?.sides ?? [];
  const face = target?.kind === 'wall' ? sides.find((s) => s.side === target.side && s.room === target.room) : undefined;
  return (
    <>
      <Row label="Length">
        <LengthField
          label="Length"
          metres={wallLength(project, wall)}
          units={units}
          onRefuse={say}
          onCommit={(length) => run('wall.length', { wall: id, length, keep: 'start' })}
        />
      </Row>
      <Row label="Thickness">
        <LengthField
          label="Thickness"
          metres={wall.thickness}
          units={units}
          onRefuse={say}
          onCommit={(thickness) => run('wall.set', { wall: id, set: { thickness } })}
        />
      </Row>
      <Row label="Height">
        <LengthField
          label="Height"
          metres={wallHeight(project, wall)}
          units={units}
          onRefuse={say}
          onCommit={(height) => run('wall.set', { wall: id, set: { height } })}
        />
      </Row>
      {face ? (
        <>
          <Row label="This face">{formatLength(face.s1 - face.s0, units)} long</Row>
          <Row label="Net area">{formatArea(face.area, units)}</Row>
        </>
      ) : null}
      <Swatches
        items={sides
          .filter((s, i) => sides.findIndex((o) => o.side === s.side && o.room === s.room) === i)
          .map((s) => {
            const owner = s.room ? project.rooms[s.room] : project.outside;
            return {
              label: s.room ? project.rooms[s.room].name : 'Outside',
              finish: owner?.faces[s.key] ?? owner?.walls ?? (s.room ? BARE.wall : BARE.outside),
              target: { kind: 'wall' as const, room: s.room, wall: id, side: s.side },
            };
          })}
      />
      <Actions />
    </>
  );
}

function OpeningDocket({ id }: { id: string }) {
  const project = useStudio((s) => s.project);
  const model = useStudio((s) => s.model);
  const { units, run, say } = useEdit();
  const opening = project.openings[id];
  const rooms = model.shell.openings.get(id)?.rooms;
  const gaps = openingGaps(project, opening);
  const set = (values: Record<string, unknown>): boolean => run('opening.set', { opening: id, set: values });
  const roomName = (side: 'left' | 'right'): string => (rooms?.[side] ? (project.rooms[rooms[side]!]?.name ?? 'Room') : 'Outside');
  return (
    <>
      <Diagram kind="opening" opening={opening} units={units} />
      <Row label="Name">
        <TextField label="Name" value={opening.name} onCommit={(name) => set({ name })} />
      </Row>
      {(['width', 'height', ...(opening.kind === 'window' ? (['sill'] as const) : [])] as const).map((key) => (
        <Row key={key} label={key[0].toUpperCase() + key.slice(1)}>
          <LengthField label={key[0].toUpperCase() + key.slice(1)} metres={opening[key]} units={units} onRefuse={say} onCommit={(v) => set({ [key]: v })} />
        </Row>
      ))}
      {gaps ? (
        <>
          <Row label="To one corner">
            <LengthField
              label="To one corner"
              metres={gaps.start}
              units={units}
              onRefuse={say}
              onCommit={(v) => set(tools.openingFrom(project, id, 'start', v) ?? {})}
            />
          </Row>
          <Row label="To the other">
            <LengthField
              label="To the other"
              metres={gaps.end}
              units={units}
              onRefuse={say}
              onCommit={(v) => set(tools.openingFrom(project, id, 'end', v) ?? {})}
            />
          </Row>
        </>
      ) : null}
      {opening.kind === 'door' ? (
        <>
          <Row label="Clear width">{formatLength(clearWidth(opening), units)}</Row>
          <Row label="Opens into">
            <Select
              value={opening.swing}
              onChange={(e) => set({ swing: e.target.value })}
              fullWidth
              disableUnderline
              inputProps={{ 'aria-label': 'Opens into' }}
            >
              <MenuItem value="left">{roomName('left')}</MenuItem>
              <MenuItem value="right">{roomName('right')}</MenuItem>
            </Select>
          </Row>
          <Row label="Hand">
            <Select
              value={hand(opening)}
              onChange={(e) => set({ hinge: hingeFor(e.target.value as 'left' | 'right', opening.swing) })}
              fullWidth
              disableUnderline
              inputProps={{ 'aria-label': 'Hand' }}
            >
              <MenuItem value="left">hinged left</MenuItem>
              <MenuItem value="right">hinged right</MenuItem>
            </Select>
          </Row>
        </>
      ) : (
        <Row label="Panes">
          <TextField
            label="Panes"
            value={`${opening.panes.across} × ${opening.panes.up}`}
            onCommit={(text) => {
              const match = /^\s*(\d+)\s*[x×*,]\s*(\d+)\s*$/.exec(text);
              if (!match) {
                say(`“${text}” was not taken: panes are two whole numbers, across and up, for example 3 × 2.`);
                return false;
              }
              return set({ panes: { across: Number(match[1]), up: Number(match[2]) } });
            }}
          />
        </Row>
      )}
      <Swatches
        items={partsOf(opening.kind).map((part) => ({
          label: part,
          finish: opening.finishes[part] ?? OPENING_FINISHES[part],
          target: { kind: 'opening', opening: id, part },
        }))}
      />
      <Actions />
    </>
  );
}

/** Hinged left or right, seen from the room the leaf opens into. */
const hand = ({ hinge, swing }: { hinge: 'start' | 'end'; swing: 'left' | 'right' }): 'left' | 'right' =>
  (hinge === 'start') === (swing === 'left') ? 'right' : 'left';
const hingeFor = (side: 'left' | 'right', swing: 'left' | 'right'): 'start' | 'end' => ((side === 'right') === (swing === 'left') ? 'start' : 'end');

function RoomDocket({ id }: { id: string }) {
  const project = useStudio((s) => s.project);
  const model = useStudio((s) => s.model);
  const { units, run, say } = useEdit();
  const room = project.rooms[id];
  const derived = model.shell.rooms.get(id);
  const level = project.levels[room.level];
  return (
    <>
      <Row label="Name">
        <TextField label="Room name" value={room.name} onCommit={(name) => run('room.set', { room: id, set: { name } })} />
      </Row>
      {derived ? (
        <>
          <Row label="Area">{formatArea(derived.area, units)}</Row>
          <Row label="Inside">
            {formatLength(derived.size.x, units)} × {formatLength(derived.size.y, units)}
          </Row>
          <Row label="Perimeter">{formatLength(derived.perimeter, units)}</Row>
        </>
      ) : null}
      <Row label="Ceiling">
        <LengthField
          label="Ceiling height of the level"
          metres={level.height}
          units={units}
          onRefuse={say}
          onCommit={(height) => run('level.set', { id: level.id, set: { height } })}
        />
      </Row>
      <Swatches
        items={[
          { label: 'floor', finish: room.floor ?? BARE.floor, target: { kind: 'floor', room: id } },
          { label: 'walls', finish: room.walls ?? BARE.wall, target: { kind: 'walls', room: id } },
          { label: 'ceiling', finish: room.ceiling ?? BARE.ceiling, target: { kind: 'ceiling', room: id } },
        ]}
      />
    </>
  );
}

function PieceDocket({ id }: { id: string }) {
  const piece = useStudio((s) => s.project.pieces[id]);
  const { units, run, say } = useEdit();
  const item = stockItem(piece.maker);
  const set = (values: Record<string, unknown>): boolean => run('piece.set', { piece: id, set: values });
  const resize = (key: 'width' | 'depth' | 'height', v: number): boolean => {
    const size = { ...piece.size, [key]: v };
    const clamped = item ? clampSize(item, size) : size;
    if (Math.abs(clamped[key] - v) > 1e-9) {
      say(`${piece.name} was not resized: its ${key} goes from ${formatLength(item!.min[key], units)} to ${formatLength(item!.max[key], units)}.`);
      return false;
    }
    return set({ size: clamped });
  };
  return (
    <>
      <Diagram kind="piece" piece={piece} units={units} />
      {(['width', 'depth', 'height'] as const).map((key) => (
        <Row key={key} label={key[0].toUpperCase() + key.slice(1)}>
          <LengthField label={key[0].toUpperCase() + key.slice(1)} metres={piece.size[key]} units={units} onRefuse={say} onCommit={(v) => resize(key, v)} />
        </Row>
      ))}
      <Row label="Above floor">
        <LengthField label="Above floor" metres={piece.elevation} units={units} onRefuse={say} onCommit={(elevation) => set({ elevation })} />
      </Row>
      <Row label="Turned">
        <NumberField
          label="Turned"
          value={((((piece.rotation * 180) / Math.PI) % 360) + 360) % 360}
          min={-360}
          max={360}
          onRefuse={say}
          onCommit={(v) => set({ rotation: (v * Math.PI) / 180 })}
        />
      </Row>
      {piece.lamp ? (
        <>
          <Row label="Lit">
            <Switch
              slotProps={{ input: { 'aria-label': 'Lit' } }}
              checked={piece.lamp.on}
              onChange={(e) => set({ lamp: { ...piece.lamp!, on: e.target.checked } })}
            />
          </Row>
          <Row label="Light, lm">
            <NumberField
              label="Light"
              value={piece.lamp.lumen}
              min={0}
              max={50000}
              onRefuse={say}
              onCommit={(lumen) => set({ lamp: { ...piece.lamp!, lumen } })}
            />
          </Row>
          <Row label="Colour, K">
            <NumberField
              label="Colour temperature"
              value={piece.lamp.kelvin}
              min={1500}
              max={10000}
              onRefuse={say}
              onCommit={(kelvin) => set({ lamp: { ...piece.lamp!, kelvin } })}
            />
          </Row>
        </>
      ) : null}
      {item ? (
        <Swatches
          items={Object.entries(item.parts)
            .filter(([part]) => part !== LAMP_PART)
            .map(([part, finish]) => ({ label: part, finish: piece.finishes[part] ?? finish, target: { kind: 'piece', piece: id, part } }))}
        />
      ) : null}
      <Actions>
        <Button onClick={tools.duplicateSelection}>Duplicate</Button>
        <Button onClick={() => tools.turnSelection()}>Turn</Button>
      </Actions>
    </>
  );
}
