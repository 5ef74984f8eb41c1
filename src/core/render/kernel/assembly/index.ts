// The tracer in WebAssembly: rays, surfaces, lights and paths. AssemblyScript, compiled with SIMD by scripts/build-kernel.mjs.
import { prepareLights } from './lights';
import { preparePaths } from './paths';
import { configureScene } from './scene';

export { alloc } from './scene';
export { closest, occluded } from './hierarchy';
export { configurePaths, nearestRays, shadowRays, trace } from './paths';
export { drawn, scattering, scattered } from './probes';

/** Takes over a scene whose parts lie in memory; once. @param p their places, as `scene.ts` reads them */
export function setScene(p: usize): void {
  configureScene(p);
  prepareLights();
  preparePaths();
}
