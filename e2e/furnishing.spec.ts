import { Studio } from './studio';
import { expect, test } from './test';
import type { Piece } from '../src/core/project/schema';

test('a living room and a bedroom are furnished from nothing, and all windows dressed', async ({ page }) => {
  test.setTimeout(360_000);
  const studio = new Studio(page);
  await studio.start('Two rooms');
  await studio.tab('Walls');
  await studio.firstRoom('9000', '4000');
  const all = async (): Promise<Piece[]> => Object.values((await studio.project()).pieces);
  const hung = async (): Promise<(Piece & { hangs: NonNullable<Piece['hangs']> })[]> => (await all()).filter((p) => p.hangs) as never;
  const put = async (tab: string, card: string, x: number, y: number): Promise<Piece> => {
    const before = (await all()).length;
    await studio.tab(tab);
    await studio.card(card).click();
    await studio.press(x, y);
    await page.keyboard.press('Escape');
    await expect.poll(async () => (await all()).length).toBe(before + 1);
    return (await all()).at(-1)!;
  };

  await test.step('two rooms, three windows at the front and one at the side', async () => {
    await studio.card('Wall').first().click();
    await studio.press(5.15, 0.15);
    await studio.press(5.15, 4.15);
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    await expect.poll(async () => Object.keys((await studio.project()).rooms).length).toBe(2);
    await studio.tab('Doors and windows');
    for (const [x, y] of [
      [1.5, 0],
      [3.8, 0],
      [7.2, 0],
      [9.3, 2],
    ]) {
      await studio.card('Window,').click();
      await studio.press(x, y);
      await page.keyboard.press('Escape');
    }
    await expect.poll(async () => Object.values((await studio.project()).openings).filter((o) => o.kind === 'window').length).toBe(4);
  });

  await studio.stage('Fit-out');
  await test.step('a living room: a sofa at the wall, a table, a lamp on a table that goes with it, a rug', async () => {
    const sofa = await put('Seating', 'Sofa,', 1.6, 3.6);
    expect(sofa.y + sofa.size.depth / 2).toBeCloseTo(4.15, 2);
    await put('Textiles', 'Rug,', 1.6, 2.6);
    await put('Tables', 'Low table,', 1.6, 2.4);
    const side = await put('Tables', 'Side table', 3.4, 3.6);
    const lamp = await put('Luminaires', 'Table lamp,', side.x, side.y);
    expect(lamp.on).toBe(side.id);
    await studio.press(side.x + 0.19, side.y - 0.19);
    await page.keyboard.press('ArrowRight');
    await expect.poll(async () => (await all()).find((p) => p.id === lamp.id)!.x - lamp.x).toBeGreaterThan(0.005);
    await page.keyboard.press('Escape');
  });

  await test.step('a bedroom: a bed between two bedside chests, a wardrobe', async () => {
    const bed = await put('Beds', 'Bed,', 7.2, 3.0);
    expect(bed.y + bed.size.depth / 2).toBeCloseTo(4.15, 2);
    for (const side of [-1, 1]) {
      const chest = await put('Storage', 'Bedside table,', bed.x + side * (bed.size.width / 2 + 0.3), 3.9);
      expect(chest.y + chest.size.depth / 2).toBeCloseTo(4.15, 2);
    }
    await put('Storage', 'Wardrobe,', 5.6, 1.4);
  });

  await test.step('a curtain is hung at a window by pressing near it, and follows when the window is made wider', async () => {
    await put('At windows', 'Curtain pair', 1.5, 0.6);
    let [curtain] = await hung();
    const wide = curtain.size.width;
    await studio.press(curtain.x, curtain.y);
    await studio.choose('Ends at', 'below the sill', studio.docket);
    await expect.poll(async () => (await hung())[0].hangs.ends).toBe('below the sill');
    [curtain] = await hung();
    expect(curtain.elevation).toBeGreaterThan(0.4);
    const { openings } = await studio.project();
    const window = openings[curtain.hangs.opening];
    await studio.docket.getByRole('button', { name: window.name, exact: true }).click();
    await studio.set('Width', String(Math.round(window.width * 1000) + 200));
    await expect.poll(async () => (await hung())[0].size.width - wide).toBeCloseTo(0.2, 6);
  });

  await test.step('it is hung at all windows of the house, and one is moved to hang nowhere', async () => {
    const [curtain] = await hung();
    await page.keyboard.press('Escape');
    await studio.press(curtain.x, curtain.y);
    await studio.docket.getByRole('button', { name: 'To all of the house' }).click();
    await expect.poll(async () => (await hung()).length).toBe(4);
    expect(new Set((await hung()).map((p) => p.hangs.opening)).size).toBe(4);
    expect((await hung()).every((p) => p.hangs.ends === 'below the sill')).toBe(true);
    await studio.press(curtain.x, curtain.y);
    await page.keyboard.press('ArrowLeft');
    await expect(studio.notice).toContainText('it hangs at');
    await studio.docket.getByRole('button', { name: 'Take off' }).click();
    await expect.poll(async () => (await hung()).length).toBe(3);
    await page.keyboard.press('Control+z');
    await expect.poll(async () => (await hung()).length).toBe(4);
  });

  await test.step('a room is dressed from its own docket, with blinds', async () => {
    await page.keyboard.press('Escape');
    await studio.press(7.2, 1.2);
    const group = studio.docket.getByRole('button', { name: 'At its windows', exact: true });
    if ((await group.getAttribute('aria-expanded')) === 'false') await group.click();
    const field = studio.docket.getByLabel('Hang', { exact: true });
    await field.fill('Roman');
    await page.getByRole('option', { name: 'Roman blind', exact: true }).click();
    await studio.docket.getByRole('button', { name: 'Hang at 2' }).click();
    await expect.poll(async () => (await hung()).filter((p) => p.maker === 'roman-blind').length).toBe(2);
    expect((await hung()).length).toBe(6);
  });

  await test.step('it is scheduled with its cloth, and there after a reload', async () => {
    await studio.kept();
    await page.reload();
    await studio.ready();
    expect((await hung()).length).toBe(6);
    await studio.stage('Schedules');
    await page.getByRole('tab', { name: 'Coverings' }).click();
    const rows = page
      .getByRole('table')
      .getByRole('row')
      .filter({ hasText: /Curtain pair|Roman blind/ });
    await expect(rows).toHaveCount(6);
    await expect(rows.filter({ hasText: 'Curtain pair' }).first()).toContainText('before the wall');
  });
});
