import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '../demo/heron-lock';
import { runChange, validateProject } from './commands';
import { DomainError } from './errors';
import { emptyProject, FORMAT_VERSION, Id, Name, ProjectSchema, Text } from './schema';

/** What a version did not have yet. */
const WITHOUT: Record<number, string[]> = {
  4: [],
  3: ['finishes', 'layings', 'patches', 'mouldings', 'profiles', 'schemes', 'scheme', 'dislikes', 'money'],
};
WITHOUT[2] = [...WITHOUT[3], 'dormers', 'stairs', 'voids', 'slabs', 'beams', 'grounds', 'fences', 'outline'];
WITHOUT[1] = [...WITHOUT[2], 'wallTypes', 'guides', 'columns', 'rooflights', 'roofs'];

/** A bare project as a version kept it. */
const kept = (version: number, over: object = {}): object => ({
  ...Object.fromEntries(Object.entries(emptyProject('p', 'P')).filter(([key]) => !WITHOUT[version].includes(key))),
  version,
  ...over,
});

describe('a project of any earlier version', () => {
  it.each([1, 2, 3, 4])('%i is brought up to date, and stays as it is then', (version) => {
    const project = validateProject(kept(version));
    expect(project.version).toBe(FORMAT_VERSION);
    expect(validateProject(project)).toEqual(project);
  });

  it('keeps all it held', () => {
    const house = heronLockCottage();
    expect(validateProject({ ...house, version: 4 })).toEqual(house);
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
