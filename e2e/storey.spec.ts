import { expect, test, type Page } from './test';
import { deriveModel } from '../src/core/model/derive';
import { stretchOf } from '../src/core/project/underlay';
import type { Project } from '../src/core/project/schema';
import { formatLengthExact, type UnitSystem } from '../src/core/units/length';
import { onPlan, pressScan, scan, SCAN, scanPdf } from './scan';
import { Studio } from './studio';

const areas = (project: Project): Record<string, number> =>
  Object.fromEntries([...deriveModel(project).shell.rooms.values()].map((r) => [r.room.name, Math.round(r.area * 1e4) / 1e4]));

async function storey(page: Page, units: UnitSystem): Promise<void> {
  const studio = new Studio(page);
  // Feet and inches are shown to the sixteenth; what is to be exact is typed in millimetres.
  const say = (metres: number): string => (units === 'metric' ? formatLengthExact(metres, units) : `${Math.round(metres * 1e6) / 1e3}mm`);
  /** A length as typed, and what it comes back as. */
  const meant = (metric: number, feet: number): number => (units === 'metric' ? metric : feet * 0.3048);
  const size = { width: meant(7.4, 24), depth: meant(5.4, 18) };

  await test.step('brings a stretched, crooked scan to scale by two lengths', async () => {
    await studio.start(`Storey in ${units}`, units === 'metric' ? 'Millimetres' : 'Feet and inches');
    await studio.tab('Underlay');
    await page.getByLabel('Plan picture').setInputFiles({ name: 'survey.txt', mimeType: 'text/plain', buffer: Buffer.from('no picture') });
    await expect(studio.notice).toContainText('neither a PNG, a JPEG nor a PDF');
    // A picture in the one case, a page of a PDF in the other.
    const paper =
      units === 'metric'
        ? { name: 'survey.png', mimeType: 'image/png', buffer: await scan() }
        : { name: 'survey.pdf', mimeType: 'application/pdf', buffer: await scanPdf() };
    await page.getByLabel('Plan picture').setInputFiles(paper);
    await expect(page.getByTestId('underlay')).toBeVisible();
    await page.getByLabel('Turned, degrees').fill('-2');
    await page.getByLabel('Turned, degrees').press('Enter');
    await page.getByRole('button', { name: 'Bring to scale' }).click();
    await pressScan(studio, 0, 0);
    await pressScan(studio, 8, 0);
    await expect(studio.line).toContainText('measures in truth');
    await studio.type(say(8));
    await page.keyboard.press('Enter');
    await expect(studio.notice).toContainText('to scale by this length');
    await pressScan(studio, 0, 0);
    await pressScan(studio, 0, 6);
    await studio.type(say(6));
    await page.keyboard.press('Enter');
    await expect(studio.notice).toContainText('The scan is stretched');
    const { underlay } = (await studio.project()).levels.ground;
    // What the scanner did comes out again, within the pixel one can point at.
    expect(stretchOf(underlay!)).toBeCloseTo(1 / SCAN.stretch - 1, 2);
    const [a, b] = [onPlan(underlay!, 0, 0), onPlan(underlay!, 8, 6)];
    expect(Math.hypot(b.x - a.x, b.y - a.y)).toBeCloseTo(10, 1);
    await page.getByRole('button', { name: 'Hold' }).click();
  });

  await test.step('draws the outline on top of it by typed inside sizes', async () => {
    await studio.tab('Walls');
    await studio.card('Room by corners').click();
    const { underlay } = (await studio.project()).levels.ground;
    const corner = onPlan(underlay!, 0, 0);
    await studio.press(corner.x, corner.y);
    await studio.moveTo(corner.x + 5, corner.y + 4);
    await studio.type(say(size.width));
    await page.keyboard.press('Tab');
    await studio.type(say(size.depth));
    await page.keyboard.press('Enter');
    await expect(studio.room('Room 1')).toBeVisible();
    await page.keyboard.press('Escape');
    const project = await studio.project();
    expect(areas(project)['Room 1']).toBeCloseTo(size.width * size.depth, 3);
  });

  const origin = async (): Promise<{ x: number; y: number }> => {
    const corners = Object.values((await studio.project()).corners);
    return { x: Math.min(...corners.map((c) => c.x)) + 0.15, y: Math.min(...corners.map((c) => c.y)) + 0.15 };
  };
  const o = await origin();

  await test.step('parts it with a layered partition at a typed inside length from wall to wall', async () => {
    await studio.choose('Build-up', new RegExp(`^${units === 'metric' ? 'Stud partition' : 'Stud partition, 4 1/2 in'}$`));
    await studio.card('Walls in a chain').click();
    await studio.press(o.x + 3, o.y - 0.15);
    await studio.moveTo(o.x + 3, o.y + 3);
    await expect(studio.line).toContainText('90°');
    await studio.press(o.x + 3, o.y + size.depth + 0.15);
    await expect(studio.room('Room 2')).toBeVisible();
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
  });

  await test.step('types over the width of a room; the partition gives way', async () => {
    await studio.room('Room 1').click();
    const left = [...deriveModel(await studio.project()).shell.rooms.values()].find((r) => r.room.name === 'Room 1')!;
    const field = page.getByLabel('Inside width', { exact: true });
    await expect(field).toBeVisible();
    const wider = meant(3.2, 11);
    const partitionAtRight = left.label.x < o.x + 3;
    await page
      .locator('foreignObject', { has: field })
      .getByLabel(partitionAtRight ? 'The right end gives way' : 'The left end gives way')
      .click();
    await field.fill(say(wider));
    await field.press('Enter');
    const project = await studio.project();
    const room = [...deriveModel(project).shell.rooms.values()].find((r) => r.room.name === 'Room 1')!;
    expect(room.size.x).toBeCloseTo(wider, 6);
    const partition = Object.values(project.walls).find((w) => w.type !== null)!;
    const thick = units === 'metric' ? 0.1 : 4.5 * 0.0254;
    expect(areas(project)['Room 2'] + areas(project)['Room 1']).toBeCloseTo(size.depth * (size.width - thick), 3);
    expect(partition.status).toBe('new');
    await page.getByRole('button', { name: 'Whole level' }).click();
  });

  const partition = async (): Promise<{ x: number; id: string }> => {
    const project = await studio.project();
    const wall = Object.values(project.walls).find((w) => w.type !== null)!;
    return { x: (project.corners[wall.start].x + project.corners[wall.end].x) / 2, id: wall.id };
  };

  await test.step('sets a row of equal windows, a folding door, an arched way and a niche', async () => {
    await studio.tab('Doors and windows');
    await studio.choose('Placed', 'as a row of 3');
    // Three windows 1200 wide have no room beside the partition; three narrower ones have.
    await studio.card('Window').click();
    await studio.press(o.x + size.width - 1, o.y + size.depth + 0.15);
    await expect(studio.notice).toContainText('does not fit');
    await studio.card('Sash window').click();
    await studio.press(o.x + size.width - 1, o.y + size.depth + 0.15);
    let project = await studio.project();
    const row = Object.values(project.openings)
      .filter((w) => w.place.kind === 'row')
      .sort((a, b) => a.at - b.at);
    expect(row).toHaveLength(3);
    expect(row[1].at - row[0].at).toBeCloseTo(row[2].at - row[1].at, 6);
    await studio.choose('Placed', 'one by one', page.getByTestId('ledge'));
    await studio.card('Door').click();
    const { x } = await partition();
    await studio.press(x, o.y + 1.2);
    await studio.choose('Form', 'pair of leaves');
    await studio.choose('Placed', 'centred on the wall', studio.docket);
    project = await studio.project();
    const door = Object.values(project.openings).find((w) => w.kind === 'door')!;
    expect(door).toMatchObject({ form: 'pair', place: { kind: 'centred' } });
    await page.keyboard.press('Escape');
    await studio.card('Niche').click();
    await studio.press(o.x + 1.5, o.y - 0.1);
    project = await studio.project();
    expect(Object.values(project.openings).find((w) => w.kind === 'niche')).toMatchObject({ sill: expect.closeTo(meant(1.1, 43 / 12), 2) });
    await page.keyboard.press('Escape');
  });

  // What does not depend on the units is drawn once.
  if (units === 'imperial') return;

  await test.step('the centred door stays centred when the room is made deeper', async () => {
    await studio.drag([o.x + 0.6, o.y - 0.15], [o.x + 0.6, o.y - 0.65]);
    const project = await studio.project();
    const door = Object.values(project.openings).find((w) => w.kind === 'door')!;
    const wall = deriveModel(project).shell.walls.get(door.wall)!;
    const side = wall.sides[0];
    expect(door.at).toBeCloseTo((side.s0 + side.s1) / 2, 6);
    await page.keyboard.press('Escape');
  });

  await test.step('draws an opening of its own outline in the elevation of a wall', async () => {
    const { x, id } = await partition();
    await studio.press(x, o.y + 0.35);
    await page.getByRole('button', { name: 'Elevation', exact: true }).click();
    const pane = page.getByTestId('elevation');
    await expect(pane).toBeVisible();
    await page.getByRole('radio', { name: 'pass-through' }).click();
    const [k, ox, oy] = (await pane.getAttribute('data-view'))!.split(' ').map(Number);
    const box = (await pane.boundingBox())!;
    for (const [s, z] of [
      [0.7, 0.9],
      [1.5, 0.9],
      [1.5, 1.5],
      [1.1, 1.9],
      [0.7, 1.5],
      [0.7, 0.9],
    ]) {
      await page.mouse.move(box.x + ox + k * s, box.y + oy - Math.abs(k) * z);
      await page.mouse.down();
      await page.mouse.up();
    }
    const project = await studio.project();
    const hatch = Object.values(project.openings).find((w) => w.kind === 'passage')!;
    expect(hatch).toMatchObject({ wall: id, shape: { kind: 'outline' } });
    expect(hatch.width).toBeCloseTo(0.8, 1);
    await page.getByRole('button', { name: 'Plan', exact: true }).click();
    await page.keyboard.press('Escape');
  });

  await test.step('makes a recess in one gesture, boxes a pipe in, and undoes both', async () => {
    await studio.tab('Walls');
    const before = await studio.project();
    await studio.card('Recess').click();
    await studio.moveTo(o.x - 0.05, o.y + 2);
    await page.mouse.down();
    await studio.moveTo(o.x - 0.6, o.y + 3.2);
    await page.mouse.up();
    let project = await studio.project();
    expect(Object.keys(project.walls)).toHaveLength(Object.keys(before.walls).length + 4);
    await studio.card('Boxing').click();
    await studio.press(o.x + size.width + 0.1, o.y + size.depth - 0.2);
    project = await studio.project();
    expect(Object.values(project.rooms).filter((r) => r.use === 'duct')).toHaveLength(1);
    await page.getByRole('button', { name: /^Undo/ }).click();
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect.poll(async () => (await studio.project()).walls).toEqual(before.walls);
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
  });

  await test.step('takes the partition away in the house to be, and keeps it in the house as it stands', async () => {
    const { x } = await partition();
    await studio.press(x, o.y - 0.3);
    await studio.choose('Status', 'to be removed');
    await expect(page.getByRole('button', { name: 'Before' })).toBeVisible();
    await expect(studio.room('Room ')).toHaveCount(1);
    const project = await studio.project();
    expect([...deriveModel(project).shell.rooms.values()].reduce((sum, r) => sum + r.area, 0)).toBeCloseTo(size.width * (size.depth + 0.5), 1);
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect(studio.room('Room ')).toHaveCount(2);
  });
}

test('a storey is drawn over a skewed scan, in millimetres', ({ page }) => storey(page, 'metric'));
test('a storey is drawn over a skewed scan, in feet and inches', ({ page }) => storey(page, 'imperial'));
