'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Slider from '@mui/material/Slider';
import type { Look } from '@/core/project/schema';
import { SORT_GROUPS, sortsIn, type SortGroup } from '@/core/model/sorts';
import { collectionOf } from '@/core/project/things';
import { Choice } from '../../look/Choice';
import { LengthField } from '../../look/fields';
import { useFocusInside } from '../../look/focus';
import { colours, PANEL } from '../../look/theme';
import { useStudio } from '../../store/studio';
import { FIRST_LOOK } from '@/core/project/looks';
import { rememberShade } from '../../store/habits';
import { useLook, useShade } from '../../views/views';

const keys = (group: SortGroup): string[] => sortsIn(group).map((sort) => `all/${sort}`);

/** What of the model is shown, and how: surfaces, a section, single kinds and things. */
export function LookPanel({ onClose }: { onClose(): void }) {
  const look = useLook((s) => s.look);
  const shade = useShade((s) => s.on);
  const { set } = useLook.getState();
  const model = useStudio((s) => s.model);
  const units = useStudio((s) => s.project.units);
  const { say } = useStudio.getState();
  const extent = bounds(
    model.shell.levels.flatMap((l) => l.walls.flatMap((w) => w.rings.flat())),
    model.shell.levels,
  );
  const { section } = look;
  const range = extent[section?.axis ?? 'y'];
  const state = (group: SortGroup): 'shown' | 'through' | 'hidden' => {
    const [first] = keys(group);
    return look.hidden.includes(first) ? 'hidden' : look.through.includes(first) ? 'through' : 'shown';
  };
  const setGroup = (group: SortGroup, to: 'shown' | 'through' | 'hidden'): void => {
    const own = keys(group);
    set({
      hidden: [...look.hidden.filter((k) => !own.includes(k)), ...(to === 'hidden' ? own : [])],
      through: [...look.through.filter((k) => !own.includes(k)), ...(to === 'through' ? own : [])],
    });
  };
  const inside = useFocusInside<HTMLDivElement>();
  const single = [...look.hidden, ...look.through].filter((k) => !k.startsWith('all/'));
  const nameOf = (id: string): string => {
    const collection = collectionOf(model.project, id);
    return (collection && (model.project[collection][id] as { name?: string }).name) ?? (collection === 'walls' ? 'a wall' : 'a thing that is gone');
  };
  const back = (id: string): void => set({ hidden: look.hidden.filter((k) => k !== id), through: look.through.filter((k) => k !== id) });
  return (
    <Box
      role="dialog"
      aria-label="What is shown"
      ref={inside}
      tabIndex={-1}
      sx={{
        outline: 'none',
        ...PANEL,
        left: 6,
        top: 32,
        width: 248,
        maxHeight: 'calc(100% - 44px)',
        overflow: 'auto',
        zIndex: 4,
        p: '8px 12px 10px',
        fontSize: 12,
      }}
    >
      <Choice
        label="Surfaces"
        value={look.mode}
        options={[
          ['finishes', 'in their finishes'],
          ['white', 'as a white model'],
          ['lines', 'as lines'],
          ['translucent', 'translucent'],
        ]}
        onChoose={(mode) => set({ mode })}
      />
      <Choice
        label="Shadows"
        value={shade ? 'on' : 'off'}
        options={[
          ['on', 'of all lights, and mirrors'],
          ['off', 'of the sun alone'],
        ]}
        onChoose={(next) => {
          useShade.setState({ on: next === 'on' });
          rememberShade(next === 'on');
        }}
      />
      <Choice
        label="Projection"
        value={look.projection}
        options={[
          ['perspective', 'perspective'],
          ['parallel', 'parallel'],
        ]}
        onChoose={(projection) => set({ projection })}
      />
      <Choice
        label="Verticals"
        value={look.upright ? 'upright' : 'seen'}
        options={[
          ['seen', 'as one sees them'],
          ['upright', 'kept upright'],
        ]}
        onChoose={(verticals) => set({ upright: verticals === 'upright' })}
      />
      <Choice
        label="Section"
        value={section?.axis ?? 'none'}
        options={[
          ['none', 'none'],
          ['x', 'across, west to east'],
          ['y', 'across, south to north'],
          ['z', 'level'],
        ]}
        onChoose={(axis) =>
          set({
            section:
              axis === 'none'
                ? null
                : { axis: axis as 'x', at: axis === 'z' ? extent.z[0] + 1.2 : (extent[axis][0] + extent[axis][1]) / 2, keep: axis === 'y' ? 'above' : 'below' },
          })
        }
      />
      {section ? (
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 66px', gap: 1, alignItems: 'center', pl: 0.5 }}>
          <Slider
            size="small"
            aria-label="Place of the section"
            min={range[0]}
            max={range[1]}
            step={0.01}
            value={section.at}
            onChange={(_, v) => set({ section: { ...section, at: v as number } })}
          />
          <LengthField label="Section at" metres={section.at} units={units} onRefuse={say} onCommit={(at) => set({ section: { ...section, at } })} />
          <Button
            size="small"
            sx={{ gridColumn: '1 / 3', justifySelf: 'start' }}
            onClick={() => set({ section: { ...section, keep: section.keep === 'below' ? 'above' : 'below' } })}
          >
            Keep the other side
          </Button>
        </Box>
      ) : null}
      <Box sx={{ borderTop: `1px solid ${colours.hairline}`, mt: 1, pt: 0.75, display: 'grid', gridTemplateColumns: '1fr auto', columnGap: 1 }}>
        {SORT_GROUPS.map((group) => (
          <Box key={group} sx={{ display: 'contents' }}>
            <span>{group}</span>
            <Choice
              bare
              label={group}
              value={state(group)}
              options={[
                ['shown', 'shown'],
                ['through', 'see-through'],
                ['hidden', 'hidden'],
              ]}
              onChoose={(to) => setGroup(group, to)}
            />
          </Box>
        ))}
      </Box>
      {single.length ? (
        <Box sx={{ borderTop: `1px solid ${colours.hairline}`, mt: 1, pt: 0.75 }}>
          {single.map((id) => (
            <Box key={id} sx={{ display: 'flex', justifyContent: 'space-between', alignItems: 'baseline' }}>
              <span>
                {nameOf(id)}, {look.hidden.includes(id) ? 'hidden' : 'see-through'}
              </span>
              <Button size="small" sx={{ py: 0, minWidth: 0 }} onClick={() => back(id)}>
                Bring back
              </Button>
            </Box>
          ))}
        </Box>
      ) : null}
      <Box sx={{ display: 'flex', gap: 1, mt: 1 }}>
        <Button size="small" onClick={() => set(FIRST_LOOK)}>
          All as at first
        </Button>
        <Button size="small" onClick={onClose}>
          Close
        </Button>
      </Box>
    </Box>
  );
}

/** The extent of the house along the three axes, metres. */
function bounds(
  points: readonly { x: number; y: number }[],
  levels: readonly { level: { elevation: number; height: number }; roofs: readonly { shape: { top: number } }[] }[],
) {
  const xs = points.map((p) => p.x);
  const ys = points.map((p) => p.y);
  const low = Math.min(...levels.map((l) => l.level.elevation));
  const high = Math.max(...levels.map((l) => l.level.elevation + Math.max(l.level.height, ...l.roofs.map((r) => r.shape.top))));
  const around = (v: number[]): [number, number] => (v.length ? [Math.min(...v) - 0.5, Math.max(...v) + 0.5] : [-1, 1]);
  return { x: around(xs), y: around(ys), z: [low, high] as [number, number] } satisfies Record<NonNullable<Look['section']>['axis'], [number, number]>;
}
