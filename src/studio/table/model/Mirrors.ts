import * as THREE from 'three';
import { Reflector } from 'three/examples/jsm/objects/Reflector.js';
import type { Vec3 } from '@/core/geometry/vec';
import type { Drawn } from './drawn';

/** What reflects like a mirror: bare metal that is polished. */
const MIRROR = { metalness: 0.9, roughness: 0.06 } as const;

/** The smallest face that shows an image, m²; and the least share of a mesh it makes up. */
const LEAST = { area: 0.02, share: 0.3 } as const;

/** Most mirrors that show what stands before them, each drawn once more. */
const MOST = 2;

/** Pixels of an image, across and up. */
const IMAGE = 768;

/** How far before its face an image lies, metres. */
const BEFORE = 5e-4;

const SHADER = {
  name: 'MirrorImage',
  uniforms: { color: { value: null }, tDiffuse: { value: null }, textureMatrix: { value: null } },
  vertexShader: /* glsl */ `
    uniform mat4 textureMatrix;
    varying vec4 place;
    void main() {
      place = textureMatrix * vec4( position, 1.0 );
      gl_Position = projectionMatrix * modelViewMatrix * vec4( position, 1.0 );
    }`,
  fragmentShader: /* glsl */ `
    uniform vec3 color;
    uniform sampler2D tDiffuse;
    varying vec4 place;
    void main() {
      // The image is as it is shown already; so is what the mirror takes of it.
      gl_FragColor = vec4( pow( color, vec3( 1.0 / 2.2 ) ) * texture2DProj( tDiffuse, place ).rgb, 1.0 );
    }`,
};

/** A flat face: its triangles in its own plane, and where that lies in the world. */
export interface Face {
  /** x, y and 0 of each corner, three to a triangle. */
  positions: Float32Array;
  matrix: THREE.Matrix4;
  /** m² */
  area: number;
}

/** The largest flat face of a mesh; null where none is large enough to show an image. */
export function largestFace(geometry: THREE.BufferGeometry, world: THREE.Matrix4): Face | null {
  const position = geometry.getAttribute('position');
  const index = geometry.getIndex();
  const count = (index ?? position).count;
  const corner = (i: number): THREE.Vector3 => new THREE.Vector3().fromBufferAttribute(position, index ? index.getX(i) : i).applyMatrix4(world);
  const mirrored = world.determinant() < 0;
  const planes = new Map<string, { normal: THREE.Vector3; area: number; corners: THREE.Vector3[] }>();
  let all = 0;
  for (let i = 0; i < count; i += 3) {
    const [a, b, c] = [corner(i), corner(i + (mirrored ? 2 : 1)), corner(i + (mirrored ? 1 : 2))];
    const normal = b.clone().sub(a).cross(c.clone().sub(a));
    const area = normal.length() / 2;
    if (!(area > 1e-9)) continue;
    all += area;
    normal.normalize();
    const key = [normal.x, normal.y, normal.z, normal.dot(a)].map((v) => Math.round(v * 500)).join(' ');
    const plane = planes.get(key) ?? { normal, area: 0, corners: [] };
    planes.set(key, plane);
    plane.area += area;
    plane.corners.push(a, b, c);
  }
  const best = [...planes.values()].reduce<{ normal: THREE.Vector3; area: number; corners: THREE.Vector3[] } | null>(
    (m, p) => (m && m.area >= p.area ? m : p),
    null,
  );
  if (!best || best.area < LEAST.area || best.area < LEAST.share * all) return null;
  const z = best.normal;
  const x = new THREE.Vector3(-z.y, z.x, 0);
  if (x.lengthSq() < 1e-6) x.set(1, 0, 0);
  x.normalize();
  const y = z.clone().cross(x);
  const origin = best.corners.reduce((sum, p) => sum.add(p), new THREE.Vector3()).divideScalar(best.corners.length);
  const positions = new Float32Array(best.corners.length * 3);
  best.corners.forEach((p, i) => {
    const d = p.clone().sub(origin);
    positions.set([d.dot(x), d.dot(y), 0], i * 3);
  });
  return { positions, area: best.area, matrix: new THREE.Matrix4().makeBasis(x, y, z).setPosition(origin.addScaledVector(z, BEFORE)) };
}

const isMirror = ({ finish, way }: Drawn): boolean => finish.metalness > MIRROR.metalness && finish.roughness < MIRROR.roughness && way.startsWith('finishes');

/** The images in the mirrors of the view: what stands before them, drawn once more as they see it. */
export class Mirrors {
  readonly group = new THREE.Group();
  private readonly made = new Map<Drawn, { source: unknown; matrix: unknown; image: Reflector | null }>();

  /** @param before called before an image is drawn @param after called behind it */
  constructor(
    private readonly before: () => void,
    private readonly after: () => void,
  ) {}

  /** Whether there are any. */
  get any(): boolean {
    return this.group.children.length > 0;
  }

  /** Brings the mirrors in step with what is drawn. */
  show(parts: Iterable<Drawn>): void {
    const gone = new Set(this.made.keys());
    for (const drawn of parts) {
      if (!isMirror(drawn)) continue;
      const known = this.made.get(drawn);
      if (known?.source === drawn.source && known.matrix === drawn.matrix) {
        gone.delete(drawn);
        continue;
      }
      if (known) this.drop(drawn);
      gone.delete(drawn);
      const face = largestFace(drawn.object.geometry, drawn.object.matrix);
      this.made.set(drawn, { source: drawn.source, matrix: drawn.matrix, image: face && this.make(face, drawn) });
    }
    for (const drawn of gone) this.drop(drawn);
  }

  /** Chooses the mirrors whose image is drawn: those nearest to the eye that it sees the face of. @param from null: none */
  look(from: Vec3 | null): void {
    const eye = from && new THREE.Vector3().copy(from);
    const seen: { image: Reflector; far: number }[] = [];
    for (const [drawn, { image }] of this.made) {
      if (!image) continue;
      image.visible = false;
      if (!eye || !drawn.object.visible) continue;
      const [at, normal] = [new THREE.Vector3().setFromMatrixPosition(image.matrixWorld), new THREE.Vector3().setFromMatrixColumn(image.matrixWorld, 2)];
      if (eye.clone().sub(at).dot(normal) > 0) seen.push({ image, far: eye.distanceTo(at) });
    }
    for (const { image } of seen.sort((a, b) => a.far - b.far).slice(0, MOST)) image.visible = true;
  }

  private make(face: Face, { finish }: Drawn): Reflector {
    const geometry = new THREE.BufferGeometry();
    geometry.setAttribute('position', new THREE.BufferAttribute(face.positions, 3));
    const image = new Reflector(geometry, { textureWidth: IMAGE, textureHeight: IMAGE, shader: SHADER, color: new THREE.Color(finish.colour).getHex() });
    // Drawn as the screen is, with the shaders the view has: those for other targets would have to be made first.
    Object.assign(image.getRenderTarget(), { isXRRenderTarget: true }).texture.colorSpace = THREE.SRGBColorSpace;
    image.matrixAutoUpdate = false;
    image.matrix.copy(face.matrix);
    image.updateMatrixWorld(true);
    image.raycast = () => undefined;
    const draw = image.onBeforeRender.bind(image);
    image.onBeforeRender = (...given) => {
      this.before();
      // Mirrors in mirrors are dull.
      const others = this.group.children.filter((c) => c !== image && c.visible);
      for (const other of others) other.visible = false;
      draw(...given);
      for (const other of others) other.visible = true;
      this.after();
    };
    this.group.add(image);
    return image;
  }

  private drop(drawn: Drawn): void {
    const image = this.made.get(drawn)?.image;
    this.made.delete(drawn);
    if (!image) return;
    this.group.remove(image);
    image.geometry.dispose();
    image.dispose();
  }

  dispose(): void {
    for (const drawn of [...this.made.keys()]) this.drop(drawn);
  }
}
