'use client';
import Box from '@mui/material/Box';
import { useState } from 'react';
import { ROOF_SECTIONS, type RoofSection } from '@/core/project/built-defaults';
import { newDormer } from '@/core/project/dormers';
import { overLevel } from '@/core/project/roof-outline';
import { newRoof, ROOF_FORMS, ROOF_NAMES, type RoofForm } from '@/core/project/roof-defaults';
import { DORMER_FORMS, type Dormer, type Roof } from '@/core/project/schema';
import { Choice } from '../look/Choice';
import { newId, useStudio } from '../store/studio';
import { Card, Cards, Line, type Beside } from './cards';
import { OutlineWay } from './OutlineWay';

const ROOF_LINES: Record<RoofForm, string> = {
  hip: 'M6 10H54V38H6ZM6 10L20 24M6 38L20 24M20 24H40M54 10L40 24M54 38L40 24',
  gable: 'M6 10H54V38H6ZM6 24H54',
  'half-hip': 'M6 10H54V38H6ZM6 16L14 24L6 32M14 24H46M54 16L46 24L54 32',
  single: 'M6 10H54V38H6ZM30 32V16M26 20L30 16L34 20',
  mansard: 'M6 10H54V38H6ZM12 16H48V32H12ZM6 10L12 16M54 10L48 16M6 38L12 32M54 38L48 32M20 24H40M12 16L20 24L12 32M48 16L40 24L48 32',
  flat: 'M6 10H54V38H6ZM10 14H50V34H10Z',
};
const SECTION_LINES: Record<RoofSection, [string, string]> = {
  'two-pitch': ['Swept, two pitches', 'M8 36L30 14L52 36M8 32L30 10L52 32M8 32V36M52 32V36'],
  mansard: ['Swept, mansard', 'M8 38L16 20L30 12L44 20L52 38'],
  curved: ['Swept, curved', 'M8 34C16 10 44 10 52 34M8 30C16 6 44 6 52 30'],
};
const DORMER_LINES: Record<Dormer['form'], [string, string]> = {
  gable: ['Gabled dormer', 'M6 40L24 8M18 40V26L30 14L42 26V40ZM24 40V30H36V40'],
  hip: ['Hipped dormer', 'M18 40V26H42V40ZM18 26L26 14H34L42 26M24 40V30H36V40'],
  shed: ['Sloping dormer', 'M16 40V24L44 18V40ZM22 40V28H38V40'],
  flat: ['Flat dormer', 'M14 40V20H46V40ZM12 20H48V16H12ZM20 40V26H40V40'],
};

/** Roofs over the level, the room in hand or what one draws; planes, swept sections, dormers. */
export function RoofLedge({ beside }: Beside) {
  const tool = useStudio((s) => s.tool);
  const [drawn, setDrawn] = useState<'built' | 'drawn'>('built');
  const room = useStudio((s) => (s.room ? s.project.rooms[s.room] : undefined));
  const chosen = useStudio((s) => s.selection.filter((q) => s.project.rooms[q.entity]?.level === s.level).length);
  const builtOver = chosen > 1 ? `the ${chosen} rooms chosen` : room ? room.name : 'the level';
  const own = useStudio(
    (s) => s.selection.map((q) => s.project.roofs[q.entity]).find(Boolean) ?? Object.values(s.project.roofs).find((r) => r.level === s.level),
  );
  const make = tool.kind === 'outline' ? tool.make : null;
  const put = (form: RoofForm) => (): void => {
    const { project, level, room: inHand, run, select, selection, pen, setTool } = useStudio.getState();
    const several = selection.map((q) => q.entity).filter((e) => project.rooms[e]?.level === level);
    if (drawn === 'drawn') return setTool({ kind: 'outline', make: { what: 'roof', form } });
    const id = newId('roof');
    const rooms = several.length > 1 ? several : inHand ? [inHand] : [];
    const over: Roof['over'] = rooms.length ? { kind: 'rooms', rooms } : overLevel(project, level);
    const roof = newRoof(project, { id, level, over, status: pen.status }, form);
    if (run('roof.put', { roof })) select([{ entity: id, target: { kind: 'part', of: id, part: 'covering' } }]);
  };
  const dormer = (form: Dormer['form']) => (): void => {
    const { project, run, select, say, pen } = useStudio.getState();
    if (!own) return say('No dormer was put: a dormer stands on a roof; put a roof first.');
    const made = newDormer(project, { id: newId('dormer'), roof: own.id, form, status: pen.status });
    if (!made) return say(`No dormer was put: ${own.name} has no slope it could stand on.`);
    if (run('dormer.put', made)) select([{ entity: made.id, target: { kind: 'part', of: made.id, part: 'frame' } }]);
  };
  return (
    <>
      {beside(
        <Box sx={{ ml: 2, display: 'flex', gap: 2 }}>
          <Choice
            label="Over"
            value={drawn}
            options={[
              ['built', builtOver],
              ['drawn', 'an outline one draws'],
            ]}
            onChoose={setDrawn}
          />
          <OutlineWay />
        </Box>,
      )}
      <Cards>
        {ROOF_FORMS.map((form) => (
          <Card
            key={form}
            name={`Roof, ${ROOF_NAMES[form]}`}
            line={drawn === 'drawn' ? 'press its corners' : `over ${builtOver}`}
            on={make?.what === 'roof' && make.form === form}
            onPress={put(form)}
            picture={
              <Line>
                <path d={ROOF_LINES[form]} />
              </Line>
            }
          />
        ))}
        {DORMER_FORMS.map((form) => (
          <Card
            key={form}
            name={DORMER_LINES[form][0]}
            line={own ? `on ${own.name}` : 'needs a roof'}
            on={false}
            onPress={dormer(form)}
            picture={
              <Line>
                <path d={DORMER_LINES[form][1]} />
              </Line>
            }
          />
        ))}
        {ROOF_SECTIONS.map((section) => (
          <Card
            key={section}
            name={SECTION_LINES[section][0]}
            line="press along its ridge"
            on={make?.what === 'swept' && make.section === section}
            onPress={() => useStudio.getState().setTool({ kind: 'outline', make: { what: 'swept', section } })}
            picture={
              <Line>
                <path d={SECTION_LINES[section][1]} />
              </Line>
            }
          />
        ))}
        <Card
          name="Single plane"
          line="outline, pitch, height"
          on={make?.what === 'plane'}
          onPress={() => useStudio.getState().setTool({ kind: 'outline', make: { what: 'plane' } })}
          picture={
            <Line>
              <path d="M8 34L22 12H54L40 34ZM28 28L36 18M33 18H36V21" />
            </Line>
          }
        />
      </Cards>
    </>
  );
}
