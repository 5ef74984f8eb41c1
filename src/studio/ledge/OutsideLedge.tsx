'use client';
import Box from '@mui/material/Box';
import { FENCE_NAMES, GROUND_NAMES } from '@/core/project/built-defaults';
import { FENCE_KINDS, GROUND_KINDS, type Fence, type GroundArea } from '@/core/project/schema';
import { LengthField } from '../look/fields';
import { useStudio } from '../store/studio';
import type { Make } from '../tools/make';
import { Card, Cards, Line, type Beside } from './cards';
import { OutlineWay } from './OutlineWay';

const AREA = 'M8 30L18 10L50 8L54 28L38 40Z';
const GROUND_LINES: Record<GroundArea['kind'], string> = {
  lawn: `${AREA}M20 26V20M24 30V24M32 20V14M38 28V22M44 20V14`,
  gravel: `${AREA}M20 22H21M26 30H27M32 18H33M38 26H39M44 16H45M28 14H29`,
  paving: `${AREA}M14 18H52M11 26H53M26 9V38M40 9V38`,
  drive: 'M18 42L26 6H34L42 42M30 10V16M30 22V28M30 34V40',
  bed: `${AREA}M20 24A3 3 0 1 1 26 24A3 3 0 1 1 20 24M34 18A4 4 0 1 1 42 18A4 4 0 1 1 34 18M30 30A3 3 0 1 1 36 30`,
  water: `${AREA}M16 20Q20 16 24 20T32 20T40 20M20 28Q24 24 28 28T36 28T44 28`,
  pool: 'M10 12H50V36H10ZM14 16H46V32H14ZM18 22Q22 19 26 22T34 22T42 22M18 27Q22 24 26 27T34 27T42 27',
};
const FENCE_LINES: Record<Fence['kind'], string> = {
  boards: 'M8 12V40M16 12V40M24 12V40M32 12V40M40 12V40M48 12V40M4 18H54M4 34H54',
  rails: 'M10 10V42M30 10V42M50 10V42M4 16H56M4 24H56M4 32H56',
  hedge: 'M6 40V22Q10 10 16 18Q20 8 28 16Q34 8 40 16Q48 10 54 22V40Z',
  wall: 'M6 14H54V40H6ZM6 23H54M6 31H54M18 14V23M34 14V23M48 14V23M10 23V31M26 23V31M42 23V31M18 31V40M34 31V40M48 31V40',
};

/** The ground with its areas, and fences. */
export function OutsideLedge({ beside }: Beside) {
  const tool = useStudio((s) => s.tool);
  const site = useStudio((s) => s.project.site);
  const units = useStudio((s) => s.project.units);
  const make = tool.kind === 'outline' ? tool.make : null;
  const take = (next: Make) => (): void => useStudio.getState().setTool({ kind: 'outline', make: next });
  const { run, say } = useStudio.getState();
  return (
    <>
      {beside(
        <Box sx={{ ml: 2, display: 'flex', gap: 2, alignItems: 'baseline' }}>
          <OutlineWay />
          <Box sx={{ display: 'flex', gap: 0.75, alignItems: 'baseline', whiteSpace: 'nowrap' }}>
            Ground at
            <Box sx={{ width: 66 }}>
              <LengthField label="Height of the ground" metres={site.ground} units={units} onRefuse={say} onCommit={(ground) => run('site.set', { ground })} />
            </Box>
          </Box>
        </Box>,
      )}
      <Cards>
        {GROUND_KINDS.map((kind) => (
          <Card
            key={kind}
            name={GROUND_NAMES[kind]}
            line="press its corners"
            on={make?.what === 'ground' && make.kind === kind}
            onPress={take({ what: 'ground', kind })}
            picture={
              <Line>
                <path d={GROUND_LINES[kind]} />
              </Line>
            }
          />
        ))}
        <Card
          name="Steps"
          line="lowest step, top"
          on={make?.what === 'steps'}
          onPress={take({ what: 'steps' })}
          picture={
            <Line>
              <path d="M8 38H20V30H32V22H44V14H54M8 38V42H54V14" />
            </Line>
          }
        />
        {FENCE_KINDS.map((kind) => (
          <Card
            key={kind}
            name={FENCE_NAMES[kind]}
            line="press along it"
            on={make?.what === 'fence' && make.kind === kind}
            onPress={take({ what: 'fence', kind })}
            picture={
              <Line>
                <path d={FENCE_LINES[kind]} />
              </Line>
            }
          />
        ))}
      </Cards>
    </>
  );
}
