import { deriveModel } from '../src/core/model/derive';
import { derivedOf, type Model } from '../src/core/model/model';
import { expect, test, type Page } from './test';
import { pressScan, scan } from './scan';
import { only, Studio } from './studio';

/** Whole jobs, each from an empty project, by pointer and typed figures alone, and how many presses it took. */

/** More presses than this, and a job is a chore. */
const MOST = 60;

class Job extends Studio {
  static async begin(page: Page, name: string): Promise<Job> {
    const job = new Job(page);
    await page.addInitScript(() => {
      Object.assign(window, { presses: 0 });
      addEventListener('pointerdown', () => ((window as unknown as { presses: number }).presses += 1), { capture: true });
    });
    await job.start(name);
    return job;
  }

  presses(): Promise<number> {
    return this.page.evaluate(() => (window as unknown as { presses: number }).presses);
  }

  /** Tells how many presses a job took, and holds it to the most there may be. */
  async end(): Promise<Model> {
    const count = await this.presses();
    test.info().annotations.push({ type: 'presses', description: String(count) });
    console.log(`${test.info().title}: ${count} presses`);
    expect(count).toBeLessThanOrEqual(MOST);
    return deriveModel(await this.project());
  }

  /** Types two figures of what is being drawn. */
  async sizes(width: number, depth: number): Promise<void> {
    await this.type(String(width));
    await this.page.keyboard.press('Tab');
    await this.type(String(depth));
    await this.page.keyboard.press('Enter');
  }

  /** Whoever types into the docket presses its field first. */
  override async set(label: string, value: string): Promise<void> {
    await this.docket.getByLabel(label, { exact: true }).click();
    await super.set(label, value);
  }

  level(name: string | RegExp): Promise<void> {
    return this.page.getByRole('navigation', { name: 'Level and rooms' }).getByRole('button', { name }).first().click();
  }

  async down(): Promise<void> {
    await this.page.keyboard.press('Escape');
    await this.page.keyboard.press('Escape');
  }
}

/** Stands so far back that what is drawn next is in view. */
const farther = async (job: Job, x: number, y: number, by = 300): Promise<void> => {
  await job.moveTo(x, y);
  await job.page.mouse.wheel(0, by);
};

test('a two-storey house with a walk-in cupboard, a round-headed pass-through and a stair', async ({ page }) => {
  const job = await Job.begin(page, 'Two storeys');
  await job.card('Room by corners').click();
  await job.press(0.15, 0.15);
  await job.moveTo(4, 3);
  await job.sizes(8000, 6000);
  // A wall across, a cupboard in the corner.
  await job.card('Walls in a chain').click();
  await job.press(4.5, 0);
  // It ends where it meets a wall; the tool stays in hand.
  await job.press(4.5, 6.3);
  await job.press(4.5, 4.2);
  await job.press(6.2, 4.2);
  await job.press(6.2, 6.3);
  await job.down();
  await job.tab('Doors and windows');
  await job.card('Door').click();
  await job.press(2.2, 0);
  await job.press(5.4, 4.2);
  await job.card('Window').click();
  await job.press(0, 3);
  await job.press(8.3, 3);
  await job.press(6.3, 0);
  await job.card('Pass-through').click();
  await job.press(4.5, 2.2);
  await job.choose('Outline', 'arched head', job.docket);
  await job.down();
  await page.getByRole('button', { name: 'Add level' }).click();
  await page.getByRole('button', { name: 'Above', exact: true }).click();
  await job.level('Ground');
  await job.tab('Stairs and floors');
  await job.card('Quarter, winders').click();
  await job.press(1, 3.2);
  await job.press(1, 4.6);
  await job.down();
  await job.level(/^Upper|^First|^Level/);
  await job.tab('Doors and windows');
  await job.card('Window').click();
  await job.press(0, 3);
  await job.press(8.3, 3);
  await job.press(6.3, 0);
  await job.down();
  await job.tab('Roofs');
  await job.card('Roof, with gables').click();
  await expect.poll(async () => Object.keys((await job.project()).roofs).length).toBe(1);
  const model = await job.end();
  const { shell } = model;
  expect(shell.levels.map((l) => l.rooms.length)).toEqual([3, 1]);
  const project = await job.project();
  const kinds = Object.values(project.openings).map((o) => o.kind);
  expect([kinds.filter((k) => k === 'door').length, kinds.filter((k) => k === 'window').length, kinds.filter((k) => k === 'passage').length]).toEqual([
    2, 6, 1,
  ]);
  expect(Object.values(project.openings).find((o) => o.kind === 'passage')!.shape.kind).toBe('arch');
  expect(shell.levels[0].stairs).toHaveLength(1);
  expect(shell.levels[1].roofs).toHaveLength(1);
});

test('an L with gables, in brick and stone', async ({ page }) => {
  const job = await Job.begin(page, 'Brick and stone');
  await job.card('L-shaped room').click();
  await job.press(0.15, 0.15);
  await job.moveTo(4, 4);
  await job.sizes(8000, 7000);
  await job.down();
  await job.tab('Roofs');
  await job.card('Roof, with gables').click();
  await expect.poll(async () => Object.keys((await job.project()).roofs).length).toBe(1);
  await job.down();
  await job.stage('Finishes');
  await job.tab('Brick');
  await job.page.getByTestId('ledge').getByRole('button', { name: /brick/i }).first().click();
  await job.choose('Onto', 'all outside walls');
  // The outer half of the wall is its outside.
  const south = -0.1;
  await job.press(3, south);
  await job.tab('Stone');
  await job.choose('Onto', 'this surface');
  await job.page.getByTestId('ledge').getByRole('button', { name: /LRV/ }).first().click();
  await job.press(3, south);
  await job.down();
  const model = await job.end();
  const project = await job.project();
  const roof = only(project.roofs);
  expect(Object.values(roof.edges).filter((e) => e.form === 'gable')).toHaveLength(2);
  const outside = [project.outside.walls, ...Object.values(project.outside.faces)].filter((f) => f !== null);
  expect(outside.some((f) => f.startsWith('brick'))).toBe(true);
  expect(new Set(outside).size).toBe(2);
  expect(model.shell.levels[0].roofs[0].area).toBeGreaterThan(40);
});

test('a room of nine metres with a mezzanine under its roof', async ({ page }) => {
  const job = await Job.begin(page, 'Mezzanine');
  await job.card('Room by corners').click();
  await job.press(0.15, 0.15);
  await job.moveTo(4, 3);
  await job.sizes(9000, 5000);
  await job.down();
  await job.press(4, 2.5);
  await job.choose('Kind of ceiling', 'following the roof', job.docket);
  await job.down();
  await job.tab('Roofs');
  await job.card('Roof, with gables').click();
  await job.down();
  await job.tab('Stairs and floors');
  await job.choose('Outlines', 'as rectangles', page.getByTestId('ledge'));
  await job.card('Mezzanine').click();
  await job.press(6, 0.15);
  await job.press(9.15, 5.15);
  await job.choose('Climb to', 'Mezzanine', page.getByTestId('ledge'));
  await job.card('Straight').click();
  await job.press(2, 1);
  await job.press(3, 1);
  await job.down();
  const model = await job.end();
  const project = await job.project();
  expect(only(project.slabs).kind).toBe('mezzanine');
  const stair = only(project.stairs);
  expect(stair.rise).toBeCloseTo(only(project.slabs).z, 3);
  expect(model.shell.levels[0].roofs).toHaveLength(1);
});

test('a shelter on posts with a hipped roof and inclined beams', async ({ page }) => {
  const job = await Job.begin(page, 'Shelter');
  await job.tab('Stairs and floors');
  await job.card('Post').click();
  for (const [x, y] of [
    [0, 0],
    [4, 0],
    [4, 3],
    [0, 3],
  ])
    await job.press(x, y);
  await job.down();
  await job.card('Beam').click();
  for (const y of [0, 3]) {
    await job.press(0, y);
    await job.press(2, y);
    await expect(job.docket).toContainText(y ? 'Beam 2' : 'Beam 1');
    await job.set('To, high', '3300');
  }
  await job.down();
  await job.tab('Roofs');
  await job.card('Roof, hipped').click();
  await expect.poll(async () => Object.keys((await job.project()).roofs).length).toBe(1);
  const model = await job.end();
  const project = await job.project();
  expect(only(project.roofs).over.kind).toBe('outline');
  const beams = Object.values(project.beams);
  expect(beams).toHaveLength(6);
  expect(beams.filter((b) => Math.hypot(b.a.x - b.b.x, b.a.y - b.b.y) > 1 && Math.abs(b.a.z - b.b.z) > 0.5)).toHaveLength(2);
  expect(model.shell.levels[0].roofs[0].area).toBeGreaterThan(12);
});

test('a pool and a lawn', async ({ page }) => {
  const job = await Job.begin(page, 'Pool and lawn');
  await farther(job, 3, 2);
  await job.tab('Outside');
  await job.choose('Outlines', 'as rectangles', page.getByTestId('ledge'));
  await job.card('Pool').click();
  await job.press(3, 2);
  await job.moveTo(6, 4);
  await job.sizes(6000, 3000);
  // Drawn after the pool and over it, the lawn lies below it.
  await job.card('Lawn').click();
  await job.press(0, 0);
  await job.moveTo(7, 5);
  await job.sizes(12000, 7000);
  await job.card('Paving').click();
  await job.press(2, 1);
  await job.moveTo(6, 4);
  await job.sizes(8000, 5000);
  await job.down();
  const model = await job.end();
  const area = (kind: string): number => derivedOf(model, 'grounds').find((g) => g.own.kind === kind)!.area;
  expect(area('pool')).toBeCloseTo(18, 6);
  expect(area('paving')).toBeCloseTo(40 - 18, 6);
  expect(area('lawn')).toBeCloseTo(84 - 40, 6);
  // The order is changed where the area is told: the paving under the lawn.
  await job.press(2.3, 1.3);
  await job.docket.getByRole('button', { name: /^Lay under Lawn/ }).click();
  await expect(job.docket).toContainText('Cut by');
  const after = deriveModel(await job.project());
  expect(derivedOf(after, 'grounds').find((g) => g.own.kind === 'paving')!.area).toBeCloseTo(0, 6);
});

test('a bedroom is reworked', async ({ page }) => {
  const job = await Job.begin(page, 'Bedroom');
  await job.card('Room by corners').click();
  await job.press(0.15, 0.15);
  await job.moveTo(3, 4);
  await job.sizes(3900, 6400);
  await job.down();
  await job.tab('Doors and windows');
  await job.card('Door').click();
  await job.press(1, 0);
  await job.card('Window').click();
  await job.press(4.2, 4);
  await job.down();
  await job.stage('Fit-out');
  await job.page.getByTestId('ledge').getByRole('textbox').fill('bed');
  await job.card('Bed,').click();
  await job.press(2, 5);
  await job.page.getByTestId('ledge').getByRole('textbox').fill('wardrobe');
  await job.card('Wardrobe, 1600').click();
  await job.press(0.5, 2.5);
  await job.down();
  // It is turned to its mirror, with all that is in it, and a part of it becomes a dressing room.
  await job.press(3, 1.4);
  const before = await job.project();
  await job.docket.getByRole('button', { name: 'Mirror left–right' }).click();
  await job.docket.getByRole('button', { name: 'Mirror front–back' }).click();
  await job.down();
  await job.stage('Shell');
  await job.tab('Walls');
  await job.card('Walls in a chain').click();
  await job.press(0, 2.2);
  await job.press(4.2, 2.2);
  await job.down();
  await job.tab('Doors and windows');
  await job.card('Pocket door').click();
  await job.press(3, 2.2);
  await job.choose('Where it stands in the wall', /^set back from/, job.docket);
  await job.down();
  await job.stage('Finishes');
  await job.choose('Onto', 'all walls of the room');
  await job.page.getByTestId('ledge').getByRole('button', { name: /LRV/ }).first().click();
  await job.press(2, 2.3);
  await job.down();
  const model = await job.end();
  const after = await job.project();
  expect(model.shell.levels[0].rooms).toHaveLength(2);
  // Twice mirrored is turned by half: every piece stands where it stood, seen from the other corner.
  for (const id in before.pieces) {
    expect(before.pieces[id].x + after.pieces[id].x).toBeCloseTo(4.2, 3);
    expect(before.pieces[id].y + after.pieces[id].y).toBeCloseTo(6.7, 3);
  }
  expect(
    Object.values(after.openings)
      .map((o) => o.form)
      .sort(),
  ).toEqual(['casement', 'hinged', 'pocket']);
});

test('a scan is traced', async ({ page }) => {
  const job = await Job.begin(page, 'Traced');
  await job.tab('Underlay');
  await page.getByLabel('Plan picture').setInputFiles({ name: 'survey.png', mimeType: 'image/png', buffer: await scan() });
  await expect(page.getByTestId('underlay')).toBeVisible();
  await page.getByLabel('Turned, degrees').fill('-2');
  await page.getByLabel('Turned, degrees').press('Enter');
  await page.getByRole('button', { name: 'Bring to scale' }).click();
  for (const [x, y, length] of [
    [8, 0, '8000'],
    [0, 6, '6000'],
  ] as const) {
    await pressScan(job, 0, 0);
    await pressScan(job, x, y);
    await job.type(length);
    await page.keyboard.press('Enter');
  }
  await expect(job.notice).toContainText('The scan is stretched');
  await page.getByRole('button', { name: 'Hold' }).click();
  await job.tab('Walls');
  await job.choose('Lengths along the', 'centre line');
  await job.card('Walls in a chain').click();
  for (const [x, y] of [
    [0, 0],
    [8, 0],
    [8, 6],
    [0, 6],
    [0, 0],
  ] as const)
    await pressScan(job, x, y);
  await expect(job.room('Room 1')).toBeVisible();
  await pressScan(job, 4.5, 0);
  await pressScan(job, 4.5, 6);
  await job.down();
  await job.tab('Doors and windows');
  await job.card('Door').click();
  await pressScan(job, 2, 0);
  await pressScan(job, 4.5, 3);
  await job.card('Window').click();
  await pressScan(job, 8, 3);
  await pressScan(job, 0, 3);
  await job.down();
  const model = await job.end();
  expect(model.shell.levels[0].rooms).toHaveLength(2);
  expect(model.shell.openings.size).toBe(4);
  const [width, depth] = ['x', 'y'].map((axis) => {
    const at = Object.values(model.project.corners).map((c) => c[axis as 'x']);
    return Math.max(...at) - Math.min(...at);
  });
  expect(width).toBeCloseTo(8, 1);
  expect(depth).toBeCloseTo(6, 1);
});
