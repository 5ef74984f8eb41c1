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
    await expect(page.getByRole('option', { name: 'sink' })).toBeVisible();
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
    await studio.docket.getByRole('button', { name: 'To the left' }).click();
    expect((await studio.project()).cabinets[sink.unit.id].order).toBe(0);
    for (let i = 0; i < 2; i++) await page.getByRole('button', { name: 'Undo' }).click();
    expect((await studio.project()).cabinets).toEqual(project.cabinets);
    await studio.choose('Fronts', 'boarded', studio.docket);
    expect(only((await studio.project()).runs).fronts).toBe('boarded');
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
  await studio.card('Drawers').click();
  await studio.moveTo(3.9, 0.35);
  await expect(studio.line).toContainText('3400 left');
  expect(await said()).toEqual([]);
  await studio.press(3.9, 0.35);
  await expect(studio.docket).toContainText('Drawers');
  await studio.card('Sink').click();
  await studio.press(3.2, 0.35);
  // In hand still: another one, between the two.
  await studio.press(3.45, 0.35);
  expect(await said()).toEqual(['drawers', 'sink', 'sink']);
  await page.getByRole('button', { name: 'Undo' }).click();
  expect(await said()).toEqual(['drawers', 'sink']);
  await studio.card('Corner').click();
  await studio.press(2.0, 0.35);
  const turned = await studio.project();
  expect(only(turned.runs).legs).toHaveLength(2);
  // By the keyboard it goes to the end.
  await studio.card('Oven').focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  expect(await said()).toEqual(['drawers', 'sink', 'corner', 'oven']);
  await page.keyboard.press('Escape');
  expect(Object.keys((await studio.project()).runs)).toHaveLength(1);
});
