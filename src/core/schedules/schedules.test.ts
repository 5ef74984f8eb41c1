import { describe, expect, it } from 'vitest';
import { newRun } from '../cabinetry/begin';
import { legAlong } from '../cabinetry/sides';
import { heronLockCottage } from '../demo/heron-lock';
import { deriveModel } from '../model/derive';
import { partsOf } from '../model/model';
import { addressOf } from '../project/targets';
import { regionArea } from '../geometry/polygon';
import { unitsSaid } from '../testing/cabinets';
import { edit } from '../testing/drafting';
import { cabinetSchedule } from './cabinets';
import { scheduleLists, written } from './lists';
import { findIn, contentsOf, type ContentsNode } from './contents';
import { floorSchedule, outsideSchedule, stairSchedule, timberSchedule } from './upwards';

const model = deriveModel(heronLockCottage());

/** The cottage with a run of cabinets in its workshop. */
const demo = heronLockCottage();
const [workshop] = Object.values(demo.rooms).filter((r) => r.name === 'Workshop');
const { side, wall } = [...model.shell.walls.values()].flatMap((w) => w.sides).find((s) => s.room === workshop.id && s.length > 1.5)!;
const run = newRun('run-a', 'Benches', workshop.level, [legAlong({ wall, side, room: workshop.id })], 'metric');
const fitted = deriveModel(edit(demo, 'run.lay', { run, units: unitsSaid('600 wall, 600 drawers') }));

describe('schedules of what goes up and outside', () => {
  it('stairs: risers times rise is what they climb', () => {
    const rows = stairSchedule(model);
    expect(rows.map((r) => r.name)).toEqual(['Stair', 'Deck steps', 'Porch steps']);
    for (const r of rows) expect(r.risers * r.rise).toBeCloseTo(r.climbs, 9);
    expect(rows[0]).toMatchObject({ to: 'Upper', form: 'quarter', risers: 14, breaks: '' });
    expect(rows[0].headroom).toBeGreaterThan(2);
  });

  it('timber: lengths and volumes of members, summed up', () => {
    const rows = timberSchedule(model);
    const members = model.shell.levels.flatMap((l) => l.roofs.flatMap((r) => r.framing?.members ?? []));
    expect(rows.reduce((sum, r) => sum + r.count, 0)).toBe(members.length);
    const rafters = rows.find((r) => r.kind === 'rafter')!;
    expect(rafters.volume).toBeCloseTo(rafters.length * rafters.width * rafters.depth, 9);
    // A rafter from ridge to eave at 42°: half the depth of the house and the overhang, over the cosine.
    expect(rafters.longest).toBeCloseTo((3.5 + 0.35) / Math.cos((42 * Math.PI) / 180), 2);
  });

  it('slabs and the ground by their outlines', () => {
    expect(floorSchedule(model)[0]).toMatchObject({ name: 'Deck', kind: 'deck', area: expect.closeTo(3.18 * 4.6, 6) });
    const canal = outsideSchedule(model).find((r) => r.name === 'Canal')!;
    expect([canal.area, canal.water]).toEqual([expect.closeTo(58 * 9.7, 6), expect.closeTo(58 * 9.7 * 1.4, 6)]);
    expect(outsideSchedule(model).find((r) => r.name === 'hedge' || r.kind === 'hedge')!.length).toBeCloseTo(18.4 + 9.6, 6);
  });

  it('every list has its columns in its rows, in both systems of units', () => {
    for (const list of Object.values(scheduleLists())) {
      const rows = list.rows(fitted) as Record<string, unknown>[];
      expect(rows.length).toBeGreaterThan(0);
      for (const row of rows) for (const c of list.columns) expect(row).toHaveProperty(c.key);
    }
    expect(written('length', 2.4, 'imperial')).toContain("'");
    expect(written('volume', 2, 'metric')).toBe('2.00 m³');
    expect(written('degrees', 42, 'metric')).toBe('42°');
    expect(written('area', '', 'metric')).toBe('');
  });

  it('rooms count what is over 1.5 m high: less under a low roof', () => {
    const loft = model.shell.levels[1].rooms.find((r) => r.room.name === 'Reading loft')!;
    expect(loft.highArea).toBeCloseTo(loft.area, 6);
    // The same house with its roof down on the floor of the loft.
    const demo = heronLockCottage();
    const low = deriveModel({ ...demo, levels: { ...demo.levels, upper: { ...demo.levels.upper, height: 0.5 } }, openings: {}, dormers: {}, rooflights: {} });
    const under = low.shell.levels[1].rooms.find((r) => r.room.name === 'Reading loft')!;
    // One metre more is reached 1/tan 42° further in from both eaves; the wall line itself is half a metre high.
    const lost = 1 / Math.tan((42 * Math.PI) / 180) - 0.3;
    expect(under.area).toBeCloseTo(loft.area, 6);
    expect(under.area - under.highArea).toBeGreaterThan(lost * 2.9);
    expect(under.highArea).toBeLessThan(regionArea(under.region));
  });
});

describe('the contents', () => {
  const nodes = contentsOf(fitted);
  const all = (list: readonly ContentsNode[]): ContentsNode[] => list.flatMap((n) => [n, ...all(n.children)]);

  it('holds everything once, under its level and room', () => {
    const things = all(nodes).filter((n) => n.thing);
    const ids = things.map((n) => n.id);
    expect(new Set(ids).size).toBe(ids.length);
    const { project } = fitted;
    for (const c of [
      'levels',
      'rooms',
      'openings',
      'stairs',
      'slabs',
      'roofs',
      'dormers',
      'rooflights',
      'pieces',
      'runs',
      'cabinets',
      'grounds',
      'fences',
      'viewpoints',
    ] as const)
      for (const id of Object.keys(project[c])) expect(ids).toContain(id);
    const upper = nodes.find((n) => n.id === 'upper')!;
    expect(upper.children.find((n) => n.name === 'Bedroom')!.children.map((n) => n.name)).toEqual(expect.arrayContaining(['W8 Bedroom west', 'Bed']));
    // Units are under their run, which is under its room, in their order.
    const [benches] = all(nodes).filter((n) => n.id === 'run-a');
    expect(benches.children.map((n) => n.name)).toEqual(['1 drawers', '2 wall']);
    expect(
      cabinetSchedule(fitted)
        .filter((r) => r.run === benches.name)
        .map((r) => `${r.mark} ${r.name}`),
    ).toEqual(benches.children.map((n) => n.name));
    expect(all(nodes).find((n) => n.id === workshop.id)!.children).toContain(benches);
  });

  it('holds every face a finish can be chosen for once, by the names people say', () => {
    const faces = all(nodes).flatMap((n) => (n.target ? [n] : []));
    expect(new Set(faces.map((n) => n.id)).size).toBe(faces.length);
    for (const n of faces) expect(addressOf(n.target!)).toBe(n.id);
    // What the model shows of rooms and walls, and the contents, are the same.
    const shown = new Set(
      [...partsOf(model)].flatMap(([, p]) => (p.target && ['floor', 'ceiling', 'wall'].includes(p.target.kind) ? [addressOf(p.target)] : [])),
    );
    const listed = new Set(faces.map((n) => n.id));
    for (const address of shown) expect(listed).toContain(address);
    const living = all(nodes).find((n) => n.name === 'Living')!;
    const own = living.children.find((n) => n.name === 'Faces')!.children.map((n) => n.name);
    expect(own.slice(0, 2)).toEqual(['floor', 'ceiling']);
    expect(new Set(own).size).toBe(own.length);
    expect(own).toEqual(expect.arrayContaining(['west wall', 'north wall']));
    expect(findIn(nodes, 'west side, outside')[0].children[0].children.length).toBeGreaterThan(0);
  });

  it('is searched by name and kind, and keeps what holds the things found', () => {
    const found = all(findIn(nodes, 'deck'));
    expect(found.filter((n) => n.thing).map((n) => n.name)).toEqual(expect.arrayContaining(['Ground', 'Deck', 'Deck steps', 'Deck door']));
    expect(found.some((n) => n.name === 'Bedroom')).toBe(false);
    expect(findIn(nodes, 'no such thing')).toEqual([]);
    expect(findIn(nodes, '')).toHaveLength(nodes.length);
  });
});
