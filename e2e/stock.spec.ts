import { expect, test } from './test';
import { Studio } from './studio';

test('a piece is chosen by its traits: the plan, the model and the file follow, it is undone, and it stays', async ({ page }) => {
  const studio = new Studio(page);
  await studio.start('A room to sit in');
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
  const depth = studio.docket.getByRole('textbox', { name: 'Seat depth' });
  await depth.fill('5000');
  await depth.press('Enter');
  await expect(page.getByText('Chaise sofa was not changed: its seat depth goes from 780 to 1100.')).toBeVisible();
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
