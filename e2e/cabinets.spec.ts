import { derivedOf } from '../src/core/model/model';
import { deriveModel } from '../src/core/model/derive';
import { expect, test } from './test';
import { only, Studio } from './studio';

test('a run of cabinets is said along a wall, goes round a corner, and is changed unit by unit', async ({ page }) => {
  const studio = new Studio(page);
  await studio.start('A kitchen');
  await studio.firstRoom('4000', '3000');
  await page.keyboard.press('Escape');

  await test.step('begins on the face of a wall and follows what is typed', async () => {
    await studio.press(2, 0.1);
    await studio.docket.getByRole('button', { name: 'Cabinets along it' }).click();
    await expect(studio.docket).toContainText('Run of cabinets');
    const line = studio.docket.getByLabel('Units, from the left');
    await line.click();
    await page.keyboard.type('600 drawers, 800 si');
    // It is shown before it is taken, and what is typed is completed.
    await expect(page.getByRole('option', { name: 'sink', exact: true })).toBeVisible();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await expect(line).toHaveValue('600 drawers, 800 sink');
    await expect(page.getByTestId('plan').locator('text', { hasText: /^2$/ }).first()).toBeAttached();
    expect((await studio.project()).cabinets).toEqual({});
    await page.keyboard.type(', 600 nonsense');
    await expect(studio.docket).toContainText('“600 nonsense” names no unit');
    for (let i = 0; i < 'nonsense'.length; i++) await page.keyboard.press('Backspace');
    await page.keyboard.type('door left, 600 wall glazed');
    await page.keyboard.press('Escape');
    await page.keyboard.press('Enter');
    const project = await studio.project();
    const units = Object.values(project.cabinets).sort((a, b) => a.order - b.order);
    expect(units.map((u) => [u.name, u.width, u.band])).toEqual([
      ['drawers', 0.6, 'base'],
      ['sink', 0.8, 'base'],
      ['door', 0.6, 'base'],
      ['wall glazed', 0.6, 'wall'],
    ]);
    await expect(studio.docket).toContainText('2000 left');
  });

  await test.step('goes round the corner of the room', async () => {
    // A corner unit takes it there; a word that is not whole yet hides nothing of what stands before it.
    const line = studio.docket.getByLabel('Units, from the left');
    await line.fill('600 drawers, 800 sink, rest door, 900 corner, 600 oven, 600 wall gl');
    await expect(page.getByTestId('plan').locator('text', { hasText: /^5$/ }).first()).toBeAttached();
    await line.pressSequentially('azed');
    await line.press('Enter');
    const project = await studio.project();
    const run = only(project.runs);
    expect(run.legs).toHaveLength(2);
    await studio.docket.getByRole('button', { name: 'Round the right corner' }).click();
    expect(only((await studio.project()).runs).legs).toHaveLength(3);
    await page.getByRole('button', { name: 'Undo' }).click();
    expect(only((await studio.project()).runs).legs).toEqual(run.legs);
    const [derived] = derivedOf(deriveModel(project), 'runs');
    expect(derived.floor.lacks).toEqual([0, 0]);
    expect(derived.floor.gaps.filter((g) => g.leg === 0)).toEqual([]);
    expect(derived.worktop.regions).toHaveLength(1);
  });

  await test.step('a unit is pressed in the plan, moved, changed and taken back', async () => {
    const project = await studio.project();
    const [derived] = derivedOf(deriveModel(project), 'runs');
    const sink = derived.units.find((u) => u.unit.name === 'sink')!;
    const middle = sink.placed.footprint.reduce((sum, p) => ({ x: sum.x + p.x / 4, y: sum.y + p.y / 4 }), { x: 0, y: 0 });
    await page.keyboard.press('Escape');
    await studio.press(middle.x, middle.y);
    await expect(studio.docket).toContainText('Sink');
    await studio.set('Width', '900');
    expect((await studio.project()).cabinets[sink.unit.id].width).toBe(0.9);
    await studio.unfold('Place in its run');
    await studio.docket.getByRole('button', { name: 'To the left' }).click();
    expect((await studio.project()).cabinets[sink.unit.id].order).toBe(0);
    for (let i = 0; i < 2; i++) await page.getByRole('button', { name: 'Undo' }).click();
    expect((await studio.project()).cabinets).toEqual(project.cabinets);
    await studio.unfold('Joinery style');
    await studio.choose('Fronts', 'boarded', studio.docket);
    expect(only((await studio.project()).runs).look.fronts).toBe('boarded');
  });

  await test.step('is there after a reload, and goes with its wall', async () => {
    const before = await studio.project();
    await page.reload();
    await studio.ready();
    expect((await studio.project()).cabinets).toEqual(before.cabinets);
    await studio.press(2, 0.02);
    await expect(studio.docket).toContainText('Wall');
    await studio.docket.getByRole('button', { name: 'Delete' }).click();
    const gone = await studio.project();
    expect([gone.runs, gone.cabinets]).toEqual([{}, {}]);
    await page.getByRole('button', { name: 'Undo' }).click();
    expect((await studio.project()).cabinets).toEqual(before.cabinets);
  });
});

test('units are put down before a wall one after another, by pointer and by keyboard', async ({ page }) => {
  const studio = new Studio(page);
  await studio.start('Another kitchen');
  await studio.firstRoom('4000', '3000');
  await page.keyboard.press('Escape');
  const said = async (): Promise<string[]> =>
    Object.values((await studio.project()).cabinets)
      .sort((a, b) => a.order - b.order)
      .map((u) => u.name);

  await studio.stage('Fit-out');
  await studio.tab('Cabinets');
  await studio.card('Drawers,').click();
  await studio.moveTo(3.9, 0.35);
  await expect(studio.line).toContainText('3400 left');
  expect(await said()).toEqual([]);
  await studio.press(3.9, 0.35);
  await expect(studio.docket).toContainText('Drawers');
  await studio.card('Sink,').click();
  await studio.press(3.2, 0.35);
  // In hand still: another one, between the two.
  await studio.press(3.45, 0.35);
  expect(await said()).toEqual(['drawers', 'sink', 'sink']);
  await page.getByRole('button', { name: 'Undo' }).click();
  expect(await said()).toEqual(['drawers', 'sink']);
  await studio.card('Corner,').click();
  await studio.press(2.0, 0.35);
  const turned = await studio.project();
  expect(only(turned.runs).legs).toHaveLength(2);
  // By the keyboard it goes to the end.
  await studio.card('Oven,').focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  expect(await said()).toEqual(['drawers', 'sink', 'corner', 'oven']);
  await page.keyboard.press('Escape');
  expect(Object.keys((await studio.project()).runs)).toHaveLength(1);
});

test('a kitchen with an island is laid out in few presses, its fridge and its oven are exchanged, and it is there after a reload', async ({ page }) => {
  test.setTimeout(240_000);
  const studio = new Studio(page);
  let presses = 0;
  const counted = async (act: () => Promise<unknown>): Promise<void> => {
    presses++;
    await act();
  };
  await studio.start('A whole kitchen');
  await studio.firstRoom('4200', '5000');
  await page.keyboard.press('Escape');

  await test.step('one line says an L with all that is built in', async () => {
    await counted(() => studio.press(2, 0.1));
    await counted(() => studio.docket.getByRole('button', { name: 'Cabinets along it' }).click());
    const line = studio.docket.getByLabel('Units, from the left');
    await counted(() =>
      line.fill(
        '600 fridge, 500 drawers, 900 sink, rest door, corner, 600 dishwasher, 900 hob, 600 tall oven, 400 door, 600 wall, wall corner, 900 canopy hood',
      ),
    );
    await counted(() => line.press('Escape'));
    await counted(() => line.press('Enter'));
    const project = await studio.project();
    const [run] = derivedOf(deriveModel(project), 'runs');
    expect(run.floor.lacks).toEqual([0, 0]);
    expect(Object.values(project.cabinets).flatMap((u) => u.fittings.map((f) => f.maker))).toEqual(
      expect.arrayContaining(['fridge', 'sink', 'tap', 'dishwasher', 'hob', 'oven', 'hood']),
    );
    // The sink and the hob are let into the worktop.
    expect(run.worktop.regions.flatMap((r) => r.holes).length).toBeGreaterThanOrEqual(2);
  });

  await test.step('cornice, pelmet and upstand run along it', async () => {
    await counted(() => studio.docket.getByRole('button', { name: 'Ends and edges' }).click());
    await studio.choose('Cornice', 'Cove', studio.docket);
    presses += 2;
    await studio.set('Height of the pelmet', '40');
    await studio.set('Upstand', '100');
    presses += 4;
    const own = only((await studio.project()).runs);
    expect([own.look.cornices?.map((c) => c.profile), own.look.pelmet, own.upstand]).toEqual([['cornice-cove'], 0.04, 0.1]);
    await page.getByRole('button', { name: 'Undo' }).click();
    expect(only((await studio.project()).runs).upstand).toBe(0);
    await page.getByRole('button', { name: 'Redo' }).click();
  });
  await test.step('an island stands free in the room, its fronts to the run, and grows by a press beside it', async () => {
    await page.keyboard.press('Escape');
    await counted(() => studio.stage('Fit-out'));
    await counted(() => studio.tab('Cabinets'));
    await counted(() => studio.card('Pans,').click());
    await counted(() => studio.press(2.4, 3.4));
    await counted(() => studio.card('Wine cooler,').click());
    // Its fronts look to the leg along the west wall: beside it is north or south of it.
    await counted(() => studio.press(2.4, 2.85));
    await page.keyboard.press('Escape');
    const island = Object.values((await studio.project()).runs).find((r) => r.legs[0].kind === 'free')!;
    expect(island.name).toBe('Island 1');
    const [derived] = derivedOf(deriveModel(await studio.project()), 'runs').filter((r) => r.id === island.id);
    expect(derived.units.map((u) => u.unit.name).sort()).toEqual(['pans', 'wine cooler']);
    // Panels stand at its ends and behind it.
    expect(derived.trim.panels).toHaveLength(4);
    const before = await studio.project();
    await studio.press(2.4, 3.4);
    await studio.set('Turned, degrees', '30');
    const turned = Object.values((await studio.project()).runs).find((r) => r.id === island.id)!.legs[0];
    if (turned.kind !== 'free') throw new Error('It stands free.');
    expect(Math.atan2(turned.to.y - turned.from.y, turned.to.x - turned.from.x)).toBeCloseTo(Math.PI / 6, 5);
    await page.getByRole('button', { name: 'Undo' }).click();
    expect(await studio.project()).toEqual(before);
    await page.keyboard.press('Escape');
  });
  expect(presses).toBeLessThan(60);

  await test.step('the oven is exchanged for a double one, whose housing follows; a fridge too wide is refused in one sentence', async () => {
    const derived = () => studio.project().then((p) => derivedOf(deriveModel(p), 'runs').find((r) => r.legs.length > 1)!);
    const middle = async (name: string): Promise<[number, number]> => {
      const { footprint } = (await derived()).units.find((u) => u.unit.name === name)!.placed;
      return [footprint.reduce((s, p) => s + p.x / 4, 0), footprint.reduce((s, p) => s + p.y / 4, 0)];
    };
    await page.keyboard.press('Escape');
    await studio.press(...(await middle('tall oven')));
    const oven = studio.docket.getByLabel('Oven', { exact: true });
    await oven.fill('Oven, dou');
    await page.getByRole('option', { name: 'Oven, double' }).click();
    const own = Object.values((await studio.project()).cabinets).find((u) => u.name === 'tall oven')!;
    expect([own.fittings[0].traits.form, own.front[1].height]).toEqual(['double', 0.891]);
    await page.keyboard.press('Escape');
    await studio.press(...(await middle('fridge')));
    const before = await studio.project();
    const fridge = studio.docket.getByLabel('Fridge', { exact: true });
    await fridge.fill('two doors');
    await page.getByRole('option', { name: 'Fridge with two doors' }).click();
    // The door that shares what is left gives way, as far as it goes.
    const after = await studio.project();
    const exchanged = Object.values(after.cabinets).find((u) => u.name === 'fridge')!;
    expect([exchanged.width, exchanged.fittings[0].traits.form]).toEqual([0.913, 'side by side']);
    expect((await derived()).floor.lacks.every((l) => l < 1e-6)).toBe(true);
    await page.getByRole('button', { name: 'Undo' }).click();
    expect((await studio.project()).cabinets).toEqual(before.cabinets);
  });

  await test.step('it is all there after a reload', async () => {
    const before = await studio.project();
    await page.reload();
    await studio.ready();
    expect((await studio.project()).cabinets).toEqual(before.cabinets);
  });
});
