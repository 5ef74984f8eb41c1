'use client';
import { useDeferredValue } from 'react';
import Button from '@mui/material/Button';
import { formName } from '@/core/project/opening-defaults';
import { withForm } from '@/core/project/opening-stand';
import { openingGaps } from '@/core/project/openings';
import { FORMS, type Opening, type OpeningForm, type Project } from '@/core/project/schema';
import { wallLength, wallRidge } from '@/core/project/wall-line';
import { clearWidth } from '@/core/shell/openings/sizes';
import { formatLength } from '@/core/units/length';
import { PROFILES } from '@/core/finishes/profiles';
import { Choice, STATUS_NAMES } from '../look/Choice';
import { LengthField, NumberField, Row, TextField } from '../look/fields';
import { useStudio } from '../store/studio';
import * as tools from '../tools/controller';
import { Diagram } from './Diagram';
import { Group } from './Group';
import { DressRows } from './HangRows';
import { StandRows } from './StandRows';
import { Actions, GridRow, PartSwatches, useEdit } from './parts';

/** A door, window, pass-through or niche: form, sizes, where it stands and what holds it there, its parts. */
export function OpeningDocket({ id }: { id: string }) {
  const project = useStudio((s) => s.project);
  const model = useDeferredValue(useStudio((s) => s.model));
  const { units, run, say } = useEdit();
  const opening = project.openings[id];
  const rooms = model.shell.openings.get(id)?.rooms;
  const gaps = openingGaps(project, opening);
  const set = (values: Partial<Opening>): boolean => run('opening.set', { opening: id, set: values });
  const roomName = (side: 'left' | 'right'): string => (rooms?.[side] ? (project.rooms[rooms[side]!]?.name ?? 'Room') : 'Outside');
  const { kind, form } = opening;
  const length = (label: string, key: 'width' | 'height' | 'sill' | 'depth' | 'fanlight' | 'threshold' | 'architrave' | 'sillBoard') => (
    <Row key={key} label={label}>
      <LengthField label={label} metres={opening[key]} units={units} onRefuse={say} onCommit={(v) => set({ [key]: v })} />
    </Row>
  );
  const swings = kind === 'door' && !['sectional', 'up-and-over'].includes(form);
  return (
    <>
      <Diagram kind="opening" opening={opening} units={units} />
      <Row label="Name">
        <TextField label="Name" value={opening.name} onCommit={(name) => set({ name })} />
      </Row>
      {FORMS[kind].length > 1 ? (
        <Row label="Form">
          <Choice
            bare
            label="Form"
            value={form}
            options={FORMS[kind].map((f) => [f, formName(kind, f)] as const)}
            onChoose={(f) => void set(f === 'corner' ? { ...withForm(opening, f), ...cornerSizes(project, opening) } : withForm(opening, f as OpeningForm))}
          />
        </Row>
      ) : null}
      {length('Width', 'width')}
      {length('Height', 'height')}
      {kind === 'door' ? null : length('Sill', 'sill')}
      {kind === 'niche' || form === 'bay' ? length('Depth', 'depth') : null}
      {form === 'corner' ? length('Other side', 'depth') : null}
      {gaps && form !== 'corner' ? (
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
      {kind === 'door' ? <Row label="Clear width">{formatLength(clearWidth(opening), units)}</Row> : null}
      {swings ? (
        <>
          <Row label="Opens into">
            <Choice
              bare
              label="Opens into"
              value={opening.swing}
              options={[
                ['left', roomName('left')],
                ['right', roomName('right')],
              ]}
              onChoose={(swing) => void set({ swing })}
            />
          </Row>
          <Row label="Hand">
            <Choice
              bare
              label="Hand"
              value={hand(opening)}
              options={[
                ['left', 'hinged left'],
                ['right', 'hinged right'],
              ]}
              onChoose={(side) => void set({ hinge: hingeFor(side, opening.swing) })}
            />
          </Row>
        </>
      ) : null}
      {kind === 'niche' ? (
        <Row label="Opens to">
          <Choice
            bare
            label="Opens to"
            value={opening.swing}
            options={[
              ['left', roomName('left')],
              ['right', roomName('right')],
            ]}
            onChoose={(swing) => void set({ swing })}
          />
        </Row>
      ) : null}
      <Row label="Status">
        <Choice bare label="Status" value={opening.status} options={STATUS_NAMES} onChoose={(status) => void run('status.set', { ids: [id], status })} />
      </Row>
      <PartSwatches id={id} />
      {kind === 'niche' ? null : (
        <Group title="What hangs at it">
          <DressRows key={id} openings={[id]} />
        </Group>
      )}
      <Group title="Where it stands">
        {form === 'corner' ? <CornerRow opening={opening} set={set} /> : <Placed opening={opening} />}
        {(kind === 'door' && form !== 'sliding') || (kind === 'window' && form !== 'bay') ? (
          <StandRows opening={opening} sides={{ left: roomName('left'), right: roomName('right') }} />
        ) : null}
      </Group>
      <Group title="Outline and panes">
        {form === 'corner' ? null : (
          <Row label="Outline">
            <Choice
              bare
              label="Outline"
              value={opening.shape.kind}
              options={[
                ['rectangle', 'straight'],
                ['arch', 'arched head'],
                ['ellipse', 'round'],
                ...(opening.shape.kind === 'outline' ? ([['outline', 'as drawn']] as const) : []),
              ]}
              onChoose={(k) => {
                if (k === 'arch') set({ shape: { kind: 'arch', rise: Math.min(opening.width / 2, opening.height / 2) } });
                else if (k !== 'outline') set({ shape: { kind: k } });
              }}
            />
          </Row>
        )}
        {opening.shape.kind === 'arch' ? (
          <Row label="Rise">
            <LengthField
              label="Rise of the arch"
              metres={opening.shape.rise}
              units={units}
              onRefuse={say}
              onCommit={(rise) => set({ shape: { kind: 'arch', rise } })}
            />
          </Row>
        ) : null}
        {kind === 'window' || opening.glazed > 0 || opening.fanlight > 0 ? (
          <GridRow label="Panes" value={opening.panes} onSet={(panes) => set({ panes })} />
        ) : null}
        {kind === 'door' ? <GridRow label="Panels" value={opening.panels} onSet={(panels) => set({ panels })} /> : null}
        {kind === 'door' ? (
          <Row label="Glazed, %">
            <NumberField label="Glazed, %" value={opening.glazed * 100} min={0} max={100} onRefuse={say} onCommit={(v) => set({ glazed: v / 100 })} />
          </Row>
        ) : null}
        {kind === 'door' || ['casement', 'sash', 'sliding', 'top-hung', 'tilt'].includes(form) ? (
          <Row label="Open, %">
            <NumberField label="Open, %" value={opening.open * 100} min={0} max={100} onRefuse={say} onCommit={(v) => set({ open: v / 100 })} />
          </Row>
        ) : null}
      </Group>
      {kind === 'niche' ? null : (
        <Group title="Round it">
          {kind === 'door' ? (
            <>
              {length('Fanlight', 'fanlight')}
              {(['start', 'end'] as const).map((end) => (
                <Row key={end} label={end === 'start' ? 'Sidelight' : 'Other side'}>
                  <LengthField
                    label={`Sidelight at the ${end}`}
                    metres={opening.sidelights[end]}
                    units={units}
                    onRefuse={say}
                    onCommit={(v) => set({ sidelights: { ...opening.sidelights, [end]: v } })}
                  />
                </Row>
              ))}
              {length('Threshold', 'threshold')}
            </>
          ) : null}
          {kind === 'window' ? length('Sill board', 'sillBoard') : null}
          {form === 'corner' ? null : length('Architrave', 'architrave')}
          {form !== 'corner' && opening.architrave > 0 && opening.shape.kind === 'rectangle' ? (
            <Row label="Its section">
              <Choice
                bare
                label="Section of the architrave"
                value={opening.profile ?? 'plain'}
                options={[
                  ['plain', 'plain band'],
                  ...[...Object.values(project.profiles), ...PROFILES].filter((p) => p.use === 'architrave').map((p) => [p.id, p.name] as const),
                ]}
                onChoose={(v) => void set({ profile: v === 'plain' ? null : v })}
              />
            </Row>
          ) : null}
          {kind === 'door' || kind === 'window' ? (
            <>
              <Row label="Frame">
                <LengthField
                  label="Frame width"
                  metres={opening.frame.face}
                  units={units}
                  onRefuse={say}
                  onCommit={(face) => set({ frame: { ...opening.frame, face } })}
                />
              </Row>
              {form === 'corner' ? null : (
                <Row label="Handle">
                  <Choice
                    bare
                    label="Handle"
                    value={opening.handle}
                    options={[
                      ['lever', 'lever'],
                      ['knob', 'knob'],
                      ['pull', 'pull'],
                      ['none', 'none'],
                    ]}
                    onChoose={(handle) => void set({ handle })}
                  />
                </Row>
              )}
            </>
          ) : null}
        </Group>
      )}
      <Actions>
        <Button size="small" onClick={() => useStudio.setState({ elevation: { wall: opening.wall, side: opening.swing } })}>
          Elevation
        </Button>
      </Actions>
    </>
  );
}

/** Which end of its wall a corner window goes round. */
function CornerRow({ opening, set }: { opening: Opening; set(values: Partial<Opening>): boolean }) {
  return (
    <Row label="Goes round">
      <Choice
        bare
        label="Goes round"
        value={opening.hinge}
        options={[
          ['start', 'one corner of the wall'],
          ['end', 'the other corner'],
        ]}
        onChoose={(hinge) => void set({ hinge })}
      />
    </Row>
  );
}

/** An opening as a corner window at the nearer corner of its wall, rectangular and placed by nothing else. */
const cornerSizes = (project: Project, { wall, at, width }: Opening): Partial<Opening> => ({
  shape: { kind: 'rectangle' },
  place: { kind: 'free' },
  depth: width,
  architrave: 0,
  hinge: at < wallLength(project, project.walls[wall]) / 2 ? 'start' : 'end',
});

type Hold = 'free' | 'start' | 'end' | 'centred' | 'ridge' | 'between' | 'fill' | 'after' | 'before' | 'row';

/** What decides where it stands, and whose head it is level with. */
function Placed({ opening }: { opening: Opening }) {
  const project = useStudio((s) => s.project);
  const { units, run, say } = useEdit();
  const { place } = opening;
  const set = (values: Partial<Opening>): boolean => run('opening.set', { opening: opening.id, set: values });
  const others = Object.values(project.openings).filter((o) => o.id !== opening.id);
  const level = project.walls[opening.wall].level;
  const ridged = wallRidge(project.walls[opening.wall], project.levels[level]) !== null;
  const pieces = Object.values(project.pieces).filter((p) => p.level === level);
  const things: (readonly [string, string])[] = [...others.map((o) => [o.id, o.name] as const), ...pieces.map((p) => [p.id, p.name] as const)];
  const marks: (readonly [string, string])[] = [['start', 'one corner'], ['end', 'the other corner'], ...things];
  const hold: Hold =
    place.kind === 'corner' ? place.from : place.kind === 'between' ? (place.fill ? 'fill' : 'between') : place.kind === 'gap' ? place.side : place.kind;
  const choose = (next: Hold): void => {
    const gaps = openingGaps(project, opening);
    const first = others.find((o) => o.wall === opening.wall)?.id ?? things[0]?.[0];
    switch (next) {
      case 'free':
      case 'centred':
      case 'ridge':
        return void set({ place: { kind: next } });
      case 'start':
      case 'end':
        return void set({ place: { kind: 'corner', from: next, gap: Math.max(0, gaps?.[next] ?? 0.1) } });
      case 'between':
      case 'fill':
        return void set({ place: { kind: 'between', a: 'start', b: first ?? 'end', fill: next === 'fill' } });
      case 'after':
      case 'before':
        if (!first) return say('Nothing was changed: there is no other opening or piece to stand beside.');
        return void set({ place: { kind: 'gap', from: first, side: next, gap: 0.1 } });
      case 'row':
        return;
    }
  };
  return (
    <>
      <Row label="Placed">
        <Choice
          bare
          label="Placed"
          value={hold}
          options={[
            ['free', 'freely'],
            ['start', 'from one corner'],
            ['end', 'from the other corner'],
            ['centred', 'centred on the wall'],
            ...(ridged ? ([['ridge', 'centred under the ridge']] as const) : []),
            ['between', 'centred between two things'],
            ['fill', 'filling the space between two'],
            ['after', 'a gap after a thing'],
            ['before', 'a gap before a thing'],
            ...(hold === 'row' ? ([['row', 'in its row']] as const) : []),
          ]}
          onChoose={choose}
        />
      </Row>
      {place.kind === 'between'
        ? (['a', 'b'] as const).map((end) => (
            <Row key={end} label={end === 'a' ? 'Between' : 'and'}>
              <Choice
                bare
                label={end === 'a' ? 'Between' : 'and'}
                value={place[end]}
                options={marks}
                onChoose={(v) => void set({ place: { ...place, [end]: v } })}
              />
            </Row>
          ))
        : null}
      {place.kind === 'gap' ? (
        <>
          <Row label="Beside">
            <Choice bare label="Beside" value={place.from} options={things} onChoose={(from) => void set({ place: { ...place, from } })} />
          </Row>
          <Row label="Gap">
            <LengthField label="Gap" metres={place.gap} units={units} onRefuse={say} onCommit={(gap) => set({ place: { ...place, gap } })} />
          </Row>
        </>
      ) : null}
      <Row label="Head">
        <Choice
          bare
          label="Head level with"
          value={opening.head ?? 'own'}
          options={[['own', 'its own height'], ...things.map(([k, n]) => [k, `level with ${n}`] as const)]}
          onChoose={(v) => void set({ head: v === 'own' ? null : v })}
        />
      </Row>
    </>
  );
}

/** Hinged left or right, seen from the room the leaf opens into. */
const hand = ({ hinge, swing }: { hinge: 'start' | 'end'; swing: 'left' | 'right' }): 'left' | 'right' =>
  (hinge === 'start') === (swing === 'left') ? 'right' : 'left';
const hingeFor = (side: 'left' | 'right', swing: 'left' | 'right'): 'start' | 'end' => ((side === 'right') === (swing === 'left') ? 'start' : 'end');
