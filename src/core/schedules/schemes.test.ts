import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '../demo/heron-lock';
import { finishById } from '../finishes/library';
import { choices, withScheme } from '../project/choices';
import { newRun } from '../cabinetry/begin';
import { STYLES } from '../cabinetry/styles';
import { kitOfStyle } from '../project/joinery';
import { unitsSaid } from '../testing/cabinets';
import { kitOf, SchemeKit } from '../project/scheme-kit';
import type { Project } from '../project/schema';
import { addressOf, roomOfTarget } from '../project/targets';
import { edit, house, wallAt } from '../testing/drafting';
import { plainHouse, random, randomEdit } from '../testing/random';
import { takingOver } from './schemes';

const room = (p: Project) => Object.values(p.rooms)[0].id;
const square = () =>
  house([
    [0, 0],
    [6, 0],
    [6, 5],
    [0, 5],
  ]);
const bare = square();
const base = edit(bare, 'finish.apply', { targets: [{ kind: 'walls', room: room(bare) }], finish: 'paint.reed' });
const kit = (over: Partial<SchemeKit>): SchemeKit => ({
  name: 'Warm',
  rooms: {},
  mouldings: {},
  starts: { floor: null, wall: null, ceiling: null, joinery: null, worktop: null, metal: null },
  finishes: [],
  ...over,
});
const all = (p: Project) => new Map([...choices(p)].map((c) => [addressOf(c.target), c] as const));

describe('a kept scheme', () => {
  it('go to another project by roles: rooms by their use, mouldings all round, own finishes along', () => {
    let p = edit(base, 'room.set', { room: room(base), set: { use: 'kitchen' } });
    const own = { ...finishById('timber.oak-plank'), id: 'own-plank', name: 'Own plank' };
    p = edit(p, 'finish.put', own);
    p = edit(p, 'finish.apply', { targets: [{ kind: 'floor', room: room(p) }], finish: 'own-plank' });
    p = edit(p, 'moulding.put', {
      mouldings: [
        { id: 'm', name: 'Skirting', room: room(p), kind: 'skirting', profile: 'skirting-plain', height: 0.12, at: null, without: [], finish: 'paint.skein' },
      ],
    });
    const kit = SchemeKit.parse(kitOf(p));
    expect(kit.rooms.kitchen).toEqual({ floor: 'own-plank', walls: 'paint.reed', ceiling: null });
    let other = house([
      [0, 0],
      [6, 0],
      [6, 5],
      [0, 5],
    ]);
    other = edit(other, 'scheme.from-kit', { id: 'taken', kit });
    expect(other.scheme).toBe('taken');
    // Its use is not said: it gets what most rooms have.
    expect(other.rooms[room(other)]).toMatchObject({ floor: 'own-plank', walls: 'paint.reed' });
    expect(other.finishes['own-plank'].name).toBe('Own plank');
    expect(Object.values(other.mouldings)).toEqual([expect.objectContaining({ kind: 'skirting', height: 0.12 })]);
    expect(withScheme(other, 'scheme-1').rooms[room(other)].floor).toBeNull();
  });

  it('leaves what it has no word for: walls of their own with how they lie, patches, doors, mouldings of other kinds', () => {
    const id = room(base);
    const south = wallAt(base, (a, b) => a.y === 0 && b.y === 0);
    const address = `wall/${id}/${south}/left`;
    let p = edit(base, 'finish.apply', { targets: [{ kind: 'wall', room: id, wall: south, side: 'left' }], finish: 'tile.glazed-white' });
    p = edit(p, 'laying.put', { addresses: [address], laying: { laying: null, start: 'edge', origin: { x: 0.1, y: 0 }, rotation: 0.3, scale: 1 } });
    p = edit(p, 'finish.apply', { targets: [{ kind: 'floor', room: id }], finish: 'stone.flag' });
    p = edit(p, 'moulding.put', {
      mouldings: [
        { id: 'cornice', name: 'Cornice', room: id, kind: 'cornice', profile: 'cornice-cove', height: null, at: null, without: [], finish: 'paint.skein' },
        {
          id: 'skirting',
          name: 'Skirting',
          room: id,
          kind: 'skirting',
          profile: 'skirting-plain',
          height: 0.12,
          at: null,
          without: ['x'],
          finish: 'paint.skein',
        },
      ],
    });
    const warm = kit({
      rooms: { any: { floor: 'timber.oak-plank', walls: 'plaster.lime', ceiling: null } },
      mouldings: { skirting: { profile: 'skirting-tall', height: null, at: null, finish: 'paint.millpond' } },
    });
    const look = takingOver(p, 'taken', warm);
    const after = look.project;
    expect(after.rooms[id]).toMatchObject({ floor: 'timber.oak-plank', walls: 'plaster.lime', ceiling: null, faces: p.rooms[id].faces });
    expect(after.layings[address]).toEqual(p.layings[address]);
    // The skirting is changed where it runs, its gaps stay; nothing comes twice.
    expect(Object.values(after.mouldings)).toHaveLength(2);
    expect(after.mouldings.skirting).toMatchObject({ profile: 'skirting-tall', finish: 'paint.millpond', without: ['x'] });
    expect(after.mouldings.cornice).toEqual(p.mouldings.cornice);
    expect(look.rooms).toEqual([
      {
        room: id,
        name: p.rooms[id].name,
        changes: [
          { what: 'Skirting', first: expect.stringContaining('Plain') as string, second: expect.stringContaining('Tall plain') as string },
          { what: 'floor', first: finishById('stone.flag').name, second: finishById('timber.oak-plank').name },
          { what: 'walls, but for 1 with a finish of its own', first: finishById('paint.reed').name, second: finishById('plaster.lime').name },
        ],
      },
    ]);
    // The scheme before is whole, and one step takes it back.
    expect([...all(withScheme(after, p.scheme)).keys()].sort()).toEqual([...all(p).keys()].sort());
  });

  it('brings the joinery styles of runs along, by the use of their rooms, with the finishes they need, and says so', () => {
    const run = (p: Project, id: string, wall: string): Project =>
      edit(p, 'run.lay', {
        run: newRun(id, 'Kitchen', Object.keys(p.levels)[0], [{ kind: 'wall', wall, side: 'left', room: room(p) }], 'metric'),
        units: unitsSaid('600 drawers, 600 door', id),
      });
    const south = wallAt(base, (a, b) => a.y === 0 && b.y === 0);
    let p = run(edit(base, 'room.set', { room: room(base), set: { use: 'kitchen' } }), 'run-a', south);
    const own = { ...finishById('timber.oak-plank'), id: 'own-front', name: 'Own front' };
    p = edit(p, 'finish.put', own);
    const style = { ...STYLES[0], id: 'style-own', name: 'Own', parts: { ...STYLES[0].parts, fronts: 'own-front' } };
    p = edit(p, 'style.give', { kit: kitOfStyle(p, style), runs: ['run-a'] });
    const kept = SchemeKit.parse(JSON.parse(JSON.stringify(kitOf(p))));
    expect(kept.joinery?.uses).toEqual({ kitchen: 'style-own', any: 'style-own' });
    const before = run(
      edit(bare, 'room.set', { room: room(bare), set: { use: 'kitchen' } }),
      'run-b',
      wallAt(bare, (a, b) => a.y === 0 && b.y === 0),
    );
    const look = takingOver(before, 'taken', kept);
    expect(look.project.runs['run-b'].style).toBe('style-own');
    expect(look.project.finishes['own-front'].name).toBe('Own front');
    expect(look.rooms.flatMap((r) => r.changes).map((c) => c.second)).toContain('Own');
    // The scheme before keeps what its run was made in.
    expect(withScheme(look.project, before.scheme).runs['run-b'].style).toBeNull();
    // One that was kept before there were styles takes none away.
    const { joinery: _none, ...older } = kept;
    expect(edit(p, 'scheme.from-kit', { id: 'again', kit: older }).runs['run-a'].style).toBe('style-own');
  });

  it('brings no skirting to the shower room where it had none there, nor a second name', () => {
    let p = edit(base, 'room.set', { room: room(base), set: { use: 'shower room' } });
    const warm = kit({
      name: p.schemes[p.scheme].name,
      rooms: { 'shower room': { floor: 'stone.flag', walls: null, ceiling: null } },
      mouldings: { skirting: { profile: 'skirting-plain', height: null, at: null, finish: 'paint.skein', uses: ['living'] } },
    });
    p = takingOver(p, 'taken', warm).project;
    expect(Object.values(p.mouldings)).toEqual([]);
    expect(new Set(Object.values(p.schemes).map((s) => s.name)).size).toBe(2);
  });

  it('is shown before as it is afterwards: the list holds every choice that differs and no other, on random houses', () => {
    const kits = [kitOf(heronLockCottage()), kit({ rooms: { any: { floor: 'stone.flag', walls: 'paint.reed', ceiling: 'paint.skein' } } })];
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.constantFrom(...kits), (seed, own) => {
        const next = random(seed);
        let p = plainHouse(next);
        for (let i = 0; i < 12; i++) p = randomEdit(p, next, i);
        const look = takingOver(p, 'taken', own);
        const done = edit(p, 'scheme.from-kit', { id: 'taken', kit: own });
        const plain = (q: Project) => JSON.stringify({ ...q, mouldings: Object.values(q.mouldings).map((m) => ({ ...m, id: '' })) });
        expect(plain(done)).toBe(plain(look.project));
        const [before, after] = [all(p), all(look.project)];
        const changed = [...after].filter(
          ([address, c]) =>
            before.get(address)?.finish !== c.finish ||
            (c.target.kind === 'moulding' && p.mouldings[c.target.moulding] !== look.project.mouldings[c.target.moulding]),
        );
        const listed = look.rooms.reduce((n, r) => n + r.changes.length, 0);
        expect(listed).toBeLessThanOrEqual(changed.length);
        expect(changed.every(([, c]) => look.rooms.some((r) => r.room === roomOfTarget(look.project, c.target)) || c.target.kind === 'moulding')).toBe(true);
        expect(listed + look.kept).toBe(after.size);
        // Nothing that was chosen is gone.
        for (const address of before.keys()) expect(after.has(address)).toBe(true);
        for (const [address, c] of after)
          if (c.target.kind === 'part' || c.target.kind === 'patch' || c.target.kind === 'wall') expect(c.finish).toBe(before.get(address)?.finish);
      }),
      { numRuns: 60 },
    );
  });
});
