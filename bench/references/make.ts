import { mkdirSync, writeFileSync } from 'node:fs';
import { writeExr } from '@/core/formats/exr/exr';
import { luminance } from '@/core/finishes/colour';
import { Film } from '@/core/render/film';
import { FIREFLY } from '@/core/render/picture';
import { Tracer } from '@/core/render/tracer';
import { preparedView, SIZE, UNIT, VIEWS } from './views';

/**
 * Makes the pictures others are measured by: nothing is cut from them, and how uncertain each pixel still is, is kept with it,
 * as well as what the limit of pictures would have taken. It takes hours: npm run references -- SAMPLES FOLDER VIEW…
 */
const samples = Number(process.argv[2] ?? 1024);
const folder = process.argv[3] ?? 'bench/references';
mkdirSync(folder, { recursive: true });
for (const name of VIEWS.filter((v) => process.argv.length < 5 || process.argv.includes(v, 4))) {
  const { scene, camera } = preparedView(name);
  const tracer = new Tracer(scene, { ...SIZE, camera, seed: 90_001, clamp: FIREFLY, watched: true });
  const from = performance.now();
  for (let pass = 1; pass <= samples; pass++) {
    tracer.pass();
    if (pass % 64 === 0 || pass === samples) keep(name, tracer, pass);
  }
  process.stdout.write(`${name}: ${samples} samples a pixel in ${((performance.now() - from) / 1000).toFixed(0)} s\n`);
}

function keep(name: string, tracer: Tracer, pass: number): void {
  const film = new Film(tracer.exposed());
  const [mean, variance, taken] = [film.mean(), film.variance(), tracer.taken()];
  const pixels = SIZE.width * SIZE.height;
  const plane = (of: (i: number) => number): Float32Array => Float32Array.from({ length: pixels }, (_, i) => of(i));
  const cut = (i: number): number => luminance([taken[i * 4], taken[i * 4 + 1], taken[i * 4 + 2]]) / pass;
  const bytes = writeExr({
    ...SIZE,
    channels: [
      ...['R', 'G', 'B'].map((channel, c) => ({
        name: channel,
        type: 'half' as const,
        data: plane((i) => (mean[i * 3 + c] + taken[i * 4 + c] / pass) / UNIT),
      })),
      { name: 'error', type: 'half', data: plane((i) => Math.sqrt(variance[i]) / UNIT) },
      { name: 'cut', type: 'half', data: plane((i) => cut(i) / UNIT) },
    ],
    notes: { samples: String(pass), unit: 'thousands of cd/m²' },
  });
  writeFileSync(`${folder}/${name}.exr`, bytes);
}
