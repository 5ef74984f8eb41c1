'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Input from '@mui/material/Input';
import { CaretDownIcon, CaretRightIcon, XIcon } from '@phosphor-icons/react';
import { useMemo, useState } from 'react';
import { referencesOf, type Thing } from '@/core/project/kinds';
import { finishIn } from '@/core/finishes/store';
import { addressOf, entityOf, type Target } from '@/core/project/targets';
import { collectionOf } from '@/core/project/things';
import { cutText } from '@/core/units/text';
import { findIn, contentsOf, type ContentsNode } from '@/core/schedules/contents';
import { colours, SERIF } from './look/theme';
import { newId, useStudio } from './store/studio';
import { current } from './table/model/ModelPane';
import { arrowThrough, useFocusInside } from './look/focus';
import * as tools from './tools/controller';

/** Everything the project holds, by level and room: to find, rename, group, hide and hold. */
export function ContentsPanel({ onClose }: { onClose(): void }) {
  const model = useStudio((s) => s.model);
  const contents = useStudio((s) => s.project.contents);
  const selection = useStudio((s) => s.selection);
  const tool = useStudio((s) => s.tool);
  const holding = tool.kind === 'finish' ? finishIn(model.project, tool.finish).name : null;
  const inside = useFocusInside<HTMLElement>('input');
  const [find, setFind] = useState('');
  const [open, setOpen] = useState<ReadonlySet<string>>(new Set(model.shell.levels.map((l) => l.id)));
  const all = useMemo(() => contentsOf(model), [model]);
  const shown = useMemo(() => findIn(all, find), [all, find]);
  const { run } = useStudio.getState();
  const chosen = selection.map((s) => s.entity);
  const group = (): void => void run('contents.group', { id: newId('group'), name: `Group ${Object.keys(contents.groups).length + 1}`, members: chosen });
  return (
    <Box
      component="aside"
      ref={inside}
      aria-label="Contents of the project"
      onKeyDown={(e: React.KeyboardEvent) => {
        if (e.key !== 'Escape' || e.defaultPrevented) return;
        // A finish in hand is put down first.
        if (useStudio.getState().tool.kind !== 'select') useStudio.getState().setTool({ kind: 'select' });
        else onClose();
        e.stopPropagation();
      }}
      sx={{
        position: 'absolute',
        left: 0,
        top: 0,
        bottom: 0,
        width: 268,
        zIndex: 12,
        bgcolor: colours.paper,
        borderRight: `1px solid ${colours.firm}`,
        display: 'flex',
        flexDirection: 'column',
        fontSize: 12.5,
      }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', p: '8px 8px 2px 14px' }}>
        <Box component="h2" sx={{ font: `20px ${SERIF}`, m: 0, flex: 1 }}>
          Contents
        </Box>
        <IconButton aria-label="Close the contents" size="small" onClick={onClose}>
          <XIcon size={13} />
        </IconButton>
      </Box>
      <Box sx={{ px: 1.75, pb: 0.75, display: 'flex', gap: 1 }}>
        <Input
          value={find}
          placeholder="Find a thing"
          inputProps={{ 'aria-label': 'Find a thing' }}
          onChange={(e) => setFind(e.target.value)}
          onKeyDown={(e) => {
            if (e.key !== 'Escape') e.stopPropagation();
            // From the field down into what was found.
            if (e.key === 'ArrowDown') e.currentTarget.closest('aside')?.querySelector<HTMLElement>('[data-line]')?.focus();
          }}
          sx={{ flex: 1 }}
        />
        <Button size="small" disabled={!chosen.length} onClick={group} title="Make the selected things a group">
          Group
        </Button>
      </Box>
      {holding ? <Box sx={{ px: 1.75, pb: 0.75, color: colours.second }}>{holding}: press a face to put it there.</Box> : null}
      <Box
        role="list"
        aria-label="Things"
        onKeyDown={(e: React.KeyboardEvent<HTMLElement>) => arrowThrough(e, '[data-line]', 'down')}
        sx={{ overflow: 'auto', flex: 1, pb: 1.5 }}
      >
        {shown.map((n) => (
          <Line
            key={n.id}
            node={n}
            depth={0}
            open={find ? null : open}
            onOpen={(id) => setOpen(new Set(open.has(id) ? [...open].filter((o) => o !== id) : [...open, id]))}
            chosen={new Set(chosen)}
            chosenFaces={new Set(selection.flatMap((s) => (s.target ? [addressOf(s.target)] : [])))}
            hidden={new Set(contents.hidden)}
            held={new Set(contents.held)}
          />
        ))}
        {shown.length ? null : <Box sx={{ px: 2, color: colours.third }}>Nothing is called that.</Box>}
      </Box>
    </Box>
  );
}

interface LineProps {
  node: ContentsNode;
  /** Faces that are chosen, by their addresses. */
  chosenFaces: ReadonlySet<string>;
  depth: number;
  /** What is unfolded; null: everything. */
  open: ReadonlySet<string> | null;
  onOpen(id: string): void;
  chosen: ReadonlySet<string>;
  hidden: ReadonlySet<string>;
  held: ReadonlySet<string>;
}

/** A press on a face: what is in hand goes there; with nothing in hand it is chosen. */
function chooseFace(target: Target, add: boolean): void {
  const { tool, select, selection } = useStudio.getState();
  if (tools.pressFace(target, add)) return;
  if (tool.kind !== 'select') useStudio.getState().setTool({ kind: 'select' });
  const entity = entityOf(target)!;
  const level = levelOf(entity);
  if (level) useStudio.setState({ level });
  const spot = { entity, target };
  const address = addressOf(target);
  select(add ? [...selection.filter((s) => !s.target || addressOf(s.target) !== address), spot] : [spot]);
}

/** All things under a node, itself included. */
const under = (node: ContentsNode): string[] => [...(node.thing && node.kind !== 'group' ? [node.id] : []), ...node.children.flatMap(under)];

function Line(props: LineProps) {
  const { node, depth, open, onOpen, chosen, chosenFaces, hidden, held } = props;
  const [editing, setEditing] = useState(false);
  const unfolded = open === null || open.has(node.id);
  const { run } = useStudio.getState();
  const own = node.kind === 'level' || node.kind === 'room' ? [node.id] : under(node);
  const isHidden = own.length > 0 && own.every((id) => hidden.has(id));
  const isHeld = own.length > 0 && own.every((id) => held.has(id));
  const go = (add: boolean): void => {
    const { project, select, selection } = useStudio.getState();
    const viewpoint = project.viewpoints[node.id];
    if (viewpoint) return current.scene?.eye.set(viewpoint);
    if (node.target) return chooseFace(node.target, add);
    if (!node.thing) return onOpen(node.id);
    if (node.kind === 'group') return select(node.children.map((c) => ({ entity: c.id, target: null })));
    const level = levelOf(node.id);
    if (level) useStudio.setState({ level });
    const spot = { entity: node.id, target: null };
    select(add ? [...selection.filter((s) => s.entity !== node.id), spot] : [spot]);
  };
  const face = node.target;
  const isChosen = face ? chosenFaces.has(node.id) : chosen.has(node.id);
  const rename = (name: string): void => {
    setEditing(false);
    if (name.trim() && name !== node.name) run('thing.rename', { id: node.id, name: cutText(name.trim(), 120) });
  };
  const mark = (word: string, on: boolean, pressed: string, act: () => void): React.ReactNode => (
    <Box
      component="button"
      aria-label={`${word} ${node.name}`}
      aria-pressed={on}
      onClick={act}
      sx={{
        all: 'unset',
        cursor: 'pointer',
        px: '3px',
        fontSize: 11,
        color: on ? colours.damson : colours.third,
        // Words that say nothing yet keep out of the way until one comes near.
        opacity: on ? 1 : 0,
        '.line:hover &, .line:focus-within &': { opacity: 1 },
        '&:hover, &:focus-visible': { textDecoration: 'underline' },
        '&:focus-visible': { outline: `2px solid ${colours.damson}` },
      }}
    >
      {on ? pressed : word.toLowerCase()}
    </Box>
  );
  return (
    <Box role="listitem">
      <Box
        className="line"
        sx={{
          display: 'flex',
          alignItems: 'center',
          height: 24,
          pl: `${8 + depth * 14}px`,
          pr: 0.75,
          bgcolor: isChosen ? colours.damsonTint : undefined,
          color: isHidden ? colours.third : colours.ink,
        }}
      >
        {node.children.length ? (
          <IconButton
            aria-expanded={unfolded}
            aria-label={`${unfolded ? 'Fold' : 'Unfold'} ${node.name}`}
            size="small"
            sx={{ p: '2px' }}
            onClick={() => onOpen(node.id)}
          >
            {unfolded ? <CaretDownIcon size={10} /> : <CaretRightIcon size={10} />}
          </IconButton>
        ) : (
          <Box sx={{ width: 14 }} />
        )}
        {editing ? (
          <Input
            autoFocus
            defaultValue={node.name}
            inputProps={{ 'aria-label': `New name of ${node.name}` }}
            sx={{ flex: 1, fontSize: 12.5 }}
            onBlur={(e) => rename(e.target.value)}
            onKeyDown={(e) => {
              e.stopPropagation();
              if (e.key === 'Enter') rename((e.target as HTMLInputElement).value);
              if (e.key === 'Escape') setEditing(false);
            }}
          />
        ) : (
          <Box
            component="button"
            data-line={node.id}
            aria-pressed={isChosen}
            onClick={(e) => go(e.shiftKey || e.ctrlKey)}
            onDoubleClick={() => node.thing && node.kind !== 'wall' && setEditing(true)}
            onFocus={face ? () => tools.showFace(face) : undefined}
            onBlur={face ? tools.leave : undefined}
            onMouseEnter={face ? () => tools.showFace(face) : undefined}
            onMouseLeave={face ? tools.leave : undefined}
            onKeyDown={(e) => {
              if (e.key === 'F2' && node.thing) {
                e.preventDefault();
                setEditing(true);
              }
              // To the right unfolds, to the left folds.
              if (node.children.length && open !== null && e.key === (unfolded ? 'ArrowLeft' : 'ArrowRight')) {
                e.preventDefault();
                onOpen(node.id);
              }
            }}
            title={node.thing ? `${node.kind}; press twice, or F2, to rename` : undefined}
            sx={{
              all: 'unset',
              cursor: 'pointer',
              flex: 1,
              minWidth: 0,
              overflow: 'hidden',
              textOverflow: 'ellipsis',
              whiteSpace: 'nowrap',
              fontWeight: node.kind === 'level' || !(node.thing || face) ? 600 : 400,
              '& em': { fontStyle: 'normal', color: colours.third, fontSize: 11, ml: 0.75 },
              '&:focus-visible': { outline: `2px solid ${colours.damson}` },
            }}
          >
            {node.name}
            {node.thing && node.kind !== 'level' ? <em> {node.kind}</em> : null}
          </Box>
        )}
        {own.length && node.kind !== 'viewpoint' ? (
          <>
            {mark('Hide', isHidden, 'hidden', () => void run('contents.hide', { ids: own, hidden: !isHidden }))}
            {mark('Hold', isHeld, 'held', () => void run('contents.hold', { ids: own, held: !isHeld }))}
          </>
        ) : null}
      </Box>
      {unfolded && node.children.length ? (
        <Box role="list" aria-label={`In ${node.name}`}>
          {node.children.map((c) => (
            <Line key={`${node.id} ${c.id}`} {...props} node={c} depth={depth + 1} />
          ))}
        </Box>
      ) : null}
    </Box>
  );
}

/** The level a thing is on, by what it refers to, to go to it. */
function levelOf(id: string): string | null {
  const { project } = useStudio.getState();
  if (project.levels[id]) return id;
  const collection = collectionOf(project, id);
  if (!collection) return null;
  const { level } = project[collection][id] as Thing;
  if (level) return level;
  const host = referencesOf(collection, project[collection][id] as Thing).find((r) => r.gone === 'along');
  return host ? levelOf(host.id) : null;
}
