'use client';
import Box from '@mui/material/Box';
import { useState } from 'react';
import { SLAB_NAMES } from '@/core/project/built-defaults';
import { levelAbove } from '@/core/project/levels';
import type { Slab, Stair } from '@/core/project/schema';
import { formatLength } from '@/core/units/length';
import { Choice } from '../look/Choice';
import { LengthField } from '../look/fields';
import { useStudio, type WallPen } from '../store/studio';
import { climbFor, riseOf, slabsToClimb } from '../tools/climbing';
import type { Make } from '../tools/make';
import { Card, Cards, Line, type Beside } from './cards';
import { OutlineWay } from './OutlineWay';

const STAIRS: { form: Stair['form']; corners: Stair['corners']; name: string; path: string }[] = [
  { form: 'straight', corners: 'landing', name: 'Straight stair', path: 'M22 6H38V40H22ZM22 12H38M22 18H38M22 24H38M22 30H38M22 36H38' },
  { form: 'quarter', corners: 'landing', name: 'Quarter, landing', path: 'M34 42V6H10V20H20V42ZM20 20V6M20 26H34M20 32H34M20 38H34M15 6V20M20 20H34' },
  {
    form: 'quarter',
    corners: 'winders',
    name: 'Quarter, winders',
    path: 'M34 42V6H8V20H20V42ZM20 20L34 6M20 20L26 6M20 20L34 14M14 6V20M20 26H34M20 32H34M20 38H34',
  },
  {
    form: 'half',
    corners: 'landing',
    name: 'Half, landing',
    path: 'M16 42V6H44V42H32V18H28V42ZM16 18H28M32 18H44M16 24H28M16 30H28M16 36H28M32 24H44M32 30H44M32 36H44',
  },
  {
    form: 'half',
    corners: 'winders',
    name: 'Half, winders',
    path: 'M16 42V6H44V42H32V18H28V42ZM28 18L16 12M28 18L20 6M30 18V6M32 18L40 6M32 18L44 12M16 24H28M32 24H44M16 32H28M32 32H44',
  },
  {
    form: 'three',
    corners: 'landing',
    name: 'Three flights',
    path: 'M12 42V8H48V42H38V18H22V42ZM12 18H22V8M38 8V18H48M27 8V18M33 8V18M12 26H22M12 34H22M38 26H48M38 34H48',
  },
  {
    form: 'spiral',
    corners: 'landing',
    name: 'Spiral stair',
    path: 'M30 24m-17 0a17 17 0 1 0 34 0a17 17 0 1 0-34 0M30 24m-3 0a3 3 0 1 0 6 0a3 3 0 1 0-6 0M33 24H47M32 26L42 36M30 27V41M28 26L18 36M27 24H13M28 22L18 12M30 21V7',
  },
];
const SLAB_LINES: Record<Slab['kind'], string> = {
  mezzanine: 'M6 40H54M6 22H36V26H6ZM36 22V12M6 12H36M12 12V22M18 12V22M24 12V22M30 12V22',
  balcony: 'M8 6V42M8 26H44V30H8ZM44 26V12H8M16 12V26M24 12V26M32 12V26M38 12V26',
  deck: 'M6 12H54V38H6ZM6 18H54M6 24H54M6 30H54',
  foundation: 'M6 14H54M14 14V30H8V38H28V30H22V14M38 14V38',
};

/** Where the next stairs lead. */
function Climb() {
  const project = useStudio((s) => s.project);
  const level = useStudio((s) => s.level);
  const chosen = useStudio((s) => s.pen.climb);
  const { say } = useStudio.getState();
  const set = (climb: WallPen['climb']): void => useStudio.setState(({ pen }) => ({ pen: { ...pen, climb } }));
  const climb = climbFor(project, level, chosen);
  const own = project.levels[level];
  if (!own) return null;
  const above = levelAbove(project, level);
  const options: [string, string][] = [
    ...(above ? [['level', above.name] as [string, string]] : []),
    ...slabsToClimb(project, level).map((s): [string, string] => [`slab ${s.id}`, s.name]),
    ['height', 'a height'],
  ];
  return (
    <Box sx={{ display: 'flex', gap: 0.75, alignItems: 'baseline' }}>
      <Choice
        label="Climb to"
        value={climb.to === 'slab' ? `slab ${climb.slab}` : climb.to}
        options={options}
        onChoose={(v) =>
          set(
            v === 'level'
              ? { to: v }
              : v === 'height'
                ? { to: v, metres: riseOf(project, level, climb) ?? own.height + own.slab }
                : { to: 'slab', slab: v.slice(5) },
          )
        }
      />
      {climb.to === 'height' ? (
        <Box sx={{ width: 70 }}>
          <LengthField
            label="Height to climb"
            metres={climb.metres}
            units={project.units}
            onRefuse={say}
            onCommit={(metres) => {
              if (metres >= 0.1 && metres <= 12) return set({ to: 'height', metres });
              say(`A stair climbs from ${formatLength(0.1, project.units)} to ${formatLength(12, project.units)}; nothing was changed.`);
              return false;
            }}
          />
        </Box>
      ) : null}
    </Box>
  );
}

/** Stairs, voids, slabs of their own, beams and posts. */
export function FloorLedge({ beside }: Beside) {
  const tool = useStudio((s) => s.tool);
  const [turn, setTurn] = useState<Stair['turn']>('left');
  const make = tool.kind === 'outline' ? tool.make : null;
  const take = (next: Make) => (): void => useStudio.getState().setTool({ kind: 'outline', make: next });
  return (
    <>
      {beside(
        <Box sx={{ ml: 2, display: 'flex', gap: 2 }}>
          <Choice
            label="Stairs turn"
            value={turn}
            options={[
              ['left', 'to the left'],
              ['right', 'to the right'],
            ]}
            onChoose={(v) => {
              setTurn(v);
              if (make?.what === 'stair') take({ ...make, turn: v })();
            }}
          />
          <Climb />
          <OutlineWay />
        </Box>,
      )}
      <Cards>
        {STAIRS.map(({ form, corners, name, path }) => (
          <Card
            key={name}
            name={name}
            line="foot, then direction"
            on={make?.what === 'stair' && make.form === form && make.corners === corners}
            onPress={take({ what: 'stair', form, corners, turn })}
            picture={
              <Line>
                <path d={path} />
              </Line>
            }
          />
        ))}
        <Card
          name="Void"
          line="a hole in this floor"
          on={make?.what === 'void'}
          onPress={take({ what: 'void' })}
          picture={
            <Line>
              <path d="M6 8H54V40H6ZM18 15H42V33H18ZM18 15L42 33M42 15L18 33" />
            </Line>
          }
        />
        {(Object.keys(SLAB_LINES) as Slab['kind'][]).map((kind) => (
          <Card
            key={kind}
            name={SLAB_NAMES[kind]}
            line="press its corners"
            on={make?.what === 'slab' && make.kind === kind}
            onPress={take({ what: 'slab', kind })}
            picture={
              <Line>
                <path d={SLAB_LINES[kind]} />
              </Line>
            }
          />
        ))}
        <Card
          name="Beam"
          line="two ends"
          on={make?.what === 'beam' && make.as === 'beam'}
          onPress={take({ what: 'beam', as: 'beam' })}
          picture={
            <Line>
              <path d="M8 28L48 12L52 16L12 32ZM8 28V34L12 38V32M12 38L52 22V16" />
            </Line>
          }
        />
        <Card
          name="Post"
          line="one press"
          on={make?.what === 'beam' && make.as === 'post'}
          onPress={take({ what: 'beam', as: 'post' })}
          picture={
            <Line>
              <path d="M26 8H34V40H26ZM18 40H42" />
            </Line>
          }
        />
      </Cards>
    </>
  );
}
