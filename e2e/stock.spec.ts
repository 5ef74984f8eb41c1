import { expect, test } from './test';
import { Studio } from './studio';

test('a piece is chosen by its traits: the plan, the model and the file follow, it is undone, and it stays', async ({ page }) => {
  const studio = new Studio(page);
  await studio.start('A room to sit in');
  await studio.withModel();
  await studio.firstRoom('5200', '4800');
  await studio.stage('Fit-out');
  await studio.tab('Seating');
  await studio.card('Chaise sofa').click();
  await studio.press(2.5, 2.5);
  await page.keyboard.press('Escape');
  const traits = async () => Object.values((await studio.project()).pieces)[0].traits;
  await expect.poll(traits).toEqual({ chaise: 'right', base: 'block feet' });
  const shown = () => page.getByTestId('model').locator('canvas').getAttribute('data-drawn');
  const before = await shown();
  await studio.choose('Chaise', 'left', studio.docket);
  await expect.poll(async () => (await traits()).chaise).toBe('left');
  // What is not possible gets a sentence, and nothing changes.
  const depth = studio.docket.getByRole('textbox', { name: 'Depth beside the chaise' });
  await depth.fill('5000');
  await depth.press('Enter');
  await expect(page.getByText('Chaise sofa was not changed: its depth beside the chaise goes from 780 to 1100.')).toBeVisible();
  await depth.fill('1000');
  await depth.press('Enter');
  await expect.poll(async () => (await traits()).seat).toBe(1);
  await studio.choose('Chaise', 'none', studio.docket);
  await expect.poll(async () => (await traits()).chaise).toBe('none');
  await expect.poll(shown).not.toBe(before);
  await page.getByRole('button', { name: 'Undo' }).first().click();
  await expect.poll(async () => (await traits()).chaise).toBe('left');
  // A table of another shape stands beside it, and both are there after a reload.
  await studio.tab('Tables');
  await studio.card('Round table').click();
  await studio.press(4, 1.2);
  await page.keyboard.press('Escape');
  await expect.poll(async () => Object.keys((await studio.project()).pieces).length).toBe(2);
  await page.reload();
  await page.locator('main[aria-busy="false"]').waitFor();
  const kept = Object.values((await studio.project()).pieces);
  expect(kept.map((p) => [p.maker, p.traits.chaise ?? p.traits.top])).toEqual([
    ['sofa', 'left'],
    ['table', 'round'],
  ]);
});

test('a vase is put on a chest, goes with it by keyboard and pointer, and the chest opens, is bought and goes', async ({ page }) => {
  const studio = new Studio(page);
  await studio.start('A room with a chest');
  await studio.firstRoom('5200', '4800');
  await studio.stage('Fit-out');
  await studio.tab('Storage');
  await studio.card('Chest of drawers').click();
  await studio.press(2.5, 2.5);
  await studio.tab('Books & things');
  await studio.card('Tall vase').click();
  await studio.press(2.5, 2.5);
  await page.keyboard.press('Escape');
  const by = async (maker: string) => Object.values((await studio.project()).pieces).find((p) => p.maker === maker)!;
  await expect.poll(async () => (await by('vase')).on).toBe((await by('chest')).id);
  expect((await by('vase')).elevation).toBeCloseTo((await by('chest')).size.height, 3);
  await expect(studio.docket.getByText('Chest of drawers')).toBeVisible();
  // The chest is moved by arrow keys, and the vase with it.
  await studio.press(2.25, 2.42);
  await expect(studio.docket.getByRole('textbox', { name: 'Open, %' })).toBeVisible();
  const from = [await by('chest'), await by('vase')];
  await page.getByTestId('plan').focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowUp');
  await expect.poll(async () => (await by('chest')).x).toBeGreaterThan(from[0].x);
  const to = [await by('chest'), await by('vase')];
  expect(to[1].x - to[0].x).toBeCloseTo(from[1].x - from[0].x, 6);
  expect(to[1].y - to[0].y).toBeCloseTo(from[1].y - from[0].y, 6);
  // Its drawers are drawn out, and what becomes of it is said.
  const open = studio.docket.getByRole('textbox', { name: 'Open, %' });
  await open.fill('60');
  await open.press('Enter');
  await expect.poll(async () => (await by('chest')).open).toBe(0.6);
  await studio.choose('Supply', 'ordered', studio.docket);
  await expect.poll(async () => (await by('chest')).supply).toBe('ordered');
  await studio.choose('Status', 'to be removed', studio.docket);
  await expect.poll(async () => (await by('chest')).status).toBe('removed');
  await expect(studio.docket.getByText('Supply')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).first().click();
  // Deleted it leaves the vase where it was.
  await page.keyboard.press('Delete');
  await expect.poll(async () => Object.keys((await studio.project()).pieces).length).toBe(1);
  expect(await by('vase')).toMatchObject({ on: null, elevation: to[1].elevation });
  await page.getByRole('button', { name: 'Undo' }).first().click();
  await expect.poll(async () => Object.keys((await studio.project()).pieces).length).toBe(2);
  await page.reload();
  await page.locator('main[aria-busy="false"]').waitFor();
  expect(await by('chest')).toMatchObject({ open: 0.6, supply: 'ordered', status: 'new' });
  expect((await by('vase')).on).toBe((await by('chest')).id);
});
