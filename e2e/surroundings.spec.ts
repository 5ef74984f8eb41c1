import sharp from 'sharp';
import { expect, test } from './test';
import { Studio } from './studio';

/** A photo of a hill under a sky, with a bright sun on the left. */
const photo = (width: number, height: number): Promise<Buffer> =>
  sharp(
    Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><rect width="100%" height="50%" fill="#5f7fb5"/><rect y="50%" width="100%" height="50%" fill="#47663a"/><circle cx="25%" cy="25%" r="6" fill="#fff"/></svg>`,
    ),
  )
    .jpeg()
    .toBuffer();

test('what lies beyond the site: pictures all round and flat, and how bright they are seen', async ({ page }) => {
  const studio = new Studio(page);
  await studio.sideBySide();
  await studio.start('A view');
  await studio.firstRoom('4000', '3000');
  await studio.stage('Light');
  await studio.tab('Surroundings');
  const site = async () => (await studio.project()).site;
  const canvas = page.getByTestId('model').locator('canvas').first();
  /** Mean colour of the upper edge of the view, where the sky is. */
  const sky = async (): Promise<number[]> => {
    await studio.rested();
    const box = (await canvas.boundingBox())!;
    const shot = await page.screenshot({ clip: { x: box.x + box.width * 0.1, y: box.y + 60, width: box.width * 0.8, height: 30 } });
    const { channels } = await sharp(shot).stats();
    return channels.slice(0, 3).map((c) => c.mean);
  };

  await test.step('a landscape that ships stands about the house, its sun where the sun is', async () => {
    // The eye is brought down until the sky is seen.
    const box = (await canvas.boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height * 0.7);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2, box.y + box.height * 0.45, { steps: 6 });
    await page.mouse.up();
    const before = await sky();
    await studio.card('Meadow').click();
    await expect.poll(async () => (await site()).surroundings?.picture).toEqual({ kind: 'shipped', landscape: 'meadow' });
    expect(await site()).toMatchObject({ background: 'none', seen: 0, surroundings: { lie: 'round', lights: true } });
    await expect(studio.card('Meadow')).toHaveAttribute('aria-pressed', 'true');
    await expect.poll(async () => Math.max(...(await sky()).map((v, c) => Math.abs(v - before[c])))).toBeGreaterThan(12);
  });

  await test.step('is turned, levelled, and ends where the ground of the site begins', async () => {
    const { surroundings } = await site();
    const slider = page.getByRole('slider', { name: 'Heading of its middle' });
    await slider.press('ArrowRight');
    await expect.poll(async () => (await site()).surroundings!.turn).not.toBe(surroundings!.turn);
    const ledge = page.getByTestId('ledge');
    for (const [label, typed] of [
      ['Horizon up', '3'],
      ['Tilt', '−1.5'],
      ['Ground to', '25000'],
    ]) {
      await ledge.getByLabel(label, { exact: true }).fill(typed);
      await ledge.getByLabel(label, { exact: true }).press('Enter');
    }
    const now = (await site()).surroundings!;
    expect(now.lift).toBeCloseTo((3 * Math.PI) / 180, 6);
    expect(now.tilt).toBeCloseTo((-1.5 * Math.PI) / 180, 6);
    expect(now.reach).toBe(25);
    await ledge.getByLabel('Ground to', { exact: true }).fill('1');
    await ledge.getByLabel('Ground to', { exact: true }).press('Enter');
    await expect(studio.notice).toBeVisible();
    expect((await site()).surroundings!.reach).toBe(25);
    await ledge.getByRole('switch', { name: 'Gives the light of the sky' }).uncheck();
    expect((await site()).surroundings!.lights).toBe(false);
    await page.getByRole('button', { name: 'Turn its sun to the sun' }).click();
    await expect.poll(async () => (await site()).surroundings!.turn).toBeCloseTo(surroundings!.turn, 1);
  });

  await test.step('is seen darker from indoors, in words; undone, as bright as before', async () => {
    const slider = page.getByRole('slider', { name: 'Seen from indoors, stops' });
    for (let i = 0; i < 4; i++) await slider.press('ArrowLeft');
    await expect(page.getByText('An eye indoors is shown what lies outside 2 stops darker than it is; the light it gives stays.')).toBeVisible();
    expect((await site()).seen).toBe(-2);
    await page.getByRole('button', { name: /^Undo/ }).click();
    expect((await site()).seen).toBe(-1.5);
  });

  await test.step('a photo of one’s own stands flat at a distance; one twice as wide as high lies all round', async () => {
    const input = page.getByLabel('Picture of the surroundings');
    await input.setInputFiles({ name: 'lane.jpg', mimeType: 'image/jpeg', buffer: await photo(300, 200) });
    await expect.poll(async () => (await site()).surroundings?.lie).toBe('flat');
    const lane = (await site()).surroundings!;
    expect(lane.picture).toMatchObject({ kind: 'own', name: 'lane.jpg' });
    await expect(studio.card('lane.jpg')).toHaveAttribute('aria-pressed', 'true');
    await page.getByTestId('ledge').getByLabel('Distance', { exact: true }).fill('12000');
    await page.getByTestId('ledge').getByLabel('Distance', { exact: true }).press('Enter');
    expect((await site()).surroundings!.distance).toBe(12);
    await input.setInputFiles({ name: 'hill.jpg', mimeType: 'image/jpeg', buffer: await photo(400, 200) });
    await expect.poll(async () => (await site()).surroundings?.lie).toBe('round');
    await input.setInputFiles({ name: 'notes.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('no picture') });
    await expect(studio.notice).toContainText('not kept');
    expect((await site()).surroundings!.picture).toMatchObject({ name: 'hill.jpg' });
  });

  await test.step('goes with the project as a file, and gives way to what is modelled', async () => {
    await studio.kept();
    const file = await page.request.get(`/api/projects/${studio.id}/export/file`);
    expect(file.status()).toBe(200);
    const hash = ((await site()).surroundings!.picture as { image: string }).image;
    expect(Buffer.from(await file.body()).includes(hash)).toBe(true);
    await studio.card('Woods').click();
    expect(await site()).toMatchObject({ background: 'woods', surroundings: null });
  });

  await test.step('a room is shown in the light that is gathered in it, at the exposure a meter reads; a dark one in an even glow', async () => {
    const exposure = (): Promise<string | null> => canvas.getAttribute('data-exposure');
    await page.getByRole('button', { name: 'Walk', exact: true }).click();
    await studio.rested();
    await page.waitForTimeout(3000);
    expect(await exposure()).toBe('8.50');
    await page.keyboard.press('Escape');
    await studio.stage('Shell');
    await studio.tab('Doors and windows');
    await studio.card('Sash window').click();
    await studio.press(2.1, 0);
    await page.keyboard.press('Escape');
    expect(Object.keys((await studio.project()).openings)).toHaveLength(1);
    await page.getByRole('button', { name: 'Walk', exact: true }).click();
    await expect.poll(exposure, { timeout: 60_000 }).not.toBe('8.50');
    const day = Number(await exposure());
    // Nearer to noon of a clear day than to a cellar.
    expect(day).toBeGreaterThan(5);
    expect(day).toBeLessThan(13);
    // By evening the same room is metered darker.
    await page.keyboard.press('Escape');
    await studio.stage('Light');
    await studio.tab('Daylight');
    await page.getByLabel('Date', { exact: true }).fill('2026-05-12');
    const slider = page.getByRole('slider', { name: 'Time of day' });
    await slider.focus();
    await page.keyboard.press('End');
    for (let i = 0; i < 34; i++) await page.keyboard.press('ArrowLeft');
    await expect.poll(async () => (await site()).moment).toBe('2026-05-12T21:05');
    await page.getByRole('button', { name: 'Walk', exact: true }).click();
    await expect.poll(async () => Number(await exposure()), { timeout: 60_000 }).toBeLessThan(day - 2);
  });
});
