import * as THREE from 'three';
import { heronLockCottage } from '@/core/demo/heron-lock';
import { Deriver } from '@/core/model/derive';
import type { Model } from '@/core/model/model';
import { FIRST_LOOK } from '@/core/project/looks';
import { DrawnParts } from '@/studio/table/model/drawn';
import { plainMaterials } from '@/studio/table/model/testing';
import { coarserMeshes } from '@/workers/coarser-meshes';
import { houses } from './furnished';
import { APART, street } from './street';

/** What a way of drawing takes, means over an orbit. */
export interface Frames {
  ms: number;
  calls: number;
  triangles: number;
  programs: number;
}

const [WIDTH, HEIGHT, STEPS] = [1280, 800, 12];

/** Where the eye stands at a share of an orbit, and what it looks at. */
type Orbit = (share: number) => { eye: [number, number, number]; at: [number, number, number] };

/** An orbit about a street of ten houses, the street running away behind the first: all whole; as closely as can be seen; as while one moves. */
export const orbit = (): Promise<Record<'whole' | 'close' | 'moving', Frames>> =>
  drawn(street(new Deriver().derive(heronLockCottage()), 10), (share) => {
    const turn = 3.9 + 0.9 * share;
    return { eye: [12 + 22 * Math.cos(turn), 22 * Math.sin(turn), 9], at: [APART, 0, 1] };
  });

/** An orbit about a house with nothing in it, and with 300 pieces. */
export async function furnishing(): Promise<{ empty: Frames; full: Frames }> {
  const about: Orbit = (share) => ({ eye: [5 + 11 * Math.cos(4 + share), 3.5 + 11 * Math.sin(4 + share), 9], at: [5, 3.5, 1] });
  const { empty, full } = houses();
  const close = async (p: typeof empty): Promise<Frames> => (await drawn(new Deriver().derive(p), about)).close;
  return { empty: await close(empty), full: await close(full) };
}

async function drawn(model: Model, where: Orbit): Promise<Record<'whole' | 'close' | 'moving', Frames>> {
  const canvas = document.createElement('canvas');
  document.body.append(canvas);
  const renderer = new THREE.WebGLRenderer({ canvas, antialias: true });
  renderer.setSize(WIDTH, HEIGHT);
  const scene = new THREE.Scene();
  scene.background = new THREE.Color(0xe6e6e3);
  const sun = new THREE.DirectionalLight(0xffffff, 2);
  sun.position.set(20, -30, 40);
  scene.add(sun, new THREE.HemisphereLight(0xffffff, 0x888888, 1));
  const parts = new DrawnParts(scene, plainMaterials());
  parts.show(model, FIRST_LOOK, false);
  parts.rest();
  await parts.coarsen(coarserMeshes, () => Promise.resolve());
  const view = new THREE.PerspectiveCamera(48, WIDTH / HEIGHT, 0.05, 900);
  view.up.set(0, 0, 1);
  const one = new Uint8Array(4);
  const gl = renderer.getContext();
  const by = (off: number | null): Frames => {
    const sum: Frames = { ms: 0, calls: 0, triangles: 0, programs: 0 };
    for (let i = -1; i < STEPS; i++) {
      const { eye, at } = where(Math.max(0, i) / STEPS);
      view.position.set(...eye);
      view.lookAt(...at);
      view.updateMatrixWorld();
      const start = performance.now();
      parts.fit(off === null ? null : { view, height: HEIGHT, off, least: off });
      renderer.render(scene, view);
      gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, one);
      // The first makes shaders ready.
      if (i < 0) continue;
      sum.ms += (performance.now() - start) / STEPS;
      sum.calls += renderer.info.render.calls / STEPS;
      sum.triangles += renderer.info.render.triangles / STEPS;
    }
    sum.programs = renderer.info.programs!.length;
    return sum;
  };
  const frames = { whole: by(null), close: by(0.7), moving: by(3) };
  parts.dispose();
  renderer.dispose();
  canvas.remove();
  return frames;
}
