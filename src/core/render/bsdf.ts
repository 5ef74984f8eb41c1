/**
 * How surfaces scatter light. Pure functions on numbers; directions are unit vectors in a local frame with the
 * normal along z. Sources: Walter et al. 2007 (GGX), Heitz 2018 (sampling of visible normals), Schlick 1994.
 */

/** Reflectance of a smooth dielectric boundary (Fresnel), for unpolarised light. */
export function fresnelDielectric(cosIncident: number, eta: number): number {
  const c = Math.abs(cosIncident);
  const s2 = (1 - c * c) / (eta * eta);
  if (s2 >= 1) return 1;
  const ct = Math.sqrt(1 - s2);
  const rs = (c - eta * ct) / (c + eta * ct);
  const rp = (eta * c - ct) / (eta * c + ct);
  return (rs * rs + rp * rp) / 2;
}

/** The fifth power, without the slow general one. */
export const fifth = (x: number): number => x * x * x * x * x;

/** Schlick's approximation of reflectance from that at normal incidence. */
export const schlick = (f0: number, cos: number): number => f0 + (1 - f0) * fifth(Math.max(0, 1 - cos));

/**
 * Direction after refraction by Snell's law into a medium of relative index `eta`, or null for total reflection.
 *
 * @param d direction of travel, towards the surface
 * @param n unit normal on the side the light comes from
 */
export function refract(d: readonly number[], n: readonly number[], eta: number): [number, number, number] | null {
  const c = -(d[0] * n[0] + d[1] * n[1] + d[2] * n[2]);
  const s2 = (1 - c * c) / (eta * eta);
  if (s2 > 1) return null;
  const k = c / eta - Math.sqrt(1 - s2);
  return [d[0] / eta + k * n[0], d[1] / eta + k * n[1], d[2] / eta + k * n[2]];
}

/** Mirror direction of travel `d` at a surface with unit normal `n`. */
export function reflect(d: readonly number[], n: readonly number[]): [number, number, number] {
  const k = 2 * (d[0] * n[0] + d[1] * n[1] + d[2] * n[2]);
  return [d[0] - k * n[0], d[1] - k * n[1], d[2] - k * n[2]];
}

/** Smith masking of one direction for GGX with width `a`. */
const lambda = (z: number, a: number): number => {
  const t2 = (1 - z * z) / (z * z);
  return (Math.sqrt(1 + a * a * t2) - 1) / 2;
};

const distribution = (hz: number, a: number): number => {
  const k = hz * hz * (a * a - 1) + 1;
  return (a * a) / (Math.PI * k * k);
};

/** Height-correlated masking and shadowing over the two cosines: D·G/(4·cos·cos) without Fresnel, times cos out. */
export function ggxValue(vz: number, lz: number, hz: number, a: number): number {
  if (vz <= 0 || lz <= 0) return 0;
  return distribution(hz, a) / (4 * vz * (1 + lambda(vz, a) + lambda(lz, a)));
}

/** Density of `sampleGgx` for a direction, per steradian. */
export function ggxDensity(vz: number, hz: number, a: number): number {
  if (vz <= 0) return 0;
  return distribution(hz, a) / (4 * vz * (1 + lambda(vz, a)));
}

/** A microfacet normal visible from `v` (Heitz 2018). Writes into `out`. */
export function sampleGgxNormal(vx: number, vy: number, vz: number, a: number, u1: number, u2: number, out: number[]): void {
  let [hx, hy, hz] = [a * vx, a * vy, vz];
  const l = 1 / Math.sqrt(hx * hx + hy * hy + hz * hz);
  hx *= l;
  hy *= l;
  hz *= l;
  const l2 = hx * hx + hy * hy;
  const [t1x, t1y] = l2 > 0 ? [-hy / Math.sqrt(l2), hx / Math.sqrt(l2)] : [1, 0];
  const [t2x, t2y, t2z] = [-hz * t1y, hz * t1x, hx * t1y - hy * t1x];
  const r = Math.sqrt(u1);
  const phi = 2 * Math.PI * u2;
  const p1 = r * Math.cos(phi);
  const s = (1 + hz) / 2;
  const p2 = (1 - s) * Math.sqrt(1 - p1 * p1) + s * r * Math.sin(phi);
  const p3 = Math.sqrt(Math.max(0, 1 - p1 * p1 - p2 * p2));
  const nx = a * (p1 * t1x + p2 * t2x + p3 * hx);
  const ny = a * (p1 * t1y + p2 * t2y + p3 * hy);
  const nz = Math.max(1e-6, p2 * t2z + p3 * hz);
  const k = 1 / Math.sqrt(nx * nx + ny * ny + nz * nz);
  out[0] = nx * k;
  out[1] = ny * k;
  out[2] = nz * k;
}

/** Width of the fibres' distribution: the square of the roughness that the view has them with. */
const FIBRES = 0.36;

/**
 * Light caught by fibres that stand about the normal: distribution and shadowing of Estevez and Kulla 2017 and Neubelt and
 * Pettineo 2013, times cos out. Brightest where light grazes.
 */
export function sheenValue(vz: number, lz: number, hz: number): number {
  if (vz <= 0 || lz <= 0) return 0;
  const sin = Math.sqrt(Math.max(0, 1 - hz * hz));
  return (((2 + 1 / FIBRES) * sin ** (1 / FIBRES)) / (2 * Math.PI) / (4 * (vz + lz - vz * lz))) * lz;
}

const ALBEDOS = 64;
let albedos: Float64Array | null = null;

/** Share of the light from a direction that fibres throw back in all, by the cosine of the direction; from a table. */
export function sheenAlbedo(vz: number): number {
  albedos ??= Float64Array.from({ length: ALBEDOS + 1 }, (_, i) => integrateSheen(Math.max(1e-3, i / ALBEDOS)));
  const at = Math.min(1, Math.max(0, vz)) * ALBEDOS;
  const i = Math.min(ALBEDOS - 1, Math.floor(at));
  return albedos[i] + (albedos[i + 1] - albedos[i]) * (at - i);
}

/** The integral of `sheenValue` over the half sphere, by the midpoint rule. */
function integrateSheen(vz: number): number {
  const [rings, steps] = [48, 48];
  const vx = Math.sqrt(1 - vz * vz);
  let sum = 0;
  for (let j = 0; j < rings; j++) {
    const lz = (j + 0.5) / rings;
    const s = Math.sqrt(1 - lz * lz);
    for (let k = 0; k < steps; k++) {
      const cos = vx * s * Math.cos(((k + 0.5) / steps) * Math.PI) + vz * lz;
      sum += sheenValue(vz, lz, (vz + lz) / Math.sqrt(2 + 2 * cos));
    }
  }
  return (sum * 2 * Math.PI) / (rings * steps);
}

const STEPS = 32;

/**
 * Albedos of a microfacet surface (GGX) from each direction, for energy that must not be lost between layers (Kulla and
 * Conty 2017): 33 rows for perceptual roughness 0…1, each of 33 pairs for the cosine 0…1 and the pair of their means over the half
 * sphere. A pair: what a perfect reflector throws back after one meeting; what of it is weighted by the fifth power of Schlick.
 */
export function microfacetAlbedos(): Float32Array {
  const row = (STEPS + 2) * 2;
  const out = new Float32Array((STEPS + 1) * row);
  const half = [0, 0, 0];
  const side = 16;
  for (let j = 0; j <= STEPS; j++) {
    const a = Math.max(0.002, (j / STEPS) ** 2);
    for (let i = 0; i <= STEPS; i++) {
      const vz = Math.max(0.004, i / STEPS);
      const vx = Math.sqrt(Math.max(0, 1 - vz * vz));
      let [one, grazing] = [0, 0];
      for (let p = 0; p < side; p++)
        for (let q = 0; q < side; q++) {
          sampleGgxNormal(vx, 0, vz, a, (p + 0.5) / side, (q + 0.5) / side, half);
          const vh = vx * half[0] + vz * half[2];
          const lz = 2 * vh * half[2] - vz;
          if (lz <= 0) continue;
          const weight = (1 + lambda(vz, a)) / (1 + lambda(vz, a) + lambda(lz, a)) / (side * side);
          one += weight;
          grazing += weight * fifth(Math.max(0, 1 - vh));
        }
      out.set([one, grazing], j * row + i * 2);
    }
    for (let c = 0; c < 2; c++) {
      // Straight between the cosines, as it is looked up: the mean of E · 2 cos.
      let mean = 0;
      for (let i = 0; i < STEPS; i++) {
        const [p, q] = [out[j * row + i * 2 + c], out[j * row + i * 2 + 2 + c]];
        const [x, y] = [i / STEPS, (i + 1) / STEPS];
        mean += ((p * (2 * x + y) + q * (x + 2 * y)) / 3) * (y - x);
      }
      out[j * row + (STEPS + 1) * 2 + c] = mean;
    }
  }
  return out;
}

/** A small fast generator (sfc32, from the PractRand suite) with a seed of its own. */
export class Random {
  private a: number;
  private b: number;
  private c: number;
  private d = 1;

  constructor(seed: number) {
    this.a = Math.imul(seed | 0, 0x9e3779b1);
    this.b = Math.imul((seed | 0) ^ 0x6a09e667, 0x85ebca77);
    this.c = 0x243f6a88;
    for (let i = 0; i < 15; i++) this.next();
  }

  /** The next number in 0…1 (1 excluded). */
  next(): number {
    const t = (((this.a + this.b) | 0) + this.d) | 0;
    this.d = (this.d + 1) | 0;
    this.a = this.b ^ (this.b >>> 9);
    this.b = (this.c + (this.c << 3)) | 0;
    this.c = ((this.c << 21) | (this.c >>> 11)) + t;
    return (t >>> 0) / 4294967296;
  }
}
