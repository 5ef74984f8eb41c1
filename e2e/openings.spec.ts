import { findings } from '../src/core/checks/findings';
import { deriveModel } from '../src/core/model/derive';
import { expect, test } from './test';
import { wallRidge } from '../src/core/project/wall-line';
import { only, Studio } from './studio';

/** Pictures to look at while working on it: LOOK=folder npx playwright test e2e/openings.spec.ts */
const look = (name: string, page: import('@playwright/test').Page): Promise<unknown> =>
  process.env.LOOK ? page.screenshot({ path: `${process.env.LOOK}/${name}.png` }) : Promise.resolve();

test('what a storey has besides plain doors and windows, and sizes typed over outside', async ({ page }) => {
  const studio = new Studio(page);
  await studio.start('Openings');

  await test.step('draws a house and types over its overall width; the east wall gives way', async () => {
    await studio.tab('Walls');
    await studio.firstRoom('6000', '4000');
    const before = [...deriveModel(await studio.project()).shell.rooms.values()][0];
    expect(before.size.x).toBeCloseTo(6, 6);
    const field = page.getByLabel('Overall width', { exact: true });
    const outside = 6 + 2 * (before.sides[0] ? 0.3 : 0);
    await expect(field).toHaveValue(String(Math.round(outside * 1000)));
    await field.fill('7200');
    await field.press('Enter');
    const after = [...deriveModel(await studio.project()).shell.rooms.values()][0];
    expect(after.size.x).toBeCloseTo(6.6, 6);
    expect(after.sides.map((s) => Math.min(s.from.x, s.to.x)).sort((a, b) => a - b)[0]).toBeCloseTo(
      before.sides.map((s) => Math.min(s.from.x, s.to.x)).sort((a, b) => a - b)[0],
      6,
    );
  });

  const outline = async (): Promise<{ x0: number; x1: number; y0: number; y1: number }> => {
    const [room] = deriveModel(await studio.project()).shell.rooms.values();
    const xs = room.region.outer.map((p) => p.x);
    const ys = room.region.outer.map((p) => p.y);
    return { x0: Math.min(...xs), x1: Math.max(...xs), y0: Math.min(...ys), y1: Math.max(...ys) };
  };
  const o = await outline();

  await test.step('sets a window round a corner and makes its other side longer', async () => {
    await studio.tab('Doors and windows');
    await studio.card('Corner window').click();
    await studio.press(o.x1 - 0.6, o.y0 - 0.15);
    let project = await studio.project();
    const window = only(project.openings);
    expect(window).toMatchObject({ form: 'corner', kind: 'window' });
    await studio.set('Other side', '1500');
    project = await studio.project();
    expect(project.openings[window.id].depth).toBeCloseTo(1.5, 9);
    const derived = deriveModel(project).shell.openings.get(window.id)!;
    expect(derived.glazing).toHaveLength(2);
    const sides = [...deriveModel(project).shell.walls.values()].filter((w) => w.sides.some((s) => s.openings.includes(window.id)));
    expect(sides).toHaveLength(2);
    await look('corner', page);
    await page.keyboard.press('Escape');
  });

  await test.step('refuses one where there is no corner for it', async () => {
    const other = await studio.project();
    await studio.card('Corner window').click();
    await studio.press(o.x1 + 0.15, o.y1 - 1.4);
    // The north-east corner is free: it is taken there; a second one on the same corner is not.
    const project = await studio.project();
    expect(Object.keys(project.openings)).toHaveLength(Object.keys(other.openings).length + 1);
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect.poll(async () => Object.keys((await studio.project()).openings).length).toBe(1);
  });

  await test.step('puts a rooflight into the ceiling, drags it, and refuses it in a wall', async () => {
    await studio.card('Rooflight').click();
    await studio.press((o.x0 + o.x1) / 2 - 1, (o.y0 + o.y1) / 2);
    let project = await studio.project();
    const light = only(project.rooflights);
    await studio.set('Width', '1200');
    await studio.choose('Form', 'dome');
    const room = [...deriveModel(project).shell.rooms.values()][0];
    project = await studio.project();
    const ceiling = deriveModel(project).shell.levels[0].parts.find((p) => p.part.key === `${room.id}/ceiling`)!.part;
    expect(ceiling.mesh.indices.length).toBeGreaterThan(6);
    expect(project.rooflights[light.id]).toMatchObject({ form: 'dome', width: expect.closeTo(1.2, 9) });
    await page.keyboard.press('Escape');
    await studio.drag([light.x, light.y + 0.6], [light.x + 1, light.y + 0.6]);
    project = await studio.project();
    expect(project.rooflights[light.id].x).toBeCloseTo(light.x + 1, 1);
    await studio.drag([light.x + 1, light.y + 0.6], [light.x + 1, o.y1 + 0.4]);
    await expect(studio.notice).toContainText('reach out of');
    await page.keyboard.press('Escape');
    await look('rooflight', page);
  });

  await test.step('makes a gable of a wall and centres a round window under its ridge', async () => {
    await studio.tab('Walls');
    await studio.press(o.x0 - 0.15, (o.y0 + o.y1) / 2);
    await studio.choose('How high it goes', 'a rake with a ridge');
    await studio.set('Height of the ridge', '4400');
    let project = await studio.project();
    const gable = Object.values(project.walls).find((w) => w.top.kind === 'raking')!;
    expect(wallRidge(gable, project.levels.ground)).toBeCloseTo(0.5, 9);
    await page.keyboard.press('Escape');
    await studio.tab('Doors and windows');
    await studio.card('Fixed light').click();
    await studio.press(o.x0 - 0.15, o.y0 + 0.9);
    await studio.choose('Outline', 'round');
    await studio.set('Width', '700');
    await studio.set('Height', '700');
    await studio.set('Sill', '2900');
    await expect(studio.notice).toContainText('above the wall');
    await studio.choose('Placed', 'centred under the ridge', studio.docket);
    await studio.set('Sill', '2900');
    project = await studio.project();
    const round = Object.values(project.openings).find((w) => w.shape.kind === 'ellipse')!;
    expect(round).toMatchObject({ place: { kind: 'ridge' }, sill: expect.closeTo(2.9, 9) });
    const length = 4 + 0.3;
    expect(round.at).toBeCloseTo(length / 2, 1);
    await page.getByRole('button', { name: 'Elevation', exact: true }).click();
    await expect(page.getByTestId('elevation')).toBeVisible();
    await look('gable', page);
    await page.getByRole('button', { name: 'Plan', exact: true }).click();
    await page.keyboard.press('Escape');
    await look('house', page);
  });
});

test('a door passes the checks as it comes, stands where it is wanted in its wall, and is scheduled with a way that has no leaf', async ({ page }) => {
  const studio = new Studio(page);
  await studio.start('Standing in the wall');
  await studio.card('Room by corners').click();
  await studio.press(0.15, 0.15);
  await studio.moveTo(4, 3);
  await studio.type('5000');
  await page.keyboard.press('Tab');
  await studio.type('4000');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  const stands = async () => [...deriveModel(await studio.project()).shell.openings.values()].find((o) => o.opening.kind === 'door')!.stands;
  await test.step('a door as it comes is wide enough', async () => {
    await studio.tab('Doors and windows');
    await studio.card('Door').click();
    await studio.press(2.5, 0);
    const project = await studio.project();
    expect(findings(deriveModel(project)).filter((f) => f.ids.includes(only(project.openings).id) && f.code === 'door.narrow')).toEqual([]);
    await page.keyboard.press('Escape');
  });
  await test.step('its leaf stands flush, centred, and by a typed reveal, named by room', async () => {
    await studio.choose('Where it stands in the wall', 'centred', studio.docket);
    const { reveals } = await stands();
    expect(reveals.left).toBeCloseTo(reveals.right, 9);
    await studio.choose('Where it stands in the wall', 'flush with Room 1', studio.docket);
    const flush = await stands();
    expect(Math.min(flush.reveals.left, flush.reveals.right)).toBeCloseTo(0, 9);
    await studio.set('Reveal at Outside', '60');
    const typed = await stands();
    expect(Math.min(typed.reveals.left, typed.reveals.right)).toBeCloseTo(0.06, 9);
    await studio.set('Reveal at Room 1', '4000');
    await expect(studio.notice).toContainText(/the reveal goes up to 2 m/);
    expect(await stands()).toEqual(typed);
  });
  await test.step('a way without a leaf is in the schedule', async () => {
    await studio.card('Pass-through').click();
    await studio.press(0, 2);
    await page.keyboard.press('Escape');
    await studio.stage('Schedules');
    await page
      .getByRole('tab', { name: /^Openings|^Doors/ })
      .first()
      .click();
    await expect(page.getByRole('table').first()).toContainText('Door 1');
    await expect(page.getByRole('table').first()).toContainText('Pass-through 1');
  });
});
