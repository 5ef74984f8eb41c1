import { expect, test } from './test';
import { only, Studio } from './studio';

/** A room of 4.0 × 3.0 m inside, corners at 0,0 and 4.3,3.3. */
async function room(studio: Studio, name: string, withModel = false): Promise<void> {
  await studio.start(name);
  if (withModel) await studio.withModel();
  await studio.card('Room by corners').click();
  await studio.press(0.15, 0.15);
  await studio.moveTo(2, 1.5);
  await studio.type('4000');
  await studio.page.keyboard.press('Tab');
  await studio.type('3000');
  await studio.page.keyboard.press('Enter');
  await expect(studio.room('Room 1')).toContainText('12.0 m²');
  await studio.page.keyboard.press('Escape');
}

/** Where a point of the model shows in the pane seen from above: parallel, so that its height does not matter. */
async function above(studio: Studio, x: number, y: number, _z: number): Promise<{ x: number; y: number }> {
  const pane = (await studio.page.getByTestId('model').boundingBox())!;
  const [size, centre] = [
    { x: 4.6, y: 3.6 },
    { x: 2.15, y: 1.65 },
  ];
  const half = (Math.max(size.y, size.x / (pane.width / pane.height)) / 2) * 1.12;
  const k = pane.height / (2 * half);
  return { x: pane.x + pane.width / 2 + (x - centre.x) * k, y: pane.y + pane.height / 2 - (y - centre.y) * k };
}

test('pieces and walls are edited in the model as in the plan', async ({ page }) => {
  const studio = new Studio(page);
  await room(studio, 'Model house');
  await studio.stage('Fit-out');
  await studio.tab('Tables');
  await studio.card('Low table,').click();
  await studio.press(2.15, 1.65);
  const table = only((await studio.project()).pieces);
  expect([table.x, table.y]).toEqual([expect.closeTo(2.15, 1), expect.closeTo(1.65, 1)]);
  // The first puts the tool down, the second leaves what is selected.
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await studio.withModel();
  await studio.choose('From', 'from above');
  await studio.rested();

  await test.step('a piece is dragged in the model', async () => {
    const from = await above(studio, table.x, table.y, table.size.height);
    const to = await above(studio, table.x + 0.6, table.y, 0);
    const start = await above(studio, table.x, table.y, 0);
    // What was not selected before is not taken along by a drag.
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move(from.x + 30, from.y + 10, { steps: 3 });
    await page.mouse.up();
    expect(only((await studio.project()).pieces)).toEqual(table);
    await studio.choose('From', 'from above');
    await studio.rested();
    await page.mouse.click(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move(from.x + (to.x - start.x), from.y, { steps: 6 });
    await page.mouse.up();
    await expect.poll(async () => only((await studio.project()).pieces).x - table.x).toBeCloseTo(0.6, 1);
    await expect(studio.docket).toContainText('Low table');
  });

  await test.step('a wall is dragged in the model, and undone', async () => {
    await page.keyboard.press('Escape');
    const before = await studio.project();
    const top = await above(studio, 3.6, 3.3, 2.5);
    const k = (await above(studio, 1, 0, 0)).x - (await above(studio, 0, 0, 0)).x;
    // A drag over a wall turns the view, whether the wall is selected or not.
    const handle = page.getByTestId('wall-handle');
    for (const chosen of [false, true]) {
      if (chosen) await page.mouse.click(top.x, top.y);
      await expect(handle).toHaveCount(chosen ? 1 : 0);
      await page.mouse.move(top.x, top.y);
      await page.mouse.down();
      await page.mouse.move(top.x + 40, top.y - 40, { steps: 5 });
      await page.mouse.up();
      expect((await studio.project()).corners).toEqual(before.corners);
      await studio.choose('From', 'from above');
      await studio.rested();
    }
    await handle.hover();
    const grip = (await handle.boundingBox())!;
    const from = { x: grip.x + grip.width / 2, y: grip.y + grip.height / 2 };
    await page.mouse.down();
    await page.mouse.move(from.x, from.y - 0.4 * k, { steps: 6 });
    await page.mouse.up();
    await expect(studio.room('Room 1')).not.toContainText('12.0 m²');
    const after = await studio.project();
    const height = (p: typeof before): number => Math.max(...Object.values(p.corners).map((c) => c.y));
    expect(height(after) - height(before)).toBeCloseTo(0.4, 1);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(studio.room('Room 1')).toContainText('12.0 m²');
    expect((await studio.project()).corners).toEqual(before.corners);
    // The same by keyboard, a step at a time.
    await handle.focus();
    await page.keyboard.press('Shift+ArrowUp');
    await page.keyboard.press('ArrowUp');
    await page.keyboard.press('ArrowLeft');
    await expect.poll(async () => height(await studio.project()) - height(before)).toBeCloseTo(0.11, 6);
    for (let i = 0; i < 2; i++) await page.getByRole('button', { name: 'Undo' }).click();
    expect((await studio.project()).corners).toEqual(before.corners);
  });

  await test.step('a finish is dropped on a floor in the model', async () => {
    await studio.stage('Finishes');
    await studio.tab('Tile');
    await studio.dragCard(studio.card('Hexagon, bone'), await above(studio, 0.9, 0.8, 0));
    await expect.poll(async () => only((await studio.project()).rooms).floor).toBe('tile.hex-bone');
  });
});

test('the model follows the work, and leaves whoever has just turned the view alone', async ({ page }) => {
  const studio = new Studio(page);
  await room(studio, 'Followed house', true);
  const pane = (await page.getByTestId('model').boundingBox())!;
  /** Whether the middle of the wall that is selected shows in the model. */
  const seen = async (): Promise<boolean> => {
    const box = (await page.getByTestId('wall-handle').boundingBox())!;
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    return x > pane.x && x < pane.x + pane.width && y > pane.y && y < pane.y + pane.height;
  };
  const add = async (from: [number, number], to: [number, number], wall: [number, number]): Promise<void> => {
    await studio.stage('Shell');
    await studio.card('Room by corners').click();
    await studio.press(...from);
    await studio.press(...to);
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    await studio.rested();
    await studio.press(...wall);
    await expect(page.getByTestId('wall-handle')).toBeVisible();
  };
  await add([5, 0.4], [6.6, 2], [6.75, 1.2]);
  await expect.poll(seen).toBe(true);
  const corners = (await studio.project()).corners;
  // Under the ground nobody looks: the eye is turned down as far as it goes, and the model is as it was.
  await page.keyboard.press('Escape');
  await page.mouse.move(pane.x + 60, pane.y + pane.height - 60);
  await page.mouse.down();
  await page.mouse.move(pane.x + 60, pane.y - 400, { steps: 8 });
  await page.mouse.up();
  await studio.rested();
  expect((await studio.project()).corners).toEqual(corners);
});

test('several pieces are moved, turned, copied and deleted together', async ({ page }) => {
  const studio = new Studio(page);
  await room(studio, 'Together house');
  await studio.stage('Fit-out');
  for (const [x, y] of [
    [1.2, 1.6],
    [2.4, 1.6],
  ] as const) {
    await studio.card('Dining chair').click();
    await studio.press(x, y);
    await page.keyboard.press('Escape');
  }
  const before = Object.values((await studio.project()).pieces);
  await studio.press(1.2, 1.6);
  await page.keyboard.down('Shift');
  await studio.press(2.4, 1.6);
  await page.keyboard.up('Shift');
  await expect(studio.docket).toContainText('2 things');
  await studio.drag([1.2, 1.6], [1.5, 1.9]);
  const moved = (await studio.project()).pieces;
  for (const p of before) expect([moved[p.id].x - p.x, moved[p.id].y - p.y]).toEqual([expect.closeTo(0.3, 1), expect.closeTo(0.3, 1)]);
  await studio.docket.getByRole('button', { name: 'Copy' }).click();
  await expect.poll(async () => Object.keys((await studio.project()).pieces).length).toBe(4);
  await studio.docket.getByRole('button', { name: 'Delete' }).click();
  await expect.poll(async () => Object.keys((await studio.project()).pieces).length).toBe(2);
  // Each of these was one step.
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Undo' }).click();
  const back = (await studio.project()).pieces;
  for (const p of before) expect([back[p.id].x, back[p.id].y]).toEqual([p.x, p.y]);
});

test('findings lead to their place, and the room in hand narrows them', async ({ page }) => {
  const studio = new Studio(page);
  await room(studio, 'Finding house');
  await page.getByRole('button', { name: '2 findings' }).click();
  const list = page.getByRole('list', { name: 'Findings' });
  await expect(list).toContainText('Room 1: floor, ceiling and walls still without a finish.');
  await list.getByRole('button', { name: /has no door/ }).click();
  await expect(studio.docket).toContainText('Room 1');
  await expect(studio.room('Room 1')).toHaveAttribute('aria-pressed', 'true');
});

test('a second page is composed, and its samples change form', async ({ page }) => {
  const studio = new Studio(page);
  const list = (await (await page.request.get('/api/projects')).json()) as { id: string; name: string }[];
  const copy = (await (await page.request.post(`/api/projects/${list.find((p) => p.name === 'Heron Lock Cottage')!.id}/duplicate`)).json()) as { id: string };
  await studio.open(copy.id);
  await studio.stage('Boards');
  await expect(page.getByTestId('item-picture')).toHaveCount(1);
  // Closer, for fine work: the page grows, its millimetres stay.
  const scale = async (): Promise<number> => Number(await page.getByTestId('page').getAttribute('data-scale'));
  await expect(page.getByText(/^\d+ % of true size/)).toBeVisible();
  // The page fits its place once that is measured.
  let whole = 0;
  await expect.poll(async () => whole === (whole = await scale())).toBe(true);
  await page.getByRole('button', { name: 'Closer' }).click();
  await expect.poll(scale).toBeCloseTo(whole * 1.4, 3);
  await page.getByRole('button', { name: 'Farther' }).click();
  await expect.poll(scale).toBeCloseTo(whole, 3);
  await studio.room('Living').click();
  await page.getByRole('button', { name: 'Add page' }).click();
  await page.getByRole('button', { name: /Arrange this project/ }).click();
  await expect(page.getByRole('button', { name: 'Text: Living' })).toBeVisible();
  await page.getByTestId('item-sample').first().click();
  await studio.choose('Shown as', 'Disc');
  await studio.set('Note', 'Walls, two coats');
  await studio.set('Width', '60');
  const board = only((await studio.project()).boards);
  expect(Object.keys(board.pages)).toHaveLength(2);
  const sample = Object.values(board.items).find((i) => i.kind === 'sample' && i.note === 'Walls, two coats')!;
  expect(sample).toMatchObject({ form: 'disc', width: 0.06 });
  // By keyboard: a millimetre to the right, then away, then back.
  await page.getByRole('button', { name: /^Sample: Reed/ }).focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Delete');
  await expect.poll(async () => only((await studio.project()).boards).items[sample.id]).toBeUndefined();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(async () => only((await studio.project()).boards).items[sample.id]?.x).toBeCloseTo(sample.x + 0.001, 6);
});
