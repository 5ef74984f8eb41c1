import { newOpening } from '../project/opening-defaults';
import { emptyProject, type Project } from '../project/schema';
import { makeOutside } from './heron-lock-outside';
import { makeFinishes } from './heron-lock-finishes';
import { makeUpper } from './heron-lock-upper';
import { Script } from './script';

/** The demo: Heron Lock Cottage, made with the same commands the designer uses. */
export function heronLockCottage(id = 'heron-lock-cottage'): Project {
  const s = new Script(emptyProject(id, 'Heron Lock Cottage'));
  s.do('site.set', { place: 'Heron Lock, Lower Marren', latitude: 52.2, longitude: -1.4, moment: '2026-05-12T10:40', offset: 60, turbidity: 3, seen: -2 });
  // The old house: cavity walls, as they stand. New inside: stud partitions.
  const old = { type: 'cavity-300', status: 'existing' } as const;
  const fresh = { type: 'stud-100', status: 'new' } as const;
  s.draw(
    [
      [0.15, 0.15],
      [10.25, 0.15],
      [10.25, 6.85],
      [0.15, 6.85],
    ],
    old,
    true,
  );
  s.draw(
    [
      [6.0, 6.85],
      [6.0, 0.15],
    ],
    { ...fresh, status: 'existing' },
  );
  // Kitchen and dining room were two; the wall between them goes.
  s.draw(
    [
      [6.0, 4.4],
      [10.25, 4.4],
    ],
    { type: 'block-140', status: 'removed' },
  );
  s.draw(
    [
      [0.15, 2.75],
      [6.0, 2.75],
    ],
    fresh,
  );
  s.draw(
    [
      [4.25, 6.85],
      [4.25, 2.75],
    ],
    fresh,
  );
  s.draw(
    [
      [3.6, 2.75],
      [3.6, 0.15],
    ],
    fresh,
  );
  s.draw(
    [
      [4.3, 6.85],
      [4.3, 8.2],
      [5.9, 8.2],
      [5.9, 6.85],
    ],
    { ...fresh, status: 'existing' },
  );

  const names: [number, number, string][] = [
    [2, 5, 'Living'],
    [5, 5, 'Hall'],
    [8, 3, 'Kitchen & dining'],
    [2, 1, 'Workshop'],
    [5, 1, 'Shower room'],
    [5, 7.5, 'Porch'],
  ];
  const uses = ['living', 'hall', 'kitchen', 'workshop', 'shower room', 'porch'] as const;
  names.forEach(([x, y, name], i) => s.do('room.set', { room: s.room(x, y).id, set: { name, use: uses[i], status: i === 2 || i === 5 ? 'existing' : 'new' } }));
  // The soil pipe in the corner of the shower room is boxed in.
  s.do('wall.box', { wall: s.wall(3.6, 1), side: 'left', at: 2.4, width: 0.3, depth: 0.22, thickness: 0.05, name: 'Soil pipe' });

  const standing = { status: 'existing' } as const;
  s.open('door', 'Porch door', [5.1, 8.2], [0.99, 2.1, 0], { hinge: 'end', swing: 'right', more: { ...standing, glazed: 0.45, threshold: 0.02 } });
  s.open('door', 'Front door', [5.1, 6.85], [0.99, 2.1, 0], { hinge: 'start', swing: 'left', more: standing });
  s.open('door', 'Living door', [4.25, 5.3], [0.91, 2.05, 0], { hinge: 'start', swing: 'right' });
  s.open('door', 'Kitchen door', [6.0, 3.65], [0.99, 2.05, 0], { hinge: 'end', swing: 'left' });
  s.open('door', 'Workshop door', [2.75, 2.75], [0.91, 2.05, 0], { hinge: 'start', swing: 'right' });
  s.open('door', 'Shower room door', [5.25, 2.75], [0.99, 2.05, 0], { hinge: 'end', swing: 'left' });
  s.open('window', 'W1 Living north', [2.2, 6.85], [1.5, 1.25, 0.85], { up: 2, across: 2, more: standing });
  s.open('window', 'W2 Living west', [0.15, 4.75], [1.4, 1.25, 0.85], { up: 2, across: 2, more: standing });
  s.open('window', 'W3 Kitchen north', [8.075, 6.85], [1.7, 1.05, 1.05], { up: 2, across: 2, more: { ...standing, place: { kind: 'centred' } } });
  const east = s.open('window', 'W4 Kitchen east', [10.25, 3.1], [1.8, 1.85, 0.25], { up: 3, across: 3, more: standing });
  s.open('window', 'W5 Kitchen south', [8.85, 0.15], [1.6, 1.85, 0.25], { up: 3, across: 3, more: { head: east } });
  s.open('window', 'W6 Workshop south', [1.7, 0.15], [1.3, 1.2, 0.95], { up: 2, across: 2, more: standing });
  s.open('window', 'W7 Shower south', [4.9, 0.15], [0.6, 0.6, 1.5], { up: 1, across: 1 });
  // A shelf for soap in the shower, in the partition to the hall.
  s.do(
    'opening.add',
    newOpening(s.project, {
      id: 'niche-shower',
      name: 'Soap niche',
      wall: s.wall(4.35, 2.75),
      kind: 'niche',
      at: 4.36,
      width: 0.3,
      height: 0.3,
      sill: 1.1,
      depth: 0.06,
      swing: 'right',
    }),
  );

  // Kitchen and dining.
  s.place('counter', 8.075, 6.38, 0, { width: 3.9 });
  s.place('table', 8.1, 3.0, 90, { width: 2.0, depth: 0.95 });
  for (const [x, y, turn] of [
    [7.45, 3.45, 90],
    [7.45, 2.55, 90],
    [8.75, 3.45, -90],
    [8.75, 2.55, -90],
  ] as const)
    s.place('chair', x, y, turn);
  s.place('pendant', 8.1, 3.5, 0, { height: 1.05, lumen: 900 });
  s.place('pendant', 8.1, 2.5, 0, { height: 1.05, lumen: 900 });
  s.place('plant', 9.6, 4.45, 20, { height: 1.4 });
  s.place('curtain', 9.98, 3.1, -90, { width: 2.5, height: 2.35, finishes: { cloth: 'cloth.oat-weave' } });
  s.place('sideboard', 9.86, 1.25, -90, { width: 1.4 });
  s.place('table-lamp', 9.86, 1.6, 0, { elevation: 0.75, height: 0.46 });
  s.place('ceiling-disc', 8.05, 5.35, 0, { lumen: 1800 });
  // Living.
  s.place('rug', 2.1, 4.75, 0, { width: 2.5, depth: 1.8, finishes: { field: 'carpet.wool-oat', border: 'cloth.damson-linen' } });
  s.place('sofa', 2.1, 3.35, 180, { width: 2.1 });
  s.place('low-table', 2.1, 4.75, 0);
  s.place('armchair', 0.95, 6.1, 35);
  s.place('stove', 3.88, 6.3, -90);
  s.place('bookcase', 4.04, 3.5, -90, { width: 1.2 });
  s.place('floor-lamp', 0.62, 3.2, 0);
  s.place('pendant', 2.1, 4.8, 0, { width: 0.5, height: 0.7, lumen: 1100 });
  s.place('curtain', 2.2, 6.58, 0, { width: 2.1, height: 2.3, finishes: { cloth: 'cloth.rust-velvet' } });
  // Hall and porch.
  s.place('bench', 5.75, 5.4, -90, { width: 1.2 });
  s.place('ceiling-disc', 5.1, 4.8, 0);
  s.place('mirror', 4.32, 4.2, 90, { elevation: 1.25 });
  s.place('ceiling-disc', 5.1, 7.5, 0, { lumen: 800 });
  // Workshop.
  s.place('bench-table', 1.7, 0.72, 180, { width: 2.4 });
  s.place('bookcase', 0.46, 2.0, 90, { width: 1.1, height: 1.8 });
  s.place('chair', 1.7, 1.35, 180);
  s.place('ceiling-disc', 1.9, 1.5, 0, { lumen: 3200 });
  // Shower room.
  s.place('wc', 3.99, 1.15, 90);
  s.place('shower', 4.1, 2.25, 0, { finishes: { screen: 'glass.reeded' } });
  s.place('basin', 5.5, 0.525, 180, { height: 0.84 });
  s.place('mirror', 5.5, 0.315, 180, { elevation: 1.2, width: 0.6, height: 0.6 });
  s.place('ceiling-disc', 4.8, 1.45, 0, { lumen: 2000 });

  // Finishes.
  const at = (x: number, y: number): string => s.room(x, y).id;
  const [living, hall, kitchen, workshop, shower, porch] = names.map(([x, y]) => at(x, y));
  s.finish('ceiling', [living, hall, kitchen, workshop, shower, porch], 'paint.chalk-ledge');
  s.finish('walls', [kitchen, hall], 'paint.sluice-white');
  s.finish('walls', [living], 'paint.reed');
  s.finish('walls', [workshop, porch], 'plaster.lime');
  s.finish('walls', [shower], 'tile.glazed-white');
  s.finish('floor', [kitchen, living], 'timber.oak-plank');
  s.finish('floor', [hall, porch], 'stone.flag');
  s.finish('floor', [workshop], 'timber.scrubbed-pine');
  s.finish('floor', [shower], 'tile.hex-clay');
  const north = s.wall(8.075, 6.85);
  const side = { kind: 'wall' as const, room: kitchen, wall: north, side: 'left' as const };
  // The outer ring is drawn counter-clockwise: the rooms lie at its left.
  s.do('finish.apply', { targets: [side], finish: 'tile.glazed-green' });
  s.do('finish.apply', { targets: [{ kind: 'walls', room: null }], finish: 'brick.limewashed' });
  s.do('finish.apply', { targets: [{ kind: 'ground' }], finish: 'ground.grass' });
  makeUpper(s);
  makeOutside(s);
  makeFinishes(s);
  s.level = 'ground';

  s.do('viewpoint.add', {
    id: 'view-kitchen',
    name: 'Kitchen from the hall door',
    eye: { x: 6.25, y: 3.2, z: 1.55 },
    target: { x: 8.5, y: 4.75, z: 1.08 },
    fov: 1.05,
  });
  s.do('viewpoint.add', { id: 'view-living', name: 'Living room', eye: { x: 3.9, y: 3.0, z: 1.45 }, target: { x: 1.5, y: 5.6, z: 0.95 }, fov: 1.05 });
  s.do('viewpoint.add', { id: 'view-shower', name: 'Shower room', eye: { x: 5.55, y: 2.6, z: 1.5 }, target: { x: 4.85, y: 0.95, z: 0.95 }, fov: 1.15 });
  s.do('viewpoint.add', { id: 'view-workshop', name: 'Workshop', eye: { x: 3.3, y: 2.5, z: 1.5 }, target: { x: 1.2, y: 0.6, z: 1.0 }, fov: 1.05 });
  return s.project;
}
