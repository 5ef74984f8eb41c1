import { CONSTRUCTIONS } from '../cabinetry/figures';
import { legAlong } from '../cabinetry/sides';
import type { Script } from './script';

/** Heron Lock Cottage furnished and dressed, room by room. */
export function furnish(s: Script): void {
  s.level = 'ground';
  kitchen(s);
  living(s);
  hall(s);
  workshop(s);
  shower(s);
  s.level = 'upper';
  bedroom(s);
  bathroom(s);
  loft(s);
  s.settle();
}

/** How what is not the kitchen is built. */
const METRIC = CONSTRUCTIONS.frameless;

/** Height of the worktops in the kitchen, metres. */
const WORKTOP = 0.9;

/** An L along the west and the north wall with the sink under the window, and an island one sits at. */
function cabinets(s: Script): void {
  const look = { look: { cornices: [{ profile: 'cornice-small', up: 0, out: 0.002 }], pelmet: 0.04 }, upstand: 0.1 };
  s.cabinets(
    'kitchen-run',
    'Kitchen',
    legAlong({ wall: s.wall(6, 5), side: 'left', room: s.room(8, 3).id }),
    '600 tall oven, 600 fridge, 350 door, corner, 725 drawers, 800 sink, 600 dishwasher, 850 hob, 150 pull-out, 25 filler, 350 wall, wall corner, 500 wall open, canopy hood',
    look,
    { 'canopy hood': 'hob' },
  );
  s.cabinets('island', 'Island', { kind: 'free', from: { x: 9.2, y: 4.4 }, to: { x: 7.7, y: 4.4 } }, '600 pans, 300 wine cooler, 600 open', { behind: 0.38 });
  for (const x of [7.95, 8.45, 8.95]) s.place('stool-bar', x, 3.88, 180, { height: 0.66 });
}

function kitchen(s: Script): void {
  cabinets(s);
  s.place('table', 8.1, 2.2, 90, { width: 2.0, depth: 0.95 });
  for (const [x, y, turn] of [
    [7.45, 2.65, 90],
    [7.45, 1.75, 90],
    [8.75, 2.65, -90],
    [8.75, 1.75, -90],
  ] as const)
    s.place('chair', x, y, turn);
  s.place('pendant', 8.1, 2.7, 0, { height: 1.05, lumen: 900 });
  s.place('pendant', 8.1, 1.7, 0, { height: 1.05, lumen: 900 });
  s.place('plant', 9.6, 4.0, 20, { height: 1.4 });
  s.place('sideboard', 9.86, 1.25, -90, { width: 1.4 });
  s.place('table-lamp', 9.86, 1.65, 0, { height: 0.46 });
  s.place('ceiling-disc', 8.05, 5.35, 0, { lumen: 1800 });
  // What stands on them.
  s.place('vase-tulips', 8.1, 2.2, 0);
  for (const [x, y, turn] of [
    [7.83, 2.65, 90],
    [7.83, 1.75, 90],
    [8.37, 2.65, -90],
    [8.37, 1.75, -90],
  ] as const)
    s.place('place-setting', x, y, turn);
  s.place('bread', 8.65, 4.55, 10, { elevation: WORKTOP });
  s.place('kettle', 6.45, 5.6, 60, { elevation: WORKTOP });
  s.place('jars', 6.75, 6.5, 0, { elevation: WORKTOP });
  s.place('chopping-boards', 7.2, 6.58, 0, { elevation: WORKTOP });
  s.place('utensils', 9.0, 6.5, 0, { elevation: WORKTOP });
  s.place('herb-basil', 8.6, 6.55, 0, { elevation: WORKTOP });
  s.place('bowl-lemons', 9.85, 1.05, 0);
  // In the open units: on their floors.
  s.place('plates', 8.0, 4.72, 180, { elevation: 0.168 });
  s.place('jugs', 6.88, 6.54, 0, { elevation: 1.398 });
  s.place('picture-pair', 10.085, 1.25, -90, { elevation: 1.35 });
  s.place('clock-plain', 6.068, 3.75, 90, { elevation: 2.2 });
  s.hang('curtain', 'W4', { finishes: { cloth: 'cloth.oat-weave' } });
  s.hang('roman-blind', 'W5', { traits: { lowered: 25 } });
  s.hang('roman-blind', 'W3', { traits: { lowered: 25 } });
}

function living(s: Script): void {
  s.place('rug', 2.0, 4.6, 90, { width: 2.5, depth: 1.8, finishes: { field: 'carpet.wool-oat', border: 'cloth.damson-linen' } });
  s.place('sofa', 0.76, 4.6, 90, { width: 2.1 });
  s.place('low-table', 1.92, 4.6, 90);
  s.place('armchair', 2.3, 5.99, 0);
  s.place('stove', 3.88, 6.14, -90);
  s.place('bookcase', 4.04, 3.5, -90, { width: 1.2 });
  s.place('floor-lamp', 0.62, 3.2, 0);
  s.place('pendant', 1.95, 4.6, 0, { width: 0.5, height: 0.7, lumen: 1100 });
  s.place('side-table', 0.58, 5.95, 90);
  s.place('logs', 3.96, 4.46, -90);
  s.place('basket-blankets', 1.36, 6.4, 20);
  s.place('table-lamp-ball', 0.56, 5.98, 0);
  s.place('books-stacked', 1.85, 4.25, 100);
  s.place('vase-daisies', 1.95, 4.98, 0);
  s.place('cushion-pair', 0.72, 5.1, 90);
  s.place('throw-arm', 0.8, 3.64, 90);
  s.place('picture-wide', 1.3, 2.815, 180, { elevation: 1.3 });
  s.place('clock', 4.178, 4.46, -90, { elevation: 1.65 });
  s.hang('curtain', 'W1', { sides: 0.1, finishes: { cloth: 'cloth.rust-velvet' } });
  s.hang('roman-blind', 'W2', { traits: { lowered: 25 } });
}

function hall(s: Script): void {
  // One sits on its worktop, over boots.
  s.cabinets(
    'boot-bench',
    'Bench',
    legAlong({ wall: s.wall(6, 5.4), side: s.sideFacing(s.wall(6, 5.4), 5, 5.4), room: s.room(5, 5.4).id }),
    '400 boot shelves 1, 400 boot shelves 1, 400 boot shelves 1',
    {
      start: 0.7,
      made: { ...METRIC, plinth: 0.15, base: { height: 0.27, depth: 0.36 }, worktop: { thickness: 0.03, overhang: 0.02 } },
      look: { fronts: 'flat', edge: 'rounded' },
      finishes: { worktop: 'timber.oak', carcass: 'timber.oak', panels: 'timber.oak', plinth: 'timber.oak' },
    },
  );
  s.place('ceiling-disc', 5.1, 4.8, 0);
  s.place('mirror', 4.32, 4.2, 90, { elevation: 1.25 });
  s.place('console', 4.47, 4.2, 90);
  s.place('hooks-shelf', 5.82, 5.4, -90, { elevation: 1.55 });
  s.place('runner', 5.05, 4.35, 90);
  s.place('bowl-pears', 4.47, 4.55, 0);
  s.place('vase-branches', 4.48, 3.85, 0);
  // The porch.
  s.place('ceiling-disc', 5.1, 7.5, 0, { lumen: 800 });
  for (const y of [7.3, 7.72]) s.place('boots', 5.73, y, 0);
  s.place('hooks', 5.8, 7.48, -90, { elevation: 1.6 });
  s.place('door-mat', 5.2, 7.35, 0);
}

function workshop(s: Script): void {
  s.place('bench-table', 1.7, 0.72, 180, { width: 2.4 });
  const north = s.wall(1.2, 2.7);
  s.cabinets(
    'workshop-run',
    'Workshop storage',
    legAlong({ wall: north, side: s.sideFacing(north, 1.2, 1.5), room: s.room(1.2, 1.5).id }),
    '600 wardrobe shelves 5, 600 drawers 4',
    {
      made: { ...METRIC, base: { height: 0.72, depth: 0.4 }, tall: { height: 1.9, depth: 0.4 } },
      look: { fronts: 'boarded', handles: 'recessed' },
      finishes: { worktop: 'timber.beech' },
    },
  );
  s.place('chair', 1.7, 1.35, 0);
  s.place('ceiling-disc', 1.9, 1.5, 0, { lumen: 3200 });
  s.place('tools', 1.55, 0.78, 170);
  s.place('tools-binder', 0.95, 0.6, 180);
  s.place('toolbox', 2.6, 0.62, 175);
  s.place('desk-lamp', 2.1, 0.55, 150);
  s.place('book-open', 2.05, 0.88, 185);
  s.place('crate', 3.3, 0.5, 0);
  s.place('basket-oblong', 3.3, 0.92, 10);
  s.place('waste-bin', 3.36, 1.3, 0);
  s.place('hooks-iron', 0.35, 1.6, 90, { elevation: 1.5 });
  s.hang('roller-blind', 'W6', { traits: { lowered: 15 } });
}

function shower(s: Script): void {
  s.place('wc', 3.99, 1.15, 90);
  s.place('shower', 4.1, 2.25, 90, { finishes: { screen: 'glass.reeded' } });
  s.place('basin', 5.5, 0.525, 180, { height: 0.84 });
  s.place('mirror', 5.5, 0.315, 180, { elevation: 1.2, width: 0.6, height: 0.6 });
  s.place('ceiling-disc', 4.8, 1.45, 0, { lumen: 2000 });
  s.place('radiator-ladder', 5.895, 1.75, -90, { elevation: 0.45 });
  s.place('mirror-light', 5.5, 0.33, 180, { elevation: 1.86 });
  s.place('waste-bin', 4.85, 0.48, 0);
  s.hang('venetian', 'W7', { traits: { lowered: 40 } });
}

function bedroom(s: Script): void {
  s.place('bed', 2.2, 1.36, 180);
  s.place('rug', 2.2, 3.0, 0, { width: 2.2, depth: 1.4, finishes: { field: 'carpet.wool-oat', border: 'cloth.moss-herringbone' } });
  s.place('wardrobe', 3.89, 5.3, -90);
  for (const x of [1.12, 3.28]) s.place('bedside-drawers', x, 0.51, 180);
  s.place('chest', 0.55, 5.2, 90);
  s.place('bench-window', 2.2, 6.44, 0);
  s.place('ceiling-disc', 2.1, 3.5, 0, { lumen: 1600 });
  s.place('table-lamp-ball', 1.12, 0.48, 0, { height: 0.42 });
  s.place('table-lamp-ball', 3.28, 0.48, 0, { height: 0.42 });
  s.place('books-stacked', 3.2, 0.62, 170);
  s.place('vase-grasses', 0.52, 5.45, 0);
  s.place('candles-pair', 0.52, 4.95, 90);
  s.place('cushion-pair', 2.2, 6.5, 0);
  s.place('throw', 1.75, 2.15, 180);
  s.place('mirror-arch', 0.314, 5.2, 90, { elevation: 1.05 });
  s.place('picture-pair', 2.2, 0.312, 180, { elevation: 1.35 });
  s.place('plant-lily', 0.7, 6.25, 0);
  s.place('basket-laundry', 3.9, 6.4, 0);
  s.hang('curtain', 'W8', { finishes: { cloth: 'cloth.flax-linen' } });
  s.hang('curtain', 'W9', { ends: 'sill', finishes: { cloth: 'cloth.flax-linen' } });
}

function bathroom(s: Script): void {
  s.place('wc', 6.82, 5.9, -90);
  const east = s.wall(7.2, 4.95);
  s.cabinets('vanity', 'Vanity', legAlong({ wall: east, side: s.sideFacing(east, 6, 4.95), room: s.room(6, 4.95).id }), '800 sink', {
    packed: 'end',
    start: 0.2,
    made: { ...METRIC, base: { height: 0.65, depth: 0.48 }, worktop: { thickness: 0.02, overhang: 0.03 } },
    look: { fronts: 'flat', handles: 'rail', edge: 'eased' },
    finishes: { fronts: 'timber.walnut', panels: 'timber.walnut', plinth: 'timber.walnut', worktop: 'stone.marble', handles: 'metal.brass-brushed' },
  });
  s.place('ceiling-disc', 5.7, 5.5, 0, { lumen: 2000 });
  s.place('mirror-bath', 7.14, 4.95, -90, { elevation: 1.15 });
  s.place('mirror-light', 7.12, 4.95, -90, { elevation: 2.0 });
  s.place('shelves-empty', 4.48, 6.0, 90);
  s.place('towels', 4.48, 6.2, 90, { elevation: 0.9 });
  s.place('towels-rolled', 4.48, 5.8, 90, { elevation: 0.5 });
  s.place('plant-ivy', 4.48, 6.0, 0, { elevation: 1.8 });
  s.place('radiator-ladder', 6.35, 4.405, 180, { elevation: 0.45 });
  s.place('basket-laundry', 4.56, 4.62, 0);
  s.place('stool', 6.2, 6.35, 0);
  s.hang('slatted-wood', 'W10', { traits: { lowered: 45 } });
}

function loft(s: Script): void {
  s.place('bookcase', 4.46, 2.65, 90, { width: 1.8, height: 1.9 });
  // Its tops are cut to the slope of the roof.
  const bath = s.wall(7.2, 5.5);
  s.cabinets(
    'loft-wardrobe',
    'Wardrobe',
    legAlong({ wall: bath, side: s.sideFacing(bath, 9, 5.5), room: s.room(9, 3).id }),
    '900 wardrobe drawers, 900 wardrobe, rest wardrobe shelves',
    {
      made: { ...METRIC, tall: { height: 2.75, depth: 0.58 } },
      look: { fronts: 'flat', handles: 'recessed', grip: 0.12 },
      finishes: { fronts: 'paint.skein', panels: 'paint.skein', plinth: 'paint.skein' },
    },
  );
  s.place('armchair', 9.42, 1.98, 225);
  s.place('armchair', 9.42, 5.02, -45);
  s.place('low-table', 8.6, 3.5, 90);
  s.place('floor-lamp', 9.75, 5.95, 0);
  s.place('rug', 8.85, 3.5, 90, { width: 2.7, depth: 1.9, finishes: { field: 'carpet.wool-slate', border: 'cloth.fold-twill' } });
  s.place('desk-drawers', 5.05, 0.64, 180);
  s.place('desk-chair', 5.05, 1.2, 0);
  s.place('computer', 5.0, 0.62, 180);
  s.place('desk-lamp', 5.55, 0.5, 180);
  s.place('books', 4.6, 0.45, 180);
  s.place('books-stacked', 8.62, 3.2, 80);
  s.place('tray', 8.6, 3.7, 90);
  s.place('candle-glass', 8.6, 3.7, 0);
  s.place('throw-arm', 9.62, 4.72, -45);
  s.place('basket-blankets', 4.62, 3.95, 0);
  s.place('plant-dragon', 9.65, 0.85, 0);
  s.place('picture-grid', 6.5, 4.237, 0, { elevation: 1.15 });
  s.hang('roman-blind', 'W11', { traits: { lowered: 30 } });
  s.hang('curtain-eyelet', 'W12', { finishes: { cloth: 'cloth.flax-linen' } });
}
