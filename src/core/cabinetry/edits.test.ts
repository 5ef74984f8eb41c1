import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { boolean, totalArea } from '../geometry/polygon';
import { distance } from '../geometry/vec';
import { deriveModel } from '../model/derive';
import { bodyOf, derivedOf } from '../model/model';
import { runChange, validateProject } from '../project/commands';
import { DomainError } from '../project/errors';
import { kitOfStyle } from '../project/joinery';
import type { Project } from '../project/schema';
import { CORNERS, SLAB_JOINTS, type Cabinet } from '../project/schema/cabinets';
import { unitsSaid } from '../testing/cabinets';
import { change, edit, house } from '../testing/drafting';
import { loadKernel, openEdges } from '../testing/solid';
import { newRun } from './begin';
import { upToCeiling } from './ceiling';
import type { DerivedRun } from './derive';
import { stretchOn } from './run';
import { legAlong, legsAround } from './sides';
import { STYLES } from './styles';
import { alignedBelow, edgeDragged, mirroredAbout, offersOn, replacedBy, resized, unitDragged, withoutUnit } from './widths';

beforeAll(loadKernel);

/** A room of four walls, none of them square to another, with a run along two of them. */
function kitchenIn(jitter: readonly number[], corner: (typeof CORNERS)[number]): Project {
  const [a, b, c, d] = jitter;
  const room = house([
    [0, 0],
    [5 + a, b],
    [5 + c, 4.2 + d],
    [0 - b, 4 + a],
  ]);
  const [level] = Object.keys(room.levels);
  const [inside] = Object.keys(room.rooms);
  const south = Object.values(room.walls).find((w) => Math.abs(room.corners[w.start].y) < 1 && Math.abs(room.corners[w.end].y) < 1)!;
  const own = newRun('run-a', 'Kitchen', level, [legAlong({ wall: south.id, side: 'left', room: inside })], 'metric');
  const units = unitsSaid('600 drawers, 800 sink, 600 door, 1100 corner, 600 hob, 500 drawerline, 600 wall, 800 wall').map((u) =>
    u.corner ? { ...u, corner } : u,
  );
  return edit(room, 'run.lay', { run: { ...own, legs: legsAround(own, units, deriveModel(room).shell) }, units });
}

const derive = (p: Project): DerivedRun => derivedOf(deriveModel(p), 'runs')[0];

type Edit = [kind: number, which: number, amount: number];
const KINDS = ['drawers', 'pans', 'sink', 'hob', 'open', 'larder', 'dishwasher', 'oven'] as const;

/** The project after an edit that is drawn by lot; null where it is refused, with a sentence. */
function edited(p: Project, [kind, which, amount]: Edit, step: number): ReturnType<typeof change> | null {
  const run = derive(p);
  const all = run.units.map((u) => u.unit).sort((a, b) => a.order - b.order);
  if (!all.length) return null;
  const unit = all[which % all.length];
  const own = run.units.find((u) => u.unit.id === unit.id)!;
  let count = 0;
  const newId = (): string => `new-${step}-${count++}`;
  const lay = (units: Cabinet[] | string) => (typeof units === 'string' ? null : change(p, 'run.lay', { run: run.run, units }));
  const { stretch } = own.placed;
  try {
    switch (kind) {
      case 0:
        return lay(resized(run.run, all, run.legs, unit.id, 0.15 + amount, amount > 0.5 ? 'shift' : 'beside', 'right', 'metric'));
      case 1: {
        const next = replacedBy(unit, KINDS[which % KINDS.length], 'metric');
        return typeof next === 'string' ? null : change(p, 'unit.put', next);
      }
      case 2:
        return lay(withoutUnit(all, unit.id, amount > 0.5, own.placed.width));
      case 3:
        return lay(mirroredAbout(run, all, unit.id, amount > 0.5 ? 'left' : 'right', newId));
      case 4:
        return lay(alignedBelow(run, all));
      case 5:
        return lay(unitDragged(run, all, unit.id, amount * 4));
      case 6:
        return lay(edgeDragged(run, all, unit.id, amount > 0.5 ? 'left' : 'right', stretch.from + amount * (stretch.to - stretch.from), 'metric', false));
      case 7: {
        const offers = offersOn(run, all, which % run.legs.length, 'metric', newId);
        return offers.length ? lay(offers[which % offers.length].units) : null;
      }
      case 8:
        return lay(upToCeiling(run, all));
      case 9:
        return change(p, 'style.give', { kit: kitOfStyle(p, STYLES[which % STYLES.length]), runs: ['run-a'] });
      case 10:
        return change(p, 'run.put', {
          ...run.run,
          slabs: { joint: SLAB_JOINTS[which % 3], longest: 1 + amount * 3 },
          infill: amount > 0.5,
          upstand: amount / 10,
        });
      case 11:
        return unit.corner ? change(p, 'unit.put', { ...unit, corner: CORNERS[which % CORNERS.length] }) : null;
      default:
        return change(p, 'unit.put', { ...unit, depth: 0.3 + amount * 0.35, height: null });
    }
  } catch (error) {
    if (error instanceof DomainError) return null;
    throw error;
  }
}

describe('edits of a run in a room without a right angle', () => {
  const edits = fc.array(fc.tuple(fc.integer({ min: 0, max: 12 }), fc.nat(40), fc.double({ min: 0, max: 1, noNaN: true })), { minLength: 6, maxLength: 14 });
  const jitter = fc.array(fc.double({ min: -0.6, max: 0.6, noNaN: true }), { minLength: 4, maxLength: 4 }).map((all) => all.map((v) => v + 0));

  it('leave a valid project, are undone to the identical one, and what is related stays so', () => {
    fc.assert(
      fc.property(jitter, fc.constantFrom(...CORNERS), edits, (shape, corner, list) => {
        let p = kitchenIn(shape, corner);
        const steps: { before: Project; inverse: ReturnType<typeof change>['inverse'] }[] = [];
        list.forEach((one, step) => {
          const done = edited(p, one, step);
          if (!done) return;
          steps.push({ before: p, inverse: done.inverse });
          p = done.project;
          expect(validateProject(JSON.parse(JSON.stringify(p)))).toEqual(p);
          const run = derive(p);
          const place = new Map(run.units.map((u) => [u.unit.id, u.placed]));
          for (const u of Object.values(p.cabinets)) {
            if (u.like !== null) expect(u.width).toBe(p.cabinets[u.like].width);
            const below = u.middle?.of === 'unit' ? place.get(u.middle.id) : undefined;
            const above = place.get(u.id)!;
            if (!below || below.leg !== above.leg) continue;
            const middle = ({ stretch: { from, to } }: typeof above): number => (from + to) / 2;
            expect(middle(above)).toBeCloseTo(middle(below), 9);
          }
        });
        for (const { before, inverse } of steps.reverse()) {
          const back = runChange(p, { id: 'undo-this', kind: 'undo', target: 'x', command: 'history.patch', args: { patches: inverse } });
          expect(back.project).toEqual(before);
          p = before;
        }
      }),
      { numRuns: 40 },
    );
  });

  it('stand no unit in another, fill every leg to the last, and leave every part closed', () => {
    fc.assert(
      fc.property(jitter, fc.constantFrom(...CORNERS), edits, (shape, corner, list) => {
        const p = list.reduce((now, one, step) => edited(now, one, step)?.project ?? now, kitchenIn(shape, corner));
        const run = derive(p);
        for (const [laid, hung] of [
          [run.floor, false],
          [run.hung, true],
        ] as const) {
          if (laid.lacks.some((l) => l > 1e-9)) continue;
          const row = run.units.filter((u) => (u.unit.band === 'wall') === hung);
          run.legs.forEach((leg, i) => {
            const taken = row.flatMap((u) => stretchOn(u.placed, run.legs, i) ?? []).reduce((sum, s) => sum + s.to - s.from, 0);
            const left = laid.gaps.filter((g) => g.leg === i).reduce((sum, g) => sum + g.to - g.from, 0);
            // What hangs leaves room for what is tall, as far as it goes round corners.
            const turns = row.filter((u) => u.placed.corner).length;
            const tall = hung && i <= turns ? run.units.filter((u) => u.unit.band === 'tall').flatMap((u) => stretchOn(u.placed, run.legs, i) ?? []) : [];
            const apart = tall.reduce((sum, s) => sum + s.to - s.from, 0);
            if (row.length) expect(taken + left + apart).toBeCloseTo(distance(leg.from, leg.to), 9);
          });
          row.forEach((a, i) =>
            row.slice(i + 1).forEach((b) => {
              if (a.unit.bare === 'space' || b.unit.bare === 'space') return;
              const both = boolean('intersection', [{ outer: a.placed.footprint, holes: [] }], [{ outer: b.placed.footprint, holes: [] }]);
              expect([a.unit.name, b.unit.name, totalArea(both) < 1e-5]).toEqual([a.unit.name, b.unit.name, true]);
            }),
          );
        }
        const model = deriveModel(p);
        for (const id of ['run-a', ...Object.keys(p.cabinets)])
          for (const part of bodyOf(model, id)?.parts ?? []) expect([id, part.name, openEdges(part.mesh)]).toEqual([id, part.name, 0]);
      }),
      { numRuns: 40 },
    );
  });
});
