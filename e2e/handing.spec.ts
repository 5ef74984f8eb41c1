import { readFile } from 'node:fs/promises';
import { expect, left, test } from './test';
import { zipSync, strToU8 } from 'fflate';
import sharp from 'sharp';
import { contentHash, projectJson } from '../src/core/formats/project-file/project-file';
import { picturedProject } from '../src/core/formats/project-file/testing';
import { Studio } from './studio';

test('long work shows how far it has come, leaves the designer alone and can be cancelled', async ({ page }) => {
  const studio = new Studio(page);
  await studio.open('heron-lock-cottage');
  await page.getByRole('button', { name: 'Hand over' }).click();
  await page.getByRole('menuitem', { name: 'Model as GLB' }).click();
  const errands = page.getByRole('list', { name: 'Work under way' });
  await expect(errands.getByRole('progressbar', { name: 'Model as GLB' })).toBeVisible();
  // Meanwhile an edit is kept at once.
  const kept = page.waitForResponse((r) => r.url().includes('/changes') && r.request().method() === 'POST');
  await page.getByRole('button', { name: 'Units: metric' }).click();
  expect((await kept).status()).toBe(200);
  await page.getByRole('button', { name: 'Cancel Model as GLB' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(errands).toBeHidden();
  await expect(studio.notice).toBeHidden();
  // By the keyboard alone, to the end.
  const download = page.waitForEvent('download', { timeout: 120_000 });
  await page.getByRole('button', { name: 'Hand over' }).focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  const file = await download;
  expect(file.suggestedFilename()).toMatch(/^Heron Lock Cottage, \d{4}-\d{2}-\d{2}\.enstegon$/);
  expect((await readFile(await file.path())).subarray(0, 2).toString()).toBe('PK');
});

test('files that are no project are refused in a sentence, and large ones are opened whole', async ({ page }) => {
  await page.goto('/');
  const open = (name: string, bytes: Uint8Array): Promise<void> =>
    page.getByTestId('import').setInputFiles({ name, mimeType: 'application/zip', buffer: Buffer.from(bytes) });
  const status = page.getByRole('main').getByRole('status');
  await open('none.enstegon', strToU8('no zip at all'));
  await expect(status).toContainText('Open a project file: The file was not opened: it is not a project file');
  const noise = new Uint8Array(
    await sharp({ create: { width: 2200, height: 2200, channels: 3, noise: { type: 'gaussian', mean: 128, sigma: 90 } } } as never)
      .png({ compressionLevel: 0 })
      .toBuffer(),
  );
  const hash = contentHash(noise);
  expect(noise.length).toBeGreaterThan(14e6);
  const cut = noise.subarray(0, 60);
  await open('cut.enstegon', zipSync({ 'project.json': strToU8(projectJson(picturedProject('Cut', contentHash(cut)))), [`assets/${contentHash(cut)}`]: cut }));
  await expect(status).toContainText('The picture was not kept: its file is damaged or ends too early.');
  await open(
    'large.enstegon',
    zipSync({ 'project.json': strToU8(projectJson(picturedProject('Large one', hash))), [`assets/${hash}`]: [noise, { level: 0 }] }),
  );
  await expect(page.getByRole('article', { name: 'Large one' })).toBeVisible({ timeout: 60_000 });
  expect(contentHash(new Uint8Array(await (await page.request.get(`/api/assets/${hash}`)).body()))).toBe(hash);
});

test('what was deleted can be put back from the page of projects', async ({ page }) => {
  const studio = new Studio(page);
  await studio.start('Deleted house');
  await page.goto('/');
  const card = page.getByRole('article', { name: 'Deleted house' });
  await card.getByRole('button', { name: 'More for Deleted house' }).click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(card).toBeHidden();
  // After a reload the notice is gone, the project is not.
  await page.reload();
  await page.getByText(/deleted projects?$/).click();
  const row = page.getByRole('list', { name: 'Deleted projects' }).getByRole('listitem').filter({ hasText: 'Deleted house' });
  await expect(row).toContainText(/can be put back until \d+ \w+ 20\d\d/);
  await row.getByRole('button', { name: 'Put Deleted house back' }).click();
  await expect(card).toBeVisible();
  await expect(row).toBeHidden();
});

test('an edit the server refuses is set aside alone, survives a reload and can be tried again', async ({ page }) => {
  const studio = new Studio(page);
  await studio.start('Aside house');
  await page.route('**/changes', async (route) => {
    const body = route.request().method() === 'POST' ? (route.request().postDataJSON() as { changes: { id: string; command: string }[] }) : null;
    const culprit = body?.changes.find((c) => c.command === 'project.units');
    if (culprit) await route.fulfill({ status: 422, json: { code: 'x', message: 'Nothing was changed: not today.', change: culprit.id } });
    else await route.continue();
  });
  await page.getByRole('button', { name: 'Units: metric' }).click();
  await studio.card('Room by corners').click();
  await studio.press(0, 0);
  await studio.press(3, 3);
  const aside = page.getByTestId('asides');
  await expect(aside).toContainText('One edit is set aside; everything else is kept');
  await expect(aside).toContainText('Change units. Nothing was changed: not today.');
  await expect(page.getByRole('button', { name: 'Units: metric' })).toBeVisible();
  await expect.poll(async () => Object.keys((await studio.project()).walls).length).toBe(4);
  await page.reload();
  await studio.ready();
  await page.unroute('**/changes');
  await aside.getByRole('button', { name: 'Try again' }).click();
  await expect(aside).toBeHidden();
  await expect.poll(async () => (await studio.project()).units).toBe('imperial');
});

test('two windows of one browser that are offline at once keep the edits of both', async ({ browser }) => {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const one = new Studio(await context.newPage());
  await left(one.page);
  await one.start('Two offline');
  const two = new Studio(await context.newPage());
  await left(two.page);
  await two.open(one.id);
  await context.route('**/changes*', (route) => route.abort());
  await one.page.bringToFront();
  await one.card('Room by corners').click();
  await one.press(0, 0);
  await one.press(3, 3);
  await expect(one.page.getByTestId('kept')).toContainText('offline');
  await two.page.bringToFront();
  await two.page.getByRole('button', { name: 'Units: metric' }).click();
  await expect(two.page.getByTestId('kept')).toContainText('offline');
  const { id } = one;
  await one.page.close();
  await two.page.close();
  await context.unroute('**/changes*');
  const again = new Studio(await context.newPage());
  await left(again.page);
  await again.open(id);
  await expect.poll(async () => [Object.keys((await again.project()).walls).length, (await again.project()).units]).toEqual([4, 'imperial']);
  await context.close();
});
