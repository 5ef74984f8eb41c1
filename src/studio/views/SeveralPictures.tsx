'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import Dialog from '@mui/material/Dialog';
import FormControlLabel from '@mui/material/FormControlLabel';
import Radio from '@mui/material/Radio';
import { useState } from 'react';
import { dayText, hoursOf, momentText, wishes, type OnSheet } from '@/core/render/orders';
import { expectedSeconds, spanText } from '@/core/render/pace';
import { counted } from '@/core/units/text';
import { Choice } from '../look/Choice';
import { Row, TextField } from '../look/fields';
import { colours, SERIF } from '../look/theme';
import { rememberedPace } from '../store/habits';
import { newId, useStudio } from '../store/studio';
import { QUALITIES } from './frames';
import { workerCount } from './queue/hands';
import { useQueue } from './queue/queue';
import { frameOf, useFrame, useViews } from './views';

/** More pictures at once than anybody waits for. */
const MOST = 60;
const EVERY = { '30': 'half an hour', '60': 'hour', '120': 'two hours', '180': 'three hours' } as const;

/** 09:30 as minutes of the day; null where it is no time. */
function minutesOf(text: string): number | null {
  const [, h, m] = /^(\d{1,2})[:.]?(\d{2})?$/.exec(text.trim()) ?? [];
  const at = h === undefined ? NaN : Number(h) * 60 + Number(m ?? 0);
  return at >= 0 && at < 24 * 60 && Number(m ?? 0) < 60 ? at : null;
}
const clock = (at: number): string => `${String(Math.floor(at / 60)).padStart(2, '0')}:${String(at % 60).padStart(2, '0')}`;

/** Several viewpoints, with several schemes, at several hours: all are made one after another, beside one’s work. */
export function SeveralPictures({ onClose, onAsked }: { onClose(): void; onAsked(): void }) {
  const project = useStudio((s) => s.project);
  const say = useStudio((s) => s.say);
  const inHand = useViews((s) => s.viewpoint);
  const frame = useFrame();
  const [viewpoints, setViewpoints] = useState<readonly string[]>(
    inHand && project.viewpoints[inHand] ? [inHand] : Object.keys(project.viewpoints).slice(0, 1),
  );
  const [schemes, setSchemes] = useState<readonly string[]>([project.scheme]);
  const [hours, setHours] = useState(false);
  const [day, setDay] = useState(project.site.moment.split('T')[0]);
  const [span, setSpan] = useState({ first: 8 * 60, last: 20 * 60 });
  const [every, setEvery] = useState<keyof typeof EVERY>('120');
  const [sheet, setSheet] = useState(true);
  const moments = hours ? hoursOf(day, span.first, span.last, Number(every)) : [project.site.moment];
  const { round, ...size } = frameOf(frame);
  const samples = QUALITIES[frame.quality];
  const list = wishes(project, { viewpoints, schemes, moments }, round);
  const seconds = list.length * expectedSeconds(rememberedPace(workerCount()), { ...size, samples });
  const toggle = (all: readonly string[], id: string): string[] => (all.includes(id) ? all.filter((k) => k !== id) : [...all, id]);
  const ask = (): void => {
    // A sheet holds one view with one scheme at its hours.
    const pages = new Map<string, string>();
    const wanted = list.map(({ project: dressed, name, viewpoint, shot }, i) => {
      const key = `${viewpoint.id} ${dressed.scheme}`;
      if (!pages.has(key)) pages.set(key, newId('page'));
      const own = schemes.length > 1 ? `${viewpoint.name}, ${project.schemes[dressed.scheme].name}` : viewpoint.name;
      const on: OnSheet | null =
        hours && sheet && moments.length > 1
          ? {
              page: pages.get(key)!,
              title: `${own}, ${dayText(moments[0])}`,
              index: i % moments.length,
              count: moments.length,
              caption: dressed.site.moment.split('T')[1],
            }
          : null;
      const stamp = { project: project.id, scheme: dressed.scheme, name, viewpoint: viewpoint.id };
      return { stamp, project: dressed, shot, ...size, samples, sheet: on };
    });
    void useQueue.getState().ask(wanted, false);
    onAsked();
    onClose();
  };
  const time = (which: 'first' | 'last', label: string) => (
    <Row label={label}>
      <TextField
        label={label}
        value={clock(span[which])}
        onCommit={(text) => {
          const at = minutesOf(text);
          if (at === null) {
            say(`“${text}” was not taken: a time of day is hours and minutes, for example 09:30.`);
            return false;
          }
          setSpan({ ...span, [which]: at });
        }}
      />
    </Row>
  );
  return (
    <Dialog open onClose={onClose} maxWidth={false} aria-labelledby="several-pictures">
      <Box sx={{ width: 720, p: 2.5, fontSize: 12.5 }} onKeyDown={(e) => e.stopPropagation()}>
        <Box id="several-pictures" sx={{ font: `22px ${SERIF}`, mb: 1.5 }}>
          Several pictures
        </Box>
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', gap: 3, minHeight: 220 }}>
          <Ticked title="Viewpoints" list={Object.values(project.viewpoints)} on={viewpoints} onToggle={(id) => setViewpoints(toggle(viewpoints, id))} />
          <Ticked title="Schemes" list={Object.values(project.schemes)} on={schemes} onToggle={(id) => setSchemes(toggle(schemes, id))} />
          <Box>
            <Box sx={{ color: colours.third, mb: 0.5 }}>Light</Box>
            <FormControlLabel
              control={<Radio size="small" checked={!hours} onChange={() => setHours(false)} />}
              label={`As it is: ${momentText(project.site.moment)}`}
              slotProps={{ typography: { sx: { fontSize: 12.5 } } }}
            />
            <FormControlLabel
              control={<Radio size="small" checked={hours} onChange={() => setHours(true)} />}
              label="Hours of one day"
              slotProps={{ typography: { sx: { fontSize: 12.5 } } }}
            />
            {hours ? (
              <Box sx={{ mt: 0.5 }}>
                <Row label="Day">
                  <TextField
                    label="Day"
                    value={day}
                    onCommit={(d) => {
                      if (!/^\d{4}-\d{2}-\d{2}$/.test(d) || Number.isNaN(Date.parse(d))) {
                        say(`“${d}” was not taken: a date is year, month and day, for example 2026-05-12.`);
                        return false;
                      }
                      setDay(d);
                    }}
                  />
                </Row>
                {time('first', 'From')}
                {time('last', 'To')}
                <Row label="Every">
                  <Choice bare label="Every" value={every} options={Object.entries(EVERY) as [keyof typeof EVERY, string][]} onChoose={setEvery} />
                </Row>
                <FormControlLabel
                  control={<Checkbox size="small" checked={sheet} onChange={(e) => setSheet(e.target.checked)} />}
                  label="Put each view’s hours on one sheet"
                  slotProps={{ typography: { sx: { fontSize: 12.5 } } }}
                />
              </Box>
            ) : null}
          </Box>
        </Box>
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, mt: 2, pt: 1.5, borderTop: `1px solid ${colours.hairline}` }}>
          <Box role="status" sx={{ flex: 1, color: colours.second }}>
            {list.length > MOST
              ? `That would be ${list.length} pictures; ask for at most ${MOST} at once.`
              : list.length
                ? `${counted(list.length, 'picture')}, ${frame.name}, ${frame.quality}: about ${spanText(seconds)} in all`
                : 'Choose a viewpoint and a scheme.'}
          </Box>
          <Button onClick={onClose}>Leave it</Button>
          <Button variant="contained" disabled={!list.length || list.length > MOST} onClick={ask}>
            Make {counted(list.length, 'picture')}
          </Button>
        </Box>
      </Box>
    </Dialog>
  );
}

/** A list of which some are chosen. */
function Ticked({
  title,
  list,
  on,
  onToggle,
}: {
  title: string;
  list: readonly { id: string; name: string }[];
  on: readonly string[];
  onToggle(id: string): void;
}) {
  return (
    <Box>
      <Box sx={{ color: colours.third, mb: 0.5 }}>{title}</Box>
      <Box sx={{ display: 'flex', flexDirection: 'column', maxHeight: 280, overflowY: 'auto' }}>
        {list.map(({ id, name }) => (
          <FormControlLabel
            key={id}
            control={<Checkbox size="small" checked={on.includes(id)} onChange={() => onToggle(id)} />}
            label={name}
            slotProps={{ typography: { sx: { fontSize: 12.5 } } }}
          />
        ))}
      </Box>
    </Box>
  );
}
