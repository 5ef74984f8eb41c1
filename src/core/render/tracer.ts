import { cross3, sub3, unit3, type Vec3 } from '../geometry/vec';
import { buildHierarchy } from './bvh';
import { fresnelDielectric, Random, refract } from './bsdf';
import { SUN_RADIUS } from '../light/daylight';
import { RayKernel } from './kernel/kernel';
import { Lights } from './lights';
import { setRay } from './rays';
import type { Camera, Scene } from './scene';
import { ShadowRays } from './shadows';
import { SurfaceHit } from './surface';

export interface TraceOptions {
  width: number;
  height: number;
  camera: Camera;
  seed: number;
  /** Longest path in bounces. */
  bounces?: number;
  /** Indirect contributions above this luminance are cut to it (cd/m²): a small, known bias that removes fireflies. */
  clamp?: number;
}

const BATCH = 4096;
const EPS = 1e-4;

/**
 * How a ray left the surface before: scattered, where lights have been aimed at already; by mirrors and glass alone since
 * the eye; by a mirror or glass after it was scattered. The last kind sees luminaires and sky but not the sun's disc:
 * the sun's caustics, which hardly a path finds, are left out rather than shown as specks.
 */
const SCATTERED = 0;
const FROM_EYE = 1;
const MIRRORED = 2;

/**
 * A wavefront path tracer: whole batches of rays go through the kernel, then all their hits are shaded. Next-event
 * estimation towards the sun's disc, towards windows as portals to the sky, and towards luminaires, combined with
 * scattered rays by the power heuristic (Veach 1997). Radiance is luminance in cd/m², as linear sRGB.
 */
export class Tracer {
  readonly kernel: RayKernel;
  private readonly random: Random;
  private readonly bounces: number;
  private readonly clamp: number;

  // State of the paths of a batch.
  private readonly throughput = new Float32Array(BATCH * 3);
  private readonly pixel = new Int32Array(BATCH);
  private readonly specular = new Uint8Array(BATCH);
  private readonly density = new Float32Array(BATCH);
  private readonly origin = new Float32Array(BATCH * 3);
  private readonly nextRays = new Float32Array(BATCH * 8);
  private readonly hit: SurfaceHit;
  private readonly lights: Lights;
  private readonly shadows: ShadowRays;

  constructor(
    private readonly scene: Scene,
    private readonly options: TraceOptions,
  ) {
    this.kernel = new RayKernel(buildHierarchy(scene.positions, scene.seeThrough), BATCH * 3);
    this.random = new Random(options.seed);
    this.bounces = options.bounces ?? 10;
    this.clamp = options.clamp ?? Infinity;
    this.hit = new SurfaceHit(scene);
    this.lights = new Lights(scene, this.random);
    this.shadows = new ShadowRays(scene, this.kernel, BATCH * 3);
  }

  /**
   * Adds one sample a pixel.
   *
   * @param sum three values a pixel; samples are added to it
   * @param guides colour and normal of the first surface that scatters, six values a pixel, added likewise (for the denoiser)
   * @param onRow called now and then with the share done; return true to stop early
   */
  pass(sum: Float32Array, guides?: Float32Array, onRow?: (done: number) => boolean): void {
    const { width, height, camera } = this.options;
    const forward = unit3(sub3(camera.target, camera.eye));
    let right = cross3(forward, { x: 0, y: 0, z: 1 });
    if (Math.hypot(right.x, right.y, right.z) < 1e-6) right = { x: 1, y: 0, z: 0 };
    right = unit3(right);
    const up = cross3(right, forward);
    const tan = Math.tan(camera.fov / 2);
    const aspect = width / height;
    const { rays } = this.kernel;
    const total = width * height;
    for (let start = 0; start < total; start += BATCH) {
      const count = Math.min(BATCH, total - start);
      for (let i = 0; i < count; i++) {
        const p = start + i;
        const x = (((p % width) + this.random.next()) / width) * 2 - 1;
        const y = 1 - ((Math.floor(p / width) + this.random.next()) / height) * 2;
        const [sx, sy] = [x * tan * aspect, y * tan];
        const d = unit3({
          x: forward.x + right.x * sx + up.x * sy,
          y: forward.y + right.y * sx + up.y * sy,
          z: forward.z + right.z * sx + up.z * sy,
        });
        setRay(rays, i, camera.eye.x, camera.eye.y, camera.eye.z, 1e-4, d.x, d.y, d.z, 1e30);
        this.start(i, p);
      }
      this.run(count, sum, guides);
      if (onRow?.((start + count) / total)) return;
    }
  }

  /** Light arriving along given rays (origin and direction), one estimate each; for probes and proofs. */
  radiance(rays: readonly { origin: Vec3; direction: Vec3 }[], sum: Float32Array): void {
    for (let start = 0; start < rays.length; start += BATCH) {
      const count = Math.min(BATCH, rays.length - start);
      for (let i = 0; i < count; i++) {
        const { origin: o, direction: d } = rays[start + i];
        setRay(this.kernel.rays, i, o.x, o.y, o.z, 1e-4, d.x, d.y, d.z, 1e30);
        this.start(i, start + i);
      }
      this.run(count, sum);
    }
  }

  private start(i: number, pixel: number): void {
    this.throughput.fill(1, i * 3, i * 3 + 3);
    this.pixel[i] = pixel;
    this.specular[i] = FROM_EYE;
    this.density[i] = 0;
  }

  private run(count: number, sum: Float32Array, guides?: Float32Array): void {
    let alive = count;
    for (let depth = 0; alive > 0 && depth <= this.bounces; depth++) {
      this.kernel.closest(alive);
      this.shadows.clear();
      alive = this.shade(alive, depth, sum, guides);
      const limit = depth === 0 ? Infinity : this.clamp;
      this.shadows.send((pixel, r, g, b) => this.deposit(sum, pixel, r, g, b, limit));
      this.kernel.rays.set(this.nextRays.subarray(0, alive * 8));
    }
  }

  private deposit(sum: Float32Array, pixel: number, r: number, g: number, b: number, limit: number): void {
    const l = 0.2126 * r + 0.7152 * g + 0.0722 * b;
    if (!(l >= 0) || l === Infinity) return;
    const k = l > limit ? limit / l : 1;
    sum[pixel * 3] += r * k;
    sum[pixel * 3 + 1] += g * k;
    sum[pixel * 3 + 2] += b * k;
  }

  /** Shades all hits of a batch; returns how many paths go on, their rays in `nextRays`. */
  private shade(count: number, depth: number, sum: Float32Array, guides?: Float32Array): number {
    const { scene, random, throughput, pixel, specular, density, origin, hit, lights } = this;
    const { rays, hits, hitIds } = this.kernel;
    const limit = depth === 0 ? Infinity : this.clamp;
    let alive = 0;
    for (let i = 0; i < count; i++) {
      const px = pixel[i];
      let tr = throughput[i * 3];
      let tg = throughput[i * 3 + 1];
      let tb = throughput[i * 3 + 2];
      const dx = rays[i * 8 + 4];
      const dy = rays[i * 8 + 5];
      const dz = rays[i * 8 + 6];
      const id = hitIds[i * 4 + 3];
      const wasSpecular = specular[i];
      const mirrored = wasSpecular === FROM_EYE ? FROM_EYE : MIRRORED;
      const wasDensity = density[i];
      if (id < 0) {
        this.miss(i, px, tr, tg, tb, dx, dy, dz, sum, limit, guides);
        continue;
      }
      const t = hits[i * 4];
      const material = scene.materials[scene.material[id]];
      const x = rays[i * 8] + dx * t;
      const y = rays[i * 8 + 1] + dy * t;
      const z = rays[i * 8 + 2] + dz * t;
      // The plane of the triangle, facing the ray.
      const front = hit.at(id, hits[i * 4 + 1], hits[i * 4 + 2], material, dx, dy, dz);
      const gx = hit.geometric[0];
      const gy = hit.geometric[1];
      const gz = hit.geometric[2];
      const r = hit.base[0];
      const g = hit.base[1];
      const b = hit.base[2];
      if (material.opacity < 1 && depth < this.bounces && random.next() >= material.opacity) {
        this.straight(i, alive++, px, x - gx * EPS, y - gy * EPS, z - gz * EPS, tr, tg, tb);
        continue;
      }
      if (material.emission && front) {
        const e = material.emission;
        if (guides && wasSpecular === FROM_EYE) this.guide(guides, px, tr, tg, tb);
        let w = 1;
        if (!wasSpecular && material.lamp >= 0) {
          const other = lights.lampDensity(origin[i * 3], origin[i * 3 + 1], origin[i * 3 + 2], x, y, z, -(dx * gx + dy * gy + dz * gz), material.lamp);
          w = (wasDensity * wasDensity) / (wasDensity * wasDensity + other * other);
        }
        this.deposit(sum, px, tr * e[0] * w, tg * e[1] * w, tb * e[2] * w, wasSpecular === FROM_EYE ? Infinity : limit);
        if (r + g + b === 0) continue;
      }
      if (depth >= this.bounces) continue;

      // What is seen through ribbed glass is bent; the light that scattered paths find behind it comes straight, as shadow rays go.
      const ribbed = material.pane && material.texture?.normals && wasSpecular;
      if (material.pane && !ribbed) {
        const f = fresnelDielectric(dx * gx + dy * gy + dz * gz, material.ior);
        const out = alive++;
        if (random.next() < f) {
          const k = 2 * (dx * gx + dy * gy + dz * gz);
          this.go(out, px, x + gx * EPS, y + gy * EPS, z + gz * EPS, dx - k * gx, dy - k * gy, dz - k * gz, tr, tg, tb, mirrored, 0);
        } else {
          this.straight(i, out, px, x - gx * EPS, y - gy * EPS, z - gz * EPS, tr * Math.sqrt(r), tg * Math.sqrt(g), tb * Math.sqrt(b));
        }
        continue;
      }
      if (material.solid || ribbed) {
        const eta = front ? material.ior : 1 / material.ior;
        // Ribbed glass is flat where light enters and ribbed where it leaves.
        const [nx, ny, nz] = ribbed && !front ? hit.n : hit.geometric;
        const f = fresnelDielectric(dx * nx + dy * ny + dz * nz, eta);
        const bent = random.next() < f ? null : refract([dx, dy, dz], [nx, ny, nz], eta);
        const out = alive++;
        if (bent) {
          const k = front ? 1 : 0;
          this.go(
            out,
            px,
            x - gx * EPS,
            y - gy * EPS,
            z - gz * EPS,
            bent[0],
            bent[1],
            bent[2],
            tr * (k ? r : 1),
            tg * (k ? g : 1),
            tb * (k ? b : 1),
            ribbed ? wasSpecular : mirrored,
            0,
          );
        } else {
          const k = 2 * (dx * gx + dy * gy + dz * gz);
          this.go(out, px, x + gx * EPS, y + gy * EPS, z + gz * EPS, dx - k * gx, dy - k * gy, dz - k * gz, tr, tg, tb, mirrored, 0);
        }
        continue;
      }

      // Opaque and translucent surfaces.
      hit.meet(material, dx, dy, dz);
      if (hit.mirror) {
        const { n } = hit;
        const out = alive++;
        const k = 2 * (dx * n[0] + dy * n[1] + dz * n[2]);
        this.go(out, px, x + gx * EPS, y + gy * EPS, z + gz * EPS, dx - k * n[0], dy - k * n[1], dz - k * n[2], tr * r, tg * g, tb * b, mirrored, 0);
        continue;
      }
      if (guides && wasSpecular === FROM_EYE && !material.emission) this.guide(guides, px, tr * r, tg * g, tb * b);
      this.aim(depth, px, x, y, z, tr, tg, tb);
      const p = hit.scatter(random);
      if (p <= 0) continue;
      const wx = hit.out[0];
      const wy = hit.out[1];
      const wz = hit.out[2];
      tr *= hit.value[0] / p;
      tg *= hit.value[1] / p;
      tb *= hit.value[2] / p;
      if (depth >= 3) {
        const survive = Math.min(0.95, Math.max(tr, tg, tb));
        if (random.next() >= survive) continue;
        tr /= survive;
        tg /= survive;
        tb /= survive;
      }
      const out = alive++;
      const e = wx * gx + wy * gy + wz * gz > 0 ? EPS : -EPS;
      this.go(out, px, x + gx * e, y + gy * e, z + gz * e, wx, wy, wz, tr, tg, tb, SCATTERED, p);
      origin[out * 3] = x;
      origin[out * 3 + 1] = y;
      origin[out * 3 + 2] = z;
    }
    return alive;
  }

  /** Notes colour and normal of the first surface that scatters, seen through panes and in mirrors. */
  private guide(guides: Float32Array, px: number, r: number, g: number, b: number): void {
    const { smooth } = this.hit;
    guides[px * 6] += Math.min(1, r);
    guides[px * 6 + 1] += Math.min(1, g);
    guides[px * 6 + 2] += Math.min(1, b);
    guides[px * 6 + 3] += smooth[0];
    guides[px * 6 + 4] += smooth[1];
    guides[px * 6 + 5] += smooth[2];
  }

  private go(
    out: number,
    px: number,
    x: number,
    y: number,
    z: number,
    dx: number,
    dy: number,
    dz: number,
    tr: number,
    tg: number,
    tb: number,
    specular: number,
    density: number,
  ): void {
    setRay(this.nextRays, out, x, y, z, 0, dx, dy, dz, 1e30);
    this.throughput[out * 3] = tr;
    this.throughput[out * 3 + 1] = tg;
    this.throughput[out * 3 + 2] = tb;
    this.pixel[out] = px;
    this.specular[out] = specular;
    this.density[out] = density;
  }

  /** Lets path `i` go on as it came: it keeps the density it was scattered with, so that the light behind is weighed right. */
  private straight(i: number, out: number, px: number, x: number, y: number, z: number, tr: number, tg: number, tb: number): void {
    const { rays } = this.kernel;
    const { origin } = this;
    this.go(out, px, x, y, z, rays[i * 8 + 4], rays[i * 8 + 5], rays[i * 8 + 6], tr, tg, tb, this.specular[i], this.density[i]);
    // `out` is never behind `i`, so that nothing still to be read is overwritten.
    origin[out * 3] = origin[i * 3];
    origin[out * 3 + 1] = origin[i * 3 + 1];
    origin[out * 3 + 2] = origin[i * 3 + 2];
  }

  private miss(
    i: number,
    px: number,
    tr: number,
    tg: number,
    tb: number,
    dx: number,
    dy: number,
    dz: number,
    sum: Float32Array,
    limit: number,
    guides?: Float32Array,
  ): void {
    if (guides && this.specular[i] === FROM_EYE) {
      guides[px * 6] += Math.min(1, tr);
      guides[px * 6 + 1] += Math.min(1, tg);
      guides[px * 6 + 2] += Math.min(1, tb);
    }
    const { daylight, portals } = this.scene;
    if (!daylight) return;
    const l = daylight.sky({ x: dx, y: dy, z: dz });
    let w = 1;
    if (!this.specular[i] && portals.length) {
      const own = this.density[i];
      const other = this.lights.skyDensity(this.origin[i * 3], this.origin[i * 3 + 1], this.origin[i * 3 + 2], dx, dy, dz);
      w = (own * own) / (own * own + other * other);
    }
    let [r, g, b] = [l[0] * w, l[1] * w, l[2] * w];
    if (this.specular[i] === FROM_EYE) {
      const { sun, sunIlluminance: e } = daylight;
      if (dx * sun.x + dy * sun.y + dz * sun.z > Math.cos(SUN_RADIUS)) {
        const k = 1 / (Math.PI * SUN_RADIUS * SUN_RADIUS);
        r += e[0] * k;
        g += e[1] * k;
        b += e[2] * k;
      }
    }
    this.deposit(sum, px, tr * r, tg * g, tb * b, this.specular[i] === FROM_EYE ? Infinity : limit);
  }

  /** Sends shadow rays towards sun, sky through a window, and a luminaire: all at the first hit; later always to the sun, whose patches are small and bright, and to one of the others. */
  private aim(depth: number, px: number, x: number, y: number, z: number, tr: number, tg: number, tb: number): void {
    const { random, lights } = this;
    const { sun, sky, lamps } = lights;
    const both = depth > 0 && sky && lamps;
    const first = both && random.next() < 0.5;
    const boost = both ? 2 : 1;
    if (sun) {
      lights.aimSun();
      if (this.scatterAimed() > 0) this.connect(px, x, y, z, tr, tg, tb);
    }
    if (sky && (!both || first) && lights.aimSky(x, y, z)) {
      const scatter = this.scatterAimed();
      const d = lights.direction;
      const own = scatter > 0 ? lights.skyDensity(x, y, z, d[0], d[1], d[2]) : 0;
      if (own > 0) {
        const w = boost * (own / (own * own + scatter * scatter));
        this.connect(px, x, y, z, tr * w, tg * w, tb * w);
      }
    }
    if (lamps && (!both || !first) && lights.aimLamp(x, y, z)) {
      const scatter = this.scatterAimed();
      if (scatter > 0) {
        const w = boost * (lights.drawn / (lights.drawn * lights.drawn + scatter * scatter));
        this.connect(px, x, y, z, tr * w, tg * w, tb * w);
      }
    }
  }

  private scatterAimed(): number {
    const { direction: d } = this.lights;
    return this.hit.towards(d[0], d[1], d[2]);
  }

  /**
   * Puts the way to the light aimed at on the list of shadow rays. It sets out a little off the surface; to a point near by it
   * is taken anew from there, as at grazing angles the old direction would meet the luminaire's plane before its end.
   */
  private connect(px: number, x: number, y: number, z: number, tr: number, tg: number, tb: number): void {
    const { direction: d, light, near, target } = this.lights;
    const { geometric: g, value } = this.hit;
    const e = d[0] * g[0] + d[1] * g[1] + d[2] * g[2] > 0 ? EPS : -EPS;
    const ox = x + g[0] * e;
    const oy = y + g[1] * e;
    const oz = z + g[2] * e;
    let [dx, dy, dz] = d;
    let { far } = this.lights;
    if (near) {
      dx = target[0] - ox;
      dy = target[1] - oy;
      dz = target[2] - oz;
      far = Math.sqrt(dx * dx + dy * dy + dz * dz);
      dx /= far;
      dy /= far;
      dz /= far;
    }
    this.shadows.add(px, ox, oy, oz, dx, dy, dz, far, tr * value[0] * light[0], tg * value[1] * light[1], tb * value[2] * light[2]);
  }
}
