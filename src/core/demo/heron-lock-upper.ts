import { newDormer } from '../project/dormers';
import { newRoof } from '../project/roof-defaults';
import { newGuard, newStair } from '../project/stairs';
import type { Roof } from '../project/schema';
import { FRAMING } from '../shell/framing';
import type { Script } from './script';

const degrees = (v: number): number => (v * Math.PI) / 180;

/** Heron Lock Cottage upwards: the stair, bedroom, bathroom and reading loft under the gable roof, the roof of the porch. */
export function makeUpper(s: Script): void {
  s.do('level.add', { id: 'upper', name: 'Upper', of: 'ground', where: 'above', walls: 'none', height: 2.3, slab: 0.25 });
  // From the kitchen door along the wall to the hall, round the corner, up to the loft.
  s.do('stair.put', {
    ...newStair(s.project, { id: 'stair-main', level: 'ground', x: 6.518, y: 2.82 }),
    name: 'Stair',
    rotation: Math.PI,
    form: 'quarter',
    turn: 'left',
    corners: 'winders',
    width: 0.86,
    first: 6,
    risers: 14,
    going: 0.245,
    left: newGuard(),
    right: null,
    above: newGuard(),
  });
  s.level = 'upper';
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
      [4.25, 6.85],
      [4.25, 0.15],
    ],
    fresh,
  );
  s.draw(
    [
      [4.25, 4.3],
      [7.2, 4.3],
      [7.2, 6.85],
    ],
    fresh,
  );
  const names: [number, number, string, 'bedroom' | 'bathroom' | 'library'][] = [
    [2, 3, 'Bedroom', 'bedroom'],
    [5.5, 5.5, 'Bathroom', 'bathroom'],
    [9, 3, 'Reading loft', 'library'],
  ];
  for (const [x, y, name, use] of names)
    s.do('room.set', { room: s.room(x, y).id, set: { name, use, status: 'new', ...(use === 'library' ? { cover: { kind: 'roof' } as const } : {}) } });

  // A gable roof over all of it; its ridge runs along the house.
  const roof = newRoof(s.project, { id: 'roof-main', level: 'upper', name: 'Main roof', status: 'existing' }, 'gable');
  const pitch = degrees(42);
  const edges: Roof['edges'] = Object.fromEntries(Object.entries(roof.edges).map(([key, edge]) => [key, { ...edge, pitch, overhang: 0.2 }]));
  s.do('roof.put', {
    roof: { ...roof, all: { ...roof.all, pitch, overhang: 0.35 }, edges, framing: { ...FRAMING, spacing: 0.5, ties: 'tie', every: 4, purlins: 1 } },
  });
  const standing = { status: 'existing' } as const;
  s.open('window', 'W8 Bedroom west', [0.15, 3.5], [1.2, 1.3, 0.8], { more: standing });
  s.open('window', 'W9 Bedroom north', [2.2, 6.85], [1.2, 1.1, 0.9], { more: standing });
  s.open('window', 'W10 Bathroom north', [5.6, 6.85], [0.8, 0.9, 1.15], { up: 2, across: 2, more: standing });
  s.open('window', 'W11 Loft north', [8.7, 6.85], [1.2, 1.1, 0.9], { more: standing });
  s.open('window', 'W12 Loft east', [10.25, 3.5], [1.6, 2.1, 0.6], { up: 3, across: 2 });
  s.open('door', 'Bedroom door', [4.25, 3.3], [0.91, 2.05, 0], { hinge: 'start', swing: 'right' });
  s.open('door', 'Bathroom door', [5.3, 4.3], [0.91, 2.05, 0], { hinge: 'end', swing: 'left' });
  const shape = s.project.roofs['roof-main'];
  const south = s.wall(8, 0.15);
  s.do('dormer.put', {
    ...newDormer(s.project, { id: 'dormer-loft', roof: shape.id })!,
    name: 'Loft dormer',
    edge: south,
    at: 8.95,
    width: 1.5,
    setback: 0.55,
    height: 1.05,
    pitch: degrees(38),
  });
  s.do('rooflight.put', {
    id: 'rooflight-loft',
    name: 'Rooflight',
    level: 'upper',
    x: 8.6,
    y: 5.1,
    rotation: 0,
    form: 'hinged',
    width: 0.78,
    length: 1.18,
    kerb: 0.1,
    panes: { across: 1, up: 1 },
    frame: 0.05,
    open: 0,
    status: 'new',
    finishes: {},
  });
  // The porch has a small roof of its own, its ridge square to the house.
  s.level = 'ground';
  const porch = newRoof(
    s.project,
    { id: 'roof-porch', level: 'ground', name: 'Porch roof', over: { kind: 'rooms', rooms: [s.room(5, 7.5).id] }, status: 'existing' },
    'hip',
  );
  const gable = { ...porch.all, form: 'gable' as const, overhang: 0.12, pitch: degrees(40) };
  s.do('roof.put', {
    roof: {
      ...porch,
      all: { ...porch.all, pitch: degrees(40), overhang: 0.15 },
      edges: { [s.wall(5.1, 8.2)]: gable, [s.wall(5.1, 6.85)]: { ...gable, overhang: 0 } },
      thickness: 0.16,
      gutter: false,
    },
    raise: false,
  });
  for (const [x, y] of [
    [4.3, 7.5],
    [5.9, 7.5],
    [5.1, 8.2],
  ])
    s.do('wall.set', { wall: s.wall(x, y), set: { top: { kind: 'roof' } } });
  s.do('room.set', { room: s.room(5, 7.5).id, set: { cover: { kind: 'roof' } } });

  s.level = 'upper';
  const at = (x: number, y: number): string => s.room(x, y).id;
  const [bedroom, bathroom, loft] = names.map(([x, y]) => at(x, y));
  s.finish('ceiling', [bedroom, bathroom, loft], 'paint.chalk-ledge');
  s.finish('walls', [bedroom], 'paint.reed');
  s.finish('walls', [loft], 'paint.sluice-white');
  s.finish('walls', [bathroom], 'tile.square-white');
  s.finish('floor', [bedroom, loft], 'timber.ash-plank');
  s.finish('floor', [bathroom], 'tile.hex-bone');
  for (const roof of ['roof-main', 'roof-porch']) s.do('finish.apply', { targets: [{ kind: 'part', of: roof, part: 'covering' }], finish: 'tile.riven-slate' });
  s.do('finish.apply', {
    targets: [{ kind: 'part', of: 'dormer-loft', part: 'covering' }],
    finish: 'tile.riven-slate',
  });
  s.do('finish.apply', { targets: [{ kind: 'part', of: 'dormer-loft', part: 'walls' }], finish: 'timber.ash-plank' });
  s.do('viewpoint.add', { id: 'view-loft', name: 'Reading loft', eye: { x: 7.6, y: 1.6, z: 4.35 }, target: { x: 9.6, y: 4.6, z: 3.9 }, fov: 1.2 });
  s.do('viewpoint.add', { id: 'view-bedroom', name: 'Bedroom', eye: { x: 1.3, y: 5.9, z: 4.3 }, target: { x: 2.5, y: 1.6, z: 3.5 }, fov: 1.1 });
  s.do('viewpoint.add', { id: 'view-stair', name: 'Stair', eye: { x: 9.2, y: 4.9, z: 1.55 }, target: { x: 6.6, y: 1.2, z: 1.5 }, fov: 1.05 });
}
