import { DEFAULTS, FORMS, type Opening, type OpeningForm, type Project, type Stand } from './schema';

/** A leaf of 926 in its frame: clear enough for a wheelchair when it stands open. */
const LEAF_926 = 0.992;

/** Width, height and sill a form starts with (trade figures), metres. */
const SIZES: Record<string, { width: number; height: number; sill?: number }> = {
  hinged: { width: LEAF_926, height: 2.1 },
  pair: { width: 1.5, height: 2.1 },
  unequal: { width: 1.3, height: 2.1 },
  'door sliding': { width: 0.926, height: 2.1 },
  pocket: { width: 0.926, height: 2.1 },
  bifold: { width: 2.4, height: 2.1 },
  stable: { width: LEAF_926, height: 2.1 },
  sectional: { width: 2.4, height: 2.1 },
  'up-and-over': { width: 2.3, height: 2.1 },
  fixed: { width: 1.2, height: 1.2, sill: 0.9 },
  casement: { width: 1.2, height: 1.2, sill: 0.9 },
  sash: { width: 0.9, height: 1.4, sill: 0.7 },
  sliding: { width: 1.8, height: 1.2, sill: 0.9 },
  'top-hung': { width: 1, height: 0.6, sill: 1.5 },
  tilt: { width: 1, height: 1.2, sill: 0.9 },
  bay: { width: 2.4, height: 1.4, sill: 0.6 },
  corner: { width: 1.2, height: 1.2, sill: 0.9 },
  'glazed-wall': { width: 3, height: 2.2 },
  'passage clear': { width: 1, height: 2.1 },
  'niche clear': DEFAULTS.niche,
};

/** What a kind of opening is called; the first word of its name. */
export const KIND_NAMES: Record<Opening['kind'], string> = { door: 'Door', window: 'Window', passage: 'Pass-through', niche: 'Niche' };

/** What a form is called. */
export function formName(kind: Opening['kind'], form: OpeningForm): string {
  const names: Partial<Record<OpeningForm, string>> = {
    hinged: 'hinged leaf',
    pair: 'pair of leaves',
    unequal: 'unequal pair',
    sliding: kind === 'door' ? 'sliding leaf' : 'sliding lights',
    pocket: 'pocket door',
    bifold: 'folding leaves',
    stable: 'stable door',
    sectional: 'sectional garage door',
    'up-and-over': 'up-and-over garage door',
    'top-hung': 'top hung',
    'glazed-wall': 'glazed wall',
    corner: 'corner window',
    clear: kind === 'niche' ? 'niche' : 'clear opening',
  };
  return names[form] ?? form;
}

/** The first "Door n" no opening has yet. */
function freeName(project: Pick<Project, 'openings'>, kind: Opening['kind']): string {
  const taken = new Set(Object.values(project.openings).map((o) => o.name));
  for (let n = 1; ; n++) if (!taken.has(`${KIND_NAMES[kind]} ${n}`)) return `${KIND_NAMES[kind]} ${n}`;
}

/** A garage door, which goes up under the ceiling. */
export const tipping = (form: OpeningForm): boolean => form === 'sectional' || form === 'up-and-over';

/** Where in its wall an opening of a form stands at first: a leaf flush with the side it opens into, folds and what slides into the wall in the middle. */
export function firstStand(kind: Opening['kind'], form: OpeningForm): Stand {
  if (form === 'pocket' || form === 'bifold') return { kind: 'centred' };
  return { kind: 'set-back', from: 'front', by: kind !== 'door' ? 0.06 : tipping(form) ? 0.02 : 0 };
}

/** An opening of a kind and form with the sizes such things have, in whole inches where the project counts in them. */
export function newOpening(project: Pick<Project, 'openings' | 'units'>, basics: Pick<Opening, 'id' | 'wall' | 'kind' | 'at'> & Partial<Opening>): Opening {
  const { kind } = basics;
  const form = basics.form ?? FORMS[kind][0];
  const size = SIZES[`${kind} ${form}`] ?? SIZES[form];
  const inch = (v: number): number => (project.units === 'imperial' ? Math.round(v / 0.0254) * 0.0254 : v);
  const door = kind === 'door';
  const window = kind === 'window';
  return {
    name: freeName(project, kind),
    form,
    width: inch(size.width),
    height: inch(size.height),
    sill: inch(size.sill ?? 0),
    shape: { kind: 'rectangle' },
    hinge: 'start',
    swing: 'left',
    panes: window ? { across: form === 'glazed-wall' ? 3 : 2, up: form === 'glazed-wall' ? 1 : 2 } : { across: 2, up: 3 },
    panels: form === 'sectional' ? { across: 4, up: 1 } : { across: 1, up: 2 },
    glazed: form === 'bifold' ? 0.9 : 0,
    open: door && !tipping(form) && !['sliding', 'pocket'].includes(form) ? 0.22 : 0,
    frame: door ? { face: 0.03, depth: tipping(form) ? 0.1 : 'wall' } : { face: 0.045, depth: 0.07 },
    stand: firstStand(kind, form),
    architrave: kind === 'niche' || form === 'corner' || tipping(form) ? 0 : 0.06,
    profile: null,
    sillBoard: window ? 0.04 : 0,
    handle: form === 'sectional' ? 'none' : form === 'sliding' || form === 'pocket' ? 'pull' : 'lever',
    threshold: 0,
    sidelights: { start: 0, end: 0 },
    fanlight: 0,
    depth: kind === 'niche' ? inch(DEFAULTS.niche.depth) : form === 'bay' ? inch(0.6) : form === 'corner' ? inch(1.2) : 0,
    status: 'new',
    place: { kind: 'free' },
    head: null,
    finishes: {},
    ...basics,
  };
}
