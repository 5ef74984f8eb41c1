import { newFence, newGround, newSlab, rectangleOf } from '../project/built-defaults';
import { newStair } from '../project/stairs';
import type { Script } from './script';

/** What lies round Heron Lock Cottage: the deck, the towpath garden, the canal bank. */
export function makeOutside(s: Script): void {
  s.level = 'ground';
  s.do('site.set', { ground: -0.34, background: 'fields' });
  // A deck beside the kitchen, reached by a door, by steps and by a ramp.
  s.open('door', 'Deck door', [10.25, 5.2], [0.99, 2.1, 0], { hinge: 'start', swing: 'right', more: { glazed: 0.75, threshold: 0.015 } });
  s.do('slab.put', {
    ...newSlab(s.project, { id: 'deck', level: 'ground', kind: 'deck', points: rectangleOf({ x: 10.42, y: 1.6 }, { x: 13.6, y: 6.2 }) }),
    name: 'Deck',
  });
  s.do('stair.put', {
    ...newStair(s.project, { id: 'steps-deck', level: 'ground', x: 12.0, y: 1.28, z: -0.34, rise: 0.32, width: 1.4 }),
    name: 'Deck steps',
    build: 'solid',
    left: null,
    right: null,
    above: null,
    void: 'none',
    finishes: { tread: 'timber.ash', riser: 'timber.ash', string: 'timber.ash' },
  });
  s.do('stair.put', {
    ...newStair(s.project, { id: 'steps-porch', level: 'ground', x: 5.1, y: 8.57, z: -0.34, rise: 0.34, width: 1.3, rotation: Math.PI }),
    name: 'Porch steps',
    build: 'solid',
    left: null,
    right: null,
    above: null,
    void: 'none',
    finishes: { tread: 'stone.flag', riser: 'stone.flag', string: 'stone.flag' },
  });
  const area = (
    id: string,
    kind: Parameters<typeof newGround>[1]['kind'],
    points: [number, number][],
    more: Partial<ReturnType<typeof newGround>> = {},
  ): void => void s.do('ground.put', { ...newGround(s.project, { id, kind, points: points.map(([x, y]) => ({ x, y })) }), ...more });
  // One in twelve up to the deck.
  area(
    'ramp',
    'paving',
    [
      [17.44, 4.9],
      [17.44, 6.2],
      [13.6, 6.2],
      [13.6, 4.9],
    ],
    { name: 'Ramp', z: 0, slope: { direction: Math.PI, fall: 1 / 12 }, edge: 'none' },
  );
  area(
    'towpath',
    'gravel',
    [
      [-24, -7.6],
      [34, -7.6],
      [34, -5.4],
      [-24, -5.4],
    ],
    { name: 'Towpath' },
  );
  area(
    'canal',
    'water',
    [
      [-24, -17.6],
      [34, -17.6],
      [34, -7.9],
      [-24, -7.9],
    ],
    { name: 'Canal', z: -0.45, depth: { from: 1.4, to: 1.4 }, edge: 'retaining' },
  );
  area(
    'path',
    'paving',
    [
      [4.4, 8.9],
      [5.8, 8.9],
      [5.8, 14],
      [4.4, 14],
    ],
    { name: 'Path' },
  );
  area(
    'bed-south',
    'bed',
    [
      [0.4, -1.5],
      [6.4, -1.5],
      [6.4, -0.35],
      [0.4, -0.35],
    ],
    { name: 'Herb bed' },
  );
  area(
    'drive',
    'drive',
    [
      [8.4, 9.2],
      [12.6, 9.2],
      [12.6, 18],
      [8.4, 18],
    ],
    { name: 'Drive' },
  );
  const fence = (id: string, kind: Parameters<typeof newFence>[1]['kind'], points: [number, number][], more: Partial<ReturnType<typeof newFence>> = {}): void =>
    void s.do('fence.put', { ...newFence(s.project, { id, kind, points: points.map(([x, y]) => ({ x, y })) }), ...more });
  fence('hedge', 'hedge', [
    [-6, -4.4],
    [-6, 14],
    [3.6, 14],
  ]);
  fence('rails', 'rails', [
    [-6, -5],
    [3, -5],
  ]);
  fence('rails-east', 'rails', [
    [4.4, -5],
    [19, -5],
    [19, 14],
    [13.4, 14],
  ]);
  s.do('viewpoint.add', { id: 'view-garden', name: 'From the towpath', eye: { x: 17.5, y: -7.0, z: 1.35 }, target: { x: 6, y: 3, z: 2.2 }, fov: 0.95 });
}
