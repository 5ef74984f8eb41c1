import * as THREE from 'three';
import { heronLockCottage } from '@/core/demo/heron-lock';
import { Deriver } from '@/core/model/derive';
import { FIRST_LOOK } from '@/core/project/looks';
import { DrawnParts } from '@/studio/table/model/drawn';
import { plainMaterials } from '@/studio/table/model/testing';
import { coarserMeshes } from '@/workers/coarser-meshes';
import { APART, street } from './street';

/** What a way of drawing takes, means over an orbit. */
export interface Frames {
  ms: number;
  calls: number;
  triangles: number;
  programs: number;
}

const [WIDTH, HEIGHT, STEPS] = [1280, 800, 12];

/** An orbit about a street of ten houses: all whole; as closely as can be seen; as while one moves. */
export async function orbit(): Promise<Record<'whole' | 'close' | 'moving', Frames>> {
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
  parts.show(street(new Deriver().derive(heronLockCottage()), 10), FIRST_LOOK, false);
  parts.rest();
  await parts.coarsen(coarserMeshes, () => Promise.resolve());
  const view = new THREE.PerspectiveCamera(48, WIDTH / HEIGHT, 0.05, 900);
  view.up.set(0, 0, 1);
  const one = new Uint8Array(4);
  const gl = renderer.getContext();
  const drawn = (off: number | null): Frames => {
    const sum: Frames = { ms: 0, calls: 0, triangles: 0, programs: 0 };
    for (let i = -1; i < STEPS; i++) {
      // Before the first house, the street running away behind it.
      const turn = 3.9 + (0.9 * Math.max(0, i)) / STEPS;
      view.position.set(12 + 22 * Math.cos(turn), 22 * Math.sin(turn), 9);
      view.lookAt(APART, 0, 1);
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
  return { whole: drawn(null), close: drawn(0.7), moving: drawn(3) };
}
