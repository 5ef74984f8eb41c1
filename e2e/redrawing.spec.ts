import { deriveModel } from '../src/core/model/derive';
import type { Project } from '../src/core/project/schema';
import { expect, test } from './test';
import { only, Studio } from './studio';

const inner = (project: Project): { x0: number; y0: number; x1: number; y1: number }[] =>
  [...deriveModel(project).shell.rooms.values()].map((r) => {
    const [xs, ys] = [r.region.outer.map((p) => p.x), r.region.outer.map((p) => p.y)];
    return { x0: Math.min(...xs), y0: Math.min(...ys), x1: Math.max(...xs), y1: Math.max(...ys) };
  });

test('what is drawn in a fresh project stands where it was pressed, and moves as it says', async ({ page }) => {
  const studio = new Studio(page);
  await studio.start('Redrawn');

  await test.step('press, drag and release draw a room as two presses do, its inside face through both points', async () => {
    await studio.tab('Walls');
    await studio.card('Room by corners').click();
    await studio.drag([0, 0], [4, 3]);
    await page.keyboard.press('Escape');
    const [box] = inner(await studio.project());
    expect([box.x0, box.y0, box.x1, box.y1].map((v) => Math.round(v * 20) / 20 + 0)).toEqual([0, 0, 4, 3]);
    await expect(page.getByTestId('north')).toBeVisible();
  });

  await test.step('a room beside it shares its wall: a door over the common wall stands where it is shown', async () => {
    await studio.card('L-shaped room').click();
    await studio.press(4.15, 3.15);
    await studio.press(7, 0.5);
    await page.keyboard.press('Escape');
    const drawn = await studio.project();
    expect(Object.keys(drawn.rooms)).toHaveLength(2);
    await studio.tab('Doors and windows');
    await studio.card('Door').click();
    // Over its own picture the pointer means the wall it is shown in.
    await studio.moveTo(4.15, 1.6);
    await studio.moveTo(4.12, 1.64);
    const at = page.getByTestId('plan').locator('[data-entity^="opening"]').first();
    const shown = await at.getAttribute('data-entity');
    const path = await at.getAttribute('d');
    await studio.press(4.12, 1.64);
    const door = only((await studio.project()).openings);
    expect(door.id).toBe(shown);
    expect(door.width).toBeCloseTo(0.992, 6);
    await expect(page.getByTestId('plan').locator(`[data-entity="${door.id}"]`).first()).toHaveAttribute('d', path!);
    await page.keyboard.press('Escape');
  });

  await test.step('the thickness of walls is typed; a partition moved leaves all others as they stand', async () => {
    await studio.tab('Walls');
    const thickness = page.getByLabel('Wall thickness');
    await thickness.fill('wide');
    await thickness.press('Enter');
    await expect(studio.notice).toContainText('“wide” is not a length');
    await thickness.fill('120');
    await thickness.press('Enter');
    await studio.card('Walls in a chain').click();
    // What was said goes with the next thing done.
    await expect(studio.notice).toHaveCount(0);
    await studio.press(2, 3.15);
    await studio.press(2, 1.5);
    await page.keyboard.press('Escape');
    await studio.card('Walls in a chain').click();
    await studio.press(2, 1.5);
    await studio.press(2, -0.15);
    await page.keyboard.press('Escape');
    await studio.card('Walls in a chain').click();
    await studio.press(-0.15, 1.5);
    await studio.press(2, 1.5);
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    const before = await studio.project();
    expect(Object.values(before.walls).filter((w) => w.thickness === 0.12)).toHaveLength(3);
    // The upper one of the two in line goes to the right; nothing leads there, so a step is put between.
    await studio.press(2, 2.6);
    await studio.drag([2, 2.6], [2.6, 2.6]);
    const after = await studio.project();
    const upper = Object.values(before.walls).find((w) => w.thickness === 0.12 && Math.max(before.corners[w.start].y, before.corners[w.end].y) > 3)!;
    const lower = Object.values(before.walls).find((w) => w.thickness === 0.12 && Math.min(before.corners[w.start].y, before.corners[w.end].y) < 0)!;
    for (const end of ['start', 'end'] as const) {
      expect(after.corners[after.walls[upper.id][end]].x).toBeCloseTo(2.6, 1);
      expect(after.corners[after.walls[lower.id][end]]).toMatchObject({
        x: before.corners[before.walls[lower.id][end]].x,
        y: before.corners[before.walls[lower.id][end]].y,
      });
    }
    expect(Object.keys(deriveModel(after).shell.project.rooms)).toHaveLength(4);
    await page.keyboard.press('Escape');
  });

  await test.step('a level is added where levels are, or by any word people have for it', async () => {
    await page.getByRole('button', { name: 'Add level' }).click();
    const panel = page.getByRole('dialog', { name: 'Add level' });
    await panel.getByRole('radio', { name: 'all walls' }).check();
    await panel.getByRole('button', { name: 'Above' }).click();
    await expect(page.getByRole('button', { name: 'Upper floor' })).toBeVisible();
    const project = await studio.project();
    const upper = Object.values(project.levels).find((l) => l.name === 'Upper floor')!;
    expect(Object.values(project.walls).filter((w) => w.level === upper.id).length).toBe(
      Object.values(project.walls).filter((w) => w.level === 'ground').length,
    );
    for (const words of ['storey', 'upper floor', 'add level']) {
      await page.getByRole('button', { name: 'Actions' }).click();
      await page.getByLabel('Find an action').fill(words);
      await expect(page.getByRole('option', { name: 'Add a level above' })).toBeVisible();
      await page.keyboard.press('Escape');
    }
    await page.getByRole('button', { name: 'Ground', exact: true }).click();
  });

  await test.step('a finish reaches what its words say; outside faces are named by the side they look to', async () => {
    await studio.stage('Finishes');
    await studio.tab('Paint');
    await studio.choose('Onto', 'all walls of the room', page.getByTestId('ledge'));
    await studio.card('Sluice white').click();
    await studio.moveTo(1, 3.28);
    await expect(studio.line).toContainText('an outside face belongs to no room');
    const before = await studio.project();
    await studio.press(1, 3.28);
    await expect(studio.notice).toContainText('No finish was applied');
    expect((await studio.project()).outside).toEqual(before.outside);
    await studio.choose('Onto', 'this surface', page.getByTestId('ledge'));
    await studio.card('Sluice white').click();
    await studio.moveTo(1.1, 3.28);
    await expect(studio.line).toContainText('North side, outside');
    await studio.choose('Onto', 'all outside walls', page.getByTestId('ledge'));
    await studio.card('Sluice white').click();
    await studio.moveTo(1, 3.28);
    await expect(studio.line).toContainText('All outside walls');
    await studio.press(1, 3.28);
    await expect.poll(async () => (await studio.project()).outside.walls).toBe('paint.sluice-white');
    expect(Object.values((await studio.project()).rooms).map((r) => r.walls)).toEqual(Object.values(before.rooms).map((r) => r.walls));
  });
});
