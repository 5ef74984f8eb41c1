'use client';
import { findsAll } from '@/core/units/text';
import Box from '@mui/material/Box';
import { useEffect, useMemo, useState } from 'react';
import { finishesInUse } from '@/core/boards/compose';
import { naturalForm } from '@/core/boards/sample';
import { meanHex } from '@/core/finishes/finish';
import { finishIn } from '@/core/finishes/store';
import { unitKinds } from '@/core/cabinetry/said';
import { CARDS } from '@/core/stock/stock';
import type { StockCategory } from '@/core/stock/types';
import { formatArea } from '@/core/units/length';
import { Coming } from '../look/Coming';
import { colours } from '../look/theme';
import { newId, useFinish, useStudio } from '../store/studio';
import { useBoard } from '../boards/board';
import { useSample } from '../finishes/textures';
import { readLibrary, useLibrary } from '../store/library';
import { setsIn } from '../tools/sets';
import { Card, Cards, SetCard, StockCard, Tabs } from './cards';
import { FinishLedge } from './FinishLedge';
import { ShellLedge } from './ShellLedge';
import { LightLedge } from './LightLedge';
import { UnitCard } from './UnitCard';
import { ViewsLedge } from './ViewsLedge';

/** What this stage places or applies, as cards with real pictures. */
export function Ledge() {
  const stage = useStudio((s) => s.stage);
  return (
    <Box
      component="section"
      aria-label={`Ledge: ${stage}`}
      data-testid="ledge"
      sx={{
        bgcolor: colours.panel,
        borderTop: `1px solid ${colours.firm}`,
        height: 138,
        display: 'flex',
        flexDirection: 'column',
        p: '8px 0 0 18px',
        gap: '7px',
        overflow: 'hidden',
        gridColumn: 2,
      }}
    >
      {stage === 'Shell' ? <ShellLedge /> : null}
      {stage === 'Fit-out' ? <StockLedge /> : null}
      {stage === 'Finishes' ? <FinishLedge /> : null}
      {stage === 'Light' ? <LightLedge /> : null}
      {stage === 'Views' ? <ViewsLedge /> : null}
      {stage === 'Boards' ? <BoardLedge /> : null}
      {stage === 'Schedules' ? (
        <Box sx={{ color: colours.second, fontSize: 12.5 }}>Press a row to go to what it counts; it is changed on the docket.</Box>
      ) : null}
    </Box>
  );
}

/** The tabs of units of cabinets, and of one’s own sets. */
const UNITS = 'Cabinets';
const SETS = 'Sets';

function StockLedge() {
  const categories = useMemo(() => [...new Set(CARDS.map((c) => c.item.category)), UNITS, SETS] as const, []);
  const [tab, setTab] = useState<StockCategory | typeof UNITS | typeof SETS>(categories[0]);
  const [find, setFind] = useState('');
  const entries = useLibrary((s) => s.entries);
  useEffect(() => void (useLibrary.getState().read || readLibrary()), []);
  const sets = setsIn(entries).filter((e) => (find.trim() ? findsAll(`${e.name} set`, find) : tab === SETS));
  const system = useStudio((s) => s.project.units);
  const units = useMemo(() => unitKinds(system), [system]).filter((k) => (find.trim() ? findsAll(`${k.word} cabinet unit`, find) : tab === UNITS));
  const shown = find.trim()
    ? CARDS.filter((c) => findsAll(`${c.name} ${c.item.name} ${c.item.category} ${c.words}`, find))
    : CARDS.filter((c) => c.item.category === tab);
  return (
    <>
      <Tabs tabs={categories} tab={tab} onTab={setTab} find={find} onFind={setFind} placeholder="Find in stock…" />
      <Cards>
        {shown.map((card) => (
          <StockCard key={card.id} card={card} />
        ))}
        {units.map((kind) => (
          <UnitCard key={kind.word} kind={kind} />
        ))}
        {sets.map((entry) => (
          <SetCard key={entry.id} entry={entry} />
        ))}
        {shown.length || units.length || sets.length ? null : (
          <Box sx={{ color: colours.second, py: 2 }}>
            {tab === SETS && !find.trim()
              ? 'No set is kept yet: choose several pieces, keep them together, and put them in the library.'
              : 'Nothing in stock is called that.'}
          </Box>
        )}
      </Cards>
    </>
  );
}

function BoardLedge() {
  const [tab, setTab] = useState<'Samples in use' | 'Pictures' | 'Text'>('Samples in use');
  const model = useStudio((s) => s.model);
  const room = useStudio((s) => s.room);
  const project = useStudio((s) => s.project);
  const { board, page } = useBoard();
  const used = useMemo(() => finishesInUse(model, room), [model, room]);
  const own = board ? project.boards[board] : undefined;
  const add = (item: Record<string, unknown>): void => {
    const { run, say } = useStudio.getState();
    if (!own || !page) return say('Nothing was placed: start a board first.');
    const id = newId('item');
    const order = Math.max(0, ...Object.values(own.items).map((i) => i.order)) + 1;
    const offset = (Object.keys(own.items).length % 7) * 0.006;
    if (run('item.add', { board: own.id, items: [{ id, page, order, x: 0.04 + offset, y: 0.06 + offset, shadow: true, ...item } as never] }))
      useBoard.setState({ item: id });
  };
  return (
    <>
      <Tabs tabs={['Samples in use', 'Pictures', 'Text'] as const} tab={tab} onTab={setTab} />
      <Cards>
        {tab === 'Samples in use'
          ? used.map(({ finish, area }) => (
              <SampleCard
                key={finish}
                finish={finish}
                line={formatArea(area, project.units)}
                onPress={() => add({ kind: 'sample', finish, form: naturalForm(finishIn(project, finish)), note: '', width: 0.07, height: 0.05 })}
              />
            ))
          : null}
        {tab === 'Pictures'
          ? Object.values(project.pictures).map((p) => (
              <Card
                key={p.id}
                name={p.name}
                line={`${p.width} × ${p.height}`}
                onPress={() => add({ kind: 'picture', picture: p.id, width: 0.18, height: (0.18 * p.height) / p.width })}
                picture={<img src={`/api/assets/${p.image}`} alt="" height={58} draggable={false} />}
              />
            ))
          : null}
        {tab === 'Pictures' && !Object.keys(project.pictures).length ? (
          <Box sx={{ color: colours.second, py: 2 }}>No picture yet. Render one in the Views stage.</Box>
        ) : null}
        {tab === 'Text' ? (
          <>
            <Card
              name="Title"
              line="Instrument Serif"
              onPress={() => add({ kind: 'text', text: project.name, size: 0.014, face: 'serif', align: 'left', width: 0.2, height: 0.02, shadow: false })}
              picture={<Box sx={{ font: "28px 'Instrument Serif'" }}>Aa</Box>}
            />
            <Card
              name="Note"
              line="Instrument Sans"
              onPress={() =>
                add({ kind: 'text', text: 'A few words about this room.', size: 0.0045, face: 'sans', align: 'left', width: 0.1, height: 0.02, shadow: false })
              }
              picture={<Box sx={{ fontSize: 16 }}>Aa</Box>}
            />
          </>
        ) : null}
      </Cards>
    </>
  );
}

function SampleCard({ finish, line, onPress }: { finish: string; line: string; onPress(): void }) {
  const own = useFinish(finish);
  const url = useSample(own, 'tiles', 208, 116);
  return (
    <Card
      name={own.name}
      line={line}
      onPress={onPress}
      picture={
        <Box
          sx={{
            position: 'relative',
            width: '100%',
            height: '100%',
            bgcolor: meanHex(own),
            backgroundImage: url ? `url(${url})` : 'none',
            backgroundSize: 'cover',
          }}
        >
          {url ? null : <Coming />}
        </Box>
      }
    />
  );
}
