import { expect, test } from './test';
import { deriveModel } from '../src/core/model/derive';
import { only, Studio } from './studio';

test('what is finished is tried out, found, ordered and named, from an empty project', async ({ page }) => {
  const studio = new Studio(page);
  await studio.start('Figured');
  const ledge = page.getByTestId('ledge');
  const findFinish = async (words: string): Promise<void> => {
    await ledge.getByRole('textbox').first().fill(words);
  };
  await test.step('a room by lengths as they are written; what has two readings is refused', async () => {
    await studio.card('Room by corners').click();
    await studio.press(0.15, 0.15);
    await studio.moveTo(4, 3);
    await studio.type('4 m 20');
    await page.keyboard.press('Tab');
    await studio.type('3,450');
    await page.keyboard.press('Enter');
    await expect(studio.notice).toContainText('can be read in two ways: 3.450 or 3450');
    await studio.type('3 450');
    // What was refused is still there to be mended.
    await page.keyboard.press('Control+a');
    await studio.type('3 450');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    const room = only((await studio.project()).rooms);
    const { region } = deriveModel(await studio.project()).shell.rooms.get(room.id)!;
    const [xs, ys] = [region.outer.map((p) => p.x), region.outer.map((p) => p.y)];
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(4.2, 6);
    expect(Math.max(...ys) - Math.min(...ys)).toBeCloseTo(3.45, 6);
  });
  await test.step('a recess goes the way it is dragged, from whichever face', async () => {
    const before = new Set(Object.keys((await studio.project()).corners));
    await studio.card('Recess').click();
    // Pressed on the inner face of the south wall, dragged into the room.
    await studio.drag([1.5, 0.1], [2.4, 0.8]);
    const fresh = Object.values((await studio.project()).corners).filter((c) => !before.has(c.id));
    expect(Math.max(...fresh.map((c) => c.y))).toBeGreaterThan(0.3);
    expect(Math.min(...fresh.map((c) => c.y))).toBeGreaterThan(-0.4);
    await page.getByRole('button', { name: /^Undo: Make recess/ }).click();
    await expect.poll(async () => Object.keys((await studio.project()).corners).length).toBe(before.size);
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
  });
  await test.step('finishes are found by what people say', async () => {
    await studio.stage('Finishes');
    await findFinish('metro');
    await expect(studio.card('Glazed brick, milk')).toBeVisible();
    await findFinish('white tiles');
    await expect(studio.card('Square tile, chalk')).toBeVisible();
    await findFinish('nothing of the kind');
    await expect(ledge).toContainText('No finish is called that.');
    await findFinish('');
  });
  await test.step('what was only tried out goes with the tool and the pointer', async () => {
    const plan = page.getByTestId('plan');
    await page.mouse.move(5, 5);
    const bare = await plan.screenshot();
    await studio.tab('Stone');
    await ledge.getByRole('button', { name: /LRV/ }).first().click();
    await studio.moveTo(1.2, 1.2);
    await expect.poll(async () => (await plan.screenshot()).equals(bare)).toBe(false);
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    await page.mouse.move(5, 5);
    await expect.poll(async () => (await plan.screenshot()).equals(bare)).toBe(true);
    expect(only((await studio.project()).rooms).floor).toBeNull();
  });
  await test.step('a wall upright is gone nearer to by the wheel and moved by the other button, as the plan is', async () => {
    await studio.press(2, 0.05);
    await studio.docket.getByRole('button', { name: 'In elevation' }).click();
    const pane = page.getByTestId('elevation');
    const view = async (): Promise<number[]> => (await pane.getAttribute('data-view'))!.split(' ').map(Number);
    await expect(pane).toHaveAttribute('data-view', /\d/);
    const [k, x] = await view();
    const box = (await pane.boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.wheel(0, -400);
    await expect.poll(async () => (await view())[0]).toBeGreaterThan(k * 1.5);
    // The wheel may still turn: the view is taken when it rests.
    let nearer = await view();
    await expect
      .poll(async () => {
        const before = nearer;
        nearer = await view();
        return before[0] === nearer[0];
      })
      .toBe(true);
    await page.mouse.down({ button: 'right' });
    await page.mouse.move(box.x + box.width / 2 + 60, box.y + box.height / 2 + 20, { steps: 3 });
    await page.mouse.up({ button: 'right' });
    await expect.poll(async () => Math.round((await view())[1] - nearer[1])).toBe(60);
    await pane.getByRole('button', { name: 'all of it' }).click();
    await expect.poll(async () => (await view()).slice(0, 2)).toEqual([k, x]);
    await page.getByRole('button', { name: 'Plan', exact: true }).click();
    await page.keyboard.press('Escape');
  });
  await test.step('what is ordered is in whole boxes and tins, by trade and by room; the file says what it is', async () => {
    await studio.tab('Tile');
    await studio.card('Square tile, chalk').click();
    await studio.press(1.2, 1.2);
    await page.keyboard.press('Escape');
    await studio.tab('Paint');
    await studio.choose('Onto', 'all walls of the room', ledge);
    await studio.card('Oat sack').click();
    await studio.press(1.2, 0.1);
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    await studio.stage('Schedules');
    await page.getByRole('tab', { name: 'Order list' }).click();
    const order = page.getByRole('table', { name: 'Order list schedule' });
    await expect(order).toContainText(/Tiling.*Square tile, chalk.*\d+ boxes/);
    await expect(order).toContainText(/Decorating.*Oat sack.* l/);
    await page.getByRole('tab', { name: 'Cost by trade' }).click();
    await expect(page.getByRole('table').first()).toContainText('Tiling');
    await page.getByRole('tab', { name: 'Cost by room' }).click();
    await expect(page.getByRole('table').first()).toContainText('Room 1');
    const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Save as CSV' }).click()]);
    expect(file.suggestedFilename()).toMatch(/^Figured, cost by room, \d{4}-\d{2}-\d{2}\.csv$/);
  });
});
