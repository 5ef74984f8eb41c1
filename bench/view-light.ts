import sharp from 'sharp';
import { heronLockCottage } from '@/core/demo/heron-lock';
import { luminance, toLinear } from '@/core/finishes/colour';
import { usualWhite } from '@/core/light/white';
import { deriveModel } from '@/core/model/derive';
import { cleanPicture } from '@/core/render/denoiser/picture';
import { develop } from '@/core/render/development';
import { Film } from '@/core/render/film';
import { FIREFLY, pictureScene } from '@/core/render/picture';
import { prepareScene } from '@/core/render/prepared';
import { cameraOf, shotFrom } from '@/core/render/shot';
import { Tracer } from '@/core/render/tracer';
import { inChromium } from './opening';

type Say = (what: string, ours: string, peer: string, ratio: number) => void;

/** Viewpoints that are compared. */
const VIEWS = ['Kitchen from the hall door', 'Living room', 'Shower room', 'Reading loft', 'Workshop', 'From the towpath'];

/** What is wanted: median and nine tenths of the differences of log luminance, stops. */
const WANTED = { median: 0.5, tenth: 1.5 } as const;

const SAMPLES = 24;
/** Display values below this are black to any eye, linear. */
const BLACK = 2e-3;

interface Seen {
  png: Buffer;
  /** EV the view shows it at. */
  ev: number;
}

/** The 3D view of the built application against traced pictures of the same sight at the same exposure, as both are shown. */
export async function viewLight(say: Say): Promise<void> {
  const seen = await inChromium(async (browser, address) => {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.addInitScript(() => localStorage.setItem('enstegon.true-light', 'off'));
    await page.goto(`${address}/project/heron-lock-cottage`);
    await page.locator('main[aria-busy="false"]').waitFor();
    await page.getByRole('button', { name: 'Whole', exact: true }).click();
    await page.getByRole('navigation', { name: 'Stages' }).getByRole('button', { name: 'Views' }).click();
    const canvas = page.getByTestId('model').locator('canvas').first();
    const out: Seen[] = [];
    for (const name of VIEWS) {
      await page
        .getByTestId('ledge')
        .getByRole('button', { name: new RegExp(`^${name}`) })
        .first()
        .click();
      // The first waits for the light to be gathered; all for textures.
      await page.waitForTimeout(out.length ? 6000 : 25_000);
      const url = await canvas.evaluate((c: HTMLCanvasElement) => c.toDataURL('image/png'));
      out.push({ png: Buffer.from(url.split(',')[1], 'base64'), ev: Number(await canvas.getAttribute('data-exposure')) });
    }
    return out;
  });
  const project = heronLockCottage();
  const model = deriveModel(project);
  for (const [i, name] of VIEWS.entries()) {
    const size = await sharp(seen[i].png).metadata();
    const [width, height] = [size.width >> 1, size.height >> 1];
    const shot = shotFrom(Object.values(project.viewpoints).find((v) => v.name === name)!);
    const tracer = new Tracer(prepareScene(pictureScene(model, 256, shot.looking)), { width, height, camera: cameraOf(model, shot), seed: 1, clamp: FIREFLY });
    for (let n = 0; n < SAMPLES; n++) tracer.pass();
    const film = new Film(tracer.exposed());
    const truth = develop(await cleanPicture(film.mean(), film.guides(), width, height), seen[i].ev, usualWhite(project.site));
    const own = await sharp(seen[i].png).removeAlpha().resize(width, height, { fit: 'fill' }).raw().toBuffer();
    const shown = (p: ArrayLike<number>, k: number): number =>
      Math.max(BLACK, luminance([toLinear(p[k] / 255), toLinear(p[k + 1] / 255), toLinear(p[k + 2] / 255)]));
    const apart = Array.from({ length: width * height }, (_, k) => Math.abs(Math.log2(shown(own, k * 3) / shown(truth, k * 4)))).sort((a, b) => a - b);
    const at = (share: number): number => apart[Math.floor(share * (apart.length - 1))];
    say(
      `the 3D view against a traced picture, ${name}, EV ${seen[i].ev}: stops apart, median and nine tenths (peer: what is wanted)`,
      `${at(0.5).toFixed(2)} / ${at(0.9).toFixed(2)}`,
      `${WANTED.median} / ${WANTED.tenth}`,
      Math.min(WANTED.median / at(0.5), WANTED.tenth / at(0.9)),
    );
  }
}
