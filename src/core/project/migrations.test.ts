import { readFileSync } from 'node:fs';
import path from 'node:path';
import { gunzipSync } from 'node:zlib';
import { applyPatches, type Patch } from 'immer';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { skyType } from '../light/sky-types';
import { deriveModel } from '../model/derive';
import { choices } from './choices';
import { broughtUp, EARLIER_FORMAT, runChange, validateProject } from './commands';
import { DomainError } from './errors';
import { isOld } from './picture-state';
import { newRun } from '../cabinetry/begin';
import { CONSTRUCTIONS } from '../cabinetry/figures';
import { boxOf } from '../geometry/polygon';
import { derivedOf } from '../model/model';
import { unitsSaid } from '../testing/cabinets';
import { footprintOf } from './footprint';
import { emptyProject, FORMAT_VERSION, Id, Name, ProjectSchema, Text, type Piece, type Project } from './schema';
import { makeParts, stockItem } from '../stock/stock';
import { addressOf } from './targets';

/** Something that an earlier version of the program wrote itself. */
const earlier = <T>(name: string): T => JSON.parse(gunzipSync(readFileSync(path.join(__dirname, '../testing/earlier', `${name}.json.gz`))).toString()) as T;

/** What a version did not have yet. */
const WITHOUT: Record<number, string[]> = {
  7: [],
  6: [],
  4: ['contents'],
  3: ['contents', 'finishes', 'layings', 'patches', 'mouldings', 'profiles', 'schemes', 'scheme', 'dislikes', 'money'],
};
WITHOUT[2] = [...WITHOUT[3], 'dormers', 'stairs', 'voids', 'slabs', 'beams', 'grounds', 'fences'];
WITHOUT[1] = [...WITHOUT[2], 'wallTypes', 'guides', 'columns', 'rooflights', 'roofs'];

/** A bare project as a version kept it. */
const kept = (version: number, over: object = {}): object => ({
  ...Object.fromEntries(Object.entries(emptyProject('p', 'P')).filter(([key]) => !WITHOUT[version].includes(key))),
  ...(version > 2 && version < 6 ? { outline: { groups: {}, hidden: [], locked: [] } } : {}),
  version,
  ...over,
});

/** Addresses of parts as today’s format has them. */
const renamed = (line: string): string =>
  line
    .replace(/^column\/([^/ ]+) /, 'part/$1/body ')
    .replace(/^(piece|opening|roof)\//, 'part/')
    // The counter, which is a run now, had a sink and a tap of its own, and a plinth that was called its carcass.
    .replace(/^part\/piece-1\/(sink|tap) /, (_, part: string) => `part/piece-1-4/${part === 'tap' ? 'tap body' : 'sink sink'} `)
    .replace(/^part\/piece-1\/carcass /, 'part/piece-1/plinth ')
    // Of the work bench, the one piece with such a part, drawers were told apart from their fronts later.
    .replace(/^(part\/[^/]+)\/drawers /, '$1/fronts ');
const chosen = (project: Project): string[] => [...choices(project)].map((c) => `${addressOf(c.target)} ${c.finish}`).sort();

interface Log {
  changes: { command: string; patches: Patch[]; inverse: Patch[] }[];
  states: { choices: string[]; schemes: [string, string[]][]; count: Record<string, number>; hidden: string[]; locked: string[] }[];
}

describe('a project of any earlier version', () => {
  it.each([1, 2, 3, 4, 6, 7])('%i is brought up to date, and stays as it is then', (version) => {
    const project = validateProject(kept(version));
    expect(project.version).toBe(FORMAT_VERSION);
    expect(validateProject(project)).toEqual(project);
  });

  it.each([1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16, 17, 18])(
    '%i: the demo as that version wrote it opens with all its rooms, things and finishes',
    (version) => {
      const old = earlier<Record<string, Record<string, Record<string, unknown>>>>(`heron-lock-${version}`);
      expect(old.version).toBe(version);
      const project = validateProject(old);
      for (const collection of ['walls', 'openings', 'rooms', 'roofs', 'stairs', 'fences', 'grounds', 'patches'] as const)
        expect(Object.keys(project[collection]).sort()).toEqual(Object.keys(old[collection] ?? {}).sort());
      // The counter is a run now.
      const counters = Object.values(old.pieces).filter((p) => p.maker === 'counter');
      expect(Object.keys(project.pieces).sort()).toEqual(
        Object.keys(old.pieces)
          .filter((id) => old.pieces[id].maker !== 'counter')
          .sort(),
      );
      expect(Object.keys(project.runs)).toEqual([...Object.keys(old.runs ?? {}), ...counters.map((p) => p.id)]);
      // Version 6 keeps what has a finish as today does.
      const parted = version < 6;
      for (const id in parted ? old.roofs : {})
        for (const part of ['covering', 'soffit', 'fascia', 'timber']) expect(project.roofs[id].finishes[part]).toBe(old.roofs[id][part] ?? undefined);
      for (const collection of ['columns', 'beams', 'fences'] as const)
        for (const id in parted ? old[collection] : {}) expect(project[collection][id].finishes.body).toBe(old[collection][id].finish ?? undefined);
      const model = deriveModel(project);
      expect(model.shell.rooms.size).toBe(Object.keys(old.rooms).length);
      expect(model.bodies.length).toBeGreaterThan(40);
      const kitchen = [...model.shell.rooms.values()].find((r) => r.room.name === 'Kitchen & dining')!;
      expect(kitchen.area).toBeGreaterThan(15);
    },
  );

  it('6: openings stand in their walls where they stood, and softer ground lies below', () => {
    const old = earlier<Record<string, Record<string, Record<string, unknown>>>>('heron-lock-6');
    const project = validateProject(old);
    for (const [id, { reveal, kind, form }] of Object.entries(old.openings)) {
      const { stand, frame } = project.openings[id];
      if (kind === 'window') expect(stand).toEqual(reveal === 'equal' ? { kind: 'centred' } : { kind: 'set-back', from: 'front', by: reveal });
      if (form === 'hinged') expect([stand, frame.depth]).toEqual([{ kind: 'set-back', from: 'front', by: 0 }, 'wall']);
      expect('reveal' in project.openings[id]).toBe(false);
    }
    const kinds = Object.values(project.grounds)
      .sort((a, b) => a.order - b.order)
      .map((g) => g.kind);
    const laid = ['lawn', 'gravel', 'drive', 'paving', 'bed', 'water', 'pool'];
    expect(kinds).toEqual(kinds.toSorted((a, b) => laid.indexOf(a) - laid.indexOf(b)));
    expect(new Set(Object.values(project.grounds).map((g) => g.order)).size).toBe(kinds.length);
  });

  it('7: keeps the clear sky it had', () => {
    const project = validateProject(earlier('heron-lock-7'));
    expect(project.site.sky).toBe(12);
    expect(skyType(project.site.sky).group).toBe('clear');
  });

  it('12: pieces are as their makers begin, shut, new, on the floor', () => {
    const old = earlier<Record<'pieces' | 'pictures', Record<string, object>>>('heron-lock-12');
    const project = validateProject(old);
    for (const [id, piece] of Object.entries(old.pieces)) {
      if (id in project.runs) continue;
      expect(project.pieces[id]).toEqual({
        ...piece,
        traits: {},
        mirrored: false,
        linked: null,
        open: 0,
        status: 'new',
        supply: 'to order',
        on: null,
        hangs: null,
      });
      expect(makeParts(stockItem(project.pieces[id].maker)!, project.pieces[id].size).length).toBeGreaterThan(0);
    }
  });

  it('13: what was chosen for the drawers of a work bench is that of their fronts; whether pictures are old is not known', () => {
    const old = earlier<{ pieces: Record<string, { maker: string; finishes: Record<string, string> }>; pictures: Record<string, object> }>('heron-lock-13');
    const [id] = Object.entries(old.pieces).find(([, p]) => p.maker === 'bench-table')!;
    old.pieces[id].finishes = { drawers: 'paint.sluice-white', top: 'timber.elm' };
    const project = validateProject(old);
    expect(project.pieces[id].finishes).toEqual({ fronts: 'paint.sluice-white', top: 'timber.elm' });
    for (const [name, piece] of Object.entries(project.pieces))
      expect(makeParts(stockItem(piece.maker)!, piece.size, piece.traits).length, name).toBeGreaterThan(0);
    for (const picture of Object.values(project.pictures)) {
      expect(picture.state).toBeNull();
      expect(isOld(picture, project)).toBe(false);
    }
  });

  it('15: a counter with a sink is a run of cabinets in its place, finished as it was, with all that was chosen for its parts', () => {
    const old = earlier<Record<'pieces' | 'schemes', Record<string, Record<string, unknown>>>>('heron-lock-15');
    const [counter] = Object.values(old.pieces).filter((p) => p.maker === 'counter') as unknown as Piece[];
    counter.finishes = { ...counter.finishes, fronts: 'paint.reed', tap: 'metal.chrome' };
    const standing = Object.values(old.pieces).find((p) => p.id !== counter.id)!;
    standing.on = counter.id;
    const project = validateProject(old);
    const [run] = Object.values(project.runs);
    expect([run.id, run.name, run.level, run.finishes.fronts]).toEqual([counter.id, counter.name, counter.level, 'paint.reed']);
    expect(project.pieces[String(standing.id)].on).toBeNull();
    const derived = derivedOf(deriveModel(project), 'runs').find((r) => r.id === run.id)!;
    // Its worktop covers what the counter stood on, at its height.
    const corners = footprintOf(counter, counter.size);
    const box = boxOf(derived.worktop.regions.flatMap((r) => r.outer));
    const before = boxOf(corners);
    for (const key of ['x0', 'x1', 'y0', 'y1'] as const) expect(box[key]).toBeCloseTo(before[key], 5);
    const { made } = run;
    expect(made.plinth + made.base.height + made.worktop.thickness).toBeCloseTo(counter.size.height, 9);
    expect(derived.floor.lacks.every((l) => l < 1e-6)).toBe(true);
    const sink = derived.units.find((u) => u.unit.name === 'sink')!;
    expect([sink.unit.finishes['tap body'], sink.unit.fittings.map((f) => f.maker)]).toEqual(['metal.chrome', ['sink', 'tap']]);
    // It stood in the middle.
    expect((sink.placed.stretch.from + sink.placed.stretch.to) / 2).toBeCloseTo(counter.size.width / 2, 9);
  });

  it('15: what was built into a unit was said by a word', () => {
    const kept = { ...unitsSaid('600 oven')[0], fittings: undefined, fitting: 'sink' };
    const { ends, upstand, falls, behind, corners, style, look, ...run } = newRun(
      'run-a',
      'Run',
      'ground',
      [{ kind: 'free', from: { x: 0, y: 0 }, to: { x: 2, y: 0 } }],
      'metric',
    );
    const project = validateProject({
      ...emptyProject('p', 'P'),
      version: 15,
      runs: { 'run-a': { ...run, fronts: 'boarded', handles: 'cup' } },
      cabinets: { [kept.id]: JSON.parse(JSON.stringify(kept)) },
    });
    expect(project.cabinets[kept.id].fittings.map((f) => f.maker)).toEqual(['sink', 'tap']);
    // Nothing shows at its ends that was not there.
    expect(project.runs['run-a']).toEqual({
      ...run,
      ends: 'bare',
      upstand,
      falls,
      behind,
      corners,
      style,
      look: { fronts: 'boarded', handles: 'cup', cornices: [], pelmet: 0 },
    });
    expect(look).toEqual({});
    expect(ends).toBe('panels');
  });

  it('16: runs look as they did, units hang where they hung, and schemes have no word for their looks', () => {
    const old = earlier<Record<string, Record<string, Record<string, unknown>>>>('heron-lock-16');
    const project = validateProject(old);
    for (const [id, { fronts, handles, cornices, pelmet }] of Object.entries(old.runs)) {
      expect(project.runs[id].look).toEqual({ fronts, handles, cornices, pelmet });
      expect(project.runs[id].style).toBeNull();
    }
    const hung = Object.entries(old.cabinets).filter(([, u]) => u.over !== null);
    expect(hung.length).toBeGreaterThan(0);
    for (const [id, { over }] of hung) expect(project.cabinets[id].middle).toEqual({ of: 'unit', id: over });
    for (const { choices: kept } of Object.values(project.schemes)) expect(kept?.joinery ?? {}).toEqual({});
    // A unit has no shelf fewer or more than it had.
    for (const [id, { front }] of Object.entries(old.cabinets)) expect(project.cabinets[id].front).toMatchObject(front as object);
  });

  it('17: worktops are jointed as they were counted, and units stand on their plinth', () => {
    const old = earlier<Record<string, Record<string, Record<string, unknown>>>>('heron-lock-17');
    const project = validateProject(old);
    for (const [id, run] of Object.entries(old.runs)) {
      expect(project.runs[id]).toMatchObject(run as object);
      expect(project.runs[id]).toMatchObject({ raised: 0, grooves: 'none', infill: false, slabs: { joint: 'butted', longest: 3 }, made: { stands: 'plinth' } });
    }
    expect(Object.keys(old.runs).length).toBeGreaterThan(3);
  });

  it('18: fronts lie as they did, plinths have no grilles, and every unit has a back', () => {
    const old = earlier<Record<string, Record<string, Record<string, unknown>>>>('heron-lock-18');
    const project = validateProject({ ...old, construction: CONSTRUCTIONS['in-frame'] });
    for (const [id, run] of Object.entries(old.runs)) {
      expect(project.runs[id]).toMatchObject(run as object);
      expect(project.runs[id].made).toMatchObject({ lies: 'on', vented: false });
    }
    for (const id of Object.keys(old.cabinets)) expect(project.cabinets[id].backless).toBe(false);
    expect(project.construction?.lies).toBe('inset');
    expect(Object.keys(old.cabinets).length).toBeGreaterThan(20);
  });

  it('8: keeps its viewpoints as they look, and pictures as they are shown', () => {
    const old = earlier<Record<string, Record<string, Record<string, unknown>>>>('heron-lock-8');
    const hash = 'a'.repeat(64);
    const picture = {
      id: 'p',
      name: 'P',
      viewpoint: null,
      width: 640,
      height: 400,
      samples: 8,
      exposure: 9.5,
      white: 5500,
      radiance: hash,
      scheme: null,
      image: hash,
      made: '2026-01-01',
    };
    const project = validateProject({ ...old, pictures: { p: picture } });
    expect(project.pictures.p).toEqual({
      ...picture,
      warmth: 0,
      full: null,
      contrast: 0,
      saturation: 0,
      highlights: 0,
      lights: [],
      shot: null,
      moment: null,
      noise: null,
      state: null,
    });
    // What is not known of it is not called old.
    expect(isOld(project.pictures.p, project)).toBe(false);
    for (const [id, viewpoint] of Object.entries(old.viewpoints)) expect(project.viewpoints[id]).toEqual({ ...viewpoint, aperture: null, focus: null });
  });

  it('4: a hundred logs are replayed in their own format, and every state of them is brought up with all that was chosen', () => {
    const { first, logs } = earlier<{ first: object; logs: Log[] }>('logs-4');
    expect(logs).toHaveLength(100);
    for (const { changes, states } of logs) {
      let state = first;
      changes.forEach(({ patches }, i) => {
        state = applyPatches(state, patches);
        const now = validateProject(state);
        const then = states[i];
        expect(chosen(now)).toEqual(then.choices.map(renamed).sort());
        for (const [collection, count] of Object.entries(then.count))
          expect(Object.keys(now[collection as 'walls']).length + (collection === 'pieces' ? Object.keys(now.runs).length : 0)).toBe(count);
        expect([now.contents.hidden, now.contents.held]).toEqual([then.hidden, then.locked]);
        for (const [id, lines] of then.schemes)
          expect(
            Object.entries(now.schemes[id].choices!.finishes)
              .map(([a, f]) => `${a} ${f}`)
              .sort(),
          ).toEqual(lines.map(renamed).sort());
      });
    }
  });

  it('4: is brought up in steps to the same as at once', () => {
    const { first } = earlier<{ first: object }>('logs-4');
    const five = broughtUp(first, 5) as { version: number; outline: unknown };
    expect([five.version, 'outline' in five]).toEqual([5, true]);
    expect(validateProject(five)).toEqual(validateProject(first));
  });

  it('4: a step of that format is not taken back on a project of today, and nothing of it is left', () => {
    const { first, logs } = earlier<{ first: object; logs: Log[] }>('logs-4');
    const refused = new Set<string>();
    for (const { changes } of logs) {
      let state = first;
      for (const { command, patches, inverse } of changes) {
        state = applyPatches(state, patches);
        const now = validateProject(state);
        try {
          const { project } = runChange(now, { id: 'change001', kind: 'undo', target: 'change000', command: 'history.patch', args: { patches: inverse } });
          // What both formats keep alike may be taken back: it leaves a project of today.
          expect(project).toEqual(validateProject(project));
        } catch (error) {
          expect(error).toBeInstanceOf(DomainError);
          refused.add(command);
          if ((error as DomainError).code === 'history.format') expect((error as Error).message).toBe(EARLIER_FORMAT);
        }
      }
    }
    expect([...refused]).toEqual(expect.arrayContaining(['finish.apply', 'outline.lock']));
  });

  it('has names of blanks, control characters and halves of characters made readable', () => {
    const names = ['   ', '\u200b', 'A\u0000B', '\ud83d', 'Kitchen\ud800', 'two\nlines', 'Küche 厨房 🛋'];
    const levels = Object.fromEntries(names.map((name, i) => [`l${i}`, { ...emptyProject('p', 'P').levels.ground, id: `l${i}`, name, elevation: i * 3 }]));
    const project = validateProject(kept(4, { levels }));
    expect(Object.values(project.levels).map((l) => l.name)).toEqual([
      'Unnamed',
      'Unnamed',
      'A\ufffdB',
      '\ufffd',
      'Kitchen\ufffd',
      'two lines',
      'Küche 厨房 🛋',
    ]);
  });

  it.each([1, 2, 3, 4])('%i with something broken in it is refused in a sentence, never emptied', (version) => {
    for (const broken of [
      { walls: { a: null } },
      { walls: { a: 7 } },
      { openings: null },
      { levels: [] },
      { rooms: 'none' },
      { roofs: null, levels: { a: null } },
      { site: null },
    ])
      expect(() => validateProject(kept(version, broken))).toThrow(/^The project is not valid: .*\.$/);
  });

  it('is refused where it is nested deeper than any project', () => {
    for (const version of [1, 4, 5]) {
      let deep: unknown = 'x';
      for (let i = 0; i < 50_000; i++) deep = i % 2 ? [deep] : { name: deep };
      expect(() => validateProject({ ...kept(Math.min(version, 4)), version, walls: deep })).toThrow(/^The project is not valid: /);
    }
  });

  it('throws nothing but a refusal, whatever stands in it', () => {
    const keys = Object.keys(ProjectSchema.shape);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5 }), fc.constantFrom(...keys), fc.jsonValue(), (version, key, value) => {
        try {
          validateProject({ ...kept(Math.min(version, 4)), [key]: value, ...(key === 'version' ? {} : { version }) });
        } catch (error) {
          expect(error).toBeInstanceOf(DomainError);
        }
      }),
      { numRuns: 500 },
    );
  });
});

describe('names and ids', () => {
  it('are whole characters with something to read', () => {
    for (const good of ['A', '7', '—', 'Küche', '厨房', '🛋', ' x ', 'a b', '$']) expect(Name.safeParse(good).success).toBe(true);
    for (const bad of ['', ' ', '\t', '\u00a0', '\u200b\u200d', 'a\u0000', 'a\nb', '\ud83d', 'a\udc00b', '\u0085', 'x'.repeat(121)])
      expect(Name.safeParse(bad).success).toBe(false);
    for (const good of ['', ' ', 'a\nb\tc', '🛋']) expect(Text(20).safeParse(good).success).toBe(true);
    for (const bad of ['\u0000', '\ud83d', 'a\rb']) expect(Text(20).safeParse(bad).success).toBe(false);
  });

  it('are no names that every object answers to', () => {
    for (const id of ['__proto__', 'constructor', 'toString', 'hasOwnProperty', 'valueOf']) expect(Id.safeParse(id).success).toBe(false);
    for (const id of ['wall-1', 'constructor-1', 'a.b:c_d']) expect(Id.safeParse(id).success).toBe(true);
    const project = emptyProject('p', 'P');
    for (const id of ['__proto__', 'constructor'])
      for (const [command, args] of [
        ['delete', { ids: [id] }],
        ['wall.set', { wall: id, set: { base: 1 } }],
        ['level.set', { id, set: { height: 3 } }],
      ] as const)
        expect(() => runChange(project, { id: 'change001', kind: 'do', command, args })).toThrow(DomainError);
  });

  it('of blanks are refused when they are given', () => {
    for (const name of ['', '  ', 'a\u0000', '\ud800'])
      expect(() => runChange(emptyProject('p', 'P'), { id: 'change001', kind: 'do', command: 'project.rename', args: { name } })).toThrow(
        /^Nothing was changed: .*\.$/,
      );
  });
});
