'use client';
import { counted } from '@/core/units/text';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import IconButton from '@mui/material/IconButton';
import Input from '@mui/material/Input';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { DotsThreeIcon } from '@phosphor-icons/react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useRef, useState, useSyncExternalStore } from 'react';
import { cutText } from '@/core/units/text';
import { formatArea } from '@/core/units/length';
import { TextField } from '../look/fields';
import { Mark } from '../look/Look';
import { Coming } from '../look/Coming';
import { colours, SERIF } from '../look/theme';
import { Warn } from '../look/Warn';
import { ErrandList } from '../errands/ErrandList';
import { useErrands } from '../errands/errands';
import { api, type Card, type Deleted } from '../store/api';
import { errorText } from '../store/sync';

/** All projects as cards. @param first those the page came with; null: they are asked for */
export function ProjectsPage({ first = null }: { first?: Card[] | null }) {
  const router = useRouter();
  const [cards, setCards] = useState<Card[] | null>(first);
  const [notice, setNotice] = useState<string | null>(null);
  const [deleted, setDeleted] = useState<Card | null>(null);
  const [gone, setGone] = useState<Deleted[]>([]);
  const [making, setMaking] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  const refresh = useCallback(
    () =>
      Promise.all([api.projects().then(setCards), api.deleted().then(setGone)]).then(
        () => undefined,
        (error: unknown) => {
          setCards((old) => old ?? []);
          setNotice(errorText(error));
        },
      ),
    [],
  );
  useEffect(() => void refresh(), [refresh]);
  // Figures that are being worked out are asked for again.
  const pending = Boolean(cards?.some((c) => c.pending));
  useEffect(() => {
    if (!pending) return;
    const timer = setTimeout(() => void refresh(), 700);
    return () => clearTimeout(timer);
  }, [pending, cards, refresh]);
  // While one looks at the list the studio is loaded: a project is then opened at once.
  const listed = cards !== null;
  useEffect(() => {
    if (!listed) return;
    const later = window.requestIdleCallback ?? ((work: () => void) => window.setTimeout(work, 200));
    later(() => {
      // What can’t be loaded now is asked for again when a project is opened.
      import('../Studio').catch(() => undefined);
    });
  }, [listed]);
  const { follow, carry } = useErrands.getState();
  const exportFile = (id: string): void => void follow(() => api.beginExport(id, 'file'), setNotice);
  const attempt = async (work: () => Promise<unknown>): Promise<void> => {
    setNotice(null);
    try {
      await work();
    } catch (error) {
      setNotice(errorText(error));
    }
    await refresh();
  };
  return (
    <Box sx={{ minHeight: '100vh', display: 'grid', gridTemplateColumns: '98px 1fr' }}>
      <Box component="nav" sx={{ bgcolor: colours.panel, borderRight: `1px solid ${colours.hairline}`, pt: 2.5, display: 'flex', justifyContent: 'center' }}>
        <Mark />
      </Box>
      <Box component="main" sx={{ p: '26px 34px 40px', maxWidth: 1240 }}>
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5, mb: 0.5 }}>
          <Box component="h1" sx={{ font: `34px ${SERIF}`, m: 0, flex: 1 }}>
            Projects
          </Box>
          <ErrandList />
          <Button onClick={() => file.current?.click()}>Open a project file</Button>
          <Button variant="contained" onClick={() => setMaking(true)}>
            New project
          </Button>
          <input
            ref={file}
            type="file"
            accept=".enstegon,application/zip"
            hidden
            data-testid="import"
            onChange={(e) => {
              const chosen = e.target.files?.[0];
              e.target.value = '';
              if (!chosen) return;
              setNotice(null);
              void carry(chosen.name, (signal, tell) => {
                tell('Sending');
                return api.importFile(chosen, signal);
              }).then(
                (errand) =>
                  errand &&
                  follow(
                    () => Promise.resolve(errand),
                    setNotice,
                    () => void refresh(),
                  ),
                (error: unknown) => setNotice(errorText(error)),
              );
            }}
          />
        </Box>
        <Box role="status" sx={{ minHeight: 30, mb: 1, fontSize: 13, color: notice ? colours.rust : colours.second }}>
          {notice ? (
            <span>
              <Warn /> {notice}
            </span>
          ) : deleted ? (
            <span>
              {deleted.name} was deleted.{' '}
              <Button
                variant="text"
                sx={{ color: colours.damson, textDecoration: 'underline' }}
                onClick={() => {
                  const { id } = deleted;
                  setDeleted(null);
                  void attempt(() => api.restore(id));
                }}
              >
                Undo
              </Button>
            </span>
          ) : (
            'Open one to go on with it.'
          )}
        </Box>
        <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(270px, 1fr))', gap: 2.5 }}>
          {(cards ?? []).map((card) => (
            <ProjectCard
              key={card.id}
              card={card}
              onExport={() => exportFile(card.id)}
              onRename={(name) => attempt(() => rename(card, name))}
              onDuplicate={() => attempt(() => api.duplicate(card.id))}
              onDelete={() =>
                attempt(async () => {
                  await api.remove(card.id);
                  setDeleted(card);
                })
              }
            />
          ))}
        </Box>
        <DeletedProjects gone={gone} onRestore={(id) => attempt(() => api.restore(id))} />
        {cards && !cards.length ? <Box sx={{ color: colours.second, mt: 4 }}>There is no project yet. Start one with “New project”.</Box> : null}
      </Box>
      <NewProject
        open={making}
        onClose={() => setMaking(false)}
        onMake={(name, units) =>
          attempt(async () => {
            const id = await api.create(name, units);
            router.push(`/project/${id}`);
          })
        }
      />
    </Box>
  );
}

async function rename(card: Card, name: string): Promise<void> {
  await api.append(card.id, card.seq, [{ id: crypto.randomUUID().replace(/-/g, '').slice(0, 16), kind: 'do', command: 'project.rename', args: { name } }]);
}

/** False while the page is as the server wrote it, which does not know the reader’s time zone. */
const useHere = (): boolean =>
  useSyncExternalStore(
    () => () => undefined,
    () => true,
    () => false,
  );

const moment = (iso: string): string => new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' }).format(new Date(iso));

const day = (iso: string): string => new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium' }).format(new Date(iso));

/** What was deleted and can still be put back, folded away until it is asked for. */
function DeletedProjects({ gone, onRestore }: { gone: Deleted[]; onRestore(id: string): void }) {
  if (!gone.length) return null;
  return (
    <Box component="details" sx={{ mt: 4, fontSize: 13, color: colours.second, '& summary': { cursor: 'pointer', width: 'fit-content' } }}>
      <summary>
        {gone.length} deleted {gone.length === 1 ? 'project' : 'projects'}
      </summary>
      <Box component="ul" aria-label="Deleted projects" sx={{ listStyle: 'none', m: '6px 0 0', p: 0, maxWidth: 640 }}>
        {gone.map(({ id, name, until }) => (
          <Box component="li" key={id} sx={{ display: 'flex', alignItems: 'baseline', gap: 1.5, py: '4px', borderTop: `1px solid ${colours.hairline}` }}>
            <Box sx={{ flex: 1, color: colours.ink, overflow: 'hidden', textOverflow: 'ellipsis' }}>{name}</Box>
            <span>can be put back until {day(until)}</span>
            <Button variant="text" size="small" aria-label={`Put ${name} back`} onClick={() => onRestore(id)}>
              Put back
            </Button>
          </Box>
        ))}
      </Box>
    </Box>
  );
}

function ProjectCard({
  card,
  onExport,
  onRename,
  onDuplicate,
  onDelete,
}: {
  card: Card;
  onExport(): void;
  onRename(name: string): void;
  onDuplicate(): void;
  onDelete(): void;
}) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [naming, setNaming] = useState(false);
  const here = useHere();
  const pick = (work: () => void) => () => {
    setAnchor(null);
    work();
  };
  return (
    <Box
      component="article"
      data-testid="project-card"
      aria-label={card.name}
      sx={{ bgcolor: colours.paper, border: `1px solid ${colours.hairline}`, '&:hover': { borderColor: colours.third } }}
    >
      <Box
        // A link works before the page’s code has come, and opens in a window of its own where one wants it to.
        {...(card.damaged ? {} : { component: Link, href: `/project/${card.id}`, prefetch: false, 'aria-label': `Open ${card.name}` })}
        sx={{
          all: 'unset',
          display: 'block',
          cursor: card.damaged ? 'default' : 'pointer',
          width: '100%',
          aspectRatio: '16 / 10',
          bgcolor: colours.paper,
          borderBottom: `1px solid ${colours.hairline}`,
          overflow: 'hidden',
          '&:focus-visible': { outline: `2px solid ${colours.damson}` },
        }}
      >
        {card.damaged ? (
          <Box sx={{ p: '16px 18px', fontSize: 13, lineHeight: 1.45, whiteSpace: 'normal' }}>
            <Warn /> {card.damaged}
          </Box>
        ) : (
          <Thumbnail key={card.seq} src={`/api/projects/${card.id}/thumbnail?seq=${card.seq}`} />
        )}
      </Box>
      <Box sx={{ p: '9px 6px 9px 13px', display: 'flex', alignItems: 'flex-start' }}>
        <Box sx={{ flex: 1, minWidth: 0 }}>
          {naming ? (
            <TextField
              label="Project name"
              value={card.name}
              onCommit={(name) => {
                setNaming(false);
                if (name.trim()) onRename(name.trim());
              }}
            />
          ) : (
            <Box component="h2" sx={{ m: 0, font: `19px ${SERIF}`, overflow: 'hidden', textOverflow: 'ellipsis' }}>
              {card.name}
            </Box>
          )}
          <Box sx={{ fontSize: 12, color: colours.third }} hidden={Boolean(card.damaged)}>
            {card.pending ? 'counting…' : `${counted(card.rooms, 'room')}, ${formatArea(card.area, 'metric')}, ${counted(card.pieces, 'piece')}`}
          </Box>
          <Box sx={{ fontSize: 12, color: colours.third }}>changed {here ? moment(card.changedAt) : ''}</Box>
        </Box>
        <IconButton aria-label={`More for ${card.name}`} onClick={(e) => setAnchor(e.currentTarget)}>
          <DotsThreeIcon size={18} weight="bold" />
        </IconButton>
        <Menu anchorEl={anchor} open={Boolean(anchor)} onClose={() => setAnchor(null)}>
          <MenuItem disabled={Boolean(card.damaged)} onClick={pick(() => setNaming(true))}>
            Rename
          </MenuItem>
          <MenuItem disabled={Boolean(card.damaged)} onClick={pick(onDuplicate)}>
            Duplicate
          </MenuItem>
          <MenuItem onClick={pick(onExport)}>{card.damaged ? 'Export what can be read' : 'Export project file'}</MenuItem>
          <MenuItem onClick={pick(onDelete)}>Delete</MenuItem>
        </Menu>
      </Box>
    </Box>
  );
}

/** The picture of a project: until it has come one sees that it is coming, and where there is none the paper stays. */
function Thumbnail({ src }: { src: string }) {
  const [come, setCome] = useState(false);
  return (
    <Box sx={{ position: 'relative', width: '100%', height: '100%' }}>
      <img
        src={src}
        alt=""
        width="100%"
        height="100%"
        // With the page it may have come before there was anybody to be told.
        ref={(img) => void (img?.complete && setCome(true))}
        onLoad={() => setCome(true)}
        onError={() => setCome(true)}
        style={{ display: 'block', objectFit: 'cover' }}
      />
      {come ? null : <Coming />}
    </Box>
  );
}

function NewProject({ open, onClose, onMake }: { open: boolean; onClose(): void; onMake(name: string, units: 'metric' | 'imperial'): void }) {
  const [name, setName] = useState('');
  const [units, setUnits] = useState<'metric' | 'imperial'>('metric');
  return (
    <Dialog open={open} onClose={onClose}>
      <Box
        component="form"
        sx={{ p: 3, width: 360 }}
        onSubmit={(e) => {
          e.preventDefault();
          onMake(name.trim() || 'Untitled house', units);
        }}
      >
        <Box component="h2" sx={{ font: `24px ${SERIF}`, m: '0 0 12px' }}>
          A new project
        </Box>
        <Input
          autoFocus
          fullWidth
          placeholder="Its name"
          value={name}
          onChange={(e) => setName(cutText(e.target.value, 120))}
          inputProps={{ 'aria-label': 'Name of the project' }}
          sx={{ fontSize: 15, mb: 2 }}
        />
        <Box role="radiogroup" aria-label="Units" sx={{ display: 'flex', gap: 1, mb: 2.5 }}>
          {(['metric', 'imperial'] as const).map((u) => (
            <Button
              key={u}
              role="radio"
              aria-checked={units === u}
              onClick={() => setUnits(u)}
              sx={units === u ? { bgcolor: colours.ink, color: colours.paper, '&:hover': { bgcolor: colours.ink } } : undefined}
            >
              {u === 'metric' ? 'Millimetres' : 'Feet and inches'}
            </Button>
          ))}
        </Box>
        <Box sx={{ display: 'flex', justifyContent: 'flex-end', gap: 1 }}>
          <Button variant="text" onClick={onClose}>
            Cancel
          </Button>
          <Button type="submit" variant="contained">
            Start
          </Button>
        </Box>
      </Box>
    </Dialog>
  );
}
