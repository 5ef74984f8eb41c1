'use client';
import { finishWords } from '@/core/finishes/words';
import { findsAll } from '@/core/units/text';
import Box from '@mui/material/Box';
import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { sampleSpan } from '@/core/boards/sample';
import { glossOf, sheenOf } from '@/core/render/gloss';
import { formatLength } from '@/core/units/length';
import { finishesInUse } from '@/core/boards/compose';
import { finishLrv, meanHex, type Finish } from '@/core/finishes/finish';
import { offered } from '@/core/finishes/library';
import { inHues } from '@/core/finishes/match';
import { finishIn } from '@/core/finishes/store';
import { CATEGORIES, ROLES, type Role } from '@/core/project/schema';
import { readLibrary, useLibrary } from '../store/library';
import { SCOPES, useFinishing, type Scope } from '../finishes/finishing';
import { Choice } from '../look/Choice';
import { Coming } from '../look/Coming';
import { colours } from '../look/theme';
import { useStudio } from '../store/studio';
import { UNIT_WORDS } from '../finishes/words';
import { useSample } from '../finishes/textures';
import { takeFinish } from '../tools/finishing';
import { Card, Cards, Large, Tabs } from './cards';

const TABS = [...CATEGORIES, 'In use', 'Recent', 'Own'] as const;

/** How many cards are drawn at first; more come as one goes on. */
const STEP = 24;

/** The finishes: by kind, by what they are for, those of this project, those taken lately. */
export function FinishLedge() {
  const [tab, setTab] = useState<(typeof TABS)[number]>('Paint');
  const [find, setFind] = useState('');
  const [role, setRole] = useState<Role | 'any'>('any');
  const [count, setCount] = useState(STEP);
  const model = useDeferredValue(useStudio((s) => s.model));
  const room = useStudio((s) => s.room);
  const tool = useStudio((s) => s.tool);
  const { scope, recent } = useFinishing();
  const { project } = model;
  const entries = useLibrary((s) => s.entries);
  const kept = useMemo(() => entries.flatMap((e) => (e.kind === 'finish' ? [e.data] : [])), [entries]);
  useEffect(() => void (useLibrary.getState().read || readLibrary()), []);
  const shown = useMemo(() => {
    // What the practice keeps comes after what this project has of its own.
    const own = [...Object.values(project.finishes), ...kept.filter((f) => !Object.hasOwn(project.finishes, f.id))];
    const all = find.trim()
      ? [...own, ...offered].filter((f) => findsAll(finishWords(f), find))
      : tab === 'In use'
        ? finishesInUse(model, room).map((u) => finishIn(project, u.finish))
        : tab === 'Recent'
          ? recent.map((id) => finishIn(project, id))
          : tab === 'Own'
            ? own
            : offered.filter((f) => f.category === tab);
    return role === 'any' ? all : all.filter((f) => f.roles.includes(role));
  }, [tab, find, role, model, project, room, recent, kept]);
  useEffect(() => setCount(STEP), [tab, find, role]);
  const end = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!end.current) return;
    const seen = new IntersectionObserver((list) => list.some((e) => e.isIntersecting) && setCount((c) => c + STEP));
    seen.observe(end.current);
    return () => seen.disconnect();
  }, [shown, count]);
  return (
    <>
      <Tabs tabs={TABS} tab={tab} onTab={setTab} find={find} onFind={setFind} placeholder="Find a finish…" />
      <Box sx={{ display: 'flex', gap: '9px', minHeight: 0 }}>
        <Box sx={{ width: 148, flex: 'none', display: 'flex', flexDirection: 'column', gap: '3px', fontSize: 12 }}>
          <Choice label="For" value={role} options={[['any', 'any use'] as const, ...ROLES.map((r) => [r, r] as const)]} onChoose={setRole} />
          <Choice
            label="Onto"
            value={scope}
            options={Object.entries(SCOPES) as [Scope, string][]}
            onChoose={(value) => useFinishing.setState({ scope: value })}
          />
          <Box sx={{ display: 'grid', gridTemplateColumns: '62px 1fr', columnGap: 1, rowGap: '3px', mt: '2px' }}>
            <Way on={tool.kind === 'pick'} onPress={() => useStudio.getState().setTool({ kind: 'pick' })}>
              Pick up
            </Way>
            <Way onPress={() => useFinishing.setState({ panel: 'schemes' })}>Schemes</Way>
            <Way onPress={() => useFinishing.setState({ panel: 'own', from: null })}>My own</Way>
            <Way onPress={() => useFinishing.setState({ panel: 'picture' })}>From a picture</Way>
          </Box>
        </Box>
        <Cards>
          {shown.slice(0, count).map((f) => (
            <FinishCard key={f.id} finish={f} dislikes={project.dislikes} />
          ))}
          {shown.length > count ? <div ref={end} style={{ width: 8, flex: 'none' }} /> : null}
          {shown.length ? null : (
            <Box sx={{ color: colours.second, py: 2 }}>
              {find
                ? 'No finish is called that.'
                : tab === 'Own'
                  ? 'No finish of your own yet: make one from a colour, a picture or a shipped one.'
                  : 'No finish has been chosen here yet.'}
            </Box>
          )}
        </Cards>
      </Box>
    </>
  );
}

function FinishCard({ finish, dislikes }: { finish: Finish; dislikes: readonly { name: string; from: number; to: number }[] }) {
  const tool = useStudio((s) => s.tool);
  const disliked = dislikes.find((d) => inHues(meanHex(finish), d));
  return (
    <Card
      name={finish.name}
      line={disliked ? `not ${disliked.name}` : `LRV ${finishLrv(finish).toFixed(0)}, ${finish.supplier}`}
      on={tool.kind === 'finish' && tool.finish === finish.id}
      onPress={() => takeFinish(finish.id)}
      drag={{ id: `finish ${finish.id}`, data: { kind: 'finish', finish: finish.id } }}
      large={<LargeFinish finish={finish} disliked={disliked?.name ?? null} />}
      picture={<Sample finish={finish} width={208} height={116} struck={Boolean(disliked)} />}
    />
  );
}

/** A sample that fills its place, in as many pixels; what the client does not like is struck through. */
function Sample({ finish, width, height, struck = false }: { finish: Finish; width: number; height: number; struck?: boolean }) {
  const url = useSample(finish, 'tiles', width, height);
  return (
    <Box
      sx={{
        width: '100%',
        height: '100%',
        bgcolor: meanHex(finish),
        backgroundImage: url ? `url(${url})` : 'none',
        backgroundSize: 'cover',
        position: 'relative',
        '&::after': struck
          ? {
              content: '""',
              position: 'absolute',
              inset: 0,
              background: `linear-gradient(to top right, transparent 48%, ${colours.rust} 49%, ${colours.rust} 51%, transparent 52%)`,
            }
          : {},
      }}
    >
      {url ? null : <Coming />}
    </Box>
  );
}

/** A finish large enough to judge it, with what one asks of it first. */
function LargeFinish({ finish, disliked }: { finish: Finish; disliked: string | null }) {
  const units = useStudio((s) => s.project.units);
  const money = useStudio((s) => s.project.money);
  return (
    <Large
      name={finish.name}
      lines={[
        [finish.category, finish.supplier, finish.code].filter(Boolean).join(', '),
        `LRV ${finishLrv(finish).toFixed(0)}, ${sheenOf(glossOf(finish))}, ${formatLength(sampleSpan(finish), units)} wide`,
        `${money} ${finish.price.toFixed(2)} ${UNIT_WORDS[finish.unit]}`,
        disliked ? `The client does not like ${disliked}.` : '',
      ]}
    >
      <Sample finish={finish} width={640} height={400} />
    </Large>
  );
}

/** A way to somewhere, in a word. */
function Way({ on, onPress, children }: { on?: boolean; onPress(): void; children: string }) {
  return (
    <Box
      component="button"
      aria-pressed={Boolean(on)}
      onClick={onPress}
      sx={{
        all: 'unset',
        cursor: 'pointer',
        width: 'fit-content',
        whiteSpace: 'nowrap',
        color: on ? colours.damson : colours.ink,
        fontWeight: on ? 650 : 500,
        borderBottom: `1px solid ${on ? colours.damson : colours.firm}`,
        '&:hover': { borderColor: colours.ink },
        '&:focus-visible': { outline: `2px solid ${colours.damson}` },
      }}
    >
      {children}
    </Box>
  );
}
