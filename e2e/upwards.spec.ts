import { expect, test, type Page } from './test';
import { stairHeadroom } from '../src/core/model/headroom';
import { deriveModel } from '../src/core/model/derive';
import { only, Studio } from './studio';

const look = async (name: string, page: Page): Promise<void> => {
  if (!process.env.LOOK) return;
  await page.waitForTimeout(2500);
  await page.screenshot({ path: `${process.env.LOOK}/${name}.png` });
};

test('a house is built upwards: a level, a stair with its void, a slab, beams, a framed roof with a dormer, the ground', async ({ page }) => {
  const studio = new Studio(page);
  await studio.start('Upwards');
  const nav = page.getByRole('navigation', { name: 'Level and rooms' });
  await test.step('draws a room by typed sizes and adds a level above it', async () => {
    await studio.firstRoom('8000', '6000');
    await page.keyboard.press('Escape');
    await nav.getByRole('button', { name: 'Ground' }).click();
    await studio.choose('New levels with', 'all walls', studio.docket);
    await studio.docket.getByRole('button', { name: 'Add above' }).click();
    await expect.poll(async () => Object.keys((await studio.project()).levels).length).toBe(2);
    await page.keyboard.press('Escape');
  });
  await test.step('draws a stair that turns on winders, by the rules, with the void it needs', async () => {
    await nav.getByRole('button', { name: 'Ground' }).click();
    await page.keyboard.press('Escape');
    await studio.tab('Stairs and floors');
    await studio.card('Quarter, winders').click();
    await studio.press(3.4, 1);
    await studio.press(3.4, 2);
    await expect(studio.docket).toContainText('Headroom');
    let project = await studio.project();
    const stair = only(project.stairs);
    expect(stair.rotation).toBeCloseTo(0, 6);
    const model = deriveModel(project);
    const { layout } = model.shell.levels[0].stairs[0];
    const headroom = stairHeadroom(model, stair.id);
    expect(layout.sizes.breaches).toEqual([]);
    expect(headroom === null || headroom >= 2).toBe(true);
    await look('stair', page);
    // A fixed number of risers that breaks a rule is said, and taken back.
    await studio.set('Risers', '9');
    await expect(studio.docket.getByRole('note', { name: 'Rules' })).toContainText('add a riser');
    await studio.set('Risers', '');
    await expect(studio.docket.getByRole('note', { name: 'Rules' })).toHaveCount(0);
    await studio.choose('Left side', 'panes of glass', studio.docket);
    project = await studio.project();
    expect(only(project.stairs).left?.infill).toBe('glass');
    expect(only(project.stairs).risers).toBeNull();
    await page.keyboard.press('Escape');
  });
  await test.step('goes up: the void is in the floor, and a guard round it', async () => {
    await nav
      .getByRole('button', { name: /^Upper|^Level|^First/ })
      .first()
      .click();
    await page.keyboard.press('Escape');
    const model = deriveModel(await studio.project());
    const [ground, upper] = model.shell.levels;
    expect(ground.rooms[0].area - upper.rooms[0].area).toBeGreaterThan(1.5);
    expect(upper.parts.filter(({ part }) => part.sort === 'guard').length).toBeGreaterThan(0);
    await look('void', page);
  });
  await test.step('sets a rectangular void by typed sizes, and refuses one that crosses itself', async () => {
    await studio.choose('Outlines', 'as rectangles', page.getByTestId('ledge'));
    await studio.card('Void').click();
    await studio.press(5, 3);
    await studio.moveTo(6, 4);
    await studio.type('1200');
    await page.keyboard.press('Tab');
    await studio.type('1500');
    await page.keyboard.press('Enter');
    await expect.poll(async () => Object.keys((await studio.project()).voids).length).toBe(1);
    const own = only((await studio.project()).voids);
    expect(deriveModel(await studio.project()).shell.levels[1].voids[0].area).toBeCloseTo(1.8, 6);
    expect(own.guard?.infill).toBe('balusters');
    await studio.docket.getByText('Its 4 corners').click();
    await studio.set('1, up', '9000');
    await expect(studio.notice).toContainText('crosses itself');
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect.poll(async () => Object.keys((await studio.project()).voids).length).toBe(0);
    await page.keyboard.press('Escape');
  });
  await test.step('puts a gable roof with framing and a dormer on top', async () => {
    await studio.tab('Roofs');
    await studio.card('Roof, with gables').click();
    await studio.docket.getByLabel('Framing', { exact: true }).click();
    await expect(studio.docket).toContainText('Rafters');
    await studio.choose('Ties', 'trusses', studio.docket);
    await studio.card('Gabled dormer').click();
    await expect(studio.docket).toContainText('Front, high');
    await studio.set('Front, high', '5000');
    await expect(studio.notice).toContainText('Dormer 1 was not set');
    await studio.set('Width', '1600');
    const project = await studio.project();
    expect(only(project.dormers).width).toBeCloseTo(1.6, 9);
    const [, upper] = deriveModel(project).shell.levels;
    expect(upper.roofs[0].framing!.members.some((m) => m.kind === 'king post')).toBe(true);
    await page.keyboard.press('Escape');
    await studio.withModel();
    await page.getByRole('button', { name: 'Whole', exact: true }).click();
    await page.getByRole('button', { name: 'Stand back' }).click();
    await look('dormer', page);
  });
  await test.step('sets a post and a deck, and areas outside', async () => {
    await nav.getByRole('button', { name: 'Ground' }).click();
    await page.keyboard.press('Escape');
    await studio.tab('Stairs and floors');
    await studio.card('Post').click();
    await studio.press(4, 3);
    await expect.poll(async () => Object.keys((await studio.project()).beams).length).toBe(1);
    await studio.set('To, high', '2200');
    await page.keyboard.press('Escape');
    await studio.card('Beam').click();
    await studio.press(3, 3);
    await studio.moveTo(5, 3);
    await studio.type('2400');
    await page.keyboard.press('Enter');
    await expect.poll(async () => Object.keys((await studio.project()).beams).length).toBe(2);
    await page.keyboard.press('Escape');
    await studio.tab('Outside');
    await studio.card('Lawn').click();
    await studio.press(0, -1.2);
    await studio.press(6, -0.6);
    const project = await studio.project();
    expect(only(project.grounds).kind).toBe('lawn');
    const beams = Object.values(project.beams);
    expect(beams.map((b) => Math.hypot(b.b.x - b.a.x, b.b.y - b.a.y, b.b.z - b.a.z).toFixed(3)).sort()).toEqual(['2.200', '2.400']);
    await page.keyboard.press('Escape');
  });
  await test.step('lists it all, and undoes the last of it', async () => {
    await studio.stage('Schedules');
    await page.getByRole('tab', { name: 'Stairs', exact: true }).click();
    await expect(page.getByRole('table', { name: 'Stair schedule' })).toContainText('quarter');
    await page.getByRole('tab', { name: 'Timber' }).click();
    await expect(page.getByRole('table', { name: 'Timber schedule' })).toContainText('rafter');
    await studio.stage('Shell');
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect.poll(async () => Object.keys((await studio.project()).grounds).length).toBe(0);
  });
});

test('the model is looked at in every way, and the contents find, rename, hide, hold and group', async ({ page }) => {
  test.setTimeout(600_000);
  const studio = new Studio(page);
  await studio.open('heron-lock-cottage');
  await studio.withModel();
  const copy = async (): Promise<Buffer> => page.getByTestId('model').screenshot();
  await test.step('projections, a section, lines, see-through: each another picture', async () => {
    const pictures = [await copy()];
    const differs = async (): Promise<void> => {
      await studio.rested();
      const next = await copy();
      expect(pictures.some((p) => p.equals(next))).toBe(false);
      pictures.push(next);
    };
    await studio.choose('From', 'face-on from the south');
    await differs();
    await page.getByRole('button', { name: 'Shown' }).click();
    const panel = page.getByRole('dialog', { name: 'What is shown' });
    await studio.choose('Section', 'across, south to north', panel);
    await differs();
    await panel.getByLabel('Section at').fill('1500');
    await page.keyboard.press('Enter');
    await differs();
    await look('section', page);
    await studio.choose('Surfaces', 'as lines', panel);
    await differs();
    await studio.choose('Surfaces', 'as a white model', panel);
    await studio.choose('Roofs', 'see-through', panel);
    await differs();
    await panel.getByRole('button', { name: 'Close' }).click();
  });
  await test.step('a viewpoint remembers how the model was shown', async () => {
    await studio.stage('Views');
    await page.getByRole('button', { name: 'Keep this view' }).click();
    const view = Object.values((await studio.project()).viewpoints).find((v) => v.name.startsWith('View'))!;
    expect(view.look).toMatchObject({ projection: 'parallel', mode: 'white', section: { axis: 'y', at: 1.5 }, through: expect.arrayContaining(['all/roof']) });
    await page
      .getByTestId('ledge')
      .getByRole('button', { name: /^Kitchen from/ })
      .click();
    await page.getByRole('button', { name: 'Shown' }).click();
    await page.getByRole('button', { name: 'All as at first' }).click();
    await page.getByRole('button', { name: 'Close', exact: true }).click();
    await page
      .getByTestId('ledge')
      .getByRole('button', { name: new RegExp(`^${view.name}`) })
      .click();
    await page.getByRole('button', { name: 'Shown' }).click();
    await expect(page.getByRole('dialog', { name: 'What is shown' })).toContainText('as a white model');
    await page.getByRole('button', { name: 'All as at first' }).click();
    await page.getByRole('button', { name: 'Close', exact: true }).click();
  });
  await test.step('walks from the kitchen through its door, and not through the wall', async () => {
    await studio.stage('Shell');
    await studio.room('Hall').click();
    await page.getByRole('button', { name: 'Walk', exact: true }).click();
    await expect(page.getByText('Arrow keys walk and turn')).toBeVisible();
    const before = await copy();
    // A key that is held tells so again and again.
    const ahead = async (): Promise<boolean> => {
      await page.keyboard.down('ArrowUp');
      return !(await copy()).equals(before);
    };
    await expect.poll(ahead, { timeout: 60_000 }).toBe(true);
    await page.keyboard.up('ArrowUp');
    await look('walk', page);
    await page.keyboard.press('Escape');
    await expect(page.getByText('Arrow keys walk and turn')).toHaveCount(0);
    // However coarsely it was drawn on the way, at rest each pixel of the screen is.
    await studio.rested();
    const [drawn, shown] = await page
      .getByTestId('model')
      .locator('canvas')
      .evaluate((c: HTMLCanvasElement) => [c.width, c.clientWidth * devicePixelRatio]);
    expect(Math.abs(drawn - shown)).toBeLessThanOrEqual(1);
    await studio.room('Whole level').click();
    await studio.drawingOnly();
  });
  await test.step('finds the stair in the contents, renames, hides, holds it', async () => {
    await page.getByRole('button', { name: 'Contents', exact: true }).click();
    const contents = page.getByRole('complementary', { name: 'Contents of the project' });
    await contents.getByLabel('Find a thing').fill('deck');
    await expect(contents.getByRole('button', { name: /^Deck steps/ })).toBeVisible();
    await expect(contents.getByRole('button', { name: /^Bedroom/ })).toHaveCount(0);
    await contents.getByRole('button', { name: /^Deck slab/ }).dblclick();
    await contents.getByLabel('New name of Deck').fill('Sun deck');
    await page.keyboard.press('Enter');
    await expect.poll(async () => (await studio.project()).slabs.deck.name).toBe('Sun deck');
    await contents.getByRole('button', { name: 'Hide Sun deck' }).click();
    await expect.poll(async () => (await studio.project()).contents.hidden).toEqual(['deck']);
    await expect(page.getByTestId('plan').locator('[data-entity="deck"]')).toHaveCount(0);
    await contents.getByRole('button', { name: 'Hide Sun deck' }).click();
    await contents.getByRole('button', { name: 'Hold Sun deck' }).click();
    await contents.getByRole('button', { name: /^Sun deck slab/ }).click();
    await studio.docket.getByRole('button', { name: 'Delete' }).click();
    await expect(studio.notice).toContainText('held');
    await contents.getByRole('button', { name: 'Group', exact: true }).click();
    await expect.poll(async () => Object.values((await studio.project()).contents.groups).map((g) => g.members)).toEqual([['deck']]);
    await look('contents', page);
    // Left as it was found, for the tests that come after.
    for (let i = 0; i < 6; i++) await page.getByRole('button', { name: /^Undo/ }).click();
    await expect.poll(async () => Object.keys((await studio.project()).contents.groups).length).toBe(0);
  });
});
