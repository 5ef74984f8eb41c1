import { luminance } from '@/core/finishes/colour';
import { cleanPicture } from '@/core/render/denoiser/picture';
import { develop } from '@/core/render/development';
import { Film } from '@/core/render/film';
import { FIREFLY } from '@/core/render/picture';
import { meterExposure } from '@/core/render/tone';
import { Tracer } from '@/core/render/tracer';
import { preparedView, reference, SIZE, VIEWS, type ViewName } from './references/views';

type Say = (what: string, ours: string, peer: string, ratio: number) => void;

/** Seconds of one core that a picture is given. */
const BUDGETS = [4, 16] as const;

/** Pictures cleaned and as traced, for the same time of one core, against references; what cleaning takes is taken off what is traced. */
export async function pictures(say: Say): Promise<void> {
  for (const name of VIEWS) {
    const truth = reference(name).radiance;
    const { scene, camera } = preparedView(name);
    const tracer = new Tracer(scene, { ...SIZE, camera, seed: 3, clamp: FIREFLY });
    tracer.pass();
    const from = performance.now();
    await cleanPicture(new Film(tracer.exposed()).mean(), new Film(tracer.exposed()).guides(), SIZE.width, SIZE.height);
    const cleaning = (performance.now() - from) / 1000;
    for (const budget of BUDGETS) {
      const plain = traced(tracer, budget);
      const rest = traced(tracer, Math.max(0, budget - cleaning));
      const clean = await cleanPicture(rest.film.mean(), rest.film.guides(), SIZE.width, SIZE.height);
      tell(say, name, budget, compared(plain.film.mean(), truth), compared(clean, truth), rest.samples);
    }
  }
}

function traced(tracer: Tracer, seconds: number): { film: Film; samples: number } {
  tracer.clear();
  const until = performance.now() + seconds * 1000;
  let samples = 0;
  do tracer.pass(samples++);
  while (performance.now() < until);
  return { film: new Film(tracer.exposed()), samples };
}

function tell(say: Say, name: ViewName, budget: number, plain: Compared, clean: Compared, samples: number): void {
  const text = ({ error, blotches, likeness }: Compared): string => `${error.toFixed(4)} / ${blotches.toFixed(4)} / ${likeness.toFixed(3)}`;
  say(
    `${name}, ${budget} s of a core (${samples} samples): relative error / of 4 × 4 means / SSIM of 2 × 2 means, cleaned (peer: as traced)`,
    text(clean),
    text(plain),
    plain.error / clean.error,
  );
}

interface Compared {
  /** Mean square of the difference over the square of the reference, of pixels and of means of 4 × 4. */
  error: number;
  blotches: number;
  /** Structural similarity (Wang and others 2004) of means of 2 × 2, as developed. */
  likeness: number;
}

function compared(picture: Float32Array, truth: Float32Array): Compared {
  const [own, other] = [picture, truth].map((p) => Float32Array.from({ length: p.length / 3 }, (_, i) => luminance([p[i * 3], p[i * 3 + 1], p[i * 3 + 2]])));
  const ev = meterExposure(truth);
  const shown = (p: Float32Array): Float32Array => {
    const pixels = develop(p, ev);
    return Float32Array.from({ length: pixels.length / 4 }, (_, i) => 0.2126 * pixels[i * 4] + 0.7152 * pixels[i * 4 + 1] + 0.0722 * pixels[i * 4 + 2]);
  };
  return {
    error: relative(own, other),
    blotches: relative(means(own, 4), means(other, 4)),
    likeness: ssim(means(shown(picture), 2), means(shown(truth), 2), SIZE.width / 2),
  };
}

/** Means of squares of so many pixels. */
function means(values: Float32Array, step: number): Float32Array {
  const [w, h] = [SIZE.width / step, SIZE.height / step];
  const out = new Float32Array(w * h);
  for (let y = 0; y < h * step; y++)
    for (let x = 0; x < w * step; x++) out[Math.floor(y / step) * w + Math.floor(x / step)] += values[y * SIZE.width + x] / step ** 2;
  return out;
}

/** A hundredth of the mean is added below the line: what is black would count for everything. */
function relative(own: Float32Array, other: Float32Array): number {
  const floor = (0.01 * other.reduce((a, b) => a + b, 0)) / other.length;
  return own.reduce((sum, v, i) => sum + (v - other[i]) ** 2 / (other[i] ** 2 + floor ** 2), 0) / own.length;
}

/** Over windows of 8 × 8, four pixels apart. */
function ssim(a: Float32Array, b: Float32Array, width: number): number {
  const height = a.length / width;
  const [c1, c2] = [(0.01 * 255) ** 2, (0.03 * 255) ** 2];
  let [sum, count] = [0, 0];
  for (let y = 0; y + 8 <= height; y += 4)
    for (let x = 0; x + 8 <= width; x += 4) {
      let [ma, mb, aa, bb, ab] = [0, 0, 0, 0, 0];
      for (let j = 0; j < 8; j++)
        for (let i = 0; i < 8; i++) {
          const [p, q] = [a[(y + j) * width + x + i], b[(y + j) * width + x + i]];
          ma += p / 64;
          mb += q / 64;
          aa += (p * p) / 64;
          bb += (q * q) / 64;
          ab += (p * q) / 64;
        }
      const [va, vb, vab] = [aa - ma * ma, bb - mb * mb, ab - ma * mb];
      sum += ((2 * ma * mb + c1) * (2 * vab + c2)) / ((ma * ma + mb * mb + c1) * (va + vb + c2));
      count++;
    }
  return sum / count;
}
