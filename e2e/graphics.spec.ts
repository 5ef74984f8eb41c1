import { chromium } from '@playwright/test';
import { build } from 'esbuild';
import { expect, test } from './test';

/** What the page does: the same grainy room cleaned in two strips by both ways, and whether an imitated card is left alone. */
const PAGE = `
import { cleanPicture, shippedWeights } from '@/core/render/denoiser/picture';
import { graphicsRunner } from '@/workers/graphics-network';

export async function compare(width, height) {
  const [radiance, guides] = [new Float32Array(width * height * 3), new Float32Array(width * height * 6)];
  let seed = 1;
  const random = () => (seed = (seed * 16807) % 2147483647) / 2147483647;
  for (let p = 0; p < width * height; p++) {
    const [x, y] = [p % width, Math.floor(p / width)];
    const left = x < width / 2;
    const bright = x > width * 0.7 && y < height * 0.3;
    for (let c = 0; c < 3; c++) {
      radiance[p * 3 + c] = (bright ? 4000 : left ? 180 : 0.4) * (0.2 - 0.8 * Math.log(1 - random()));
      guides[p * 6 + c] = left ? 0.7 : 0.3 + 0.1 * c;
      guides[p * 6 + 3 + c] = c === (left ? 0 : 1) ? (left ? 1 : -1) : 0;
    }
  }
  const usual = await graphicsRunner(shippedWeights());
  const make = await graphicsRunner(shippedWeights(), true);
  if (!make) return null;
  const own = await cleanPicture(radiance, guides, width, height, { tile: 48 * 288 });
  const card = await cleanPicture(radiance, guides, width, height, { tile: 48 * 288, make });
  const again = await cleanPicture(radiance, guides, width, height, { tile: 48 * 288, make });
  let worst = 0;
  own.forEach((v, i) => (worst = Math.max(worst, Math.abs(card[i] / v - 1))));
  return { worst, same: again.every((v, i) => v === card[i]), usual: usual !== null };
}
`;

test('the graphics card cleans a picture as the processor does, and one that is only imitated is left alone', async ({ baseURL }) => {
  const { outputFiles } = await build({
    stdin: { contents: PAGE, resolveDir: process.cwd(), loader: 'ts' },
    alias: { '@': './src' },
    bundle: true,
    write: false,
    format: 'iife',
    globalName: 'cleaning',
    platform: 'browser',
  });
  // Chromium brings a card of the processor’s: what is worked out on it is what the shaders say.
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--enable-unsafe-webgpu', '--use-webgpu-adapter=swiftshader', '--disable-background-networking', '--no-first-run'],
  });
  try {
    const page = await browser.newPage();
    await page.goto(baseURL!);
    await page.addScriptTag({ content: outputFiles[0].text });
    // Sides that no tile fits, and two strips that overlap.
    const found = await page.evaluate<{ worst: number; same: boolean; usual: boolean } | null>('cleaning.compare(37, 395)');
    expect(found).not.toBeNull();
    // Light is decoded through a steep curve: a thousandth of it is what is left of rounding.
    expect(found!.worst).toBeLessThan(1e-4);
    expect(found!.same).toBe(true);
    expect(found!.usual).toBe(false);
  } finally {
    await browser.close();
  }
});
