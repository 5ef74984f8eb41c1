import { useEffect, useState } from 'react';
import * as THREE from 'three';
import { finishById } from '@/core/finishes/library';
import { makeParts, stockCard } from '@/core/stock/stock';

const made = new Map<string, Promise<string>>();
let renderer: THREE.WebGLRenderer | null = null;
let chain: Promise<unknown> = Promise.resolve();

/** A picture of a stock item on white, drawn from its own parts, one after another. */
function stockPicture(id: string, times: number): Promise<string> {
  const key = `${id} ${times}`;
  let picture = made.get(key);
  if (!picture) {
    picture = chain.then(() => new Promise<void>((done) => setTimeout(done, 0))).then(() => drawItem(id, times));
    chain = picture.catch(() => undefined);
    made.set(key, picture);
  }
  return picture;
}

async function drawItem(id: string, times: number): Promise<string> {
  const { item, size, traits, finishes } = stockCard(id)!;
  const [width, height] = [180 * times, 112 * times];
  renderer ??= new THREE.WebGLRenderer({ antialias: true, alpha: true, preserveDrawingBuffer: true });
  renderer.setSize(width, height, false);
  renderer.toneMapping = THREE.NeutralToneMapping;
  const scene = new THREE.Scene();
  const group = new THREE.Group();
  for (const { part, mesh } of makeParts(item, size, traits)) {
    const finish = finishById(finishes[part] ?? item.parts[part] ?? 'bare.plaster');
    const geometry = new THREE.BufferGeometry();
    geometry.setAttribute('position', new THREE.BufferAttribute(mesh.positions, 3));
    geometry.setAttribute('normal', new THREE.BufferAttribute(mesh.normals, 3));
    geometry.setIndex(new THREE.BufferAttribute(mesh.indices, 1));
    group.add(
      new THREE.Mesh(
        geometry,
        new THREE.MeshStandardMaterial({
          color: finish.colour,
          roughness: Math.max(0.3, finish.roughness),
          metalness: finish.metalness * 0.4,
          side: THREE.DoubleSide,
        }),
      ),
    );
  }
  scene.add(group, new THREE.HemisphereLight(0xffffff, 0xb8b5b0, 2.4));
  const key = new THREE.DirectionalLight(0xffffff, 2.6);
  key.position.set(-2, -3, 4);
  scene.add(key);
  const box = new THREE.Box3().setFromObject(group);
  const centre = box.getCenter(new THREE.Vector3());
  const r = box.getSize(new THREE.Vector3()).length() / 2;
  const camera = new THREE.PerspectiveCamera(26, width / height, 0.01, 50);
  camera.up.set(0, 0, 1);
  const low = item.mount === 'ceiling' ? -0.12 : 0.42;
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
export function useStockPicture(id: string, times = 1): string {
  const [url, setUrl] = useState('');
  useEffect(() => {
    let alive = true;
    void stockPicture(id, times).then((u) => alive && setUrl(u));
    return () => {
      alive = false;
    };
  }, [id, times]);
  return url;
}
