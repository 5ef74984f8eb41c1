import { fifth, ggxDensity, ggxValue, sampleGgxNormal, schlick, sheenAlbedo, sheenValue, type Random } from './bsdf';
import type { Material, Scene } from './scene';

/**
 * What a ray has hit: the plane of the triangle, the normal as smoothing and relief bend it, colour and roughness of the
 * finish there, and how it scatters. One object serves all hits, one after another.
 */
export class SurfaceHit {
  /** The plane's normal, on the side of the ray. */
  readonly geometric = new Float64Array(3);
  /** The normal before the relief of the finish bends it: what the noise filter goes by. */
  readonly smooth = new Float64Array(3);
  /** The normal light is scattered about, and two directions across it. */
  readonly n = new Float64Array(3);
  private readonly tx = new Float64Array(3);
  private readonly ty = new Float64Array(3);
  /** Colour of the finish here, linear. */
  readonly base = new Float64Array(3);
  /** Scattering times cosine of the last direction asked about. */
  readonly value = new Float64Array(3);
  /** The last direction scattered to. */
  readonly out = new Float64Array(3);
  /** Perceptual roughness where the ray has hit. */
  private rough = 1;
  private readonly half = [0, 0, 0];

  // The lobes of the surface, as the ray meets it.
  private material: Material | null = null;
  private vx = 0;
  private vy = 0;
  private vz = 0;
  private a = 0;
  private f0 = 0;
  private matt = false;
  private pSpecular = 0;

  constructor(private readonly scene: Scene) {}

  /** Sets up normal, tangents and base colour at a hit. Returns whether the triangle's front faces the ray. */
  at(id: number, u: number, v: number, material: Material, dx: number, dy: number, dz: number): boolean {
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

  /** Whether the surface throws back one ray as a mirror does. */
  get mirror(): boolean {
    return this.material!.metalness > 0.5 && this.rough < 0.05;
  }

  /** Weighs the lobes for a ray of direction `d`: diffuse below a dielectric coat, or metal. */
  meet(material: Material, dx: number, dy: number, dz: number): void {
    const { n, tx, ty, rough } = this;
    const metal = material.metalness;
    this.material = material;
    this.vx = -(dx * tx[0] + dy * tx[1] + dz * tx[2]);
    this.vy = -(dx * ty[0] + dy * ty[1] + dz * ty[2]);
    this.vz = Math.max(1e-4, -(dx * n[0] + dy * n[1] + dz * n[2]));
    this.a = Math.max(0.002, rough * rough);
    this.matt = rough >= 0.9 && metal === 0;
    this.f0 = this.matt ? 0 : ((material.ior - 1) / (material.ior + 1)) ** 2;
    const coat = this.matt ? 0 : schlick(this.f0, this.vz);
    const bright = Math.max(this.base[0], this.base[1], this.base[2]);
    this.pSpecular = this.matt ? 0 : metal >= 1 ? 1 : Math.min(0.9, Math.max(0.15, metal + (1 - metal) * (coat / (coat + (1 - coat) * bright + 1e-6))));
  }

  /** Scattering towards a direction of the room, in `value`; returns the density of scattering there, 0 for none. */
  towards(dx: number, dy: number, dz: number): number {
    const { n, tx, ty, geometric: g } = this;
    const lz = dx * n[0] + dy * n[1] + dz * n[2];
    const side = dx * g[0] + dy * g[1] + dz * g[2];
    if (side * lz <= 0) return 0;
    return this.evaluate(dx * tx[0] + dy * tx[1] + dz * tx[2], dx * ty[0] + dy * ty[1] + dz * ty[2], lz);
  }

  /** Draws a direction to scatter to, into `out`, its scattering into `value`. Returns its density, 0 where the path ends. */
  scatter(random: Random): number {
    const { n, tx, ty, geometric: g, half } = this;
    const through = this.material!.translucency;
    let lx: number;
    let ly: number;
    let lz: number;
    if (random.next() < this.pSpecular) {
      sampleGgxNormal(this.vx, this.vy, this.vz, this.a, random.next(), random.next(), half);
      const vh = this.vx * half[0] + this.vy * half[1] + this.vz * half[2];
      lx = 2 * vh * half[0] - this.vx;
      ly = 2 * vh * half[1] - this.vy;
      lz = 2 * vh * half[2] - this.vz;
      if (lz <= 1e-5) return 0;
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
    this.out[0] = wx;
    this.out[1] = wy;
    this.out[2] = wz;
    if ((wx * g[0] + wy * g[1] + wz * g[2]) * lz <= 0) return 0;
    return this.evaluate(lx, ly, lz);
  }

  /** Scattering times cosine towards a local direction, in `value`; returns the density of scattering there. */
  private evaluate(lx: number, ly: number, lz: number): number {
    const { vx, vy, vz, a, f0, matt, pSpecular } = this;
    const r = this.base[0];
    const g = this.base[1];
    const b = this.base[2];
    const m = this.material!;
    const through = m.translucency;
    const value = this.value;
    if (lz <= 0) {
      if (through <= 0) return 0;
      const k = (through * (1 - m.metalness) * (matt ? 1 : 1 - schlick(f0, vz)) * belowFibres(m, vz, -lz) * -lz) / Math.PI;
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
    if (m.sheen > 0) {
      const left = belowFibres(m, vz, lz);
      const fibres = m.sheen * sheenValue(vz, lz, (vz + lz) / Math.sqrt(2 + 2 * (vx * lx + vy * ly + vz * lz)));
      for (let i = 0; i < 3; i++) value[i] = value[i] * left + m.colour[i] * fibres;
    }
    return density;
  }
}

/** Share of the light that fibres leave to what lies below them: what they may throw back is taken, whichever way light runs. */
function belowFibres({ sheen, colour }: Material, vz: number, lz: number): number {
  return sheen > 0 ? 1 - sheen * Math.max(colour[0], colour[1], colour[2]) * Math.max(sheenAlbedo(vz), sheenAlbedo(lz)) : 1;
}
