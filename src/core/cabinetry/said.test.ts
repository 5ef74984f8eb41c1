import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { unitsSaid } from '../testing/cabinets';
import { INCH } from '../units/length';
import { completed, completions, readLine, unitKinds, type SaidUnit } from './said';

const read = (line: string, system: 'metric' | 'imperial' = 'metric'): SaidUnit[] => {
  const said = readLine(line, system);
  if (!said.ok) throw new Error(said.message);
  return said.units;
};

describe('a run that is said', () => {
  it('is read in the words of the trade, with hands, counts and what belongs in a unit', () => {
    const units = read('600 drawers, 800 sink, 600 oven, 450 door left, 500 drawerline, 600 highline');
    expect(units.map((u) => [u.word, u.width, u.fittings.map((f) => f.maker).join(' ') || null])).toEqual([
      ['drawers', 0.6, null],
      ['sink', 0.8, 'sink tap'],
      ['oven', 0.6, 'oven'],
      ['door', 0.45, null],
      ['drawerline', 0.5, null],
      ['door', 0.6, null],
    ]);
    expect(units[0].front.map((r) => r.cells[0].kind)).toEqual(['drawer', 'pan drawer', 'pan drawer']);
    expect(units[3].front[0].cells[0].hand).toBe('left');
    expect(units[4].front.map((r) => r.cells[0].kind)).toEqual(['drawer', 'door']);
  });

  it('takes other spellings, repeats, usual widths and what is left', () => {
    expect(read('2 x 400 drawers; 45 cm door right').map((u) => u.width)).toEqual([0.4, 0.4, 0.45]);
    expect(read('400 door left-hung, 400 door rh').map((u) => u.front[0].cells[0].hand)).toEqual(['left', 'right']);
    expect(read('500 drawers with 4 drawers')[0].front).toHaveLength(4);
    expect(read('dishwasher, rest door pair, filler').map((u) => [u.width, u.bare])).toEqual([
      [0.6, null],
      [null, null],
      [0.05, 'filler'],
    ]);
    expect(read('600 wall glazed, 900 wall corner, 600 wall').map((u) => [u.band, u.corner])).toEqual([
      ['wall', false],
      ['wall', true],
      ['wall', false],
    ]);
    expect(read('600 tall oven, fridge, 300 larder left').every((u) => u.band === 'tall')).toBe(true);
    expect(read(' , ,')).toEqual([]);
  });

  it('reads inches, feet and fractions', () => {
    expect(read(`36 sink, 1'6" drawers, 15 3/4" door`, 'imperial').map((u) => u.width! / INCH)).toEqual([
      expect.closeTo(36, 6) as number,
      expect.closeTo(18, 6) as number,
      expect.closeTo(15.75, 6) as number,
    ]);
    expect(read('oven', 'imperial')[0].width! / INCH).toBeCloseTo(30, 6);
  });

  it('says in one sentence what it did not understand, and where', () => {
    const line = '600 drawers, 800 snk, 600 oven';
    const said = readLine(line, 'metric');
    expect(said).toMatchObject({ ok: false, message: '“800 snk” names no unit; say what it is, as in “600 drawers” or “450 door left”.' });
    if (!said.ok) expect(line.slice(said.from, said.to)).toBe('800 snk');
    expect(readLine('drawers', 'metric')).toMatchObject({ ok: false, message: expect.stringContaining('has no width') as string });
    expect(readLine('600 drawers upside', 'metric')).toMatchObject({ ok: false, message: '“upside” in “600 drawers upside” was not understood.' });
    expect(readLine('600 drawers 9', 'metric')).toMatchObject({ ok: false, message: '“600 drawers 9” can’t be made; a unit has 1 to 8 drawers or shelves.' });
    expect(readLine('0 x 600 drawers', 'metric').ok).toBe(false);
    expect(readLine('60 m door', 'metric')).toMatchObject({ ok: false, message: expect.stringContaining('up to 4 m') as string });
  });

  it('knows fridges behind two doors, halved or not, and housings with nothing behind their doors', () => {
    const [seventy, fifty, boiler, service] = unitsSaid('600 fridge 70/30, 600 fridge 50/50, 500 boiler housing, 400 service housing');
    expect([seventy, fifty].map((u) => [u.band, u.front.map((r) => r.height), u.fittings.length])).toEqual([
      ['tall', [null, 0.715], 1],
      ['tall', [null, null], 1],
    ]);
    expect([boiler.band, service.band]).toEqual(['wall', 'tall']);
    expect(boiler.front[0].cells[0].inside[0].fields[0].kind).toBe('nothing');
    expect(unitsSaid('600 door')[0].name).toBe('door');
  });

  it('is completed while it is typed', () => {
    expect(completions('600 dr')).toEqual(['dryer', 'drawer', 'drawers', 'drawerline', 'drawer pack', 'drawer over door']);
    expect(completions('600 drawers, 800 si')).toEqual(['sink', 'sink under', 'sink with drainer']);
    expect(completions('450 door l')).toEqual(['door left']);
    expect(completions('600 drawers, ')).toContain('sink');
    expect(completions('600 wall ')).toContain('wall left');
    expect(completions('600 wall gl')).toEqual(['wall glazed']);
  });

  it('is offered what is begun, wherever one stops typing, and reads as if it had been typed whole', () => {
    const words = ['drawers', 'highline', 'wall glazed', 'drawer over door', 'pull-out', 'corner', 'larder'];
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...words), { minLength: 1, maxLength: 4 }), fc.nat(), (list, n) => {
        const said = list.map((word) => `600 ${word}`).join(', ');
        const last = list.at(-1)!;
        // At least one letter of the last word, and one letter short of all of it.
        const typed = said.slice(0, said.length - 1 - (n % (last.length - 1)));
        expect(completions(typed)).toContain(last);
        expect(completed(typed, last)).toBe(said);
        expect(read(completed(typed, last))).toEqual(read(said));
      }),
    );
    expect(completed('600 drawers, 800', 'sink')).toBe('600 drawers, 800 sink');
    expect(completed('', 'sink')).toBe(' sink');
  });

  it('has every kind in its usual width, said as it is read', () => {
    for (const system of ['metric', 'imperial'] as const)
      for (const { word, band, said } of unitKinds(system)) {
        const [unit, more] = read(said, system);
        expect([unit.word, unit.band, more]).toEqual([word, band, undefined]);
        expect(unit.width).toBeGreaterThan(0.04);
      }
  });
});
