import * as THREE from 'three';
import { stepOf, type LightPixels } from '@/core/light/rgbe';
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
uniform float scale;
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

/** A sheet behind all else on which the view shows a site's surroundings; parallel views look past it. */
export class BeyondSheet {
  readonly mesh: THREE.Mesh;
  private readonly material: THREE.ShaderMaterial;
  private key = '';
  private pixels: LightPixels | null = null;
  private site: Site | null = null;
  private gain = 1;

  /** @param load brings a picture @param draw asks for a picture of the view once it is there */
  constructor(
    private readonly load: (picture: Surroundings['picture'], most: number) => Promise<LightPixels>,
    private readonly draw: () => void,
  ) {
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
        scale: { value: 1 },
      },
    });
    const sheet = new THREE.BufferGeometry();
    sheet.setAttribute('position', new THREE.Float32BufferAttribute([-1, -1, 0, 3, -1, 0, -1, 3, 0], 3));
    this.mesh = new THREE.Mesh(sheet, this.material);
    this.mesh.frustumCulled = false;
    this.mesh.renderOrder = -1;
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

  /** The surroundings of a site. */
  show(site: Site): void {
    if (this.site === site) return;
    this.site = site;
    const key = site.surroundings ? beyondKey(site.surroundings.picture) : '';
    if (key === this.key) return this.set();
    this.key = key;
    this.pixels = null;
    this.set();
    if (!site.surroundings) return;
    this.load(site.surroundings.picture, MOST).then(
      (pixels) => {
        if (this.key !== key) return;
        this.pixels = pixels;
        this.paint(pixels);
        this.set();
        this.draw();
      },
      // Without its picture the view goes on as it is; a traced picture says what is missing.
      () => undefined,
    );
  }

  /** How it is seen. @param perspective whether the view is in perspective @param inside whether the eye is in a room */
  see(perspective: boolean, inside: boolean): void {
    this.gain = inside ? 2 ** (this.site?.seen ?? 0) : 1;
    this.wanted = perspective;
    this.apply();
  }

  dispose(): void {
    (this.material.uniforms.picture.value as THREE.Texture | null)?.dispose();
    this.mesh.geometry.dispose();
    this.material.dispose();
  }

  private luminance = 1;
  private wanted = false;

  private apply(): void {
    this.mesh.visible = this.wanted && this.pixels !== null;
    this.material.uniforms.scale.value = this.luminance * this.gain;
  }

  private set(): void {
    const { site, pixels, material } = this;
    if (!site?.surroundings || !pixels) return this.apply();
    const scenery = new Scenery(site.surroundings, pixels, site.ground, daylight(site));
    const { uniforms } = material;
    const put = (name: string, { x, y, z }: { x: number; y: number; z: number }): void => void (uniforms[name].value as THREE.Vector3).set(x, y, z);
    ['forward', 'left', 'top'].forEach((name, i) => put(name, scenery.axes[i]));
    put('foot', scenery.foot);
    (uniforms.size.value as THREE.Vector2).set(site.surroundings.width, scenery.height);
    uniforms.flat_.value = site.surroundings.lie === 'flat';
    this.luminance = scenery.scale;
    this.apply();
  }

  private paint({ width, height, rgbe }: LightPixels): void {
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
    (this.material.uniforms.picture.value as THREE.Texture | null)?.dispose();
    this.material.uniforms.picture.value = texture;
  }
}
