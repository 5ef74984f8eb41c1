import { parentPort, workerData } from 'node:worker_threads';
import { heronLockCottage } from '@/core/demo/heron-lock';
import { deriveModel } from '@/core/model/derive';
import { FIREFLY, pictureScene } from '@/core/render/picture';
import { prepareScene } from '@/core/render/prepared';
import { Tracer } from '@/core/render/tracer';

/** Traces whole passes for a few seconds, after one to warm up, and tells how many samples it made. */
const project = heronLockCottage();
const [width, height] = [320, 200];
const tracer = new Tracer(prepareScene(pictureScene(deriveModel(project), 128)), {
  width,
  height,
  camera: project.viewpoints['view-kitchen'],
  seed: (workerData as { seed: number }).seed,
  clamp: FIREFLY,
});
tracer.pass();
const start = performance.now();
let passes = 0;
while (performance.now() - start < 4000) {
  tracer.pass();
  passes++;
}
parentPort!.postMessage({ samples: passes * width * height, seconds: (performance.now() - start) / 1000 });
