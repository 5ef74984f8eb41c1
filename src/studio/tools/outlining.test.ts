import { beforeEach, describe, expect, it } from 'vitest';
import { deriveModel } from '@/core/model/derive';
import { signedArea } from '@/core/geometry/polygon';
import { runChange } from '@/core/project/commands';
import type { Project } from '@/core/project/schema';
import { newSlab, rectangleOf } from '@/core/project/built-defaults';
import { edit, house } from '@/core/testing/drafting';
import { errorText } from '../store/sync';
import { useStudio, type WallPen } from '../store/studio';
import { FIRST_LOOK } from '@/core/project/looks';
import { toggleShown, useLook } from '../views/views';
import { climbFor, riseOf } from './climbing';
import * as tools from './controller';
import { cornersOf, withAnchor, withCorners } from '@/core/project/putting';
import type { Make } from './make';
import type { TablePoint } from './session';

let project: Project;
let step = 0;

/** Two levels, 8 × 6 m. */
function start(units: Project['units'] = 'metric'): void {
  project = house([
    [0, 0],
    [8, 0],
    [8, 6],
    [0, 6],
  ]);
  project = edit({ ...project, units }, 'level.add', { id: 'upper', name: 'Upper', of: 'ground', where: 'above', walls: 'all', height: 2.4, slab: 0.25 });
  useStudio.setState({ project, model: deriveModel(project), level: 'ground', room: null, selection: [], notice: null, tool: { kind: 'select' } });
  useStudio.setState({ pen: { ...useStudio.getState().pen, outline: 'corners', angles: null, climb: { to: 'level' } } });
}

/** The store as it is with a project open: commands run on the project held here. */
beforeEach(() => {
  start();
  useStudio.setState({
    run: (command, args) => {
      try {
        project = runChange(project, { id: `test${step++}aa`, kind: 'do', command, args }).project;
        useStudio.setState({ project, model: deriveModel(project), notice: null });
        return true;
      } catch (error) {
        useStudio.setState({ notice: errorText(error) });
        return false;
      }
    },
  });
});

const at = (x: number, y: number): TablePoint => ({ plan: { x, y }, spot: null, reach: 0.05, shift: false });
const take = (make: Make): void => useStudio.getState().setTool({ kind: 'outline', make });
const press = (x: number, y: number): void => {
  tools.move(at(x, y));
  tools.down(at(x, y));
  tools.up(at(x, y));
};
const only = <T>(record: Record<string, T>): T => Object.values(record)[0];

describe('where a stair leads', () => {
  const stair = (x: number): void => {
    take({ what: 'stair', form: 'straight', corners: 'landing', turn: 'left' });
    press(x, 1);
    press(x, 3);
  };
  const climb = (c: WallPen['climb']): void => useStudio.setState(({ pen }) => ({ pen: { ...pen, climb: c } }));
  const latest = () => Object.values(project.stairs).at(-1)!;

  it('is the level above, a slab of the level or a typed height', () => {
    stair(2);
    expect(latest().rise).toBeNull();
    project = edit(
      project,
      'slab.put',
      newSlab(project, { id: 'm', kind: 'mezzanine', level: 'ground', points: rectangleOf({ x: 5, y: 0 }, { x: 8, y: 3 }), z: 2.3 }),
    );
    useStudio.setState({ project, model: deriveModel(project) });
    climb({ to: 'slab', slab: 'm' });
    stair(3.5);
    expect(latest().rise).toBe(2.3);
    climb({ to: 'height', metres: 1.2 });
    stair(5);
    expect(latest().rise).toBe(1.2);
  });

  it('needs no level above', () => {
    project = edit(project, 'level.delete', { id: 'upper' });
    useStudio.setState({ project, model: deriveModel(project) });
    climb({ to: 'level' });
    stair(2);
    expect(useStudio.getState().notice).toBeNull();
    const { height, slab } = project.levels.ground;
    expect(latest().rise).toBeCloseTo(height + slab, 9);
    // As soon as there is a mezzanine it leads there.
    project = edit(
      project,
      'slab.put',
      newSlab(project, { id: 'm', kind: 'mezzanine', level: 'ground', points: rectangleOf({ x: 5, y: 0 }, { x: 8, y: 3 }), z: 2.2 }),
    );
    expect(climbFor(project, 'ground', { to: 'level' })).toEqual({ to: 'slab', slab: 'm' });
    expect(riseOf(project, 'ground', { to: 'slab', slab: 'gone' })).toBe(2.2);
    expect(climbFor(project, 'ground', { to: 'height', metres: 3 })).toEqual({ to: 'height', metres: 3 });
  });
});

describe('what is drawn by points', () => {
  it('an outline closes on its first corner and is selected', () => {
    take({ what: 'slab', kind: 'mezzanine' });
    for (const [x, y] of [
      [1, 1],
      [3, 1],
      [3, 3],
      [1, 3],
      [1, 1],
    ] as const)
      press(x, y);
    const slab = only(project.slabs);
    expect(slab.points).toHaveLength(4);
    expect(Math.abs(signedArea(slab.points))).toBeCloseTo(4, 6);
    expect(slab.z).toBeCloseTo(2.75, 9);
    expect(useStudio.getState().selection[0].entity).toBe(slab.id);
    // It stays in hand until it is put down.
    expect(useStudio.getState().tool.kind).toBe('outline');
    tools.escape();
    expect(useStudio.getState().tool.kind).toBe('select');
    expect(useStudio.getState().selection[0].entity).toBe(slab.id);
  });

  it('a rectangle takes two presses, or typed sizes', () => {
    useStudio.setState({ pen: { ...useStudio.getState().pen, outline: 'rectangle' } });
    take({ what: 'void' });
    press(2, 2);
    tools.move(at(3, 3));
    tools.type('1200');
    tools.nextField();
    tools.type('1500');
    tools.enter();
    const ring = only(project.voids).points;
    expect(ring.map((p) => [p.x, p.y])).toEqual([
      [2, 2],
      [3.2, 2],
      [3.2, 3.5],
      [2, 3.5],
    ]);
  });

  it('a typed length sets the next corner in the direction of the pointer', () => {
    take({ what: 'ground', kind: 'lawn' });
    press(10, 0);
    tools.move(at(12, 0.02));
    tools.type('4 m');
    tools.enter();
    press(14, 3);
    press(10, 0);
    expect(only(project.grounds).points[1]).toEqual({ x: 14, y: 0 });
  });

  it('too few corners are refused with one sentence, Escape drops what was begun', () => {
    take({ what: 'roof', form: 'hip' });
    press(10, 0);
    press(12, 0);
    tools.enter();
    expect(useStudio.getState().notice).toBe('No roof was set: it is drawn by at least 3 corners; press another one.');
    tools.escape();
    expect(tools.drawing()).toBe(false);
    expect(project.roofs).toEqual({});
  });

  it('stairs set out from the first point towards the second, and go against a wall', () => {
    take({ what: 'stair', form: 'straight', corners: 'landing', turn: 'left' });
    press(0.6, 1);
    press(0.6, 3);
    const stair = only(project.stairs);
    expect(stair.rotation).toBeCloseTo(0, 9);
    // The face lies at 150 mm, the string is 35 thick.
    expect(stair.x).toBeCloseTo(0.15 + 0.005 + 0.035 + 0.45, 5);
    expect([stair.left, stair.right?.infill]).toEqual([null, 'balusters']);
  });

  it('beams by two points, posts by one, steps from the ground up, swept roofs along a path', () => {
    take({ what: 'beam', as: 'post' });
    press(4, 3);
    take({ what: 'beam', as: 'beam' });
    press(2, 3);
    press(6, 3);
    expect(Object.values(project.beams).map((b) => [b.name, Math.round(Math.hypot(b.b.x - b.a.x, b.b.y - b.a.y, b.b.z - b.a.z) * 1000)])).toEqual([
      ['Post 1', 2500],
      ['Beam 1', 4000],
    ]);
    take({ what: 'steps' });
    press(4, -2);
    press(4, -1);
    const steps = only(project.stairs);
    expect([steps.z, steps.rise, steps.void]).toEqual([expect.closeTo(-0.26, 9), expect.closeTo(0.26, 9), 'none']);
    take({ what: 'swept', section: 'curved' });
    press(12, 0);
    press(12, 5);
    tools.enter();
    expect(only(project.roofs).over.kind).toBe('swept');
    take({ what: 'fence', kind: 'rails' });
    press(-2, 0);
    press(-2, 5);
    tools.enter();
    expect(only(project.fences).points).toHaveLength(2);
  });

  it('a patch on a floor lies in the room it is drawn in, and its corners can be moved', () => {
    const room = Object.values(project.rooms).find((r) => r.level === 'ground')!;
    const { x, y } = room.anchor;
    take({ what: 'patch', finish: 'tile.riven-slate' });
    for (const [dx, dy] of [
      [0, 0],
      [0.6, 0],
      [0.6, 0.4],
      [0, 0.4],
      [0, 0],
    ])
      press(x + dx, y + dy);
    const patch = only(project.patches);
    expect(patch).toMatchObject({ on: { kind: 'floor', room: room.id }, finish: 'tile.riven-slate', shape: { kind: 'polygon' } });
    const corners = cornersOf(project, patch.id)!;
    expect(corners).toHaveLength(4);
    const moved = withCorners(project, patch.id, [{ x: corners[0].x - 0.1, y: corners[0].y }, ...corners.slice(1)])!;
    expect(moved.command).toBe('patch.put');
    expect(withAnchor(project, patch.id, { x: 0, y: 0 })!.command).toBe('patch.put');
  });

  it('by keyboard alone a thing is set in the room in hand, with the size it starts with', () => {
    const room = Object.values(project.rooms).find((r) => r.level === 'ground')!;
    useStudio.setState({ room: room.id });
    for (const make of [
      { what: 'slab', kind: 'deck' },
      { what: 'stair', form: 'spiral', corners: 'landing', turn: 'right' },
      { what: 'beam', as: 'post' },
    ] as Make[]) {
      take(make);
      tools.actByKey();
    }
    expect([Object.keys(project.slabs), Object.keys(project.stairs), Object.keys(project.beams)].map((k) => k.length)).toEqual([1, 1, 1]);
  });

  it('in feet and inches a stair keeps to profile B', () => {
    start('imperial');
    take({ what: 'stair', form: 'straight', corners: 'landing', turn: 'left' });
    press(4, 1);
    press(4, 3);
    expect(only(project.stairs).profile).toBe('B');
    take({ what: 'void' });
    useStudio.setState({ pen: { ...useStudio.getState().pen, outline: 'rectangle' }, level: 'upper' });
    press(5, 1);
    tools.move(at(7, 3));
    tools.type(`4'`);
    tools.nextField();
    tools.type(`5' 6"`);
    tools.enter();
    expect(Math.abs(signedArea(only(project.voids).points))).toBeCloseTo(4 * 5.5 * 0.3048 ** 2, 6);
  });
});

describe('what is drawn is taken hold of', () => {
  it('as a whole, by a corner, and not where it is held', () => {
    const made = edit(project, 'slab.put', {
      id: 'deck',
      name: 'Deck',
      level: 'ground',
      kind: 'deck',
      points: [
        { x: 10, y: 0 },
        { x: 13, y: 0 },
        { x: 13, y: 2 },
      ],
      z: 0,
      thickness: 0.1,
      guard: null,
      status: 'new',
      finishes: {},
    });
    project = made;
    useStudio.setState({ project, model: deriveModel(project) });
    const spot = { entity: 'deck', target: null };
    const drag = (from: [number, number], to: [number, number]): void => {
      tools.down({ ...at(...from), spot });
      tools.move(at(...to));
      tools.up(at(...to));
    };
    drag([11, 0.5], [12, 1.5]);
    expect(project.slabs.deck.points[0]).toEqual({ x: 11, y: 1 });
    tools.grabPoint('deck', 2);
    tools.move(at(14.5, 4));
    tools.up(at(14.5, 4));
    expect(project.slabs.deck.points[2]).toEqual({ x: 14.5, y: 4 });
    project = edit(project, 'contents.hold', { ids: ['deck'], held: true });
    useStudio.setState({ project, model: deriveModel(project), selection: [] });
    drag([12, 1.5], [20, 9]);
    expect(project.slabs.deck.points[0]).toEqual({ x: 11, y: 1 });
    expect(useStudio.getState().selection).toEqual([]);
  });

  it('a stair is carried along, and catches a wall', () => {
    take({ what: 'stair', form: 'straight', corners: 'landing', turn: 'left' });
    press(4, 1);
    press(4, 3);
    const { id } = only(project.stairs);
    tools.escape();
    tools.down({ ...at(4, 2), spot: { entity: id, target: null } });
    tools.move(at(0.7, 2));
    tools.up(at(0.7, 2));
    expect(only(project.stairs).x).toBeCloseTo(0.64, 5);
  });
});

describe('how the model is shown', () => {
  it('hides one thing, makes it see-through instead, and brings it back', () => {
    useLook.setState({ look: FIRST_LOOK });
    toggleShown('a', 'hidden');
    expect(useLook.getState().look.hidden).toEqual(['a']);
    toggleShown('a', 'through');
    expect([useLook.getState().look.hidden, useLook.getState().look.through]).toEqual([[], ['a']]);
    toggleShown('a', 'through');
    expect(useLook.getState().look).toEqual(FIRST_LOOK);
  });
});
