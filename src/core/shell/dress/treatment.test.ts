import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { layOut } from '../../finishes/laying/layout';
import { finishById } from '../../finishes/library';
import { deriveModel } from '../../model/derive';
import type { FaceLaying, Laying, Patch, Project } from '../../project/schema';
import { addressOf, type Target } from '../../project/targets';
import { edit, house, wallAt } from '../../testing/drafting';
import { patchPlacing } from './dress';
import type { DressedFace } from './dressed';
import { treatmentFor } from './treatment';

const square = (): Project =>
  house([
    [0, 0],
    [4, 0],
    [4, 3],
    [0, 3],
  ]);
const room = (p: Project): string => Object.keys(p.rooms)[0];
const lay = (p: Project, target: Target, laying: FaceLaying): Project => edit(p, 'laying.put', { addresses: [addressOf(target)], laying });
const along = (p: Project, y: number): string => wallAt(p, (a, b) => a.y === y && b.y === y);

describe('a wall’s treatment for another wall', () => {
  const patch = (p: Project, id: string, shape: Patch['shape']): Patch => ({
    id,
    name: id,
    on: { kind: 'wall', room: room(p), wall: along(p, 0), side: 'left' },
    shape,
    order: 0,
    finish: 'tile.square-white',
    panels: null,
  });
  const copied = (mirrored: boolean): { [id: string]: { x0: number; x1: number; y0: number; y1: number } } => {
    let p = square();
    // The south wall is 3.7 m inside; the east one 2.7 m.
    p = edit(p, 'patch.put', {
      patches: [
        patch(p, 'full', { kind: 'rectangle', at: 2, base: 0, width: 3.7, height: 0.4 }),
        // Seen from inside, the wall's start lies at the right.
        patch(p, 'right', { kind: 'rectangle', at: 0.15 + 0.4, base: 1, width: 0.8, height: 1.5 }),
        patch(p, 'free', { kind: 'rectangle', at: 2, base: 0.8, width: 1, height: 0.3 }),
        patch(p, 'band', { kind: 'band', from: 0.5, to: 0.6 }),
      ],
    });
    p = edit(p, 'finish.apply', { targets: [{ kind: 'wall', room: room(p), wall: along(p, 0), side: 'left' }], finish: 'paint.reed' });
    const east = wallAt(p, (a, b) => a.x === 4 && b.x === 4);
    let n = 0;
    const args = treatmentFor(
      deriveModel(p),
      { kind: 'wall', room: room(p), wall: along(p, 0), side: 'left' },
      { kind: 'wall', room: room(p), wall: east, side: 'left' },
      mirrored,
      () => `new-${n++}`,
    )!;
    expect(args.finish).toBe('paint.reed');
    const after = edit(p, 'treatment.put', args);
    const face = deriveModel(after).shell.levels[0].faces.find((f) => f.side?.wall === east && f.room)!;
    expect(face.finish).toBe('paint.reed');
    return Object.fromEntries(
      face.patches.map(({ patch: own, regions }) => {
        const all = regions.flatMap((r) => r.outer);
        const [xs, ys] = [all.map((q) => q.x), all.map((q) => q.y)];
        return [own.name.replace(/ 1$/, ''), { x0: Math.min(...xs), x1: Math.max(...xs), y0: Math.min(...ys), y1: Math.max(...ys) }];
      }),
    );
  };

  it('reaches from end to end again, keeps its width at an end, and its heights', () => {
    const { full, right, band, free } = copied(false);
    expect([full.x0, full.x1, full.y1]).toEqual([expect.closeTo(0, 6), expect.closeTo(2.7, 6), expect.closeTo(0.4, 6)]);
    expect([right.x0, right.x1]).toEqual([expect.closeTo(1.9, 6), expect.closeTo(2.7, 6)]);
    expect([right.y0, right.y1]).toEqual([1, 2.5]);
    expect([band.x0, band.x1]).toEqual([expect.closeTo(0, 6), expect.closeTo(2.7, 6)]);
    expect((free.x0 + free.x1) / 2).toBeCloseTo(1.35, 6);
  });

  it('mirrored, left and right change places', () => {
    const { right } = copied(true);
    expect([right.x0, right.x1]).toEqual([expect.closeTo(0, 6), expect.closeTo(0.8, 6)]);
  });

  it('is nothing where a face is not there', () => {
    const p = square();
    const target = { kind: 'wall', room: room(p), wall: 'gone', side: 'left' } as const;
    expect(treatmentFor(deriveModel(p), target, target, false, (k) => k)).toBeNull();
  });
});

describe('joints of a treatment that is copied', () => {
  const TILE = 'tile.square-white';
  const own = finishById(TILE).laying!;
  const layings = fc
    .record({
      pattern: fc.constantFrom('stack' as const, 'running' as const),
      offset: fc.constantFrom(0.5, 1 / 3, 0.25),
      width: fc.integer({ min: 60, max: 330 }),
      height: fc.integer({ min: 50, max: 200 }),
      joint: fc.constantFrom(0.002, 0.003, 0.005),
      start: fc.constantFrom('even' as const, 'edge' as const, 'middle' as const, 'unit' as const, 'point' as const),
      x: fc.integer({ min: -200, max: 900 }),
    })
    .map(({ pattern, offset, width, height, joint, start, x }): FaceLaying => {
      const laying: Laying = { ...own, pattern, offset, width: width / 1000, height: height / 1000, joint };
      return { laying, start, origin: { x: x / 1000, y: 0.013 }, rotation: 0, scale: 1 };
    });

  /** The rectangle round every unit of a face and of its patches: left, right, lower and upper edge, metres. */
  function units(p: Project, face: DressedFace, mirrored: boolean): { of: string; box: number[] }[] {
    const v = face.side!.length;
    const of = (kind: string, laying: Laying, placing: DressedFace['placing'], regions: DressedFace['regions']): { of: string; box: number[] }[] =>
      layOut(laying, placing, regions).units.flatMap((unit) =>
        unit.parts.map((ring) => {
          const xs = ring.map((q) => (mirrored ? v - q.x : q.x));
          const ys = ring.map((q) => q.y);
          return { of: kind, box: [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)] };
        }),
      );
    // A shaving of half a millimetre is laid or not by the last digit.
    const laid = [
      ...of('wall', face.laid.laying!, face.placing, face.regions),
      ...face.patches.flatMap((patch) => {
        const { laid, placing } = patchPlacing(p, patch);
        return of(patch.patch.shape.kind, laid.laying!, placing, patch.regions);
      }),
    ];
    return laid.filter(({ box }) => Math.min(box[1] - box[0], box[3] - box[2]) > 0.00137);
  }

  /** Units that have no equal among others. */
  const alone = (a: ReturnType<typeof units>, b: ReturnType<typeof units>): ReturnType<typeof units> =>
    a.filter((u) => !b.some((w) => w.of === u.of && w.box.every((x, k) => Math.abs(x - u.box[k]) < 1e-6)));

  it('lie where they lay, or as in a mirror', () => {
    fc.assert(
      fc.property(
        fc.tuple(layings, layings, layings),
        fc.integer({ min: 600, max: 3200 }),
        fc.integer({ min: 300, max: 1500 }),
        fc.boolean(),
        ([a, b, c], at, width, mirrored) => {
          // What nearly reaches an end does so on the copy.
          fc.pre([at - width / 2 - 150, 3850 - at - width / 2].every((gap) => gap <= 0 || gap > 11));
          let p = square();
          const on = { kind: 'wall' as const, room: room(p), wall: along(p, 0), side: 'left' as const };
          const to = { ...on, wall: along(p, 3) };
          const base = { on, finish: TILE, panels: null };
          const patches: Patch[] = [
            { ...base, id: 'band', name: 'Band', order: 0, shape: { kind: 'band', from: 0.4, to: 0.7 } },
            { ...base, id: 'field', name: 'Splashback 3', order: 1, shape: { kind: 'rectangle', at: at / 1000, base: 1, width: width / 1000, height: 0.8 } },
          ];
          p = edit(p, 'patch.put', { patches });
          p = edit(p, 'finish.apply', { targets: [on], finish: TILE });
          p = lay(p, on, a);
          p = lay(p, { kind: 'patch', patch: 'band', part: 'field' }, b);
          p = lay(p, { kind: 'patch', patch: 'field', part: 'field' }, c);
          let n = 0;
          const args = treatmentFor(deriveModel(p), on, to, mirrored, () => `new-${n++}`)!;
          const after = edit(p, 'treatment.put', args);
          const faces = deriveModel(after).shell.levels[0].faces.filter((f) => f.patches.length);
          expect(faces).toHaveLength(2);
          const [source, copy] = [on, to].map((t) => faces.find((f) => f.side!.wall === t.wall)!);
          const [had, has] = [units(after, source, mirrored), units(after, copy, false)];
          expect(has).toHaveLength(had.length);
          expect(alone(had, has)).toEqual([]);
          expect(copy.patches.map((q) => q.patch.name).sort()).toEqual(['Band 1', 'Splashback 1']);
        },
      ),
      { numRuns: 60, seed: Number(process.env.FC_SEED ?? 15) },
    );
  });

  it('carried on round the corner are carried on again', () => {
    let p = square();
    const walls = [wallAt(p, (a, b) => a.x === 0 && b.x === 0), along(p, 3), wallAt(p, (a, b) => a.x === 4 && b.x === 4)];
    const on = (wall: string) => ({ kind: 'wall' as const, room: room(p), wall, side: 'left' as const });
    const carried: FaceLaying = {
      laying: { ...own, pattern: 'stack', width: 0.23, height: 0.1 },
      start: 'carried',
      origin: { x: 0, y: 0 },
      rotation: 0,
      scale: 1,
    };
    p = edit(p, 'patch.put', {
      patches: [{ id: 'a', name: 'Band', on: on(walls[0]), order: 0, finish: TILE, panels: null, shape: { kind: 'band', from: 0.4, to: 0.7 } }],
    });
    p = lay(p, { kind: 'patch', patch: 'a', part: 'field' }, carried);
    for (const [k, mirrored] of [
      [1, false],
      [2, true],
    ] as const)
      p = edit(
        p,
        'treatment.put',
        treatmentFor(deriveModel(p), on(walls[0]), on(walls[k]), mirrored, () => `b${k}`)!,
      );
    const faces = deriveModel(p).shell.levels[0].faces.filter((f) => f.patches.length);
    expect(faces).toHaveLength(3);
    for (const face of faces) {
      const { placing } = patchPlacing(p, face.patches[0]);
      // A joint lies where the walls before it have used up whole modules.
      const into = (placing.origin.x + face.carried) / (0.23 + own.joint);
      expect(into - Math.round(into)).toBeCloseTo(-own.joint / 2 / (0.23 + own.joint), 6);
    }
  });
});
