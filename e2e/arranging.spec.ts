import { Studio } from './studio';
import { expect, test } from './test';
import type { Piece } from '../src/core/project/schema';

test('a dining room is arranged: chairs round its table, typed distances, rows, lines, one replaced by another, a picture in the elevation', async ({
  page,
}) => {
  test.setTimeout(480_000);
  const studio = new Studio(page);
  await studio.start('A dining room');
  await studio.firstRoom('6000', '5000');
  await studio.stage('Fit-out');
  const pieces = async (maker: string): Promise<Piece[]> => Object.values((await studio.project()).pieces).filter((p) => p.maker === maker);
  const group = async (title: string): Promise<void> => {
    const button = studio.docket.getByRole('button', { name: title, exact: true });
    if ((await button.getAttribute('aria-expanded')) === 'false') await button.click();
  };

  await test.step('a table stands where it is told by distances', async () => {
    await studio.tab('Tables');
    await studio.card('Dining table').click();
    await studio.press(3, 2.4);
    await page.keyboard.press('Escape');
    await group('Where it stands');
    // The first room begins at the point that was pressed, and is measured inside.
    await studio.set('At its left', '2000');
    await expect.poll(async () => (await pieces('table'))[0].x).toBeCloseTo(0.15 + 2 + 0.9, 2);
    // The same distance is in the plan, where it is typed over.
    const field = page.getByTestId('plan').getByLabel('Distance: behind it');
    await field.fill('2200');
    await field.press('Enter');
    await expect(studio.docket.getByLabel('Behind it', { exact: true })).toHaveValue(/^2\D?200/);
    await studio.docket.getByRole('button', { name: 'Middle across' }).click();
    await expect
      .poll(async () => {
        const value = async (label: string): Promise<string> => studio.docket.getByLabel(label, { exact: true }).inputValue();
        return (await value('At its left')) === (await value('At its right'));
      })
      .toBe(true);
  });

  await test.step('chairs find their places round it, and one more does by itself', async () => {
    await studio.docket.getByRole('button', { name: 'Chairs round it' }).click();
    await expect.poll(async () => (await pieces('chair')).length).toBe(6);
    const [table] = await pieces('table');
    for (const c of await pieces('chair')) {
      const to = { x: table.x - c.x, y: table.y - c.y };
      expect(to.x * Math.sin(c.rotation) - to.y * Math.cos(c.rotation)).toBeGreaterThan(0);
    }
    // One is taken away; the next chair that is placed near takes its place.
    const [first] = await pieces('chair');
    await studio.press(first.x, first.y);
    await page.keyboard.press('Delete');
    await expect.poll(async () => (await pieces('chair')).length).toBe(5);
    await studio.tab('Seating');
    await studio.card('Dining chair').click();
    await studio.press(first.x + 0.08, first.y - 0.06);
    await page.keyboard.press('Escape');
    await expect
      .poll(async () => (await pieces('chair')).find((c) => Math.hypot(c.x - first.x, c.y - first.y) < 1e-6)?.rotation)
      .toBeCloseTo(first.rotation, 6);
  });

  await test.step('all chairs are replaced at once', async () => {
    await studio.choose('Changes go to', /^to all 6/, studio.docket);
    await studio.docket.getByLabel('Replace by').fill('Ladder-back');
    const option = page.getByRole('option').first();
    const name = (await option.textContent())!;
    await option.click();
    await studio.docket.getByRole('button', { name: 'Replace 6' }).click();
    await expect.poll(async () => Object.values((await studio.project()).pieces).filter((p) => p.name === name).length).toBe(6);
    await page.getByRole('button', { name: 'Undo' }).first().click();
    await expect.poll(async () => (await pieces('chair')).filter((c) => c.name === 'Dining chair').length).toBe(6);
  });

  await test.step('linked copies in a row change together', async () => {
    await page.keyboard.press('Escape');
    await studio.tab('Storage');
    await studio.card('Chest of drawers').click();
    await studio.press(1.2, 0.45);
    await page.keyboard.press('Escape');
    await group('Copies');
    await studio.set('Side by side', '3');
    await studio.docket.getByLabel('Linked', { exact: true }).check();
    const preview = studio.docket.getByRole('button', { name: 'Make rows' });
    await preview.hover();
    // What is shown is what comes of the press; nothing is kept yet.
    expect((await pieces('chest')).length).toBe(1);
    await preview.click();
    await expect.poll(async () => (await pieces('chest')).length).toBe(3);
    await studio.set('Height', '900');
    await expect.poll(async () => (await pieces('chest')).map((c) => c.size.height)).toEqual([0.9, 0.9, 0.9]);
    await page.getByRole('button', { name: 'Undo' }).first().click();
    await page.getByRole('button', { name: 'Undo' }).first().click();
    await expect.poll(async () => (await pieces('chest')).length).toBe(1);
  });

  await test.step('two are brought into line, with a gap between them', async () => {
    const [table] = await pieces('table');
    await page.keyboard.press('Escape');
    const [chest] = await pieces('chest');
    await studio.press(table.x + 0.2, table.y + 0.1);
    await page.keyboard.down('Shift');
    await studio.press(chest.x - 0.1, chest.y);
    await page.keyboard.up('Shift');
    await studio.docket.getByRole('button', { name: 'Left sides' }).click();
    await expect.poll(async () => (await pieces('chest'))[0].x - (await pieces('chest'))[0].size.width / 2).toBeCloseTo(table.x - table.size.width / 2, 6);
    await page.getByRole('button', { name: 'Undo' }).first().click();
    await page.keyboard.press('Escape');
  });

  await test.step('arrow keys go by 1, 10 and 100 mm', async () => {
    const [chest] = await pieces('chest');
    await studio.press(chest.x - 0.1, chest.y);
    await page.getByTestId('plan').focus();
    await page.keyboard.press('Shift+ArrowRight');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('Control+ArrowRight');
    await expect.poll(async () => (await pieces('chest'))[0].x - chest.x).toBeCloseTo(0.111, 6);
  });

  await test.step('a picture is hung by the pointer and the keyboard in the elevation of its wall', async () => {
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    await studio.tab('On walls');
    await studio.card('Framed print').click();
    await studio.press(1.5, 5.1);
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    const hung = async (): Promise<Piece> => Object.values((await studio.project()).pieces).find((p) => p.y > 5)!;
    const before = await hung();
    await studio.press(4, 5.2);
    await studio.docket.getByRole('button', { name: 'Elevation' }).click();
    const pane = page.getByTestId('elevation');
    const [k, vx, vy] = (await pane.getAttribute('data-view'))!.split(' ').map(Number);
    const box = (await pane.boundingBox())!;
    const at = (x: number, z: number): [number, number] => [box.x + vx + x * k, box.y + vy - z * k];
    // The wall is seen from the room: its left end is at the corner of the room.
    const [x, z] = [before.x - 0.15, before.elevation + before.size.height / 2];
    await page.mouse.move(...at(x, z));
    await page.mouse.down();
    await page.mouse.move(...at(x + 0.5, z + 0.2), { steps: 6 });
    await page.mouse.up();
    await expect.poll(async () => (await hung()).x - before.x).toBeCloseTo(0.5, 1);
    const moved = await hung();
    expect(moved.elevation - before.elevation).toBeCloseTo(0.2, 1);
    expect(moved.y).toBeCloseTo(before.y, 9);
    await page.keyboard.press('ArrowUp');
    await page.keyboard.press('Shift+ArrowLeft');
    await expect.poll(async () => (await hung()).elevation - moved.elevation).toBeCloseTo(0.01, 6);
    expect((await hung()).x - moved.x).toBeCloseTo(-0.1, 6);
    // Its distances are typed over in the drawing.
    const height = pane.getByLabel('Distance: above the floor');
    await height.fill('1300');
    await height.press('Enter');
    await expect.poll(async () => (await hung()).elevation).toBeCloseTo(1.3, 6);
    const left = pane.getByLabel('Distance: to the left end of the wall');
    await left.fill('800');
    await left.press('Enter');
    await expect.poll(async () => (await hung()).x - (await hung()).size.width / 2).toBeCloseTo(0.15 + 0.8, 6);
    // Another is placed where one presses on the wall.
    await studio.card('Wall clock').click();
    await page.mouse.move(...at(4, 1.7));
    await page.mouse.move(...at(4.2, 1.75));
    await page.mouse.down();
    await page.mouse.up();
    await page.keyboard.press('Escape');
    const clock = async (): Promise<Piece> => (await pieces('clock'))[0];
    await expect.poll(async () => (await clock())?.x ?? 0).toBeCloseTo(0.15 + 4.2, 1);
    expect((await clock()).elevation + (await clock()).size.height / 2).toBeCloseTo(1.75, 1);
    expect((await clock()).y + (await clock()).size.depth / 2).toBeCloseTo(5.15, 2);
  });

  await test.step('all is listed with its price, and is there after a reload', async () => {
    await page.keyboard.press('Escape');
    await studio.stage('Schedules');
    await page.getByRole('tab', { name: 'Pieces', exact: true }).click();
    const list = page.getByRole('table', { name: 'Piece schedule' });
    await expect(list).toContainText(/Room 1.*Dining chair6/);
    await page.getByRole('tab', { name: 'Order list' }).click();
    await expect(page.getByRole('table', { name: 'Order list schedule' })).toContainText(/Furniture.*Dining chair.*6 to order/);
    await page.reload();
    await studio.ready();
    expect((await pieces('chair')).length).toBe(6);
  });
});

test('a set is kept together, opened to change one, put in the library and placed in another project', async ({ page }) => {
  test.setTimeout(480_000);
  const studio = new Studio(page);
  await studio.start('A reading corner');
  await studio.firstRoom('5000', '4000');
  await studio.stage('Fit-out');
  const pieces = async (): Promise<Piece[]> => Object.values((await studio.project()).pieces);
  await studio.tab('Seating');
  await studio.card('Armchair').click();
  await studio.press(1.6, 2);
  await studio.tab('Tables');
  await studio.card('Side table').click();
  await studio.press(2.5, 2);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await expect.poll(async () => (await pieces()).length).toBe(2);
  const [chair, table] = await pieces();
  await studio.press(chair.x, chair.y);
  await page.keyboard.down('Shift');
  await studio.press(table.x, table.y);
  await page.keyboard.up('Shift');
  await studio.docket.getByRole('button', { name: 'Keep together' }).click();
  await studio.set('Name of the set', 'Reading corner');
  // One is pressed: both are chosen, and go together.
  await page.keyboard.press('Escape');
  await studio.drag([table.x, table.y], [table.x + 0.5, table.y + 0.4]);
  await expect.poll(async () => (await pieces())[0].x - chair.x).toBeCloseTo(0.5, 1);
  expect((await pieces())[1].x - table.x).toBeCloseTo(0.5, 1);
  // Opened, one of them is changed alone.
  await studio.docket.getByRole('button', { name: 'Open the set' }).click();
  await studio.press(table.x + 0.5, table.y + 0.4);
  await studio.set('Height', '480');
  await expect.poll(async () => (await pieces())[1].size.height).toBe(0.48);
  await studio.docket.getByRole('button', { name: 'Close' }).click();
  await page.keyboard.press('Escape');
  await studio.press(table.x + 0.5, table.y + 0.4);
  await studio.docket.getByRole('button', { name: 'Keep in the library' }).click();
  await expect(studio.docket).toContainText('kept under Sets');

  await studio.start('Another house');
  await studio.firstRoom('6000', '5000');
  await studio.stage('Fit-out');
  await studio.tab('Sets');
  const card = studio.card('Reading corner, 2 pieces');
  await expect(card.locator('img')).toBeVisible();
  await card.click();
  await studio.press(3, 2.5);
  await expect.poll(async () => (await pieces()).length).toBe(2);
  const placed = await pieces();
  expect(placed[1].size.height).toBe(0.48);
  expect(placed[1].x - placed[0].x).toBeCloseTo(table.x - chair.x, 6);
  expect(Object.values((await studio.project()).contents.groups)).toMatchObject([{ name: 'Reading corner', together: true }]);
  await page.reload();
  await studio.ready();
  expect(await pieces()).toHaveLength(2);
});
