import { expect, test } from './test';
import { deriveModel } from '../src/core/model/derive';
import { roofHeight } from '../src/core/project/roofs';
import { only, Studio } from './studio';

const look = async (name: string, page: import('@playwright/test').Page): Promise<void> => {
  if (!process.env.LOOK) return;
  await page.waitForTimeout(2500);
  await page.screenshot({ path: `${process.env.LOOK}/${name}.png` });
};

test('a roof is put on a house, edge by edge, and a room opened to it', async ({ page }) => {
  const studio = new Studio(page);
  await studio.start('Roofed');
  await test.step('draws a house', async () => {
    await studio.tab('Walls');
    await studio.firstRoom('6000', '4000');
    await page.keyboard.press('Escape');
  });
  await test.step('refuses a roof over nothing, puts one with gables on the level', async () => {
    await studio.tab('Roofs');
    await studio.card('Roof, with gables').click();
    const project = await studio.project();
    const roof = only(project.roofs);
    expect(Object.values(roof.edges).map((e) => e.form)).toEqual(['gable', 'gable']);
    expect(Object.values(project.walls).every((w) => w.top.kind === 'roof')).toBe(true);
    await expect(studio.docket).toContainText('Sloping area');
    await studio.withModel();
    await page.getByRole('button', { name: 'Whole', exact: true }).click();
    await look('roof', page);
  });
  await test.step('gives it another pitch and a half hip to the west', async () => {
    await studio.set('Pitch, degrees', '45');
    let derived = deriveModel(await studio.project()).shell.levels[0].roofs[0];
    expect(derived.area).toBeCloseTo((7.2 * 5.2) / Math.cos(Math.PI / 4), 2);
    await studio.choose(/^Form of the west edge/, 'half hip', studio.docket);
    derived = deriveModel(await studio.project()).shell.levels[0].roofs[0];
    expect(derived.shape.upper.filter((q) => q.plane)).toHaveLength(3);
    await look('half-hip', page);
    await page.keyboard.press('Escape');
  });
  await test.step('adds a level below the roof with the outer walls; the roof goes up, heights carry it', async () => {
    await page.getByRole('navigation', { name: 'Level and rooms' }).getByRole('button', { name: 'Ground' }).click();
    await studio.docket.getByRole('button', { name: 'Add above' }).click();
    let project = await studio.project();
    const upper = Object.values(project.levels).find((l) => l.id !== 'ground')!;
    expect(upper.elevation).toBeCloseTo(2.75, 9);
    expect(only(project.roofs).level).toBe(upper.id);
    expect(Object.values(project.walls).filter((w) => w.level === upper.id)).toHaveLength(4);
    await page.getByRole('button', { name: 'Stand back' }).click();
    await look('two-levels', page);
    await page.getByRole('navigation', { name: 'Level and rooms' }).getByRole('button', { name: 'Ground' }).click();
    await studio.set('Height of the level', '2700');
    project = await studio.project();
    expect(project.levels[upper.id].elevation).toBeCloseTo(2.95, 9);
    await page.getByRole('button', { name: 'Cut away' }).click();
    await look('cut', page);
    await page.getByRole('button', { name: 'Whole', exact: true }).click();
    await page.getByRole('button', { name: /^Undo/ }).click();
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect.poll(async () => Object.keys((await studio.project()).levels).length).toBe(1);
    await page.keyboard.press('Escape');
  });
  await test.step('draws a shelter beside it, over an outline of its own', async () => {
    await studio.choose('Over', 'an outline one draws', page.getByTestId('ledge'));
    await studio.card('Roof, single slope').click();
    for (const [x, y] of [
      [1, -0.5],
      [1, -1.4],
      [3, -1.4],
      [3, -0.5],
      [1, -0.5],
    ] as const)
      await studio.press(x, y);
    const shelter = Object.values((await studio.project()).roofs).find((r) => r.over.kind === 'outline')!;
    expect(shelter.over.kind === 'outline' && shelter.over.points).toHaveLength(4);
    await look('shelter', page);
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect.poll(async () => Object.keys((await studio.project()).roofs).length).toBe(1);
    await page.keyboard.press('Escape');
  });
  await test.step('opens the room to the roof', async () => {
    await studio.press(1, 1);
    await studio.choose('Kind of ceiling', 'following the roof', studio.docket);
    const project = await studio.project();
    expect(only(project.rooms).cover.kind).toBe('roof');
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Stand back' }).click();
    await look('open-room', page);
    await page.getByRole('button', { name: /^Undo/ }).click();
    await page.getByRole('button', { name: /^Undo/ }).click();
    await page.getByRole('button', { name: /^Undo/ }).click();
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect.poll(async () => Object.keys((await studio.project()).roofs).length).toBe(0);
  });
});

test('one roof over two houses, and round a court', async ({ page }) => {
  const studio = new Studio(page);
  await studio.start('Round a court');
  const room = async (from: [number, number], width: string, depth: string): Promise<void> => {
    await studio.press(...from);
    await studio.moveTo(from[0] + 1, from[1] + 1);
    await studio.type(width);
    await page.keyboard.press('Tab');
    await studio.type(depth);
    await page.keyboard.press('Enter');
  };
  await test.step('draws a house of nine metres with a room in its middle, and a shed apart', async () => {
    await studio.card('Room by corners').click();
    await room([0.15, 0.15], '9000', '9000');
    await studio.moveTo(4, 4);
    await page.mouse.wheel(0, 700);
    await room([3.15, 3.15], '3000', '3000');
    await room([12.15, 0.15], '3000', '2400');
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    expect(Object.keys((await studio.project()).rooms)).toHaveLength(3);
  });
  await test.step('opens the room in the middle to the sky', async () => {
    await studio.press(4.6, 4.6);
    await studio.choose('Kind of ceiling', 'none, open to the sky', studio.docket);
    await page.keyboard.press('Escape');
  });
  await test.step('one press covers both, and leaves the court free', async () => {
    await studio.tab('Roofs');
    await studio.card('Roof, hipped').click();
    await expect.poll(async () => Object.keys((await studio.project()).roofs).length).toBe(1);
    const project = await studio.project();
    const { shape } = deriveModel(project).shell.levels[0].roofs[0];
    expect(shape.outlines).toHaveLength(2);
    const [main] = [...shape.outlines].sort((a, b) => b.outer.length + 10 * b.holes.length - a.outer.length - 10 * a.holes.length);
    expect(main.holes).toHaveLength(1);
    const over = (x: number, y: number): boolean => roofHeight([shape], { x, y }) !== null;
    expect([over(1, 1), over(4.6, 4.6), over(8, 4.6), over(13.5, 1.2), over(11, 5)]).toEqual([true, false, true, true, false]);
  });
  await test.step('a court that is covered again is roofed over', async () => {
    await page.keyboard.press('Escape');
    await studio.press(4.6, 4.6);
    await studio.choose('Kind of ceiling', 'flat', studio.docket);
    await expect.poll(async () => roofHeight([deriveModel(await studio.project()).shell.levels[0].roofs[0].shape], { x: 4.6, y: 4.6 })).not.toBeNull();
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect.poll(async () => roofHeight([deriveModel(await studio.project()).shell.levels[0].roofs[0].shape], { x: 4.6, y: 4.6 })).toBeNull();
  });
});
