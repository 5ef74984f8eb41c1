import * as THREE from 'three';
import type { Rgb } from '@/core/finishes/colour';
import type { Vec3 } from '@/core/geometry/vec';
import { lightPixels, stepOf, type LightPixels } from '@/core/light/rgbe';
import { beyondKey, Scenery } from '@/core/light/surroundings';
import { daylight } from '@/core/light/daylight';
import type { Site, Surroundings } from '@/core/project/schema';

/** Widest picture the view shows, pixels. */
const MOST = 2048;

const VERTEX = /* glsl */ `
uniform mat4 unproject;
uniform mat4 eyeWorld;
varying vec3 vTowards;
void main() {
  vec4 away = unproject * vec4( position.xy, 1.0, 1.0 );
  vTowards = mat3( eyeWorld ) * ( away.xyz / away.w );
  gl_Position = vec4( position.xy, 1.0, 1.0 );
}`;

// The same as core/light/surroundings.ts says where in a picture one looks.
const FRAGMENT = /* glsl */ `
uniform sampler2D picture;
uniform vec3 forward, left, top, foot, eye;
uniform vec2 size;
uniform bool flat_;
uniform vec3 scale;
varying vec3 vTowards;
void main() {
  vec3 d = normalize( vTowards );
  vec2 place;
  if ( flat_ ) {
    float s = dot( foot - eye, forward ) / dot( d, forward );
    vec3 p = eye + d * s - foot;
    place = vec2( 0.5 - dot( p, left ) / size.x, 1.0 - p.z / size.y );
    if ( ! ( s > 0.0 ) || any( lessThan( place, vec2( 0.0 ) ) ) || any( greaterThan( place, vec2( 1.0 ) ) ) ) discard;
  } else {
    place = vec2( 0.5 - atan( dot( d, left ), dot( d, forward ) ) / 6.2831853, 0.5 - asin( clamp( dot( d, top ), -1.0, 1.0 ) ) / 3.14159265 );
  }
  gl_FragColor = vec4( textureLod( picture, place, 0.0 ).rgb * scale, 1.0 );
  #include <tonemapping_fragment>
  #include <colorspace_fragment>
}`;

/** How a picture lies about the eye. */
interface Lie {
  /** Directions to its middle, to its left, to its top. */
  axes: readonly [Vec3, Vec3, Vec3];
  /** Of a flat one: middle of its lower edge, width and height, metres. */
  flat: { foot: Vec3; width: number; height: number } | null;
}

/** A sheet behind all else that shows a picture of light, all round or flat. */
class Sheet {
  readonly mesh: THREE.Mesh;
  private readonly material: THREE.ShaderMaterial;
  private painted = false;

  /** @param order of two sheets the one with the greater covers the other */
  constructor(order: number) {
    const at = (): { value: THREE.Vector3 } => ({ value: new THREE.Vector3() });
    this.material = new THREE.ShaderMaterial({
      vertexShader: VERTEX,
      fragmentShader: FRAGMENT,
      depthTest: false,
      depthWrite: false,
      uniforms: {
        picture: { value: null },
        unproject: { value: new THREE.Matrix4() },
        eyeWorld: { value: new THREE.Matrix4() },
        ...{ forward: at(), left: at(), top: at(), foot: at(), eye: at() },
        size: { value: new THREE.Vector2(1, 1) },
        flat_: { value: false },
        scale: { value: new THREE.Vector3(1, 1, 1) },
      },
    });
    const sheet = new THREE.BufferGeometry();
    sheet.setAttribute('position', new THREE.Float32BufferAttribute([-1, -1, 0, 3, -1, 0, -1, 3, 0], 3));
    this.mesh = new THREE.Mesh(sheet, this.material);
    this.mesh.frustumCulled = false;
    this.mesh.renderOrder = order;
    this.mesh.visible = false;
    this.mesh.raycast = () => undefined;
    this.mesh.onBeforeRender = (_renderer, _scene, camera) => {
      const { unproject, eyeWorld, eye } = this.material.uniforms;
      (unproject.value as THREE.Matrix4).copy(camera.projectionMatrixInverse);
      (eyeWorld.value as THREE.Matrix4).copy(camera.matrixWorld);
      (eye.value as THREE.Vector3).setFromMatrixPosition(camera.matrixWorld);
      this.material.uniformsNeedUpdate = true;
    };
  }

  /** @param visible where there is something to show @param scale luminance of a value of 1, cd/m² */
  see(visible: boolean, scale: Rgb): void {
    this.mesh.visible = visible && this.painted;
    (this.material.uniforms.scale.value as THREE.Vector3).set(...scale);
  }

  lay({ axes, flat }: Lie): void {
    const { uniforms } = this.material;
    const put = (name: string, { x, y, z }: Vec3): void => void (uniforms[name].value as THREE.Vector3).set(x, y, z);
    ['forward', 'left', 'top'].forEach((name, i) => put(name, axes[i]));
    uniforms.flat_.value = flat !== null;
    if (!flat) return;
    put('foot', flat.foot);
    (uniforms.size.value as THREE.Vector2).set(flat.width, flat.height);
  }

  paint(pixels: LightPixels | null): void {
    const { picture } = this.material.uniforms;
    (picture.value as THREE.Texture | null)?.dispose();
    picture.value = pixels && textureOf(pixels);
    this.painted = pixels !== null;
  }

  dispose(): void {
    this.paint(null);
    this.mesh.geometry.dispose();
    this.material.dispose();
  }
}

function textureOf({ width, height, rgbe }: LightPixels): THREE.DataTexture {
  const half = new Uint16Array(width * height * 4);
  for (let i = 0; i < half.length; i += 4) {
    const k = stepOf(rgbe[i + 3]);
    for (let c = 0; c < 3; c++) half[i + c] = THREE.DataUtils.toHalfFloat(k ? Math.min(65000, (rgbe[i + c] + 0.5) * k) : 0);
    half[i + 3] = 0x3c00;
  }
  const texture = new THREE.DataTexture(half, width, height, THREE.RGBAFormat, THREE.HalfFloatType);
  texture.wrapS = THREE.RepeatWrapping;
  texture.magFilter = texture.minFilter = THREE.LinearFilter;
  texture.needsUpdate = true;
  return texture;
}

const PLAIN: Lie['axes'] = [
  { x: 1, y: 0, z: 0 },
  { x: 0, y: 1, z: 0 },
  { x: 0, y: 0, z: 1 },
];

/** Columns of the sky as it is painted: it has no edges. */
const SKY = 96;

/** The sky of a site as a picture of light, cd/m². */
function skyOf(site: Site): LightPixels {
  const { sky } = daylight(site);
  const [width, height] = [SKY, SKY / 2];
  const radiance = new Float32Array(width * height * 3);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [around, up] = [(0.5 - (x + 0.5) / width) * 2 * Math.PI, (0.5 - (y + 0.5) / height) * Math.PI];
      radiance.set(sky({ x: Math.cos(up) * Math.cos(around), y: Math.cos(up) * Math.sin(around), z: Math.sin(up) }), (y * width + x) * 3);
    }
  return lightPixels(radiance, width, height);
}

/** How it is seen. */
interface Seen {
  perspective: boolean;
  /** Whether the sky shows. */
  sky: boolean;
  /** Whether the eye is in a room. */
  inside: boolean;
  /** What light is multiplied by so that white is shown as white. */
  tint: Rgb;
}

/** What the view shows behind all else: the sky, and a site's surroundings; parallel views look past them. */
export class BeyondSheet {
  readonly group = new THREE.Group();
  private readonly sky = new Sheet(-2);
  private readonly picture = new Sheet(-1);
  private key = '';
  private pixels: LightPixels | null = null;
  private site: Site | null = null;
  /** The site whose sky is painted. */
  private painted: Site | null = null;
  private luminance = 1;
  private seen: Seen = { perspective: false, sky: false, inside: false, tint: [1, 1, 1] };

  /** @param load brings a picture @param draw asks for a picture of the view once it is there */
  constructor(
    private readonly load: (picture: Surroundings['picture'], most: number) => Promise<LightPixels>,
    private readonly draw: () => void,
  ) {
    this.sky.lay({ axes: PLAIN, flat: null });
    this.group.add(this.sky.mesh, this.picture.mesh);
  }

  /** The surroundings of a site. */
  show(site: Site): void {
    if (this.site === site) return;
    this.site = site;
    const key = site.surroundings ? beyondKey(site.surroundings.picture) : '';
    if (key === this.key) return this.set();
    this.key = key;
    this.pixels = null;
    this.picture.paint(null);
    this.set();
    if (!site.surroundings) return;
    this.load(site.surroundings.picture, MOST).then(
      (pixels) => {
        if (this.key !== key) return;
        this.pixels = pixels;
        this.picture.paint(pixels);
        this.set();
        this.draw();
      },
      // Without its picture the view goes on as it is; a traced picture says what is missing.
      () => undefined,
    );
  }

  see(seen: Seen): void {
    this.seen = seen;
    this.apply();
  }

  dispose(): void {
    this.sky.dispose();
    this.picture.dispose();
  }

  private apply(): void {
    const { perspective, sky, inside, tint } = this.seen;
    const times = (k: number): Rgb => [tint[0] * k, tint[1] * k, tint[2] * k];
    const gain = inside ? 2 ** (this.site?.seen ?? 0) : 1;
    if (perspective && sky && this.site && this.painted !== this.site) {
      this.painted = this.site;
      this.sky.paint(skyOf(this.site));
    }
    this.sky.see(perspective && sky, times(gain));
    this.picture.see(perspective, times(this.luminance * gain));
  }

  private set(): void {
    const { site, pixels } = this;
    if (site?.surroundings && pixels) {
      const { axes, foot, height, scale } = new Scenery(site.surroundings, pixels, site.ground, daylight(site));
      this.picture.lay({ axes, flat: site.surroundings.lie === 'flat' ? { foot, width: site.surroundings.width, height } : null });
      this.luminance = scale;
    }
    this.apply();
  }
}
