import * as THREE from 'three';
import { blackBody } from '@/core/finishes/colour';
import { isOpen, isPlain, meanHex } from '@/core/finishes/finish';
import { finishById } from '@/core/finishes/library';
import type { Finish, Look } from '@/core/project/schema';
import type { Sort } from '@/core/model/sorts';
import { FROSTED } from '@/core/render/compile';
import { BLEACH, SHOULDER } from '@/core/render/tone';
import { BARE } from '@/core/project/kinds/first-finishes';
import { loadTexture, VIEW_TEXTURE } from '../../finishes/textures';
import { unlessLost } from '../../work/summoned';

// The tone curve of pictures, so that view and picture show a colour alike.
THREE.ShaderChunk.tonemapping_pars_fragment = THREE.ShaderChunk.tonemapping_pars_fragment.replace(
  'vec3 CustomToneMapping( vec3 color ) { return color; }',
  `vec3 CustomToneMapping( vec3 color ) {
  color *= toneMappingExposure;
  float peak = max( color.r, max( color.g, color.b ) );
  if ( peak <= ${SHOULDER.toFixed(3)} ) return color;
  float d = 1.0 - ${SHOULDER.toFixed(3)};
  float next = 1.0 - d * d / ( peak + d - ${SHOULDER.toFixed(3)} );
  float keep = 1.0 / ( ${BLEACH.toFixed(3)} * ( peak - next ) + 1.0 );
  return mix( vec3( next ), color * next / peak, keep );
}`,
);

/** Samples along a slanted texture; graphics that have fewer take what they have. */
const ANISOTROPY = 8;
/** Share of light that gets past what is made see-through. */
const CLEAR = 0.28;

type Material = THREE.MeshPhysicalMaterial | THREE.MeshBasicMaterial;

/** The materials of the 3D view: one a finish and way of showing it. */
export class Materials {
  private readonly made = new Map<string, Material>();
  /** By the finish itself: one that is edited is another. */
  private readonly finishes = new WeakMap<Finish, { material: THREE.MeshPhysicalMaterial; key: string }>();
  private count = 0;

  /** @param onLoad called when a texture has come @param lit has a material take the light of the rooms */
  constructor(
    private readonly onLoad: () => void,
    private readonly lit: <T extends THREE.MeshPhysicalMaterial>(material: T) => T,
  ) {}

  /** A surface as it is shown. @param through made see-through on its own */
  of(finish: Finish, sort: Sort, mode: Look['mode'], through: boolean, kelvin: number | null): Material {
    if (kelvin !== null && mode !== 'lines') return this.glow(kelvin);
    const glass = finish.transmission > 0;
    if (mode === 'lines') return through || glass ? this.keep('lines clear', () => this.paper(0.12)) : this.keep('lines', () => this.paper(1));
    if (mode === 'white' && !glass) return through ? this.clear('white', this.white()) : this.white();
    const own = sort === 'cap' ? this.cap() : this.finish(finish);
    return (through || mode === 'translucent') && !glass ? this.clear(sort === 'cap' ? 'cap' : this.finishes.get(finish)!.key, own) : own;
  }

  /** What shows of a body that a section plane cuts: its inside, in one tone. */
  cut(): THREE.MeshBasicMaterial {
    return this.keep('poché', () => new THREE.MeshBasicMaterial({ color: 0x2b2a29, side: THREE.BackSide, toneMapped: false })) as THREE.MeshBasicMaterial;
  }

  private keep(key: string, make: () => Material): Material {
    let known = this.made.get(key);
    if (!known) this.made.set(key, (known = make()));
    return known;
  }

  private paper(opacity: number): THREE.MeshBasicMaterial {
    return new THREE.MeshBasicMaterial({
      color: 0xfbfbfa,
      toneMapped: false,
      transparent: opacity < 1,
      opacity,
      depthWrite: opacity === 1,
      // The lines along its edges lie on it, not in it.
      polygonOffset: true,
      polygonOffsetFactor: 0.4,
      polygonOffsetUnits: 2,
    });
  }

  private white(): THREE.MeshPhysicalMaterial {
    return this.keep('white', () =>
      this.lit(new THREE.MeshPhysicalMaterial({ color: 0xdedcd8, roughness: 0.95, shadowSide: THREE.DoubleSide })),
    ) as THREE.MeshPhysicalMaterial;
  }

  /** The same, see-through. It shares the maps of what it is made from once they have come. */
  private clear(key: string, from: Material): Material {
    const made = this.keep(`clear ${key}`, () => (from instanceof THREE.MeshPhysicalMaterial ? this.lit(from.clone()) : from.clone()));
    const physical = from as THREE.MeshPhysicalMaterial;
    Object.assign(made, { transparent: true, opacity: CLEAR, depthWrite: false, map: physical.map, color: physical.color });
    made.needsUpdate = true;
    return made;
  }

  private glow(kelvin: number): Material {
    return this.keep(`glow ${kelvin}`, () => {
      const [r, g, b] = blackBody(kelvin);
      return new THREE.MeshPhysicalMaterial({ color: 0x000000, emissive: new THREE.Color(r, g, b), emissiveIntensity: 9000 });
    });
  }

  /** The ends of walls inside junctions touch the faces of their neighbours along an edge: they give way to them there. */
  private cap(): Material {
    return this.keep('cap', () =>
      Object.assign(this.lit(this.finish(finishById(BARE.cut)).clone()), { polygonOffset: true, polygonOffsetFactor: 2, polygonOffsetUnits: 8 }),
    );
  }

  finish(finish: Finish): THREE.MeshPhysicalMaterial {
    const known = this.finishes.get(finish);
    if (known) return known.material;
    const key = `finish ${this.count++}`;
    const material = this.lit(
      new THREE.MeshPhysicalMaterial({
        color: new THREE.Color(meanHex(finish)),
        roughness: Math.max(0.04, finish.roughness),
        metalness: finish.metalness > 0.5 ? 0.75 : finish.metalness,
        // Both sides of a wall throw its shadow; the far one alone leaves light along its edges.
        shadowSide: THREE.DoubleSide,
        // Cloth hangs in sheets that are seen from both sides.
        side: !finish.bare && (finish.translucency > 0 || finish.sheen > 0) ? THREE.DoubleSide : THREE.FrontSide,
        ...(finish.sheen > 0 ? { sheen: finish.sheen, sheenRoughness: 0.6, sheenColor: new THREE.Color(finish.colour) } : {}),
      }),
    );
    if (finish.translucency > 0) material.side = THREE.DoubleSide;
    if (finish.translucency > 0.5 || finish.opacity < 1)
      Object.assign(material, { transparent: true, opacity: Math.min(0.8, finish.opacity), depthWrite: false });
    if (finish.transmission > 0) {
      const frosted = finish.roughness >= FROSTED;
      // Clear glass is looked through, ribbed glass in part, frosted glass hardly.
      const opacity = frosted ? 0.8 : isPlain(finish) ? 0.16 : 0.42;
      Object.assign(material, { transparent: true, opacity, depthWrite: false, roughness: frosted ? finish.roughness : 0.05 });
    }
    this.finishes.set(finish, { material, key });
    // Without its texture it shows in its mean colour.
    if (!isPlain(finish))
      loadTexture(finish, VIEW_TEXTURE).then(({ width, height, size, colour, relief, rough }) => {
        const texture = (data: Uint8Array, space: THREE.ColorSpace, steps?: { data: Uint8Array; width: number; height: number }[]): THREE.DataTexture => {
          const t = new THREE.DataTexture(data as Uint8Array<ArrayBuffer>, width, height, THREE.RGBAFormat);
          t.colorSpace = space;
          t.wrapS = t.wrapT = THREE.RepeatWrapping;
          t.repeat.set(1 / size.width, 1 / size.height);
          t.magFilter = THREE.LinearFilter;
          t.minFilter = THREE.LinearMipmapLinearFilter;
          t.generateMipmaps = !steps;
          if (steps) t.mipmaps = steps as never;
          t.anisotropy = ANISOTROPY;
          t.needsUpdate = true;
          return t;
        };
        material.map = texture(colour[0].data, THREE.SRGBColorSpace, colour);
        material.color.set(0xffffff);
        // What is open is left out pixel by pixel, the more seldom the farther away.
        if (isOpen(finish)) Object.assign(material, { alphaHash: true, side: THREE.DoubleSide });
        const steps = (of: 'normals' | 'rough') => relief!.map((step) => ({ data: step[of], width: step.width, height: step.height }));
        if (relief) {
          // From afar relief becomes roughness: the two go down in the same steps.
          material.normalMap = texture(relief[0].normals, THREE.NoColorSpace, steps('normals'));
          material.roughnessMap = texture(relief[0].rough, THREE.NoColorSpace, steps('rough'));
          material.roughness = 1;
        } else if (rough) {
          const pixels = new Uint8Array(rough.length * 4).fill(255);
          rough.forEach((r, i) => (pixels[i * 4 + 1] = r));
          material.roughnessMap = texture(pixels, THREE.NoColorSpace);
          material.roughness = 1;
        }
        material.needsUpdate = true;
        if (this.made.has(`clear ${key}`)) this.clear(key, material);
        this.onLoad();
      }, unlessLost);
    return material;
  }
}
