import { derivedOf } from '../src/core/model/model';
import { deriveModel } from '../src/core/model/derive';
import type { Project } from '../src/core/project/schema';
import { expect, test } from './test';
import { only, Studio } from './studio';

const runOf = (project: Project) => derivedOf(deriveModel(project), 'runs')[0];

test('a worktop is jointed and grooved, units stand on feet and go up to the ceiling, a niche is let into the splashback', async ({ page }) => {
  test.setTimeout(240_000);
  const studio = new Studio(page);
  await studio.start('Worktops');
  await studio.firstRoom('4000', '3000');
  await page.keyboard.press('Escape');
  await studio.press(2, 0.1);
  await studio.docket.getByRole('button', { name: 'Cabinets along it' }).click();
  const line = studio.docket.getByLabel('Units, from the left');
  await line.fill('rest drawers, 900 undermounted sink, 600 door, corner, 600 hob, 900 door, 600 wall');
  await line.press('Escape');
  await line.press('Enter');
  const plain = await studio.project();

  await test.step('slabs are mitred in the corner, and had up to a length', async () => {
    expect(runOf(plain).worktop.joints.map((j) => j.corner)).toEqual(['butted', null]);
    await studio.unfold('Ends and edges');
    await studio.choose('Joints of the worktop in corners', 'mitred', studio.docket);
    await studio.set('Longest slab of worktop', '2000');
    const { worktop } = runOf(await studio.project());
    expect(worktop.joints[0].corner).toBe('mitred');
    for (const slab of worktop.slabs) expect(slab.length).toBeLessThan(2 + 1e-6);
  });

  await test.step('grooves drain into the sink under the worktop', async () => {
    await studio.choose('Grooves that drain into sinks under the worktop', 'left of sinks', studio.docket);
    expect(runOf(await studio.project()).worktop.grooves.length).toBeGreaterThan(5);
  });

  await test.step('units stand on feet', async () => {
    await studio.unfold('Heights and depths');
    await studio.choose('What its units stand on', 'on feet', studio.docket);
    await studio.set('Feet', '120');
    expect(only((await studio.project()).runs).made).toMatchObject({ stands: 'feet', plinth: 0.12 });
    expect(runOf(await studio.project()).plinth).toEqual([]);
  });

  await test.step('what hangs goes up to the ceiling, once; what is left is closed', async () => {
    await studio.docket.getByRole('button', { name: 'Up to the ceiling' }).click();
    const { units, ceiling } = runOf(await studio.project());
    const hung = units.find((u) => u.unit.band === 'wall')!;
    expect(hung.matrix[14] + hung.size.height).toBeCloseTo(ceiling! - 0.02, 5);
    expect(hung.unit.front).toHaveLength(2);
    await studio.docket.getByRole('button', { name: 'Up to the ceiling' }).click();
    await expect(studio.notice).toContainText('as high as its ceiling lets it be');
    await studio.choose('What is left up to the ceiling', 'closed up to the ceiling', studio.docket);
    expect(runOf(await studio.project()).trim.infills.length).toBeGreaterThan(0);
  });

  await test.step('the splashback has a niche over the hob, lined with its tiles; all of it is there after a reload', async () => {
    const before = await studio.project();
    await studio.docket.getByRole('button', { name: 'Splashback' }).click();
    await page.keyboard.press('Escape');
    const hob = runOf(await studio.project()).units.find((u) => u.unit.name === 'hob')!.placed.footprint;
    await studio.press((hob[0].x + hob[2].x) / 2, (hob[0].y + hob[2].y) / 2);
    await studio.docket.getByRole('button', { name: 'Niche' }).click();
    const project = await studio.project();
    const niche = only(project.openings);
    expect(niche.kind).toBe('niche');
    expect(niche.finishes.lining).toBe(Object.values(project.patches)[0].finish);
    await expect(studio.docket).toContainText('lining');
    await page.reload();
    await studio.ready();
    expect(await studio.project()).toEqual(project);
    for (let i = 0; i < 2; i++) await page.getByRole('button', { name: 'Undo' }).click();
    expect(await studio.project()).toEqual(before);
  });
});
