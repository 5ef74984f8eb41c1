import sharp from 'sharp';
import { expect, test } from './test';
import { readLight, type PictureLight } from '../src/core/formats/light-file';
import { only, Studio } from './studio';

test('several pictures wait in line, outlive the page, and are told old when the model changes', async ({ page }) => {
  test.setTimeout(1_200_000);
  const studio = new Studio(page);
  const ledge = page.getByTestId('ledge');
  await studio.sideBySide();
  await studio.start('Three views');
  await studio.firstRoom('4000', '3000');
  await studio.stage('Views');
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Keep this view' }).click();
  await studio.choose('Picture size', /^Own size/);
  await page.getByLabel('Width of the picture').fill('13000');
  await page.getByLabel('Width of the picture').press('Enter');
  await expect(studio.notice).toContainText('from 64 to 12000');
  for (const [label, pixels] of [
    ['Width of the picture', '400'],
    ['Height of the picture', '260'],
  ]) {
    await page.getByLabel(label).fill(pixels);
    await page.getByLabel(label).press('Enter');
  }
  await studio.choose('Picture quality', /^Client/);

  await test.step('are asked for at once', async () => {
    await page.getByRole('button', { name: 'Several', exact: true }).click();
    const dialog = page.getByRole('dialog', { name: 'Several pictures' });
    for (const name of ['View 1', 'View 2', 'View 3']) await dialog.getByRole('checkbox', { name }).check();
    await expect(dialog.getByRole('status')).toContainText('3 pictures');
    await dialog.getByRole('radio', { name: 'Hours of one day' }).check();
    await expect(dialog.getByRole('status')).toContainText('21 pictures');
    await dialog.getByRole('radio', { name: /^As it is/ }).check();
    await dialog.getByRole('button', { name: 'Make 3 pictures' }).click();
    await expect(dialog).toBeHidden();
    await expect(ledge.getByRole('tab', { name: 'Under way' })).toHaveAttribute('aria-selected', 'true');
    await expect(studio.card('View 3')).toContainText('waiting');
  });

  await test.step('change their order, are held and go on', async () => {
    await studio.card('View 3').click();
    const panel = page.getByTestId('render-panel');
    await panel.getByRole('button', { name: 'Earlier' }).click();
    await expect(studio.card('View 3')).toContainText(/1 before it|the next one|samples|scene/);
    await panel.getByRole('button', { name: 'Hold' }).click();
    await expect(panel.getByRole('status')).toContainText('held');
    await page.reload();
    await studio.ready();
    await studio.stage('Views');
    await studio.tab('Under way');
    // What was held stays held, the others are being made.
    await expect(studio.card('View 3')).toContainText('held');
    await expect.poll(async () => Object.keys((await studio.project()).pictures).length, { timeout: 480_000 }).toBe(2);
    await studio.card('View 3').click();
    await panel.getByRole('button', { name: 'Go on' }).click();
    await expect(panel).toContainText(/samples/, { timeout: 120_000 });
    await page.reload();
    await studio.ready();
    await expect.poll(async () => Object.keys((await studio.project()).pictures).length, { timeout: 480_000 }).toBe(3);
  });

  const project = await studio.project();
  const pictures = Object.values(project.pictures);
  expect(pictures.map((p) => p.name).sort()).toEqual(['View 1', 'View 2', 'View 3']);
  for (const p of pictures) {
    expect(p).toMatchObject({ width: 400, height: 260, samples: 48, moment: project.site.moment });
    expect(p.noise).toBeGreaterThan(0);
    expect(p.shot!.camera.eye).toEqual(project.viewpoints[p.viewpoint!].eye);
  }

  await test.step('say so where the model has changed since', async () => {
    await studio.stage('Views');
    await studio.tab('Pictures');
    await expect(studio.card('View 1')).not.toContainText('changed since');
    await studio.stage('Finishes');
    await studio.tab('Timber');
    await studio.card('Oak plank').click();
    await studio.press(2, 1.2);
    await expect.poll(async () => only((await studio.project()).rooms).floor).toBe('timber.oak-plank');
    await page.keyboard.press('Escape');
    await studio.stage('Views');
    await studio.tab('Pictures');
    await expect(studio.card('View 1')).toContainText('the model has changed since');
    await page.keyboard.press('Control+z');
    await expect(studio.card('View 1')).not.toContainText('changed since');
  });

  await test.step('are made again in part, which can be undone, and saved with colours and size', async () => {
    await studio.card('View 1').click();
    const kept = page.getByTestId('picture-panel');
    const canvas = kept.locator('canvas');
    await expect(canvas).toBeVisible();
    await kept.getByRole('button', { name: 'A part again' }).click();
    // The middle is offered; by the keyboard it is moved, by the pointer another is drawn.
    const offered = await kept.getByRole('status').textContent();
    await canvas.press('Shift+ArrowRight');
    await expect(kept.getByRole('status')).not.toHaveText(offered!);
    const box = (await canvas.boundingBox())!;
    await page.mouse.move(box.x + box.width * 0.4, box.y + box.height * 0.3);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width * 0.6, box.y + box.height * 0.55, { steps: 4 });
    await page.mouse.up();
    await expect(kept.getByRole('status')).toContainText(/\d+ × \d+ pixels are made again/);
    const before = Object.values((await studio.project()).pictures).find((p) => p.name === 'View 1')!;
    await kept.getByRole('button', { name: 'Make it' }).click();
    const own = async () => (await studio.project()).pictures[before.id];
    await expect.poll(async () => (await own()).radiance, { timeout: 240_000 }).not.toBe(before.radiance);
    const light = async (hash: string): Promise<PictureLight> => readLight(new Uint8Array(await (await page.request.get(`/api/assets/${hash}`)).body()));
    const [old, now] = [await light(before.radiance), await light((await own()).radiance)];
    // All else is as it was.
    let changed = 0;
    for (let k = 0; k < old.width * old.height; k++) {
      const [i, j] = [(k % old.width) / old.width, Math.floor(k / old.width) / old.height];
      if (i > 0.37 && i < 0.63 && j > 0.27 && j < 0.58) changed += Number(now.radiance[k * 3] !== old.radiance[k * 3]);
      else expect(now.radiance[k * 3]).toBe(old.radiance[k * 3]);
    }
    expect(changed).toBeGreaterThan(500);
    const panel = page.getByTestId('render-panel');
    await expect(panel).toContainText('kept with the project');
    await panel.getByRole('button', { name: 'Close' }).click();
    await page.keyboard.press('Control+z');
    await expect.poll(async () => (await own()).radiance).toBe(before.radiance);
    await studio.card('View 1').click();
    await kept.getByRole('button', { name: 'Save as' }).click();
    const download = page.waitForEvent('download');
    await page.getByRole('menuitem', { name: /^JPEG/ }).click();
    const facts = await sharp(await (await download).path()).metadata();
    expect(facts).toMatchObject({ format: 'jpeg', width: 400, height: 260, density: 300, hasProfile: true });
    await kept.getByRole('button', { name: 'Close' }).click();
  });

  await test.step('are made all round, and looked round in', async () => {
    await studio.choose('Picture size', /^All round, first look/);
    await studio.choose('Picture quality', /^Look/);
    await page.getByRole('button', { name: 'Render this view' }).click();
    await expect(page.getByTestId('render-panel')).toContainText('kept with the project', { timeout: 480_000 });
    await page.getByTestId('render-panel').getByRole('button', { name: 'Close' }).click();
    const round = Object.values((await studio.project()).pictures).find((p) => p.shot?.round)!;
    expect([round.width, round.height]).toEqual([512, 256]);
    await studio.card(round.name).click();
    const frame = page.getByTestId('picture-panel').frameLocator('iframe');
    await expect(frame.locator('body')).toHaveAttribute('data-looking', '0 0 75', { timeout: 60_000 });
    await frame.locator('canvas').press('ArrowRight');
    await frame.locator('canvas').press('ArrowUp');
    await expect(frame.locator('body')).toHaveAttribute('data-looking', '5 5 75');
    const save = page.waitForEvent('download');
    await page.getByTestId('picture-panel').getByRole('button', { name: 'Save as' }).click();
    await page.getByRole('menuitem', { name: /^Page to look round in/ }).click();
    // The page stands by itself, in any browser.
    const alone = await page.context().newPage();
    const file = test.info().outputPath('round.html');
    await (await save).saveAs(file);
    await alone.goto(`file://${file}`);
    await expect(alone.locator('body')).toHaveAttribute('data-looking', '0 0 75', { timeout: 60_000 });
    await alone.keyboard.press('ArrowLeft');
    await expect(alone.locator('body')).toHaveAttribute('data-looking', '-5 0 75');
    await alone.close();
  });
});

test('the view at rest is shown as it is really lit, and gives way at the first touch', async ({ page }) => {
  test.setTimeout(600_000);
  const studio = new Studio(page);
  await studio.start('Resting');
  await studio.withModel();
  await studio.firstRoom('4000', '3000');
  const lit = page.getByTestId('true-light');
  const shown = () => lit.evaluate((c) => (c as HTMLElement).style.opacity);
  await studio.rested();
  expect(await shown()).not.toBe('1');
  await page.getByRole('button', { name: 'True light' }).click();
  await expect.poll(shown, { timeout: 240_000 }).toBe('1');
  await expect(page.getByTestId('true-light-state')).toContainText(/first look|of 64 samples/);
  // It is a picture: neither empty nor of one colour.
  const spread = () =>
    lit.evaluate((c) => {
      const { width, height } = c as HTMLCanvasElement;
      const { data } = (c as HTMLCanvasElement).getContext('2d')!.getImageData(0, 0, width, height);
      const greens = Array.from({ length: data.length / 4 }, (_, i) => data[i * 4 + 1]);
      return Math.max(...greens.slice(0, 20000)) - Math.min(...greens.slice(0, 20000));
    });
  expect(await spread()).toBeGreaterThan(20);
  const model = (await page.getByTestId('model').boundingBox())!;
  await page.mouse.move(model.x + model.width / 2, model.y + model.height / 2);
  await page.mouse.wheel(0, 240);
  expect(await shown()).toBe('0');
  // Where it rests again, it comes again, from where one looks now.
  await expect.poll(shown, { timeout: 240_000 }).toBe('1');
  await page.getByRole('button', { name: 'True light' }).click();
  await expect.poll(shown).toBe('0');
  await expect(page.getByTestId('true-light-state')).toHaveCount(0);
  await page.reload();
  await studio.ready();
  await studio.rested();
  await page.waitForTimeout(1500);
  await expect(page.getByTestId('true-light-state')).toHaveCount(0);
});
