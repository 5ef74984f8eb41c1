import { describe, expect, it } from 'vitest';
import { blackBody, luminance } from '../finishes/colour';
import { usualWhite } from '../light/white';
import { emptyProject } from '../project/schema';
import { Film } from './film';
import { Random } from './bsdf';
import { develop } from './development';
import { balance, exposureScale, meterExposure, SHOULDER, toneCurve } from './tone';

const [W, H] = [48, 32];

/** A wall lit at the left half only, with grain of a known spread, seen in passes. */
function grainy(passes: number, spread: number): Film {
  const random = new Random(7);
  const n = W * H;
  const sums = {
    width: W,
    height: H,
    groups: 1,
    counts: new Uint32Array(n).fill(passes),
    light: new Float32Array(n * 4),
    squares: new Float32Array(n),
    guides: new Float32Array(n * 8),
  };
  for (let p = 0; p < passes; p++)
    for (let i = 0; i < n; i++) {
      // Exponentially distributed: many dark samples, few bright ones, as in path tracing.
      const l = (i % W < W / 2 ? 80 : 8) * (1 - spread + spread * -Math.log(1 - random.next()));
      for (let c = 0; c < 3; c++) sums.light[i * 4 + c] += l;
      sums.squares[i] += l * l;
    }
  return new Film(sums);
}

describe('a film', () => {
  it('tells the variance of the mean as it is: σ² / n', () => {
    const picture = grainy(64, 0.6);
    const variance = picture.variance();
    let left = 0;
    for (let y = 0; y < H; y++) for (let x = 0; x < W / 2; x++) left += variance[y * W + x] / ((H * W) / 2);
    expect(left / ((80 * 0.6) ** 2 / 64)).toBeCloseTo(1, 0);
    expect(Math.abs(left / ((80 * 0.6) ** 2 / 64) - 1)).toBeLessThan(0.1);
  });

  it('of several hands has the mean of all samples, however many each has made', () => {
    const [a, b] = [grainy(8, 0), grainy(24, 0)];
    const both = Film.of([a.sums, b.sums]);
    expect(both.samples).toBe(32);
    expect(both.mean()[0]).toBeCloseTo(80, 3);
    expect(both.mean(0)).toEqual(both.mean());
    // The parts are left as they were.
    expect(a.samples).toBe(8);
    expect(() => Film.of([a.sums, { ...b.sums, width: W / 2 }])).toThrow(RangeError);
  });
});

describe('white', () => {
  it('shows a grey lit by a light of its temperature as grey, as bright as under the display’s own light', () => {
    for (const kelvin of [2700, 3200, 5500, 6500, 9000]) {
      const light = blackBody(kelvin);
      const out = develop(Float32Array.from(light.map((c) => c * 100)), 8, kelvin);
      const grey = develop(new Float32Array([100, 100, 100]), 8);
      for (let c = 0; c < 3; c++) expect(Math.abs(out[c] - grey[c])).toBeLessThanOrEqual(1);
    }
    // Daylight looks blue to a camera set to lamps, lamps yellow to one set to daylight.
    const [r, , b] = develop(new Float32Array([100, 100, 100]), 8, 3200);
    expect(b).toBeGreaterThan(r);
    expect(balance(null)).toEqual([1, 1, 1]);
  });

  it('is the sun’s by day, a covered sky’s under clouds, that of lamps after sunset', () => {
    const { site } = emptyProject('p', 'P');
    expect(usualWhite({ ...site, moment: '2026-05-12T12:00' })).toBe(5500);
    expect(usualWhite({ ...site, moment: '2026-05-12T12:00', sky: 1 })).toBe(6500);
    expect(usualWhite({ ...site, moment: '2026-12-12T23:00' })).toBe(3200);
  });
});

describe('exposure', () => {
  it('saturates at the luminance of ISO 2720: 1.2 · 2^EV', () => {
    expect(exposureScale(10)).toBeCloseTo(1 / (1.2 * 1024), 12);
    const white = develop(new Float32Array([600, 600, 600]), 8.5);
    expect(white[0]).toBeGreaterThan(235);
  });

  it('shows a colour below the shoulder as it is', () => {
    const rgb = [0.4, 0.2, 0.05];
    toneCurve(rgb);
    expect(rgb).toEqual([0.4, 0.2, 0.05]);
  });

  it('rises steadily, never reaches past white, and bleaches what is far too bright', () => {
    let last = 0;
    for (let l = 0.01; l < 1000; l *= 1.3) {
      const rgb = [l, l * 0.6, l * 0.2];
      toneCurve(rgb);
      expect(rgb[0]).toBeGreaterThan(last);
      expect(rgb[0]).toBeLessThan(1);
      if (l < SHOULDER) expect(rgb[2] / rgb[0]).toBeCloseTo(0.2, 9);
      last = rgb[0];
    }
    const sun = [1000, 600, 200];
    toneCurve(sun);
    expect(sun[2] / sun[0]).toBeGreaterThan(0.95);
  });

  it('one step more is half the light, without rendering again', () => {
    const radiance = new Float32Array([100, 80, 60]);
    const linear = (v: number): number => (v / 255 <= 0.04045 ? v / 255 / 12.92 : ((v / 255 + 0.055) / 1.055) ** 2.4);
    const [a, b] = [develop(radiance, 8), develop(radiance, 9)];
    expect(linear(a[0]) / linear(b[0])).toBeCloseTo(2, 1);
  });

  it('meters the same scene a step brighter when it has twice the light', () => {
    const scene = Float32Array.from({ length: 300 }, (_, i) => 10 + (i % 50));
    expect(meterExposure(scene.map((v) => v * 2)) - meterExposure(scene)).toBeCloseTo(1, 5);
    expect(luminance([1, 1, 1])).toBeCloseTo(1, 9);
  });
});
