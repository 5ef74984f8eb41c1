'use client';
import Button from '@mui/material/Button';
import Switch from '@mui/material/Switch';
import { useMemo, useState } from 'react';
import type { Piece } from '@/core/project/schema';
import { clampSize, opens, stockItem, traitsFor } from '@/core/stock/stock';
import { traitRows } from '@/core/stock/traits';
import { formatLength } from '@/core/units/length';
import { Choice } from '../look/Choice';
import { FieldTable, type Field } from '../look/FieldTable';
import { LengthField, NumberField, Row } from '../look/fields';
import { useStudio } from '../store/studio';
import * as arranging from '../tools/arranging';
import * as tools from '../tools/controller';
import { ChairRows, CopyRows, ReplaceRow } from './CopyRows';
import { Group } from './Group';
import { HangRows } from './HangRows';
import { PlaceRows } from './PlaceRows';
import { Diagram } from './Diagram';
import { TraitRows } from './TraitRows';
import { Actions, PartSwatches, useEdit } from './parts';

/** A piece: sizes, place, light, finishes by part. */
export function PieceDocket({ id }: { id: string }) {
  const piece = useStudio((s) => s.project.pieces[id]);
  const { units, run, say } = useEdit();
  const item = stockItem(piece.maker);
  const opened = useStudio((s) => (s.openSet && s.project.contents.groups[s.openSet]?.members.includes(id) ? s.project.contents.groups[s.openSet].name : null));
  const alike = useStudio((s) => s.project.pieces);
  const others = useMemo(() => arranging.alikeWith({ pieces: alike }, id), [alike, id]);
  const [allOf, setAllOf] = useState('');
  const all = allOf === id;
  const meant = all ? [id, ...others] : [id];
  const set = (values: Partial<Piece>): boolean =>
    meant.length === 1 ? run('piece.set', { piece: id, set: values }) : run('pieces.set', { changes: meant.map((one) => ({ piece: one, set: values })) });
  const own = (values: Partial<Piece>): boolean => run('piece.set', { piece: id, set: values });
  const resize = (key: 'width' | 'depth' | 'height', v: number): boolean => {
    const size = { ...piece.size, [key]: v };
    const clamped = item ? clampSize(item, size) : size;
    if (Math.abs(clamped[key] - v) > 1e-9) {
      say(`${piece.name} was not resized: its ${key} goes from ${formatLength(item!.min[key], units)} to ${formatLength(item!.max[key], units)}.`);
      return false;
    }
    return set({ size: clamped });
  };
  /** Of what hangs at a window that decides how wide and how high it is. */
  const byWindow = (key: 'width' | 'depth' | 'height'): boolean =>
    piece.hangs !== null && (key === 'width' || (key === 'height' && piece.hangs.ends !== 'as high as it is'));
  return (
    <>
      <Diagram kind="piece" piece={piece} units={units} />
      {opened ? (
        <Row label="Open set">
          <span>{opened}</span>
          <Button size="small" onClick={() => tools.openSet(null)}>
            Close
          </Button>
        </Row>
      ) : null}
      {others.length ? (
        <Row label="Changes go">
          <Choice
            bare
            label="Changes go to"
            value={all ? 'all' : 'one'}
            options={[
              ['one', 'to this one'],
              ['all', `to all ${others.length + 1} like it`],
            ]}
            onChoose={(v) => setAllOf(v === 'all' ? id : '')}
          />
        </Row>
      ) : null}
      {(['width', 'depth', 'height'] as const).map((key) => (
        <Row key={key} label={key[0].toUpperCase() + key.slice(1)} note={byWindow(key) ? 'by its window' : undefined}>
          {byWindow(key) ? (
            formatLength(piece.size[key], units)
          ) : (
            <LengthField label={key[0].toUpperCase() + key.slice(1)} metres={piece.size[key]} units={units} onRefuse={say} onCommit={(v) => resize(key, v)} />
          )}
        </Row>
      ))}
      <HangRows piece={piece} />
      {piece.hangs ? null : (
        <>
          <Row label="Above floor">
            <LengthField label="Above floor" metres={piece.elevation} units={units} onRefuse={say} onCommit={(elevation) => own({ elevation })} />
          </Row>
          <Row label="Turned">
            <NumberField
              label="Turned"
              value={((((piece.rotation * 180) / Math.PI) % 360) + 360) % 360}
              min={-360}
              max={360}
              onRefuse={say}
              onCommit={(v) => own({ rotation: (v * Math.PI) / 180 })}
            />
          </Row>
        </>
      )}
      <StandRows piece={piece} set={set} />
      {item?.traits ? (
        <TraitRows
          name={piece.name}
          traits={piece.traits}
          rows={traitRows(item.traits)}
          whole={traitsFor(item, piece.traits)}
          set={(traits) => set({ traits })}
        />
      ) : null}
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
      {item ? <PartSwatches id={id} /> : null}
      <ChairRows piece={piece} />
      {piece.hangs ? null : (
        <Group title="Where it stands">
          <PlaceRows piece={piece} />
        </Group>
      )}
      <Group title="Copies">
        <CopyRows key={id} piece={piece} />
      </Group>
      {item ? <ReplaceRow key={`${id} ${piece.maker}`} pieces={meant} mount={item.mount} /> : null}
      <Actions>
        <Button onClick={tools.duplicateSelection}>Duplicate</Button>
        {piece.hangs ? null : <Button onClick={() => tools.turnSelection()}>Turn</Button>}
      </Actions>
    </>
  );
}

/** Whether it is there already or is bought, on what it stands, and how far it stands open. */
function StandRows({ piece, set }: { piece: Piece; set(values: Partial<Piece>): boolean }) {
  const { units, run, say } = useEdit();
  const item = stockItem(piece.maker);
  const { size, traits } = piece;
  const leaves = useMemo(() => item !== undefined && opens(item, size, traits), [item, size, traits]);
  const under = useStudio((s) => (piece.on === null ? null : s.project.pieces[piece.on]?.name));
  const fields: Field[] = [
    {
      kind: 'choice',
      label: 'Status',
      value: piece.status,
      options: [
        ['existing', 'existing'],
        ['removed', 'to be removed'],
        ['new', 'new'],
      ],
      set: (status) => set({ status: status as Piece['status'] }),
    },
  ];
  if (piece.status === 'new')
    fields.push({
      kind: 'choice',
      label: 'Supply',
      value: piece.supply,
      options: (['to order', 'ordered', 'bought'] as const).map((o) => [o, o] as const),
      set: (supply) => set({ supply: supply as Piece['supply'] }),
    });
  if (leaves) fields.push({ kind: 'number', label: 'Open, %', value: Math.round(piece.open * 100), min: 0, max: 100, set: (v) => set({ open: v / 100 }) });
  return (
    <>
      {under ? (
        <Row label="Stands on">
          <span>{under}</span>
          <Button size="small" onClick={() => run('piece.set', { piece: piece.id, set: { on: null } })}>
            Let go
          </Button>
        </Row>
      ) : null}
      <FieldTable units={units} say={say} fields={fields} />
    </>
  );
}
