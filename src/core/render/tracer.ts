import { SUN_RADIUS } from '../light/daylight';
import { cross3, sub3, unit3, type Vec3 } from '../geometry/vec';
import { buildHierarchy } from './bvh';
import { fifth, fresnelDielectric, ggxDensity, ggxValue, Random, refract, sampleGgxNormal, schlick } from './bsdf';
import { RayKernel } from './kernel/kernel';
import type { Camera, Material, Portal, Scene } from './scene';

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
  private readonly shadowRays = new Float32Array(BATCH * 3 * 8);
  private readonly shadowLight = new Float32Array(BATCH * 3 * 3);
  private readonly shadowPixel = new Int32Array(BATCH * 3);
  private shadowCount = 0;

  // What the shading of one hit passes between its steps.
  private readonly n = new Float64Array(3);
  private readonly tx = new Float64Array(3);
  private readonly ty = new Float64Array(3);
  private readonly base = new Float64Array(3);
  /** Perceptual roughness where the ray has hit. */
  private rough = 1;
  /** The normal before the relief of the finish bends it: what the noise filter goes by. */
  private readonly smooth = new Float64Array(3);
  private readonly half = [0, 0, 0];
  /** Two directions across the sun's disc. */
  private readonly sunFrame: { along: Vec3; across: Vec3 };
  private readonly weights: Float64Array;
  private readonly portalWeights: Float64Array;

  constructor(
    private readonly scene: Scene,
    private readonly options: TraceOptions,
  ) {
    this.kernel = new RayKernel(buildHierarchy(scene.positions, scene.seeThrough), BATCH * 3);
    this.random = new Random(options.seed);
    this.bounces = options.bounces ?? 10;
    this.clamp = options.clamp ?? Infinity;
    const sun = scene.daylight?.sun ?? { x: 0, y: 0, z: 1 };
    const along = unit3(Math.abs(sun.z) < 0.9 ? cross3(sun, { x: 0, y: 0, z: 1 }) : cross3(sun, { x: 1, y: 0, z: 0 }));
    this.sunFrame = { along, across: cross3(sun, along) };
    this.weights = new Float64Array(scene.lights.length);
    this.portalWeights = new Float64Array(scene.portals.length);
  }

  /**
   * Adds one sample a pixel.
   *
   * @param sum three values a pixel; samples are added to it
   * @param guides first-hit albedo and normal, six values a pixel, added likewise (for the noise filter)
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
      this.shadowCount = 0;
      alive = this.shade(alive, depth, sum, depth === 0 ? guides : undefined);
      this.shadows(sum, depth);
      this.kernel.rays.set(this.nextRays.subarray(0, alive * 8));
    }
  }

  private shadows(sum: Float32Array, depth: number): void {
    const n = this.shadowCount;
    if (!n) return;
    this.kernel.rays.set(this.shadowRays.subarray(0, n * 8));
    this.kernel.occluded(n);
    const { blocked } = this.kernel;
    const limit = depth === 0 ? Infinity : this.clamp;
    for (let i = 0; i < n; i++) {
      if (blocked[i]) continue;
      this.deposit(sum, this.shadowPixel[i], this.shadowLight[i * 3], this.shadowLight[i * 3 + 1], this.shadowLight[i * 3 + 2], limit);
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
    const { scene, random, throughput, pixel, specular, density, origin } = this;
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
      const front = this.frame(id, hits[i * 4 + 1], hits[i * 4 + 2], material, dx, dy, dz);
      const gx = this.geometric[0];
      const gy = this.geometric[1];
      const gz = this.geometric[2];
      const r = this.base[0];
      const g = this.base[1];
      const b = this.base[2];
      if (guides) {
        guides[px * 6] += r;
        guides[px * 6 + 1] += g;
        guides[px * 6 + 2] += b;
        guides[px * 6 + 3] += this.smooth[0];
        guides[px * 6 + 4] += this.smooth[1];
        guides[px * 6 + 5] += this.smooth[2];
      }
      if (material.emission && front) {
        const e = material.emission;
        let w = 1;
        if (!wasSpecular && material.lamp >= 0) {
          const other = this.lightDensity(origin[i * 3], origin[i * 3 + 1], origin[i * 3 + 2], x, y, z, -(dx * gx + dy * gy + dz * gz), material.lamp);
          w = (wasDensity * wasDensity) / (wasDensity * wasDensity + other * other);
        }
        this.deposit(sum, px, tr * e[0] * w, tg * e[1] * w, tb * e[2] * w, wasSpecular === FROM_EYE ? Infinity : limit);
        if (r + g + b === 0) continue;
      }
      if (depth >= this.bounces) continue;

      if (material.pane) {
        const f = fresnelDielectric(dx * gx + dy * gy + dz * gz, material.ior);
        const out = alive++;
        if (random.next() < f) {
          const k = 2 * (dx * gx + dy * gy + dz * gz);
          this.go(out, px, x + gx * EPS, y + gy * EPS, z + gz * EPS, dx - k * gx, dy - k * gy, dz - k * gz, tr, tg, tb, mirrored, 0);
        } else {
          // Straight through: the path keeps the density it was scattered with, so that the light behind is weighed right.
          const px0 = origin[i * 3];
          const py0 = origin[i * 3 + 1];
          const pz0 = origin[i * 3 + 2];
          this.go(
            out,
            px,
            x - gx * EPS,
            y - gy * EPS,
            z - gz * EPS,
            dx,
            dy,
            dz,
            tr * Math.sqrt(r),
            tg * Math.sqrt(g),
            tb * Math.sqrt(b),
            wasSpecular,
            wasDensity,
          );
          origin[out * 3] = px0;
          origin[out * 3 + 1] = py0;
          origin[out * 3 + 2] = pz0;
        }
        continue;
      }
      if (material.solid) {
        const eta = front ? material.ior : 1 / material.ior;
        const f = fresnelDielectric(dx * gx + dy * gy + dz * gz, eta);
        const bent = random.next() < f ? null : refract([dx, dy, dz], [gx, gy, gz], eta);
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
            mirrored,
            0,
          );
        } else {
          const k = 2 * (dx * gx + dy * gy + dz * gz);
          this.go(out, px, x + gx * EPS, y + gy * EPS, z + gz * EPS, dx - k * gx, dy - k * gy, dz - k * gz, tr, tg, tb, mirrored, 0);
        }
        continue;
      }

      // Opaque and translucent surfaces: diffuse below a dielectric coat, or metal.
      const { n, tx, ty } = this;
      const vx = -(dx * tx[0] + dy * tx[1] + dz * tx[2]);
      const vy = -(dx * ty[0] + dy * ty[1] + dz * ty[2]);
      const vz = Math.max(1e-4, -(dx * n[0] + dy * n[1] + dz * n[2]));
      const metal = material.metalness;
      const { rough } = this;
      const a = Math.max(0.002, rough * rough);
      const matt = rough >= 0.9 && metal === 0;
      const f0 = matt ? 0 : ((material.ior - 1) / (material.ior + 1)) ** 2;
      const mirror = metal > 0.5 && rough < 0.05;
      const coat = matt ? 0 : schlick(f0, vz);
      const bright = Math.max(r, g, b);
      const pSpecular = matt ? 0 : metal >= 1 ? 1 : Math.min(0.9, Math.max(0.15, metal + (1 - metal) * (coat / (coat + (1 - coat) * bright + 1e-6))));
      const through = material.translucency;

      if (mirror) {
        const out = alive++;
        const k = 2 * (dx * n[0] + dy * n[1] + dz * n[2]);
        this.go(out, px, x + gx * EPS, y + gy * EPS, z + gz * EPS, dx - k * n[0], dy - k * n[1], dz - k * n[2], tr * r, tg * g, tb * b, mirrored, 0);
        continue;
      }

      this.current.material = material;
      this.current.vx = vx;
      this.current.vy = vy;
      this.current.vz = vz;
      this.current.a = a;
      this.current.f0 = f0;
      this.current.matt = matt;
      this.current.pSpecular = pSpecular;
      this.aim(depth, px, x, y, z, gx, gy, gz, tr, tg, tb);

      // Scatter.
      let lx: number;
      let ly: number;
      let lz: number;
      const choose = random.next();
      if (choose < pSpecular) {
        sampleGgxNormal(vx, vy, vz, a, random.next(), random.next(), this.half);
        const hx = this.half[0];
        const hy = this.half[1];
        const hz = this.half[2];
        const vh = vx * hx + vy * hy + vz * hz;
        lx = 2 * vh * hx - vx;
        ly = 2 * vh * hy - vy;
        lz = 2 * vh * hz - vz;
        if (lz <= 1e-5) continue;
      } else {
        const u = random.next();
        const phi = 2 * Math.PI * random.next();
        const s = Math.sqrt(u);
        lx = s * Math.cos(phi);
        ly = s * Math.sin(phi);
        lz = Math.sqrt(Math.max(1e-9, 1 - u));
        if (through > 0 && random.next() < through) lz = -lz;
      }
      const wx = tx[0] * lx + ty[0] * ly + n[0] * lz;
      const wy = tx[1] * lx + ty[1] * ly + n[1] * lz;
      const wz = tx[2] * lx + ty[2] * ly + n[2] * lz;
      const side = wx * gx + wy * gy + wz * gz;
      if (side * lz <= 0) continue;
      const p = this.evaluate(lx, ly, lz);
      if (p <= 0) continue;
      const fr = this.value[0];
      const fg = this.value[1];
      const fb = this.value[2];
      tr *= fr / p;
      tg *= fg / p;
      tb *= fb / p;
      if (depth >= 3) {
        const survive = Math.min(0.95, Math.max(tr, tg, tb));
        if (random.next() >= survive) continue;
        tr /= survive;
        tg /= survive;
        tb /= survive;
      }
      const out = alive++;
      const e = side > 0 ? EPS : -EPS;
      this.go(out, px, x + gx * e, y + gy * e, z + gz * e, wx, wy, wz, tr, tg, tb, SCATTERED, p);
      origin[out * 3] = x;
      origin[out * 3 + 1] = y;
      origin[out * 3 + 2] = z;
    }
    return alive;
  }

  private readonly geometric = new Float64Array(3);
  private readonly value = new Float64Array(3);
  private readonly current = {
    material: null as Material | null,
    vx: 0,
    vy: 0,
    vz: 0,
    a: 0,
    f0: 0,
    matt: false,
    pSpecular: 0,
  };

  /** Sets up normal, tangents and base colour at a hit. Returns whether the triangle's front faces the ray. */
  private frame(id: number, u: number, v: number, material: Material, dx: number, dy: number, dz: number): boolean {
    const { positions: p, normals: q, uvs: s } = this.scene;
    const k = id * 9;
    const e1x = p[k + 3] - p[k];
    const e1y = p[k + 4] - p[k + 1];
    const e1z = p[k + 5] - p[k + 2];
    const e2x = p[k + 6] - p[k];
    const e2y = p[k + 7] - p[k + 1];
    const e2z = p[k + 8] - p[k + 2];
    let gx = e1y * e2z - e1z * e2y;
    let gy = e1z * e2x - e1x * e2z;
    let gz = e1x * e2y - e1y * e2x;
    const gl = 1 / Math.sqrt(gx * gx + gy * gy + gz * gz);
    gx *= gl;
    gy *= gl;
    gz *= gl;
    const front = dx * gx + dy * gy + dz * gz < 0;
    if (!front) {
      gx = -gx;
      gy = -gy;
      gz = -gz;
    }
    const w = 1 - u - v;
    let nx = q[k] * w + q[k + 3] * u + q[k + 6] * v;
    let ny = q[k + 1] * w + q[k + 4] * u + q[k + 7] * v;
    let nz = q[k + 2] * w + q[k + 5] * u + q[k + 8] * v;
    if (nx * gx + ny * gy + nz * gz < 0) {
      nx = -nx;
      ny = -ny;
      nz = -nz;
    }
    let l = Math.sqrt(nx * nx + ny * ny + nz * nz);
    if (l < 1e-6) {
      nx = gx;
      ny = gy;
      nz = gz;
      l = 1;
    }
    nx /= l;
    ny /= l;
    nz /= l;
    this.smooth[0] = nx;
    this.smooth[1] = ny;
    this.smooth[2] = nz;
    const base = this.base;
    const texture = material.texture;
    this.rough = material.roughness;
    if (texture) {
      const m = id * 6;
      const tu = s[m] * w + s[m + 2] * u + s[m + 4] * v;
      const tv = s[m + 1] * w + s[m + 3] * u + s[m + 5] * v;
      let fx = (tu / texture.size.width) % 1;
      let fy = (tv / texture.size.height) % 1;
      if (fx < 0) fx += 1;
      if (fy < 0) fy += 1;
      fx = fx * texture.width - 0.5;
      fy = fy * texture.height - 0.5;
      let x0 = Math.floor(fx);
      let y0 = Math.floor(fy);
      const ax = fx - x0;
      const ay = fy - y0;
      if (x0 < 0) x0 += texture.width;
      if (y0 < 0) y0 += texture.height;
      const x1 = x0 + 1 === texture.width ? 0 : x0 + 1;
      const y1 = y0 + 1 === texture.height ? 0 : y0 + 1;
      const t00 = (y0 * texture.width + x0) * 3;
      const t10 = (y0 * texture.width + x1) * 3;
      const t01 = (y1 * texture.width + x0) * 3;
      const t11 = (y1 * texture.width + x1) * 3;
      const c = texture.pixels;
      for (let i = 0; i < 3; i++) base[i] = (c[t00 + i] * (1 - ax) + c[t10 + i] * ax) * (1 - ay) + (c[t01 + i] * (1 - ax) + c[t11 + i] * ax) * ay;
      if (texture.rough) this.rough = texture.rough[t00 / 3] / 255;
      if (texture.normals) {
        // Tangent along growing u, from the triangle's own parametrisation.
        const du1 = s[m + 2] - s[m];
        const dv1 = s[m + 3] - s[m + 1];
        const du2 = s[m + 4] - s[m];
        const dv2 = s[m + 5] - s[m + 1];
        const det = du1 * dv2 - du2 * dv1;
        if (Math.abs(det) > 1e-12) {
          const f = 1 / det;
          const ux = f * (dv2 * e1x - dv1 * e2x);
          const uy = f * (dv2 * e1y - dv1 * e2y);
          const uz = f * (dv2 * e1z - dv1 * e2z);
          const wx = f * (du1 * e2x - du2 * e1x);
          const wy = f * (du1 * e2y - du2 * e1y);
          const wz = f * (du1 * e2z - du2 * e1z);
          const mx = texture.normals[(t00 / 3) * 2] / 127.5;
          const my = texture.normals[(t00 / 3) * 2 + 1] / 127.5;
          const mz = Math.sqrt(Math.max(0.05, 1 - mx * mx - my * my));
          const ul = 1 / Math.sqrt(ux * ux + uy * uy + uz * uz);
          const wl = 1 / Math.sqrt(wx * wx + wy * wy + wz * wz);
          let bx = nx * mz + ux * ul * mx + wx * wl * my;
          let by = ny * mz + uy * ul * mx + wy * wl * my;
          let bz = nz * mz + uz * ul * mx + wz * wl * my;
          const bl = 1 / Math.sqrt(bx * bx + by * by + bz * bz);
          bx *= bl;
          by *= bl;
          bz *= bl;
          if (bx * gx + by * gy + bz * gz > 0.02 && -(bx * dx + by * dy + bz * dz) > 0.02) {
            nx = bx;
            ny = by;
            nz = bz;
          }
        }
      }
    } else {
      base[0] = material.colour[0];
      base[1] = material.colour[1];
      base[2] = material.colour[2];
    }
    if (-(nx * dx + ny * dy + nz * dz) < 1e-3) {
      nx = gx;
      ny = gy;
      nz = gz;
    }
    this.geometric[0] = gx;
    this.geometric[1] = gy;
    this.geometric[2] = gz;
    this.n[0] = nx;
    this.n[1] = ny;
    this.n[2] = nz;
    // Duff et al. 2017: an orthonormal basis from one vector.
    const sign = nz >= 0 ? 1 : -1;
    const aa = -1 / (sign + nz);
    const bb = nx * ny * aa;
    this.tx[0] = 1 + sign * nx * nx * aa;
    this.tx[1] = sign * bb;
    this.tx[2] = -sign * nx;
    this.ty[0] = bb;
    this.ty[1] = sign + ny * ny * aa;
    this.ty[2] = -ny;
    return front;
  }

  /** Scattering times cosine towards a local direction, in `value`; returns the density of scattering there. */
  private evaluate(lx: number, ly: number, lz: number): number {
    const { material, vx, vy, vz, a, f0, matt, pSpecular } = this.current;
    const r = this.base[0];
    const g = this.base[1];
    const b = this.base[2];
    const m = material!;
    const through = m.translucency;
    const value = this.value;
    if (lz <= 0) {
      if (through <= 0) return 0;
      const k = (through * (1 - m.metalness) * (matt ? 1 : 1 - schlick(f0, vz)) * -lz) / Math.PI;
      value[0] = r * k;
      value[1] = g * k;
      value[2] = b * k;
      return ((1 - pSpecular) * through * -lz) / Math.PI;
    }
    const coat = matt ? 1 : (1 - schlick(f0, vz)) * (1 - schlick(f0, lz));
    const k = ((1 - through) * (1 - m.metalness) * coat * lz) / Math.PI;
    value[0] = r * k;
    value[1] = g * k;
    value[2] = b * k;
    let density = ((1 - pSpecular) * (1 - through) * lz) / Math.PI;
    if (!matt) {
      let hx = vx + lx;
      let hy = vy + ly;
      let hz = vz + lz;
      const l = 1 / Math.sqrt(hx * hx + hy * hy + hz * hz);
      hx *= l;
      hy *= l;
      hz *= l;
      const vh = vx * hx + vy * hy + vz * hz;
      const s = ggxValue(vz, lz, hz, a);
      const w = fifth(Math.max(0, 1 - vh));
      const metal = m.metalness;
      const f = f0 * (1 - metal);
      value[0] += s * (f + r * metal + (1 - f - r * metal) * w);
      value[1] += s * (f + g * metal + (1 - f - g * metal) * w);
      value[2] += s * (f + b * metal + (1 - f - b * metal) * w);
      density += pSpecular * ggxDensity(vz, hz, a);
    }
    return density;
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
    if (guides) {
      guides[px * 6] += 1;
      guides[px * 6 + 1] += 1;
      guides[px * 6 + 2] += 1;
    }
    const { daylight, portals } = this.scene;
    if (!daylight) return;
    const l = daylight.sky({ x: dx, y: dy, z: dz });
    let w = 1;
    if (!this.specular[i] && portals.length) {
      const own = this.density[i];
      const other = this.portalDensity(this.origin[i * 3], this.origin[i * 3 + 1], this.origin[i * 3 + 2], dx, dy, dz);
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

  /** Sends shadow rays towards sun, sky through a window, and a luminaire: all at the first hit, one of them later. */
  private aim(depth: number, px: number, x: number, y: number, z: number, gx: number, gy: number, gz: number, tr: number, tg: number, tb: number): void {
    const { scene, random } = this;
    const sun = scene.daylight && scene.daylight.sunIlluminance[1] > 0 ? 1 : 0;
    const sky = scene.daylight && scene.portals.length ? 1 : 0;
    const lamps = scene.lights.length ? 1 : 0;
    const kinds = sun + sky + lamps;
    if (!kinds) return;
    let only = -1;
    let boost = 1;
    if (depth > 0 && kinds > 1) {
      only = Math.floor(random.next() * kinds);
      boost = kinds;
    }
    let k = 0;
    if (sun && (only < 0 || only === k++)) this.aimSun(px, x, y, z, gx, gy, gz, tr * boost, tg * boost, tb * boost);
    if (sky && (only < 0 || only === k++)) this.aimSky(px, x, y, z, gx, gy, gz, tr * boost, tg * boost, tb * boost);
    if (lamps && (only < 0 || only === k)) this.aimLamp(px, x, y, z, gx, gy, gz, tr * boost, tg * boost, tb * boost);
  }

  /** Puts a shadow ray on the list if the surface scatters towards it. Returns the scattering density, or 0. */
  private local(dx: number, dy: number, dz: number, gx: number, gy: number, gz: number): number {
    const { n, tx, ty } = this;
    const lz = dx * n[0] + dy * n[1] + dz * n[2];
    const side = dx * gx + dy * gy + dz * gz;
    if (side * lz <= 0) return 0;
    return this.evaluate(dx * tx[0] + dy * tx[1] + dz * tx[2], dx * ty[0] + dy * ty[1] + dz * ty[2], lz);
  }

  private shadow(
    px: number,
    x: number,
    y: number,
    z: number,
    gx: number,
    gy: number,
    gz: number,
    dx: number,
    dy: number,
    dz: number,
    far: number,
    r: number,
    g: number,
    b: number,
  ): void {
    const e = dx * gx + dy * gy + dz * gz > 0 ? EPS : -EPS;
    const i = this.shadowCount++;
    const ox = x + gx * e;
    const oy = y + gy * e;
    const oz = z + gz * e;
    setRay(this.shadowRays, i, ox, oy, oz, 0, dx, dy, dz, far);
    const { panes } = this.scene;
    for (let k = 0; k < panes.length; k++) {
      const pane = panes[k];
      const c = dx * pane.normal.x + dy * pane.normal.y + dz * pane.normal.z;
      if (!crosses(pane, ox, oy, oz, dx, dy, dz, c, far)) continue;
      const f = 1 - fresnelDielectric(c, pane.ior);
      r *= f * f * pane.tint[0];
      g *= f * f * pane.tint[1];
      b *= f * f * pane.tint[2];
    }
    this.shadowLight[i * 3] = r;
    this.shadowLight[i * 3 + 1] = g;
    this.shadowLight[i * 3 + 2] = b;
    this.shadowPixel[i] = px;
  }

  private aimSun(px: number, x: number, y: number, z: number, gx: number, gy: number, gz: number, tr: number, tg: number, tb: number): void {
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
    if (this.local(wx, wy, wz, gx, gy, gz) <= 0) return;
    const fr = this.value[0];
    const fg = this.value[1];
    const fb = this.value[2];
    this.shadow(px, x, y, z, gx, gy, gz, wx, wy, wz, 1e30, tr * fr * e[0], tg * fg * e[1], tb * fb * e[2]);
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

  private portalDensity(x: number, y: number, z: number, dx: number, dy: number, dz: number): number {
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

  private aimSky(px: number, x: number, y: number, z: number, gx: number, gy: number, gz: number, tr: number, tg: number, tb: number): void {
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
    if (dz <= 0) return;
    const scatter = this.local(dx, dy, dz, gx, gy, gz);
    if (scatter <= 0) return;
    const fr = this.value[0];
    const fg = this.value[1];
    const fb = this.value[2];
    const own = this.portalDensity(x, y, z, dx, dy, dz);
    if (own <= 0) return;
    const w = (own * own) / (own * own + scatter * scatter) / own;
    const sky = scene.daylight!.sky({ x: dx, y: dy, z: dz });
    this.shadow(px, x, y, z, gx, gy, gz, dx, dy, dz, 1e30, tr * fr * sky[0] * w, tg * fg * sky[1] * w, tb * fb * sky[2] * w);
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

  private lightDensity(x: number, y: number, z: number, lx: number, ly: number, lz: number, cos: number, lamp: number): number {
    const total = this.weighLamps(x, y, z);
    const d2 = (lx - x) ** 2 + (ly - y) ** 2 + (lz - z) ** 2;
    return ((this.weights[lamp] / total) * d2) / (this.scene.lights[lamp].area * Math.max(1e-6, Math.abs(cos)));
  }

  private aimLamp(px: number, x: number, y: number, z: number, gx: number, gy: number, gz: number, tr: number, tg: number, tb: number): void {
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
    const cos = -(nx * dx + ny * dy + nz * dz) / Math.sqrt(nx * nx + ny * ny + nz * nz);
    if (cos <= 1e-6) return;
    const scatter = this.local(dx, dy, dz, gx, gy, gz);
    if (scatter <= 0) return;
    const fr = this.value[0];
    const fg = this.value[1];
    const fb = this.value[2];
    const own = ((this.weights[k] / total) * d2) / (light.area * cos);
    const w = (own * own) / (own * own + scatter * scatter) / own;
    const e = light.emission;
    this.shadow(px, x, y, z, gx, gy, gz, dx, dy, dz, d - 2 * EPS, tr * fr * e[0] * w, tg * fg * e[1] * w, tb * fb * e[2] * w);
  }
}

function setRay(rays: Float32Array, i: number, ox: number, oy: number, oz: number, tmin: number, dx: number, dy: number, dz: number, tmax: number): void {
  const k = i * 8;
  rays[k] = ox;
  rays[k + 1] = oy;
  rays[k + 2] = oz;
  rays[k + 3] = tmin;
  rays[k + 4] = dx;
  rays[k + 5] = dy;
  rays[k + 6] = dz;
  rays[k + 7] = tmax;
}

/** Distance along a ray of direction cosine `c` to the plane of a rectangle. */
const crossing = (p: Portal, x: number, y: number, z: number, c: number): number =>
  Math.abs(c) < 1e-9 ? -1 : ((p.corner.x - x) * p.normal.x + (p.corner.y - y) * p.normal.y + (p.corner.z - z) * p.normal.z) / c;

/** Whether a ray passes through a rectangle before `far`. */
function crosses(p: Portal, x: number, y: number, z: number, dx: number, dy: number, dz: number, c: number, far: number): boolean {
  const t = crossing(p, x, y, z, c);
  if (t <= 0 || t >= far) return false;
  const qx = x + dx * t - p.corner.x;
  const qy = y + dy * t - p.corner.y;
  const qz = z + dz * t - p.corner.z;
  const a = (qx * p.along.x + qy * p.along.y + qz * p.along.z) / (p.along.x ** 2 + p.along.y ** 2 + p.along.z ** 2);
  const b = (qx * p.up.x + qy * p.up.y + qz * p.up.z) / (p.up.x ** 2 + p.up.y ** 2 + p.up.z ** 2);
  return a >= 0 && a <= 1 && b >= 0 && b <= 1;
}
