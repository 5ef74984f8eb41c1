import { describe, expect, it } from 'vitest';
import { fresnelDielectric, ggxDensity, ggxValue, Random, reflect, refract } from './bsdf';

describe('boundaries', () => {
  it('refracts by Snell’s law and reflects totally beyond the critical angle', () => {
    for (const eta of [1.33, 1.5, 2.4])
      for (const angle of [0, 0.3, 0.8, 1.4]) {
        const d = [Math.sin(angle), 0, -Math.cos(angle)];
        const out = refract(d, [0, 0, 1], eta)!;
        expect(Math.hypot(...out)).toBeCloseTo(1, 12);
        expect(Math.sin(angle)).toBeCloseTo(eta * out[0], 12);
      }
    expect(refract([Math.sin(0.75), 0, -Math.cos(0.75)], [0, 0, 1], 1 / 1.5)).toBeNull();
    expect(refract([Math.sin(0.72), 0, -Math.cos(0.72)], [0, 0, 1], 1 / 1.5)).not.toBeNull();
  });

  it('follows Fresnel: 4 % at normal incidence, nothing parallel at Brewster’s angle, all at grazing', () => {
    expect(fresnelDielectric(1, 1.5)).toBeCloseTo(0.04, 12);
    const brewster = Math.atan(1.5);
    // At Brewster's angle only the perpendicular part is left: half of sin²(θi − θt).
    const t = Math.asin(Math.sin(brewster) / 1.5);
    expect(fresnelDielectric(Math.cos(brewster), 1.5)).toBeCloseTo(Math.sin(brewster - t) ** 2 / 2, 10);
    expect(fresnelDielectric(1e-9, 1.5)).toBeCloseTo(1, 6);
  });

  it('mirrors direction at the normal', () => {
    expect(reflect([0.6, 0, -0.8], [0, 0, 1])).toEqual([0.6, 0, 0.8]);
  });

  it('bends a path through a solid ball lens as the lensmaker’s ball formula says', () => {
    // A paraxial ray through a ball of radius R and index n crosses the axis at EFL = nR / (2(n − 1)) from the centre.
    const n = 1.5;
    const h = 0.02;
    let d: [number, number, number] = [1, 0, 0];
    let p = [-Math.sqrt(1 - h * h), h, 0];
    d = refract(d, p, n)!;
    const b = p[0] * d[0] + p[1] * d[1];
    p = [p[0] - 2 * b * d[0], p[1] - 2 * b * d[1], 0];
    d = refract(d, [-p[0], -p[1], 0], 1 / n)!;
    expect(p[0] - (p[1] / d[1]) * d[0]).toBeCloseTo((n * 1) / (2 * (n - 1)), 2);
  });

  it('keeps the microfacet lobe normalised: its density integrates to one at most, its weight too', () => {
    const random = new Random(7);
    for (const a of [0.1, 0.4, 0.9])
      for (const vz of [0.3, 0.7, 1]) {
        const vx = Math.sqrt(1 - vz * vz);
        let density = 0;
        let weight = 0;
        const n = 60000;
        for (let i = 0; i < n; i++) {
          const lz = random.next();
          const phi = 2 * Math.PI * random.next();
          const s = Math.sqrt(1 - lz * lz);
          const h = [vx + s * Math.cos(phi), s * Math.sin(phi), vz + lz];
          const hz = h[2] / Math.hypot(...h);
          density += (ggxDensity(vz, hz, a) * 2 * Math.PI) / n;
          weight += (ggxValue(vz, lz, hz, a) * 2 * Math.PI) / n;
        }
        expect(density).toBeLessThan(1.06);
        expect(weight).toBeLessThan(density + 1e-9);
      }
  });
});
