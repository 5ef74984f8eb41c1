import { expect, pixelsOfModel, test, type Page } from './test';
import sharp from 'sharp';
import { deriveModel } from '../src/core/model/derive';
import { finishSchedule } from '../src/core/schedules/finishes';
import { withScheme } from '../src/core/project/choices';
import { faceX } from '../src/core/shell/wall-face';
import { only, Studio } from './studio';

/** Pictures to look at while working on it: LOOK=folder npx playwright test e2e/finishing.spec.ts */
const look = (name: string, page: Page): Promise<unknown> =>
  process.env.LOOK ? page.screenshot({ path: `${process.env.LOOK}/${name}.png` }) : Promise.resolve();

test('a room is finished surface by surface, in two schemes', async ({ page }) => {
  // The courses of a wall are counted in the view.
  await pixelsOfModel(page, 0.5);
  const studio = new Studio(page);
  await studio.start('Finishing');
  await studio.tab('Walls');
  await studio.firstRoom('4000', '3000');
  const room = only((await studio.project()).rooms);
  const inside = [...deriveModel(await studio.project()).shell.rooms.values()][0].region.outer;
  const [x0, y0] = [Math.min(...inside.map((p) => p.x)), Math.min(...inside.map((p) => p.y))];
  await studio.stage('Finishes');

  await test.step('a press reaches as far as it is told, and says where', async () => {
    await studio.tab('Paint');
    await studio.choose('Onto', 'all walls of the room', page.getByTestId('ledge'));
    await studio.card('Sluice white').click();
    await studio.moveTo(x0 + 2, y0 - 0.1);
    await expect(studio.line).toContainText('all walls');
    await studio.press(x0 + 2, y0 - 0.1);
    expect(only((await studio.project()).rooms).walls).toBe('paint.sluice-white');
    await studio.choose('Onto', 'this surface', page.getByTestId('ledge'));
  });

  await test.step('tiles on the floor: counted as they are laid, laid otherwise, at another scale on purpose', async () => {
    await page.getByPlaceholder('Find a finish…').fill('quarry red');
    await studio.card('Quarry tile, red').click();
    await studio.press(x0 + 2, y0 + 1.5);
    await page.keyboard.press('Escape');
    await expect(studio.docket).toContainText('whole');
    await studio.docket.getByRole('button', { name: 'Laying…' }).click();
    await studio.choose('Pattern', 'herringbone', studio.docket);
    await studio.set('Length of a unit', '300');
    await studio.set('Height of a unit', '75');
    await studio.choose('Start', 'a joint in the middle', studio.docket);
    let project = await studio.project();
    expect(project.layings[`floor/${room.id}`]).toMatchObject({ start: 'middle', laying: { pattern: 'herringbone', width: 0.3, height: 0.075 } });
    await studio.set('Scale, %', '150');
    await expect(studio.docket).toContainText('Not the product’s real size');
    await studio.set('Scale, %', '100');
    // A pattern of one's own is cut and joined in its drawing.
    await studio.choose('Pattern', 'one’s own', studio.docket);
    const pattern = studio.docket.getByRole('group', { name: 'Pattern, drawn' });
    const units = async (): Promise<number> => (await studio.project()).layings[`floor/${room.id}`].laying!.cell!.units.length;
    await pattern.getByRole('button', { name: 'Unit 1' }).click();
    await studio.docket.getByRole('button', { name: 'Cut across' }).click();
    expect(await units()).toBe(4);
    await pattern.getByRole('button', { name: 'Unit 1' }).click();
    await pattern.getByRole('button', { name: 'Unit 3' }).click();
    await studio.docket.getByRole('button', { name: 'Join' }).click();
    await expect(studio.notice).toContainText('two units that make a rectangle');
    await look('finishing-pattern', page);
    await studio.choose('Pattern', 'herringbone', studio.docket);
    project = await studio.project();
    const row = finishSchedule(deriveModel(project)).find((r) => r.id === 'tile.quarry-red')!;
    expect(row.area).toBeCloseTo(12, 4);
    expect(Number(row.whole) * 0.3 * 0.075).toBeLessThan(12);
    await look('finishing-floor', page);
  });

  await test.step('picks a finish up and puts it down elsewhere', async () => {
    await page.getByRole('button', { name: 'Pick up' }).click();
    await studio.moveTo(x0 + 2, y0 + 1.5);
    await expect(studio.line).toContainText('Quarry tile, red');
    await studio.press(x0 + 2, y0 + 1.5);
    await expect(studio.docket).toContainText('Quarry tile, red');
    await page.keyboard.press('Escape');
  });

  await test.step('a stripe is as wide in the view as it is: measured on its pixels against the room', async () => {
    await studio.tab('Wallpaper');
    await studio.card('Awning stripe, garden').click();
    await studio.press(x0 + 2, y0 + 1.5);
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    await studio.withModel();
    await studio.choose('From', 'from above');
    await expect(async () => {
      const { data, info } = await sharp(await page.getByTestId('model').screenshot())
        .removeAlpha()
        .raw()
        .toBuffer({ resolveWithObject: true });
      const row = Array.from({ length: info.width }, (_, x) => [...data.subarray((Math.floor(info.height / 2) * info.width + x) * 3).subarray(0, 3)]);
      // Between the dark tops of the walls lies the floor, four metres of it.
      const dark = row.map((p) => Math.max(...p) < 125);
      const [first, last] = [dark.indexOf(true), dark.lastIndexOf(true)];
      let [from, to] = [dark.indexOf(false, first), dark.lastIndexOf(false, last)];
      while (dark[from]) from++;
      while (dark[to]) to--;
      // A stripe is greener than the paper round about it, in the sun and in the shadow of the walls.
      const green = row.slice(from, to + 1).map((p) => p[1] / Math.max(1, p[0]));
      const about = green.map((_, x) => {
        const near = green.slice(Math.max(0, x - 9), x + 10);
        return near.reduce((sum, g) => sum + g, 0) / near.length;
      });
      const edges = green.flatMap((g, x) => (x > 0 && g > about[x] !== green[x - 1] > about[x - 1] ? [x] : []));
      expect(edges.length).toBeGreaterThan(40);
      const wide = (4 * (edges[edges.length - 1] - edges[0])) / (edges.length - 1) / (to + 1 - from);
      expect(Math.abs(wide / 0.0883 - 1)).toBeLessThan(0.012);
    }).toPass({ timeout: 60_000 });
    await look('finishing-scale', page);
    await page.getByRole('button', { name: /^Undo/ }).click();
    await page.getByRole('button', { name: 'Stand back' }).click();
    await studio.drawingOnly();
    await page.getByPlaceholder('Find a finish…').fill('quarry red');
  });

  await test.step('a splashback and a band are drawn in the elevation, typed over, and counted', async () => {
    await studio.press(x0 + 2, y0 + 3.1);
    await studio.docket.getByRole('button', { name: 'In elevation' }).click();
    const pane = page.getByTestId('elevation');
    await expect(pane).toBeVisible();
    type Place = [number, number];
    const pixels = async (): Promise<(place: Place) => Place> => {
      const [k, ox, oy] = (await pane.getAttribute('data-view'))!.split(' ').map(Number);
      const box = (await pane.boundingBox())!;
      return ([x, y]) => [box.x + ox + k * x, box.y + oy - k * y];
    };
    const drag = async (a: Place, b: Place): Promise<void> => {
      const at = await pixels();
      await page.mouse.move(...at(a));
      await page.mouse.down();
      await page.mouse.move(...at(b), { steps: 6 });
      await page.mouse.up();
    };
    const press = async (...places: Place[]): Promise<void> => {
      const at = await pixels();
      for (const place of places) await page.mouse.click(...at(place));
    };
    await page.getByRole('radio', { name: 'patch' }).click();
    await drag([0.5, 0.9], [2.5, 1.5]);
    await studio.set('From left', '600');
    await studio.set('Width', '1800');
    await studio.set('Height', '600');
    await studio.set('From floor', '910');
    let project = await studio.project();
    const patch = only(project.patches);
    expect(patch.shape).toMatchObject({ kind: 'rectangle', base: 0.91, width: 1.8, height: 0.6 });
    const derived = deriveModel(project).shell.levels[0].faces.flatMap((f) => f.patches)[0];
    expect(derived.area).toBeCloseTo(1.08, 6);
    expect(Math.min(...derived.regions[0].outer.map((p) => p.x))).toBeCloseTo(0.6, 6);
    // An outline point by point; its corners are dragged, and one is added.
    await press([2.8, 1.2], [3.6, 1.2], [3.2, 1.8], [2.8, 1.2]);
    const corners = async (): Promise<number[][]> => {
      const faces = deriveModel(await studio.project()).shell.levels[0].faces;
      const [{ side, shape }] = faces.flatMap((f) => f.patches.map((p) => ({ side: f.side!, shape: p.patch.shape }))).filter((p) => p.shape.kind === 'polygon');
      return shape.kind === 'polygon' ? shape.points.map((p) => [Math.round(faceX(side, p.x) * 1000), Math.round(p.y * 1000)]) : [];
    };
    expect(await corners()).toHaveLength(3);
    await drag([3.2, 1.8], [3.2, 2.1]);
    await drag([3.2, 1.2], [3.2, 1]);
    await look('finishing-outline', page);
    const four = await corners();
    expect(four).toHaveLength(4);
    expect(four[0]).toEqual([2800, 1200]);
    const [top] = four.filter(([, y]) => y > 2000);
    expect(Math.hypot(top[0] - 3200, top[1] - 2100)).toBeLessThan(40);
    await page.getByRole('button', { name: 'Delete', exact: true }).click();
    expect(Object.values((await studio.project()).patches)).toHaveLength(1);
    await press([1.5, 1.2]);
    await studio.docket.getByRole('switch', { name: 'Panelled' }).click();
    await studio.set('Up', '1');
    project = await studio.project();
    expect(deriveModel(project).shell.levels[0].faces.flatMap((f) => f.patches)[0].panels.length).toBeGreaterThan(1);
    await page.getByRole('radio', { name: 'band' }).click();
    await drag([3.2, 0.02], [3.6, 0.42]);
    project = await studio.project();
    expect(Object.values(project.patches).find((p) => p.shape.kind === 'band')).toBeTruthy();
    await page.getByRole('switch', { name: 'all round the room' }).click();
    await look('finishing-elevation', page);
    await page.getByRole('button', { name: 'Plan', exact: true }).click();
  });

  await test.step('copies the wall’s treatment onto the one opposite, mirrored', async () => {
    await studio.press(x0 + 2, y0 + 3.1);
    await studio.docket.getByRole('button', { name: 'Mirrored onto…' }).click();
    await studio.press(x0 + 2, y0 - 0.1);
    await page.keyboard.press('Escape');
    const project = await studio.project();
    expect(Object.values(project.patches).filter((p) => p.shape.kind === 'rectangle')).toHaveLength(2);
    const faces = deriveModel(project).shell.levels[0].faces.filter((f) => f.patches.length);
    expect(faces).toHaveLength(2);
    const [a, b] = faces.map((f) => Math.min(...f.patches.find((p) => p.patch.shape.kind === 'rectangle')!.regions[0].outer.map((p) => p.x)));
    expect(a + b).toBeCloseTo(4 - 1.8, 6);
  });

  await test.step('a skirting all round and a cornice of a section of one’s own', async () => {
    await studio.room('Room').click();
    await studio.docket.getByRole('button', { name: 'Add skirting' }).click();
    await expect(studio.docket).toContainText('4 mitres, 0 ends');
    await studio.room('Room').click();
    await studio.docket.getByRole('button', { name: 'Add cornice' }).click();
    await studio.docket.getByRole('button', { name: 'Own section…' }).click();
    const field = studio.docket.getByLabel('Own section', { exact: true });
    await field.fill('0 0\n20 10\n60 60\n60 80');
    await field.blur();
    const project = await studio.project();
    expect(Object.values(project.profiles)).toHaveLength(1);
    expect(Object.values(project.mouldings).find((m) => m.kind === 'cornice')!.profile).toBe(only(project.profiles).id);
    expect(deriveModel(project).shell.levels[0].mouldings.reduce((sum, m) => sum + m.length, 0)).toBeCloseTo(28, 3);
    // The same section, a point of it dragged.
    const drawn = studio.docket.getByRole('application', { name: 'Section, drawn: drag its points' });
    await drawn.scrollIntoViewIfNeeded();
    const knob = (await drawn.locator('[data-handle="2"]').boundingBox())!;
    await page.mouse.move(knob.x + knob.width / 2, knob.y + knob.height / 2);
    await page.mouse.down();
    await page.mouse.move(knob.x + knob.width / 2 - 20, knob.y + knob.height / 2, { steps: 4 });
    await page.mouse.up();
    const dragged = only((await studio.project()).profiles);
    expect(dragged.points).toHaveLength(4);
    expect(dragged.points[2].x).toBeLessThan(0.055);
    expect(dragged.points[2].y).toBeCloseTo(0.06, 2);
    await look('finishing-mouldings', page);
  });

  await test.step('a finish of one’s own from a colour, and one from a picture; a wrong file is refused', async () => {
    await page.getByRole('button', { name: 'My own' }).click();
    const sheet = page.getByRole('dialog', { name: 'A finish of one’s own' });
    await sheet.getByLabel('Colour as a number').fill('7a5b4c');
    await sheet.getByLabel('Colour as a number').press('Enter');
    await sheet.getByLabel('Name of the finish').fill('Bookcloth brown');
    await sheet.getByLabel('Name of the finish').press('Enter');
    await studio.choose('Drawn as', 'veined marble', sheet);
    await sheet.getByLabel('Maker: strength').fill('900');
    await sheet.getByLabel('Maker: strength').press('Enter');
    await expect(studio.notice).toContainText('900');
    await sheet.getByLabel('Maker: strength').fill('120');
    await sheet.getByLabel('Maker: strength').press('Enter');
    const figure = await sheet.getByLabel('Variation').inputValue();
    await sheet.getByRole('button', { name: 'Another variation' }).click();
    await expect(sheet.getByLabel('Variation')).not.toHaveValue(figure);
    await look('finishing-maker', page);
    // What it is and how it is sold is asked, not taken for granted.
    await sheet.getByRole('button', { name: 'Keep and take in hand' }).click();
    await expect(studio.notice).toContainText('Bookcloth brown was not kept yet: say of what kind it is and how it is sold.');
    await studio.choose('Kind', /^Cloth$/, sheet);
    await studio.choose('Sold by', /^metre$/, sheet);
    await studio.choose('Sheen of cloth', /velvet/, sheet);
    await studio.choose('Passes light', /between its threads/, sheet);
    await sheet.getByLabel('Open between its threads, %').fill('25');
    await sheet.getByLabel('Open between its threads, %').press('Enter');
    await studio.choose('Relief', /half as deep/, sheet);
    await sheet.getByRole('button', { name: 'Keep and take in hand' }).click();
    await expect(studio.docket).toContainText('Bookcloth brown');
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'My own' }).click();
    await sheet.getByLabel('Picture of the finish').setInputFiles({ name: 'notes.txt', mimeType: 'text/plain', buffer: Buffer.from('no picture') });
    await expect(studio.notice).toContainText('“notes.txt” was not taken');
    await sheet.getByLabel('Picture of the finish').setInputFiles({ name: 'broken.png', mimeType: 'image/png', buffer: Buffer.from('not a png') });
    await expect(studio.notice).toContainText('damaged');
    const stripes = Buffer.from(Uint8Array.from({ length: 96 * 64 * 3 }, (_, i) => (Math.floor(i / 3) % 96 < 48 ? [150, 90, 60] : [210, 190, 150])[i % 3]));
    const png = await sharp(stripes, { raw: { width: 96, height: 64, channels: 3 } })
      .png()
      .toBuffer();
    await sheet.getByLabel('Picture of the finish').setInputFiles({ name: 'stripes.png', mimeType: 'image/png', buffer: png });
    // The seam is made good only when one asks, with both ways side by side.
    await expect(sheet.getByRole('group', { name: 'How it repeats' })).toHaveCount(0);
    await sheet.getByRole('button', { name: 'Make the seam good…' }).click();
    const ways = sheet.getByRole('group', { name: 'How it repeats' });
    await expect(ways.getByRole('button', { name: 'Seam made good' })).toHaveAttribute('aria-pressed', 'true');
    await ways.getByRole('button', { name: 'As it is' }).click();
    await look('finishing-seam', page);
    await sheet.getByRole('button', { name: 'Take it' }).click();
    await studio.choose('Kind', /^Wallpaper$/, sheet);
    await studio.choose('Sold by', /^roll$/, sheet);
    await sheet.getByLabel('Name of the finish').fill('Striped');
    await sheet.getByLabel('Name of the finish').press('Enter');
    await sheet.getByRole('button', { name: 'Keep and take in hand' }).click();
    await expect(studio.docket).toContainText('Striped');
    const project = await studio.project();
    const own = Object.values(project.finishes);
    expect(own.map((f) => f.name).sort()).toEqual(['Bookcloth brown', 'Striped']);
    expect(own.find((f) => f.name === 'Striped')!.body.kind).toBe('image');
    expect(own.find((f) => f.name === 'Bookcloth brown')).toMatchObject({
      body: { kind: 'veins', strength: 1.2 },
      category: 'Cloth',
      unit: 'metre',
      sheen: 0.8,
      opacity: 0.75,
      relief: 0.5,
    });
    // As it is, the picture is what it was: half of it as dark as its stripe.
    const kept = own.find((f) => f.name === 'Striped')!;
    expect([kept.category, kept.unit]).toEqual(['Wallpaper', 'roll']);
    const address = (kept.body as { image: string }).image;
    const { data } = await sharp(Buffer.from(await (await page.request.get(`/api/assets/${address}`)).body()))
      .removeAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    const dark = Array.from({ length: data.length / 3 }, (_, i) => data[i * 3] < 180).filter(Boolean).length / (data.length / 3);
    expect(Math.abs(dark - 0.5)).toBeLessThan(0.03);
    await page.keyboard.press('Escape');
  });

  await test.step('colours from a picture lead to paints', async () => {
    await page.getByRole('button', { name: 'From a picture' }).click();
    const sheet = page.getByRole('dialog', { name: 'Colours from a picture' });
    const png = await sharp({ create: { width: 40, height: 40, channels: 3, background: '#3f4f49' } })
      .png()
      .toBuffer();
    await sheet.getByLabel('Picture to take colours from').setInputFiles({ name: 'green.png', mimeType: 'image/png', buffer: png });
    await sheet.getByRole('button', { name: /^Take Lock-gate green/ }).click();
    await expect(studio.docket).toContainText('Lock-gate green');
    await sheet.getByRole('button', { name: 'Close' }).click();
    await page.keyboard.press('Escape');
  });

  await test.step('a second scheme goes its own way; both are seen side by side, with what differs', async () => {
    await page.getByRole('button', { name: 'Schemes', exact: true }).click();
    const sheet = page.getByRole('dialog', { name: 'Schemes' });
    await sheet.getByRole('button', { name: 'Duplicate' }).click();
    await sheet.getByRole('button', { name: 'Take in hand' }).click();
    await expect(sheet.getByRole('button', { name: 'Take in hand' })).toHaveCount(1);
    await sheet.getByRole('button', { name: 'Close' }).click();
    await studio.tab('Stone');
    await studio.card('Lock-side flag').click();
    await studio.press(x0 + 2, y0 + 1.5);
    await page.keyboard.press('Escape');
    const project = await studio.project();
    expect(Object.keys(project.schemes)).toHaveLength(2);
    expect(only(project.rooms).floor).toBe('stone.flag');
    expect(only(withScheme(project, 'scheme-1').rooms).floor).toBe('tile.quarry-red');
    await page.getByRole('button', { name: 'Schemes', exact: true }).click();
    // Kept by roles, it can be taken over: what changes is said before, and taken back in one step.
    await sheet.getByRole('button', { name: 'Keep', exact: true }).first().click();
    const before = await studio.project();
    await sheet.getByRole('button', { name: /to take it over$/ }).click();
    const taking = page.getByRole('dialog', { name: /^Take over: / });
    const changes = taking.getByRole('region', { name: 'What changes' });
    await expect(changes).toContainText('1 room will change');
    await expect(changes.getByRole('region')).toContainText('Lock-side flag → Quarry tile, red');
    await expect(taking.getByLabel(/^Model of /)).toHaveCount(2);
    expect(await studio.project()).toEqual(before);
    await taking.getByRole('button', { name: 'Take over', exact: true }).click();
    await expect(taking).toHaveCount(0);
    const taken = await studio.project();
    expect([only(taken.rooms).floor, Object.keys(taken.schemes).length]).toEqual(['tile.quarry-red', 3]);
    expect([taken.openings, taken.patches, taken.pieces]).toEqual([before.openings, before.patches, before.pieces]);
    const notice = page.getByTestId('notice');
    await expect(notice).toContainText('1 room changed');
    await notice.getByRole('button', { name: 'Undo' }).click();
    await expect(notice).toHaveCount(0);
    expect(await studio.project()).toEqual(before);
    await page.getByRole('button', { name: 'Schemes', exact: true }).click();
    await sheet.getByRole('button', { name: /^Forget / }).click();
    await expect(sheet.getByRole('button', { name: /to take it over$/ })).toHaveCount(0);
    await page.getByRole('button', { name: 'Side by side' }).click();
    const compare = page.getByRole('dialog', { name: 'Two schemes' });
    await expect(compare.getByLabel('What differs')).toContainText('1 choice differs', { timeout: 30_000 });
    await expect(compare.getByLabel('What differs')).toContainText('Lock-side flag → Quarry tile, red');
    await look('finishing-compare', page);
    await compare.getByRole('button', { name: 'Close' }).click();
  });

  await test.step('what is without a finish is listed, and leads to its place', async () => {
    await page.getByRole('button', { name: /findings?$/ }).click();
    await page
      .getByRole('list', { name: 'Findings' })
      .getByText(/ceiling still without a finish/)
      .click();
    await studio.stage('Schedules');
    await page.getByRole('tab', { name: 'Finishes', exact: true }).click();
    await expect(page.getByRole('table', { name: 'Finish schedule' })).toContainText('Sluice white');
    await look('finishing-schedule', page);
  });
});
