import { derivedOf } from '../src/core/model/model';
import { deriveModel } from '../src/core/model/derive';
import type { Project } from '../src/core/project/schema';
import { expect, test } from './test';
import { only, Studio } from './studio';

const units = (project: Project) => Object.values(project.cabinets).sort((a, b) => a.order - b.order);
const runsOf = (project: Project) => derivedOf(deriveModel(project), 'runs');

/** The middle of a unit in the plan, and of its edges. */
const middleOf = (project: Project, name: string): [number, number] => {
  const own = runsOf(project)
    .flatMap((r) => r.units)
    .find((u) => u.unit.name === name)!;
  const { footprint } = own.placed;
  return [footprint.reduce((s, p) => s + p.x / footprint.length, 0), footprint.reduce((s, p) => s + p.y / footprint.length, 0)];
};

test('a run is dragged and filled, its fronts are divided on the docket and in the elevation, and it is made in a style', async ({ page }) => {
  test.setTimeout(240_000);
  const studio = new Studio(page);
  await studio.start('Fronts');
  await studio.firstRoom('4000', '3000');
  await page.keyboard.press('Escape');
  await studio.press(2, 0.1);
  await studio.docket.getByRole('button', { name: 'Cabinets along it' }).click();
  const line = studio.docket.getByLabel('Units, from the left');
  await line.fill('600 drawers, 800 sink, 600 door, 500 wall glazed');
  await line.press('Escape');
  await line.press('Enter');

  await test.step('what hangs is aligned with what stands; light under it is suggested, left, and taken', async () => {
    const before = await studio.project();
    await studio.docket.getByRole('button', { name: 'Align what hangs' }).click();
    const hung = units(await studio.project()).find((u) => u.band === 'wall')!;
    expect([hung.width, hung.middle?.of, hung.like]).toEqual([0.6, 'unit', units(before)[0].id]);
    await page.getByRole('button', { name: 'Undo' }).click();
    const lights = studio.docket.getByRole('button', { name: 'Take 1 thing' });
    await studio.choose('Suggest for this run', 'lights under wall units', studio.docket);
    await expect(lights).toBeVisible();
    await studio.docket.getByRole('button', { name: 'Leave them' }).click();
    expect((await studio.project()).pieces).toEqual({});
    await studio.choose('Suggest for this run', 'lights under wall units', studio.docket);
    await lights.click();
    expect(Object.values((await studio.project()).pieces).map((p) => p.name)).toEqual(['Shelf strip']);
    await page.getByRole('button', { name: 'Undo' }).click();
    expect(await studio.project()).toEqual(before);
  });
  await page.keyboard.press('Escape');

  await test.step('an edge is dragged in steps, what follows shifts; a unit is dragged past another', async () => {
    const before = await studio.project();
    const wall = runsOf(before)[0].legs[0];
    // Who stands before the south wall has its east end at the left.
    const at = (along: number): [number, number] => [wall.from.x - along, wall.from.y + 0.28];
    await studio.press(...at(0.2));
    await expect(studio.docket).toContainText('Drawers');
    await studio.drag(at(0.6), at(0.83));
    expect(units(await studio.project()).map((u) => u.width)).toEqual([0.85, 0.8, 0.6, 0.5]);
    await page.getByRole('button', { name: 'Undo' }).click();
    expect((await studio.project()).cabinets).toEqual(before.cabinets);
    await studio.drag(at(0.3), at(1.3));
    expect(units(await studio.project()).map((u) => u.name)).toEqual(['sink', 'drawers', 'door', 'wall glazed']);
    await page.getByRole('button', { name: 'Undo' }).click();
  });

  await test.step('what is left is filled by one choice', async () => {
    await expect(studio.docket).toContainText('2000 left');
    await studio.choose('Fill what is left', /^spread over all/, studio.docket);
    const filled = runsOf(await studio.project())[0];
    expect(filled.floor.gaps).toEqual([]);
    expect(units(await studio.project()).map((u) => u.width)).toEqual([1.6, 0.8, 1.6, 0.5]);
    await page.getByRole('button', { name: 'Undo' }).click();
  });

  await test.step('a front is divided on the docket, by pressing and typing', async () => {
    await studio.press(...middleOf(await studio.project(), 'door'));
    await studio.docket.getByRole('button', { name: 'Divide across' }).click();
    await studio.docket.getByRole('radio', { name: 'Row 1, cell 1' }).click();
    await studio.choose('Closed with', 'drawer', studio.docket);
    await studio.set('Row, high', '200');
    await studio.docket.getByRole('radio', { name: 'Row 2, cell 1' }).click();
    await studio.docket.getByRole('button', { name: 'Divide down' }).click();
    const door = units(await studio.project()).find((u) => u.name === 'door')!;
    expect(door.front.map((r) => [r.height, r.cells.map((c) => c.kind)])).toEqual([
      [0.2, ['drawer']],
      [null, ['door', 'door']],
    ]);
    await studio.set('Row, high', '700');
    await expect(studio.notice).toContainText('more than its neighbours can give');
    expect(units(await studio.project()).find((u) => u.name === 'door')).toEqual(door);
  });

  await test.step('its inside is divided: a rail above, drawers below', async () => {
    await studio.docket.getByRole('button', { name: 'Divide inside' }).click();
    await studio.choose('Inside 1', 'hanging rail', studio.docket);
    await studio.docket.getByRole('button', { name: 'Below inside 1' }).click();
    await studio.choose('Inside 2', 'inner drawers', studio.docket);
    await studio.set('Height inside 2', '300');
    await studio.set('How many inside 2', '2');
    const cell = units(await studio.project()).find((u) => u.name === 'door')!.front[1].cells[0];
    expect(cell.inside).toEqual([
      { height: null, fields: [{ width: null, kind: 'rail', count: 1 }] },
      { height: 0.3, fields: [{ width: null, kind: 'drawers', count: 2 }] },
    ]);
  });

  await test.step('in the elevation a cell is taken in hand, a border and an edge are dragged', async () => {
    await page.keyboard.press('Escape');
    await studio.press(2, 0.02);
    await studio.docket.getByRole('button', { name: 'Elevation', exact: true }).click();
    const pane = page.getByTestId('elevation');
    await expect(pane).toBeVisible();
    // Strings of dimensions are shown, and hidden.
    const widths = page.getByRole('switch', { name: 'widths below' });
    await expect(pane.locator('text', { hasText: /^2000$/ }).first()).toBeAttached();
    await widths.click();
    await expect(pane.locator('text', { hasText: /^2000$/ })).toHaveCount(0);
    await widths.click();
    const at = async (x: number, z: number): Promise<{ x: number; y: number }> => {
      const [k, vx, vy] = (await pane.getAttribute('data-view'))!.split(' ').map(Number);
      const box = (await pane.boundingBox())!;
      return { x: box.x + vx + x * k, y: box.y + vy - z * k };
    };
    const press = async (x: number, z: number): Promise<void> => {
      const p = await at(x, z);
      await page.mouse.click(p.x, p.y);
    };
    const drag = async (from: [number, number], to: [number, number]): Promise<void> => {
      const [p, q] = [await at(...from), await at(...to)];
      await page.mouse.move(p.x, p.y);
      await page.mouse.down();
      await page.mouse.move(q.x, q.y, { steps: 6 });
      await page.mouse.up();
    };
    // The door is the third: 1.4 to 2.0 m along; its drawer reaches from 0.67 to 0.87 m above the floor.
    await press(1.7, 0.4);
    await expect(studio.docket).toContainText('Door');
    await press(1.55, 0.4);
    await expect(page.getByTestId('cell-in-hand')).toBeVisible();
    await expect(studio.docket.getByRole('radio', { name: 'Row 2, cell 1' })).toHaveAttribute('aria-checked', 'true');
    // Escape lets go of what is dragged: nothing is changed, nor when the button is let go of.
    const untouched = await studio.project();
    const [grip, off] = [await at(1.5, 0.67), await at(1.5, 0.5)];
    await page.mouse.move(grip.x, grip.y);
    await page.mouse.down();
    await page.mouse.move(off.x, off.y, { steps: 4 });
    await page.keyboard.press('Escape');
    await page.mouse.up();
    expect(await studio.project()).toEqual(untouched);
    await drag([1.5, 0.67], [1.5, 0.57]);
    const lower = units(await studio.project()).find((u) => u.name === 'door')!;
    expect(lower.front[0].height).toBeCloseTo(0.3, 2);
    await drag([1.7, 0.4], [1.8, 0.4]);
    const wider = units(await studio.project()).find((u) => u.name === 'door')!;
    expect(wider.front[1].cells[0].width).toBeCloseTo(0.4, 2);
    await drag([2.0, 0.4], [2.22, 0.4]);
    expect(units(await studio.project()).find((u) => u.name === 'door')!.width).toBeCloseTo(0.8, 6);
    for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Undo' }).click();
    expect(units(await studio.project()).find((u) => u.name === 'door')!.front[0].height).toBeCloseTo(0.2, 6);
    // The handle of the cell in hand is dragged, then put by typing, then by rule again.
    await press(1.55, 0.8);
    await expect(studio.docket.getByRole('radio', { name: 'Row 1, cell 1' })).toHaveAttribute('aria-checked', 'true');
    await drag([1.7, 0.77], [1.6, 0.72]);
    const held = async () => units(await studio.project()).find((u) => u.name === 'door')!.front[0].cells[0].held;
    expect(await held()).toEqual({ from: 'left', in: expect.closeTo(0.1985, 2), up: expect.closeTo(0.05, 1.5), upright: false });
    await studio.set('How far the handle is from that side', '150');
    await studio.choose('Which way the handle lies', 'upright', studio.docket);
    expect(await held()).toMatchObject({ from: 'left', in: 0.15, upright: true });
    await studio.choose('Where its handle is', 'by rule', studio.docket);
    expect(await held()).toBeNull();
    // Figures of the strings are typed over: the width, and the height.
    await press(1.7, 0.4);
    for (const [label, typed, of] of [
      ['Width of door', '700', (u: { width: number | null; height: number | null }) => u.width],
      ['Height of door', '650', (u: { width: number | null; height: number | null }) => u.height],
    ] as const) {
      await pane.getByLabel(label).fill(typed);
      await pane.getByLabel(label).press('Enter');
      await expect.poll(async () => of(units(await studio.project()).find((u) => u.name === 'door')!)).toBeCloseTo(Number(typed) / 1000, 6);
      await page.getByRole('button', { name: 'Undo' }).click();
    }
    await pane.getByLabel('Width of door').fill('9000');
    await pane.getByLabel('Width of door').press('Enter');
    await expect(studio.notice).toContainText('wider than');
    // A finish in hand is put on a front, on the worktop, and dragged from the ledge onto another front; on the wall it draws a patch.
    await studio.stage('Finishes');
    await studio.card('Sluice white').click();
    const finish = async (name: string): Promise<Record<string, string>> => units(await studio.project()).find((u) => u.name === name)!.finishes;
    await press(0.3, 0.4);
    expect(Object.keys(await finish('drawers'))).toEqual(['fronts']);
    await press(0.3, 0.885);
    expect(Object.keys(only((await studio.project()).runs).finishes)).toEqual(['worktop']);
    await page.keyboard.press('Escape');
    await studio.dragCard(studio.card('Sluice white'), await at(1.0, 0.4));
    expect(Object.keys(await finish('sink'))).toEqual(['fronts']);
    expect((await studio.project()).patches).toEqual({});
    for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Undo' }).click();
    expect(only((await studio.project()).runs).finishes).toEqual({});
    await studio.stage('Shell');
    await press(1.7, 0.4);
  });

  await test.step('how fronts lie, a board, the air under a housing and the back of a unit are chosen; what can’t be made is said', async () => {
    const before = await studio.project();
    await studio.unfold('Boards and fronts');
    await studio.choose('How fronts lie', 'inset', studio.docket);
    await studio.set('The thickness of boards', '16');
    await studio.set('The thickness of fronts', '1');
    await expect(studio.notice).toContainText('The thickness of fronts is at least 6');
    await studio.docket.getByRole('switch', { name: 'Grilles in the plinth under what wants air' }).click();
    await studio.docket.getByRole('switch', { name: 'It has a back' }).click();
    const project = await studio.project();
    expect(only(project.runs).made).toMatchObject({ lies: 'inset', board: 0.016, front: 0.02, vented: true });
    expect(units(project).find((u) => u.name === 'door')!.backless).toBe(true);
    // Its plinth has a grille now: what is reached through it wants air.
    expect(runsOf(project)[0].grilles).toHaveLength(1);
    for (let i = 0; i < 4; i++) await page.getByRole('button', { name: 'Undo' }).click();
    expect(await studio.project()).toEqual(before);
  });

  await test.step('a style is given, something is apart, is said and brought back; it is there after a reload', async () => {
    // The door is in hand still.
    await studio.unfold('Joinery style');
    await studio.choose('Style it is made in', 'Painted frame', studio.docket);
    expect(only((await studio.project()).runs).style).toBe('style.painted-frame');
    await studio.unfold('Fronts of this unit');
    await studio.docket
      .getByRole('region', { name: 'Fronts of this unit' })
      .getByLabel('Handles', { exact: true })
      .first()
      .locator('xpath=..')
      .getByRole('combobox')
      .click();
    await page.getByRole('option', { name: 'cup', exact: true }).click();
    await expect(studio.docket).toContainText('Units apart');
    const project = await studio.project();
    expect(units(project).find((u) => u.name === 'door')!.look).toEqual({ handles: 'cup' });
    await studio.docket.getByRole('button', { name: 'Bring back' }).click();
    expect(units(await studio.project()).find((u) => u.name === 'door')!.look).toEqual({});
    await studio.docket.getByRole('button', { name: 'Keep as a style' }).click();
    await studio.set('Name of the style', 'Lock green');
    expect(Object.values((await studio.project()).joinery).map((s) => s.name)).toContain('Lock green');
    const before = await studio.project();
    await page.reload();
    await studio.ready();
    expect(await studio.project()).toEqual(before);
  });
});

test('a wardrobe in the shape of an L is laid out in a cupboard room, in one line, and opened', async ({ page }) => {
  const studio = new Studio(page);
  await studio.start('A cupboard room');
  await studio.firstRoom('2400', '2000');
  await page.keyboard.press('Escape');
  await studio.press(1.2, 0.1);
  await studio.docket.getByRole('button', { name: 'Cabinets along it' }).click();
  const line = studio.docket.getByLabel('Units, from the left');
  await line.fill('700 wardrobe drawers, rest wardrobe, 1000 tall corner, 1000 wardrobe shoes');
  await line.press('Escape');
  await line.press('Enter');
  const project = await studio.project();
  const [run] = runsOf(project);
  expect(run.run.legs).toHaveLength(2);
  expect(run.floor.lacks.every((l) => l < 1e-6)).toBe(true);
  expect(run.floor.gaps.filter((g) => g.leg === 0)).toEqual([]);
  expect(units(project).map((u) => u.band)).toEqual(['tall', 'tall', 'tall', 'tall']);
  await page.keyboard.press('Escape');
  await studio.press(...middleOf(project, 'wardrobe drawers'));
  await studio.set('Open, %', '100');
  const opened = await studio.project();
  expect(units(opened)[0].open).toBe(1);
  await expect(studio.docket.getByLabel('How many inside 3')).toHaveValue('3');
  await page.getByRole('button', { name: 'Undo' }).click();
  expect((await studio.project()).cabinets).toEqual(project.cabinets);
});
