import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { AxeResults, RunOptions } from 'axe-core';
import { expect, test, type Page } from './test';
import { Studio } from './studio';

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** What an automatic check finds wrong with a screen, of what keeps somebody from using it; each as one line. */
async function faults(page: Page): Promise<string[]> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(AXE);
  const { violations } = await page.evaluate(
    (options) => (window as unknown as { axe: { run(of: Document, how: RunOptions): Promise<AxeResults> } }).axe.run(document, options),
    { resultTypes: ['violations'] } as RunOptions,
  );
  return violations
    .filter((v) => v.impact === 'serious' || v.impact === 'critical')
    .flatMap((v) =>
      v.nodes.slice(0, 8).map(
        (n) =>
          `${v.id}: ${n.html.slice(0, 160)} ${n.any
            .map((c) => c.message)
            .join(' ')
            .slice(0, 200)}`,
      ),
    );
}

test('an automatic check finds nothing serious on any main screen', async ({ page }) => {
  const studio = new Studio(page);
  await page.goto('/');
  await expect(page.getByRole('link', { name: /Open Heron Lock Cottage/ })).toBeVisible();
  expect(await faults(page)).toEqual([]);
  await page.getByRole('link', { name: /Open Heron Lock Cottage/ }).click();
  await studio.ready();
  for (const stage of ['Shell', 'Fit-out', 'Finishes', 'Light', 'Views', 'Boards', 'Schedules']) {
    await studio.stage(stage);
    if (stage === 'Boards') await expect(page.getByTestId('item-sample').first()).toBeVisible();
    expect([stage, ...(await faults(page))]).toEqual([stage]);
  }
  await studio.stage('Shell');
  await studio.room('Living').click();
  expect(['a room in hand', ...(await faults(page))]).toEqual(['a room in hand']);
  await page.getByRole('button', { name: 'Contents', exact: true }).click();
  expect(['contents', ...(await faults(page))]).toEqual(['contents']);
  await page.getByRole('button', { name: 'Contents', exact: true }).click();
  await page.getByRole('button', { name: 'Actions', exact: true }).click();
  expect(['actions', ...(await faults(page))]).toEqual(['actions']);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Hand over', exact: true }).click();
  expect(['hand over', ...(await faults(page))]).toEqual(['hand over']);
  await page.keyboard.press('Escape');
  await studio.withModel();
  expect(['the model', ...(await faults(page))]).toEqual(['the model']);
});
