import { z } from 'zod';
import { create } from 'zustand';
import { firstPace, type Pace } from '@/core/render/pace';
import { useStudio } from './studio';

/** What this browser remembers of how one works. Without storage nothing is remembered, and nothing is said. */
const LAYOUT = 'enstegon.layout';
const DOCKET = 'enstegon.docket';
const GROUPS = 'enstegon.groups';
const PACE = 'enstegon.pace';
const TRUE_LIGHT = 'enstegon.true-light';
const SHADE = 'enstegon.shade';

type Layout = 'both' | 'drawing' | 'model';
const LAYOUTS: readonly string[] = ['both', 'drawing', 'model'] satisfies Layout[];

function remembered(key: string): string | null {
  try {
    return localStorage.getItem(key);
  } catch {
    // Storage may be closed to the page.
    return null;
  }
}

function remember(key: string, value: string): void {
  try {
    localStorage.setItem(key, value);
  } catch {
    // As above.
  }
}

/** Groups of the docket that have been unfolded, by their headings. */
export const useGroups = create<{ open: readonly string[]; toggle(title: string): void }>()((set, get) => ({
  open: [],
  toggle(title) {
    const open = get().open.includes(title) ? get().open.filter((t) => t !== title) : [...get().open, title];
    set({ open });
    remember(GROUPS, open.join('\n'));
  },
}));

/** Whether the model is shown in its real light when the eye rests; unless it was said, where the machine has processors to spare. */
export const recalledTrueLight = (): boolean => {
  const said = remembered(TRUE_LIGHT);
  return said === null ? navigator.hardwareConcurrency >= 4 : said === 'on';
};

export const rememberTrueLight = (on: boolean): void => remember(TRUE_LIGHT, on ? 'on' : 'off');

/** Whether surfaces of the view shade one another where they meet; they do unless it was said. */
export const recalledShade = (): boolean => remembered(SHADE) !== 'off';

export const rememberShade = (on: boolean): void => remember(SHADE, on ? 'on' : 'off');

const KnownPace = z.object({ prepare: z.number().positive(), samples: z.number().positive(), finish: z.number().positive() });

/** How quickly this machine makes pictures; what it is thought to do while it has made none. */
export function rememberedPace(hands: number): Pace {
  try {
    return KnownPace.parse(JSON.parse(remembered(PACE) ?? ''));
  } catch {
    return firstPace(hands);
  }
}

export const rememberPace = (pace: Pace): void => remember(PACE, JSON.stringify(pace));

/** Sets the table and the docket as they were left, and remembers how they are left from now on. Returns what ends it. */
export function recallLayout(): () => void {
  const left = remembered(LAYOUT);
  if (left && LAYOUTS.includes(left)) useStudio.setState({ layout: left as Layout });
  if (remembered(DOCKET) === 'folded') useStudio.setState({ docket: false });
  useGroups.setState({ open: remembered(GROUPS)?.split('\n').filter(Boolean) ?? [] });
  return useStudio.subscribe(({ layout, docket }, before) => {
    if (layout !== before.layout) remember(LAYOUT, layout);
    if (docket !== before.docket) remember(DOCKET, docket ? 'open' : 'folded');
  });
}
