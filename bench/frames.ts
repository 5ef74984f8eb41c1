import { chromium } from '@playwright/test';
import { build } from 'esbuild';
import config from '../playwright.config';
import { PIECES } from './furnished';
import type { Frames } from './street.page';

const tell = ({ ms, calls, triangles, programs }: Frames): string =>
  `${ms.toFixed(0)} ms, ${Math.round(triangles / 1000)} 000 triangles, ${calls.toFixed(0)} calls, ${programs} programs`;

type Say = (what: string, ours: string, peer: string, ratio: number) => void;

/** Frames of a furnished house, and of a street of ten houses, in Chromium, with less detail where it is not seen, against all of it whole. */
export async function frames(say: Say): Promise<void> {
  const { outputFiles } = await build({
    entryPoints: ['bench/street.page.ts'],
    alias: { '@': './src' },
    bundle: true,
    write: false,
    format: 'iife',
    globalName: 'street',
    platform: 'browser',
    logLevel: 'error',
    // No worker is made here.
    define: { 'import.meta.url': '"about:blank"' },
  });
  const browser = await chromium.launch(config.use!.launchOptions);
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.addScriptTag({ content: outputFiles[0].text });
    const { empty, full } = await page.evaluate<Record<'empty' | 'full', Frames>>('street.furnishing()');
    say(`a frame of a house with ${PIECES} pieces (peer: the same house empty)`, tell(full), tell(empty), empty.ms / full.ms);
    const { whole, ...ways } = await page.evaluate<Record<'whole' | 'close' | 'moving', Frames>>('street.orbit()');
    for (const [name, way] of Object.entries(ways)) {
      const how = name === 'close' ? 'to 0.7 pixels' : 'to 3 pixels, while one moves';
      say(`a frame of ten houses ${how} (peer: all whole)`, tell(way), tell(whole), whole.ms / way.ms);
    }
  } finally {
    await browser.close();
  }
}
