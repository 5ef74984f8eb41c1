import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { test as base, type Page } from '@playwright/test';

export { expect, type Locator, type Page } from '@playwright/test';

/** Where what was run of each script of the build is kept: a byte a character, 1 where it was. `scripts/coverage.mjs` reads it. */
const FOLDER = 'tmp/e2e-coverage';

type Entry = Awaited<ReturnType<Page['coverage']['stopJSCoverage']>>[number];

/** Notes what a page ran of a script. Ranges lie within one another; the inner ones say it more closely. */
function note({ url, source, functions }: Entry): void {
  const name = /\/_next\/static\/chunks\/([^/?]+\.js)/.exec(url)?.[1];
  if (!name || !source) return;
  const run = new Uint8Array(source.length);
  functions
    .flatMap((f) => f.ranges)
    .sort((a, b) => a.startOffset - b.startOffset || b.endOffset - a.endOffset)
    .forEach((r) => run.fill(r.count > 0 ? 1 : 0, r.startOffset, r.endOffset));
  const file = path.join(FOLDER, `${name}.run`);
  if (existsSync(file)) readFileSync(file).forEach((byte, i) => (run[i] |= byte));
  mkdirSync(FOLDER, { recursive: true });
  writeFileSync(file, run);
}

/** All groups of rows the dockets have, unfolded as somebody left them: what is in them is found at once. */
const GROUPS = [
  'Where it stands',
  'Outline and panes',
  'Round it',
  'Edge by edge',
  'Build-up and timbers',
  'Where it goes',
  'How it is built',
  'Guards',
  'More of this wall',
  'More of this room',
];

/** How many pixels a side the model is drawn with for each of the page, from the next page on; pictures to look at are taken in full. */
export async function pixelsOfModel(page: Page, ratio: number): Promise<void> {
  if (process.env.LOOK) return;
  await page.addInitScript((own) => Object.defineProperty(window, 'devicePixelRatio', { get: () => own, configurable: true }), ratio);
}

/**
 * Leaves a browser as whoever works there might have left it: with all groups unfolded, and the drawing alone on the table. The model is
 * drawn by the processor here, shade and true light too: who tests them brings them up.
 */
export async function left(page: Page): Promise<void> {
  // Of the model even fewer pixels are drawn than of the page.
  await pixelsOfModel(page, 0.25);
  await page.addInitScript(
    (habits) => {
      for (const [key, value] of Object.entries(habits)) if (localStorage.getItem(key) === null) localStorage.setItem(key, value);
    },
    { 'enstegon.groups': GROUPS.join('\n'), 'enstegon.layout': 'drawing', 'enstegon.true-light': 'off', 'enstegon.shade': 'off' },
  );
}

/** Playwright’s test; with COUNT set it notes which code of the interface the page runs. */
export const test = base.extend({
  page: async ({ page }, use) => {
    await left(page);
    if (!process.env.COUNT) return use(page);
    const begin = (): Promise<void> => page.coverage.startJSCoverage({ resetOnNavigation: false });
    // What a page ran is forgotten with it: it is noted before another one takes its place.
    const take = async (): Promise<void> => (await page.coverage.stopJSCoverage()).forEach(note);
    for (const go of ['goto', 'reload'] as const) {
      const plain = page[go].bind(page) as (...args: unknown[]) => Promise<never>;
      page[go] = async (...args: unknown[]) => {
        await take();
        await begin();
        return plain(...args);
      };
    }
    await begin();
    await use(page);
    // One that was closed in its test tells nothing.
    if (!page.isClosed()) await take();
  },
});
