import * as THREE from 'three';
import { GTAOPass } from 'three/examples/jsm/postprocessing/GTAOPass.js';

/** Things that shade what lies close to them are on this layer: opaque surfaces of the model. */
export const SHADING = 5;

const DECLARE = /* glsl */ `
#ifdef CONTACT_SHADE
uniform sampler2D contactMap;
uniform vec2 contactSize;
uniform float contactShare;

// Light that is thrown on between bright surfaces fills what they shade (Jimenez, Wu, Pesce and Jarabo 2016, equation 10).
vec3 contactBounced( const in float open, const in vec3 albedo ) {
  vec3 a = 2.0404 * albedo - 0.3324;
  vec3 b = - 4.7951 * albedo + 0.6417;
  vec3 c = 2.7552 * albedo + 0.6903;
  return max( vec3( open ), ( ( open * a + b ) * open + c ) * open );
}
#endif
`;

const USE = /* glsl */ `
#if defined( CONTACT_SHADE ) && defined( RE_IndirectDiffuse )
  if ( contactShare > 0.0 ) {
    float contactOpen = mix( 1.0, texture2D( contactMap, gl_FragCoord.xy / contactSize ).r, contactShare );
    reflectedLight.indirectDiffuse *= contactBounced( contactOpen, diffuseColor.rgb );
    reflectedLight.indirectSpecular *= contactOpen;
  }
#endif
`;

THREE.ShaderChunk.lights_pars_begin = `${DECLARE}${THREE.ShaderChunk.lights_pars_begin}`;
THREE.ShaderChunk.aomap_fragment = `${THREE.ShaderChunk.aomap_fragment}${USE}`;

/** How far away a surface still shades another, metres; how deep what stands before another is taken to be. */
const REACH = 0.4;
const DEPTH = 0.6;

/** Directions times steps that are looked into, and samples that smooth what is found. */
const SAMPLES = 24;
const SMOOTHED = 16;

/**
 * Shade where surfaces come close to one another: ambient occlusion by ground truth (Jimenez et al. 2016), of the size of the view, taken
 * off the light from all round alone. Sun and lamps throw their own shadows.
 */
export class ContactShade {
  private readonly uniforms: Record<string, { value: unknown }> = {
    contactMap: { value: null },
    contactSize: { value: new THREE.Vector2(1, 1) },
    contactShare: { value: 0 },
  };
  private pass: GTAOPass | null = null;
  private perspective = true;
  /** Whether there is shade for the picture that is drawn. */
  private ready = false;

  constructor(
    private readonly renderer: THREE.WebGLRenderer,
    private readonly scene: THREE.Scene,
  ) {}

  /** Has a material take the shade. It is called after others have had their say about its shader. */
  readonly into = <T extends THREE.MeshPhysicalMaterial>(material: T): T => {
    material.defines = { ...material.defines, CONTACT_SHADE: '' };
    const before = material.onBeforeCompile.bind(material);
    material.onBeforeCompile = (shader, renderer) => {
      before(shader, renderer);
      Object.assign(shader.uniforms, this.uniforms);
    };
    return material;
  };

  /** Draws without it. */
  none(): void {
    this.ready = false;
    this.uniforms.contactShare.value = 0;
  }

  /** Leaves it away for a picture from elsewhere, as in a mirror, and takes it up again. */
  hold(away: boolean): void {
    this.uniforms.contactShare.value = away || !this.ready ? 0 : 1;
  }

  /** Works it out for what is drawn next. */
  prepare(camera: THREE.PerspectiveCamera | THREE.OrthographicCamera): void {
    const { renderer, scene } = this;
    const size = renderer.getDrawingBufferSize(new THREE.Vector2());
    const k = 1 / renderer.getPixelRatio();
    const [width, height] = [Math.max(1, Math.round(size.x * k)), Math.max(1, Math.round(size.y * k))];
    const perspective = camera instanceof THREE.PerspectiveCamera;
    if (this.pass && this.perspective !== perspective) this.drop();
    const pass = (this.pass ??= this.make(camera, width, height));
    this.perspective = perspective;
    pass.camera = camera;
    if (pass.width !== width || pass.height !== height) pass.setSize(width, height);
    // Shadows are brought up to date by what is drawn to be seen: the layers of the eye say what throws them.
    const { needsUpdate } = renderer.shadowMap;
    const { background } = scene;
    const { mask } = camera.layers;
    renderer.shadowMap.needsUpdate = false;
    scene.background = null;
    camera.layers.set(SHADING);
    const { autoClear } = renderer;
    const nothing = null as never;
    pass.render(renderer, nothing, nothing, 0, false);
    renderer.autoClear = autoClear;
    camera.layers.mask = mask;
    scene.background = background;
    renderer.shadowMap.needsUpdate = needsUpdate;
    renderer.setRenderTarget(null);
    this.uniforms.contactMap.value = pass.gtaoMap;
    (this.uniforms.contactSize.value as THREE.Vector2).copy(size);
    this.uniforms.contactShare.value = 1;
    this.ready = true;
  }

  private make(camera: THREE.Camera, width: number, height: number): GTAOPass {
    const pass = new GTAOPass(this.scene, camera, width, height);
    pass.updateGtaoMaterial({ radius: REACH, thickness: DEPTH, samples: SAMPLES });
    pass.updatePdMaterial({ samples: SMOOTHED, radius: 6 });
    pass.output = GTAOPass.OUTPUT.Off;
    return pass;
  }

  private drop(): void {
    this.pass?.dispose();
    this.pass = null;
  }

  dispose(): void {
    this.drop();
  }
}
