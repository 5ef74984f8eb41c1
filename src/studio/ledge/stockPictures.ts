import { useCallback, useEffect, useState } from 'react';
import * as THREE from 'three';
import { finishById } from '@/core/finishes/library';
import type { Mesh } from '@/core/geometry/mesh';
import type { PieceSet } from '@/core/project/piece-set';
import type { Finish } from '@/core/project/schema';
import { makeParts, stockCard, stockItem } from '@/core/stock/stock';

const made = new Map<string, Promise<string>>();
let renderer: THREE.WebGLRenderer | null = null;
let chain: Promise<unknown> = Promise.resolve();

/** Something drawn after all that was asked for before, once. */
function drawnOnce(key: string, draw: () => Promise<string>): Promise<string> {
  let picture = made.get(key);
  if (!picture) {
    picture = chain.then(() => new Promise<void>((done) => setTimeout(done, 0))).then(draw);
    chain = picture.catch(() => undefined);
    made.set(key, picture);
  }
  return picture;
}

/** A mesh in the middle colour of a finish. */
function painted({ positions, normals, indices }: Mesh, finish: Finish): THREE.Mesh {
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', new THREE.BufferAttribute(positions, 3));
  geometry.setAttribute('normal', new THREE.BufferAttribute(normals, 3));
  geometry.setIndex(new THREE.BufferAttribute(indices, 1));
  const material = new THREE.MeshStandardMaterial({
    color: finish.colour,
    roughness: Math.max(0.3, finish.roughness),
    metalness: finish.metalness * 0.4,
    side: THREE.DoubleSide,
  });
  return new THREE.Mesh(geometry, material);
}

/** A picture of a stock item on white, drawn from its own parts. */
const stockPicture = (id: string, times: number): Promise<string> =>
  drawnOnce(`${id} ${times}`, async () => {
    const { item, size, traits, finishes } = stockCard(id)!;
    const group = new THREE.Group();
    for (const { part, mesh } of makeParts(item, size, traits)) group.add(painted(mesh, finishById(finishes[part] ?? item.parts[part] ?? 'bare.plaster')));
    return drawItem(group, times, item.mount === 'ceiling' ? -0.12 : 0.42);
  });

/** A picture of the pieces of a set, as they stand to one another. */
const setPicture = (id: string, { pieces, finishes }: PieceSet): Promise<string> =>
  drawnOnce(`set ${id}`, async () => {
    const own = new Map(finishes.map((f) => [f.id, f]));
    const group = new THREE.Group();
    for (const piece of pieces) {
      const item = stockItem(piece.maker);
      if (!item) continue;
      const stands = new THREE.Group();
      stands.position.set(piece.x, piece.y, piece.elevation);
      stands.rotation.z = piece.rotation;
      for (const { part, mesh } of makeParts(item, piece.size, piece.traits, undefined, piece.open, piece.mirrored)) {
        const finish = piece.finishes[part] ?? item.parts[part] ?? 'bare.plaster';
        stands.add(painted(mesh, own.get(finish) ?? finishById(finish)));
      }
      group.add(stands);
    }
    return drawItem(group, 1, 0.42);
  });

function drawItem(group: THREE.Group, times: number, low: number): string {
  const [width, height] = [180 * times, 112 * times];
  renderer ??= new THREE.WebGLRenderer({ antialias: true, alpha: true, preserveDrawingBuffer: true });
  renderer.setSize(width, height, false);
  renderer.toneMapping = THREE.NeutralToneMapping;
  const scene = new THREE.Scene();
  scene.add(group, new THREE.HemisphereLight(0xffffff, 0xb8b5b0, 2.4));
  const key = new THREE.DirectionalLight(0xffffff, 2.6);
  key.position.set(-2, -3, 4);
  scene.add(key);
  const box = new THREE.Box3().setFromObject(group);
  const centre = box.getCenter(new THREE.Vector3());
  const r = box.getSize(new THREE.Vector3()).length() / 2;
  const camera = new THREE.PerspectiveCamera(26, width / height, 0.01, 50);
  camera.up.set(0, 0, 1);
  const d = r / Math.sin((13 * Math.PI) / 180);
  const view = new THREE.Vector3(-0.5, -0.86, low).normalize().multiplyScalar(d * 0.98);
  camera.position.copy(centre).add(view);
  camera.lookAt(centre);
  renderer.render(scene, camera);
  const url = renderer.domElement.toDataURL('image/png');
  group.traverse((o) => {
    if (o instanceof THREE.Mesh) {
      (o.geometry as THREE.BufferGeometry).dispose();
      (o.material as THREE.Material).dispose();
    }
  });
  return url;
}

/** The picture of a stock item, empty until it is drawn. @param times how much larger than on a card */
export const useStockPicture = (id: string, times = 1): string => usePicture(useCallback(() => stockPicture(id, times), [id, times]));

/** The picture of a set, empty until it is drawn. */
export const useSetPicture = (id: string, set: PieceSet): string => usePicture(useCallback(() => setPicture(id, set), [id, set]));

function usePicture(draw: () => Promise<string>): string {
  const [url, setUrl] = useState('');
  useEffect(() => {
    let alive = true;
    void draw().then((u) => alive && setUrl(u));
    return () => {
      alive = false;
    };
  }, [draw]);
  return url;
}
