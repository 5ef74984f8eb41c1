// Refreshes docs/screenshots from the demo data: node scripts/screenshots.mjs [address of a running demo]
import { mkdirSync } from 'node:fs';
import { chromium } from 'playwright-core';
import sharp from 'sharp';

const base = process.argv[2] ?? 'http://127.0.0.1:3210';
const out = 'docs/screenshots';
mkdirSync(out, { recursive: true });
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--use-angle=swiftshader',
    '--enable-unsafe-swiftshader',
    '--ignore-gpu-blocklist',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--no-first-run',
    '--disable-quic',
  ],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
// A furnished house is slowly drawn by the processor alone.
page.setDefaultTimeout(120_000);
const shot = async (name, wait = 4000) => {
  await page.waitForTimeout(wait);
  // Cards get their pictures one after another; whatever is in sight is waited for.
  await page.waitForFunction(() => !document.querySelector('[data-testid="ledge"] [data-testid="coming"]'));
  await page.screenshot({ path: `${out}/${name}.png`, timeout: 120_000 });
  console.log(name);
};
const stage = (name) => page.getByRole('navigation', { name: 'Stages' }).getByRole('button', { name }).click();
const room = (name) => page.getByRole('navigation', { name: 'Level and rooms' }).getByRole('button', { name }).click();

await page.goto(base);
await shot('projects');
await page.getByRole('link', { name: 'Open Heron Lock Cottage' }).click();
await page.locator('main[aria-busy="false"]').waitFor();
// The shell: a partition selected, its faces' lengths to be typed over; then the kitchen wall upright, a cell of a front in hand.
await stage('Shell');
await page.waitForTimeout(6000);
const plan = page.getByTestId('plan');
const box = await plan.boundingBox();
const [k, ox, oy] = (await plan.getAttribute('data-view')).split(' ').map(Number);
await page.mouse.click(box.x + ox + k * 4.22, box.y + oy - k * 4.4);
await shot('storey', 3000);
await page.mouse.click(box.x + ox + k * 8.5, box.y + oy - k * 6.8);
await page.getByTestId('docket').getByRole('button', { name: 'Elevation', exact: true }).click();
const upright = page.getByTestId('elevation');
await page.waitForTimeout(2000);
const wall = await upright.boundingBox();
const [up, ux, uy] = (await upright.getAttribute('data-view')).split(' ').map(Number);
// The first press takes the unit in hand, the second one of its cells.
for (let i = 0; i < 2; i++) await page.mouse.click(wall.x + ux + up * 1.3, wall.y + uy - up * 0.5);
await shot('elevation', 2000);
await page.getByRole('button', { name: 'Plan', exact: true }).click();
await page.keyboard.press('Escape');
// The house as a whole: from above, cut open, its upper floor, walked through.
const press = (name) => page.getByRole('button', { name, exact: true }).click();
const from = async (name) => {
  await page.getByRole('combobox', { name: 'From' }).click();
  await page.getByRole('option', { name }).click();
};
await press('Wide');
await press('Whole');
await from('isometric, south-east');
await shot('house', 6000);
await press('Shown');
await page.getByRole('combobox', { name: 'Section' }).click();
await page.getByRole('option', { name: 'across, south to north' }).click();
await page.getByRole('textbox', { name: 'Section at' }).fill('1500');
await page.keyboard.press('Enter');
await from('face-on from the south');
await shot('section', 6000);
await press('All as at first');
await press('Close');
await press('Beside the plan');
await press('Upper');
await page.keyboard.press('Escape');
await press('Stand back');
await room('Reading loft');
await press('Wide');
await press('Walk');
await shot('walk', 6000);
await page.keyboard.press('Escape');
await press('Beside the plan');
await press('Ground');
await page.keyboard.press('Escape');
await stage('Fit-out');
await press('Stand back');
await shot('table', 9000);
await stage('Light');
await shot('light', 4000);
await stage('Finishes');
await room('Living');
await page.getByTestId('ledge').getByRole('tab', { name: 'Timber' }).click();
await shot('finishes', 7000);
await page.keyboard.press('Escape');
// The walls of the hall unrolled; two schemes side by side.
await room('Hall');
await page.waitForTimeout(3000);
const [k2, ox2, oy2] = (await plan.getAttribute('data-view')).split(' ').map(Number);
await page.mouse.click(box.x + ox2 + k2 * 5.94, box.y + oy2 - k2 * 5.6);
await page.getByTestId('docket').getByRole('button', { name: 'In elevation' }).click();
await page.getByRole('switch', { name: 'all round the room' }).click();
await shot('unrolled', 5000);
await page.getByRole('button', { name: 'Plan', exact: true }).click();
await page.keyboard.press('Escape');
await press('Schemes');
await press('Side by side');
await shot('schemes', 15000);
await press('Close');
await room('Kitchen & dining');
await stage('Views');
await page
  .getByTestId('ledge')
  .getByRole('button', { name: /^Kitchen from/ })
  .click();
await shot('viewpoint', 7000);
await page.getByTestId('ledge').getByRole('tab', { name: 'Pictures' }).click();
await page
  .getByTestId('ledge')
  .getByRole('button', { name: /^Kitchen from the hall door, \d/ })
  .click();
await shot('picture');
await page.getByTestId('picture-panel').getByRole('button', { name: 'Close' }).click();
// Several at once; all round; the view at rest.
const ledge = page.getByTestId('ledge');
await page.getByRole('button', { name: 'Several', exact: true }).click();
await page.getByRole('radio', { name: 'Hours of one day' }).check();
await shot('several', 1500);
await page.getByRole('button', { name: 'Leave it' }).click();
const choose = async (label, option) => {
  await page.getByLabel(label, { exact: true }).first().locator('xpath=..').getByRole('combobox').first().click();
  await page.getByRole('option', { name: option }).first().click();
};
await choose('Picture size', /^All round, small/);
await choose('Picture quality', /^Look/);
await page.getByRole('button', { name: 'Render this view' }).click();
await page.getByTestId('render-panel').getByText('kept with the project').waitFor({ timeout: 900_000 });
await page.getByTestId('render-panel').getByRole('button', { name: 'Close' }).click();
await ledge
  .getByRole('button', { name: /^Kitchen from the hall door/ })
  .first()
  .click();
await page.frameLocator('iframe').locator('body[data-looking]').waitFor({ timeout: 60_000 });
await page.frameLocator('iframe').locator('canvas').focus();
for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowRight');
await shot('round', 1500);
await page.getByTestId('picture-panel').getByRole('button', { name: 'Close' }).click();
await press('True light');
await page.getByTestId('true-light-state').getByText(/of 64/).waitFor({ timeout: 300_000 });
await shot('rest', 60_000);
await press('True light');
await stage('Boards');
await page.getByTestId('item-sample').nth(4).click();
await shot('board', 6000);
await stage('Schedules');
await page.getByRole('tab', { name: 'Order list' }).click();
await shot('order', 4000);
await browser.close();

// The demo’s pictures as they are shown, on one sheet.
const { pictures } = (await (await fetch(`${base}/api/projects/heron-lock-cottage`)).json()).project;
const shown = Object.values(pictures)
  // Ids of those that were made in the meantime have numbers.
  .filter((p) => /^picture-[a-z-]+$/.test(p.id) && !p.shot?.round)
  .sort((a, b) => (a.made < b.made ? 1 : -1));
const [wide, high, gap] = [640, 400, 8];
const tiles = await Promise.all(
  shown.map(async (p, i) => ({
    input: await sharp(new Uint8Array(await (await fetch(`${base}/api/assets/${p.image}`)).arrayBuffer()))
      .resize(wide, high)
      .toBuffer(),
    left: (i % 2) * (wide + gap),
    top: Math.floor(i / 2) * (high + gap),
  })),
);
const rows = Math.ceil(tiles.length / 2);
await sharp({ create: { width: 2 * wide + gap, height: rows * (high + gap) - gap, channels: 3, background: '#F7F7F5' } })
  .composite(tiles)
  .png({ compressionLevel: 9, palette: true, quality: 90 })
  .toFile(`${out}/pictures.png`);
