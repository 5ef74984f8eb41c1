import { expose } from 'comlink';
import * as THREE from 'three';
import { finishById } from '@/core/finishes/library';
import type { Mesh } from '@/core/geometry/mesh';
import type { PieceSet } from '@/core/project/piece-set';
import type { Finish } from '@/core/project/schema';
import { makeParts, stockItem } from '@/core/stock/stock';

/** What is shown of a piece. */
export type Shown = Pick<PieceSet['pieces'][number], 'maker' | 'size' | 'traits' | 'finishes' | 'x' | 'y' | 'elevation' | 'rotation' | 'open' | 'mirrored'>;

let renderer: THREE.WebGLRenderer | null = null;

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

function standing(piece: Shown, own: ReadonlyMap<string, Finish>): THREE.Group | null {
  const item = stockItem(piece.maker);
  if (!item) return null;
  const group = new THREE.Group();
  group.position.set(piece.x, piece.y, piece.elevation);
  group.rotation.z = piece.rotation;
  for (const { part, mesh } of makeParts(item, piece.size, piece.traits, undefined, piece.open, piece.mirrored)) {
    const finish = piece.finishes[part] ?? item.parts[part] ?? 'bare.plaster';
    group.add(painted(mesh, own.get(finish) ?? finishById(finish)));
  }
  return group;
}

const service = {
  /**
   * A picture of pieces on nothing, as they stand to one another, as PNG.
   *
   * @param own finishes of theirs that do not ship @param times how much larger than on a card
   * @param low how far from below the eye looks, as a share of its way
   */
  picture(pieces: Shown[], own: Finish[], times: number, low: number): Promise<Blob> {
    const [width, height] = [180 * times, 112 * times];
    renderer ??= new THREE.WebGLRenderer({ canvas: new OffscreenCanvas(width, height), antialias: true, alpha: true, preserveDrawingBuffer: true });
    renderer.setSize(width, height, false);
    renderer.toneMapping = THREE.NeutralToneMapping;
    const finishes = new Map(own.map((f) => [f.id, f]));
    const group = new THREE.Group();
    group.add(...pieces.flatMap((p) => standing(p, finishes) ?? []));
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
    group.traverse((o) => {
      if (!(o instanceof THREE.Mesh)) return;
      (o.geometry as THREE.BufferGeometry).dispose();
      (o.material as THREE.Material).dispose();
    });
    return (renderer.domElement as unknown as OffscreenCanvas).convertToBlob({ type: 'image/png' });
  },
};

export type CardPictureService = typeof service;

expose(service);
