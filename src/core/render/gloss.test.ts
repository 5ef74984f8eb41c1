import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { glossOf, roughnessFor, SHEENS, sheenOf } from './gloss';

/** Reflectance of polished glass at 60° by Fresnel's equations, written out. */
const fresnel60 = (n: number): number => {
  const [c, t] = [0.5, Math.sqrt(1 - 0.75 / (n * n))];
  const [s, p] = [(c - n * t) / (c + n * t), (n * c - t) / (n * c + t)];
  return (s * s + p * p) / 2;
};

describe('gloss at 60°', () => {
  it('of polished surfaces is their reflectance against black glass, which has 100 units', () => {
    expect(fresnel60(1.567)).toBeCloseTo(0.10006, 4);
    expect(glossOf({ roughness: 0, ior: 1.567 })).toBeCloseTo(100, 6);
    // By Fresnel’s equations.
    for (const n of [1.4, 1.5, 1.54, 1.6, 1.8]) expect(glossOf({ roughness: 0, ior: n })).toBeCloseTo((100 * fresnel60(n)) / fresnel60(1.567), 6);
    expect(glossOf({ roughness: 0, ior: 1.5 })).toBeGreaterThan(88);
    expect(glossOf({ roughness: 0, ior: 1.5 })).toBeLessThan(91);
    // A mirror of metal has ten times that.
    expect(glossOf({ roughness: 0, ior: 1.5, metalness: 1 })).toBeCloseTo(100 / fresnel60(1.567), 6);
  });

  it('falls as a surface grows rougher, without a jump, and is never more than that of a mirror', () => {
    let before = glossOf({ roughness: 0, ior: 1.5 });
    for (let r = 0.02; r <= 1; r += 0.02) {
      const gloss = glossOf({ roughness: r, ior: 1.5 });
      expect(gloss).toBeLessThan(before * 1.012);
      expect(gloss).toBeGreaterThan(0);
      expect(before - gloss).toBeLessThan(12);
      before = gloss;
    }
  });

  it('is had again by the roughness that is found for it', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 85, noNaN: true }), fc.double({ min: 1.45, max: 1.6, noNaN: true }), (gloss, ior) => {
        fc.pre(gloss < glossOf({ roughness: 0.08, ior }));
        fc.pre(gloss > glossOf({ roughness: 1, ior }));
        expect(glossOf({ roughness: roughnessFor(gloss, ior), ior })).toBeCloseTo(gloss, 2);
      }),
      { numRuns: 40 },
    );
  });

  it('has the words of the trade', () => {
    expect([0.5, 5, 20, 45, 90].map(sheenOf)).toEqual(['dead flat', 'matt', 'eggshell', 'satin', 'gloss']);
    for (const { name, about } of SHEENS) {
      expect(sheenOf(about)).toBe(name);
      expect(sheenOf(glossOf({ roughness: roughnessFor(about, 1.5), ior: 1.5 }))).toBe(name);
    }
  });
});
