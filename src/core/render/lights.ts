import { cross3, unit3, type Vec3 } from '../geometry/vec';
import { SUN_RADIUS } from '../light/daylight';
import type { Random } from './bsdf';
import { crosses, crossing } from './panes';
import type { Scene } from './scene';

/** How far in front of a luminaire a ray to it ends, metres: it must not be stopped by what it goes to. */
const EPS = 1e-4;

/**
 * Where light comes from, aimed at: the sun's disc, the sky behind windows, luminaires. Each `aim…` draws a direction and
 * leaves it with the light that would arrive along it; the densities tell how likely a direction was to be drawn, for
 * weighing against scattered rays (Veach 1997).
 */
export class Lights {
  /** The direction drawn last. */
  readonly direction = new Float64Array(3);
  /** What arrives along it if nothing is in the way: cd/m², the sun's as lux. */
  readonly light = new Float64Array(3);
  /** How far the light is, metres. */
  far = 1e30;
  /** Whether it is a point near by, and which: wherever a ray to it sets out from, it goes there. */
  near = false;
  readonly target = new Float64Array(3);

  readonly sun: boolean;
  readonly sky: boolean;
  readonly lamps: boolean;
  /** Two directions across the sun's disc. */
  private readonly sunFrame: { along: Vec3; across: Vec3 };
  private readonly weights: Float64Array;
  private readonly portalWeights: Float64Array;

  constructor(
    private readonly scene: Scene,
    private readonly random: Random,
  ) {
    const { daylight } = scene;
    this.sun = Boolean(daylight && daylight.sunIlluminance[1] > 0);
    this.sky = Boolean(daylight && scene.portals.length);
    this.lamps = scene.lights.length > 0;
    const sun = daylight?.sun ?? { x: 0, y: 0, z: 1 };
    const along = unit3(Math.abs(sun.z) < 0.9 ? cross3(sun, { x: 0, y: 0, z: 1 }) : cross3(sun, { x: 1, y: 0, z: 0 }));
    this.sunFrame = { along, across: cross3(sun, along) };
    this.weights = new Float64Array(scene.lights.length);
    this.portalWeights = new Float64Array(scene.portals.length);
  }

  /** Draws a point on the sun's disc. */
  aimSun(): void {
    const { sun, sunIlluminance: e } = this.scene.daylight!;
    // A point on the sun's disc.
    const r = SUN_RADIUS * Math.sqrt(this.random.next());
    const phi = 2 * Math.PI * this.random.next();
    const { along: t, across: s } = this.sunFrame;
    const c = r * Math.cos(phi);
    const d = r * Math.sin(phi);
    let wx = sun.x + t.x * c + s.x * d;
    let wy = sun.y + t.y * c + s.y * d;
    let wz = sun.z + t.z * c + s.z * d;
    const l = 1 / Math.sqrt(wx * wx + wy * wy + wz * wz);
    wx *= l;
    wy *= l;
    wz *= l;
    this.leave(wx, wy, wz, 1e30, e);
  }

  /** Draws a point of a window's glass, seen from a point. Returns whether the sky lies behind it. */
  aimSky(x: number, y: number, z: number): boolean {
    const { random, scene } = this;
    const total = this.weighPortals(x, y, z);
    let pick = random.next() * total;
    let k = 0;
    while (k < scene.portals.length - 1 && pick > this.portalWeights[k]) pick -= this.portalWeights[k++];
    const p = scene.portals[k];
    const u = random.next();
    const v = random.next();
    let dx = p.corner.x + p.along.x * u + p.up.x * v - x;
    let dy = p.corner.y + p.along.y * u + p.up.y * v - y;
    let dz = p.corner.z + p.along.z * u + p.up.z * v - z;
    const l = 1 / Math.sqrt(dx * dx + dy * dy + dz * dz);
    dx *= l;
    dy *= l;
    dz *= l;
    if (dz <= 0) return false;
    this.leave(dx, dy, dz, 1e30, scene.daylight!.sky({ x: dx, y: dy, z: dz }));
    return true;
  }

  /** Draws a point of a luminaire, and its density into `drawn`. Returns whether its bright side is turned to the point. */
  aimLamp(x: number, y: number, z: number): boolean {
    const { random, scene } = this;
    const total = this.weighLamps(x, y, z);
    let pick = random.next() * total;
    let k = 0;
    while (k < scene.lights.length - 1 && pick > this.weights[k]) pick -= this.weights[k++];
    const light = scene.lights[k];
    const share = random.next();
    let low = 0;
    let high = light.triangles.length - 1;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (light.cumulative[middle] < share) low = middle + 1;
      else high = middle;
    }
    const c = light.triangles[low] * 9;
    const p = scene.positions;
    const s = Math.sqrt(random.next());
    const q = random.next();
    const [wa, wb, wc] = [1 - s, s * (1 - q), s * q];
    const qx = p[c] * wa + p[c + 3] * wb + p[c + 6] * wc;
    const qy = p[c + 1] * wa + p[c + 4] * wb + p[c + 7] * wc;
    const qz = p[c + 2] * wa + p[c + 5] * wb + p[c + 8] * wc;
    let dx = qx - x;
    let dy = qy - y;
    let dz = qz - z;
    const d2 = dx * dx + dy * dy + dz * dz;
    const d = Math.sqrt(d2);
    dx /= d;
    dy /= d;
    dz /= d;
    const e1x = p[c + 3] - p[c];
    const e1y = p[c + 4] - p[c + 1];
    const e1z = p[c + 5] - p[c + 2];
    const e2x = p[c + 6] - p[c];
    const e2y = p[c + 7] - p[c + 1];
    const e2z = p[c + 8] - p[c + 2];
    const nx = e1y * e2z - e1z * e2y;
    const ny = e1z * e2x - e1x * e2z;
    const nz = e1x * e2y - e1y * e2x;
    const size = Math.sqrt(nx * nx + ny * ny + nz * nz);
    const cos = -(nx * dx + ny * dy + nz * dz) / size;
    if (cos <= 1e-6) return false;
    this.drawn = ((this.weights[k] / total) * d2) / (light.area * cos);
    this.leave(dx, dy, dz, d, light.emission);
    this.near = true;
    this.target[0] = qx + (nx / size) * EPS;
    this.target[1] = qy + (ny / size) * EPS;
    this.target[2] = qz + (nz / size) * EPS;
    return true;
  }

  /** Density with which the luminaire's direction was drawn. */
  drawn = 0;

  private leave(dx: number, dy: number, dz: number, far: number, light: readonly [number, number, number]): void {
    this.direction[0] = dx;
    this.direction[1] = dy;
    this.direction[2] = dz;
    this.near = false;
    this.far = far;
    this.light[0] = light[0];
    this.light[1] = light[1];
    this.light[2] = light[2];
  }

  private weighPortals(x: number, y: number, z: number): number {
    const { portals } = this.scene;
    let total = 0;
    for (let k = 0; k < portals.length; k++) {
      const p = portals[k];
      const dx = p.centre.x - x;
      const dy = p.centre.y - y;
      const dz = p.centre.z - z;
      const d2 = dx * dx + dy * dy + dz * dz;
      const c = Math.abs(dx * p.normal.x + dy * p.normal.y + dz * p.normal.z) / Math.sqrt(d2 + 1e-12);
      this.portalWeights[k] = (p.area * (c + 0.1)) / (d2 + p.area);
      total += this.portalWeights[k];
    }
    return total;
  }

  /** Density with which `aimSky` draws a direction from a point. */
  skyDensity(x: number, y: number, z: number, dx: number, dy: number, dz: number): number {
    const { portals } = this.scene;
    const total = this.weighPortals(x, y, z);
    let sum = 0;
    for (let k = 0; k < portals.length; k++) {
      const p = portals[k];
      const c = dx * p.normal.x + dy * p.normal.y + dz * p.normal.z;
      const t = crossing(p, x, y, z, c);
      if (t > 0 && crosses(p, x, y, z, dx, dy, dz, c, 1e30)) sum += (this.portalWeights[k] / total) * ((t * t) / (p.area * Math.abs(c)));
    }
    return sum;
  }

  private weighLamps(x: number, y: number, z: number): number {
    const { lights } = this.scene;
    let total = 0;
    for (let k = 0; k < lights.length; k++) {
      const { centre, flux } = lights[k];
      const dx = centre.x - x;
      const dy = centre.y - y;
      const dz = centre.z - z;
      this.weights[k] = flux / (dx * dx + dy * dy + dz * dz + 0.01);
      total += this.weights[k];
    }
    return total;
  }

  /** Density with which `aimLamp` draws a point of a luminaire, from the point (x, y, z). */
  lampDensity(x: number, y: number, z: number, lx: number, ly: number, lz: number, cos: number, lamp: number): number {
    const total = this.weighLamps(x, y, z);
    const d2 = (lx - x) ** 2 + (ly - y) ** 2 + (lz - z) ** 2;
    return ((this.weights[lamp] / total) * d2) / (this.scene.lights[lamp].area * Math.max(1e-6, Math.abs(cos)));
  }
}
