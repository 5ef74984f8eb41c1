import { MOULDING_USE } from '../finishes/profiles';
import type { Moulding, MouldingKind, Panels, Patch } from '../project/schema';
import type { Script } from './script';

const PANELS: Panels = { across: null, up: 1, width: 0.5, margin: 0.09, gap: 0.09, profile: 'panel-ogee', moulding: null, field: null };

/** What lies on the faces of Heron Lock Cottage, in two schemes: the canal bank (green, oak, clay) and the bindery (ink, brass, walnut). */
export function makeFinishes(s: Script): void {
  s.level = 'ground';
  const at = (x: number, y: number): string => s.room(x, y).id;
  const rooms = { living: at(2, 5), hall: at(5, 5), kitchen: at(8, 3), workshop: at(2, 1), shower: at(5, 1) };
  s.level = 'upper';
  const upper = { bedroom: at(2, 3), bathroom: at(5.5, 5.5), loft: at(9, 3) };
  s.level = 'ground';
  const walls = { kitchenNorth: s.wall(8.075, 6.85), kitchenWest: s.wall(6.0, 1.5), showerNorth: s.wall(5, 2.75), livingNorth: s.wall(2.2, 6.85) };

  const patch = (more: Omit<Patch, 'id' | 'order' | 'panels'> & Partial<Patch>): Patch => ({ id: `patch-${++count}`, order: count, panels: null, ...more });
  let count = 0;
  // The kitchen's long wall is painted; between worktop and shelf it is tiled.
  s.do('finish.apply', { targets: [{ kind: 'wall', room: rooms.kitchen, wall: walls.kitchenNorth, side: 'left' }], finish: null });
  s.do('patch.put', {
    patches: [
      patch({
        name: 'Splashback',
        on: { kind: 'wall', room: rooms.kitchen, wall: walls.kitchenNorth, side: 'left' },
        // Above the upstand of the worktop, a hair short of the walls beside it.
        shape: { kind: 'rectangle', at: 2.175, base: 1, width: 4.04, height: 0.51 },
        finish: 'tile.glazed-green',
      }),
      patch({
        name: 'Hall panelling',
        on: { kind: 'walls', room: rooms.hall },
        shape: { kind: 'band', from: 0, to: 1.05 },
        finish: 'paint.pollard',
        panels: PANELS,
      }),
      patch({ name: 'Shower room tiles', on: { kind: 'walls', room: rooms.shower }, shape: { kind: 'band', from: 0, to: 2.0 }, finish: 'tile.glazed-white' }),
      patch({ name: 'Bedroom dado', on: { kind: 'walls', room: upper.bedroom }, shape: { kind: 'band', from: 0, to: 0.95 }, finish: 'paint.hazel-copse' }),
      patch({
        name: 'Hearth',
        on: { kind: 'floor', room: rooms.living },
        shape: {
          kind: 'polygon',
          points: [
            { x: 3.3, y: 5.85 },
            { x: 4.18, y: 5.85 },
            { x: 4.18, y: 6.68 },
            { x: 3.3, y: 6.68 },
          ],
        },
        finish: 'tile.riven-slate',
      }),
    ],
  });
  s.finish('walls', [rooms.shower], 'paint.weir-foam');
  const mouldings: Moulding[] = [];
  const put = (kind: MouldingKind, list: string[], profile: string, finish: string, height: number | null = null, more: Partial<Moulding> = {}): void => {
    for (const room of list)
      mouldings.push({
        id: `${kind.replace(' ', '-')}-${mouldings.length + 1}`,
        name: kind,
        room,
        kind,
        profile,
        height,
        at: MOULDING_USE[kind].at,
        without: [],
        finish,
        ...more,
      });
  };
  put('skirting', [rooms.living, rooms.hall, rooms.kitchen, upper.bedroom], 'skirting-torus', 'paint.skein');
  put('skirting', [rooms.workshop, upper.loft], 'skirting-plain', 'paint.skein');
  put('cornice', [rooms.living, rooms.hall], 'cornice-cove', 'paint.chalk-ledge');
  put('picture rail', [rooms.living], 'rail-picture', 'paint.skein');
  put('dado rail', [upper.bedroom], 'rail-dado', 'paint.skein', null, { at: 0.95 });
  put('dado rail', [rooms.hall], 'rail-plain', 'paint.pollard', null, { at: 1.05 });
  s.do('moulding.put', { mouldings });
  s.do('laying.put', {
    addresses: [`floor/${rooms.shower}`],
    laying: { laying: null, start: 'middle', origin: { x: 0, y: 0 }, rotation: 0, scale: 1 },
  });
  s.do('scheme.set', {
    id: s.project.scheme,
    set: {
      name: 'Canal bank',
      starts: {
        floor: 'timber.oak-plank',
        wall: 'paint.sluice-white',
        ceiling: 'paint.chalk-ledge',
        joinery: 'paint.lockgate-green',
        worktop: 'timber.oak',
        metal: 'metal.brass-brushed',
      },
    },
  });

  // The second scheme starts as a copy and goes its own way.
  s.do('scheme.add', { id: 'scheme-bindery', name: 'Bindery', from: s.project.scheme });
  const first = s.project.scheme;
  s.do('scheme.choose', { id: 'scheme-bindery' });
  s.finish('walls', [rooms.kitchen, rooms.hall], 'paint.oat-sack');
  s.finish('walls', [rooms.living], 'wallpaper.leaf-forest');
  s.finish('walls', [upper.bedroom], 'wallpaper.grasscloth-mist');
  s.finish('walls', [rooms.shower], 'paint.first-frost');
  s.finish('floor', [rooms.kitchen], 'timber.walnut-herringbone');
  s.finish('floor', [rooms.living], 'timber.smoked-chevron');
  s.finish('floor', [rooms.hall], 'tile.cement-star');
  s.finish('floor', [rooms.shower], 'tile.penny-black');
  s.finish('floor', [upper.bedroom, upper.loft], 'carpet.velvet-sand');
  s.do('finish.replace', { from: 'tile.glazed-green', to: 'tile.stacked-teal', room: null });
  s.do('finish.replace', { from: 'tile.glazed-white', to: 'tile.herring-white', room: null });
  s.do('finish.replace', { from: 'paint.pollard', to: 'paint.ink-bottle', room: null });
  s.do('finish.replace', { from: 'paint.hazel-copse', to: 'paint.ferry-blue', room: null });
  s.do('finish.replace', { from: 'paint.skein', to: 'paint.candle-end', room: null });
  const wardrobes = Object.values(s.project.pieces).filter((p) => p.maker === 'wardrobe');
  const joinery = [
    ...Object.keys(s.project.runs).flatMap((of) => ['fronts', 'plinth', 'panels', 'cornice', 'pelmet'].map((part) => ({ kind: 'part' as const, of, part }))),
    ...wardrobes.map((p) => ({ kind: 'part' as const, of: p.id, part: 'fronts' })),
  ];
  s.do('finish.apply', { targets: joinery, finish: 'paint.ink-bottle' });
  s.do('scheme.set', {
    id: 'scheme-bindery',
    set: {
      starts: {
        floor: 'timber.walnut-herringbone',
        wall: 'paint.oat-sack',
        ceiling: 'paint.chalk-ledge',
        joinery: 'paint.ink-bottle',
        worktop: 'stone.marble-gold',
        metal: 'metal.brass-aged',
      },
    },
  });
  s.do('scheme.choose', { id: first });
  s.do('dislikes.set', { dislikes: [{ name: 'pinks', from: 345, to: 25 }] });
}
