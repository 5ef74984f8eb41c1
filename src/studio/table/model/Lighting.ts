import * as THREE from 'three';
import type { Model } from '@/core/model/model';
import type { Rgb } from '@/core/finishes/colour';
import { prism } from '@/core/geometry/extrude';
import { boolean } from '@/core/geometry/polygon';
import type { Vec3 } from '@/core/geometry/vec';
import { daylight } from '@/core/light/daylight';
import type { Project } from '@/core/project/schema';
import { geometryOf } from './geometries';
import { Lamps } from './Lamps';

/** The light of the view: sun with its shadows, sky, luminaires. */
export class Lighting {
  private readonly sun = new THREE.DirectionalLight(0xffffff, 1);
  private readonly sky = new THREE.HemisphereLight(0xffffff, 0x888888, 1);
  private readonly lamps = new Lamps();
  private lampColours: THREE.Color[] = [];
  private readonly lids = new THREE.Group();
  private readonly lidMaterial = new THREE.MeshBasicMaterial({ colorWrite: false, depthWrite: false, shadowSide: THREE.DoubleSide });

  constructor(scene: THREE.Scene) {
    this.sun.castShadow = true;
    this.sun.shadow.mapSize.set(2048, 2048);
    this.sun.shadow.normalBias = 0.03;
    this.sun.shadow.bias = -0.0004;
    scene.add(this.sun, this.sun.target, this.sky, this.lamps.group, this.lids);
  }

  /** The colours of all lights, and what they are before white is set. */
  private readonly colours = new Map<THREE.Color, THREE.Color>();
  private readonly tint = new THREE.Color();

  /** Illuminance of open ground, lux. */
  onGround = 0;
  private lit: { site: Project['site']; box: THREE.Box3 } | null = null;

  /** Sun and sky of a place and time. @param box what is to be lit and to throw shadows */
  daylight(site: Project['site'], box: THREE.Box3): void {
    if (this.lit?.site === site && this.lit.box.equals(box)) return;
    this.lit = { site, box: box.clone() };
    const d = daylight(site);
    const up = Math.max(0.12, d.sun.z);
    const luminance = (c: readonly number[]): number => 0.2126 * c[0] + 0.7152 * c[1] + 0.0722 * c[2];
    const e = luminance(d.sunIlluminance);
    this.sun.intensity = e;
    if (e > 0) this.sun.color.setRGB(d.sunIlluminance[0] / e, d.sunIlluminance[1] / e, d.sunIlluminance[2] / e);
    const centre = box.getCenter(new THREE.Vector3());
    const r = Math.max(4, box.getSize(new THREE.Vector3()).length() / 2 + 0.5);
    this.sun.target.position.copy(centre);
    this.sun.position.set(centre.x + d.sun.x * r * 2, centre.y + d.sun.y * r * 2, centre.z + up * r * 2);
    const camera = this.sun.shadow.camera;
    Object.assign(camera, { left: -r, right: r, top: r, bottom: -r, near: 0.1, far: r * 4.5 });
    camera.updateProjectionMatrix();
    const s = Math.max(200, luminance(d.skyIlluminance));
    this.sky.color.setRGB(d.skyIlluminance[0] / s, d.skyIlluminance[1] / s, d.skyIlluminance[2] / s).lerp(new THREE.Color(1, 1, 1), 0.65);
    // What the ground sends up is a fifth of all it receives.
    const up20 = Math.min(1, (0.2 * (s + e * Math.max(0, d.sun.z))) / s);
    this.sky.groundColor.setRGB(up20, 0.97 * up20, 0.9 * up20);
    for (const colour of [this.sun.color, this.sky.color, this.sky.groundColor]) this.colours.set(colour, colour.clone());
    // As a drawing it is never night.
    this.sky.userData.lux = s;
    this.sky.userData.real = luminance(d.skyIlluminance);
    this.onGround = luminance(d.skyIlluminance) + e * Math.max(0, d.sun.z);
  }

  /** The brightest luminaires that are on. */
  setLamps(model: Model): void {
    for (const colour of this.lampColours) this.colours.delete(colour);
    this.lampColours = this.lamps.set(model);
    for (const colour of this.lampColours) this.colours.set(colour, colour.clone());
  }

  /** What keeps the sun from shining in over the walls while one is inside: a lid on each level, seen by the sun alone. */
  setLids(model: Model): void {
    for (const lid of this.lids.children) (lid as THREE.Mesh).geometry.dispose();
    this.lids.clear();
    for (const { level, joined, rooms, rooflights, roofs } of model.shell.levels) {
      if (roofs.length) continue;
      const open = [...rooms.filter((r) => !r.covered).map((r) => r.region), ...rooflights.map((r) => ({ outer: r.ring, holes: [] }))];
      const regions = open.length ? boolean('difference', joined.outline, open) : joined.outline;
      const z = level.elevation + level.height;
      const lid = new THREE.Mesh(geometryOf(prism(regions, z + 0.002, z + 0.12)), this.lidMaterial);
      lid.raycast = () => undefined;
      lid.castShadow = true;
      this.lids.add(lid);
    }
  }

  /**
   * Light from the sky and the ground. A house looked into from above has more of it, as a drawing has; where the light of the
   * rooms is known it is that of the open air alone. Returns whether shadows changed.
   *
   * @param inside where the eye is, if it is in a room @param open whether one looks into the house from above, or where it is cut @param glows whether rooms have light of their own
   * @param tint what light is multiplied by so that white is shown as white @param shaded whether luminaires throw shadows in the room of the eye
   */
  show(inside: Vec3 | null, open: boolean, glows: boolean, tint: Rgb, shaded: boolean): boolean {
    for (const [light, own] of this.colours) light.copy(own).multiply(this.tint.setRGB(...tint));
    const { lux = 10000, real = 10000 } = this.sky.userData as { lux?: number; real?: number };
    this.sky.intensity = inside && !glows ? Math.max(150, lux * 0.045) : open ? lux * 2.6 : glows ? real : lux;
    const changed = this.lids.visible !== (inside !== null);
    this.lids.visible = inside !== null;
    return this.lamps.near(inside, shaded) || changed;
  }

  dispose(): void {
    this.lamps.dispose();
  }
}
