import { expect, test } from './test';
import { deriveModel } from '../src/core/model/derive';
import type { Project } from '../src/core/project/schema';
import { only, Studio } from './studio';

const look = (name: string, page: import('@playwright/test').Page): Promise<unknown> =>
  process.env.LOOK ? page.screenshot({ path: `${process.env.LOOK}/${name}.png` }) : Promise.resolve();

const rooms = (project: Project) => [...deriveModel(project).shell.rooms.values()];

test('starter shapes, arcs, guides, wall types, status and rooms turned about', async ({ page }) => {
  const studio = new Studio(page);
  await studio.start('Drafting');
  const tool = async (name: string, ...points: [number, number][]): Promise<void> => {
    await studio.card(name).click();
    for (const [x, y] of points) await studio.press(x, y);
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
  };

  await test.step('an L-shaped room by two presses', async () => {
    await studio.tab('Walls');
    await tool('L-shaped room', [0, 0], [5, 4]);
    const project = await studio.project();
    expect(Object.keys(project.walls)).toHaveLength(6);
    expect(rooms(project)).toHaveLength(1);
  });

  await test.step('a column in it goes with the room when that is mirrored, and comes back', async () => {
    await tool('Column', [1, 0.6]);
    const before = await studio.project();
    const column = only(before.columns);
    await studio.press(1.6, 1.2);
    await studio.docket.getByRole('button', { name: 'Mirror left–right' }).click();
    const after = await studio.project();
    const [x0, x1] = [Math.min(...Object.values(before.corners).map((c) => c.x)), Math.max(...Object.values(before.corners).map((c) => c.x))];
    expect(after.columns[column.id].x).toBeCloseTo(x0 + x1 - column.x, 2);
    expect(rooms(after)[0].area).toBeCloseTo(rooms(before)[0].area, 6);
    expect(rooms(after)[0].id).toBe(rooms(before)[0].id);
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect.poll(async () => (await studio.project()).columns[column.id].x).toBeCloseTo(column.x, 9);
    await page.keyboard.press('Escape');
  });

  await test.step('an arc through a third point closes a bay of its own', async () => {
    await studio.moveTo(2.5, 2);
    await page.mouse.wheel(0, 300);
    await tool('Arc', [0, 4], [0, 0], [-1.2, 2]);
    const project = await studio.project();
    const arc = Object.values(project.walls).find((w) => w.bulge !== 0)!;
    expect(Math.abs(arc.bulge)).toBeGreaterThan(0.2);
    expect(rooms(project)).toHaveLength(2);
    await look('drafting', page);
  });

  await test.step('walls catch on a guide line', async () => {
    await tool('Guide line', [1, -1.2], [3, -1.2]);
    expect(Object.keys((await studio.project()).guides)).toHaveLength(1);
    await studio.card('Walls in a chain').click();
    await studio.press(1, -1.26);
    await studio.moveTo(3, -1.25);
    await studio.press(3, -1.25);
    await page.keyboard.press('Enter');
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    const project = await studio.project();
    const guide = only(project.guides);
    const low = Object.values(project.corners).filter((c) => c.y < -0.8);
    expect(low).toHaveLength(2);
    for (const c of low) expect(c.y).toBeCloseTo(guide.y, 6);
  });

  await test.step('a wall type of one’s own; the face that stays is chosen', async () => {
    await studio.choose('Build-up', 'Wall types…', page.getByTestId('ledge'));
    const dialog = page.getByRole('dialog');
    await dialog.getByRole('button', { name: 'Add one like this' }).click();
    // The one added is in hand before it is renamed.
    await expect(dialog.getByLabel('Type name')).toHaveValue(/own$/);
    await dialog.getByLabel('Type name').fill('Lime and hemp');
    await dialog.getByLabel('Type name').press('Enter');
    await dialog.getByRole('button', { name: 'Done' }).click();
    // The name is taken when its field is left: it may come a moment later.
    await expect.poll(async () => Object.values((await studio.project()).wallTypes).some((t) => t.name === 'Lime and hemp')).toBe(true);
    let project = await studio.project();
    const type = Object.values(project.wallTypes).find((t) => t.name === 'Lime and hemp')!;
    await studio.press(2.5, 0);
    await studio.choose('What stays when the thickness changes', /^the face to Room/, studio.docket);
    const room = rooms(project)[0];
    await studio.choose('Build-up of this wall', 'Lime and hemp', studio.docket);
    project = await studio.project();
    expect(Object.values(project.walls).filter((w) => w.type === type.id)).toHaveLength(1);
    expect(rooms(project).find((r) => r.id === room.id)!.area).toBeCloseTo(room.area, 6);
    await page.keyboard.press('Escape');
  });

  await test.step('a wall is split, and a room is given a use, a step and its status', async () => {
    const before = await studio.project();
    await tool('Split', [2.5, 0]);
    expect(Object.keys((await studio.project()).walls)).toHaveLength(Object.keys(before.walls).length + 1);
    await studio.press(1.6, 1.2);
    await studio.choose('Use', 'workshop', studio.docket);
    await studio.set('Floor above the level', '-150');
    await studio.choose('Kind of ceiling', 'lowered all round', studio.docket);
    await studio.choose('Status', 'existing', studio.docket);
    const project = await studio.project();
    const room = Object.values(project.rooms).find((r) => r.use === 'workshop')!;
    expect(room).toMatchObject({ step: expect.closeTo(-0.15, 9), cover: { kind: 'coffer' }, status: 'existing' });
    await page.keyboard.press('Escape');
  });

  await test.step('walls are drawn in the model too', async () => {
    const before = await studio.project();
    await studio.withModel();
    await studio.choose('From', 'from above');
    await studio.rested();
    await studio.card('Walls in a chain').click();
    const pane = (await page.getByTestId('model').boundingBox())!;
    await page.mouse.click(pane.x + pane.width * 0.12, pane.y + pane.height * 0.86);
    await page.mouse.move(pane.x + pane.width * 0.3, pane.y + pane.height * 0.86, { steps: 3 });
    await page.mouse.click(pane.x + pane.width * 0.3, pane.y + pane.height * 0.86);
    await page.keyboard.press('Enter');
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    expect(Object.keys((await studio.project()).walls)).toHaveLength(Object.keys(before.walls).length + 1);
    await look('drafted', page);
  });
});
