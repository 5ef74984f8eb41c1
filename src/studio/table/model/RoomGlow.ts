import * as THREE from 'three';
import type { Vec3 } from '@/core/geometry/vec';
import { luminance, type Rgb } from '@/core/finishes/colour';
import { pictureState } from '@/core/project/picture-state';
import type { Project } from '@/core/project/schema';
import { lightAt, TERMS, type RoomLight } from '@/core/render/room-light';
import type { RoomLightService } from '@/workers/room-light.worker';
import { meteredExposure } from '@/core/render/tone';
import { useStudio } from '../../store/studio';
import { useTrueLight } from '../../views/views';
import { Summoned } from '../../work/summoned';

const CHUNK = /* glsl */ `
#ifdef ROOM_LIGHT
uniform highp sampler3D roomCells;
uniform vec3 roomMin;
uniform vec3 roomSpan;
uniform vec3 roomCount;
uniform float roomShare;
uniform vec3 roomTint;

// The groups of a cell lie above one another.
vec4 roomGroup( const in vec3 place, const in float group ) {
  return texture( roomCells, vec3( place.xy, ( place.z + group * roomCount.z ) / ( 9.0 * roomCount.z ) ) );
}

// As core/render/room-light.ts says: how a surface takes each term.
vec3 roomIlluminance( const in vec3 place, const in float within, const in vec3 n ) {
  vec3 mean = roomGroup( place, 0.0 ).rgb;
  vec3 sum = mean
    + ( roomGroup( place, 1.0 ).rgb * n.x + roomGroup( place, 2.0 ).rgb * n.y + roomGroup( place, 3.0 ).rgb * n.z ) * ( 2.0 / 3.0 )
    + ( roomGroup( place, 4.0 ).rgb * ( n.x * n.y ) + roomGroup( place, 5.0 ).rgb * ( n.y * n.z ) + roomGroup( place, 6.0 ).rgb * ( n.z * n.x )
      + roomGroup( place, 7.0 ).rgb * ( 3.0 * n.z * n.z - 1.0 ) + roomGroup( place, 8.0 ).rgb * ( n.x * n.x - n.y * n.y ) ) * 0.25;
  return roomTint * PI * max( 0.04 * mean, sum ) / within;
}

// Its mean radiance leant towards a direction: what a dull mirror shows.
vec3 roomRadiance( const in vec3 place, const in float within, const in vec3 d ) {
  vec3 sum = roomGroup( place, 0.0 ).rgb + ( roomGroup( place, 1.0 ).rgb * d.x + roomGroup( place, 2.0 ).rgb * d.y + roomGroup( place, 3.0 ).rgb * d.z ) * ( 2.0 / 3.0 );
  return roomTint * max( vec3( 0.0 ), sum ) / within;
}
#endif
`;

/** How far before a surface its light is looked up, metres: on the surface itself it would be mixed with that behind the wall. */
const BEFORE = 0.3;

const USE = /* glsl */ `
#if defined( ROOM_LIGHT ) && defined( RE_IndirectDiffuse )
  if ( roomShare > 0.0 ) {
    vec3 roomNormal = ( vec4( geometryNormal, 0.0 ) * viewMatrix ).xyz;
    vec3 roomPlace = ( ( vec4( geometryPosition, 1.0 ) - viewMatrix[ 3 ] ) * viewMatrix ).xyz;
    vec3 roomAt = ( roomPlace + ${BEFORE.toFixed(2)} * roomNormal - roomMin ) / roomSpan;
    if ( all( greaterThan( roomAt, vec3( 0.0 ) ) ) && all( lessThan( roomAt, vec3( 1.0 ) ) ) ) {
      roomAt.z = clamp( roomAt.z * roomCount.z, 0.5, roomCount.z - 0.5 );
      float within = roomGroup( roomAt, 0.0 ).a;
      if ( within > 0.02 ) {
        float roomPart = roomShare * smoothstep( 0.15, 0.5, within );
        irradiance = mix( irradiance, roomIlluminance( roomAt, within, roomNormal ), roomPart );
        #if defined( RE_IndirectSpecular )
          vec3 roomEye = ( vec4( geometryViewDir, 0.0 ) * viewMatrix ).xyz;
          radiance += roomPart * roomRadiance( roomAt, within, reflect( - roomEye, roomNormal ) );
        #endif
      }
    }
  }
#endif
`;

THREE.ShaderChunk.lights_pars_begin = `${THREE.ShaderChunk.lights_pars_begin}${CHUNK}`;
THREE.ShaderChunk.lights_fragment_maps = `${USE}${THREE.ShaderChunk.lights_fragment_maps}`;

/** What has been still for so long has its light worked out, ms. */
const STILL = 900;
/** So long where the view is traced when the eye rests: that is awaited, and shows more. */
const STILL_TRACED = 6000;

/** Rays from each place, round by round. */
const ROUNDS = [200, 400, 800] as const;

/** How long those who gather light wait to be asked again, ms. */
const PATIENCE = 30_000;

/** The mean of logarithms that a meter reads is about this share of the mean radiance in a room. */
const METERED = 0.75;

/** Exposures a room is shown at, EV at ISO 100: by starlight it stays dark. */
const EXPOSURES = { least: 2.5, most: 14.5 } as const;

/** Metered luminance below which a room counts as dark, cd/m². */
const DARK = 0.2;

/** Mean reflectance of what is seen outdoors. */
const OUTDOORS = 0.25;

const within = (ev: number): number => Math.min(EXPOSURES.most, Math.max(EXPOSURES.least, ev));

/** The exposure of a house in the open, EV at ISO 100. @param lux on open ground */
export const exposureOutdoors = (lux: number): number => within(meteredExposure(Math.max(1e-3, (lux * OUTDOORS) / Math.PI)));

/** The light in the rooms of the model in view, worked out beside it and put into its materials. */
export class RoomGlow {
  private readonly uniforms: Record<string, { value: unknown }>;
  private light: RoomLight | null = null;
  private project: Project | null = null;
  private done: Project | null = null;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private idle: ReturnType<typeof setTimeout> | null = null;
  /** Digest of what the light there is was gathered in. */
  private state = '';
  private busy = false;
  private wanted = false;
  private over = false;
  private readonly worker = new Summoned<RoomLightService>(
    () => new Worker(new URL('../../../workers/room-light.worker.ts', import.meta.url), { type: 'module' }),
    'The light in rooms shows as an even glow: the part of the application that works it out has stopped; reload the page.',
    (sentence) => useStudio.getState().say(sentence),
  );

  /** @param onLight called when light has come */
  constructor(private readonly onLight: () => void) {
    const nothing = new THREE.Data3DTexture(new Uint16Array(4), 1, 1, 1);
    Object.assign(nothing, { format: THREE.RGBAFormat, type: THREE.HalfFloatType, needsUpdate: true });
    this.uniforms = {
      roomCells: { value: nothing },
      roomMin: { value: new THREE.Vector3() },
      roomSpan: { value: new THREE.Vector3(1, 1, 1) },
      roomCount: { value: new THREE.Vector3(1, 1, 1) },
      roomShare: { value: 0 },
      roomTint: { value: new THREE.Vector3(1, 1, 1) },
    };
  }

  /** Has a material take the light of the rooms. */
  readonly into = <T extends THREE.MeshPhysicalMaterial>(material: T): T => {
    material.defines = { ...material.defines, ROOM_LIGHT: '' };
    material.onBeforeCompile = (shader) => void Object.assign(shader.uniforms, this.uniforms);
    return material;
  };

  /** The project whose light is shown. */
  show(project: Project): void {
    if (project === this.project) return;
    this.project = project;
    this.soon();
  }

  /**
   * Whether rooms are seen as they are lit: within them, or through their windows. A dark one has the even glow a view has without.
   *
   * @param eye where the eye is, if it is in a room
   * @param tint what light is multiplied by so that white is shown as white
   * @returns the exposure, EV at ISO 100, null where the eye is outside; or that there is no light to show
   */
  use(wanted: boolean, eye: Vec3 | null, tint: Rgb): { ev: number | null } | null {
    this.wanted = wanted;
    if (wanted && this.done !== this.project && !this.timer) this.soon();
    const ev = eye && this.exposureAt(eye);
    const shown = wanted && this.light !== null && (eye === null || ev !== null);
    this.uniforms.roomShare.value = shown ? 1 : 0;
    (this.uniforms.roomTint.value as THREE.Vector3).set(...tint);
    return shown ? { ev } : null;
  }

  /** The exposure a meter would choose at a place, EV at ISO 100; null where nothing is known of it, or it is dark: nobody would see anything. */
  private exposureAt(place: Vec3): number | null {
    const light = this.light && lightAt(this.light, place);
    const l = light ? luminance([light[0], light[1], light[2]]) * METERED : 0;
    return l > DARK ? within(meteredExposure(l)) : null;
  }

  dispose(): void {
    this.over = true;
    if (this.timer) clearTimeout(this.timer);
    if (this.idle) clearTimeout(this.idle);
    this.worker.dismiss();
    (this.uniforms.roomCells.value as THREE.Data3DTexture).dispose();
  }

  private soon(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(
      () => {
        this.timer = null;
        if (this.wanted && !this.busy && this.done !== this.project) void this.work();
      },
      useTrueLight.getState().on ? STILL_TRACED : STILL,
    );
  }

  private async work(): Promise<void> {
    const project = this.project!;
    const state = pictureState(project);
    // What no picture shows has changed: names, lists, viewpoints.
    if (state === this.state) {
      this.done = project;
      return;
    }
    this.busy = true;
    if (this.idle) clearTimeout(this.idle);
    try {
      const rooms = await this.worker.ask((s) => s.begin(project));
      if (!rooms) this.light = null;
      // The first light is coarse and comes soon; what follows takes its grain out.
      for (const rays of rooms ? ROUNDS : []) {
        const light = await this.worker.ask((s) => s.more(rays));
        if (this.over || this.project !== project) return;
        this.light = light;
        if (light) this.put(light);
        this.onLight();
      }
      this.done = project;
      this.state = state;
    } catch {
      if (this.over) return;
      // The view keeps the even glow it has without it; the next change tries again.
      this.done = project;
    } finally {
      this.busy = false;
      if (!this.over) {
        // Its memory never shrinks.
        this.idle = setTimeout(() => this.worker.dismiss(), PATIENCE);
        if (this.project !== project) this.soon();
      }
    }
  }

  private put({ min, cell, count, values }: RoomLight): void {
    const cells = count.x * count.y * count.z;
    const half = new Uint16Array(cells * TERMS * 4);
    for (let i = 0; i < cells; i++)
      for (let k = 0; k < TERMS * 4; k++)
        half[((k >> 2) * cells + i) * 4 + (k & 3)] = THREE.DataUtils.toHalfFloat(Math.max(-65000, Math.min(65000, values[i * TERMS * 4 + k])));
    const texture = new THREE.Data3DTexture(half, count.x, count.y, count.z * TERMS);
    texture.format = THREE.RGBAFormat;
    texture.type = THREE.HalfFloatType;
    texture.minFilter = texture.magFilter = THREE.LinearFilter;
    texture.needsUpdate = true;
    const { roomCells, roomMin, roomSpan, roomCount } = this.uniforms;
    (roomCells.value as THREE.Data3DTexture).dispose();
    roomCells.value = texture;
    (roomMin.value as THREE.Vector3).set(min.x, min.y, min.z);
    (roomSpan.value as THREE.Vector3).set(count.x * cell, count.y * cell, count.z * cell);
    (roomCount.value as THREE.Vector3).set(count.x, count.y, count.z);
  }
}
