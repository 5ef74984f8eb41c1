import { spawnSync } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { chromium, type Browser, type Page } from '@playwright/test';
import { Target } from '../attack/target';
import config from '../playwright.config';

const PORT = 3391;
const HERE = `http://127.0.0.1:${PORT}`;

/** What Chromium says of one opening, ms. */
export interface Opening {
  /** Until the list of projects shows the demo’s card. */
  list: number;
  /** From the press on the card until the demo can be worked on. */
  demo: number;
  /** From the press until the view has drawn the model. */
  view: number;
}

async function open(page: Page): Promise<Opening> {
  const start = performance.now();
  await page.goto(HERE, { waitUntil: 'commit' });
  const card = page.getByTestId('project-card').first();
  await card.waitFor();
  const list = performance.now() - start;
  const press = performance.now();
  await card.getByRole('link', { name: /^Open/ }).click();
  await page.locator('main[aria-busy="false"]').waitFor();
  const demo = performance.now() - press;
  await page.locator('[data-testid="model"] canvas[data-drawn]').waitFor();
  const view = performance.now() - press;
  return { list, demo, view };
}

/** Runs what needs the built application with the demo in it, in Chromium. */
export async function inChromium<T>(work: (browser: Browser, address: string) => Promise<T>): Promise<T> {
  const folder = await mkdtemp(path.join(os.tmpdir(), 'enstegon-bench-'));
  spawnSync('npx', ['tsx', 'src/cli/main.ts', 'seed'], { env: { ...process.env, ENSTEGON_DATA: folder }, stdio: 'ignore' });
  const server = new Target(folder, PORT);
  await server.start();
  const browser = await chromium.launch(config.use!.launchOptions);
  try {
    return await work(browser, HERE);
  } finally {
    await browser.close();
    await server.stop();
    await rm(folder, { recursive: true, force: true });
  }
}

/** Opens the built application’s list and its demo in Chromium, each time as one who was never there; medians of several. */
export const opening = (rounds = 5): Promise<Opening> =>
  inChromium(async (browser) => {
    const all: Opening[] = [];
    for (let i = 0; i <= rounds; i++) {
      const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, deviceScaleFactor: 0.5 });
      all.push(await open(await context.newPage()));
      await context.close();
    }
    // The first warms the server up.
    const rest = all.slice(1);
    const median = (of: (o: Opening) => number): number => rest.map(of).sort((a, b) => a - b)[rest.length >> 1];
    return { list: median((o) => o.list), demo: median((o) => o.demo), view: median((o) => o.view) };
  });

/** From the switch to true light until the first traced picture of the demo’s kitchen lies over the view: the first time, and again; ms. */
export const firstLook = (): Promise<{ cold: number; warm: number }> =>
  inChromium(async (browser, address) => {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, deviceScaleFactor: 0.5 });
    page.setDefaultTimeout(120_000);
    await page.addInitScript(() => {
      if (localStorage.getItem('enstegon.true-light') === null) localStorage.setItem('enstegon.true-light', 'off');
      localStorage.setItem('enstegon.shade', 'off');
    });
    await page.goto(`${address}/project/heron-lock-cottage`);
    await page.locator('main[aria-busy="false"]').waitFor();
    await page.getByRole('navigation', { name: 'Stages' }).getByRole('button', { name: 'Views' }).click();
    await page
      .getByTestId('ledge')
      .getByRole('button', { name: /^Kitchen from the hall door/ })
      .first()
      .click();
    // Textures are drawn and the light of the rooms is gathered.
    await page.waitForTimeout(25_000);
    const look = async (): Promise<number> => {
      const start = performance.now();
      await page.getByRole('button', { name: 'True light' }).click();
      await page.waitForFunction(() => document.querySelector<HTMLElement>('[data-testid="true-light"]')!.style.opacity === '1', null, { polling: 30 });
      const took = performance.now() - start;
      await page.getByRole('button', { name: 'True light' }).click();
      await page.waitForTimeout(2000);
      return took;
    };
    return { cold: await look(), warm: await look() };
  });
