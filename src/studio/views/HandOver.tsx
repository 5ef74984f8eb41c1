'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useState } from 'react';
import type { Picture } from '@/core/project/schema';
import { useErrands } from '../errands/errands';
import { Choice } from '../look/Choice';
import { colours } from '../look/theme';
import { api } from '../store/api';
import { useStudio } from '../store/studio';

type Form = readonly [as: string, name: string, line: string];

const FORMS: readonly Form[] = [
  ['png', 'PNG', 'every pixel as it is'],
  ['jpeg', 'JPEG', 'smaller, to send'],
  ['clear', 'PNG without ground and sky', 'clear where nothing is built'],
  ['hdr', 'Radiance HDR', 'its light'],
  ['exr', 'OpenEXR', 'its light, each lamp, colour, normal, depth, objects'],
];
const ROUND_FORMS: readonly Form[] = [
  ['round', 'Page to look round in', 'one file for the client’s browser'],
  ['sides', 'Six sides of a cube', 'PNG, packed together'],
];
/** Of a picture for print its lights and passes are kept smaller than it is. */
const PRINT_FORMS: readonly Form[] = [
  ['exr', 'OpenEXR', 'its light at full size'],
  ['passes', 'OpenEXR with passes', 'smaller: its light, each lamp, colour, normal, depth, objects'],
];
const DOTS = { '96': 'screen', '150': '150 dpi', '300': '300 dpi', '600': '600 dpi' } as const;

/** What a kept picture is taken away as. */
export function HandOver({ picture }: { picture: Picture }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [dots, setDots] = useState<keyof typeof DOTS>('300');
  const project = useStudio((s) => s.id);
  const take = (as: string): void => {
    setAnchor(null);
    void useErrands.getState().follow(
      () => api.beginExport(project, 'picture', `?picture=${picture.id}&as=${as}&dots=${dots}`),
      (message) => useStudio.getState().say(message),
    );
  };
  const flat = picture.full === null ? FORMS : [...FORMS.filter(([as]) => as !== 'exr'), ...PRINT_FORMS];
  const forms = [...(picture.shot?.round ? ROUND_FORMS : []), ...flat];
  const wide = (picture.width / Number(dots)) * 25.4;
  return (
    <>
      <Button variant="contained" aria-haspopup="menu" aria-expanded={Boolean(anchor)} onClick={(e) => setAnchor(e.currentTarget)}>
        Save as
      </Button>
      <Menu anchorEl={anchor} open={Boolean(anchor)} onClose={() => setAnchor(null)}>
        {forms.map(([as, name, line]) => (
          <MenuItem key={as} onClick={() => take(as)}>
            <span>
              {name}
              <Box sx={{ color: colours.third, fontSize: 11.5, lineHeight: 1.2 }}>{line}</Box>
            </span>
          </MenuItem>
        ))}
        <Box component="li" role="none" sx={{ px: 2, pt: 1, mt: 0.5, borderTop: `1px solid ${colours.hairline}`, fontSize: 12 }}>
          <Choice label="For" value={dots} options={Object.entries(DOTS) as [keyof typeof DOTS, string][]} onChoose={setDots} />
          <Box sx={{ color: colours.third }}>{dots === '96' ? `${picture.width} pixels wide` : `${Math.round(wide)} mm wide on paper`}</Box>
        </Box>
      </Menu>
    </>
  );
}
