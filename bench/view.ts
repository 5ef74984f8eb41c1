import * as THREE from 'three';
import { heronLockCottage } from '@/core/demo/heron-lock';
import { Deriver } from '@/core/model/derive';
import { DrawnParts } from '@/studio/table/model/drawn';
import { plainMaterials } from '@/studio/table/model/testing';
import { FIRST_LOOK } from '@/core/project/looks';
import { street } from './street';

type Say = (what: string, ours: string, peer: string, ratio: number) => void;

/** Draw calls and geometry of the view, all parts showing, against one call and one copy a part. */
export function view(say: Say): void {
  const model = new Deriver().derive(heronLockCottage());
  for (const houses of [1, 10]) {
    const scene = new THREE.Group();
    const parts = new DrawnParts(scene, plainMaterials());
    parts.show(houses === 1 ? model : street(model, houses), FIRST_LOOK, true);
    const alone = scene.children.length;
    const bytes = parts.bytes;
    let copies = 0;
    for (const { source } of parts) copies += source.positions.byteLength * (8 / 3) + source.indices.byteLength;
    const start = performance.now();
    parts.rest();
    const packing = performance.now() - start;
    const name = houses === 1 ? 'the demo' : `${houses} demos side by side`;
    say(`draw calls of ${name} (peer: one a part)`, String(scene.children.length), String(alone), alone / scene.children.length);
    const mb = (b: number): string => `${(b / 1e6).toFixed(1)} MB`;
    say(`geometry of ${name} on the card (peer: a copy a part)`, mb(parts.bytes), mb(copies), copies / parts.bytes);
    say(`packing ${name} once it rests (peer: 16 ms; unpacked: ${mb(bytes)})`, `${packing.toFixed(1)} ms`, '16 ms', 16 / packing);
    parts.dispose();
  }
}
