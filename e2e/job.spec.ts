import { expect, left, test } from './test';
import { validateBytes } from 'gltf-validator';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import sharp from 'sharp';
import { MARKED } from '../src/core/drawing/inks';
import { deriveModel } from '../src/core/model/derive';
import { readProjectFile } from '../src/server/jobs/project-file';
import type { Project } from '../src/core/project/schema';
import { only, Studio } from './studio';

const rooms = (project: Project): Record<string, number> =>
  Object.fromEntries([...deriveModel(project).shell.rooms.values()].map((r) => [r.room.name, Math.round(r.area * 1000) / 1000]));

test('a small job from an empty plan to a board in the client’s hand', async ({ page, browser }) => {
  test.setTimeout(1_200_000);
  const studio = new Studio(page);
  const faults: string[] = [];
  page.on('pageerror', (error) => faults.push(error.message));

  await test.step('starts a project', async () => {
    await page.goto('/');
    await expect(page.getByRole('article', { name: 'Heron Lock Cottage', exact: true })).toBeVisible();
    await studio.start('Weir House');
    await expect(page.getByText('Nothing is drawn yet.')).toBeVisible();
  });

  await test.step('draws a room by typed inside sizes', async () => {
    await studio.card('Room by corners').click();
    await studio.press(0.15, 0.15);
    await studio.moveTo(2, 1.5);
    await studio.type('4000');
    await page.keyboard.press('Tab');
    await studio.type('3.0 m');
    await page.keyboard.press('Enter');
    await expect(studio.room('Room 1')).toContainText('12.0 m²');
    await page.keyboard.press('Escape');
    expect(rooms(await studio.project())).toEqual({ 'Room 1': 12 });
  });

  await test.step('adds a room beside it as a chain that ends on its wall, with a right angle and a typed length', async () => {
    await studio.card('Walls in a chain').click();
    await page.getByLabel('Wall thickness').fill('100');
    await page.getByLabel('Wall thickness').press('Enter');
    await studio.press(4.3, 0);
    await studio.moveTo(5, 0.02);
    await expect(studio.line).toContainText('0°');
    await studio.type('2500');
    await page.keyboard.press('Enter');
    await studio.moveTo(6.8, 1.2);
    await studio.type('2.05 m');
    await page.keyboard.press('Enter');
    // Back to the first room, along a right angle: the chain ends on the wall it meets.
    await studio.press(4.3, 2.05);
    await expect(studio.room('Room 2')).toBeVisible();
    await page.keyboard.press('Escape');
    const project = await studio.project();
    expect(rooms(project)['Room 2']).toBeCloseTo((2.5 - 0.15 - 0.05) * (2.05 - 0.05 + 0.05) - 0.0, 0);
    expect(Object.keys(project.walls)).toHaveLength(7);
  });

  await test.step('names the rooms and switches to feet and inches and back', async () => {
    await studio.room('Room 1').click();
    await studio.set('Room name', 'Reading room');
    await expect(studio.room('Reading room')).toBeVisible();
    await page.getByRole('button', { name: 'Units: metric' }).click();
    await expect(studio.room('Reading room')).toContainText('129 sq ft');
    await page.getByRole('button', { name: 'Units: imperial' }).click();
    await page.getByRole('button', { name: 'Whole level' }).click();
  });

  await test.step('drags a wall; its neighbours follow', async () => {
    const before = rooms(await studio.project());
    await studio.drag([2, 3.3], [2, 3.8]);
    const after = await studio.project();
    expect(rooms(after)['Reading room'] - before['Reading room']).toBeCloseTo(4 * 0.5, 1);
    expect(Object.keys(after.walls)).toHaveLength(7);
    await page.keyboard.press('Escape');
  });

  await test.step('places a door and a window and types their distances', async () => {
    await studio.tab('Doors and windows');
    await studio.card('Door').click();
    await studio.press(2, 0);
    await expect(studio.docket).toContainText('Door, hinged leaf');
    await studio.set('To one corner', '500');
    await studio.choose('Hand', 'hinged right');
    await studio.card('Window').click();
    await studio.press(0, 1.8);
    await studio.set('Width', '1500');
    await studio.set('Sill', '800');
    // The same distance can be typed beside the opening, in the plan.
    const beside = page.getByLabel('Distance to the start corner');
    await beside.fill('400');
    await beside.press('Enter');
    const project = await studio.project();
    const [door, window] = ['door', 'window'].map((kind) => Object.values(project.openings).find((o) => o.kind === kind)!);
    expect(door.at - door.width / 2).toBeCloseTo(0.15 + 0.5, 6);
    expect(window).toMatchObject({ width: 1.5, sill: 0.8 });
    const sides = deriveModel(project).shell.walls.get(window.wall)!.sides;
    expect(sides.some((s) => s.openings.includes(window.id))).toBe(true);
    await page.keyboard.press('Escape');
  });

  await test.step('furnishes it from the ledge, in the plan and in the model', async () => {
    await studio.withModel();
    await studio.stage('Fit-out');
    await studio.dragCard(studio.card('Sofa'), await studio.at(2.2, 3.1));
    await expect(studio.docket).toContainText('Sofa');
    const sofa = only((await studio.project()).pieces);
    // With its back to the wall it was dropped near.
    expect(sofa.y + sofa.size.depth / 2).toBeCloseTo(3.8 - 0.15, 1);
    await studio.set('Width', '1800');
    await studio.set('Width', '9 m');
    await expect(studio.notice).toContainText('goes from 1300 to 3600');
    await studio.tab('Luminaires');
    const model = (await page.getByTestId('model').boundingBox())!;
    await studio.dragCard(studio.card('Pendant'), { x: model.x + model.width / 2, y: model.y + model.height / 2 + 20 });
    await expect(studio.docket).toContainText('Pendant');
    await studio.set('Light', '1400');
    await studio.set('Colour temperature', '3000');
    // What is under the pointer in one pane is marked in the other, and a press in the model selects.
    await page.keyboard.press('Escape');
    await page.mouse.move(model.x + model.width / 2 + 4, model.y + model.height / 2 + 60);
    await expect(
      page.locator([MARKED.pointedRoom, MARKED.pointedThing, MARKED.pointedWall].map((fill) => `[data-testid="plan"] path[fill="${fill}"]`).join(', ')).first(),
    ).toBeAttached();
    await page.mouse.down();
    await page.mouse.up();
    await expect(studio.docket).toBeVisible();
    await studio.drawingOnly();
    await studio.tab('Seating');
    await studio.card('Armchair').click();
    await studio.press(1.0, 1.2);
    await studio.docket.getByRole('button', { name: 'Turn' }).click();
    await studio.docket.getByRole('button', { name: 'Duplicate' }).click();
    const project = await studio.project();
    expect(
      Object.values(project.pieces)
        .map((p) => p.maker)
        .sort(),
    ).toEqual(['armchair', 'armchair', 'pendant', 'sofa']);
    expect(Object.values(project.pieces).find((p) => p.maker === 'pendant')!.lamp).toEqual({ lumen: 1400, kelvin: 3000, on: true });
    expect(Object.values(project.pieces).find((p) => p.maker === 'sofa')!.size.width).toBe(1.8);
  });

  await test.step('finishes floor, one wall, all walls, ceiling and a part of a piece', async () => {
    await studio.stage('Finishes');
    await studio.tab('Timber');
    await studio.card('Oak plank').click();
    await studio.press(3.2, 0.8);
    await studio.tab('Paint');
    await studio.card('Reed').click();
    await page.keyboard.down('Shift');
    await studio.press(4.3 - 0.1, 3.0);
    await page.keyboard.up('Shift');
    await studio.card('Millpond').click();
    await studio.moveTo(0 + 0.1, 3.3);
    await expect(studio.line).toContainText('Reading room, west wall');
    await studio.press(0 + 0.1, 3.3);
    await studio.room('Reading room').click();
    await studio.card('Chalk ledge').click();
    await studio.docket.getByRole('button', { name: 'ceiling' }).click();
    await studio.page.keyboard.press('Escape');
    await studio.tab('Cloth');
    await studio.dragCard(studio.card('Damson linen'), await studio.at(2.2, 3.15));
    const project = await studio.project();
    const room = Object.values(project.rooms).find((r) => r.name === 'Reading room')!;
    expect(room).toMatchObject({ floor: 'timber.oak-plank', walls: 'paint.reed', ceiling: 'paint.chalk-ledge' });
    expect(Object.values(room.faces)).toEqual(['paint.millpond']);
    expect(Object.values(project.pieces).find((p) => p.maker === 'sofa')!.finishes).toEqual({ cushions: 'cloth.damson-linen' });
  });

  await test.step('sets date and time of the daylight', async () => {
    await studio.stage('Light');
    await page.getByLabel('Date', { exact: true }).fill('2026-06-21');
    await page.getByLabel('Date', { exact: true }).press('Enter');
    await page.getByLabel('Time of day').press('ArrowRight');
    await expect(page.getByText(/The sun stands \d+° high/)).toBeVisible();
    expect((await studio.project()).site.moment).toBe('2026-06-21T10:35');
    // A covered sky takes the sun away, and with it what haze would do; all four walls receive the same.
    const open = page.getByText(/^In the open/);
    await expect(open).toHaveText(/ground \d\d,000 lx/);
    await studio.choose('Sky', 'Even all over');
    expect((await studio.project()).site.sky).toBe(5);
    await expect(open).toHaveText(/ground (\S+) lx; walls to the north (\S+), east \2, south \2, west \2 lx/);
    await expect(page.getByLabel('Haze')).toHaveCount(0);
    await studio.choose('Sky', /^Blue$/);
    await expect(page.getByLabel('Haze')).toHaveValue('3');
  });

  await test.step('keeps a viewpoint, renders it with progress, and changes the exposure afterwards', async () => {
    await studio.withModel();
    await studio.stage('Views');
    await page.getByRole('button', { name: 'Keep this view' }).click();
    await studio.choose('Picture size', /^Small/);
    await studio.choose('Picture quality', /^Look/);
    await page.getByRole('button', { name: 'Render this view' }).click();
    const panel = page.getByTestId('render-panel');
    await expect(panel).toContainText(/of 8 samples/, { timeout: 300_000 });
    await panel.getByRole('button', { name: 'Stop' }).click();
    await expect(panel).toBeHidden();
    expect(Object.keys((await studio.project()).pictures)).toHaveLength(0);
    await page.getByRole('button', { name: 'Render this view' }).click();
    await expect(panel).toContainText('kept with the project', { timeout: 480_000 });
    await panel.getByRole('button', { name: 'Close' }).click();
    const picture = only((await studio.project()).pictures);
    expect(picture).toMatchObject({ width: 480, height: 300, samples: 8 });
    await studio.tab('Pictures');
    await studio.card(picture.name).click();
    const kept = page.getByTestId('picture-panel');
    const mean = async (hash: string): Promise<number> => {
      const { channels } = await sharp(await (await page.request.get(`/api/assets/${hash}`)).body())
        .greyscale()
        .stats();
      return channels[0].mean;
    };
    for (let i = 0; i < 10; i++) await kept.getByLabel('Exposure of the picture').press('ArrowLeft');
    await expect.poll(async () => only((await studio.project()).pictures).exposure).toBeCloseTo(picture.exposure - 1, 5);
    const brighter = only((await studio.project()).pictures);
    expect(brighter.radiance).toBe(picture.radiance);
    expect(await mean(brighter.image)).toBeGreaterThan(await mean(picture.image));
    // By day it is balanced to daylight; set to lamps, the same light looks blue.
    expect(picture.white).toBe(5500);
    await kept.getByLabel('White of the picture').press('Home');
    await expect.poll(async () => only((await studio.project()).pictures).white).toBe(2000);
    const blue = async (hash: string): Promise<number> => {
      const { channels } = await sharp(await (await page.request.get(`/api/assets/${hash}`)).body()).stats();
      return channels[2].mean / channels[0].mean;
    };
    const cold = only((await studio.project()).pictures);
    expect(cold.radiance).toBe(picture.radiance);
    expect(await blue(cold.image)).toBeGreaterThan(await blue(brighter.image));
    await kept.getByRole('button', { name: 'As it was rendered' }).waitFor({ state: 'hidden' });
    // The sky is switched off, the sun alone is left; nothing is rendered again, and it can be undone.
    await kept.getByLabel('Sky of the picture', { exact: true }).press('Home');
    await expect.poll(async () => only((await studio.project()).pictures).lights).toEqual([{ name: 'Sky', level: -8, kelvin: null }]);
    const sunny = only((await studio.project()).pictures);
    expect(sunny.radiance).toBe(picture.radiance);
    expect(await mean(sunny.image)).toBeLessThan((await mean(cold.image)) * 0.95);
    await kept.getByRole('button', { name: 'As it was rendered' }).click();
    await expect.poll(async () => only((await studio.project()).pictures).lights).toEqual([]);
    // What is too light is marked and counted, in the view only.
    await kept.getByLabel('Show what is too light or too dark').click();
    await expect(kept.getByRole('status')).toHaveText(/^Over-exposed: \d+\.\d % of the picture\. Under-exposed: \d+\.\d %\.$/);
    // A grey that is pressed on sets the white.
    await kept.getByRole('button', { name: 'Pick a grey' }).click();
    const canvas = (await kept.locator('canvas').boundingBox())!;
    await page.mouse.click(canvas.x + canvas.width * 0.5, canvas.y + canvas.height * 0.25);
    await expect.poll(async () => only((await studio.project()).pictures).white).not.toBe(2000);
    await kept.getByRole('button', { name: 'Close' }).click();
  });

  await test.step('sets the camera of a viewpoint: focal length, upright verticals, aperture', async () => {
    await studio.tab('Viewpoints');
    const view = only((await studio.project()).viewpoints);
    await studio.card(view.name).click();
    const docket = studio.docket;
    await docket.getByLabel('Focal length').fill('24');
    await docket.getByLabel('Focal length').press('Enter');
    await expect.poll(async () => only((await studio.project()).viewpoints).fov).toBeCloseTo(2 * Math.atan(0.5), 6);
    await studio.choose('Verticals of the viewpoint', 'kept upright');
    expect(only((await studio.project()).viewpoints).look).toMatchObject({ upright: true });
    await studio.choose('Aperture', 'at f/4');
    expect(only((await studio.project()).viewpoints)).toMatchObject({ aperture: 4, focus: null });
    await studio.choose('Verticals of the viewpoint', 'as one sees them');
  });

  await test.step('makes a board: picture, samples, text; moves, sizes and orders them', async () => {
    await studio.stage('Boards');
    await page.getByRole('button', { name: 'Start a board' }).click();
    await expect(page.getByTestId('item-picture')).toHaveCount(1);
    expect(await page.getByTestId('item-sample').count()).toBeGreaterThanOrEqual(4);
    await studio.tab('Text');
    await studio.card('Note').click();
    await studio.docket.getByLabel('Words').fill('Oak underfoot, reed on the walls.');
    await studio.docket.getByLabel('Words').blur();
    const note = page.getByTestId('item-text').last();
    const box = (await note.boundingBox())!;
    await page.mouse.move(box.x + 20, box.y + 8);
    await page.mouse.down();
    await page.mouse.move(box.x + 140, box.y + 48, { steps: 5 });
    await page.mouse.up();
    const shown = (await page.getByTestId('item-picture').boundingBox())!;
    await page.getByTestId('item-picture').click({ position: { x: 12, y: shown.height - 20 } });
    const before = Object.values(only((await studio.project()).boards).items).find((i) => i.kind === 'picture')!;
    const handle = (await page.getByTestId('resize').boundingBox())!;
    await page.mouse.move(handle.x + 5, handle.y + 5);
    await page.mouse.down();
    await page.mouse.move(handle.x - 35, handle.y - 20, { steps: 5 });
    await page.mouse.up();
    await studio.docket.getByRole('button', { name: 'To the front' }).click();
    const items = Object.values(only((await studio.project()).boards).items);
    const picture = items.find((i) => i.kind === 'picture')!;
    expect(picture.width).toBeLessThan(before.width - 0.01);
    expect(picture.width / picture.height).toBeCloseTo(before.width / before.height, 6);
    expect(picture.order).toBe(Math.max(...items.map((i) => i.order)));
    expect(items.some((i) => i.kind === 'text' && i.text.startsWith('Oak underfoot'))).toBe(true);
  });

  const handOver = async (name: string): Promise<void> => {
    await page.getByRole('button', { name: 'Hand over' }).click();
    await page.getByRole('menuitem', { name }).click();
  };

  await test.step('hands over PDF, PNG, GLB and project file', async () => {
    const pdf = await studio.download(() => handOver('Board as PDF'));
    const document = await getDocument({ data: new Uint8Array(pdf.bytes), verbosity: 0 }).promise;
    const first = await document.getPage(1);
    expect(first.getViewport({ scale: 1 }).width).toBeCloseTo((420 / 25.4) * 72, 2);
    const words = (await first.getTextContent()).items.map((i) => ('str' in i ? i.str : '')).join(' ');
    expect(words).toContain('Oak underfoot');
    const png = await sharp((await studio.download(() => handOver('Page as PNG'))).bytes).metadata();
    expect(png.width! / png.height!).toBeCloseTo(420 / 297, 2);
    const glb = await studio.download(() => handOver('Model as GLB'));
    expect(glb.name).toMatch(/^Weir House, model, \d{4}-\d{2}-\d{2}\.glb$/);
    expect((await validateBytes(new Uint8Array(glb.bytes))).issues).toMatchObject({ numErrors: 0, numWarnings: 0 });
    const file = await studio.download(() => handOver('Project file'));
    expect((await readProjectFile(new Uint8Array(file.bytes))).project).toEqual(await studio.project());
    // The file makes a project of its own on the page of projects.
    await page.goto('/');
    const same = page.getByRole('article', { name: 'Weir House' });
    await expect(same.first()).toBeVisible();
    const many = await same.count();
    await page.getByTestId('import').setInputFiles({ name: file.name, mimeType: 'application/zip', buffer: file.bytes });
    await expect(same).toHaveCount(many + 1);
    await page.getByRole('link', { name: 'Open Weir House' }).last().click();
    await page.waitForURL(/\/project\//);
  });

  await test.step('is all there in a new browser, and undo still reaches back', async () => {
    await studio.ready();
    await page.goto('/');
    const before = page.url();
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const again = new Studio(await context.newPage());
    await left(again.page);
    await again.page.goto(before);
    await again.page.getByRole('link', { name: 'Open Weir House' }).last().click();
    await again.page.waitForURL(/\/project\//);
    await again.ready();
    await expect(again.room('Reading room')).toBeVisible();
    const list = (await (await again.page.request.get('/api/projects')).json()) as { id: string; name: string; seq: number }[];
    const original = list.find((p) => p.name === 'Weir House' && p.seq > 20)!;
    await again.open(original.id);
    const undo = again.page.getByRole('button', { name: 'Undo' });
    for (let i = 0; i < 200 && (await undo.isEnabled()); i++) await undo.click();
    const empty = await again.project();
    expect([empty.walls, empty.pieces, empty.boards, empty.pictures]).toEqual([{}, {}, {}, {}]);
    const redo = again.page.getByRole('button', { name: 'Redo' });
    for (let i = 0; i < 200 && (await redo.isEnabled()); i++) await redo.click();
    expect(rooms(await again.project())['Reading room']).toBeGreaterThan(13);
    await context.close();
  });

  expect(faults).toEqual([]);
});
