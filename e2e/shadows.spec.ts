import { Studio } from './studio';
import { expect, test } from './test';

test('shade comes where things meet, is kept away when it is not wanted, and that is remembered', async ({ page }) => {
  test.setTimeout(240_000);
  const studio = new Studio(page);
  await studio.start('Shadows');
  await studio.withModel();
  await studio.firstRoom('3000', '2400');
  await studio.stage('Fit-out');
  await page.getByTestId('ledge').getByRole('textbox').first().fill('Wardrobe');
  await studio.card('Wardrobe, 1600').click();
  await studio.press(1.6, 1.2);
  await page.keyboard.press('Escape');
  await studio.rested();
  const canvas = page.getByTestId('model').locator('canvas').first();
  /** What the view shows, as luminance. */
  const seen = (): Promise<number[]> =>
    canvas.evaluate((c) => {
      const copy = document.createElement('canvas');
      [copy.width, copy.height] = [160, 120];
      const context = copy.getContext('2d')!;
      context.drawImage(c as HTMLCanvasElement, 0, 0, 160, 120);
      const { data } = context.getImageData(0, 0, 160, 120);
      return Array.from({ length: 160 * 120 }, (_, i) => 0.2126 * data[i * 4] + 0.7152 * data[i * 4 + 1] + 0.0722 * data[i * 4 + 2]);
    });
  const without = await seen();
  const say = async (which: RegExp): Promise<void> => {
    await page.getByRole('button', { name: 'Shown' }).click();
    await studio.choose('Shadows', which, page.getByRole('dialog', { name: 'What is shown' }));
    await page.keyboard.press('Escape');
    await studio.rested();
  };
  await say(/^of all lights/);
  const shaded = await seen();
  // Corners and what stands on the floor are darker; nothing is brighter but for edges that are drawn anew, and most stays as it was.
  const darker = (on: readonly number[], off: readonly number[]): void => {
    const change = on.map((v, i) => v - off[i]);
    expect(change.filter((d) => d < -4).length).toBeGreaterThan(60);
    expect(change.filter((d) => d > 4).length).toBeLessThan(40);
    expect(change.filter((d) => Math.abs(d) < 2).length).toBeGreaterThan(change.length / 2);
  };
  darker(shaded, without);
  // The eye stands elsewhere after a reload; the shade is there.
  await page.reload();
  await studio.ready();
  await studio.rested();
  const again = await seen();
  await say(/^of the sun alone/);
  darker(again, await seen());
});
