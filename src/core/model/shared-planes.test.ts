import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '../demo/heron-lock';
import { newGround } from '../project/built-defaults';
import { newDormer } from '../project/dormers';
import { newOpening } from '../project/opening-defaults';
import { newRoof } from '../project/roof-defaults';
import { newGuard, newStair } from '../project/stairs';
import { DORMER_FORMS, emptyProject, FORMS, STAIR_FORMS, type GroundArea, type Moulding, type Patch, type Project } from '../project/schema';
import { FRAMING } from '../shell/framing';
import { CARDS, pieceFrom } from '../stock/stock';
import { box, edit, wallBy } from '../testing/drafting';
import { sharedPlanes } from '../testing/shared-planes';
import { deriveModel } from './derive';

/** What a corner of a tile or the end of a board may have in common with another, m². */
const SPECK = 6e-4;

const flickering = (project: Project): string[] =>
  sharedPlanes(deriveModel(project))
    .filter((p) => p.area > SPECK)
    .map((p) => `${p.parts}: ${p.area.toFixed(4)} m² at ${p.at.map((x) => x.toFixed(3)).join(' ')} looking ${p.normal.map((x) => x.toFixed(2)).join(' ')}`);

const ring = (x: number, y: number, w: number, d: number): { x: number; y: number }[] => [
  { x, y },
  { x: x + w, y },
  { x: x + w, y: y + d },
  { x, y: y + d },
];

describe('faces in one plane', () => {
  it('are told: two boxes of different finishes beside one another on one level', () => {
    const one = edit(box(), 'ground.put', area(box(), 'a', 'lawn', ring(10, 0, 4, 4)));
    const model = deriveModel(one);
    const [first] = model.bodies.filter((b) => b.kind === 'grounds');
    const twice = { ...first, id: 'b', parts: first.parts.map((p) => ({ ...p, finish: 'another' })) };
    const [found] = sharedPlanes({ bodies: [...model.bodies, twice] });
    expect(found.area).toBeCloseTo(16, 6);
    expect(found.normal[2]).toBe(1);
  });

  it('are nowhere seen in the cottage', () => {
    expect(flickering(heronLockCottage())).toEqual([]);
  });

  it('are in nothing of the stock, as its cards have it', () => {
    const project = emptyProject('stock', 'Stock');
    for (const card of CARDS) project.pieces[card.id] = pieceFrom(card, card.id, project.levels.ground, { x: 0, y: 0 }, 0);
    // Small things are looked at from near by.
    const found = deriveModel(project).bodies.flatMap((body) => sharedPlanes({ bodies: [body] }).filter((p) => p.area > 2e-5));
    expect(found.map((p) => `${p.parts}: ${p.area.toExponential(1)} m² at ${p.at.map((x) => x.toFixed(4)).join(' ')}`)).toEqual([]);
  });

  it('are not made by kerbs and retaining edges of basins, terraces and hollows', () => {
    let project = box();
    for (const [i, kind] of (['pool', 'paving', 'lawn', 'water'] as const).entries())
      for (const [j, edge] of (['kerb', 'retaining'] as const).entries())
        for (const [k, rise] of [-0.5, 0.4].entries())
          project = edit(project, 'ground.put', { ...area(project, `${kind}${edge}${k}`, kind, ring(10 + 6 * i, 6 * j + 12 * k, 4, 4)), edge, z: rise });
    // One beside another, and one cut by another.
    project = edit(project, 'ground.put', { ...area(project, 'by', 'gravel', ring(14, 0, 2, 4)), edge: 'kerb' });
    project = edit(project, 'ground.put', { ...area(project, 'over', 'pool', ring(12, 2, 3, 3)), edge: 'retaining' });
    expect(flickering(project)).toEqual([]);
  });

  it.each(['closed', 'cut', 'solid'] as const)('are not made by stairs that are %s', (build) => {
    for (const form of STAIR_FORMS) {
      let project = edit(box(9, 9), 'level.add', { id: 'upper', name: 'Upper', of: 'ground', where: 'above', walls: 'outer', height: 2.4, slab: 0.25 });
      const guards = { left: newGuard(), right: newGuard('glass'), above: newGuard('cable') };
      const finishes = { riser: 'paint.reed', string: 'paint.pollard', tread: 'timber.oak' };
      project = edit(project, 'stair.put', newStair(project, { id: 's', level: 'ground', x: 4.5, y: 2.5, form, build, finishes, ...guards }));
      expect([form, ...flickering(project)]).toEqual([form]);
    }
  });

  it('are not made by joinery in walls with tiles, rails and skirtings', () => {
    let project = box(30, 12);
    const [front, back] = [wallBy(project, [0, 0], [30, 0]), wallBy(project, [0, 12], [30, 12])];
    const put = (set: Partial<Parameters<typeof newOpening>[1]> & Pick<Parameters<typeof newOpening>[1], 'id' | 'wall' | 'kind' | 'at'>): void => {
      project = edit(project, 'opening.add', newOpening(project, set));
    };
    FORMS.door.forEach((form, i) => put({ id: `d${i}`, wall: front, kind: 'door', form, at: 2 + 3.2 * i, width: 1.2 }));
    FORMS.window
      .filter((form) => form !== 'corner' && form !== 'glazed-wall')
      .forEach((form, i) => put({ id: `w${i}`, wall: back, kind: 'window', form, at: 2 + 3.6 * i, width: 1.4, sill: 0.9, height: 1.2 }));
    const [room] = Object.keys(project.rooms);
    const tiles: Patch = {
      id: 't',
      name: 'Tiles',
      on: { kind: 'walls', room },
      shape: { kind: 'band', from: 0, to: 1.6 },
      order: 1,
      finish: 'tile.glazed-white',
      panels: null,
    };
    project = edit(project, 'patch.put', { patches: [tiles] });
    const skirting: Moulding = {
      id: 'm',
      name: 'Skirting',
      room,
      kind: 'skirting',
      profile: 'skirting-torus',
      height: null,
      at: null,
      without: [],
      finish: 'paint.reed',
    };
    project = edit(project, 'moulding.put', { mouldings: [skirting] });
    expect(flickering(project)).toEqual([]);
  });

  it.each(DORMER_FORMS)('are not made by a %s dormer, its roof and the ceiling under it', (form) => {
    let project = box(8, 6);
    const roof = newRoof(project, { id: 'roof', level: 'ground' }, 'gable');
    const all = { ...roof.all, pitch: 0.75 };
    const edges = Object.fromEntries(Object.entries(roof.edges).map(([k, e]) => [k, { ...e, pitch: 0.75 }]));
    const [room] = Object.keys(project.rooms);
    project = edit(project, 'roof.put', { roof: { ...roof, all, edges, framing: { ...FRAMING, ties: 'truss', purlins: 1 } } });
    for (const kind of ['flat', 'roof'] as const) {
      const under = edit(project, 'room.set', { room, set: { cover: kind === 'roof' ? { kind } : { kind, height: null } } });
      expect([kind, ...flickering(edit(under, 'dormer.put', newDormer(under, { id: 'd', roof: 'roof', form })!))]).toEqual([kind]);
    }
  });
});

function area(project: Project, id: string, kind: GroundArea['kind'], points: GroundArea['points']): GroundArea {
  return newGround(project, { id, kind, points });
}
