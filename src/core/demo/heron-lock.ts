import { newOpening } from '../project/opening-defaults';
import { emptyProject, type Project } from '../project/schema';
import { makeOutside } from './heron-lock-outside';
import { makeFinishes } from './heron-lock-finishes';
import { furnish } from './heron-lock-furnishing';
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
  furnish(s);
  makeOutside(s);
  makeFinishes(s);
  s.level = 'ground';

  s.do('viewpoint.add', {
    id: 'view-kitchen',
    name: 'Kitchen from the hall door',
    eye: { x: 6.75, y: 3.05, z: 1.55 },
    target: { x: 8.3, y: 5.15, z: 1.08 },
    fov: 1.05,
  });
  s.do('viewpoint.add', { id: 'view-living', name: 'Living room', eye: { x: 3.9, y: 3.0, z: 1.45 }, target: { x: 1.5, y: 5.6, z: 0.95 }, fov: 1.05 });
  s.do('viewpoint.add', { id: 'view-shower', name: 'Shower room', eye: { x: 5.55, y: 2.6, z: 1.5 }, target: { x: 4.85, y: 0.95, z: 0.95 }, fov: 1.15 });
  s.do('viewpoint.add', { id: 'view-workshop', name: 'Workshop', eye: { x: 3.3, y: 1.35, z: 1.5 }, target: { x: 1.2, y: 0.78, z: 1.0 }, fov: 1.05 });
  return s.project;
}
